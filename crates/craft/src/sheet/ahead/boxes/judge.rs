//! What to say of a dough that is divided: short, uneven, crowded, late, tight, flowing; and what to do about it.
//!
//! Source: mixing and shaping, section 13.

use super::runs::BoxRuns;
use super::{BoxLook, ShapeLook, ShapeQuestion};
use crate::fact;
use crate::fact::{Fact, Minutes, Percent, Value, tenth, whole};
use crate::note::{Note, by_urgency};
use crate::rise::{Air, Container};
use crate::shape::{DivideChoice, OPENS_C, OutState, PressSign, tau_h};
use crate::sheet::ahead::timeline::h_between;
use crate::units::{Celsius, Cm};

/// A dough that is short by more is spoken of, %.
const SHORT_PERCENT: f64 = 4.0;
/// A loss beyond what is usual, and above so much, is high, %.
const LOSS_HIGH_PERCENT: f64 = 3.0;
const LOSS_SDS: f64 = 2.0;
/// Pieces that differ more are uneven, %.
const UNEVEN_PERCENT: f64 = 2.5;
/// A dough warmer than this is balled cold, °C; or one wetter than its flour bears by so many points.
const TOO_WARM_C: f64 = 26.0;
const TOO_WET: f64 = 3.0;
/// Pieces to come that would weigh less of what is wanted are none.
const NOTHING_LEFT: f64 = 0.15;
/// Boxes that differ by more at their use.
const APART: f64 = 0.25;
/// A ball too cold to open is spoken of so long before it is used, min.
const SOON_MIN: f64 = 15.0;
/// The last ones drift from what was wanted by more, %.
const DRIFT_PERCENT: f64 = super::TOLERANCE_PERCENT;

/// The judgements, the gravest first.
pub(super) fn of_boxes(q: &ShapeQuestion, look: &ShapeLook, runs: &BoxRuns) -> Vec<Note> {
    let mut out = vec![];
    whole_dough(q, look, &mut out);
    pieces(q, look, &mut out);
    before_balling(q, look, runs, &mut out);
    room(look, &mut out);
    let mut each = vec![];
    for b in look.boxes.iter().filter(|b| b.order.is_some()) {
        let mut own = vec![];
        of_box(q, look, b, &mut own);
        each.extend(own.into_iter().map(|note| (b.number, note)));
    }
    together(each, &mut out);
    apart(look, &mut out);
    by_urgency(out)
}

/// What holds of several boxes is said once, with the numbers of the others.
fn together(each: Vec<(u16, Note)>, out: &mut Vec<Note>) {
    let mut first: Vec<(Note, Vec<Value>)> = vec![];
    for (number, note) in each {
        match first.iter_mut().find(|(n, _)| {
            n.code == note.code && n.level == note.level && n.what.code == note.what.code
        }) {
            Some((_, others)) => others.push(Value::Count(i64::from(number))),
            None => first.push((note, vec![])),
        }
    }
    out.extend(first.into_iter().map(|(mut note, others)| {
        if !others.is_empty() {
            let so = fact!(
                "shape-so-are",
                n = others.len(),
                boxes = Value::List(others)
            );
            note.why = fact!(
                "shape-several-why",
                all = Value::Sentences(vec![note.why, so])
            );
        }
        note
    }));
}

/// What dough and boxes together make heavy, kg.
const HEAVY_KG: f64 = 20.0;

impl ShapeLook {
    /// What can hurt whoever divides this dough.
    pub fn hazards(&self) -> Vec<Fact> {
        let mut out = vec![fact!("hazard-scraper")];
        let kg = self.whole_g / 1000.0;
        if kg > HEAVY_KG {
            out.push(fact!("hazard-heavy-boxes", kg = Value::Kilos(whole(kg))));
        }
        out.push(fact!("hazard-raw-flour"));
        out
    }
}

fn whole_dough(q: &ShapeQuestion, look: &ShapeLook, out: &mut Vec<Note>) {
    let Some(d) = look.divided else { return };
    let decided = q.run.divided.is_some();
    if d.spread.change_percent < -SHORT_PERCENT && !decided {
        let what = fact!(
            "shape-short",
            percent = Percent(tenth(-d.spread.change_percent)),
            ball = Value::Grams(d.spread.ball_g)
        );
        out.push(Note::watch("short_dough", what, fact!("shape-short-why")).todo(choice(d.choice)));
    }
    let usual = q.loss.of_percent(look.put_g);
    let beyond = usual + LOSS_SDS * q.loss.sd_percent;
    if look.loss_percent > beyond && look.loss_percent > LOSS_HIGH_PERCENT {
        let what = fact!(
            "shape-loss-high",
            percent = Percent(tenth(look.loss_percent))
        );
        let why = fact!("shape-loss-high-why", usual = Percent(tenth(usual)));
        out.push(Note::watch("loss_high", what, why).todo(fact!("shape-loss-high-todo")));
    }
}

