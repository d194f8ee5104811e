//! Whether a cake is built at all: places without a component, sizes that are none, tiers that overhang, vessels
//! that run over, what was forgotten, and what it must fit into.

use crate::number::limit;
use crate::stack::check::finding::{Finding, FindingCode, Mend, Standing};
use crate::stack::check::scene::Scene;
use crate::stack::document::{Layer, Tier, USUAL_LAYERS};
use crate::stack::onto::CoatLayer;
use crate::stack::place::{PlaceKind, Stuff, is_a_body};
use crate::stack::shape::body::{Body, SIZES};

/// How far a tier may stand out over the one below, mm: its coat's own unevenness.
const OVERHANG: f64 = 2.0;
/// Thickness proposed where none was written, mm.
const USUAL_LAYER: f64 = 10.0;

/// Everything wrong with how it is built, and what it must fit into.
pub fn built(scene: &Scene) -> Vec<Finding> {
    let mut found = unlinked(scene);
    for (at, tier) in scene.document.tiers.iter().enumerate() {
        found.extend(sizes(at, tier));
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
            |sentence: String| Finding::new(FindingCode::Unlinked, &spot.path, Standing::Trouble, sentence);
        match spot.stuff {
            Stuff::Component(None) => {
                found.push(open(format!("The {what} of tier {tier} has no formula yet: choose one.")));
            }
            Stuff::Bake(None) => {
                found.push(open(format!("A {what} of tier {tier} is not baked yet: choose what it is.")))
            }
            Stuff::Component(Some(key)) => match scene.makings.creams.get(key) {
                None => found.push(open(format!(
                    "The {what} of tier {tier} points to a formula that is not here: choose another."
                ))),
                Some(Err(faults)) => found.push(open(format!(
                    "The formula of the {what} of tier {tier} cannot be worked out: {}.",
                    faults.first().map_or("look at it on the Bench", |fault| fault.message.as_str())
                ))),
                Some(Ok(_)) => {}
            },
            Stuff::Bake(Some(key)) => match scene.makings.bakes.get(key) {
                None => found.push(open(format!(
                    "A {what} of tier {tier} points to a bake that is not here: choose another."
                ))),
                Some(Err(faults)) => found.push(open(format!(
                    "The bake of a {what} of tier {tier} cannot be worked out: {}.",
                    faults.first().map_or("look at its lines", |fault| fault.message.as_str())
                ))),
                Some(Ok(_)) => {}
            },
            Stuff::Pieces => {}
        }
    }
    found
}

