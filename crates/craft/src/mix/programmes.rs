//! Programmes of mixing as data: who suits this dough and these tools, and what it becomes in grams.
//!
//! The table is `programmes.json`: steps with shares of the recipe, cues that end them, what dough they fit, their limits and
//! hazards. A kitchen's own have the same shape. Source: mixing and shaping, section 5; craft notes, section 3.

use super::{BowlItem, BowlPart, BowlStep, Mixer, Mixing, Speed};
use crate::fact;
use crate::fact::Fact;
use crate::refusal::{Check, ValidationError};
use serde::{Deserialize, Serialize};
use std::sync::LazyLock;

/// What one step of a programme puts in, as shares of the recipe.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(default, deny_unknown_fields)]
pub struct MixShares {
    /// Of the flour that is not in a preferment.
    pub flour: f64,
    /// Of the water that is not in a preferment.
    pub water: f64,
    /// Of the salt; oil goes with it.
    pub salt: f64,
    /// Of the yeast.
    #[serde(rename = "yeast")]
    pub leaven: f64,
    /// Of the preferments.
    pub preferment: f64,
}

/// One step of a programme.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct ProgrammeStep {
    /// What to do.
    pub say: Fact,
    /// What ends it: the minutes only propose.
    pub cue: Fact,
    /// How fast.
    pub speed: Speed,
    /// How long it usually takes.
    pub minutes: f64,
    /// What goes in at its start.
    #[serde(default)]
    pub add: MixShares,
    /// Hands that only stir.
    #[serde(default)]
    pub stir: bool,
    /// Slap and fold.
    #[serde(default)]
    pub slap: bool,
}

/// What dough a programme suits; what is not said is not judged.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(default, deny_unknown_fields)]
pub struct ProgrammeFits {
    /// Water, % of the flour.
    pub water: Option<[f64; 2]>,
    /// Strength of the flour, W.
    pub w: Option<[f64; 2]>,
    /// How full the mixer is.
    pub fill: Option<[f64; 2]>,
    /// Dough, kg.
    pub kg: Option<[f64; 2]>,
}

/// A hazard of the work, said where it applies.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum MixHazard {
    /// A bowl that turns.
    TurningBowl,
    /// A blade.
    Blade,
    /// A motor that gets hot.
    MotorHeat,
    /// A mixer that walks off.
    WalksOff,
    /// Water that splashes.
    Splash,
    /// Flour in the air.
    FlourDust,
    /// A heavy load.
    Lifting,
    /// Boiling water.
    Scald,
    /// Wrists that tire.
    Wrists,
    /// Raw flour.
    RawFlour,
    /// Ice in lumps.
    CrushedIce,
}

impl MixHazard {
    /// The usual caution, short.
    pub fn caution(self) -> Fact {
        match self {
            MixHazard::TurningBowl => fact!("hazard-turning-bowl"),
            MixHazard::Blade => fact!("hazard-blade"),
            MixHazard::MotorHeat => fact!("hazard-motor-heat"),
            MixHazard::WalksOff => fact!("hazard-walks-off"),
            MixHazard::Splash => fact!("hazard-splash"),
            MixHazard::FlourDust => fact!("hazard-flour-dust"),
            MixHazard::Lifting => fact!("hazard-lifting"),
            MixHazard::Scald => fact!("hazard-scald"),
            MixHazard::Wrists => fact!("hazard-wrists"),
            MixHazard::RawFlour => fact!("hazard-raw-flour"),
            MixHazard::CrushedIce => fact!("hazard-crushed-ice"),
        }
    }
}

/// A way to mix a dough, step by step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct MixProgramme {
    /// Its name for programs.
    pub key: String,
    /// What it is called.
    pub name: Fact,
    /// The tool that it is for.
    pub kind: Mixer,
    /// Usual minutes of work: from, to.
    pub work_min: [f64; 2],
    /// What dough it suits.
    pub fits: ProgrammeFits,
    /// Styles that are usually mixed so, the most usual first.
    #[serde(default)]
    pub styles: Vec<String>,
    /// More minutes of work than this are too many.
    pub most_work_min: f64,
    /// The dough at the end, °C: from, to.
    pub dough_c: [f64; 2],
    /// Hazards of the work.
    #[serde(default)]
    pub hazards: Vec<MixHazard>,
    /// In their order.
    pub steps: Vec<ProgrammeStep>,
}

