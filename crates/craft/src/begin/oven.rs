//! The oven as it was said, and how it stands for what is baked in it.

use super::bakes_in::BakesIn;
use super::told::Beginning;
use crate::fact;
use crate::fire::FirePlan;
use crate::fire::of_formula;
use crate::fire::oven::Oven;
use crate::fire::set_points::solve_plan;
use crate::formula::{Formula, Portion};
use crate::refusal::ValidationError;

impl Beginning {
    /// The oven as it was said, in a kind; under a name that its owner can change.
    pub fn oven_as(&self, kind: BakesIn, name: &str) -> Oven {
        let told = kind == self.bakes_in();
        let mut o = kind.of_the_book().clone();
        o.key = String::new();
        o.name = name.into();
        if let Some(c) = self.most_c.filter(|_| told) {
            let cooler = (o.most_c - c).max(0.0);
            o.most_c = c;
            o.floor_c = (o.floor_c - cooler).max(20.0_f64.min(o.floor_c));
            o.dome_c -= cooler;
        }
        if let Some(mm) = self.floor_mm.filter(|_| told && kind.has_plate()) {
            o.floor_mm = mm;
        }
        if self.grill == Some(false) && told && kind.may_grill() {
            o.grill_w = 0.0;
        }
        o
    }
}

/// How an oven stands for its style: what a card shows of it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OvenAtLaunch {
    /// Its floor at the launch, °C.
    pub floor_c: f64,
    /// Until the pizza is out, s.
    pub bake_s: u32,
}

/// The fire for a formula in an oven, at what the piece wants of it.
pub(super) fn fire(
    f: &Formula,
    portion: &Portion,
    oven: &Oven,
    room: (f64, f64),
) -> Result<FirePlan, ValidationError> {
    let plan = of_formula::plan(f, portion, oven, oven.usual(), None, room);
    // A thin tray goes in as cold as the room: there is no floor to find.
    if oven.floor_c < 100.0 {
        return Ok(plan);
    }
    Ok(solve_plan(&plan)?.plan)
}

/// What a kind of oven makes of its own usual style.
///
/// Errors: a temperature or thickness outside what an oven has, at its field.
pub fn oven_seen(b: &Beginning, kind: BakesIn) -> Result<OvenAtLaunch, ValidationError> {
    let f = Formula::of_style(kind.usual_style());
    let portions = f.pieces.portions(0.0, kind.usual_style().opens_to());
    let Some(portion) = portions.first() else {
        return Err(ValidationError::one(
            "likes",
            fact!("no-pieces-to-begin-with"),
        ));
    };
    let oven = b.oven_as(kind, kind.of_the_book().name.as_str());
    let plan = fire(&f, portion, &oven, (b.usual().room_c, 0.0))?;
    let planned = plan.planned()?;
    Ok(OvenAtLaunch {
        floor_c: plan.setting.floor_c,
        bake_s: planned.programme.out_s,
    })
}
