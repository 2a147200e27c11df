// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/film/filmpage.h"

#include "assess/figuremarks.h"
#include "bench/film/ballcard.h"
#include "bench/film/fuelcard.h"
#include "bench/film/oilchart.h"
#include "bench/film/stribeckview.h"
#include "entry/refusal.h"
#include "oil/grades.h"
#include "oil/shear.h"
#include "open/questions.h"
#include "open/vectorstate.h"
#include "shell/stopfields.h"
#include "study/contacts.h"
#include "study/friction.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QSignalBlocker>
#include <QSlider>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {

FilmPage::FilmPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_head(new QWidget(this))
    , m_speedText(new QLabel(this))
    , m_oilText(new QLabel(this))
    , m_speed(new QSlider(Qt::Horizontal, this))
    , m_oil(new QSlider(Qt::Horizontal, this))
    , m_chart(new OilChart(open, this))
    , m_stribeck(new StribeckView(this))
    , m_ball(new BallCard(open, this))
    , m_fuel(new FuelCard(open, this))
{
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    auto *head = new QHBoxLayout(m_head);
    head->setContentsMargins(0, 0, 0, 0);
    const auto slider = [&](QSlider *s, QLabel *text, const QString &name, const char *object) {
        s->setObjectName(QLatin1String(object));
        s->setAccessibleName(name);
        s->setMinimumWidth(60);
        s->setMaximumWidth(110);
        text->setFixedWidth(78);
        text->setFont(textFont(TextSize::Normal, true));
        head->addSpacing(6);
        head->addWidget(new QLabel(name, this));
        head->addWidget(s);
        head->addWidget(text);
        connect(s, &QSlider::valueChanged, this, [this] {
            solve();
            Q_EMIT changed();
        });
    };
    slider(m_speed, m_speedText, tr("Speed"), "filmSpeed");
    slider(m_oil, m_oilText, tr("Oil"), "filmOil");
    m_oil->setRange(0, 150);
    m_oil->setSingleStep(5);
    m_speed->setSingleStep(50);
    auto *upper = new QHBoxLayout;
    upper->setSpacing(14);
    upper->addWidget(m_chart, 5);
    upper->addWidget(m_stribeck, 4);
    column->addLayout(upper, 3);
    auto *lower = new QHBoxLayout;
    lower->setSpacing(12);
    lower->addWidget(m_ball, 1);
    lower->addWidget(m_fuel, 1);
    column->addLayout(lower, 2);
    connect(m_fuel, &FuelCard::fuelChanged, m_chart, &OilChart::setFuel);
    connect(&open.answers(), &Answers::answered, this, [this](const QString &topic) {
        if (topic == qs(ask::floatsFrom().topic))
            Q_EMIT changed();
    });
}

QString FilmPage::about() const
{
    return tr("%1, as in this build").arg(qs(m_open.build().oil.grade));
}

void FilmPage::reset()
{
    const Use &use = m_open.build().use;
    const QSignalBlocker speed(m_speed), oil(m_oil);
    m_speed->setRange(static_cast<int>(std::min(400.0, use.hotIdle_rpm)),
                      static_cast<int>(use.most_rpm));
    m_speed->setValue(static_cast<int>(use.highSpeed_rpm));
    m_oil->setValue(static_cast<int>(use.hotOil_c));
}

void FilmPage::refresh()
{
    m_head->show();
    m_chart->redraw();
    m_ball->refresh();
    m_fuel->refresh();
    solve();
    m_open.answers().ask(ask::floatsFrom());
}

void FilmPage::solve()
{
    m_speedText->setText(Figure::speed(m_speed->value()).text());
    m_oilText->setText(Figure::temperature(m_oil->value()).text());
    clearVectorState();
    auto result = assessAt(m_open.build(), m_open.sizes(), m_speed->value(), m_oil->value());
    m_result = result ? std::optional(std::move(*result)) : std::nullopt;
    m_stribeck->setContacts(m_result ? contactsOf(m_open.build(), *m_result)
                                     : std::vector<Contact> {});
}

PanelContent FilmPage::panel()
{
    PanelContent out;
    out.push_back(PanelTitle { tr("This oil, this engine"), {} });
    if (!m_result) {
        out.push_back(PanelVerdict { unsolvedMark(), tr("No solution"),
                                     tr("at this speed and temperature") });
    } else {
        verdicts(out);
    }
    out.push_back(PanelRule {});
    const AntiWearAdvice advice = antiWearAdvice(m_open.build());
    out.push_back(PanelHeading { tr("Anti-wear additive") });
    out.push_back(PanelText { qs(advice.text), Tone::Plain });
    PanelChoice tappet { QStringLiteral("tappet"),
                         tr("the cam runs on"),
                         { tr("flat tappets"), tr("rollers") },
                         tappetOf(m_open.build()) == Tappet::Roller ? 1 : 0,
                         [open = &m_open](int i) {
                             return open->choose("tappet", i == 1 ? "roller" : "flat");
                         } };
    out.push_back(std::move(tappet));
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("Never"), Tone::Bad });
    out.push_back(PanelText { qs(gearOilCaution()), Tone::Plain });
    out.push_back(PanelRule {});
    frictionLines(out);
    out.push_back(PanelRule {});
    oilFields(out);
    ownOils(out);
    addWorking(out, { "bearing-film", "journal-temperature", "falling-ball-ratio" });
    return out;
}

