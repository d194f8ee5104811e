//! Orders made problems: every school and every build of the Stack alone, and the demo's orders together, planned and legal.

use jiff::civil::DateTime;
use pastry::assess::FormulaDocument;
use pastry::assess::made_here::with_made;
use pastry::day::hours::Days;
use pastry::day::kitchen::{DateHours, WeekHours, Weekday};
use pastry::day::{Compiled, KitchenDocument, Sharing, ToPlan, compile};
use pastry::exchange::pantry::from_csv;
use pastry::ingredient::Shelf;
use pastry::method::schools;
use pastry::order::{OrderDocument, OrderedCake};
use pastry::stack::{Known, StackDocument, templates};
use pastry::zone::Zone;
use plan::answer::plan;
use plan::check::check;
use plan::problem::Kind;
use plan::search::Budget;
use serde_json::{Value, json};
use std::collections::HashMap;
use std::fs;
use std::path::PathBuf;

fn demo() -> PathBuf {
    PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../server/demo")
}

fn files(dir: PathBuf) -> Vec<(String, String)> {
    let mut all: Vec<(String, String)> = fs::read_dir(dir)
        .unwrap()
        .map(|entry| entry.unwrap().path())
        .filter(|path| path.extension().is_some_and(|own| own == "json"))
        .map(|path| {
            (path.file_stem().unwrap().to_str().unwrap().to_owned(), fs::read_to_string(path).unwrap())
        })
        .collect();
    all.sort();
    all
}

/// The demo's formulas by their files, and its pantry.
pub fn kitchen() -> (HashMap<String, FormulaDocument>, Shelf) {
    let formulas: HashMap<String, FormulaDocument> =
        files(demo()).into_iter().map(|(name, text)| (name, serde_json::from_str(&text).unwrap())).collect();
    let own = from_csv(&fs::read_to_string(demo().join("pantry.csv")).unwrap()).unwrap();
    let shelf = with_made(
        Shelf::catalogue().with(&own.good),
        &formulas.iter().map(|(key, own)| (key.as_str(), own)).collect(),
    );
    (formulas, shelf)
}

pub fn orders() -> Vec<OrderDocument> {
    files(demo().join("orders")).into_iter().map(|(_, text)| serde_json::from_str(&text).unwrap()).collect()
}

fn wall(text: &str) -> DateTime {
    text.parse().unwrap()
}

pub fn compiled(orders: &[&OrderDocument], kitchen: &KitchenDocument, from: &str, known: &Known) -> Compiled {
    let zone = Zone::default();
    let ask =
        ToPlan { orders, kitchen, zone: &zone, from: wall(from), learned: &[], sharing: &Sharing::default() };
    compile(&ask, known).unwrap()
}

/// Two cooks, one of them part of the time, one mixer, one oven; open on Sunday mornings.
pub fn lantern_street() -> KitchenDocument {
    serde_json::from_value(json!({
        "format": "bright-spoon/kitchen", "version": 1, "name": "Lantern Street",
        "hours": [
            {"on": ["tuesday", "wednesday", "thursday", "friday", "saturday"], "from": "06:00", "to": "18:00"},
            {"on": ["sunday"], "from": "06:00", "to": "12:00"}
        ],
        "cooks": [
            {"name": "Ines"},
            {"name": "Tom", "hours": [{"on": ["thursday", "friday", "saturday"], "from": "08:00", "to": "14:00"}], "cannot": ["sugar"]}
        ],
        "equipment": {
            "mixers_l": [7], "ovens_trays": [4], "hobs": 4, "microwaves": 1, "blenders": 1, "ice": 1, "rack_trays": 12,
            "fridge": {"shelves": 10, "area_cm2": 2400, "spacing_mm": 180}, "freezer": {"shelves": 4, "area_cm2": 2400, "spacing_mm": 120}
        }
    }))
    .unwrap()
}

/// Servings of the demo are as they were written, from Thursday 3 to Sunday 6 December 2026.
const MONDAY: &str = "2026-11-30T06:00:00";

