// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/clearances/torquepage.h"

#include "assess/figuremarks.h"
#include "paint/marks.h"
#include "paint/text.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {
namespace {

constexpr double boltRadius = 19;

const TorqueCard *findCard(const Build &build, const std::string &id)
{
    for (const TorqueCard &c : build.torqueCards)
        if (c.id == id)
            return &c;
    return nullptr;
}

} // namespace

BoltPicture::BoltPicture(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("boltPicture"));
    setMinimumHeight(220);
}

void BoltPicture::setCard(const std::string &id)
{
    m_card = id;
    const TorqueCard *c = card();
    QString spoken;
    if (c) {
        const TorqueState state = torqueState(m_open.build(), *c);
        for (size_t i = 0; i < state.bolts.size(); ++i)
            spoken += tr("bolt %1 at stage %2 of %3; ")
                          .arg(i + 1)
                          .arg(state.bolts[i].stage)
                          .arg(c->stages.size());
    }
    setAccessibleName(spoken);
    update();
}

const TorqueCard *BoltPicture::card() const
{
    return findCard(m_open.build(), m_card);
}

QPointF BoltPicture::at(const Fastener &f) const
{
    const TorqueCard &c = *card();
    double left = 1e9, right = -1e9, most = 1;
    for (const Fastener &other : c.fasteners) {
        left = std::min(left, other.x_mm);
        right = std::max(right, other.x_mm);
        most = std::max(most, std::abs(other.y_mm));
    }
    const double span = std::max(1.0, right - left);
    const double room = width() - 150.0;
    return { 75 + (f.x_mm - left) / span * room,
             height() / 2.0 + 4 + f.y_mm / most * std::min(height() / 2.0 - 74, 120.0) };
}

QPointF BoltPicture::placeOf(int fastener) const
{
    return at(card()->fasteners[static_cast<size_t>(fastener - 1)]);
}

void BoltPicture::paintEvent(QPaintEvent *)
{
    const TorqueCard *c = card();
    if (!c)
        return;
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const TorqueState state = torqueState(m_open.build(), *c);
    // The caps lie under their bolts.
    for (size_t i = 0; i < c->fasteners.size(); ++i)
        for (size_t k = i + 1; k < c->fasteners.size(); ++k)
            if (c->fasteners[i].stop == c->fasteners[k].stop) {
                const QPointF a = at(c->fasteners[i]), b = at(c->fasteners[k]);
                const QRectF cap = QRectF(a, b).normalized().adjusted(-30, -32, 30, 46);
                p.setPen(QPen(t.line, 1.2));
                p.setBrush(t.panel);
                p.drawRoundedRect(cap, 7, 7);
                if (const Stop *stop = m_open.build().engine.find(c->fasteners[i].stop))
                    drawLine(p, QRectF(cap.left() - 20, cap.top() - 20, cap.width() + 40, 16),
                             Qt::AlignCenter, qs(stop->name), textFont(TextSize::Normal), t.muted);
            }
    const int last = static_cast<int>(c->stages.size());
    for (size_t i = 0; i < c->fasteners.size(); ++i) {
        const QPointF centre = at(c->fasteners[i]);
        const auto &bolt = state.bolts[i];
        const bool next = state.tighten && state.tighten->fastener == static_cast<int>(i) + 1;
        p.setPen(QPen(next ? t.selection : t.ink, next ? 3 : 1.4));
        p.setBrush(bolt.stage == last ? t.selectionFill : t.bench);
        p.drawEllipse(centre, boltRadius, boltRadius);
        // Stages as arcs round the head: a third each for three.
        p.setPen(QPen(t.proven, 4, Qt::SolidLine, Qt::FlatCap));
        const QRectF ring(centre.x() - boltRadius - 4, centre.y() - boltRadius - 4,
                          2 * boltRadius + 8, 2 * boltRadius + 8);
        p.drawArc(ring, 90 * 16, -360 * 16 * bolt.stage / std::max(1, last));
        drawLine(p, QRectF(centre.x() - 15, centre.y() - 10, 30, 20), Qt::AlignCenter,
                 QString::number(i + 1), textFont(TextSize::Body, true), t.ink);
        if (bolt.stage == last && c->singleUse())
            drawLine(p, QRectF(centre.x() - 30, centre.y() + boltRadius + 6, 60, 14),
                     Qt::AlignCenter, bolt.newBolt ? tr("new") : tr("test"),
                     textFont(TextSize::Small), bolt.newBolt ? t.proven : t.lookAgain);
    }
    drawLine(p, QRectF(6, height() - 16, 200, 15), Qt::AlignVCenter,
             tr("front of the engine at the left"), textFont(TextSize::Small), t.muted);
}

