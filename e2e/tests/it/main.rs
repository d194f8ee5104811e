//! What a cook does at the page, in a real browser.

mod bad_input;
mod batch_signs;
mod batches;
mod cases;
mod clock;
mod day;
mod day_under_way;
mod drafts;
mod families;
mod formulate;
mod harms;
mod jobs;
mod keys;
mod learned;
mod library;
mod lines;
mod log;
mod looks;
mod making;
mod nested;
mod offline;
mod orders;
mod pantry;
mod rescue;
mod revisions;
mod stack;
mod ways;

/// The verdict of the first demo formula as it is opened.
const TOO_STIFF: &str = "Just too stiff to drip at 26.0 °C";
/// Its name.
const BAY: &str = "Bay milk-chocolate drip";

const SAVE: &str = "//button[starts-with(., 'Save version')]";

/// The page's list of ingredient names, top to bottom.
async fn names(ui: &e2e::Ui) -> Vec<String> {
    let script = "return [...document.querySelectorAll('[data-line] > div > button:nth-of-type(1)')]
        .map((b) => b.textContent.replaceAll('\\u00a0', ' '))";
    let found = ui.js(script).await;
    found
        .as_array()
        .map(|all| all.iter().filter_map(|v| v.as_str().map(str::to_owned)).collect())
        .unwrap_or_default()
}
