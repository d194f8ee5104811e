//! Documents out and in: [`bring`] makes one whole for another kitchen, [`recipe`] writes it as Schema.org Recipe,
//! [`read`] takes any of them, [`lists`] writes an order's lists as CSV, [`pantry`] own ingredients as CSV and JSON.

pub mod bring;
pub mod lists;
pub mod pantry;
pub mod read;
pub mod recipe;
