#!/usr/bin/env python3
"""The consistency model a second time, in plain Python, to make and check the vectors of the core.

    python3 scripts/oracle_consistency.py           checks crates/pastry/tests/it/data/consistency.json
    python3 scripts/oracle_consistency.py --write   makes its answers anew from its inputs

Standard library only; written from the model's equations and sharing no code with the core. Where the core has a
closed form (the way down of a gel and of melted fat) this sums in fine steps; where the core differences, so does
this, but with another step.
"""

import csv
import json
import math
import pathlib
import sys

ROOT = pathlib.Path(__file__).resolve().parent.parent
DATA = ROOT / "crates/pastry/data"
VECTORS = ROOT / "crates/pastry/tests/it/data/consistency.json"

exp, log, sqrt = math.exp, math.log, math.sqrt
SUGARS = ["sucrose", "glucose", "fructose", "lactose", "maltose", "dextrin", "polyol"]
FATS = ["cb", "mf", "oil", "lauric"]
PARTS = ["water", *FATS, *SUGARS, "cocoa", "milkprot", "eggwhite", "yolk", "starch", "fibre", "pectin", "agar", "gum",
         "gelatin", "alcohol", "salt", "acid", "other"]
RHO = dict(water=998, cb=920, mf=920, oil=915, lauric=920, sucrose=1587, glucose=1560, fructose=1600, lactose=1540,
           maltose=1540, dextrin=1500, polyol=1490, cocoa=1450, milkprot=1350, eggwhite=1350, yolk=1200, starch=1500,
           fibre=1500, pectin=1500, agar=1500, gum=1500, gelatin=1350, alcohol=850, salt=2160, acid=1500, other=1600)
EQ = dict(sucrose=1, glucose=.9, fructose=.9, lactose=1, maltose=1, dextrin=1.09, polyol=.9)
SWEET = dict(sucrose=1, glucose=.7, fructose=1.3, lactose=.2, maltose=.4, dextrin=.15, polyol=.6)
MOLAR = dict(sucrose=342.3, glucose=180.16, fructose=180.16, lactose=342.3, maltose=342.3, dextrin=700, polyol=182.2)
NORRISH = dict(sucrose=6.47, glucose=2.25, fructose=2.25, lactose=8, maltose=4.54, dextrin=6, polyol=1.65)
GAMMA = dict(fat=.02, crowd=.1, gel=1.0, agar=.30, starch=.15, foam=.3, gum=.3, body=.1, pectin=.15, egg=.1)

# Fitted; the yolk's refitted by hand with its new law, fat outside scaled so that plain butter stays as firm.
K_F, CHI, K_H, K_MIX = 370471.0, 1.43309, 0.500665, 0.573084
X_J, N_J, A_CB = 0.923954, 17.538, 17.7034
S_COCOA, S_PROT, PHI_M, TAU_C = 3.15332, 3.38999, 1.02548, 0.271579
U_FRESH, W_WORK, PC = 6.97721, 0.430329, 0.100192
K_ST, P_ST, S_EGG = 295.132, 2.37983, 14.0
K_OUT = 327706.0

SFC = dict(
    cb=[(0, 95), (5, 93), (10, 90), (15, 85), (20, 77), (25, 68), (27.5, 58), (30, 40), (32.5, 12), (35, 0)],
    mf=[(0, 60), (5, 52), (10, 42), (15, 31), (20, 19), (25, 12), (30, 6), (35, 1.5), (38, 0)],
    lauric=[(0, 92), (5, 88), (10, 78), (15, 60), (20, 36), (22.5, 18), (25, 2), (27, 0)])

# continuous phase, t_mix, fat melted, overrun, whip, sigma tau, sigma eta, checked rested, checked fresh
FAMILY = dict(
    ganache=("W", 40, True, 0, 0, .46, .45, (4, 33), (28, 45)),
    whipped_ganache=("W", 40, True, .6, .8, .66, .66, (4, 8), (4, 8)),
    buttercream=("F", 20, False, .35, 0, .45, .45, (4, 28.5), (4, 28.5)),
    meringue_buttercream=("F", 95, False, .4, 0, .45, .45, (4, 27), (4, 27)),
    custard=("W", 95, True, 0, 0, .59, .59, (5, 20), (20, 85)),
    mousseline=("F", 95, False, .15, 0, .56, .55, (4, 25), (4, 25)),
    diplomat=("W", 95, False, .35, .5, .36, .36, (4, 8), (4, 8)),
    mousse=("W", 40, False, .5, .6, .5, .5, (4, 8), (4, 8)),
    whipped_cream=("W", 10, False, 1.0, .9, .71, .71, (4, 15), (4, 15)),
    jelly=("W", 95, True, 0, 0, .3, .3, (4, 10), (30, 60)),
    glaze=("W", 60, True, 0, 0, .54, .42, (4, 20), (30, 36)),
    syrup=("W", 95, True, 0, 0, .11, .05, (0, 80), (0, 80)),
    meringue=("W", 95, True, 4.0, 0, .7, .7, (15, 45), (15, 45)),
    fat=("F", 20, False, 0, 0, .45, .45, (4, 35), (4, 35)))


def read(name, key):
    with open(DATA / name, newline="", encoding="utf-8") as file:
        return {row[key]: row for row in csv.DictReader(file)}


INGREDIENTS, PH, ORIGIN = read("ingredients.csv", "id"), read("ph.csv", "ingredient"), read("shelf.csv", "ingredient")
SPONGES = read("sponges.csv", "key")


