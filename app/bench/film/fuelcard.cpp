// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/film/fuelcard.h"

#include "kinds/cautions.h"
#include "oil/blending.h"
#include "open/vectorstate.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QSlider>
#include <QVBoxLayout>

#include <cmath>

namespace mildpath {
namespace {

constexpr int rowsTop = 56, rowStep = 19;
constexpr int labelStep = 17; // of a label over its figures

const Contact *contact(const std::vector<Contact> &all, const char *id)
{
    for (const Contact &c : all)
        if (c.id == id)
            return &c;
    return nullptr;
}

} // namespace

FuelCard::FuelCard(OpenBuild &open, QWidget *parent)
    : CardWidget(parent)
    , m_open(open)
    , m_slider(new QSlider(Qt::Horizontal, this))
    , m_text(new QLabel(this))
    , m_methanol(new QLabel(this))
{
    setObjectName(QStringLiteral("fuelCard"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(14, 34, 14, 10);
    auto *row = new QHBoxLayout;
    m_slider->setObjectName(QStringLiteral("fuelSlider"));
    m_slider->setAccessibleName(tr("Petrol in the oil, per cent by mass"));
    m_slider->setRange(0, 15);
    m_slider->setValue(0);
    row->addWidget(m_slider, 1);
    m_text->setFixedWidth(86);
    row->addWidget(m_text);
    column->addLayout(row);
    column->addStretch();
    m_methanol->setWordWrap(true);
    m_methanol->setText(
        tr("%1 At equal air an engine burns %2 times the mass of it.")
            .arg(qs(caution::methanol) + u' ' + QString::fromUtf8(methanolNote),
                 qs(formatNumber(fuelMassRatio(petrolAirFuel, 1, methanolAirFuel, 1), 1))));
    column->addWidget(m_methanol);
    connect(m_slider, &QSlider::valueChanged, this, [this] {
        work();
        Q_EMIT fuelChanged(fraction());
    });
}

double FuelCard::fraction() const
{
    return m_slider->value() / 100.0;
}

void FuelCard::refresh()
{
    setTone(m_methanol, Theme::current().muted);
    work();
}

void FuelCard::work()
{
    m_text->setText(tr("%1 petrol").arg(Figure::percent(m_slider->value() / 100.0).text()));
    m_rows.clear();
    const Build &build = m_open.build();
    if (m_open.operating().unsolved)
        return;
    Build fouled = build;
    fouled.oil.oil = dilutedOil(build.oil.oil, fraction());
    clearVectorState();
    const auto after = assessAt(fouled, m_open.sizes(), build.use.hotIdle_rpm, build.use.hotOil_c);
    if (!after)
        return;
    const auto kv = [](double v) {
        return shown(Quantity { v * 1e-6, Shows::KinematicViscosity });
    };
    m_rows.push_back({ tr("viscosity at %1").arg(Figure::temperature(100).text()),
                       kv(build.oil.oil.kv100_mm2_s), kv(fouled.oil.oil.kv100_mm2_s),
                       fraction() > 0 });
    const double floor_pa = build.use.hotIdleFloor_kpa * 1e3;
    m_rows.push_back({ tr("pressure gauge"),
                       Figure::pressure(m_open.operating().hotIdle.gauge.value_pa),
                       Figure::pressure(after->gauge.value_pa), after->gauge.value_pa < floor_pa });
    const auto was = contactsOf(build, m_open.operating().hotIdle), is = contactsOf(fouled, *after);
    for (const auto &[id, label] : { std::pair("mains", tr("λ of the mains")),
                                     std::pair("big_ends", tr("λ of the big-ends")) }) {
        const Contact *before = contact(was, id), *now = contact(is, id);
        if (before && now)
            m_rows.push_back(
                { label,
                  { qs(formatNumber(before->filmParameter, 1)), {}, {} },
                  { qs(formatNumber(now->filmParameter, 1)), {}, {} },
                  now->regime != Regime::FullFilm && before->regime == Regime::FullFilm });
    }
    const Contact *before = contact(was, "rings_mid"), *now = contact(is, "rings_mid");
    if (before && now)
        m_rows.push_back({ tr("rings, mid-stroke"),
                           { QString::fromUtf8(regimeWord(before->regime)), {}, {} },
                           { QString::fromUtf8(regimeWord(now->regime)), {}, {} },
                           now->regime != before->regime });
    giveRoom();
    update();
}

void FuelCard::resizeEvent(QResizeEvent *event)
{
    CardWidget::resizeEvent(event);
    giveRoom();
}

/// What it says of methanol gives way to the figures where both have no room; it stays in the hint.
void FuelCard::giveRoom()
{
    const int rows = static_cast<int>(m_rows.size()) * (rowStep + (isNarrow() ? labelStep : 0));
    const bool fits = m_methanol->heightForWidth(width() - 28) <= height() - rowsTop - rows - 14;
    m_methanol->setVisible(fits);
    setToolTip(fits ? QString() : m_methanol->text());
}

void FuelCard::paintEvent(QPaintEvent *event)
{
    CardWidget::paintEvent(event);
    const Theme &t = Theme::current();
    QPainter p(this);
    drawLine(p, QRectF(14, 9, width() - 28, 18), Qt::AlignVCenter,
             tr("Fuel in the oil, at hot idle"), textFont(TextSize::Body, true), t.ink);
    double y = rowsTop + 18;
    const double arrow = width() - std::max(84.0, width() * 0.34);
    const QFont normal = textFont(TextSize::Normal), bold = textFont(TextSize::Normal, true);
    const bool stacked = isNarrow();
    for (const Row &r : m_rows) {
        drawLine(p, QRectF(14, y - 14, stacked ? width() - 28 : arrow - 110, 18), Qt::AlignVCenter,
                 r.label, normal, t.muted);
        y += stacked ? labelStep : 0;
        drawFigure(p, QPointF(arrow - 12, y), r.before, bold, t.ink, t.muted);
        drawLine(p, QRectF(arrow - 8, y - 14, 16, 18), Qt::AlignCenter, QStringLiteral("→"), normal,
                 t.muted);
        drawFigure(p, QPointF(width() - 16, y), r.after, bold, r.worse ? t.hold : t.ink, t.muted);
        y += rowStep;
    }
}

} // namespace mildpath
