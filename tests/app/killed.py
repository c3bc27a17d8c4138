#!/usr/bin/env python3
"""The real window, typed into through the X server, ended at random moments: everything typed up to a second before stands
in the work it keeps, and is offered by the next window. usage: killed.py ARMURE PROJECT_DIR [ROUNDS [SEED]] (a display)"""
import glob, json, os, random, shutil, signal, subprocess, sys, tempfile, time

ARMURE, PROJECT = os.path.abspath(sys.argv[1]), os.path.abspath(sys.argv[2])
ROUNDS, SEED = int(sys.argv[3]) if len(sys.argv) > 3 else 100, int(sys.argv[4]) if len(sys.argv) > 4 else 1


def xdotool(*arguments):
    return subprocess.run(["xdotool", *map(str, arguments)], capture_output=True, text=True).stdout.split()


def kept(home):
    orders = []
    for path in glob.glob(os.path.join(home, "state", "armure", "autosave", "*.json")):
        with open(path, encoding="utf-8") as f:
            orders.append(json.loads(json.load(f)["order"]))
    return orders


def session(dice, number):
    home = tempfile.mkdtemp()
    env = dict(os.environ, XDG_STATE_HOME=home + "/state", XDG_DATA_HOME=home + "/data", XDG_CONFIG_HOME=home + "/config")
    order = os.path.join(home, "order.armure")
    shutil.copy(os.path.join(PROJECT, "demo", "1-ferry.armure"), order)
    program = subprocess.Popen([ARMURE, order], env=env, stderr=subprocess.DEVNULL)
    try:
        window = xdotool("search", "--sync", "--onlyvisible", "--pid", program.pid, "--name", "^Armure$")[0]
        time.sleep(1)
        xdotool("windowfocus", window)
        xdotool("mousemove", "--window", window, 215, 351, "click", 1)  # the waist, see docs/screenshots/client.png
        end = time.monotonic() + 1.2 + 4 * dice.random()
        typed = []  # value, when its last key was sent
        sixteenths = 26 * 16
        while time.monotonic() < end:
            sixteenths += dice.randrange(1, 9)
            value = sixteenths / 16
            xdotool("key", "--window", 0, "ctrl+a")
            xdotool("type", "--delay", 12, f"{value:g}")
            typed.append((value, time.monotonic()))
            time.sleep(0.4 * dice.random())
        now = time.monotonic()
        program.send_signal(number)
        program.wait(20)
    finally:
        program.kill()
        program.wait()
    early = [v for v, at in typed if at < now - 1]
    found = [o["measures"]["waist"]["mm"] / 25.4 for o in kept(home)]
    # What is kept is the last value typed up to a second before, or a later one (or one half typed).
    good = not early or (len(found) == 1 and (found[0] >= early[-1] - 1e-6 or len(early) < len(typed)))
    left = [f for f in glob.glob(home + "/**/.armure-*", recursive=True)]
    shutil.rmtree(home)
    return good, bool(early), found, early[-1:], left


def main():
    dice = random.Random(SEED)
    told = 0
    for i in range(ROUNDS):
        number = signal.SIGTERM if i % 4 == 3 else signal.SIGKILL
        good, counted, found, early, left = session(dice, number)
        told += counted
        if not good:
            sys.exit(f"round {i}: typed {early} a second before, kept {found}")
        if left and number == signal.SIGTERM:
            sys.exit(f"round {i}: left lying {left}")
    print(f"ended {ROUNDS} times, {told} of them with something typed a second before: all of it was kept")


main()
