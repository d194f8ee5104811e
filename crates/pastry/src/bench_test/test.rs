//! What was done, and the one number that was read.

use crate::code::codes;
use crate::fault::{Fault, FaultCode};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

codes! {
    /// A test a cook can do.
    BenchTestKind {
        /// How far a measured volume spreads on a plate.
        PlateSpread = "plate_spread",
        /// How far a ring of it sinks when the ring is lifted.
        RingSlump = "ring_slump",
        /// At which angle a layer on a plate begins to move.
        Tilt = "tilt",
        /// Whether it falls from a spoon that is turned over.
        SpoonFall = "spoon_fall",
        /// Whether a rod with a weight on it sinks in.
        Rod = "rod",
        /// How long a drip runs.
        DripLength = "drip_length",
        /// How long a volume takes through the spout of a funnel.
        CupFlow = "cup_flow",
        /// What a cup of known volume weighs: how much air is in it.
        HeldWeight = "held_weight",
    }
}

/// A test, with what it was done with and what was read.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum BenchTest {
    /// A volume is let go on a level plate and read after a minute.
    PlateSpread {
        /// Volume, mL.
        #[schema(minimum = 5, maximum = 1000)]
        ml: f64,
        /// Read: how wide it lies, the mean of two ways across, mm.
        #[schema(minimum = 1, maximum = 1000)]
        across_mm: f64,
    },
    /// A ring is filled level, lifted, and what stands there is measured.
    RingSlump {
        /// Height of the ring, mm.
        #[schema(minimum = 10, maximum = 300)]
        high_mm: f64,
        /// Read: how far it sank, mm.
        #[schema(minimum = 0, maximum = 300)]
        sank_mm: f64,
    },
    /// A layer on a plate is tilted until it moves.
    Tilt {
        /// Thickness of the layer, mm.
        #[schema(minimum = 1, maximum = 60)]
        thick_mm: f64,
        /// Read: the angle at which it moves, degrees.
        #[schema(minimum = 0, maximum = 90)]
        degrees: f64,
    },
    /// A heaped spoon is turned over.
    SpoonFall {
        /// How much is on it, mL.
        #[schema(minimum = 1, maximum = 200)]
        ml: f64,
        /// What of the spoon it hangs on, cm².
        #[schema(minimum = 2, maximum = 200)]
        cm2: f64,
        /// Read: whether it fell within ten seconds.
        fell: bool,
    },
    /// A flat rod with a weight on it is set on it.
    Rod {
        /// Width of the rod, mm.
        #[schema(minimum = 3, maximum = 60)]
        wide_mm: f64,
        /// Read: with how much on it, its own weight too, it sinks slowly to about its width, g.
        #[schema(minimum = 1, maximum = 20000)]
        grams: f64,
    },
    /// A dose is let down the side of a tin, and the drip measured once it stands.
    DripLength {
        /// The dose, mL.
        #[schema(minimum = 0.1, maximum = 10)]
        dose_ml: f64,
        /// Temperature of the side, °C.
        #[schema(minimum = -20, maximum = 60)]
        side_c: f64,
        /// Read: its length, mm.
        #[schema(minimum = 1, maximum = 300)]
        long_mm: f64,
    },
    /// A volume runs out of the spout of a funnel that is kept full.
    CupFlow {
        /// Volume, mL.
        #[schema(minimum = 5, maximum = 2000)]
        ml: f64,
        /// Width of the spout, mm.
        #[schema(minimum = 1, maximum = 30)]
        spout_mm: f64,
        /// Length of the spout, mm.
        #[schema(minimum = 5, maximum = 300)]
        long_mm: f64,
        /// Height of it above the end of the spout while it runs, mm.
        #[schema(minimum = 10, maximum = 600)]
        head_mm: f64,
        /// Read: time, s.
        #[schema(minimum = 0.2, maximum = 3600)]
        seconds: f64,
    },
    /// A cup of known volume is filled level and weighed.
    HeldWeight {
        /// Volume of the cup, mL.
        #[schema(minimum = 10, maximum = 2000)]
        ml: f64,
        /// Read: what is in it, g.
        #[schema(minimum = 1, maximum = 4000)]
        grams: f64,
    },
}

