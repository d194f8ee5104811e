//! The factor a target asks for, and every amount at it.

use crate::assess::Ready;
use crate::assess::assessed;
use crate::assess::document::FormulaDocument;
use crate::fault::{Fault, FaultCode};
use crate::formula::kitchen_words::in_pieces;
use crate::formula::{Line, WeighedLine};
use crate::ingredient::measure::{OwnWeights, weigh};
use crate::ingredient::{Ingredient, Shelf};
use crate::number::{hundredths, limit, on_a_scale};
use crate::scale::target::{Have, ScaleAsk, Target, Whole};
use crate::scale::whole::whole_factor;
use crate::units::Mass;
use crate::units::amount::{self, Amount, Number};
use crate::units::kitchen::{Measures, Unit, UnitKind};
use serde::Serialize;
use utoipa::ToSchema;

/// Least factor taken.
pub const LEAST_FACTOR: f64 = 0.01;
/// Greatest factor taken.
pub const GREATEST_FACTOR: f64 = 1000.0;

/// Grams of a pack of an ingredient in a kitchen, where one is known.
pub type PackOf<'a> = &'a dyn Fn(&Ingredient) -> Option<f64>;

/// A line at the new size.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ScaledLine {
    /// Name of the ingredient.
    pub name: String,
    /// Before, g.
    pub from_g: f64,
    /// After, as it is weighed, g.
    pub to_g: f64,
    /// Share of the new batch, per cent of total.
    pub of_total_percent: f64,
    /// The same in eggs, leaves, sticks; none when it is not counted.
    pub in_pieces: Option<String>,
    /// The same in packs, rounded up to what must be opened; none where no pack is known.
    pub packs_opened: Option<f64>,
    /// How far rounding moved it, per cent of itself.
    pub rounded_percent: f64,
}

/// The formula at its new size.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Scaled {
    /// How many times the old one.
    pub factor: f64,
    /// In one sentence.
    pub sentence: String,
    /// What cannot come out whole with the rest, in words; empty when all does.
    pub not_whole: Vec<String>,
    /// The line that limits the batch, when something is short.
    pub limited_by: Option<usize>,
    /// The batch, g.
    pub batch_g: f64,
    /// Its volume with its air, ml.
    pub volume_ml: f64,
    /// What can be used of it after the loss, g.
    pub usable_g: f64,
    /// Its lines.
    pub lines: Vec<ScaledLine>,
    /// The formula at its new size.
    pub document: FormulaDocument,
}

/// Brings a formula to a size.
///
/// The factor f is what is wanted over what there is, k = 1 − loss/100 of a batch being usable:
/// f = wanted / (k × batch); with something short, f is the least of have/amount, whatever the loss.
///
/// # Arguments
/// * `pack`: grams in a pack of an ingredient in this kitchen, where one is known.
///
/// # Errors
/// Faults of the document; a target that cannot be met: nothing wanted, a factor below 0.01 or above
/// 1000, a line that is not there, an amount that cannot be read or weighed.
pub fn scale(ask: &ScaleAsk, kitchen: &Shelf, pack: PackOf) -> Result<Scaled, Vec<Fault>> {
    let (Ready { lines, .. }, now) = assessed(&ask.document, kitchen)?;
    if !(0.0..=50.0).contains(&ask.loss_percent) {
        let message = "what stays in bowl and bag is 0 to 50 % of the batch";
        return Err(vec![Fault::new("loss_percent", FaultCode::OutOfRange, message)]);
    }
    let usable = 1.0 - ask.loss_percent / 100.0;
    let (batch_g, volume_ml) = (now.totals.batch_mass_g, now.figures.volume_ml);
    let (asked, limited_by) = match &ask.target {
        Target::Mass { grams } => (grams / (usable * batch_g), None),
        Target::Volume { ml } => (ml / (usable * volume_ml), None),
        Target::Pieces { count, each, by_volume } => {
            let wanted = f64::from(*count) * each;
            (wanted / (usable * if *by_volume { volume_ml } else { batch_g }), None)
        }
        Target::Short { have } => shortest(have, &ask.document, &lines)?,
        Target::Factor { by } => (*by, None),
    };
    if !(LEAST_FACTOR..=GREATEST_FACTOR).contains(&asked) {
        let message = if asked.is_finite() && asked > 0.0 {
            format!("that is {} times the formula: ask for 0.01 to 1000 times of it", limit(asked))
        } else {
            "nothing is asked for: write how much is wanted".to_owned()
        };
        return Err(vec![Fault::new("target", FaultCode::OutOfRange, message)]);
    }
    let sizes = counted(ask, &lines, pack);
    if ask.whole != Whole::Nothing && sizes.iter().all(Option::is_none) {
        let word = if ask.whole == Whole::Packs { "pack" } else { "egg, leaf or stick" };
        let message = format!("nothing in it is known by the {word}: leave that out");
        return Err(vec![Fault::new("whole", FaultCode::NothingCounted, message)]);
    }
    // With something short there is no more of it; else a little more is better than too little.
    let factor = whole_factor(asked, limited_by.is_some(), &sizes).unwrap_or(asked);
    let (document, lines) = at_factor(ask, &lines, &sizes, factor, pack);
    // Of what is weighed so much is left once it is boiled down.
    let weighed: f64 = lines.iter().map(|line| line.from_g).sum();
    let left = if (batch_g - weighed).abs() < 1e-9 { 1.0 } else { batch_g / weighed };
    let batch = left * lines.iter().map(|line| line.to_g).sum::<f64>();
    let not_whole = not_whole(ask.whole, &lines, &sizes);
    Ok(Scaled {
        sentence: sentence(ask, factor, asked, batch, usable, limited_by.map(|at| lines[at].name.as_str())),
        factor,
        not_whole,
        limited_by,
        batch_g: batch,
        volume_ml: volume_ml * batch / batch_g,
        usable_g: usable * batch,
        lines,
        document,
    })
}

