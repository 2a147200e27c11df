#!/usr/bin/python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Golden assessments and the rule book: what the command line says of every demo build, field by
field to four digits, and the numbers of the rules, against what was looked at and kept.

Usage: check_golden.py PROJECT_FOLDER MILDPATH_CLI [--write]

With --write the kept files are made anew and every difference is shown: read it before it is
committed. Nothing else writes them.
"""
import datetime
import json
import math
import pathlib
import subprocess
import sys

root, cli = pathlib.Path(sys.argv[1]), sys.argv[2]
write = "--write" in sys.argv
kept = root / "tests" / "data" / "golden"
begin, end = "<!-- mildpath-cli rules --markdown -->\n", "<!-- end -->\n"
verbs = ("assess", "start", "after")
differences = 0


def rounded(value):
    """Numbers to four digits; texts, keys and the rest as they are."""
    if isinstance(value, float):
        return float(f"{value:.4g}")
    if isinstance(value, list):
        return [rounded(v) for v in value]
    if isinstance(value, dict):
        return {k: rounded(v) for k, v in value.items()}
    return value


def flat(value, place=""):
    """Every field with its place."""
    if isinstance(value, dict):
        for k, v in value.items():
            yield from flat(v, f"{place}/{k}")
    elif isinstance(value, list):
        yield f"{place}/length", len(value)
        for i, v in enumerate(value):
            yield from flat(v, f"{place}/{i}")
    else:
        yield place, value


def same(a, b):
    """Equal, or one unit of the fourth digit apart: a rounding that tipped over."""
    if isinstance(a, (int, float)) and isinstance(b, (int, float)) and not isinstance(a, bool):
        most = max(abs(a), abs(b))
        return abs(a - b) <= (1.01 * 10 ** (math.floor(math.log10(most)) - 3) if most else 0)
    return a == b


def said(verb, build):
    run = subprocess.run([cli, verb, str(build), "--json"], capture_output=True, text=True)
    if run.returncode not in (0, 1):
        sys.exit(f"{verb} {build.name}: {run.stderr}")
    return rounded(json.loads(run.stdout))


def tell(name, place, before, now):
    global differences
    differences += 1
    if differences <= 60:
        print(f"{name} {place}: {before} -> {now}")


for build in sorted((root / "demo").glob("*.mildpath")):
    now = {verb: said(verb, build) for verb in verbs}
    file = kept / (build.stem + ".json")
    before = json.loads(file.read_text()) if file.exists() else {}
    old, new = dict(flat(before)), dict(flat(now))
    for place in dict.fromkeys([*old, *new]):
        if not same(old.get(place), new.get(place)):
            tell(build.stem, place, old.get(place), new.get(place))
    if write:
        kept.mkdir(exist_ok=True)
        file.write_text(json.dumps(now, ensure_ascii=False, separators=(",", ":")) + "\n")

# The clocks of the demos can be those of somebody at work: steps in their order, oil seen to come
# before the engine ran or while it did, a run as long as its trace.
for build in sorted((root / "demo").glob("*.mildpath")):
    d = json.loads(build.read_text())
    steps = [(s["at"], s["step"]) for s in d.get("card_steps", [])]
    if steps != sorted(steps, key=lambda s: s[0]):
        tell(build.stem, "card_steps", "in order", steps)
    at = {step: datetime.datetime.fromisoformat(t) for t, step in steps}
    for run in d.get("run_logs", []):
        if run["kind"] == "start" and "stopped" in at:
            lasts = max(p[0] for p in run["trace"])
            by_clock = (at["stopped"] - at["start"]).total_seconds()
            if abs(by_clock - lasts) > 60:
                tell(build.stem, "run_logs/start", f"{lasts:.0f} s of trace", f"{by_clock:.0f} s by the clock")
    for flow in d.get("flows", []):
        if "stopped" in at and datetime.datetime.fromisoformat(flow["at"]) > at["stopped"]:
            tell(build.stem, "flows", "seen before the engine stopped", flow["at"])

page = root / "docs" / "theory" / "rules.md"
text = page.read_text()
book = subprocess.run([cli, "rules", "--markdown"], capture_output=True, text=True, check=True).stdout
head, rest = text.split(begin)
written, tail = rest.split(end)
for old, new in zip(written.splitlines(), book.splitlines()):
    if old != new:
        tell("rules.md", "", old, new)
if len(written.splitlines()) != len(book.splitlines()):
    tell("rules.md", "rows", len(written.splitlines()), len(book.splitlines()))
if write:
    page.write_text(head + begin + book + end + tail)
    print(f"{differences} differences written")
    sys.exit(0)
if differences:
    print(f"{differences} differences; if they are meant: scripts/renew-golden, and read what it shows")
    sys.exit(1)
print("golden assessments and rule book agree")
