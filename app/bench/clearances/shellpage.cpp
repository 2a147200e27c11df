// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/clearances/shellpage.h"

#include "assess/sizes.h"
#include "entry/arrowcombo.h"
#include "entry/quantityfield.h"
#include "open/questions.h"
#include "open/vectorstate.h"
#include "paint/marks.h"
#include "paint/text.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMouseEvent>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double shellViewTop = 40, shellViewBottom = 34, shellViewNameWidth = 92,
                 shellViewChipsWidth = 168;

QString pairText(const ShellPlan &plan, const ShellChoice &c)
{
    return qs(plan.classes[static_cast<size_t>(c.upper)].name) + QStringLiteral(" / ")
        + qs(plan.classes[static_cast<size_t>(c.lower)].name);
}

} // namespace

ShellPicture::ShellPicture(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("shellPicture"));
    setMinimumHeight(240);
}

void ShellPicture::setPlan(const std::string &family, const ShellPlan *plan)
{
    m_family = family;
    m_plan = plan;
    QString spoken;
    for (size_t i = 0; m_plan && i < m_plan->spaces.size(); ++i)
        spoken
            += tr("%1: %2, %3; ")
                   .arg(qs(m_plan->spaces[i].name), pairText(*m_plan, m_plan->best.journals[i]),
                        Figure::clearance(m_plan->best.journals[i].clearance.value_m * 1e6).text());
    setAccessibleName(spoken);
    update();
}

void ShellPicture::setStop(const std::string &stop)
{
    m_stop = stop;
    update();
}

void ShellPicture::mousePressEvent(QMouseEvent *event)
{
    if (!m_plan)
        return;
    const double rowHeight
        = (height() - shellViewTop - shellViewBottom) / static_cast<double>(m_plan->stops.size());
    const double row = (event->position().y() - shellViewTop) / rowHeight;
    if (row >= 0 && row < static_cast<double>(m_plan->stops.size()))
        m_open.selectStop(qs(m_plan->stops[static_cast<size_t>(row)]));
}

void ShellPicture::paintEvent(QPaintEvent *)
{
    if (!m_plan)
        return;
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Limits &l = m_open.build().limits.at(m_family);
    double low = l.min_um, high = l.max_um;
    const auto take = [&](double um) {
        low = std::min(low, um);
        high = std::max(high, um);
    };
    for (size_t i = 0; i < m_plan->spaces.size(); ++i) {
        take(m_plan->best.journals[i].clearance.value_m * 1e6);
        if (const GaugedSize *s = sizeOf(m_open.sizes(), m_plan->stops[i], m_family, 1);
            s && s->measured)
            take(s->cold_um.value);
    }
    // Uprights at round figures of the unit shown.
    const double step = Figure::system() == UnitSystem::Imperial ? 0.5 * 25.4 : 10;
    low = std::floor((low - 4) / step) * step;
    high = std::ceil((high + 4) / step) * step;
    const double left = shellViewNameWidth + shellViewChipsWidth + 20, right = width() - 96.0;
    const double perUm = (right - left) / (high - low);
    const auto x = [&](double um) { return left + (um - low) * perUm; };
    const double rowHeight
        = (height() - shellViewTop - shellViewBottom) / static_cast<double>(m_plan->spaces.size());
    for (size_t i = 0; i < m_plan->stops.size(); ++i)
        if (m_plan->stops[i] == m_stop) {
            p.setPen(Qt::NoPen);
            p.setBrush(t.selectionFill);
            p.drawRoundedRect(QRectF(0, shellViewTop + rowHeight * static_cast<double>(i) + 3,
                                     width(), rowHeight - 6),
                              5, 5);
        }
    QColor band = t.proven;
    band.setAlphaF(t.dark ? 0.16F : 0.11F);
    p.fillRect(QRectF(x(l.min_um), shellViewTop - 6, (l.max_um - l.min_um) * perUm,
                      height() - shellViewTop - shellViewBottom + 12),
               band);
    const QFont small = textFont(TextSize::Small);
    drawLine(p, QRectF(x(l.min_um), 4, 260, 14), Qt::AlignVCenter,
             tr("limits %1 to %2")
                 .arg(Figure::limit(l.min_um).number,
                      Figure::limit(l.max_um).number + u' ' + Figure::limit(l.max_um).unit),
             small, t.proven);
    const double target = l.target_um.value_or((l.min_um + l.max_um) / 2);
    p.setPen(QPen(t.proven, 1.4, Qt::DashLine));
    p.drawLine(QPointF(x(target), shellViewTop - 12),
               QPointF(x(target), height() - shellViewBottom + 6));
    drawLine(p, QRectF(x(target) + 4, 18, 200, 14), Qt::AlignVCenter,
             tr("target %1").arg(Figure::limit(target).number), small, t.proven);
    for (double um = low; um <= high + 0.1; um += step) {
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(x(um), shellViewTop - 6),
                   QPointF(x(um), height() - shellViewBottom + 6));
        drawLine(p, QRectF(x(um) - 24, height() - shellViewBottom + 8, 48, 16), Qt::AlignCenter,
                 Figure::limit(um).number, textFont(TextSize::Normal), t.ink);
    }
    drawLine(p, QRectF(left - 60, height() - shellViewBottom + 8, 40, 16),
             Qt::AlignRight | Qt::AlignVCenter, Figure::limit(low).unit, textFont(TextSize::Normal),
             t.muted);
    for (size_t i = 0; i < m_plan->spaces.size(); ++i)
        paintRow(p, i, shellViewTop + rowHeight * (static_cast<double>(i) + 0.5), x(0), perUm);
}

