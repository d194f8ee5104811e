//! The description, the schema and the client's types say what the server does.

use crate::{Kitchen, formula};
use serde_json::json;
use server::openapi;
use server::problem::Problem;
use server::problem::ProblemCode;
use std::path::{Path, PathBuf};
use std::process::Command;

fn root() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../..")
}

#[test]
fn the_kept_description_is_the_servers_own() {
    let kept = std::fs::read_to_string(root().join("web/openapi.json")).unwrap();
    assert!(kept == openapi::pretty(), "web/openapi.json has drifted: run `make types`");
}

#[test]
fn the_clients_types_are_made_from_the_description() {
    let web = root().join("web");
    let tool = web.join("node_modules/.bin/openapi-typescript");
    assert!(tool.exists(), "the page's tools are not installed: run `make test`, or npm ci in web/");
    let made = Command::new(tool).arg("openapi.json").current_dir(&web).output().unwrap();
    assert!(made.status.success(), "{}", String::from_utf8_lossy(&made.stderr));
    let kept = std::fs::read_to_string(web.join("src/api/schema.d.ts")).unwrap();
    assert!(
        kept == String::from_utf8_lossy(&made.stdout),
        "web/src/api/schema.d.ts has drifted: run `make types`"
    );
}

#[test]
fn the_kept_schemas_are_the_servers_own() {
    for format in &server::formats::FORMATS {
        let file = format!("schemas/{}.json", format.name);
        let kept = std::fs::read_to_string(root().join(&file)).unwrap_or_default();
        let made = serde_json::to_string_pretty(&openapi::schema(format)).unwrap() + "\n";
        assert!(kept == made, "{file} has drifted: run `make types`");
    }
}

#[test]
fn pantry_and_ingredient_files_fit_their_schemas() {
    let reading = server::demo::ingredients();
    assert!(reading.bad.is_empty(), "{:?}", reading.bad);
    assert!(reading.good.len() >= 3);
    let pantry = pastry::exchange::pantry::to_json(reading.good.clone());
    for (format, value) in [
        (&server::formats::FORMATS[1], serde_json::to_value(&reading.good[0]).unwrap()),
        (&server::formats::FORMATS[2], serde_json::to_value(&pantry).unwrap()),
    ] {
        let validator = jsonschema::draft202012::new(&openapi::schema(format)).unwrap();
        let said: Vec<String> = validator.iter_errors(&value).map(|e| e.to_string()).collect();
        assert_eq!(said, Vec::<String>::new(), "{}", format.name);
        let mut bad = value.clone();
        bad["version"] = json!(2);
        assert!(!validator.is_valid(&bad), "{} takes another version", format.name);
    }
}

#[test]
fn the_examples_of_the_description_are_taken_by_its_own_schemas() {
    let description = openapi::document();
    let mut seen = 0;
    for (path, operations) in description["paths"].as_object().unwrap() {
        for (method, operation) in operations.as_object().unwrap() {
            let content = &operation["requestBody"]["content"]["application/json"];
            let Some(example) = content.get("example") else { continue };
            // Its schema, with the whole description behind it for references.
            let mut schema = content["schema"].clone();
            schema["components"] = description["components"].clone();
            let validator = jsonschema::draft202012::new(&schema).unwrap();
            let said: Vec<String> = validator.iter_errors(example).map(|e| e.to_string()).collect();
            assert_eq!(said, Vec::<String>::new(), "{method} {path}");
            seen += 1;
        }
    }
    assert!(seen >= 6, "{seen} examples");
}

