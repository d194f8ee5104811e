//! What is printed: black dots on tape, as PNG and as PDF.

use embedded_graphics::Drawable;
use embedded_graphics::Pixel;
use embedded_graphics::draw_target::DrawTarget;
use embedded_graphics::geometry::{OriginDimensions, Point, Size};
use embedded_graphics::mono_font::MonoTextStyle;
use embedded_graphics::mono_font::iso_8859_1::FONT_10X20;
use embedded_graphics::pixelcolor::BinaryColor;
use embedded_graphics::text::{Baseline, Text};
use pdf_writer::{Content, Filter, Finish, Name, Pdf, Rect, Ref};
use std::convert::Infallible;

/// Dots on a millimetre: 203 to the inch.
const DOTS: f64 = 203.0 / 25.4;
/// The tape is so wide, mm: the label's lines run along its length.
const WIDE_MM: f64 = 62.0;
/// Shortest piece it cuts, mm.
pub const SHORTEST_MM: f64 = 20.0;
/// Most lines of a label, and most letters of a line.
const MOST_LINES: usize = 40;
/// Room at its edges, dots.
const EDGE: i32 = 16;
const HIGH: i32 = 26;
/// Points on a millimetre, of which a PDF is measured.
const POINTS: f64 = 72.0 / 25.4;

/// A label as dots.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Label {
    wide: u32,
    high: u32,
    /// One byte a dot: 1 is black.
    dots: Vec<u8>,
}

impl OriginDimensions for Label {
    fn size(&self) -> Size {
        Size::new(self.wide, self.high)
    }
}

impl DrawTarget for Label {
    type Color = BinaryColor;
    type Error = Infallible;

    fn draw_iter<I: IntoIterator<Item = Pixel<BinaryColor>>>(&mut self, dots: I) -> Result<(), Infallible> {
        for Pixel(at, colour) in dots {
            let (Ok(x), Ok(y)) = (u32::try_from(at.x), u32::try_from(at.y)) else { continue };
            if x < self.wide && y < self.high {
                self.dots[(y * self.wide + x) as usize] = u8::from(colour.is_on());
            }
        }
        Ok(())
    }
}

/// Draws a label, its first line bold; a line that is too long goes on in the next.
///
/// # Errors
/// In words: a letter the printer does not have, or more lines than a label takes. It never prints something else instead.
pub fn draw(text: &str) -> Result<Label, String> {
    let text = text.replace('\u{2019}', "'").replace(['\u{201c}', '\u{201d}'], "\"").replace('\u{2013}', "-");
    let text = text.replace(['\u{a0}', '\u{202f}', '\u{2009}'], " ");
    if let Some(letter) = text.chars().find(|own| *own != '\n' && !has(*own)) {
        return Err(format!(
            "this printer has no letter “{letter}”: write the label with other letters, or print it from the page"
        ));
    }
    let wide = (WIDE_MM * DOTS) as i32;
    let letters = ((wide - 2 * EDGE) / 10) as usize;
    let lines: Vec<String> = text.lines().flat_map(|line| folded(line, letters)).collect();
    if lines.is_empty() || lines.iter().all(|own| own.trim().is_empty()) {
        return Err("there is nothing on this label: write what it is".to_owned());
    }
    if lines.len() > MOST_LINES {
        return Err(format!("{} lines are more than a label takes ({MOST_LINES}): shorten it", lines.len()));
    }
    let high = (2 * EDGE + HIGH * lines.len() as i32).max((SHORTEST_MM * DOTS) as i32);
    let mut label = Label { wide: wide as u32, high: high as u32, dots: vec![0; (wide * high) as usize] };
    for (at, line) in lines.iter().enumerate() {
        let style = MonoTextStyle::new(&FONT_10X20, BinaryColor::On);
        // What it is stands in bold: printed twice, a dot apart.
        for bold in 0..if at == 0 { 2 } else { 1 } {
            let from = Point::new(EDGE + bold, EDGE + HIGH * at as i32);
            // Drawing dots into memory cannot fail.
            let _ = Text::with_baseline(line, from, style, Baseline::Top).draw(&mut label);
        }
    }
    Ok(label)
}

