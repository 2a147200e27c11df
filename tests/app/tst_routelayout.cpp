// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/operating.h"
#include "assess/sizes.h"
#include "bench/route/routelayout.h"
#include "bench/route/routemap.h"
#include "document/edit.h"
#include "testing.h"

#include <QLineF>

using namespace mildpath;

namespace tst_routelayout {

class TestRouteLayout : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void everyStopAndFeed_hasItsPlace_data();
    void everyStopAndFeed_hasItsPlace();
    void pointsStayApartAndInside_data();
    void pointsStayApartAndInside();
    void oilOrder_runsAlongTheGallery();
    void risers_passThroughNoRow_data();
    void risers_passThroughNoRow();
    void editedEngines_keepTheirPlaces();
    void everyStop_hangsOnSomethingOrIsNamed_data();
    void everyStop_hangsOnSomethingOrIsNamed();
    void words_standApart_data();
    void words_standApart();
};

namespace {

void sizes()
{
    QTest::addColumn<QString>("file");
    QTest::addColumn<QRectF>("area");
    for (const TemplateInfo &t : listTemplates())
        for (const QRectF &area :
             { QRectF(0, 0, 630, 520), QRectF(0, 0, 800, 620), QRectF(0, 0, 1450, 900) })
            QTest::addRow("%s %g", t.name.c_str(), area.width())
                << QString::fromStdString(t.path.string()) << area;
}

} // namespace

void TestRouteLayout::everyStopAndFeed_hasItsPlace_data()
{
    sizes();
}

void TestRouteLayout::everyStopAndFeed_hasItsPlace()
{
    QFETCH(QString, file);
    QFETCH(QRectF, area);
    const Build build = loadBuild(file.toStdString())->build;
    const RouteLayout layout = layoutRoute(build, area);
    for (const Stop &stop : build.engine.stops) {
        if (stop.kind == StopKind::Gallery)
            continue; // drawn as a line, not as a point
        QVERIFY2(std::any_of(layout.points.begin(), layout.points.end(),
                             [&](const RoutePoint &p) { return p.stop.toStdString() == stop.id; }),
                 stop.id.c_str());
    }
    for (const Element &e : build.circuit.elements)
        if (e.id.find("feed") != std::string::npos || e.kind == ElementKind::CrankDrilling
            || e.kind == ElementKind::Jet)
            QVERIFY2(std::any_of(layout.lines.begin(), layout.lines.end(),
                                 [&](const RouteLine &l) { return l.element == e.id; }),
                     e.id.c_str());
    QVERIFY(!layout.gaugeLine.isEmpty());
}

void TestRouteLayout::pointsStayApartAndInside_data()
{
    sizes();
}

void TestRouteLayout::pointsStayApartAndInside()
{
    QFETCH(QString, file);
    QFETCH(QRectF, area);
    const RouteLayout layout = layoutRoute(loadBuild(file.toStdString())->build, area);
    for (size_t i = 0; i < layout.points.size(); ++i) {
        QVERIFY2(area.contains(layout.points[i].at), qPrintable(layout.points[i].name));
        for (size_t j = i + 1; j < layout.points.size(); ++j) {
            const QPointF d = layout.points[i].at - layout.points[j].at;
            QVERIFY2(std::hypot(d.x(), d.y()) > 24,
                     qPrintable(layout.points[i].name + layout.points[j].name));
        }
    }
}

void TestRouteLayout::oilOrder_runsAlongTheGallery()
{
    const RouteLayout layout = layoutRoute(demoBuild(), QRectF(0, 0, 800, 620));
    double before = 0;
    for (const RoutePoint &p : layout.points)
        if (p.stop.startsWith(QStringLiteral("main_"))) {
            QVERIFY(p.at.x() > before);
            before = p.at.x();
        }
}

void TestRouteLayout::risers_passThroughNoRow_data()
{
    sizes();
}

void TestRouteLayout::risers_passThroughNoRow()
{
    QFETCH(QString, file);
    QFETCH(QRectF, area);
    const RouteLayout layout = layoutRoute(loadBuild(file.toStdString())->build, area);
    double gallery = 0; // the mains' feeds begin on it
    for (const RouteLine &l : layout.lines)
        if (l.element.starts_with("main_feed"))
            gallery = l.path.front().y();
    QVERIFY(gallery > 0);
    for (const RouteLine &up : layout.lines)
        for (int i = 1; i < up.path.size(); ++i) {
            const QLineF rise(up.path[i - 1], up.path[i]);
            if (std::abs(rise.dx()) > 1 || std::abs(rise.dy()) < 10)
                continue;
            const double top = std::min(rise.y1(), rise.y2()),
                         foot = std::max(rise.y1(), rise.y2());
            for (const RouteLine &across : layout.lines)
                for (int k = 1; k < across.path.size(); ++k) {
                    const QLineF row(across.path[k - 1], across.path[k]);
                    if (std::abs(row.dy()) > 1 || row.y1() > gallery - 5)
                        continue;
                    const double left = std::min(row.x1(), row.x2());
                    const double right = std::max(row.x1(), row.x2());
                    const bool crosses = rise.x1() > left + 2 && rise.x1() < right - 2
                        && row.y1() > top + 2 && row.y1() < foot - 2;
                    QVERIFY2(!crosses, (up.element + " through " + across.element).c_str());
                }
        }
}

