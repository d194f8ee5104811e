//! What cannot be weighed is said at its place, and nothing typed is lost.

use crate::{BAY, SAVE, TOO_STIFF};
use e2e::{Ui, ui};

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_bad_amount_marks_its_field_and_keeps_what_was_typed() {
    ui("bad_amount", async |ui| {
        ui.open_formula(BAY).await;
        let cream = Ui::amount("Cream 36 %");
        for (typed, says) in [
            ("-20 g", "below zero"),
            ("three glugs", "no number at the front"),
            ("3 glugs", "is not a unit known here"),
            ("1,500 g", "can be read two ways"),
            ("9999999 kg", "more than a kitchen can weigh"),
        ] {
            ui.write(&cream, typed).await;
            ui.find(&format!("//*[@role='alert'][contains(., '{says}')]")).await;
            assert_eq!(ui.value(&cream).await, typed);
            let field = ui.find(&cream).await;
            assert_eq!(field.attr("aria-invalid").await.unwrap().as_deref(), Some("true"));
        }
        ui.find("//h2[.='One line cannot be weighed']").await;
        // The last good map and spoon stay where they were.
        ui.find("//p[contains(., 'The map still shows the last good one')]").await;
        ui.find("//*[@data-testid='spoon']").await;
        // Saving says why not; nothing is lost.
        ui.click(SAVE).await;
        ui.find("//*[@role='alert'][contains(., 'Not saved: ')]").await;
        assert_eq!(ui.value(&cream).await, "9999999 kg");
        // The field empty, then mended.
        ui.write(&cream, "90 g").await;
        assert_eq!(ui.verdict_that("is back", |said| said == TOO_STIFF).await, TOO_STIFF);
        assert!(!ui.has("//*[@data-line]//*[@role='alert']").await);
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn geometry_out_of_range_or_crossed_is_said_at_the_number() {
    ui("bad_geometry", async |ui| {
        ui.open_formula(BAY).await;
        let dose = "//input[@id=//label[.='Dose of a drip']/@for]";
        ui.write(dose, "900").await;
        ui.find("//*[@role='alert'][contains(., 'from 0.05 to 20 ml')]").await;
        assert_eq!(ui.value(dose).await, "900");
        ui.write(dose, "0,6\u{e007}").await;
        ui.wait_for("the comma to be understood", async || ui.value(dose).await == "0.6").await;
        let shortest = "//input[@id=//label[.='Shortest drip']/@for]";
        ui.write(shortest, "90\u{e007}").await;
        ui.find("//*[@role='alert'][contains(., 'swap them, or widen one')]").await;
        ui.find("//h2[.='Something needs another look']").await;
        ui.write(shortest, "20\u{e007}").await;
        ui.verdict_that("is back", |said| said.contains("drip at 26.0 °C")).await;
    })
    .await;
}
