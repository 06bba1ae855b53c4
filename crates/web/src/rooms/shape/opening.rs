//! The press test and how a ball opens now, as Shape shows them.

use super::picture;
use super::words::when;
use crate::batch::record::BatchRecord;
use crate::shared::format::{hm, named};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{phrase, plain, say};
use craft::keyed::Keyed;
use craft::shape::{PressSign, flour_said};
use craft::sheet::ahead::{BoxLook, ShapeLook};

pub struct PressView {
    pub number: u16,
    pub seen: Vec<(&'static str, bool, String)>,
    pub open_core: String,
    pub open_rest: String,
    pub later: String,
    /// How long it bakes, where it is opened narrower than planned.
    pub bakes: String,
    pub picture: String,
    /// The same in true size; empty where there is none.
    pub true_size: String,
    pub flour: String,
    pub may: bool,
}

pub fn press(
    look: &ShapeLook,
    b: &BoxLook,
    here: &RequestKitchen,
    told: &BatchRecord,
) -> PressView {
    let o = &b.opens;
    let in_pans = look.boxed.is_none();
    let seen = PressSign::VARIANTS_AND_NEXT
        .iter()
        .map(|(sign, next)| {
            let last = o.pressed.filter(|(_, s)| s == sign);
            let small = last.map_or(phrase(next).to_string(), |(t, _)| {
                format!("{}, {}", hm(&here.local(t)), phrase(next))
            });
            (sign.key(), last.is_some(), small)
        })
        .collect();
    let p = told.batch.sheet.result.formula.main_portion();
    let disc_cm = p.map_or(30.0, |p| 2.0 * (p.area_cm2 / std::f64::consts::PI).sqrt());
    let (core, rest) = if b.balled_at > here.now {
        (phrase("shape-not-made-yet").to_string(), String::new())
    } else if in_pans {
        (named(&o.now.in_tray()), String::new())
    } else if o.opens_at(here.now) {
        let (core, or) = match o.too_cold {
            true => (phrase("shape-warm-it-first"), phrase("shape-else")),
            false => (phrase("begin-yes"), ":"),
        };
        (
            core.into(),
            format!("{or} {}", here.words(&o.now.fact(disc_cm))),
        )
    } else {
        let from = match (o.from.with_care, o.from.easily) {
            (Some(c), Some(e)) => say!(
                "shape-with-care-from-easily-from",
                c = when(c, here),
                e = when(e, here)
            ),
            (Some(c), None) => say!("shape-with-care-from", c = when(c, here)),
            _ => phrase("shape-and-not-within-twelve-hours").into(),
        };
        (phrase("batch-not-yet").into(), from)
    };
    let later = match in_pans {
        true => String::new(),
        false => format!(
            "{}: {}",
            when(b.use_at, here),
            here.words(&o.at_use.fact(disc_cm))
        ),
    };
    let length = |cm: f64| length(cm, here);
    let picture = look.boxed.as_ref().map(|(_, grid)| {
        let bare = |cm: f64| here.measures.length_field(cm.round());
        let words = [bare(grid.fresh_cm), bare(grid.risen_cm), length(disc_cm)];
        picture::ball_to_disc(
            grid.fresh_cm,
            grid.risen_cm,
            disc_cm,
            [&words[0], &words[1], &words[2]],
        )
    });
    let true_size = look.boxed.as_ref().map(|(_, grid)| {
        // Five centimetres, or two inches of a kitchen that reads those.
        let ruler = format!(
            "{} {}",
            here.measures.length_field(5.0),
            here.measures.length_unit()
        );
        picture::true_size(grid.fresh_cm, grid.risen_cm, disc_cm, &ruler)
    });
    let flour = look.flour.map_or(String::new(), |(relaxes, lasts)| {
        let all = flour_said(&relaxes, &lasts);
        // The first one begins the sentence.
        let word = |(i, f)| if i == 0 { here.say(f) } else { here.words(f) };
        let said: Vec<String> = all.iter().enumerate().map(word).collect();
        format!("{}.", said.join(", "))
    });
    PressView {
        number: b.number,
        seen,
        open_core: core,
        open_rest: rest,
        later,
        bakes: String::new(),
        picture: picture.unwrap_or_default(),
        true_size: true_size.unwrap_or_default(),
        flour,
        may: b.made > 0 && b.frozen_at.is_none() && !told.is_ended(),
    }
}

/// A narrower disc is thicker, and bakes otherwise.
pub fn bakes(planned_s: f64, so_s: f64) -> String {
    let (planned, so) = (oven_time(planned_s), oven_time(so_s));
    match so == planned {
        true => String::new(),
        false => say!("shape-so-wide-it-bakes-about", so = so, planned = planned),
    }
}

/// Seconds of a short bake, minutes of a long one.
fn oven_time(s: f64) -> String {
    match s {
        s if s < 180.0 => format!("{:.0} s", 5.0 * (s / 5.0).round()),
        s => say!("shape-min", s = format_half(s / 60.0)),
    }
}

fn format_half(min: f64) -> String {
    plain((2.0 * min).round() / 2.0)
}

/// What follows from each sign, in two words.
trait NextWords: Sized + 'static {
    const VARIANTS_AND_NEXT: [(Self, &'static str); 3];
}
impl NextWords for PressSign {
    const VARIANTS_AND_NEXT: [(PressSign, &'static str); 3] = [
        (PressSign::Springs, "shape-wait"),
        (PressSign::Holds, "shape-open-it"),
        (PressSign::Flows, "shape-press-only"),
    ];
}

/// A length in whole centimetres, or as the kitchen reads it.
pub fn length(cm: f64, here: &RequestKitchen) -> String {
    let m = here.measures;
    format!("{} {}", m.length_field(cm.round()), m.length_unit())
}
