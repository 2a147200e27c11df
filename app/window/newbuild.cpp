// SPDX-License-Identifier: GPL-3.0-or-later
#include "window/newbuild.h"

#include "assess/operating.h"
#include "bearing/thermal.h"
#include "document/dimensions.h"
#include "entry/arrowcombo.h"
#include "entry/quantityfield.h"
#include "oil/grades.h"
#include "open/vectorstate.h"
#include "paint/figure.h"

#include <QCheckBox>
#include <QDialogButtonBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QScreen>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {

NewBuildDialog::NewBuildDialog(QWidget *parent)
    : QDialog(parent)
    , m_says(new QLabel(this))
    , m_buttons(new QDialogButtonBox(QDialogButtonBox::Cancel, this))
{
    setObjectName(QStringLiteral("newBuild"));
    setWindowTitle(tr("New build"));
    auto *column = new QVBoxLayout(this);
    // On a small screen the choices scroll, what they make and the buttons stay.
    auto *choices = new QWidget(this);
    auto *row = new QHBoxLayout(choices);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(28);
    auto *scroll = new QScrollArea(this);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidgetResizable(true);
    scroll->setSizeAdjustPolicy(QAbstractScrollArea::AdjustToContents);
    auto *left = new QFormLayout, *right = new QFormLayout, *more = new QFormLayout;
    for (QFormLayout *form : { left, right, more }) {
        form->setLabelAlignment(Qt::AlignLeft);
        row->addLayout(form);
    }
    scroll->setWidget(choices);
    column->addWidget(scroll, 1);
    QList<QPair<QString, QString>> layoutNames, materials,
        caps { { QString(), tr("as the block") } }, oils;
    for (const LayoutChoice &l : layoutChoices())
        layoutNames << qMakePair(qs(l.layout), qs(l.name));
    for (const Material &m : materialTable())
        if (m.forBlocks)
            materials << qMakePair(qs(m.id), qs(m.name));
    for (const Material &m : materialTable()) // steel caps are common
        caps << qMakePair(qs(m.id), qs(m.name));
    for (const ShelfOil &o : oilShelf())
        if (!o.gearOil)
            oils << qMakePair(qs(o.grade), qs(o.grade));
    m_layout = choice(left, QStringLiteral("layout"), tr("layout"), layoutNames);
    m_cylinders = choice(left, QStringLiteral("cylinders"), tr("cylinders"), {});
    m_mains = choice(left, QStringLiteral("mains"), tr("main bearings"), {});
    const auto field
        = [&](const QString &name, const QString &label, Dimension d, const char *unit, double si) {
              auto *f = new QuantityField(d, unit, this);
              f->setObjectName(name);
              f->setDecimals(d == Dimension::Length ? 1 : 0);
              f->setValue(si);
              f->setFixedWidth(84);
              auto *words = new QLabel(this);
              nameWithUnit(words, label, f);
              left->addRow(words, f);
              connect(f, &QuantityField::entered, this, [this, f](double v) {
                  f->setValue(v);
                  work();
              });
              return f;
          };
    m_bore = field(QStringLiteral("bore"), tr("bore"), Dimension::Length, "mm", 91e-3);
    m_stroke = field(QStringLiteral("stroke"), tr("stroke"), Dimension::Length, "mm", 91e-3);
    m_idle = field(QStringLiteral("idle"), tr("hot idle"), Dimension::Speed, "rev/min",
                   fromUnit(800, "rev/min", Dimension::Speed));
    m_most = field(QStringLiteral("most"), tr("highest speed"), Dimension::Speed, "rev/min",
                   fromUnit(6000, "rev/min", Dimension::Speed));
    m_block = choice(left, QStringLiteral("block"), tr("block"), materials);
    m_caps = choice(left, QStringLiteral("caps"), tr("main caps"), caps);
    m_oil = choice(left, QStringLiteral("oil"), tr("oil"), oils);
    m_oil->setCurrentIndex(m_oil->findData(QStringLiteral("15W-40")));
    m_gear = choice(right, QStringLiteral("gear"), tr("valves"),
                    { { QStringLiteral("pushrods"), tr("pushrods, cam in the block") },
                      { QStringLiteral("one_cam"), tr("one cam a bank, overhead") },
                      { QStringLiteral("two_cams"), tr("two cams a bank, overhead") } });
    m_order = choice(
        right, QStringLiteral("order"), tr("oil goes first to"),
        { { QStringLiteral("mains_first"), tr("the mains") },
          { QStringLiteral("lifters_first"), tr("the lifters") },
          { QStringLiteral("lifters_series"), tr("the mains, behind a lifter gallery") } });
    m_overhead = choice(right, QStringLiteral("overhead"), tr("rockers get it through"),
                        { { QStringLiteral("camshaft"), tr("the camshaft") },
                          { QStringLiteral("pushrods"), tr("the pushrods") },
                          { QStringLiteral("head"), tr("the head") } });
    m_pump = choice(right, QStringLiteral("pump"), tr("pump"),
                    { { QStringLiteral("gerotor"), tr("gerotor") },
                      { QStringLiteral("gear"), tr("external gears") },
                      { QStringLiteral("vane"), tr("vanes") } });
    m_relief = choice(right, QStringLiteral("relief"), tr("relief valve returns to"),
                      { { QStringLiteral("inlet"), tr("the pump's inlet") },
                        { QStringLiteral("sump"), tr("the sump") } });
    m_turboFeed = choice(right, QStringLiteral("turboFeed"), tr("turbocharger fed from"),
                         { { QString(), tr("no turbocharger") },
                           { QStringLiteral("gallery"), tr("the main gallery") },
                           { QStringLiteral("filter"), tr("the filter head") } });
    m_phaserFeed = choice(right, QStringLiteral("phaserFeed"), tr("cam phasers fed from"),
                          { { QString(), tr("no phasers") },
                            { QStringLiteral("cam"), tr("the camshaft's end") },
                            { QStringLiteral("own"), tr("their own drilling and screen") } });
    m_idlers = choice(right, QStringLiteral("idlers"), tr("idler shafts"), {});
    for (int n = 0; n <= 6; ++n)
        m_idlers->addItem(n == 0 ? tr("none") : QString::number(n), n);
    m_returns = choice(right, QStringLiteral("returns"), tr("returns into the tank"),
                       { { QStringLiteral("1"), tr("one") }, { QStringLiteral("2"), tr("two") } });
    m_solid = tick(more, QStringLiteral("solid"), tr("solid lifters"));
    m_hollow = tick(more, QStringLiteral("hollow"), tr("hollow camshafts"));
    m_dry = tick(more, QStringLiteral("dry"), tr("dry sump, tank and scavenge stages"));
    m_oldPort = tick(more, QStringLiteral("oldPort"), tr("the block keeps its old pump's port"));
    m_remote = tick(more, QStringLiteral("remote"), tr("remote filter"));
    m_cooler = tick(more, QStringLiteral("cooler"), tr("oil cooler with thermostat"));
    m_jets = tick(more, QStringLiteral("jets"), tr("piston cooling jets"));
    m_squirt = tick(more, QStringLiteral("squirt"), tr("squirt holes in the rods"));
    m_tensioner = tick(more, QStringLiteral("tensioner"), tr("chain tensioner"));
    m_tensioner->setChecked(true);
    m_chainJet = tick(more, QStringLiteral("chainJet"), tr("open jet at the chain or drive"));
    m_bushes = tick(more, QStringLiteral("bushes"), tr("grooves round the cam bushes"));
    m_balance = tick(more, QStringLiteral("balance"), tr("balance shaft"));
    m_says->setWordWrap(true);
    m_says->setObjectName(QStringLiteral("newBuildSays"));
    m_says->setMinimumHeight(54);
    column->addWidget(m_says);
    m_buttons->addButton(tr("Make it"), QDialogButtonBox::AcceptRole)
        ->setObjectName(QStringLiteral("makeBuild"));
    column->addWidget(m_buttons);
    connect(m_buttons, &QDialogButtonBox::accepted, this, &QDialog::accept);
    connect(m_buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    m_layout->setCurrentIndex(m_layout->findData(QStringLiteral("inline")));
    connect(m_layout, &QComboBox::currentIndexChanged, this, &NewBuildDialog::layoutChanged);
    connect(m_cylinders, &QComboBox::currentIndexChanged, this, &NewBuildDialog::offerMains);
    layoutChanged();
    m_cylinders->setCurrentIndex(std::max(0, m_cylinders->findData(QStringLiteral("4"))));
    // A scrolled area asks for little room by itself: all choices are seen where the screen has it.
    resize((sizeHint() - scroll->sizeHint() + choices->sizeHint() + QSize(12, 12))
               .boundedTo(screen()->availableSize() - QSize(40, 60)));
}

QComboBox *NewBuildDialog::choice(QFormLayout *form, const QString &name, const QString &label,
                                  const QList<QPair<QString, QString>> &options)
{
    auto *combo = new ArrowCombo(this);
    combo->setObjectName(name);
    combo->setMinimumWidth(205);
    for (const auto &[id, text] : options)
        combo->addItem(text, id);
    form->addRow(label, combo);
    connect(combo, &QComboBox::currentIndexChanged, this, &NewBuildDialog::work);
    return combo;
}

QCheckBox *NewBuildDialog::tick(QFormLayout *form, const QString &name, const QString &label)
{
    auto *box = new QCheckBox(label, this);
    box->setObjectName(name);
    form->addRow(box);
    connect(box, &QCheckBox::toggled, this, &NewBuildDialog::work);
    return box;
}

void NewBuildDialog::layoutChanged()
{
    const std::string layout = m_layout->currentData().toString().toStdString();
    {
        const QSignalBlocker block(m_cylinders);
        m_cylinders->clear();
        for (const LayoutChoice &l : layoutChoices())
            if (l.layout == layout)
                for (const int n : l.cylinders)
                    m_cylinders->addItem(QString::number(n), QString::number(n));
    }
    offerMains();
}

void NewBuildDialog::offerMains()
{
    EnginePlan p;
    p.layout = m_layout->currentData().toString().toStdString();
    p.cylinders = m_cylinders->currentData().toInt();
    {
        const QSignalBlocker block(m_mains);
        const QVariant before = m_mains->currentData();
        m_mains->clear();
        m_mains->addItem(tr("%1, as usual").arg(p.mainCount()), 0);
        for (int n = leastMains(p); n <= mostMains(p); ++n)
            m_mains->addItem(QString::number(n), n);
        m_mains->setCurrentIndex(std::max(0, m_mains->findData(before)));
    }
    work();
}

EnginePlan NewBuildDialog::plan() const
{
    const auto chosen
        = [](const QComboBox *c) { return c->currentData().toString().toStdString(); };
    const auto rpm = [](const QuantityField *f) {
        return toUnit(f->value().value_or(0), "rev/min", Dimension::Speed);
    };
    EnginePlan p;
    p.layout = chosen(m_layout);
    p.cylinders = m_cylinders->currentData().toInt();
    p.mains = m_mains->currentData().toInt();
    p.pump = chosen(m_pump);
    p.bore_mm = m_bore->value().value_or(0) * 1e3;
    p.stroke_mm = m_stroke->value().value_or(0) * 1e3;
    p.hotIdle_rpm = rpm(m_idle);
    p.most_rpm = rpm(m_most);
    p.block = chosen(m_block);
    p.mainCap = chosen(m_caps);
    p.oil = chosen(m_oil);
    p.valveGear = chosen(m_gear);
    p.order = chosen(m_order);
    p.overhead = chosen(m_overhead);
    p.solidLifters = m_solid->isChecked();
    p.drySump = m_dry->isChecked();
    p.remoteFilter = m_remote->isChecked();
    p.cooler = m_cooler->isChecked();
    p.jets = m_jets->isChecked();
    p.tensioner = m_tensioner->isChecked();
    p.chainJet = m_chainJet->isChecked();
    p.bushGrooves = m_bushes->isChecked();
    p.squirtHoles = m_squirt->isChecked();
    p.hollowCams = m_hollow->isChecked() && m_hollow->isEnabled();
    p.phasers = !chosen(m_phaserFeed).empty();
    if (p.phasers)
        p.phaserFeed = chosen(m_phaserFeed);
    p.turbo = !chosen(m_turboFeed).empty();
    if (p.turbo)
        p.turboFeed = chosen(m_turboFeed);
    p.reliefTo = chosen(m_relief);
    p.balanceShafts = m_balance->isChecked();
    p.idlers = m_idlers->currentData().toInt();
    p.tankReturns = m_returns->currentData().toInt();
    p.oldPumpPort = m_oldPort->isChecked() && m_oldPort->isEnabled();
    return p;
}

/// What a member of the plan is called.
static QString labelOf(const std::string &key)
{
    const Field *field = recordType<EnginePlan>().find(key);
    return field ? qs(field->meaning) : qs(key);
}

/// Makes it for show: what it would be, or why it cannot be.
void NewBuildDialog::work()
{
    if (!m_balance) // still being made
        return;
    const bool pushrods = m_gear->currentData().toString() == QStringLiteral("pushrods");
    m_order->setEnabled(pushrods);
    m_overhead->setEnabled(pushrods);
    m_phaserFeed->setEnabled(!pushrods);
    m_hollow->setEnabled(!pushrods);
    m_returns->setEnabled(m_dry->isChecked());
    m_oldPort->setEnabled(m_dry->isChecked());
    const auto made = planBuild(plan());
    m_buttons->button(QDialogButtonBox::Cancel)->setAutoDefault(false);
    for (QAbstractButton *b : m_buttons->buttons())
        if (m_buttons->buttonRole(b) == QDialogButtonBox::AcceptRole)
            b->setEnabled(made.has_value());
    if (!made) {
        m_says->setText(tr("That cannot be: %1 %2.")
                            .arg(labelOf(made.error().place), qs(made.error().message)));
        return;
    }
    m_build = *made;
    clearVectorState();
    const auto idle = hotIdleAlone(m_build);
    m_says->setText(
        tr("%1, %2, %3 checkpoints. Hot idle with middling clearances about %4. All sizes are a "
           "beginning in proportion to bore and stroke: correct them on Engine.")
            .arg(qs(m_build.engine.layout), inWords(asVolume(displacement_l(m_build.engine))))
            .arg(m_build.engine.stops.size())
            .arg(idle ? Figure::pressure(idle->gauge.value_pa).text() : tr("not to be found")));
}

} // namespace mildpath
