//! A school worked out for one formula: steps with their minutes, the temperature it starts at, and what
//! choosing it changes.

use crate::assess::Ready;
use crate::assess::answer::Assessment;
use crate::assess::assessed;
use crate::assess::document::FormulaDocument;
use crate::caution::{Caution, CautionAnswer};
use crate::fault::Fault;
use crate::formula::WeighedLine;
use crate::heat::stand::LearnedPlace;
use crate::ingredient::Role;
use crate::ingredient::Shelf;
use crate::method::course::{MethodStep, course, is_made_before, least_through, school_of};
use crate::method::gear::Gear;
use crate::method::school::{Cook, School, schools_of};
use crate::method::start::{StartTemperature, start_temperature};
use crate::method::step::Worker;
use crate::method::waits::by_clock;
use crate::number::limit;
use crate::rheology::warning::{Severity, Warning, WarningCode};
use crate::units::{CookTemperature, Overrun};
use serde::Serialize;
use utoipa::ToSchema;

/// A school for one formula.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MethodSheet {
    /// Key of the school.
    pub school: String,
    /// Its name.
    pub name: String,
    /// Whether the formula is made by it now.
    pub chosen: bool,
    /// When it is the better one.
    pub better: String,
    /// Why it differs.
    pub differs: String,
    /// Everything it takes.
    pub gear: Vec<Gear>,
    /// Where it leaves the mass.
    pub start: Option<StartTemperature>,
    /// Minutes of hands.
    pub hands_min: f64,
    /// Minutes of a machine alone.
    pub machine_min: f64,
    /// Minutes of waiting, from and to.
    pub wait_min: [f64; 2],
    /// Minutes from the first step to the last, at least.
    pub through_min: f64,
    /// Its steps.
    pub steps: Vec<MethodStep>,
    /// What is strained, lifted out and boiled off of what is weighed, in words; empty when nothing is.
    pub taken_off: Vec<String>,
    /// What may go wrong with it, and what the numbers warn of when it is made so.
    pub risks: Vec<String>,
    /// What can hurt, in words.
    pub cautions: Vec<CautionAnswer>,
    /// What choosing it changes, in words.
    pub changes: Vec<String>,
    /// The verdict when it is made so.
    pub headline: String,
    /// Where it is from.
    pub source: String,
    /// Why the formula cannot be made so by a button; none when it can.
    pub by_hand: Option<String>,
    /// The formula made so.
    pub document: FormulaDocument,
}

/// Every school of a formula's family, the usual one first, worked out for it: waits in the kitchen's own places as they were
/// read.
///
/// # Errors
/// Faults of the document.
pub fn sheet(
    document: &FormulaDocument,
    kitchen: &Shelf,
    learned: &[LearnedPlace],
) -> Result<Vec<MethodSheet>, Vec<Fault>> {
    let (Ready { lines, .. }, now) = assessed(document, kitchen)?;
    let all: Vec<&School> = schools_of(document.family).collect();
    let by = school_of(document, &lines).map(|school| school.id.as_str());
    let chosen = all.iter().position(|school| Some(school.id.as_str()) == by).unwrap_or(0);
    all.iter()
        .enumerate()
        .map(|(at, school)| {
            let made = applied(document, &lines, school);
            let (ready, then) = assessed(&made, kitchen)?;
            Ok(one(school, at == chosen, &lines, (document, &now), (made, &ready, &then), learned))
        })
        .collect()
}

/// The school a formula is made by, worked out for it; none when its family has none.
///
/// # Errors
/// Faults of the document.
pub fn chosen(
    document: &FormulaDocument,
    kitchen: &Shelf,
    learned: &[LearnedPlace],
) -> Result<Option<MethodSheet>, Vec<Fault>> {
    let (Ready { lines, .. }, now) = assessed(document, kitchen)?;
    let Some(school) = school_of(document, &lines) else { return Ok(None) };
    let made = applied(document, &lines, school);
    let (ready, then) = assessed(&made, kitchen)?;
    Ok(Some(one(school, true, &lines, (document, &now), (made, &ready, &then), learned)))
}

/// The formula made by a school: air, whipping, and what its lines reach. In which state it
/// is judged belongs to the moment of the job, not to the school.
pub fn applied(document: &FormulaDocument, lines: &[WeighedLine], school: &School) -> FormulaDocument {
    let mut made = document.clone();
    made.method = Some(school.id.clone());
    if let Some(percent) = school.overrun_percent {
        made.process.overrun_percent = Some(Overrun::from_percent(percent));
    }
    if let Some(whip) = school.whip {
        made.process.whip = Some(whip);
    }
    reach(&mut made, lines, school);
    made
}

/// Sets what the lines reach by a school, and clears what they reached by another: 71 °C of a safe school must not
/// stay behind when a raw one is chosen.
fn reach(made: &mut FormulaDocument, lines: &[WeighedLine], school: &School) {
    // What any school of the family heats, this one answers for; where none heats anything, the cook's word stays.
    let groups: Vec<Role> = schools_of(made.family).flat_map(|own| &own.cook).map(|cook| cook.of).collect();
    let has_egg = lines.iter().any(|line| line.ingredient.flags.raw_egg);
    if groups.is_empty() && !has_egg {
        return;
    }
    // What it boils first was boiled before, by a sheet of its own; what is heated now is the cook's to say.
    if is_made_before(school, lines) {
        return;
    }
    let degrees = |cook: &Cook| Some(CookTemperature::from_celsius(cook.c));
    made.process.cook_c = school.cook.iter().find(|cook| cook.of == Role::All).and_then(degrees);
    for (own, line) in made.lines.iter_mut().zip(lines) {
        let ingredient = &line.ingredient;
        // What was made before has been through what its own sheet says, and no more.
        if ingredient.made.is_some() {
            continue;
        }
        if ingredient.flags.raw_egg || groups.iter().any(|of| *of != Role::All && ingredient.is(*of)) {
            own.cook_c = school
                .cook
                .iter()
                .rev()
                .find(|cook| cook.of != Role::All && ingredient.is(cook.of))
                .and_then(degrees);
        }
    }
}

