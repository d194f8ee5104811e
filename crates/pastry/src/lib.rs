//! Pastry: what creams are made of, how they behave, and what they can do. Computation only: no
//! clock, disk, network, randomness or interface.
//!
//! Modules, from the ground up; each may use only those before it:
//! 1. [`belief`]: what is believed of how far a kitchen is off the book: numbers alone
//! 2. [`units`]: quantities as types, kitchen units, amounts as cooks write them
//! 3. [`ingredient`]: composition, catalogue, what a cup or a piece weighs
//! 4. [`formula`]: lines, family, the mixture they make, totals
//! 5. [`rheology`]: consistency from composition and temperature, with its band; warnings
//! 6. [`heat`]: what a mass holds at a temperature, and where parts put together come out
//! 7. [`job`]: ten jobs: windows from geometry, chance of being inside, the verdict
//! 8. [`bench_test`]: what a plate, a ring or a rod says of a cream, and which of them fits it
//! 9. [`learn`]: offsets from the kitchen's own tests, and which test would teach most
//! 10. [`assess`]: a formula as it comes from outside, and the whole answer to it
//! 11. [`balance`]: the smallest ways into the window, in grams, degrees and hours
//! 12. [`swap`]: one thing for another, the rest brought back round it
//! 13. [`scale`]: a batch in another size, and shares that add up
//! 14. [`clock`]: when it is cool, set, ready, in its vessel and where that stands
//! 15. [`method`]: schools of making as steps, and what choosing one changes
//! 16. [`stack`]: a cake to scale: how much of everything, and whether it stands
//! 17. [`order`]: its cakes, what to make, buy, label and pay for them
//! 18. [`day`]: from orders and a kitchen to a plan that makes everything ready together
//! 19. [`exchange`]: all documents out and in: whole, as recipes, as lists and tables
//! 20. [`rescue`]: from what is seen in the bowl to what to do, by additions only
//! 21. [`batch`]: a batch while it is made, as what happens to it
//! 22. [`log`]: what became of every batch, found again, beside each other, as files
//! 23. [`trainer`]: the eye trained on the kitchen's own formulas
//!
//! Below them all: [`fault`], [`caution`], and [`patience`], by which long work is called off,
//! [`spreadsheet`], cells that run nothing, [`number`], numbers as they are rounded and written,
//! [`field`], where a field of a document stands in words, [`zone`], the clock on a kitchen's wall, and [`changed`], what
//! changed between two documents.
//!
//! The path of one computation: [`assess::FormulaDocument`] (text from outside) →
//! [`formula::Formula::weigh`] (grams) → [`formula::Mixture`] (one composition) →
//! [`rheology::Predictor`] (ready for any temperature) → [`assess::assess()`] (the answer).

pub mod assess;
pub mod balance;
pub mod batch;
pub mod belief;
pub mod bench_test;
pub mod caution;
pub mod changed;
pub mod clock;
mod code;
pub mod day;
pub mod exchange;
pub mod fault;
pub mod field;
pub mod format;
pub mod formula;
pub mod heat;
pub mod ingredient;
pub mod job;
pub mod learn;
pub mod log;
pub mod method;
pub mod number;
pub mod order;
pub mod patience;
pub mod rescue;
pub mod rheology;
pub mod scale;
pub mod sponge;
pub mod spreadsheet;
pub mod stack;
pub mod swap;
pub mod trainer;
pub mod units;
pub mod zone;
