//! What is heated and boiled down: the weight at which to stop, the temperature then, minutes over a small and a wide pan, what
//! a custard loses on the way, and whether its egg is safe.

use crate::assess::{FormulaDocument, Ready};
use crate::caution::{Caution, CautionAnswer};
use crate::clock::when::{minutes, rounded};
use crate::code::codes;
use crate::fault::{Fault, FaultCode};
use crate::formula::boiled::BoilTo;
use crate::formula::egg_heat::{EggKind, SAFE_AT_ONCE_C};
use crate::formula::flat;
use crate::heat::HeatShares;
use crate::heat::air::vapour_pressure;
use crate::heat::boiling::boils_higher_up;
use crate::heat::syrup::Syrup;
use crate::ingredient::composition::{Composition, Part, SUGARS};
use crate::ingredient::{Role, Shelf};
use crate::number::{batch_g, degrees, digits, weighed_g};
use crate::rheology::kernel::Prepared;
use crate::rheology::warning::{WarningCode, warnings};
use serde::{Deserialize, Serialize};
use std::f64::consts::PI;
use std::sync::LazyLock;
use utoipa::ToSchema;

codes! {
    /// What a ring is heated by.
    Ring {
        /// A flame: much of it goes past the pan.
        Gas = "gas",
        /// A plate.
        Electric = "electric",
        /// Induction.
        Induction = "induction",
    }
}

impl Ring {
    /// How much of it reaches the pan (common practice).
    pub fn reaches(self) -> f64 {
        match self {
            Ring::Gas => 0.40,
            Ring::Electric => 0.70,
            Ring::Induction => 0.82,
        }
    }
}

/// A formula over a ring.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BoilDocument {
    /// The formula.
    pub formula: FormulaDocument,
    /// How far.
    pub boil: BoilTo,
    /// How much of it, kg; the batch where it is not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(exclusive_minimum = 0, maximum = 1000)]
    pub kg: Option<f64>,
    /// How warm it goes on, °C; 20 where it is not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 100)]
    pub from_c: Option<f64>,
    /// How high above the sea, m.
    #[serde(default)]
    #[schema(minimum = -500, maximum = 6000)]
    pub altitude_m: f64,
    /// Power of the ring as it is set, W; 2000 where it is not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 100, maximum = 30000)]
    pub watts: Option<f64>,
    /// What heats it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ring: Option<Ring>,
}

/// Minutes over one pan.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PanMinutes {
    /// "a pan 18 cm wide".
    pub words: String,
    /// Until it is hot or boils, and until it is done, min; none where the ring is too weak.
    pub to_heat_min: Option<f64>,
    /// All of it.
    pub min: Option<f64>,
    /// Its spread.
    pub band_min: Option<[f64; 2]>,
    /// What evaporates until then, g; of what is not boiled.
    pub loses_g: Option<f64>,
}

/// A stage of sugar.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct StageAnswer {
    /// "soft ball".
    pub stage: String,
    /// Between these, °C, as high as the kitchen lies.
    pub temperature_c: [f64; 2],
    /// What the scale shows then, g, without the pan, from and to.
    pub scale_g: [f64; 2],
    /// How it shows.
    pub sign: String,
    /// Whether it is the one asked for.
    pub asked: bool,
}

/// The answer.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BoilAnswer {
    /// "Stop when the scale shows 712 g: it boils at 118 °C then".
    pub sentence: String,
    /// Temperature at which it is done, °C.
    pub temperature_c: f64,
    /// Where it begins to boil, °C.
    pub boils_c: f64,
    /// What is left, g: what the scale shows without the pan.
    pub left_g: f64,
    /// What has gone, g.
    pub gone_g: f64,
    /// Dissolved solids of the liquid, before and after, °Bx.
    pub brix: [f64; 2],
    /// Minutes over a small and a wide pan.
    pub pans: Vec<PanMinutes>,
    /// Stages of sugar, where it is mostly sugar.
    pub stages: Vec<StageAnswer>,
    /// Whether what is left of it grains when it has cooled, and what keeps it from that; none where no sugar can.
    pub grains: Option<String>,
    /// Whether its egg is safe then; none without egg.
    pub egg: Option<String>,
    /// What can hurt.
    pub cautions: Vec<CautionAnswer>,
}

/// Pans, mm across.
const PANS_MM: [f64; 2] = [180.0, 300.0];
/// What a pan of 24 cm loses beside what it boils, W (assumed); it goes with its area.
const LOSES_W: f64 = 120.0;
/// What boils away of an open pan before it runs over, W/m²: what foams, milk, cream and egg, and the rest (assumed).
const FOAMS_W_M2: f64 = 15e3;
const BOILS_W_M2: f64 = 45e3;
/// The minutes are known to a third either way (assumed).
const BAND: f64 = 0.35;
/// Air over a pan: convection, W/(m² K), humidity, °C.
const OVER_PAN: (f64, f64, f64) = (8.0, 0.5, 21.0);

#[derive(Debug, Clone, Deserialize)]
struct StageRow {
    stage: String,
    low_c: f64,
    high_c: f64,
    sign: String,
}

