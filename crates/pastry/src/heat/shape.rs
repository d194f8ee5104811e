//! From a case to a body of cells.

use crate::fault::{Fault, FaultCode};
use crate::heat::body::{Body, Face, Layer, Outline, Stretch};
use crate::heat::case::{
    CaseDocument, CaseFace, CaseLayer, CaseMaterial, CaseShape, ConstantMaterial, Goes, Surrounds,
};
use crate::heat::material::{MadeOf, Material, Solutes};
use std::f64::consts::PI;

/// Rows of cells by how much the face lets through against what the body conducts (h d/2k): few are enough where the inside is
/// nearly of one temperature.
fn rows_for(biot: f64) -> usize {
    match biot {
        // As good as of one temperature throughout; fewer would make the strides too long.
        b if b < 0.01 => 3,
        b if b < 0.1 => 5,
        b if b < 0.4 => 9,
        b if b < 1.0 => 11,
        b if b < 4.0 => 15,
        _ => 23,
    }
}

/// Shells of a ball, rings and rows of what is round.
const SHELLS: usize = 20;
const RINGS: [usize; 2] = [6, 14];
const ROWS: [usize; 2] = [7, 13];
/// Cells of a thin layer, mm, and most cells of a thick one.
const THIN_CELL_MM: f64 = 1.0;
const THICK_CELL_MM: f64 = 3.0;
const MOST_CELLS: usize = 16;

/// Sizes of a body of one material, m, with what its real skin is of the skin of its cells.
struct Sizes {
    outline: Outline,
    height_m: f64,
    rows: usize,
    skin: f64,
    foot: f64,
}

/// A case made ready: materials, layers, outline.
pub struct Shaped {
    materials: Vec<Material>,
    layers: Vec<(f64, f64, usize)>,
    outline: Outline,
    watch: Option<usize>,
    /// What the real skin is of that of the cells: above and round it, and below.
    skin: f64,
    foot: f64,
    ball: bool,
}

