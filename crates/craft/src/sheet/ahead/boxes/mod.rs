//! A dough in its boxes: each box is a path of its own from balling on, with its rise now and when it is used, when it leaves the
//! cold, and how its balls open.
//!
//! Source: mixing and shaping, sections 8 to 12; the rise of a box is the whole model's, run on the legs that it really lay on.

mod judge;
mod moment;
mod open;
mod order;
mod runs;
mod taken_out;
mod way;

pub use moment::BoxMoment;
pub use open::{OpenBox, OpensFrom};
pub use order::{NextBall, OutRound};
pub use taken_out::OutAt;

use super::timeline::h_between;
use super::{AheadRequest, Happened};
use crate::note::Note;
use crate::path::Spot;
use crate::refusal::ValidationError;
use crate::rise::RiseResult;
use crate::shape::run::{BoxKind, ShapeRun};
use crate::shape::{
    BoxGrid, BoxedBall, DividePlan, Divided, FlourFactor, FlourTest, LaidBoxes, Loss, PieceTally,
    divide, flour_of_tests, tally,
};
use crate::sheet::{Dividing, StepKind, dividing, hours};
use jiff::Timestamp;
use moment::moment;
use runs::BoxRuns;
use taken_out::InTheCold;
use way::BoxWay;

/// A piece that differs so much from what is wanted is to be corrected, %.
pub const TOLERANCE_PERCENT: f64 = 2.5;
/// Boxes that close within so much of the first, h, and differ less in rise, are used by their numbers.
const ALIKE_CLOSING_H: f64 = 1.0;
const ALIKE_RISE: f64 = 0.1;
/// So many boxes are followed one by one.
pub const MOST_BOXES: usize = 48;

/// What is asked of a dough that is divided.
#[derive(Debug, Clone)]
pub struct ShapeQuestion<'a> {
    /// The batch as it goes.
    pub ahead: AheadRequest<'a>,
    /// What was tapped.
    pub run: &'a ShapeRun,
    /// What balls usually go into here.
    pub usual_box: BoxKind,
    /// What the scale resolves that weighs pieces, g.
    pub scale_g: f64,
    /// What usually stays on bowl and hands.
    pub loss: Loss,
    /// From one pizza to the next, s.
    pub pace_s: f64,
    /// Pieces that went into the oven.
    pub used: u32,
    /// Press tests of the same flour that were noted from other doughs.
    pub noted: &'a [FlourTest],
    /// Times as lively as planned, where a marked tub said so.
    pub lively: Option<f64>,
}

/// One box.
#[derive(Debug, Clone, PartialEq)]
pub struct BoxLook {
    /// From 1, in the order of filling.
    pub number: u16,
    /// Balls that it holds when it is full.
    pub balls: u32,
    /// The first of them, from 1.
    pub first: u32,
    /// Balls that lie in it; all of them where nobody counted and the step is done.
    pub made: u32,
    /// When its first ball was made, or will be.
    pub balled_at: Timestamp,
    /// When it went into a freezer: nothing is foretold of it.
    pub frozen_at: Option<Timestamp>,
    /// It stands within a stack.
    pub stacked: bool,
    /// Where it lies now.
    pub place: Spot,
    /// In the cold now, or on its way there.
    pub is_cold: bool,
    /// How it stands now.
    pub now: BoxMoment,
    /// When it leaves the cold.
    pub out: Option<OutAt>,
    /// It lies in the room and would be too ripe: back into the cold now, and out again then.
    pub back: Option<OutAt>,
    /// In which order it is used, from 1; none where it is frozen or used up.
    pub order: Option<u16>,
    /// Balls that are left in it.
    pub left: u32,
    /// When its first ball is used.
    pub use_at: Timestamp,
    /// How it stands then.
    pub at_use: BoxMoment,
    /// Rise of its last ball when that is used.
    pub rise_last: f64,
    /// When it is past.
    pub closes_at: Option<Timestamp>,
    /// When its balls open, and how.
    pub opens: OpenBox,
    /// In the cold from, and until when it leaves it; the last time where it goes there again.
    pub cold: Option<(Timestamp, Option<Timestamp>)>,
    /// Rise and strength left from mixing on until it is past, both of 1.
    pub course: Vec<(Timestamp, f64, f64)>,
}

