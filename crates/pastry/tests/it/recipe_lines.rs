//! Lines of recipes as people write them, read into an ingredient and an amount that weighs what it should.

use pastry::assess::FormulaDocument;
use pastry::exchange::read::{ReadFile, read};
use pastry::formula::{Family, Line};
use pastry::ingredient::Shelf;
use pastry::job::kind::Job;
use serde_json::json;

/// Grams of a line, weighed with the kitchen's US cups.
fn grams(line: &Line) -> f64 {
    let mut document = FormulaDocument::empty(Family::Ganache, Job::usual()[0], 25.0);
    document.lines = vec![line.clone()];
    document.formula().weigh(&Shelf::catalogue()).unwrap()[0].mass.grams()
}

/// One line, as it is read in a recipe.
fn read_one(text: &str) -> Option<Line> {
    let recipe = json!({ "@type": "Recipe", "recipeIngredient": [text] }).to_string();
    match read(&recipe, &Shelf::catalogue()) {
        Ok(ReadFile::Recipe { document, .. }) => document.lines.into_iter().next(),
        _ => None,
    }
}

/// Text, ingredient, grams. Cups and pieces by the USDA household weights of the pantry.
#[test]
fn a_line_of_a_recipe_is_an_ingredient_and_an_amount() {
    let cases = [
        ("250 g dark chocolate 60 %", "dark60", 250.0),
        ("250 g dark chocolate 60 %, finely chopped", "dark60", 250.0),
        ("200g butter", "butter82", 200.0),
        ("1 stick unsalted butter (at room temperature)", "butter82", 113.0),
        ("3 eggs", "egg", 150.0),
        ("2 large eggs", "egg", 100.0),
        ("4 egg yolks", "yolk", 68.0),
        ("4 yolks", "yolk", 68.0),
        ("3 egg whites", "white", 99.0),
        ("1 cup heavy cream", "cream36", 238.0),
        ("1/2 cup whole milk", "milk", 122.0),
        ("1 1/2 cups sugar", "sugar", 300.0),
        ("2 tbsp honey", "honey", 42.0),
        ("1 kg icing sugar", "icing", 1000.0),
        ("5 dl cream 36 %", "cream36", 503.0),
        ("30 ml orange juice", "orange", 31.0),
        ("8 oz cream cheese", "cream_cheese", 227.0),
        ("15 g corn starch", "corn_starch", 15.0),
        ("15 g cornflour", "corn_starch", 15.0),
        ("100 g of mascarpone", "mascarpone", 100.0),
        ("120 g raspberry puree", "raspberry", 120.0),
        ("40 g glucose syrup DE 40", "glucose40", 40.0),
        ("250 g plain flour; sifted", "flour", 250.0),
        ("12 g gelatin 200 bloom", "gelatin200", 12.0),
        ("60 g water", "water", 60.0),
        ("0.5 l whole milk", "milk", 515.0),
        ("1 lb powdered sugar", "icing", 453.6),
    ];
    for (text, ingredient, wanted) in cases {
        let found = read_one(text).unwrap_or_else(|| panic!("“{text}” is not understood"));
        assert_eq!(found.ingredient, ingredient, "{text}");
        let weighs = grams(&found);
        assert!((weighs / wanted - 1.0).abs() < 0.06, "{text}: {weighs} g, expected {wanted}");
    }
}

#[test]
fn what_is_no_line_is_left_to_the_person() {
    for text in [
        "",
        "salt to taste",
        "a little patience",
        "for the ganache:",
        "200 g",
        "some sugar",
        "12",
        "g",
        "½",
        "200 g qwxzzy",
    ] {
        assert!(read_one(text).is_none(), "“{text}” is no line: {:?}", read_one(text));
    }
}

/// A recipe of each kind is put into the family it is nearest to.
#[test]
fn a_recipe_is_put_where_it_belongs() {
    let cases: [(&[&str], Family); 9] = [
        (&["200 g dark chocolate 60 %", "200 g cream 36 %"], Family::Ganache),
        (&["250 g butter", "500 g icing sugar", "20 g milk"], Family::Buttercream),
        (&["3 egg whites", "200 g sugar", "300 g butter"], Family::SwissButtercream),
        (&["500 g cream 36 %", "50 g sugar"], Family::WhippedCream),
        (&["400 g raspberry puree", "12 g gelatin 200 bloom", "400 g cream 36 %"], Family::FruitMousse),
        (&["400 g raspberry puree", "8 g gelatin 200 bloom", "50 g sugar"], Family::Jelly),
        (&["500 g whole milk", "4 egg yolks", "40 g corn starch", "100 g sugar"], Family::PastryCream),
        (&["500 g whole milk", "5 egg yolks", "100 g sugar"], Family::Anglaise),
        (&["200 g sugar", "200 g water"], Family::Syrup),
    ];
    for (lines, wanted) in cases {
        let text = json!({ "@type": "Recipe", "name": "x", "recipeIngredient": lines }).to_string();
        let Ok(ReadFile::Recipe { document, not_understood, .. }) = read(&text, &Shelf::catalogue()) else {
            panic!("{lines:?} is a recipe")
        };
        assert_eq!(document.family, wanted, "{lines:?}");
        assert!(not_understood.is_empty() && document.lines.len() == lines.len(), "{not_understood:?}");
        assert!(document.faults().is_empty(), "{:?}", document.faults());
    }
}

