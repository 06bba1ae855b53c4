//! Judgements of a rise: is there a window, how will it handle, what to mind about the yeast.

use super::answer::{NoYeast, RiseResult, YeastWarning};
use super::ripeness::{Handling, Label};
use crate::note::{Note, by_urgency};

/// Notes of a forecast.
pub(super) fn of_forecast(f: &RiseResult) -> Vec<Note> {
    let mut notes: Vec<Note> = f.handling.iter().map(|h| of_handling(*h, f)).collect();
    let whole = (100.0 * f.at_bake.ripeness).round();
    notes.push(match (f.at_bake.label, &f.window) {
        (_, None) => Note::act(
            "no_window",
            "No hour at which this dough is ready and whole",
            "Its gluten is spent before the gas is there, or the gas never comes.",
        )
        .todo("Take a stronger flour, other hours, or another place."),
        (Label::Ready | Label::Peak, _) => Note::holds(
            "ready",
            format!("Rise clock at {whole:.0} at the end"),
            "Ready counts from 90; 100 is as intended.",
        ),
        (Label::Young, Some(w)) => Note::watch(
            "young",
            format!("Rise clock at {whole:.0} at the end: too early"),
            format!("It is ready from {:.1} h on.", w.from_h),
        )
        .todo("More hours, a warmer place or more yeast."),
        (Label::Fading | Label::Over, _) => Note::act(
            "past",
            "It is past its peak at the end",
            "Strong flavour, slack, less rise in the oven; many like it so.",
        )
        .todo("Bake soon, or ball again; next time fewer hours, a colder place or less yeast."),
    });
    by_urgency(notes)
}

fn of_handling(h: Handling, f: &RiseResult) -> Note {
    match h {
        Handling::Elastic => Note::watch(
            "elastic",
            "It will spring back",
            "It has not matured, or not relaxed since it was shaped.",
        )
        .todo("Rest it longer; do not force it."),
        Handling::Slack => Note::watch(
            "slack",
            "It will be slack",
            format!(
                "Gluten reserve {:.0} of 100.",
                (100.0 * f.at_bake.reserve).max(0.0)
            ),
        )
        .todo("Stronger flour, fewer hours or a colder place."),
        Handling::Sticky => Note::watch(
            "sticky",
            "It will stick",
            "Wet for this flour, sour, or its gluten nearly spent.",
        )
        .todo("Wet hands, a floured bench, gentle pressing."),
        Handling::Fragile => Note::watch(
            "fragile",
            "It will be fragile",
            "It is close to the volume at which its cells break.",
        )
        .todo("Handle it little; bake soon."),
        Handling::PaleCrust => Note::watch(
            "pale_crust",
            "It will brown slowly",
            "The yeast has eaten most of the sugar by then.",
        )
        .todo("Fewer hours, or a little malt or sugar."),
        Handling::WarmCore => Note::watch(
            "warm_core",
            "The middle of the dough runs ahead",
            format!(
                "Its core makes {:.1} times the gas of the mean: a large bulk stays warm inside.",
                f.core_ratio
            ),
        )
        .todo("Smaller tubs, or cool the dough before the fridge."),
        Handling::Balanced => Note::holds(
            "balanced",
            "It will handle well",
            "Neither tight nor slack, neither wet nor fragile.",
        ),
    }
}

/// Notes of a dose that was found.
pub(super) fn of_warnings(warnings: &[YeastWarning]) -> Vec<Note> {
    warnings
        .iter()
        .map(|w| match w {
            YeastWarning::TooShortToRelaxOrMature => Note::act(
                "too_short_to_relax",
                "Too short to relax",
                "Yeast can fill it by then, but time cannot be replaced.",
            )
            .todo("Give it more hours before the bake."),
            YeastWarning::FlourTooWeakForTheHours => Note::act(
                "flour_too_weak",
                "The flour is too weak for the hours",
                "Its gluten is spent by the end.",
            )
            .todo("Stronger flour, colder, shorter, or more salt."),
            YeastWarning::DoseTooSmallToWeigh => Note::watch(
                "dose_tiny",
                "A dose too small to weigh",
                "Under 0.01 % of the flour.",
            )
            .todo("Dilute it in water, or use a preferment."),
        })
        .collect()
}

/// Why no length of a stage can be given.
pub(super) fn of_no_length(best: f64, hours: f64) -> Note {
    Note::act(
        "no_length",
        "No length of this stage makes it ready",
        format!(
            "The rise clock comes to {:.0} of 100 at best, with {:.1} h of it.",
            100.0 * best,
            hours
        ),
    )
    .todo("More yeast, a warmer place, or another stage.")
}

/// Why no dose can be given.
pub(super) fn of_none(reason: NoYeast, ripeness_at_limit: f64) -> Vec<Note> {
    let at = (100.0 * ripeness_at_limit).round();
    vec![match reason {
        NoYeast::RipeWithoutAddedYeast => Note::act("ripe_without_added_yeast", "Ripe without added yeast", format!("The smallest dose already brings the rise clock to {at:.0}.")).todo("Shorten it or cool it."),
        NoYeast::CannotReachEvenAtMax => Note::act("cannot_reach_even_at_max", "No yeast amount makes this ready", format!("The rise clock reaches {at:.0} of 100: too short, too cold, or the sugar is spent before shaping.")).todo("More hours or a warmer place."),
    }]
}
