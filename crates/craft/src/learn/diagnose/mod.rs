//! Diagnose: which single mishap explains what was seen of this batch, with what would have been otherwise.
//!
//! | module | answers |
//! |---|---|
//! | `cause` | what can go wrong, and what leads the same way |
//! | `dough`, `evidence` | how well each cause fits what was seen of the dough |
//! | `bake` | the same of the oven |
//! | `verdict` | how much of that may be said |
//!
//! Nothing here says "because": what is named fits. Source: learning, section 9.

mod bake;
mod cause;
mod dough;
mod evidence;
mod verdict;
mod words;

pub use bake::{BakedAs, CameOut};
pub use cause::{Cause, CauseGroup, LookNext};
pub use verdict::{MayBeSaid, SHOWN};

use super::answer::card_of;
use super::card::Card;
use super::channel::Offsets;
use super::fit::{Covariance, Posterior, Whose, used};
use super::observed::LoggedBatch;
use super::personal::Personal;
use crate::fire::{BakeRequest, Targets};
use crate::refusal::ValidationError;
use crate::rise::{Label, RiseRequest};
use bake::BakeCase;
pub(crate) use bake::came_out;
use dough::{Case, shift_of};
use serde::{Deserialize, Serialize};
use verdict::{Ranked, verdict};

/// A batch to explain, among the others of its kitchen.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct DiagnoseRequest {
    /// All other batches.
    #[serde(default)]
    pub batches: Vec<LoggedBatch>,
    /// The one to explain.
    pub this: LoggedBatch,
    /// Its dough as it was planned, where it was run otherwise.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub planned: Option<RiseRequest>,
    /// Its bake with the true settings and the oven's own factors.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bake: Option<BakeRequest>,
    /// What is right for it; that of its aim when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub targets: Option<Targets>,
    /// Seconds in the oven; absent: as long as is best by the model, and not timed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub out_s: Option<f64>,
    /// How it came out.
    #[serde(default)]
    pub verdict: BakedAs,
}

/// How a dough would have stood at opening.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct DoughStood {
    /// Ripeness as this maker counts it, 1 ready.
    pub ripeness: f64,
    /// Gluten reserve, 1 falling to 0 and below.
    pub reserve: f64,
    /// In one word.
    pub label: Label,
}

/// What would have been with a cause, beside what the plan says.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Otherwise {
    /// Of a dough.
    Dough {
        /// Had it been so.
        so: DoughStood,
        /// As planned.
        planned: DoughStood,
    },
    /// Of a bake.
    Bake {
        /// Had it been so.
        so: CameOut,
        /// As set.
        planned: CameOut,
    },
}

/// How well a cause fits one of the things that were seen.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum FitsSeen {
    /// It would be seen so more often than not.
    Fits,
    /// Sometimes.
    Partly,
    /// Seldom.
    Not,
}

impl FitsSeen {
    fn of(chance: f64) -> FitsSeen {
        if chance >= 0.5 {
            FitsSeen::Fits
        } else if chance >= 0.2 {
            FitsSeen::Partly
        } else {
            FitsSeen::Not
        }
    }
}

/// One cause of a diagnosis.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct PossibleCause {
    /// What it is.
    pub cause: Cause,
    /// What leads the same way.
    pub group: CauseGroup,
    /// Its share, 0 to 1; the whole ranking sums to 1.
    pub share: f64,
    /// It was noted: no "perhaps".
    pub is_known: bool,
    /// How far off it fits best: K, ln of a factor, h, or a factor, by the cause.
    pub level: f64,
    /// What would have been; absent for those that are never shown.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub counterfactual: Option<Otherwise>,
    /// How well it fits what was seen: of a dough by the place in `observed`, of a bake 0 base, 1 top, 2 wet.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub fits: Vec<(usize, FitsSeen)>,
}

/// What can be said of one part.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Diagnosis {
    /// How much may be said.
    pub say: MayBeSaid,
    /// Of which of `ranking` it is said.
    pub of: Vec<usize>,
    /// All causes, the likeliest first.
    pub ranking: Vec<PossibleCause>,
    /// The one thing to look at next time.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ask: Option<LookNext>,
}

/// What can be said of a batch; a part without symptoms is absent.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Diagnosed {
    /// Of its dough.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dough: Option<Diagnosis>,
    /// Of its bake.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bake: Option<Diagnosis>,
}

/// Sugar that is left when a dough's sugars count as spent, mmol per kg flour: free, and still bound.
const SPENT: (f64, f64) = (15.0, 100.0);

/// Explains a batch.
///
/// Errors: [`ValidationError`] with the fields outside their ranges.
pub fn diagnose(r: &DiagnoseRequest) -> Result<Diagnosed, ValidationError> {
    let cards: Vec<Card> = r.batches.iter().map(card_of).collect();
    diagnose_with(r, &cards)
}

