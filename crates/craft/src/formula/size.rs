//! How big the dough is, from any end: balls, discs, pans, the whole dough, or the flour to use up.

use crate::fact;
use crate::fact::{Fact, Value};
use crate::refusal::Check;
use crate::units::Cm;
use crate::units::DOUGH_G_PER_CM3;
use serde::{Deserialize, Serialize};
use std::f64::consts::PI;
use strum::{EnumString, IntoStaticStr, VariantArray};

/// Thicknesses with a name, g of dough per cm² (craft notes, section 2: 0.32 to 0.36 for thin rounds, 0.55 to
/// 0.9 for pans).
pub fn thicknesses() -> [(Fact, f64); 6] {
    [
        (fact!("thick-paper"), 0.28),
        (fact!("thick-thin-round"), 0.32),
        (fact!("thick-round"), 0.36),
        (fact!("thick-thin-pan"), 0.55),
        (fact!("thick-pan"), 0.70),
        (fact!("thick-deep-pan"), 0.90),
    ]
}

/// The named thickness next to one.
pub fn thickness_name(g_per_cm2: f64) -> Option<Fact> {
    thicknesses()
        .into_iter()
        .min_by(|a, b| (a.1 - g_per_cm2).abs().total_cmp(&(b.1 - g_per_cm2).abs()))
        .map(|t| t.0)
}

/// The outline of a pan, inside.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "shape", rename_all = "snake_case", deny_unknown_fields)]
pub enum PanShape {
    /// 8 to 120 cm each.
    Rectangle {
        /// Inside, cm.
        length_cm: f64,
        /// Inside, cm.
        width_cm: f64,
    },
    /// 8 to 80 cm.
    Round {
        /// Inside, cm.
        diameter_cm: f64,
    },
}

impl PanShape {
    /// Its inside, cm².
    pub fn area_cm2(self) -> f64 {
        match self {
            PanShape::Rectangle {
                length_cm,
                width_cm,
            } => length_cm * width_cm,
            PanShape::Round { diameter_cm } => disc_cm2(diameter_cm),
        }
    }
    /// Its measures: "40 × 30 cm" or "28 cm round".
    pub fn fact(self) -> Fact {
        match self {
            PanShape::Rectangle {
                length_cm,
                width_cm,
            } => fact!(
                "pan-rectangle",
                length = Cm(length_cm),
                width = Cm(width_cm)
            ),
            PanShape::Round { diameter_cm } => fact!("pan-round", diameter = Cm(diameter_cm)),
        }
    }
}

/// Area of a disc, cm².
pub fn disc_cm2(diameter_cm: f64) -> f64 {
    PI * diameter_cm * diameter_cm / 4.0
}

/// Pans of one kind.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct PanGroup {
    /// 1 to 200.
    pub count: u32,
    /// Their shape.
    pub pan: PanShape,
    /// 0.2 to 2 g/cm².
    pub dough_g_per_cm2: f64,
}

/// Balls of one weight.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct LooseBalls {
    /// 1 to 1000.
    pub count: u32,
    /// 30 to 2000 g.
    pub ball_g: f64,
}

/// The pieces to make.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum Pieces {
    /// Balls by their weight.
    Balls {
        /// 1 to 1000.
        count: u32,
        /// 30 to 2000 g.
        ball_g: f64,
    },
    /// Rounds by their size on the table.
    Discs {
        /// 1 to 1000.
        count: u32,
        /// 8 to 80 cm.
        diameter_cm: f64,
        /// 0.2 to 2 g/cm².
        dough_g_per_cm2: f64,
    },
    /// Up to six kinds of pans, and balls besides.
    Pans {
        /// The pans, kind by kind.
        pans: Vec<PanGroup>,
        /// Balls besides.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        balls: Option<LooseBalls>,
    },
    /// All the dough in the bowl, 50 to 300,000 g, loss included.
    Total {
        /// Pieces that it is cut into, 1 to 1000.
        count: u32,
        /// All of it, g.
        dough_g: f64,
    },
    /// All the flour to use up, 20 to 250,000 g, wherever in the dough it goes.
    Flour {
        /// Pieces that it is cut into, 1 to 1000.
        count: u32,
        /// All of it, g.
        flour_g: f64,
    },
}

