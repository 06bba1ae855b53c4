//! Preferments: part of the flour that ferments before the dough is mixed, with its own water, yeast and hours.

use super::dose::{Dose, Yeast};
use super::scales::Scales;
use crate::fact;
use crate::fact::{Fact, Percent, Value, hours, tenth};
use crate::refusal::Check;
use crate::rise::DoughKind;
use crate::units::Grams;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// What a preferment is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum PrefermentKind {
    /// Liquid, of equal parts.
    Poolish,
    /// Stiff and shaggy, barely mixed.
    Biga,
    /// Fed from a jar of ripe starter.
    Levain,
    /// A piece kept back from an earlier dough; it brings salt too.
    OldDough,
    /// A maker's own.
    Own,
}

impl PrefermentKind {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            PrefermentKind::Poolish => fact!("poolish"),
            PrefermentKind::Biga => fact!("biga"),
            PrefermentKind::Levain => fact!("levain"),
            PrefermentKind::OldDough => fact!("old-dough"),
            PrefermentKind::Own => fact!("preferment"),
        }
    }
    /// Usual water, % of its flour (craft notes, section 2).
    pub fn usual_hydration(self) -> (f64, f64) {
        match self {
            PrefermentKind::Poolish => (95.0, 105.0),
            PrefermentKind::Biga => (44.0, 60.0),
            PrefermentKind::Levain => (45.0, 125.0),
            PrefermentKind::OldDough => (55.0, 80.0),
            PrefermentKind::Own => (40.0, 130.0),
        }
    }
    /// Usual share of the flour, %.
    pub fn usual_flour(self) -> (f64, f64) {
        match self {
            PrefermentKind::Poolish => (10.0, 50.0),
            PrefermentKind::Biga => (20.0, 100.0),
            PrefermentKind::Levain => (5.0, 35.0),
            PrefermentKind::OldDough => (5.0, 30.0),
            PrefermentKind::Own => (1.0, 100.0),
        }
    }
    /// Brought ripe from a jar or an earlier dough: recipes name it as one ingredient, so nominal hydration
    /// passes over its flour and water.
    pub fn is_brought_ripe(self) -> bool {
        matches!(self, PrefermentKind::Levain | PrefermentKind::OldDough)
    }
}

/// How a levain is fed.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct LevainFeed {
    /// Parts of flour to one part of ripe seed, 0.2 to 10; water follows the hydration.
    pub flour_parts: f64,
    /// Ripe levain kept back as seed for next time, 0 to 5000 g.
    #[serde(default)]
    pub keep_back_g: f64,
    /// A spare jar besides, 0 to 5000 g.
    #[serde(default)]
    pub spare_g: f64,
}

impl Default for LevainFeed {
    fn default() -> Self {
        LevainFeed {
            flour_parts: 2.0,
            keep_back_g: 20.0,
            spare_g: 0.0,
        }
    }
}

/// One preferment.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Preferment {
    /// What it is.
    pub kind: PrefermentKind,
    /// What the maker calls it; the kind's name when empty.
    #[serde(default)]
    pub name: String,
    /// Its flour, % of all flour.
    pub flour_percent: f64,
    /// Its water, 40 to 130 % of its own flour.
    pub hydration_percent: f64,
    /// 0 to 5 % of its own flour.
    #[serde(default)]
    pub salt_percent: f64,
    /// Of its own flour; a levain has none.
    #[serde(default)]
    pub yeast: Yeast,
    /// Which flours, % of its own flour in the order of the formula's; empty: the blend as it is.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub flours: Vec<f64>,
    /// Hours warm, 0 to 48, then hours in the fridge, 0 to 120.
    pub warm_h: f64,
    /// Then in the fridge, h.
    #[serde(default)]
    pub cold_h: f64,
    /// Where it stands warm, 2 to 40 °C; the room when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub warm_c: Option<f64>,
    /// How warm it leaves the bowl, 5 to 35 °C; as its place when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub target_c: Option<f64>,
    /// How its levain is fed for it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub feed: Option<LevainFeed>,
}

