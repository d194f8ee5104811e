//! A cake from what was made: its places in the order they are built, what each needs, and how it stands in between.

use crate::day::assembly::{ASSEMBLY, Doing};
use crate::day::draft::{Act, Draft, Lag};
use crate::day::kitchen::{KitchenDocument, Skill};
use crate::day::making::{Made, place_of};
use crate::method::step::{LimitClass, Spot};
use crate::number::span_min;
use crate::stack::document::{FillingTask, Layer, StackDocument, Tier};
use crate::stack::part::PartKind;
use crate::stack::place::{Layout, PlaceKind, Spot as PlaceSpot, Stuff};
use crate::stack::shape::body::Body;
use std::collections::BTreeMap;

/// Everything made for an order, by kind and key.
pub type MadeOf = BTreeMap<(PartKind, String), Made>;

/// Out of the cold before it is eaten: minutes, and more for each kilogram, at most so many (assumed).
const TEMPER: [f64; 3] = [20.0, 15.0, 90.0];
/// Out of the cold at most when there is something in it that must stand cold, and when not, min (common practice; local codes
/// decide).
const OUT_COLD: f64 = 120.0;
const OUT_DRY: f64 = 720.0;

/// What cannot wait stands so much longer for each other thing that goes in with it and cannot wait either, min (assumed).
const OTHER_MADE: f64 = 20.0;

struct Builder<'a> {
    draft: &'a mut Draft,
    order: usize,
    comp: String,
    made: &'a MadeOf,
    kitchen: &'a KitchenDocument,
    /// Area of all of them, cm², and the height of one, mm.
    size: (f64, f64),
    /// The last step, and how it stands after it.
    last: Option<(usize, Doing)>,
    used: Vec<(PartKind, String)>,
}

impl Builder<'_> {
    /// One more thing done, with what it uses.
    fn does(&mut self, doing: &Doing, count: f64, uses: &[(PartKind, String)]) -> usize {
        let mut act = Act::by_hand(self.order, &self.comp, &doing.name, doing.time(count));
        (act.age, act.grace) = (doing.age, doing.grace);
        let at = self.draft.act(act);
        if let Some((before, how)) = self.last.take() {
            self.stands(before, at, &how);
        }
        // Of several that cannot wait, each waits for the others to be made.
        let hurried = uses.iter().filter(|own| self.made.get(own).is_some_and(|made| made.hurried)).count();
        let others = OTHER_MADE * hurried.saturating_sub(1) as f64;
        for own in uses {
            if !self.used.contains(own) {
                self.used.push(own.clone());
            }
            if let Some((made, last)) = self.made.get(own).and_then(|made| Some((made, made.last?))) {
                let name = match own.0 {
                    PartKind::Bake => "wrapped".to_owned(),
                    PartKind::Component if made.hurried => {
                        format!("{} is used at once", self.draft.acts[last].comp)
                    }
                    PartKind::Component => {
                        format!("{} keeps {}", self.draft.acts[last].comp, span_min([made.waits[1]; 2]))
                    }
                };
                self.draft.lags.push(Lag {
                    from: last,
                    to: at,
                    least: made.waits[0],
                    most: Some(made.waits[1] + if made.hurried { others } else { 0.0 }),
                    name,
                    place: made.place.clone(),
                    class: made.class,
                    clock: made.cools.clone(),
                });
            }
        }
        self.last = Some((at, doing.clone()));
        at
    }

    fn stands(&mut self, from: usize, to: usize, how: &Doing) {
        let (area, height) = self.size;
        match how.stands {
            None => self.draft.goes_on(from, to, 15.0, LimitClass::Quality),
            Some(span) => {
                let place = place_of(how.place, area, height, self.kitchen);
                let how_so = if how.meanwhile.is_empty() { "standing" } else { &how.meanwhile };
                let name = format!("{}: {how_so}", self.comp);
                self.draft.stands(from, to, &name, span, place);
                if let Some(lag) = self.draft.lags.last_mut() {
                    lag.clock.clone_from(&how.clock);
                }
            }
        }
    }

    /// Standing as long as what sets longest of some parts.
    fn until_set(&self, doing: &Doing, parts: &[(PartKind, String)]) -> Doing {
        let sets = parts.iter().filter_map(|own| self.made.get(own)?.sets.as_ref());
        match sets.max_by(|a, b| a.span[0].total_cmp(&b.span[0])) {
            Some(sets) => Doing { stands: Some(sets.span), clock: sets.clock.clone(), ..doing.clone() },
            None => doing.clone(),
        }
    }
}

