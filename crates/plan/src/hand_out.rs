//! Who does what: steps in the order they start go to a free cook, one who is at it already first, then one of the same
//! order, then the one who was freed last.

use crate::net::{Net, OUT};

/// Steps handed out.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Handed {
    /// Number of the cook of each step; none where no hands are needed, or nobody's are there.
    pub cook: Vec<Option<usize>>,
    /// Times a cook goes on with something else.
    pub switches: i64,
    /// Steps nobody is there for the whole of.
    pub nobody: i64,
}

#[derive(Clone, Copy)]
struct Hands {
    free_at: i32,
    last: Option<(usize, usize)>,
}

/// Hands steps out.
pub fn hand_out(net: &Net, start: &[i32]) -> Handed {
    let most =
        net.cook.map_or(0, |cook| net.caps[cook].iter().copied().max().unwrap_or_default().max(0) as usize);
    let count = if net.cooks.is_empty() { most } else { net.cooks.len() };
    let mut hands = vec![Hands { free_at: i32::MIN, last: None }; count];
    let mut order: Vec<(i32, usize)> = start
        .iter()
        .enumerate()
        .filter(|(step, at)| **at != OUT && net.nodes[*step].hands)
        .map(|(step, at)| (*at, step))
        .collect();
    order.sort_unstable();
    let mut handed = Handed { cook: vec![None; start.len()], ..Handed::default() };
    for (at, step) in order {
        let node = &net.nodes[step];
        // Whoever was there for it.
        let past = net.is_past(step, at);
        let there = |cook: usize| {
            past || net.cooks.get(cook).is_none_or(|hours| hours[at as usize] >= node.dur)
                && node.able.as_ref().is_none_or(|able| able[cook])
        };
        let this = (node.comp, node.order);
        // Who leaves first is taken first among equals, so that the others are there for what is longer.
        let best = (0..count).filter(|cook| hands[*cook].free_at <= at && there(*cook)).max_by_key(|cook| {
            let own = &hands[*cook];
            let left = net.cooks.get(*cook).map_or(0, |hours| hours[at as usize]);
            (
                own.last.is_some_and(|last| last == this),
                own.last.is_some_and(|last| last.1 == this.1),
                own.free_at,
                -left,
                usize::MAX - cook,
            )
        });
        match best {
            Some(cook) => {
                handed.switches += i64::from(hands[cook].last.is_some_and(|last| last != this));
                hands[cook] = Hands { free_at: at + node.dur, last: Some(this) };
                handed.cook[step] = Some(cook);
            }
            None => handed.nobody += i64::from(!past),
        }
    }
    handed
}
