//! Whether a case holds anything, and how long what is crisp stays so beside what is wet.

use crate::number::{limit, span_min};
use crate::stack::address::{Address, At};
use crate::stack::case::CaseForm;
use crate::stack::check::finding::{Finding, FindingCode, Mend, Said, Standing};
use crate::stack::check::scene::Scene;
use crate::stack::crisp::{SPREAD, crisp};
use crate::stack::document::{Layer, Tier};
use crate::stack::place::{PlaceKind, Spot, Stuff, is_a_body};

/// Wall and floor that are proposed, mm (common practice: 2.5 to 3.5).
const USUAL: f64 = 3.0;
/// The cold it stands in, °C.
const COLD_C: f64 = 4.0;
/// As long as this is all that anybody asks, h.
const LONG_H: f64 = 48.0;
/// Less water than this in a film of more fat than that keeps water back, mass fractions.
const FAT_FILM: [f64; 2] = [0.03, 0.3];

/// Cases that hold nothing.
pub fn hollow(at: usize, tier: &Tier) -> Option<Finding> {
    let case = tier.case.as_ref().filter(|_| is_a_body(&tier.body))?;
    if case.cavity(&tier.body).is_some() {
        return None;
    }
    let name = tier.body.words();
    let field = |name: &str| Address::In(at, At::Case).field(&format!("form.{name}"));
    let has_height = tier.body.own_height_mm().is_some();
    let (why, mend) = match case.form {
        _ if !has_height => {
            ("choose a round tin, a tray, a dome or a log: it needs a height.".to_owned(), None)
        }
        CaseForm::Shell { wall_mm, floor_mm, flutes_mm } => (
            format!(
                "a wall of {} mm and a floor of {} mm are as thick as the {name}.",
                limit(wall_mm + flutes_mm),
                limit(floor_mm)
            ),
            Some(
                Mend::set(format!("Set both to {USUAL} mm"), field("wall_mm"), USUAL)
                    .and(field("floor_mm"), USUAL)
                    .and(field("flutes_mm"), 0.0),
            ),
        ),
        CaseForm::Closed { wall_mm } | CaseForm::Tube { wall_mm } => (
            format!("a wall of {} mm leaves no room in the {name}.", limit(wall_mm)),
            Some(Mend::set(format!("Set it to {USUAL} mm"), field("wall_mm"), USUAL)),
        ),
        CaseForm::Cored { .. } => {
            (format!("the hole is wider or deeper than the {name}, or that is no round tin."), None)
        }
    };
    let mend = mend.filter(|_| {
        // Only what then holds something is proposed.
        let form = match case.form {
            CaseForm::Shell { .. } => CaseForm::Shell { wall_mm: USUAL, floor_mm: USUAL, flutes_mm: 0.0 },
            CaseForm::Closed { .. } => CaseForm::Closed { wall_mm: USUAL },
            _ => CaseForm::Tube { wall_mm: USUAL },
        };
        crate::stack::case::Case { form, ..case.clone() }.cavity(&tier.body).is_some()
    });
    let said = Said::with(format!("The case of tier {} leaves nothing to fill", at + 1), why);
    Some(Finding::new(FindingCode::NoHollow, Address::In(at, At::Case), Standing::Trouble, said).mended(mend))
}

/// What lies on something crisp: how wet it is, and what fat is between them, mm.
struct Wet {
    aw: f64,
    film_mm: f64,
    sides: f64,
}

/// How long each crisp place stays so.
pub fn crispness(scene: &Scene) -> Vec<Finding> {
    let mut found: Vec<Finding> = Vec::new();
    for spot in &scene.layout.spots {
        let Stuff::Bake(Some(key)) = spot.stuff else { continue };
        let Some(baked) = scene.makings.baked(Some(key)) else { continue };
        let Some(own) = crisp(&baked.sponge.key) else { continue };
        let Some(wet) = beside(scene, spot) else { continue };
        let thickness_mm = 10.0 * spot.thickness / wet.sides;
        let name = &baked.bake.name;
        let what = match spot.kind {
            PlaceKind::Case => format!("The case of {name}"),
            _ if wet.sides > 1.0 => format!("A layer of {name} between two fillings"),
            _ => format!("A layer of {name}"),
        };
        let Some(hours) = own.hours(thickness_mm, wet.aw, wet.film_mm, COLD_C) else { continue };
        let minutes = [60.0 * hours / SPREAD, 60.0 * hours * SPREAD];
        let cold = format!("at {} °C, an estimate", limit(COLD_C));
        let finding = if hours >= LONG_H {
            let said = Said::with(
                format!(
                    "{what} stays crisp beside its filling for about {} days",
                    limit((hours / 24.0).round())
                ),
                format!("{} {cold}.", span_min(minutes)),
            );
            Finding::new(FindingCode::StaysCrisp, spot.address(), Standing::Holds, said)
        } else {
            let keep = if wet.film_mm > 0.0 || !matches!(spot.kind, PlaceKind::Case) {
                "fill it late"
            } else {
                "fill it late, or lay a film of cocoa butter or chocolate in it"
            };
            let said = Said::with(
                format!("{what} softens {} after it is filled", span_min(minutes)),
                format!("water goes into it from the filling, {cold}: {keep}."),
            );
            Finding::new(FindingCode::Softens, spot.address(), Standing::Care, said)
        };
        // Sheets alike are told once.
        if !found.iter().any(|other| other.sentence == finding.sentence) {
            found.push(finding.of(hours, LONG_H, "h"));
        }
    }
    found
}

fn beside(scene: &Scene, spot: &Spot) -> Option<Wet> {
    let tier = &scene.document.tiers[spot.tier];
    let activity = |at: At| -> Option<f64> {
        let (_, other) = scene.spot(spot.tier, at)?;
        let (_, cream) = scene.cream_of(other)?;
        cream.predictor.base.serum.water_activity
    };
    match spot.kind {
        PlaceKind::Case => {
            let fillings = tier.layers.iter().enumerate();
            let wettest = fillings
                .filter(|(_, layer)| matches!(layer, Layer::Filling { .. }))
                .filter_map(|(k, _)| activity(At::Layer(k)))
                .fold(None, |most: Option<f64>, aw| Some(most.map_or(aw, |most| most.max(aw))))?;
            let mut wet = Wet { aw: wettest, film_mm: 0.0, sides: 1.0 };
            if let Some((_, film)) = scene.spot(spot.tier, At::Film)
                && let Some((_, cream)) = scene.cream_of(film)
            {
                let water = 0.01 * cream.phases.water;
                let fat = 0.01 * cream.phases.fat;
                if water < FAT_FILM[0] && fat > FAT_FILM[1] {
                    wet.film_mm = 10.0 * film.thickness;
                } else if let Some(aw) = cream.predictor.base.serum.water_activity {
                    wet.aw = wet.aw.min(aw);
                }
            }
            Some(wet)
        }
        PlaceKind::Sponge => {
            let k = spot.at.layer()?;
            let above = activity(At::Layer(k + 1));
            let below = k.checked_sub(1).and_then(|below| activity(At::Layer(below)));
            let sides = f64::from(u8::from(above.is_some()) + u8::from(below.is_some()));
            let aw = above.into_iter().chain(below).fold(0.0, f64::max);
            (sides > 0.0).then_some(Wet { aw, film_mm: 0.0, sides })
        }
        _ => None,
    }
}
