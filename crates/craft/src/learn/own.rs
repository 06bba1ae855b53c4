//! This kitchen for one dough: the book with what the log says put in, as sheet and forecast take it.
//!
//! Source: learning, section 5. It is copied into a plan when that is made, as a flour's facts are: what is learned later
//! changes nothing that was made before.

use super::card::Card;
use super::channel::Channel;
use super::fit::Posterior;
use super::observed::NextBatch;
use super::place::MadeWith;
use super::predict::Prediction;
use crate::refusal::Check;
use crate::rise::{Air, Departure, RiseRequest};
use crate::{fact, fact::Value};
use serde::{Deserialize, Serialize};

/// A dose that is good to more than so many times says nothing.
const COARSEST: f64 = 5.0;

/// What the log says of a dough.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct OwnKitchen {
    /// How much warmer its fridge stands than planned, K.
    pub fridge_k: f64,
    /// How much warmer its room is than planned, K.
    pub room_k: f64,
    /// How much warmer its doughs leave the mixer than planned, K.
    pub dough_k: f64,
    /// The rest.
    pub departs: Departure,
    /// How well ln ripeness is foretold, one standard deviation.
    pub sd: f64,
    /// So many bakes say so.
    pub bakes: u32,
    /// What its dose is good to, times or divided by; absent in plans of before.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub good_to: Option<f64>,
}

impl OwnKitchen {
    pub(super) fn of(p: &Prediction, bakes: u32) -> OwnKitchen {
        let of = |c: Channel| p.mean[c.at()];
        OwnKitchen {
            fridge_k: of(Channel::Fridge),
            room_k: of(Channel::Room),
            dough_k: of(Channel::Dough),
            departs: Departure {
                yeast: of(Channel::Yeast),
                leaven: of(Channel::Leaven),
                growth: of(Channel::Growth),
                cold: of(Channel::Cold),
                gluten: of(Channel::Gluten),
                relaxing: of(Channel::Relaxing),
                ripe: of(Channel::Ready) - of(Channel::Model),
                ..Departure::BOOK
            },
            sd: p.ripeness().sd,
            bakes,
            // A dose that hardly moves its dough is good to nothing that could be said.
            good_to: Some(p.good_to()).filter(|g| *g <= COARSEST),
        }
    }

    /// What is known where nothing was logged: the book, and how far kitchens differ from it for a checked dough with its dose in.
    pub fn unlogged(dough: &RiseRequest) -> OwnKitchen {
        let next = NextBatch {
            week: 0.0,
            made_with: MadeWith::default(),
            dough: dough.clone(),
        };
        let card = Card::of(dough, &[]);
        OwnKitchen::of(&Prediction::of(&next, &card, &Posterior::empty()), 0)
    }

    /// A place as it really stands, where it was planned at `c` °C.
    pub fn place_c(&self, air: Air, c: f64) -> f64 {
        let by = match air {
            Air::Fridge | Air::Fan => self.fridge_k,
            Air::Room => self.room_k,
            Air::Freezer => return c,
        };
        (c + by).clamp(-2.0, 42.0)
    }

    /// Refuses what no log says.
    pub(crate) fn check_into(&self, c: &mut Check) {
        for (field, k) in [
            ("fridge_k", self.fridge_k),
            ("room_k", self.room_k),
            ("dough_k", self.dough_k),
        ] {
            c.range(
                field,
                fact!("f-reading-against-the-plan"),
                k,
                -15.0,
                15.0,
                Value::Kelvin,
            );
        }
        c.range("sd", fact!("f-deviation"), self.sd, 0.0, 5.0, Value::Number);
        if let Some(g) = self.good_to {
            c.range(
                "good_to",
                fact!("f-deviation"),
                g,
                1.0,
                COARSEST,
                Value::Number,
            );
        }
        if !self.departs.is_sound() {
            c.refuse("departs", fact!("departs-too-far"));
        }
    }
}
