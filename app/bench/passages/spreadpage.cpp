// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/passages/spreadpage.h"

#include "assess/rules.h"
#include "assess/spread.h"
#include "checks/assessment.h"
#include "checks/buying.h"
#include "document/logbook.h"
#include "entry/arrowcombo.h"
#include "entry/refusal.h"
#include "paint/card.h"
#include "paint/marks.h"
#include "paint/scrolled.h"
#include "quantity/dates.h"
#include "shell/fallback.h"

#include <QClipboard>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {
namespace {

constexpr double rowHeight = 62;
constexpr double leastStation = 128;

} // namespace

SpreadWay::SpreadWay(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("spreadWay"));
    setFocusPolicy(Qt::StrongFocus);
}

int SpreadWay::perRow() const
{
    return std::max(2, static_cast<int>((width() - 20) / leastStation));
}

void SpreadWay::setItems(const std::vector<SpreadItem> &items)
{
    m_items = items;
    QStringList spoken;
    for (const SpreadItem &i : items)
        spoken << qs(i.name) + QStringLiteral(": ") + qs(markWord(i.mark));
    setAccessibleName(tr("The oil's way: ") + spoken.join(QStringLiteral("; ")));
    const int rows = (static_cast<int>(items.size()) + perRow() - 1) / perRow();
    setFixedHeight(static_cast<int>(rowHeight * std::max(1, rows)) + 12);
    update();
}

void SpreadWay::resizeEvent(QResizeEvent *)
{
    setItems(std::vector<SpreadItem>(m_items));
}

void SpreadWay::choose(int item)
{
    m_chosen = item;
    update();
}

/// Rows run to and fro, so that the way never jumps.
QRectF SpreadWay::stationArea(int item) const
{
    const int row = item / perRow(), k = item % perRow();
    const double w = (width() - 20.0) / perRow();
    const int place = row % 2 == 0 ? k : perRow() - 1 - k;
    return { 10 + w * place, 6 + rowHeight * row, w, rowHeight };
}

void SpreadWay::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme &t = Theme::current();
    const auto centre = [&](int i) {
        const QRectF a = stationArea(i);
        return QPointF(a.left() + 18, a.top() + 20);
    };
    const int count = static_cast<int>(m_items.size());
    for (int i = 0; i + 1 < count; ++i) {
        p.setPen(QPen(t.oil[2], 3, Qt::SolidLine, Qt::RoundCap));
        const QPointF a = centre(i), b = centre(i + 1);
        p.drawLine(a, b);
        // Which way it went, once a row.
        if (i % perRow() == 0 && std::abs(a.y() - b.y()) < 1) {
            const QPointF m = (a + b) / 2;
            const double s = b.x() > a.x() ? 1 : -1;
            p.setPen(Qt::NoPen);
            p.setBrush(t.oil[3]);
            p.drawPolygon(QPolygonF {
                { m + QPointF(5 * s, 0), m + QPointF(-4 * s, -5), m + QPointF(-4 * s, 5) } });
        }
    }
    for (int i = 0; i < count; ++i) {
        const SpreadItem &item = m_items[static_cast<size_t>(i)];
        const QRectF a = stationArea(i);
        const QPointF c = centre(i);
        const bool chosen = i == m_chosen;
        p.setPen(QPen(chosen ? t.selection : t.line, chosen ? 2 : 1));
        p.setBrush(t.panel);
        p.drawEllipse(c, 11, 11);
        drawMark(p, c, 13, item.mark);
        drawLine(p, QRectF(a.left() + 26, a.top() + 33, a.width() - 30, 15), Qt::AlignVCenter,
                 QString::number(i + 1) + QStringLiteral("  ") + qs(item.name),
                 textFont(TextSize::Small, true), chosen ? t.selection : t.ink);
        drawLine(p, QRectF(a.left() + 26, a.top() + 46, a.width() - 30, 14), Qt::AlignVCenter,
                 item.done.empty() ? SpreadPage::tr("open") : qs(item.done),
                 textFont(TextSize::Small), item.done.empty() ? t.hold : t.muted);
    }
}

void SpreadWay::mousePressEvent(QMouseEvent *event)
{
    setFocus();
    for (int i = 0; i < static_cast<int>(m_items.size()); ++i)
        if (stationArea(i).contains(event->position()))
            Q_EMIT picked(i);
}

void SpreadWay::keyPressEvent(QKeyEvent *event)
{
    const int by = event->key() == Qt::Key_Right || event->key() == Qt::Key_Down ? 1
        : event->key() == Qt::Key_Left || event->key() == Qt::Key_Up             ? -1
                                                                                 : 0;
    if (by == 0 || m_items.empty())
        return QWidget::keyPressEvent(event);
    Q_EMIT picked(std::clamp(m_chosen + by, 0, static_cast<int>(m_items.size()) - 1));
}

