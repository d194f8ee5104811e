//! Devices: where they are, what they show, what they are asked to do.

use crate::body::Body;
use crate::error::ApiError;
use crate::fridges::{WarmFridge, warm};
use crate::saving::Saving;
use crate::state::AppState;
use axum::Json;
use axum::extract::{Path, State};
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Response};
use base64::Engine;
use base64::engine::general_purpose::STANDARD;
use devices::address::{Amiss, amiss};
use devices::{DeviceNow, Message};
use pastry::fault::{Fault, FaultCode};
use serde::{Deserialize, Serialize};
use store::StoreError;
use store::devices::Settings;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// A fridge's limit may be set between these, °C.
const FRIDGE_C: [f64; 2] = [0.0, 15.0];

/// And be told this long after, min.
const FRIDGE_LONGEST_MIN: f64 = 240.0;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(read_devices, save_devices))
        .routes(routes!(ask_device))
        .routes(routes!(read_tray))
        .routes(routes!(tray_picture))
}

/// The devices of the kitchen and what they show now.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Devices {
    /// As they are set.
    pub settings: Settings,
    /// What each shows now, in that order.
    pub now: Vec<DeviceNow>,
    /// Fridges that are or were too warm, the last first.
    pub warm: Vec<WarmFridge>,
}

async fn devices_now(state: &AppState) -> Result<Devices, ApiError> {
    let settings = state.store.devices().await?;
    Ok(Devices { settings, now: state.hub.now(), warm: warm(&state.store).await? })
}

/// The devices of the kitchen.
#[utoipa::path(get, path = "/devices", tag = "devices", responses(
    (status = 200, body = Devices, description = "The devices")
))]
async fn read_devices(State(state): State<AppState>) -> Result<Json<Devices>, ApiError> {
    devices_now(&state).await.map(Json)
}

/// Sets the devices. Those that are not named any more are let go, new ones are connected to.
#[utoipa::path(put, path = "/devices", tag = "devices", request_body = Settings, params(Saving), responses(
    (status = 200, body = Devices, description = "Saved, with their new revision")
))]
async fn save_devices(
    State(state): State<AppState>,
    saving: Saving,
    Body(settings): Body<Settings>,
) -> Result<Json<Devices>, ApiError> {
    let mut faults: Vec<Fault> = amiss(&settings.devices)
        .into_iter()
        .map(|(field, what, words)| {
            let code = match what {
                Amiss::TooMany => FaultCode::TooMany,
                Amiss::Name => FaultCode::BadName,
                Amiss::Twice => FaultCode::Twice,
                Amiss::Address => FaultCode::WrongValue,
            };
            Fault::new(field, code, words)
        })
        .collect();
    if !(FRIDGE_C[0]..=FRIDGE_C[1]).contains(&settings.fridge_most_c) {
        let words = "a fridge's limit lies between 0 and 15 °C: local codes say which";
        faults.push(Fault::new("fridge_most_c", FaultCode::OutOfRange, words));
    }
    if !(0.0..=FRIDGE_LONGEST_MIN).contains(&settings.fridge_most_min) {
        let words = "a fridge is told after 0 to 240 minutes above its limit";
        faults.push(Fault::new("fridge_most_min", FaultCode::OutOfRange, words));
    }
    if !faults.is_empty() {
        return Err(ApiError::Faults(faults));
    }
    let saved = state.store.save_devices(&settings, &saving.by()).await?;
    state.hub.connect(&saved.devices);
    devices_now(&state).await.map(Json)
}

/// What a device is asked to do.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(tag = "do", rename_all = "snake_case", deny_unknown_fields)]
pub enum DeviceWish {
    /// A scale: to nothing with what is on it.
    Tare {},
    /// A printer: print these lines. The same job is printed once.
    Print {
        /// Made by who asks, once for each label.
        #[schema(min_length = 1, max_length = 64)]
        job: String,
        /// What stands on it, its lines parted by line ends.
        #[schema(min_length = 1, max_length = 2000)]
        text: String,
    },
    /// A stand-in: play a scenario, as docs/DEVICES.md has it.
    Play {
        /// Its text.
        #[schema(max_length = 20000)]
        scenario: String,
    },
}

/// A wish to a device.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DeviceAsk {
    /// What the cooks call it.
    #[schema(min_length = 1, max_length = 60)]
    pub device: String,
    /// What it is to do.
    pub wish: DeviceWish,
}

/// Asks a device to do something, and answers when it did.
#[utoipa::path(post, path = "/devices/ask", tag = "devices", request_body = DeviceAsk, responses(
    (status = 200, body = [DeviceNow], description = "It was done; the devices as they show then")
))]
async fn ask_device(
    State(state): State<AppState>,
    Body(ask): Body<DeviceAsk>,
) -> Result<Json<Vec<DeviceNow>>, ApiError> {
    let (field, message) = match ask.wish {
        DeviceWish::Tare {} => ("device", Message::Tare),
        DeviceWish::Print { job, text } => ("wish.text", Message::Print { job, text }),
        DeviceWish::Play { scenario } => ("wish.scenario", Message::Play { scenario }),
    };
    match state.hub.ask(&ask.device, message).await {
        Ok(()) => Ok(Json(state.hub.now())),
        Err(why) => {
            let own = why.to_string();
            let message = match why {
                devices::link::NotDone::Refused(_) => own,
                _ => format!("{}: {own}", ask.device),
            };
            Err(ApiError::Faults(vec![Fault::new(field, FaultCode::NotDone, message)]))
        }
    }
}

/// A label in the tray.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PrintedLabel {
    /// Its job.
    pub job: String,
    /// Where its picture is.
    pub png: String,
    /// Where its document is.
    pub pdf: String,
}

/// What the printers' stand-ins printed since this server began, the last first.
#[utoipa::path(get, path = "/devices/tray", tag = "devices", responses(
    (status = 200, body = [PrintedLabel], description = "The tray")
))]
async fn read_tray(State(state): State<AppState>) -> Json<Vec<PrintedLabel>> {
    let mut all: Vec<PrintedLabel> = Vec::new();
    for (job, _) in state.hub.tray() {
        if all.iter().all(|own| own.job != job) {
            let path = |form: &str| format!("/api/devices/tray/{job}/{form}");
            all.push(PrintedLabel { png: path("png"), pdf: path("pdf"), job });
        }
    }
    Json(all)
}

/// A label of the tray as `png` or `pdf`.
#[utoipa::path(
    get, path = "/devices/tray/{job}/{form}", tag = "devices",
    params(("job" = String, Path, description = "Its job"), ("form" = String, Path, description = "png or pdf")),
    responses((status = 200, content_type = "image/png", description = "The label"))
)]
async fn tray_picture(
    State(state): State<AppState>,
    Path((job, form)): Path<(String, String)>,
) -> Result<Response, ApiError> {
    let none = || StoreError::NotFound { noun: "label", key: job.chars().take(64).collect() };
    let kind = match form.as_str() {
        "png" => "image/png",
        "pdf" => "application/pdf",
        _ => return Err(none().into()),
    };
    let data = state.hub.picture(&job, &form).ok_or_else(none)?;
    let bytes = STANDARD.decode(data).map_err(|_| none())?;
    Ok((StatusCode::OK, [(header::CONTENT_TYPE, kind)], bytes).into_response())
}