/// A dough that is divided, looked at.
#[derive(Debug, Clone, PartialEq)]
pub struct ShapeLook {
    /// What went into the bowl, g.
    pub put_g: f64,
    /// The whole as it was weighed, or as it is expected, g.
    pub whole_g: f64,
    /// What stayed on bowl and hands, or usually does, %.
    pub loss_percent: f64,
    /// Against the plan, once it was weighed.
    pub divided: Option<Divided>,
    /// Pieces that are made.
    pub count: u32,
    /// Of so much each, g; where there are several kinds, their mean.
    pub ball_g: f64,
    /// One of them, as it lies in a box.
    pub ball: BoxedBall,
    /// The plan's own count and weight.
    pub planned: (u32, f64),
    /// What each piece is to weigh, g.
    pub wanted_g: Vec<f64>,
    /// Oil for the tray of each, g; nothing where they lie in boxes.
    pub oil_g: Vec<f64>,
    /// The pieces so far.
    pub tally: Option<PieceTally>,
    /// What they lie in; none where they go into pans.
    pub boxed: Option<(BoxKind, BoxGrid)>,
    /// Where they lie.
    pub laid: LaidBoxes,
    /// When the first one is made.
    pub pieces_from: Timestamp,
    /// The boxes.
    pub boxes: Vec<BoxLook>,
    /// Whether leaving the cold one after the other is worth it.
    pub worth_it: bool,
    /// Rise of the last ball, were all taken out when the plan says.
    pub rise_last_at_once: Option<f64>,
    /// The press tests of this dough, as each bears on its flour.
    pub tests: Vec<FlourTest>,
    /// What they say of it, with those that were noted: how slow it relaxes, how long its gluten lasts; none before the first.
    pub flour: Option<(FlourFactor, FlourFactor)>,
    /// Judgements, the gravest first.
    pub notes: Vec<Note>,
}

/// Looks at a dough that is divided, or will be.
///
/// Errors: as the forecast of the dough.
pub fn look_at_boxes(q: &ShapeQuestion) -> Result<ShapeLook, ValidationError> {
    let a = &q.ahead;
    let in_pans = a.request.formula.in_pans();
    let d = dividing(a.planned, in_pans, q.run, &q.usual_box);
    let put_g = a.planned.formula.dough_g;
    let expected = put_g * (1.0 - q.loss.of_percent(put_g) / 100.0);
    let whole_g = q.run.whole_g.unwrap_or(expected);
    let planned_ball = a.planned.boxed_ball().ball_g;
    let planned = (a.planned.formula.pieces.max(1), planned_ball);
    let divided = q.run.whole_g.and_then(|weighed_g| {
        divide(&DividePlan {
            put_g,
            weighed_g,
            ball_g: planned.1,
            count: planned.0,
            scale_g: q.scale_g,
        })
        .ok()
    });
    let alike = as_if_alike(q.run, &d);
    let told = !alike.is_empty();
    let tally = told.then(|| {
        tally(
            q.run.whole_g.unwrap_or(d.ball_g * f64::from(d.count)),
            &alike,
            d.ball_g,
            d.count,
            q.scale_g,
            TOLERANCE_PERCENT,
        )
    });
    let happened = without_boxes(a, q.run);
    let own = AheadRequest {
        happened: &happened,
        ..a.clone()
    };
    let mut runs = BoxRuns::new(&own, q.lively, d.ball_g)?;
    let pieces_from = q.run.pieces.first().map_or(runs.pieces_from(), |p| p.at);
    let ways = ways(q, &d.laid, pieces_from);
    runs = runs.with(ways.clone());
    let followed = followed(q, &d, &mut runs, &ways);
    let mut out = ShapeLook {
        put_g,
        whole_g,
        loss_percent: 100.0 * (1.0 - whole_g / put_g),
        divided,
        count: d.count,
        ball_g: d.ball_g,
        ball: BoxedBall {
            ball_g: d.ball_g,
            ..a.planned.boxed_ball()
        },
        planned,
        wanted_g: d.wanted_g,
        oil_g: d.oil_g,
        tally,
        boxed: d.boxed,
        laid: d.laid,
        pieces_from,
        boxes: followed.boxes,
        worth_it: followed.worth_it,
        rise_last_at_once: followed.rise_last_at_once,
        tests: followed.tests,
        flour: followed.flour,
        notes: vec![],
    };
    out.notes = judge::of_boxes(q, &out, &runs);
    Ok(out)
}

