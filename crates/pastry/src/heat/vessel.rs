//! What a mass stands in while it cools or warms: its sizes, its wall, what is open of it; and how that makes a body of cells.

use crate::code::codes;
use crate::fault::{Fault, FaultCode};
use crate::heat::enthalpy::HeatShares;
use crate::heat::form::{Form, Shaped, bowl_depth, bowl_volume};
use crate::heat::material::{MadeOf, Material, Solutes};
use crate::number::limit;
use serde::{Deserialize, Serialize};
use std::collections::HashMap;
use std::f64::consts::PI;
use std::sync::LazyLock;
use utoipa::ToSchema;

codes! {
    /// What a mass stands in.
    VesselKind {
        /// A round bowl.
        Bowl = "bowl",
        /// A wide flat tray.
        Tray = "tray",
        /// Moulds of one piece each.
        Mould = "mould",
        /// Half balls.
        Dome = "dome",
        /// A ring.
        Ring = "ring",
        /// Cups and glasses.
        Cup = "cup",
        /// Jars with a lid.
        Jar = "jar",
        /// Bottles.
        Bottle = "bottle",
        /// Piping bags, lying.
        Bag = "bag",
        /// Spread or poured on a cake.
        OnCake = "on_cake",
        /// A finished cake in its box.
        Boxed = "boxed",
    }
}

codes! {
    /// What a wall is made of.
    Wall {
        /// No wall.
        Nothing = "none",
        /// 1 mm of steel.
        Steel = "steel",
        /// 1.5 mm of aluminium.
        Aluminium = "aluminium",
        /// 4 mm of glass.
        Glass = "glass",
        /// 5 mm of ceramic.
        Ceramic = "ceramic",
        /// 2 mm of plastic.
        Plastic = "plastic",
        /// 3 mm of silicone.
        Silicone = "silicone",
        /// A strip of acetate.
        Acetate = "acetate",
        /// A closed cake box, with the air in it.
        Card = "card",
    }
}

codes! {
    /// What a coat, a glaze or a drip comes on.
    Underneath {
        /// Bare sponge.
        Sponge = "sponge",
        /// A cake masked in buttercream.
        Masked = "masked",
        /// A mousse.
        Mousse = "mousse",
    }
}

/// A vessel. Sizes that are not said are usual ones; a bowl's hangs on what goes in.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct VesselDocument {
    /// What it is.
    pub kind: VesselKind,
    /// What its wall is made of.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wall: Option<Wall>,
    /// How wide, mm: a bowl at its rim; the shorter way of a dome's foot.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 5, maximum = 1500)]
    pub diameter_mm: Option<f64>,
    /// How high it is filled, mm; of a coat how thick.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.5, maximum = 500)]
    pub height_mm: Option<f64>,
    /// How long a tray is, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 5, maximum = 1500)]
    pub length_mm: Option<f64>,
    /// How wide a tray is, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 5, maximum = 1500)]
    pub width_mm: Option<f64>,
    /// So many bowls, trays or bags, the mass shared between them.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1, maximum = 200)]
    pub count: Option<u32>,
    /// Whether film or a lid is on it; as is usual for it when it is not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub covered: Option<bool>,
    /// What it comes on; of a coat alone.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub on: Option<Underneath>,
    /// How cold that is, °C.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -40, maximum = 45)]
    pub on_c: Option<f64>,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
