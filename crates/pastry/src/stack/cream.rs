//! What the places of a cake are made of, looked up and made ready to be asked.

use crate::assess::made_here::bringing;
use crate::assess::prepared::{Weighed, prepare_lines};
use crate::assess::{BroughtComponent, FormulaDocument, Ready};
use crate::fault::{Fault, FaultCode};
use crate::formula::tint::{baked_tint, tint};
use crate::formula::{Formula, Mixture, System, WeighedLine, totals};
use crate::ingredient::diet::{Diet, diet};
use crate::ingredient::key::named_in;
use crate::ingredient::{PhaseShares, Shelf};
use crate::job::duty::Judged;
use crate::job::duty::MapAxis;
use crate::job::judge::Question;
use crate::job::kind::Job;
use crate::rheology::Predictor;
use crate::rheology::consistency::Banded;
use crate::rheology::warning::{Warning, warnings};
use crate::rheology::{History, Options};
use crate::sponge::{Sponge, sponges};
use crate::stack::document::{Bake, StackDocument};
use std::collections::HashMap;

/// Formulas of a kitchen by their keys, and the shelf they are weighed from.
pub struct Known<'a> {
    /// Formulas by key.
    pub formulas: &'a HashMap<String, FormulaDocument>,
    /// The shelf.
    pub shelf: &'a Shelf,
}

/// A component made ready.
pub struct Cream {
    /// Its formula.
    pub document: FormulaDocument,
    /// Its lines in grams.
    pub lines: Vec<WeighedLine>,
    /// All of it, g.
    pub batch_g: f64,
    /// Its phases, per cent of total weight.
    pub phases: PhaseShares,
    /// Its allergens.
    pub allergens: Vec<String>,
    /// Who may eat it.
    pub diet: Diet,
    /// What it warns of.
    pub warnings: Vec<Warning>,
    /// The colour it is drawn in.
    pub tint: String,
    /// The consistency model, ready for any temperature.
    pub predictor: Predictor,
    /// Whether it is only part of others: nothing of the cake is made of it alone.
    pub inside: bool,
    options: Options,
}

impl Cream {
    fn of(document: FormulaDocument, shelf: &Shelf) -> Result<Self, Vec<Fault>> {
        let Ready { lines, options, .. } = Ready::of(&document, shelf)?;
        let (family, t_c, history) =
            (document.family, document.work.temperature_c.celsius(), document.history());
        let predictor = Predictor::new(&Mixture::of(&lines), family.traits().system, &options);
        let totals = totals(&lines);
        Ok(Cream {
            warnings: warnings(&lines, family, &predictor.base, &options, t_c, history),
            batch_g: totals.batch_mass_g,
            phases: totals.phases_of_total_percent,
            allergens: totals.allergens,
            diet: diet(lines.iter().map(|line| (line.ingredient.as_ref(), line.mass.grams()))),
            tint: tint(&lines, family),
            predictor,
            inside: false,
            options,
            lines,
            document,
        })
    }

    /// Its name, or what it is.
    pub fn name(&self) -> String {
        match self.document.name.trim() {
            "" => self.document.family.word().to_owned(),
            name => name.to_owned(),
        }
    }

    /// Density with its air, g/ml.
    pub fn density(&self) -> f64 {
        1e-3 * self.predictor.base.density
    }

    /// The temperature it is worked at, °C.
    pub fn worked_c(&self) -> f64 {
        self.document.work.pour_temperature_c.unwrap_or(self.document.work.temperature_c).celsius()
    }

    /// Whether it is set or held by the cold: gelatin, whipped cream, jelly.
    pub fn is_cold_set(&self) -> bool {
        matches!(
            self.document.family.traits().system,
            System::Mousse | System::WhippedCream | System::Diplomat | System::Jelly | System::WhippedGanache
        )
    }

    /// What it is at a temperature when it stands on the cake: set, or as its family is judged there.
    pub fn standing(&self, t_c: f64) -> Banded {
        self.predictor.at(t_c, self.standing_history())
    }

    /// The state it stands in: what flows when fresh has set; what is spread stays worked.
    pub fn standing_history(&self) -> History {
        match self.document.family.traits().system {
            System::Ganache => History::Worked,
            System::Buttercream | System::MeringueButtercream | System::Mousseline | System::Fat => {
                History::Fresh
            }
            _ => History::Rested,
        }
    }

    /// Judges it for a job at a temperature, in a state.
    pub fn judge(&self, job: &Job, t_c: f64, history: History) -> Judged {
        let axis = job.axis(self.document.family);
        let question = Question { job, prepared: &self.predictor.base, axis, history };
        question.judge(&self.predictor.at(t_c, history), t_c, None)
    }

    /// What the map counts for a job.
    pub fn axis(&self, job: &Job) -> MapAxis {
        job.axis(self.document.family)
    }

    /// How it was made.
    pub fn options(&self) -> &Options {
        &self.options
    }
}

