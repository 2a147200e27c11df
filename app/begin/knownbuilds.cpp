// SPDX-License-Identifier: GPL-3.0-or-later
#include "begin/knownbuilds.h"

#include "assess/figuremarks.h"
#include "checks/assessment.h"
#include "open/openbuild.h"
#include "paint/figure.h"
#include "plan/workplan.h"
#include "quantity/dates.h"
#include "storage/buildfile.h"

#include <QCoreApplication>
#include <QDateTime>
#include <QFileInfo>

namespace mildpath {
namespace {

QString words(const char *text)
{
    return QCoreApplication::translate("BeginPage", text);
}

void judge(KnownBuild &out, bool whole)
{
    const std::string now = OpenBuild::now();
    const Assessment assessment(*out.build, now.substr(0, 10));
    const CheckList &list = assessment.checks;
    out.mark = markOf(list.worst());
    constexpr qsizetype named = 2;
    QStringList places;
    for (const Check &c : list.all())
        if (c.asked && c.state == CheckState::Hold)
            if (const QString place = qs(c.place.name); !places.contains(place))
                places << place;
    if (const int holds = list.count(CheckState::Hold); holds > 0)
        out.holds
            = words("%1 hold: %2").arg(holds).arg(places.mid(0, named).join(QStringLiteral(", ")))
            + (places.size() > named ? QStringLiteral(" …") : QString());
    if (!whole)
        return;
    for (const Stop &s : out.build->engine.stops)
        out.marks[s.id] = worstMark(assessment.marksOf(s.id));
    const WorkPlan plan = planOf(*out.build, list, now);
    out.can = plan.rows.empty()
        ? words("Nothing is open")
        : words("%1 of %2 open checks can be done now").arg(plan.nowCount()).arg(plan.rows.size());
    if (const PlannedCheck *next = plan.next())
        out.next = qs(next->check->statement());
}

} // namespace

KnownBuild knownBuild(const QString &path, bool whole)
{
    KnownBuild out;
    out.path = path;
    const QFileInfo file(path);
    out.name = file.completeBaseName();
    if (!file.exists()) {
        out.trouble = words("is not there any more");
        return out;
    }
    out.saved = qs(dayText(file.lastModified().toString(u"yyyy-MM-ddTHH:mm").toStdString()));
    auto loaded = loadBuild(path.toStdString());
    if (!loaded) {
        const auto &errors = loaded.error().errors;
        out.trouble = errors.empty() ? words("cannot be read") : qs(errors.front());
        if (const QString kept = path + QStringLiteral(".bak"); QFileInfo::exists(kept))
            out.older = kept;
        return out;
    }
    out.build = std::make_shared<const Build>(std::move(loaded->build));
    out.name = qs(out.build->name);
    out.engine = qs(out.build->engine.name);
    judge(out, whole);
    return out;
}

} // namespace mildpath
