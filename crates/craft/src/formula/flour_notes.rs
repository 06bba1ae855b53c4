//! What is said of the flour: how sure its strength is, how much water it carries, how it opens.
//!
//! Source: craft notes, section 1. Water: a flour that takes up less feels wetter at the same percentage (soft fine at 66 %
//! feels like 70 % of a hard bread flour); where the mill's absorption is known, the water is judged as it feels on a flour of
//! [`TAKES_UP`]. P/L: 0.4 to 0.8 opens well; above it a dough springs back, below it runs. Neither changes the rise.

use super::formula::{Formula, HydrationCounts};
use super::weigh::FormulaResult;
use crate::fact;
use crate::fact::{Percent, tenth, whole};
use crate::flour::Blend;
use crate::note::Note;

/// What a flour takes up by the mill's test where nothing is known of it, % (between soft and hard wheat).
pub const TAKES_UP: f64 = 58.0;
/// Less than this between both is not said, points.
const SAID_FROM: f64 = 1.0;
/// A dough that feels so much below the style's usual water is stiff, points.
const STIFF: f64 = 2.0;
/// P/L that opens well.
const OPENS_WELL: (f64, f64) = (0.4, 0.8);

/// The water as it feels: what it would be in a flour that takes up [`TAKES_UP`], %.
pub fn felt_percent(hydration_percent: f64, blend: &Blend) -> f64 {
    hydration_percent + blend.absorption_percent.map_or(0.0, |a| TAKES_UP - a)
}

pub(super) fn notes(f: &Formula, r: &FormulaResult, out: &mut Vec<Note>) {
    let Some(b) = r.blend else { return };
    if b.w_spread >= 15.0 {
        out.push(
            Note::watch(
                "strength_guessed",
                fact!("w-guess", w = whole(b.w), spread = whole(b.w_spread)),
                fact!("w-guess-why"),
            )
            .todo(fact!("w-guess-todo")),
        );
    }
    let h = r.true_hydration_percent;
    let oil_as_water = f.oil_percent >= 2.0
        && h > f.style.usual.hydration.high
        && f.style
            .usual
            .hydration
            .holds(f.hydration_percent - f.oil_percent);
    if oil_as_water {
        let set = f.hydration_percent - f.oil_percent;
        out.push(
            Note::watch(
                "oil_as_water",
                fact!("oil-as-water", oil = Percent(f.oil_percent)),
                fact!(
                    "oil-as-water-why",
                    water = Percent(f.hydration_percent),
                    usual = Percent(set)
                ),
            )
            .remedy(
                fact!("set-percent", share = Percent(set)),
                "hydration_percent",
                set,
            ),
        );
    }
    let felt = felt_percent(h, &b);
    // "66 %", or "66 %, which feels like 70 %,".
    let feels = b
        .absorption_percent
        .filter(|_| (felt - h).abs() >= SAID_FROM);
    let because = feels.map(|a| {
        fact!(
            "takes-up",
            takes = Percent(tenth(a)),
            feels = Percent(tenth(felt))
        )
    });
    let usual = f.style.usual.hydration;
    if felt > b.carries_percent {
        let set = (f.hydration_percent - (felt - b.carries_percent)).floor();
        let note = Note::watch(
            "wetter_than_flour",
            fact!("wet-for-w", water = Percent(tenth(h)), w = whole(b.w)),
            fact!(
                "wet-for-w-why",
                carries = Percent(whole(b.carries_percent)),
                because = because.clone()
            ),
        );
        out.push(if set >= 50.0 {
            note.remedy(
                fact!("set-percent", share = Percent(whole(set))),
                "hydration_percent",
                set,
            )
        } else {
            note
        });
    } else if feels.is_some() && felt < usual.low - STIFF && usual.holds(f.hydration_percent) {
        let set = (f.hydration_percent + usual.low - felt).ceil();
        out.push(
            Note::watch(
                "stiff_for_flour",
                fact!("stiff-for-flour", water = Percent(tenth(h))),
                fact!(
                    "stiff-for-flour-why",
                    usual = (Percent(tenth(usual.low)), Percent(tenth(usual.high))),
                    because = because.clone()
                ),
            )
            .remedy(
                fact!("set-percent", share = Percent(whole(set))),
                "hydration_percent",
                set,
            ),
        );
    } else if !oil_as_water && usual.holds(f.hydration_percent) {
        out.push(Note::holds(
            "water_suits",
            fact!("water-suits", water = Percent(tenth(h))),
            if b.whole_percent >= 5.0 {
                fact!(
                    "water-suits-whole",
                    w = whole(b.w),
                    carries = Percent(whole(b.carries_percent)),
                    because = because.clone()
                )
            } else {
                fact!(
                    "water-suits-why",
                    w = whole(b.w),
                    carries = Percent(whole(b.carries_percent)),
                    because = because.clone()
                )
            },
        ));
    }
    let gap = r.true_hydration_percent - r.nominal_hydration_percent;
    if gap.abs() >= 1.0 && f.hydration_counts == HydrationCounts::Nominal {
        out.push(Note::holds(
            "true_hydration",
            fact!(
                "true-hydration",
                stated = Percent(f.hydration_percent),
                real = Percent(tenth(r.true_hydration_percent))
            ),
            fact!("true-hydration-why"),
        ));
    }
    opens(&b, out);
}

