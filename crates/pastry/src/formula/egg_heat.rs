//! Egg made safe by heat: how long at which temperature. Defaults of published codes; the local food code decides.

use crate::formula::line::{WeighedLine, flat};
use crate::ingredient::composition::Part;

/// Egg that reached this is safe at once, °C (USDA FSIS: egg dishes to 160 °F, from memory).
pub const SAFE_AT_ONCE_C: f64 = 71.0;

/// What is heated.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum EggKind {
    /// Whole egg.
    Whole,
    /// Yolk.
    Yolk,
    /// Yolk with sugar.
    SugaredYolk,
    /// White.
    White,
    /// Anything: two minutes at 70 °C, for what sugar protects.
    Any,
}

impl EggKind {
    /// Minutes at a temperature, and the kelvin that make it ten times faster (9 CFR 590.570; UK guidance of 70 °C for
    /// 2 minutes, z 7.5: from memory).
    fn reference(self) -> (f64, f64, f64) {
        match self {
            EggKind::Whole => (3.5, 60.0, 4.4),
            EggKind::Yolk => (3.5, 61.1, 4.4),
            EggKind::SugaredYolk => (3.5, 63.3, 4.4),
            EggKind::White => (3.5, 56.7, 4.4),
            EggKind::Any => (2.0, 70.0, 7.5),
        }
    }

    /// The temperature its hold is given for, °C.
    pub fn reference_c(self) -> f64 {
        self.reference().1
    }

    /// Minutes it must be held at `t_c`: F · 10^((T_ref − T)/z).
    pub fn hold_min(self, t_c: f64) -> f64 {
        let (minutes, at_c, z) = self.reference();
        minutes * 10f64.powf((at_c - t_c) / z)
    }

    /// What the raw egg of some lines counts as: with over a tenth of sugar beside it, anything.
    pub fn of(lines: &[WeighedLine]) -> Self {
        let mut sums = [0.0; 4];
        for line in flat(lines).iter() {
            let m = &line.ingredient.composition;
            let parts = [m.get(Part::Yolk), m.get(Part::EggWhite), m.phases().sugar, 1.0];
            for (sum, part) in sums.iter_mut().zip(parts) {
                *sum += line.mass.grams() * part;
            }
        }
        let [yolk, white, sugar, all] = sums;
        match () {
            () if sugar > 0.10 * all => EggKind::Any,
            () if yolk > 0.0 && white > 0.0 => EggKind::Whole,
            () if yolk > 0.0 => EggKind::Yolk,
            () => EggKind::White,
        }
    }
}

/// Whether egg that reached `t_c` and was held there is safe.
pub fn safe(kind: EggKind, t_c: f64, held_min: Option<f64>) -> bool {
    t_c >= SAFE_AT_ONCE_C || held_min.is_some_and(|minutes| minutes >= kind.hold_min(t_c))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn holds_are_those_of_the_codes() {
        // 9 CFR 590.570 and UK guidance, from memory.
        for (kind, t_c, minutes, within) in [
            (EggKind::Whole, 60.0, 3.5, 0.01),
            (EggKind::Yolk, 60.0, 6.2, 0.05),
            (EggKind::SugaredYolk, 62.2, 6.2, 0.05),
            (EggKind::White, 55.6, 6.2, 0.05),
            (EggKind::Any, 60.0, 45.0, 2.5),
            (EggKind::Any, 65.0, 10.0, 0.8),
            (EggKind::Any, 75.0, 0.5, 0.1),
            (EggKind::Any, 80.0, 0.1, 0.02),
        ] {
            assert!((kind.hold_min(t_c) - minutes).abs() < within, "{kind:?} {t_c}: {}", kind.hold_min(t_c));
        }
        // FDA Food Code 3-401.11 for pooled egg (63 °C 3 min, 66 °C 1 min, from memory) is less than we ask: sugar protects.
        assert!(EggKind::Any.hold_min(63.0) > 3.0 && EggKind::Any.hold_min(66.0) > 1.0);
    }

    #[test]
    fn sixty_five_degrees_alone_are_not_safe() {
        assert!(!safe(EggKind::Any, 65.0, None) && !safe(EggKind::White, 65.0, None));
        assert!(!safe(EggKind::Any, 65.0, Some(5.0)) && safe(EggKind::Any, 65.0, Some(9.5)));
        assert!(safe(EggKind::Any, 71.0, None) && !safe(EggKind::Any, 70.9, None));
    }
}
