//! The command line's plans: of a problem as it is written, or of orders in a kitchen.

use super::{Told, bytes_of, lines, read, read_any_json, refused, with_nothing, written};
use crate::body::parse;
use crate::calendar::calendar;
use clap::Args;
use jiff::civil::DateTime;
use pastry::day::sheet::as_text;
use pastry::day::{KitchenDocument, PlanDocument, PlannedOrder, Sharing, ToPlan, compile, view};
use pastry::order::OrderDocument;
use pastry::zone::Zone;
use plan::answer::{Answer, plan};
use plan::problem::{Problem, Problems, Reserve};
use plan::replan::{Event, Level, event_faults, replan};
use plan::search::Budget;
use serde::de::DeserializeOwned;
use serde_json::Value;
use std::path::{Path, PathBuf};
use store::kept::Revision;

/// What to plan, and how.
#[derive(Debug, Args)]
pub struct Plan {
    /// Orders that bring their formulas, or one file of problems (bright-spoon-plan-1); - reads standard input.
    #[arg(required = true)]
    pub files: Vec<PathBuf>,
    /// The kitchen they are made in (bright-spoon/kitchen); a usual one of one cook when not said.
    #[arg(long)]
    pub kitchen: Option<PathBuf>,
    /// Nothing begins before this, on the kitchen's wall: 2026-12-01T07:00. Now when not said.
    #[arg(long)]
    pub from: Option<DateTime>,
    /// Time zone of the kitchen.
    #[arg(long, default_value = "UTC")]
    pub zone: String,
    /// Print the problem the orders make, and do not plan it.
    #[arg(long)]
    pub problem: bool,
    /// Minutes held back before each serving; 0 holds nothing back. The kitchen's own when not said.
    #[arg(long)]
    pub reserve: Option<i32>,
    /// Points for each time a cook goes on with something else.
    #[arg(long)]
    pub switch: Option<i32>,
    /// Seed of the search: the same seed, the same plan.
    #[arg(long)]
    pub seed: Option<u64>,
    /// Look four times as long.
    #[arg(long)]
    pub longer: bool,
    /// Print the plan as a calendar (RFC 5545).
    #[arg(long, conflicts_with_all = ["problem", "sheet", "replan"])]
    pub ics: bool,
    /// Print the run sheets, one a cook and day, as text.
    #[arg(long, conflicts_with_all = ["problem", "replan"])]
    pub sheet: bool,
    /// What happened meanwhile: the plan is made, then bent to it.
    #[arg(long)]
    pub replan: Option<PathBuf>,
}

/// Plans files.
///
/// # Errors
/// In words, one line per fault.
pub fn plan_files(ask: &Plan) -> Result<Told, String> {
    let Asked { mut problems, one, notes, of_orders } = asked(ask)?;
    if (ask.ics || ask.sheet) && of_orders.is_none() {
        return Err(format!(
            "{}: a calendar and run sheets are made of orders, not of a problem",
            ask.files[0].display()
        ));
    }
    for problem in &mut problems {
        if let Some(minutes) = ask.reserve {
            let inside = problem.reserve.map_or(10, |own| own.inside);
            problem.reserve = (minutes != 0).then_some(Reserve { serve: minutes, inside });
        }
        if let Some(points) = ask.switch {
            problem.weights.switch = points;
        }
        let wrong = problem.faults();
        if !wrong.is_empty() {
            let said = wrong.into_iter().map(|own| format!("{}: {}: {}", problem.id, own.field, own.message));
            return Err(said.collect::<Vec<_>>().join("\n"));
        }
    }
    if ask.problem {
        // Whoever reads the problem alone is told too.
        if let (Some(first), false) = (problems.first_mut(), notes.is_empty()) {
            first.note = format!("INCOMPLETE: {}", notes.join(" "));
        }
        let problem = problems.first().map(written).unwrap_or_default();
        return Ok(Told { answer: problem, incomplete: notes });
    }
    let mut budget = if ask.longer { Budget::LONGER } else { Budget::default() };
    budget.seed = ask.seed.unwrap_or(budget.seed);
    let answers: Vec<Answer> = problems.iter().map(|problem| plan(problem, budget, &|_| true)).collect();
    let no_plan = answers.iter().filter(|own| !own.is_whole()).flat_map(|own| own.because.clone());
    let incomplete: Vec<String> = notes.iter().cloned().chain(no_plan).collect();
    if let (true, Some(of), Some(problem), Some(answer)) =
        (ask.ics || ask.sheet, of_orders, problems.first(), answers.first())
    {
        let mut plan = of.plan;
        (plan.problem, plan.start) = (problem.clone(), answer.start.clone());
        plan.name = plan.its_days();
        let answer = match ask.ics {
            true if answer.is_whole() => calendar_of(plan),
            true => return Err(incomplete.join("\n")),
            false => as_text(&plan, &view(&plan)),
        };
        return Ok(Told { answer: answer.trim_end().to_owned(), incomplete });
    }
    if let Some(file) = &ask.replan {
        let event: Event = typed(file, read_any_json(file)?)?;
        let (Some(problem), Some(answer)) = (problems.first(), answers.first()) else {
            return Err(format!("{}: there is no problem in it", ask.files[0].display()));
        };
        let wrong = event_faults(problem, &event);
        if !wrong.is_empty() {
            let shown = file.display();
            let said = wrong.into_iter().map(|(field, words)| format!("{shown}: {field}: {words}"));
            return Err(said.collect::<Vec<_>>().join("\n"));
        }
        let again = replan(problem, &answer.start, &event, Level::Later, &|_| true);
        return Ok(Told { answer: with_notes(&again, &notes), incomplete });
    }
    let answer = match (one, answers.first()) {
        (true, Some(answer)) => with_notes(answer, &notes),
        _ => written(&answers),
    };
    Ok(Told { answer, incomplete })
}

