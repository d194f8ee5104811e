//! What is asked, and what is right.

use crate::assess::spoon_sign::SpoonSign;
use crate::assess::{Assessment, FormulaDocument, Ready, assess_from};
use crate::code::codes;
use crate::fault::Fault;
use crate::ingredient::Shelf;
use crate::job::Job;
use crate::job::duty::Outcome;
use crate::number::{degrees, two_digits};
use crate::rheology::Predictor;
use crate::trainer::dice::Dice;
use crate::units::Temperature;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Hardest level.
pub const HARDEST: u8 = 4;
/// How many lengths and temperatures there are to choose from.
const CHOICES: usize = 4;
/// How many bowls.
const BOWLS: usize = 3;

codes! {
    /// What is asked.
    TrainerKind {
        /// What a spoonful does.
        Spoon = "spoon",
        /// How long a drip runs.
        Drip = "drip",
        /// Up to which temperature it does its work.
        Holds = "holds",
        /// Which of some bowls does what is seen on the spoon.
        WhatIsIn = "what_is_in",
    }
}

/// Which question: the same is asked for the same.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TrainerAsk {
    /// What is asked.
    pub kind: TrainerKind,
    /// Key of the formula.
    #[schema(max_length = 80)]
    pub component: String,
    /// Its revision.
    #[schema(minimum = 1, maximum = 1000000)]
    pub revision: i64,
    /// Keys of the formulas beside it, where bowls are told apart.
    #[serde(default)]
    #[schema(max_items = 4)]
    pub others: Vec<String>,
    /// What the dice fall by.
    #[schema(minimum = 0, maximum = 4294967295u32)]
    pub seed: u32,
    /// How hard, 1 to 4.
    #[schema(minimum = 1, maximum = 4)]
    pub level: u8,
}

/// A formula to ask about.
#[derive(Debug, Clone)]
pub struct TrainerFormula {
    /// Its key.
    pub key: String,
    /// What it is.
    pub document: FormulaDocument,
}

/// A line as it is shown.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TrainerLine {
    /// What.
    pub name: String,
    /// How much, g.
    pub grams: f64,
    /// Share of the batch, per cent.
    pub percent: f64,
}

/// One of what can be answered.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TrainerChoice {
    /// In words.
    pub words: String,
    /// What is in it, where bowls are told apart.
    pub lines: Vec<TrainerLine>,
}

/// A spoonful, as it is drawn.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SpoonSeen {
    /// What it does.
    pub sign: SpoonSign,
    /// The same in words.
    pub words: String,
    /// Yield stress, Pa.
    pub yield_stress_pa: f64,
    /// Viscosity at 10 /s, Pa·s.
    pub viscosity_pa_s: f64,
    /// With its air, kg/m³.
    pub density_kg_m3: f64,
    /// Its colour, "#rrggbb".
    pub tint: String,
}

impl SpoonSeen {
    /// Of an answer.
    pub fn of(is: &Assessment) -> Self {
        SpoonSeen {
            sign: is.at.spoon,
            words: is.at.spoon_words.clone(),
            yield_stress_pa: is.at.yield_stress_pa.value,
            viscosity_pa_s: is.at.viscosity_pa_s.value,
            density_kg_m3: 1e3 * is.figures.density_g_per_ml.value,
            tint: is.tint.clone(),
        }
    }
}

/// What is asked.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TrainerQuestion {
    /// What is asked.
    pub kind: TrainerKind,
    /// How hard.
    pub level: u8,
    /// In words.
    pub words: String,
    /// The formula's name; none where it would tell.
    pub name: Option<String>,
    /// What was changed of it for this question, in words.
    pub changed: Option<String>,
    /// What is in it; none where that is asked.
    pub lines: Vec<TrainerLine>,
    /// Numbers of it: share of fat, sugar, water.
    pub facts: Vec<String>,
    /// What is seen on the spoon, where what is in it is asked.
    pub spoon: Option<SpoonSeen>,
    /// What can be answered.
    pub choices: Vec<TrainerChoice>,
}

/// A question with its answer.
#[derive(Debug, Clone)]
pub struct Asked {
    /// As it is shown.
    pub question: TrainerQuestion,
    /// Which choice is right.
    pub right: usize,
    /// What it is.
    pub is: Assessment,
}

