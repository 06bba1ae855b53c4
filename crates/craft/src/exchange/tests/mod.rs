use super::*;
use crate::formula::tests::{any::any_formula, trial_round};
use crate::formula::{FormulaRequest, FormulaResult, Ingredient, Pieces, formulate};
use crate::refusal::ValidationError;
use crate::style;
use proptest::prelude::*;

fn kept() -> FormulaFile {
    FormulaFile::new(
        "Trial round",
        "less malt: the rim was dark",
        trial_round().formula,
    )
}

fn refused(bytes: &[u8]) -> (String, String) {
    let ValidationError(mut errors) = import(bytes).unwrap_err();
    let e = errors.remove(0);
    (e.field, e.message.brief())
}

#[test]
fn a_formula_comes_back_exactly() {
    assert_eq!(import(export(&kept()).as_bytes()).unwrap(), kept());
}

#[test]
fn a_broken_or_hostile_file_is_refused_with_its_place() {
    let good = export(&kept());
    let swap = |a: &str, b: &str| good.replacen(a, b, 1).into_bytes();
    for (bytes, field, part) in [
        (b"hello".to_vec(), "file", "column=1, line=1"),
        (b"{}".to_vec(), "file", "slow-rise-formula"),
        (b"[]".to_vec(), "file", ""),
        (
            swap("\"version\": 1", "\"version\": 2"),
            "file",
            "said=2, version=1",
        ),
        (
            swap("\"version\": 1", "\"version\": \"one\""),
            "file",
            "said=\"one\"",
        ),
        (
            swap(
                "\"hydration_percent\": 64.0",
                "\"hydration_percent\": 1e300",
            ),
            "formula.hydration_percent",
            "range=40%..130%",
        ),
        (
            swap(
                "\"hydration_percent\": 64.0",
                "\"hydration_percent\": \"wet\"",
            ),
            "formula.hydration_percent",
            "line-of-file",
        ),
        (
            swap("\"salt_percent\": 2.8,", ""),
            "formula.style",
            "missing field",
        ),
        (
            swap("\"salt_percent\": 2.8", "\"salty\": 2.8"),
            "formula.style.salty",
            "unknown field",
        ),
        (
            swap(
                "\"name\": \"Trial round\"",
                &format!("\"name\": \"{}\"", "x".repeat(300)),
            ),
            "name",
            "letters=300",
        ),
        (
            good.as_bytes()[..good.len() / 2].to_vec(),
            "file",
            "file-not-formula",
        ),
        ("[".repeat(100_000).into_bytes(), "file", "file-not-formula"),
        (vec![b' '; 50_000_000], "file", "most=200"),
        (b"\xff\xfe\x00".to_vec(), "file", "file-not-formula"),
    ] {
        let (f, m) = refused(&bytes);
        assert_eq!(f, field, "{m}");
        assert!(m.contains(part), "{part} in {m}");
    }
}

#[test]
fn the_csv_holds_the_sheet_and_no_formulas_of_a_spreadsheet() {
    let mut r = trial_round();
    r.formula.flours[0].name = "=HYPERLINK(\"x\"), \"quoted\"".into();
    let text = sheet_as_csv(&r.formula, &formulate(&r).unwrap());
    let lines: Vec<&str> = text.lines().collect();
    assert_eq!(
        lines[0],
        "ingredient,percent_of_flour,poolish_g,dough_g,all_g"
    );
    assert_eq!(
        lines[1],
        "\"'=HYPERLINK(\"\"x\"\"), \"\"quoted\"\"\",70,,659,659"
    );
    assert_eq!(lines[2], "Alder Ford,25,188,47,235");
    assert!(lines.last().unwrap().starts_with("all,168.7482,376"));
}

#[test]
fn a_recipe_goes_out_and_comes_back_as_the_same_dough() {
    let r = trial_round();
    let weighed = formulate(&r).unwrap();
    let steps = vec![("Mix the poolish".to_string(), "188 g flour".to_string())];
    let text = to_recipe_ld("Trial round", &r.formula, &weighed, &steps);
    let v: serde_json::Value = serde_json::from_str(&text).unwrap();
    assert_eq!(v["@type"], "Recipe");
    assert_eq!(v["recipeInstructions"][0]["name"], "Mix the poolish");
    let (name, pasted) = from_recipe_ld(text.as_bytes(), style::first()).unwrap();
    assert_eq!(name, "Trial round");
    let back = formulate(&FormulaRequest {
        formula: pasted.formula.clone(),
        scales: Default::default(),
        doses: None,
    })
    .unwrap();
    assert!(
        (back.true_hydration_percent - 64.0).abs() < 0.05,
        "{}",
        back.true_hydration_percent
    );
    assert!((back.exact_g(Ingredient::Flour) - weighed.exact_g(Ingredient::Flour)).abs() < 0.5);
    assert_eq!(pasted.formula.preferments.len(), 1);
    assert!((pasted.formula.preferments[0].flour_percent - 20.0).abs() < 0.05);
    assert_eq!(pasted.formula.pieces.count(), 6);
}