def smin(a, b, e):
    return .5 * (a + b - sqrt((a - b) ** 2 + 4 * e * e * a * b)) if a > 0 and b > 0 else 0.0


def spos(x, d):
    return .5 * (x + sqrt(x * x + d * d))


def clip(x, a, b):
    return min(max(x, a), b)


def step(u):
    u = clip(u, 0, 1)
    return u * u * (3 - 2 * u)


def L(x):
    return 1 / (1 + exp(-x)) if x > -700 else 0.0


def phi_n(z):
    return .5 * math.erfc(-z / sqrt(2))


def curve(fat, t):
    x, y = zip(*SFC[fat])
    if t <= x[0]:
        return y[0]
    if t >= x[-1]:
        return y[-1]
    h = [b - a for a, b in zip(x, x[1:])]
    d = [(b - a) / w for a, b, w in zip(y, y[1:], h)]
    m = [0.0] * len(x)
    for k in range(1, len(x) - 1):
        if d[k - 1] * d[k] > 0:
            w = 3 * (h[k - 1] + h[k])
            m[k] = w / ((2 * h[k] + h[k - 1]) / d[k - 1] + (h[k] + 2 * h[k - 1]) / d[k])
    k = max(i for i in range(len(x) - 1) if x[i] <= t)
    s = (t - x[k]) / h[k]
    return ((2 * s**3 - 3 * s * s + 1) * y[k] + (s**3 - 2 * s * s + s) * h[k] * m[k]
            + (3 * s * s - 2 * s**3) * y[k + 1] + (s**3 - s * s) * h[k] * m[k + 1])


def blend(pool, t):
    tot = sum(pool.values())
    if tot <= 0:
        return 0.0
    a = dict(cb=A_CB, mf=8, lauric=12)
    return sum(pool[f] / tot * curve(f, t + smin(a[f] * (1 - pool[f] / tot), 10, .05)) / 100
               for f in a if pool[f] > 0)


def solubility(t):
    t = clip(t, 0, 90)
    return 64.397 + .07251 * t + .0020569 * t * t - 9.035e-6 * t**3


def eta_water(T):
    t = (clip(T, -5, 100) + 273.15) / 300
    return 1e-6 * (280.68 * t**-1.9 + 511.45 * t**-7.7 + 61.131 * t**-19.6 + .45903 * t**-40)


def genotelle(B, T):
    T = clip(T, -5, 100)
    n, th = B / (1900 - 18 * B), (30 - T) / (91 + T)
    return 1e-3 * 10 ** (22.46 * n - .114 + th * (1.1 + 43.1 * n**1.25))


def eta_sugar(B, T):
    return genotelle(B, T) * (eta_water(T) / genotelle(0, T)) ** exp(-B / 10)


def midpoints(a, b, of, n=4000):
    h = (b - a) / n
    return sum(of(a + (k + .5) * h) for k in range(n)) * h


def citric(p):
    weight, total, charge = 1.0, 1.0, 0.0
    for k, pk in enumerate((3.13, 4.76, 6.40)):
        weight *= 10 ** (p - pk)
        total += weight
        charge += (k + 1) * weight
    return charge / total


def ph_of(lines):
    own = []
    for i, g in lines:
        x = {p: float(INGREDIENTS[i][p]) for p in PARTS}
        b = (.70 * x["milkprot"] + .25 * (x["eggwhite"] + .65 * x["yolk"]) + .15 * x["cocoa"] + .10 * x["fibre"]
             + .05 * x["other"] + .2 * x["gelatin"])
        own.append((g, 1000 * x["acid"] / 192.1, b, x["water"], float(PH[i]["ph"])))
    if not sum(g * w for g, _, _, w, _ in own):
        return None
    h = lambda p: 10 ** (p - 14) - 10**-p
    low, high = 1.5, 11.0
    for _ in range(70):
        p = .5 * (low + high)
        off = sum(g * (a * (citric(p) - citric(q)) + b * (p - q) + w * (h(p) - h(q))) for g, a, b, w, q in own)
        low, high = (p, high) if off < 0 else (low, p)
    return .5 * (low + high)


