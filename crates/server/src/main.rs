//! The one binary: serves the page, answers from a file, prints its own description.

use clap::Parser;
use pastry::scale::Target;
use server::config::{Cli, Command, Serve};
use server::{commands, formats, openapi, serve, shape};
use std::process::ExitCode;

/// Exit code for bad input.
const BAD_INPUT: u8 = 2;
/// Exit code for an answer that is not whole: something in it is not known.
const INCOMPLETE: u8 = 3;

fn main() -> ExitCode {
    shape::describe(openapi::document);
    match Cli::parse().command {
        Command::Serve(options) => run(options),
        Command::Predict { file } => answer(commands::predict(&file)),
        Command::Balance { file } => answer(commands::balance(&file)),
        Command::Swap { file } => answer(commands::swap_file(&file)),
        Command::Rescue { file, sign, bowl_c, bowl_g } => {
            answer(commands::rescue_bowl(&file, &sign, bowl_c, bowl_g))
        }
        Command::Scale { file, grams, times, pieces, each, loss } => {
            let target = match (grams, times, pieces.zip(each)) {
                (Some(grams), ..) => Some(Target::Mass { grams }),
                (_, Some(by), _) => Some(Target::Factor { by }),
                (.., Some((count, each))) => Some(Target::Pieces { count, each, by_volume: false }),
                _ => None,
            };
            answer(commands::scale_to(&file, target, loss))
        }
        Command::Cool { file } => answer(commands::cool_file(&file)),
        Command::Boil { file } => answer(commands::boil_file(&file)),
        Command::Methods { file } => answer(commands::methods(&file)),
        Command::Batch { file } => answer(commands::batch_file(&file)),
        Command::Stack { file, room } => whole(commands::stack_file(&file, room)),
        Command::Order { file, list } => whole(commands::order_file(&file, list.as_deref())),
        Command::Recipe { file } => whole(commands::recipe_file(&file)),
        Command::Compare { files } => answer(commands::compare_files(&files)),
        Command::Convert { amount, ingredient, measures } => {
            answer(commands::convert_words(&amount, &ingredient, measures))
        }
        Command::Families { key } => answer(commands::list_families(key.as_deref())),
        Command::Ingredients { search } => print(&commands::list_ingredients(&search)),
        Command::Backup { file, data } => copies(commands::copies::backup_kitchen(data, &file)),
        Command::Verify { file } => copies(commands::copies::verify_kitchen(file)),
        Command::Restore { file, data } => copies(commands::copies::restore_kitchen(&file, data)),
        Command::Plan(ask) => whole(commands::day::plan_files(&ask)),
        Command::Device { kind, port, scenario, seed } => device(kind, port, scenario.as_deref(), seed),
        Command::Openapi => print(openapi::pretty().trim_end()),
        Command::Schema { format } => answer(schema(&format)),
    }
}

/// Prints an answer, or says what is wrong and exits with 2.
fn answer(outcome: Result<String, String>) -> ExitCode {
    match outcome {
        Ok(answer) => print(&answer),
        Err(words) => {
            eprintln!("{words}");
            ExitCode::from(BAD_INPUT)
        }
    }
}

/// Prints an answer that may not be whole: then it says so and exits with 3.
fn whole(outcome: Result<commands::Told, String>) -> ExitCode {
    let told = match outcome {
        Ok(told) => told,
        Err(words) => return answer(Err(words)),
    };
    let printed = print(&told.answer);
    if told.incomplete.is_empty() {
        return printed;
    }
    for words in &told.incomplete {
        eprintln!("INCOMPLETE: {words}");
    }
    ExitCode::from(INCOMPLETE)
}

/// Does something to files of kitchens and prints what came of it.
fn copies(work: impl Future<Output = Result<String, String>>) -> ExitCode {
    let runtime = match tokio::runtime::Builder::new_current_thread().enable_all().build() {
        Ok(runtime) => runtime,
        Err(error) => {
            eprintln!("cannot begin: {error}");
            return ExitCode::FAILURE;
        }
    };
    match runtime.block_on(work) {
        Ok(words) => print(&words),
        Err(words) => {
            eprintln!("{words}");
            ExitCode::FAILURE
        }
    }
}

fn schema(name: &str) -> Result<String, String> {
    let known = || formats::FORMATS.map(|format| format.name).join(", ");
    let format = formats::FORMATS
        .iter()
        .find(|format| format.name == name)
        .ok_or_else(|| format!("schema: there is no format {name}: write one of {}", known()))?;
    serde_json::to_string_pretty(&openapi::schema(format)).map_err(|error| error.to_string())
}

/// Prints a line; a reader that stops early (as `head` does) is no failure.
fn print(text: &str) -> ExitCode {
    use std::io::Write;
    match writeln!(std::io::stdout(), "{text}") {
        Err(error) if error.kind() != std::io::ErrorKind::BrokenPipe => {
            eprintln!("cannot write the answer: {error}");
            ExitCode::FAILURE
        }
        _ => ExitCode::SUCCESS,
    }
}

/// Stands in for a device until it is stopped.
#[tokio::main]
async fn device(
    kind: devices::DeviceKind,
    port: u16,
    scenario: Option<&std::path::Path>,
    seed: u64,
) -> ExitCode {
    let text = scenario.map_or_else(|| Ok(String::new()), commands::text_of);
    let text = match text {
        Ok(text) => text,
        Err(words) => return answer(Err(words)),
    };
    let mut signals = match serve::Signals::listen() {
        Ok(signals) => signals,
        Err(error) => return answer(Err(format!("this machine gives no signals: {error}"))),
    };
    tokio::select! {
        ended = server::stand_ins::one(kind, port, &text, seed) => answer(ended.map(|()| String::new())),
        () = signals.asked_to_stop() => ExitCode::SUCCESS,
    }
}

#[tokio::main]
async fn run(options: Serve) -> ExitCode {
    serve::start_log(options.log);
    // Before anything is printed: who reads the address may ask to stop at once.
    let mut signals = match serve::Signals::listen() {
        Ok(signals) => signals,
        Err(error) => {
            eprintln!("this machine gives no signals ({error}), so it could not be stopped cleanly");
            return ExitCode::FAILURE;
        }
    };
    let running = match serve::start(&options).await {
        Ok(running) => running,
        Err(words) => {
            eprintln!("{words}");
            return ExitCode::FAILURE;
        }
    };
    println!("Bright Spoon is at http://{}", running.address);
    if options.demo {
        println!("This is the demo kitchen: what you change is gone when it stops (Ctrl+C).");
    }
    signals.asked_to_stop().await;
    tracing::info!("stopping");
    running.stop().await;
    ExitCode::SUCCESS
}