static SHIPPED: LazyLock<Vec<MixProgramme>> = LazyLock::new(|| {
    serde_json::from_str(include_str!("programmes.json")).expect("programmes.json holds programmes")
});

/// The programmes that ship with the product.
pub fn programmes() -> &'static [MixProgramme] {
    &SHIPPED
}

/// The dough and the tool that a programme is judged for.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DoughToMix {
    /// Water, % of all flour.
    pub hydration_percent: f64,
    /// Strength of the flour, W.
    pub w: f64,
    /// Dough of one run, kg.
    pub dough_kg: f64,
    /// How full the mixer is; by hand it is not asked.
    pub fill: f64,
}

/// How well a programme suits a dough.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum ProgrammeFit {
    /// It does.
    Fits,
    /// With care.
    WithCare,
    /// It is not for this.
    NotForThis,
}

impl MixProgramme {
    /// How far the dough lies outside of what the programme is for; 0 within.
    pub fn misfit(&self, dough: &DoughToMix) -> f64 {
        let off = |range: Option<[f64; 2]>, x: f64, span: f64| {
            range.map_or(0.0, |[low, high]| (low - x).max(x - high).max(0.0) / span)
        };
        off(self.fits.water, dough.hydration_percent, 5.0)
            + off(self.fits.w, dough.w, 60.0)
            + off(self.fits.fill, dough.fill, 0.2)
            + off(self.fits.kg, dough.dough_kg, 1.5)
    }
    /// The misfit in words.
    pub fn fit(&self, dough: &DoughToMix) -> ProgrammeFit {
        match self.misfit(dough) {
            m if m <= 1e-9 => ProgrammeFit::Fits,
            m if m <= 1.0 => ProgrammeFit::WithCare,
            _ => ProgrammeFit::NotForThis,
        }
    }

    /// Refuses what is no programme.
    ///
    /// Errors: [`ValidationError`] where steps lack, or their shares do not add up.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        let whole = |f: fn(&MixShares) -> f64| self.steps.iter().map(|s| f(&s.add)).sum::<f64>();
        let shares = [whole(|a| a.flour), whole(|a| a.water), whole(|a| a.salt)];
        let negative = self.steps.iter().any(|s| {
            let a = s.add;
            [a.flour, a.water, a.salt, a.leaven, a.preferment]
                .iter()
                .any(|v| *v < 0.0 || !v.is_finite())
        });
        if negative || shares.iter().any(|s| (s - 1.0).abs() > 1e-6) {
            c.refuse("steps", fact!("mix-shares-add-up"));
        }
        c.done()
    }
}

/// The programmes for the tools at hand, the best for this dough first, with their misfit.
///
/// Of equals the style's own come first, then the order of the table.
pub fn fitting<'a>(
    all: &'a [MixProgramme],
    tools: &[Mixer],
    style: Option<&str>,
    dough: &DoughToMix,
) -> Vec<(&'a MixProgramme, f64)> {
    let of_style = |p: &MixProgramme| match style {
        Some(style) => p
            .styles
            .iter()
            .position(|s| s == style)
            .unwrap_or(usize::MAX),
        None => 0,
    };
    let owned = all.iter().filter(|p| tools.contains(&p.kind));
    let mut out: Vec<(&MixProgramme, f64)> = owned.map(|p| (p, p.misfit(dough))).collect();
    out.sort_by(|a, b| {
        a.1.total_cmp(&b.1)
            .then_with(|| of_style(a.0).cmp(&of_style(b.0)))
    });
    out
}

/// A preferment that goes into the bowl.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct PrefermentIn {
    /// How much, g.
    pub weight_g: f64,
    /// How warm, °C.
    pub temp_c: f64,
    /// Its water, % of its flour.
    pub hydration_percent: f64,
}

/// What one run of a mixer takes, and how warm it is.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(default, deny_unknown_fields)]
pub struct MixRecipe {
    /// Flour that is in no preferment, g.
    pub flour_g: f64,
    /// How warm it is, °C.
    pub flour_c: f64,
    /// Water that is in no preferment, g.
    pub water_g: f64,
    /// Salt, g.
    pub salt_g: f64,
    /// Oil, g.
    pub oil_g: f64,
    /// Sugar, malt, g.
    pub sugar_g: f64,
    /// As warm as the room, °C: oil, and what is not said otherwise.
    pub room_c: f64,
    /// Water that holds a dissolved dose and goes in with the first of it, g.
    pub aside_g: f64,
    /// How warm that is, °C.
    pub aside_c: f64,
    /// Ripe preferments.
    pub preferments: Vec<PrefermentIn>,
}

