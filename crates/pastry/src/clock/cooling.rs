//! The way a mass cools or warms in its vessel, with its band: the soonest, the usual and the latest.

use crate::clock::document::ClockDocument;
use crate::formula::Mixture;
use crate::heat::body::Watched;
use crate::heat::filled::Filled;
use crate::heat::flowing::{Liquid, carries};
use crate::heat::form::Shaped;
use crate::heat::network::{Course, Until};
use crate::heat::stand::{LearnedPlace, StandDocument, Stands};
use crate::heat::stirred::BOILS_C;
use crate::heat::surroundings::Surroundings;
use crate::heat::underneath::{SPONGE, SPONGE_AIR};
use crate::heat::vessel::{VesselDocument, VesselKind};
use crate::heat::{MadeOf, Material, Solutes};
use crate::ingredient::composition::Part;
use crate::rheology::History;
use crate::rheology::kernel::Prepared;
use std::cell::OnceCell;

/// Least, usual and most heat transfer: which of a band.
pub const LEAST: usize = 0;
/// Usual.
pub const USUAL: usize = 1;
/// Most.
pub const MOST: usize = 2;
/// What has no end is followed so long, min: two days.
pub const OPEN_END_MIN: f64 = 2880.0;
/// On a cake half a day: its cells are thin.
const OPEN_END_ON_CAKE_MIN: f64 = 720.0;
/// What lies between middle and wall, of what lies between start and surroundings (assumed).
const BETWEEN: f64 = 0.25;
/// Sponge in a finished cake, of its volume (assumed).
const SPONGE_OF_CAKE: f64 = 0.6;
/// Chocolate has less water than this and more cocoa butter (European directive 2000/36, from memory: 18 % and more in dark,
/// couverture 31 %; its water is about a hundredth).
const CHOCOLATE_WATER: f64 = 0.02;
const CHOCOLATE_FAT: f64 = 0.18;
/// Nearer than this to where it stands nobody waits for the rest, K.
const AS_GOOD_AS_K: f64 = 0.8;

/// A mass as heat sees it.
#[derive(Debug)]
pub struct Mass<'a> {
    prepared: &'a Prepared,
    made: MadeOf,
    learned: &'a [LearnedPlace],
    /// Its tables, made once for each way: of it alone, and of a cake filled and coated with it.
    ready: [OnceCell<Material>; 2],
    cake: [OnceCell<Material>; 2],
    /// Water, share of total.
    pub water: f64,
    /// Water activity of its surface; none where fat is outside.
    pub activity: Option<f64>,
}

impl<'a> Mass<'a> {
    /// Of a mixture made ready, in a kitchen whose places were read.
    pub fn of(mixture: &Mixture, prepared: &'a Prepared, learned: &'a [LearnedPlace]) -> Self {
        let fat_outside = prepared.fat_outside();
        Mass {
            prepared,
            learned,
            made: MadeOf::of(&mixture.composition, prepared.air, fat_outside, true),
            ready: [OnceCell::new(), OnceCell::new()],
            cake: [OnceCell::new(), OnceCell::new()],
            water: mixture.composition.get(Part::Water),
            activity: prepared.serum.water_activity.filter(|_| !fat_outside),
        }
    }

    /// Its tables, for the way down or up.
    pub fn material(&self, cooling: bool) -> &Material {
        self.ready[usize::from(cooling)].get_or_init(|| Material::new(&MadeOf { cooling, ..self.made }))
    }

    /// Tables of a cake of sponge with it, layer by layer taken as one.
    pub fn in_cake(&self, cooling: bool) -> &Material {
        self.cake[usize::from(cooling)].get_or_init(|| {
            // By mass: volumes times densities without the air, which is shared out as it is.
            let own = self.made.shares.density(20.0, 0.0) * (1.0 - self.made.air) * (1.0 - SPONGE_OF_CAKE);
            let sponge = SPONGE.density(20.0, 0.0) * (1.0 - SPONGE_AIR) * SPONGE_OF_CAKE;
            let share = own / (own + sponge);
            let shares = self.made.shares.mixed(&SPONGE, share);
            let air = SPONGE_AIR * SPONGE_OF_CAKE + self.made.air * (1.0 - SPONGE_OF_CAKE);
            let solutes = Solutes::lumped(&shares, 342.3);
            Material::new(&MadeOf { shares, air, fat_outside: false, solutes, cooling })
        })
    }

