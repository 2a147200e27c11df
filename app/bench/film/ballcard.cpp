// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/film/ballcard.h"

#include "entry/arrowcombo.h"
#include "entry/quantityfield.h"
#include "oil/grades.h"
#include "quantity/rounding.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>

#include <cmath>

namespace mildpath {
namespace {

constexpr double ballSteel_kg_m3 = 7800;

} // namespace

BallCard::BallCard(OpenBuild &open, QWidget *parent)
    : CardWidget(parent)
    , m_open(open)
    , m_found(new QLabel(this))
    , m_grade(new QLabel(this))
    , m_remark(new QLabel(this))
    , m_keep(new QPushButton(tr("Keep as an oil of my own"), this))
    , m_grid(new QGridLayout(this))
    , m_reference(new ArrowCombo(this))
{
    setObjectName(QStringLiteral("ballCard"));
    m_grid->setContentsMargins(124, 34, 12, 10);
    m_grid->setHorizontalSpacing(5);
    m_grid->setVerticalSpacing(3);
    m_grid->setColumnStretch(0, 1);
    m_grid->setColumnStretch(3, 1);
    const auto time = Dimension::Time, length = Dimension::Length;
    m_known = field(QStringLiteral("ballKnown"), tr("known in"), time, "s", 1, {}, 0.05, 9999);
    m_unknown
        = field(QStringLiteral("ballUnknown"), tr("unknown in"), time, "s", 1, {}, 0.05, 9999);
    m_ball
        = field(QStringLiteral("ballSize"), tr("ball, steel"), length, "mm", 1, 1.5e-3, 2e-4, 0.05);
    m_glass = field(QStringLiteral("ballGlass"), tr("glass"), length, "mm", 0, 40e-3, 4e-3, 0.5);
    m_fall = field(QStringLiteral("ballFall"), tr("fall"), length, "mm", 0, 0.25, 0.01, 3);
    m_temperature = field(QStringLiteral("ballTemperature"), tr("both at"), Dimension::Temperature,
                          "°C", 0, 20, -20, 90);
    m_reference->setObjectName(QStringLiteral("ballReference"));
    m_reference->setAccessibleName(tr("known oil"));
    m_reference->addItem(tr("this build's oil"));
    for (const ShelfOil &o : oilShelf())
        m_reference->addItem(qs(o.grade), qs(o.grade));
    connect(m_reference, &QComboBox::currentIndexChanged, this, &BallCard::work);
    int row = m_grid->rowCount();
    auto *known = new QLabel(tr("known is"), this);
    known->setBuddy(m_reference);
    m_grid->addWidget(known, row, 0);
    m_grid->addWidget(m_reference, row++, 1, 1, 5);
    m_found->setFont(textFont(TextSize::Body, true));
    m_found->setObjectName(QStringLiteral("ballFound"));
    m_grade->setObjectName(QStringLiteral("ballGrade"));
    for (QLabel *l : { m_grade, m_remark })
        l->setWordWrap(true);
    m_grid->addWidget(m_found, row, 0, 1, 6);
    m_grid->addWidget(m_grade, row + 1, 0, 1, 6);
    m_grid->addWidget(m_remark, row + 2, 0, 1, 6);
    m_keep->setObjectName(QStringLiteral("ballKeep"));
    m_grid->addWidget(m_keep, row + 3, 0, 1, 6);
    m_grid->setRowStretch(row + 4, 1);
    connect(m_keep, &QPushButton::clicked, this, &BallCard::keep);
}

QuantityField *BallCard::field(const QString &name, const QString &label, Dimension dimension,
                               const char *unit, int decimals, std::optional<double> si,
                               double least, double most)
{
    auto *f = new QuantityField(dimension, unit, this);
    f->setObjectName(name);
    f->setAccessibleName(label);
    f->setDecimals(decimals);
    f->setNudge(std::pow(10.0, -decimals));
    f->setFixedWidth(56);
    f->setValue(si);
    f->setCheck([least, most](double v) -> Result<void> {
        if (v >= least && v <= most)
            return {};
        return fail("", "that cannot be");
    });
    auto *text = new QLabel(label, this);
    text->setBuddy(f);
    // Two fields a row.
    const int row = m_fields / 2, column = 3 * (m_fields % 2);
    ++m_fields;
    m_grid->addWidget(text, row, column);
    m_grid->addWidget(f, row, column + 1);
    auto *shownUnit = new QLabel(this);
    nameWithUnit(shownUnit, {}, f);
    m_grid->addWidget(shownUnit, row, column + 2);
    connect(f, &QuantityField::entered, this, [this, f](double v) {
        f->setValue(v);
        work();
    });
    connect(f, &QuantityField::refused, this,
            [this](const QString &why) { m_remark->setText(why); });
    return f;
}

void BallCard::refresh()
{
    for (QLabel *l : { m_grade, m_remark })
        setTone(l, Theme::current().muted);
    work();
    update();
}

ChosenOil BallCard::reference() const
{
    const ShelfOil *shelf = findShelfOil(m_reference->currentData().toString().toStdString());
    return shelf ? ChosenOil { std::string(shelf->grade), shelf->oil } : m_open.build().oil;
}

void BallCard::work()
{
    const ChosenOil against = reference();
    const double c = m_temperature->value().value_or(20);
    const auto line = waltherLine(against.oil.kv40_mm2_s, against.oil.kv100_mm2_s);
    m_result.reset();
    m_keep->setEnabled(false);
    update();
    if (!line)
        return;
    const OilState known = oilState(*line, against.oil.rho15_kg_m3, { c });
    const double ball_m = m_ball->value().value_or(1.5e-3),
                 glass_m = m_glass->value().value_or(0.04), fall_m = m_fall->value().value_or(0.25);
    // Without the fall's times only what the known oil should take is told.
    const double expected_s = fall_m
        / (fallSpeed_m_s(known.dynamicViscosity_pa_s, known.density_kg_m3, ball_m, ballSteel_kg_m3)
           * faxenFactor(ball_m / glass_m));
    const bool timed = m_known->value() && m_unknown->value();
    // Densities of engine oils differ by less than the buoyancy shows.
    const auto r = racedBall({ .referenceTime_s = m_known->value().value_or(expected_s),
                               .unknownTime_s = m_unknown->value().value_or(expected_s),
                               .referenceDensity_kg_m3 = known.density_kg_m3,
                               .unknownDensity_kg_m3 = known.density_kg_m3,
                               .ballDensity_kg_m3 = ballSteel_kg_m3,
                               .referenceViscosity_pa_s = known.dynamicViscosity_pa_s,
                               .ball_m = ball_m,
                               .glass_m = glass_m,
                               .fall_m = fall_m });
    if (!r) {
        m_found->setText(qs(r.error().message));
        m_grade->clear();
        m_remark->clear();
        return;
    }
    if (!timed) {
        m_found->setText(tr("Time both balls over the same height"));
        m_grade->setText(tr("%1 should take %2 s")
                             .arg(qs(against.grade), qs(formatNumber(r->predictedReference_s, 1))));
        m_remark->setText(tr("Release under the surface, centred; start the watch after %1; both "
                             "glasses within half a degree; median of five.")
                              .arg(inWords(asLength(50, 0))));
        return;
    }
    m_result = *r;
    judge(against, known);
}

void BallCard::judge(const ChosenOil &against, const OilState &known)
{
    const RacedBall &r = *m_result;
    const double nu = known.dynamicViscosity_pa_s / known.density_kg_m3 * r.viscosityRatio;
    m_found->setText(
        tr("unknown: %1 at %2, %3 × the known, ± %4")
            .arg(inWords(Quantity { nu, Shows::KinematicViscosity, 0, nu < 1e-4 ? 1 : 0 }),
                 Figure::temperature(m_temperature->value().value_or(20)).text(),
                 qs(formatNumber(r.viscosityRatio, 2)), Figure::percent(r.expandedShare).text()));
    const auto gradeAt = [&](double share) {
        const auto g = gradeOf(against.oil.kv100_mm2_s * r.viscosityRatio * share, std::nullopt,
                               std::nullopt);
        return g && g->engineGrade ? *g->engineGrade : std::string();
    };
    const std::string least = gradeAt(1 - r.expandedShare), most = gradeAt(1 + r.expandedShare);
    const bool sure = least == most && !least.empty();
    m_grade->setText(sure ? tr("about a %1 when hot, if it thins like the known oil").arg(qs(least))
                          : tr("no one grade: its range when hot reaches from %1 to %2")
                                .arg(least.empty() ? tr("none") : qs(least),
                                     most.empty() ? tr("none") : qs(most)));
    QStringList remarks;
    const double off = r.predictedReference_s / *m_known->value();
    if (off > 1.3 || off < 0.77)
        remarks
            << tr("The known oil should have taken %1 s: look at temperature, centring, run-in.")
                   .arg(qs(formatNumber(r.predictedReference_s, 1)));
    if (!sure)
        remarks << tr("Not kept while it is unsure: a smaller ball, a wider glass or a longer fall "
                      "tells more.");
    else if (remarks.isEmpty())
        remarks << tr("Drag, wall and buoyancy are reckoned with.");
    m_remark->setText(remarks.join(u' '));
    m_keep->setEnabled(sure);
}

/// One temperature gives one viscosity: the slope is taken from the known oil.
void BallCard::keep()
{
    if (!m_result)
        return;
    const ChosenOil against = reference();
    ChosenOil own;
    own.grade = "unknown, raced against " + against.grade;
    own.oil = { against.oil.kv40_mm2_s * m_result->viscosityRatio,
                against.oil.kv100_mm2_s * m_result->viscosityRatio, against.oil.rho15_kg_m3 };
    const auto ok = m_open.edit(KeepOil { own });
    m_remark->setText(ok ? tr("On the list in the side panel.") : qs(ok.error().message));
}

void BallCard::paintEvent(QPaintEvent *event)
{
    CardWidget::paintEvent(event);
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    drawLine(p, QRectF(14, 9, width() - 28, 18), Qt::AlignVCenter,
             tr("Unknown oil: two tall glasses, two balls"), textFont(TextSize::Body, true), t.ink);
    // The slower one has fallen as much less as its time is longer.
    const double ratio = m_result ? *m_unknown->value() / *m_known->value() : 1;
    const double deep = 0.82;
    for (int i = 0; i < 2; ++i) {
        const QRectF glass(18 + 52 * i, 40, 30, height() - 40 - 34);
        p.setPen(QPen(t.ink, 1.5));
        p.setBrush(t.oil[static_cast<size_t>(i == 0 ? 0 : 1)]);
        p.drawRoundedRect(glass, 4, 4);
        const double fallen
            = i == 0 ? deep / std::max(1.0, 1 / ratio) : deep / std::max(1.0, ratio);
        p.setBrush(t.returns);
        p.drawEllipse(QPointF(glass.center().x(), glass.top() + fallen * glass.height()), 6, 6);
        drawLine(p, QRectF(glass.left() - 16, glass.bottom() + 5, 62, 16), Qt::AlignCenter,
                 i == 0 ? tr("known") : tr("unknown"), textFont(TextSize::Small), t.muted);
    }
}

} // namespace mildpath
