// SPDX-License-Identifier: GPL-3.0-or-later
// The build sheet: what stands on it, that its pictures can be drawn, that nothing on it is markup.
#include "checks/assessment.h"
#include "document/edit.h"
#include "report/buildsheet.h"
#include "report/pictures.h"
#include "report/sheetrecords.h"
#include "report/summarypictures.h"
#include "start/afterwards.h"
#include "start/gate.h"
#include "testing.h"

#include <QXmlStreamReader>

using namespace mildpath;

namespace tst_report {

class TestReport : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void sheet_carriesWhatWasMeasuredByWhom();
    void sheet_saysWhetherItMayStart();
    void sheet_carriesWhatARunLeft();
    void pictures_areWellFormedAndInside_data();
    void pictures_areWellFormedAndInside();
    void pictures_drawEveryReading();
    void pageOne_drawsEverySizeReadingAndPlug();
    void records_standAsTheListHasThem();
    void whatOutlastsTheBuild_standsOnTheSheet();
    void html_isOneFileForThePaper_data();
    void html_isOneFileForThePaper();
    void text_isNeverMarkup();
    void tables_haveAsManyWidthsAsColumns();
};

namespace {

QString wordsOf(const BuildSheet &sheet)
{
    QString out = QString::fromStdString(said(sheet.title) + "\n" + said(sheet.state) + "\n");
    for (const SheetBlock &b : sheet.blocks)
        if (const auto *t = std::get_if<SheetTable>(&b)) {
            for (const auto &row : t->rows)
                for (const SheetCell &c : row)
                    out += QString::fromStdString(said(c.text)) + '\n';
        } else if (const auto *h = std::get_if<SheetHeading>(&b)) {
            out += QString::fromStdString(said(h->text)) + '\n';
        } else if (const auto *p = std::get_if<SheetText>(&b)) {
            out += QString::fromStdString(said(p->text)) + '\n';
        }
    return out;
}

/// The set after its first start: what was signed off has names and reasons.
Build withSignature()
{
    return loadBuild(demoBuildPath().parent_path() / "harbour-fire-pump-started.mildpath")->build;
}

} // namespace

void TestReport::sheet_carriesWhatWasMeasuredByWhom()
{
    const Build build = withSignature();
    const Assessment a = assess(build);
    const QString words = wordsOf(buildSheet(build, a, "2026-03-02", {}));
    for (const Stop &s : build.engine.stops)
        QVERIFY2(words.contains(QString::fromStdString(s.name)), s.name.c_str());
    for (const GaugedSize &s : a.sizes)
        if (s.measured)
            QVERIFY2(words.contains(QString::fromStdString(s.name)), s.name.c_str());
    // Every builder who took a standing reading or saw something stands on it.
    for (const Reading *r : standingReadings(build))
        QVERIFY2(words.contains(QString::fromStdString(r->by)), r->by.c_str());
    for (const SignOff &o : build.signOffs) {
        QVERIFY2(words.contains(QString::fromStdString(o.by)), o.by.c_str());
        QVERIFY2(words.contains(QString::fromStdString(o.note)), o.check.c_str());
    }
    for (const Finding &f : a.findings)
        if (f.mark == Mark::Hold || f.mark == Mark::LookAgain)
            QVERIFY2(words.contains(QString::fromStdString(said(f.text))), said(f.text).c_str());
    QVERIFY(words.contains(QStringLiteral("qualified shop")));
}

void TestReport::sheet_saysWhetherItMayStart()
{
    const Build build = demoBuild();
    const BuildSheet open = buildSheet(build, assess(build), "d", {});
    QCOMPARE(open.mark, Mark::Hold);
    QVERIFY(QString::fromStdString(said(open.state)).startsWith(QStringLiteral("May not fire")));
    QVERIFY(wordsOf(open).contains(QStringLiteral("All that is open")));
    const Build sound = withSignature();
    const BuildSheet passed = buildSheet(sound, assess(sound), "d", {});
    QCOMPARE(passed.mark, Mark::SignedOff);
    QVERIFY(QString::fromStdString(said(passed.state)).startsWith(QStringLiteral("May fire")));
}

