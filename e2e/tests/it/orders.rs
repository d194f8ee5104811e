//! Orders: two cooks at one, versions, cakes in and out, what is baked, and the way through by keys and by finger.

use crate::SAVE;
use e2e::{TABLET, Ui, ui};
use fantoccini::key::Key;
use serde_json::json;

const DIALOG: &str = "//*[@role='dialog']";
const WEDDING: &str = "Harbour wedding";

async fn view(ui: &Ui, name: &str) {
    ui.click(&format!("//nav[@aria-label='Views of the order']//button[.='{name}']")).await;
    ui.find("//h1[string-length(normalize-space(.)) > 3]").await;
}

/// Somebody else saves the order that is open, with another name.
async fn saved_by_another_cook(ui: &Ui, name: &str) {
    let script = "const [name, done] = arguments; const id = location.pathname.split('/').at(-1);
        fetch(`/api/orders/${id}`).then((r) => r.json()).then((order) =>
          fetch(`/api/orders/${id}`, { method: 'PUT', headers: { 'content-type': 'application/json' },
            body: JSON.stringify({ document: { ...order.document, name }, based_on_revision: order.revision }) }))
          .then((r) => done(r.status))";
    let status = ui.client.execute_async(script, vec![json!(name)]).await.expect("it saves");
    assert_eq!(status, json!(200));
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn two_cooks_at_one_order_are_told_and_versions_are_kept() {
    ui("orders_two", async |ui| {
        ui.open_order(WEDDING, "Order").await;
        let name = "//label[starts-with(., 'Name')]/input";
        ui.write(name, "Harbour wedding, mine").await;
        saved_by_another_cook(ui, "Harbour wedding, theirs").await;
        ui.click(SAVE).await;
        ui.find(&format!("{DIALOG}[contains(., 'Version 2 was saved by somebody else')]")).await;
        ui.click("//button[starts-with(., 'Look at theirs')]").await;
        ui.wait_for("theirs", async || ui.value(name).await == "Harbour wedding, theirs").await;
        ui.click("//button[.='Undo']").await;
        ui.wait_for("mine", async || ui.value(name).await == "Harbour wedding, mine").await;
        ui.click(SAVE).await;
        ui.find("//*[@role='status'][contains(., 'version 3, saved')]").await;
        // All three are there; the first is taken in hand again and kept as the fourth.
        ui.click("//button[.='Versions']").await;
        ui.find(&format!("{DIALOG}//b[.='Version 2']")).await;
        ui.click(&format!("{DIALOG}//li[contains(., 'Version 1')]//button[.='Take in hand']")).await;
        ui.wait_for("the first name", async || ui.value(name).await == WEDDING).await;
        ui.click(SAVE).await;
        ui.find("//*[@role='status'][contains(., 'version 4, saved')]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn what_was_not_saved_is_there_again_and_can_be_thrown_away() {
    ui("orders_draft", async |ui| {
        ui.open_order(WEDDING, "Order").await;
        ui.write("//label[starts-with(., 'Note')]/textarea", "Bring the long knife").await;
        ui.find("//*[@role='status'][contains(., 'changed since version 1')]").await;
        ui.client.refresh().await.unwrap();
        ui.find("//p[contains(., 'Your unsaved changes from')]").await;
        assert_eq!(ui.value("//label[starts-with(., 'Note')]/textarea").await, "Bring the long knife");
        ui.click("//button[.='Throw them away']").await;
        ui.wait_for("the note it had", async || {
            ui.value("//label[starts-with(., 'Note')]/textarea").await.starts_with("Cake table by the window")
        })
        .await;
        ui.find("//*[@role='status'][contains(., 'version 1, saved')]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn cakes_are_added_doubled_and_taken_away() {
    ui("orders_cakes", async |ui| {
        ui.open_order("Thursday domes", "Order").await;
        ui.find("//h1[.='24 portions for 24, and everything stands']").await;
        ui.click("//button[.='One more like it']").await;
        ui.find("//h1[.='48 portions for 24, and everything stands']").await;
        ui.click("//label[contains(., 'Add a cake')]/select/option[.='Roll']").await;
        ui.find("//h1[contains(., 'does not stand yet')]").await;
        // The second and the third are chosen by name.
        view(ui, "Cake").await;
        ui.click("//select[@aria-label='Which cake']/option[starts-with(., '1 ×')]").await;
        ui.find("//section[@aria-label='The cake']//h1[contains(., 'has no formula yet')]").await;
        view(ui, "Order").await;
        ui.click("(//button[.='Take it away'])[3]").await;
        ui.find("//h1[.='48 portions for 24, and everything stands']").await;
        ui.js("document.activeElement?.blur()").await;
        ui.chord(Key::Control, 'z').await;
        ui.find("//h1[contains(., 'does not stand yet')]").await;
        ui.chord(Key::Control, 'y').await;
        ui.find("//h1[.='48 portions for 24, and everything stands']").await;
        view(ui, "Labels").await;
        ui.find("//h1[.='52 labels to print']").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn what_is_baked_goes_onto_the_lists() {
    ui("orders_bakes", async |ui| {
        ui.open_order("Saturday market", "To weigh").await;
        let genoise = "//article[@aria-label='Genoise']";
        ui.find(&format!("{genoise}//td[.='Wheat flour']")).await;
        let before = ui.text(&format!("{genoise}//h2/following-sibling::b")).await;
        view(ui, "Cake").await;
        ui.click("//button[.='Bakes']").await;
        ui.write("//input[@aria-label='Amount of line 3']", "some").await;
        ui.press(Key::Escape).await;
        ui.find("//section[@aria-label='What is found']//li[contains(., 'cannot be worked out')]").await;
        ui.click("//button[.='Bakes']").await;
        ui.write("//input[@aria-label='Amount of line 3']", "1 cup").await;
        ui.click("//select[@aria-label='Ingredient of line 3']/option[.='Corn starch']").await;
        ui.write("//*[@role='dialog']//input[@id=//label[.='Lost in the oven']/@for]", "30").await;
        ui.press(Key::Enter).await;
        ui.click("//button[.='Back to the cake']").await;
        view(ui, "To weigh").await;
        ui.find(&format!("{genoise}//td[.='Corn starch']")).await;
        assert!(!ui.has(&format!("{genoise}//td[.='Wheat flour']")).await);
        let after = ui.text(&format!("{genoise}//h2/following-sibling::b")).await;
        assert_ne!(before, after, "a third lost in the oven takes more batter");
        view(ui, "To buy").await;
        ui.find("//td[contains(., 'Corn starch')]").await;
        // A second bake begins from a batter, and goes again.
        view(ui, "Cake").await;
        ui.click("//button[.='Bakes']").await;
        ui.click(&format!("{DIALOG}//option[.='Almond meringue disc']")).await;
        ui.find("//ul[@aria-label='Batter of Almond meringue disc']").await;
        ui.click(&format!("({DIALOG}//button[.='Take it away'])[2]")).await;
        ui.wait_for("one bake", async || !ui.has("//ul[@aria-label='Batter of Almond meringue disc']").await)
            .await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn places_move_double_and_take_a_dam_and_a_disc() {
    ui("orders_places", async |ui| {
        ui.open_order(WEDDING, "Cake").await;
        ui.click("//button[@role='tab'][.='Build']").await;
        let row = |n: usize, words: &str| {
            format!("(//ul[@aria-label='Places of tier 1, from its top']//button[starts-with(normalize-space(.), '{words}')])[{n}]")
        };
        // The plain filling in the middle of tier 1.
        ui.click(&row(1, "Filling 6 mm")).await;
        ui.click("//button[.='Put a dam round it']").await;
        ui.find("//section[@aria-label='What is found']//b[contains(., 'The dam of tier 1 has no formula yet')]").await;
        ui.click(&row(2, "Dam")).await;
        ui.click("//section[@aria-label='What is selected']//option[.='Lantern wall buttercream']").await;
        ui.wait_for("the dam chosen", async || !ui.has("//b[contains(., 'The dam of tier 1 has no')]").await).await;
        ui.click(&row(1, "Filling 6 mm")).await;
        ui.click("//button[.='Set a disc into it']").await;
        ui.find(&row(1, "Insert 8 mm")).await;
        // A disc higher than its filling is said.
        ui.find("//section[@aria-label='What is found']//b[contains(., 'does not fit')]").await;
        ui.click(&row(1, "Insert 8 mm")).await;
        ui.click("//section[@aria-label='What is selected']//button[.='Take it away']").await;
        ui.wait_for("no disc", async || !ui.has(&row(1, "Insert 8 mm")).await).await;
        ui.click(&row(1, "Filling 6 mm")).await;
        ui.click("//section[@aria-label='What is selected']//button[.='One more']").await;
        ui.find(&row(2, "Filling 6 mm")).await;
        ui.click("//section[@aria-label='What is selected']//button[.='Up']").await;
        ui.find("//section[@aria-label='What is selected']//h2[starts-with(., 'Filling 6 mm')]").await;
        // A soak by hand, then by grade again.
        ui.click(&row(1, "Soak")).await;
        ui.click("//section[@aria-label='What is selected']//option[.='drenched']").await;
        ui.find("//section[@aria-label='What is selected']//*[@role='group'][@aria-label='syrup on sponge']").await;
        ui.click("//button[starts-with(@aria-label, 'More syrup on sponge')]").await;
        ui.find("//section[@aria-label='What is selected']//option[.='as written']").await;
        ui.click("//section[@aria-label='What is selected']//option[.='light']").await;
        ui.wait_for("by grade", async || {
            !ui.has("//section[@aria-label='What is selected']//option[.='as written']").await
        })
        .await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_rail_keys_lead_there_and_the_drawing_grows() {
    ui("orders_rail", async |ui| {
        ui.open("/pantry").await;
        ui.find("//h1").await;
        ui.js("document.activeElement?.blur()").await;
        ui.press('2').await;
        ui.find("//*[@role='listbox'][starts-with(@aria-label, 'Places of the cake')]").await;
        let wide = async || {
            ui.js("return document.querySelector('[role=listbox] svg').clientWidth").await.as_f64().unwrap()
        };
        let before = wide().await;
        for _ in 0..3 {
            ui.click("//button[@aria-label='Larger']").await;
        }
        ui.wait_for("a larger drawing", async || wide().await > 1.3 * before).await;
        let page = ui.js("return [document.documentElement.scrollWidth, innerWidth]").await;
        assert_eq!(page[0], page[1], "only the drawing scrolls");
        for _ in 0..3 {
            ui.click("//button[@aria-label='Smaller']").await;
        }
        ui.wait_for("the drawing as it was", async || (wide().await - before).abs() < 2.0).await;
        ui.click("//button[.='From above']").await;
        ui.find("//*[@role='img'][starts-with(@aria-label, 'Tier 1 from above')]").await;
        // An address that is none says so.
        ui.open("/stack/nothing").await;
        ui.find("//p[.='There is no order at this address.']").await;
        ui.click("//a[.='All orders']").await;
        ui.find("//ul[@aria-label='All orders']/li").await;
        // The order opened last is where the rail leads.
        ui.open_order("Saturday market", "Cake").await;
        ui.open("/stack").await;
        ui.wait_for("the last one", async || {
            ui.has("//input[@aria-label='Name of the cake']").await
                && ui.value("//input[@aria-label='Name of the cake']").await == "Burnt-milk and orchard jars"
        })
        .await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn on_a_tablet_everything_is_in_reach_of_a_finger() {
    ui("orders_tablet", async |ui| {
        ui.set_viewport(TABLET).await;
        ui.open_order(WEDDING, "Cake").await;
        ui.click("//*[name()='text'][starts-with(., 'Filling 7 mm')]").await;
        ui.find("//section[@aria-label='What is selected']//h2[starts-with(., 'Filling 7 mm')]").await;
        let before = ui.text("//section[@aria-label='What is selected']//h2").await;
        ui.click("//button[starts-with(@aria-label, 'Less height')]").await;
        ui.wait_for("a thinner filling", async || {
            ui.text("//section[@aria-label='What is selected']//h2").await.starts_with("Filling 6 mm")
        })
        .await;
        assert!(before.starts_with("Filling 7 mm"));
        for name in ["Order", "To weigh", "To buy", "Labels"] {
            view(ui, name).await;
            let page = ui.js("return [document.documentElement.scrollWidth, innerWidth]").await;
            assert_eq!(page[0], page[1], "{name} stands out at the side");
        }
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn lists_are_saved_as_tables() {
    ui("orders_csv", async |ui| {
        let last = "const done = arguments[arguments.length - 1]; const blob = window.kept.at(-1);
            if (!blob) done(null); else blob.text().then((text) => done([blob.type, text]))";
        for (at, button, head) in [
            ("To buy", "Save shopping list as CSV", "ingredient,shelf,needed_g"),
            ("To weigh", "Save weighing list as CSV", "batch,ingredient,mass_g"),
            ("To weigh", "Save bill of materials as CSV", "cake,count,tier,place,part"),
            ("Labels", "Save labels as CSV", "what,amount,order,made_on"),
        ] {
            ui.open_order("Thursday domes", at).await;
            ui.js("window.kept = []; const make = URL.createObjectURL.bind(URL);
                   URL.createObjectURL = (blob) => { window.kept.push(blob); return make(blob) }")
                .await;
            ui.click(&format!("//button[.='{button}']")).await;
            ui.wait_for("a table", async || {
                let found = ui.client.execute_async(last, vec![]).await.expect("it reads");
                found[0] == json!("text/csv") && found[1].as_str().is_some_and(|text| text.starts_with(head))
            })
            .await;
        }
    })
    .await;
}