#[test]
fn a_dough_sized_by_its_flour_comes_back_with_that_flour_and_its_water() {
    for hydration in [56.0, 66.0, 82.0] {
        for pieces in [
            Pieces::Flour {
                count: 4,
                flour_g: 477.0,
            },
            Pieces::Total {
                count: 4,
                dough_g: 800.0,
            },
        ] {
            let mut r = trial_round();
            r.formula.preferments.clear();
            r.formula.hydration_percent = hydration;
            r.formula.pieces = pieces;
            let weighed = formulate(&r).unwrap();
            let text = to_recipe_ld("Round", &r.formula, &weighed, &[]);
            let (_, back) = from_recipe_ld(text.as_bytes(), style::first()).unwrap();
            let came = formulate(&FormulaRequest {
                formula: back.formula.clone(),
                scales: Default::default(),
                doses: None,
            })
            .unwrap();
            assert!((came.true_hydration_percent - weighed.true_hydration_percent).abs() < 0.1);
            let flour = |r: &FormulaResult| r.exact_g(Ingredient::Flour);
            assert!((flour(&came) - flour(&weighed)).abs() < 0.5, "{hydration}");
            assert_eq!(back.formula.pieces.count(), 4);
        }
    }
    // A yield of another hand that names the flour.
    let other = br#"{"@type": "Recipe", "name": "x", "recipeYield": "477 g of flour, 4 pieces",
        "recipeIngredient": ["477 g flour", "334 g water", "12 g salt", "1 g yeast"]}"#;
    let (_, p) = from_recipe_ld(other, style::first()).unwrap();
    assert!((p.formula.hydration_percent - 70.0).abs() < 0.1);
    assert_eq!(p.formula.pieces.count(), 4);
}

#[test]
fn a_recipe_is_found_in_a_graph_and_its_absence_is_said() {
    let graph =
        br#"{"@graph": [{"@type": "WebPage"}, {"@type": ["Thing", "Recipe"], "name": "Soft one",
        "recipeIngredient": ["500 g flour", "325 g water", "12 g salt", "2 g yeast"]}]}"#;
    let (name, p) = from_recipe_ld(graph, style::first()).unwrap();
    assert_eq!(name, "Soft one");
    assert!((p.formula.hydration_percent - 65.0).abs() < 1e-9);
    for (bytes, part) in [
        (&b"{\"@type\": \"Car\"}"[..], "recipe-none"),
        (b"nonsense", "recipe-not-json"),
        (b"{\"@type\": \"Recipe\", \"name\": \"x\"}", "paste-empty"),
        (
            b"{\"@type\": \"Recipe\", \"recipeIngredient\": [\"2 eggs\"]}",
            "paste-no-flour",
        ),
    ] {
        let e = from_recipe_ld(bytes, style::first())
            .unwrap_err()
            .0
            .remove(0);
        assert_eq!(e.field, "file");
        assert_eq!(e.message.code, part);
    }
}

proptest! {
    #[test]
    fn import_of_export_is_the_same(r in any_formula(), name in "[a-zA-Z<>&\"' 🍕]{1,40}", why in "\\PC{0,100}") {
        prop_assume!(!name.trim().is_empty() && r.formula.check().is_ok());
        let kept = FormulaFile::new(&name, &why, r.formula);
        prop_assert_eq!(import(export(&kept).as_bytes()).unwrap(), kept);
    }

    #[test]
    fn a_file_cut_or_changed_anywhere_never_panics(at in 0.0..1.0f64, byte: u8) {
        let mut bytes = export(&kept()).into_bytes();
        let i = ((bytes.len() - 1) as f64 * at) as usize;
        bytes[i] = byte;
        let _ = import(&bytes);
        let _ = import(&bytes[..i]);
        let _ = from_recipe_ld(&bytes, style::first());
    }
}
