//! A proof that there is no plan: the slots between which each step must begin, by the lags and the opening hours to a fixed point,
//! and why.

use crate::lags::NEVER;
use crate::net::{LONG, Net};

/// Why a step cannot begin before, or must not begin after, some slot.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Because {
    /// By an arc from or to another step.
    Arc(usize),
    /// The kitchen is closed before or after it.
    Closed,
    /// It stands there: a serving, a step that was begun or pinned.
    Stands,
    /// The days planned begin or end there.
    Ends,
    /// It takes more than there is.
    TooMuch(usize),
}

/// A link of a proof: this step, for this reason, no earlier or no later than this slot.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Ground {
    /// The step.
    pub step: usize,
    /// The slot.
    pub slot: i32,
    /// Why.
    pub because: Because,
}

/// A proof that there is no plan: a step that would have to begin before `latest` and cannot before `earliest`.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Proof {
    /// The step that has no time.
    pub step: usize,
    /// Why it cannot begin earlier, from itself back to where that comes from.
    pub earliest: Vec<Ground>,
    /// Why it must not begin later, likewise.
    pub latest: Vec<Ground>,
}

/// The slots between which each step must begin, by the lags and opening hours alone.
///
/// # Errors
/// A proof that there is no plan.
pub fn windows(net: &Net) -> Result<Vec<(i32, i32)>, Box<Proof>> {
    let n = net.nodes.len();
    let known = |step: usize| net.nodes[step].fixed.or(net.nodes[step].stands);
    let mut low: Vec<Ground> =
        (0..n).map(|step| Ground { step, slot: net.not_before, because: Because::Ends }).collect();
    let mut high: Vec<Ground> = (0..n)
        .map(|step| Ground { step, slot: net.slots - net.nodes[step].dur, because: Because::Ends })
        .collect();
    for step in 0..n {
        if let Some(slot) = known(step) {
            (low[step], high[step]) = (
                Ground { step, slot, because: Because::Stands },
                Ground { step, slot, because: Because::Stands },
            );
        } else if let Some((resource, _)) = net.nodes[step]
            .uses
            .iter()
            .find(|(resource, amount)| net.caps[*resource].iter().all(|cap| cap < amount))
        {
            let too_much = Ground { step, slot: net.slots, because: Because::TooMuch(*resource) };
            return Err(Box::new(Proof { step, earliest: vec![too_much], latest: Vec::new() }));
        }
    }
    // Every round raises or lowers something by a slot, or it is the last.
    let mut rounds = 0;
    loop {
        let mut moved = false;
        for step in 0..n {
            if known(step).is_some() {
                continue;
            }
            let dur = net.nodes[step].dur;
            let opens = net.earliest_open(&net.open, low[step].slot, dur).unwrap_or(net.slots + 1);
            if opens > low[step].slot {
                low[step] = Ground { slot: opens, because: Because::Closed, ..low[step] };
                moved = true;
            }
            let closes = net.latest_open(&net.open, high[step].slot, dur).unwrap_or(-1);
            if closes < high[step].slot {
                high[step] = Ground { slot: closes, because: Because::Closed, ..high[step] };
                moved = true;
            }
        }
        for (at, arc) in net.arcs.iter().enumerate() {
            let dur = net.nodes[arc.from].dur;
            let raise = |own: &mut Ground, slot: i32| {
                let higher = slot > own.slot && known(own.step).is_none_or(|known| slot > known);
                if higher {
                    *own = Ground { slot, because: Because::Arc(at), ..*own };
                }
                higher
            };
            let lower = |own: &mut Ground, slot: i32| {
                let lower = slot < own.slot;
                if lower {
                    *own = Ground { slot, because: Because::Arc(at), ..*own };
                }
                lower
            };
            let (from, to) = (low[arc.from].slot, low[arc.to].slot);
            moved |= raise(&mut low[arc.to], from + dur + arc.min);
            moved |= arc.max < LONG && raise(&mut low[arc.from], to - dur - arc.max);
            let (from, to) = (high[arc.from].slot, high[arc.to].slot);
            moved |= lower(&mut high[arc.from], to - dur - arc.min);
            moved |= arc.max < LONG && lower(&mut high[arc.to], from + dur + arc.max);
        }
        if let Some(step) = (0..n).find(|step| low[*step].slot > high[*step].slot) {
            return Err(Box::new(Proof {
                step,
                earliest: chain(net, &low, step, true),
                latest: chain(net, &high, step, false),
            }));
        }
        rounds += 1;
        if !moved || rounds > 4000 {
            return Ok(low.iter().zip(&high).map(|(low, high)| (low.slot, high.slot)).collect());
        }
    }
}

/// From a step back along its grounds to where they come from.
fn chain(net: &Net, of: &[Ground], step: usize, earliest: bool) -> Vec<Ground> {
    let mut all = Vec::new();
    let mut at = step;
    while all.len() < of.len() && all.iter().all(|ground: &Ground| ground.step != at) {
        let ground = of[at];
        all.push(ground);
        at = match ground.because {
            Because::Arc(arc) if net.arcs[arc].from == at => net.arcs[arc].to,
            Because::Arc(arc) => net.arcs[arc].from,
            // Closed then: what brought it there is the arc that bears on it hardest.
            Because::Closed => {
                let pull = |arc: &usize| {
                    let arc = &net.arcs[*arc];
                    let dur = net.nodes[arc.from].dur;
                    match (earliest, arc.to == at) {
                        (true, true) => of[arc.from].slot + dur + arc.min,
                        (true, false) if arc.max < LONG => of[arc.to].slot - dur - arc.max,
                        (false, false) => net.slots - (of[arc.to].slot - dur - arc.min),
                        (false, true) if arc.max < LONG => net.slots - (of[arc.from].slot + dur + arc.max),
                        _ => NEVER,
                    }
                };
                let near = net.into[at].iter().chain(&net.out[at]);
                match near.max_by_key(|arc| pull(arc)).filter(|arc| pull(arc) > 0) {
                    Some(arc) => net.arcs[*arc].from + net.arcs[*arc].to - at,
                    None => break,
                }
            }
            _ => break,
        };
    }
    all
}
