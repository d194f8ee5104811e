//! Why a step stands where it stands, in a cook's words: what is in its way, what is in the way of that, up to what cannot move.

use crate::day::hours::Days;
use plan::net::Net;
use plan::problem::{COOK, Problem, Step};
use plan::push::Way;
use plan::why::{Blocker, Held, Standing};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One link of a chain of reasons.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Reason {
    /// The step it holds.
    pub step: usize,
    /// The step that holds it; none for what cannot be moved.
    pub by: Option<usize>,
    /// In words.
    pub words: String,
}

/// Resources as a cook says them.
pub fn resource_word(id: &str) -> String {
    match id {
        COOK => "the hands".to_owned(),
        "ice" => "the iced water".to_owned(),
        own => format!("the {own}"),
    }
}

/// Words behind which a sentence only says how.
const HOW: [&str; 14] = [
    ", ", " into ", " at ", " to ", " until ", " or ", " over ", " in ", " with ", " for ", " one by ",
    " off ", " on ", ": ",
];

/// What is done in a step, in a few words: the first thing of it, without how.
pub fn short(step: &Step) -> String {
    let first = step.name.split(';').next().unwrap_or(&step.name).trim();
    // Cut where at least two words are left.
    let cuts = HOW.iter().flat_map(|how| first.match_indices(how)).map(|(at, _)| &first[..at]);
    let named = cuts.filter(|words| words.split_whitespace().count() >= 2);
    let mut words = named.min_by_key(|words| words.len()).unwrap_or(first).to_owned();
    // The name of what is worked on stands beside it.
    if !step.comp.is_empty()
        && let Some(at) = words.find(step.comp.as_str())
    {
        words.replace_range(at..at + step.comp.len(), "");
    }
    words.split_whitespace().collect::<Vec<_>>().join(" ")
}

/// A step with what is worked on.
pub fn of_what(step: &Step) -> String {
    format!("{} ({})", short(step), step.comp)
}

/// Words of the planner with its days as the days of the week they are: "day 3 10:30" as "Wed 10:30".
pub fn on_the_wall(words: &str, days: &Days) -> String {
    let mut said = String::new();
    let mut parts = words.split("day ");
    said.push_str(parts.next().unwrap_or_default());
    for part in parts {
        let digits = part.chars().take_while(char::is_ascii_digit).count();
        match part[..digits].parse::<i32>() {
            Ok(day) if part[digits..].starts_with(' ') => {
                let date = days.first.saturating_add(jiff::Span::new().days(i64::from(day) - 1));
                said.push_str(&date.strftime("%a").to_string());
                said.push_str(&part[digits..]);
            }
            _ => {
                said.push_str("day ");
                said.push_str(part);
            }
        }
    }
    said
}

/// Minutes as a cook says them.
pub fn span(minutes: i32) -> String {
    match (minutes / 60, minutes % 60) {
        (0, minutes) => format!("{minutes} min"),
        (hours, 0) => format!("{hours} h"),
        (hours, minutes) => format!("{hours} h {minutes:02}"),
    }
}

/// Speaks of one plan.
pub struct Speaker<'a> {
    /// The problem.
    pub problem: &'a Problem,
    /// Starts in minutes.
    pub start: &'a [Option<i32>],
    /// Its days.
    pub days: &'a Days,
}