fn one(
    school: &School,
    chosen: bool,
    lines: &[WeighedLine],
    (was, before): (&FormulaDocument, &Assessment),
    (made, ready, after): (FormulaDocument, &Ready, &Assessment),
    learned: &[LearnedPlace],
) -> MethodSheet {
    let start = start_temperature(&school.start, lines);
    let mut steps = course(school, lines);
    by_clock(school, &mut steps, start.as_ref(), &made, (ready, after), learned);
    let sum = |kind: Worker, end: usize| -> f64 {
        0.0 + steps.iter().filter(|step| step.kind == kind).map(|step| step.minutes[end]).sum::<f64>()
    };
    let mut gear: Vec<Gear> = Vec::new();
    for own in steps.iter().flat_map(|step| &step.gear) {
        if !gear.contains(own) {
            gear.push(*own);
        }
    }
    let mut cautions: Vec<Caution> = steps.iter().flat_map(|step| step.cautions.iter().copied()).collect();
    cautions.sort_unstable();
    cautions.dedup();
    let mut risks = school.risks.clone();
    let serious = |warning: &&Warning| warning.severity > Severity::Note;
    risks.extend(after.warnings.iter().filter(serious).map(|warning| warning.cause.clone()));
    MethodSheet {
        school: school.id.clone(),
        name: school.name.clone(),
        chosen,
        better: school.better.clone(),
        differs: school.differs.clone(),
        gear,
        start,
        hands_min: sum(Worker::Hands, 1),
        machine_min: sum(Worker::Machine, 1),
        through_min: least_through(&steps),
        wait_min: [sum(Worker::Wait, 0), sum(Worker::Wait, 1)],
        steps,
        taken_off: ready
            .strained
            .iter()
            .map(|own| &own.sentence)
            .chain(ready.boiled.iter().map(|own| &own.sentence))
            .map(|sentence| format!("{sentence}."))
            .collect(),
        risks,
        cautions: cautions.into_iter().map(CautionAnswer::from).collect(),
        changes: changes(was, before, &made, after),
        headline: after.at.headline.clone(),
        source: school.source.clone(),
        by_hand: school.reduces.then(|| {
            "Water is boiled away: look at the clock, over a ring, when to stop, and count with what is left; then weigh it, for \
             only your scale knows."
                .to_owned()
        }),
        document: made,
    }
}

/// What choosing a school changes, in words.
fn changes(
    was: &FormulaDocument,
    before: &Assessment,
    made: &FormulaDocument,
    after: &Assessment,
) -> Vec<String> {
    let mut said = Vec::new();
    let (old, new) = (&before.process, &after.process);
    if (old.overrun_percent - new.overrun_percent).abs() > 0.5 {
        said.push(format!(
            "air beaten in {} % for {} %",
            limit(new.overrun_percent),
            limit(old.overrun_percent)
        ));
    }
    if (old.whip - new.whip).abs() > 0.01 {
        let stage = crate::formula::WhipStage::nearest(new.whip).word();
        said.push(format!("the cream whipped {stage}"));
    }
    match (old.cook_c, new.cook_c) {
        (Some(a), Some(b)) if (a - b).abs() > 0.5 => {
            said.push(format!("all of it brought to {} °C, not {} °C", limit(b), limit(a)));
        }
        (None, Some(b)) => said.push(format!("all of it brought to {} °C", limit(b))),
        (Some(a), None) => said.push(format!("no longer all of it brought to {} °C", limit(a))),
        _ => {}
    }
    let cooks = |document: &FormulaDocument| -> Vec<Option<f64>> {
        document.lines.iter().map(|line| line.cook_c.map(CookTemperature::celsius)).collect()
    };
    for ((line, a), b) in after.lines.iter().zip(cooks(was)).zip(cooks(made)) {
        match (a, b) {
            (a, Some(reached)) if a != Some(reached) => {
                said.push(format!("{} brought to {} °C", line.name, limit(reached)));
            }
            (Some(reached), None) => {
                said.push(format!("{} no longer brought to {} °C", line.name, limit(reached)));
            }
            _ => {}
        }
    }
    let ratio = after.at.on_map.value / before.at.on_map.value.max(1e-12);
    if ratio.ln().abs() > 0.03 {
        let word = if ratio > 1.0 { "firmer" } else { "looser" };
        said.push(format!("{word} by {} %", limit((100.0 * (ratio - 1.0).abs()).round())));
    }
    let raw = |answer: &Assessment| answer.warnings.iter().any(|warning| warning.code == WarningCode::EggRaw);
    match (raw(before), raw(after)) {
        (false, true) => said.push("egg stays raw or lightly heated".to_owned()),
        (true, false) => said.push("egg is safe".to_owned()),
        _ => {}
    }
    said
}
