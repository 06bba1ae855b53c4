//! What can still be done for a dough that will not be ready when it is wanted, each simulated, the best first.
//!
//! Source: craft notes, section 4: cooler or warmer place, the fridge now, fold or ball again (the flour of the bench
//! takes points off the water), another temper, smaller boxes, another serve time.

use super::course::DoughCourse;
use super::idea::{Idea, PlanChange, cut_now, idea};
use super::same::same_dough;
use super::{AheadRequest, INSIDE};
use crate::fact;
use crate::fact::{Fact, Percent, whole};
use crate::path::{Leg, Lies, Spot};
use crate::rise::kinetics::HandOver;
use crate::rise::{
    Air, Container, Event, Look, RipenessPart, RiseResult, YeastAnswer, foresee, quick_window,
    solve_yeast,
};
use crate::sheet::fits;
use crate::sheet::margin_h;
use crate::sheet::{ReadyWindow, hours};
use crate::units::{Celsius, Grams};
use jiff::{SignedDuration, Timestamp};
use serde::{Deserialize, Serialize};

/// Flour that a floured bench adds when a dough is balled again, % of the flour (craft notes: some points of water).
const BENCH_FLOUR_PERCENT: f64 = 3.0;
/// A dough that was balled again relaxes so long before it opens, h.
const RELAX_H: f64 = 1.0;
/// Shortest temper that makes a cold ball open, h.
const TEMPER_H: f64 = 2.0;
/// A place some degrees cooler or warmer, where the kitchen names none, K.
const OTHER_PLACE_K: f64 = 4.0;
/// So near to the edge a serve time is not safe, h.
const SAFE_H: f64 = 0.5;
/// With less time than this before serving nothing is begun any more, h.
const LEAST_LEFT_H: f64 = 0.5;
/// A remedy must win so much, h.
const WORTH_H: f64 = 0.25;
const MOST: usize = 6;

/// One remedy and what it does.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Remedied {
    /// A stable name, for programs.
    pub code: String,
    /// What to do: "Into the fridge now".
    pub say: Fact,
    /// What it costs, or why it works.
    pub why: Fact,
    /// When it is ready then; absent when never.
    pub window: Option<ReadyWindow>,
    /// Hours between the serve time and the nearer edge of the window then; negative outside.
    pub margin_h: f64,
    /// What is changed.
    pub change: PlanChange,
}

pub(super) fn remedies(
    q: &AheadRequest,
    course: &DoughCourse,
    window: Option<ReadyWindow>,
    rise: &RiseResult,
    handed: &[HandOver],
) -> Vec<Remedied> {
    let serve_at = q.request.serve_at;
    let now_margin = margin_h(window, serve_at);
    let fits = fits(window, serve_at, rise.at_bake.label);
    if q.now >= serve_at {
        return vec![];
    }
    let dough = |change: &PlanChange| {
        let mut dough = course.dough_through(&change.legs, change.serve_at);
        if let Some(percent) = change.yeast_percent {
            dough.yeast_percent = percent;
        }
        dough
    };
    let tried = |idea: Idea| -> Option<Remedied> {
        let change = PlanChange {
            legs: idea.legs,
            serve_at: idea.serve_at,
            yeast_percent: idea.yeast_percent,
        };
        let dough = dough(&change);
        dough.check(true).ok()?;
        let window =
            quick_window(&dough, INSIDE, handed).map(|w| ReadyWindow::of(&w, course.mixed_at));
        Some(Remedied {
            code: idea.code.into(),
            say: idea.say,
            why: idea.why,
            window,
            margin_h: margin_h(window, change.serve_at),
            change,
        })
    };
    // What is shown is reckoned as finely as the forecast beside it.
    let finely = |mut r: Remedied| -> Remedied {
        let window = foresee(&dough(&r.change), INSIDE, handed, Look::Beyond).window;
        r.window = window.map(|w| ReadyWindow::of(&w, course.mixed_at));
        r.margin_h = margin_h(r.window, r.change.serve_at);
        r
    };
    if fits && now_margin >= SAFE_H {
        // It fits, but is no longer the dough that was planned: there is a way back.
        let back = same_dough(q, course, handed).and_then(tried).map(finely);
        return back.filter(|r| r.margin_h >= SAFE_H).into_iter().collect();
    }
    // Over before service: the window shuts too soon. Else it opens too late.
    let over = match window {
        Some(w) => w.to_at.is_some_and(|t| t < serve_at + hours(SAFE_H)),
        None => rise.at_bake.limiting != RipenessPart::Dose,
    };
    let mut out: Vec<Remedied> = ideas(q, course, window, over)
        .into_iter()
        .chain(same_dough(q, course, handed))
        .filter_map(tried)
        .filter(|r| r.margin_h > now_margin + WORTH_H)
        .collect();
    out.sort_by(|a, b| b.margin_h.total_cmp(&a.margin_h));
    // The same idea in several lengths: the best of each stays.
    let mut codes: Vec<String> = Vec::new();
    out.retain(|r| {
        let new = !codes.contains(&r.code);
        codes.push(r.code.clone());
        new
    });
    out.truncate(MOST);
    out.into_iter().map(finely).collect()
}

