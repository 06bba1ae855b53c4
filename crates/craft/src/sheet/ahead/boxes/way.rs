//! Where one box lay and will lie: the dough's own legs up to balling, then its own.

use crate::path::{Leg, Lies, Spot};
use crate::rise::{Container, Event};
use crate::shape::run::BoxTold;
use crate::sheet::ahead::course::DoughCourse;
use crate::sheet::ahead::timeline::{SHORTEST_H, h_between};
use crate::sheet::hours;
use jiff::Timestamp;

/// A box of balls: since when they are balls, and what was said of it.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct BoxWay {
    /// When its first ball was made.
    pub balled_at: Timestamp,
    pub told: BoxTold,
}

/// Legs of a box with the moment that each begins.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct BoxLegs {
    spans: Vec<(Timestamp, Leg)>,
    /// The first of them that lies in pieces.
    first: usize,
    pub until: Timestamp,
}

impl BoxWay {
    /// Its legs until an hour, as the plan goes on and as it was moved; `out_at` when it leaves the cold, where that is not the
    /// plan's own hour.
    pub fn legs(
        &self,
        course: &DoughCourse,
        out_at: Option<Timestamp>,
        until: Timestamp,
    ) -> BoxLegs {
        let mut at = course.mixed_at;
        let mut spans: Vec<(Timestamp, Leg)> = vec![];
        for leg in &course.legs {
            spans.push((at, leg.clone()));
            at += hours(leg.hours);
        }
        let first = spans.iter().position(|(_, l)| l.lies != Lies::Bulk);
        let first = first.unwrap_or(spans.len() - 1);
        let warm = spans.last().map(|(_, l)| l.spot.clone());
        let warm = warm.filter(|s| !s.is_cold() && !s.is_frozen());
        let mut out = BoxLegs {
            spans,
            first,
            until,
        };
        out.ball(self.balled_at);
        for (at, to) in &self.told.moved {
            out.put(*at, to.clone());
        }
        if let Some(at) = out_at {
            out.take_out(at, warm.unwrap_or(Spot::Room));
        }
        for (at, bench, _) in &self.told.reballed {
            out.ball_again(*at, bench.percent());
        }
        if self.told.stacked {
            let balls = out.spans.iter_mut().filter(|(_, l)| l.lies == Lies::Balls);
            balls.for_each(|(_, l)| l.container = Some(Container::Stack));
        }
        out
    }
}

impl BoxLegs {
    /// It was balled at its own minute; what would have begun before that begins then.
    fn ball(&mut self, at: Timestamp) {
        if self.first == 0 {
            return;
        }
        // What had hardly begun when it was balled is left out.
        while self.first > 1 && self.spans[self.first - 1].0 + hours(SHORTEST_H) > at {
            self.first -= 1;
            self.spans.remove(self.first);
        }
        let mut from = at.max(self.spans[self.first - 1].0 + hours(SHORTEST_H));
        self.spans[self.first].0 = from;
        for (begin, _) in &mut self.spans[self.first + 1..] {
            from += hours(SHORTEST_H);
            *begin = from.max(*begin);
            from = *begin;
        }
    }

    /// From that moment on it lies elsewhere.
    fn put(&mut self, at: Timestamp, spot: Spot) {
        // A box that is moved was balled by then, whatever the plan still had to do.
        let at = at.max(self.spans[self.first].0 + hours(SHORTEST_H));
        let Some(i) = self.at(at) else { return };
        self.spans.truncate(i + 1);
        let lies = self.spans[i].1.lies;
        self.spans
            .push((at, Leg::of(lies, spot, 0.25, Event::None)));
    }

    /// The cold that it lies in last ends at that moment.
    fn take_out(&mut self, at: Timestamp, warm: Spot) {
        let Some((i, from)) = self.cold() else { return };
        self.spans.truncate(i + 1);
        let lies = self.spans[i].1.lies;
        let at = at.max(from);
        self.spans
            .push((at, Leg::of(lies, warm, 0.25, Event::None)));
    }

    fn ball_again(&mut self, at: Timestamp, dusting_percent: f64) {
        let Some(i) = self.at(at) else { return };
        let mut again = self.spans[i].1.clone();
        again.event = Event::Reball;
        again.dusting_percent = dusting_percent;
        self.spans.insert(i + 1, (at, again));
    }

    /// The span of the pieces that holds a moment.
    fn at(&self, at: Timestamp) -> Option<usize> {
        let i = self.spans.iter().rposition(|(from, _)| *from <= at)?;
        (i >= self.first).then_some(i)
    }

    /// The last time that it lies in the cold as pieces: which span, and since when.
    fn cold(&self) -> Option<(usize, Timestamp)> {
        let i = self.spans.iter().rposition(|(_, l)| l.spot.is_cold())?;
        (i >= self.first).then(|| (i, self.spans[i].0))
    }

    /// From when to when it lies in the cold for the last time; open where it lies there to the end.
    pub fn in_the_cold(&self) -> Option<(Timestamp, Option<Timestamp>)> {
        let (i, from) = self.cold()?;
        Some((from, self.spans.get(i + 1).map(|(at, _)| *at)))
    }

    /// Whether it lay in the cold before a moment.
    pub fn was_cold(&self, at: Timestamp) -> bool {
        let mut before = self.spans.iter().take_while(|(from, _)| *from < at);
        before.any(|(_, l)| l.spot.is_cold())
    }

    /// The cold that it lay in last, as a dough or in pieces; the fridge where it lay in none.
    pub fn cold_spot(&self) -> Spot {
        let last = self.spans.iter().rfind(|(_, l)| l.spot.is_cold());
        last.map_or(Spot::Fridge, |(_, l)| l.spot.clone())
    }

    /// Where it lies at a moment, and in what.
    pub fn lies_at(&self, at: Timestamp) -> (Spot, Container) {
        let i = self.spans.iter().rposition(|(from, _)| *from <= at);
        let leg = &self.spans[i.unwrap_or(0)].1;
        (leg.spot.clone(), leg.container())
    }

    /// When it was shaped last, before a moment.
    pub fn shaped_at(&self, at: Timestamp) -> Timestamp {
        let shapes = |e: Event| matches!(e, Event::Ball | Event::Reball | Event::Pan);
        let last = self
            .spans
            .iter()
            .rfind(|(from, l)| *from <= at && shapes(l.event));
        last.map_or(self.spans[self.first].0, |(from, _)| *from)
    }

    /// The same as legs of so many hours each.
    pub fn to_legs(&self) -> Vec<Leg> {
        let before_the_end = |(i, (from, _)): &(usize, &(Timestamp, Leg))| {
            *i == 0 || h_between(*from, self.until) > SHORTEST_H
        };
        let kept: Vec<&(Timestamp, Leg)> = self
            .spans
            .iter()
            .enumerate()
            .filter(before_the_end)
            .map(|(_, s)| s)
            .collect();
        let mut out = vec![];
        for (i, (from, leg)) in kept.iter().enumerate() {
            let to = kept.get(i + 1).map_or(self.until, |(at, _)| *at);
            let mut leg = leg.clone();
            leg.hours = h_between(*from, to).max(SHORTEST_H);
            out.push(leg);
        }
        out
    }
}
