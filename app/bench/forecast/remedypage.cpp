// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/forecast/remedypage.h"

#include "assess/sizes.h"
#include "open/questions.h"
#include "paint/card.h"
#include "paint/text.h"
#include "shell/stopfields.h"

#include <QKeyEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double top = 46, leastRow = 39, mostRow = 50, remedyNames = 226, wordsWidth = 208;

QString churn(const RemedyFigures &f)
{
    return f.churn == Churn::None
        ? RemedyPage::tr("relief shut")
        : RemedyPage::tr("%1 over the relief").arg(Figure::flow(f.relief_m3_s).text());
}

Shown watts(double w)
{
    return { qs(formatNumber(w, 0)), QStringLiteral("W"), {} };
}

/// From where it stands to where it goes; a ring where nothing moves.
void arrow(QPainter &p, double from, double to, double y, const QColor &tone)
{
    p.setPen(QPen(tone, 2.4, Qt::SolidLine, Qt::RoundCap));
    p.setBrush(Qt::NoBrush);
    if (std::abs(to - from) < 3) {
        p.drawEllipse(QPointF(from, y), 3.4, 3.4);
        return;
    }
    const double s = to > from ? 1 : -1;
    p.drawLine(QPointF(from, y), QPointF(to - 4 * s, y));
    p.setBrush(tone);
    p.setPen(Qt::NoPen);
    p.drawPolygon(
        QPolygonF { { QPointF(to, y), QPointF(to - 8 * s, y - 4), QPointF(to - 8 * s, y + 4) } });
}

} // namespace

RemedyChart::RemedyChart(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("remedyChart"));
    setFocusPolicy(Qt::StrongFocus);
}

void RemedyChart::setTable(const RemedyTable *table)
{
    m_table = table;
    QStringList spoken;
    if (m_table) {
        m_from_pa = m_to_pa = m_table->now.gauge_pa;
        for (const Remedy &r : m_table->remedies)
            for (const double pa : { r.figures.gauge_pa, r.figures.bearing_pa }) {
                m_from_pa = std::min(m_from_pa, pa);
                m_to_pa = std::max(m_to_pa, pa);
            }
        const double room = std::max(1e3, 0.08 * (m_to_pa - m_from_pa));
        m_from_pa -= room;
        m_to_pa += room;
        for (const Remedy &r : m_table->remedies)
            spoken << qs(r.name) + QStringLiteral(": ") + qs(r.verdict);
    }
    setAccessibleName(tr("Remedies: ") + spoken.join(QStringLiteral("; ")));
    setMinimumHeight(static_cast<int>(
        top + leastRow * static_cast<double>(m_table ? m_table->remedies.size() : 1) + 8));
    update();
}

void RemedyChart::choose(int row)
{
    m_chosen = row;
    update();
}

/// Rows take what room there is, within reason.
double RemedyChart::rowHeight() const
{
    const double n = m_table ? static_cast<double>(m_table->remedies.size()) : 1;
    return std::clamp((height() - top - 8) / std::max(1.0, n), leastRow, mostRow);
}

double RemedyChart::xOf(double pa) const
{
    const double left = remedyNames + 14, right = width() - wordsWidth - 14.0;
    return left + (right - left) * (pa - m_from_pa) / (m_to_pa - m_from_pa);
}

