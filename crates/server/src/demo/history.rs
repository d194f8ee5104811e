//! Three months of the invented kitchen, made up by dice that fall the same every time: what was made, weighed, timed and judged.
//!
//! The kitchen has a truth that differs from the book (an oven of its own, chocolate of its own): how a batch came out follows from
//! that truth and the scatter of every batch, and nothing here is told to what predicts.

use super::bench::tested;
use super::{shelf, written};
use fastrand::Rng;
use jiff::{SignedDuration, Timestamp};
use pastry::assess::FormulaDocument;
use pastry::assess::Ready;
use pastry::assess::ready::bearing;
use pastry::assess::spoon_sign::SpoonSign;
use pastry::batch::{BatchAsk, BatchDocument, BatchEvent, Came, OverWay, ReadBy};
use pastry::belief::Offset;
use std::collections::HashMap;
use std::sync::LazyLock;
use store::batch::WholeBatch;
use store::journal::NewEvent;
use store::{By, Device, SaveId, Store, StoreError};

/// The dice.
const SEED: u64 = 20_261;
/// How many batches there are.
pub const BATCHES: usize = 64;
/// Over how many days.
const DAYS: i64 = 91;
/// Of them, so many were written in afterwards.
const WRITTEN_IN: usize = 5;
/// The files of what this kitchen makes, with how often.
const MAKES: [(&str, usize); 15] = [
    ("03-harbour-mask", 9),
    ("01-bay-milk-drip", 5),
    ("02-ember-dark-glaze", 4),
    ("07-chestnut-honey-fill", 3),
    ("05-smoked-tea-fill", 3),
    ("06-saffron-white-mask", 3),
    ("09-smoked-salt-whipped", 6),
    ("10-wall-buttercream", 9),
    ("11-cardamom-swiss", 3),
    ("13-saffron-french", 2),
    ("17-sunday-cream", 2),
    ("20-blackcurrant-domes", 1),
    ("25-daily-pastry-cream", 6),
    ("30-sharp-citrus-curd", 6),
    ("32-brandy-soak", 2),
];
/// ln of what this kitchen's masses are over the book's: all of them.
const KITCHEN: f64 = 0.03;
/// And of some families.
const FAMILIES: [(&str, f64); 6] = [
    ("ganache", 0.02),
    ("buttercream", -0.34),
    ("swiss_buttercream", -0.3),
    ("whipped_ganache", 0.34),
    ("pastry_cream", -0.34),
    ("curd", 0.34),
];
/// And by what goes in.
const INGREDIENTS: [(&str, f64); 4] =
    [("dark70", 0.26), ("milk40", 0.16), ("butter82", -0.2), ("cream36", 0.02)];
/// Of so many batches the test of one is read wrong, by so much either way in turn, ln.
const WILD: (usize, f64) = (20, 2.7);
/// A batch that is so much stiffer than predicted, or looser, is said to be.
const FELT: f64 = 0.5;

/// Something that was made.
struct Past {
    component: String,
    document: BatchDocument,
    begun: Timestamp,
    device: &'static str,
    events: Vec<(i64, BatchEvent)>,
}

/// A number from the standard normal distribution: Box and Muller.
fn normal(dice: &mut Rng) -> f64 {
    (-2.0 * (1.0 - dice.f64()).ln()).sqrt() * (std::f64::consts::TAU * dice.f64()).cos()
}

/// ln of what this kitchen really makes of a formula over the book, but for the scatter of a batch; and that scatter's variance.
fn truth(document: &FormulaDocument, ready: &Ready) -> (f64, f64) {
    let at = (document.work.temperature_c.celsius(), document.history());
    let [of_yield, _] = bearing(&ready.lines, document.family, &ready.options, at);
    let off = |offset: &Offset| match offset {
        Offset::Kitchen {} => KITCHEN,
        Offset::Family { family } => FAMILIES.iter().find(|own| own.0 == family).map_or(0.0, |own| own.1),
        Offset::Ingredient { ingredient } => {
            INGREDIENTS.iter().find(|own| own.0 == ingredient).map_or(0.0, |own| own.1)
        }
        Offset::Past { .. } => 0.0,
    };
    (of_yield.weights.iter().map(|(offset, weight)| weight * off(offset)).sum(), of_yield.scatter)
}

