//! The whole cake in another tin, or for another number of people.

use crate::fault::{Fault, FaultCode};
use crate::number::limit;
use crate::stack::answer::{StackAnswer, stack};
use crate::stack::case::MOST_PIECES;
use crate::stack::cream::Known;
use crate::stack::document::{Layer, StackDocument};
use crate::stack::place::is_a_body;
use crate::stack::shape::body::Body;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Tins come in steps of this, mm.
const TIN_STEP: f64 = 10.0;

/// A cake and what it is brought to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ResizeAsk {
    /// The cake.
    pub document: StackDocument,
    /// Its new size.
    pub to: ResizeTo,
    /// The room it is eaten in, °C.
    #[serde(default = "usual_room")]
    #[schema(minimum = 0, maximum = 45)]
    pub room_c: f64,
}

fn usual_room() -> f64 {
    21.0
}

/// What a cake is brought to.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "to", rename_all = "snake_case")]
pub enum ResizeTo {
    /// Another tin or mould for the lowest tier; the others follow.
    Tin {
        /// Its shape and size.
        body: Body,
    },
    /// So many portions at least.
    Servings {
        /// How many.
        #[schema(minimum = 1, maximum = 2000)]
        servings: u32,
    },
}

/// The cake at its new size.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Resized {
    /// The cake.
    pub document: StackDocument,
    /// How many times as heavy.
    pub factor: f64,
    /// Portions before and after.
    pub portions: [u32; 2],
    /// In one sentence.
    pub sentence: String,
    /// How many of it are to be made: more than one where a piece is a portion.
    pub pieces: u32,
}

/// Brings a cake to another size: outlines grow, heights stay; in a vessel of another height layers keep their
/// share of it.
///
/// # Errors
/// Faults of the cake; a tin that is none; a cake with nothing in it.
pub fn resize(ask: &ResizeAsk, known: &Known) -> Result<Resized, Vec<Fault>> {
    let now = stack(&ask.document, known, ask.room_c)?;
    let fault = |field: &str, code: FaultCode, words: &str| Err(vec![Fault::new(field, code, words)]);
    let first = &ask.document.tiers[0].body;
    if !is_a_body(first) {
        return fault(
            "document.tiers.0.body",
            FaultCode::NoSize,
            "its lowest tier has no size yet: write one first",
        );
    }
    // What is moulded or filled has the size of its mould: there are more of it, not larger ones.
    let single = ask.document.tiers.iter().all(|tier| !tier.body.stands());
    match ask.to {
        ResizeTo::Tin { body } => {
            if !is_a_body(&body) {
                return fault("to.body", FaultCode::NoSize, "that is no tin: each size is 10 to 1,500 mm");
            }
            let document = in_tin(&ask.document, &body);
            let then = stack(&document, known, ask.room_c)?;
            Ok(resized(document, &now, &then, 1, format!("From a {} to a {}", first.words(), body.words())))
        }
        ResizeTo::Servings { servings } if !(1..=2000).contains(&servings) => {
            fault("to.servings", FaultCode::OutOfRange, "ask for 1 to 2,000 portions")
        }
        ResizeTo::Servings { .. } if now.finished_g <= 0.0 => fault(
            "document",
            FaultCode::NothingInIt,
            "nothing in it has a weight yet: choose what its places are made of",
        ),
        ResizeTo::Servings { servings } if ask.document.tiers.iter().any(|tier| tier.many.is_some()) => {
            let mut document = ask.document.clone();
            for many in document.tiers.iter_mut().filter_map(|tier| tier.many.as_mut()) {
                let share = f64::from(many.counted()) / f64::from(now.portions.max(1));
                many.count = ((f64::from(servings) * share).ceil() as u32).clamp(1, MOST_PIECES);
            }
            let then = stack(&document, known, ask.room_c)?;
            let words = format!("{} of them", then.portions);
            Ok(resized(document, &now, &then, 1, words))
        }
        ResizeTo::Servings { servings } if single => {
            let each = now.portions.max(1);
            let pieces = servings.div_ceil(each);
            let words = format!("{pieces} of them");
            Ok(resized(ask.document.clone(), &now, &now, pieces, words))
        }
        ResizeTo::Servings { servings } => {
            let mut scale = (f64::from(servings) * now.portion_g / now.finished_g).sqrt();
            // A tray that was cut by rows is cut into pieces as heavy as those.
            let mut loose = ask.document.clone();
            if loose.tiers.iter().any(|tier| tier.cut.is_some()) {
                loose.portion_g = Some(now.portion_g);
                loose.tiers.iter_mut().for_each(|tier| tier.cut = None);
            }
            for _ in 0..40 {
                let document = wider(&loose, scale, TIN_STEP);
                let then = stack(&document, known, ask.room_c)?;
                if then.portions >= servings {
                    let words = format!(
                        "For {servings}: the lowest tier becomes a {}",
                        document.tiers[0].body.words()
                    );
                    return Ok(resized(document, &now, &then, 1, words));
                }
                scale *= 1.02;
            }
            fault(
                "to.servings",
                FaultCode::OutOfRange,
                "so many portions take more than one cake: make several",
            )
        }
    }
}

