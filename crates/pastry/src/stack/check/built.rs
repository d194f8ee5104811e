//! Whether a cake is built at all: places without a component, sizes that are none, tiers that overhang, vessels
//! that run over, what was forgotten, and what it must fit into.

use crate::number::limit;
use crate::stack::address::{Address, At};
use crate::stack::check::cases::hollow;
use crate::stack::check::finding::{Finding, FindingCode, Mend, Said, Standing};
use crate::stack::check::scene::Scene;
use crate::stack::check::sizes::sizes;
use crate::stack::document::{Layer, Tier};
use crate::stack::place::{PlaceKind, Stuff, is_a_body};
use crate::stack::shape::body::Body;

/// How far a tier may stand out over the one below, mm: its coat's own unevenness.
const OVERHANG: f64 = 2.0;

/// Everything wrong with how it is built, and what it must fit into.
pub fn built(scene: &Scene) -> Vec<Finding> {
    let mut found = unlinked(scene);
    for (at, tier) in scene.document.tiers.iter().enumerate() {
        found.extend(sizes(at, tier));
        found.extend(hollow(at, tier));
        found.extend(vessel(scene, at, tier));
        found.extend(inserts(scene, at, tier));
        found.extend(forgotten(scene, at, tier));
    }
    found.extend(overhangs(scene));
    found.extend(fits(scene));
    found
}

/// Places nobody gave a component, or one that cannot be found or worked out.
fn unlinked(scene: &Scene) -> Vec<Finding> {
    let mut found = Vec::new();
    for spot in &scene.layout.spots {
        let what = spot.kind.word();
        let tier = spot.tier + 1;
        let open =
            |sentence: Said| Finding::new(FindingCode::Unlinked, spot.address(), Standing::Trouble, sentence);
        match spot.stuff {
            Stuff::Component(None) => {
                found.push(open(Said::with(
                    format!("The {what} of tier {tier} has no formula yet"),
                    "choose one.",
                )));
            }
            Stuff::Bake(None) => found.push(open(Said::with(
                format!("A {what} of tier {tier} is not baked yet"),
                "choose what it is.",
            ))),
            Stuff::Component(Some(key)) => match scene.makings.creams.get(key) {
                None => found.push(open(Said::with(
                    format!("The {what} of tier {tier} points to a formula that is not here"),
                    "choose another.",
                ))),
                Some(Err(faults)) => found.push(open(Said::with(
                    format!("The formula of the {what} of tier {tier} cannot be worked out"),
                    format!(
                        "{}.",
                        faults.first().map_or("look at it on the Bench", |fault| fault.message.as_str())
                    ),
                ))),
                Some(Ok(_)) => {}
            },
            Stuff::Bake(Some(key)) => match scene.makings.bakes.get(key) {
                None => found.push(open(Said::with(
                    format!("A {what} of tier {tier} points to a bake that is not here"),
                    "choose another.",
                ))),
                Some(Err(faults)) => found.push(open(Said::with(
                    format!("The bake of a {what} of tier {tier} cannot be worked out"),
                    format!(
                        "{}.",
                        faults.first().map_or("look at its lines", |fault| fault.message.as_str())
                    ),
                ))),
                Some(Ok(_)) => {}
            },
            Stuff::Pieces => {}
        }
    }
    found
}

/// A vessel that runs over, or that nothing fills.
fn vessel(scene: &Scene, at: usize, tier: &Tier) -> Vec<Finding> {
    let layout = &scene.layout.tiers[at];
    let mut found = Vec::new();
    let Some(brim) = layout.brim else { return found };
    let name = tier.container.as_ref().map_or_else(|| tier.body.words(), |container| container.name.clone());
    if layout.over_ml > 0.05 {
        let over = 10.0 * (layout.inner - brim);
        // The highest layer that can give way for it.
        let mend = tier.layers.iter().enumerate().rev().find_map(|(k, layer)| {
            let (Layer::Filling { thickness_mm: Some(mm), .. } | Layer::Sponge { thickness_mm: mm, .. }) =
                layer
            else {
                return None;
            };
            let left = (2.0 * (mm - over)).floor() / 2.0;
            (left >= 2.0).then(|| {
                Mend::set(
                    format!("Set that layer to {} mm", limit(left)),
                    Address::In(at, At::Layer(k)).field("thickness_mm"),
                    left,
                )
            })
        });
        let sentence = Said::with(
            format!("{name} is too small"),
            format!(
                "{} ml stand over its {}, {} mm too high.",
                limit(layout.over_ml.round().max(1.0)),
                if tier.container.as_ref().is_some_and(|c| c.headspace_mm > 0.0) {
                    "headspace"
                } else {
                    "rim"
                },
                limit((10.0 * over).round() / 10.0)
            ),
        );
        found.push(
            Finding::new(FindingCode::RunsOver, Address::In(at, At::Tier), Standing::Trouble, sentence)
                .of(10.0 * layout.inner, 10.0 * brim, "mm")
                .mended(mend),
        );
    }
    if layout.rest == Some(0.0) {
        let sentence = Said::with(
            format!("Nothing is left in {name} for the layer that takes the rest"),
            "lower another.",
        );
        found.push(Finding::new(
            FindingCode::NoRest,
            Address::In(at, At::Layers),
            Standing::Trouble,
            sentence,
        ));
    }
    found
}

