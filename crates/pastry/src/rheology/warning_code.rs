//! What a formula may be warned of.

use crate::code::codes;

codes! {
    /// What a formula is warned of.
    WarningCode {
        /// Its agar was not boiled.
        AgarRaw = "agar_raw",
        /// It holds alcohol.
        Alcohol = "alcohol",
        /// An enzyme of its yolk thins its starch.
        Amylase = "amylase",
        /// So much is swollen in it that little syrup is left to move in.
        Crowded = "crowded",
        /// It is so sour that hot milk curdles.
        Curdles = "curdles",
        /// Egg in it stays raw, or is not heated enough.
        EggRaw = "egg_raw",
        /// Egg in it gets hotter than it can.
        EggScrambles = "egg_scrambles",
        /// Fat is outside: it behaves as butter, not as cream.
        FatOutside = "fat_outside",
        /// Its acid weakens the gelatin.
        GelatinAcid = "gelatin_acid",
        /// Its alcohol throws the gelatin out.
        GelatinAlcohol = "gelatin_alcohol",
        /// What animal its gelatin comes from.
        GelatinOrigin = "gelatin_origin",
        /// Sugar in it comes out in grains.
        Graining = "graining",
        /// Its sugar stays in crystals.
        Grit = "grit",
        /// It cannot get as hot as was said.
        HeatImpossible = "heat_impossible",
        /// It holds honey.
        Honey = "honey",
        /// Milk sugar in it comes out like sand.
        LactoseSand = "lactose_sand",
        /// There is no water in it.
        NoWater = "no_water",
        /// Its pectin wants more sugar or acid.
        PectinNeeds = "pectin_needs",
        /// What was made before had set when it went in.
        SetBefore = "set_before",
        /// Raw fruit in it cuts the gelatin.
        Protease = "protease",
        /// It is too salty to eat.
        Salty = "salty",
        /// So little water that chocolate seizes.
        Seizes = "seizes",
        /// A soak is sweeter or less sweet than was meant.
        SoakBrix = "soak_brix",
        /// So much spirit that cream curdles.
        Spirit = "spirit",
        /// It is close to splitting, or splits.
        Split = "split",
        /// Its starch is not cooked.
        StarchRaw = "starch_raw",
        /// It holds more water than its butter can take.
        TooWet = "too_wet",
        /// Too little fat to whip.
        WhipFat = "whip_fat",
        /// Too thick to take air.
        WhipThick = "whip_thick",
        /// Too thin to keep air.
        WhipThin = "whip_thin",
        /// Too warm to whip.
        WhipWarm = "whip_warm",
    }
}
