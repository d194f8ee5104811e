//! Builds a kitchen begins with: their places, no components yet; and a batter for each kind of sponge.

use crate::formula::Line;
use crate::stack::case::{Case, CaseForm, CutInto, Many, Pile};
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
    /// Under what it stands: "Cakes, moulds and jars".
    pub group: String,
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

/// Where templates stand.
const CAKES: &str = "Cakes, moulds and jars";
const CASES: &str = "Shells, choux and pieces";

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
    Template {
        key: key.to_owned(),
        name: name.to_owned(),
        about: about.to_owned(),
        group: CAKES.to_owned(),
        document,
    }
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
    let mut all = vec![
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
    ];
    all.extend(cased().into_iter().map(|own| Template { group: CASES.to_owned(), ..own }));
    all
}

/// Pieces of which there are many, each with a case.
fn pieces(body: Body, form: CaseForm, bake: &str, [count, spare]: [u32; 2], filling: Layer) -> Tier {
    let mut tier = Tier::empty(body);
    tier.case = Some(Case { form, bake: Some(bake.to_owned()), film: None });
    tier.many = Some(Many { count, spare, pile: None });
    tier.layers = vec![filling];
    tier
}

/// Shells, choux, sheets, pairs and cups.
fn cased() -> Vec<Template> {
    let full = || task(FillingTask::Spoon, None, vec![]);
    let shell = |wall_mm: f64| CaseForm::Shell { wall_mm, floor_mm: wall_mm, flutes_mm: 0.0 };
    let cup = |bottom_mm: f64, top_mm: f64, height_mm: f64| Body::Cup { bottom_mm, top_mm, height_mm };
    let shells = pieces(cup(80.0, 80.0, 20.0), shell(3.0), "short_crust", [12, 1], full());
    let fluted = CaseForm::Shell { wall_mm: 3.5, floor_mm: 3.5, flutes_mm: 3.0 };
    let mut crust = pieces(cup(200.0, 230.0, 32.0), fluted, "short_crust", [1, 0], full());
    crust.many = None;
    let mut crumb = pieces(cup(200.0, 200.0, 45.0), shell(6.0), "biscuit_base", [1, 0], full());
    crumb.many = None;
    let bun = Body::Dome { diameter_mm: 45.0, height_mm: 34.0 };
    let buns = pieces(bun, CaseForm::Closed { wall_mm: 3.0 }, "choux", [24, 2], full());
    let mut pile = buns.clone();
    pile.many = Some(Many { count: 35, spare: 3, pile: Some(Pile { component: None, each_g: 4.0 }) });
    let long = Body::HalfLog { diameter_mm: 36.0, length_mm: 130.0 };
    let long = pieces(long, CaseForm::Closed { wall_mm: 3.0 }, "choux", [12, 1], full());
    let mut ring = Tier::empty(Body::Ring { diameter_mm: 210.0, hole_mm: 110.0 });
    ring.layers = vec![sponge("choux", 16.0, None), filling(22.0), sponge("choux", 14.0, None)];
    let tube = Body::Tube { diameter_mm: 24.0, length_mm: 110.0 };
    let tubes = pieces(tube, CaseForm::Tube { wall_mm: 1.5 }, "lace_biscuit", [12, 2], full());
    let pair = |bake: &str, thick_mm: f64| {
        let mut pair = Tier::empty(Body::Round { diameter_mm: 42.0 });
        pair.layers = vec![sponge(bake, thick_mm, None), filling(5.0), sponge(bake, thick_mm, None)];
        pair.many = Some(Many { count: 24, spare: 2, pile: None });
        pair
    };
    let hole = CaseForm::Cored { across_mm: 26.0, deep_mm: 28.0 };
    let mut cored = pieces(cup(50.0, 68.0, 46.0), hole, "butter_cake", [12, 0], full());
    cored.rosettes =
        vec![Rosettes { component: None, count: 1, diameter_mm: 55.0, height_mm: 28.0, tip_mm: 12.0 }];
    let mut sheets = Tier::empty(Body::Rectangle { length_mm: 240.0, width_mm: 180.0, corner_mm: 0.0 });
    sheets.layers = vec![
        sponge("puff_pastry", 6.0, None),
        filling(14.0),
        sponge("puff_pastry", 6.0, None),
        filling(14.0),
        sponge("puff_pastry", 6.0, None),
    ];
    sheets.cut = Some(CutInto { rows: 3, columns: 3 });
    vec![
        template(
            "sheets",
            "Sheets and a filling, cut in pieces",
            "Three crisp sheets with a filling between them, cut three by three.",
            vec![sheets],
            &["puff_pastry"],
        ),
        template(
            "shells",
            "Shells with a filling",
            "Small straight shells, filled to the rim.",
            vec![shells],
            &["short_crust"],
        ),
        template(
            "crust",
            "Fluted crust",
            "One wide crust with a fluted wall.",
            vec![crust],
            &["short_crust"],
        ),
        template("crumb", "Crumb crust", "A pressed crust, filled and set.", vec![crumb], &["biscuit_base"]),
        template("buns", "Choux, round", "Choux filled through a hole.", vec![buns], &["choux"]),
        template("long", "Choux, long", "Long choux filled through a hole.", vec![long], &["choux"]),
        template("choux_ring", "Choux in a ring", "A ring split, filled and closed.", vec![ring], &["choux"]),
        template(
            "pile",
            "A pile of filled pieces",
            "Filled choux by count, held together by boiled sugar.",
            vec![pile],
            &["choux"],
        ),
        template(
            "pairs",
            "Pairs of shells",
            "Two almond shells with a filling between them.",
            vec![pair("almond_shell", 8.0)],
            &["almond_shell"],
        ),
        template(
            "wafers",
            "Pairs of wafers",
            "Two wafers with a filling.",
            vec![pair("wafer", 3.0)],
            &["wafer"],
        ),
        template(
            "tubes",
            "Tubes",
            "Lace biscuits rolled to tubes and filled.",
            vec![tubes],
            &["lace_biscuit"],
        ),
        template(
            "cored",
            "Cups to sell, cored",
            "Cakes in cups with a hole cut from the top, filled and piped.",
            vec![cored],
            &["butter_cake"],
        ),
    ]
}
