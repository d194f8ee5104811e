//! The whole answer to a cake: how large, how much of everything, whether it stands.

use crate::caution::{Caution, CautionAnswer};
use crate::fault::Fault;
use crate::ingredient::Diet;
use crate::number::{hundredths, limit};
use crate::rheology::warning::WarningCode;
use crate::stack::amount::{amounts, tier_g};
use crate::stack::case::CutInto;
use crate::stack::check::bears::bears;
use crate::stack::check::built::built;
use crate::stack::check::cases::crispness;
use crate::stack::check::covers::covers;
use crate::stack::check::finding::{Finding, FindingCode, Standing};
use crate::stack::check::known::known;
use crate::stack::check::scene::Scene;
use crate::stack::cream::{Known, Makings};
use crate::stack::document::{Layer, StackDocument};
use crate::stack::no_cake::faults;
use crate::stack::onto::Dowels;
use crate::stack::part::{PartAnswer, parts};
use crate::stack::place::{Layout, PlaceKind, is_a_body};
use crate::stack::place_answer::{PlaceAnswer, place_answers};
use crate::stack::shape::cut::{Cut, cut};
use serde::Serialize;
use std::f64::consts::PI;
use utoipa::ToSchema;

/// Weight of a portion of a cake, g (common practice: 80 to 120).
pub const PORTION_G: f64 = 100.0;
/// A moulded or filled piece up to this is one portion, g (assumed).
pub const WHOLE_PIECE_G: f64 = 250.0;
/// Steps in which the outline of a round body is given.
const PROFILE: usize = 24;

/// A tier as it stands.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TierAnswer {
    /// What it is: "round of 180 mm".
    pub words: String,
    /// From the board to its foot and to its top, mm.
    pub z_mm: [f64; 2],
    /// Height of its layers, mm.
    pub inner_mm: f64,
    /// Its coats on the side, mm.
    pub side_mm: f64,
    /// Its coats on the top, mm.
    pub top_mm: f64,
    /// Half its width without coats at heights above its foot, mm: pairs of height and half width.
    pub profile_mm: Vec<[f64; 2]>,
    /// Across with its coats at the foot, mm.
    pub across_mm: f64,
    /// Everything in and on it, g.
    pub mass_g: f64,
    /// Height it can be filled to, mm; none for what has no rim.
    pub brim_mm: Option<f64>,
    /// Height of its own walls, mm; none for what has none.
    pub wall_mm: Option<f64>,
    /// Rolled up.
    pub rolled: bool,
    /// Dowels in it.
    pub dowels: Option<Dowels>,
    /// Half the width of the hollow of its case at heights above its foot, mm; none without a case.
    pub hollow_mm: Option<Vec<[f64; 2]>>,
    /// How many pieces it stands for.
    pub count: u32,
    /// Height and width of one of them, mm.
    pub piece_mm: [f64; 2],
    /// Pieces in each row of a pile, the top one first; none when they stand loose.
    pub rows: Option<Vec<u32>>,
}

/// The answer to a cake.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct StackAnswer {
    /// Its name.
    pub name: String,
    /// Whether it stands, in one sentence.
    pub headline: String,
    /// What is behind it.
    pub detail: String,
    /// How it stands on the whole.
    pub standing: Standing,
    /// Height, mm.
    pub height_mm: f64,
    /// Across at its widest, mm.
    pub width_mm: f64,
    /// Finished, g: the sum of its places.
    pub finished_g: f64,
    /// Portions of it.
    pub portions: u32,
    /// Weight of one, g.
    pub portion_g: f64,
    /// Drips on it.
    pub drips: u32,
    /// Temperature it is eaten at, °C.
    pub serve_c: f64,
    /// Its tiers, the lowest first.
    pub tiers: Vec<TierAnswer>,
    /// Its places, as they are made.
    pub places: Vec<PlaceAnswer>,
    /// What it takes of each component and bake.
    pub parts: Vec<PartAnswer>,
    /// What is found, trouble first.
    pub findings: Vec<Finding>,
    /// How each tier is cut, the lowest first.
    pub cuts: Vec<Cut>,
    /// Allergens of all of it.
    pub allergens: Vec<String>,
    /// Who may eat it.
    pub diet: Diet,
    /// What can hurt, in words.
    pub cautions: Vec<CautionAnswer>,
    /// What is not known of it: its allergens, lists and cost are not whole while anything stands here.
    pub incomplete: Vec<String>,
}

