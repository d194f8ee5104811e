//! Components in components, as a kitchen meets them: what stays cooked, what is lost, what goes into itself.

use pastry::assess::made_here::{Documents, circle, with_made};
use pastry::assess::{Assessment, FormulaDocument, assess_from};
use pastry::fault::FaultCode;
use pastry::formula::keeping::cold_days;
use pastry::formula::{Family, Line, WhipStage};
use pastry::ingredient::Shelf;
use pastry::job::Job;
use pastry::method::course::{course, school_of};
use pastry::rheology::warning::WarningCode;
use pastry::units::{CookTemperature, Overrun};
use std::collections::BTreeMap;

fn job(kind: &str) -> Job {
    serde_json::from_value(serde_json::json!({ "kind": kind })).unwrap()
}

fn formula(name: &str, family: Family, to: &str, t_c: f64, lines: &[(&str, &str)]) -> FormulaDocument {
    let mut document = FormulaDocument::empty(family, job(to), t_c);
    document.name = name.to_owned();
    document.lines = lines.iter().map(|(ingredient, amount)| Line::new(*ingredient, *amount)).collect();
    document
}

fn pastry_cream(cook_c: f64) -> FormulaDocument {
    let lines = [("milk", "500 g"), ("yolk", "85 g"), ("sugar", "100 g"), ("corn_starch", "44 g")];
    let mut own = formula("Daily pastry cream", Family::PastryCream, "fill", 6.0, &lines);
    own.process.cook_c = Some(CookTemperature::from_celsius(cook_c));
    own
}

fn whipped(stage: WhipStage) -> FormulaDocument {
    let mut own = formula(
        "Sunday cream",
        Family::WhippedCream,
        "spoon",
        5.0,
        &[("cream36", "480 g"), ("sugar", "38 g")],
    );
    own.process.whip = Some(stage);
    own.process.overrun_percent = Some(Overrun::from_percent(90.0));
    own
}

fn diplomat() -> FormulaDocument {
    formula("Feast", Family::Diplomat, "fill", 6.0, &[("made-daily", "600 g"), ("made-sunday", "250 g")])
}

type Kitchen = BTreeMap<String, FormulaDocument>;

fn kitchen(all: &[(&str, FormulaDocument)]) -> Kitchen {
    all.iter().map(|(key, own)| ((*key).to_owned(), own.clone())).collect()
}

fn shelf(kitchen: &Kitchen) -> Shelf {
    let documents: Documents = kitchen.iter().map(|(key, own)| (key.as_str(), own)).collect();
    with_made(Shelf::catalogue(), &documents)
}

fn usual() -> Kitchen {
    kitchen(&[("daily", pastry_cream(96.0)), ("sunday", whipped(WhipStage::Soft))])
}

fn answer(document: &FormulaDocument, kitchen: &Kitchen) -> Assessment {
    assess_from(document, &shelf(kitchen)).unwrap_or_else(|faults| panic!("{faults:?}"))
}

fn warned(answer: &Assessment, code: WarningCode) -> bool {
    answer.warnings.iter().any(|warning| warning.code == code)
}

#[test]
fn a_boiled_custard_stays_boiled_when_cream_is_folded_in() {
    let boiled = answer(&diplomat(), &usual());
    assert!(
        !warned(&boiled, WarningCode::EggRaw) && !warned(&boiled, WarningCode::StarchRaw),
        "{:?}",
        boiled.warnings
    );
    assert!(boiled.totals.allergens.contains(&"egg".to_owned()));
    // And what was not, is not: said of the inner one as of the outer.
    let raw = kitchen(&[("daily", pastry_cream(60.0)), ("sunday", whipped(WhipStage::Soft))]);
    assert!(warned(&answer(&diplomat(), &raw), WarningCode::EggRaw));
}