/// How a batch came out, as a cook says it.
fn judged(off: f64, dice: &mut Rng) -> BatchEvent {
    let one = |dice: &mut Rng, all: &[&str]| all[dice.usize(..all.len())].to_owned();
    let (came, spoon, words) = match (off, dice.f64()) {
        (_, lucky) if lucky < 0.025 => (
            Came::Split,
            None,
            one(dice, &["oil on top after the stick blender", "broke when the cream went in cold"]),
        ),
        (_, lucky) if lucky < 0.045 => (Came::Grainy, None, one(dice, &["sandy, the butter was too cold"])),
        (_, lucky) if lucky < 0.055 => (Came::Thrown, None, one(dice, &["left out over night"])),
        (off, _) if off > FELT => (
            Came::Stiff,
            Some(SpoonSign::HoldsUpsideDown),
            one(dice, &["had to warm the palette knife", "tore the crumb", "would not level", ""]),
        ),
        (off, _) if off < -FELT => (
            Came::Loose,
            Some(SpoonSign::SlowRope),
            one(dice, &["ran to the board", "sagged at the corner", "another hour in the cold helped", ""]),
        ),
        _ => (Came::Good, None, one(dice, &["", "", "", "level by itself", "the one for Friday", "smooth"])),
    };
    BatchEvent::Judged { came, spoon, words }
}

/// Which lot of an ingredient stood there on a day: a new one every three weeks.
fn lot(ingredient: &str, day: i64) -> Option<String> {
    let letter = match ingredient {
        "dark70" => 'D',
        "milk40" => 'M',
        "cream36" => 'C',
        _ => return None,
    };
    Some(format!("{letter}-{:02}", 40 + day.div_euclid(21)))
}

/// Everything that was said while a batch was made, with the second of its making it was said at.
fn course(document: &BatchDocument, off: f64, day: i64, dice: &mut Rng) -> Vec<(i64, BatchEvent)> {
    let mut events = Vec::new();
    let mut second = 0;
    for (line, own) in document.formula.lines.iter().enumerate() {
        let planned = document.planned_g(line).unwrap_or(0.0);
        second += dice.i64(25..90);
        // A hand that pours: a few per mille; once in a while a slip that stays.
        let slip = planned > 25.0 && dice.f64() < 0.06;
        let by = if slip { 0.03 + 0.04 * dice.f64() } else { 0.002 * normal(dice) };
        let digits = if planned < 20.0 { 10.0 } else { 1.0 };
        let grams = (digits * planned * (1.0 + by)).round() / digits;
        if grams <= 0.0 {
            continue;
        }
        let lot = lot(&own.ingredient, day);
        events.push((second, BatchEvent::Weighed { line, grams, by: ReadBy::Device, lot }));
        if slip {
            second += 10;
            events.push((second, BatchEvent::Decided { line, way: OverWay::Leave, factor: None }));
        }
    }
    // This kitchen is slower with its hands than the method says, and every time a little otherwise.
    for own in &document.steps {
        let usual = own.minutes[0].max(0.5) + 0.5 * (own.minutes[1] - own.minutes[0]).max(0.0);
        let took = usual * (0.22 + 0.2 * normal(dice)).exp();
        second += dice.i64(5..40);
        events.push((second, BatchEvent::Begun { step: own.key.clone() }));
        second += (60.0 * took).round() as i64;
        if let Some([from, to]) = own.temperature_c {
            let c = (10.0 * (0.5 * (from + to) + 0.6 * normal(dice))).round() / 10.0;
            events.push((second - 1, BatchEvent::Read { c, by: ReadBy::Device }));
        }
        events.push((second, BatchEvent::Done { step: own.key.clone() }));
    }
    let all: f64 = (0..document.formula.lines.len()).filter_map(|line| document.planned_g(line)).sum();
    second += 60;
    let out = (all * (0.985 - 0.01 * dice.f64())).round();
    events.push((second, BatchEvent::Yielded { grams: out }));
    events.push((second + 20, judged(off, dice)));
    events.push((second + 25, BatchEvent::Closed {}));
    events
}

/// A formula as this kitchen makes it.
struct Made {
    document: BatchDocument,
    ready: Ready,
    level: f64,
    scatter: f64,
}

