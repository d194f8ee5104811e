//! Every save is kept; two cooks at one formula are told.

use crate::{BAY, SAVE};
use e2e::{Ui, ui};

/// Saves the open formula behind the page's back, as another cook would.
async fn save_as_another_cook(ui: &Ui, amount: &str) {
    let script = "const [amount, done] = arguments;
        const url = '/api/components/' + location.pathname.split('/').pop();
        fetch(url).then((r) => r.json()).then((c) => {
          c.document.lines[0].amount = amount;
          return fetch(url, { method: 'PUT', headers: { 'content-type': 'application/json' },
            body: JSON.stringify({ document: c.document, based_on_revision: c.revision }) });
        }).then((r) => done(r.status))";
    let status = ui.client.execute_async(script, vec![amount.into()]).await.expect("it saves");
    assert_eq!(status, 200);
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn an_old_version_comes_back_and_leaves_the_newer_ones() {
    ui("versions", async |ui| {
        ui.open_formula(BAY).await;
        let chocolate = Ui::amount("Milk chocolate 40 %");
        for (amount, version) in [("160 g", 2), ("170 g", 3)] {
            ui.write(&chocolate, amount).await;
            ui.click(SAVE).await;
            ui.find(&format!("//*[@role='status'][contains(., 'version {version}, saved')]")).await;
        }
        ui.click("//button[.='Versions']").await;
        // Each says what changed in it, and from where it was saved.
        let second = "//li[.//b[.='Version 2']]";
        ui.find(&format!(
            "{second}//li[contains(., 'Milk chocolate 40') and contains(., '150 g, now 160 g')]"
        ))
        .await;
        ui.find(&format!("{second}//span[contains(., ', on Computer ')]")).await;
        ui.find("//li[.//b[.='Version 1']]//span[contains(., ', on Office computer')]").await;
        ui.click("//li[.//b[.='Version 1']]//button").await;
        ui.wait_for("the first version", async || ui.value(&chocolate).await == "150 g").await;
        ui.find("//*[@role='status'][contains(., 'changed since version 3')]").await;
        ui.click(SAVE).await;
        ui.find("//*[@role='status'][contains(., 'version 4, saved')]").await;
        ui.click("//button[.='Versions']").await;
        ui.find("//li[.//b[.='Version 4']]").await;
        ui.find("//li[.//b[.='Version 3']]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn two_cooks_are_told_and_both_keep_their_work() {
    ui("two_cooks", async |ui| {
        ui.open_formula(BAY).await;
        let chocolate = Ui::amount("Milk chocolate 40 %");
        ui.write(&chocolate, "140 g").await;
        save_as_another_cook(ui, "199 g").await;
        ui.click(SAVE).await;
        ui.find("//*[@role='dialog'][contains(., 'Version 2 was saved by somebody else')]").await;
        // Look at theirs, take mine back, save mine on top.
        ui.click("//button[starts-with(., 'Look at theirs')]").await;
        ui.wait_for("theirs", async || ui.value(&chocolate).await == "199 g").await;
        ui.click("//button[.='Undo']").await;
        ui.wait_for("mine", async || ui.value(&chocolate).await == "140 g").await;
        ui.click(SAVE).await;
        ui.find("//*[@role='status'][contains(., 'version 3, saved')]").await;
        // Again, and this time as a formula of its own.
        ui.write(&chocolate, "141 g").await;
        save_as_another_cook(ui, "200 g").await;
        ui.click(SAVE).await;
        let before = ui.client.current_url().await.unwrap();
        ui.click("//button[.='Save mine as a new formula']").await;
        ui.wait_for("a new address", async || ui.client.current_url().await.unwrap() != before).await;
        ui.find("//*[@role='status'][contains(., 'version 1, saved')]").await;
        assert_eq!(ui.value(&chocolate).await, "141 g");
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn an_own_ingredient_has_its_versions_undo_and_conflict_like_a_formula() {
    ui("versions_ingredient", async |ui| {
        ui.open("/pantry/new?copy=cream36").await;
        let name = "//form//label[starts-with(., 'Name')]/input";
        ui.write(name, "Meadow cream").await;
        ui.click("//button[.='Undo']").await;
        ui.wait_for("as it began", async || ui.value(name).await.ends_with(", ours")).await;
        ui.click("//button[.='Redo']").await;
        ui.wait_for("mine again", async || ui.value(name).await == "Meadow cream").await;
        ui.click("//button[starts-with(., 'Put it on the shelf')]").await;
        ui.click("//a[.='Change it']").await;
        ui.write(name, "Meadow cream, thick").await;
        // Another cook saves it meanwhile.
        let script = "const done = arguments[0];
            fetch('/api/ingredients/own-meadow-cream').then((r) => r.json()).then((own) => fetch(
              '/api/ingredients/own-meadow-cream', { method: 'PUT', headers: { 'content-type': 'application/json' },
              body: JSON.stringify({ document: { ...own.document, name: 'Theirs' }, based_on_revision: 1 }) }))
              .then((r) => done(r.status))";
        assert_eq!(ui.client.execute_async(script, vec![]).await.unwrap(), 200);
        ui.click(SAVE).await;
        ui.find("//*[@role='dialog'][contains(., 'Version 2 was saved by somebody else')]").await;
        ui.click("//button[starts-with(., 'Look at theirs')]").await;
        ui.wait_for("theirs", async || ui.value(name).await == "Theirs").await;
        ui.click("//button[.='Undo']").await;
        ui.wait_for("mine", async || ui.value(name).await == "Meadow cream, thick").await;
        ui.click(SAVE).await;
        ui.find("//h2[contains(., 'Meadow cream, thick')]").await;
        ui.click("//a[.='Change it']").await;
        ui.click("//button[.='Versions']").await;
        ui.find("//li[.//b[.='Version 3']]//li[contains(., 'name Theirs, now Meadow cream, thick')]").await;
        ui.click("//li[.//b[.='Version 1']]//button[.='Take in hand']").await;
        ui.wait_for("the first", async || ui.value(name).await == "Meadow cream").await;
        // What was done is told, with where.
        ui.press(fantoccini::key::Key::Escape).await;
        ui.click("//button[starts-with(., 'Room')]").await;
        ui.write("//label[contains(., 'This device')]/input", "Tablet by the oven").await;
        ui.click("//button[.='Saved lately']").await;
        ui.find("//*[@role='dialog']//li[contains(., 'ersion 3 of the ingredient Meadow cream, thick')]").await;
    })
    .await;
}
