//! The first plan: the style that is liked, the oven that there is, the next evening that the hours leave free.

use super::oven::fire;
use super::told::Beginning;
use crate::fire::{FireChoice, Oven};
use crate::formula::{Dose, Formula};
use crate::refusal::ValidationError;
use crate::sheet::life::{LifeFitRequest, fit};
use crate::sheet::{SheetRequest, SheetResult, hours, work_out};
use crate::style::Style;
use jiff::civil::Time;
use jiff::tz::TimeZone;
use jiff::{Timestamp, ToSpan, Zoned};

/// A plan that can be started as it stands.
#[derive(Debug, Clone)]
pub struct FirstPlan {
    /// What is made.
    pub style: &'static Style,
    /// What it is baked in.
    pub oven: Oven,
    /// The dough with its fire.
    pub request: SheetRequest,
    /// All that follows from it.
    pub result: SheetResult,
    /// Whether its steps keep the hours that were said.
    pub keeps_hours: bool,
}

/// When people eat.
const EVENING: Time = Time::constant(19, 30, 0, 0);
/// Nobody begins within the hour, h.
const EARLIEST_H: f64 = 1.0;
/// So many evenings are looked at.
const EVENINGS: i32 = 7;
/// A first dough lies cold over one night, not over three, h.
const MOST_COLD_H: f64 = 24.0;

/// The dough of a style as a first one: by its own shares, one night in the cold at most, solved for its hour.
fn formula(style: &Style) -> Formula {
    let mut f = Formula::of_style(style);
    f.cold_h = f.cold_h.min(MOST_COLD_H);
    f.yeast.dose = Dose::Solve;
    f
}

/// The evenings from now on, the next one first.
fn evenings(now: &Zoned) -> impl Iterator<Item = Timestamp> {
    let now = now.clone();
    (0..EVENINGS).filter_map(move |day| {
        let date = now.date().checked_add(day.days()).ok()?;
        let at = date
            .to_datetime(EVENING)
            .to_zoned(now.time_zone().clone())
            .ok()?;
        Some(at.timestamp())
    })
}

/// The same dough along other legs.
fn along(r: &SheetRequest, life: &crate::sheet::life::Life) -> Option<SheetRequest> {
    let asked = LifeFitRequest {
        request: r.clone(),
        life: life.clone(),
    };
    let best = fit(&asked).ok()?.plans.into_iter().next()?;
    let mut out = r.clone();
    for (p, h) in out
        .formula
        .preferments
        .iter_mut()
        .zip(&best.preferment_warm_h)
    {
        p.warm_h = *h;
    }
    out.formula = out.formula.on_path(best.legs);
    Some(out)
}

/// The first plan from what was said, seen from `now`; guesses stand where nothing was said.
///
/// Errors: what was said outside its range, at its field.
pub fn first_plan(
    b: &Beginning,
    oven_name: &str,
    now: Timestamp,
) -> Result<FirstPlan, ValidationError> {
    let usual = b.usual();
    usual.check()?;
    let style = b.style();
    let oven = b.oven_as(b.bakes_in(), oven_name);
    let zone = TimeZone::get(&usual.time_zone).unwrap_or(TimeZone::UTC);
    let life = b.life.clone().unwrap_or_default();
    let at = |serve_at: Timestamp| {
        SheetRequest::of(formula(style), &usual, serve_at).with(|r| {
            r.formula.mixer = b.mixer();
            r.now_at = Some(now);
            r.life = life.clone();
        })
    };
    let reachable: Vec<Timestamp> = evenings(&now.to_zoned(zone))
        .filter(|t| at(*t).start_at() >= now + hours(EARLIEST_H))
        .collect();
    // Evenings one after the other, until one leaves the hours free.
    let free = match life.is_empty() {
        true => None,
        false => reachable.iter().find_map(|t| along(&at(*t), &life)),
    };
    let keeps_hours = free.is_some() || life.is_empty();
    let last = now + hours(48.0);
    let request = free.unwrap_or_else(|| at(reachable.first().copied().unwrap_or(last)));
    let weighed = work_out(&request)?;
    let Some(portion) = weighed.formula.main_portion() else {
        return Err(ValidationError::one(
            "likes",
            crate::fact!("no-pieces-to-begin-with"),
        ));
    };
    let room = (usual.room_c, usual.altitude_m);
    let plan = fire(&request.formula, portion, &oven, room)?;
    let fire = FireChoice::of(plan, None, 1, usual.room_c)?;
    let request = request.with(|r| r.fire = Some(Box::new(fire)));
    let result = work_out(&request)?;
    Ok(FirstPlan {
        style,
        oven,
        request,
        result,
        keeps_hours,
    })
}

