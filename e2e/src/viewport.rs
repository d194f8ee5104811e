//! Sizes of the page.

/// Width and height of the page, CSS pixels.
#[derive(Debug, Clone, Copy)]
pub struct Viewport(pub u32, pub u32);

/// A laptop.
pub const LAPTOP: Viewport = Viewport(1280, 800);
/// A tablet, upright.
pub const TABLET: Viewport = Viewport(820, 1180);
