//! A prediction against a job's window: inside or not, with what chance, and where the window lies on
//! the map at this temperature.

use crate::job::chance::{chance, normal_cdf};
use crate::job::drip::{DripCourse, LONGEST_MM};
use crate::job::film::{Film, SpoonFilm};
use crate::job::geometry::{
    CoatGeometry, DripGeometry, NappeGeometry, SetGeometry, SoakGeometry, WhipGeometry,
};
use crate::job::kind::{Job, MapAxis};
use crate::job::slump::{RUBBERY_PA, gives_way_below, sag};
use crate::job::soak::{depth_mm, viscosity_for};
use crate::rheology::consistency::{Banded, Consistency};
use crate::rheology::kernel::Prepared;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Half width of the 90 % band in standard deviations.
pub const BAND_90: f64 = 1.64;
/// Least solid fat with which cream whips, share of its fat (common practice).
pub const LEAST_SOLID: f64 = 0.40;
/// Above any map, where a window is open at the top.
const OPEN: f64 = 1e7;

/// How a formula stands to its job.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Outcome {
    /// In the window.
    Inside,
    /// Stiffer than the window.
    TooStiff,
    /// Looser than the window.
    TooLoose,
    /// Too warm for it, whatever its stiffness.
    TooWarm,
    /// Too little fat for it, whatever its stiffness.
    TooLean,
    /// The geometry leaves no window: nothing both holds and yields.
    NoWindow,
}

/// A value with the ends of its 90 % band.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Estimate {
    /// The middle.
    pub value: f64,
    /// Lower end of the 90 % band.
    pub low: f64,
    /// Upper end of the 90 % band.
    pub high: f64,
}

impl Estimate {
    /// A log-normal estimate.
    pub fn log_normal(value: f64, sigma: f64) -> Self {
        let factor = (BAND_90 * sigma).exp();
        Estimate { value, low: value / factor, high: value * factor }
    }
}

/// One temperature judged.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Judged {
    /// Inside or not.
    pub outcome: Outcome,
    /// What the job measures.
    pub measured: Estimate,
    /// The window of it.
    pub window: [f64; 2],
    /// Chance of being inside, 0 to 1.
    pub chance: f64,
    /// The window on the map's axis at this temperature, Pa or Pa·s: what the map draws.
    pub map_window: [f64; 2],
    /// Whether something in it undoes what should set it: no dose helps.
    pub undone: bool,
    /// What a judgement hands to the next temperature of a sweep, to start near its answer.
    pub hint: Hint,
}

/// Standard deviations at which a neighbouring temperature met its limits.
pub type Hint = Option<[f64; 2]>;

/// What is judged: a job, and the mixture it is judged on.
#[derive(Debug, Clone, Copy)]
pub struct Question<'a> {
    /// The job.
    pub job: &'a Job,
    /// The mixture.
    pub prepared: &'a Prepared,
    /// What the map counts.
    pub axis: MapAxis,
}

