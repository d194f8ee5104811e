#!/usr/bin/env python3
"""Changes the core by hand, one place at a time, and asks whether a test notices.

    python3 scripts/mutate.py                  every change, in a copy of the sources
    python3 scripts/mutate.py warning balance  only those of some modules
    python3 scripts/mutate.py --rows 44-60,71  rows as --list counts them
    python3 scripts/mutate.py --list           what there is

A change is a line of scripts/mutations.csv: module, file under crates/pastry/src, the text as it stands (once in the
file), the text instead, and why it matters. One whose text is gone or stands twice is an error: the table is mended
with the code. Built in target/mutants, so that what is built here is not thrown away. The module's own tests are asked first,
then all of them; half a minute to two each.
Not part of the build: by hand, when laws or rules have changed.
"""

import csv
import pathlib
import shutil
import subprocess
import sys

ROOT = pathlib.Path(__file__).resolve().parent.parent
COPY = ROOT / "target/mutants/tree"
TABLE = ROOT / "scripts/mutations.csv"


def mutations(only):
    with open(TABLE, newline="", encoding="utf-8") as file:
        rows = [row for row in csv.DictReader(file) if not only or row["module"] in only]
    for row in rows:
        text = (ROOT / "crates/pastry/src" / row["file"]).read_text()
        if text.count(row["text"]) != 1:
            raise SystemExit(f"{row['file']}: {text.count(row['text'])} times {row['text']!r}: mend scripts/mutations.csv")
    return rows


def numbers(text):
    """44-60,71 as a set."""
    found = set()
    for part in text.split(","):
        low, _, high = part.partition("-")
        found |= set(range(int(low), int(high or low) + 1))
    return found


def copied():
    COPY.mkdir(parents=True, exist_ok=True)
    for name in ["Cargo.toml", "Cargo.lock", "rust-toolchain.toml", "rustfmt.toml", "clippy.toml"]:
        if (ROOT / name).exists():
            shutil.copy2(ROOT / name, COPY / name)
    for name in ["crates", "e2e", "docs", ".cargo"]:
        if (ROOT / name).exists():
            skip = shutil.ignore_patterns("target", "node_modules")
            shutil.copytree(ROOT / name, COPY / name, dirs_exist_ok=True, ignore=skip)


# Tests that a change of a module meets first, by the names of their files.
FIRST = {
    "warning": ["warnings", "harms", "was_wrong"],
    "rheology": ["vectors", "laws", "published", "was_wrong"],
    "job": ["jobs", "films", "drips", "vectors", "was_wrong", "guards"],
    "label": ["composition", "label"],
    "balance": ["sense", "balance::", "practice", "guards"],
    "swap": ["swap"],
    "rescue": ["rescue", "overpour", "guards"],
    "order": ["orders", "order_lists", "harms", "incomplete"],
    "scale": ["scale"],
}


def run(which, names=()):
    """The first test that fails, nothing when all pass; what does not build is no change."""
    command = ["cargo", "test", "-q", "--offline", "-p", "pastry", *which, "--config", "profile.dev.package.pastry.opt-level=1"]
    if names:
        command += ["--", *names]
    done = subprocess.run(command, cwd=COPY, capture_output=True, text=True, timeout=1800)
    if done.returncode == 0:
        return None
    failed = [line.split(" ")[0] for line in done.stdout.splitlines() if line.endswith("FAILED") and "::" in line]
    if not failed and "test failed" not in done.stderr:
        raise SystemExit(f"it does not build:\n{done.stderr[-2000:]}")
    return failed[0] if failed else "a test"


def noticed(module):
    """By which test a change is noticed: the module's own first, then all."""
    whole = ["--test", "it"]
    return run(whole, FIRST.get(module, ())) or run(["--lib"]) or run(whole)


def main():
    words = sys.argv[1:]
    wanted = numbers(words.pop(words.index("--rows") + 1)) if "--rows" in words else None
    rows = mutations([word for word in words if not word.startswith("-")])
    rows = [row for at, row in enumerate(rows, 1) if wanted is None or at in wanted]
    if "--list" in sys.argv:
        for at, row in enumerate(rows, 1):
            print(f"{at:3} {row['module']:10} {row['file']:34} {row['why']}")
        return
    copied()
    alive, count = [], {}
    for row in rows:
        file = COPY / "crates/pastry/src" / row["file"]
        whole = file.read_text()
        file.write_text(whole.replace(row["text"], row["instead"]))
        by = noticed(row["module"])
        file.write_text(whole)
        seen, all_ = count.get(row["module"], (0, 0))
        count[row["module"]] = (seen + bool(by), all_ + 1)
        print(f"{'noticed' if by else 'ALIVE  '} {row['module']:10} {row['why']}{'  by ' + by if by else ''}", flush=True)
        if not by:
            alive.append(row)
    print()
    for module, (seen, all_) in sorted(count.items()):
        print(f"{module:10} {seen} of {all_}")
    raise SystemExit(bool(alive))


if __name__ == "__main__":
    main()