/// Another dose for the dough that is still to be mixed: what a preferment brings may have changed.
fn other_dose(q: &AheadRequest, course: &DoughCourse) -> Option<Idea> {
    let dough = course.dough(q.request.serve_at);
    let was = dough.yeast_percent;
    let YeastAnswer::Found { yeast_percent, .. } = solve_yeast(&dough, INSIDE).ok()? else {
        return None;
    };
    let grams = |percent: f64| {
        let f = &q.planned.formula;
        Grams(fact::two_digits(f.dough_g / f.sum_percent * percent))
    };
    let dose = grams(yeast_percent);
    let say = if was > 0.0 {
        fact!(
            "other-dose",
            dose = dose,
            what = dough.yeast_form.name(),
            was = grams(was)
        )
    } else {
        fact!(
            "other-dose-besides",
            dose = dose,
            what = dough.yeast_form.name()
        )
    };
    let why = fact!("other-dose-why");
    Some(Idea {
        yeast_percent: Some(yeast_percent),
        ..idea(
            "other_dose",
            say,
            why,
            course.legs.clone(),
            q.request.serve_at,
        )
    })
}

fn ideas(
    q: &AheadRequest,
    course: &DoughCourse,
    window: Option<ReadyWindow>,
    over: bool,
) -> Vec<Idea> {
    let serve_at = q.request.serve_at;
    if !course.in_bowl {
        return unmixed(q, course, window, over);
    }
    let left_h = serve_at.duration_since(q.now).as_secs_f64() / 3600.0;
    if left_h < LEAST_LEFT_H {
        // Whatever is begun now would not be over when those who eat sit down.
        return vec![];
    }
    let (legs, i) = cut_now(q, course);
    let mut out = Vec::new();
    let here = &legs[i];
    let balled = here.lies != Lies::Bulk;
    let in_room = !here.spot.is_cold() && !here.spot.is_frozen();
    if over {
        cooler(q, course, (&legs, i), left_h, serve_at, &mut out);
        if in_room && left_h > RELAX_H {
            out.extend(knocked_back(&legs, i, balled, serve_at, q));
        }
        out.extend(later_out(&legs, i, serve_at));
    } else {
        warmer(q, course, (&legs, i), serve_at, &mut out);
        out.extend(sooner_out(&legs, i, left_h, serve_at));
    }
    out.extend(served_otherwise(q, window, over, &legs));
    out
}

/// What can be done before a dough is mixed.
fn unmixed(
    q: &AheadRequest,
    course: &DoughCourse,
    window: Option<ReadyWindow>,
    over: bool,
) -> Vec<Idea> {
    let mut out: Vec<Idea> = other_dose(q, course).into_iter().collect();
    out.extend(served_otherwise(q, window, over, &course.legs));
    out
}

/// Guests who eat earlier or later.
fn served_otherwise(
    q: &AheadRequest,
    window: Option<ReadyWindow>,
    over: bool,
    legs: &[Leg],
) -> Option<Idea> {
    let serve_at = q.request.serve_at;
    better_serve(q, window, over).map(|at| {
        let by = at.duration_since(serve_at).as_secs_f64() / 3600.0;
        let mut moved = legs.to_vec();
        if let Some(last) = moved.last_mut() {
            last.hours = (last.hours + by).max(1.0 / 60.0);
        }
        let why = fact!("other-serve-why");
        let time = fact::hours((by.abs() * 4.0).round() / 4.0);
        let say = if by < 0.0 {
            fact!("serve-earlier", time = time)
        } else {
            fact!("serve-later", time = time)
        };
        idea("other_serve", say, why, moved, at)
    })
}

