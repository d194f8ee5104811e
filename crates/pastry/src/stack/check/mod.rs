//! What is checked of a cake: on a [`scene`], [`built`], [`cases`], [`sizes`], [`bears`], [`dowels`], [`known`], [`covers`] and [`soaks`] find what
//! does not stand, as [`finding`]s.

pub mod bears;
pub mod built;
pub mod cases;
pub mod covers;
pub mod dowels;
pub mod finding;
pub mod known;
pub mod scene;
pub mod sizes;
pub mod soaks;
