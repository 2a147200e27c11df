// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/finish/sealpage.h"

#include "entry/entryform.h"
#include "entry/refusal.h"
#include "paint/marks.h"
#include "plot/axis.h"
#include "quantity/rounding.h"
#include "shell/stopfields.h"

#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {
namespace {

const char *const usedOnly[] = { "gas_temp_c", "gas_absolute_kpa" };
const char *const vacuumOnly[] = { "pump_rpm", "relief_kpa" };

QString nameOf(const SealPair &p)
{
    QString out = (p.kind == "vacuum" ? SealPage::tr("Vacuum") : SealPage::tr("Blow-by"))
        + QStringLiteral(", ") + Figure::speed(p.rpm).text();
    if (p.load_percent > 0)
        out += SealPage::tr(", load %1 %").arg(qs(formatNumber(p.load_percent, 0)));
    return out;
}

} // namespace

SealView::SealView(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("sealView"));
    setAccessibleName(tr("Blow-by and crankcase vacuum, before and after"));
    setMinimumHeight(240);
}

void SealView::show(const SealReport &report)
{
    m_report = report;
    QStringList spoken;
    for (const SealPair &p : report.pairs)
        spoken << nameOf(p) + QStringLiteral(": ") + qs(p.verdict);
    setAccessibleDescription(spoken.join(QStringLiteral("; ")));
    update();
}

void SealView::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const auto has = [&](const char *kind) {
        return std::ranges::any_of(m_report.pairs,
                                   [&](const SealPair &s) { return s.kind == kind; });
    };
    // Side by side, unless only one of them was read.
    const bool blowBy = has("blow_by") || !has("vacuum"), vacuum = has("vacuum") || !has("blow_by");
    const double wide = blowBy && vacuum ? (width() - 8) / 2.0 : width();
    if (blowBy)
        paintKind(p, "blow_by", tr("Blow-by, of what it breathes"), QRectF(0, 0, wide, height()));
    if (vacuum)
        paintKind(p, "vacuum", tr("Crankcase vacuum"), QRectF(width() - wide, 0, wide, height()));
}

void SealView::paintKind(QPainter &p, const std::string &kind, const QString &title,
                         const QRectF &card) const
{
    const Theme &t = Theme::current();
    drawCard(p, card.adjusted(0.5, 0.5, -0.5, -0.5));
    drawLine(p, QRectF(card.left() + 14, 6, card.width() - 28, 18),
             Qt::AlignLeft | Qt::AlignVCenter, title, textFont(TextSize::Normal, true), t.ink);
    const QRectF r(card.left() + 48, 62, card.width() - 62, card.height() - 62 - 40);
    std::vector<const SealPair *> pairs;
    double most = 0, least_rpm = 1e9, most_rpm = 0;
    for (const SealPair &s : m_report.pairs)
        if (s.kind == kind) {
            pairs.push_back(&s);
            for (const SealMean *m : { &s.before, &s.after })
                for (const double v : m->values)
                    most = std::max(most, v);
            least_rpm = std::min(least_rpm, s.rpm);
            most_rpm = std::max(most_rpm, s.rpm);
        }
    if (pairs.empty()) {
        drawLine(p, r, Qt::AlignCenter, tr("Nothing read yet."), textFont(TextSize::Normal),
                 t.muted);
        return;
    }
    Axis x { least_rpm, most_rpm, r.left(), r.right(), Shows::Speed };
    x.count = 4;
    x.widen(0.12);
    // Written down in kPa and in percent of what it breathes.
    const bool vacuum = kind == "vacuum";
    const auto inCore = [&](double v) { return v * (vacuum ? 1e3 : 0.01); };
    Axis y { 0, inCore(most) * 1.2, r.bottom(), r.top(),
             vacuum ? Shows::CasePressure : Shows::Share };
    y.count = 4;
    drawAlong(p, x, r);
    drawUpright(p, y, r);
    for (const SealPair *s : pairs) {
        const double at = x.at(s->rpm);
        const auto dots = [&](const SealMean &m, double dx, bool filled) {
            p.setPen(QPen(filled ? t.panel : t.ink, filled ? 1 : 1.5));
            p.setBrush(filled ? t.mark(s->mark) : t.panel);
            for (const double v : m.values)
                p.drawEllipse(QPointF(at + dx, y.at(inCore(v))), 4, 4);
        };
        if (!s->before.values.empty() && !s->after.values.empty()) {
            p.setPen(QPen(t.mark(s->mark), 1.5));
            p.drawLine(QPointF(at - 7, y.at(inCore(s->before.mean()))),
                       QPointF(at + 7, y.at(inCore(s->after.mean()))));
        }
        dots(s->before, -7, false);
        dots(s->after, 7, true);
    }
    drawLine(p, QRectF(card.left() + 14, 24, card.width() - 28, 15), Qt::AlignLeft,
             tr("ring: before, dot: after"), textFont(TextSize::Small), t.muted);
}

