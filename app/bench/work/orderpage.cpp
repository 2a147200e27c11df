// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/work/orderpage.h"

#include "checks/assessment.h"
#include "document/logbook.h"
#include "entry/rowlist.h"
#include "open/questions.h"
#include "paint/scrolled.h"
#include "paint/text.h"
#include "plan/workplan.h"
#include "quantity/dates.h"
#include "quantity/overloaded.h"
#include "report/buildsheetdocument.h"
#include "report/daysheet.h"
#include "shell/wordof.h"
#include "storage/files.h"
#include "storage/passagetables.h"

#include <QClipboard>
#include <QFileDialog>
#include <QFileInfo>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPushButton>
#include <QVBoxLayout>

namespace mildpath {
namespace {

const std::string &rowOf(const ToBuy &row)
{
    return row.row.id;
}
const std::string &rowOf(const ToSend &row)
{
    return row.id;
}

QString dayShown(const std::string &iso)
{
    return iso.empty() ? QString() : qs(nearDayText(iso));
}

} // namespace

OrderPage::OrderPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_rows(new RowList({ 0, 0.30, 0.62, 0.76 }, 0, this))
    , m_head(new QWidget(this))
{
    m_rows->setObjectName(QStringLiteral("orderRows"));
    m_rows->setAccessibleName(tr("To order and to send"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(scrolled(m_rows, this), 1);
    m_head->hide();
    auto *head = new QHBoxLayout(m_head);
    head->setContentsMargins(0, 0, 0, 0);
    auto *copy = new QPushButton(tr("Copy"), m_head);
    copy->setObjectName(QStringLiteral("order.copy"));
    copy->setToolTip(tr("The list as text, to send"));
    head->addWidget(copy);
    auto *save = new QPushButton(tr("Save…"), m_head);
    save->setObjectName(QStringLiteral("order.save"));
    save->setToolTip(tr("The list to print, or as a table"));
    head->addWidget(save);
    connect(copy, &QPushButton::clicked, this, [this] {
        QGuiApplication::clipboard()->setText(qs(ordersText(m_orders, Figure::style())));
    });
    connect(save, &QPushButton::clicked, this, &OrderPage::askAndWrite);
    connect(m_rows, &RowList::picked, this, [this](int row) {
        m_rows->choose(row);
        m_chosen.clear();
        std::visit(Overloaded { [](std::monostate) {},
                                [this](const auto *item) { m_chosen = rowOf(*item); } },
                   m_items[static_cast<size_t>(row)]);
        Q_EMIT changed();
    });
    follow(qs(ask::plan().topic));
}

void OrderPage::leave()
{
    m_head->hide();
}

void OrderPage::takeFocus()
{
    m_rows->setFocus(Qt::OtherFocusReason);
}

void OrderPage::reset()
{
    m_plan.reset();
    m_orders = {};
    m_items.clear();
    m_chosen.clear();
    m_typed = {};
}

QString OrderPage::about() const
{
    if (!m_plan)
        return {};
    int toOrder = 0, out = 0, toSend = 0;
    for (const ToBuy &b : m_orders.buy) {
        toOrder += b.isToOrder();
        out += b.isUnderWay();
    }
    for (const ToSend &s : m_orders.send) {
        toSend += s.isToSend();
        out += s.isUnderWay();
    }
    return tr("%1 to order, %2 to send, %3 under way").arg(toOrder).arg(toSend).arg(out);
}

/// What is listed and what is said belong to the same plan: it keeps its own list.
void OrderPage::refresh()
{
    m_head->show();
    if (auto plan = m_open.answers().latest(ask::plan()))
        m_plan = plan;
    m_items.clear();
    std::vector<RowList::Row> rows;
    int at = -1;
    const auto put = [&](Item item, const std::string &id, RowList::Row row) {
        if (!id.empty() && id == m_chosen)
            at = static_cast<int>(rows.size());
        m_items.push_back(item);
        rows.push_back(std::move(row));
    };
    const auto heading = [&](const QString &text, const QString &by) {
        put({}, {}, { Mark::NotAsked, { text, {}, by, {} }, {}, true });
    };
    if (m_plan) {
        m_orders = ordersOf(*m_plan->about.build, *m_plan->about.assessment,
                            m_plan->about.assessment->checks, m_plan->answer);
        heading(m_orders.buy.empty() ? tr("Nothing to buy") : tr("To buy"), tr("order by"));
        for (const ToBuy &b : m_orders.buy) {
            const Phrase size = b.size();
            const QString amount = qs(buyAmount(b.row));
            put(&b, b.row.id,
                { b.mark(),
                  { qs(b.row.what),
                    size.empty() ? amount : amount + QStringLiteral(", ") + qs(size),
                    dayShown(b.latest), qs(b.state()) },
                  qs(b.row.what) + QStringLiteral(", ") + qs(size) });
        }
        heading(m_orders.send.empty() ? tr("Nothing to send") : tr("To the machine shop"),
                tr("send by"));
        for (const ToSend &s : m_orders.send)
            put(&s, s.id,
                { s.mark, { qs(s.what()), qs(s.job->note), dayShown(s.latest), qs(s.state()) } });
    }
    m_rows->setRows(std::move(rows));
    m_rows->choose(at);
    m_head->setEnabled(m_plan != nullptr);
}

OrderPage::Item OrderPage::chosen() const
{
    const int row = m_rows->chosen();
    return row < 0 || row >= static_cast<int>(m_items.size()) ? Item {}
                                                              : m_items[static_cast<size_t>(row)];
}

void OrderPage::orderFields(PanelContent &out)
{
    out.push_back(wordOf(m_typed, "order.from", tr("With whom"), &Typed::from));
    out.push_back(wordOf(m_typed, "order.promised", tr("Promised for"), &Typed::promised));
}

PanelContent OrderPage::panel()
{
    PanelContent out;
    std::visit(Overloaded { [&](std::monostate) { ownPanel(out); },
                            [&](const ToBuy *row) { buyPanel(*row, out); },
                            [&](const ToSend *row) { sendPanel(*row, out); } },
               chosen());
    return out;
}

void OrderPage::buyPanel(const ToBuy &b, PanelContent &out)
{
    out.push_back(PanelTitle { qs(b.row.what), qs(buyAmount(b.row)) });
    out.push_back(PanelVerdict { b.mark(), qs(b.state()), qs(b.size()) });
    QStringList names;
    for (const std::string &name : b.names)
        names << qs(name);
    constexpr int most = 6;
    if (!names.isEmpty())
        out.push_back(PanelText {
            tr("For %1.").arg(QStringList(names.mid(0, most)).join(QStringLiteral(", ")))
                + (names.size() > most ? tr(" And %1 more.").arg(names.size() - most) : QString()),
            Tone::Muted });
    if (!b.latest.empty())
        out.push_back(PanelRow { tr("Order it by"), Shown { dayShown(b.latest), {}, {} } });
    if (b.restsOn)
        out.push_back(PanelButton { QStringLiteral("order.rests"), tr("To what its size rests on"),
                                    [this, id = b.restsOn->id()] { m_open.wantCheck(id); } });
    if (!b.isOpen() && b.differs.empty())
        return;
    out.push_back(PanelRule {});
    orderFields(out);
    const bool isOut = b.isUnderWay();
    out.push_back(PanelButton { QStringLiteral("order.place"),
                                isOut ? tr("Ordered anew (O)") : tr("Ordered (O)"),
                                [this] { orderChosen(); } });
    if (b.order) {
        out.push_back(PanelButton { QStringLiteral("order.inHand"), tr("It came, and is right"),
                                    [this, row = b] { inHand(row); } });
        out.push_back(PanelButton { QStringLiteral("order.takeBack"), tr("Take the order back"),
                                    [this, id = b.order->id] { m_open.takeBack("orders", id); } });
    } else {
        out.push_back(PanelButton { QStringLiteral("order.all"), tr("All of known size ordered"),
                                    [this] { orderAll(); } });
    }
}

void OrderPage::sendPanel(const ToSend &s, PanelContent &out)
{
    out.push_back(PanelTitle { qs(s.what()), tr("for the machine shop") });
    out.push_back(PanelVerdict { s.mark, qs(s.state()), qs(s.job->note) });
    if (!s.latest.empty())
        out.push_back(PanelRow { tr("Send it by"), Shown { dayShown(s.latest), {}, {} } });
    if (!m_orders.together.empty())
        out.push_back(PanelText { qs(m_orders.together) });
    out.push_back(PanelText { tr("Line boring, crank grinding and crack tests belong to a "
                                 "qualified shop."),
                              Tone::Muted });
    if (s.job->event.empty()) {
        out.push_back(PanelRule {});
        orderFields(out);
        const bool isOut = s.isUnderWay();
        out.push_back(PanelButton { QStringLiteral("order.place"),
                                    isOut ? tr("Promised anew (S)") : tr("Sent (S)"),
                                    [this] { orderChosen(); } });
        if (!m_orders.together.empty() && !isOut)
            out.push_back(PanelButton { QStringLiteral("order.together"), tr("Sent together"),
                                        [this] { sendTogether(); } });
        if (isOut)
            out.push_back(
                PanelButton { QStringLiteral("order.takeBack"), tr("It was not sent"),
                              [this, id = s.order->id] { m_open.takeBack("orders", id); } });
        if (s.back && isOut)
            out.push_back(PanelButton { QStringLiteral("order.back"), tr("To where it comes back"),
                                        [this, id = s.back->id()] { m_open.wantCheck(id); } });
    }
}

void OrderPage::ownPanel(PanelContent &out)
{
    if (!m_plan) {
        out.push_back(PanelText { tr("Being worked out…"), Tone::Muted });
        return;
    }
    out.push_back(PanelText { tr("What the open checks ask to be bought, alike things summed. "
                                 "A size that rests on something open says on what."),
                              Tone::Muted });
    if (!m_orders.together.empty())
        out.push_back(PanelText { qs(m_orders.together) });
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("Something else to buy") });
    out.push_back(wordOf(m_typed, "order.what", tr("What"), &Typed::what));
    out.push_back(wordOf(m_typed, "order.size", tr("Size, number"), &Typed::size));
    out.push_back(PanelField { QStringLiteral("order.count"), tr("How many"), Dimension::Number, "",
                               0, m_typed.count, [this](double count) -> Result<void> {
                                   m_typed.count = count;
                                   return {};
                               } });
    out.push_back(
        PanelButton { QStringLiteral("order.add"), tr("Add to the list"), [this] { addOwn(); } });
}

void OrderPage::placeOrders(std::vector<Order> orders)
{
    const std::string today = OpenBuild::now().substr(0, 10);
    const auto day = dayFrom(m_typed.promised, today);
    if (!day) {
        Q_EMIT complained(qs(day.error().message));
        return;
    }
    std::vector<Edit> edits;
    for (Order &o : orders) {
        o.state = "ordered";
        o.from = m_typed.from;
        o.promised = *day;
        o.by = m_open.worker();
        o.at = OpenBuild::now();
        edits.emplace_back(AddEntry { std::move(o) });
    }
    if (edits.empty())
        return;
    m_typed.promised.clear();
    const auto done = m_open.editAll(tr("order"), std::move(edits));
    if (!done)
        Q_EMIT complained(qs(done.error()));
}

void OrderPage::orderChosen()
{
    std::visit(Overloaded { [](std::monostate) {},
                            [this](const ToBuy *row) { placeOrders({ orderFor(*row) }); },
                            [this](const ToSend *row) { placeOrders({ orderFor(*row) }); } },
               chosen());
}

void OrderPage::orderAll()
{
    std::vector<Order> orders;
    for (const ToBuy &b : m_orders.buy)
        if (b.isToOrder() && !b.restsOn)
            orders.push_back(orderFor(b));
    placeOrders(std::move(orders));
}

void OrderPage::sendTogether()
{
    std::vector<Order> orders;
    for (const ToSend &s : m_orders.send)
        if (s.ready)
            orders.push_back(orderFor(s));
    placeOrders(std::move(orders));
}

void OrderPage::inHand(const ToBuy &row)
{
    CheckEntry e;
    e.kind = "hand";
    e.places = { row.row.id };
    const auto done = m_open.record(e);
    if (!done)
        Q_EMIT complained(qs(done.error()));
}

void OrderPage::addOwn()
{
    if (m_typed.what.empty()) {
        Q_EMIT complained(tr("Say what is to be bought"));
        return;
    }
    Order o;
    o.row = ownRowId(m_open.build(), m_typed.what);
    o.state = "wanted";
    o.what = m_typed.what;
    o.size = m_typed.size;
    o.count = m_typed.count;
    m_chosen = o.row;
    m_typed = {};
    const auto done = m_open.record(o);
    if (!done)
        Q_EMIT complained(qs(done.error()));
}

void OrderPage::keyPressEvent(QKeyEvent *event)
{
    const Item item = chosen();
    const bool buys = std::holds_alternative<const ToBuy *>(item);
    const bool sends = std::holds_alternative<const ToSend *>(item);
    if ((event->key() == Qt::Key_O && buys) || (event->key() == Qt::Key_S && sends))
        return orderChosen();
    Page::keyPressEvent(event);
}

QString OrderPage::writeTable(const QString &path) const
{
    if (!m_plan)
        return tr("The plan is being worked out.");
    const auto done = path.endsWith(QStringLiteral(".csv"), Qt::CaseInsensitive)
        ? writeTextFile(path.toStdString(), tableToCsv(ordersTable(m_orders)))
        : writeSheetTo(orderSheet(*m_plan->about.build, m_orders, OpenBuild::now().substr(0, 10),
                                  Figure::style()),
                       usualPaper(), path);
    return done ? QString() : qs(done.error().message);
}

void OrderPage::askAndWrite()
{
    const QString beside = QFileInfo(m_open.path()).absolutePath();
    const QString path = QFileDialog::getSaveFileName(
        this, tr("Order list"), beside + QStringLiteral("/order.pdf"),
        tr("PDF (*.pdf);;Table (*.csv);;Web page (*.html)"));
    if (path.isEmpty())
        return;
    const QString why = writeTable(path);
    Q_EMIT complained(why.isEmpty() ? tr("Written: %1").arg(path) : why);
}

} // namespace mildpath