class Model:
    """A formula as a family, with all that does not hang on temperature; `nudge` on swelling of cocoa and milk, yolk."""

    def __init__(self, case, nudge=(1, 1)):
        self.case = case
        lines = [(i, g) for i, g in case["lines"] if g > 0]
        self.family = case["family"]
        (self.cont, t_mix, self.melted, overrun, whip, self.s_tau, self.s_eta, self.rested_c,
         self.fresh_c) = FAMILY[self.family]
        rows = [(INGREDIENTS[i], g) for i, g in lines]
        tot = sum(g for _, g in rows)
        num = lambda r, k, empty=0.0: float(r[k]) if r[k] else empty
        m = self.m = {p: sum(g * num(r, p) for r, g in rows) / tot for p in PARTS}
        gel_g = sum(g * num(r, "gelatin") for r, g in rows)
        fish = lambda r: "fish" in ORIGIN[r["id"]]["origin"]
        self.bloom = sum(g * num(r, "gelatin") * num(r, "bloom") for r, g in rows) / gel_g if gel_g else 0
        self.fish = sum(g * num(r, "gelatin") for r, g in rows if fish(r)) / gel_g if gel_g else 0
        hot = {}
        cold = 0.0
        for r, g in rows:
            st = g * num(r, "starch") * num(r, "starch_eff", 1.0) / tot
            if "cold_starch" in r["flags"]:
                cold += st
            else:
                hot[r["starch_of"] or "corn"] = hot.get(r["starch_of"] or "corn", 0) + st
        gum = sum(g * num(r, "gum") * num(r, "gum_eff", 1.0) for r, g in rows) / tot
        prot = sum(g for r, g in rows if "protease" in r["flags"]) / tot
        self.set_pectin = sum(g * num(r, "pectin") for r, g in rows if "pectin" in r["flags"]) / tot
        h = self.h = {f: sum(g * num(r, "glob") * num(r, f) for r, g in rows) / tot for f in FATS}
        body = sum(g * num(r, "body_pa") ** .4 for r, g in rows) / tot
        chocolate = [(g, 1.7 if num(r, "cocoa") < .03 else 1.5 if num(r, "milkprot") + num(r, "lactose") > .02 else 1)
                     for r, g in rows if r["group"] == "chocolate"]
        self.kind = sum(g * k for g, k in chocolate) / sum(g for g, _ in chocolate) if chocolate else 1
        self.both_gums = (any("locust_bean" in r["flags"] for r, _ in rows)
                          and any(num(r, "gum") > .5 and "locust_bean" not in r["flags"] for r, _ in rows))
        cook_c, hours = case.get("cook_c"), case.get("hours", 17)
        self.minutes, self.q = case.get("minutes", 0), case.get("cool_k_h", 120)
        self.worked_c, self.hours = case.get("worked_c", 20), hours
        self.worked = case.get("worked")
        air = case.get("overrun", overrun)
        self.air = air / (1 + air)
        self.whip = case.get("whip", whip)
        cook = t_mix if cook_c is None else cook_c

        # Serum.
        W = m["water"]
        S = solubility(max(t_mix, min(cook, 95)))
        suc = smin(m["sucrose"], W * S / (100 - S), .02)
        self.und = m["sucrose"] - suc
        d = {s: m[s] for s in SUGARS}
        d["sucrose"] = suc
        diss = self.diss = sum(d.values())
        liq = self.liq = W + diss + m["alcohol"] + m["salt"] + m["acid"]
        self.brix = 100 * (diss + m["acid"] + m["salt"]) / liq if liq else 0
        wet = W + diss + m["alcohol"]
        beq = 100 * sum(EQ[s] * d[s] for s in SUGARS) / wet if wet else 0
        self.B = smin(beq, 90, .01)
        self.w_al = m["alcohol"] / (W + m["alcohol"]) if W + m["alcohol"] else 0
        self.gel_c = 100 * (m["gelatin"] / .87) / max(liq + m["gelatin"], 1e-9)
        pec_c, self.agar_c = 100 * m["pectin"] / max(liq, 1e-9), 100 * m["agar"] / max(liq, 1e-9)
        self.gum_c = 100 * gum / max(liq, 1e-9)
        gc, gg = self.gel_c, self.gum_c
        self.thick = (exp(4.2 * smin(self.w_al, .25, .03)) * (1 + .5 * gc + .08 * gc * gc)
                      * (1 + 3 * pec_c + 6 * pec_c**2) * (1 + 20 * gg + 60 * gg * gg))
        self.suc_w, self.lac_w = suc / max(W, 1e-9), m["lactose"] / max(W, 1e-9)
        bound = .25 * sum(m[p] for p in ("cocoa", "milkprot", "eggwhite", "yolk", "starch", "gelatin"))
        n_w = max(W - bound, 1e-9) / 18.015
        n = {s: d[s] / MOLAR[s] for s in SUGARS}
        other = m["alcohol"] / 46.07 + m["salt"] / 29.22 + m["acid"] / 192.1
        N = n_w + sum(n.values()) + other
        held = sum(sqrt(NORRISH[s]) * n[s] for s in SUGARS) + sqrt(6.17) * m["acid"] / 192.1
        self.aw = n_w / N * exp(-((held / N) ** 2))
        sw = self.sugar_w = 100 * diss / (W + diss) if W + diss else 100.0

        # Cooking.
        shift = .20 * sw + .0045 * sw * sw
        swells = dict(corn=(70, 88), wheat=(66, 88), rice=(72, 90), tapioca=(64, 80), potato=(61, 78))
        share = lambda kind: step((cook - swells[kind][0] - shift) / (swells[kind][1] - swells[kind][0]))
        hot_all = sum(hot.values())
        cooked = sum(v * share(k) for k, v in hot.items()) / hot_all if hot_all > 0 else share("corn")
        c_y, c_w = clip((cook - 68) / 15, 0, 1), clip((cook - 58) / 15, 0, 1)
        self.c_y = c_y

        # Volumes.
        v = {p: m[p] / RHO[p] for p in PARTS}
        vt = self.vt = sum(v.values())
        self.rho = (1 - self.air) / vt
        v_fat = self.v_fat = sum(v[f] for f in FATS)
        v_sug = sum(d[s] / RHO[s] for s in SUGARS)
        v_und = self.und / RHO["sucrose"]
        v_ser = v_sug + sum(v[p] for p in ("water", "alcohol", "salt", "acid", "gelatin", "pectin", "agar", "gum"))
        sc, sp = S_COCOA * nudge[0], S_PROT * nudge[0]
        s_y = 3 + (S_EGG * nudge[1] - 3) * c_y
        y = (s_y - 1) * v["yolk"]
        yolk = v["yolk"] + (y / sqrt(1 + (y / (.6 * v["water"])) ** 2) if y > 0 and v["water"] > 0 else 0.0)
        swollen = dict(cocoa=v["cocoa"] * sc, milkprot=v["milkprot"] * sp, eggwhite=v["eggwhite"] * (3 + 2 * c_w),
                       yolk=yolk, fibre=15 * v["fibre"], other=v["other"], starch=1.3 * (1 - cooked) * v["starch"])
        v_sw = sum(swollen.values())

        # Fat.
        k = K_MIX if self.cont == "W" else 1
        self.pools = ({f: max(m[f] - (1 - k) * h[f], 0) for f in FATS}, {f: (1 - k) * h[f] for f in FATS})
        fat = sum(m[f] for f in FATS)

        # Fat outside.
        v_solid = (v_und + v["cocoa"] + smin(v["cocoa"] * (sc - 1), .5 * v["water"], .1) + v["fibre"] + v["other"]
                   + v["starch"] * (1 - cooked))
        ps = self.phi_s = smin(v_solid / vt, .595, .02)
        pf = self.phi_f = v_fat / max(vt - v_solid, 1e-9)
        self.fill = sqrt((1 - ps) * (1 - ps / .6) ** -1.5)
        self.q_out = (1 - smin(1 - pf, .74, .03) / .85) ** -2 * (1 - ps / .62) ** -2

        # Water outside.
        phi = self.phi = (v_fat + v_sw + v_und) / vt
        hyd = CHI * v_sug * v["water"] / (v["water"] + K_H * v_sug) if v["water"] > 0 else 0
        X = self.X = phi / (PHI_M - hyd / vt)
        x = 1 - X
        r = (x + sqrt(x * x + .01)) / (1 + sqrt(1.01))
        self.I = (1 + .0005) / (r * r + .0005)
        e = yolk / vt / phi if phi > 0 else 0
        x_p = .66 - .25 * c_y * e
        P = self.P = X**16 / (X**16 + x_p**16)
        self.g0 = P * X**N_J / (X**N_J + X_J**N_J)
        fw = fat / max(fat + W + m["alcohol"], 1e-9)
        self.whip_fat = 100 * fw
        self.whipped = self.family in ("whipped_cream", "whipped_ganache")
        hw = fw**12 / (fw**12 + .28**12) if self.whipped else 1
        self.g = self.g0 + (1 - self.g0) * PC * self.whip * hw
        self.dil = (1.8 * v["milkprot"] * sp * (W / (W + diss) if W + diss else 0) ** .25 / vt,
                    .95 * (phi - v["milkprot"] * sp / vt), sum(h[f] / RHO[f] for f in FATS) / vt)
        self.dairy = (v_fat + v["milkprot"] * sp) / (vt * phi) if phi > 0 and self.cont == "W" else 0

        # Inside and outside, split.
        taken = sum(swollen[p] - v[p] for p in swollen if p != "cocoa")
        free = vt * spos((v_ser - 1.14 * v["cocoa"] - .5 * taken - .25 * v_sug) / vt, .01)
        room = vt * spos((v["water"] + v["alcohol"] + v["salt"] + v["acid"] + 2 * v["milkprot"] - 7 * v["fibre"]) / vt,
                         .01)
        if self.cont == "W":
            self.phi_em = v_fat / (v_fat + free) if v_fat else 0
            self.phi_split = v_fat / (v_fat + room) if v_fat else 0
            soft = (m["mf"] + m["oil"] + m["lauric"] - h["mf"] - h["oil"] - h["lauric"]) / max(fat, 1e-9)
            self.w_F = L((soft - .25) / .05) * L((self.phi_em - .68) / .05)
            self.level, self.w_s = L((self.phi_split - .652) / .018), L((soft - .25) / .08)
        else:
            self.phi_em = self.phi_split = 1 - pf
            self.w_F, self.level, self.w_s = 1, L((1 - pf - .70) / .03), 0
            self.wet = 1 - pf

        # Gels and the rest.
        acid_w = 100 * m["acid"] / max(W, 1e-9)
        heated = cook_c is not None and cook_c >= 85
        self.cut = 0 if heated else prot
        d_fish = self.fish  # all fish of the catalogue is of warm water
        self.T_m = (30 + 3 * log(max(self.gel_c, .05) / 6.67) + 3 * log(max(self.bloom, 40) / 200) + .06 * self.brix
                    - 4 * d_fish)
        self.T_s = self.T_m - (5 + 2 * d_fish if gel_g else 0)
        filler = (1 - smin(v_fat / vt, .5, .03)) ** -2.5
        self.G0 = 217 * (self.bloom / 200) * self.gel_c**2 * (1 - .25 * step((acid_w - 1) / 2)) * filler
        ph = ph_of(lines) if m["agar"] > 0 or self.set_pectin > 0 else None
        boiled = cook_c is not None and cook_c >= 90
        self.A0 = 0 if cook_c is not None and cook_c < 90 else 8000 * self.agar_c**2.1
        if boiled and m["acid"] > 0 and ph is not None:
            self.A0 *= 1 - .5 * step((4.2 - ph) / 1.2)
        p = 100 * self.set_pectin / max(liq, 1e-9)
        self.p = p
        ca = sum(g * (35 * num(r, "milkprot") + (.2 if r["group"] == "fruit" else 0)
                      + (.08 if num(r, "water") > .99 else 0)) for r, g in rows) / tot
        self.Pn = 0.0
        if self.set_pectin > 0 and not (cook_c is not None and cook_c < 95):
            self.Pn = (1200 * p * p * L((4.4 - ph) / .2) * L((ph - 2.7) / .15) * L((self.brix - 30) / 4)
                       * (.6 + .4 * min(1, ca / self.set_pectin / 20)))
        self.st_c = 100 * (hot_all * cooked + cold) / max(W, 1e-9)
        self.st = K_ST * (max(self.st_c - 2, 0) / 6) ** P_ST
        if self.cont == "F":
            self.st *= 1 - smin(pf, .74, .03) / .8
        self.egg = 0.0
        if self.family == "custard" and m["yolk"] + m["eggwhite"] > 0:
            later = .15 * sw
            c = (100 * m["eggwhite"] / max(W, 1e-9) * step((cook - 62 - later) / 18)
                 + .35 * 100 * m["yolk"] / max(W, 1e-9) * step((cook - 65 - later) / 15))
            self.egg = .1 * 20000 * (max(spos(c - 2.5, .3) - spos(-2.5, .3), 0) / 7.5) ** 2.2 * .15
        self.gum = 8 * gg**1.7
        self.body = body**2.5 if self.cont == "W" else 0
        self.foam = 3000 * max(0, self.air - .6) ** 2
        self.abv = 100 * m["alcohol"] / 789 / vt
        self.st_all = 100 * (hot_all + cold) / max(W, 1e-9)
        self.egg_pct = 100 * (m["yolk"] + m["eggwhite"])

    def sfc(self, t):
        total = [sum(pool.values()) for pool in self.pools]
        return sum(n * blend(pool, t) for n, pool in zip(total, self.pools) if n > 0) / sum(total) if sum(total) else 0

    def set_by(self, T, minutes=None):
        """How far it has set when it comes to T and is held there: felt, gelatin's age, hours."""
        h = (self.minutes if minutes is None else minutes) / 60
        felt = 1.0
        fresh = self.case["state"] == "fresh"
        if fresh and self.melted:
            slow = lambda t: clip((28 - t) / 4, 0, 1) / (1.15 * exp(.143 * (max(t, 2) - 4.5)))
            quick = lambda t: clip((27 - t) / 2, 0, 1) / (.7 * exp(.35 * (max(t, 8) - 20)))
            ys, yf = ((midpoints(T, 28, of) / self.q if T < 28 else 0) + h * of(T) for of in (slow, quick))
            ys, yf = ys / self.kind, yf / self.kind
            felt = .5 * (1 - exp(-(yf**3))) + .5 * (1 - exp(-(ys**1.5))) if T < 28 else 0.0
        if fresh:
            width = max(self.T_s - 10, 4)
            rate = lambda t: smin(max(0, (self.T_s - t) / width), 1.6, .03)
            age = midpoints(T, self.T_s, rate) / self.q + h * rate(T) if self.gel_c > 0 and T < self.T_s else 0.0
        else:
            age = self.hours
        return felt, age, h

    def at(self, T, at_set=None):
        fresh, m = self.case["state"] == "fresh", self.m
        felt, age, h = at_set or self.set_by(T)
        sfc = self.sfc(T + U_FRESH * (1 - felt))
        worked = self.worked if self.worked is not None else fresh and self.cont == "F"
        melted = fresh and self.melted
        left = 1.0
        if worked and not melted:
            left = W_WORK
            if fresh and self.cont == "F":
                left = W_WORK + (1 - W_WORK) * (1 - exp(-h / 6))
                if sfc > 0:
                    then = self.sfc(self.worked_c + spos(T - self.worked_c, .2))
                    left = (left * then + (sfc - then)) / sfc
        eta_s = eta_sugar(self.B, T) * self.thick
        F_fat = K_OUT * sfc**2.5 * self.phi_f**1.8 * self.fill * left
        F_crowd = TAU_C * (self.q_out - 1)
        F_eta = .070 * exp(-.030 * (T - 20)) * self.q_out
        air2 = (1 - self.air) ** 2
        turning = (0.0, 0.0)
        w = 1.0
        if self.cont == "F":
            fat, crowd, eta = F_fat, F_crowd, F_eta
        else:
            f = smin(self.dil[0] * exp(-clip(T, 0, 95) / 190), .36, .03)
            y = self.dil[1]
            lnD = (2.5 * f / (1 - 1.5 * f) + (2.965 + .00255 * T) * (y + y ** (5 / 3)) + 4.5 * sfc * self.dil[2] ** 3)
            W_eta = eta_s * exp((1 - self.P) * lnD + self.P * log(self.I))
            W_fat = K_F * (sfc * self.v_fat / self.vt) ** 2.5 * self.g * left
            W_crowd = TAU_C * exp(-(smin(T, 60, .03) - 30) / 15) * (self.I - 1) * self.P if T > 0 else (
                TAU_C * exp(-(self._smin_cold(T) - 30) / 15) * (self.I - 1) * self.P)
            w = felt * self.w_F
            a, b = W_fat + W_crowd + 1e-6, F_fat + F_crowd + 1e-6
            s = a ** (1 - w) * b**w
            fat = s * ((1 - w) * W_fat / a + w * F_fat / b)
            crowd = s * ((1 - w) * W_crowd / a + w * F_crowd / b)
            eta = W_eta ** (1 - w) * F_eta**w
            turning = (w * (1 - w) * abs(log(b / a)), w * (1 - w) * abs(log(F_eta / W_eta)))
        whipped = air2
        if self.whipped:
            frame = 8 * self.air**2 * (1 - self.air) ** 2
            whipped = (self.g0 * air2 + (self.g - self.g0) * frame) / self.g if self.g > 0 else air2
        cut_h = max(h, .25) if fresh else self.hours
        f_t = 0.0
        if age > 0:
            e = age * age / (age + min(.1 / max(self.gel_c, 1e-9), 1))
            f_t = clip(log(1 + e / .2) / log(86), 0, 1.3)
        G_g = (self.G0 * (spos(self.T_m - T, .5) / max(self.T_m - 10, 4)) ** 1.4 * f_t
               * exp(-(self.cut / .0005) * min(cut_h, 17) / 17))
        if fresh:
            mins = 60 * (h + max(0, 38 - T) / self.q)
            G_a = self.A0 * L(38 - T) * (1 - exp(-(mins / 2) * spos(38 - T, .5) / 5))
        else:
            G_a = self.A0 * L((85 - T) / 2)
        G_p = self.Pn * L(((50 if fresh else 70) - T) / 3)
        young = 1.0
        if fresh and self.family not in ("mousseline", "diplomat"):
            young = .35 + .65 * (1 - exp(-h * clip((40 - T) / 35, 0, 1)))
        cold = young * exp(-(T - 5) / 60)
        t = dict(fat=fat * whipped, crowd=crowd * air2, gel=G_g * air2, agar=.30 * G_a * air2,
                 starch=self.st * cold * air2, foam=self.foam, gum=self.gum * air2,
                 body=self.body * exp(-(T - 5) / 30) * air2, pectin=.15 * G_p * air2, egg=self.egg * cold * air2)
        tau = sum(t.values()) + 1e-6
        flowing = eta / (1 - self.air)
        pl = flowing + .03 * (tau if self.cont == "W" else t["fat"] + t["starch"])
        eta10 = tau / 10 + pl
        release = L((self.v_fat / self.vt * (1 - sfc) - .70) / .03)
        return dict(tau0=tau, eta10=eta10, eta_pl=pl, G=sum(t[k] / GAMMA[k] for k in t), sfc=sfc, eta_serum=eta_s,
                    G_gel=(G_g + G_a + G_p) * air2, split=self.level * (1 - self.w_s + self.w_s * release), t=t, w=w,
                    thin=(1 - self.P) * flowing / eta10 if self.cont == "W" else 0.0, turning=turning)

    @staticmethod
    def _smin_cold(T):
        # The smooth minimum with a negative argument, as its closed form has it.
        a, b, e = T, 60.0, .03
        d = a + b + sqrt((a - b) ** 2 + 4 * e * e * a * b)
        return 2 * a * b * (1 - e * e) / d

    def added(self, T, at):
        share = {k: x / at["tau0"] for k, x in at["t"].items()}
        low, high = self.fresh_c if self.case["state"] == "fresh" else self.rested_c
        W = self.cont == "W"
        al = (.01 if self.family == "syrup" else .055) * spos(100 * self.w_al - 5, 1)
        ag, fi = .9 * share["agar"], .5 * self.fish * share["gel"]
        pe = .8 * (1 - exp(-((self.p / .3) ** 2)))
        cr = 2 * spos(self.X - 1, .05) if W else 0
        yo = .04 * spos(100 * self.m["yolk"] / .24 - 10, 1) * self.c_y if W else 0
        te = .03 * (1 - at["thin"]) * (spos(low - T, 1) + spos(T - high, 1))
        gg = self.gum_c
        we = 0 if W else 12 * max(0, self.wet - (.72 if self.family == "mousseline" else .58))
        both = [al, ag, pe, fi, cr, yo, te, we]
        tau = both + [.8 * share["gum"] + .4 * spos(gg - .5, .1) + (2 if self.both_gums else 0), at["turning"][0],
                      (1 - self.P) * share["crowd"] if W else 0]
        eta = both + [.3 * log(1 + 20 * gg + 60 * gg * gg), at["turning"][1]]
        size = lambda terms: sqrt(sum(x * x for x in terms))
        # What is so thin that nothing touches has no yield stress to be known.
        self.known = max(size(tau[:-1]), size(eta)) <= 1
        return [size(tau), size(eta)]

    def dairy_share(self, T, at):
        return at["thin"] * self.dairy * sqrt(eta_water(T) / at["eta_serum"])