void RemedyChart::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (!m_table) {
        drawLine(p, rect(), Qt::AlignCenter, tr("comparing…"), textFont(TextSize::Body), t.muted);
        return;
    }
    const double bottom = top + rowHeight() * static_cast<double>(m_table->remedies.size());
    const double tickY = 22;
    for (const double pa : niceTicks(m_from_pa, m_to_pa, Shows::Pressure, 5)) {
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(xOf(pa), tickY + 16), QPointF(xOf(pa), bottom));
        drawLine(p, QRectF(xOf(pa) - 30, tickY, 60, 16), Qt::AlignCenter,
                 Figure::pressure(pa).number, textFont(TextSize::Small), t.muted);
    }
    // Key: which arrow is which, and where both start.
    double x = remedyNames + 14;
    const auto key = [&](const QString &text, const QColor &tone, bool mark) {
        if (mark)
            arrow(p, x, x + 22, 12, tone);
        x += mark ? 28 : 0;
        drawLine(p, QRectF(x, 3, 240, 18), Qt::AlignVCenter, text, textFont(TextSize::Small),
                 t.muted);
        x += QFontMetricsF(textFont(TextSize::Small)).horizontalAdvance(text) + 18;
    };
    key(tr("gauge"), t.cold, true);
    key(tr("bearing worst off"), t.oil[3], true);
    key(tr("%1 at hot idle").arg(unitOf(Shows::Pressure)), t.muted, false);
    p.setPen(QPen(t.cold, 1, Qt::DashLine));
    p.drawLine(QPointF(xOf(m_table->now.gauge_pa), tickY + 16),
               QPointF(xOf(m_table->now.gauge_pa), bottom));
    p.setPen(QPen(t.oil[3], 1, Qt::DashLine));
    p.drawLine(QPointF(xOf(m_table->now.bearing_pa), tickY + 16),
               QPointF(xOf(m_table->now.bearing_pa), bottom));
    for (int i = 0; i < static_cast<int>(m_table->remedies.size()); ++i)
        paintRow(p, i);
}

void RemedyChart::paintRow(QPainter &p, int i) const
{
    const Theme &t = Theme::current();
    const Remedy &r = m_table->remedies[static_cast<size_t>(i)];
    const double y = top + rowHeight() * i;
    const double pad = (rowHeight() - leastRow) / 2; // the words stay together
    if (i == m_chosen) {
        p.setPen(hasFocus() ? QPen(t.selection, 1) : QPen(Qt::NoPen));
        QColor fill = t.selectionFill;
        fill.setAlpha(120);
        p.setBrush(fill);
        p.drawRoundedRect(QRectF(3, y + 1, width() - 6, rowHeight() - 2), 4, 4);
    }
    drawLine(p, QRectF(12, y + pad + 3, remedyNames - 14, 18), Qt::AlignVCenter, qs(r.name),
             textFont(TextSize::Normal, true), i == m_chosen ? t.selection : t.ink);
    drawLine(p, QRectF(12, y + pad + 19, remedyNames - 14, 16), Qt::AlignVCenter, qs(r.what),
             textFont(TextSize::Small), t.muted);
    const double right = width() - wordsWidth;
    if (r.solved) {
        arrow(p, xOf(m_table->now.gauge_pa), xOf(r.figures.gauge_pa), y + pad + 13, t.cold);
        arrow(p, xOf(m_table->now.bearing_pa), xOf(r.figures.bearing_pa), y + pad + 26, t.oil[3]);
        drawLine(p, QRectF(right, y + pad + 19, wordsWidth - 10, 16), Qt::AlignVCenter,
                 watts(r.figures.power_w).text() + QStringLiteral(" · ") + churn(r.figures),
                 textFont(TextSize::Small), t.muted);
    }
    drawLine(p, QRectF(right, y + pad + 3, wordsWidth - 10, 18), Qt::AlignVCenter, qs(r.verdict),
             textFont(TextSize::Normal, r.needleOnly),
             r.needleOnly  ? t.hold
                 : r.helps ? t.proven
                           : t.ink);
    p.setPen(QPen(t.line, 1));
    p.drawLine(QPointF(8, y + rowHeight()), QPointF(width() - 8, y + rowHeight()));
}

void RemedyChart::mousePressEvent(QMouseEvent *event)
{
    setFocus();
    const int row = static_cast<int>(std::floor((event->position().y() - top) / rowHeight()));
    if (m_table && row >= 0 && row < static_cast<int>(m_table->remedies.size()))
        Q_EMIT picked(row);
}

void RemedyChart::keyPressEvent(QKeyEvent *event)
{
    const int by = event->key() == Qt::Key_Down ? 1 : event->key() == Qt::Key_Up ? -1 : 0;
    if (by == 0 || !m_table || m_table->remedies.empty())
        return QWidget::keyPressEvent(event);
    Q_EMIT picked(std::clamp(m_chosen + by, 0, static_cast<int>(m_table->remedies.size()) - 1));
}