impl Question<'_> {
    /// Value on the map's axis.
    fn on_axis(&self, point: &Consistency) -> f64 {
        match self.axis {
            MapAxis::YieldStressPa => point.yield_stress_pa,
            MapAxis::ViscosityPaS => point.viscosity_pa_s,
        }
    }

    /// A window of common multipliers on the axis.
    fn scaled(&self, point: &Consistency, multipliers: [f64; 2]) -> [f64; 2] {
        multipliers.map(|m| (self.on_axis(point) * m).min(OPEN))
    }

    /// Judges a prediction at `t_c`. What is undone by something in it has no chance, however it stands in its first
    /// hour.
    pub fn judge(&self, banded: &Banded, t_c: f64, hint: Hint) -> Judged {
        let judged = self.judge_as_it_stands(banded, t_c, hint);
        if !self.undone() {
            return judged;
        }
        Judged { outcome: Outcome::TooLoose, chance: 0.0, undone: true, ..judged }
    }

    /// Whether its gelatin is cut by raw fruit.
    fn undone(&self) -> bool {
        self.prepared.networks.gelatin_undone
    }

    fn judge_as_it_stands(&self, banded: &Banded, t_c: f64, hint: Hint) -> Judged {
        let window = self.job.window(self.prepared.density);
        let point = &banded.middle;
        let sigma = [banded.sigma_yield, banded.sigma_viscosity];
        let simple = |value: f64, sigma: f64, multipliers: [f64; 2], outcome: Outcome| Judged {
            outcome,
            measured: Estimate::log_normal(value, sigma),
            window,
            chance: chance(value, window[0], window[1], sigma),
            map_window: self.scaled(point, multipliers),
            undone: false,
            hint: None,
        };
        match self.job {
            Job::Mask(_) | Job::Fill(_) | Job::Pipe(_) | Job::Spoon(_) => {
                let tau = point.yield_stress_pa;
                simple(tau, sigma[0], window.map(|limit| limit / tau), stiffness(tau, window))
            }
            Job::Coat(coat) => {
                let film = self.film(point, coat);
                let (mm, multipliers) = (film.thickness_mm(), window.map(|mm| film.multiplier_for(mm)));
                simple(mm, film.sigma(sigma[0], sigma[1]), multipliers, stiffness(mm, window))
            }
            Job::Nappe(nappe) => {
                let film = self.spoon_film(point, nappe);
                let (mm, multipliers) = (film.thickness_mm(), window.map(|mm| film.multiplier_for(mm)));
                simple(mm, film.sigma(sigma[0], sigma[1]), multipliers, stiffness(mm, window))
            }
            Job::Soak(soak) => {
                let (mm, eta) = (self.depth(point, soak), point.plastic_viscosity_pa_s);
                let times = |mm: f64| viscosity_for(mm, soak.time_s.seconds()) / eta;
                // Depth goes with one over the root of viscosity: deep is thin.
                let multipliers = [times(window[1]), times(window[0])];
                simple(mm, 0.5 * sigma[1], multipliers, flipped(stiffness(mm, window)))
            }
            Job::Whip(whip) => {
                let eta = point.viscosity_pa_s;
                let outcome = self.whips(point, whip, t_c, window);
                let mut judged = simple(eta, sigma[1], window.map(|limit| limit / eta), outcome);
                if matches!(outcome, Outcome::TooWarm | Outcome::TooLean) {
                    judged.chance = 0.0;
                }
                judged
            }
            Job::Set(set) => self.judge_set(banded, set, window),
            Job::Drip(drip) => self.judge_drip(banded, drip, t_c, window, hint),
        }
    }

    fn film(&self, point: &Consistency, coat: &CoatGeometry) -> Film {
        Film::new(
            point.yield_stress_pa,
            point.plastic_viscosity_pa_s,
            self.prepared.density,
            1e-3 * coat.height_mm.millimetres(),
            coat.side_temperature_c.celsius(),
        )
    }

    fn spoon_film(&self, point: &Consistency, nappe: &NappeGeometry) -> SpoonFilm {
        SpoonFilm::new(
            point.yield_stress_pa,
            point.plastic_viscosity_pa_s,
            self.prepared.density,
            1e-3 * nappe.height_mm.millimetres(),
            nappe.time_s.seconds(),
        )
    }

    fn depth(&self, point: &Consistency, soak: &SoakGeometry) -> f64 {
        depth_mm(point.plastic_viscosity_pa_s, soak.time_s.seconds())
    }

    fn whips(&self, point: &Consistency, whip: &WhipGeometry, t_c: f64, window: [f64; 2]) -> Outcome {
        if self.prepared.fat_in_wet_percent < whip.least_fat_percent.percent() {
            Outcome::TooLean
        } else if t_c > whip.warmest_c.celsius() || point.solid_fat < LEAST_SOLID {
            Outcome::TooWarm
        } else {
            stiffness(point.viscosity_pa_s, window)
        }
    }

    /// Sag, strength and modulus all grow with the common multiplier: it must be large enough for the
    /// first two, and the gel must not turn to rubber.
    fn judge_set(&self, banded: &Banded, set: &SetGeometry, window: [f64; 2]) -> Judged {
        let point = &banded.middle;
        let height = 1e-3 * set.height_mm.millimetres();
        let sags = sag(self.prepared.density, height, point.modulus_pa);
        let [least, most] = self.set_multipliers(point, set);
        let sigma = banded.sigma_yield;
        let gel_sigma = self.prepared.base_sigma();
        let stands = normal_cdf(-least.ln() / sigma);
        let rubbery = normal_cdf(-most.ln() / gel_sigma);
        Judged {
            outcome: match () {
                () if least > 1.0 => Outcome::TooLoose,
                () if most < 1.0 => Outcome::TooStiff,
                () => Outcome::Inside,
            },
            measured: Estimate::log_normal(100.0 * sags, sigma),
            window,
            chance: (stands - rubbery).max(0.0),
            map_window: self.scaled(point, [least, most.max(least)]),
            undone: false,
            hint: None,
        }
    }

    fn judge_drip(
        &self,
        banded: &Banded,
        drip: &DripGeometry,
        t_c: f64,
        window: [f64; 2],
        hint: Hint,
    ) -> Judged {
        let sigma = [banded.sigma_yield, banded.sigma_viscosity];
        let course = self.course(drip, t_c);
        let length = |z: f64| course.length_mm((z * sigma[0]).exp(), (z * sigma[1]).exp());
        let middle = length(0.0);
        // Length falls as the cream is stiffer: the longest drip is the loosest end.
        let near = hint.unwrap_or_default();
        let z_loose = course.z_for_length(window[1], sigma, near[0]);
        let z_stiff = course.z_for_length(window[0], sigma, near[1]);
        let (value, sigma_axis) = match self.axis {
            MapAxis::YieldStressPa => (banded.middle.yield_stress_pa, sigma[0]),
            MapAxis::ViscosityPaS => (banded.middle.viscosity_pa_s, sigma[1]),
        };
        Judged {
            outcome: drip_outcome(middle, window),
            measured: Estimate { value: middle, low: length(BAND_90), high: length(-BAND_90) },
            window,
            chance: (normal_cdf(z_stiff) - normal_cdf(z_loose)).max(0.0),
            map_window: [z_loose, z_stiff].map(|z| value * (z * sigma_axis).exp()),
            undone: false,
            hint: Some([z_loose, z_stiff]),
        }
    }

    fn course(&self, drip: &DripGeometry, t_c: f64) -> DripCourse {
        DripCourse::new(self.prepared, t_c, drip.side_temperature_c.celsius(), drip.dose_ml.millilitres())
    }

    /// ln of the common factors by which yield stress and viscosity would have to be multiplied to stand on
    /// the loose and on the stiff edge of the window: for searches. Open edges are far away.
    pub fn edges(&self, point: &Consistency, t_c: f64) -> [f64; 2] {
        let window = self.job.window(self.prepared.density);
        let multipliers = match self.job {
            Job::Mask(_) | Job::Fill(_) | Job::Pipe(_) | Job::Spoon(_) => {
                window.map(|limit| limit / point.yield_stress_pa)
            }
            Job::Coat(coat) => {
                let film = self.film(point, coat);
                window.map(|mm| film.multiplier_for(mm))
            }
            Job::Nappe(nappe) => {
                let film = self.spoon_film(point, nappe);
                window.map(|mm| film.multiplier_for(mm))
            }
            Job::Soak(soak) => {
                let times = |mm: f64| viscosity_for(mm, soak.time_s.seconds()) / point.plastic_viscosity_pa_s;
                [times(window[1]), times(window[0])]
            }
            Job::Whip(_) => window.map(|limit| limit / point.viscosity_pa_s),
            Job::Set(set) => self.set_multipliers(point, set),
            Job::Drip(drip) => {
                let course = self.course(drip, t_c);
                // With both sigmas 1 a standard deviation is a factor e.
                return [window[1].min(LONGEST_MM), window[0]]
                    .map(|mm| course.z_for_length(mm, [1.0, 1.0], 0.0));
            }
        };
        multipliers.map(|m| m.max(1e-12).ln())
    }

    /// Whether the middle is inside with so much room to either edge, ln of stiffness: the same as asking
    /// [`Question::edges`], and for a drip ten times cheaper.
    pub fn within(&self, point: &Consistency, t_c: f64, margin: f64) -> bool {
        if self.undone() {
            return false;
        }
        let Job::Drip(drip) = self.job else {
            let [loose, stiff] = self.edges(point, t_c);
            return loose <= -margin && stiff >= margin;
        };
        let [shortest, longest] = self.job.window(self.prepared.density);
        let course = self.course(drip, t_c);
        let length = |ln: f64| course.length_mm(ln.exp(), ln.exp());
        length(margin) >= shortest && length(-margin) <= longest.min(LONGEST_MM)
    }

    /// How the two edges of a drip move when yield stress alone stiffens, per ln: the rest of the way to −1
    /// is viscosity's. Both lie in −1 to 0. None for jobs whose edges are closed forms.
    pub fn slopes_by_yield(&self, t_c: f64, edges: [f64; 2]) -> Option<[f64; 2]> {
        const STEP: f64 = 0.05;
        let Job::Drip(drip) = self.job else { return None };
        let course = self.course(drip, t_c);
        Some(edges.map(|z| {
            let length = |by_yield: f64, by_viscosity: f64| {
                course.length_mm((z + by_yield).exp(), (z + by_viscosity).exp())
            };
            let of_yield = length(-STEP, 0.0) - length(STEP, 0.0);
            let of_viscosity = length(0.0, -STEP) - length(0.0, STEP);
            let both = of_yield + of_viscosity;
            if both.abs() < 1e-9 { -0.5 } else { -(of_yield / both).clamp(0.0, 1.0) }
        }))
    }

    /// The least and the greatest common factor with which a set piece stands and is not rubber.
    fn set_multipliers(&self, point: &Consistency, set: &SetGeometry) -> [f64; 2] {
        let (density, height) = (self.prepared.density, 1e-3 * set.height_mm.millimetres());
        let sags = sag(density, height, point.modulus_pa);
        let least =
            (sags / set.grade.most_sag()).max(gives_way_below(density, height) / point.yield_stress_pa);
        let most = if point.gel_modulus_pa > 1e-6 { RUBBERY_PA / point.gel_modulus_pa } else { OPEN };
        [least, most]
    }

    /// Only inside or not, of the middle: for searches.
    pub fn outcome_of_middle(&self, point: &Consistency, t_c: f64) -> Outcome {
        if self.undone() {
            return Outcome::TooLoose;
        }
        let window = self.job.window(self.prepared.density);
        match self.job {
            Job::Mask(_) | Job::Fill(_) | Job::Pipe(_) | Job::Spoon(_) => {
                stiffness(point.yield_stress_pa, window)
            }
            Job::Coat(coat) => stiffness(self.film(point, coat).thickness_mm(), window),
            Job::Nappe(nappe) => stiffness(self.spoon_film(point, nappe).thickness_mm(), window),
            Job::Soak(soak) => flipped(stiffness(self.depth(point, soak), window)),
            Job::Whip(whip) => self.whips(point, whip, t_c, window),
            Job::Set(set) => match self.set_multipliers(point, set) {
                [least, _] if least > 1.0 => Outcome::TooLoose,
                [_, most] if most < 1.0 => Outcome::TooStiff,
                _ => Outcome::Inside,
            },
            Job::Drip(drip) => drip_outcome(self.course(drip, t_c).length_mm(1.0, 1.0), window),
        }
    }
}

fn drip_outcome(length_mm: f64, window: [f64; 2]) -> Outcome {
    match length_mm {
        mm if mm < window[0] => Outcome::TooStiff,
        mm if mm > window[1].min(LONGEST_MM) => Outcome::TooLoose,
        _ => Outcome::Inside,
    }
}

fn stiffness(value: f64, [low, high]: [f64; 2]) -> Outcome {
    if low >= high {
        Outcome::NoWindow
    } else if value < low {
        Outcome::TooLoose
    } else if value > high {
        Outcome::TooStiff
    } else {
        Outcome::Inside
    }
}

/// For what is measured the other way round: deep means thin.
fn flipped(outcome: Outcome) -> Outcome {
    match outcome {
        Outcome::TooLoose => Outcome::TooStiff,
        Outcome::TooStiff => Outcome::TooLoose,
        other => other,
    }
}
