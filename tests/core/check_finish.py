#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Bore finish, wear by used oil and compared counts, written from their definitions a second time
(direct sums, a differential equation walked in small steps, exact fractions) and held against
mildpath-cli on random input.

Usage: check_finish.py PROJECT_FOLDER MILDPATH_CLI
"""
import json
import math
import random
import subprocess
import sys
from fractions import Fraction
from statistics import NormalDist

NORMAL = NormalDist()


def calculate(cli, name, values):
    done = subprocess.run([cli, "calc", name], input=json.dumps(values), capture_output=True,
                          text=True, check=False)
    if done.returncode != 0:
        raise SystemExit(f"{name}: {done.stderr}")
    return json.loads(done.stdout)


def mean_line(z, dx, lc):
    """Gaussian weights over one cut-off either way, each mean over the weights on the trace."""
    a = math.sqrt(math.log(2) / math.pi)
    reach = int(math.floor(lc / dx + 1e-9))
    w = [math.exp(-math.pi * (j * dx / (a * lc)) ** 2) for j in range(reach + 1)]
    out = []
    for i in range(len(z)):
        above = below = 0.0
        for k in range(max(0, i - reach), min(len(z), i + reach + 1)):
            above += w[abs(k - i)] * z[k]
            below += w[abs(k - i)]
        out.append(above / below)
    return out


def roughness(z, dx, lc, how):
    if how == "none":
        mean = sum(z) / len(z)
        return [v - mean for v in z]
    line = mean_line(z, dx, lc)
    if how == "two_step":
        line = mean_line([max(v, m) for v, m in zip(z, line)], dx, lc)
    drop = int(math.floor(0.5 * lc / dx + 1e-9))
    return [v - m for v, m in zip(z, line)][drop:len(z) - drop]


def amplitudes(r, dx, lc, how):
    mean = sum(r) / len(r)
    ra = sum(abs(v - mean) for v in r) / len(r)
    rq = math.sqrt(sum((v - mean) ** 2 for v in r) / len(r))
    if how == "none":
        return ra, rq, max(r) - min(r), 1
    sections = max(1, int(math.floor((len(r) - 1) * dx / lc + 1e-9)))
    points = round(lc / dx)
    parts = [r[k * points:(k + 1) * points] for k in range(sections)]
    return ra, rq, sum(max(p) - min(p) for p in parts) / sections, sections


def core(r):
    z = sorted(r, reverse=True)
    n = len(z)
    k = round(0.4 * n)
    drops = [z[i] - z[i + k] for i in range(n - k)]
    i = drops.index(min(drops))
    xs = [(j + 0.5) / n for j in range(i, i + k + 1)]
    zs = z[i:i + k + 1]
    mx, mz = sum(xs) / len(xs), sum(zs) / len(zs)
    slope = sum((x - mx) * (v - mz) for x, v in zip(xs, zs)) / sum((x - mx) ** 2 for x in xs)
    c1, c2 = mz - slope * mx, mz + slope * (1 - mx)
    tol = 1e-9 * (z[0] - z[-1])
    mr1 = sum(v > c1 + tol for v in z) / n
    low = sum(v < c2 - tol for v in z) / n
    a1 = sum(max(v - c1, 0) for v in z) / n
    a2 = sum(max(c2 - v, 0) for v in z) / n
    return {"c1": c1, "c2": c2, "rk_um": c1 - c2, "rpk_um": 2 * a1 / mr1 if mr1 else 0,
            "rvk_um": 2 * a2 / low if low else 0, "mr1_percent": 100 * mr1,
            "mr2_percent": 100 * (1 - low), "vo_um3_um2": a2, "vo_mm3_cm2": a2 / 10}


def at_one_percent(r):
    z = sorted(r, reverse=True)
    place = 0.01 * len(z) - 0.5
    i = int(place)
    return z[i] + (z[i + 1] - z[i]) * (place - i)


def line(s, z):
    ms, mz = sum(s) / len(s), sum(z) / len(z)
    slope = sum((a - ms) * (b - mz) for a, b in zip(s, z)) / sum((a - ms) ** 2 for a in s)
    return mz - slope * ms, slope


def bent_error(s, z, s0):
    """Squared error of the best p + q s + c max(0, s - s0), by Gauss on the normal equations."""
    rows = [(1.0, a, max(0.0, a - s0)) for a in s]
    m = [[sum(r[i] * r[j] for r in rows) for j in range(3)]
         + [sum(r[i] * b for r, b in zip(rows, z))] for i in range(3)]
    for i in range(3):
        for j in range(i + 1, 3):
            f = m[j][i] / m[i][i]
            m[j] = [x - f * y for x, y in zip(m[j], m[i])]
    x = [0.0] * 3
    for i in (2, 1, 0):
        x[i] = (m[i][3] - sum(m[i][j] * x[j] for j in range(i + 1, 3))) / m[i][i]
    return sum((b - sum(c * v for c, v in zip(x, r))) ** 2 for r, b in zip(rows, z))


def plateau(r):
    z = sorted(r, reverse=True)
    n = len(z)
    quantiles = [NORMAL.inv_cdf((i + 0.5) / n) for i in range(n)]
    reach = min(3.0, abs(NORMAL.inv_cdf(5 / n)))
    grid = [-reach + 2 * reach * i / 240 for i in range(241)]
    heights, k = [], 0
    for s in grid:
        while k + 2 < n and quantiles[k + 1] < s:
            k += 1
        t = (s - quantiles[k]) / (quantiles[k + 1] - quantiles[k])
        heights.append(z[k] + t * (z[k + 1] - z[k]))
    inside = [s for s in grid if -reach + 1 - 1e-12 <= s <= reach - 1 + 1e-12]
    bend = min(inside, key=lambda s0: bent_error(grid, heights, s0))
    a = [(s, h) for s, h in zip(grid, heights) if s <= bend - 0.5 + 1e-12]
    b = [(s, h) for s, h in zip(grid, heights) if s >= bend + 0.5 - 1e-12]
    p0, q0 = line(*zip(*a))
    p1, q1 = line(*zip(*b))
    rpq, rvq = -q0, -q1
    rmq = 100 * NORMAL.cdf((p1 - p0) / (q0 - q1))
    if rpq <= 0 or rvq < 1.5 * rpq or not 10 <= rmq <= 99.5:
        return {"two_process": False, "rpq_um": -line(grid, heights)[1], "rvq_um": None,
                "rmq_percent": None}
    return {"two_process": True, "rpq_um": rpq, "rvq_um": rvq, "rmq_percent": rmq}


def wall(rng, n):
    fine = [rng.gauss(0, 1) for _ in range(n)]
    coarse = [rng.gauss(0, 1) for _ in range(n)]

    def smooth(v, reach):
        return [sum(v[max(0, i - reach):i + reach + 1]) for i in range(n)]

    return [min(0.1 * a, 0.9 + 0.5 * b) + 2e-3 * i for i, (a, b) in
            enumerate(zip(smooth(fine, 1), smooth(coarse, 2)))]


def close(got, want, rtol, what):
    if want is None or isinstance(want, bool):
        if got != want:
            raise SystemExit(f"{what} is {got}, expected {want}")
    elif abs(got - want) > rtol * abs(want) + 1e-9:
        raise SystemExit(f"{what} is {got}, expected {want}")


def check_finish(cli, rng):
    compared = 0
    for trial in range(3):
        dx, lc = rng.choice([(5.0, 800.0), (8.0, 800.0), (3.0, 250.0)])
        z = wall(rng, 800)
        for how in ("none", "gaussian", "two_step"):
            single = roughness(z, dx, lc, "none" if how == "none" else "gaussian")
            r = roughness(z, dx, lc, how)
            given = {"z_um": z, "spacing_um": dx, "cutoff_mm": lc / 1000, "filter": how}
            out = calculate(cli, "bore-finish", given)
            ra, rq, rz, sections = amplitudes(single, dx, lc, how)
            want = {"points": len(r), "sections": sections, "ra_um": ra, "rq_um": rq, "rz_um": rz}
            want.update({k: v for k, v in core(r).items() if "_" in k})
            want.update(plateau(r))
            for key, value in want.items():
                close(out[key], value, 1e-7, f"trial {trial}, {how}, {key}")
                compared += 1
            depth = 0.6 * (at_one_percent(r) - core(r)["c2"])
            cut = at_one_percent(r) - depth
            out = calculate(cli, "bore-finish", {**given, "truncate_depth_um": depth})
            limit = at_one_percent(single) - depth
            ra, rq, rz, _ = amplitudes([min(v, limit) for v in single], dx, lc, how)
            want = {"ra_um": ra, "rq_um": rq, "rz_um": rz,
                    "material_ratio_at_cut_percent": 100 * sum(v >= cut for v in r) / len(r),
                    "valley_volume_left_um3_um2":
                        sum(max(min(cut, core(r)["c2"]) - v, 0) for v in r) / len(r)}
            cut_core = core([min(v, cut) for v in r])
            want.update({k: cut_core[k] for k in ("rk_um", "rpk_um", "rvk_um", "vo_um3_um2")})
            for key, value in want.items():
                close(out[key], value, 1e-7, f"trial {trial}, {how}, cut, {key}")
                compared += 1
    return compared


def check_wear(cli, rng):
    """Metal is put in, oil leaves and comes, step by step; the calculator must find what was put."""
    for trial in range(20):
        v, hours, added = rng.uniform(2, 9), rng.uniform(10, 200), rng.uniform(0, 4)
        b, start, wear = rng.uniform(0, 40), rng.uniform(0, 60), rng.uniform(0, 20)
        c, steps = start, 20000
        dt = hours / steps

        def slope(x):
            return wear / v - added / (v * hours) * (x - b)

        for _ in range(steps):
            k1 = slope(c)
            k2 = slope(c + dt * k1 / 2)
            k3 = slope(c + dt * k2 / 2)
            c += dt * (k1 + 2 * k2 + 2 * k3 + slope(c + dt * k3)) / 6
        out = calculate(cli, "wear-rate", {"sump_mass_kg": v, "element_mg_kg": c,
                                           "baseline_mg_kg": b, "start_mg_kg": start,
                                           "hours_h": hours, "oil_added_kg": added})
        close(out["wear_rate_mg_h"], wear, 1e-6, f"wear, trial {trial}")
        close(out["rate_mg_kg_per_100h"], 100 * wear / v, 1e-6, f"rate, trial {trial}")
    return 40


def check_counts(cli, rng):
    compared = 0
    for trial in range(40):
        n1, n2 = rng.randint(0, 15), rng.randint(0, 15)
        h1, h2, a1, a2 = (rng.randint(1, 60) for _ in range(4))
        out = calculate(cli, "count-comparison",
                        {"count_1": n1, "hours_1_h": h1, "area_1_cm2": a1, "count_2": n2,
                         "hours_2_h": h2, "area_2_cm2": a2})
        n = n1 + n2
        p0 = Fraction(h2 * a2, h1 * a1 + h2 * a2)
        terms = [math.comb(n, k) * p0 ** k * (1 - p0) ** (n - k) for k in range(n + 1)]
        want = float(sum(t for t in terms if t <= terms[n2] * (1 + Fraction(1, 10 ** 7))))
        close(out["p_value"], want, 1e-9, f"p, trial {trial}")

        def bound(tail):
            """The probability at which the tail of the binomial holds 2.5 %, by halving."""
            low, high = 0.0, 1.0
            for _ in range(200):
                mid = (low + high) / 2
                ks = range(n2, n + 1) if tail == "upper" else range(0, n2 + 1)
                mass = sum(math.comb(n, k) * mid ** k * (1 - mid) ** (n - k) for k in ks)
                if (mass < 0.025) == (tail == "upper"):
                    low = mid
                else:
                    high = mid
            return low

        e = h1 * a1 / (h2 * a2)
        if n > 0 and n2 > 0:
            p = bound("upper")
            close(out["ratio_low_95"], p / (1 - p) * e, 1e-7, f"low, trial {trial}")
        if n1 > 0:
            p = bound("lower")
            close(out["ratio_high_95"], p / (1 - p) * e, 1e-7, f"high, trial {trial}")
            close(out["rate_ratio"], n2 / n1 * e, 1e-12, f"ratio, trial {trial}")
        else:
            close(out["rate_ratio"], None, 0, f"ratio, trial {trial}")
        compared += 4
    return compared


def main():
    cli = sys.argv[2]
    rng = random.Random(7)
    print(check_finish(cli, rng), "values of finish,", check_wear(cli, rng), "of wear,",
          check_counts(cli, rng), "of counts")


if __name__ == "__main__":
    main()
