//! The whole answer to a formula and its work: totals, the verdict, the map, the reach, warnings.

use crate::assess::boiled::BoiledDown;
use crate::assess::document::{FormulaDocument, history_word};
use crate::assess::figures::{Figures, KeyFigure, figures, key_figures};
use crate::assess::in_the_room::{InTheRoom, in_the_room, raw_egg, standing_in_the_room};
use crate::assess::learned::{LearnedHere, learned_here};
use crate::assess::map::map;
use crate::assess::pour::{Pour, pour};
use crate::assess::reach::{PhaseReach, Span, phase_reach, spans};
use crate::assess::ready::Ready;
use crate::assess::spoon_sign::SpoonSign;
use crate::assess::strained::StrainedOff;
use crate::assess::why::{Why, why};
use crate::assess::words::{chance_words, detail, headline, lasts_sentence, span_sentence};
use crate::assess::zone::{MapZone, zones};
use crate::formula::kitchen_words::{in_pieces, in_spoons};
use crate::formula::tint::tint;
use crate::formula::to_make::{Takes, ToMake, to_make};
use crate::formula::{Family, Fault, Totals, WeighedLine, WhipStage, totals};
use crate::ingredient::{PhaseShares, Shelf};
use crate::job::duty::{Estimate, Judged, Outcome, Stands};
use crate::job::duty::{MapAxis, Measured};
use crate::job::judge::Question;
use crate::job::kind::Job;
use crate::number::digits;
use crate::rheology::Predictor;
use crate::rheology::consistency::Banded;
use crate::rheology::sweep::SWEEP_POINTS;
use crate::rheology::warning::{Warning, warnings};
use crate::rheology::{History, Unchecked};
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
    /// Share of the batch, per cent of all that is not added by taste.
    pub of_total_percent: f64,
    /// Share, per cent of the ingredient that per cent are of; none when they are of the whole.
    pub of_base_percent: Option<f64>,
    /// The same in cups and spoons of the kitchen; none without a density.
    pub in_spoons: Option<String>,
    /// The same in eggs, leaves, sticks; none when it is not counted.
    pub in_pieces: Option<String>,
    /// What the grams rest on; none when grams were written.
    pub assumed: Option<String>,
    /// What it brings, g.
    pub phases_g: PhaseShares,
    /// What it is, when it is made here and not bought.
    pub made_here: Option<MadeHere>,
}

/// What a line of something made here is.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MadeHere {
    /// Key of the component.
    pub component: String,
    /// The revision it is held at; none for the newest.
    pub revision: Option<i64>,
    /// Its family in kitchen words.
    pub word: String,
    /// Days it keeps in the cold.
    pub cold_days: i64,
    /// Its air, per cent of the volume before; 0 for none.
    pub overrun_percent: f64,
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
    /// Value on the map's axis with its 90 % band, Pa or Pa·s.
    pub on_map: Estimate,
    /// What the job measures, with its 90 % band.
    pub measured: Estimate,
    /// Chance of being in the window, 0 to 1; 0 where it is not known.
    pub chance: f64,
    /// The chance in words; that it is not known where it is not.
    pub chance_words: String,
    /// What it is not known for here, when it stands too far from what was ever checked: then no chance is claimed.
    pub unknown: Option<Unchecked>,
    /// Whether it stays right while it is held there.
    pub stands: Stands,
    /// Minutes for which it stays right when it is held there, of the working temperature; none where there is no end to
    /// it or where nobody asked.
    pub lasts_min: Option<f64>,
    /// Inside or not.
    pub outcome: Outcome,
    /// The window on the map's axis at this temperature, Pa or Pa·s.
    pub window_on_map: [f64; 2],
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
    /// Value on the map's axis, Pa or Pa·s, one per point of the map.
    pub on_map: Vec<f64>,
}

/// What was done in the making, as it was counted.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct UsedProcess {
    /// Volume gained, per cent of the volume before.
    pub overrun_percent: f64,
    /// How stiff it is whipped, 0 to 1.
    pub whip: f64,
    /// The stage nearest to that.
    pub whip_stage: WhipStage,
    /// Highest temperature reached, °C; none when nobody said.
    pub cook_c: Option<f64>,
    /// Hours set.
    pub set_hours: f64,
    /// Where the air comes from and what of it is lost, when what was made before brings it; none when it is beaten in.
    pub air_brought: Option<String>,
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
    /// The window of it.
    pub window: [f64; 2],
    /// The history it was judged in.
    pub history: History,
    /// What the map's upright axis counts.
    pub axis: MapAxis,
    /// What a stress or viscosity on its map is like, in words, from the loosest.
    pub zones: Vec<MapZone>,
    /// What was done in the making, the family's habits filled in.
    pub process: UsedProcess,
    /// Lines weighed.
    pub lines: Vec<LineAnswer>,
    /// What is boiled down, line by line and the whole last.
    pub boiled: Vec<BoiledDown>,
    /// What is strained off it and its lines, and what is taken out again.
    pub strained: Vec<StrainedOff>,
    /// What must be made before, each once, what goes into others first.
    pub to_make: Vec<ToMake>,
    /// Totals of the batch.
    pub totals: Totals,
    /// The colour it is drawn in, "#rrggbb".
    pub tint: String,
    /// The working temperature judged.
    pub at: Point,
    /// What it becomes in the room.
    pub in_the_room: InTheRoom,
    /// Temperatures at which the job is met.
    pub spans: Vec<Span>,
    /// The same in one sentence.
    pub span_sentence: String,
    /// What is poured before it sets, where the family is.
    pub pour: Option<Pour>,
    /// The map: 91 points from 0 °C up.
    pub sweep: Vec<Point>,
    /// Step between its points, K.
    pub sweep_step_k: f64,
    /// The other histories, for comparison.
    pub curves: Vec<Curve>,
    /// Where each phase alone would meet the job.
    pub reach: Vec<PhaseReach>,
    /// Numbers that do not hang on the job.
    pub figures: Figures,
    /// The numbers of the family.
    pub key_figures: Vec<KeyFigure>,
    /// Why it comes out so.
    pub why: Why,
    /// Warnings, worst first.
    pub warnings: Vec<Warning>,
    /// What the kitchen's own tests do to it; none where none bears on it.
    pub learned: Option<LearnedHere>,
}

