// SPDX-License-Identifier: GPL-3.0-or-later
// Over all templates, speeds, temperatures and clearances: nothing jumps. Halving the step halves
// the largest change, but where a tight film runs away, which each does once.
#include "assess/operatingmodel.h"
#include "assess/sizes.h"
#include "document/families.h"
#include "rules/rules.h"
#include "storage/templates.h"
#include "testing.h"

#include <set>

using namespace mildpath;

namespace tst_sweeps {

class TestSweeps : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void speed_makesNoJump_data() { templateRows(); }
    void speed_makesNoJump();
    void temperature_makesNoJump_data() { templateRows(); }
    void temperature_makesNoJump();
    void clearance_makesNoJump_data() { templateRows(); }
    void clearance_makesNoJump();

private:
    static void templateRows()
    {
        QTest::addColumn<QString>("name");
        for (const TemplateInfo &t : listTemplates()) {
            if (sanitized && t.name != "inline-four-wet-sump")
                continue;
            QTest::newRow(t.name.c_str()) << QString::fromStdString(t.name);
        }
    }
    static Build build()
    {
        QFETCH(QString, name);
        return loadTemplate(name.toStdString())->build;
    }
};

namespace {

/// What the gauge shows (Pa) somewhere along a sweep, 0…1, and how many films have run away.
struct Seen
{
    double pa;
    long hot;
};
using Along = std::function<Seen(double)>;

Seen seen(const OperatingResult &r)
{
    return { r.gauge.value_pa, std::ranges::count_if(r.films, [&](const BearingFilm &f) {
                 return f.film_c > r.oil_c + 0.99 * filmRiseMost_k;
             }) };
}

void makesNoJump(const Along &along, int steps, const std::string &what)
{
    if (sanitized)
        steps /= 2;
    std::vector<Seen> all;
    for (int i = 0; i <= 2 * steps; ++i)
        all.push_back(along(static_cast<double>(i) / (2 * steps)));
    const auto largest = [&](size_t step) {
        double out = 0;
        for (size_t i = step; i < all.size(); i += step)
            if (all[i].hot == all[i - step].hot)
                out = std::max(out, std::abs(all[i].pa - all[i - step].pa));
        return out;
    };
    const double coarse = largest(2), fine = largest(1);
    // What hardly moves at all has no largest change to speak of.
    constexpr double still_pa = 50;
    QVERIFY2(fine < 0.6 * coarse || coarse < still_pa,
             qPrintable(QStringLiteral("%1: %2 Pa, then %3 Pa")
                            .arg(QString::fromStdString(what))
                            .arg(coarse)
                            .arg(fine)));
}

double between(double from, double to, double share)
{
    return from + (to - from) * share;
}

} // namespace

void TestSweeps::speed_makesNoJump()
{
    const Build b = build();
    const auto sizes = judgeSizes(b);
    for (const double oil_c : { 20.0, b.use.hotOil_c }) {
        auto model = OperatingModel::make(b, sizes, oil_c);
        QVERIFY(model);
        makesNoJump(
            [&](double share) {
                return seen(*model->at(between(b.use.hotIdle_rpm, b.use.most_rpm, share),
                                       OperatingModel::Detail::Values));
            },
            400, "speed, oil " + std::to_string(oil_c));
    }
}

void TestSweeps::temperature_makesNoJump()
{
    const Build b = build();
    const auto sizes = judgeSizes(b);
    for (const double rpm : { b.use.hotIdle_rpm, b.use.highSpeed_rpm }) {
        SolveState state;
        makesNoJump(
            [&](double share) {
                auto model = OperatingModel::make(b, sizes, between(-40, 150, share));
                model->startFrom(state);
                const auto r = model->at(rpm, OperatingModel::Detail::Values);
                state = model->state();
                state.formerRpm = 0;
                return seen(*r);
            },
            190, "temperature at " + std::to_string(rpm));
    }
}

void TestSweeps::clearance_makesNoJump()
{
    const Build b = build();
    const auto sizes = judgeSizes(b);
    std::set<std::string> families;
    for (const GaugedSize &s : sizes)
        if (s.known && !s.element.empty())
            families.insert(s.family);
    QVERIFY(families.size() >= 2);
    for (const std::string &family : families) {
        SolveState state;
        makesNoJump(
            [&](double share) {
                auto wider = sizes;
                for (GaugedSize &s : wider)
                    if (s.family == family)
                        s.circuit_um = s.circuit_um * between(0.5, 3, share);
                auto model = OperatingModel::make(b, wider, b.use.hotOil_c);
                model->startFrom(state);
                const auto r = model->at(b.use.hotIdle_rpm, OperatingModel::Detail::Films);
                state = model->state();
                state.formerRpm = 0;
                return seen(*r);
            },
            50, family);
    }
}

} // namespace tst_sweeps

MILDPATH_TEST(tst_sweeps, TestSweeps)
#include "tst_sweeps.moc"
