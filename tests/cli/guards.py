#!/usr/bin/env python3
"""What the command line must never do: draft otherwise in another locale, write over what it should not, hang, abort, or
accept what does nothing. usage: guards.py ARMURE_CLI PROJECT_DIR"""
import json, os, re, resource, shutil, socket, stat, subprocess, sys, unittest

from cases import CLI, PROJECT, HEADER, Case, run

CLIENT = HEADER + "bust,92.9,cm,\nupper_bust,\"85,5\",cm,\nwaist,28 1/2,in,\nhigh_hip,35.5,in,\nhip,38,in,\nstature,66,in,\n"


class Guards(Case):
    def setUp(self):
        super().setUp()
        self.list = self.write("client.csv", CLIENT)
        self.order = self.path("o.armure")
        code, _, errors = run("new", "--measurements", self.list, "-o", self.order)
        self.assertEqual(code, 0, errors)

    def read(self, name):
        with open(self.path(name), "rb") as f:
            return f.read()


class Locales(Guards):
    """Decimal commas and a Turkish i change nothing: every byte as with LC_ALL=C."""

    def everything(self, locale):
        env = dict(os.environ, LC_ALL=locale)
        made = {}
        for style in ("sweetheart-zip", "reducing-four-lines", "cup-three-pieces", "sheer-inserts", "moulded-cup"):
            order = self.path(f"{locale}-{style}.armure")
            answers = [run("new", "--measurements", self.list, "--style", style, "--title", "Istanbul", "-o", order, env=env)]
            answers.append(run("check", order, "--json", env=env))
            answers.append(run("set", order, "hem.length=4.5 in", "intake.centre_share=0,4", "-o", order + "2", env=env))
            files = [self.path(f"{locale}-{style}.{kind}") for kind in ("pieces", "svg", "pdf", "csv")]
            answers.append(run("export", order, "--pieces", files[0], "--svg", files[1], "--pdf", files[2],
                               "--measurements", files[3], env=env))
            answers.append(run("measures", order, env=env))
            made[style] = [(code, out) for code, out, _ in answers]
            for file in [order, order + "2"] + files:
                with open(file, "rb") as f:
                    content = f.read()
                if file.endswith(".pdf"):  # when it was made, and an id from that
                    content = re.sub(rb"D:\d{14}[^)]*|\d{4}-\d\d-\d\dT[\d:+-]*|uuid:[0-9a-f-]*|<[0-9a-f]{32}>", b"", content)
                    content = re.sub(rb"startxref\s+\d+", b"", content)
                made[style].append(content)
        return made

    def test_every_export_is_the_same_byte_by_byte(self):
        available = subprocess.run(["locale", "-a"], capture_output=True, text=True).stdout.lower()
        plain = self.everything("C")
        for locale in ("de_DE.UTF-8", "tr_TR.UTF-8"):
            self.assertIn(locale.lower().replace("-", ""), available, "./test installs this locale")
            for style, made in self.everything(locale).items():
                for i, (a, b) in enumerate(zip(plain[style], made)):
                    self.assertEqual(a, b, f"{locale} {style} {i}")