/// Discs that are larger than what they are set into.
fn inserts(scene: &Scene, at: usize, tier: &Tier) -> Vec<Finding> {
    let layout = &scene.layout.tiers[at];
    let mut found = Vec::new();
    for spot in scene.layout.spots.iter().filter(|spot| spot.tier == at && spot.kind == PlaceKind::Insert) {
        let filling = spot.at.layer().and_then(|layer| scene.spot(at, At::Layer(layer)));
        let Some((_, filling)) = filling else { continue };
        let top = spot.z[1] - layout.z[0];
        let room = 2.0 * tier.body.half_width(top.min(layout.inner));
        let across = 2.0 * (spot.outline.area() / std::f64::consts::PI).sqrt();
        if spot.z[1] > filling.z[1] + 1e-6 || across > room + 1e-6 {
            let sentence = Said::with(
                format!("The insert of {} mm does not fit", limit(10.0 * across)),
                format!(
                    "at its top there are {} mm, and it must stay inside its filling.",
                    limit((10.0 * room).floor())
                ),
            );
            let smaller = (10.0 * room - 6.0).floor();
            let mend = (spot.z[1] <= filling.z[1] + 1e-6 && smaller >= 5.0).then(|| {
                Mend::set(format!("Make it {} mm", limit(smaller)), spot.field("diameter_mm"), smaller)
            });
            let finding =
                Finding::new(FindingCode::InsertTooLarge, spot.address(), Standing::Trouble, sentence);
            found.push(finding.of(10.0 * across, 10.0 * room, "mm").mended(mend));
        }
    }
    found
}

/// What a cook may have forgotten.
fn forgotten(scene: &Scene, at: usize, tier: &Tier) -> Vec<Finding> {
    let mut found = Vec::new();
    for spot in scene.layout.spots.iter().filter(|spot| spot.tier == at && spot.kind == PlaceKind::Soak) {
        if spot.outline.area() <= 0.0 && scene.layout.tiers[at].inner > 0.0 {
            let sentence = Said::with(
                format!("The dry rim of a soak in tier {} leaves nothing to soak", at + 1),
                "make it narrower.",
            );
            let mend = Mend::set("Leave 10 mm dry", spot.field("dry_rim_mm"), 10.0);
            found.push(
                Finding::new(FindingCode::AllRim, spot.address(), Standing::Trouble, sentence)
                    .mended(Some(mend)),
            );
        }
    }
    let nth = |k: usize| Address::In(at, At::Layer(k));
    for (k, pair) in tier.layers.windows(2).enumerate() {
        if let [Layer::Sponge { .. }, Layer::Sponge { .. }] = pair {
            let sentence =
                format!("Sponges {} and {} of tier {} have nothing between them.", k + 1, k + 2, at + 1);
            found.push(Finding::new(FindingCode::NothingBetween, nth(k + 1), Standing::Care, sentence));
        }
    }
    for (k, layer) in tier.layers.iter().enumerate() {
        if let Layer::Sponge { bake: Some(key), soak: None, .. } = layer
            && let Some(baked) = scene.makings.baked(Some(key))
            && baked.sponge.light >= 0.2
        {
            let sentence = format!(
                "{} in tier {} is not soaked; a {} is dry without.",
                baked.bake.name,
                at + 1,
                baked.sponge.word
            );
            found.push(Finding::new(FindingCode::NotSoaked, nth(k), Standing::Care, sentence));
        }
    }
    found
}

/// Tiers wider than what they stand on.
fn overhangs(scene: &Scene) -> Vec<Finding> {
    let tiers = &scene.document.tiers;
    let width = |at: usize| {
        let layout = &scene.layout.tiers[at];
        10.0 * (tiers[at].body.half_width(0.0) + layout.side) * 2.0
    };
    let top_width = |at: usize| {
        let layout = &scene.layout.tiers[at];
        10.0 * (tiers[at].body.half_width(layout.inner) + layout.side) * 2.0
    };
    (1..tiers.len())
        .filter(|at| is_a_body(&tiers[*at].body) && is_a_body(&tiers[at - 1].body))
        .filter_map(|at| {
            let (above, below) = (width(at), top_width(at - 1));
            if above <= below + OVERHANG {
                return None;
            }
            let sentence = Said::with(
                format!(
                    "Tier {} is {} mm across and stands on {} mm",
                    at + 1,
                    limit(above.round()),
                    limit(below.round())
                ),
                "a tier is no wider than the one below.",
            );
            let mend = narrower(tiers, at, above - below);
            Some(
                Finding::new(FindingCode::Overhangs, Address::In(at, At::Tier), Standing::Trouble, sentence)
                    .of(above, below, "mm")
                    .mended(mend),
            )
        })
        .collect()
}

