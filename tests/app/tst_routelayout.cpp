// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/route/routelayout.h"
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
}

} // namespace tst_routelayout

MILDPATH_TEST(tst_routelayout, TestRouteLayout)
#include "tst_routelayout.moc"
