//! The command line.

use clap::{Args, Parser, Subcommand, ValueEnum};
use devices::DeviceKind;
use pastry::units::kitchen::Measures;
use std::path::PathBuf;

/// Bright Spoon: formulates creams and says what they will do.
#[derive(Debug, Parser)]
#[command(name = "bright-spoon", version, about)]
pub struct Cli {
    /// What to do.
    #[command(subcommand)]
    pub command: Command,
}

/// What the program can do.
#[derive(Debug, Subcommand)]
pub enum Command {
    /// Serve the page and the JSON interface on this machine.
    Serve(Serve),
    /// Read a formula (JSON, see `schema`) and print what it will do, by the book: as the interface would in a kitchen that tested
    /// nothing.
    Predict {
        /// The file; - reads standard input.
        file: PathBuf,
    },
    /// Read a formula and print the smallest ways into its window, as the interface would.
    Balance {
        /// The file; - reads standard input.
        file: PathBuf,
    },
    /// Read a formula with what is asked of it (as POST /api/swap takes it) and print ways to do it.
    Swap {
        /// The file; - reads standard input.
        file: PathBuf,
    },
    /// Read a formula and print what to do about what is seen in the bowl.
    Rescue {
        /// The file; - reads standard input.
        file: PathBuf,
        /// What is seen: split, too_stiff, too_loose, grainy …
        #[arg(long)]
        sign: String,
        /// How warm the bowl is, °C.
        #[arg(long, allow_hyphen_values = true)]
        bowl_c: Option<f64>,
        /// What is really in the bowl, g.
        #[arg(long)]
        bowl_g: Option<f64>,
    },
    /// Read a formula and print it at another size: scale FILE --grams 2000, --times 3, --pieces 24 --each 85.
    Scale {
        /// The file; - reads standard input.
        file: PathBuf,
        /// To so many grams.
        #[arg(long, group = "size")]
        grams: Option<f64>,
        /// So many times.
        #[arg(long, group = "size")]
        times: Option<f64>,
        /// For so many pieces.
        #[arg(long, group = "size", requires = "each")]
        pieces: Option<u32>,
        /// In each piece, g.
        #[arg(long)]
        each: Option<f64>,
        /// What stays in bowl and bag, per cent of the batch.
        #[arg(long, default_value_t = 0.0)]
        loss: f64,
    },
    /// Read a formula in its vessel, or a bare body (as POST /api/clock takes them), and print when it is ready.
    Cool {
        /// The file; - reads standard input.
        file: PathBuf,
    },
    /// Read a formula over a ring (as POST /api/clock/boil takes it) and print when to stop.
    Boil {
        /// The file; - reads standard input.
        file: PathBuf,
    },
    /// Read a formula and print the schools it can be made by, step by step.
    Methods {
        /// The file; - reads standard input.
        file: PathBuf,
    },
    /// Read a batch with what happened to it, and print where it is.
    Batch {
        /// The file; - reads standard input.
        file: PathBuf,
    },
    /// Read a cake and print how much of everything it takes and whether it stands.
    Stack {
        /// The file, with the formulas it needs in it; - reads standard input.
        file: PathBuf,
        /// The room it is eaten in, °C.
        #[arg(long, default_value_t = 21.0)]
        room: f64,
    },
    /// Read an order and print what to make, buy and label.
    Order {
        /// The file, with the formulas it needs in it; - reads standard input.
        file: PathBuf,
        /// Only one list, as CSV: shopping, weighing, bill or labels.
        #[arg(long)]
        list: Option<String>,
    },
    /// Read a formula, a cake, an order or a Schema.org Recipe and print it as a Recipe in JSON-LD.
    Recipe {
        /// The file; - reads standard input.
        file: PathBuf,
    },
    /// Read two or three formulas and print them side by side, what differs marked.
    Compare {
        /// The files.
        #[arg(num_args = 2..=3, required = true)]
        files: Vec<PathBuf>,
    },
    /// Weigh an amount: convert "1 1/2 cups" cream36
    Convert {
        /// As a cook writes it.
        amount: String,
        /// Key of the ingredient.
        ingredient: String,
        /// Whose cups and spoons: us, metric, australian, imperial.
        #[arg(long, default_value = "us", value_parser = measures)]
        measures: Measures,
    },
    /// Print the families of creams with their jobs and a starting formula for each.
    Families {
        /// Only this one.
        key: Option<String>,
    },
    /// Print the ingredients of the catalogue.
    Ingredients {
        /// Words to look for; slips are forgiven.
        #[arg(long, default_value = "")]
        search: String,
    },
    /// Copy a kitchen's file, also while it is served; the copy is opened and checked.
    Backup {
        /// The copy to make; nothing is overwritten.
        file: PathBuf,
        /// The kitchen's file; the usual one when not said.
        #[arg(long)]
        data: Option<PathBuf>,
    },
    /// Check a kitchen's file, or a copy of one: its pages, and every document against its hash.
    Verify {
        /// The file; the usual kitchen's when not said.
        file: Option<PathBuf>,
    },
    /// Put a copy in the place of a kitchen that nobody serves; the old files are set aside.
    Restore {
        /// The copy.
        file: PathBuf,
        /// The kitchen's file; the usual one when not said.
        #[arg(long)]
        data: Option<PathBuf>,
    },
    /// Plan orders, or problems, so that everything is ready together: plan ORDER… --kitchen FILE.
    Plan(crate::commands::day::Plan),
    /// Stand in for a device that is not there: device scale --port 4721 --scenario FILE (see docs/DEVICES.md).
    Device {
        /// scale, probe, fridge or printer.
        #[arg(value_parser = device_kind)]
        kind: DeviceKind,
        /// Port of this machine it stands at; 0 picks a free one.
        #[arg(long, default_value_t = 0)]
        port: u16,
        /// What happens to it; - reads standard input.
        #[arg(long)]
        scenario: Option<PathBuf>,
        /// Its noise: the same seed, the same noise.
        #[arg(long, default_value_t = 1)]
        seed: u64,
    },
    /// Print the OpenAPI description of the interface.
    Openapi,
    /// Print the JSON Schema of an open format.
    Schema {
        /// formula-1, ingredient-1, pantry-1, stack-1, order-1, kitchen-1, batch-1 or log-1.
        #[arg(default_value = "formula-1")]
        format: String,
    },
}

