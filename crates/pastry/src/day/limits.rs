//! Limits a plan goes past, by consent, on a day that was bent: each in words.

use crate::day::document::PlanDocument;
use crate::day::hours::Days;
use crate::day::reasons::{short, span};
use plan::problem::Kind;

/// Limits that a whole plan exceeds, in words.
pub fn exceeds(plan: &PlanDocument, days: &Days) -> Vec<String> {
    let problem = &plan.problem;
    let end = |step: usize| plan.start[step].map(|at| at + problem.steps[step].dur);
    let waits = problem.waits.iter().map(|own| (own.from, own.to, own.min, own.max, own.name.as_str()));
    let links = problem.links.iter().map(|own| (own.from, own.to, own.min, own.max, ""));
    let mut all: Vec<String> = waits
        .chain(links)
        .filter_map(|(from, to, min, max, name)| {
            let lag = plan.start[to]? - end(from)?;
            let max = max?.max(min);
            let (from, to) = (&problem.steps[from], &problem.steps[to]);
            let what =
                if name.is_empty() { format!("{} to {}", short(from), short(to)) } else { name.to_owned() };
            (lag > max && lag >= problem.grid_min)
                .then(|| format!("{} ({what}): {}, at most {}.", from.comp, span(lag), span(max)))
        })
        .collect();
    for (order, planned) in problem.orders.iter().zip(&plan.orders) {
        let late = order.serve - days.minute(planned.promised);
        if late >= problem.grid_min {
            all.push(format!("{} leaves {} after it was promised.", planned.name, span(late)));
        }
    }
    for step in problem.steps.iter().filter(|step| step.kind != Kind::Serve) {
        let Some(at) = plan.start[step.id] else { continue };
        if !problem.windows.iter().any(|[from, to]| *from <= at && at + step.dur <= *to) {
            all.push(format!(
                "{} ({}) is done outside opening hours, {}.",
                short(step),
                step.comp,
                days.wall(at).strftime("%a %H:%M")
            ));
        }
    }
    all
}
