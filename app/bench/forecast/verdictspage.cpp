// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/forecast/verdictspage.h"

#include "checks/assessment.h"
#include "checks/verdictreport.h"
#include "document/families.h"
#include "open/questions.h"
#include "paint/marks.h"
#include "paint/scrolled.h"
#include "paint/text.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double nameWidth = 118, headHeight = 40, cellHeight = 42, legendHeight = 30;
/// The ruler runs from a third of the limit to thrice, evenly by ratio: limits stand under each
/// other whatever they are.
constexpr double rulerEnds = 3;

QString timesText(double ratio)
{
    constexpr double most = 99; // beyond it nobody asks how many times
    if (!(ratio > 0))
        return {};
    if (ratio > most)
        return QStringLiteral("%1+").arg(static_cast<int>(most));
    return inWords(Quantity { ratio, Shows::Number, 0, ratio < 10 ? 1 : 0 }) + QStringLiteral("×");
}

/// "Coldest", "800 rpm": how warm, and how fast.
QStringList headOf(const OperatingState &s)
{
    const QString name = qs(s.kind->name);
    return { name.section(u',', 0, 0).section(u' ', 0, 0), inWords(asSpeed(s.result.rpm)) };
}

/// "Main 4"; with the unit where it is not the gauge's.
QString placeText(const VerdictRow &row, const VerdictCell &cell)
{
    QStringList out { qs(cell.at) };
    if (cell.shows != Shows::Pressure)
        out << unitOf(cell.shows);
    else if (row.absolute)
        out << QObject::tr("%1 absolute").arg(unitOf(cell.shows));
    out.removeAll(QString());
    return out.join(QStringLiteral(", "));
}

void drawFarAbove(QPainter &p, const QPointF &at, const QColor &colour)
{
    p.setPen(QPen(colour, 1.6));
    p.setBrush(Qt::NoBrush);
    p.drawPolyline(QPolygonF { at + QPointF(-2.5, -4), at + QPointF(2, 0), at + QPointF(-2.5, 4) });
}

Shown shownOf(const VerdictCell &cell, double si)
{
    return cell.shows == Shows::Pressure ? Figure::pressure(si) : shown(cell.figure(si));
}

} // namespace

VerdictGrid::VerdictGrid(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("verdictGrid"));
    setFocusPolicy(Qt::StrongFocus);
}

void VerdictGrid::setTable(VerdictTable table)
{
    m_table = std::move(table);
    m_row = std::min(m_row, static_cast<int>(m_table.rows.size()) - 1);
    m_column = std::min(m_column, static_cast<int>(m_table.states.size()) - 1);
    setMinimumHeight(static_cast<int>(
        headHeight + cellHeight * static_cast<double>(m_table.rows.size()) + legendHeight));
    QStringList spoken;
    for (const VerdictRow &r : m_table.rows)
        spoken << qs(r.name) + QStringLiteral(": ") + qs(markWord(r.worst()));
    setAccessibleName(tr("Verdicts: ") + spoken.join(QStringLiteral("; ")));
    update();
}

void VerdictGrid::setRanges(VerdictRanges ranges)
{
    m_ranges = std::move(ranges);
    update();
}

const VerdictRange *VerdictGrid::rangeOf(int row, int column) const
{
    return m_ranges.find(m_table.rows[static_cast<size_t>(row)].id,
                         m_table.states[static_cast<size_t>(column)]->kind->id);
}

void VerdictGrid::choose(int row, int column)
{
    m_row = row;
    m_column = column;
    update();
}

QRectF VerdictGrid::cellArea(int row, int column) const
{
    const double columns = std::max<double>(1, static_cast<double>(m_table.states.size()));
    const double w = (width() - nameWidth) / columns;
    return { nameWidth + w * column, headHeight + cellHeight * row, w, cellHeight };
}

void VerdictGrid::paintHead(QPainter &p) const
{
    const Theme &t = Theme::current();
    for (size_t i = 0; i < m_table.states.size(); ++i) {
        const QRectF at = cellArea(0, static_cast<int>(i)).adjusted(3, -headHeight, -2, 0);
        const QStringList lines = headOf(*m_table.states[i]);
        drawLine(p, QRectF(at.left(), 2, at.width(), 17), Qt::AlignLeft | Qt::AlignVCenter,
                 lines[0], textFont(TextSize::Small, true), t.ink);
        drawLine(p, QRectF(at.left(), 19, at.width(), 16), Qt::AlignLeft | Qt::AlignVCenter,
                 lines[1], textFont(TextSize::Small), t.muted);
    }
}