#[serde(rename_all = "snake_case")]
enum Kind {
    Bowl,
    Tray,
    Piece,
    Dome,
    Bag,
    Coat,
    Boxed,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
#[serde(rename_all = "snake_case")]
enum Cover {
    Film,
    Open,
    Lid,
    Closed,
}

#[derive(Debug, Clone, Deserialize)]
struct Usual {
    vessel: VesselKind,
    words: String,
    form: Kind,
    wall: Wall,
    diameter_mm: Option<f64>,
    height_mm: Option<f64>,
    most_kg: Option<f64>,
    cover: Cover,
}

#[derive(Debug, Clone, Deserialize)]
struct WallRow {
    wall: Wall,
    words: Option<String>,
    resistance: f64,
    capacity: f64,
    kg_m2: f64,
}

fn table<K: std::hash::Hash + Eq, T: serde::de::DeserializeOwned>(
    text: &str,
    key: impl Fn(&T) -> K,
) -> HashMap<K, T> {
    csv::Reader::from_reader(text.as_bytes())
        .deserialize()
        .map(|row| {
            let row: T = row.expect("a table of vessels is well formed");
            (key(&row), row)
        })
        .collect()
}

static USUAL: LazyLock<HashMap<VesselKind, Usual>> =
    LazyLock::new(|| table(include_str!("../../data/vessels.csv"), |row: &Usual| row.vessel));
static WALLS: LazyLock<HashMap<Wall, WallRow>> =
    LazyLock::new(|| table(include_str!("../../data/walls.csv"), |row: &WallRow| row.wall));

impl Wall {
    /// Heat capacity of what it is made of, J/(kg K).
    pub fn capacity(self) -> f64 {
        WALLS[&self].capacity
    }
}

/// Rims of bowls, mm (common practice).
const RIMS_MM: [f64; 12] =
    [120.0, 140.0, 160.0, 180.0, 200.0, 220.0, 240.0, 280.0, 320.0, 360.0, 420.0, 500.0];
/// Trays, mm (common practice), and how low a mass stands in one.
const TRAYS_MM: [[f64; 2]; 3] = [[300.0, 200.0], [400.0, 300.0], [600.0, 400.0]];
const LOW_M: f64 = 0.012;
/// A bowl is filled to this share of what it holds.
const FILLED: f64 = 0.6;
/// Deepest a tray or a bag is filled, m.
const DEEPEST_M: f64 = 0.1;
/// Film and lid, m² K/W: a lid has air under it (assumed).
const FILM: f64 = 1e-4;
const LID: f64 = 0.1;
/// What is looked at of a cake under a coat, m: to its middle. And of the mask on it.
const CAKE_M: f64 = 0.03;
const MASK_M: f64 = 0.008;

/// A vessel with what is in it.
#[derive(Debug, Clone)]
pub struct Filled {
    kind: VesselKind,
    form: Form,
    wall: &'static WallRow,
    cover: Cover,
    uncovered: bool,
    on: Option<(Underneath, f64)>,
    /// Area of the wall that the mass touches, m².
    touched_m2: f64,
    /// How many of them.
    pub count: f64,
    /// How much is in one, kg.
    pub kg_each: f64,
    /// How deep or thick it stands in it, m.
    pub depth_m: f64,
    /// "a steel bowl 20 cm wide".
    pub words: String,
}

fn cm(mm: f64) -> String {
    limit((mm * 0.1 * 10.0).round() / 10.0)
}

impl VesselDocument {
    /// One of usual sizes.
    pub fn usual(kind: VesselKind) -> Self {
        VesselDocument {
            kind,
            wall: None,
            diameter_mm: None,
            height_mm: None,
            length_mm: None,
            width_mm: None,
            count: None,
            covered: None,
            on: None,
            on_c: None,
        }
    }

