//! Builds a kitchen begins with: their places, no components yet; and a batter for each kind of sponge.

use crate::formula::Line;
use crate::stack::document::{
    Bake, Container, Dam, FillingTask, Insert, Layer, SoakGrade, Soaking, StackDocument, Tier,
};
use crate::stack::onto::{CoatLayer, Dowels, Drips, Edge, PipedBorder, Rosettes};
use crate::stack::shape::body::Body;
use crate::stack::shape::cover::Border;
use crate::units::kitchen::Measures;
use serde::{Deserialize, Serialize};
use std::sync::LazyLock;
use utoipa::ToSchema;

/// A build to begin with.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Template {
    /// Key.
    pub key: String,
    /// What it is called.
    pub name: String,
    /// What it is, in one sentence.
    pub about: String,
    /// The cake.
    pub document: StackDocument,
}

#[derive(Deserialize)]
struct BakeRow {
    sponge: String,
    name: String,
    oven_loss_percent: f64,
    // Read by `baking`.
    #[serde(rename = "baking")]
    _baking: serde::de::IgnoredAny,
    lines: Vec<[String; 2]>,
}

#[derive(Deserialize)]
struct BakeFile {
    bake: Vec<BakeRow>,
}

static BAKES: LazyLock<Vec<Bake>> = LazyLock::new(|| {
    let file: BakeFile =
        toml::from_str(include_str!("../../data/bakes.toml")).expect("the table of bakes is well formed");
    file.bake
        .into_iter()
        .map(|row| Bake {
            key: row.sponge.clone(),
            name: row.name,
            sponge: row.sponge,
            bulk_kg_m3: None,
            crumb_strength_pa: None,
            lines: row.lines.into_iter().map(|[ingredient, amount]| Line::new(ingredient, amount)).collect(),
            measures: Measures::default(),
            oven_loss_percent: row.oven_loss_percent,
        })
        .collect()
});

/// A batter for each kind of sponge.
pub fn bakes() -> &'static [Bake] {
    &BAKES
}

fn bake(sponge: &str) -> Bake {
    BAKES.iter().find(|bake| bake.sponge == sponge).cloned().expect("every sponge has a batter")
}

fn sponge(key: &str, thickness_mm: f64, soak: Option<SoakGrade>) -> Layer {
    let soak = soak.map(|grade| Soaking { component: None, grade, gram_per_gram: None, dry_rim_mm: 10.0 });
    Layer::Sponge { bake: Some(key.to_owned()), thickness_mm, trim_mm: 0.0, soak }
}

fn filling(thickness_mm: f64) -> Layer {
    Layer::Filling {
        component: None,
        task: FillingTask::Fill,
        thickness_mm: Some(thickness_mm),
        dam: None,
        inserts: Vec::new(),
    }
}

fn dammed(thickness_mm: f64) -> Layer {
    let dam = Some(Dam { component: None, width_mm: 12.0 });
    Layer::Filling {
        component: None,
        task: FillingTask::Fill,
        thickness_mm: Some(thickness_mm),
        dam,
        inserts: vec![],
    }
}

fn task(task: FillingTask, thickness_mm: Option<f64>, inserts: Vec<Insert>) -> Layer {
    Layer::Filling { component: None, task, thickness_mm, dam: None, inserts }
}

fn coat(side_mm: f64) -> Option<CoatLayer> {
    Some(CoatLayer { component: None, side_mm, top_mm: None })
}

fn drips() -> Option<Drips> {
    Some(Drips {
        component: None,
        count: None,
        dose_ml: 0.9,
        length_mm: [25.0, 70.0],
        coat_c: 6.0,
        flood: true,
    })
}

fn border(tip_mm: f64) -> PipedBorder {
    PipedBorder { component: None, style: Border::Shell, tip_mm, edge: Edge::Foot }
}

/// Sponges of one kind with fillings between them.
fn layered(body: Body, sponges: usize, key: &str, soak: SoakGrade, between: impl Fn(usize) -> Layer) -> Tier {
    let mut tier = Tier::empty(body);
    for k in 0..sponges {
        tier.layers.push(sponge(key, 20.0, Some(soak)));
        if k + 1 < sponges {
            tier.layers.push(between(k));
        }
    }
    tier
}

fn template(key: &str, name: &str, about: &str, tiers: Vec<Tier>, bakes: &[&str]) -> Template {
    let mut document = StackDocument::empty(Body::Round { diameter_mm: 180.0 });
    document.name = name.to_owned();
    document.tiers = tiers;
    // What the cold sets is eaten cold.
    let cold = document
        .tiers
        .iter()
        .flat_map(|tier| &tier.layers)
        .any(|layer| matches!(layer, Layer::Filling { task: FillingTask::Set | FillingTask::Spoon, .. }));
    document.serve_c = cold.then_some(8.0);
    document.bakes = bakes.iter().map(|key| bake(key)).collect();
    Template { key: key.to_owned(), name: name.to_owned(), about: about.to_owned(), document }
}

