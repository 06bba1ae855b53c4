//! A stocked pantry to begin with: what most kitchens have, marked as generic until somebody enters their own.

use crate::fact;
use crate::fact::Fact;
use crate::flour::{FlourFacts, FlourKind};
use crate::pantry::Flour;

/// A flour by its type: what it is called, from what, W where one usually reads it, protein.
type ByType = (fn() -> Fact, FlourKind, Option<f64>, f64);

const FLOURS: [ByType; 5] = [
    (
        || fact!("generic-soft"),
        FlourKind::SoftFine,
        Some(200.0),
        10.5,
    ),
    (
        || fact!("generic-medium"),
        FlourKind::SoftFine,
        Some(270.0),
        12.0,
    ),
    (
        || fact!("generic-strong"),
        FlourKind::SoftFine,
        Some(340.0),
        13.5,
    ),
    (|| fact!("generic-whole"), FlourKind::Wholemeal, None, 13.0),
    (
        || fact!("generic-semolina"),
        FlourKind::Semolina,
        None,
        12.5,
    ),
];

/// The flours of a kitchen that entered none yet; `words` gives each its name.
pub fn generic_flours(words: impl Fn(&Fact) -> String) -> Vec<Flour> {
    let one = |(name, kind, w, protein): &ByType| Flour {
        name: words(&name()),
        facts: FlourFacts {
            kind: *kind,
            w: *w,
            protein_percent: Some(*protein),
            ..FlourFacts::default()
        },
        milling: String::new(),
        moisture_percent: None,
        allergens: String::new(),
        price_per_kg: None,
        bags: vec![],
        pressed: vec![],
        generic: true,
    };
    FLOURS.iter().map(one).collect()
}

/// What stands on the shelf besides, without prices.
pub fn shelf_goods() -> Vec<Fact> {
    vec![
        fact!("good-salt"),
        fact!("good-oil"),
        fact!("good-sugar"),
        fact!("good-tomatoes"),
        fact!("good-mozzarella"),
        fact!("good-hard-cheese"),
        fact!("good-basil"),
        fact!("good-ham"),
    ]
}

/// W by which two flours of one kind are the same on the shelf.
const ALIKE_W: f64 = 40.0;

/// Which generic flour one's own takes the place of: of its kind, and of its strength where both say theirs.
pub fn replaced<'f>(own: &FlourFacts, all: impl Iterator<Item = (u64, &'f Flour)>) -> Option<u64> {
    let far = |f: &Flour| match (own.w, f.facts.w) {
        (Some(a), Some(b)) => (a - b).abs(),
        _ => 0.0,
    };
    all.filter(|(_, f)| f.generic && f.facts.kind == own.kind && far(f) <= ALIKE_W)
        .min_by(|a, b| far(a.1).total_cmp(&far(b.1)))
        .map(|(id, _)| id)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn ones_own_flour_takes_the_place_of_the_nearest_of_its_kind() {
        let all = generic_flours(Fact::brief);
        let of = |kind, w| {
            let own = FlourFacts {
                kind,
                w,
                ..FlourFacts::default()
            };
            let found = replaced(&own, (0..).zip(&all))?;
            all[found as usize].facts.w
        };
        assert_eq!(of(FlourKind::SoftFine, Some(300.0)), Some(270.0));
        assert_eq!(of(FlourKind::SoftFine, Some(330.0)), Some(340.0));
        assert_eq!(of(FlourKind::SoftFine, Some(430.0)), None);
        assert_eq!(of(FlourKind::Rye, None), None);
        assert!(
            all.iter()
                .all(|f| f.price_per_kg.is_none() && f.bags.is_empty())
        );
    }
}
