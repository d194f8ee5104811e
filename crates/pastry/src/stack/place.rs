//! The places of a cake: each layer, ring, coat, drip and border, where it lies and what volume it has.

use crate::stack::address::{Address, At};
use crate::stack::document::{Layer, StackDocument, Tier};
use crate::stack::onto::{CoatLayer, Edge};
use crate::stack::shape::body::Body;
use crate::stack::shape::cover;
use crate::stack::shape::footprint::Footprint;
use serde::Serialize;
use std::f64::consts::PI;
use utoipa::ToSchema;

/// What a place is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PlaceKind {
    /// Sponge or base.
    Sponge,
    /// Syrup in a sponge.
    Soak,
    /// Between sponges, or in a vessel.
    Filling,
    /// A ring round a filling.
    Dam,
    /// A disc in a filling.
    Insert,
    /// The thin first coat.
    CrumbCoat,
    /// The coat.
    Coat,
    /// Poured over.
    Glaze,
    /// Down the side.
    Drip,
    /// Piped round.
    Border,
    /// Piped on.
    Rosettes,
    /// Laid on.
    Pieces,
    /// Shell, crust or choux.
    Case,
    /// A film in that.
    Film,
    /// Between the pieces of a pile.
    Pile,
}

impl PlaceKind {
    /// In kitchen words.
    pub fn word(self) -> &'static str {
        match self {
            PlaceKind::Sponge => "sponge",
            PlaceKind::Soak => "soak",
            PlaceKind::Filling => "filling",
            PlaceKind::Dam => "dam",
            PlaceKind::Insert => "insert",
            PlaceKind::CrumbCoat => "crumb coat",
            PlaceKind::Coat => "coat",
            PlaceKind::Glaze => "glaze",
            PlaceKind::Drip => "drips",
            PlaceKind::Border => "border",
            PlaceKind::Rosettes => "rosettes",
            PlaceKind::Pieces => "pieces",
            PlaceKind::Case => "case",
            PlaceKind::Film => "film",
            PlaceKind::Pile => "joint",
        }
    }
}

/// What a place is made of.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Stuff<'a> {
    /// A component by its key; none when nobody said yet.
    Component(Option<&'a str>),
    /// Something baked; none when nobody said yet.
    Bake(Option<&'a str>),
    /// So many pieces of so many grams.
    Pieces,
}

/// One place.
#[derive(Debug, Clone)]
pub struct Spot<'a> {
    /// Where it stands in its tier.
    pub at: At,
    /// Which tier.
    pub tier: usize,
    /// What it is.
    pub kind: PlaceKind,
    /// What it is made of.
    pub stuff: Stuff<'a>,
    /// From and to above the board, cm.
    pub z: [f64; 2],
    /// Its thickness as the cook counts it, cm: height of a layer, of a coat on the side, of a rosette.
    pub thickness: f64,
    /// The outline it lies on or in, cm.
    pub outline: Footprint,
    /// Its volume, ml.
    pub volume: f64,
    /// How much of that lies on top of the tier, ml.
    pub on_top: f64,
    /// Trimmed off with it, ml.
    pub trimmed: f64,
    /// How many of them, for what is counted; 1 for the rest.
    pub count: u32,
}

impl<'a> Spot<'a> {
    /// Where it stands in the document.
    pub fn address(&self) -> Address {
        Address::In(self.tier, self.at)
    }

    /// The path of a field of it.
    pub fn field(&self, name: &str) -> String {
        self.address().field(name)
    }

    /// The layer it is, or is in.
    pub fn layer<'d>(&self, document: &'d StackDocument) -> Option<&'d Layer> {
        document.tiers.get(self.tier)?.layers.get(self.at.layer()?)
    }
}

/// A tier laid out.
#[derive(Debug, Clone)]
pub struct TierLayout {
    /// Its foot and its top above the board, cm, coats included.
    pub z: [f64; 2],
    /// Height of its layers, cm.
    pub inner: f64,
    /// Its coats on the side, cm.
    pub side: f64,
    /// Its coats on the top, cm.
    pub top: f64,
    /// Its outline at the foot, cm, with its coats.
    pub outside: Footprint,
    /// What is over the rim less the headspace of its vessel, ml; 0 when it fits.
    pub over_ml: f64,
    /// Height it can be filled to, cm; none for what has no rim.
    pub brim: Option<f64>,
    /// Room left for the layer that takes the rest, cm; none when no layer does.
    pub rest: Option<f64>,
}

