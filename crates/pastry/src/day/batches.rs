//! What is made for orders, batch by batch: for one order or several, in as many bowls as it takes.

use crate::clock::safe::Stood;
use crate::day::asked::{SERVED, ToPlan, title, under};
use crate::day::baking::{Piece, bake};
use crate::day::building::{MadeOf, build};
use crate::day::draft::{Act, Draft, Lag};
use crate::day::kitchen::KitchenDocument;
use crate::day::making::{Made, RACK, batch_of, make};
use crate::day::part::PlannedPart;
use crate::day::sharing::{SharedBatch, Taker, may_wait};
use crate::fault::{Fault, FaultCode};
use crate::formula::System;
use crate::ingredient::Shelf;
use crate::method::gear::Resource;
use crate::method::quicker::cools_by;
use crate::method::step::LimitClass;
use crate::number::limit;
use crate::order::batch::{Batch, batches};
use crate::order::document::OrderDocument;
use crate::stack::answer::stack_of;
use crate::stack::baking::baking;
use crate::stack::cream::{Baked, Cream};
use crate::stack::part::PartKind;
use crate::stack::place::{Layout, Stuff};
use crate::stack::{Known, Makings, StackAnswer};
use std::collections::{BTreeMap, BTreeSet};

/// How much of a mixer's bowl is filled at most, whipped (common practice).
const BOWL_FULL: f64 = 0.7;
/// Most bowls of one batch.
const MOST_BOWLS: f64 = 40.0;
/// Between one bowl and the next, min (assumed).
const NEXT_BOWL: f64 = 30.0;

/// An order with all that is made for it.
pub struct Taken<'a> {
    at: usize,
    order: &'a OrderDocument,
    makings: Vec<Makings>,
    answers: Vec<StackAnswer>,
    all: Vec<Batch>,
    /// When it leaves, min, and the step of that.
    serve: (i32, usize),
}

impl<'a> Taken<'a> {
    /// Works out what an order takes; what cannot be told is among the notes.
    pub fn of(
        draft: &mut Draft,
        (at, order): (usize, &'a OrderDocument),
        known: &Known,
        serve: i32,
        notes: &mut Vec<String>,
    ) -> Taken<'a> {
        let makings: Vec<Makings> = order.cakes.iter().map(|cake| Makings::of(&cake.stack, known)).collect();
        let room_c = order.room_temperature_c.celsius();
        let answers: Vec<StackAnswer> = order
            .cakes
            .iter()
            .zip(&makings)
            .map(|(cake, makings)| stack_of(&cake.stack, makings, room_c))
            .collect();
        for answer in &answers {
            notes.extend(answer.incomplete.iter().map(|words| format!("{}: {words}", title(order, at))));
        }
        let all = batches(order, &answers, &makings, &|_| None);
        let leaves = Act::by_hand(at, SERVED, &format!("{} leaves", title(order, at)), 0.0);
        let serve = (serve, draft.act(Act { hands: false, ..leaves }));
        Taken { at, order, makings, answers, all, serve }
    }

    /// Puts the building of its cakes on the draft.
    pub fn build(&self, draft: &mut Draft, made: &MadeOf, kitchen: &KitchenDocument) {
        for (cake, answer) in self.order.cakes.iter().zip(&self.answers) {
            let name = match cake.stack.name.trim() {
                "" => title(self.order, self.at),
                name => name.to_owned(),
            };
            let cakes = (&cake.stack, cake.count);
            build(draft, (self.at, &name), cakes, (made, self.serve.1), kitchen, answer.finished_g);
        }
    }

    fn batch(&self, id: &Id) -> Option<&Batch> {
        self.all.iter().find(|own| own.kind == id.0 && own.key == id.1)
    }

    fn cream(&self, key: &str) -> Option<(&Cream, &Makings)> {
        self.makings.iter().find_map(|own| Some((own.cream(Some(key))?, own)))
    }

    fn baked(&self, key: &str) -> Option<&Baked> {
        self.makings.iter().find_map(|own| own.baked(Some(key)))
    }

    /// Whether another takes the very same.
    fn is_same(&self, other: &Taken, id: &Id) -> bool {
        match id.0 {
            PartKind::Component => match (self.cream(&id.1), other.cream(&id.1)) {
                (Some((one, _)), Some((two, _))) => one.document == two.document && one.lines == two.lines,
                _ => false,
            },
            PartKind::Bake => match (self.baked(&id.1), other.baked(&id.1)) {
                (Some(one), Some(two)) => one.bake == two.bake && one.lines == two.lines,
                _ => false,
            },
        }
    }