/// Each formula of the history by its file: begun once, however often it was made.
static MADE: LazyLock<HashMap<&'static str, Made>> = LazyLock::new(|| {
    let shelf = shelf();
    let written: HashMap<String, FormulaDocument> =
        written().expect("the demo formulas are formulas").into_iter().collect();
    let one = |(file, _): &(&'static str, usize)| {
        let formula = written.get(*file)?;
        let ready = Ready::of(formula, &shelf).ok()?;
        let (level, scatter) = truth(formula, &ready);
        let ask = BatchAsk {
            formula: formula.clone(),
            weigh_g: None,
            component: None,
            revision: Some(1),
            made_for: Vec::new(),
            made_at: None,
        };
        let document = BatchDocument::begin(ask, &shelf, &[]).expect("the demo formula can be made");
        Some((*file, Made { document, ready, level, scatter }))
    };
    MAKES.iter().filter_map(one).collect()
});

/// What is made on which day: every formula as often as it is made, in an order the dice say.
fn turns(dice: &mut Rng) -> Vec<(i64, &'static str)> {
    let mut files: Vec<&'static str> =
        MAKES.iter().flat_map(|(file, often)| std::iter::repeat_n(*file, *often)).take(BATCHES).collect();
    dice.shuffle(&mut files);
    let many = files.len() as i64;
    // The last of them yesterday.
    files.into_iter().enumerate().map(|(at, file)| (1 + DAYS * (many - 1 - at as i64) / many, file)).collect()
}

/// Writes the history, up to yesterday.
///
/// # Arguments
/// * `key`: of the component that was saved from a file.
///
/// # Errors
/// When the file fails.
pub async fn write(
    store: &Store,
    now: Timestamp,
    key: impl Fn(&str) -> Option<String>,
) -> Result<(), StoreError> {
    let mut dice = Rng::with_seed(SEED);
    let turns = turns(&mut dice);
    let mut all = Vec::with_capacity(turns.len());
    for (at, (days, file)) in turns.into_iter().enumerate() {
        let (Some(component), Some(made)) = (key(file), MADE.get(file)) else { continue };
        let off = made.level + made.scatter.sqrt() * normal(&mut dice);
        let hour = SignedDuration::from_mins(dice.i64(6 * 60..14 * 60));
        let midnight = Timestamp::from_second(now.as_second().div_euclid(86_400) * 86_400).unwrap_or(now);
        let mut when = midnight - SignedDuration::from_hours(24 * days) + hour;
        let afterwards = at % (BATCHES / WRITTEN_IN) == 3;
        let mut document = BatchDocument { component: Some(component.clone()), ..made.document.clone() };
        let mut events = if afterwards {
            document.made_at = Some(when);
            vec![(0, judged(off, &mut dice))]
        } else {
            course(&document, off, days, &mut dice)
        };
        // Every second one is tested, before anybody says how it came out.
        let wild = match at % WILD.0 {
            10 if (at / WILD.0).is_multiple_of(2) => WILD.1,
            10 => -WILD.1,
            _ => 0.0,
        };
        if at % 2 == 0
            && let Some(test) = tested(&made.document.formula, &made.ready, (off, wild), &mut dice, normal)
        {
            let place = events.iter().position(|own| matches!(own.1, BatchEvent::Judged { .. }));
            let place = place.unwrap_or(events.len());
            let second = events.get(place).map_or(0, |own| own.0);
            events.insert(place, (second, test));
        }
        // What takes a night was begun as many days earlier: all of it is over.
        let over = SignedDuration::from_secs(events.last().map_or(0, |own| own.0) + 60);
        while !afterwards && when + over > now {
            when -= SignedDuration::from_hours(24);
        }
        let device = if dice.f64() < 0.7 { "Mixer tablet" } else { "Cold room tablet" };
        all.push(kept(at, Past { component, document, begun: when, device, events }));
    }
    store.keep_whole(&all).await
}

fn kept(at: usize, past: Past) -> WholeBatch {
    let device = Device::read(past.device);
    let key = format!("demo-batch-{at:03}-of-{}", past.component.split('-').next_back().unwrap_or_default());
    let last = past.events.last().map_or(0, |own| own.0);
    let one = |(number, (second, event)): (usize, (i64, BatchEvent))| {
        let id = SaveId::read(&format!("{key}-{number}"))?;
        Some((device.clone(), NewEvent { id, at: past.begun + SignedDuration::from_secs(second), event }))
    };
    let events = past.events.into_iter().enumerate().filter_map(one).collect();
    let by = By::at(past.begun + SignedDuration::from_secs(last + 1)).on(device.clone());
    WholeBatch { events, document: Some(past.document), made: true, by, key }
}
