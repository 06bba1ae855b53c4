//! A dough as it goes in this kitchen: when it gets ready, how it stands, what it must be dosed with.
//!
//! Source: learning, section 5.

use super::channel::{Channel, Offsets};
use super::scalars::soft_smallest;
use super::under::under;
use crate::rise::ripeness::{READY, Ripeness};
use crate::rise::{
    Label, NoYeast, RiseRequest, Watch, WatchedMoment, looks_beyond_h, quick_dose, watch,
};

/// Deviations beyond which nothing is looked for.
const CHANCE_SDS: f64 = 12.0;

/// Student's t with eight degrees of freedom, below `t`: the closed form for an even number of them.
fn tailed_below(t: f64) -> f64 {
    let cos2 = 8.0 / (8.0 + t * t);
    let sin = t / (8.0 + t * t).sqrt();
    let series = 1.0 + cos2 / 2.0 + 3.0 * cos2 * cos2 / 8.0 + 5.0 * cos2.powi(3) / 16.0;
    0.5 + 0.5 * sin * series
}

/// A run under a kitchen's offsets.
pub(crate) struct Personal<'a> {
    run: Watch,
    q: &'a Offsets,
}

/// The dose, % in the form that the request uses, that makes it ready at its end in a kitchen that differs by `q`.
pub(crate) fn dose(r: &RiseRequest, q: &Offsets) -> Result<f64, NoYeast> {
    let mut r = under(r, q);
    r.departs.ripe = q[Channel::Ready.at()] - q[Channel::Model.at()];
    quick_dose(&r)
}

/// The dose by the book, % in the form that the request uses; `None` where none makes it ready.
pub fn book_dose(r: &RiseRequest) -> Option<f64> {
    dose(r, &super::fit::NOTHING).ok()
}

/// The chance, 0 to 1, that a dough is ready and not past at an hour after mixing, where ln of its ripeness is known to `sd`. What its
/// kitchen does otherwise than the book stands in the request already.
pub fn chance_met(r: &RiseRequest, at_h: f64, sd: f64) -> f64 {
    let run = watch(r, at_h);
    let q = &super::fit::NOTHING;
    Personal { run, q }.chance_met(at_h, sd)
}

