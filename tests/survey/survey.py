#!/usr/bin/env python3
"""Thousands of seeded random orders: drafted, balanced, every row of the sheet read, every export checked independently.

usage: survey.py ARMURE_SURVEY PROJECT_DIR [--count N] [--seed S] [--sheet-only] | [--styles] [--part K]

With --styles: every style on every body of data/bodies with three depths of cup, zip and lacing; one export in 17 is checked
independently.

./test runs 500; a soak by hand more, with --sheet-only without the independent checker, which takes half of the time. After balancing no row may fail but for wishes that balancing cannot grant, which the sheet names; and the
independent checker (tests/support/check_pieces.py) may find nothing that is not such a wish.
"""
import argparse, contextlib, glob, io, json, os, subprocess, sys, tempfile
from concurrent.futures import ProcessPoolExecutor

BATCH = 125


def beside_neighbour(path, finding, check_pieces):
    """Whether an allowance was looked for on an edge shorter than twice of it: there the cutting line of the next edge,
    which has an allowance of its own, is nearer than that of the edge itself (the bridge between two cups)."""
    if not finding.startswith("allowance"):
        return False
    piece, edge = finding.split(": ")[1].rsplit(".", 1)
    with open(path, encoding="utf-8") as f:
        pieces = {p["id"]: p for p in json.load(f)["pieces"]}
    found = next(e for e in pieces[piece]["edges"] if e["id"] == edge)
    return check_pieces.length(found["points"]) < 2 * found["allowance"]


def batch(job):
    program, project, seed, start, count, sheet_only, styles = job
    sys.path.insert(0, os.path.join(project, "tests", "support"))
    import check_pieces
    with tempfile.TemporaryDirectory() as folder:
        command = [program, "--from", str(start), "--count", str(count)] + (["--styles", "--every", "17"] if styles else ["--seed", str(seed)])
        done = subprocess.run(command if sheet_only else command + ["--pieces", folder], capture_output=True, text=True, check=True)
        rows = [line.split("\t") for line in done.stdout.splitlines()]
        found = []
        for path in sorted(glob.glob(os.path.join(folder, "*.json"))):
            said = io.StringIO()
            with contextlib.redirect_stdout(said):
                check_pieces.run(path)
            number = os.path.basename(path)[:-5]
            lines = [line.split(": FAIL ", 1)[1] for line in said.getvalue().splitlines() if ": FAIL " in line]
            found += [(number, line) for line in lines if not beside_neighbour(path, line, check_pieces)]
    return rows, found


def percentiles(values):
    v = sorted(values)
    return f"median {v[len(v) // 2]:.2f}, 95 % {v[int(0.95 * (len(v) - 1))]:.2f}, most {v[-1]:.2f}"


def main():
    p = argparse.ArgumentParser()
    p.add_argument("program")
    p.add_argument("project")
    p.add_argument("--count", type=int, default=5000)
    p.add_argument("--seed", type=int, default=1)
    p.add_argument("--sheet-only", action="store_true")
    p.add_argument("--styles", action="store_true")
    p.add_argument("--part", type=int, default=1, help="only every so-manieth batch, spread over bodies and styles")
    a = p.parse_args()
    program, project = os.path.abspath(a.program), os.path.abspath(a.project)
    if a.styles:
        a.count = 130 * 3 * 2 * len(glob.glob(os.path.join(project, "styles", "*.json")))
    jobs = [(program, project, a.seed, s, min(BATCH, a.count - s), a.sheet_only, a.styles) for s in range(0, a.count, BATCH)][::a.part]
    rows, found = [], []
    with ProcessPoolExecutor(max_workers=os.cpu_count()) as pool:
        for r, f in pool.map(batch, jobs):
            rows += r
            found += f
    refused = [r for r in rows if r[0] == "refused"]
    balanced = [r for r in rows if r[0] == "balanced"]
    faults = [r for r in balanced if r[7]]
    narrow = {r[1] for r in balanced if "piece" in r[8].split(",")}
    wished = {}
    for r in balanced:
        for kind in set(w.split()[0] for w in r[8].split(",") if w):
            wished[kind] = wished.get(kind, 0) + 1
    # What the sheet says already: an allowance on a piece too narrow to sew, or wider than the hollow it lies in; and
    # pieces that stay as drafted because no shape near the draft fits.
    hollow = {r[1]: set(r[9].split(",")) for r in balanced}
    unreachable = {r[1] for r in balanced if "wish" in r[8].split(",")}
    real = [(n, f) for n, f in found if n not in unreachable
            and not (f.startswith(("simple", "join", "allowance")) and n in narrow)
            and not (f.startswith("allowance") and f.split(": ")[1] in hollow[n])]
    passing = [r for r in balanced if not r[7] and not r[8]]
    print(f"{len(rows)} orders, {len(refused)} refused with a reason, {len(balanced)} balanced, {len(passing)} "
          f"({100 * len(passing) / len(balanced):.1f} %) pass every row; orders with wishes the sheet names: {wished}")
    advised = {}
    for r in balanced:
        for kind in set(w.split()[0] for w in r[10].split(",") if w):
            advised[kind] = advised.get(kind, 0) + 1
    print(f"orders with advice: {advised}")
    print("largest movement, mm:", percentiles([float(r[3]) for r in balanced]))
    print("of a line to cut, mm:", percentiles([float(r[4]) for r in balanced]))
    for low, high in ((0, 10), (11, 13), (14, 18), (19, 99)):
        times = [float(r[5]) for r in balanced if low <= int(r[2]) <= high]
        if times:
            print(f"solved in ms, {low} to {high} pieces ({len(times)}):", percentiles(times))
    for r in faults[:20]:
        print("FAIL", r[1], r[7])
    for n, f in real[:40]:
        print("FAIL", n, f)
    reasons = {}
    for r in refused:
        reason = r[2].split(":")[0]
        reasons[reason] = reasons.get(reason, 0) + 1
    print(f"refused: {reasons}; {len(faults)} orders with faults, {len(real)} findings of the independent checker")
    curves = wished.get("curve", 0)
    # Two millimetres from the corner, where the checker looks, a line on a small piece may have turned a little more than
    # at the seam itself; and an allowance wider than its piece is long may reach round the next corner.
    exports = len(balanced) / (17 if a.styles else 1)
    # Where a cup line crosses the princess seam four lines bend at one point; within two millimetres they turn by up to 4 degrees.
    crossing = [f for _, f in real if f.startswith("join") and ": cup turns by" in f]
    small = [f for _, f in real if f.startswith(("join", "allowance")) and f not in crossing]
    steep = [f for f in crossing if abs(float(f.split("turns by ")[1].split()[0])) > 4]
    ok = (not faults and not steep and len(small) + len(crossing) == len(real) and len(small) <= (0.01 if a.styles else 0.005) * exports
          and len(crossing) <= (0.04 if a.styles else 0) * exports and len(unreachable) <= 0.002 * len(balanced)
          and len(balanced) > 0.95 * len(rows) and curves < 0.06 * len(balanced))
    sys.exit(0 if ok else 1)


if __name__ == "__main__":
    main()