void TestReport::sheet_carriesWhatARunLeft()
{
    const auto loaded
        = loadBuild(demoBuildPath().parent_path() / "harbour-fire-pump-history.mildpath");
    QVERIFY(loaded.has_value());
    const Build &build = loaded->build;
    const BuildSheet sheet = buildSheet(build, assess(build), "2026-10-06", {});
    const QString words = wordsOf(sheet);
    for (const char *said : { "Filter cuts", "copper colour: bearings first", "Oil analysis",
                              "copper and lead: bearings", "Re-inspection", "Bore finish",
                              "2, before strokes", "1, weak", "How the rings seal" })
        QVERIFY2(words.contains(QString::fromUtf8(said)), said);
    // Widths make up a page, and every row is as wide as its head.
    for (const SheetBlock &b : sheet.blocks)
        if (const auto *t = std::get_if<SheetTable>(&b)) {
            double whole = 0;
            for (const double w : t->widths)
                whole += w;
            verifyClose(whole, 1, 1e-9);
            for (const auto &row : t->rows)
                QCOMPARE(row.size(), t->head.size());
        }
    QVERIFY(!wordsOf(buildSheet(demoBuild(), assess(demoBuild()), "d", {}))
                 .contains(QStringLiteral("Filter cuts")));
}

void TestReport::pictures_areWellFormedAndInside_data()
{
    QTest::addColumn<QString>("file");
    QTest::newRow("fire pump") << "demo/harbour-fire-pump.mildpath";
    QTest::newRow("alloy") << "demo/harbour-tender-alloy.mildpath";
    QTest::newRow("started") << "demo/harbour-fire-pump-started.mildpath";
    QTest::newRow("turbo") << "demo/harbour-launch-turbo.mildpath";
}

void TestReport::pictures_areWellFormedAndInside()
{
    QFETCH(QString, file);
    const auto loaded
        = loadBuild(demoBuildPath().parent_path() / file.section('/', 1).toStdString());
    QVERIFY(loaded.has_value());
    const auto pictures = sheetPictures(loaded->build, assess(loaded->build), {});
    QVERIFY(pictures.size() >= 3);
    for (const SheetPicture &p : pictures) {
        QXmlStreamReader xml(QString::fromStdString(p.svg));
        int drawn = 0;
        while (!xml.atEnd()) {
            xml.readNext();
            if (!xml.isStartElement())
                continue;
            ++drawn;
            // Nothing is drawn outside the picture: it would be cut off in print.
            for (const char *key : { "x", "x1", "x2", "cx" })
                if (xml.attributes().hasAttribute(QLatin1String(key))) {
                    const double x = xml.attributes().value(QLatin1String(key)).toDouble();
                    QVERIFY2(x >= -1 && x <= p.width + 1, p.title.c_str());
                }
            for (const char *key : { "y", "y1", "y2", "cy" })
                if (xml.attributes().hasAttribute(QLatin1String(key))) {
                    const double y = xml.attributes().value(QLatin1String(key)).toDouble();
                    QVERIFY2(y >= -1 && y <= p.height + 1, p.title.c_str());
                }
        }
        QVERIFY2(!xml.hasError(), qPrintable(xml.errorString()));
        QVERIFY(drawn > 5);
        QVERIFY(p.width <= sheetPictureWidth);
    }
}

void TestReport::pictures_drawEveryReading()
{
    const Build build = demoBuild();
    const Assessment a = assess(build);
    const QString svg = QString::fromStdString(clearancePicture(build, a, "main", {}).svg);
    qsizetype rings = 0;
    for (const GaugedSize &s : a.sizes)
        if (s.family == "main")
            rings += static_cast<qsizetype>(s.readings.size());
    QVERIFY(rings > 10);
    QCOMPARE(svg.count(QStringLiteral("r=\"2.40\"")), rings);
    QVERIFY(clearancePicture(build, a, "nothing", {}).svg.empty());
}

