#!/usr/bin/env python3
"""Whole jobs of the trade, from measures to pieces: each order of jobs/ is made again from its measures with its style
and its choices, drafts, balances and fails nowhere, and its pieces are those the job names, as wide as the job says.
The exports are read by the independent checker. usage: jobs.py ARMURE_CLI PROJECT

expect.json of a job:
  choices      the most that may be set beside style and school; what is sewn on, and straps, count apart
  pieces       by id: how many to cut of it, and the kinds of its darts ("open", "pointed")
  half_widths  by level, then by half: the finished width of that half, inches; openings that stay open are no part of it
  hems         by piece: its hem, inches
  trims        of what is sewn on, by piece: how many to cut of it, and the lengths of its edges, inches
  bought       of what is bought for it, by the beginning of its name: how many, and how long each, inches
  seams        by id: how long both its sides are, inches. The jobs state none: as balanced, to see that none changes
  sewing       works in the order the job states them, others between them (core/prepare/sewing.h)
  differs      what comes out otherwise than the job says, and why
"""
import contextlib, io, json, math, os, sys, unittest

from cases import CLI, PROJECT, Case, run
import check_pieces

JOBS = os.path.join(PROJECT, "jobs")
MM, WITHIN = 25.4, 0.125  # inches: an eighth, as makers read a tape


def names():
    return sorted(n for n in os.listdir(JOBS) if os.path.isdir(os.path.join(JOBS, n)))


def load(*parts):
    with open(os.path.join(JOBS, *parts)) as f:
        return json.load(f)


KINDS = ("strap", "frill", "ruffle", "flounce", "peplum", "sleeve", "hanging-sleeve", "collar", "edging", "pocket")


def is_sewn_on(choice):
    return choice.split(".")[0] in KINDS


def in_front(piece):
    return not piece["id"].startswith(("back", "skirt-back", "yoke-back"))


