//! A body as cells: how much each is, what it touches, and what flows between them.

use crate::heat::air::vapour_pressure;
use crate::heat::body::{Body, Face, Layer, Moment, Outline, Stretch, Way};
use crate::heat::material::Material;
use std::f64::consts::PI;

/// A way between two cells: area, and half of the way in each, m.
struct Link {
    cells: [usize; 2],
    area: f64,
    halves: [f64; 2],
}

/// A cell's face to the outside.
pub(super) struct Open {
    cell: usize,
    pub(super) way: Way,
    area: f64,
    half: f64,
    /// The cell behind it, and how far it is from middle to middle, m.
    behind: Option<(usize, f64)>,
}

/// Cells of a body.
pub(super) struct Cells<'a> {
    material: Vec<&'a Material>,
    layer: Vec<usize>,
    pub(super) kg: Vec<f64>,
    /// One over its mass, and over its mass times its least heat capacity.
    per_kg: Vec<f64>,
    per_heat: Vec<f64>,
    held: Vec<f64>,
    pub(super) t_c: Vec<f64>,
    near: Vec<usize>,
    links: Vec<Link>,
    pub(super) open: Vec<Open>,
    /// Cell on the axis and the one beside it, of every row.
    axis: Vec<[usize; 2]>,
    /// How much further on the axis is than its cell, of the way from the one beside it.
    further: f64,
    /// Cells in the middle of what is watched, with those below and above where they are as high.
    core: Vec<(usize, Option<[usize; 2]>)>,
}

impl<'a> Cells<'a> {
    pub(super) fn of(body: &Body<'a>) -> Self {
        let mut cells = Cells {
            material: Vec::new(),
            layer: Vec::new(),
            kg: Vec::new(),
            per_kg: Vec::new(),
            per_heat: Vec::new(),
            held: Vec::new(),
            t_c: Vec::new(),
            near: Vec::new(),
            links: Vec::new(),
            open: Vec::new(),
            axis: Vec::new(),
            further: 0.25,
            core: Vec::new(),
        };
        let (rings, width, hole) = match body.outline {
            Outline::Wide => (1, 0.0, 0.0),
            Outline::Round { radius_m, hole_m, rings } => {
                (rings.max(1), (radius_m - hole_m) / rings.max(1) as f64, hole_m)
            }
            Outline::Ball { shells } => return cells.ball(body, shells.max(2)),
        };
        let area = |ring: usize| match body.outline {
            Outline::Round { .. } => PI * width * (2.0 * hole + (2 * ring + 1) as f64 * width),
            _ => 1.0,
        };
        let rows: Vec<(usize, f64)> = body
            .layers
            .iter()
            .enumerate()
            .flat_map(|(at, layer)| {
                let cells = layer.cells.max(1);
                vec![(at, layer.thickness_m / cells as f64); cells]
            })
            .collect();
        for (row, (at, height)) in rows.iter().enumerate() {
            let layer = &body.layers[*at];
            for ring in 0..rings {
                let cell = cells.kg.len();
                cells.push(layer, *at, layer.material.density() * area(ring) * height);
                if row == 0 {
                    let behind = rows.get(1).map(|(_, above)| (cell + rings, 0.5 * (height + above)));
                    cells.open.push(Open {
                        cell,
                        way: Way::Down,
                        area: area(ring),
                        half: 0.5 * height,
                        behind,
                    });
                } else {
                    let halves = [0.5 * rows[row - 1].1, 0.5 * height];
                    cells.links.push(Link { cells: [cell - rings, cell], area: area(ring), halves });
                }
                if row == rows.len() - 1 {
                    let behind = (row > 0).then(|| (cell - rings, 0.5 * (height + rows[row - 1].1)));
                    cells.open.push(Open {
                        cell,
                        way: Way::Up,
                        area: area(ring),
                        half: 0.5 * height,
                        behind,
                    });
                }
                if let Outline::Round { .. } = body.outline {
                    let wall = |edge: usize| 2.0 * PI * (hole + edge as f64 * width) * height;
                    let side = |area, behind: Option<usize>| {
                        let behind = behind.map(|cell| (cell, width));
                        Open { cell, way: Way::Round, area, half: 0.5 * width, behind }
                    };
                    if ring > 0 {
                        let halves = [0.5 * width; 2];
                        cells.links.push(Link { cells: [cell - 1, cell], area: wall(ring), halves });
                    } else if hole > 0.0 {
                        cells.open.push(side(wall(0), (rings > 1).then_some(cell + 1)));
                    }
                    if ring == rings - 1 {
                        cells.open.push(side(wall(rings), (ring > 0).then(|| cell - 1)));
                    }
                    if ring == 0 && rings > 1 && hole == 0.0 {
                        cells.axis.push([cell, cell + 1]);
                    }
                }
            }
        }
        cells.find_core(body, &rows, rings, hole > 0.0);
        cells
    }

