//! Names of people.

use crate::fact;
use crate::refusal::{Check, ValidationError};

/// No person's name has more letters.
const LONGEST: usize = 40;

/// A person's name as it is kept: without what surrounds it.
///
/// Errors: none, too long, or one with nothing to read in it; the field is `name`.
pub fn check_name(name: &str) -> Result<String, ValidationError> {
    let name = name.split_whitespace().collect::<Vec<_>>().join(" ");
    let mut check = Check::new();
    check.name("name", &name);
    let letters = name.chars().count();
    if letters > LONGEST {
        let most = LONGEST;
        check.refuse(
            "name",
            fact!("name-too-long", most = most, letters = letters),
        );
    } else if letters > 0
        && (!name.chars().any(char::is_alphanumeric) || name.chars().any(char::is_control))
    {
        check.refuse("name", fact!("name-unreadable"));
    }
    check.done().map(|()| name)
}

/// What a name is looked up by: the same however it is typed.
pub fn name_key(name: &str) -> String {
    name.split_whitespace()
        .map(str::to_lowercase)
        .collect::<Vec<_>>()
        .join(" ")
}

/// What stands for somebody where there is little room: "IM".
pub fn initials(name: &str) -> String {
    let first = |word: &str| word.chars().find(|c| c.is_alphanumeric());
    let words: Vec<char> = name.split_whitespace().filter_map(first).collect();
    let chosen = match words.as_slice() {
        [one] => vec![*one],
        [one, .., last] => vec![*one, *last],
        [] => vec![],
    };
    chosen
        .iter()
        .flat_map(|c| c.to_uppercase())
        .take(4)
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_name_is_one_however_it_is_typed() {
        assert_eq!(check_name("  Ines   Marlow ").unwrap(), "Ines Marlow");
        assert_eq!(name_key(" INES  marlow"), name_key("Ines Marlow"));
        for bad in ["", "   ", "…", "a\u{7}b", &"x".repeat(41)] {
            assert!(check_name(bad).is_err(), "{bad:?}");
        }
    }

    #[test]
    fn initials_are_of_the_first_and_the_last_word() {
        for (name, short) in [
            ("Ines Marlow", "IM"),
            ("bo", "B"),
            ("Ada de la Rue", "AR"),
            ("ß x", "SSX"),
        ] {
            assert_eq!(initials(name), short);
        }
    }
}