SpreadPage::SpreadPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
{
    setObjectName(QStringLiteral("spreadPage"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    auto *top = new QHBoxLayout;
    auto *label = new QLabel(tr("A bearing failed at"), this);
    m_where = new ArrowCombo(this);
    m_where->setObjectName(QStringLiteral("failure.where"));
    m_where->setAccessibleName(tr("where a bearing failed"));
    label->setBuddy(m_where);
    m_where->setMinimumWidth(170);
    auto *record = new QPushButton(tr("Record the failure"), this);
    record->setObjectName(QStringLiteral("failure.record"));
    m_summary = new QLabel(this);
    m_summary->setObjectName(QStringLiteral("failure.summary"));
    top->addWidget(label);
    top->addWidget(m_where);
    top->addWidget(record);
    top->addSpacing(12);
    top->addWidget(m_summary, 1);
    column->addLayout(top);
    m_refusal = new QLabel(this);
    m_refusal->setObjectName(QStringLiteral("failure.refusal"));
    m_refusal->hide();
    column->addWidget(m_refusal);
    m_fallBack = new FallBackNote(open, QStringLiteral("failure.fallBack"), this);
    column->addWidget(m_fallBack);
    connect(m_where, &QComboBox::currentIndexChanged, this, &SpreadPage::proposeFailure);
    auto *card = new CardWidget(this);
    auto *inside = new QVBoxLayout(card);
    inside->setContentsMargins(4, 6, 4, 6);
    m_way = new SpreadWay(nullptr);
    auto *scroll = scrolled(m_way, card);
    inside->addWidget(scroll);
    column->addWidget(card, 1);
    auto *shop = new CardWidget(this);
    auto *list = new QVBoxLayout(shop);
    list->setContentsMargins(14, 8, 12, 8);
    auto *head = new QHBoxLayout;
    auto *title = new QLabel(tr("Shopping list"), shop);
    title->setFont(textFont(TextSize::Body, true));
    head->addWidget(title, 1);
    m_copy = new QPushButton(tr("Copy"), shop);
    m_copy->setObjectName(QStringLiteral("shopping.copy"));
    head->addWidget(m_copy);
    list->addLayout(head);
    m_shopping = new QLabel(shop);
    m_shopping->setObjectName(QStringLiteral("shopping"));
    m_shopping->setWordWrap(true);
    list->addWidget(m_shopping);
    column->addWidget(shop);
    connect(record, &QPushButton::clicked, this, &SpreadPage::recordFailure);
    connect(m_copy, &QPushButton::clicked, this,
            [this] { QGuiApplication::clipboard()->setText(shoppingText()); });
    connect(m_way, &SpreadWay::picked, this, [this](int i) {
        m_item = spread()->items[static_cast<size_t>(i)].id;
        m_note.clear();
        const std::string stop = spread()->items[static_cast<size_t>(i)].stop;
        if (m_open.selectedStop() != qs(stop))
            m_open.selectStop(qs(stop));
        refresh();
        Q_EMIT changed();
    });
}

const Spread *SpreadPage::spread() const
{
    const auto &all = m_open.spreads();
    return all.empty() ? nullptr : &all.back();
}

const SpreadItem *SpreadPage::item() const
{
    if (const Spread *s = spread())
        for (const SpreadItem &i : s->items)
            if (i.id == m_item)
                return &i;
    return nullptr;
}

/// What the failure would take back, before it is recorded.
void SpreadPage::proposeFailure()
{
    BearingFailure f;
    f.stop = m_where->currentData().toString().toStdString();
    f.at = OpenBuild::endOfToday();
    std::vector<Edit> edits;
    if (!f.stop.empty() && isVisible())
        edits.emplace_back(AddEntry { std::move(f) });
    m_fallBack->propose(std::move(edits));
}

void SpreadPage::recordFailure()
{
    BearingFailure f;
    f.stop = m_where->currentData().toString().toStdString();
    const auto done = m_open.record(f);
    m_refusal->setText(done ? QString() : qs(done.error().message));
    m_refusal->setVisible(!done);
    m_item = f.stop;
    Q_EMIT changed();
}

void SpreadPage::recordRepair(const std::string &done)
{
    const Spread *s = spread();
    const SpreadItem *i = item();
    if (!s || !i)
        return;
    Repair r;
    r.failure = s->failure;
    r.item = i->id;
    r.done = done;
    r.note = m_note;
    const auto ok = m_open.record(r);
    m_refusal->setText(ok ? QString() : qs(ok.error().message));
    m_refusal->setVisible(!ok);
    m_note.clear();
    Q_EMIT changed();
}

QString SpreadPage::shoppingText() const
{
    QString out;
    for (const BuyRow &r : boughtAfterFailure(m_open.build(), m_open.assessment()))
        out += qs(buyLine(r)) + u'\n';
    return out;
}

void SpreadPage::refresh()
{
    const Build &build = m_open.build();
    const QVariant before = m_where->currentData();
    m_where->clear();
    for (const Stop &s : build.engine.stops)
        if (s.kind == StopKind::Main || s.kind == StopKind::BigEnd || s.kind == StopKind::CamBearing
            || s.kind == StopKind::BalanceShaft || s.kind == StopKind::Turbo
            || s.kind == StopKind::SmallEnd)
            m_where->addItem(qs(s.name), qs(s.id));
    m_where->setCurrentIndex(std::max(0, m_where->findData(before)));
    const Spread *s = spread();
    if (s && !item() && !s->items.empty()) {
        const auto open = std::find_if(s->items.begin(), s->items.end(),
                                       [](const SpreadItem &i) { return i.mark != Mark::Proven; });
        m_item = (open == s->items.end() ? s->items.front() : *open).id;
    }
    proposeFailure();
    m_way->setItems(s ? s->items : std::vector<SpreadItem> {});
    int open = 0, chosen = -1;
    if (s)
        for (size_t i = 0; i < s->items.size(); ++i) {
            open += s->items[i].mark != Mark::Proven;
            if (s->items[i].id == m_item)
                chosen = static_cast<int>(i);
        }
    m_way->choose(chosen);
    const Stop *failed = s ? build.engine.find(s->stop) : nullptr;
    m_summary->setText(!failed ? tr("No failure recorded")
                               : tr("%1: %2 of %3 parts the oil touched are still open")
                                     .arg(qs(failed->name))
                                     .arg(open)
                                     .arg(s->items.size()));
    setTone(m_summary, open > 0 ? Theme::current().hold : Theme::current().muted);
    QStringList list;
    for (const BuyRow &r : boughtAfterFailure(build, m_open.assessment()))
        list << qs(buyLine(r));
    m_shopping->setText(list.isEmpty() ? tr("Nothing to buy") : list.join(QStringLiteral(" · ")));
    setTone(m_shopping, Theme::current().muted);
    m_copy->setEnabled(!list.isEmpty());
}

PanelContent SpreadPage::panel()
{
    PanelContent out;
    const SpreadItem *i = item();
    if (!i) {
        out.push_back(PanelTitle { tr("After a bearing failure"), {} });
        out.push_back(
            PanelText { tr("Everything the oil touched carries bearing metal. Say where "
                           "the bearing failed; the oil's way from there names the parts, "
                           "in order.") });
    } else {
        out.push_back(PanelTitle { qs(i->name), qs(i->way) });
        out.push_back(PanelVerdict { i->mark, i->done.empty() ? tr("Open") : qs(i->done),
                                     i->done.empty() ? QString()
                                                     : qs(whoText(i->by)) + QStringLiteral(", ")
                                             + qs(dayText(i->at.substr(0, 10)))
                                             + QStringLiteral("  ") + qs(i->note) });
        out.push_back(PanelHeading { tr("What is done with it") });
        out.push_back(PanelText { qs(i->rule) + u'.' });
        out.push_back(PanelText { qs(i->reason) + u'.', Tone::Muted });
        out.push_back(PanelWord { QStringLiteral("repair.note"), tr("note"), qs(m_note),
                                  [this](const QString &text) -> Result<void> {
                                      m_note = text.toStdString();
                                      return {};
                                  } });
        for (const auto &[done, text] :
             { std::pair("cleaned", tr("Cleaned")), std::pair("flushed", tr("Flushed")),
               std::pair("replaced", tr("Replaced")) }) {
            const bool rule
                = std::find(i->choices.begin(), i->choices.end(), done) != i->choices.end();
            out.push_back(PanelButton { QStringLiteral("repair.") + QLatin1String(done),
                                        rule ? text : tr("%1, against the rule").arg(text),
                                        [this, done = std::string(done)] { recordRepair(done); } });
        }
    }
    if (i && i->choices.size() < 3)
        out.push_back(
            PanelText { tr("Against the rule it goes on holding the start; with the reason "
                           "in the note it is for another look."),
                        Tone::Muted });
    out.push_back(PanelRule {});
    out.push_back(PanelText { qs(magnetCaution()), Tone::Warn });
    out.push_back(PanelText { tr("Crank grinding and crack tests belong to a qualified shop. Used "
                                 "oil and solvents go where local rules say."),
                              Tone::Muted });
    if (const Spread *s = spread())
        out.push_back(PanelButton {
            QStringLiteral("failure.takeBack"), tr("Take the failure back"),
            [this, id = s->failure] { saidIfRefused(m_open.takeBack("failures", id)); } });
    return out;
}

} // namespace mildpath
