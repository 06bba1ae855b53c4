//! How much yeast: as a maker says it, and as it is weighed in.

use crate::fact::Value;
use crate::leaven::YeastForm;
use crate::refusal::Check;
use serde::{Deserialize, Serialize};

/// How much yeast.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum Dose {
    /// As much as makes it ripe in its hours.
    #[default]
    Solve,
    /// No yeast of its own.
    None,
    /// % of the flour it stands on: all flour for the dough, its own for a preferment.
    Given {
        /// Of the flour, %.
        percent: f64,
    },
}

/// Yeast in a form.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Yeast {
    /// In which form.
    pub form: YeastForm,
    /// How much.
    #[serde(default)]
    pub dose: Dose,
}

impl Default for Yeast {
    fn default() -> Self {
        Yeast {
            form: YeastForm::Instant,
            dose: Dose::Solve,
        }
    }
}

impl Yeast {
    pub(super) fn check_into(&self, c: &mut Check, path: &str) {
        if let Dose::Given { percent } = self.dose {
            let most = crate::refusal::MOST_YEAST_PERCENT / self.form.fresh_equivalent();
            c.range(
                &format!("{path}.percent"),
                self.form.name(),
                percent,
                0.0,
                most,
                Value::Percent,
            );
        }
    }
}

/// The yeast that is weighed in, each in its own form.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Doses {
    /// In the final dough, % of all flour.
    pub dough: f64,
    /// In each preferment, % of its own flour.
    #[serde(default)]
    pub preferments: Vec<f64>,
}
