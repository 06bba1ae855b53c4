//! Judgements of a whole sheet: does the serve time fit, does the flour last, what is unusual.

use super::life::{Life, Span, Why, words};
use super::raise;
use super::{PlannedStep, SheetRequest, SheetResult, StepKind};
use crate::fact;
use crate::fact::{Value, half, whole};
use crate::note::Note;
use crate::rise::recipe::Recipe;
use crate::rise::ripeness::{BAKES_WELL, SLACK};
use crate::rise::{RipenessPart, RiseRequest, RiseResult};
use crate::style::topping;
use crate::when::quarter;
use jiff::tz::TimeZone;

/// A dough of so few hours in the room does not use up a flour of this strength.
const SHORT_H: f64 = 10.0;
const STRONG_W: f64 = 300.0;
/// The night of a kitchen that says nothing of its hours: 22:00 to 06:00.
const NIGHT: Span = Span {
    days: [true; 7],
    from_min: 22 * 60,
    to_min: 6 * 60,
};

pub(super) fn notes(
    r: &SheetRequest,
    out: &SheetResult,
    dough: &RiseRequest,
    rise: &RiseResult,
    zone: &TimeZone,
) -> Vec<Note> {
    let mut notes = Vec::new();
    notes.extend(window(r, out, rise, zone));
    notes.extend(flour(r, dough, rise, zone));
    notes.extend(handling(rise));
    notes.extend(hours_away(r, &out.steps, zone));
    notes
}

/// Notes of the plan that a dough under way has no use for: what they say is judged anew, or lies in the bowl.
const JUDGED: [&str; 14] = [
    "spread",
    "serve_fits",
    "serve_misses",
    "no_window",
    "too_short_to_relax",
    "flour_lasts",
    "flour_weak",
    "flour_too_weak",
    "flour_too_strong",
    "warm_core",
    "pale_crust",
    "fragile",
    "step_at_night",
    "preferment_ripeness",
];
/// What else concerns a dough's hours: its preferments, how it goes, how sure that is.
const OF_HOURS: [&str; 4] = ["raised_alone", "as_it_goes", "fridge_doubt", "fridge_warm"];

/// Whether a judgement of a sheet concerns its hours, by its code.
pub fn is_of_hours(code: &str) -> bool {
    JUDGED.contains(&code) || OF_HOURS.contains(&code)
}

/// Judgements of a dough as it goes: of the forecast, and of what is still to do. `out` holds the forecast, `open` the steps
/// that are not done.
pub(super) fn as_it_goes(
    r: &SheetRequest,
    out: &SheetResult,
    (dough, rise): (&RiseRequest, &RiseResult),
    open: &[PlannedStep],
    in_bowl: bool,
) -> Vec<Note> {
    let zone = r.zone().unwrap_or(TimeZone::UTC);
    let mut notes = Vec::new();
    notes.extend(flour(r, dough, rise, &zone));
    notes.extend(handling(rise));
    notes.extend(hours_away(r, open, &zone));
    if in_bowl {
        notes.extend(topping::notes(&r.formula.toppings, r.programme().out_s));
    } else {
        let kept = |n: &&Note| !JUDGED.contains(&n.code.as_str());
        notes.extend(out.notes.iter().filter(kept).cloned());
        // As they went, or go on.
        let preferments = r.formula.preferments.iter().zip(&out.preferments);
        notes.extend(preferments.filter_map(|(p, plan)| {
            let (note, past) = raise::ripeness(p, plan)?;
            Some(note.todo(if past {
                fact!("preferment-past-todo")
            } else {
                fact!("preferment-young-todo")
            }))
        }));
    }
    notes
}

fn window(
    r: &SheetRequest,
    out: &SheetResult,
    rise: &RiseResult,
    _zone: &TimeZone,
) -> Option<Note> {
    let serve = r.serve_at;
    let Some(w) = out.window else {
        return Some(
            Note::act("no_window", fact!("no-window"), fact!("no-window-why"))
                .todo(fact!("no-window-todo")),
        );
    };
    let until = w.to_at.map_or(fact!("half-a-day-later").into(), |t| {
        Value::Instant(quarter(t))
    });
    if out.fits(r.serve_at) && rise.at_bake.ripeness > BAKES_WELL {
        return Some(
            Note::watch(
                "serve_fits",
                fact!("serve-fits-riper", at = serve),
                fact!(
                    "serve-fits-riper-why",
                    rise = whole(out.rise_at_serve),
                    from = quarter(w.from_at),
                    until = until
                ),
            )
            .todo(fact!("serve-fits-riper-todo")),
        );
    }
    if out.fits(r.serve_at) {
        return Some(Note::holds(
            "serve_fits",
            fact!("serve-fits", at = serve),
            fact!("ready-from-until", from = quarter(w.from_at), until = until),
        ));
    }
    if rise.at_bake.limiting == RipenessPart::Mature {
        return Some(
            Note::act(
                "too_short_to_relax",
                fact!("not-relaxed", at = serve),
                fact!("not-relaxed-why", from = quarter(w.from_at)),
            )
            .todo(fact!("not-relaxed-todo")),
        );
    }
    Some(
        Note::act(
            "serve_misses",
            fact!("serve-misses", at = serve),
            fact!("ready-from-until", from = quarter(w.from_at), until = until),
        )
        .todo(fact!("serve-misses-todo")),
    )
}

