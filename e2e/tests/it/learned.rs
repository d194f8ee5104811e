//! What tests taught: predicted against measured, every offset with its history, the book beside the verdict, a test on the Bench, and
//! the trainer.

use crate::looks::axe;
use e2e::{LAPTOP, TABLET, Ui, Viewport, ui};
use fantoccini::key::Key;

const CHOICES: &str = "//ol[@aria-label='Answers']/li/button";

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn predicted_stands_against_measured_and_a_mark_opens_its_batch() {
    ui("measured", async |ui| {
        ui.open("/log").await;
        ui.click("//nav[@aria-label='Log']/a[.='Predicted and measured']").await;
        ui.find("//h1[contains(., ' tests came out as predicted')]").await;
        ui.find("//p[contains(., 'the book alone ')]").await;
        let marks = "document.querySelectorAll('section a[aria-label*=\" predicted, \"]')";
        let many = ui.js(&format!("return {marks}.length")).await.as_u64().unwrap_or(0);
        assert!(many > 20, "{many} marks");
        ui.find("//figcaption//li[contains(., 'does not fit: measure again')]").await;
        // By the book the same marks stand elsewhere.
        let places = format!("return [...{marks}].map((own) => own.style.left).join()");
        let said = ui.js(&places).await;
        ui.click("//select[@aria-label='Against']/option[.='the book alone']").await;
        ui.wait_for("the book's places", async || ui.js(&places).await != said).await;
        ui.click("(//summary[.='As a table'])[1]").await;
        ui.find("(//details[@open]//tbody/tr)[1]").await;
        ui.click("(//section//a[contains(@aria-label, ' predicted, ')])[last()]").await;
        ui.find("//section[@aria-label='Tests']//li").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn an_offset_shows_how_it_came_begins_anew_and_is_taken_back() {
    ui("learned", async |ui| {
        ui.open("/log/learned").await;
        ui.find("//h2[contains(., 'does not fit') or contains(., 'do not fit')]").await;
        ui.find("//section[@aria-label='What to measure next']//li[contains(., ' narrows ')]").await;
        ui.click("//button[@aria-label='How it came: Ganache']").await;
        ui.find("//section[@aria-label='Offsets']//ol/li[contains(., 'times')]").await;
        ui.click("//button[@aria-label='Begin anew: Ganache']").await;
        ui.write("//label[starts-with(., 'Why')]/input", "another maker").await;
        ui.click("//div[contains(., 'until a new test says otherwise')]/button[.='Begin anew']").await;
        ui.find("//section[@aria-label='Begun anew']//li[contains(., 'another maker')]").await;
        ui.find("//section[@aria-label='Offsets']//b[starts-with(., 'Ganache, until ')]").await;
        ui.click("//button[@aria-label='Take back: Ganache begins anew']").await;
        ui.find("//section[@aria-label='Offsets']//b[starts-with(., 'Ganache: ')]").await;
        assert!(!ui.has("//section[@aria-label='Begun anew']").await);
        // A reading is left out, and counts again.
        ui.click("(//section[@aria-label='Readings']//button[starts-with(@aria-label, 'Leave it out')])[1]")
            .await;
        ui.find("//section[@aria-label='Readings']//span[contains(., 'left out of what is learned')]").await;
        ui.click("//section[@aria-label='Readings']//button[starts-with(@aria-label, 'Count it again')]")
            .await;
        ui.wait_for("it counts again", async || {
            !ui.has("//section[@aria-label='Readings']//span[contains(., 'left out of what')]").await
        })
        .await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_book_stands_beside_the_verdict_and_a_test_is_done_on_the_bench() {
    ui("bench_test", async |ui| {
        ui.open_formula("Lantern wall buttercream").await;
        let learned = "//a[contains(., 'By your own tests ')]";
        let before = ui.text(learned).await;
        ui.click("//label[contains(., 'The book beside it')]/input").await;
        ui.find("//span[starts-with(., 'By the book: ')]").await;
        ui.find("//*[name()='text'][.='by the book']").await;
        ui.js("document.activeElement?.blur()").await;
        ui.press('w').await;
        ui.find("//section[@aria-label='What your own tests say']//li[contains(., 'times of it here')]")
            .await;
        ui.press(Key::Escape).await;
        ui.js("document.activeElement?.blur()").await;
        ui.press('b').await;
        ui.write("//label[starts-with(., 'It is at')]/input", "20").await;
        ui.click("//ul[@aria-label='Tests']//button[starts-with(., 'rod') or starts-with(., 'Rod')]").await;
        // A reading that cannot be is said, and leaves no batch behind of which nothing is said.
        let batches = async || {
            ui.js("return fetch('/api/batches').then(own => own.json()).then(own => own.length)").await
        };
        let many = batches().await;
        ui.write("(//form//label/input)[last()]", "900000").await;
        ui.click("//button[.='That is it']").await;
        ui.find("//div[@role='dialog']//p[@role='alert']").await;
        assert_eq!(batches().await, many);
        ui.write("(//form//label/input)[last()]", "30").await;
        ui.click("//button[.='That is it']").await;
        ui.find("//p[@role='status'][contains(., 'where the book says')]").await;
        assert_eq!(batches().await.as_u64(), many.as_u64().map(|own| own + 1));
        // Nothing typed is no test, and says so.
        ui.write("(//form//label/input)[last()]", "much").await;
        ui.click("//button[.='That is it']").await;
        ui.find("//p[@role='alert'][contains(., 'rite a number')]").await;
        ui.press(Key::Escape).await;
        ui.wait_for("it was learned", async || ui.text(learned).await != before).await;
        // It is in the log, of that formula.
        ui.open("/log").await;
        ui.find("(//section[@aria-label='Batches']//li)[1]//b[.='Lantern wall buttercream']").await;
        ui.find("(//section[@aria-label='Batches']//li)[1]//span[.='1 test']").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_minutes_of_own_batches_stand_in_the_kitchen_and_can_be_written_down() {
    ui("took", async |ui| {
        ui.open("/day/room").await;
        ui.click("//section[@aria-label='Own minutes']//summary[contains(., 'known from your own batches')]")
            .await;
        let first = "(//section[@aria-label='Own minutes']//details//li)[1]";
        let what = ui.text(&format!("{first}//b")).await;
        assert!(what.contains(" min"), "{what}");
        let rows = "return document.querySelectorAll('section[aria-label=\"Own minutes\"] > ul > li').length";
        let before = ui.js(rows).await.as_u64().unwrap_or(0);
        ui.click(&format!("{first}//button[.='Write it down']")).await;
        ui.wait_for("it is written down", async || ui.js(rows).await.as_u64() == Some(before + 1)).await;
    })
    .await;
}

async fn answered(ui: &Ui, key: char) {
    ui.find(CHOICES).await;
    ui.press(key).await;
    ui.find(
        "//section[@aria-label='The answer']//h2[starts-with(., 'Right: ') or starts-with(., 'Not quite: ')]",
    )
    .await;
    ui.find("//section[@aria-label='The answer']//figure[starts-with(@aria-label, 'On the spoon: ')]").await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_trainer_is_played_by_keys_and_by_touch_and_keeps_each_score() {
    ui("trainer", async |ui| {
        ui.open("/log/trainer").await;
        ui.write("//label[starts-with(., 'Who is at it')]/input", "Ada").await;
        ui.click("//button[.='It is me']").await;
        ui.find("//p[contains(., 'Nothing was asked yet.')]").await;
        ui.js("document.activeElement?.blur()").await;
        answered(ui, '1').await;
        ui.find("//section[@aria-label='Score']//b[contains(., ' of 1 right')]").await;
        ui.press(Key::Enter).await;
        ui.find(CHOICES).await;
        // By a thumb, at the width of a phone.
        ui.set_viewport(Viewport(390, 844)).await;
        ui.click("//select[@aria-label='Ask me']/option[.='how long the drip']").await;
        ui.find("//h1[starts-with(., 'How long does the drip run')]").await;
        ui.click(&format!("({CHOICES})[2]")).await;
        ui.find("//section[@aria-label='Score']//b[contains(., ' of 2 right')]").await;
        ui.click("//button[starts-with(., 'Next')]").await;
        ui.click("//select[@aria-label='Ask me']/option[.='what is in it']").await;
        ui.find("//h1[starts-with(., 'Which bowl does that')]").await;
        ui.find(&format!("{CHOICES}[contains(., 'Bowl A')]//li")).await;
        // Somebody else begins with nothing; Ada's stays.
        ui.open("/log/trainer").await;
        ui.find("//p[contains(., ' of 2 right')]").await;
        ui.write("//label[starts-with(., 'Who is at it')]/input", "Bo").await;
        ui.click("//button[.='It is me']").await;
        ui.find("//p[contains(., 'Nothing was asked yet.')]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn nothing_serious_on_what_was_learned() {
    ui("looks_learned", async |ui| {
        let axe = axe();
        for (theme, size) in [("light", LAPTOP), ("dim", TABLET), ("light", Viewport(390, 844))] {
            ui.set_viewport(size).await;
            ui.open("/").await;
            ui.js(&format!("localStorage.setItem('bright-spoon.theme', '{theme}')")).await;
            for (path, sign) in [
                ("/log/measured", "//figcaption//li"),
                ("/log/learned", "//section[@aria-label='Offsets']//li"),
                ("/log/trainer", CHOICES),
            ] {
                ui.open(path).await;
                ui.find(sign).await;
                let faults = ui.serious_faults(&axe).await;
                assert!(faults.is_empty(), "{path}:\n{}", faults.join("\n"));
                let wide = ui.js("return [document.documentElement.scrollWidth, innerWidth]").await;
                assert_eq!(wide[0], wide[1], "{path}: something stands out at the side");
            }
        }
    })
    .await;
}
