//! Solid fat content over temperature, of single fats and of blends.
//!
//! Points are typical pulsed-NMR curves from memory (Timms 1980, Beckett, milk fat handbooks);
//! between them runs a monotone cubic (Fritsch & Carlson 1980). Checked against
//! `tests/it/data/solid_fat_content.csv`.

use crate::rheology::params::{SOFTEN_COCOA_BUTTER_K, SOFTEN_LAURIC_K, SOFTEN_MILK_FAT_K};
use crate::rheology::smooth::smin;
use std::sync::LazyLock;

/// A monotone cubic through given points, constant outside.
#[derive(Debug, Clone)]
pub struct Curve {
    x: Vec<f64>,
    y: Vec<f64>,
    slope: Vec<f64>,
}

impl Curve {
    /// Through (x, y), x rising. Slopes at both ends are 0.
    pub fn new(points: &[(f64, f64)]) -> Self {
        let (x, y): (Vec<f64>, Vec<f64>) = points.iter().copied().unzip();
        let width: Vec<f64> = x.windows(2).map(|w| w[1] - w[0]).collect();
        let secant: Vec<f64> = y.windows(2).zip(&width).map(|(w, h)| (w[1] - w[0]) / h).collect();
        let mut slope = vec![0.0; x.len()];
        for k in 1..x.len() - 1 {
            let (before, after) = (secant[k - 1], secant[k]);
            if before * after > 0.0 {
                let (h0, h1) = (width[k - 1], width[k]);
                slope[k] = 3.0 * (h0 + h1) / ((2.0 * h1 + h0) / before + (h1 + 2.0 * h0) / after);
            }
        }
        Curve { x, y, slope }
    }

    /// Value at `t`.
    #[inline]
    pub fn at(&self, t: f64) -> f64 {
        let last = self.x.len() - 1;
        if t <= self.x[0] {
            return self.y[0];
        }
        if t >= self.x[last] {
            return self.y[last];
        }
        let mut k = 0;
        while self.x[k + 1] < t {
            k += 1;
        }
        let h = self.x[k + 1] - self.x[k];
        let s = (t - self.x[k]) / h;
        let (s2, s3) = (s * s, s * s * s);
        (2.0 * s3 - 3.0 * s2 + 1.0) * self.y[k]
            + (s3 - 2.0 * s2 + s) * h * self.slope[k]
            + (3.0 * s2 - 2.0 * s3) * self.y[k + 1]
            + (s3 - s2) * h * self.slope[k + 1]
    }

    /// Slopes at the points.
    pub fn slopes(&self) -> &[f64] {
        &self.slope
    }
}

/// Solid fat of cocoa butter, per cent.
pub static COCOA_BUTTER: LazyLock<Curve> = LazyLock::new(|| {
    Curve::new(&[
        (0.0, 95.0),
        (5.0, 93.0),
        (10.0, 90.0),
        (15.0, 85.0),
        (20.0, 77.0),
        (25.0, 68.0),
        (27.5, 58.0),
        (30.0, 40.0),
        (32.5, 12.0),
        (35.0, 0.0),
    ])
});

/// Solid fat of milk fat, per cent.
pub static MILK_FAT: LazyLock<Curve> = LazyLock::new(|| {
    Curve::new(&[
        (0.0, 60.0),
        (5.0, 52.0),
        (10.0, 42.0),
        (15.0, 31.0),
        (20.0, 19.0),
        (25.0, 12.0),
        (30.0, 6.0),
        (35.0, 1.5),
        (38.0, 0.0),
    ])
});

/// Solid fat of lauric fat (coconut type), per cent.
pub static LAURIC: LazyLock<Curve> = LazyLock::new(|| {
    Curve::new(&[
        (0.0, 92.0),
        (5.0, 88.0),
        (10.0, 78.0),
        (15.0, 60.0),
        (20.0, 36.0),
        (22.5, 18.0),
        (25.0, 2.0),
        (27.0, 0.0),
    ])
});

/// A pool of fat that is one melt, ready to be asked at many temperatures.
#[derive(Debug, Clone, Copy)]
pub struct Pool {
    /// Total fat of the pool, mass fraction of the whole.
    pub total: f64,
    share: [f64; 3],
    shift_k: [f64; 3],
}

impl Pool {
    /// Of cocoa butter, milk fat, oil and lauric fat, mass fractions.
    ///
    /// Each fat is softened by the others: it behaves as if it were warmer by a_f (1 − share),
    /// at most 10 K, which keeps a little cocoa butter in butter from vanishing.
    pub fn new(fats: [f64; 4]) -> Self {
        let total: f64 = fats.iter().sum();
        let whole = total.max(1e-300);
        let solid = [
            (fats[0] / whole, SOFTEN_COCOA_BUTTER_K),
            (fats[1] / whole, SOFTEN_MILK_FAT_K),
            (fats[3] / whole, SOFTEN_LAURIC_K),
        ];
        Pool {
            total,
            share: solid.map(|(share, _)| share),
            shift_k: solid.map(|(share, soften)| smin(soften * (1.0 - share).max(0.0), 10.0, 0.05)),
        }
    }

    /// Solid share of the pool at `t_c`, 0 to 1.
    #[inline]
    pub fn solid(&self, t_c: f64) -> f64 {
        let curves = [&COCOA_BUTTER, &MILK_FAT, &LAURIC];
        let mut sum = 0.0;
        for ((share, shift), curve) in self.share.iter().zip(self.shift_k).zip(curves) {
            if *share > 0.0 {
                sum += share * curve.at(t_c + shift);
            }
        }
        sum / 100.0
    }
}