    /// Everything it bakes of one kind.
    fn pieces(&self, key: &str) -> Vec<Piece> {
        let mut all = Vec::new();
        for cake in &self.order.cakes {
            let layout = Layout::of(&cake.stack);
            for spot in layout.spots.iter().filter(|spot| spot.stuff == Stuff::Bake(Some(key))) {
                let area = spot.outline.area();
                all.push(Piece {
                    area_cm2: area,
                    tin_cm2: spot.outline.grown(2.0).area(),
                    height_mm: (10.0 * spot.thickness).clamp(1.0, 120.0),
                    across_mm: 10.0 * (area * 4.0 / std::f64::consts::PI).sqrt(),
                    count: cake.count * cake.stack.tiers[spot.tier].count(),
                });
            }
        }
        all
    }
}

/// A cream or a bake, and its key.
type Id = (PartKind, String);

fn id_of(batch: &Batch) -> Id {
    (batch.kind, batch.key.clone())
}

/// Batches of one order that are called alike are told apart, "Lime curd" and "Lime curd (2)", the same in every order: a plan
/// knows what is worked on by its name. What is called like a cake it goes into is the second of that name.
pub fn told_apart(taken: &mut [Taken]) {
    let mut named: BTreeMap<String, Vec<Id>> = BTreeMap::new();
    let mut alike: BTreeMap<String, usize> = BTreeMap::new();
    for own in taken.iter() {
        let mut here: BTreeMap<&str, Id> = BTreeMap::new();
        for batch in &own.all {
            let ids = named.entry(batch.name.clone()).or_default();
            if !ids.contains(&id_of(batch)) {
                ids.push(id_of(batch));
            }
            if here.insert(&batch.name, id_of(batch)).is_some_and(|other| other != id_of(batch)) {
                alike.entry(batch.name.clone()).or_default();
            }
            if own.order.cakes.iter().any(|cake| cake.stack.name.trim() == batch.name) {
                alike.insert(batch.name.clone(), 1);
            }
        }
    }
    for batch in taken.iter_mut().flat_map(|own| &mut own.all) {
        let (Some(cakes), Some(ids)) = (alike.get(&batch.name), named.get(&batch.name)) else { continue };
        let at = cakes + ids.iter().position(|id| *id == id_of(batch)).unwrap_or(0);
        if at > 0 {
            batch.name = format!("{} ({})", batch.name, at + 1);
        }
    }
}

/// Batches as they are made.
pub struct Batches<'a> {
    ask: &'a ToPlan<'a>,
    taken: &'a [Taken<'a>],
    groups: BTreeMap<Id, Vec<SharedBatch>>,
    /// Temperatures of the ovens so far, °C.
    ovens_c: Vec<f64>,
    /// What was made for each order.
    pub made: Vec<MadeOf>,
    /// Batches that are made by formulas.
    pub parts: Vec<PlannedPart>,
    /// Batches that are made once for several orders.
    pub shared: Vec<SharedBatch>,
    /// What cools too slowly, in words.
    pub cautions: Vec<String>,
}

