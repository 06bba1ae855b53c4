//! How a style bakes: what it is to become, and the rim.

use crate::fact;
use crate::fact::Value;
use crate::fire::race::Targets;
use crate::fire::setup::Aim;
use crate::refusal::Check;
use serde::{Deserialize, Serialize};

/// How a style's pieces are shaped for the oven and what they aim at.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct StyleBake {
    /// What kind of bake is looked for.
    pub aim: Aim,
    /// 5 to 50 mm.
    pub rim_mm: f64,
    /// Share of the dough that lies in the rim, 0.05 to 0.6.
    pub rim_share: f64,
    /// What counts as right, where a kitchen has its own mind; the aim's own when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub targets: Option<Targets>,
}

impl StyleBake {
    /// What counts as right: the style's own, else its aim's.
    pub fn targets(&self) -> Targets {
        self.targets.unwrap_or(self.aim.targets())
    }
    pub(crate) fn check_into(&self, c: &mut Check) {
        c.range(
            "style.bakes.rim_mm",
            fact!("f-width-of-the-rim"),
            self.rim_mm,
            5.0,
            50.0,
            Value::Mm,
        );
        c.range(
            "style.bakes.rim_share",
            fact!("f-dough-in-the-rim"),
            self.rim_share,
            0.05,
            0.6,
            Value::Number,
        );
        if let Some(t) = &self.targets {
            t.check_into("style.bakes.", c);
        }
    }
}