/// What is proposed for a dough that is not as heavy as planned.
fn choice(choice: DivideChoice) -> Fact {
    match choice {
        DivideChoice::Spread => fact!("divide-spread"),
        DivideChoice::OneSmaller => fact!("divide-one-smaller"),
        DivideChoice::SpreadFewer => fact!("divide-spread-fewer"),
        DivideChoice::KeepAndBread => fact!("divide-keep-and-bread"),
        DivideChoice::OneMore => fact!("divide-one-more"),
        DivideChoice::OneSmallerMore => fact!("divide-one-smaller-more"),
    }
}

fn pieces(q: &ShapeQuestion, look: &ShapeLook, out: &mut Vec<Note>) {
    let Some(t) = &look.tally else { return };
    let uneven = 100.0 * t.sd_without_scale_g / look.ball_g > UNEVEN_PERCENT;
    if uneven && t.marked.len() > 1 {
        let numbers: Vec<Value> = t
            .marked
            .iter()
            .map(|i| Value::Count(*i as i64 + 1))
            .collect();
        let what = fact!("shape-uneven", n = t.marked.len());
        let why = fact!("shape-uneven-why", balls = Value::List(numbers));
        out.push(Note::watch("pieces_uneven", what, why).todo(fact!("shape-uneven-todo")));
    }
    if t.next_g.is_some_and(|g| g < NOTHING_LEFT * look.ball_g) {
        let what = fact!(
            "shape-nothing-left",
            n = look.count.saturating_sub(q.run.pieces.len() as u32)
        );
        let note = Note::watch("last_ones", what, fact!("shape-nothing-left-why"));
        out.push(note.todo(fact!("shape-nothing-left-todo")));
    } else if let (Some(g), Some(drift)) = (t.next_g, t.next_change_percent)
        && drift.abs() > DRIFT_PERCENT
    {
        let what = fact!("shape-last-ones", g = Value::Grams(whole(g)));
        let why = fact!(
            "shape-last-ones-why",
            ball = Value::Grams(whole(look.ball_g))
        );
        out.push(Note::watch("last_ones", what, why).todo(fact!("shape-last-ones-todo")));
    }
    if t.does_not_sum {
        let what = fact!("shape-does-not-sum", g = Value::Grams(whole(t.left_g)));
        let why = fact!("shape-does-not-sum-why");
        out.push(Note::watch("does_not_sum", what, why));
    }
}

/// A dough that is warm or wet is balled when it is cold.
fn before_balling(q: &ShapeQuestion, look: &ShapeLook, runs: &BoxRuns, out: &mut Vec<Note>) {
    let begun = !q.run.pieces.is_empty();
    let first = look.boxes.first();
    let Some(b) = first.filter(|b| !begun && b.balled_at >= q.ahead.now) else {
        return;
    };
    let Some(p) = q.ahead.planned.clocks_at(b.balled_at) else {
        return;
    };
    let warm = p.dough_c > TOO_WARM_C;
    if look.boxed.is_some() && (warm || runs.is_sticky(q.ahead.request.serve_at, TOO_WET)) {
        let what = match warm {
            true => fact!("shape-too-warm", c = Celsius(whole(p.dough_c))),
            false => fact!("shape-too-wet"),
        };
        let why = fact!("shape-ball-it-cold-why");
        out.push(Note::watch("ball_it_cold", what, why).todo(fact!("shape-ball-it-cold-todo")));
    }
}

fn room(look: &ShapeLook, out: &mut Vec<Note>) {
    let Some((kind, grid)) = &look.boxed else {
        return;
    };
    if grid.risen_cm > grid.pitch_cm {
        let what = fact!("shape-crowded", wide = Cm(whole(grid.risen_cm)));
        let why = fact!("shape-crowded-why", pitch = Cm(whole(grid.pitch_cm)));
        out.push(Note::watch("box_crowded", what, why).todo(fact!("shape-crowded-todo")));
    }
    if grid.height_cm + 1.0 > kind.height_cm {
        let what = fact!("shape-low", high = Cm(tenth(grid.height_cm)));
        let why = fact!("shape-low-why", inside = Cm(tenth(kind.height_cm)));
        out.push(Note::act("box_low", what, why).todo(fact!("shape-low-todo")));
    }
}

