//! Days nobody wrote: orders, kitchens and outages drawn by a seeded hand, compiled by the product, planned, checked, twice.

use crate::day::{kitchen, lantern_street, orders};
use jiff::Span;
use jiff::civil::DateTime;
use pastry::day::kitchen::{CookDocument, OutOfUse};
use pastry::day::{KitchenDocument, Sharing, ToPlan, compile};
use pastry::method::gear::Resource;
use pastry::order::OrderDocument;
use pastry::stack::Known;
use pastry::zone::Zone;
use plan::answer::plan;
use plan::check::check;
use plan::search::Budget;

/// A small generator of numbers (Knuth's MMIX, from memory): the same draws on every machine.
struct Draw(u64);

impl Draw {
    fn below(&mut self, most: u64) -> u64 {
        self.0 = self.0.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (self.0 >> 33) % most
    }
}

/// One or two cakes of the demo in other numbers, on other days.
fn drawn_orders(draw: &mut Draw, from: DateTime) -> Vec<OrderDocument> {
    let all = orders();
    (0..1 + draw.below(2))
        .map(|_| {
            let mut order = all[draw.below(all.len() as u64) as usize].clone();
            let cake = draw.below(order.cakes.len() as u64) as usize;
            order.cakes = vec![order.cakes[cake].clone()];
            order.cakes[0].count = 1 + draw.below(6) as u32;
            order.made_on = None;
            let days = Span::new().days(3 + draw.below(4) as i64).hours(4 + draw.below(9) as i64);
            order.served_at = Some(from.saturating_add(days));
            order
        })
        .collect()
}

/// Lantern Street with more or fewer hands and machines, open every day, something out of use for a while.
fn drawn_kitchen(draw: &mut Draw, from: DateTime) -> KitchenDocument {
    let mut kitchen = lantern_street();
    kitchen.hours[0].on = pastry::day::kitchen::Weekday::ALL.to_vec();
    kitchen.hours.truncate(1);
    kitchen.cooks = (0..1 + draw.below(3))
        .map(|at| CookDocument { name: format!("Cook {at}"), hours: Vec::new(), cannot: Vec::new() })
        .collect();
    kitchen.equipment.mixers_l = vec![7.0; 1 + draw.below(2) as usize];
    kitchen.equipment.ovens_trays = vec![4 + draw.below(3) as u32; 1 + draw.below(2) as usize];
    let what = [Resource::Mixer, Resource::Oven, Resource::Hob][draw.below(3) as usize];
    let at = from.saturating_add(Span::new().days(draw.below(3) as i64).hours(draw.below(8) as i64));
    kitchen.out_of_use = vec![OutOfUse {
        what,
        from: at,
        to: at.saturating_add(Span::new().hours(1 + draw.below(3) as i64)),
        left: 0,
    }];
    kitchen
}

#[test]
fn fifty_days_that_nobody_wrote_have_a_legal_plan_and_the_same_twice() {
    let (formulas, shelf) = kitchen();
    let known = Known { formulas: &formulas, shelf: &shelf };
    let zone = Zone::default();
    let from: DateTime = "2026-11-30T06:00:00".parse().unwrap();
    let mut draw = Draw(14);
    for case in 0..50 {
        let orders = drawn_orders(&mut draw, from);
        let kitchen = drawn_kitchen(&mut draw, from);
        let all: Vec<&OrderDocument> = orders.iter().collect();
        let ask = ToPlan {
            orders: &all,
            kitchen: &kitchen,
            zone: &zone,
            from,
            learned: &[],
            sharing: &Sharing::default(),
        };
        let own = compile(&ask, &known).unwrap_or_else(|faults| panic!("{case}: {faults:?}"));
        let names: Vec<&str> = orders.iter().map(|order| order.cakes[0].stack.name.as_str()).collect();
        let budget = Budget { rounds: 60, seed: 3 };
        let answer = plan(&own.problem, budget, &|_| true);
        assert!(answer.is_whole(), "{case} {names:?}: {:?}", answer.because);
        assert_eq!(check(&own.problem, &answer.start), [], "{case} {names:?}");
        if case % 5 == 0 {
            assert_eq!(plan(&own.problem, budget, &|_| true), answer, "{case}: the same plan twice");
        }
    }
}
