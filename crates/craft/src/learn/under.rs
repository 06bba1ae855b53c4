//! A request as it goes in a kitchen that differs from the book by so much per channel.
//!
//! Source: learning, section 2.1. Places and dough temperature are clipped to what the forward model accepts.

use super::channel::{Channel, Offsets};
use super::place::{has_leaven, is_cold, lies_in};
use crate::rise::{Departure, RiseRequest};

fn warm(r: &mut RiseRequest, fridge_k: f64, room_k: f64) {
    for s in r.stages.iter_mut().filter(|s| !s.is_frozen()) {
        let by = if lies_in(s, true) { fridge_k } else { room_k };
        if by == 0.0 {
            continue;
        }
        let place = |c: f64| (c + by).clamp(-2.0, 42.0);
        s.place_c = s.place_c.map(place);
        if let Some(p) = &mut s.place_profile_c {
            for c in p {
                *c = place(*c);
            }
        }
    }
}

/// The request as it goes there. What a maker calls ready, gluten and relaxing are read off its run, and are not in it.
pub(crate) fn under(r: &RiseRequest, q: &Offsets) -> RiseRequest {
    let of = |c: Channel| q[c.at()];
    let mut r = r.clone();
    let (fridge, room) = (of(Channel::Fridge), of(Channel::Room));
    warm(&mut r, fridge, room);
    for p in &mut r.preferments {
        warm(&mut p.recipe, fridge, room);
    }
    r.dough_c = (r.dough_c + of(Channel::Dough)).clamp(0.0, 40.0);
    r.departs = Departure {
        yeast: of(Channel::Yeast),
        leaven: of(Channel::Leaven),
        growth: of(Channel::Growth),
        cold: of(Channel::Cold),
        ..Departure::BOOK
    };
    r
}

/// The channels of a run that move this dough at all, in their order (section 2.2).
pub(crate) fn active(r: &RiseRequest) -> Vec<Channel> {
    let doughs = || std::iter::once(r).chain(r.preferments.iter().map(|p| &p.recipe));
    let lies =
        |fridge: bool| doughs().any(|d| d.lasting_stages().iter().any(|s| lies_in(s, fridge)));
    [
        (Channel::Yeast, doughs().any(|d| d.yeast_percent > 0.0)),
        (Channel::Leaven, has_leaven(r)),
        (Channel::Fridge, lies(true)),
        (Channel::Room, lies(false)),
        (Channel::Dough, true),
        (Channel::Cold, doughs().any(is_cold)),
        (Channel::Growth, true),
    ]
    .into_iter()
    .filter(|(_, is)| *is)
    .map(|(c, _)| c)
    .collect()
}
