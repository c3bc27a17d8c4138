#!/usr/bin/env python3
"""Bases, recalculation, alterations and fittings from outside. usage: alter.py ARMURE_CLI PROJECT_DIR"""
import json, os, sys, unittest

from cases import HEADER, PROJECT, Case, run


def demo(name):
    return os.path.join(PROJECT, "demo", name)


class Altering(Case):
    def pieces(self, order):
        self.assertEqual(run("export", order, "--pieces", self.path("p.json"), "--force")[0], 0)
        with open(self.path("p.json"), encoding="utf-8") as f:
            return json.load(f)

    def girth(self, order, level="waist"):
        return next(l for l in self.pieces(order)["levels"] if l["id"] == level)

    def alter(self, order, output, *arguments):
        code, _, errors = run("alter", order, *arguments, "-o", output)
        self.assertEqual(code, 0, errors)
        return output

    def test_an_alteration_and_its_opposite_give_the_pieces_back(self):
        order = demo("2-lamp-room.armure")
        one = self.alter(order, self.path("a.armure"), "--seam", "side", "--from", "underbust", "--to", "hem", "--by=-1/2 in", "--date", "2026-11-30")
        two = self.alter(one, self.path("b.armure"), "--seam", "side", "--from", "underbust", "--to", "hem", "--by", "12.7 mm")
        self.assertAlmostEqual(self.girth(one)["finishedGirth"], self.girth(order)["finishedGirth"] - 25.4, places=4)
        self.assertAlmostEqual(self.girth(one)["closedGirth"], self.girth(one)["finishedGirth"], places=3)
        for before, after in zip(self.pieces(order)["pieces"], self.pieces(two)["pieces"]):
            for e, f in zip(before["edges"], after["edges"]):
                for p, q in zip(e["points"], f["points"]):
                    self.assertAlmostEqual(p[0], q[0], places=6)
                    self.assertAlmostEqual(p[1], q[1], places=6)
        listed = json.loads(run("alter", two, "--list", "--json")[1])
        self.assertEqual([a["id"] for a in listed], ["1", "2"])
        self.assertEqual(listed[0]["date"], "2026-11-30")
        off = self.alter(two, self.path("c.armure"), "--off", "2")
        self.assertAlmostEqual(self.girth(off)["finishedGirth"], self.girth(one)["finishedGirth"], places=6)
        gone = self.alter(off, self.path("d.armure"), "--remove", "1")
        self.assertEqual(len(json.loads(run("alter", gone, "--list", "--json")[1])), 1)

    def test_altered_pieces_pass_the_independent_checker(self):
        import check_pieces
        order = demo("2-lamp-room.armure")
        for n, wish in enumerate((("--seam", "princess", "--from", "bust", "--to", "high_hip", "--by", "1/4 in"),
                                  ("--seam", "side", "--side", "over", "--from", "waist", "--to", "hem", "--by", "1/4 in"),
                                  ("--seam", "every-line", "--along", "--from", "underbust", "--to", "waist", "--by", "1/2 in"))):
            altered = self.alter(order, self.path(f"{n}.armure"), *wish)
            self.pieces(altered)
            self.assertEqual(check_pieces.run(self.path("p.json")), 0)

    def test_one_side_of_the_body_is_altered_by_itself(self):
        import check_pieces
        order = demo("2-lamp-room.armure")
        wish = ("--seam", "side", "--from", "underbust", "--to", "high_hip", "--by=-1/2 in")
        both = self.alter(order, self.path("both.armure"), *wish)
        left = self.alter(order, self.path("left.armure"), *wish, "--half", "left")
        self.assertAlmostEqual(self.girth(left)["finishedGirth"], (self.girth(order)["finishedGirth"] + self.girth(both)["finishedGirth"]) / 2, places=4)
        pieces = self.pieces(left)
        self.assertEqual(check_pieces.run(self.path("p.json")), 0)
        halves, whole = self.pieces(both)["pieces"], self.pieces(order)["pieces"]
        by_id = {p["id"]: p for p in pieces["pieces"]}
        for piece, other in zip(halves, whole):
            if piece["quantity"] != 2 or piece["id"] in by_id:
                continue
            # The left one is as altered on both sides, the right one turned over and as it was.
            for id, as_before in ((piece["id"] + "-left", piece), (piece["id"] + "-right", other)):
                self.assertEqual(by_id[id]["quantity"], 1)
                lengths = lambda p: sorted(sum(((q[0] - r[0]) ** 2 + (q[1] - r[1]) ** 2) ** 0.5 for q, r in zip(e["points"], e["points"][1:])) for e in p["edges"])
                for a, b in zip(lengths(by_id[id]), lengths(as_before)):
                    self.assertAlmostEqual(a, b, places=2)
        self.assertEqual(json.loads(run("alter", left, "--list", "--json")[1])[0]["shifts"][0]["half"], "left")
        # And its opposite on that side makes both sides alike again.
        back = self.alter(left, self.path("back.armure"), "--seam", "side", "--from", "underbust", "--to", "high_hip", "--by", "1/2 in", "--half", "left")
        self.assertEqual([p["id"] for p in self.pieces(back)["pieces"]], [p["id"] for p in whole])
        self.refused(run("alter", order, *wish, "--half", "upper", "-o", self.path("x.armure")), "upper", "left, right")
        for half in ("left", "right"):
            code, said, errors = run("try", left, "--half", half, "--json")
            self.assertEqual(code, 0, errors)
        self.refused(run("try", left, "--half", "both"), "both", "left, right")

    def test_a_fitting_of_one_side(self):
        out = self.path("f.armure")
        code, said, errors = run("fit", demo("2-lamp-room.armure"), "--seam", "side", "--work", "take-in", "--from", "underbust", "--to", "high_hip", "--by", "1/4 in", "--half", "right", "--take", "-o", out)
        self.assertEqual(code, 0, errors)
        self.assertIn("right", said)
        self.assertIn("side-right", [s["id"] for s in self.pieces(out)["seams"]])

    def test_wishes_that_cannot_be_meant_are_refused(self):
        order = demo("2-lamp-room.armure")
        wish = ("-o", self.path("x.armure"))
        self.refused(run("alter", order, "--seam", "sid", "--from", "bust", "--to", "waist", "--by", "1", *wish), "sid", "princess")
        self.refused(run("alter", order, "--seam", "side", "--from", "knee", "--to", "waist", "--by", "1", *wish), "knee", "underbust")
        self.refused(run("alter", order, "--seam", "side", "--from", "bust", "--to", "waist", "--by", "much", *wish), "much")
        self.refused(run("alter", order, "--seam", "side", "--side", "left", "--from", "bust", "--to", "waist", "--by", "1", *wish), "left", "over")
        self.refused(run("alter", order, *wish), "--seam")
        self.refused(run("alter", order, "--off", "9", *wish), "9")
        self.assertFalse(os.path.exists(self.path("x.armure")))

    def test_a_base_is_kept_and_recalculated(self):
        base, order = self.path("b.armure-base"), self.path("o.armure")
        self.assertEqual(run("base", "keep", demo("1-ferry.armure"), "--name", "Ferry", "-o", base)[0], 0)
        self.assertIn("Ferry", run("base", "list", self.folder)[1])
        self.assertEqual(json.loads(run("base", "list", self.folder, "--json")[1])[0]["name"], "Ferry")
        code, _, errors = run("recalc", "--base", base, "--measurements", demo("thomasin-spring.csv"), "-o", order)
        self.assertEqual(code, 0, errors)
        rows = {r["level"]: r for r in json.loads(run("shifts", order, "--json")[1]) if "level" in r}
        was = {l["id"]: l for l in self.pieces(demo("1-ferry.armure"))["levels"]}
        for level in self.pieces(order)["levels"]:
            if level["id"] in rows:
                row = rows[level["id"]]
                self.assertAlmostEqual(level["finishedGirth"], was[level["id"]]["finishedGirth"] + row["client"] - row["pattern"], places=3)
                self.assertAlmostEqual(level["closedGirth"], level["finishedGirth"], delta=0.1)
                lines = sum(row.get("lines", {}).values())
                self.assertAlmostEqual(row["x"] + row["y"] + lines, (row["client"] - row["pattern"]) / 2 - row["e0"], places=4)
        self.assertIn("waist", run("shifts", order)[1])
        # Another style on the same base: the girths are the client's again.
        self.assertEqual(run("set", order, "style=cup-three-pieces", "-o", self.path("s.armure"))[0], 0)
        for level in self.pieces(self.path("s.armure"))["levels"]:
            self.assertAlmostEqual(level["closedGirth"], level["finishedGirth"], delta=0.1)
            if level["id"] in rows:
                self.assertAlmostEqual(level["bodyGirth"], rows[level["id"]]["client"], places=3)
        self.assertEqual(run("recalc", "--base", base, "--measurements", demo("thomasin-spring.csv"), "--cell", "waist.x=1/8 in", "--from", "underbust", "--rest", "sides", "-o", order)[0], 0)
        rows = {r["level"]: r for r in json.loads(run("shifts", order, "--json")[1]) if "level" in r}
        self.assertAlmostEqual(rows["waist"]["x"], 3.175)
        self.assertTrue(rows["underbust"]["solved"])

    def test_the_worked_example_of_a_straight_dress(self):
        # Common practice, no source: client and pattern in inches, shifts by hand to 0.1 in.
        measures = "front_bust_arc,{},in,\nfront_underbust_arc,{},in,\nbust_span,{},in,\nbust,{},in,\nunderbust,{},in,\nwaist,{},in,\nhigh_hip,{},in,\nhip,{},in,\nwaist_to_high_hip,4.7,in,\n"
        pattern = self.write("pattern.csv", HEADER + measures.format(19.3, 15.7, 7.9, 36.6, 33.1, 30.3, 37.4, 39.4))
        client = self.write("client.csv", HEADER + measures.format(18.1, 14.6, 7.1, 33.5, 29.1, 28, 35.8, 37.8))
        drafted, base, order = self.path("d.armure"), self.path("b.armure-base"), self.path("o.armure")
        code, _, errors = run("new", "--measurements", pattern, "--style", "cup-two-pieces", "--set", "back.lines=darts", "-o", drafted)
        self.assertEqual(code, 0, errors)
        self.assertEqual(run("base", "keep", drafted, "--measured", pattern, "-o", base)[0], 0)
        by_hand = {"waist": {"underbust": (-0.2, -1.4), "waist": (0.2, -1.0), "high_hip": (0.4, -0.8), "hip": (0.4, -0.8)},
                   "underbust": {"underbust": (-0.4, -1.2), "waist": (0.0, -0.8), "high_hip": (0.2, -0.6), "hip": (0.2, -0.6)}}
        for start, levels in by_hand.items():
            self.assertEqual(run("recalc", "--base", base, "--measurements", client, "--from", start, "-o", order, "--force")[0], 0)
            rows = {r["level"]: r for r in json.loads(run("shifts", order, "--json")[1]) if "level" in r}
            self.assertAlmostEqual(rows["bust"]["e0"] / 25.4, -0.4, places=6)
            for level, (x, y) in levels.items():
                self.assertLessEqual(abs(rows[level]["x"] / 25.4 - x), 0.1 + 1e-9, level)
                self.assertLessEqual(abs(rows[level]["y"] / 25.4 - y), 0.1 + 1e-9, level)

    def test_a_drawing_is_read_as_a_base_and_recalculated(self):
        import check_pieces
        svg, names = self.path("d.svg"), self.path("n.json")
        self.assertEqual(run("export", demo("1-ferry.armure"), "--svg", svg)[0], 0)
        code, guessed, told = run("base", "import", svg)
        self.assertEqual(code, 0, told)
        self.assertIn("a square of 100.00 mm", told)
        said = json.loads(guessed)
        self.assertEqual([p["id"] for p in said["pieces"]], ["front-1", "front-2", "back-2", "back-1"])
        self.assertEqual(len(said["seams"]), 3)
        with open(names, "w", encoding="utf-8") as f:
            f.write(guessed)
        with open(self.path("made.csv"), "w", encoding="utf-8") as f:
            f.write("measure,value,unit,note\nbust,34 5/8,in,\nunderbust,29 1/2,in,\nwaist,26 1/8,in,\nhigh_hip,33,in,\nhip,37,in,\n")
        self.refused(run("base", "import", svg, "--names", names, "-o", self.path("b.armure-base")), "--measured")
        arguments = ("base", "import", svg, "--names", names, "--measured", self.path("made.csv"), "--date", "2026-11-30")
        code, out, errors = run(*arguments, "-o", self.path("b.armure-base"))
        self.assertEqual(code, 0, errors)
        self.assertIn("4 pieces, 3 seams", out)
        code, _, errors = run("recalc", "--base", self.path("b.armure-base"), "--measurements", demo("thomasin-spring.csv"), "-o", self.path("o.armure"))
        self.assertEqual(code, 0, errors)
        self.assertEqual(run("check", self.path("o.armure"))[0], 0)
        # 26 3/4 of the client for 26 1/8 on the toile.
        before, after = self.girth(demo("1-ferry.armure")), self.girth(self.path("o.armure"))
        self.assertAlmostEqual(after["closedGirth"] - before["closedGirth"], 0.625 * 25.4, delta=0.15)
        self.assertEqual(check_pieces.run(self.path("p.json")), 0)
        # Choices of drafting are told to do nothing.
        code, out, _ = run("set", self.path("o.armure"), "hem.length=9 in", "-o", self.path("s.armure"))
        self.assertIn("read from a drawing", out)
        # A known length scales it: half as long, half as wide.
        x, y = said["pieces"][0]["edges"][3]["from"]
        known = run("base", "import", svg, "--known", f"{x},{y},{x},{y - 100}=50 mm")
        self.assertAlmostEqual(json.loads(known[1])["scale"], 0.5)
        half = run(*arguments, "--scale", "0.5", "-o", self.path("h.armure-base"))
        self.assertEqual(half[0], 0, half[2])
        for wrong in (("--scale", "0"), ("--scale", "much"), ("--known", "1,2=3"), ("--known", "0,0=1 in"),
                      ("--scale", "1", "--known", "0,0,0,1=1 mm"), ("--names", svg)):
            self.refused(run("base", "import", svg, *wrong), wrong[0] if wrong[0] != "--names" else "d.svg")
        self.refused(run("base", "import", self.path("made.csv")), "made.csv")
        self.refused(run("base", "import", self.path("none.svg")), "none.svg")

    def test_bad_bases_are_refused(self):
        order = self.path("o.armure")
        for name, content in (("empty", ""), ("cut", '{"format": "armure-base"'), ("other", '{"format": "armure-order", "version": 1}'), ("newer", '{"format": "armure-base", "version": 9}')):
            base = self.write(name + ".armure-base", content)
            self.refused(run("recalc", "--base", base, "--measurements", demo("thomasin-spring.csv"), "-o", order), name)
        self.refused(run("shifts", demo("1-ferry.armure")), "recalc")
        # The broken ones are named, and left out of the list.
        code, out, errors = run("base", "list", self.folder)
        self.assertEqual((code, out), (0, ""))
        self.assertEqual(len(errors.splitlines()), 4)

    def test_a_fitting_from_note_to_pattern(self):
        order, noted, taken = demo("2-lamp-room.armure"), self.path("n.armure"), self.path("t.armure")
        self.assertIn("side-leans-back", run("fit", order, "--complaints")[1])
        self.assertEqual(run("fit", order, "--date", "2026-11-30", "--complaint", "gap-wide", "--by", "1 in", "-o", noted)[0], 0)
        self.assertAlmostEqual(self.girth(noted)["finishedGirth"], self.girth(order)["finishedGirth"], places=6)
        code, out, _ = run("fit", noted, "--date", "2026-11-30", "--work", "take-in", "--seam", "side", "--from", "underbust", "--to", "high_hip", "--by", "1/4 in", "--take", "-o", taken)
        self.assertEqual(code, 0)
        self.assertIn("Side seam", out)
        self.assertAlmostEqual(self.girth(taken)["finishedGirth"], self.girth(order)["finishedGirth"] + 25.4, places=4)
        with open(taken, encoding="utf-8") as f:
            written = json.load(f)
        self.assertEqual(len(written["fittings"][0]["notes"]), 2)
        self.assertEqual(written["alterations"][0]["fitting"], written["fittings"][0]["id"])
        self.refused(run("fit", order, "--complaint", "gapes", "-o", noted, "--force"), "gapes", "--complaints")
        self.refused(run("fit", order, "--work", "take-in", "--seam", "side", "--from", "bust", "--to", "waist", "-o", noted, "--force"), "--by")

    def test_the_demo_base_and_fitting_are_there(self):
        self.assertIn("Ferry bodice", run("base", "list", os.path.join(PROJECT, "demo"))[1])
        with open(demo("3-harbour-wall.armure"), encoding="utf-8") as f:
            self.assertEqual(len(json.load(f)["fittings"]), 1)


if __name__ == "__main__":
    unittest.main(argv=sys.argv[:1])