/// Works a cake out in a room of `room_c` °C.
///
/// # Errors
/// Only what is no cake at all: another format, no tiers, far too many. All else is a finding at its place.
pub fn stack(document: &StackDocument, known: &Known, room_c: f64) -> Result<StackAnswer, Vec<Fault>> {
    let wrong = faults(document);
    if !wrong.is_empty() {
        return Err(wrong);
    }
    let makings = Makings::of(document, known);
    Ok(stack_of(document, &makings, room_c))
}

/// The same from what is already looked up.
pub fn stack_of(document: &StackDocument, makings: &Makings, room_c: f64) -> StackAnswer {
    let layout = Layout::of(document);
    let amounts = amounts(document, &layout, makings);
    let room_c = if room_c.is_finite() { room_c.clamp(0.0, 45.0) } else { 21.0 };
    let scene = Scene { document, layout: &layout, makings, amounts: &amounts, room_c };
    let mut findings = built(&scene);
    findings.extend(known(&scene));
    findings.extend(bears(&scene));
    findings.extend(covers(&scene));
    findings.extend(crispness(&scene));
    findings.sort_by_key(|finding| std::cmp::Reverse(finding.standing));
    let places = place_answers(&scene, &findings);
    let parts = parts(&scene, &places);
    let finished_g = hundredths(places.iter().map(|place| place.grams).sum());
    let tiers = tier_answers(&scene);
    let (portions, portion_g) = portions(document, finished_g);
    let (headline, detail) = verdict(&findings, &scene);
    let mut allergens: Vec<String> = makings
        .straight()
        .flat_map(|cream| cream.allergens.iter())
        .chain(makings.bakes.values().flatten().flat_map(|baked| baked.allergens.iter()))
        .cloned()
        .chain(document.tiers.iter().flat_map(|tier| &tier.pieces).flat_map(|pieces| {
            let found = pieces.ingredient.as_deref().and_then(|key| makings.shelf.find(key));
            found.map(|ingredient| ingredient.allergens.clone()).unwrap_or_default()
        }))
        .collect();
    allergens.sort();
    allergens.dedup();
    StackAnswer {
        name: document.name.clone(),
        headline,
        detail,
        standing: findings.first().map_or(Standing::Holds, |finding| finding.standing),
        height_mm: tiers.last().map_or(0.0, |tier| tier.z_mm[1]),
        width_mm: tiers.iter().map(|tier| tier.across_mm).fold(0.0, f64::max),
        finished_g,
        portions,
        portion_g,
        drips: layout.spots.iter().filter(|spot| spot.kind == PlaceKind::Drip).map(|spot| spot.count).sum(),
        serve_c: scene.serve_c(),
        cuts: cuts(&scene, portions, finished_g),
        tiers,
        places,
        parts,
        diet: diet_of(makings, document),
        incomplete: incomplete(document, makings, &findings),
        cautions: cautions(makings, &allergens),
        findings,
        allergens,
    }
}

/// Portions, and the weight of one, g: what the cook wrote; pieces as they are counted, a tray as it is cut; else by the weight
/// of a portion.
fn portions(document: &StackDocument, finished_g: f64) -> (u32, f64) {
    let counted: u32 = document
        .tiers
        .iter()
        .filter_map(|tier| match (&tier.many, tier.cut) {
            (Some(many), _) => Some(many.counted()),
            (None, Some(cut)) => Some(cut.counted().iter().product()),
            (None, None) => None,
        })
        .sum();
    if counted > 0 {
        return (counted, hundredths(finished_g / f64::from(counted)));
    }
    // A small mould or jar is eaten by one; a larger one is cut as a cake is.
    let whole = document.tiers.iter().all(|tier| !tier.body.stands()) && finished_g <= WHOLE_PIECE_G;
    let usual = if whole { finished_g } else { PORTION_G };
    let portion_g = document.portion_g.filter(|g| g.is_finite() && *g > 0.0).unwrap_or(usual);
    (if portion_g > 0.0 { (finished_g / portion_g + 1e-9).floor() as u32 } else { 0 }, portion_g)
}

/// Heights at which an outline is given, of its whole: closer together at foot and top, where round bodies turn in.
fn share(k: usize, steps: usize) -> f64 {
    0.5 - 0.5 * (PI * k as f64 / steps as f64).cos()
}