/// The factor that uses up what is shortest, and its line.
fn shortest(
    have: &[Have],
    document: &FormulaDocument,
    lines: &[WeighedLine],
) -> Result<(f64, Option<usize>), Vec<Fault>> {
    let mut faults = Vec::new();
    let mut least: Option<(f64, usize)> = None;
    for (at, have) in have.iter().enumerate() {
        let field = format!("target.have.{at}");
        let Some(line) = lines.get(have.line) else {
            let message = format!("there is no line {}: pick one of the formula", have.line + 1);
            faults.push(Fault::new(format!("{field}.line"), FaultCode::NoSuchLine, message));
            continue;
        };
        match grams_of(&have.amount, &document.lines[have.line], &line.ingredient, document.measures) {
            Err(words) => faults.push(Fault::new(format!("{field}.amount"), FaultCode::BadAmount, words)),
            Ok(_) if line.mass.grams() <= 0.0 => {
                let message = format!("the formula takes no {}: it cannot be short", line.ingredient.name);
                faults.push(Fault::new(format!("{field}.line"), FaultCode::NothingOfIt, message));
            }
            Ok(grams) => {
                let factor = grams / line.mass.grams();
                if least.is_none_or(|(other, _)| factor < other) {
                    least = Some((factor, have.line));
                }
            }
        }
    }
    if !faults.is_empty() {
        return Err(faults);
    }
    let message = "say of which ingredient there is only so much";
    least
        .map(|(factor, line)| (factor, Some(line)))
        .ok_or_else(|| vec![Fault::new("target.have", FaultCode::NothingShort, message)])
}

/// Grams of an amount as written, of an ingredient.
pub(crate) fn grams_of(
    text: &str,
    line: &Line,
    ingredient: &Ingredient,
    measures: Measures,
) -> Result<f64, String> {
    let own = OwnWeights { density: line.density_g_per_ml, piece: line.piece_g };
    let amount = amount::parse(text).map_err(|error| error.to_string())?;
    weigh(amount, ingredient, measures, own)
        .map(|weighed| weighed.mass.grams())
        .map_err(|error| error.to_string())
}

/// Pieces, or packs, in each line of the formula as it is; none where it is not counted.
fn counted(ask: &ScaleAsk, lines: &[WeighedLine], pack: PackOf) -> Vec<Option<f64>> {
    lines
        .iter()
        .zip(&ask.document.lines)
        .enumerate()
        .map(|(at, (line, written))| {
            if ask.whole_line.is_some_and(|only| only != at) || line.mass.grams() <= 0.0 {
                return None;
            }
            let size = match ask.whole {
                Whole::Nothing => None,
                Whole::Pieces => written.piece_g.map(Mass::grams).or_else(|| {
                    let pieces = &line.ingredient.weights.pieces;
                    let own = pieces.iter().find(|(unit, _)| *unit != Unit::Envelope).or(pieces.first());
                    own.map(|(_, known)| known.weight)
                }),
                Whole::Packs => pack(&line.ingredient),
            };
            size.filter(|size| *size > 0.0).map(|size| line.mass.grams() / size)
        })
        .collect()
}

