//! What must hold for every formula, whatever it is.

use crate::support::mixture;
use pastry::formula::System;
use pastry::ingredient::{catalogue, find};
use pastry::job::Job;
use pastry::job::duty::MapAxis;
use pastry::job::judge::Question;
use pastry::rheology::Predictor;
use pastry::rheology::{History, Options};
use pastry::units::amount::{self, Amount, Number};
use pastry::units::kitchen::Unit;
use proptest::prelude::*;

const CHOCOLATES: [&str; 8] =
    ["dark50", "dark55", "dark60", "dark64", "dark70", "milk35", "milk40", "white30"];
const CREAMS: [&str; 4] = ["cream20", "cream30", "cream35", "cream40"];

fn history() -> impl Strategy<Value = History> {
    prop::sample::select(History::ALL.to_vec())
}

fn any_formula() -> impl Strategy<Value = Vec<(&'static str, f64)>> {
    let ids: Vec<&'static str> = catalogue().iter().map(|ingredient| ingredient.id.as_str()).collect();
    prop::collection::vec((prop::sample::select(ids), 0.1f64..2000.0), 1..9)
}

/// Slack of a comparison: rounding of sums, nothing physical.
const ROUNDING: f64 = 1e-9;

proptest! {
    #![proptest_config(ProptestConfig { cases: 300, ..ProptestConfig::default() })]

    #[test]
    fn more_cream_never_stiffens(
        chocolate in prop::sample::select(CHOCOLATES.to_vec()),
        cream in prop::sample::select(CREAMS.to_vec()),
        ratio in 0.5f64..4.0, more in 1.01f64..1.5, t_c in 0f64..45.0, history in history(),
    ) {
        let tau = |cream_g: f64| {
            let mixed = mixture(&[(chocolate, 100.0 * ratio), (cream, cream_g)]);
            Predictor::new(&mixed, System::Ganache, &Options::default()).base.at(t_c, history).yield_stress_pa
        };
        let (before, after) = (tau(100.0), tau(100.0 * more));
        prop_assert!(after <= before * (1.0 + ROUNDING), "{before} Pa became {after} Pa");
    }

    #[test]
    fn warmer_never_stiffens(
        chocolate in prop::sample::select(CHOCOLATES.to_vec()),
        cream in prop::sample::select(CREAMS.to_vec()),
        ratio in 0.3f64..4.0, t_c in 0f64..44.0, by in 0.1f64..10.0, history in history(),
    ) {
        let mixed = mixture(&[(chocolate, 100.0 * ratio), (cream, 100.0)]);
        let prepared = Predictor::new(&mixed, System::Ganache, &Options::default()).base;
        let (cold, warm) = (prepared.at(t_c, history), prepared.at(t_c + by, history));
        prop_assert!(warm.yield_stress_pa <= cold.yield_stress_pa * (1.0 + ROUNDING));
        prop_assert!(warm.viscosity_pa_s <= cold.viscosity_pa_s * (1.0 + ROUNDING));
    }

    #[test]
    fn more_of_a_setting_agent_never_softens(
        agent in prop::sample::select(vec![
            ("gelatin200", System::Jelly), ("gelatin200", System::Mousse), ("agar", System::Jelly),
            ("corn_starch", System::Custard), ("corn_starch", System::Diplomat), ("xanthan", System::Jelly),
        ]),
        grams in 4.5f64..20.0, more in 1.01f64..2.0, t_c in 2f64..28.0,
    ) {
        let (id, system) = agent;
        let tau = |grams: f64| {
            // Under 2 % on water starch does nothing but take room: four times as much of it is asked.
            let grams = if id == "corn_starch" { 4.0 * grams } else { grams };
            let lines = [("milk", 400.0), ("cream35", 300.0), ("sugar", 90.0), (id, grams)];
            Predictor::new(&mixture(&lines), system, &Options::default()).base.at(t_c, History::Rested).yield_stress_pa
        };
        let (before, after) = (tau(grams), tau(grams * more));
        prop_assert!(after >= before * (1.0 - ROUNDING), "{id} in {system:?}: {before} Pa became {after} Pa");
    }

    #[test]
    fn warmer_never_stiffens_in_any_system_without_foam(
        system in prop::sample::select(System::ALL.to_vec()), lines in any_formula(),
        t_c in 0f64..44.0, by in 0.2f64..10.0,
    ) {
        // Fat melts, syrup thins, gels soften: nothing in the model sets by warming.
        let prepared = Predictor::new(&mixture(&lines), system, &Options::default()).base;
        let (cold, warm) = (prepared.at(t_c, History::Rested), prepared.at(t_c + by, History::Rested));
        prop_assert!(warm.yield_stress_pa <= cold.yield_stress_pa * (1.0 + 1e-6), "{system:?}: {} to {}", cold.yield_stress_pa, warm.yield_stress_pa);
    }

    #[test]
    fn more_air_is_lighter_and_thins_the_networks(
        lines in any_formula(), air in 0f64..1.2, more in 0.05f64..0.3, t_c in 2f64..30.0,
    ) {
        // Up to 150 % overrun: past 60 % of volume bubbles press on each other and stiffen.
        let at = |overrun: f64| {
            let options = Options { overrun: Some(overrun), ..Options::default() };
            let prepared = Predictor::new(&mixture(&lines), System::Mousse, &options).base;
            (prepared.density, prepared.at(t_c, History::Rested).yield_stress_pa)
        };
        let ((dense, stiff), (light, soft)) = (at(air), at(air + more));
        prop_assert!(light < dense && soft <= stiff * (1.0 + ROUNDING));
        // Mass is conserved: density times volume is the same batch.
        prop_assert!((dense * (1.0 + air) / (light * (1.0 + air + more)) - 1.0).abs() < 1e-9);
    }

    #[test]
    fn longer_in_the_cold_never_softens_a_gel(hours in 0f64..60.0, more in 0.1f64..40.0) {
        let lines = [("raspberry", 400.0), ("sugar", 90.0), ("cream35", 500.0), ("gelatin200", 10.0)];
        let tau = |hours: f64| {
            let options = Options { hours: Some(hours), ..Options::default() };
            Predictor::new(&mixture(&lines), System::Mousse, &options).base.at(5.0, History::Rested).yield_stress_pa
        };
        prop_assert!(tau(hours + more) >= tau(hours) * (1.0 - ROUNDING));
    }

    #[test]
    fn scaling_the_batch_changes_nothing_intensive(
        lines in any_formula(), factor in 0.01f64..100.0, t_c in 0f64..45.0, history in history(),
        system in prop::sample::select(System::ALL.to_vec()),
    ) {
        let scaled: Vec<_> = lines.iter().map(|(id, g)| (*id, g * factor)).collect();
        let of = |lines: &[(&'static str, f64)]| {
            let predictor = Predictor::new(&mixture(lines), system, &Options::default());
            let banded = predictor.at(t_c, history);
            [
                banded.middle.yield_stress_pa, banded.middle.viscosity_pa_s, banded.sigma_yield,
                predictor.base.density, predictor.base.serum.brix, banded.middle.split,
                predictor.base.serum.water_activity.unwrap_or(-1.0),
            ]
        };
        for (a, b) in of(&lines).into_iter().zip(of(&scaled)) {
            prop_assert!((a - b).abs() <= 1e-7 * a.abs().max(1e-6), "{a} became {b}");
        }
    }

    #[test]
    fn mass_is_conserved_and_every_number_is_finite(
        lines in any_formula(), t_c in 0f64..95.0, history in history(),
        system in prop::sample::select(System::ALL.to_vec()),
    ) {
        let mixed = mixture(&lines);
        let sum: f64 = mixed.composition.0.iter().sum();
        prop_assert!((sum - 1.0).abs() < 1e-9, "shares add up to {sum}");
        let phases = mixed.composition.phases();
        let phase_sum = phases.fat + phases.sugar + phases.water + phases.dry + phases.setting;
        prop_assert!((phase_sum - 1.0).abs() < 1e-9);
        let predictor = Predictor::new(&mixed, system, &Options::default());
        let banded = predictor.at(t_c, history);
        for value in [banded.middle.yield_stress_pa, banded.middle.viscosity_pa_s, banded.sigma_yield, banded.sigma_viscosity] {
            prop_assert!(value.is_finite() && value > 0.0, "{value}");
        }
        prop_assert!((0.0..=1.0).contains(&banded.middle.split));
        for job in Job::usual() {
            let question = Question { job: &job, prepared: &predictor.base, axis: MapAxis::ViscosityPaS, history };
            let judged = question.judge(&banded, t_c, None);
            prop_assert_eq!(judged.outcome, question.outcome_at(t_c), "{:?}", job);
            prop_assert!((0.0..=1.0 + 1e-12).contains(&judged.chance), "{job:?}: chance {}", judged.chance);
            prop_assert!(judged.measured.low <= judged.measured.value * (1.0 + ROUNDING));
            prop_assert!(judged.measured.value <= judged.measured.high * (1.0 + ROUNDING));
        }
    }

    #[test]
    fn a_wider_window_never_lowers_the_chance(q in 1f64..5000.0, low in 1f64..500.0, width in 1.1f64..20.0, more in 1.0f64..3.0, sigma in 0.05f64..1.5) {
        use pastry::rheology::chance::chance;
        let narrow = chance(q, low, low * width, sigma);
        let wide = chance(q, low / more, low * width * more, sigma);
        prop_assert!(wide + 1e-12 >= narrow);
    }

    #[test]
    fn an_amount_printed_reads_back_as_itself(
        unit in prop::option::of(prop::sample::select(Unit::all().collect::<Vec<_>>())),
        number in prop_oneof![
            (0u32..5000, 1u32..16, 2u32..17).prop_map(|(whole, above, below)| Number::Fraction { whole, above, below }),
            (0f64..99999.0).prop_map(|value| Number::Decimal((value * 100.0).round() / 100.0)),
        ],
    ) {
        let amount = Amount { number, unit };
        prop_assert_eq!(amount::parse(&amount.to_string()).unwrap(), amount);
    }

    #[test]
    fn any_text_is_read_or_refused_but_never_panics(text in "\\PC{0,40}") {
        if let Err(error) = amount::parse(&text) {
            prop_assert!(!error.to_string().is_empty());
        }
    }

    #[test]
    fn nearly_amounts_never_panic(text in "[-−0-9½¼¾⅓ /.,⁄]{0,12} ?(g|cups?|tbsp|fl oz|pinch|zz)?") {
        let _ = amount::parse(&text);
    }
}

/// Tahini held as a jelly at 0 °C: free oil is caught in crystals, so in the three minutes of a drip it thins by a tenth
/// and leaves the window at its loose edge. What leaves there has not set.
#[test]
fn what_thins_while_a_job_is_done_is_not_told_too_stiff() {
    let predictor = Predictor::new(&mixture(&[("tahini", 0.1)]), System::Jelly, &Options::default());
    let banded = predictor.at(0.0, History::Fresh);
    let mut thinned = 0;
    for job in Job::usual() {
        let (prepared, history) = (&predictor.base, History::Fresh);
        let question = Question { job: &job, prepared, axis: MapAxis::ViscosityPaS, history };
        let met = question.meet(0.0);
        thinned += usize::from(met.then.is_some_and(|then| then.viscosity_pa_s < met.now.viscosity_pa_s));
        assert_eq!(question.judge(&banded, 0.0, None).outcome, question.outcome_at(0.0), "{job:?}");
    }
    assert!(thinned > 0, "it no longer thins: the case says nothing");
}

#[test]
fn a_line_of_zero_grams_changes_nothing() {
    let plain = mixture(&[("dark60", 200.0), ("cream36", 150.0)]);
    let with = mixture(&[("dark60", 200.0), ("butter82", 0.0), ("cream36", 150.0), ("jam", 0.0)]);
    assert_eq!(plain, with);
}

#[test]
fn the_curve_has_no_corners_in_temperature() {
    // C1: slopes from the left and from the right agree everywhere, also at the points of the fat curves.
    let ganache = [("dark55", 150.0), ("cream35", 100.0), ("butter82", 20.0)];
    let swiss = [("white", 100.0), ("sugar", 180.0), ("butter82", 275.0)];
    let mousse = [("raspberry", 400.0), ("sugar", 90.0), ("cream35", 500.0), ("gelatin200", 10.0)];
    let custard = [("milk", 500.0), ("yolk", 85.0), ("sugar", 100.0), ("corn_starch", 45.0)];
    let cases: [(System, &[(&str, f64)]); 4] = [
        (System::Ganache, &ganache),
        (System::MeringueButtercream, &swiss),
        (System::Mousse, &mousse),
        (System::Custard, &custard),
    ];
    for (system, lines) in cases {
        let prepared = Predictor::new(&mixture(lines), system, &Options::default()).base;
        for history in History::ALL {
            for k in 1..450 {
                let (t, h) = (0.1 * f64::from(k), 1e-5);
                let ln = |t: f64| prepared.at(t, history).yield_stress_pa.ln();
                // Second-order one-sided differences: first-order ones would show curvature as a gap.
                let left = (3.0 * ln(t) - 4.0 * ln(t - h) + ln(t - 2.0 * h)) / (2.0 * h);
                let right = (-3.0 * ln(t) + 4.0 * ln(t + h) - ln(t + 2.0 * h)) / (2.0 * h);
                assert!(
                    (left - right).abs() < 2e-4 * left.abs().max(1.0),
                    "{system:?} {history:?} {t} °C: {left} and {right}"
                );
            }
        }
    }
}

#[test]
fn every_ingredient_alone_can_be_evaluated() {
    for ingredient in catalogue() {
        for system in System::ALL {
            let mixed = mixture(&[(ingredient.id.as_str(), 1.0)]);
            let point = Predictor::new(&mixed, system, &Options::default()).at(20.0, History::Rested);
            assert!(point.middle.yield_stress_pa.is_finite(), "{} as {system:?}", ingredient.id);
        }
    }
    assert!(find("nothing of the kind").is_none());
}