/// How the dough will open, where the mill says P/L of every flour.
fn opens(b: &Blend, out: &mut Vec<Note>) {
    let Some(pl) = b.pl else { return };
    let said = (pl * 100.0).round() / 100.0;
    if pl > OPENS_WELL.1 {
        out.push(
            Note::watch(
                "opens_tight",
                fact!("opens-tight", pl = said),
                fact!("opens-tight-why"),
            )
            .todo(fact!("opens-tight-todo")),
        );
    } else if pl < OPENS_WELL.0 {
        out.push(
            Note::watch(
                "opens_slack",
                fact!("opens-slack", pl = said),
                fact!("opens-slack-why"),
            )
            .todo(fact!("opens-slack-todo")),
        );
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::flour::FlourFacts;
    use crate::formula::{FormulaRequest, Scales, formulate};

    fn codes(h: f64, absorption: Option<f64>, pl: Option<f64>) -> Vec<String> {
        let mut f = Formula::of_style(crate::style::first());
        f.hydration_percent = h;
        f.flours[0].facts = FlourFacts {
            absorption_percent: absorption,
            pl,
            ..FlourFacts::of_w(300.0)
        };
        let r = formulate(&FormulaRequest {
            formula: f,
            scales: Scales::default(),
            doses: None,
        });
        r.unwrap().notes.into_iter().map(|n| n.code).collect()
    }

    #[test]
    fn water_is_judged_as_it_feels_on_that_flour() {
        let usual = crate::style::first().usual.hydration;
        let has = |all: &[String], code: &str| all.iter().any(|c| c == code);
        let h = usual.high;
        assert!(!has(&codes(h, None, None), "wetter_than_flour"));
        assert!(!has(&codes(h, Some(TAKES_UP), None), "wetter_than_flour"));
        // A flour that takes up little is wet at the water that suits another.
        assert!(has(&codes(h, Some(44.0), None), "wetter_than_flour"));
        assert!(has(&codes(usual.low, Some(66.0), None), "stiff_for_flour"));
        assert!(!has(
            &codes(usual.high, Some(62.0), None),
            "stiff_for_flour"
        ));
    }

    #[test]
    fn a_remedy_for_the_water_settles_it() {
        let usual = crate::style::first().usual.hydration;
        let stiff = {
            let mut f = Formula::of_style(crate::style::first());
            f.hydration_percent = usual.low;
            f.flours[0].facts.absorption_percent = Some(66.0);
            f
        };
        let ask = |formula: &Formula| {
            formulate(&FormulaRequest {
                formula: formula.clone(),
                scales: Scales::default(),
                doses: None,
            })
            .unwrap()
        };
        let note = ask(&stiff)
            .notes
            .into_iter()
            .find(|n| n.code == "stiff_for_flour")
            .unwrap();
        let mut mended = stiff.clone();
        mended.hydration_percent = note.remedy.unwrap().value;
        assert!(
            ask(&mended)
                .notes
                .iter()
                .all(|n| n.code != "stiff_for_flour" && n.code != "wetter_than_flour")
        );
    }

    #[test]
    fn tenacity_says_how_it_opens() {
        let has = |pl: f64, code: &str| codes(64.0, None, Some(pl)).iter().any(|c| c == code);
        assert!(has(0.95, "opens_tight") && has(0.3, "opens_slack"));
        for pl in [0.4, 0.6, 0.8] {
            assert!(!has(pl, "opens_tight") && !has(pl, "opens_slack"), "{pl}");
        }
    }
}
