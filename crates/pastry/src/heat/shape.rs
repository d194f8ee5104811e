//! From a case to a body of cells.

use crate::heat::body::{Face, Stretch};
use crate::heat::case::{
    CaseDocument, CaseFace, CaseLayer, CaseMaterial, CaseShape, ConstantMaterial, Goes, Surrounds,
};
use crate::heat::form::{Form, Shaped, bowl_depth};
use crate::heat::material::{MadeOf, Material, Solutes};

impl CaseDocument {
    pub(super) fn as_layer(&self) -> CaseLayer {
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
            let layer = |layer: &CaseLayer| {
                let start_c = layer.start_c.or(self.start_c).unwrap_or(20.0);
                (self.material_of(layer), 1e-3 * layer.thickness_mm, start_c)
            };
            let round = self.diameter_mm.map(|mm| [5e-4 * mm, 5e-4 * self.inner_diameter_mm.unwrap_or(0.0)]);
            return Shaped::stack(self.layers.iter().map(layer).collect(), round, self.watch);
        }
        let material = self.material_of(&self.as_layer());
        let start_c = self.start_c.unwrap_or(20.0);
        Shaped::one(self.form(material.density()), material, [start_c, self.ends_c()], self.strongest())
    }

    fn form(&self, density: f64) -> Form {
        let metres = |mm: Option<f64>| 1e-3 * mm.unwrap_or(1.0);
        let diameter_m = metres(self.diameter_mm);
        let radius_m = 0.5 * diameter_m;
        match self.shape {
            CaseShape::Slab | CaseShape::Stack => Form::Slab {
                thickness_m: metres(self.thickness_mm),
                one_sided: self.phases.iter().any(|phase| phase.top.is_none() || phase.bottom.is_none()),
            },
            CaseShape::Ball => Form::Ball { diameter_m },
            CaseShape::Cylinder | CaseShape::Ring => Form::Round {
                radius_m,
                hole_m: self.inner_diameter_mm.map_or(0.0, |mm| 5e-4 * mm),
                height_m: metres(self.height_mm.or(self.thickness_mm)),
            },
            CaseShape::Dome => {
                Form::Dome { radius_m, height_m: self.height_mm.map_or(radius_m, |mm| 1e-3 * mm) }
            }
            CaseShape::Bowl => {
                let volume = self.volume_ml.map(|ml| 1e-6 * ml).or(self.kg.map(|kg| kg / density));
                let depth_m = match (self.height_mm, volume) {
                    (Some(mm), _) => 1e-3 * mm,
                    (None, Some(volume)) => bowl_depth(radius_m, volume),
                    (None, None) => radius_m,
                };
                Form::Bowl { rim_m: radius_m, depth_m }
            }
        }
    }

    /// Stretches of time with the least, the usual or the most of every band.
    pub fn stretches(&self, shaped: &Shaped, which: usize) -> Vec<Stretch> {
        let face =
            |face: CaseFace| Face { h: face.h.all()[which], air_c: face.t, resistance: face.r, moist: None };
        let phases = self.phases.iter().map(|phase| Stretch {
            seconds: 60.0 * phase.min,
            top: phase.top.map(face),
            side: phase.side.map(face),
            bottom: phase.bottom.map(face),
            stir_s: phase.stir_min.map(|min| 60.0 * min),
            as_one: None,
        });
        phases.map(|stretch| shaped.meets(stretch)).collect()
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
