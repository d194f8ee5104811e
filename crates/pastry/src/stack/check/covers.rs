//! Whether what goes onto a cake stays there: coats on a side, glazes, drips, piped pieces, and syrup in its sponge.

use crate::formula::keeping::keeping;
use crate::job::jobs::mask::mask_window;
use crate::job::jobs::{CoatGeometry, DripGeometry, MaskGeometry, PipeGeometry};
use crate::job::kind::Job;
use crate::job::physics::drip::LONGEST_MM;
use crate::job::physics::film::{contact_c, contact_share};
use crate::number::{limit, two_digits};
use crate::stack::check::bears::{SAFETY, warmest_for};
use crate::stack::check::finding::{Finding, FindingCode, Mend, Said, Standing};
use crate::stack::check::scene::{Scene, mm};
use crate::stack::check::soaks::soak;
use crate::stack::cream::Cream;
use crate::stack::onto::{CoatLayer, Drips, Edge};
use crate::stack::place::{PlaceKind, Spot};
use crate::units::{Area, Dose, Force, GRAVITY, Length, SurfaceTemperature};

/// Warmest coat that is dripped on, °C (common practice).
const WARMEST_COAT: f64 = 15.0;
/// A cake from the cold that is coated or glazed, °C (common practice: 5 to 12).
const COLD_CAKE: f64 = 8.0;

/// Everything that stays, or does not.
pub fn covers(scene: &Scene) -> Vec<Finding> {
    let mut found = Vec::new();
    for (at, spot) in scene.layout.spots.iter().enumerate() {
        let Some((key, cream)) = scene.cream_of(spot) else { continue };
        let tier = &scene.document.tiers[spot.tier];
        match spot.kind {
            PlaceKind::CrumbCoat | PlaceKind::Coat => found.extend(coat(scene, spot, key, cream)),
            PlaceKind::Glaze => {
                found.extend(tier.glaze.iter().filter_map(|own| glaze(scene, spot, own, key, cream)))
            }
            PlaceKind::Drip => {
                if let Some(drip) = &tier.drip {
                    found.extend(drip_length(scene, spot, drip, key, cream));
                    found.extend(drip_heat(scene, spot, drip, cream));
                }
            }
            PlaceKind::Border | PlaceKind::Rosettes => found.extend(piped(scene, spot, key, cream)),
            PlaceKind::Soak => found.extend(soak(scene, at, key, cream)),
            PlaceKind::Filling => found.extend(poured_on(scene, at, cream)),
            _ => {}
        }
    }
    found
}

/// A coat on a side: it stays while its yield stress beats its weight, 1.5 ρ g t.
fn coat(scene: &Scene, spot: &Spot, key: &str, cream: &Cream) -> Option<Finding> {
    if spot.thickness <= 0.0 {
        return None;
    }
    let usual = MaskGeometry::default();
    let job = Job::Mask(MaskGeometry {
        thickness_mm: mm(spot.thickness),
        knife_force_n: Force::from_newtons(usual.knife_force_n.newtons()),
        knife_area_cm2: Area::from_square_centimetres(usual.knife_area_cm2.square_centimetres()),
    });
    let (t_c, when) = scene.warmest();
    let judged = cream.judge(&job, t_c, cream.standing_history());
    let needed = judged.window[0];
    let tau = judged.measured.value;
    let (name, thick) = (cream.name(), limit(10.0 * spot.thickness));
    if tau < needed {
        let thin = (10.0 * spot.thickness * tau / needed * 2.0).floor() / 2.0;
        let thinner = (thin >= 1.0)
            .then(|| Mend::set(format!("Set it to {} mm", limit(thin)), spot.field("side_mm"), thin));
        let cooler = || {
            let warmest = warmest_for(cream, &job, t_c)?;
            let (path, word) =
                if when == "on the way" { ("transport_c", "Carry") } else { ("serve_c", "Serve") };
            Some(Mend::set(format!("{word} it at {} °C", limit(warmest)), path, warmest))
        };
        let sentence = Said::with(
            format!("{thick} mm of {name} slides off the side at {t_c:.1} °C {when}"),
            format!("{} Pa, and it takes {}.", two_digits(tau), two_digits(needed)),
        );
        return Some(
            Finding::new(FindingCode::CoatSlides, spot.address(), Standing::Trouble, sentence)
                .of(tau, needed, "Pa")
                .mended(thinner.or_else(cooler))
                .on_the_bench(scene.bench(key, cream, job, t_c)),
        );
    }
    let (standing, words) = if judged.measured.low < needed {
        (Standing::Care, "only just stays")
    } else {
        (Standing::Holds, "stays")
    };
    let sentence = Said::with(
        format!("{thick} mm of {name} {words} on the side at {t_c:.1} °C"),
        format!("{} Pa, and it takes {}.", two_digits(tau), two_digits(needed)),
    );
    Some(Finding::new(FindingCode::CoatStays, spot.address(), standing, sentence).of(tau, needed, "Pa"))
}

