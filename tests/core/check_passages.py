#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Cleaning plans and the reach of swarf, checked by a second implementation.

Written from the definitions alone (docs/theory/cleaning.md), not from the program: a pull is one
straight drilling entered from one open end, a flush any way between two open ends that meets no
place twice; what a brush reaches is brushed, what it does not reach and fluid passes is flushed;
fewest pulls, then fewest flushes, then fewest plugs drawn.

1. every template and demo: each step is possible, together they cover all that can be covered;
2. random small engines: the three numbers are the least that trying out everything finds;
3. the demo: boring the mains makes dirty what a search over the file's own text reaches.
"""
import itertools
import json
import os
import random
import subprocess
import sys
import tempfile

ROOT, CLI = sys.argv[1], sys.argv[2]
BRUSHES = [2, 3, 4, 5, 6, 8, 10, 12, 14, 16, 18, 20, 25, 32]
failures = []


def check(ok, *what):
    if not ok:
        failures.append(" ".join(str(w) for w in what))


def brush_for(d):
    return next((b for b in BRUSHES if b >= d), BRUSHES[-1])


class Metal:
    """Passages as pieces between points; plugs and restrictors as points with two sides."""

    def __init__(self, build):
        # A passage that is an element of the circuit has its bore there.
        bores = {e["id"]: e.get("d_mm") for e in build.get("circuit", {}).get("elements", [])}
        self.passages = {p["id"]: dict(p, d_mm=bores[p["elements"][0]]) if p.get("elements") else p
                         for p in build["passages"]}
        self.plugs = {p["id"]: p for p in build["plugs"]}
        self.parent = {}
        self.pieces = []  # (passage, from, to, node, node)
        self.gates = []  # (passage, at, plug id or None, node, node)
        self.ends = []  # (passage, end, node, plug id or None)
        for p in self.passages.values():
            self.cut(p)
        for p in self.passages.values():
            for e, end in enumerate(p["ends"]):
                if end["kind"] == "joint":
                    self.unite(self.node(p["id"], 0 if e == 0 else p["l_mm"]),
                               self.node(end["passage"], end["at_mm"]))
            for c in p.get("crossings", []):
                self.unite(self.node(p["id"], c["at_mm"]), self.node(c["passage"], c["there_mm"]))
        self.pieces = [(p, a, b, self.root(m), self.root(n)) for p, a, b, m, n in self.pieces]
        self.gates = [(p, a, g, self.root(m), self.root(n)) for p, a, g, m, n in self.gates]
        self.ends = [(p, e, self.root(n), g) for p, e, n, g in self.ends]

    @staticmethod
    def node(passage, at, side=0):
        return (passage, round(at, 3), side)

    def root(self, n):
        while self.parent.get(n, n) != n:
            n = self.parent[n]
        return n

    def unite(self, a, b):
        a, b = self.root(a), self.root(b)
        if a != b:
            self.parent[a] = b

    def cut(self, p):
        places = {0.0, p["l_mm"]}
        for q in self.passages.values():
            for e in q["ends"]:
                if e["kind"] == "joint" and e["passage"] == p["id"]:
                    places.add(e["at_mm"])
            for c in q.get("crossings", []):
                if c["passage"] == p["id"]:
                    places.add(c["there_mm"])
        places |= {c["at_mm"] for c in p.get("crossings", [])}
        sits = {q["at_mm"]: q["id"] for q in self.plugs.values() if q["passage"] == p["id"]}
        sits.update({r["at_mm"]: None for r in p.get("restrictors", [])})
        order = sorted(places | set(sits))
        for at in order:
            if at in sits:
                self.gates.append((p["id"], at, sits[at], self.node(p["id"], at, 0),
                                   self.node(p["id"], at, 1)))
        for a, b in zip(order, order[1:]):
            self.pieces.append((p["id"], a, b, self.node(p["id"], a, 1 if a in sits else 0),
                                self.node(p["id"], b, 0)))
        for e, at in ((0, 0.0), (1, p["l_mm"])):
            if p["ends"][e]["kind"] in ("hole", "plug"):
                outside = self.node(p["id"], at, 1 if e == 1 and at in sits else 0)
                self.ends.append((p["id"], e, outside, sits.get(at)))

    def outer(self, plug):
        """The plug and those in front of it."""
        out = []
        while plug and plug not in out:
            out.append(plug)
            plug = self.plugs[plug].get("behind", "")
        return set(out)

    def runs(self):
        """Straight lines: lists of (piece index, reversed), with the gates between and at the ends."""
        link = {}
        for p in self.passages.values():
            for e, end in enumerate(p["ends"]):
                if end["kind"] == "joint" and end.get("straight"):
                    q = self.passages[end["passage"]]
                    there = 0 if end["at_mm"] < q["l_mm"] / 2 else 1
                    link[p["id"], e] = (q["id"], there)
                    link[q["id"], there] = (p["id"], e)
        seen, out = set(), []
        for pid in self.passages:
            if pid in seen:
                continue
            at, side = pid, 0
            while (at, side) in link:
                at, side = link[at, side]
                side = 1 - side
            line = []
            while True:
                seen.add(at)
                own = [i for i, piece in enumerate(self.pieces) if piece[0] == at]
                line += [(i, side == 1) for i in (own if side == 0 else own[::-1])]
                if (at, 1 - side) not in link:
                    break
                at, side = link[at, 1 - side]
            out.append(line)
        return out

    def gate_between(self, near, far):
        """The gate met when going from one piece of a line to the next; False: none."""
        (i, back), (j, _) = near, far
        p, a, b, _, _ = self.pieces[i]
        if self.pieces[j][0] != p:
            return False
        at = a if back else b
        for gp, gat, plug, _, _ in self.gates:
            if gp == p and abs(gat - at) < 1e-6:
                return (plug,)
        return False

    def pull(self, line, out):
        """What one pull from the left of a line covers with these plugs out, and which it passes."""
        i, back = line[0]
        p, a, b, _, _ = self.pieces[i]
        first = (p, 1 if back else 0)
        end = next((e for e in self.ends if e[:2] == first), None)
        if end is None or (end[3] and end[3] not in out):
            return []
        covered, bores = [], []
        for k, (i, back) in enumerate(line):
            if k > 0:
                gate = self.gate_between(line[k - 1], line[k])
                if gate and (gate[0] is None or gate[0] not in out):
                    break
            passage = self.passages[self.pieces[i][0]]
            bores.append(passage["d_mm"])
            if passage.get("curved") or min(bores) < 0.6 * brush_for(max(bores)):
                break
            covered.append(i)
        return covered

    def flip(self, line):
        return [(i, not back) for i, back in reversed(line)]

    def ways(self, out, wanted):
        """Every simple way between two open ends that covers something wanted."""
        links = {}
        for i, (_, _, _, m, n) in enumerate(self.pieces):
            links.setdefault(m, []).append((n, i))
            links.setdefault(n, []).append((m, i))
        for _, _, plug, m, n in self.gates:
            if plug is None or plug in out:
                links.setdefault(m, []).append((n, None))
                links.setdefault(n, []).append((m, None))
        goal = {}
        for k, (_, _, n, _) in enumerate(self.ends):
            goal.setdefault(n, []).append(k)
        found = set()

        def go(start, node, seen, pieces):
            for k in goal.get(node, []):
                if k > start and wanted & pieces:
                    found.add(frozenset(pieces & wanted))
            for to, piece in links.get(node, []):
                if to not in seen:
                    go(start, to, seen | {to}, pieces | ({piece} if piece is not None else set()))

        for k, (_, _, n, _) in enumerate(self.ends):
            go(k, n, {n}, frozenset())
        return found

    def targets(self, out):
        """What brushes reach, and what of the rest fluid passes, with these plugs out."""
        brush = set()
        for line in self.runs():
            brush |= set(self.pull(line, out)) | set(self.pull(self.flip(line), out))
        rest = set(range(len(self.pieces))) - brush
        flush = set()
        for w in self.ways(out, rest):
            flush |= w
        return brush, flush

    def least(self, drawable):
        """(pulls, flushes, plugs) by trying everything."""
        brush, flush = self.targets(drawable)
        best = None
        for n in range(len(drawable) + 1):
            for out in itertools.combinations(sorted(drawable), n):
                out = set(out)
                if any(not self.outer(p) <= out for p in out):
                    continue
                pulls = 0
                for line in self.runs():
                    want = {i for i, _ in line} & brush
                    left, right = set(self.pull(line, out)), set(self.pull(self.flip(line), out))
                    if not want:
                        continue
                    if want <= left or want <= right:
                        pulls += 1
                    elif want <= left | right:
                        pulls += 2
                    else:
                        pulls = None
                        break
                if pulls is None:
                    continue
                ways, flushes = list(self.ways(out, flush)), None
                for k in range(len(flush) + 1):
                    if any(flush <= set().union(*c) for c in itertools.combinations(ways, k)):
                        flushes = k
                        break
                if flushes is None:
                    continue
                answer = (pulls, flushes, n)
                best = answer if best is None else min(best, answer)
        return best

    def reach(self, starts, plug_in):
        """Passages swarf gets into from some nodes."""
        nodes, touched, grown = set(starts), set(), True
        while grown:
            grown = False
            for p, _, _, m, n in self.pieces:
                if m in nodes or n in nodes:
                    touched.add(p)
                    grown |= not {m, n} <= nodes
                    nodes |= {m, n}
            for _, _, plug, m, n in self.gates:
                if (plug is None or not plug_in(plug)) and (m in nodes) != (n in nodes):
                    nodes |= {m, n}
                    grown = True
        return touched


def plan_of(build):
    with tempfile.NamedTemporaryFile("w", suffix=".mildpath", delete=False) as f:
        json.dump(build, f)
    try:
        r = subprocess.run([CLI, "plan-cleaning", f.name, "--json"], capture_output=True, text=True)
        if r.returncode != 0:
            raise RuntimeError(r.stderr)
        return json.loads(r.stdout)
    finally:
        os.unlink(f.name)


def pieces_of(metal, lengths):
    out = []
    for l in lengths:
        a, b = sorted((l["from_mm"], l["to_mm"]))
        out += [i for i, (p, x, y, _, _) in enumerate(metal.pieces)
                if p == l["passage"] and a - 1e-6 <= x and y <= b + 1e-6]
    return out


def check_plan(name, build):
    metal, plan = Metal(build), plan_of(build)
    drawable = set(metal.plugs)
    brush, flush = metal.targets(drawable)
    out, covered = set(plan["draw"]), set()
    for step in plan["steps"]:
        pieces = set(pieces_of(metal, step["lengths"]))
        check(set(step["plugs_out"]) <= out, name, "a step needs a plug the plan leaves in", step)
        if step["kind"] == "pull":
            possible = any(pieces <= set(metal.pull(line, out))
                           for run in metal.runs() for line in (run, metal.flip(run)))
            check(possible, name, "no brush can do this pull:", step)
        else:
            check(pieces & flush and any(pieces & flush == w for w in metal.ways(out, flush)), name,
                  "no way for this flush:", step)
        covered |= pieces
    check(covered >= brush | flush, name, "not all that can be reached is covered")
    left = set(pieces_of(metal, plan["left"]))
    check(left == set(range(len(metal.pieces))) - brush - flush, name, "left out wrongly")
    check(plan["minimal"], name, "the search was given up")
    check(all(l["why"] for l in plan["left"]), name, "no reason for what is left")
    return len(metal.pieces)


def random_engine(rng):
    """A gallery, perhaps in two parts, with drillings of every kind on it."""
    passages, plugs = [], []

    def plug(passage, at, behind=""):
        plugs.append({"id": f"q{len(plugs)}", "kind": "cup", "passage": passage, "at_mm": at,
                      "d_mm": 8, "behind": behind})
        return plugs[-1]["id"]

    def passage(pid, length, ends, **more):
        passages.append({"id": pid, "part": "block", "d_mm": rng.choice([4, 6, 8, 12]),
                         "l_mm": length, "ends": ends, **more})

    passage("g", 200.0, [{"kind": "hole"}, {"kind": "hole"}])
    for e, at in ((0, 0.0), (1, 200.0)):
        kind = rng.choice(["plug", "plug", "hole", "blind"])
        passages[0]["ends"][e] = {"kind": kind}
        if kind == "plug":
            outer = plug("g", at)
            if rng.random() < 0.4:
                plug("g", 15.0 if e == 0 else 185.0, outer)
    if rng.random() < 0.4:
        passages[0]["restrictors"] = [{"at_mm": rng.choice([45.0, 105.0, 150.0]), "d_mm": 1.0}]
    if rng.random() < 0.25:
        passages[0]["curved"] = True
    spots = [25.0, 60.0, 90.0, 120.0, 170.0]
    for n in range(rng.randint(1, 3)):
        far = rng.choice(["hole", "plug", "blind", "hole"])
        ends = [{"kind": "joint", "passage": "g", "at_mm": rng.choice(spots)}, {"kind": far}]
        more = {}
        if rng.random() < 0.3:
            more["restrictors"] = [{"at_mm": 20.0, "d_mm": 1.0}]
        if rng.random() < 0.2:
            more["curved"] = True
        passage(f"b{n}", 40.0, ends, **more)
        if far == "plug":
            plug(f"b{n}", 40.0)
    if rng.random() < 0.5:  # runs on in line from a branch's far end, or a ring back to the gallery
        ring = rng.random() < 0.5
        last = passages[-1]
        if last["ends"][1]["kind"] == "plug":
            plugs.pop()
        last["ends"][1] = {"kind": "blind"}
        ends = [{"kind": "joint", "passage": last["id"], "at_mm": 40.0, "straight": not ring},
                {"kind": "joint", "passage": "g", "at_mm": rng.choice(spots)} if ring
                else {"kind": "hole"}]
        if not ring:
            last["ends"][1] = {"kind": "joint", "passage": "on", "at_mm": 0.0, "straight": True}
        passage("on", 30.0, ends)
    if rng.random() < 0.4:
        passage("x", 60.0, [{"kind": rng.choice(["hole", "blind"])}, {"kind": "hole"}],
                crossings=[{"at_mm": 30.0, "passage": "g", "there_mm": rng.choice(spots)}])
    return passages, plugs


def check_random(base, count):
    rng = random.Random(20261127)
    tally = {}
    for n in range(count):
        build = dict(base)
        build["passages"], build["plugs"] = random_engine(rng)
        metal = Metal(build)
        left = {p for p in metal.plugs if rng.random() < 0.15}
        build["events"] = [{"id": f"e{i}", "kind": "plug_left", "scope": "plug", "target": p,
                            "note": "seen from outside"} for i, p in enumerate(sorted(left))]
        drawable = {p for p in metal.plugs if not metal.outer(p) & left}
        plan = plan_of(build)
        got = (plan["pulls"], plan["flushes"], len(plan["draw"]))
        want = metal.least(drawable)
        check(got == want, f"random {n}: plan {got}, trying everything {want}",
              json.dumps([build["passages"], build["plugs"], sorted(left)]) if got != want else "")
        tally[want] = tally.get(want, 0) + 1
    check(len(tally) > 15, "the random engines are too much alike")
    print(f"{count} random engines, {len(tally)} different answers")


def check_reach():
    path = os.path.join(ROOT, "demo", "harbour-fire-pump.mildpath")
    build = json.load(open(path, encoding="utf-8"))
    metal = Metal(build)
    place = {}
    for e in build["events"]:
        if e["scope"] == "plug":
            place[e["target"]] = e["kind"]
    mains = {s["id"] for s in build["engine"]["stops"] if s["kind"] == "main"}
    starts = [n for p, e, n, plug in metal.ends if plug is None
              and metal.passages[p]["part"] == "block"
              and metal.passages[p]["ends"][e].get("stop") in mains]
    want = metal.reach(starts, lambda plug: place.get(plug) != "plug_out")
    check(6 < len(want) < len(metal.passages), "the demo's reach says nothing", want)
    build["events"].append({"id": "new", "kind": "machining", "scope": "job",
                            "target": "bore_mains", "at": "2026-12-01T10:00:00"})
    with tempfile.NamedTemporaryFile("w", suffix=".mildpath", delete=False) as f:
        json.dump(build, f)
    r = subprocess.run([CLI, "assess", f.name, "--json"], capture_output=True, text=True)
    os.unlink(f.name)
    got = {p["passage"] for p in json.loads(r.stdout)["passages"] if p["state"] == "dirty"
           and p["events"][-1] == "new"}
    check(got == want, "bored mains: too much", got - want, "too little", want - got)
    print(f"boring the mains reaches {len(want)} of {len(metal.passages)} passages")


def main():
    for folder in ("templates", "demo"):
        for name in sorted(os.listdir(os.path.join(ROOT, folder))):
            if not name.endswith((".json", ".mildpath")):
                continue
            build = json.load(open(os.path.join(ROOT, folder, name), encoding="utf-8"))
            build["events"] = []
            pieces = check_plan(name, build)
            check(pieces > 15, name, "has hardly any passages")
    base = json.load(open(os.path.join(ROOT, "templates", "single-air-cooled.json"),
                          encoding="utf-8"))
    check_random(base, 250)
    check_reach()
    for f in failures[:10]:
        print("FAILED:", f, file=sys.stderr)
    sys.exit(1 if failures else 0)


main()
