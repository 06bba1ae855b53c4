//! Enums whose variants have keys: what forms, files, addresses and the API write for them.

use std::str::FromStr;
use strum::VariantArray;

/// An enum whose variants have keys; `strum` derives all that it takes.
///
/// ```
/// use craft::keyed::Keyed;
/// use craft::leaven::YeastForm;
///
/// assert_eq!(YeastForm::ActiveDry.key(), "active_dry");
/// assert_eq!(YeastForm::from_key("active_dry"), Some(YeastForm::ActiveDry));
/// assert_eq!(YeastForm::from_key("leaf"), None);
/// assert_eq!(YeastForm::ALL.len(), 3);
/// ```
pub trait Keyed: Copy + VariantArray + Into<&'static str> + FromStr {
    /// Every variant, in the order in which they are offered.
    const ALL: &'static [Self] = Self::VARIANTS;

    /// Its key.
    fn key(self) -> &'static str {
        self.into()
    }
    /// The variant of that key.
    fn from_key(key: &str) -> Option<Self> {
        key.parse().ok()
    }
}

impl<T: Copy + VariantArray + Into<&'static str> + FromStr> Keyed for T {}

#[cfg(test)]
mod tests {
    use super::*;
    use serde::Serialize;

    fn is_said_alike<T: Keyed + Serialize>() {
        for &v in T::ALL {
            assert_eq!(serde_json::to_value(v).unwrap(), v.key());
            assert_eq!(T::from_key(v.key()).map(T::key), Some(v.key()));
        }
    }

    #[test]
    fn forms_and_files_write_one_key() {
        is_said_alike::<crate::fire::Shade>();
        is_said_alike::<crate::fire::material::Material>();
        is_said_alike::<crate::fire::oven::Fuel>();
        is_said_alike::<crate::fire::oven::OvenKind>();
        is_said_alike::<crate::fire::oven::OvenShelf>();
        is_said_alike::<crate::fire::programme::Cue>();
        is_said_alike::<crate::fire::setup::Aim>();
        is_said_alike::<crate::flour::FlourKind>();
        is_said_alike::<crate::formula::ExtraKind>();
        is_said_alike::<crate::formula::PrefermentKind>();
        is_said_alike::<crate::leaven::YeastForm>();
        is_said_alike::<crate::mix::Mixer>();
        is_said_alike::<crate::pantry::LeavenForm>();
        is_said_alike::<crate::photo::PhotoOf>();
        is_said_alike::<crate::reading::Subject>();
        is_said_alike::<crate::sheet::StepKind>();
        is_said_alike::<crate::style::oven_fit::StatedOvenKind>();
    }
}
