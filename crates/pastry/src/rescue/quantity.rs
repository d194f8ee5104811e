//! Numbers of a bowl that a signal may compare.

/// What can be compared.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Quantity {
    /// Temperature of the bowl, °C.
    Temperature,
    /// Split index, 0 to 1.
    Split,
    /// Yield stress in the bowl, Pa.
    YieldStress,
    /// Viscosity in the bowl at 10 /s, Pa·s.
    Viscosity,
    /// Solid fat, 0 to 1 of all fat.
    SolidFat,
    /// Fat of the wet part, per cent.
    FatInWet,
    /// Undissolved sugar, per cent of total.
    Undissolved,
    /// Sugar held over what water can keep.
    Graining,
    /// Milk sugar over what water can keep.
    Lactose,
    /// Gelatin, per cent of the watery phase.
    Gelatin,
    /// Starch, per cent of liquid.
    Starch,
    /// Highest temperature reached, °C.
    Cook,
    /// Volume gained, per cent.
    Overrun,
    /// How stiff it was whipped, 0 to 1.
    Whip,
    /// Water, per cent of total.
    Water,
    /// Alcohol by volume, per cent.
    Alcohol,
    /// Acid, per cent of total.
    Acid,
    /// Salt, per cent of total.
    Salt,
    /// Sweetness, per cent of total as sucrose.
    Sweetness,
    /// Dissolved solids, °Bx.
    Brix,
    /// Hours in the cold.
    Hours,
}

/// Key, quantity, name and unit.
pub(super) const WORDS: [(&str, Quantity, &str, &str); 21] = [
    ("t", Quantity::Temperature, "the bowl", " °C"),
    ("split", Quantity::Split, "split index", ""),
    ("tau", Quantity::YieldStress, "yield stress", " Pa"),
    ("eta", Quantity::Viscosity, "viscosity", " Pa·s"),
    ("solid", Quantity::SolidFat, "solid fat, share of fat", ""),
    ("fiw", Quantity::FatInWet, "fat in the wet part", " %"),
    ("undissolved", Quantity::Undissolved, "undissolved sugar", " % of total"),
    ("graining", Quantity::Graining, "sugar over what its water keeps", " times"),
    ("lactose", Quantity::Lactose, "milk sugar over what its water keeps", " times"),
    ("gel", Quantity::Gelatin, "gelatin on the liquid", " %"),
    ("starch", Quantity::Starch, "starch on the liquid", " %"),
    ("cook", Quantity::Cook, "the highest it reached", " °C"),
    ("overrun", Quantity::Overrun, "air beaten in", " %"),
    ("whip", Quantity::Whip, "whipped to, of 1", ""),
    ("water", Quantity::Water, "water", " % of total"),
    ("alcohol", Quantity::Alcohol, "alcohol", " % by volume"),
    ("acid", Quantity::Acid, "acid", " % of total"),
    ("salt", Quantity::Salt, "salt", " % of total"),
    ("sweet", Quantity::Sweetness, "sweetness", " % of total as sugar"),
    ("brix", Quantity::Brix, "dissolved solids", " °Bx"),
    ("hours", Quantity::Hours, "time in the cold", " h"),
];
