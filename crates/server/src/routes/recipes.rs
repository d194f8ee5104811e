//! Formulas, cakes and orders as files: whole documents, Schema.org Recipe, lists as CSV; and all of them read.

use crate::body::{Asked, Body};
use crate::cupboard::Cupboard;
use crate::download::download;
use crate::error::ApiError;
use crate::formats::FORMATS;
use crate::routes::orders::worked_out;
use crate::shape::faults_of;
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use axum::response::Response;
use pastry::assess::FormulaDocument;
use pastry::exchange::bring;
use pastry::exchange::lists::{ListKind, to_csv};
use pastry::exchange::read::{ReadFile, read};
use pastry::exchange::recipe::{formula_recipe, order_recipe, stack_recipe};
use pastry::fault::{Fault, FaultCode};
use pastry::order::OrderDocument;
use pastry::stack::StackDocument;
use serde::Deserialize;
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// One of our documents.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum Written {
    /// A formula.
    Formula {
        /// It.
        document: FormulaDocument,
    },
    /// A cake.
    Stack {
        /// It.
        document: StackDocument,
    },
    /// An order.
    Order {
        /// It.
        document: OrderDocument,
    },
}

/// In what form.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Form {
    /// The document, with every formula and own ingredient it needs elsewhere.
    #[default]
    Json,
    /// Schema.org Recipe in JSON-LD, with the document inside.
    Recipe,
}

/// What to write out.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct WantedForm {
    /// In what form.
    #[param(inline)]
    #[serde(default)]
    pub form: Form,
}

/// Which list to write out.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct WantedList {
    /// Which.
    #[param(inline)]
    list: ListKind,
}

/// A file to read.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FileText {
    /// All of its text.
    pub text: String,
}

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(write_file)).routes(routes!(read_file)).routes(routes!(write_list))
}

fn whole(name: &str, other: &str, value: &impl serde::Serialize, kind: &'static str) -> Response {
    let text = serde_json::to_string_pretty(value).expect("a document serialises");
    download(kind, if name.trim().is_empty() { other } else { name }, text)
}

const JSON: &str = "application/json";
const JSON_LD: &str = "application/ld+json";

/// Writes a formula, a cake or an order as a file: whole, so that another kitchen can use it, or as a recipe.
#[utoipa::path(post, path = "/files", tag = "files", params(WantedForm), request_body = Written, responses(
    (status = 200, body = serde_json::Value, description = "The file")
))]
async fn write_file(
    State(state): State<AppState>,
    Asked(wanted): Asked<WantedForm>,
    Body(written): Body<Written>,
) -> Result<Response, ApiError> {
    let room_c = state.store.kitchen().await?.room_temperature_c.celsius();
    match written {
        Written::Formula { document } => {
            let cupboard = Cupboard::of_formula(&state, &document).await?;
            state
                .work_out(move || match wanted.form {
                    Form::Json => {
                        let brings = bring::formula(&document, &cupboard.known());
                        Ok(whole(&document.name, "formula", &brings, JSON))
                    }
                    Form::Recipe => formula_recipe(&document, &cupboard.known())
                        .map(|recipe| whole(&document.name, "recipe", &recipe, JSON_LD)),
                })
                .await
        }
        Written::Stack { document } => {
            let cupboard = Cupboard::of(&state, &[&document]).await?;
            state
                .work_out(move || {
                    Ok(match wanted.form {
                        Form::Json => {
                            whole(&document.name, "cake", &bring::stack(&document, &cupboard.known()), JSON)
                        }
                        Form::Recipe => whole(
                            &document.name,
                            "cake",
                            &stack_recipe(&document, &cupboard.known(), room_c),
                            JSON_LD,
                        ),
                    })
                })
                .await
        }
        Written::Order { document } => {
            let stacks: Vec<_> = document.cakes.iter().map(|cake| &cake.stack).collect();
            let cupboard = Cupboard::of(&state, &stacks).await?;
            state
                .work_out(move || {
                    Ok(match wanted.form {
                        Form::Json => {
                            whole(&document.name, "order", &bring::order(&document, &cupboard.known()), JSON)
                        }
                        Form::Recipe => whole(
                            &document.name,
                            "order",
                            &order_recipe(&document, &cupboard.known()),
                            JSON_LD,
                        ),
                    })
                })
                .await
        }
    }
}

/// What the published schema does not take in a document of ours.
pub fn ours_faults(text: &str) -> Vec<Fault> {
    let Ok(value) = serde_json::from_str::<serde_json::Value>(text) else { return Vec::new() };
    let said = value.get("format").and_then(serde_json::Value::as_str);
    match FORMATS.iter().find(|format| said == Some(format.says)) {
        Some(format) => faults_of(format.root, &value),
        None => Vec::new(),
    }
}

/// Reads a file: a formula, a cake or an order of ours, or a Schema.org Recipe of anybody's. Keeps nothing.
#[utoipa::path(post, path = "/files/read", tag = "files", request_body = FileText, responses(
    (status = 200, body = ReadFile, description = "What it holds")
))]
async fn read_file(
    State(state): State<AppState>,
    Body(file): Body<FileText>,
) -> Result<Json<ReadFile>, ApiError> {
    let faults = ours_faults(&file.text);
    if !faults.is_empty() {
        return Err(ApiError::Faults(faults));
    }
    let shelf = state.store.whole_shelf().await?;
    state
        .work_out(move || {
            read(&file.text, &shelf).map_err(|words| vec![Fault::new("text", FaultCode::UnknownFile, words)])
        })
        .await
        .map(Json)
}

/// Writes a list of an order as CSV: shopping, weighing, bill or labels.
#[utoipa::path(post, path = "/order/list", tag = "orders", params(WantedList), request_body = OrderDocument, responses(
    (status = 200, body = String, content_type = "text/csv", description = "The list")
))]
async fn write_list(
    State(state): State<AppState>,
    Asked(wanted): Asked<WantedList>,
    Body(document): Body<OrderDocument>,
) -> Result<Response, ApiError> {
    let name = if document.name.trim().is_empty() { "order".to_owned() } else { document.name.clone() };
    let answer = worked_out(&state, document).await?;
    let list = match wanted.list {
        ListKind::Shopping => "shopping",
        ListKind::Weighing => "weighing",
        ListKind::Bill => "bill",
        ListKind::Labels => "labels",
    };
    Ok(download("text/csv; charset=utf-8", &format!("{name} {list}"), to_csv(&answer, wanted.list)))
}
