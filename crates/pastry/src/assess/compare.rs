//! Two or three formulas side by side, what differs marked.

use crate::assess::answer::{Assessment, Point, assess_from};
use crate::assess::document::FormulaDocument;
use crate::assess::figures::KeyFigure;
use crate::fault::{Fault, FaultCode};
use crate::ingredient::Shelf;
use crate::job::duty::MapAxis;
use crate::number::two_digits;
use crate::rheology::warning::Warning;
use serde::Serialize;
use utoipa::ToSchema;

/// Fewest and most formulas set side by side.
pub const HOW_MANY: std::ops::RangeInclusive<usize> = 2..=3;

/// One formula of a comparison.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Column {
    /// Its name.
    pub name: String,
    /// Its family, in kitchen words.
    pub family: String,
    /// What it is to do.
    pub job: String,
    /// Weight of the batch, g.
    pub batch_mass_g: f64,
    /// The working temperature judged.
    pub at: Point,
    /// When it works, in one sentence.
    pub span_sentence: String,
    /// Value on the map's axis at every point of its map.
    pub on_map: Vec<f64>,
    /// Warnings, worst first.
    pub warnings: Vec<Warning>,
}

/// An ingredient across the formulas, or one of their numbers.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Row {
    /// Its name.
    pub name: String,
    /// What it is counted in or on.
    pub base: String,
    /// The numbers, one a column; none where the formula has it not.
    pub values: Vec<Option<f64>>,
    /// The same as they are read.
    pub texts: Vec<String>,
    /// Whether they differ by more than rounding.
    pub differs: bool,
}

/// Formulas side by side.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Comparison {
    /// What the difference comes to, in one sentence.
    pub sentence: String,
    /// What the maps' axis counts; none when they do not count the same.
    pub axis: Option<MapAxis>,
    /// Step between the points of the maps, K.
    pub sweep_step_k: f64,
    /// The formulas.
    pub columns: Vec<Column>,
    /// Ingredients, per cent of total, so that batches of any size compare.
    pub lines: Vec<Row>,
    /// The balance, per cent of total.
    pub phases: Vec<Row>,
    /// Numbers of the families.
    pub figures: Vec<Row>,
}

/// Below this share of the larger, two numbers are the same to a cook.
const SAME: f64 = 0.01;

fn row(name: String, base: String, values: Vec<Option<f64>>, text: impl Fn(f64) -> String) -> Row {
    let present: Vec<f64> = values.iter().flatten().copied().collect();
    let (low, high) = present.iter().fold((f64::MAX, f64::MIN), |(l, h), v| (l.min(*v), h.max(*v)));
    let differs = present.len() != values.len() || high - low > SAME * high.abs().max(1e-9);
    let texts = values.iter().map(|value| value.map_or("none".to_owned(), &text)).collect();
    Row { name, base, values, texts, differs }
}

/// Sets documents side by side.
///
/// # Errors
/// Another number than two or three; faults of the documents, their fields under `documents.N`.
pub fn compare(documents: &[FormulaDocument], kitchen: &Shelf) -> Result<Comparison, Vec<Fault>> {
    if !HOW_MANY.contains(&documents.len()) {
        let message = format!("two or three formulas can be compared, not {}", documents.len());
        return Err(vec![Fault::new("documents", FaultCode::HowMany, message)]);
    }
    let mut faults = Vec::new();
    let mut answers: Vec<Assessment> = Vec::new();
    for (at, document) in documents.iter().enumerate() {
        match assess_from(document, kitchen) {
            Ok(answer) => answers.push(answer),
            Err(found) => faults.extend(
                found
                    .into_iter()
                    .map(|fault| Fault { field: format!("documents.{at}.{}", fault.field), ..fault }),
            ),
        }
    }
    if !faults.is_empty() {
        return Err(faults);
    }
    let axis = answers[0].axis;
    let same_map = answers.iter().all(|a| a.axis == axis && a.sweep_step_k == answers[0].sweep_step_k);
    Ok(Comparison {
        sentence: sentence(&answers),
        axis: same_map.then_some(axis),
        sweep_step_k: answers[0].sweep_step_k,
        lines: lines(&answers),
        phases: phases(&answers),
        figures: figures(&answers),
        columns: answers.into_iter().map(column).collect(),
    })
}