impl<'a> Batches<'a> {
    /// Nothing made yet.
    pub fn of(ask: &'a ToPlan<'a>, taken: &'a [Taken<'a>]) -> Batches<'a> {
        Batches {
            ask,
            taken,
            groups: BTreeMap::new(),
            ovens_c: Vec::new(),
            made: vec![MadeOf::new(); taken.len()],
            parts: Vec::new(),
            shared: Vec::new(),
            cautions: Vec::new(),
        }
    }

    /// Makes what an order takes, as far as another's batch is not made for it too; what is wrong with it, at its field.
    pub fn make(&mut self, draft: &mut Draft, at: usize) -> Vec<Fault> {
        let mut faults = Vec::new();
        let taken = self.taken;
        for batch in &taken[at].all {
            let id = id_of(batch);
            if self.made[at].contains_key(&id) {
                continue;
            }
            let group = self.group(&id, batch, at);
            let orders = &group.orders;
            let (begun, part) = ((draft.acts.len(), draft.lags.len()), self.parts.len());
            let made = match self.one(draft, &id, orders) {
                Ok(Some(made)) => made,
                Ok(None) => continue,
                Err(own) => {
                    draft.acts.truncate(begun.0);
                    draft.lags.truncate(begun.1);
                    self.parts.truncate(part);
                    faults.extend(own.into_iter().map(|own| under(&format!("orders.{}", orders[0]), own)));
                    continue;
                }
            };
            let all: f64 = orders.iter().filter_map(|own| taken[*own].batch(&id)).map(weighed).sum();
            for own in orders {
                let share = taken[*own].batch(&id).map_or(0.0, weighed) / all.max(1e-9);
                self.made[*own].insert(id.clone(), made.share(share));
            }
            if orders.len() > 1 || group.named.is_some() {
                self.shared.push(group);
            }
        }
        faults
    }

    /// The batch an order takes, with whoever else does.
    fn group(&mut self, id: &Id, batch: &Batch, at: usize) -> SharedBatch {
        if !self.groups.contains_key(id) {
            let same = self.taken.iter().filter(|own| own.batch(id).is_some());
            let takers: Vec<Taker> = same
                .filter(|own| own.at == at || own.is_same(&self.taken[at], id))
                .map(|own| Taker { order: own.at, serve: own.serve.0 })
                .collect();
            let within = match self.ask.sharing.is_open(&batch.name, &takers) {
                true => self.within(id, &takers),
                false => 0.0,
            };
            let groups = self.ask.sharing.groups(&batch.name, &takers, within);
            self.groups.insert(id.clone(), groups);
        }
        let own = self.groups[id].iter().find(|own| own.orders.contains(&at));
        own.cloned().unwrap_or_else(|| SharedBatch::of(&batch.name, vec![at]))
    }

    /// How long a batch for all of them keeps from the first to the last, min; not at all where one bowl, one round of the oven or
    /// the places it stands in are too small for it.
    fn within(&self, id: &Id, takers: &[Taker]) -> f64 {
        if !self.ask.kitchen.shares {
            return 0.0;
        }
        let orders: Vec<usize> = takers.iter().map(|own| own.order).collect();
        let mut trial = Draft::default();
        let mut scratch = Batches::of(self.ask, self.taken);
        let Ok(Some(made)) = scratch.one(&mut trial, id, &orders) else { return 0.0 };
        let own = &self.ask.kitchen.equipment;
        let most = |place: &str| match place {
            RACK => own.rack_trays as i32,
            place if place == Resource::Fridge.word() => 10 * own.fridge.shelves as i32,
            place if place == Resource::Freezer.word() => 10 * own.freezer.shelves as i32,
            _ => i32::MAX,
        };
        let rounds = trial.acts.iter().filter(|act| act.setup.is_some()).count();
        let fits = scratch.parts.iter().all(|part| part.bowls == 1)
            && rounds <= 1
            && trial.lags.iter().filter_map(|lag| lag.place.as_ref()).all(|(at, own)| 2 * own <= most(at));
        made.last.filter(|_| fits).map_or(0.0, |last| may_wait(&made, &trial.acts[last]))
    }

    /// One batch for these orders, counted to the first.
    fn one(&mut self, draft: &mut Draft, id: &Id, orders: &[usize]) -> Result<Option<Made>, Vec<Fault>> {
        let (taken, owner) = (self.taken, &self.taken[orders[0]]);
        let Some(batch) = owner.batch(id) else { return Ok(None) };
        let every = || orders.iter().filter_map(|own| taken[*own].batch(id));
        match id.0 {
            PartKind::Bake => {
                let Some(baked) = owner.baked(&id.1) else { return Ok(None) };
                let kg = 1e-3 * every().map(|own| own.to_make_g).sum::<f64>();
                let pieces: Vec<Piece> = orders.iter().flat_map(|own| taken[*own].pieces(&id.1)).collect();
                let c =
                    baking(&baked.sponge.key).and_then(|own| own.oven(20.0)).map_or(0.0, |(_, oven)| oven.c);
                if !self.ovens_c.contains(&c) {
                    self.ovens_c.push(c);
                }
                let ovens = self.ask.kitchen.equipment.ovens_trays.len().max(1);
                let oven = self.ovens_c.iter().position(|own| *own == c).unwrap_or(0) % ovens;
                let kitchen = (self.ask.kitchen, oven);
                Ok(Some(bake(draft, (owner.at, &batch.name), (baked, kg), &pieces, kitchen)))
            }
            PartKind::Component => {
                let Some((cream, makings)) = owner.cream(&id.1) else { return Ok(None) };
                let grams = every().map(weighed).sum::<f64>();
                let bowls = self.bowls((&batch.name, cream), grams)?;
                let part = self.parts.len();
                self.parts.push(PlannedPart {
                    order: owner.at,
                    of: batch.name.clone(),
                    component: id.1.clone(),
                    weighed_g: grams / f64::from(bowls),
                    bowls,
                    waits: Vec::new(),
                });
                let begun = draft.lags.len();
                let mut rounds = Vec::new();
                for bowl in 0..bowls {
                    let begun = draft.acts.len();
                    let made = make(
                        draft,
                        (owner.at, part, &batch.name),
                        (cream, grams / f64::from(bowls)),
                        &makings.shelf,
                        self.ask.kitchen,
                        self.ask.learned,
                    )?;
                    if bowls > 1 {
                        for act in &mut draft.acts[begun..] {
                            act.name = format!("Bowl {} of {bowls}: {}", bowl + 1, act.name);
                        }
                    }
                    rounds.push((made, draft.acts[begun..].iter().map(|act| act.minutes).sum::<f64>()));
                }
                let made = one_of(draft, rounds);
                let waits = draft.lags[begun..].iter().filter_map(|lag| lag.clock.as_ref());
                let ends = made.iter().filter_map(|own| own.cools.as_ref());
                let waits: BTreeSet<&str> = waits.chain(ends).map(|own| own.step.as_str()).collect();
                self.cools((&batch.name, cream, &makings.shelf), grams / f64::from(bowls), &waits)?;
                Ok(made)
            }
        }
    }

    /// Says what of a batch cools too slowly by the rule the kitchen keeps, and what would do.
    fn cools(
        &mut self,
        (name, cream, shelf): (&str, &Cream, &Shelf),
        grams: f64,
        waits: &BTreeSet<&str>,
    ) -> Result<(), Vec<Fault>> {
        if waits.is_empty() {
            return Ok(());
        }
        let document = batch_of(cream, grams, shelf)?;
        for step in waits {
            let own = cools_by(&document, step, shelf, self.ask.learned, self.ask.kitchen.cooling_rule)?;
            if let Some(own) = own.filter(|own| own.stood != Stood::Kept) {
                let way = own.ways.first().map(|way| format!(" It does {}.", way.words));
                self.cautions.push(format!("{name}: {}{}", own.sentence, way.unwrap_or_default()));
            }
        }
        Ok(())
    }

    /// In how many bowls a batch is made: what is whipped as a whole fills one only so far.
    ///
    /// # Errors
    /// When it is more than anybody would make one after the other.
    fn bowls(&self, (name, cream): (&str, &Cream), grams: f64) -> Result<u32, Vec<Fault>> {
        let whipped = matches!(
            cream.document.family.traits().system,
            System::Buttercream
                | System::MeringueButtercream
                | System::Mousseline
                | System::WhippedCream
                | System::WhippedGanache
        );
        let largest = self.ask.kitchen.equipment.mixers_l.iter().copied().fold(0.0, f64::max);
        if !whipped || largest <= 0.0 {
            return Ok(1);
        }
        let litres = 1e-3 * grams / cream.density().max(0.05);
        let bowls = (litres / (BOWL_FULL * largest)).ceil().max(1.0);
        if bowls > MOST_BOWLS {
            let words = format!(
                "{name}: {litres:.0} l whipped, more than {MOST_BOWLS} bowls of {} l: write a larger mixer or a smaller order",
                limit(largest)
            );
            return Err(vec![Fault::new("cakes", FaultCode::OutOfRange, words)]);
        }
        Ok(bowls as u32)
    }
}

