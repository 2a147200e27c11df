// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/route/mappage.h"

#include "assess/circuitof.h"
#include "assess/cleanmarks.h"
#include "assess/crankfeeds.h"
#include "checks/judgement.h"
#include "entry/refusal.h"

#include "bench/route/engineeditor.h"
#include "bench/route/routemap.h"
#include "bench/route/whatifpanel.h"
#include "calc/catalogue.h"
#include "circuit/elementtypes.h"
#include "entry/arrowcombo.h"
#include "oil/grades.h"
#include "open/vectorstate.h"
#include "paint/text.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QSignalBlocker>
#include <QSlider>
#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {
namespace {

/// Dimensions of an element that are worth changing by hand on the map.
std::vector<std::string_view> handyKeys(ElementKind kind)
{
    if (kind == ElementKind::Relief)
        return { "crack_kpa", "full_kpa" };
    if (kind == ElementKind::Orifice)
        return { "d_mm" };
    if (kind == ElementKind::Jet)
        return { "d_mm", "open_kpa" };
    return {};
}

struct FieldUnit
{
    Dimension dimension;
    std::string unit; ///< shown
    double perSi; ///< document number per SI
    int decimals;
};

FieldUnit unitFor(std::string_view key)
{
    if (key.ends_with("_mm"))
        return { Dimension::Length, "mm", 1e3, 2 };
    return { Dimension::Pressure, "bar", 1e-3, 2 };
}

} // namespace

MapPage::MapPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_map(new RouteMap(open, this))
    , m_speed(new QSlider(Qt::Horizontal, this))
    , m_oil(new QSlider(Qt::Horizontal, this))
    , m_speedText(new QLabel(this))
    , m_oilText(new QLabel(this))
    , m_grade(new ArrowCombo(this))
    , m_change(new QPushButton(tr("Engine…"), this))
{
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(4);
    makeRow(column);
    column->addWidget(m_map, 1);
    connect(&open, &OpenBuild::imaginedChanged, this, [this] {
        solve();
        Q_EMIT changed();
    });
}

/// Speed and oil, and which oil it is.
void MapPage::makeRow(QVBoxLayout *column)
{
    auto *row = new QHBoxLayout;
    row->setSpacing(7);
    const auto slider
        = [&](QSlider *s, QLabel *text, const QString &name, const QString &object, int textWidth) {
              auto *label = new QLabel(name, this);
              label->setBuddy(s);
              s->setObjectName(object);
              s->setAccessibleName(name);
              s->setMinimumWidth(70);
              s->setMaximumWidth(170);
              text->setFixedWidth(textWidth);
              text->setFont(textFont(TextSize::Body, true));
              row->addWidget(label);
              row->addWidget(s, 1);
              row->addWidget(text);
              connect(s, &QSlider::valueChanged, this, [this] {
                  solve();
                  Q_EMIT changed();
              });
          };
    slider(m_speed, m_speedText, tr("Speed"), QStringLiteral("speedSlider"), 98);
    slider(m_oil, m_oilText, tr("Oil"), QStringLiteral("oilSlider"), 108);
    row->addStretch();
    m_grade->setObjectName(QStringLiteral("oilGrade"));
    m_grade->setAccessibleName(tr("Oil in the engine"));
    m_grade->setFixedWidth(116);
    row->addWidget(m_grade);
    connect(m_grade, &QComboBox::activated, this, &MapPage::chooseOil);
    m_change->setObjectName(QStringLiteral("changeEngine"));
    m_change->setCheckable(true);
    m_change->setToolTip(
        tr("Change what the selected stop is, what feeds it, what stands behind it"));
    row->addWidget(m_change);
    connect(m_change, &QPushButton::toggled, this, &Page::changed);
    column->addLayout(row);
    m_oil->setRange(-20, 150);
    m_oil->setSingleStep(5);
    m_speed->setSingleStep(50);
    m_speed->setPageStep(500);
}

QString MapPage::title() const
{
    return m_imagining ? tr("The oil's way, what if…") : tr("The oil's way");
}

QString MapPage::about() const
{
    return m_open.imagined().empty() ? QString() : tr("what if: %1").arg(imaginedText(m_open));
}

void MapPage::reset()
{
    const Use &use = m_open.build().use;
    const QSignalBlocker speed(m_speed), oil(m_oil);
    m_speed->setRange(static_cast<int>(std::min(400.0, use.hotIdle_rpm)),
                      static_cast<int>(use.most_rpm));
    m_speed->setValue(static_cast<int>(use.hotIdle_rpm));
    m_oil->setValue(static_cast<int>(use.hotOil_c));
}