#[test]
fn the_schema_takes_what_the_server_takes_and_refuses_what_is_no_formula() {
    let schema = openapi::schema(&server::formats::FORMATS[0]);
    let validator = jsonschema::draft202012::new(&schema).unwrap();
    let said = |value: &serde_json::Value| -> Vec<String> {
        validator.iter_errors(value).map(|e| format!("{} at {}", e, e.instance_path)).collect()
    };
    assert_eq!(said(&formula()), Vec::<String>::new());
    for document in server::demo::documents().unwrap() {
        let value = serde_json::to_value(&document).unwrap();
        assert_eq!(said(&value), Vec::<String>::new(), "{}", document.name);
    }
    let broken = |change: fn(&mut serde_json::Value)| {
        let mut value = formula();
        change(&mut value);
        value
    };
    for bad in [
        broken(|v| v["format"] = json!("other")),
        broken(|v| v["version"] = json!(3)),
        broken(|v| v["lines"] = json!("dark")),
        broken(|v| v["lines"][0] = json!({ "amount": "1 g" })),
        broken(|v| v["family"] = json!("stew")),
        broken(|v| v["surprise"] = json!(1)),
        broken(|v| v["work"]["temperature_c"] = json!(99)),
        broken(|v| v["work"]["job"] = json!({ "kind": "juggle" })),
    ] {
        assert!(!said(&bad).is_empty(), "taken: {bad}");
    }
}

#[tokio::test]
async fn the_description_is_openapi_3_1_and_names_every_route() {
    let kitchen = Kitchen::open(false).await;
    let (status, served) = kitchen.get("/api/openapi.json").await;
    assert_eq!((status, served["openapi"].as_str()), (200, Some("3.1.0")));
    assert_eq!(serde_json::to_string_pretty(&served).unwrap().len() + 1, openapi::pretty().len());
    for (path, operations) in served["paths"].as_object().unwrap() {
        let url = path.replace("{id}", "x").replace("{revision}", "1").replace("{key}", "x");
        for method in operations.as_object().unwrap().keys() {
            let method = reqwest::Method::from_bytes(method.to_uppercase().as_bytes()).unwrap();
            if path == "/api/live" {
                // It never ends: that it begins is enough.
                let begun = kitchen.http.get(format!("{}{url}", kitchen.address)).send().await.unwrap();
                assert_eq!(begun.status(), 200);
                continue;
            }
            let (_, answer) = kitchen.send(method.clone(), &url, &json!({})).await;
            let code = answer["code"].as_str().unwrap_or_default();
            assert!(!["no_route", "no_method"].contains(&code), "{method} {url} is described but not there");
        }
    }
    let (status, schema) = kitchen.get("/api/schemas/formula-1.json").await;
    assert_eq!((status, &schema), (200, &openapi::schema(&server::formats::FORMATS[0])));
    kitchen.close().await;
}

#[tokio::test]
async fn the_page_comes_from_the_binary_with_its_guards() {
    let kitchen = Kitchen::open(false).await;
    let response = kitchen.http.get(format!("{}/bench/anything", kitchen.address)).send().await.unwrap();
    assert!(response.headers()["content-security-policy"].to_str().unwrap().contains("default-src 'self'"));
    assert_eq!(response.headers()["cache-control"], "no-cache");
    let page = response.text().await.unwrap();
    assert!(page.contains("<div id=\"root\">"), "{page}");
    let script = page.split("src=\"").nth(1).unwrap().split('"').next().unwrap();
    let response = kitchen.http.get(format!("{}{script}", kitchen.address)).send().await.unwrap();
    assert_eq!(response.headers()["content-type"], "text/javascript");
    assert!(response.headers()["cache-control"].to_str().unwrap().contains("immutable"));
    let missing = kitchen.http.get(format!("{}/assets/none.js", kitchen.address)).send().await.unwrap();
    assert_eq!(missing.status().as_u16(), 404);
    assert!(!page.contains("http://") && !page.contains("https://"), "the page loads from elsewhere");
    kitchen.close().await;
}

