//! Swap, size, method and print, from the Bench.

use crate::{BAY, SAVE, TOO_STIFF, names};
use e2e::{Ui, ui};
use fantoccini::key::Key;

const DIALOG: &str = "//*[@role='dialog']";

/// Opens a formula with nothing in the hand, and a tool by its key.
async fn with_tool(ui: &Ui, formula: &str, key: char) {
    ui.open_formula(formula).await;
    ui.js("document.activeElement?.blur()").await;
    ui.press(key).await;
    ui.find(DIALOG).await;
}

fn field(label: &str) -> String {
    format!("{DIALOG}//input[@id=//label[.='{label}']/@for]")
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn pork_gelatin_goes_for_beef_and_comes_back_with_one_undo() {
    ui("swap", async |ui| {
        with_tool(ui, "Blackcurrant dome mousse", 'x').await;
        ui.click(&format!("{DIALOG}//button[.='No eggs']")).await;
        ui.find(&format!("{DIALOG}//*[@role='alert'][contains(., 'has no eggs already')]")).await;
        ui.click(&format!("{DIALOG}//button[.='No pork gelatin']")).await;
        ui.find(&format!("{DIALOG}//p[contains(., 'new allergen: fish')]")).await;
        ui.click(&format!("{DIALOG}//button[starts-with(@aria-label, 'Use Beef gelatin')]")).await;
        ui.wait_for("beef gelatin in the formula", async || {
            names(ui).await.iter().any(|name| name.starts_with("Beef gelatin"))
        })
        .await;
        ui.chord(Key::Control, 'z').await;
        ui.wait_for("the gelatin it was", async || {
            names(ui).await.iter().any(|name| name.starts_with("Gelatin 200"))
        })
        .await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn one_chocolate_for_another_in_the_order_the_person_ranks() {
    ui("swap_rank", async |ui| {
        with_tool(ui, BAY, 'x').await;
        ui.click(&format!(
            "{DIALOG}//select[@aria-label='Instead of']/option[contains(., 'Milk chocolate')]"
        ))
        .await;
        ui.click(&format!("{DIALOG}//button[.='Take instead…']")).await;
        ui.find("//input[@role='combobox']").await.send_keys("milk chocolate 35").await.unwrap();
        ui.find("//*[@role='option'][contains(., 'Milk chocolate 35')]").await;
        ui.press(Key::Enter).await;
        ui.find(&format!("{DIALOG}//h3[contains(., 'Milk chocolate 35')]")).await;
        ui.click(&format!("{DIALOG}//button[@aria-label='Up: Cost before Sweetness']")).await;
        ui.find(&format!("{DIALOG}//button[@aria-label='Up: Cost before Consistency']")).await;
        ui.wait_for("the second place", async || {
            let kept = ui.text(&format!("{DIALOG}//article[1]/p[1]")).await;
            kept.find("cost").zip(kept.find("sweetness")).is_some_and(|(cost, sweet)| cost < sweet)
        })
        .await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_size_with_whole_eggs_and_shares_that_add_up() {
    ui("size", async |ui| {
        with_tool(ui, "Daily pastry cream", 'g').await;
        ui.write(&field("Wanted"), "1700").await;
        ui.click(&format!(
            "{DIALOG}//label[contains(., 'Come out whole')]/select/option[contains(., 'eggs')]"
        ))
        .await;
        ui.find(&format!("{DIALOG}//td[contains(., '12 yolks')]")).await;
        ui.click(&format!("{DIALOG}//button[.='Use this size']")).await;
        ui.wait_for("the new amounts", async || {
            ui.value(&Ui::amount("Whole milk 3.5 %")).await.starts_with("1200")
        })
        .await;
        ui.js("document.activeElement?.blur()").await;
        ui.press('g').await;
        ui.click(&format!("{DIALOG}//button[@role='tab'][.='Share it out']")).await;
        ui.write(&field("The scale shows"), "1000").await;
        ui.write(&field("Into how many"), "3").await;
        ui.find(&format!("{DIALOG}//p[.='333 to 334 g in each of 3, 1000 g in all.']")).await;
        let last = ui.text(&format!("{DIALOG}//tbody/tr[3]/td[2]")).await;
        assert_eq!(last, "0", "the bowl is empty at the end");
        ui.write(&field("Into how many"), "2.5").await;
        ui.find(&format!("{DIALOG}//span[contains(., 'a whole number')]")).await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_short_ingredient_sets_the_size() {
    ui("size_short", async |ui| {
        with_tool(ui, BAY, 'g').await;
        ui.click(&format!(
            "{DIALOG}//label[starts-with(., 'To')]/select/option[contains(., 'Only so much')]"
        ))
        .await;
        ui.click(&format!(
            "{DIALOG}//label[contains(., 'only so much')]/select/option[contains(., 'Cream')]"
        ))
        .await;
        ui.write(&format!("{DIALOG}//label[contains(., 'All there is')]/input"), "a lot").await;
        ui.find(&format!("{DIALOG}//*[@role='alert']")).await;
        ui.write(&format!("{DIALOG}//label[contains(., 'All there is')]/input"), "310 g").await;
        ui.find(&format!("{DIALOG}//p[contains(., 'sets the size')]")).await;
        // The same cream: it is as stiff as before.
        ui.click(&format!("{DIALOG}//button[.='Use this size']")).await;
        ui.wait_for("the new amounts", async || ui.value(&Ui::amount("Cream 36 %")).await == "310 g").await;
        ui.verdict_that("is the same", |said| said == TOO_STIFF).await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_school_is_read_chosen_kept_and_printed() {
    ui("method", async |ui| {
        with_tool(ui, BAY, 'm').await;
        ui.find(&format!("{DIALOG}//ol/li[contains(., 'Heat the cream')]")).await;
        ui.click(&format!("{DIALOG}//nav/button[starts-with(., 'Together over water')]")).await;
        ui.find(&format!("{DIALOG}//ol/li[contains(., '42 to 46 °C')]")).await;
        // The printer gets the school that is read, the amounts and the ways.
        ui.js("window.printed = 0; window.print = () => { window.printed += 1 }").await;
        ui.click(&format!("{DIALOG}//button[.='Print this']")).await;
        assert_eq!(ui.js("return window.printed").await, 1);
        let page = ui.js("return document.querySelector('[data-testid=print]').textContent").await;
        let page = page.as_str().unwrap().replace('\u{a0}', " ");
        for words in [BAY, "Cream 36 %", "Ways there", "Together over water", "local food code"] {
            assert!(page.contains(words), "{words} is not printed: {page}");
        }
        ui.click(&format!("{DIALOG}//button[.='Make it so']")).await;
        ui.click(SAVE).await;
        ui.find("//*[@role='status'][contains(., 'version 2, saved')]").await;
        ui.client.refresh().await.unwrap();
        ui.verdict_that("is there", |_| true).await;
        ui.js("document.activeElement?.blur()").await;
        ui.press('m').await;
        ui.find(&format!(
            "{DIALOG}//nav/button[starts-with(., 'Together over water')][contains(., 'as it is made now')]"
        ))
        .await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn whites_that_are_only_warmed_are_said_to_be_raw() {
    ui("method_raw", async |ui| {
        with_tool(ui, "Cardamom Swiss", 'm').await;
        ui.click(&format!("{DIALOG}//nav/button[starts-with(., 'Whites and sugar to 55')]")).await;
        ui.find(&format!("{DIALOG}//li[contains(., 'Egg under 71 °C')]")).await;
        ui.click(&format!("{DIALOG}//button[.='Make it so']")).await;
        ui.find("//*[contains(text(), 'raw')]").await;
        // And back: one undo.
        ui.chord(Key::Control, 'z').await;
        ui.js("document.activeElement?.blur()").await;
        ui.press('m').await;
        ui.find(&format!(
            "{DIALOG}//nav/button[starts-with(., 'Whites and sugar to 71')][@aria-current='true']"
        ))
        .await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn keys_of_the_tools_are_letters_in_a_field_and_do_nothing_over_a_dialog() {
    ui("making_keys", async |ui| {
        ui.open_formula(BAY).await;
        ui.write("//input[@aria-label='Note']", "xgmp").await;
        assert!(!ui.has(DIALOG).await);
        assert_eq!(ui.value("//input[@aria-label='Note']").await, "xgmp");
        ui.js("document.activeElement?.blur(); window.printed = 0; window.print = () => { window.printed += 1 }")
            .await;
        ui.press('p').await;
        ui.wait_for("it prints", async || ui.js("return window.printed").await == 1).await;
        ui.press('x').await;
        ui.find(DIALOG).await;
        ui.js("document.activeElement?.blur()").await;
        ui.press('g').await;
        ui.find(&format!("{DIALOG}//h2[.='Swap']")).await;
        assert!(!ui.has(&format!("{DIALOG}//h2[.='Size']")).await);
    })
    .await;
}
