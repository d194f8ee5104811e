//! The whole answer to a formula and its work: totals, the verdict, the map, the reach, warnings.

use crate::formula::{Family, Fault, Mixture, Totals, WeighedLine, totals};
use crate::ingredient::PhaseShares;
use crate::job::document::{FormulaDocument, history_word};
use crate::job::geometry::{Job, Measured};
use crate::job::judge::{Estimate, Hint, Judged, Outcome, judge};
use crate::job::reach::{PhaseReach, Span, phase_reach, spans};
use crate::job::words::{SpoonSign, chance_words, detail, headline, span_sentence};
use crate::rheology::consistency::{Banded, Contributions};
use crate::rheology::kernel::Predictor;
use crate::rheology::smooth::logistic;
use crate::rheology::sweep::{SWEEP_POINTS, SWEEP_STEP_K, sweep, sweep_temperature};
use crate::rheology::warning::{Warning, warnings};
use crate::rheology::{History, Structure};
use serde::Serialize;
use utoipa::ToSchema;

/// A line weighed, with what it brings.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LineAnswer {
    /// Key of the ingredient.
    pub ingredient: String,
    /// Its name.
    pub name: String,
    /// How much, g.
    pub mass_g: f64,
    /// Share of the batch, per cent of total.
    pub of_total_percent: f64,
    /// What the grams rest on; none when grams were written.
    pub assumed: Option<String>,
    /// What it brings, g.
    pub phases_g: PhaseShares,
}

/// One temperature of the map, with its verdict in words.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Point {
    /// Temperature, °C.
    pub temperature_c: f64,
    /// Yield stress with its 90 % band, Pa.
    pub yield_stress_pa: Estimate,
    /// Viscosity at 10 /s with its 90 % band, Pa·s.
    pub viscosity_pa_s: Estimate,
    /// What the job measures, in mm or Pa, with its 90 % band.
    pub measured: Estimate,
    /// Chance of being in the window, 0 to 1.
    pub chance: f64,
    /// The chance in words.
    pub chance_words: String,
    /// Inside or not.
    pub outcome: Outcome,
    /// The window as yield stress at this temperature, Pa.
    pub window_pa: [f64; 2],
    /// What a spoonful does.
    pub spoon: SpoonSign,
    /// The same in words.
    pub spoon_words: String,
    /// The verdict in one sentence.
    pub headline: String,
    /// What stands behind it.
    pub detail: String,
}

/// The curve of one history, over the temperatures of the map.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Curve {
    /// Which.
    pub history: History,
    /// In kitchen words.
    pub words: String,
    /// Yield stress, Pa, one per point of the map.
    pub yield_stress_pa: Vec<f64>,
}

/// What it becomes when left to set in the room.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct InTheRoom {
    /// Temperature of the room, °C.
    pub temperature_c: f64,
    /// Yield stress with its 90 % band, Pa.
    pub yield_stress_pa: Estimate,
    /// What a spoonful does.
    pub spoon: SpoonSign,
    /// In one sentence.
    pub sentence: String,
}

/// Numbers a cook looks at that do not hang on the job, each with its 90 % band.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Figures {
    /// Density, g/ml. Band ± 2 %: component volumes against published cup weights.
    pub density_g_per_ml: Estimate,
    /// Dissolved solids of the watery phase, °Bx. Band from ± 3 % of sugar and water in the
    /// ingredients (assumed).
    pub brix: Estimate,
    /// Water activity; none when there is too little free water. Band ± 0.015.
    pub water_activity: Option<Estimate>,
    /// Split index at the working temperature, 0 to 1. Band from ± 0.02 in the fat share of the
    /// fluid (assumed).
    pub split: Estimate,
    /// Sweetness, per cent of total as sucrose.
    pub sweetness_percent: f64,
    /// Solid fat at the working temperature, per cent of all fat.
    pub solid_fat_percent: f64,
    /// Crowding index; 1 is full.
    pub crowding: f64,
    /// Alcohol by volume, per cent.
    pub alcohol_by_volume_percent: f64,
    /// Which phase is outside.
    pub structure: Structure,
    /// Where the yield stress comes from, Pa.
    pub contributions_pa: Contributions,
}

