//! A day under way: planned again, a wait made shorter by its clock or by the formula, a kitchen that was changed meanwhile.

use crate::day::{OFFER, look, planned};
use e2e::page::Ui;
use e2e::ui;

const WHY: &str = "//section[@aria-label='Why it stands there']";

/// The domes' turning out chosen, and what would make their setting shorter asked.
async fn sooner(ui: &Ui) {
    ui.click("//nav[@aria-label='Days']//button[starts-with(., 'Thu')]").await;
    ui.click("(//*[@role='group']//button[contains(normalize-space(.), 'Turn out')])[1]").await;
    ui.click(&format!("{WHY}//button[starts-with(., 'What would make')]")).await;
    ui.find(&format!("{WHY}//ul[@aria-label='What would be sooner']")).await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn what_sets_sooner_bends_the_day_and_changes_the_formula_in_one_step() {
    ui("day_sooner", async |ui| {
        planned(ui, None).await;
        sooner(ui).await;
        let way = format!("({WHY}//ul[@aria-label='What would be sooner']/li)[last()]");
        let words = ui.text(&way).await;
        assert!(words.contains("Gelatin") && words.contains("sooner"), "{words}");
        ui.click(&format!("{way}//button[.='See what gives']")).await;
        let offer = ui.text(OFFER).await;
        assert!(offer.contains("Every order is still ready in time"), "{offer}");
        ui.click("//button[.='Keep the plan as it is']").await;
        ui.wait_for("no offer", async || !ui.has(OFFER).await).await;
        // On the Bench it is one step, and undo takes it back.
        ui.click(&format!("{way}//button[.='Change the formula']")).await;
        ui.find("//*[@role='status'][contains(., 'changed since version 1')]").await;
        ui.js("document.activeElement?.blur()").await;
        ui.chord(fantoccini::key::Key::Control, 'z').await;
        ui.wait_for("it as it was", async || {
            !ui.has("//*[@role='status'][contains(., 'changed since version 1')]").await
        })
        .await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn what_is_begun_stays_when_the_day_is_planned_again() {
    ui("day_again", async |ui| {
        planned(ui, None).await;
        // The third thing to do: what comes before it must be done, without a word.
        let third = "(//section[@aria-label='Next for your hands']//li)[3]";
        let words = ui.text(third).await;
        ui.click(&format!("{third}//button[.='Start']")).await;
        ui.find("//section[@aria-label='Next for your hands']//li[contains(., 'at it')]").await;
        ui.click("//button[.='Plan again']").await;
        ui.find("//p[contains(., 'The day is under way')]").await;
        look(ui).await;
        ui.click("//button[.='Use this plan']").await;
        ui.find("//button[.='Version 2']").await;
        let at_it = ui.text("//section[@aria-label='Next for your hands']//li[contains(., 'at it')]").await;
        let name = words.lines().nth(1).unwrap_or_default().to_owned();
        assert!(at_it.contains(&name), "{at_it} for {words}");
        // A place more on the hob: the plan says that it was made for the kitchen before.
        ui.open("/day/room").await;
        ui.write("//input[@id=//label[starts-with(., 'Places on the hob')]/@for]", "7").await;
        ui.click("//button[starts-with(., 'Save version')]").await;
        ui.find("//*[@role='status'][contains(., 'saved')]").await;
        ui.open("/day").await;
        ui.find("//p[contains(., 'The kitchen was changed since it was planned')]").await;
    })
    .await;
}
