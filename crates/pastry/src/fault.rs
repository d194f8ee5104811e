//! What is wrong with something from outside, where, and what to do.

use crate::code::codes;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

codes! {
    /// What is wrong with a field.
    FaultCode {
        /// Made later than it is eaten.
        AfterItIsEaten = "after_it_is_eaten",
        /// An answer to something that would be asked otherwise now.
        AskedOtherwise = "asked_otherwise",
        /// An amount that cannot be read.
        BadAmount = "bad_amount",
        /// Something for a batch that is closed.
        BatchClosed = "batch_closed",
        /// A batch that cannot be closed yet.
        BatchOpen = "batch_open",
        /// No word for money.
        BadCurrency = "bad_currency",
        /// No name a device can have.
        BadDevice = "bad_device",
        /// A key written with what a key cannot have.
        BadKey = "bad_key",
        /// No name, or one that is too long.
        BadName = "bad_name",
        /// No id a save can have.
        BadSaveId = "bad_save_id",
        /// No tag, or one that is too long.
        BadTag = "bad_tag",
        /// A row with more or fewer cells than its table.
        Cells = "cells",
        /// Shares that do not add up to the whole.
        DoesNotAddUp = "does_not_add_up",
        /// Judged in a state its job is not done in.
        HistoryOfAnotherJob = "history_of_another_job",
        /// Too many or too few of something.
        HowMany = "how_many",
        /// A job its family is not used for.
        JobOfAnotherFamily = "job_of_another_family",
        /// Two things by one key.
        KeyTwice = "key_twice",
        /// A lower limit above the upper one.
        LimitsCrossed = "limits_crossed",
        /// Gelatin without its Bloom strength.
        NoBloom = "no_bloom",
        /// A volume of something whose density is not known.
        NoDensity = "no_density",
        /// A formula with nothing in it.
        NoLines = "no_lines",
        /// Something made here that this kitchen does not have.
        MissingComponent = "missing_component",
        /// Something made here that goes into itself.
        MadeOfItself = "made_of_itself",
        /// Something made here that cannot be worked out itself.
        ComponentAmiss = "component_amiss",
        /// Components inside components inside components, deeper than is followed.
        TooDeep = "too_deep",
        /// Something that must have a name and has none.
        NoName = "no_name",
        /// A file that is no log.
        NoLogFile = "no_log_file",
        /// Something that no test bears on.
        NothingLearned = "nothing_learned",
        /// A file that holds no own ingredients.
        NoPantryFile = "no_pantry_file",
        /// A share of something that is not there.
        NoPercentBase = "no_percent_base",
        /// A count of something whose piece is not weighed.
        NoPieceWeight = "no_piece_weight",
        /// A size that is missing.
        NoSize = "no_size",
        /// Something that nothing is known to stand in for.
        NoStandIn = "no_stand_in",
        /// A line that is not there.
        NoSuchLine = "no_such_line",
        /// A device did not do what it was asked.
        NotDone = "not_done",
        /// Something that is no number.
        NotANumber = "not_a_number",
        /// One of the catalogue, where one of the kitchen's own is needed.
        NotOwn = "not_own",
        /// Neither yes nor no.
        NotYesOrNo = "not_yes_or_no",
        /// No line that is counted in pieces or packs.
        NothingCounted = "nothing_counted",
        /// Nothing to work with.
        NothingInIt = "nothing_in_it",
        /// None of what is asked about.
        NothingOfIt = "nothing_of_it",
        /// No more in the bowl than was wanted.
        NothingPoured = "nothing_poured",
        /// Nothing there is too little of.
        NothingShort = "nothing_short",
        /// Nothing that could be exchanged.
        NothingToSwap = "nothing_to_swap",
        /// No weight to start from.
        NothingWeighed = "nothing_weighed",
        /// A value outside what it can be.
        OutOfRange = "out_of_range",
        /// One goal at two ranks.
        RankedTwice = "ranked_twice",
        /// Exchanged for itself.
        TheSame = "the_same",
        /// Too many tiers, or none.
        Tiers = "tiers",
        /// A weight beyond what is weighed here.
        TooLarge = "too_large",
        /// A text that is too long.
        TooLong = "too_long",
        /// More than is read.
        TooMany = "too_many",
        /// More lines than a formula has.
        TooManyLines = "too_many_lines",
        /// A thing named twice in one list.
        Twice = "twice",
        /// No allergen on the list.
        UnknownAllergen = "unknown_allergen",
        /// A file of no format that is read here.
        UnknownFile = "unknown_file",
        /// A document of another format.
        UnknownFormat = "unknown_format",
        /// A shelf there is none of.
        UnknownGroup = "unknown_group",
        /// No ingredient by this key.
        UnknownIngredient = "unknown_ingredient",
        /// No origin on the list.
        UnknownOrigin = "unknown_origin",
        /// No sponge by this key.
        UnknownSponge = "unknown_sponge",
        /// A unit that is not known.
        UnknownUnit = "unknown_unit",
        /// A version of the format that is not known.
        UnknownVersion = "unknown_version",
        /// Something that cannot be read at all.
        Unreadable = "unreadable",
        /// A value of another kind than belongs there.
        WrongValue = "wrong_value",
    }
}

/// One thing wrong with what was asked, where it is, and what to do.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Fault {
    /// Path of the field: `lines.2.amount`.
    pub field: String,
    /// Stable code.
    pub code: FaultCode,
    /// What is wrong and what to do, in words.
    pub message: String,
}

impl Fault {
    /// A fault at a field.
    pub fn new(field: impl Into<String>, code: FaultCode, message: impl Into<String>) -> Self {
        Fault { field: field.into(), code, message: message.into() }
    }
}
