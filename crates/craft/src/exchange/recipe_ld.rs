//! A recipe as schema.org JSON-LD: what other programs read. It holds weights and words, not the whole formula; read
//! back it goes through the reader of pasted recipes.

use super::MOST_BYTES;
use super::csv::row_name;
use crate::fact;
use crate::flour::FlourKind;
use crate::formula::{Formula, FormulaResult, Ingredient, PrefermentKind};
use crate::keyed::Keyed;
use crate::number::plain;
use crate::number::two_digits;
use crate::paste::{PasteRequest, Pasted, read};
use crate::refusal::ValidationError;
use crate::style::Style;
use serde_json::{Value, json};

/// Writes a weighed formula as a Recipe; `steps` are title and detail.
pub fn to_recipe_ld(
    name: &str,
    f: &Formula,
    r: &FormulaResult,
    steps: &[(String, String)],
) -> String {
    let last = r.last();
    let mut ingredients: Vec<String> = Vec::new();
    for i in 0..r.columns.len() {
        let lines: Vec<String> = (0..r.rows.len()).filter_map(|n| line(f, r, n, i)).collect();
        if i < last {
            // A name that the reader knows as the heading of a part.
            let kind = f.preferments[i].kind;
            let part = match kind {
                PrefermentKind::Poolish => "Poolish",
                PrefermentKind::Biga => "Biga",
                PrefermentKind::Levain => "Levain",
                PrefermentKind::OldDough | PrefermentKind::Own => "Preferment",
            };
            ingredients.push(format!("{part}: {}", lines.join(", ")));
        } else {
            ingredients.extend(lines);
        }
    }
    let steps: Vec<Value> = steps
        .iter()
        .map(|(title, detail)| json!({"@type": "HowToStep", "name": title, "text": detail}))
        .collect();
    let recipe = json!({
        "@context": "https://schema.org",
        "@type": "Recipe",
        "name": name,
        "recipeCategory": f.style.name,
        "recipeYield": yields(r),
        "recipeIngredient": ingredients,
        "recipeInstructions": steps,
    });
    serde_json::to_string_pretty(&recipe).unwrap_or_default()
}

/// "4 balls of 250 g", however the size was said: a yield that names an ingredient is read as one.
fn yields(r: &FormulaResult) -> String {
    let one = |p: &crate::formula::Portion| {
        let word = match (p.pan.is_some(), p.count) {
            (true, 1) => "tray",
            (true, _) => "trays",
            (false, 1) => "ball",
            (false, _) => "balls",
        };
        format!("{} {word} of {} g", p.count, plain(p.piece_g.round()))
    };
    let all: Vec<String> = r.portions.iter().map(one).collect();
    all.join(" and ")
}

/// One weight of one column, in words that name the ingredient.
fn line(f: &Formula, r: &FormulaResult, row: usize, column: usize) -> Option<String> {
    let x = r.rows.get(row)?;
    let cell = x.cells.get(column).copied().flatten()?;
    // The dose is what every page says of it; other weights come back more exactly than a scale reads them.
    let g = match x.ingredient {
        Ingredient::Yeast => cell.weigh_g,
        _ => cell.exact_g,
    };
    let g = if g >= 1.0 {
        plain((g * 10.0).round() / 10.0)
    } else {
        two_digits(g)
    };
    let name = row_name(f, x).replace([',', ':', ';', '+', '(', ')'], " ");
    let name = match x.ingredient {
        Ingredient::Oil => "olive oil".into(),
        Ingredient::Flour => flour_words(f, r, row, &name),
        Ingredient::Extra => {
            let nth = r.rows[..row]
                .iter()
                .filter(|y| y.ingredient == Ingredient::Extra)
                .count();
            f.extras.get(nth).map_or(name, |e| match e.kind {
                crate::formula::ExtraKind::ActiveMalt => "diastatic malt".into(),
                crate::formula::ExtraKind::PlainMalt => "malt extract".into(),
                kind => kind.key().replace('_', " "),
            })
        }
        _ => name.to_lowercase(),
    };
    Some(format!("{g} g {name}"))
}

