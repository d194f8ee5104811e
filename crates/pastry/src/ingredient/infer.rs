//! From a label's nutrition panel to a composition: what the panel says is kept, what it leaves out is
//! inferred by the kind of thing it is, each value with the reason, all adding up to 100.

use crate::fault::Fault;
use crate::ingredient::composition::Part;
use crate::ingredient::label::{Inference, Inferred, Label, LabelKind};
use std::collections::BTreeMap;

/// Milk sugar to milk protein in milk without its fat: 4.8 to 3.3 in whole milk (USDA SR24 01211).
const LACTOSE_TO_PROTEIN: f64 = 1.45;
/// Protein in fat-free cocoa: 19.6 g in 86 g of fat-free solids (USDA SR24 19165, from memory).
const PROTEIN_OF_COCOA: f64 = 0.22;
/// Milk fat of a milk or white chocolate that does not say it: 6 % (assumed; Directive 2000/36/EC asks
/// for at least 3.5 %).
const MILK_FAT_OF_CHOCOLATE: f64 = 6.0;
/// Ash of milk on its protein: 0.67 to 3.15 (USDA SR24 01211).
const ASH_TO_PROTEIN: f64 = 0.21;
/// Water of a thing without water: chocolate, sugar, nut paste. From memory of tables.
const DRY_WATER: f64 = 1.0;

/// Least sugars of something preserved, g: jam, jelly, candied fruit (Directive 2001/113/EC asks for 60 % of solids, from
/// memory).
const PRESERVED: f64 = 30.0;
/// More sugars than this and it is sweet fruit, g: its other carbohydrate is no acid.
const SWEET: f64 = 4.0;
/// Most acid of fruit that is not citrus, g (USDA and food chemistry texts, from memory).
const MOST_ACID: f64 = 2.5;

/// Carbohydrate of fruit that is not sugar: acid of sour fruit, glucose syrup of jam, starch of bananas.
fn fruit_rest(draft: &mut Draft, sugars: f64, rest: f64) {
    if sugars >= PRESERVED {
        let pectin = rest.min(0.8);
        let acid = (rest - pectin).clamp(0.0, 0.8);
        draft.put(Part::Pectin, pectin, false, "assumed: 0.8 % pectin, as in a jam");
        draft.put(Part::Acid, acid, false, "assumed: 0.8 % acid, as in a jam");
        draft.put(Part::Dextrin, rest - pectin - acid, false, "the other carbohydrate: glucose syrup");
    } else if sugars < SWEET || rest <= MOST_ACID {
        draft.put(Part::Acid, rest, false, "carbohydrate that is not sugar: acids of the fruit");
    } else {
        draft.put(Part::Acid, 0.5, false, "assumed: half a per cent of acid, as in sweet fruit");
        draft.put(Part::Other, rest - 0.5, false, "the other carbohydrate: starch of the fruit");
    }
}

struct Draft {
    parts: BTreeMap<Part, f64>,
    notes: Vec<Inference>,
}

impl Draft {
    fn put(&mut self, part: Part, percent: f64, said: bool, why: impl Into<String>) {
        let percent = percent.max(0.0);
        if percent < 1e-9 {
            return;
        }
        *self.parts.entry(part).or_default() += percent;
        self.notes.push(Inference { part, percent, why: why.into(), said_by_label: said });
    }

    fn total(&self) -> f64 {
        self.parts.values().sum()
    }
}

impl Label {
    /// The composition this label stands for.
    ///
    /// # Errors
    /// [`Label::faults`] when the numbers contradict each other.
    pub fn infer(&self) -> Result<Inferred, Vec<Fault>> {
        let faults = self.faults();
        if !faults.is_empty() {
            return Err(faults);
        }
        let mut draft = Draft { parts: BTreeMap::new(), notes: Vec::new() };
        let alcohol = self.alcohol_mass();
        draft.put(Part::Alcohol, alcohol, true, "alcohol by volume on the label, as weight at 0.789 g/ml");
        draft.put(Part::Salt, self.salt_g, true, "salt on the label");
        let cocoa_butter = self.fats(&mut draft);
        let cocoa = self.dry_cocoa(cocoa_butter);
        draft.put(Part::Cocoa, cocoa.0, false, cocoa.1);
        let milk_protein = self.proteins(&mut draft, cocoa.0);
        self.sugars(&mut draft, milk_protein);
        self.rest(&mut draft, cocoa.0);
        Ok(self.closed(draft))
    }

