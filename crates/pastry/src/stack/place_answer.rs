//! A place as the page shows it: what it is, how much, where it lies, and what one millimetre more costs.

use crate::number::{digits, hundredths, limit, on_a_scale, weighed_g};
use crate::stack::check::covers::drip_band;
use crate::stack::check::finding::{Finding, Standing};
use crate::stack::check::scene::Scene;
use crate::stack::document::Layer;
use crate::stack::place::{PlaceKind, Spot, Stuff};
use crate::stack::shape::cover;
use serde::Serialize;
use utoipa::ToSchema;

/// A field of a place that a hand turns up and down.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Step {
    /// What it is: "height", "side", "drips".
    pub word: String,
    /// Its path in the document.
    pub path: String,
    /// What it is now.
    pub value: f64,
    /// One step of it.
    pub by: f64,
    /// Its unit: "mm", "ml", empty for a count.
    pub unit: String,
    /// Grams that one step more takes.
    pub more_g: f64,
    /// The same in words: "6 mm: 28 g more".
    pub words: String,
}

/// A place.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PlaceAnswer {
    /// Its path in the document.
    pub path: String,
    /// Its tier, from 0.
    pub tier: usize,
    /// What it is.
    pub kind: PlaceKind,
    /// Its name: of the component, the bake or the pieces; none while nobody said.
    pub name: Option<String>,
    /// Key of its component.
    pub component: Option<String>,
    /// Key of its bake.
    pub bake: Option<String>,
    /// The colour it is drawn in, "#rrggbb"; none while nobody said.
    pub tint: Option<String>,
    /// From and to above the board, mm.
    pub z_mm: [f64; 2],
    /// Height of a layer, thickness of a coat, nozzle of a border, mm.
    pub thickness_mm: f64,
    /// Across the outline it lies on, mm.
    pub across_mm: f64,
    /// Its volume, ml; of a soak, what the syrup takes up.
    pub volume_ml: f64,
    /// As a scale shows it, g.
    pub grams: f64,
    /// Density the grams rest on, g/ml.
    pub density_g_per_ml: Option<f64>,
    /// Width of a dam's ring or of one rosette, mm.
    pub width_mm: Option<f64>,
    /// Whether it lies on the top: a border round the upper edge.
    pub on_top: bool,
    /// How many of them.
    pub count: u32,
    /// How deep a soak gets, mm.
    pub depth_mm: Option<f64>,
    /// The rim a soak leaves dry, mm.
    pub dry_rim_mm: Option<f64>,
    /// Lengths of drips as they are to be expected, mm.
    pub drips_mm: Vec<f64>,
    /// In one line: "Filling 6 mm, 126 g in a dam".
    pub words: String,
    /// What a hand turns.
    pub steps: Vec<Step>,
    /// How it stands.
    pub standing: Standing,
}

/// All places of a cake.
pub fn place_answers(scene: &Scene, findings: &[Finding]) -> Vec<PlaceAnswer> {
    (0..scene.layout.spots.len()).map(|at| place_answer(scene, at, findings)).collect()
}