fn of_box(q: &ShapeQuestion, look: &ShapeLook, b: &BoxLook, out: &mut Vec<Note>) {
    let now = q.ahead.now;
    let n = b.number;
    let min_to_use = 60.0 * h_between(now, b.use_at);
    if let Some(o) = b.out.filter(|_| look.worth_it) {
        let rise = whole(100.0 * b.at_use.rise);
        match o.state {
            OutState::Late => out.push(
                Note::watch(
                    "box_late",
                    fact!("shape-box-late", n = n, rise = rise),
                    fact!("shape-box-late-why", at = b.use_at),
                )
                .todo(fact!("shape-box-late-todo")),
            ),
            OutState::RipeEarly | OutState::NoTime => out.push(
                Note::watch(
                    "box_early",
                    fact!("shape-box-early", n = n, rise = rise),
                    fact!("shape-box-early-why", at = b.use_at),
                )
                .todo(fact!("shape-box-early-todo")),
            ),
            OutState::Ok => {}
        }
    }
    if b.made == 0 {
        return;
    }
    if let Some(o) = b.back {
        let rise = whole(100.0 * b.at_use.rise);
        let what = fact!("shape-box-warm", n = n, rise = rise);
        let why = fact!("shape-box-warm-why", at = b.use_at);
        let todo = fact!("shape-box-warm-todo", at = o.at);
        out.push(Note::watch("box_early", what, why).todo(todo));
    } else if let Some(at) = b
        .closes_at
        .filter(|t| *t < b.use_at && *t > now && !b.is_cold)
    {
        let what = fact!("shape-box-past", n = n);
        let why = fact!("shape-box-past-why", at = at, used = b.use_at);
        out.push(Note::act("box_early", what, why).todo(fact!("shape-box-past-todo")));
    }
    let again = q.run.boxes.get(&n).and_then(|t| t.reballed.last());
    if let (Some(_), Some(care)) = (again, b.opens.from.with_care)
        && care > b.use_at
    {
        let what = fact!("shape-reball-late", n = n, at = care);
        let why = fact!("shape-reball-late-why", at = b.use_at);
        out.push(Note::act("reball_late", what, why).todo(fact!("shape-reball-late-todo")));
    } else if b.opens.from.with_care.is_none_or(|t| t > b.use_at) && look.boxed.is_some() {
        let what = fact!("shape-tight", n = n, at = b.use_at);
        let why = match b.opens.from.with_care {
            Some(t) => fact!("shape-tight-why", at = t),
            None => fact!("shape-tight-never-why"),
        };
        out.push(Note::act("tight", what, why).todo(fact!("shape-tight-todo")));
    }
    if q.run.boxes.get(&n).is_some_and(|t| t.reballed.len() > 1) {
        let (what, why) = (
            fact!("shape-reball-twice", n = n),
            fact!("shape-reball-twice-why"),
        );
        out.push(Note::watch("reball_twice", what, why).todo(fact!("shape-reball-twice-todo")));
    }
    let flows = b.opens.pressed.is_some_and(|(_, s)| s == PressSign::Flows);
    if flows || (b.opens.expected == PressSign::Flows && min_to_use < 120.0) {
        let what = fact!("shape-flows", n = n);
        let why = match flows {
            true => fact!("shape-flows-seen"),
            false => fact!("shape-flows-likely"),
        };
        out.push(Note::watch("flows", what, why).todo(fact!("shape-flows-todo")));
    }
    if q.run.boxes.get(&n).is_some_and(|t| t.skin.is_some()) {
        let (what, why) = (fact!("shape-skin", n = n), fact!("shape-skin-why"));
        out.push(Note::watch("skin", what, why).todo(fact!("shape-skin-todo")));
    }
    if b.at_use.dough_c < OPENS_C && min_to_use < SOON_MIN && !b.is_cold {
        let c = Celsius(whole(b.at_use.dough_c));
        let what = fact!("shape-cold-ball", n = n, c = c);
        let todo = match warms_in(b.at_use.dough_c, b.at_use.place_c, look.ball_g) {
            Some(min) => fact!("shape-cold-ball-todo", time = Minutes(min)),
            None => fact!("shape-cold-ball-todo-elsewhere"),
        };
        let why = fact!("shape-cold-ball-why", c = Celsius(OPENS_C));
        out.push(Note::watch("cold_ball", what, why).todo(todo));
    }
}

/// Minutes until a ball in its box is warm enough to open, to five; none where the place is too cold for that.
fn warms_in(dough_c: f64, place_c: f64, ball_g: f64) -> Option<f64> {
    let tau = tau_h(Container::Box, Air::Room, ball_g);
    let min = 60.0 * tau * ((place_c - dough_c) / (place_c - OPENS_C)).ln();
    (place_c > OPENS_C).then(|| (5.0 * (min / 5.0).ceil()).max(5.0))
}

fn apart(look: &ShapeLook, out: &mut Vec<Note>) {
    let used = look.boxes.iter().filter(|b| b.order.is_some());
    let all: Vec<f64> = used.map(|b| b.at_use.rise).collect();
    let (low, high) = all
        .iter()
        .fold((f64::MAX, f64::MIN), |(l, h), r| (l.min(*r), h.max(*r)));
    if all.len() > 1 && high - low > APART {
        let what = fact!(
            "shape-apart",
            low = whole(100.0 * low),
            high = whole(100.0 * high)
        );
        let todo = fact!("shape-apart-todo");
        out.push(Note::watch("boxes_apart", what, fact!("shape-apart-why")).todo(todo));
    }
}
