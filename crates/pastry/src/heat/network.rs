//! Heat through a body: cells that hold and pass it, faces that lose it to air, bath or plate.
//!
//! One routine for slabs, stacks of layers and finite cylinders, in time as explicit strides of half of what is stable: at that
//! length the errors of time and of the cells nearly cancel, which is why few cells are enough. Heat is held, not temperature,
//! so that melting, setting and freezing lose none of it.

use crate::heat::air::vapour_pressure;
use crate::heat::cells::{Cells, Rates, Way};
use crate::heat::material::Material;

/// Most strides of one body.
const MOST_STRIDES: usize = 400_000;

/// A layer, from the bottom up.
#[derive(Debug, Clone, Copy)]
pub struct Layer<'a> {
    /// What it is.
    pub material: &'a Material,
    /// How thick, m.
    pub thickness_m: f64,
    /// How warm at first, °C.
    pub t_c: f64,
    /// Cells over its thickness.
    pub cells: usize,
}

/// What the layers are cut to.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Outline {
    /// So wide that its edge does not matter: 1 m² of it.
    Wide,
    /// Round, with or without a hole, in so many rings.
    Round {
        /// Radius, m.
        radius_m: f64,
        /// Radius of the hole, m.
        hole_m: f64,
        /// Rings.
        rings: usize,
    },
    /// A ball of one layer, as thick as the ball is wide, in so many shells; its skin is its side.
    Ball {
        /// Shells.
        shells: usize,
    },
}

/// An open wet surface: it gives off heat as vapour, or takes it up where water condenses on it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Moist {
    /// Water activity at the surface.
    pub activity: f64,
    /// How open it is: 1 a liquid, 0.25 a baked cake (fitted to a rack's two to three hours).
    pub open: f64,
    /// Humidity of the air, 0 to 1.
    pub humidity: f64,
    /// Convective part of the heat transfer, W/(m² K): 5 still, 12 in a fan.
    pub convection: f64,
}

/// What a face looks at.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Face {
    /// Heat transfer, W/(m² K).
    pub h: f64,
    /// Temperature of air, bath or plate, °C.
    pub air_c: f64,
    /// What stands between: wall, film, board, m² K/W.
    pub resistance: f64,
    /// Whether it is wet and open.
    pub moist: Option<Moist>,
}

/// A stretch of time in one place.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Stretch {
    /// How long, s.
    pub seconds: f64,
    /// What the top looks at; insulated where none.
    pub top: Option<Face>,
    /// What the side looks at.
    pub side: Option<Face>,
    /// What the bottom looks at.
    pub bottom: Option<Face>,
    /// Seconds from stir to stir.
    pub stir_s: Option<f64>,
}

/// A body.
#[derive(Debug, Clone)]
pub struct Body<'a> {
    /// Layers from the bottom up.
    pub layers: Vec<Layer<'a>>,
    /// What they are cut to.
    pub outline: Outline,
    /// The layer that is watched; all where none.
    pub watch: Option<usize>,
}

/// What was watched at one moment.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Moment {
    /// Seconds since the start.
    pub s: f64,
    /// Hottest, °C.
    pub hottest: f64,
    /// Coldest, °C.
    pub coldest: f64,
    /// Mean by mass, °C.
    pub mean: f64,
    /// In the middle of what is watched, °C.
    pub core: f64,
    /// Mean over all its open skin, °C.
    pub skin: f64,
}

/// How a body went.
#[derive(Debug, Clone)]
pub struct Course {
    /// Moments, the first at 0 s.
    pub moments: Vec<Moment>,
    /// Heat it gave off, J.
    pub lost_j: f64,
}

/// When to stop before the time is up.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Until<'a> {
    /// Not at all.
    TimeIsUp,
    /// Every cell is within so many kelvin of what all faces look at.
    Near(f64),
    /// Each of these points has passed its temperature, °C, and so many seconds are over.
    Passed(&'a [(Watched, f64)], f64),
}

impl Until<'_> {
    /// Whether nobody asks for more, seen from the last moment; `last` is the last stretch, while it runs.
    fn reached(self, moments: &[Moment], last: Option<&Stretch>, cells: &[f64]) -> bool {
        match self {
            Until::TimeIsUp => false,
            Until::Near(within) => last
                .and_then(Stretch::air_c)
                .is_some_and(|air_c| cells.iter().all(|t| (t - air_c).abs() < within)),
            Until::Passed(all, seconds) => {
                moments[moments.len() - 1].s >= seconds
                    && all.iter().all(|(watched, t_c)| passed(moments, *watched, *t_c))
            }
        }
    }
}

impl Stretch {
    pub(super) fn face(&self, way: Way) -> Option<&Face> {
        match way {
            Way::Up => self.top.as_ref(),
            Way::Round => self.side.as_ref(),
            Way::Down => self.bottom.as_ref(),
        }
    }

    /// What all faces look at, where that is one temperature.
    fn air_c(&self) -> Option<f64> {
        let mut all = [self.top, self.side, self.bottom].into_iter().flatten().map(|face| face.air_c);
        let first = all.next()?;
        all.all(|air_c| air_c == first).then_some(first)
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
        'stretches: for (at, stretch) in stretches.iter().enumerate() {
            let end = now + stretch.seconds;
            let mut next_stir = stretch.stir_s.map(|every| now + every);
            let of_air =
                |face: &Face| face.moist.map_or(0.0, |moist| moist.humidity * vapour_pressure(face.air_c));
            let vapour: Vec<f64> =
                cells.open.iter().map(|open| stretch.face(open.way).map_or(0.0, of_air)).collect();
            let last = at + 1 == stretches.len();
            while now < end - 1e-9 && moments.len() <= MOST_STRIDES {
                crate::patience::checkpoint();
                let skin = cells.flow(stretch, &vapour, &mut rates);
                if let (Some(moment), Some(skin)) = (moments.last_mut(), skin) {
                    moment.skin = skin;
                }
                if until.reached(&moments, last.then_some(stretch), &cells.t_c) {
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
        Course { moments, lost_j: at_first - cells.all_held() }
    }
}

/// Whether the last moment lies beyond a temperature, seen from the first.
fn passed(moments: &[Moment], watched: Watched, t_c: f64) -> bool {
    let [first, last] = [moments[0], moments[moments.len() - 1]].map(|moment| moment.of(watched) - t_c);
    first * last <= 0.0
}

/// Which point is meant.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Watched {
    /// The hottest.
    Hottest,
    /// The coldest.
    Coldest,
    /// The mean by mass.
    Mean,
    /// The middle.
    Core,
    /// The mean over the open skin.
    Skin,
}

impl Moment {
    /// A point's temperature, °C.
    pub fn of(&self, watched: Watched) -> f64 {
        match watched {
            Watched::Hottest => self.hottest,
            Watched::Coldest => self.coldest,
            Watched::Mean => self.mean,
            Watched::Core => self.core,
            Watched::Skin => self.skin,
        }
    }
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
