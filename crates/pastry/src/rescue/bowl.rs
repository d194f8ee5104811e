//! What is really in the bowl: the formula brought to its weight, at its temperature.

use crate::assess::Ready;
use crate::assess::answer::{Assessment, assess_from};
use crate::assess::document::FormulaDocument;
use crate::assess::prepared::settled;
use crate::balance::edges::{Asked, Edges};
use crate::fault::{Fault, FaultCode};
use crate::formula::Line;
use crate::formula::{Mixture, WeighedLine, flat};
use crate::ingredient::composition::Part;
use crate::ingredient::{Group, Role};
use crate::ingredient::{Ingredient, Shelf};
use crate::number::{hundredths, on_a_scale};
use crate::rescue::quantity::Quantity;
use crate::rheology::kernel::Prepared;
use crate::rheology::{Consistency, History, Options};
use crate::units::{CookTemperature, Mass};
use std::cell::OnceCell;
use std::sync::Arc;

/// A bowl and what is known of it.
pub struct Bowl {
    /// The formula, brought to what is in the bowl.
    pub document: FormulaDocument,
    /// Its lines.
    pub lines: Vec<WeighedLine>,
    /// What was done in the making.
    pub options: Options,
    /// Its temperature, °C; none when nobody probed it.
    pub t_c: Option<f64>,
    /// Where it stands to its job at the working temperature.
    pub edges: Edges,
    prepared: Prepared,
    here: Consistency,
    /// Where it stands at the temperature at which it is seen.
    seen: Edges,
    /// The answer to it, once somebody asked.
    before: OnceCell<Option<Assessment>>,
}

/// A bowl within this of its working temperature, K, is judged as it stands.
const SEEN_WITHIN: f64 = 12.0;

impl Bowl {
    /// A bowl of a formula: all of it, or so many grams.
    ///
    /// # Errors
    /// Faults of the document; a weight that is no bowl's.
    pub fn of(
        document: &FormulaDocument,
        shelf: &Shelf,
        grams: Option<f64>,
        t_c: Option<f64>,
    ) -> Result<Self, Vec<Fault>> {
        let ready = Ready::of(document, shelf)?;
        let planned = ready.batch_g();
        let mut lines = ready.lines;
        if let Some(grams) = grams {
            if !(grams.is_finite() && grams > 0.0 && grams <= 1e6) {
                let message = "write what is in the bowl, in grams above 0";
                return Err(vec![Fault::new("bowl_g", FaultCode::OutOfRange, message)]);
            }
            for line in &mut lines {
                line.mass = Mass::from_grams(line.mass.grams() * grams / planned);
            }
        }
        let document = weighed_document(document, &lines);
        let options = Options { learned: ready.options.learned, ..document.options(&lines) };
        let mixture = Mixture::of(&lines);
        let (edges, prepared, here, seen) = {
            let asked = Asked::of(&document, &options);
            let prepared = asked.prepared(&mixture);
            let here = prepared.at(t_c.unwrap_or(asked.t_c), asked.history);
            let edges = asked.edges_of(&prepared, asked.t_c, asked.history);
            let near = t_c.filter(|t| (t - asked.t_c).abs() <= SEEN_WITHIN);
            let seen = near.map_or(edges, |t| asked.edges_of(&prepared, t, asked.history));
            (edges, prepared, here, seen)
        };
        Ok(Bowl { document, lines, options, t_c, edges, prepared, here, seen, before: OnceCell::new() })
    }

    /// Grams in it.
    pub fn grams(&self) -> f64 {
        flat(&self.lines).iter().map(|line| line.mass.grams()).sum()
    }

