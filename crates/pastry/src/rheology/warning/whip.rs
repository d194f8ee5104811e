//! Whether it will take air.

use crate::formula::family::Family;
use crate::formula::line::WeighedLine;
use crate::formula::mixture::Mixture;
use crate::formula::system::System;
use crate::number::two_digits;
use crate::rheology::clock::Clock;
use crate::rheology::consistency::{History, Options};
use crate::rheology::predictor::Predictor;
use crate::rheology::warning::said::{Severity, Warning, WarningCode, warning};
use crate::rheology::whipping::{THINNEST_TO_WHIP, WhipLimits, Whips};

/// Whether it will take air, asked of the liquid cream.
pub(super) fn whip_warnings(
    lines: &[WeighedLine],
    family: Family,
    options: &Options,
    t_c: f64,
) -> Vec<Warning> {
    let system = family.traits().system;
    if !matches!(system, System::WhippedCream | System::WhippedGanache) {
        return Vec::new();
    }
    // Gelatin is stirred in while it whips: it has not set by then.
    let at_once = Clock { hours: 0.0, cooled_k_h: f64::INFINITY };
    let liquid = Options { overrun: Some(0.0), whip: Some(0.0), clock: Some(at_once), ..*options };
    let predictor = Predictor::new(&Mixture::of(lines), system, &liquid);
    // Ganache rests before it is whipped; gelatin in cream has not set when it is.
    let (history, thickest_pa_s) = match family {
        Family::WhippedGanache => (History::Rested, 20.0),
        Family::StabilisedCream => (History::Fresh, 6.0),
        _ => (History::Fresh, 2.0),
    };
    let here = predictor.at(t_c, history);
    let limits = WhipLimits { least_fat_percent: 30.0, warmest_c: 8.0, thickest_pa_s };
    let whips = Whips::new(&predictor.base, &here.middle, here.sigma_viscosity, t_c, &limits);
    let (fat, thick) = (predictor.base.whip_fat_percent, here.middle.viscosity_pa_s);
    let mut found = Vec::new();
    if whips.fat < 0.5 {
        found.push(warning(
            WarningCode::WhipFat,
            Severity::Trouble,
            format!("Fat is {fat:.0} % of fat and water: much under 30 % it does not hold its air."),
            "Use a richer cream, or add mascarpone, or cream cheese.",
        ));
    }
    if whips.cold < 0.5 {
        found.push(warning(
            WarningCode::WhipWarm,
            Severity::Care,
            format!(
                "At {t_c:.0} °C {:.0} % of its fat is set; to whip it wants to be cold, with 40 % set.",
                100.0 * here.middle.solid_fat
            ),
            "Chill cream, bowl and whisk to 5 °C, best overnight.",
        ));
    } else if whips.thickness < 0.5 && thick > THINNEST_TO_WHIP {
        found.push(warning(
            WarningCode::WhipThick,
            Severity::Care,
            format!(
                "Unwhipped it is {} Pa·s, too thick to take air; it turns to butter instead.",
                two_digits(thick)
            ),
            "Let it down with cold cream or milk.",
        ));
    } else if whips.thickness < 0.5 {
        found.push(warning(
            WarningCode::WhipThin,
            Severity::Care,
            format!("Unwhipped it is {} Pa·s, too thin to keep bubbles apart.", two_digits(thick)),
            "Use a richer cream, or add a little gelatin.",
        ));
    }
    found
}
