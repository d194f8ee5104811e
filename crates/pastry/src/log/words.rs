//! What a batch is found by: its words, as an index of words takes them.

/// Whether a letter is of a script that puts no space between words: each is a word of its own.
fn stands_alone(letter: char) -> bool {
    matches!(u32::from(letter),
        0x0E00..=0x0EFF | 0x1000..=0x109F | 0x1780..=0x17FF | 0x3040..=0x30FF | 0x3400..=0x9FFF | 0xF900..=0xFAFF
        | 0x20000..=0x3FFFF)
}

/// Text as it is put into the index: letters of scripts without spaces stand alone.
pub fn spaced(text: &str) -> String {
    let mut own = String::with_capacity(text.len());
    for letter in text.chars() {
        if stands_alone(letter) {
            own.extend([' ', letter, ' ']);
        } else {
            own.push(letter);
        }
    }
    own
}

/// What a cook typed, as a question to the index: every word, or one that begins so, must be there. None where there is no word in it.
///
/// Nothing typed is read as the index's own language: each word stands in quotation marks.
pub fn sought(typed: &str) -> Option<String> {
    let all: Vec<String> = typed
        .split(|letter: char| !(letter.is_alphanumeric() || is_mark(letter)))
        .filter(|own| own.chars().any(char::is_alphanumeric))
        .map(|own| {
            let letters = spaced(own);
            // A run without spaces is looked for as it stands, one after the other.
            format!("\"{}\"*", letters.split_whitespace().collect::<Vec<_>>().join(" "))
        })
        .collect();
    (!all.is_empty()).then(|| all.join(" "))
}

/// A mark that belongs to the letter before it: an accent written by itself, a vowel sign.
fn is_mark(letter: char) -> bool {
    matches!(u32::from(letter), 0x0300..=0x036F | 0x0900..=0x0DFF | 0x0E30..=0x0E4F | 0x064B..=0x0652)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_typed_is_words_and_no_language() {
        assert_eq!(sought("bay milk").as_deref(), Some("\"bay\"* \"milk\"*"));
        assert_eq!(
            sought("  \"quote' NEAR( x* OR -y ").as_deref(),
            Some("\"quote\"* \"NEAR\"* \"x\"* \"OR\"* \"y\"*")
        );
        assert_eq!(sought("70 %").as_deref(), Some("\"70\"*"));
        assert_eq!(sought("*-()\"'"), None);
        assert_eq!(sought("抹茶").as_deref(), Some("\"抹 茶\"*"));
        assert_eq!(spaced("抹茶 ganache"), " 抹  茶  ganache");
    }
}