fn column(answer: Assessment) -> Column {
    Column {
        name: answer.name,
        family: answer.family.word().to_owned(),
        job: answer.job.verb().to_owned(),
        batch_mass_g: answer.totals.batch_mass_g,
        at: answer.at,
        span_sentence: answer.span_sentence,
        on_map: answer.sweep.iter().map(|point| point.on_map.value).collect(),
        warnings: answer.warnings,
    }
}

fn lines(answers: &[Assessment]) -> Vec<Row> {
    let mut keys: Vec<(String, String)> = Vec::new();
    for line in answers.iter().flat_map(|answer| &answer.lines) {
        if !keys.iter().any(|(key, _)| *key == line.ingredient) {
            keys.push((line.ingredient.clone(), line.name.clone()));
        }
    }
    keys.into_iter()
        .map(|(key, name)| {
            let values = answers
                .iter()
                .map(|answer| {
                    let shares: Vec<f64> = answer
                        .lines
                        .iter()
                        .filter(|line| line.ingredient == key)
                        .map(|line| line.of_total_percent)
                        .collect();
                    (!shares.is_empty()).then(|| shares.iter().sum())
                })
                .collect();
            row(name, "of total".to_owned(), values, |percent| format!("{percent:.1} %"))
        })
        .collect()
}

fn phases(answers: &[Assessment]) -> Vec<Row> {
    let phase = |name: &str, of: fn(&Assessment) -> f64| {
        let values = answers.iter().map(|answer| Some(of(answer))).collect();
        row(name.to_owned(), "of total".to_owned(), values, |percent| format!("{percent:.1} %"))
    };
    vec![
        phase("fat", |a| a.totals.phases_of_total_percent.fat),
        phase("sugar", |a| a.totals.phases_of_total_percent.sugar),
        phase("water", |a| a.totals.phases_of_total_percent.water),
        phase("cocoa and dry", |a| a.totals.phases_of_total_percent.dry),
        phase("setting", |a| a.totals.phases_of_total_percent.setting),
    ]
}

fn figures(answers: &[Assessment]) -> Vec<Row> {
    let mut keys: Vec<&KeyFigure> = Vec::new();
    for figure in answers.iter().flat_map(|answer| &answer.key_figures) {
        if !keys.iter().any(|known| known.key == figure.key && known.name == figure.name) {
            keys.push(figure);
        }
    }
    keys.into_iter()
        .map(|wanted| {
            let of = |answer: &Assessment| {
                answer.key_figures.iter().find(|f| f.key == wanted.key && f.name == wanted.name).cloned()
            };
            let found: Vec<Option<KeyFigure>> = answers.iter().map(of).collect();
            let values = found.iter().map(|figure| figure.as_ref().map(|figure| figure.value)).collect();
            let mut row = row(wanted.name.clone(), wanted.base.clone(), values, two_digits);
            row.texts = found
                .iter()
                .map(|figure| {
                    figure.as_ref().map_or("not counted here".to_owned(), |figure| figure.text.clone())
                })
                .collect();
            row
        })
        .collect()
}

/// "Dark drip is 1.8 times as stiff as Milk drip at 26.0 °C."
fn sentence(answers: &[Assessment]) -> String {
    let (first, last) = (&answers[0], &answers[answers.len() - 1]);
    let t_c = first.at.temperature_c;
    let at = |answer: &Assessment| {
        let point = answer
            .sweep
            .iter()
            .min_by(|a, b| (a.temperature_c - t_c).abs().total_cmp(&(b.temperature_c - t_c).abs()))?;
        Some((point.yield_stress_pa, point.viscosity_pa_s))
    };
    let (Some(a), Some(b)) = (at(first), at(last)) else { return String::new() };
    let runny = first.axis == MapAxis::ViscosityPaS && last.axis == MapAxis::ViscosityPaS;
    let (ratio, word) =
        if runny { (a.1.value / b.1.value, "thick") } else { (a.0.value / b.0.value, "stiff") };
    let name = |answer: &Assessment, other: &str| match answer.name.trim() {
        "" => other.to_owned(),
        name => name.to_owned(),
    };
    let (one, other) = (name(first, "The first"), name(last, "the last"));
    match ratio {
        r if (r - 1.0).abs() < 0.05 => {
            format!("{one} and {other} are as {word} as each other at {t_c:.1} °C.")
        }
        r if r > 1.0 => format!("{one} is {} times as {word} as {other} at {t_c:.1} °C.", two_digits(r)),
        r => format!("{other} is {} times as {word} as {one} at {t_c:.1} °C.", two_digits(1.0 / r)),
    }
}
