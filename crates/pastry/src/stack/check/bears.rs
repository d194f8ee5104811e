//! Whether what lies under something bears it: fillings and their dams, moulded pieces, dowels.
//!
//! Squeeze film of a yield stress fluid between plates: F = 2 π τ R³/(3 h), so that τ = 3 h P/(2 R) just bears a
//! pressure P (Covey & Stanmore, J. Non-Newtonian Fluid Mech. 8, 1981; from memory). The same balance over a ring
//! of width w, dp/dr = 2 τ/h, lets it hold p = 2 τ w/h at its inner edge. Both with safety 1.5.

use crate::job::duty::{Judged, Outcome};
use crate::job::jobs::{FillGeometry, SetGeometry, SpoonGeometry};
use crate::job::kind::Job;
use crate::job::physics::slump::gives_way_below;
use crate::number::{limit, two_digits};
use crate::stack::address::At;
use crate::stack::amount::load_above;
use crate::stack::check::dowels::dowels;
use crate::stack::check::finding::{Finding, FindingCode, Mend, Said, Standing};
use crate::stack::check::scene::{Scene, mm, weight};
use crate::stack::cream::Cream;
use crate::stack::document::{FillingTask, Layer};
use crate::stack::place::{PlaceKind, Spot, Stuff};
use crate::stack::shape::solid::squeeze_radius;
use crate::units::{GRAVITY, Mass, Stress};
use std::f64::consts::PI;

/// How much stronger than needed a filling or a dam must be.
pub const SAFETY: f64 = 1.5;
/// Thinnest filling proposed, mm.
const THINNEST: f64 = 3.0;
/// Width of the dam proposed, mm (common practice: 8 to 12).
const DAM: f64 = 12.0;

/// The job a filling is given by the cake, and the pressure on it, Pa.
pub fn fill_job(scene: &Scene, at: usize) -> (Job, f64, f64) {
    let spot = &scene.layout.spots[at];
    let load = load_above(scene.document, scene.layout, scene.amounts, at);
    let pressure = 1e-3 * load * GRAVITY / (1e-4 * spot.outline.area()).max(1e-9);
    let radius = squeeze_radius(&spot.outline);
    // A job counts its load over a circle: the same pressure over the circle of that radius.
    let round_load = 1e3 * pressure * PI * (1e-2 * radius).powi(2) / GRAVITY;
    let job = Job::Fill(FillGeometry {
        thickness_mm: mm(spot.thickness),
        diameter_mm: mm(2.0 * radius),
        load_above_g: Mass::from_grams(round_load.min(Mass::MAX)),
        crumb_strength_pa: Stress::from_pascals(crumb(scene, at)),
    });
    (job, load, pressure)
}

/// The weakest crumb beside a filling, Pa.
fn crumb(scene: &Scene, at: usize) -> f64 {
    let tier = scene.layout.spots[at].tier;
    scene
        .layout
        .spots
        .iter()
        .filter(|spot| spot.tier == tier && spot.kind == PlaceKind::Sponge)
        .filter_map(|spot| match spot.stuff {
            Stuff::Bake(key) => scene.makings.baked(key).map(|baked| baked.crumb_strength()),
            _ => None,
        })
        .fold(f64::INFINITY, f64::min)
        .clamp(1.0, 1e5)
}

/// Everything that bears, or does not.
pub fn bears(scene: &Scene) -> Vec<Finding> {
    let mut found = Vec::new();
    for (at, spot) in scene.layout.spots.iter().enumerate() {
        if spot.kind != PlaceKind::Filling || spot.volume <= 0.0 {
            continue;
        }
        let Some(Layer::Filling { task, dam, .. }) = spot.layer(scene.document) else { continue };
        let Some((key, cream)) = scene.cream_of(spot) else { continue };
        let stands = scene.document.tiers[spot.tier].body.stands();
        found.extend(match (task, dam) {
            (FillingTask::Fill, None) if stands => filling(scene, at, key, cream),
            (FillingTask::Fill, Some(_)) if stands => dammed(scene, at, cream),
            (FillingTask::Set, _) => set(scene, at, key, cream),
            (FillingTask::Spoon, _) => spooned(scene, at, key, cream),
            _ => None,
        });
    }
    for tier in 0..scene.layout.tiers.len().saturating_sub(1) {
        found.extend(dowels(scene, tier, &found));
    }
    found
}