fn place_answer(scene: &Scene, at: usize, findings: &[Finding]) -> PlaceAnswer {
    let (spot, amount) = (&scene.layout.spots[at], &scene.amounts[at]);
    let (name, component, bake, tint) = match spot.stuff {
        Stuff::Component(key) => {
            let cream = scene.makings.cream(key);
            (cream.map(|c| c.name()), key.map(str::to_owned), None, cream.map(|c| c.tint.clone()))
        }
        Stuff::Bake(key) => {
            let baked = scene.makings.baked(key);
            let name = baked.map(|b| b.bake.name.clone());
            (name, None, key.map(str::to_owned), baked.map(|b| b.tint.clone()))
        }
        Stuff::Pieces => {
            let pieces = spot.at.number().and_then(|at| scene.document.tiers[spot.tier].pieces.get(at));
            (pieces.map(|own| own.name.clone()), None, None, None)
        }
    };
    // The place itself, and for a dam or a soak, its layer's own findings stay with the layer.
    let standing = findings
        .iter()
        .filter(|finding| finding.place == spot.address())
        .map(|finding| finding.standing)
        .max()
        .unwrap_or(Standing::Holds);
    let drips_mm = drips(scene, spot);
    PlaceAnswer {
        words: words(scene, spot, amount.grams),
        path: spot.address().to_string(),
        tier: spot.tier,
        kind: spot.kind,
        name,
        component,
        bake,
        tint,
        z_mm: spot.z.map(|z| digits(10.0 * z)),
        thickness_mm: digits(10.0 * spot.thickness),
        across_mm: digits(across(spot)),
        volume_ml: digits(match amount.soak {
            Some(_) => amount.exact_g / amount.density.unwrap_or(1.0),
            None => spot.volume,
        }),
        grams: amount.grams,
        density_g_per_ml: amount.density.map(digits),
        width_mm: width(scene, spot),
        on_top: spot.on_top > 0.0,
        count: spot.count,
        depth_mm: amount.soak.map(|soak| digits(soak.depth_mm)),
        dry_rim_mm: dry_rim(scene, spot),
        drips_mm,
        steps: steps(scene, at),
        standing,
    }
}

/// Across what a place lies on, mm: of a circle its diameter, else that of a circle as large.
fn across(spot: &Spot) -> f64 {
    use crate::stack::shape::footprint::Footprint::{Rectangle, Ring, Round};
    10.0 * match spot.outline {
        Round { diameter } | Ring { diameter, .. } => diameter,
        Rectangle { length, .. } => length,
        other => 2.0 * (other.area() / std::f64::consts::PI).sqrt(),
    }
}

fn dry_rim(scene: &Scene, spot: &Spot) -> Option<f64> {
    match (spot.kind, spot.layer(scene.document)?) {
        (PlaceKind::Soak, Layer::Sponge { soak: Some(soak), .. }) => Some(soak.dry_rim_mm),
        _ => None,
    }
}

/// Width of a dam's ring or of one rosette, mm.
fn width(scene: &Scene, spot: &Spot) -> Option<f64> {
    match (spot.kind, spot.layer(scene.document)) {
        (PlaceKind::Dam, Some(Layer::Filling { dam: Some(dam), .. })) => Some(dam.width_mm),
        (PlaceKind::Rosettes, _) => {
            let at = spot.at.number()?;
            scene.document.tiers[spot.tier].rosettes.get(at).map(|own| own.diameter_mm)
        }
        _ => None,
    }
}

/// Drips as they are to be expected: spread evenly over the middle of the band, in an order without a pattern.
fn drips(scene: &Scene, spot: &Spot) -> Vec<f64> {
    let Some(drip) = scene.document.tiers[spot.tier].drip.as_ref().filter(|_| spot.kind == PlaceKind::Drip)
    else {
        return Vec::new();
    };
    let Some((_, cream)) = scene.cream_of(spot) else { return Vec::new() };
    let [low, middle, high] = drip_band(drip, cream);
    (1..=spot.count.min(400))
        .map(|k| {
            // Steps of the golden section fill an interval evenly.
            let share = (f64::from(k) * 0.618_033_988_749_895).fract();
            // Half of the 90 % band: what one hand varies on one cake (assumed).
            let (from, to) = (0.5 * (low + middle), 0.5 * (middle + high));
            digits(if share < 0.5 {
                from + 2.0 * share * (middle - from)
            } else {
                middle + (2.0 * share - 1.0) * (to - middle)
            })
        })
        .collect()
}