impl Preferment {
    /// A kind as it is usually made.
    pub fn usual(kind: PrefermentKind) -> Preferment {
        let (flour_percent, hydration_percent, warm_h, cold_h, warm_c) = match kind {
            PrefermentKind::Poolish => (30.0, 100.0, 12.0, 0.0, None),
            PrefermentKind::Biga => (50.0, 48.0, 18.0, 0.0, Some(18.0)),
            PrefermentKind::Levain => (15.0, 100.0, 4.0, 0.0, Some(25.0)),
            PrefermentKind::OldDough => (15.0, 62.0, 2.0, 20.0, None),
            PrefermentKind::Own => (20.0, 70.0, 10.0, 0.0, None),
        };
        Preferment {
            kind,
            name: String::new(),
            flour_percent,
            hydration_percent,
            salt_percent: if kind == PrefermentKind::OldDough {
                2.5
            } else {
                0.0
            },
            yeast: Yeast {
                dose: match kind {
                    PrefermentKind::Levain => Dose::None,
                    _ => Dose::Solve,
                },
                ..Yeast::default()
            },
            flours: vec![],
            warm_h,
            cold_h,
            warm_c,
            target_c: None,
            feed: (kind == PrefermentKind::Levain).then(LevainFeed::default),
        }
    }
    /// Its name, or the word for its kind.
    pub fn called(&self) -> Fact {
        if self.name.trim().is_empty() {
            self.kind.name()
        } else {
            Fact::as_written(self.name.trim())
        }
    }
    /// How warm it should leave the bowl, °C: what was asked, or as its first place.
    pub fn target(&self, room_c: f64) -> f64 {
        let place = self.warm_c.unwrap_or(room_c);
        self.target_c.unwrap_or(place).clamp(5.0, 35.0)
    }
    /// From its mixing to its use, h.
    pub fn hours(&self) -> f64 {
        self.warm_h + self.cold_h
    }
    /// What the rise model takes it for; one's own goes by how wet it is.
    pub fn rises_as(&self) -> DoughKind {
        match self.kind {
            PrefermentKind::Poolish => DoughKind::Poolish,
            PrefermentKind::Biga => DoughKind::Biga,
            PrefermentKind::Levain => DoughKind::Levain,
            PrefermentKind::OldDough => DoughKind::Dough,
            PrefermentKind::Own if self.hydration_percent >= 80.0 => DoughKind::Poolish,
            PrefermentKind::Own => DoughKind::Biga,
        }
    }
    /// Share of the seed's flour in the fed levain, 0 to 1.
    pub fn seed_share(&self) -> f64 {
        self.feed.map_or(0.0, |f| {
            let seed_flour = 1.0 / (1.0 + self.hydration_percent / 100.0);
            seed_flour / (seed_flour + f.flour_parts)
        })
    }

    pub(super) fn check_into(&self, c: &mut Check, path: &str, flours: usize) {
        let f = |name: &str| format!("{path}.{name}");
        let what = self.called();
        c.range(
            &f("flour_percent"),
            fact!("flour-in", name = what.clone()),
            self.flour_percent,
            0.5,
            100.0,
            Value::Percent,
        );
        c.range(
            &f("hydration_percent"),
            fact!("water-in", name = what.clone()),
            self.hydration_percent,
            40.0,
            130.0,
            Value::Percent,
        );
        c.range(
            &f("salt_percent"),
            fact!("salt-in", name = what.clone()),
            self.salt_percent,
            0.0,
            5.0,
            Value::Percent,
        );
        c.range(
            &f("warm_h"),
            fact!("warm-of", name = what.clone()),
            self.warm_h,
            0.0,
            48.0,
            hours,
        );
        c.range(
            &f("cold_h"),
            fact!("cold-of", name = what.clone()),
            self.cold_h,
            0.0,
            120.0,
            hours,
        );
        if self.hours() < 0.5 {
            c.refuse(
                &f("warm_h"),
                fact!("preferment-half-hour", name = what.clone()),
            );
        }
        if let Some(t) = self.warm_c {
            c.range(
                &f("warm_c"),
                fact!("stands-at", name = what.clone()),
                t,
                2.0,
                40.0,
                Value::Celsius,
            );
        }
        if let Some(t) = self.target_c {
            c.range(
                &f("target_c"),
                fact!("off-the-bowl", name = what.clone()),
                t,
                5.0,
                35.0,
                Value::Celsius,
            );
        }
        self.yeast.check_into(c, &f("yeast"));
        if self.kind == PrefermentKind::Levain && self.yeast.dose != Dose::None {
            c.refuse(&f("yeast"), fact!("levain-no-yeast"));
        }
        if let Some(feed) = self.feed {
            c.range(
                &f("feed.flour_parts"),
                fact!("f-flour-to-one-part-of-seed"),
                feed.flour_parts,
                0.2,
                10.0,
                Value::Number,
            );
            c.range(
                &f("feed.keep_back_g"),
                fact!("f-kept-back"),
                feed.keep_back_g,
                0.0,
                5000.0,
                Value::Grams,
            );
            c.range(
                &f("feed.spare_g"),
                fact!("f-spare-jar"),
                feed.spare_g,
                0.0,
                5000.0,
                Value::Grams,
            );
        }
        if self.kind == PrefermentKind::Levain && self.feed.is_none() {
            c.refuse(&f("feed.flour_parts"), fact!("say-feeding"));
        }
        if !self.flours.is_empty() {
            let sum: f64 = self.flours.iter().sum();
            if self.flours.len() != flours || self.flours.iter().any(|s| !(0.0..=100.0).contains(s))
            {
                c.refuse(&f("flours"), fact!("one-share-each", name = what.clone()));
            } else if (sum - 100.0).abs() > 0.05 {
                c.refuse(
                    &f("flours"),
                    fact!(
                        "flours-of-sum",
                        name = what.clone(),
                        sum = Percent(tenth(sum))
                    ),
                );
            }
        }
    }
}

