//! What stands where: every ingredient in % of all flour, for each preferment and for the final dough.

use super::dose::Doses;
use super::formula::{Formula, HydrationCounts};
use crate::fact;
use crate::fact::{Percent, tenth, whole};
use crate::refusal::Check;

/// The percentages of one stage, of all flour of the formula.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct StageParts {
    /// In the order of the formula's flours.
    pub flours: Vec<f64>,
    pub water: f64,
    pub salt: f64,
    pub oil: f64,
    pub sugar: f64,
    /// In the order of the formula's extras.
    pub extras: Vec<f64>,
    pub yeast: f64,
}

impl StageParts {
    pub fn sum(&self) -> f64 {
        self.flours.iter().sum::<f64>()
            + self.water
            + self.salt
            + self.oil
            + self.sugar
            + self.extras.iter().sum::<f64>()
            + self.yeast
    }
}

/// All stages: preferments in their order, the final dough last.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct FormulaParts {
    pub stages: Vec<StageParts>,
    /// Water over flour, %, counting everything.
    pub true_hydration: f64,
    /// As a recipe says it.
    pub nominal_hydration: f64,
}

impl FormulaParts {
    pub fn sum(&self) -> f64 {
        self.stages.iter().map(StageParts::sum).sum()
    }
    /// One figure over all stages.
    pub fn total(&self, of: impl Fn(&StageParts) -> f64) -> f64 {
        self.stages.iter().map(of).sum()
    }
}

/// Water in % of all flour: what the formula wants, what is poured as water, and what comes hidden.
struct Water {
    /// All that is poured, in whichever stage.
    poured: f64,
    /// In honey, milk and the like.
    hidden: f64,
    /// In ripe starter and old dough, and their flour.
    ripe_water: f64,
    ripe_flour: f64,
    /// Flour in dried mother.
    dried: f64,
}

fn water(f: &Formula) -> Water {
    let hidden: f64 = f
        .extras
        .iter()
        .map(|e| e.amount * e.kind.water_share())
        .sum();
    let ripe = f.preferments.iter().filter(|p| p.kind.is_brought_ripe());
    let (mut ripe_flour, mut ripe_water) = (0.0, 0.0);
    for p in ripe {
        ripe_flour += p.flour_percent;
        ripe_water += p.flour_percent * p.hydration_percent / 100.0;
    }
    // Dried mother is flour that was dried: its dose goes by the poured water, and it counts as flour.
    let per_litre: f64 = f
        .extras
        .iter()
        .filter(|e| e.kind == super::ExtraKind::DriedMother)
        .map(|e| e.amount / 1000.0)
        .sum();
    let h = f.hydration_percent / 100.0;
    let poured = match f.hydration_counts {
        // poured + hidden = h × (100 + per_litre × poured)
        HydrationCounts::True => (100.0 * h - hidden) / (1.0 - h * per_litre),
        HydrationCounts::Nominal => h * (100.0 - ripe_flour) + ripe_water,
    };
    Water {
        poured,
        hidden,
        ripe_water,
        ripe_flour,
        dried: per_litre * poured,
    }
}

