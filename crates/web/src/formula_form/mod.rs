//! The form of a formula: one form whose fields are named as their places in the formula, carried by the Dough sheet, Rise and
//! the library alike. Fields know their units and ranges; a formula is written into it and read out of it; buttons change it.
//!
//! | module | answers |
//! |---|---|
//! | `fields`, `specs` | each field's unit, range and step; the table of them |
//! | `writing` | a formula as the form |
//! | `reading` | the form as a formula and a request |
//! | `acts` | what a button does to it |
//! | `form` | the form as a page shows it |

pub mod acts;
pub mod fields;
pub mod form;
pub mod reading;
mod specs;
pub mod writing;

use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use craft::formula::Formula;

/// What a press needs to know.
pub struct Bench<'a> {
    pub here: &'a RequestKitchen,
    pub larder: &'a Larder,
}

/// A sheet for a formula: a fresh one of a style, or a version out of the library.
pub fn opened(
    formula: &Formula,
    name: Option<&str>,
    from: Option<(u64, u32)>,
    here: &RequestKitchen,
) -> FormData {
    let mut typed = reading::sensible(formula, here);
    if let Some(name) = name {
        typed.set("name", name);
    }
    if let Some((id, number)) = from {
        typed.set("from", format!("{id}@{number}"));
    }
    typed
}
