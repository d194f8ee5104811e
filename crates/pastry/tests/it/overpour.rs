//! A line poured past its mark, and what one spoonful does: against figures worked out beforehand with an
//! independent re-implementation of the model, and properties that hold for every formula.

use crate::support::{mixture, number, rows};
use pastry::assess::starts::starts;
use pastry::assess::{FormulaDocument, assess};
use pastry::fault::FaultCode;
use pastry::formula::{Family, Line, System};
use pastry::ingredient::{Shelf, find};
use pastry::rescue::addition::{Found, Lever};
use pastry::rescue::bowl::Bowl;
use pastry::rescue::remedy::SolvedFor;
use pastry::rescue::{Overpour, OverpourAsk, overpour};
use pastry::rheology::kernel::Prepared;
use pastry::rheology::{History, Options};
use pastry::units::{CookTemperature, Temperature};

fn parts(text: &str) -> Vec<(&str, f64)> {
    text.split(';')
        .map(|part| {
            let (id, grams) = part.trim().split_once(' ').unwrap();
            (id, grams.parse().unwrap())
        })
        .collect()
}

fn formula(family: Family, verb: &str, lines: &[(&str, f64)], t_c: f64, history: History) -> FormulaDocument {
    let mut document = starts(family).iter().find(|start| start.work.job.word() == verb).unwrap().clone();
    document.lines = lines.iter().map(|(id, grams)| Line::new(*id, format!("{grams} g"))).collect();
    document.work.temperature_c = Temperature::from_celsius(t_c);
    document.work.history = Some(history);
    document
}

fn poured(document: &FormulaDocument, line: usize, grams: f64) -> Overpour {
    let ask = OverpourAsk { document: document.clone(), line, poured: format!("{grams} g") };
    overpour(&ask, &Shelf::catalogue()).unwrap_or_else(|faults| panic!("{faults:?}"))
}

fn tau(document: &FormulaDocument) -> f64 {
    assess(document).unwrap().at.yield_stress_pa.value
}

fn close(name: &str, got: f64, wanted: f64, percent: f64) {
    assert!((got / wanted - 1.0).abs() <= percent / 100.0, "{name}: {got:.3}, not {wanted}");
}