impl<'a> Personal<'a> {
    /// Runs a checked request to the hour, or to its end where that is later.
    pub fn to(r: &RiseRequest, q: &'a Offsets, until_h: f64) -> Personal<'a> {
        Personal {
            run: watch(&under(r, q), until_h),
            q,
        }
    }

    /// Runs it as far as a window is looked for.
    pub fn beyond(r: &RiseRequest, q: &'a Offsets) -> Personal<'a> {
        Personal::to(r, q, r.total_hours() + looks_beyond_h(r))
    }

    fn of(&self, c: Channel) -> f64 {
        self.q[c.at()]
    }

    /// ln of the ripeness that this maker sees.
    fn ripeness(&self, m: &WatchedMoment) -> f64 {
        m.dose.min(m.piece).max(1e-4).ln() + self.of(Channel::Model) - self.of(Channel::Ready)
    }

    /// The same with all else that holds it back, where ripeness stands `off` higher than expected.
    fn young(&self, m: &WatchedMoment, off: f64) -> f64 {
        soft_smallest([
            self.ripeness(m) + off,
            m.matured.max(1e-4).ln() - self.of(Channel::Gluten),
            m.relaxed.max(1e-4).ln() - self.of(Channel::Relaxing),
        ])
        .0
    }

    /// Gluten reserve.
    pub fn reserve(&self, m: &WatchedMoment) -> f64 {
        1.0 - (1.0 - m.reserve) * (-self.of(Channel::Gluten)).exp()
    }

    /// In one word, where ripeness stands `off` higher than expected.
    pub fn label(&self, m: &WatchedMoment, off: f64) -> Label {
        let factor = (self.of(Channel::Model) - self.of(Channel::Ready) + off).exp();
        let mature = soft_smallest([
            m.matured.max(1e-4).ln() - self.of(Channel::Gluten),
            m.relaxed.max(1e-4).ln() - self.of(Channel::Relaxing),
        ])
        .0
        .exp();
        let ripeness = Ripeness {
            dose: m.dose * factor,
            piece: m.piece * factor,
            mature,
        };
        Label::of(
            self.run.kind,
            &ripeness,
            self.reserve(m),
            m.inflation * factor,
            m.wanted * factor,
        )
    }

    /// The moment at or just after an hour.
    pub fn at(&self, at_h: f64) -> &WatchedMoment {
        let moments = &self.run.moments;
        moments
            .iter()
            .find(|m| m.hours >= at_h - 1e-9)
            .unwrap_or(&moments[moments.len() - 1])
    }

    /// Ripeness at an hour, as this maker counts it: 1 is ready.
    pub fn ripeness_at(&self, at_h: f64) -> f64 {
        self.ripeness(self.at(at_h)).exp()
    }

    /// Index of the last shaping.
    fn shaped(&self) -> usize {
        let h = self.run.shaped_h;
        self.run
            .moments
            .iter()
            .position(|m| m.hours > h + 1e-9)
            .unwrap_or(0)
    }

    /// The first moment at which it is ready, where ripeness stands `off` higher than expected.
    fn opens(&self, off: f64) -> Option<usize> {
        let moments = &self.run.moments;
        (self.shaped()..moments.len()).find(|&i| self.young(&moments[i], off) >= READY.ln())
    }

    /// From when it is ready, h since mixing, where ripeness stands `off` higher than expected; between two moments as
    /// straight. Absent when it is not within what is looked at.
    pub fn opens_h(&self, off: f64) -> Option<f64> {
        let (moments, i) = (&self.run.moments, self.opens(off)?);
        if i == self.shaped() {
            return Some(moments[i].hours);
        }
        let (a, b) = (&moments[i - 1], &moments[i]);
        let (ya, yb) = (self.young(a, off), self.young(b, off));
        let share = if yb > ya {
            ((READY.ln() - ya) / (yb - ya)).clamp(0.0, 1.0)
        } else {
            1.0
        };
        Some(a.hours + share * (b.hours - a.hours))
    }

    /// Until when it can be baked, h since mixing.
    pub fn shuts_h(&self, off: f64) -> Option<f64> {
        self.run.moments[self.opens(off)?..]
            .iter()
            .find(|m| self.label(m, off).is_past())
            .map(|m| m.hours)
    }

    /// Whether it is past as soon as it is ready: then it is never ready at all.
    pub fn is_past_at_once(&self) -> bool {
        self.opens(0.0)
            .is_some_and(|i| self.label(&self.run.moments[i], 0.0).is_past())
    }

    /// The chance, 0 to 1, that it is ready and not past at an hour, where ln ripeness is known to `sd`.
    pub fn chance_met(&self, at_h: f64, sd: f64) -> f64 {
        let m = self.at(at_h);
        // Both only ever come true with more ripeness: the deviations at which they do.
        let first = |is: &dyn Fn(f64) -> bool| {
            let (mut low, mut high) = (-CHANCE_SDS, CHANCE_SDS);
            if !is(high * sd) {
                return CHANCE_SDS * 10.0;
            }
            for _ in 0..40 {
                let mid = 0.5 * (low + high);
                if is(mid * sd) {
                    high = mid;
                } else {
                    low = mid;
                }
            }
            high
        };
        let ready = first(&|off| self.young(m, off) >= READY.ln());
        let past = first(&|off| self.label(m, off).is_past());
        (tailed_below(past) - tailed_below(ready)).max(0.0)
    }

    /// Until when it was looked.
    pub fn looked_h(&self) -> f64 {
        self.run.moments.last().map_or(0.0, |m| m.hours)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::learn::predict::FOUR_FIFTHS;

    #[test]
    fn the_bands_hold_what_they_say() {
        let within = |z: f64| tailed_below(z) - tailed_below(-z);
        for (z, share) in [(0.706, 0.5), (FOUR_FIFTHS, 0.8), (2.306, 0.95)] {
            assert!((within(z) - share).abs() < 1e-3, "{z}: {}", within(z));
        }
        assert_eq!(tailed_below(0.0), 0.5);
    }
}
