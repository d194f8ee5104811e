//! Looking at a plan: the verdict in a sentence, who does what when, what stands where and until when, how far each step can
//! move and why it stands where it stands.

use crate::day::document::PlanDocument;
use crate::day::hours::Days;
use crate::day::limits::exceeds;
use crate::day::reasons::{Speaker, chain, short, span};
use crate::day::seen::{
    DayView, Lane, StepMakes, ViewCook, ViewDay, ViewOrder, ViewStep, ViewWait, letter, letters,
};
use crate::day::shorter::called;
use jiff::civil::DateTime;
use plan::check::check;
use plan::cost::{Cost, cost};
use plan::hand_out::hand_out;
use plan::net::{Net, OUT};
use plan::problem::{COOK, Class, Kind};
use plan::push::Way;
use plan::why::Standing;

/// For which orders a step makes one batch, and how much is weighed for it, in words.
fn batch(plan: &PlanDocument, step: usize) -> Option<String> {
    let orders = plan.orders_of(step);
    let part = plan.part_of(step);
    let bowls = part.map_or(1, |part| part.bowls);
    if orders.len() < 2 && bowls < 2 {
        return None;
    }
    let names: Vec<&str> =
        orders.iter().filter_map(|own| plan.orders.get(*own)).map(|own| own.name.as_str()).collect();
    let weighed = part.map(|part| {
        let each = if bowls > 1 { format!(", in each of {bowls} bowls") } else { String::new() };
        format!(": {:.0} g to weigh{each}", part.weighed_g)
    });
    Some(format!("One batch for {}{}", names.join(" and "), weighed.unwrap_or_default()))
}

/// What is to be minded, and what was decided for it since.
fn cautions(plan: &PlanDocument) -> Vec<String> {
    let keys = plan.step_keys();
    let of = |key: &String| {
        keys.iter().position(|own| own == key).map(|at| format!("{}: ", plan.problem.steps[at].comp))
    };
    let since = |caution: &String| -> String {
        let own = plan.quicker.iter().filter(|own| of(&own.from).is_some_and(|of| caution.starts_with(&of)));
        own.map(|own| format!(" That was reckoned before it was decided: {}.", own.how)).collect()
    };
    plan.cautions.iter().map(|own| format!("{own}{}", since(own))).collect()
}

/// Looks at a plan without faults.
pub fn view(plan: &PlanDocument) -> DayView {
    let problem = &plan.problem;
    let net = Net::of(problem, false);
    let days = plan.days();
    let slots: Vec<i32> =
        plan.start.iter().map(|at| at.map_or(OUT, |at| at.div_euclid(problem.grid_min))).collect();
    let handed = hand_out(&net, &slots);
    let speaker = Speaker { problem, start: &plan.start, days: &days };
    let (steps, waits) = (steps(plan, &net, &slots, &handed.cook, &speaker), waits(plan));
    let orders = orders(plan, &days, &steps, &waits);
    let whole = plan.is_whole();
    let mut incomplete = plan.notes.clone();
    if !whole {
        let out = steps.iter().filter(|step| step.begins.is_none());
        let names: Vec<String> = out.map(|step| format!("{} ({})", step.short, step.of)).collect();
        // Where nothing has a time, why says more than a list of everything.
        if names.len() < steps.len() {
            incomplete.push(format!("No time was found for {}.", names.join(", ")));
        }
    }
    let cautions = cautions(plan);
    let exceeds = if whole { exceeds(plan, &days) } else { Vec::new() };
    let stands = whole && check(problem, &plan.start).is_empty();
    let total = |cook: usize| {
        let own = steps.iter().filter(|step| step.cook == Some(cook));
        own.map(|step| step.lasts).sum()
    };
    let cooks = problem.cooks.iter().enumerate();
    DayView {
        sentence: sentence(plan, &orders, stands, whole),
        stands,
        incomplete,
        cautions,
        exceeds,
        begins_at: days.moment(0).to_string(),
        zone: plan.zone.name().to_owned(),
        horizon: problem.horizon,
        days: worked(plan, &days, &steps, &orders),
        open: problem.windows.clone(),
        cooks: cooks
            .map(|(at, cook)| ViewCook {
                name: cook.name.clone(),
                hours: cook.hours.clone(),
                hands_min: total(at),
            })
            .collect(),
        lanes: lanes(plan),
        cost: if whole { cost(&net, &slots) } else { Cost::default() },
        orders,
        steps,
        waits,
    }
}

