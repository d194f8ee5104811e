//! Remedies: the trade's table is whole, a hundred situations find what a practised cook would do, and
//! what is solved holds when it is judged from scratch.

use crate::support::rows;
use pastry::assess::starts::starts;
use pastry::assess::usual::jobs;
use pastry::assess::{FormulaDocument, assess};
use pastry::fault::FaultCode;
use pastry::formula::{Family, Line, WhipStage};
use pastry::ingredient::{Shelf, find};
use pastry::job::Outcome;
use pastry::rescue::bowl::Bowl;
use pastry::rescue::quantity::Quantity;
use pastry::rescue::remedy::{Deed, SolvedFor, find_remedy};
use pastry::rescue::report::{Addition, Basis, StepAnswer};
use pastry::rescue::{Rescue, RescueAsk, Sign, remedies, rescue};
use pastry::units::{CookTemperature, Hours, Overrun};
use std::collections::{BTreeSet, HashMap};

fn family(key: &str) -> Family {
    serde_json::from_value(key.into()).unwrap_or_else(|_| panic!("no family {key}"))
}

/// A formula of a row: the family's start for the job, with its lines and its making exchanged.
fn document(row: &HashMap<String, String>) -> FormulaDocument {
    let family = family(&row["family"]);
    let job = row["job"].as_str();
    let mut document = starts(family)
        .iter()
        .find(|start| start.work.job.word() == job)
        .unwrap_or_else(|| panic!("{}: no start to {job}", row["situation"]))
        .clone();
    if !row["lines"].is_empty() {
        document.lines = row["lines"]
            .split(';')
            .map(|part| {
                let (id, grams) = part.trim().split_once(' ').unwrap();
                Line::new(id, format!("{grams} g"))
            })
            .collect();
    }
    for part in row["process"].split(';').filter(|part| !part.trim().is_empty()) {
        let (key, value) = part.trim().split_once('=').unwrap();
        let number = || value.parse::<f64>().unwrap();
        match key {
            "cook" => document.process.cook_c = Some(CookTemperature::from_celsius(number())),
            "hours" => document.process.set_hours = Some(Hours::from_hours(number())),
            "overrun" => document.process.overrun_percent = Some(Overrun::from_percent(number())),
            "whip" => {
                let stage: WhipStage = serde_json::from_value(value.into()).unwrap();
                document.process.whip = Some(stage);
            }
            other => panic!("no process {other}"),
        }
        if key == "cook" {
            document.lines.iter_mut().for_each(|line| line.cook_c = None);
        }
    }
    document
}

fn asked(row: &HashMap<String, String>) -> RescueAsk {
    RescueAsk {
        document: document(row),
        sign: serde_json::from_value(row["sign"].as_str().into()).unwrap(),
        bowl_c: row["bowl_c"].parse().ok(),
        bowl_g: None,
        not_at_hand: Vec::new(),
    }
}

fn answered(ask: &RescueAsk) -> Rescue {
    rescue(ask, &Shelf::catalogue()).unwrap_or_else(|faults| panic!("{faults:?}"))
}

fn situations() -> Vec<HashMap<String, String>> {
    rows(include_str!("data/rescue_situations.csv"))
}

#[test]
fn the_table_names_only_what_there_is() {
    let mut ids = BTreeSet::new();
    for remedy in remedies() {
        let id = &remedy.id;
        assert!(ids.insert(id), "{id} stands twice");
        assert!(!remedy.steps.is_empty() && !remedy.signs.is_empty() && !remedy.families.is_empty(), "{id}");
        assert!(Family::ALL.iter().any(|family| remedy.fits(*family).is_some()), "{id} is for nobody");
        for key in &remedy.families {
            let known = Family::ALL.iter().any(|family| {
                let word = |value| serde_json::to_value(value).unwrap() == key.as_str();
                word(serde_json::json!(family)) || word(serde_json::json!(family.traits().group))
            });
            assert!(known, "{id}: no family {key}");
        }
        for job in &remedy.jobs {
            assert!(
                Family::ALL.iter().any(|family| jobs(*family).contains(&job.as_str())),
                "{id}: no job {job}"
            );
        }
        if let Some(tell) = &remedy.tell {
            assert!(tell.ask.ends_with('?'), "{id} asks nothing: {}", tell.ask);
            assert!(find_remedy(&tell.no).is_some_and(|other| other.id != *id), "{id}: no {}", tell.no);
        }
        for step in &remedy.steps {
            assert_eq!(step.deed == Deed::Add, step.of.is_some() && step.g.is_some(), "{id}: {}", step.say);
            if let Some([first, most]) = step.g {
                assert!(first > 0.0 && first <= most && most <= 40.0, "{id}: {first} to {most}");
            }
            if let Some([low, high]) = step.t {
                assert!(low <= high && (-20.0..=110.0).contains(&low), "{id}: {low} to {high}");
            }
            let role = |key: &str| ["same_chocolate", "same_liquid", "stiffener"].contains(&key);
            assert!(step.of.as_deref().is_none_or(|key| role(key) || find(key).is_some()), "{id}: {step:?}");
            assert!(step.say.ends_with('.') || step.say.ends_with('?'), "{id}: {}", step.say);
        }
        for text in [&remedy.seen, &remedy.cause, &remedy.worked, &remedy.stop, &remedy.prevent] {
            let first = text.chars().next().unwrap();
            assert!(text.ends_with('.') && (first.is_uppercase() || first.is_ascii_digit()), "{id}: {text}");
        }
    }
    assert!(ids.len() >= 100, "{} remedies", ids.len());
}

