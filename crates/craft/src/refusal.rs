//! Refusals: what is wrong with a request, field by field, in a sentence a maker understands.
//!
//! Every computation of this crate that can refuse answers with [`ValidationError`], a non-empty list of
//! [`FieldError`]s. The `field` is the request's own field name (`hydration_percent`,
//! `stages[1].hours`), so a page can put the sentence beside the field and an API can return it as is.

use crate::fact;
use crate::fact::{Fact, Value};
use crate::leaven::YeastForm;
use crate::number::plain;
use jiff::Timestamp;
use jiff::tz::TimeZone;
use serde::{Deserialize, Serialize};

/// One field and the sentence that says what is wrong with it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct FieldError {
    /// The request's field, as it is spelled in JSON.
    pub field: String,
    /// One plain sentence with the accepted range.
    pub message: Fact,
}

/// The request was refused; nothing was computed.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[error("{}", .0.iter().map(|e| format!("{}: {}", e.field, e.message.brief())).collect::<Vec<_>>().join("; "))]
pub struct ValidationError(pub Vec<FieldError>);

impl ValidationError {
    /// The same refusal with its fields below `path`.
    pub fn below(mut self, path: &str) -> Self {
        for e in &mut self.0 {
            e.field = format!("{path}.{}", e.field);
        }
        self
    }
    /// A refusal of a single field.
    pub fn one(field: impl Into<String>, message: impl Into<Fact>) -> Self {
        ValidationError(vec![FieldError {
            field: field.into(),
            message: message.into(),
        }])
    }
}

/// Collects everything that is wrong, so that a maker sees all of it at once.
#[derive(Debug, Default)]
pub struct Check {
    prefix: String,
    errors: Vec<FieldError>,
}

/// No name has more letters.
pub const LONGEST_NAME: usize = 80;

/// More yeast than this, fresh, % of the flour, is no dough.
pub const MOST_YEAST_PERCENT: f64 = 7.5;

impl Check {
    /// Nothing refused yet.
    pub fn new() -> Self {
        Check::default()
    }

    /// Fields named from here on are inside `path` (`stages[0]`); an empty path leaves it.
    pub fn within(&mut self, path: &str) {
        self.prefix = if path.is_empty() {
            String::new()
        } else {
            format!("{path}.")
        };
    }

    /// Refuses `field` with a sentence of its own.
    pub fn refuse(&mut self, field: &str, message: impl Into<Fact>) {
        self.errors.push(FieldError {
            field: format!("{}{field}", self.prefix),
            message: message.into(),
        });
    }

    /// A name must be there, and not too long.
    pub fn name(&mut self, field: &str, name: &str) {
        let letters = name.chars().count();
        if name.trim().is_empty() {
            self.refuse(field, fact!("name-missing"));
        } else if letters > LONGEST_NAME {
            let too_long = fact!("name-too-long", most = LONGEST_NAME, letters = letters);
            self.refuse(field, too_long);
        }
    }

    /// `value` must be a number within `low..=high`; the refusal names the thing, the range and the value, as `unit` has it.
    pub fn range(
        &mut self,
        field: &str,
        what: impl Into<Fact>,
        value: f64,
        low: f64,
        high: f64,
        unit: impl Fn(f64) -> Value,
    ) {
        if !value.is_finite() {
            self.refuse(field, fact!("must-be-a-number", what = what.into()));
        } else if value < low || value > high {
            let range = Value::Range(Box::new(unit(low)), Box::new(unit(high)));
            self.refuse(
                field,
                fact!(
                    "outside-range",
                    what = what.into(),
                    range = range,
                    value = unit(value)
                ),
            );
        }
    }

    /// An instant that a plan can be about: of the years 2000 to 2099, so that hours before and after it are instants, too.
    pub fn instant(&mut self, field: &str, what: impl Into<Fact>, at: Timestamp) {
        let year = at.to_zoned(TimeZone::UTC).year();
        if !(2000..2100).contains(&year) {
            self.refuse(
                field,
                fact!("outside-years", what = what.into(), year = year.to_string()),
            );
        }
    }

    /// Water, salt, sugar and oil within what the models take.
    pub fn percentages(&mut self, hydration: f64, salt: f64, sugar: f64, oil: f64) {
        self.range(
            "hydration_percent",
            fact!("f-water"),
            hydration,
            40.0,
            130.0,
            Value::Percent,
        );
        self.range(
            "salt_percent",
            fact!("f-salt"),
            salt,
            0.0,
            5.0,
            Value::Percent,
        );
        self.range(
            "sugar_percent",
            fact!("f-sugar"),
            sugar,
            0.0,
            20.0,
            Value::Percent,
        );
        self.range(
            "oil_percent",
            fact!("f-oil"),
            oil,
            0.0,
            20.0,
            Value::Percent,
        );
    }

    /// Yeast in its own form, at most 6 % in fresh equivalent.
    pub fn yeast(&mut self, form: YeastForm, percent: f64) {
        self.range(
            "yeast_percent",
            form.name(),
            percent,
            0.0,
            MOST_YEAST_PERCENT / form.fresh_equivalent(),
            Value::Percent,
        );
    }

    /// Whether nothing was refused so far.
    pub fn is_clean(&self) -> bool {
        self.errors.is_empty()
    }

    /// `Ok` when nothing was refused.
    pub fn done(self) -> Result<(), ValidationError> {
        if self.errors.is_empty() {
            Ok(())
        } else {
            Err(ValidationError(self.errors))
        }
    }
}

/// Hours as people say them: to the quarter, from a day on whole.
pub fn spoken_h(h: f64) -> String {
    if h >= 24.0 {
        plain(h.round())
    } else {
        plain((h * 4.0).round() / 4.0)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn hours_are_said_as_people_say_them() {
        let said = [
            (2.0, "2"),
            (2.06, "2"),
            (6.51, "6.5"),
            (27.95, "28"),
            (172.95, "173"),
        ];
        for (h, words) in said {
            assert_eq!(spoken_h(h), words);
        }
    }

    #[test]
    fn a_number_outside_its_range_gets_a_sentence_with_the_range() {
        let mut check = Check::new();
        check.range(
            "hydration_percent",
            fact!("f-water"),
            340.0,
            40.0,
            130.0,
            Value::Percent,
        );
        check.range(
            "salt_percent",
            fact!("f-salt"),
            f64::NAN,
            0.0,
            5.0,
            Value::Percent,
        );
        check.range(
            "oil_percent",
            fact!("f-oil"),
            3.0,
            0.0,
            20.0,
            Value::Percent,
        );
        let ValidationError(errors) = check.done().unwrap_err();
        assert_eq!(errors.len(), 2);
        assert_eq!(
            errors[0].message.brief(),
            "outside-range(range=40%..130%, value=340%, what=f-water)"
        );
        assert_eq!(errors[1].message.code, "must-be-a-number");
    }

    #[test]
    fn fields_inside_a_list_carry_their_path() {
        let mut check = Check::new();
        check.within("stages[1]");
        check.range(
            "hours",
            fact!("f-hours"),
            -1.0,
            0.0,
            240.0,
            crate::fact::hours,
        );
        check.within("");
        assert_eq!(check.done().unwrap_err().0[0].field, "stages[1].hours");
    }
}