/// What to weigh when a levain is fed, g.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct LevainBuild {
    /// Which preferment.
    pub of: usize,
    /// What it is called.
    pub name: Fact,
    /// Ripe levain to begin with, g.
    pub seed_g: f64,
    /// Flour to feed, g.
    pub flour_g: f64,
    /// Water to feed, g.
    pub water_g: f64,
    /// What that makes, g.
    pub total_g: f64,
    /// Goes into the dough.
    pub used_g: f64,
    /// Kept for the next time, g.
    pub kept_back_g: f64,
    /// Made besides, into a spare jar, g.
    pub spare_g: f64,
    /// As it is weighed: seed, each flour by its name, water; what the weighed parts make together.
    #[serde(default)]
    pub weigh: FeedWeighed,
}

/// A feeding on the scales at hand.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct FeedWeighed {
    /// Ripe levain, g.
    pub seed_g: f64,
    /// Each flour by its name, g.
    pub flours: Vec<(String, f64)>,
    /// Water, g.
    pub water_g: f64,
}

impl FeedWeighed {
    /// All its flour, g.
    pub fn flour_g(&self) -> f64 {
        self.flours.iter().map(|f| f.1).sum()
    }
    /// What the weighed parts make together, g.
    pub fn makes_g(&self) -> f64 {
        self.seed_g + self.flour_g() + self.water_g
    }
    /// What stays in the jar, g, once so much went into the dough: as weighed, so that a feeding adds up.
    pub fn stays_g(&self, goes_in_g: f64) -> f64 {
        (self.makes_g() - goes_in_g).max(0.0)
    }
    /// The flour of the feeding, each flour by its name where there are several.
    pub fn flour_fact(&self) -> Fact {
        let all = fact::weighed(self.flour_g());
        if self.flours.len() < 2 {
            return fact!("so-much-of", weight = all, what = fact!("flour"));
        }
        let each = self.flours.iter().map(|(name, g)| {
            let weight = fact::weighed(*g);
            fact!(
                "so-much-of",
                weight = weight,
                what = Fact::as_written(name.as_str())
            )
        });
        fact!("flours-of", weight = all, each = each.collect::<Vec<_>>())
    }
}

impl LevainBuild {
    /// The feeding that yields what goes into the dough and what is kept besides. `flours` are the names of the formula's
    /// flours with their shares in this levain; the seed counts as of the same flours.
    pub(super) fn of(
        index: usize,
        p: &Preferment,
        used_g: f64,
        flours: &[(String, f64)],
        scales: &Scales,
    ) -> Option<LevainBuild> {
        let feed = p.feed?;
        let total_g = used_g + feed.keep_back_g + feed.spare_g;
        let h = p.hydration_percent / 100.0;
        let seed_g = total_g / (1.0 + feed.flour_parts * (1.0 + h));
        let flour_g = seed_g * feed.flour_parts;
        let water_g = flour_g * h;
        let on_scale = |g: f64| Grams(g).on_scale(scales.for_g(g)).0;
        let whole: f64 = flours.iter().map(|f| f.1).sum();
        let weigh = FeedWeighed {
            seed_g: on_scale(seed_g),
            flours: flours
                .iter()
                .filter(|f| f.1 > 0.0)
                .map(|(name, share)| (name.clone(), on_scale(flour_g * share / whole)))
                .collect(),
            water_g: on_scale(water_g),
        };
        Some(LevainBuild {
            of: index,
            name: p.called(),
            seed_g,
            flour_g,
            water_g,
            total_g,
            used_g,
            kept_back_g: feed.keep_back_g,
            spare_g: feed.spare_g,
            weigh,
        })
    }

    /// As it is weighed; of a batch kept before this was noted, to the gram.
    pub fn weighed(&self) -> FeedWeighed {
        if self.weigh.flours.is_empty() {
            return FeedWeighed {
                seed_g: self.seed_g.round(),
                flours: vec![(String::new(), self.flour_g.round())],
                water_g: self.water_g.round(),
            };
        }
        self.weigh.clone()
    }
}
