//! One connection to a device: it comes back by itself, and is believed only what arrives whole.

use crate::address::DeviceAddress;
use crate::line::{COUNTED_TO, LONGEST, Line};
use crate::message::Message;
use crate::reading::Heard;
use std::collections::HashMap;
use std::net::SocketAddr;
use std::sync::{Arc, Mutex, PoisonError};
use std::time::Duration;
use tokio::io::{AsyncReadExt, AsyncWriteExt};
use tokio::net::TcpStream;
use tokio::sync::{mpsc, oneshot, watch};
use tokio::time::{Instant, timeout};

/// First and longest rest before a device is tried again.
pub const RESTS: [Duration; 2] = [Duration::from_millis(250), Duration::from_secs(8)];
/// A device that does not let us in for so long is away.
const LETS_IN: Duration = Duration::from_secs(3);
/// A device that says nothing at all for so long is left and tried anew.
pub const SILENT: Duration = Duration::from_secs(6);

/// What came of a wish.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum NotDone {
    /// No device of that name.
    #[error("no device of this kitchen is called so")]
    NoSuch,
    /// Nothing answers.
    #[error("it is not connected now: look whether it is on")]
    Away,
    /// It said no, and why.
    #[error("{0}")]
    Refused(String),
    /// It did not say whether it did.
    #[error("it did not say whether that was done: look at it before it is tried again")]
    NoAnswer,
}

/// A wish on its way to a device.
pub(crate) struct Wish {
    pub message: Message,
    pub answer: oneshot::Sender<Result<(), NotDone>>,
}

/// What a link shares with who looks at it.
#[derive(Debug)]
pub struct Shared {
    /// What was heard.
    pub heard: Mutex<Heard>,
    /// Pictures that came out of a printer's stand-in.
    pub pictures: Mutex<Vec<(String, String, String)>>,
    /// Rung whenever anything is different to the eye.
    pub bell: watch::Sender<u64>,
}

/// Pictures kept of a tray.
const IN_TRAY: usize = 60;

impl Shared {
    /// Nothing heard yet.
    pub fn new(bell: watch::Sender<u64>) -> Self {
        Shared { heard: Mutex::default(), pictures: Mutex::default(), bell }
    }

    fn heard(&self, what: impl FnOnce(&mut Heard) -> bool) {
        if what(&mut self.heard.lock().unwrap_or_else(PoisonError::into_inner)) {
            self.bell.send_modify(|count| *count += 1);
        }
    }
}

/// Keeps a device connected until its wishes end.
pub(crate) async fn keep(of: DeviceAddress, shared: Arc<Shared>, mut wishes: mpsc::Receiver<Wish>) {
    let Ok(socket) = of.socket() else { return };
    let mut rest = RESTS[0];
    loop {
        let begun = Instant::now();
        match once(&of, socket, &shared, &mut wishes).await {
            Ended::Over => return,
            Ended::Lost(why) => tracing::debug!(device = %of.name, why, "a device is away"),
        }
        shared.heard(|own| {
            let was = own.connected;
            (own.connected, own.hello) = (false, None);
            was
        });
        // Who stayed a while is tried soon; who is not there ever more seldom.
        rest = if begun.elapsed() > RESTS[1] { RESTS[0] } else { (2 * rest).min(RESTS[1]) };
        let wait = tokio::time::sleep(rest);
        tokio::pin!(wait);
        loop {
            tokio::select! {
                () = &mut wait => break,
                wish = wishes.recv() => match wish {
                    None => return,
                    Some(wish) => { let _ = wish.answer.send(Err(NotDone::Away)); }
                },
            }
        }
    }
}

