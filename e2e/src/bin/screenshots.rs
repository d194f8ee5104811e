//! Takes the pictures of the main views from the demo kitchen: `screenshots FOLDER [NAME...]`. A name
//! such as `curd=formula:Sharp-citrus curd@820x1180/dim` or `pantry=/pantry/cream36` takes any other.

use e2e::browser::Session;
use e2e::page::Ui;
use e2e::viewport::{LAPTOP, TABLET, Viewport};
use fantoccini::key::Key;
use std::path::PathBuf;
use std::time::Duration;

/// Name, what is opened, size, theme.
const VIEWS: &[(&str, &str, Viewport, &str)] = &[
    ("bench", "formula:Bay milk-chocolate drip", LAPTOP, "light"),
    ("bench-dim", "formula:Bay milk-chocolate drip", LAPTOP, "dim"),
    ("clock", "clock:Ember dark glaze", LAPTOP, "light"),
    ("ways", "try:Bay milk-chocolate drip", LAPTOP, "light"),
    ("rescue", "rescue:Bay milk-chocolate drip", LAPTOP, "light"),
    ("remedy", "remedy:Bay milk-chocolate drip=Too stiff", TABLET, "light"),
    ("make", "make:Bay milk-chocolate drip", LAPTOP, "light"),
    ("method", "method:Bay milk-chocolate drip", LAPTOP, "light"),
    ("stack", "order:Harbour wedding=Cake", LAPTOP, "light"),
    ("stack-cases", "order:Lantern fair=Cake=Build", TABLET, "light"),
    ("day", "day:Fri=Coat", LAPTOP, "light"),
    ("day-bent", "day:Fri==late", LAPTOP, "light"),
    ("kitchen", "/day/room", LAPTOP, "light"),
    ("log", "/log", LAPTOP, "light"),
    ("measured", "/log/measured", LAPTOP, "light"),
    ("learned", "/log/learned", LAPTOP, "light"),
    ("trainer", "/log/trainer", TABLET, "light"),
    ("compare", "compare:Bay milk-chocolate drip+Cardamom white drip", LAPTOP, "light"),
    ("pantry", "/pantry/cream36", LAPTOP, "light"),
];