namespace {

/// A groove feeds the rod and costs the main: both, before and after.
void crankLines(const CrankFigures &now, const CrankFigures &then, const QString &film,
                PanelContent &out)
{
    out.push_back(PanelChange { RemedyPage::tr("rod least well fed"), Figure::percent(now.fedShare),
                                Figure::percent(then.fedShare), Tone::Plain });
    if (!(now.mainFilm_m > 0) || !(then.mainFilm_m > 0))
        return;
    out.push_back(PanelChange { film, Figure::clearance(now.mainFilm_m * 1e6, 0.3),
                                Figure::clearance(then.mainFilm_m * 1e6, 0.3), Tone::Plain });
    const auto lambda = [](double v) { return Shown { qs(formatNumber(v, 1)), {}, {} }; };
    out.push_back(PanelChange { RemedyPage::tr("and its λ"), lambda(now.filmParameter),
                                lambda(then.filmParameter), Tone::Plain });
}

} // namespace

RemedyPage::RemedyPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_with(new QLabel(this))
    , m_chart(new RemedyChart(nullptr))
{
    follow(qs(ask::remedies({}, {}).topic));
    connect(&open, &OpenBuild::imaginedChanged, this, [this] {
        if (isVisible())
            refresh();
    });
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    m_with->setObjectName(QStringLiteral("remedy.with"));
    m_with->setWordWrap(true);
    column->addWidget(m_with);
    auto *card = new CardWidget(this);
    auto *inside = new QVBoxLayout(card);
    inside->setContentsMargins(2, 4, 2, 4);
    inside->addWidget(m_chart);
    column->addWidget(card, 1);
    connect(m_chart, &RemedyChart::picked, this, [this](int row) {
        m_chosen = row;
        m_chart->choose(row);
        Q_EMIT changed();
    });
}

void RemedyPage::refresh()
{
    QStringList with;
    for (const Fault &f : m_open.imagined())
        with << qs(faultName(m_open.build(), f));
    m_with->setText(with.isEmpty()
                        ? tr("On the engine as it is measured. Imagine a fault on the Route's What "
                             "if page to compare what would mend it.")
                        : tr("With what is imagined: %1").arg(with.join(QStringLiteral("; "))));
    setTone(m_with, with.isEmpty() ? Theme::current().muted : Theme::current().lookAgain);
    m_answer = m_open.answers().latest(ask::remedies(m_open.imagined(), m_wishes));
    m_chart->setTable(table());
    m_chart->choose(m_chosen);
}

const RemedyTable *RemedyPage::table() const
{
    return m_answer && m_answer->answer ? &*m_answer->answer : nullptr;
}

