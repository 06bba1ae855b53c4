//! How big the dough is: balls of a weight, or trays filled to a thickness.

use crate::refusal::Check;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// The pieces to make.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum Pieces {
    Balls {
        /// 1 to 1000.
        count: u32,
        /// 30 to 2000 g.
        ball_g: f64,
    },
    Trays {
        /// 1 to 200.
        count: u32,
        /// 8 to 120 cm.
        length_cm: f64,
        /// 8 to 120 cm.
        width_cm: f64,
        /// Dough on the tray, 0.2 to 2 g/cm².
        dough_g_per_cm2: f64,
    },
}

impl Pieces {
    pub fn count(&self) -> u32 {
        match *self {
            Pieces::Balls { count, .. } | Pieces::Trays { count, .. } => count,
        }
    }
    /// Weight of one piece, g.
    pub fn piece_g(&self) -> f64 {
        match *self {
            Pieces::Balls { ball_g, .. } => ball_g,
            Pieces::Trays {
                length_cm,
                width_cm,
                dough_g_per_cm2,
                ..
            } => length_cm * width_cm * dough_g_per_cm2,
        }
    }
    /// Weight of all pieces, g.
    pub fn total_g(&self) -> f64 {
        f64::from(self.count()) * self.piece_g()
    }
    /// The field that says how many.
    pub(super) fn count_field(&self) -> &'static str {
        "pieces.count"
    }

    pub(super) fn check_into(&self, c: &mut Check) {
        match *self {
            Pieces::Balls { count, ball_g } => {
                c.range(
                    self.count_field(),
                    "Balls",
                    f64::from(count),
                    1.0,
                    1000.0,
                    "",
                );
                c.range("pieces.ball_g", "A ball", ball_g, 30.0, 2000.0, "g");
            }
            Pieces::Trays {
                count,
                length_cm,
                width_cm,
                dough_g_per_cm2,
            } => {
                c.range(
                    self.count_field(),
                    "Trays",
                    f64::from(count),
                    1.0,
                    200.0,
                    "",
                );
                c.range(
                    "pieces.length_cm",
                    "Tray length",
                    length_cm,
                    8.0,
                    120.0,
                    "cm",
                );
                c.range("pieces.width_cm", "Tray width", width_cm, 8.0, 120.0, "cm");
                c.range(
                    "pieces.dough_g_per_cm2",
                    "Dough on the tray",
                    dough_g_per_cm2,
                    0.2,
                    2.0,
                    "g/cm²",
                );
            }
        }
    }
}
