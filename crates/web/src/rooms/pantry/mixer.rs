//! Mixers of the kitchen: what they are, what they hold, and what their own mixes taught.

use super::shelf::{Entry, Shelf, choice, figure, text};
use crate::shared::fields::{put_weight, weight};
use crate::shared::form::{FieldReader, FormData};
use crate::shared::format::by_name;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::phrase;
use craft::keyed::Keyed;
use craft::mix::{Machine, Mixer};
use craft::refusal::ValidationError;

impl Shelf for Machine {
    const PATH: &'static str = "/pantry/mixers";
    const TITLE: &'static str = "pantry-mixer";
    const WHY: &'static str = "pantry-what-it-holds-says-in";

    fn entries(here: &RequestKitchen) -> Vec<Entry> {
        let unit = here.measures.weight_unit();
        vec![
            text("name", phrase("bench-name"), ""),
            choice("kind", phrase("pantry-kind"), by_name(Mixer::name)),
            figure(
                "capacity_kg",
                phrase("shape-holds"),
                phrase("pantry-dough-at-60-water"),
                unit,
            ),
            choice(
                "bowl_comes_off",
                phrase("pantry-its-bowl"),
                [
                    ("no", phrase("pantry-stays-on")),
                    ("yes", phrase("pantry-comes-off-for-a-bath")),
                ],
            ),
        ]
    }
    fn fresh() -> Machine {
        Machine::usual(Mixer::Planetary)
    }
    fn write(&self, t: &mut FormData, here: &RequestKitchen) {
        t.set("name", &self.name);
        t.set("kind", self.kind.key());
        put_weight(t, "capacity_kg", 1000.0 * self.capacity_kg, here);
        t.set(
            "bowl_comes_off",
            if self.bowl_comes_off { "yes" } else { "no" },
        );
    }
    fn read(r: &mut FieldReader, here: &RequestKitchen, before: Option<&Machine>) -> Machine {
        let kind = Mixer::from_key(r.typed.text("kind")).unwrap_or(Mixer::Planetary);
        Machine {
            name: r.name("name", phrase("form-a-name")),
            kind,
            capacity_kg: weight(r, "capacity_kg", phrase("pantry-it-holds"), here) / 1000.0,
            bowl_comes_off: r.typed.text("bowl_comes_off") == "yes",
            // What was learned is of that kind of machine.
            learned: before
                .filter(|b| b.kind == kind)
                .and_then(|b| b.learned.clone()),
        }
    }
    fn checked(&self) -> Result<(), ValidationError> {
        self.check()
    }
}
