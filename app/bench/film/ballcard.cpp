// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/film/ballcard.h"

#include "entry/quantityfield.h"
#include "oil/grades.h"
#include "quantity/rounding.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>

#include <cmath>

namespace mildpath {

BallCard::BallCard(OpenBuild &open, QWidget *parent)
    : CardWidget(parent)
    , m_open(open)
    , m_found(new QLabel(this))
    , m_grade(new QLabel(this))
    , m_remark(new QLabel(this))
    , m_keep(new QPushButton(tr("Keep as an oil of my own"), this))
    , m_grid(new QGridLayout(this))
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
    const int row = m_grid->rowCount();
    m_found->setFont(textFont(TextSize::Body, true));
    m_found->setObjectName(QStringLiteral("ballFound"));
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

void BallCard::work()
{
    const Oil &oil = m_open.build().oil.oil;
    const double c = m_temperature->value().value_or(20);
    const auto line = waltherLine(oil.kv40_mm2_s, oil.kv100_mm2_s);
    m_result.reset();
    m_keep->setEnabled(false);
    if (!line)
        return;
    const OilState known = oilState(*line, oil.rho15_kg_m3, { c });
    const bool timed = m_known->value() && m_unknown->value();
    // Densities of engine oils differ by less than the buoyancy shows.
    const auto r = fallingBall({ .referenceTime_s = m_known->value().value_or(1),
                                 .unknownTime_s = m_unknown->value().value_or(1),
                                 .referenceDensity_kg_m3 = known.density_kg_m3,
                                 .unknownDensity_kg_m3 = known.density_kg_m3,
                                 .referenceViscosity_pa_s = known.dynamicViscosity_pa_s,
                                 .ball_m = m_ball->value().value_or(1.5e-3),
                                 .glass_m = m_glass->value().value_or(0.04),
                                 .fall_m = m_fall->value().value_or(0.25) });
    if (!r) {
        m_found->setText(qs(r.error().message));
        m_grade->clear();
        m_remark->clear();
        return;
    }
    if (!timed) {
        // Without the fall's times only what this oil should take is known.
        m_found->setText(tr("Time both balls over the same height"));
        m_grade->setText(
            tr("this oil should take %1 s").arg(qs(formatNumber(r->predictedReferenceTime_s, 1))));
        m_remark->setText(tr("Release under the surface, centred; start the watch after %1; both "
                             "glasses within half a degree; median of five.")
                              .arg(inWords(asLength(50, 0))));
        update();
        return;
    }
    m_result = *r;
    m_reference_mm2_s = known.dynamicViscosity_pa_s / known.density_kg_m3 * 1e6;
    m_unknown_mm2_s = m_reference_mm2_s * r->viscosityRatio;
    m_found->setText(tr("unknown: %1 at %2, %3 × this oil")
                         .arg(inWords(Quantity { m_unknown_mm2_s * 1e-6, Shows::KinematicViscosity,
                                                 0, m_unknown_mm2_s < 100 ? 1 : 0 }),
                              Figure::temperature(c).text(),
                              qs(formatNumber(r->viscosityRatio, 2))));
    const auto grade = gradeOf(oil.kv100_mm2_s * r->viscosityRatio, std::nullopt, std::nullopt);
    m_grade->setText(
        grade && grade->engineGrade
            ? tr("about a %1 when hot, if it thins like this oil").arg(qs(*grade->engineGrade))
            : tr("outside the engine grades when hot"));
    const double off = r->predictedReferenceTime_s / m_known->value().value_or(1);
    QStringList remarks;
    if (!r->creeping)
        remarks << tr("Too quick for a true ratio (Reynolds above 0.2): take a smaller ball.");
    if (off > 1.3 || off < 0.77)
        remarks << tr("This oil should have taken %1 s: look at temperature, centring, run-in.")
                       .arg(qs(formatNumber(r->predictedReferenceTime_s, 1)));
    if (remarks.isEmpty())
        remarks << tr("Wall and buoyancy corrected; within about 2 %.");
    m_remark->setText(remarks.join(u' '));
    m_keep->setEnabled(true);
    update();
}

/// One temperature gives one viscosity: the slope is taken from the known oil.
void BallCard::keep()
{
    if (!m_result)
        return;
    const ChosenOil &oil = m_open.build().oil;
    ChosenOil own;
    own.grade = "unknown, raced against " + oil.grade;
    own.oil = { oil.oil.kv40_mm2_s * m_result->viscosityRatio,
                oil.oil.kv100_mm2_s * m_result->viscosityRatio, oil.oil.rho15_kg_m3 };
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
    const double ratio = m_result ? m_result->timeRatio : 1;
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