impl Pieces {
    /// The same in so many pieces; pans stay as many as they are.
    pub fn so_many(mut self, n: u32) -> Pieces {
        match &mut self {
            Pieces::Balls { count, .. }
            | Pieces::Discs { count, .. }
            | Pieces::Total { count, .. }
            | Pieces::Flour { count, .. } => *count = n,
            Pieces::Pans { .. } => {}
        }
        self
    }
}

/// The ways to say how much.
#[derive(Debug, Clone, Copy, PartialEq, Eq, EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum Mode {
    /// By the weight of a ball.
    Balls,
    /// By the size on the table.
    Discs,
    /// By pans.
    Pans,
    /// By all the dough.
    Total,
    /// By all the flour.
    Flour,
}

impl Mode {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            Mode::Balls => fact!("mode-balls"),
            Mode::Discs => fact!("mode-discs"),
            Mode::Pans => fact!("mode-pans"),
            Mode::Total => fact!("mode-total"),
            Mode::Flour => fact!("mode-flour"),
        }
    }
}

/// Pieces of one kind as they are divided.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Portion {
    /// So many of them.
    pub count: u32,
    /// How heavy one is, g.
    pub piece_g: f64,
    /// The pan that it fills; absent for a ball.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pan: Option<PanShape>,
    /// Area that is topped, cm².
    pub area_cm2: f64,
}

/// Largest dough of one sheet, g: what one person can still divide.
pub(super) const MOST_DOUGH_G: f64 = 300_000.0;
const MOST_KINDS: usize = 6;

impl Portion {
    /// How thick it lies on its area before it rises, mm.
    pub fn thickness_mm(&self) -> f64 {
        10.0 * self.piece_g / self.area_cm2 / DOUGH_G_PER_CM3
    }
}

