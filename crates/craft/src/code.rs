//! Batch codes: two letters from the name and a number, as written on boxes.

/// Two letters from a name: initials of its first two words, or its first two letters.
pub fn letters(name: &str) -> String {
    let mut words = name
        .split(|c: char| !c.is_alphabetic())
        .filter_map(|w| w.chars().find_map(ascii_letter).map(|first| (first, w)));
    let Some((first, word)) = words.next() else {
        return "SR".into();
    };
    let second = words
        .next()
        .map(|(c, _)| c)
        .or_else(|| word.chars().filter_map(ascii_letter).nth(1))
        .unwrap_or('X');
    [first, second].iter().collect()
}

/// The letter itself, or the plain letter under an accent; others have none.
fn ascii_letter(c: char) -> Option<char> {
    let plain = match c {
        'à'..='å' | 'À'..='Å' => 'A',
        'ç' | 'Ç' => 'C',
        'è'..='ë' | 'È'..='Ë' => 'E',
        'ì'..='ï' | 'Ì'..='Ï' => 'I',
        'ñ' | 'Ñ' => 'N',
        'ò'..='ö' | 'Ò'..='Ö' | 'ø' | 'Ø' => 'O',
        'ù'..='ü' | 'Ù'..='Ü' => 'U',
        c => c,
    };
    plain
        .is_ascii_alphabetic()
        .then(|| plain.to_ascii_uppercase())
}

/// Whether a text has the form of a batch code: `HR-31`.
pub fn is_code(text: &str) -> bool {
    let Some((letters, number)) = text.split_once('-') else {
        return false;
    };
    letters.len() == 2
        && letters.bytes().all(|b| b.is_ascii_uppercase())
        && (1..=6).contains(&number.len())
        && number.bytes().all(|b| b.is_ascii_digit())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn letters_come_from_the_name() {
        for (name, code) in [
            ("Halt round", "HR"),
            ("platform tray", "PT"),
            ("Crème", "CR"),
            ("ä ö", "AO"),
            ("x", "XX"),
            ("42", "SR"),
            ("", "SR"),
            ("<script>", "SC"),
        ] {
            assert_eq!(letters(name), code, "{name}");
        }
    }

    #[test]
    fn codes_are_recognised() {
        assert!(is_code("HR-31") && is_code("AB-1"));
        for bad in ["HR31", "hr-31", "H-3", "HR-", "HR-1234567", "HR-3a", "ÄÖ-1"] {
            assert!(!is_code(bad), "{bad}");
        }
    }
}