/// What happened to the dough as a whole: that a box left the cold says nothing of the others.
fn without_boxes(a: &AheadRequest, run: &ShapeRun) -> Happened {
    let temper = a.planned.steps.iter().find(|s| s.kind == StepKind::Temper);
    let temper = temper.map(|s| s.number);
    let moved = |at: Timestamp| {
        let mut all = run.boxes.values().flat_map(|b| &b.moved);
        all.any(|(t, _)| *t == at)
    };
    let mut out = a.happened.clone();
    out.steps
        .retain(|s| Some(s.number) != temper || !moved(s.at));
    out
}

/// The pieces that were weighed, as if all were to weigh the same, g.
fn as_if_alike(run: &ShapeRun, d: &Dividing) -> Vec<f64> {
    let each = run.pieces.iter().zip(&d.wanted_g);
    each.filter_map(|(p, wanted)| Some(p.g? - wanted + d.ball_g))
        .collect()
}

/// The boxes with the minute at which their first ball was made.
fn ways(q: &ShapeQuestion, laid: &LaidBoxes, pieces_from: Timestamp) -> Vec<BoxWay> {
    let made = &q.run.pieces;
    (0..laid.balls.len().min(MOST_BOXES))
        .map(|i| {
            let first = laid.first_of(i) as usize;
            let to_come = |last: Timestamp| {
                let more = first.saturating_sub(made.len() - 1) as f64;
                last + hours(more * laid.s_per_ball / 3600.0)
            };
            let later = || pieces_from + hours(laid.made_min(i) / 60.0);
            let at = match (made.get(first), made.last()) {
                (Some(p), _) => p.at,
                (None, Some(last)) => to_come(last.at).max(q.ahead.now),
                (None, None) => later(),
            };
            let told = q.run.boxes.get(&((i + 1) as u16));
            BoxWay {
                balled_at: at,
                told: told.cloned().unwrap_or_default(),
            }
        })
        .collect()
}

struct Followed {
    boxes: Vec<BoxLook>,
    worth_it: bool,
    rise_last_at_once: Option<f64>,
    tests: Vec<FlourTest>,
    flour: Option<(FlourFactor, FlourFactor)>,
}

/// So many moments of a box's course are told.
const COURSE: u32 = 48;

/// Rise and strength left from mixing to a moment.
fn course(run: &RiseResult, mixed_at: Timestamp, until: Timestamp) -> Vec<(Timestamp, f64, f64)> {
    let whole_h = h_between(mixed_at, until).max(0.0);
    (0..=COURSE)
        .map(|n| {
            let h = whole_h * f64::from(n) / f64::from(COURSE);
            let m = moment(run, h);
            (mixed_at + hours(h), m.rise, m.reserve)
        })
        .collect()
}