/// What a spoonful does (34 entries): yield stress within 5 %, the change within 3 points; the numbers are those of the second
/// implementation of the model.
#[test]
fn a_spoonful_does_what_the_table_of_levers_says() {
    let mut wrong = Vec::new();
    for row in rows(include_str!("data/lever_effects.csv")) {
        let system = match row["system"].as_str() {
            "ganache" => System::Ganache,
            _ => System::Buttercream,
        };
        let at = |lines: &[(&str, f64)]| {
            let prepared = Prepared::new(&mixture(lines), system, &Options::default());
            prepared.at(number(&row, "t_c"), History::Worked).yield_stress_pa
        };
        let base = parts(&row["base"]);
        let mut more = base.clone();
        more.push((row["lever"].as_str(), number(&row, "grams")));
        let (before, change) = (at(&base), 100.0 * (at(&more) / at(&base) - 1.0));
        let off = change - number(&row, "change_percent");
        if (before / number(&row, "yield_pa") - 1.0).abs() > 0.05 || off.abs() > 3.0 {
            wrong.push(format!(
                "{} + {} g {}: {before:.0} Pa, {change:.1} %; the table says {} Pa, {} %",
                row["base"], row["grams"], row["lever"], row["yield_pa"], row["change_percent"]
            ));
        }
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}

#[test]
fn chocolate_poured_over_comes_back_with_milk_or_cream() {
    let plan =
        formula(Family::Ganache, "mask", &[("dark55", 60.0), ("cream35", 40.0)], 22.0, History::Worked);
    close("planned", tau(&plan), 1062.0, 1.0);
    let answer = poured(&plan, 0, 70.0);
    close("left", tau(&answer.leave.document), 1678.0, 1.0);
    let way = |id: &str| answer.restore.iter().find(|way| way.additions[0].ingredient == id).unwrap();
    // 5.3 g of skimmed milk; cream in the planned ratio, 6.7 g.
    close("skimmed milk", way("milk_skim").additions[0].grams, 5.3, 3.0);
    close("cream", way("cream35").additions[0].grams, 6.7, 3.0);
    for way in &answer.restore {
        close(&way.title, tau(&way.document), 1062.0, 2.0);
    }
    let scaled = answer.scale.unwrap();
    assert_eq!(scaled.title, "scale the rest by 1.17");
    close("scaled", tau(&scaled.document), 1062.0, 0.5);
    assert_eq!(scaled.additions.len(), 1);
}

#[test]
fn cream_poured_over_comes_back_with_chocolate_or_cocoa_mass() {
    let plan =
        formula(Family::Ganache, "mask", &[("dark55", 60.0), ("cream35", 40.0)], 22.0, History::Worked);
    let answer = poured(&plan, 1, 46.0);
    close("left", tau(&answer.leave.document), 620.0, 2.0);
    let way = |id: &str| answer.restore.iter().find(|way| way.additions[0].ingredient == id).unwrap();
    close("chocolate", way("dark55").additions[0].grams, 9.0, 4.0);
    close("cocoa mass", way("cocoa_mass").additions[0].grams, 4.0 * 1.06, 8.0);
    assert_eq!(answer.restore[0].additions[0].ingredient, "cocoa_mass", "the least grams come first");
}

#[test]
fn skimmed_milk_mends_a_split_dark_ganache() {
    // Skimmed milk in g per 100 g that brings the split index under 0.15, with cream of 35 %, by the second
    // implementation of the model (scripts/oracle_consistency.py).
    for (chocolate, ratio, wanted) in [
        ("dark70", 3.0, 10.3),
        ("dark70", 2.0, 4.6),
        ("dark55", 3.0, 6.4),
        ("dark60", 2.5, 5.4),
        ("dark64", 2.0, 3.2),
        ("dark75", 1.5, 1.0),
        ("dark75", 2.0, 5.6),
        ("dark80", 2.5, 9.9),
    ] {
        let grams = [(chocolate, 100.0 * ratio / (1.0 + ratio)), ("cream35", 100.0 / (1.0 + ratio))];
        let document = formula(Family::Ganache, "fill", &grams, 22.0, History::Worked);
        let bowl = Bowl::of(&document, &Shelf::catalogue(), None, Some(35.0)).unwrap();
        let lever = Lever { bowl: &bowl, ingredient: find("milk_skim").unwrap() };
        match lever.solve(SolvedFor::Split, 40.0, 35.0) {
            Found::Grams(grams) => {
                assert!((grams - wanted).abs() <= 0.2, "{chocolate} {ratio}: {grams:.1}, not {wanted}")
            }
            other => panic!("{chocolate} {ratio}: {other:?}"),
        }
    }
}

#[test]
fn cream_does_not_mend_a_split_ganache() {
    let split = |lines: &[(&str, f64)]| {
        Prepared::new(&mixture(lines), System::Ganache, &Options::default()).at(35.0, History::Fresh).split
    };
    let at = split(&[("dark70", 75.0), ("cream35", 25.0)]);
    close("as it is", at, 0.942, 1.0);
    // As much cream leaves it likely to split; skimmed milk, with its water and protein and no fat, closes it.
    let with = |what: &'static str| split(&[("dark70", 75.0), ("cream35", 25.0), (what, 12.0)]);
    assert!(with("cream35") > 0.6, "{}", with("cream35"));
    assert!(with("milk_skim") < 0.15, "{}", with("milk_skim"));
}

#[test]
fn butter_closes_a_wet_buttercream() {
    let split = |butter: f64| {
        let swiss = [("white", 18.0), ("sugar", 36.0), ("butter82", 46.0), ("raspberry", 60.0)];
        let grams: f64 = swiss.iter().map(|(_, g)| g).sum();
        let mut lines: Vec<(&str, f64)> = swiss.to_vec();
        lines.push(("butter82", butter * grams / 100.0));
        let prepared = Prepared::new(&mixture(&lines), System::MeringueButtercream, &Options::default());
        prepared.at(22.0, History::Worked).split
    };
    for (butter, wanted) in [(0.0, 0.62), (10.0, 0.19), (20.0, 0.05)] {
        assert!((split(butter) - wanted).abs() < 0.02, "{butter} g: {:.3}, not {wanted}", split(butter));
    }
}

#[test]
fn starch_milk_and_chocolate_move_what_the_worked_checks_say() {
    let custard = |starch: f64| {
        let base =
            [("milk", 1000.0), ("yolk", 170.0), ("sugar", 200.0), ("corn_starch", 60.0 + starch * 14.3)];
        let options = Options { cook_c: Some(96.0), ..Options::default() };
        Prepared::new(&mixture(&base), System::Custard, &options).at(5.0, History::Worked).yield_stress_pa
    };
    close("60 g a litre", custard(0.0), 77.2, 1.0);
    close("1 g more", custard(1.0), 162.4, 1.0);
    let butter = |milk: f64| {
        let lines = [("icing", 66.667), ("butter82", 33.333), ("milk", milk)];
        Prepared::new(&mixture(&lines), System::Buttercream, &Options::default())
            .at(20.0, History::Worked)
            .yield_stress_pa
    };
    close("2 : 1", butter(0.0), 1350.0, 1.0);
    close("with 2 g of milk", butter(2.0), 999.0, 1.0);
    let drip = |dark: f64| {
        let lines = [("dark55", 50.0 + dark), ("cream35", 50.0)];
        let document = formula(Family::Ganache, "drip", &lines, 30.0, History::Fresh);
        assess(&document).unwrap().at.measured.value
    };
    // The start's cake and dose; the worked check says 58 and 50 mm for a cake of 5 °C and 0.9 ml.
    close("drip", drip(0.0), 59.0, 4.0);
    close("with 5 g of chocolate", drip(5.0), 50.0, 5.0);
}

#[test]
fn gelatin_poured_over_comes_back_with_puree() {
    let lines = [("raspberry", 40.0), ("cream36", 48.0), ("sugar", 11.0), ("gelatin200", 1.0)];
    let mut plan = formula(Family::FruitMousse, "set", &lines, 5.0, History::Rested);
    plan.process.cook_c = Some(CookTemperature::from_celsius(60.0));
    let answer = poured(&plan, 3, 1.2);
    let puree = answer.restore.iter().find(|way| way.additions[0].ingredient == "raspberry");
    let puree = puree.unwrap_or_else(|| panic!("{:?}", answer.restore));
    // By the watery phase: its 63 g times a fifth is 12.6 g; 13 g brings the gel back.
    close("puree", puree.additions[0].grams, 13.0, 15.0);
    close("firmness", tau(&puree.document), tau(&plan), 3.0);
}

#[test]
fn scaling_the_batch_gives_the_same_cream_for_every_family() {
    let mut checked = 0;
    for family in Family::ALL {
        for start in starts(*family) {
            for line in 0..start.lines.len() {
                let grams = crate::support::grams_of(start)[line];
                if grams < 2.0 {
                    continue;
                }
                let answer = poured(start, line, 1.1 * grams);
                let scaled = answer.scale.as_ref().unwrap();
                let (before, after) = (assess(start).unwrap(), assess(&scaled.document).unwrap());
                let name = format!("{} line {line}", family.word());
                close(&name, after.at.on_map.value, before.at.on_map.value, 1.5);
                close(&name, after.totals.batch_mass_g, 1.1 * before.totals.batch_mass_g, 0.2);
                for way in &answer.restore {
                    let back = assess(&way.document).unwrap().at.on_map.value;
                    // To the tenth of a gram of the scale.
                    close(&format!("{name}: {}", way.title), back, before.at.on_map.value, 8.0);
                    assert!(way.additions.iter().all(|added| added.grams > 0.0), "{name}");
                }
                let order: Vec<f64> = answer.restore.iter().map(|way| way.additions[0].grams).collect();
                assert!(order.is_sorted(), "{name}: {order:?}");
                checked += 1;
            }
        }
    }
    assert!(checked > 150, "{checked}");
}

#[test]
fn too_little_is_no_scaling_and_nonsense_is_refused() {
    let plan = &starts(Family::Ganache)[0];
    let answer = poured(plan, 0, 120.0);
    assert!(answer.scale.is_none() && answer.sentence.contains("less of"), "{}", answer.sentence);
    let refused = |line: usize, text: &str| {
        let ask = OverpourAsk { document: plan.clone(), line, poured: text.into() };
        overpour(&ask, &Shelf::catalogue()).unwrap_err()[0].clone()
    };
    assert_eq!(refused(7, "10 g").code, FaultCode::NoSuchLine);
    assert_eq!(refused(0, "150 g").code, FaultCode::NothingPoured);
    assert_eq!(refused(0, "some").field, "poured");
    assert_eq!(refused(0, "0 g").code, FaultCode::NothingPoured);
}

/// Common practice: salt and acid are there for the taste, and no way back for a consistency.
#[test]
fn nobody_is_told_to_mend_it_with_salt() {
    let lines = [("milk40", 150.0), ("cream36", 90.0), ("butter82", 12.0), ("salt", 0.6)];
    let document = formula(Family::Ganache, "drip", &lines, 26.0, History::Fresh);
    for grams in [160.0, 180.0, 240.0] {
        let answer = poured(&document, 0, grams);
        let salted = answer.restore.iter().flat_map(|way| &way.additions).any(|own| own.ingredient == "salt");
        assert!(!salted, "{grams} g: {:?}", answer.restore);
    }
}
