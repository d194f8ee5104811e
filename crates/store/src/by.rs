//! Who writes, when, and under which id.

use jiff::Timestamp;

/// What the page makes for each save: 8 to 64 letters, digits and hyphens.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct SaveId(String);

impl SaveId {
    /// Reads one; none when it is no such id.
    pub fn read(text: &str) -> Option<Self> {
        let fits = (8..=64).contains(&text.len())
            && text.bytes().all(|byte| byte.is_ascii_alphanumeric() || byte == b'-');
        fits.then(|| SaveId(text.to_owned()))
    }

    /// The id of one of several things saved under it.
    #[must_use]
    pub fn of_part(&self, key: &str) -> Self {
        SaveId(format!("{}:{key}", self.0))
    }

    /// As it is written.
    pub fn as_str(&self) -> &str {
        &self.0
    }
}

/// What a device calls itself: 1 to 60 letters, none of them a control character.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Device(String);

/// Most letters of a device's name.
pub const LONGEST_DEVICE: usize = 60;

impl Device {
    /// Reads one, without the space around it; none when it is no such name.
    pub fn read(text: &str) -> Option<Self> {
        let text = text.trim();
        let fits =
            (1..=LONGEST_DEVICE).contains(&text.chars().count()) && !text.chars().any(char::is_control);
        fits.then(|| Device(text.to_owned()))
    }

    /// The name.
    pub fn as_str(&self) -> &str {
        &self.0
    }
}

/// Who writes, when, and under which id.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct By {
    /// When.
    pub now: Timestamp,
    /// The device it comes from, if that said so.
    pub device: Option<Device>,
    /// The id of the save, if it has one.
    pub save_id: Option<SaveId>,
}

impl By {
    /// At this time, by nobody named.
    #[must_use]
    pub fn at(now: Timestamp) -> Self {
        By { now, device: None, save_id: None }
    }

    /// From a device.
    #[must_use]
    pub fn on(self, device: Option<Device>) -> Self {
        By { device, ..self }
    }

    /// Under the id of a save.
    #[must_use]
    pub fn under(self, save_id: Option<SaveId>) -> Self {
        By { save_id, ..self }
    }

    pub(crate) fn device(&self) -> Option<&str> {
        self.device.as_ref().map(Device::as_str)
    }

    pub(crate) fn save_id(&self) -> Option<&str> {
        self.save_id.as_ref().map(SaveId::as_str)
    }
}
