//! Components as ingredients: a document that others name becomes something on the shelf, with all that it comes down to.

use crate::assess::document::{BroughtComponent, FormulaDocument};
use crate::assess::prepared::weighed;
use crate::fault::{Fault, FaultCode};
use crate::formula::egg_heat::{EggKind, safe};
use crate::formula::keeping::{RAW_EGG_DAYS, cold_days};
use crate::formula::line::flat;
use crate::formula::{Mixture, WeighedLine};
use crate::ingredient::composition::FATS;
use crate::ingredient::key::{BESIDE, MADE, held, named_in};
use crate::ingredient::made::DEEPEST;
use crate::ingredient::shelf::NotMade;
use crate::ingredient::weights::{HouseholdWeight, HouseholdWeights};
use crate::ingredient::{Group, Ingredient, Leaf, Made, Part, Role, Shelf};
use crate::rheology::Options;
use std::collections::BTreeMap;
use std::sync::Arc;

/// Documents by the keys they are named by, without what stands before them.
pub type Documents<'a> = BTreeMap<&'a str, &'a FormulaDocument>;

/// A shelf with some components on it, and with all that these name among them. What a component cannot be had for is said
/// by whoever asks for it ([`Shelf::why_not`]).
pub fn with_made(mut shelf: Shelf, documents: &Documents) -> Shelf {
    for named in documents.keys() {
        resolve(&mut shelf, documents, named, &mut Vec::new());
    }
    shelf
}

impl FormulaDocument {
    /// The shelf it is weighed from: the kitchen's own ingredients and components first, then those it brings.
    ///
    /// # Errors
    /// Faults of what it brings, each with its field.
    pub fn shelf(&self, kitchen: &Shelf) -> Result<Shelf, Vec<Fault>> {
        let shelf = kitchen.bringing(&self.ingredients)?;
        if self.components.is_empty() { Ok(shelf) } else { bringing(shelf, &self.components) }
    }
}

/// A shelf with what a document brings; of two with one key that of the kitchen stays.
///
/// # Errors
/// Faults of what is brought, each with its field: another format, a version that is not known, ingredients that are none.
pub fn bringing(mut shelf: Shelf, brought: &[BroughtComponent]) -> Result<Shelf, Vec<Fault>> {
    let mut faults = Vec::new();
    let mut documents = Documents::new();
    for (at, own) in brought.iter().enumerate() {
        let within =
            |fault: Fault| Fault { field: format!("components.{at}.document.{}", fault.field), ..fault };
        faults.extend(own.document.faults().into_iter().map(within));
        match shelf.bringing(&own.document.ingredients) {
            Ok(with) => shelf = with,
            Err(found) => faults.extend(found.into_iter().map(within)),
        }
        documents.entry(&own.key).or_insert(&own.document);
        for inner in &own.document.components {
            documents.entry(&inner.key).or_insert(&inner.document);
        }
    }
    if faults.is_empty() { Ok(with_made(shelf, &documents)) } else { Err(faults) }
}

/// Lines through which a document kept under a key would go into itself, in words.
///
/// # Arguments
/// * `documents`: all that it comes down to, each by the key it is named by.
pub fn circle(key: &str, document: &FormulaDocument, documents: &Documents) -> Vec<Fault> {
    /// The way from a document to a key, through what it names; what is held at a revision does not move when that which is
    /// saved does.
    fn way<'a>(
        to: &str,
        named: &str,
        documents: &Documents<'a>,
        path: &mut Vec<&'a FormulaDocument>,
    ) -> bool {
        if named == to {
            return true;
        }
        let Some(own) = documents.get(named).filter(|_| path.len() <= DEEPEST) else { return false };
        path.push(own);
        if own.made_here().any(|inner| way(to, inner, documents, path)) {
            return true;
        }
        path.pop();
        false
    }
    let through = |named: &str| {
        let mut path = Vec::new();
        way(key, named, documents, &mut path).then_some(path)
    };
    document
        .lines
        .iter()
        .enumerate()
        .filter_map(|(at, line)| {
            let path = through(named_in(&line.ingredient)?)?;
            let name = document.called();
            let names = std::iter::once(name).chain(path.iter().map(|own| own.called())).chain([name]);
            let why = of_itself(name, names.collect());
            Some(Fault::new(format!("lines.{at}.ingredient"), why.code, why.words))
        })
        .collect()
}

fn of_itself(name: &str, circle: Vec<&str>) -> NotMade {
    NotMade {
        code: FaultCode::MadeOfItself,
        words: format!(
            "{name} would go into itself: {}. Take one of them out, or hold one at an older version",
            circle.join(" → ")
        ),
    }
}

