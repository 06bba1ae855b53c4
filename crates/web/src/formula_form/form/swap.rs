//! Another flour instead: what of the pantry comes nearest.

use super::{Swap, WayView};
use crate::formula_form::{Bench, acts};
use crate::shared::form::{FormData, number};
use crate::shared::tongue::{decimal, phrase, say};
use craft::formula::Formula;

/// What was sought of another flour: the ways, or why there are none.
pub(super) fn sought(typed: &FormData, f: Option<&Formula>, bench: &Bench) -> Option<Swap> {
    let says = |says: &str| {
        Some(Swap {
            says: says.into(),
            ways: vec![],
        })
    };
    match (typed.text("swap.to"), f) {
        ("", _) => None,
        (_, None) => says(phrase("form-mend-the-fields-that-need")),
        (text, Some(_)) if number(text).is_err() => says(phrase("form-the-figure-to-reach-is")),
        (_, Some(f)) => swap(typed, f, bench),
    }
}

fn swap(typed: &FormData, f: &Formula, bench: &Bench) -> Option<Swap> {
    Some(match acts::swapping(typed, f, bench)? {
        Err(e) => Swap {
            says: e
                .0
                .first()
                .map_or(String::new(), |e| bench.here.say(&e.message)),
            ways: vec![],
        },
        Ok(s) => Swap {
            says: bench.here.say(&s.says),
            ways: s
                .ways
                .iter()
                .enumerate()
                .map(|(i, w)| WayView {
                    i,
                    what: w
                        .flours
                        .iter()
                        .map(|f| format!("{} {} %", f.name, decimal(f.share_percent, 1)))
                        .collect::<Vec<_>>()
                        .join(", "),
                    figures: format!(
                        "W {:.0}{}{}",
                        w.blend.w,
                        w.blend
                            .protein_percent
                            .map_or(String::new(), |p| say!("form-protein-3", p = decimal(p, 1))),
                        w.blend.absorption_percent.map_or(String::new(), |a| say!(
                            "form-absorption-3",
                            a = decimal(a, 1)
                        ))
                    ),
                    differs: w.differs.iter().map(|d| bench.here.say(d)).collect(),
                })
                .collect(),
        },
    })
}
