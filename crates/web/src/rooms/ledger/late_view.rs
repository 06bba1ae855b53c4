//! The page of late entry, formatted: the grid as it was typed, each wrong cell with its sentence.

use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop};
use crate::shared::theme::Theme;
use crate::shared::tongue::{phrase, say};
use askama::Template;
use craft::exchange::bakes::{COLUMNS, MOST_LINES as MOST_OF_CSV, WrongCell};
use craft::fire::Shade;
use craft::keyed::Keyed;
use craft::learn::StoodAs;
use uuid::Uuid;

/// Lines of the grid, at least and at most.
const LINES: usize = 12;
pub const MOST_LINES: usize = 60;

/// What was sent, kept as it was typed.
pub struct LateSent {
    form_key: Uuid,
    /// Nothing was sent yet.
    fresh: bool,
    by_csv: bool,
    csv: String,
    cells: Vec<Vec<String>>,
}

impl LateSent {
    pub fn empty() -> LateSent {
        LateSent {
            form_key: Uuid::new_v4(),
            fresh: true,
            by_csv: false,
            csv: String::new(),
            cells: vec![vec![String::new(); COLUMNS.len()]; LINES],
        }
    }
    pub fn of(typed: &FormData, by_csv: bool) -> LateSent {
        let rows = typed.rows("late").clamp(LINES, MOST_LINES);
        let cell = |i: usize, c: &str| typed.raw(&format!("late[{i}].{c}")).to_string();
        LateSent {
            form_key: typed.key("form_key"),
            fresh: false,
            by_csv,
            csv: typed.raw("csv").to_string(),
            cells: (0..rows)
                .map(|i| COLUMNS.iter().map(|c| cell(i, c)).collect())
                .collect(),
        }
    }
}

/// A choice of a cell.
pub struct LateOption {
    pub value: &'static str,
    pub name: String,
    pub chosen: bool,
}

/// A cell of the grid.
pub struct LateCell {
    pub name: String,
    pub column: &'static str,
    pub label: String,
    pub value: String,
    /// "date", "text", "select" or "number".
    pub kind: &'static str,
    pub options: Vec<LateOption>,
    pub error: String,
}

pub struct LateColumn {
    pub name: &'static str,
    pub unit: String,
}

/// What is wrong, line by line, for a table that was pasted.
pub struct WrongLine {
    pub line: String,
    pub says: String,
}

#[derive(Template)]
#[template(path = "rooms/ledger/late.html")]
pub struct LatePage {
    frame: Frame,
    form_key: Uuid,
    fresh: bool,
    columns: Vec<LateColumn>,
    rows: Vec<Vec<LateCell>>,
    names: Vec<String>,
    by_csv: bool,
    csv: String,
    known: String,
    example: String,
    most: usize,
    wrong: Vec<WrongLine>,
    count: usize,
    today: String,
}

fn column_name(c: &str) -> &'static str {
    match c {
        "date" => phrase("late-col-date"),
        "time" => phrase("late-col-time"),
        "formula" => phrase("late-col-formula"),
        "pieces" => phrase("late-col-pieces"),
        "yeast" => phrase("late-col-yeast"),
        "cold" => phrase("late-col-cold"),
        "dough" => phrase("late-col-dough"),
        "fridge" => phrase("late-col-fridge"),
        "stood" => phrase("late-col-stood"),
        "bake" => phrase("late-col-bake"),
        "base" => phrase("late-col-base"),
        "top" => phrase("late-col-top"),
        _ => phrase("late-col-remark"),
    }
}

impl LatePage {
    pub fn of(
        here: &RequestKitchen,
        theme: Theme,
        sent: LateSent,
        wrong: Vec<WrongCell>,
        names: Vec<String>,
    ) -> LatePage {
        let degrees = here.measures.degree_unit();
        let unit = |c: &str| match c {
            "yeast" => "%".to_string(),
            "cold" => "h".to_string(),
            "bake" => "s".to_string(),
            "dough" | "fridge" => degrees.to_string(),
            _ => String::new(),
        };
        let error = |line: usize, column: &str| {
            let of = |w: &&WrongCell| !sent.by_csv && w.line == line && w.column == column;
            wrong
                .iter()
                .find(of)
                .map_or(String::new(), |w| here.say(&w.message))
        };
        let cell = |i: usize, c: &'static str, value: &str| LateCell {
            name: format!("late[{i}].{c}"),
            column: c,
            label: say!("late-cell", column = column_name(c), line = i + 1),
            kind: match c {
                "date" => "date",
                "stood" | "base" | "top" => "select",
                "formula" | "remark" | "time" => "text",
                _ => "number",
            },
            options: match c {
                "stood" => options(StoodAs::ALL, value, |s| here.words(&s.name())),
                "base" | "top" => options(Shade::ALL, value, |s| here.words(&s.name())),
                _ => vec![],
            },
            value: value.to_string(),
            error: error(i + 1, c),
        };
        LatePage {
            frame: Frame::of(
                here,
                theme,
                Stop::Ledger,
                phrase("ledger-late"),
                None,
                "/ledger/late",
            ),
            form_key: sent.form_key,
            fresh: sent.fresh,
            columns: COLUMNS
                .iter()
                .map(|c| LateColumn {
                    name: column_name(c),
                    unit: unit(c),
                })
                .collect(),
            rows: sent
                .cells
                .iter()
                .enumerate()
                .map(|(i, row)| {
                    COLUMNS
                        .iter()
                        .zip(row)
                        .map(|(c, v)| cell(i, c, v))
                        .collect()
                })
                .collect(),
            names,
            by_csv: sent.by_csv,
            csv: sent.csv,
            known: COLUMNS.join(", "),
            example: [COLUMNS[0], COLUMNS[2], COLUMNS[3], COLUMNS[8]].join(";"),
            most: MOST_OF_CSV,
            count: wrong.len(),
            wrong: wrong
                .iter()
                .filter(|w| sent.by_csv || w.line == 0)
                .map(|w| WrongLine {
                    line: match (w.line, w.column) {
                        (0, _) => String::new(),
                        (n, "") => say!("late-line", n = n),
                        (n, c) => say!("late-line-column", n = n, column = column_name(c)),
                    },
                    says: here.say(&w.message),
                })
                .collect(),
            today: here.local(here.now).date().to_string(),
        }
    }
}

fn options<T: Keyed>(all: &[T], chosen: &str, name: impl Fn(T) -> String) -> Vec<LateOption> {
    all.iter()
        .map(|v| LateOption {
            value: v.key(),
            name: name(*v),
            chosen: v.key() == chosen.trim(),
        })
        .collect()
}