PanelContent RemedyPage::panel()
{
    PanelContent out;
    out.push_back(PanelTitle { tr("Remedies"), tr("hot idle, unless it says otherwise"), {} });
    const RemedyTable *all = table();
    if (!all)
        return out;
    const RemedyFigures &now = all->now;
    const Remedy *r = m_chosen >= 0 && m_chosen < static_cast<int>(all->remedies.size())
        ? &all->remedies[static_cast<size_t>(m_chosen)]
        : nullptr;
    if (!r) {
        out.push_back(PanelRow { tr("gauge"), Figure::pressure(now.gauge_pa), {} });
        out.push_back(PanelRow { qs(now.bearing), Figure::pressure(now.bearing_pa),
                                 tr("the main or big-end worst off for its need") });
        out.push_back(PanelText { tr("Choose a remedy for its figures."), Tone::Muted });
    } else {
        const RemedyFigures &f = r->figures;
        out.push_back(PanelHeading { qs(r->name), r->needleOnly ? Tone::Bad : Tone::Plain });
        out.push_back(PanelText { qs(r->verdict) + u'.', r->needleOnly ? Tone::Bad : Tone::Plain });
        out.push_back(PanelChange { tr("gauge"), Figure::pressure(now.gauge_pa),
                                    Figure::pressure(f.gauge_pa), Tone::Plain });
        out.push_back(PanelChange { qs(f.bearing), Figure::pressure(now.bearing_pa),
                                    Figure::pressure(f.bearing_pa), Tone::Plain });
        out.push_back(PanelChange { tr("oil of the bearings"), Figure::flow(now.bearingOil_m3_s),
                                    Figure::flow(f.bearingOil_m3_s), Tone::Plain });
        out.push_back(PanelChange { qs(f.weakest), Figure::pressure(now.weakest_pa),
                                    Figure::pressure(f.weakest_pa), Tone::Plain });
        crankLines(now.idle, f.idle, tr("smallest main film"), out);
        wishPanel(*r, out);
        out.push_back(PanelRule {});
        out.push_back(
            PanelHeading { tr("At %1").arg(Figure::speed(m_open.build().use.most_rpm).text()) });
        out.push_back(PanelChange { qs(f.bearingMost), Figure::pressure(now.bearingMost_pa),
                                    Figure::pressure(f.bearingMost_pa), Tone::Plain });
        out.push_back(PanelRow { tr("of what it needs"), Figure::percent(f.bearingMostRatio) });
        out.push_back(PanelChange { tr("gauge"), Figure::pressure(now.most.gauge_pa),
                                    Figure::pressure(f.most.gauge_pa), Tone::Plain });
        crankLines(now.most, f.most, tr("main film, full load"), out);
        out.push_back(PanelRule {});
        out.push_back(PanelHeading {
            tr("At %1").arg(Figure::speed(m_open.build().use.highSpeed_rpm).text()) });
        out.push_back(PanelChange { tr("gauge"), Figure::pressure(now.gaugeFast_pa),
                                    Figure::pressure(f.gaugeFast_pa), Tone::Plain });
        out.push_back(
            PanelChange { tr("pump takes"), watts(now.power_w), watts(f.power_w), Tone::Plain });
        out.push_back(PanelChange { tr("over the relief"), Figure::flow(now.relief_m3_s),
                                    Figure::flow(f.relief_m3_s), Tone::Plain });
        out.push_back(
            PanelText { tr("What goes over the relief comes back warmer and with more air "
                           "in it; by how much no figure is known."),
                        Tone::Muted });
    }
    if (!all->notHere.empty()) {
        out.push_back(PanelRule {});
        out.push_back(PanelHeading { tr("No place for") });
        for (const std::string &n : all->notHere)
            out.push_back(PanelText { qs(n) + u'.', Tone::Muted });
    }
    return out;
}

/// How much of it, and whether it is tried together with others.
void RemedyPage::wishPanel(const Remedy &r, PanelContent &out)
{
    if (r.id == "together")
        return;
    if (r.size) {
        const FieldShape shape = fieldShape(r.size->unit, Fineness::Measured);
        const bool share = r.size->unit.empty();
        out.push_back(PanelField {
            QStringLiteral("remedy.size"), qs(r.size->meaning) + (share ? tr(", %") : QString()),
            shape.dimension, shape.unit, share ? 0 : std::max(1, shape.decimals),
            share ? r.size->value * 100 : r.size->value * shape.siPerFile,
            [this, id = r.id, size = *r.size, shape, share](double si) -> Result<void> {
                const double value = share ? si / 100 : si / shape.siPerFile;
                if (value < size.least || value > size.most)
                    return fail("",
                                { "remedy.range",
                                  "must be {0} to {1}",
                                  { ofFileUnit(share ? size.least * 100 : size.least, size.unit),
                                    ofFileUnit(share ? size.most * 100 : size.most, size.unit) } });
                m_wishes.sizes[id] = value;
                refresh();
                return {};
            } });
    }
    auto &with = m_wishes.together;
    const bool on = std::ranges::find(with, r.id) != with.end();
    if (on || with.size() < 3)
        out.push_back(PanelTick { QStringLiteral("remedy.together"),
                                  Mark::NotAsked,
                                  tr("Try it together with others"),
                                  {},
                                  on,
                                  [this, id = r.id](bool wanted) {
                                      std::erase(m_wishes.together, id);
                                      if (wanted)
                                          m_wishes.together.push_back(id);
                                      refresh();
                                      Q_EMIT changed();
                                  } });
}

} // namespace mildpath
