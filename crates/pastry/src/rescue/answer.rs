//! From a sign to remedies for one bowl.

use crate::assess::document::FormulaDocument;
use crate::caution::{Caution, CautionAnswer};
use crate::fault::{Fault, FaultCode};
use crate::formula::Family;
use crate::formula::egg_heat::{EggKind, safe};
use crate::ingredient::Role;
use crate::ingredient::Shelf;
use crate::number::limit;
use crate::rescue::bowl::Bowl;
use crate::rescue::remedy::{Deed, Remedy, find_remedy, remedies};
use crate::rescue::report::{RemedyAnswer, Rescue, TellAnswer};
use crate::rescue::sign::Sign;
use crate::rescue::signal::Signal;
use crate::rescue::step::work_out;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What is seen, and in what.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RescueAsk {
    /// The formula as it was made.
    pub document: FormulaDocument,
    /// What is seen.
    pub sign: Sign,
    /// How warm the bowl is, °C; none when nobody probed it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -30, maximum = 220)]
    pub bowl_c: Option<f64>,
    /// What is really in the bowl, g; all of the formula when none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(exclusive_minimum = 0, maximum = 1000000)]
    pub bowl_g: Option<f64>,
    /// Keys of ingredients that are not at hand.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 60)]
    pub not_at_hand: Vec<String>,
}

/// A remedy that the numbers speak for weighs this much more than one meant for the family by name.
const FIRED_WEIGHT: i32 = 4;
/// Most remedies that are not look-alikes.
const MOST_REMEDIES: usize = 5;

/// Signs that have a remedy for a family and a job, in the order they are offered.
pub fn signs_for(family: Family, job: &str) -> Vec<Sign> {
    let meant = |remedy: &&Remedy| fits_job(remedy, job) && remedy.fits(family).is_some();
    let of: Vec<&Remedy> = remedies().iter().filter(meant).collect();
    Sign::ALL.into_iter().filter(|sign| of.iter().any(|remedy| remedy.signs.contains(sign))).collect()
}

fn fits_job(remedy: &Remedy, job: &str) -> bool {
    remedy.jobs.is_empty() || remedy.jobs.iter().any(|own| own == job)
}

/// Remedies for a bowl.
///
/// Ranked by the signals that the numbers give, then by how closely the table means this family, this job
/// and this sign, then by the table's order. Amounts are solved for what is in the bowl; where the numbers
/// see nothing wrong, the trade's first amount stands, half of it first.
///
/// # Errors
/// Faults of the document; a temperature or a weight that no bowl has.
pub fn rescue(ask: &RescueAsk, shelf: &Shelf) -> Result<Rescue, Vec<Fault>> {
    let document_faults = ask.document.faults();
    if !document_faults.is_empty() {
        return Err(document_faults);
    }
    if let Some(t) = ask.bowl_c.filter(|t| !(-30.0..=220.0).contains(t)) {
        let message = format!("{} °C is no temperature of a bowl: probe it again, or leave it out", limit(t));
        return Err(vec![Fault::new("bowl_c", FaultCode::OutOfRange, message)]);
    }
    let bowl = Bowl::of(&ask.document, shelf, ask.bowl_g, ask.bowl_c)?;
    let mut chosen: Vec<(i32, usize, &Remedy)> = remedies()
        .iter()
        .enumerate()
        .filter(|(_, remedy)| {
            remedy.signs.contains(&ask.sign) && fits_job(remedy, ask.document.work.job.word())
        })
        .filter(|(_, remedy)| remedy.only.iter().all(|signal| signal.says(&bowl).is_some()))
        .filter_map(|(at, remedy)| {
            let fits = i32::from(remedy.fits(ask.document.family)?);
            let first = remedy.signs.iter().position(|sign| *sign == ask.sign).unwrap_or(9) as i32;
            // A filling that the cook sees slide is loose, whatever the numbers say.
            let filled = ask.document.work.job.word() == "fill";
            let seen = |signal: &Signal| filled && *signal == Signal::Loose && ask.sign == Sign::Slides;
            let fires = |signal: &&Signal| seen(signal) || signal.says(&bowl).is_some();
            let fired: i32 = remedy.when.iter().filter(fires).map(|signal| signal.weight()).sum();
            let known = remedy.when.iter().any(|signal| signal.known(&bowl));
            let silent = i32::from(!remedy.when.is_empty() && known && fired == 0);
            let score = FIRED_WEIGHT * fired.min(1) + fired - 2 * silent + 2 * fits - 2 * first
                + i32::from(!remedy.jobs.is_empty());
            Some((score, at, remedy))
        })
        .collect();
    chosen.sort_by_key(|(score, at, _)| (std::cmp::Reverse(*score), *at));
    let mut listed: Vec<&Remedy> =
        chosen.into_iter().take(MOST_REMEDIES).map(|(.., remedy)| remedy).collect();
    let own = listed.len();
    let mut at = 0;
    while at < listed.len() {
        let no = listed[at].tell.as_ref().and_then(|tell| find_remedy(&tell.no));
        if let Some(other) = no.filter(|other| !listed.iter().any(|known| known.id == other.id)) {
            listed.push(other);
        }
        at += 1;
    }
    let perishable = bowl.lines.iter().any(|line| {
        let own = &line.ingredient;
        own.is(Role::Dairy) || own.is(Role::Egg)
    });
    let raw = bowl.lines.iter().any(|l| l.mass.grams() > 0.0 && l.ingredient.flags.raw_egg)
        && bowl
            .options
            .cooks
            .raw_egg
            .or(bowl.options.cook_c)
            .is_none_or(|cook| !safe(EggKind::of(&bowl.lines), cook, bowl.options.held_min));
    let mut cautions: Vec<Caution> = Vec::new();
    cautions.extend(perishable.then_some(Caution::Cold));
    cautions.extend(raw.then_some(Caution::RawEgg));
    cautions.push(Caution::Discard);
    Ok(Rescue {
        sign: ask.sign,
        sign_words: ask.sign.words().to_owned(),
        bowl_g: bowl.grams(),
        numbers_say: numbers_say(&bowl, ask.sign),
        remedies: listed
            .into_iter()
            .enumerate()
            .map(|(k, remedy)| remedy_answer(remedy, &bowl, shelf, ask, k >= own))
            .collect(),
        cautions: cautions.into_iter().map(CautionAnswer::from).collect(),
    })
}

