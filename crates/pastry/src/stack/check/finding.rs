//! What is found of a cake: a sentence with its number and its limit, the smallest mend, and the work to be put
//! on the Bench.

use crate::assess::document::Work;
use crate::code::codes;
use serde::Serialize;
use utoipa::ToSchema;

/// How a place stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Standing {
    /// It holds.
    Holds,
    /// Only just, or with care.
    Care,
    /// It does not.
    Trouble,
}

codes! {
    /// What is found of a cake.
    FindingCode {
        /// Nothing is left inside its rim.
        AllRim = "all_rim",
        /// The board is too small.
        Board = "board",
        /// The box is too low.
        BoxLow = "box_low",
        /// The box is too narrow.
        BoxNarrow = "box_narrow",
        /// A coat slides down the side.
        CoatSlides = "coat_slides",
        /// A coat stays on the side.
        CoatStays = "coat_stays",
        /// The collar is too low for what it holds.
        Collar = "collar",
        /// The ring of piped cream gives way.
        DamGivesWay = "dam_gives_way",
        /// The ring of piped cream holds.
        DamHolds = "dam_holds",
        /// The dowels carry.
        DowelsCarry = "dowels_carry",
        /// How long the drips are.
        DripLength = "drip_length",
        /// Drips run further than is wanted.
        DripLong = "drip_long",
        /// The drip melts the coat under it.
        DripMeltsCoat = "drip_melts_coat",
        /// Drips reach the board.
        DripReachesBoard = "drip_reaches_board",
        /// Drips stop sooner than is wanted.
        DripShort = "drip_short",
        /// Too few dowels carry.
        FewDowels = "few_dowels",
        /// A filling bears what stands on it.
        FillingBears = "filling_bears",
        /// A filling gives way.
        FillingGivesWay = "filling_gives_way",
        /// A filling tears the crumb when it is spread.
        FillingTears = "filling_tears",
        /// What film a glaze leaves.
        GlazeFilm = "glaze_film",
        /// An insert has no room where it lies.
        InsertTooLarge = "insert_too_large",
        /// More layers than are cut.
        ManyLayers = "many_layers",
        /// What was turned out gives way at its foot.
        MouldGivesWay = "mould_gives_way",
        /// What was turned out eats like rubber.
        MouldRubbery = "mould_rubbery",
        /// What was turned out sags.
        MouldSags = "mould_sags",
        /// What was turned out stands.
        MouldStands = "mould_stands",
        /// It holds what the order says it must not.
        MustNotBeInIt = "must_not_be_in_it",
        /// A tier stands on another without dowels.
        NoDowels = "no_dowels",
        /// A tier with nothing in it.
        NoLayers = "no_layers",
        /// A build without its time to rest.
        NoRest = "no_rest",
        /// A size that is missing.
        NoSize = "no_size",
        /// A layer without its thickness.
        NoThickness = "no_thickness",
        /// A sponge that nothing soaks.
        NotSoaked = "not_soaked",
        /// Two sponges with nothing between them.
        NothingBetween = "nothing_between",
        /// A tier stands out over the one below.
        Overhangs = "overhangs",
        /// What is piped slumps.
        PipedSlumps = "piped_slumps",
        /// What is piped stands.
        PipedStands = "piped_stands",
        /// What is piped does not go through the nozzle.
        PipedStiff = "piped_stiff",
        /// It cuts into fewer portions than were asked for.
        Portions = "portions",
        /// More in a vessel than it holds.
        RunsOver = "runs_over",
        /// The smoother is shorter than the side.
        Smoother = "smoother",
        /// A sponge stays dry inside.
        SoakDry = "soak_dry",
        /// A soak pools: more than the sponge holds.
        SoakPools = "soak_pools",
        /// A soak comes through to the coat.
        SoakReachesCoat = "soak_reaches_coat",
        /// A sponge is soaked right.
        SoakRight = "soak_right",
        /// A sponge is wetter than it may stand.
        SoakTooWet = "soak_too_wet",
        /// It is right for the spoon.
        SpoonRight = "spoon_right",
            /// It runs off the spoon.
            SpoonRuns = "spoon_runs",
        /// It is stiff to eat.
        SpoonStiff = "spoon_stiff",
        /// A place that has no formula.
        Unlinked = "unlinked",
        /// Something warm goes on something that it melts.
        WarmOnSoft = "warm_on_soft",
    }
}

/// One thing found.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Finding {
    /// Stable code.
    pub code: FindingCode,
    /// The place it is at: a path in the document.
    pub place: String,
    /// How it stands.
    pub standing: Standing,
    /// In one sentence, with its number.
    pub sentence: String,
    /// The number, where there is one.
    pub value: Option<f64>,
    /// Its limit.
    pub limit: Option<f64>,
    /// Unit of both.
    pub unit: Option<String>,
    /// The smallest change that mends it.
    pub mend: Option<Mend>,
    /// What to judge on the Bench.
    pub bench: Option<BenchWork>,
}

/// A change of the document that mends.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Mend {
    /// What to do, as on a button: "Set it to 6 mm".
    pub words: String,
    /// Where in the document; empty for what is done by hand or on the Bench.
    pub path: String,
    /// What to write there; absent takes it away.
    pub value: Option<serde_json::Value>,
}

/// A component with the work this place asks of it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BenchWork {
    /// Key of the component.
    pub component: String,
    /// The job as this place asks it.
    pub work: Work,
}

impl Finding {
    /// A finding with words alone.
    pub fn new(
        code: FindingCode,
        place: impl Into<String>,
        standing: Standing,
        sentence: impl Into<String>,
    ) -> Self {
        Finding {
            code,
            place: place.into(),
            standing,
            sentence: sentence.into(),
            value: None,
            limit: None,
            unit: None,
            mend: None,
            bench: None,
        }
    }

    /// With its number and its limit.
    pub fn of(mut self, value: f64, limit: f64, unit: &str) -> Self {
        use crate::number::digits;
        (self.value, self.limit, self.unit) =
            (Some(digits(value)), Some(digits(limit)), Some(unit.to_owned()));
        self
    }

    /// Its head, and what stands behind its colon; a colon inside one of the `names` in it parts nothing.
    pub fn parted(&self, names: &[String]) -> (&str, &str) {
        let sentence = self.sentence.as_str();
        let inside = |at: usize| {
            names.iter().filter(|name| name.contains(": ")).any(|name| {
                sentence
                    .match_indices(name.as_str())
                    .any(|(from, own)| (from..from + own.len()).contains(&at))
            })
        };
        let colon = sentence.match_indices(": ").map(|(at, _)| at).find(|at| !inside(*at));
        match colon {
            Some(at) => (&sentence[..at], &sentence[at + 2..]),
            None => (sentence.trim_end_matches('.'), ""),
        }
    }

    /// With a mend.
    pub fn mended(mut self, mend: Option<Mend>) -> Self {
        self.mend = mend;
        self
    }

    /// With the work for the Bench.
    pub fn on_the_bench(mut self, bench: Option<BenchWork>) -> Self {
        self.bench = bench;
        self
    }
}

impl Mend {
    /// Writes a value at a path.
    pub fn set(
        words: impl Into<String>,
        path: impl Into<String>,
        value: impl Into<serde_json::Value>,
    ) -> Self {
        Mend { words: words.into(), path: path.into(), value: Some(value.into()) }
    }

    /// Done by hand.
    pub fn by_hand(words: impl Into<String>) -> Self {
        Mend { words: words.into(), path: String::new(), value: None }
    }
}
