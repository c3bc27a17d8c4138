#!/usr/bin/env python3
"""The commands of armure-cli, from outside. usage: commands.py ARMURE_CLI PROJECT_DIR"""
import json, math, os, re, subprocess, sys, unittest

from cases import PROJECT, Case, run


class Commands(Case):
    def setUp(self):
        super().setUp()
        self.order = self.path("o.armure")
        self.assertEqual(run("new", "--measurements", os.path.join(PROJECT, "demo", "odalys-autumn.csv"), "--style", "sweetheart-laced", "-o", self.order)[0], 0)

    def test_lists_have_one_line_each_with_tabs(self):
        for command, wanted in (("styles", "sweetheart-laced"), ("schools", "quarter-grid"), ("keys", "hem.length")):
            code, out, _ = run(command)
            self.assertEqual(code, 0)
            lines = out.splitlines()
            self.assertTrue(all("\t" in line for line in lines))
            self.assertTrue(any(line.startswith(wanted + "\t") for line in lines))

    def test_every_key_listed_can_be_set_to_its_default(self):
        for line in run("keys")[1].splitlines():
            key, kind, _, default, _ = line.split("\t")
            if kind in ("measure", "place") or default == "from the measures" or "by figure" in default:
                continue
            code, _, errors = run("set", self.order, f"{key}={default}", "-o", self.path("k.armure"))
            self.assertEqual(code, 0, key + errors)

    def test_set_changes_the_pattern(self):
        self.assertEqual(run("set", self.order, "waist=30 in", "hem.length=5 in", "title=Other", "-o", self.path("b.armure"))[0], 0)
        pieces = []
        for order in (self.order, self.path("b.armure")):
            self.assertEqual(run("export", order, "--pieces", self.path("p.json"))[0], 0)
            with open(self.path("p.json"), encoding="utf-8") as f:
                pieces.append(json.load(f))
        waist = [next(l for l in p["levels"] if l["id"] == "waist") for p in pieces]
        self.assertAlmostEqual(waist[0]["finishedGirth"] - waist[1]["finishedGirth"], 25.4, places=4)
        self.assertEqual(pieces[1]["garment"]["name"], "Other")

    def test_what_the_rails_hold_can_be_scripted(self):
        told = [line.split("\t")[0] for line in run("keys")[1].splitlines() if line.split("\t")[1] == "place"]
        sewn_on = [key for key in told if ".NAME." in key]
        self.assertEqual({key.split(".")[0] for key in sewn_on}, {
            "frill", "ruffle", "flounce", "peplum", "sleeve", "hanging-sleeve", "collar", "edging", "loops", "tie",
            "bow", "pocket", "godet", "garter-tabs", "pleats"})
        told = [key for key in told if key not in sewn_on]
        self.assertEqual(told, ["hold.LEVEL.LINE", "guide.LEVEL.LINE", "share.LEVEL.LINE", "rail.LEVEL", "girth.LEVEL", "swing.EDGE.LINE",
                                "layers.order", "cloth.of.LAYER", "cloth.CLOTH.name", "cloth.CLOTH.width", "cloth.CLOTH.lies", "cloth.CLOTH.way",
                                "cloth.CLOTH.shrinks", "cloth.CLOTH.price", "cloth.CLOTH.note", "cloth.CLOTH.apart", "cloth.CLOTH.off-grain",
                                "cloth.CLOTH.remnant", "lay.CLOTH.PIECE.COPY", "bone.at.PIECE.N", "bone.off.BONE", "seam.SEAM",
                                "lock.PIECE.EDGE"])
        changed = self.path("held.armure")
        self.assertEqual(run("set", self.order, "hold.waist.princess=1 1/8 in", "rail.ribs=2 in", "girth.ribs=29 in", "-o", changed)[0], 0)
        self.assertEqual(run("export", changed, "--pieces", self.path("p.json"))[0], 0)
        with open(self.path("p.json"), encoding="utf-8") as f:
            levels = {l["id"]: l for l in json.load(f)["levels"]}
        self.assertAlmostEqual(levels["ribs"]["closedGirth"], 29 * 25.4, places=3)
        code, _, errors = run("set", self.order, "hold.waist.front-line-9=1 in", "-o", changed)
        self.assertEqual(code, 2)
        self.assertIn("hold.waist.front-line-9", errors)

    def test_what_is_sewn_on_is_cut_and_listed(self):
        changed = self.path("sewn-on.armure")
        self.assertEqual(run("set", self.order, "frill.1.on=hem", "frill.1.deep=4 in", "frill.1.full=3", "frill.1.to=side + 1 in",
                             "-o", changed)[0], 0)
        self.assertEqual(run("export", changed, "--pieces", self.path("p.json"))[0], 0)
        with open(self.path("p.json"), encoding="utf-8") as f:
            frill = next(p for p in json.load(f)["pieces"] if p["id"] == "frill-1")
        self.assertEqual(frill["layer"], "trim")
        depth = next(e for e in frill["edges"] if e["id"] == "end")["points"]
        self.assertAlmostEqual(abs(depth[0][1] - depth[-1][1]), 4 * 25.4, places=3)
        self.assertIn("Frill 1", run("list", changed)[1])
        code, _, errors = run("set", self.order, "frill.1.deep=90 in", "-o", changed)
        self.assertEqual(code, 2)
        self.assertIn("frill.1.deep", errors)
        code, out, errors = run("set", self.order, "sleeve.1.on=armhole", "-o", self.path("none.armure"))
        self.assertIn("left out", out + errors)  # a strapless bodice has no armhole

    def test_balanced_pieces_pass_the_sheet_and_the_independent_checker(self):
        kept = self.path("kept.armure")
        self.assertEqual(run("set", self.order, "balance.keep=balanced", "-o", kept)[0], 0)
        rows = json.loads(run("check", "--json", kept)[1])["rows"]
        self.assertFalse([r for r in rows if r["check"] in ("stretch", "seam", "girth", "join", "corner") and r["result"] == "fail"])
        self.assertEqual(run("export", kept, "--pieces", self.path("p.json"))[0], 0)
        checker = os.path.join(PROJECT, "tests", "support", "check_pieces.py")
        self.assertEqual(subprocess.run([sys.executable, checker, self.path("p.json")], capture_output=True).returncode, 0)

    def test_what_becomes_of_a_seam_is_scripted_and_told(self):
        eased = self.path("eased.armure")
        self.assertEqual(run("set", self.order, "balance.keep=balanced", "seam.princess=ease bust underbust", "lock.front-2.side=yes",
                             "-o", eased)[0], 0)
        told = json.loads(run("check", "--json", eased)[1])["balance"]
        self.assertTrue(told["converged"])
        self.assertEqual(told["unreachable"], [])
        self.assertTrue(all(m["why"] and m["mm"] >= 0 for m in told["moves"]))
        self.assertFalse([m for m in told["moves"] if (m["piece"], m["edge"]) == ("front-2", "side")])
        self.assertEqual(run("export", eased, "--pieces", self.path("e.json"))[0], 0)
        with open(self.path("e.json"), encoding="utf-8") as f:
            seams = {s["id"]: s for s in json.load(f)["seams"]}
        self.assertEqual([(e["from"], e["to"]) for e in seams["princess"]["eased"]], [("bust", "underbust")])
        self.assertAlmostEqual(seams["princess"]["ease"], sum(e["ease"] for e in seams["princess"]["eased"]), places=4)
        # Both sides held: it cannot be, and that is said first.
        stuck = self.path("stuck.armure")
        self.assertEqual(run("set", eased, "seam.side=follow-b", "-o", stuck)[0], 0)
        code, out, _ = run("check", stuck)
        self.assertEqual(code, 1)
        self.assertTrue(out.startswith("FAIL  wish"), out[:200])
        self.assertIn("the side edge of the side front", out)
        code, _, errors = run("set", self.order, "seam.princess=glue", "-o", stuck)
        self.assertEqual(code, 2)
        self.assertIn("ease bust underbust", errors)

    def test_check_agrees_with_its_json(self):
        code, out, _ = run("check", self.order)
        code_json, out_json, _ = run("check", "--json", self.order)
        sheet = json.loads(out_json)
        self.assertEqual(code, code_json)
        self.assertEqual(code, 1 if sheet["failing"] else 0)
        self.assertEqual(out.count("\nFAIL") + out.startswith("FAIL"), sheet["failing"])
        self.assertEqual(sheet["cautions"], [])

    def test_an_order_is_tried_on(self):
        code, out, errors = run("try", "--json", self.order)
        self.assertEqual((code, errors), (0, ""))
        tried = json.loads(out)
        self.assertEqual([l["level"] for l in tried["levels"]][:3], ["bust", "underbust", "waist"])
        self.assertLess(abs(tried["levels"][2]["belowSide"]), 15)
        self.assertGreater(len(tried["top"]), 10)
        code, out, _ = run("try", self.order)
        self.assertEqual(code, 0)
        self.assertIn("Bust point", out)
        self.assertIn("toile", out)
        self.assertEqual(run("set", self.order, "style=covered-round", "-o", self.path("c.armure"))[0], 0)
        self.assertEqual(run("try", self.path("c.armure"))[0], 0)

    def test_a_lacing_is_drawn_with_a_tension(self):
        laced, zipped = self.path("laced.armure"), self.path("zipped.armure")
        run("set", self.order, "opening.kind=lacing", "-o", laced)
        run("set", self.order, "opening.kind=zip", "-o", zipped)
        code, out, _ = run("try", "--json", "--laced", "3", laced)
        self.assertEqual(code, 0)
        opening = json.loads(out)["opening"]
        middle = opening[len(opening) // 2]
        self.assertLess(abs(middle["tensionNPerCm"] - 3), 0.6)
        self.assertGreater(middle["gap"], 0)
        code, _, errors = run("try", "--laced", "3", zipped)
        self.assertEqual(code, 2)
        self.assertIn("no lacing", errors)
        self.assertNotEqual(run("try", "--laced", "-1", laced)[0], 0)

    def test_cautions_come_with_a_reduction(self):
        run("set", self.order, "reduction.waist=2 in", "-o", self.path("r.armure"))
        _, out, _ = run("check", self.path("r.armure"))
        self.assertIn("no medical advice", out)
        self.assertIn("6.5 % less, firm", out)

    def test_measures_say_taken_or_estimated(self):
        code, out, _ = run("measures", "--json", self.order)
        self.assertEqual(code, 0)
        rows = {r["id"]: r for r in json.loads(out)}
        self.assertEqual(rows["bust"]["source"], "taken")
        self.assertAlmostEqual(rows["bust"]["mm"], 42 * 25.4)
        self.assertEqual(rows["shoulder_width"]["source"], "estimated")
        self.assertGreater(rows["shoulder_width"]["spread"], 0)

    def test_list_has_pieces_bones_and_notions(self):
        code, out, errors = run("list", "--json", self.order)
        self.assertEqual(code, 0, errors)
        made = json.loads(out)
        self.assertEqual(run("export", self.order, "--pieces", self.path("l.json"))[0], 0)
        with open(self.path("l.json"), encoding="utf-8") as f:
            exported = json.load(f)
        self.assertEqual([p["piece"] for p in made["pieces"]], [p["id"] for p in exported["pieces"]])
        self.assertEqual([p["copies"] for p in made["pieces"]], [p["copies"] for p in exported["pieces"]])
        channels = [m for p in exported["pieces"] for m in p["marks"] if m["kind"] == "channel"]
        length = lambda m: sum(math.dist(a, b) for a, b in zip(m["points"], m["points"][1:]))
        self.assertEqual(len(channels), len(made["bones"]))
        for got, want in zip(sorted(b["channelLength"] for b in made["bones"]), sorted(map(length, channels))):
            self.assertAlmostEqual(got, want, delta=0.1)
        for b in made["bones"]:
            self.assertAlmostEqual(b["cutLength"], b["channelLength"] - 2 * 0.375 * 25.4, delta=0.1)
            self.assertEqual("seam" in b, "piece" not in b)
        eyelets = [m for p in exported["pieces"] for m in p["marks"] if m["kind"] == "eyelet"]
        counted = {n["id"]: n for n in made["notions"]}
        self.assertEqual(counted["eyelets"]["count"], 2 * len(eyelets))
        self.assertIn("lace", counted)
        code, out, _ = run("list", self.order)
        self.assertEqual(code, 0)
        self.assertIn("spiral steel", out)
        self.assertEqual(run("list", self.path("nothing.armure"))[0], 2)

    def test_all_exports_at_once(self):
        files = [self.path(n) for n in ("p.json", "p.svg", "p.pdf", "m.csv")]
        code, _, errors = run("export", self.order, "--pieces", files[0], "--svg", files[1], "--pdf", files[2], "--paper", "a4", "--measurements", files[3])
        self.assertEqual(code, 0, errors)
        self.assertTrue(all(os.path.getsize(f) > 300 for f in files))
        # The measures as exported make the same order again.
        run("new", "--measurements", files[3], "--style", "sweetheart-laced", "-o", self.path("again.armure"))
        with open(self.order, encoding="utf-8") as a, open(self.path("again.armure"), encoding="utf-8") as b:
            self.assertEqual(a.read(), b.read())

    def test_the_job_sheet_and_the_sheet_to_draw_by_hand(self):
        order = self.path("sheet.armure")
        self.assertEqual(run("set", self.order, "reduction.waist=2 in", "layer.strength=all", "cloth.of.lining=velvet", "-o", order)[0], 0)
        made = json.loads(run("list", "--json", order)[1])
        pdf, page = self.path("s.pdf"), self.path("s.html")
        code, _, errors = run("sheet", order, "--pdf", pdf, "--html", page)
        self.assertEqual(code, 0, errors)
        self.assertEqual(os.stat(page).st_mode & 0o077, 0)  # measures are for their owner
        with open(page, encoding="utf-8") as f:
            html = f.read()
        self.assertNotIn("http", html.replace("http://www.w3.org", ""))  # loads nothing
        text = subprocess.run(["pdftotext", "-layout", pdf, "-"], capture_output=True, text=True).stdout
        for said in (html, " ".join(text.split())):
            for words in ("cotton velvet", "Before it is worn", "no medical advice", "Half girths", "Sewing, in this order"):
                self.assertIn(words, said)
            for piece in made["pieces"]:
                self.assertIn(piece["name"], said)
        hand = self.path("h.html")
        self.assertEqual(run("sheet", order, "--by-hand", "--html", hand)[0], 0)
        with open(hand, encoding="utf-8") as f:
            self.assertIn("the paper must be", f.read())
        self.assertEqual(run("sheet", order)[0], 2)
        self.assertEqual(run("sheet", order, "--pdf", page)[0], 2)  # an HTML page stands there

    def test_every_layer_passes_the_independent_checker_and_reaches_the_paper(self):
        order, pieces, pdf = self.path("layers.armure"), self.path("y.json"), self.path("y.pdf")
        for choices in (["layer.facing=top", "layer.facing_depth=3 in", "layer.lining_shorter=1/2 in", "layer.overlay=panels", "layer.interfacing=doubled"],
                        ["cup.kind=three", "layer.foam=cups", "layer.lining=panels", "layer.interfacing=single",
                         "layer.interfacing_edges=trimmed", "allowance.corners=turned", "notch.kind=triangle"],
                        ["cut.for=toile", "allowance.custom=side-and-hem"]):
            self.assertEqual(run("set", self.order, *choices, "-o", order, "--force")[0], 0)
            self.assertEqual(run("export", order, "--pieces", pieces, "--pdf", pdf, "--force")[0], 0)
            checker = os.path.join(PROJECT, "tests", "support", "check_pieces.py")
            said = subprocess.run([sys.executable, checker, pieces], capture_output=True, text=True)
            self.assertEqual(said.returncode, 0, said.stdout)
            text = " ".join(subprocess.run(["pdftotext", pdf, "-"], capture_output=True, text=True).stdout.split())
            with open(pieces, encoding="utf-8") as f:
                made = json.load(f)["pieces"]
            for piece in made:
                if piece.get("source") and piece["copies"] and piece["id"] == f"{piece['layer']}-{piece['source']}":
                    continue  # cut again, as the shell's piece says
                self.assertIn(piece["name"], text)
                self.assertIn(f"{piece['number']} of {piece['of']}", text)

    def test_a_pdf_is_on_the_orders_own_paper_unless_another_is_named(self):
        order = self.path("on-paper.armure")

        def pages(*options):
            out = self.path("pages.pdf")
            code, _, errors = run("export", order, "--pdf", out, *options)
            self.assertEqual(code, 0, errors)
            with open(out, "rb") as f:
                return len(re.findall(rb"/Type\s*/Page\b", f.read()))
        for paper in ("full", "a4", "letter", "a3", "a0", "roll"):
            self.assertEqual(run("set", self.order, "paper.size=" + paper, "-o", order)[0], 0)
            self.assertEqual(pages(), pages("--paper", paper), paper)
        self.assertEqual(pages("--paper", "full"), 1)
        self.assertGreater(pages("--paper", "a4"), pages("--paper", "a3"))

    def test_the_demo_orders_are_what_their_measures_make(self):
        for name in ("1-ferry", "2-lamp-room", "3-harbour-wall"):
            code, _, errors = run("check", os.path.join(PROJECT, "demo", name + ".armure"))
            self.assertIn(code, (0, 1), errors)

    def test_the_independent_checker_can_fail(self):
        import check_pieces, contextlib, io
        run("export", self.order, "--pieces", self.path("p.json"))
        with open(self.path("p.json"), encoding="utf-8") as f:
            doc = json.load(f)
        doc["pieces"][1]["edges"][0]["points"][0][0] += 5
        with open(self.path("bad.json"), "w", encoding="utf-8") as f:
            json.dump(doc, f)
        said = io.StringIO()
        with contextlib.redirect_stdout(said):
            failed = check_pieces.run(self.path("bad.json"))
        self.assertGreater(failed, 0)
        self.assertIn("FAIL closed", said.getvalue())


if __name__ == "__main__":
    unittest.main(argv=sys.argv[:1])