/// What remains for the final dough must not be negative.
pub(super) fn check_into(f: &Formula, c: &mut Check) {
    let w = water(f);
    let flour: f64 = f.preferments.iter().map(|p| p.flour_percent).sum();
    if flour > 100.0 + 1e-9 {
        let last = f.preferments.len() - 1;
        return c.refuse(
            &format!("preferments[{last}].flour_percent"),
            fact!("preferments-hold-too-much", share = Percent(tenth(flour))),
        );
    }
    let brought: f64 = f
        .preferments
        .iter()
        .map(|p| p.flour_percent * p.hydration_percent / 100.0)
        .sum();
    if brought > w.poured + 1e-9 {
        let wettest = (0..f.preferments.len())
            .max_by(|&a, &b| {
                let of =
                    |i: usize| f.preferments[i].flour_percent * f.preferments[i].hydration_percent;
                of(a).total_cmp(&of(b))
            })
            .unwrap_or(0);
        let p = &f.preferments[wettest];
        return c.refuse(
            &format!("preferments[{wettest}].flour_percent"),
            fact!(
                "preferment-too-wet",
                name = p.called(),
                brings = Percent(tenth(brought)),
                wanted = Percent(tenth(w.poured))
            ),
        );
    }
    let salt: f64 = f
        .preferments
        .iter()
        .map(|p| p.flour_percent * p.salt_percent / 100.0)
        .sum();
    if salt > f.salt_percent + 1e-9 {
        c.refuse(
            "salt_percent",
            fact!(
                "preferments-too-salty",
                share = Percent((salt * 100.0).round() / 100.0)
            ),
        );
    }
    let stages = parts(f, &Doses::none(f)).stages;
    if let Some(last) = stages.last() {
        for (i, left) in last.flours.iter().enumerate() {
            if *left < -0.05 {
                let name = &f.flours[i].name;
                c.refuse(
                    &format!("flours[{i}].share_percent"),
                    fact!(
                        "preferments-take-more",
                        share = Percent(tenth(-left)),
                        name = name.as_str()
                    ),
                );
            }
        }
    }
    let true_percent = (w.poured + w.hidden) / (100.0 + w.dried) * 100.0;
    if !(30.0..=150.0).contains(&true_percent) || !(0.0..=150.0).contains(&w.poured) {
        c.refuse(
            "hydration_percent",
            fact!("too-wet-in-all", share = Percent(whole(true_percent))),
        );
    }
}

/// Spreads a checked formula over its stages.
pub(super) fn parts(f: &Formula, doses: &Doses) -> FormulaParts {
    let w = water(f);
    let blend: Vec<f64> = f.flours.iter().map(|x| x.share_percent).collect();
    let whole: f64 = blend.iter().sum();
    let mut stages: Vec<StageParts> = f
        .preferments
        .iter()
        .zip(&doses.preferments)
        .map(|(p, yeast)| {
            let share = |i: usize| match p.flours.get(i) {
                Some(s) => s / 100.0,
                None => blend[i] / whole,
            };
            StageParts {
                flours: (0..blend.len())
                    .map(|i| p.flour_percent * share(i))
                    .collect(),
                water: p.flour_percent * p.hydration_percent / 100.0,
                salt: p.flour_percent * p.salt_percent / 100.0,
                oil: 0.0,
                sugar: 0.0,
                extras: vec![0.0; f.extras.len()],
                yeast: p.flour_percent * yeast / 100.0,
            }
        })
        .collect();
    let before = |of: &dyn Fn(&StageParts) -> f64| stages.iter().map(of).sum::<f64>();
    let near_nothing = |v: f64| if v.abs() < 1e-9 { 0.0 } else { v };
    let rest = StageParts {
        flours: (0..blend.len())
            // Shares that sum to 99.97 are scaled to 100: the base of all percentages.
            .map(|i| near_nothing(blend[i] * 100.0 / whole - before(&|p| p.flours[i])))
            .collect(),
        water: near_nothing(w.poured - before(&|p| p.water)),
        salt: near_nothing(f.salt_percent - before(&|p| p.salt)),
        oil: f.oil_percent,
        sugar: f.sugar_percent,
        extras: f.extras.iter().map(|e| e.percent(w.poured)).collect(),
        yeast: doses.dough,
    };
    stages.push(rest);
    let nominal = match f.hydration_counts {
        HydrationCounts::Nominal => f.hydration_percent,
        HydrationCounts::True if w.ripe_flour >= 100.0 => f.hydration_percent,
        HydrationCounts::True => (w.poured - w.ripe_water) / (100.0 - w.ripe_flour) * 100.0,
    };
    FormulaParts {
        stages,
        true_hydration: (w.poured + w.hidden) / (100.0 + w.dried) * 100.0,
        nominal_hydration: nominal,
    }
}
