#!/usr/bin/env python3
"""Reads every #include and fails on an arrow against the order of docs/architecture.md.

Fails too where two headers define a type of one name.

usage: includes.py PROJECT_DIR

The order stands in the page's block ```order, from the bottom up, one folder a line; a folder may include those above it
in the list and itself. `uses` after a folder names what else it may include of other places than the core.
"""
import os, re, sys


def order_of(page):
    block = re.search(r"```order\n(.*?)```", page, re.S)
    if not block:
        sys.exit("docs/architecture.md has no block ```order")
    return [line.split()[0] for line in block.group(1).splitlines() if line.strip()]


def folder_of(name):
    """The place in the order of a file, by its path from the project's root."""
    parts = name.split(os.sep)
    if parts[0] != "core":
        return parts[0]
    if parts[1] == "parts":
        # What can be chosen of a part is data of the rule table, kept beside what is built from it.
        return "core/rules" if parts[-1] == "rules.h" else "/".join(parts[:3])
    return "core/" + parts[1] if len(parts) > 2 else "core"


def included(path, project):
    for number, line in enumerate(open(path, encoding="utf-8"), 1):
        found = re.match(r'#include "([^"]+)"', line)
        if not found:
            continue
        target = found.group(1)
        for root in ("", "core"):
            if os.path.exists(os.path.join(project, root, target)):
                yield number, os.path.join(root, target) if root else target
                break


def main():
    project = os.path.abspath(sys.argv[1])
    order = order_of(open(os.path.join(project, "docs", "architecture.md"), encoding="utf-8").read())
    place = {folder: i for i, folder in enumerate(order)}
    wrong, arrows, homes = [], 0, {}
    for top in ("core", "io", "book", "tape", "render", "cli", "app", "fuzz"):
        for folder, _, files in os.walk(os.path.join(project, top)):
            for file in sorted(files):
                if not file.endswith((".h", ".cpp")):
                    continue
                path = os.path.join(folder, file)
                name = os.path.relpath(path, project)
                me = folder_of(name)
                if me not in place:
                    wrong.append(f"{name}: the folder {me} does not stand in the order")
                    continue
                text = open(path, encoding="utf-8").read()
                if top == "core" and re.search(r"#include <(Q\w+|fstream|filesystem|iostream)>", text):
                    wrong.append(f"{name}: the core knows neither Qt nor files")
                if top == "io" and re.search(r"#include <Q\w+>", text):
                    wrong.append(f"{name}: io does not know Qt")
                if file.endswith(".h") and "#pragma once" not in text:
                    wrong.append(f"{name}: a header without #pragma once")
                if not text.startswith("//") and file.endswith(".h"):
                    wrong.append(f"{name}: a header begins with what lives in it and why")
                # One name for two types makes one program of two halves that do not fit, and no tool says so.
                for name_of in re.findall(r"^(?:class|struct|enum class) (\w+)[^;]*?\{", text, re.M) if file.endswith(".h") else ():
                    if homes.setdefault(name_of, name) != name:
                        wrong.append(f"{name}: {name_of} is a type of {homes[name_of]} too")
                for number, target in included(path, project):
                    arrows += 1
                    to = folder_of(target)
                    if to not in place or place[to] > place[me]:
                        wrong.append(f"{name}:{number}: {me} may not include {target}; see docs/architecture.md")
    print(f"{arrows} includes read, {len(wrong)} against the order")
    for line in wrong:
        print("FAIL", line)
    sys.exit(1 if wrong else 0)


if __name__ == "__main__":
    main()
