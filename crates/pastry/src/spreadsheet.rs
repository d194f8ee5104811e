//! Cells of a table that a spreadsheet takes as text, whatever a cook or a file wrote into them.
//!
//! A cell that begins as a formula does (= + - @, a tab, a return) runs when the list is opened: it gets an apostrophe
//! before it (OWASP, "CSV Injection", from memory). Numbers stay numbers. Reading takes the apostrophe off again.

const LIVE: [char; 6] = ['=', '+', '-', '@', '\t', '\r'];

fn lives(cell: &str) -> bool {
    cell.trim_start_matches('\'').starts_with(LIVE) && cell.parse::<f64>().is_err()
}

/// The cell as it is written.
pub fn harmless(cell: &str) -> String {
    if lives(cell) { format!("'{cell}") } else { cell.to_owned() }
}

/// The cell as it was before it was written.
pub fn as_it_was(cell: &str) -> &str {
    match cell.strip_prefix('\'') {
        Some(inner) if lives(inner) => inner,
        _ => cell,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_would_run_does_not_and_everything_comes_back() {
        for live in [
            "=1+1",
            "+SUM(A1)",
            "-2+3",
            "@now",
            "\t=1",
            "=HYPERLINK(\"x\")",
            "'=1",
            "-",
            "−5 °C",
            "plain",
            "'tis",
            "",
            "-5",
            "-5.5",
            "+7",
        ] {
            let written = harmless(live);
            assert_eq!(as_it_was(&written), live, "{written}");
            let runs = written.starts_with(LIVE) && written.parse::<f64>().is_err();
            assert!(!runs, "{written}");
        }
        assert_eq!(harmless("-5.5"), "-5.5");
        assert_eq!(harmless("=1"), "'=1");
    }
}