void TestReport::pageOne_drawsEverySizeReadingAndPlug()
{
    const Build build = withSignature();
    const Assessment a = assess(build);
    // A dot for each size that was measured, a ring for each that was not.
    const QString sizes = QString::fromStdString(sizesPicture(a, {}).svg);
    qsizetype measured = 0, assumed = 0;
    for (const GaugedSize &s : a.sizes)
        if (s.known && s.limits && s.limits->max_um > s.limits->min_um)
            ++(s.measured ? measured : assumed);
    QVERIFY(measured > 10 && assumed > 0);
    QCOMPARE(sizes.count(QStringLiteral("r=\"2.40\"")), measured + assumed);
    QCOMPARE(sizes.count(QStringLiteral("fill=\"#ffffff\"")), assumed);
    const auto residuals = residualsOf(build, a.sizes);
    QVERIFY(residuals && !residuals->empty());
    const QString read = QString::fromStdString(readAgainstPicture(*residuals, {}).svg);
    QCOMPARE(read.count(QStringLiteral("r=\"3.40\"")),
             static_cast<qsizetype>(std::min<size_t>(8, residuals->size())));
    for (const Residual &r : *residuals)
        QVERIFY(read.contains(
            QString::fromStdString(render(asPressure(r.reading->pressure_kpa * 1e3), {}))));
    QVERIFY(readAgainstPicture({}, {}).svg.empty());
    const QString plugs = QString::fromStdString(plugsPicture(build, a).svg);
    for (const Plug &p : build.plugs)
        QVERIFY2(plugs.contains(QString::fromStdString(p.name)), p.name.c_str());
    int clean = 0, asked = 0;
    for (const Check &c : a.checks.all())
        if (c.asked && c.kind->id == "clean") {
            ++asked;
            clean += c.state == CheckState::Proven;
        }
    QVERIFY(plugs.contains(QStringLiteral("%1 of %2 passages").arg(clean).arg(asked)));
}

/// What a table of the sheet shows as its mark is what the list of checks says.
void TestReport::records_standAsTheListHasThem()
{
    const Build build = withSignature();
    const Assessment a = assess(build);
    const auto rowsOf = [](const std::vector<SheetBlock> &blocks) {
        std::vector<std::vector<SheetCell>> out;
        for (const SheetBlock &b : blocks)
            if (const auto *t = std::get_if<SheetTable>(&b))
                out.insert(out.end(), t->rows.begin(), t->rows.end());
        return out;
    };
    const auto plugs = rowsOf(plugBlocks(build, a));
    QCOMPARE(plugs.size(), build.plugs.size());
    for (size_t i = 0; i < plugs.size(); ++i)
        QCOMPARE(markWord(*plugs[i][0].mark),
                 markWord(worstAsked(a.checks, { "plugin", "plugseen" }, build.plugs[i].id)));
    const auto bolts = rowsOf(torqueBlocks(build, a));
    QCOMPARE(bolts.size(), build.torqueCards.size());
    for (size_t i = 0; i < bolts.size(); ++i)
        QCOMPARE(markWord(*bolts[i][0].mark),
                 markWord(worstAsked(a.checks, { "torq", "bolts" }, build.torqueCards[i].id)));
    QCOMPARE(rowsOf(findBlocks(build)).size(), standing(build.finds).size());
    size_t cleaned = 0;
    for (const CleanEvent *e : inOrder(build.events))
        cleaned += e->scope != "plug";
    QCOMPARE(rowsOf(cleaningBlocks(build)).size(), cleaned);
    // An instrument of the shop by its figures; one only named in readings as that.
    Build described = build;
    Instrument i;
    i.id = "r1";
    i.name = "Bore gauge 9";
    i.kind = "bore_gauge";
    i.u = 1.5;
    i.checked = "2026-03-01";
    described.instruments.push_back(i);
    const auto named = rowsOf(instrumentBlocks(build)), with = rowsOf(instrumentBlocks(described));
    QCOMPARE(with.size(), named.size() + 1);
    QCOMPARE(said(with.front()[2].text), std::string("3.0 µm")); // U, k = 2
    QCOMPARE(said(with.front()[4].text), std::string("1 Mar 2026"));
    QCOMPARE(worstAsked(a.checks, { "nothing" }, "nowhere"), Mark::NotAsked);
}

