//! A cook at the page: a real server on a real file, ChromeDriver and headless Chromium.
//!
//! Every test starts its own server on a free port with a throwaway kitchen, so tests do not know of
//! each other. [`ui`] runs a body, keeps a picture when it fails, and always closes the browser:
//! killing ChromeDriver alone would leave Chromium running.

pub mod browser;
pub mod page;
pub mod viewport;

pub use browser::ui;
pub use page::Ui;
pub use viewport::{LAPTOP, TABLET, Viewport};
