"""A second reckoning of bodies that cool: fine finite differences that know nothing of the core.

Bowls are the caps of balls they are, not cylinders of their volume; jars stand in glass; a coat lies on a cold cake; a bowl goes
from iced water into a fridge. Constant properties, so that what is compared is the way through the body. With --write the
answers go to crates/pastry/tests/it/data/clock_second_route.json, which a test of the core reads.
"""

import json
import sys
from pathlib import Path

import numpy as np

CUSTARD = {"k": 0.50, "rho": 1090.0, "c": 3500.0}
CREAM = {"k": 0.28, "rho": 950.0, "c": 3000.0}
CRUMB = {"k": 0.11, "rho": 480.0, "c": 2200.0}


def round_body(inside, dx, material, wall_area):
    """Cells of a body of revolution: inside(r, z) for every cell, the true area of its wall, m^2."""
    rings, rows = inside.shape
    r = (np.arange(rings) + 0.5) * dx
    ring = 2 * np.pi * r * dx
    volume = np.where(inside, (ring * dx)[:, None], 0.0)
    out = {"inside": inside, "dx": dx, "volume": volume, "material": material}
    # Faces between cells.
    edge = 2 * np.pi * (np.arange(1, rings) * dx) * dx
    out["across"] = np.where(inside[1:, :] & inside[:-1, :], edge[:, None], 0.0)
    out["up"] = np.where(inside[:, 1:] & inside[:, :-1], ring[:, None], 0.0)
    # Faces to the outside: the top row's lid is the top, all else is wall.
    top = np.zeros(inside.shape)
    top[:, -1] = np.where(inside[:, -1], ring, 0.0)
    wall = np.zeros(inside.shape)
    outer = 2 * np.pi * ((np.arange(rings) + 1) * dx) * dx
    beyond = np.zeros(inside.shape, bool)
    beyond[:-1, :] = inside[1:, :]
    wall += np.where(inside & ~beyond, outer[:, None], 0.0)
    below = np.zeros(inside.shape, bool)
    below[:, 1:] = inside[:, :-1]
    wall += np.where(inside & ~below, ring[:, None], 0.0)
    out["top"] = top
    # A wall of stairs is longer than what it stands for.
    out["wall"] = wall * (wall_area / wall.sum())
    return out


def follow(body, start, phases, marks):
    """Temperatures over time; minutes at which a point comes to each mark."""
    k, rho, c = (body["material"][key] for key in ("k", "rho", "c"))
    dx, volume = body["dx"], body["volume"]
    heat = np.where(volume > 0, volume * rho * c, 1.0)
    t = np.full(volume.shape, start)
    dt = 0.2 * dx * dx * rho * c / k
    now, found, last = 0.0, [None] * len(marks), None
    mass = volume.sum()
    for minutes, top, wall in phases:
        u_top = 1 / (1 / top["h"] + top["r"] + 0.5 * dx / k)
        u_wall = 1 / (1 / wall["h"] + wall["r"] + 0.5 * dx / k)
        end = now + 60 * minutes
        while now < end:
            step = min(dt, end - now)
            flow = body["top"] * u_top * (top["t"] - t) + body["wall"] * u_wall * (wall["t"] - t)
            across = body["across"] * k / dx * (t[1:, :] - t[:-1, :])
            flow[:-1, :] += across
            flow[1:, :] -= across
            up = body["up"] * k / dx * (t[:, 1:] - t[:, :-1])
            flow[:, :-1] += up
            flow[:, 1:] -= up
            t = t + step * flow / heat
            now += step
            inside = t[body["inside"]]
            seen = {"hottest": inside.max(), "mean": (t * volume).sum() / mass}
            for at, (point, to_c) in enumerate(marks):
                if found[at] is None and seen[point] <= to_c:
                    was = last[point]
                    found[at] = (now - step * (to_c - seen[point]) / (was - seen[point])) / 60
            last = seen
            if all(own is not None for own in found):
                return found
    return found


def bowl(rim, depth, dx):
    z = (np.arange(round(depth / dx)) + 0.5) * dx
    r = (np.arange(round(rim / dx)) + 0.5) * dx
    inside = r[:, None] ** 2 < (rim**2 - (rim - z) ** 2)[None, :]
    return inside, 2 * np.pi * rim * depth


def cylinder(radius, height, dx):
    inside = np.ones((round(radius / dx), round(height / dx)), bool)
    return inside, 2 * np.pi * radius * height + np.pi * radius**2


