//! Kernels and tables against printed tables and open data. The tables in `data/` name their source
//! in each row; those "from memory" say so there.

use crate::support::{mixture, number, rows};
use pastry::formula::System;
use pastry::ingredient::find;
use pastry::rheology::serum::{sucrose_solubility, syrup_viscosity};
use pastry::rheology::solid_fat::{COCOA_BUTTER, LAURIC, MILK_FAT};
use pastry::rheology::{Options, Prepared};
use pastry::units::kitchen::{Measures, Unit, UnitKind};

#[test]
fn syrup_viscosity_is_within_twelve_per_cent_of_bingham_and_jackson() {
    // Bingham & Jackson 1919, NBS Scientific Paper 298, from memory. Worst: 40 °Bx at 0 °C.
    for row in rows(include_str!("data/sucrose_viscosity_vs_T.csv")) {
        let (brix, t_c, want) =
            (number(&row, "brix_wt_pct"), number(&row, "T_C"), number(&row, "viscosity_mPa_s"));
        let got = 1e3 * syrup_viscosity(brix, t_c);
        let off = got / want - 1.0;
        assert!(off.abs() < 0.12, "{brix} °Bx at {t_c} °C: off by {:.1} %", 100.0 * off);
    }
}

#[test]
fn syrup_viscosity_is_within_eight_per_cent_of_swindells_at_20_degrees() {
    // Swindells et al. 1958, NBS Circular 440 supplement, from memory; 75 °Bx is past the formula's range.
    for row in rows(include_str!("data/sucrose_solution_20C.csv")) {
        let brix = number(&row, "brix_wt_pct");
        if row["viscosity_mPa_s_20C"].is_empty() || brix == 0.0 || brix > 70.0 {
            continue;
        }
        let want = number(&row, "viscosity_mPa_s_20C");
        let off = 1e3 * syrup_viscosity(brix, 20.0) / want - 1.0;
        assert!(off.abs() < 0.08, "{brix} °Bx: off by {:.1} %", 100.0 * off);
    }
}

#[test]
fn density_of_sugar_solutions_by_volumes_is_within_one_per_cent_of_plato() {
    // Plato table in NBS Circular C440 (1942), 20 °C.
    for row in rows(include_str!("data/sucrose_solution_20C.csv")) {
        let brix = number(&row, "brix_wt_pct");
        let mixed = mixture(&[("sugar", brix), ("water", 100.0 - brix + 1e-9)]);
        let got = 1e-3 * Prepared::new(&mixed, System::Syrup, &Options::default()).density;
        let off = got / number(&row, "density_g_per_ml_20C") - 1.0;
        assert!(off.abs() < 0.012, "{brix} °Bx: off by {:.2} %", 100.0 * off);
    }
}

#[test]
fn sucrose_solubility_agrees_with_vavrinecz() {
    // Vavrinecz 1962 as in Bubnik et al. 1995, from memory of the polynomial: another fit than ours.
    for row in rows(include_str!("data/sucrose_solubility.csv")) {
        let t_c = number(&row, "T_C");
        if t_c > 90.0 {
            continue;
        }
        let off = sucrose_solubility(t_c) - number(&row, "saturated_wt_pct_vavrinecz");
        assert!(off.abs() < 0.2, "{t_c} °C: off by {off:.2} g per 100 g");
    }
}

#[test]
fn solid_fat_lies_within_the_ranges_of_the_handbooks() {
    // Shukla 1995, Timms 2003, Kaylegian & Lindsay 1995, Bockisch 1998, from memory; each row has a
    // range. Cocoa butter is taken over all origins listed.
    let (mut low, mut high) = (std::collections::BTreeMap::new(), std::collections::BTreeMap::new());
    let mut checked = 0;
    for row in rows(include_str!("data/solid_fat_content.csv")) {
        let (t_c, from, to) = (number(&row, "T_C"), number(&row, "low"), number(&row, "high"));
        let curve = match row["fat"].as_str() {
            "milk fat" => &MILK_FAT,
            "coconut oil" => &LAURIC,
            name if name.starts_with("cocoa butter") => {
                let key = (10.0 * t_c) as i64;
                low.entry(key).and_modify(|l: &mut f64| *l = l.min(from)).or_insert(from);
                high.entry(key).and_modify(|h: &mut f64| *h = h.max(to)).or_insert(to);
                continue;
            }
            _ => continue,
        };
        let got = curve.at(t_c);
        assert!((from - 1.0..=to + 1.0).contains(&got), "{} at {t_c} °C: {got:.1} %", row["fat"]);
        checked += 1;
    }
    for (key, from) in low {
        let t_c = key as f64 / 10.0;
        let got = COCOA_BUTTER.at(t_c);
        assert!((from - 1.0..=high[&key] + 1.0).contains(&got), "cocoa butter at {t_c} °C: {got:.1} %");
        checked += 1;
    }
    assert!(checked >= 15, "only {checked} rows");
}

#[test]
fn water_activity_of_saturated_sugar_is_in_the_published_range() {
    // Robinson & Stokes; Rüegg 1980: 0.843–0.851 at 25 °C, from memory.
    let saturated = mixture(&[("sugar", 67.35), ("water", 32.65)]);
    let aw = Prepared::new(&saturated, System::Syrup, &Options::default()).serum.water_activity.unwrap();
    assert!((0.840..=0.852).contains(&aw), "{aw}");
}