/// The quarter hour inside the window that is nearest to the serve time, half an hour from its edge.
fn better_serve(q: &AheadRequest, window: Option<ReadyWindow>, over: bool) -> Option<Timestamp> {
    let w = window?;
    let at = if over {
        let to = w.to_at?;
        (to - hours(SAFE_H)).max(w.from_at)
    } else {
        w.from_at + hours(SAFE_H)
    };
    let quarter = SignedDuration::from_secs(900).as_secs();
    let s = at.as_second();
    let rounded = if over {
        s.div_euclid(quarter)
    } else {
        (s + quarter - 1).div_euclid(quarter)
    } * quarter;
    Timestamp::from_second(rounded).ok().filter(|t| *t > q.now)
}

/// A cooler place, or the fridge with a temper at the end.
fn cooler(
    q: &AheadRequest,
    course: &DoughCourse,
    (legs, i): (&[Leg], usize),
    left_h: f64,
    serve_at: Timestamp,
    out: &mut Vec<Idea>,
) {
    let room_c = course.room_now_c(q);
    let in_room = !legs[i].spot.is_cold() && !legs[i].spot.is_frozen();
    if in_room {
        for temper_h in [2.0, 3.0, 4.0] {
            let cold_h = left_h - temper_h;
            if cold_h < 0.5 || temper_h < TEMPER_H {
                continue;
            }
            let mut way = legs[..i].to_vec();
            let here = &legs[i];
            way.push(Leg {
                hours: cold_h,
                spot: Spot::Fridge,
                ..here.clone()
            });
            // What was still to be shaped is shaped when it comes out.
            let shaped = legs[i..].iter().rev().find(|l| l.event.shapes());
            let last = &legs[legs.len() - 1];
            way.push(Leg {
                hours: temper_h,
                spot: Spot::Room,
                event: if i + 1 < legs.len() {
                    shaped.map_or(Event::None, |l| l.event)
                } else {
                    Event::None
                },
                ..last.clone()
            });
            let say = fact!("fridge-now", time = fact::hours(temper_h));
            out.push(idea(
                "fridge_now",
                say,
                fact!("fridge-now-why"),
                way,
                serve_at,
            ));
        }
    }
    let named = q
        .places
        .iter()
        .filter(|p| p.air == Air::Room && p.c < room_c - 0.5);
    let generic = crate::path::Place {
        name: "a cooler place".into(),
        air: Air::Room,
        // A room that is hotter than it should be: as warm as was planned is cooler already.
        c: (room_c - OTHER_PLACE_K).min(q.request.room_c).max(5.0),
        profile_c: None,
        off_k: None,
        holds_h: None,
    };
    for p in named.chain(std::iter::once(&generic)) {
        out.extend(elsewhere(legs, i, p, "cooler_place", serve_at));
    }
}

fn warmer(
    q: &AheadRequest,
    course: &DoughCourse,
    (legs, i): (&[Leg], usize),
    serve_at: Timestamp,
    out: &mut Vec<Idea>,
) {
    let room_c = course.room_now_c(q);
    let named = q
        .places
        .iter()
        .filter(|p| p.air == Air::Room && p.c > room_c + 0.5);
    let generic = crate::path::Place {
        name: "a warmer place".into(),
        air: Air::Room,
        c: (room_c + OTHER_PLACE_K).min(30.0),
        profile_c: None,
        off_k: None,
        holds_h: None,
    };
    for p in named.chain(std::iter::once(&generic)) {
        out.extend(elsewhere(legs, i, p, "warmer_place", serve_at));
    }
}

/// All room legs from now on in another place.
fn elsewhere(
    legs: &[Leg],
    i: usize,
    place: &crate::path::Place,
    code: &'static str,
    serve_at: Timestamp,
) -> Option<Idea> {
    let mut way = legs.to_vec();
    let mut any = false;
    for leg in &mut way[i..] {
        if leg.spot.air() == Air::Room {
            leg.spot = Spot::Own(place.clone());
            any = true;
        }
    }
    let now = way[i].spot.air() == Air::Room;
    let (name, c) = (place.name.to_lowercase(), Celsius(place.c));
    let say = if now {
        fact!("to-place-now", name = name, c = c)
    } else {
        fact!("to-place-then", name = name, c = c)
    };
    any.then(|| idea(code, say, fact!("place-why"), way, serve_at))
}

