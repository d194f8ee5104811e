//! How hard it freezes, and how long until it can be eaten.

use crate::clock::cooling::{Begins, Cooling, Mass};
use crate::clock::document::ClockDocument;
use crate::clock::when::{Wall, minutes};
use crate::heat::body::Watched;
use crate::heat::stand::StandDocument;
use crate::heat::surroundings::Surroundings;
use crate::number::two_digits;
use serde::Serialize;
use utoipa::ToSchema;

/// Temperatures that are told, °C.
const TOLD_C: [f64; 3] = [-18.0, -12.0, -6.0];
/// Thawed when its middle is here, °C.
const THAWED_C: f64 = 2.0;
/// Ice, of total, from which it must stand for a while, and from which it must thaw (assumed).
const STANDS: f64 = 0.30;
const THAWS: f64 = 0.45;
/// How far off ice may be, of total: laws of solutes within some per cent of published freezing points, solids of ingredients
/// within three per cent (assumed).
const BAND: f64 = 0.03;

/// How hard it is at a temperature.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Hardness {
    /// Temperature, °C.
    pub temperature_c: f64,
    /// Ice, per cent of total.
    pub ice_percent: f64,
    /// Its band.
    pub band_percent: [f64; 2],
    /// "Cuts from the freezer".
    pub words: String,
}

/// It frozen.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Frozen {
    /// Where the first ice forms, °C; none where it never freezes.
    pub begins_c: Option<f64>,
    /// How long it thaws in the fridge, in the vessel it stands in: "14 h, anywhere from 11 to 19 h"; none where nobody looked, or it
    /// does not freeze.
    pub thaws: Option<String>,
    /// How hard it is.
    pub hardness: Vec<Hardness>,
    /// In one sentence.
    pub sentence: String,
}

fn words(ice: f64) -> &'static str {
    match ice {
        i if i < 0.005 => "no ice in it",
        i if i < STANDS => "cuts from the freezer",
        i if i < THAWS => "cuts after 10 to 20 min in the room",
        _ => "hard as ice: into the fridge first",
    }
}

/// How long it is until its middle is at 2 °C in a fridge, from −18 °C.
fn thaws(mass: &Mass, document: &ClockDocument, kg: f64) -> Option<String> {
    mass.freezes_c()?;
    let room_c = document.formula.work.room_temperature_c.celsius();
    let fridge = [StandDocument::at(Surroundings::Fridge)];
    let cooling = Cooling::new(mass, kg, &document.vessel, &fridge, Begins([TOLD_C[0]; 3]), room_c);
    let goals = [(Watched::Core, THAWED_C)];
    let [low, usual, high] = cooling.courses(&goals, 1.0).time_to(Watched::Core, THAWED_C);
    let spread = low
        .zip(high)
        .map_or(String::new(), |(low, high)| format!(", anywhere from {}", Wall(None).span(low, high)));
    Some(format!("{}{spread}", minutes(usual?)))
}

/// How hard a mass freezes, and how long it thaws.
pub fn frozen(mass: &Mass, document: &ClockDocument, kg: f64) -> Frozen {
    let hardness: Vec<Hardness> = TOLD_C
        .into_iter()
        .map(|temperature_c| {
            let ice = mass.ice(temperature_c);
            let ends = if ice > 0.0 { [(ice - BAND).max(0.0), ice + BAND] } else { [0.0, 0.0] };
            let [low, high] = ends.map(words);
            let said = if low == high { low.to_owned() } else { format!("{low}, or {high}") };
            Hardness {
                temperature_c,
                ice_percent: (100.0 * ice).round(),
                band_percent: ends.map(|end| (100.0 * end).round()),
                words: said,
            }
        })
        .collect();
    let begins_c = mass.freezes_c();
    let first = &hardness[0];
    let sentence = match begins_c {
        None => "Nothing of it freezes.".to_owned(),
        Some(_) if first.ice_percent < 0.5 => {
            "At −18 °C there is no ice in it: it stays as soft as its fat is.".to_owned()
        }
        Some(begins) => format!(
            "It begins to freeze at −{} °C; at −18 °C {} % of it is ice: {}.",
            two_digits(-begins),
            first.ice_percent,
            first.words
        ),
    };
    let thaws = if document.brief { None } else { thaws(mass, document, kg) };
    Frozen { begins_c: begins_c.map(crate::number::digits), thaws, hardness, sentence }
}
