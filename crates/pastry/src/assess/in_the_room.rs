//! What it becomes when it is left in the room, and whether it may be.

use crate::assess::room::Room;
use crate::assess::spoon_sign::SpoonSign;
use crate::formula::keeping::keeping;
use crate::formula::{Family, Mixture};
use crate::job::duty::{Estimate, MapAxis};
use crate::number::two_digits;
use crate::rheology::warning::{Warning, WarningCode};
use crate::rheology::{History, Predictor};
use serde::Serialize;
use utoipa::ToSchema;

/// What it becomes when left to set in the room.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct InTheRoom {
    /// Temperature of the room, °C.
    pub temperature_c: f64,
    /// Yield stress with its 90 % band, Pa.
    pub yield_stress_pa: Estimate,
    /// What a spoonful does.
    pub spoon: SpoonSign,
    /// In one sentence.
    pub sentence: String,
}

/// Whether it is warned of raw egg.
pub(super) fn raw_egg(warnings: &[Warning]) -> bool {
    warnings.iter().any(|warning| warning.code == WarningCode::EggRaw)
}

/// Whether it may stand in the room by its numbers; none where they are not known.
pub(super) fn standing_in_the_room(predictor: &Predictor, mixture: &Mixture, raw_egg: bool) -> Option<Room> {
    if raw_egg {
        return Some(Room::Not);
    }
    let aw = predictor.base.serum.water_activity?;
    Some(Room::of(aw, mixture.acidity.ph()?, false))
}

/// What it would be in the room; what must stay cold is not said to be left there.
pub(super) fn in_the_room(
    predictor: &Predictor,
    family: Family,
    room_c: f64,
    axis: MapAxis,
    room: Option<Room>,
) -> InTheRoom {
    let banded = predictor.at(room_c, History::Rested);
    let (tau, eta) = (banded.middle.yield_stress_pa, banded.middle.viscosity_pa_s);
    let spoon = SpoonSign::of(tau, eta);
    let set = match spoon {
        SpoonSign::HoldsUpsideDown => "paste that holds upside down",
        other => other.word(),
    };
    let falls = match spoon {
        SpoonSign::HoldsUpsideDown => "holds upside down".to_owned(),
        SpoonSign::CleanCut => "cuts clean".to_owned(),
        other => format!("falls as a {}", other.word()),
    };
    let keeps = keeping(family);
    let known = banded.unknown.is_none();
    let number = match axis {
        _ if !known => "what it would be is not known".to_owned(),
        MapAxis::ViscosityPaS => format!("a spoonful {falls}, about {} Pa·s", two_digits(eta)),
        MapAxis::YieldStressPa => format!("it would be a {set}, about {} Pa", two_digits(tau)),
    };
    let sentence = match axis {
        _ if !keeps.stands_overnight() => {
            let hours = match keeps.room() {
                None => "not to stand in the room".to_owned(),
                Some(hours) => format!("{hours} in the room at most, in all"),
            };
            format!("Keep it at 5 °C or below, {hours}; your food code decides. At {room_c:.1} °C {number}.")
        }
        _ if matches!(room, Some(Room::Hours | Room::Not)) => {
            let hours = match room {
                Some(Room::Not) => "raw egg in it is not to stand in the room",
                _ => "in the room 4 hours at most in all, 6 where it stays under 21 °C",
            };
            format!("Keep it at 5 °C or below, {hours}; your food code decides. At {room_c:.1} °C {number}.")
        }
        _ if !known => format!("In the room at {room_c:.1} °C {number}: leave a spoonful there first."),
        MapAxis::ViscosityPaS => {
            format!("In the room at {room_c:.1} °C a spoonful {falls}, about {} Pa·s.", two_digits(eta))
        }
        MapAxis::YieldStressPa => {
            let check = match room {
                Some(Room::Check) => {
                    " By its numbers it may just stand there: measure it, or count it as hours; your food code decides."
                }
                _ => "",
            };
            format!(
                "Left overnight in the room at {room_c:.1} °C it sets to a {set}, about {} Pa.{check}",
                two_digits(tau)
            )
        }
    };
    InTheRoom {
        temperature_c: room_c,
        yield_stress_pa: Estimate::shown(tau, banded.sigma_yield),
        spoon,
        sentence,
    }
}
