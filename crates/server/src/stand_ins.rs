//! Stand-ins: the devices of the demo kitchen, and one by itself from the command line.

use devices::stand_in::play::Play;
use devices::stand_in::serve::serve;
use devices::{DeviceAddress, DeviceKind};
use jiff::Timestamp;
use std::net::{Ipv4Addr, SocketAddr};
use store::{By, Store, StoreError};
use tokio::net::TcpListener;

/// What the demo's devices are called, and what they play.
const DEMO: [(DeviceKind, &str, &str); 4] = [
    (DeviceKind::Scale, "Bench scale", "put 412 g"),
    (DeviceKind::Probe, "Probe", "cool from 46 C to 21 C constant 55 min"),
    (DeviceKind::Fridge, "Cream fridge", "wait 1 s"),
    (DeviceKind::Printer, "Label printer", "wait 1 s"),
];

/// Starts the four stand-ins on free ports of this machine and names them to the demo kitchen.
///
/// # Errors
/// When the file fails. A port that cannot be had leaves its device out.
pub async fn plug_in(store: &Store, now: Timestamp) -> Result<(), StoreError> {
    let mut all = Vec::new();
    for (at, (kind, name, scenario)) in DEMO.into_iter().enumerate() {
        let Ok(listener) = TcpListener::bind((Ipv4Addr::LOCALHOST, 0)).await else { continue };
        let Ok(address) = listener.local_addr() else { continue };
        let mut play = Play::new(kind, name, at as u64 + 1);
        play.scenario(scenario).expect("the demo's scenarios can be played; the tests play them");
        tokio::spawn(serve(listener, play));
        all.push(DeviceAddress { kind, name: name.to_owned(), address: address.to_string() });
    }
    let mut settings = store.devices().await?;
    settings.devices = all;
    store.save_devices(&settings, &By::at(now)).await?;
    Ok(())
}

/// Serves one stand-in until it is stopped, and says where.
///
/// # Errors
/// In words: the scenario is not understood, or the port is taken.
pub async fn one(kind: DeviceKind, port: u16, scenario: &str, seed: u64) -> Result<(), String> {
    let mut play = Play::new(kind, kind.word(), seed);
    play.scenario(scenario)?;
    let listener = TcpListener::bind(SocketAddr::from((Ipv4Addr::LOCALHOST, port)))
        .await
        .map_err(|error| format!("cannot listen on port {port} ({error}); another program may use it"))?;
    let address = listener.local_addr().map_err(|error| error.to_string())?;
    println!("A {} stands at {address}", kind.word());
    serve(listener, play).await;
    Ok(())
}