/// Follows each box to its hour.
fn followed(q: &ShapeQuestion, d: &Dividing, runs: &mut BoxRuns, ways: &[BoxWay]) -> Followed {
    let a = &q.ahead;
    let first_use = match q.used {
        0 => a.request.serve_at.max(a.now),
        _ => a.now,
    };
    let whole_s = q.pace_s * f64::from(d.count.saturating_sub(q.used));
    let until = first_use + hours(whole_s / 3600.0);
    let mixed_at = runs.mixed_at();
    let at = |t: Timestamp| h_between(mixed_at, t);
    let base: Vec<_> = (0..ways.len()).map(|i| runs.of(i, None, until)).collect();
    let now: Vec<BoxMoment> = base.iter().map(|r| moment(r, at(a.now))).collect();
    let closes = |r: &RiseResult| {
        let to_h = r.window.and_then(|w| w.to_h)?;
        Some(mixed_at + hours(to_h))
    };
    // What fades leads, then what closes earliest, then what is ripest; what differs by less goes by number.
    let mut order: Vec<usize> = (0..ways.len())
        .filter(|i| ways[*i].told.frozen_at().is_none())
        .collect();
    let first_close = order.iter().filter_map(|i| closes(&base[*i])).min();
    let later = |i: &usize| {
        let by_h = h_between(first_close?, closes(&base[*i])?);
        Some((by_h / ALIKE_CLOSING_H).floor() as i64)
    };
    let ripest = order.iter().map(|i| now[*i].rise).fold(0.0, f64::max);
    let riper = |i: &usize| ((ripest - now[*i].rise) / ALIKE_RISE).floor() as i64;
    order.sort_by_key(|i| {
        let closing = later(i).unwrap_or(i64::MAX);
        (!now[*i].label.is_past(), closing, riper(i), *i)
    });
    let mut used = q.used;
    let mut use_at = first_use;
    let (mut cold, mut warm) = (vec![], vec![]);
    let mut uses: Vec<Option<(u32, Timestamp, Timestamp)>> = vec![None; ways.len()];
    for i in &order {
        let balls = d.laid.balls[*i];
        let gone = used.min(balls);
        used -= gone;
        let left = balls - gone;
        let span = |n: u32| hours(f64::from(n) * q.pace_s / 3600.0);
        let last_at = use_at + span(left.saturating_sub(1));
        uses[*i] = (left > 0).then_some((left, use_at, last_at));
        let legs = runs.legs(*i, None, until);
        let stays = legs
            .in_the_cold()
            .filter(|(_, to)| to.is_none_or(|t| t > a.now));
        let of = InTheCold {
            index: *i,
            balls: left,
            use_at,
            last_at,
        };
        match (stays, left) {
            (_, 0) => {}
            (Some(_), _) => cold.push(of),
            // It lies in the room: it can be carried back.
            (None, _) if a.now >= ways[*i].balled_at && d.boxed.is_some() => warm.push(of),
            _ => {}
        }
        use_at += span(left);
    }
    let rounds = taken_out::rounds(runs, &cold, q.pace_s);
    let back = taken_out::back_again(runs, &warm, q.pace_s);
    let worth_it = rounds.as_ref().is_some_and(|r| r.worth_it);
    let last = cold.iter().max_by_key(|c| c.last_at);
    let rise_last_at_once = last.map(|c| moment(&base[c.index], at(c.last_at)).rise);
    let tests = open::tests_of(q, runs, ways, &base, mixed_at);
    let flour = flour_of_tests(&[q.noted, &tests[..]].concat());
    let dough = runs.dough(until);
    let mut boxes = vec![];
    for (i, way) in ways.iter().enumerate() {
        let out = rounds.as_ref().and_then(|r| {
            let (_, out) = r.out.iter().find(|(index, _)| *index == i)?;
            // Not worth the walks: all at once, when the plan says; one that was put back goes by its own hour.
            let own = r.worth_it || !way.told.moved.is_empty();
            let planned = runs.legs(i, None, until).in_the_cold()?.1;
            Some(match planned {
                Some(at) if !own => OutAt { at, ..*out },
                _ => *out,
            })
        });
        let run = runs.of(i, out.map(|o| o.at), until);
        let legs = runs.legs(i, out.map(|o| o.at), until);
        let (place, _) = runs.legs(i, None, until).lies_at(a.now);
        let (left, use_at, last_at) = uses[i].unwrap_or((0, first_use, first_use));
        let at_use = moment(&run, at(use_at));
        let made = if q.run.pieces.is_empty() {
            if a.now >= way.balled_at {
                d.laid.balls[i]
            } else {
                0
            }
        } else {
            let made = q.run.pieces.len() as u32;
            made.saturating_sub(d.laid.first_of(i)).min(d.laid.balls[i])
        };
        let until = closes(&run).unwrap_or(last_at).max(last_at);
        let course = course(&run, mixed_at, until);
        let opens = open::open_box(
            &open::BoxOpening {
                way,
                legs: &legs,
                run: &run,
                mixed_at,
                dough,
                flour,
                ball_g: d.ball_g,
                in_pans: d.boxed.is_none(),
            },
            a.now,
            use_at,
        );
        boxes.push(BoxLook {
            number: (i + 1) as u16,
            balls: d.laid.balls[i],
            first: d.laid.first_of(i) + 1,
            made,
            balled_at: way.balled_at,
            frozen_at: way.told.frozen_at(),
            stacked: way.told.stacked,
            is_cold: place.is_cold(),
            place,
            now: moment(&run, at(a.now)),
            out,
            order: order
                .iter()
                .filter(|j| uses[**j].is_some())
                .position(|j| *j == i)
                .map(|n| (n + 1) as u16),
            left,
            use_at,
            at_use,
            rise_last: moment(&run, at(last_at)).rise,
            closes_at: closes(&run),
            opens,
            cold: legs.in_the_cold(),
            back: back.iter().find(|(index, _)| *index == i).map(|(_, o)| *o),
            course,
        });
    }
    Followed {
        boxes,
        worth_it,
        rise_last_at_once,
        tests,
        flour,
    }
}
