//! Lists that are longer than a page: which part is shown, and the ways to the others.

use crate::shared::tongue::say;
use serde::Deserialize;

/// Which part is asked for; anything that is no number is the first.
#[derive(Debug, Clone, Default, Deserialize)]
pub struct Which {
    #[serde(default)]
    skip: Option<String>,
}

/// Nobody pages further.
const FURTHEST: u32 = 10_000_000;

impl Which {
    pub fn skip(&self) -> u32 {
        self.skip
            .as_deref()
            .and_then(|s| s.parse().ok())
            .unwrap_or(0)
            .min(FURTHEST)
    }
}

/// The part that is shown, of how many, and where the others are.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Paging {
    pub before: Option<String>,
    pub after: Option<String>,
    /// "21 to 40 of 112"; empty where all are shown.
    pub says: String,
    pub in_all: u64,
}

impl Paging {
    pub fn of(path: &str, skip: u32, most: u32, in_all: u64) -> Paging {
        let to = |skip: u32| match skip {
            0 => path.to_string(),
            n => format!("{path}?skip={n}"),
        };
        let last = (u64::from(skip) + u64::from(most)).min(in_all);
        let all = skip == 0 && last == in_all;
        Paging {
            before: (skip > 0).then(|| to(skip.saturating_sub(most))),
            after: (last < in_all).then(|| to(skip + most)),
            says: match (all, last > u64::from(skip)) {
                (true, _) => String::new(),
                (_, true) => say!("page-to-of", from = skip + 1, last = last, all = in_all),
                _ => say!("page-in-all", all = in_all),
            },
            in_all,
        }
    }

    /// The ways keep what else was asked.
    pub fn keep(&mut self, asked: &[(&str, &str)]) {
        for way in [&mut self.before, &mut self.after].into_iter().flatten() {
            for (name, value) in asked.iter().filter(|(_, v)| !v.is_empty()) {
                let value: String = form_urlencoded::byte_serialize(value.as_bytes()).collect();
                let joint = if way.contains('?') { '&' } else { '?' };
                way.push_str(&format!("{joint}{name}={value}"));
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn parts_say_which_they_are_and_lead_to_the_others() {
        let p = Paging::of("/ledger", 0, 20, 112);
        assert_eq!(
            (p.before, p.after.as_deref(), p.says.as_str()),
            (None, Some("/ledger?skip=20"), "1 to 20 of 112")
        );
        let mut p = Paging::of("/formulas", 100, 100, 112);
        p.keep(&[("q", "a b"), ("style", "")]);
        assert_eq!(p.before.as_deref(), Some("/formulas?q=a+b"));
        assert_eq!((p.after, p.says.as_str()), (None, "101 to 112 of 112"));
        assert_eq!(Paging::of("/", 0, 20, 7).says, "");
        assert_eq!(Paging::of("/", 60, 20, 7).says, "7 in all");
    }
}
