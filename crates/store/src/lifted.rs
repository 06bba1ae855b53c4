//! Lifting: batches that were kept before formulas had flours, preferments and stages are read as what they would be
//! today. Rows are never rewritten; what they say is only understood anew.

use crate::{Result, StoreError};
use craft::fact::Fact;
use craft::sheet::{SheetRequest, SheetResult};
use serde_json::{Map, Value, json};

fn parsed(code: &str, json: &str) -> Result<Value> {
    serde_json::from_str(json).map_err(|e| unreadable(code, &e))
}

fn unreadable(code: &str, e: &serde_json::Error) -> StoreError {
    StoreError::Unreadable(format!("batch {code}: {e}"))
}

/// Why a plan was left; what was kept as a sentence stands as it was written.
pub(crate) fn why(kept: String) -> Fact {
    serde_json::from_str(&kept).unwrap_or_else(|_| Fact::as_written(kept))
}

/// What was asked.
pub(crate) fn request(code: &str, json: &str) -> Result<SheetRequest> {
    let mut v = parsed(code, json)?;
    if v.get("formula").is_none()
        && let Some(flat) = v.as_object_mut()
    {
        lift_request(flat);
    }
    serde_json::from_value(v).map_err(|e| unreadable(code, &e))
}

/// What was worked out.
pub(crate) fn result(code: &str, json: &str) -> Result<SheetResult> {
    let mut v = parsed(code, json)?;
    if let Some(formula) = v.get_mut("formula").and_then(Value::as_object_mut)
        && !formula.contains_key("columns")
    {
        lift_formula(formula);
    }
    lift_names(&mut v);
    if let Some(steps) = v.get_mut("steps").and_then(Value::as_array_mut) {
        // Steps of those days were known by their place.
        for (i, step) in steps
            .iter_mut()
            .filter_map(Value::as_object_mut)
            .enumerate()
        {
            step.entry("number").or_insert(json!(i));
        }
    }
    serde_json::from_value(v).map_err(|e| unreadable(code, &e))
}

/// Names that the program gave, in the days when it kept sentences, and the facts that they are now. Sentences stand as they
/// were written (`craft::fact::Fact` reads them so); these names go into other sentences.
const NAMES: [(&str, &str); 6] = [
    ("Poolish", "poolish"),
    ("Biga", "biga"),
    ("Levain", "levain"),
    ("Old dough", "old-dough"),
    ("Preferment", "preferment"),
    ("Dough", "dough"),
];

fn lift_names(result: &mut Value) {
    for list in [
        "/formula/columns",
        "/formula/builds",
        "/formula/rows",
        "/preferments",
    ] {
        let all = result.pointer_mut(list).and_then(Value::as_array_mut);
        for name in all.into_iter().flatten().filter_map(|x| x.get_mut("name")) {
            let known = NAMES.iter().find(|(old, _)| name.as_str() == Some(old));
            if let Some((_, code)) = known {
                *name = json!({ "code": code, "values": {} });
            }
        }
    }
}

/// The fields that moved into the formula as they are.
const MOVED: [&str; 10] = [
    "style",
    "loss_percent",
    "hydration_percent",
    "salt_percent",
    "oil_percent",
    "sugar_percent",
    "target_dough_c",
    "mixer",
    "bulk_h",
    "cold_h",
];

fn lift_request(flat: &mut Map<String, Value>) {
    let mut formula = Map::new();
    for field in MOVED.iter().chain(&["temper_h"]) {
        if let Some(v) = flat.remove(*field) {
            formula.insert((*field).into(), v);
        }
    }
    let w = flat.remove("flour_w").unwrap_or(json!(300.0));
    let name = format!("Flour W {w}");
    formula.insert(
        "flours".into(),
        json!([{"name": name, "share_percent": 100.0, "facts": {"w": w}}]),
    );
    if let Some(form) = flat.remove("yeast_form") {
        formula.insert("yeast".into(), json!({"form": form}));
    }
    if let Some(pieces) = flat.remove("pieces") {
        formula.insert("pieces".into(), lift_pieces(pieces));
    }
    let mut scales = Map::new();
    for field in ["kitchen_scale_g", "fine_scale_g"] {
        if let Some(v) = flat.remove(field) {
            scales.insert(field.into(), v);
        }
    }
    flat.insert("scales".into(), Value::Object(scales));
    flat.insert("formula".into(), Value::Object(formula));
}

fn lift_pieces(p: Value) -> Value {
    if p["kind"] != "trays" {
        return p;
    }
    json!({"kind": "pans", "pans": [{
        "count": p["count"],
        "pan": {"shape": "rectangle", "length_cm": p["length_cm"], "width_cm": p["width_cm"]},
        "dough_g_per_cm2": p["dough_g_per_cm2"],
    }]})
}

