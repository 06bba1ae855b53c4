//! When each box leaves the cold, so that it stands at 100 when its first ball is used.
//!
//! A short clock of one temperature and one rate answers while somebody drags; the full model is asked on release. The less
//! time a box has in the room, the less it has risen: so the moment is found by halving. Source: mixing and shaping, section 10.

use crate::rise::{Air, Container, responses};
use serde::{Deserialize, Serialize};

/// A ball opens from here on, °C.
pub const OPENS_C: f64 = 15.0;
/// So long in the room at the least, and at the most before it counts as warm, min.
const LEAST_MIN: f64 = 60.0;
const MOST_MIN: f64 = 180.0;
/// Rise below which a box is late, and above which it is early, of what is wanted.
const LATE: f64 = 0.98;
const EARLY: f64 = 1.02;
/// Times are said to five minutes.
const SAID_MIN: f64 = 5.0;
/// Boxes that leave within so much go together, min.
const TOGETHER_MIN: f64 = 10.0;
/// So much more rise of the last box makes it worth the walks.
const WORTH: f64 = 0.20;

/// A box in the cold, in the order of use.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct ColdBox {
    /// Balls in it.
    pub balls: u32,
    /// Its rise now, 1 = 100.
    pub rise: f64,
    /// Its balls now, °C.
    pub dough_c: f64,
    /// Rise an hour at the reference warmth: fitted to one run of the full model.
    pub rate_per_h: f64,
    /// How fast it follows the room, h.
    pub tau_h: f64,
    /// How fast it follows the cold, h.
    pub tau_cold_h: f64,
}

/// The service that uses them.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct BoxService {
    /// Minutes until the first pizza.
    pub first_use_min: f64,
    /// From one pizza to the next, s.
    pub pace_s: f64,
    /// The cold place, °C.
    pub cold_c: f64,
    /// The room, °C.
    pub room_c: f64,
    /// Rise at which a ball begins to fade.
    pub fade: f64,
    /// Rise aimed at, 1 = 100.
    pub want: f64,
}

/// How a box fits its hour.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum OutState {
    /// It does.
    Ok,
    /// Out now, and still not ready then.
    Late,
    /// Ripe before it is warm: forward in the order.
    RipeEarly,
    /// Ripe, and no time to warm it: it opens cold.
    NoTime,
}

/// When a box leaves the cold.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct TakeOut {
    /// Its first ball is used then, min.
    pub use_min: f64,
    /// It leaves the cold then, min.
    pub out_min: f64,
    /// The same to five minutes: as it is said.
    pub said_min: f64,
    /// How it fits.
    pub state: OutState,
    /// Rise of its first ball when it is used, 1 = 100.
    pub rise_first: f64,
    /// Warmth of its first ball when it is used, °C.
    pub dough_first_c: f64,
    /// Rise of its last ball when it is used.
    pub rise_last: f64,
    /// Its last ball does not fade before it is used.
    pub holds: bool,
}

/// All boxes of a service.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct TakenOut {
    /// In the order of use.
    pub boxes: Vec<TakeOut>,
    /// Boxes that leave together, by their place from 0; the earliest round first.
    pub rounds: Vec<Vec<usize>>,
    /// Whether it is worth the walks: else all at once.
    pub worth_it: bool,
}

/// How fast a ball of a mass follows its surroundings, h: what it lies in and how the air moves (fermentation model, section
/// 3.2, of 250 g).
pub fn tau_h(container: Container, air: Air, ball_g: f64) -> f64 {
    let of_250 = match (container, air) {
        (Container::Open | Container::Bag, _) => 1.2,
        (Container::Tub, _) => 1.4,
        (Container::Box, Air::Fan) => 1.25,
        (Container::Box, _) => 1.7,
        (Container::Stack, _) => 2.4,
    };
    of_250 * (ball_g / 250.0).powf(0.45)
}

/// Minutes to five, as moments are said.
pub fn to_five(min: f64) -> f64 {
    SAID_MIN * (min / SAID_MIN).round()
}

/// Boxes that leave within ten minutes of the first of them go together: their places, the earliest round first.
pub fn rounds_of(said_min: &[f64]) -> Vec<Vec<usize>> {
    let mut order: Vec<usize> = (0..said_min.len()).collect();
    order.sort_by(|a, b| said_min[*a].total_cmp(&said_min[*b]).then(a.cmp(b)));
    let mut rounds: Vec<Vec<usize>> = vec![];
    for i in order {
        match rounds.last_mut() {
            Some(r) if said_min[i] - said_min[r[0]] <= TOGETHER_MIN + 1e-9 => r.push(i),
            _ => rounds.push(vec![i]),
        }
    }
    rounds
}

