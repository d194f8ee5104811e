//! The time zone of a kitchen: what the clock on its wall shows at a moment, and when a time on that clock is.
//!
//! Zones and their rules are those of the IANA time zone database, built in: no file of the machine is read.

use jiff::Timestamp;
use jiff::civil::DateTime;
use jiff::tz::{TimeZone, TimeZoneDatabase};
use serde::{Deserialize, Serialize};
use std::fmt;
use std::sync::LazyLock;
use utoipa::ToSchema;

static ZONES: LazyLock<TimeZoneDatabase> = LazyLock::new(TimeZoneDatabase::bundled);

/// A time zone by its name in the IANA database: `Europe/Lisbon`.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(try_from = "String", into = "String")]
#[schema(value_type = String, max_length = 60, example = "Europe/Lisbon")]
pub struct Zone(TimeZone);

/// A name that no time zone has.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct NoZone(String);

impl fmt::Display for NoZone {
    fn fmt(&self, f: &mut fmt::Formatter) -> fmt::Result {
        let shown: String = self.0.chars().take(60).collect();
        write!(
            f,
            "no time zone is called “{shown}”: write one by its region and city, as Europe/Lisbon, or UTC"
        )
    }
}

impl std::error::Error for NoZone {}

impl TryFrom<String> for Zone {
    type Error = NoZone;

    fn try_from(name: String) -> Result<Self, NoZone> {
        match ZONES.get(name.trim()) {
            Ok(zone) => Ok(Zone(zone)),
            Err(_) => Err(NoZone(name)),
        }
    }
}

impl From<Zone> for String {
    fn from(zone: Zone) -> String {
        zone.name().to_owned()
    }
}

impl Default for Zone {
    fn default() -> Self {
        Zone(TimeZone::UTC)
    }
}

impl Zone {
    /// Its name.
    pub fn name(&self) -> &str {
        self.0.iana_name().unwrap_or("UTC")
    }

    /// The names of all of them, in their order.
    pub fn names() -> Vec<String> {
        ZONES.available().map(|name| name.to_string()).collect()
    }

    /// What the clock on the wall shows at a moment.
    pub fn wall(&self, moment: Timestamp) -> DateTime {
        self.0.to_datetime(moment)
    }

    /// When the clock on the wall shows this: the first time where it shows it twice; where it never does, because clocks
    /// go forward over it, as much later as they go forward.
    pub fn moment(&self, wall: DateTime) -> Timestamp {
        self.0.to_ambiguous_timestamp(wall).compatible().unwrap_or(Timestamp::UNIX_EPOCH)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn zone(name: &str) -> Zone {
        Zone::try_from(name.to_owned()).unwrap()
    }

    fn wall(text: &str) -> DateTime {
        text.parse().unwrap()
    }

    /// IANA time zone database: in Lisbon clocks go from 01:00 to 02:00 on 29 March 2026 and from 02:00 back to 01:00 on
    /// 25 October 2026 (both at 01:00 UTC); Kathmandu is 5:45 ahead, all year.
    #[test]
    fn a_time_on_the_wall_is_a_moment_and_back() {
        let lisbon = zone("Europe/Lisbon");
        for (shown, utc) in [
            ("2026-01-15T06:00", "2026-01-15T06:00:00Z"),
            ("2026-07-15T06:00", "2026-07-15T05:00:00Z"),
            // Shown twice: the first.
            ("2026-10-25T01:30", "2026-10-25T00:30:00Z"),
        ] {
            let moment = lisbon.moment(wall(shown));
            assert_eq!(moment, utc.parse().unwrap(), "{shown}");
            assert_eq!(lisbon.wall(moment), wall(shown));
        }
        // Never shown: an hour later.
        let skipped = lisbon.moment(wall("2026-03-29T01:30"));
        assert_eq!(lisbon.wall(skipped), wall("2026-03-29T02:30"));
        assert_eq!(
            zone("Asia/Kathmandu").wall("2026-06-01T00:00:00Z".parse().unwrap()),
            wall("2026-06-01T05:45")
        );
    }

    #[test]
    fn a_night_shift_is_as_long_as_it_is() {
        // From 22:00 to 06:00 over the night clocks go back: nine hours.
        let lisbon = zone("Europe/Lisbon");
        let span =
            ["2026-10-24T22:00", "2026-10-25T06:00"].map(|shown| lisbon.moment(wall(shown)).as_second());
        assert_eq!(span[1] - span[0], 9 * 3600);
    }

    #[test]
    fn a_name_nobody_has_is_refused_in_words() {
        let refused = Zone::try_from("Middle/Earth".to_owned()).unwrap_err().to_string();
        assert!(refused.contains("Middle/Earth") && refused.contains("Europe/Lisbon"), "{refused}");
        assert_eq!(zone(" utc ").name(), "UTC");
        assert!(Zone::names().len() > 300 && Zone::names().contains(&"America/Bogota".to_owned()));
    }
}