#[test]
fn the_first_step_is_never_the_dearest() {
    for remedy in remedies() {
        let first = remedy.steps[0].deed.cost();
        let discards = remedy.steps.iter().any(|step| step.deed == Deed::Discard);
        assert!(first <= 3 || (discards && remedy.steps.len() == 1), "{}", remedy.id);
        // What can be undone comes before grams of the same remedy.
        if let Some(add) = remedy.steps.iter().position(|step| step.deed == Deed::Add) {
            let cost = |k: usize| remedy.steps[k].deed.cost();
            assert!((0..add).all(|k| cost(k) <= 2), "{}", remedy.id);
        }
    }
}

/// REMEDIES: what a practised cook would do first, by situation (common practice).
#[test]
fn a_hundred_situations_find_their_remedy() {
    let all = situations();
    assert!(all.len() >= 100, "{} situations", all.len());
    let mut wrong = Vec::new();
    for row in &all {
        let answer = answered(&asked(row));
        let first = &answer.remedies[0];
        if first.id != row["expect"] {
            let ranked: Vec<&str> =
                answer.remedies.iter().filter(|r| !r.look_alike).map(|r| r.id.as_str()).collect();
            wrong.push(format!("{}: {} expected, {ranked:?}", row["situation"], row["expect"]));
            continue;
        }
        let deed = serde_json::to_value(first.steps[0].deed).unwrap();
        if deed != row["first"].as_str() {
            wrong.push(format!("{}: begins with {deed}, not {}", row["situation"], row["first"]));
        }
        let added = first.steps.iter().find_map(|step| step.addition.as_ref());
        let key = added.map_or("", |added| added.ingredient.as_str());
        if key != row["grams"] {
            wrong.push(format!("{}: adds {key}, not {}", row["situation"], row["grams"]));
        }
        let bad =
            |added: &&Addition| added.grams <= 0.0 || added.first_g <= 0.0 || added.first_g > added.grams;
        if let Some(added) = added.filter(|added| added.basis != Basis::Breaks).filter(bad) {
            wrong.push(format!("{}: {added:?}", row["situation"]));
        }
    }
    assert!(wrong.is_empty(), "{} of {}:\n{}", wrong.len(), all.len(), wrong.join("\n"));
}

#[test]
fn every_remedy_is_found_by_some_situation_or_question() {
    let mut seen = BTreeSet::new();
    for family in Family::ALL {
        for start in starts(*family) {
            for sign in Sign::ALL {
                let ask = RescueAsk {
                    document: start.clone(),
                    sign,
                    bowl_c: None,
                    bowl_g: None,
                    not_at_hand: Vec::new(),
                };
                seen.extend(answered(&ask).remedies.into_iter().map(|remedy| remedy.id));
            }
        }
    }
    let hidden: Vec<&str> =
        remedies().iter().map(|r| r.id.as_str()).filter(|id| !seen.contains(*id)).collect();
    assert!(hidden.is_empty(), "nobody finds {hidden:?}");
}

/// Every step of every situation.
fn every_step(mut look: impl FnMut(&str, &RescueAsk, &Rescue, &StepAnswer)) {
    for row in situations() {
        let ask = asked(&row);
        let answer = answered(&ask);
        for step in answer.remedies.iter().flat_map(|remedy| &remedy.steps) {
            look(&row["situation"], &ask, &answer, step);
        }
    }
}