void BoltPicture::mousePressEvent(QMouseEvent *event)
{
    const TorqueCard *c = card();
    for (size_t i = 0; c && i < c->fasteners.size(); ++i) {
        const QPointF d = event->position() - at(c->fasteners[i]);
        if (QPointF::dotProduct(d, d) < boltRadius * boltRadius)
            Q_EMIT clicked(static_cast<int>(i) + 1);
    }
}

TorquePage::TorquePage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_picture(new BoltPicture(open, this))
    , m_cardBar(new QWidget(this))
    , m_next(new QLabel(this))
    , m_about(new QLabel(this))
    , m_message(new QLabel(this))
    , m_newBolts(new QCheckBox(tr("new bolts, for the build"), this))
{
    setObjectName(QStringLiteral("torquePage"));
    setFocusPolicy(Qt::StrongFocus);
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    auto *cards = new QHBoxLayout(m_cardBar);
    cards->setContentsMargins(0, 0, 0, 0);
    cards->setSpacing(4);
    column->addWidget(m_cardBar);
    column->addWidget(m_about);
    column->addWidget(m_picture, 1);
    m_next->setFont(textFont(TextSize::Title, true));
    m_next->setObjectName(QStringLiteral("nextBolt"));
    m_message->setObjectName(QStringLiteral("torqueMessage"));
    column->addWidget(m_next);
    column->addWidget(m_message);
    auto *row = new QHBoxLayout;
    const auto button = [&](const QString &name, const QString &text, void (TorquePage::*slot)()) {
        auto *b = new QPushButton(text, this);
        b->setObjectName(name);
        connect(b, &QPushButton::clicked, this, slot);
        row->addWidget(b);
        return b;
    };
    m_tick = button(QStringLiteral("tickNext"), tr("Tick it (Space)"), &TorquePage::tickNext);
    m_loosen = button(QStringLiteral("loosenNext"), tr("Loosen the last (Backspace)"),
                      &TorquePage::loosenNext);
    m_loosenAll
        = button(QStringLiteral("loosenAll"), tr("All are loose again"), &TorquePage::loosenAll);
    m_newBolts->setObjectName(QStringLiteral("newBolts"));
    row->addSpacing(10);
    row->addWidget(m_newBolts);
    row->addStretch();
    column->addLayout(row);
    connect(m_picture, &BoltPicture::clicked, this, [this](int fastener) {
        const TorqueCard *c = card();
        if (m_ordering)
            return orderBy(fastener);
        const TorqueState state = torqueState(m_open.build(), *c);
        const int stage = state.bolts[static_cast<size_t>(fastener - 1)].stage + 1;
        if (stage <= static_cast<int>(c->stages.size()))
            tick(fastener, stage);
    });
}

const TorqueCard *TorquePage::card() const
{
    return findCard(m_open.build(), m_card);
}

void TorquePage::showCards()
{
    const auto &all = m_open.build().torqueCards;
    if (!card())
        m_card = all.empty() ? "" : all.front().id;
    if (m_cards.size() != all.size()) {
        qDeleteAll(m_cards);
        m_cards.clear();
        auto *row = static_cast<QHBoxLayout *>(m_cardBar->layout());
        while (QLayoutItem *item = row->takeAt(0))
            delete item;
        for (size_t i = 0; i < all.size(); ++i) {
            auto *b = new QPushButton(m_cardBar);
            b->setCheckable(true);
            connect(b, &QPushButton::clicked, this, [this, i] {
                m_card = m_open.build().torqueCards[i].id;
                refresh();
                setFocus();
            });
            row->addWidget(b);
            m_cards.push_back(b);
        }
        row->addStretch();
    }
    for (size_t i = 0; i < all.size(); ++i) {
        m_cards[i]->setText(qs(all[i].name));
        m_cards[i]->setObjectName(QStringLiteral("card_") + qs(all[i].id));
        m_cards[i]->setChecked(all[i].id == m_card);
    }
}