SealPage::SealPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_form(new EntryForm(QStringLiteral("seal"), 5, this))
    , m_view(new SealView(this))
{
    setObjectName(QStringLiteral("sealPage"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    column->addWidget(m_view, 1);
    m_form->addChoice("kind", tr("Read"),
                      { { QStringLiteral("blow_by"), tr("blow-by") },
                        { QStringLiteral("vacuum"), tr("crankcase vacuum") } });
    m_form->addChoice(
        "phase", tr("It was"),
        { { QStringLiteral("before"), tr("before") }, { QStringLiteral("after"), tr("after") } });
    const RecordType &type = recordType<SealCheck>();
    m_form->addNumber(type, "rpm", tr("Speed"), 0);
    m_form->addNumber(type, "load_percent", tr("Load"), 0);
    m_form->addNumber(type, "flow_l_min", tr("Blow-by"), 1);
    m_form->sameCell();
    m_form->addNumber(type, "vacuum_kpa", tr("Vacuum"), 1);
    m_form->addNumber(type, "gas_temp_c", tr("Gas at the meter"), 0);
    m_form->sameCell();
    m_form->addNumber(type, "pump_rpm", tr("Pump turns"), 0);
    m_form->addNumber(type, "gas_absolute_kpa", tr("Absolute there"), 1);
    m_form->sameCell();
    m_form->addNumber(type, "relief_kpa", tr("Its relief"), 1);
    m_form->addWord("note", tr("What was changed"));
    column->addWidget(entryCard(m_form, QStringLiteral("seal.record"), this));
    connect(m_form, &EntryForm::changed, this, &SealPage::showKind);
    connect(m_form, &EntryForm::submitted, this, &SealPage::record);
}

void SealPage::reset()
{
    m_form->clear();
}

void SealPage::showKind()
{
    const bool vacuum = m_form->choice("kind") == "vacuum";
    m_form->setShown("flow_l_min", !vacuum);
    m_form->setShown("vacuum_kpa", vacuum);
    for (const char *key : usedOnly)
        m_form->setShown(key, !vacuum);
    for (const char *key : vacuumOnly)
        m_form->setShown(key, vacuum);
}

void SealPage::record()
{
    SealCheck c;
    c.kind = m_form->choice("kind");
    c.phase = m_form->choice("phase");
    const bool vacuum = c.kind == "vacuum";
    if (!m_form->number("rpm") || !m_form->number(vacuum ? "vacuum_kpa" : "flow_l_min"))
        return m_form->say(tr("Enter the speed and what was read."));
    m_form->fill(c);
    c.note = m_form->word("note");
    if (const auto done = m_open.record(c); !done)
        return m_form->say(qs(done.error().message));
    m_form->clear();
    refresh();
    Q_EMIT changed();
}

void SealPage::refresh()
{
    m_report = reportSeal(m_open.build());
    m_view->show(m_report);
    showKind();
}

QString SealPage::about() const
{
    return m_report.pairs.empty()
        ? tr("nothing read yet")
        : counted(m_report.pairs.size(), tr("speed and load"), tr("speeds and loads"));
}

void SealPage::takeFocus()
{
    m_form->focusFirst();
}

PanelContent SealPage::panel()
{
    PanelContent out;
    out.push_back(PanelTitle { tr("Before against after"), {} });
    for (const SealPair &p : m_report.pairs)
        out.push_back(PanelVerdict { p.mark, nameOf(p), qs(p.verdict) });
    for (const std::string &r : m_report.remarks)
        out.push_back(PanelText { qs(r), Tone::Warn });
    if (m_report.pairs.empty())
        out.push_back(PanelText { tr("Read blow-by or vacuum before the rings or the bore are "
                                     "changed, and again after, at equal speed and load."),
                                  Tone::Muted });
    out.push_back(PanelText {
        tr("Compared only at equal speed and load, vacuum at equal pump speed and relief too. "
           "Blow-by "
           "is brought to %1 and %2. A change counts when it is larger than what "
           "readings repeated differ by: take each twice.")
            .arg(inWords(Quantity { 101.3e3, Shows::CasePressure }),
                 Figure::temperature(25).text()),
        Tone::Muted });
    out.push_back(sectionField(m_open, "after", "seal_scatter_percent"));
    const auto checks = standing(m_open.build().sealChecks);
    if (checks.empty())
        return out;
    out.push_back(PanelButton { QStringLiteral("seal.takeBack"), tr("Take the last reading back"),
                                [open = &m_open, id = checks.back()->id] {
                                    saidIfRefused(open->takeBack("seal_checks", id));
                                } });
    return out;
}

} // namespace mildpath