/// A cake laid out: tiers, and places from the plate up.
pub struct Layout<'a> {
    /// The tiers.
    pub tiers: Vec<TierLayout>,
    /// The places, in the order they are made.
    pub spots: Vec<Spot<'a>>,
}

/// What is no length counts as none: it is spoken of where it stands.
pub(super) fn cm(mm: f64) -> f64 {
    if mm.is_finite() { 0.1 * mm.clamp(0.0, 2000.0) } else { 0.0 }
}

/// Whether every size of a body is one.
pub fn is_a_body(body: &Body) -> bool {
    let [least, most] = crate::stack::shape::body::SIZES;
    body.sizes().iter().all(|(name, mm)| {
        let least = if *name == "hole_mm" { 0.0 } else { least };
        mm.is_finite() && (least..=most).contains(mm)
    }) && match *body {
        Body::Ring { diameter_mm, hole_mm } => hole_mm < diameter_mm,
        Body::Trough { width_mm, height_mm, .. } => height_mm >= 0.5 * width_mm,
        Body::Rectangle { length_mm, width_mm, corner_mm } => {
            (0.0..=0.5 * length_mm.min(width_mm)).contains(&corner_mm)
        }
        _ => true,
    }
}

impl<'a> Layout<'a> {
    /// Lays a cake out.
    pub fn of(document: &'a StackDocument) -> Self {
        let mut layout = Layout { tiers: Vec::new(), spots: Vec::new() };
        let mut foot = 0.0;
        for (at, tier) in document.tiers.iter().enumerate() {
            foot = layout.tier(at, tier, foot);
        }
        layout
    }

    fn tier(&mut self, at: usize, tier: &'a Tier, foot: f64) -> f64 {
        let body = &tier.body;
        if !is_a_body(body) {
            let outside = Footprint::Round { diameter: 0.0 };
            let nothing = TierLayout {
                z: [foot, foot],
                inner: 0.0,
                side: 0.0,
                top: 0.0,
                outside,
                over_ml: 0.0,
                brim: None,
                rest: None,
            };
            self.tiers.push(nothing);
            return foot;
        }
        let headspace = tier.container.as_ref().map_or(0.0, |container| cm(container.headspace_mm));
        // What cannot hold anything is spoken of at its place, and drawn as if there were no case.
        let hollow = tier.case.as_ref().and_then(|case| case.cavity(body));
        let (holds, base) = hollow.unwrap_or((*body, 0.0));
        let brim = holds.own_height_mm().map(|mm| (cm(mm) - headspace).max(0.0));
        let heights = heights(tier, brim);
        let stacked: f64 = heights.iter().sum();
        let rolled = matches!(body, Body::Roll { .. });
        let inner = match (rolled, hollow.and(body.own_height_mm())) {
            (true, _) => body.roll_diameter(stacked),
            (false, Some(own)) => cm(own).max(base + stacked),
            (false, None) => stacked,
        };
        let over_ml = brim.map_or(0.0, |brim| {
            // Over the rim there is no wall: as if the vessel went straight on.
            if stacked > brim + 1e-9 { holds.section(brim).area() * (stacked - brim) } else { 0.0 }
        });
        let begun = self.spots.len();
        if let Some(case) = &tier.case {
            self.case(at, case, body, [foot, foot + inner]);
        }
        let rest = tier.layers.iter().zip(&heights).find_map(|(layer, height)| {
            matches!(layer, Layer::Filling { thickness_mm: None, .. }).then_some(*height)
        });
        let coats = [&tier.crumb_coat, &tier.coat, &tier.glaze];
        let sides: f64 = coats.into_iter().flatten().map(|coat| cm(coat.side_mm)).sum();
        let tops: f64 = coats.into_iter().flatten().map(|coat| cm(coat.top_mm.unwrap_or(coat.side_mm))).sum();
        let mut z = 0.0;
        for (k, (layer, height)) in tier.layers.iter().zip(&heights).enumerate() {
            let span =
                if rolled { [foot, foot + inner] } else { [foot + base + z, foot + base + z + height] };
            self.layer((at, k), &holds, layer, span, [z, z + height]);
            if !rolled {
                z += height;
            }
        }
        let height_up_to = |under: f64| if rolled { inner } else { inner + under };
        let mut under = [0.0, 0.0];
        for (place, kind, coat) in [
            (At::CrumbCoat, PlaceKind::CrumbCoat, &tier.crumb_coat),
            (At::Coat, PlaceKind::Coat, &tier.coat),
            (At::Glaze, PlaceKind::Glaze, &tier.glaze),
        ] {
            if let Some(coat) = coat {
                self.coat((at, place), (body, coat), kind, (foot, height_up_to(under[1]), under[0]));
                under[0] += cm(coat.side_mm);
                under[1] += cm(coat.top_mm.unwrap_or(coat.side_mm));
            }
        }
        let mut top = if rolled { inner + 2.0 * sides } else { inner + tops };
        let span = [foot, foot + top];
        let base = if rolled {
            Footprint::Rectangle { length: cm(length_of(body)), width: inner, corner: 0.0 }
        } else {
            body.section(0.0)
        };
        let outside = base.grown(sides);
        self.on_it(at, tier, span, [outside, body.section(inner).grown(sides)]);
        let coats_on_top = top - inner;
        if let Some(many) = &tier.many {
            top = self.many(
                at,
                many,
                begun,
                [foot, top, 2.0 * (body.half_width(0.0).max(body.half_width(inner)) + sides)],
            );
        }
        let layout = TierLayout {
            z: [foot, foot + top],
            inner,
            side: sides,
            top: coats_on_top,
            outside,
            over_ml,
            brim,
            rest,
        };
        self.tiers.push(layout);
        foot + top
    }