class Writing(Guards):
    def test_no_input_is_written_over(self):
        before = self.read("o.armure")
        self.refused(run("set", self.order, "hem.length=4 in", "-o", self.order), "the file that is read")
        self.refused(run("export", self.order, "--svg", self.order, "--force"), "the file that is read")
        os.symlink(self.order, self.path("link.armure"))
        os.link(self.order, self.path("hard.armure"))
        for other in ("link.armure", "hard.armure"):
            self.refused(run("set", self.order, "hem.length=4 in", "-o", self.path(other), "--force"), "the file that is read")
        self.refused(run("new", "--measurements", self.list, "-o", self.list, "--force"), "the file that is read")
        self.assertEqual(self.read("o.armure"), before)
        self.assertEqual(self.read("client.csv").decode(), CLIENT)

    def test_devices_pipes_sockets_and_protected_files_are_left(self):
        os.mkfifo(self.path("pipe"))
        listener = socket.socket(socket.AF_UNIX)
        listener.bind(self.path("socket"))
        self.write("kept.svg", "<svg/>")
        os.chmod(self.path("kept.svg"), 0o444)
        for name, word in (("pipe", "a pipe"), ("socket", "a socket"), ("kept.svg", "write-protected"), (".", "a folder")):
            self.refused(run("export", self.order, "--svg", self.path(name), "--force", timeout=5), word)
            self.refused(run("set", self.order, "hem.length=4 in", "-o", self.path(name), "--force", timeout=5), word)
        self.refused(run("export", self.order, "--svg", "/dev/null"), "a device")
        self.assertTrue(stat.S_ISFIFO(os.stat(self.path("pipe")).st_mode))
        self.assertTrue(stat.S_ISSOCK(os.stat(self.path("socket")).st_mode))
        self.assertEqual(self.read("kept.svg"), b"<svg/>")
        listener.close()

    def test_a_file_of_another_kind_only_with_force(self):
        self.write("photo.svg", "not a picture, but somebody's")
        other = self.path("other.armure")
        shutil.copy(self.order, other)
        self.refused(run("export", self.order, "--svg", other), "an order stands there", "--force")
        self.refused(run("export", self.order, "--svg", self.path("photo.svg")), "--force")
        self.refused(run("set", self.order, "hem.length=4 in", "-o", self.list), "a list of measures stands there")
        self.assertEqual(self.read("other.armure"), self.read("o.armure"))
        self.assertEqual(run("export", self.order, "--svg", self.path("photo.svg"), "--force")[0], 0)
        self.assertEqual(run("export", self.order, "--svg", self.path("photo.svg"))[0], 0)  # its own kind needs none

    def test_several_exports_are_written_all_or_none(self):
        self.write("p.json", "")
        before = sorted(os.listdir(self.folder))
        self.refused(run("export", self.order, "--pieces", self.path("p.json"), "--svg", self.path("no/such/x.svg")))
        self.refused(run("export", self.order, "--pieces", self.path("x"), "--svg", self.path("x")), "two exports")
        self.assertEqual(sorted(os.listdir(self.folder)), before)
        self.assertEqual(self.read("p.json"), b"")

    def test_names_up_to_the_limit_and_leftovers(self):
        name = "n" * 251 + ".svg"
        self.write(".armure-Ab3dEf.part", "left by a program that was killed")
        self.assertEqual(run("export", self.order, "--svg", self.path(name))[0], 0)
        self.assertEqual([f for f in os.listdir(self.folder) if f.startswith(".")], [])
        self.refused(run("export", self.order, "--svg", self.path("n" * 300)), "name")

    def test_client_data_are_readable_by_their_owner_only(self):
        run("export", self.order, "--measurements", self.path("m.csv"))
        for name in ("o.armure", "m.csv"):
            self.assertEqual(stat.S_IMODE(os.stat(self.path(name)).st_mode), 0o600, name)
        os.chmod(self.order, 0o640)  # as the user wants it: kept
        run("new", "--measurements", self.list, "-o", self.order)
        self.assertEqual(stat.S_IMODE(os.stat(self.order).st_mode), 0o640)

    def test_a_full_standard_output_is_told(self):
        for command in (["keys"], ["styles"], ["check", self.order], ["--help"]):
            with open("/dev/full", "w") as full:
                done = subprocess.run([CLI, *command], stdout=full, stderr=subprocess.PIPE, text=True)
            self.assertEqual(done.returncode, 2, command)
            self.assertIn("standard output", done.stderr)