async fn open(ui: &Ui, what: &str) {
    match what.split_once(':') {
        Some(("formula", name)) => ui.open_formula(name).await,
        Some(("try", name)) => {
            ui.open_formula(name).await;
            ui.find("//*[@data-way='A']").await;
            ui.js("document.activeElement?.blur()").await;
            ui.press('a').await;
            ui.find("//button[starts-with(@aria-label, 'Use A')]").await;
        }
        Some(("rules", name)) => {
            ui.open_formula(name).await;
            ui.click("//button[starts-with(., 'What must hold')]").await;
            ui.find("//*[@role='dialog']").await;
        }
        Some(("why", name)) => {
            ui.open_formula(name).await;
            ui.js("document.activeElement?.blur()").await;
            ui.press('w').await;
            ui.find("//*[@role='dialog']").await;
        }
        Some(("clock", name)) => {
            ui.open_formula(name).await;
            ui.js("document.activeElement?.blur()").await;
            ui.press('c').await;
            ui.find("//*[@role='dialog']//button[starts-with(@aria-label, 'Take: ')]").await;
        }
        Some(("rescue", name)) => rescue(ui, name).await,
        Some(("remedy", rest)) => {
            let (name, sign) = rest.split_once('=').expect("a formula and a sign");
            rescue(ui, name).await;
            ui.write("//input[@id=//label[contains(., 'How warm')]/@for]", "26").await;
            ui.click(&format!("//button[.='{sign}']")).await;
            ui.find("//article//ol/li").await;
        }
        Some(("overpour", rest)) => {
            let (name, poured) = rest.split_once('=').expect("a formula and what was poured");
            rescue(ui, name).await;
            ui.click("//button[.='Poured too much']").await;
            ui.click("(//section[@aria-label='What to do']//li/button)[2]").await;
            ui.write("//label[contains(., 'What really went in')]/input", poured).await;
            ui.find("//button[.='Do this']").await;
        }
        Some(("make", name)) => {
            ui.open("/make").await;
            ui.click(&format!("//main//li//a[contains(., '{name}')]")).await;
            ui.find("//section[@aria-label='To weigh']").await;
        }
        Some(("swap", rest)) => {
            let (name, words) = rest.split_once('=').expect("a formula and what is avoided");
            tool(ui, name, "Swap").await;
            ui.click(&format!("//*[@role='dialog']//button[.='{words}']")).await;
            ui.find("//*[@role='dialog']//article").await;
        }
        Some(("size", rest)) => {
            let (name, grams) = rest.split_once('=').expect("a formula and grams");
            tool(ui, name, "Size").await;
            ui.write("//input[@id=//label[.='Wanted']/@for]", grams).await;
            ui.click("//label[contains(., 'Come out whole')]/select/option[contains(., 'eggs')]").await;
            ui.find("//*[@role='dialog']//table").await;
        }
        Some(("shares", rest)) => {
            let (name, many) = rest.split_once('=').expect("a formula and how many");
            tool(ui, name, "Size").await;
            ui.click("//button[@role='tab'][.='Share it out']").await;
            ui.write("//input[@id=//label[.='Into how many']/@for]", many).await;
            ui.find("//*[@role='dialog']//table").await;
        }
        Some(("print", name)) => {
            tool(ui, name, "Method").await;
            ui.find("//*[@role='dialog']//ol/li").await;
            // As the printer would see it.
            ui.js(
                "document.querySelector('[data-testid=print]').classList.remove('hidden');
                 document.querySelectorAll('#root, .no-print').forEach((each) => { each.style.display = 'none' })",
            )
            .await;
        }
        // file:/folder/order.json=2, the third cake of an order read from a file
        Some(("file", rest)) => {
            let (file, cake) = rest.split_once('=').unwrap_or((rest, "0"));
            ui.open("/orders").await;
            ui.find("//button[.='Read a file']").await;
            let input = ui.client.find(fantoccini::Locator::XPath("//input[@type='file']")).await;
            input.expect("a field for files").send_keys(file).await.expect("the file is taken");
            ui.find("//nav[@aria-label='Views of the order']").await;
            ui.open(&format!("/stack/new?view=cake&cake={cake}")).await;
            ui.find("//*[@role='listbox']").await;
        }
        // build:To weigh, a build begun just now, at a view
        Some(("build", view)) => {
            ui.open("/orders").await;
            ui.click("(//section[@aria-label='A new order']//li/button)[1]").await;
            ui.click(&format!("//nav[@aria-label='Views of the order']//button[.='{view}']")).await;
            ui.find("//section[@aria-label='Incomplete']").await;
        }
        // unsaved:/formulas, a page with work that was not saved
        Some(("unsaved", page)) => {
            for name in ["Fog fill", "Fog soak"] {
                ui.open("/bench/new?family=ganache&job=fill").await;
                ui.verdict_that("is there", |_| true).await;
                ui.write("//input[@aria-label='Name of the formula']", name).await;
                ui.find(&format!("//*[contains(@class, 'tape')]//span[.='{name}']")).await;
            }
            ui.open(page).await;
            ui.find("//section[@aria-label='Unsaved on this device']//b[.='Fog soak']").await;
        }
        // order:Harbour wedding=Cake, or with something clicked: order:Harbour wedding=Cake=Build
        Some(("order", rest)) => {
            let mut parts = rest.split('=');
            let (name, view) = (parts.next().expect("an order"), parts.next().unwrap_or("Cake"));
            ui.open_order(name, view).await;
            for word in parts {
                if word == "print" {
                    ui.js(
                        "document.querySelector('[data-testid=print]').classList.remove('hidden');
                         document.querySelectorAll('#root, .no-print').forEach((each) => { each.style.display = 'none' })",
                    )
                    .await;
                } else if word == "picture" {
                    // The picture that is saved, in place of the page.
                    ui.js("const make = URL.createObjectURL.bind(URL);
                         URL.createObjectURL = (blob) => { if (blob.type === 'image/png') {
                           const read = new FileReader(); read.onload = () => {
                             document.body.innerHTML = `<img style='width:100%' src='${read.result}'>` };
                           read.readAsDataURL(blob) } return make(blob) }")
                        .await;
                    ui.click("//select[@aria-label='Save the cake as a file']/option[@value='png']").await;
                    ui.find("//body/img").await;
                } else if let Some(times) = word.strip_prefix("up") {
                    ui.find("//*[@role='listbox']").await;
                    ui.js("document.querySelector('[role=listbox]').focus()").await;
                    for _ in 0..times.parse().unwrap_or(1) {
                        ui.press(Key::Up).await;
                    }
                } else {
                    // A tab has its own role, a button its words.
                    ui.click(&format!("//button[starts-with(normalize-space(.), '{word}')]")).await;
                }
            }
        }
        // day:Sat, the week planned and used; day:Sat=Drip with a step chosen; day:Sat==late bent; day:Thu=Turn out=sooner what would be
        // sooner; day:Sat==again under way; day:Sat==print
        Some(("day", rest)) => {
            let mut parts = rest.split('=');
            let day = parts.next().unwrap_or("Sat");
            ui.open("/day").await;
            ui.find("//button[starts-with(., 'Plan 4 orders')] | //button[.='Version 1']").await;
            if ui.has("//button[starts-with(., 'Plan 4 orders')]").await {
                ui.click("//button[starts-with(., 'Plan 4 orders')]").await;
                ui.find("//section[@aria-label='A plan that is not used yet']").await;
                ui.wait_for("the search to end", async || !ui.has("//button[.='Stop']").await).await;
                ui.click("//button[.='Use this plan']").await;
            }
            ui.find("//button[.='Version 1']").await;
            ui.click(&format!("//nav[@aria-label='Days']//button[starts-with(., '{day}')]")).await;
            if let Some(step) = parts.next().filter(|step| !step.is_empty()) {
                ui.click(&format!("(//*[@role='group']//button[contains(normalize-space(.), '{step}')])[1]"))
                    .await;
            }
            match parts.next() {
                Some("late") => {
                    ui.click("//button[starts-with(., 'Something happened')]").await;
                    ui.write("//input[@id=//label[.='Longer by']/@for]", "40").await;
                    ui.click("//*[@role='dialog']//button[.='See what gives']").await;
                    ui.find("//section[@aria-label='A plan that is not used yet']").await;
                    ui.wait_for("what would save it", async || {
                        !ui.has("//p[.='Looking for what would save it.']").await
                    })
                    .await;
                }
                Some("sooner") => {
                    ui.click("//button[starts-with(., 'What would make')]").await;
                    ui.find("//ul[@aria-label='What would be sooner']").await;
                }
                Some("again") => {
                    ui.click("//section[@aria-label='Next for your hands']//li[3]//button[.='Start']").await;
                    ui.find("//section[@aria-label='Next for your hands']//li[contains(., 'at it')]").await;
                    ui.click("(//button[.='Plan again'])[1]").await;
                    ui.find("//section[@aria-label='Orders to plan']").await;
                }
                Some("print") => {
                    ui.js(
                        "document.querySelector('[data-testid=print]').classList.remove('hidden');
                         document.querySelectorAll('#root, .no-print').forEach((each) => { each.style.display = 'none' })",
                    )
                    .await;
                }
                _ => {}
            }
        }
        Some(("method", name)) => {
            tool(ui, name, "Method").await;
            ui.find("//*[@role='dialog']//ol/li").await;
        }
        Some(("compare", names)) => {
            ui.open("/formulas").await;
            for name in names.split('+') {
                ui.click(&format!("//input[@aria-label='Compare {name}']")).await;
            }
            ui.click("//button[starts-with(., 'Compare')]").await;
            ui.find("//table").await;
        }
        _ => {
            ui.open(what).await;
            if what.starts_with("/day/") {
                ui.find("//h1").await;
            }
        }
    }
}

async fn tool(ui: &Ui, name: &str, word: &str) {
    ui.open_formula(name).await;
    ui.click(&format!("//*[@role='toolbar'][@aria-label='Make']//button[starts-with(., '{word}')]")).await;
    ui.find("//*[@role='dialog']").await;
}

async fn rescue(ui: &Ui, name: &str) {
    ui.open_formula(name).await;
    ui.press(Key::F8).await;
    ui.find("//h2[.='What do you see?']").await;
    ui.find("//button[.='Too stiff']").await;
}

/// `curd=formula:Sharp-citrus curd@820x1180/dim`.
fn asked(argument: &str) -> Option<(String, String, Viewport, String)> {
    let (name, rest) = argument.split_once('=')?;
    let (what, size) = rest.split_once('@').unwrap_or((rest, "1280x800"));
    let (size, theme) = size.split_once('/').unwrap_or((size, "light"));
    let (width, height) = size.split_once('x')?;
    let viewport = Viewport(width.parse().ok()?, height.parse().ok()?);
    Some((name.to_owned(), what.to_owned(), viewport, theme.to_owned()))
}

#[tokio::main]
async fn main() {
    let mut arguments = std::env::args().skip(1);
    let folder = PathBuf::from(arguments.next().expect("say in which folder"));
    let wanted: Vec<String> = arguments.collect();
    std::fs::create_dir_all(&folder).expect("the folder is made");
    let mut views: Vec<(String, String, Viewport, String)> = VIEWS
        .iter()
        .filter(|(name, ..)| wanted.is_empty() || wanted.iter().any(|want| want == name))
        .map(|(name, what, viewport, theme)| {
            ((*name).to_owned(), (*what).to_owned(), *viewport, (*theme).to_owned())
        })
        .collect();
    views.extend(wanted.iter().filter_map(|argument| asked(argument)));
    let session = Session::start(true, LAPTOP).await;
    let ui = &session.ui;
    for (name, what, viewport, theme) in views {
        ui.set_viewport(viewport).await;
        ui.open("/").await;
        ui.js(&format!("localStorage.setItem('bright-spoon.theme', '{theme}')")).await;
        open(ui, &what).await;
        ui.js("if (!document.querySelector('[role=dialog]')) document.activeElement?.blur()").await;
        // Fonts and the last transition.
        tokio::time::sleep(Duration::from_millis(600)).await;
        let png = ui.client.screenshot().await.expect("a picture");
        std::fs::write(folder.join(format!("{name}.png")), png).expect("the picture is kept");
        println!("{name}");
    }
    session.stop().await;
}
