// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/finish/finishpage.h"

#include "bench/finish/traceimport.h"
#include "entry/arrowcombo.h"
#include "entry/refusal.h"
#include "oil/blending.h"
#include "open/questions.h"
#include "paint/text.h"
#include "shell/stopfields.h"
#include "study/contacts.h"

#include <QFileDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QStackedWidget>
#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {
namespace {

constexpr int strokeSteps = 1000;

QString phaseWord(const std::string &phase)
{
    return phase == "after" ? FinishPage::tr("after strokes") : FinishPage::tr("before strokes");
}

QString rangeText(const FinishRange &r, const FinishQuantity &q)
{
    if (r.traces == 0)
        return QStringLiteral("–");
    const auto number = [&](double v) { return shown(q.asQuantity(v)).number; };
    return r.traces == 1
        ? number(r.mean)
        : QStringLiteral("%1 (%2–%3)").arg(number(r.mean), number(r.least), number(r.most));
}

} // namespace

FinishPage::FinishPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_stack(new QStackedWidget(this))
{
    setObjectName(QStringLiteral("finishPage"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(m_stack);
    auto *page = new QWidget(m_stack);
    auto *rows = new QVBoxLayout(page);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(6);
    makeTop(page);
    m_view = new TraceView(page);
    rows->addWidget(m_view, 5);
    makeStrokes(page);
    auto *pair = new QHBoxLayout;
    pair->setSpacing(8);
    m_ratio = new RatioView(page);
    m_probability = new ProbabilityView(page);
    pair->addWidget(m_ratio, 1);
    pair->addWidget(m_probability, 1);
    rows->addLayout(pair, 6);
    m_stack->addWidget(page);
    m_import = new TraceImportCard(open, m_stack);
    m_stack->addWidget(m_import);
    follow(qs(ask::traces(0, {}).topic));
    connect(m_import, &TraceImportCard::cancelled, this, [this] { m_stack->setCurrentIndex(0); });
    connect(m_import, &TraceImportCard::taken, this, [this] {
        m_stack->setCurrentIndex(0);
        m_trace = m_open.build().boreTraces.back().id;
        refresh();
    });
}

void FinishPage::reset()
{
    m_read.reset();
    m_trace.clear();
    m_stack->setCurrentIndex(0);
}

void FinishPage::makeTop(QWidget *page)
{
    auto *row = new QHBoxLayout;
    m_traces = new ArrowCombo(page);
    m_traces->setObjectName(QStringLiteral("finish.traces"));
    m_traces->setAccessibleName(tr("Which trace"));
    m_traces->setMinimumWidth(310);
    row->addWidget(m_traces);
    m_filter = new ArrowCombo(page);
    m_filter->setObjectName(QStringLiteral("finish.filter"));
    m_filter->setAccessibleName(tr("Filter"));
    m_filter->addItem(tr("two-step filter"), static_cast<int>(ProfileFilter::TwoStep));
    m_filter->addItem(tr("Gaussian filter"), static_cast<int>(ProfileFilter::Gaussian));
    m_filter->addItem(tr("no filter"), static_cast<int>(ProfileFilter::None));
    row->addWidget(m_filter);
    m_said = new QLabel(page);
    m_said->setObjectName(QStringLiteral("finish.said"));
    m_said->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    row->addWidget(m_said, 1);
    auto *read = new QPushButton(tr("Read a trace…"), page);
    read->setObjectName(QStringLiteral("finish.read"));
    row->addWidget(read);
    static_cast<QVBoxLayout *>(page->layout())->addLayout(row);
    connect(m_traces, &QComboBox::activated, this, [this](int i) {
        m_trace = m_traces->itemData(i).toString().toStdString();
        m_strokes->setValue(0);
        showTrace();
        Q_EMIT changed();
    });
    connect(m_filter, &QComboBox::currentIndexChanged, this, &FinishPage::refresh);
    connect(read, &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getOpenFileName(this, tr("Trace to read"), {},
                                                          tr("Traces (*.csv *.txt *.prn)"));
        if (path.isEmpty())
            return;
        if (const QString why = importTrace(path); !why.isEmpty())
            m_said->setText(why);
    });
}

void FinishPage::makeStrokes(QWidget *page)
{
    auto *row = new QHBoxLayout;
    row->addWidget(new QLabel(tr("More strokes"), page));
    m_strokes = new QSlider(Qt::Horizontal, page);
    m_strokes->setObjectName(QStringLiteral("finish.strokes"));
    m_strokes->setAccessibleName(tr("More finishing strokes"));
    m_strokes->setRange(0, strokeSteps);
    m_strokes->setSingleStep(5);
    row->addWidget(m_strokes, 1);
    m_left = new QLabel(page);
    m_left->setObjectName(QStringLiteral("finish.left"));
    m_left->setMinimumWidth(330);
    row->addWidget(m_left);
    static_cast<QVBoxLayout *>(page->layout())->addLayout(row);
    connect(m_strokes, &QSlider::valueChanged, this, &FinishPage::stroke);
}

QString FinishPage::importTrace(const QString &path)
{
    const QString why = m_import->load(path);
    if (why.isEmpty())
        m_stack->setCurrentIndex(1);
    return why;
}

Question<std::vector<ReadTrace>> FinishPage::question() const
{
    return ask::traces(*valueOf(m_open.build().finish.values, finishKeys(), "cutoff_mm"),
                       static_cast<ProfileFilter>(m_filter->currentData().toInt()));
}

const std::vector<ReadTrace> &FinishPage::read() const
{
    static const std::vector<ReadTrace> none;
    return m_read ? m_read->answer : none;
}

void FinishPage::fillTraces()
{
    const QSignalBlocker block(m_traces);
    m_traces->clear();
    if (!chosen())
        m_trace = read().empty() ? "" : read().front().id;
    for (const BoreTrace *t : standing(m_open.build().boreTraces)) {
        m_traces->addItem(
            tr("bore %1, %2").arg(t->bore).arg(phaseWord(t->phase))
                + (t->place.empty() ? QString() : QStringLiteral(", ") + qs(t->place)),
            qs(t->id));
        if (t->id == m_trace)
            m_traces->setCurrentIndex(m_traces->count() - 1);
    }
    m_traces->setVisible(m_traces->count() > 0);
}

const ReadTrace *FinishPage::chosen() const
{
    const auto it = std::ranges::find(read(), m_trace, &ReadTrace::id);
    return it == read().end() ? nullptr : &*it;
}

void FinishPage::refresh()
{
    if (auto read = m_open.answers().ask(question())) {
        m_read = std::move(read);
        fillTraces();
        showTrace();
    }
}

void FinishPage::showTrace()
{
    const Theme &t = Theme::current();
    const ReadTrace *r = chosen();
    m_scene = {};
    QString said;
    if (r) {
        m_scene.trace = r->trace;
        m_scene.fit = r->fit;
        for (const ReadTrace &o : read())
            if (o.trace && o.bore == r->bore && o.phase != r->phase && !m_scene.other) {
                m_scene.other = o.trace;
                m_scene.otherName = phaseWord(o.phase);
            }
        for (const ReadTrace &o : read())
            if (o.trace && o.bore == r->bore && o.phase == r->phase && o.id != r->id)
                m_scene.siblings.push_back(o.trace);
        said = r->trouble.empty() ? qs(r->remark) : qs(r->trouble);
    }
    if (m_scene.trace)
        fitScale(m_scene);
    m_said->setText(said);
    m_said->setToolTip(said);
    setTone(m_said, r && !r->trouble.empty() ? t.hold : t.lookAgain);
    m_strokes->setEnabled(m_scene.trace != nullptr);
    stroke();
}

double FinishPage::deepest_um() const
{
    return m_scene.trace->curve.at(cutFromRatio) - m_scene.trace->curve.at(mostCut);
}

void FinishPage::setStrokes(double depth_um)
{
    if (m_scene.trace)
        m_strokes->setValue(static_cast<int>(std::lround(depth_um / deepest_um() * strokeSteps)));
}

void FinishPage::stroke()
{
    m_scene.stroked.reset();
    QString text;
    if (m_scene.trace) {
        const double depth = deepest_um() * m_strokes->value() / strokeSteps;
        const double whole = m_scene.trace->core.vo_um3_um2;
        const auto valley = [](double um3_um2) {
            return inWords(Quantity { um3_um2, Shows::ValleyVolume });
        };
        if (depth > 0)
            if (auto stroked = strokeTrace(*m_scene.trace, depth))
                m_scene.stroked = std::move(*stroked);
        if (m_scene.stroked) {
            const Cut &c = m_scene.stroked->cut;
            text = tr("%1 off: %2 is plateau, valleys hold %3 of %4")
                       .arg(inWords(Quantity { depth * 1e-6, Shows::Roughness }),
                            Figure::percent(c.ratio).text(), valley(c.valleyLeft_um3_um2),
                            valley(whole));
        } else
            text = tr("as traced: valleys hold %1").arg(valley(whole));
    }
    m_left->setText(text);
    m_view->show(m_scene);
    m_ratio->show(m_scene);
    m_probability->show(m_scene);
}

QString FinishPage::about() const
{
    const auto n = standing(m_open.build().boreTraces).size();
    return n == 0 ? tr("no trace yet") : counted(n, tr("trace"), tr("traces"));
}

PanelContent FinishPage::panel()
{
    PanelContent out;
    parameterPanel(out);
    valleyPanel(out);
    ringPanel(out);
    return out;
}

void FinishPage::parameterPanel(PanelContent &out) const
{
    const ReadTrace *r = chosen();
    if (!r) {
        out.push_back(PanelTitle { tr("Bore finish"), {} });
        out.push_back(PanelText {
            busy() ? tr("Reading the traces…")
                   : tr("The oil is the gasket between ring and wall. Read stylus traces, three "
                        "a bore at least: place and height, or heights with their step."),
            Tone::Muted });
        return;
    }
    out.push_back(PanelTitle { tr("Bore %1").arg(r->bore), tr("mean (least–most) of its traces") });
    const FinishRange before = rangeOf(read(), r->bore, "before", *findFinishQuantity("rk_um")),
                      after = rangeOf(read(), r->bore, "after", *findFinishQuantity("rk_um"));
    const int fewest = std::min(before.traces > 0 ? before.traces : after.traces,
                                after.traces > 0 ? after.traces : before.traces);
    if (const Mark mark = tracesMark(fewest); fewest > 0 && mark != Mark::Proven)
        out.push_back(PanelVerdict { mark, tr("Few traces"), qs(trustIn(fewest)) });
    const bool both = before.traces > 0 && after.traces > 0;
    if (both)
        out.push_back(PanelRow { QString(), { tr("before → after"), {}, {} } });
    for (const FinishQuantity &q : finishQuantities()) {
        const FinishRange b = rangeOf(read(), r->bore, "before", q),
                          a = rangeOf(read(), r->bore, "after", q);
        const QString tip = qs(q.meaning) + QStringLiteral("\n")
            + tr("before %1, after %2").arg(rangeText(b, q), rangeText(a, q));
        const auto change = changeOf(read(), r->bore, q);
        const auto mean = [&](const FinishRange &range) {
            return range.traces ? shown(q.asQuantity(range.mean)).number : QStringLiteral("–");
        };
        const QString text = both ? mean(b) + QStringLiteral(" → ") + mean(a)
                + (change && change->counts ? QString() : QStringLiteral(" ≈"))
                                  : rangeText(b.traces > 0 ? b : a, q);
        out.push_back(
            PanelRow { qs(q.name), { text, qs(shownUnit(q.as, Figure::system())), {} }, tip });
    }
    if (both)
        out.push_back(PanelText {
            tr("≈: no more than traces of one wall differ by. After ISO 13565-3: Rpq, Rvq, Rmq."),
            Tone::Muted });
    out.push_back(PanelButton {
        QStringLiteral("finish.takeBack"), tr("Take this trace back"),
        [open = &m_open, id = r->id] { saidIfRefused(open->takeBack("bore_traces", id)); } });
}

void FinishPage::valleyPanel(PanelContent &out) const
{
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("Valley volume wanted") });
    const ReadTrace *r = chosen();
    const auto target = valleyTarget(m_open.build());
    if (r && r->trace && target) {
        const FinishRange vo
            = rangeOf(read(), r->bore, r->phase, *findFinishQuantity("vo_um3_um2"));
        const auto against = [&](const QString &school, double wanted) {
            out.push_back(
                PanelVerdict { valleyMark(vo.mean, wanted), school,
                               tr("%1 wanted, %2 measured: %3 %")
                                   .arg(qs(formatNumber(wanted, 3)), qs(formatNumber(vo.mean, 3)),
                                        qs(formatNumber(100 * vo.mean / wanted, 0))) });
        };
        against(tr("Petrol, or the smooth school with any fuel"), target->petrol);
        against(tr("Methanol, the doubling school"), target->doubled);
    }
    out.push_back(sectionField(m_open, "finish", "valley_um3_um2"));
    out.push_back(sectionField(m_open, "finish", "methanol_factor"));
    out.push_back(PanelText {
        tr("One school: methanol puts some %1 times the fuel on the wall and washes it, so valleys "
           "are to hold more. The other: deep valleys come with a rough wall that beds in slowly "
           "and may scuff; keep the petrol finish, choose oil and mixture. Common practice, no "
           "source.")
            .arg(qs(formatNumber(fuelMassRatio(petrolAirFuel, 1, methanolAirFuel, 1), 1))),
        Tone::Muted });
    const std::string school = choiceOf(m_open.build(), "rough_valleys");
    out.push_back(PanelChoice { QStringLiteral("finish.school"),
                                tr("Ours"),
                                { tr("smooth with valleys"), tr("more valley for the fuel") },
                                school.empty()         ? -1
                                    : school == "more" ? 1
                                                       : 0,
                                [open = &m_open](int i) {
                                    return open->choose("rough_valleys",
                                                        i == 1 ? "more" : "smooth");
                                } });
}

