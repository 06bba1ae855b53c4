//! The schools whose doughs the hidden kitchens bake (spec, section 12.1).

use super::chance::Chance;
use crate::learn::fit::NOTHING;
use crate::learn::personal::dose;
use crate::leaven::YeastForm;
use crate::rise::{Air, Container, DoughKind, DoughShape, Event, RiseRequest, Stage};

#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum School {
    Short,
    Day,
    ColdBalls,
    ColdBulk,
    Straight,
    Leaven,
    LeavenNight,
}

impl School {
    pub const ALL: [School; 7] = [
        School::Short,
        School::Day,
        School::ColdBalls,
        School::ColdBulk,
        School::Straight,
        School::Leaven,
        School::LeavenNight,
    ];
    fn least_w(self) -> f64 {
        match self {
            School::Short => 240.0,
            School::Day | School::ColdBalls | School::ColdBulk | School::Leaven => 300.0,
            School::Straight | School::LeavenNight => 320.0,
        }
    }
    fn is_leaven(self) -> bool {
        matches!(self, School::Leaven | School::LeavenNight)
    }
}

struct Places {
    bulk_g: f64,
}

impl Places {
    fn stage(&self, hours: f64, ball_g: Option<f64>, air: Air, place_c: f64) -> Stage {
        let (piece_g, shape, container) = match ball_g {
            Some(g) => (g, DoughShape::Ball, Container::Box),
            None => (self.bulk_g, DoughShape::Bulk, Container::Tub),
        };
        Stage {
            hours,
            piece_g,
            shape,
            thickness_mm: None,
            container,
            air,
            place_c: Some(place_c),
            place_profile_c: None,
            place_off_k: None,
            event: Event::None,
            starts_at_c: None,
        }
    }
}

const FRIDGE_C: f64 = 4.5;

/// A plan of a school with its dose by the book, put off by chance.
pub(super) fn plan(school: School, off_dose: f64, c: &mut Chance) -> RiseRequest {
    // A plan that no dose raises in time is no plan: another is drawn.
    loop {
        let mut r = drawn(school, c);
        if school.is_leaven() {
            return r;
        }
        if let Ok(percent) = dose(&r, &NOTHING) {
            r.yeast_percent = percent * c.normal(off_dose).exp();
            if r.check(true).is_ok() {
                return r;
            }
        }
    }
}

fn drawn(school: School, c: &mut Chance) -> RiseRequest {
    let room_c = (21.0 + c.normal(1.8)).clamp(14.0, 30.0);
    let places = Places {
        bulk_g: 1000.0 * c.between(1.2, 3.5),
    };
    let mut hours = |h: f64| ((h * c.normal(0.12).exp() * 4.0).round() / 4.0).max(0.25);
    let ball = Some(250.0);
    let (room, fridge) = (Air::Room, Air::Fridge);
    let balled = |h: f64, air: Air, place: f64| Stage {
        event: Event::Ball,
        ..places.stage(h, ball, air, place)
    };
    let stages = match school {
        School::Short => vec![
            places.stage(hours(2.0), None, room, room_c),
            balled(hours(4.0), room, room_c + 1.0),
        ],
        School::Day => vec![
            places.stage(hours(15.0), None, room, room_c - 1.0),
            balled(hours(6.0), room, room_c - 1.0),
        ],
        School::ColdBalls => vec![
            places.stage(hours(1.5), None, room, room_c),
            balled(hours(44.0), fridge, FRIDGE_C),
            places.stage(hours(3.5), ball, room, room_c),
        ],
        School::ColdBulk => vec![
            places.stage(1.0, None, room, room_c),
            places.stage(hours(22.0), None, fridge, FRIDGE_C),
            balled(hours(5.0), room, room_c),
        ],
        School::Straight => vec![
            places.stage(hours(66.0), Some(260.0), fridge, FRIDGE_C),
            places.stage(hours(3.0), Some(260.0), room, room_c),
        ],
        School::Leaven => vec![
            places.stage(hours(4.0), None, room, room_c + 2.0),
            balled(hours(4.0), room, room_c + 2.0),
        ],
        School::LeavenNight => vec![
            places.stage(hours(3.0), None, room, room_c + 2.0),
            balled(hours(20.0), fridge, FRIDGE_C),
            places.stage(hours(3.0), ball, room, room_c + 1.0),
        ],
    };
    let leaven = match school {
        School::Leaven => c.between(0.10, 0.20),
        School::LeavenNight => c.between(0.12, 0.25),
        _ => 0.0,
    };
    let dough_c = match school {
        School::Short => 24.0,
        School::Straight => 21.0,
        School::LeavenNight => 25.0,
        _ => room_c + 2.0,
    };
    let w = [240.0, 270.0, 300.0, 320.0, 350.0][c.below(5)];
    RiseRequest {
        kind: DoughKind::Dough,
        hydration_percent: c.between(58.0, 70.0),
        salt_percent: c.between(2.2, 3.0),
        sugar_percent: 0.0,
        oil_percent: 0.0,
        whole_grain_percent: 0.0,
        flour_w: f64::max(w, school.least_w()),
        yeast_percent: 0.0,
        yeast_form: match c.below(4) {
            0 | 1 => YeastForm::Instant,
            2 => YeastForm::ActiveDry,
            _ => YeastForm::Fresh,
        },
        yeast_vigour: 1.0,
        leaven_fraction: leaven,
        leaven_vigour: 1.0,
        preferments: vec![],
        dough_c,
        altitude_m: 0.0,
        target_volume: None,
        start_clock_h: c.between(7.0, 19.0),
        stages,
        departs: Default::default(),
    }
}