/// A filling between sponges.
fn filling(scene: &Scene, at: usize, key: &str, cream: &Cream) -> Option<Finding> {
    let spot = &scene.layout.spots[at];
    let (job, load, _) = fill_job(scene, at);
    if load <= 0.0 {
        return None;
    }
    let (t_c, when) = scene.warmest();
    let judged = cream.judge(&job, t_c, cream.standing_history());
    let [needed, tear] = judged.window;
    let (tau, above) = (judged.measured.value, weight(load));
    let name = cream.name();
    let bench = || scene.bench(key, cream, job, t_c);
    if tau < needed {
        let sentence = Said::with(
            format!("{name} gives way under {above} at {t_c:.1} °C {when}"),
            format!("{} Pa, and it takes {}.", two_digits(tau), two_digits(needed)),
        );
        let mend =
            cooler(scene, cream, &job).or_else(|| thinner(spot, tau / needed)).or_else(|| dam_for(scene, at));
        let finding = Finding::new(FindingCode::FillingGivesWay, spot.address(), Standing::Trouble, sentence);
        return Some(finding.of(tau, needed, "Pa").mended(mend).on_the_bench(bench()));
    }
    let spread = cream.judge(&job, cream.worked_c(), cream.document.history());
    if spread.measured.value > tear {
        let sentence = format!(
            "{name} is {} Pa at {:.1} °C where you spread it; crumb tears at {}.",
            two_digits(spread.measured.value),
            cream.worked_c(),
            two_digits(tear)
        );
        let finding = Finding::new(FindingCode::FillingTears, spot.address(), Standing::Care, sentence);
        return Some(finding.of(spread.measured.value, tear, "Pa").on_the_bench(scene.bench(
            key,
            cream,
            job,
            cream.worked_c(),
        )));
    }
    let (standing, words) = if judged.measured.low < needed {
        (Standing::Care, "only just bears")
    } else {
        (Standing::Holds, "bears")
    };
    let sentence = Said::with(
        format!("{name} {words} {above} at {t_c:.1} °C"),
        format!("{} Pa, and it takes {}.", two_digits(tau), two_digits(needed)),
    );
    Some(
        Finding::new(FindingCode::FillingBears, spot.address(), standing, sentence)
            .of(tau, needed, "Pa")
            .on_the_bench(bench().filter(|_| standing != Standing::Holds)),
    )
}

/// Eating or carrying it cooler, for what the cold holds: the warmest at which it still does, to half a degree.
fn cooler(scene: &Scene, cream: &Cream, job: &Job) -> Option<Mend> {
    let (t_c, when) = scene.warmest();
    if !cream.is_cold_set() && when != "on the way" {
        return None;
    }
    let warmest = warmest_for(cream, job, t_c)?;
    let (path, words) = if when == "on the way" { ("transport_c", "Carry") } else { ("serve_c", "Serve") };
    Some(Mend::set(format!("{words} it at {} °C", limit(warmest)), path, warmest))
}

/// The warmest temperature, °C, to half a degree, at which it does a job, from 4 °C up to `below`.
pub fn warmest_for(cream: &Cream, job: &Job, below: f64) -> Option<f64> {
    let does = |t_c: f64| {
        let judged = cream.judge(job, t_c, cream.standing_history());
        judged.outcome != Outcome::TooLoose && judged.outcome != Outcome::NoWindow
    };
    if !does(4.0) {
        return None;
    }
    let (mut good, mut bad) = (8i32, (2.0 * below).ceil() as i32);
    while bad - good > 1 {
        let middle = (good + bad) / 2;
        if does(0.5 * f64::from(middle)) { good = middle } else { bad = middle }
    }
    Some(0.5 * f64::from(good))
}

/// The same filling so thin that it bears: what is needed goes with the thickness.
fn thinner(spot: &Spot, share: f64) -> Option<Mend> {
    let thin = (10.0 * spot.thickness * share).floor();
    (thin >= THINNEST)
        .then(|| Mend::set(format!("Set it to {} mm", limit(thin)), spot.field("thickness_mm"), thin))
}