impl CaseDocument {
    /// Faults of it, all at once.
    pub fn faults(&self) -> Vec<Fault> {
        let mut faults = Vec::new();
        let mut add = |field: &str, code: FaultCode, words: &str| faults.push(Fault::new(field, code, words));
        let needs: &[(&str, Option<f64>, &str)] = match self.shape {
            CaseShape::Slab => &[("thickness_mm", self.thickness_mm, "how thick it is")],
            CaseShape::Cylinder | CaseShape::Ring => &[
                ("diameter_mm", self.diameter_mm, "how wide it is"),
                ("height_mm", self.height_mm.or(self.thickness_mm), "how high it is"),
            ],
            CaseShape::Ball | CaseShape::Dome => &[("diameter_mm", self.diameter_mm, "how wide it is")],
            CaseShape::Bowl => &[
                ("diameter_mm", self.diameter_mm, "how wide the bowl is at its rim"),
                (
                    "height_mm",
                    self.height_mm.or(self.volume_ml).or(self.kg),
                    "how deep it is filled, or how many ml or kg",
                ),
            ],
            CaseShape::Stack => &[],
        };
        for (field, size, what) in needs {
            if size.is_none() {
                add(field, FaultCode::NoSize, &format!("say {what}"));
            }
        }
        let sizes = [
            ("thickness_mm", self.thickness_mm),
            ("diameter_mm", self.diameter_mm),
            ("inner_diameter_mm", self.inner_diameter_mm),
            ("height_mm", self.height_mm),
        ];
        for (field, size) in sizes {
            if size.is_some_and(|mm| !(0.05..=2000.0).contains(&mm)) {
                add(field, FaultCode::OutOfRange, "between 0.05 and 2000 mm");
            }
        }
        if let (Some(inner), Some(outer)) = (self.inner_diameter_mm, self.diameter_mm)
            && inner >= outer
        {
            add(
                "inner_diameter_mm",
                FaultCode::LimitsCrossed,
                "the hole is wider than the whole: make it smaller",
            );
        }
        if self.shape == CaseShape::Stack {
            if self.layers.is_empty() || self.layers.len() > 12 {
                add("layers", FaultCode::HowMany, "a stack has 1 to 12 layers");
            }
            if self.watch.is_some_and(|at| at >= self.layers.len()) {
                add(
                    "watch",
                    FaultCode::NoSuchLine,
                    "there is no such layer; they are counted from 0 at the bottom",
                );
            }
        }
        let all = if self.shape == CaseShape::Stack { self.layers.clone() } else { vec![self.as_layer()] };
        for (at, layer) in all.iter().enumerate() {
            let place = |field: &str| match self.shape {
                CaseShape::Stack => format!("layers.{at}.{field}"),
                _ => field.to_owned(),
            };
            match (layer.constant.or(self.constant), layer.material.or(self.material)) {
                (None, None) => {
                    add(
                        &place("material"),
                        FaultCode::NothingInIt,
                        "say what it is made of: material, or const with k, rho and c",
                    );
                }
                (_, Some(material)) => {
                    if material.comp.all().iter().any(|share| !(0.0..=1.0).contains(share)) {
                        add(&place("material.comp"), FaultCode::OutOfRange, "every share is between 0 and 1");
                    } else if (material.comp.sum() - 1.0).abs() > 0.02 {
                        let words = format!(
                            "the shares add up to {:.3}, not to 1: say all that is in it",
                            material.comp.sum()
                        );
                        add(&place("material.comp"), FaultCode::DoesNotAddUp, &words);
                    }
                    if !(0.0..=0.95).contains(&material.air) {
                        add(&place("material.air"), FaultCode::OutOfRange, "air is 0 to 0.95 of the volume");
                    }
                }
                (Some(ConstantMaterial { k, rho, c }), None) => {
                    if [k, rho, c].iter().any(|value| !value.is_finite() || *value <= 0.0) {
                        add(&place("const"), FaultCode::OutOfRange, "k, rho and c are above 0");
                    }
                }
            }
            match layer.start_c.or(self.start_c) {
                None => add(&place("start_c"), FaultCode::WrongValue, "say how warm it is at first, °C"),
                Some(t) if !(-60.0..=200.0).contains(&t) => {
                    add(&place("start_c"), FaultCode::OutOfRange, "between -60 and 200 °C");
                }
                Some(_) => {}
            }
            if self.shape == CaseShape::Stack && !(0.05..=2000.0).contains(&layer.thickness_mm) {
                add(&place("thickness_mm"), FaultCode::OutOfRange, "between 0.05 and 2000 mm");
            }
        }
        faults.extend(self.faults_of_too_much());
        faults.extend(self.faults_of_time());
        faults
    }

    /// What is written and would be left unread: two amounts, two materials, a size that its shape has not.
    fn faults_of_too_much(&self) -> Vec<Fault> {
        let own = [
            ("thickness_mm", self.thickness_mm.is_some()),
            ("inner_diameter_mm", self.inner_diameter_mm.is_some()),
            ("height_mm", self.height_mm.is_some()),
            ("volume_ml", self.volume_ml.is_some()),
            ("kg", self.kg.is_some()),
            ("layers", !self.layers.is_empty()),
            ("watch", self.watch.is_some()),
        ];
        let read: &[&str] = match self.shape {
            CaseShape::Slab => &["thickness_mm"],
            CaseShape::Cylinder | CaseShape::Ring => &["inner_diameter_mm", "height_mm", "thickness_mm"],
            CaseShape::Ball => &[],
            CaseShape::Dome => &["height_mm"],
            CaseShape::Bowl => &["height_mm", "volume_ml", "kg"],
            CaseShape::Stack => &["inner_diameter_mm", "layers", "watch"],
        };
        let mut faults: Vec<Fault> = own
            .iter()
            .filter(|(field, written)| *written && !read.contains(field))
            .map(|(field, _)| {
                Fault::new(*field, FaultCode::WrongValue, "this shape does not have it: leave it out")
            })
            .collect();
        if [self.height_mm, self.volume_ml, self.kg].iter().flatten().count() > 1 {
            faults.push(Fault::new(
                "height_mm",
                FaultCode::Twice,
                "say once how full it is: height_mm, volume_ml or kg",
            ));
        }
        if self.constant.is_some() && self.material.is_some() {
            faults.push(Fault::new(
                "material",
                FaultCode::Twice,
                "say once what it is made of: material or const",
            ));
        }
        for (at, phase) in self.phases.iter().enumerate().filter(|_| self.shape == CaseShape::Ball) {
            let mut faces = [phase.top, phase.side, phase.bottom].into_iter().flatten();
            let first = faces.next();
            if faces.any(|face| Some(face) != first) {
                let words = "a ball has one skin: say side alone, or all the same";
                faults.push(Fault::new(format!("phases.{at}"), FaultCode::Twice, words));
            }
        }
        faults
    }

