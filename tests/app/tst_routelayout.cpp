// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/route/routelayout.h"
#include "testing.h"

using namespace mildpath;

class TestRouteLayout : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void everyStopAndFeed_hasItsPlace_data();
    void everyStopAndFeed_hasItsPlace();
    void pointsStayApartAndInside_data();
    void pointsStayApartAndInside();
    void oilOrder_runsAlongTheGallery();
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
        if (stop.kind == "gallery")
            continue; // drawn as a line, not as a point
        QVERIFY2(std::any_of(layout.points.begin(), layout.points.end(),
                             [&](const RoutePoint &p) { return p.stop.toStdString() == stop.id; }),
                 stop.id.c_str());
    }
    for (const Element &e : build.circuit.elements)
        if (e.id.find("feed") != std::string::npos || e.type == "crank_drilling" || e.type == "jet")
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

QTEST_MAIN(TestRouteLayout)
#include "tst_routelayout.moc"
