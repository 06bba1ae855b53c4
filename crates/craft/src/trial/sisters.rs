//! The doughs of a trial, made from one: a single thing varied, all else held, and what follows worked out anew.

use super::design::MOST_ARMS;
use crate::fact;
use crate::fact::{Fact, Percent, hours, tenth};
use crate::flour::FlourPart;
use crate::formula::Formula;
use crate::refusal::ValidationError;
use crate::sheet::SheetRequest;
use crate::units::Celsius;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// What can be varied by a number.
#[derive(
    Debug,
    Clone,
    Copy,
    PartialEq,
    Eq,
    Serialize,
    Deserialize,
    EnumString,
    IntoStaticStr,
    VariantArray,
)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[strum(serialize_all = "snake_case")]
pub enum Varied {
    /// Hours in the cold.
    ColdHours,
    /// Water, % of the flour.
    Water,
    /// Salt, %.
    Salt,
    /// Oil, %.
    Oil,
    /// Sugar, %.
    Sugar,
    /// Dough off the mixer, °C.
    DoughTemperature,
    /// The flour; its values are flours, not numbers.
    Flour,
}

impl Varied {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            Varied::ColdHours => fact!("varied-cold-hours"),
            Varied::Water => fact!("f-water"),
            Varied::Salt => fact!("f-salt"),
            Varied::Oil => fact!("f-oil"),
            Varied::Sugar => fact!("f-sugar"),
            Varied::DoughTemperature => fact!("f-dough-off-the-mixer"),
            Varied::Flour => fact!("apart-flours"),
        }
    }
    /// A value of it.
    pub fn said(self, value: f64) -> Fact {
        match self {
            Varied::ColdHours => fact!("just", value = hours(value)),
            Varied::DoughTemperature => fact!("just", value = Celsius(tenth(value))),
            _ => fact!("just", value = Percent(tenth(value))),
        }
    }
    /// The value of a formula; nothing where it has none.
    pub fn of(self, f: &Formula) -> Option<f64> {
        Some(match self {
            Varied::ColdHours => f.path().iter().find(|l| l.spot.is_cold())?.hours,
            Varied::Water => f.hydration_percent,
            Varied::Salt => f.salt_percent,
            Varied::Oil => f.oil_percent,
            Varied::Sugar => f.sugar_percent,
            Varied::DoughTemperature => f.target_dough_c,
            Varied::Flour => return None,
        })
    }
    /// Puts a value into a formula.
    pub fn put(self, f: &mut Formula, value: f64) {
        match self {
            Varied::ColdHours if f.legs.is_empty() => f.cold_h = value,
            Varied::ColdHours => {
                // The longest leg in the cold is the one that is meant.
                let cold = f.legs.iter_mut().filter(|l| l.spot.is_cold());
                if let Some(leg) = cold.max_by(|a, b| a.hours.total_cmp(&b.hours)) {
                    leg.hours = value;
                    leg.least_h = leg.least_h.min(value);
                    leg.most_h = leg.most_h.max(value);
                }
            }
            Varied::Water => f.hydration_percent = value,
            Varied::Salt => f.salt_percent = value,
            Varied::Oil => f.oil_percent = value,
            Varied::Sugar => f.sugar_percent = value,
            Varied::DoughTemperature => f.target_dough_c = value,
            Varied::Flour => {}
        }
    }
}

/// By what doughs differ, where it is one thing that has numbers, with the number of each.
pub fn varied_in(doughs: &[&Formula]) -> Option<(Varied, Vec<f64>)> {
    let mut differs = <Varied as crate::keyed::Keyed>::ALL.iter().filter_map(|v| {
        let all: Vec<f64> = doughs.iter().filter_map(|f| v.of(f)).collect();
        let apart = all.len() == doughs.len() && all.windows(2).any(|w| w[0] != w[1]);
        apart.then_some((*v, all))
    });
    let first = differs.next()?;
    differs.next().is_none().then_some(first)
}

