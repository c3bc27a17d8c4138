"""What the tests of the command line share: running it, and a folder of one's own. CLI and PROJECT are the arguments."""
import os, shutil, subprocess, sys, tempfile, unittest

CLI, PROJECT = os.path.abspath(sys.argv[1]), os.path.abspath(sys.argv[2])
HEADER = "measure,value,unit,note\n"
sys.path.insert(0, os.path.join(PROJECT, "tests", "support"))


def run(*arguments, program=CLI, **options):
    """Exit code, what it said on stdout, and on stderr."""
    options.setdefault("timeout", 60)
    done = subprocess.run([program, *map(str, arguments)], capture_output=True, text=True, **options)
    return done.returncode, done.stdout, done.stderr


class Case(unittest.TestCase):
    def setUp(self):
        self.folder = tempfile.mkdtemp()

    def tearDown(self):
        shutil.rmtree(self.folder, ignore_errors=True)

    def path(self, name):
        return os.path.join(self.folder, name)

    def write(self, name, content):
        with open(self.path(name), "wb") as f:
            f.write(content if isinstance(content, bytes) else content.encode())
        return self.path(name)

    def refused(self, result, *words):
        """Exit 2, and a message in the form of all of them with these words in it."""
        code, _, errors = result
        self.assertEqual(code, 2, errors)
        self.assertTrue(errors.startswith("armure-cli: "), errors)
        for word in words:
            self.assertIn(word, errors)