    /// What it is asked.
    pub fn asked(&self) -> Asked<'_> {
        Asked::of(&self.document, &self.options)
    }

    /// The temperature at which it is seen, °C: that of the bowl when it is near that of the work, else
    /// that of the work.
    pub fn judged_c(&self) -> f64 {
        let worked = self.document.work.temperature_c.celsius();
        self.t_c.filter(|t| (t - worked).abs() <= SEEN_WITHIN).unwrap_or(worked)
    }

    /// How far it stands beyond its window where it is seen, ln: above 0 too stiff, below 0 too loose,
    /// 0 inside.
    pub fn beyond(&self) -> f64 {
        if self.seen.loose > 0.0 {
            -self.seen.loose
        } else if self.seen.stiff < 0.0 {
            -self.seen.stiff
        } else {
            0.0
        }
    }

    /// The same bowl once all of it has reached `cook_c`.
    ///
    /// # Errors
    /// Faults of the document.
    pub fn cooked(&self, cook_c: f64, shelf: &Shelf) -> Result<Self, Vec<Fault>> {
        Bowl::of(&cooked_document(&self.document, cook_c), shelf, None, self.t_c)
    }

    /// Raw fruit that eats gelatin, beside gelatin.
    pub fn protease(&self) -> bool {
        let heated = self.options.cooks.protease.or(self.options.cook_c).is_some_and(|cook| cook >= 85.0);
        let raw = self.lines.iter().any(|l| l.mass.grams() > 0.0 && l.ingredient.flags.protease);
        raw && !heated && self.prepared.serum.gelatin_percent > 0.0
    }

    /// The answer to it as it stands, worked out once.
    pub fn before(&self, shelf: &Shelf) -> Option<&Assessment> {
        self.before.get_or_init(|| assess_from(&self.document, shelf).ok()).as_ref()
    }

    /// Something made ready for any temperature.
    pub fn prepared(&self) -> &Prepared {
        &self.prepared
    }

    fn share(&self, part: Part) -> f64 {
        let flat = flat(&self.lines);
        let sum: f64 = flat.iter().map(|l| l.mass.grams() * l.ingredient.composition.get(part)).sum();
        100.0 * sum / self.grams().max(1e-12)
    }

    /// A quantity, where it is known.
    pub fn quantity(&self, quantity: Quantity) -> Option<f64> {
        let t_c = self.t_c.unwrap_or(self.document.work.temperature_c.celsius());
        let serum = &self.prepared.serum;
        Some(match quantity {
            Quantity::Temperature => self.t_c?,
            Quantity::Split => self.here.split,
            Quantity::YieldStress => self.here.yield_stress_pa,
            Quantity::Viscosity => self.here.viscosity_pa_s,
            Quantity::SolidFat => self.here.solid_fat,
            Quantity::FatInWet => self.prepared.whip_fat_percent,
            Quantity::Undissolved => 100.0 * serum.undissolved,
            Quantity::Graining => serum.graining(t_c),
            Quantity::Lactose => serum.lactose_sand(t_c),
            Quantity::Gelatin => serum.gelatin_percent,
            Quantity::Starch => self.starch_on_liquid(),
            Quantity::Cook => self.options.cook_c?,
            Quantity::Overrun => self.document.air(&self.lines).overrun_percent,
            Quantity::Whip => self.document.air(&self.lines).whip,
            Quantity::Water => self.share(Part::Water),
            Quantity::Alcohol => self.prepared.alcohol_by_volume_percent,
            Quantity::Acid => self.share(Part::Acid),
            Quantity::Salt => self.share(Part::Salt),
            Quantity::Sweetness => serum.sweetness_percent,
            Quantity::Brix => serum.brix,
            Quantity::Hours => self.options.hours?,
        })
    }

    /// Starch lines on wet lines, per cent.
    fn starch_on_liquid(&self) -> f64 {
        let flat = flat(&self.lines);
        let sum = |of: &dyn Fn(&Ingredient) -> bool| -> f64 {
            flat.iter().filter(|l| of(&l.ingredient)).map(|l| l.mass.grams()).sum()
        };
        let wet = sum(&|i| {
            (i.is(Role::Dairy) || matches!(i.group, Group::Liquid | Group::Fruit))
                && i.composition.get(Part::Water) > 0.25
        });
        if wet > 0.0 { 100.0 * sum(&|i| i.is(Role::Starch)) / wet } else { 0.0 }
    }

    /// The mixture with so many grams of something more.
    pub fn with(&self, ingredient: &Ingredient, grams: f64) -> Mixture {
        let own = self.lines.iter().map(|line| (line.ingredient.as_ref(), line.mass.grams()));
        Mixture::new(own.chain([(ingredient, grams)]))
    }

    /// The formula with so many grams of something more.
    pub fn document_with(&self, ingredient: &Ingredient, grams: f64) -> FormulaDocument {
        let mut document = self.document.clone();
        // What is put in now is not boiled down with what was.
        let same = |line: &Line| {
            line.ingredient == ingredient.id && line.boiled.is_none() && line.strained.is_none()
        };
        match document.lines.iter().position(same) {
            Some(at) => {
                let to = self.lines[at].mass.grams() + on_a_scale(grams);
                document.lines[at].amount = format!("{} g", hundredths(to));
            }
            None => document.lines.push(Line::new(&ingredient.id, format!("{} g", on_a_scale(grams)))),
        }
        document
    }

    /// The largest line of a kind.
    pub fn largest(&self, of: impl Fn(&Ingredient) -> bool) -> Option<&Arc<Ingredient>> {
        self.lines
            .iter()
            .filter(|line| of(&line.ingredient))
            .max_by(|a, b| a.mass.grams().total_cmp(&b.mass.grams()))
            .map(|line| &line.ingredient)
    }

    /// The state it is worked in when it is mended: fresh.
    pub fn fresh(&self, mixture: &Mixture, t_c: f64) -> Consistency {
        self.asked().prepared(mixture).at(t_c, History::Fresh)
    }
}

/// The document with every amount as grams of its lines.
fn weighed_document(document: &FormulaDocument, lines: &[WeighedLine]) -> FormulaDocument {
    let mut document = document.clone();
    document.percent_of = None;
    for (own, line) in document.lines.iter_mut().zip(lines) {
        own.amount = format!("{} g", hundredths(line.mass.grams()));
    }
    settled(&document, lines)
}

/// A document whose lines have all reached `cook_c` at least.
pub(super) fn cooked_document(document: &FormulaDocument, cook_c: f64) -> FormulaDocument {
    let mut document = document.clone();
    let at_least = |own: Option<CookTemperature>| {
        CookTemperature::from_celsius(own.map_or(cook_c, |own| own.celsius().max(cook_c)))
    };
    document.process.cook_c = Some(at_least(document.process.cook_c));
    for line in document.lines.iter_mut().filter(|line| line.cook_c.is_some()) {
        line.cook_c = Some(at_least(line.cook_c));
    }
    document
}
