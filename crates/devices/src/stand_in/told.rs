//! A scale that shows what it is told: how long a weight takes to the eye is measured with it.

use crate::address::DeviceKind;
use crate::message::Message;
use std::net::SocketAddr;
use std::time::Duration;
use tokio::io::AsyncWriteExt;
use tokio::net::TcpListener;
use tokio::sync::mpsc::UnboundedReceiver;

/// As often as a scale speaks.
const EVERY: Duration = Duration::from_millis(100);

/// Puts one on a free port of this machine: it says a weight, g, as soon as it is told, and again ten times a second. It ends with
/// the one who tells it.
///
/// # Errors
/// When no port is free.
pub async fn told(mut says: UnboundedReceiver<f64>) -> std::io::Result<SocketAddr> {
    let listener = TcpListener::bind("127.0.0.1:0").await?;
    let address = listener.local_addr()?;
    tokio::spawn(async move {
        let Ok((mut stream, _)) = listener.accept().await else { return };
        let _ = stream.set_nodelay(true);
        let hello = Message::Hello { kind: DeviceKind::Scale, name: "told".to_owned(), stand_in: false };
        let mut number = 0;
        let mut line = |message: &Message| -> String {
            number += 1;
            message.line(number).written()
        };
        let _ = stream.write_all(line(&hello).as_bytes()).await;
        let mut g = 0.0;
        loop {
            match tokio::time::timeout(EVERY, says.recv()).await {
                Ok(None) => return,
                Ok(Some(next)) => g = next,
                Err(_) => {}
            }
            let weight = Message::Weight { g, step_g: 0.1, steady: true, tare_g: 0.0 };
            if stream.write_all(line(&weight).as_bytes()).await.is_err() {
                return;
            }
        }
    });
    Ok(address)
}
