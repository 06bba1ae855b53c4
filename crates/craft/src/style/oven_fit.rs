//! Fit to my oven: what to change in the dough and on it so that this style comes out of that oven.
//!
//! Input: a formula, the oven's kind and its top temperature (°C, 150 to 550). Output: changes, each with its
//! reason and the field and value that make it. Source: craft notes, section 1: sugar and malt bring colour, oil
//! keeps the crust supple in a long bake, drier toppings and a double bake where there is no dome; in a very hot
//! oven all of these burn.

use crate::fact;
use crate::fact::{Fact, Percent, Value};
use crate::formula::{Extra, ExtraKind, Formula};
use crate::names;
use crate::refusal::{Check, ValidationError};
use crate::units::Celsius;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// An oven as somebody says it who has no plan of it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum StatedOvenKind {
    /// A masonry dome with a fire inside.
    WoodDome,
    /// A dome with a gas burner.
    GasDome,
    /// A small oven with a flame, to carry.
    PortableFlame,
    /// An electric deck.
    ElectricDeck,
    /// Steel or stone under the grill.
    HomeWithSteel,
    /// A kitchen's oven with a tray.
    HomeWithTray,
}

impl StatedOvenKind {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            StatedOvenKind::WoodDome => fact!("fit-wood-dome"),
            StatedOvenKind::GasDome => fact!("fit-gas-dome"),
            StatedOvenKind::PortableFlame => fact!("fit-portable"),
            StatedOvenKind::ElectricDeck => fact!("fit-deck"),
            StatedOvenKind::HomeWithSteel => fact!("fit-home-stone"),
            StatedOvenKind::HomeWithTray => fact!("fit-home-tray"),
        }
    }
    fn at_home(self) -> bool {
        matches!(
            self,
            StatedOvenKind::HomeWithSteel | StatedOvenKind::HomeWithTray
        )
    }
}

/// An oven as somebody says it: its kind, and how hot it gets.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct StatedOven {
    /// Which kind it is.
    pub kind: StatedOvenKind,
    /// What it reaches, 150 to 550 °C.
    pub top_c: f64,
}

/// A formula and the oven that it shall fit.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct OvenFitRequest {
    /// The formula that is fitted.
    pub formula: Formula,
    /// To which oven.
    pub oven: StatedOven,
}

/// Answers a [`OvenFitRequest`].
///
/// Errors: [`ValidationError`] with the fields outside their ranges.
pub fn fit_request(r: &OvenFitRequest) -> Result<FittedFormula, ValidationError> {
    r.formula.check().map_err(|e| e.below("formula"))?;
    fit(&r.formula, r.oven)
}

/// One change.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct OvenFitChange {
    /// What is changed.
    pub what: Fact,
    /// Why.
    pub why: Fact,
}

/// The formula that fits, and how it came to be.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct FittedFormula {
    /// Empty when it fits as it is.
    pub changes: Vec<OvenFitChange>,
    /// The formula as it suits the oven.
    pub formula: Formula,
    /// What was done, in one line.
    pub says: Fact,
}

/// Below this a lean dough dries before it colours, °C.
const COLOURS_ALONE_C: f64 = 330.0;
/// Above this sugar and malt burn, °C.
const BURNS_C: f64 = 380.0;

/// Fits a formula to an oven.
///
/// Errors: [`ValidationError`] for a temperature outside 150 to 550 °C.
pub fn fit(f: &Formula, oven: StatedOven) -> Result<FittedFormula, ValidationError> {
    let mut c = Check::new();
    c.range(
        "oven_top_c",
        fact!("f-the-oven-reaches"),
        oven.top_c,
        150.0,
        550.0,
        Value::Celsius,
    );
    c.done()?;
    let mut out = Fitting {
        formula: f.clone(),
        changes: vec![],
    };
    if oven.top_c < COLOURS_ALONE_C {
        out.cool(oven);
    } else if oven.top_c >= BURNS_C {
        out.hot();
    }
    let says = match (out.changes.len(), oven.top_c) {
        (0, t) => fact!("fits-oven", style = f.style.name.as_str(), c = Celsius(t)),
        (n, t) => fact!("fits-with", n = n, c = Celsius(t)),
    };
    Ok(FittedFormula {
        changes: out.changes,
        formula: out.formula,
        says,
    })
}

struct Fitting {
    formula: Formula,
    changes: Vec<OvenFitChange>,
}

