//! The Stack: a cake from the board up, in the hand of a cook.

use crate::SAVE;
use e2e::{Ui, ui};
use fantoccini::key::Key;

const PLACES: &str = "//*[@role='listbox'][starts-with(@aria-label, 'Places of the cake')]";
const WEDDING: &str = "Harbour wedding";

async fn headline(ui: &Ui) -> String {
    ui.text("//section[@aria-label='The cake']//h1").await
}

async fn headline_that(ui: &Ui, what: &str, holds: impl Fn(&str) -> bool) {
    ui.wait_for(what, async || holds(&headline(ui).await)).await;
}

/// The place selected in the drawing, as a screen reader hears it.
async fn selected(ui: &Ui) -> String {
    let script = "return document.querySelector('[role=listbox] [role=option][aria-selected=true]')?.textContent ?? ''";
    ui.js(script).await.as_str().unwrap_or_default().to_owned()
}

async fn build(ui: &Ui) {
    ui.click("//button[@role='tab'][.='Build']").await;
    ui.find("//section[@aria-label='How it is built']").await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_mend_is_one_press_and_undo_brings_it_back() {
    ui("stack_mend", async |ui| {
        ui.open_order(WEDDING, "Cake").await;
        let first = headline(ui).await;
        assert_eq!(first, "It stands at 19.0 °C; 2 things to mind");
        ui.click("(//button[starts-with(., 'Let go 1.')])[1]").await;
        headline_that(ui, "one thing less", |said| said.starts_with("It stands") && said != first).await;
        ui.js("document.activeElement?.blur()").await;
        ui.chord(Key::Control, 'z').await;
        headline_that(ui, "both again", |said| said == first).await;
        // A warmer table: the border slumps, and what holds it is said.
        ui.click("//button[.='Serving']").await;
        ui.write("//*[@role='dialog']//input[@id=//label[.='Eaten at']/@for]", "29").await;
        ui.press(Key::Enter).await;
        ui.click("//button[.='Back to the cake']").await;
        headline_that(ui, "trouble at 29 °C", |said| !said.starts_with("It stands")).await;
        ui.find("//section[@aria-label='What is found']//*[@aria-label='Does not hold']").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_keyboard_walks_the_places_and_one_step_says_its_grams() {
    ui("stack_keys", async |ui| {
        ui.open_order(WEDDING, "Cake").await;
        ui.find(PLACES).await;
        ui.js("document.querySelector('[role=listbox]').focus()").await;
        ui.press(Key::Up).await;
        ui.wait_for("the lowest place", async || selected(ui).await.starts_with("Tier 1: Sponge 20 mm")).await;
        ui.press(Key::Up).await;
        ui.press(Key::Up).await;
        ui.wait_for("the first filling", async || {
            selected(ui).await == "Tier 1: Filling 7 mm, 187 g in a dam, Sharp-citrus curd"
        })
        .await;
        let more = "//*[@role='group'][@aria-label='height']//button[starts-with(@aria-label, 'More height')]";
        let said = ui.text("//*[@role='group'][@aria-label='height']").await;
        assert!(said.contains("8 mm: 27 g more"), "{said}");
        ui.click(more).await;
        ui.wait_for("27 g more in it", async || selected(ui).await.contains("Filling 8 mm, 214 g")).await;
        ui.find(&format!("//span[contains(., '{WEDDING}')]/following-sibling::*[contains(., 'changed since')] | //*[@role='status'][contains(., 'changed since version 1')]")).await;
        ui.js("document.querySelector('[role=listbox]').focus()").await;
        ui.press(Key::End).await;
        ui.wait_for("the top", async || selected(ui).await.contains("6 piped")).await;
        // A pointer on the drawing picks too.
        ui.click("//*[name()='text'][starts-with(., 'Coat 5 mm')]").await;
        ui.find("//h2[starts-with(., 'Coat 5 mm')]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_finding_opens_on_the_bench_with_the_work_of_its_place() {
    ui("stack_bench", async |ui| {
        ui.open_order(WEDDING, "Cake").await;
        ui.click("(//button[.='Open on the Bench'])[1]").await;
        ui.wait_for("the drip on the Bench", async || {
            ui.has("//input[@aria-label='Name of the formula']").await
                && ui.value("//input[@aria-label='Name of the formula']").await == "Bay milk-chocolate drip"
        })
        .await;
        ui.verdict_that("is there", |said| said.contains("to drip at 26.0 °C")).await;
        // Brought to the size of the cake.
        ui.press(Key::Escape).await;
        ui.open_order(WEDDING, "To weigh").await;
        ui.click("//article[@aria-label='Sharp-citrus curd']//button[starts-with(., 'Scale to 46')]").await;
        ui.wait_for("the curd on the Bench", async || {
            ui.has("//input[@aria-label='Name of the formula']").await
                && ui.value("//input[@aria-label='Name of the formula']").await == "Sharp-citrus curd"
        })
        .await;
        ui.find("//*[contains(., '468 g') or contains(., '469 g')]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_cake_begins_from_a_build_gets_its_formulas_and_is_saved() {
    ui("stack_begin", async |ui| {
        ui.open("/orders").await;
        ui.click("//button[starts-with(., 'Mousse in a ring')]").await;
        headline_that(ui, "what is open", |said| said.contains("has no formula yet")).await;
        build(ui).await;
        for (place, formula) in [
            ("Glaze", "Winter-sky glaze"),
            ("Insert", "Pear and cider jelly"),
            ("Filling", "Chicory-root bavarois"),
            ("Soak", "Brandy soak"),
        ] {
            ui.click(&format!("//ul[starts-with(@aria-label, 'Places of tier 1')]//button[contains(., '{place}')]")).await;
            ui.click(&format!("//section[@aria-label='What is selected']//label[starts-with(., 'Formula')]//option[.='{formula}']")).await;
            ui.find(&format!("//ul[starts-with(@aria-label, 'Places of tier 1')]//button[contains(., '{formula}')]")).await;
        }
        headline_that(ui, "that it stands", |said| said.starts_with("It stands at 8.0 °C")).await;
        // Without a name it is not saved, and nothing is lost.
        ui.click(SAVE).await;
        ui.find("//*[@role='alert'][contains(., 'it has no name yet')]").await;
        ui.click("//nav[@aria-label='Views of the order']//button[.='Order']").await;
        ui.write("//label[starts-with(., 'Name')]/input", "Pier opening").await;
        ui.click(SAVE).await;
        ui.find("//*[@role='status'][contains(., 'version 1, saved')]").await;
        ui.open("/orders").await;
        ui.find("//ul[@aria-label='All orders']//span[.='Pier opening']").await;
        ui.open_order("Pier opening", "Cake").await;
        headline_that(ui, "that it stands", |said| said.starts_with("It stands")).await;
        // Put away, and out again.
        ui.open("/orders").await;
        ui.click("//li[.//span[.='Pier opening']]//button[.='Put away']").await;
        ui.wait_for("it gone", async || !ui.has("//span[.='Pier opening']").await).await;
        ui.click("//label[contains(., 'Also those put away')]//input").await;
        ui.find("//span[.='Pier opening']").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn bad_sizes_are_said_at_their_place_and_mended() {
    ui("stack_bad", async |ui| {
        ui.open_order(WEDDING, "Cake").await;
        build(ui).await;
        ui.click("//button[starts-with(., 'Tier 2: round of 140 mm')]").await;
        let across = "//section[@aria-label='What is selected']//input[@id=//label[.='Across']/@for]";
        ui.write(across, "0").await;
        ui.press(Key::Enter).await;
        ui.find(
            "//*[@role='alert'][contains(., 'Diameter of tier 2: write at least 10 mm. The cake is drawn as it was')]",
        )
        .await;
        assert!(ui.has("//section[@aria-label='The cake']//h1").await, "the cake stays in sight");
        ui.write(across, "260").await;
        ui.press(Key::Enter).await;
        headline_that(ui, "that it stands out", |said| said.starts_with("Tier 2 is 273 mm across")).await;
        ui.click("//button[.='Make it 200 mm']").await;
        headline_that(ui, "no overhang", |said| !said.contains("across")).await;
        // A layer nobody chose is said, and taken away again.
        ui.click("//select[@aria-label='Add to tier 2']/option[.='Filling']").await;
        ui.find("//section[@aria-label='What is found']//b[contains(., 'has no formula yet')]").await;
        ui.click("//section[@aria-label='What is selected']//button[.='Take it away']").await;
        ui.wait_for("it gone", async || !ui.has("//b[contains(., 'has no formula yet')]").await).await;
        // A third tier on top, and down again.
        ui.click("//button[.='Put a tier on top']").await;
        ui.find("//button[starts-with(., 'Tier 3: round of 140 mm')]").await;
        ui.click("//section[@aria-label='What is selected']//button[.='Take the tier away']").await;
        ui.wait_for("two tiers", async || !ui.has("//button[starts-with(., 'Tier 3')]").await).await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn an_order_has_its_lists_its_labels_and_its_paper() {
    ui("stack_order", async |ui| {
        ui.open_order("Thursday domes", "To buy").await;
        ui.find("//td[contains(., 'Blackcurrant puree')]").await;
        ui.find("//aside[@aria-label='Left over']//b[.='Egg yolks']").await;
        ui.click("//nav[@aria-label='Views of the order']//button[.='Labels']").await;
        ui.find("//h1[.='28 labels to print']").await;
        let label = ui.text("//li[contains(., 'Blackcurrant and pear domes')]").await;
        for words in ["Contains egg, gluten (wheat), milk", "pork gelatin", "24 of this label"] {
            assert!(label.contains(words), "{label}");
        }
        let printed = "return document.querySelector('[data-testid=print]').textContent";
        let paper = ui.js(printed).await.as_str().unwrap_or_default().to_owned();
        assert_eq!(paper.matches("Blackcurrant and pear domes").count(), 24, "one for each dome");
        ui.click("//nav[@aria-label='Views of the order']//button[.='Cake']").await;
        ui.find(PLACES).await;
        ui.wait_for("the cake on paper", async || {
            let paper = ui.js(printed).await.as_str().unwrap_or_default().to_owned();
            paper.contains("From the board up") && paper.contains("Filling 35 mm")
        })
        .await;
        // Somebody must not have pork.
        ui.click("//nav[@aria-label='Views of the order']//button[.='Order']").await;
        ui.click("//label[.='Nothing of pigs']/input").await;
        ui.find("//h1[contains(., 'has something of a pig')]").await;
        ui.click("//label[.='Nothing of pigs']/input").await;
        ui.find("//h1[contains(., 'everything stands')]").await;
        // Fewer than are wanted.
        ui.write(
            "//input[@aria-label='How many of cake 1' or @id=//label[.='How many of cake 1']/@for]",
            "20",
        )
        .await;
        ui.press(Key::Enter).await;
        ui.find("//h1[.='20 portions for 24']").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_whole_cake_goes_into_another_size() {
    ui("stack_size", async |ui| {
        ui.open_order(WEDDING, "Cake").await;
        ui.click("//button[.='Size']").await;
        ui.click("//*[@role='dialog']//label[.='So many portions']/input").await;
        ui.write("//*[@role='dialog']//input[@id=//label[.='Portions']/@for]", "60").await;
        ui.press(Key::Enter).await;
        ui.find("//*[@role='dialog']//*[@role='status'][starts-with(., 'For 60: the lowest tier becomes')]")
            .await;
        ui.click("//button[.='Make it this size']").await;
        ui.wait_for("sixty portions", async || {
            let numbers = ui.text("//section[@aria-label='The cake']").await;
            ["60", "61", "62", "63", "64", "65", "66"]
                .iter()
                .any(|n| numbers.contains(&format!("{n} portions")))
        })
        .await;
        ui.click("//button[.='Size']").await;
        ui.write("//*[@role='dialog']//input[@id=//label[.='Across']/@for]", "4").await;
        ui.press(Key::Enter).await;
        ui.find("//*[@role='dialog']//*[@role='alert'][contains(., 'write at least 10 mm')]").await;
        ui.press(Key::Escape).await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn pictures_and_files_go_out_and_come_in() {
    ui("stack_files", async |ui| {
        ui.open_order(WEDDING, "Cake").await;
        // What the browser would save is kept to be looked at.
        ui.js("window.kept = []; const make = URL.createObjectURL.bind(URL);
               URL.createObjectURL = (blob) => { window.kept.push(blob); return make(blob) }")
            .await;
        let last = "const done = arguments[arguments.length - 1]; const blob = window.kept.at(-1);
            if (!blob) done(null); else blob.text().then((text) => done([blob.type, blob.size, text.slice(0, 4_000_000)]))";
        let saved = async |kind: &str, choice: &str| {
            ui.js("window.kept = []").await;
            ui.click(&format!("//select[@aria-label='Save the cake as a file']/option[@value='{choice}']")).await;
            ui.wait_for("a file", async || {
                let found = ui.client.execute_async(last, vec![]).await.expect("it reads");
                found[0].as_str().is_some_and(|own| own.starts_with(kind))
            })
            .await;
            ui.client.execute_async(last, vec![]).await.expect("it reads")
        };
        let svg = saved("image/svg+xml", "svg").await;
        let text = svg[2].as_str().unwrap();
        assert!(text.contains("<svg") && text.contains("213 mm across") && !text.contains("var(--enamel)\" style=\"\""));
        let png = saved("image/png", "png").await;
        assert!(png[1].as_u64().unwrap() > 20_000, "{} bytes", png[1]);
        let recipe = saved("application/ld+json", "recipe").await;
        let recipe: serde_json::Value = serde_json::from_str(recipe[2].as_str().unwrap()).unwrap();
        assert_eq!(recipe["@type"], "Recipe");
        // It comes in again as a cake, and somebody else's recipe as a formula.
        let dir = tempfile::tempdir().unwrap();
        let cake = dir.path().join("cake.jsonld");
        std::fs::write(&cake, recipe.to_string()).unwrap();
        ui.open("/orders").await;
        let input = "//input[@type='file']";
        let send = async |file: &std::path::Path| {
            let element = ui.client.find(fantoccini::Locator::XPath(input)).await.unwrap();
            element.send_keys(file.to_str().unwrap()).await.unwrap();
        };
        ui.find("//button[.='Read a file']").await;
        send(&cake).await;
        headline_that(ui, "the same cake", |said| said.starts_with("It stands at 19.0 °C")).await;
        let other = dir.path().join("other.jsonld");
        std::fs::write(
            &other,
            r#"{"@type":"Recipe","name":"Pot of the house","recipeIngredient":["200 g dark chocolate 60 %","200 g heavy cream","some luck"]}"#,
        )
        .unwrap();
        ui.open("/orders").await;
        ui.find("//button[.='Read a file']").await;
        send(&other).await;
        // Line by line, before anything is kept.
        ui.find("//*[@role='dialog']//tr[contains(., 'some luck')][contains(., 'left out: not understood')]").await;
        ui.find("//*[@role='dialog']//tr[contains(., '200 g heavy cream')][contains(., 'Cream 36')]").await;
        ui.click("//*[@role='dialog']//button[.='Keep the 2 that were understood']").await;
        ui.verdict_that("is there", |_| true).await;
        ui.open_formula("Pot of the house").await;
        let broken = dir.path().join("broken.json");
        std::fs::write(&broken, "{").unwrap();
        ui.open("/orders").await;
        ui.find("//button[.='Read a file']").await;
        send(&broken).await;
        ui.find("//*[@role='alert'][contains(., 'This is not JSON')]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn without_a_server_the_cake_stays_and_the_work_is_kept() {
    ui("stack_offline", async |ui| {
        ui.open_order(WEDDING, "Cake").await;
        ui.js("document.querySelector('[role=listbox]').focus()").await;
        ui.press(Key::Up).await;
        ui.find("//*[@role='group'][@aria-label='height']").await;
        ui.stop_server().await;
        ui.click("//button[starts-with(@aria-label, 'More height')]").await;
        ui.find("//*[@role='alert'][contains(., 'The server is not answering')]").await;
        ui.click(SAVE).await;
        ui.find("//*[@role='alert'][contains(., 'It is kept on this device')]").await;
        assert!(headline(ui).await.starts_with("It stands"), "the last answer stays");
        ui.start_server_again().await;
        ui.wait_for("the answer to the change", async || {
            ui.has("//h2[starts-with(., 'Sponge 21 mm')]").await
        })
        .await;
    })
    .await;
}
