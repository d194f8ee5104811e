//! Planning orders: what is asked gathered from the kitchen, compiled off the threads that answer, planned one at a time, called
//! off when nobody listens any more.

use crate::cupboard::Cupboard;
use crate::error::ApiError;
use crate::state::AppState;
use jiff::civil::DateTime;
use pastry::batch::took::TookMinutes;
use pastry::day::again::{begun_batches, go_on, standing};
use pastry::day::quicker::QuickerAsked;
use pastry::day::reasons::on_the_wall;
use pastry::day::{
    Compiled, DayView, KitchenDocument, PlanDocument, PlannedOrder, Report, Sharing, ToPlan, compile,
    eaten_before, view,
};
use pastry::fault::Fault;
use pastry::heat::stand::LearnedPlace;
use pastry::order::OrderDocument;
use pastry::zone::Zone;
use plan::answer::{Answer, plan_on};
use plan::net::Given;
use plan::search::{Budget, Progress};
use serde::{Deserialize, Serialize};
use std::sync::Mutex;
use std::time::{Duration, Instant};
use store::order::Order;
use utoipa::ToSchema;

/// Longest a plan is looked for; the best so far is the answer then, sooner than the request is given up.
const LOOKED_FOR_WITHIN: Duration = Duration::from_secs(60);
/// Between two looks at how far it is, and between two better plans shown.
const TELL_EVERY: Duration = Duration::from_millis(100);
const SHOW_EVERY: Duration = Duration::from_millis(300);

/// An order to plan, and where it is kept.
#[derive(Debug, Clone)]
pub struct Wanted {
    /// What is ordered.
    pub document: OrderDocument,
    /// The key and revision it is kept under.
    pub kept: Option<(String, i64)>,
}

impl From<Order> for Wanted {
    fn from(order: Order) -> Self {
        Wanted { document: order.document, kept: Some((order.id, order.revision)) }
    }
}

/// A plan that stands, and what was said of its steps.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StandingPlan {
    /// The plan.
    pub plan: PlanDocument,
    /// What was begun and done of it.
    #[serde(default)]
    #[schema(max_items = 5000)]
    pub reports: Vec<Report>,
}

/// Everything a plan is made of.
pub struct Gathered {
    /// Orders.
    pub orders: Vec<Wanted>,
    /// The kitchen.
    pub kitchen: KitchenDocument,
    /// The revision it is kept under.
    room: Option<i64>,
    /// The zone of its clock.
    pub zone: Zone,
    /// Its first moment.
    pub from: DateTime,
    /// Nothing new begins before this.
    pub now: DateTime,
    /// The plan that stands, and what was said of its steps.
    pub standing: Option<StandingPlan>,
    /// Which batches are made once for several orders.
    pub sharing: Sharing,
    learned: Vec<LearnedPlace>,
    cupboard: Cupboard,
}

impl Gathered {
    /// Gathers it.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn of(
        state: &AppState,
        orders: Vec<Wanted>,
        kitchen: Option<KitchenDocument>,
        zone: Option<Zone>,
        from: DateTime,
    ) -> Result<Self, ApiError> {
        let stacks: Vec<_> =
            orders.iter().flat_map(|own| &own.document.cakes).map(|cake| &cake.stack).collect();
        let cupboard = Cupboard::of(state, &stacks).await?;
        let (kitchen, room) = match kitchen {
            Some(kitchen) => (kitchen, None),
            None => match state.store.room().await? {
                Some(room) => (room.document, Some(room.revision)),
                None => (KitchenDocument::usual(), None),
            },
        };
        let kitchen = with_took(kitchen, state.took().await?);
        let zone = match zone {
            Some(zone) => zone,
            None => state.store.kitchen().await?.time_zone.unwrap_or_default(),
        };
        let learned = state.learned().await?;
        let sharing = Sharing::default();
        Ok(Gathered {
            orders,
            kitchen,
            room,
            zone,
            from,
            now: from,
            standing: None,
            sharing,
            learned,
            cupboard,
        })
    }

    /// The same on top of a plan that stands: what was begun of it stays, and it begins with that.
    pub fn over(mut self, standing: Option<StandingPlan>) -> Self {
        if let Some(own) = &standing {
            let mut orders = self.planned_orders();
            self.from = go_on(&own.plan, &own.reports, &mut orders, self.now);
            self.sharing.as_is = begun_batches(&own.plan, &own.reports, &orders, self.now);
        }
        self.standing = standing;
        self
    }

    fn compiled(&self) -> Result<Compiled, Vec<Fault>> {
        let orders: Vec<&OrderDocument> = self.orders.iter().map(|own| &own.document).collect();
        let ask = ToPlan {
            orders: &orders,
            kitchen: &self.kitchen,
            zone: &self.zone,
            from: self.from,
            learned: &self.learned,
            sharing: &self.sharing,
        };
        compile(&ask, &self.cupboard.known())
    }

    /// The first of its orders, as a wait of it is asked about.
    pub fn quicker_asked(&self) -> QuickerAsked<'_> {
        QuickerAsked {
            order: &self.orders[0].document,
            known: self.cupboard.known(),
            kitchen: &self.kitchen,
            learned: &self.learned,
        }
    }

    fn planned_orders(&self) -> Vec<PlannedOrder> {
        let own = |(at, own): (usize, &Wanted)| PlannedOrder {
            key: own.kept.as_ref().map(|(key, _)| key.clone()),
            revision: own.kept.as_ref().map(|(_, revision)| *revision),
            name: match own.document.name.trim() {
                "" => format!("Order {}", at + 1),
                name => name.to_owned(),
            },
            promised: own.document.served_at.unwrap_or(self.now),
            since: Some(self.now),
        };
        let mut orders: Vec<PlannedOrder> = self.orders.iter().enumerate().map(own).collect();
        if let Some(own) = &self.standing {
            go_on(&own.plan, &own.reports, &mut orders, self.now);
        }
        orders
    }

    /// The plan of it all without any start.
    ///
    /// # Errors
    /// What is wrong with the kitchen or an order, at its field.
    pub fn blank(&self) -> Result<PlanDocument, Vec<Fault>> {
        let compiled = self.compiled()?;
        let steps = compiled.problem.steps.len();
        let orders = self.planned_orders();
        let plan = PlanDocument::of(compiled, self.zone.clone(), self.from, orders, vec![None; steps]);
        Ok(PlanDocument { room: self.room, ..plan })
    }

    /// The same with what stands already.
    fn begun(&self) -> Result<(PlanDocument, Given), Vec<Fault>> {
        let past = self.orders.iter().enumerate();
        let past: Vec<Fault> =
            past.filter_map(|(at, own)| eaten_before(&own.document, at, self.now)).collect();
        if !past.is_empty() {
            return Err(past);
        }
        let mut plan = self.blank()?;
        let given = match &self.standing {
            Some(own) => standing(&own.plan, &mut plan, &own.reports, self.now),
            None => Given::default(),
        };
        Ok((plan, given))
    }
}

