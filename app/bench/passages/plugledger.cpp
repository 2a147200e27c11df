// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/passages/plugledger.h"

#include "assess/cleanmarks.h"
#include "entry/refusal.h"
#include "entry/rowlist.h"
#include "paint/card.h"
#include "paint/scrolled.h"
#include "passage/plugs.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

QString sizeOf(const Plug &p)
{
    return p.thread.empty() ? inWords(asLength(p.d_mm)) : qs(p.thread);
}

} // namespace

PlugLedger::PlugLedger(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
    , m_rows(new RowList({ 0, 0.055, 0.25, 0.45 }, 0, this))
{
    setObjectName(QStringLiteral("plugLedger"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    auto *scroll = scrolled(m_rows, this);
    column->addWidget(scroll, 1);
    m_rows->setObjectName(QStringLiteral("plugRows"));
    m_rows->setAccessibleName(tr("Plugs"));

    auto *card = new CardWidget(this);
    auto *keys = new QVBoxLayout(card);
    keys->setContentsMargins(14, 8, 12, 8);
    m_title = new QLabel(card);
    m_title->setFont(textFont(TextSize::Body, true));
    keys->addWidget(m_title);
    auto *line = new QHBoxLayout;
    line->setSpacing(6);
    m_word = new QLineEdit(card);
    m_word->setObjectName(QStringLiteral("plugWord"));
    m_word->setPlaceholderText(tr("sealed with …, or why it stays in"));
    m_word->setAccessibleName(tr("what it was sealed with, or why it stays in"));
    line->addWidget(m_word, 1);
    struct Key
    {
        const char *name;
        QString text, tip;
        const char *kind;
        bool seen;
    };
    const Key all[] = {
        { "plug.out", tr("Drawn"), tr("It is out"), "plug_out", false },
        { "plug.left", tr("Left in"), tr("It was not drawn; say why"), "plug_left", false },
        { "plug.in", tr("Fitted"), tr("It is in; say what it was sealed with"), "plug_in", false },
        { "plug.seen", tr("I have seen it in its place"),
          tr("Recorded with your name. A hidden plug: before the outer one goes in, or by camera"),
          "plug_seen", true },
    };
    for (const Key &k : all) {
        auto *button = new QPushButton(k.text, card);
        button->setObjectName(QLatin1String(k.name));
        button->setToolTip(k.tip);
        line->addWidget(button);
        m_keys.push_back(button);
        connect(button, &QPushButton::clicked, this,
                [this, kind = k.kind, seen = k.seen] { record(kind, seen); });
    }
    keys->addLayout(line);
    m_refusal = new QLabel(card);
    m_refusal->setObjectName(QStringLiteral("plugRefusal"));
    m_refusal->hide();
    keys->addWidget(m_refusal);
    column->addWidget(card);
    connect(m_rows, &RowList::picked, this, [this](int row) {
        Q_EMIT plugChosen(qs(m_open.build().plugs[static_cast<size_t>(row)].id));
    });
}

void PlugLedger::record(const char *kind, bool seen)
{
    CleanEvent e;
    e.kind = kind;
    e.scope = "plug";
    e.target = m_plug;
    e.seen = seen;
    e.note = m_word->text().trimmed().toStdString();
    QString refusal;
    if (e.kind == "plug_left" && e.note.empty()) {
        refusal = tr("Say why it stays in: a blind hole, or fully visible and far from machining");
    } else if (const auto done = m_open.record(e); !done) {
        refusal = qs(done.error().message);
    } else {
        m_word->clear();
    }
    m_refusal->setText(refusal);
    m_refusal->setVisible(!refusal.isEmpty());
    setTone(m_refusal, Theme::current().hold);
}

void PlugLedger::show(const std::string &plug)
{
    m_plug = plug;
    refresh();
}

void PlugLedger::refresh()
{
    const Build &build = m_open.build();
    if (!findPlug(build.plugs, m_plug)) {
        // The first that holds is the one to begin with.
        const auto &states = m_open.cleaning().plugs;
        const auto open = std::find_if(states.begin(), states.end(),
                                       [](const PlugState &s) { return markOf(s) == Mark::Hold; });
        m_plug = open != states.end() ? open->plug : states.empty() ? "" : states.front().plug;
    }
    std::vector<RowList::Row> rows;
    int chosen = -1;
    for (size_t i = 0; i < build.plugs.size(); ++i) {
        const Plug &p = build.plugs[i];
        const PlugState &s = m_open.cleaning().plugs[i];
        const Passage *in = findPassage(build.passages, p.passage);
        rows.push_back(
            { markOf(s),
              { qs(p.name), qs(findPlugKind(p.kind)->name) + QStringLiteral(", ") + sizeOf(p),
                qs(in->name)
                    + (p.hidden() ? tr(", behind %1").arg(qs(findPlug(build.plugs, p.behind)->name))
                                  : QString()),
                qs(plugVerdict(s)) } });
        if (p.id == m_plug)
            chosen = static_cast<int>(i);
    }
    m_rows->setRows(std::move(rows));
    m_rows->choose(chosen);
    const Plug *p = findPlug(build.plugs, m_plug);
    m_title->setText(p ? tr("%1, %2").arg(qs(p->name), qs(findPlugKind(p->kind)->name))
                       : tr("No plugs are written down"));
    for (QPushButton *key : m_keys)
        key->setEnabled(p != nullptr);
    if (p)
        m_keys.back()->setEnabled(m_open.cleaning().plugs[static_cast<size_t>(chosen)].place
                                  != PlugPlace::Out);
}

PanelContent PlugLedger::panel() const
{
    PanelContent out;
    const Plug *p = findPlug(m_open.build().plugs, m_plug);
    if (!p)
        return { PanelTitle { tr("Plugs"), {} } };
    const auto i = static_cast<size_t>(p - m_open.build().plugs.data());
    const PlugState &s = m_open.cleaning().plugs[i];
    out.push_back(
        PanelTitle { tr("Plug %1").arg(qs(p->name)),
                     qs(findPlugKind(p->kind)->name) + QStringLiteral(", ") + sizeOf(*p) });
    out.push_back(PanelVerdict { markOf(s), qs(plugVerdict(s)),
                                 p->hidden() ? tr("It sits behind the outer plug. Without it oil "
                                                  "runs back to the sump and nobody sees why.")
                                             : QString() });
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("How it comes out") });
    const DrawingAdvice how = howToDraw(*p);
    for (const Phrase &line : how.steps)
        out.push_back(PanelText { qs(line) });
    for (const std::string &line : how.cautions)
        out.push_back(PanelText { qs(line), Tone::Warn });
    out.push_back(PanelHeading { tr("How it goes in") });
    out.push_back(PanelText { qs(findPlugKind(p->kind)->fitting) + u'.', Tone::Muted });
    out.push_back(PanelText { tr("Sealant: a thin smear both sides, or as little as possible. What "
                                 "squeezes out ends in the oil."),
                              Tone::Muted });
    addFields(*p, out);
    return out;
}

void PlugLedger::addFields(const Plug &plug, PanelContent &out) const
{
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("As it is") });
    OpenBuild &open = m_open;
    const auto put = [&open](const Plug &p) -> Result<void> {
        if (auto done = open.edit(PutPlug { p }); !done)
            return tl::unexpected(done.error());
        return {};
    };
    out.push_back(PanelWord { QStringLiteral("plugName"), tr("name"), qs(plug.name),
                              [plug, put](const QString &text) -> Result<void> {
                                  Plug p = plug;
                                  p.name = text.trimmed().toStdString();
                                  if (p.name.empty())
                                      return fail("", "a plug needs a name");
                                  return put(p);
                              } });
    PanelChoice kind { QStringLiteral("plugKind"), tr("kind"), {}, 0, {} };
    for (size_t k = 0; k < plugKinds().size(); ++k) {
        kind.options << qs(plugKinds()[k].name);
        if (plugKinds()[k].id == plug.kind)
            kind.current = static_cast<int>(k);
    }
    kind.chosen = [plug, put](int k) {
        Plug p = plug;
        p.kind = plugKinds()[static_cast<size_t>(k)].id;
        return put(p);
    };
    out.push_back(std::move(kind));
    out.push_back(PanelField { QStringLiteral("plugSize"), tr("diameter"), Dimension::Length, "mm",
                               1, plug.d_mm / 1e3, [plug, put](double m) {
                                   Plug p = plug;
                                   p.d_mm = std::round(m * 1e6) / 1e3;
                                   return put(p);
                               } });
    out.push_back(PanelWord { QStringLiteral("plugThread"), tr("thread"), qs(plug.thread),
                              [plug, put](const QString &text) {
                                  Plug p = plug;
                                  p.thread = text.trimmed().toStdString();
                                  return put(p);
                              } });
    // Offered only where nothing stands against it.
    if (applyEdit(open.build(), DropPlug { plug.id }))
        out.push_back(
            PanelButton { QStringLiteral("plug.drop"), tr("There is no such plug"),
                          [&open, id = plug.id] { saidIfRefused(open.edit(DropPlug { id })); } });
}

} // namespace mildpath
