//! What a formula is.

use super::dose::{Dose, Doses, Yeast};
use super::extra::Extra;
use super::preferment::Preferment;
use super::size::Pieces;
use crate::flour::FlourPart;
use crate::mix::Mixer;
use crate::path::Leg;
use crate::style::Style;
use crate::style::topping::ToppingPart;
use serde::{Deserialize, Serialize};

/// What the stated hydration counts.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum HydrationCounts {
    /// All water over all flour, wherever they are.
    #[default]
    True,
    /// As a recipe says it: without the flour and water of ripe starter or old dough, and without the water in
    /// honey, milk and the like.
    Nominal,
}

/// All that a maker decides about a dough, whenever it is served.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Formula {
    /// The key of a style that ships with the product, or a whole style.
    #[serde(deserialize_with = "crate::style::named_or_whole")]
    #[cfg_attr(feature = "schema", schemars(with = "crate::style::NamedOrWhole"))]
    pub style: Style,
    /// What is made of it, and how much.
    pub pieces: Pieces,
    /// Dough that stays on bowl and hands, 0 to 10 % of the pieces.
    #[serde(default)]
    pub loss_percent: f64,
    /// One to eight; shares sum to 100.
    pub flours: Vec<FlourPart>,
    /// Water, 40 to 130 % of the flour.
    pub hydration_percent: f64,
    /// What the stated water counts.
    #[serde(default)]
    pub hydration_counts: HydrationCounts,
    /// 0 to 5 %.
    pub salt_percent: f64,
    /// 0 to 20 %.
    #[serde(default)]
    pub oil_percent: f64,
    /// 0 to 20 %.
    #[serde(default)]
    pub sugar_percent: f64,
    /// What else is in the dough.
    #[serde(default)]
    pub extras: Vec<Extra>,
    /// In the final dough; with preferments this is the second dose.
    #[serde(default)]
    pub yeast: Yeast,
    /// At most three.
    #[serde(default)]
    pub preferments: Vec<Preferment>,
    /// What goes on it.
    #[serde(default)]
    pub toppings: Vec<ToppingPart>,
    /// Sauce first, out when the rim takes colour, then cheese and back.
    #[serde(default)]
    pub double_bake: bool,
    /// It came from cups and spoons: every weight is rough until it was weighed once.
    #[serde(default)]
    pub from_volumes: bool,
    /// How it is mixed.
    #[serde(default = "by_hand")]
    pub mixer: Mixer,
    /// Wanted temperature off the mixer, 5 to 35 °C.
    #[serde(default = "usual_dough_c")]
    pub target_dough_c: f64,
    /// Hours in the room before balling or before the fridge, 0.25 to 48.
    #[serde(default = "usual_bulk_h")]
    pub bulk_h: f64,
    /// Hours in the fridge, 0 to 168.
    #[serde(default)]
    pub cold_h: f64,
    /// Hours in the room before the bake, 0.5 to 24.
    #[serde(default = "usual_temper_h")]
    pub temper_h: f64,
    /// The way from the mixer to the oven where it is another than bulk, cold and temper, whose hours then say nothing.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub legs: Vec<Leg>,
    /// The name of the method that it follows.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<String>,
}

fn usual_dough_c() -> f64 {
    23.0
}
fn usual_bulk_h() -> f64 {
    2.0
}
fn usual_temper_h() -> f64 {
    4.0
}
fn by_hand() -> Mixer {
    Mixer::Hand
}

impl Formula {
    /// A style's sensible values.
    pub fn of_style(style: &Style) -> Formula {
        Formula {
            pieces: style.pieces.clone(),
            loss_percent: style.loss_percent,
            flours: vec![FlourPart::only(style.flour_w)],
            hydration_percent: style.hydration_percent,
            hydration_counts: HydrationCounts::True,
            salt_percent: style.salt_percent,
            oil_percent: style.oil_percent,
            sugar_percent: style.sugar_percent,
            extras: style.extras.clone(),
            yeast: Yeast {
                form: style.yeast_form,
                dose: style.dose,
            },
            preferments: style.preferments.clone(),
            toppings: style.toppings.clone(),
            double_bake: false,
            from_volumes: false,
            mixer: Mixer::Hand,
            target_dough_c: style.target_dough_c,
            bulk_h: style.bulk_h,
            cold_h: style.cold_h,
            temper_h: style.temper_h,
            legs: vec![],
            method: None,
            style: style.clone(),
        }
    }
    /// Puts a single flour of a strength in place of the blend.
    pub fn on_flour_w(mut self, w: f64) -> Formula {
        self.flours = vec![FlourPart::only(w)];
        self
    }
    /// Hours from the mixer to the serve time.
    pub fn total_h(&self) -> f64 {
        if self.legs.is_empty() {
            self.bulk_h + self.cold_h + self.temper_h
        } else {
            self.legs.iter().map(|l| l.hours).sum()
        }
    }
    /// Hours that the longest preferment stands before mixing, 0 without one.
    pub fn longest_preferment_h(&self) -> f64 {
        self.preferments
            .iter()
            .map(|p| p.hours())
            .fold(0.0, f64::max)
    }
    /// Whether most of the dough is baked in pans.
    pub fn in_pans(&self) -> bool {
        self.pieces.in_pans(self.style.in_pans())
    }
    /// Sugar that yeast can use, % of the flour, wherever it comes from.
    pub fn sugars_percent(&self) -> f64 {
        self.sugar_percent + self.of_extras(|e| e.amount * e.kind.sugar_share())
    }
    /// Fat, % of the flour, wherever it comes from.
    pub fn fats_percent(&self) -> f64 {
        self.oil_percent + self.of_extras(|e| e.amount * e.kind.fat_share())
    }
    fn of_extras(&self, v: impl Fn(&Extra) -> f64) -> f64 {
        self.extras.iter().map(v).sum()
    }
}

impl Doses {
    /// What the formula itself states; what is to be solved counts as none.
    pub fn stated(f: &Formula) -> Doses {
        let of = |dose| match dose {
            Dose::Given { percent } => percent,
            Dose::Solve | Dose::None => 0.0,
        };
        Doses {
            dough: of(f.yeast.dose),
            preferments: f.preferments.iter().map(|p| of(p.yeast.dose)).collect(),
        }
    }
    pub(super) fn none(f: &Formula) -> Doses {
        Doses {
            dough: 0.0,
            preferments: vec![0.0; f.preferments.len()],
        }
    }
}
