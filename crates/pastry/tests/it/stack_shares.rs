//! What is in the bowl against what the cake asks for; outlines that grow and shrink; how warm a thing may be.

use crate::cakes::{chosen, formulas, template, with_known, worked_out};
use pastry::ingredient::{Ingredient, Shelf};
use pastry::job::jobs::{MaskGeometry, SetGeometry};
use pastry::job::kind::Job;
use pastry::order::{OrderDocument, OrderedCake, order};
use pastry::scale::{ShareAsk, shares};
use pastry::stack::check::bears::warmest_for;
use pastry::stack::{Footprint, Known, Makings};
use proptest::prelude::*;
use std::f64::consts::PI;

/// Every batch of a component, weighed out of its bowl in the shares its cakes ask for: it is enough, and each gets
/// what it asked for to the gram and what the losses leave besides.
#[test]
fn the_bowl_is_enough_for_every_share() {
    let document = OrderDocument {
        cakes: [("tiers", 1), ("dome", 24), ("jar", 30)]
            .map(|(key, count)| OrderedCake { stack: chosen(&template(key)), count })
            .into_iter()
            .collect(),
        ..OrderDocument::empty(21.0)
    };
    let pack = |ingredient: &Ingredient| ingredient.pack;
    let answer = with_known(|known| order(&document, known, &pack, &|_| Vec::new())).unwrap();
    let mut checked = 0;
    for batch in answer.batches.iter().filter(|batch| batch.runs_off_g == 0.0) {
        let sizes: Vec<f64> = batch
            .shares
            .iter()
            .flat_map(|share| std::iter::repeat_n(share.each_g, share.count as usize))
            .collect();
        let ask = ShareAsk {
            in_the_bowl_g: batch.to_make_g,
            bowl_g: 0.0,
            loss_percent: 0.0,
            sizes: sizes.clone(),
            step_g: 0.1,
        };
        let out = shares(&ask).unwrap_or_else(|faults| panic!("{}: {faults:?}", batch.name));
        let sum: f64 = out.shares.iter().map(|share| share.grams).sum();
        assert!((sum - out.shared_g).abs() < 1e-6, "{}", batch.name);
        for (share, asked) in out.shares.iter().zip(&sizes) {
            // A batch whose every line is rounded may be half a gram a line short.
            assert!(share.grams >= asked * 0.985 - 0.2, "{}: {} for {asked}", batch.name, share.grams);
            assert!(share.grams <= asked * 1.12 + 0.5, "{}: {} for {asked}", batch.name, share.grams);
            checked += 1;
        }
    }
    assert!(checked > 100, "{checked} shares");
}

/// Steiner: an outline grown by t has its edge times t and a round of t more; squares keep sharp corners.
#[test]
fn outlines_grow_by_their_edge() {
    for (outline, corners) in [
        (Footprint::Round { diameter: 18.0 }, PI),
        (Footprint::Rectangle { length: 30.0, width: 20.0, corner: 2.0 }, PI),
        (Footprint::Rectangle { length: 30.0, width: 20.0, corner: 0.0 }, 4.0),
        (Footprint::Hexagon { across: 18.0 }, 2.0 * 3f64.sqrt()),
    ] {
        for t in [0.15, 0.5, 2.0] {
            let grown = outline.grown(t).area();
            let steiner = outline.area() + outline.perimeter() * t + corners * t * t;
            assert!(
                (grown / steiner - 1.0).abs() < 1e-9,
                "{outline:?} by {t}: {grown}, by its edge {steiner}"
            );
        }
    }
}

/// A colder table never asks for more: what holds at the warmest it is told holds below it, and not above.
#[test]
fn the_warmest_is_the_warmest() {
    let document = chosen(&template("ring"));
    let (kitchen, shelf) = (formulas(), Shelf::catalogue());
    let known = Known { formulas: &kitchen, shelf: &shelf };
    let makings = Makings::of(&document, &known);
    for (key, job) in
        [("mousse", Job::Set(SetGeometry::default())), ("jelly", Job::Set(SetGeometry::default()))]
    {
        let cream = makings.cream(Some(key)).unwrap();
        let warmest = warmest_for(cream, &job, 40.0).unwrap_or_else(|| panic!("{key} holds nowhere"));
        assert!((5.0..30.0).contains(&warmest), "{key}: {warmest} °C");
        let holds = |t_c: f64| {
            let judged = cream.judge(&job, t_c, cream.standing_history());
            judged.outcome != pastry::job::duty::Outcome::TooLoose
        };
        assert!(holds(warmest) && holds(warmest - 2.0) && !holds(warmest + 0.5), "{key} at {warmest} °C");
    }
    // Nothing holds a hand's width of mousse on a wall.
    let thick = Job::Mask(MaskGeometry {
        thickness_mm: pastry::units::Length::from_millimetres(900.0),
        ..MaskGeometry::default()
    });
    assert_eq!(warmest_for(makings.cream(Some("mousse")).unwrap(), &thick, 30.0), None);
}

proptest! {
    #[test]
    fn an_outline_shrunk_away_is_nothing(by in 0.0f64..60.0, size in 1.0f64..40.0) {
        for outline in [
            Footprint::Round { diameter: size },
            Footprint::Rectangle { length: size, width: 0.7 * size, corner: 0.1 * size },
            Footprint::Ring { diameter: size, hole: 0.4 * size },
            Footprint::Heart { side: size },
            Footprint::Hexagon { across: size },
        ] {
            let shrunk = outline.grown(-by);
            prop_assert!(shrunk.area() >= -1e-9 && shrunk.area() <= outline.area() + 1e-9, "{outline:?} by {by}: {shrunk:?}");
        }
    }

    #[test]
    fn portions_never_weigh_more_than_the_cake(portion in 5.0f64..600.0) {
        let mut document = chosen(&template("layers"));
        document.portion_g = Some(portion);
        let answer = worked_out(&document);
        let weigh = f64::from(answer.portions) * portion;
        prop_assert!(weigh <= answer.finished_g + 1e-6 && weigh + portion > answer.finished_g - 1e-6);
    }
}