impl Fitting {
    fn change(&mut self, what: Fact, why: Fact) {
        self.changes.push(OvenFitChange { what, why });
    }
    fn malt(&self) -> f64 {
        self.formula
            .extras
            .iter()
            .filter(|e| e.kind == ExtraKind::ActiveMalt)
            .map(|e| e.amount)
            .sum()
    }

    /// Colour, suppleness and drier toppings for an oven without a dome.
    fn cool(&mut self, oven: StatedOven) {
        let short = COLOURS_ALONE_C - oven.top_c;
        // 1 to 2 % sugar and 1 to 3 % oil in a home oven of 250 to 290 °C: the cooler, the more.
        let sugar = (1.0 + short / 80.0).min(2.0);
        let sugar = (sugar * 2.0).round() / 2.0;
        if self.formula.sugars_percent() < sugar - 0.25 {
            self.formula.sugar_percent += sugar - self.formula.sugars_percent();
            self.formula.sugar_percent = (self.formula.sugar_percent * 10.0).round() / 10.0;
            let p = self.formula.sugar_percent;
            self.change(
                fact!("fit-sugar", share = Percent(p)),
                fact!("fit-sugar-why"),
            );
        }
        let oil = if oven.kind.at_home() { 2.0 } else { 1.5 };
        if self.formula.fats_percent() < oil - 0.25 {
            self.formula.oil_percent += oil - self.formula.fats_percent();
            self.formula.oil_percent = (self.formula.oil_percent * 10.0).round() / 10.0;
            let p = self.formula.oil_percent;
            self.change(fact!("fit-oil", share = Percent(p)), fact!("fit-oil-why"));
        }
        if oven.top_c < 280.0 && self.malt() < 0.3 {
            let malt = Extra {
                kind: ExtraKind::ActiveMalt,
                name: String::new(),
                amount: 0.5,
            };
            self.formula
                .extras
                .retain(|e| e.kind != ExtraKind::ActiveMalt);
            self.formula.extras.push(malt);
            self.change(
                fact!("fit-malt", share = Percent(0.5)),
                fact!("fit-malt-why", c = Celsius(280.0)),
            );
        }
        self.drier();
        let wants_dome = self.formula.style.oven.dome_c.low >= COLOURS_ALONE_C;
        if wants_dome && oven.kind.at_home() && !self.formula.double_bake && !self.formula.in_pans()
        {
            self.formula.double_bake = true;
            self.change(fact!("fit-double"), fact!("fit-double-why"));
        }
        self.water_up(oven);
    }

    /// A long bake dries: a lean dough wants some water more.
    fn water_up(&mut self, oven: StatedOven) {
        let low = 62.0;
        if oven.top_c <= 300.0 && self.formula.hydration_percent < low && !self.formula.in_pans() {
            self.formula.hydration_percent = low;
            self.change(
                fact!("fit-water", share = Percent(low)),
                fact!("fit-water-why"),
            );
        }
    }

    fn drier(&mut self) {
        let mut named = Vec::new();
        for t in &mut self.formula.toppings {
            if t.wet
                && !t.after_the_bake
                && let Some(aged) = names::aged(&t.name)
            {
                t.name = aged.into();
                t.wet = false;
                t.g_per_disc = (t.g_per_disc * 0.9).round();
                named.push(t.name.clone());
            }
        }
        if !named.is_empty() {
            self.change(fact!("fit-aged"), fact!("fit-aged-why"));
        }
        let basil = self
            .formula
            .toppings
            .iter_mut()
            .find(|t| names::is_basil(&t.name) && !t.after_the_bake);
        if let Some(t) = basil {
            t.after_the_bake = true;
            self.change(fact!("fit-basil"), fact!("fit-basil-why"));
        }
    }

    /// What burns under a dome goes out.
    fn hot(&mut self) {
        if self.formula.sugar_percent > 0.0 {
            self.formula.sugar_percent = 0.0;
            self.change(
                fact!("fit-no-sugar"),
                fact!("chars-above", c = Celsius(BURNS_C)),
            );
        }
        if self.malt() > 0.0 {
            self.formula
                .extras
                .retain(|e| e.kind != ExtraKind::ActiveMalt);
            self.change(
                fact!("fit-no-malt"),
                fact!("chars-above", c = Celsius(BURNS_C)),
            );
        }
        if self.formula.oil_percent > 0.5 {
            self.formula.oil_percent = 0.0;
            self.change(fact!("fit-no-oil"), fact!("fit-no-oil-why"));
        }
        if self.formula.double_bake {
            self.formula.double_bake = false;
            self.change(fact!("fit-one-bake"), fact!("fit-one-bake-why"));
        }
    }
}
