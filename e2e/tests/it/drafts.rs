//! Work that was not saved yet: nothing a cook does, and nothing that fails, loses it.

use crate::{BAY, SAVE};
use e2e::browser::ui_of_own_kitchen;
use e2e::{Ui, ui};
use fantoccini::Locator;
use sqlx::{Connection, Executor, SqliteConnection};

const NAME: &str = "//input[@aria-label='Name of the formula']";
const UNSAVED: &str = "//section[@aria-label='Unsaved on this device']";
const CHOCOLATE: &str = "Milk chocolate 40 %";

/// Starts a formula of a family for a job from the page of families.
async fn start(ui: &Ui, family: &str, job: &str) {
    ui.open(&format!("/bench/new?family={family}&job={job}")).await;
    ui.verdict_that("is there", |_| true).await;
}

async fn named(ui: &Ui, name: &str) {
    ui.wait_for(&format!("the name {name}"), async || ui.value(NAME).await == name).await;
}

/// How many drafts the device holds, as the page would read them.
async fn kept(ui: &Ui) -> u64 {
    let script = "const done = arguments[arguments.length - 1];
        const ask = indexedDB.open('bright-spoon', 1);
        ask.onsuccess = () => {
          const count = ask.result.transaction('drafts').objectStore('drafts').count();
          count.onsuccess = () => { ask.result.close(); done(count.result) };
        }";
    ui.client.execute_async(script, vec![]).await.expect("it counts").as_u64().expect("a count")
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_new_formula_is_there_again_after_a_reload_back_a_key_and_a_link() {
    ui("drafts_new", async |ui| {
        start(ui, "ganache", "fill").await;
        ui.write(NAME, "Fog fill").await;
        ui.wait_for("the draft", async || kept(ui).await == 1).await;
        ui.client.refresh().await.unwrap();
        named(ui, "Fog fill").await;
        // The key N and Back.
        ui.js("document.activeElement.blur()").await;
        ui.press('n').await;
        ui.find("//h1[.='What will you make?']").await;
        ui.find(&format!("{UNSAVED}//b[.='Fog fill']")).await;
        ui.client.back().await.unwrap();
        named(ui, "Fog fill").await;
        // Another start has a draft of its own.
        start(ui, "syrup", "soak").await;
        ui.write(NAME, "Fog soak").await;
        ui.wait_for("both", async || kept(ui).await == 2).await;
        // A link of the rail, then the list.
        ui.click("//nav[@aria-label='Rooms']//a[contains(., 'Formulas')]").await;
        ui.click(&format!("{UNSAVED}//a[contains(., 'Fog fill')]")).await;
        named(ui, "Fog fill").await;
        // A save of it takes it from the list, and only it.
        ui.click(SAVE).await;
        ui.find("//*[@role='status'][contains(., 'version 1, saved')]").await;
        ui.wait_for("one left", async || kept(ui).await == 1).await;
        ui.click("//nav[@aria-label='Rooms']//a[contains(., 'Formulas')]").await;
        ui.find(&format!("{UNSAVED}//b[.='Fog soak']")).await;
        // A plain yes throws the other away.
        ui.click(&format!("{UNSAVED}//button[.='Throw away']")).await;
        ui.click(&format!("{UNSAVED}//button[.='Yes, throw it away']")).await;
        ui.wait_for("none left", async || kept(ui).await == 0).await;
        assert!(!ui.has(UNSAVED).await);
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn what_is_typed_while_the_first_save_is_under_way_stays() {
    ui_of_own_kitchen("drafts_first_save", async |ui| {
        start(ui, "ganache", "drip").await;
        ui.write(NAME, "Slow save").await;
        // Another program has the file for a moment: the save waits.
        let url = format!("sqlite://{}", ui.store().path().display());
        let mut other = SqliteConnection::connect(&url).await.unwrap();
        other.execute("BEGIN IMMEDIATE").await.unwrap();
        ui.click(SAVE).await;
        ui.find("//*[@role='status'][contains(., 'saving')]").await;
        ui.write("//input[@aria-label='Note']", "typed meanwhile").await;
        other.execute("ROLLBACK").await.unwrap();
        ui.wait_for("its address", async || !ui.client.current_url().await.unwrap().path().ends_with("/new"))
            .await;
        ui.find("//*[@role='status'][contains(., 'changed since version 1')]").await;
        assert_eq!(ui.value("//input[@aria-label='Note']").await, "typed meanwhile");
        ui.client.refresh().await.unwrap();
        ui.wait_for("the note", async || {
            ui.has("//input[@aria-label='Note']").await
                && ui.value("//input[@aria-label='Note']").await == "typed meanwhile"
        })
        .await;
        ui.click(SAVE).await;
        ui.find("//*[@role='status'][contains(., 'version 2, saved')]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_draft_whose_formula_cannot_be_read_once_stays_a_draft() {
    ui("drafts_unreadable", async |ui| {
        ui.open_formula(BAY).await;
        let address = ui.client.current_url().await.unwrap();
        ui.write(&Ui::amount(CHOCOLATE), "140 g").await;
        ui.wait_for("the draft", async || kept(ui).await == 1).await;
        ui.click("//nav[@aria-label='Rooms']//a[contains(., 'Pantry')]").await;
        ui.find("//h1[.='Pantry']").await;
        // The formula's own address fails, whatever the reason.
        let id = address.path().rsplit('/').next().unwrap();
        let break_it = format!(
            "const real = window.fetch; window.realFetch = real;
             window.fetch = (ask, how) => (ask.url ?? String(ask)).endsWith('/api/components/{id}')
               ? Promise.resolve(new Response('{{\"code\":\"internal\",\"detail\":\"broken\",\"status\":500}}',
                   {{ status: 500, headers: {{ 'content-type': 'application/problem+json' }} }}))
               : real(ask, how)"
        );
        ui.js(&break_it).await;
        ui.client.back().await.unwrap();
        ui.wait_for("the draft in hand", async || {
            ui.has(&Ui::amount(CHOCOLATE)).await && ui.value(&Ui::amount(CHOCOLATE)).await == "140 g"
        })
        .await;
        ui.find("//*[@role='status'][contains(., 'Your unsaved changes from')]").await;
        ui.find("//*[@role='status'][contains(., 'changed since version 1')]").await;
        assert_eq!(kept(ui).await, 1);
        // The file answers again: nothing was put down as if it were saved.
        ui.client.refresh().await.unwrap();
        ui.wait_for("it again", async || {
            ui.has(&Ui::amount(CHOCOLATE)).await && ui.value(&Ui::amount(CHOCOLATE)).await == "140 g"
        })
        .await;
        ui.click("//button[.='Throw them away']").await;
        ui.wait_for("as it was saved", async || ui.value(&Ui::amount(CHOCOLATE)).await == "150 g").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn two_tabs_on_one_formula_each_keep_their_own_and_hear_of_each_other() {
    ui("drafts_tabs", async |ui| {
        ui.open_formula(BAY).await;
        let address = ui.client.current_url().await.unwrap();
        ui.write(&Ui::amount(CHOCOLATE), "140 g").await;
        ui.wait_for("one draft", async || kept(ui).await == 1).await;
        let first = ui.client.window().await.unwrap();
        let second = ui.client.new_window(true).await.unwrap().handle;
        ui.client.switch_to_window(second.clone()).await.unwrap();
        ui.client.goto(address.as_str()).await.unwrap();
        // The other tab's work stays with it; that it is open there is said.
        ui.find("//*[@role='status'][contains(., 'open in another tab too')]").await;
        assert_eq!(ui.value(&Ui::amount(CHOCOLATE)).await, "150 g");
        ui.write(&Ui::amount(CHOCOLATE), "165 g").await;
        ui.wait_for("two drafts", async || kept(ui).await == 2).await;
        ui.client.refresh().await.unwrap();
        ui.wait_for("its own", async || {
            ui.has(&Ui::amount(CHOCOLATE)).await && ui.value(&Ui::amount(CHOCOLATE)).await == "165 g"
        })
        .await;
        ui.click(SAVE).await;
        ui.find("//*[@role='status'][contains(., 'version 2, saved')]").await;
        ui.client.switch_to_window(first).await.unwrap();
        ui.find("//*[@role='status'][contains(., 'Another tab saved it as version 2')]").await;
        assert_eq!(ui.value(&Ui::amount(CHOCOLATE)).await, "140 g");
        assert_eq!(kept(ui).await, 1, "the save of one draft took the other");
        ui.client.refresh().await.unwrap();
        ui.wait_for("mine", async || {
            ui.has(&Ui::amount(CHOCOLATE)).await && ui.value(&Ui::amount(CHOCOLATE)).await == "140 g"
        })
        .await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_batch_brought_to_the_bench_comes_on_top_of_what_is_in_hand() {
    ui("drafts_brought", async |ui| {
        ui.open_order("Harbour wedding", "To weigh").await;
        let scale = "(//button[starts-with(normalize-space(.), 'Scale to')])[1]";
        ui.click(scale).await;
        ui.verdict_that("is there", |_| true).await;
        let scaled = ui.client.current_url().await.unwrap();
        // Work of mine on that very formula, then the same batch is brought again.
        ui.write("//input[@aria-label='Note']", "mine, half done").await;
        ui.wait_for("the draft", async || kept(ui).await == 1).await;
        ui.open_order("Harbour wedding", "To weigh").await;
        ui.click(scale).await;
        ui.wait_for("the same formula", async || {
            ui.client.current_url().await.unwrap().path() == scaled.path()
        })
        .await;
        ui.wait_for("the batch", async || {
            ui.has("//input[@aria-label='Note']").await
                && ui.value("//input[@aria-label='Note']").await != "mine, half done"
        })
        .await;
        ui.click("//button[.='Undo']").await;
        ui.wait_for("mine", async || ui.value("//input[@aria-label='Note']").await == "mine, half done")
            .await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn each_build_begun_is_a_draft_of_its_own() {
    ui("drafts_builds", async |ui| {
        for name in ["First build", "Second build"] {
            ui.open("/orders").await;
            ui.click("(//section[@aria-label='A new order']//li/button)[1]").await;
            ui.click("//nav[@aria-label='Views of the order']//button[.='Order']").await;
            ui.write("//label[starts-with(., 'Name')]//input", name).await;
            ui.find(&format!("//*[contains(@class, 'tape')]//span[.='{name}']")).await;
        }
        ui.wait_for("both", async || kept(ui).await == 2).await;
        ui.open("/orders").await;
        for name in ["First build", "Second build"] {
            ui.find(&format!("{UNSAVED}//b[.='{name}']")).await;
        }
        ui.click(&format!("{UNSAVED}//a[contains(., 'First build')]")).await;
        ui.find("//*[contains(@class, 'tape')]//span[.='First build']").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn an_own_ingredient_half_written_is_there_again() {
    ui("drafts_ingredient", async |ui| {
        ui.open("/pantry/new?copy=cream36").await;
        let name = "//form//label[starts-with(., 'Name')]/input";
        ui.write(name, "Fog cream").await;
        ui.wait_for("the draft", async || kept(ui).await == 1).await;
        ui.client.refresh().await.unwrap();
        ui.wait_for("the name", async || ui.has(name).await && ui.value(name).await == "Fog cream").await;
        ui.click("//nav[@aria-label='Rooms']//a[contains(., 'Pantry')]").await;
        ui.click(&format!("{UNSAVED}//a[contains(., 'Fog cream')]")).await;
        ui.wait_for("the name", async || ui.has(name).await && ui.value(name).await == "Fog cream").await;
        ui.click("//button[starts-with(., 'Put it on the shelf')]").await;
        ui.find("//h2[contains(., 'Fog cream')]").await;
        ui.wait_for("nothing unsaved", async || kept(ui).await == 0).await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn where_storage_is_forbidden_the_page_works_and_says_so() {
    ui("drafts_forbidden", async |ui| {
        ui.before_every_page(
            "for (const name of ['indexedDB', 'localStorage', 'sessionStorage'])
               Object.defineProperty(window, name, { get() { throw new DOMException('no', 'SecurityError') } })",
        )
        .await;
        start(ui, "ganache", "fill").await;
        ui.write(NAME, "Fog fill").await;
        ui.find("//*[@role='status'][contains(., 'This device cannot keep what you change here')]").await;
        // Within the page it is not lost all the same.
        ui.click("//nav[@aria-label='Rooms']//a[contains(., 'Formulas')]").await;
        ui.find(&format!("{UNSAVED}//*[contains(., 'This device cannot keep all of it')]")).await;
        ui.click(&format!("{UNSAVED}//a[contains(., 'Fog fill')]")).await;
        named(ui, "Fog fill").await;
        ui.stop_server().await;
        ui.click(SAVE).await;
        ui.find("//*[@role='alert'][contains(., 'this device cannot keep your work')]").await;
        ui.start_server_again().await;
    })
    .await;
}

/// Seen with a busy disk: the store did not answer for a minute, and the Bench stayed empty as long.
#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn where_storage_never_answers_the_page_works_and_says_so() {
    ui("drafts_silent", async |ui| {
        ui.before_every_page("IDBFactory.prototype.open = () => new EventTarget()").await;
        start(ui, "ganache", "fill").await;
        ui.write(NAME, "Fog fill").await;
        ui.find("//*[@role='status'][contains(., 'This device cannot keep what you change here')]").await;
        ui.click("//nav[@aria-label='Rooms']//a[contains(., 'Formulas')]").await;
        ui.click(&format!("{UNSAVED}//a[contains(., 'Fog fill')]")).await;
        named(ui, "Fog fill").await;
        ui.click(SAVE).await;
        ui.find("//*[contains(., 'version 1, saved')]").await;
    })
    .await;
}

/// A transaction of the device's store that does not end before the page calls `letGo`.
const HOLD: &str = "const hold = (store) => {
       let held = true;
       window.letGo = () => { held = false };
       const again = () => { if (held) store.get('none').onsuccess = again };
       again();
     };";
const CANNOT_KEEP: &str = "//*[@role='status'][contains(., 'This device cannot keep what you change here')]";

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn where_storage_opens_late_what_was_saved_meanwhile_is_not_unsaved() {
    ui("drafts_open_late", async |ui| {
        let first = "if (!sessionStorage.getItem('late')) {
             sessionStorage.setItem('late', 'yes');
             const ask = indexedDB.open('bright-spoon', 1);
             ask.onupgradeneeded = () => hold(ask.result.createObjectStore('drafts', { keyPath: 'id' }));
             ask.onsuccess = () => ask.result.close();
           }";
        ui.before_every_page(&format!("{HOLD}{first}")).await;
        start(ui, "ganache", "fill").await;
        ui.write(NAME, "Fog fill").await;
        ui.find(CANNOT_KEEP).await;
        ui.click(SAVE).await;
        ui.find("//*[contains(., 'version 1, saved')]").await;
        // Another is not saved: it is kept as soon as it can be.
        ui.click("//nav[@aria-label='Rooms']//a[contains(., 'Formulas')]").await;
        ui.press('n').await;
        ui.find("//h1[.='What will you make?']").await;
        assert!(!ui.has(UNSAVED).await, "what was saved is listed as unsaved");
        ui.click("//a[contains(@href, 'family=syrup')]").await;
        ui.verdict_that("is there", |_| true).await;
        ui.write(NAME, "Fog soak").await;
        ui.find(CANNOT_KEEP).await;
        ui.js("letGo()").await;
        ui.wait_for("the store has it", async || kept(ui).await == 1).await;
        ui.wait_for("it is kept", async || !ui.has(CANNOT_KEEP).await).await;
        ui.open("/formulas").await;
        ui.find(&format!("{UNSAVED}//b[.='Fog soak']")).await;
        assert!(!ui.has(&format!("{UNSAVED}//b[.='Fog fill']")).await, "what was saved came back as unsaved");
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn where_storage_writes_late_the_page_hears_of_it() {
    ui("drafts_write_late", async |ui| {
        start(ui, "ganache", "fill").await;
        ui.write(NAME, "Fog fill").await;
        ui.wait_for("the draft", async || kept(ui).await == 1).await;
        let hold = "const ask = indexedDB.open('bright-spoon', 1);
            ask.onsuccess = () => {
              const all = ask.result.transaction('drafts', 'readwrite');
              all.oncomplete = () => ask.result.close();
              hold(all.objectStore('drafts'));
            }";
        ui.js(&format!("{HOLD}{hold}")).await;
        ui.write(NAME, "Fog filling").await;
        ui.find(CANNOT_KEEP).await;
        ui.js("letGo()").await;
        ui.wait_for("it is kept", async || !ui.has(CANNOT_KEEP).await).await;
        ui.client.refresh().await.unwrap();
        named(ui, "Fog filling").await;
        // Saved while the store holds still: gone from it as soon as it moves.
        ui.js(&format!("{HOLD}{hold}")).await;
        ui.click(SAVE).await;
        ui.find("//*[contains(., 'version 1, saved')]").await;
        ui.js("letGo()").await;
        ui.wait_for("none left", async || kept(ui).await == 0).await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_view_that_breaks_offers_the_draft_and_shows_no_trace() {
    ui("drafts_broken", async |ui| {
        start(ui, "ganache", "fill").await;
        ui.write(NAME, "Fog fill").await;
        ui.wait_for("the draft", async || kept(ui).await == 1).await;
        // A draft nobody could write by hand: a name that is no text.
        let script = "const done = arguments[arguments.length - 1];
            const ask = indexedDB.open('bright-spoon', 1);
            ask.onsuccess = () => {
              const store = ask.result.transaction('drafts', 'readwrite').objectStore('drafts');
              store.getAll().onsuccess = (found) => {
                const draft = found.target.result[0];
                draft.document.name = { not: 'a name' };
                store.put(draft).onsuccess = () => { ask.result.close(); done(draft.id) };
              }
            }";
        ui.client.execute_async(script, vec![]).await.unwrap();
        ui.client.refresh().await.unwrap();
        ui.find("//h1[.='This page broke']").await;
        ui.find("//li[contains(., 'Fog fill')]//button[.='Save as a file']").await;
        let text = ui.client.find(Locator::Css("body")).await.unwrap().text().await.unwrap();
        assert!(!text.contains(" at ") || !text.contains(".js:"), "a trace is shown: {text}");
        ui.click("//a[.='All formulas']").await;
        ui.find("//h1[.='Formulas']").await;
    })
    .await;
}