/// Fold, or ball again: gas is lost and the piece starts anew.
fn knocked_back(
    legs: &[Leg],
    i: usize,
    balled: bool,
    serve_at: Timestamp,
    q: &AheadRequest,
) -> Vec<Idea> {
    let mut out = Vec::new();
    let mut way = legs.to_vec();
    if balled {
        way[i].event = Event::Reball;
        way[i].dusting_percent = BENCH_FLOUR_PERCENT;
        let water = q.planned.formula.true_hydration_percent;
        let after = water / (1.0 + BENCH_FLOUR_PERCENT / 100.0);
        let why = fact!(
            "reball-why",
            flour = Percent(BENCH_FLOUR_PERCENT),
            from = Percent(whole(water)),
            to = Percent(fact::two_digits(after))
        );
        out.push(Idea {
            code: "reball_now",
            say: fact!("reball-now"),
            why,
            legs: way,
            serve_at,
            yeast_percent: None,
        });
    } else {
        way[i].event = Event::Degas;
        out.push(idea(
            "press_down",
            fact!("press-down-now"),
            fact!("press-down-now-why"),
            way,
            serve_at,
        ));
        let mut way = legs.to_vec();
        way[i].event = Event::Fold;
        out.push(idea(
            "fold_now",
            fact!("fold-now"),
            fact!("fold-now-why"),
            way,
            serve_at,
        ));
    }
    if legs[i].container() == Container::Stack {
        let mut way = legs.to_vec();
        for leg in &mut way[i..] {
            leg.container = Some(Container::Box);
        }
        out.push(idea(
            "single_boxes",
            fact!("unstack"),
            fact!("unstack-why"),
            way,
            serve_at,
        ));
    }
    out
}

/// Out of the fridge or the freezer earlier, what follows longer.
fn sooner_out(legs: &[Leg], i: usize, left_h: f64, serve_at: Timestamp) -> Vec<Idea> {
    let by_h = [-1.0, -2.0, -3.0, -4.0, -6.0, -left_h];
    let out = |j| moved_out(legs, j, serve_at, &by_h);
    ways_out(legs, i).flat_map(out).collect()
}
fn later_out(legs: &[Leg], i: usize, serve_at: Timestamp) -> Vec<Idea> {
    let by_h = [0.5, 1.0, 1.5, 2.0, 3.0, 4.0, 6.0, 9.0, 12.0];
    let out = |j| moved_out(legs, j, serve_at, &by_h);
    ways_out(legs, i).flat_map(out).collect()
}

/// The legs after which a dough that lies in the cold now comes out into something warmer: of the freezer, of the fridge.
fn ways_out(legs: &[Leg], i: usize) -> impl Iterator<Item = usize> {
    let cold = |l: &Leg| l.spot.is_cold() || l.spot.is_frozen();
    let chain = legs[i..].iter().take_while(|l| cold(l)).count();
    let last = legs.len() - 1;
    (i..(i + chain).min(last)).filter(move |j| legs[*j].spot != legs[*j + 1].spot)
}

/// Shortest thaw in the fridge after the freezer, h; shortest time in the room after the fridge.
const LEAST_THAW_H: f64 = 12.0;
const LEAST_OUT_H: f64 = 1.0;

fn moved_out(legs: &[Leg], j: usize, serve_at: Timestamp, by_h: &[f64]) -> Vec<Idea> {
    let after = &legs[j + 1];
    let frozen = legs[j].spot.is_frozen();
    let (code, least_h) = if frozen {
        ("other_thaw", LEAST_THAW_H)
    } else {
        ("other_temper", LEAST_OUT_H)
    };
    by_h.iter()
        .filter_map(|by| {
            let (cold, next) = (legs[j].hours + by, after.hours - by);
            if cold < 0.0 && legs[j].hours < 0.5 || next < least_h {
                return None;
            }
            let cold = cold.max(1.0 / 60.0);
            let by = cold - legs[j].hours;
            let mut way = legs.to_vec();
            way[j].hours = cold;
            way[j + 1].hours = after.hours - by;
            let quarters = |h: f64| fact::hours((h.abs() * 4.0).round() / 4.0);
            let (time, then) = (quarters(by), quarters(way[j + 1].hours));
            let say = match (frozen, by < 0.0) {
                (true, true) => fact!("freezer-out-earlier", time = time),
                (true, false) => fact!("freezer-out-later", time = time),
                (false, true) => fact!("fridge-out-earlier", time = time),
                (false, false) => fact!("fridge-out-later", time = time),
            };
            let why = if after.spot.is_cold() {
                fact!("then-thaws", time = then)
            } else {
                fact!("then-warms", time = then)
            };
            Some(idea(code, say, why, way, serve_at))
        })
        .collect()
}