/// A plan, and how it was come by.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PlanReply {
    /// The plan.
    pub plan: PlanDocument,
    /// How it looks.
    pub view: DayView,
    /// Whether it is proved that there is none.
    pub impossible: bool,
    /// Why there is none, or what had to be given up.
    pub because: Vec<String>,
    /// Whether something is held back for a day that goes wrong.
    pub reserve_kept: Option<bool>,
    /// Whether the search was stopped before its end.
    pub stopped: bool,
}

/// How far the search is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
pub struct PlanProgress {
    /// Rounds done, and of how many.
    pub rounds: [u32; 2],
    /// Steps without a time in the best so far.
    pub unplaced: usize,
    /// All steps.
    pub steps: usize,
}

/// What is told on the way.
#[derive(Debug, Clone)]
pub enum Told {
    /// How far it is.
    Progress(PlanProgress),
    /// The best so far.
    Better(Box<PlanReply>),
}

fn reply(blank: &PlanDocument, answer: Answer) -> PlanReply {
    let days = blank.days();
    let because: Vec<String> = answer.because.iter().map(|words| on_the_wall(words, &days)).collect();
    let mut plan = PlanDocument { start: answer.start, ..blank.clone() };
    plan.name = plan.its_days();
    let mut view = view(&plan);
    let missing = because.iter().filter(|_| !answer.unplaced.is_empty());
    view.incomplete.splice(0..0, missing.cloned());
    PlanReply {
        plan,
        view,
        impossible: answer.impossible,
        because,
        reserve_kept: answer.reserve_kept,
        stopped: answer.stopped,
    }
}

/// Compiles and plans, on a thread that may be kept busy.
///
/// # Arguments
/// * `tell`: told how far it is; false when nobody listens any more.
///
/// # Errors
/// What is wrong with the kitchen or an order, at its field.
pub fn planned(
    gathered: &Gathered,
    budget: Budget,
    tell: &(dyn Fn(Told) -> bool + Sync),
) -> Result<PlanReply, Vec<Fault>> {
    let (blank, given) = gathered.begun()?;
    let begun = Instant::now();
    let last = Mutex::new((None::<Instant>, None::<Instant>));
    let watch = |progress: Progress| -> bool {
        if begun.elapsed() > LOOKED_FOR_WITHIN {
            return false;
        }
        let Ok(mut last) = last.lock() else { return false };
        let due = |at: &Option<Instant>, every: Duration| at.is_none_or(|at| at.elapsed() >= every);
        let grid = blank.problem.grid_min;
        if progress.unplaced == 0
            && due(&last.1, SHOW_EVERY)
            && let Some(slots) = &progress.better
        {
            last.1 = Some(Instant::now());
            let answer = Answer {
                start: slots.iter().map(|at| Some(at * grid)).collect(),
                ..Answer::none(&blank.problem)
            };
            let better = reply(&blank, answer);
            // Where nobody is there for a step it is none yet.
            if better.view.stands {
                return tell(Told::Better(Box::new(better)));
            }
        }
        if due(&last.0, TELL_EVERY) {
            last.0 = Some(Instant::now());
            return tell(Told::Progress(PlanProgress {
                rounds: progress.rounds,
                unplaced: progress.unplaced,
                steps: blank.problem.steps.len(),
            }));
        }
        true
    };
    let answer = plan_on(&blank.problem, &given, budget, &watch);
    Ok(reply(&blank, answer))
}

/// The room with what its own batches took, where nobody wrote minutes for a step.
fn with_took(mut kitchen: KitchenDocument, took: Vec<TookMinutes>) -> KitchenDocument {
    for own in took {
        if kitchen.own_minutes(&own.own.school, &own.own.step).is_none() {
            kitchen.own_minutes.push(own.own);
        }
    }
    kitchen
}
