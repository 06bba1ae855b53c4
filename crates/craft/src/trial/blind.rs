//! In which order a taster is served, and under which letters: nobody knows which is which, and no place in the row favours one.

use crate::draw::Draw;

/// The arm that stands behind each letter, from A: hidden by the trial's own key.
pub fn behind_letters(key: u64, arms: u8) -> Vec<u8> {
    let mut all: Vec<u8> = (0..arms).collect();
    Draw::of(key).shuffle(&mut all);
    all
}

/// The letter of an arm.
pub fn letter(key: u64, arms: u8, arm: u8) -> char {
    let at = behind_letters(key, arms).iter().position(|a| *a == arm);
    char::from(b'A' + at.unwrap_or(0) as u8)
}

/// The order in which a taster, from 1, is served, as places in the row of letters. Over as many tasters as there are rows each
/// letter is first as often as any other, and follows each other one as often.
pub fn order(arms: u8, taster: u8) -> Vec<u8> {
    let rows: &[&[u8]] = match arms {
        2 => &[&[0, 1], &[1, 0]],
        3 => &[
            &[0, 1, 2],
            &[1, 2, 0],
            &[2, 0, 1],
            &[2, 1, 0],
            &[0, 2, 1],
            &[1, 0, 2],
        ],
        4 => &[&[0, 1, 3, 2], &[1, 2, 0, 3], &[2, 3, 1, 0], &[3, 0, 2, 1]],
        _ => return (0..arms).collect(),
    };
    rows[usize::from(taster.saturating_sub(1)) % rows.len()].to_vec()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_letter_is_first_and_follows_each_other_equally_often() {
        for (arms, rows) in [(2u8, 2u8), (3, 6), (4, 4)] {
            let all: Vec<Vec<u8>> = (1..=rows).map(|t| order(arms, t)).collect();
            for a in 0..arms {
                let first = all.iter().filter(|o| o[0] == a).count();
                assert_eq!(first, usize::from(rows / arms), "{arms} {a}");
                for b in (0..arms).filter(|b| *b != a) {
                    let after = all
                        .iter()
                        .filter(|o| o.windows(2).any(|w| w == [a, b]))
                        .count();
                    assert_eq!(after, usize::from(rows / arms), "{arms} {a}{b}");
                }
            }
        }
    }

    #[test]
    fn letters_hide_the_arms_and_stay_as_they_are() {
        for key in 0..200u64 {
            let mut all = behind_letters(key, 4);
            assert_eq!(all, behind_letters(key, 4));
            assert_eq!(letter(key, 4, all[2]), 'C');
            all.sort_unstable();
            assert_eq!(all, [0, 1, 2, 3]);
        }
        // The first arm is not always A.
        let first = (0..200).filter(|k| letter(*k, 2, 0) == 'A').count();
        assert!((70..130).contains(&first), "{first}");
    }
}