/// The answer.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Assessment {
    /// Name of the formula.
    pub name: String,
    /// Its family.
    pub family: Family,
    /// The job and its geometry, defaults filled in.
    pub job: Job,
    /// What the job measures.
    pub measured: Measured,
    /// The window of it, in mm or Pa.
    pub window: [f64; 2],
    /// The history it was judged in.
    pub history: History,
    /// Lines weighed.
    pub lines: Vec<LineAnswer>,
    /// Totals of the batch.
    pub totals: Totals,
    /// The working temperature judged.
    pub at: Point,
    /// What it becomes in the room.
    pub in_the_room: InTheRoom,
    /// Temperatures at which the job is met.
    pub spans: Vec<Span>,
    /// The same in one sentence.
    pub span_sentence: String,
    /// The map: every half degree from 0 to 45 °C.
    pub sweep: Vec<Point>,
    /// Step between its points, K.
    pub sweep_step_k: f64,
    /// The other histories, for comparison.
    pub curves: Vec<Curve>,
    /// Where each phase alone would meet the job.
    pub reach: Vec<PhaseReach>,
    /// Numbers that do not hang on the job.
    pub figures: Figures,
    /// Warnings, worst first.
    pub warnings: Vec<Warning>,
}

/// The numbers of a whole map, before words: nothing in it is allocated.
pub struct Map {
    /// Predictions with bands.
    pub sweep: [Banded; SWEEP_POINTS],
    /// Judgements.
    pub judged: [Judged; SWEEP_POINTS],
}

/// Predicts and judges every half degree from 0 to 45 °C.
pub fn map(predictor: &Predictor, job: &Job, history: History) -> Map {
    let sweep = sweep(predictor, history);
    let mut hint: Hint = None;
    let judged = std::array::from_fn(|k| {
        let judged = judge(job, &predictor.base, &sweep[k], sweep_temperature(k), hint);
        hint = Some(judged.yield_window_pa);
        judged
    });
    Map { sweep, judged }
}

/// Answers a document.
///
/// # Errors
/// All faults of the document at once, each with its field and what to do.
pub fn assess(document: &FormulaDocument) -> Result<Assessment, Vec<Fault>> {
    let mut faults = document.faults();
    let lines = match document.formula().weigh() {
        Ok(lines) => lines,
        Err(more) => {
            faults.extend(more);
            return Err(faults);
        }
    };
    if !faults.is_empty() {
        return Err(faults);
    }
    let (job, history) = (&document.work.job, document.history());
    let (t_c, room_c) = (document.work.temperature_c.celsius(), document.work.room_temperature_c.celsius());
    let mixture = Mixture::of(&lines);
    let predictor = Predictor::new(&mixture, document.family, &document.options());
    let prepared = &predictor.base;
    let map = map(&predictor, job, history);

    let here = predictor.at(t_c, history);
    let nearest = ((t_c / SWEEP_STEP_K).round() as usize).min(SWEEP_POINTS - 1);
    let judged_here = judge(job, prepared, &here, t_c, Some(map.judged[nearest].yield_window_pa));
    let at = point(job, &here, &judged_here, t_c);
    let spans = spans(job, prepared, history, &map.judged.each_ref().map(|judged| judged.outcome));
    let curves = History::ALL
        .into_iter()
        .filter(|other| *other != history)
        .map(|other| Curve {
            history: other,
            words: history_word(other).to_owned(),
            yield_stress_pa: (0..SWEEP_POINTS)
                .map(|k| digits(prepared.at(sweep_temperature(k), other).yield_stress_pa))
                .collect(),
        })
        .collect();
    let totals = totals(&lines);
    Ok(Assessment {
        name: document.name.clone(),
        family: document.family,
        job: *job,
        measured: job.measured(),
        window: judged_here.window.map(digits),
        history,
        lines: lines.iter().map(|line| line_answer(line, totals.batch_mass_g)).collect(),
        totals,
        in_the_room: in_the_room(&predictor, room_c),
        span_sentence: span_sentence(job, &spans),
        spans,
        sweep: (0..SWEEP_POINTS)
            .map(|k| point(job, &map.sweep[k], &map.judged[k], sweep_temperature(k)))
            .collect(),
        sweep_step_k: SWEEP_STEP_K,
        curves,
        reach: phase_reach(&mixture, document.family, &document.options(), job, history, t_c),
        figures: figures(&predictor, &here),
        warnings: warnings(&lines, document.family, prepared, &here.middle, t_c),
        at,
    })
}

