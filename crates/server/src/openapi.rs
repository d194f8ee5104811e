//! The description of the interface (OpenAPI 3.1) and the JSON Schemas of the open formats, all made
//! from the types themselves.

use crate::examples;
use crate::formats::{FORMATS, Format};
use crate::refusals;
use crate::state::AppState;
use axum::Router;
use axum::http::header;
use axum::response::IntoResponse;
use axum::routing::get;
use serde_json::{Map, Value, json};
use utoipa::OpenApi;
use utoipa::openapi::OpenApi as Document;
use utoipa_axum::router::OpenApiRouter;

#[derive(OpenApi)]
#[openapi(
    info(
        title = "Bright Spoon",
        description = "Predicts what a cream will do. Amounts go in as a cook writes them; every number that comes out names its unit, and a percentage its base.",
        license(name = "MIT")
    ),
    // No route names it: what each may be refused with is written by `refusals`.
    components(schemas(crate::problem::Problem, crate::planner::PlanProgress)),
    tags(
        (name = "predict", description = "What a formula will do"),
        (name = "balance", description = "The smallest ways there, and swaps"),
        (name = "rescue", description = "What to do when it went wrong"),
        (name = "scale", description = "Another size, and shares"),
        (name = "clock", description = "When it is cold or warm enough"),
        (name = "methods", description = "How it is made"),
        (name = "stack", description = "A cake to scale: how much, and whether it stands"),
        (name = "orders", description = "Orders: what to make, buy, label and pay"),
        (name = "plans", description = "The day: orders planned, bent, kept, and what is said of their steps"),
        (name = "batches", description = "Batches while they are made: what is weighed, heated, seen and decided"),
        (name = "log", description = "What was made: found, beside each other, in and out"),
        (name = "learned", description = "What tests at the bench taught"),
        (name = "trainer", description = "The eye trained"),
        (name = "rooms", description = "The pastry room: hours, cooks, equipment"),
        (name = "files", description = "Open formats and Schema.org Recipe, in and out"),
        (name = "ingredients", description = "The pantry: ingredients, own ones, files in and out"),
        (name = "components", description = "Saved formulas and their revisions"),
        (name = "kitchen", description = "The kitchen and its habits")
    )
)]
struct Base;

/// Routes under /api together with their description.
pub fn with_routes(routes: OpenApiRouter<AppState>) -> OpenApiRouter<AppState> {
    OpenApiRouter::with_openapi(Base::openapi()).nest("/api", OpenApiRouter::new()).merge(routes)
}

/// The description, without serving it.
pub fn document() -> Value {
    finished(with_routes(crate::routes::all()).split_for_parts().1)
}

/// Paths are written below /api by the routes and above it in the description; jobs are closed.
fn finished(mut document: Document) -> Value {
    let paths = std::mem::take(&mut document.paths.paths);
    document.paths.paths = paths.into_iter().map(|(path, item)| (format!("/api{path}"), item)).collect();
    let mut value = serde_json::to_value(document).expect("a description serialises");
    close_jobs(&mut value["components"]["schemas"]);
    close_variants(&mut value["components"]["schemas"]);
    refusals::describe(&mut value);
    examples::add(&mut value);
    value
}

/// A job is its geometry and the word that tells which. Written as "all of" two closed objects that
/// would take nothing, as each forbids the other's fields; so they are made one closed object.
fn close_jobs(schemas: &mut Value) {
    let geometries = schemas.clone();
    let Some(variants) = schemas["Job"]["oneOf"].as_array_mut() else { return };
    for variant in variants {
        let reference = variant["allOf"][0]["$ref"].as_str().unwrap_or_default();
        let name = reference.rsplit('/').next().unwrap_or_default().to_owned();
        let mut whole = geometries[&name].clone();
        whole["properties"]["kind"] = variant["allOf"][1]["properties"]["kind"].clone();
        whole["required"] = json!(["kind"]);
        whole["description"] = variant["description"].clone();
        *variant = whole;
    }
}

/// The variants of a tagged type take no field that is not theirs, as the types themselves do.
fn close_variants(schemas: &mut Value) {
    let Some(all) = schemas.as_object_mut() else { return };
    for variants in all.values_mut().filter_map(|schema| schema.get_mut("oneOf")?.as_array_mut()) {
        for variant in variants.iter_mut().filter_map(Value::as_object_mut) {
            if variant.contains_key("properties") {
                variant.entry("additionalProperties").or_insert(json!(false));
            }
        }
    }
}

/// The description as pretty JSON with a final line break: what the repository keeps.
pub fn pretty() -> String {
    let mut text = serde_json::to_string_pretty(&document()).expect("a description serialises");
    text.push('\n');
    text
}

/// A JSON text written once and shared by all who ask for it.
fn text_of(value: &Value) -> axum::body::Bytes {
    serde_json::to_vec(value).expect("a description serialises").into()
}

fn shared(text: axum::body::Bytes) -> impl IntoResponse {
    ([(header::CONTENT_TYPE, "application/json")], text)
}

/// Routes that serve the description and the schemas.
pub fn served(document: Document) -> Router<AppState> {
    let whole = text_of(&finished(document));
    let routes = Router::new().route("/openapi.json", get(async move || shared(whole)));
    FORMATS.iter().fold(routes, |routes, format| {
        let schema = text_of(&schema(format));
        routes.route(&format!("/schemas/{}.json", format.name), get(async move || shared(schema)))
    })
}

/// The JSON Schema (2020-12) of a format, cut out of the description.
pub fn schema(format: &Format) -> Value {
    let description = document();
    let all = description["components"]["schemas"].as_object().expect("the description has schemas");
    let mut definitions = Map::new();
    let mut wanted = vec![format.root.to_owned()];
    while let Some(name) = wanted.pop() {
        if definitions.contains_key(&name) {
            continue;
        }
        let schema = moved(&all[&name], format.root, &mut wanted);
        definitions.insert(name, schema);
    }
    let Some(Value::Object(mut root)) = definitions.remove(format.root) else {
        unreachable!("a document is an object")
    };
    // What the text of the type cannot say: the two fields that name the format.
    root["properties"]["format"]["const"] = json!(format.says);
    root["properties"]["version"]["const"] = json!(1);
    root.insert("$schema".into(), json!("https://json-schema.org/draft/2020-12/schema"));
    root.insert("title".into(), json!(format.title));
    root.insert("$defs".into(), Value::Object(definitions));
    Value::Object(root)
}

/// A copy in which references point into `$defs`; what they name is added to `wanted`.
fn moved(schema: &Value, root: &str, wanted: &mut Vec<String>) -> Value {
    match schema {
        Value::Object(fields) => fields
            .iter()
            .map(|(key, value)| match (key.as_str(), value.as_str()) {
                ("$ref", Some(path)) => {
                    let name = path.rsplit('/').next().unwrap_or_default().to_owned();
                    // What a document holds of its own kind is the whole schema again.
                    let here = if name == root { json!("#") } else { json!(format!("#/$defs/{name}")) };
                    wanted.push(name);
                    (key.clone(), here)
                }
                _ => (key.clone(), moved(value, root, wanted)),
            })
            .collect::<Map<_, _>>()
            .into(),
        Value::Array(items) => items.iter().map(|item| moved(item, root, wanted)).collect(),
        other => other.clone(),
    }
}