/// Answers a document with nothing on the shelf but the catalogue and what it brings.
///
/// # Errors
/// All faults of the document at once, each with its field and what to do.
pub fn assess(document: &FormulaDocument) -> Result<Assessment, Vec<Fault>> {
    assess_from(document, &Shelf::catalogue())
}

/// Answers a document of a kitchen with own ingredients.
///
/// # Errors
/// All faults of the document at once, each with its field and what to do.
pub fn assess_from(document: &FormulaDocument, kitchen: &Shelf) -> Result<Assessment, Vec<Fault>> {
    assessed(document, kitchen).map(|(_, answer)| answer)
}

/// The same, with the formula as it was made ready.
///
/// # Errors
/// As [`assess_from`].
pub fn assessed(document: &FormulaDocument, kitchen: &Shelf) -> Result<(Ready, Assessment), Vec<Fault>> {
    let mut faults = document.faults();
    let ready = match Ready::of(document, kitchen) {
        Ok(ready) => ready,
        Err(more) => {
            faults.extend(more);
            return Err(faults);
        }
    };
    if !faults.is_empty() {
        return Err(faults);
    }
    let answer = answer(document, &ready);
    Ok((ready, answer))
}

fn answer(document: &FormulaDocument, ready: &Ready) -> Assessment {
    let Ready { lines, options, .. } = ready;
    let (family, grid) = (document.family, document.grid());
    let system = family.traits().system;
    let (job, history) = (&document.work.job, document.history());
    let axis = job.axis(family);
    let (t_c, room_c) = (document.work.temperature_c.celsius(), document.work.room_temperature_c.celsius());
    let mixture = ready.mixture();
    // Whipping is judged on the liquid cream; its numbers, its room and its pour are those of the made one.
    let asked = job.options(*options);
    let predictor = Predictor::new(&mixture, system, &asked);
    let made = Predictor::new(&mixture, system, options);
    let question = Question { job, prepared: &predictor.base, axis, history };
    let map = map(&predictor, job, axis, history, grid);

    let here = predictor.at(t_c, history);
    let judged_here = question.judge(&here, t_c, map.judged[grid.nearest(t_c)].hint);
    let mut at = point(job, axis, &here, &judged_here, t_c);
    if judged_here.outcome == Outcome::Inside
        && let Some(minutes) = question.lasts_min(t_c)
    {
        at.lasts_min = Some(digits(minutes));
        at.detail = format!("{} {}", at.detail, lasts_sentence(minutes));
    }
    let spans = spans(&question, grid, &map.judged);
    let curves = History::ALL
        .into_iter()
        .filter(|other| *other != history && differs(&predictor, *other, history))
        .map(|other| Curve {
            history: other,
            words: history_word(other).to_owned(),
            on_map: (0..SWEEP_POINTS)
                .map(|k| {
                    let point = predictor.base.at(grid.temperature(k), other);
                    digits(axis.of(&point))
                })
                .collect(),
        })
        .collect();
    let totals = totals(lines);
    let warned = [
        warnings(lines, family, &made.base, options, t_c, history),
        job.duty().warning(&made.base).into_iter().collect(),
    ]
    .concat();
    let pour_c = document.work.pour_temperature_c.filter(|_| family.traits().poured);
    Assessment {
        name: document.name.clone(),
        family,
        job: *job,
        measured: job.measured(),
        window: judged_here.window.map(digits),
        history,
        axis,
        zones: zones(axis),
        process: UsedProcess {
            overrun_percent: digits(100.0 * options.overrun.unwrap_or_default()),
            whip: options.whip.unwrap_or_default(),
            whip_stage: WhipStage::nearest(options.whip.unwrap_or_default()),
            cook_c: options.cook_c,
            set_hours: options.hours.unwrap_or(17.0),
            air_brought: document.air(lines).brought,
        },
        lines: line_answers(lines, document),
        boiled: ready.boiled.clone(),
        strained: ready.strained.clone(),
        to_make: to_make(&[Takes::of(document.called(), lines)], &[]),
        in_the_room: in_the_room(
            &made,
            family,
            room_c,
            axis,
            standing_in_the_room(&made, &mixture, raw_egg(&warned)),
        ),
        span_sentence: span_sentence(
            job,
            &spans,
            grid.hottest_c(),
            map.judged.iter().all(|judged| judged.unknown.is_none()),
        ),
        spans,
        pour: pour_c.map(|pour_c| pour(&made, pour_c.celsius(), grid)),
        sweep: (0..SWEEP_POINTS)
            .map(|k| point(job, axis, &map.sweep[k], &map.judged[k], grid.temperature(k)))
            .collect(),
        sweep_step_k: grid.step_k,
        curves,
        // From what is not known nothing is measured off.
        reach: match here.unknown {
            Some(_) => Vec::new(),
            None => phase_reach(&mixture, family, &asked, job, history, t_c),
        },
        figures: figures(&made.base, &made.at(t_c, history), totals.batch_mass_g),
        key_figures: key_figures(
            lines,
            family,
            100.0 * options.overrun.unwrap_or_default(),
            &made.base,
            &made.at(t_c, history),
        ),
        why: why(lines, family, &asked, &predictor, &here, (t_c, history, axis)),
        warnings: warned,
        learned: learned_here(ready, family, (t_c, history), axis),
        totals,
        tint: tint(lines, family),
        at,
    }
}