/// What of a formula can be asked: what is not known is not asked.
pub fn can_be_asked(is: &Assessment) -> Vec<TrainerKind> {
    let mut kinds = Vec::new();
    if is.at.unknown.is_some() {
        return kinds;
    }
    kinds.extend([TrainerKind::Spoon, TrainerKind::WhatIsIn]);
    if matches!(is.job, Job::Drip(_)) && (4.0..=150.0).contains(&is.at.measured.value) {
        kinds.push(TrainerKind::Drip);
    }
    if holds_to(is).is_some() {
        kinds.push(TrainerKind::Holds);
    }
    kinds
}

/// Up to which temperature it does its work, °C, whole; none where it does not, or does so at any.
fn holds_to(is: &Assessment) -> Option<f64> {
    if is.at.outcome != Outcome::Inside {
        return None;
    }
    let hottest = is.sweep.last()?.temperature_c;
    let span = is.spans.iter().find(|own| (own.from_c..=own.to_c).contains(&is.at.temperature_c))?;
    (span.to_c < hottest - 1.0 && span.to_c > 2.0).then(|| span.to_c.round())
}

/// What a spoonful of a formula does where it does its work.
///
/// # Errors
/// What is wrong with the formula.
pub fn spoon_of(document: &FormulaDocument, shelf: &Shelf) -> Result<SpoonSign, Vec<Fault>> {
    let ready = Ready::of(document, shelf)?;
    // Whipping is judged on the liquid cream.
    let options = document.work.job.options(ready.options);
    let predictor = Predictor::new(&ready.mixture(), document.family.traits().system, &options);
    let now = predictor.base.at(document.work.temperature_c.celsius(), document.history());
    Ok(SpoonSign::of(now.yield_stress_pa, now.viscosity_pa_s))
}

/// Asks; none where that cannot be asked of this formula.
///
/// # Arguments
/// * `formulas`: the one that is asked about first, then the others.
///
/// # Errors
/// What is wrong with a formula.
pub fn ask(
    asked: &TrainerAsk,
    formulas: &[TrainerFormula],
    shelf: &Shelf,
) -> Result<Option<Asked>, Vec<Fault>> {
    let Some(first) = formulas.first() else { return Ok(None) };
    let mut dice = Dice::of(asked.seed);
    let level = asked.level.clamp(1, HARDEST);
    let (document, changed) = match asked.kind {
        TrainerKind::Spoon if level >= 3 => otherwise(&first.document, &mut dice),
        _ => (first.document.clone(), None),
    };
    let is = assess_from(&document, shelf)?;
    if !can_be_asked(&is).contains(&asked.kind) {
        return Ok(None);
    }
    let at = degrees(is.at.temperature_c);
    let plain = |words: String| TrainerChoice { words, lines: Vec::new() };
    let (words, choices, right) = match asked.kind {
        TrainerKind::Spoon => {
            let all = spoon_choices(is.at.spoon, level, &mut dice);
            let right = all.iter().position(|own| *own == is.at.spoon).unwrap_or(0);
            let choices = all.into_iter().map(|own| plain(own.word().to_owned())).collect();
            (format!("What does a spoonful do at {at} °C?"), choices, right)
        }
        TrainerKind::Drip => {
            let step = [1.8, 1.5, 1.35, 1.2][usize::from(level) - 1];
            let right = dice.below(CHOICES);
            let at_place = |place: usize| is.at.measured.value * f64::powi(step, place as i32 - right as i32);
            let choices =
                (0..CHOICES).map(|place| plain(format!("{} mm", two_digits(at_place(place))))).collect();
            (format!("How long does the drip run at {at} °C?"), choices, right)
        }
        TrainerKind::Holds => {
            let Some(to) = holds_to(&is) else { return Ok(None) };
            let step = [6.0, 5.0, 4.0, 3.0][usize::from(level) - 1];
            let right = dice.below(CHOICES);
            let at_place = |place: usize| to + step * (place as f64 - right as f64);
            let choices = (0..CHOICES).map(|place| plain(format!("{:.0} °C", at_place(place)))).collect();
            (format!("Up to which temperature does it {}?", is.job.verb()), choices, right)
        }
        TrainerKind::WhatIsIn => {
            let Some((bowls, right)) = bowls(&is, &formulas[1..], shelf, level, &mut dice) else {
                return Ok(None);
            };
            let letter = |place: usize| char::from(b'A' + place as u8);
            let choices = bowls
                .into_iter()
                .enumerate()
                .map(|(place, lines)| TrainerChoice { words: format!("Bowl {}", letter(place)), lines })
                .collect();
            (format!("Which bowl does that at {at} °C?"), choices, right)
        }
    };
    let hidden = asked.kind == TrainerKind::WhatIsIn;
    let question = TrainerQuestion {
        kind: asked.kind,
        level,
        words,
        name: (!hidden).then(|| document.called().to_owned()),
        changed,
        lines: if hidden { Vec::new() } else { shown(&is) },
        facts: if hidden { Vec::new() } else { facts(&is) },
        spoon: hidden.then(|| SpoonSeen::of(&is)),
        choices,
    };
    Ok(Some(Asked { question, right, is }))
}

