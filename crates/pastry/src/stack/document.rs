//! The open format of a cake: what stands on the plate, from the bottom up, and what each place is made of.

use crate::assess::BroughtComponent;
use crate::format;
use crate::formula::Line;
use crate::ingredient::IngredientDocument;
use crate::stack::case::{Case, CutInto, Many};
use crate::stack::onto::{CoatLayer, Dowels, Drips, Pieces, PipedBorder, Rosettes};
use crate::stack::shape::body::Body;
use crate::units::kitchen::Measures;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What the `format` field says.
pub const FORMAT: &str = format::STACK.name;
/// The version of the format written and read here.
pub const VERSION: u32 = format::STACK.version;
/// Most tiers drawn and worked out.
pub const MOST_TIERS: usize = 12;
/// Most layers of one tier read; more than [`USUAL_LAYERS`] are spoken of.
pub const MOST_LAYERS: usize = 100;
/// More layers than this in one tier are no cake.
pub const USUAL_LAYERS: usize = 24;

/// A cake from the plate up.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StackDocument {
    /// Always `bright-spoon/stack`.
    #[schema(example = "bright-spoon/stack")]
    pub format: String,
    /// Version of the format: 1.
    #[schema(example = 1, minimum = 1, maximum = 1)]
    pub version: u32,
    /// What the cook calls it.
    #[serde(default)]
    #[schema(max_length = 120, example = "Blackcurrant and bay tier cake")]
    pub name: String,
    /// Anything worth remembering.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 4000)]
    pub note: String,
    /// Its tiers, the lowest first.
    #[schema(min_items = 1, max_items = 12)]
    pub tiers: Vec<Tier>,
    /// What is baked for it.
    #[serde(default)]
    #[schema(max_items = 40)]
    pub bakes: Vec<Bake>,
    /// Formulas it brings, so that another kitchen has them too. A kitchen that has one by the same key uses
    /// its own.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 60)]
    pub components: Vec<BroughtComponent>,
    /// Own ingredients its sponges and pieces need, so that another kitchen has them too.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 200)]
    pub ingredients: Vec<IngredientDocument>,
    /// Temperature it is eaten at, °C; that of the room when none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -5, maximum = 45)]
    pub serve_c: Option<f64>,
    /// Warmest it gets on the way, °C; none when it stays where it is made.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -20, maximum = 45)]
    pub transport_c: Option<f64>,
    /// Weight of a portion, g; when none, 100, or the whole piece for a mould or a container of up to 250 g.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 5, maximum = 5000)]
    pub portion_g: Option<f64>,
    /// Height of the smoother, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub smoother_mm: Option<f64>,
    /// Inside of the box, mm: width, then height.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(min_items = 2, max_items = 2)]
    pub box_mm: Option<[f64; 2]>,
    /// Across the board, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub board_mm: Option<f64>,
    /// What stays in bowl, bag and pan.
    #[serde(default, skip_serializing_if = "Losses::are_usual")]
    pub losses: Losses,
}

/// What is made and does not end on the cake, per cent of what is made (common practice).
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Losses {
    /// Of what is spread or scooped.
    #[schema(minimum = 0, maximum = 50)]
    pub spread_percent: f64,
    /// Of what is piped.
    #[schema(minimum = 0, maximum = 50)]
    pub piped_percent: f64,
    /// Of what is poured or dripped, beside what a glaze runs off.
    #[schema(minimum = 0, maximum = 50)]
    pub poured_percent: f64,
}

impl Default for Losses {
    fn default() -> Self {
        Losses { spread_percent: 3.0, piped_percent: 6.0, poured_percent: 4.0 }
    }
}

impl Losses {
    /// Whether nobody changed them.
    pub fn are_usual(&self) -> bool {
        *self == Losses::default()
    }
}