impl Speaker<'_> {
    /// A time of day; with its day when it is another than that of `than`.
    pub fn clock(&self, minute: i32, than: i32) -> String {
        self.days.said(minute, than)
    }

    fn begins(&self, step: usize) -> i32 {
        self.start[step].unwrap_or_default()
    }

    fn ends(&self, step: usize) -> i32 {
        self.begins(step) + self.problem.steps[step].dur
    }

    /// One link in words.
    pub fn reason(&self, held: &Held, way: Way, points_per_min: i64) -> Reason {
        let step = held.step;
        let (here, end) = (self.begins(step), self.ends(step));
        let other = |of: usize| of_what(&self.problem.steps[of]);
        let words = match held.by {
            Blocker::Lag(at, of) => self.lag(at, step, of, here),
            Blocker::Taken(resource, of) => {
                let what = resource_word(&self.problem.resources[resource].id);
                let are = if self.problem.resources[resource].id == COOK { "are" } else { "is" };
                match way {
                    Way::Later => {
                        format!(
                            "{what} {are} wanted for {} at {}",
                            other(of),
                            self.clock(self.begins(of), here)
                        )
                    }
                    Way::Earlier => {
                        format!("{what} {are} at {} until {}", other(of), self.clock(self.ends(of), here))
                    }
                }
            }
            Blocker::Served => {
                let order = &self.problem.orders[self.problem.steps[step].order];
                format!("{} leaves at {}", order.title, self.clock(order.serve, here))
            }
            Blocker::Closed => match way {
                Way::Later => format!("the kitchen closes at {}", self.clock(end, here)),
                Way::Earlier => format!("the kitchen opens at {}", self.clock(here, here)),
            },
            Blocker::Less(resource) => match self.problem.resources[resource].id.as_str() {
                COOK => "a cook is away then".to_owned(),
                id => format!("there is less of {} then", resource_word(id)),
            },
            Blocker::Full(resource) => {
                format!("{} is full then", resource_word(&self.problem.resources[resource].id))
            }
            Blocker::Dearer(points) => {
                let minutes = points / points_per_min.max(1) / 5 * 5;
                match minutes {
                    0 => "nothing is in its way; the day is a little better so".to_owned(),
                    _ => format!(
                        "nothing is in its way; the day is better so, by as much as {minutes} min open less"
                    ),
                }
            }
            Blocker::Free => "nothing is in its way, and nothing is lost by moving it".to_owned(),
        };
        Reason { step, by: held.by.step(), words }
    }

    fn lag(&self, at: usize, step: usize, of: usize, here: i32) -> String {
        let waits = self.problem.waits.len();
        let (from, min, max, name) = match self.problem.waits.get(at) {
            Some(wait) => (wait.from, wait.min, wait.max, wait.name.as_str()),
            None => {
                let link = &self.problem.links[at - waits];
                (link.from, link.min, link.max, "")
            }
        };
        let named = of_what(&self.problem.steps[of]);
        let first = from == step;
        let lag = if first { self.begins(of) - self.ends(step) } else { self.begins(step) - self.ends(of) };
        let at_least = lag < min + self.problem.grid_min;
        match (first, at_least || max.is_none(), name) {
            (true, true, "") => format!("{named} goes on at {}", self.clock(self.begins(of), here)),
            (true, true, name) => {
                format!(
                    "{name}, at least {}, before {named} at {}",
                    span(min),
                    self.clock(self.begins(of), here)
                )
            }
            (true, false, "") => {
                format!(
                    "{named} at {} comes within {}",
                    self.clock(self.begins(of), here),
                    span(max.unwrap_or_default())
                )
            }
            (true, false, name) => format!(
                "{name}, at most {}, until {named} at {}",
                span(max.unwrap_or_default()),
                self.clock(self.begins(of), here)
            ),
            (false, true, "") => format!("{named} ends at {}", self.clock(self.ends(of), here)),
            (false, true, name) => {
                format!(
                    "{name}, at least {}, after {named} at {}",
                    span(min),
                    self.clock(self.ends(of), here)
                )
            }
            (false, false, "") => format!(
                "it comes within {} of {named}, done at {}",
                span(max.unwrap_or_default()),
                self.clock(self.ends(of), here)
            ),
            (false, false, name) => format!(
                "{name}, at most {}, after {named} at {}",
                span(max.unwrap_or_default()),
                self.clock(self.ends(of), here)
            ),
        }
    }
}

/// The whole chain of a step in words, from it to what cannot be moved.
pub fn chain(speaker: &Speaker, standing: &mut Standing, net: &Net, step: usize, way: Way) -> Vec<Reason> {
    // Four points are a minute of the kitchen's time.
    let per_min = i64::from(net.weights.span_per_slot) / i64::from(net.grid.max(1));
    standing.why(step, way).iter().map(|held| speaker.reason(held, way, per_min)).collect()
}
