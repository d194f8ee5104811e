//! Numbers as words: two digits at most, because a prediction is not better than that.

/// Two significant digits, thousands with a comma: 58, 1.2, 3,100, 0.85.
pub fn two_digits(value: f64) -> String {
    if !value.is_finite() || value <= 0.0 {
        return "0".to_owned();
    }
    let mut power = value.log10().floor() as i32 - 1;
    let mut rounded = (value / 10f64.powi(power)).round();
    if rounded >= 100.0 {
        rounded /= 10.0;
        power += 1;
    }
    if power >= 0 {
        let whole = (rounded * 10f64.powi(power)).round() as u64;
        let digits = whole.to_string();
        let mut text = String::new();
        for (at, digit) in digits.chars().enumerate() {
            if at > 0 && (digits.len() - at).is_multiple_of(3) {
                text.push(',');
            }
            text.push(digit);
        }
        text
    } else {
        format!("{:.*}", (-power) as usize, rounded * 10f64.powi(power))
    }
}

/// A limit as the person set it: no more digits than it needs.
pub fn limit(value: f64) -> String {
    if value >= 1000.0 {
        return two_digits(value);
    }
    if value.fract() == 0.0 {
        return (value as i64).to_string();
    }
    let text = format!("{value:.1}");
    text.strip_suffix(".0").map_or(text.clone(), str::to_owned)
}

/// Degrees as they are read, to a tenth: "23.5".
pub fn degrees(t_c: f64) -> String {
    let halves = 2.0 * t_c;
    // A map's temperatures are whole and half: printing a fraction takes ten times as long.
    if halves.fract() == 0.0 && (0.0..1e6).contains(&halves) {
        let halves = halves as u32;
        return format!("{}.{}", halves / 2, 5 * (halves % 2));
    }
    format!("{t_c:.1}")
}

/// Six significant digits: more would only lengthen an answer.
pub fn digits(value: f64) -> f64 {
    if value == 0.0 || !value.is_finite() {
        return value;
    }
    let scale = 10f64.powi(5 - value.abs().log10().floor() as i32);
    (value * scale).round() / scale
}

/// Hundredths: finer is dust of the arithmetic.
pub fn hundredths(value: f64) -> f64 {
    (100.0 * value).round() / 100.0
}

/// Grams as a scale shows them: whole from 20 g, tenths below, hundredths below 1 g.
pub fn on_a_scale(grams: f64) -> f64 {
    match grams {
        g if g >= 20.0 => g.round(),
        g if g >= 1.0 => (10.0 * g).round() / 10.0,
        g => hundredths(g),
    }
}

/// Grams that somebody weighs, wherever they are shown or printed: whole from 1 kg, tenths below, hundredths below 1 g.
/// 22.5 g of gelatin are 22.5 g on the bench, on paper and in every list.
pub fn weighed_g(grams: f64) -> f64 {
    match grams {
        g if g >= 1000.0 => g.round(),
        g if g >= 1.0 => (10.0 * g).round() / 10.0,
        g => hundredths(g),
    }
}

/// Grams of a batch that was worked out, not written: whole from 100 g, where a gram is less than one per cent.
pub fn batch_g(grams: f64) -> f64 {
    if grams >= 100.0 { grams.round() } else { weighed_g(grams) }
}

/// Minutes as they are read: "4 min", "20 to 240 min", "2 to 12 h", "2 to 7 days".
pub fn span_min([from, to]: [f64; 2]) -> String {
    let (unit, per) = match to {
        to if to >= 2880.0 => ("days", 1440.0),
        to if to >= 180.0 && from >= 30.0 => ("h", 60.0),
        _ => ("min", 1.0),
    };
    let read = |minutes: f64| {
        let value = minutes / per;
        limit(if value >= 3.0 { value.round() } else { (2.0 * value).round() / 2.0 }.max(0.5))
    };
    let (low, high) = (read(from), read(to));
    if low == high { format!("{high} {unit}") } else { format!("{low} to {high} {unit}") }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn grams_are_as_fine_as_a_scale() {
        for (grams, shown) in [(123.4, 123.0), (19.96, 20.0), (7.26, 7.3), (0.426, 0.43), (0.0, 0.0)] {
            assert!((on_a_scale(grams) - shown).abs() < 1e-9, "{grams}");
        }
    }

    #[test]
    fn degrees_are_read_to_a_tenth() {
        for t_c in [-3.5, -0.5, -0.0, 0.0, 0.5, 4.0, 23.5, 23.44, 100.0, 121.0] {
            assert_eq!(degrees(t_c), format!("{:.1}", t_c + 0.0), "{t_c}");
        }
        assert_eq!([limit(25.0), limit(2.5), limit(0.0), limit(-3.0)], ["25", "2.5", "0", "-3"]);
    }

    #[test]
    fn two_digits_are_two_digits() {
        for (value, text) in [
            (58.44, "58"),
            (1.179, "1.2"),
            (3123.0, "3,100"),
            (0.0853, "0.085"),
            (99.6, "100"),
            (9.96, "10"),
            (12345678.0, "12,000,000"),
            (f64::NAN, "0"),
        ] {
            assert_eq!(two_digits(value), text, "{value}");
        }
    }
}
