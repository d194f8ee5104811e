//! A kitchen's hours as minutes that pass, whatever the clocks do.

use crate::day::kitchen::{KitchenDocument, WeekHours, Weekday};
use crate::zone::Zone;
use jiff::Timestamp;
use jiff::civil::{Date, DateTime, Time};

/// Days planned: the first, and how minutes are counted from its 00:00.
#[derive(Debug, Clone, PartialEq)]
pub struct Days {
    /// The first day.
    pub first: Date,
    /// How many.
    pub count: i32,
    zone: Zone,
    begins: Timestamp,
}

fn weekday(date: Date) -> Weekday {
    Weekday::ALL[date.weekday().to_monday_zero_offset() as usize]
}

impl Days {
    /// From a day on.
    pub fn of(first: Date, count: i32, zone: &Zone) -> Days {
        Days { first, count, zone: zone.clone(), begins: zone.moment(first.to_datetime(Time::midnight())) }
    }

    /// Minutes from the first midnight to a time on the wall.
    pub fn minute(&self, wall: DateTime) -> i32 {
        ((self.zone.moment(wall).as_second() - self.begins.as_second()) / 60) as i32
    }

    /// Minutes from the first midnight to a moment.
    pub fn minute_at(&self, moment: Timestamp) -> i32 {
        ((moment.as_second() - self.begins.as_second()).div_euclid(60)) as i32
    }

    /// What the clock on the wall shows after so many minutes.
    pub fn wall(&self, minute: i32) -> DateTime {
        let seconds = self.begins.as_second() + 60 * i64::from(minute);
        self.zone.wall(Timestamp::from_second(seconds).unwrap_or(self.begins))
    }

    /// A time of day; with its day of the week when it is another than that of `than`, with its date when it is a week away.
    pub fn said(&self, minute: i32, than: i32) -> String {
        let (wall, other) = (self.wall(minute), self.wall(than));
        match (wall.date() - other.date()).get_days().abs() {
            0 => wall.strftime("%H:%M"),
            1..=5 => wall.strftime("%a %H:%M"),
            _ => wall.strftime("%-d %b %H:%M"),
        }
        .to_string()
    }

    /// The moment after so many minutes.
    pub fn moment(&self, minute: i32) -> Timestamp {
        Timestamp::from_second(self.begins.as_second() + 60 * i64::from(minute)).unwrap_or(self.begins)
    }

    /// Minutes to the end of the last day.
    pub fn horizon(&self) -> i32 {
        self.minute(self.date(self.count).to_datetime(Time::midnight()))
    }

    fn date(&self, day: i32) -> Date {
        self.first.saturating_add(jiff::Span::new().days(i64::from(day)))
    }

    fn span(&self, date: Date, from: Time, to: Time) -> [i32; 2] {
        let next = if to <= from { date.saturating_add(jiff::Span::new().days(1)) } else { date };
        [self.minute(date.to_datetime(from)), self.minute(next.to_datetime(to))]
    }

    /// Stretches in order, within the days and not before `from`, those that touch made one.
    fn within(&self, mut all: Vec<[i32; 2]>, from: i32) -> Vec<[i32; 2]> {
        let horizon = self.horizon();
        all.iter_mut().for_each(|own| *own = [own[0].max(from).max(0), own[1].min(horizon)]);
        all.retain(|[from, to]| from < to);
        all.sort_unstable();
        let mut one: Vec<[i32; 2]> = Vec::new();
        for [from, to] in all {
            match one.last_mut() {
                Some(last) if from <= last[1] => last[1] = last[1].max(to),
                _ => one.push([from, to]),
            }
        }
        one
    }

    fn week(&self, hours: &[WeekHours], from: i32) -> Vec<[i32; 2]> {
        // The night before the first day may reach into it.
        let all = (-1..self.count).flat_map(|day| {
            let date = self.date(day);
            let on = hours.iter().filter(move |own| own.on.contains(&weekday(date)));
            on.map(move |own| self.span(date, own.from, own.to)).collect::<Vec<_>>()
        });
        self.within(all.collect(), from)
    }

    /// When the kitchen is open, from a minute on.
    pub fn open(&self, kitchen: &KitchenDocument, from: i32) -> Vec<[i32; 2]> {
        let all = (-1..self.count).flat_map(|day| {
            let date = self.date(day);
            match kitchen.dates.iter().find(|own| own.on == date) {
                Some(own) => {
                    own.hours.iter().map(|span| self.span(date, span.from, span.to)).collect::<Vec<_>>()
                }
                None => {
                    let on = kitchen.hours.iter().filter(|own| own.on.contains(&weekday(date)));
                    on.map(|own| self.span(date, own.from, own.to)).collect()
                }
            }
        });
        self.within(all.collect(), from)
    }

    /// When each cook is there.
    pub fn cooks(&self, kitchen: &KitchenDocument, open: &[[i32; 2]]) -> Vec<Vec<[i32; 2]>> {
        let own = |hours: &[WeekHours]| match hours.is_empty() {
            true => open.to_vec(),
            false => self.week(hours, open.first().map_or(0, |first| first[0])),
        };
        kitchen.cooks.iter().map(|cook| own(&cook.hours)).collect()
    }
}
