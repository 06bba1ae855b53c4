//! What the ledger is asked for: the fields of its form, read, and what can be chosen in them.

use crate::shared::kitchen::RequestKitchen;
use crate::shared::paging::{Paging, Which};
use crate::shared::tongue::shipped;
use craft::keyed::Keyed;
use craft::learn::notice::TurnedOut;
use jiff::civil::Date;
use jiff::{Timestamp, ToSpan};
use serde::Deserialize;
use store::found::{self, FindBakes, WordKind};

/// The form as it came.
#[derive(Debug, Clone, Default, Deserialize)]
pub struct LedgerQuery {
    #[serde(default)]
    pub q: String,
    #[serde(default)]
    pub formula: String,
    #[serde(default)]
    pub style: String,
    #[serde(default)]
    pub flour: String,
    #[serde(default)]
    pub oven: String,
    #[serde(default)]
    pub turned: String,
    #[serde(default)]
    pub by: String,
    #[serde(default)]
    pub from: String,
    #[serde(default)]
    pub until: String,
    /// So many were just written down later, from this form.
    #[serde(default)]
    pub kept: String,
    #[serde(default)]
    pub form: String,
    #[serde(flatten)]
    pub which: Which,
}

const LONGEST: usize = 190;

impl LedgerQuery {
    /// What is looked for; a day that is none asks for nothing.
    pub fn find(&self, here: &RequestKitchen) -> FindBakes {
        let short = |t: &str| t.trim().chars().take(LONGEST).collect::<String>();
        let begin = |day: Date| -> Option<Timestamp> {
            Some(day.to_zoned(here.zone.clone()).ok()?.timestamp())
        };
        let day = |t: &str| t.trim().parse::<Date>().ok();
        FindBakes {
            text: short(&self.q),
            formula: short(&self.formula),
            style: short(&self.style),
            flour: short(&self.flour),
            oven: short(&self.oven),
            turned: TurnedOut::from_key(&self.turned).map_or(String::new(), |t| t.key().into()),
            by: short(&self.by),
            from: day(&self.from).and_then(begin),
            // The last day counts whole.
            until: day(&self.until)
                .and_then(|d| d.checked_add(1.day()).ok())
                .and_then(begin),
        }
    }

    /// Name and value of all that was asked.
    pub fn asked(&self) -> [(&'static str, &str); 9] {
        [
            ("q", &self.q),
            ("formula", &self.formula),
            ("style", &self.style),
            ("flour", &self.flour),
            ("oven", &self.oven),
            ("turned", &self.turned),
            ("by", &self.by),
            ("from", &self.from),
            ("until", &self.until),
        ]
    }

    /// The address of the whole table for a spreadsheet, as it was asked for.
    pub fn csv(&self) -> String {
        let mut p = Paging {
            after: Some("/ledger/bakes.csv".into()),
            ..Paging::default()
        };
        p.keep(&self.asked());
        p.after.unwrap_or_default()
    }
}

/// A choice of a list.
pub struct LedgerOption {
    pub value: String,
    pub name: String,
    pub chosen: bool,
}

/// A list to choose from.
pub struct LedgerChoice {
    pub field: &'static str,
    pub label: &'static str,
    pub every: &'static str,
    pub options: Vec<LedgerOption>,
}

/// The lists of the form; one with nothing to choose is left out.
pub async fn choices(
    db: &mut store::MySqlConnection,
    here: &RequestKitchen,
    asked: &LedgerQuery,
) -> store::Result<Vec<LedgerChoice>> {
    use crate::shared::tongue::phrase;
    let lists: [(&'static str, WordKind, &'static str, &'static str, &str); 5] = [
        (
            "formula",
            WordKind::Formula,
            phrase("ledger-find-formula"),
            phrase("ledger-find-every-formula"),
            &asked.formula,
        ),
        (
            "style",
            WordKind::Style,
            phrase("fire-style"),
            phrase("library-every-style"),
            &asked.style,
        ),
        (
            "flour",
            WordKind::Flour,
            phrase("ledger-find-flour"),
            phrase("ledger-find-every-flour"),
            &asked.flour,
        ),
        (
            "oven",
            WordKind::Oven,
            phrase("ledger-find-oven"),
            phrase("ledger-find-every-oven"),
            &asked.oven,
        ),
        (
            "by",
            WordKind::By,
            phrase("ledger-find-by"),
            phrase("ledger-find-everybody"),
            &asked.by,
        ),
    ];
    let mut out = vec![];
    for (field, kind, label, every, chosen) in lists {
        let words = found::choices(db, here.id(), kind).await?;
        if words.len() < 2 && chosen.is_empty() {
            continue;
        }
        out.push(LedgerChoice {
            field,
            label,
            every,
            options: words
                .into_iter()
                .map(|value| LedgerOption {
                    name: shipped(&value),
                    chosen: value.eq_ignore_ascii_case(chosen),
                    value,
                })
                .collect(),
        });
    }
    out.push(LedgerChoice {
        field: "turned",
        label: phrase("ledger-verdicts"),
        every: phrase("ledger-find-every-verdict"),
        options: TurnedOut::ALL
            .iter()
            .map(|t| LedgerOption {
                value: t.key().into(),
                name: here.words(&t.name()),
                chosen: t.key() == asked.turned,
            })
            .collect(),
    });
    Ok(out)
}