/// All seven words from thin to firm; at first three, none beside the right one.
fn spoon_choices(right: SpoonSign, level: u8, dice: &mut Dice) -> Vec<SpoonSign> {
    if level > 1 {
        return SpoonSign::ALL.to_vec();
    }
    let place = |own: SpoonSign| SpoonSign::ALL.iter().position(|one| *one == own).unwrap_or(0);
    let mut far: Vec<SpoonSign> =
        SpoonSign::ALL.iter().copied().filter(|own| place(*own).abs_diff(place(right)) >= 2).collect();
    while far.len() > 2 {
        far.remove(dice.below(far.len()));
    }
    far.push(right);
    far.sort_by_key(|own| place(*own));
    far
}

/// The same a little otherwise: some degrees, or more or less of one line.
fn otherwise(document: &FormulaDocument, dice: &mut Dice) -> (FormulaDocument, Option<String>) {
    let mut other = document.clone();
    let by = [-8.0, -6.0, -4.0, 4.0, 6.0, 8.0][dice.below(6)];
    let c = (document.work.temperature_c.celsius() + by).clamp(1.0, 45.0);
    other.work.temperature_c = Temperature::from_celsius(c);
    let words =
        format!("at {} °C instead of {} °C", degrees(c), degrees(document.work.temperature_c.celsius()));
    (other, Some(words))
}

type Bowls = Option<(Vec<Vec<TrainerLine>>, usize)>;

/// Bowls to tell apart, and which is the right one; none where nothing else does otherwise.
fn bowls(is: &Assessment, others: &[TrainerFormula], shelf: &Shelf, level: u8, dice: &mut Dice) -> Bowls {
    let place = |own: SpoonSign| SpoonSign::ALL.iter().position(|one| *one == own).unwrap_or(0);
    // At first what is far apart; later what is beside it.
    let apart = if level == 1 { 2 } else { 1 };
    let mut bowls: Vec<Vec<TrainerLine>> = Vec::new();
    for own in others {
        // Each at the temperature that is asked about.
        let mut document = own.document.clone();
        document.work.temperature_c = Temperature::from_celsius(is.at.temperature_c);
        // What cannot be weighed, or is nothing at that temperature, is no bowl.
        let Ok(other) = assess_from(&document, shelf) else { continue };
        let differs = place(other.at.spoon).abs_diff(place(is.at.spoon)) >= apart;
        if other.at.unknown.is_none() && differs && bowls.len() + 1 < BOWLS {
            bowls.push(shown(&other));
        }
    }
    if bowls.is_empty() {
        return None;
    }
    let right = dice.below(bowls.len() + 1);
    bowls.insert(right, shown(is));
    Some((bowls, right))
}

fn shown(is: &Assessment) -> Vec<TrainerLine> {
    let one = |own: &crate::assess::answer::LineAnswer| TrainerLine {
        name: own.name.clone(),
        grams: own.mass_g,
        percent: own.of_total_percent,
    };
    is.lines.iter().map(one).collect()
}

fn facts(is: &Assessment) -> Vec<String> {
    let of_all = &is.totals.phases_of_total_percent;
    let one = |name: &str, percent: f64| format!("{name} {percent:.0} %");
    vec![one("fat", of_all.fat), one("sugar", of_all.sugar), one("water", of_all.water)]
}