    fn chocolate(&self) -> bool {
        matches!(self.kind, LabelKind::DarkChocolate | LabelKind::MilkChocolate | LabelKind::WhiteChocolate)
    }

    /// Ethanol by weight from volume: the density of a spirit is between 0.95 and 1.1 g/ml.
    fn alcohol_mass(&self) -> f64 {
        let volume = self.alcohol_percent_vol.unwrap_or(0.0);
        // Sugar makes it heavier, alcohol lighter; within 1 % of spirits and liqueurs (from memory).
        let density = 1.0 + 0.0038 * self.sugars_g - 0.0013 * volume;
        volume * 0.789 / density
    }

    /// Splits the fat; returns the cocoa butter.
    fn fats(&self, draft: &mut Draft) -> f64 {
        let fat = self.fat_g;
        match self.kind {
            LabelKind::DarkChocolate | LabelKind::CocoaPowder => {
                let milk = self.milk_fat_percent.unwrap_or(0.0).min(fat);
                draft.put(Part::MilkFat, milk, true, "milk fat on the label");
                draft.put(Part::CocoaButter, fat - milk, false, "all other fat of a dark chocolate or cocoa");
                fat - milk
            }
            LabelKind::MilkChocolate | LabelKind::WhiteChocolate => {
                let milk = self.milk_fat_percent.unwrap_or(MILK_FAT_OF_CHOCOLATE).min(fat);
                let why = match self.milk_fat_percent {
                    Some(_) => "milk fat on the label",
                    None => {
                        "assumed: 6 % milk fat, as most milk and white chocolates; the law asks for 3.5 %"
                    }
                };
                draft.put(Part::MilkFat, milk, self.milk_fat_percent.is_some(), why);
                draft.put(Part::CocoaButter, fat - milk, false, "all other fat of a chocolate");
                fat - milk
            }
            LabelKind::Dairy => {
                draft.put(Part::MilkFat, fat, true, "fat on the label");
                0.0
            }
            LabelKind::Coconut => {
                draft.put(Part::Lauric, fat, true, "fat on the label; coconut fat is lauric");
                0.0
            }
            LabelKind::PlantFat | LabelKind::Alcohol if self.milk_fat_percent.is_some() => {
                let milk = self.milk_fat_percent.unwrap_or(0.0).min(fat);
                draft.put(Part::MilkFat, milk, true, "milk fat on the label");
                draft.put(Part::Oil, fat - milk, false, "all other fat");
                0.0
            }
            _ => {
                // Saturated fat of plants that is mostly solid in the kitchen is lauric (coconut, palm kernel).
                let hard = match self.saturates_g {
                    Some(saturates) if saturates > 0.6 * fat => saturates,
                    _ => 0.0,
                };
                draft.put(Part::Lauric, hard, false, "saturates over 60 % of fat: taken as coconut fat");
                draft.put(Part::Oil, fat - hard, hard == 0.0, "fat on the label, taken as liquid oil");
                0.0
            }
        }
    }

    /// Fat-free cocoa and why.
    fn dry_cocoa(&self, cocoa_butter: f64) -> (f64, String) {
        match (self.kind, self.cocoa_percent) {
            (LabelKind::WhiteChocolate, _) => (0.0, String::new()),
            (LabelKind::DarkChocolate | LabelKind::MilkChocolate, Some(cocoa)) => {
                let dry = (cocoa - cocoa_butter).max(0.0);
                (dry, format!("cocoa {cocoa} % less its {cocoa_butter:.1} % of butter"))
            }
            (LabelKind::DarkChocolate, None) => {
                let dry = 100.0 - self.fat_g - self.sugars_g - self.salt_g - DRY_WATER;
                (dry.max(0.0), "what fat and sugars leave; say the cocoa % to be surer".to_owned())
            }
            (LabelKind::MilkChocolate, None) => {
                let protein = self.protein_g;
                let rest = 100.0 - self.fat_g - self.sugars_g - protein - self.salt_g - DRY_WATER - 1.5;
                (rest.clamp(0.0, 20.0), "what fat, sugars and protein leave; say the cocoa %".to_owned())
            }
            (LabelKind::CocoaPowder, _) => {
                let dry = 100.0 - self.fat_g - self.sugars_g - self.salt_g - 4.0;
                (dry.max(0.0), "all but fat, sugar and 4 % moisture".to_owned())
            }
            _ => (0.0, String::new()),
        }
    }

