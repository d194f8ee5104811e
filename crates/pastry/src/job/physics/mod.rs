//! What happens to a cream at work: a drip that runs, a film that drains, a piece that sags, a sponge that drinks.

pub mod drip;
pub mod film;
pub mod slump;