#[test]
fn egg_that_was_held_long_enough_is_safe_outside_too() {
    let lines = [("white", "120 g"), ("sugar", "240 g"), ("butter82", "300 g")];
    let mut swiss = formula("Swiss", Family::SwissButtercream, "mask", 21.0, &lines);
    swiss.process.cook_c = Some(CookTemperature::from_celsius(63.0));
    let outside = formula(
        "Coffee",
        Family::SwissButtercream,
        "mask",
        21.0,
        &[("made-swiss", "400 g"), ("coffee_instant", "4 g")],
    );
    let of = |swiss: &FormulaDocument| answer(&outside, &kitchen(&[("swiss", swiss.clone())]));
    assert!(warned(&of(&swiss), WarningCode::EggRaw), "63 °C for a moment");
    swiss.process.held_min = serde_json::from_value(serde_json::json!(30)).unwrap();
    assert!(!warned(&of(&swiss), WarningCode::EggRaw), "63 °C for half an hour");
    // Raw white beside it is raw still.
    let mut with_raw = outside.clone();
    with_raw.lines.push(Line::new("white", "30 g"));
    assert!(warned(&answer(&with_raw, &kitchen(&[("swiss", swiss)])), WarningCode::EggRaw));
}

#[test]
fn air_comes_with_the_cream_and_folding_loses_some() {
    let percent = |stage: WhipStage| {
        let all = kitchen(&[("daily", pastry_cream(96.0)), ("sunday", whipped(stage))]);
        answer(&diplomat(), &all).process.overrun_percent
    };
    let (soft, stiff) = (percent(WhipStage::Soft), percent(WhipStage::Stiff));
    // 250 g of 850 at 90 %, a fifth of it lost: about 22 % of the volume of all.
    assert!((18.0..27.0).contains(&soft), "{soft}");
    assert!(stiff < soft, "stiff cream is folded longer: {stiff} of {soft}");
    // The word of the cook stands over it.
    let mut written = diplomat();
    written.process.overrun_percent = Some(Overrun::from_percent(40.0));
    assert_eq!(answer(&written, &usual()).process.overrun_percent, 40.0);
    // Without anything whipped it has the habit of its family.
    let mut plain = diplomat();
    plain.lines[1] = Line::new("cream36", "250 g");
    assert_eq!(answer(&plain, &usual()).process.overrun_percent, 35.0);
    let told = diplomat().air(&diplomat().formula().weigh(&shelf(&usual())).unwrap()).brought.unwrap();
    assert!(told.contains("Sunday cream") && told.contains("loses 20 %"), "{told}");
}

#[test]
fn more_starch_inside_never_softens_the_outside() {
    let mut last = 0.0;
    for starch in [30.0, 36.0, 42.0, 48.0, 54.0] {
        let mut daily = pastry_cream(96.0);
        daily.lines[3].amount = format!("{starch} g");
        let all = kitchen(&[("daily", daily), ("sunday", whipped(WhipStage::Soft))]);
        let tau = answer(&diplomat(), &all).at.yield_stress_pa.value;
        assert!(tau >= last, "{starch} g: {tau} Pa after {last} Pa");
        last = tau;
    }
}

#[test]
fn what_had_set_holds_nothing_until_it_runs_again() {
    let jelly = formula(
        "Pear jelly",
        Family::Jelly,
        "set",
        5.0,
        &[("water", "400 g"), ("sugar", "80 g"), ("gelatin200", "9 g")],
    );
    let all = kitchen(&[("jelly", jelly)]);
    let mut mousse = formula(
        "Cheese",
        Family::CreamCheeseMousse,
        "set",
        5.0,
        &[("made-jelly", "200 g"), ("cream_cheese", "250 g"), ("cream36", "200 g")],
    );
    let fresh = answer(&mousse, &all);
    mousse.lines[0].had_set = true;
    let broken = answer(&mousse, &all);
    assert!(broken.at.yield_stress_pa.value < 0.7 * fresh.at.yield_stress_pa.value);
    let told = broken.warnings.iter().find(|warning| warning.code == WarningCode::SetBefore).unwrap();
    assert!(told.cause.contains("gelatin of Pear jelly") && told.way_out.contains("40 °C"), "{told:?}");
    mousse.lines[0].cook_c = Some(CookTemperature::from_celsius(45.0));
    let warmed = answer(&mousse, &all);
    assert!((warmed.at.yield_stress_pa.value / fresh.at.yield_stress_pa.value - 1.0).abs() < 0.01);
    assert!(!warned(&warmed, WarningCode::SetBefore));
}