def evaluate(case):
    """Everything a vector holds."""
    M, T = Model(case), case["T"]
    at = M.at(T)
    m, W = M.m, M.m["water"]
    warm, cold = M.at(T + 1), M.at(T - 1)
    swollen = Model(case, (1.08, 1)).at(T)
    yolky = Model(case, (1, 1.08)).at(T) if m["yolk"] > 0 else at
    added = M.added(T, at)
    dairy = M.dairy_share(T, at)
    share = 1 - exp(-(M.phi if M.cont == "W" else M.phi_s) / .02) if M.family == "syrup" else dairy
    base = [M.s_tau, M.s_eta + (.25 - M.s_eta) * share]
    sigma = []
    for q, b, a in zip(("tau0", "eta10"), base, added):
        ln = lambda x, y: log(x[q] / y[q])
        sigma.append(sqrt(b * b + (.5 * ln(warm, cold)) ** 2 + ln(swollen, at) ** 2 + ln(yolky, at) ** 2 + a * a))
    w_out = M.cont == "W"
    S = solubility(T)
    out = dict(
        tau0=at["tau0"], eta10=at["eta10"], eta_pl=at["eta_pl"], G=at["G"], G_gel=at["G_gel"], rho=M.rho,
        phi_air=M.air, phi_eff=M.phi if w_out else M.phi_s, crowding=M.X if w_out else M.phi_s / .6, phi_em=M.phi_em,
        w_F=M.w_F, split=at["split"], phi_split=M.phi_split, percolation=M.P if w_out else 1.0,
        whip_fat_pct=M.whip_fat, sfc=at["sfc"], g_link=M.g if w_out else 1.0, brix=M.brix, eta_serum=at["eta_serum"],
        aw=M.aw if W > 0 else 0.0, undissolved_pct=100 * M.und, graining=M.suc_w / (S / (100 - S)),
        lactose_sand=M.lac_w / (.123 * exp(.0231 * clip(T, 0, 60))), fat_pct=100 * sum(m[f] for f in FATS),
        water_pct=100 * W, sugar_pct=100 * sum(m[s] for s in SUGARS),
        sweetness=100 * sum(SWEET[s] * m[s] for s in SUGARS), abv=M.abv,
        gel_on_water=100 * m["gelatin"] / .87 / max(W, 1e-9), gel_on_total=100 * m["gelatin"] / .87,
        starch_on_water=M.st_c, **{f"tau_{k}": x for k, x in at["t"].items()}, added_tau=added[0], added_eta=added[1],
        known=M.known,
        structure="water-continuous" if at["w"] < .25 else "bicontinuous" if at["w"] < .75 else "fat-continuous",
        sigma_tau0=sigma[0], sigma_eta=sigma[1], dairy_share=dairy)
    return M, at, out


