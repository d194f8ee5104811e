//! What was made here and had set before it went into something else.

use crate::ingredient::composition::Part;
use crate::ingredient::item::Made;
use std::sync::Arc;

/// Most levels of components inside a formula.
pub const DEEPEST: usize = 4;

/// Gels of which a broken piece does not knit again in the cold, and the heat that makes each run anew, °C: gelatin melts near
/// 30 and is warmed to 40 (common practice), agar near 85, a jam's pectin never does.
const GELS: [(Part, &str, f64); 3] =
    [(Part::Gelatin, "gelatin", 40.0), (Part::Agar, "agar", 88.0), (Part::Pectin, "pectin", f64::INFINITY)];

impl Made {
    /// The same when it had set before it went in and was warmed to `warmed_c` at most: gels that did not run again are only
    /// solids.
    #[must_use]
    pub fn set_before(&self, warmed_c: Option<f64>) -> Self {
        let mut made = self.clone();
        for (part, word, runs_c) in GELS {
            if warmed_c.is_some_and(|warmed| warmed >= runs_c) {
                continue;
            }
            for leaf in &mut made.leaves {
                let share = leaf.ingredient.composition.get(part);
                // Fruit's own pectin never set anything.
                if share <= 0.0 || (part == Part::Pectin && !leaf.ingredient.flags.sets_with_pectin) {
                    continue;
                }
                let mut broken = leaf.ingredient.as_ref().clone();
                broken.composition.0[Part::Other as usize] += share;
                broken.composition.0[part as usize] = 0.0;
                if part == Part::Gelatin {
                    broken.bloom = 0.0;
                }
                leaf.ingredient = Arc::new(broken);
                if !made.broken.contains(&word) {
                    made.broken.push(word);
                }
            }
        }
        made
    }
}
