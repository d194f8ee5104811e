//! Why it comes out so: the terms of a prediction in plain words, what each line does to it, and where
//! its band comes from.

use crate::formula::{Family, Mixture, System, WeighedLine};
use crate::job::duty::MapAxis;
use crate::number::two_digits;
use crate::rheology::consistency::{Banded, Consistency, History, Options, Structure};
use crate::rheology::{Predictor, Prepared};
use serde::Serialize;
use utoipa::ToSchema;

/// One term of the yield stress.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Term {
    /// Stable key: fat, crowd, gel, agar, starch, foam, gum, body.
    pub key: &'static str,
    /// In kitchen words.
    pub name: &'static str,
    /// What it brings, Pa.
    pub pascal: f64,
    /// Its share, per cent of the yield stress.
    pub of_yield_percent: f64,
    /// Where that comes from.
    pub sentence: String,
}

/// What a small change does.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Lever {
    /// The change: "10 % more Cream 36 %, 9 g".
    pub change: String,
    /// Line it is about; none for a temperature.
    pub line: Option<usize>,
    /// How much stiffer, or thicker for what runs, per cent; below 0 looser.
    pub stiffer_percent: f64,
    /// The same in words.
    pub effect: String,
}

/// Why it comes out so.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Why {
    /// How it is built, in one sentence.
    pub structure: String,
    /// Terms of the yield stress, largest first.
    pub terms: Vec<Term>,
    /// What a tenth more of each line and one degree would do.
    pub levers: Vec<Lever>,
    /// Where the band comes from.
    pub band: Vec<String>,
}

/// How much of a line is added to ask what it does.
const MORE: f64 = 0.10;

fn effect(stiffer_percent: f64, axis: MapAxis) -> String {
    let (more, less) = match axis {
        MapAxis::YieldStressPa => ("stiffer", "looser"),
        MapAxis::ViscosityPaS => ("thicker", "thinner"),
    };
    match stiffer_percent {
        p if p.abs() < 1.0 => "hardly changes it".to_owned(),
        // Percentages above a doubling are read better as times.
        p if p > 100.0 => format!(
            "{} times as {}",
            two_digits(1.0 + p / 100.0),
            if more == "stiffer" { "stiff" } else { "thick" }
        ),
        p if p > 0.0 => format!("{} % {more}", two_digits(p)),
        p => format!("{} % {less}", two_digits(-p)),
    }
}

/// Works it out.
///
/// # Arguments
/// * `here`: the prediction at `t_c`, °C.
pub fn why(
    lines: &[WeighedLine],
    family: Family,
    options: &Options,
    predictor: &Predictor,
    here: &Banded,
    (t_c, history, axis): (f64, History, MapAxis),
) -> Why {
    let prepared = &predictor.base;
    Why {
        structure: structure(family, prepared, &here.middle),
        terms: terms(prepared, &here.middle, t_c, options, history),
        levers: levers(lines, family.traits().system, options, &here.middle, prepared, (t_c, history, axis)),
        band: band(predictor, t_c, history, axis),
    }
}

fn structure(family: Family, prepared: &Prepared, point: &Consistency) -> String {
    let air = match prepared.air {
        a if a > 0.02 => {
            format!(" Air fills {:.0} % of its volume and thins every network in it.", 100.0 * a)
        }
        _ => String::new(),
    };
    let base = match (point.structure(), family.traits().system) {
        (_, System::Syrup) if prepared.particles < 0.02 => {
            "A clear syrup: sugar dissolved in water.".to_owned()
        }
        (Structure::FatContinuous, _) => {
            "Fat is outside, with drops of syrup and solids in it, as in butter.".to_owned()
        }
        (Structure::Bicontinuous, _) => {
            "Fat and syrup both run through it: between a ganache and a butter.".to_owned()
        }
        (Structure::WaterContinuous, _) => format!(
            "Syrup is outside, with droplets and swollen solids in it; they take {:.0} % of the room there is.",
            100.0 * prepared.crowding
        ),
    };
    format!("{base}{air}")
}