/// The same with the cards of all other batches.
pub fn diagnose_with(r: &DiagnoseRequest, cards: &[Card]) -> Result<Diagnosed, ValidationError> {
    r.this.check().map_err(|e| e.below("this"))?;
    for (i, b) in r.batches.iter().enumerate() {
        b.check().map_err(|e| e.below(&format!("batches[{i}]")))?;
    }
    if let Some(p) = &r.planned {
        p.check(true).map_err(|e| e.below("planned"))?;
    }
    if let Some(b) = &r.bake {
        b.check().map_err(|e| e.below("bake"))?;
    }
    let of_dough = dough::has_symptoms(&r.this);
    let (mean, covariance) = if of_dough {
        before(r, cards)
    } else {
        // The bake alone asks nothing of the kitchen.
        let prior = Posterior::empty();
        let among = r.this.among();
        let whose = Whose {
            among: &among,
            logged: None,
        };
        (
            prior.mean(&among, None),
            prior.covariance(&whose, &whose, true),
        )
    };
    Ok(Diagnosed {
        dough: of_dough.then(|| dough_of(r, &mean, &covariance)),
        bake: bake_of(r),
    })
}

/// What all other batches say of this one.
fn before(r: &DiagnoseRequest, cards: &[Card]) -> (Offsets, Covariance) {
    let used = used(&r.batches);
    let batches: Vec<LoggedBatch> = used.iter().map(|&i| r.batches[i].clone()).collect();
    let of_used: Vec<&Card> = used.iter().map(|&i| &cards[i]).collect();
    let posterior = Posterior::of(&batches, &of_used);
    let among = r.this.among();
    let whose = Whose {
        among: &among,
        logged: None,
    };
    (
        posterior.mean(&among, None),
        posterior.covariance(&whose, &whose, true),
    )
}

fn stood(r: &RiseRequest, q: &Offsets, at_h: f64) -> DoughStood {
    let run = Personal::to(r, q, at_h);
    let m = run.at(at_h);
    DoughStood {
        ripeness: run.ripeness_at(at_h),
        reserve: run.reserve(m),
        label: run.label(m, 0.0),
    }
}

fn dough_of(r: &DiagnoseRequest, p: &Offsets, s: &Covariance) -> Diagnosis {
    let case = Case::of(&r.this);
    let ranked = case.ranked(r.planned.as_ref(), p, s);
    let opened = r.this.opened_h();
    let planned = stood(&r.this.dough, p, opened);
    tell(ranked, |cause| {
        let so = match cause.cause {
            // Known: as it was, beside as it would have been by the plan.
            Cause::Late | Cause::Early if cause.is_known => Otherwise::Dough {
                so: planned,
                planned: stood(&r.this.dough, p, r.this.dough.total_hours()),
            },
            Cause::Stages | Cause::Dose => Otherwise::Dough {
                so: planned,
                planned: r
                    .planned
                    .as_ref()
                    .map_or(planned, |plan| stood(plan, p, plan.total_hours())),
            },
            Cause::Late | Cause::Early => Otherwise::Dough {
                so: stood(&r.this.dough, p, (opened + cause.level).max(0.0)),
                planned,
            },
            other => Otherwise::Dough {
                so: stood(&r.this.dough, &shift_of(other, cause.level, p), opened),
                planned,
            },
        };
        let fits = case
            .chances(&shift_of(cause.cause, cause.level, p))
            .into_iter()
            .map(|(n, chance)| (n, FitsSeen::of(chance)))
            .collect();
        (Some(so), fits)
    })
}

fn bake_of(r: &DiagnoseRequest) -> Option<Diagnosis> {
    let bake = r.bake.as_ref()?;
    if !r.verdict.has_symptoms() {
        return None;
    }
    let targets = r.targets.unwrap_or(bake.aim.targets());
    let out_s = r.out_s.unwrap_or_else(|| {
        crate::fire::bake(bake)
            .ok()
            .and_then(|course| crate::fire::race(bake, &course, &targets))
            .map_or(bake.aim.usual_s(), |race| race.best_s)
    });
    let end = Personal::to(&r.this.dough, &super::fit::NOTHING, r.this.opened_h());
    let sugars = end.at(r.this.opened_h());
    let case = BakeCase {
        bake: bake.clone(),
        targets,
        out_s,
        timed: r.out_s.is_some(),
        said: &r.verdict,
        spent: sugars.sugar < SPENT.0 && sugars.bound_sugar < SPENT.1,
    };
    let ranked = case.ranked()?;
    let planned = case.with(Cause::Ordinary, 0.0)?;
    Some(tell(ranked, |cause| {
        let Some(so) = case.with(cause.cause, cause.level) else {
            return (None, vec![]);
        };
        let fits = bake::chances(&r.verdict, &so, &targets)
            .into_iter()
            .enumerate()
            .filter_map(|(n, chance)| Some((n, FitsSeen::of(chance?))))
            .collect();
        (Some(Otherwise::Bake { so, planned }), fits)
    }))
}

/// A ranking as it is answered; what would have been is worked out only for what may be shown.
fn tell(
    ranked: Vec<Ranked>,
    otherwise: impl Fn(&Ranked) -> (Option<Otherwise>, Vec<(usize, FitsSeen)>),
) -> Diagnosis {
    let verdict = verdict(&ranked);
    let ranking = ranked
        .iter()
        .map(|r| {
            let (counterfactual, fits) = if r.cause != Cause::Ordinary && r.share >= SHOWN {
                otherwise(r)
            } else {
                (None, vec![])
            };
            PossibleCause {
                cause: r.cause,
                group: r.group,
                share: r.share,
                is_known: r.is_known,
                level: r.level,
                counterfactual,
                fits,
            }
        })
        .collect();
    Diagnosis {
        say: verdict.say,
        of: verdict.of,
        ranking,
        ask: verdict.ask,
    }
}
