//! Fields of weights, lengths, temperatures and days, in the units that the kitchen reads: read with what may be wrong, and
//! written with the exact value beside a text that cannot hold it.

use crate::shared::form::{FieldReader, FormData, NotANumber, number};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{phrase, plain};
use craft::units::Meant;
use jiff::civil::Date;
pub use speech::measures::Quantity;

/// A number that must be there.
pub fn must(r: &mut FieldReader, name: &str, label: &str) -> f64 {
    r.number(name, label)
}
/// A number that may be left empty.
pub fn may(r: &mut FieldReader, name: &str, label: &str) -> Option<f64> {
    match number(r.typed.text(name)) {
        Err(NotANumber::Empty) => None,
        _ => Some(r.number(name, label)),
    }
}
pub fn weight(r: &mut FieldReader, name: &str, label: &str, here: &RequestKitchen) -> f64 {
    exact(r, name, &|g| here.measures.weight_field(g))
        .unwrap_or_else(|| r.measured(name, label, Meant::Weight(here.measures.weight)))
}
pub fn length(r: &mut FieldReader, name: &str, label: &str, here: &RequestKitchen) -> f64 {
    exact(r, name, &|cm| here.measures.length_field(cm))
        .unwrap_or_else(|| r.measured(name, label, Meant::Length(here.measures.length)))
}
pub fn degrees(r: &mut FieldReader, name: &str, label: &str, here: &RequestKitchen) -> f64 {
    exact(r, name, &|c| here.measures.degrees_field(c))
        .unwrap_or_else(|| r.measured(name, label, Meant::Temperature(here.measures.temperature)))
}

/// A number of a quantity, in the unit that the kitchen reads it in.
pub fn scaled(
    r: &mut FieldReader,
    name: &str,
    label: &str,
    q: Quantity,
    here: &RequestKitchen,
) -> f64 {
    let m = here.measures;
    exact(r, name, &|v| m.scaled_field(v, q)).unwrap_or_else(|| {
        let v = r.number(name, label);
        v / m.scale(q).0
    })
}
/// The same, where it may be left empty.
pub fn may_scaled(
    r: &mut FieldReader,
    name: &str,
    label: &str,
    q: Quantity,
    here: &RequestKitchen,
) -> Option<f64> {
    match number(r.typed.text(name)) {
        Err(NotANumber::Empty) => None,
        _ => Some(scaled(r, name, label, q, here)),
    }
}
/// The unit of a quantity here.
pub fn unit_of(q: Quantity, here: &RequestKitchen) -> &'static str {
    here.measures.scale(q).1
}

/// The value behind a text that nobody changed.
fn exact(r: &FieldReader, name: &str, shown: &dyn Fn(f64) -> String) -> Option<f64> {
    let v: f64 = r.typed.text(&format!("exact:{name}")).parse().ok()?;
    (shown(v) == r.typed.text(name)).then_some(v)
}

/// A day, or nothing.
pub fn day(r: &mut FieldReader, name: &str) -> Option<Date> {
    let text = r.typed.text(name).to_string();
    if text.is_empty() {
        return None;
    }
    let read = text.parse().ok();
    if read.is_none() {
        r.refuse(name, phrase("page-a-day-is-written-as"));
    }
    read
}

pub fn put_may(t: &mut FormData, name: &str, v: Option<f64>) {
    t.set(name, v.map_or(String::new(), plain));
}
pub fn put_weight(t: &mut FormData, name: &str, g: f64, here: &RequestKitchen) {
    put_exact(t, name, g, here.measures.weight_field(g));
}
pub fn put_length(t: &mut FormData, name: &str, cm: f64, here: &RequestKitchen) {
    put_exact(t, name, cm, here.measures.length_field(cm));
}
pub fn put_scaled(t: &mut FormData, name: &str, v: f64, q: Quantity, here: &RequestKitchen) {
    put_exact(t, name, v, here.measures.scaled_field(v, q));
}
pub fn put_may_scaled(
    t: &mut FormData,
    name: &str,
    v: Option<f64>,
    q: Quantity,
    here: &RequestKitchen,
) {
    match v {
        Some(v) => put_scaled(t, name, v, q, here),
        None => put_may(t, name, None),
    }
}
pub fn put_degrees(t: &mut FormData, name: &str, c: f64, here: &RequestKitchen) {
    put_exact(t, name, c, here.measures.degrees_field(c));
}
fn put_exact(t: &mut FormData, name: &str, v: f64, text: String) {
    t.set(&format!("exact:{name}"), v.to_string());
    t.set(name, text);
}
pub fn put_day(t: &mut FormData, name: &str, d: Option<Date>) {
    t.set(name, d.map_or(String::new(), |d| d.to_string()));
}
