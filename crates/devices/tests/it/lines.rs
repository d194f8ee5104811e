//! Lines: whole or known to be torn.

use devices::address::DeviceKind;
use devices::line::{COUNTED_TO, Line, Torn, sum};
use devices::message::Message;
use proptest::prelude::*;

/// The check value of CRC-16/IBM-3740 in Greg Cook's "Catalogue of parametrised CRC algorithms" (from memory): the sum of the
/// nine digits is 0x29B1.
#[test]
fn the_checksum_is_the_published_one() {
    assert_eq!(sum("123456789"), 0x29B1);
}

#[test]
fn a_line_looks_as_it_is_described() {
    let line = Message::Weight { g: 123.44, step_g: 0.1, steady: true, tare_g: 0.0 }.line(7);
    let written = line.written();
    assert!(written.starts_with("WEIGHT 7 g=123.4 step=0.1 steady=1 tare=0*"), "{written}");
    assert!(written.ends_with('\n') && written.is_ascii(), "{written}");
    // RFC 3986, section 2.1: two hexadecimal digits for each byte of UTF-8.
    let print = Message::Print { job: "j1".to_owned(), text: "Crème 5 %\nx".to_owned() }.line(0).written();
    assert!(print.contains("text=Cr%C3%A8me%205%20%25%0Ax*"), "{print}");
}

#[test]
fn what_is_no_line_says_what_is_wrong_with_it() {
    let whole = Message::Temperature { c: 36.2 }.line(1).written();
    let whole = whole.trim_end();
    assert!(Line::read(whole).is_ok());
    for (text, torn) in [
        ("", Torn::NoSum),
        ("TEMPERATURE 1 c=36.2", Torn::NoSum),
        ("TEMPERATURE 1 c=36.2*12", Torn::NoSum),
        ("TEMPERATURE 1 c=36.2*+0AB", Torn::NoSum),
        ("TEMPERATURE 1 c=36.2*0000", Torn::WrongSum),
        ("TEMPERATURE 1 c=3é*0000", Torn::NotAscii),
    ] {
        assert_eq!(Line::read(text), Err(torn), "{text}");
    }
    for body in
        ["temperature 1 c=3", "T x c=3", "T 1 c", "T 1 c=3 c=4", "T 1  c=3", "T 1 c=%FF", "T", " 1 c=3"]
    {
        let text = format!("{body}*{:04X}", sum(body));
        assert_eq!(Line::read(&text), Err(Torn::Shape), "{text}");
    }
    let long = "A".repeat(devices::line::LONGEST + 1);
    assert_eq!(Line::read(&long), Err(Torn::TooLong));
}

#[test]
fn a_number_no_device_can_say_is_not_taken() {
    for value in ["nan", "inf", "1e9", "-1e7", "", "12g", "0x10"] {
        let line = Line::new("TEMPERATURE", 0).with("c", value);
        assert_eq!(Message::read(&line), Err(Torn::Shape), "{value}");
    }
    // A word of a later version is none of ours; a known word without its field is torn.
    assert_eq!(Message::read(&Line::new("HUMIDITY", 0).with("percent", 40)), Ok(None));
    assert_eq!(Message::read(&Line::new("WEIGHT", 0).with("g", 1)), Err(Torn::Shape));
    assert_eq!(Message::read(&Line::new("HELLO", 0).with("kind", "toaster")), Err(Torn::Shape));
}

fn message() -> impl Strategy<Value = Message> {
    let number = (-99_999_i32..99_999).prop_map(|own| f64::from(own) / 10.0);
    let words = "[ -~éü漢\n*=%]{0,40}";
    let kind = (0_usize..4).prop_map(|at| DeviceKind::ALL[at]);
    prop_oneof![
        (kind, words, any::<bool>()).prop_map(|(kind, name, stand_in)| Message::Hello {
            kind,
            name,
            stand_in
        }),
        (number.clone(), number.clone(), any::<bool>(), number.clone())
            .prop_map(|(g, step_g, steady, tare_g)| Message::Weight { g, step_g, steady, tare_g }),
        number.clone().prop_map(|c| Message::Temperature { c }),
        (number.clone(), any::<bool>()).prop_map(|(c, open)| Message::Fridge { c, open }),
        (any::<bool>(), number).prop_map(|(ready, left_mm)| Message::Printer { ready, left_mm }),
        words.prop_map(|code| Message::Fault { code }),
        Just(Message::Tare),
        (words, words).prop_map(|(job, text)| Message::Print { job, text }),
        words.prop_map(|scenario| Message::Play { scenario }),
        any::<u32>().prop_map(|of| Message::Done { of: of % COUNTED_TO }),
        (any::<u32>(), words).prop_map(|(of, why)| Message::Refused { of: of % COUNTED_TO, why }),
        (words, words, words).prop_map(|(job, form, data)| Message::Picture { job, form, data }),
    ]
}

proptest! {
    #[test]
    fn what_is_written_is_read_the_same(message in message(), number in 0..COUNTED_TO) {
        let written = message.line(number).written();
        prop_assert_eq!(written.matches('\n').count(), 1);
        let line = Line::read(written.trim_end_matches('\n')).unwrap();
        prop_assert_eq!(line.number, number);
        prop_assert_eq!(Message::read(&line).unwrap(), Some(message));
    }

    /// A CRC of 16 bits knows every burst of up to 16 bits, so any one letter that is another (Peterson and Brown, Cyclic Codes
    /// for Error Detection, 1961, from memory).
    #[test]
    fn one_letter_that_is_another_is_always_noticed(message in message(), at in 0_usize..400, other in 0x20_u8..0x7f) {
        let mut bytes = message.line(3).written().trim_end_matches('\n').as_bytes().to_vec();
        let at = at % bytes.len();
        prop_assume!(bytes[at] != other);
        // The digits of the sum are read in either case.
        prop_assume!(!(at + 4 >= bytes.len() && bytes[at].eq_ignore_ascii_case(&other)));
        bytes[at] = other;
        prop_assert!(Line::read(std::str::from_utf8(&bytes).unwrap()).is_err());
    }

    #[test]
    fn a_line_that_ends_early_is_noticed(message in message(), keep in 0_usize..400) {
        let written = message.line(3).written();
        let text = written.trim_end_matches('\n');
        prop_assert!(Line::read(&text[..keep % text.len()]).is_err());
    }

    #[test]
    fn no_bytes_at_all_break_the_reader(text in "\\PC{0,200}") {
        if let Ok(line) = Line::read(&text) { let _ = Message::read(&line); }
    }
}
