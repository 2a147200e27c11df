// SPDX-License-Identifier: GPL-3.0-or-later
#include "begin/firstquestions.h"

#include "circuit/elementtypes.h"
#include "document/logbook.h"
#include "entry/arrowcombo.h"
#include "entry/quantityfield.h"
#include "oil/grades.h"
#include "open/openbuild.h"
#include "paint/figure.h"
#include "paint/text.h"
#include "rules/rules.h"

#include <QCheckBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QStackedWidget>
#include <QVBoxLayout>

#include <array>
#include <cmath>

namespace mildpath {
namespace {

/// Families whose limits people have at hand first.
constexpr std::array<std::string_view, 4> firstFamilies { "main", "big_end", "small_end",
                                                          "cam_bearing" };

const Element *pumpOf(const Build &build)
{
    for (const Element &e : build.circuit.elements)
        if (e.kind == ElementKind::Pump)
            return &e;
    return nullptr;
}

/// The relief valve at the pump, by its stop.
const Element *reliefOf(const Build &build)
{
    if (const Stop *s = build.engine.ofKind(StopKind::Relief))
        for (const std::string &id : s->elements)
            if (const Element *e = build.circuit.find(id); e && e->kind == ElementKind::Relief)
                return e;
    return nullptr;
}

} // namespace

FirstQuestions::FirstQuestions(const Build &build, const std::string &worker, QWidget *parent)
    : QDialog(parent)
    , m_build(build)
    , m_pages(new QStackedWidget(this))
    , m_step(new QLabel(this))
    , m_back(new QPushButton(tr("Back"), this))
    , m_next(new QPushButton(this))
{
    setObjectName(QStringLiteral("firstQuestions"));
    setWindowTitle(tr("New build"));
    resize(560, 430);
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(20, 16, 20, 16);
    m_step->setFont(textFont(TextSize::Small));
    column->addWidget(m_step);
    column->addWidget(m_pages, 1);
    whoPage(worker);
    enginePage();
    oilPage();
    limitsPage();
    pumpPage();
    auto *foot = new QHBoxLayout;
    auto *later = new QPushButton(tr("The rest later"), this);
    later->setObjectName(QStringLiteral("first.later"));
    later->setAutoDefault(false);
    foot->addWidget(later);
    foot->addStretch();
    m_back->setObjectName(QStringLiteral("first.back"));
    m_back->setAutoDefault(false);
    m_next->setObjectName(QStringLiteral("first.next"));
    m_next->setDefault(true);
    foot->addWidget(m_back);
    foot->addWidget(m_next);
    column->addLayout(foot);
    connect(later, &QPushButton::clicked, this, &QDialog::accept);
    connect(m_back, &QPushButton::clicked, this, [this] { go(page() - 1); });
    connect(m_next, &QPushButton::clicked, this, [this] {
        if (page() + 1 == m_pages->count())
            accept();
        else
            go(page() + 1);
    });
    go(0);
}

int FirstQuestions::page() const
{
    return m_pages->currentIndex();
}

void FirstQuestions::go(int page)
{
    m_pages->setCurrentIndex(page);
    m_step->setText(tr("%1 of %2").arg(page + 1).arg(m_pages->count()));
    setTone(m_step, Theme::current().muted);
    m_back->setEnabled(page > 0);
    m_next->setText(page + 1 == m_pages->count() ? tr("Begin") : tr("Next"));
    for (QWidget *w : m_pages->currentWidget()->findChildren<QWidget *>())
        if (w->focusPolicy() & Qt::TabFocus) {
            w->setFocus();
            break;
        }
}

QFormLayout *FirstQuestions::addPage(const QString &title, const QString &about)
{
    auto *page = new QWidget(m_pages);
    auto *column = new QVBoxLayout(page);
    column->setContentsMargins(0, 0, 0, 0);
    auto *head = new QLabel(title, page);
    head->setFont(textFont(TextSize::Title, true));
    column->addWidget(head);
    auto *words = new QLabel(about, page);
    words->setWordWrap(true);
    setTone(words, Theme::current().muted);
    column->addWidget(words);
    auto *form = new QFormLayout;
    form->setLabelAlignment(Qt::AlignLeft);
    form->setVerticalSpacing(8);
    column->addLayout(form);
    column->addStretch();
    m_pages->addWidget(page);
    return form;
}

QuantityField *FirstQuestions::field(QFormLayout *form, const char *name, const QString &label,
                                     Dimension dimension, const char *unit, int decimals,
                                     std::optional<double> si)
{
    auto *f = new QuantityField(dimension, unit, m_pages);
    f->setObjectName(QString::fromLatin1(name));
    f->setDecimals(decimals);
    f->setValue(si);
    f->setFixedWidth(96);
    auto *words = new QLabel(m_pages);
    nameWithUnit(words, label, f);
    form->addRow(words, f);
    connect(f, &QuantityField::entered, f, [f](double value) { f->setValue(value); });
    return f;
}

void FirstQuestions::whoPage(const std::string &worker)
{
    QFormLayout *form = addPage(tr("Who and what"),
                                tr("The job says which checks are asked. What is entered carries "
                                   "the name of whoever works."));
    const auto word = [&](const char *name, const QString &label, const QString &text) {
        auto *line = new QLineEdit(text, m_pages);
        line->setObjectName(QString::fromLatin1(name));
        form->addRow(label, line);
        return line;
    };
    m_name = word("first.name", tr("name of the build"), qs(m_build.name));
    m_worker = word("first.worker", tr("who works on it"), qs(worker));
    m_number = word("first.number", tr("engine number"), {});
    auto *jobs = new QWidget(m_pages);
    auto *column = new QVBoxLayout(jobs);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(2);
    for (const JobKind &k : jobKinds()) {
        const std::string letter(1, k.letter);
        auto *box = new QCheckBox(qs(capitalised(k.name)), jobs);
        box->setObjectName(QStringLiteral("first.job.") + qs(letter));
        column->addWidget(box);
        m_jobs.emplace_back(letter, box);
    }
    form->addRow(tr("the job"), jobs);
    m_alone
        = new QCheckBox(tr("works alone: one signature does for two, and is printed so"), m_pages);
    m_alone->setObjectName(QStringLiteral("first.alone"));
    form->addRow(m_alone);
}

void FirstQuestions::enginePage()
{
    const Engine &e = m_build.engine;
    const auto mains = std::ranges::count(e.stops, StopKind::Main, &Stop::kind);
    QFormLayout *form
        = addPage(tr("The engine"),
                  tr("%1: %2 cylinders, %3 mains, %4 checkpoints. Sizes are corrected on the "
                     "benches.")
                      .arg(qs(e.name))
                      .arg(e.cylinders)
                      .arg(mains)
                      .arg(e.stops.size()));
    const auto speed = [&](const char *name, const QString &label, const char *key, double rpm) {
        const double si = fromUnit(rpm, "rev/min", Dimension::Speed);
        m_numbers.push_back(
            { field(form, name, label, Dimension::Speed, "rev/min", 0, si), si,
              [key](double value) -> Edit {
                  return SetUse { key, std::round(toUnit(value, "rev/min", Dimension::Speed)) };
              } });
    };
    speed("first.idle", tr("hot idle"), "hot_idle_rpm", m_build.use.hotIdle_rpm);
    speed("first.most", tr("highest speed"), "most_rpm", m_build.use.most_rpm);
    m_load = new ArrowCombo(m_pages);
    m_load->setObjectName(QStringLiteral("first.load"));
    m_load->addItem(tr("not said: as usual for it"));
    m_load->addItem(tr("petrol, not boosted"), fullLoadPeak_pa / 1e3);
    m_load->addItem(tr("boosted, or diesel"), fullLoadPeakBoosted_pa / 1e3);
    form->addRow(tr("at full load it is"), m_load);
}

void FirstQuestions::oilPage()
{
    QFormLayout *form = addPage(tr("Oil and use"),
                                tr("The coldest start decides the least clearance and the highest "
                                   "pressure."));
    m_oil = new ArrowCombo(m_pages);
    m_oil->setObjectName(QStringLiteral("first.oil"));
    for (const ShelfOil &o : oilShelf())
        if (!o.gearOil)
            m_oil->addItem(qs(o.grade));
    m_oil->setCurrentIndex(m_oil->findText(qs(m_build.oil.grade)));
    form->addRow(tr("oil"), m_oil);
    const double coldest = fromUnit(m_build.use.coldestStart_c, "°C", Dimension::Temperature);
    m_numbers.push_back(
        { field(form, "first.coldest", tr("coldest start"), Dimension::Temperature, "°C", 0,
                coldest),
          coldest, [](double value) -> Edit {
              return SetUse { "coldest_start_c",
                              std::round(toUnit(value, "°C", Dimension::Temperature)) };
          } });
}

void FirstQuestions::limitsPage()
{
    QFormLayout *form = addPage(tr("Whose limits"),
                                tr("Typical ones stand until the maker's or the shop's own are "
                                   "typed here. Typical limits are marked so everywhere."));
    m_whose = new ArrowCombo(m_pages);
    m_whose->setObjectName(QStringLiteral("first.whose"));
    m_whose->addItem(tr("what is typed is the maker's"), QStringLiteral("maker"));
    m_whose->addItem(tr("what is typed is the shop's own"), QStringLiteral("shop"));
    form->addRow(m_whose);
    for (const std::string_view family : firstFamilies) {
        const auto limits = m_build.limits.find(std::string(family));
        const Family *f = findFamily(family);
        if (limits == m_build.limits.end() || !f)
            continue;
        auto *row = new QWidget(m_pages);
        auto *line = new QHBoxLayout(row);
        line->setContentsMargins(0, 0, 0, 0);
        const auto end = [&](const char *name, double um) {
            auto *out = new QuantityField(Dimension::Length, "µm", row);
            out->setObjectName(QString::fromLatin1(name) + u'.' + qs(family));
            out->setDecimals(0);
            out->setPlaceholderText(Figure::clearance(um).number);
            out->setFixedWidth(80);
            connect(out, &QuantityField::entered, out, [out](double v) { out->setValue(v); });
            line->addWidget(out);
            return out;
        };
        LimitRow limit { std::string(family), nullptr, nullptr };
        limit.least = end("first.least", limits->second.min_um);
        line->addWidget(new QLabel(tr("to"), row));
        limit.most = end("first.most", limits->second.max_um);
        auto *unit = new QLabel(qs(limit.most->shownUnit()), row);
        line->addWidget(unit);
        line->addStretch();
        form->addRow(qs(f->plural), row);
        m_limits.push_back(limit);
    }
}

void FirstQuestions::pumpPage()
{
    QFormLayout *form = addPage(
        tr("The pump"), tr("Delivery a turn and the relief valve decide every pressure there is."));
    if (const Element *pump = pumpOf(m_build)) {
        const double before = pumpDisplacement_m3(*pump);
        m_numbers.push_back({ field(form, "first.pump", tr("it moves, a turn"), Dimension::Volume,
                                    "cm³", 1, before),
                              before, [id = pump->id](double si) -> Edit {
                                  return SetElementValue { id, "displacement_m3", si };
                              } });
    }
    if (const Element *relief = reliefOf(m_build)) {
        const auto pressure = [&](const char *name, const QString &label, const char *key) {
            const double before = relief->value(key) * 1e3;
            m_numbers.push_back({ field(form, name, label, Dimension::Pressure, "bar", 2, before),
                                  before, [id = relief->id, key](double si) -> Edit {
                                      return SetElementValue { id, key, si / 1e3 };
                                  } });
        };
        pressure("first.opens", tr("relief begins to open"), "crack_kpa");
        pressure("first.full", tr("and is full open"), "full_kpa");
        m_returns = new ArrowCombo(m_pages);
        m_returns->setObjectName(QStringLiteral("first.returns"));
        m_returns->addItem(relief->to == sumpNode ? tr("as described: to the sump")
                                                  : tr("as described: to the pump's inlet"));
        m_returns->addItem(tr("to the pump's inlet"), QStringLiteral("inlet"));
        m_returns->addItem(tr("to the sump"), QStringLiteral("sump"));
        m_returns->addItem(tr("not known"), QStringLiteral("unknown"));
        form->addRow(tr("its oil goes"), m_returns);
    }
}

std::string FirstQuestions::worker() const
{
    return m_worker->text().trimmed().toStdString();
}

void FirstQuestions::jobEdits(std::vector<Edit> &out) const
{
    Job job;
    for (const auto &[letter, box] : m_jobs)
        if (box->isChecked())
            job.kinds.push_back(letter);
    if (job.kinds.empty() || worker().empty())
        return;
    job.number = m_number->text().trimmed().toStdString();
    job.alone = m_alone->isChecked();
    job.by = worker();
    job.at = OpenBuild::now();
    out.emplace_back(AddEntry { std::move(job) });
}

std::vector<Edit> FirstQuestions::edits() const
{
    std::vector<Edit> out;
    if (const std::string name = m_name->text().trimmed().toStdString();
        !name.empty() && name != m_build.name)
        out.emplace_back(Rename { name });
    jobEdits(out);
    if (const std::string grade = m_oil->currentText().toStdString(); grade != m_build.oil.grade)
        if (const auto oil = findOil(m_build, grade))
            out.emplace_back(SetOil { *oil });
    for (const Number &n : m_numbers)
        if (const auto now = n.field->value(); now && now != n.before)
            out.push_back(n.edit(*now));
    if (const QVariant peak = m_load->currentData(); peak.isValid())
        out.emplace_back(SetUse { "full_load_peak_kpa", peak.toDouble() });
    if (const std::string to = m_returns ? m_returns->currentData().toString().toStdString() : "";
        !to.empty())
        out.emplace_back(SetReliefReturn { to });
    const std::string whose = m_whose->currentData().toString().toStdString();
    for (const LimitRow &l : m_limits)
        for (const auto &[end, key] : { std::pair(l.least, "min_um"), std::pair(l.most, "max_um") })
            if (const auto si = end->value())
                out.emplace_back(SetLimit { l.family, key, *si * 1e6, whose });
    return out;
}

} // namespace mildpath
