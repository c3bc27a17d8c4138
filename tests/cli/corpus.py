#!/usr/bin/env python3
"""Every body of data/bodies through the command line: new, check, export, for three cup depths and the styles below.

usage: corpus.py ARMURE_CLI PROJECT_DIR [--rows N] [--every N]

./test takes every third body; by hand all of them.

The exports are reread by the independent checker (tests/support/check_pieces.py). As drafted it may find stretches that differ,
which balancing is for, and nothing else; each of them must stand in the sheet of `armure-cli check` too.
"""
import contextlib, csv, io, json, os, subprocess, sys, tempfile
from concurrent.futures import ProcessPoolExecutor
from itertools import product

CLI, PROJECT = os.path.abspath(sys.argv[1]), os.path.abspath(sys.argv[2])
sys.path.insert(0, os.path.join(PROJECT, "tests", "support"))
import check_pieces  # noqa: E402

CUPS_CM = (4, 10, 16)
STYLES = ("straight-zip", "straight-laced", "sweetheart-zip", "sweetheart-laced")
# Many lines on a narrow half may leave a panel too narrow: then `new` has to say which.
LINE_STYLES = ("shaping-two-lines", "reducing-three-lines", "reducing-four-lines", "shaping-front-laced", "bustier-middle-piece",
               "reducing-v-laced")
ALLOWED = {"stretch"}


def run(*arguments):
    done = subprocess.run([CLI, *arguments], capture_output=True, text=True)
    return done.returncode, done.stdout, done.stderr


def failures(printed):
    """(kind, what) of every FAIL line of the independent checker."""
    for line in printed.splitlines():
        if ": FAIL " in line:
            kind, _, what = line.split(": FAIL ", 1)[1].partition(": ")
            yield kind, what


def unreported(kind, what, rows):
    """Whether the sheet has no failing row for this finding: same kind, and the seam or level it names."""
    name = what.partition(":")[0]
    return not any(r["check"] == kind and r["result"] == "fail" and name in (r["seam"], r["level"]) for r in rows)


def body(job):
    row_number, row = job
    problems, exports, explained, tally = [], 0, 0, {}
    with tempfile.TemporaryDirectory() as folder:
        for cup, style in product(CUPS_CM, STYLES + LINE_STYLES):
            case = f"row {row_number}, bust + {cup} cm, {style}"
            measures, order, pieces = (os.path.join(folder, n) for n in ("m.csv", "o.armure", "p.json"))
            with open(measures, "w", encoding="utf-8") as f:
                f.write("measure,value,unit,note\n")
                for name, value in (("upper_bust", float(row["ChestG"])), ("bust", float(row["ChestG"]) + cup), ("waist", row["WaistG"]),
                                    ("high_hip", row["AbdG"]), ("hip", row["HipG"]), ("stature", row["Height"])):
                    f.write(f"{name},{value},cm,\n")
            # Layers that are the shell's pieces once more are read on one body of eight: they double what is read.
            single = [] if row_number % 8 == 0 else ["--set", "layer.lining=none", "--set", "layer.strength=none"]
            code, _, errors = run("new", "--measurements", measures, "--style", style, "-o", order, *single)
            if code == 2 and style in LINE_STYLES and "the panel is only" in errors:
                explained += 1
                continue
            if code != 0:
                problems.append(f"{case}: new exits {code}: {errors}")
                continue
            code, printed, errors = run("check", "--json", order)
            if code not in (0, 1):
                problems.append(f"{case}: check exits {code}: {errors}")
                continue
            rows = json.loads(printed)["rows"]
            code, _, errors = run("export", order, "--pieces", pieces)
            if code != 0:
                problems.append(f"{case}: export exits {code}: {errors}")
                continue
            exports += 1
            said = io.StringIO()
            with contextlib.redirect_stdout(said):
                check_pieces.run(pieces)
            for r in rows:
                if r["result"] == "fail":
                    tally[r["check"]] = tally.get(r["check"], 0) + 1
            for kind, what in failures(said.getvalue()):
                if kind == "allowance" and any(r["check"] == "piece" and r["piece"] == what.partition(".")[0] for r in rows if r["result"] == "fail"):
                    # A piece narrower than 20 mm, which the sheet says: its other side is nearer than the allowance.
                    tally["allowance of a narrow piece"] = tally.get("allowance of a narrow piece", 0) + 1
                    continue
                if kind not in ALLOWED:
                    problems.append(f"{case}: {kind}: {what}")
                elif unreported(kind, what, rows):
                    problems.append(f"{case}: the sheet does not report {kind}: {what}")
        exports += balanced(folder, f"row {row_number}", order_of(folder, row), problems)
    return exports, explained, problems, tally


def order_of(folder, row):
    """The order of the last case once more, with a middle cup."""
    measures, order = (os.path.join(folder, n) for n in ("m.csv", "balanced.armure"))
    with open(measures, "w", encoding="utf-8") as f:
        f.write("measure,value,unit,note\n")
        for name, value in (("upper_bust", float(row["ChestG"])), ("bust", float(row["ChestG"]) + 10), ("waist", row["WaistG"]),
                            ("high_hip", row["AbdG"]), ("hip", row["HipG"]), ("stature", row["Height"])):
            f.write(f"{name},{value},cm,\n")
    run("new", "--measurements", measures, "--style", "sweetheart-laced", "-o", order)
    return order


def balanced(folder, case, order, problems):
    """Balanced, the independent checker finds nothing at all."""
    kept, pieces = (os.path.join(folder, n) for n in ("kept.armure", "kept.json"))
    code, _, errors = run("set", order, "balance.keep=balanced", "-o", kept)
    if code == 0:
        code, _, errors = run("export", kept, "--pieces", pieces)
    if code != 0:
        problems.append(f"{case}, balanced: exits {code}: {errors}")
        return 0
    said = io.StringIO()
    with contextlib.redirect_stdout(said):
        check_pieces.run(pieces)
    problems += [f"{case}, balanced: {kind}: {what}" for kind, what in failures(said.getvalue())]
    return 1


def main():
    limit = int(sys.argv[sys.argv.index("--rows") + 1]) if "--rows" in sys.argv else None
    every = int(sys.argv[sys.argv.index("--every") + 1]) if "--every" in sys.argv else 1
    with open(os.path.join(PROJECT, "data", "bodies", "body-dimensions.csv"), encoding="utf-8") as f:
        rows = list(csv.DictReader(f))[:limit][::every]
    exports, explained, problems, tally = 0, 0, [], {}
    with ProcessPoolExecutor(max_workers=os.cpu_count()) as pool:
        for done, told, found, counted in pool.map(body, enumerate(rows, 1), chunksize=4):
            exports += done
            explained += told
            problems += found
            for k, n in counted.items():
                tally[k] = tally.get(k, 0) + n
    for p in problems[:40]:
        print("FAIL", p)
    print(f"{exports} exports of {len(rows)} bodies checked, {explained} explained as too narrow, {len(problems)} problems; failing rows of the sheets: {tally}")
    expected = len(rows) * (len(CUPS_CM) * len(STYLES + LINE_STYLES) + 1)
    sys.exit(0 if not problems and exports + explained == expected and explained < 0.05 * expected and expected > 0 else 1)


if __name__ == "__main__":
    main()