    /// How many times as well it carries heat as were it still, between two temperatures, so high.
    fn carries(&self, material: &Material, [from_c, to_c]: [f64; 2], high_m: f64) -> f64 {
        let middle = (0.5 * (from_c + to_c)).max(0.0);
        let here = self.prepared.at(middle, History::Fresh);
        carries(&Liquid {
            away_k: BETWEEN * (from_c - to_c).abs(),
            high_m,
            viscosity: here.viscosity_pa_s,
            yield_stress: here.yield_stress_pa,
            density: material.density(),
            capacity: material.capacity(middle),
            conducts: material.conducts(middle),
        })
    }

    /// Share of it that is ice at a temperature.
    pub fn ice(&self, t_c: f64) -> f64 {
        self.made.solutes.ice(t_c)
    }

    /// Whether it is chocolate and nothing else: hardly any water, and cocoa butter.
    pub fn is_chocolate(&self) -> bool {
        self.water < CHOCOLATE_WATER && self.made.shares.cocoa_fat > CHOCOLATE_FAT
    }

    /// Where it begins to freeze, °C; none where it does not.
    pub fn freezes_c(&self) -> Option<f64> {
        self.made.solutes.begins_c()
    }
}

/// Where it begins, °C: the coldest, the usual and the hottest it may be.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Begins(pub [f64; 3]);

/// How warm it gets where it stands last, °C: in a microwave to the boil.
fn ends_c(places: &[StandDocument], room_c: f64) -> f64 {
    match places.last() {
        Some(place) if place.place == Surroundings::Microwave => BOILS_C,
        Some(place) => place.there_c(room_c),
        None => room_c,
    }
}

/// A mass in a vessel, and where that stands.
pub struct Cooling<'a> {
    mass: &'a Mass<'a>,
    material: &'a Material,
    /// The vessel with what is in it.
    pub filled: Filled,
    places: Vec<StandDocument>,
    begins: Begins,
    room_c: f64,
}

impl<'a> Cooling<'a> {
    /// Whether it is chocolate that comes off what it stands in: a shell, a piece, a sheet.
    pub fn is_shell(&self) -> bool {
        use VesselKind::{Dome, Mould, Ring, Tray};
        self.mass.is_chocolate() && matches!(self.filled.kind(), Dome | Mould | Ring | Tray)
    }

    /// So many kilograms of a mass in a vessel.
    pub fn new(
        mass: &'a Mass<'a>,
        kg: f64,
        vessel: &VesselDocument,
        places: &[StandDocument],
        begins: Begins,
        room_c: f64,
    ) -> Self {
        let places: Vec<StandDocument> = places.iter().map(|place| place.as_read(mass.learned)).collect();
        let cools = ends_c(&places, room_c) <= begins.0[USUAL];
        let material = match vessel.kind {
            VesselKind::Boxed => mass.in_cake(cools),
            _ => mass.material(cools),
        };
        let filled = vessel.filled(kg, material.density());
        Cooling { mass, material, filled, places, begins, room_c }
    }

    /// Of a document with its mass and where it begins.
    pub fn of(mass: &'a Mass<'a>, document: &ClockDocument, kg: f64, begins: Begins) -> Self {
        let room_c = document.formula.work.room_temperature_c.celsius();
        Cooling::new(mass, kg, &document.vessel, &document.places, begins, room_c)
    }

    /// The same poured into a vessel as warm as the room: where it comes to.
    pub fn poured(mut self) -> Self {
        self.begins = Begins(self.begins.0.map(|t| self.filled.poured_c(self.material, t, self.room_c)));
        self
    }

    /// Where it begins, °C.
    pub fn begins(&self) -> Begins {
        self.begins
    }

    /// How warm it is where it stands last, °C; what comes on a cake that is colder goes there first.
    pub fn ends_c(&self) -> f64 {
        let there_c = ends_c(&self.places, self.room_c);
        self.filled.on_c().map_or(there_c, |on_c| there_c.min(on_c))
    }

    /// Whether much of it is ice at a temperature: spirit and thick syrup never are.
    pub fn freezes_at(&self, t_c: f64) -> bool {
        self.mass.ice(t_c) > 0.02
    }

