//! What happened to a batch, as the kitchen kept it and as the batch counts it.

use jiff::{SignedDuration, Timestamp};
use pastry::batch::BatchEntry;
use store::batch::KeptBatchEvent;

/// A clock of a device that is further ahead than this is told, s.
const AHEAD_S: i64 = 120;

/// Kept events as the batch counts them, and devices whose clocks are ahead: nothing happened later than it came here.
pub fn entries(kept: &[KeptBatchEvent]) -> (Vec<BatchEntry>, Vec<String>) {
    let mut clocks: Vec<String> = Vec::new();
    let one = |own: &KeptBatchEvent| {
        let (at, came) = (own.at.parse::<Timestamp>(), own.kept_at.parse::<Timestamp>());
        let (at, came) = match (at, came) {
            (Ok(at), Ok(came)) => (at, came),
            (Ok(at), Err(_)) | (Err(_), Ok(at)) => (at, at),
            (Err(_), Err(_)) => (Timestamp::UNIX_EPOCH, Timestamp::UNIX_EPOCH),
        };
        if at.duration_since(came) > SignedDuration::from_secs(AHEAD_S) {
            let who = own.device.as_deref().unwrap_or("a device");
            let words = format!("The clock of {who} is ahead of the kitchen's: set it right.");
            if !clocks.contains(&words) {
                clocks.push(words);
            }
        }
        BatchEntry {
            id: own.id.clone(),
            at: at.min(came),
            device: own.device.clone(),
            event: own.event.clone(),
        }
    };
    let all = kept.iter().map(one).collect();
    (all, clocks)
}