/// A wedding, domes and jars; not the fair on the day after, for which Saturday is a long day anyway.
#[test]
fn the_demo_week_is_planned_as_a_cook_would() {
    let (formulas, shelf) = kitchen();
    let known = Known { formulas: &formulas, shelf: &shelf };
    let orders = orders();
    let all: Vec<&OrderDocument> = orders.iter().take(3).collect();
    let own = compiled(&all, &lantern_street(), MONDAY, &known);
    assert_eq!(own.notes, Vec::<String>::new());
    let answer = plan(&own.problem, Budget::default(), &|_| true);
    assert!(answer.is_whole(), "{:?}", answer.because);
    assert_eq!(check(&own.problem, &answer.start), []);
    // Every component and bake of every order is made, every cake built, and everything leaves.
    let served = own.problem.steps.iter().filter(|step| step.kind == Kind::Serve).count();
    assert_eq!(served, all.len());
    for step in own.problem.steps.iter().filter(|step| step.kind != Kind::Serve) {
        let goes_on =
            own.problem.waits.iter().map(|w| w.from).chain(own.problem.links.iter().map(|l| l.from));
        assert!(goes_on.into_iter().any(|from| from == step.id), "nothing comes after {}", step.name);
    }
    // The wedding is not built on its own morning alone. A cook would have no more than two hours of it then; this is what the
    // weights give so far.
    let wedding = orders.iter().position(|order| order.name == "Harbour wedding").unwrap();
    let day = own.days.minute(wall("2026-12-05T00:00:00"));
    let hands: i32 = own
        .problem
        .steps
        .iter()
        .filter(|step| {
            step.order == wedding && step.kind == Kind::Hands && answer.start[step.id].unwrap() >= day
        })
        .map(|step| step.dur)
        .sum();
    assert!(hands <= 180, "{hands} min of hands on the wedding's own day");
    // Boiling sugar is not given to who does not do it.
    assert!(
        own.problem.steps.iter().filter(|step| step.name.contains("syrup")).all(|step| step.skill.is_some())
    );
}

#[test]
fn every_template_of_a_cake_is_a_problem_that_has_a_plan() {
    let (formulas, shelf) = kitchen();
    let known = Known { formulas: &formulas, shelf: &shelf };
    let mut kitchen = KitchenDocument::usual();
    kitchen.hours[0].on = Weekday::ALL.to_vec();
    for template in templates() {
        let mut order = OrderDocument::empty(21.0);
        order.served_at = Some(wall("2026-12-05T15:00:00"));
        let mut stack = template.document.clone();
        choose(&mut stack);
        order.cakes = vec![OrderedCake { stack, count: 2 }];
        let own = compiled(&[&order], &kitchen, MONDAY, &known);
        let answer = plan(&own.problem, Budget { rounds: 200, seed: 1 }, &|_| true);
        assert!(answer.is_whole(), "{}: {:?}", template.name, answer.because);
        assert_eq!(check(&own.problem, &answer.start), [], "{}", template.name);
    }
}

/// Every place of a template that is open takes a formula of the demo.
fn choose(stack: &mut StackDocument) {
    let mut value = serde_json::to_value(&*stack).unwrap();
    fn fill(value: &mut Value) {
        match value {
            Value::Object(own) => {
                let open =
                    own.get("kind").is_some_and(|kind| kind == "filling") && !own.contains_key("component");
                if open {
                    own.insert("component".to_owned(), json!("07-chestnut-honey-fill"));
                }
                own.values_mut().for_each(fill);
            }
            Value::Array(all) => all.iter_mut().for_each(fill),
            _ => {}
        }
    }
    fill(&mut value);
    *stack = serde_json::from_value(value).unwrap();
}

/// Every school of every family alone: its steps are a problem with a plan, none of them without a next, nothing hot for ever.
#[test]
fn every_school_is_a_problem_that_has_a_plan() {
    let (formulas, shelf) = kitchen();
    let mut kitchen = KitchenDocument::usual();
    kitchen.hours[0].on = Weekday::ALL.to_vec();
    let mut tried = 0;
    for school in schools() {
        let mut names: Vec<&String> = formulas.keys().collect();
        names.sort();
        let of = |name: &&&String| school.families.contains(&formulas[**name].family);
        let Some(name) = names.iter().find(of) else { continue };
        let mut own = formulas.clone();
        own.get_mut(*name).unwrap().method = Some(school.id.clone());
        let known = Known { formulas: &own, shelf: &shelf };
        let mut order = OrderDocument::empty(21.0);
        order.served_at = Some(wall("2026-12-05T15:00:00"));
        order.cakes = vec![OrderedCake {
            stack: serde_json::from_value(json!({
                "format": "bright-spoon/stack", "version": 1, "name": school.name,
                "tiers": [{ "body": { "shape": "rectangle", "length_mm": 100, "width_mm": 100 },
                            "layers": [{ "kind": "filling", "component": name, "thickness_mm": 20 }] }]
            }))
            .unwrap(),
            count: 3,
        }];
        let own = compiled(&[&order], &kitchen, MONDAY, &known);
        let made = own.problem.steps.iter().filter(|step| step.kind != Kind::Serve).count();
        assert!(made > 2, "{}: only {made} steps", school.id);
        let answer = plan(&own.problem, Budget { rounds: 200, seed: 1 }, &|_| true);
        assert!(answer.is_whole(), "{}: {:?}", school.id, answer.because);
        assert_eq!(check(&own.problem, &answer.start), [], "{}", school.id);
        tried += 1;
    }
    assert!(tried >= 40, "{tried} schools were tried");
}

