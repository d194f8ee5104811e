//! What would be read of something whose stiffness is known: the other way round of [`crate::bench_test::reading`].

use crate::bench_test::reading::{Known, Says, read};
use crate::bench_test::test::BenchTest;
use crate::job::physics::drip::DripCourse;

/// Smallest and largest number that a test can show.
fn ends(test: &BenchTest) -> [f64; 2] {
    match *test {
        BenchTest::RingSlump { high_mm, .. } => [0.05 * high_mm, 0.85 * high_mm],
        BenchTest::Tilt { .. } => [5.0, 60.0],
        BenchTest::Rod { .. } => [1.0, 20_000.0],
        BenchTest::CupFlow { .. } => [0.2, 3600.0],
        BenchTest::HeldWeight { ml, .. } => [0.05 * ml, 1.6 * ml],
        _ => [10.0, 1000.0],
    }
}

/// The test as it would be read of something so many times as stiff, as thick or as heavy as what is known: the number that says so, by halving; the nearest
/// that the test can show where it cannot show that.
pub fn as_read(usual: &BenchTest, known: &Known<'_>, times: f64) -> BenchTest {
    if let BenchTest::DripLength { dose_ml, side_c, .. } = *usual {
        let course = DripCourse::new(known.prepared, known.t_c, side_c, dose_ml, known.clock);
        return usual.with_read(course.length_mm(times, times));
    }
    let wanted = |test: &BenchTest| {
        let reading = read(test, known);
        let predicted = match reading.says {
            Says::YieldStress => known.now.yield_stress_pa,
            Says::Viscosity => known.now.plastic_viscosity_pa_s,
            Says::Density => known.density(),
            Says::Both => 1.0,
        };
        (reading.value / (times * predicted)).ln()
    };
    let [mut low, mut high] = ends(usual).map(f64::ln);
    // A wider plate and a deeper fall are softer; a steeper tilt, a heavier rod and a longer run stiffer.
    let falls = wanted(&usual.with_read(low.exp())) > wanted(&usual.with_read(high.exp()));
    for _ in 0..50 {
        let middle = 0.5 * (low + high);
        let over = wanted(&usual.with_read(middle.exp())) > 0.0;
        if over == falls { low = middle } else { high = middle }
    }
    usual.with_read((0.5 * (low + high)).exp())
}