#[test]
fn nothing_comes_out_of_a_bowl_and_no_addition_passes_its_cap() {
    let mut additions = 0;
    every_step(|name, ask, answer, step| {
        let Some(added) = &step.addition else { return };
        additions += 1;
        assert!(added.grams >= 0.0 && added.grams <= added.most_g + 0.5, "{name}: {added:?}");
        assert!(added.most_g <= 0.25 * answer.bowl_g + 0.5, "{name}: {added:?}");
        let Some(document) = &step.document else { return };
        let weigh = |document: &FormulaDocument| -> HashMap<String, f64> {
            let mut grams = HashMap::new();
            for line in document.formula().weigh(&Shelf::catalogue()).unwrap() {
                *grams.entry(line.ingredient.id.clone()).or_insert(0.0) += line.mass.grams();
            }
            grams
        };
        let after = weigh(document);
        for (id, grams) in weigh(&ask.document) {
            // To the rounding of the scale.
            assert!(after[&id] >= grams - 0.51, "{name}: {id} {grams} → {}", after[&id]);
        }
    });
    assert!(additions > 150, "{additions}");
}

#[test]
fn what_is_solved_for_the_job_is_inside_when_it_is_done() {
    let mut solved = 0;
    every_step(|name, ask, _, step| {
        let Some(document) = &step.document else { return };
        let by_grams = step.addition.as_ref().is_some_and(|added| added.basis == Basis::Solved);
        let kind = remedies()
            .iter()
            .flat_map(|remedy| &remedy.steps)
            .find(|known| known.say == step.words)
            .and_then(|known| known.by);
        if kind != Some(SolvedFor::Job) || !(by_grams || step.aim_c.is_some()) {
            return;
        }
        solved += 1;
        let after = assess(document).unwrap();
        assert_eq!(after.at.outcome, Outcome::Inside, "{name}: {} ({:?})", step.words, ask.sign);
        assert_eq!(step.then.as_deref(), Some(after.at.headline.as_str()), "{name}");
    });
    assert!(solved > 35, "{solved}");
}

#[test]
fn twice_the_bowl_takes_twice_the_grams() {
    for row in situations().iter().step_by(3) {
        let ask = asked(row);
        let one = answered(&RescueAsk { bowl_g: Some(1000.0), ..ask.clone() });
        let two = answered(&RescueAsk { bowl_g: Some(2000.0), ..ask });
        let grams = |answer: &Rescue| -> Vec<f64> {
            let steps = answer.remedies.iter().flat_map(|remedy| &remedy.steps);
            steps.filter_map(|step| step.addition.as_ref().map(|added| added.grams)).collect()
        };
        for (a, b) in grams(&one).into_iter().zip(grams(&two)) {
            assert!(
                (b - 2.0 * a).abs() <= 0.02 * b + 0.11 + if b >= 20.0 { 1.0 } else { 0.0 },
                "{}: {a} and {b}",
                row["situation"]
            );
        }
    }
}

#[test]
fn the_same_bowl_has_the_same_answer_and_what_is_missing_is_said() {
    for row in situations().iter().step_by(9) {
        let ask = asked(row);
        assert_eq!(answered(&ask), answered(&ask), "{}", row["situation"]);
        let without = answered(&RescueAsk { not_at_hand: vec!["milk".into()], ..ask });
        for added in without.remedies.iter().flat_map(|r| &r.steps).filter_map(|s| s.addition.as_ref()) {
            assert_eq!(added.not_at_hand, added.ingredient == "milk");
        }
    }
}

#[test]
fn what_a_remedy_brings_is_asked_for_first() {
    let mousse = asked(&situations()[0]);
    let dark = FormulaDocument {
        lines: vec![Line::new("dark60", "200 g"), Line::new("water", "100 g")],
        ..mousse.document
    };
    let answer = answered(&RescueAsk { document: dark, sign: Sign::TooStiff, ..mousse });
    let milk = answer.remedies.iter().flat_map(|r| &r.steps).filter_map(|s| s.addition.as_ref());
    let milk: Vec<_> = milk.filter(|added| added.ingredient == "milk").collect();
    assert!(!milk.is_empty());
    let asks = ["brings milk, an allergen", "is not vegan"];
    assert!(milk.iter().all(|added| added.asks_first == asks), "{milk:?}");
}

#[test]
fn a_bowl_that_cannot_be_is_refused_in_words() {
    let ask = asked(&situations()[0]);
    let refused = |ask: RescueAsk| rescue(&ask, &Shelf::catalogue()).unwrap_err()[0].clone();
    assert_eq!(refused(RescueAsk { bowl_c: Some(400.0), ..ask.clone() }).field, "bowl_c");
    assert_eq!(refused(RescueAsk { bowl_g: Some(-2.0), ..ask.clone() }).field, "bowl_g");
    let empty = FormulaDocument { lines: Vec::new(), ..ask.document.clone() };
    assert_eq!(refused(RescueAsk { document: empty, ..ask }).code, FaultCode::NoLines);
}