fn flour_words(f: &Formula, r: &FormulaResult, row: usize, name: &str) -> String {
    let nth = r.rows[..row]
        .iter()
        .filter(|y| y.ingredient == Ingredient::Flour)
        .count();
    let Some(part) = f.flours.get(nth) else {
        return name.into();
    };
    let word = match part.facts.kind {
        FlourKind::SoftFine => "flour",
        FlourKind::HardBread => "bread flour",
        FlourKind::HalfWhite => "type 1 flour",
        FlourKind::Wholemeal => "wholemeal flour",
        FlourKind::Semolina => "semolina",
        FlourKind::Spelt => "spelt flour",
        FlourKind::Rye => "rye flour",
        FlourKind::Gluten => "vital wheat gluten",
    };
    let strength = part
        .facts
        .w
        .map_or(String::new(), |w| format!(" W {}", plain(w)));
    let said = name.to_lowercase();
    let known = said.split_whitespace().any(|w| w == "w");
    format!(
        "{word}{} {}",
        if known { "" } else { &strength },
        name.trim()
    )
    .trim()
    .to_string()
}

/// Reads a Recipe out of JSON-LD: its name, and its ingredients through the reader of pasted recipes.
///
/// Errors: [`ValidationError`] at `file` when there is no recipe in it, or no dough in the recipe.
pub fn from_recipe_ld(bytes: &[u8], style: &Style) -> Result<(String, Pasted), ValidationError> {
    if bytes.len() > MOST_BYTES {
        return Err(ValidationError::one(
            "file",
            fact!(
                "recipe-too-large",
                kb = bytes.len() / 1000,
                most = MOST_BYTES / 1000
            ),
        ));
    }
    let value: Value = serde_json::from_slice(bytes).map_err(|e| {
        ValidationError::one(
            "file",
            fact!("recipe-not-json", line = e.line(), column = e.column()),
        )
    })?;
    let Some(recipe) = find(&value, 0) else {
        return Err(ValidationError::one("file", fact!("recipe-none")));
    };
    let name: String = recipe
        .get("name")
        .and_then(Value::as_str)
        .unwrap_or("Recipe")
        .trim()
        .chars()
        .take(80)
        .collect();
    let list = recipe.get("recipeIngredient").or(recipe.get("ingredients"));
    let mut lines: Vec<String> = match list {
        Some(Value::Array(a)) => a.iter().filter_map(Value::as_str).map(one_line).collect(),
        Some(Value::String(s)) => s.lines().map(one_line).collect(),
        _ => vec![],
    };
    if let Some(yields) = recipe.get("recipeYield").and_then(Value::as_str) {
        // "477 g of flour, 4 pieces": what names the flour says no more than the ingredients do.
        let pieces: Vec<&str> = yields.split(',').filter(|y| !names_flour(y)).collect();
        lines.insert(0, one_line(&pieces.join(",")));
    }
    let pasted = read(&PasteRequest {
        text: lines.join("\n"),
        style: style.clone(),
    })
    .map_err(|ValidationError(e)| {
        ValidationError(
            e.into_iter()
                .map(|mut e| {
                    e.field = "file".into();
                    e
                })
                .collect(),
        )
    })?;
    Ok((
        if name.is_empty() {
            "Recipe".into()
        } else {
            name
        },
        pasted,
    ))
}

fn names_flour(text: &str) -> bool {
    let text = text.to_lowercase();
    ["flour", "farina"].iter().any(|w| text.contains(w))
}

fn one_line(s: &str) -> String {
    s.replace(['\n', '\r'], " ")
}

/// The first Recipe in an object, a list or a graph.
fn find(v: &Value, depth: u32) -> Option<&Value> {
    if depth > 6 {
        return None;
    }
    match v {
        Value::Array(list) => list.iter().find_map(|x| find(x, depth + 1)),
        Value::Object(o) => {
            let is = match o.get("@type") {
                Some(Value::String(t)) => t == "Recipe",
                Some(Value::Array(t)) => t.iter().any(|t| t == "Recipe"),
                _ => false,
            };
            if is {
                return Some(v);
            }
            o.get("@graph").and_then(|g| find(g, depth + 1))
        }
        _ => None,
    }
}
