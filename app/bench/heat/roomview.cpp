// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/heat/roomview.h"

#include "open/questions.h"
#include "open/vectorstate.h"
#include "paint/text.h"

#include <QHelpEvent>
#include <QPushButton>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr std::string_view roomMapTopic = "roomMap";

constexpr int coarseColumns = 10, fineColumns = 60;
constexpr double rowLabel = 62;

QColor faint(QColor colour, float alpha)
{
    colour.setAlphaF(alpha);
    return colour;
}

} // namespace

RoomView::RoomView(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
    , m_cancel(new QPushButton(tr("Cancel"), this))
{
    setObjectName(QStringLiteral("roomView"));
    setMinimumSize(240, 170);
    m_cancel->setObjectName(QStringLiteral("cancelRoom"));
    m_cancel->hide();
    connect(m_cancel, &QPushButton::clicked, this, [this] {
        giveUp();
        update();
    });
    connect(&open.answers(), &Answers::answered, this, [this](const QString &topic) {
        if (topic.toStdString() != roomMapTopic || !m_asked)
            return;
        m_slow.stop();
        m_cancel->hide();
        take(m_open.answers().find(ask::roomMap(m_asked->first, m_asked->second, fineColumns)));
    });
    // Anything over 300 ms shows how far it is and can be given up.
    m_slow.setInterval(100);
    connect(&m_slow, &QTimer::timeout, this, [this] {
        m_cancel->setVisible(m_open.answers().progress(roomMapTopic) != nullptr);
        update();
    });
}

void RoomView::giveUp()
{
    m_open.answers().giveUp(roomMapTopic);
    m_slow.stop();
    m_cancel->hide();
}

void RoomView::forget()
{
    giveUp();
    m_map = nullptr;
    m_answer.reset();
    m_asked.reset();
    setRoom(nullptr);
}

void RoomView::ask(const std::string &family, const RoomConditions &conditions)
{
    Answers &answers = m_open.answers();
    const bool another = !m_asked || m_asked->first != family || !(m_asked->second == conditions);
    m_asked = { family, conditions };
    if (auto fine = answers.ask(ask::roomMap(family, conditions, fineColumns)))
        return take(std::move(fine));
    m_slow.start(300);
    if (another || !m_map) {
        clearVectorState();
        take(answers.now(ask::roomMap(family, conditions, coarseColumns)));
    }
}

void RoomView::take(std::shared_ptr<const Answered<Result<RoomMap>>> answer)
{
    if (!answer)
        return;
    m_answer = std::move(answer);
    m_map = m_answer->answer ? &*m_answer->answer : nullptr;
    m_problem = m_map ? QString() : qs(m_answer->answer.error().message);
    if (m_map && m_map->hereRow >= 0) {
        const RoomRow &row = m_map->rows[static_cast<size_t>(m_map->hereRow)];
        const auto most = m_map->most_um(row);
        setAccessibleName(most ? tr("room to choose with %1: from %2 to %3, this build %4")
                                     .arg(qs(row.grade),
                                          Figure::clearance(m_map->least_um, 1).text(),
                                          Figure::clearance(*most, 1).text(),
                                          Figure::clearance(m_map->here_um, 1).text())
                               : tr("no room to choose with %1").arg(qs(row.grade)));
    }
    update();
}

QRectF RoomView::area() const
{
    return QRectF(rowLabel, 22, width() - rowLabel - 8, height() - 62.0);
}

double RoomView::x(double um) const
{
    const QRectF a = area();
    const double from = m_map->cold_um.front(), to = m_map->cold_um.back();
    return a.left() + std::clamp((um - from) / (to - from), 0.0, 1.0) * a.width();
}

QRectF RoomView::rowArea(size_t row) const
{
    const QRectF a = area();
    const double h = a.height() / static_cast<double>(m_map->rows.size());
    return { a.left(), a.top() + h * static_cast<double>(row), a.width(), h };
}

void RoomView::paintRow(QPainter &p, size_t row) const
{
    const Theme &t = Theme::current();
    const RoomRow &r = m_map->rows[row];
    const QRectF band = rowArea(row).adjusted(0, 0.5, 0, -0.5);
    const double tight = x(m_map->least_um);
    const auto most = m_map->most_um(r);
    const double hot = most ? x(*most) : band.left();
    p.fillRect(band, faint(t.proven, t.dark ? 0.38F : 0.20F));
    if (hot < band.right()) {
        p.fillRect(QRectF(hot, band.top(), band.right() - hot, band.height()), t.bench);
        p.fillRect(QRectF(hot, band.top(), band.right() - hot, band.height()),
                   faint(t.lookAgain, t.dark ? 0.36F : 0.24F));
    }
    if (tight > band.left())
        p.fillRect(QRectF(band.left(), band.top(), tight - band.left(), band.height()), t.holdFill);
    drawLine(p, QRectF(0, band.top(), rowLabel - 6, band.height()),
             Qt::AlignRight | Qt::AlignVCenter, qs(r.grade), textFont(TextSize::Normal, r.fitted),
             r.fitted ? t.ink : t.muted);
}

void RoomView::paintContours(QPainter &p, size_t row) const
{
    const Theme &t = Theme::current();
    const QRectF band = rowArea(row).adjusted(0, 0.5, 0, -0.5);
    // Half a bar apart, or the like in psi, so that the eye can follow one from oil to oil.
    const bool psi = Figure::system() == UnitSystem::Imperial;
    const double step_pa = psi ? fromUnit(5, "psi", Dimension::Pressure) : 0.5e5;
    double taken = -1e9;
    for (int k = 1; k <= 12; ++k)
        for (const double um : m_map->crossings_um(m_map->rows[row], k * step_pa)) {
            const double at = x(um);
            p.setPen(QPen(t.ink, k % 2 == 0 ? 1.6 : 1));
            p.drawLine(QPointF(at, band.top()), QPointF(at, band.bottom()));
            if (std::abs(at - taken) < 30 || band.height() < 14)
                continue;
            taken = at;
            // Behind its line, or before it where the map ends.
            const bool before = at + 26 > band.right();
            drawLine(p, QRectF(before ? at - 38 : at + 4, band.top(), 34, band.height()),
                     before ? Qt::AlignVCenter | Qt::AlignRight : Qt::AlignVCenter,
                     psi ? QString::number(5 * k) : qs(formatNumber(0.5 * k, 1)),
                     textFont(TextSize::Small), t.ink);
        }
}

void RoomView::paintHere(QPainter &p) const
{
    if (m_map->hereRow < 0)
        return;
    const Theme &t = Theme::current();
    const QRectF band = rowArea(static_cast<size_t>(m_map->hereRow));
    const QPointF at(x(m_map->here_um), band.center().y());
    p.setPen(QPen(t.selection, 2));
    p.drawLine(QPointF(x(m_map->here_um - m_map->hereU_um), at.y()),
               QPointF(x(m_map->here_um + m_map->hereU_um), at.y()));
    for (const double end : { m_map->here_um - m_map->hereU_um, m_map->here_um + m_map->hereU_um })
        p.drawLine(QPointF(x(end), at.y() - 4), QPointF(x(end), at.y() + 4));
    p.setPen(QPen(t.selection, 2.5));
    p.setBrush(t.panel);
    p.drawEllipse(at, 6, 6);
    const QString word = m_map->hereMeasured ? tr("this build") : tr("this build, assumed");
    const QFont font = textFont(TextSize::Normal, true);
    const double w = QFontMetricsF(font).horizontalAdvance(word) + 8;
    const double right = x(m_map->here_um + m_map->hereU_um) + 8;
    const bool fits = right + w < area().right();
    const QRectF box(fits ? right : x(m_map->here_um - m_map->hereU_um) - 8 - w, at.y() - 8, w, 16);
    p.setPen(Qt::NoPen);
    p.setBrush(faint(t.panel, 0.82F));
    p.drawRoundedRect(box, 4, 4);
    drawLine(p, box, Qt::AlignCenter, word, font, t.selection);
}

void RoomView::setRoom(const Room *room)
{
    m_edges = room ? room->edges : std::vector<RoomEdge>();
    m_pressureLow_um = room ? room->pressureLow_um : std::nullopt;
    update();
}

/// A dashed line with its word beside it; outside the map nothing.
void RoomView::paintEdge(QPainter &p, double um, const QRectF &band, const QString &word) const
{
    if (um <= m_map->cold_um.front() || um >= m_map->cold_um.back())
        return;
    const Theme &t = Theme::current();
    QPen pen(t.ink, 1.4, Qt::DashLine);
    p.setPen(pen);
    p.drawLine(QPointF(x(um), band.top()), QPointF(x(um), band.bottom()));
    const QFont small = textFont(TextSize::Small);
    const double w = QFontMetricsF(small).horizontalAdvance(word) + 6;
    const double left = x(um) + 3 + w < area().right() ? x(um) + 3 : x(um) - 3 - w;
    const QRectF box(left, band.bottom() - 16, w, 14);
    p.setPen(Qt::NoPen);
    p.setBrush(faint(t.panel, 0.82F));
    p.drawRoundedRect(box, 3, 3);
    drawLine(p, box, Qt::AlignCenter, word, small, t.ink);
}

/// What else ends the room: noise whatever the oil, films and the gauge's low end with the fitted.
void RoomView::paintEdges(QPainter &p) const
{
    if (m_map->hereRow < 0)
        return;
    const QRectF fitted = rowArea(static_cast<size_t>(m_map->hereRow));
    for (const RoomEdge &e : m_edges)
        if (e.um && e.bound == RoomBound::Noise)
            paintEdge(p, *e.um, area(), tr("begins to be heard"));
        else if (e.um && e.bound == RoomBound::Film)
            paintEdge(p, *e.um, fitted, tr("film"));
    if (m_pressureLow_um)
        paintEdge(p, *m_pressureLow_um, fitted, tr("low end"));
}

void RoomView::paintFrame(QPainter &p) const
{
    const Theme &t = Theme::current();
    const QFont small = textFont(TextSize::Small);
    const QRectF a = area();
    drawLine(p, QRectF(a.left(), 3, a.width() / 2, 16), Qt::AlignVCenter, tr("too tight"), small,
             t.hold);
    drawLine(p, QRectF(a.center().x(), 3, a.width() / 2, 16), Qt::AlignRight | Qt::AlignVCenter,
             tr("too little pressure hot"), small, t.lookAgain);
    const double from = m_map->cold_um.front(), to = m_map->cold_um.back();
    for (const double m :
         niceTicks(from * 1e-6, to * 1e-6, Shows::Clearance, static_cast<int>(a.width() / 40))) {
        drawLine(p, QRectF(x(m * 1e6) - 22, a.bottom() + 2, 44, 15), Qt::AlignCenter,
                 tickOf(m, Shows::Clearance), small, t.muted);
    }
    QString axis = tr("%1 at %2").arg(unitOf(Shows::Clearance), Figure::temperature(20).text());
    const auto limits = m_open.build().limits.find(m_map->family);
    if (limits != m_open.build().limits.end()) {
        // The maker's limits as a bracket under the axis.
        const double y = a.bottom() + 21;
        const double left = x(limits->second.min_um), right = x(limits->second.max_um);
        p.setPen(QPen(t.muted, 1));
        p.drawLine(QPointF(left, y), QPointF(right, y));
        for (const double end : { left, right })
            p.drawLine(QPointF(end, y - 3), QPointF(end, y + 3));
        drawLine(p, QRectF(left, y + 3, std::max(60.0, a.right() - 92 - left), 15),
                 Qt::AlignVCenter,
                 tr("limits %1 to %2")
                     .arg(Figure::limit(limits->second.min_um).number,
                          Figure::limit(limits->second.max_um).text()),
                 small, t.muted);
    }
    drawLine(p, QRectF(a.right() - 90, a.bottom() + 24, 90, 15), Qt::AlignRight | Qt::AlignVCenter,
             axis, small, t.muted);
}

void RoomView::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (!m_map) {
        drawLine(p, QRectF(rect()), Qt::AlignCenter,
                 m_problem.isEmpty() ? tr("nothing computed yet") : m_problem,
                 textFont(TextSize::Normal), t.muted);
        return;
    }
    for (size_t row = 0; row < m_map->rows.size(); ++row)
        paintRow(p, row);
    for (size_t row = 0; row < m_map->rows.size(); ++row)
        paintContours(p, row);
    paintEdges(p);
    paintHere(p);
    paintFrame(p);
    if (const Progress *progress = m_open.answers().progress(roomMapTopic);
        m_cancel->isVisible() && progress && progress->whole > 0)
        drawLine(
            p, QRectF(area().left(), area().center().y() - 10, area().width() - 90, 20),
            Qt::AlignRight | Qt::AlignVCenter,
            tr("finer: %1").arg(Figure::percent(double(progress->done) / progress->whole).text()),
            textFont(TextSize::Body, true), t.ink);
}

