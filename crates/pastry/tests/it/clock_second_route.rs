//! Bodies that cool against a second route: fine finite differences in `scripts/oracle_clock.py`, which know nothing of the core. A
//! bowl there is the cap of a ball it is.

use pastry::heat::cooling::MarkAnswer;
use pastry::heat::{CaseDocument, cool};
use serde::Deserialize;

#[derive(Deserialize)]
struct Case {
    name: String,
    case: CaseDocument,
    min: Vec<Option<f64>>,
    late: f64,
}

#[derive(Deserialize)]
struct Fixture {
    cases: Vec<Case>,
}

#[test]
fn bowls_jars_coats_and_two_places_come_where_finite_differences_have_them() {
    let fixture: Fixture = serde_json::from_str(include_str!("data/clock_second_route.json")).unwrap();
    let mut wrong = Vec::new();
    let mut compared = 0;
    for case in fixture.cases {
        let answer = cool(&case.case).unwrap_or_else(|faults| panic!("{}: {faults:?}", case.name));
        for (mark, want) in answer.marks.iter().zip(&case.min) {
            let (MarkAnswer::Time(time), Some(want)) = (mark, want) else { panic!("{}: no time", case.name) };
            let off = time.min.unwrap_or_else(|| panic!("{}: never", case.name)) / want - 1.0;
            compared += 1;
            // Early is the unsafe side: half a per cent, or two seconds of what takes no minute (four on the late side). Late is
            // what a cylinder in place of a bowl costs.
            let early = 0.005_f64.max(0.033 / want);
            if off < -early || off > case.late.max(0.066 / want) {
                wrong.push(format!("{}: {:.2} %, {want:.2} min", case.name, 100.0 * off));
            }
        }
    }
    assert!(wrong.is_empty() && compared >= 20, "{compared}: {wrong:#?}");
}
