//! What a batch needs, and what of it must be bought.

use crate::formula::{Formula, FormulaResult, Ingredient};
use crate::style::topping::ToppingAmount;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// So much of something.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct Need {
    pub name: String,
    #[serde(default)]
    pub pantry: Option<u64>,
    pub grams: f64,
    pub is_topping: bool,
}

impl Need {
    /// Whether it is this thing of the pantry: by its own number, or by name.
    pub fn is(&self, pantry: Option<u64>, name: &str) -> bool {
        match (self.pantry, pantry) {
            (Some(a), Some(b)) => a == b,
            _ => self.name.trim().eq_ignore_ascii_case(name.trim()),
        }
    }
}

/// What the row of an ingredient is called where the formula gives no name.
fn called(f: &Formula, ingredient: Ingredient, name: &str) -> String {
    match ingredient {
        Ingredient::Flour | Ingredient::Extra => name.into(),
        Ingredient::Water => "Water".into(),
        Ingredient::Salt => "Salt".into(),
        Ingredient::Oil => "Olive oil".into(),
        Ingredient::Sugar => "Sugar".into(),
        Ingredient::Yeast => f.yeast.form.name().into(),
    }
}

/// Everything the batch takes but water; toppings of the same name as an ingredient join it.
pub fn needs(f: &Formula, r: &FormulaResult, toppings: &[ToppingAmount]) -> Vec<Need> {
    let mut out: Vec<Need> = Vec::new();
    let mut nth_flour = 0;
    for row in r.rows.iter().filter(|r| r.ingredient != Ingredient::Water) {
        let mut grams = row.exact_g;
        let mut pantry = None;
        if row.ingredient == Ingredient::Flour {
            let part = f.flours.get(nth_flour);
            pantry = part.and_then(|p| p.pantry);
            // A levain that is kept back takes flour besides: of each flour as the levain is made of it.
            for b in &r.builds {
                let cell = row
                    .cells
                    .get(b.of)
                    .copied()
                    .flatten()
                    .map_or(0.0, |c| c.exact_g);
                grams += cell * (b.kept_back_g + b.spare_g) / b.used_g.max(1.0);
            }
            nth_flour += 1;
        }
        out.push(Need {
            name: called(f, row.ingredient, &row.name),
            pantry,
            grams,
            is_topping: false,
        });
    }
    for t in toppings {
        out.push(Need {
            name: t.name.clone(),
            pantry: None,
            grams: t.total_g,
            is_topping: true,
        });
    }
    out.retain(|n| n.grams > 0.0);
    out
}

/// One line of the list.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct ShoppingLine {
    pub name: String,
    pub need_g: f64,
    pub have_g: f64,
    pub buy_g: f64,
}

/// Needed less stock; what is needed twice is one line.
pub fn shopping(needs: &[Need], stock: &[Need]) -> Vec<ShoppingLine> {
    let mut out: Vec<(Need, f64)> = Vec::new();
    for n in needs {
        match out.iter_mut().find(|(o, _)| o.is(n.pantry, &n.name)) {
            Some((_, g)) => *g += n.grams,
            None => out.push((n.clone(), n.grams)),
        }
    }
    out.into_iter()
        .map(|(n, need_g)| {
            let have_g = stock
                .iter()
                .filter(|s| n.is(s.pantry, &s.name))
                .map(|s| s.grams)
                .sum();
            ShoppingLine {
                name: n.name,
                need_g,
                have_g,
                buy_g: (need_g - have_g).max(0.0),
            }
        })
        .collect()
}