/// Staged water: with the first part all flour in the bowl, a preferment's too, has so much, %.
const FIRST_PART_PERCENT: f64 = 56.0;

/// The name of a part of the water, from 1.
pub fn water_part(n: usize) -> String {
    format!("water {n}")
}

impl MixRecipe {
    /// All of it, g.
    pub fn dough_g(&self) -> f64 {
        let preferments: f64 = self.preferments.iter().map(|p| p.weight_g).sum();
        self.flour_g
            + self.water_g
            + self.aside_g
            + self.salt_g
            + self.oil_g
            + self.sugar_g
            + preferments
    }

    /// How the water is shared out among the steps that pour some: as the programme says, but with enough in the first part.
    fn water_shares(&self, programme: &MixProgramme) -> Vec<f64> {
        let mut shares: Vec<f64> = programme.steps.iter().map(|s| s.add.water).collect();
        let parts = shares.iter().filter(|s| **s > 0.0).count();
        let Some(first) = shares.iter().position(|s| *s > 0.0) else {
            return shares;
        };
        if parts < 4 || self.water_g <= 0.0 {
            return shares;
        }
        let (mut flour, mut wet) = (self.flour_g, 0.0);
        for p in &self.preferments {
            let f = p.weight_g / (1.0 + p.hydration_percent / 100.0);
            flour += f;
            wet += p.weight_g - f;
        }
        let least = ((FIRST_PART_PERCENT / 100.0 * flour - wet) / self.water_g).clamp(0.0, 1.0);
        if least <= shares[first] {
            return shares;
        }
        let others = (parts - 1) as f64;
        for (i, s) in shares.iter_mut().enumerate() {
            if i == first {
                *s = least;
            } else if *s > 0.0 {
                *s = (1.0 - least) / others;
            }
        }
        shares
    }

    /// The programme's steps with this recipe's grams; parts of the water are named, the first `water 1`.
    pub fn laid(
        &self,
        programme: &MixProgramme,
        capacity_kg: Option<f64>,
        bowl_c: Option<f64>,
    ) -> Mixing {
        let shares = self.water_shares(programme);
        let has_preferment_step = programme.steps.iter().any(|s| s.add.preferment > 0.0);
        let mut part = 0;
        let mut first_flour = true;
        let steps = programme.steps.iter().zip(shares).map(|(s, water)| {
            let mut step = BowlStep {
                speed: s.speed,
                minutes: s.minutes,
                add: vec![],
                ice_bath: false,
                stir: s.stir,
                slap: s.slap,
            };
            let mut put = |what, g: f64, c| {
                if g > 0.0 {
                    step.add.push(BowlItem::of(what, g, c));
                }
            };
            let wets = s.add.flour > 0.0 || s.add.preferment > 0.0;
            let with_first = wets && std::mem::take(&mut first_flour);
            if with_first {
                // Salt and sugar stand beside the flour.
                put(BowlPart::Sugar, self.sugar_g, self.flour_c);
                put(BowlPart::Water, self.aside_g, self.aside_c);
            }
            put(BowlPart::Flour, s.add.flour * self.flour_g, self.flour_c);
            put(BowlPart::Salt, s.add.salt * self.salt_g, self.flour_c);
            put(BowlPart::Oil, s.add.salt * self.oil_g, self.room_c);
            let share = match has_preferment_step {
                true => s.add.preferment,
                // A programme that knows of none takes them with the first flour.
                false => f64::from(u8::from(with_first)),
            };
            for p in self.preferments.iter().filter(|_| share > 0.0) {
                let mut item = BowlItem::of(BowlPart::Preferment, share * p.weight_g, p.temp_c);
                item.hydration_percent = p.hydration_percent;
                step.add.push(item);
            }
            if water * self.water_g > 0.0 {
                part += 1;
                let item = BowlItem::of(BowlPart::Water, water * self.water_g, 0.0);
                step.add.push(item.named(&water_part(part)));
            }
            step
        });
        Mixing {
            kind: programme.kind,
            capacity_kg,
            room_c: self.room_c,
            bowl_c,
            plain: false,
            steps: steps.collect(),
            from: None,
        }
    }
}
