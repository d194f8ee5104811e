//! Minutes as they are said: no finer than they are known, and by the clock on the wall where its time was said.

use crate::fault::{Fault, FaultCode};
use crate::number::limit;
use serde::Serialize;
use utoipa::ToSchema;

/// Minutes of a day.
const DAY_MIN: f64 = 1440.0;
/// Steps in which minutes are said: never finer than a twentieth of them.
const STEPS_MIN: [f64; 7] = [30.0, 15.0, 10.0, 5.0, 2.0, 1.0, 0.5];

/// A moment that is to come, with its spread.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct When {
    /// Minutes from the start.
    pub min: f64,
    /// The soonest: most heat transfer, coolest start.
    pub low: Option<f64>,
    /// The latest; none where it may never come to it.
    pub high: Option<f64>,
    /// As it is said: "14:10", "in 65 min".
    pub words: String,
    /// The spread as it is said: "13:58 to 14:31"; none where there is none.
    pub spread_words: Option<String>,
}

/// The time on the wall when it begins, minutes after midnight; none where nobody said.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Wall(pub Option<f64>);

impl Wall {
    /// Of "13:05".
    ///
    /// # Errors
    /// What is no time of day.
    pub fn of(text: Option<&str>) -> Result<Self, Fault> {
        let Some(text) = text else { return Ok(Wall(None)) };
        let read = || {
            let (hours, minutes) = text.trim().split_once(':')?;
            let [hours, minutes] = [hours, minutes].map(|part| part.parse::<u32>().ok());
            let (hours, minutes) = (hours?, minutes?);
            (hours < 24 && minutes < 60).then(|| f64::from(60 * hours + minutes))
        };
        let wrong =
            || Fault::new("at", FaultCode::WrongValue, "write the time it begins as 13:05, or leave it out");
        read().map(|minutes| Wall(Some(minutes))).ok_or_else(wrong)
    }

    /// A moment as it is said after "at" or "from": "14:10", "02:10 tomorrow"; "in 65 min" where no time was said.
    pub fn at(self, min: f64) -> String {
        match self.0 {
            None if min <= 0.0 => "at once".to_owned(),
            None => format!("in {}", minutes(min)),
            Some(_) => self.time(min),
        }
    }

    /// Only the time: "14:10"; minutes where no time was said.
    pub fn time(self, min: f64) -> String {
        let Some(begins) = self.0 else { return minutes(min) };
        let then = begins + min.round();
        let days = (then / DAY_MIN).floor();
        let of_day = (then - days * DAY_MIN).round() as u32;
        let time = format!("{:02}:{:02}", of_day / 60, of_day % 60);
        match days as u32 {
            0 => time,
            1 => format!("{time} tomorrow"),
            days => format!("{time} in {days} days"),
        }
    }

    /// From one moment to another: "14:10 to 14:24", "65 to 79 min".
    pub fn span(self, from: f64, to: f64) -> String {
        match self.0 {
            Some(_) => format!("{} to {}", self.time(from), self.time(to)),
            None => {
                let (from, to) = (minutes(from), minutes(to));
                match (from.split_once(' '), to.split_once(' ')) {
                    (Some((low, a)), Some((_, b))) if a == b => format!("{low} to {to}"),
                    _ => format!("{from} to {to}"),
                }
            }
        }
    }

    /// A moment with its spread: two ends, none where it may never come.
    pub fn when(self, min: f64, one: Option<f64>, other: Option<f64>) -> When {
        // More heat transfer is sooner, but not for a coat on a cake that is colder than the room.
        let low = [one, other].into_iter().flatten().fold(min, f64::min);
        let high = one.zip(other).map(|(one, other)| one.max(other).max(min));
        let (low, high) = match (one, other) {
            (None, None) => (None, None),
            _ => (Some(low), high),
        };
        let words = self.at(min);
        let spread_words = match (low, high) {
            (Some(low), Some(high)) if step(high) < high - low => Some(self.span(low, high)),
            (Some(low), None) => Some(format!("{} at the soonest", self.time(low))),
            _ => None,
        };
        When { min: rounded(min), low: low.map(rounded), high: high.map(rounded), words, spread_words }
    }
}

fn step(min: f64) -> f64 {
    match min {
        min if min < 2.0 => 0.1,
        min if min < 10.0 => 0.5,
        min => STEPS_MIN.into_iter().find(|step| *step <= 0.05 * min).unwrap_or(0.5),
    }
}

/// No finer than a twentieth.
pub fn rounded(min: f64) -> f64 {
    let step = step(min.abs());
    (min / step).round() * step
}

/// Minutes as they are said: "0.5 min", "65 min", "2 h 10 min", "14 h".
pub fn minutes(min: f64) -> String {
    let min = rounded(min);
    if min < 100.0 {
        return format!("{} min", limit(min));
    }
    let (hours, rest) = ((min / 60.0).floor(), min - 60.0 * (min / 60.0).floor());
    match () {
        () if min >= 2.0 * DAY_MIN => format!("{} days", limit((min / DAY_MIN * 2.0).round() / 2.0)),
        () if rest >= 1.0 => format!("{hours:.0} h {rest:.0} min"),
        () => format!("{hours:.0} h"),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn minutes_are_no_finer_than_they_are_known() {
        for (min, said) in [
            (0.53, "0.5 min"),
            (7.3, "7.5 min"),
            (23.4, "23 min"),
            (64.7, "64 min"),
            (134.0, "2 h 15 min"),
            (118.0, "2 h"),
            (851.0, "14 h"),
            (4000.0, "3 days"),
        ] {
            assert_eq!(minutes(min), said, "{min}");
        }
    }

    #[test]
    fn the_wall_knows_tomorrow() {
        let wall = Wall::of(Some("13:05")).unwrap();
        assert_eq!(wall.at(65.0), "14:10");
        assert_eq!(wall.span(65.0, 79.0), "14:10 to 14:24");
        assert_eq!(wall.at(785.0), "02:10 tomorrow");
        assert_eq!(wall.at(3000.0), "15:05 in 2 days");
        let none = Wall::of(None).unwrap();
        assert_eq!(none.span(64.0, 78.0), "64 to 78 min");
        assert_eq!(none.at(0.0), "at once");
        for odd in ["25:00", "13", "1:61", "noon", "-1:00"] {
            assert!(Wall::of(Some(odd)).is_err(), "{odd}");
        }
    }
}