void MapPage::refresh()
{
    const Build &build = m_open.build();
    QStringList oils;
    for (const ShelfOil &oil : oilShelf())
        oils << qs(oil.grade);
    for (const ChosenOil &own : build.ownOils)
        oils << qs(own.grade);
    const QString grade = qs(build.oil.grade);
    if (!oils.contains(grade))
        oils << grade;
    QStringList shown;
    for (int i = 0; i < m_grade->count(); ++i)
        shown << m_grade->itemText(i);
    if (shown != oils) {
        m_grade->clear();
        m_grade->addItems(oils);
    }
    const auto index = static_cast<int>(oils.indexOf(grade));
    m_grade->setCurrentIndex(index);
    m_oilText->setFixedWidth(Figure::system() == UnitSystem::Both ? 108 : 66);
    solve();
}

void MapPage::solve()
{
    m_speedText->setText(Figure::speed(m_speed->value()).text());
    m_oilText->setText(Figure::temperature(m_oil->value()).text());
    clearVectorState();
    m_result.reset();
    m_whatIf.reset();
    if (m_open.imagined().empty()) {
        auto result = assessAt(m_open.build(), m_open.sizes(), m_speed->value(), m_oil->value());
        if (result)
            m_result = std::move(*result);
        m_map->setResult(m_result);
    } else {
        auto result = whatIf(m_open.build(), m_open.sizes(), m_open.imagined(), m_speed->value(),
                             m_oil->value());
        if (result) {
            m_whatIf = std::move(*result);
            m_result = m_whatIf->after;
        }
        m_map->setResult(m_result, m_whatIf ? std::optional(m_whatIf->before) : std::nullopt);
    }
}

void MapPage::chooseOil(int index)
{
    const auto oil = findOil(m_open.build(), m_grade->itemText(index).toStdString());
    if (oil && m_open.build().oil.grade != oil->grade)
        saidIfRefused(m_open.edit(SetOil { *oil }));
}

PanelContent MapPage::panel()
{
    PanelContent out;
    const Stop *stop = m_open.build().engine.find(m_open.selectedStop().toStdString());
    const StopMarks *marks = stop ? m_open.judgement().marksOf(stop->id) : nullptr;
    if (!marks)
        return out;
    if (m_imagining) {
        whatIfPanel(m_open, *stop, m_whatIf, out);
        return out;
    }
    out.push_back(PanelTitle { qs(stop->name),
                               tr("marks: size, clean, flow"),
                               { marks->size, marks->clean, marks->flow } });
    if (m_change->isChecked()) {
        engineEditor(m_open, *stop, out);
        return out;
    }
    stopFigures(*stop, out);
    stopFilm(*stop, out);
    stopReasons(*stop, out);
    stopFields(*stop, out);
    stopProofs(*stop, out);
    stopWorking(*stop, out);
    return out;
}

void MapPage::stopFigures(const Stop &stop, PanelContent &out) const
{
    if (const GaugedSize *c = sizeOf(m_open.sizes(), stop.id)) {
        const double u = c->cold_um.standardUncertainty;
        out.push_back(PanelRow { (c->measured ? tr("Clearance at %1") : tr("Assumed at %1"))
                                     .arg(Figure::temperature(20).text()),
                                 Figure::clearance(c->cold_um.value, u),
                                 tr("diametral, mean of the upright readings") });
        out.push_back(PanelRow {
            tr("running, at this oil"), Figure::clearance(c->runningAt(m_oil->value()), u),
            tr("diametral, housing %1 below the oil").arg(inWords(asTemperatureDifference(2))) });
    }
    if (!m_result)
        return;
    const PointPressure *least = nullptr;
    for (const PointPressure &p : m_result->points)
        if (p.stop == stop.id && (!least || p.pressure_pa < least->pressure_pa))
            least = &p;
    if (least) {
        out.push_back(PanelRow {
            stop.points.size() > 1 ? tr("Least pressure, %1").arg(qs(least->name)) : tr("Pressure"),
            Figure::pressure(least->pressure_pa),
            tr("gauge pressure at the feed, without the crank's oil column") });
        if (least->need_pa > 0)
            out.push_back(PanelRow { tr("needs"), Figure::pressure(least->need_pa),
                                     tr("own choice; see the theory pages") });
    }
    double flow = 0;
    bool any = false;
    for (const std::string &id : stop.elements)
        if (const Element *e = m_open.build().circuit.find(id); e && e->to == sumpNode) {
            flow += m_result->elementFlow_m3_s.at(id);
            any = true;
        }
    if (any && m_result->pumpFlow_m3_s > 0) {
        out.push_back(PanelRow { tr("Leaves here"), Figure::flow(flow),
                                 tr("oil that goes back to the sump from here") });
        out.push_back(PanelRow {
            tr("Share of the pump"), Figure::percent(flow / m_result->pumpFlow_m3_s), {} });
    }
    if (stop.kind == StopKind::Relief && !stop.elements.empty())
        out.push_back(PanelRow { tr("Passes"), Figure::flow(m_result->reliefFlow_m3_s), {} });
    if (stop.kind == StopKind::Pump) {
        out.push_back(PanelRow { tr("Delivers"), Figure::flow(m_result->pumpFlow_m3_s), {} });
        out.push_back(PanelRow { tr("Slip"),
                                 Figure::flow(m_result->sweptFlow_m3_s - m_result->pumpFlow_m3_s),
                                 tr("what leaks back inside the pump") });
    }
}