fn steps(
    plan: &PlanDocument,
    net: &Net,
    slots: &[i32],
    cooks: &[Option<usize>],
    speaker: &Speaker,
) -> Vec<ViewStep> {
    let problem = &plan.problem;
    let whole = plan.is_whole();
    let mut standing = Standing::of(net, slots);
    let keys = plan.step_keys();
    let all = problem.steps.iter().filter(|step| step.kind != Kind::Serve);
    all.map(|step| {
        let id = step.id;
        let begins = plan.start[id];
        let placed = whole && begins.is_some();
        let why = |standing: &mut Standing, way| match placed {
            true => chain(speaker, standing, net, id, way),
            false => Vec::new(),
        };
        let anywhere = placed.then(|| {
            let (from, to) = standing.anywhere(id);
            [from * net.grid, to * net.grid]
        });
        ViewStep {
            step: id,
            key: keys[id].clone(),
            order: step.order,
            letters: letters(&plan.orders_of(id)),
            batch: batch(plan, id),
            makes: plan.part_of(id).map(|part| StepMakes {
                component: part.component.clone(),
                weighed_g: part.weighed_g,
                orders: plan.orders_of(id),
            }),
            of: step.comp.clone(),
            what: step.name.split(';').map(|words| words.trim().to_owned()).collect(),
            short: short(step),
            hands: step.kind == Kind::Hands,
            begins,
            lasts: step.dur,
            cook: cooks[id],
            on: step.r#use.keys().filter(|key| *key != COOK).cloned().collect(),
            setup: step.setup.clone(),
            pinned: plan.pinned.contains(&id),
            anywhere,
            no_time_to_lose: placed && standing.give(id, 1) == 0,
            not_later: why(&mut standing, Way::Later),
            not_earlier: why(&mut standing, Way::Earlier),
        }
    })
    .collect()
}

fn waits(plan: &PlanDocument) -> Vec<ViewWait> {
    let problem = &plan.problem;
    let end = |step: usize| plan.start[step].map(|at| at + problem.steps[step].dur);
    let all = problem.waits.iter().enumerate();
    all.map(|(id, wait)| {
        let from = &problem.steps[wait.from];
        ViewWait {
            wait: id,
            from: wait.from,
            to: wait.to,
            order: problem.steps[wait.to].order,
            letters: letters(&plan.orders_of(wait.to)),
            of: from.comp.clone(),
            name: wait.name.clone(),
            called: called(&wait.name, &from.comp).to_owned(),
            place: wait.r#use.keys().next().cloned(),
            stands: end(wait.from).zip(plan.start[wait.to]).map(|(from, to)| [from, to.max(from)]),
            not_before: end(wait.from).map(|at| at + wait.min),
            not_after: end(wait.from).zip(wait.max).map(|(at, max)| at + max),
            safety: wait.class == Class::Safety,
            clocked: plan.parts.iter().any(|part| part.waits.iter().any(|own| own.wait == id)),
        }
    })
    .collect()
}

