// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/after/heardpage.h"

#include "diagnose/faults.h"
#include "document/logbook.h"
#include "entry/entryform.h"
#include "entry/refusal.h"
#include "plot/axis.h"
#include "quantity/dates.h"
#include "quantity/rounding.h"

#include <QMouseEvent>
#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {
namespace {

constexpr double heardLeft = 64, heardTopGap = 40, heardBottomGap = 16;

QString wordFor(std::span<const NoiseWord> words, const std::string &id)
{
    for (const NoiseWord &w : words)
        if (w.id == id)
            return qs(w.text);
    return qs(id);
}

std::vector<std::pair<QString, QString>> options(std::span<const NoiseWord> words)
{
    std::vector<std::pair<QString, QString>> out;
    for (const NoiseWord &w : words)
        out.emplace_back(qs(w.id), qs(w.text));
    return out;
}

/// Names of kinds of fault, however the table of symptoms spells them.
QString faultWords(const std::vector<std::string_view> &kinds)
{
    QStringList out;
    for (const std::string_view id : kinds) {
        const FaultKind *k = findFaultKind(id);
        QString name = k ? qs(k->name) : qs(id);
        out << name.replace(u'_', u' ');
    }
    return out.join(QStringLiteral(", "));
}

} // namespace

HeardView::HeardView(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("heardView"));
    setAccessibleName(tr("Noises by when they are heard"));
    setMinimumHeight(220);
}

void HeardView::show(const Build &build, const std::string &chosen)
{
    m_chosen = chosen;
    m_bars.clear();
    QStringList spoken;
    for (const Symptom *s : standing(build.symptoms)) {
        if (s->heard.empty() || !s->there)
            continue;
        size_t when = 0;
        while (when + 1 < noiseTimes().size() && noiseTimes()[when].id != s->heard)
            ++when;
        m_bars.push_back({ s->id, wordFor(noiseSounds(), s->sound), when,
                           s->gone_above_rpm.value_or(0), s->symptom != otherNoise });
        spoken << m_bars.back().text + u' ' + qs(noiseTimes()[when].text);
    }
    // Only as far up as there is something to see.
    double most = 0;
    bool endless = m_bars.empty();
    for (const Bar &b : m_bars) {
        most = std::max(most, b.to_rpm);
        endless = endless || b.to_rpm == 0;
    }
    m_most_rpm = endless ? std::max(build.use.most_rpm, most) : 1.6 * most;
    for (Bar &b : m_bars)
        b.to_rpm = b.to_rpm == 0 ? m_most_rpm : b.to_rpm;
    setAccessibleDescription(spoken.join(QStringLiteral("; ")));
    update();
}

void HeardView::layOut()
{
    const double wide = (width() - heardLeft - 12) / static_cast<double>(noiseTimes().size());
    const Axis axis { 0, m_most_rpm, height() - heardBottomGap, heardTopGap };
    std::vector<int> used(noiseTimes().size(), 0);
    std::vector<int> all(noiseTimes().size(), 0);
    for (const Bar &b : m_bars)
        ++all[b.when];
    for (Bar &b : m_bars) {
        const double each = std::min(70.0, (wide - 16) / std::max(1, all[b.when]));
        const double x = heardLeft + wide * static_cast<double>(b.when) + 8 + each * used[b.when]++;
        b.area = QRectF(QPointF(x, axis.at(b.to_rpm)),
                        QPointF(x + each - 4, height() - heardBottomGap));
    }
}

void HeardView::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    drawCard(p, QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
    layOut();
    const QRectF area(heardLeft, heardTopGap, width() - heardLeft - 12,
                      height() - heardTopGap - heardBottomGap);
    drawUpright(p, Axis { 0, m_most_rpm, area.bottom(), area.top(), Shows::Speed }, area);
    const double wide = area.width() / static_cast<double>(noiseTimes().size());
    for (size_t i = 0; i < noiseTimes().size(); ++i) {
        const QRectF column(area.left() + wide * static_cast<double>(i), area.top(), wide,
                            area.height());
        p.setPen(QPen(t.line, 1));
        p.drawLine(column.topLeft(), column.bottomLeft());
        drawLine(p, QRectF(column.left() + 4, 14, wide - 8, 18), Qt::AlignHCenter,
                 qs(noiseTimes()[i].text), textFont(TextSize::Small, true), t.ink);
    }
    if (m_bars.empty())
        drawLine(p, area, Qt::AlignCenter, tr("Nothing heard is written down yet."),
                 textFont(TextSize::Normal), t.muted);
    for (const Bar &b : m_bars) {
        const bool chosen = b.id == m_chosen;
        p.setPen(chosen ? QPen(t.selection, 2) : QPen(b.speaks ? t.lookAgain : t.line, 1));
        p.setBrush(b.speaks ? t.oil[t.dark ? 0 : 1] : t.selectionFill);
        p.drawRoundedRect(b.area, 4, 4);
        drawLine(p, QRectF(b.area.left(), b.area.top() + 4, b.area.width(), 16), Qt::AlignHCenter,
                 b.text, textFont(TextSize::Normal, true), t.ink);
        if (b.to_rpm < m_most_rpm)
            drawLine(p, QRectF(b.area.left() - 20, b.area.top() - 16, b.area.width() + 40, 14),
                     Qt::AlignHCenter, tr("gone above %1").arg(qs(formatNumber(b.to_rpm, 0))),
                     textFont(TextSize::Small), t.muted);
    }
}

