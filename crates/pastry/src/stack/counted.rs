//! Cases and equal pieces among the places of a cake: what holds the filling, and all of it as often as there are pieces.

use crate::stack::address::At;
use crate::stack::case::{Case, Many, pile};
use crate::stack::place::{Layout, PlaceKind, Spot, Stuff, cm};
use crate::stack::shape::body::Body;
use crate::stack::shape::footprint::Footprint;

impl<'a> Layout<'a> {
    /// A case and the film in it.
    pub(super) fn case(&mut self, tier: usize, case: &'a Case, body: &Body, z: [f64; 2]) {
        let spot = |at, kind, stuff, thickness: f64, volume| Spot {
            tier,
            at,
            kind,
            stuff,
            z,
            thickness,
            outline: body.section(0.0),
            volume,
            on_top: 0.0,
            trimmed: 0.0,
            count: 1,
        };
        let volume = case.volume(body).unwrap_or(0.0);
        let stuff = Stuff::Bake(case.bake.as_deref());
        self.spots.push(spot(At::Case, PlaceKind::Case, stuff, cm(case.thickness_mm()), volume));
        if let Some(film) = &case.film {
            let thickness = cm(film.thickness_mm);
            let stuff = Stuff::Component(film.component.as_deref());
            let volume = case.inner_cm2(body) * thickness;
            self.spots.push(spot(At::Film, PlaceKind::Film, stuff, thickness, volume));
        }
    }

    /// All places of a tier as often as there are pieces of it; the height of what they make together, cm.
    ///
    /// # Arguments
    /// * `begun`: the first of its places; `piece`: its foot, its height and its width, cm.
    pub(super) fn many(
        &mut self,
        tier: usize,
        many: &'a Many,
        begun: usize,
        [foot, high, wide]: [f64; 3],
    ) -> f64 {
        let count = many.counted();
        for spot in &mut self.spots[begun..] {
            let times = f64::from(count);
            (spot.volume, spot.on_top, spot.trimmed) =
                (times * spot.volume, times * spot.on_top, times * spot.trimmed);
            spot.count = spot.count.saturating_mul(count);
        }
        let Some(held) = &many.pile else { return high };
        let [top, across] = pile(count, [high, wide]);
        self.spots.push(Spot {
            tier,
            at: At::Pile,
            kind: PlaceKind::Pile,
            stuff: Stuff::Component(held.component.as_deref()),
            z: [foot, foot + top],
            thickness: 0.0,
            outline: Footprint::Round { diameter: across },
            volume: 0.0,
            on_top: 0.0,
            trimmed: 0.0,
            count,
        });
        top
    }
}
