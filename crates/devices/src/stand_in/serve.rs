//! A stand-in on a port: as many may listen to it as like.

use crate::line::{COUNTED_TO, Line};
use crate::stand_in::play::Play;
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::time::Duration;
use tokio::io::{AsyncBufReadExt, AsyncReadExt, AsyncWriteExt, BufReader};
use tokio::net::{TcpListener, TcpStream};
use tokio::time::{Instant, MissedTickBehavior, interval};

/// How finely its time goes by.
const STEP: Duration = Duration::from_millis(50);
/// Longest line it takes, bytes.
const LONGEST: u64 = 200_000;

/// A stand-in that several may reach.
pub type Shared = Arc<Mutex<Play>>;

fn at(play: &Shared) -> MutexGuard<'_, Play> {
    play.lock().unwrap_or_else(PoisonError::into_inner)
}

/// Serves a stand-in until the listener fails.
pub async fn serve(listener: TcpListener, play: Play) {
    let play: Shared = Arc::new(Mutex::new(play));
    let clock = tokio::spawn(go(Arc::clone(&play)));
    loop {
        match listener.accept().await {
            Ok((stream, _)) => drop(tokio::spawn(talk(stream, Arc::clone(&play)))),
            Err(error) => {
                tracing::warn!(%error, "a stand-in takes no connections");
                tokio::time::sleep(STEP).await;
            }
        }
        if clock.is_finished() {
            return;
        }
    }
}

async fn go(play: Shared) {
    let mut ticks = interval(STEP);
    ticks.set_missed_tick_behavior(MissedTickBehavior::Skip);
    let mut last = Instant::now();
    loop {
        let now = ticks.tick().await;
        let seconds = (now - last).as_secs_f64();
        last = now;
        at(&play).pass(seconds);
    }
}

async fn talk(stream: TcpStream, play: Shared) {
    let _ = stream.set_nodelay(true);
    let (reader, mut writer) = stream.into_split();
    let mut lines = BufReader::new(reader.take(u64::MAX));
    let mut number = 0_u32;
    let (hello, every_s) = {
        let own = at(&play);
        (own.hello().line(number).written(), own.every_s())
    };
    number += 1;
    if at(&play).unplugged() || writer.write_all(hello.as_bytes()).await.is_err() {
        return;
    }
    let mut ticks = interval(Duration::from_secs_f64(every_s));
    ticks.set_missed_tick_behavior(MissedTickBehavior::Delay);
    let mut text = Vec::new();
    loop {
        let out = tokio::select! {
            _ = ticks.tick() => {
                let mut own = at(&play);
                // Nobody hears a device whose plug is out.
                if own.unplugged() { return }
                own.arrives(&mut number)
            }
            read = lines.read_until(b'\n', &mut text) => {
                if !matches!(read, Ok(many) if many > 0) || text.len() as u64 > LONGEST { return }
                if text.last() != Some(&b'\n') { continue }
                let asked = String::from_utf8_lossy(&text).trim_end().to_owned();
                text.clear();
                // What arrives torn is not answered: who asked hears nothing and looks.
                let Ok(line) = Line::read(&asked) else { continue };
                let mut bytes = Vec::new();
                for message in at(&play).hears(&line) {
                    bytes.extend(message.line(number).written().into_bytes());
                    number = (number + 1) % COUNTED_TO;
                }
                bytes
            }
        };
        if writer.write_all(&out).await.is_err() {
            return;
        }
    }
}
