//! What the form of the first start says, read as far as it can be.

use super::leaves::Leaf;
use super::wrong;
use crate::shared::form::{FormData, number};
use crate::shared::tongue;
use crate::shared::tongue::{decimal, phrase, say};
use craft::begin::{BakesIn, Beginning, FridgeTold, ScalesTold};
use craft::keyed::Keyed;
use craft::mix::Mixer;
use craft::people::{check_name, check_password};
use craft::refusal::FieldError;
use craft::sheet::life::{Life, spans};
use jiff::tz::TimeZone;
use speech::Measures;

/// What was said, and how it is read.
pub struct BeginSaid {
    pub typed: FormData,
    pub us: bool,
    pub beginning: Beginning,
}

/// No dial goes lower or higher, °C.
const DIAL_C: (f64, f64) = (150.0, 550.0);
/// Between the taps of the dial.
pub const DIAL_STEP_C: f64 = 5.0;
const FRIDGE_C: (f64, f64) = (0.0, 12.0);

/// A clock hour as it is chosen: "23".
fn hour(typed: &FormData, name: &str) -> Option<u8> {
    typed.text(name).parse().ok().filter(|h| *h < 24)
}

/// The hours that were said; none while nothing was.
fn life(typed: &FormData) -> Option<Life> {
    if !typed.has("told_hours") {
        return None;
    }
    let span = |from: &str, to: &str, days: &str| {
        let (a, b) = (hour(typed, from)?, hour(typed, to)?);
        spans(&format!("{days}{a:02}:00-{b:02}:00")).ok()
    };
    let works = typed.text("works") == "yes";
    Some(Life {
        quiet: span("sleeps_from", "sleeps_to", "").unwrap_or_default(),
        busy: span("works_from", "works_to", "Mon-Fri ")
            .filter(|_| works)
            .unwrap_or_default(),
    })
}

impl BeginSaid {
    pub fn read(typed: &FormData) -> BeginSaid {
        let us = typed.text("units") == "us";
        // A dial says whole degrees of its own scale.
        let celsius = |name: &str| {
            let v = number(typed.text(name)).ok()?;
            Some(if us { (v - 32.0) / 1.8 } else { v })
        };
        let zone = typed.text("time_zone");
        let known = !zone.is_empty() && TimeZone::get(zone).is_ok();
        let likes = typed.fields_from("like.").collect::<Vec<_>>();
        let mut likes: Vec<String> = likes
            .iter()
            .filter_map(|k| k.strip_prefix("like."))
            .map(Into::into)
            .collect();
        // In the order in which the leaf shows them.
        let place = |k: &String| craft::style::all().iter().position(|s| s.key == *k);
        likes.retain(|k| place(k).is_some());
        likes.sort_by_key(place);
        let beginning = Beginning {
            time_zone: if known {
                zone.into()
            } else {
                "Europe/London".into()
            },
            bakes_in: BakesIn::from_key(typed.text("bakes_in")),
            most_c: celsius("most").map(|c| c.clamp(DIAL_C.0, DIAL_C.1)),
            floor_mm: number(typed.text("floor_mm"))
                .ok()
                .filter(|mm| (1.0..=60.0).contains(mm)),
            grill: match typed.text("grill") {
                "yes" => Some(true),
                "no" => Some(false),
                _ => None,
            },
            scales: ScalesTold::from_key(typed.text("scales")),
            mixer: Mixer::from_key(typed.text("mixer")),
            fridge: match (typed.text("fridge"), celsius("fridge_c")) {
                ("measured", Some(c)) => {
                    Some(FridgeTold::Measured(c.clamp(FRIDGE_C.0, FRIDGE_C.1)))
                }
                ("measured" | "guessed", _) => Some(FridgeTold::Guessed),
                _ => None,
            },
            boxes: match typed.text("boxes") {
                "yes" => Some(true),
                "no" => Some(false),
                _ => None,
            },
            life: life(typed),
            likes,
        };
        BeginSaid {
            typed: typed.clone(),
            us,
            beginning,
        }
    }
    pub fn measures(&self) -> Measures {
        let units = match self.us {
            true => Measures::US,
            false => Measures::METRIC,
        };
        Measures {
            language: tongue::language(),
            ..units
        }
    }
    /// What the oven is called until its owner calls it otherwise.
    pub fn oven_name(&self) -> &'static str {
        match self.beginning.bakes_in() {
            BakesIn::HomeTray => phrase("begin-home-oven-tray"),
            BakesIn::HomeSteel => phrase("begin-home-oven-steel"),
            BakesIn::HomeStone => phrase("begin-home-oven-stone"),
            BakesIn::Portable => phrase("begin-portable-oven"),
            BakesIn::Dome => phrase("begin-fired-dome"),
            BakesIn::Deck => phrase("begin-deck-oven"),
        }
    }
}