#[test]
fn a_family_that_is_named_is_taken_and_long_texts_are_cut() {
    let text = json!({
        "@type": "Recipe", "name": "n".repeat(400), "description": "d".repeat(9000),
        "recipeCategory": "Mousseline", "recipeIngredient": "100 g butter\n100 g whole milk\n"
    });
    let Ok(ReadFile::Recipe { document, .. }) = read(&text.to_string(), &Shelf::catalogue()) else {
        panic!("it is a recipe")
    };
    assert_eq!(document.family, Family::Mousseline);
    assert_eq!((document.name.chars().count(), document.note.chars().count()), (120, 4000));
    assert_eq!(document.lines.len(), 2);
}

/// Where others put a recipe in a page: alone, in a list, in a graph, as the main thing of a page.
#[test]
fn a_recipe_is_found_wherever_it_stands() {
    let recipe = json!({ "@type": "Recipe", "recipeIngredient": ["100 g sugar", "100 g water"] });
    for text in [
        json!(recipe),
        json!([{ "@type": "Person" }, recipe]),
        json!({ "@graph": [{ "@type": "WebSite" }, recipe] }),
        json!({ "@type": "WebPage", "mainEntity": recipe }),
        json!({ "@type": "ItemList", "itemListElement": [{ "@type": "ListItem", "item": recipe }] }),
    ] {
        let found = read(&text.to_string(), &Shelf::catalogue());
        assert!(matches!(found, Ok(ReadFile::Recipe { .. })), "{text}: {found:?}");
    }
    // Nothing is looked for forever.
    let mut deep = recipe;
    for _ in 0..40 {
        deep = json!({ "mainEntity": deep });
    }
    assert!(read(&deep.to_string(), &Shelf::catalogue()).is_err());
}

/// A document of ours inside a recipe that was broken on the way is said to be broken, not read as something else.
#[test]
fn a_broken_inside_is_said() {
    let broken = json!({
        "@type": "Recipe", "recipeIngredient": ["100 g sugar"],
        "encoding": { "@type": "MediaObject", "encodingFormat": "application/vnd.bright-spoon.stack+json", "text": "{" }
    });
    let said = read(&broken.to_string(), &Shelf::catalogue()).unwrap_err();
    assert!(said.contains("is broken"), "{said}");
    let foreign = json!({
        "@type": "Recipe", "recipeIngredient": ["100 g sugar"],
        "encoding": { "@type": "MediaObject", "encodingFormat": "image/png", "text": "" }
    });
    assert!(matches!(read(&foreign.to_string(), &Shelf::catalogue()), Ok(ReadFile::Recipe { .. })));
}

/// A hundred lines and more in five languages: right, left to the cook, and never something else in silence.
#[test]
fn no_line_in_any_language_is_read_as_something_else() {
    let (mut right, mut left, mut wrong) = (0, 0, Vec::new());
    let mut missed = Vec::new();
    for row in include_str!("data/recipe_lines.csv").lines().filter(|row| !row.starts_with('#')).skip(1) {
        let [language, text, wanted, grams_wanted] = row.split('|').collect::<Vec<_>>()[..] else {
            panic!("{row}")
        };
        match read_one(text) {
            None if wanted == "-" => left += 1,
            None => missed.push(text),
            Some(found) if found.ingredient == wanted => {
                let (weighs, wanted_g): (f64, f64) = (grams(&found), grams_wanted.parse().unwrap());
                if (weighs / wanted_g - 1.0).abs() < 0.07 {
                    right += 1;
                } else {
                    wrong.push(format!("{language} “{text}”: {weighs} g of {wanted}, not {wanted_g}"));
                }
            }
            Some(found) => wrong.push(format!("{language} “{text}”: {} {}", found.amount, found.ingredient)),
        }
    }
    println!("{right} read right, {left} left to the cook, {} missed, {} wrong", missed.len(), wrong.len());
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
    assert!(missed.is_empty(), "not understood: {missed:?}");
    assert!(right + left >= 100);
}

/// More lines than a formula takes are not dropped: they are said to be open.
#[test]
fn lines_past_the_most_are_said_to_be_open() {
    let lines: Vec<String> = (0..80).map(|k| format!("{} g sugar", k + 1)).collect();
    let text = json!({ "@type": "Recipe", "recipeIngredient": lines }).to_string();
    let Ok(ReadFile::Recipe { document, lines, not_understood }) = read(&text, &Shelf::catalogue()) else {
        panic!("it is a recipe")
    };
    assert_eq!((document.lines.len(), lines.len(), not_understood.len()), (60, 80, 20));
    let many: Vec<String> = (0..2000).map(|k| format!("{k} g sugar")).collect();
    let text = json!({ "@type": "Recipe", "recipeIngredient": many }).to_string();
    assert!(read(&text, &Shelf::catalogue()).unwrap_err().contains("2000 lines"));
}