    /// Places the protein; returns the milk protein.
    fn proteins(&self, draft: &mut Draft, cocoa: f64) -> f64 {
        match self.kind {
            LabelKind::Dairy => {
                draft.put(Part::MilkProtein, self.protein_g, true, "protein on the label");
                self.protein_g
            }
            LabelKind::MilkChocolate | LabelKind::WhiteChocolate => {
                let milk = (self.protein_g - PROTEIN_OF_COCOA * cocoa).max(0.0);
                draft.put(Part::MilkProtein, milk, false, "protein less the share of the cocoa");
                milk
            }
            LabelKind::Egg => {
                // Protein of yolk goes with its fat, 15.9 to 26.5 g, and 1.7 g of ash with both (USDA SR24 01125); what
                // carbohydrate there is belongs to its solids too.
                let yolk = (0.61 * self.fat_g).min(self.protein_g);
                let solids = 1.11 * yolk + if yolk > 0.0 { self.carbohydrate_g - self.sugars_g } else { 0.0 };
                draft.put(
                    Part::Yolk,
                    solids,
                    false,
                    "fat-free yolk solids: protein in step with the fat, and ash",
                );
                draft.put(Part::EggWhite, self.protein_g - yolk, false, "protein less that of the yolk");
                0.0
            }
            LabelKind::DarkChocolate | LabelKind::CocoaPowder => 0.0,
            LabelKind::Alcohol if self.milk_fat_percent.is_some() => {
                draft.put(Part::MilkProtein, self.protein_g, true, "protein on the label, of milk");
                self.protein_g
            }
            _ => {
                draft.put(Part::Other, self.protein_g, true, "protein on the label, of plants");
                0.0
            }
        }
    }

    fn sugars(&self, draft: &mut Draft, milk_protein: f64) {
        let sugars = self.sugars_g;
        let milky = milk_protein > 0.0 && self.kind != LabelKind::Alcohol;
        match self.kind {
            _ if milky => {
                let most = LACTOSE_TO_PROTEIN * milk_protein;
                // Milk alone has a little more or less; only a clear surplus is added sugar.
                let lactose =
                    if sugars < 1.4 * most + 1.0 && !self.chocolate() { sugars } else { sugars.min(most) };
                draft.put(Part::Lactose, lactose, false, "milk sugar, in step with milk protein");
                draft.put(Part::Sucrose, sugars - lactose, false, "all other sugar, taken as sucrose");
            }
            LabelKind::Fruit => {
                for (part, share) in [(Part::Glucose, 0.35), (Part::Fructose, 0.40), (Part::Sucrose, 0.25)] {
                    draft.put(part, share * sugars, false, "assumed: fruit sugars as 35 : 40 : 25");
                }
            }
            LabelKind::InvertSyrup => {
                for part in [Part::Glucose, Part::Fructose] {
                    draft.put(part, 0.5 * sugars, false, "assumed: half glucose, half fructose");
                }
            }
            LabelKind::GlucoseSyrup => {
                draft.put(Part::Glucose, 0.55 * sugars, false, "assumed: glucose and maltose as 55 : 45");
                draft.put(Part::Maltose, 0.45 * sugars, false, "assumed: glucose and maltose as 55 : 45");
            }
            LabelKind::PlantDrink => {
                draft.put(Part::Maltose, sugars, false, "taken as maltose, which malted grain brings");
            }
            _ => draft.put(Part::Sucrose, sugars, true, "sugars on the label, taken as sucrose"),
        }
        let starchy = (self.carbohydrate_g - sugars).max(0.0);
        match self.kind {
            LabelKind::DarkChocolate | LabelKind::CocoaPowder | LabelKind::MilkChocolate => {}
            LabelKind::GlucoseSyrup | LabelKind::InvertSyrup | LabelKind::Sugar | LabelKind::Alcohol => {
                draft.put(Part::Dextrin, starchy, false, "carbohydrate that is not sugar: dextrins");
            }
            LabelKind::Starch | LabelKind::PlantDrink | LabelKind::NutPaste => {
                draft.put(Part::Starch, starchy, false, "carbohydrate that is not sugar: starch");
            }
            LabelKind::Egg => {}
            LabelKind::Fruit => fruit_rest(draft, sugars, starchy),
            _ => draft.put(Part::Other, starchy, false, "carbohydrate that is not sugar"),
        }
        if let Some(brix) = self.brix.filter(|_| !self.chocolate()) {
            let dissolved: f64 = draft
                .parts
                .iter()
                .filter(|(part, _)| part.phase() == crate::ingredient::Phase::Sugar || **part == Part::Acid)
                .map(|(_, percent)| percent)
                .sum();
            let beyond = brix - dissolved;
            let sour = self.kind == LabelKind::Fruit && beyond <= MOST_ACID;
            let into = if sour { Part::Acid } else { Part::Dextrin };
            draft.put(into, beyond, false, format!("what {brix} °Bx has beyond the label"));
        }
    }

