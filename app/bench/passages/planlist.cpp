// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/passages/planlist.h"

#include "paint/figure.h"

#include <QRegularExpression>

#include <algorithm>

namespace mildpath {
namespace {

/// "Main 1 feed" and "Main 5 feed" as one: "Main 1…5 feed"; the names in full where they are not
/// alike.
QString joinedName(const QString &first, const QString &last, size_t count)
{
    const QString more = QStringLiteral(" \u2026 ");
    qsizetype same = 0;
    while (same < first.size() && same < last.size() && first[same] == last[same])
        ++same;
    // Back to where the number begins.
    qsizetype number = same;
    while (number > 0 && first[number - 1].isDigit())
        --number;
    qsizetype a = number, b = number;
    while (a < first.size() && first[a].isDigit())
        ++a;
    while (b < last.size() && last[b].isDigit())
        ++b;
    if (a > number && b > number && first.mid(a) == last.mid(b))
        return first.left(a) + QStringLiteral("\u2026") + last.mid(number);
    return count > 1 && first != last ? first + more + last : first;
}

} // namespace

PlanList::PlanList(OpenBuild &open, QWidget *parent)
    : RowList({ 0, 0.075, 0.56 }, 1, parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("planList"));
    connect(this, &RowList::picked, this, [this](int row) {
        Q_EMIT passageChosen(qs(m_lines[static_cast<size_t>(row)].passage));
    });
    connect(this, &RowList::pointed, this, [this](int row) { show(row >= 0 ? row : chosen()); });
}

QString PlanList::placeName(const CleaningStep &s) const
{
    if (!s.out)
        return qs(s.word);
    const PassageNetwork &n = m_plan->network;
    const Passage &p = n.passages()[static_cast<size_t>(s.out->passage)];
    const PassageEnd &end = p.ends[static_cast<size_t>(s.out->end)];
    if (s.out->plugged)
        return qs(endName(n, *s.out));
    const Stop *stop = m_open.build().engine.find(end.stop);
    const Passage *mate = findPassage(n.passages(), end.passage);
    if (mate)
        return tr("face to the %1").arg(qs(partName(mate->part)));
    return stop ? qs(stop->name) : qs(p.name);
}

QString PlanList::needs(const CleaningStep &s) const
{
    if (markOf(s, m_open.cleaning()) == Mark::Proven)
        return {};
    QStringList in;
    for (const int p : s.plugs)
        if (m_open.cleaning().plugs[static_cast<size_t>(p)].place != PlugPlace::Out)
            in << qs(m_plan->network.plugs()[static_cast<size_t>(p)].name);
    return in.isEmpty() ? QString() : tr("; %1 out first").arg(in.join(QStringLiteral(", ")));
}

void PlanList::refresh(const std::string &part)
{
    const Build &now = m_open.build();
    if (!m_build || m_build->passages != now.passages || m_build->plugs != now.plugs
        || m_build->events != now.events || m_build->choices != now.choices) {
        auto build = std::make_unique<const Build>(now);
        m_plan = std::make_unique<BuildPlan>(cleaningPlanOf(*build));
        m_build = std::move(build);
    }
    makeLines(part);
    addLeft(part);
    std::vector<Row> rows;
    for (const Line &l : m_lines)
        rows.push_back({ l.mark, { l.number, l.what, l.how } });
    setRows(std::move(rows));
    setAccessibleName(m_headline);
}

void PlanList::makeLines(const std::string &part)
{
    m_lines.clear();
    const PassageNetwork &n = m_plan->network;
    int pulls = 0, flushes = 0, number = 0;
    QStringList first;
    int open = 0;
    std::string stopBefore;
    for (size_t i = 0; i < m_plan->plan.steps.size(); ++i) {
        const CleaningStep &s = m_plan->plan.steps[i];
        const Passage &in = n.passages()[static_cast<size_t>(s.in.passage)];
        if (in.part != part)
            continue;
        ++(s.flush ? flushes : pulls);
        ++number;
        const Stop *stop = m_open.build().engine.find(in.stop);
        const std::string kind(stop ? wordOf(stop->kind) : "");
        const QString to = placeName(s);
        const Mark mark = markOf(s, m_open.cleaning());
        open += mark != Mark::Proven;
        for (const int plug : s.plugs) {
            const QString plugName = qs(n.plugs()[static_cast<size_t>(plug)].name);
            if (mark != Mark::Proven && !first.contains(plugName)
                && m_open.cleaning().plugs[static_cast<size_t>(plug)].place != PlugPlace::Out)
                first << plugName;
        }
        const QString how = s.flush
            ? tr("flush with solvent%1").arg(needs(s))
            : tr("brush %1, solvent%2").arg(inWords(asLength(s.brush_mm, 0)), needs(s));
        if (kind == stopBefore && joinToLast(i, mark, number))
            continue;
        stopBefore = kind;
        const QString name = s.in.plugged
            ? qs(endName(n, s.in)) + QStringLiteral(", ") + qs(in.name)
            : qs(in.name);
        const bool arrow = s.out || s.word.starts_with("into ");
        m_lines.push_back({ mark,
                            QString::number(number),
                            name
                                + (arrow ? QStringLiteral(" \u2192 ")
                                           + QString(to).remove(QStringLiteral("into "))
                                         : QStringLiteral(", ") + to),
                            how,
                            { i },
                            in.id });
    }
    m_headline = pulls + flushes == 0
        ? tr("Nothing to clean is written down for this part")
        : tr("Cleaning plan: %1, %2")
                .arg(QStringList { pulls > 0 ? counted(pulls, tr("brush pass"), tr("brush passes"))
                                             : QString(),
                                   flushes > 0 ? counted(flushes, tr("flush"), tr("flushes"))
                                               : QString() }
                         .filter(QRegularExpression(QStringLiteral(".")))
                         .join(tr(" and ")),
                     open == 0 ? tr("all proven") : tr("%1 still to prove").arg(open))
            + (first.isEmpty() ? QString()
                               : tr("; first out: %1").arg(first.join(QStringLiteral(", "))));
}