void VerdictGrid::paintRuler(QPainter &p, const QRectF &area, const VerdictCell &cell, bool upper,
                             const VerdictRange *range) const
{
    const Theme &t = Theme::current();
    QColor bad = t.hold, good = t.proven;
    bad.setAlphaF(0.16F);
    good.setAlphaF(0.16F);
    const double middle = area.center().x();
    // Enough lies right of a need, and left of a most.
    p.fillRect(QRectF(area.left(), area.top(), area.width() / 2, area.height()),
               upper ? good : bad);
    p.fillRect(QRectF(middle, area.top(), area.width() / 2, area.height()), upper ? bad : good);
    p.fillRect(QRectF(middle - 0.5, area.top() - 1, 1, area.height() + 2), t.muted);
    const auto placeOf = [&](double value) {
        const double where = std::log(std::max(value / cell.limit, 1e-9)) / std::log(rulerEnds);
        return middle + std::clamp(where, -1.0, 1.0) * area.width() / 2;
    };
    const QColor ink
        = cell.mark == Mark::Proven || cell.mark == Mark::Assumed ? t.ink : t.mark(cell.mark);
    if (!upper && cell.ratio > rulerEnds) {
        drawFarAbove(p, QPointF(area.right() - 5, area.center().y()), t.muted);
        return;
    }
    const double at = placeOf(cell.value);
    if (range) {
        QColor soft = ink;
        soft.setAlphaF(0.35F);
        const double low = placeOf(range->low_pa);
        p.fillRect(QRectF(low, area.top() + 2, placeOf(range->high_pa) - low, area.height() - 4),
                   soft);
    }
    const QRectF needle(at - 1.5, area.top() - 1, 3, area.height() + 2);
    if (cell.mark == Mark::Assumed) { // on sizes nobody measured: hollow
        p.setPen(QPen(ink, 1));
        p.setBrush(t.bench);
        p.drawRect(needle.adjusted(-0.5, 0.5, 0.5, -0.5));
    } else {
        p.fillRect(needle, ink);
    }
}

void VerdictGrid::paintCell(QPainter &p, int row, int column) const
{
    const Theme &t = Theme::current();
    const VerdictRow &r = m_table.rows[static_cast<size_t>(row)];
    const VerdictCell &c = r.cells[static_cast<size_t>(column)];
    const QRectF at = cellArea(row, column).adjusted(3, 4, -5, -4);
    if (row == m_row && column == m_column) {
        p.setPen(QPen(t.selection, 1.5));
        p.setBrush(t.selectionFill);
        p.drawRoundedRect(cellArea(row, column).adjusted(0.5, 1.5, -1.5, -1.5), 4, 4);
    }
    if (c.mark == Mark::NotAsked)
        return;
    const bool plain = c.isInside();
    const QFont bold = textFont(TextSize::Small, true);
    const QString figure = shownOf(c, c.value).number;
    drawLine(p, QRectF(at.left(), at.top(), at.width(), 17), Qt::AlignLeft | Qt::AlignVCenter,
             figure, bold, plain ? t.ink : t.mark(c.mark));
    const double left = at.left() + widthOf(figure, bold);
    if (plain)
        drawLine(p, QRectF(left, at.top(), at.right() - left, 17),
                 Qt::AlignRight | Qt::AlignVCenter, timesText(c.ratio), textFont(TextSize::Small),
                 t.muted);
    else
        drawMark(p, QPointF(at.right() - 5, at.top() + 9), 10, c.mark);
    if (c.ratio > 0)
        paintRuler(p, QRectF(at.left(), at.top() + 22, at.width(), 8), c, r.upper,
                   rangeOf(row, column));
}

void VerdictGrid::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme &t = Theme::current();
    paintHead(p);
    for (size_t i = 0; i < m_table.rows.size(); ++i) {
        const int row = static_cast<int>(i);
        const VerdictRow &r = m_table.rows[i];
        const double y = headHeight + cellHeight * row;
        p.fillRect(QRectF(0, y, width(), 1), t.line);
        drawLine(p, QRectF(0, y + 4, nameWidth - 6, 17), Qt::AlignLeft | Qt::AlignVCenter,
                 qs(r.name), textFont(TextSize::Small, true), t.ink);
        // The place that is worst in the column chosen, else anywhere.
        const VerdictCell *worst = nullptr;
        for (const VerdictCell &c : r.cells)
            if (c.mark != Mark::NotAsked && (!worst || c.ratio < worst->ratio))
                worst = &c;
        if (worst)
            drawLine(p, QRectF(0, y + 21, nameWidth - 6, 16), Qt::AlignLeft | Qt::AlignVCenter,
                     placeText(r, *worst), textFont(TextSize::Small), t.muted);
        for (size_t k = 0; k < r.cells.size(); ++k)
            paintCell(p, row, static_cast<int>(k));
    }
    paintLegend(p);
}

