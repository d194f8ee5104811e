//! Another job, another geometry, another room.

use crate::BAY;
use e2e::{Ui, ui};

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn each_job_has_its_own_question_and_geometry() {
    ui("jobs", async |ui| {
        ui.open_formula(BAY).await;
        for (job, label) in [
            ("coat", "Height of the side"),
            ("mask", "Push on the knife"),
            ("fill", "Load above"),
            ("drip", "Dose of a drip"),
        ] {
            ui.click(&format!("//*[@aria-label='Job']//button[.='{job}']")).await;
            ui.verdict_that("is of the job", |said| said.contains(&format!("to {job} at"))).await;
            ui.find(&format!("//input[@id=//label[.='{label}']/@for]")).await;
        }
        // A bigger dose runs further.
        let longer = "//p[contains(., 'Drips would stop at') or contains(., 'Drips stop at') or contains(., 'run to')]";
        let before = ui.text(longer).await;
        ui.write("//input[@id=//label[.='Dose of a drip']/@for]", "1.8\u{e007}").await;
        ui.wait_for("another length", async || ui.text(longer).await != before).await;
        // A filling can be just made.
        ui.click("//*[@aria-label='Job']//button[.='fill']").await;
        ui.verdict_that("is of the filling", |said| said.contains("fill at")).await;
        let numbers = "//p[contains(., 'asks for')]";
        let set = ui.text(numbers).await;
        ui.click("//select[@aria-label='State of the cream']/option[.='just made']").await;
        ui.wait_for("other numbers", async || ui.text(numbers).await != set).await;
        // A load that nothing holds.
        ui.write("//input[@id=//label[.='Load above']/@for]", "60000\u{e007}").await;
        ui.verdict_that("names the load", |said| said.starts_with("No filling holds this load")).await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_room_is_set_once_for_the_kitchen() {
    ui("room", async |ui| {
        ui.open_formula(BAY).await;
        ui.click("//header//button[starts-with(., 'Room')]").await;
        ui.write("//input[@id=//label[.='Room']/@for]", "28\u{e007}").await;
        ui.find("//li[contains(., 'in the room at 28.0 °C')]").await;
        ui.client.refresh().await.unwrap();
        ui.find("//header//button[contains(., '28.0 °C')]").await;
        ui.find("//li[contains(., 'in the room at 28.0 °C')]").await;
        // Warmth is no change to the formula.
        ui.find("//*[@role='status'][contains(., 'version 1, saved')]").await;
        assert_eq!(ui.value(&Ui::amount("Salt")).await, "0.6 g");
    })
    .await;
}