    fn faults_of_time(&self) -> Vec<Fault> {
        let mut faults = Vec::new();
        let mut add =
            |field: String, code: FaultCode, words: &str| faults.push(Fault::new(field, code, words));
        if self.phases.is_empty() || self.phases.len() > 12 {
            add("phases".into(), FaultCode::HowMany, "1 to 12 phases");
        }
        for (at, phase) in self.phases.iter().enumerate() {
            if !phase.min.is_finite() || phase.min <= 0.0 {
                add(format!("phases.{at}.min"), FaultCode::OutOfRange, "more than 0 minutes");
            }
            if phase.stir_min.is_some_and(|min| !min.is_finite() || min < 0.05) {
                add(
                    format!("phases.{at}.stir_min"),
                    FaultCode::OutOfRange,
                    "0.05 minutes and more from stir to stir",
                );
            }
            let faces = [("top", &phase.top), ("side", &phase.side), ("bottom", &phase.bottom)];
            if faces.iter().all(|(_, face)| face.is_none()) {
                add(
                    format!("phases.{at}"),
                    FaultCode::NothingInIt,
                    "name at least one face: top, side or bottom",
                );
            }
            for (name, face) in faces {
                let Some(face) = face else { continue };
                let [low, usual, high] = face.h.all();
                if ![low, usual, high].iter().all(|h| (0.01..=1e5).contains(h)) {
                    add(
                        format!("phases.{at}.{name}.h"),
                        FaultCode::OutOfRange,
                        "between 0.01 and 100000 W/(m² K)",
                    );
                } else if low > usual || usual > high {
                    add(
                        format!("phases.{at}.{name}.h"),
                        FaultCode::LimitsCrossed,
                        "least, usual and most, in this order",
                    );
                }
                if !(-60.0..=250.0).contains(&face.t) {
                    add(format!("phases.{at}.{name}.t"), FaultCode::OutOfRange, "between -60 and 250 °C");
                }
                if !(0.0..=10.0).contains(&face.r) {
                    add(format!("phases.{at}.{name}.r"), FaultCode::OutOfRange, "between 0 and 10 m² K/W");
                }
                if name == "side" && self.is_wide() {
                    add(
                        format!("phases.{at}.side"),
                        FaultCode::WrongValue,
                        "what is wide has no side: use top and bottom, or a cylinder",
                    );
                }
            }
        }
        let whole: f64 = self.phases.iter().map(|phase| phase.min).sum();
        if whole > 20160.0 {
            let words = format!("{whole:.0} minutes are more than two weeks: shorten the last phase");
            add("phases".into(), FaultCode::TooLong, &words);
        }
        if self.marks.is_empty() || self.marks.len() > 40 {
            add("marks".into(), FaultCode::HowMany, "ask for 1 to 40 marks");
        }
        for (at, mark) in self.marks.iter().enumerate() {
            if mark.to_c.is_some() == mark.after_min.is_some() {
                add(format!("marks.{at}"), FaultCode::WrongValue, "ask to_c or after_min, one of the two");
            }
            if mark.after_min.is_some_and(|min| !min.is_finite() || min < 0.0 || min > whole) {
                let words = format!(
                    "the phases last {whole:.0} minutes: ask within them, or make the last one longer"
                );
                add(format!("marks.{at}.after_min"), FaultCode::OutOfRange, &words);
            }
            if mark.to_c.is_some_and(|t| !(-60.0..=250.0).contains(&t)) {
                add(format!("marks.{at}.to_c"), FaultCode::OutOfRange, "between -60 and 250 °C");
            }
        }
        faults
    }

    fn is_wide(&self) -> bool {
        self.shape == CaseShape::Slab || (self.shape == CaseShape::Stack && self.diameter_mm.is_none())
    }

    fn as_layer(&self) -> CaseLayer {
        let thickness_mm = self.thickness_mm.unwrap_or(1.0);
        CaseLayer { thickness_mm, constant: None, material: None, start_c: None }
    }

