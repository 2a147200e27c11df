// SPDX-License-Identifier: GPL-3.0-or-later
#include "shell/fallback.h"

#include "checks/assessment.h"
#include "open/openbuild.h"
#include "open/vectorstate.h"
#include "paint/text.h"

#include <map>

namespace mildpath {
namespace {

/// "Then to be proven again, 25 checks: brushed white (12), seen in its place (9) and more."
QString told(const CheckList &before, const CheckList &after)
{
    const auto back = fallenBack(before, after);
    if (back.empty())
        return FallBackNote::tr("No check falls back by it.");
    std::map<std::string_view, int> kinds;
    std::vector<const CheckKind *> order;
    for (const std::string &id : back)
        if (const Check *c = before.find(id); c && kinds[c->kind->id]++ == 0)
            order.push_back(c->kind);
    constexpr size_t named = 3;
    QStringList parts;
    for (size_t i = 0; i < std::min(named, order.size()); ++i)
        parts << QStringLiteral("%1 (%2)")
                     .arg(qs(order[i]->statement).section(u':', 0, 0))
                     .arg(kinds[order[i]->id]);
    QString out
        = FallBackNote::tr("Then to be proven again, %1: %2")
              .arg(counted(back.size(), FallBackNote::tr("check"), FallBackNote::tr("checks")),
                   parts.join(QStringLiteral(", ")));
    if (order.size() > named)
        out += FallBackNote::tr(" and more");
    return out + u'.';
}

} // namespace

FallBackNote::FallBackNote(OpenBuild &open, const QString &name, QWidget *parent)
    : QLabel(parent)
    , m_open(open)
{
    setObjectName(name);
    setWordWrap(true);
    setFont(textFont(TextSize::Small));
    hide();
}

void FallBackNote::propose(std::vector<Edit> edits)
{
    const auto build = m_open.document();
    if (edits == m_edits && build == m_of)
        return;
    m_edits = std::move(edits);
    m_of = build;
    m_background.giveUp();
    hide();
    if (m_edits.empty())
        return;
    m_background.ask(
        [build, before = m_open.sharedAssessment(), edits = m_edits,
         today = OpenBuild::now().substr(0, 10)](Progress &) -> QString {
            clearVectorState();
            Build after = *build;
            for (const Edit &e : edits) {
                auto done = applyEdit(after, e);
                if (!done)
                    return {}; // the button says why
                after = std::move(*done);
            }
            return told(before->checks, Assessment(after, today).checks);
        },
        [this](const QString &text) {
            setText(text);
            setTone(this, Theme::current().lookAgain);
            setVisible(!text.isEmpty());
        });
}

} // namespace mildpath