def scrambled(M, cook_c):
    return L(cook_c - 86 - 22 * (1 - exp(-(M.st_all**2)))) * (1 - exp(-((M.egg_pct / .3) ** 2)))


def film(tau, eta, rho, H, lam, seconds):
    K = eta * H / (rho * 9.81)
    return lambda z, s: 1e3 * (tau * exp(z * s[0]) / (rho * 9.81)
                               + (4 * lam**2 * 1.1e-7 * K * exp(z * s[1]) + (K * exp(z * s[1]) / seconds) ** 2) ** .25)


def erfinv(u):
    l = log(1 - u * u)
    k = 2 / (.147 * math.pi) + l / 2
    return sqrt(sqrt(k * k - l / .147) - k)


def contact(mm):
    return .5 * (1 - .4 ** (mm / 2))


def front(T, Tw):
    a = spos(28 - (Tw + contact(2) * (T - Tw)), 1)
    return erfinv(smin(a / (a + spos(T - 28, 1)), .60, .05))


def bisect(of, target, low=-40.0, high=40.0):
    for _ in range(200):
        z = .5 * (low + high)
        low, high = (z, high) if of(z) < target else (low, z)
    return .5 * (low + high)


def film_job(f, s, window, whole):
    z = [bisect(lambda z: f(z, s), mm) for mm in window]
    return dict(film_mm=f(0, s), band90=[f(-1.64, s), f(1.64, s)], window=window,
                chance=(phi_n(z[1]) - phi_n(z[0])) * whole)


