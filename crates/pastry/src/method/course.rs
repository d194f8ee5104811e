//! The steps of a school for one batch: those its formula needs, each with its minutes, what it needs of the others and
//! what must be ready for it, the steps of what it begins with first.

use crate::assess::FormulaDocument;
use crate::assess::spoon_sign::SpoonSign;
use crate::caution::Caution;
use crate::formula::{Family, WeighedLine};
use crate::ingredient::Role;
use crate::method::gear::{Gear, Resource};
use crate::method::school::{School, school, schools_of};
use crate::method::step::{Clock, CoolTo, Limit, Moment, Spot, Step, Worker};
use crate::number::{on_a_scale, span_min};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What goes wrong in a step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StepFault {
    /// What is seen.
    #[schema(max_length = 400)]
    pub seen: String,
    /// Why.
    #[schema(max_length = 400)]
    pub why: String,
}

/// A step for one batch.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MethodStep {
    /// Its key within the school; of what is made first by another school, behind the key of that school.
    pub key: String,
    /// Of what is made first by another school: its name.
    pub part: Option<String>,
    /// Who works.
    pub kind: Worker,
    /// What is done.
    pub what: String,
    /// With what.
    pub gear: Vec<Gear>,
    /// What of the kitchen it takes.
    pub takes: Vec<Resource>,
    /// Minutes for this batch, from and to.
    pub minutes: [f64; 2],
    /// The minutes as they are read: "4 min", "2 to 12 h".
    pub time: String,
    /// What its minutes were worked out for by the clock: "a tray of 20 × 30 cm, 11 mm deep, on the bench"; none where they
    /// are the table's.
    pub by_clock: Option<String>,
    /// Temperature, °C, from and to.
    pub temperature_c: Option<[f64; 2]>,
    /// The sign that it is done.
    pub until: String,
    /// What a spoonful does then, where that is the sign.
    pub spoon: Option<SpoonSign>,
    /// What goes wrong.
    pub wrong: Vec<StepFault>,
    /// What can hurt.
    pub cautions: Vec<Caution>,
    /// How soon the next must begin.
    pub limit: Option<Limit>,
    /// Keys of the steps that must be done before it.
    pub needs: Vec<String>,
    /// The step, counted from 1, it must be ready for, when that is not the next one: it can be done beside others.
    pub ready_for: Option<u32>,
    /// Where it stands.
    pub place: Option<Spot>,
    /// When it is done.
    pub at: Moment,
    /// Already so in a kitchen that keeps it so.
    pub given: bool,
    /// Numbers of the lines that go in at it by themselves; what no step names is weighed before all.
    pub lines: Vec<usize>,
}

/// The steps of a school for these lines. What was made before is taken, not made again.
pub fn course(school: &School, lines: &[WeighedLine]) -> Vec<MethodStep> {
    let (before, own): (Vec<&WeighedLine>, Vec<&WeighedLine>) =
        lines.iter().filter(|line| line.mass.grams() > 0.0).partition(|line| line.ingredient.made.is_some());
    let mut steps: Vec<MethodStep> = before.iter().enumerate().map(|(at, line)| taken(at, line)).collect();
    let ready = Ready { before: &before, own: &own };
    // Key of the step after which the base is there.
    let mut base_done: Vec<String> = Vec::new();
    if let Some((first, without)) = base(school) {
        match ready.of(&first.families) {
            Some(taken) => base_done.push(taken),
            None => {
                let of_it: Vec<&WeighedLine> = own
                    .iter()
                    .filter(|line| !without.iter().any(|role| line.ingredient.is(*role)))
                    .copied()
                    .collect();
                let of_it = Ready { before: &before, own: &of_it };
                let prefix = format!("{}.", first.id);
                steps.extend(
                    chosen(first, &of_it, &prefix)
                        .into_iter()
                        .filter(|step| step.at == Moment::Make)
                        .map(|step| MethodStep { part: Some(first.name.clone()), ..step }),
                );
                base_done.extend(steps.last().map(|step| step.key.clone()));
            }
        }
    }
    let mut after = chosen(school, &ready, "");
    // What nothing of the school waits for by name goes in where the mass begins.
    for taken in &steps[..before.len()] {
        let waited_for = after.iter().any(|step| step.needs.contains(&taken.key));
        if !waited_for && !base_done.contains(&taken.key) {
            base_done.push(taken.key.clone());
        }
    }
    // What begins with the base is the first step that needs nothing and is not got ready for another.
    let at = after.iter().position(|step| begins(school, step));
    if let Some(begins) = at.or((!after.is_empty()).then_some(after.len().saturating_sub(1))) {
        let needs = &mut after[begins].needs;
        needs.extend(base_done.into_iter().filter(|key| !needs.contains(key)).collect::<Vec<_>>());
    }
    steps.append(&mut after);
    ready_for(&mut steps);
    go_in(school, &mut steps, lines);
    steps
}

