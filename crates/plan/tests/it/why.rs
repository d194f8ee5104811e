//! Why a step stands where it stands.

use crate::support::instance;
use plan::answer::plan;
use plan::net::Net;
use plan::push::Way;
use plan::search::Budget;
use plan::why::{Blocker, Standing};

/// After the late pass nothing stands earlier than it must for no reason, and every chain hangs together.
#[test]
fn every_chain_ends_at_something_that_holds() {
    for id in ["s32", "p61", "q112"] {
        let problem = instance(id);
        let answer = plan(&problem, Budget { rounds: 2000, seed: 1 }, &|_| true);
        let net = Net::of(&problem, false);
        let start: Vec<i32> = answer.start.iter().map(|at| at.unwrap() / problem.grid_min).collect();
        let mut standing = Standing::of(&net, &start);
        for (step, at) in start.iter().copied().enumerate() {
            let chain = standing.why(step, Way::Later);
            let last = chain.last().unwrap().by;
            assert!(last.step().is_none() && last != Blocker::Free, "{id} {step}: {chain:?}");
            assert_eq!(chain[0].step, step);
            for pair in chain.windows(2) {
                assert_eq!(pair[0].by.step(), Some(pair[1].step), "{id} {step}: {chain:?}");
            }
            assert!(!standing.why(step, Way::Earlier).is_empty());
            let (from, to) = standing.anywhere(step);
            assert!(from <= at && at <= to);
            let give = standing.give(step, 24);
            assert!(give >= to - at || give == 24, "{id} {step}: {give} and {to}");
        }
    }
}
