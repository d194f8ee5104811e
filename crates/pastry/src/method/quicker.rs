//! A wait of a school that would be over sooner: in another vessel, in a colder place, or with more gelatin in the formula.

use crate::assess::{Assessment, FormulaDocument, Ready, assessed};
use crate::clock::safe::{SafeCooling, cools};
use crate::clock::{Looks, clock_of};
use crate::fault::Fault;
use crate::formula::WeighedLine;
use crate::formula::mixture::Mixture;
use crate::heat::safety::CoolingRule;
use crate::heat::setting::UNMOULDS;
use crate::heat::stand::{LearnedPlace, StandDocument};
use crate::heat::surroundings::Surroundings;
use crate::heat::vessel::VesselDocument;
use crate::ingredient::Shelf;
use crate::job::duty::Outcome;
use crate::method::course::{course, school_of};
use crate::method::sheet::applied;
use crate::method::start::start_temperature;
use crate::method::step::Clock;
use crate::method::waits::{WaitAsked, minutes, waits_asked};
use crate::number::on_a_scale;
use crate::rheology::Predictor;

/// How much more gelatin is tried, of what is in it.
const MORE: [f64; 6] = [1.1, 1.2, 1.3, 1.4, 1.5, 1.6];

/// Who stirs as often as this does nothing else, min.
const OFTEN_MIN: f64 = 2.0;

/// Cold places a kitchen has.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct HasCold {
    /// Iced water.
    pub ice: bool,
    /// Shelves of a fridge.
    pub fridge: bool,
    /// Shelves of a freezer.
    pub freezer: bool,
    /// A blast chiller.
    pub blast: bool,
}

/// What makes a wait shorter.
#[derive(Debug, Clone, PartialEq)]
pub enum QuickerBy {
    /// It stands otherwise.
    Stands {
        /// In this.
        vessel: VesselDocument,
        /// There.
        places: Vec<StandDocument>,
        /// In another place than before, until it is over.
        elsewhere: bool,
    },
    /// The formula has more gelatin.
    Gelatin {
        /// By so much more.
        by: f64,
        /// Gelatin then and before, per cent of the liquid.
        percent: [f64; 2],
    },
}

/// A shorter wait.
#[derive(Debug, Clone, PartialEq)]
pub struct QuickerWait {
    /// "In a wide tray", "Gelatin 1.5 % of the liquid instead of 1.2 %".
    pub words: String,
    /// How long it lasts then, at least, min.
    pub min: f64,
    /// And at most, where it is past its work then, min.
    pub max: Option<f64>,
    /// Somebody stays at it and stirs.
    pub stirred: bool,
    /// By what.
    pub by: QuickerBy,
}

/// A formula made by its school, and answered.
struct MadeBy {
    made: FormulaDocument,
    ready: Ready,
    assessment: Assessment,
}

impl MadeBy {
    fn of(document: &FormulaDocument, shelf: &Shelf) -> Result<Option<Self>, Vec<Fault>> {
        let (Ready { lines, .. }, _) = assessed(document, shelf)?;
        let Some(school) = school_of(document, &lines) else { return Ok(None) };
        let made = applied(document, &lines, school);
        let (ready, assessment) = assessed(&made, shelf)?;
        Ok(Some(MadeBy { made, ready, assessment }))
    }

