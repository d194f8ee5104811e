//! Lines of the formula: added, swapped, moved, taken out; amounts in any unit.

use crate::{BAY, TOO_STIFF, names};
use e2e::{Ui, ui};
use fantoccini::key::Key;

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn lines_are_added_swapped_moved_and_taken_out() {
    ui("lines", async |ui| {
        ui.open_formula(BAY).await;
        let start = names(ui).await;
        assert_eq!(start.len(), 6);

        // Swap by typing another country's name.
        ui.click("//button[@aria-label='Swap Glucose syrup DE 40']").await;
        ui.find("//input[@role='combobox']").await.send_keys("invert").await.unwrap();
        ui.press(Key::Enter).await;
        ui.wait_for("the swap", async || names(ui).await[3] == "Invert sugar syrup").await;
        assert_eq!(ui.value(&Ui::amount("Invert sugar syrup")).await, "20 g");

        // Move by keyboard, then by the grip.
        ui.find(&Ui::amount("Salt")).await.click().await.unwrap();
        ui.chord(Key::Alt, Key::Up.into()).await;
        ui.wait_for("the move up", async || names(ui).await[4] == "Salt").await;
        let grip = "(//*[@data-line])[1]//*[@title='Drag to reorder']";
        let from = ui.middle(grip).await;
        let to = ui.middle("(//*[@data-line])[3]").await;
        ui.drag(from, (from.0, to.1 + 12.0)).await;
        ui.wait_for("the drag", async || names(ui).await[2] == "Milk chocolate 40 %").await;

        // Take out by the menu.
        ui.click("//button[@aria-label='More for Salt']").await;
        ui.click("//*[@role='menuitem'][.='Take it out']").await;
        ui.wait_for("five lines", async || names(ui).await.len() == 5).await;

        // Four undos bring all of it back.
        for _ in 0..4 {
            ui.click("//button[.='Undo']").await;
        }
        ui.wait_for("the start again", async || names(ui).await == start).await;
        assert_eq!(ui.verdict_that("is the first", |said| said == TOO_STIFF).await, TOO_STIFF);
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn amounts_are_taken_in_any_unit_and_say_what_was_assumed() {
    ui("units", async |ui| {
        ui.open_formula(BAY).await;
        for (amount, says) in [
            ("1½ cups", "357 g: 1 cup = 236.6 ml (US), 1.006 g/ml"),
            ("1,5 dl", "150.9 g: 1.006 g/ml"),
            ("7 oz", "198.4 g: 1 oz = 28.35 g"),
            ("3 tbsp", ": 1 tbsp = 14.79 ml (US)"),
        ] {
            ui.write(&Ui::amount("Cream 36 %"), amount).await;
            ui.find(&format!(
                "//*[@data-line][.//input[@aria-label='Amount of Cream 36 %']]//p[contains(., '{says}')]"
            ))
            .await;
        }
        // The formula's own cups.
        ui.write(&Ui::amount("Cream 36 %"), "1 cup").await;
        ui.click("//select[starts-with(@aria-label, 'Cups and spoons')]/option[.='metric cups']").await;
        ui.find("//p[contains(., '1 cup = 250 ml (metric)')]").await;
        ui.write(&Ui::amount("Butter 82 %"), "1/2 stick").await;
        ui.find("//p[contains(., '56.5 g: 1 stick = 113 g')]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_cup_of_unknown_weight_is_mended_on_the_spot_and_remembered() {
    ui("density", async |ui| {
        // A thing in grains that nobody has weighed a cup of.
        let dust = serde_json::json!({
            "format": "bright-spoon/ingredient", "version": 1, "key": "own-beet-dust", "name": "Beet dust",
            "group": "other", "composition_percent": { "sucrose": 60, "fibre": 38, "water": 2 }
        });
        ui.open("/").await;
        assert_eq!(ui.post("/api/ingredients", &dust).await, 201);
        ui.open_formula(BAY).await;
        ui.click("//button[@aria-label='Swap Salt']").await;
        ui.find("//input[@role='combobox']").await.send_keys("beet").await.unwrap();
        ui.find("//*[@role='option'][contains(., 'Beet dust')]").await;
        ui.press(Key::Enter).await;
        ui.write(&Ui::amount("Beet dust"), "2 tsp").await;
        ui.click("//button[.='Give its density']").await;
        let density = "//input[@id=//label[contains(., 'Density as you scoop')]/@for]";
        ui.find(density).await.send_keys("0.41").await.unwrap();
        ui.click("//button[.='Use these values']").await;
        ui.find("//p[contains(., '0.41 g/ml (your kitchen')]").await;
        // A new line of it knows the density already.
        ui.click("//button[@id='add-ingredient']").await;
        ui.find("//input[@role='combobox']").await.send_keys("beet").await.unwrap();
        ui.find("//*[@role='option'][contains(., 'Beet dust')]").await;
        ui.press(Key::Enter).await;
        ui.wait_for("seven lines", async || names(ui).await.len() == 7).await;
        ui.write("(//input[@aria-label='Amount of Beet dust'])[2]", "1 tbsp").await;
        ui.find("(//*[@data-line])[7]//p[contains(., '0.41 g/ml')]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn per_cent_spoons_and_pieces_stand_beside_the_amounts() {
    ui("percent", async |ui| {
        ui.open_formula("Blackcurrant dome mousse").await;
        let view = "//select[starts-with(@aria-label, 'What stands beside')]";
        ui.click(&format!("{view}/option[.='in spoons, pieces']")).await;
        ui.find("//*[@data-line][contains(., 'Gelatin')]//span[.='6 leaves (gold)']").await;
        ui.click(&format!("{view}/option[.='% of Blackcurrant puree']")).await;
        // 480 g of cream on 400 g of puree.
        ui.find("//*[@data-line][contains(., 'Cream 36')]//span[.='120.0 %']").await;
        // And an amount may be written so.
        ui.write(&Ui::amount("Sugar (sucrose)"), "30 %").await;
        ui.find("//p[contains(., '120 g: 30 % of the Blackcurrant puree')]").await;
    })
    .await;
}