#[test]
fn bad_input_is_told_at_its_place() {
    let (formulas, shelf) = kitchen();
    let known = Known { formulas: &formulas, shelf: &shelf };
    let order = orders().remove(0);
    let faults = |order: &OrderDocument, kitchen: &KitchenDocument, from: &str| -> Vec<String> {
        let zone = Zone::default();
        let ask = ToPlan {
            orders: &[order],
            kitchen,
            zone: &zone,
            from: wall(from),
            learned: &[],
            sharing: &Sharing::default(),
        };
        compile(&ask, &known)
            .err()
            .unwrap_or_default()
            .into_iter()
            .map(|own| format!("{}: {}", own.field, own.message))
            .collect()
    };
    let usual = KitchenDocument::usual();
    let says = |all: Vec<String>, field: &str, words: &str| {
        assert!(
            all.iter().any(|own| own.starts_with(field) && own.contains(words)),
            "{field} {words}: {all:?}"
        );
    };
    says(faults(&order, &usual, "2027-01-01T08:00:00"), "orders.0.served_at", "was eaten");
    says(faults(&order, &usual, "2026-10-01T08:00:00"), "orders.0.served_at", "days ahead");
    let undated = OrderDocument { served_at: None, ..order.clone() };
    says(faults(&undated, &usual, MONDAY), "orders.0.served_at", "write when it is eaten");
    let mut kitchen = usual.clone();
    kitchen.hours.clear();
    says(faults(&order, &kitchen, MONDAY), "kitchen.hours", "never open");
    let mut kitchen = usual.clone();
    kitchen.cooks[0].hours = vec![WeekHours { on: Vec::new(), ..usual.hours[0].clone() }];
    says(faults(&order, &kitchen, MONDAY), "kitchen.cooks.0.hours", "never there");
    let mut kitchen = usual.clone();
    kitchen.cooks.clear();
    says(faults(&order, &kitchen, MONDAY), "kitchen.cooks", "nobody");
    // A kitchen without an oven: no fault of the input, but no plan, with the reason.
    let mut kitchen = usual.clone();
    kitchen.equipment.ovens_trays.clear();
    let own = compiled(&[&order], &kitchen, MONDAY, &known);
    let answer = plan(&own.problem, Budget { rounds: 100, seed: 1 }, &|_| true);
    assert!(
        answer.impossible && answer.because.join(" ").contains("more oven than there is"),
        "{:?}",
        answer.because
    );
}

/// Cooling that is for safety stays so in the problem: bending a day may stretch what is for quality, never this.
#[test]
fn a_cooling_for_safety_is_one_in_the_problem() {
    let (formulas, shelf) = kitchen();
    let known = Known { formulas: &formulas, shelf: &shelf };
    let orders = orders();
    let all: Vec<&OrderDocument> = orders.iter().collect();
    let own = compiled(&all, &lantern_street(), MONDAY, &known);
    let safe = own.problem.waits.iter().filter(|wait| wait.class == plan::problem::Class::Safety);
    let names: Vec<&str> = safe.map(|wait| wait.name.as_str()).collect();
    assert!(names.contains(&"Chill it"), "{names:?}");
    assert!(names.iter().any(|name| name.starts_with("out of the cold")), "{names:?}");
}

/// Eight hours through the night the clocks go back are nine on the wall's face less one: minutes pass as they pass (Lisbon, 25
/// October 2026, 02:00 to 01:00, IANA time zone database).
#[test]
fn the_night_the_clocks_change_hours_are_still_hours() {
    let zone = Zone::try_from("Europe/Lisbon".to_owned()).unwrap();
    let days = Days::of(jiff::civil::date(2026, 10, 24), 3, &zone);
    assert_eq!(days.minute(wall("2026-10-25T08:00:00")) - days.minute(wall("2026-10-24T22:00:00")), 11 * 60);
    assert_eq!(days.horizon(), 3 * 1440 + 60);
    let mut kitchen = KitchenDocument::usual();
    kitchen.hours = vec![WeekHours {
        on: Weekday::ALL.to_vec(),
        from: jiff::civil::time(22, 0, 0, 0),
        to: jiff::civil::time(6, 0, 0, 0),
    }];
    let open = days.open(&kitchen, 0);
    let long: Vec<i32> = open.iter().map(|[from, to]| to - from).collect();
    assert_eq!(long, [6 * 60, 9 * 60, 8 * 60, 2 * 60]);
    assert_eq!(days.wall(open[1][1]), wall("2026-10-25T06:00:00"));
    // A date of its own counts before the week.
    kitchen.dates = vec![DateHours { on: jiff::civil::date(2026, 10, 24), hours: Vec::new() }];
    assert_eq!(days.open(&kitchen, 0).len(), 3);
}
