//! What is found of a cake: a sentence with its number and its limit, the smallest mend, and the work to be put
//! on the Bench.

use crate::assess::document::Work;
use crate::code::codes;
use crate::stack::address::Address;
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
        /// A cream that stands too far from what was checked.
        NotKnown = "not_known",
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
        /// A case that leaves nothing to be filled.
        NoHollow = "no_hollow",
        /// What is crisp softens beside what is wet.
        Softens = "softens",
        /// What is crisp stays so beside what is wet.
        StaysCrisp = "stays_crisp",
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
    #[schema(value_type = String)]
    pub place: Address,
    /// How it stands.
    pub standing: Standing,
    /// In one sentence, with its number.
    pub sentence: String,
    /// The same in two parts, for a verdict; `sentence` is both, with a colon between.
    #[serde(skip)]
    #[schema(ignore)]
    pub said: Said,
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

/// A sentence in two parts: what is the matter, and why or how much.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Said {
    /// What is the matter, without a full stop.
    pub head: String,
    /// Why or how much, with its full stop; empty when the head says all.
    pub rest: String,
}

impl Said {
    /// With what stands behind the colon.
    pub fn with(head: impl Into<String>, rest: impl Into<String>) -> Self {
        Said { head: head.into(), rest: rest.into() }
    }

    /// Both in one sentence.
    pub fn sentence(&self) -> String {
        if self.rest.is_empty() { format!("{}.", self.head) } else { format!("{}: {}", self.head, self.rest) }
    }
}

impl From<String> for Said {
    fn from(sentence: String) -> Self {
        Said { head: sentence.trim_end_matches('.').to_owned(), rest: String::new() }
    }
}

/// A change of the document that mends: one step of undo, however many places it writes.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Mend {
    /// What to do, as on a button: "Set it to 6 mm".
    pub words: String,
    /// What to write, in this order; nothing for what is done by hand or on the Bench.
    pub writes: Vec<Write>,
}

/// One place of the document and what to write there.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Write {
    /// Where in the document.
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
    pub fn new(code: FindingCode, place: Address, standing: Standing, said: impl Into<Said>) -> Self {
        let said = said.into();
        Finding {
            code,
            place,
            standing,
            sentence: said.sentence(),
            said,
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
        Mend { words: words.into(), writes: Vec::new() }.and(path, value)
    }

    /// And another place with it.
    pub fn and(mut self, path: impl Into<String>, value: impl Into<serde_json::Value>) -> Self {
        self.writes.push(Write { path: path.into(), value: Some(value.into()) });
        self
    }

    /// Done by hand.
    pub fn by_hand(words: impl Into<String>) -> Self {
        Mend { words: words.into(), writes: Vec::new() }
    }
}
