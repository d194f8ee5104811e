//! Rescue, from anywhere with one key: what is seen, what to do, what went in.

use crate::{BAY, TOO_STIFF, names};
use e2e::{Ui, ui};
use fantoccini::key::Key;

const WARM: &str = "//input[@id=//label[contains(., 'How warm')]/@for]";
const SIGNS: &str = "//h2[.='What do you see?']";

/// A sign by its words.
fn sign(words: &str) -> String {
    format!("//section[@aria-label='What to do']//button[.='{words}']")
}

async fn amount(ui: &Ui, name: &str) -> String {
    ui.value(&Ui::amount(name)).await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_stiff_drip_is_mended_by_what_went_in_and_undone() {
    ui("rescue", async |ui| {
        ui.open_formula(BAY).await;
        // One key, also out of a field.
        ui.click(&Ui::amount("Cream 36 %")).await;
        ui.press(Key::F8).await;
        ui.find(SIGNS).await;
        ui.write(WARM, "26").await;
        ui.click(&sign("Too stiff")).await;
        ui.find("//h2[.='It stops at the lip and beads.']").await;
        ui.find("//p[contains(., 'too stiff to drip at 26')]").await;
        let first = ui.text("//article//ol/li[1]").await;
        assert!(first.contains("Warm to 34"), "warmth comes first: {first}");
        // All of the milk went in: the formula on the Bench has it, and it is right.
        let milk = "//article//ol/li[2]//button[starts-with(., 'All ')]";
        let said = ui.text(milk).await;
        assert!(said.ends_with(" g went in"), "{said}");
        ui.click(milk).await;
        ui.press(Key::Escape).await;
        ui.find(SIGNS).await;
        ui.press(Key::Escape).await;
        ui.verdict_that("is right", |said| said.contains("right to drip")).await;
        assert!(names(ui).await.iter().any(|name| name.starts_with("Whole milk")));
        ui.chord(Key::Control, 'z').await;
        ui.verdict_that("is the first again", |said| said == TOO_STIFF).await;
        assert!(!names(ui).await.iter().any(|name| name.starts_with("Whole milk")));
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_question_leads_to_the_look_alike_and_what_is_missing_is_left_out() {
    ui("rescue_tell", async |ui| {
        ui.open_formula(BAY).await;
        ui.press(Key::F8).await;
        ui.click(&sign("Split, oily")).await;
        ui.find("//article//b[contains(., 'greasy film')]").await;
        ui.click("//article//button[starts-with(., 'No: specks')]").await;
        ui.find("//h2[.='Specks or sand in it.']").await;
        ui.click("//nav[@aria-label='What it may be']/button[1]").await;
        ui.click("//article//ol/li[3]//button[.='Not at hand']").await;
        ui.find("//article//ol/li[3]//p[.='Not at hand: take the next.']").await;
        // Half of the next one, and a bowl that is lighter than the formula.
        ui.write("//input[@id=//label[contains(., 'Really in the bowl')]/@for]", "100").await;
        ui.wait_for("amounts for 100 g", async || {
            ui.text("//article//ol/li[4]").await.contains("Never more than 5 g")
        })
        .await;
        ui.write(WARM, "hot").await;
        ui.find("//*[@role='alert'][contains(., 'write degrees')]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn gelatin_is_offered_only_after_a_plain_yes() {
    ui("rescue_asks", async |ui| {
        ui.open_formula("Daily pastry cream").await;
        ui.press(Key::F8).await;
        ui.click(&sign("Too loose")).await;
        ui.click("//nav[@aria-label='What it may be']/button[starts-with(., 'It runs off the spoon')]").await;
        let gelatin = "//article//ol/li[contains(., 'Gelatin 200')]";
        ui.find(&format!("{gelatin}//span[contains(., 'brings pork')]")).await;
        assert!(!ui.has(&format!("{gelatin}//button[contains(., 'went in')]")).await);
        ui.click(&format!("{gelatin}//button[.='That is allowed']")).await;
        ui.find(&format!("{gelatin}//button[contains(., 'went in')]")).await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn poured_over_is_left_brought_back_or_scaled() {
    ui("overpour", async |ui| {
        ui.open_formula(BAY).await;
        ui.press(Key::F8).await;
        ui.click("//button[.='Poured too much']").await;
        ui.click("//section[@aria-label='What to do']//li/button[contains(., 'Cream 36')]").await;
        ui.write("//label[contains(., 'What really went in')]/input", "90 g").await;
        ui.find("//*[@role='alert'][contains(., 'write what really went in')]").await;
        ui.write("//label[contains(., 'What really went in')]/input", "102 g").await;
        ui.find("//p[starts-with(., '12 g more of Cream 36')]").await;
        ui.find("//h3[.='leave it']").await;
        ui.click("//li[.//h3[starts-with(., 'scale the rest')]]//button[.='Do this']").await;
        ui.click("//button[starts-with(., 'Back to work')]").await;
        assert_eq!(amount(ui, "Cream 36 %").await, "102 g");
        assert_eq!(amount(ui, "Milk chocolate 40 %").await, "170 g");
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn from_another_page_it_asks_which_one() {
    ui("rescue_anywhere", async |ui| {
        ui.open("/pantry").await;
        ui.find("//button[starts-with(., 'Rescue')]").await;
        ui.press(Key::F8).await;
        ui.find("//h2[.='Which one is it?']").await;
        ui.write("//input[@aria-label='Search formulas']", "brandy").await;
        ui.click("//button[contains(., 'Brandy soak')]").await;
        ui.find(SIGNS).await;
        ui.click(&sign("Sponge too wet or dry")).await;
        ui.find("//article//ol/li").await;
        // The key that opened it closes it.
        ui.press(Key::F8).await;
        ui.verdict_that("is of the soak", |said| said.contains("soak")).await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_silent_server_is_said_and_the_remedy_comes_when_it_is_back() {
    ui("rescue_offline", async |ui| {
        ui.open_formula(BAY).await;
        ui.press(Key::F8).await;
        ui.find(&sign("Grainy, sandy")).await;
        ui.stop_server().await;
        ui.click(&sign("Grainy, sandy")).await;
        ui.find("//section[@aria-label='What to do']//*[@role='alert'][contains(., 'not answering')]").await;
        ui.start_server_again().await;
        ui.find("//article//ol/li").await;
        ui.wait_for("no more is said of the server", async || {
            !ui.has("//section[@aria-label='What to do']//*[@role='alert']").await
        })
        .await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn half_goes_in_then_one_looks_and_solves_again() {
    ui("rescue_half", async |ui| {
        ui.open_formula(BAY).await;
        ui.press(Key::F8).await;
        ui.write(WARM, "26").await;
        ui.click(&sign("Too stiff")).await;
        let milk = "//article//ol/li[2]";
        let grams = async || {
            let said = ui.text(&format!("{milk}//p[1]")).await;
            let number = said.split(' ').find_map(|word| word.parse::<f64>().ok());
            number.unwrap_or_else(|| panic!("no grams in {said}"))
        };
        let all = grams().await;
        ui.click(&format!("{milk}//button[1]")).await;
        // The other half is left, a little more or less.
        ui.wait_for("less to go in", async || grams().await < 0.8 * all).await;
        let rest = grams().await;
        assert!((rest / all - 0.5).abs() < 0.2, "{rest} of {all} g");
        ui.press(Key::F8).await;
        let weighed = amount(ui, "Whole milk 3.5 %").await;
        let weighed: f64 = weighed.trim_end_matches(" g").parse().unwrap();
        assert!((weighed / all - 0.5).abs() < 0.05, "{weighed} of {all} g");
    })
    .await;
}