void MapPage::stopReasons(const Stop &stop, PanelContent &out) const
{
    PanelContent reasons;
    for (const Finding &f : m_open.judgement().findings)
        if (f.stop == stop.id)
            reasons.push_back(
                PanelVerdict { f.mark, qs(capitalised(markWord(f.mark))),
                               qs(f.text) + QStringLiteral(". ") + qs(f.action) + u'.' });
    if (const GaugedSize *c = sizeOf(m_open.sizes(), stop.id); c && reasons.empty())
        reasons.push_back(PanelVerdict {
            c->mark, tr("Size"),
            qs(c->verdict)
                + (c->next.empty() ? QString() : QStringLiteral(". ") + qs(c->next) + u'.') });
    if (m_result)
        for (const Warning &w : m_result->warnings)
            reasons.push_back(PanelText { qs(w.text), Tone::Warn });
    if (!reasons.empty())
        out.push_back(PanelRule {});
    out.insert(out.end(), reasons.begin(), reasons.end());
}

void MapPage::stopFields(const Stop &stop, PanelContent &out) const
{
    bool first = true;
    const auto sameType = [&](ElementKind kind) {
        return std::count_if(stop.elements.begin(), stop.elements.end(),
                             [&](const std::string &id) {
                                 const Element *e = m_open.build().circuit.find(id);
                                 return e && e->kind == kind;
                             });
    };
    for (const std::string &id : stop.elements) {
        const Element *e = m_open.build().circuit.find(id);
        // Of many alike none is singled out, except the one at the stop's entrance.
        if (!e || (sameType(e->kind) > 1 && id != stop.elements.front())
            || stop.kind == StopKind::Jet)
            continue;
        // What a measured spring sets cannot be set here as well.
        if (stop.kind == StopKind::Relief && springSetting(stop))
            continue;
        for (const std::string_view key : handyKeys(e->kind)) {
            const FieldUnit unit = unitFor(key);
            if (first) {
                out.push_back(PanelRule {});
                out.push_back(PanelHeading { tr("What is fitted") });
                first = false;
            }
            QString label = qs(findElementKey(e->kind, key)->meaning);
            if (e->kind == ElementKind::Orifice)
                label = stop.kind == StopKind::Lifter ? tr("restrictor before the gallery")
                    : stop.kind == StopKind::Pickup   ? tr("strainer, as one hole")
                                                      : tr("hole");
            out.push_back(PanelField {
                qs(id) + u'.' + qs(key), label, unit.dimension, unit.unit, unit.decimals,
                e->value(std::string(key)) / unit.perSi,
                [open = &m_open, id, key = std::string(key), perSi = unit.perSi](double si) {
                    return open->edit(SetElementValue { id, key, si * perSi });
                } });
        }
    }
}

/// What the job asks of the stop and is not proven; what is only looked at is ticked here.
void MapPage::stopProofs(const Stop &stop, PanelContent &out) const
{
    std::optional<Stage> stage;
    for (const Check &c : m_open.judgement().checks.all()) {
        if (!c.asked || c.place.stop != stop.id || !c.isOpen())
            continue;
        if (stage != c.kind->stage) {
            stage = c.kind->stage;
            out.push_back(PanelRule {});
            if (const auto caution = aboutStage(*stage).caution; !caution.empty())
                out.push_back(PanelText { qs(caution), Tone::Warn });
        }
        // The panel is about this stop: only what belongs to it is named.
        const QString what = c.place.id == stop.id ? qs(c.kind->statement) : qs(c.statement());
        const bool looked = c.kind->by.find('G') == std::string_view::npos
            && c.kind->by.find('B') == std::string_view::npos && !c.kind->isComputed();
        if (!looked) {
            out.push_back(PanelVerdict { markOf(c), what, qs(c.reason) });
            continue;
        }
        CheckEntry entry;
        entry.kind = c.kind->id;
        entry.places = { c.place.id };
        out.push_back(PanelTick { QStringLiteral("stop.check.") + qs(c.id()), markOf(c), what,
                                  qs(c.reason), false, [open = &m_open, entry](bool) {
                                      const auto done = open->record(entry);
                                      saidIfRefused(done ? Result<void> {}
                                                         : tl::unexpected(done.error()));
                                  } });
    }
}

