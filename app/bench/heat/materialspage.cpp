// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/heat/materialspage.h"

#include "assess/growth.h"
#include "assess/sizes.h"
#include "bearing/thermal.h"
#include "entry/arrowcombo.h"
#include "entry/quantityfield.h"
#include "paint/text.h"
#include "quantity/rounding.h"
#include "shell/stopfields.h"

#include <QAbstractItemView>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include <cmath>

namespace mildpath {
namespace {

/// Millionths per kelvin, as people say it.
constexpr double perMillion = 1e-6;

QLabel *heading(const QString &text, QWidget *parent)
{
    auto *label = new QLabel(text, parent);
    label->setFont(textFont(TextSize::Body, true));
    return label;
}

} // namespace

MaterialsPage::MaterialsPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_reason(new QLabel(this))
{
    setObjectName(QStringLiteral("materialsPage"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(18, 14, 18, 12);
    m_grid = new QGridLayout;
    m_grid->setHorizontalSpacing(14);
    m_grid->setVerticalSpacing(7);
    column->addLayout(m_grid);
    m_reason->setWordWrap(true);
    column->addWidget(m_reason);
    column->addStretch();
    int row = 0;
    addParts(row);
    m_grid->setRowMinimumHeight(row++, 10);
    addMaterials(row);
    m_grid->setColumnStretch(4, 1);
}

void MaterialsPage::addParts(int &row)
{
    m_grid->addWidget(heading(tr("What the parts are made of"), this), row++, 0, 1, 5);
    const std::pair<const char *, QString> parts[] = {
        { "block", tr("block") },
        { "main_cap", tr("main caps, girdle or ladder frame") },
        { "crank", tr("crank") },
        { "rod", tr("rods") },
    };
    for (const auto &[part, name] : parts) {
        auto *label = new QLabel(name, this);
        m_grid->addWidget(label, row, 0);
        auto *combo = new ArrowCombo(this);
        combo->setObjectName(QStringLiteral("material.") + QLatin1String(part));
        combo->setAccessibleName(tr("material of %1").arg(name));
        label->setBuddy(combo);
        const bool cap = std::string_view(part) == "main_cap";
        if (cap)
            combo->addItem(tr("as the block"), QString());
        for (const Material &m : materialTable())
            combo->addItem(qs(m.name), qs(m.id));
        combo->view()->setMinimumWidth(240);
        m_grid->addWidget(combo, row, 1, 1, 2);
        connect(combo, &QComboBox::activated, this, [this, combo, part = std::string(part)] {
            m_open.edit(SetMaterial { part, combo->currentData().toString().toStdString(), {} });
        });
        m_parts.push_back({ part, combo });
        if (cap) {
            m_fraction = new QuantityField(Dimension::Number, "%", this);
            m_fraction->setObjectName(QStringLiteral("material.fraction"));
            m_fraction->setAccessibleName(tr("share of the caps in the bore's growth"));
            m_fraction->setToolTip(tr("Half and half: 50. A short cap follows the block, less; a "
                                      "full girdle on long dowels comes near 50"));
            m_fraction->setFixedWidth(64);
            m_fraction->setDecimals(0);
            m_grid->addWidget(m_fraction, row, 3);
            auto *words = new QLabel(tr("% of the bore's growth"), this);
            setTone(words, Theme::current().muted);
            m_grid->addWidget(words, row, 4);
            connect(m_fraction, &QuantityField::entered, this, [this](double share) {
                const auto done = m_open.edit(SetMaterial {
                    "main_cap", m_open.build().engine.mainCap, std::round(share * 1e4) / 1e4 });
                m_reason->setText(done ? QString() : qs(done.error().message));
            });
        }
        ++row;
    }
}

void MaterialsPage::addMaterials(int &row)
{
    m_grid->addWidget(heading(tr("How the metals expand between room and working heat"), this),
                      row++, 0, 1, 5);
    const QString heads[] = { tr("metal"), tr("handbook, ×10⁻⁶/K"), tr("range met"),
                              tr("in use, ×10⁻⁶/K"), tr("where that comes from") };
    for (int c = 0; c < 5; ++c) {
        auto *label = new QLabel(heads[c], this);
        label->setFont(textFont(TextSize::Small));
        setTone(label, Theme::current().muted);
        m_grid->addWidget(label, row, c);
    }
    ++row;
    const auto n = [](double v) { return qs(formatNumber(v / perMillion, 1)); };
    for (const Material &m : materialTable()) {
        auto *range = new QLabel(tr("%1 to %2").arg(n(m.low_per_k), n(m.high_per_k)), this);
        m_grid->addWidget(range, row, 2);
        addRow(std::string(m.id), qs(m.name), n(m.expansion_per_k), row++);
    }
    addRow(std::string(mainHousing), tr("main housings, as gauged hot"), QString(), row++);
}

void MaterialsPage::addRow(const std::string &id, const QString &name, const QString &handbook,
                           int row)
{
    Row r;
    r.id = id;
    r.used = new QLabel(name, this);
    m_grid->addWidget(r.used, row, 0);
    m_grid->addWidget(new QLabel(handbook, this), row, 1);
    r.field = new QuantityField(Dimension::Number, "", this);
    r.field->setObjectName(QStringLiteral("expansion.") + qs(id));
    r.field->setAccessibleName(tr("expansion in use, %1").arg(name));
    r.field->setFixedWidth(64);
    r.field->setDecimals(1);
    r.field->setNudge(0.1);
    m_grid->addWidget(r.field, row, 3);
    auto *tail = new QHBoxLayout;
    r.source = new QLabel(this);
    tail->addWidget(r.source);
    r.back = new QPushButton(tr("Handbook"), this);
    r.back->setObjectName(QStringLiteral("handbook.") + qs(id));
    r.back->setToolTip(tr("Back to the handbook's value"));
    tail->addWidget(r.back);
    tail->addStretch();
    m_grid->addLayout(tail, row, 4);
    connect(r.field, &QuantityField::entered, this, [this, id](double value) {
        OwnExpansion own;
        own.per_k = std::round(value * 1000) / 1000 * perMillion;
        own.source = "own value";
        own.by = m_open.worker();
        own.at = OpenBuild::now();
        const auto done = m_open.edit(SetExpansion { id, own });
        m_reason->setText(done ? QString() : qs(done.error().message));
        setTone(m_reason, Theme::current().hold);
        if (!done)
            refresh();
    });
    connect(r.field, &QuantityField::refused, this, [this](const QString &why) {
        m_reason->setText(why);
        setTone(m_reason, Theme::current().hold);
    });
    connect(r.back, &QPushButton::clicked, this, [this, id] {
        m_open.edit(SetExpansion { id, std::nullopt });
    });
    m_rows.push_back(r);
}

QString MaterialsPage::usedBy(const std::string &material) const
{
    const Engine &e = m_open.build().engine;
    QStringList out;
    const std::pair<const std::string *, QString> parts[] = { { &e.block, tr("block") },
                                                              { &e.mainCap, tr("caps") },
                                                              { &e.crank, tr("crank") },
                                                              { &e.rod, tr("rods") } };
    for (const auto &[id, name] : parts)
        if (*id == material)
            out << name;
    return out.join(QStringLiteral(", "));
}

void MaterialsPage::refresh()
{
    const Build &build = m_open.build();
    const Theme &t = Theme::current();
    const Engine &e = build.engine;
    for (const auto &[part, combo] : m_parts) {
        const std::string &id = part == "block" ? e.block
            : part == "crank"                   ? e.crank
            : part == "rod"                     ? e.rod
                                                : e.mainCap;
        combo->setCurrentIndex(combo->findData(qs(id)));
    }
    m_fraction->setEnabled(!e.mainCap.empty());
    if (!m_fraction->hasFocus())
        m_fraction->setValue(e.mainCap.empty() ? std::nullopt : std::optional(e.mainCapFraction));
    for (const Row &r : m_rows) {
        const auto expansion = expansionOf(build, r.id);
        const bool own = expansion && expansion->own;
        if (!r.field->hasFocus() || !r.field->isModified())
            r.field->setValue(expansion ? std::optional(expansion->per_k / perMillion)
                                        : std::nullopt);
        const QString used = r.id == mainHousing ? QString() : usedBy(r.id);
        const QString source = expansion ? qs(expansion->source) : tr("not gauged");
        r.source->setText(used.isEmpty() ? source : tr("%1 · %2").arg(source, used));
        setTone(r.source, own ? t.selection : t.muted);
        r.back->setVisible(own);
        setTone(r.used, used.isEmpty() && !own ? t.muted : t.ink);
    }
    update();
}

void MaterialsPage::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    drawCard(p, QRectF(rect()).adjusted(1, 1, -1, -1));
}

PanelContent MaterialsPage::panel()
{
    PanelContent out;
    const Build &build = m_open.build();
    out.push_back(PanelTitle { tr("Settled and hot"), {} });
    out.push_back(heatField(m_open, "housing_below_oil_k", tr("housing below oil")));
    out.push_back(heatField(m_open, "cap_below_oil_k", tr("caps below oil")));
    out.push_back(heatField(m_open, "journal_below_oil_k", tr("journal below oil")));
    out.push_back(PanelRule {});
    const PartTemperatures hot = settledTemperatures(build, build.use.hotOil_c);
    for (const char *family : { "main", "big_end", "end_float" })
        for (const GaugedSize &s : m_open.sizes()) {
            if (s.family != family)
                continue;
            out.push_back(PanelHeading {
                tr("%1, hot").arg(s.family == "end_float" ? tr("End float") : qs(s.name)) });
            out.push_back(PanelRow {
                tr("housing"),
                Figure::clearance(s.growth.housing_um_per_k * (s.growth.housing_c(hot) - 20)
                                  + s.growth.cap_um_per_k * (hot.cap_c - 20)),
                {} });
            out.push_back(
                PanelRow { tr("journal"),
                           Figure::clearance(s.growth.journal_um_per_k * (hot.journal_c - 20)),
                           {} });
            out.push_back(PanelRow { tr("runs at"), Figure::clearance(s.running_um, 1), {} });
            if (const double loss = s.growth.shell_um_per_k * (hot.block_c - 20);
                std::string_view(family) == "main" && std::abs(loss) > 1)
                out.push_back(PanelRow { tr("shell loses of its press fit"),
                                         Figure::clearance(loss, 1),
                                         tr("diametral; compare it with the crush") });
            break;
        }
    out.push_back(
        PanelText { tr("Handbook values from memory; the range met counts as limits in the likely "
                       "band. A value of your own counts as certain unless a heated-block test "
                       "says how well it is known."),
                    Tone::Muted });
    return out;
}

QString metalsText(const Build &build)
{
    const Engine &e = build.engine;
    const auto name = [](const std::string &id) {
        const Material *m = findMaterial(id);
        return m ? qs(m->name) : qs(id);
    };
    return e.mainCap.empty()
        ? MaterialsPage::tr("%1 block, %2 crank").arg(name(e.block), name(e.crank))
        : MaterialsPage::tr("%1 caps on a %2 block: both share the bore")
              .arg(name(e.mainCap), name(e.block));
}

} // namespace mildpath