def layers(stack, top, marks, minutes, cells=400):
    """A stack of layers, wide, insulated below: minutes at which the mean of the uppermost comes to each mark."""
    thickness = sum(layer["mm"] for layer in stack) * 1e-3
    dx = thickness / cells
    edges = np.cumsum([0] + [layer["mm"] * 1e-3 for layer in stack])
    middle = (np.arange(cells) + 0.5) * dx
    which = np.clip(np.searchsorted(edges, middle) - 1, 0, len(stack) - 1)
    pick = lambda key: np.array([layer["material"][key] for layer in stack])[which]
    k, rho, c = pick("k"), pick("rho"), pick("c")
    t = np.array([layer["start"] for layer in stack], float)[which]
    between = 1 / (0.5 * dx / k[:-1] + 0.5 * dx / k[1:])
    u = 1 / (1 / top["h"] + top["r"] + 0.5 * dx / k[-1])
    dt = 0.4 * (dx * dx * rho * c / (2 * k)).min()
    watched = which == len(stack) - 1
    now, found, last = 0.0, [None] * len(marks), t[watched].mean()
    while now < 60 * minutes and not all(own is not None for own in found):
        flow = np.zeros(cells)
        inner = between * (t[1:] - t[:-1])
        flow[:-1] += inner
        flow[1:] -= inner
        flow[-1] += u * (top["t"] - t[-1])
        t = t + dt * flow / (dx * rho * c)
        now += dt
        seen = t[watched].mean()
        for at, to_c in enumerate(marks):
            if found[at] is None and (seen - to_c) * (last - to_c) <= 0:
                found[at] = (now - dt * (to_c - seen) / (last - seen)) / 60
        last = seen
    return found


def answers():
    face = lambda h, t, r=0.0: {"h": h, "t": t, "r": r}
    cases = []

    def round_case(name, shape, sizes, inside_area, material, start, phases, marks, dx, tolerance):
        inside, area = inside_area
        found = follow(round_body(inside, dx, material, area), start, phases, marks)
        case = {
            "shape": shape, **sizes, "const": material, "start_c": start,
            "phases": [{"min": m, "top": top, "side": wall, "bottom": wall} for m, top, wall in phases],
            "marks": [{"point": point, "to_c": to_c} for point, to_c in marks],
        }
        cases.append({"name": name, "case": case, "min": found, "late": tolerance})

    fridge = (2000, face(8, 4, 1e-4), face(8, 4, 6e-5))
    fan = (2000, face(16, 3, 1e-4), face(16, 3, 6e-5))
    marks = [("hottest", 57), ("hottest", 21), ("mean", 40), ("mean", 15)]
    round_case("1 kg of custard in a bowl, still fridge", "bowl", {"diameter_mm": 240, "height_mm": 53.4},
               bowl(0.12, 0.0534, 1e-3), CUSTARD, 85.0, [fridge], marks, 1e-3, 0.13)
    round_case("a small deep bowl, fridge with a fan", "bowl", {"diameter_mm": 160, "height_mm": 72},
               bowl(0.08, 0.072, 1e-3), CUSTARD, 85.0, [fan], marks, 1e-3, 0.10)
    round_case("a wide bowl filled low, still fridge", "bowl", {"diameter_mm": 320, "height_mm": 40},
               bowl(0.16, 0.04, 1e-3), CUSTARD, 85.0, [fridge], marks, 1e-3, 0.25)
    glass = (2000, face(8, 4, 0.1), face(8, 4, 4e-3))
    round_case("a jar with its lid, still fridge", "cylinder", {"diameter_mm": 70, "height_mm": 70},
               cylinder(0.035, 0.07, 5e-4), CUSTARD, 60.0, [glass], [("hottest", 20), ("mean", 8)], 5e-4, 0.01)
    iced = (20, face(10, 20, 1e-4), face(200, 0.5, 6e-5))
    round_case("twenty minutes over ice, then the fridge", "cylinder", {"diameter_mm": 180, "height_mm": 50},
               cylinder(0.09, 0.05, 1e-3), CUSTARD, 84.0, [iced, fridge], [("hottest", 60), ("mean", 30), ("mean", 8)], 1e-3, 0.01)
    for name, on_c, start, air, to in [
        ("a drip on a cold cake", 6.0, 30.0, 20.0, [26, 24, 22]),
        ("a crumb coat in the fridge", 20.0, 22.0, 4.0, [18, 16, 14]),
        ("a glaze on a frozen piece", -18.0, 33.0, 20.0, [25, 15, 5]),
    ]:
        stack = [
            {"mm": 30, "material": CRUMB, "start": on_c},
            {"mm": 8, "material": CREAM, "start": on_c},
            {"mm": 3, "material": CREAM, "start": start},
        ]
        found = layers(stack, face(10, air), to, 600)
        case = {
            "shape": "stack", "watch": 2,
            "layers": [{"thickness_mm": l["mm"], "const": l["material"], "start_c": l["start"]} for l in stack],
            "phases": [{"min": 600, "top": face(10, air)}],
            "marks": [{"point": "mean", "to_c": to_c} for to_c in to],
        }
        cases.append({"name": name, "case": case, "min": found, "late": 0.03})
    return {"note": "scripts/oracle_clock.py: fine finite differences, constant properties", "cases": cases}


if __name__ == "__main__":
    told = answers()
    for case in told["cases"]:
        print(case["name"], [None if own is None else round(own, 2) for own in case["min"]])
    if "--write" in sys.argv:
        path = Path(__file__).parent.parent / "crates/pastry/tests/it/data/clock_second_route.json"
        path.write_text(json.dumps(told, indent=1) + "\n")