/// The step of a school by its key, behind the key of its own school where that is made first.
fn step_of<'a>(school_: &'a School, key: &str) -> Option<&'a Step> {
    let find = |own: &'a School, key: &str| own.steps.iter().find(|step| step.key == key);
    find(school_, key).or_else(|| {
        let (first, key) = key.split_once('.')?;
        base(school_).filter(|(own, _)| own.id == first).and_then(|(own, _)| find(own, key))
    })
}

/// How far from its mark a temperature may be that a clock goes by, K (assumed).
const ABOUT_K: f64 = 1.5;

/// Where the clock of a step wants the mass, °C, from and to, for a step that says no temperature itself.
pub fn wanted_c(school: &School, key: &str, job_c: f64) -> Option<[f64; 2]> {
    let about = |c: f64| Some([c - ABOUT_K, c + ABOUT_K]);
    match step_of(school, key)?.clock.as_ref()? {
        Clock::Cool { to: CoolTo::Job(_), .. } => about(job_c),
        Clock::Cool { to: CoolTo::Degrees(c), .. }
        | Clock::Soften(c)
        | Clock::Boil(c)
        | Clock::Heat(c)
        | Clock::Bath(c) => about(*c),
        Clock::Set(_) | Clock::Rest(_) | Clock::Starch(_) => None,
    }
}

/// What a line is taken for first: butter is of milk as well, and goes in with the butter.
const CLOSEST: [Role; 14] = [
    Role::Butter,
    Role::Whippable,
    Role::Chocolate,
    Role::Gelatin,
    Role::Yolk,
    Role::White,
    Role::Spirit,
    Role::Starch,
    Role::Sugar,
    Role::Water,
    Role::Cream,
    Role::Egg,
    Role::Dairy,
    Role::Protease,
];

/// Whether a step takes what no other names.
fn adds_the_rest(school: &School, step: &MethodStep) -> bool {
    step.at == Moment::Make && step_of(school, &step.key).is_some_and(|own| own.adds.contains(&Role::All))
}

/// Says at which step a line goes in: at the first that adds the like of it, works on nothing else, or takes what was made before.
fn go_in(school: &School, steps: &mut [MethodStep], lines: &[WeighedLine]) {
    let names = |step: &MethodStep, role: Role| {
        step.at == Moment::Make
            && step_of(school, &step.key).is_some_and(|own| {
                own.adds.contains(&role)
                    || own.of.contains(&role)
                    || (own.of.is_empty() && own.adds.is_empty() && own.only == Some(role))
            })
    };
    let mut before = 0;
    for (at, line) in lines.iter().enumerate().filter(|(_, line)| line.mass.grams() > 0.0) {
        let ingredient = &line.ingredient;
        let own = match ingredient.made {
            Some(_) => {
                before += 1;
                steps.iter().position(|step| step.key == taken_key(before - 1))
            }
            None => CLOSEST
                .into_iter()
                .filter(|role| ingredient.is(*role))
                .find_map(|role| steps.iter().position(|step| names(step, role)))
                // Spirit goes where it is named, for it boils away elsewhere.
                .or_else(|| {
                    let rest = || steps.iter().position(|step| adds_the_rest(school, step));
                    if ingredient.is(Role::Spirit) { None } else { rest() }
                }),
        };
        if let Some(own) = own {
            steps[own].lines.push(at);
        }
    }
}

