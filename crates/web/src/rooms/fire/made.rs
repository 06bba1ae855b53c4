//! What the page of a fire is made of.

use super::form::{Dough, Read};
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use craft::fire::firing::FloorRead;
use craft::fire::overview::FireOverview;
use craft::refusal::FieldError;
use jiff::Timestamp;

/// What a page is made of.
pub struct Made<'a> {
    pub typed: &'a FormData,
    pub dough: &'a Dough,
    pub larder: &'a Larder,
    pub here: &'a RequestKitchen,
    pub worked: Option<(&'a Read, &'a FireOverview)>,
    pub errors: Vec<FieldError>,
    pub readings: &'a [FloorRead],
    pub lit_at: Option<Timestamp>,
    pub free: bool,
}