/// Machines steps run on, in the order of the problem, then places where things stand.
fn lanes(plan: &PlanDocument) -> Vec<Lane> {
    let problem = &plan.problem;
    let runs = |id: &str| problem.steps.iter().any(|step| step.r#use.contains_key(id));
    let stands = |id: &str| problem.waits.iter().any(|wait| wait.r#use.contains_key(id));
    let own = problem.resources.iter().filter(|own| own.id != COOK);
    let mut all: Vec<Lane> = own
        .filter(|own| runs(&own.id) || stands(&own.id))
        .map(|own| Lane { key: own.id.clone(), cap: own.cap, runs: runs(&own.id) })
        .collect();
    all.sort_by_key(|own| !own.runs);
    all
}

fn orders(plan: &PlanDocument, days: &Days, steps: &[ViewStep], waits: &[ViewWait]) -> Vec<ViewOrder> {
    let problem = &plan.problem;
    let all = problem.orders.iter().zip(&plan.orders).enumerate();
    all.map(|(at, (order, planned))| {
        let serving =
            |step: usize| problem.steps[step].order == at && problem.steps[step].kind == Kind::Serve;
        // What goes into the box last, and how long it needs from there.
        let last = waits.iter().filter(|wait| serving(wait.to)).map(|wait| wait.not_before);
        let linked = problem
            .links
            .iter()
            .filter(|link| serving(link.to))
            .map(|link| plan.start[link.from].map(|at| at + problem.steps[link.from].dur + link.min));
        let ready = last.chain(linked).collect::<Option<Vec<i32>>>().and_then(|all| all.into_iter().max());
        let day = days.wall(order.serve).date();
        let hands: Vec<&ViewStep> = steps.iter().filter(|step| step.order == at && step.hands).collect();
        let that_day = hands.iter().filter(|step| step.begins.is_some_and(|at| days.wall(at).date() == day));
        let leaves = days.wall(order.serve).strftime("%a %H:%M");
        let words = match ready {
            Some(ready) if days.wall(ready).date() == day => {
                format!("leaves {leaves}, ready {}", days.wall(ready).strftime("%H:%M"))
            }
            Some(ready) => format!("leaves {leaves}, ready {}", days.wall(ready).strftime("%a %H:%M")),
            None => format!("leaves {leaves}"),
        };
        ViewOrder {
            letter: letter(at),
            name: planned.name.clone(),
            key: planned.key.clone(),
            serve: order.serve,
            promised: days.minute(planned.promised),
            ready,
            spare_min: ready.map(|ready| order.serve - ready),
            hands_min: hands.iter().map(|step| step.lasts).sum(),
            hands_on_its_day_min: that_day.map(|step| step.lasts).sum(),
            words,
        }
    })
    .collect()
}

/// The days of the kitchen on which something is done or leaves.
fn worked(plan: &PlanDocument, days: &Days, steps: &[ViewStep], orders: &[ViewOrder]) -> Vec<ViewDay> {
    let begins = plan.problem.day_starts;
    let mut all: Vec<ViewDay> = Vec::new();
    for day in -1..plan.problem.days {
        // A kitchen day begins at its hour, not at midnight; the night before the first reaches into it.
        let date = days.first.saturating_add(jiff::Span::new().days(i64::from(day)));
        let at = |date: jiff::civil::Date| -> DateTime {
            date.to_datetime(jiff::civil::Time::midnight())
                .saturating_add(jiff::Span::new().minutes(i64::from(begins)))
        };
        let from = days.minute(at(date));
        let to = days.minute(at(date.saturating_add(jiff::Span::new().days(1))));
        let own: Vec<(i32, i32, bool)> = steps
            .iter()
            .filter_map(|step| Some((step.begins?, step.begins? + step.lasts, step.hands)))
            .filter(|(at, _, _)| (from..to).contains(at))
            .collect();
        let leaves: Vec<i32> =
            orders.iter().map(|order| order.serve).filter(|at| (from..to).contains(at)).collect();
        let work = own.iter().map(|own| own.0).min().zip(own.iter().map(|own| own.1).max());
        let first = own.iter().map(|own| own.0).chain(leaves.iter().copied()).min();
        let last = own.iter().map(|own| own.1).chain(leaves.iter().copied()).max();
        if let (Some(first), Some(last)) = (first, last) {
            all.push(ViewDay {
                date: date.to_string(),
                strip: [first.div_euclid(60) * 60, (last + 59).div_euclid(60) * 60],
                work: work.map(|(from, to)| [from, to]),
                hands_min: own.iter().filter(|own| own.2).map(|own| own.1 - own.0).sum(),
            });
        }
    }
    all
}

/// The verdict.
fn sentence(plan: &PlanDocument, orders: &[ViewOrder], stands: bool, whole: bool) -> String {
    if !whole {
        let out = plan.start.iter().filter(|at| at.is_none()).count();
        return format!("This is no plan yet: {out} of {} steps have no time.", plan.start.len());
    }
    let late =
        orders.iter().filter(|own| own.serve > own.promised).max_by_key(|own| own.serve - own.promised);
    if let Some(late) = late {
        return format!(
            "{} leaves {} late; everything else is ready in time.",
            late.name,
            span(late.serve - late.promised)
        );
    }
    let spare = orders.iter().filter_map(|own| Some((own.spare_min?, own))).min_by_key(|(spare, _)| *spare);
    let after = if stands { "" } else { ", past some limits" };
    match spare {
        Some((spare, own)) if orders.len() == 1 => {
            format!("{}: {}, {} to spare{after}.", own.name, own.words, span(spare.max(0)))
        }
        Some((spare, own)) => {
            format!(
                "{} orders, all in time; {} has {} to spare{after}.",
                orders.len(),
                own.name,
                span(spare.max(0))
            )
        }
        None => format!("Everything has its time{after}."),
    }
}