void FilmPage::verdicts(PanelContent &out) const
{
    const Build &build = m_open.build();
    const auto contacts = contactsOf(build, *m_result);
    const CrankFilms crank = crankFilms(contacts);
    QString floats = tr("working out from which speed");
    if (const auto from = m_open.answers().find(ask::floatsFrom()); from && from->answer)
        floats = *from->answer
            ? tr("full film from %1 hot").arg(Figure::speed(**from->answer).text())
            : tr("no full film up to %1 hot").arg(Figure::speed(build.use.most_rpm).text());
    out.push_back(PanelVerdict {
        crank.mark, tr("Mains and big-ends: %1").arg(QString::fromUtf8(regimeWord(crank.regime))),
        floats + tr("; an indicator under mean loads") });
    for (const Contact &c : contacts)
        if (c.id == "cam")
            out.push_back(PanelVerdict {
                markOf(c), tr("Cam: %1").arg(QString::fromUtf8(regimeWord(c.regime))),
                c.regime == Regime::Boundary
                    ? tr("λ below 1: chemistry carries part of the load; %1").arg(qs(c.detail))
                    : qs(c.detail) });
    const CrankingTest test = crankingTestOf(build);
    const QString coldest = Figure::temperature(build.use.coldestStart_c).text(),
                  tested = Figure::temperature(test.tested_c).text();
    out.push_back(PanelVerdict { test.mark,
                                 test.mark == Mark::Proven ? tr("Cranks at %1").arg(coldest)
                                                           : tr("May not crank at %1").arg(coldest),
                                 test.winter
                                     ? tr("its winter grade is tested at %1").arg(tested)
                                     : tr("without a winter grade not below %1").arg(tested) });
    const auto &oil = build.oil;
    const HighShear shear = highShearOf(oil);
    if (!oil.hths_mpa_s) {
        out.push_back(PanelVerdict { shear.mark, tr("High-shear viscosity unknown"),
                                     tr("under shear it may be 5 to 25 % thinner than reckoned") });
        return;
    }
    out.push_back(PanelVerdict {
        shear.mark, tr("High-shear %1 mPa·s").arg(qs(formatNumber(*oil.hths_mpa_s, 1))),
        shear.grade ? tr("floor of a %1: %2 mPa·s")
                          .arg(qs(*shear.grade), qs(formatNumber(shear.floor_pa_s * 1e3, 1)))
                    : tr("below the floor of its grade") });
    const auto line = waltherLine(oil.oil.kv40_mm2_s, oil.oil.kv100_mm2_s);
    const BearingFilm *film = nullptr;
    for (const BearingFilm &f : m_result->films)
        if (f.family == "big_end" && (!film || f.smallest_m < film->smallest_m))
            film = &f;
    const Stop *stop = film ? build.engine.find(film->stop) : nullptr;
    if (!line || !stop || !(film->smallest_m > 0))
        return;
    const auto low = [&](double c) {
        return oilState(*line, oil.oil.rho15_kg_m3, { c }).dynamicViscosity_pa_s;
    };
    const auto curve = shearThinning(low(150), *oil.hths_mpa_s * 1e-3);
    if (!curve)
        return;
    const double speed = journalOf_mm(build, *stop) * 1e-3 / 2 * m_result->rpm * 2 * pi / 60;
    const double rate = speed / film->smallest_m, plain = low(film->film_c);
    out.push_back(PanelChange { tr("in %1's film").arg(qs(film->name)),
                                { qs(formatNumber(plain * 1e3, 1)), {}, {} },
                                { qs(formatNumber(curve->viscosity_pa_s(plain, rate) * 1e3, 1)),
                                  QStringLiteral("mPa·s"),
                                  {} } });
    out.push_back(PanelText {
        rate > shearKnownTo_per_s
            ? tr("under %1 million 1/s: extrapolated").arg(qs(formatNumber(rate / 1e6, 1)))
            : tr("under %1 million 1/s").arg(qs(formatNumber(rate / 1e6, 1))),
        Tone::Muted });
}