/// A poured coat: the film that stays is predicted, and compared with what the cook counts on.
fn glaze(scene: &Scene, spot: &Spot, own: &CoatLayer, key: &str, cream: &Cream) -> Option<Finding> {
    if !own.side_mm.is_finite() || own.side_mm <= 0.0 {
        return None;
    }
    let height = scene.layout.tiers[spot.tier].inner;
    let job = Job::Coat(CoatGeometry {
        thinnest_mm: mm(0.06 * own.side_mm),
        thickest_mm: mm(0.16 * own.side_mm),
        height_mm: mm(height),
        side_temperature_c: SurfaceTemperature::from_celsius(COLD_CAKE),
    });
    let pour_c = cream.worked_c();
    let judged = cream.judge(&job, pour_c, cream.document.history());
    let (film, want) = (judged.measured, own.side_mm);
    let band = format!("{} to {} mm", two_digits(film.low), two_digits(film.high));
    let name = cream.name();
    if film.high < want || film.low > want {
        let near = (10.0 * film.value).round() / 10.0;
        let word = if film.value < want { "thinner" } else { "thicker" };
        let sentence = format!(
            "{name} at {pour_c:.1} °C leaves {} mm ({band}), {word} than the {} mm counted on.",
            two_digits(film.value),
            limit(want)
        );
        let mend = (near >= 0.1)
            .then(|| Mend::set(format!("Count on {} mm", limit(near)), spot.field("side_mm"), near));
        return Some(
            Finding::new(FindingCode::GlazeFilm, spot.address(), Standing::Care, sentence)
                .of(film.value, want, "mm")
                .mended(mend)
                .on_the_bench(scene.bench(key, cream, job, pour_c)),
        );
    }
    let sentence = format!(
        "{name} poured at {pour_c:.1} °C leaves {} mm, anywhere from {band}.",
        two_digits(film.value)
    );
    Some(
        Finding::new(FindingCode::GlazeFilm, spot.address(), Standing::Holds, sentence)
            .of(film.value, want, "mm"),
    )
}

/// The job of drips as the cake asks it.
fn drip_job(drip: &Drips) -> Job {
    let [short, long] = drip.length_mm.map(|mm| mm.clamp(Length::MIN, Length::MAX));
    Job::Drip(DripGeometry {
        dose_ml: Dose::from_millilitres(drip.dose_ml.clamp(Dose::MIN, Dose::MAX)),
        shortest_mm: Length::from_millimetres(short.min(long)),
        longest_mm: Length::from_millimetres(short.max(long)),
        side_temperature_c: SurfaceTemperature::from_celsius(drip.coat_c.clamp(-40.0, 60.0)),
    })
}

/// How far drips run, mm: the middle and the 90 % band.
pub fn drip_band(drip: &Drips, cream: &Cream) -> [f64; 3] {
    let judged = cream.judge(&drip_job(drip), cream.worked_c(), cream.document.history());
    [judged.measured.low, judged.measured.value, judged.measured.high]
}

