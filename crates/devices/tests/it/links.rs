//! Links: dropouts, torn lines, what answers at the wrong address.

use devices::address::{DeviceAddress, DeviceKind};
use devices::hub::Hub;
use devices::link::NotDone;
use devices::message::Message;
use devices::reading::{DeviceNow, DeviceState};
use devices::stand_in::play::Play;
use devices::stand_in::serve::serve;
use std::net::SocketAddr;
use std::time::Duration;
use tokio::io::AsyncWriteExt;
use tokio::net::TcpListener;

async fn stand_in(kind: DeviceKind, scenario: &str) -> SocketAddr {
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let address = listener.local_addr().unwrap();
    let mut play = Play::new(kind, "test", 3);
    play.scenario(scenario).unwrap();
    tokio::spawn(serve(listener, play));
    address
}

fn device(kind: DeviceKind, name: &str, address: SocketAddr) -> DeviceAddress {
    DeviceAddress { kind, name: name.to_owned(), address: address.to_string() }
}

/// Waits until a device is as wanted: whatever rings, and every so often in between, for what grows old rings no bell.
async fn until(hub: &Hub, at: usize, wanted: impl Fn(&DeviceNow) -> bool) -> DeviceNow {
    let mut bell = hub.bell();
    loop {
        let now = hub.now().swap_remove(at);
        if wanted(&now) {
            return now;
        }
        let _ = tokio::time::timeout(Duration::from_millis(100), bell.changed()).await;
    }
}

#[tokio::test]
async fn a_scale_is_live_is_set_to_nothing_and_pours() {
    let at = stand_in(DeviceKind::Scale, "put 120 g").await;
    let hub = Hub::default();
    hub.connect(&[device(DeviceKind::Scale, "Bench", at)]);
    let now = until(&hub, 0, |own| own.steady && own.g.is_some_and(|g| g > 119.0)).await;
    assert_eq!((now.state, now.stand_in), (DeviceState::Live, true));
    hub.ask("Bench", Message::Tare).await.unwrap();
    until(&hub, 0, |own| own.g.is_some_and(|g| g.abs() < 0.5)).await;
    let pour = Message::Play { scenario: "pour 30 g at 60 g/s, overshoot 2".to_owned() };
    hub.ask("Bench", pour).await.unwrap();
    until(&hub, 0, |own| own.steady && own.g.is_some_and(|g| (g - 32.0).abs() < 1.0)).await;
    let wrong = hub.ask("Bench", Message::Play { scenario: "fly".to_owned() }).await;
    assert!(matches!(wrong, Err(NotDone::Refused(why)) if why.contains("line 1")));
    assert_eq!(hub.ask("Nobody", Message::Tare).await, Err(NotDone::NoSuch));
}

#[tokio::test]
async fn garbage_and_torn_lines_are_counted_and_never_shown() {
    let at = stand_in(DeviceKind::Scale, "put 50 g\nwait 3 s\ngarbage 10 lines\ntear 10 lines").await;
    let hub = Hub::default();
    hub.connect(&[device(DeviceKind::Scale, "Bench", at)]);
    until(&hub, 0, |own| own.steady).await;
    until(&hub, 0, |own| {
        assert!(own.g.is_none_or(|g| (g - 50.0).abs() < 1.0), "{own:?}");
        own.torn >= 15
    })
    .await;
    // And it is heard again afterwards: then its number says how many never came.
    until(&hub, 0, |own| own.state == DeviceState::Live && own.missed > 0).await;
}

#[tokio::test]
async fn a_plug_that_is_pulled_is_away_and_comes_back_by_itself() {
    let at = stand_in(DeviceKind::Scale, "put 50 g\nwait 2 s\nunplug 1.5 s").await;
    let hub = Hub::default();
    hub.connect(&[device(DeviceKind::Scale, "Bench", at)]);
    until(&hub, 0, |own| own.state == DeviceState::Live).await;
    let away = until(&hub, 0, |own| own.state == DeviceState::Away).await;
    assert!(away.words.contains("does not answer"), "{}", away.words);
    assert_eq!(hub.ask("Bench", Message::Tare).await, Err(NotDone::Away));
    until(&hub, 0, |own| own.state == DeviceState::Live).await;
}

