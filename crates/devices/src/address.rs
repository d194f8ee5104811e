//! Where a device is, as the kitchen's settings have it.

use serde::{Deserialize, Serialize};
use std::net::{IpAddr, SocketAddr};
use utoipa::ToSchema;

/// Most devices of a kitchen.
pub const MOST: usize = 40;
/// Longest name of one, letters.
const LONGEST_NAME: usize = 60;

/// What a device is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DeviceKind {
    /// A bench scale.
    Scale,
    /// A probe thermometer.
    Probe,
    /// A logger in a fridge.
    Fridge,
    /// A label printer.
    Printer,
}

impl DeviceKind {
    /// Every one.
    pub const ALL: [DeviceKind; 4] =
        [DeviceKind::Scale, DeviceKind::Probe, DeviceKind::Fridge, DeviceKind::Printer];

    /// As it is written.
    pub fn word(self) -> &'static str {
        match self {
            DeviceKind::Scale => "scale",
            DeviceKind::Probe => "probe",
            DeviceKind::Fridge => "fridge",
            DeviceKind::Printer => "printer",
        }
    }

    /// The one written so.
    pub fn parse(word: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|own| own.word() == word)
    }
}

/// A device of the kitchen.
#[derive(Debug, Clone, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DeviceAddress {
    /// What it is.
    pub kind: DeviceKind,
    /// What the cooks call it.
    #[schema(min_length = 1, max_length = 60)]
    pub name: String,
    /// Where it is: an address of the house's network and a port. Nothing else is ever connected to.
    #[schema(max_length = 60, example = "127.0.0.1:4721")]
    pub address: String,
}

impl DeviceAddress {
    /// Where it is.
    ///
    /// # Errors
    /// In words: it is no address and port, or none of a device.
    pub fn socket(&self) -> Result<SocketAddr, &'static str> {
        let text = self.address.trim();
        let text = match text.strip_prefix("localhost:") {
            Some(port) => format!("127.0.0.1:{port}"),
            None => text.to_owned(),
        };
        let socket: SocketAddr = text
            .parse()
            .map_err(|_| "write the device's address and port in numbers, such as 192.168.1.20:4721")?;
        let ip = socket.ip();
        let nobody = ip.is_unspecified() || ip.is_multicast() || ip == IpAddr::from([255, 255, 255, 255]);
        if nobody || socket.port() == 0 {
            return Err("no device is there: write its own address and port, such as 192.168.1.20:4721");
        }
        Ok(socket)
    }
}

/// What is wrong with a device of a kitchen.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Amiss {
    /// More than are listened to.
    TooMany,
    /// No name, or one that is too long.
    Name,
    /// A name or an address that another has.
    Twice,
    /// No address of a device.
    Address,
}

/// What is wrong with the devices of a kitchen: at which field, what, and what to do.
pub fn amiss(all: &[DeviceAddress]) -> Vec<(String, Amiss, String)> {
    let mut amiss = Vec::new();
    if all.len() > MOST {
        let words = format!("{} devices: at most {MOST} are listened to", all.len());
        amiss.push(("devices".to_owned(), Amiss::TooMany, words));
    }
    for (at, own) in all.iter().enumerate() {
        let letters = own.name.trim().chars().count();
        let name = || format!("devices.{at}.name");
        let address = || format!("devices.{at}.address");
        if letters == 0 || letters > LONGEST_NAME {
            let words = format!("a device's name has 1 to {LONGEST_NAME} letters; this has {letters}");
            amiss.push((name(), Amiss::Name, words));
        }
        if all[..at].iter().any(|other| other.name.trim() == own.name.trim()) {
            let words = format!("two devices are called “{}”: each needs its own name", own.name.trim());
            amiss.push((name(), Amiss::Twice, words));
        }
        match own.socket() {
            Err(words) => amiss.push((address(), Amiss::Address, words.to_owned())),
            Ok(socket) if all[..at].iter().any(|other| other.socket() == Ok(socket)) => {
                let words = "another device is at this address already: each has its own";
                amiss.push((address(), Amiss::Twice, words.to_owned()));
            }
            Ok(_) => {}
        }
    }
    amiss
}