    /// The cells around the middle of the layer that is watched, or of all.
    fn find_core(&mut self, body: &Body, rows: &[(usize, f64)], rings: usize, hollow: bool) {
        let seen = |row: &usize| body.watch.is_none_or(|layer| rows[*row].0 == layer);
        let rows_seen: Vec<usize> = (0..rows.len()).filter(seen).collect();
        let whole: f64 = rows_seen.iter().map(|row| rows[*row].1).sum();
        let mut below = 0.0;
        for row in rows_seen {
            let (from, to) = (below, below + rows[row].1);
            below = to;
            // On the border of two rows both are the middle.
            if from <= 0.5 * whole + 1e-9 && to >= 0.5 * whole - 1e-9 {
                let cell = row * rings + if hollow { rings / 2 } else { 0 };
                let alike = row > 0
                    && row + 1 < rows.len()
                    && rows[row - 1] == rows[row]
                    && rows[row + 1] == rows[row];
                self.core.push((cell, alike.then(|| [cell - rings, cell + rings])));
            }
        }
    }

    /// Shells from the middle out.
    fn ball(mut self, body: &Body<'a>, shells: usize) -> Self {
        let Some(layer) = body.layers.first() else { return self };
        let width = 0.5 * layer.thickness_m / shells as f64;
        let sphere = |edge: usize| 4.0 * PI * (edge as f64 * width).powi(2);
        let filled = |edge: usize| 4.0 / 3.0 * PI * (edge as f64 * width).powi(3);
        for cell in 0..shells {
            self.push(layer, 0, layer.material.density() * (filled(cell + 1) - filled(cell)));
            if cell > 0 {
                let halves = [0.5 * width; 2];
                self.links.push(Link { cells: [cell - 1, cell], area: sphere(cell), halves });
            }
        }
        let area = sphere(shells);
        let behind = Some((shells - 2, width));
        self.open.push(Open { cell: shells - 1, way: Way::Round, area, half: 0.5 * width, behind });
        // Of a parabola in r the middle ball and the shell around it hold 3/5 and 93/35 of its first radius squared.
        self.further = 0.6 / (93.0 / 35.0 - 0.6);
        self.axis.push([0, 1]);
        self.core.push((0, None));
        self
    }

    fn push(&mut self, layer: &Layer<'a>, at: usize, kg: f64) {
        let held = layer.material.held(layer.t_c);
        let mut near = 0;
        layer.material.temperature(held, &mut near);
        self.material.push(layer.material);
        self.layer.push(at);
        self.kg.push(kg);
        self.per_kg.push(1.0 / kg);
        self.per_heat.push(1.0 / (kg * layer.material.least_capacity()));
        self.held.push(held);
        self.t_c.push(layer.t_c);
        self.near.push(near);
    }

    /// On the axis a ring's mean goes on the same way.
    fn on_axis(&self, [on, beside]: [usize; 2]) -> f64 {
        self.t_c[on] + self.further * (self.t_c[on] - self.t_c[beside])
    }

    pub(super) fn moment(&self, s: f64, watch: Option<usize>) -> Moment {
        let seen = |cell: usize| watch.is_none_or(|layer| self.layer[cell] == layer);
        let (mut hottest, mut coldest) = (f64::NEG_INFINITY, f64::INFINITY);
        let (mut sum, mut kg) = (0.0, 0.0);
        let mut take = |t_c: f64| {
            hottest = hottest.max(t_c);
            coldest = coldest.min(t_c);
        };
        for (cell, (t_c, own)) in self.t_c.iter().zip(&self.kg).enumerate() {
            if seen(cell) {
                take(*t_c);
                sum += own * t_c;
                kg += own;
            }
        }
        for pair in self.axis.iter().filter(|pair| seen(pair[0])) {
            take(self.on_axis(*pair));
        }
        let middle = |cell: usize| match self.axis.iter().find(|[on, _]| *on == cell) {
            Some(pair) => self.on_axis(*pair),
            None => self.t_c[cell],
        };
        let at_core = |(cell, beside): &(usize, Option<[usize; 2]>)| {
            let here = middle(*cell);
            beside.map_or(here, |[a, b]| here - (middle(a) + middle(b) - 2.0 * here) / 24.0)
        };
        let core = self.core.iter().map(at_core).sum::<f64>() / self.core.len().max(1) as f64;
        Moment { s, hottest, coldest, mean: sum / kg, core, skin: sum / kg }
    }

