#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Makes demo/harbour-fire-pump-history.mildpath: the started set after 240 hours.

Six filter cuts, an analysis of the new oil and five of oil that ran, the last two after big-end 3
began to wear unseen at about 180 hours; traces of two bores before and after finishing strokes,
blow-by before and after, noises, and the engine opened again. Everything is invented. The oil obeys
the mass balance of a mixed sump (docs/theory/evidence.md), with a laboratory's scatter; the wall is
the lower of two random surfaces.

Usage: tools/make_history_demo.py (from the project's folder)
"""
import json
import math
import random

SOURCE = "demo/harbour-fire-pump-started.mildpath"
TARGET = "demo/harbour-fire-pump-history.mildpath"
BY = "J. Moor"
OIL = "15W-40, drum 3"
SUMP_KG = 4.6 * 0.878
WEAR_FROM_H = 180.0

random.seed(20261128)


def entry(number, prefix, at, **values):
    out = {"id": f"{prefix}{number}", "by": BY, "at": at}
    out.update(values)
    return out


def counts(bright, copper, magnetic, black, pliable, largest):
    out = []
    for kind, (pleats, can) in {"bright": bright, "copper": copper, "magnetic": magnetic,
                                "black": black, "pliable": pliable}.items():
        for where, count in (("pleats", pleats), ("can", can)):
            one = {"kind": kind, "where": where, "count": count}
            if where == "pleats" and kind in largest:
                one["largest_mm"] = largest[kind]
            out.append(one)
    return out


def filter_cuts():
    rows = [
        (2, 2, "2026-03-23T09:00:00", (38, 3), (0, 0), (55, 6), (3, 0), (12, 1),
         {"bright": 0.4, "magnetic": 0.3, "pliable": 2.0}, "Running-in filter."),
        (15, 13, "2026-03-28T16:30:00", (14, 1), (0, 0), (21, 2), (2, 0), (5, 0),
         {"bright": 0.3, "magnetic": 0.2, "pliable": 1.1}, ""),
        (65, 50, "2026-05-09T11:00:00", (2, 0), (0, 0), (3, 0), (1, 0), (1, 0),
         {"bright": 0.2, "magnetic": 0.2}, ""),
        (115, 50, "2026-06-20T10:15:00", (1, 0), (0, 0), (2, 0), (1, 0), (0, 0),
         {"bright": 0.2, "magnetic": 0.1}, ""),
        (165, 50, "2026-08-01T14:40:00", (2, 0), (0, 0), (2, 0), (2, 0), (0, 0),
         {"bright": 0.2, "magnetic": 0.2}, ""),
        (215, 50, "2026-09-12T09:20:00", (9, 1), (4, 0), (3, 0), (1, 0), (0, 0),
         {"bright": 0.6, "copper": 0.4, "magnetic": 0.2}, "Copper glints under the glass."),
    ]
    return [entry(i + 1, "u", r[2], engine_hours_h=float(r[0]), filter_hours_h=float(r[1]),
                  area_cm2=400.0, counts=counts(r[3], r[4], r[5], r[6], r[7], r[8]),
                  **({"note": r[9]} if r[9] else {})) for i, r in enumerate(rows)]


# mg/kg in the new oil, and worn off in 100 h without make-up.
FRESH = {"Fe": 1, "Cr": 0, "Al": 1, "Cu": 0, "Pb": 0, "Sn": 0, "Mo": 46, "Si": 6, "Na": 4, "K": 1,
         "B": 82, "P": 1010, "Zn": 1120, "Ca": 2310, "Mg": 38}
WEAR = {"Fe": 24, "Cr": 1.8, "Al": 4.5, "Cu": 6, "Pb": 4, "Sn": 1.2, "Si": 5}
BIG_END = {"Cu": 55, "Pb": 48, "Sn": 9, "Fe": 2}


def oil_samples():
    # engine hours, oil hours, topped up (kg), date, water %, fuel %, kv40, kv100
    rows = [
        (65, 50, 0.30, "2026-05-09", 0.03, 0.4, 102.0, 13.85),
        (115, 50, 0.25, "2026-06-20", 0.03, 0.5, 101.0, 13.75),
        (165, 50, 0.35, "2026-08-01", 0.04, 0.5, 101.5, 13.80),
        (215, 50, 0.30, "2026-09-12", 0.04, 1.2, 95.0, 13.05),
        (240, 25, 0.10, "2026-10-03", 0.05, 2.6, 85.0, 11.95),
    ]
    out = [entry(1, "m", "2026-03-20T12:00:00", of="new", oil=OIL,
                 elements_mg_kg={k: float(v) for k, v in FRESH.items()}, kv40_mm2_s=105.0,
                 kv100_mm2_s=14.2)]
    for i, (engine, oil, added, day, water, fuel, kv40, kv100) in enumerate(rows):
        x = added / SUMP_KG
        thinned = (1 - math.exp(-x)) / x
        elements = {}
        for symbol, fresh in FRESH.items():
            gain = WEAR.get(symbol, 0) * oil / 100
            worn_h = max(0.0, engine - max(WEAR_FROM_H, engine - oil))
            gain += BIG_END.get(symbol, 0) * worn_h / 100
            true = fresh + gain * thinned
            elements[symbol] = max(0.0, float(round(true + random.gauss(0, 0.3 + 0.01 * true))))
        out.append(entry(i + 2, "m", f"{day}T13:00:00", of="used", oil=OIL,
                         engine_hours_h=float(engine), oil_hours_h=float(oil), oil_added_kg=added,
                         elements_mg_kg=elements, water_percent=water, fuel_percent=fuel,
                         kv40_mm2_s=kv40, kv100_mm2_s=kv100))
    return out


def smooth(values, reach):
    """Moving average over 2 reach + 1, its rms brought back to 1."""
    total = sum(values[:reach])
    out = []
    for i in range(len(values)):
        if i + reach < len(values):
            total += values[i + reach]
        if i - reach - 1 >= 0:
            total -= values[i - reach - 1]
        out.append(total)
    rms = math.sqrt(sum(v * v for v in out) / len(out))
    return [v / rms for v in out]


def wall(plateau_um, valley_um, ratio):
    """The lower of a fine surface and a coarse one that crosses it at a material ratio, with the
    lay of a 6 mm trace: a little slope and bend."""
    n, step_um = 2801, 2.0
    fine = smooth([random.gauss(0, 1) for _ in range(n)], 3)
    coarse = smooth([random.gauss(0, 1) for _ in range(n)], 7)
    # Height at which the coarse surface lies so that the two cross at the ratio.
    s = 0.841621 if ratio == 0.80 else 1.036433
    lift = (valley_um - plateau_um) * s
    z = []
    for i in range(n):
        x = i / (n - 1) - 0.5
        height = min(plateau_um * fine[i], lift + valley_um * coarse[i])
        z.append(round(height + 4.0 * x - 3.0 * x * x, 3))
    return step_um, z


def bore_traces():
    out = []
    places = ["mid stroke, thrust side", "mid stroke, off side", "top of ring travel"]
    plan = [(1, "before", 0.30, 1.7, 0.85, places), (1, "after", 0.14, 1.7, 0.85, places),
            (2, "before", 0.31, 1.6, 0.80, places[:1])]
    for bore, phase, plateau, valley, ratio, where in plan:
        for place in where:
            step, z = wall(plateau, valley, ratio)
            day = "2026-03-11" if phase == "before" else "2026-03-12"
            out.append(entry(len(out) + 1, "z", f"{day}T15:{10 + len(out)}:00", bore=bore,
                             phase=phase, place=place, source=f"bore{bore}-{phase}.csv",
                             spacing_um=step, z_um=" ".join(f"{v:g}" for v in z)))
    return out


def seal_checks():
    out = []
    for phase, day, flows in (("before", "2026-02-20", {1500: 31.0, 2200: 40.5, 3000: 52.0}),
                              ("after", "2026-04-04", {1500: 19.5, 2200: 26.0, 3000: 34.0})):
        for rpm, flow in flows.items():
            for again in (-0.02, 0.02):
                out.append(entry(len(out) + 1, "h", f"{day}T10:{10 + len(out)}:00", kind="blow_by",
                                 phase=phase, rpm=float(rpm), load_percent=50.0,
                                 flow_l_min=round(flow * (1 + again), 1), gas_temp_c=34.0,
                                 gas_absolute_kpa=100.9))
    return out


def main():
    with open(SOURCE, encoding="utf-8") as f:
        build = json.load(f)
    build["name"] = "Harbour fire-pump, 240 h"
    build["notes"] = ("Invented engine. The started set after its first season: filters cut, oil "
                      "analysed, opened again.")
    build["filter_cuts"] = filter_cuts()
    build["oil_samples"] = oil_samples()
    build["bore_traces"] = bore_traces()
    build["seal_checks"] = seal_checks()
    build["finish"] = {"values": {"valley_um3_um2": 0.12, "piston_clearance_um": 62.0,
                                  "top_ring_mm": 1.75, "second_ring_mm": 2.0, "oil_ring_mm": 4.0}}
    build["after"] = {"values": {}}
    build["symptoms"] += [
        entry(len(build["symptoms"]) + 1, "y", "2026-08-14T08:30:00", symptom="noise_other",
              there=True, sound="whine", heard="cold_idle", gone_above_rpm=1400.0,
              note="From the front, some mornings."),
        entry(len(build["symptoms"]) + 2, "y", "2026-09-26T17:10:00", symptom="tapping_warm",
              there=True, sound="tapping", heard="warm_idle", gone_above_rpm=1300.0,
              note="Rear end of the head."),
    ]
    build["openings"] = [entry(1, "n", "2026-10-05T08:00:00", engine_hours_h=240.0,
                               readings=len(build["readings"]), note="Copper in filter and oil.")]
    grown = {"big_end_2": 1.0, "big_end_3": 25.0, "main_3": 1.5}
    by_id = {r["id"]: r for r in build["readings"]}
    struck = {r.get("replaces") for r in build["readings"]}
    for stop, more in grown.items():
        for old in list(by_id.values()):
            if (old["stop"] != stop or old["method"] != "zeroed_bore_gauge"
                    or old["id"] in struck or old.get("value_um") is None):
                continue
            new = dict(old)
            new["id"] = f"r{len(build['readings']) + 1}"
            new["value_um"] = round((old["value_um"] + more + random.gauss(0, 0.7)) * 2) / 2
            new["at"] = f"2026-10-05T{9 + len(build['readings']) % 3:02d}:20:00"
            new["replaces"] = old["id"]
            build["readings"].append(new)
    build["scenarios"].append(entry(
        len(build["scenarios"]) + 1, "c", "2026-10-05T15:00:00", name="gallery feed at 7 mm",
        faults=[], changes=[{"element": "gallery_feed", "key": "d_mm", "value": 7.0}]))
    with open(TARGET, "w", encoding="utf-8") as f:
        json.dump(build, f, indent=1, ensure_ascii=False)
        f.write("\n")


if __name__ == "__main__":
    main()