/// Sizes that are none, and too many layers.
fn sizes(at: usize, tier: &Tier) -> Vec<Finding> {
    let mut found = Vec::new();
    let path = format!("tiers.{at}");
    let name = at + 1;
    if !is_a_body(&tier.body) {
        let [least, most] = SIZES;
        let bad = tier.body.sizes().into_iter().find(|(_, mm)| !(least..=most).contains(mm));
        let sentence = match bad {
            Some((_, mm)) => {
                format!("Tier {name} cannot be {} mm: each size is {least} to {most} mm.", limit(mm))
            }
            None => format!(
                "Tier {name} has no such shape: its hole, corners or round part are larger than it is."
            ),
        };
        found.push(Finding::new(FindingCode::NoSize, format!("{path}.body"), Standing::Trouble, sentence));
    }
    if tier.layers.len() > USUAL_LAYERS {
        let sentence = format!(
            "Tier {name} has {} layers: more than {USUAL_LAYERS} do not stand as one tier. Part it.",
            tier.layers.len()
        );
        found.push(
            Finding::new(FindingCode::ManyLayers, format!("{path}.layers"), Standing::Trouble, sentence).of(
                tier.layers.len() as f64,
                USUAL_LAYERS as f64,
                "layers",
            ),
        );
    }
    if tier.layers.is_empty() {
        let sentence = format!("Tier {name} has no layers yet: add a sponge or a filling.");
        found.push(Finding::new(
            FindingCode::NoLayers,
            format!("{path}.layers"),
            Standing::Trouble,
            sentence,
        ));
    }
    let mut length = |what: &str, mm: f64, field: String, least: f64, usual: f64| {
        if !(least..=1000.0).contains(&mm) {
            let sentence = format!(
                "{what} of tier {name} is {} mm: write {} to 1,000 mm.",
                if mm.is_finite() { limit(mm) } else { "no".to_owned() },
                limit(least)
            );
            let mend = Mend::set(format!("Set it to {} mm", limit(usual)), field.clone(), usual);
            let place = field.rsplit_once('.').map_or(field.clone(), |(place, _)| place.to_owned());
            found.push(
                Finding::new(FindingCode::NoThickness, place, Standing::Trouble, sentence).mended(Some(mend)),
            );
        }
    };
    let open = matches!(tier.body.own_height_mm(), Some(height) if height.is_finite());
    for (k, layer) in tier.layers.iter().enumerate() {
        let here = format!("{path}.layers.{k}");
        match layer {
            Layer::Sponge { thickness_mm, trim_mm, .. } => {
                length("A sponge", *thickness_mm, format!("{here}.thickness_mm"), 0.5, 20.0);
                if *trim_mm != 0.0 {
                    length("The trimming of a sponge", *trim_mm, format!("{here}.trim_mm"), 0.1, 5.0);
                }
            }
            Layer::Filling { thickness_mm, dam, inserts, .. } => {
                match thickness_mm {
                    Some(mm) => length("A filling", *mm, format!("{here}.thickness_mm"), 0.5, USUAL_LAYER),
                    None if !open => {
                        length("A filling", 0.0, format!("{here}.thickness_mm"), 0.5, USUAL_LAYER)
                    }
                    None => {}
                }
                if let Some(dam) = dam {
                    length("The dam", dam.width_mm, format!("{here}.dam.width_mm"), 1.0, 12.0);
                }
                for (i, insert) in inserts.iter().enumerate() {
                    length(
                        "An insert",
                        insert.thickness_mm,
                        format!("{here}.inserts.{i}.thickness_mm"),
                        0.5,
                        10.0,
                    );
                    length(
                        "An insert",
                        insert.diameter_mm,
                        format!("{here}.inserts.{i}.diameter_mm"),
                        5.0,
                        40.0,
                    );
                }
            }
        }
    }
    let coats: [(&str, &str, &Option<CoatLayer>); 3] = [
        ("The crumb coat", "crumb_coat", &tier.crumb_coat),
        ("The coat", "coat", &tier.coat),
        ("The glaze", "glaze", &tier.glaze),
    ];
    for (what, field, coat) in coats {
        if let Some(coat) = coat {
            length(what, coat.side_mm, format!("{path}.{field}.side_mm"), 0.1, 5.0);
        }
    }
    for (k, border) in tier.borders.iter().enumerate() {
        length("The nozzle of the border", border.tip_mm, format!("{path}.borders.{k}.tip_mm"), 1.0, 10.0);
    }
    for (k, rosettes) in tier.rosettes.iter().enumerate() {
        length("A rosette", rosettes.diameter_mm, format!("{path}.rosettes.{k}.diameter_mm"), 2.0, 25.0);
        length("A rosette", rosettes.height_mm, format!("{path}.rosettes.{k}.height_mm"), 1.0, 20.0);
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
                    format!("tiers.{at}.layers.{k}.thickness_mm"),
                    left,
                )
            })
        });
        let sentence = format!(
            "{name} is too small: {} ml stand over its {}, {} mm too high.",
            limit(layout.over_ml.round().max(1.0)),
            if tier.container.as_ref().is_some_and(|c| c.headspace_mm > 0.0) { "headspace" } else { "rim" },
            limit((10.0 * over).round() / 10.0)
        );
        found.push(
            Finding::new(FindingCode::RunsOver, format!("tiers.{at}"), Standing::Trouble, sentence)
                .of(10.0 * layout.inner, 10.0 * brim, "mm")
                .mended(mend),
        );
    }
    if layout.rest == Some(0.0) {
        let sentence = format!("Nothing is left in {name} for the layer that takes the rest: lower another.");
        found.push(Finding::new(
            FindingCode::NoRest,
            format!("tiers.{at}.layers"),
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
        let filling = spot.path.split(".inserts").next().and_then(|path| scene.spot(path));
        let Some((_, filling)) = filling else { continue };
        let top = spot.z[1] - layout.z[0];
        let room = 2.0 * tier.body.half_width(top.min(layout.inner));
        let across = 2.0 * (spot.outline.area() / std::f64::consts::PI).sqrt();
        if spot.z[1] > filling.z[1] + 1e-6 || across > room + 1e-6 {
            let sentence = format!(
                "The insert of {} mm does not fit: at its top there are {} mm, and it must stay inside its filling.",
                limit(10.0 * across),
                limit((10.0 * room).floor())
            );
            let smaller = (10.0 * room - 6.0).floor();
            let mend = (spot.z[1] <= filling.z[1] + 1e-6 && smaller >= 5.0).then(|| {
                Mend::set(
                    format!("Make it {} mm", limit(smaller)),
                    format!("{}.diameter_mm", spot.path),
                    smaller,
                )
            });
            let finding = Finding::new(FindingCode::InsertTooLarge, &spot.path, Standing::Trouble, sentence);
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
            let sentence =
                format!("The dry rim of a soak in tier {} leaves nothing to soak: make it narrower.", at + 1);
            let mend = Mend::set("Leave 10 mm dry", format!("{}.dry_rim_mm", spot.path), 10.0);
            found.push(
                Finding::new(FindingCode::AllRim, &spot.path, Standing::Trouble, sentence).mended(Some(mend)),
            );
        }
    }
    let path = |k: usize| format!("tiers.{at}.layers.{k}");
    for (k, pair) in tier.layers.windows(2).enumerate() {
        if let [Layer::Sponge { .. }, Layer::Sponge { .. }] = pair {
            let sentence =
                format!("Sponges {} and {} of tier {} have nothing between them.", k + 1, k + 2, at + 1);
            found.push(Finding::new(FindingCode::NothingBetween, path(k + 1), Standing::Care, sentence));
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
            found.push(Finding::new(FindingCode::NotSoaked, path(k), Standing::Care, sentence));
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
            let sentence = format!(
                "Tier {} is {} mm across and stands on {} mm: a tier is no wider than the one below.",
                at + 1,
                limit(above.round()),
                limit(below.round())
            );
            let field = match tiers[at].body {
                Body::Round { diameter_mm } | Body::Ring { diameter_mm, .. } => {
                    Some(("diameter_mm", diameter_mm))
                }
                Body::Rectangle { length_mm, .. } => Some(("length_mm", length_mm)),
                _ => None,
            };
            let mend = field.and_then(|(name, mm)| {
                let narrow = ((mm - (above - below)) / 10.0).floor() * 10.0;
                (narrow >= 50.0).then(|| {
                    Mend::set(
                        format!("Make it {} mm", limit(narrow)),
                        format!("tiers.{at}.body.{name}"),
                        narrow,
                    )
                })
            });
            Some(
                Finding::new(FindingCode::Overhangs, format!("tiers.{at}"), Standing::Trouble, sentence)
                    .of(above, below, "mm")
                    .mended(mend),
            )
        })
        .collect()
}

/// What it must fit: collars, the smoother, the box, the board.
fn fits(scene: &Scene) -> Vec<Finding> {
    let (document, tiers) = (scene.document, &scene.layout.tiers);
    let mut found = Vec::new();
    let mut over =
        |code: FindingCode, place: String, what: String, has: f64, needs: f64, mend: Option<Mend>| {
            if has.is_finite() && has > 0.0 && needs > has {
                let sentence = format!("{what}: {} mm, and it takes {}.", limit(has), limit(needs.ceil()));
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
                format!("tiers.{at}.collar_mm"),
                (height + 5.0).ceil(),
            );
            over(FindingCode::Collar, format!("tiers.{at}"), what, collar, height, Some(mend));
        }
        if let Some(smoother) = document.smoother_mm.filter(|_| document.tiers[at].coat.is_some()) {
            let what = format!("The smoother does not reach over the side of tier {}", at + 1);
            over(FindingCode::Smoother, format!("tiers.{at}.coat"), what, smoother, height, None);
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
            "box_mm".to_owned(),
            "The box is too low".to_owned(),
            height,
            tall + 5.0,
            None,
        );
        let base = wide.max(document.board_mm.unwrap_or(0.0));
        over(
            FindingCode::BoxNarrow,
            "box_mm".to_owned(),
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
            "board_mm".to_owned(),
            "The board is too narrow".to_owned(),
            board,
            wide,
            Some(mend),
        );
    }
    found
}
