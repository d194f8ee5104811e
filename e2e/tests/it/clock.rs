//! When it is ready: the clock of a formula, from the Bench.

use crate::BAY;
use e2e::{Ui, Viewport, ui};
use fantoccini::key::Key;

const DIALOG: &str = "//*[@role='dialog']";

async fn with_clock(ui: &Ui, formula: &str) {
    ui.open_formula(formula).await;
    ui.js("document.activeElement?.blur()").await;
    ui.press('c').await;
    ui.find(&format!("{DIALOG}//*[@aria-label='Moment']")).await;
}

async fn verdict(ui: &Ui) -> String {
    ui.text(&format!("{DIALOG}//h3")).await
}

fn select(label: &str, option: &str) -> String {
    format!("{DIALOG}//label[starts-with(normalize-space(.), '{label}')]//option[.='{option}']")
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_glaze_is_right_from_a_time_to_a_time_and_sooner_in_a_tray() {
    ui("clock", async |ui| {
        with_clock(ui, "Ember dark glaze").await;
        ui.wait_for("a window on the clock", async || {
            let said = verdict(ui).await;
            said.starts_with("Right to coat from ") && said.contains(" to ")
        })
        .await;
        let before = verdict(ui).await;
        ui.click(&format!("{DIALOG}//button[@aria-label='Take: In a wide tray']")).await;
        ui.wait_for("another window", async || verdict(ui).await != before).await;
        ui.find(&format!("{DIALOG}//p[contains(., 'A tray of 20 × 30 cm')]")).await;
        // The hand reads off any moment, by the keyboard too.
        let hand = format!("{DIALOG}//*[@aria-label='Moment']");
        let reads = async || ui.find(&hand).await.attr("aria-valuetext").await.unwrap().unwrap();
        let first = reads().await;
        ui.find(&hand).await.send_keys("\u{e010}").await.unwrap();
        ui.wait_for("the hand at the end", async || reads().await != first).await;
        let last = reads().await;
        assert!(last.contains("°C, between"), "{last}");
        // Nothing of it changed the formula.
        ui.press(Key::Escape).await;
        ui.find("//*[contains(., 'version 1, saved')]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn hours_set_come_from_the_clock_and_go_back_with_one_undo() {
    ui("clock_set", async |ui| {
        with_clock(ui, "Blackcurrant dome mousse").await;
        ui.wait_for("when it turns out", async || verdict(ui).await.contains("not before")).await;
        ui.click(&format!("{DIALOG}//button[.='Judge it so']")).await;
        ui.press(Key::Escape).await;
        let hours = async || ui.value("//input[@id=//label[.='Hours set in the cold']/@for]").await;
        ui.wait_for("other hours", async || hours().await != "6").await;
        ui.chord(Key::Control, 'z').await;
        ui.wait_for("the hours it had", async || hours().await == "6").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_deep_bowl_of_custard_is_told_to_be_unsafe_and_what_is_safe() {
    ui("clock_safe", async |ui| {
        with_clock(ui, "Daily pastry cream").await;
        ui.click(&select("In", "a bowl")).await;
        let safe = format!("{DIALOG}//section[@aria-label='Safe cooling']");
        ui.find(&format!("{safe}//p[contains(., 'Cools too slowly to be safe')]")).await;
        ui.find(&format!("{safe}//p[contains(., 'Your local rules differ')]")).await;
        ui.click(&format!("{safe}//button[starts-with(@aria-label, 'Take: In a tray')]")).await;
        ui.find(&format!("{safe}//p[contains(., 'fast enough')]")).await;
        // Warmer than anything would ever be right: said in words, nothing is lost.
        ui.click(&select("Where", "in the microwave")).await;
        ui.find(&format!("{DIALOG}//*[@role='alert'][contains(., 'bursts are for')]")).await;
        ui.click(&select("Where", "in the fridge")).await;
        ui.find(&format!("{safe}//p[contains(., 'fast enough')]")).await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_clock_has_no_serious_fault_on_a_desk_and_on_a_tablet() {
    ui("clock_axe", async |ui| {
        let axe = crate::looks::axe();
        for viewport in [Viewport(1280, 800), Viewport(820, 1180)] {
            ui.set_viewport(viewport).await;
            with_clock(ui, BAY).await;
            let faults = ui.serious_faults(&axe).await;
            assert!(faults.is_empty(), "{faults:?}");
            ui.press(Key::Escape).await;
        }
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_place_of_a_cake_has_its_clock_as_thick_as_it_lies_there() {
    ui("clock_place", async |ui| {
        ui.open_order("Harbour wedding", "Cake").await;
        ui.click("//*[name()='text'][starts-with(., 'Coat 5 mm')]").await;
        ui.click("//button[.='Clock']").await;
        ui.find(&format!("{DIALOG}//*[@aria-label='Moment']")).await;
        ui.find(&format!("{DIALOG}//p[contains(., ' mm on ')]")).await;
        ui.find(&format!("{DIALOG}//section[@aria-label='Setting']//p[contains(., 'Firm to a finger by')]"))
            .await;
        assert!(!ui.has(&format!("{DIALOG}//button[.='Judge it so']")).await);
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn one_reading_of_a_probe_is_kept_for_the_kitchen_and_forgotten() {
    ui("clock_probe", async |ui| {
        with_clock(ui, "Daily pastry cream").await;
        ui.click(&format!("{DIALOG}//button[.='A probe was read']")).await;
        ui.write(&format!("{DIALOG}//input[@id=//label[.='In the middle it read']/@for]"), "90").await;
        ui.press(Key::Enter).await;
        ui.find(&format!("{DIALOG}//*[@role='alert'][contains(., 'nothing takes heat so slowly')]")).await;
        ui.write(&format!("{DIALOG}//input[@id=//label[.='In the middle it read']/@for]"), "48").await;
        ui.press(Key::Enter).await;
        ui.find(&format!("{DIALOG}//p[starts-with(., 'Yours takes heat')]")).await;
        ui.click(&format!("{DIALOG}//button[.='Keep it for this kitchen']")).await;
        ui.find(&format!("{DIALOG}//p[starts-with(., 'Counted as a probe read it')]")).await;
        assert_eq!(ui.store().kitchen().await.unwrap().places.len(), 1);
        ui.click(&format!("{DIALOG}//button[.='Forget it']")).await;
        ui.wait_for("nothing kept", async || ui.store().kitchen().await.unwrap().places.is_empty()).await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_syrup_over_a_ring_says_at_which_weight_to_stop() {
    ui("clock_boil", async |ui| {
        with_clock(ui, "Brandy soak").await;
        ui.click(&format!("{DIALOG}//button[@role='tab'][.='Over a ring']")).await;
        ui.find(&format!("{DIALOG}//h3[starts-with(., 'Stop when the scale shows')]")).await;
        ui.find(&format!("{DIALOG}//tr[contains(@class, 'rim-tint')]/td[.='firm ball']")).await;
        ui.find(&format!("{DIALOG}//p[contains(., 'Boiling sugar')]")).await;
        ui.click(&select("Heated to", "a share of its weight")).await;
        ui.write(&format!("{DIALOG}//input[@id=//label[.='Of its weight is left']/@for]"), "6").await;
        ui.press(Key::Enter).await;
        ui.find(&format!("{DIALOG}//*[@role='alert'][contains(., 'not so much water')]")).await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn with_the_server_gone_what_stands_in_a_sheet_says_that_it_is_from_before() {
    ui("clock_offline", async |ui| {
        with_clock(ui, "Ember dark glaze").await;
        ui.wait_for("a window", async || verdict(ui).await.starts_with("Right to coat")).await;
        let before = verdict(ui).await;
        ui.stop_server().await;
        ui.click(&select("In", "a wide tray")).await;
        ui.find(&format!("{DIALOG}//*[@role='alert'][contains(., 'What stands here may be from before')]"))
            .await;
        ui.find(&format!("{DIALOG}//p[contains(., 'worked out anew when the server answers')]")).await;
        assert_eq!(verdict(ui).await, before);
        ui.start_server_again().await;
        // It asks again by itself, and the choice is still there.
        ui.wait_for("the tray's own window", async || verdict(ui).await != before).await;
        ui.find(&format!("{DIALOG}//p[contains(., 'A tray of ')]")).await;
        assert!(!ui.has(&format!("{DIALOG}//p[contains(., 'From before')]")).await);
    })
    .await;
}
