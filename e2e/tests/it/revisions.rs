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
