// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/film/oilspage.h"

#include "assess/figuremarks.h"
#include "entry/refusal.h"
#include "open/questions.h"
#include "paint/card.h"
#include "paint/marks.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double oilHead = 40, leastOilRow = 26, mostOilRow = 44, oilName = 96;
constexpr int columnsCount = 7;

QString parameter(const Contact *c)
{
    return c ? qs(formatNumber(c->filmParameter, c->filmParameter < 10 ? 1 : 0)) : QString();
}

QString phosphorus(const OilBeside &o)
{
    return o.oil.phosphorus_mg_kg
        ? inWords(Quantity { *o.oil.phosphorus_mg_kg, Shows::Concentration, 0, 0 })
        : OilsPage::tr("not said");
}

} // namespace

/// Where the columns begin; all are as wide.
struct OilsView::Columns
{
    double left, width;
    QRectF area(int column, double y, double h) const
    {
        return { left + width * column, y, width - 14, h };
    }
};

OilsView::OilsView(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("oilsBeside"));
    setFocusPolicy(Qt::StrongFocus);
}

void OilsView::setOils(const std::vector<OilBeside> *oils, const QString &problem)
{
    m_oils = oils;
    m_problem = problem;
    QStringList spoken;
    if (m_oils)
        for (const OilBeside &o : *m_oils)
            spoken << tr("%1: hot idle %2, hottest film %3")
                          .arg(qs(o.oil.grade), Figure::pressure(o.gauge_pa).text(),
                               Figure::temperature(o.film_c).text());
    setAccessibleName(tr("Oils beside each other: ") + spoken.join(QStringLiteral("; ")));
    setMinimumHeight(static_cast<int>(oilHead + leastOilRow * double(m_oils ? m_oils->size() : 1))
                     + 8);
    update();
}

void OilsView::choose(int row)
{
    m_chosen = row;
    update();
}

double OilsView::rowHeight() const
{
    const double n = m_oils ? std::max<double>(1, double(m_oils->size())) : 1;
    return std::clamp((height() - oilHead - 8) / n, leastOilRow, mostOilRow);
}

void OilsView::paintHead(QPainter &p, const Columns &at) const
{
    const Theme &t = Theme::current();
    const QString heads[columnsCount][2] = {
        { tr("Hot idle"), unitOf(Shows::Pressure) },
        { tr("Weakest"), tr("× its need") },
        { tr("Crank"), tr("λ, hot idle") },
        { tr("Crank"), tr("λ, full load") },
        { tr("Cam nose"), tr("λ, hot idle") },
        { tr("Hottest"), tr("at full load") },
        { tr("Cold"), tr("tested, %1").arg(Figure::temperature(0).unit) },
    };
    for (int i = 0; i < columnsCount; ++i) {
        drawLine(p, at.area(i, 4, 16), Qt::AlignVCenter, heads[i][0],
                 textFont(TextSize::Normal, true), t.ink);
        drawLine(p, at.area(i, 20, 15), Qt::AlignVCenter, heads[i][1], textFont(TextSize::Small),
                 t.muted);
    }
}

