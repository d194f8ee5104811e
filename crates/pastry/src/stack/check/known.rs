//! Creams in a cake that stand too far from what was ever checked: whatever else is said of them is a guess, and it is said so.

use crate::stack::check::finding::{Finding, FindingCode, Said, Standing};
use crate::stack::check::scene::Scene;

/// One finding for every cream that is not known where it stands, at its first place.
pub fn known(scene: &Scene) -> Vec<Finding> {
    let (t_c, when) = scene.warmest();
    let mut asked: Vec<&str> = Vec::new();
    let mut found = Vec::new();
    for spot in scene.layout.spots.iter().filter(|spot| spot.volume > 0.0) {
        let Some((key, cream)) = scene.cream_of(spot) else { continue };
        if asked.contains(&key) {
            continue;
        }
        asked.push(key);
        let Some(unknown) = cream.standing(t_c).unknown else { continue };
        let said = Said::with(
            format!(
                "What {} does at {t_c:.1} °C {when} is not known, because of {}",
                cream.name(),
                unknown.words()
            ),
            "what is said of it here is a guess: leave a spoonful there first.",
        );
        found.push(Finding::new(FindingCode::NotKnown, spot.address(), Standing::Care, said));
    }
    found
}
