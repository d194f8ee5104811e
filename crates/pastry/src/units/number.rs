//! A decimal number as people type it: with a point or a comma. What can be read two ways is asked about, never
//! guessed. The page has the same reader; both are held to one table of cases, `tests/it/data/numbers.csv`.

/// A text that is no number, or not only one.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum NumberError {
    /// A comma before three digits parts thousands here and decimals there.
    #[error("{text} can be read two ways: write {thousands} or {decimal}")]
    Ambiguous {
        /// As typed.
        text: String,
        /// Read with a comma between thousands.
        thousands: String,
        /// Read with a decimal comma.
        decimal: String,
    },
    /// No number.
    #[error("“{0}” is no number: write for example 12.5")]
    None(String),
}

/// Reads digits with at most one point or comma between them.
///
/// # Errors
/// [`NumberError::Ambiguous`] for "25,000", unless it begins with 0; [`NumberError::None`] for everything else that is no
/// plain number: no exponent, no sign but a minus in front, no grouping.
pub fn read(text: &str) -> Result<f64, NumberError> {
    let trimmed = text.trim();
    let none = || NumberError::None(trimmed.chars().take(40).collect());
    let (minus, digits) = match trimmed.strip_prefix(['-', '\u{2212}']) {
        Some(rest) => (true, rest),
        None => (false, trimmed),
    };
    let plain = digits.chars().all(|c| c.is_ascii_digit() || c == '.' || c == ',');
    let marks = digits.matches(['.', ',']).count();
    if !plain || marks > 1 || !digits.contains(|c: char| c.is_ascii_digit()) {
        return Err(none());
    }
    if let Some((before, after)) = digits.split_once(',')
        && after.len() == 3
        && !before.is_empty()
        && before != "0"
    {
        return Err(NumberError::Ambiguous {
            text: digits.to_owned(),
            thousands: format!("{before}{after}"),
            decimal: format!("{before}.{after}"),
        });
    }
    let value: f64 = digits.replace(',', ".").parse().map_err(|_| none())?;
    Ok(if minus { -value } else { value })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_case_of_the_table_is_read_as_it_says() {
        let table = include_str!("../../tests/it/data/numbers.csv");
        let mut checked = 0;
        for row in table.lines().filter(|row| !row.starts_with('#')).skip(1) {
            let (text, wanted) = row.split_once('|').unwrap();
            match (read(text), wanted) {
                (Ok(value), wanted) => {
                    assert_eq!(wanted.parse::<f64>().ok(), Some(value), "“{text}” read as {value}");
                }
                (Err(NumberError::Ambiguous { .. }), "two ways") | (Err(NumberError::None(_)), "none") => {}
                (Err(error), wanted) => panic!("“{text}”: {error}, wanted {wanted}"),
            }
            checked += 1;
        }
        assert!(checked > 30);
    }
}
