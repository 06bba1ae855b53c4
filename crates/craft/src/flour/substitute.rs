//! Another flour in place of this one: which of what is in the pantry comes to the wanted figure?
//!
//! Input: the figure wanted (protein %, W or absorption %) and the flours at hand. Output: single flours that are
//! near enough and two-flour blends solved exactly (vital gluten is one of the flours), best first; when nothing
//! reaches it, the nearest one can get. With each, what will be different at the bench. Source: craft notes,
//! section 1.

use super::{Blend, FlourPart, blend};
use crate::fact;
use crate::fact::{Fact, Percent, Value, tenth, whole};
use crate::refusal::{Check, ValidationError};
use serde::{Deserialize, Serialize};

/// What the blend must come to.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "of", rename_all = "snake_case", deny_unknown_fields)]
pub enum Target {
    /// 7 to 18 %.
    Protein {
        /// Of the flour, %.
        percent: f64,
    },
    /// 80 to 450.
    Strength {
        /// W.
        w: f64,
    },
    /// 45 to 80 %.
    Absorption {
        /// Of the flour, %.
        percent: f64,
    },
}

impl Target {
    fn value(self) -> f64 {
        match self {
            Target::Protein { percent } | Target::Absorption { percent } => percent,
            Target::Strength { w } => w,
        }
    }
    /// The figure of a flour, where it is known.
    fn of(self, flour: &FlourPart) -> Option<f64> {
        match self {
            Target::Protein { .. } => flour.facts.protein_percent,
            Target::Strength { .. } => Some(flour.facts.strength().w),
            Target::Absorption { .. } => flour.facts.absorption_percent,
        }
    }
    /// So near is as good as reached: finer than any bag states it.
    fn close(self) -> f64 {
        match self {
            Target::Protein { .. } => 0.05,
            Target::Strength { .. } => 2.0,
            Target::Absorption { .. } => 0.2,
        }
    }
    fn check(self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        match self {
            Target::Protein { percent } => {
                c.range(
                    "percent",
                    fact!("f-protein"),
                    percent,
                    7.0,
                    18.0,
                    Value::Percent,
                );
            }
            Target::Strength { w } => {
                c.range("w", fact!("f-strength-w"), w, 80.0, 450.0, Value::Number)
            }
            Target::Absorption { percent } => {
                c.range(
                    "percent",
                    fact!("f-absorption"),
                    percent,
                    45.0,
                    80.0,
                    Value::Percent,
                );
            }
        }
        c.done()
    }
}

/// Which flour in place of which.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct SubstituteRequest {
    /// What the blend should come to.
    pub target: Target,
    /// What there is; shares are not looked at.
    pub at_hand: Vec<FlourPart>,
    /// The blend that is stood in for, so that differences can be said.
    #[serde(default)]
    pub instead_of: Vec<FlourPart>,
}

/// Answers a [`SubstituteRequest`].
///
/// Errors: as [`substitutes`]; also at `at_hand` for facts outside their ranges.
pub fn substitute(r: &SubstituteRequest) -> Result<Substitutes, ValidationError> {
    let mut c = Check::new();
    for (list, flours) in [("at_hand", &r.at_hand), ("instead_of", &r.instead_of)] {
        if flours.len() > MOST_FLOURS {
            c.refuse(list, fact!("flours-at-most", most = MOST_FLOURS));
        }
        for (i, f) in flours.iter().enumerate() {
            f.facts.check_into(&mut c, &format!("{list}[{i}].facts"));
        }
    }
    c.done()?;
    let old = (!r.instead_of.is_empty()).then(|| blend(&r.instead_of));
    substitutes(r.target, &r.at_hand, old.as_ref()).map_err(|e| {
        if e.0[0].field == "flours" {
            e
        } else {
            e.below("target")
        }
    })
}

/// More flours than any pantry has.
const MOST_FLOURS: usize = 200;

/// One way to get there.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct SubstituteBlend {
    /// One or two flours with shares that sum to 100.
    pub flours: Vec<FlourPart>,
    /// What it comes to.
    pub blend: Blend,
    /// Off the target by so much, in its unit; 0 where it is reached.
    pub off: f64,
    /// What will be different from the flour that it stands in for.
    pub differs: Vec<Fact>,
}

/// What can be done about a target.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Substitutes {
    /// Whether any way meets the target.
    pub reached: bool,
    /// Best first; when nothing reaches the target, the nearest alone.
    pub ways: Vec<SubstituteBlend>,
    /// The answer in one sentence.
    pub says: Fact,
}

/// At most so many ways are worth reading.
const MOST_WAYS: usize = 5;