#[tokio::test]
async fn what_says_nothing_is_old_and_is_tried_anew() {
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let at = listener.local_addr().unwrap();
    let (came, mut comes) = tokio::sync::mpsc::channel(8);
    tokio::spawn(async move {
        loop {
            let (mut stream, _) = listener.accept().await.unwrap();
            let hello = Message::Hello { kind: DeviceKind::Probe, name: "x".to_owned(), stand_in: false };
            let read = Message::Temperature { c: 36.2 };
            let text = hello.line(0).written() + &read.line(1).written();
            stream.write_all(text.as_bytes()).await.unwrap();
            came.send(stream).await.unwrap();
        }
    });
    let hub = Hub::default();
    hub.connect(&[device(DeviceKind::Probe, "Probe", at)]);
    let _first = comes.recv().await.unwrap();
    let live = until(&hub, 0, |own| own.state == DeviceState::Live).await;
    assert!(live.c.is_some_and(|c| (c - 36.2).abs() < 1e-9));
    let old = until(&hub, 0, |own| own.state == DeviceState::Old).await;
    // What it showed stays to be seen, and is not called live.
    assert!(old.c.is_some() && old.words.contains("old"), "{old:?}");
    let _second = comes.recv().await.unwrap();
}

#[tokio::test]
async fn another_device_at_its_address_is_said_and_not_read() {
    let at = stand_in(DeviceKind::Fridge, "wait 1 s").await;
    let hub = Hub::default();
    hub.connect(&[device(DeviceKind::Probe, "Probe", at)]);
    let now = until(&hub, 0, |own| own.state == DeviceState::Wrong).await;
    assert!(now.c.is_none() && now.words.contains("answers a fridge"), "{now:?}");
    assert_eq!(hub.ask("Probe", Message::Tare).await, Err(NotDone::Away));
}

#[tokio::test]
async fn only_what_the_settings_name_is_connected_to() {
    let [first, second] =
        [stand_in(DeviceKind::Scale, "wait 1 s").await, stand_in(DeviceKind::Probe, "wait 1 s").await];
    let hub = Hub::default();
    hub.connect(&[device(DeviceKind::Scale, "Bench", first), device(DeviceKind::Probe, "Probe", second)]);
    until(&hub, 1, |own| own.state == DeviceState::Live).await;
    hub.connect(&[device(DeviceKind::Probe, "Probe", second)]);
    let now = hub.now();
    assert_eq!((now.len(), now[0].state), (1, DeviceState::Live), "what stays is not connected anew");
    assert_eq!(hub.ask("Bench", Message::Tare).await, Err(NotDone::NoSuch));
}

#[tokio::test]
async fn a_printer_fills_the_tray() {
    let at = stand_in(DeviceKind::Printer, "tape 45 mm").await;
    let hub = Hub::default();
    hub.connect(&[device(DeviceKind::Printer, "Labels", at)]);
    until(&hub, 0, |own| own.state == DeviceState::Live).await;
    let print = |job: &str| Message::Print { job: job.to_owned(), text: "Bay drip\n324 g".to_owned() };
    hub.ask("Labels", print("a")).await.unwrap();
    hub.ask("Labels", print("a")).await.unwrap();
    assert_eq!(hub.tray().len(), 2, "a job that comes twice is printed once");
    assert!(hub.picture("a", "png").is_some_and(|own| own.starts_with("iVBORw0KGgo")));
    hub.ask("Labels", print("b")).await.unwrap();
    let why = hub.ask("Labels", print("c")).await;
    assert!(matches!(why, Err(NotDone::Refused(why)) if why.contains("new roll")));
    until(&hub, 0, |own| own.state == DeviceState::Faulty && own.words.contains("tape")).await;
}
