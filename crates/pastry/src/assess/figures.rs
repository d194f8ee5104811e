//! Numbers a cook looks at besides the verdict: the same few for all, and those of the family, each with
//! its base and what is usual.

use crate::assess::baume::baume;
use crate::formula::{Family, Figure, WeighedLine, flat};
use crate::ingredient::composition::Part;
use crate::ingredient::{Group, Role};
use crate::job::duty::Estimate;
use crate::number::{digits, limit, two_digits};
use crate::rheology::Structure;
use crate::rheology::consistency::{Banded, Contributions};
use crate::rheology::kernel::Prepared;
use crate::rheology::smooth::logistic;
use serde::{Deserialize, Serialize};
use std::collections::HashMap;
use std::sync::LazyLock;
use utoipa::ToSchema;

/// Numbers that do not hang on the job, each with its 90 % band.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Figures {
    /// Density, g/ml. Band ± 2 %: component volumes against published cup weights.
    pub density_g_per_ml: Estimate,
    /// Volume of the batch with its air, ml.
    pub volume_ml: f64,
    /// Dissolved solids of the watery phase, °Bx. Band from ± 3 % of sugar and water in the
    /// ingredients (assumed).
    pub brix: Estimate,
    /// Water activity; none when there is too little free water. Band ± 0.015.
    pub water_activity: Option<Estimate>,
    /// Split index at the working temperature, 0 to 1; too much water for the fat in buttercreams. Band
    /// from ± 0.02 in the fat share of the fluid (assumed).
    pub split: Estimate,
    /// Sweetness, per cent of total as sucrose.
    pub sweetness_percent: f64,
    /// Sucrose that does not dissolve, per cent of total.
    pub undissolved_percent: f64,
    /// Solid fat at the working temperature, per cent of all fat.
    pub solid_fat_percent: f64,
    /// Crowding index; 1 is full.
    pub crowding: f64,
    /// Alcohol by volume, per cent.
    pub alcohol_by_volume_percent: f64,
    /// Which phase is outside.
    pub structure: Structure,
    /// Where the yield stress comes from, Pa.
    pub contributions_pa: Contributions,
}

/// A number of the family.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct KeyFigure {
    /// Which.
    pub key: Figure,
    /// Its name: "gelatin on water".
    pub name: String,
    /// The number as it is read: "1.6 %".
    pub text: String,
    /// What it is a share of, or how it is counted.
    pub base: String,
    /// The number.
    pub value: f64,
    /// What is usual for the family, as it is read: "1 to 1.4"; none when nothing is.
    pub usual: Option<String>,
    /// Whether the number is outside that.
    pub outside_usual: bool,
}

/// The numbers that do not hang on the job.
pub fn figures(prepared: &Prepared, here: &Banded, batch_g: f64) -> Figures {
    let spread = |value: f64, by: f64| Estimate {
        value: digits(value),
        low: digits((value - by).max(0.0)),
        high: digits(value + by),
    };
    let density = 1e-3 * prepared.density;
    let brix = prepared.serum.brix;
    // d brix for ± 3 % of the solids to water ratio.
    let brix_by = 0.03 * brix * (1.0 - brix / 100.0);
    let split = here.middle.split;
    let (centre, width) = prepared.inside_out.split_edge;
    let place = (prepared.inside_out.fat_of_room - centre) / width;
    let scale = split / logistic(place).max(1e-12);
    let nudge = 0.02 / width;
    let undissolved = 100.0 * prepared.serum.undissolved;
    Figures {
        density_g_per_ml: spread(density, 0.02 * density),
        volume_ml: digits(batch_g / density),
        brix: spread(brix, brix_by),
        water_activity: prepared.serum.water_activity.map(|aw| Estimate {
            value: digits(aw),
            low: digits(aw - 0.015),
            high: digits((aw + 0.015).min(1.0)),
        }),
        split: Estimate {
            value: digits(split),
            low: digits(scale * logistic(place - nudge)),
            high: digits((scale * logistic(place + nudge)).min(1.0)),
        },
        sweetness_percent: digits(prepared.serum.sweetness_percent),
        // The smooth minimum leaves a trace.
        undissolved_percent: if undissolved < 0.2 { 0.0 } else { digits(undissolved) },
        solid_fat_percent: digits(100.0 * here.middle.solid_fat),
        crowding: digits(prepared.crowding),
        alcohol_by_volume_percent: digits(prepared.alcohol_by_volume_percent),
        structure: here.middle.structure(),
        contributions_pa: here.middle.contributions,
    }
}

#[derive(Deserialize)]
struct UsualRow {
    family: Family,
    figure: Figure,
    low: f64,
    high: f64,
}

