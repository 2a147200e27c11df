// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/sump/senderpage.h"

#include "assess/air.h"
#include "bench/sump/senderviews.h"
#include "entry/arrowcombo.h"
#include "kinds/cautions.h"
#include "paint/card.h"
#include "paint/scrolled.h"
#include "quantity/rounding.h"
#include "sump/threads.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

#include <cmath>

namespace mildpath {

SenderPage::SenderPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_male(new ArrowCombo(this))
    , m_female(new ArrowCombo(this))
    , m_verdict(new QLabel(this))
    , m_detail(new QLabel(this))
    , m_thread(new ThreadView(this))
    , m_places(new SenderBars(this))
{
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    auto *thread = new CardWidget(this);
    auto *inside = new QVBoxLayout(thread);
    inside->setContentsMargins(14, 10, 14, 12);
    inside->setSpacing(6);
    auto *title = new QLabel(tr("Does its thread fit?"), thread);
    title->setFont(textFont(TextSize::Body, true));
    inside->addWidget(title);
    auto *row = new QHBoxLayout;
    for (const auto &[combo, label, name] :
         { std::tuple(m_male, tr("Sender"), "sender.male"),
           std::tuple(m_female, tr("into a hole"), "sender.female") }) {
        auto *word = new QLabel(label, thread);
        row->addWidget(word);
        combo->setObjectName(QLatin1String(name));
        combo->setAccessibleName(label);
        combo->setMinimumWidth(110);
        for (const Thread &t : threads())
            combo->addItem(qs(t.name));
        row->addWidget(combo);
        connect(combo, &QComboBox::currentIndexChanged, this, &SenderPage::showMatch);
    }
    row->addStretch();
    inside->addLayout(row);
    m_verdict->setObjectName(QStringLiteral("sender.verdict"));
    m_verdict->setFont(textFont(TextSize::Body, true));
    m_detail->setObjectName(QStringLiteral("sender.detail"));
    m_detail->setWordWrap(true);
    inside->addWidget(m_verdict);
    inside->addWidget(m_detail);
    inside->addWidget(m_thread);
    column->addWidget(thread);
    auto *places = new CardWidget(this);
    auto *list = new QVBoxLayout(places);
    list->setContentsMargins(10, 10, 10, 8);
    auto *where = new QLabel(tr("Where a temperature sender sees oil"), places);
    where->setFont(textFont(TextSize::Body, true));
    where->setContentsMargins(4, 0, 0, 2);
    list->addWidget(where);
    list->addWidget(scrolled(m_places, places));
    column->addWidget(places, 1);
    m_female->setCurrentText(QStringLiteral("R 1/8"));
    showMatch();
}

void SenderPage::showMatch()
{
    const Thread *male = findThread(m_male->currentText().toStdString());
    const Thread *female = findThread(m_female->currentText().toStdString());
    if (!male || !female)
        return;
    m_thread->setThreads(male, female);
    const Theme &t = Theme::current();
    const ThreadMatch m = matchThreads(*male, *female);
    const auto mm = [](double v) { return inWords(asLength(v, 3)); };
    QString detail = tr("Sender less hole: major diameter %1, pitch %2, flank %3°.")
                         .arg(mm(m.major_mm), mm(m.pitch_mm), qs(formatNumber(m.flank_deg, 0)));
    if (m.match == "match") {
        m_verdict->setText(tr("Fits"));
        setTone(m_verdict, t.proven);
        if (male->tapered)
            detail += tr(
                " Tapered: it seals in its thread and wedges the hole open. No more than hand "
                "tight and a turn or two in light alloy.");
    } else if (m.match == "engages_different_seal") {
        m_verdict->setText(tr("Goes in, seals otherwise"));
        setTone(m_verdict, t.lookAgain);
        detail += tr(" The straight one needs a washer on a flat face; the tapered one needs a "
                     "tapered hole.");
    } else if (m.deceptive) {
        m_verdict->setText(tr("Does not fit, though it begins to screw in"));
        setTone(m_verdict, t.hold);
        detail += tr(" After five turns they are %1 apart: it jams, cracks the boss or comes out "
                     "under "
                     "pressure.")
                      .arg(mm(5 * std::abs(m.pitch_mm)));
    } else {
        m_verdict->setText(tr("Does not fit"));
        setTone(m_verdict, t.hold);
    }
    m_detail->setText(detail);
    setTone(m_detail, t.muted);
}

void SenderPage::refresh()
{
    m_places->setPlaces(senderPlaces(m_open.build(), m_open.operating(), m_open.air()),
                        m_open.build().use.highSpeed_rpm);
    showMatch();
}

PanelContent SenderPage::panel()
{
    PanelContent out;
    out.push_back(PanelTitle { tr("Senders and bungs"), {} });
    for (const SenderPlace &p : senderPlaces(m_open.build(), m_open.operating(), m_open.air()))
        out.push_back(PanelVerdict { p.mark, qs(p.name), qs(p.why) });
    out.push_back(PanelRule {});
    out.push_back(PanelText { qs(caution::welding), Tone::Warn });
    for (const QString &line :
         { tr("A bung is welded with the pan off and empty."),
           tr("In the bowl: clear of crank, pickup and drain, where the stream to the pickup "
              "passes."),
           tr("Sealant on the first thread ends in the oil: leave it bare."),
           tr("Thread sizes here are from memory: try a gauge or a known plug before you cut.") })
        out.push_back(PanelText { line, Tone::Muted });
    return out;
}

} // namespace mildpath
