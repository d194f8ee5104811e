//! What a person knows and confuses, and how hard the next question is.

use crate::assess::spoon_sign::SpoonSign;
use crate::trainer::question::{HARDEST, TrainerKind};
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// So many right ones in a row, and it becomes harder.
const HARDER: usize = 3;
/// So many wrong ones in a row, and it becomes easier.
const EASIER: usize = 2;

/// What happened at the trainer.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "what", rename_all = "snake_case", deny_unknown_fields)]
pub enum TrainerEvent {
    /// A question was answered.
    Answered {
        /// What was asked.
        kind: TrainerKind,
        /// Key of the formula.
        component: String,
        /// How hard it was.
        level: u8,
        /// What was right, in words.
        right: String,
        /// What was said, in words.
        said: String,
        /// Place of what was said less that of what is right: below 0 thinner, shorter, colder.
        off: i64,
    },
    /// What was before counts no more.
    BegunAnew {},
}

/// The same with when.
#[derive(Debug, Clone, PartialEq)]
pub struct TrainerEntry {
    /// When.
    pub at: Timestamp,
    /// What.
    pub event: TrainerEvent,
}

/// How a person does at one kind of question.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct KindScore {
    /// Which.
    pub kind: TrainerKind,
    /// How many were asked.
    pub asked: usize,
    /// How many were right.
    pub good: usize,
    /// How hard the next is, 1 to 4.
    pub level: u8,
}

/// Two words a person takes for each other.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Confused {
    /// What it was.
    pub right: String,
    /// What was said.
    pub said: String,
    /// How often.
    pub times: usize,
}

/// What a person knows and confuses.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TrainerScore {
    /// By kind.
    pub kinds: Vec<KindScore>,
    /// Asked since a moment: today.
    pub today: usize,
    /// Of them right.
    pub today_good: usize,
    /// What is confused, the most often first.
    pub confused: Vec<Confused>,
    /// In a sentence.
    pub sentence: String,
}

impl TrainerScore {
    /// How hard the next question of a kind is.
    pub fn level(&self, kind: TrainerKind) -> u8 {
        self.kinds.iter().find(|own| own.kind == kind).map_or(1, |own| own.level)
    }
}

/// Of what happened, the oldest first.
///
/// # Arguments
/// * `today`: when the day began.
pub fn score(entries: &[TrainerEntry], today: Timestamp) -> TrainerScore {
    let anew = entries.iter().rposition(|own| own.event == TrainerEvent::BegunAnew {}).map_or(0, |at| at + 1);
    let mut kinds: Vec<KindScore> =
        TrainerKind::ALL.iter().map(|kind| KindScore { kind: *kind, asked: 0, good: 0, level: 1 }).collect();
    let mut rows: Vec<(usize, usize)> = vec![(0, 0); kinds.len()];
    let mut confused: Vec<Confused> = Vec::new();
    let (mut of_today, mut today_good) = (0, 0);
    let (mut low, mut high) = ([0_usize; 2], [0_usize; 2]);
    for own in &entries[anew..] {
        let TrainerEvent::Answered { kind, right, said, off, .. } = &own.event else { continue };
        let Some(place) = kinds.iter().position(|one| one.kind == *kind) else { continue };
        let good = *off == 0;
        kinds[place].asked += 1;
        kinds[place].good += usize::from(good);
        let row = &mut rows[place];
        *row = if good { (row.0 + 1, 0) } else { (0, row.1 + 1) };
        // What comes next follows the person, step by step.
        if row.0 == HARDER && kinds[place].level < HARDEST {
            kinds[place].level += 1;
            *row = (0, 0);
        } else if row.1 == EASIER && kinds[place].level > 1 {
            kinds[place].level -= 1;
            *row = (0, 0);
        }
        if own.at >= today {
            of_today += 1;
            today_good += usize::from(good);
        }
        if good {
            continue;
        }
        match kind {
            TrainerKind::Spoon => {
                match confused.iter_mut().find(|one| one.right == *right && one.said == *said) {
                    Some(one) => one.times += 1,
                    None => {
                        confused.push(Confused { right: right.clone(), said: said.clone(), times: 1 });
                    }
                }
            }
            TrainerKind::Drip | TrainerKind::Holds => {
                let at = usize::from(*kind == TrainerKind::Holds);
                if *off < 0 { low[at] += 1 } else { high[at] += 1 }
            }
            TrainerKind::WhatIsIn => {}
        }
    }
    let order = |word: &str| SpoonSign::ALL.iter().position(|own| own.word() == word);
    confused.sort_by(|a, b| b.times.cmp(&a.times).then_with(|| order(&a.right).cmp(&order(&b.right))));
    let sentence = sentence(&kinds, &confused, low, high);
    TrainerScore { kinds, today: of_today, today_good, confused, sentence }
}

fn sentence(kinds: &[KindScore], confused: &[Confused], low: [usize; 2], high: [usize; 2]) -> String {
    let (asked, good) = kinds.iter().fold((0, 0), |sum, own| (sum.0 + own.asked, sum.1 + own.good));
    if asked == 0 {
        return "Nothing was asked yet.".to_owned();
    }
    let mut all = vec![format!("{good} of {asked} right.")];
    if let Some(first) = confused.first().filter(|own| own.times > 1) {
        all.push(format!("You take a {} for a {}.", first.right, first.said));
    }
    for (at, [short, long]) in
        [["drips too short", "drips too long"], ["it lets go too early", "it holds too warm"]]
            .into_iter()
            .enumerate()
    {
        if low[at] >= 2 && low[at] > 2 * high[at] {
            all.push(format!("You mostly say {short}."));
        } else if high[at] >= 2 && high[at] > 2 * low[at] {
            all.push(format!("You mostly say {long}."));
        }
    }
    all.join(" ")
}