/// One stage, in which all of every row stands.
fn lift_formula(formula: &mut Map<String, Value>) {
    let (dough, weighed) = (formula["dough_g"].clone(), formula["weighed_g"].clone());
    let mut column = json!({"name": "Dough", "exact_g": dough, "weighed_g": weighed});
    if let Some(d) = formula.get("dilution") {
        column["dilution"] = d.clone();
    }
    let mut water = 0.0;
    if let Some(rows) = formula.get_mut("rows").and_then(Value::as_array_mut) {
        for row in rows {
            if row["ingredient"] == "flour" {
                row["name"] = json!("Flour");
            }
            if row["ingredient"] == "water" {
                water = row["percent"].as_f64().unwrap_or(0.0);
            }
            row["cells"] = json!([{"exact_g": row["exact_g"], "weigh_g": row["weigh_g"], "scale_g": row["scale_g"]}]);
        }
    }
    let (pieces, piece) = (
        formula["pieces"].clone(),
        formula["piece_g"].as_f64().unwrap_or(0.0),
    );
    formula.insert("columns".into(), json!([column]));
    // The area of those days was not kept; a ball opens to some 0.35 g/cm².
    formula.insert(
        "portions".into(),
        json!([{"count": pieces, "piece_g": piece, "area_cm2": piece / 0.35}]),
    );
    formula.insert("true_hydration_percent".into(), json!(water));
    formula.insert("nominal_hydration_percent".into(), json!(water));
}

#[cfg(test)]
mod tests {
    use super::*;
    use craft::formula::{Ingredient, Mode};

    #[test]
    fn a_batch_from_before_preferments_is_read_as_it_was_meant() {
        let kept: Value =
            serde_json::from_str(include_str!("../tests/kept/batch-before-preferments.json"))
                .unwrap();
        let r = request("OLD-01", &kept["asked"].to_string()).unwrap();
        assert_eq!(r.formula.style.key, "wet_tray");
        assert_eq!(
            (r.formula.hydration_percent, r.formula.cold_h),
            (76.0, 24.0)
        );
        assert_eq!(r.formula.flours[0].facts.w, Some(400.0));
        assert_eq!(r.formula.pieces.mode(), Mode::Pans);
        assert_eq!(r.formula.pieces.count(), 2);
        let out = result("OLD-01", &kept["worked_out"].to_string()).unwrap();
        assert_eq!(out.formula.columns.len(), 1);
        assert_eq!(
            out.formula.weigh_in(Ingredient::Water, 0),
            out.formula.row(Ingredient::Water).unwrap().weigh_g
        );
        // Worked out today, the same request weighs the same flour.
        let now = craft::sheet::work_out(&r).unwrap();
        let flour = |s: &SheetResult| s.formula.exact_g(Ingredient::Flour);
        assert!((flour(&now) / flour(&out) - 1.0).abs() < 1e-3);
        assert!(result("OLD-01", "{}").is_err() && request("OLD-01", "[").is_err());
    }

    #[test]
    fn a_batch_from_before_facts_says_what_it_said() {
        let kept: Value =
            serde_json::from_str(include_str!("../tests/kept/batch-before-facts.json")).unwrap();
        let asked = request("AA-01", &kept["asked"].to_string()).unwrap();
        let read = result("AA-01", &kept["worked_out"].to_string()).unwrap();
        // Every sentence stands as it was written.
        let notes = kept["worked_out"]["notes"].as_array().unwrap();
        assert_eq!(read.notes.len(), notes.len());
        for (now, then) in read.notes.iter().zip(notes) {
            assert_eq!(now.what.brief(), then["what"].as_str().unwrap());
            assert_eq!(now.why.brief(), then["why"].as_str().unwrap());
        }
        let steps = kept["worked_out"]["steps"].as_array().unwrap();
        for (now, then) in read.steps.iter().zip(steps) {
            assert_eq!(now.title.brief(), then["title"].as_str().unwrap());
            assert_eq!(now.detail.brief(), then["detail"].as_str().unwrap());
        }
        // A name that the program gave is a word again, one that a maker gave stays.
        assert_eq!(read.formula.columns[0].name.code, "poolish");
        assert_eq!(read.preferments[0].name.code, "poolish");
        assert_eq!(read.formula.rows[0].name.brief(), "Quernside No. 4");
        // Worked out anew it comes to the same figures, in facts.
        let anew = craft::sheet::work_out(&asked).unwrap();
        assert_eq!(anew.formula.weighed_g, read.formula.weighed_g);
        assert_eq!(anew.window, read.window);
        assert_eq!(anew.steps.len(), read.steps.len());
    }
}