fn weighed(batch: &Batch) -> f64 {
    if batch.weighed_g > 0.0 { batch.weighed_g } else { batch.to_make_g }
}

/// Several bowls as one batch: they follow each other, and what is used is used when the last is done.
fn one_of(draft: &mut Draft, rounds: Vec<(Made, f64)>) -> Option<Made> {
    let bowls = rounds.len();
    let minutes: f64 = rounds.iter().map(|own| own.1).sum();
    let tied = minutes + NEXT_BOWL * bowls as f64;
    let mut rounds: Vec<Made> = rounds.into_iter().map(|own| own.0).collect();
    let mut made = rounds.pop()?;
    for own in rounds {
        if let (Some(from), Some(to)) = (own.last, made.last) {
            draft.goes_on(from, to, tied, LimitClass::Quality);
        }
        made.takes.extend(own.takes);
    }
    if bowls > 1 && !made.hurried {
        // What keeps is as old as its first bowl; what is used at once is used from the last.
        made.waits[1] = (made.waits[1] - tied).max(made.waits[0]);
    }
    if bowls > 1 {
        made.place = made.place.map(|(place, amount)| (place, amount * bowls as i32));
    }
    Some(made)
}

/// What goes into others is there when it is brought to hand.
pub fn into_others(draft: &mut Draft, made: &MadeOf) {
    let mut lags: Vec<Lag> = Vec::new();
    for own in made.values() {
        for (key, act) in &own.takes {
            let inner = made.get(&(PartKind::Component, key.clone()));
            if let Some((inner, last)) = inner.and_then(|inner| Some((inner, inner.last?))) {
                lags.push(Lag {
                    from: last,
                    to: *act,
                    least: inner.waits[0],
                    most: Some(inner.waits[1]),
                    name: format!("{} keeps", draft.acts[last].comp),
                    place: inner.place.clone(),
                    class: inner.class,
                    clock: inner.cools.clone(),
                });
            }
        }
    }
    // In the order of the steps, whatever the map's; what several orders share goes into it once.
    lags.sort_by_key(|lag| (lag.from, lag.to));
    lags.retain(|lag| !draft.lags.iter().any(|own| (own.from, own.to) == (lag.from, lag.to)));
    draft.lags.extend(lags);
}