#[tokio::test]
async fn the_page_is_sent_compressed_and_only_once() {
    let kitchen = Kitchen::open(false).await;
    for path in ["/", "/bench/new", "/api/families"] {
        let url = format!("{}{path}", kitchen.address);
        let sent = kitchen.http.get(&url).header("accept-encoding", "gzip").send().await.unwrap();
        assert_eq!(sent.status(), 200, "{path}");
        if path.starts_with("/api") {
            assert_eq!(sent.headers()["content-encoding"], "gzip", "{path}");
            continue;
        }
        assert_eq!(sent.headers()["content-type"], "text/html; charset=utf-8");
        let tag = sent.headers()["etag"].to_str().unwrap().to_owned();
        for known in
            [tag.clone(), tag.trim_start_matches("W/").to_owned(), format!("\"other\", {tag}"), "*".into()]
        {
            let again = kitchen.http.get(&url).header("if-none-match", &known).send().await.unwrap();
            assert_eq!(
                (again.status().as_u16(), again.bytes().await.unwrap().len()),
                (304, 0),
                "{path} {known}"
            );
        }
        let other = kitchen.http.get(&url).header("if-none-match", "\"other\"").send().await.unwrap();
        assert_eq!(other.status(), 200);
        // What the page names is sent compressed, and is its own for good.
        let page = other.text().await.unwrap();
        let script =
            page.split('"').find(|part| part.starts_with("/assets/") && part.ends_with(".js")).unwrap();
        let url = format!("{}{script}", kitchen.address);
        let script = kitchen.http.get(&url).header("accept-encoding", "gzip").send().await.unwrap();
        assert_eq!(script.headers()["content-encoding"], "gzip");
        assert!(script.headers()["cache-control"].to_str().unwrap().contains("immutable"));
        let packed = script.bytes().await.unwrap().len();
        let whole = kitchen.http.get(&url).send().await.unwrap().bytes().await.unwrap().len();
        assert!(3 * packed < 2 * whole, "{packed} of {whole} bytes");
    }
    kitchen.close().await;
}

/// What a route may answer instead is described from one list; what it really answers is in it.
#[tokio::test]
async fn every_route_describes_what_it_may_be_refused_with() {
    let description = openapi::document();
    let kitchen = Kitchen::open(false).await;
    let (mut broken, mut missing) = (0, 0);
    for (path, operations) in description["paths"].as_object().unwrap() {
        for (method, operation) in operations.as_object().unwrap() {
            let name = format!("{method} {path}");
            let described = |status: u16| operation["responses"].get(status.to_string());
            assert!(described(500).is_some() && described(503).is_some(), "{name}");
            for (status, answer) in operation["responses"].as_object().unwrap() {
                let code: u16 = status.parse().unwrap();
                let problem = answer["content"].get("application/problem+json").is_some();
                assert_eq!(code >= 400, problem, "{name} answers {status} in another form");
            }
            let at = path.replace("{id}", "nowhere").replace("{key}", "nowhere").replace("{revision}", "1");
            let at = at.replace("{ingredient}", "nowhere").replace("{picture}", "nowhere");
            let at = at.replace("{job}", "nowhere").replace("{form}", "png");
            assert!(!at.contains('{'), "{name}: a part of the address this test does not know");
            let request = kitchen
                .http
                .request(method.to_uppercase().parse().unwrap(), format!("{}{at}", kitchen.address));
            let takes_body = operation.get("requestBody").is_some();
            let request = if takes_body {
                request.header("content-type", "application/json").body("{ broken")
            } else {
                request
            };
            let answer = request.send().await.unwrap();
            let status = answer.status().as_u16();
            if status < 400 {
                continue;
            }
            assert!(described(status).is_some(), "{name} answers {status}, which is not described");
            let problem: Problem = answer.json().await.unwrap_or_else(|_| panic!("{name}: no problem"));
            assert_eq!(problem.status, status, "{name}");
            assert_eq!(problem.code.status().as_u16(), status, "{name}");
            broken += usize::from(problem.code == ProblemCode::BrokenJson);
            missing += usize::from(problem.code == ProblemCode::NotFound);
        }
    }
    assert!(broken >= 15 && missing >= 5, "{broken} broken bodies, {missing} missing keys were tried");
    kitchen.close().await;
}

#[test]
fn every_code_of_a_problem_is_its_word() {
    for code in ProblemCode::ALL {
        let word = serde_json::to_value(code).unwrap();
        assert!(word.as_str().is_some_and(|word| word.chars().all(|c| c.is_ascii_lowercase() || c == '_')));
        assert!(code.status().as_u16() >= 400 && !code.means().is_empty());
    }
}