class Hostile(Guards):
    def bounded(self, *arguments):
        """At most 15 s of processor time, whatever else the machine does; what waits for ever ends after 60 s."""
        def limit():
            resource.setrlimit(resource.RLIMIT_AS, (64 << 40, 64 << 40))  # the sanitizer maps terabytes it never uses
            resource.setrlimit(resource.RLIMIT_CPU, (15, 15))

        return run(*arguments, preexec_fn=limit)

    def text(self, **members):
        order = json.loads(self.read("o.armure"))
        order.update(members)
        return json.dumps(order)

    def test_depth_size_and_version(self):
        deep = "[" * 100000 + "]" * 100000
        plain = self.read("o.armure").decode()
        cases = {
            "deep-version": plain.replace('"version": 3', '"version": ' + deep),
            "deep-member": plain.replace('"title"', '"unknown": ' + deep + ', "title"', 1),
            "object-version": plain.replace('"version": 3', '"version": {"a": {"b": 1}}'),
            "version-0": plain.replace('"version": 3', '"version": 0'),
            "version-big": plain.replace('"version": 3', '"version": 123456789012345678901234567890'),
            "version-float": plain.replace('"version": 3', '"version": 2.5'),
            "large": plain.replace('"title"', '"unknown": "' + "x" * (17 << 20) + '", "title"', 1),
        }
        for name, text in cases.items():
            with self.subTest(name):
                self.refused(self.bounded("check", self.write(name, text)), name)
        self.assertEqual(self.bounded("check", self.write("64", plain.replace('"title"', '"unknown": ' + "[" * 60 + "]" * 60 + ', "title"', 1)))[0], 0)

    def test_many_choices_take_linear_time_and_are_read_back(self):
        many = {f"future.rule{i}": "1" for i in range(120000)}
        path = self.write("many.armure", self.text(choices=many))
        code, _, errors = self.bounded("set", path, "hem.length=4 in", "-o", self.path("again.armure"))
        self.assertEqual(code, 0, errors)
        self.assertLess(errors.count("\n"), 30)
        again = json.loads(self.read("again.armure"))["choices"]
        self.assertEqual(len(again), 120001)

    def test_pipes_and_endless_devices_are_not_read(self):
        os.mkfifo(self.path("pipe"))
        for command in (["check", self.path("pipe")], ["new", "--measurements", self.path("pipe"), "-o", self.path("x")],
                        ["check", "/dev/zero"], ["new", "--measurements", "/dev/zero", "-o", self.path("x")]):
            self.refused(self.bounded(*command), "not a file")

    def test_rows_of_a_list(self):
        rows = HEADER + "".join(f"m{i},1,in,\n" for i in range(10001))
        self.refused(self.bounded("new", "--measurements", self.write("long.csv", rows), "-o", self.path("x")), "10000 rows")

    def test_what_is_quoted_is_short_and_cannot_move_the_cursor(self):
        long = "\x1b[2J" + "x" * 500
        path = self.write("quote.csv", HEADER + f"bust,\"{'7' * 500}\",in,\n")
        for result in (run("set", self.order, f"hem.length={long}", "-o", self.path("x")), run("check", self.path("no\x1b[2J")),
                       run("new", "--measurements", path, "-o", self.path("x"))):
            self.refused(result)
            self.assertNotIn("\x1b", result[2])
            self.assertLess(len(result[2]), 600)

    def test_what_contradicts_itself_is_told(self):
        order = json.loads(self.read("o.armure"))
        order["measures"]["bust"]["typed"] = "36 in"
        order["measures"]["waist"]["note"] = 7
        text = json.dumps(order).replace('"hip":', '"hip": {"mm": 900}, "hip":', 1)
        code, _, errors = run("set", self.write("odd.armure", text), "hem.length=4 in", "-o", self.path("x.armure"))
        self.assertEqual(code, 0, errors)
        self.assertIn("measures.bust", errors)
        self.assertIn("measures.waist.note is not text", errors)
        self.assertIn("measures.hip stands twice", errors)
        self.assertEqual(json.loads(self.read("x.armure"))["measures"]["waist"]["note"], 7)

    def test_members_of_takings_survive(self):
        run("set", self.order, "waist=28; 28 1/2", "-o", self.path("t.armure"))
        order = json.loads(self.read("t.armure"))
        order["measures"]["waist"]["takings"][1]["by"] = {"deep": ["M."]}
        run("set", self.write("u.armure", json.dumps(order)), "hem.length=4 in", "-o", self.path("v.armure"))
        self.assertEqual(json.loads(self.read("v.armure"))["measures"]["waist"]["takings"][1]["by"], {"deep": ["M."]})