void OilsView::paintRow(QPainter &p, int row, const Columns &at) const
{
    const Theme &t = Theme::current();
    const OilBeside &o = (*m_oils)[static_cast<size_t>(row)];
    const double h = rowHeight(), y = oilHead + h * row;
    if (row == m_chosen) {
        QColor fill = t.selectionFill;
        fill.setAlpha(120);
        p.setPen(hasFocus() ? QPen(t.selection, 1) : QPen(Qt::NoPen));
        p.setBrush(fill);
        p.drawRoundedRect(QRectF(3, y + 1, width() - 6, h - 2), 4, 4);
    }
    drawLine(p, QRectF(12, y, oilName - 14, h), Qt::AlignVCenter, qs(o.oil.grade),
             textFont(TextSize::Normal, o.fitted), o.fitted ? t.selection : t.ink);
    // What its pressure is of the most any gives.
    const double most = std::ranges::max_element(*m_oils, {}, &OilBeside::gauge_pa)->gauge_pa;
    const QRectF idle = at.area(0, y, h);
    const double bar = idle.width() - 44;
    const bool room = bar > 36; // else the figure alone
    p.setPen(Qt::NoPen);
    p.setBrush(t.oil[1]);
    if (room)
        p.drawRect(QRectF(idle.left(), y + h / 2 - 4, bar * o.gauge_pa / std::max(1.0, most), 8));
    const double floor = m_open.build().use.hotIdleFloor_kpa * 1e3;
    if (room && floor > 0 && floor < most) {
        p.setPen(QPen(t.hold, 1.4));
        const double x = idle.left() + bar * floor / most;
        p.drawLine(QPointF(x, y + h / 2 - 7), QPointF(x, y + h / 2 + 7));
    }
    drawLine(p, QRectF(idle.right() - 40, y, 40, h), Qt::AlignVCenter | Qt::AlignRight,
             Figure::pressure(o.gauge_pa).number, textFont(TextSize::Normal), t.ink);
    const auto marked = [&](int column, Mark mark, const QString &text) {
        const QRectF area = at.area(column, y, h);
        drawMark(p, QPointF(area.left() + 8, area.center().y()), 12, mark);
        drawLine(p, area.adjusted(20, 0, 0, 0), Qt::AlignVCenter, text, textFont(TextSize::Normal),
                 t.ink);
    };
    marked(1, o.idleMark(m_open.build()), qs(formatNumber(o.weakestRatio, 1)));
    const auto contact = [&](int column, const Contact *c) {
        if (c)
            marked(column, o.markOf(*c), parameter(c));
    };
    contact(2, o.leastOfTheCrank(false));
    contact(3, o.leastOfTheCrank(true));
    contact(4, o.cam(false));
    if (o.film_c > 0)
        marked(5, filmHeatMark(o.film_c), Figure::temperature(o.film_c).text());
    const QString cranks = Figure::temperature(o.cranks.tested_c).number;
    marked(6, o.cranks.mark,
           !o.cranks.winter ? tr("not")
               : at.width < 96 // the panel tells the rest
               ? cranks
               : tr("%1/%2").arg(cranks, Figure::temperature(o.pumpsTo_c).number));
    p.setPen(QPen(t.line, 1));
    p.drawLine(QPointF(8, y + h), QPointF(width() - 8, y + h));
}

void OilsView::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (!m_oils || m_oils->empty()) {
        drawLine(p, QRectF(rect()), Qt::AlignCenter,
                 m_problem.isEmpty() ? tr("working it out…") : m_problem, textFont(TextSize::Body),
                 t.muted);
        return;
    }
    const Columns at { oilName, (width() - oilName - 6) / columnsCount };
    paintHead(p, at);
    for (int i = 0; i < static_cast<int>(m_oils->size()); ++i)
        paintRow(p, i, at);
}

void OilsView::mousePressEvent(QMouseEvent *event)
{
    setFocus();
    const int row = static_cast<int>(std::floor((event->position().y() - oilHead) / rowHeight()));
    if (m_oils && row >= 0 && row < static_cast<int>(m_oils->size()))
        Q_EMIT picked(row);
}

void OilsView::keyPressEvent(QKeyEvent *event)
{
    const int by = event->key() == Qt::Key_Down ? 1 : event->key() == Qt::Key_Up ? -1 : 0;
    if (by == 0 || !m_oils || m_oils->empty())
        return QWidget::keyPressEvent(event);
    Q_EMIT picked(std::clamp(m_chosen + by, 0, static_cast<int>(m_oils->size()) - 1));
}