/// Finds stand-ins for `instead_of` among `at_hand`.
///
/// Errors: [`ValidationError`] when the target is outside its range or no flour at hand has the figure.
pub fn substitutes(
    target: Target,
    at_hand: &[FlourPart],
    instead_of: Option<&Blend>,
) -> Result<Substitutes, ValidationError> {
    target.check()?;
    let known: Vec<(&FlourPart, f64)> = at_hand
        .iter()
        .filter_map(|f| Some((f, target.of(f)?)))
        .collect();
    if known.is_empty() {
        return Err(ValidationError::one(
            "flours",
            fact!("no-flour-with-figure"),
        ));
    }
    let wanted = target.value();
    let mut ways: Vec<SubstituteBlend> = Vec::new();
    for (f, v) in &known {
        if (v - wanted).abs() <= target.close() {
            ways.push(way(target, &[(f, 100.0)], instead_of));
        }
    }
    for (i, (a, va)) in known.iter().enumerate() {
        for (b, vb) in &known[i + 1..] {
            let between = (va - wanted) * (vb - wanted) < 0.0;
            let alone =
                (va - wanted).abs() <= target.close() || (vb - wanted).abs() <= target.close();
            if between && !alone {
                // The blend equation: share of the first so that the mean is the target.
                let share = 100.0 * (wanted - vb) / (va - vb);
                ways.push(way(target, &[(a, share), (b, 100.0 - share)], instead_of));
            }
        }
    }
    let reached = !ways.is_empty();
    if !reached {
        let nearest = known
            .iter()
            .min_by(|x, y| (x.1 - wanted).abs().total_cmp(&(y.1 - wanted).abs()));
        if let Some((f, _)) = nearest {
            ways.push(way(target, &[(f, 100.0)], instead_of));
        }
    }
    ways.sort_by(|x, y| strangeness(x, instead_of).total_cmp(&strangeness(y, instead_of)));
    ways.truncate(MOST_WAYS);
    let says = if reached {
        fact!(
            "target-reached",
            target = words(target),
            flours = name_of(&ways[0])
        )
    } else {
        fact!(
            "target-not-reached",
            target = words(target),
            flours = name_of(&ways[0]),
            off = ways[0].off.abs()
        )
    };
    Ok(Substitutes {
        reached,
        ways,
        says,
    })
}

fn words(t: Target) -> Fact {
    match t {
        Target::Protein { percent } => fact!("target-protein", share = Percent(percent)),
        Target::Strength { w } => fact!("target-w", w = w),
        Target::Absorption { percent } => fact!("target-absorption", share = Percent(percent)),
    }
}

fn name_of(way: &SubstituteBlend) -> Value {
    way.flours
        .iter()
        .map(|f| match way.flours.len() {
            1 => Fact::as_written(f.name.as_str()),
            _ => fact!(
                "share-of-flour",
                share = Percent(tenth(f.share_percent)),
                name = f.name.as_str()
            ),
        })
        .collect::<Vec<_>>()
        .into()
}

fn way(
    target: Target,
    shares: &[(&FlourPart, f64)],
    instead_of: Option<&Blend>,
) -> SubstituteBlend {
    let flours: Vec<FlourPart> = shares
        .iter()
        .map(|(f, share)| FlourPart {
            share_percent: *share,
            ..(*f).clone()
        })
        .collect();
    let value = flours
        .iter()
        .map(|f| target.of(f).unwrap_or(0.0) * f.share_percent / 100.0)
        .sum::<f64>();
    let blend = blend(&flours);
    let off = value - target.value();
    SubstituteBlend {
        differs: instead_of.map_or(vec![], |old| differences(old, &blend)),
        off: if off.abs() < 1e-9 { 0.0 } else { off },
        blend,
        flours,
    }
}

/// How unlike the old flour a way is, over all figures: W in steps of 30, protein in points, absorption in 2 %,
/// whole grain in 20 %. One flour is preferred to two that are equally alike.
fn strangeness(way: &SubstituteBlend, old: Option<&Blend>) -> f64 {
    let simple = 0.01 * way.flours.len() as f64;
    let Some(old) = old else { return simple };
    let far = |a: Option<f64>, b: Option<f64>, step: f64| match (a, b) {
        (Some(a), Some(b)) => (a - b).abs() / step,
        _ => 0.0,
    };
    (way.blend.w - old.w).abs() / 30.0
        + far(way.blend.protein_percent, old.protein_percent, 1.0)
        + far(way.blend.absorption_percent, old.absorption_percent, 2.0)
        + (way.blend.whole_percent - old.whole_percent).abs() / 20.0
        + simple
}

/// What a change of flour does at the bench, in words.
pub fn differences(old: &Blend, new: &Blend) -> Vec<Fact> {
    let mut out = Vec::new();
    let dw = new.w - old.w;
    if dw <= -25.0 {
        out.push(fact!("differs-weaker", w = whole(-dw)));
    } else if dw >= 25.0 {
        out.push(fact!("differs-stronger", w = whole(dw)));
    }
    if let (Some(a), Some(b)) = (old.absorption_percent, new.absorption_percent) {
        let d = b - a;
        if d <= -1.0 {
            out.push(fact!("differs-less-water", share = Percent(tenth(-d))));
        } else if d >= 1.0 {
            out.push(fact!("differs-more-water", share = Percent(tenth(d))));
        }
    }
    if let (Some(a), Some(b)) = (old.protein_percent, new.protein_percent) {
        if b - a >= 1.0 {
            out.push(fact!("differs-more-protein"));
        } else if b - a <= -1.0 {
            out.push(fact!("differs-less-protein"));
        }
    }
    let d = new.whole_percent - old.whole_percent;
    if d >= 10.0 {
        out.push(fact!("differs-more-bran"));
    } else if d <= -10.0 {
        out.push(fact!("differs-less-bran"));
    }
    if out.is_empty() {
        out.push(fact!("differs-hardly"));
    }
    out
}
