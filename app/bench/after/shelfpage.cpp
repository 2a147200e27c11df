// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/after/shelfpage.h"

#include "entry/arrowcombo.h"
#include "entry/rowlist.h"
#include "paint/titledcard.h"
#include "plot/axis.h"
#include "quantity/dates.h"
#include "storage/files.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMouseEvent>
#include <QPushButton>
#include <QSettings>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// So few builds are compared without being asked.
constexpr size_t compareAtOnce = 24;
constexpr double shelfLeft = 62, shelfTopGap = 26, shelfBottomGap = 24;

QString pathOf(const std::filesystem::path &p)
{
    return QString::fromStdString(p.string());
}

QString figure(const std::optional<double> &v, const ShelfQuantity &q)
{
    return v ? shown(q.quantity(*v)).text() : QStringLiteral("–");
}

} // namespace

ShelfView::ShelfView(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("shelfView"));
    setMinimumHeight(180);
}

void ShelfView::show(std::vector<ShelfRow> rows, const ShelfQuantity &quantity,
                     const QString &chosen)
{
    std::erase_if(rows, [](const ShelfRow &r) { return !r.value.value; });
    std::ranges::stable_sort(rows, {}, &ShelfRow::last);
    m_rows = std::move(rows);
    m_quantity = quantity;
    m_chosen = chosen;
    setAccessibleName(tr("%1 over %2 builds").arg(qs(quantity.name)).arg(m_rows.size()));
    update();
}

QRectF ShelfView::area() const
{
    return QRectF(shelfLeft, shelfTopGap, width() - shelfLeft - 16,
                  height() - shelfTopGap - shelfBottomGap);
}

void ShelfView::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    drawCard(p, QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
    const QRectF r = area();
    if (m_rows.empty()) {
        drawLine(p, r, Qt::AlignCenter,
                 m_quantity.key.empty() ? tr("Choose what to compare, then Compare.")
                                        : tr("None of these builds has it."),
                 textFont(TextSize::Normal), t.muted);
        return;
    }
    Axis up { 1e300, -1e300, r.bottom(), r.top(), m_quantity.as };
    for (const ShelfRow &row : m_rows)
        for (const double v : { *row.value.value, row.value.low.value_or(*row.value.value),
                                row.value.high.value_or(*row.value.value) }) {
            up.from = std::min(up.from, v);
            up.to = std::max(up.to, v);
        }
    up.widen(0.08);
    up.name = qs(joinedBy(
        { m_quantity.name, shownUnit(m_quantity.as, Figure::system()), Phrase(m_quantity.note) }));
    drawUpright(p, up, r);
    const auto n = static_cast<double>(m_rows.size());
    // Names only where they have room.
    const bool named = r.width() / n > 74;
    for (size_t i = 0; i < m_rows.size(); ++i) {
        const ShelfRow &row = m_rows[i];
        const double x = r.left() + r.width() * (static_cast<double>(i) + 0.5) / n;
        const bool chosen = pathOf(row.path) == m_chosen;
        const QColor colour = chosen ? t.selection : t.warm;
        if (row.value.low && row.value.high) {
            p.setPen(QPen(colour, chosen ? 3 : 2));
            p.drawLine(QPointF(x, up.at(*row.value.low)), QPointF(x, up.at(*row.value.high)));
        }
        p.setPen(QPen(t.panel, 1));
        p.setBrush(colour);
        const double dot = n > 120 ? 2.5 : 4.5;
        p.drawEllipse(QPointF(x, up.at(*row.value.value)), dot, dot);
        if (named || chosen)
            drawLine(p,
                     QRectF(x - (named ? r.width() / n / 2 : 80), r.bottom() + 4,
                            named ? r.width() / n - 4 : 160, 15),
                     Qt::AlignHCenter, qs(row.name), textFont(TextSize::Small, chosen),
                     chosen ? t.selection : t.muted);
    }
}

void ShelfView::mousePressEvent(QMouseEvent *event)
{
    if (m_rows.empty())
        return;
    const QRectF r = area();
    const double at
        = (event->position().x() - r.left()) / r.width() * static_cast<double>(m_rows.size());
    const auto i
        = static_cast<size_t>(std::clamp(at, 0.0, static_cast<double>(m_rows.size()) - 0.5));
    Q_EMIT picked(pathOf(m_rows[i].path));
}

