"""Exports of the command line against each other, read by readers of their own: usage: exports.py ARMURE_CLI ROOT"""
import json
import math
import os
import re
import subprocess
import sys
import tempfile
import unittest
import xml.etree.ElementTree as xml

CLI, ROOT = sys.argv[1], sys.argv[2]
SVG = "{http://www.w3.org/2000/svg}"


def run(*arguments):
    done = subprocess.run([CLI, *arguments], capture_output=True, text=True)
    return done.returncode, done.stdout, done.stderr


def dxf_pairs(path):
    """Group codes and values of a DXF in ASCII (release 12: pairs of lines)."""
    with open(path, encoding="ascii") as file:
        lines = file.read().split("\n")
    return [(int(code), value.strip()) for code, value in zip(lines[0::2], lines[1::2])]


def dxf_entities(path):
    """Blocks by name, and the inserts and texts outside them. A polyline is (layer, closed, points)."""
    blocks, name, entities, polyline = {}, None, [], None
    section, entity = None, {}

    def end(entity):
        nonlocal name, polyline
        kind = entity.get(0)
        here = blocks[name] if name is not None else entities
        if kind == "BLOCK":
            name = entity[2]
            blocks[name] = []
        elif kind == "ENDBLK":
            name = None
        elif kind == "POLYLINE":
            polyline = (entity[8], int(entity.get(70, 0)) & 1, [])
            here.append(polyline)
        elif kind == "VERTEX":
            polyline[2].append((float(entity[10]), float(entity[20])))
        elif kind in ("INSERT", "TEXT", "POINT"):
            here.append((kind, entity))

    for code, value in dxf_pairs(path) + [(0, "EOF")]:
        if code == 0:
            if section in ("BLOCKS", "ENTITIES"):
                end(entity)
            entity = {0: value}
            if value == "ENDSEC":
                section = None
        else:
            entity[code] = value
            if entity.get(0) == "SECTION" and code == 2:
                section = value
    return blocks, entities


def distance_to_ring(point, ring):
    best = math.inf
    for a, b in zip(ring, ring[1:] + ring[:1]):
        ab = (b[0] - a[0], b[1] - a[1])
        square = ab[0] ** 2 + ab[1] ** 2
        t = 0 if square == 0 else max(0, min(1, ((point[0] - a[0]) * ab[0] + (point[1] - a[1]) * ab[1]) / square))
        best = min(best, math.hypot(point[0] - a[0] - t * ab[0], point[1] - a[1] - t * ab[1]))
    return best


def polygon_area(ring):
    return abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, ring[1:] + ring[:1]))) / 2


