//! Closed lists, each of them a type: what a warning, a finding or a fault is, where an ingredient stands, what a step
//! takes. On the wire and in the tables each is its word.

/// Makes the type of a list of codes: every code with its word, which is also how it is written.
macro_rules! codes {
    ($(#[doc = $doc:literal])* $name:ident { $($(#[$about:meta])* $code:ident = $word:literal,)+ }) => {
        $(#[doc = $doc])*
        #[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, serde::Serialize, serde::Deserialize)]
        pub enum $name {
            $($(#[$about])* #[serde(rename = $word)] $code,)+
        }

        impl $name {
            /// Every one of them.
            pub const ALL: &'static [$name] = &[$($name::$code),+];

            /// Its word, as it is written.
            pub const fn word(self) -> &'static str {
                match self {
                    $($name::$code => $word,)+
                }
            }

            /// The one written as this word.
            pub fn parse(word: &str) -> Option<Self> {
                Self::ALL.iter().copied().find(|one| one.word() == word)
            }
        }

        // Written out: the derive does not see a word that a macro hands on.
        impl utoipa::PartialSchema for $name {
            fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::schema::Schema> {
                utoipa::openapi::schema::ObjectBuilder::new()
                    .schema_type(utoipa::openapi::schema::Type::String)
                    .description(Some(concat!($($doc),*).trim()))
                    .enum_values(Some(Self::ALL.iter().map(|one| one.word())))
                    .into()
            }
        }

        impl utoipa::ToSchema for $name {}

        impl std::fmt::Display for $name {
            fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
                f.write_str(self.word())
            }
        }
    };
}

pub(crate) use codes;

#[cfg(test)]
mod tests {
    use crate::fault::FaultCode;
    use crate::rheology::warning::WarningCode;
    use crate::stack::check::finding::FindingCode;

    #[test]
    fn every_code_is_written_as_its_word() {
        fn written<T: serde::Serialize>(all: &[T], word: impl Fn(&T) -> &'static str) {
            for code in all {
                assert_eq!(serde_json::to_value(code).unwrap(), word(code));
            }
        }
        written(FaultCode::ALL, |code| code.word());
        written(WarningCode::ALL, |code| code.word());
        written(FindingCode::ALL, |code| code.word());
    }
}