/// What a dam of `width` cm must be, Pa, to hold a filling of `height` cm under `pressure` Pa.
pub fn dam_needs(pressure: f64, height: f64, width: f64) -> f64 {
    SAFETY * pressure * height / (2.0 * width)
}

/// A dam of something firm enough that the cake already has.
fn dam_for(scene: &Scene, at: usize) -> Option<Mend> {
    let spot = &scene.layout.spots[at];
    let (_, _, pressure) = fill_job(scene, at);
    let (t_c, _) = scene.warmest();
    let needed = dam_needs(pressure, spot.thickness, 0.1 * DAM);
    let (key, cream, _) = scene
        .layout
        .spots
        .iter()
        .filter(|other| {
            matches!(other.kind, PlaceKind::Coat | PlaceKind::CrumbCoat | PlaceKind::Filling | PlaceKind::Dam)
        })
        .filter_map(|other| scene.cream_of(other))
        .map(|(key, cream)| (key, cream, cream.standing(t_c).middle.yield_stress_pa))
        .filter(|(.., tau)| *tau >= needed)
        .max_by(|a, b| a.2.total_cmp(&b.2))?;
    let value = serde_json::json!({ "component": key, "width_mm": DAM });
    Some(Mend::set(format!("Put a dam of {} round it", cream.name()), spot.field("dam"), value))
}

/// A filling inside a ring of firmer cream.
fn dammed(scene: &Scene, at: usize, inside: &Cream) -> Option<Finding> {
    let filling = &scene.layout.spots[at];
    let (_, dam) = scene.spot(filling.tier, At::Dam(filling.at.layer()?))?;
    let (key, cream) = scene.cream_of(dam)?;
    let (job, load, pressure) = fill_job(scene, at);
    let Some(Layer::Filling { dam: Some(ring), .. }) = filling.layer(scene.document) else { return None };
    let width = 0.1 * ring.width_mm;
    if load <= 0.0 || !width.is_finite() || width <= 0.0 {
        return None;
    }
    let (t_c, when) = scene.warmest();
    let needed = dam_needs(pressure, filling.thickness, width);
    let strength = cream.standing(t_c);
    let tau = strength.middle.yield_stress_pa;
    let low = tau * (-1.64 * strength.sigma_yield).exp();
    let above = weight(load);
    if tau < needed {
        let wide = (10.0 * width * needed / tau).ceil();
        let mend = (wide <= 25.0)
            .then(|| Mend::set(format!("Make the dam {} mm wide", limit(wide)), dam.field("width_mm"), wide));
        let sentence = Said::with(
            format!(
                "The dam of {} lets {} out under {above} at {t_c:.1} °C {when}",
                cream.name(),
                inside.name()
            ),
            format!("{} Pa, and it takes {}.", two_digits(tau), two_digits(needed)),
        );
        return Some(
            Finding::new(FindingCode::DamGivesWay, dam.address(), Standing::Trouble, sentence)
                .of(tau, needed, "Pa")
                .mended(mend)
                .on_the_bench(scene.bench(key, cream, job, t_c)),
        );
    }
    let (standing, words) =
        if low < needed { (Standing::Care, "only just holds") } else { (Standing::Holds, "holds") };
    let sentence = Said::with(
        format!("{} {words}", inside.name()),
        format!(
            "{above} above, and its dam takes it with {} Pa where {} are needed.",
            two_digits(tau),
            two_digits(needed)
        ),
    );
    Some(Finding::new(FindingCode::DamHolds, dam.address(), standing, sentence).of(tau, needed, "Pa"))
}

