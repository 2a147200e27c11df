#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""The film of the mean load against the least film of a journal's orbit.

The program bears a rod on a steady load, a quarter of the peak gas force and the inertia. What that is
worth is worked out here without any of its code: a four-stroke's gas and inertia forces on the crankpin,
and the pin's path through a cycle by the mobility of the short bearing (Booker, "Dynamically loaded
journal bearings: mobility method of solution", 1965; its two formulas after Goenka, 1984; both from
memory). The two agree within 40 %, idling and fast, light and at full load.

    check_orbit.py SOURCE_FOLDER CLI
"""
import json
import math
import subprocess
import sys

BORE, STROKE, ROD = 0.088, 0.092, 0.150
RECIPROCATING, ROTATING = 0.75, 0.50  # kg
DIAMETER, WIDTH, CLEARANCE = 0.050, 0.020, 56e-6
AREA, CRANK = math.pi / 4 * BORE ** 2, STROKE / 2
COMPRESSION, EXPONENT, PEAK_DEG = 9.0, 1.3, 15.0
TOLERANCE = 0.4
# rev/min, peak gas pressure (bar), viscosity in the film (Pa s): 15W-40 as warm as such films are
CASES = [(800, 12, 0.0115), (3000, 15, 0.0085), (3000, 65, 0.0078), (6000, 15, 0.0060),
         (6000, 65, 0.0056), (2500, 110, 0.0080)]


def volume(theta):
    """Over the piston, of the clearance volume."""
    down = CRANK * (1 - math.cos(theta)) + ROD - math.sqrt(ROD ** 2 - (CRANK * math.sin(theta)) ** 2)
    return 1 + (COMPRESSION - 1) * down / STROKE


def gas(theta, peak):
    """Gauge pressure (Pa); 0 is the top between compression and expansion, 2 cycles of 360 degrees."""
    degrees = math.degrees(theta)
    squeezed = min(1e5, peak / 20) * (COMPRESSION / volume(theta)) ** EXPONENT
    if degrees < -180 or degrees > 180:
        return 0.0
    if degrees < -10:
        return squeezed
    at = math.radians(PEAK_DEG)
    if degrees < PEAK_DEG:
        share = 0.5 - 0.5 * math.cos(math.pi * (degrees + 10) / (PEAK_DEG + 10))
        return squeezed + share * (peak - squeezed)
    return peak * (volume(at) / volume(theta)) ** EXPONENT


def load(theta, omega, peak):
    """Of the rod on the pin, seen from the rod: along it towards the piston, and across (N)."""
    ratio = CRANK / ROD
    along = -gas(theta, peak) * AREA \
        + RECIPROCATING * CRANK * omega ** 2 * (math.cos(theta) + ratio * math.cos(2 * theta))
    fx = along + ROTATING * CRANK * omega ** 2 * math.cos(theta)
    fy = ROTATING * CRANK * omega ** 2 * math.sin(theta)
    lean = math.asin(ratio * math.sin(theta))
    return (fx * math.cos(lean) - fy * math.sin(lean), fx * math.sin(lean) + fy * math.cos(lean))


def speed_of(x, y, fx, fy, omega, viscosity):
    """Of the pin's eccentricity ratio (1/s)."""
    force = math.hypot(fx, fy)
    ux, uy = fx / force, fy / force
    xi, eta = x * ux + y * uy, -x * uy + y * ux
    slender = math.pi * (WIDTH / DIAMETER) ** 2
    room = max(1 - xi, 1e-4)
    m_xi = room ** 2.5 / slender
    m_eta = -4 * eta * room ** 1.5 / (math.pi * slender)
    k = force * (CLEARANCE / DIAMETER) ** 2 / (viscosity * WIDTH * DIAMETER)
    return (k * (m_xi * ux - m_eta * uy) - omega / 2 * y, k * (m_xi * uy + m_eta * ux) + omega / 2 * x)


def least_film(rpm, peak, viscosity):
    """Along the second of two cycles (m)."""
    omega = rpm * math.pi / 30
    x = y = 0.1
    steps = 30000
    h = 4 * math.pi / steps
    least = 1.0
    for cycle in range(2):
        for i in range(steps):
            theta = -2 * math.pi + i * h
            # Midpoint rule; the film is stiff, the step is short.
            vx, vy = speed_of(x, y, *load(theta, omega, peak), omega, viscosity)
            mx, my = x + 0.5 * h / omega * vx, y + 0.5 * h / omega * vy
            vx, vy = speed_of(mx, my, *load(theta + h / 2, omega, peak), omega, viscosity)
            x, y = x + h / omega * vx, y + h / omega * vy
            if cycle:
                least = min(least, 1 - math.hypot(x, y))
    return least * CLEARANCE / 2


def rule_film(cli, rpm, peak, viscosity):
    omega = rpm * math.pi / 30
    mean = 0.25 * peak * AREA + (0.66 * RECIPROCATING + ROTATING) * CRANK * omega ** 2
    asked = {"journal_diameter_mm": DIAMETER * 1e3, "length_mm": WIDTH * 1e3,
             "diametral_clearance_um": CLEARANCE * 1e6, "viscosity_pa_s": viscosity,
             "speed_rpm": rpm, "load_n": mean}
    out = subprocess.run([cli, "calc", "bearing-film"], input=json.dumps(asked), capture_output=True,
                         text=True, check=True)
    return json.loads(out.stdout)["min_film_um"] * 1e-6


def main():
    cli = sys.argv[2]
    wrong = 0
    for rpm, bar, viscosity in CASES:
        orbit = least_film(rpm, bar * 1e5, viscosity)
        rule = rule_film(cli, rpm, bar * 1e5, viscosity)
        off = rule / orbit - 1
        print(f"{rpm} rev/min, {bar} bar: orbit {orbit * 1e6:.2f} um, mean load {rule * 1e6:.2f} um, "
              f"{off:+.0%}")
        wrong += abs(off) > TOLERANCE
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