/// Hours after mixing at which the gluten reserve reaches 0, if before the serve time.
fn spent_h(rise: &RiseResult) -> Option<f64> {
    rise.points
        .iter()
        .find(|p| p.reserve <= 0.0)
        .map(|p| p.hours)
}

fn flour(
    r: &SheetRequest,
    dough: &RiseRequest,
    rise: &RiseResult,
    _zone: &TimeZone,
) -> Option<Note> {
    let reserve = rise.at_bake.reserve;
    if let Some(note) = too_strong(dough, rise, r) {
        return Some(note);
    }
    if reserve >= SLACK {
        return Some(Note::holds(
            "flour_lasts",
            fact!(
                "flour-lasts",
                w = dough.flour_w.round(),
                time = fact::hours(fact::spoken_h(r.total_h()))
            ),
            fact!("flour-lasts-why", strength = whole(100.0 * reserve)),
        ));
    }
    let recipe = Recipe::of(dough);
    let folds = r.formula.path().iter().map(|l| l.folds_that_fit()).sum();
    let needed = (recipe.w_needed(rise.at_bake.matured_h, SLACK, folds) / 10.0).ceil() * 10.0;
    let what = fact!(
        "flour-weak",
        w = dough.flour_w.round(),
        time = fact::hours(fact::spoken_h(r.total_h()))
    );
    let why = match spent_h(rise) {
        Some(h) => fact!(
            "flour-spent",
            time = fact::hours(half(h)),
            at = quarter(r.mixed_at() + super::hours(h))
        ),
        None => fact!("flour-slack", strength = whole(100.0 * reserve)),
    };
    let note = if reserve < 0.0 {
        Note::act("flour_too_weak", what, why)
    } else {
        Note::watch("flour_weak", what, why)
    };
    Some(if needed <= 450.0 && r.formula.flours.len() == 1 {
        note.remedy(fact!("take-w", w = needed), "flours[0].facts.w", needed)
    } else if needed <= 450.0 {
        note.todo(fact!("bring-blend-to-w", w = needed))
    } else {
        note.todo(fact!("no-flour-lasts"))
    })
}

/// Much more gluten than the hours use: the dough stays tight.
fn too_strong(dough: &RiseRequest, rise: &RiseResult, r: &SheetRequest) -> Option<Note> {
    let short = r.total_h() <= SHORT_H && r.formula.path().iter().all(|l| !l.spot.is_cold());
    (short && dough.flour_w >= STRONG_W && rise.at_bake.reserve > 0.75).then(|| {
        Note::watch(
            "flour_too_strong",
            fact!(
                "flour-strong",
                w = dough.flour_w.round(),
                time = fact::hours(fact::spoken_h(r.total_h()))
            ),
            fact!("flour-strong-why"),
        )
        .todo(fact!("flour-strong-todo"))
    })
}

fn handling(rise: &RiseResult) -> Vec<Note> {
    // What the rise itself says of its handling; the rest is judged with the formula's own figures.
    let of_rise = ["warm_core", "pale_crust", "fragile"];
    rise.notes
        .iter()
        .filter(|n| of_rise.contains(&n.code.as_str()))
        .cloned()
        .collect()
}

/// The first step that needs hands when nobody has any.
fn hours_away(r: &SheetRequest, steps: &[PlannedStep], zone: &TimeZone) -> Option<Note> {
    let night = Life {
        quiet: vec![NIGHT],
        busy: vec![],
    };
    let life = if r.life.is_empty() { &night } else { &r.life };
    let needs_hands = |s: &&PlannedStep| !matches!(s.kind, StepKind::Rest | StepKind::Bulk);
    let away: Vec<_> = steps
        .iter()
        .filter(needs_hands)
        .filter_map(|s| Some((s, life.away(s.at, zone)?)))
        .collect();
    let (step, (why, span)) = away.first()?;
    let more = match away.len() {
        1 => None,
        n => Some(fact!("and-more", n = n - 1)),
    };
    let span = words(std::slice::from_ref(*span));
    Some(
        Note::watch(
            "step_at_night",
            fact!(
                "step-away",
                step = step.title.clone(),
                at = step.at,
                more = more
            ),
            match why {
                _ if r.life.is_empty() => fact!("away-night"),
                Why::Quiet => fact!("away-quiet", span = span),
                Why::Busy => fact!("away-busy", span = span),
            },
        )
        .todo(fact!("away-todo")),
    )
}