/// Every amount at a factor, written as it can be measured.
fn at_factor(
    ask: &ScaleAsk,
    lines: &[WeighedLine],
    sizes: &[Option<f64>],
    factor: f64,
    pack: PackOf,
) -> (FormulaDocument, Vec<ScaledLine>) {
    let mut document = ask.document.clone();
    document.process.boiled = document.process.boiled.map(|to| to.of_times(factor));
    document.process.strained = document.process.strained.map(|own| own.of_times(factor));
    let mut grams = Vec::with_capacity(lines.len());
    for (at, line) in lines.iter().enumerate() {
        let exact = factor * line.mass.grams();
        let own = &mut document.lines[at];
        own.boiled = own.boiled.map(|to| to.of_times(factor));
        own.strained = own.strained.map(|strained| strained.of_times(factor));
        own.steeped = own.steeped.map(|steeped| steeped.of_times(factor));
        own.rule.least_g = own.rule.least_g.map(|g| (g * factor).min(1e6));
        own.rule.most_g = own.rule.most_g.map(|g| (g * factor).min(1e6));
        // A whole number of pieces weighs what it weighs.
        let whole = sizes[at].is_some_and(|many| (factor * many - (factor * many).round()).abs() < 1e-6);
        let (text, weighed) = match written(&own.amount, exact, factor, ask.document.measures, whole) {
            Some(text) => (text, exact),
            None => {
                let rounded = on_a_scale(exact);
                (format!("{rounded} g"), rounded)
            }
        };
        own.amount = text;
        grams.push((exact, weighed));
    }
    let batch: f64 = grams.iter().map(|(_, to)| to).sum();
    let lines = lines
        .iter()
        .zip(&grams)
        .map(|(line, (exact, to))| ScaledLine {
            name: line.ingredient.name.clone(),
            from_g: line.mass.grams(),
            to_g: *to,
            of_total_percent: 100.0 * to / batch.max(1e-12),
            in_pieces: in_pieces(*to, &line.ingredient),
            packs_opened: pack(&line.ingredient)
                .filter(|g| *g > 0.0)
                .map(|g| (to / g - 1e-9).ceil().max(0.0)),
            rounded_percent: if *exact > 0.0 { 100.0 * (to / exact - 1.0) } else { 0.0 },
        })
        .collect();
    (document, lines)
}

/// An amount in the unit it was written in, when that unit can measure it: per cent stay, spoons come in
/// quarters and thirds, pieces come whole. None when it must be weighed.
fn written(text: &str, grams: f64, factor: f64, measures: Measures, whole: bool) -> Option<String> {
    let amount = amount::parse(text).ok()?;
    let unit = amount.unit?;
    let many = factor * amount.number.value();
    let number = match unit.kind(measures) {
        UnitKind::Share => return Some(text.to_owned()),
        UnitKind::Mass(_) if whole => return Some(format!("{} g", hundredths(grams))),
        UnitKind::Mass(_) => return None,
        UnitKind::Piece => near(many, &[1], 0.002)?,
        UnitKind::Volume(_) => near(many, &[1, 2, 3, 4], 0.005)?,
    };
    Some(Amount { number, unit: Some(unit) }.to_string())
}

/// A number as a whole or a simple fraction, within a share of itself.
fn near(many: f64, below: &[u32], within: f64) -> Option<Number> {
    below.iter().find_map(|below| {
        let above = (many * f64::from(*below)).round();
        let fits = above > 0.0 && (above / f64::from(*below) / many - 1.0).abs() < within;
        fits.then(|| match (above as u32, *below) {
            (above, 1) => Number::Decimal(f64::from(above)),
            (above, below) => Number::Fraction { whole: above / below, above: above % below, below },
        })
    })
}

/// Lines that should be whole and are not, in words.
fn not_whole(whole: Whole, lines: &[ScaledLine], sizes: &[Option<f64>]) -> Vec<String> {
    lines
        .iter()
        .zip(sizes)
        .filter_map(|(line, many)| {
            let now = many.as_ref()? * line.to_g / line.from_g;
            if (now - now.round()).abs() < 0.02 {
                return None;
            }
            let count = match whole {
                Whole::Packs => format!("{} packs", limit(now)),
                _ => line.in_pieces.clone()?,
            };
            Some(format!("{}: {count}", line.name))
        })
        .collect()
}

fn sentence(ask: &ScaleAsk, factor: f64, asked: f64, batch: f64, usable: f64, short: Option<&str>) -> String {
    let mut words = format!("{} times: {} g in the bowl", three_digits(factor), on_a_scale(batch));
    if usable < 1.0 {
        words.push_str(&format!(", {} g of it to use", on_a_scale(usable * batch)));
    }
    if let Target::Pieces { count, .. } = &ask.target {
        words
            .push_str(&format!(", {} g for each of {count}", on_a_scale(usable * batch / f64::from(*count))));
    }
    if let Some(name) = short {
        words.push_str(&format!("; {name} sets the size"));
    }
    if (factor / asked - 1.0).abs() > 5e-4 {
        let word = if factor > asked { "more" } else { "less" };
        let by = 100.0 * (factor / asked - 1.0).abs();
        words.push_str(&format!("; {} % {word} than asked, so that pieces come out whole", limit(by)));
    }
    words.push('.');
    words
}

/// Three significant digits, without trailing zeros.
fn three_digits(value: f64) -> String {
    let decimals = (2.0 - value.abs().max(1e-9).log10().floor()).clamp(0.0, 5.0) as usize;
    let text = format!("{value:.decimals$}");
    if text.contains('.') { text.trim_end_matches('0').trim_end_matches('.').to_owned() } else { text }
}