void ShellPicture::paintRow(QPainter &p, size_t row, double y, double zero, double perUm) const
{
    const Theme &t = Theme::current();
    const ShellChoice &c = m_plan->best.journals[row];
    const double best_um = c.clearance.value_m * 1e6;
    drawLine(p, QRectF(8, y - 10, shellViewNameWidth, 20), Qt::AlignVCenter,
             qs(m_plan->spaces[row].name), textFont(TextSize::Body, true), t.ink);
    drawLine(p, QRectF(shellViewNameWidth, y - 16, shellViewChipsWidth, 16), Qt::AlignVCenter,
             pairText(*m_plan, c), textFont(TextSize::Body, true), t.selection);
    drawLine(p, QRectF(shellViewNameWidth, y, shellViewChipsWidth + 10, 15), Qt::AlignVCenter,
             qs(m_plan->from[row]), textFont(TextSize::Small), t.muted);
    const double to = zero + best_um * perUm;
    const GaugedSize *s = sizeOf(m_open.sizes(), m_plan->stops[row], m_family, 1);
    if (s && s->measured) {
        const double from = zero + s->cold_um.value * perUm;
        p.setPen(QPen(t.line, 4, Qt::SolidLine, Qt::RoundCap));
        p.drawLine(QPointF(from, y), QPointF(to, y));
        p.setPen(QPen(t.ink, 1.8));
        p.setBrush(t.panel);
        p.drawEllipse(QPointF(from, y), 5, 5);
    }
    p.setPen(Qt::NoPen);
    p.setBrush(c.outside ? t.hold : t.selection);
    p.drawEllipse(QPointF(to, y), 6, 6);
    drawFigure(p, QPointF(width() - 10, y + 5), Figure::clearance(best_um, 0.5),
               textFont(TextSize::Body, true), c.outside ? t.hold : t.ink, t.muted);
}

