//! What is wrong with a case as it is written down.

use crate::fault::{Fault, FaultCode};
use crate::heat::case::{CaseDocument, CaseShape, ConstantMaterial};

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
}