    fn rest(&self, draft: &mut Draft, cocoa: f64) {
        let fibre = self.fibre_g.unwrap_or(0.0);
        match self.kind {
            LabelKind::DarkChocolate | LabelKind::MilkChocolate | LabelKind::CocoaPowder if cocoa > 0.0 => {}
            LabelKind::Fruit => draft.put(Part::Fibre, fibre, true, "fibre on the label"),
            _ => draft.put(Part::Other, fibre, true, "fibre on the label"),
        }
        let milk_protein = draft.parts.get(&Part::MilkProtein).copied().unwrap_or(0.0);
        draft.put(
            Part::Other,
            ASH_TO_PROTEIN * milk_protein,
            false,
            "milk minerals, a fifth of milk protein",
        );
        let left = 100.0 - draft.total();
        let dry = self.chocolate()
            || matches!(self.kind, LabelKind::NutPaste | LabelKind::PlantFat)
            || self.kind == LabelKind::Sugar && left < 3.0;
        if dry && left > DRY_WATER {
            let most = if self.kind == LabelKind::PlantFat { left } else { DRY_WATER };
            draft.put(Part::Water, most, false, "a thing like this holds about 1 % water");
            draft.put(Part::Other, left - most, false, "what is left: fibre, minerals, lecithin");
        } else {
            draft.put(Part::Water, left, false, "what is left is water");
        }
    }