#[test]
fn what_else_an_addition_does_is_said_with_the_weight_first() {
    let mut said = BTreeSet::new();
    every_step(|name, _, answer, step| {
        let Some(added) = step.addition.as_ref().filter(|_| step.then.is_some()) else {
            assert!(step.besides.is_empty(), "{name}: {:?}", step.besides);
            return;
        };
        let weight = step.besides[0].strip_suffix(" g in the bowl").unwrap_or_else(|| panic!("{name}"));
        let weight: f64 = weight.parse().unwrap();
        assert!((weight - answer.bowl_g - added.grams).abs() < 1.01, "{name}: {weight} g, {added:?}");
        said.extend(step.besides[1..].iter().map(|words| words.split(' ').next().unwrap().to_owned()));
    });
    for word in ["sweeter", "less", "firmer", "looser", "richer", "leaner"] {
        assert!(said.contains(word), "nothing ever becomes {word}: {said:?}");
    }
}

fn bowl(document: &FormulaDocument, grams: Option<f64>, t_c: Option<f64>) -> Bowl {
    Bowl::of(document, &Shelf::catalogue(), grams, t_c).unwrap_or_else(|faults| panic!("{faults:?}"))
}

#[test]
fn a_bowl_is_the_formula_at_another_weight() {
    for family in Family::ALL {
        let start = &starts(*family)[0];
        let (whole, part) = (bowl(start, None, None), bowl(start, Some(100.0), None));
        assert!((part.grams() - 100.0).abs() < 1e-6, "{}", family.word());
        let share = |bowl: &Bowl, at: usize| bowl.lines[at].mass.grams() / bowl.grams();
        for at in 0..whole.lines.len() {
            assert!((share(&whole, at) - share(&part, at)).abs() < 1e-9, "{} line {at}", family.word());
        }
        // What does not hang on the weight is the same.
        for quantity in
            [Quantity::Split, Quantity::Water, Quantity::Brix, Quantity::Sweetness, Quantity::Starch]
        {
            let (a, b) = (whole.quantity(quantity).unwrap(), part.quantity(quantity).unwrap());
            assert!((a - b).abs() <= 1e-6 * a.abs().max(1.0), "{} {quantity:?}: {a} and {b}", family.word());
        }
        assert_eq!(whole.quantity(Quantity::Temperature), None, "nobody probed it");
    }
}

#[test]
fn a_bowl_near_its_work_is_judged_as_it_stands_and_a_far_one_as_it_will_be() {
    let mask = starts(Family::Ganache).iter().find(|start| start.work.job.word() == "mask").unwrap();
    let cold = bowl(mask, None, Some(15.0));
    assert_eq!(cold.judged_c(), 15.0);
    assert!(cold.beyond() > 0.0, "at 15 °C it is too stiff to mask");
    assert!(cold.edges.inside, "where it is worked it is right");
    let hot = bowl(mask, None, Some(80.0));
    assert_eq!(hot.judged_c(), mask.work.temperature_c.celsius());
    assert_eq!(hot.beyond(), 0.0);
}

#[test]
fn heat_stays_in_a_bowl_and_never_goes_back() {
    let mut custard = starts(Family::PastryCream)[0].clone();
    custard.process.cook_c = Some(CookTemperature::from_celsius(84.0));
    custard.lines[1].cook_c = Some(CookTemperature::from_celsius(60.0));
    let shelf = Shelf::catalogue();
    let boiled = bowl(&custard, None, None).cooked(97.5, &shelf).unwrap();
    assert_eq!(boiled.quantity(Quantity::Cook), Some(97.5));
    assert!(boiled.document.lines[1].cook_c.is_some_and(|cook| cook.celsius() == 97.5));
    let again = boiled.cooked(70.0, &shelf).unwrap();
    assert_eq!(again.quantity(Quantity::Cook), Some(97.5), "what was boiled stays boiled");
}

