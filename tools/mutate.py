#!/usr/bin/python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Changes a number of a rule and sees whether the suite notices.

Usage: mutate.py BUILD_FOLDER [--random N] [--seed S] [--factor F]

Without --random: the list below, what a careless edit would most likely touch. With it: N numbers
drawn from the rule book (table of rules, sizes and priors of faults), each made F times as large or
as small. A mutant is built, then the golden assessments and the rule book are compared and, where
those say nothing, the whole suite of the core runs. Survivors are listed; the exit code is their
number. The sources are put back in any case.
"""
import argparse
import pathlib
import random
import re
import subprocess
import sys

root = pathlib.Path(__file__).resolve().parent.parent
rules, faults = root / "core/rules/rules.cpp", root / "core/diagnose/faultkinds.cpp"

LIST = [
    "assess.needCam_pa", "assess.needLifter_pa", "assess.needTensioner_pa", "assess.needPhaser_pa",
    "assess.needTurboIdle_pa", "assess.needTurboSpeed_pa", "assess.beyondStrength_pa",
    "assess.idleEnds", "assess.modelUncertainty", "assess.likelyFactor", "assess.reliefOpenShare",
    "assess.unlikelyWidths", "assess.feedShareFine", "assess.feedShareLeast",
    "assess.rotorsBind_um", "assess.dressingWorth", "start.turning_rpm", "start.confirm_s",
    "start.silence_s", "start.belowBand_s", "start.tooHot_k", "diagnose.healthyPrior",
    "diagnose.sureEnough", "diagnose.stuckShutBy_kpa", "evidence.firstPressure_kpa",
    "fault.swarf.most", "fault.bearing_worn.most", "fault.relief_stuck_open.most",
    "fault.plug_missing.prior", "fault.feed_hole_covered.prior", "fault.shell_spun.usual",
    "fault.mains_worn.prior",
]

NUMBER = r"([-+\d.eE']+)"


def place_of(mutant):
    """File, and where in its text the number stands."""
    if not mutant.startswith("fault."):
        text = rules.read_text()
        found = re.search(r'\{ "' + re.escape(mutant) + r'",\s*' + NUMBER, text)
        return rules, found and found.span(1)
    _, fault, field = mutant.split(".")
    row = (r'\{ "' + fault + r'",\s*"[^"]*",\s*Measure::\w+,\s*' + NUMBER
           + r",[^{]*\{[^}]*\},\s*" + NUMBER + r",\s*" + NUMBER)
    found = re.search(row, faults.read_text())
    return faults, found and found.span({"most": 1, "usual": 2, "prior": 3}[field])


def survives(build, mutant, factor):
    file, span = place_of(mutant)
    if not span:
        print(f"{mutant}: stands nowhere")
        return True
    before = file.read_text()
    value = float(before[slice(*span)].replace("'", ""))
    try:
        file.write_text(before[:span[0]] + repr(value * factor) + before[span[1]:])
        made = subprocess.run(["cmake", "--build", build, "--target", "mildpath-cli"],
                              capture_output=True, text=True)
        if made.returncode:
            return False
        test = ["ctest", "--test-dir", build, "-R", "^golden$"]
        if subprocess.run(test, capture_output=True).returncode:
            return False
        subprocess.run(["cmake", "--build", build, "--target", "tests_core"], check=True,
                       capture_output=True)
        rest = ["ctest", "--test-dir", build, "--stop-on-failure", "-LE", "window"]
        return subprocess.run(rest, capture_output=True).returncode == 0
    finally:
        file.write_text(before)


def main():
    options = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    options.add_argument("build")
    options.add_argument("--random", type=int, default=0)
    options.add_argument("--seed", type=int, default=1)
    options.add_argument("--factor", type=float, default=1.25)
    o = options.parse_args()
    draw = random.Random(o.seed)
    mutants = [(m, o.factor) for m in LIST]
    if o.random:
        book = re.findall(r'\{ "([\w.]+)",\s*' + NUMBER + ",", rules.read_text())
        names = [n for n, _ in book]
        for fault in re.findall(r'\{ "(\w+)",\s*"[^"]*",\s*Measure::', faults.read_text()):
            for field in ("most", "usual", "prior"):
                file, span = place_of(f"fault.{fault}.{field}")
                if span and float(file.read_text()[slice(*span)]) != 0:
                    names.append(f"fault.{fault}.{field}")
        mutants = [(draw.choice(names), draw.choice([o.factor, 1 / o.factor]))
                   for _ in range(o.random)]
    left = []
    for i, (mutant, factor) in enumerate(mutants):
        if survives(o.build, mutant, factor):
            left.append(mutant)
            print(f"{i + 1}/{len(mutants)} {mutant} x {factor:.3g}: survives", flush=True)
    print(f"{len(left)} of {len(mutants)} survive")
    return min(len(left), 100)


sys.exit(main())