    /// What is wrong with it for so much of so dense a mass, kg and kg/m³.
    pub fn faults(&self, path: &str, kg: f64, density: f64) -> Vec<Fault> {
        let own = &USUAL[&self.kind];
        let at = |field: &str| format!("{path}.{field}");
        let mut faults = Vec::new();
        let read: &[&str] = match own.form {
            Kind::Bowl => &["diameter_mm", "count"],
            Kind::Tray => &["length_mm", "width_mm", "count"],
            Kind::Piece | Kind::Dome | Kind::Boxed => &["diameter_mm", "height_mm"],
            Kind::Bag => &["diameter_mm", "count"],
            Kind::Coat => &["height_mm", "on", "on_c"],
        };
        let written = [
            ("diameter_mm", self.diameter_mm.is_some()),
            ("height_mm", self.height_mm.is_some()),
            ("length_mm", self.length_mm.is_some()),
            ("width_mm", self.width_mm.is_some()),
            ("count", self.count.is_some()),
            ("on", self.on.is_some()),
            ("on_c", self.on_c.is_some()),
        ];
        for (field, _) in written.iter().filter(|(field, written)| *written && !read.contains(field)) {
            let words = format!("{} does not have it: leave it out", own.words);
            faults.push(Fault::new(at(field), FaultCode::WrongValue, words));
        }
        let sizes = [
            ("diameter_mm", self.diameter_mm, [5.0, 1500.0]),
            ("height_mm", self.height_mm, [0.5, 500.0]),
            ("length_mm", self.length_mm, [5.0, 1500.0]),
            ("width_mm", self.width_mm, [5.0, 1500.0]),
            ("on_c", self.on_c, [-40.0, 45.0]),
        ];
        for (field, size, [low, high]) in sizes {
            if size.is_some_and(|size| !(low..=high).contains(&size)) {
                let words = format!("between {} and {}", limit(low), limit(high));
                faults.push(Fault::new(at(field), FaultCode::OutOfRange, words));
            }
        }
        if self.count.is_some_and(|count| !(1..=200).contains(&count)) {
            faults.push(Fault::new(at("count"), FaultCode::OutOfRange, "1 to 200 of them"));
        }
        if !faults.is_empty() {
            return faults;
        }
        let volume = kg / density / f64::from(self.count.unwrap_or(1));
        match own.form {
            Kind::Bowl if self.diameter_mm.is_some_and(|mm| bowl_volume(5e-4 * mm, 5e-4 * mm) < volume) => {
                let words = match rim_for(volume / 0.95) {
                    Some(mm) => {
                        format!("it goes over the rim: take a bowl of {} cm, or more of them", cm(mm))
                    }
                    None => "it goes over the rim: take more of them".to_owned(),
                };
                faults.push(Fault::new(at("diameter_mm"), FaultCode::TooLarge, words));
            }
            Kind::Bowl if self.diameter_mm.is_none() && rim_for(volume / FILLED).is_none() => {
                let words = format!("{} kg are more than one bowl holds: say how many", limit(kg));
                faults.push(Fault::new(at("count"), FaultCode::TooLarge, words));
            }
            Kind::Tray if volume / self.area(volume) > DEEPEST_M => {
                let count = (kg / density / self.area(volume) / DEEPEST_M).ceil();
                let words = format!(
                    "it would stand {:.0} mm deep: take {count:.0} of them, or larger ones",
                    1e3 * volume / self.area(volume)
                );
                faults.push(Fault::new(at("count"), FaultCode::TooLarge, words));
            }
            Kind::Bag if own.most_kg.is_some_and(|most| kg > most * f64::from(self.count.unwrap_or(1))) => {
                let count = (kg / own.most_kg.unwrap_or(1.0)).ceil();
                let words = format!("{} kg need {count:.0} bags: say so", limit(kg));
                faults.push(Fault::new(at("count"), FaultCode::TooLarge, words));
            }
            _ => {}
        }
        faults
    }

    /// Length and width of a tray for so much in it, mm: where nobody said, the smallest in which it stands low.
    fn tray_mm(&self, volume: f64) -> [f64; 2] {
        let low = |[length, width]: &[f64; 2]| volume / (1e-6 * length * width) <= LOW_M;
        let usual = TRAYS_MM.into_iter().find(low).unwrap_or(TRAYS_MM[TRAYS_MM.len() - 1]);
        match (self.length_mm, self.width_mm) {
            (None, None) => usual,
            (Some(length), None) => [length, length.min(usual[1])],
            (None, Some(width)) => [width.max(usual[0]), width],
            (Some(length), Some(width)) => [length, width],
        }
    }