static STAGES: LazyLock<Vec<StageRow>> = LazyLock::new(|| {
    csv::Reader::from_reader(include_str!("../../data/sugar_stages.csv").as_bytes())
        .deserialize()
        .map(|row| row.expect("the table of stages is well formed"))
        .collect()
});

impl BoilDocument {
    fn faults(&self) -> Vec<Fault> {
        let mut faults = Vec::new();
        faults.extend(self.boil.fault("boil"));
        let ranges = [
            ("kg", self.kg, [1e-3, 1000.0]),
            ("from_c", self.from_c, [0.0, 100.0]),
            ("altitude_m", Some(self.altitude_m), [-500.0, 6000.0]),
            ("watts", self.watts, [100.0, 30000.0]),
        ];
        for (field, value, [low, high]) in ranges {
            if value.is_some_and(|value| !(low..=high).contains(&value)) {
                faults.push(Fault::new(field, FaultCode::OutOfRange, format!("between {low} and {high}")));
            }
        }
        faults
    }
}

/// Answers a formula over a ring.
///
/// # Errors
/// Faults of the formula and the question, each with what to do; that so much water is not in it.
pub fn boil(document: &BoilDocument, kitchen: &Shelf) -> Result<BoilAnswer, Vec<Fault>> {
    let mut faults = document.faults();
    // Over the ring is what was not boiled down yet.
    let mut formula = document.formula.clone();
    formula.process.boiled = None;
    formula.process.strained = None;
    let ready = match Ready::of(&formula, kitchen) {
        Ok(ready) => ready,
        Err(more) => {
            faults.extend(more);
            return Err(faults);
        }
    };
    if !faults.is_empty() {
        return Err(faults);
    }
    let composition = ready.mixture().composition;
    let kg = document.kg.unwrap_or(1e-3 * ready.batch_g());
    let from_c = document.from_c.unwrap_or(20.0);
    let syrup = Syrup::of(&composition, kg, document.altitude_m);
    let boils_c = syrup.boils_c(0.0);
    let (gone, to_c) = syrup.boiled_to(document.boil, "boil").map_err(|fault| vec![fault])?;
    let left = kg - gone;
    let boiled = gone > 1e-9;
    let flat = flat(&ready.lines);
    let has = |role: Role| flat.iter().any(|line| line.mass.grams() > 0.0 && line.ingredient.is(role));
    let foams = has(Role::Dairy) || has(Role::Cream) || has(Role::Egg);
    let pans = PANS_MM
        .iter()
        .map(|mm| pan(document, &composition, (kg, gone), [from_c, boils_c.min(to_c), to_c], *mm, foams));
    let pans: Vec<PanMinutes> = pans.collect();
    let mostly_sugar = syrup.solids > 0.4 * kg && composition.phases().fat < 0.05;
    let stages = if mostly_sugar { stages(&syrup, kg, to_c) } else { Vec::new() };
    let egg = has(Role::Egg).then(|| egg(&ready, to_c));
    let mut cautions = Vec::new();
    if boiled && to_c > 104.0 {
        cautions.push(Caution::Sugar);
    } else if boiled || to_c > 90.0 {
        cautions.push(Caution::Burn);
    }
    if boiled && composition.get(Part::Alcohol) > 0.01 {
        // Spirit goes before water does, and burns: what is left of it is not reckoned.
        cautions.push(Caution::Flame);
    }
    if has(Role::Egg) && to_c < SAFE_AT_ONCE_C {
        cautions.push(Caution::RawEgg);
    }
    let stage = stages.iter().find(|own| own.asked).map_or(String::new(), |own| format!(", {}", own.stage));
    let high = match document.altitude_m.abs() >= 100.0 {
        true => format!(" at {:.0} m", document.altitude_m),
        false => String::new(),
    };
    let sentence = match boiled {
        true => format!(
            "Stop when the scale shows {} g without the pan: it boils at {} °C then{high}{stage}",
            batch_g(1e3 * left),
            degrees(to_c)
        ),
        false => format!(
            "Comes to {} °C without boiling; it would boil at {} °C{high}",
            degrees(to_c),
            degrees(boils_c)
        ),
    };
    Ok(BoilAnswer {
        sentence,
        temperature_c: digits((10.0 * to_c).round() / 10.0),
        boils_c: digits((10.0 * boils_c).round() / 10.0),
        left_g: batch_g(1e3 * left),
        gone_g: batch_g(1e3 * gone),
        brix: [syrup.brix(0.0), syrup.brix(gone)].map(|brix| digits((10.0 * brix).round() / 10.0)),
        pans,
        stages,
        grains: if mostly_sugar && boiled { grains(&formula, document.boil, kitchen) } else { None },
        egg,
        cautions: cautions.into_iter().map(CautionAnswer::from).collect(),
    })
}