    fn layer(
        &mut self,
        (tier, k): (usize, usize),
        body: &Body,
        layer: &'a Layer,
        span: [f64; 2],
        [from, to]: [f64; 2],
    ) {
        let height = to - from;
        let outline = body.section(0.5 * (from + to));
        let spot = |at, kind, stuff, z, thickness, volume| Spot {
            tier,
            at,
            kind,
            stuff,
            z,
            thickness,
            outline,
            volume,
            on_top: 0.0,
            trimmed: 0.0,
            count: 1,
        };
        match layer {
            Layer::Sponge { bake, trim_mm, soak, .. } => {
                let trimmed = outline.area() * cm(*trim_mm);
                let stuff = Stuff::Bake(bake.as_deref());
                let sponge = spot(At::Layer(k), PlaceKind::Sponge, stuff, span, height, body.part(from, to));
                self.spots.push(Spot { trimmed, ..sponge });
                if let Some(soak) = soak {
                    let wet = outline.grown(-cm(soak.dry_rim_mm));
                    let stuff = Stuff::Component(soak.component.as_deref());
                    let soaking = spot(At::Soak(k), PlaceKind::Soak, stuff, span, height, 0.0);
                    self.spots.push(Spot { outline: wet, ..soaking });
                }
            }
            Layer::Filling { component, dam, inserts, .. } => {
                let whole = body.part(from, to);
                let mut taken = 0.0;
                let mut rings = Vec::new();
                if let Some(dam) = dam {
                    let ring = (outline.area() - outline.grown(-cm(dam.width_mm)).area()).max(0.0) * height;
                    taken += ring;
                    let stuff = Stuff::Component(dam.component.as_deref());
                    rings.push(spot(At::Dam(k), PlaceKind::Dam, stuff, span, height, ring));
                }
                for (i, insert) in inserts.iter().enumerate() {
                    let (across, thick) = (cm(insert.diameter_mm), cm(insert.thickness_mm));
                    let volume = PI * across * across / 4.0 * thick;
                    taken += volume;
                    let foot = span[0] + cm(insert.above_mm);
                    let stuff = match (&insert.component, &insert.bake) {
                        (None, Some(bake)) => Stuff::Bake(Some(bake)),
                        (component, _) => Stuff::Component(component.as_deref()),
                    };
                    let disc =
                        spot(At::Insert(k, i), PlaceKind::Insert, stuff, [foot, foot + thick], thick, volume);
                    rings.push(Spot { outline: Footprint::Round { diameter: across }, ..disc });
                }
                let stuff = Stuff::Component(component.as_deref());
                let volume = (whole - taken).max(0.0);
                self.spots.push(spot(At::Layer(k), PlaceKind::Filling, stuff, span, height, volume));
                self.spots.extend(rings);
            }
        }
    }