    /// Area of it, m².
    fn area(&self, volume: f64) -> f64 {
        let [length, width] = self.tray_mm(volume);
        1e-6 * length * width
    }

    /// With so much of so dense a mass in it, kg and kg/m³. Only of what has no faults.
    pub fn filled(&self, kg: f64, density: f64) -> Filled {
        let own = &USUAL[&self.kind];
        let wall = &WALLS[&self.wall.unwrap_or(own.wall)];
        let count = f64::from(self.count.unwrap_or(1));
        let volume = kg / density / count;
        let diameter_mm = self.diameter_mm.or(own.diameter_mm).unwrap_or(200.0);
        let height_mm = self.height_mm.or(own.height_mm).unwrap_or(50.0);
        let (radius_m, height_m) = (5e-4 * diameter_mm, 1e-3 * height_mm);
        let noun = own.words.split_once(' ').map_or(own.words.as_str(), |(_, noun)| noun);
        let wide = |mm: f64| match &wall.words {
            Some(word) => format!("{word} {noun} {} cm wide", cm(mm)),
            None => format!("{noun} {} cm wide", cm(mm)),
        };
        let many = |words: String| match count {
            c if c > 1.0 => format!("{c:.0} of a {words}"),
            _ => format!("a {words}"),
        };
        let (form, depth_m, words) = match own.form {
            Kind::Bowl => {
                let rim_mm = self.diameter_mm.or_else(|| rim_for(volume / FILLED)).unwrap_or(500.0);
                let depth_m = bowl_depth(5e-4 * rim_mm, volume);
                (Form::Bowl { rim_m: 5e-4 * rim_mm, depth_m }, depth_m, many(wide(rim_mm)))
            }
            Kind::Tray => {
                let depth_m = volume / self.area(volume);
                let [length, width] = self.tray_mm(volume).map(cm);
                let words = format!("tray of {width} × {length} cm");
                (Form::Slab { thickness_m: depth_m, one_sided: false }, depth_m, many(words))
            }
            Kind::Piece | Kind::Boxed => {
                let words = format!("{} {} cm wide, {} cm high", noun, cm(diameter_mm), cm(height_mm));
                let words = match own.form {
                    Kind::Boxed => {
                        format!("a cake {} cm wide, {} cm high, in its box", cm(diameter_mm), cm(height_mm))
                    }
                    _ => format!("a {words}"),
                };
                (Form::Round { radius_m, hole_m: 0.0, height_m }, height_m, words)
            }
            Kind::Dome => (
                Form::Dome { radius_m, height_m },
                height_m,
                format!("a dome {} cm wide, {} cm high", cm(diameter_mm), cm(height_mm)),
            ),
            Kind::Bag => {
                let length_m = volume / (PI * radius_m * radius_m);
                (
                    Form::Round { radius_m, hole_m: 0.0, height_m: length_m },
                    2.0 * radius_m,
                    many("piping bag".into()),
                )
            }
            Kind::Coat => {
                let under = match self.on.unwrap_or(Underneath::Masked) {
                    Underneath::Sponge => "bare sponge",
                    Underneath::Masked => "a masked cake",
                    Underneath::Mousse => "a mousse",
                };
                let words = format!("{} mm on {under} of {} °C", limit(height_mm), limit_c(self.cake_c()));
                (Form::Slab { thickness_m: height_m, one_sided: true }, height_m, words)
            }
        };
        let kg_each = match form {
            Form::Round { radius_m, height_m, .. } => PI * radius_m * radius_m * height_m * density,
            Form::Dome { radius_m: a, height_m: h } => PI * h / 6.0 * (3.0 * a * a + h * h) * density,
            _ => kg / count,
        };
        let touched_m2 = match form {
            Form::Slab { thickness_m, .. } => kg_each / (density * thickness_m),
            Form::Round { radius_m, height_m, .. } => PI * radius_m * (radius_m + 2.0 * height_m),
            Form::Dome { radius_m, height_m } => PI * (radius_m * radius_m + height_m * height_m),
            Form::Bowl { rim_m, depth_m } => 2.0 * PI * rim_m * depth_m,
            Form::Ball { diameter_m } => PI * diameter_m * diameter_m,
        };
        let count = match own.form {
            Kind::Piece | Kind::Dome => kg / kg_each,
            _ => count,
        };
        Filled {
            kind: self.kind,
            form,
            wall,
            cover: match (own.cover, self.covered) {
                (Cover::Open, Some(true)) => Cover::Film,
                (Cover::Film | Cover::Lid, Some(false)) => Cover::Open,
                (cover, _) => cover,
            },
            uncovered: self.covered == Some(false) && own.cover != Cover::Closed,
            on: (own.form == Kind::Coat).then(|| (self.on.unwrap_or(Underneath::Masked), self.cake_c())),
            touched_m2,
            count,
            kg_each,
            depth_m,
            words,
        }
    }