fn words(scene: &Scene, spot: &Spot, grams: f64) -> String {
    let count = scene.document.tiers[spot.tier].count();
    if count > 1 && grams > 0.0 && spot.kind != PlaceKind::Pile {
        let each = limit_grams(on_a_scale(grams / f64::from(count)));
        return match spot.kind {
            // A bag is put down when the scale shows what each takes.
            PlaceKind::Filling => format!("Filling, {each} g in each of {count}: {} g", limit_grams(grams)),
            kind => {
                format!("{}, {each} g each of {count}: {} g", sentence_case(kind.word()), limit_grams(grams))
            }
        };
    }
    let mm = limit((100.0 * spot.thickness).round() / 10.0);
    let g = if grams > 0.0 { format!("{} g", limit_grams(grams)) } else { "nothing yet".to_owned() };
    match spot.kind {
        PlaceKind::Sponge => format!("Sponge {mm} mm, {g}"),
        PlaceKind::Soak => format!("Soak, {g}"),
        PlaceKind::Filling => {
            let dam = matches!(spot.layer(scene.document), Some(Layer::Filling { dam: Some(_), .. }));
            format!("Filling {mm} mm, {g}{}", if dam { " in a dam" } else { "" })
        }
        PlaceKind::Dam => format!("Dam, {g}"),
        PlaceKind::Insert => format!("Insert {mm} mm, {g}"),
        PlaceKind::CrumbCoat => format!("Crumb coat {mm} mm, {g}"),
        PlaceKind::Coat => format!("Coat {mm} mm, {g}"),
        PlaceKind::Glaze => format!("Glaze {mm} mm, {g}"),
        PlaceKind::Drip => format!("{} drips, {g}", spot.count),
        PlaceKind::Border => format!("Border of {mm} mm, {g}"),
        PlaceKind::Rosettes => format!("{} piped, {g}", spot.count),
        PlaceKind::Pieces => format!("{} pieces, {g}", spot.count),
        PlaceKind::Case => format!("Case {mm} mm, {g}"),
        PlaceKind::Film => format!("Film {mm} mm, {g}"),
        PlaceKind::Pile => format!("Holds {} pieces together, {g}", spot.count),
    }
}

fn sentence_case(word: &str) -> String {
    let mut chars = word.chars();
    chars.next().map_or_else(String::new, |first| first.to_uppercase().chain(chars).collect())
}

/// A number with two decimals at most.
fn written(value: f64) -> String {
    format!("{}", hundredths(value))
}

/// Grams without a comma, as a scale shows them.
pub fn limit_grams(grams: f64) -> String {
    let shown = weighed_g(grams);
    if shown >= 10.0 && shown.fract().abs() < 1e-9 { format!("{shown:.0}") } else { format!("{shown}") }
}