class Jobs(Case):
    def pieces_of(self, name):
        out = self.path(name + ".json")
        code, _, errors = run("export", os.path.join(JOBS, name, "order.armure"), "--pieces", out)
        self.assertEqual(code, 0, errors)
        with open(out) as f:
            return out, json.load(f)

    def test_each_is_made_of_its_measures_style_and_few_choices(self):
        for name in names():
            with self.subTest(name):
                order = load(name, "order.armure")
                choices = {k: v for k, v in order["choices"].items() if k != "balance.keep"}
                shaping = [k for k in choices if not is_sewn_on(k)]
                self.assertLessEqual(len(shaping), load(name, "expect.json")["choices"])
                again = self.path(name + ".armure")
                settings = [a for k, v in choices.items() for a in ("--set", f"{k}={v}")]
                code, _, errors = run("new", "--measurements", os.path.join(JOBS, name, "measures.csv"), "--style",
                                      order["style"], "--school", order["school"], "--title", order["title"], "-o",
                                      again, *settings)
                self.assertEqual(code, 0, errors)
                with open(again) as f:
                    made = json.load(f)
                self.assertEqual(made["choices"], order["choices"])
                self.assertEqual({k: v["mm"] for k, v in made["measures"].items()},
                                 {k: v["mm"] for k, v in order["measures"].items()})

    def test_nothing_fails(self):
        for name in names():
            with self.subTest(name):
                code, said, errors = run("check", os.path.join(JOBS, name, "order.armure"), "--json")
                self.assertEqual(code, 0, errors or [r for r in json.loads(said)["rows"] if r["result"] == "fail"])

    def test_pieces_darts_and_widths_are_the_jobs(self):
        for name in names():
            with self.subTest(name):
                expect, (_, made) = load(name, "expect.json"), self.pieces_of(name)
                shell = [p for p in made["pieces"] if p["layer"] == "shell"]
                got = {p["id"]: [p.get("copies", p["quantity"]), sorted({d["kind"] for d in p.get("darts", [])})]
                       for p in shell}
                self.assertEqual(got, expect["pieces"])
                for level, halves in expect["half_widths"].items():
                    for half, wanted in halves.items():
                        width = sum(l["width"] - l.get("taken", 0) for p in shell if in_front(p) == (half == "front")
                                    for l in p["levels"] if l["id"] == level)
                        self.assertAlmostEqual(width / MM, wanted, delta=WITHIN, msg=f"{level}, {half}")
                for piece, wanted in expect.get("hems", {}).items():
                    hem = next(e for p in shell if p["id"] == piece for e in p["edges"] if e["role"] == "hem")
                    length = sum(math.dist(a, b) for a, b in zip(hem["points"], hem["points"][1:]))
                    self.assertAlmostEqual(length / MM, wanted, delta=WITHIN, msg=f"hem of {piece}")

    def test_what_is_sewn_on_is_the_jobs(self):
        for name in names():
            expect = load(name, "expect.json")
            if "trims" not in expect:
                continue
            with self.subTest(name):
                _, made = self.pieces_of(name)
                pieces = {p["id"]: p for p in made["pieces"] if p["layer"] in ("trim", "strap")}
                self.assertEqual({i: p.get("copies", p["quantity"]) for i, p in pieces.items()},
                                 {i: t["copies"] for i, t in expect["trims"].items()})
                for piece, wanted in expect["trims"].items():
                    lengths = {e["id"]: sum(math.dist(a, b) for a, b in zip(e["points"], e["points"][1:])) / MM
                               for e in pieces[piece]["edges"]}
                    for edge, length in wanted.get("edges", {}).items():
                        self.assertAlmostEqual(lengths[edge], length, delta=WITHIN, msg=f"{piece}, {edge}")
                code, said, errors = run("list", os.path.join(JOBS, name, "order.armure"), "--json")
                self.assertEqual(code, 0, errors)
                for bought, (count, length) in expect.get("bought", {}).items():
                    lines = [n for n in json.loads(said)["notions"] if n["name"].startswith(bought)]
                    self.assertEqual(len(lines), 1, bought)
                    self.assertEqual(lines[0]["count"], count, bought)
                    self.assertAlmostEqual(lines[0]["length"] / MM, length, delta=WITHIN, msg=bought)

    def test_both_sides_of_every_seam_are_as_long_as_they_were(self):
        for name in names():
            with self.subTest(name):
                _, made = self.pieces_of(name)
                edges = {(p["id"], e["id"]): sum(math.dist(a, b) for a, b in zip(e["points"], e["points"][1:]))
                         for p in made["pieces"] for e in p["edges"]}
                shell = {p["id"] for p in made["pieces"] if p["layer"] == "shell"}
                got = {}
                for seam in made["seams"]:
                    if seam.get("kind", "plain") == "plain" and seam["a"]["piece"] in shell:
                        a, b = (sum(edges.get((seam[s]["piece"], e["id"]), 0) for e in seam[s]["edges"]) for s in "ab")
                        got[seam["id"]] = a / MM
                        self.assertAlmostEqual(a / MM, b / MM, delta=WITHIN, msg=seam["id"])
                expect = load(name, "expect.json")["seams"]
                self.assertEqual(sorted(got), sorted(expect))
                for seam, wanted in expect.items():
                    self.assertAlmostEqual(got[seam], wanted, delta=WITHIN, msg=seam)

    def test_it_is_sewn_in_the_order_the_job_states(self):
        for name in names():
            wanted = load(name, "expect.json").get("sewing", [])
            if not wanted:
                continue
            with self.subTest(name):
                code, said, errors = run("list", os.path.join(JOBS, name, "order.armure"), "--json")
                self.assertEqual(code, 0, errors)
                works = [step["work"] for step in json.loads(said)["sewing"]]
                self.assertEqual([w for w in works if w in wanted], wanted, works)

    def test_the_independent_checker_finds_nothing(self):
        for name in names():
            with self.subTest(name):
                out, _ = self.pieces_of(name)
                with contextlib.redirect_stdout(io.StringIO()) as said:
                    failed = check_pieces.run(out)
                self.assertFalse(failed, said.getvalue())


if __name__ == "__main__":
    unittest.main(argv=sys.argv[:1])
