//! The photos of a batch as its bake log shows them, and the form that takes one.

use crate::batch::photos::{href, last_of};
use crate::batch::record::BatchRecord;
use crate::shared::format::{day_hm, min_s};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{phrase, say};
use craft::fire::Pizza;
use craft::keyed::Keyed;
use craft::people::Right;
use craft::photo::{self, PhotoOf};
use store::entry::Observation;
use uuid::Uuid;

/// A photo in a list.
pub struct PhotoShown {
    pub of: String,
    pub whole: String,
    pub small: String,
    /// What it shows, for whoever does not see it.
    pub alt: String,
    pub at: String,
    pub by: String,
    /// Where it is taken back, and under which key; nothing for whoever may not.
    pub back: Option<(String, Uuid)>,
}

/// The photos of one pizza.
pub struct PizzaPhotos {
    pub head: String,
    pub says: String,
    pub shown: Vec<PhotoShown>,
}

/// A side that is asked for.
pub struct PhotoAsk {
    pub key: &'static str,
    pub name: String,
    pub chosen: bool,
}

/// What was chosen in the form, and what is wrong with it.
#[derive(Default)]
pub struct PhotoTyped {
    pub pizza: Option<u32>,
    pub of: Option<PhotoOf>,
    pub error: Option<String>,
}

pub struct PhotosView {
    pub batch: u64,
    pub key: Uuid,
    /// Pizzas that can be chosen.
    pub pizzas: Vec<(u32, bool)>,
    pub asks: Vec<PhotoAsk>,
    pub rows: Vec<PizzaPhotos>,
    pub may_tap: bool,
    pub error: Option<String>,
    pub longest: u32,
    pub most_sent: usize,
    pub most_chosen: u64,
    /// What a file may have, MB.
    pub most_mb: u64,
    pub piece: &'static str,
}

impl PhotosView {
    pub fn of(told: &BatchRecord, typed: PhotoTyped, here: &RequestKitchen) -> PhotosView {
        let formula = &told.batch.sheet.request.formula;
        let piece = match formula.in_pans() {
            true => phrase("bake-tray"),
            false => phrase("bake-pizza"),
        };
        let last_out = told.run.pizzas.iter().filter(|p| p.out_at.is_some());
        let last_out = last_out.max_by_key(|p| p.out_at).map(|p| p.number);
        let most = told.run.pizzas.iter().map(|p| p.number).max().unwrap_or(0);
        let chosen = typed.pizza.or(last_out).unwrap_or(1);
        let may_tap = here.may(Right::Tap) && told.batch.cancelled_at.is_none();
        let shown = |o: &Observation, pizza: u32, of: PhotoOf| {
            let whole = href(&told.batch.code, o.key);
            PhotoShown {
                of: here.words(&of.name()),
                small: format!("{whole}?small=1"),
                whole,
                alt: say!(
                    "photo-alt",
                    of = here.words(&of.name()),
                    piece = piece,
                    n = pizza
                ),
                at: day_hm(&here.local(o.at)),
                by: here.by(&o.by),
                back: may_tap.then(|| {
                    let at = format!("/batches/{}/entries/{}/back", told.batch.code, o.key);
                    (at, Uuid::new_v4())
                }),
            }
        };
        let mut rows: Vec<(u32, Vec<PhotoShown>)> = vec![];
        for ((pizza, of), o) in last_of(told) {
            match rows.last_mut() {
                Some((n, of_it)) if *n == pizza => of_it.push(shown(o, pizza, of)),
                _ => rows.push((pizza, vec![shown(o, pizza, of)])),
            }
        }
        PhotosView {
            batch: told.batch.id.0,
            key: Uuid::new_v4(),
            pizzas: (1..=told.batch.sheet.result.formula.pieces.max(most))
                .map(|n| (n, n == chosen))
                .collect(),
            asks: PhotoOf::ALL
                .iter()
                .map(|of| PhotoAsk {
                    key: of.key(),
                    name: here.words(&of.name()),
                    chosen: typed.of == Some(*of),
                })
                .collect(),
            rows: rows
                .into_iter()
                .map(|(n, shown)| PizzaPhotos {
                    head: format!("{piece} {n}"),
                    says: in_short(told.run.pizzas.iter().find(|p| p.number == n), here),
                    shown,
                })
                .collect(),
            may_tap,
            error: typed.error,
            longest: photo::LONGEST_SIDE,
            most_sent: photo::MOST_SENT,
            most_chosen: photo::MOST_CHOSEN,
            most_mb: photo::MOST_CHOSEN / 1_000_000,
            piece,
        }
    }
}

/// A pizza in a few words: its seconds and how its sides came out; empty for one of which nothing is known.
fn in_short(pizza: Option<&Pizza>, here: &RequestKitchen) -> String {
    let Some(p) = pizza else {
        return String::new();
    };
    let baked = p.baked_s().map(min_s);
    let verdict = p.verdict.map(|v| here.words(&v.fact()));
    let said: Vec<String> = baked.into_iter().chain(verdict).collect();
    said.join(", ")
}