def drip_mm(M, T, dose=.9e-6, w=.009, lip=.010, Tw=5.0):
    Ti = T if abs(T - Tw) < 1e-6 else Tw + contact(2) * (T - Tw)
    at_set = M.set_by(T)
    nodes = []
    for k in range(7):
        at = M.at(Ti + k / 6 * (T - Ti), at_set)
        nodes.append((log(at["tau0"]), log(at["eta_pl"])))
    def between(t):
        if T == Ti:
            return nodes[-1]
        x = clip((t - Ti) / (T - Ti), 0, 1) * 6
        k = min(int(x), 5)
        return [a + (x - k) * (b - a) for a, b in zip(nodes[k], nodes[k + 1])]
    rho, g = M.rho, 9.81
    length, t, Tc = 0.0, 0.0, T
    # Plain Euler, so fine that it does not matter.
    while t < 300 and length < .2:
        b = dose / (w * (length + lip))
        ln_tau, ln_eta = between(Tc)
        hy = exp(ln_tau) / (rho * g)
        if b <= hy:
            break
        u = rho * g * (b - hy) ** 2 * (2 * b + hy) / (6 * exp(ln_eta) * b)
        if u < 5e-5:
            break
        dt = min(1e-5 / u, .05)
        length += u * dt
        t += dt
        Tc = Ti + (Tc - Ti) * exp(-dt * math.pi**2 * 1.1e-7 / (4 * b * b))
    return min(1000 * length, 200.0)