/// An answer with what is not in it.
fn with_notes<T: serde::Serialize>(answer: &T, notes: &[String]) -> String {
    let mut value = serde_json::to_value(answer).unwrap_or_default();
    if let (Some(fields), false) = (value.as_object_mut(), notes.is_empty()) {
        fields.insert("incomplete".to_owned(), notes.into());
    }
    written(&value)
}

/// What files ask.
struct Asked {
    problems: Vec<Problem>,
    /// It is one alone.
    one: bool,
    /// What of the orders is not in them.
    notes: Vec<String>,
    /// The plan they are of, where they are of orders.
    of_orders: Option<OfOrders>,
}

/// A plan without its starts.
struct OfOrders {
    plan: PlanDocument,
}

/// The calendar of a plan that is kept nowhere: its only version.
fn calendar_of(plan: PlanDocument) -> String {
    calendar(&[Revision {
        id: "file".to_owned(),
        revision: 1,
        newest_revision: 1,
        // The same file twice is the same calendar.
        saved_at: plan.days().moment(0).to_string(),
        saved_by: None,
        document: plan,
    }])
}

fn asked(ask: &Plan) -> Result<Asked, String> {
    let first = &ask.files[0];
    // Read once: standard input comes but once.
    let bytes = bytes_of(first)?;
    let value: Value = crate::body::read(&bytes).map_err(|error| refused(first, error))?;
    if value.get("instances").is_some() {
        let all: Problems = typed(first, value)?;
        if all.format != plan::problem::FORMAT {
            return Err(format!(
                "{}: format is {}, not {}",
                first.display(),
                all.format,
                plan::problem::FORMAT
            ));
        }
        return Ok(Asked { problems: all.instances, one: false, notes: Vec::new(), of_orders: None });
    }
    if value.get("steps").is_some() {
        let problems = vec![typed(first, value)?];
        return Ok(Asked { problems, one: true, notes: Vec::new(), of_orders: None });
    }
    let mut orders: Vec<OrderDocument> = vec![parse(&bytes).map_err(|error| refused(first, error))?];
    for file in &ask.files[1..] {
        orders.push(read(file)?);
    }
    let kitchen = match &ask.kitchen {
        Some(file) => typed::<KitchenDocument>(file, read_any_json(file)?)?,
        None => KitchenDocument::usual(),
    };
    let zone = Zone::try_from(ask.zone.clone()).map_err(|wrong| wrong.to_string())?;
    let from = ask.from.unwrap_or_else(|| zone.wall(jiff::Timestamp::now()));
    let all: Vec<&OrderDocument> = orders.iter().collect();
    let sharing = Sharing::default();
    let to_plan =
        ToPlan { orders: &all, kitchen: &kitchen, zone: &zone, from, learned: &[], sharing: &sharing };
    let compiled = with_nothing(|known| compile(&to_plan, known))
        .map_err(|faults| lines(&first.display().to_string(), &faults))?;
    let planned = orders.iter().enumerate().map(|(at, order)| PlannedOrder {
        key: None,
        revision: None,
        name: if order.name.trim().is_empty() { format!("Order {}", at + 1) } else { order.name.clone() },
        promised: order.served_at.unwrap_or(from),
        since: None,
    });
    let (problems, notes) = (vec![compiled.problem.clone()], compiled.notes.clone());
    let plan = PlanDocument::of(compiled, zone.clone(), from, planned.collect(), Vec::new());
    Ok(Asked { problems, one: true, notes, of_orders: Some(OfOrders { plan }) })
}

/// A document of a file, by its type.
fn typed<T: DeserializeOwned>(file: &Path, value: Value) -> Result<T, String> {
    serde_path_to_error::deserialize(value)
        .map_err(|wrong| format!("{}: {}: {}", file.display(), wrong.path(), wrong.inner()))
}