/// Six significant digits: more would only lengthen the answer.
fn digits(value: f64) -> f64 {
    if value == 0.0 || !value.is_finite() {
        return value;
    }
    let scale = 10f64.powi(5 - value.abs().log10().floor() as i32);
    (value * scale).round() / scale
}

fn estimate(value: f64, sigma: f64) -> Estimate {
    let e = Estimate::log_normal(value, sigma);
    Estimate { value: digits(e.value), low: digits(e.low), high: digits(e.high) }
}

fn point(job: &Job, banded: &Banded, judged: &Judged, t_c: f64) -> Point {
    let (tau, eta) = (banded.middle.yield_stress_pa, banded.middle.viscosity_pa_s);
    let spoon = SpoonSign::of(tau, eta);
    let m = judged.measured;
    Point {
        temperature_c: t_c,
        yield_stress_pa: estimate(tau, banded.sigma_yield),
        viscosity_pa_s: estimate(eta, banded.sigma_viscosity),
        measured: Estimate { value: digits(m.value), low: digits(m.low), high: digits(m.high) },
        chance: digits(judged.chance),
        chance_words: chance_words(judged.chance),
        outcome: judged.outcome,
        window_pa: judged.yield_window_pa.map(digits),
        spoon,
        spoon_words: spoon.word().to_owned(),
        headline: headline(job, judged, t_c),
        detail: detail(job, judged),
    }
}

fn line_answer(line: &WeighedLine, batch_g: f64) -> LineAnswer {
    let (grams, phases) = (line.mass.grams(), line.ingredient.composition.phases());
    LineAnswer {
        ingredient: line.ingredient.id.clone(),
        name: line.ingredient.name.clone(),
        mass_g: digits(grams),
        of_total_percent: digits(100.0 * grams / batch_g),
        assumed: line.assumed.clone(),
        phases_g: PhaseShares {
            fat: digits(grams * phases.fat),
            sugar: digits(grams * phases.sugar),
            water: digits(grams * phases.water),
            dry: digits(grams * phases.dry),
            setting: digits(grams * phases.setting),
        },
    }
}

fn in_the_room(predictor: &Predictor, room_c: f64) -> InTheRoom {
    let banded = predictor.at(room_c, History::Rested);
    let (tau, eta) = (banded.middle.yield_stress_pa, banded.middle.viscosity_pa_s);
    let spoon = SpoonSign::of(tau, eta);
    InTheRoom {
        temperature_c: room_c,
        yield_stress_pa: estimate(tau, banded.sigma_yield),
        spoon,
        sentence: format!(
            "Left overnight in the room at {room_c:.1} °C it sets to a {}, about {} Pa.",
            match spoon {
                SpoonSign::HoldsUpsideDown => "paste that holds upside down",
                other => other.word(),
            },
            crate::job::words::two_digits(tau)
        ),
    }
}

fn figures(predictor: &Predictor, here: &Banded) -> Figures {
    let prepared = &predictor.base;
    let spread = |value: f64, by: f64| Estimate {
        value: digits(value),
        low: digits((value - by).max(0.0)),
        high: digits(value + by),
    };
    let density = 1e-3 * prepared.density;
    let brix = prepared.serum.brix;
    // d brix for ± 3 % of the solids to water ratio.
    let brix_by = 0.03 * brix * (1.0 - brix / 100.0);
    let split = here.middle.split;
    let centre = (prepared.fat_of_fluid - 0.67) / 0.015;
    let scale = split / logistic(centre).max(1e-12);
    let nudge = 0.02 / 0.015;
    Figures {
        density_g_per_ml: spread(density, 0.02 * density),
        brix: spread(brix, brix_by),
        water_activity: prepared.serum.water_activity.map(|aw| Estimate {
            value: digits(aw),
            low: digits(aw - 0.015),
            high: digits((aw + 0.015).min(1.0)),
        }),
        split: Estimate {
            value: digits(split),
            low: digits(scale * logistic(centre - nudge)),
            high: digits(scale * logistic(centre + nudge)),
        },
        sweetness_percent: digits(prepared.serum.sweetness_percent),
        solid_fat_percent: digits(100.0 * here.middle.solid_fat),
        crowding: digits(prepared.crowding),
        alcohol_by_volume_percent: digits(prepared.alcohol_by_volume_percent),
        structure: prepared.structure(),
        contributions_pa: here.middle.contributions,
    }
}