/// A tier and those on it brought in by so many mm, in whole centimetres.
fn narrower(tiers: &[Tier], at: usize, by_mm: f64) -> Option<Mend> {
    let width = |body: &Body| 20.0 * body.half_width(0.0);
    let own = width(&tiers[at].body);
    let factor = 1.0 - by_mm / own;
    let size = |mm: f64| (0.1 * mm * factor + 1e-9).floor() * 10.0;
    let smaller = |body: Body| body.with_outline(size, 10.0);
    let narrow = smaller(tiers[at].body);
    if !tiers[at].body.stands() || !is_a_body(&narrow) || width(&narrow) < 50.0 {
        return None;
    }
    // Those above would stand out over it then.
    let with_it: Vec<usize> = (at + 1..tiers.len())
        .take_while(|above| width(&tiers[*above].body) > width(&narrow) && tiers[*above].body.stands())
        .collect();
    let words = match narrow {
        Body::Round { diameter_mm } | Body::Ring { diameter_mm, .. } => {
            format!("Make it {} mm", limit(diameter_mm))
        }
        other => format!("Make it a {}", other.words()),
    };
    let and = if with_it.is_empty() { "" } else { ", and what stands on it with it" };
    let body_at = |tier: usize| Address::In(tier, At::Body).to_string();
    let mend = Mend::set(format!("{words}{and}"), body_at(at), narrow);
    Some(with_it.into_iter().fold(mend, |mend, tier| mend.and(body_at(tier), smaller(tiers[tier].body))))
}

/// What it must fit: collars, the smoother, the box, the board.
fn fits(scene: &Scene) -> Vec<Finding> {
    let (document, tiers) = (scene.document, &scene.layout.tiers);
    let mut found = Vec::new();
    let mut over =
        |code: FindingCode, place: Address, what: String, has: f64, needs: f64, mend: Option<Mend>| {
            if has.is_finite() && has > 0.0 && needs > has {
                let sentence =
                    Said::with(what, format!("{} mm, and it takes {}.", limit(has), limit(needs.ceil())));
                found.push(
                    Finding::new(code, place, Standing::Care, sentence).of(needs, has, "mm").mended(mend),
                );
            }
        };
    for (at, tier) in tiers.iter().enumerate() {
        let height = 10.0 * (tier.z[1] - tier.z[0]);
        if let Some(collar) = document.tiers[at].collar_mm {
            let what = format!("The collar of tier {} is too low", at + 1);
            let mend = Mend::set(
                format!("Take one of {} mm", limit((height + 5.0).ceil())),
                Address::In(at, At::Tier).field("collar_mm"),
                (height + 5.0).ceil(),
            );
            over(FindingCode::Collar, Address::In(at, At::Tier), what, collar, height, Some(mend));
        }
        if let Some(smoother) = document.smoother_mm.filter(|_| document.tiers[at].coat.is_some()) {
            let what = format!("The smoother does not reach over the side of tier {}", at + 1);
            over(FindingCode::Smoother, Address::In(at, At::Coat), what, smoother, height, None);
        }
    }
    let tall = tiers.last().map_or(0.0, |tier| 10.0 * tier.z[1])
        + document.tiers.iter().flat_map(|tier| &tier.rosettes).map(|r| r.height_mm).fold(0.0, f64::max);
    let wide = document
        .tiers
        .iter()
        .zip(tiers)
        .map(|(tier, layout)| {
            let foot = tier.borders.iter().map(|border| border.tip_mm).fold(0.0, f64::max);
            20.0 * (if layout.inner > 0.0 { tier.body.half_width(0.0) } else { 0.0 } + layout.side)
                + 2.0 * foot
        })
        .fold(0.0, f64::max);
    if let Some([width, height]) = document.box_mm {
        over(
            FindingCode::BoxLow,
            Address::Whole("box_mm"),
            "The box is too low".to_owned(),
            height,
            tall + 5.0,
            None,
        );
        let base = wide.max(document.board_mm.unwrap_or(0.0));
        over(
            FindingCode::BoxNarrow,
            Address::Whole("box_mm"),
            "The box is too narrow".to_owned(),
            width,
            base,
            None,
        );
    }
    if let Some(board) = document.board_mm {
        let mend = Mend::set(
            format!("Take one of {} mm", limit((wide + 20.0).ceil())),
            "board_mm",
            (wide + 20.0).ceil(),
        );
        over(
            FindingCode::Board,
            Address::Whole("board_mm"),
            "The board is too narrow".to_owned(),
            board,
            wide,
            Some(mend),
        );
    }
    found
}
