// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/after/filterpage.h"

#include "assess/cleanmarks.h"
#include "bench/after/cutviews.h"
#include "bench/after/tablefile.h"
#include "document/logbook.h"
#include "entry/entryform.h"
#include "entry/photostrip.h"
#include "entry/refusal.h"
#include "open/questions.h"
#include "paint/card.h"
#include "quantity/rounding.h"
#include "shell/stopfields.h"
#include "storage/evidencetables.h"

#include <QFileDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace mildpath {
namespace {

std::string fieldOf(const CutKind &kind, const char *what)
{
    return std::string(kind.id) + "." + what;
}

} // namespace

FilterPage::FilterPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_chart(new CutChart(this))
    , m_comparison(new CutComparison(this))
    , m_photos(new PhotoStrip(open, this))
{
    setObjectName(QStringLiteral("filterPage"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    column->addWidget(m_chart, 1);
    column->addWidget(m_comparison);
    auto *card = new CardWidget(this);
    makeEntry(card);
    column->addWidget(card);
    connect(m_chart, &CutChart::picked, this, [this](const QString &id) {
        m_cut = id.toStdString();
        refresh();
        Q_EMIT changed();
    });
    connect(&open, &OpenBuild::opened, this, [this] {
        m_cut.clear();
        m_form->clear();
    });
}

void FilterPage::makeEntry(QWidget *card)
{
    auto *column = new QVBoxLayout(card);
    column->setContentsMargins(14, 6, 12, 8);
    column->setSpacing(3);
    auto *head = new QHBoxLayout;
    auto *title
        = new QLabel(tr("A filter cut open: hours, area, then what lies in pleats and can"), card);
    title->setFont(textFont(TextSize::Normal, true));
    head->addWidget(title, 1);
    addTableButton(
        head, QStringLiteral("cut.table"), this,
        [this](const std::string &text) { return importTable(text); },
        [this](const QString &why) { m_form->say(why); });
    auto *done = new QPushButton(tr("Record"), card);
    done->setObjectName(QStringLiteral("cut.record"));
    done->setProperty("main", true);
    head->addWidget(done);
    column->addLayout(head);
    m_form = new EntryForm(QStringLiteral("cut"), 0, card);
    const RecordType &type = recordType<FilterCut>();
    m_form->addNumber(type, "engine_hours_h", tr("Engine ran"), 1);
    m_form->addNumber(type, "filter_hours_h", tr("Filter in for"), 1);
    m_form->addNumber(type, "area_cm2", tr("Area examined"), 0);
    m_form->addWord("note", tr("Note"));
    std::vector<std::pair<QString, QString>> kinds;
    for (const CutKind &k : cutKinds())
        kinds.emplace_back(qs(k.id), qs(k.id));
    m_form->addMatrix({ { "pleats", tr("in pleats"), Dimension::Number, "", 0 },
                        { "can", tr("in can"), Dimension::Number, "", 0 },
                        { "largest", tr("largest"), Dimension::Length, "mm", 1 } },
                      kinds);
    column->addWidget(m_form);
    column->addWidget(m_photos);
    connect(m_form, &EntryForm::submitted, this, &FilterPage::record);
    connect(done, &QPushButton::clicked, this, &FilterPage::record);
}

void FilterPage::record()
{
    if (!m_form->number("engine_hours_h") || !m_form->number("filter_hours_h")
        || !m_form->number("area_cm2"))
        return m_form->say(tr("Enter the engine's hours, the filter's and the area looked at: "
                              "without them counts cannot be compared."));
    FilterCut cut;
    m_form->fill(cut);
    cut.note = m_form->word("note");
    for (const CutKind &k : cutKinds()) {
        auto largest = m_form->number(fieldOf(k, "largest").c_str());
        for (const char *where : { "pleats", "can" })
            if (const auto n = m_form->number(fieldOf(k, where).c_str())) {
                if (*n != std::floor(*n) || *n < 0)
                    return m_form->say(
                        tr("%1: particles are counted in whole numbers").arg(qs(k.name)));
                // The largest of a kind is noted once, where it was first counted.
                cut.counts.push_back({ std::string(k.id), where, static_cast<int>(*n),
                                       std::exchange(largest, std::nullopt) });
            }
        if (largest)
            return m_form->say(tr("%1: a size without a count").arg(qs(k.name)));
    }
    if (cut.counts.empty())
        return m_form->say(tr("Count at least one kind; 0 says that you looked and found none."));
    for (const FilterCut *c : standing(m_open.build().filterCuts))
        if (c->engine_h == cut.engine_h)
            return m_form->say(tr("A filter cut at %1 h is there already. Take it back, or correct "
                                  "the hours.")
                                   .arg(qs(formatPlain(cut.engine_h, 1))));
    if (const auto done = m_open.record(cut); !done)
        return m_form->say(qs(done.error().message));
    m_cut = m_open.build().filterCuts.back().id;
    m_form->clear();
    m_form->focusFirst();
    refresh();
    Q_EMIT changed();
}

QString FilterPage::importTable(const std::string &text)
{
    const CutImport table = cutsFromTable(m_open.build(), text);
    return takeTable(table.errors, table.cuts, tr("%1 filter cuts").arg(table.cuts.size()), m_open);
}

const FilterCut *FilterPage::chosen() const
{
    for (const FilterCut *c : standing(m_open.build().filterCuts))
        if (c->id == m_cut)
            return c;
    return nullptr;
}

const CutReport &FilterPage::report() const
{
    return m_open.answers().now(ask::cuts())->answer;
}

const JudgedCut *FilterPage::judged() const
{
    const auto it = std::ranges::find(report().cuts, m_cut, &JudgedCut::id);
    return it == report().cuts.end() ? nullptr : &*it;
}

Result<void> FilterPage::amend(FilterCut next)
{
    next.replaces = next.id;
    next.by.clear();
    next.at.clear();
    const auto done = m_open.record(next);
    m_cut = done.value_or(m_cut);
    refresh();
    Q_EMIT changed();
    return outcome(done);
}

QString FilterPage::addPhoto(const QString &file)
{
    const FilterCut *c = chosen();
    if (!c)
        return tr("Choose the cut first");
    auto name = takePhoto(m_open, file);
    if (!name)
        return qs(name.error().message);
    FilterCut next = *c;
    next.photos.push_back(*name);
    const auto done = amend(next);
    return done ? QString() : qs(done.error().message);
}

void FilterPage::refresh()
{
    if (!judged())
        m_cut = report().cuts.empty() ? "" : report().cuts.back().id;
    m_chart->show(m_open.build(), report(), m_cut);
    const JudgedCut *j = judged();
    if (m_against == m_cut
        || std::ranges::find(report().cuts, m_against, &JudgedCut::id) == report().cuts.end())
        m_against.clear();
    const JudgedCut other
        = j && !m_against.empty() ? comparedWith(m_open.build(), *j, m_against) : JudgedCut {};
    m_comparison->show(m_against.empty() ? j : &other);
    const FilterCut *c = chosen();
    m_photos->setPhotos(c ? c->photos : std::vector<std::string>());
    m_photos->setVisible(c && !c->photos.empty());
}

QString FilterPage::about() const
{
    if (report().cuts.empty())
        return tr("nothing cut yet");
    return tr("%1 over %2 h of this engine")
        .arg(counted(report().cuts.size(), tr("filter"), tr("filters")),
             qs(formatPlain(report().cuts.back().engine_h, 0)));
}

void FilterPage::takeFocus()
{
    m_form->focusFirst();
}

/// Which cut to compare with: the one before it that is like it in hours, or any other.
void FilterPage::againstPanel(PanelContent &out)
{
    PanelChoice c {
        QStringLiteral("cut.against"), tr("Compared with"), { tr("the like one before") }, 0, {}
    };
    std::vector<std::string> ids { {} };
    for (const JudgedCut &j : report().cuts) {
        if (j.id == m_cut)
            continue;
        if (j.id == m_against)
            c.current = static_cast<int>(ids.size());
        ids.push_back(j.id);
        c.options << tr("the cut at %1 h").arg(qs(formatPlain(j.engine_h, 0)));
    }
    c.chosen = [this, ids](int i) -> Result<void> {
        m_against = ids[static_cast<size_t>(i)];
        refresh();
        return {};
    };
    if (ids.size() > 1)
        out.push_back(std::move(c));
}

PanelContent FilterPage::panel()
{
    PanelContent out;
    const JudgedCut *j = judged();
    const FilterCut *c = chosen();
    if (j && c) {
        out.push_back(PanelTitle {
            tr("Cut at %1 h").arg(qs(formatPlain(j->engine_h, 0))),
            tr("%1 h, %2 examined")
                .arg(qs(formatPlain(c->filter_h, 0)), inFileUnit(c->area_cm2, "cm²")) });
        out.push_back(PanelVerdict { j->mark, qs(j->verdict), {} });
        for (const JudgedKind &k : j->kinds)
            out.push_back(PanelVerdict { k.mark, qs(findCutKind(k.kind)->name), qs(k.verdict) });
        for (const std::string &r : j->remarks)
            out.push_back(PanelText { qs(r), Tone::Warn });
        againstPanel(out);
        out.push_back(PanelWord { QStringLiteral("cut.settled"), tr("What was done about it"),
                                  qs(c->settled), [this, cut = *c](const QString &text) {
                                      FilterCut next = cut;
                                      next.settled = text.trimmed().toStdString();
                                      return next.settled == cut.settled ? Result<void> {}
                                                                         : amend(next);
                                  } });
        out.push_back(PanelButton { QStringLiteral("cut.photo"), tr("Add a photo…"), [this] {
                                       const QString file = QFileDialog::getOpenFileName(
                                           this, tr("Photo of the cut"), {},
                                           tr("Pictures (*.png *.jpg *.jpeg)"));
                                       if (!file.isEmpty())
                                           m_form->say(addPhoto(file));
                                   } });
        out.push_back(PanelButton {
            QStringLiteral("cut.takeBack"), tr("Take this cut back"),
            [open = &m_open, id = c->id] { saidIfRefused(open->takeBack("filter_cuts", id)); } });
        out.push_back(PanelRule {});
    }
    out.push_back(PanelText { qs(magnetCaution()) });
    out.push_back(PanelText {
        tr("Copper colour is a finding however little it is. Particles come in clumps: an interval "
           "that spans “same rate” says that these counts cannot tell, not that nothing changed."),
        Tone::Muted });
    out.push_back(PanelHeading { tr("Counted by") });
    for (const char *key : { "first_hours_h", "speck_count" })
        out.push_back(sectionField(m_open, "after", key));
    out.push_back(PanelRule {});
    addWorking(out, { "count-comparison" });
    return out;
}

} // namespace mildpath
