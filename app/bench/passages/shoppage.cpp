// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/passages/shoppage.h"

#include "checks/judgement.h"
#include "document/logbook.h"
#include "entry/arrowcombo.h"
#include "entry/refusal.h"
#include "entry/rowlist.h"
#include "paint/card.h"
#include "report/shopsheetdocument.h"
#include "shell/fallback.h"

#include <QDir>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTextBrowser>
#include <QVBoxLayout>

namespace mildpath {

ShopPage::ShopPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_job(new ArrowCombo(this))
    , m_note(new QLineEdit(this))
    , m_prove(new QLineEdit(this))
    , m_refusal(new QLabel(this))
    , m_fallBack(new FallBackNote(open, QStringLiteral("shop.fallBack"), this))
    , m_rows(new RowList({ 0, 0.66 }, 0, this))
    , m_sheet(new QTextBrowser(this))
{
    setObjectName(QStringLiteral("shopPage"));
    auto *row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(8);
    auto *card = new CardWidget(this);
    card->setFixedWidth(292);
    auto *column = new QVBoxLayout(card);
    column->setContentsMargins(14, 10, 12, 10);
    column->setSpacing(6);
    auto *title = new QLabel(tr("Work asked for"), card);
    title->setFont(textFont(TextSize::Body, true));
    column->addWidget(title);
    m_job->setObjectName(QStringLiteral("shop.job"));
    m_job->setAccessibleName(tr("work for the machine shop"));
    for (const MachiningJob &j : machiningJobs())
        m_job->addItem(qs(j.name), qs(j.id));
    m_job->addItem(tr("Something else"), QString());
    m_job->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    column->addWidget(m_job);
    m_note->setObjectName(QStringLiteral("shop.note"));
    m_note->setPlaceholderText(tr("sizes, limits, what to mind"));
    m_note->setAccessibleName(m_note->placeholderText());
    column->addWidget(m_note);
    m_prove->setObjectName(QStringLiteral("shop.prove"));
    m_prove->setPlaceholderText(tr("to be shown on return, beside clean passages"));
    m_prove->setAccessibleName(m_prove->placeholderText());
    column->addWidget(m_prove);
    auto *add = new QPushButton(tr("Ask for it"), card);
    add->setObjectName(QStringLiteral("shop.add"));
    column->addWidget(add);
    m_rows->setObjectName(QStringLiteral("shopRows"));
    m_rows->setAccessibleName(tr("Work asked for"));
    column->addWidget(m_rows);
    auto *back = new QPushButton(tr("It came back, done"), card);
    back->setObjectName(QStringLiteral("shop.back"));
    back->setToolTip(tr("Writes the machining into the logbook: everything its swarf reaches is "
                        "dirty again"));
    column->addWidget(back);
    column->addWidget(m_fallBack);
    m_refusal->setObjectName(QStringLiteral("shop.refusal"));
    m_refusal->setWordWrap(true);
    m_refusal->hide();
    column->addWidget(m_refusal);
    column->addStretch();
    auto *save = new QPushButton(tr("Save the sheet as PDF…"), card);
    save->setObjectName(QStringLiteral("shop.pdf"));
    column->addWidget(save);
    row->addWidget(card);
    m_sheet->setObjectName(QStringLiteral("shopSheet"));
    m_sheet->setAccessibleName(tr("Machine-shop sheet"));
    // Paper is white in every theme.
    m_sheet->setStyleSheet(
        QStringLiteral("QTextBrowser { background: white; color: black; border: 1px solid %1; }")
            .arg(Theme::current().line.name()));
    row->addWidget(m_sheet, 1);
    connect(add, &QPushButton::clicked, this, &ShopPage::addJob);
    connect(back, &QPushButton::clicked, this, &ShopPage::cameBack);
    connect(save, &QPushButton::clicked, this, &ShopPage::pickFile);
    connect(m_rows, &RowList::picked, this, [this](int i) {
        m_chosen = m_ids[static_cast<size_t>(i)];
        refresh();
        Q_EMIT changed();
    });
}

void ShopPage::say(const Result<void> &done)
{
    m_refusal->setText(done ? QString() : qs(done.error()));
    m_refusal->setVisible(!done);
    setTone(m_refusal, Theme::current().hold);
}

void ShopPage::addJob()
{
    ShopJob j;
    j.job = m_job->currentData().toString().toStdString();
    j.note = m_note->text().trimmed().toStdString();
    j.prove = m_prove->text().trimmed().toStdString();
    const auto done = m_open.record(j);
    say(outcome(done));
    if (!done)
        return;
    m_note->clear();
    m_prove->clear();
    m_chosen = *done;
    refresh();
    Q_EMIT changed();
}

const ShopJob *ShopPage::chosen() const
{
    for (const ShopJob *j : standing(m_open.build().shopJobs))
        if (j->id == m_chosen)
            return j;
    return nullptr;
}

namespace {

/// What the work does to the passages, as it goes into their logbook.
CleanEvent machiningOf(const ShopJob &job)
{
    CleanEvent e;
    e.kind = "machining";
    e.scope = "job";
    e.target = job.job;
    e.note = job.note;
    return e;
}

} // namespace

void ShopPage::cameBack()
{
    const ShopJob *j = chosen();
    if (!j || !j->event.empty())
        return say(fail("", "choose work that is still out"));
    ShopJob next = *j;
    if (!j->job.empty()) {
        const auto cut = m_open.record(machiningOf(next));
        if (!cut)
            return say(outcome(cut));
        next.event = *cut;
    } else {
        next.event = "-"; // work that cuts no metal
    }
    next.replaces = next.id;
    next.by.clear();
    next.at.clear(); // it came back now
    const auto done = m_open.record(next);
    say(outcome(done));
    if (done)
        m_chosen = *done;
    refresh();
    Q_EMIT changed();
}

Result<void> ShopPage::saveSheet(const QString &path)
{
    return writeShopSheet(m_open.build(), m_open.assessment(), OpenBuild::now().substr(0, 10),
                          path);
}

void ShopPage::pickFile()
{
    const QString path = QFileDialog::getSaveFileName(
        this, tr("Save the machine-shop sheet"),
        QDir::homePath() + QStringLiteral("/machine-shop.pdf"), tr("PDF (*.pdf)"));
    if (!path.isEmpty())
        say(saveSheet(path));
}

void ShopPage::refresh()
{
    m_ids.clear();
    std::vector<RowList::Row> rows;
    int at = -1;
    for (const ShopJob *j : standing(m_open.build().shopJobs)) {
        if (j->id == m_chosen)
            at = static_cast<int>(rows.size());
        const std::string name = shopJobName(*j);
        rows.push_back(
            { worstAsked(m_open.judgement().checks, { "ask", "back" },
                         firstEntry(m_open.build().shopJobs, *j).id),
              { qs(name),
                j->event.empty() ? qs(name == j->note ? "" : j->note) : tr("came back") } });
        m_ids.push_back(j->id);
    }
    m_rows->setRows(std::move(rows));
    m_rows->choose(at);
    const ShopJob *job = chosen();
    std::vector<Edit> cut;
    if (job && job->event.empty() && !job->job.empty()) {
        CleanEvent e = machiningOf(*job);
        e.at = OpenBuild::endOfToday();
        cut.emplace_back(AddEntry { std::move(e) });
    }
    m_fallBack->propose(std::move(cut));
    auto document
        = shopSheetDocument(m_open.build(), m_open.assessment(), OpenBuild::now().substr(0, 10));
    document->setDocumentMargin(18);
    m_sheet->setDocument(document.get());
    m_document = std::move(document);
}

PanelContent ShopPage::panel()
{
    PanelContent out;
    const ShopJob *j = chosen();
    if (!j) {
        out.push_back(PanelTitle { tr("Machine shop"), {} });
    } else {
        out.push_back(
            PanelTitle { findMachiningJob(j->job) ? qs(shopJobName(*j)) : tr("Other work"),
                         j->event.empty() ? tr("asked for") : tr("came back, done") });
        if (!j->note.empty())
            out.push_back(PanelText { qs(j->note) });
        for (const ShopSheet::Work &w : shopSheet(m_open.build(), "").work)
            if (w.id == j->id) {
                out.push_back(PanelVerdict {
                    w.mark(),
                    tr("Its swarf gets into %1")
                        .arg(counted(w.dirties.size(), tr("passage"), tr("passages"))),
                    tr("As the plugs are now. A plug that is in keeps it out of "
                       "what lies behind.") });
            }
        out.push_back(
            PanelButton { QStringLiteral("shop.takeBack"), tr("Take it back"), [this, id = j->id] {
                             saidIfRefused(m_open.takeBack("shop_jobs", id));
                         } });
    }
    out.push_back(PanelRule {});
    out.push_back(PanelText { tr("After any machining everything downstream is dirty again, and a "
                                 "part fresh from a shop is not a clean part. Line boring, crank "
                                 "grinding and crack tests belong to a qualified shop; local codes "
                                 "and the maker's word win."),
                              Tone::Muted });
    return out;
}

} // namespace mildpath