    fn coat(
        &mut self,
        (tier, at): (usize, At),
        (body, coat): (&Body, &'a CoatLayer),
        kind: PlaceKind,
        (foot, height, under): (f64, f64, f64),
    ) {
        let (side, top) = (cm(coat.side_mm), cm(coat.top_mm.unwrap_or(coat.side_mm)));
        let round = body.section(0.0).grown(under);
        // On an outline the coat before makes it wider; elsewhere that is within the coat's own error.
        let volume =
            if body.stands() { cover::coat(&round, height, side, top) } else { body.coat(height, side, top) };
        let on_top = if body.stands() { round.grown(side).area() * top } else { 0.0 };
        self.spots.push(Spot {
            tier,
            at,
            kind,
            stuff: Stuff::Component(coat.component.as_deref()),
            z: [foot, foot + height + top],
            thickness: side,
            outline: round.grown(side),
            volume,
            on_top,
            trimmed: 0.0,
            count: 1,
        });
    }

    /// What goes onto a coated tier: drips, borders, rosettes, pieces.
    fn on_it(&mut self, on: usize, tier: &'a Tier, span: [f64; 2], [foot, edge]: [Footprint; 2]) {
        let spot = |at, kind, stuff, outline: Footprint, volume, count| Spot {
            tier: on,
            at,
            kind,
            stuff,
            z: span,
            thickness: 0.0,
            outline,
            volume,
            on_top: 0.0,
            trimmed: 0.0,
            count,
        };
        if let Some(drip) = &tier.drip {
            let count = drip.count.unwrap_or_else(|| cover::drip_count(&edge));
            let pool = if drip.flood { cover::drip_pool(&edge) } else { 0.0 };
            let stuff = Stuff::Component(drip.component.as_deref());
            let running =
                f64::from(count) * if drip.dose_ml.is_finite() { drip.dose_ml.clamp(0.0, 20.0) } else { 0.0 };
            let drips = spot(At::Drip, PlaceKind::Drip, stuff, edge, running + pool, count);
            self.spots.push(Spot { on_top: pool, thickness: cover::DRIP_POOL, ..drips });
        }
        for (k, border) in tier.borders.iter().enumerate() {
            let outline = if border.edge == Edge::Foot { foot } else { edge };
            let tip = cm(border.tip_mm);
            let length = outline.perimeter();
            let volume = if tip > 0.0 { cover::border(border.style, length, tip) } else { 0.0 };
            let count = if tip > 0.0 { (length / tip).round() as u32 } else { 0 };
            let stuff = Stuff::Component(border.component.as_deref());
            let piped = spot(At::Border(k), PlaceKind::Border, stuff, outline, volume, count);
            let on_top = if border.edge == Edge::Top { volume } else { 0.0 };
            self.spots.push(Spot { thickness: tip, on_top, ..piped });
        }
        for (k, rosettes) in tier.rosettes.iter().enumerate() {
            let (across, height) = (cm(rosettes.diameter_mm), cm(rosettes.height_mm));
            let volume = f64::from(rosettes.count) * cover::rosette(across, height);
            let stuff = Stuff::Component(rosettes.component.as_deref());
            let piped = spot(At::Rosettes(k), PlaceKind::Rosettes, stuff, edge, volume, rosettes.count);
            self.spots.push(Spot { thickness: height, on_top: volume, ..piped });
        }
        for (k, pieces) in tier.pieces.iter().enumerate() {
            self.spots.push(spot(At::Pieces(k), PlaceKind::Pieces, Stuff::Pieces, edge, 0.0, pieces.count));
        }
    }
}

fn length_of(body: &Body) -> f64 {
    match *body {
        Body::Roll { length_mm, .. } => length_mm,
        _ => 0.0,
    }
}

/// Heights of the layers, cm; the one that takes the rest gets what the others leave under the brim.
fn heights(tier: &Tier, brim: Option<f64>) -> Vec<f64> {
    let own = |layer: &Layer| match layer {
        Layer::Sponge { thickness_mm, .. } => Some(cm(*thickness_mm)),
        Layer::Filling { thickness_mm, .. } => thickness_mm.map(cm),
    };
    let given: f64 = tier.layers.iter().filter_map(own).sum();
    let open = tier.layers.iter().filter(|layer| own(layer).is_none()).count().max(1) as f64;
    let rest = brim.map_or(0.0, |brim| (brim - given).max(0.0)) / open;
    tier.layers.iter().map(|layer| own(layer).unwrap_or(rest)).collect()
}