/// Whether lines hold, made before, what a school would else begin with: by its base, or by a step of its own.
fn made_before(school_: &School, lines: &[WeighedLine]) -> [bool; 2] {
    let words: Vec<&str> = lines
        .iter()
        .filter(|line| line.mass.grams() > 0.0)
        .filter_map(|line| line.ingredient.made.as_ref())
        .map(|made| made.word)
        .collect();
    let any = |families: &[Family]| families.iter().any(|family| words.contains(&family.word()));
    // What is whipped beside is not what it begins with.
    let begins = school_.steps.iter().filter(|step| step.of.is_empty()).any(|step| any(&step.makes));
    [base(school_).is_some_and(|(first, _)| any(&first.families)), begins]
}

/// Whether what a school would else begin with was made before.
pub fn is_made_before(school: &School, lines: &[WeighedLine]) -> bool {
    made_before(school, lines).contains(&true)
}

/// The school a formula is made by: the one it names; else the first that begins with what was made before, else the
/// family's first.
pub fn school_of(document: &FormulaDocument, lines: &[WeighedLine]) -> Option<&'static School> {
    let all = || schools_of(document.family);
    all()
        .find(|school| Some(school.id.as_str()) == document.method.as_deref())
        .or_else(|| all().find(|school| made_before(school, lines)[0]))
        .or_else(|| all().find(|school| made_before(school, lines)[1]))
        .or_else(|| all().next())
}

/// What stands ready when a course begins, and what is weighed for it.
struct Ready<'a> {
    before: &'a [&'a WeighedLine],
    own: &'a [&'a WeighedLine],
}

impl Ready<'_> {
    /// Key of the step that takes something of these families that was made before.
    fn of(&self, families: &[Family]) -> Option<String> {
        let at = self.before.iter().position(|line| {
            let word = line.ingredient.made.as_ref().map(|made| made.word);
            families.iter().any(|family| Some(family.word()) == word)
        })?;
        Some(taken_key(at))
    }

    fn has(&self, role: Role) -> bool {
        self.own.iter().any(|line| line.ingredient.is(role))
    }
}

fn taken_key(at: usize) -> String {
    format!("made_{at}")
}

/// What was made before, brought to hand.
fn taken(at: usize, line: &WeighedLine) -> MethodStep {
    let name = &line.ingredient.name;
    MethodStep {
        key: taken_key(at),
        part: None,
        kind: Worker::Hands,
        what: format!(
            "Have {} g of {name} ready: it is made by its own sheet.",
            on_a_scale(line.mass.grams())
        ),
        gear: Vec::new(),
        takes: Vec::new(),
        minutes: [1.0; 2],
        time: span_min([1.0; 2]),
        by_clock: None,
        temperature_c: None,
        until: "It is weighed, and as its own sheet leaves it.".to_owned(),
        spoon: None,
        wrong: Vec::new(),
        cautions: Vec::new(),
        limit: None,
        needs: Vec::new(),
        ready_for: None,
        place: None,
        at: Moment::Make,
        given: false,
        lines: Vec::new(),
    }
}

fn base(school_: &School) -> Option<(&'static School, &[Role])> {
    let base = school_.base.as_ref()?;
    Some((school(&base.school).expect("a base is a school"), &base.without))
}

/// Whether a step works on all of the mass from nothing: where the base comes in.
fn begins(school: &School, step: &MethodStep) -> bool {
    let own = school.steps.iter().find(|own| own.key == step.key);
    step.needs.is_empty() && own.is_some_and(|own| own.of.is_empty() && own.only.is_none())
}