void TorquePage::refresh()
{
    showCards();
    const TorqueCard *c = card();
    for (QWidget *w : { static_cast<QWidget *>(m_tick), static_cast<QWidget *>(m_loosen),
                        static_cast<QWidget *>(m_loosenAll) })
        w->setEnabled(c != nullptr);
    if (!c) {
        m_about->setText(
            tr("This engine has no torque card. Make one in the panel and type the manufacturer's "
               "figures."));
        m_next->clear();
        return;
    }
    m_picture->setCard(c->id);
    QStringList stages;
    for (const TorqueStage &s : c->stages)
        stages << qs(stageText(s));
    const QString uses = c->singleUse()
        ? tr("These bolts stretch: test bolts to measure with, new ones for the build.")
        : c->uses > 1 ? tr("A bolt may be used %1 times.").arg(c->uses)
                      : tr("Reuse bolts only if the manufacturer allows it.");
    QString threads = qs(c->threads);
    if (!c->washers.empty())
        threads += tr(", heads %1").arg(qs(c->washers));
    m_about->setText(tr("%1 (%2). Threads %3. %4")
                         .arg(stages.join(tr(", then ")), qs(cardSource(*c)), threads, uses));
    m_about->setWordWrap(true);
    setTone(m_about, c->isStartingValue() ? Theme::current().lookAgain : Theme::current().muted);
    m_newBolts->setVisible(c->singleUse());
    const TorqueState state = torqueState(m_open.build(), *c);
    m_tick->setEnabled(state.tighten.has_value());
    m_loosen->setEnabled(state.loosen.has_value());
    m_loosenAll->setEnabled(state.loosen.has_value());
    if (state.tighten) {
        const auto &n = *state.tighten;
        const Stop *stop
            = m_open.build().engine.find(c->fasteners[static_cast<size_t>(n.fastener - 1)].stop);
        m_next->setText(tr("Next: bolt %1, %2, stage %3: %4")
                            .arg(n.fastener)
                            .arg(stop ? qs(stop->name) : QString())
                            .arg(n.stage)
                            .arg(qs(stageText(c->stages[static_cast<size_t>(n.stage - 1)]))));
    } else {
        m_next->setText(tr("All at their last stage. Measure now."));
    }
    m_message->setText(
        state.older ? tr("The card was changed after bolts were ticked: loosen those, begin again.")
            : state.outOfOrder
            ? tr("A bolt was taken before its turn: loosen in reverse and begin again.")
            : !state.waitsFor.empty() ? tr("%1 come first.").arg(qs(state.waitsFor))
                                      : QString());
    setTone(m_message, Theme::current().hold);
}

void TorquePage::tick(int fastener, int stage)
{
    TorqueTick t;
    t.card = m_card;
    t.fastener = fastener;
    t.stage = stage;
    t.newBolt = stage > 0 && m_newBolts->isChecked() && card()->singleUse();
    t.by = m_open.worker();
    t.at = OpenBuild::now();
    if (const auto ok = m_open.edit(TickFastener { t }); !ok)
        m_message->setText(qs(ok.error().message));
}

void TorquePage::tickNext()
{
    const TorqueCard *c = card();
    if (!c)
        return;
    if (const auto next = torqueState(m_open.build(), *c).tighten)
        tick(next->fastener, next->stage);
}

void TorquePage::loosenNext()
{
    const TorqueCard *c = card();
    if (!c)
        return;
    if (const auto last = torqueState(m_open.build(), *c).loosen)
        tick(*last, 0);
}

void TorquePage::loosenAll()
{
    m_open.undoStack().beginMacro(tr("%1 loosened").arg(qs(card()->name)));
    while (torqueState(m_open.build(), *card()).loosen)
        loosenNext();
    m_open.undoStack().endMacro();
}

void TorquePage::keyPressEvent(QKeyEvent *event)
{
    if (event->key() == Qt::Key_Space)
        tickNext();
    else if (event->key() == Qt::Key_Backspace)
        loosenNext();
    else
        QWidget::keyPressEvent(event);
}

PanelContent TorquePage::panel()
{
    PanelContent out;
    const TorqueCard *c = card();
    out.push_back(PanelTitle { tr("Before gauging"), {} });
    for (const QString &line :
         { tr("Shell backs and bores clean and dry; no oil between shell and cap."),
           tr("Tangs in their notches, caps by their numbers, arrows to the front."),
           tr("Lubricate threads and heads as the card says, or clamp load is wrong."),
           tr("Stage by stage in the order shown; angle from a mark, not by feel."),
           tr("Gauge, then loosen in the reverse order.") })
        out.push_back(PanelText { line });
    if (!c) {
        cardPanel(out);
        return out;
    }
    const TorqueState state = torqueState(m_open.build(), *c);
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("What stands") });
    const auto last = static_cast<int>(c->stages.size());
    std::vector<std::string> stops;
    for (const Fastener &f : c->fasteners)
        if (std::find(stops.begin(), stops.end(), f.stop) == stops.end())
            stops.push_back(f.stop);
    std::sort(stops.begin(), stops.end());
    for (const std::string &id : stops) {
        int done = 0, all = 0;
        for (size_t i = 0; i < c->fasteners.size(); ++i)
            if (c->fasteners[i].stop == id) {
                ++all;
                done += state.bolts[i].stage == last;
            }
        const Stop *stop = m_open.build().engine.find(id);
        out.push_back(PanelVerdict { capMark(m_open.build(), id), qs(stop->name),
                                     tr("%1 of %2 bolts at the last stage").arg(done).arg(all) });
    }
    cardPanel(out);
    out.push_back(PanelRule {});
    out.push_back(
        PanelText { tr("Where the manufacturer's manual says otherwise, it wins."), Tone::Muted });
    return out;
}

} // namespace mildpath
