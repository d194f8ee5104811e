//! A scenario: what happens to a stand-in, one thing a line, in words and numbers.

/// Something that happens.
#[derive(Debug, Clone, PartialEq)]
pub enum Action {
    /// Nothing, for so long.
    Wait {
        /// s.
        seconds: f64,
    },
    /// Something is poured on the scale.
    Pour {
        /// What is wanted, g.
        grams: f64,
        /// How fast, g/s.
        rate: f64,
        /// What comes too much, g.
        over: f64,
    },
    /// Something is put on the scale, or taken off where it is less than nothing.
    Put {
        /// g.
        grams: f64,
    },
    /// Everything is taken off.
    TakeOff,
    /// The scale begins to creep.
    Drift {
        /// g/min.
        rate: f64,
    },
    /// The mass about the probe goes from one temperature to another as Newton's law has it.
    Cool {
        /// °C.
        from_c: f64,
        /// °C of what it stands in.
        to_c: f64,
        /// Time in which it comes to 37 % of the way that is left, min.
        constant_min: f64,
    },
    /// The probe is pulled out.
    PullOut,
    /// And put back.
    PutBack,
    /// The door of the fridge is open for so long.
    OpenDoor {
        /// s.
        seconds: f64,
    },
    /// The fridge has no power for so long.
    PowerOff {
        /// s.
        seconds: f64,
    },
    /// So much tape is in the printer.
    Tape {
        /// mm.
        mm: f64,
    },
    /// The line is dead for so long.
    Unplug {
        /// s.
        seconds: f64,
    },
    /// So many lines of garbage.
    Garbage {
        /// How many.
        lines: u32,
    },
    /// So many lines arrive torn.
    Tear {
        /// How many.
        lines: u32,
    },
    /// Everything again from the beginning.
    Repeat,
}

/// Most lines of a scenario.
const MOST_LINES: usize = 2000;

/// Reads a scenario. A `#` begins what is not read.
///
/// # Errors
/// The first line that is not understood, and what could stand there.
pub fn read(text: &str) -> Result<Vec<Action>, String> {
    let mut actions = Vec::new();
    for (at, line) in text.lines().enumerate() {
        let line = line.split('#').next().unwrap_or_default().trim();
        if line.is_empty() {
            continue;
        }
        if actions.len() >= MOST_LINES {
            return Err(format!("a scenario has at most {MOST_LINES} lines"));
        }
        actions.push(action(line).map_err(|why| format!("line {}: {why}", at + 1))?);
    }
    let takes_time = |own: &Action| own.seconds() > 0.0;
    if actions.contains(&Action::Repeat) && !actions.iter().any(takes_time) {
        return Err("a scenario that repeats needs a wait or a pour in it".to_owned());
    }
    Ok(actions)
}

impl Action {
    /// How long the next waits for it, s.
    pub fn seconds(&self) -> f64 {
        match self {
            Action::Wait { seconds } | Action::Unplug { seconds } => *seconds,
            Action::Pour { grams, rate, over } => (grams + over) / rate,
            _ => 0.0,
        }
    }
}

fn action(line: &str) -> Result<Action, String> {
    let words: Vec<&str> = line.split([' ', ',']).filter(|own| !own.is_empty()).collect();
    let number = |text: &str, [least, most]: [f64; 2]| {
        let value = text.parse::<f64>().ok().filter(|own| (least..=most).contains(own));
        value.ok_or_else(|| format!("“{text}” is no number from {least} to {most}"))
    };
    let grams = |text: &str| number(text, [-50_000.0, 50_000.0]);
    let more = |text: &str| number(text, [0.0, 50_000.0]);
    let rate = |text: &str| number(text, [0.1, 5000.0]);
    let seconds = |text: &str| number(text, [0.0, 86_400.0]);
    let lines = |text: &str| number(text, [0.0, 1000.0]).map(|own| own as u32);
    let c = |text: &str| number(text, [-60.0, 250.0]);
    Ok(match words.as_slice() {
        ["wait", own, "s"] => Action::Wait { seconds: seconds(own)? },
        ["pour", own, "g", "at", speed, "g/s"] => {
            Action::Pour { grams: more(own)?, rate: rate(speed)?, over: 0.0 }
        }
        ["pour", own, "g", "at", speed, "g/s", "overshoot", over, "g"]
        | ["pour", own, "g", "at", speed, "g/s", "overshoot", over] => {
            Action::Pour { grams: more(own)?, rate: rate(speed)?, over: more(over)? }
        }
        ["put", own, "g"] => Action::Put { grams: grams(own)? },
        ["take", "off"] => Action::TakeOff,
        ["drift", own, "g/min"] => Action::Drift { rate: number(own, [-100.0, 100.0])? },
        ["cool" | "warm", "from", from, "C", "to", to, "C", "constant", constant, "min"] => {
            Action::Cool { from_c: c(from)?, to_c: c(to)?, constant_min: number(constant, [0.01, 10_000.0])? }
        }
        ["pull", "out"] => Action::PullOut,
        ["put", "back"] => Action::PutBack,
        ["open", "door", own, "s"] => Action::OpenDoor { seconds: seconds(own)? },
        ["power", "off", own, "s"] => Action::PowerOff { seconds: seconds(own)? },
        ["tape", own, "mm"] => Action::Tape { mm: number(own, [0.0, 100_000.0])? },
        ["unplug", own, "s"] => Action::Unplug { seconds: seconds(own)? },
        ["garbage", own, "lines"] => Action::Garbage { lines: lines(own)? },
        ["tear", own, "lines"] => Action::Tear { lines: lines(own)? },
        ["repeat"] => Action::Repeat,
        _ => {
            return Err(format!(
                "“{line}” is not understood; write such as: wait 2 s; pour 90 g at 18 g/s, overshoot 6 g; put 412 g; take off; \
                 drift 0.5 g/min; cool from 45 C to 21 C constant 40 min; pull out; put back; open door 60 s; power off 600 s; \
                 tape 0 mm; unplug 3 s; garbage 5 lines; tear 3 lines; repeat"
            ));
        }
    })
}
