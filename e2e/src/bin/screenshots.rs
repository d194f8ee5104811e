//! Takes the pictures of the main views from the demo kitchen: `screenshots FOLDER [NAME...]`.

use e2e::browser::{Session, Viewport};
use std::path::PathBuf;
use std::time::Duration;

/// Name, formula, size, theme.
const VIEWS: &[(&str, &str, Viewport, &str)] = &[
    ("bench", "Bay milk-chocolate drip", Viewport(1280, 800), "light"),
    ("bench-dim", "Bay milk-chocolate drip", Viewport(1280, 800), "dim"),
    ("bench-inside", "Cardamom white drip", Viewport(1280, 800), "light"),
    ("bench-mask", "Harbour dark mask", Viewport(1280, 800), "light"),
    ("bench-fill-dim", "Chestnut-honey dark filling", Viewport(1024, 768), "dim"),
    ("bench-small", "Bay milk-chocolate drip", Viewport(1024, 768), "light"),
    ("bench-tablet", "Ember dark glaze", Viewport(820, 1180), "light"),
    ("bench-tablet-dim", "Ember dark glaze", Viewport(820, 1180), "dim"),
];

#[tokio::main]
async fn main() {
    let mut arguments = std::env::args().skip(1);
    let folder = PathBuf::from(arguments.next().expect("say in which folder"));
    let wanted: Vec<String> = arguments.collect();
    std::fs::create_dir_all(&folder).expect("the folder is made");
    let session = Session::start(true, Viewport(1280, 800)).await;
    let ui = &session.ui;
    for (name, formula, viewport, theme) in VIEWS {
        if !wanted.is_empty() && !wanted.iter().any(|want| want == name) {
            continue;
        }
        ui.set_viewport(*viewport).await;
        ui.open("/").await;
        ui.js(&format!("localStorage.setItem('bright-spoon.theme', '{theme}')")).await;
        ui.open_formula(formula).await;
        ui.js("document.activeElement?.blur()").await;
        // Fonts and the last transition.
        tokio::time::sleep(Duration::from_millis(500)).await;
        let png = ui.client.screenshot().await.expect("a picture");
        std::fs::write(folder.join(format!("{name}.png")), png).expect("the picture is kept");
        println!("{name}");
    }
    session.stop().await;
}