#[cfg(test)]
mod tests {
    use super::super::{BakesIn, FridgeTold, oven_seen};
    use super::*;
    use crate::keyed::Keyed;
    use crate::sheet::life::{Life, spans};

    const NOW: &str = "2026-11-24T20:14:00Z";

    fn told() -> Beginning {
        Beginning {
            time_zone: "Europe/London".into(),
            ..Beginning::default()
        }
    }

    #[test]
    fn a_plan_stands_before_anything_was_said() {
        let now: Timestamp = NOW.parse().unwrap();
        let p = first_plan(&told(), "My oven", now).unwrap();
        assert_eq!(p.style.key, "home_round");
        assert!(p.request.start_at() > now);
        assert!(p.keeps_hours);
        assert!(p.result.window.is_some(), "it can be ready");
        let fire = p.request.fire.unwrap();
        assert_eq!(fire.plan.oven.name, "My oven");
    }

    #[test]
    fn its_steps_keep_the_hours_that_were_said() {
        let now: Timestamp = NOW.parse().unwrap();
        let life = Life {
            quiet: spans("23:00-07:00").unwrap(),
            busy: spans("Mon-Fri 09:00-17:00").unwrap(),
        };
        let b = Beginning {
            life: Some(life.clone()),
            bakes_in: Some(BakesIn::HomeSteel),
            most_c: Some(275.0),
            fridge: Some(FridgeTold::Measured(4.0)),
            ..told()
        };
        let p = first_plan(&b, "x", now).unwrap();
        assert!(p.keeps_hours);
        assert_eq!(p.request.fridge_c, 4.0);
        let zone = TimeZone::get("Europe/London").unwrap();
        let hands = p.result.steps.iter().filter(|s| s.hands_on_min > 0.0);
        for s in hands.filter(|s| s.at < p.request.serve_at) {
            assert!(life.away(s.at, &zone).is_none(), "{:?} at {}", s.kind, s.at);
        }
    }

    #[test]
    fn each_kind_of_oven_bakes_its_own_style_and_a_hotter_one_sooner() {
        let mut times = vec![];
        for &kind in BakesIn::ALL {
            let b = Beginning {
                bakes_in: Some(kind),
                ..told()
            };
            let seen = oven_seen(&b, kind).unwrap();
            assert!((40..1500).contains(&seen.bake_s), "{kind:?} {seen:?}");
            times.push((kind, seen.bake_s));
            first_plan(&b, "x", NOW.parse().unwrap()).unwrap();
        }
        let of = |k| times.iter().find(|t| t.0 == k).unwrap().1;
        assert!(of(BakesIn::Dome).max(of(BakesIn::Portable)) < of(BakesIn::Deck));
        assert!(of(BakesIn::Deck) < of(BakesIn::HomeSteel));
        assert!(of(BakesIn::HomeSteel) < of(BakesIn::HomeTray));
        // A cooler one of the same kind takes longer.
        let at = |c| {
            let b = Beginning {
                bakes_in: Some(BakesIn::HomeSteel),
                most_c: Some(c),
                ..told()
            };
            oven_seen(&b, BakesIn::HomeSteel).unwrap().bake_s
        };
        assert!(at(230.0) > at(280.0));
        assert!(
            first_plan(
                &Beginning {
                    most_c: Some(3000.0),
                    ..told()
                },
                "x",
                NOW.parse().unwrap()
            )
            .is_err()
        );
    }
}
