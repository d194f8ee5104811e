//! What is in the bowl, judged; and the spoon's sign to look for: as the method says it of a step, or as the model has it.

use crate::assess::answer::{Assessment, assess_from};
use crate::assess::document::FormulaDocument;
use crate::assess::spoon_sign::SpoonSign;
use crate::ingredient::Shelf;
use crate::job::duty::Outcome;
use serde::Serialize;
use utoipa::ToSchema;

/// Density of what a sign of the method is drawn with, kg/m³: the water's (assumed; a table's sign is of no one cream).
const DENSITY_KG_M3: f64 = 1000.0;

/// What a spoonful does, and with what it is drawn.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SpoonToSee {
    /// What it does.
    pub sign: SpoonSign,
    /// The same in words.
    pub words: String,
    /// Yield stress it is drawn with, Pa.
    pub yield_stress_pa: f64,
    /// Viscosity at 10 /s it is drawn with, Pa·s.
    pub viscosity_pa_s: f64,
    /// Density it is drawn with, kg/m³.
    pub density_kg_m3: f64,
    /// The colour it is drawn in, as CSS has it; none where nothing that can be judged is in the bowl.
    pub tint: Option<String>,
    /// The temperature it is worked out for, °C; none for a sign of the method.
    pub at_c: Option<f64>,
}

impl From<SpoonSign> for SpoonToSee {
    fn from(sign: SpoonSign) -> Self {
        let (yield_stress_pa, viscosity_pa_s) = sign.typical();
        SpoonToSee {
            sign,
            words: sign.word().to_owned(),
            yield_stress_pa,
            viscosity_pa_s,
            density_kg_m3: DENSITY_KG_M3,
            tint: None,
            at_c: None,
        }
    }
}

impl SpoonToSee {
    /// As worked out for the work of what was judged.
    pub fn worked_out(own: &Assessment, at_c: f64) -> Self {
        let at = &own.at;
        SpoonToSee {
            sign: at.spoon,
            words: at.spoon_words.clone(),
            yield_stress_pa: at.yield_stress_pa.value,
            viscosity_pa_s: at.viscosity_pa_s.value,
            density_kg_m3: 1000.0 * own.figures.density_g_per_ml.value,
            tint: Some(own.tint.clone()),
            at_c: Some(at_c),
        }
    }
}

/// What something is.
pub struct Judged {
    /// In a sentence.
    pub sentence: String,
    /// Whether it is inside its window.
    pub inside: bool,
    /// What a spoonful does at its work; none where it cannot be judged.
    pub spoon: Option<SpoonToSee>,
}

/// Judges what is in the bowl.
pub fn judged(contents: &FormulaDocument, shelf: &Shelf) -> Judged {
    match assess_from(contents, shelf) {
        Ok(own) => Judged {
            sentence: own.at.headline.clone(),
            inside: own.at.outcome == Outcome::Inside,
            spoon: Some(SpoonToSee::worked_out(&own, contents.work.temperature_c.celsius())),
        },
        Err(faults) => {
            let why = faults.first().map_or("nothing is in", |own| own.message.as_str());
            Judged { sentence: format!("It cannot be judged: {why}."), inside: false, spoon: None }
        }
    }
}
