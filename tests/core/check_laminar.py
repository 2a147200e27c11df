#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""The passages of two templates as a laminar network, solved here without any of the program's code.

Every passage of the template from the gallery on is kept with its bore and length, without its loss
coefficient; bearings and lifters become plain annuli. With thick cold oil all of it is laminar, so
the pressures follow from one linear system: Hagen and Poiseuille for pipes, the thin annulus, plane
slots for the pump's slip (textbook). Walther's viscosity line is worked out here too. The program
must agree within 0.5 %.

    check_laminar.py SOURCE_FOLDER CLI
"""
import json
import math
import subprocess
import sys
import tempfile

KV40, KV100, RHO15 = 105.0, 14.2, 878.0
OIL_C, RPM = 40.0, 100.0


def viscosity(celsius):
    def w(kv):
        return math.log10(math.log10(kv + 0.7))
    b = (w(KV40) - w(KV100)) / (math.log10(373.15) - math.log10(313.15))
    a = w(KV40) + b * math.log10(313.15)
    kv = 10 ** (10 ** (a - b * math.log10(celsius + 273.15))) - 0.7
    return kv * 1e-6 * RHO15 * (1 - 0.0007 * (celsius - 15))


def laminar(template):
    """The template's passages as pipes and annuli, with its pump and nothing else."""
    out = []
    for e in template["circuit"]["elements"]:
        if e["from"] == "inlet" or e["to"] in ("inlet", "inlet_tube"):
            continue
        keep = {k: e[k] for k in ("id", "from", "to")}
        if e["type"] in ("pipe", "crank_drilling"):
            keep.update(type="pipe", d_mm=e["d_mm"], l_mm=e["l_mm"], k=0)
        elif e["type"] == "film_bearing":
            keep.update(type="annulus", d_mm=e["d_mm"], clearance_um=e["clearance_um"],
                        l_mm=e["width_mm"] / 2, ecc=0)
        elif e["type"] == "annulus":
            keep.update({k: e[k] for k in ("d_mm", "clearance_um", "l_mm")}, type="annulus", ecc=0,
                        count=e.get("count", 1))
        elif e["type"] in ("orifice", "check", "thermostat", "media") and e["to"] != "sump":
            keep.update(type="pipe", d_mm=e.get("d_mm", 12), l_mm=max(20, e.get("l_mm", 0)), k=0)
        else:
            continue  # relief, bypass, jets: what is not laminar
        out.append(keep)
    pump = next(e for e in template["circuit"]["elements"] if e["type"] == "pump")
    pump = dict(pump, **{"from": "sump", "inlet_port_mm2": 0})
    fed = {pump["to"]}
    grown = True
    while grown:  # only what the pump reaches
        grown = False
        for e in out:
            if e["from"] in fed and e["to"] not in fed:
                fed.add(e["to"])
                grown = True
    return pump, [e for e in out if e["from"] in fed]


def solve(pump, elements):
    """Node pressures (Pa) of the linear network by elimination."""
    mu = viscosity(OIL_C)
    nodes = sorted(({e["from"] for e in elements} | {e["to"] for e in elements}) - {"sump"})
    at = {n: i for i, n in enumerate(nodes)}
    size = len(nodes)
    a = [[0.0] * (size + 1) for _ in range(size)]
    for e in elements:
        d, length = e["d_mm"] * 1e-3, e["l_mm"] * 1e-3
        if e["type"] == "pipe":
            g = math.pi * d ** 4 / (128 * mu * length)
        else:
            gap = e["clearance_um"] * 0.5e-6
            g = e.get("count", 1) * math.pi * d * gap ** 3 / (12 * mu * length)
        for here, there in ((e["from"], e["to"]), (e["to"], e["from"])):
            if here in at:
                a[at[here]][at[here]] += g
                if there in at:
                    a[at[here]][at[there]] -= g
    warm = viscosity(OIL_C + 2)
    b = pump["rotor_length_mm"] * 1e-3
    slip = (2 * b * (pump["tip_clearance_um"] * 1e-6) ** 3 / (12 * warm * pump["tip_land_mm"] * 1e-3)
            + 2 * pump["end_path_width_mm"] * 1e-3 * (pump["end_clearance_um"] * 0.5e-6) ** 3
            / (12 * warm * pump["end_path_length_mm"] * 1e-3)
            + 2 * b * (pump["body_clearance_um"] * 0.5e-6) ** 3
            / (12 * warm * pump["body_path_length_mm"] * 1e-3))
    out = at[pump["to"]]
    a[out][out] += slip
    ecc, tip = pump.get("eccentricity_mm", 0) * 1e-3, pump.get("inner_tip_mm", 0) * 1e-3
    turn = pump.get("displacement_m3") or math.pi * b * ((tip / 2) ** 2 - (tip / 2 - 2 * ecc) ** 2)
    a[out][size] = turn * RPM / 60
    for k in range(size):
        best = max(range(k, size), key=lambda i: abs(a[i][k]))
        a[k], a[best] = a[best], a[k]
        for i in range(k + 1, size):
            f = a[i][k] / a[k][k]
            if f:
                for j in range(k, size + 1):
                    a[i][j] -= f * a[k][j]
    p = [0.0] * size
    for k in reversed(range(size)):
        p[k] = (a[k][size] - sum(a[k][j] * p[j] for j in range(k + 1, size))) / a[k][k]
    return {n: p[at[n]] for n in nodes}


def main():
    folder, cli = sys.argv[1:3]
    worst = 0.0
    for name in ("v8-dry-sump", "v12-one-cam"):
        with open(f"{folder}/templates/{name}.json", encoding="utf-8") as f:
            pump, elements = laminar(json.load(f))
        own = solve(pump, elements)
        with tempfile.NamedTemporaryFile("w", suffix=".json") as f:
            json.dump({"elements": [pump] + elements, "taps": {}}, f)
            f.flush()
            oil = json.dumps({"kv40_mm2_s": KV40, "kv100_mm2_s": KV100, "rho15_kg_m3": RHO15})
            run = subprocess.run([cli, "solve", f.name, "--rpm", str(RPM), "--oil-temp-c",
                                  str(OIL_C), "--oil", oil], capture_output=True, text=True)
        if run.returncode:
            sys.exit(f"{name}: {run.stderr}")
        theirs = json.loads(run.stdout)["node_kpa"]
        off = max(abs(theirs[n] * 1e3 / p - 1) for n, p in own.items() if p > 100)
        print(f"{name}: {len(own)} nodes, {len(elements)} passages, {min(own.values()) / 1e5:.2f} to "
              f"{max(own.values()) / 1e5:.2f} bar, largest difference {100 * off:.4f} %")
        worst = max(worst, off)
    if worst > 0.005:
        sys.exit("more than 0.5 % apart")


main()
