//! What stands on a shelf: as it was counted, less what was taken since, and how much of it is planned for.

use super::{Flour, Good, Leaven, Need};

/// Something that is kept in the pantry and used up, as the needs of a batch find it.
#[derive(Debug, Clone, PartialEq)]
pub struct StockItem {
    /// Its id in the pantry.
    pub id: u64,
    /// What needs may call it: its own name; of a leaven also its form.
    names: Vec<String>,
    /// A flour is asked for by its number.
    is_flour: bool,
    /// As it was counted, g.
    pub counted_g: f64,
}

impl StockItem {
    /// A flour, with what is in its bags.
    pub fn flour(id: u64, f: &Flour) -> StockItem {
        StockItem {
            id,
            names: vec![f.name.clone()],
            is_flour: true,
            counted_g: f.left_g(),
        }
    }
    /// A leaven, with what is left of it.
    pub fn leaven(id: u64, l: &Leaven) -> StockItem {
        StockItem {
            id,
            names: vec![l.form.shelf_name().into(), l.name.clone()],
            is_flour: false,
            counted_g: l.left_g,
        }
    }
    /// A good, with what is left of it.
    pub fn good(id: u64, g: &Good) -> StockItem {
        StockItem {
            id,
            names: vec![g.name.clone()],
            is_flour: false,
            counted_g: g.left_g,
        }
    }
    /// Whether a batch's need is this.
    pub fn answers(&self, need: &Need) -> bool {
        let number = self.is_flour.then_some(self.id);
        self.names.iter().any(|n| need.is(number, n))
    }
}

/// What was taken of something since it was counted, and what plans keep of it, g.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct InStock {
    /// Taken by doughs that were mixed, g.
    pub taken_g: f64,
    /// Reserved by doughs that will be, g.
    pub planned_g: f64,
}

impl InStock {
    /// What is there now.
    pub fn left_g(&self, counted_g: f64) -> f64 {
        (counted_g - self.taken_g).max(0.0)
    }
    /// What no plan has asked for yet.
    pub fn free_g(&self, counted_g: f64) -> f64 {
        (self.left_g(counted_g) - self.planned_g).max(0.0)
    }
    /// What the plans lack.
    pub fn short_g(&self, counted_g: f64) -> f64 {
        (self.planned_g - self.left_g(counted_g)).max(0.0)
    }
}

impl Flour {
    /// Its bags after so much was taken: from the bag first that keeps least.
    pub fn after(&self, taken_g: f64) -> Flour {
        let mut out = self.clone();
        let mut due: Vec<usize> = (0..out.bags.len()).collect();
        due.sort_by_key(|i| out.bags[*i].best_before.unwrap_or(jiff::civil::Date::MAX));
        let mut taken_g = taken_g;
        for i in due {
            let of_it = taken_g.min(out.bags[i].left_g);
            out.bags[i].left_g -= of_it;
            taken_g -= of_it;
        }
        out
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::flour::FlourFacts;
    use crate::leaven::YeastForm;
    use crate::pantry::{Bag, LeavenForm};

    fn bag(best_before: &str, left_g: f64) -> Bag {
        Bag {
            bought_on: None,
            best_before: best_before.parse().ok(),
            left_g,
        }
    }

    fn flour() -> Flour {
        Flour {
            name: "Quernside No. 4".into(),
            facts: FlourFacts::of_w(280.0),
            milling: String::new(),
            moisture_percent: None,
            allergens: String::new(),
            price_per_kg: None,
            bags: vec![bag("2027-03-01", 5000.0), bag("2026-12-20", 800.0)],
            pressed: vec![],
            generic: false,
        }
    }

    #[test]
    fn the_bag_that_keeps_least_is_used_first() {
        let left =
            |taken| -> Vec<f64> { flour().after(taken).bags.iter().map(|b| b.left_g).collect() };
        assert_eq!(left(300.0), [5000.0, 500.0]);
        assert_eq!(left(1000.0), [4800.0, 0.0]);
        // More than there is was taken: somebody bought and did not count.
        assert_eq!(left(9000.0), [0.0, 0.0]);
        let s = InStock {
            taken_g: 1000.0,
            planned_g: 6000.0,
        };
        let counted = flour().left_g();
        assert_eq!(
            (s.left_g(counted), s.free_g(counted), s.short_g(counted)),
            (4800.0, 0.0, 1200.0)
        );
    }

    #[test]
    fn needs_find_a_flour_by_its_number_and_yeast_by_its_form() {
        let need = |name: &str, pantry| Need {
            name: name.into(),
            called: crate::fact::Fact::as_written(name),
            pantry,
            grams: 1.0,
            is_topping: false,
        };
        let f = StockItem::flour(7, &flour());
        assert!(
            f.answers(&need("renamed", Some(7))) && !f.answers(&need("Quernside No. 4", Some(8)))
        );
        let yeast = StockItem::leaven(
            9,
            &Leaven {
                name: "the sachets".into(),
                form: LeavenForm::Instant,
                hydration_percent: None,
                opened_on: None,
                vigour: 1.0,
                left_g: 33.0,
                price_per_kg: None,
            },
        );
        assert!(yeast.answers(&need(YeastForm::Instant.shelf_name(), None)));
        assert!(!yeast.answers(&need(YeastForm::Fresh.shelf_name(), None)));
    }
}
