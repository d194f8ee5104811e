//! A vessel with so much in it: the body of cells it makes.

use crate::heat::form::{Form, Shaped, bowl_depth};
use crate::heat::material::Material;
use crate::heat::underneath::{Underneath, underneath};
use crate::heat::vessel::{Cover, FILLED, Kind, VesselDocument, VesselKind, cm, rim_for};
use crate::heat::wall::WallRow;
use crate::number::limit;
use std::f64::consts::PI;

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

impl VesselDocument {
    /// With so much of so dense a mass in it, kg and kg/m³. Only of what has no faults.
    pub fn filled(&self, kg: f64, density: f64) -> Filled {
        let own = self.kind.row();
        let wall = self.wall.unwrap_or(own.wall).row();
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
}

fn limit_c(t_c: f64) -> String {
    if t_c < 0.0 { format!("−{}", limit(-t_c)) } else { limit(t_c) }
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
