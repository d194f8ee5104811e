#!/usr/bin/env python3
"""The smallest rebalance, found by SciPy instead: an independent check of crates/pastry/src/balance/solve.rs.

    python3 -m venv /tmp/oracle && /tmp/oracle/bin/pip install -r scripts/requirements.txt
    cargo build --release -p pastry --example edges
    /tmp/oracle/bin/python scripts/oracle_balance.py           writes the fixture of the test
    /tmp/oracle/bin/python scripts/oracle_balance.py --time    prints ours beside SLSQP, by size

SciPy knows nothing of pastry: it asks the core only where a set of amounts stands (the two edges of the
window and the split index) and differences, searches and restarts by itself, from the formula and from
eight seeded starts round it. What it minimises is 1/2 sum w (u - u0)^2 over u = ln grams.
"""

import csv
import json
import pathlib
import subprocess
import sys
import time

import numpy as np
from scipy.optimize import minimize

ROOT = pathlib.Path(__file__).resolve().parent.parent
EDGES = ROOT / "target/release/examples/edges"
FIXTURE = ROOT / "crates/pastry/tests/it/data/balance_optima.csv"
PROBLEMS = ROOT / "crates/pastry/tests/it/data/balance_problems.jsonl"


class Core:
    """The program that answers for the core, one question a line."""

    def __init__(self):
        self.process = subprocess.Popen([EDGES], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True)
        self.asked, self.seconds = 0, 0.0

    def open(self, document):
        self.process.stdin.write(json.dumps(document) + "\n")
        self.process.stdin.flush()
        self.problem = json.loads(self.process.stdout.readline())
        self.asked, self.seconds = 0, 0.0
        return self.problem

    def edges(self, u):
        began = time.perf_counter()
        self.process.stdin.write(" ".join(f"{x:.17e}" for x in u) + "\n")
        self.process.stdin.flush()
        answer = np.array([float(x) for x in self.process.stdout.readline().split()])
        self.asked += 1
        self.seconds += time.perf_counter() - began
        return answer

    def close_problem(self):
        self.process.stdin.write("\n")
        self.process.stdin.flush()


def solve(core, problem, starts):
    """The best of SLSQP from every start; (cost, u) or None when nothing is feasible."""
    u0 = np.log(problem["start"])
    weight = np.array(problem["weight"])
    cost = lambda u: 0.5 * float(np.sum(weight * (u - u0) ** 2))
    slope = lambda u: weight * (u - u0)
    bounds = list(zip(np.log(problem["least"]), np.log(problem["most"])))
    margin = problem["margin"]

    def window(u):
        loose, stiff, split = core.edges(u)
        return np.array([-loose - margin, stiff - margin, problem["most_split"] - split])

    def limits(u):
        grams = np.exp(u)
        return np.array([-np.dot(c, grams) / grams.sum() for c in problem["limits"]])

    constraints = [{"type": "ineq", "fun": window}]
    if problem["limits"]:
        constraints.append({"type": "ineq", "fun": limits})
    if problem["total"]:
        constraints.append({"type": "eq", "fun": lambda u: np.log(np.exp(u).sum() / problem["total"])})
    for a, b in problem["pairs"]:
        constraints.append({"type": "eq", "fun": lambda u, a=a, b=b: u[a] - u[b] - (u0[a] - u0[b])})
    best = None
    for start in starts:
        start = np.clip(start, [low for low, _ in bounds], [high for _, high in bounds])
        found = minimize(cost, start, jac=slope, bounds=bounds, constraints=constraints, method="SLSQP",
                         options={"maxiter": 200, "ftol": 1e-10})
        held = all(np.all(np.atleast_1d(c["fun"](found.x)) > -1e-4) if c["type"] == "ineq"
                   else abs(c["fun"](found.x)) < 1e-4 for c in constraints)
        if held and (best is None or found.fun < best[0]):
            best = (float(found.fun), found.x)
    return best


def starts_of(problem, many):
    u0 = np.log(problem["start"])
    random = np.random.default_rng(20)
    return [u0] + [u0 + random.normal(0.0, 0.3, len(u0)) for _ in range(many)]


def fixture():
    core = Core()
    rows = []
    for line in PROBLEMS.read_text().splitlines():
        case = json.loads(line)
        problem = core.open(case["document"])
        best = solve(core, problem, starts_of(problem, 8))
        core.close_problem()
        grams = "" if best is None else " ".join(f"{g:.4f}" for g in np.exp(best[1]))
        rows.append([case["name"], "" if best is None else f"{best[0]:.8f}", grams])
        ours = problem["cost"] if problem["met"] else None
        print(f"{case['name']}: scipy {best and round(best[0], 6)} ours {ours and round(ours, 6)}")
    with FIXTURE.open("w", newline="") as out:
        writer = csv.writer(out, lineterminator="\n")
        writer.writerow(["problem", "cost", "grams"])
        writer.writerows(rows)


def timings():
    core = Core()
    by_size = {}
    for line in PROBLEMS.read_text().splitlines():
        case = json.loads(line)
        problem = core.open(case["document"])
        began = time.perf_counter()
        solve(core, problem, starts_of(problem, 0))
        whole = time.perf_counter() - began
        # What the pipe and the core took is not SciPy's doing.
        own, asked = whole - core.seconds, core.asked
        core.close_problem()
        by_size.setdefault(len(problem["start"]), []).append((problem["seconds"], own, whole, asked))
    print("lines  problems  ours ms  SLSQP alone ms  with its questions ms  questions")
    for size, taken in sorted(by_size.items()):
        ours, own, whole, asked = np.median(np.array(taken), axis=0)
        print(f"{size:5}  {len(taken):8}  {1e3 * ours:7.2f}  {1e3 * own:14.2f}  {1e3 * whole:21.2f}  {asked:9.0f}")


if __name__ == "__main__":
    timings() if "--time" in sys.argv[1:] else fixture()
