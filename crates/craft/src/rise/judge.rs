//! Judgements of a rise: is there a window, how will it handle, what to mind about the yeast.

use super::answer::{NoYeast, RiseResult, YeastWarning};
use super::ripeness::{Handling, Label};
use crate::fact;
use crate::fact::{Hours, tenth, whole};
use crate::note::{Note, by_urgency};

/// Notes of a forecast.
pub(super) fn of_forecast(f: &RiseResult) -> Vec<Note> {
    let mut notes: Vec<Note> = f.handling.iter().map(|h| of_handling(*h, f)).collect();
    let whole = (100.0 * f.at_bake.ripeness).round();
    notes.push(match (f.at_bake.label, &f.window) {
        (_, None) => Note::act(
            "no_window",
            fact!("no-window-at-all"),
            fact!("no-window-at-all-why"),
        )
        .todo(fact!("no-window-at-all-todo")),
        (Label::Ready | Label::Peak, _) => Note::holds(
            "ready",
            fact!("rise-at-end", rise = whole),
            fact!("rise-at-end-why"),
        ),
        (Label::Young, Some(w)) => Note::watch(
            "young",
            fact!("rise-too-early", rise = whole),
            fact!("rise-too-early-why", hours = Hours(tenth(w.from_h))),
        )
        .todo(fact!("rise-too-early-todo")),
        (Label::Fading | Label::Over, _) => {
            Note::act("past", fact!("past-at-end"), fact!("past-at-end-why"))
                .todo(fact!("past-at-end-todo"))
        }
    });
    by_urgency(notes)
}

fn of_handling(h: Handling, f: &RiseResult) -> Note {
    match h {
        Handling::Elastic => {
            Note::watch("elastic", fact!("springs-back"), fact!("springs-back-why"))
                .todo(fact!("springs-back-todo"))
        }
        Handling::Slack => Note::watch(
            "slack",
            fact!("slack"),
            fact!(
                "strength-left",
                strength = fact::whole((100.0 * f.at_bake.reserve).max(0.0))
            ),
        )
        .todo(fact!("slack-todo")),
        Handling::Sticky => {
            Note::watch("sticky", fact!("sticky"), fact!("sticky-why")).todo(fact!("sticky-todo"))
        }
        Handling::Fragile => Note::watch("fragile", fact!("fragile"), fact!("fragile-why"))
            .todo(fact!("fragile-todo")),
        Handling::PaleCrust => {
            Note::watch("pale_crust", fact!("pale-crust"), fact!("pale-crust-why"))
                .todo(fact!("pale-crust-todo"))
        }
        Handling::WarmCore => Note::watch(
            "warm_core",
            fact!("warm-core"),
            fact!("warm-core-why", times = tenth(f.core_ratio)),
        )
        .todo(fact!("warm-core-todo")),
        Handling::Balanced => {
            Note::holds("balanced", fact!("handles-well"), fact!("handles-well-why"))
        }
    }
}

/// Notes of a dose that was found.
pub(super) fn of_warnings(warnings: &[YeastWarning]) -> Vec<Note> {
    warnings
        .iter()
        .map(|w| match w {
            YeastWarning::TooShortToRelaxOrMature => Note::act(
                "too_short_to_relax",
                fact!("too-short"),
                fact!("too-short-why"),
            )
            .todo(fact!("too-short-todo")),
            YeastWarning::FlourTooWeakForTheHours => Note::act(
                "flour_too_weak",
                fact!("flour-too-weak-for-it"),
                fact!("flour-too-weak-for-it-why"),
            )
            .todo(fact!("flour-too-weak-for-it-todo")),
            YeastWarning::DoseTooSmallToWeigh => {
                Note::watch("dose_tiny", fact!("dose-tiny"), fact!("dose-tiny-why"))
                    .todo(fact!("dose-tiny-todo"))
            }
        })
        .collect()
}

/// Why no length of a stage can be given.
pub(super) fn of_no_length(best: f64, hours: f64) -> Note {
    Note::act(
        "no_length",
        fact!("no-length"),
        fact!(
            "no-length-why",
            rise = whole(100.0 * best),
            hours = Hours(tenth(hours))
        ),
    )
    .todo(fact!("no-length-todo"))
}

/// Why no dose can be given.
pub(super) fn of_none(reason: NoYeast, ripeness_at_limit: f64) -> Vec<Note> {
    let at = (100.0 * ripeness_at_limit).round();
    vec![match reason {
        NoYeast::RipeWithoutAddedYeast => Note::act(
            "ripe_without_added_yeast",
            fact!("ripe-alone"),
            fact!("ripe-alone-why", rise = whole(at)),
        )
        .todo(fact!("ripe-alone-todo")),
        NoYeast::CannotReachEvenAtMax => Note::act(
            "cannot_reach_even_at_max",
            fact!("no-yeast"),
            fact!("no-yeast-why", rise = whole(at)),
        )
        .todo(fact!("no-yeast-todo")),
    }]
}
