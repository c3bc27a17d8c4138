#!/usr/bin/env python3
"""Bad input: each gives a message that names the place, exit 2, and nothing is lost or half written.

usage: bad_input.py ARMURE_CLI PROJECT_DIR
"""
import os, resource, shutil, signal, subprocess, sys, unittest

from cases import CLI, PROJECT, HEADER, Case, run

GOOD = HEADER + "bust,36,in,\nwaist,28,in,\nhip,38,in,\nstature,66,in,\n"


class BadInput(Case):
    def test_measurement_files(self):
        out = os.path.join(self.folder, "o.armure")
        cases = {
            "empty.csv": ("", "empty"),
            "binary.csv": (bytes(range(256)) * 8, "not a text file"),
            "header.csv": ("girth;size\nbust;36\n", "line 1", "measure,value,unit,note"),
            "unit.csv": (HEADER + "bust,36,,\n", "line 2", "unit is missing"),
            "fraction.csv": (HEADER + "bust,36,in,\nwaist,9 1/,in,\n", "line 3", "9 1/"),
            "negative.csv": (HEADER + "bust,-36,in,\n", "line 2", "-36"),
            "large.csv": (HEADER + "bust,4000,cm,\n", "line 2", "4000 cm"),
            "nan.csv": (HEADER + "bust,NaN,in,\n", "line 2", "NaN"),
            "waist.csv": (HEADER + "bust,90,cm,\nwaist,120,cm,\nhip,110,cm,\n", "waist", "30 cm"),
            "nowaist.csv": (HEADER + "bust,90,cm,\nhip,110,cm,\n", "Waist was not taken"),
            "order.csv": (GOOD + "shoulder_to_bust,15,in,\nshoulder_to_underbust,13,in,\n", "underbust"),
        }
        for name, (content, *words) in cases.items():
            with self.subTest(name):
                path = self.write(name, content)
                self.refused(run("new", "--measurements", path, "-o", out), name, *words)
                self.assertFalse(os.path.exists(out))
        self.refused(run("new", "--measurements", os.path.join(self.folder, "missing.csv"), "-o", out), "missing.csv", "no such file")

    def order(self):
        path = os.path.join(self.folder, "good.armure")
        self.assertEqual(run("new", "--measurements", self.write("good.csv", GOOD), "-o", path)[0], 0)
        return path

    def test_order_files(self):
        with open(self.order(), encoding="utf-8") as f:
            text = f.read()
        cases = {
            "empty.armure": ("", "empty"),
            "binary.armure": (bytes(range(256)), "line 1"),
            "cut.armure": (text[: len(text) // 2], "line", "breaks off"),
            "newer.armure": (text.replace('"version": 3', '"version": 7'), "version 7", "newer Armure"),
            "other.armure": ('{"format": "something"}', "not an Armure order"),
            "choice.armure": (text.replace('"balance.keep": "balanced"', '"hem.length": "nine"'), "hem.length", "nine"),
        }
        for name, (content, *words) in cases.items():
            with self.subTest(name):
                path = self.write(name, content)
                for command in (["check", path], ["export", path, "--svg", os.path.join(self.folder, "x.svg")], ["set", path, "title=x", "-o", path], ["measures", path]):
                    self.refused(run(*command), name, *words)
                with open(path, "rb") as f:
                    self.assertEqual(f.read(), content if isinstance(content, bytes) else content.encode())
                self.assertFalse(os.path.exists(os.path.join(self.folder, "x.svg")))

    def test_arguments(self):
        order = self.order()
        out = os.path.join(self.folder, "b.armure")
        for arguments, word in ((["set", order, "hem.length=99", "-o", out], "hem.length"), (["set", order, "nonsense", "-o", out], "KEY=VALUE"), (["set", order, "no.key=1", "-o", out], "no.key"),
                                (["set", order, "style=best", "-o", out], "styles lists them"), (["set", order, "bust=9 1/", "-o", out], "bust"), (["export", order], "nothing to export"),
                                (["export", order, "--pdf", out, "--paper", "a9"], "a9")):
            with self.subTest(word):
                self.refused(run(*arguments), word)
                self.assertFalse(os.path.exists(out))
        self.assertEqual(run("fly")[0], 2)
        self.assertEqual(run()[0], 2)
        self.assertEqual(run("--help")[0], 0)

    def assert_untouched(self, folder, name, content):
        self.assertEqual(os.listdir(folder), [name])
        with open(os.path.join(folder, name), "rb") as f:
            self.assertEqual(f.read(), content)

    def test_read_only_folder(self):
        order = self.order()
        locked = os.path.join(self.folder, "locked")
        os.mkdir(locked)
        target = os.path.join(locked, "o.armure")
        with open(target, "wb") as f:
            f.write(b"old")
        os.chmod(locked, 0o555)
        # Permissions do not bind root: such a run is made as nobody, with a copy of the program that nobody may start.
        options = {}
        if os.geteuid() == 0:
            options = {"user": 65534, "group": 65534, "program": shutil.copy(CLI, self.folder)}
        os.chmod(self.folder, 0o755)
        os.chmod(order, 0o644)
        self.refused(run("set", order, "title=x", "-o", target, "--force", **options), "o.armure", "may not be written")
        os.chmod(locked, 0o755)
        self.assert_untouched(locked, "o.armure", b"old")

    def test_full_disk(self):
        order = self.order()
        disk = os.path.join(self.folder, "disk")
        os.mkdir(disk)
        if subprocess.run(["mount", "-t", "tmpfs", "-o", "size=16k", "tmpfs", disk], capture_output=True).returncode != 0:
            self.skipTest("a small disk cannot be mounted here; the next test cuts the file instead")
        try:
            target = os.path.join(disk, "p.svg")
            with open(target, "wb") as f:
                f.write(b"old")
            self.refused(run("export", order, "--svg", target, "--force"), "p.svg", "disk is full")
            self.assert_untouched(disk, "p.svg", b"old")
            self.refused(run("export", order, "--pdf", target, "--paper", "a4", "--force"), "p.svg", "disk is full")
            self.assert_untouched(disk, "p.svg", b"old")
        finally:
            subprocess.run(["umount", disk], check=True)

    def test_a_write_that_is_cut_short(self):
        order = self.order()
        place = os.path.join(self.folder, "place")
        os.mkdir(place)
        target = os.path.join(place, "p.json")
        with open(target, "wb") as f:
            f.write(b"old")

        def limit():
            signal.signal(signal.SIGXFSZ, signal.SIG_IGN)
            resource.setrlimit(resource.RLIMIT_FSIZE, (4096, 4096))

        self.refused(run("export", order, "--pieces", target, "--force", preexec_fn=limit), "p.json", "cannot be written")
        self.assert_untouched(place, "p.json", b"old")


if __name__ == "__main__":
    unittest.main(argv=sys.argv[:1])