enum Ended {
    /// Nobody wants it any more.
    Over,
    /// It went away, and how.
    Lost(&'static str),
}

async fn once(
    of: &DeviceAddress,
    socket: SocketAddr,
    shared: &Shared,
    wishes: &mut mpsc::Receiver<Wish>,
) -> Ended {
    let Ok(Ok(mut stream)) = timeout(LETS_IN, TcpStream::connect(socket)).await else {
        return Ended::Lost("nothing answers");
    };
    let _ = stream.set_nodelay(true);
    shared.heard(|own| {
        own.connected = true;
        true
    });
    let (mut reader, mut writer) = stream.split();
    let mut lines = Lines::default();
    let mut open: HashMap<u32, oneshot::Sender<Result<(), NotDone>>> = HashMap::new();
    let (mut sent, mut last) = (0_u32, None::<u32>);
    let mut piece = vec![0; 8192];
    let ended = loop {
        tokio::select! {
            read = timeout(SILENT, reader.read(&mut piece)) => {
                let many = match read {
                    Err(_) => break Ended::Lost("it says nothing"),
                    Ok(Err(_) | Ok(0)) => break Ended::Lost("it hung up"),
                    Ok(Ok(many)) => many,
                };
                for text in lines.take(&piece[..many]) {
                    let message = text.and_then(|text| {
                        let line = Line::read(&text).ok()?;
                        let missed = last.map_or(0, |last| (line.number + COUNTED_TO - last - 1) % COUNTED_TO);
                        // A number that goes back is a device that began anew, not a million lines.
                        if missed > 0 && missed < COUNTED_TO / 2 {
                            shared.heard(|own| { own.missed += u64::from(missed); true });
                        }
                        last = Some(line.number);
                        Message::read(&line).ok()
                    });
                    match message {
                        None => shared.heard(|own| { own.torn += 1; true }),
                        // A word of a later version is none of ours.
                        Some(None) => {}
                        Some(Some(Message::Done { of })) => {
                            if let Some(asked) = open.remove(&of) { let _ = asked.send(Ok(())); }
                        }
                        Some(Some(Message::Refused { of, why })) => {
                            if let Some(asked) = open.remove(&of) { let _ = asked.send(Err(NotDone::Refused(why))); }
                        }
                        Some(Some(Message::Picture { job, form, data })) => {
                            let mut tray = shared.pictures.lock().unwrap_or_else(PoisonError::into_inner);
                            tray.retain(|own| (&own.0, &own.1) != (&job, &form));
                            tray.push((job, form, data));
                            let many = tray.len();
                            tray.drain(..many.saturating_sub(IN_TRAY));
                            shared.bell.send_modify(|count| *count += 1);
                        }
                        Some(Some(message)) => shared.heard(|own| own.takes(message, Instant::now())),
                    }
                }
            }
            wish = wishes.recv() => {
                let Some(wish) = wish else { break Ended::Over };
                // Nothing is asked of what answers at the address and is another device.
                let kind = shared.heard.lock().unwrap_or_else(PoisonError::into_inner).hello.map(|own| own.0);
                if kind != Some(of.kind) {
                    let _ = wish.answer.send(Err(NotDone::Away));
                    continue;
                }
                let line = wish.message.line(sent).written();
                open.insert(sent, wish.answer);
                sent = (sent + 1) % COUNTED_TO;
                if !matches!(timeout(LETS_IN, writer.write_all(line.as_bytes())).await, Ok(Ok(()))) {
                    break Ended::Lost("it takes nothing");
                }
            }
        }
    };
    for (_, asked) in open {
        let _ = asked.send(Err(NotDone::NoAnswer));
    }
    ended
}

/// Parts what arrives into lines.
#[derive(Debug, Default)]
struct Lines {
    begun: Vec<u8>,
    /// The line that arrives is too long and is skipped to its end.
    skips: bool,
}

impl Lines {
    /// The lines that are whole now; none for one that is torn.
    fn take(&mut self, piece: &[u8]) -> Vec<Option<String>> {
        let mut whole = Vec::new();
        for byte in piece {
            match byte {
                b'\n' => {
                    let line = std::mem::take(&mut self.begun);
                    let skipped = std::mem::take(&mut self.skips);
                    whole.push(String::from_utf8(line).ok().filter(|_| !skipped));
                }
                _ if self.begun.len() > LONGEST => {
                    self.begun.clear();
                    self.skips = true;
                }
                b'\r' => {}
                _ if self.skips => {}
                _ => self.begun.push(*byte),
            }
        }
        whole
    }
}
