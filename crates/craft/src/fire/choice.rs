//! A fire as it is kept with its dough.

use super::firing::{FiringRequest, firing};
use super::plan::FirePlan;
use super::programme::Programme;
use super::race::RaceLane;
use crate::fact;
use crate::fact::minutes;
use crate::refusal::{Check, ValidationError};
use jiff::Timestamp;
use serde::{Deserialize, Serialize};

/// A planned fire: what the model made of it is kept, too, so that a plan stays what it was when the model learns.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct FireChoice {
    /// The fire that was planned.
    pub plan: FirePlan,
    /// The pantry's oven that it is; a shipped one has none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub oven_id: Option<u64>,
    /// How it is turned, and when it is out.
    pub programme: Programme,
    /// Until floor and core are charged, 5 to 240 min.
    pub preheat_min: f64,
    /// Floor temperatures to launch at, °C.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub floor_band_c: Option<(f64, f64)>,
    /// How the race ran: when each part is ready and when it is too much.
    #[serde(default)]
    pub lanes: Vec<RaceLane>,
    /// People at bench and oven, 1 to 8.
    #[serde(default = "one_hand")]
    pub hands: u32,
}

fn one_hand() -> u32 {
    1
}

impl FireChoice {
    /// Works a plan out and keeps what came of it.
    ///
    /// Errors: the fields of the plan outside their ranges.
    pub fn of(
        plan: FirePlan,
        oven_id: Option<u64>,
        hands: u32,
        room_c: f64,
    ) -> Result<FireChoice, ValidationError> {
        let planned = plan.planned()?;
        let ready_by = Timestamp::UNIX_EPOCH + jiff::SignedDuration::from_hours(24);
        let fired = firing(&FiringRequest {
            oven: plan.oven.clone(),
            setting: plan.setting,
            room_c,
            ready_by,
            for_min: plan.preheat_min,
            lit_at: None,
            readings: vec![],
        });
        let min = ready_by.duration_since(fired.light_at).as_secs_f64() / 60.0;
        let out = FireChoice {
            floor_band_c: plan.floor_band(&planned.race),
            programme: planned.programme,
            lanes: planned.race.lanes,
            preheat_min: min.clamp(5.0, 240.0),
            plan,
            oven_id,
            hands,
        };
        let mut c = Check::new();
        out.check_into(&mut c);
        c.done()?;
        Ok(out)
    }

    pub(crate) fn check_into(&self, c: &mut Check) {
        c.range(
            "preheat_min",
            fact!("f-preheating"),
            self.preheat_min,
            5.0,
            240.0,
            minutes,
        );
        super::service::hands_into(c, self.hands);
        if let Err(why) = self.programme.check() {
            c.refuse("programme", why);
        }
    }
}