/// What is wrong on a leaf, so that the next one can wait for it.
pub fn wrong_on(typed: &FormData, leaf: Leaf, needs_password: bool) -> Vec<FieldError> {
    let us = typed.text("units") == "us";
    let mut out = vec![];
    match leaf {
        Leaf::You => {
            let name = typed.text("name");
            if (needs_password || !name.is_empty())
                && let Err(e) = check_name(name)
            {
                out.extend(e.0);
            }
            if needs_password && let Err(e) = check_password(typed.raw("password"), name) {
                out.extend(e.0);
            }
        }
        Leaf::BakesIn => {
            let (low, high) = match us {
                true => (300.0, 1020.0),
                false => DIAL_C,
            };
            let typed = typed.text("most");
            let there = !typed.is_empty();
            if there && !number(typed).is_ok_and(|v| (low..=high).contains(&v)) {
                out.push(wrong(
                    "most",
                    &say!(
                        "begin-an-oven-reaches-to",
                        low = decimal(low, 0),
                        high = decimal(high, 0)
                    ),
                ));
            }
        }
        Leaf::Has => {
            let (low, high) = if us { (32.0, 54.0) } else { FRIDGE_C };
            let c = typed.text("fridge_c");
            let measured = typed.text("fridge") == "measured";
            if measured && !number(c).is_ok_and(|v| (low..=high).contains(&v)) {
                out.push(wrong(
                    "fridge_c",
                    &say!(
                        "begin-a-fridge-stands-at-to",
                        low = decimal(low, 0),
                        high = decimal(high, 0)
                    ),
                ));
            }
        }
        Leaf::Hours | Leaf::Likes | Leaf::Plan => {}
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_was_said_is_read_in_its_own_units_and_nonsense_is_a_guess() {
        let said = |pairs: &[(&str, &str)]| {
            let mut f = FormData::default();
            for (k, v) in pairs {
                f.set(k, *v);
            }
            BeginSaid::read(&f)
        };
        let us = said(&[("units", "us"), ("most", "525"), ("bakes_in", "home_steel")]);
        assert!((us.beginning.most_c.unwrap() - 273.9).abs() < 0.1);
        let odd = said(&[
            ("time_zone", "Nowhere/At all"),
            ("most", "hot"),
            ("bakes_in", "x"),
            ("like.square", "1"),
            ("like.hot_round", "1"),
        ]);
        assert_eq!(odd.beginning.time_zone, "Europe/London");
        assert_eq!((odd.beginning.most_c, odd.beginning.bakes_in), (None, None));
        assert_eq!(odd.beginning.likes, ["hot_round"]);
        assert_eq!(odd.beginning.life, None);
        let hours = said(&[
            ("told_hours", "1"),
            ("sleeps_from", "23"),
            ("sleeps_to", "7"),
            ("works", "yes"),
            ("works_from", "9"),
            ("works_to", "17"),
        ]);
        let life = hours.beginning.life.unwrap();
        assert_eq!((life.quiet.len(), life.busy.len()), (1, 1));
    }
}