fn terms(p: &Prepared, point: &Consistency, t_c: f64, options: &Options, history: History) -> Vec<Term> {
    let c = &point.contributions;
    let total = point.yield_stress_pa;
    let linked = if point.structure() == Structure::FatContinuous {
        "its crystals touch everywhere".to_owned()
    } else {
        format!("crowding links {:.0} % of its droplets", 100.0 * p.linking)
    };
    let stirred = match history {
        History::Worked => " Stirring has broken part of the network.",
        _ => "",
    };
    let fresh = if history == History::Fresh { " Fresh, melted fat has not all set yet." } else { "" };
    let hours = options.hours.unwrap_or(17.0);
    let all = [
        (
            "fat",
            "set fat",
            c.fat,
            format!(
                "At {t_c:.1} °C {:.0} % of its fat is solid, and {linked}.{stirred}{fresh}",
                100.0 * point.solid_fat
            ),
        ),
        (
            "crowd",
            "crowding",
            c.crowd,
            format!(
                "Droplets and swollen solids take {:.0} % of the room that syrup leaves.",
                100.0 * p.crowding
            ),
        ),
        (
            "gel",
            "gelatin",
            c.gel,
            format!(
                "{:.1} % gelatin on the syrup, set {hours:.0} h; it melts near 30 °C.",
                p.serum.gelatin_percent
            ),
        ),
        ("agar", "agar", c.agar, "Agar has set below 35 °C and holds to 82.".to_owned()),
        (
            "starch",
            "starch",
            c.starch,
            format!("{:.1} % cooked starch on water.", p.networks.starch_on_water_percent),
        ),
        (
            "foam",
            "foam",
            c.foam,
            format!("Bubbles fill {:.0} % of it and press on each other.", 100.0 * p.air),
        ),
        ("gum", "gums", c.gum, "Gums thicken the syrup.".to_owned()),
        ("body", "ready-made body", c.body, "Jam, curd or cheese bring a set of their own.".to_owned()),
    ];
    let mut terms: Vec<Term> = all
        .into_iter()
        .filter(|(_, _, pascal, _)| *pascal > 0.002 * total)
        .map(|(key, name, pascal, sentence)| Term {
            key,
            name,
            pascal,
            of_yield_percent: 100.0 * pascal / total,
            sentence,
        })
        .collect();
    terms.sort_by(|a, b| b.pascal.total_cmp(&a.pascal));
    terms
}

fn levers(
    lines: &[WeighedLine],
    system: System,
    options: &Options,
    here: &Consistency,
    prepared: &Prepared,
    (t_c, history, axis): (f64, History, MapAxis),
) -> Vec<Lever> {
    let now = axis.of(here);
    let lever = |change: String, line: Option<usize>, then: f64| {
        let stiffer_percent = 100.0 * (then / now - 1.0);
        Lever { change, line, stiffer_percent, effect: effect(stiffer_percent, axis) }
    };
    let mut levers: Vec<Lever> = lines
        .iter()
        .enumerate()
        .filter(|(_, line)| line.mass.grams() > 0.0)
        .map(|(at, line)| {
            let mixture = Mixture::new(lines.iter().enumerate().map(|(k, other)| {
                let times = if k == at { 1.0 + MORE } else { 1.0 };
                (other.ingredient.as_ref(), times * other.mass.grams())
            }));
            let then = axis.of(&Prepared::new(&mixture, system, options).at(t_c, history));
            let grams = MORE * line.mass.grams();
            lever(format!("{} g more {}", two_digits(grams), line.ingredient.name), Some(at), then)
        })
        .collect();
    levers.sort_by(|a, b| b.stiffer_percent.abs().total_cmp(&a.stiffer_percent.abs()));
    levers.push(lever("one degree warmer".to_owned(), None, axis.of(&prepared.at(t_c + 1.0, history))));
    levers
}

fn band(predictor: &Predictor, t_c: f64, history: History, axis: MapAxis) -> Vec<String> {
    let of = |term: [f64; 2]| match axis {
        MapAxis::YieldStressPa => term[0].abs(),
        MapAxis::ViscosityPaS => term[1].abs(),
    };
    let terms = predictor.band_terms(t_c, history);
    let times = |sigma: f64| two_digits(sigma.exp());
    let mut said = vec![format!(
        "The model itself: a factor of {} either way, two times in three.",
        times(of(terms.base))
    )];
    for (what, term) in [
        ("A thermometer that is one degree off", terms.by_degree),
        ("How far cocoa and milk protein swell", terms.by_swelling),
        ("How far cooked yolk swells", terms.by_yolk),
        ("How far it stands from what was ever checked", terms.by_distance),
    ] {
        if of(term) > 0.02 {
            said.push(format!("{what}: a factor of {}.", times(of(term))));
        }
    }
    said
}