/// The common builds, the usual one first.
pub fn templates() -> Vec<Template> {
    let round = |diameter_mm: f64| Body::Round { diameter_mm };
    let coated = |mut tier: Tier| {
        tier.crumb_coat = coat(1.5);
        tier.coat = coat(5.0);
        tier
    };
    let four = coated(layered(round(180.0), 4, "genoise", SoakGrade::Moist, |_| filling(8.0)));
    let mut dripped = coated(layered(round(160.0), 4, "chocolate_oil", SoakGrade::Light, |k| {
        if k == 1 { dammed(8.0) } else { filling(6.0) }
    }));
    dripped.drip = drips();
    dripped.borders = vec![border(10.0)];
    let mut below = dripped.clone();
    below.body = round(220.0);
    below.dowels = Some(Dowels { count: 4, diameter_mm: 8.0 });
    let mut naked = layered(round(180.0), 3, "butter_cake", SoakGrade::Light, |_| filling(10.0));
    naked.collar_mm = Some(100.0);
    naked.rosettes =
        vec![Rosettes { component: None, count: 8, diameter_mm: 25.0, height_mm: 20.0, tip_mm: 10.0 }];
    let mut dome = Tier::empty(Body::Dome { diameter_mm: 70.0, height_mm: 35.0 });
    let base = Insert {
        component: None,
        bake: Some("joconde".to_owned()),
        diameter_mm: 60.0,
        thickness_mm: 6.0,
        above_mm: 0.0,
    };
    let middle =
        Insert { component: None, bake: None, diameter_mm: 40.0, thickness_mm: 10.0, above_mm: 10.0 };
    dome.layers = vec![task(FillingTask::Set, None, vec![base, middle])];
    dome.glaze = coat(2.0);
    let mut jar = Tier::empty(Body::Cup { bottom_mm: 70.0, top_mm: 70.0, height_mm: 75.0 });
    jar.container = Some(Container { name: "Jar of 280 ml".to_owned(), headspace_mm: 5.0 });
    jar.layers = vec![
        sponge("genoise", 15.0, Some(SoakGrade::Moist)),
        task(FillingTask::Spoon, Some(20.0), vec![]),
        sponge("genoise", 12.0, Some(SoakGrade::Moist)),
        task(FillingTask::Spoon, None, vec![]),
    ];
    let mut roll = Tier::empty(Body::Roll { sheet_mm: 350.0, length_mm: 250.0 });
    roll.layers = vec![sponge("ladyfinger", 9.0, Some(SoakGrade::Light)), filling(7.0)];
    let mut ring_mould = Tier::empty(Body::Cup { bottom_mm: 180.0, top_mm: 180.0, height_mm: 45.0 });
    let disc = Insert { component: None, bake: None, diameter_mm: 140.0, thickness_mm: 12.0, above_mm: 12.0 };
    ring_mould.layers =
        vec![sponge("joconde", 8.0, Some(SoakGrade::Light)), task(FillingTask::Set, None, vec![disc])];
    ring_mould.glaze = coat(2.0);
    let tray = coated(layered(
        Body::Rectangle { length_mm: 600.0, width_mm: 400.0, corner_mm: 0.0 },
        3,
        "joconde",
        SoakGrade::Moist,
        |_| filling(8.0),
    ));
    let mut log = Tier::empty(Body::Trough { width_mm: 80.0, height_mm: 65.0, length_mm: 250.0 });
    log.layers = vec![sponge("joconde", 8.0, Some(SoakGrade::Light)), task(FillingTask::Set, None, vec![])];
    log.glaze = coat(2.0);
    vec![
        template(
            "layers",
            "Four layers, coated",
            "A round of four sponges, filled, crumb coated and coated.",
            vec![four],
            &["genoise"],
        ),
        template(
            "drip",
            "Drip cake",
            "Four layers with a dam in the middle, coated, dripped, a border at the foot.",
            vec![dripped.clone()],
            &["chocolate_oil"],
        ),
        template(
            "tiers",
            "Two tiers",
            "A smaller drip cake on dowels in a wider one.",
            vec![below, dripped],
            &["chocolate_oil"],
        ),
        template(
            "naked",
            "Naked cake",
            "Three layers in a collar, rosettes on top, nothing on its side.",
            vec![naked],
            &["butter_cake"],
        ),
        template(
            "ring",
            "Mousse in a ring",
            "Sponge, mousse with a disc in it, a glaze over it.",
            vec![ring_mould],
            &["joconde"],
        ),
        template(
            "dome",
            "Domes",
            "Mousse in half a ball, a disc in it, a base, a glaze.",
            vec![dome],
            &["joconde"],
        ),
        template("jar", "Jars", "Sponge and cream in turn in a jar for sale.", vec![jar], &["genoise"]),
        template("roll", "Roll", "A sheet spread and rolled up.", vec![roll], &["ladyfinger"]),
        template(
            "log",
            "Log",
            "Mousse on a base in a trough, turned out and glazed.",
            vec![log],
            &["joconde"],
        ),
        template(
            "tray",
            "Tray to cut",
            "Three sheets filled in a frame and cut in squares.",
            vec![tray],
            &["joconde"],
        ),
    ]
}
