//! What a batch needs, and what of it must be bought.

use crate::fact;
use crate::fact::Fact;
use crate::formula::{Formula, FormulaResult, Ingredient};
use crate::style::topping::ToppingAmount;
use serde::{Deserialize, Serialize};

/// So much of something.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Need {
    /// The name under which the pantry's shelf is asked for it.
    pub name: String,
    /// What a reader calls it.
    #[serde(default = "Fact::nothing")]
    pub called: Fact,
    /// Its id in the pantry, where it is of there.
    #[serde(default)]
    pub pantry: Option<u64>,
    /// How much of it, g.
    pub grams: f64,
    /// Whether it goes on the dough, not into it.
    pub is_topping: bool,
}

impl Need {
    /// Whether it is this thing of the pantry: by its own number, or by name.
    pub fn is(&self, pantry: Option<u64>, name: &str) -> bool {
        match (self.pantry, pantry) {
            (Some(a), Some(b)) => a == b,
            _ => crate::names::is_same_good(&self.name, name),
        }
    }
}

/// What the row of an ingredient is called: on the shelf, and by a reader.
fn called(f: &Formula, ingredient: Ingredient, name: &Fact) -> (String, Fact) {
    match ingredient {
        Ingredient::Flour | Ingredient::Extra => (name.brief(), name.clone()),
        Ingredient::Water => ("Water".into(), fact!("water")),
        Ingredient::Salt => ("Salt".into(), fact!("salt")),
        Ingredient::Oil => ("Olive oil".into(), fact!("olive-oil")),
        Ingredient::Sugar => ("Sugar".into(), fact!("sugar")),
        Ingredient::Yeast => (f.yeast.form.shelf_name().into(), f.yeast.form.name()),
    }
}

/// Which part of the work takes it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum NeededFor {
    /// For a preferment.
    Preferment,
    /// For the dough.
    Dough,
    /// To go on it.
    Topping,
}

/// Everything the batch takes but water, as its scales weigh it, each with the part of the work that takes it.
pub fn needed(
    f: &Formula,
    r: &FormulaResult,
    toppings: &[ToppingAmount],
) -> Vec<(Need, NeededFor)> {
    let mut out: Vec<(Need, NeededFor)> = Vec::new();
    let mut nth_flour = 0;
    for row in r.rows.iter().filter(|r| r.ingredient != Ingredient::Water) {
        let of_cell = |i: usize| {
            let cell = row.cells.get(i).copied().flatten();
            let weighed = cell.map_or(0.0, |c| c.weigh_g);
            // A dilution takes all that is stirred into it, whatever is thrown away.
            match r.columns.get(i).and_then(|c| c.dilution) {
                Some(d) if row.ingredient == Ingredient::Yeast && cell.is_some() => d.yeast_g,
                _ => weighed,
            }
        };
        let (mut before, mut last) = ((0..r.last()).map(of_cell).sum::<f64>(), of_cell(r.last()));
        if row.cells.is_empty() {
            last = row.weigh_g;
        }
        let mut pantry = None;
        if row.ingredient == Ingredient::Flour {
            let part = f.flours.get(nth_flour);
            pantry = part.and_then(|p| p.pantry);
            // A levain that is kept back takes flour besides: of each flour as the levain is made of it.
            for b in &r.builds {
                before += of_cell(b.of) * (b.kept_back_g + b.spare_g) / b.used_g.max(1.0);
            }
            nth_flour += 1;
        }
        let (name, called) = called(f, row.ingredient, &row.name);
        let need = |grams| Need {
            name: name.clone(),
            called: called.clone(),
            pantry,
            grams,
            is_topping: false,
        };
        out.push((need(before), NeededFor::Preferment));
        out.push((need(last), NeededFor::Dough));
    }
    for t in toppings {
        let need = Need {
            name: t.name.clone(),
            called: Fact::as_written(t.name.as_str()),
            pantry: None,
            grams: t.total_g,
            is_topping: true,
        };
        out.push((need, NeededFor::Topping));
    }
    out.retain(|(n, _)| n.grams > 0.0);
    out
}

/// Everything the batch takes but water, each ingredient once.
pub fn needs(f: &Formula, r: &FormulaResult, toppings: &[ToppingAmount]) -> Vec<Need> {
    let mut out: Vec<Need> = Vec::new();
    for (n, _) in needed(f, r, toppings) {
        let same = |o: &&mut Need| {
            o.name == n.name && o.pantry == n.pantry && o.is_topping == n.is_topping
        };
        match out.iter_mut().find(same) {
            Some(o) => o.grams += n.grams,
            None => out.push(n),
        }
    }
    out
}

/// One line of the list.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct ShoppingLine {
    /// What it is called.
    pub name: Fact,
    /// What is needed, g.
    pub need_g: f64,
    /// What is there, g.
    pub have_g: f64,
    /// What must be bought, g.
    pub buy_g: f64,
}

/// Needed less what is free of it, g; what is needed twice is one line.
pub fn shopping(needs: &[Need], free_g: impl Fn(&Need) -> f64) -> Vec<ShoppingLine> {
    let mut out: Vec<(Need, f64)> = Vec::new();
    for n in needs {
        match out.iter_mut().find(|(o, _)| o.is(n.pantry, &n.name)) {
            Some((_, g)) => *g += n.grams,
            None => out.push((n.clone(), n.grams)),
        }
    }
    out.into_iter()
        .map(|(n, need_g)| {
            let have_g = free_g(&n);
            ShoppingLine {
                name: n.called,
                need_g,
                have_g,
                buy_g: (need_g - have_g).max(0.0),
            }
        })
        .collect()
}