/// Something baked: a sponge or a base.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Bake {
    /// The key its places name it by.
    #[schema(max_length = 60)]
    pub key: String,
    /// What the cook calls it.
    #[schema(max_length = 120)]
    pub name: String,
    /// Kind of sponge: its density, its pores, what it drinks.
    #[schema(max_length = 60, example = "genoise")]
    pub sponge: String,
    /// Its own density as baked, kg/m³, where it was weighed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 80, maximum = 1500)]
    pub bulk_kg_m3: Option<f64>,
    /// Stress at which its crumb tears, Pa (1500 assumed).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 50, maximum = 100000)]
    pub crumb_strength_pa: Option<f64>,
    /// What goes into the batter; nothing for what is bought.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 60)]
    pub lines: Vec<Line>,
    /// Whose cups and spoons are meant.
    #[serde(default)]
    pub measures: Measures,
    /// Weight lost in the oven, per cent of the batter.
    #[serde(default = "oven_loss")]
    #[schema(minimum = 0, maximum = 50)]
    pub oven_loss_percent: f64,
}

fn oven_loss() -> f64 {
    10.0
}

/// One tier.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Tier {
    /// Its shape and size, without coats.
    pub body: Body,
    /// Its layers, the lowest first.
    #[schema(max_items = 100)]
    pub layers: Vec<Layer>,
    /// The container it is sold in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub container: Option<Container>,
    /// The thin coat that holds the crumbs.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub crumb_coat: Option<CoatLayer>,
    /// The coat.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub coat: Option<CoatLayer>,
    /// What is poured over it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub glaze: Option<CoatLayer>,
    /// Drips down its side.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub drip: Option<Drips>,
    /// Borders piped round its foot or edge.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 10)]
    pub borders: Vec<PipedBorder>,
    /// Rosettes and other piped pieces.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 10)]
    pub rosettes: Vec<Rosettes>,
    /// What is laid on it: fruit, biscuits, curls.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 10)]
    pub pieces: Vec<Pieces>,
    /// Dowels in it that bear the tier above.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dowels: Option<Dowels>,
    /// Height of the collar or ring it is built in, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub collar_mm: Option<f64>,
    /// What holds its layers: a shell, a crust, choux. Its shape is then the outside of that.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub case: Option<Case>,
    /// Equal pieces, of which the tier is one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub many: Option<Many>,
    /// Rows and columns a tray is cut into; by the weight of a portion when none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cut: Option<CutInto>,
}

/// A container for sale.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Container {
    /// What it is called: "preserving jar 230 ml".
    #[schema(max_length = 80)]
    pub name: String,
    /// Room to leave under the rim, mm.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 100)]
    pub headspace_mm: f64,
}

/// One layer.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Layer {
    /// Sponge or base.
    Sponge {
        /// Key of what is baked; none when nobody said yet.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        bake: Option<String>,
        /// Height after trimming, mm.
        thickness_mm: f64,
        /// Trimmed off its top, mm.
        #[serde(default)]
        trim_mm: f64,
        /// What it drinks.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        soak: Option<Soaking>,
    },
    /// Cream, curd, mousse or jelly.
    Filling {
        /// Key of the component; none when nobody said yet.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        component: Option<String>,
        /// What it is to do there.
        #[serde(default)]
        task: FillingTask,
        /// Height, mm; the rest of a vessel when none.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        thickness_mm: Option<f64>,
        /// A ring of firmer cream that holds it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        dam: Option<Dam>,
        /// Discs set into it.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        #[schema(max_items = 10)]
        inserts: Vec<Insert>,
    },
}

/// What a filling is to do where it lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FillingTask {
    /// Bear what stands on it.
    #[default]
    Fill,
    /// Stand turned out and be cut.
    Set,
    /// Be eaten with a spoon.
    Spoon,
}

/// Syrup for a layer of sponge.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Soaking {
    /// Key of the component; none when nobody said yet.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub component: Option<String>,
    /// How moist.
    #[serde(default)]
    pub grade: SoakGrade,
    /// Syrup on sponge by weight, where the cook knows it: 0.5 is half its weight.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 5)]
    pub gram_per_gram: Option<f64>,
    /// Rim left dry, mm.
    #[serde(default = "dry_rim")]
    #[schema(minimum = 0, maximum = 100)]
    pub dry_rim_mm: f64,
}

fn dry_rim() -> f64 {
    10.0
}

/// How moist a sponge is to be.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SoakGrade {
    /// Just so that it is not dry.
    Light,
    /// Moist.
    #[default]
    Moist,
    /// Wet, and still whole.
    Drenched,
}

/// A ring of firm cream round a filling.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Dam {
    /// Key of the component; none when nobody said yet.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub component: Option<String>,
    /// Width of the ring, mm.
    pub width_mm: f64,
}

