//! Dice that fall the same for the same seed: nothing of the core is by chance.

/// Dice.
#[derive(Debug, Clone)]
pub struct Dice(u64);

impl Dice {
    /// From a seed.
    pub fn of(seed: u32) -> Self {
        Dice(u64::from(seed).wrapping_mul(0x9E37_79B9_7F4A_7C15))
    }

    /// A whole number below `many`: the mixing of Steele, Lea and Flood (SplitMix64, 2014; constants from memory).
    pub fn below(&mut self, many: usize) -> usize {
        self.0 = self.0.wrapping_add(0x9E37_79B9_7F4A_7C15);
        let mut mixed = self.0;
        mixed = (mixed ^ (mixed >> 30)).wrapping_mul(0xBF58_476D_1CE4_E5B9);
        mixed = (mixed ^ (mixed >> 27)).wrapping_mul(0x94D0_49BB_1331_11EB);
        ((mixed ^ (mixed >> 31)) % many.max(1) as u64) as usize
    }

    /// One of some.
    pub fn one<'a, T>(&mut self, all: &'a [T]) -> Option<&'a T> {
        if all.is_empty() { None } else { all.get(self.below(all.len())) }
    }
}