/// What a hand turns at a place, each with what one step more takes.
fn steps(scene: &Scene, at: usize) -> Vec<Step> {
    let (spot, amount) = (&scene.layout.spots[at], &scene.amounts[at]);
    // One step of one piece is a step of all of them.
    let pieces = f64::from(scene.document.tiers[spot.tier].count());
    let density = pieces * amount.density.unwrap_or(0.0);
    let step = |word: &str, field: &str, value: f64, by: f64, unit: &str, more_g: f64| {
        let more = on_a_scale(more_g.max(0.0));
        let next = written(value + by);
        let gap = if unit.is_empty() { "" } else { " " };
        Step {
            word: word.to_owned(),
            path: spot.field(field),
            value,
            by,
            unit: unit.to_owned(),
            more_g: more,
            words: if more > 0.0 {
                format!("{next}{gap}{unit}: {} g more", limit_grams(more))
            } else {
                String::new()
            },
        }
    };
    let tier = &scene.document.tiers[spot.tier];
    let slice = spot.outline.area() * 0.1 * density;
    match (spot.kind, spot.layer(scene.document)) {
        (PlaceKind::Sponge, Some(Layer::Sponge { thickness_mm, .. })) => {
            vec![step("height", "thickness_mm", *thickness_mm, 1.0, "mm", slice)]
        }
        (PlaceKind::Soak, Some(Layer::Sponge { soak: Some(soak), .. })) => {
            let now = amount.soak.map_or(0.0, |soak| soak.gram_per_gram);
            let value = soak.gram_per_gram.unwrap_or(hundredths(now));
            let more = amount.soak.map_or(0.0, |soak| 0.05 * soak.sponge_g);
            vec![step("syrup on sponge", "gram_per_gram", value, 0.05, "g/g", more)]
        }
        (PlaceKind::Filling, Some(Layer::Filling { thickness_mm: Some(mm), .. })) => {
            let share = if spot.thickness > 0.0 {
                spot.volume / (pieces * spot.outline.area() * spot.thickness)
            } else {
                1.0
            };
            vec![step("height", "thickness_mm", *mm, 1.0, "mm", share * slice)]
        }
        (PlaceKind::Dam, Some(Layer::Filling { dam: Some(dam), .. })) => {
            let inside = |mm: f64| spot.outline.grown(-0.1 * mm).area();
            let wider = (inside(dam.width_mm) - inside(dam.width_mm + 1.0)) * spot.thickness * density;
            vec![step("width", "width_mm", dam.width_mm, 1.0, "mm", wider)]
        }
        (PlaceKind::Insert, Some(Layer::Filling { inserts, .. })) => {
            let own = spot.at.number().and_then(|k| inserts.get(k));
            own.map(|own| vec![step("height", "thickness_mm", own.thickness_mm, 1.0, "mm", slice)])
                .unwrap_or_default()
        }
        (PlaceKind::CrumbCoat | PlaceKind::Coat | PlaceKind::Glaze, _) => {
            let own = match spot.kind {
                PlaceKind::CrumbCoat => &tier.crumb_coat,
                PlaceKind::Coat => &tier.coat,
                _ => &tier.glaze,
            };
            let Some(own) = own else { return Vec::new() };
            let inside = spot.outline.grown(-spot.thickness);
            let top = 0.1 * own.top_mm.unwrap_or(own.side_mm);
            let height = spot.z[1] - spot.z[0] - top;
            let thicker = |by: f64| {
                let top = if own.top_mm.is_some() { top } else { top + by };
                if tier.body.stands() {
                    cover::coat(&inside, height, spot.thickness + by, top)
                } else {
                    tier.body.coat(height, spot.thickness + by, top)
                }
            };
            let by = if spot.kind == PlaceKind::Coat { 1.0 } else { 0.5 };
            let more = if inside.area() > 0.0 { (thicker(0.1 * by) - thicker(0.0)) * density } else { 0.0 };
            vec![step("side", "side_mm", own.side_mm, by, "mm", more)]
        }
        (PlaceKind::Drip, _) => {
            let Some(drip) = &tier.drip else { return Vec::new() };
            vec![
                step("drips", "count", f64::from(spot.count) / pieces, 1.0, "", drip.dose_ml * density),
                step(
                    "dose",
                    "dose_ml",
                    drip.dose_ml,
                    0.05,
                    "ml",
                    0.05 * f64::from(spot.count) / pieces * density,
                ),
            ]
        }
        (PlaceKind::Border, _) => {
            let own = spot.at.number().and_then(|k| tier.borders.get(k));
            own.map(|own| {
                let volume = |tip: f64| cover::border(own.style, spot.outline.perimeter(), tip);
                let more = (volume(0.1 * own.tip_mm + 0.1) - volume((0.1 * own.tip_mm).max(1e-6))) * density;
                vec![step("nozzle", "tip_mm", own.tip_mm, 1.0, "mm", more)]
            })
            .unwrap_or_default()
        }
        (PlaceKind::Rosettes, _) => {
            let own = spot.at.number().and_then(|k| tier.rosettes.get(k));
            own.map(|own| {
                let each = cover::rosette(0.1 * own.diameter_mm, 0.1 * own.height_mm) * density;
                vec![
                    step("pieces", "count", f64::from(own.count), 1.0, "", each),
                    step(
                        "height",
                        "height_mm",
                        own.height_mm,
                        1.0,
                        "mm",
                        amount.exact_g / own.height_mm.max(1.0),
                    ),
                ]
            })
            .unwrap_or_default()
        }
        (PlaceKind::Pieces, _) => {
            let own = spot.at.number().and_then(|k| tier.pieces.get(k));
            own.map(|own| vec![step("pieces", "count", f64::from(own.count), 1.0, "", pieces * own.each_g)])
                .unwrap_or_default()
        }
        _ => Vec::new(),
    }
}