/// What the crank's films cost, and what a regrind or another crank changes.
void FilmPage::frictionLines(PanelContent &out)
{
    const auto friction = crankFriction(m_open.build(), m_open.sizes(), m_journalsBy_mm);
    if (!friction || friction->empty() || friction->front().each.empty())
        return;
    out.push_back(PanelHeading { tr("Friction of the crank, no load") });
    const auto watts = [](double w) {
        return Shown { qs(formatNumber(w, 0)), QStringLiteral("W"), {} };
    };
    for (const CrankFriction &f : *friction)
        for (const auto &[family, name] :
             { std::pair("main", tr("mains")), std::pair("big_end", tr("big-ends")) }) {
            const JournalLoss loss = f.of(family);
            out.push_back(PanelChange { tr("%1, %2").arg(name, Figure::speed(f.rpm).text()),
                                        watts(loss.now_w), watts(loss.changed_w), Tone::Plain });
        }
    out.push_back(PanelField {
        QStringLiteral("film.journalsBy"), tr("with journals larger by"), Dimension::Length, "mm",
        2, m_journalsBy_mm * 1e-3,
        [this](double si) -> Result<void> {
            if (!(std::abs(si) <= 20e-3))
                return fail(
                    "", { "friction.range", "must be within {0} either way", { asLength(20, 0) } });
            m_journalsBy_mm = si * 1e3;
            Q_EMIT changed();
            return {};
        },
        tr("negative: a regrind; clearances stay as they are") });
}

void FilmPage::oilFields(PanelContent &out) const
{
    out.push_back(PanelHeading { tr("The oil, from its data sheet") });
    const ChosenOil oil = m_open.build().oil;
    const auto set = [this](auto change) {
        return [open = &m_open, change](double si) {
            ChosenOil changed = open->build().oil;
            // What is no longer as on the shelf is the builder's own.
            if (findShelfOil(changed.grade))
                changed.grade += ", own figures";
            change(changed, si);
            return open->edit(SetOil { changed });
        };
    };
    out.push_back(PanelWord { QStringLiteral("oilName"), tr("name"), qs(oil.grade),
                              [open = &m_open](const QString &text) {
                                  ChosenOil changed = open->build().oil;
                                  changed.grade = text.trimmed().toStdString();
                                  return open->edit(SetOil { changed });
                              } });
    const auto kv = Dimension::KinematicViscosity;
    out.push_back(PanelField { QStringLiteral("oil.kv40"),
                               tr("at %1").arg(Figure::temperature(40).text()), kv, "mm²/s", 1,
                               oil.oil.kv40_mm2_s * 1e-6,
                               set([](ChosenOil &o, double v) { o.oil.kv40_mm2_s = v * 1e6; }) });
    out.push_back(PanelField { QStringLiteral("oil.kv100"),
                               tr("at %1").arg(Figure::temperature(100).text()), kv, "mm²/s", 1,
                               oil.oil.kv100_mm2_s * 1e-6,
                               set([](ChosenOil &o, double v) { o.oil.kv100_mm2_s = v * 1e6; }) });
    out.push_back(PanelField { QStringLiteral("oil.rho15"),
                               tr("density, %1").arg(Figure::temperature(15).text()),
                               Dimension::Density, "kg/m³", 0, oil.oil.rho15_kg_m3,
                               set([](ChosenOil &o, double v) { o.oil.rho15_kg_m3 = v; }) });
    const auto hths = oil.hths_mpa_s ? std::optional(*oil.hths_mpa_s * 1e-3) : std::nullopt;
    out.push_back(PanelField { QStringLiteral("oil.hths"),
                               tr("high shear, %1").arg(Figure::temperature(150).text()),
                               Dimension::DynamicViscosity, "mPa·s", 1, hths,
                               set([](ChosenOil &o, double v) { o.hths_mpa_s = v * 1e3; }) });
    out.push_back(PanelField { QStringLiteral("oil.phosphorus"), tr("phosphorus, ppm"),
                               Dimension::Number, "", 0, oil.phosphorus_mg_kg,
                               set([](ChosenOil &o, double v) { o.phosphorus_mg_kg = v; }) });
}

void FilmPage::ownOils(PanelContent &out) const
{
    const Build &build = m_open.build();
    const bool kept = std::any_of(build.ownOils.begin(), build.ownOils.end(),
                                  [&](const ChosenOil &o) { return o == build.oil; });
    if (!kept && !findShelfOil(build.oil.grade))
        out.push_back(PanelButton {
            QStringLiteral("keepOil"), tr("Keep this oil on my list"),
            [open = &m_open] { saidIfRefused(open->edit(KeepOil { open->build().oil })); } });
    if (build.ownOils.empty())
        return;
    out.push_back(PanelHeading { tr("My oils") });
    for (const ChosenOil &o : build.ownOils) {
        if (o.grade != build.oil.grade)
            out.push_back(PanelButton {
                QStringLiteral("useOil.") + qs(o.grade), tr("Use %1").arg(qs(o.grade)),
                [open = &m_open, o] { saidIfRefused(open->edit(SetOil { o })); } });
        out.push_back(PanelButton {
            QStringLiteral("dropOil.") + qs(o.grade), tr("Take %1 off the list").arg(qs(o.grade)),
            [open = &m_open, name = o.grade] { saidIfRefused(open->edit(DropOil { name })); } });
    }
}

} // namespace mildpath