static USUAL: LazyLock<HashMap<(Family, Figure), [f64; 2]>> = LazyLock::new(|| {
    csv::Reader::from_reader(include_str!("../../data/usual.csv").as_bytes())
        .deserialize()
        .map(|row| {
            let row: UsualRow = row.expect("the table of usual numbers is well formed");
            ((row.family, row.figure), [row.low, row.high])
        })
        .collect()
});

/// Sums over the lines that the numbers are made of, g.
struct Sums {
    total: f64,
    chocolate: f64,
    dairy: f64,
    dairy_fat: f64,
    butter: f64,
    sugar: f64,
    white: f64,
    fruit: f64,
    starch: f64,
    liquid: f64,
    yolk: f64,
    water: f64,
    /// Gelatin as it is weighed, in 200 Bloom equivalents: m √(B/200).
    gelatin: f64,
    dry: f64,
}

/// Fat of butter and the like: mostly fat, and not in globules.
fn is_butter(line: &WeighedLine) -> bool {
    let phases = line.ingredient.composition.phases();
    phases.fat > 0.6
        && line.ingredient.globule < 0.5
        && (line.ingredient.is(Role::Dairy) || line.ingredient.group == Group::Fat)
}

impl Sums {
    fn of(lines: &[WeighedLine]) -> Self {
        let sum = |share: &dyn Fn(&WeighedLine) -> f64| -> f64 {
            lines.iter().map(|line| line.mass.grams() * share(line)).sum()
        };
        let yes = |what: bool| f64::from(u8::from(what));
        let group = |group: Group| sum(&move |l| yes(l.ingredient.group == group));
        let role = |role: Role| sum(&move |l| yes(l.ingredient.is(role)));
        let wet_dairy =
            |l: &WeighedLine| l.ingredient.is(Role::Dairy) && l.ingredient.composition.get(Part::Water) > 0.2;
        let liquid = |l: &WeighedLine| {
            (l.ingredient.is(Role::Dairy) || matches!(l.ingredient.group, Group::Liquid | Group::Fruit))
                && l.ingredient.composition.get(Part::Water) > 0.25
        };
        Sums {
            total: sum(&|_| 1.0),
            chocolate: role(Role::Chocolate),
            dairy: sum(&|l| yes(wet_dairy(l))),
            dairy_fat: sum(&|l| yes(wet_dairy(l)) * l.ingredient.composition.phases().fat),
            butter: sum(&|l| yes(is_butter(l))),
            sugar: group(Group::Sugar),
            // A fresh white is 10.5 % egg-white solids; powder counts as what it makes.
            white: sum(&|l| l.ingredient.composition.get(Part::EggWhite) / 0.105),
            fruit: group(Group::Fruit),
            starch: role(Role::Starch),
            liquid: sum(&|l| yes(liquid(l))),
            // A yolk is 24 % fat-free yolk solids.
            yolk: sum(&|l| l.ingredient.composition.get(Part::Yolk) / 0.24),
            water: sum(&|l| l.ingredient.composition.get(Part::Water)),
            gelatin: sum(&|l| {
                l.ingredient.composition.get(Part::Gelatin) / 0.87 * (l.ingredient.bloom / 200.0).sqrt()
            }),
            dry: sum(&|l| 1.0 - l.ingredient.composition.phases().water),
        }
    }

    /// What butter is counted on.
    fn butter_base(&self, family: Family) -> (f64, &'static str) {
        match family {
            Family::SwissButtercream | Family::ItalianButtercream => (self.white, "whites"),
            Family::FrenchButtercream => (self.yolk, "yolks"),
            Family::GanacheButtercream => (self.total - self.butter, "ganache"),
            Family::Curd => (self.fruit, "juice"),
            _ => (self.total - self.butter, "pastry cream"),
        }
    }
}