def jobs_of(case, wanted, M, at, out):
    """The jobs a vector asks for, worked out again."""
    T, tau, pl, rho, G = case["T"], at["tau0"], at["eta_pl"], M.rho, at["G"]
    s, jobs = (out["sigma_tau0"], out["sigma_eta"]), {}
    whole = 1.0
    if "cook_c" in case and case["family"] in ("custard", "mousse", "mousseline", "diplomat"):
        whole = 1 - scrambled(M, case["cook_c"])
    for key, old in wanted.items():
        if key in ("mask", "fill", "pipe"):
            jobs[key] = {"mask": [1.5 * rho * 9.81 * .010, 10 / .0045], "fill": [200.0, 1500.0],
                         "pipe": [1.5 * rho * 9.81 * .030 / sqrt(3),
                                  60 / 28e-4 / (2 * 15 / 5 + 2 * sqrt(3) * log(6))]}[key]
        elif key.startswith("chance_"):
            low, high = jobs[key[7:]]
            jobs[key] = phi_n(log(high / tau) / s[0]) - phi_n(log(low / tau) / s[0])
        elif key == "strain_45mm":
            jobs[key] = rho * 9.81 * .045 / (6 * max(G, 1e-9))
        elif key == "spoon_film_mm":
            jobs[key] = film(tau, pl, rho, .06, 0, 5)(0, s)
        elif key == "soak_mm_30s":
            jobs[key] = 1e3 * sqrt(.072 * float(SPONGES["genoise"]["pore_m"]) * 30 / (2 * pl))
        elif key in ("coat_mm_H50_Tw-18", "coat_mm_H50_Tw20"):
            jobs[key] = film(tau, pl, rho, .05, front(T, -18 if "-18" in key else 20), 300)(0, s)
        elif key == "drip_mm":
            jobs[key] = drip_mm(M, T)
        elif key == "film":
            lam = front(T, old["Tw"])
            jobs[key] = dict(H_mm=old["H_mm"], Tw=old["Tw"], lambda_=lam,
                             **film_job(film(tau, pl, rho, old["H_mm"] / 1e3, lam, 300), s, old["window"], whole))
        elif key == "spoon":
            jobs[key] = film_job(film(tau, pl, rho, .06, 0, 5), s, old["window"], whole)
        elif key == "soak":
            jobs[key] = []
            for soak in old:
                sponge = SPONGES[soak["sponge"]]
                depth = 1e3 * sqrt(.072 * float(sponge["pore_m"]) * soak["seconds"] / (2 * pl))
                sd = .5 * math.hypot(float(sponge["pore_sigma_ln"]), s[1])
                jobs[key].append(dict(sponge=soak["sponge"], seconds=soak["seconds"], depth_mm=depth, sigma=sd,
                                      band90=[depth * exp(-1.64 * sd), depth * exp(1.64 * sd)],
                                      chance_10_30=phi_n(log(30 / depth) / sd) - phi_n(log(10 / depth) / sd)))
        elif key == "whip":
            fat = L((M.whip_fat - 28) / 1.2)
            warm = L((9.5 - T) / .7) * L((100 * at["sfc"] - 36) / 2)
            visc = phi_n(log(2 / at["eta10"]) / s[1]) - phi_n(log(.005 / at["eta10"]) / s[1])
            jobs[key] = dict(fat=fat, warm=warm, visc=visc, all=fat * warm * visc)
        elif key == "scramble":
            jobs[key] = [[c, scrambled(M, c)] for c, _ in old]
        else:
            raise SystemExit(f"what is {key}?")
    return jobs