void VerdictGrid::paintLegend(QPainter &p) const
{
    const Theme &t = Theme::current();
    const double y = headHeight + cellHeight * static_cast<double>(m_table.rows.size()) + 8;
    double x = 2;
    const auto say = [&](const QString &text) {
        const QFont font = textFont(TextSize::Small);
        drawLine(p, QRectF(x, y, widthOf(text, font) + 2, 16), Qt::AlignLeft | Qt::AlignVCenter,
                 text, font, t.muted);
        x += widthOf(text, font) + 18;
    };
    p.fillRect(QRectF(x + 6, y + 3, 1, 10), t.muted);
    x += 13;
    say(tr("its limit"));
    QColor soft = t.ink;
    soft.setAlphaF(0.35F);
    p.fillRect(QRectF(x, y + 6, 16, 5), soft);
    p.fillRect(QRectF(x + 6, y + 3, 3, 10), t.ink);
    x += 22;
    say(tr("value, nine builds in ten"));
    p.setPen(QPen(t.ink, 1));
    p.setBrush(t.bench);
    p.drawRect(QRectF(x + 0.5, y + 3.5, 4, 9));
    x += 11;
    say(tr("on assumed sizes"));
    drawFarAbove(p, QPointF(x + 4, y + 8), t.muted);
    x += 13;
    say(tr("far above"));
    say(tr("1.8×: times its need"));
}

void VerdictGrid::mousePressEvent(QMouseEvent *event)
{
    for (size_t i = 0; i < m_table.rows.size(); ++i)
        for (size_t k = 0; k < m_table.states.size(); ++k)
            if (cellArea(static_cast<int>(i), static_cast<int>(k)).contains(event->position())
                && m_table.rows[i].cells[k].mark != Mark::NotAsked)
                Q_EMIT picked(static_cast<int>(i), static_cast<int>(k));
}

void VerdictGrid::keyPressEvent(QKeyEvent *event)
{
    const int rows = static_cast<int>(m_table.rows.size());
    const int columns = static_cast<int>(m_table.states.size());
    const int down = (event->key() == Qt::Key_Down) - (event->key() == Qt::Key_Up);
    const int right = (event->key() == Qt::Key_Right) - (event->key() == Qt::Key_Left);
    if ((!down && !right) || rows == 0) {
        QWidget::keyPressEvent(event);
        return;
    }
    Q_EMIT picked(std::clamp(m_row + down, 0, rows - 1),
                  std::clamp(m_column + right, 0, columns - 1));
}

VerdictsPage::VerdictsPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_grid(new VerdictGrid(this))
{
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(scrolled(m_grid, this), 1);
    connect(&open.answers(), &Answers::answered, this, [this](const QString &topic) {
        if (topic != qs(ask::verdictRanges().topic) || !isVisible())
            return;
        refresh();
        Q_EMIT changed();
    });
    connect(m_grid, &VerdictGrid::picked, this, [this](int row, int at) {
        m_grid->choose(row, at);
        const VerdictCell &c
            = m_grid->table().rows[static_cast<size_t>(row)].cells[static_cast<size_t>(at)];
        if (!c.stop.empty())
            m_open.selectStop(qs(c.stop));
        Q_EMIT changed();
    });
}

QString VerdictsPage::about() const
{
    const VerdictTable &t = m_grid->table();
    return tr("%1 of %2 inside · %3 check again · %4 hold")
        .arg(t.inside)
        .arg(t.inside + t.doubtful + t.beyond)
        .arg(t.doubtful)
        .arg(t.beyond);
}

void VerdictsPage::reset()
{
    m_grid->choose(-1, -1);
}

/// It opens on the worst cell.
void VerdictsPage::pickWorst()
{
    const VerdictTable &t = m_grid->table();
    const VerdictCell *worst = nullptr;
    for (size_t i = 0; i < t.rows.size(); ++i)
        for (size_t k = 0; k < t.rows[i].cells.size(); ++k) {
            const VerdictCell &c = t.rows[i].cells[k];
            if (c.mark == Mark::NotAsked || (c.ratio <= 0 && c.isInside()))
                continue;
            const bool is = !worst
                || (c.mark != worst->mark && worse(c.mark, worst->mark) == c.mark)
                || (c.mark == worst->mark && c.ratio < worst->ratio);
            if (is) {
                worst = &c;
                m_grid->choose(static_cast<int>(i), static_cast<int>(k));
            }
        }
}

void VerdictsPage::refresh()
{
    m_grid->setTable(verdictTable(m_open.build(), m_open.assessment()));
    if (m_grid->row() < 0)
        pickWorst();
    const auto ranges = m_open.answers().ask(ask::verdictRanges());
    m_grid->setRanges(ranges ? ranges->answer : VerdictRanges());
}

