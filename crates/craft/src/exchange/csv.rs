//! The weighed sheet as CSV: a row for each ingredient, a column for each stage, in grams.

use crate::formula::{Formula, FormulaResult, Ingredient, IngredientRow};
use crate::number::plain;

/// What a row is called.
pub(super) fn row_name(f: &Formula, r: &IngredientRow) -> String {
    match r.ingredient {
        Ingredient::Flour | Ingredient::Extra => r.name.brief(),
        Ingredient::Water => "Water".into(),
        Ingredient::Salt => "Salt".into(),
        Ingredient::Oil => "Oil".into(),
        Ingredient::Sugar => "Sugar".into(),
        Ingredient::Yeast => f.yeast.form.shelf_name().into(),
    }
}

/// A spreadsheet takes a text that begins so for a computation: an apostrophe makes it a text again.
pub(super) fn harmless(text: &str) -> String {
    if text.starts_with(['=', '+', '-', '@', '\t', '\r']) {
        format!("'{text}")
    } else {
        text.into()
    }
}

/// Writes the sheet, comma separated, with a header row and a last row of sums.
pub fn sheet_as_csv(f: &Formula, r: &FormulaResult) -> String {
    let mut w = csv::Writer::from_writer(vec![]);
    let mut head = vec!["ingredient".to_string(), "percent_of_flour".into()];
    head.extend(
        r.columns
            .iter()
            .map(|c| harmless(&format!("{}_g", c.name.brief().to_lowercase()))),
    );
    head.push("all_g".into());
    let grams = |g: f64| plain(g);
    let mut lines = vec![head];
    for row in &r.rows {
        let mut line = vec![
            harmless(&row_name(f, row)),
            format!("{}", (row.percent * 1e4).round() / 1e4),
        ];
        line.extend(
            row.cells
                .iter()
                .map(|c| c.map_or(String::new(), |c| grams(c.weigh_g))),
        );
        line.push(grams(row.weigh_g));
        lines.push(line);
    }
    let mut sums = vec![
        "all".to_string(),
        format!("{}", (r.sum_percent * 1e4).round() / 1e4),
    ];
    sums.extend(r.columns.iter().map(|c| grams(c.weighed_g)));
    sums.push(grams(r.weighed_g));
    lines.push(sums);
    for line in &lines {
        // Into memory, every record of one length: it cannot fail.
        let _ = w.write_record(line);
    }
    String::from_utf8(w.into_inner().unwrap_or_default()).unwrap_or_default()
}