impl Pieces {
    /// Pans of one rectangular kind.
    pub fn trays(count: u32, length_cm: f64, width_cm: f64, dough_g_per_cm2: f64) -> Pieces {
        Pieces::Pans {
            pans: vec![PanGroup {
                count,
                pan: PanShape::Rectangle {
                    length_cm,
                    width_cm,
                },
                dough_g_per_cm2,
            }],
            balls: None,
        }
    }
    /// In which way they are said.
    pub fn mode(&self) -> Mode {
        match self {
            Pieces::Balls { .. } => Mode::Balls,
            Pieces::Discs { .. } => Mode::Discs,
            Pieces::Pans { .. } => Mode::Pans,
            Pieces::Total { .. } => Mode::Total,
            Pieces::Flour { .. } => Mode::Flour,
        }
    }
    /// How many pieces that makes.
    pub fn count(&self) -> u32 {
        match self {
            Pieces::Balls { count, .. }
            | Pieces::Discs { count, .. }
            | Pieces::Total { count, .. }
            | Pieces::Flour { count, .. } => *count,
            Pieces::Pans { pans, balls } => {
                let pans = pans.iter().fold(0u32, |n, p| n.saturating_add(p.count));
                pans.saturating_add(balls.map_or(0, |b| b.count))
            }
        }
    }
    /// Whether most of the dough lies in pans; `total` and `flour` follow what the style does.
    pub fn in_pans(&self, style_in_pans: bool) -> bool {
        match self {
            Pieces::Balls { .. } | Pieces::Discs { .. } => false,
            Pieces::Total { .. } | Pieces::Flour { .. } => style_in_pans,
            Pieces::Pans { pans, balls } => {
                let in_pans: f64 = pans.iter().map(|p| f64::from(p.count) * p.piece_g()).sum();
                in_pans >= balls.map_or(0.0, |b| f64::from(b.count) * b.ball_g)
            }
        }
    }
    /// What the pieces weigh without loss; `None` where that follows from total or flour.
    fn pieces_g(&self) -> Option<f64> {
        match self {
            Pieces::Total { .. } | Pieces::Flour { .. } => None,
            _ => Some(
                self.portions(0.0, 0.35)
                    .iter()
                    .map(|p| f64::from(p.count) * p.piece_g)
                    .sum(),
            ),
        }
    }
    /// All the dough in the bowl, g, for a formula whose percentages sum to `sum_percent`.
    pub fn bowl_g(&self, loss_percent: f64, sum_percent: f64) -> f64 {
        match self {
            Pieces::Total { dough_g, .. } => *dough_g,
            Pieces::Flour { flour_g, .. } => flour_g * sum_percent / 100.0,
            _ => self.pieces_g().unwrap_or(0.0) * (1.0 + loss_percent / 100.0),
        }
    }
    /// The pieces by kind. `shared_g` is what `total` and `flour` divide (the bowl without loss); a ball of a
    /// style opens to `g_per_cm2`.
    pub fn portions(&self, shared_g: f64, g_per_cm2: f64) -> Vec<Portion> {
        let ball = |count: u32, piece_g: f64| Portion {
            count,
            piece_g,
            pan: None,
            area_cm2: piece_g / g_per_cm2,
        };
        match self {
            Pieces::Balls { count, ball_g } => vec![ball(*count, *ball_g)],
            Pieces::Discs {
                count,
                diameter_cm,
                dough_g_per_cm2,
            } => {
                let area_cm2 = disc_cm2(*diameter_cm);
                vec![Portion {
                    count: *count,
                    piece_g: area_cm2 * dough_g_per_cm2,
                    pan: None,
                    area_cm2,
                }]
            }
            Pieces::Pans { pans, balls } => pans
                .iter()
                .map(|p| Portion {
                    count: p.count,
                    piece_g: p.piece_g(),
                    pan: Some(p.pan),
                    area_cm2: p.pan.area_cm2(),
                })
                .chain(balls.iter().map(|b| ball(b.count, b.ball_g)))
                .collect(),
            Pieces::Total { count, .. } | Pieces::Flour { count, .. } => {
                vec![ball(*count, shared_g / f64::from((*count).max(1)))]
            }
        }
    }

    /// The same dough said another way: `bowl_g` and `flour_g` are what it weighs now.
    pub fn switched(
        &self,
        to: Mode,
        bowl_g: f64,
        flour_g: f64,
        loss_percent: f64,
        g_per_cm2: f64,
    ) -> Pieces {
        let count = self.count().max(1);
        let shared = bowl_g / (1.0 + loss_percent / 100.0);
        let piece_g = shared / f64::from(count);
        match to {
            _ if to == self.mode() => self.clone(),
            Mode::Balls => Pieces::Balls {
                count,
                ball_g: piece_g,
            },
            Mode::Discs => Pieces::Discs {
                count,
                diameter_cm: (4.0 * piece_g / g_per_cm2 / PI).sqrt(),
                dough_g_per_cm2: g_per_cm2,
            },
            Mode::Total => Pieces::Total {
                count,
                dough_g: bowl_g,
            },
            Mode::Flour => Pieces::Flour { count, flour_g },
            Mode::Pans => {
                // Three by four, as most trays are; the thickness takes up what is left.
                let thickness = g_per_cm2.clamp(0.4, 1.2);
                let long = (piece_g / thickness / 0.75)
                    .sqrt()
                    .clamp(8.0, 120.0)
                    .round();
                let wide = (0.75 * long).clamp(8.0, 120.0).round();
                Pieces::trays(count, long, wide, piece_g / (long * wide))
            }
        }
    }

