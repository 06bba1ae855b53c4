//! The path of a formula: its legs, whether they lead anywhere, and the three hours that say a plain one.

use super::Formula;
use crate::fact;
use crate::fact::{Fact, Hours};
use crate::path::{LONGEST_H, Leg, Lies, MOST_LEGS, Spot};
use crate::refusal::Check;
use crate::rise::Event;

/// Refuses a path that leads nowhere.
pub(crate) fn check_path_into(f: &Formula, c: &mut Check) {
    let legs = &f.legs;
    if legs.is_empty() {
        return;
    }
    if legs.len() > MOST_LEGS {
        return c.refuse(
            "legs",
            fact!("legs-at-most", most = MOST_LEGS, n = legs.len()),
        );
    }
    for (i, l) in legs.iter().enumerate() {
        l.check_into(c, i);
    }
    let whole = f.total_h();
    if whole > LONGEST_H {
        c.refuse("legs", fact!("path-too-long", hours = Hours(whole.round())));
    }
    if legs.first().is_some_and(|l| l.spot.is_frozen()) {
        c.refuse("legs[0].spot", fact!("rise-before-frozen"));
    }
    if let Some(last) = legs.last()
        && last.spot.is_frozen()
    {
        let i = legs.len() - 1;
        c.refuse(&format!("legs[{i}].spot"), fact!("thaw-first"));
    }
}

impl Formula {
    /// The legs from mixer to oven: its own, or those of bulk, cold and temper.
    pub fn path(&self) -> Vec<Leg> {
        if !self.legs.is_empty() {
            return self.legs.clone();
        }
        let pans = self.in_pans();
        let limits = |leg: Leg, least_h: f64, most_h: f64| Leg {
            least_h: least_h.min(leg.hours),
            most_h: most_h.max(leg.hours),
            ..leg
        };
        let mut out = vec![Leg {
            folds: self.style.folds,
            ..limits(
                Leg::of(Lies::Bulk, Spot::Room, self.bulk_h, Event::None),
                0.5 * self.bulk_h,
                2.0 * self.bulk_h,
            )
        }];
        if self.cold_h > 0.0 {
            let (lies, event) = if pans {
                (Lies::Bulk, Event::None)
            } else {
                (Lies::Balls, Event::Ball)
            };
            out.push(limits(
                Leg::of(lies, Spot::Fridge, self.cold_h, event),
                0.5 * self.cold_h,
                1.75 * self.cold_h,
            ));
        }
        let (lies, event) = match (pans, self.cold_h > 0.0) {
            (true, _) => (Lies::Pans, Event::Pan),
            (false, true) => (Lies::Balls, Event::None),
            (false, false) => (Lies::Balls, Event::Ball),
        };
        out.push(limits(
            Leg::of(lies, Spot::Room, self.temper_h, event),
            0.5 * self.temper_h,
            1.5 * self.temper_h,
        ));
        out
    }

    /// How long it lies in each stage.
    pub fn path_hours(&self) -> Vec<Fact> {
        let of = |leg: &Leg| {
            // To the quarter hour: a way that was lived has odd minutes.
            let time = fact::hours((leg.hours * 4.0).round() / 4.0);
            match &leg.spot {
                s if s.is_frozen() => fact!("path-hours-frozen", time = time),
                s if s.is_cold() => fact!("path-hours-cold", time = time),
                _ => fact!("just", value = time),
            }
        };
        self.path().iter().map(of).collect()
    }

    /// Puts legs in place of what was there. Where they are a plain bulk, cold and temper, the three hours say it.
    pub fn on_path(mut self, legs: Vec<Leg>) -> Formula {
        self.legs = vec![];
        let (first, cold, last) = match legs.as_slice() {
            [a, b, c] => (a, Some(b), c),
            [a, c] => (a, None, c),
            _ => {
                self.legs = legs;
                return self;
            }
        };
        let mut plain = self.clone();
        plain.bulk_h = first.hours;
        plain.cold_h = cold.map_or(0.0, |l| l.hours);
        plain.temper_h = last.hours;
        let same = |a: &[Leg], b: &[Leg]| {
            a.len() == b.len()
                && a.iter().zip(b).all(|(a, b)| {
                    (a.lies, &a.spot, a.event, a.container, a.folds)
                        == (b.lies, &b.spot, b.event, b.container, b.folds)
                        && a.fold_every_h == b.fold_every_h
                        && a.dusting_percent == b.dusting_percent
                        && a.tub_g == b.tub_g
                })
        };
        if same(&plain.path(), &legs) {
            return plain;
        }
        self.legs = legs;
        self
    }
}