#[test]
fn it_keeps_as_long_as_what_keeps_shortest() {
    let of = |document: &FormulaDocument, all: &Kitchen| {
        cold_days(document.family, &document.formula().weigh(&shelf(all)).unwrap())
    };
    let ganache = formula(
        "Odds and ends",
        Family::Ganache,
        "fill",
        20.0,
        &[("dark60", "300 g"), ("made-daily", "100 g"), ("cream36", "150 g")],
    );
    let long = of(&formula("Plain", Family::Ganache, "fill", 20.0, &[("dark60", "300 g")]), &usual());
    let short = of(&ganache, &usual());
    assert!(short < long, "{short} of {long} days");
    let raw = kitchen(&[("daily", pastry_cream(60.0))]);
    assert_eq!(of(&ganache, &raw), 1, "raw egg inside");
}

#[test]
fn a_circle_is_said_in_words_at_its_line() {
    let mut daily = pastry_cream(96.0);
    daily.lines.push(Line::new("made-feast", "50 g"));
    let all =
        kitchen(&[("daily", daily.clone()), ("sunday", whipped(WhipStage::Soft)), ("feast", diplomat())]);
    let faults = assess_from(&diplomat(), &shelf(&all)).unwrap_err();
    assert_eq!(faults.len(), 1, "{faults:?}");
    assert_eq!((faults[0].field.as_str(), faults[0].code), ("lines.0.ingredient", FaultCode::MadeOfItself));
    assert!(
        faults[0].message.contains("Feast → Daily pastry cream → Feast")
            || faults[0].message.contains("Daily pastry cream → Feast → Daily pastry cream"),
        "{}",
        faults[0].message
    );
    // Before it is kept: the one in hand stands under its key.
    let others = kitchen(&[
        ("sunday", whipped(WhipStage::Soft)),
        ("feast", diplomat()),
        ("daily", pastry_cream(96.0)),
    ]);
    let documents: Documents = others.iter().map(|(key, own)| (key.as_str(), own)).collect();
    let told = circle("daily", &daily, &documents).remove(0);
    assert_eq!((told.field.as_str(), told.code), ("lines.4.ingredient", FaultCode::MadeOfItself));
    assert!(told.message.contains("Daily pastry cream → Feast → Daily pastry cream"), "{}", told.message);
    assert_eq!(circle("other", &daily, &documents), []);
    // Held at an older version it is no circle: that one never changes.
    daily.lines.pop();
    daily.lines.push(Line::new("made-feast@1", "50 g"));
    assert_eq!(circle("daily", &daily, &documents), []);
}

#[test]
fn four_deep_is_followed_and_five_is_not() {
    let syrup = |inner: &str| {
        let lines = [("water", "100 g"), ("sugar", "80 g"), (inner, "20 g")];
        formula("Syrup", Family::Syrup, "soak", 20.0, &lines)
    };
    let mut all = Kitchen::new();
    all.insert("s0".into(), syrup("honey"));
    for level in 1..6 {
        all.insert(format!("s{level}"), syrup(&format!("made-s{}", level - 1)));
    }
    let of = |level: usize| assess_from(&syrup(&format!("made-s{level}")), &shelf(&all));
    assert!(of(3).is_ok(), "{:?}", of(3).err());
    let faults = of(4).unwrap_err();
    assert_eq!((faults[0].code, faults[0].field.as_str()), (FaultCode::TooDeep, "lines.2.ingredient"));
}

