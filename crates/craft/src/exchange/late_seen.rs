//! What a line that was written down afterwards says was seen, and when: what it does not say, the plan says.

use super::bakes::LateBake;
use crate::fire::{Shade, TapKind, Verdict};
use crate::learn::{Notice, StoodAs};
use crate::reading::Subject;
use crate::sheet::SheetResult;
use jiff::{SignedDuration, Timestamp};

/// One thing that was seen.
#[derive(Debug, Clone, PartialEq)]
pub enum LateSeen {
    /// A temperature, °C.
    Read(Subject, f64),
    /// How it stood when it was opened.
    Stood(StoodAs),
    /// What a typical pizza did at the oven.
    Tapped(TapKind),
    /// What was off of the batch.
    Noticed(Notice),
    /// What else was said.
    Said(String),
}

/// How long after serving something is taken to have been seen.
const IN_THE_OVEN: SignedDuration = SignedDuration::from_mins(1);
const JUDGED_AFTER: SignedDuration = SignedDuration::from_secs(5);
const NOTICED: SignedDuration = SignedDuration::from_mins(20);
const SAID: SignedDuration = SignedDuration::from_mins(30);
const CLOSED: SignedDuration = SignedDuration::from_hours(1);
/// The dough is measured so long after the mixer.
const MEASURED: SignedDuration = SignedDuration::from_mins(2);

impl LateBake {
    /// What it says was seen, in the order of its columns; nothing of it later than `now`.
    pub fn seen(&self, sheet: &SheetResult, now: Timestamp) -> Vec<(Timestamp, LateSeen)> {
        let served = self.served_at;
        let mut out = vec![];
        if let Some(c) = self.dough_c {
            out.push((sheet.mixed_at + MEASURED, LateSeen::Read(Subject::Dough, c)));
        }
        if let Some(c) = self.fridge_c {
            // In the middle of its time: nobody wrote down when.
            let half = served.duration_since(sheet.mixed_at).as_secs() / 2;
            let at = sheet.mixed_at + SignedDuration::from_secs(half);
            out.push((at, LateSeen::Read(Subject::Fridge, c)));
        }
        if let Some(is) = self.stood {
            out.push((served, LateSeen::Stood(is)));
        }
        match self.bake_s {
            Some(s) => {
                let lands = served + IN_THE_OVEN;
                let leaves = lands + SignedDuration::from_secs(i64::from(s));
                out.push((lands, LateSeen::Tapped(TapKind::In)));
                out.push((leaves, LateSeen::Tapped(TapKind::Out)));
                if self.base.is_some() || self.top.is_some() {
                    // A side of which nothing is said was right, where the other one was judged.
                    let side = |s: Option<Shade>| s.unwrap_or(Shade::Right);
                    let verdict = Verdict {
                        base: side(self.base),
                        top: side(self.top),
                    };
                    let judged = LateSeen::Tapped(TapKind::Verdict(verdict));
                    out.push((leaves + JUDGED_AFTER, judged));
                }
            }
            // Without its time nothing is known to have been in the oven; what was off is noticed of the batch.
            None => {
                let sides = [
                    (self.base, Shade::Pale, Notice::PaleBelow),
                    (self.base, Shade::Dark, Notice::DarkBelow),
                    (self.top, Shade::Pale, Notice::PaleAbove),
                    (self.top, Shade::Dark, Notice::DarkAbove),
                ];
                let off = sides.into_iter().filter(|(is, of, _)| *is == Some(*of));
                out.extend(off.map(|(.., what)| (served + NOTICED, LateSeen::Noticed(what))));
            }
        }
        if !self.remark.is_empty() {
            out.push((served + SAID, LateSeen::Said(self.remark.clone())));
        }
        // One that was served a moment ago is over all the same.
        for (at, _) in &mut out {
            *at = (*at).min(now);
        }
        out
    }

    /// When it is closed: an hour after it was served, or once the last thing was seen.
    pub fn closed_at(&self, seen: &[(Timestamp, LateSeen)], now: Timestamp) -> Timestamp {
        let last = seen.iter().map(|(at, _)| *at).max();
        (self.served_at + CLOSED)
            .max(last.unwrap_or(self.served_at))
            .min(now)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sheet::{KitchenUsual, SheetRequest, work_out};

    fn at(text: &str) -> Timestamp {
        text.parse().unwrap()
    }
    fn sheet(served: Timestamp) -> SheetResult {
        let kitchen = KitchenUsual {
            time_zone: "Europe/London".into(),
            altitude_m: 0.0,
            room_c: 21.0,
            fridge_c: 5.0,
            tap_water_c: 12.0,
            scales: Default::default(),
        };
        work_out(&SheetRequest::of_style(
            crate::style::first(),
            &kitchen,
            served,
        ))
        .unwrap()
    }
    fn line() -> LateBake {
        LateBake {
            line: 1,
            served_at: at("2026-11-01T19:00:00Z"),
            formula: "x".into(),
            pieces: None,
            yeast_percent: None,
            cold_h: None,
            dough_c: None,
            fridge_c: None,
            stood: None,
            bake_s: None,
            base: None,
            top: None,
            remark: String::new(),
        }
    }
    const NOW: &str = "2026-11-27T12:00:00Z";

    #[test]
    fn a_day_alone_says_nothing_and_is_closed_an_hour_later() {
        let (l, now) = (line(), at(NOW));
        let seen = l.seen(&sheet(l.served_at), now);
        assert!(seen.is_empty());
        assert_eq!(l.closed_at(&seen, now), at("2026-11-01T20:00:00Z"));
    }

    #[test]
    fn a_verdict_needs_its_time_and_is_noticed_without_it() {
        let judged = LateBake {
            bake_s: Some(90),
            base: Some(Shade::Pale),
            ..line()
        };
        let s = sheet(judged.served_at);
        let seen = judged.seen(&s, at(NOW));
        let verdict = Verdict {
            base: Shade::Pale,
            top: Shade::Right,
        };
        let kinds: Vec<_> = seen.iter().map(|(_, s)| s.clone()).collect();
        assert_eq!(
            kinds,
            [TapKind::In, TapKind::Out, TapKind::Verdict(verdict)].map(LateSeen::Tapped)
        );
        assert_eq!(seen[1].0.duration_since(seen[0].0).as_secs(), 90);
        let noticed = LateBake {
            bake_s: None,
            top: Some(Shade::Dark),
            ..judged
        };
        let kinds: Vec<_> = noticed
            .seen(&s, at(NOW))
            .into_iter()
            .map(|(_, s)| s)
            .collect();
        assert_eq!(
            kinds,
            [Notice::PaleBelow, Notice::DarkAbove].map(LateSeen::Noticed)
        );
    }

    #[test]
    fn readings_lie_in_the_doughs_own_time_and_nothing_is_to_come() {
        let l = LateBake {
            dough_c: Some(24.0),
            fridge_c: Some(6.0),
            stood: Some(StoodAs::Right),
            remark: "wet".into(),
            ..line()
        };
        let s = sheet(l.served_at);
        let seen = l.seen(&s, at(NOW));
        assert!(seen.iter().all(|(t, _)| *t > s.mixed_at));
        assert!(seen[1].0 > s.mixed_at && seen[1].0 < l.served_at);
        // Served just now: what follows is now.
        let now = l.served_at + SignedDuration::from_mins(3);
        let seen = l.seen(&s, now);
        assert!(seen.iter().all(|(t, _)| *t <= now));
        assert_eq!(l.closed_at(&seen, now), now);
    }
}
