//! What a batch costs, from the prices that the kitchen entered.

use super::shopping::Need;
use crate::fact::Fact;
use serde::{Deserialize, Serialize};

/// A price per kg by name, or by the kitchen's own flour.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Price {
    /// What it is called.
    pub name: String,
    /// Its id in the pantry, where it is of there.
    #[serde(default)]
    pub pantry: Option<u64>,
    /// For a kilogram, in the kitchen's money.
    pub per_kg: f64,
}

/// What one ingredient costs.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct CostLine {
    /// What it is called.
    pub name: Fact,
    /// How much of it, g.
    pub grams: f64,
    /// In the kitchen's money.
    pub cost: f64,
}

/// The cost of a batch; without the prices that are missing.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Cost {
    /// One for each ingredient that has a price.
    pub lines: Vec<CostLine>,
    /// All the dough, in the kitchen's money.
    pub dough: f64,
    /// All that goes on it.
    pub toppings: f64,
    /// Dough of one ball or pan.
    pub per_ball: f64,
    /// With its toppings.
    pub per_pizza: f64,
    /// What has no price yet.
    pub without_price: Vec<Fact>,
}

/// Adds up what the needs cost, for so many pieces. Water costs nothing.
pub fn cost(needs: &[Need], prices: &[Price], pieces: u32) -> Cost {
    let mut out = Cost {
        lines: vec![],
        dough: 0.0,
        toppings: 0.0,
        per_ball: 0.0,
        per_pizza: 0.0,
        without_price: vec![],
    };
    for n in needs {
        let found = prices.iter().find(|p| n.is(p.pantry, &p.name));
        let Some(price) = found else {
            out.without_price.push(n.called.clone());
            continue;
        };
        let cost = n.grams / 1000.0 * price.per_kg;
        *(if n.is_topping {
            &mut out.toppings
        } else {
            &mut out.dough
        }) += cost;
        out.lines.push(CostLine {
            name: n.called.clone(),
            grams: n.grams,
            cost,
        });
    }
    let pieces = f64::from(pieces.max(1));
    out.per_ball = out.dough / pieces;
    out.per_pizza = (out.dough + out.toppings) / pieces;
    out
}