void RoomView::resizeEvent(QResizeEvent *)
{
    m_cancel->move(static_cast<int>(area().right()) - 80,
                   static_cast<int>(area().center().y()) - 12);
}

QString RoomView::tipAt(QPointF at) const
{
    if (!m_map || !area().contains(at))
        return {};
    const QRectF a = area();
    const auto rows = m_map->rows.size();
    const auto row
        = std::min(rows - 1, static_cast<size_t>((at.y() - a.top()) / a.height() * double(rows)));
    const double share = (at.x() - a.left()) / a.width();
    const auto column = static_cast<size_t>(std::lround(share * double(m_map->cold_um.size() - 1)));
    const RoomRow &r = m_map->rows[row];
    return tr("%1, %2 cold: hot idle %3, weakest %4 × its need")
        .arg(qs(r.grade), Figure::clearance(m_map->cold_um[column], 1).text(),
             Figure::pressure(r.gauge_pa[column]).text(), qs(formatNumber(r.ratio[column], 1)));
}

bool RoomView::event(QEvent *event)
{
    if (event->type() == QEvent::ToolTip) {
        const auto *help = static_cast<QHelpEvent *>(event);
        QToolTip::showText(help->globalPos(), tipAt(help->pos()), this);
        return true;
    }
    return QWidget::event(event);
}

} // namespace mildpath