impl BenchTest {
    /// Which it is.
    pub fn kind(&self) -> BenchTestKind {
        match self {
            BenchTest::PlateSpread { .. } => BenchTestKind::PlateSpread,
            BenchTest::RingSlump { .. } => BenchTestKind::RingSlump,
            BenchTest::Tilt { .. } => BenchTestKind::Tilt,
            BenchTest::SpoonFall { .. } => BenchTestKind::SpoonFall,
            BenchTest::Rod { .. } => BenchTestKind::Rod,
            BenchTest::DripLength { .. } => BenchTestKind::DripLength,
            BenchTest::CupFlow { .. } => BenchTestKind::CupFlow,
            BenchTest::HeldWeight { .. } => BenchTestKind::HeldWeight,
        }
    }

    /// The same with another number read; what it was done with stays. A spoon that fell says no number.
    pub fn with_read(self, to: f64) -> BenchTest {
        let mut own = self;
        match &mut own {
            BenchTest::PlateSpread { across_mm: read, .. }
            | BenchTest::RingSlump { sank_mm: read, .. }
            | BenchTest::Tilt { degrees: read, .. }
            | BenchTest::Rod { grams: read, .. }
            | BenchTest::DripLength { long_mm: read, .. }
            | BenchTest::CupFlow { seconds: read, .. }
            | BenchTest::HeldWeight { grams: read, .. } => *read = to,
            BenchTest::SpoonFall { .. } => {}
        }
        own
    }

    /// The number that was read; none of a spoon.
    pub fn was_read(&self) -> Option<f64> {
        match *self {
            BenchTest::PlateSpread { across_mm: read, .. }
            | BenchTest::RingSlump { sank_mm: read, .. }
            | BenchTest::Tilt { degrees: read, .. }
            | BenchTest::Rod { grams: read, .. }
            | BenchTest::DripLength { long_mm: read, .. }
            | BenchTest::CupFlow { seconds: read, .. }
            | BenchTest::HeldWeight { grams: read, .. } => Some(read),
            BenchTest::SpoonFall { .. } => None,
        }
    }

    /// What was done and read, in words.
    pub fn words(&self) -> String {
        match *self {
            BenchTest::PlateSpread { ml, across_mm } => {
                format!("Plate: {ml:.0} mL lie {across_mm:.0} mm wide")
            }
            BenchTest::RingSlump { high_mm, sank_mm } => {
                format!("Ring: {sank_mm:.0} of {high_mm:.0} mm sunk")
            }
            BenchTest::Tilt { thick_mm, degrees } => {
                format!("Tilt: {thick_mm:.0} mm move at {degrees:.0} degrees")
            }
            BenchTest::SpoonFall { ml, fell, .. } => {
                format!("Spoon with {ml:.0} mL turned over: it {}", if fell { "fell" } else { "hung" })
            }
            BenchTest::Rod { wide_mm, grams } => {
                format!("Rod of {wide_mm:.0} mm sinks with {grams:.0} g on it")
            }
            BenchTest::DripLength { dose_ml, long_mm, .. } => {
                format!("Drip of {dose_ml:.1} mL: {long_mm:.0} mm long")
            }
            BenchTest::CupFlow { ml, seconds, .. } => format!("Funnel: {ml:.0} mL in {seconds:.1} s"),
            BenchTest::HeldWeight { ml, grams } => format!("Cup of {ml:.0} mL holds {grams:.0} g"),
        }
    }