/// Minutes over a pan: what the ring gives less what the pan loses, and no more than boils before it runs over.
fn pan(
    document: &BoilDocument,
    composition: &Composition,
    (kg, gone): (f64, f64),
    [from_c, hot_c, to_c]: [f64; 3],
    mm: f64,
    foams: bool,
) -> PanMinutes {
    let area = PI * (5e-4 * mm).powi(2);
    let loses = LOSES_W * area / (PI * 0.12 * 0.12);
    let given = document.watts.unwrap_or(2000.0) * document.ring.unwrap_or(Ring::Electric).reaches() - loses;
    let words = format!("a pan {:.0} cm wide", 0.1 * mm);
    if given <= 0.0 {
        return PanMinutes { words, to_heat_min: None, min: None, band_min: None, loses_g: None };
    }
    let shares = HeatShares::of(composition);
    let capacity = |t_c: f64| shares.sensible_capacity(t_c);
    let heat_s = kg * capacity(0.5 * (from_c + hot_c)) * (hot_c - from_c).max(0.0) / given;
    let most = if foams { FOAMS_W_M2 } else { BOILS_W_M2 };
    let boiling = given.min(most * area);
    let vapour = 2.501e6 - 2430.0 * 0.5 * (hot_c + to_c).min(240.0);
    let boil_s = (gone * vapour + (kg - gone) * capacity(0.5 * (hot_c + to_c)) * (to_c - hot_c)) / boiling;
    let all = (heat_s + boil_s) / 60.0;
    // What is not boiled steams: over the way up, by the vapour over it.
    let (convection, humidity, air_c) = OVER_PAN;
    let steams = |t_c: f64| {
        let wet = (vapour_pressure(t_c) - humidity * vapour_pressure(air_c)).max(0.0);
        area * convection / 65.0 * wet / (2.501e6 - 2430.0 * t_c)
    };
    let way = (0..20).map(|k| from_c + (hot_c - from_c) * (f64::from(k) + 0.5) / 20.0);
    let lost = way.map(steams).sum::<f64>() / 20.0 * heat_s;
    PanMinutes {
        words,
        to_heat_min: Some(rounded(heat_s / 60.0)),
        min: Some(rounded(all)),
        band_min: Some([(1.0 - BAND) * all, (1.0 + BAND) * all].map(rounded)),
        loses_g: (gone <= 1e-9).then(|| weighed_g(1e3 * lost)),
    }
}

/// Stages of sugar as high as the kitchen lies, with what the scale shows.
fn stages(syrup: &Syrup, kg: f64, to_c: f64) -> Vec<StageAnswer> {
    STAGES
        .iter()
        .filter_map(|row| {
            let temperature_c = [row.low_c, row.high_c].map(|c| boils_higher_up(c, syrup.pressure));
            let gone = temperature_c.map(|c| syrup.gone_at(c).clamp(0.0, syrup.water));
            (syrup.boils_c(0.0) < temperature_c[1]).then(|| StageAnswer {
                stage: row.stage.clone(),
                temperature_c: temperature_c.map(|c| digits((10.0 * c).round() / 10.0)),
                scale_g: gone.map(|gone| batch_g(1e3 * (kg - gone))),
                sign: row.sign.clone(),
                asked: (temperature_c[0] - 0.5..=temperature_c[1] + 0.5).contains(&to_c),
            })
        })
        .collect()
}

/// Whether what is left grains in a room of 20 °C; what keeps it from that where it does not.
fn grains(formula: &FormulaDocument, to: BoilTo, kitchen: &Shelf) -> Option<String> {
    const ROOM_C: f64 = 20.0;
    let mut left = formula.clone();
    left.process.boiled = Some(to);
    left.process.strained = None;
    let ready = Ready::of(&left, kitchen).ok()?;
    let mixture = ready.mixture();
    let prepared = Prepared::new(&mixture, left.family.traits().system, &ready.options);
    let found = warnings(&ready.lines, left.family, &prepared, &ready.options, ROOM_C, left.history());
    if let Some(grains) = found.into_iter().find(|warning| warning.code == WarningCode::Graining) {
        return Some(format!("{} {}", grains.cause, grains.way_out));
    }
    let sugars: f64 = SUGARS.iter().map(|sugar| mixture.composition.get(*sugar)).sum();
    let other = 100.0 * (1.0 - mixture.composition.get(Part::Sucrose) / sugars.max(1e-9));
    Some(match other >= 5.0 {
        true => format!(
            "It does not grain at {ROOM_C} °C: {} % of its sugars are glucose, invert sugar and the like, which keep it.",
            other.round()
        ),
        false => format!("It does not grain at {ROOM_C} °C: there is water enough for its sugar."),
    })
}

fn egg(ready: &Ready, to_c: f64) -> String {
    if to_c >= SAFE_AT_ONCE_C {
        return format!("Egg in it is safe at {} °C, all of it; your local rules decide", degrees(to_c));
    }
    let hold = EggKind::of(&ready.lines).hold_min(to_c);
    match hold < 240.0 {
        true => format!(
            "Egg in it is safe once all of it has been held at {} °C for {}; your local rules decide",
            degrees(to_c),
            minutes(hold)
        ),
        false => format!("Egg in it stays raw at {} °C: say so, or take pasteurised egg", degrees(to_c)),
    }
}
