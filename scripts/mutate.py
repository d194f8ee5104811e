#!/usr/bin/env python3
"""Changes the core by hand, one place at a time, and asks whether a test notices.

    python3 scripts/mutate.py                  every change, in a copy of the sources
    python3 scripts/mutate.py warning balance  only those of some modules
    python3 scripts/mutate.py --list           what there is

A change is a line of scripts/mutations.csv: module, file under crates/pastry/src, the text as it stands (once in the
file), the text instead, and why it matters. One whose text is gone or stands twice is an error: the table is mended
with the code. Built in target/mutants, so that what is built here is not thrown away; about half a minute each.
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


def copied():
    COPY.mkdir(parents=True, exist_ok=True)
    for name in ["Cargo.toml", "Cargo.lock", "rust-toolchain.toml", "rustfmt.toml", "clippy.toml"]:
        if (ROOT / name).exists():
            shutil.copy2(ROOT / name, COPY / name)
    for name in ["crates", "e2e", "docs", ".cargo"]:
        if (ROOT / name).exists():
            skip = shutil.ignore_patterns("target", "node_modules")
            shutil.copytree(ROOT / name, COPY / name, dirs_exist_ok=True, ignore=skip)


def noticed():
    """Whether a test fails; what does not build is no change."""
    command = ["cargo", "test", "-q", "--offline", "-p", "pastry", "--lib", "--test", "it", "--no-fail-fast"]
    run = subprocess.run(command, cwd=COPY, capture_output=True, text=True, timeout=900)
    if run.returncode == 0:
        return False, ""
    failed = [line.split()[1] for line in run.stdout.splitlines() if line.startswith("test ") and "FAILED" in line]
    if not failed and "error" in run.stderr and "test failed" not in run.stderr:
        raise SystemExit(f"it does not build:\n{run.stderr[-2000:]}")
    return True, failed[0] if failed else "a test"


def main():
    only = [word for word in sys.argv[1:] if not word.startswith("-")]
    rows = mutations(only)
    if "--list" in sys.argv:
        for row in rows:
            print(f"{row['module']:10} {row['file']:34} {row['why']}")
        return
    copied()
    alive, count = [], {}
    for row in rows:
        file = COPY / "crates/pastry/src" / row["file"]
        whole = file.read_text()
        file.write_text(whole.replace(row["text"], row["instead"]))
        dead, by = noticed()
        file.write_text(whole)
        seen, all_ = count.get(row["module"], (0, 0))
        count[row["module"]] = (seen + dead, all_ + 1)
        print(f"{'noticed' if dead else 'ALIVE  '} {row['module']:10} {row['why']}{'  by ' + by if by else ''}", flush=True)
        if not dead:
            alive.append(row)
    print()
    for module, (seen, all_) in sorted(count.items()):
        print(f"{module:10} {seen} of {all_}")
    raise SystemExit(bool(alive))


if __name__ == "__main__":
    main()