#[test]
fn what_is_missing_or_amiss_inside_is_said_at_its_line() {
    let faults = assess_from(&diplomat(), &shelf(&kitchen(&[("daily", pastry_cream(96.0))]))).unwrap_err();
    assert_eq!(
        (faults[0].code, faults[0].field.as_str()),
        (FaultCode::MissingComponent, "lines.1.ingredient")
    );
    let mut daily = pastry_cream(96.0);
    daily.lines[1].amount = "a handful".into();
    let all = kitchen(&[("daily", daily), ("sunday", whipped(WhipStage::Soft))]);
    let faults = assess_from(&diplomat(), &shelf(&all)).unwrap_err();
    assert_eq!((faults[0].code, faults[0].field.as_str()), (FaultCode::ComponentAmiss, "lines.0.ingredient"));
    assert!(faults[0].message.contains("Daily pastry cream"), "{}", faults[0].message);
}

#[test]
fn what_was_made_before_is_taken_and_not_made_again() {
    let all = usual();
    let document = diplomat();
    let lines = document.formula().weigh(&shelf(&all)).unwrap();
    let school = school_of(&document, &lines).unwrap();
    assert_eq!(school.id, "diplomat_cold", "a custard that is there is cold");
    let steps = course(school, &lines);
    let keys: Vec<&str> = steps.iter().map(|step| step.key.as_str()).collect();
    assert_eq!(keys, ["made_0", "made_1", "beat", "fold", "chill"]);
    assert!(steps[0].what.contains("600 g of Daily pastry cream"), "{}", steps[0].what);
    assert_eq!(steps[2].needs, ["made_0"]);
    assert!(steps[3].needs.contains(&"beat".to_owned()) && steps[3].needs.contains(&"made_1".to_owned()));
    // Whatever is needed is a step above.
    for (at, step) in steps.iter().enumerate() {
        assert!(step.needs.iter().all(|need| steps[..at].iter().any(|own| own.key == *need)), "{step:?}");
    }
    // A school never makes what was made before hotter than its own sheet did.
    let sheets = pastry::method::sheet(&document, &shelf(&all), &[]).unwrap();
    let cold = sheets.iter().find(|sheet| sheet.school == "diplomat_cold").unwrap();
    assert!(cold.chosen && cold.document.lines.iter().all(|line| line.cook_c.is_none()));
    let raw = kitchen(&[("daily", pastry_cream(60.0)), ("sunday", whipped(WhipStage::Soft))]);
    for sheet in pastry::method::sheet(&document, &shelf(&raw), &[]).unwrap() {
        assert!(
            warned(&answer(&sheet.document, &raw), WarningCode::EggRaw),
            "{} cooks what is there",
            sheet.school
        );
    }
}

#[test]
fn a_diplomat_of_parts_is_the_one_in_one_bowl_with_the_same_air() {
    let parts = answer(&diplomat(), &usual());
    let share = 600.0 / 729.0;
    let grams = |g: f64| format!("{} g", g);
    let mut whole = formula("Whole", Family::Diplomat, "fill", 6.0, &[]);
    for (id, mass, cook_c) in [
        ("milk", 500.0 * share, Some(96.0)),
        ("yolk", 85.0 * share, Some(96.0)),
        ("sugar", 100.0 * share, Some(96.0)),
        ("corn_starch", 44.0 * share, Some(96.0)),
        ("cream36", 480.0 * 250.0 / 518.0, None),
        ("sugar", 38.0 * 250.0 / 518.0, None),
    ] {
        let cook_c = cook_c.map(CookTemperature::from_celsius);
        whole.lines.push(Line { cook_c, ..Line::new(id, grams(mass)) });
    }
    whole.process.overrun_percent = Some(Overrun::from_percent(parts.process.overrun_percent));
    whole.process.whip = Some(WhipStage::Soft);
    let whole = answer(&whole, &Kitchen::new());
    let apart = (parts.at.yield_stress_pa.value / whole.at.yield_stress_pa.value).ln().abs();
    assert!(apart < 0.01, "{apart}");
    assert_eq!(parts.at.headline, whole.at.headline);
}