/// The numbers of the family, in the order a cook of it looks at them; those without a whole to be a
/// share of are left out.
pub fn key_figures(
    lines: &[WeighedLine],
    family: Family,
    overrun_percent: f64,
    prepared: &Prepared,
    here: &Banded,
) -> Vec<KeyFigure> {
    let sums = Sums::of(&flat(lines));
    let share = |part: f64, whole: f64| (whole > 1e-9).then(|| 100.0 * part / whole);
    family
        .traits()
        .looks_at
        .iter()
        .filter_map(|key| {
            let percent = |value: f64, decimals: usize| format!("{value:.decimals$} %");
            let (name, value, text, base): (String, f64, String, String) = match key {
                Figure::ChocolateToCream => {
                    let value =
                        (sums.chocolate > 0.0 && sums.dairy > 0.0).then(|| sums.chocolate / sums.dairy)?;
                    ("chocolate to cream".into(), value, format!("{value:.2} : 1"), "by weight".into())
                }
                Figure::SugarToButter => {
                    let value = (sums.butter > 0.0).then(|| sums.sugar / sums.butter)?;
                    ("sugar to butter".into(), value, format!("{value:.2} : 1"), "by weight".into())
                }
                Figure::ButterToBase => {
                    let (whole, word) = sums.butter_base(family);
                    let value = (whole > 1e-9).then(|| sums.butter / whole)?;
                    (format!("butter to {word}"), value, format!("{value:.2} : 1"), "by weight".into())
                }
                Figure::WaterInFat => {
                    let value = 100.0 * prepared.inside_out.fat_of_fluid;
                    ("water in it".into(), value, percent(value, 0), "of fat and water, by volume".into())
                }
                Figure::GelatinOnWater => {
                    let value = share(sums.gelatin, sums.water).filter(|value| *value > 0.0)?;
                    ("gelatin on water".into(), value, percent(value, 2), "as 200 Bloom".into())
                }
                Figure::GelatinOnTotal => {
                    let value = share(sums.gelatin, sums.total).filter(|value| *value > 0.0)?;
                    ("gelatin on all".into(), value, percent(value, 2), "as 200 Bloom".into())
                }
                Figure::StarchOnLiquid => {
                    let value = share(sums.starch, sums.liquid)?;
                    ("starch on liquid".into(), value, percent(value, 1), "of milk, cream, juice".into())
                }
                Figure::YolkOnLiquid => {
                    let value = share(sums.yolk, sums.liquid)?;
                    ("yolk on liquid".into(), value, percent(value, 0), "of milk and cream".into())
                }
                Figure::Brix => {
                    let value = prepared.serum.brix;
                    ("syrup".into(), value, format!("{value:.0} °Bx"), "dissolved solids".into())
                }
                Figure::Baume => {
                    let value = baume(prepared.serum.brix);
                    ("Baumé".into(), value, format!("{value:.0} °Bé"), "at 20 °C".into())
                }
                Figure::Overrun => {
                    let value = overrun_percent;
                    ("air".into(), value, format!("+{value:.0} %"), "on volume before".into())
                }
                Figure::FatOfCream => {
                    let value = share(sums.dairy_fat, sums.dairy)?;
                    ("fat of the cream".into(), value, percent(value, 0), "of all dairy in it".into())
                }
                Figure::SugarOnCream => {
                    let value = share(sums.sugar, sums.dairy)?;
                    ("sugar on cream".into(), value, percent(value, 0), "added, by weight".into())
                }
                Figure::Sweetness => {
                    let value = prepared.serum.sweetness_percent;
                    ("sweetness".into(), value, percent(value, 0), "as sucrose".into())
                }
                Figure::WaterActivity => {
                    let value = prepared.serum.water_activity?;
                    ("water activity".into(), value, format!("{value:.2}"), "± 0.02".into())
                }
                Figure::Density => {
                    let value = 1e-3 * prepared.density;
                    ("density".into(), value, format!("{value:.2} g/ml"), "± 2 %".into())
                }
                Figure::Volume => {
                    let value = sums.total / prepared.density * 1e3;
                    let text = match value {
                        ml if ml >= 1000.0 => format!("{:.2} l", 1e-3 * ml),
                        ml => format!("{ml:.0} ml"),
                    };
                    ("volume".into(), value, text, "with its air".into())
                }
                Figure::Split => {
                    let value = here.middle.split;
                    ("split index".into(), value, format!("{value:.2}"), "0 safe, 1 splits".into())
                }
                Figure::AlcoholByVolume => {
                    let value = prepared.alcohol_by_volume_percent;
                    ("alcohol".into(), value, percent(value, 1), "by volume".into())
                }
                Figure::DryMatter => {
                    let value = share(sums.dry, sums.total)?;
                    ("dry matter".into(), value, percent(value, 0), "of all".into())
                }
            };
            let usual = USUAL.get(&(family, *key));
            let outside = usual.is_some_and(|[low, high]| {
                // A number at the edge reads as being on it.
                let slack = 0.005 * (high - low);
                value < low - slack || value > high + slack
            });
            Some(KeyFigure {
                key: *key,
                name,
                text,
                base,
                value: digits(value),
                usual: usual.map(|[low, high]| match low {
                    0.0 => format!("at most {}", limit(*high)),
                    low => format!("{} to {}", short(*low), short(*high)),
                }),
                outside_usual: outside,
            })
        })
        .collect()
}

fn short(value: f64) -> String {
    if value < 1.0 { two_digits(value).trim_end_matches('0').to_owned() } else { limit(value) }
}