    /// What the clock is asked of one wait.
    fn asked(&self, key: &str, learned: &[LearnedPlace]) -> Option<WaitAsked<'static>> {
        let school = school_of(&self.made, &self.ready.lines)?;
        let steps = course(school, &self.ready.lines);
        let keys: Vec<&str> =
            steps.iter().filter(|own| own.part.is_none()).map(|own| own.key.as_str()).collect();
        let start = start_temperature(&school.start, &self.ready.lines)?;
        let all = waits_asked(school, &keys, &start, &self.made, &self.ready, learned);
        all.into_iter().find(|own| own.step.key == key)
    }

    /// Minutes of a wait, at least, and at most where it is past its work then.
    fn minutes(&self, asked: &WaitAsked) -> Option<(f64, Option<f64>)> {
        let answer = (&self.ready, &self.assessment);
        let told = clock_of(&asked.document, answer, Some(asked.now_c), Looks::AtUsual).ok()?;
        let [least, most] = minutes(asked.clock, &told, f64::INFINITY)?;
        Some((least, Some(most).filter(|most| most.is_finite())))
    }

    /// Firmness of its gelatin when all of it has set, Pa, and how much of it there is, per cent of the liquid.
    fn gelatin(&self) -> [f64; 2] {
        let mixture: Mixture = self.ready.mixture();
        let system = self.made.family.traits().system;
        let own = Predictor::new(&mixture, system, &self.ready.options).base.networks;
        if own.gelatin_undone { [0.0; 2] } else { [own.gelatin.full_pa, own.gelatin.percent] }
    }
}

/// What would make a wait of a formula shorter.
///
/// # Arguments
/// * `document`: the batch as it is weighed; `step`: key of the wait in its school; `enough_min`: so short is short enough; none to be
///   told of a little more gelatin, more, and the most.
///
/// # Returns
/// Its minutes as it is, and what would be shorter, the shortest first; none where no clock says how long it is.
///
/// # Errors
/// Faults of the formula.
pub fn quicker(
    document: &FormulaDocument,
    step: &str,
    shelf: &Shelf,
    learned: &[LearnedPlace],
    has: HasCold,
    enough_min: Option<f64>,
) -> Result<Option<(f64, Vec<QuickerWait>)>, Vec<Fault>> {
    let Some(own) = MadeBy::of(document, shelf)? else { return Ok(None) };
    let Some(mut asked) = own.asked(step, learned) else { return Ok(None) };
    let Some((now_min, _)) = own.minutes(&asked) else { return Ok(None) };
    asked.document.brief = false;
    let answer = clock_of(&asked.document, (&own.ready, &own.assessment), Some(asked.now_c), Looks::AtUsual);
    asked.document.brief = true;
    let mut all: Vec<QuickerWait> = Vec::new();
    for gain in answer.into_iter().flat_map(|answer| answer.gains) {
        let there = gain.places.last().map(|own| own.place);
        let is_there = match there {
            Some(Surroundings::Bench | Surroundings::Draught) => true,
            Some(Surroundings::Fridge) => has.fridge,
            Some(Surroundings::Freezer) => has.freezer,
            Some(Surroundings::IceBath) => has.ice,
            Some(Surroundings::Blast) if has.blast => true,
            // Of fans a kitchen does not say whether it has them, but by having read them.
            Some(other) => learned.iter().any(|own| own.place == other),
            None => false,
        };
        if !is_there {
            continue;
        }
        let mut document = asked.document.clone();
        (document.vessel, document.places) = (gain.vessel, gain.places.clone());
        let other = WaitAsked { document, step: asked.step, clock: asked.clock, now_c: asked.now_c };
        if let Some((min, max)) = own.minutes(&other).filter(|(min, _)| *min < now_min) {
            all.push(QuickerWait {
                words: gain.words,
                min,
                max,
                stirred: gain.places.iter().any(|own| own.stir_min.is_some_and(|min| min <= OFTEN_MIN)),
                by: QuickerBy::Stands {
                    vessel: gain.vessel,
                    elsewhere: there != asked.document.places.last().map(|own| own.place),
                    places: gain.places,
                },
            });
        }
    }
    all.extend(more_gelatin((document, &own), &asked, shelf, learned, (now_min, enough_min))?);
    all.sort_by(|a, b| a.min.total_cmp(&b.min));
    Ok(Some((now_min, all)))
}

