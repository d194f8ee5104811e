//! How a test is done, a minute each, in words (common practice, and the papers named in `reading`).

use crate::bench_test::test::BenchTestKind;
use serde::Serialize;
use utoipa::ToSchema;

/// How a test is done.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
#[schema(as = BenchGuide)]
pub struct Guide {
    /// What it is called.
    pub name: &'static str,
    /// What to take.
    pub take: &'static str,
    /// What to do, in order.
    pub steps: Vec<&'static str>,
    /// What to read.
    pub read: &'static str,
}

/// How a test is done.
pub fn guide(kind: BenchTestKind) -> Guide {
    match kind {
        BenchTestKind::PlateSpread => Guide {
            name: "plate spread",
            take: "A level plate or sheet of plastic, a small cup of known volume, a ruler.",
            steps: vec![
                "Fill the cup level with it, stirred as it will be used.",
                "Turn it out in the middle of the plate from a finger's height, all of it, in one go.",
                "Wait a minute. Do not tap.",
            ],
            read: "How wide it lies: the mean of two ways across",
        },
        BenchTestKind::RingSlump => Guide {
            name: "ring slump",
            take: "A ring 50 mm high on a plate, a palette knife, a ruler.",
            steps: vec![
                "Fill the ring without holes and draw it level.",
                "Lift the ring straight up, slowly, in five seconds.",
                "Wait half a minute.",
            ],
            read: "How far the top sank below the rim of the ring",
        },
        BenchTestKind::Tilt => Guide {
            name: "tilt of a layer",
            take: "A board or tray, a spirit level or a phone that shows an angle, a ruler.",
            steps: vec![
                "Spread a layer of even thickness over the middle of the board.",
                "Lift one end slowly, a degree a second.",
                "Stop at the first movement of the layer.",
            ],
            read: "The angle at which it moved",
        },
        BenchTestKind::SpoonFall => Guide {
            name: "spoon turned over",
            take: "A measuring spoon of 15 mL.",
            steps: vec![
                "Heap the spoon and draw it level.",
                "Turn it over, and hold it still for ten seconds.",
            ],
            read: "Whether it fell",
        },
        BenchTestKind::Rod => Guide {
            name: "rod",
            take: "A rod with a flat end, 10 mm wide, scales, a few weights.",
            steps: vec![
                "Stand the rod on it and hold it upright without pressing.",
                "Put weight on it, little by little.",
                "Stop when it sinks slowly, about as deep as it is wide.",
            ],
            read: "What stood on it in the end, with the rod",
        },
        BenchTestKind::DripLength => Guide {
            name: "drip length",
            take: "A cold tin or the cake itself, a spoon or bag with which you always dose alike, a ruler.",
            steps: vec![
                "Let one dose over the edge, as on the cake.",
                "Wait until it stands still.",
                "Do it three times, and take the middle one.",
            ],
            read: "How long the drip is, from the edge down",
        },
        BenchTestKind::CupFlow => Guide {
            name: "time through a funnel",
            take: "A funnel with a straight spout, a cup of known volume, a clock.",
            steps: vec![
                "Hold the funnel upright and keep it full to one height.",
                "Begin with the clock when the cup goes under it.",
                "Stop when the cup is full.",
            ],
            read: "How long the cup took to fill",
        },
        BenchTestKind::HeldWeight => Guide {
            name: "weight of a cup",
            take: "A cup of known volume, a scale, a palette knife.",
            steps: vec![
                "Weigh the cup empty, or set the scale to 0 with it.",
                "Fill it without holes, draw it level, wipe it outside.",
            ],
            read: "What is in it",
        },
    }
}
