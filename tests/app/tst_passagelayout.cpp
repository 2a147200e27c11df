// SPDX-License-Identifier: GPL-3.0-or-later
#include "paint/passagelayout.h"
#include "paint/passagepainter.h"

#include "document/logbook.h"
#include "testing.h"

using namespace mildpath;

namespace tst_passagelayout {

class TestPassageLayout : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void layouts_keepApart_data();
    void layouts_keepApart();
};

void TestPassageLayout::layouts_keepApart_data()
{
    QTest::addColumn<QString>("name");
    for (const TemplateInfo &t : listTemplates())
        QTest::newRow(t.name.c_str()) << QString::fromStdString(t.name);
}

void TestPassageLayout::layouts_keepApart()
{
    QFETCH(QString, name);
    const Build b = loadTemplate(name.toStdString())->build;
    const PassageNetwork n(b.passages, b.plugs);
    const QRectF area(0, 0, 760, 240);
    size_t drawn = 0;
    for (const std::string &part : partsOf(b.passages)) {
        const PassageLayout l = layOutPart(n, part, area, stopNamesOf(b), stopKindsOf(b));
        drawn += l.passages.size();
        for (const DrawnPassage &d : l.passages) {
            QVERIFY2(area.adjusted(-1, -1, 1, 1).contains(d.a)
                         && area.adjusted(-1, -1, 1, 1).contains(d.b),
                     b.passages[static_cast<size_t>(d.passage)].id.c_str());
            // No name lies on another, and joints meet what they join.
            for (const DrawnPassage &o : l.passages)
                QVERIFY2(&o == &d || o.labelArea.isEmpty() || d.labelArea.isEmpty()
                             || !o.labelArea.intersects(d.labelArea),
                         qPrintable(d.label + QStringLiteral(" on ") + o.label));
        }
    }
    QCOMPARE(drawn, b.passages.size()); // every passage is drawn in its part
}

} // namespace tst_passagelayout

MILDPATH_TEST(tst_passagelayout, TestPassageLayout)
#include "tst_passagelayout.moc"