impl ColdBox {
    /// Rise and warmth when it leaves the cold after `out_min` and is used at `use_min`, by the short clock.
    pub fn at_use(&self, s: &BoxService, out_min: f64, use_min: f64) -> (f64, f64) {
        self.after(s, out_min, use_min - out_min)
    }
    /// Rise and warmth after so long in the cold and then so long in the room, min.
    fn after(&self, s: &BoxService, cold_min: f64, room_min: f64) -> (f64, f64) {
        let mut state = (self.rise, self.dough_c);
        state = self.lies(state, s.cold_c, self.tau_cold_h, cold_min);
        self.lies(state, s.room_c, self.tau_h, room_min)
    }
    /// The short clock: minute steps, at the warmth of half the minute.
    fn lies(&self, (rise, dough_c): (f64, f64), place_c: f64, tau_h: f64, min: f64) -> (f64, f64) {
        let whole = min.max(0.0).floor() as usize;
        let rest = min.max(0.0) - whole as f64;
        let (mut r, mut t) = (rise, dough_c);
        let mut lie = |min: f64| {
            let decay = |m: f64| (-m / 60.0 / tau_h).exp();
            let middle = place_c + (t - place_c) * decay(min / 2.0);
            r += self.rate_per_h * responses::at(middle).gas * min / 60.0;
            t = place_c + (t - place_c) * decay(min);
        };
        for _ in 0..whole {
            lie(1.0);
        }
        if rest > 1e-9 {
            lie(rest);
        }
        (r, t)
    }
    /// How long it must stand in the room at the least, min.
    fn least_min(&self, s: &BoxService) -> f64 {
        let coldest = self.dough_c.min(s.cold_c);
        let warm = if coldest >= OPENS_C {
            0.0
        } else if s.room_c <= OPENS_C {
            MOST_MIN
        } else {
            60.0 * self.tau_h * ((s.room_c - coldest) / (s.room_c - OPENS_C)).ln()
        };
        warm.clamp(LEAST_MIN, MOST_MIN)
    }

    fn taken_out(&self, s: &BoxService, use_min: f64) -> TakeOut {
        let at_use = |x: f64| self.after(s, x, use_min - x);
        let latest = use_min - self.least_min(s);
        let (out_min, state) = if latest < 0.0 {
            let (r, t) = at_use(0.0);
            let state = match r / s.want {
                r if r >= EARLY && t < OPENS_C => OutState::NoTime,
                r if r >= EARLY => OutState::RipeEarly,
                r if r < LATE => OutState::Late,
                _ => OutState::Ok,
            };
            (0.0, state)
        } else if at_use(0.0).0 <= s.want {
            let late = at_use(0.0).0 < LATE * s.want;
            (0.0, if late { OutState::Late } else { OutState::Ok })
        } else if at_use(latest).0 >= s.want {
            let early = at_use(latest).0 >= EARLY * s.want;
            (
                latest,
                if early {
                    OutState::RipeEarly
                } else {
                    OutState::Ok
                },
            )
        } else {
            let (mut early, mut late) = (0.0, latest);
            for _ in 0..40 {
                let middle = 0.5 * (early + late);
                if at_use(middle).0 > s.want {
                    early = middle;
                } else {
                    late = middle;
                }
            }
            (0.5 * (early + late), OutState::Ok)
        };
        let said_min = to_five(out_min);
        let (rise_first, dough_first_c) = at_use(said_min.min(use_min));
        let more = f64::from(self.balls.saturating_sub(1)) * s.pace_s / 60.0;
        let in_room = use_min - said_min.min(use_min) + more;
        let rise_last = self.after(s, said_min.min(use_min), in_room).0;
        TakeOut {
            use_min,
            out_min,
            said_min,
            state,
            rise_first,
            dough_first_c,
            rise_last,
            holds: rise_last < s.fade,
        }
    }
}

/// When each box leaves the cold, used one after the other.
pub fn stagger(boxes: &[ColdBox], s: &BoxService) -> TakenOut {
    let mut use_min = s.first_use_min;
    let mut all = vec![];
    for b in boxes {
        all.push((*b, use_min));
        use_min += f64::from(b.balls) * s.pace_s / 60.0;
    }
    stagger_at(&all, s)
}

/// The same with the minute at which the first ball of each is used.
pub fn stagger_at(boxes: &[(ColdBox, f64)], s: &BoxService) -> TakenOut {
    let out: Vec<TakeOut> = boxes.iter().map(|(b, min)| b.taken_out(s, *min)).collect();
    let said: Vec<f64> = out.iter().map(|t| t.said_min).collect();
    let n = boxes.len().max(1) as f64;
    let mean_rate = boxes.iter().map(|(b, _)| b.rate_per_h).sum::<f64>() / n;
    let end = boxes.last().map_or(s.first_use_min, |(b, min)| {
        min + f64::from(b.balls) * s.pace_s / 60.0
    });
    let hours = (end - s.first_use_min) / 60.0;
    TakenOut {
        rounds: rounds_of(&said),
        boxes: out,
        worth_it: mean_rate * responses::at(s.room_c).gas * hours > WORTH,
    }
}
