//! The Day: planned, used, done step by step, bent, one order more, the kitchen set; by keys, by finger, on a phone, on paper.

use crate::looks::axe;
use e2e::browser::ui_of_own_kitchen;
use e2e::page::Ui;
use e2e::{LAPTOP, TABLET, Viewport, ui};
use fantoccini::Locator;

pub const OFFER: &str = "//section[@aria-label='A plan that is not used yet']";
const DIALOG: &str = "//*[@role='dialog']";

/// Looks for a plan of the orders that are ticked and waits until the search is at its end.
pub async fn look(ui: &Ui) {
    ui.click("//section[@aria-label='Orders to plan']//button[starts-with(., 'Plan ')]").await;
    ui.find(OFFER).await;
    ui.wait_for("the search to end", async || !ui.has("//button[.='Stop']").await).await;
}

/// The week of the demo planned, without one order if it is named, and used.
pub async fn planned(ui: &Ui, without: Option<&str>) {
    ui.open("/day").await;
    ui.find("//ul[@aria-label='Orders to come']/li[4]").await;
    if let Some(name) = without {
        ui.click(&format!("//ul[@aria-label='Orders to come']//label[contains(., '{name}')]/input")).await;
    }
    look(ui).await;
    ui.click("//button[.='Use this plan']").await;
    ui.find("//button[.='Version 1']").await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_week_is_planned_done_step_by_step_and_bent() {
    ui("day_week", async |ui| {
        planned(ui, None).await;
        let sentence = ui.text("//h1").await;
        assert!(sentence.starts_with("4 orders, all in time"), "{sentence}");
        // The first step is begun by Enter, done by its button, and taken back.
        let first = ui.text("(//section[@aria-label='Next for your hands']//li)[1]").await;
        ui.press(fantoccini::key::Key::Enter).await;
        ui.find("(//section[@aria-label='Next for your hands']//li)[1][contains(., 'at it')]").await;
        ui.click("(//section[@aria-label='Next for your hands']//li)[1]//button[.='Done']").await;
        ui.find("//p[contains(., 'Done last:')]").await;
        let second = ui.text("(//section[@aria-label='Next for your hands']//li)[1]").await;
        assert_ne!(first, second);
        ui.click("//button[.='Not done yet']").await;
        ui.wait_for("the first step again", async || {
            ui.text("(//section[@aria-label='Next for your hands']//li)[1]").await == first
        })
        .await;
        // Much longer goes past a limit: what would save it is looked for meanwhile.
        ui.click("//button[starts-with(., 'Something happened')]").await;
        ui.write(&format!("{DIALOG}//input[@id=//label[.='Longer by']/@for]"), "200").await;
        ui.click(&format!("{DIALOG}//button[.='See what gives']")).await;
        let offer = ui.text(OFFER).await;
        if offer.contains("Only") || offer.contains("no plan") {
            ui.find(&format!(
                "{OFFER}//ul[@aria-label='What would save it']/li | {OFFER}//p[contains(., 'that I tried')]"
            ))
            .await;
        }
        ui.click("//button[.='Keep the plan as it is']").await;
        ui.wait_for("no offer", async || !ui.has(OFFER).await).await;
        // A step will take longer: what moves is shown, nothing moved yet; kept, then used.
        ui.click("//button[starts-with(., 'Something happened')]").await;
        ui.write(&format!("{DIALOG}//input[@id=//label[.='Longer by']/@for]"), "25").await;
        ui.click(&format!("{DIALOG}//button[.='See what gives']")).await;
        let offer = ui.text(OFFER).await;
        assert!(offer.contains("mov") || offer.contains("later"), "{offer}");
        ui.click("//button[.='Keep the plan as it is']").await;
        ui.wait_for("no offer", async || !ui.has(OFFER).await).await;
        ui.find("//button[.='Version 1']").await;
        ui.click("//button[starts-with(., 'Something happened')]").await;
        ui.write(&format!("{DIALOG}//input[@id=//label[.='Longer by']/@for]"), "5").await;
        ui.click(&format!("{DIALOG}//button[.='See what gives']")).await;
        ui.find(OFFER).await;
        ui.click(&format!("({OFFER}//button)[1]")).await;
        ui.find("//button[.='Version 2']").await;
        // The plan before is among the versions, and can be gone back to.
        ui.click("//button[.='Version 2']").await;
        ui.click(&format!("{DIALOG}//li[contains(., 'Version 1')]//button[.='Look at it']")).await;
        ui.click("//button[.='Go back to this plan']").await;
        ui.find("//button[.='Version 3']").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_search_can_be_stopped_and_nothing_is_used_before_it_is_said() {
    ui("day_stop", async |ui| {
        ui.open("/day").await;
        ui.click("//section[@aria-label='Orders to plan']//button[.='Look four times as long']").await;
        // Stopped with a plan there is one, however far it was.
        ui.find(OFFER).await;
        if ui.has("//button[.='Stop']").await {
            ui.click("//button[.='Stop']").await;
        }
        let offer = ui.text(OFFER).await;
        assert!(offer.contains("all in time"), "{offer}");
        ui.click("//button[.='Leave it']").await;
        ui.find("//h1[.='Nothing is planned yet']").await;
        let kept = ui.js("return fetch('/api/plans').then((r) => r.json()).then((own) => own.kept)").await;
        assert!(kept.is_null());
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn why_a_step_stands_there_and_what_gives_when_it_is_put_elsewhere() {
    ui("day_why", async |ui| {
        planned(ui, None).await;
        ui.click("//nav[@aria-label='Days']//button[starts-with(., 'Fri')]").await;
        let coat = "(//*[@role='group']//button[contains(normalize-space(.), 'Coat , ') or contains(normalize-space(.), 'Coat, ')])[1]";
        ui.click(coat).await;
        let why = ui.text("//section[@aria-label='Why it stands there']").await;
        assert!(
            why.contains("Why coat at") && why.contains("Not earlier") && why.contains("Not later"),
            "{why}"
        );
        // Its chain is lit, and the way through it goes by its reasons.
        ui.click("(//section[@aria-label='Why it stands there']//div[b][button]/button)[last()]").await;
        ui.wait_for("another step", async || {
            ui.text("//section[@aria-label='Why it stands there']").await != why
        })
        .await;
        // By the clock and by hand: shown first, nothing is moved.
        ui.click(coat).await;
        let at = "//label[starts-with(., 'Begin at')]/input";
        let now = ui.value(at).await;
        ui.write(at, if now == "07:05" { "8:05" } else { "7:05" }).await;
        ui.click("//section[@aria-label='Why it stands there']//button[.='See what gives']").await;
        ui.find(OFFER).await;
        ui.click(&format!("({OFFER}//button)[last()]")).await;
        ui.click(coat).await;
        assert_eq!(ui.value(at).await, now);
        let (x, y) = ui.middle(coat).await;
        ui.drag((x, y), (x + 60.0, y)).await;
        ui.find(OFFER).await;
        ui.click(&format!("({OFFER}//button)[last()]")).await;
        // Pinned it stays, as a version of the plan.
        ui.click(coat).await;
        ui.click("//label[contains(., 'Stays there')]/input").await;
        ui.find("//button[.='Version 2']").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn one_order_more_is_planned_into_what_stands() {
    ui("day_take", async |ui| {
        planned(ui, Some("Lantern fair")).await;
        ui.find("//p[contains(., 'Not in this plan: Lantern fair')]").await;
        ui.click("//button[.='One order more?']").await;
        ui.click(&format!("{DIALOG}//button[.='Plan it in']")).await;
        let offer = ui.text(OFFER).await;
        assert!(offer.starts_with("Yes: Lantern fair takes") || offer.starts_with("No"), "{offer}");
        ui.click(&format!("({OFFER}//button)[1]")).await;
        if offer.contains("Take the order") {
            ui.find("//button[.='Version 2']").await;
            ui.wait_for("all four", async || ui.text("//h1").await.starts_with("4 orders")).await;
        }
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_kitchen_is_set_and_what_is_not_saved_is_kept() {
    ui_of_own_kitchen("day_kitchen", async |ui| {
        ui.open("/day").await;
        ui.find("//p[contains(., 'No order has a date to come')]").await;
        ui.click("//a[.='Set the kitchen']").await;
        ui.write("//label[starts-with(., 'What it is called')]/input", "Quay room").await;
        // A cook with hours on no day is told at the place.
        let shares = "//label[contains(., 'One batch for several orders')]/input";
        assert!(ui.find(shares).await.is_selected().await.unwrap());
        ui.click("//label[contains(., 'There whenever it is open')]/input").await;
        for day in ["Mon", "Tue", "Wed", "Thu", "Fri"] {
            ui.click(&format!("//span[@aria-label='Days of Cook, row 1']//button[.='{day}']")).await;
        }
        ui.click("//button[starts-with(., 'Save the kitchen')]").await;
        ui.find("//p[@role='alert'][contains(., 'Cook is never there')]").await;
        ui.click("//span[@aria-label='Days of Cook, row 1']//button[.='Sat']").await;
        let from = "(//section[@aria-label='Cooks']//label[.='from']/input)[1]";
        ui.write(from, "930").await;
        ui.press(fantoccini::key::Key::Tab).await;
        ui.wait_for("a time", async || ui.value(from).await == "09:30").await;
        ui.find("//*[@role='status'][contains(., 'not saved yet')]").await;
        ui.client.refresh().await.unwrap();
        ui.find("//p[contains(., 'Your unsaved changes from')]").await;
        assert_eq!(ui.value(from).await, "09:30");
        // A step takes this kitchen longer: its minutes begin as they are usual, and a chosen step brings its own.
        ui.click("//button[.='A step takes you longer or shorter']").await;
        let own = "//section[@aria-label='Own minutes']";
        let takes = &format!("{own}//input[@id=//label[.='Takes']/@for]");
        let before = ui.value(takes).await;
        assert!(ui.text(own).await.contains(&format!("Usually {before} min")), "{before}");
        ui.write(takes, "17").await;
        ui.press(fantoccini::key::Key::Tab).await;
        ui.click("//button[starts-with(., 'Save the kitchen')]").await;
        ui.find("//*[@role='status'][contains(., 'version 1, saved')]").await;
        let kept = ui.js(
            "return fetch('/api/rooms').then((r) => r.json()).then((own) => own.kept.document.own_minutes)",
        );
        assert_eq!(kept.await[0]["minutes"][0], 17.0);
        ui.click("//a[.='To the day']").await;
        ui.find("//section[@aria-label='Orders to plan']").await;
        assert!(!ui.has("//a[.='Set the kitchen']").await);
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_day_on_a_phone_on_paper_and_for_a_reader() {
    ui("day_looks", async |ui| {
        let axe = axe();
        let check = async |what: &str| {
            let faults = ui.serious_faults(&axe).await;
            assert!(faults.is_empty(), "{what}:\n{}", faults.join("\n"));
        };
        planned(ui, None).await;
        for (theme, size) in [("light", LAPTOP), ("dim", TABLET), ("light", Viewport(390, 844))] {
            ui.js(&format!("localStorage.setItem('bright-spoon.theme', '{theme}')")).await;
            ui.set_viewport(size).await;
            for (path, sign) in
                [("/day", "//section[@aria-label='Odds']//li"), ("/day/room", "//section[@aria-label='Machines']")]
            {
                ui.open(path).await;
                ui.find(sign).await;
                let wide = ui.js("return document.documentElement.scrollWidth").await;
                assert_eq!(wide, size.0, "{path} {theme} {size:?}: something stands out at the side");
                check(&format!("{path} {theme} {size:?}")).await;
            }
        }
        // On a phone the day is a list.
        ui.open("/day").await;
        ui.find("//ol[@aria-label='The day as a list']/li[3]").await;
        ui.set_viewport(LAPTOP).await;
        ui.open("/day").await;
        ui.click("//button[starts-with(., 'Something happened')]").await;
        ui.find(DIALOG).await;
        check("what happened").await;
        ui.press(fantoccini::key::Key::Escape).await;
        // On paper: a sheet for each cook and day, with boxes to tick.
        ui.js("window.print = () => { window.printed = document.querySelector('[data-testid=print]').textContent }").await;
        ui.js("document.activeElement?.blur()").await;
        ui.press('p').await;
        ui.wait_for("a page to print", async || ui.js("return window.printed ?? ''").await != "").await;
        let printed = ui.js("return window.printed").await;
        let printed = printed.as_str().unwrap();
        assert!(printed.contains("Ines: Wednesday") && printed.contains("Tom: ") && printed.contains("plan version 1"), "{printed:.300}");
        ui.click("//button[.='Print']").await;
        ui.click(&format!("{DIALOG}//button[.='Shelf labels']")).await;
        ui.wait_for("labels", async || {
            ui.js("return window.printed").await.as_str().is_some_and(|text| text.contains("Use by"))
        })
        .await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn two_devices_at_one_plan_and_a_server_that_is_gone() {
    ui("day_two", async |ui| {
        planned(ui, None).await;
        // Another device changes the plan: what is asked here of the old one is not laid over it.
        let script = "const done = arguments[0]; fetch('/api/plans').then((r) => r.json()).then((now) =>
            fetch('/api/plans/day', { method: 'PUT', headers: { 'content-type': 'application/json' },
              body: JSON.stringify({ document: { ...now.kept.document, pinned: [1] }, based_on_revision: 1 }) }))
            .then((r) => done(r.status))";
        ui.click("//button[starts-with(., 'Something happened')]").await;
        ui.write(&format!("{DIALOG}//input[@id=//label[.='Longer by']/@for]"), "5").await;
        ui.click(&format!("{DIALOG}//button[.='See what gives']")).await;
        ui.find(OFFER).await;
        let status = ui.client.execute_async(script, vec![]).await.unwrap();
        assert_eq!(status, 200);
        ui.click(&format!("({OFFER}//button)[1]")).await;
        ui.find("//p[@role='alert'][contains(., 'Somebody changed the plan meanwhile')]").await;
        ui.find("//button[.='Version 2']").await;
        ui.stop_server().await;
        ui.click("(//section[@aria-label='Next for your hands']//li)[1]//button[.='Start']").await;
        ui.find("//p[@role='alert'][contains(., 'not answering')]").await;
        ui.start_server_again().await;
        // The server that is gone took its throwaway kitchen with it; the page says what is there now.
        let plan = ui.client.find(Locator::XPath("//h1")).await;
        assert!(plan.is_ok());
    })
    .await;
}
