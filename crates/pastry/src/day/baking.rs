//! A bake: mix, oven in rounds, turn out, cool on a rack, wrap.

use crate::day::draft::{Act, Draft, Lag};
use crate::day::kitchen::{KitchenDocument, Skill};
use crate::day::making::{Made, RACK, place_of};
use crate::method::gear::Resource;
use crate::method::step::{LimitClass, Spot};
use crate::stack::baking::{Baking, Mixed, SHEET_MM, baking};
use crate::stack::cream::Baked;
use crate::units::Minutes;

/// A tray of an oven, cm² (60 by 40 cm, common practice), and how much of it is used round tins (assumed).
const TRAY_CM2: f64 = 2400.0;
const USED: f64 = 0.85;
/// Less wide than this it is cut out of a sheet, mm (common practice).
const DISC_MM: f64 = 100.0;
/// Cooling on a rack: minutes, and more for each mm of height (assumed).
const COOLS: [f64; 2] = [20.0, 1.0];
/// It dries on the rack after so long, min (assumed).
const DRIES: f64 = 240.0;

/// Pieces of one size that are baked.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Piece {
    /// Its area, cm².
    pub area_cm2: f64,
    /// The area with the tin round it, cm².
    pub tin_cm2: f64,
    /// Its height, mm.
    pub height_mm: f64,
    /// How wide it is, mm.
    pub across_mm: f64,
    /// How many.
    pub count: u32,
}

/// Trays that pieces fill.
fn trays(pieces: &[Piece]) -> i32 {
    let area = |piece: &Piece| {
        let sheet = piece.height_mm < SHEET_MM || piece.across_mm < DISC_MM;
        f64::from(piece.count) * if sheet { piece.area_cm2 / 0.9 } else { piece.tin_cm2 }
    };
    ((pieces.iter().map(area).sum::<f64>() / (USED * TRAY_CM2)).ceil() as i32).max(1)
}

/// The key of an oven.
pub fn oven_key(at: usize) -> String {
    match at {
        0 => Resource::Oven.word().to_owned(),
        at => format!("{} {}", Resource::Oven.word(), at + 1),
    }
}

/// Puts a bake on the draft.
///
/// # Arguments
/// * `kg`: of batter; `oven`: which of the kitchen's.
pub fn bake(
    draft: &mut Draft,
    (order, name): (usize, &str),
    (baked, kg): (&Baked, f64),
    pieces: &[Piece],
    (kitchen, oven): (&KitchenDocument, usize),
) -> Made {
    let Some(own) = baking(&baked.sponge.key) else { return Made::default() };
    let height = pieces.iter().map(|piece| piece.height_mm).fold(0.0, f64::max);
    let across = pieces.iter().map(|piece| piece.across_mm).fold(0.0, f64::max);
    let as_sheet = height < SHEET_MM || across < DISC_MM;
    let Some((_, heat)) = own.oven(if as_sheet { height.min(SHEET_MM - 1.0) } else { height }) else {
        return Made::default();
    };
    let minutes = heat.base.minutes() + heat.per_mm.minutes() * height;
    let bakes = Some(Skill::Bake.word().to_owned());
    let mut mix = Act::by_hand(order, name, &format!("Mix {name}"), mix_min(own, kg));
    if own.mixed == Mixed::Mixer {
        mix.uses.insert(Resource::Mixer.word().to_owned(), 1);
    }
    mix.skill = bakes.clone();
    let mix = draft.act(mix);
    let all = trays(pieces);
    let at_once = kitchen.equipment.ovens_trays.get(oven).map_or(1, |trays| (*trays as i32).max(1));
    let rounds = (all + at_once - 1) / at_once;
    let within = own.oven_within.map_or(20.0, Minutes::minutes);
    let mut outs = Vec::new();
    for round in 0..rounds {
        let trays = (all - round * at_once).min(at_once);
        let which = if rounds > 1 { format!(", round {} of {rounds}", round + 1) } else { String::new() };
        let in_oven = draft.act(Act {
            hands: false,
            uses: [(oven_key(oven), trays)].into(),
            setup: Some(format!("{} °C", crate::number::limit(heat.c))),
            ..Act::by_hand(
                order,
                name,
                &format!("Bake {name} at {} °C{which}", crate::number::limit(heat.c)),
                minutes,
            )
        });
        // Later rounds wait for the oven; what may not wait is mixed again by the cook, who sees it.
        let later = f64::from(round) * (minutes + 10.0);
        match own.before {
            None => draft.goes_on(mix, in_oven, within + later, LimitClass::Quality),
            Some(before) => {
                let [least, most] = before.minutes.map(Minutes::minutes);
                let spot = if before.c < 10.0 { Spot::Fridge } else { Spot::Room };
                let area = TRAY_CM2 * f64::from(trays);
                let place = place_of(Some(spot), area.min(TRAY_CM2 * 2.0), 60.0, kitchen);
                let word = if before.c > 15.0 { "rises" } else { "rests in the cold" };
                draft.stands(mix, in_oven, word, [least, most + later], place);
            }
        }
        let pieces: u32 = pieces.iter().map(|piece| piece.count).sum();
        let minutes = (2.0 + 0.5 * f64::from(pieces) / f64::from(rounds)).min(15.0);
        let out = draft.act(Act {
            skill: bakes.clone(),
            ..Act::by_hand(order, name, &format!("Turn {name} out{which}"), minutes)
        });
        draft.goes_on(in_oven, out, 5.0, LimitClass::Quality);
        outs.push((out, trays));
    }
    let (wrap, cools) =
        (draft.act(Act::by_hand(order, name, &format!("Wrap {name}"), 2.0)), COOLS[0] + COOLS[1] * height);
    for (out, trays) in outs {
        draft.lags.push(Lag {
            from: out,
            to: wrap,
            least: cools,
            most: Some(cools + DRIES),
            name: format!("{name} cools"),
            place: Some((RACK.to_owned(), trays)),
            class: LimitClass::Quality,
            clock: None,
        });
    }
    let [least, _] = own.rest.map(Minutes::minutes);
    (draft.acts[wrap].age, draft.acts[wrap].grace) = (1, 1440);
    Made {
        last: Some(wrap),
        waits: [least, (1440.0 * own.keeps_days).max(least)],
        class: LimitClass::Quality,
        ..Made::default()
    }
}

fn mix_min(own: &Baking, kg: f64) -> f64 {
    own.mix[0].minutes() + own.mix[1].minutes() * kg
}