    /// Whether it goes down.
    pub fn cools(&self) -> bool {
        self.ends_c() <= self.begins.0[USUAL]
    }

    /// What it is made of.
    pub fn material(&self) -> &Material {
        self.material
    }

    /// Which point its work goes by: of a finished cake the coat, which is its skin.
    pub fn watched(&self) -> Watched {
        if self.filled.kind() == VesselKind::Boxed { Watched::Skin } else { Watched::Mean }
    }

    /// A temperature it comes to, as near to `t_c` as it does.
    pub fn reachable(&self, t_c: f64) -> f64 {
        let ends_c = self.ends_c();
        match self.cools() {
            true => t_c.max(ends_c + AS_GOOD_AS_K),
            false => t_c.min(ends_c - AS_GOOD_AS_K),
        }
    }

    fn body(&self, which: usize) -> (Shaped, Vec<crate::heat::Stretch>) {
        let [coldest, usual, hottest] = self.begins.0;
        // The latest is what begins furthest from where it goes.
        let start_c = match (which, self.cools()) {
            (USUAL, _) => usual,
            (LEAST, true) | (MOST, false) => hottest,
            _ => coldest,
        };
        let stands = Stands {
            filled: &self.filled,
            water: self.mass.water,
            activity: self.mass.activity,
            room_c: self.room_c,
        };
        let stretches: Vec<_> = self
            .places
            .iter()
            .map(|place| {
                let longest = if self.filled.on_c().is_some() { OPEN_END_ON_CAKE_MIN } else { OPEN_END_MIN };
                let open_end = StandDocument { min: place.min.or(Some(longest)), ..*place };
                open_end.stretch(which, &stands)
            })
            .collect();
        let faces = |stretch: &crate::heat::Stretch| [stretch.top, stretch.side, stretch.bottom];
        let strongest = stretches
            .iter()
            .filter(|stretch| stretch.as_one.is_none())
            .flat_map(faces)
            .flatten()
            .map(|face| 1.0 / (1.0 / face.h + face.resistance))
            .fold(0.0, f64::max);
        // The latest is what lies still.
        let times = match which {
            LEAST => 1.0,
            _ if self.filled.kind() == VesselKind::Boxed => 1.0,
            _ => self.mass.carries(self.material, [start_c, self.ends_c()], self.filled.depth_m),
        };
        let material = if times > 1.0 { self.material.carrying(times) } else { self.material.clone() };
        let shaped = self.filled.shaped(material, [start_c, self.ends_c()], strongest);
        let met = stretches.into_iter().map(|stretch| shaped.meets(stretch)).collect();
        (shaped, met)
    }

    /// Its way with the least, the usual or the most heat transfer.
    pub fn course(&self, which: usize, until: Until) -> Course {
        let (shaped, stretches) = self.body(which);
        shaped.body().follow(&stretches, until)
    }

    /// The usual way past all of these and some time more, and then the latest and the soonest for as long.
    pub fn courses(&self, goals: &[(Watched, f64)], beyond: f64) -> Courses {
        // As warm as where it stands: nothing is waited for.
        let still = (self.begins.0[USUAL] - self.ends_c()).abs() < 2.0 * AS_GOOD_AS_K;
        let goals: Vec<(Watched, f64)> = match still {
            true => Vec::new(),
            false => goals.iter().map(|(watched, t_c)| (*watched, self.reachable(*t_c))).collect(),
        };
        let usual = self.course(USUAL, Until::Beyond(&goals, beyond, 0.0));
        let end_s = usual.moments[usual.moments.len() - 1].s;
        let [latest, soonest] =
            [LEAST, MOST].map(|which| self.course(which, Until::Beyond(&goals, 1.0, end_s)));
        Courses { soonest, usual, latest }
    }
}

/// The ways of a band.
pub struct Courses {
    /// With the most heat transfer, from the nearest start.
    pub soonest: Course,
    /// The usual.
    pub usual: Course,
    /// With the least, from the furthest start.
    pub latest: Course,
}

impl Courses {
    /// Minutes until a point comes to a temperature: soonest, usual, latest.
    pub fn time_to(&self, watched: Watched, t_c: f64) -> [Option<f64>; 3] {
        [&self.soonest, &self.usual, &self.latest].map(|course| Some(course.time_to(watched, t_c)? / 60.0))
    }
}