    /// Where it ends up, °C.
    fn ends_c(&self) -> f64 {
        let last = self.phases.last();
        let face = last.and_then(|phase| phase.top.or(phase.side).or(phase.bottom));
        face.map_or(20.0, |face| face.t)
    }

    /// What the strongest face of all phases lets through, W/(m² K).
    fn strongest(&self) -> f64 {
        let faces = |phase: &crate::heat::case::CasePhase| [phase.top, phase.side, phase.bottom];
        let passes = |face: CaseFace| 1.0 / (1.0 / face.h.all()[2] + face.r);
        self.phases.iter().flat_map(faces).flatten().map(passes).fold(0.0, f64::max)
    }

    fn material_of(&self, layer: &CaseLayer) -> Material {
        let start_c = layer.start_c.or(self.start_c).unwrap_or(20.0);
        match (layer.material.or(self.material), layer.constant.or(self.constant)) {
            (Some(material), _) => Material::new(&made_of(&material, self.ends_c() <= start_c)),
            (None, Some(ConstantMaterial { k, rho, c })) => Material::constant(k, rho, c),
            (None, None) => Material::constant(0.5, 1000.0, 3500.0),
        }
    }

    /// The body of it. Only a case without faults has one.
    pub fn shaped(&self) -> Shaped {
        if self.shape == CaseShape::Stack {
            return self.stacked();
        }
        let material = self.material_of(&self.as_layer());
        let start_c = self.start_c.unwrap_or(20.0);
        let strongest = self.strongest();
        let conducts = material.conducts(start_c).min(material.conducts(self.ends_c()));
        let Sizes { outline, height_m, rows, skin, foot } =
            self.sizes(strongest, conducts, material.density());
        Shaped {
            materials: vec![material],
            layers: vec![(height_m, start_c, rows)],
            outline,
            watch: None,
            skin,
            foot,
            ball: self.shape == CaseShape::Ball,
        }
    }

    fn sizes(&self, strongest: f64, conducts: f64, density: f64) -> Sizes {
        let metres = |mm: Option<f64>| 1e-3 * mm.unwrap_or(1.0);
        let diameter_m = metres(self.diameter_mm);
        let round = |radius_m: f64, hole_m: f64, height_m: f64, skin: f64, foot: f64| {
            let fine = usize::from(strongest * (radius_m - hole_m).max(0.5 * height_m) / conducts > 3.0);
            let rings = if hole_m > 0.0 { ROWS[fine] } else { RINGS[fine] };
            let outline = Outline::Round { radius_m, hole_m, rings };
            Sizes { outline, height_m, rows: ROWS[fine], skin, foot }
        };
        match self.shape {
            CaseShape::Slab | CaseShape::Stack => {
                let height_m = metres(self.thickness_mm);
                let one_sided = self.phases.iter().any(|phase| phase.top.is_none() || phase.bottom.is_none());
                let biot = strongest * height_m / conducts * if one_sided { 1.0 } else { 0.5 };
                Sizes { outline: Outline::Wide, height_m, rows: rows_for(biot), skin: 1.0, foot: 1.0 }
            }
            CaseShape::Ball => Sizes {
                outline: Outline::Ball { shells: SHELLS },
                height_m: diameter_m,
                rows: 1,
                skin: 1.0,
                foot: 1.0,
            },
            CaseShape::Cylinder | CaseShape::Ring => {
                let height_m = metres(self.height_mm.or(self.thickness_mm));
                let hole_m = self.inner_diameter_mm.map_or(0.0, |mm| 5e-4 * mm);
                round(0.5 * diameter_m, hole_m, height_m, 1.0, 1.0)
            }
            CaseShape::Dome => {
                let (a, h) = (0.5 * diameter_m, self.height_mm.map_or(0.5 * diameter_m, |mm| 1e-3 * mm));
                let volume = PI * h / 6.0 * (3.0 * a * a + h * h);
                let radius = (volume / (PI * h)).sqrt();
                let skin = PI * (a * a + h * h) / (2.0 * PI * radius * h + PI * radius * radius);
                round(radius, 0.0, h, skin, (a / radius).powi(2))
            }
            CaseShape::Bowl => {
                let rim = 0.5 * diameter_m;
                let volume = self.volume_ml.map(|ml| 1e-6 * ml).or(self.kg.map(|kg| kg / density));
                let depth = match (self.height_mm, volume) {
                    (Some(mm), _) => 1e-3 * mm,
                    (None, Some(volume)) => bowl_depth(rim, volume),
                    (None, None) => rim,
                };
                let volume = bowl_volume(rim, depth);
                round((volume / (PI * depth)).sqrt(), 0.0, depth, 1.0, 1.0)
            }
        }
    }