    fn cake_c(&self) -> f64 {
        self.on_c.unwrap_or(5.0)
    }

    /// Whether what is in it can be stirred.
    pub fn stirs(&self) -> bool {
        matches!(self.kind, VesselKind::Bowl | VesselKind::Tray)
    }

    /// Whether it can stand in water.
    pub fn stands_in_water(&self) -> bool {
        !matches!(self.kind, VesselKind::OnCake | VesselKind::Boxed)
    }
}

fn limit_c(t_c: f64) -> String {
    if t_c < 0.0 { format!("−{}", limit(-t_c)) } else { limit(t_c) }
}

/// The narrowest bowl that holds so much, mm.
fn rim_for(volume: f64) -> Option<f64> {
    RIMS_MM.into_iter().find(|mm| bowl_volume(5e-4 * mm, 5e-4 * mm) >= volume)
}

/// A butter sponge, by what is usually in it, and its air (assumed).
pub const SPONGE: HeatShares = HeatShares {
    water: 0.25,
    protein: 0.06,
    sugar: 0.28,
    starch: 0.21,
    fibre: 0.008,
    ash: 0.012,
    alcohol: 0.0,
    cocoa_fat: 0.0,
    milk_fat: 0.16,
    lauric_fat: 0.0,
    oil: 0.02,
};
/// Air of it.
pub const SPONGE_AIR: f64 = 0.58;

/// What is under a coat, by what is usually in it (assumed). Its fat is counted as on the way down: were it to melt it would take up
/// more, and a drip would be told to stand sooner than cooks see it stand.
fn underneath(what: Underneath) -> (Material, Option<Material>) {
    let made = |shares: HeatShares, air: f64, fat_outside: bool| {
        let solutes = Solutes::lumped(&shares, 342.3);
        Material::new(&MadeOf { shares, air, fat_outside, solutes, cooling: true })
    };
    let sponge = SPONGE;
    let mask = HeatShares {
        water: 0.21,
        protein: 0.021,
        sugar: 0.33,
        ash: 0.004,
        milk_fat: 0.435,
        ..HeatShares::default()
    };
    let mousse = HeatShares {
        water: 0.64,
        protein: 0.025,
        sugar: 0.185,
        fibre: 0.01,
        ash: 0.005,
        milk_fat: 0.135,
        ..HeatShares::default()
    };
    match what {
        Underneath::Sponge => (made(sponge, SPONGE_AIR, false), None),
        Underneath::Masked => (made(sponge, SPONGE_AIR, false), Some(made(mask, 0.25, false))),
        Underneath::Mousse => (made(mousse, 0.4, false), None),
    }
}

impl Filled {
    /// Which.
    pub fn kind(&self) -> VesselKind {
        self.kind
    }

    /// How cold what it comes on is, °C; none where it comes on nothing.
    pub fn on_c(&self) -> Option<f64> {
        self.on.map(|(_, on_c)| on_c)
    }

