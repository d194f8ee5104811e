//! The pantry: found by any name, an own ingredient from its label, files read first and then taken.

use e2e::{Ui, ui};
use fantoccini::Locator;

fn field(label: &str) -> String {
    format!("//input[@id=//label[.='{label}']/@for]")
}

async fn write(ui: &Ui, label: &str, text: &str) {
    ui.write(&field(label), text).await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn an_ingredient_is_found_by_a_slip_and_says_how_it_is_known() {
    ui("pantry", async |ui| {
        ui.open("/pantry").await;
        ui.find("//p[.='Pick an ingredient']").await;
        ui.write("//input[@aria-label='Find an ingredient']", "castor shugar").await;
        ui.click("//ul[@aria-label='Ingredients']//a[contains(., 'Sugar (sucrose)')]").await;
        ui.find("//h2[.='Sugar (sucrose)']").await;
        ui.find("//p[contains(., 'Also caster sugar')]").await;
        ui.find("//p[contains(., 'No allergen of the lists.')]").await;
        // A price of this kitchen.
        ui.write("//input[@id=//label[.='and costs']/@for]", "2.5\u{e007}").await;
        ui.find("//p[contains(., '2.50 EUR') and contains(., 'your price')]").await;
        // Where it is used leads to the Bench.
        ui.click("//section[@aria-label='Where it is used']//a[.='Brandy soak']").await;
        ui.verdict_that("is the soak's", |said| said.contains("to soak")).await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn an_own_ingredient_is_read_from_its_label_and_used_on_the_bench() {
    ui("label", async |ui| {
        ui.open("/pantry/new").await;
        ui.write("//form//label[starts-with(., 'Name')]//input", "River cream 42 %").await;
        write(ui, "Fat", "42").await;
        write(ui, "Carbohydrate", "2.6").await;
        write(ui, "of which sugars", "26").await;
        write(ui, "Protein", "1.9").await;
        // A slip of the pen is noticed before anything is worked out.
        ui.find("//*[contains(., '26 g of sugars cannot be in 2.6 g of carbohydrate')]").await;
        write(ui, "of which sugars", "2.6").await;
        ui.wait_for("the inferred water", async || {
            ui.has("//input[@aria-label='water, g in 100 g'][@value='53.1']").await
        })
        .await;
        ui.find("//td[contains(., 'what is left is water')]").await;
        ui.click("//label[normalize-space(.)='milk']/input[@type='checkbox']").await;
        // Changed by hand it must still add up.
        ui.write("//input[@aria-label='milk fat, g in 100 g']", "50").await;
        ui.find("//p[@role='status'][contains(., 'Take 8.0 g somewhere')]").await;
        ui.write("//input[@aria-label='milk fat, g in 100 g']", "42").await;
        ui.click("//button[starts-with(., 'Put it on the shelf')]").await;
        ui.find("//h2[contains(., 'River cream')]").await;
        ui.find("//b[.='milk.']").await;
        ui.open_formula(crate::BAY).await;
        ui.click("//button[@aria-label='Swap Cream 36 %']").await;
        ui.find("//input[@role='combobox']").await.send_keys("river").await.unwrap();
        ui.find("//*[@role='option'][contains(., 'River cream')]").await;
        ui.press(fantoccini::key::Key::Enter).await;
        ui.verdict_that("is stiffer still", |said| said.to_lowercase().contains("too stiff to drip")).await;
        assert_eq!(ui.value(&Ui::amount("River cream 42 %")).await, "90 g");
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_pantry_file_is_read_first_and_its_good_rows_taken() {
    ui("pantry_file", async |ui| {
        ui.open("/pantry").await;
        ui.click("//button[.='Files']").await;
        let dir = tempfile::tempdir().unwrap();
        let file = dir.path().join("ours.csv");
        let table =
            "name,group,water_percent,milk_fat_percent,allergens\nHill cream,dairy,55,45,milk\nBad cream,dairy,55,25,milk\n";
        std::fs::write(&file, table).unwrap();
        let input = "//input[@aria-label='Pantry file']";
        let field = ui.client.find(Locator::XPath(input)).await.unwrap();
        field.send_keys(file.to_str().unwrap()).await.unwrap();
        ui.find("//li[contains(., 'Line 3 (Bad cream)') and contains(., 'add up to 80.0 %')]").await;
        ui.click("//button[.='Take it']").await;
        ui.find("//*[@role='status'][contains(., '1 ingredient taken')]").await;
        ui.press(fantoccini::key::Key::Escape).await;
        ui.find("//ul[@aria-label='Ingredients']//a[contains(., 'Hill cream')]").await;
    })
    .await;
}