fn measures(word: &str) -> Result<Measures, String> {
    serde_json::from_value(word.into()).map_err(|_| "write us, metric, australian or imperial".to_owned())
}

fn device_kind(word: &str) -> Result<DeviceKind, String> {
    DeviceKind::parse(word).ok_or_else(|| "write scale, probe, fridge or printer".to_owned())
}

/// How to serve.
#[derive(Debug, Clone, Args)]
pub struct Serve {
    /// Address to listen on; the default is reachable from this machine only.
    #[arg(long, default_value = "127.0.0.1")]
    pub host: std::net::IpAddr,
    /// Port to listen on; 0 picks a free one.
    #[arg(long, default_value_t = 4710)]
    pub port: u16,
    /// The kitchen's file; made when missing.
    #[arg(long, conflicts_with = "demo")]
    pub data: Option<PathBuf>,
    /// Serve an invented kitchen in a throwaway file; never touches a real one.
    #[arg(long)]
    pub demo: bool,
    /// Begin an empty kitchen where one was; what is left of that one is set aside.
    #[arg(long, conflicts_with = "demo")]
    pub new: bool,
    /// A name this machine is reached by, beside its address and localhost; may be given more than once.
    #[arg(long = "name")]
    pub names: Vec<String>,
    /// What the pictures of this kitchen's batches may take, MB.
    #[arg(long, default_value_t = store::picture::MOST_BYTES / 1_000_000)]
    pub pictures_mb: u64,
    /// Form of the log on standard error.
    #[arg(long, value_enum, default_value_t = LogForm::Text)]
    pub log: LogForm,
}

impl Serve {
    /// On a free port of this machine: a kitchen's file, or the demo kitchen when none is given.
    pub fn here(data: Option<PathBuf>) -> Self {
        Serve {
            host: std::net::Ipv4Addr::LOCALHOST.into(),
            port: 0,
            demo: data.is_none(),
            data,
            new: false,
            names: Vec::new(),
            pictures_mb: store::picture::MOST_BYTES / 1_000_000,
            log: LogForm::Text,
        }
    }
}

/// Forms of the log.
#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub enum LogForm {
    /// Fields as key=value.
    Text,
    /// One JSON object per line.
    Json,
}

/// Where a kitchen's file is kept when nobody says: the user's data folder.
///
/// # Errors
/// When the machine names no home folder.
pub fn default_data_file() -> Result<PathBuf, String> {
    let set = |name: &str| std::env::var_os(name).filter(|value| !value.is_empty()).map(PathBuf::from);
    set("XDG_DATA_HOME")
        .or_else(|| set("HOME").map(|home| home.join(".local/share")))
        .map(|base| base.join("bright-spoon/kitchen.db"))
        .ok_or_else(|| {
            "no home folder is known here: say where the kitchen's file is with --data FILE".to_owned()
        })
}