void TestRouteLayout::editedEngines_keepTheirPlaces()
{
    Build b = demoBuild();
    for (const AddStop &add : { AddStop { StopKind::Turbo, "", "main_gallery" },
                                AddStop { StopKind::Cooler, "", "filter" },
                                AddStop { StopKind::BalanceShaft, "", "cam_bearings" },
                                AddStop { StopKind::Rocker, "", "lifter_gallery" },
                                AddStop { StopKind::Phaser, "", "cam_bearings" },
                                AddStop { StopKind::Plug, "", "cam_bearings" },
                                AddStop { StopKind::Scavenge, "", "sump_pickup" } })
        b = applyEdit(b, add).value();
    const RouteLayout layout = layoutRoute(b, QRectF(0, 0, 800, 620));
    for (const Stop &stop : b.engine.stops)
        QVERIFY2(stop.kind == StopKind::Gallery
                     || std::any_of(
                         layout.points.begin(), layout.points.end(),
                         [&](const RoutePoint &p) { return p.stop.toStdString() == stop.id; }),
                 stop.id.c_str());
    for (const RoutePoint &p : layout.points)
        QVERIFY2(layout.area.contains(p.at), qPrintable(p.name));
    QVERIFY(layout.notDrawn.empty());
    // What hangs on nothing is not put somewhere: it is named.
    Stop loose;
    loose.id = "loose";
    loose.name = "Loose jet";
    loose.kind = StopKind::Jet;
    b.engine.stops.push_back(loose);
    const RouteLayout with = layoutRoute(b, QRectF(0, 0, 800, 620));
    QCOMPARE(with.notDrawn, (std::vector<QString> { QStringLiteral("Loose jet") }));
    QCOMPARE(with.points.size(), layout.points.size());
}

void TestRouteLayout::everyStop_hangsOnSomethingOrIsNamed_data()
{
    sizes();
}

void TestRouteLayout::everyStop_hangsOnSomethingOrIsNamed()
{
    QFETCH(QString, file);
    QFETCH(QRectF, area);
    const Build build = loadBuild(file.toStdString())->build;
    const RouteLayout layout = layoutRoute(build, area);
    const auto meets = [](const QPolygonF &path, const RoutePoint &p) {
        for (qsizetype i = 1; i < path.size(); ++i) {
            const QPointF a = path[i - 1], d = path[i] - a;
            const double length2 = QPointF::dotProduct(d, d);
            const double t = length2 > 0
                ? std::clamp(QPointF::dotProduct(p.at - a, d) / length2, 0.0, 1.0)
                : 0;
            if (QLineF(a + t * d, p.at).length() < radiusOf(p))
                return true;
        }
        return false;
    };
    for (const RoutePoint &p : layout.points) {
        bool hangs = meets(layout.returns, p) || meets(layout.gaugeLine, p);
        for (const RouteLine &line : layout.lines)
            hangs = hangs || meets(line.path, p);
        for (const QPolygonF &join : layout.joins)
            hangs = hangs || meets(join, p);
        QVERIFY2(hangs, qPrintable(p.name));
    }
    for (const Stop &stop : build.engine.stops) {
        const bool named
            = std::any_of(layout.notDrawn.begin(), layout.notDrawn.end(),
                          [&](const QString &n) { return n == QString::fromStdString(stop.name); });
        const bool drawn
            = std::any_of(layout.points.begin(), layout.points.end(),
                          [&](const RoutePoint &p) { return p.stop.toStdString() == stop.id; });
        QVERIFY2(stop.kind == StopKind::Gallery || named != drawn, stop.id.c_str());
    }
}

void TestRouteLayout::words_standApart_data()
{
    QTest::addColumn<QString>("file");
    QTest::addColumn<QSize>("size");
    QTest::addColumn<UnitSystem>("system");
    // The map in a window of 1280x800 and 1100x700, the first also at twice the size.
    for (const TemplateInfo &t : listTemplates())
        for (const QSize &size : { QSize(900, 560), QSize(720, 460), QSize(560, 420) })
            for (const UnitSystem s : { UnitSystem::Metric, UnitSystem::Imperial })
                QTest::addRow("%s %d %d", t.name.c_str(), size.width(), static_cast<int>(s))
                    << QString::fromStdString(t.name) << size << s;
}

/// No word over another, over a point or outside; of what stands alone no figure is left out.
void TestRouteLayout::words_standApart()
{
    QFETCH(const QString, file);
    QFETCH(const QSize, size);
    QFETCH(const UnitSystem, system);
    Figure::setSystem(system);
    OpenBuild open { QString() };
    open.open(loadTemplate(file.toStdString())->build, {});
    RouteMap map(open);
    map.resize(size);
    map.setResult(assessAt(open.build(), judgeSizes(open.build()), 800, 100).value());
    map.grab(); // lays out
    Figure::setSystem(UnitSystem::Metric);
    const auto &points = map.layout().points;
    std::vector<QRectF> words;
    int nameless = 0;
    for (size_t i = 0; i < points.size(); ++i) {
        const RouteLabel &l = map.labels()[i];
        nameless += l.name.isEmpty();
        for (const auto &[text, area] :
             { std::pair(l.name, l.nameArea), std::pair(l.figure, l.figureArea) })
            if (!text.isEmpty()) {
                QVERIFY2(QRectF(map.rect()).contains(area), qPrintable(text));
                words.push_back(area);
                for (const RoutePoint &p : points)
                    QVERIFY2(!area.contains(p.at),
                             qPrintable(text + QStringLiteral(" on ") + p.name));
            }
        QVERIFY2(points[i].small || !l.name.isEmpty(), qPrintable(points[i].name));
    }
    for (size_t i = 0; i < words.size(); ++i)
        for (size_t k = i + 1; k < words.size(); ++k)
            QVERIFY(!words[i].intersects(words[k]));
    QVERIFY2(4 * nameless <= static_cast<int>(points.size()),
             qPrintable(QString::number(nameless)));
}

} // namespace tst_routelayout

MILDPATH_TEST(tst_routelayout, TestRouteLayout)
#include "tst_routelayout.moc"