    /// Brings the sum to exactly 100: what rounding put over is taken from the largest share.
    fn closed(&self, mut draft: Draft) -> Inferred {
        let over = draft.total() - 100.0;
        if over.abs() > 1e-12
            && let Some((part, _)) =
                draft.parts.iter().max_by(|a, b| a.1.total_cmp(b.1)).map(|(p, v)| (*p, *v))
        {
            *draft.parts.entry(part).or_default() -= over;
            if over > 0.05 {
                let percent = draft.parts[&part];
                let why = format!("less {over:.1} points, so that all adds up to 100");
                draft.notes.push(Inference { part, percent, why, said_by_label: false });
            }
        }
        let water = draft.parts.get(&Part::Water).copied().unwrap_or(0.0);
        Inferred {
            fat_in_globules: match self.kind {
                // Butter is fat outside; cream, milk and cheese are fat in globules.
                LabelKind::Dairy => water > 20.0,
                LabelKind::Egg | LabelKind::PlantDrink => true,
                LabelKind::Coconut | LabelKind::Alcohol => water > 20.0,
                _ => false,
            },
            composition_percent: draft.parts,
            inferences: draft.notes,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn label(kind: LabelKind, [fat, carbohydrate, sugars, protein]: [f64; 4]) -> Label {
        Label {
            kind,
            fat_g: fat,
            saturates_g: None,
            carbohydrate_g: carbohydrate,
            sugars_g: sugars,
            fibre_g: None,
            protein_g: protein,
            salt_g: 0.0,
            cocoa_percent: None,
            milk_fat_percent: None,
            alcohol_percent_vol: None,
            brix: None,
        }
    }

    #[test]
    fn a_dark_chocolate_is_split_by_its_cocoa_percentage() {
        let mut bar = label(LabelKind::DarkChocolate, [41.0, 34.0, 29.0, 8.0]);
        bar.cocoa_percent = Some(70.0);
        let inferred = bar.infer().unwrap();
        assert!((inferred.composition_percent[&Part::CocoaButter] - 41.0).abs() < 1e-9);
        assert!((inferred.composition_percent[&Part::Cocoa] - 29.0).abs() < 1e-9);
        assert!((inferred.composition_percent.values().sum::<f64>() - 100.0).abs() < 1e-9);
    }

    #[test]
    fn a_label_per_serving_is_noticed() {
        let faults = label(LabelKind::Dairy, [36.0, 90.0, 3.0, 2.0]).infer().unwrap_err();
        assert!(faults[0].message.contains("adds up to 128.0 g"), "{faults:?}");
        let faults = label(LabelKind::Dairy, [36.0, 3.0, 9.0, 2.0]).infer().unwrap_err();
        assert_eq!(faults[0].field, "sugars_g");
    }

    #[test]
    fn jam_is_not_sour_and_a_banana_is_not_acid() {
        let of =
            |inferred: &Inferred, part: Part| inferred.composition_percent.get(&part).copied().unwrap_or(0.0);
        // Panels of USDA SR24: jams and preserves 19297, bananas 09040, lemon juice 09152 (from memory).
        let jam = label(LabelKind::Fruit, [0.1, 68.9, 48.5, 0.4]).infer().unwrap();
        assert!(of(&jam, Part::Acid) < 1.0 && of(&jam, Part::Pectin) < 1.0 && of(&jam, Part::Dextrin) > 15.0);
        let mut banana = label(LabelKind::Fruit, [0.3, 20.2, 12.2, 1.1]);
        banana.fibre_g = Some(2.6);
        let banana = banana.infer().unwrap();
        assert!(of(&banana, Part::Acid) < 1.0, "{banana:?}");
        assert!((of(&banana, Part::Water) - 74.9).abs() < 1.5, "{}", of(&banana, Part::Water));
        let lemon = label(LabelKind::Fruit, [0.2, 6.9, 2.5, 0.4]).infer().unwrap();
        assert!(of(&lemon, Part::Acid) > 4.0, "{lemon:?}");
    }

    #[test]
    fn a_yolk_is_half_water() {
        // USDA SR24 01125: water 52.3, fat 26.5, carbohydrate 3.6, sugars 0.6, protein 15.9; 01123 whole egg: 75.8.
        let of =
            |panel: [f64; 4]| label(LabelKind::Egg, panel).infer().unwrap().composition_percent[&Part::Water];
        assert!((of([26.5, 3.6, 0.6, 15.9]) - 52.3).abs() < 1.0, "{}", of([26.5, 3.6, 0.6, 15.9]));
        assert!((of([9.5, 0.7, 0.4, 12.6]) - 75.8).abs() < 1.5, "{}", of([9.5, 0.7, 0.4, 12.6]));
        assert!((of([0.2, 0.7, 0.7, 10.9]) - 87.6).abs() < 1.5, "{}", of([0.2, 0.7, 0.7, 10.9]));
    }

    #[test]
    fn a_spirit_of_forty_per_cent_is_a_third_alcohol_by_weight() {
        // 33.3 % by weight: OIML R22, from memory.
        let mut rum = label(LabelKind::Alcohol, [0.0, 0.0, 0.0, 0.0]);
        rum.alcohol_percent_vol = Some(40.0);
        let alcohol = rum.infer().unwrap().composition_percent[&Part::Alcohol];
        assert!((alcohol - 33.3).abs() < 0.3, "{alcohol}");
    }
}
