// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/work/todaypage.h"

#include "checks/assessment.h"
#include "entry/rowlist.h"
#include "open/questions.h"
#include "paint/scrolled.h"
#include "paint/text.h"
#include "plan/workplan.h"
#include "report/buildsheetdocument.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QPushButton>
#include <QVBoxLayout>

namespace mildpath {

TodayPage::TodayPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_rows(new RowList({ 0, 0.62, 0.88 }, 2, this))
    , m_print(new QPushButton(tr("Print…"), this))
{
    m_rows->setObjectName(QStringLiteral("todayRows"));
    m_rows->setAccessibleName(tr("Today's work"));
    m_print->setObjectName(QStringLiteral("today.print"));
    m_print->hide();
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(scrolled(m_rows, this), 1);
    connect(m_print, &QPushButton::clicked, this, &TodayPage::askAndWrite);
    connect(m_rows, &RowList::picked, this, [this](int row) {
        m_rows->choose(row);
        if (const PlannedCheck *r = m_items[static_cast<size_t>(row)];
            r && !r->check->place.stop.empty())
            m_open.selectStop(qs(r->check->place.stop));
        Q_EMIT changed();
    });
    connect(&open.answers(), &Answers::answered, this, [this](const QString &topic) {
        if (topic != qs(ask::plan().topic) || !isVisible())
            return;
        refresh();
        Q_EMIT changed();
    });
}

void TodayPage::leave()
{
    m_print->hide();
}

void TodayPage::takeFocus()
{
    m_rows->setFocus(Qt::OtherFocusReason);
}

QWidget *TodayPage::headWidget()
{
    return m_print;
}

QString TodayPage::about() const
{
    if (!m_plan)
        return {};
    double minutes = 0;
    size_t rows = 0;
    for (const DayOfWork &d : daysOfWork(m_plan->answer)) {
        minutes += d.minutes;
        rows += d.rows.size();
    }
    QString out = counted(rows, tr("check"), tr("checks"));
    if (m_plan->answer.showsHours())
        out += QStringLiteral(" · ") + inWords(asHours(minutes / 60));
    return out;
}

void TodayPage::refresh()
{
    m_print->show();
    if (auto plan = m_open.answers().latest(ask::plan()))
        m_plan = plan;
    const int chosen = m_rows->chosen();
    m_items.clear();
    std::vector<RowList::Row> rows;
    if (m_plan)
        for (const DayOfWork &day : daysOfWork(m_plan->answer)) {
            m_items.push_back(nullptr);
            rows.push_back({ Mark::NotAsked,
                             { day.name.empty() ? tr("To do") : qs(day.name), {}, {} },
                             {},
                             true });
            for (const PlannedCheck *r : day.rows) {
                m_items.push_back(r);
                rows.push_back({ markOf(*r->check),
                                 { qs(r->check->kind->statement), qs(r->check->place.name),
                                   inWords(asMinutes(r->minutes)) },
                                 qs(r->check->statement()) });
            }
        }
    m_rows->setRows(std::move(rows));
    m_rows->choose(chosen);
    m_print->setEnabled(!m_items.empty());
}

PanelContent TodayPage::panel()
{
    PanelContent out;
    const int row = m_rows->chosen();
    const PlannedCheck *r
        = row < 0 || m_items.empty() ? nullptr : m_items[static_cast<size_t>(row)];
    if (!r) {
        out.push_back(PanelText { tr("In the order it is done: what starts a long wait first, then "
                                     "what the first start waits for, one setup at a time."),
                                  Tone::Muted });
        return out;
    }
    const AboutStage &stage = aboutStage(r->check->kind->stage);
    out.push_back(PanelTitle { qs(r->check->place.name), qs(stage.name) });
    if (!stage.caution.empty())
        out.push_back(PanelText { qs(stage.caution), Tone::Warn });
    out.push_back(
        PanelVerdict { markOf(*r->check), qs(r->check->kind->statement), qs(r->check->reason) });
    if (!stage.needs.empty())
        out.push_back(PanelText { tr("Lay out: %1.").arg(qs(stage.needs)) });
    out.push_back(PanelText { qs(whyText(m_plan->answer, *r)), Tone::Muted });
    out.push_back(PanelButton { QStringLiteral("today.go"), tr("Go there"),
                                [this, id = r->check->id()] { m_open.wantCheck(id); } });
    return out;
}

QString TodayPage::writeSheet(const QString &path) const
{
    if (!m_plan)
        return tr("The plan is being worked out.");
    const BuildSheet sheet = daySheet(*m_plan->about.build, m_plan->answer,
                                      OpenBuild::now().substr(0, 10), Figure::style());
    const auto done = writeSheetTo(sheet, usualPaper(), path);
    return done ? QString() : qs(done.error().message);
}

void TodayPage::askAndWrite()
{
    const QString beside = QFileInfo(m_open.path()).absolutePath();
    const QString path
        = QFileDialog::getSaveFileName(this, tr("Day sheet"), beside + QStringLiteral("/today.pdf"),
                                       tr("PDF (*.pdf);;Web page (*.html)"));
    if (path.isEmpty())
        return;
    const QString why = writeSheet(path);
    Q_EMIT complained(why.isEmpty() ? tr("Written: %1").arg(path) : why);
}

} // namespace mildpath
