// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/passages/passagemap.h"

#include "assess/cleanmarks.h"
#include "document/logbook.h"
#include "paint/text.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

double distance(QPointF p, QPointF a, QPointF b)
{
    const QPointF ab = b - a;
    const double t = std::clamp(
        QPointF::dotProduct(p - a, ab) / std::max(1e-9, QPointF::dotProduct(ab, ab)), 0.0, 1.0);
    const QPointF away = p - (a + ab * t);
    return std::hypot(away.x(), away.y());
}

} // namespace

PassageMap::PassageMap(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("passageMap"));
    setFocusPolicy(Qt::StrongFocus);
    setMinimumHeight(170);
    setMouseTracking(true);
}

void PassageMap::setPart(const std::string &part)
{
    m_part = part;
    layOut();
    update();
}

void PassageMap::select(const std::string &passage, const std::string &plug)
{
    m_passage = passage;
    m_plug = plug;
    update();
}

void PassageMap::showStep(const CleaningStep *step, int number)
{
    m_step = step;
    m_stepNumber = number;
    update();
}

void PassageMap::refresh()
{
    const Build &build = m_open.build();
    layOut();
    QStringList spoken;
    const auto &states = m_open.cleaning().passages;
    for (const DrawnPassage &d : m_layout.passages) {
        const auto i = static_cast<size_t>(d.passage);
        spoken << qs(build.passages[i].name) + QStringLiteral(": ")
                + qs(markWord(markOf(states[i])));
    }
    setAccessibleName(tr("Passages: ") + spoken.join(QStringLiteral("; ")));
    update();
}

/// Keeps a copy of the metal: a hidden map may be resized after its document has gone. Where no oil
/// passes follows from the metal alone and is not cheap. @return whether it changed
bool PassageMap::takeMetal()
{
    const Build &build = m_open.build();
    if (m_network && m_metal.first == build.passages && m_metal.second == build.plugs)
        return false;
    m_network.reset();
    m_metal = { build.passages, build.plugs };
    m_network.emplace(m_metal.first, m_metal.second);
    m_pockets = pockets(*m_network);
    m_step = nullptr; // of a plan for the metal as it was
    return true;
}

void PassageMap::layOut()
{
    takeMetal();
    m_layout = layOutPart(*m_network, m_part, QRectF(rect()).adjusted(14, 14, -14, -10),
                          stopNamesOf(m_open.build()), stopKindsOf(m_open.build()));
}

void PassageMap::resizeEvent(QResizeEvent *)
{
    layOut();
}

void PassageMap::paintEvent(QPaintEvent *)
{
    if (takeMetal())
        layOut();
    QPainter p(this);
    const Theme &t = Theme::current();
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(hasFocus() ? t.selection : t.line, 1));
    QColor metal = t.line;
    metal.setAlpha(90);
    p.setBrush(metal);
    p.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 6, 6);
    if (m_layout.passages.empty()) {
        drawLine(p, QRectF(rect()), Qt::AlignCenter,
                 tr("No passages are written down for this part yet"), textFont(TextSize::Body),
                 t.muted);
        return;
    }
    PassagePicture picture = pictureOf(m_open.build(), m_open.cleaning(), *m_network, m_pockets);
    picture.step = m_step;
    picture.stepNumber = m_stepNumber;
    picture.selected = m_network->indexOf(m_passage);
    for (size_t i = 0; i < m_open.build().plugs.size(); ++i)
        if (m_open.build().plugs[i].id == m_plug)
            picture.selectedPlug = static_cast<int>(i);
    paintPassages(p, picture, m_layout);
}

QPointF PassageMap::plugPlace(int plug) const
{
    const Plug &p = m_open.build().plugs[static_cast<size_t>(plug)];
    const int in = m_network->indexOf(p.passage);
    const DrawnPassage *d = m_layout.find(in);
    return d ? d->at(m_open.build().passages[static_cast<size_t>(in)], p.at_mm)
             : QPointF(-100, -100);
}

int PassageMap::plugAt(QPointF where) const
{
    for (int i = 0; i < static_cast<int>(m_open.build().plugs.size()); ++i) {
        const QPointF away = plugPlace(i) - where;
        if (std::abs(away.x()) < 11 && std::abs(away.y()) < 13)
            return i;
    }
    return -1;
}

int PassageMap::passageAt(QPointF where) const
{
    int best = -1;
    double nearest = 9;
    for (const DrawnPassage &d : m_layout.passages) {
        const double away = d.labelArea.contains(where) ? 5 : distance(where, d.a, d.b);
        // Standing lines lie over galleries where both are near.
        if (away < nearest - (d.gallery ? 0 : 0.1)) {
            nearest = away;
            best = d.passage;
        }
    }
    return best;
}

void PassageMap::mousePressEvent(QMouseEvent *event)
{
    if (!m_network)
        return;
    setFocus();
    if (const int plug = plugAt(event->position()); plug >= 0) {
        Q_EMIT plugChosen(qs(m_open.build().plugs[static_cast<size_t>(plug)].id));
        return;
    }
    if (const int i = passageAt(event->position()); i >= 0)
        Q_EMIT passageChosen(qs(m_open.build().passages[static_cast<size_t>(i)].id));
}

void PassageMap::keyPressEvent(QKeyEvent *event)
{
    const bool on = event->key() == Qt::Key_Right || event->key() == Qt::Key_Down;
    const bool back = event->key() == Qt::Key_Left || event->key() == Qt::Key_Up;
    if ((!on && !back) || m_layout.passages.empty()) {
        QWidget::keyPressEvent(event);
        return;
    }
    const auto &all = m_layout.passages;
    const int now = m_network->indexOf(m_passage);
    const auto it = std::find_if(all.begin(), all.end(),
                                 [&](const DrawnPassage &d) { return d.passage == now; });
    const auto n = static_cast<long>(all.size());
    long at = it == all.end() ? 0 : (it - all.begin()) + (on ? 1 : -1);
    at = (at + n) % n;
    Q_EMIT passageChosen(
        qs(m_open.build().passages[static_cast<size_t>(all[static_cast<size_t>(at)].passage)].id));
}

bool PassageMap::event(QEvent *event)
{
    if (event->type() == QEvent::ToolTip && m_network) {
        const auto *help = static_cast<QHelpEvent *>(event);
        QString text;
        if (const int plug = plugAt(help->pos()); plug >= 0) {
            const auto i = static_cast<size_t>(plug);
            text = qs(m_open.build().plugs[i].name) + QStringLiteral(": ")
                + qs(plugVerdict(m_open.cleaning().plugs[i]));
        } else if (const int at = passageAt(help->pos()); at >= 0) {
            const auto i = static_cast<size_t>(at);
            const PassageState &s = m_open.cleaning().passages[i];
            text = qs(m_open.build().passages[i].name) + QStringLiteral(": ")
                + qs(markWord(markOf(s))) + QStringLiteral("\n") + qs(s.reason);
        }
        QToolTip::showText(help->globalPos(), text, this);
        return true;
    }
    return QWidget::event(event);
}

QPointF PassageMap::middleOf(const std::string &passage)
{
    const DrawnPassage *d = m_network ? m_layout.find(m_network->indexOf(passage)) : nullptr;
    return d ? d->a * 0.57 + d->b * 0.43 : QPointF(-1, -1);
}

QPointF PassageMap::placeOf(const std::string &plug)
{
    for (size_t i = 0; i < m_open.build().plugs.size(); ++i)
        if (m_open.build().plugs[i].id == plug)
            return plugPlace(static_cast<int>(i));
    return { -1, -1 };
}

} // namespace mildpath
