#!/usr/bin/env python3
"""What `cmake --install` puts where, and that the installed programs run from there. usage: installed.py BUILD PROJECT_DIR

The desktop's own files are checked against the published specifications of freedesktop.org: desktop entries, shared MIME
info, AppStream."""
import json, os, shutil, subprocess, sys, tempfile, unittest
import xml.etree.ElementTree as ET

BUILD, PROJECT = os.path.abspath(sys.argv[1]), os.path.abspath(sys.argv[2])
MIME = "{http://www.freedesktop.org/standards/shared-mime-info}"


class Installed(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.folder = tempfile.mkdtemp()
        cls.prefix = os.path.join(cls.folder, "usr")
        subprocess.run(["cmake", "--install", BUILD, "--prefix", cls.prefix], check=True, stdout=subprocess.DEVNULL)

    @classmethod
    def tearDownClass(cls):
        shutil.rmtree(cls.folder)

    def share(self, *parts):
        return os.path.join(self.prefix, "share", *parts)

    def run_it(self, program, *arguments, **environment):
        home = os.path.join(self.folder, "home")
        os.makedirs(home, exist_ok=True)
        env = {"HOME": home, "PATH": os.environ["PATH"], "LC_ALL": "C.UTF-8", "QT_QPA_PLATFORM": "offscreen",
               "XDG_RUNTIME_DIR": home, "ASAN_OPTIONS": "detect_leaks=0", **environment}
        return subprocess.run([os.path.join(self.prefix, "bin", program), *arguments], env=env, capture_output=True,
                              text=True, timeout=120)

    def test_everything_is_there_and_nothing_else(self):
        found = sorted(os.path.relpath(os.path.join(d, f), self.prefix) for d, _, files in os.walk(self.prefix) for f in files)
        styles = {f"share/armure/styles/{f}" for f in os.listdir(os.path.join(PROJECT, "styles"))}
        demo = {f"share/armure/demo/{f}" for f in os.listdir(os.path.join(PROJECT, "demo")) if f != "make"}
        self.assertEqual(set(found) - styles - demo, {
            "bin/armure", "bin/armure-cli", "bin/armure-tape",
            "share/applications/armure.desktop", "share/metainfo/local.armure.Armure.metainfo.xml",
            "share/mime/packages/armure.xml", "share/icons/hicolor/scalable/apps/armure.svg",
            "share/icons/hicolor/48x48/apps/armure.png", "share/man/man1/armure.1", "share/man/man1/armure-cli.1",
            "share/man/man1/armure-tape.1", "share/bash-completion/completions/armure",
            "share/bash-completion/completions/armure-cli"})
        self.assertLessEqual(styles | demo, set(found))

    def test_the_window_finds_its_demo_where_it_was_installed(self):
        picture = os.path.join(self.folder, "window.png")
        done = self.run_it("armure", "--demo", "--picture", picture)
        self.assertEqual(done.returncode, 0, done.stderr)
        with open(picture, "rb") as f:
            self.assertEqual(f.read(8), b"\x89PNG\r\n\x1a\n")
        own = os.path.join(self.folder, "home", ".local", "share", "armure", "demo")
        self.assertLessEqual({"1-ferry.armure", "2-lamp-room.armure", "3-harbour-wall.armure", "clients.sqlite"}, set(os.listdir(own)))

    def test_versions_agree(self):
        version = self.run_it("armure-cli", "--version").stdout.split()[1]
        self.assertEqual(self.run_it("armure", "--version").stdout.split()[-1], version)
        release = ET.parse(self.share("metainfo", "local.armure.Armure.metainfo.xml")).find("releases/release")
        self.assertEqual(release.get("version"), version)
        for page in ("armure", "armure-cli", "armure-tape"):
            with open(self.share("man", "man1", page + ".1"), encoding="utf-8") as f:
                self.assertIn(f'"armure {version}"', f.readline())
        with open(os.path.join(PROJECT, "packaging", "debian", "changelog"), encoding="utf-8") as f:
            self.assertIn(f"({version})", f.readline())

    def test_the_desktop_accepts_entry_and_metainfo(self):
        for command in (["desktop-file-validate", self.share("applications", "armure.desktop")],
                        ["appstreamcli", "validate", "--no-net", self.share("metainfo", "local.armure.Armure.metainfo.xml")]):
            done = subprocess.run(command, capture_output=True, text=True)
            self.assertEqual(done.returncode, 0, done.stdout + done.stderr)

    def test_an_order_is_known_by_its_name_and_by_its_content(self):
        mime = shutil.copytree(self.share("mime"), os.path.join(self.folder, "mime"))
        subprocess.run(["update-mime-database", mime], check=True, capture_output=True)
        with open(os.path.join(mime, "globs"), encoding="utf-8") as f:
            self.assertLessEqual({"application/x-armure-order:*.armure", "application/x-armure-base:*.armure-base"},
                                 set(f.read().splitlines()))
        types = ET.parse(self.share("mime", "packages", "armure.xml")).getroot().findall(MIME + "mime-type")
        magic = {t.get("type"): t.find(f"{MIME}magic/{MIME}match") for t in types}
        for name, kind in (("1-ferry.armure", "application/x-armure-order"), ("ferry.armure-base", "application/x-armure-base")):
            with open(os.path.join(PROJECT, "demo", name), encoding="utf-8") as f:
                text = f.read()
            for other, match in magic.items():
                first, last = map(int, match.get("offset").split(":"))
                at = text.find(match.get("value"))
                self.assertEqual(first <= at <= last, other == kind, f"{name} as {other}")

    def test_the_icon_is_of_its_size(self):
        with open(self.share("icons", "hicolor", "48x48", "apps", "armure.png"), "rb") as f:
            head = f.read(24)
        self.assertEqual((int.from_bytes(head[16:20], "big"), int.from_bytes(head[20:24], "big")), (48, 48))
        self.assertTrue(ET.parse(self.share("icons", "hicolor", "scalable", "apps", "armure.svg")).getroot().tag.endswith("svg"))

    def test_pages_have_no_faults(self):
        for page in ("armure", "armure-cli", "armure-tape"):
            done = subprocess.run(["groff", "-man", "-ww", "-z", "-Kutf8", self.share("man", "man1", page + ".1")], capture_output=True, text=True)
            self.assertEqual((done.returncode, done.stderr), (0, ""), page)


if __name__ == "__main__":
    unittest.main(argv=sys.argv[:1])