    /// Heat that flows into every cell, W, and what ties it to what is around it, W/K; and the mean of the open skin, °C.
    pub(super) fn flow(&self, stretch: &Stretch, vapour: &[f64], rates: &mut Rates) -> Option<f64> {
        rates.flows.fill(0.0);
        rates.ties.fill(0.0);
        let Rates { flows, ties, resists } = rates;
        for ((resists, material), t_c) in resists.iter_mut().zip(&self.material).zip(&self.t_c) {
            *resists = 1.0 / material.conducts(*t_c);
        }
        for Link { cells: [a, b], area, halves } in &self.links {
            let tie = area / (halves[0] * resists[*a] + halves[1] * resists[*b]);
            let flow = tie * (self.t_c[*b] - self.t_c[*a]);
            flows[*a] += flow;
            flows[*b] -= flow;
            ties[*a] += tie;
            ties[*b] += tie;
        }
        let (mut skin, mut skin_area) = (0.0, 0.0);
        for (Open { cell, way, area, half, behind }, of_air) in self.open.iter().zip(vapour) {
            let Some(face) = stretch.face(*way) else { continue };
            let t_c = self.t_c[*cell];
            let passes = 1.0 / (1.0 / face.h + face.resistance + half * resists[*cell]);
            let mut flow = passes * (face.air_c - t_c);
            let mut tie = passes;
            if let Some(moist) = face.moist {
                let by = moist.open * moist.convection / 65.0;
                let pressure = vapour_pressure(t_c);
                flow -= by * (moist.activity * pressure - of_air);
                tie += by * moist.activity * pressure * 17.625 * 243.04 / (t_c + 243.04).powi(2);
            }
            flows[*cell] += area * flow;
            ties[*cell] += area * tie;
            // A cell holds the mean of a curve. With the slope g behind it and s at its skin, the skin stands w (s/3 + g/6) off
            // that mean, and s is what the face lets through.
            let width = 2.0 * half;
            let through = (1.0 / face.h + face.resistance) / resists[*cell];
            let vapours = (flow - passes * (face.air_c - t_c)) * resists[*cell];
            let at_skin = match behind {
                Some((behind, apart)) => {
                    let slope = (t_c - self.t_c[*behind]) / apart;
                    (t_c + width * (slope / 6.0 + (face.air_c / through + vapours) / 3.0))
                        / (1.0 + width / (3.0 * through))
                }
                None => t_c + flow * half * resists[*cell],
            };
            skin += area * at_skin;
            skin_area += area;
        }
        (skin_area > 0.0).then(|| skin / skin_area)
    }

    /// All of a layer at one temperature.
    pub(super) fn stir(&mut self, layers: usize) {
        for layer in 0..layers {
            let of: Vec<usize> = (0..self.kg.len()).filter(|cell| self.layer[*cell] == layer).collect();
            let kg: f64 = of.iter().map(|cell| self.kg[*cell]).sum();
            let held = of.iter().map(|cell| self.kg[*cell] * self.held[*cell]).sum::<f64>() / kg;
            for cell in of {
                self.held[cell] = held;
                self.t_c[cell] = self.material[cell].temperature(held, &mut self.near[cell]);
            }
        }
    }

    /// What it is made of, where that is one thing.
    pub(super) fn material(&self) -> Option<&'a Material> {
        let first = *self.material.first()?;
        self.layer.iter().all(|layer| *layer == 0).then_some(first)
    }

    /// All of it mixed: the temperature it comes to, °C. Only of one material.
    pub(super) fn mixed(&mut self) -> f64 {
        self.stir(1);
        self.t_c[0]
    }

    /// All of it at a temperature.
    pub(super) fn set_all(&mut self, t_c: f64) {
        for cell in 0..self.kg.len() {
            self.held[cell] = self.material[cell].held(t_c);
            self.t_c[cell] = self.material[cell].temperature(self.held[cell], &mut self.near[cell]);
        }
    }

    /// Its open faces, each with its area, m², as they stand in a stretch of time.
    pub(super) fn faces(&self, stretch: &Stretch) -> Vec<(f64, Face)> {
        self.open.iter().filter_map(|open| Some((open.area, *stretch.face(open.way)?))).collect()
    }

    /// The longest stride that is stable, s.
    pub(super) fn stable(&self, rates: &Rates) -> f64 {
        let fastest = rates.ties.iter().zip(&self.per_heat).map(|(tie, per)| tie * per).fold(0.0, f64::max);
        1.0 / fastest
    }

    pub(super) fn stride(&mut self, rates: &Rates, seconds: f64) {
        let taken = rates.flows.iter().zip(&self.per_kg).zip(&mut self.held);
        for ((flow, per_kg), held) in taken {
            *held += seconds * flow * per_kg;
        }
        let read = self.held.iter().zip(&self.material).zip(&mut self.near).zip(&mut self.t_c);
        for (((held, material), near), t_c) in read {
            *t_c = material.temperature(*held, near);
        }
    }

    pub(super) fn all_held(&self) -> f64 {
        self.kg.iter().zip(&self.held).map(|(kg, held)| kg * held).sum()
    }
}

/// What flows at one moment, by cell.
pub(super) struct Rates {
    flows: Vec<f64>,
    ties: Vec<f64>,
    resists: Vec<f64>,
}

impl Rates {
    pub(super) fn of(cells: usize) -> Self {
        Rates { flows: vec![0.0; cells], ties: vec![0.0; cells], resists: vec![0.0; cells] }
    }
}
