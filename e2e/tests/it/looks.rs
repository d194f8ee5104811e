//! Every size and both lights: nothing serious for axe-core, nothing beside the page, no errors.

use crate::BAY;
use e2e::{LAPTOP, TABLET, Viewport, ui};

/// axe-core 4.14.1 (MPL-2.0), from the page's own tools.
pub fn axe() -> String {
    let file = concat!(env!("CARGO_MANIFEST_DIR"), "/../web/node_modules/axe-core/axe.min.js");
    std::fs::read_to_string(file).expect("the page's tools are installed: make test")
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn nothing_serious_at_any_size_in_either_light() {
    ui("looks", async |ui| {
        let axe = axe();
        for theme in ["light", "dim"] {
            for size in [LAPTOP, Viewport(1024, 768), TABLET] {
                ui.set_viewport(size).await;
                ui.open("/").await;
                ui.js(&format!("localStorage.setItem('bright-spoon.theme', '{theme}')")).await;
                ui.open_formula(BAY).await;
                let inner = ui.js("return [innerWidth, document.documentElement.scrollWidth, document.documentElement.dataset.theme]").await;
                assert_eq!(inner[0], size.0);
                assert_eq!(inner[1], size.0, "{theme} {size:?}: something stands out at the side");
                assert_eq!(inner[2], theme);
                let faults = ui.serious_faults(&axe).await;
                assert!(faults.is_empty(), "{theme} {size:?}:\n{}", faults.join("\n"));
            }
        }
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn nothing_serious_on_the_other_screens() {
    ui("looks_screens", async |ui| {
        let axe = axe();
        for (theme, size) in [("light", LAPTOP), ("dim", Viewport(1024, 768)), ("light", TABLET)] {
            ui.set_viewport(size).await;
            ui.open("/").await;
            ui.js(&format!("localStorage.setItem('bright-spoon.theme', '{theme}')")).await;
            for (path, sign) in [
                ("/new", "//h1[.='What will you make?']"),
                ("/formulas", "//ul[@aria-label='All formulas']/li"),
                ("/pantry/dark70", "//section[@aria-label='Where it is used']"),
                ("/pantry/new", "//section[@aria-label='Its label']"),
                ("/bench/new?family=fruit_mousse&job=set", "//*[@data-testid='verdict']"),
                ("/bench/new?family=syrup&job=soak", "//*[@data-testid='verdict']"),
                ("/make", "//main//li//a[contains(., 'Bay')]"),
            ] {
                ui.open(path).await;
                ui.find(sign).await;
                let inner = ui.js("return document.documentElement.scrollWidth").await;
                assert_eq!(inner, size.0, "{path} {theme} {size:?}: something stands out at the side");
                let faults = ui.serious_faults(&axe).await;
                assert!(faults.is_empty(), "{path} {theme} {size:?}:\n{}", faults.join("\n"));
            }
        }
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn nothing_serious_in_what_opens_over_the_bench() {
    ui("looks_open", async |ui| {
        let axe = axe();
        ui.open_formula(BAY).await;
        let check = async |what: &str| {
            let faults = ui.serious_faults(&axe).await;
            assert!(faults.is_empty(), "{what}:\n{}", faults.join("\n"));
        };
        ui.click("//button[starts-with(@aria-label, 'Try D')]").await;
        ui.find("//*[@data-way='D']//p").await;
        check("a way that is tried").await;
        ui.click("//button[.='What must hold']").await;
        ui.click("//button[.='Add a share']").await;
        check("what must hold").await;
        ui.click("//button[.='Free everything']").await;
        ui.click("//button[.='Done']").await;
        ui.click("//button[@id='add-ingredient']").await;
        ui.find("//*[@role='option']").await;
        check("picking an ingredient").await;
        ui.press(fantoccini::key::Key::Escape).await;
        ui.click("//button[.='Versions']").await;
        ui.find("//b[.='Version 1']").await;
        check("versions").await;
        ui.press(fantoccini::key::Key::Escape).await;
        ui.click("//button[@aria-label='More for Salt']").await;
        ui.click("//*[@role='menuitem'][.='Cup, piece, heat…']").await;
        ui.find("//*[@role='dialog']").await;
        check("weights").await;
        ui.press(fantoccini::key::Key::Escape).await;
        ui.write(&e2e::Ui::amount("Salt"), "a pinch").await;
        ui.find("//*[@role='alert']").await;
        check("a bad amount").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn nothing_serious_in_rescue_and_making() {
    ui("looks_making", async |ui| {
        let axe = axe();
        let check = async |what: &str| {
            let faults = ui.serious_faults(&axe).await;
            assert!(faults.is_empty(), "{what}:\n{}", faults.join("\n"));
            let wide = ui.js("return [document.documentElement.scrollWidth, innerWidth]").await;
            assert_eq!(wide[0], wide[1], "{what}: something stands out at the side");
        };
        for (theme, size) in [("light", LAPTOP), ("dim", TABLET)] {
            ui.set_viewport(size).await;
            ui.open("/").await;
            ui.js(&format!("localStorage.setItem('bright-spoon.theme', '{theme}')")).await;
            ui.open_formula("Blackcurrant dome mousse").await;
            ui.press(fantoccini::key::Key::F8).await;
            ui.find("//button[.='Too loose']").await;
            check("signs").await;
            ui.click("//button[.='Too loose']").await;
            ui.find("//article//ol/li").await;
            check("a remedy").await;
            ui.click("//button[.='Poured too much']").await;
            ui.click("(//section[@aria-label='What to do']//li/button)[1]").await;
            ui.write("//label[contains(., 'What really went in')]/input", "440 g").await;
            ui.find("//button[.='Do this']").await;
            check("poured over").await;
            ui.press(fantoccini::key::Key::F8).await;
            for (tool, first, sign) in [
                ("Swap", "//button[.='No gelatin']", "//*[@role='dialog']//article"),
                ("Size", "//button[@role='tab'][.='Another size']", "//*[@role='dialog']//input"),
                ("Size", "//button[@role='tab'][.='Share it out']", "//*[@role='dialog']//input"),
                ("Method", "//*[@role='dialog']//nav/button[2]", "//*[@role='dialog']//ol/li"),
            ] {
                ui.click(&format!(
                    "//*[@role='toolbar'][@aria-label='Make']//button[starts-with(., '{tool}')]"
                ))
                .await;
                ui.click(first).await;
                ui.find(sign).await;
                check(tool).await;
                ui.press(fantoccini::key::Key::Escape).await;
            }
        }
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn nothing_serious_on_the_stack_and_its_lists() {
    ui("looks_stack", async |ui| {
        let axe = axe();
        let check = async |what: &str| {
            let faults = ui.serious_faults(&axe).await;
            assert!(faults.is_empty(), "{what}:\n{}", faults.join("\n"));
            let wide = ui.js("return [document.documentElement.scrollWidth, innerWidth]").await;
            assert_eq!(wide[0], wide[1], "{what}: something stands out at the side");
        };
        for (theme, size) in [("light", LAPTOP), ("dim", Viewport(1024, 768)), ("light", TABLET)] {
            ui.set_viewport(size).await;
            ui.open("/").await;
            ui.js(&format!("localStorage.setItem('bright-spoon.theme', '{theme}')")).await;
            ui.open("/orders").await;
            ui.find("//ul[@aria-label='All orders']/li").await;
            check("orders").await;
            ui.open_order("Harbour wedding", "Cake").await;
            check("the cake").await;
            ui.click("//button[@role='tab'][.='Build']").await;
            ui.click("//button[starts-with(., '33 drips')]").await;
            check("the build").await;
            ui.click("//button[.='From above']").await;
            check("from above").await;
            for (button, sign) in
                [("Bakes", "Add a bake…"), ("Serving", "Eaten at"), ("Size", "Another tin or mould")]
            {
                ui.click(&format!("//button[.='{button}']")).await;
                ui.find(&format!("//*[@role='dialog']//*[contains(text(), '{sign}')]")).await;
                check(button).await;
                ui.press(fantoccini::key::Key::Escape).await;
                ui.wait_for("it closed", async || !ui.has("//*[@role='dialog']").await).await;
            }
            for view in ["Order", "To weigh", "To buy", "Labels"] {
                ui.click(&format!("//nav[@aria-label='Views of the order']//button[.='{view}']")).await;
                ui.find("//h1[string-length(normalize-space(.)) > 3]").await;
                check(view).await;
            }
        }
    })
    .await;
}

/// A window 1280 wide at 400 % zoom is 320 wide (WCAG 2.2, 1.4.10 Reflow).
#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn every_view_reflows_at_four_hundred_per_cent() {
    ui("looks_reflow", async |ui| {
        ui.set_viewport(Viewport(320, 640)).await;
        let check = async |view: &str| {
            let wide = ui.js("return document.documentElement.scrollWidth").await.as_u64().unwrap_or(9999);
            let who = ui
                .js("return [...document.querySelectorAll('body *')].filter((e) => e.getBoundingClientRect().right > innerWidth + 1 && !e.closest('.overflow-x-auto, svg')).slice(0, 6).map((e) => e.tagName + '.' + e.className + ' ' + Math.round(e.getBoundingClientRect().right))")
                .await;
            if wide > 320 { Some(format!("{view}: {wide} px: {who}")) } else { None }
        };
        let mut wide = Vec::new();
        for (path, sign) in [
            ("/new", "//h1[.='What will you make?']"),
            ("/formulas", "//ul[@aria-label='All formulas']/li"),
            ("/compare", "//h1"),
            ("/pantry/dark70", "//section[@aria-label='Where it is used']"),
            ("/pantry/new", "//section[@aria-label='Its label']"),
            ("/stack", "//h1"),
            ("/make", "//main//li//a[contains(., 'Bay')]"),
        ] {
            ui.open(path).await;
            ui.find(sign).await;
            wide.extend(check(path).await);
        }
        ui.open_formula(BAY).await;
        ui.find("//section[@aria-label='Ways there']").await;
        wide.extend(check("a formula").await);
        ui.js("document.activeElement?.blur()").await;
        ui.press('c').await;
        ui.find("//*[@role='dialog']//*[@aria-label='Moment']").await;
        wide.extend(check("the clock").await);
        ui.press(fantoccini::key::Key::Escape).await;
        for view in ["Order", "Cake", "To weigh", "To buy", "Labels"] {
            ui.open_order("Harbour wedding", view).await;
            wide.extend(check(view).await);
        }
        assert!(wide.is_empty(), "stands out at the side:\n{}", wide.join("\n"));
    })
    .await;
}