fn resolve<'a>(shelf: &mut Shelf, documents: &Documents<'a>, named: &'a str, path: &mut Vec<&'a str>) {
    if shelf.knows(&format!("{MADE}{named}")) {
        return;
    }
    let Some(document) = documents.get(named) else { return };
    let called = |named: &str| documents.get(named).map_or("?", |own| own.called());
    if let Some(at) = path.iter().position(|own| *own == named) {
        let names = path[at..].iter().map(|own| called(own)).chain([document.called()]);
        let why = of_itself(document.called(), names.collect());
        put(shelf, named, [Err(why.clone()), Err(why)]);
        return;
    }
    if path.len() > 2 * DEEPEST {
        return;
    }
    path.push(named);
    for inner in document.made_here() {
        if let Some((inner, _)) = documents.get_key_value(inner) {
            resolve(shelf, documents, inner, path);
        }
    }
    path.pop();
    let made = made(named, document, shelf);
    put(shelf, named, made);
}

fn put(shelf: &mut Shelf, named: &str, made: [Result<Arc<Ingredient>, NotMade>; 2]) {
    for (before, made) in [MADE, BESIDE].into_iter().zip(made) {
        shelf.put(format!("{before}{named}"), made);
    }
}

/// A component as an ingredient, from a shelf on which all stands that it names; and what comes beside it, where it is
/// strained.
fn made(named: &str, document: &FormulaDocument, shelf: &Shelf) -> [Result<Arc<Ingredient>, NotMade>; 2] {
    let name = document.called();
    let amiss = |faults: Vec<Fault>| {
        let why = match faults.into_iter().next() {
            // What is wrong deeper down is told as it is.
            Some(Fault {
                code: code @ (FaultCode::MadeOfItself | FaultCode::TooDeep | FaultCode::ComponentAmiss),
                message,
                ..
            }) => NotMade { code, words: message },
            Some(fault) => NotMade {
                code: FaultCode::ComponentAmiss,
                words: format!("{name} cannot be worked out: {}", fault.message),
            },
            None => {
                NotMade { code: FaultCode::ComponentAmiss, words: format!("{name} cannot be worked out") }
            }
        };
        [Err(why.clone()), Err(why)]
    };
    let faults = document.faults();
    if !faults.is_empty() {
        return amiss(faults);
    }
    let weighed = match shelf.bringing(&document.ingredients).and_then(|shelf| weighed(document, &shelf)) {
        Ok(weighed) => weighed,
        Err(faults) => return amiss(faults),
    };
    let levels =
        weighed.lines.iter().filter_map(|line| line.ingredient.made.as_ref()).map(|made| made.levels);
    let levels = 1 + levels.max().unwrap_or(0);
    if levels > DEEPEST {
        let why = NotMade {
            code: FaultCode::TooDeep,
            words: format!(
                "{name} is {levels} components deep, and {DEEPEST} are followed: open one of those inside it"
            ),
        };
        return [Err(why.clone()), Err(why)];
    }
    let main =
        Arc::new(of_lines(format!("{MADE}{named}"), name.to_owned(), document, &weighed.lines, levels));
    let beside = match (&weighed.beside, document.process.strained) {
        (Some(lines), Some(strained)) => {
            let mut beside =
                of_lines(format!("{BESIDE}{named}"), strained.beside_of(name), document, lines, levels);
            if let Some(made) = beside.made.as_mut().map(Arc::make_mut) {
                let per = main.made.as_ref().map_or(0.0, |own| own.batch_g) / made.batch_g.max(1e-9);
                made.beside = Some((Arc::clone(&main), per));
            }
            Ok(Arc::new(beside))
        }
        _ => Err(NotMade {
            code: FaultCode::MissingComponent,
            words: format!("nothing is strained off {name} any more: take {name} itself, or pick another"),
        }),
    };
    [Ok(main), beside]
}

/// What some lines of a component are as one ingredient.
fn of_lines(
    key: String,
    name: String,
    document: &FormulaDocument,
    lines: &[WeighedLine],
    levels: usize,
) -> Ingredient {
    let options = document.options(lines);
    let mixture = Mixture::of(lines);
    let grams = |lines: &[WeighedLine]| lines.iter().map(|line| line.mass.grams()).sum::<f64>();
    let batch_g = grams(&flat(lines)).max(1e-9);
    let steam_g: f64 = lines.iter().map(|line| line.ingredient.steam * line.mass.grams()).sum();
    let leaves = leaves(document, lines, &options, batch_g);
    let raw = leaves.iter().any(|leaf| leaf.share > 0.0 && leaf.ingredient.flags.raw_egg);
    let keeps = cold_days(document.family, lines);
    let (component, revision) = named_in(&key).map_or(("", None), held);
    let made = Made {
        component: component.to_owned(),
        revision,
        word: document.family.word(),
        batch_g,
        lines: lines
            .iter()
            .map(|line| Leaf {
                ingredient: Arc::clone(&line.ingredient),
                share: line.mass.grams() / batch_g,
                // What was made before keeps its own heat, and is heated again only where its line says so.
                cook_c: if line.ingredient.made.is_some() {
                    line.cook_c
                } else {
                    line.reached(options.cook_c)
                },
            })
            .collect(),
        leaves,
        overrun: options.overrun.unwrap_or_default(),
        whip: options.whip.unwrap_or_default(),
        cold_days: if raw { keeps.min(RAW_EGG_DAYS) } else { keeps },
        levels,
        broken: Vec::new(),
        strained: ((grams(lines) - steam_g - batch_g) / batch_g).max(0.0),
        beside: None,
    };
    blend(key, name, &mixture, made)
}