void FinishPage::ringPanel(PanelContent &out)
{
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("Rings and piston") });
    const Build &build = m_open.build();
    for (const char *key : { "piston_clearance_um", "top_ring_mm", "second_ring_mm", "oil_ring_mm",
                             "gas_kpa", "ring_rq_um", "bore_rpq_um" })
        out.push_back(sectionField(m_open, "finish", key));
    const ReadTrace *r = chosen();
    if (r && r->trace) {
        const FinishRange rpq = rangeOf(read(), r->bore, r->phase, *findFinishQuantity("rpq_um"));
        out.push_back(PanelButton {
            QStringLiteral("finish.useRpq"),
            tr("Use this bore's Rpq, %1")
                .arg(inWords(findFinishQuantity("rpq_um")->asQuantity(rpq.mean))),
            [open = &m_open, v = std::round(rpq.mean * 1e4) / 1e4] {
                saidIfRefused(open->edit(SetSectionValue { "finish", "bore_rpq_um", v }));
            } });
    }
    if (m_open.operating().unsolved)
        return;
    for (const Contact &c : contactsOf(build, m_open.operating().highSpeed))
        if (c.id == "rings_mid" || c.id == "rings_top")
            out.push_back(PanelRow { qs(c.name),
                                     { QString::fromUtf8(regimeWord(c.regime)), {}, {} },
                                     tr("at the higher speed, hot oil; film & oil shows it on the "
                                        "curve") });
    out.push_back(PanelText { tr("A regime only: this is no figure of a film. The valleys never "
                                 "touch, so Rpq counts, not Rq."),
                              Tone::Muted });
    out.push_back(sectionField(m_open, "finish", "cutoff_mm"));
    out.push_back(PanelRule {});
    addWorking(out, { "bore-finish", "fuel-mass-ratio" });
}

} // namespace mildpath