/// A disc set into a filling.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Insert {
    /// Key of the component it is of; a bake when none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub component: Option<String>,
    /// Key of what is baked for it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bake: Option<String>,
    /// Across, mm.
    pub diameter_mm: f64,
    /// Height, mm.
    pub thickness_mm: f64,
    /// Its foot above the foot of the filling, mm.
    #[serde(default)]
    pub above_mm: f64,
}

impl StackDocument {
    /// A cake of one tier with nothing in it.
    pub fn empty(body: Body) -> Self {
        StackDocument {
            format: FORMAT.to_owned(),
            version: VERSION,
            name: String::new(),
            note: String::new(),
            tiers: vec![Tier::empty(body)],
            bakes: Vec::new(),
            components: Vec::new(),
            ingredients: Vec::new(),
            serve_c: None,
            transport_c: None,
            portion_g: None,
            smoother_mm: None,
            box_mm: None,
            board_mm: None,
            losses: Losses::default(),
        }
    }

    /// Keys of the components its places name, each once.
    pub fn component_keys(&self) -> Vec<&str> {
        let mut keys: Vec<&str> =
            self.tiers.iter().flat_map(Tier::named).filter_map(|named| named.as_deref()).collect();
        keys.sort_unstable();
        keys.dedup();
        keys
    }

    /// Keys of the ingredients that its own batters and pieces name, each once.
    pub fn own_ingredient_keys(&self) -> Vec<&str> {
        let batters = self.bakes.iter().flat_map(|bake| &bake.lines).map(|line| line.ingredient.as_str());
        let pieces = self.tiers.iter().flat_map(|tier| &tier.pieces);
        let mut keys: Vec<&str> =
            batters.chain(pieces.filter_map(|pieces| pieces.ingredient.as_deref())).collect();
        keys.sort_unstable();
        keys.dedup();
        keys
    }

    /// How many loose pieces it is; one where anything in it is not counted, or is piled up.
    pub fn pieces(&self) -> u32 {
        let loose = |tier: &Tier| tier.many.as_ref().is_some_and(|many| many.pile.is_none());
        match self.tiers.iter().all(loose) {
            true => self.tiers.iter().map(Tier::count).sum::<u32>().max(1),
            false => 1,
        }
    }

    /// What is baked under this key.
    pub fn bake(&self, key: &str) -> Option<&Bake> {
        self.bakes.iter().find(|bake| bake.key == key)
    }
}

impl Tier {
    /// A tier with nothing in it.
    pub fn empty(body: Body) -> Self {
        Tier {
            body,
            layers: Vec::new(),
            container: None,
            crumb_coat: None,
            coat: None,
            glaze: None,
            drip: None,
            borders: Vec::new(),
            rosettes: Vec::new(),
            pieces: Vec::new(),
            dowels: None,
            collar_mm: None,
            case: None,
            many: None,
            cut: None,
        }
    }

    /// How many pieces it stands for.
    pub fn count(&self) -> u32 {
        self.many.as_ref().map_or(1, Many::counted)
    }

    /// Every component it names, or leaves open.
    fn named(&self) -> Vec<&Option<String>> {
        let mut all: Vec<&Option<String>> = Vec::new();
        for layer in &self.layers {
            match layer {
                Layer::Sponge { soak, .. } => all.extend(soak.iter().map(|soak| &soak.component)),
                Layer::Filling { component, dam, inserts, .. } => {
                    all.push(component);
                    all.extend(dam.iter().map(|dam| &dam.component));
                    all.extend(inserts.iter().map(|insert| &insert.component));
                }
            }
        }
        all.extend(
            [&self.crumb_coat, &self.coat, &self.glaze].into_iter().flatten().map(|coat| &coat.component),
        );
        all.extend(self.drip.iter().map(|drip| &drip.component));
        all.extend(self.borders.iter().map(|border| &border.component));
        all.extend(self.rosettes.iter().map(|rosettes| &rosettes.component));
        all.extend(self.case.iter().filter_map(|case| case.film.as_ref()).map(|film| &film.component));
        all.extend(self.many.iter().filter_map(|many| many.pile.as_ref()).map(|pile| &pile.component));
        all
    }
}