ShelfPage::ShelfPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_quantities(shelfQuantities())
    , m_search(new QLineEdit(this))
    , m_quantity(new ArrowCombo(this))
    , m_cancel(new QPushButton(tr("Cancel"), this))
    , m_said(new QLabel(this))
    , m_view(new ShelfView(this))
    , m_list(new RowList({ 0, 0.36, 0.68, 0.82 }, 0, nullptr))
{
    setObjectName(QStringLiteral("shelfPage"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    auto *row = new QHBoxLayout;
    auto *folder = new QPushButton(tr("Folder…"), this);
    folder->setObjectName(QStringLiteral("shelf.folder"));
    row->addWidget(folder);
    m_search->setObjectName(QStringLiteral("shelf.search"));
    m_search->setPlaceholderText(tr("search: name, engine, oil, who, when"));
    m_search->setAccessibleName(tr("Search the shelf"));
    row->addWidget(m_search, 2);
    m_quantity->setObjectName(QStringLiteral("shelf.quantity"));
    m_quantity->setAccessibleName(tr("What to compare"));
    for (const ShelfQuantity &q : m_quantities)
        m_quantity->addItem(qs(q.name), qs(q.key));
    row->addWidget(m_quantity, 2);
    auto *compare = new QPushButton(tr("Compare"), this);
    compare->setObjectName(QStringLiteral("shelf.compare"));
    compare->setProperty("main", true);
    row->addWidget(compare);
    m_cancel->setObjectName(QStringLiteral("shelf.cancel"));
    m_cancel->hide();
    row->addWidget(m_cancel);
    column->addLayout(row);
    m_said->setObjectName(QStringLiteral("shelf.said"));
    column->addWidget(m_said);
    column->addWidget(m_view, 4);
    m_list->setObjectName(QStringLiteral("shelf.list"));
    m_list->setAccessibleName(tr("Builds: name, engine, last entry, value"));
    column->addWidget(titledCard(tr("Builds"), m_list, this), 5);
    m_progress.setInterval(100);
    connect(&m_progress, &QTimer::timeout, this, [this] {
        if (const Progress *p = m_work.progress())
            m_said->setText(tr("%1 of %2 builds").arg(p->done).arg(p->whole));
    });
    connect(folder, &QPushButton::clicked, this, [this] {
        const QString path
            = QFileDialog::getExistingDirectory(this, tr("Folder of builds"), m_folder);
        if (!path.isEmpty())
            setFolder(path);
    });
    connect(m_search, &QLineEdit::textChanged, this, &ShelfPage::search);
    connect(compare, &QPushButton::clicked, this, &ShelfPage::compare);
    connect(m_cancel, &QPushButton::clicked, this, [this] {
        m_work.giveUp();
        m_comparing = false;
        m_progress.stop();
        m_cancel->hide();
        m_said->setText(tr("Given up."));
    });
    connect(m_list, &RowList::picked, this,
            [this](int i) { pick(pathOf(m_found[static_cast<size_t>(i)]->path)); });
    connect(m_view, &ShelfView::picked, this, &ShelfPage::pick);
}

void ShelfPage::setFolder(const QString &folder)
{
    m_folder = folder;
    QSettings().setValue(QStringLiteral("shelf/folder"), folder);
    m_opening = true;
    m_rows.clear();
    m_chosen.clear();
    m_work.giveUp();
    m_said->setText(tr("Opening %1…").arg(QFileInfo(folder).fileName()));
    m_covers.ask([path = folder.toStdString()](Progress &) { return openShelf(path); },
                 [this](std::vector<ShelfEntry> entries) {
                     m_opening = false;
                     m_entries = std::move(entries);
                     search();
                     if (!m_entries.empty() && m_entries.size() <= compareAtOnce)
                         compare();
                 });
}

void ShelfPage::search()
{
    m_found.clear();
    const std::string words = m_search->text().toStdString();
    for (const ShelfEntry &e : m_entries)
        if (e.matches(words) && (!m_sameEngine || e.engine == m_open.build().engine.name))
            m_found.push_back(&e);
    const auto damaged = std::ranges::count_if(m_found, &ShelfEntry::damaged);
    m_said->setText(m_entries.empty()
                        ? tr("No builds in this folder.")
                        : tr("%1 of %2 builds%3")
                              .arg(m_found.size())
                              .arg(m_entries.size())
                              .arg(damaged > 0 ? tr(", %1 damaged").arg(damaged) : QString()));
    fillList();
    Q_EMIT changed();
}

const ShelfQuantity &ShelfPage::quantity() const
{
    return m_quantities[static_cast<size_t>(std::max(0, m_quantity->currentIndex()))];
}

void ShelfPage::compare()
{
    std::vector<ShelfEntry> entries;
    for (const ShelfEntry *e : m_found)
        entries.push_back(*e);
    m_comparing = true;
    m_cancel->show();
    m_progress.start();
    m_work.ask(
        [entries, key = quantity().key](Progress &progress) {
            return compareOnShelf(entries, key, &progress);
        },
        [this, q = quantity()](std::vector<ShelfRow> rows) {
            m_comparing = false;
            m_cancel->hide();
            m_progress.stop();
            m_rows = std::move(rows);
            const auto have = std::ranges::count_if(
                m_rows, [](const ShelfRow &r) { return r.value.value.has_value(); });
            m_said->setText(
                tr("%1: %2 of %3 builds have it").arg(qs(q.name)).arg(have).arg(m_rows.size()));
            fillList();
            Q_EMIT changed();
        });
}

void ShelfPage::fillList()
{
    std::map<std::filesystem::path, const ShelfRow *> values;
    for (const ShelfRow &r : m_rows)
        values[r.path] = &r;
    const ShelfQuantity &q = quantity();
    std::vector<RowList::Row> rows;
    int chosen = -1;
    for (const ShelfEntry *e : m_found) {
        const auto it = values.find(e->path);
        const ShelfRow *row = it == values.end() ? nullptr : it->second;
        const Mark mark = markOf(*e, row);
        const bool damaged = mark != Mark::Proven;
        const QString trouble = qs(e->damaged() ? e->trouble : row ? row->trouble : Phrase());
        if (pathOf(e->path) == m_chosen)
            chosen = static_cast<int>(rows.size());
        rows.push_back({ mark,
                         { e->name.empty() ? pathOf(e->path.filename()) : qs(e->name),
                           damaged ? tr("damaged: %1").arg(trouble) : qs(e->engine),
                           qs(dayText(e->last.substr(0, 10))),
                           !row || damaged        ? QString()
                               : row->value.value ? figure(row->value.value, q)
                                                  : QStringLiteral("–") },
                         damaged ? trouble
                                 : pathOf(e->path)
                                 + (row ? QStringLiteral("\n") + qs(row->value.of) : QString()),
                         !damaged });
    }
    m_list->setRows(std::move(rows));
    m_list->choose(chosen);
    m_view->show(m_rows, m_rows.empty() ? ShelfQuantity {} : q, m_chosen);
}

void ShelfPage::pick(const QString &path)
{
    m_chosen = path;
    fillList();
    Q_EMIT changed();
}

const ShelfEntry *ShelfPage::chosen() const
{
    for (const ShelfEntry &e : m_entries)
        if (pathOf(e.path) == m_chosen)
            return &e;
    return nullptr;
}

void ShelfPage::refresh()
{
    setTone(m_said, Theme::current().muted);
    if (!m_folder.isEmpty())
        return;
    // The first look: the folder of last time, or that of the open build.
    QString folder = QSettings().value(QStringLiteral("shelf/folder")).toString();
    if (folder.isEmpty() && !m_open.path().isEmpty())
        folder = QFileInfo(m_open.path()).absolutePath();
    if (!folder.isEmpty())
        setFolder(folder);
    else
        m_said->setText(tr("Choose the folder your builds lie in."));
}

QString ShelfPage::about() const
{
    return m_folder.isEmpty() ? tr("no folder chosen") : QFileInfo(m_folder).fileName();
}

void ShelfPage::takeFocus()
{
    m_search->setFocus();
}

/// Opening renews the side panel, whose button asked for it: the path is held here.
void ShelfPage::openChosen()
{
    const QString path = m_chosen;
    Q_EMIT openAsked(path);
}

QString ShelfPage::exportTable(const QString &path) const
{
    const auto done
        = writeOutput(path.toStdString(), shelfToCsv(m_rows, quantity()), Over::AnyFile);
    return done ? QString() : qs(done.error().message);
}

PanelContent ShelfPage::panel()
{
    PanelContent out;
    if (const ShelfEntry *e = chosen()) {
        out.push_back(PanelTitle { e->name.empty() ? pathOf(e->path.filename()) : qs(e->name),
                                   pathOf(e->path.filename()) });
        if (e->damaged())
            out.push_back(PanelText { tr("Damaged: %1. It is left as it is.").arg(qs(e->trouble)),
                                      Tone::Warn });
        const auto row = [&](const QString &label, const QString &value) {
            if (!value.isEmpty())
                out.push_back(PanelRow { label, { value, {}, {} } });
        };
        row(tr("Engine"), qs(e->engine));
        row(tr("Oil"), qs(e->oil));
        row(tr("Last entry"), qs(dayText(e->last.substr(0, 10))));
        row(tr("Readings"), qs(formatNumber(e->readings, 0)));
        row(tr("Filter cuts, oil samples"), QStringLiteral("%1, %2").arg(e->cuts).arg(e->samples));
        for (const ShelfRow &r : m_rows)
            if (r.path == e->path && r.value.value) {
                row(qs(quantity().name), figure(r.value.value, quantity()));
                if (r.value.low)
                    row(tr("from, to"),
                        figure(r.value.low, quantity()) + QStringLiteral(" … ")
                            + figure(r.value.high, quantity()));
                row(tr("It is"), qs(r.value.of));
            }
        if (!e->damaged())
            out.push_back(PanelButton { QStringLiteral("shelf.open"), tr("Open this build"),
                                        [this] { openChosen(); } });
        out.push_back(PanelRule {});
    }
    out.push_back(PanelTick { QStringLiteral("shelf.sameEngine"), Mark::NotDone,
                              tr("Only engines like the open one"), qs(m_open.build().engine.name),
                              m_sameEngine, [this](bool on) {
                                  m_sameEngine = on;
                                  search();
                              } });
    if (!m_rows.empty())
        out.push_back(
            PanelButton { QStringLiteral("shelf.export"), tr("Export the table (CSV)…"), [this] {
                             const QString path = QFileDialog::getSaveFileName(
                                 this, tr("Export the table"), {}, tr("Tables (*.csv)"));
                             if (!path.isEmpty())
                                 m_said->setText(exportTable(path));
                         } });
    out.push_back(PanelText { tr("What is compared is reckoned from each file as its own benches "
                                 "would. Photos are not loaded. A damaged file is shown and left "
                                 "alone."),
                              Tone::Muted });
    return out;
}

} // namespace mildpath