    /// What cannot have been read, at its field, with what can.
    pub fn faults(&self) -> Vec<Fault> {
        let mut faults = Vec::new();
        let mut must = |field: &str, is: f64, [from, to]: [f64; 2], words: &str| {
            if !(from..=to).contains(&is) {
                faults.push(Fault::new(field, FaultCode::OutOfRange, words));
            }
        };
        match *self {
            BenchTest::PlateSpread { ml, across_mm } => {
                must("ml", ml, [5.0, 1000.0], "write what went on the plate, from 5 to 1000 mL");
                // What does not spread at all lies like a ball of its volume.
                let ball_mm = 10.0 * (6.0 * ml / std::f64::consts::PI).cbrt();
                let words = format!(
                    "{ml:.0} mL cannot lie {across_mm:.0} mm wide: even a ball of it is {ball_mm:.0} mm; measure across the whole of it"
                );
                must("across_mm", across_mm, [ball_mm, 1000.0], &words);
            }
            BenchTest::RingSlump { high_mm, sank_mm } => {
                must("high_mm", high_mm, [10.0, 300.0], "write how high the ring is, from 10 to 300 mm");
                let words = format!(
                    "it cannot sink further than the ring is high: write from 0 to {high_mm:.0} mm, measured from the rim of the ring down"
                );
                must("sank_mm", sank_mm, [0.0, high_mm - 0.5], &words);
            }
            BenchTest::Tilt { thick_mm, degrees } => {
                must("thick_mm", thick_mm, [1.0, 60.0], "write how thick the layer is, from 1 to 60 mm");
                must(
                    "degrees",
                    degrees,
                    [1.0, 90.0],
                    "write the angle at which it moved, from 1 to 90 degrees",
                );
            }
            BenchTest::SpoonFall { ml, cm2, .. } => {
                must("ml", ml, [1.0, 200.0], "write how much was on the spoon, from 1 to 200 mL");
                must("cm2", cm2, [2.0, 200.0], "write what of the spoon it hung on, from 2 to 200 cm²");
            }
            BenchTest::Rod { wide_mm, grams } => {
                must("wide_mm", wide_mm, [3.0, 60.0], "write how wide the rod is, from 3 to 60 mm");
                must(
                    "grams",
                    grams,
                    [1.0, 20_000.0],
                    "write what stood on the rod, with the rod, from 1 g to 20 kg",
                );
            }
            BenchTest::DripLength { dose_ml, side_c, long_mm } => {
                must("dose_ml", dose_ml, [0.1, 10.0], "write the dose, from 0.1 to 10 mL");
                must("side_c", side_c, [-20.0, 60.0], "write how cold the side was, from −20 to 60 °C");
                must("long_mm", long_mm, [1.0, 300.0], "write how long the drip is, from 1 to 300 mm");
            }
            BenchTest::CupFlow { ml, spout_mm, long_mm, head_mm, seconds } => {
                must("ml", ml, [5.0, 2000.0], "write what ran out, from 5 to 2000 mL");
                must("spout_mm", spout_mm, [1.0, 30.0], "write how wide the spout is, from 1 to 30 mm");
                must("long_mm", long_mm, [5.0, 300.0], "write how long the spout is, from 5 to 300 mm");
                must(
                    "head_mm",
                    head_mm,
                    [10.0, 600.0],
                    "write how high it stood above the end of the spout, from 10 to 600 mm",
                );
                must("seconds", seconds, [0.2, 3600.0], "write how long it took, from 0.2 s to an hour");
            }
            BenchTest::HeldWeight { ml, grams } => {
                must("ml", ml, [10.0, 2000.0], "write what the cup holds, from 10 to 2000 mL");
                let words = format!(
                    "{ml:.0} mL of a cream weigh from {:.0} to {:.0} g: weigh the cup empty, and only what is in it",
                    0.1 * ml,
                    1.6 * ml
                );
                must("grams", grams, [0.1 * ml, 1.6 * ml], &words);
            }
        }
        faults
    }
}