void HeardView::mousePressEvent(QMouseEvent *event)
{
    for (const Bar &b : m_bars)
        if (b.area.contains(event->position()))
            return Q_EMIT picked(qs(b.id));
}

HeardPage::HeardPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_form(new EntryForm(QStringLiteral("heard"), 4, this))
    , m_view(new HeardView(this))
{
    setObjectName(QStringLiteral("heardPage"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    column->addWidget(m_view, 1);
    m_form->addChoice("sound", tr("It is a"), options(noiseSounds()));
    m_form->addChoice("when", tr("Heard"), options(noiseTimes()));
    m_form->addNumber(recordType<Symptom>(), "gone_above_rpm", tr("Gone above"), 0);
    m_form->addWord("note", tr("Where, what else"));
    column->addWidget(entryCard(m_form, QStringLiteral("heard.record"), this));
    connect(m_form, &EntryForm::submitted, this, &HeardPage::record);
    connect(m_view, &HeardView::picked, this, [this](const QString &id) {
        m_heard = id.toStdString();
        refresh();
        Q_EMIT changed();
    });
    connect(&open, &OpenBuild::opened, this, [this] {
        m_heard.clear();
        m_form->clear();
    });
}

void HeardPage::record()
{
    Symptom s;
    s.sound = m_form->choice("sound");
    s.heard = m_form->choice("when");
    s.symptom = symptomOf(s.sound, s.heard);
    m_form->fill(s);
    s.note = m_form->word("note");
    // One symptom speaks once: said again it is corrected, not doubled.
    for (const Symptom *old : standing(m_open.build().symptoms))
        if (old->symptom == s.symptom
            && (s.symptom != otherNoise || (old->sound == s.sound && old->heard == s.heard)))
            s.replaces = old->id;
    if (const auto done = m_open.record(s); !done)
        return m_form->say(qs(done.error().message));
    m_heard = m_open.build().symptoms.back().id;
    m_form->clear();
    refresh();
    Q_EMIT changed();
}

const Symptom *HeardPage::chosen() const
{
    for (const Symptom *s : standing(m_open.build().symptoms))
        if (s->id == m_heard)
            return s;
    return nullptr;
}

void HeardPage::refresh()
{
    if (!chosen()) {
        m_heard.clear();
        for (const Symptom *s : standing(m_open.build().symptoms))
            if (!s->heard.empty())
                m_heard = s->id;
    }
    m_view->show(m_open.build(), m_heard);
}

QString HeardPage::about() const
{
    const auto all = standing(m_open.build().symptoms);
    const auto noises
        = std::ranges::count_if(all, [](const Symptom *s) { return !s->heard.empty(); });
    return noises == 0 ? tr("nothing heard yet") : counted(noises, tr("noise"), tr("noises"));
}

void HeardPage::takeFocus()
{
    m_form->focusFirst();
}

PanelContent HeardPage::panel()
{
    PanelContent out;
    if (const Symptom *s = chosen(); s && !s->heard.empty()) {
        const SymptomKind *k = findSymptomKind(s->symptom);
        out.push_back(
            PanelTitle { wordFor(noiseSounds(), s->sound) + u' ' + wordFor(noiseTimes(), s->heard),
                         qs(whoText(s->by) + ", " + dayText(s->at.substr(0, 10))) });
        if (s->gone_above_rpm)
            out.push_back(
                PanelText { tr("Gone above %1.").arg(Figure::speed(*s->gone_above_rpm).text()) });
        if (!s->note.empty())
            out.push_back(PanelText { qs(s->note) });
        if (!k || s->symptom == otherNoise)
            out.push_back(PanelText { tr("The table of symptoms knows no fault for it: it is kept, "
                                         "and moves the diagnosis neither way."),
                                      Tone::Muted });
        else {
            out.push_back(PanelText { tr("It speaks for: %1").arg(qs(k->text)), Tone::Warn });
            if (!k->likely.empty())
                out.push_back(PanelText { tr("Likely: %1.").arg(faultWords(k->likely)) });
            if (!k->possible.empty())
                out.push_back(PanelText { tr("Possible: %1.").arg(faultWords(k->possible)) });
            out.push_back(PanelButton { QStringLiteral("heard.diagnose"),
                                        tr("Find the fault on Forecast"),
                                        [this] { Q_EMIT benchAsked(Place::Forecast); } });
        }
        out.push_back(PanelButton {
            QStringLiteral("heard.takeBack"), tr("Take it back"),
            [open = &m_open, id = s->id] { saidIfRefused(open->takeBack("symptoms", id)); } });
        out.push_back(PanelRule {});
    }
    out.push_back(PanelText { tr("When a noise is heard says more than what it sounds like: first "
                                 "seconds cold is oil that ran back, warm idle only is pressure at "
                                 "the far end, gone above a speed is a pump that catches up."),
                              Tone::Muted });
    return out;
}

} // namespace mildpath
