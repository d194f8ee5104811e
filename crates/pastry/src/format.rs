//! The open formats: what each is called, and what every document of ours has at its head.

use crate::fault::{Fault, FaultCode};

/// Most letters of a name.
pub const LONGEST_NAME: usize = 120;
/// Most letters of a note.
pub const LONGEST_NOTE: usize = 4000;

/// An open format.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Format {
    /// What the field `format` says.
    pub name: &'static str,
    /// The version written and read here.
    pub version: u32,
    /// What a document of it is: "a cake".
    pub is: &'static str,
}

/// A formula.
pub const FORMULA: Format = Format { name: "bright-spoon/formula", version: 1, is: "a formula" };
/// An ingredient of a kitchen's own.
pub const INGREDIENT: Format = Format { name: "bright-spoon/ingredient", version: 1, is: "an ingredient" };
/// A list of them.
pub const PANTRY: Format = Format { name: "bright-spoon/pantry", version: 1, is: "a pantry" };
/// A cake.
pub const STACK: Format = Format { name: "bright-spoon/stack", version: 1, is: "a cake" };
/// A kitchen.
pub const KITCHEN: Format = Format { name: "bright-spoon/kitchen", version: 1, is: "a kitchen" };
/// A plan.
pub const PLAN: Format = Format { name: "bright-spoon/plan", version: 1, is: "a plan" };
/// A batch while it is made.
pub const BATCH: Format = Format { name: "bright-spoon/batch", version: 1, is: "a batch" };
/// A log.
pub const LOG: Format = Format { name: "bright-spoon/log", version: 1, is: "a log" };
/// An order.
pub const ORDER: Format = Format { name: "bright-spoon/order", version: 1, is: "an order" };

impl Format {
    /// What is wrong with the head of a document: it is another, or of a version that is not known.
    pub fn faults(&self, format: &str, version: u32) -> Vec<Fault> {
        let mut faults = Vec::new();
        if format != self.name {
            let shown: String = format.chars().take(40).collect();
            let message =
                format!("this is “{shown}”, not {}: the format field must say {}", self.is, self.name);
            faults.push(Fault::new("format", FaultCode::UnknownFormat, message));
        }
        if version != self.version {
            let own = self.version;
            let message = format!(
                "version {version} is not known here: this program reads version {own}; update it, or save the file as version {own}"
            );
            faults.push(Fault::new("version", FaultCode::UnknownVersion, message));
        }
        faults
    }
}

/// What is wrong with a name and a note: more than anybody reads.
pub fn text_faults(name: &str, note: &str) -> Vec<Fault> {
    let long = |field: &str, text: &str, most: usize| {
        let letters = text.chars().count();
        (letters > most).then(|| {
            let message = format!("the {field} has {letters} letters: shorten it to {most}");
            Fault::new(field, FaultCode::TooLong, message)
        })
    };
    [long("name", name, LONGEST_NAME), long("note", note, LONGEST_NOTE)].into_iter().flatten().collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn another_document_is_refused_with_what_it_is() {
        let faults = STACK.faults("bright-spoon/order", 7);
        let fields: Vec<&str> = faults.iter().map(|fault| fault.field.as_str()).collect();
        assert_eq!(fields, ["format", "version"]);
        assert!(faults[0].message.contains("“bright-spoon/order”, not a cake"), "{}", faults[0].message);
        assert!(faults[1].message.contains("version 7") && faults[1].message.contains("update it"));
        assert_eq!(ORDER.faults(ORDER.name, ORDER.version), []);
        let faults = text_faults(&"é".repeat(121), &"ñ".repeat(4000));
        assert_eq!(faults.len(), 1, "{faults:?}");
        assert!(faults[0].message.contains("121 letters"));
    }
}