    fn stacked(&self) -> Shaped {
        let materials: Vec<Material> = self.layers.iter().map(|layer| self.material_of(layer)).collect();
        let thin = self.layers.iter().any(|layer| layer.thickness_mm <= 5.0);
        let layers = self.layers.iter().map(|layer| {
            let cell_mm = match layer.thickness_mm {
                mm if mm <= 5.0 => THIN_CELL_MM,
                _ if thin => 0.5 * (THIN_CELL_MM + THICK_CELL_MM),
                _ => THICK_CELL_MM,
            };
            let cells = ((layer.thickness_mm / cell_mm).round() as usize).clamp(3, MOST_CELLS);
            (1e-3 * layer.thickness_mm, layer.start_c.or(self.start_c).unwrap_or(20.0), cells)
        });
        let outline = match self.diameter_mm {
            Some(mm) => Outline::Round {
                radius_m: 5e-4 * mm,
                hole_m: self.inner_diameter_mm.map_or(0.0, |mm| 5e-4 * mm),
                rings: RINGS[1],
            },
            None => Outline::Wide,
        };
        let layers = layers.collect();
        Shaped { materials, layers, outline, watch: self.watch, skin: 1.0, foot: 1.0, ball: false }
    }
}

/// A material by what is in it.
pub fn made_of(material: &CaseMaterial, cooling: bool) -> MadeOf {
    let shares = material.comp.shares();
    MadeOf {
        shares,
        air: material.air,
        fat_outside: material.continuous == Surrounds::Fat,
        solutes: Solutes::lumped(&shares, material.sugar_molar.unwrap_or(342.3)),
        cooling: material.mode.map_or(cooling, |goes| goes == Goes::Cool),
    }
}

/// Volume of what stands `depth` deep in half a ball of a rim's radius, with a straight wall above it, m³.
pub fn bowl_volume(rim: f64, depth: f64) -> f64 {
    let in_ball = depth.min(rim);
    PI * in_ball * in_ball * (rim - in_ball / 3.0) + PI * rim * rim * (depth - in_ball)
}

/// How deep so much stands in it, m.
pub fn bowl_depth(rim: f64, volume: f64) -> f64 {
    let half = bowl_volume(rim, rim);
    if volume >= half {
        return rim + (volume - half) / (PI * rim * rim);
    }
    let (mut low, mut high) = (0.0, rim);
    for _ in 0..60 {
        let middle = 0.5 * (low + high);
        if bowl_volume(rim, middle) < volume { low = middle } else { high = middle }
    }
    0.5 * (low + high)
}

impl Shaped {
    /// The body.
    pub fn body(&self) -> Body<'_> {
        let layers = self.layers.iter().zip(&self.materials).map(|((thickness_m, t_c, cells), material)| {
            Layer { material, thickness_m: *thickness_m, t_c: *t_c, cells: *cells }
        });
        Body { layers: layers.collect(), outline: self.outline, watch: self.watch }
    }

    /// Stretches of time with the least, the usual or the most of every band.
    pub fn stretches(&self, document: &CaseDocument, which: usize) -> Vec<Stretch> {
        let face = |face: CaseFace, skin: f64| Face {
            h: skin * face.h.all()[which],
            air_c: face.t,
            resistance: face.r / skin,
            moist: None,
        };
        document
            .phases
            .iter()
            .map(|phase| {
                let round = if self.ball { phase.side.or(phase.top).or(phase.bottom) } else { phase.side };
                Stretch {
                    seconds: 60.0 * phase.min,
                    top: phase.top.map(|own| face(own, self.skin)),
                    side: round.map(|own| face(own, self.skin)),
                    bottom: phase.bottom.map(|own| face(own, self.foot)),
                    stir_s: phase.stir_min.map(|min| 60.0 * min),
                }
            })
            .collect()
    }
}