/// Pulls that are alike stand on one line: one brush, one way out, one mark, no plug to draw.
bool PlanList::joinToLast(size_t step, Mark mark, int number)
{
    if (m_lines.empty() || m_lines.back().steps.empty() || m_lines.back().mark != mark)
        return false;
    Line &line = m_lines.back();
    const CleaningStep &s = m_plan->plan.steps[step];
    const CleaningStep &first = m_plan->plan.steps[line.steps.front()];
    if (s.flush || first.flush || first.brush_mm != s.brush_mm
        || first.out.has_value() != s.out.has_value() || first.word != s.word
        || !first.plugs.empty() || !s.plugs.empty())
        return false;
    line.steps.push_back(step);
    const auto nameOf = [&](const CleaningStep &of) {
        return qs(m_plan->network.passages()[static_cast<size_t>(of.in.passage)].name);
    };
    const size_t count = line.steps.size();
    line.what = joinedName(nameOf(first), nameOf(s), count)
        + (s.out || s.word.starts_with("into ") ? QStringLiteral(" \u2192 ") : QStringLiteral(", "))
        + joinedName(placeName(first), placeName(s), count).remove(QStringLiteral("into "));
    line.number = QString::number(number - static_cast<int>(count) + 1) + QStringLiteral("\u2013")
        + QString::number(number);
    line.how = tr("%1 passes, brush %2").arg(count).arg(inWords(asLength(s.brush_mm, 0)));
    return true;
}

void PlanList::addLeft(const std::string &part)
{
    const PassageNetwork &n = m_plan->network;
    for (const LeftLength &l : m_plan->plan.left) {
        const Passage &p = n.passages()[static_cast<size_t>(l.length.passage)];
        if (p.part != part)
            continue;
        m_lines.push_back(
            { markOf(m_open.cleaning().passages[static_cast<size_t>(l.length.passage)]),
              QStringLiteral("\u2013"),
              tr("%1, %2 not reached").arg(qs(p.name), inWords(asLength(l.length.length_mm(), 0))),
              qs(l.why),
              {},
              p.id });
    }
}

void PlanList::choosePassage(const std::string &passage)
{
    const auto passageOf
        = [&](int i) { return m_plan->network.passages()[static_cast<size_t>(i)].id; };
    for (size_t i = 0; i < m_lines.size(); ++i) {
        const Line &l = m_lines[i];
        for (size_t k = 0; k < l.steps.size(); ++k) {
            const CleaningStep &s = m_plan->plan.steps[l.steps[k]];
            if (s.flush && passageOf(s.lengths.front().passage) != passage)
                continue;
            if (std::none_of(s.lengths.begin(), s.lengths.end(),
                             [&](const Length &x) { return passageOf(x.passage) == passage; }))
                continue;
            choose(static_cast<int>(i));
            Q_EMIT stepShown(static_cast<int>(l.steps[k]), firstNumber(l) + static_cast<int>(k));
            return;
        }
        if (l.steps.empty() && l.passage == passage) {
            choose(static_cast<int>(i));
            Q_EMIT stepShown(-1, 0);
            return;
        }
    }
    choose(-1);
    Q_EMIT stepShown(-1, 0);
}

int PlanList::firstNumber(const Line &line)
{
    return line.number.section(QStringLiteral("\u2013"), 0, 0).toInt();
}

void PlanList::show(int line)
{
    const Line *l = line >= 0 ? &m_lines[static_cast<size_t>(line)] : nullptr;
    const bool any = l && !l->steps.empty();
    Q_EMIT stepShown(any ? static_cast<int>(l->steps.front()) : -1, any ? firstNumber(*l) : 0);
}

} // namespace mildpath