/// Something turned out that must stand.
fn set(scene: &Scene, at: usize, key: &str, cream: &Cream) -> Option<Finding> {
    let spot = &scene.layout.spots[at];
    let height = mm(scene.layout.tiers[spot.tier].inner);
    let grade = match cream.document.work.job {
        Job::Set(own) => own.grade,
        _ => SetGeometry::default().grade,
    };
    let job = Job::Set(SetGeometry { height_mm: height, grade });
    let (t_c, when) = scene.warmest();
    let judged = cream.judge(&job, t_c, cream.standing_history());
    let bench = || scene.bench(key, cream, job, t_c);
    let (sag, most) = (judged.measured.value, judged.window[1]);
    Some(match judged.outcome {
        // Soft enough to give way under itself before it sags too far.
        Outcome::TooLoose if sag <= most => {
            let needed = gives_way_below(cream.predictor.base.density, 1e-3 * height.millimetres());
            let tau = cream.standing(t_c).middle.yield_stress_pa;
            let sentence = Said::with(
                format!("{} gives way under itself at {t_c:.1} °C {when}", cream.name()),
                format!(
                    "{} Pa, and {} mm take {}.",
                    two_digits(tau),
                    limit(height.millimetres().round()),
                    two_digits(needed)
                ),
            );
            Finding::new(FindingCode::MouldGivesWay, spot.address(), Standing::Trouble, sentence)
                .of(tau, needed, "Pa")
                .mended(cooler(scene, cream, &job))
                .on_the_bench(bench())
        }
        Outcome::TooLoose => {
            let sentence = format!(
                "{} sags {} % at {t_c:.1} °C {when}; {} % is the most to {}.",
                cream.name(),
                two_digits(sag.min(100.0)),
                two_digits(most),
                grade.verb()
            );
            Finding::new(FindingCode::MouldSags, spot.address(), Standing::Trouble, sentence)
                .of(sag, most, "%")
                .mended(cooler(scene, cream, &job))
                .on_the_bench(bench())
        }
        Outcome::TooStiff => {
            let sentence =
                Said::with(format!("{} is rubbery at {t_c:.1} °C", cream.name()), "less of what sets it.");
            Finding::new(FindingCode::MouldRubbery, spot.address(), Standing::Care, sentence)
                .of(sag, most, "%")
                .on_the_bench(bench())
        }
        _ => {
            let standing = sure(&judged);
            let sentence = Said::with(
                format!(
                    "{} stands {} mm high at {t_c:.1} °C",
                    cream.name(),
                    limit(height.millimetres().round())
                ),
                format!("it sags {} %, and {} % is the most.", two_digits(sag), two_digits(most)),
            );
            Finding::new(FindingCode::MouldStands, spot.address(), standing, sentence)
                .of(sag, most, "%")
                .on_the_bench(bench().filter(|_| standing != Standing::Holds))
        }
    })
}

/// Inside with a chance a cook would rely on, or with care.
fn sure(judged: &Judged) -> Standing {
    if judged.chance >= 0.6 { Standing::Holds } else { Standing::Care }
}

/// Something eaten with a spoon from its vessel.
fn spooned(scene: &Scene, at: usize, key: &str, cream: &Cream) -> Option<Finding> {
    let spot = &scene.layout.spots[at];
    let own = match cream.document.work.job {
        Job::Spoon(own) => own,
        _ => SpoonGeometry::default(),
    };
    let job = Job::Spoon(own);
    let (t_c, _) = scene.warmest();
    let judged = cream.judge(&job, t_c, cream.standing_history());
    let [soft, firm] = judged.window;
    let tau = judged.measured.value;
    let name = cream.name();
    let (code, standing, sentence, edge, mend) = match judged.outcome {
        Outcome::TooLoose => (
            FindingCode::SpoonRuns,
            Standing::Care,
            Said::with(
                format!("{name} runs off the spoon at {t_c:.1} °C"),
                format!("{} Pa, and {} mound.", two_digits(tau), two_digits(soft)),
            ),
            soft,
            cooler(scene, cream, &job),
        ),
        Outcome::TooStiff => (
            FindingCode::SpoonStiff,
            Standing::Care,
            Said::with(
                format!("{name} is stiff to eat at {t_c:.1} °C"),
                format!("{} Pa, and {} still melt.", two_digits(tau), two_digits(firm)),
            ),
            firm,
            None,
        ),
        _ => (
            FindingCode::SpoonRight,
            Standing::Holds,
            Said::with(
                format!("{name} is right to eat with a spoon at {t_c:.1} °C"),
                format!("{} Pa.", two_digits(tau)),
            ),
            firm,
            None,
        ),
    };
    let bench = (standing != Standing::Holds).then(|| scene.bench(key, cream, job, t_c)).flatten();
    Some(
        Finding::new(code, spot.address(), standing, sentence)
            .of(tau, edge, "Pa")
            .mended(mend)
            .on_the_bench(bench),
    )
}