#[test]
fn water_activity_of_dilute_sugar_agrees_with_osmotic_coefficients() {
    // Robinson & Stokes, osmotic coefficients of sucrose at 25 °C, from memory: a_w = exp(−φ m M).
    for row in rows(include_str!("data/water_activity.csv")) {
        if row["solute"] != "sucrose" || !row["quantity"].starts_with("osmotic") {
            continue;
        }
        let molal: f64 = row["quantity"].split('_').nth(3).unwrap().parse().unwrap();
        let want = (-number(&row, "value") * molal * 0.018015).exp();
        let solution = mixture(&[("water", 1000.0), ("sugar", molal * 342.3)]);
        let got = Prepared::new(&solution, System::Syrup, &Options::default()).serum.water_activity.unwrap();
        assert!((got - want).abs() < 0.004, "{molal} mol/kg: {got:.4} for {want:.4}");
    }
}

#[test]
fn kitchen_units_are_the_published_ones() {
    // NIST SP 811, Handbook 44, AS 1325, UK Weights and Measures Act 1985: each row of the table.
    let ml = |unit: Unit, measures| match unit.kind(measures) {
        UnitKind::Volume(ml) => ml,
        other => panic!("{unit:?} is {other:?}"),
    };
    let mut checked = 0;
    for row in rows(include_str!("data/units.csv")) {
        let measures = match row["system"].as_str() {
            "US customary" => Measures::Us,
            "metric (AU/NZ/CA)" | "metric (most)" | "metric" => Measures::Metric,
            "Australia" => Measures::Australian,
            "imperial" | "imperial (old British)" => Measures::Imperial,
            "avoirdupois" => {
                let UnitKind::Mass(g) = Unit::parse(&row["unit"]).unwrap().kind(Measures::Us) else {
                    panic!("{} is no mass", row["unit"])
                };
                assert!((g - number(&row, "value")).abs() < 1e-9, "{}", row["unit"]);
                checked += 1;
                continue;
            }
            _ => continue,
        };
        let name = row["unit"].trim_end_matches(" (liquid)");
        let Some(unit) = Unit::parse(name) else { continue };
        let got = ml(unit, measures);
        assert!((got - number(&row, "value")).abs() < 1e-6, "{} {}: {got} ml", row["system"], row["unit"]);
        checked += 1;
    }
    assert!(checked >= 14, "only {checked} units");
    // The same by another library: pint 0.25.3.
    for row in rows(include_str!("data/unit_conversions.csv")) {
        if row["to"] == "ml" && !row["from"].starts_with("imperial") {
            let Some(unit) = Unit::parse(&row["from"].replace('_', " ")) else { continue };
            assert!((ml(unit, Measures::Us) - number(&row, "value")).abs() < 1e-6, "{}", row["from"]);
        }
    }
}

#[test]
fn cup_weights_are_those_of_the_open_dataset() {
    // USDA National Nutrient Database for Standard Reference, Release 24: grams per cup.
    let table = rows(include_str!("data/household_measures.csv"));
    let pairs = [
        ("cream36", "cream_heavy_whipping", "cup, fluid"),
        ("cream30", "cream_light_whipping", "cup, fluid"),
        ("milk", "milk_whole_3_25", "cup"),
        ("butter82", "butter_unsalted", "cup"),
        ("honey", "honey", "cup"),
        ("sugar", "sugar_granulated", "cup"),
        ("dark60", "chocolate_semisweet", "cup chips"),
        ("white30", "chocolate_white", "cup chips"),
        ("cocoa22", "cocoa_powder_natural", "cup"),
        ("salt", "salt_table", "cup"),
        ("glucose40", "corn_syrup_light", "cup"),
    ];
    for (ours, theirs, measure) in pairs {
        let row = table
            .iter()
            .find(|row| row["key"] == theirs && row["measure"].starts_with(measure))
            .unwrap_or_else(|| panic!("no {theirs} {measure}"));
        let want = number(row, "grams") / 236.5882365;
        let got = find(ours).unwrap().weights.density.as_ref().unwrap().weight;
        assert!((got / want - 1.0).abs() < 1e-6, "{ours}: {got} g/ml for {want}");
    }
}

#[test]
fn dark_chocolates_agree_with_labels_by_cacao() {
    // Medians of 109 US labels that state a cacao percentage (FoodData Central, Branded). Over 57 to
    // 85 % they follow fat = 5.5 + 0.52 cacao; sugars are 100 − cacao within 4 g. Single medians rest
    // on as few as 4 labels and scatter by more.
    let table = rows(include_str!("data/dark_chocolate_labels_by_cacao.csv"));
    let line = |cacao: f64| 5.5 + 0.52 * cacao;
    for row in &table {
        let off = number(row, "fat_g_median") - line(number(row, "cacao_pct"));
        assert!(off.abs() < 3.5, "the line misses the median at {} %: {off:.1} points", row["cacao_pct"]);
    }
    for (id, cacao) in
        [("dark60", 60.0), ("dark64", 64.0), ("dark66", 66.0), ("dark70", 70.0), ("dark75", 75.0)]
    {
        let composition = &find(id).unwrap().composition;
        let (fat, sugar) = (100.0 * composition.phases().fat, 100.0 * composition.phases().sugar);
        assert!((fat - line(cacao)).abs() < 2.0, "{id}: fat {fat:.1} % for {:.1}", line(cacao));
        assert!((sugar - (100.0 - cacao)).abs() < 4.0, "{id}: sugar {sugar:.1} %");
    }
}
