//! Examples in the description: real requests, and small answers as the program gives them.

use crate::convert::weigh_amount;
use crate::demo;
use pastry::ingredient::label::LabelKind;
use pastry::ingredient::{IngredientDocument, Label, find};
use pastry::units::kitchen::Measures;
use serde_json::{Value, json};

/// Adds examples to the description.
pub fn add(description: &mut Value) {
    let mut formulas = demo::documents().unwrap_or_default().into_iter();
    let (Some(first), Some(second)) = (formulas.next(), formulas.next()) else { return };
    let own = find("cream36").map(|cream| {
        IngredientDocument::copy_of(cream, "own-meadow-cream".to_owned(), "Meadow cream".to_owned())
    });
    let label = Label {
        kind: LabelKind::Dairy,
        fat_g: 36.0,
        saturates_g: Some(23.0),
        carbohydrate_g: 3.0,
        sugars_g: 3.0,
        fibre_g: None,
        protein_g: 2.1,
        salt_g: 0.08,
        cocoa_percent: None,
        milk_fat_percent: None,
        alcohol_percent_vol: None,
        brix: None,
    };
    request(description, "/api/predict", "post", json!(first));
    request(description, "/api/balance", "post", json!(first));
    request(description, "/api/methods", "post", json!(first));
    request(
        description,
        "/api/swap",
        "post",
        json!({ "document": first, "ask": { "swap": "replace", "line": 0, "by": "dark70" }, "keep": ["consistency", "cost"] }),
    );
    request(
        description,
        "/api/rescue",
        "post",
        json!({ "document": first, "sign": "too_stiff", "bowl_c": 26, "bowl_g": 280 }),
    );
    request(description, "/api/overpour", "post", json!({ "document": first, "line": 0, "poured": "172 g" }));
    request(
        description,
        "/api/scale",
        "post",
        json!({ "document": first, "target": { "to": "pieces", "count": 24, "each": 18 }, "loss_percent": 4 }),
    );
    request(
        description,
        "/api/shares",
        "post",
        json!({ "in_the_bowl_g": 1450, "bowl_g": 450, "sizes": [1, 1, 1] }),
    );
    request(description, "/api/clock", "post", custard_in_a_tray());
    request(
        description,
        "/api/clock/boil",
        "post",
        json!({ "formula": first, "boil": { "to": "share", "of_weight": 0.9 }, "altitude_m": 650, "ring": "induction" }),
    );
    request(description, "/api/components", "post", json!(first));
    request(description, "/api/compare", "post", json!({ "documents": [first, second] }));
    request(description, "/api/ingredients", "post", json!(own));
    request(description, "/api/ingredients/infer", "post", json!(label));
    request(
        description,
        "/api/ingredients/import",
        "post",
        json!({ "kind": "csv", "text": "name,group,water_percent,milk_fat_percent\nMeadow cream,dairy,60,40\n" }),
    );
    answer(description, "/api/ingredients/infer", "post", json!(label.infer().ok()));
    let weighed = weigh_amount("1 1/2 cups", "cream36", Measures::Us).ok();
    answer(description, "/api/convert", "get", json!(weighed));
}

/// 20 mm of pastry cream under film in a fridge.
fn custard_in_a_tray() -> Value {
    json!({
        "shape": "slab",
        "thickness_mm": 20,
        "material": { "comp": {
            "water": 0.685, "protein": 0.042, "sugar": 0.165, "starch": 0.046, "ash": 0.007, "fat_milk": 0.03, "fat_oil": 0.025
        } },
        "start_c": 85,
        "phases": [{
            "min": 480,
            "top": { "h": [5, 8, 11], "t": 4, "r": 0.0001 },
            "bottom": { "h": [5, 8, 11], "t": 4, "r": 0.00006 }
        }],
        "marks": [{ "point": "hottest", "to_c": 21 }, { "point": "mean", "after_min": 60 }]
    })
}

fn request(description: &mut Value, path: &str, method: &str, example: Value) {
    description["paths"][path][method]["requestBody"]["content"]["application/json"]["example"] = example;
}

fn answer(description: &mut Value, path: &str, method: &str, example: Value) {
    let responses = &mut description["paths"][path][method]["responses"];
    responses["200"]["content"]["application/json"]["example"] = example;
}
