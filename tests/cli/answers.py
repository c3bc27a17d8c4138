#!/usr/bin/env python3
"""How armure-cli is asked and answers: help, what was meant, streams, many orders, units, JSON, and that its man page and
its completion know all of it. usage: answers.py ARMURE_CLI PROJECT_DIR"""
import glob, json, os, re, subprocess, sys, unittest

from cases import CLI, PROJECT, Case, run

DEMO = sorted(glob.glob(os.path.join(PROJECT, "demo", "*.armure")))
MEASURES = os.path.join(PROJECT, "demo", "odalys-autumn.csv")


def commands():
    listed = run("--help")[1].split("Subcommands:")[1]
    return re.findall(r"^  ([a-z-]+)", listed, re.M)


def options(command):
    return set(re.findall(r"--[a-z][a-z-]*", run(command, "--help")[1]))


class Help(Case):
    def test_the_version_is_said(self):
        code, out, _ = run("--version")
        self.assertEqual(code, 0)
        self.assertRegex(out, r"^armure-cli \d+\.\d+\.\d+\n$")

    def test_every_command_and_topic_has_its_help(self):
        out = run("help")[1]
        topics = re.findall(r"^  ([a-z-]+) ", out.split("Topics")[1], re.M)
        self.assertIn("exit-codes", topics)
        self.assertIn("check", commands())
        for topic in topics + commands():
            code, said, errors = run("help", topic)
            self.assertEqual((code, errors), (0, ""), topic)
            self.assertGreater(len(said), 80, topic)

    def test_the_cautions_can_be_read(self):
        self.assertIn("unless a doctor has said yes", run("help", "reduction")[1])

    def test_what_was_meant_is_told(self):
        for said, meant in ((["chek", DEMO[0]], "did you mean check?"),
                            (["check", "--jsom", DEMO[0]], "did you mean --json?"),
                            (["help", "exit-code"], "did you mean exit-codes?"),
                            (["export", DEMO[0], "--into", self.folder, "--as", "pfd"], "did you mean pdf?"),
                            (["set", DEMO[0], "hem.lenght=3 in", "-o", self.path("x")], "hem.length"),
                            (["new", "--measurements", MEASURES, "--style", "sweethart-zip", "-o", self.path("x")], "sweetheart-zip"),
                            (["keys", "hem.lenght"], "hem.length")):
            self.refused(run(*said), meant)

    def test_what_is_nothing_like_a_command_points_to_the_list(self):
        self.refused(run("qqqqqqqq"), "armure-cli help lists the commands")
        self.refused(run(), "armure-cli help")


class Streams(Case):
    def pipe(self, text, *arguments):
        done = subprocess.run([CLI, *arguments], input=text, capture_output=True, timeout=60)
        return done.returncode, done.stdout, done.stderr.decode()

    def test_an_order_goes_through_pipes(self):
        with open(MEASURES, "rb") as f:
            code, order, errors = self.pipe(f.read(), "new", "--measurements", "-", "--title", "Piped", "-o", "-")
        self.assertEqual(code, 0, errors)
        self.assertEqual(json.loads(order)["title"], "Piped")
        code, changed, errors = self.pipe(order, "set", "-", "waist=30 in", "-o", "-")
        self.assertEqual(code, 0, errors)
        code, sheet, _ = self.pipe(changed, "check", "-", "--json")
        self.assertEqual(code, 0)
        self.assertEqual(json.loads(sheet)["failing"], 0)
        for command in ("list", "measures"):
            self.assertEqual(self.pipe(changed, command, "-")[0], 0)

    def test_one_file_goes_to_standard_output(self):
        with open(DEMO[0], "rb") as f:
            order = f.read()
        code, pieces, errors = self.pipe(order, "export", "-", "--pieces", "-")
        self.assertEqual(code, 0, errors)
        self.assertEqual(json.loads(pieces)["format"], "armure-pieces")
        code, pdf, _ = self.pipe(order, "export", "-", "--pdf", "-")
        self.assertTrue(pdf.startswith(b"%PDF"))
        self.assertEqual(self.pipe(order, "export", "-", "--pdf", "-", "--svg", "-")[0], 2)

    def test_what_is_no_order_is_refused_by_its_name(self):
        for text in (b"", b"no order", b"{", b"\xff\xfe"):
            code, out, errors = self.pipe(text, "check", "-")
            self.assertEqual((code, out), (2, b""), text)
            self.assertIn("standard input", errors)


class Many(Case):
    def test_many_are_checked_each_under_its_name(self):
        code, out, _ = run("check", *DEMO)
        self.assertEqual(code, 0)
        self.assertEqual([line[3:] for line in out.splitlines() if line.startswith("== ")], DEMO)
        sheets = json.loads(run("check", *DEMO, "--json")[1])
        self.assertEqual([s["file"] for s in sheets], DEMO)

    def test_the_exit_code_is_the_worst_and_the_others_are_done(self):
        broken = self.write("broken.armure", "{")
        code, out, errors = run("check", DEMO[0], broken, DEMO[1])
        self.assertEqual(code, 2)
        self.assertEqual(out.count(" checks, "), 2)
        self.assertIn("broken.armure", errors)

    def test_many_are_exported_into_a_folder(self):
        into = self.path("new/folder")
        code, out, errors = run("export", *DEMO, "--into", into, "--as", "svg,pdf,sheet", "--json")
        self.assertEqual(code, 0, errors)
        stems = [os.path.splitext(os.path.basename(f))[0] for f in DEMO]
        self.assertEqual(sorted(os.listdir(into)), sorted(s + e for s in stems for e in (".svg", ".pdf", "-sheet.pdf")))
        told = json.loads(out)
        self.assertEqual([t["order"] for t in told], DEMO)
        self.assertTrue(all(os.path.exists(f) for t in told for f in t["files"]))
        single = self.path("one.svg")
        self.assertEqual(run("export", DEMO[0], "--svg", single)[0], 0)
        with open(single, "rb") as a, open(os.path.join(into, stems[0] + ".svg"), "rb") as b:
            self.assertEqual(a.read(), b.read())

    def test_what_cannot_be_meant_together_is_refused(self):
        for arguments in ([*DEMO, "--svg", self.path("x.svg")], [DEMO[0], "--into", self.folder],
                          [DEMO[0], "--as", "svg"], [DEMO[0], "--into", self.folder, "--as", "svg", "--pdf", "x"],
                          [DEMO[0], DEMO[0], "--into", self.folder, "--as", "svg"]):
            self.refused(run("export", *arguments))
        self.assertEqual(os.listdir(self.folder), [])


