//! Revisions, lines of lists and events in the description of the interface. Each kind of document has its own, under the
//! name it gives itself: a derived one would be called the same for all.

use crate::journal::{Event, KeptEvent};
use crate::kept::Revision;
use crate::list::Listed;
use crate::noun::Kept;
use std::borrow::Cow;
use utoipa::openapi::schema::{AllOfBuilder, ArrayBuilder, ObjectBuilder, Schema, SchemaType, Type};
use utoipa::openapi::{KnownFormat, Ref, RefOr, SchemaFormat};
use utoipa::{PartialSchema, ToSchema};

fn field(kind: Type, words: &str) -> ObjectBuilder {
    let format = matches!(kind, Type::Integer).then_some(SchemaFormat::KnownFormat(KnownFormat::Int64));
    ObjectBuilder::new().schema_type(kind).format(format).description(Some(words))
}

impl<D: Kept + ToSchema> PartialSchema for Revision<D> {
    fn schema() -> RefOr<Schema> {
        let saved_by = field(Type::String, "The device it was saved from, if that said so.")
            .schema_type(SchemaType::from_iter([Type::String, Type::Null]));
        ObjectBuilder::new()
            .description(Some("One revision of a thing, with its document."))
            .property("id", field(Type::String, "Key of the thing."))
            .property("revision", field(Type::Integer, "This revision."))
            .property("newest_revision", field(Type::Integer, "The newest revision there is."))
            .property("saved_at", field(Type::String, "When this revision was saved, RFC 3339."))
            .property("saved_by", saved_by)
            .property("document", Ref::from_schema_name(D::name()))
            .required("id")
            .required("revision")
            .required("newest_revision")
            .required("saved_at")
            .required("document")
            .into()
    }
}

impl<D: Kept + ToSchema> ToSchema for Revision<D> {
    fn name() -> Cow<'static, str> {
        Cow::Borrowed(D::DESCRIBED.0)
    }

    fn schemas(schemas: &mut Vec<(String, RefOr<Schema>)>) {
        schemas.push((D::name().into_owned(), D::schema()));
        D::schemas(schemas);
    }
}

impl<D: Kept> PartialSchema for Listed<D> {
    fn schema() -> RefOr<Schema> {
        let tags = ArrayBuilder::new()
            .items(ObjectBuilder::new().schema_type(Type::String))
            .description(Some("Its tags."));
        let frame = ObjectBuilder::new()
            .property("id", field(Type::String, "Its key."))
            .property("name", field(Type::String, "Its name."))
            .property("revision", field(Type::Integer, "Newest revision."))
            .property("saved_at", field(Type::String, "When that was saved, RFC 3339."))
            .property("tags", tags)
            .property("archived", field(Type::Boolean, "Put away: not listed unless asked for."))
            .required("id")
            .required("name")
            .required("revision")
            .required("saved_at")
            .required("tags")
            .required("archived");
        AllOfBuilder::new()
            .description(Some("A thing as its list shows it."))
            .item(D::Shown::schema())
            .item(frame)
            .into()
    }
}

impl<D: Kept> ToSchema for Listed<D> {
    fn name() -> Cow<'static, str> {
        Cow::Borrowed(D::DESCRIBED.1)
    }

    fn schemas(schemas: &mut Vec<(String, RefOr<Schema>)>) {
        D::Shown::schemas(schemas);
    }
}

impl<E: Event + ToSchema> PartialSchema for KeptEvent<E> {
    fn schema() -> RefOr<Schema> {
        let device = field(Type::String, "From which device, if that said so.")
            .schema_type(SchemaType::from_iter([Type::String, Type::Null]));
        ObjectBuilder::new()
            .description(Some("An event as it is kept."))
            .property("place", field(Type::Integer, "Its place among the events of its thing, from 1."))
            .property("id", field(Type::String, "Its id."))
            .property("at", field(Type::String, "When it happened, by the clock of the device, RFC 3339."))
            .property("kept_at", field(Type::String, "When it came here, RFC 3339."))
            .property("device", device)
            .property("event", Ref::from_schema_name(E::name()))
            .required("place")
            .required("id")
            .required("at")
            .required("kept_at")
            .required("event")
            .into()
    }
}

impl<E: Event + ToSchema> ToSchema for KeptEvent<E> {
    fn name() -> Cow<'static, str> {
        Cow::Borrowed(E::DESCRIBED)
    }

    fn schemas(schemas: &mut Vec<(String, RefOr<Schema>)>) {
        schemas.push((E::name().into_owned(), E::schema()));
        E::schemas(schemas);
    }
}
