//! What is stirred: of one temperature, with a film at the wall that grows from stir to stir.

use crate::heat::air::vapour_pressure;
use crate::heat::body::{AsOne, Moment, Stretch};
use crate::heat::cells::Cells;
use crate::heat::material::Material;
use std::f64::consts::PI;

/// What is heated from inside gets no hotter than it boils, °C.
pub const BOILS_C: f64 = 100.0;

/// Stirred at least this often, s, it counts as of one temperature; less often its cells are mixed now and then.
pub const STIRRED_S: f64 = 300.0;

/// What the film at the wall lets through that grows for `every_s` seconds between stirs, W/(m² K): 2 k/√(π a s), with
/// a = k/(ρ c) at 20 °C; within a tenth of a fine grid that is mixed as often.
pub fn film(material: &Material, every_s: f64) -> f64 {
    let k = material.conducts(20.0);
    let spreads = k / (material.density() * material.capacity(20.0));
    2.0 * k / (PI * spreads * every_s.max(1e-3)).sqrt()
}

/// What a body of one temperature does next: towards `ends_c` in `tau` seconds, one stride of it, s.
pub fn stride_s(tau: f64, away_k: f64) -> f64 {
    tau * (0.1 / away_k.abs().max(1e-9)).min(0.05)
}

/// Seconds until a stirred body passes `to_c`; none where it never does.
///
/// # Arguments
/// * `passes`: area over all that stands between, W/K, into surroundings of `air_c`.
pub fn time_to(
    material: &Material,
    kg: f64,
    [start_c, to_c]: [f64; 2],
    passes: f64,
    air_c: f64,
) -> Option<f64> {
    if (start_c - to_c) * (to_c - air_c) <= 0.0 && start_c != to_c {
        return None;
    }
    let (mut t_c, mut now) = (start_c, 0.0);
    loop {
        let tau = kg * material.capacity(t_c) / passes;
        let step = stride_s(tau, t_c - air_c);
        let next = air_c + (t_c - air_c) * (-step / tau).exp();
        if (next - to_c) * (start_c - to_c) <= 0.0 {
            return Some(now + step * (t_c - to_c) / (t_c - next));
        }
        if (next - air_c).abs() < 1e-4 {
            return None;
        }
        (t_c, now) = (next, now + step);
    }
}

/// Watts that `kg` of something with a share of water takes up of a microwave's: rated × level × (1 − 0.45 exp(−kg/0.25)) ×
/// (0.5 + 0.5 min(1, water/0.30)) (assumed; a factor 0.6 to 1.6).
pub fn microwave_w(rated_w: f64, level: f64, kg: f64, water: f64) -> f64 {
    rated_w * level * (1.0 - 0.45 * (-kg / 0.25).exp()) * (0.5 + 0.5 * (water / 0.30).min(1.0))
}

/// How long one burst of it is, s: about four kelvins of the mean, 5 to 20 s (assumed).
pub fn burst_s(capacity: f64, kg: f64, watts: f64) -> f64 {
    (4.0 * capacity * kg / watts).clamp(5.0, 20.0)
}

impl Cells<'_> {
    /// Follows it as of one temperature through a stretch of time, telling every moment; whether to go on is the answer. Only of
    /// one material. Ends with all its cells at that temperature.
    pub(super) fn as_one(
        &mut self,
        stretch: &Stretch,
        AsOne { every_s, watts }: AsOne,
        [from, to]: [f64; 2],
        mut tell: impl FnMut(Moment) -> bool,
    ) -> bool {
        let Some(material) = self.material() else { return true };
        let mut t_c = self.mixed();
        let kg: f64 = self.kg.iter().sum();
        let inside = 1.0 / film(material, every_s);
        let faces = self.faces(stretch);
        let passes: Vec<f64> =
            faces.iter().map(|(area, face)| area / (1.0 / face.h + face.resistance + inside)).collect();
        let all: f64 = passes.iter().sum();
        let of_air: f64 = passes.iter().zip(&faces).map(|(passes, (_, face))| passes * face.air_c).sum();
        let vapour = |t_c: f64| -> f64 {
            let of_face = |(area, face): &(f64, crate::heat::body::Face)| {
                let moist = face.moist?;
                let wet =
                    moist.activity * vapour_pressure(t_c) - moist.humidity * vapour_pressure(face.air_c);
                Some(area * moist.open * moist.convection / 65.0 * wet)
            };
            faces.iter().filter_map(of_face).sum()
        };
        let (mut now, mut on) = (from, true);
        while on && now < to - 1e-9 {
            crate::patience::checkpoint();
            let ends_c = (of_air + watts - vapour(t_c)) / all;
            let tau = kg * material.capacity(t_c) / all;
            let step = stride_s(tau, t_c - ends_c).min(to - now);
            t_c = ends_c + (t_c - ends_c) * (-step / tau).exp();
            if watts > 0.0 {
                // From there on it boils, and gets no hotter.
                t_c = t_c.min(BOILS_C);
            }
            now += step;
            on = tell(Moment { s: now, hottest: t_c, coldest: t_c, mean: t_c, core: t_c, skin: t_c });
        }
        self.set_all(t_c);
        on
    }
}
