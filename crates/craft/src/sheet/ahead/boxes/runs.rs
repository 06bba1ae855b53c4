//! Runs of the whole model, one for each way that boxes go; boxes that go the same way share theirs.

use super::moment::moment;
use super::way::{BoxLegs, BoxWay};
use crate::path::Lies;
use crate::refusal::ValidationError;
use crate::rise::recipe::Recipe;
use crate::rise::ripeness::stickiness_limit;
use crate::rise::{Air, Container, HandOver, Look, RiseResult, foresee, hand_overs};
use crate::sheet::ahead::course::DoughCourse;
use crate::sheet::ahead::timeline::h_between;
use crate::sheet::ahead::{AheadRequest, INSIDE};
use jiff::Timestamp;
use std::collections::HashMap;
use std::sync::Arc;

/// Boxes that were balled within so much of one another, and lie alike, share a run, min.
const ALIKE_MIN: f64 = 10.0;

/// What of a dough bears on opening it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct OpeningDough {
    /// Strength of its flour.
    pub w: f64,
    /// Water, % of the flour.
    pub hydration_percent: f64,
    /// How fast it matures.
    pub f_mature: f64,
}

pub(super) struct BoxRuns {
    course: DoughCourse,
    handed: Vec<HandOver>,
    now: Timestamp,
    ways: Vec<BoxWay>,
    /// Of each box, the first that goes the same way.
    alike: Vec<usize>,
    ball_g: f64,
    kept: HashMap<(usize, Option<Timestamp>, Timestamp), Arc<RiseResult>>,
}

impl BoxRuns {
    /// The boxes of a dough; it is as lively as a marked tub said.
    ///
    /// Errors: as the forecast of the dough.
    pub fn new(
        q: &AheadRequest,
        lively: Option<f64>,
        ball_g: f64,
    ) -> Result<BoxRuns, ValidationError> {
        let mut course = DoughCourse::of(q)?;
        if let Some(factor) = lively {
            course.enliven(factor);
        }
        let dough = course.dough(q.request.serve_at);
        let handed = hand_overs(&dough, INSIDE, &course.runs);
        Ok(BoxRuns {
            course,
            handed,
            now: q.now,
            ways: vec![],
            alike: vec![],
            ball_g,
            kept: HashMap::new(),
        })
    }
    /// The boxes, in the order of their numbers.
    pub fn with(mut self, ways: Vec<BoxWay>) -> BoxRuns {
        let same = |a: &BoxWay, b: &BoxWay| {
            let apart_min = 60.0 * h_between(a.balled_at, b.balled_at).abs();
            let (x, y) = (&a.told, &b.told);
            let told = (&x.moved, x.stacked, &x.reballed) == (&y.moved, y.stacked, &y.reballed);
            apart_min < ALIKE_MIN && told
        };
        self.alike = (0..ways.len())
            .map(|i| (0..i).find(|j| same(&ways[*j], &ways[i])).unwrap_or(i))
            .collect();
        self.ways = ways;
        self
    }

    /// The same dough, were these boxes put back into the cold now.
    pub fn put_back(&self, boxes: &[usize]) -> BoxRuns {
        let mut ways = self.ways.clone();
        for i in boxes {
            let cold = self.legs(*i, None, self.now).cold_spot();
            ways[*i].told.moved.push((self.now, cold));
        }
        let same = BoxRuns {
            course: self.course.clone(),
            handed: self.handed.clone(),
            now: self.now,
            ways: vec![],
            alike: vec![],
            ball_g: self.ball_g,
            kept: HashMap::new(),
        };
        same.with(ways)
    }

    pub fn now(&self) -> Timestamp {
        self.now
    }
    pub fn mixed_at(&self) -> Timestamp {
        self.course.mixed_at
    }
    /// When the dough is balled, or laid into its pans, as the plan goes.
    pub fn pieces_from(&self) -> Timestamp {
        let mut at = self.course.mixed_at;
        for leg in &self.course.legs {
            if leg.lies != Lies::Bulk {
                break;
            }
            at += crate::sheet::hours(leg.hours);
        }
        at
    }
    /// What bears on opening it.
    pub fn dough(&self, until: Timestamp) -> OpeningDough {
        let r = self.course.dough(until);
        OpeningDough {
            w: r.flour_w,
            hydration_percent: r.hydration_percent,
            f_mature: Recipe::of(&r).f_mature,
        }
    }
    /// Whether it is wetter than its flour bears by so many points.
    pub fn is_sticky(&self, until: Timestamp, beyond: f64) -> bool {
        let d = self.dough(until);
        d.hydration_percent > stickiness_limit(d.w) + beyond
    }

    pub fn legs(&self, i: usize, out_at: Option<Timestamp>, until: Timestamp) -> BoxLegs {
        self.ways[self.alike[i]].legs(&self.course, out_at, until)
    }
    /// The run of a box until an hour, and beyond.
    pub fn of(&mut self, i: usize, out_at: Option<Timestamp>, until: Timestamp) -> Arc<RiseResult> {
        let key = (self.alike[i], out_at, until);
        if let Some(kept) = self.kept.get(&key) {
            return kept.clone();
        }
        let run = Arc::new(self.run(i, out_at, until, Look::Beyond));
        self.kept.insert(key, run.clone());
        run
    }
    fn run(&self, i: usize, out_at: Option<Timestamp>, until: Timestamp, look: Look) -> RiseResult {
        let legs = self.legs(i, out_at, until).to_legs();
        let dough = self.course.dough_through(&legs, until);
        foresee(&dough, INSIDE, &self.handed, look)
    }
    /// Its rise at a moment, were it taken out at another.
    pub fn rise_at(&mut self, i: usize, out_at: Timestamp, at: Timestamp, until: Timestamp) -> f64 {
        let run = self.of(i, Some(out_at), until);
        moment(&run, h_between(self.mixed_at(), at)).rise
    }
    /// Since when it lies in the cold for the last time.
    pub fn cold_from(&self, i: usize) -> Option<Timestamp> {
        let legs = self.legs(i, None, self.now);
        legs.in_the_cold().map(|(from, _)| from)
    }
    /// Whether it lay in the cold before now, as a dough or in pieces.
    pub fn was_cold(&self, i: usize) -> bool {
        self.legs(i, None, self.now).was_cold(self.now)
    }
    /// In what it lies at a moment, how the air moves there, and how heavy a ball is.
    pub fn lies(&self, i: usize, at: Timestamp) -> (Container, Air, f64) {
        let (spot, container) = self.legs(i, None, at).lies_at(at);
        (container, spot.air(), self.ball_g)
    }
    /// How cold the cold is and how warm the room that follows, °C.
    pub fn cold_and_room(&mut self, i: usize, from: Timestamp) -> Option<(f64, f64)> {
        let until = from + crate::sheet::hours(2.0);
        let mixed_at = self.mixed_at();
        let cold = self.of(i, Some(until), until);
        let out = self.of(i, Some(from), until);
        let cold_c = moment(&cold, h_between(mixed_at, from) + 0.5).place_c;
        let room_c = moment(&out, h_between(mixed_at, until)).place_c;
        Some((cold_c, room_c))
    }
}
