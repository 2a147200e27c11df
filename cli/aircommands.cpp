// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/replay.h"
#include "checks/assessment.h"
#include "command.h"
#include "quantity/json.h"
#include "storage/drivetable.h"
#include "storage/files.h"
#include "storage/passagetables.h"

#include <iostream>

namespace mildpath::cli {
namespace {

std::string mm(double m)
{
    return formatPlain(m * 1e3, 1);
}

void printTable(const Replay &r)
{
    std::vector<std::vector<std::string>> rows { { "time_s", "over_mouth_mm", "section",
                                                   "lateral_g", "longitudinal_g", "modelled" } };
    for (const ReplayMoment &m : r.moments)
        rows.push_back({ formatPlain(m.time_s, 3), mm(m.cover_m),
                         m.way == PanWay::Along ? "along" : "across", formatPlain(m.lateral_g, 3),
                         formatPlain(m.longitudinal_g, 3), m.modelled ? "yes" : "no" });
    std::cout << tableToCsv(rows);
}

Json replayJson(const Replay &r)
{
    Json out { { "slosh_period_s", r.slosh_s },   { "required_mm", r.wanted_m * 1e3 },
               { "dip_limit_mm", r.dip_m * 1e3 }, { "least_mm", r.least_m * 1e3 },
               { "least_at_s", r.leastAt_s },     { "not_modelled_share", r.notModelled },
               { "uncovered_s", r.uncovered_s },  { "short_s", r.short_s } };
    out["uncovered"] = Json::array();
    for (const Uncovered &u : r.uncovered)
        out["uncovered"].push_back(
            { { "from_s", u.from_s }, { "to_s", u.to_s }, { "least_mm", u.least_m * 1e3 } });
    return out;
}

} // namespace

int runReplay(const Options &options)
{
    if (options.words.size() != 2)
        return report({ "replay", "needs a build and a drive: FILE DRIVE.csv" }, "", BadInput);
    const std::string &driveFile = options.words[1];
    Options one = options;
    one.words.resize(1);
    const auto build = loadOnly(one);
    if (!build)
        return build.error();
    const auto text = readTextFile(driveFile);
    if (!text)
        return report(text.error(), "", ReadWriteFailed);
    const DriveImport drive = driveFromTable(*text);
    for (const Error &e : drive.errors)
        report(e, driveFile, BadInput);
    if (!drive.errors.empty())
        return BadInput;
    const auto r = replayDrive(*build, assess(*build).air, drive.moments);
    if (!r)
        return report(r.error(), options.words[0], BadInput);
    if (options.has("--csv")) {
        printTable(*r);
        return Done;
    }
    if (options.has("--json")) {
        std::cout << replayJson(*r).dump(1) << '\n';
        return Done;
    }
    const auto length = [](double m) { return asLength(m * 1e3, 1); };
    print({ "replay.slosh",
            "Averaged over one slosh of {0}; quicker than that {1} of the time, not modelled",
            { asTime(r->slosh_s, 2), asShare(r->notModelled) } });
    print(
        { "replay.least",
          "Least over the mouth {0} at {1}; required {2}, draws air below {3}",
          { length(r->least_m), asTime(r->leastAt_s, 1), length(r->wanted_m), length(r->dip_m) } });
    for (const Uncovered &u : r->uncovered)
        print({ "replay.uncovered",
                "  draws air from {0} to {1}, least {2}",
                { asTime(u.from_s, 1), asTime(u.to_s, 1), length(u.least_m) } });
    return Done;
}

} // namespace mildpath::cli