/// Drips against what pleases, and against the side they have.
fn drip_length(scene: &Scene, spot: &Spot, drip: &Drips, key: &str, cream: &Cream) -> Option<Finding> {
    if !drip.dose_ml.is_finite() || drip.dose_ml <= 0.0 {
        return None;
    }
    let job = drip_job(drip);
    let pour_c = cream.worked_c();
    let [low, middle, high] = drip_band(drip, cream);
    let [short, long] = drip.length_mm;
    let tier = &scene.document.tiers[spot.tier];
    let border: f64 = tier
        .borders
        .iter()
        .filter(|border| border.edge == Edge::Foot)
        .map(|border| border.tip_mm)
        .fold(0.0, f64::max);
    let layout = &scene.layout.tiers[spot.tier];
    let side = 10.0 * (layout.z[1] - layout.z[0]) - border;
    let name = cream.name();
    let bench = || scene.bench(key, cream, job, pour_c);
    let said = if middle >= LONGEST_MM { format!("past {LONGEST_MM:.0}") } else { two_digits(middle) };
    // Length is nearly proportional to the dose.
    let dose = |wanted: f64| {
        let dose = ((20.0 * drip.dose_ml * wanted / middle.max(1e-9)).round() / 20.0).clamp(0.05, 20.0);
        (middle < LONGEST_MM
            && (0.3..=3.0).contains(&(dose / drip.dose_ml))
            && (dose - drip.dose_ml).abs() > 0.02)
            .then(|| Mend::set(format!("Let go {dose:.2} ml for each"), spot.field("dose_ml"), dose))
    };
    if high > side {
        let standing = if middle > side { Standing::Trouble } else { Standing::Care };
        let sentence = format!(
            "Drips of {name} run {said} mm, some to {}; the side is {} mm{}.",
            two_digits(high.min(LONGEST_MM)),
            limit(side.round()),
            if border > 0.0 { " above its border" } else { "" }
        );
        return Some(
            Finding::new(FindingCode::DripReachesBoard, spot.address(), standing, sentence)
                .of(middle, side, "mm")
                .mended(dose(side * middle / high.max(1e-9)))
                .on_the_bench(bench()),
        );
    }
    if middle < short || middle > long {
        let (code, wanted) =
            if middle < short { (FindingCode::DripShort, short) } else { (FindingCode::DripLong, long) };
        let sentence = format!(
            "Drips of {name} at {pour_c:.1} °C stop at {said} mm; you want {} to {}.",
            limit(short),
            limit(long)
        );
        return Some(
            Finding::new(code, spot.address(), Standing::Care, sentence)
                .of(middle, wanted, "mm")
                .mended(dose(wanted))
                .on_the_bench(bench()),
        );
    }
    let sentence = format!(
        "Drips of {name} stop at {said} mm, most from {} to {}; the side is {} mm.",
        two_digits(low),
        two_digits(high),
        limit(side.round())
    );
    Some(
        Finding::new(FindingCode::DripLength, spot.address(), Standing::Holds, sentence)
            .of(middle, long, "mm"),
    )
}

/// A warm drip on a cold coat: the coat must still stay where the two meet.
fn drip_heat(scene: &Scene, spot: &Spot, drip: &Drips, cream: &Cream) -> Option<Finding> {
    let (under, coat) = scene
        .layout
        .spots
        .iter()
        .rev()
        .filter(|other| other.tier == spot.tier)
        .filter(|other| matches!(other.kind, PlaceKind::Coat | PlaceKind::CrumbCoat))
        .find_map(|other| Some((other, scene.cream_of(other)?.1)))?;
    let (drip_c, coat_c) = (cream.worked_c(), drip.coat_c.clamp(-20.0, 45.0));
    let meets_c = contact_c(drip_c, coat_c);
    let needed = mask_window(coat.predictor.base.density, 1e-2 * under.thickness, 1.0, 1.0)[0];
    let tau_at = |t_c: f64| coat.standing(t_c.clamp(0.0, 45.0)).middle.yield_stress_pa;
    let tau = tau_at(meets_c);
    let path = spot.field("coat_c");
    let melts = tau < needed;
    if melts || coat_c > WARMEST_COAT {
        let cold = (0..=30)
            .map(|step| 12.0 - 0.5 * f64::from(step))
            .find(|cold| *cold < coat_c && tau_at(contact_c(drip_c, *cold)) >= needed);
        let sentence = if melts {
            Said::with(
                format!("Drips at {drip_c:.1} °C warm the coat to {meets_c:.1} °C where they meet"),
                format!("{} Pa, and it takes {} to stay.", two_digits(tau), two_digits(needed)),
            )
        } else {
            format!(
                "The coat is dripped on at {coat_c:.1} °C; cold from the fridge, under {WARMEST_COAT:.0} °C, it stays sharp."
            )
            .into()
        };
        let standing = if melts { Standing::Trouble } else { Standing::Care };
        let mend = cold.map(|cold| Mend::set(format!("Chill the coat to {} °C", limit(cold)), path, cold));
        return Some(
            Finding::new(FindingCode::DripMeltsCoat, spot.address(), standing, sentence)
                .of(tau, needed, "Pa")
                .mended(mend),
        );
    }
    let sentence = Said::with(
        format!("Drips at {drip_c:.1} °C warm the coat to {meets_c:.1} °C; it stays"),
        format!("{} Pa.", two_digits(tau)),
    );
    Some(
        Finding::new(FindingCode::DripMeltsCoat, spot.address(), Standing::Holds, sentence)
            .of(tau, needed, "Pa"),
    )
}