/// A bearing's own film, where it is one bearing.
void MapPage::stopFilm(const Stop &stop, PanelContent &out) const
{
    if (!m_result)
        return;
    const BearingFilm *film = nullptr;
    for (const BearingFilm &f : m_result->films)
        if (f.stop == stop.id && (!film || f.smallest_m < film->smallest_m))
            film = &f;
    if (!film)
        return;
    out.push_back(PanelRule {});
    if (stop.kind == StopKind::Main) {
        QStringList rods;
        for (const std::string &rod : rodsFedBy(m_open.build(), stop))
            rods << qs(rod);
        out.push_back(PanelText { rods.isEmpty() ? tr("Feeds no rod.")
                                                 : tr("Feeds %1.").arg(rods.join(tr(" and "))),
                                  Tone::Muted });
    }
    const bool many = stop.points.size() > 1;
    out.push_back(
        PanelRow { many ? tr("Smallest film, %1").arg(qs(film->name)) : tr("Smallest film"),
                   Figure::clearance(film->smallest_m * 1e6, 0.3),
                   tr("an indicator under a mean load of %1 N, not an orbit")
                       .arg(qs(formatNumber(film->load_n, 0))) });
    out.push_back(PanelRow { tr("Film runs at"), Figure::temperature(film->film_c),
                             tr("effective, from its loss and its own oil") });
    out.push_back(PanelRow {
        tr("Costs"),
        { qs(formatNumber(film->loss_w, film->loss_w < 10 ? 1 : 0)), QStringLiteral("W"), {} },
        tr("friction in the film") });
    if (film->loaded) {
        out.push_back(PanelRow { tr("Film at full load"),
                                 Figure::clearance(film->loaded->smallest_m * 1e6, 0.3),
                                 tr("mean load %1 N, by the full-load peak set on the forecast")
                                     .arg(qs(formatNumber(film->loaded->load_n, 0))) });
        out.push_back(PanelRow { tr("and runs at"), Figure::temperature(film->loaded->film_c),
                                 tr("effective, with its loss at full load") });
    }
    if (!film->carried || (film->loaded && !film->loaded->carried))
        out.push_back(PanelText { film->carried ? tr("At full load more than a film can bear.")
                                                : tr("More load than a film can bear."),
                                  Tone::Bad });
}

/// The law by which oil leaves here, with this stop's numbers.
void MapPage::stopWorking(const Stop &stop, PanelContent &out) const
{
    const GaugedSize *c = sizeOf(m_open.sizes(), stop.id);
    const Element *e = c ? m_open.build().circuit.find(c->element) : nullptr;
    if (!e || !m_result || e->kind != ElementKind::FilmBearing)
        return;
    const BearingFilm *film = nullptr;
    for (const BearingFilm &f : m_result->films)
        if (f.element == e->id)
            film = &f;
    if (!film)
        return;
    const bool full = e->value("groove_deg") >= 360;
    const Calculator *calculator
        = findCalculator(e->value("groove_deg") > 0 ? "groove-flow" : "hole-flow");
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("Working") });
    out.push_back(PanelText { qs(calculator->formula), Tone::Muted });
    out.push_back(PanelText { tr("2 c %1, d %2, L %3, ε %4 under %5, film %6")
                                  .arg(Figure::clearance(c->runningAt(m_oil->value())).text(),
                                       inWords(asLength(e->value("d_mm"))),
                                       inWords(asLength(e->value("width_mm"))),
                                       inWords(asNumber(film->eccentricityRatio, 2)),
                                       inWords(Quantity { film->load_n, Shows::Force }),
                                       Figure::temperature(film->film_c).text()) });
    out.push_back(
        PanelText { tr("Q = %1 at %2")
                        .arg(inWords(asFlow(m_result->elementFlow_m3_s.at(e->id), 3)),
                             inWords(asPressure(m_result->nodePressure_pa.at(e->from)))) });
    out.push_back(PanelText { full ? tr("A full groove nets what the film squeezes out: nothing is "
                                        "added for rotation.")
                                   : tr("Joined with the film's side flow; ± 30 %."),
                              Tone::Muted });
    out.push_back(PanelText { tr("Source: %1").arg(qs(calculator->source)), Tone::Muted });
}

} // namespace mildpath
