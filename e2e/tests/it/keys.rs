//! Keys: they belong to a field, a drop-down or a sheet first, and do what they say everywhere else.

use crate::BAY;
use e2e::{Ui, ui};
use fantoccini::key::Key;

async fn path(ui: &Ui) -> String {
    ui.client.current_url().await.expect("it has an address").path().to_owned()
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn letters_in_a_drop_down_choose_an_option_and_nothing_else() {
    ui("keys_drop_down", async |ui| {
        ui.open_formula(BAY).await;
        let before = path(ui).await;
        ui.js("[...document.querySelectorAll('select')].find((s) => [...s.options].some((o) => o.text.startsWith('in spoons'))).focus()").await;
        for key in ['i', 'n', ' '] {
            ui.press(key).await;
        }
        ui.press(Key::Escape).await;
        for key in ['s', 'w', 'x', '1', 'a', 'p'] {
            ui.press(key).await;
        }
        assert_eq!(path(ui).await, before);
        assert!(!ui.has("//*[@role='dialog']").await, "a letter opened a sheet");
        ui.find("//*[@role='status'][contains(., 'version 1, saved')]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_rooms_and_new_answer_on_the_cake() {
    ui("keys_cake", async |ui| {
        for (key, room) in [
            ('1', "/bench/"),
            ('3', "/day"),
            ('4', "/make"),
            ('5', "/log"),
            ('6', "/formulas"),
            ('7', "/pantry"),
            ('n', "/new"),
        ] {
            ui.open_order("Harbour wedding", "Cake").await;
            ui.press(key).await;
            ui.wait_for(&format!("the room of {key}"), async || path(ui).await.starts_with(room)).await;
        }
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn why_does_not_open_over_another_sheet() {
    ui("keys_why", async |ui| {
        ui.open_formula(BAY).await;
        ui.press('g').await;
        ui.find("//*[@role='dialog']").await;
        // The focus may be on a field: put it on the sheet itself.
        ui.js("document.activeElement.blur()").await;
        ui.press('w').await;
        ui.press('w').await;
        let open = ui.js("return document.querySelectorAll('[role=dialog]').length").await;
        assert_eq!(open.as_u64(), Some(1));
        ui.press(Key::Escape).await;
        ui.wait_for("it closed", async || !ui.has("//*[@role='dialog']").await).await;
        ui.press('w').await;
        ui.find("//*[@role='dialog'][contains(., 'Where its strength comes from')]").await;
        ui.press('w').await;
        ui.wait_for("it closed", async || !ui.has("//*[@role='dialog']").await).await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_way_tried_by_its_letter_is_used_by_enter_wherever_the_focus_was() {
    ui("keys_ways", async |ui| {
        ui.open_formula(BAY).await;
        ui.find("//section[@aria-label='Ways there']//li").await;
        // The hand comes from a button: its focus must not take the Enter.
        ui.js("[...document.querySelectorAll('header button')].find((b) => b.textContent.startsWith('Open')).focus()").await;
        ui.press('a').await;
        ui.press(Key::Enter).await;
        ui.find("//*[@role='status'][contains(., 'changed since version 1')]").await;
        assert!(!ui.has("//*[@data-radix-popper-content-wrapper]").await, "Enter opened a menu");
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn every_key_is_listed_and_single_letters_can_be_switched_off() {
    ui("keys_list", async |ui| {
        ui.open_formula(BAY).await;
        ui.press('?').await;
        let list = "//*[@role='dialog'][.//h2[.='Keys']]";
        ui.find(list).await;
        // What is listed answers on this page: the rooms, the Bench, undo.
        for (scope, key, words) in [
            ("Everywhere", "3", "Day"),
            ("Everywhere", "6", "Formulas"),
            ("Everywhere", "F8", "Rescue"),
            ("Bench", "W", "Why it comes out so"),
            ("Bench", "Ctrl + Z", "Undo"),
            ("Bench", "←", "Half a degree colder"),
        ] {
            let row = format!("{list}//section[h3='{scope}']//div[dt='{key}']/dd[starts-with(., '{words}')]");
            ui.find(&row).await;
        }
        ui.click(&format!("{list}//input[@type='checkbox']")).await;
        ui.find(&format!("{list}//dd[.='Why it comes out so (switched off)']")).await;
        ui.press(Key::Escape).await;
        ui.wait_for("it closed", async || !ui.has("//*[@role='dialog']").await).await;
        let before = path(ui).await;
        for key in ['w', '6', 'n', 'x', '?'] {
            ui.press(key).await;
        }
        assert_eq!(path(ui).await, before);
        assert!(!ui.has("//*[@role='dialog']").await, "a letter that is switched off opened a sheet");
        // What is no letter still answers, and the choice outlives a reload.
        ui.press(Key::F8).await;
        ui.find("//*[@role='dialog']").await;
        ui.press(Key::F8).await;
        ui.wait_for("it closed", async || !ui.has("//*[@role='dialog']").await).await;
        ui.client.refresh().await.expect("it loads again");
        ui.find("//*[@data-testid='verdict']").await;
        ui.press('6').await;
        assert_eq!(path(ui).await, before);
        // The list is reached without a key, and switches them on again.
        ui.click("//header//button[contains(., 'Room')]").await;
        ui.click("//button[starts-with(., 'Keys')]").await;
        ui.click(&format!("{list}//input[@type='checkbox']")).await;
        ui.press(Key::Escape).await;
        ui.wait_for("it closed", async || !ui.has("//*[@role='dialog']").await).await;
        ui.press('6').await;
        ui.wait_for("Formulas", async || path(ui).await == "/formulas").await;
    })
    .await;
}
