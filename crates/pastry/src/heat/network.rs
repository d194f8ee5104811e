//! Heat through a body: cells that hold and pass it, faces that lose it to air, bath or plate.
//!
//! One routine for slabs, stacks of layers and finite cylinders, in time as explicit strides of half of what is stable: at that
//! length the errors of time and of the cells nearly cancel, which is why few cells are enough. Heat is held, not temperature,
//! so that melting, setting and freezing lose none of it.

use crate::heat::air::vapour_pressure;
use crate::heat::body::{Body, Face, Moment, Stretch, Watched};
use crate::heat::cells::{Cells, Rates};

/// Most strides of one body.
const MOST_STRIDES: usize = 400_000;

/// How a body went.
#[derive(Debug, Clone)]
pub struct Course {
    /// Moments, the first at 0 s.
    pub moments: Vec<Moment>,
    /// Heat it gave off, J.
    pub lost_j: f64,
    /// Whether it was followed as far as was asked: not where that takes more strides than are made.
    pub whole: bool,
}

/// When to stop before the time is up.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Until<'a> {
    /// Not at all.
    TimeIsUp,
    /// Every cell is within so many kelvin of what all faces look at.
    Near(f64),
    /// Each of these points has passed its temperature, °C, and so many seconds are over; or nothing more will happen.
    Passed(&'a [(Watched, f64)], f64),
    /// Each of these points has passed its temperature, °C, and then so many times as long, and so many seconds are over; or as
    /// good as nothing more will happen.
    Beyond(&'a [(Watched, f64)], f64, f64),
}

/// Nearer than this to what is around it nothing more happens, K.
const AS_GOOD_AS: f64 = 1e-3;

/// The same where nobody asks for the last of it, K.
const SETTLED_K: f64 = 0.3;

/// Whether every cell is so near to what all faces of the last stretch look at.
fn near(last: Option<&Stretch>, cells: &[f64], within: f64) -> bool {
    // What is heated from inside goes on past what is around it.
    let from_outside = |stretch: &&Stretch| stretch.as_one.is_none_or(|own| own.watts <= 0.0);
    last.filter(from_outside)
        .and_then(Stretch::air_c)
        .is_some_and(|air_c| cells.iter().all(|t| (t - air_c).abs() < within))
}

impl Until<'_> {
    /// Whether nobody asks for more, seen from the last moment; `last` is the last stretch, while it runs.
    fn reached(
        self,
        moments: &[Moment],
        last: Option<&Stretch>,
        cells: &[f64],
        passed_s: &mut Option<f64>,
    ) -> bool {
        let now = moments[moments.len() - 1].s;
        match self {
            Until::TimeIsUp => false,
            Until::Near(within) => near(last, cells, within),
            Until::Passed(all, seconds) => {
                near(last, cells, AS_GOOD_AS)
                    || now >= seconds && all.iter().all(|(watched, t_c)| passed(moments, *watched, *t_c))
            }
            Until::Beyond(all, times, seconds) => {
                if passed_s.is_none() && all.iter().all(|(watched, t_c)| passed(moments, *watched, *t_c)) {
                    *passed_s = Some(now);
                }
                near(last, cells, SETTLED_K) || now >= seconds && passed_s.is_some_and(|s| now >= times * s)
            }
        }
    }
}

impl Body<'_> {
    /// Follows it through stretches of time, one after the other.
    pub fn follow(&self, stretches: &[Stretch], until: Until) -> Course {
        let mut cells = Cells::of(self);
        let at_first = cells.all_held();
        let mut moments = vec![cells.moment(0.0, self.watch)];
        let mut now = 0.0;
        let mut rates = Rates::of(cells.kg.len());
        let mut passed_s = None;
        'stretches: for (at, stretch) in stretches.iter().enumerate() {
            let end = now + stretch.seconds;
            let last = at + 1 == stretches.len();
            if let Some(as_one) = stretch.as_one {
                let found = cells.as_one(stretch, as_one, [now, end], |so_far| {
                    moments.push(so_far);
                    let near =
                        until.reached(&moments, last.then_some(stretch), &[so_far.mean], &mut passed_s);
                    !near && moments.len() <= MOST_STRIDES
                });
                now = end;
                if !found {
                    break 'stretches;
                }
                continue;
            }
            let mut next_stir = stretch.stir_s.map(|every| now + every);
            let of_air =
                |face: &Face| face.moist.map_or(0.0, |moist| moist.humidity * vapour_pressure(face.air_c));
            let vapour: Vec<f64> =
                cells.open.iter().map(|open| stretch.face(open.way).map_or(0.0, of_air)).collect();
            while now < end - 1e-9 && moments.len() <= MOST_STRIDES {
                crate::patience::checkpoint();
                let skin = cells.flow(stretch, &vapour, &mut rates);
                if let (Some(moment), Some(skin)) = (moments.last_mut(), skin) {
                    moment.skin = skin;
                }
                if until.reached(&moments, last.then_some(stretch), &cells.t_c, &mut passed_s) {
                    break 'stretches;
                }
                let step = (0.5 * cells.stable(&rates))
                    .min(end - now)
                    .min(next_stir.map_or(f64::INFINITY, |at| at - now));
                cells.stride(&rates, step);
                now += step;
                if let (Some(at), Some(every)) = (next_stir, stretch.stir_s)
                    && now >= at - 1e-9
                {
                    cells.stir(self.layers.len());
                    next_stir = Some(at + every);
                }
                moments.push(cells.moment(now, self.watch));
            }
            if let (true, Some(moment)) = (last, moments.last_mut())
                && let Some(skin) = cells.flow(stretch, &vapour, &mut rates)
            {
                moment.skin = skin;
            }
        }
        let whole = moments.len() <= MOST_STRIDES;
        Course { moments, lost_j: at_first - cells.all_held(), whole }
    }
}

/// Whether the last moment lies beyond a temperature, seen from the first.
fn passed(moments: &[Moment], watched: Watched, t_c: f64) -> bool {
    let [first, last] = [moments[0], moments[moments.len() - 1]].map(|moment| moment.of(watched) - t_c);
    first * last <= 0.0
}

impl Course {
    /// Seconds until a point first passes a temperature, from whichever side it comes; 0 where it stands there, none where it
    /// never does.
    pub fn time_to(&self, watched: Watched, t_c: f64) -> Option<f64> {
        let first = self.moments[0].of(watched);
        if first == t_c {
            return Some(0.0);
        }
        let beyond = |value: f64| (value - t_c) * (first - t_c) <= 0.0;
        let at = self.moments.iter().position(|moment| beyond(moment.of(watched)))?;
        let [before, after] = [&self.moments[at - 1], &self.moments[at]];
        let [from, to] = [before.of(watched), after.of(watched)];
        Some(before.s + (after.s - before.s) * (from - t_c) / (from - to))
    }

    /// A point's temperature after so many seconds, °C; where it ended up after the end.
    pub fn at(&self, watched: Watched, s: f64) -> f64 {
        let at = self.moments.partition_point(|moment| moment.s < s);
        match at {
            0 => self.moments[0].of(watched),
            at if at == self.moments.len() => self.moments[at - 1].of(watched),
            at => {
                let [before, after] = [&self.moments[at - 1], &self.moments[at]];
                let part = (s - before.s) / (after.s - before.s);
                before.of(watched) + part * (after.of(watched) - before.of(watched))
            }
        }
    }
}
