//! What a password must be.

use crate::fact;
use crate::refusal::ValidationError;
use zxcvbn::Score;

/// No password has fewer letters.
const SHORTEST: usize = 12;
/// More is not looked at.
const LONGEST: usize = 128;
/// Words of this trade that anybody would try first.
const OWN_WORDS: [&str; 5] = ["slow", "slowrise", "pizza", "sourdough", "kitchen"];

/// Whether it is long enough and none that is tried first: neither common, nor one's own name, nor a row of keys.
///
/// Errors: a sentence on the field `password`.
pub fn check_password(password: &str, name: &str) -> Result<(), ValidationError> {
    let letters = password.chars().count();
    let refuse = |fact| Err(ValidationError::one("password", fact));
    if letters < SHORTEST {
        return refuse(fact!("password-short", least = SHORTEST, letters = letters));
    }
    if letters > LONGEST {
        return refuse(fact!("password-long", most = LONGEST));
    }
    let mut known: Vec<&str> = OWN_WORDS.to_vec();
    known.push(name);
    known.extend(name.split_whitespace());
    if zxcvbn::zxcvbn(password, &known).score() < Score::Three {
        return refuse(fact!("password-common"));
    }
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn short_common_and_own_names_are_refused() {
        let name = "Ines Marlow";
        let why = |p: &str| match check_password(p, name) {
            Ok(()) => "".into(),
            Err(e) => e.0[0].message.code.clone(),
        };
        assert_eq!(why("kupfer-lärche"), "");
        assert_eq!(why("seven slow loaves at dawn"), "");
        assert_eq!(why("short"), "password-short");
        assert_eq!(why(&"x1ß".repeat(43)), "password-long");
        for common in [
            "password1234",
            "qwertyuiop123",
            "111111111111",
            "ines marlow 1",
            "pizzapizzapizza",
            "iloveyou1234",
        ] {
            assert_eq!(why(common), "password-common", "{common}");
        }
    }
}