/// Something warm poured on something soft: what lies under it must bear it where they meet.
fn poured_on(scene: &Scene, at: usize, cream: &Cream) -> Option<Finding> {
    let spot = &scene.layout.spots[at];
    let poured = cream.document.family.traits().poured || cream.document.work.pour_temperature_c.is_some();
    let pour_c = cream.worked_c();
    if !poured && pour_c < 30.0 {
        return None;
    }
    let (_, under) = scene
        .layout
        .spots
        .iter()
        .filter(|other| other.tier == spot.tier && other.kind == PlaceKind::Filling)
        .filter(|other| (other.z[1] - spot.z[0]).abs() < 1e-6)
        .find_map(|other| scene.cream_of(other))?;
    let lies_c = if keeping(under.document.family).stands_overnight() {
        scene.room_c.clamp(0.0, 45.0)
    } else {
        COLD_CAKE
    };
    let meets_c = lies_c + contact_share(10.0 * spot.thickness) * (pour_c - lies_c);
    let needed = SAFETY * cream.predictor.base.density * GRAVITY * 1e-2 * spot.thickness;
    let tau = under.standing(meets_c).middle.yield_stress_pa;
    let sentence = |words: &str| {
        Said::with(
            format!(
                "{} poured at {pour_c:.1} °C meets {} at {meets_c:.1} °C{words}",
                cream.name(),
                under.name()
            ),
            format!("{} Pa, and it takes {}.", two_digits(tau), two_digits(needed)),
        )
    };
    Some(if tau < needed {
        let mend = Mend::by_hand("Let it cool further, and let what lies under it set for longer");
        Finding::new(FindingCode::WarmOnSoft, spot.address(), Standing::Trouble, sentence(" and sinks in"))
            .of(tau, needed, "Pa")
            .mended(Some(mend))
    } else {
        Finding::new(FindingCode::WarmOnSoft, spot.address(), Standing::Holds, sentence(", and lies on it"))
            .of(tau, needed, "Pa")
    })
}

/// Borders and rosettes: pushed through their nozzle, and standing when they are eaten.
fn piped(scene: &Scene, spot: &Spot, key: &str, cream: &Cream) -> Option<Finding> {
    let tier = &scene.document.tiers[spot.tier];
    let at = spot.at.number()?;
    let (height, tip) = match spot.kind {
        PlaceKind::Border => {
            let border = tier.borders.get(at)?;
            (border.tip_mm, border.tip_mm)
        }
        _ => {
            let rosettes = tier.rosettes.get(at)?;
            (rosettes.height_mm, rosettes.tip_mm)
        }
    };
    if !(height > 0.0 && tip > 0.0 && height < 500.0 && tip < 40.0) {
        return None;
    }
    let usual = PipeGeometry::default();
    let job = Job::Pipe(PipeGeometry {
        height_mm: Length::from_millimetres(height.max(Length::MIN)),
        nozzle_mm: Length::from_millimetres(tip.max(Length::MIN)),
        ..usual
    });
    let (t_c, when) = scene.warmest();
    let worked_c = cream.worked_c();
    let stands = cream.judge(&job, t_c, cream.standing_history());
    let goes = cream.judge(&job, worked_c, cream.document.history());
    let name = cream.name();
    let bench = |t_c: f64| scene.bench(key, cream, job, t_c);
    let [low, high] = stands.window;
    if stands.measured.value < low {
        let warmest = warmest_for(cream, &job, t_c);
        let (path, word) = if when == "on the way" { ("transport_c", "Carry") } else { ("serve_c", "Serve") };
        let mend = warmest.map(|t| Mend::set(format!("{word} it at {} °C", limit(t)), path, t));
        let sentence = Said::with(
            format!("{name} piped {} mm high slumps at {t_c:.1} °C {when}", limit(height)),
            format!("{} Pa, and it takes {}.", two_digits(stands.measured.value), two_digits(low)),
        );
        return Some(
            Finding::new(FindingCode::PipedSlumps, spot.address(), Standing::Trouble, sentence)
                .of(stands.measured.value, low, "Pa")
                .mended(mend)
                .on_the_bench(bench(t_c)),
        );
    }
    if goes.measured.value > high {
        let sentence = Said::with(
            format!("{name} is {} Pa at {worked_c:.1} °C", two_digits(goes.measured.value)),
            format!("too stiff for a {} mm nozzle, which takes up to {}.", limit(tip), two_digits(high)),
        );
        return Some(
            Finding::new(FindingCode::PipedStiff, spot.address(), Standing::Care, sentence)
                .of(goes.measured.value, high, "Pa")
                .on_the_bench(bench(worked_c)),
        );
    }
    let sentence = Said::with(
        format!("{name} piped {} mm high stands at {t_c:.1} °C", limit(height)),
        format!("{} Pa, and it takes {}.", two_digits(stands.measured.value), two_digits(low)),
    );
    Some(Finding::new(FindingCode::PipedStands, spot.address(), Standing::Holds, sentence).of(
        stands.measured.value,
        low,
        "Pa",
    ))
}
