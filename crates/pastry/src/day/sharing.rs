//! One batch for several orders: where it keeps until the last of them leaves, as good as fresh, and fits the bowl.

use crate::day::draft::Act;
use crate::day::making::Made;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What is made for several orders keeps so much longer than from the first to the last, min: a day to make it in (assumed).
const A_DAY: f64 = 1440.0;

/// A batch that is made once for several orders.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SharedBatch {
    /// What is worked on in its steps.
    #[schema(max_length = 200)]
    pub of: String,
    /// Numbers of its orders; its steps are counted to the first.
    #[schema(max_items = 60)]
    pub orders: Vec<usize>,
    /// Key of the order its steps are named after, where that order is in the plan no more.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 80)]
    pub named: Option<String>,
}

impl SharedBatch {
    /// Of orders that are there.
    pub fn of(of: &str, orders: Vec<usize>) -> SharedBatch {
        SharedBatch { of: of.to_owned(), orders, named: None }
    }
}

/// Which batches are made once for several orders.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Sharing {
    /// Batches that stay as they are, whether for several orders or for one.
    pub as_is: Vec<SharedBatch>,
    /// Whether others are shared where they keep.
    pub more: bool,
}

impl Default for Sharing {
    fn default() -> Self {
        Sharing { as_is: Vec::new(), more: true }
    }
}

/// An order that takes a batch.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Taker {
    /// Its number.
    pub order: usize,
    /// When it leaves, min.
    pub serve: i32,
}

/// How long from the first order to the last one batch may serve, min; nothing for what is used at once.
///
/// # Arguments
/// * `last`: its last step.
pub fn may_wait(made: &Made, last: &Act) -> f64 {
    if made.hurried || made.sets.is_some() {
        return 0.0;
    }
    let fresh = if last.age == 0 { f64::INFINITY } else { f64::from(last.grace) };
    (made.waits[1] - made.waits[0] - A_DAY).min(fresh).max(0.0)
}

impl Sharing {
    /// Whether a batch has still to be decided upon for more than one of its takers.
    pub fn is_open(&self, of: &str, takers: &[Taker]) -> bool {
        self.more && self.open(of, takers).len() > 1
    }

    fn open(&self, of: &str, takers: &[Taker]) -> Vec<Taker> {
        let is_decided =
            |order: usize| self.as_is.iter().any(|own| own.of == of && own.orders.contains(&order));
        takers.iter().copied().filter(|own| !is_decided(own.order)).collect()
    }

    /// Every batch with its orders, the one that leaves first at their head.
    ///
    /// # Arguments
    /// * `within`: how long from the first to the last, min.
    pub fn groups(&self, of: &str, takers: &[Taker], within: f64) -> Vec<SharedBatch> {
        let takes = |order: &usize| takers.iter().any(|own| own.order == *order);
        let mut all: Vec<SharedBatch> = self.as_is.iter().filter(|own| own.of == of).cloned().collect();
        // Its steps stay counted to the first, whoever leaves first now.
        all.iter_mut().for_each(|own| own.orders.retain(takes));
        all.retain(|own| !own.orders.is_empty());
        let mut open = self.open(of, takers);
        open.sort_by_key(|own| (own.serve, own.order));
        let mut first = None;
        for own in open {
            let joins = self.more && first.is_some_and(|at: i32| f64::from(own.serve - at) <= within);
            match all.last_mut().filter(|_| joins) {
                Some(batch) => batch.orders.push(own.order),
                None => {
                    first = Some(own.serve);
                    all.push(SharedBatch::of(of, vec![own.order]));
                }
            }
        }
        all
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn takers(serves: &[i32]) -> Vec<Taker> {
        serves.iter().enumerate().map(|(order, serve)| Taker { order, serve: *serve }).collect()
    }

    fn orders(sharing: &Sharing, of: &str, takers: &[Taker], within: f64) -> Vec<Vec<usize>> {
        sharing.groups(of, takers, within).into_iter().map(|own| own.orders).collect()
    }

    #[test]
    fn what_leaves_within_its_life_is_one_batch() {
        let all = takers(&[4000, 1000, 2000, 9000]);
        let own = Sharing::default();
        assert_eq!(orders(&own, "Curd", &all, 1440.0), [vec![1, 2], vec![0], vec![3]]);
        assert_eq!(orders(&own, "Curd", &all, 3000.0), [vec![1, 2, 0], vec![3]]);
        assert_eq!(orders(&own, "Curd", &all, 0.0).len(), 4);
        let alone = Sharing { more: false, ..Sharing::default() };
        assert_eq!(orders(&alone, "Curd", &all, 9000.0).len(), 4);
    }

    #[test]
    fn what_was_begun_stays_as_it_is() {
        let all = takers(&[1000, 1500, 2000]);
        // Begun for the first alone: nobody else is promised of it.
        let own = Sharing { as_is: vec![SharedBatch::of("Curd", vec![0])], more: true };
        assert_eq!(orders(&own, "Curd", &all, 1440.0), [vec![0], vec![1, 2]]);
        assert_eq!(orders(&own, "Mousse", &all, 1440.0), [vec![0, 1, 2]]);
        // Begun for two, of which one is no more.
        let own = Sharing { as_is: vec![SharedBatch::of("Curd", vec![7, 1])], more: true };
        assert_eq!(orders(&own, "Curd", &all, 1440.0), [vec![1], vec![0, 2]]);
        assert!(!Sharing { more: false, ..own }.is_open("Curd", &all));
    }
}