fn tier_answers(scene: &Scene) -> Vec<TierAnswer> {
    scene
        .document
        .tiers
        .iter()
        .zip(&scene.layout.tiers)
        .enumerate()
        .map(|(at, (tier, layout))| {
            let good = is_a_body(&tier.body);
            let own = tier.body.own_height_mm().filter(|_| good);
            let up_to = own.map_or(layout.inner, |mm| (0.1 * mm).max(layout.inner));
            let half = |z: f64| if good { tier.body.half_width(z) } else { 0.0 };
            let steps = if tier.body.stands() { 1 } else { PROFILE };
            let rolled = matches!(tier.body, crate::stack::shape::body::Body::Roll { .. });
            TierAnswer {
                words: match tier.count() {
                    1 => tier.container.as_ref().map_or_else(|| tier.body.words(), |own| own.name.clone()),
                    n => format!("{n} of them, each a {}", tier.body.words()),
                },
                z_mm: layout.z.map(|z| 10.0 * z),
                inner_mm: 10.0 * layout.inner,
                side_mm: 10.0 * layout.side,
                top_mm: 10.0 * layout.top,
                profile_mm: (0..=steps)
                    .map(|k| {
                        let z = up_to * share(k, steps);
                        [10.0 * z, 10.0 * if rolled { 0.5 * layout.inner } else { half(z) }]
                    })
                    .collect(),
                across_mm: match tier.many.as_ref().filter(|many| many.pile.is_some()) {
                    Some(many) => {
                        let wide = 2.0 * (half(0.0).max(half(up_to)).max(half(0.5 * up_to)) + layout.side);
                        10.0 * crate::stack::case::pile(many.counted(), [1.0, wide])[1]
                    }
                    None => {
                        let own = half(0.0).max(half(up_to)).max(half(0.5 * up_to));
                        20.0 * (if rolled { 0.5 * layout.inner } else { own } + layout.side)
                    }
                },
                mass_g: tier_g(scene.layout, scene.amounts, at),
                brim_mm: layout.brim.map(|brim| 10.0 * brim),
                wall_mm: own,
                rolled,
                dowels: tier.dowels,
                hollow_mm: tier.case.as_ref().filter(|_| good).and_then(|case| case.cavity(&tier.body)).map(
                    |(hollow, base)| {
                        let high = 0.1 * hollow.own_height_mm().unwrap_or(0.0);
                        let at = |k: usize| high * share(k, PROFILE);
                        let points = (0..=PROFILE).map(at);
                        points.map(|z| [10.0 * (base + z), 10.0 * hollow.half_width(z)]).collect()
                    },
                ),
                count: tier.count(),
                piece_mm: [
                    10.0 * (layout.inner + layout.top),
                    20.0 * (half(0.0).max(half(up_to)).max(half(0.5 * up_to)) + layout.side),
                ],
                rows: tier
                    .many
                    .as_ref()
                    .filter(|many| many.pile.is_some())
                    .map(|many| crate::stack::case::rows(many.counted())),
            }
        })
        .collect()
}

/// The verdict: the worst thing found, before its colon; what is behind it, after.
fn verdict(findings: &[Finding], scene: &Scene) -> (String, String) {
    let (t_c, when) = scene.warmest();
    let many = |standing: Standing| findings.iter().filter(|finding| finding.standing == standing).count();
    let (trouble, care) = (many(Standing::Trouble), many(Standing::Care));
    let worst = findings.first().filter(|finding| finding.standing == Standing::Trouble);
    match worst {
        Some(finding) => {
            let mut detail = finding.said.rest.clone();
            if let Some(first) = detail.get(..1).map(str::to_uppercase) {
                detail.replace_range(..1, &first);
            }
            if trouble > 1 {
                let gap = if detail.is_empty() { "" } else { " " };
                detail.push_str(&format!("{gap}And {} more to mend.", trouble - 1));
            }
            (finding.said.head.clone(), detail)
        }
        None => {
            let headline = match care {
                0 => format!("It stands at {t_c:.1} °C"),
                1 => format!("It stands at {t_c:.1} °C; one thing to mind"),
                n => format!("It stands at {t_c:.1} °C; {n} things to mind"),
            };
            let tall = scene.layout.tiers.last().map_or(0.0, |tier| 10.0 * tier.z[1]);
            let detail = match care {
                0 => format!("Everything in its {} mm holds {when}.", limit(tall.round())),
                _ => findings.first().map(|finding| finding.sentence.clone()).unwrap_or_default(),
            };
            (headline, detail)
        }
    }
}

