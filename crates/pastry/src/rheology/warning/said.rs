//! What a warning says, and how lines are asked for it.

use crate::formula::line::WeighedLine;
use serde::Serialize;
use utoipa::ToSchema;

pub use crate::rheology::warning_code::WarningCode;

/// How much it matters.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Severity {
    /// Good to know.
    Note,
    /// Work with care.
    Care,
    /// It will not work, or it can hurt someone.
    Trouble,
}

/// One warning.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Warning {
    /// Stable code.
    pub code: WarningCode,
    /// How much it matters.
    pub severity: Severity,
    /// What is the matter, with its number, in one sentence.
    pub cause: String,
    /// What to do about it.
    pub way_out: String,
}

pub(super) fn warning(code: WarningCode, severity: Severity, cause: String, way_out: &str) -> Warning {
    Warning { code, severity, cause, way_out: way_out.to_owned() }
}

/// Grams over all lines, of what `of` says of each.
pub(super) fn grams(lines: &[WeighedLine], of: impl Fn(&WeighedLine) -> f64) -> f64 {
    lines.iter().map(|line| line.mass.grams() * of(line)).sum()
}

pub(super) fn holds(lines: &[WeighedLine], what: impl Fn(&WeighedLine) -> bool) -> bool {
    lines.iter().any(|line| line.mass.grams() > 0.0 && what(line))
}