/// Whether the font has a letter: ISO 8859-1.
fn has(letter: char) -> bool {
    matches!(letter, ' '..='~' | '\u{a1}'..='\u{ff}')
}

/// A line as lines of so many letters, parted between words where there is one.
fn folded(line: &str, letters: usize) -> Vec<String> {
    let mut lines = Vec::new();
    let mut now = String::new();
    for word in line.split(' ') {
        let mut word: Vec<char> = word.chars().collect();
        let joined = now.chars().count() + usize::from(!now.is_empty()) + word.len();
        if joined > letters && !now.is_empty() {
            lines.push(std::mem::take(&mut now));
        }
        while word.len() > letters {
            let rest = word.split_off(letters);
            lines.push(word.into_iter().collect());
            word = rest;
        }
        if !now.is_empty() {
            now.push(' ');
        }
        now.extend(word);
    }
    lines.push(now);
    lines
}

impl Label {
    /// How much tape it takes, mm.
    pub fn long_mm(&self) -> f64 {
        f64::from(self.high) / DOTS
    }

    /// Whether a dot is black.
    pub fn black(&self, x: u32, y: u32) -> bool {
        x < self.wide && y < self.high && self.dots[(y * self.wide + x) as usize] == 1
    }

    /// Rows of bits, most significant first, black is 0: as both forms have them.
    fn rows(&self) -> Vec<u8> {
        let row = |row: &[u8]| {
            row.chunks(8)
                .map(|eight| {
                    let bits = eight.iter().enumerate();
                    // What is past the edge is white.
                    bits.fold(0xff_u8, |byte, (at, dot)| if *dot == 1 { byte & !(0x80 >> at) } else { byte })
                })
                .collect::<Vec<u8>>()
        };
        self.dots.chunks(self.wide as usize).flat_map(row).collect()
    }

    /// As PNG.
    ///
    /// # Errors
    /// In words, should the picture not be written.
    pub fn png(&self) -> Result<Vec<u8>, String> {
        let mut bytes = Vec::new();
        let mut encoder = png::Encoder::new(&mut bytes, self.wide, self.high);
        encoder.set_color(png::ColorType::Grayscale);
        encoder.set_depth(png::BitDepth::One);
        let written = encoder.write_header().and_then(|mut writer| writer.write_image_data(&self.rows()));
        written.map_err(|error| format!("the picture could not be made: {error}"))?;
        Ok(bytes)
    }

    /// As PDF, in its true size.
    pub fn pdf(&self) -> Vec<u8> {
        let [catalogue, pages, page, picture, drawn] = [1, 2, 3, 4, 5].map(Ref::new);
        let wide = (f64::from(self.wide) / DOTS * POINTS) as f32;
        let high = (f64::from(self.high) / DOTS * POINTS) as f32;
        let mut pdf = Pdf::new();
        pdf.catalog(catalogue).pages(pages);
        pdf.pages(pages).kids([page]).count(1);
        let mut one = pdf.page(page);
        one.parent(pages).media_box(Rect::new(0.0, 0.0, wide, high)).contents(drawn);
        one.resources().x_objects().pair(Name(b"Label"), picture);
        one.finish();
        let hex: Vec<u8> = self.rows().iter().flat_map(|own| format!("{own:02X}").into_bytes()).collect();
        let mut image = pdf.image_xobject(picture, &hex);
        image.filter(Filter::AsciiHexDecode);
        image.width(self.wide as i32).height(self.high as i32);
        image.color_space().device_gray();
        image.bits_per_component(1);
        image.finish();
        let mut content = Content::new();
        content.save_state();
        content.transform([wide, 0.0, 0.0, high, 0.0, 0.0]);
        content.x_object(Name(b"Label"));
        content.restore_state();
        pdf.stream(drawn, &content.finish());
        pdf.finish()
    }
}
