//! The log: found again, written in, beside each other, judged afterwards, out and in, with a picture.

use e2e::{Ui, ui};
use fantoccini::Locator;

const ROWS: &str = "return document.querySelectorAll('section[aria-label=\"Batches\"] ol > li').length";
const SETTLED: &str = "//section[@aria-label='Batches'][@aria-busy='false']";

async fn rows(ui: &Ui) -> u64 {
    ui.find(SETTLED).await;
    ui.js(ROWS).await.as_u64().unwrap_or(0)
}

/// Writes the day into a date field as its own calendar would.
async fn set_day(ui: &Ui, day: &str) {
    let script = format!(
        "const own = document.querySelector('[role=dialog] input[type=date]');
         Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(own, '{day}');
         own.dispatchEvent(new Event('input', {{ bubbles: true }}))"
    );
    ui.js(&script).await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn batches_are_found_and_put_beside_each_other() {
    ui("log", async |ui| {
        ui.open("/log").await;
        ui.find("//h1[contains(., '65 batches, ')]").await;
        assert_eq!(rows(ui).await, 40);
        ui.click("//button[.='Older ones']").await;
        ui.wait_for("all of them", async || rows(ui).await == 65).await;
        // By a key, by words, by how it came out, and all again.
        ui.js("document.activeElement?.blur()").await;
        ui.press('/').await;
        ui.press('h').await;
        ui.wait_for("what is typed", async || ui.value("//input[@id='find-batch']").await == "h").await;
        ui.write("//input[@id='find-batch']", "harbour mask").await;
        ui.wait_for("the masks", async || rows(ui).await == 9).await;
        ui.click("//select[@aria-label='How it came out']/option[.='wrong ones only']").await;
        ui.wait_for("fewer", async || rows(ui).await < 9).await;
        assert!(
            ui.client
                .current_url()
                .await
                .expect("an address")
                .query()
                .is_some_and(|own| own.contains("wrong"))
        );
        ui.write("//input[@id='find-batch']", "no such word at all").await;
        ui.find("//p[contains(., 'No batch is like that')]").await;
        ui.click("//button[.='All batches']").await;
        ui.wait_for("all again", async || rows(ui).await == 40).await;
        // Three beside each other.
        ui.write("//input[@id='find-batch']", "harbour mask").await;
        ui.wait_for("the masks", async || rows(ui).await == 9).await;
        for at in 1..=2 {
            ui.click(&format!("({SETTLED}//li)[{at}]//input[@type='checkbox']")).await;
        }
        ui.click("//button[.='2 beside each other']").await;
        ui.find("//h1[contains(., 'ame out') or contains(., 'wrong')]").await;
        ui.find("//th[starts-with(., 'Dark chocolate 55 %')]").await;
        ui.find("//th[starts-with(., 'School')]").await;
        ui.click("(//thead//a)[1]").await;
        ui.find("//section[@aria-label='What went in']").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_batch_is_written_in_judged_tested_and_becomes_a_formula() {
    ui("log_write", async |ui| {
        ui.open("/log").await;
        ui.find(SETTLED).await;
        ui.press('w').await;
        ui.find("//*[@role='dialog']").await;
        ui.click("//button[.='Write it in']").await;
        ui.find("//p[@role='alert'][contains(., 'Choose the formula')]").await;
        ui.click("//label[contains(., 'What was made')]/select/option[.='Brandy soak']").await;
        set_day(ui, "2150-01-02").await;
        ui.click("//button[.='Write it in']").await;
        ui.find("//p[@role='alert'][contains(., 'still to come')]").await;
        set_day(ui, "2025-12-24").await;
        ui.write("//*[@role='dialog']//textarea", "too sweet for the tea cake").await;
        ui.click("//button[.='Write it in']").await;
        ui.find("//h1[.='Nobody said how it came out']").await;
        ui.find("//p[.='too sweet for the tea cake']").await;
        ui.find("//p[contains(., 'written in afterwards')]").await;
        // What is said of it afterwards stands at once, and is found.
        ui.press('v').await;
        ui.click("//button[.='Too loose']").await;
        ui.write("//*[@role='dialog']//textarea", "puddled").await;
        ui.click("//button[.='Write it down']").await;
        ui.find("//h1[.='It came out too loose: puddled']").await;
        // A new formula from what was in the bowl.
        ui.click("//button[.='New formula from the bowl']").await;
        ui.wait_for("its name", async || {
            ui.value("//input[@aria-label='Name of the formula']").await.starts_with("Brandy soak, as made")
        })
        .await;
        ui.open("/log?words=puddled").await;
        ui.wait_for("it alone", async || rows(ui).await == 1).await;
        ui.find("//span[contains(., '24 Dec 2025')]").await;
    })
    .await;
}

/// A photograph of one colour, drawn in the page and given to the field as a file.
const PICTURE: &str = "const [xpath, done] = arguments;
    const field = document.evaluate(xpath, document, null, 9, null).singleNodeValue;
    const canvas = Object.assign(document.createElement('canvas'), { width: 3000, height: 2000 });
    canvas.getContext('2d').fillRect(0, 0, 3000, 2000);
    canvas.toBlob((blob) => {
      const files = new DataTransfer();
      files.items.add(new File([blob], 'crumb.png', { type: 'image/png' }));
      field.files = files.files;
      field.dispatchEvent(new Event('change', { bubbles: true }));
      done(true);
    }, 'image/png')";

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_picture_is_made_small_and_can_be_taken_away() {
    ui("log_picture", async |ui| {
        ui.open("/log?words=pastry").await;
        ui.find(SETTLED).await;
        ui.click("(//section[@aria-label='Batches']//li)[1]//a").await;
        let field = "//input[@aria-label='Picture of the batch']";
        ui.wait_for("the field", async || ui.has(field).await).await;
        ui.client.execute_async(PICTURE, vec![field.into()]).await.expect("it is picked");
        let picture = "//section[@aria-label='Pictures']//img";
        ui.find(picture).await;
        ui.wait_for("it is drawn", async || {
            let size = "const own = document.querySelector('section[aria-label=Pictures] img'); return own?.naturalWidth";
            ui.js(size).await == 1280
        })
        .await;
        // What is no picture is said to be none.
        let bad = PICTURE.replace("new File([blob], 'crumb.png'", "new File(['no picture'], 'crumb.png'");
        ui.client.execute_async(&bad, vec![field.into()]).await.expect("it is picked");
        ui.find("//p[@role='alert'][contains(., 'no picture')]").await;
        ui.click("//button[starts-with(., 'Take away')]").await;
        ui.click("//button[.='Take it away']").await;
        ui.wait_for("it is gone", async || !ui.has(picture).await).await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_notebook_is_read_first_and_its_good_rows_taken() {
    ui("log_files", async |ui| {
        ui.open("/log").await;
        ui.click("//button[.='Files']").await;
        let field = "//input[@aria-label='Log file']";
        ui.wait_for("the field", async || ui.has(field).await).await;
        let file = std::env::temp_dir().join(format!("notebook-{}.csv", std::process::id()));
        std::fs::write(
            &file,
            "made,formula,came,words\n2025-10-01,Brandy soak,good,an old page\n1.2.25,Brandy soak,good,\n",
        )
        .expect("it is written");
        let input = ui.client.find(Locator::XPath(field)).await.expect("the field");
        input.send_keys(&file.to_string_lossy()).await.expect("it is picked");
        ui.find("//li[contains(., 'Line 3') and contains(., 'year, month and day')]").await;
        ui.click("//button[.='Take it']").await;
        ui.find("//p[@role='status'][contains(., 'one batch taken')]").await;
        ui.press(fantoccini::key::Key::Escape).await;
        ui.open("/log?words=an%20old%20page").await;
        ui.wait_for("it is there", async || rows(ui).await == 1).await;
        std::fs::remove_file(&file).ok();
    })
    .await;
}