/// Of two types of one name the description keeps one, without a word.
#[test]
fn no_two_types_of_the_description_have_one_name() {
    let mut open = vec![root().join("crates")];
    let mut seen: std::collections::BTreeMap<String, PathBuf> = std::collections::BTreeMap::new();
    let mut types = 0;
    while let Some(dir) = open.pop() {
        for path in std::fs::read_dir(&dir).unwrap().map(|entry| entry.unwrap().path()) {
            if path.is_dir() && !path.ends_with("tests") && !path.ends_with("target") {
                open.push(path);
            } else if path.extension().is_some_and(|ending| ending == "rs") {
                let text = std::fs::read_to_string(&path).unwrap();
                let mut described = false;
                // The name it is described by, where it is another.
                let mut called: Option<String> = None;
                for line in text.lines().map(str::trim) {
                    if let Some(word) = line.strip_prefix("#[schema(as = ") {
                        called = Some(word.trim_end_matches(")]").to_owned());
                    }
                    described |= line.starts_with("#[derive") && line.contains("ToSchema");
                    let Some(rest) = line.strip_prefix("pub struct ").or(line.strip_prefix("pub enum "))
                    else {
                        continue;
                    };
                    let called = called.take();
                    if std::mem::take(&mut described) && !rest.starts_with('$') {
                        let own: String = rest.chars().take_while(|c| c.is_alphanumeric()).collect();
                        let name = called.unwrap_or(own);
                        types += 1;
                        if let Some(other) = seen.insert(name.clone(), path.clone()) {
                            panic!("{name} is described in {} and in {}", other.display(), path.display());
                        }
                    }
                }
            }
        }
    }
    assert!(types > 120, "only {types} types were read");
}

fn rust_files(dir: &std::path::Path, found: &mut Vec<std::path::PathBuf>) {
    for entry in std::fs::read_dir(dir).unwrap() {
        let path = entry.unwrap().path();
        if path.is_dir() {
            rust_files(&path, found);
        } else if path.extension().is_some_and(|own| own == "rs") {
            found.push(path);
        }
    }
}

/// Names under which the types of a file stand in the description: of those that derive it, and of lists of codes.
fn described(text: &str) -> Vec<String> {
    let (mut names, mut derives, mut called, mut in_codes) = (Vec::new(), false, None, false);
    for line in text.lines().map(str::trim) {
        if line.starts_with("codes! {") {
            in_codes = true;
        } else if line.contains("derive(") && line.contains("ToSchema") {
            (derives, called) = (true, None);
        } else if let Some((_, name)) = line.split_once("schema(as = ") {
            called = name.split([')', ',']).next().map(str::to_owned);
        } else if let Some((_, rest)) =
            line.split_once("pub struct ").or_else(|| line.split_once("pub enum "))
        {
            let own: String = rest.chars().take_while(|own| own.is_alphanumeric()).collect();
            // One with a parameter is named by what it is of.
            let is_of_others = rest[own.len()..].starts_with('<');
            if derives && !is_of_others {
                names.push(called.take().unwrap_or(own));
            }
            derives = false;
        } else if in_codes && line.ends_with('{') && line.starts_with(|own: char| own.is_ascii_uppercase()) {
            names.push(line.trim_end_matches('{').trim().to_owned());
            in_codes = false;
        }
    }
    names
}

/// Two types under one name would silently be described as one of them.
#[test]
fn no_two_types_stand_under_one_name_in_the_description() {
    let crates = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).parent().unwrap();
    let mut seen: std::collections::BTreeMap<String, Vec<String>> = Default::default();
    for own in ["pastry", "plan", "devices", "store", "server"] {
        let mut files = Vec::new();
        rust_files(&crates.join(own).join("src"), &mut files);
        for file in files {
            for name in described(&std::fs::read_to_string(&file).unwrap()) {
                seen.entry(name).or_default().push(file.display().to_string());
            }
        }
    }
    assert!(seen.len() > 300, "{} names were found", seen.len());
    let twice: Vec<_> = seen.iter().filter(|own| own.1.len() > 1).collect();
    assert!(twice.is_empty(), "{twice:#?}");
}
