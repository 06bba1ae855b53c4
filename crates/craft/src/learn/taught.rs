//! What may be said of a kitchen, in the few sentences that its log allows.
//!
//! Source: learning, section 7: a channel only where it is known better than before and stands clear of the book; never a
//! cause as a fact, no more digits than are known.

use super::channel::Channel;
use super::predict::ChannelKnown;
use crate::fact;
use crate::fact::{Fact, Kelvin, Percent, half, tenth, whole};
use std::collections::BTreeMap;

/// % to whole fives: a factor is not known better.
fn in_fives(percent: f64) -> Percent {
    Percent((percent / 5.0).round().max(1.0) * 5.0)
}

/// The sentence of a channel at its value; `None` where nothing of it is said to makers.
fn sentence(c: Channel, known: &ChannelKnown) -> Option<Fact> {
    let (m, up) = (known.mean, known.mean > 0.0);
    let k = Kelvin(tenth(m.abs()));
    let sd = Kelvin(tenth(known.sd));
    let by = in_fives(100.0 * (m.abs().exp() - 1.0));
    let off = in_fives(100.0 * known.sd);
    Some(match (c, up) {
        (Channel::Fridge, true) => fact!("taught-fridge-warm", k = k, sd = sd),
        (Channel::Fridge, false) => fact!("taught-fridge-cold", k = k, sd = sd),
        (Channel::Room, true) => fact!("taught-room-warm", k = k, sd = sd),
        (Channel::Room, false) => fact!("taught-room-cold", k = k, sd = sd),
        (Channel::Dough, true) => fact!("taught-dough-warm", k = k, sd = sd),
        (Channel::Dough, false) => fact!("taught-dough-cold", k = k, sd = sd),
        (Channel::Yeast, true) => fact!("taught-yeast-lively", by = by, off = off),
        (Channel::Yeast, false) => fact!("taught-yeast-slow", by = by, off = off),
        (Channel::Leaven, true) => fact!("taught-leaven-lively", by = by, off = off),
        (Channel::Leaven, false) => fact!("taught-leaven-slow", by = by, off = off),
        (Channel::Cold, true) => fact!("taught-cold-fast", by = by, off = off),
        (Channel::Cold, false) => fact!("taught-cold-slow", by = by, off = off),
        (Channel::Growth, true) => fact!("taught-long-fast", by = by, off = off),
        (Channel::Growth, false) => fact!("taught-long-slow", by = by, off = off),
        (Channel::Gluten, true) => fact!("taught-flour-strong", by = by, off = off),
        (Channel::Gluten, false) => fact!("taught-flour-weak", by = by, off = off),
        (Channel::Relaxing, true) => fact!("taught-relaxes-late", by = by, off = off),
        (Channel::Relaxing, false) => fact!("taught-relaxes-soon", by = by, off = off),
        (Channel::Ready, _) => {
            let at = 100.0 * m.exp();
            let n = whole(at) as i64;
            let off = whole(at * known.sd) as i64;
            if up {
                fact!("taught-ready-later", n = n, off = off)
            } else {
                fact!("taught-ready-sooner", n = n, off = off)
            }
        }
        (Channel::Model, true) => fact!("taught-path-ahead", by = by, off = off),
        (Channel::Model, false) => fact!("taught-path-behind", by = by, off = off),
        (Channel::FridgeBias, _) => fact!("taught-fridge-thermometer", k = Kelvin(half(m))),
        (Channel::RoomBias, _) => fact!("taught-room-thermometer", k = Kelvin(half(m))),
        (Channel::DoughBias, _) => fact!("taught-probe", k = Kelvin(half(m))),
        (Channel::TubBias, _) => return None,
    })
}

/// What may be said of a kitchen, channel by channel.
pub fn sentences(channels: &BTreeMap<Channel, ChannelKnown>) -> Vec<(Channel, Fact)> {
    channels
        .iter()
        .filter(|(_, known)| known.may_be_said())
        .filter_map(|(&c, known)| Some((c, sentence(c, known)?)))
        .collect()
}

/// A chance in words: no log knows it to a per cent.
pub fn chance(p: f64) -> Fact {
    match p {
        p if p >= 0.95 => fact!("chance-nearly-always"),
        p if p >= 0.85 => fact!("chance-nine-in-ten"),
        p if p >= 0.75 => fact!("chance-four-in-five"),
        p if p >= 0.60 => fact!("chance-two-in-three"),
        p if p >= 0.40 => fact!("chance-one-in-two"),
        p if p >= 0.28 => fact!("chance-one-in-three"),
        p if p >= 0.15 => fact!("chance-one-in-five"),
        p if p >= 0.05 => fact!("chance-one-in-ten"),
        _ => fact!("chance-hardly-ever"),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_not_proven_is_not_said() {
        let known = |mean, sd| ChannelKnown {
            mean,
            sd,
            prior_sd: 1.4,
        };
        let said = |mean, sd| {
            let all = BTreeMap::from([(Channel::Fridge, known(mean, sd))]);
            sentences(&all).len()
        };
        // Clear of the book, and known better than before.
        assert_eq!(said(1.8, 0.9), 1);
        // Not clear of the book; not known better.
        assert_eq!((said(0.8, 0.9), said(1.8, 1.2)), (0, 0));
    }
}