/// Those of a school's steps these lines need; what needs one that is left out needs what that one needed, or what was made
/// before in its place.
fn chosen(school: &School, ready: &Ready, prefix: &str) -> Vec<MethodStep> {
    let key_of = |step: &Step| format!("{prefix}{}", step.key);
    let mut needed: Vec<Vec<String>> = Vec::new();
    let mut kept: Vec<bool> = Vec::new();
    for step in &school.steps {
        let mut own: Vec<String> = Vec::new();
        for need in &step.needs {
            let more = if kept[*need] { vec![key_of(&school.steps[*need])] } else { needed[*need].clone() };
            own.extend(more.into_iter().filter(|key| !own.contains(key)).collect::<Vec<_>>());
        }
        own.sort_by_key(|key| school.steps.iter().position(|step| key_of(step) == *key));
        // Cream that is whipped here stays to be whipped, whatever was whipped before.
        let instead = ready.of(&step.makes).filter(|_| !step.of.iter().any(|role| ready.has(*role)));
        let asked = step.only.is_none_or(|role| ready.has(role));
        kept.push(asked && instead.is_none());
        if let Some(taken) = instead.filter(|key| !own.contains(key)) {
            own.push(taken);
        }
        needed.push(own);
    }
    school
        .steps
        .iter()
        .zip(needed)
        .zip(kept)
        .filter(|(_, kept)| *kept)
        .map(|((step, needs), _)| method_step(step, kg_of(step, ready), key_of(step), needs))
        .collect()
}

/// Kilograms a step works on.
fn kg_of(step: &Step, ready: &Ready) -> f64 {
    let all = step.of.is_empty();
    let of_it = |line: &&&WeighedLine| all || step.of.iter().any(|role| line.ingredient.is(*role));
    let before = ready.before.iter().filter(|_| all);
    1e-3 * ready.own.iter().filter(of_it).chain(before).map(|line| line.mass.grams()).sum::<f64>()
}

fn method_step(step: &Step, kg: f64, key: String, needs: Vec<String>) -> MethodStep {
    let minutes = step.time.minutes(kg);
    MethodStep {
        key,
        part: None,
        kind: step.kind,
        what: step.what.clone(),
        gear: step.gear.clone(),
        takes: step.resources(),
        minutes,
        time: span_min(minutes),
        by_clock: None,
        temperature_c: step.t,
        until: step.until.clone(),
        spoon: step.spoon,
        wrong: step
            .wrong
            .iter()
            .map(|[seen, why]| StepFault { seen: seen.clone(), why: why.clone() })
            .collect(),
        cautions: step.cautions.clone(),
        limit: step.limit,
        needs,
        ready_for: None,
        place: step.place,
        at: step.at,
        given: step.given,
        lines: Vec::new(),
    }
}

/// Says of every step that others do not wait for at once, which one it must be ready for.
fn ready_for(steps: &mut [MethodStep]) {
    for at in 0..steps.len() {
        let first = steps[at + 1..].iter().position(|other| other.needs.contains(&steps[at].key));
        steps[at].ready_for = first.filter(|gap| *gap > 0).map(|gap| (at + gap + 2) as u32);
    }
}

/// Minutes from the first step to the last, at least: along the longest way through what needs what. What a kitchen
/// keeps ready takes none.
pub fn least_through(steps: &[MethodStep]) -> f64 {
    let mut done: Vec<f64> = Vec::new();
    for step in steps {
        let begin = step
            .needs
            .iter()
            .filter_map(|key| Some(done[steps.iter().position(|other| other.key == *key)?]))
            .fold(0.0, f64::max);
        done.push(begin + if step.given { 0.0 } else { step.minutes[0] });
    }
    done.into_iter().fold(0.0, f64::max)
}