/// All that the lines of a component come down to, each with the heat it has been through.
fn leaves(document: &FormulaDocument, lines: &[WeighedLine], options: &Options, batch_g: f64) -> Vec<Leaf> {
    let boils =
        document.family.traits().boils_starch.then(|| document.family.traits().system.traits().mixing_c);
    let egg_is_safe =
        options.cooks.raw_egg.is_some_and(|cook_c| safe(EggKind::of(lines), cook_c, options.held_min));
    let mut leaves: Vec<Leaf> = Vec::new();
    for line in flat(lines).iter() {
        let starch = line.ingredient.is(Role::BoiledStarch);
        let cook_c = line.reached(options.cook_c).or(boils.filter(|_| starch));
        let share = line.mass.grams() / batch_g;
        let ingredient = match egg_is_safe && line.ingredient.flags.raw_egg {
            true => {
                let mut safe = line.ingredient.as_ref().clone();
                safe.flags.raw_egg = false;
                Arc::new(safe)
            }
            false => Arc::clone(&line.ingredient),
        };
        let same = leaves.iter_mut().find(|own| own.cook_c == cook_c && own.ingredient == ingredient);
        match same {
            Some(own) => own.share += share,
            None => leaves.push(Leaf { ingredient, share, cook_c }),
        }
    }
    leaves
}

/// What the whole of it is like to a line: composition and all that hangs on it.
fn blend(id: String, name: String, mixture: &Mixture, made: Made) -> Ingredient {
    let composition = mixture.composition;
    let per = |sum: f64, of: f64| if of > 1e-12 { sum / of } else { 0.0 };
    let fat: f64 = FATS.iter().map(|fat| composition.get(*fat)).sum();
    let has = |what: fn(&Ingredient) -> bool| {
        made.leaves.iter().any(|leaf| leaf.share > 0.0 && what(&leaf.ingredient))
    };
    let mut allergens: Vec<String> = Vec::new();
    let mut origins = Vec::new();
    for leaf in made.leaves.iter().filter(|leaf| leaf.share > 0.0) {
        allergens.extend(leaf.ingredient.allergens.iter().cloned());
        origins.extend(leaf.ingredient.origins.iter().copied());
    }
    allergens.sort();
    allergens.dedup();
    let mut once = Vec::new();
    for origin in origins {
        if !once.contains(&origin) {
            once.push(origin);
        }
    }
    let density = 1e-3 / composition.volume_per_kg() / (1.0 + made.overrun);
    let mut flags = crate::ingredient::item::Flags {
        protease: has(|own| own.flags.protease),
        raw_egg: has(|own| own.flags.raw_egg),
        sets_with_pectin: has(|own| own.flags.sets_with_pectin),
        ..Default::default()
    };
    flags.cold_starch = mixture.cold_starch > mixture.hot_starch;
    let starch = composition.get(Part::Starch);
    Ingredient {
        id,
        name,
        also: vec![made.word.to_owned()],
        group: Group::Other,
        composition,
        bloom: mixture.bloom,
        starch_strength: if starch > 1e-12 {
            (mixture.hot_starch + mixture.cold_starch) / starch
        } else {
            1.0
        },
        starch_of: None,
        ph: mixture.acidity.ph(),
        gum_strength: if composition.get(Part::Gum) > 1e-12 {
            per(mixture.gum, composition.get(Part::Gum))
        } else {
            1.0
        },
        globule: per(mixture.globule_fat.iter().sum(), fat),
        body_pa: mixture.body.max(0.0).powf(2.5),
        flags,
        allergens,
        origins: once,
        weights: HouseholdWeights {
            density: Some(HouseholdWeight {
                how: if made.overrun > 0.0 { "with its air" } else { "without air" }.to_owned(),
                weight: (1e3 * density).round() * 1e-3,
                source: "computed from composition, ± 3 %".to_owned(),
            }),
            pieces: Vec::new(),
        },
        pack: None,
        source: "made here: worked out from its own formula".to_owned(),
        confidence: "worked out".to_owned(),
        made: Some(Arc::new(made)),
        steam: 0.0,
        left: None,
        replaced: Vec::new(),
    }
}