def derivatives(entry):
    case = entry["input"]
    ln = lambda c, T: [log(Model(c).at(T)[q]) for q in ("tau0", "eta10", "G")]
    got = {f"dln_{q}_dln_g": [] for q in ("tau0", "eta10", "G")}
    def slope(of, h):
        up, down, up2, down2 = of(h), of(-h), of(2 * h), of(-2 * h)
        return [(8 * (a - b) - (c - d)) / (12 * h) for a, b, c, d in zip(up, down, up2, down2)]
    for k in range(len(case["lines"])):
        def nudged(x):
            lines = [[i, g * (exp(x) if j == k else 1)] for j, (i, g) in enumerate(case["lines"])]
            return ln({**case, "lines": lines}, case["T"])
        for q, x in zip(("tau0", "eta10", "G"), slope(nudged, 1e-3)):
            got[f"dln_{q}_dln_g"].append(x)
    for q, x in zip(("tau0", "eta10", "G"), slope(lambda x: ln(case, case["T"] + x), 1e-3)):
        got[f"dln_{q}_dT"] = x
    return {"id": entry["id"], "of": entry["of"], "input": case, **got}


def rounded(x):
    if isinstance(x, bool) or isinstance(x, str) or x is None:
        return x
    if isinstance(x, dict):
        return {k: rounded(v) for k, v in x.items()}
    if isinstance(x, list):
        return [rounded(v) for v in x]
    return float(f"{x:.10g}")


def far(new, old, path, found, tolerance):
    if isinstance(new, dict):
        for k in new:
            if k in old:
                far(new[k], old[k], f"{path}.{k}", found, 5e-3 if k == "drip_mm" else tolerance)
    elif isinstance(new, list):
        for k, (a, b) in enumerate(zip(new, old)):
            far(a, b, f"{path}.{k}", found, tolerance)
    elif isinstance(new, float) and abs(new - old) > tolerance * abs(old) + 1e-9:
        found.append(f"{path}: {new:.9g} for {old:.9g}")


def main():
    kept = json.loads(VECTORS.read_text())
    made = {"note": "made by scripts/oracle_consistency.py; relative tolerance 1e-6, 5e-3 on drip_mm",
            "unit_tests": kept["unit_tests"], "derivatives": [], "vectors": []}
    for vector in kept["vectors"]:
        case = vector["input"]
        M, at, out = evaluate(case)
        one = {"id": vector["id"], "input": case, "out": out}
        if vector.get("jobs"):
            one["jobs"] = jobs_of(case, vector["jobs"], M, at, out)
        made["vectors"].append(rounded(one))
    made["derivatives"] = [rounded(derivatives(entry)) for entry in kept["derivatives"]]
    if "--write" in sys.argv:
        VECTORS.write_text(json.dumps(made, separators=(",", ":")).replace('{"id"', '\n{"id"') + "\n")
        return
    found = []
    far(made["vectors"], kept["vectors"], "vectors", found, 1e-6)
    far(made["derivatives"], kept["derivatives"], "derivatives", found, 1e-5)
    print("\n".join(found) or f"{len(made['vectors'])} vectors agree")
    raise SystemExit(bool(found))


if __name__ == "__main__":
    main()
