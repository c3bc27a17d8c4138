#!/usr/bin/env python3
"""Checks an armure-pieces JSON export (see docs/format/pieces.md) from the geometry alone.

usage: check_pieces.py FILE...      exit 0 when every check passes, 1 when any fails, 2 when a file can't be read
Standard library only. Everything is measured again from `points`; nothing the exporter says of itself is trusted.
"""
import json, math, sys

LEN_TOL, GIRTH_TOL, KINK_TOL, ON_EDGE_TOL, ALLOW_TOL = 0.5, 0.5, 3.0, 0.1, 0.3


def dist(p, q):
    return math.hypot(p[0] - q[0], p[1] - q[1])


def length(pts):
    return sum(dist(a, b) for a, b in zip(pts, pts[1:]))


def seg_dist(p, a, b):
    dx, dy = b[0] - a[0], b[1] - a[1]
    n = dx * dx + dy * dy
    t = 0.0 if n == 0 else max(0.0, min(1.0, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / n))
    return dist(p, (a[0] + t * dx, a[1] + t * dy))


def line_dist(p, pts):
    return min(seg_dist(p, a, b) for a, b in zip(pts, pts[1:]))


def area(poly):
    return 0.5 * sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(poly, poly[1:] + poly[:1]))


def crosses(a, b, c, d):
    def o(p, q, r):
        v = (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0])
        return 0 if abs(v) < 1e-9 else (1 if v > 0 else -1)
    return o(a, b, c) * o(a, b, d) < 0 and o(c, d, a) * o(c, d, b) < 0


def simple(poly):
    segs = list(zip(poly, poly[1:] + poly[:1]))
    boxes = [(min(a[0], b[0]), max(a[0], b[0]), min(a[1], b[1]), max(a[1], b[1])) for a, b in segs]
    order = sorted(range(len(segs)), key=lambda i: boxes[i][0])
    for n, i in enumerate(order):
        for j in order[n + 1:]:
            if boxes[j][0] > boxes[i][1]:
                break
            if boxes[j][2] > boxes[i][3] or boxes[j][3] < boxes[i][2]:
                continue
            if abs(i - j) in (0, 1, len(segs) - 1):
                continue
            if crosses(*segs[i], *segs[j]):
                return False
    return True


def tangent(edge, at_end, reach=2.0):
    """Unit direction of an edge leaving its start (or, at_end, leaving its end backwards): of its exact curve where it rides along, else over `reach` mm."""
    if edge.get("beziers"):
        c = edge["beziers"][-1][::-1] if at_end else edge["beziers"][0]
        q = next((q for q in c[1:] if dist(c[0], q) > 1e-6), None)
        if q:
            d = dist(c[0], q)
            return ((q[0] - c[0][0]) / d, (q[1] - c[0][1]) / d)
    p = edge["points"][::-1] if at_end else edge["points"]
    for q in p[1:]:
        if dist(p[0], q) >= reach:
            break
    d = dist(p[0], q) or 1.0
    return ((q[0] - p[0][0]) / d, (q[1] - p[0][1]) / d)


def on_curve(c, t):
    u = 1 - t
    return tuple(u * u * u * c[0][k] + 3 * u * u * t * c[1][k] + 3 * u * t * t * c[2][k] + t * t * t * c[3][k] for k in (0, 1))


class Report:
    def __init__(self, name):
        self.name, self.rows, self.failed = name, 0, 0

    def check(self, ok, what, detail=""):
        self.rows += 1
        if not ok:
            self.failed += 1
            print(f"{self.name}: FAIL {what}: {detail}")


def outline(piece):
    pts = []
    for e in piece["edges"]:
        pts += e["points"][:-1]
    return pts


def chain(piece, refs):
    by = {e["id"]: e for e in piece["edges"]}
    pts = []
    for r in refs:
        p = by[r["id"]]["points"]
        p = p[::-1] if r["reversed"] else p
        pts += p if not pts else p[1:]
    return pts