/// Sister doughs: the same request once for each value, with so many pieces each where that is said; with what each is.
///
/// Errors: field `values` where there are too few or too many, two are one, or the formula has nothing of the kind to vary.
pub fn sisters(
    of: &SheetRequest,
    varied: Varied,
    values: &[f64],
    each: Option<u32>,
) -> Result<Vec<(Fact, SheetRequest)>, ValidationError> {
    let refused = |message: Fact| Err(ValidationError::one("values", message));
    count_fits(values.len())?;
    if let Some(i) = (1..values.len()).find(|i| values[..*i].contains(&values[*i])) {
        return refused(fact!("trial-value-twice", value = varied.said(values[i])));
    }
    if varied == Varied::ColdHours
        && !of.formula.legs.is_empty()
        && varied.of(&of.formula).is_none()
    {
        return refused(fact!("trial-nothing-cold"));
    }
    Ok(values
        .iter()
        .map(|v| {
            let mut r = of.clone();
            varied.put(&mut r.formula, *v);
            (varied.said(*v), so_many(r, each))
        })
        .collect())
}

/// Sister doughs of one flour each; each takes the place of all flour of the dough.
///
/// Errors: as of [`sisters`].
pub fn sisters_of_flour(
    of: &SheetRequest,
    flours: &[FlourPart],
    each: Option<u32>,
) -> Result<Vec<(Fact, SheetRequest)>, ValidationError> {
    count_fits(flours.len())?;
    Ok(flours
        .iter()
        .map(|flour| {
            let mut r = of.clone();
            r.formula.flours = vec![FlourPart {
                share_percent: 100.0,
                ..flour.clone()
            }];
            (Fact::as_written(flour.name.clone()), so_many(r, each))
        })
        .collect())
}

fn count_fits(n: usize) -> Result<(), ValidationError> {
    match (2..=MOST_ARMS).contains(&n) {
        true => Ok(()),
        false => Err(ValidationError::one(
            "values",
            fact!("trial-arms", n = n, most = MOST_ARMS),
        )),
    }
}

fn so_many(mut r: SheetRequest, each: Option<u32>) -> SheetRequest {
    if let Some(n) = each {
        r.formula.pieces = r.formula.pieces.so_many(n);
    }
    r
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::formula::Dose;
    use crate::sheet::apart::apart;
    use crate::sheet::work_out;

    fn dough() -> SheetRequest {
        let style = crate::style::by_key("hot_round").unwrap();
        let kitchen = crate::sheet::KitchenUsual {
            time_zone: "Europe/London".into(),
            altitude_m: 0.0,
            room_c: 21.0,
            fridge_c: 5.0,
            tap_water_c: 12.0,
            scales: crate::formula::Scales::default(),
        };
        let serve_at = "2026-11-27T19:00:00Z".parse().unwrap();
        let mut r = SheetRequest::of_style(style, &kitchen, serve_at);
        r.formula.yeast.dose = Dose::Solve;
        r
    }

    #[test]
    fn sisters_differ_in_the_one_thing_and_their_doses_follow() {
        for (varied, values) in [
            (Varied::ColdHours, [24.0, 40.0, 64.0]),
            (Varied::Water, [60.0, 65.0, 70.0]),
            (Varied::Salt, [2.0, 2.5, 3.0]),
        ] {
            let all = sisters(&dough(), varied, &values, Some(4)).unwrap();
            let worked: Vec<_> = all.iter().map(|(_, r)| (r, work_out(r).unwrap())).collect();
            let refs: Vec<_> = worked.iter().map(|(r, s)| (*r, s)).collect();
            let a = apart(&refs);
            assert_eq!(a.chosen.len(), 1, "{varied:?} {:?}", a.chosen);
            for (_, s) in &worked {
                assert_eq!(s.formula.pieces, 4);
                // Ripe at one and the same hour; whether its flour lasts so long is for its judgements.
                assert!((s.rise_at_serve - 100.0).abs() < 1.0, "{varied:?}");
            }
        }
    }

    #[test]
    fn by_what_sisters_differ_is_found_again() {
        let all = sisters(&dough(), Varied::Salt, &[2.0, 2.5], None).unwrap();
        let formulas: Vec<&Formula> = all.iter().map(|(_, r)| &r.formula).collect();
        assert_eq!(varied_in(&formulas), Some((Varied::Salt, vec![2.0, 2.5])));
        assert_eq!(varied_in(&formulas[..1]), None);
    }

    #[test]
    fn one_value_two_of_the_same_and_five_are_no_trial() {
        for values in [&[65.0][..], &[65.0, 65.0], &[60.0, 61.0, 62.0, 63.0, 64.0]] {
            assert!(
                sisters(&dough(), Varied::Water, values, None).is_err(),
                "{values:?}"
            );
        }
    }
}