#[test]
fn a_remedy_for_gelatin_is_not_offered_where_there_is_none() {
    let mut jelly = starts(Family::FruitMousse)[0].clone();
    jelly.lines.retain(|line| !line.ingredient.starts_with("gelatin"));
    let ask = |sign| RescueAsk {
        document: jelly.clone(),
        sign,
        bowl_c: None,
        bowl_g: None,
        not_at_hand: Vec::new(),
    };
    let strings = answered(&ask(Sign::Strings));
    assert!(strings.remedies.is_empty(), "{:?}", strings.remedies);
    let unset = answered(&ask(Sign::NotSetting));
    let own: Vec<&str> = unset.remedies.iter().filter(|r| !r.look_alike).map(|r| r.id.as_str()).collect();
    assert!(own.contains(&"forgot_gelatin") && !own.contains(&"mousse_weak"), "{own:?}");
}

#[test]
fn burnt_is_never_mended_and_raw_egg_is_said_to_be_raw() {
    for family in Family::ALL {
        let document = starts(*family)[0].clone();
        let ask =
            RescueAsk { document, sign: Sign::Scorched, bowl_c: None, bowl_g: None, not_at_hand: Vec::new() };
        let answer = answered(&ask);
        assert!(answer.cautions.iter().any(|own| own.words.contains("no remedy")), "{}", family.word());
        let through = answer.remedies.iter().find(|remedy| remedy.id == "scorched_all");
        let through = through.unwrap_or_else(|| panic!("{}: nobody says throw it away", family.word()));
        assert!(through.steps.iter().all(|step| step.deed == Deed::Discard && step.document.is_none()));
    }
    let mut mousse = starts(Family::EggMousse)[0].clone();
    mousse.process.cook_c = None;
    mousse.lines.iter_mut().for_each(|line| line.cook_c = None);
    let ask = RescueAsk {
        document: mousse,
        sign: Sign::Deflated,
        bowl_c: None,
        bowl_g: None,
        not_at_hand: Vec::new(),
    };
    assert!(answered(&ask).cautions.iter().any(|own| own.words.contains("under 71 °C")));
}

#[test]
fn half_of_it_goes_in_first_and_milk_is_kept_cold() {
    let mut halves = 0;
    every_step(|name, ask, answer, step| {
        let dairy = ask
            .document
            .lines
            .iter()
            .any(|line| ["milk", "cream36", "egg"].contains(&line.ingredient.as_str()));
        if dairy {
            assert!(answer.cautions.iter().any(|own| own.words.contains("four hours")), "{name}");
        }
        let Some(added) = step.addition.as_ref().filter(|added| added.grams >= 10.0) else { return };
        halves += 1;
        assert!((added.first_g / added.grams - 0.5).abs() < 0.06, "{name}: {added:?}");
    });
    assert!(halves > 30, "{halves}");
}

#[test]
fn a_remedy_breaks_nothing_that_is_whole() {
    let (mut broken, mut solved) = (0, 0);
    every_step(|name, ask, _, step| {
        let Some(added) = &step.addition else { return };
        broken += usize::from(added.basis == Basis::Breaks);
        let Some(document) = step.document.as_ref().filter(|_| added.basis == Basis::Solved) else { return };
        solved += 1;
        let [was, is] = [&ask.document, document].map(|document| assess(document).unwrap().figures);
        let split = (was.split.value, is.split.value);
        assert!(split.1 <= 0.17 || split.1 <= 1.05 * split.0, "{name}: {} splits it, {split:?}", added.name);
        let sweet = (was.sweetness_percent, is.sweetness_percent);
        assert!(sweet.1 <= 1.17 * sweet.0.max(1.0), "{name}: {} {sweet:?}", added.name);
    });
    assert!(solved > 30, "{solved} solved, {broken} would break something");
}

#[test]
fn a_syrup_that_grains_gets_as_much_water_as_keeps_its_sugar() {
    // 67 % is what 20 °C keeps (Charles 1960, from memory): 460 g in 200 g of water is 69.7 %.
    let mut syrup = starts(Family::Syrup)[0].clone();
    syrup.lines = vec![Line::new("sugar", "460 g"), Line::new("water", "200 g")];
    let ask = RescueAsk {
        document: syrup,
        sign: Sign::Grainy,
        bowl_c: None,
        bowl_g: None,
        not_at_hand: Vec::new(),
    };
    let answer = answered(&ask);
    let steps = answer.remedies.iter().flat_map(|remedy| &remedy.steps);
    let added = steps.filter_map(|step| step.addition.as_ref()).find(|added| added.basis == Basis::Solved);
    let added = added.unwrap_or_else(|| panic!("nothing solved: {answer:?}"));
    assert_eq!(added.ingredient, "water");
    // 460/(460 + w) = 0.666: 230.7 g, 31 g more.
    assert!((added.grams - 31.0).abs() < 4.0, "{added:?}");
}
