#!/usr/bin/python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""The nine rules of state a second time, in plain Python, against the program's own, on random
half-done engines; and what must hold of any of them.

Usage: check_checks.py PROJECT_FOLDER MILDPATH_CLI [BUILDS_EACH [SEED]]

Every template with every job, some builds each. What the program lays onto a check (evidence, what
comes first, signatures and whether they are void) is taken from `checks --evidence`; what it comes to
is worked out here.
"""
import concurrent.futures
import json
import math
import pathlib
import random
import subprocess
import sys
import tempfile

root, cli = pathlib.Path(sys.argv[1]), sys.argv[2]
each = int(sys.argv[3]) if len(sys.argv) > 3 else 5
seed = int(sys.argv[4]) if len(sys.argv) > 4 else 20260301
JOBS = "NFRSBDO"
CLOSING = {"plugin", "torq", "pan", "oilin"}
OIL = {"press", "seelif", "seeroc", "seejet"}
TOLD = {"job", "find", "spread", "shell"}  # rest on more than their own evidence
GATES = ["turn", "fire", "load", "handover"]
ORDER = ["proven", "signed_off", "not_done", "look_again", "hold"]
KINDS = ["clean", "clr", "jrnl", "bore", "bush", "wash", "plugin", "plugseen", "plugout", "card", "tang",
         "crush", "capway", "torq", "turns", "pan", "panfit", "kring", "kgap", "oilin", "solved", "press",
         "seelif", "seeroc", "watch", "fire", "hidle", "final", "feed", "lway", "newpart", "rfree"]
ACTS = ["filed", "painted", "taken_off", "opened", "drained", "replaced", "worked_beside", "dropped"]


def limits(e):
    margins = []
    if e.get("least") is not None:
        margins.append(e["value"] - e["least"])
    if e.get("most") is not None:
        margins.append(e["most"] - e["value"])
    return min(margins) if margins else None


def of_figure(e):
    margin, u = limits(e), e["expanded"]
    if margin is None:
        return "unsure"
    tiny = 1e-9 * (1 + abs(e["value"]))
    if margin < -u - tiny:
        return "no"
    return "yes" if margin >= -tiny and margin >= u - tiny else "unsure"


def said(e):
    return of_figure(e) if e["says"] == "figure" else e["says"]


def disagree(a, b):
    if "value" in a and "value" in b:
        return abs(a["value"] - b["value"]) > math.hypot(a["expanded"], b["expanded"]) + 1e-9
    return {said(a), said(b)} == {"yes", "no"}


def evident(timeline):
    """Rules 2 to 7."""
    last = broken = aged = None
    beside = {}
    for e in timeline:
        if e["says"] in ("yes", "no", "unsure", "figure"):
            beside.pop((e["by"], e["means"]), None)
            beside[(e["by"], e["means"])] = e
            last, broken, aged = e, None, None
            continue
        beside = {}
        if e["says"] == "ages":
            if last and not broken:
                aged = e
        elif e["says"] == "breaks" or last:
            broken = e
    if broken:
        return "no"
    if not last:
        return "none"
    if said(last) == "no":
        return "no"
    if aged or any(disagree(b, last) for b in beside.values()):
        return "unsure"
    return said(last)


def needed(cls, check, e, alone):
    if cls == "!":
        return (1 if alone else 2) if check["computed"] and e == "unsure" else None
    return (1 if alone else 2) if cls == "2" else 1


def states(told):
    """Rules 1, 8 and 9, closing checks and signatures."""
    by_id = {c["id"]: c for c in told["checks"]}
    done = {}

    def settle(check):
        if check["id"] in done:
            return done[check["id"]]
        done[check["id"]] = "not_done"
        before = [(by_id[i], settle(by_id[i])) for i in check["after"]]
        e = check["evident"] if check["kind"] in TOLD else evident(check["evidence"])
        if check["kind"] not in TOLD and check["computed"] and e == "yes":
            if any(state not in ("proven", "signed_off") for c, state in before):
                e = "none"
        if check["kind"] in CLOSING and e == "yes":
            if any(state in ("not_done", "look_again", "hold") for c, state in before):
                e = "unsure"
        cls = check["class"]
        state = {"yes": "proven", "unsure": "look_again", "no": "hold", "none": "not_done"}[e]
        if state != "proven" and check["asked"]:
            n = needed(cls, check, e, told["alone"])
            people = []
            for s in check["signatures"]:
                if not s["void"] and s["by"] not in people:
                    people.append(s["by"])
            maker = check["evidence"][-1]["by"] if check["evidence"] else ""
            if n and len(people) >= n and (n < 2 or any(p != maker for p in people)):
                state = "signed_off"
        if check["kind"] in OIL and e == "no":
            assert cls == "!", check["id"]
        done[check["id"]] = state
        return state

    return {c["id"]: settle(c) for c in told["checks"]}


def gates(told):
    out = {}
    for i, gate in enumerate(GATES):
        shut = [c for c in told["checks"]
                if c["asked"] and GATES.index(c["gate"]) <= i and c["state"] in ORDER[2:]
                and (c["class"] != "0" or c["state"] == "hold")]
        out[gate] = {"open": not shut, "open_checks": len(shut),
                     "holds": sum(c["state"] == "hold" for c in shut)}
    return out


def ask(path):
    run = subprocess.run([cli, "checks", str(path), "--all", "--json", "--evidence", "--today", "2026-04-01"],
                         capture_output=True, text=True)
    assert run.returncode in (0, 1), run.stderr
    return json.loads(run.stdout)


def half_done(template, job, rng):
    """A build somebody is in the middle of."""
    build = json.loads(template.read_text())
    stops = [s["id"] for s in build["engine"]["stops"]]
    build["job"] = {"kinds": [job], "scope": rng.sample(stops, 3), "alone": rng.random() < 0.3,
                    "by": "A", "at": "2026-03-01T08:00:00"}
    build["people"] = [{"name": n} for n in "ABC"]
    clock = iter(f"2026-03-{2 + i // 20:02d}T{8 + i % 10:02d}:{i % 60:02d}:00" for i in range(500))
    entries, acts = [], []
    for _ in range(rng.randrange(10, 70)):
        if rng.random() < 0.85:
            entry = {"kind": rng.choice(KINDS), "places": [], "by": rng.choice("ABC"), "at": next(clock),
                     "says": rng.choices(["yes", "no", "none"], [10, 2, 1])[0]}
            if rng.random() < 0.5:
                entry["seen_by"] = rng.choice("ABC")
            if rng.random() < 0.5:
                entry["means"] = rng.choice(["camera", "paper", "wire", "photo"])
            if entry["kind"] in ("clr", "bush") and rng.random() < 0.6:
                entry["value"], entry["u"] = rng.uniform(20, 80), rng.choice([0, 1, 3])
                entry["says"] = "yes"
            entries.append(entry)
        else:
            acts.append({"act": rng.choice(ACTS), "places": [rng.choice(stops + ["pan", "block", "crank"])],
                         "by": rng.choice("ABC"), "at": next(clock)})
    build["check_entries"], build["acts"] = entries, acts
    return build


def signed(build, told, rng):
    """Some of what is open is signed for, well or badly."""
    build["signoffs"] = []
    for c in told["checks"]:
        if c["asked"] and c["state"] in ORDER[2:] and rng.random() < 0.4:
            for who in rng.sample("ABCX", rng.randrange(1, 3)):
                build["signoffs"].append({"id": f"o{len(build['signoffs']) + 1}", "by": who,
                                          "at": "2026-03-31T09:00:00", "check": c["id"], "said": "",
                                          "state": c["state"],
                                          "note": rng.choice(["watched in the first hour of running", "so"])})
    return build


def one(args):
    template, job, number = args
    rng = random.Random(f"{seed} {template.name} {job} {number}")
    build = half_done(template, job, rng)
    with tempfile.TemporaryDirectory() as folder:
        path = pathlib.Path(folder) / "build.mildpath"
        path.write_text(json.dumps(build))
        first = ask(path)
        path.write_text(json.dumps(signed(build, first, rng)))
        told = ask(path)
        mine = states(told)
        wrong = [f"{c['id']}: {c['state']}, here {mine[c['id']]}" for c in told["checks"] if c["state"] != mine[c["id"]]]
        if told["gates"] != gates(told):
            wrong.append(f"gates {told['gates']}, here {gates(told)}")
        # Adding a yes by somebody who sees worsens no check; taking a yes away opens no gate.
        open_checks = [c for c in told["checks"] if c["asked"] and not c["computed"] and c["kind"] not in TOLD
                       and c["kind"] not in CLOSING and c["state"] in ORDER[2:]]
        if open_checks:
            pick = rng.choice(open_checks)
            more = json.loads(json.dumps(build))
            more["check_entries"].append({"kind": pick["kind"], "places": [pick["place"]], "says": "yes", "by": "A",
                                          "seen_by": "B", "means": "camera", "at": "2026-03-31T10:00:00"})
            path.write_text(json.dumps(more))
            after = next(c for c in ask(path)["checks"] if c["id"] == pick["id"])
            if ORDER.index(after["state"]) > ORDER.index(pick["state"]):
                wrong.append(f"a yes made {pick['id']} {after['state']} from {pick['state']}")
        yes = [i for i, e in enumerate(build["check_entries"]) if e["says"] == "yes"]
        if yes:
            less = json.loads(json.dumps(build))
            del less["check_entries"][rng.choice(yes)]
            path.write_text(json.dumps(less))
            after = ask(path)["gates"]
            for gate in GATES:
                if after[gate]["open"] and not told["gates"][gate]["open"]:
                    wrong.append(f"less evidence opened the gate {gate}")
    return f"{template.stem}, job {job}, build {number}", wrong


def main():
    work = [(t, j, n) for t in sorted((root / "templates").glob("*.json")) for j in JOBS for n in range(each)]
    bad = 0
    with concurrent.futures.ThreadPoolExecutor(2) as pool:
        for name, wrong in pool.map(one, work):
            for line in wrong[:3]:
                print(f"{name}: {line}")
            bad += bool(wrong)
    print(f"{len(work)} builds, seed {seed}: {bad} differ")
    return 1 if bad else 0


sys.exit(main())
