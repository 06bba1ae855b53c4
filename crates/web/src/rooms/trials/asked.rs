//! The form of a new trial, read: bakes that are there, sister doughs of one, or parts of one dough.

use crate::shared::form::{FormData, SaidError};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::phrase;
use craft::fact::Fact;
use craft::flour::FlourPart;
use craft::keyed::Keyed;
use craft::refusal::{FieldError, ValidationError};
use craft::sheet::SheetRequest;
use craft::trial::design::in_own_words;
use craft::trial::sisters::{sisters, sisters_of_flour};
use craft::trial::{MOST_ARMS, Varied};
use jiff::Timestamp;
use jiff::civil::{Date, Time};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// How the arms come to be.
#[derive(Debug, Clone, Copy, PartialEq, Eq, EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum Way {
    /// They are baked already, or planned.
    There,
    /// Made from one dough, one thing varied.
    Sisters,
    /// Parts of one dough.
    Split,
}

/// What cannot be, in words, beside its field.
pub fn said(e: ValidationError, here: &RequestKitchen) -> Vec<SaidError> {
    here.said(&e.0)
}

fn wrong(field: &str, sentence: &str) -> ValidationError {
    ValidationError(vec![FieldError {
        field: field.into(),
        message: Fact::as_written(sentence),
    }])
}

/// The numbers of a list: "24, 40, 64", "60/65/70", "2,5 3".
pub fn numbers(text: &str) -> Option<Vec<f64>> {
    // A comma between digits without a blank is a decimal one only where semicolons or blanks part the numbers.
    let parts: Vec<String> = if text.contains([';', '/']) {
        text.split([';', '/'])
            .map(|p| p.trim().replace(',', "."))
            .collect()
    } else if text.contains(", ") || (text.contains(',') && !text.trim().contains(' ')) {
        text.split(',').map(|p| p.trim().to_string()).collect()
    } else {
        text.split_whitespace()
            .map(|p| p.replace(',', "."))
            .collect()
    };
    let parts = parts.iter().filter(|p| !p.is_empty());
    parts
        .map(|p| p.parse::<f64>().ok().filter(|v| v.is_finite()))
        .collect()
}

/// When sister doughs are served.
pub fn serve_at(typed: &FormData, here: &RequestKitchen) -> Result<Timestamp, ValidationError> {
    let date: Option<Date> = typed.text("serve_date").parse().ok();
    let time: Option<Time> = typed.text("serve_time").replace('.', ":").parse().ok();
    let at = date
        .zip(time)
        .and_then(|(d, t)| d.to_datetime(t).to_zoned(here.zone.clone()).ok())
        .map(|z| z.timestamp())
        .ok_or_else(|| wrong("serve", phrase("form-say-when-you-serve-a")))?;
    let off = at.duration_since(here.now).as_hours();
    if !(0..24 * 366).contains(&off) {
        return Err(wrong("serve", phrase("form-serve-within-a-year-from")));
    }
    Ok(at)
}

/// A count that may be left out.
pub fn count(typed: &FormData, field: &str) -> Result<Option<u32>, ValidationError> {
    match typed.text(field) {
        "" => Ok(None),
        text => match text.parse::<u32>() {
            Ok(n) if (1..=1000).contains(&n) => Ok(Some(n)),
            _ => Err(wrong(field, phrase("trial-a-whole-number"))),
        },
    }
}

/// The sister doughs that a form asks for, from the request that they are made of.
pub fn sister_doughs(
    typed: &FormData,
    of: &SheetRequest,
    flours: &[FlourPart],
) -> Result<Vec<(Fact, SheetRequest)>, ValidationError> {
    let varied = Varied::from_key(typed.text("varied"))
        .ok_or_else(|| wrong("varied", phrase("trial-say-what-is-varied")))?;
    let each = count(typed, "each")?;
    if varied == Varied::Flour {
        let names: Vec<String> = typed
            .text("values")
            .split([',', ';', '/'])
            .map(|n| n.trim().to_lowercase())
            .filter(|n| !n.is_empty())
            .collect();
        let chosen: Option<Vec<FlourPart>> = names
            .iter()
            .map(|n| flours.iter().find(|f| f.name.to_lowercase() == *n).cloned())
            .collect();
        let chosen = chosen.ok_or_else(|| wrong("values", phrase("trial-flours-of-the-pantry")))?;
        return sisters_of_flour(of, &chosen, each);
    }
    let values = numbers(typed.text("values"))
        .ok_or_else(|| wrong("values", phrase("trial-say-the-values")))?;
    sisters(of, varied, &values, each)
}

/// The parts of one dough, in a maker's words.
pub fn parts(typed: &FormData) -> Vec<Fact> {
    (0..MOST_ARMS)
        .map(|i| typed.text(&format!("part[{i}]")).to_string())
        .filter(|t| !t.is_empty())
        .map(|t| in_own_words(&t))
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn lists_of_numbers_are_read_as_people_write_them() {
        for text in [
            "24, 40, 64",
            "24 40 64",
            "24/40/64",
            "24,40,64",
            "24; 40; 64",
        ] {
            assert_eq!(numbers(text), Some(vec![24.0, 40.0, 64.0]), "{text}");
        }
        assert_eq!(numbers("2,5; 3"), Some(vec![2.5, 3.0]));
        assert_eq!(numbers("2,5 3"), Some(vec![2.5, 3.0]));
        assert_eq!(numbers("much, more"), None);
        assert_eq!(numbers(""), Some(vec![]));
    }
}