void VerdictsPage::doubts(const VerdictRow &row, const VerdictRange &range, PanelContent &out) const
{
    const VerdictCell &cell = row.cells[static_cast<size_t>(m_grid->column())];
    out.push_back(PanelText {
        tr("likely %1")
            .arg(inWords(QuantityRange { cell.figure(range.low_pa), cell.figure(range.high_pa) })),
        Tone::Muted });
    if (reachesPast(row, cell, range))
        out.push_back(PanelText { tr("Its range reaches past the limit.") });
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("Where the doubt comes from") });
    constexpr size_t most = 4;
    constexpr double least = 0.01;
    const Doubt *toGauge = nullptr;
    size_t told = 0;
    for (const Doubt &d : range.doubtful.from) {
        if (!toGauge && !d.family.empty() && d.share >= least)
            toGauge = &d;
        if (told < most && d.share >= least) {
            out.push_back(PanelRow { qs(d.cause), Figure::percent(d.share) });
            ++told;
        }
    }
    if (toGauge) {
        const LikelyPressure then = range.doubtful.without(*toGauge);
        const double width = range.high_pa - range.low_pa, less = then.high_pa - then.low_pa;
        out.push_back(PanelText { tr("Gauging the %1 would take up to %2 off the range.")
                                      .arg(qs(findFamily(toGauge->family)->plural).toLower(),
                                           inWords(cell.figure(width - less))),
                                  Tone::Muted });
    }
}

/// All of them at once, the measurement that mends most first.
void VerdictsPage::wideRanges(PanelContent &out) const
{
    const auto causes = wideCauses(m_grid->table(), m_grid->ranges());
    if (causes.empty())
        return;
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("What would narrow most") });
    for (const WideCause &c : causes)
        out.push_back(PanelText { qs(wideText(c)) });
}

PanelContent VerdictsPage::panel()
{
    PanelContent out;
    const VerdictTable &t = m_grid->table();
    if (m_grid->row() < 0 || t.rows.empty()) {
        out.push_back(PanelText { tr("No forecast: the circuit does not solve."), Tone::Muted });
        return out;
    }
    const VerdictRow &row = t.rows[static_cast<size_t>(m_grid->row())];
    const VerdictCell &cell = row.cells[static_cast<size_t>(m_grid->column())];
    const OperatingState &state = *t.states[static_cast<size_t>(m_grid->column())];
    out.push_back(PanelTitle {
        qs(row.name) + (cell.at.empty() ? QString() : QStringLiteral(", ") + qs(cell.at)),
        qs(state.kind->name) + QStringLiteral(": ") + inWords(asSpeed(state.result.rpm))
            + QStringLiteral(", ") + inWords(asTemperature(state.result.oil_c)) });
    out.push_back(PanelRow { cell.shows == Shows::Flow            ? tr("Oil flow")
                                 : cell.shows == Shows::Clearance ? tr("Thinnest film")
                                 : row.absolute                   ? tr("Absolute pressure")
                                                                  : tr("Pressure"),
                             shownOf(cell, cell.value) });
    if (cell.limit > 0)
        out.push_back(
            PanelRow { row.upper ? tr("Holds above") : tr("Needs"), shownOf(cell, cell.limit) });
    if (cell.mark != Mark::NotAsked && cell.ratio > 0)
        out.push_back(PanelVerdict {
            cell.mark,
            row.upper ? tr("%1 of what it stands").arg(inWords(asShare(1 / cell.ratio)))
                      : tr("%1 its need").arg(timesText(cell.ratio)),
            {} });
    if (const VerdictRange *range = m_grid->rangeOf(m_grid->row(), m_grid->column()))
        doubts(row, *range, out);
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("What would mend it") });
    for (const Lever &l : m_open.forecast().levers)
        if (l.change_pa > 0)
            out.push_back(PanelRow { qs(l.name), Figure::pressureChange(l.change_pa) });
    out.push_back(PanelText { tr("at the pressure gauge, hot idle"), Tone::Muted });
    out.push_back(PanelButton { QStringLiteral("verdict.route"), tr("Oil path"),
                                [this] { Q_EMIT benchAsked(Place::Route); } });
    wideRanges(out);
    std::vector<PanelVerdict> others;
    for (const VerdictRow &r : t.rows)
        for (size_t k = 0; k < r.cells.size(); ++k)
            if (const VerdictCell &c = r.cells[k];
                c.mark != Mark::NotAsked && !c.isInside() && &c != &cell)
                others.push_back({ c.mark, qs(r.name), qs(t.states[k]->kind->name) });
    if (!others.empty()) {
        out.push_back(PanelRule {});
        out.push_back(PanelHeading { tr("The others to look at") });
        constexpr size_t most = 5;
        for (size_t i = 0; i < std::min(others.size(), most); ++i)
            out.push_back(others[i]);
        if (others.size() > most)
            out.push_back(PanelText { tr("and %1 more").arg(others.size() - most), Tone::Muted });
    }
    return out;
}

} // namespace mildpath