ShellPage::ShellPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_picture(new ShellPicture(open, this))
    , m_message(new QLabel(this))
    , m_fit(new QPushButton(tr("Write these down as fitted"), this))
{
    setObjectName(QStringLiteral("shellPage"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    auto *row = new QHBoxLayout;
    row->setSpacing(4);
    for (const Family &f : families()) {
        if (!f.shells)
            continue;
        auto *button = new QPushButton(qs(f.tab), this);
        button->setObjectName(QStringLiteral("shells_") + qs(f.id));
        button->setCheckable(true);
        connect(button, &QPushButton::clicked, this, [this, id = std::string(f.id)] {
            m_family = id;
            refresh();
            Q_EMIT changed();
        });
        row->addWidget(button);
        m_families.push_back(button);
    }
    row->addStretch();
    column->addLayout(row);
    column->addWidget(m_picture, 1);
    m_message->setObjectName(QStringLiteral("shellMessage"));
    m_message->setWordWrap(true);
    column->addWidget(m_message);
    makeJournalRow(column);
    makeClassRow(column);
    auto *last = new QHBoxLayout;
    m_fit->setObjectName(QStringLiteral("fitShells"));
    connect(m_fit, &QPushButton::clicked, this, &ShellPage::fit);
    last->addWidget(m_fit);
    last->addStretch();
    column->addLayout(last);
}

/// What is fitted to and stamped for the journal in hand.
void ShellPage::makeJournalRow(QVBoxLayout *column)
{
    auto *row = new QHBoxLayout;
    row->setSpacing(6);
    m_journal = new QLabel(this);
    m_journal->setFont(textFont(TextSize::Body, true));
    row->addWidget(m_journal);
    const QString names[]
        = { tr("fitted, upper"), tr("lower"), tr("stamped, bore"), tr("journal") };
    const char *ids[] = { "fittedUpper", "fittedLower", "stampedHousing", "stampedJournal" };
    for (int i = 0; i < 4; ++i) {
        auto *label = new QLabel(names[i], this);
        row->addWidget(label);
        m_of[i] = new ArrowCombo(this);
        m_of[i]->setObjectName(QLatin1String(ids[i]));
        m_of[i]->setAccessibleName(names[i]);
        m_of[i]->setMinimumContentsLength(3);
        label->setBuddy(m_of[i]);
        connect(m_of[i], &QComboBox::activated, this, [this] { storeJournal(); });
        row->addWidget(m_of[i]);
    }
    row->addStretch();
    column->addLayout(row);
}

/// A new class, or other figures for one that is there.
void ShellPage::makeClassRow(QVBoxLayout *column)
{
    auto *row = new QHBoxLayout;
    row->setSpacing(6);
    m_classKind = new ArrowCombo(this);
    m_classKind->setObjectName(QStringLiteral("classKind"));
    m_classKind->setAccessibleName(tr("What the class is of"));
    m_classKind->addItems({ tr("shell"), tr("housing class"), tr("journal class") });
    row->addWidget(m_classKind);
    m_className = new QLineEdit(this);
    m_className->setObjectName(QStringLiteral("className"));
    m_className->setPlaceholderText(tr("colour or mark"));
    m_className->setAccessibleName(tr("Name of the class"));
    m_className->setFixedWidth(104);
    row->addWidget(m_className);
    const auto field = [&](const QString &name, const QString &label) {
        auto *words = new QLabel(label, this);
        row->addWidget(words);
        auto *f = new QuantityField(Dimension::Length, "mm", this);
        f->setObjectName(name);
        f->setAccessibleName(label);
        f->setDecimals(4);
        f->setFixedWidth(80);
        words->setBuddy(f);
        nameWithUnit(words, label, f);
        connect(f, &QuantityField::refused, this, [this](const QString &why) { refuse(why); });
        row->addWidget(f);
        return f;
    };
    m_classFrom = field(QStringLiteral("classFrom"), tr("wall, or from"));
    m_classTo = field(QStringLiteral("classTo"), tr("to"));
    auto *add = new QPushButton(tr("Enter the class"), this);
    add->setObjectName(QStringLiteral("addClass"));
    connect(add, &QPushButton::clicked, this, &ShellPage::addClass);
    row->addWidget(add);
    row->addStretch();
    column->addLayout(row);
    connect(m_classKind, &QComboBox::currentIndexChanged, this,
            [this](int kind) { m_classTo->setEnabled(kind > 0); });
    m_classTo->setEnabled(false);
}

void ShellPage::refuse(const QString &why)
{
    m_message->setText(why);
    setTone(m_message, Theme::current().hold);
}

void ShellPage::showJournal()
{
    const Build &build = m_open.build();
    const Stop *stop = build.engine.find(m_open.selectedStop().toStdString());
    if (!stop || wordOf(stop->kind) != m_family)
        stop = build.engine.find(m_stop);
    for (const Stop &s : build.engine.stops)
        if ((!stop || wordOf(stop->kind) != m_family) && wordOf(s.kind) == m_family)
            stop = &s;
    m_stop = stop ? stop->id : "";
    m_journal->setText(stop ? qs(stop->name) : QString());
    m_picture->setStop(m_stop);
    const ShellStock *s = stock();
    const FittedShells now
        = s && s->fitted.contains(m_stop) ? s->fitted.at(m_stop) : FittedShells {};
    const std::string *chosen[] = { &now.upper, &now.lower, &now.housingClass, &now.journalClass };
    for (int i = 0; i < 4; ++i) {
        m_of[i]->clear();
        m_of[i]->addItem(QStringLiteral("–"));
        if (s && i < 2)
            for (const ShellStockRow &row : s->shells)
                m_of[i]->addItem(qs(row.name));
        if (s && i >= 2)
            for (const SizeClass &c : i == 2 ? s->housings : s->journals) {
                m_of[i]->addItem(qs(c.name));
                m_of[i]->setItemData(
                    m_of[i]->count() - 1,
                    inWords(QuantityRange { asLength(c.least_mm, 3), asLength(c.most_mm, 3) }),
                    Qt::ToolTipRole);
            }
        m_of[i]->setCurrentIndex(std::max(0, m_of[i]->findText(qs(*chosen[i]))));
        m_of[i]->setEnabled(stop && m_of[i]->count() > 1);
    }
}

void ShellPage::storeJournal()
{
    const auto text = [&](int i) {
        return m_of[i]->currentIndex() > 0 ? m_of[i]->currentText().toStdString() : std::string();
    };
    const FittedShells fitted { text(0), text(1), text(2), text(3) };
    if (const auto ok = m_open.edit(FitShells { m_family, m_stop, fitted }); !ok)
        refuse(qs(ok.error().message));
}

void ShellPage::addClass()
{
    const std::string name = m_className->text().trimmed().toStdString();
    const auto from = m_classFrom->value(), to = m_classTo->value();
    const int kind = m_classKind->currentIndex();
    const auto mm = [](double si) { return std::round(si * 1e7) / 1e4; };
    if (name.empty() || !from || (kind > 0 && !to)) {
        refuse(kind == 0 ? tr("A shell needs a name and a wall.")
                         : tr("A class needs a name and where it begins and ends."));
        return;
    }
    Result<void> ok;
    if (kind == 0) {
        ShellStockRow row { name, mm(*from), {} };
        if (const ShellStock *s = stock(); s && s->find(name))
            row.halves = s->find(name)->halves;
        ok = m_open.edit(SetShellRow { m_family, row });
    } else {
        ok = m_open.edit(SetSizeClass { m_family, kind == 2, { name, mm(*from), mm(*to) } });
    }
    if (!ok)
        refuse(qs(ok.error().message));
    else
        m_className->clear();
}

const ShellStock *ShellPage::stock() const
{
    const auto it = m_open.build().shells.find(m_family);
    return it == m_open.build().shells.end() ? nullptr : &it->second;
}

void ShellPage::refresh()
{
    for (QPushButton *b : m_families)
        b->setChecked(b->objectName() == QStringLiteral("shells_") + qs(m_family));
    clearVectorState();
    m_answer = m_open.answers().now(ask::shells(m_family));
    const Result<ShellPlan> &plan = m_answer->answer;
    m_plan = plan ? &*plan : nullptr;
    m_picture->setPlan(m_family, m_plan);
    showJournal();
    m_fit->setEnabled(m_plan != nullptr);
    if (!m_plan) {
        m_message->setText(tr("No choice yet. %1").arg(qs(plan.error())));
        setTone(m_message, Theme::current().lookAgain);
        return;
    }
    const ShellSelection &best = m_plan->best;
    QString text = best.outside == 0
        ? tr("All within the limits; the furthest is %1 from the target.")
              .arg(Figure::clearance(best.largestDeviation_m * 1e6, 0.5).text())
        : tr("%1 of %2 stay outside the limits with any shells there are.")
              .arg(best.outside)
              .arg(best.journals.size());
    text += u' '
        + tr("Filled: with these shells. Open ring: as gauged. The first name is the upper half.");
    m_message->setText(text);
    setTone(m_message, best.outside == 0 ? Theme::current().muted : Theme::current().hold);
}

void ShellPage::fit()
{
    m_open.undoStack().beginMacro(tr("shells as chosen"));
    // The plan is made anew with every edit, so what was shown is kept.
    const ShellPlan plan = *m_plan;
    for (size_t i = 0; i < plan.stops.size(); ++i) {
        FittedShells fitted;
        if (const ShellStock *s = stock(); s && s->fitted.contains(plan.stops[i]))
            fitted = s->fitted.at(plan.stops[i]);
        fitted.upper = plan.classes[static_cast<size_t>(plan.best.journals[i].upper)].name;
        fitted.lower = plan.classes[static_cast<size_t>(plan.best.journals[i].lower)].name;
        m_open.edit(FitShells { m_family, plan.stops[i], fitted });
    }
    m_open.undoStack().endMacro();
}

PanelContent ShellPage::panel()
{
    PanelContent out;
    out.push_back(PanelTitle { tr("What these shells do"), {} });
    if (m_plan && !m_open.operating().unsolved) {
        out.push_back(PanelChange {
            tr("gauge, hot idle"), Figure::pressure(m_open.operating().hotIdle.gauge.value_pa),
            Figure::pressure(m_plan->hotIdle.gauge.value_pa),
            m_plan->hotIdle.gauge.value_pa > m_open.operating().hotIdle.gauge.value_pa + 500
                ? Tone::Good
                : Tone::Plain });
        out.push_back(PanelChange {
            tr("weakest stop"),
            Figure::pressure(m_open.operating().hotIdle.weakestPressure.value_pa),
            Figure::pressure(m_plan->hotIdle.weakestPressure.value_pa), Tone::Plain });
        out.push_back(
            PanelText { tr("Best by: fewest outside the limits, then the smallest largest "
                           "distance from the target, then the sum of squares. Neighbouring "
                           "sizes may be mixed in one bearing."),
                        Tone::Muted });
    } else if (m_answer) {
        out.push_back(PanelText { qs(m_answer->answer.error()) });
    }
    if (m_plan && !m_plan->regrind.empty()) {
        out.push_back(PanelRule {});
        out.push_back(
            PanelHeading { tr("%1 needs more than new shells").arg(qs(m_plan->regrindFor)) });
        for (const RegrindStep &s : m_plan->regrind)
            out.push_back(
                PanelText { tr("Undersize %1: grind the journal to %2, shells of %3")
                                .arg(inWords(asLength(s.undersize_m * 1e3, 2)),
                                     inWords(QuantityRange { asLength(s.journalLeast_m * 1e3, 3),
                                                             asLength(s.journalMost_m * 1e3, 3) }),
                                     inWords(asLength(s.wall_m * 1e3, 3))) });
        out.push_back(PanelText { tr("Crank grinding belongs to a qualified shop."), Tone::Muted });
    }
    const ShellStock *s = stock();
    if (!s)
        return out;
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("Halves in stock, %1").arg(qs(s->source)) });
    for (const ShellStockRow &row : s->shells)
        out.push_back(
            PanelField { QStringLiteral("stock.") + qs(row.name),
                         tr("%1, wall %2").arg(qs(row.name), inWords(asLength(row.wall_mm, 3))),
                         Dimension::Number, "", 0,
                         row.halves ? std::optional<double>(*row.halves) : std::nullopt,
                         [open = &m_open, family = m_family, row](double n) -> Result<void> {
                             if (n != std::round(n))
                                 return fail("", "halves come whole");
                             ShellStockRow changed = row;
                             changed.halves = static_cast<int>(n);
                             return open->edit(SetShellRow { family, changed });
                         } });
    out.push_back(PanelText { tr("Empty: as many as wanted."), Tone::Muted });
    return out;
}

} // namespace mildpath