    /// Whether its film or lid was taken off, so that it steams. What is open by nature (a mould, a coat) stands cool or has a
    /// skin, and is taken to give off none.
    pub fn steams(&self) -> bool {
        self.uncovered
    }

    /// What lies on its top, m² K/W, where that is not open.
    pub fn cover(&self) -> f64 {
        match self.cover {
            Cover::Open => 0.0,
            Cover::Film => FILM,
            Cover::Lid => LID,
            Cover::Closed => self.wall.resistance,
        }
    }

    /// What its wall lets through less, m² K/W.
    pub fn wall(&self) -> f64 {
        self.wall.resistance
    }

    /// Where a mass at `t_c` comes to when it is poured into it cold, at `vessel_c`, °C: Σ m c T over Σ m c. What was made in
    /// its bowl has warmed that already.
    pub fn poured_c(&self, material: &Material, t_c: f64, vessel_c: f64) -> f64 {
        if matches!(self.kind, VesselKind::Bowl | VesselKind::OnCake | VesselKind::Boxed) {
            return t_c;
        }
        let of_wall = self.wall_capacity();
        let of_mass = self.kg_each * material.capacity(t_c);
        (of_mass * t_c + of_wall * vessel_c) / (of_mass + of_wall)
    }

    /// Heat capacity of the wall it touches, J/K.
    pub fn wall_capacity(&self) -> f64 {
        self.touched_m2 * self.wall.kg_m2 * self.wall.capacity
    }

    /// The body of it: from `start_c` to about `ends_c`, its strongest face letting through so much, W/(m² K).
    pub fn shaped(&self, material: Material, [start_c, ends_c]: [f64; 2], strongest: f64) -> Shaped {
        let Some((what, on_c)) = self.on else {
            return Shaped::one(self.form, material, [start_c, ends_c], strongest);
        };
        let (cake, mask) = underneath(what);
        let mut layers = vec![(cake, CAKE_M, on_c)];
        layers.extend(mask.map(|mask| (mask, MASK_M, on_c)));
        layers.push((material, self.depth_m, start_c));
        let watch = layers.len() - 1;
        Shaped::stack(layers, None, Some(watch))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_vessel_takes_a_kilogram_and_says_what_it_is() {
        for kind in VesselKind::ALL {
            let vessel = VesselDocument::usual(*kind);
            assert_eq!(vessel.faults("vessel", 1.0, 1100.0), [], "{kind}");
            let filled = vessel.filled(1.0, 1100.0);
            assert!(filled.kg_each > 0.0 && filled.depth_m > 0.0 && filled.words.len() > 5, "{kind}");
            assert!(filled.count * filled.kg_each > 0.2, "{kind}: {filled:?}");
        }
        for wall in Wall::ALL {
            assert!(WALLS[wall].resistance >= 0.0, "{wall}");
        }
    }

    #[test]
    fn a_bowl_is_as_wide_as_what_goes_in_and_never_runs_over() {
        let bowl = VesselDocument::usual(VesselKind::Bowl);
        let words = |kg: f64| bowl.filled(kg, 1100.0).words;
        assert_eq!(words(1.0), "a steel bowl 18 cm wide");
        assert_eq!(words(0.3), "a steel bowl 14 cm wide");
        let small = VesselDocument { diameter_mm: Some(120.0), ..bowl };
        let faults = small.faults("vessel", 1.0, 1100.0);
        assert_eq!(faults[0].message, "it goes over the rim: take a bowl of 16 cm, or more of them");
        let tray = VesselDocument::usual(VesselKind::Tray);
        assert!(tray.faults("vessel", 30.0, 1100.0)[0].message.contains("2 of them"));
        let odd = VesselDocument { height_mm: Some(20.0), ..tray };
        assert!(odd.faults("vessel", 1.0, 1100.0)[0].message.contains("leave it out"));
    }
}
