//! The one binary: serves the page, answers from a file, prints its own description.

use clap::Parser;
use server::config::{Cli, Command, Serve};
use server::{openapi, predict, serve};
use std::process::ExitCode;

/// Exit code for bad input.
const BAD_INPUT: u8 = 2;

fn main() -> ExitCode {
    match Cli::parse().command {
        Command::Serve(options) => run(options),
        Command::Predict { file } => match predict::predict(&file) {
            Ok(answer) => print(&answer),
            Err(words) => {
                eprintln!("{words}");
                ExitCode::from(BAD_INPUT)
            }
        },
        Command::Openapi => print(openapi::pretty().trim_end()),
        Command::Schema => match serde_json::to_string_pretty(&openapi::formula_schema()) {
            Ok(schema) => print(&schema),
            Err(error) => {
                eprintln!("{error}");
                ExitCode::FAILURE
            }
        },
    }
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
