//! Sizes of a tier and its places that are none, and too many layers.

use crate::number::limit;
use crate::stack::address::{Address, At};
use crate::stack::check::finding::{Finding, FindingCode, Mend, Said, Standing};
use crate::stack::document::{Layer, Tier, USUAL_LAYERS};
use crate::stack::onto::CoatLayer;
use crate::stack::place::{PlaceKind, is_a_body};
use crate::stack::shape::body::SIZES;
use crate::stack::size::size;

/// Sizes that are none, and too many layers.
pub fn sizes(at: usize, tier: &Tier) -> Vec<Finding> {
    let mut found = Vec::new();
    let here = |place: At| Address::In(at, place);
    let name = at + 1;
    if !is_a_body(&tier.body) {
        let [least, most] = SIZES;
        let bad = tier.body.sizes().into_iter().find(|(_, mm)| !(least..=most).contains(mm));
        let sentence = match bad {
            Some((_, mm)) => Said::with(
                format!("Tier {name} cannot be {} mm", limit(mm)),
                format!("each size is {least} to {most} mm."),
            ),
            None => Said::with(
                format!("Tier {name} has no such shape"),
                "its hole, corners or round part are larger than it is.",
            ),
        };
        found.push(Finding::new(FindingCode::NoSize, here(At::Body), Standing::Trouble, sentence));
    }
    if tier.layers.len() > USUAL_LAYERS {
        let sentence = Said::with(
            format!("Tier {name} has {} layers", tier.layers.len()),
            format!("more than {USUAL_LAYERS} do not stand as one tier. Part it."),
        );
        found.push(Finding::new(FindingCode::ManyLayers, here(At::Layers), Standing::Trouble, sentence).of(
            tier.layers.len() as f64,
            USUAL_LAYERS as f64,
            "layers",
        ));
    }
    if tier.layers.is_empty() {
        let sentence = Said::with(format!("Tier {name} has no layers yet"), "add a sponge or a filling.");
        found.push(Finding::new(FindingCode::NoLayers, here(At::Layers), Standing::Trouble, sentence));
    }
    let mut length = |what: &str, mm: f64, place: At, kind: PlaceKind, field: &str| {
        let Some(size) = size(kind, field) else { return };
        if !size.holds(mm) {
            let sentence = Said::with(
                format!(
                    "{what} of tier {name} is {} mm",
                    if mm.is_finite() { limit(mm) } else { "no".to_owned() },
                ),
                format!("write {}.", size.range()),
            );
            let words = format!("Set it to {} mm", limit(size.usual));
            let mend = Mend::set(words, here(place).field(field), size.usual);
            found.push(
                Finding::new(FindingCode::NoThickness, here(place), Standing::Trouble, sentence)
                    .mended(Some(mend)),
            );
        }
    };
    let open = matches!(tier.body.own_height_mm(), Some(height) if height.is_finite());
    for (k, layer) in tier.layers.iter().enumerate() {
        match layer {
            Layer::Sponge { thickness_mm, trim_mm, .. } => {
                length("A sponge", *thickness_mm, At::Layer(k), PlaceKind::Sponge, "thickness_mm");
                if *trim_mm != 0.0 {
                    length("The trimming of a sponge", *trim_mm, At::Layer(k), PlaceKind::Sponge, "trim_mm");
                }
            }
            Layer::Filling { thickness_mm, dam, inserts, .. } => {
                match thickness_mm {
                    Some(mm) => length("A filling", *mm, At::Layer(k), PlaceKind::Filling, "thickness_mm"),
                    None if !open => {
                        length("A filling", 0.0, At::Layer(k), PlaceKind::Filling, "thickness_mm")
                    }
                    None => {}
                }
                if let Some(dam) = dam {
                    length("The dam", dam.width_mm, At::Dam(k), PlaceKind::Dam, "width_mm");
                }
                for (i, insert) in inserts.iter().enumerate() {
                    length(
                        "An insert",
                        insert.thickness_mm,
                        At::Insert(k, i),
                        PlaceKind::Insert,
                        "thickness_mm",
                    );
                    length(
                        "An insert",
                        insert.diameter_mm,
                        At::Insert(k, i),
                        PlaceKind::Insert,
                        "diameter_mm",
                    );
                }
            }
        }
    }
    if let Some(film) = tier.case.as_ref().and_then(|case| case.film.as_ref()) {
        length("The film", film.thickness_mm, At::Film, PlaceKind::Film, "thickness_mm");
    }
    if let Some(pile) = tier.many.as_ref().and_then(|many| many.pile.as_ref()) {
        length("What holds a piece of the pile", pile.each_g, At::Pile, PlaceKind::Pile, "each_g");
    }
    let coats: [(&str, At, PlaceKind, &Option<CoatLayer>); 3] = [
        ("The crumb coat", At::CrumbCoat, PlaceKind::CrumbCoat, &tier.crumb_coat),
        ("The coat", At::Coat, PlaceKind::Coat, &tier.coat),
        ("The glaze", At::Glaze, PlaceKind::Glaze, &tier.glaze),
    ];
    for (what, place, kind, coat) in coats {
        if let Some(coat) = coat {
            length(what, coat.side_mm, place, kind, "side_mm");
        }
    }
    for (k, border) in tier.borders.iter().enumerate() {
        length("The nozzle of the border", border.tip_mm, At::Border(k), PlaceKind::Border, "tip_mm");
    }
    for (k, rosettes) in tier.rosettes.iter().enumerate() {
        length("A rosette", rosettes.diameter_mm, At::Rosettes(k), PlaceKind::Rosettes, "diameter_mm");
        length("A rosette", rosettes.height_mm, At::Rosettes(k), PlaceKind::Rosettes, "height_mm");
    }
    found
}