class Units(Case):
    def test_answers_are_in_the_units_asked_for(self):
        mm = {l.split("\t")[0]: float(l.split("\t")[1]) for l in run("measures", DEMO[0])[1].splitlines()}
        for where in (("--units", "cm", "measures", DEMO[0]), ("measures", DEMO[0], "--units", "cm")):
            cm = {l.split("\t")[0]: l.split("\t")[1] for l in run(*where)[1].splitlines()}
            self.assertEqual(set(cm), set(mm))
            self.assertAlmostEqual(float(cm["waist"].removesuffix(" cm")) * 10, mm["waist"], delta=0.51)
        self.assertIn(" cm ", run("--units", "cm", "list", DEMO[0])[1])
        self.assertNotIn(" cm ", run("--units", "in", "list", DEMO[0])[1])
        self.assertRegex(run("--units", "in", "check", DEMO[0])[1], r"pass +stretch +.*: 0\.\d{3} in")
        self.assertNotRegex(run("--units", "in", "check", DEMO[0])[1], r"\d mm\b")
        self.assertRegex(run("check", DEMO[0])[1], r"moved +\d+\.\d mm  ")
        self.refused(run("--units", "ell", "check", DEMO[0]))

    def test_they_do_not_change_the_order(self):
        changed = self.path("o.armure")
        self.assertEqual(run("--units", "cm", "set", DEMO[0], "title=Same", "-o", changed)[0], 0)
        with open(changed) as f:
            self.assertEqual(json.load(f)["units"], "in")


class Json(Case):
    def test_what_was_done_is_told(self):
        order = self.path("o.armure")
        code, out, _ = run("new", "--measurements", MEASURES, "-o", order, "--json")
        self.assertEqual(code, 0)
        self.assertEqual(json.loads(out)["file"], order)
        self.assertIn("measure armhole", [i["key"] for i in json.loads(out)["idle"]])
        told = json.loads(run("set", order, "waist=29 in", "-o", order, "--force", "--json")[1] or "null")
        self.assertTrue(told is None or told["failing"] == 0)

    def test_lists_are_json_too(self):
        styles, schools, keys = (json.loads(run(c, "--json")[1]) for c in ("styles", "schools", "keys"))
        self.assertEqual([s["id"] for s in styles], [l.split("\t")[0] for l in run("styles")[1].splitlines()])
        self.assertTrue(all(s["description"] for s in schools))
        by_key = {k["key"]: k for k in keys}
        self.assertEqual(by_key["hem.at"]["type"], "option")
        self.assertEqual(by_key["hem.at"]["default"], by_key["hem.at"]["options"][0]["id"])
        self.assertTrue(all(o["label"] and o["reason"] for o in by_key["hem.at"]["options"]))

    def test_keys_about_a_word_stand_by_group_with_their_options(self):
        out = run("keys", "Hem")[1]
        self.assertRegex(out, r"(?m)^Hem\n  hem\.at ")
        self.assertIn("      waist-point ", out)
        self.assertNotIn("cup.kind", out)


class Known(Case):
    """The man page and the completion know every command and option."""

    def test_the_man_page(self):
        with open(os.path.join(PROJECT, "packaging", "man", "armure-cli.1"), encoding="utf-8") as f:
            page = f.read().replace("\\-", "-")
        for command in commands():
            self.assertIn(f".SS {command}", page)
            for option in options(command) - {"--help"}:
                self.assertIn(option, page, command)

    def test_completion(self):
        script = os.path.join(PROJECT, "packaging", "completion", "armure-cli")

        def completed(*words):
            asked = f'PATH="{os.path.dirname(CLI)}:$PATH"; source {script}; COMP_WORDS=({" ".join(words)} ""); ' \
                    f"COMP_CWORD={len(words)}; _armure_cli; printf '%s\\n' \"${{COMPREPLY[@]}}\""
            done = subprocess.run(["bash", "-c", asked], capture_output=True, text=True, cwd=self.folder, timeout=60)
            self.assertEqual(done.stderr, "")
            return set(done.stdout.split())

        self.assertLessEqual(set(commands()), completed("armure-cli"))
        for command in ("check", "export", "fit"):
            asked = f'PATH="{os.path.dirname(CLI)}:$PATH"; source {script}; COMP_WORDS=(armure-cli {command} --); ' \
                    "COMP_CWORD=2; _armure_cli; printf '%s\\n' \"${COMPREPLY[@]}\""
            said = subprocess.run(["bash", "-c", asked], capture_output=True, text=True, timeout=60).stdout.split()
            self.assertEqual(set(said), options(command))
        self.assertIn("sweetheart-zip", completed("armure-cli", "new", "--style"))
        self.assertIn("exit-codes", completed("armure-cli", "help"))
        self.write("mine.armure", "")
        self.assertIn("mine.armure", completed("armure-cli", "check"))


if __name__ == "__main__":
    unittest.main(argv=sys.argv[:1])
