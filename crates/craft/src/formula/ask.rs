//! What a formula is, and which ones are refused.

use super::extra::Extra;
use super::preferment::Preferment;
use super::size::Pieces;
use crate::flour::FlourPart;
use crate::leaven::YeastForm;
use crate::mix::Mixer;
use crate::path::Leg;
use crate::refusal::{Check, Refused, plain};
use crate::style::Style;
use crate::style::topping::ToppingPart;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// Names may be so long.
const LONGEST_NAME: usize = 80;
const MOST_FLOURS: usize = 8;
const MOST_EXTRAS: usize = 16;
const MOST_PREFERMENTS: usize = 3;
const MOST_TOPPINGS: usize = 20;

/// How much yeast.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum Dose {
    /// As much as makes it ripe in its hours.
    #[default]
    Solve,
    None,
    /// % of the flour it stands on: all flour for the dough, its own for a preferment.
    Given {
        percent: f64,
    },
}

/// Yeast in a form.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct Yeast {
    pub form: YeastForm,
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
                "%",
            );
        }
    }
}

/// What the stated hydration counts.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
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
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct Formula {
    /// The key of a style that ships with the product, or a whole style.
    #[serde(deserialize_with = "crate::style::named_or_whole")]
    #[schemars(with = "crate::style::NamedOrWhole")]
    pub style: Style,
    pub pieces: Pieces,
    /// Dough that stays on bowl and hands, 0 to 10 % of the pieces.
    #[serde(default)]
    pub loss_percent: f64,
    /// One to eight; shares sum to 100.
    pub flours: Vec<FlourPart>,
    /// Water, 40 to 130 % of the flour.
    pub hydration_percent: f64,
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
    #[serde(default)]
    pub extras: Vec<Extra>,
    /// In the final dough; with preferments this is the second dose.
    #[serde(default)]
    pub yeast: Yeast,
    /// At most three.
    #[serde(default)]
    pub preferments: Vec<Preferment>,
    #[serde(default)]
    pub toppings: Vec<ToppingPart>,
    /// Sauce first, out when the rim takes colour, then cheese and back.
    #[serde(default)]
    pub double_bake: bool,
    /// It came from cups and spoons: every weight is rough until it was weighed once.
    #[serde(default)]
    pub from_volumes: bool,
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

    /// Adds everything that is wrong with this formula.
    pub fn check_into(&self, c: &mut Check) {
        self.pieces.check_into(c);
        c.range("loss_percent", "Loss", self.loss_percent, 0.0, 10.0, "%");
        c.percentages(
            self.hydration_percent,
            self.salt_percent,
            self.sugar_percent,
            self.oil_percent,
        );
        self.check_flours(c);
        self.check_extras(c);
        self.yeast.check_into(c, "yeast");
        self.check_preferments(c);
        if self.toppings.len() > MOST_TOPPINGS {
            c.refuse(
                "toppings",
                format!("At most {MOST_TOPPINGS} toppings on one sheet."),
            );
        }
        for (i, t) in self.toppings.iter().enumerate() {
            named(c, &format!("toppings[{i}].name"), &t.name);
            c.range(
                &format!("toppings[{i}].g_per_disc"),
                "Topping on a 30 cm disc",
                t.g_per_disc,
                0.0,
                500.0,
                "g",
            );
        }
        c.range(
            "target_dough_c",
            "Dough off the mixer",
            self.target_dough_c,
            5.0,
            35.0,
            "°C",
        );
        c.range("bulk_h", "Bulk", self.bulk_h, 0.25, 48.0, "h");
        c.range("cold_h", "Cold", self.cold_h, 0.0, 168.0, "h");
        c.range("temper_h", "Before the bake", self.temper_h, 0.5, 24.0, "h");
        crate::path::check_into(self, c);
        self.style.check_into(c);
        if c.is_clean() {
            super::parts::check_into(self, c);
        }
    }

    fn check_flours(&self, c: &mut Check) {
        if self.flours.is_empty() {
            return c.refuse("flours", "A dough needs flour: name at least one.");
        }
        if self.flours.len() > MOST_FLOURS {
            return c.refuse(
                "flours",
                format!("At most {MOST_FLOURS} flours in one blend."),
            );
        }
        for (i, f) in self.flours.iter().enumerate() {
            named(c, &format!("flours[{i}].name"), &f.name);
            c.range(
                &format!("flours[{i}].share_percent"),
                "Share",
                f.share_percent,
                0.0,
                100.0,
                "%",
            );
            f.facts.check_into(c, &format!("flours[{i}].facts"));
        }
        let sum: f64 = self.flours.iter().map(|f| f.share_percent).sum();
        let in_range = self
            .flours
            .iter()
            .all(|f| (0.0..=100.0).contains(&f.share_percent));
        if in_range && (sum - 100.0).abs() > 0.05 {
            let sum = plain((sum * 10.0).round() / 10.0);
            c.refuse("flours", format!("The flours sum to {sum} %, not 100."));
        }
    }

    fn check_extras(&self, c: &mut Check) {
        if self.extras.len() > MOST_EXTRAS {
            return c.refuse(
                "extras",
                format!(
                    "At most {MOST_EXTRAS} ingredients besides flour, water, salt, oil, sugar and yeast; these are {}.",
                    self.extras.len()
                ),
            );
        }
        for (i, e) in self.extras.iter().enumerate() {
            if e.name.chars().count() > LONGEST_NAME {
                named(c, &format!("extras[{i}].name"), &e.name);
            }
            c.range(
                &format!("extras[{i}].amount"),
                e.called(),
                e.amount,
                0.0,
                e.kind.most(),
                e.kind.unit(),
            );
        }
    }

    fn check_preferments(&self, c: &mut Check) {
        if self.preferments.len() > MOST_PREFERMENTS {
            return c.refuse(
                "preferments",
                format!("At most {MOST_PREFERMENTS} preferments in one dough."),
            );
        }
        for (i, p) in self.preferments.iter().enumerate() {
            if p.name.chars().count() > LONGEST_NAME {
                named(c, &format!("preferments[{i}].name"), &p.name);
            }
            p.check_into(c, &format!("preferments[{i}]"), self.flours.len());
        }
    }

    /// Refuses what is outside its range.
    pub fn check(&self) -> Result<(), Refused> {
        let mut c = Check::new();
        self.check_into(&mut c);
        c.done()
    }
}

/// A name that is there and not too long.
fn named(c: &mut Check, field: &str, name: &str) {
    let length = name.chars().count();
    if name.trim().is_empty() {
        c.refuse(field, "A name is missing.");
    } else if length > LONGEST_NAME {
        c.refuse(
            field,
            format!("A name holds up to {LONGEST_NAME} letters; this has {length}."),
        );
    }
}
