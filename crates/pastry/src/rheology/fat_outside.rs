//! Fat outside: crystals hold drops of syrup and solids, as in butter and buttercream.

use crate::rheology::params::{CROWD_PA, FAT_OUTSIDE_PA};
use crate::rheology::smooth::{above_zero, smin};
use crate::rheology::volumes::Volumes;
use crate::rheology::water_outside::Branch;

/// The structure with fat outside, ready to be asked at any temperature.
#[derive(Debug, Clone, Copy)]
pub struct FatOutside {
    /// Volume share of solids.
    pub solids: f64,
    /// Fat of the matrix between them, 0 to 1.
    pub matrix_fat: f64,
    /// Share of the matrix that is fat, to the power with which drops of water and air in it take strength away.
    crystals: f64,
    fill: f64,
    crowd: f64,
}

impl FatOutside {
    /// From volumes.
    pub fn new(v: &Volumes) -> Self {
        let v_solid = v.solids();
        let solids = smin(v_solid / v.total, 0.595, 0.02);
        let matrix_fat = v.fat / above_zero(v.total - v_solid);
        FatOutside {
            solids,
            matrix_fat,
            // Water and air are inclusions, not diluents of the crystals: cellular exponent 1.5 to 2, from memory.
            crystals: matrix_fat.powf(1.8),
            // Chateau, Ovarlez & Trung 2008, from memory.
            fill: ((1.0 - solids) * (1.0 - solids / 0.60).powf(-1.5)).sqrt(),
            crowd: (1.0 - smin(1.0 - matrix_fat, 0.74, 0.03) / 0.85).powi(-2)
                * (1.0 - solids / 0.62).powi(-2),
        }
    }

    /// At `t_c`, with so much of its fat solid and `left` of the network after working.
    #[inline]
    pub fn at(&self, t_c: f64, solid_fat: f64, left: f64) -> Branch {
        Branch {
            fat: FAT_OUTSIDE_PA * solid_fat * solid_fat * solid_fat.sqrt() * self.crystals * self.fill * left,
            crowd: CROWD_PA * (self.crowd - 1.0),
            thick: 0.070 * (-0.030 * (t_c - 20.0)).exp() * self.crowd,
        }
    }
}