/// Something baked, made ready.
pub struct Baked {
    /// As the cook wrote it.
    pub bake: Bake,
    /// Its kind.
    pub sponge: Sponge,
    /// Its batter in grams; empty for what is bought.
    pub lines: Vec<WeighedLine>,
    /// Its phases, per cent of the batter; all zero for what is bought.
    pub phases: PhaseShares,
    /// Its allergens.
    pub allergens: Vec<String>,
    /// The colour it is drawn in.
    pub tint: String,
}

impl Baked {
    fn of(bake: &Bake, shelf: &Shelf) -> Result<Self, Vec<Fault>> {
        let Some(kind) = sponges().iter().find(|sponge| sponge.key == bake.sponge) else {
            let known: Vec<&str> = sponges().iter().map(|sponge| sponge.key.as_str()).collect();
            let message = format!("there is no sponge “{}”: choose {}", bake.sponge, known.join(", "));
            return Err(vec![Fault::new("sponge", FaultCode::UnknownSponge, message)]);
        };
        let mut sponge = kind.clone();
        if let Some(bulk) = bake.bulk_kg_m3.filter(|bulk| bulk.is_finite()) {
            // Pores close before walls do.
            sponge.bulk = bulk.clamp(80.0, 0.98 * sponge.solid);
        }
        let lines = if bake.lines.is_empty() {
            Vec::new()
        } else {
            let formula = Formula {
                family: crate::formula::Family::PastryCream,
                lines: bake.lines.clone(),
                measures: bake.measures,
                percent_of: None,
            };
            let mut weighed = Weighed { lines: formula.weigh(shelf)?, ..Weighed::default() };
            let faults = prepare_lines(&mut weighed, &bake.lines);
            if !faults.is_empty() {
                return Err(faults);
            }
            weighed.lines
        };
        let totals = totals(&lines);
        Ok(Baked {
            bake: bake.clone(),
            sponge,
            phases: totals.phases_of_total_percent,
            allergens: totals.allergens,
            tint: baked_tint(&lines),
            lines,
        })
    }

    /// Grams of batter for so many grams baked.
    pub fn batter_for(&self, baked_g: f64) -> f64 {
        baked_g / (1.0 - 0.01 * self.bake.oven_loss_percent.clamp(0.0, 50.0))
    }

    /// Stress at which its crumb tears, Pa.
    pub fn crumb_strength(&self) -> f64 {
        self.bake.crumb_strength_pa.unwrap_or(1500.0)
    }
}

/// Everything a cake is made of, by key.
pub struct Makings {
    /// Components.
    pub creams: HashMap<String, Result<Cream, Vec<Fault>>>,
    /// What is baked.
    pub bakes: HashMap<String, Result<Baked, Vec<Fault>>>,
    /// The kitchen's shelf, and on it the own ingredients the cake brings.
    pub shelf: Shelf,
}

impl Makings {
    /// Looks up what a cake names, and all that this is made of: the kitchen's own first, then what the cake brings.
    pub fn of(document: &StackDocument, known: &Known) -> Self {
        // What it brings was looked at before: what is amiss with it is refused.
        let shelf = known.shelf.bringing(&document.ingredients).unwrap_or_else(|_| known.shelf.clone());
        let mut brought: HashMap<&str, &FormulaDocument> = HashMap::new();
        for own in &document.components {
            for inner in &own.document.components {
                brought.entry(&inner.key).or_insert(&inner.document);
            }
        }
        brought.extend(document.components.iter().map(|own| (own.key.as_str(), &own.document)));
        let whole = |shelf: Shelf, own: &BroughtComponent| {
            bringing(shelf.clone(), std::slice::from_ref(own)).unwrap_or(shelf)
        };
        let shelf = document.components.iter().fold(shelf, whole);
        let straight = document.component_keys();
        let of_bakes = document.bakes.iter().flat_map(|bake| &bake.lines);
        let of_bakes = of_bakes.filter_map(|line| named_in(&line.ingredient));
        let mut asked: Vec<String> = straight.iter().copied().chain(of_bakes).map(str::to_owned).collect();
        let mut creams = HashMap::new();
        while let Some(key) = asked.pop() {
            if creams.contains_key(&key) {
                continue;
            }
            let Some(formula) = known.formulas.get(&key).or_else(|| brought.get(key.as_str()).copied())
            else {
                continue;
            };
            asked.extend(formula.made_here().map(str::to_owned));
            let inside = !straight.contains(&key.as_str());
            let cream = Cream::of(formula.clone(), &shelf).map(|cream| Cream { inside, ..cream });
            creams.insert(key, cream);
        }
        let bakes = document.bakes.iter().map(|bake| (bake.key.clone(), Baked::of(bake, &shelf))).collect();
        Makings { creams, bakes, shelf }
    }

    /// What places of the cake are made of, as far as it can be worked out.
    pub fn straight(&self) -> impl Iterator<Item = &Cream> {
        self.creams.values().flatten().filter(|cream| !cream.inside)
    }

    /// A component that can be worked out.
    pub fn cream(&self, key: Option<&str>) -> Option<&Cream> {
        self.creams.get(key?)?.as_ref().ok()
    }

    /// A bake that can be worked out.
    pub fn baked(&self, key: Option<&str>) -> Option<&Baked> {
        self.bakes.get(key?)?.as_ref().ok()
    }
}
