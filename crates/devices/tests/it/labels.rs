//! What a printer's stand-in prints.

use devices::stand_in::label::draw;

fn dark(label: &devices::stand_in::label::Label, [from, to]: [u32; 2]) -> usize {
    (from..to).flat_map(|y| (0..600).map(move |x| (x, y))).filter(|(x, y)| label.black(*x, *y)).count()
}

#[test]
fn a_label_is_as_long_as_what_stands_on_it() {
    let short = draw("Bay drip").unwrap();
    let long = draw("Bay drip\nmade 29 Nov 20:40\nuse by 2 Dec\n324 g").unwrap();
    assert!(long.long_mm() >= short.long_mm());
    assert!(dark(&short, [0, 60]) > 100, "nothing is printed");
    assert_eq!(dark(&short, [100, 160]), 0, "one line is printed as two");
    assert!(dark(&long, [100, 120]) > 50, "the fourth line is missing");
}

#[test]
fn a_long_line_goes_on_in_the_next_and_no_letter_is_lost() {
    let words =
        "contains milk, almonds, wheat (gluten), soya and may contain traces of hazelnuts and sesame seeds";
    let dots = |text: &str| dark(&draw(&format!("x\n{text}")).unwrap(), [0, 1200]);
    let none = dark(&draw("x").unwrap(), [0, 1200]);
    let one_by_one: usize = words.split(' ').map(|word| dots(word) - none).sum();
    assert_eq!(dots(words) - none, one_by_one, "every letter is there");
    // A word longer than the tape is wide goes on, too.
    assert_eq!(dots(&"m".repeat(200)) - none, 200 * (dots("m") - none));
    assert!(draw(&words.repeat(4)).unwrap().long_mm() > 20.0);
}

#[test]
fn a_letter_it_does_not_have_is_never_printed_as_another() {
    assert!(draw("Crème brûlée, 5 °C, “fresh” – cook’s").is_ok());
    for letter in ["漢", "ł", "🍰", "\u{7}"] {
        let why = draw(&format!("Cake {letter}")).unwrap_err();
        assert!(why.contains("no letter"), "{why}");
    }
    assert!(draw("").is_err() && draw("  \n ").is_err());
    assert!(draw(&"x\n".repeat(60)).unwrap_err().contains("shorten"));
}

#[test]
fn the_picture_is_a_png_of_its_size_and_the_document_a_pdf_of_62_mm() {
    let label = draw("Bay drip\n324 g").unwrap();
    let png = label.png().unwrap();
    let decoded = png::Decoder::new(std::io::Cursor::new(&png)).read_info().unwrap();
    // 62 mm at 203 dots to the inch.
    assert_eq!(decoded.info().width, 495);
    assert_eq!(f64::from(decoded.info().height), (label.long_mm() * 203.0 / 25.4).round());
    let pdf = String::from_utf8_lossy(&label.pdf()).into_owned();
    assert!(pdf.starts_with("%PDF-1.") && pdf.trim_end().ends_with("%%EOF"), "{}", &pdf[..20]);
    // 495 dots of 203 to the inch are 175.57 points of 1/72 inch.
    assert!(pdf.contains("/MediaBox [0 0 175.5"), "{}", &pdf[..400]);
}