/// Whether a history makes another curve: what does not melt and does not set is the same in all.
fn differs(predictor: &Predictor, one: History, other: History) -> bool {
    [3.0, 12.0, 21.0, 30.0, 40.0].into_iter().any(|t_c| {
        let [a, b] = [one, other].map(|history| predictor.base.at(t_c, history).yield_stress_pa);
        (a / b).ln().abs() > 0.02
    })
}

fn point(job: &Job, axis: MapAxis, banded: &Banded, judged: &Judged, t_c: f64) -> Point {
    let (tau, eta) = (banded.middle.yield_stress_pa, banded.middle.viscosity_pa_s);
    let spoon = SpoonSign::of(tau, eta);
    let m = judged.measured;
    let yield_stress_pa = Estimate::shown(tau, banded.sigma_yield);
    let viscosity_pa_s = Estimate::shown(eta, banded.sigma_viscosity);
    Point {
        temperature_c: t_c,
        yield_stress_pa,
        viscosity_pa_s,
        on_map: match axis {
            MapAxis::YieldStressPa => yield_stress_pa,
            MapAxis::ViscosityPaS => viscosity_pa_s,
        },
        measured: Estimate { value: digits(m.value), low: digits(m.low), high: digits(m.high) },
        chance: digits(judged.chance),
        chance_words: match judged.unknown {
            Some(_) => "not known here".to_owned(),
            None => chance_words(judged.chance),
        },
        unknown: judged.unknown,
        stands: judged.stands,
        lasts_min: None,
        outcome: judged.outcome,
        window_on_map: judged.map_window.map(digits),
        spoon,
        spoon_words: spoon.word().to_owned(),
        headline: headline(job, judged, t_c),
        detail: detail(job, judged),
    }
}

fn line_answers(lines: &[WeighedLine], document: &FormulaDocument) -> Vec<LineAnswer> {
    let (percent_of, measures) = (document.percent_of.as_deref(), document.measures);
    let by_taste = |at: usize| document.lines.get(at).is_some_and(|own| own.by_taste);
    let weighed_g = |(at, line): (usize, &WeighedLine)| if by_taste(at) { 0.0 } else { line.mass.grams() };
    let batch_g = lines.iter().enumerate().map(weighed_g).sum::<f64>().max(1e-9);
    let base_g: f64 =
        lines.iter().filter(|l| Some(l.ingredient.id.as_str()) == percent_of).map(|l| l.mass.grams()).sum();
    lines
        .iter()
        .map(|line| {
            let (grams, phases) = (line.mass.grams(), line.ingredient.composition.phases());
            LineAnswer {
                ingredient: line.ingredient.id.clone(),
                name: line.ingredient.name.clone(),
                mass_g: digits(grams),
                of_total_percent: digits(100.0 * grams / batch_g),
                of_base_percent: (base_g > 0.0).then(|| digits(100.0 * grams / base_g)),
                in_spoons: in_spoons(grams, &line.ingredient, measures),
                in_pieces: in_pieces(grams, &line.ingredient),
                assumed: line.assumed.clone(),
                phases_g: PhaseShares {
                    fat: digits(grams * phases.fat),
                    sugar: digits(grams * phases.sugar),
                    water: digits(grams * phases.water),
                    dry: digits(grams * phases.dry),
                    setting: digits(grams * phases.setting),
                },
                made_here: line.ingredient.made.as_ref().map(|made| MadeHere {
                    component: made.component.clone(),
                    revision: made.revision,
                    word: made.word.to_owned(),
                    cold_days: made.cold_days,
                    overrun_percent: digits(100.0 * made.overrun),
                }),
            }
        })
        .collect()
}
