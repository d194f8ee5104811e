//! Quantities as types: built and read by unit, checked where they come in from outside.

pub mod amount;
pub mod kitchen;
pub mod number;

use serde::{Deserialize, Serialize};
use utoipa::openapi::schema::{ObjectBuilder, Type};
use utoipa::openapi::{RefOr, Schema};
use utoipa::{PartialSchema, ToSchema};

/// Gravity, m/s². Conventional value used by the windows (rounded from 9.80665, ISO 80000-3).
pub const GRAVITY: f64 = 9.81;

/// A number from outside that lies outside what the quantity can be.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[error("{quantity} must be {min} to {max} {unit}, got {got}")]
pub struct OutOfRange {
    /// What was given, in kitchen words.
    pub quantity: &'static str,
    /// Smallest value taken.
    pub min: f64,
    /// Largest value taken.
    pub max: f64,
    /// Unit of the limits.
    pub unit: &'static str,
    /// What came in.
    pub got: f64,
}

/// A quantity with the unit it is written in and the range that is taken from outside: declared once, here.
pub trait Quantity {
    /// The unit it is written in.
    const UNIT: &'static str;
    /// Smallest value taken from outside.
    const LEAST: f64;
    /// Largest value taken from outside.
    const MOST: f64;
}

macro_rules! quantity {
    ($(#[$doc:meta])* $name:ident, $word:literal, $unit:literal, $min:expr, $max:expr, $from:ident, $get:ident) => {
        $(#[$doc])*
        #[derive(Debug, Clone, Copy, PartialEq, PartialOrd, Serialize, Deserialize)]
        #[serde(try_from = "f64", into = "f64")]
        pub struct $name(f64);

        impl $name {
            /// Smallest value taken from outside.
            pub const MIN: f64 = $min;
            /// Largest value taken from outside.
            pub const MAX: f64 = $max;

            #[doc = concat!("From a number of ", $unit, ", unchecked: for values the program worked out itself.")]
            pub const fn $from(value: f64) -> Self {
                Self(value)
            }

            #[doc = concat!("The number of ", $unit, ".")]
            pub const fn $get(self) -> f64 {
                self.0
            }
        }

        impl Quantity for $name {
            const UNIT: &'static str = $unit;
            const LEAST: f64 = $min;
            const MOST: f64 = $max;
        }

        impl PartialSchema for $name {
            fn schema() -> RefOr<Schema> {
                ObjectBuilder::new()
                    .schema_type(Type::Number)
                    .description(Some(concat!(stringify!($name), ", ", $unit)))
                    .minimum(Some($min))
                    .maximum(Some($max))
                    .into()
            }
        }

        impl ToSchema for $name {}

        impl TryFrom<f64> for $name {
            type Error = OutOfRange;

            fn try_from(value: f64) -> Result<Self, OutOfRange> {
                if (Self::MIN..=Self::MAX).contains(&value) {
                    Ok(Self(value))
                } else {
                    Err(OutOfRange { quantity: $word, min: $min, max: $max, unit: $unit, got: value })
                }
            }
        }

        impl From<$name> for f64 {
            fn from(quantity: $name) -> f64 {
                quantity.0
            }
        }
    };
}

quantity!(
    /// A mass of an ingredient or a batch. Up to a tonne.
    Mass, "a mass", "g", 0.0, 1e6, from_grams, grams
);
quantity!(
    /// A working temperature: the range in which the model holds.
    Temperature, "the temperature", "°C", 0.0, 95.0, from_celsius, celsius
);
quantity!(
    /// Temperature of a room people work in.
    RoomTemperature, "the room", "°C", 0.0, 45.0, from_celsius, celsius
);
quantity!(
    /// Highest temperature reached in the making: from cold to boiled sugar.
    CookTemperature, "the highest temperature", "°C", 0.0, 180.0, from_celsius, celsius
);
quantity!(
    /// Volume gained, per cent of the volume before.
    Overrun, "the volume gained", "%", 0.0, 500.0, from_percent, percent
);
quantity!(
    /// Hours in the cold.
    Hours, "the time set", "h", 0.0, 720.0, from_hours, hours
);
quantity!(
    /// Minutes of work or of waiting: up to 30 days.
    Minutes, "the time", "min", 0.0, 43200.0, from_minutes, minutes
);
quantity!(
    /// Seconds of a short wait.
    Seconds, "the time", "s", 0.5, 86400.0, from_seconds, seconds
);
quantity!(
    /// A share of something, per cent.
    Percent, "a share", "%", 0.0, 100.0, from_percent, percent
);
quantity!(
    /// Temperature of a cake's side or a room: down to a deep freezer.
    SurfaceTemperature, "the temperature", "°C", -40.0, 60.0, from_celsius, celsius
);
quantity!(
    /// A small length on a cake: thickness, drip, height, radius.
    Length, "a length", "mm", 0.05, 2000.0, from_millimetres, millimetres
);
quantity!(
    /// Mass of a volume as it is scooped or poured.
    Density, "a density", "g/ml", 0.05, 3.0, from_grams_per_millilitre, grams_per_millilitre
);
quantity!(
    /// Volume let go for one drip.
    Dose, "a dose", "ml", 0.05, 20.0, from_millilitres, millilitres
);
quantity!(
    /// A push of the hand on a knife.
    Force, "a force", "N", 0.5, 200.0, from_newtons, newtons
);
quantity!(
    /// A stress that a material bears.
    Stress, "a stress", "Pa", 1.0, 1e6, from_pascals, pascals
);
quantity!(
    /// A viscosity.
    Viscosity, "a viscosity", "Pa·s", 1e-4, 1e5, from_pascal_seconds, pascal_seconds
);
quantity!(
    /// Area of a knife or spatula in contact.
    Area, "an area", "cm²", 0.5, 1000.0, from_square_centimetres, square_centimetres
);

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_number_from_outside_is_checked_and_the_message_says_the_range() {
        let refused = Temperature::try_from(f64::NAN).unwrap_err();
        assert_eq!(refused.to_string(), "the temperature must be 0 to 95 °C, got NaN");
        assert!(Mass::try_from(-1.0).is_err());
        assert_eq!(Temperature::try_from(21.5).unwrap().celsius(), 21.5);
    }
}