class Keys(Guards):
    def test_lengths_in_every_spelling_are_kept_in_one(self):
        spellings = ["7 cm ", "7cm", " 7 cm", "7\u00a0cm", "7\u202fcm", "7 cm", "7\tcm", "7,0 cm"]
        for text in spellings:
            out = self.path("k.armure")
            code, _, errors = run("set", self.order, f"hem.length={text}", "-o", out)
            self.assertEqual(code, 0, (text, errors))
            kept = json.loads(self.read("k.armure"))["choices"]["hem.length"]
            self.assertIn(kept, ("7 cm", "7.0 cm"))
            self.assertNotEqual(run("check", out)[0], 2)
        for text in ("5\u2033", "5''", "5\"", "5 in", "5 inches", "5\u2032\u2032"):
            self.assertEqual(run("set", self.order, f"hem.length={text}", "-o", self.path("k.armure"))[0], 0, text)
            self.assertEqual(json.loads(self.read("k.armure"))["choices"]["hem.length"], "5 in")

    def test_misspelt_keys_name_the_nearest(self):
        for wrong, right in (("hem.lenght=5 in", "hem.length"), ("seam.princes=both", "seam.princess"),
                             ("hold.wiast.princess=1 in", "waist"), ("hold.waist.princes=1 in", "hold.waist.princess"),
                             ("wasit=28 in", "waist"), ("style=sweethart-zip", "sweetheart-zip"),
                             ("seam.cup-99=both", ""), ("lock.front-1.pricess=yes", "")):
            self.refused(run("set", self.order, wrong, "-o", self.path("x.armure")), right)
        self.assertFalse(os.path.exists(self.path("x.armure")))

    def test_what_has_no_effect_is_kept_and_called_idle(self):
        cases = [("style=straps-shaped", "keyhole.kind=front"), ("style=halter", "yoke.front=net"),
                 ("style=covered-round", "intake.top=2 in"), ("hem.length=4 in", "waist_to_high_hip=4 in", "hold.high_hip.princess=1/2 in"),
                 ("seam.cup-1=both",), ("lock.yoke-front.hem=yes",), ("hold.waist.front-line-4=1 in",), ("balance.ease_limit=1/4 in",)]
        for settings in cases:
            with self.subTest(settings):
                out = self.path("idle.armure")
                code, answer, errors = run("set", self.order, *settings, "-o", out)
                self.assertEqual(code, 0, errors)
                key = settings[-1].split("=")[0]
                self.assertIn(f"idle  {key}", answer)
                self.assertIn(f"{key} is idle", run("check", out)[1])
                self.assertIn(key, json.loads(self.read("idle.armure"))["choices"])
        code, answer, _ = run("set", self.order, "top.shape=straight", "reduction.waist=1 in", "-o", self.path("used.armure"))
        self.assertNotIn("idle  top.shape", answer)
        self.assertNotIn("idle  reduction.waist", answer)

    def test_exit_codes(self):
        code, _, errors = run("set", self.order, "seam.princess=leave", "balance.keep=drafted", "style=cup-two-pieces", "-o", self.path("f.armure"))
        self.assertEqual(code, 0, errors)
        self.assertIn("of the balance sheet", errors)
        self.assertEqual(run("check", self.path("f.armure"))[0], 1)
        self.assertEqual(run("export", self.path("f.armure"), "--svg", self.path("f.svg"))[0], 0)
        self.refused(run("set", self.order, "waist=60 in", "-o", self.path("g.armure")))
        self.assertEqual(run("check", self.order)[0], 0)
        self.assertEqual(json.loads(self.read("o.armure"))["choices"]["balance.keep"], "balanced")

    def test_a_notch_never_lies_on_an_edge_that_is_gone(self):
        self.assertEqual(run("set", self.order, "style=sweetheart-yoke", "back.slope=3.5 in", "-o", self.path("y.armure"))[0], 0)
        code, _, errors = run("export", self.path("y.armure"), "--pieces", self.path("y.json"), "--svg", self.path("y.svg"), "--pdf", self.path("y.pdf"))
        self.assertEqual(code, 0, errors)

    def test_untouched_styles_of_the_demo_clients_pass(self):
        styles = [line.split("\t")[0] for line in run("styles")[1].splitlines()]
        for client in ("odalys-spring", "perpetua-spring", "thomasin-spring"):
            for style in styles:
                order = self.path(f"{client}-{style}.armure")
                code, _, errors = run("new", "--measurements", os.path.join(PROJECT, "demo", client + ".csv"), "--style", style, "-o", order)
                self.assertEqual(code, 0, errors)
                self.assertNotIn("of the balance sheet", errors, style)

    def test_the_demo_opens_without_a_failing_row(self):
        for name in sorted(os.listdir(os.path.join(PROJECT, "demo"))):
            if name.endswith(".armure"):
                code, out, _ = run("check", os.path.join(PROJECT, "demo", name))
                self.assertEqual(code, 0, out)


if __name__ == "__main__":
    unittest.main(argv=sys.argv[:1], verbosity=1)
