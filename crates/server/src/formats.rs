//! The open formats.

/// A published format: the type that defines it, its title, what its fields `format` and `version` say.
pub struct Format {
    /// Name of its file, without ending.
    pub name: &'static str,
    /// The type that defines it.
    pub root: &'static str,
    /// Title of its schema.
    pub title: &'static str,
    /// What its field `format` says.
    pub says: &'static str,
}

/// The open formats, each published as a JSON Schema in the repository and served.
pub const FORMATS: [Format; 8] = [
    Format {
        name: "formula-1",
        root: "FormulaDocument",
        title: "Bright Spoon formula, version 1",
        says: pastry::format::FORMULA.name,
    },
    Format {
        name: "ingredient-1",
        root: "IngredientDocument",
        title: "Bright Spoon ingredient, version 1",
        says: pastry::format::INGREDIENT.name,
    },
    Format {
        name: "pantry-1",
        root: "PantryDocument",
        title: "Bright Spoon pantry, version 1",
        says: pastry::format::PANTRY.name,
    },
    Format {
        name: "stack-1",
        root: "StackDocument",
        title: "Bright Spoon cake, version 1",
        says: pastry::format::STACK.name,
    },
    Format {
        name: "order-1",
        root: "OrderDocument",
        title: "Bright Spoon order, version 1",
        says: pastry::format::ORDER.name,
    },
    Format {
        name: "kitchen-1",
        root: "KitchenDocument",
        title: "Bright Spoon kitchen, version 1",
        says: pastry::format::KITCHEN.name,
    },
    Format {
        name: "batch-1",
        root: "BatchDocument",
        title: "Bright Spoon batch, version 1",
        says: pastry::format::BATCH.name,
    },
    Format {
        name: "log-1",
        root: "LogDocument",
        title: "Bright Spoon log, version 1",
        says: pastry::format::LOG.name,
    },
];
