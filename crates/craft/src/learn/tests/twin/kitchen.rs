//! A hidden kitchen: how it truly differs from the book, on purpose more broadly than the prior expects (spec, 12.1).

use super::chance::Chance;
use super::school::School;
use crate::learn::channel::{Channel, Offsets};
use crate::learn::fit::NOTHING;
use crate::learn::under::under;
use crate::rise::{Air, RiseRequest};

#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Variant {
    Broad,
    Heavy,
    Sensor,
    Drift,
}

impl Variant {
    pub fn of(seed: u64) -> Variant {
        match seed % 5 {
            0 | 1 => Variant::Broad,
            2 => Variant::Heavy,
            3 => Variant::Sensor,
            _ => Variant::Drift,
        }
    }
}

/// How often a maker says what: state, ready-at, dough, fridge, room, tub.
pub(super) type Habits = [f64; 6];

pub(super) struct Hidden {
    pub variant: Variant,
    pub habits: Habits,
    /// Three in ten look at gas alone.
    pub ignores_gluten: bool,
    pub favourites: Vec<School>,
    /// Kitchen's own offsets, the walks left out.
    lasting: Offsets,
    speeds: [f64; 7],
    skin: f64,
    gas_from_k: f64,
    swing_k: f64,
    /// Of the thermometers and the tub.
    pub biases: [f64; 4],
    /// Slow walks of yeast, room, fridge.
    walks: [f64; 3],
    week: f64,
}

/// What is true of one batch.
pub(super) struct Truth {
    pub q: Offsets,
    skin: f64,
    gas_from_k: f64,
    swing_k: f64,
}

const WALKS: [(f64, f64); 3] = [(0.05, 8.0), (0.3, 10.0), (0.15, 10.0)];

impl Hidden {
    pub fn of(seed: u64) -> (Hidden, Chance) {
        let mut c = Chance::seeded(seed);
        let variant = Variant::of(seed);
        let mut q = NOTHING;
        for (channel, mean, sd) in [
            (Channel::Yeast, 0.0, 0.32),
            (Channel::Leaven, 0.0, 0.45),
            (Channel::Fridge, 0.5, 1.4),
            (Channel::Room, 0.3, 1.1),
            (Channel::Dough, 0.0, 1.3),
            (Channel::Cold, 0.0, 0.28),
            (Channel::Growth, 0.0, 0.28),
            (Channel::Gluten, 0.0, 0.28),
            (Channel::Ready, 0.0, 0.20),
            (Channel::Relaxing, 0.0, 0.22),
        ] {
            q[channel.at()] = mean + c.tailed(5, sd);
        }
        let habits = match c.share() {
            s if s < 0.45 => [0.9, 0.3, 0.2, 0.05, 0.1, 0.1],
            s if s < 0.80 => [0.9, 0.5, 0.5, 0.3, 0.3, 0.3],
            _ => [1.0, 0.7, 0.9, 0.7, 0.7, 0.6],
        };
        let mut schools = School::ALL.to_vec();
        let favourites = (0..1 + c.below(3))
            .map(|_| schools.swap_remove(c.below(schools.len())))
            .collect();
        let biases = if variant == Variant::Sensor {
            let probe = if c.one_in(0.5) { 3.0 } else { -3.0 };
            [-2.5 + c.normal(0.3), c.normal(0.5), probe, c.normal(0.2)]
        } else {
            [c.normal(0.4), c.normal(0.5), c.normal(0.3), c.normal(0.2)]
        };
        let hidden = Hidden {
            variant,
            habits,
            ignores_gluten: c.one_in(0.3),
            favourites,
            lasting: q,
            speeds: std::array::from_fn(|_| c.normal(0.13)),
            skin: c.normal(0.5),
            gas_from_k: c.normal(0.5),
            swing_k: c.normal(1.0).abs(),
            biases,
            walks: [0.0; 3],
            week: 0.0,
        };
        (hidden, c)
    }

    /// Time goes on, and slow things walk, and forget.
    pub fn go_to(&mut self, week: f64, c: &mut Chance) {
        let by = week - self.week;
        for (walk, (per_root_week, weeks)) in self.walks.iter_mut().zip(WALKS) {
            let keeps = (-by / weeks).exp();
            let stationary = per_root_week * (weeks / 2.0).sqrt();
            *walk = *walk * keeps + c.normal(stationary * (1.0 - keeps * keeps).sqrt());
        }
        self.week = week;
    }

    /// What is true of the kitchen for a batch of a school now; with the batch's own scatter where it is made.
    pub fn truth(&self, school: School, scatter: Option<&mut Chance>) -> Truth {
        let mut q = self.lasting;
        let speed = self.speeds[School::ALL.iter().position(|s| *s == school).unwrap_or(0)];
        let mut add = |c: Channel, by: f64| q[c.at()] += by;
        add(Channel::Yeast, speed + self.walks[0]);
        add(Channel::Leaven, speed + self.walks[0]);
        add(Channel::Room, self.walks[1]);
        add(Channel::Fridge, self.walks[2]);
        if self.variant == Variant::Drift {
            add(Channel::Room, 0.35 * self.week);
            add(Channel::Yeast, -0.03 * self.week);
        }
        if let Some(c) = scatter {
            let heavy = self.variant == Variant::Heavy && c.one_in(0.12);
            let times = if heavy { 3.0 } else { 1.0 };
            let mut t4 = |sd: f64| c.tailed(4, sd) * times;
            let speed = t4(0.10);
            add(Channel::Yeast, speed + t4(0.12));
            add(Channel::Leaven, speed + t4(0.17));
            for (channel, sd) in [
                (Channel::Fridge, 0.5),
                (Channel::Room, 0.8),
                (Channel::Dough, 0.7),
                (Channel::Gluten, 0.08),
                (Channel::Ready, 0.08),
                (Channel::Relaxing, 0.10),
            ] {
                add(channel, t4(sd));
            }
        }
        Truth {
            q,
            skin: self.skin,
            gas_from_k: self.gas_from_k,
            swing_k: self.swing_k,
        }
    }
}

impl Truth {
    pub fn of(&self, c: Channel) -> f64 {
        self.q[c.at()]
    }

    /// The request as it truly goes: rooms swing with the clock, warmest at four in the afternoon.
    pub fn request(&self, r: &RiseRequest) -> RiseRequest {
        let mut r = under(r, &self.q);
        for s in r.stages.iter_mut().filter(|s| s.air == Air::Room) {
            let Some(mean) = s.place_c.take() else {
                continue;
            };
            let at = |h: usize| {
                let turn = 2.0 * std::f64::consts::PI * (h as f64 - 16.0) / 24.0;
                (mean + self.swing_k * turn.cos()).clamp(-2.0, 42.0)
            };
            s.place_profile_c = Some((0..24).map(at).collect());
        }
        r.departs.skin = self.skin;
        r.departs.gas_from_k = self.gas_from_k;
        r
    }
}
