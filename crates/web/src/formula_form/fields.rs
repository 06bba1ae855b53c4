//! The number fields of the Dough sheet: what they are called, their units, steps and ranges. Values are typed in
//! the kitchen's units and computed in g, cm and °C. A field is named as its place in the formula; `[]` stands for a
//! row of a list.

use crate::shared::form::{FieldReader, FormData, NotANumber, measured, number};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{phrase, plain};
use craft::fact;
use craft::fact::Value;
use craft::units::{LengthUnit, Meant, TemperatureUnit, WeightUnit};
use speech::measures::Quantity;
use std::collections::HashMap;
use std::sync::LazyLock;

use super::specs::Measure::*;
use super::specs::SPECS;
pub use super::specs::{Measure, Spec};

/// The spec of a field, whatever row it stands in.
pub fn known(name: &str) -> Option<&'static Spec> {
    static BY_NAME: LazyLock<HashMap<&str, &Spec>> =
        LazyLock::new(|| SPECS.iter().map(|s| (s.name, s)).collect());
    if !name.contains('[') {
        return BY_NAME.get(name).copied();
    }
    // "preferments[0].flours[1].percent" is "preferments[].flours[].percent".
    let mut bare = String::with_capacity(name.len());
    let mut inside = false;
    for c in name.chars() {
        match c {
            '[' => inside = true,
            ']' => inside = false,
            _ if inside => continue,
            _ => {}
        }
        bare.push(c);
    }
    BY_NAME.get(bare.as_str()).copied()
}

/// The spec of a field that the program itself names.
pub fn spec_of(name: &str) -> &'static Spec {
    known(name).unwrap_or_else(|| unreachable!("no field {name}: a slip of the program"))
}

/// The name of the hidden field that keeps a value which its text cannot hold.
pub fn exact_name(name: &str) -> String {
    format!("exact:{name}")
}

impl Spec {
    /// The unit that the kitchen reads.
    pub fn unit(&self, here: &RequestKitchen) -> &'static str {
        match self.measure {
            Count | Bare => "",
            Percent => "%",
            Weight => here.measures.weight_unit(),
            Temperature => here.measures.degree_unit(),
            Hours => "h",
            Length => here.measures.length_unit(),
            PerArea => here.measures.scale(Quantity::GramsPerCm2).1,
            PerLitre => here.measures.scale(Quantity::GramsPerLitre).1,
        }
    }
    /// A value in the kitchen's unit, as the field shows it.
    pub fn shown(&self, value: f64, here: &RequestKitchen) -> String {
        match self.measure {
            Weight => here.measures.weight_field(value),
            Temperature => here.measures.degrees_field(value),
            Length => here.measures.length_field(value),
            PerArea => here.measures.scaled_field(value, Quantity::GramsPerCm2),
            PerLitre => here.measures.scaled_field(value, Quantity::GramsPerLitre),
            _ => plain(value),
        }
    }
    /// A number of the field as a fact has it.
    fn value(&self) -> fn(f64) -> Value {
        match self.measure {
            Count | Bare => Value::Number,
            Percent => Value::Percent,
            Weight => Value::Grams,
            Temperature => Value::Celsius,
            Hours => craft::fact::hours,
            Length => Value::Cm,
            PerArea => Value::GramsPerCm2,
            PerLitre => Value::GramsPerLitre,
        }
    }
    fn meant(&self, here: &RequestKitchen) -> Meant {
        let m = &here.measures;
        match self.measure {
            Percent => Meant::Percent,
            Hours => Meant::Hours,
            Weight => Meant::Weight(m.weight),
            Temperature => Meant::Temperature(m.temperature),
            Length => Meant::Length(m.length),
            Count | Bare | PerArea | PerLitre => Meant::Bare,
        }
    }
    /// The step of the plus and minus buttons in the kitchen's unit.
    pub fn shown_step(&self, here: &RequestKitchen) -> f64 {
        match (
            self.measure,
            here.measures.temperature,
            here.measures.weight,
        ) {
            (Temperature, TemperatureUnit::Fahrenheit, _) => self.step.max(1.0),
            (Weight, _, WeightUnit::Ounces) => 0.25,
            (Weight, _, WeightUnit::Kilograms) => self.step / 1000.0,
            (Weight, _, WeightUnit::Pounds) => 0.02,
            (Length, _, _) if here.measures.length == LengthUnit::Inches => 0.5,
            (PerArea, _, _) if here.measures.length == LengthUnit::Inches => 0.005,
            _ => self.step,
        }
    }

    /// What a number typed here is divided by to be the core's.
    fn by(&self, here: &RequestKitchen) -> f64 {
        match self.measure {
            PerArea => here.measures.scale(Quantity::GramsPerCm2).0,
            PerLitre => here.measures.scale(Quantity::GramsPerLitre).0,
            _ => 1.0,
        }
    }

    /// Puts a value into a form; where its text does not hold all of it, the exact value goes along unseen, so that
    /// it does not drift while nobody touches the field.
    pub fn put(&self, typed: &mut FormData, name: &str, value: f64, here: &RequestKitchen) {
        let text = self.shown(value, here);
        let back = measured(&text, self.meant(here)).map(|v| v / self.by(here));
        typed.forget(&exact_name(name));
        if back != Ok(value) {
            typed.set(&exact_name(name), value.to_string());
        }
        typed.set(name, text);
    }

    /// Reads a field that must be there.
    pub fn read(&self, r: &mut FieldReader, name: &str, here: &RequestKitchen) -> f64 {
        self.read_as(r, name, phrase(self.label), here)
    }
    /// Reads a field under the name that it has here.
    pub fn read_as(
        &self,
        r: &mut FieldReader,
        name: &str,
        label: &str,
        here: &RequestKitchen,
    ) -> f64 {
        if let Some(v) = self.untouched(r, name, here) {
            return v;
        }
        let value = r.measured(name, label, self.meant(here)) / self.by(here);
        // Said here under the label of the field; the core checks it again.
        if value < self.low - 1e-9 || value > self.high + 1e-9 {
            let of = self.value();
            r.refuse_as(
                name,
                fact!(
                    "outside-range",
                    what = label,
                    range = Value::Range(Box::new(of(self.low)), Box::new(of(self.high))),
                    value = of(value)
                ),
            );
        }
        value
    }
    /// Reads a field that may be left empty.
    pub fn read_if(&self, r: &mut FieldReader, name: &str, here: &RequestKitchen) -> Option<f64> {
        match number(r.typed.text(name)) {
            Err(NotANumber::Empty) => None,
            _ => Some(self.read(r, name, here)),
        }
    }
    /// The exact value behind a text that nobody changed.
    fn untouched(&self, r: &FieldReader, name: &str, here: &RequestKitchen) -> Option<f64> {
        let exact: f64 = r.typed.text(&exact_name(name)).parse().ok()?;
        let in_range = (self.low - 1e-9..=self.high + 1e-9).contains(&exact);
        (in_range && self.shown(exact, here) == r.typed.text(name)).then_some(exact)
    }
}