class Exports(unittest.TestCase):
    def setUp(self):
        self.folder = tempfile.TemporaryDirectory()
        self.addCleanup(self.folder.cleanup)

    def path(self, name):
        return os.path.join(self.folder.name, name)

    def order(self, name="2-lamp-room", *settings):
        target = self.path("o.armure")
        code, _, errors = run("set", f"{ROOT}/demo/{name}.armure", "notes=x", *settings, "-o", target)
        self.assertEqual(code, 0, errors)
        return target

    def pieces(self, order):
        target = self.path("p.json")
        self.assertEqual(run("export", order, "--pieces", target)[0], 0)
        with open(target, encoding="utf-8") as file:
            return {p["id"]: p for p in json.load(file)["pieces"]}

    def test_a_dxf_has_a_block_for_each_piece_with_the_same_outline_to_a_hundredth(self):
        for style in ("sweetheart-laced", "covered-round", "off-shoulder"):
            order = self.order("2-lamp-room", f"style={style}", 'title="Crème brûlée"')
            pieces = self.pieces(order)
            target = self.path("p.dxf")
            self.assertEqual(run("export", order, "--dxf", target)[0], 0)
            blocks, entities = dxf_entities(target)
            inserts = {e[2] for kind, e in entities if kind == "INSERT"}
            self.assertEqual(inserts, set(blocks))
            self.assertTrue(set(blocks) <= set(pieces))
            for name, block in blocks.items():
                cut = [p for p in block if p[0] == "1" and len(p) == 3]
                self.assertEqual(len(cut), 1, name)
                self.assertTrue(cut[0][1], name)
                piece = pieces[name]
                # The block has the grain upright, y up.
                (x0, y0), (x1, y1) = piece["grain"]
                turn = math.atan2(x1 - x0, y1 - y0)
                c, s = math.cos(turn), math.sin(turn)
                outline = [(x0 + c * (x - x0) - s * (y - y0), -(y0 + s * (x - x0) + c * (y - y0)))
                           for x, y in piece["cutOutline"]]
                worst = max(distance_to_ring(p, outline) for p in cut[0][2])
                self.assertLess(worst, 0.01, name)
                self.assertAlmostEqual(polygon_area(cut[0][2]) / polygon_area(outline), 1, 4)
                sewn = [p for p in block if len(p) == 3 and p[0] in ("14", "6")]
                self.assertEqual(len([p for p in sewn]), len(piece["edges"]) + 2 * len(piece.get("darts", [])), name)
                texts = " ".join(e[1] for kind, e in (p for p in block if len(p) == 2) if kind == "TEXT")
                self.assertIn("Piece Name: " + name, texts)
                self.assertRegex(texts, "Quantity: [0-9]")
            said = " ".join(e[1] for kind, e in entities if kind == "TEXT")
            for words in ("Cr\\U+00E8me", "Units: METRIC", "Balance sheet", "no medical advice"):
                self.assertIn(words, said)

    def test_an_svg_has_a_group_and_a_title_for_each_piece_and_says_whose_it_is(self):
        order = self.order("3-harbour-wall", "client=Ottiline Fenn", "date=2026-10-01")
        target = self.path("p.svg")
        self.assertEqual(run("export", order, "--svg", target)[0], 0)
        root = xml.parse(target).getroot()
        groups = {g.get("id"): g for g in root.iter(SVG + "g")}
        pieces = self.pieces(order)
        for name in [p for p in pieces if pieces[p]["layer"] == "shell"]:
            self.assertEqual(groups[name].find(SVG + "title").text, pieces[name]["name"])
            self.assertEqual(len(groups[name].findall(SVG + "polygon")), 1)
            self.assertIn("grain." + name, groups)
        ids = [e.get("id") for e in root.iter() if e.get("id")]
        self.assertEqual(len(ids), len(set(ids)))  # none twice
        said = " ".join(t.text or "" for t in groups["order"].iter(SVG + "text"))
        for words in ("Ottiline Fenn", "2026-10-01", "Balance sheet"):
            self.assertIn(words, said)

    def test_some_pieces_or_layers_alone(self):
        order = self.order()
        everything = set(self.pieces(order))
        target = self.path("p.dxf")
        self.assertEqual(run("export", order, "--dxf", target, "--only", "front-1,back-1")[0], 0)
        self.assertEqual(set(dxf_entities(target)[0]), {"front-1", "back-1"})
        self.assertEqual(run("export", order, "--dxf", target, "--layers", "shell")[0], 0)
        self.assertTrue(set(dxf_entities(target)[0]) < everything)
        for wrong in (["--only", "front-9"], ["--layers", "linin"]):
            code, _, errors = run("export", order, "--dxf", target, *wrong)
            self.assertEqual(code, 2)
            self.assertIn("it has", errors)
        code, _, errors = run("export", order, "--pieces", self.path("q.json"), "--only", "front-1")
        self.assertEqual(code, 2)
        self.assertIn("always has everything", errors)

    def page_sizes(self, path):
        info = subprocess.run(["pdfinfo", "-l", "999", path], capture_output=True, text=True).stdout
        return [tuple(float(v) * 25.4 / 72 for v in m) for m in re.findall(r"size:\s+([0-9.]+) x ([0-9.]+) pts", info)]

    def test_few_sheets_none_of_them_blank_and_nothing_wider_than_its_roll(self):
        order = self.order("2-lamp-room", "style=off-shoulder")
        target = self.path("p.pdf")
        self.assertEqual(run("export", order, "--pdf", target, "--paper", "a4")[0], 0)
        self.assertLessEqual(len(self.page_sizes(target)), 51)
        for roll, width in (("24 in", 609.6), ("914 mm", 914), ("30 in", 762)):
            self.assertEqual(run("export", order, "--pdf", target, "--roll", roll)[0], 0)
            for wide, _ in self.page_sizes(target):
                self.assertLessEqual(wide, width + 0.36)
        code, _, errors = run("export", order, "--pdf", target, "--roll", "24 in", "--paper", "a4")
        self.assertEqual(code, 2)
        self.assertIn("leave one of the two away", errors)

    def lay(self, order, *options):
        code, answer, errors = run("lay", order, "--json", "--seconds", "0.2", *options)
        return code, json.loads(answer)["cloths"] if answer else [], errors

    def test_every_copy_lies_once_on_its_cloth_and_on_its_grain(self):
        order = self.order("3-harbour-wall")
        pieces = self.pieces(order)
        code, cloths, errors = self.lay(order)
        self.assertEqual(code, 0, errors)
        listed = json.loads(run("list", order, "--json")[1])
        self.assertEqual([c["cloth"] for c in cloths], [c["cloth"] for c in listed["cloths"]])
        for cloth in cloths:
            copies = {}
            for p in cloth["placements"]:
                copies.setdefault(p["piece"], []).append(p["copy"])
                turn = math.radians(p["degrees"])
                c, s = math.cos(turn), math.sin(turn)
                flip = -1 if p["mirrored"] else 1

                def laid(v):
                    return (c * flip * v[0] - s * v[1] + p["x"], s * flip * v[0] + c * v[1] + p["y"])

                piece = pieces[p["piece"]]
                for x, y in map(laid, piece["cutOutline"]):
                    self.assertTrue(-1e-3 < x < cloth["length"] + 1e-3 and -1e-3 < y < cloth["width"] + 1e-3)
                (_, y0), (_, y1) = map(laid, piece["grain"])
                self.assertAlmostEqual(y0, y1, 4)
            for cut in listed["pieces"]:
                if cut["cloth"] == cloth["cloth"]:
                    self.assertEqual(sorted(copies[cut["piece"]]), list(range(1, cut["copies"] + 1)))
            self.assertGreater(cloth["utilisation"], 0.2)

    def test_a_narrower_cloth_needs_more_of_it_and_one_too_narrow_is_told(self):
        order = self.order()
        wide = self.lay(order, "--cloth", "satin", "--width", "60 in")[1]
        narrow = self.lay(order, "--cloth", "satin", "--width", "36 in")[1]
        self.assertEqual(len(wide), 1)
        self.assertLess(wide[0]["length"], narrow[0]["length"])
        code, cloths, _ = self.lay(order, "--width", "5 in")
        self.assertEqual(code, 1)
        self.assertIn("no room", cloths[0]["problem"])
        code, _, errors = self.lay(order, "--cloth", "sailcloth")
        self.assertEqual(code, 2)
        self.assertIn("satin", errors)
        for wrong in ("0 in", "wide"):
            self.assertEqual(self.lay(order, "--width", wrong)[0], 2)

    def test_the_layouts_as_a_drawing(self):
        order, target = self.order(), self.path("lay.svg")
        self.assertEqual(run("lay", order, "--seconds", "0", "--svg", target)[0], 0)
        groups = [g.get("id") for g in xml.parse(target).getroot().iter(SVG + "g")]
        self.assertIn("satin", groups)
        self.assertIn("satin.front-1.1", groups)
        self.assertEqual(len(groups), len(set(groups)))


if __name__ == "__main__":
    unittest.main(argv=sys.argv[:1] + sys.argv[3:])