/// Weights, checks of one's own, next looks: on the sheet as they are judged, and no heading where
/// there are none.
void TestReport::whatOutlastsTheBuild_standsOnTheSheet()
{
    Build b = withSignature();
    QVERIFY(ownBlocks(assess(b)).empty() && lookBlocks(b, "2026-04-01").empty());
    OwnCheck own;
    own.text = "Oil thrower is on";
    own.by = "J. Moor";
    own.at = "2026-03-01T09:00:00";
    b = applyEdit(b, AddEntry { own }).value();
    NextLook look;
    look.item = "Baffle";
    look.everyDays = 20;
    look.at = "2026-03-01T09:00:00";
    b = applyEdit(b, AddEntry { look }).value();
    const QString words = wordsOf(buildSheet(b, assess(b), "2026-03-31", {}));
    for (const char *text : { "Weights", "3.4 g apart, 2.0 g allowed: 3 is the heaviest",
                              "Oil thrower is on", "Baffle", "due: 30 days of 20 days" })
        QVERIFY2(plainly(words).contains(QString::fromUtf8(text)), text);
    const auto blocks = lookBlocks(b, "2026-03-31");
    const auto &row = std::get<SheetTable>(blocks[1]).rows.front();
    QCOMPARE(*row.front().mark, Mark::LookAgain);
    QCOMPARE(*std::get<SheetTable>(lookBlocks(b, "2026-03-10")[1]).rows.front().front().mark,
             Mark::NotDone);
}

void TestReport::html_isOneFileForThePaper_data()
{
    QTest::addColumn<bool>("letter");
    QTest::addColumn<QString>("size");
    QTest::newRow("A4") << false << "size: A4";
    QTest::newRow("Letter") << true << "size: letter";
}

void TestReport::html_isOneFileForThePaper()
{
    QFETCH(bool, letter);
    QFETCH(QString, size);
    const Build build = demoBuild();
    const QString html = QString::fromStdString(sheetToHtml(
        buildSheet(build, assess(build), "2026-03-02", {}), letter ? Paper::Letter : Paper::A4));
    QVERIFY(html.contains(size));
    // Nothing is fetched from anywhere: pictures are in it.
    QVERIFY(!html.contains(QStringLiteral("src=")) && !html.contains(QStringLiteral("href=")));
    QVERIFY(html.count(QStringLiteral("<figure")) >= 5);
    QCOMPARE(html.count(QStringLiteral("<tr>")), html.count(QStringLiteral("</tr>")));
    QCOMPARE(html.count(QStringLiteral("<svg")), html.count(QStringLiteral("</svg>")));
    // Heads repeat where a table goes over a page.
    QVERIFY(html.contains(QStringLiteral("table-header-group")));
}

void TestReport::text_isNeverMarkup()
{
    Build build = demoBuild();
    build.name = "<script>alert(1)</script> & \"Co\"";
    build.notes = "a < b\x01";
    const QString html
        = QString::fromStdString(sheetToHtml(buildSheet(build, assess(build), "d", {}), Paper::A4));
    QVERIFY(!html.contains(QStringLiteral("<script>")));
    QVERIFY(html.contains(QStringLiteral("&lt;script&gt;alert(1)&lt;/script&gt; &amp;")));
    QVERIFY(html.contains(QStringLiteral("a &lt; b")));
    QVERIFY(!html.contains(QChar(1)));
}

void TestReport::tables_haveAsManyWidthsAsColumns()
{
    const Build build = withSignature();
    int tables = 0;
    for (const SheetBlock &b : buildSheet(build, assess(build), "d", {}).blocks) {
        const auto *t = std::get_if<SheetTable>(&b);
        if (!t)
            continue;
        ++tables;
        QCOMPARE(t->head.size(), t->widths.size());
        double sum = 0;
        for (const double w : t->widths)
            sum += w;
        verifyClose(sum, 1, 1e-9, 0, QStringLiteral("widths"));
        for (const auto &row : t->rows)
            QCOMPARE(row.size(), t->widths.size());
    }
    QVERIFY(tables >= 6);
}

} // namespace tst_report

MILDPATH_TEST(tst_report, TestReport)
#include "tst_report.moc"
