//! Where something stands in a cake's document: a type inside, a path of names and numbers to the outside.

use serde::{Serialize, Serializer};
use std::fmt;

/// Where something stands in a cake, or in an order of cakes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Address {
    /// A field of the whole: `box_mm`.
    Whole(&'static str),
    /// A cake of an order.
    Cake(usize),
    /// Something in a tier.
    In(usize, At),
}

/// Where something stands in a tier.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum At {
    /// The tier itself.
    Tier,
    /// Its shape.
    Body,
    /// All of its layers.
    Layers,
    /// One layer, from 0.
    Layer(usize),
    /// What a layer drinks.
    Soak(usize),
    /// The ring round a layer.
    Dam(usize),
    /// A disc in a layer: the layer, the disc.
    Insert(usize, usize),
    /// The thin first coat.
    CrumbCoat,
    /// The coat.
    Coat,
    /// What is poured over.
    Glaze,
    /// What runs down the side.
    Drip,
    /// A border.
    Border(usize),
    /// Piped pieces.
    Rosettes(usize),
    /// Pieces laid on.
    Pieces(usize),
    /// What bears the tier above.
    Dowels,
    /// What holds its layers.
    Case,
    /// The film in that.
    Film,
    /// What holds a pile together.
    Pile,
    /// How many of it.
    Many,
}

impl At {
    /// The layer it is, or is in.
    pub fn layer(self) -> Option<usize> {
        match self {
            At::Layer(layer) | At::Soak(layer) | At::Dam(layer) | At::Insert(layer, _) => Some(layer),
            _ => None,
        }
    }

    /// Which one it is of those alike beside it.
    pub fn number(self) -> Option<usize> {
        match self {
            At::Layer(at)
            | At::Soak(at)
            | At::Dam(at)
            | At::Insert(_, at)
            | At::Border(at)
            | At::Rosettes(at)
            | At::Pieces(at) => Some(at),
            _ => None,
        }
    }
}

impl Address {
    /// The path of a field below it: `tiers.0.coat.side_mm`.
    pub fn field(self, name: &str) -> String {
        format!("{self}.{name}")
    }
}

impl fmt::Display for Address {
    fn fmt(&self, f: &mut fmt::Formatter) -> fmt::Result {
        match self {
            Address::Whole(field) => f.write_str(field),
            Address::Cake(at) => write!(f, "cakes.{at}"),
            Address::In(tier, at) => write!(f, "tiers.{tier}{at}"),
        }
    }
}

impl fmt::Display for At {
    fn fmt(&self, f: &mut fmt::Formatter) -> fmt::Result {
        match self {
            At::Tier => Ok(()),
            At::Body => f.write_str(".body"),
            At::Layers => f.write_str(".layers"),
            At::Layer(at) => write!(f, ".layers.{at}"),
            At::Soak(at) => write!(f, ".layers.{at}.soak"),
            At::Dam(at) => write!(f, ".layers.{at}.dam"),
            At::Insert(layer, at) => write!(f, ".layers.{layer}.inserts.{at}"),
            At::CrumbCoat => f.write_str(".crumb_coat"),
            At::Coat => f.write_str(".coat"),
            At::Glaze => f.write_str(".glaze"),
            At::Drip => f.write_str(".drip"),
            At::Border(at) => write!(f, ".borders.{at}"),
            At::Rosettes(at) => write!(f, ".rosettes.{at}"),
            At::Pieces(at) => write!(f, ".pieces.{at}"),
            At::Dowels => f.write_str(".dowels"),
            At::Case => f.write_str(".case"),
            At::Film => f.write_str(".case.film"),
            At::Pile => f.write_str(".many.pile"),
            At::Many => f.write_str(".many"),
        }
    }
}

impl Serialize for Address {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.collect_str(self)
    }
}

impl PartialEq<&str> for Address {
    fn eq(&self, path: &&str) -> bool {
        let written: String = format!("{self}");
        written.as_str() == *path
    }
}
