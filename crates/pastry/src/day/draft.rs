//! What is to be done before it is a problem: single steps with their minutes, what lies between them, and how they are joined to
//! tasks a cook would call one.

use crate::method::step::LimitClass;
use std::collections::BTreeMap;

/// A wait shorter than this does not part a task, min.
const SHORT_WAIT: f64 = 5.0;
/// A machine alone for less than this is watched, min.
const SHORT_RUN: f64 = 8.0;
/// Two steps of one component go on within this where nobody said, min (assumed).
pub const GOES_ON: f64 = 15.0;

/// A step.
#[derive(Debug, Clone, PartialEq)]
pub struct Act {
    /// Its order.
    pub order: usize,
    /// What is worked on.
    pub comp: String,
    /// What is done.
    pub name: String,
    /// Whether a cook does it.
    pub hands: bool,
    /// How long, min.
    pub minutes: f64,
    /// What it takes beside hands.
    pub uses: BTreeMap<String, i32>,
    /// What an oven must be set to.
    pub setup: Option<String>,
    /// What the cook must be able to do.
    pub skill: Option<String>,
    /// Points for every 5 min older at the serving.
    pub age: i32,
    /// As good as fresh for so long, min.
    pub grace: i32,
    /// Key of the step in its school, for the kitchen's own minutes; empty for what is none.
    pub source: String,
}

impl Act {
    /// Of an order and component, by hand.
    pub fn by_hand(order: usize, comp: &str, name: &str, minutes: f64) -> Act {
        Act {
            order,
            comp: comp.to_owned(),
            name: name.to_owned(),
            hands: true,
            minutes,
            uses: BTreeMap::new(),
            setup: None,
            skill: None,
            age: 0,
            grace: 0,
            source: String::new(),
        }
    }
}

/// The step of a formula's school that a wait lasts as long as by its clock.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct ByClock {
    /// Number of its part.
    pub part: usize,
    /// Key of the step in its school.
    pub step: String,
}

/// What lies between two steps.
#[derive(Debug, Clone, PartialEq)]
pub struct Lag {
    /// The step that ends.
    pub from: usize,
    /// The step that begins.
    pub to: usize,
    /// At least, min.
    pub least: f64,
    /// At most, min; none where it may stand as long as one likes.
    pub most: Option<f64>,
    /// What it is; empty for what goes on.
    pub name: String,
    /// What is taken for as long as it lasts.
    pub place: Option<(String, i32)>,
    /// What its longest is for.
    pub class: LimitClass,
    /// Where its least is what a clock says.
    pub clock: Option<ByClock>,
}

/// Steps and what lies between them.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Draft {
    /// The steps.
    pub acts: Vec<Act>,
    /// What lies between them.
    pub lags: Vec<Lag>,
}

impl Draft {
    /// One more step; its number.
    pub fn act(&mut self, act: Act) -> usize {
        self.acts.push(act);
        self.acts.len() - 1
    }

    /// One goes on after the other within so many minutes.
    pub fn goes_on(&mut self, from: usize, to: usize, most: f64, class: LimitClass) {
        self.lags.push(Lag {
            from,
            to,
            least: 0.0,
            most: Some(most),
            name: String::new(),
            place: None,
            class,
            clock: None,
        });
    }

    /// Something stands between them.
    pub fn stands(
        &mut self,
        from: usize,
        to: usize,
        name: &str,
        [least, most]: [f64; 2],
        place: Option<(String, i32)>,
    ) {
        let most = Some(most.max(least));
        let class = LimitClass::Quality;
        self.lags.push(Lag { from, to, least, most, name: name.to_owned(), place, class, clock: None });
    }

    /// Steps joined to tasks: the longest runs of one component in which nothing waits and no machine runs alone for long. Each
    /// task is what its steps are called, in their order; for each step, the task it is in.
    pub fn joined(&self) -> (Draft, Vec<usize>) {
        let n = self.acts.len();
        let mut ins = vec![0; n];
        let mut outs = vec![0; n];
        for lag in &self.lags {
            outs[lag.from] += 1;
            ins[lag.to] += 1;
        }
        let watched = |act: &Act| (act.hands || act.minutes < SHORT_RUN) && act.setup.is_none();
        let joins = |lag: &Lag| {
            let (a, b) = (&self.acts[lag.from], &self.acts[lag.to]);
            let one = a.comp == b.comp && a.order == b.order && watched(a) && watched(b);
            let skills = a.skill.is_none() || b.skill.is_none() || a.skill == b.skill;
            let at_once = lag.least < SHORT_WAIT && lag.place.is_none() && lag.name.is_empty();
            one && skills && at_once && outs[lag.from] == 1
        };
        // The step that is joined to each, behind it.
        let mut behind: Vec<Option<usize>> = vec![None; n];
        for to in 0..n {
            let lags: Vec<&Lag> = self.lags.iter().filter(|lag| lag.to == to).collect();
            // What is got ready for it from nothing is done one after the other, behind what goes on.
            let (mut going, ready): (Vec<usize>, Vec<usize>) =
                lags.iter().map(|lag| lag.from).partition(|from| ins[*from] > 0);
            if lags.is_empty() || going.len() > 1 || !lags.iter().all(|lag| joins(lag)) {
                continue;
            }
            going.extend(ready);
            going.push(to);
            going.windows(2).for_each(|pair| behind[pair[0]] = Some(pair[1]));
        }
        let heads: Vec<usize> = (0..n).filter(|step| !behind.contains(&Some(*step))).collect();
        let mut task_of = vec![0; n];
        let mut draft = Draft::default();
        for head in heads {
            let mut act = self.acts[head].clone();
            task_of[head] = draft.acts.len();
            let mut at = head;
            while let Some(next) = behind[at] {
                let own = &self.acts[next];
                act.minutes += own.minutes;
                act.hands |= own.hands;
                for (key, amount) in &own.uses {
                    let most = act.uses.entry(key.clone()).or_default();
                    *most = (*most).max(*amount);
                }
                act.skill = act.skill.or_else(|| own.skill.clone());
                (act.age, act.grace) = (own.age, own.grace);
                act.name = format!("{}; {}", act.name, own.name);
                task_of[next] = draft.acts.len();
                at = next;
            }
            draft.acts.push(act);
        }
        for lag in &self.lags {
            let (from, to) = (task_of[lag.from], task_of[lag.to]);
            if from != to {
                draft.lags.push(Lag { from, to, ..lag.clone() });
            }
        }
        (draft, task_of)
    }
}