/// Whether the numbers say the opposite of what is seen.
fn doubts(bowl: &Bowl, sign: Sign) -> bool {
    let beyond = bowl.beyond();
    matches!(sign, Sign::TooStiff | Sign::PullsCrumbs) && beyond < 0.0
        || matches!(sign, Sign::TooLoose | Sign::Soupy | Sign::Slides) && beyond > 0.0
}

/// What the prediction says beside what is seen.
fn numbers_say(bowl: &Bowl, sign: Sign) -> String {
    let (here, worked) = (limit(bowl.judged_c()), limit(bowl.asked().t_c));
    let beyond = bowl.beyond();
    let verb = bowl.document.work.job.verb();
    let doubts = doubts(bowl, sign);
    let word = if beyond > 0.0 { "too stiff" } else { "too loose" };
    let warmth = bowl.edges.inside && here != worked;
    if !bowl.edges.known {
        "What it should do is not known here by numbers. What you see counts: take half of an amount, then look.".to_owned()
    } else if bowl.edges.barred {
        format!("By the numbers it cannot {verb} at {worked} °C as it is.")
    } else if doubts {
        "The numbers say the opposite of what you see. What you see counts: probe it, weigh it, take half of an amount, then look.".to_owned()
    } else if beyond != 0.0 && warmth {
        format!(
            "By the numbers it is {word} to {verb} at the {here} °C of the bowl; at {worked} °C it would be right."
        )
    } else if beyond != 0.0 {
        format!("By the numbers it is {word} to {verb} at {here} °C.")
    } else {
        format!(
            "By the numbers it should {verb} at {here} °C. What you see counts: take half of an amount, then look."
        )
    }
}

fn remedy_answer(
    remedy: &Remedy,
    bowl: &Bowl,
    shelf: &Shelf,
    ask: &RescueAsk,
    look_alike: bool,
) -> RemedyAnswer {
    // Heat stays: what comes after it is worked out for the bowl it leaves.
    let mut heated: Option<Bowl> = None;
    let mut steps = Vec::with_capacity(remedy.steps.len());
    let doubted = doubts(bowl, ask.sign);
    for step in &remedy.steps {
        let answer = work_out(step, heated.as_ref().unwrap_or(bowl), shelf, &ask.not_at_hand, doubted);
        let cooked = answer.deed == Deed::Warm && answer.aim_c.is_none();
        if let Some(document) = answer.document.as_ref().filter(|_| cooked) {
            heated = Bowl::of(document, shelf, None, bowl.t_c).ok();
        }
        steps.push(answer);
    }
    RemedyAnswer {
        id: remedy.id.clone(),
        seen: remedy.seen.clone(),
        cause: remedy.cause.clone(),
        fired: remedy.when.iter().filter_map(|signal| signal.says(bowl)).collect(),
        tell: remedy.tell.as_ref().and_then(|tell| {
            let other = find_remedy(&tell.no)?;
            Some(TellAnswer { ask: tell.ask.clone(), no: other.id.clone(), no_seen: other.seen.clone() })
        }),
        steps,
        worked: remedy.worked.clone(),
        stop: remedy.stop.clone(),
        becomes: remedy.becomes.clone(),
        prevent: remedy.prevent.clone(),
        cautions: remedy.cautions.iter().copied().map(CautionAnswer::from).collect(),
        source: remedy.source().to_owned(),
        look_alike,
    }
}
