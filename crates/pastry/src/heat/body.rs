//! A body of layers, what its faces look at for how long, and what is watched of it.

use crate::heat::material::Material;

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
    /// Where it is stirred so often that it is of one temperature throughout.
    pub as_one: Option<AsOne>,
}

/// What is of one temperature throughout, for it is stirred all the time.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct AsOne {
    /// Seconds from stir to stir: a film grows at the wall until the next.
    pub every_s: f64,
    /// What it takes up from inside, W.
    pub watts: f64,
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

/// Where a cell is open.
#[derive(Clone, Copy, PartialEq, Eq)]
pub(super) enum Way {
    /// Above.
    Up,
    /// Round it, or in its hole.
    Round,
    /// Below.
    Down,
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
    pub(super) fn air_c(&self) -> Option<f64> {
        let mut all = [self.top, self.side, self.bottom].into_iter().flatten().map(|face| face.air_c);
        let first = all.next()?;
        all.all(|air_c| air_c == first).then_some(first)
    }
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
