//! Doughs to practise on: short, over a day, or through the cold, with the dose that the book has for their hours.

use crate::draw::Draw;
use crate::fact;
use crate::fact::{Fact, Percent, hours, two_digits, whole};
use crate::leaven::YeastForm;
use crate::rise::{
    Air, Container, Departure, DoughKind, DoughShape, Event, RiseRequest, RiseResult, Stage,
    Temperatures, forecast, quick_dose,
};
use crate::units::Celsius;

/// A ball of these doughs, g.
const BALL_G: f64 = 260.0;
/// Their fridge, °C.
pub(super) const FRIDGE_C: f64 = 5.0;

/// In which order it lies where.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Lying {
    /// Bulk and balls in the room, within a day.
    Room,
    /// Bulk in the room, balls in the fridge.
    Cold,
}

/// A dough as it was planned.
#[derive(Debug, Clone)]
pub(super) struct Planned {
    pub dough: RiseRequest,
    pub lying: Lying,
    pub room_c: f64,
}

pub(super) fn stage(h: f64, bulk_g: Option<f64>, air: Air, place_c: f64, event: Event) -> Stage {
    let (piece_g, shape, container) = match bulk_g {
        Some(g) => (g, DoughShape::Bulk, Container::Tub),
        None => (BALL_G, DoughShape::Ball, Container::Box),
    };
    Stage {
        hours: h,
        piece_g,
        shape,
        thickness_mm: None,
        container,
        air,
        place_c: Some(place_c),
        place_profile_c: None,
        place_off_k: None,
        event,
        starts_at_c: None,
    }
}

impl Planned {
    /// One of either kind; `None` where no dose raises it in its hours.
    pub fn drawn(draw: &mut Draw, lying: Lying) -> Option<Planned> {
        let room_c = draw.step(18.0, 25.0, 1.0);
        let bulk_g = draw.step(1500.0, 3500.0, 100.0);
        let bulk = Some(bulk_g);
        let stages = match lying {
            Lying::Room => vec![
                stage(
                    draw.step(6.0, 10.0, 0.5),
                    bulk,
                    Air::Room,
                    room_c,
                    Event::None,
                ),
                stage(
                    draw.step(2.5, 4.0, 0.5),
                    None,
                    Air::Room,
                    room_c,
                    Event::Ball,
                ),
            ],
            Lying::Cold => vec![
                stage(
                    draw.step(1.5, 3.0, 0.5),
                    bulk,
                    Air::Room,
                    room_c,
                    Event::None,
                ),
                stage(
                    draw.step(20.0, 46.0, 2.0),
                    None,
                    Air::Fridge,
                    FRIDGE_C,
                    Event::Ball,
                ),
                stage(
                    draw.step(2.5, 4.0, 0.5),
                    None,
                    Air::Room,
                    room_c,
                    Event::None,
                ),
            ],
        };
        let mut dough = RiseRequest {
            kind: DoughKind::Dough,
            hydration_percent: draw.step(60.0, 68.0, 1.0),
            salt_percent: draw.step(2.4, 3.0, 0.1),
            sugar_percent: 0.0,
            oil_percent: 0.0,
            whole_grain_percent: 0.0,
            flour_w: draw.step(290.0, 350.0, 10.0),
            yeast_percent: 0.0,
            yeast_form: draw.one(&[YeastForm::Instant, YeastForm::Fresh]),
            yeast_vigour: 1.0,
            leaven_fraction: 0.0,
            leaven_vigour: 1.0,
            preferments: vec![],
            dough_c: room_c + draw.step(0.0, 3.0, 1.0),
            altitude_m: 0.0,
            target_volume: None,
            start_clock_h: 8.0,
            stages,
            departs: Departure::BOOK,
        };
        dough.yeast_percent = two_digits(quick_dose(&dough).ok()?);
        Some(Planned {
            dough,
            lying,
            room_c,
        })
    }

    /// What it is, in one line.
    pub fn says(&self) -> Fact {
        let d = &self.dough;
        let h = |i: usize| hours(d.stages[i].hours);
        let yeast = Percent(d.yeast_percent);
        match self.lying {
            Lying::Room => fact!(
                "practice-dough-room",
                w = whole(d.flour_w),
                water = Percent(d.hydration_percent),
                yeast = yeast,
                form = d.yeast_form.name(),
                bulk = h(0),
                balls = h(1),
                room = Celsius(self.room_c)
            ),
            Lying::Cold => fact!(
                "practice-dough-cold",
                w = whole(d.flour_w),
                water = Percent(d.hydration_percent),
                yeast = yeast,
                form = d.yeast_form.name(),
                bulk = h(0),
                cold = h(1),
                fridge = Celsius(FRIDGE_C),
                warm = h(2),
                room = Celsius(self.room_c)
            ),
        }
    }
}

/// A whole run.
pub(super) fn run(r: &RiseRequest) -> Option<RiseResult> {
    forecast(r, Temperatures::InsideTheDough).ok()
}

/// How far a dough is from right when it is opened: ln of its ripeness, or how far its gluten is past it; 0 is right.
pub(super) fn state(r: &RiseResult) -> f64 {
    let at = &r.at_bake;
    let spent = 1.5f64.ln() - 2.0 * at.reserve;
    at.ripeness.max(1e-3).ln().max(spent)
}