OilsPage::OilsPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_view(new OilsView(open, this))
{
    follow(qs(ask::oils().topic));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    auto *card = new CardWidget(this);
    auto *inside = new QVBoxLayout(card);
    inside->setContentsMargins(2, 4, 2, 4);
    inside->addWidget(m_view);
    column->addWidget(card, 1);
    connect(m_view, &OilsView::picked, this, [this](int row) {
        m_chosen = row;
        m_view->choose(row);
        Q_EMIT changed();
    });
}

QString OilsPage::about() const
{
    const Use &use = m_open.build().use;
    return tr("oil at %1; idle %2, full load at %3")
        .arg(Figure::temperature(use.hotOil_c).text(), Figure::speed(use.hotIdle_rpm).text(),
             Figure::speed(use.most_rpm).text());
}

void OilsPage::reset()
{
    m_chosen = -1;
}

void OilsPage::takeFocus()
{
    m_view->setFocus();
}

const std::vector<OilBeside> *OilsPage::oils() const
{
    return m_answer && m_answer->answer ? &*m_answer->answer : nullptr;
}

void OilsPage::refresh()
{
    m_answer = m_open.answers().latest(ask::oils());
    if (const auto *all = oils(); all && m_chosen < 0)
        for (size_t i = 0; i < all->size(); ++i)
            if ((*all)[i].fitted)
                m_chosen = static_cast<int>(i);
    m_view->setOils(
        oils(), m_answer && !m_answer->answer ? qs(m_answer->answer.error().message) : QString());
    m_view->choose(m_chosen);
}

PanelContent OilsPage::panel()
{
    PanelContent out;
    out.push_back(PanelTitle { tr("Oils beside each other"), {} });
    const auto *all = oils();
    if (!all || m_chosen < 0 || m_chosen >= static_cast<int>(all->size())) {
        out.push_back(PanelText { tr("Choose an oil for its contacts."), Tone::Muted });
        return out;
    }
    const OilBeside &o = (*all)[static_cast<size_t>(m_chosen)];
    out.push_back(PanelHeading { qs(o.oil.grade) });
    const auto contacts = [&](const QString &where, const std::vector<Contact> &list) {
        out.push_back(PanelHeading { where });
        for (const Contact &c : list)
            out.push_back(PanelVerdict { markOf(c), tr("%1: λ %2").arg(qs(c.name), parameter(&c)),
                                         QString::fromUtf8(regimeWord(c.regime)) });
    };
    if (o.cranks.winter)
        out.push_back(PanelText { tr("Tested to crank at %1 and to pump at %2.")
                                      .arg(Figure::temperature(o.cranks.tested_c).text(),
                                           Figure::temperature(o.pumpsTo_c).text()),
                                  Tone::Muted });
    contacts(tr("Hot idle"), o.idle);
    contacts(tr("At %1").arg(Figure::speed(m_open.build().use.most_rpm).text()), o.most);
    out.push_back(PanelRule {});
    if (o.shearAssumed)
        out.push_back(PanelText { tr("No high-shear viscosity on its sheet: usual for its kind."),
                                  Tone::Warn });
    else
        out.push_back(
            PanelRow { tr("high shear, %1").arg(Figure::temperature(150).text()),
                       { qs(formatNumber(*o.oil.hths_mpa_s, 1)), QStringLiteral("mPa·s"), {} },
                       {} });
    out.push_back(PanelVerdict { o.antiWear.mark, tr("Phosphorus: %1").arg(phosphorus(o)),
                                 qs(o.antiWear.text) });
    out.push_back(PanelText { tr("Thin oil floats light, fast bearings and runs cool; heavy load "
                                 "at low speed wants thick. Cold limits are those of its winter "
                                 "grade's tests (SAE J300, from memory)."),
                              Tone::Muted });
    if (!o.fitted)
        out.push_back(PanelButton {
            QStringLiteral("useOilBeside"), tr("Use %1").arg(qs(o.oil.grade)),
            [open = &m_open, oil = o.oil] { saidIfRefused(open->edit(SetOil { oil })); } });
    return out;
}

} // namespace mildpath
