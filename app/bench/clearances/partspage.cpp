// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/clearances/partspage.h"

#include "assess/rules.h"
#include "entry/quantityfield.h"
#include "entry/tickcheck.h"
#include "paint/marks.h"
#include "paint/text.h"
#include "study/weights.h"

#include <QCheckBox>
#include <QGridLayout>
#include <QLabel>
#include <QScrollArea>
#include <QVBoxLayout>

#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr std::array kinds { StopKind::Main, StopKind::BigEnd };

/// What the record's own description says of its numbers.
template <class Record> Result<void> inRange(const Record &record)
{
    std::vector<Error> errors;
    checkRanges(recordType<Record>(), &record, "", errors);
    if (errors.empty())
        return {};
    return tl::unexpected(errors.front());
}

} // namespace

PartsPage::PartsPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_page(new QWidget)
{
    setObjectName(QStringLiteral("partsPage"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(2, 8, 2, 8);
    auto *scroll = new QScrollArea(this);
    scroll->setWidgetResizable(true);
    scroll->setWidget(m_page);
    column->addWidget(scroll);
    m_page->setAutoFillBackground(false);
    scroll->viewport()->setAutoFillBackground(false);
    m_grid = new QGridLayout(m_page);
    m_grid->setContentsMargins(16, 8, 16, 8);
    m_grid->setHorizontalSpacing(10);
    m_grid->setVerticalSpacing(7);
}

void PartsPage::addChecks(StopKind kind, int &row)
{
    std::vector<const Stop *> stops;
    for (const Stop &s : m_open.build().engine.stops)
        if (s.kind == kind)
            stops.push_back(&s);
    auto *title = new QLabel(qs(aboutStopKind(kind).plural), m_page);
    title->setFont(textFont(TextSize::Body, true));
    m_grid->addWidget(title, row, 0);
    for (size_t i = 0; i < stops.size(); ++i) {
        auto *name = new QLabel(QString::number(i + 1), m_page);
        name->setAlignment(Qt::AlignCenter);
        name->setToolTip(qs(stops[i]->name));
        m_grid->addWidget(name, row, static_cast<int>(i) + 1);
    }
    ++row;
    for (const TickKind &c : tickKinds()) {
        if (c.stopKind != kind)
            continue;
        auto *text = new QLabel(qs(c.text), m_page);
        text->setToolTip(qs(c.reason));
        text->setWordWrap(true);
        m_grid->addWidget(text, row, 0);
        for (size_t i = 0; i < stops.size(); ++i) {
            auto *box = new QCheckBox(m_page);
            box->setObjectName(QStringLiteral("check.") + qs(stops[i]->id) + u'.' + qs(c.id));
            box->setAccessibleName(qs(stops[i]->name) + QStringLiteral(": ") + qs(c.text));
            box->setToolTip(qs(stops[i]->name) + QStringLiteral(": ") + qs(c.reason));
            m_grid->addWidget(box, row, static_cast<int>(i) + 1, Qt::AlignCenter);
            connect(box, &QCheckBox::clicked, this,
                    [this, stop = stops[i]->id, &c](bool on) { tickCheck(m_open, stop, c, on); });
            m_ticks.push_back({ box, stops[i]->id, std::string(c.id) });
        }
        ++row;
    }
    m_grid->setRowMinimumHeight(row++, 6);
}

void PartsPage::addWeights(int &row)
{
    auto *title = new QLabel(tr("Weights, g"), m_page);
    title->setFont(textFont(TextSize::Body, true));
    m_grid->addWidget(title, row++, 0);
    const auto weights = judgeWeights(m_open.build());
    if (weights.empty())
        m_grid->addWidget(
            new QLabel(tr("Nothing is weighed yet: say in the panel what is, and how alike."),
                       m_page),
            row++, 0, 1, 8);
    for (const WeightSpread &w : weights) {
        const std::string &part = w.part;
        m_grid->addWidget(new QLabel(qs(w.name), m_page), row, 0);
        const int count = m_open.build().engine.cylinders;
        for (int item = 1; item <= count; ++item) {
            auto *field = new QuantityField(Dimension::Number, "", m_page);
            field->setObjectName(QStringLiteral("weight.%1.%2").arg(qs(part)).arg(item));
            field->setAccessibleName(tr("%1 %2, grams").arg(qs(w.name)).arg(item));
            field->setFixedWidth(62);
            field->setCheck([](double g) -> Result<void> {
                Weighing weighed;
                weighed.grams = g;
                return inRange(weighed);
            });
            connect(field, &QuantityField::entered, this,
                    [this, part = part, item](double g, bool on) {
                        Weighing weighed;
                        weighed.part = part;
                        weighed.item = item;
                        weighed.grams = std::round(g * 100) / 100;
                        weighed.by = m_open.worker();
                        weighed.at = OpenBuild::now();
                        m_open.edit(WeighPart { weighed });
                        if (on)
                            focusNextChild();
                    });
            m_grid->addWidget(field, row, item);
            m_weights.push_back({ field, part, item });
        }
        ++row;
        auto *spread = new QLabel(m_page);
        spread->setObjectName(QStringLiteral("spread.") + qs(part));
        m_grid->addWidget(spread, row++, 1, 1, 8);
        m_spreads.push_back({ part, spread });
    }
}

void PartsPage::rebuild()
{
    std::string shape;
    for (const Stop &s : m_open.build().engine.stops)
        shape += s.id + ";";
    for (const WeightSpread &w : judgeWeights(m_open.build()))
        shape += w.part + ";";
    if (shape == m_shape)
        return;
    m_shape = shape;
    while (QLayoutItem *item = m_grid->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    m_ticks.clear();
    m_weights.clear();
    m_spreads.clear();
    int row = 0;
    for (const StopKind kind : kinds)
        addChecks(kind, row);
    addWeights(row);
    m_grid->setColumnStretch(0, 1);
    for (int column = 1; column < m_grid->columnCount(); ++column)
        m_grid->setColumnMinimumWidth(column, 62);
    m_grid->setRowStretch(row, 1);
}

void PartsPage::reset()
{
    m_part.clear();
    m_about = {};
}

void PartsPage::refresh()
{
    rebuild();
    for (const Tick &t : m_ticks) {
        const Proof *p = standingCheck(m_open.build(), t.stop, t.check);
        t.box->setChecked(p && p->verdict == "proven");
    }
    const auto weights = judgeWeights(m_open.build());
    for (const Weight &w : m_weights)
        for (const WeightSpread &s : weights)
            if (s.part == w.part && !w.field->hasFocus()) {
                w.field->setValue(s.grams.contains(w.item) ? std::optional(s.grams.at(w.item))
                                                           : std::nullopt);
                w.field->setToolTip(s.addedUp.contains(w.item)
                                        ? tr("its pieces added up; not weighed as a whole")
                                        : QString());
            }
    for (const auto &[part, label] : m_spreads)
        for (const WeightSpread &s : weights)
            if (s.part == part) {
                label->setText(
                    qs(s.verdict) + QStringLiteral(": ") + qs(markWord(s.mark))
                    + (s.source.empty() ? QString() : QStringLiteral(" (") + qs(s.source) + u')'));
                setTone(label, Theme::current().mark(s.mark));
            }
    update();
}

void PartsPage::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    drawCard(p, QRectF(rect()).adjusted(1, 1, -1, -1));
}

PanelContent PartsPage::panel()
{
    PanelContent out;
    weightsPanel(out);
    out.push_back(PanelRule {});
    out.push_back(PanelTitle { tr("Why it is ticked"), {} });
    for (const TickKind &c : tickKinds())
        if (c.stopKind == kinds[1]) {
            out.push_back(PanelHeading { qs(c.text) });
            out.push_back(PanelText { qs(c.reason), Tone::Muted });
        }
    return out;
}

/// Which part, how alike it has to be, and who says so.
void PartsPage::weightsPanel(PanelContent &out)
{
    const Build &build = m_open.build();
    out.push_back(PanelTitle { tr("What is weighed"), {} });
    PanelChoice part { QStringLiteral("weights.part"), tr("Part"), {}, -1, {} };
    std::vector<std::string> ids;
    for (const WeightPart &p : weightParts())
        ids.emplace_back(p.id);
    for (const WeightSpread &w : judgeWeights(build))
        if (std::ranges::find(ids, w.part) == ids.end())
            ids.push_back(w.part);
    for (const std::string &id : ids) {
        if (id == m_part)
            part.current = static_cast<int>(part.options.size());
        part.options << qs(weighedPartName(id));
    }
    part.chosen = [this, ids](int index) -> Result<void> {
        choosePart(ids[static_cast<size_t>(index)]);
        return {};
    };
    out.push_back(std::move(part));
    out.push_back(PanelWord { QStringLiteral("weights.name"), tr("or in own words"),
                              std::ranges::find(ids, m_part) == ids.end() ? qs(m_part) : QString(),
                              [this](const QString &text) -> Result<void> {
                                  if (!text.trimmed().isEmpty())
                                      choosePart(text.trimmed().toStdString());
                                  return {};
                              } });
    out.push_back(PanelField { QStringLiteral("weights.tolerance"), tr("Within, g"),
                               Dimension::Number, "", 1, m_about.tolerance_g,
                               [this](double g) -> Result<void> {
                                   WeighedPart next = m_about;
                                   next.tolerance_g = g;
                                   const auto ok = inRange(next);
                                   if (ok)
                                       m_about = next;
                                   return ok;
                               },
                               tr("the heaviest less the lightest") });
    out.push_back(PanelWord { QStringLiteral("weights.source"), tr("Who says so"),
                              qs(m_about.source), [this](const QString &text) -> Result<void> {
                                  m_about.source = text.trimmed().toStdString();
                                  return {};
                              } });
    const bool there = build.weighedParts.contains(m_part);
    out.push_back(PanelButton { QStringLiteral("weights.keep"),
                                there ? tr("Keep what is changed") : tr("Weigh it"),
                                [this] { keepPart(m_about); } });
    if (there)
        out.push_back(PanelButton { QStringLiteral("weights.drop"), tr("It is not weighed"),
                                    [this] { keepPart(std::nullopt); } });
    out.push_back(
        PanelText { tr("Rods and pistons of one weight keep the load on the bearings even. "
                       "What is out is lightened, or changed, by a qualified shop."),
                    Tone::Muted });
}

void PartsPage::choosePart(const std::string &part)
{
    m_part = part;
    const auto &parts = m_open.build().weighedParts;
    const auto at = parts.find(part);
    m_about = at == parts.end() ? WeighedPart {} : at->second;
    if (at == parts.end())
        for (const WeightPart &p : weightParts())
            if (p.id == part)
                m_about.pieces.assign(p.pieces.begin(), p.pieces.end());
    Q_EMIT changed();
}

void PartsPage::keepPart(std::optional<WeighedPart> about)
{
    if (const auto done = m_open.edit(SetWeighedPart { m_part, std::move(about) }); !done) {
        Q_EMIT complained(qs(done.error()));
        return;
    }
    choosePart(m_part);
}

} // namespace mildpath
