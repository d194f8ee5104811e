//! What is strained off the lines of a formula, what is steeped in them and taken out again, and what is left.

use crate::fault::{Fault, FaultCode};
use crate::formula::strained::{Parting, Side, Strained, Straining, WET_OF_DRY};
use crate::formula::{Line, Mixture, WeighedLine, flat};
use crate::ingredient::composition::Part;
use crate::number::{batch_g, digits};
use serde::Serialize;
use utoipa::ToSchema;

/// Least share of water in what something can be steeped in.
const WET: f64 = 0.4;
/// More of the liquid than this does not go with what is lifted out of it.
const MOST_GONE: f64 = 0.9;

/// What was strained off, as it is counted.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct StrainedOff {
    /// The line; none for all of it.
    pub line: Option<usize>,
    /// What is kept of it, g; of what is steeped, what it leaves in the rest.
    pub left_g: f64,
    /// What is not, g; of what is steeped, what it weighs when it is taken out.
    pub gone_g: f64,
    /// "Raspberries, pressed through a sieve: 420 g are kept of 500 g, 80 g stay in the sieve".
    pub sentence: String,
}

fn grams(lines: &[WeighedLine]) -> f64 {
    flat(lines).iter().map(|line| line.mass.grams()).sum()
}

/// Strains some lines as one.
///
/// # Errors
/// What cannot be kept of them, at its field.
pub fn strain(
    lines: &mut [WeighedLine],
    strained: Strained,
    [at, name]: [&str; 2],
) -> Result<(Parting, StrainedOff), Fault> {
    let before = grams(lines);
    let parting = strained.parting(&Mixture::of(lines).composition, before, at)?;
    for line in lines.iter_mut() {
        line.ingredient = parting.kept_of(&line.ingredient);
    }
    let left_g = grams(lines);
    let (kept, rest) = (batch_g(left_g), batch_g(before - left_g));
    let where_to = match (strained.how, strained.keeps) {
        (Straining::Sieved, Side::Through) => format!("{rest} g stay in the sieve"),
        (Straining::Sieved, Side::Stays) => format!("{rest} g go through it"),
        (Straining::Drained, Side::Stays) => format!("{rest} g run off"),
        (Straining::Drained, Side::Through) => format!("{rest} g stay behind"),
    };
    let sentence =
        format!("{name}, {}: {kept} g are kept of {} g, {where_to}", strained.words(), batch_g(before));
    Ok((
        parting,
        StrainedOff { line: None, left_g: digits(left_g), gone_g: digits(before - left_g), sentence },
    ))
}

/// Strains the lines that are written so, each by itself.
pub fn strain_lines(lines: &mut [WeighedLine], written: &[Line]) -> (Vec<StrainedOff>, Vec<Fault>) {
    let (mut off, mut faults) = (Vec::new(), Vec::new());
    for (at, (line, asked)) in lines.iter_mut().zip(written).enumerate() {
        let Some(strained) = asked.strained.filter(|_| line.mass.grams() > 0.0) else { continue };
        let name = line.ingredient.name.clone();
        match strain(std::slice::from_mut(line), strained, [&format!("lines.{at}.strained"), &name]) {
            Ok((_, own)) => off.push(StrainedOff { line: Some(at), ..own }),
            Err(fault) => faults.push(fault),
        }
    }
    (off, faults)
}

/// Takes out the lines that are only steeped. What they hold of the rest is as much of every line that is wet.
pub fn lift_out(lines: &mut [WeighedLine], written: &[Line]) -> (Vec<StrainedOff>, Vec<Fault>) {
    let (mut off, mut faults) = (Vec::new(), Vec::new());
    for (at, asked) in written.iter().enumerate() {
        let Some(steeped) = asked.steeped else { continue };
        let dry_g = lines.get(at).map_or(0.0, |line| line.mass.grams());
        if dry_g <= 0.0 {
            continue;
        }
        let name = lines[at].ingredient.name.clone();
        let field = format!("lines.{at}.steeped.wet_g");
        let mut refuse = |words: String| faults.push(Fault::new(&field, FaultCode::OutOfRange, words));
        let wet_g = steeped.wet_g.unwrap_or(WET_OF_DRY * dry_g);
        if !(wet_g >= dry_g && wet_g <= 1e6) {
            refuse(format!("wet, {name} weighs {} g or more: weigh it as it is taken out", batch_g(dry_g)));
            continue;
        }
        let is_wet = |k: usize, line: &WeighedLine| {
            let m = Mixture::of(std::slice::from_ref(line)).composition;
            k != at
                && written.get(k).is_none_or(|own| own.steeped.is_none())
                && m.get(Part::Water) + m.get(Part::Alcohol) > WET
        };
        let wet: Vec<usize> =
            (0..lines.len()).filter(|k| lines[*k].mass.grams() > 0.0 && is_wet(*k, &lines[*k])).collect();
        let liquid: f64 = wet.iter().map(|k| grams(std::slice::from_ref(&lines[*k]))).sum();
        let parting = Parting::steeped();
        lines[at].ingredient = parting.kept_of(&lines[at].ingredient);
        let stays_g = grams(std::slice::from_ref(&lines[at]));
        let taken_g = wet_g - (dry_g - stays_g);
        if liquid <= 0.0 || taken_g > MOST_GONE * liquid {
            refuse(match liquid > 0.0 {
                true => format!(
                    "{} g of the liquid would go with {name}, and there are {} g of it: weigh what is taken out",
                    batch_g(taken_g),
                    batch_g(liquid)
                ),
                false => format!("there is nothing wet in the bowl that {name} could be steeped in"),
            });
            continue;
        }
        let alike = Parting::alike(1.0 - taken_g / liquid);
        for k in wet {
            lines[k].ingredient = alike.kept_of(&lines[k].ingredient);
        }
        let how = match steeped.wet_g {
            Some(_) => String::new(),
            None => format!(" ({WET_OF_DRY} times its dry weight, assumed: weigh it back)"),
        };
        let sentence = format!(
            "{name}, steeped and taken out: {} g wet{how}, so {} g of the liquid go with it and {} g of it are left to the rest",
            batch_g(wet_g),
            batch_g(taken_g),
            batch_g(stays_g)
        );
        off.push(StrainedOff { line: Some(at), left_g: digits(stays_g), gone_g: digits(wet_g), sentence });
    }
    (off, faults)
}
