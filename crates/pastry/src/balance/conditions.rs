//! Ways without a scale: another temperature, longer in the cold, air beaten in or out, heat that was left out.

use crate::balance::edges::Asked;
use crate::balance::search::{Candidate, Search};
use crate::balance::single::nearest_met;
use crate::balance::way::WayKind;
use crate::formula::process::WhipStage;
use crate::formula::system::Continuous;
use crate::formula::{Mixture, Setting, WeighedLine};
use crate::ingredient::Role;
use crate::rheology::Options;
use crate::rheology::kernel::Prepared;
use crate::rheology::warning::{WarningCode, boils_c};
use crate::rheology::whipping::{fat_of_the_liquid, overrun_at};
use crate::units::{CookTemperature, Hours, Overrun, Temperature};

/// Where the enzyme of raw fruit ends, °C (common practice).
const ENZYME_ENDS_C: f64 = 85.0;
/// A boil, °C: what a cook takes a starch to where its own need is lower.
const BOIL_C: f64 = 96.0;
/// Longest that anybody waits for a cream, h.
const LONGEST_WAIT_H: f64 = 24.0;

impl Search<'_> {
    pub(super) fn temperature(&self) -> Option<Candidate> {
        let asked = self.asked();
        let prepared = Prepared::new(
            &Mixture::of(&self.lines),
            self.document.family.traits().system,
            &self.document.work.job.options(self.options),
        );
        let (t_c, hottest) = (asked.t_c, self.document.grid().hottest_c());
        let met = |t: f64| asked.met_by(&prepared, t, self.margin, self.most_split);
        let coldest = self.document.family.traits().worked_from_c.min(t_c);
        let found = nearest_met(t_c, coldest, hottest, met)?;
        // Half degrees, away from the edge just found.
        let rounded = if found > t_c { (2.0 * found).ceil() / 2.0 } else { (2.0 * found).floor() / 2.0 }
            .clamp(coldest, hottest);
        if rounded < t_c && !self.stays_long_enough(&prepared, rounded) {
            return None;
        }
        let mut document = self.document.clone();
        document.work.temperature_c = Temperature::from_celsius(rounded);
        let verb = if rounded > t_c { "Warm to" } else { "Cool to" };
        // A thermometer is nearer than a scale: nothing in the bowl changes.
        let score = 0.02 + (rounded - t_c).abs() / 300.0;
        Some(Candidate {
            score,
            kind: WayKind::Temperature,
            title: format!("{verb} {rounded:.1} °C"),
            changes: Vec::new(),
            document,
        })
    }

    /// Whether something fresh that is cooled stays right for twice as long as the job takes.
    fn stays_long_enough(&self, prepared: &Prepared, t_c: f64) -> bool {
        let asked = self.asked();
        let need = 2.0 * asked.job.duty().minutes_needed();
        asked.question(prepared).lasts_min(t_c).is_none_or(|minutes| minutes >= need)
    }

    pub(super) fn wait(&self) -> Option<Candidate> {
        if !self.document.family.traits().settings.contains(&Setting::Hours) {
            return None;
        }
        let hours = self.options.hours.unwrap_or(17.0);
        let mixture = Mixture::of(&self.lines);
        let met = |hours: f64| {
            let longer = Options { hours: Some(hours), ..self.options };
            self.met(&Asked::of(self.document, &longer), &mixture)
        };
        // Nobody waits for more than a day.
        let found = nearest_met(hours, hours, LONGEST_WAIT_H, met)?;
        let wanted = (2.0 * found).ceil() / 2.0;
        if wanted <= hours {
            return None;
        }
        let mut document = self.document.clone();
        document.process.set_hours = Some(Hours::from_hours(wanted));
        let title = format!("Leave it {wanted} h in the cold");
        let score = 0.05 + (wanted - hours) / 100.0;
        Some(Candidate { score, kind: WayKind::Wait, title, changes: Vec::new(), document })
    }

    pub(super) fn air(&self) -> Option<Candidate> {
        let traits = self.document.family.traits();
        // What was whipped or folded in does not come out again; fat outside is beaten.
        let beaten = traits.system.traits().continuous == Continuous::Fat;
        if !beaten || !traits.settings.contains(&Setting::Overrun) {
            return None;
        }
        let now = self.document.air(&self.lines).overrun_percent;
        let with = |percent: f64| {
            let mut document = self.document.clone();
            document.process.overrun_percent = Some(Overrun::from_percent(percent));
            document
        };
        let mixture = Mixture::of(&self.lines);
        let met = |percent: f64| {
            let document = with(percent);
            let options = Options { learned: self.options.learned, ..document.options(&self.lines) };
            self.met(&Asked::of(&document, &options), &mixture)
        };
        // Nobody beats out the last of the air, nor more than doubles what is there.
        let found = nearest_met(now, 0.2 * now, 2.0 * now + 20.0, met)?;
        let rounded = if found > now { (found / 5.0).ceil() * 5.0 } else { (found / 5.0).floor() * 5.0 };
        let title = if rounded > now {
            format!("Beat more air in, to {rounded:.0} %")
        } else {
            format!("Beat air out, to {rounded:.0} %")
        };
        let score = 0.10 + (rounded - now).abs() / 300.0;
        Some(Candidate { score, kind: WayKind::Process, title, changes: Vec::new(), document: with(rounded) })
    }

    /// Cream whipped further, with the air that comes with it; never past stiff.
    pub(super) fn whip_further(&self) -> Option<Candidate> {
        let traits = self.document.family.traits();
        if !traits.system.traits().whips || !traits.settings.contains(&Setting::Whip) {
            return None;
        }
        let mixture = Mixture::of(&self.lines);
        let now = self.document.air(&self.lines).whip;
        let fat_percent = fat_of_the_liquid(&mixture);
        WhipStage::ALL.into_iter().filter(|stage| stage.whip() > now + 0.05).find_map(|stage| {
            let mut document = self.document.clone();
            let overrun = (20.0 * overrun_at(fat_percent, stage.whip())).round() * 5.0;
            document.process.whip = Some(stage);
            document.process.overrun_percent = Some(Overrun::from_percent(overrun));
            let options = Options { learned: self.options.learned, ..document.options(&self.lines) };
            self.met(&Asked::of(&document, &options), &mixture).then(|| Candidate {
                score: 0.03 + 0.2 * (stage.whip() - now),
                kind: WayKind::Process,
                title: format!("Whip it {}, about {overrun:.0} % air", stage.word()),
                changes: Vec::new(),
                document,
            })
        })
    }

    /// Raw fruit brought to where its enzyme ends, starch to where it swells: what was left out of the making is done,
    /// not made up for with more of something.
    pub(super) fn heat(&self) -> Vec<Candidate> {
        let warned = |code: WarningCode| self.now.warnings.iter().any(|warning| warning.code == code);
        let mut found = Vec::new();
        if warned(WarningCode::Protease) {
            found.extend(self.heated(|line| line.ingredient.flags.protease, ENZYME_ENDS_C, "Bring"));
        }
        if warned(WarningCode::StarchRaw) {
            let prepared =
                Prepared::new(&Mixture::of(&self.lines), self.document.family.traits().system, &self.options);
            // No hotter than it boils.
            let boils = prepared.cooking.starch_cooks_c.ceil().min(boils_c(&prepared).ceil()).max(BOIL_C);
            let thickens = |line: &WeighedLine| line.ingredient.is(Role::BoiledStarch);
            found.extend(self.heated(thickens, boils, "Boil"));
        }
        found
    }

    /// The lines of a kind brought to a temperature.
    fn heated(&self, of: impl Fn(&WeighedLine) -> bool, to_c: f64, verb: &str) -> Option<Candidate> {
        let mut document = self.document.clone();
        let mut names = Vec::new();
        for (own, line) in document.lines.iter_mut().zip(&self.lines) {
            // What was made before is not heated through again.
            if line.mass.grams() > 0.0 && line.ingredient.made.is_none() && of(line) {
                own.cook_c = Some(CookTemperature::from_celsius(to_c));
                names.push(line.ingredient.name.clone());
            }
        }
        let first = names.first()?;
        let title = match verb {
            "Boil" => format!("Boil it with the {first} for 1 to 2 minutes, at {to_c:.0} °C"),
            _ => format!("Bring the {} to {to_c:.0} °C first", names.join(" and ")),
        };
        Some(Candidate { score: 0.01, kind: WayKind::Heat, title, changes: Vec::new(), document })
    }
}