def neighbour(piece, refs, end):
    """The edge of `piece` that continues at the chain's start (end=False) or end, with the corner's interior angle in degrees."""
    ids = [e["id"] for e in piece["edges"]]
    ref = refs[-1] if end else refs[0]
    i = ids.index(ref["id"])
    forward = (not ref["reversed"]) == end
    j = (i + (1 if forward else -1)) % len(ids)
    mine, other = piece["edges"][i], piece["edges"][j]
    before, after = (mine, other) if forward else (other, mine)
    arrive = tuple(-c for c in tangent(before, at_end=True))
    leave = tangent(after, at_end=False)
    turn = math.atan2(arrive[0] * leave[1] - arrive[1] * leave[0], arrive[0] * leave[0] + arrive[1] * leave[1])
    ang = 180 - math.degrees(turn) * (1 if area(outline(piece)) > 0 else -1)
    return piece["edges"][j], ang


def cross_leg(level, leg):
    """Distance from a level's start, along it, at which a dart's leg crosses it; None where it does not."""
    (ax, ay), (bx, by) = level["a"], level["b"]
    dx, dy = bx - ax, by - ay
    n = math.hypot(dx, dy) or 1.0
    side = lambda q: ((q[0] - ax) * dy - (q[1] - ay) * dx) / n
    for p, q in zip(leg, leg[1:]):
        sp, sq = side(p), side(q)
        if sp == sq or sp * sq > 0:
            continue
        t = sp / (sp - sq)
        x, y = p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])
        along = ((x - ax) * dx + (y - ay) * dy) / n
        if -1e-6 <= along <= n + 1e-6:
            return along
    return None


def away_from_fold(piece, ring):
    """The sides of a closed outline that do not lie on the piece's fold: nothing is cut there, however near it is."""
    sides = list(zip(ring, ring[1:]))
    fold = next((e["points"] for e in piece["edges"] if e["id"] == piece.get("onFold")), None)
    if not fold:
        return sides
    (x0, y0), (x1, y1) = fold[0], fold[-1]
    n = math.hypot(x1 - x0, y1 - y0)

    def off(q):
        return abs((q[0] - x0) * (y1 - y0) - (q[1] - y0) * (x1 - x0)) / n

    return [(a, b) for a, b in sides if not (off(a) < 0.05 and off(b) < 0.05)]