/// What is not known of a cake, so that its lists, labels and cost are not whole: places without a formula that can be
/// worked out, batters that are not written, pieces that are no ingredient.
fn incomplete(document: &StackDocument, makings: &Makings, findings: &[Finding]) -> Vec<String> {
    let mut said: Vec<String> = findings
        .iter()
        .filter(|own| own.code == FindingCode::Unlinked)
        .map(|own| own.sentence.clone())
        .collect();
    for tier in &document.tiers {
        let of_layers = tier.layers.iter().filter_map(|layer| match layer {
            Layer::Sponge { bake, .. } => bake.as_ref(),
            Layer::Filling { .. } => None,
        });
        for key in of_layers.chain(tier.case.iter().filter_map(|case| case.bake.as_ref())) {
            if let Some(baked) = makings.baked(Some(key)).filter(|baked| baked.lines.is_empty()) {
                let name = named(&baked.bake.name, "bake");
                said.push(format!("The batter of {name} is not written: what is in it is not known."));
            }
        }
        for pieces in &tier.pieces {
            if pieces.ingredient.as_deref().and_then(|key| makings.shelf.find(key)).is_none() {
                let name = named(&pieces.name, "pieces");
                said.push(format!("{name} is no ingredient of the pantry: what is in it is not known."));
            }
        }
    }
    let mut once: Vec<String> = Vec::new();
    for words in said {
        if !once.contains(&words) {
            once.push(words);
        }
    }
    once
}

fn named(name: &str, other: &str) -> String {
    if name.trim().is_empty() {
        format!("a {other} without a name")
    } else {
        format!("“{}”", name.trim())
    }
}

/// Each tier cut into its part of the portions, by weight.
fn cuts(scene: &Scene, portions: u32, finished_g: f64) -> Vec<Cut> {
    (0..scene.document.tiers.len())
        .filter(|at| is_a_body(&scene.document.tiers[*at].body))
        .map(|at| {
            let body = &scene.document.tiers[at].body;
            let layout = &scene.layout.tiers[at];
            let own = tier_g(scene.layout, scene.amounts, at) / finished_g.max(1e-9);
            let tier = &scene.document.tiers[at];
            let part = match (&tier.many, tier.cut) {
                (Some(_), _) => 1,
                (None, Some(cut)) => cut.counted().iter().product(),
                (None, None) => (own * f64::from(portions) + 1e-6).floor() as u32,
            };
            let outline = if matches!(body, crate::stack::shape::body::Body::Roll { .. }) || body.stands() {
                layout.outside
            } else {
                body.section(0.0).grown(layout.side)
            };
            cut(at, &outline, part.max(1), tier.cut.filter(|_| tier.many.is_none()).map(CutInto::counted))
        })
        .collect()
}

fn diet_of(makings: &Makings, document: &StackDocument) -> Diet {
    let mut diet = Diet { vegan: true, vegetarian: true, no_pork: true, no_alcohol: true };
    let mut meet = |other: Diet| {
        diet.vegan &= other.vegan;
        diet.vegetarian &= other.vegetarian;
        diet.no_pork &= other.no_pork;
        diet.no_alcohol &= other.no_alcohol;
    };
    for cream in makings.straight() {
        meet(cream.diet);
    }
    for baked in makings.bakes.values().flatten() {
        meet(crate::ingredient::diet(
            baked.lines.iter().map(|line| (line.ingredient.as_ref(), line.mass.grams())),
        ));
    }
    for pieces in document.tiers.iter().flat_map(|tier| &tier.pieces) {
        if let Some(ingredient) = pieces.ingredient.as_deref().and_then(|key| makings.shelf.find(key)) {
            meet(crate::ingredient::diet(std::iter::once((ingredient.as_ref(), pieces.each_g))));
        }
    }
    diet
}

fn cautions(makings: &Makings, allergens: &[String]) -> Vec<CautionAnswer> {
    let raw = makings
        .straight()
        .any(|cream| cream.warnings.iter().any(|warning| warning.code == WarningCode::EggRaw));
    let cold = allergens.iter().any(|allergen| allergen == "milk" || allergen == "egg");
    [(raw, Caution::RawEgg), (cold, Caution::Cold)]
        .into_iter()
        .filter(|(holds, _)| *holds)
        .map(|(_, caution)| caution.into())
        .collect()
}
