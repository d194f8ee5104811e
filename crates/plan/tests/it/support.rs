//! What the tests share.

use plan::problem::{Problem, Problems};
use serde_json::{Value, json};

/// The six problems.
pub fn instances() -> Vec<Problem> {
    let all: Problems = serde_json::from_str(include_str!("data/instances.json")).unwrap();
    all.instances
}

/// One of the six.
pub fn instance(id: &str) -> Problem {
    instances().into_iter().find(|problem| problem.id == id).unwrap()
}

/// What an exact solver found for them.
pub fn reference() -> Value {
    serde_json::from_str(include_str!("data/reference.json")).unwrap()
}

/// Starts as they are stored, min.
pub fn minutes(start: &Value) -> Vec<Option<i32>> {
    start.as_array().unwrap().iter().map(|at| Some(at.as_i64().unwrap() as i32)).collect()
}

/// The same in slots.
pub fn slots(problem: &Problem, start: &Value) -> Vec<i32> {
    minutes(start).into_iter().map(|at| at.unwrap() / problem.grid_min).collect()
}

/// A small problem: bake, cool on a rack, fill, hold in the cold, box, serve.
pub fn small() -> Problem {
    serde_json::from_value(json!({
        "id": "small", "days": 2, "horizon": 2880, "windows": [[480, 1080], [1920, 2520]],
        "resources": [
            {"id": "cook", "cap": 1}, {"id": "oven", "cap": 2, "setups": true},
            {"id": "rack", "cap": 1}, {"id": "fridge", "cap": 2, "less": [[2100, 2160, 1]]}
        ],
        "cooks": [{"name": "Ines", "hours": [[480, 780], [1920, 2520]]}, {"name": "Tom", "hours": [[720, 1080]], "without": ["fill"]}],
        "orders": [{"id": 0, "title": "Small cake", "serve": 2400}],
        "steps": [
            {"id": 0, "order": 0, "comp": "sponge", "name": "mix", "kind": "hands", "dur": 20, "use": {"cook": 1}},
            {"id": 1, "order": 0, "comp": "sponge", "name": "bake", "kind": "machine", "dur": 40, "use": {"oven": 1}, "setup": "175"},
            {"id": 2, "order": 0, "comp": "cake", "name": "fill", "kind": "hands", "dur": 30, "use": {"cook": 1}, "age": 3, "skill": "fill"},
            {"id": 3, "order": 0, "comp": "cake", "name": "box", "kind": "hands", "dur": 10, "use": {"cook": 1}},
            {"id": 4, "order": 0, "comp": "cake", "name": "serve", "kind": "serve", "dur": 0},
            {"id": 5, "order": 0, "comp": "crust", "name": "bake the crust", "kind": "machine", "dur": 40, "use": {"oven": 1}, "setup": "150"}
        ],
        "waits": [
            {"id": 0, "from": 1, "to": 2, "name": "cool", "min": 60, "max": 2000, "use": {"rack": 1}},
            {"id": 1, "from": 2, "to": 3, "name": "hold", "min": 60, "max": 600, "use": {"fridge": 2}},
            {"id": 2, "from": 3, "to": 4, "name": "temper", "min": 30, "max": 120}
        ],
        "links": [
            {"from": 0, "to": 1, "min": 0, "max": 10, "flow": true},
            {"from": 5, "to": 2, "min": 0, "max": 2000}
        ],
        "weights": {"day_open": 240, "span_per_slot": 20, "interruption": 40, "switch": 20}
    }))
    .unwrap()
}