fn resized(
    document: StackDocument,
    now: &StackAnswer,
    then: &StackAnswer,
    pieces: u32,
    words: String,
) -> Resized {
    let factor = then.finished_g * f64::from(pieces) / now.finished_g.max(1e-9);
    let portions = [now.portions, then.portions * pieces];
    let sentence = format!(
        "{words}: {} times as much, {} portions instead of {}.",
        limit_two(factor),
        portions[1],
        portions[0]
    );
    Resized { document, factor, portions, sentence, pieces }
}

fn limit_two(value: f64) -> String {
    if value < 10.0 { format!("{value:.2}") } else { limit(value) }
}

/// The lowest tier in another tin, the others as much wider.
fn in_tin(document: &StackDocument, body: &Body) -> StackDocument {
    let old = &document.tiers[0].body;
    let scale = (body.section(0.0).area() / old.section(0.0).area()).sqrt();
    let mut next = wider(document, scale, 5.0);
    next.tiers[0].body = *body;
    // Another depth: layers keep their share of it.
    if let (Some(was), Some(is)) = (old.own_height_mm(), body.own_height_mm()) {
        for layer in &mut next.tiers[0].layers {
            match layer {
                Layer::Sponge { thickness_mm, .. } => *thickness_mm = half(*thickness_mm * is / was),
                Layer::Filling { thickness_mm, inserts, .. } => {
                    *thickness_mm = thickness_mm.map(|mm| half(mm * is / was));
                    for insert in inserts {
                        insert.thickness_mm = half(insert.thickness_mm * is / was);
                        insert.above_mm = half(insert.above_mm * is / was);
                    }
                }
            }
        }
    }
    next
}

/// Half millimetres.
fn half(mm: f64) -> f64 {
    (2.0 * mm).round() / 2.0
}

/// Every outline so many times as wide, in steps of a tin; what is counted follows edge or area.
fn wider(document: &StackDocument, scale: f64, step: f64) -> StackDocument {
    let mut next = document.clone();
    let size = |mm: f64| ((mm * scale / step).round() * step).max(step);
    let times = |count: u32, by: f64| ((f64::from(count) * by).round() as u32).max(1);
    for tier in &mut next.tiers {
        tier.body = tier.body.with_outline(size, step);
        for layer in &mut tier.layers {
            if let Layer::Filling { inserts, .. } = layer {
                for insert in inserts {
                    insert.diameter_mm = (insert.diameter_mm * scale).round();
                }
            }
        }
        if let Some(drip) = &mut tier.drip {
            drip.count = drip.count.map(|count| times(count, scale));
        }
        for rosettes in &mut tier.rosettes {
            rosettes.count = times(rosettes.count, scale);
        }
        for pieces in &mut tier.pieces {
            pieces.count = times(pieces.count, scale * scale);
        }
        if let Some(dowels) = &mut tier.dowels {
            dowels.count = times(dowels.count, scale * scale).max(4);
        }
    }
    next.board_mm = next.board_mm.map(size);
    next.box_mm = next.box_mm.map(|[width, height]| [size(width), height]);
    next
}
