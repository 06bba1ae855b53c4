//! The scales at hand: which one weighs what, and how finely.

use super::size::MOST_DOUGH_G;
use crate::fact;
use crate::fact::Value;
use crate::refusal::Check;
use serde::{Deserialize, Serialize};

/// From this weight on the kitchen scale is used, below it the fine one, g.
const KITCHEN_SCALE_FROM_G: f64 = 40.0;
/// The scales at hand, and what the mixer holds.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Scales {
    /// What the kitchen scale resolves, 0.1 to 50 g.
    #[serde(default = "kitchen_scale")]
    pub kitchen_scale_g: f64,
    /// What the fine scale resolves, 0.001 to 5 g; nothing: there is none, the kitchen scale weighs it all.
    #[serde(default = "fine_scale")]
    pub fine_scale_g: Option<f64>,
    /// Most dough that the mixer works at once, 200 to 300,000 g.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mixer_holds_g: Option<f64>,
}

fn kitchen_scale() -> f64 {
    1.0
}
fn fine_scale() -> Option<f64> {
    Some(0.1)
}

impl Default for Scales {
    fn default() -> Self {
        Scales {
            kitchen_scale_g: kitchen_scale(),
            fine_scale_g: fine_scale(),
            mixer_holds_g: None,
        }
    }
}

impl Scales {
    /// The resolution of the scale that weighs so much.
    pub fn for_g(&self, g: f64) -> f64 {
        if g >= KITCHEN_SCALE_FROM_G {
            self.kitchen_scale_g
        } else {
            self.finest_g()
        }
    }
    /// The resolution of the scale for small weights.
    pub fn finest_g(&self) -> f64 {
        self.fine_scale_g.unwrap_or(self.kitchen_scale_g)
    }
    pub(crate) fn check_into(&self, c: &mut Check) {
        c.range(
            "kitchen_scale_g",
            fact!("f-kitchen-scale"),
            self.kitchen_scale_g,
            0.1,
            50.0,
            Value::OnScale,
        );
        if let Some(g) = self.fine_scale_g {
            c.range(
                "fine_scale_g",
                fact!("f-fine-scale"),
                g,
                0.001,
                5.0,
                Value::OnScale,
            );
        }
        if let Some(g) = self.mixer_holds_g {
            c.range(
                "mixer_holds_g",
                fact!("f-the-mixer-holds"),
                g,
                200.0,
                MOST_DOUGH_G,
                Value::Grams,
            );
        }
    }
}