fn part(stuff: Stuff) -> Option<(PartKind, String)> {
    match stuff {
        Stuff::Component(Some(key)) => Some((PartKind::Component, key.to_owned())),
        Stuff::Bake(Some(key)) => Some((PartKind::Bake, key.to_owned())),
        _ => None,
    }
}

fn each_once(parts: impl Iterator<Item = (PartKind, String)>) -> Vec<(PartKind, String)> {
    let mut all: Vec<(PartKind, String)> = Vec::new();
    for own in parts {
        if !all.contains(&own) {
            all.push(own);
        }
    }
    all
}

/// Puts the building of so many of a cake on the draft, to its serving.
///
/// # Arguments
/// * `serve`: the step it leaves by; `finished_g`: of one cake.
pub fn build(
    draft: &mut Draft,
    (order, name): (usize, &str),
    (cake, count): (&StackDocument, u32),
    (made, serve): (&MadeOf, usize),
    kitchen: &KitchenDocument,
    finished_g: f64,
) {
    let layout = Layout::of(cake);
    let all = f64::from(count);
    let mut tops: Vec<(usize, Doing)> = Vec::new();
    let mut used = Vec::new();
    let mut whole = (0.0f64, 0.0f64);
    for (at, tier) in cake.tiers.iter().enumerate() {
        let spots: Vec<&PlaceSpot> = layout.spots.iter().filter(|spot| spot.tier == at).collect();
        let own = &layout.tiers[at];
        let many = all * f64::from(tier.count());
        let height = 10.0 * (own.z[1] - own.z[0]);
        let size = (many * own.outside.grown(2.0).area(), height);
        whole = (whole.0.max(size.0), whole.1 + height);
        let comp = match cake.tiers.len() {
            1 => name.to_owned(),
            _ => format!("{name}, tier {}", at + 1),
        };
        let mut builder = Builder { draft, order, comp, made, kitchen, size, last: None, used };
        tier_of(&mut builder, tier, &spots, (all, many));
        tops.extend(builder.last.take());
        used = builder.used;
    }
    let mut builder =
        Builder { draft, order, comp: name.to_owned(), made, kitchen, size: whole, last: None, used };
    if tops.len() > 1 {
        let at = builder.does(&ASSEMBLY.tiers, all * tops.len() as f64, &[]);
        for (top, how) in &tops {
            let how =
                Doing { stands: how.stands.or(Some([0.0, 720.0])), place: Some(Spot::Fridge), ..how.clone() };
            builder.stands(*top, at, &how);
        }
    } else {
        builder.last = tops.pop();
    }
    on_top(&mut builder, cake, &layout, all);
    let pieces = all * f64::from(cake.pieces());
    let small = pieces > all || cake.tiers.iter().all(|tier| tier.container.is_some());
    let boxed = match small {
        true => builder.does(&ASSEMBLY.box_small, pieces, &[]),
        false => builder.does(&ASSEMBLY.r#box, all * cake.tiers.len() as f64, &[]),
    };
    let cold = builder.used.iter().any(|own| made.get(own).is_some_and(|made| made.cold));
    let least = match cake.serve_c {
        Some(serve_c) if serve_c < 10.0 => 0.0,
        _ => (TEMPER[0] + TEMPER[1] * 1e-3 * finished_g).min(TEMPER[2]),
    };
    let most = if cold { OUT_COLD } else { OUT_DRY };
    draft.lags.push(Lag {
        from: boxed,
        to: serve,
        least,
        most: Some(most.max(least)),
        name: "out of the cold until it is eaten".to_owned(),
        place: None,
        clock: None,
        class: if cold { LimitClass::Safety } else { LimitClass::Quality },
    });
}

/// The layers and coats of a tier.
///
/// # Arguments
/// * `all`: how many cakes; `many`: how many pieces of the tier in all of them. Its places count those of one cake.
fn tier_of(builder: &mut Builder, tier: &Tier, spots: &[&PlaceSpot], (all, many): (f64, f64)) {
    let table = &*ASSEMBLY;
    let of = |kinds: &[PlaceKind]| -> Vec<(PartKind, String)> {
        each_once(spots.iter().filter(|spot| kinds.contains(&spot.kind)).filter_map(|spot| part(spot.stuff)))
    };
    let count = |kind: PlaceKind| spots.iter().filter(|spot| spot.kind == kind).count() as f64;
    let inner = of(&[
        PlaceKind::Sponge,
        PlaceKind::Soak,
        PlaceKind::Filling,
        PlaceKind::Dam,
        PlaceKind::Insert,
        PlaceKind::Case,
        PlaceKind::Film,
    ]);
    let set = tier.layers.iter().any(|layer| matches!(layer, Layer::Filling { task: FillingTask::Set, .. }));
    let moulded = tier.body.own_height_mm().is_some() && tier.container.is_none() && tier.case.is_none();
    if tier.case.is_some() {
        if count(PlaceKind::Film) > 0.0 {
            builder.does(&table.film, many, &of(&[PlaceKind::Case, PlaceKind::Film]));
        }
        builder.does(&table.many, many, &inner);
    } else if tier.container.is_some() {
        let jar = builder.until_set(&table.jar, &inner);
        builder.does(&jar, many * tier.layers.len() as f64, &inner);
        builder.does(&table.close, many, &[]);
    } else if matches!(tier.body, Body::Roll { .. }) {
        builder.does(&table.roll, many, &inner);
    } else if moulded || (set && count(PlaceKind::Sponge) <= 1.0) {
        let inserts = of(&[PlaceKind::Insert]);
        let bakes = |own: &(PartKind, String)| own.0 == PartKind::Bake;
        if inserts.iter().any(|own| !bakes(own)) {
            // They go in frozen.
            builder.does(&table.insert, many, &inserts);
        }
        let rest: Vec<(PartKind, String)> =
            inner.into_iter().filter(|own| bakes(own) || !inserts.contains(own)).collect();
        // What stands frozen in it has set before.
        let mould = builder.until_set(&table.mould, &rest);
        builder.does(&mould, many, &rest);
        builder.does(&table.turn_out, many, &[]);
    } else if !inner.is_empty() {
        let fill = Doing {
            name: table.fill.name.clone(),
            minutes: [
                table.split.time(many * count(PlaceKind::Sponge))
                    + table.soak.time(many * count(PlaceKind::Soak))
                    + table.dam.time(many * count(PlaceKind::Dam)),
                table.fill.minutes[1],
            ],
            ..builder.until_set(&table.fill, &inner)
        };
        builder.does(&fill, many * count(PlaceKind::Filling), &inner);
    }
    let hundreds = |kind: PlaceKind| -> f64 {
        let coats = spots.iter().filter(|spot| spot.kind == kind);
        all * coats.map(|spot| spot.volume / spot.thickness.max(0.05) / 100.0).sum::<f64>()
    };
    for (kind, doing) in [(PlaceKind::CrumbCoat, &table.crumb_coat), (PlaceKind::Coat, &table.coat)] {
        if count(kind) > 0.0 {
            builder.does(doing, hundreds(kind), &of(&[kind]));
        }
    }
    if count(PlaceKind::Glaze) > 0.0 {
        builder.does(&table.glaze, many, &of(&[PlaceKind::Glaze]));
    }
    if count(PlaceKind::Drip) > 0.0 {
        let drips: f64 =
            spots.iter().filter(|spot| spot.kind == PlaceKind::Drip).map(|spot| f64::from(spot.count)).sum();
        let at = builder.does(&table.drip, all * drips, &of(&[PlaceKind::Drip]));
        builder.draft.acts[at].skill = Some(Skill::Pipe.word().to_owned());
    }
}

/// What goes on when the tiers stand.
fn on_top(builder: &mut Builder, cake: &StackDocument, layout: &Layout, all: f64) {
    let table = &*ASSEMBLY;
    let spots = |kinds: &[PlaceKind]| -> Vec<&PlaceSpot> {
        layout.spots.iter().filter(|spot| kinds.contains(&spot.kind)).collect()
    };
    let number = |own: &[&PlaceSpot]| -> f64 { own.iter().map(|spot| all * f64::from(spot.count)).sum() };
    let parts = |own: &[&PlaceSpot]| each_once(own.iter().filter_map(|spot| part(spot.stuff)));
    let piped = spots(&[PlaceKind::Border, PlaceKind::Rosettes]);
    if !piped.is_empty() {
        let at = builder.does(&table.pipe, number(&piped), &parts(&piped));
        builder.draft.acts[at].skill = Some(Skill::Pipe.word().to_owned());
    }
    let laid = spots(&[PlaceKind::Pieces]);
    if !laid.is_empty() {
        builder.does(&table.lay, number(&laid), &[]);
    }
    let piled = spots(&[PlaceKind::Pile]);
    if !piled.is_empty() {
        let pieces: f64 = cake.tiers.iter().map(|tier| all * f64::from(tier.count())).sum();
        builder.does(&table.pile, pieces, &parts(&piled));
    }
}
