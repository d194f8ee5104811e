"""What NumPy makes of readings: mean and spread of offsets, by the textbook form of Bayesian linear regression.

    python3 scripts/oracle_learning.py > crates/pastry/tests/it/data/learning.json

The belief after readings y = X t + e, t ~ N(0, V), e ~ N(0, S) is N(V X' K y, V - V X' K X V) with K = (X V X' + S)^-1: the form with
one row and column for each reading, which shares nothing with the form that the core uses (one for each offset).
"""

import json

import numpy as np

USUAL = 0.30
SHARES = {"kitchen": 0.15, "family": 0.35, "ingredient": 0.35}


def main() -> None:
    dice = np.random.default_rng(20261129)
    names = [("kitchen", "")]
    names += [("family", key) for key in ("ganache", "buttercream", "curd")]
    names += [("ingredient", key) for key in ("dark70", "cream36", "butter82", "yolk", "gelatin200")]
    variance = np.array([SHARES[kind] * USUAL**2 for kind, _ in names])
    rows, design, noise, seen = [], [], [], []
    for turn in range(24):
        weights = np.zeros(len(names))
        weights[0] = 1.0
        weights[1 + turn % 3] = 1.0
        for at in dice.choice(range(4, len(names)), size=2, replace=False):
            weights[at] = round(float(dice.uniform(0.1, 0.9)), 3)
        scatter, reading = round(float(dice.uniform(0.01, 0.04)), 4), round(float(dice.uniform(0.01, 0.06)), 4)
        ln_over = round(float(dice.normal(0.0, 0.35)), 4)
        design.append(weights)
        noise.append(scatter + reading)
        seen.append(ln_over)
        rows.append(
            {
                "weights": [[kind, key, float(w)] for (kind, key), w in zip(names, weights) if w],
                "scatter": scatter,
                "reading": reading,
                "ln_over": ln_over,
            }
        )
    x, v, y = np.array(design), np.diag(variance), np.array(seen)
    gain = v @ x.T @ np.linalg.inv(x @ v @ x.T + np.diag(noise))
    mean, spread = gain @ y, v - gain @ x @ v
    print(
        json.dumps(
            {
                "made_by": "scripts/oracle_learning.py with NumPy " + np.__version__,
                "rows": rows,
                "offsets": [
                    [kind, key, float(m), float(np.sqrt(s))]
                    for (kind, key), m, s in zip(names, mean, np.diag(spread))
                ],
            },
            indent=1,
        )
    )


if __name__ == "__main__":
    main()