    /// The field that says how many.
    pub fn count_field(&self) -> &'static str {
        match self {
            Pieces::Pans { .. } => "pieces.pans[0].count",
            _ => "pieces.count",
        }
    }

    pub(super) fn check_into(&self, c: &mut Check) {
        let count = |c: &mut Check, what: Fact, n: u32| {
            c.range(
                "pieces.count",
                what,
                f64::from(n),
                1.0,
                1000.0,
                Value::Number,
            );
        };
        let thickness = |c: &mut Check, field: &str, v: f64| {
            c.range(field, fact!("f-thickness"), v, 0.2, 2.0, Value::GramsPerCm2);
        };
        match self {
            Pieces::Balls { count: n, ball_g } => {
                count(c, fact!("f-balls"), *n);
                c.range(
                    "pieces.ball_g",
                    fact!("f-a-ball"),
                    *ball_g,
                    30.0,
                    2000.0,
                    Value::Grams,
                );
            }
            Pieces::Discs {
                count: n,
                diameter_cm,
                dough_g_per_cm2,
            } => {
                count(c, fact!("f-discs"), *n);
                c.range(
                    "pieces.diameter_cm",
                    fact!("f-a-disc"),
                    *diameter_cm,
                    8.0,
                    80.0,
                    Value::Cm,
                );
                thickness(c, "pieces.dough_g_per_cm2", *dough_g_per_cm2);
            }
            Pieces::Total { count: n, dough_g } => {
                count(c, fact!("f-pieces"), *n);
                c.range(
                    "pieces.dough_g",
                    fact!("f-dough"),
                    *dough_g,
                    50.0,
                    MOST_DOUGH_G,
                    Value::Grams,
                );
            }
            Pieces::Flour { count: n, flour_g } => {
                count(c, fact!("f-pieces"), *n);
                c.range(
                    "pieces.flour_g",
                    fact!("f-flour"),
                    *flour_g,
                    20.0,
                    250_000.0,
                    Value::Grams,
                );
            }
            Pieces::Pans { pans, balls } => check_pans(c, pans, *balls),
        }
    }
}

impl PanGroup {
    /// Dough in one pan, g.
    pub fn piece_g(&self) -> f64 {
        self.pan.area_cm2() * self.dough_g_per_cm2
    }
}

fn check_pans(c: &mut Check, pans: &[PanGroup], balls: Option<LooseBalls>) {
    if pans.is_empty() && balls.is_none() {
        c.refuse("pieces.pans", fact!("pan-or-balls"));
    }
    if pans.len() > MOST_KINDS {
        c.refuse("pieces.pans", fact!("pans-at-most", most = MOST_KINDS));
    }
    for (i, p) in pans.iter().enumerate() {
        let field = |name: &str| format!("pieces.pans[{i}].{name}");
        c.range(
            &field("count"),
            fact!("f-pans"),
            f64::from(p.count),
            1.0,
            200.0,
            Value::Number,
        );
        match p.pan {
            PanShape::Rectangle {
                length_cm,
                width_cm,
            } => {
                c.range(
                    &field("length_cm"),
                    fact!("f-pan-length"),
                    length_cm,
                    8.0,
                    120.0,
                    Value::Cm,
                );
                c.range(
                    &field("width_cm"),
                    fact!("f-pan-width"),
                    width_cm,
                    8.0,
                    120.0,
                    Value::Cm,
                );
            }
            PanShape::Round { diameter_cm } => {
                c.range(
                    &field("diameter_cm"),
                    fact!("f-pan-diameter"),
                    diameter_cm,
                    8.0,
                    80.0,
                    Value::Cm,
                );
            }
        }
        c.range(
            &field("dough_g_per_cm2"),
            fact!("f-thickness"),
            p.dough_g_per_cm2,
            0.2,
            2.0,
            Value::GramsPerCm2,
        );
    }
    if let Some(b) = balls {
        c.range(
            "pieces.balls.count",
            fact!("f-balls"),
            f64::from(b.count),
            1.0,
            1000.0,
            Value::Number,
        );
        c.range(
            "pieces.balls.ball_g",
            fact!("f-a-ball"),
            b.ball_g,
            30.0,
            2000.0,
            Value::Grams,
        );
    }
}