def run(path):
    with open(path, encoding="utf-8") as f:
        doc = json.load(f)
    r = Report(path.rsplit("/", 1)[-1])
    r.check(doc.get("format") == "armure-pieces" and doc.get("version") == 1, "format", str(doc.get("format")))
    pieces = {p["id"]: p for p in doc["pieces"]}
    r.check(len(pieces) == len(doc["pieces"]), "piece ids", "not unique")
    r.check(len(pieces) >= 3, "pieces", f"only {len(pieces)}")

    for pid, p in pieces.items():
        es = p["edges"]
        for a, b in zip(es, es[1:] + es[:1]):
            gap = dist(a["points"][-1], b["points"][0])
            r.check(gap <= 1e-3, "closed", f"{pid}: {a['id']} to {b['id']} leaves {gap:.4f} mm")
        for e in es:
            off = max((line_dist(on_curve(c, t / 4), e["points"]) for c in e.get("beziers") or [] for t in range(5)), default=0.0)
            r.check(off <= 0.05, "curve", f"{pid}.{e['id']}: the curve is {off:.3f} mm off its points")
        o = outline(p)
        r.check(simple(o), "simple", f"{pid}: the sewn outline crosses itself")
        cut = p.get("cutOutline") or []
        r.check(len(cut) > 3 and simple(cut), "cut outline", f"{pid}: missing or crossing itself")
        if len(cut) > 3:
            r.check(abs(area(cut)) >= abs(area(o)) - 1e-6, "cut outline", f"{pid}: smaller than the sewn outline")
            whole, ring = cut + cut[:1], away_from_fold(p, cut + cut[:1])
            for e in es:
                n = len(e["points"]) // 2
                a, b = e["points"][n - 1], e["points"][n]
                m = ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
                d = line_dist(m, whole) if e["role"] == "fold" else min(seg_dist(m, q0, q1) for q0, q1 in ring)
                # Beside a fold a slanted edge's parallel runs beyond it, where the other half lies: more is right there.
                ends = [q for f in es if f["role"] == "fold" for q in (f["points"][0], f["points"][-1])]
                beside = any(dist(q, c) < 1e-3 for q in ends for c in (e["points"][0], e["points"][-1]))
                right = d >= e["allowance"] - ALLOW_TOL if beside else abs(d - e["allowance"]) <= ALLOW_TOL
                r.check(right, "allowance", f"{pid}.{e['id']}: {d:.2f} mm where {e['allowance']:.2f} is said")
        fold = p.get("onFold")
        if fold:
            f = next(e for e in es if e["id"] == fold)["points"]
            bow = max(seg_dist(q, f[0], f[-1]) for q in f)
            r.check(bow <= 1e-3, "fold", f"{pid}.{fold} bows by {bow:.3f} mm")
        for lv in p["levels"]:
            for k in "ab":
                d = min(line_dist(lv[k], e["points"]) for e in es)
                r.check(d <= ON_EDGE_TOL, "level", f"{pid}: {lv['id']} {k} is {d:.2f} mm off the outline")
            w = dist(lv["a"], lv["b"])
            r.check(abs(w - lv["width"]) <= 0.01, "level", f"{pid}: {lv['id']} says {lv['width']:.2f}, is {w:.2f}")
        for dt in p.get("darts") or []:
            la, lb = (length(leg) for leg in dt["legs"])
            r.check(abs(la - lb) <= LEN_TOL, "dart", f"{pid}.{dt['id']}: legs of {la:.2f} and {lb:.2f} mm")
            r.check(dist(dt["legs"][0][-1], dt["legs"][1][-1]) <= 1e-3, "dart", f"{pid}.{dt['id']}: its legs do not meet at the point")
            if dt.get("kind") == "pointed":
                r.check(dist(dt["legs"][0][0], dt["legs"][1][0]) <= 1e-3, "dart", f"{pid}.{dt['id']}: pointed, but open above")
        for lv in p["levels"]:
            taken = sum(max(0.0, cross_leg(lv, dt["legs"][1]) - cross_leg(lv, dt["legs"][0])) for dt in p.get("darts") or []
                        if cross_leg(lv, dt["legs"][0]) is not None and cross_leg(lv, dt["legs"][1]) is not None)
            r.check(abs(taken - lv.get("taken", 0.0)) <= 0.1, "dart", f"{pid}: {lv['id']} says darts take {lv.get('taken', 0.0):.2f}, they take {taken:.2f}")
        for mk in p.get("marks") or []:
            if mk.get("kind") == "notch" and len(cut) > 3:
                ends = (mk["points"][0], mk["points"][-1])
                on_cut = [line_dist(q, cut + cut[:1]) for q in ends]
                on_sewn = [min(line_dist(q, e["points"]) for e in es) for q in ends]
                off = min(max(on_sewn[0], on_cut[1]), max(on_sewn[1], on_cut[0]))
                r.check(off <= 0.1, "notch", f"{pid}.{mk['id']}: its stroke does not run from the sewing line to the cutting line ({off:.2f} mm off)")
        for nt in p["notches"]:
            e = next((e for e in es if e["id"] == nt["edge"]), None)
            r.check(e is not None and -1e-6 <= nt["at"] <= length(e["points"]) + 0.05, "notch", f"{pid}: {nt['id']} lies off its edge")

    shell = [p for p in pieces.values() if p.get("layer", "shell") == "shell"]
    for lv in doc["levels"]:
        total = lv.get("openingGap", 0.0)
        for p in shell:
            for q in p["levels"]:
                if q["id"] == lv["id"]:
                    total += (dist(q["a"], q["b"]) - q.get("taken", 0.0)) * p.get("girthWeight", 2 if p.get("onFold") else p["quantity"])
        if "reduction" in lv or "ease" in lv:
            worn = lv["bodyGirth"] + lv.get("ease", 0.0) - lv.get("reduction", 0.0)
            r.check(abs(worn - lv["finishedGirth"]) <= 0.05, "girth", f"{lv['id']}: body + ease - reduction is {worn:.2f}, finished girth says {lv['finishedGirth']:.2f}")
        if "gaps" in lv:
            r.check(abs(sum(lv["gaps"].values()) - lv.get("openingGap", 0.0)) <= 0.05, "girth", f"{lv['id']}: its gaps do not add up to the opening")
        r.check(abs(total - lv["finishedGirth"]) <= GIRTH_TOL, "girth",
                f"{lv['id']}: the pieces close to {total:.2f} mm, finished girth is {lv['finishedGirth']:.2f}")
        r.check(abs(total - lv["closedGirth"]) <= 0.05, "girth", f"{lv['id']}: says {lv['closedGirth']:.2f}, is {total:.2f}")

    sewn = {}
    for s in doc["seams"]:
        sides = {}
        for k in "ab":
            p = pieces[s[k]["piece"]]
            sides[k] = chain(p, s[k]["edges"])
            for ref in s[k]["edges"]:
                sewn[(p["id"], ref["id"])] = sewn.get((p["id"], ref["id"]), 0) + 1
        ease = s.get("ease", 0.0) * (1 if s.get("easeSide", "a") == "a" else -1)
        la, lb = length(sides["a"]), length(sides["b"])
        if "kind" in s:
            r.check(abs(ease) <= 6 or s["kind"] in ("gathered", "pleated", "sleeve"), "ease", f"{s['id']}: {ease:.1f} mm of ease in a {s['kind']} seam")
        r.check(abs(la - lb - ease) <= LEN_TOL, "seam", f"{s['id']}: {la:.2f} against {lb:.2f} mm, planned ease {ease:.2f}")
        marks = [(0.0, 0.0)] + sorted((n["a"], n["b"]) for n in s["notches"]) + [(la, lb)]
        for (a0, b0), (a1, b1) in zip(marks, marks[1:]):
            r.check(a1 >= a0 - 1e-6 and b1 >= b0 - 1e-6, "notch order", s["id"])
            if not ease:
                r.check(abs((a1 - a0) - (b1 - b0)) <= LEN_TOL, "stretch",
                        f"{s['id']}: {a1 - a0:.2f} against {b1 - b0:.2f} mm")
        if s["a"]["piece"] != s["b"]["piece"]:
            for end in (False, True):
                (ea, aa), (eb, ab) = (neighbour(pieces[s[k]["piece"]], s[k]["edges"], end) for k in "ab")
                if ea["role"] == eb["role"] and ea["role"] in ("top", "hem", "cup", "armhole", "yoke"):
                    r.check(abs(aa + ab - 180) <= KINK_TOL, "join",
                            f"{s['id']}: {ea['role']} turns by {aa + ab - 180:+.1f} degrees across the {'lower' if end else 'upper'} end")
    for p in pieces.values():
        for e in p["edges"]:
            n = sewn.get((p["id"], e["id"]), 0)
            if e["role"] in ("seam", "cup"):
                r.check(n == 1, "partner", f"{p['id']}.{e['id']} is in {n} seams")
    print(f"{r.name}: {len(pieces)} pieces, {len(doc['seams'])} seams, {r.rows} checks, {r.failed} failed")
    return r.failed


if __name__ == "__main__":
    if len(sys.argv) < 2:
        sys.exit(__doc__)
    bad = 0
    for path in sys.argv[1:]:
        try:
            bad += run(path)
        except (OSError, ValueError, KeyError, StopIteration, IndexError, TypeError) as e:
            print(f"{path}: unreadable: {type(e).__name__} {e}")
            sys.exit(2)
    sys.exit(1 if bad else 0)