/// How a wait of a formula stands to a rule of cooling; none where no rule asks.
///
/// # Arguments
/// * `document`: the batch as it is weighed; `step`: key of the wait in its school.
///
/// # Errors
/// Faults of the formula.
pub fn cools_by(
    document: &FormulaDocument,
    step: &str,
    shelf: &Shelf,
    learned: &[LearnedPlace],
    rule: CoolingRule,
) -> Result<Option<SafeCooling>, Vec<Fault>> {
    let Some(own) = MadeBy::of(document, shelf)? else { return Ok(None) };
    let asked = own.asked(step, learned);
    Ok(asked.and_then(|asked| cools(&asked.document, &own.ready, asked.now_c, rule)))
}

/// Lines of gelatin, by their number; what is in something made before is not weighed here.
fn gelatin_lines(lines: &[WeighedLine]) -> impl Iterator<Item = usize> + '_ {
    let own = lines.iter().enumerate();
    own.filter(|(_, line)| {
        line.ingredient.bloom > 0.0 && line.ingredient.made.is_none() && line.mass.grams() > 0.0
    })
    .map(|(at, _)| at)
}

/// A formula with more gelatin, in grams of a scale.
///
/// # Arguments
/// * `lines`: as they were weighed; `by`: so many times as much.
pub fn with_more_gelatin(document: &FormulaDocument, lines: &[WeighedLine], by: f64) -> FormulaDocument {
    let mut more = document.clone();
    for at in gelatin_lines(lines).filter(|at| *at < document.lines.len()) {
        more.lines[at].amount = format!("{} g", on_a_scale(by * lines[at].mass.grams()));
    }
    more
}

/// More gelatin, for as long as that leaves it right for its job: the least that is short enough, where that was asked. It comes out of its mould when it
/// is as firm as the formula was when it did: firmness goes with the square of what there is, and more of it is there sooner.
fn more_gelatin(
    (document, own): (&FormulaDocument, &MadeBy),
    asked: &WaitAsked,
    shelf: &Shelf,
    learned: &[LearnedPlace],
    (now_min, enough_min): (f64, Option<f64>),
) -> Result<Vec<QuickerWait>, Vec<Fault>> {
    let [full_pa, percent] = own.gelatin();
    if !matches!(asked.clock, Clock::Set(_)) || full_pa <= 0.0 {
        return Ok(Vec::new());
    }
    let lines: Vec<usize> = gelatin_lines(&own.ready.lines).filter(|at| *at < document.lines.len()).collect();
    let free = |at: &usize| !document.lines[*at].is_held() && !document.lines[*at].by_taste;
    if lines.is_empty() || !lines.iter().all(free) {
        return Ok(Vec::new());
    }
    let mut found: Vec<QuickerWait> = Vec::new();
    for by in MORE {
        let more = with_more_gelatin(document, &own.ready.lines, by);
        let held = lines.iter().all(|at| {
            let grams = on_a_scale(by * own.ready.lines[*at].mass.grams());
            document.lines[*at].rule.most_g.is_none_or(|most| grams <= most)
        });
        let Some(other) = MadeBy::of(&more, shelf)?.filter(|_| held) else { break };
        let at = &other.assessment.at;
        if at.unknown.is_some() || at.outcome != Outcome::Inside {
            break;
        }
        let [firmer_pa, then] = other.gelatin();
        let Some(mut wait) = other.asked(asked.step.key.as_str(), learned) else { break };
        wait.document.turns_out = Some(UNMOULDS * full_pa / firmer_pa.max(full_pa));
        let Some((min, max)) = other.minutes(&wait).filter(|(min, _)| *min < now_min - 1.0) else {
            continue;
        };
        found.push(QuickerWait {
            words: format!("Gelatin {then:.1} % of the liquid instead of {percent:.1} %"),
            min,
            max,
            stirred: false,
            by: QuickerBy::Gelatin { by, percent: [then, percent] },
        });
        if enough_min.is_some_and(|enough| min <= enough) {
            break;
        }
    }
    if enough_min.is_some() {
        found.drain(..found.len().saturating_sub(1));
    } else if found.len() > 3 {
        let last = found.len() - 1;
        found = [0, last / 2, last].into_iter().map(|at| found[at].clone()).collect();
    }
    Ok(found)
}
