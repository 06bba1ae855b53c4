//! The shelves of the pantry but styles.

use super::shelf::{Entry, Shelf, choice, date, figure, lines, text};
use crate::shared::fields::{
    Quantity, day, degrees, length, may, may_scaled, must, put_day, put_degrees, put_length,
    put_may, put_may_scaled, put_weight, unit_of, weight,
};
use crate::shared::form::{FieldReader, FormData};
use crate::shared::format::{by_name, word};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{phrase, plain, say};
use craft::begin::replaced;
use craft::fact::Fact;
use craft::flour::{FlourFacts, FlourKind};
use craft::formula::PanShape;
use craft::keyed::Keyed;
use craft::pantry::{Bag, DoughBox, Flour, Good, Leaven, LeavenForm, Scale};
use craft::path::{self, Method, Place, methods};
use craft::refusal::{Check, ValidationError};
use craft::rise::Air;
use craft::units::Celsius;
use store::pantry::Everything;

fn price(here: &RequestKitchen) -> Entry {
    figure(
        "price_per_kg",
        phrase("pantry-price"),
        unit_of(Quantity::PerKg, here),
        &here.kitchen.reads.currency,
    )
}

impl Shelf for Flour {
    const PATH: &'static str = "/pantry/flours";
    const TITLE: &'static str = "pantry-flour-2";
    const WHY: &'static str = "pantry-w-protein-and-absorption-from";
    const ROWS: &'static str = "bags";
    const ROWS_SAID: [&'static str; 3] = [
        "pantry-bags",
        "pantry-bag",
        "pantry-no-bag-entered-yet-stock",
    ];

    fn entries(here: &RequestKitchen) -> Vec<Entry> {
        vec![
            text("name", phrase("bench-name"), ""),
            choice("kind", phrase("pantry-kind"), by_name(FlourKind::name)),
            figure("w", "W", phrase("pantry-strength-80-to-450"), ""),
            figure("protein_percent", phrase("form-protein"), "", "%"),
            figure("pl", "P/L", phrase("pantry-pl-usual"), ""),
            figure(
                "absorption_percent",
                phrase("form-absorption"),
                phrase("pantry-water-it-takes"),
                "%",
            ),
            figure(
                "whole_percent",
                phrase("form-whole-grain"),
                phrase("pantry-empty-by-kind"),
                "%",
            ),
            text(
                "milling",
                phrase("pantry-milling"),
                phrase("pantry-stone-roller"),
            ),
            figure(
                "moisture_percent",
                phrase("pantry-moisture"),
                phrase("pantry-moisture-usual"),
                "%",
            ),
            text(
                "allergens",
                phrase("sheet-allergens"),
                phrase("pantry-as-on-the-bag"),
            ),
            price(here),
        ]
    }
    fn row_entries(here: &RequestKitchen) -> Vec<Entry> {
        vec![
            date("bought_on", phrase("pantry-bought")),
            date("best_before", phrase("pantry-best-before")),
            figure(
                "left_g",
                phrase("pantry-left-3"),
                "",
                here.measures.weight_unit(),
            ),
        ]
    }
    fn row_names() -> &'static [&'static str] {
        &["bought_on", "best_before", "left_g"]
    }
    fn fresh() -> Flour {
        Flour {
            name: String::new(),
            facts: FlourFacts::default(),
            milling: String::new(),
            moisture_percent: None,
            allergens: "gluten".into(),
            price_per_kg: None,
            bags: vec![],
            pressed: vec![],
            generic: false,
        }
    }
    fn write(&self, t: &mut FormData, here: &RequestKitchen) {
        t.set("name", &self.name);
        t.set("kind", self.facts.kind.key());
        put_may(t, "w", self.facts.w);
        put_may(t, "protein_percent", self.facts.protein_percent);
        put_may(t, "pl", self.facts.pl);
        put_may(t, "absorption_percent", self.facts.absorption_percent);
        put_may(t, "whole_percent", self.facts.whole_percent);
        t.set("milling", &self.milling);
        put_may(t, "moisture_percent", self.moisture_percent);
        t.set("allergens", &self.allergens);
        put_may_scaled(t, "price_per_kg", self.price_per_kg, Quantity::PerKg, here);
        for (i, b) in self.bags.iter().enumerate() {
            put_day(t, &format!("bags[{i}].bought_on"), b.bought_on);
            put_day(t, &format!("bags[{i}].best_before"), b.best_before);
            put_weight(t, &format!("bags[{i}].left_g"), b.left_g, here);
        }
    }
    fn read(r: &mut FieldReader, here: &RequestKitchen, before: Option<&Flour>) -> Flour {
        let bags = r.typed.rows("bags");
        let kind = FlourKind::from_key(r.typed.text("kind")).unwrap_or_default();
        let w = may(r, "w", phrase("form-strength-w"));
        Flour {
            name: r.name("name", phrase("form-a-name")),
            facts: FlourFacts {
                kind,
                w,
                protein_percent: may(r, "protein_percent", phrase("form-protein")),
                pl: may(r, "pl", "P/L"),
                absorption_percent: may(r, "absorption_percent", phrase("form-absorption")),
                whole_percent: may(r, "whole_percent", phrase("form-whole-grain")),
            },
            milling: r.typed.text("milling").into(),
            moisture_percent: may(r, "moisture_percent", phrase("pantry-moisture")),
            allergens: r.typed.text("allergens").into(),
            price_per_kg: may_scaled(
                r,
                "price_per_kg",
                phrase("pantry-price"),
                Quantity::PerKg,
                here,
            ),
            // What was pressed was judged by that strength.
            pressed: before
                .filter(|b| b.facts.w == w && b.facts.kind == kind)
                .map_or(vec![], |b| b.pressed.clone()),
            // Whoever writes it down knows it.
            generic: false,
            bags: (0..bags)
                .map(|i| Bag {
                    bought_on: day(r, &format!("bags[{i}].bought_on")),
                    best_before: day(r, &format!("bags[{i}].best_before")),
                    left_g: weight(
                        r,
                        &format!("bags[{i}].left_g"),
                        phrase("pantry-left-in-the-bag"),
                        here,
                    ),
                })
                .collect(),
        }
    }
    fn replaces(&self, all: &Everything) -> Option<u64> {
        replaced(&self.facts, all.flours.iter().map(|f| (f.id, &f.facts)))
    }
    fn after_use(&self, taken_g: f64) -> Flour {
        self.after(taken_g)
    }
    fn checked(&self) -> Result<(), ValidationError> {
        self.check()
    }
}

impl Shelf for Leaven {
    const PATH: &'static str = "/pantry/leavens";
    const TITLE: &'static str = "form-leaven";
    const WHY: &'static str = "pantry-what-raises-a-dough-how";

    fn entries(here: &RequestKitchen) -> Vec<Entry> {
        vec![
            text("name", phrase("bench-name"), ""),
            choice("form", phrase("pantry-form"), by_name(LeavenForm::name)),
            figure(
                "hydration_percent",
                phrase("pantry-water-in-it"),
                phrase("pantry-a-starters-of-its-flour"),
                "%",
            ),
            date("opened_on", phrase("pantry-opened-or-begun")),
            figure(
                "vigour",
                phrase("pantry-vigour"),
                phrase("pantry-1-is-as-new"),
                "",
            ),
            figure(
                "left_g",
                phrase("pantry-left-3"),
                "",
                here.measures.weight_unit(),
            ),
            price(here),
        ]
    }
    fn fresh() -> Leaven {
        Leaven {
            name: String::new(),
            form: LeavenForm::Instant,
            hydration_percent: None,
            opened_on: None,
            vigour: 1.0,
            left_g: 0.0,
            price_per_kg: None,
        }
    }
    fn write(&self, t: &mut FormData, here: &RequestKitchen) {
        t.set("name", &self.name);
        t.set("form", self.form.key());
        put_may(t, "hydration_percent", self.hydration_percent);
        put_day(t, "opened_on", self.opened_on);
        t.set("vigour", plain(self.vigour));
        put_weight(t, "left_g", self.left_g, here);
        put_may_scaled(t, "price_per_kg", self.price_per_kg, Quantity::PerKg, here);
    }
    fn read(r: &mut FieldReader, here: &RequestKitchen, _: Option<&Leaven>) -> Leaven {
        Leaven {
            name: r.name("name", phrase("form-a-name")),
            form: LeavenForm::from_key(r.typed.text("form")).unwrap_or(LeavenForm::Instant),
            hydration_percent: may(
                r,
                "hydration_percent",
                phrase("pantry-water-in-the-starter"),
            ),
            opened_on: day(r, "opened_on"),
            vigour: must(r, "vigour", phrase("pantry-vigour")),
            left_g: weight(r, "left_g", phrase("pantry-left-3"), here),
            price_per_kg: may_scaled(
                r,
                "price_per_kg",
                phrase("pantry-price"),
                Quantity::PerKg,
                here,
            ),
        }
    }
    fn after_use(&self, taken_g: f64) -> Leaven {
        Leaven {
            left_g: (self.left_g - taken_g).max(0.0),
            ..self.clone()
        }
    }
    fn checked(&self) -> Result<(), ValidationError> {
        self.check()
    }
}

impl Shelf for Scale {
    const PATH: &'static str = "/pantry/scales";
    const TITLE: &'static str = "pantry-scale";
    const WHY: &'static str = "pantry-every-weight-is-rounded-to";

    fn entries(_: &RequestKitchen) -> Vec<Entry> {
        vec![
            text("name", phrase("bench-name"), ""),
            figure(
                "reads_g",
                phrase("pantry-reads-to"),
                phrase("pantry-its-smallest-step"),
                "g",
            ),
            figure(
                "carries_g",
                phrase("pantry-carries"),
                phrase("pantry-at-most"),
                "g",
            ),
        ]
    }
    fn fresh() -> Scale {
        Scale {
            name: String::new(),
            reads_g: 1.0,
            carries_g: 5000.0,
        }
    }
    fn write(&self, t: &mut FormData, _: &RequestKitchen) {
        t.set("name", &self.name);
        t.set("reads_g", plain(self.reads_g));
        t.set("carries_g", plain(self.carries_g));
    }
    fn read(r: &mut FieldReader, _: &RequestKitchen, _: Option<&Scale>) -> Scale {
        Scale {
            name: r.name("name", phrase("form-a-name")),
            reads_g: must(r, "reads_g", phrase("pantry-it-reads-to")),
            carries_g: must(r, "carries_g", phrase("pantry-it-carries")),
        }
    }
    fn checked(&self) -> Result<(), ValidationError> {
        self.check()
    }
}

pub(super) fn shape_entries(here: &RequestKitchen) -> Vec<Entry> {
    let unit = here.measures.length_unit();
    vec![
        text("name", phrase("bench-name"), ""),
        choice(
            "shape",
            phrase("pantry-shape"),
            [
                ("rectangle", phrase("pantry-rectangular")),
                ("round", phrase("pantry-round")),
            ],
        ),
        figure(
            "length_cm",
            phrase("form-long"),
            phrase("pantry-inside-rectangular"),
            unit,
        ),
        figure(
            "width_cm",
            phrase("form-wide"),
            phrase("pantry-inside-rectangular"),
            unit,
        ),
        figure(
            "diameter_cm",
            phrase("form-across"),
            phrase("pantry-inside-round"),
            unit,
        ),
        figure(
            "height_cm",
            phrase("pantry-high"),
            phrase("form-inside"),
            unit,
        ),
        figure("count", phrase("pantry-how-many"), "", ""),
    ]
}

pub(super) fn write_shape(
    t: &mut FormData,
    name: &str,
    pan: PanShape,
    height_cm: f64,
    count: u32,
    here: &RequestKitchen,
) {
    t.set("name", name);
    match pan {
        PanShape::Rectangle {
            length_cm,
            width_cm,
        } => {
            t.set("shape", "rectangle");
            put_length(t, "length_cm", length_cm, here);
            put_length(t, "width_cm", width_cm, here);
        }
        PanShape::Round { diameter_cm } => {
            t.set("shape", "round");
            put_length(t, "diameter_cm", diameter_cm, here);
        }
    }
    put_length(t, "height_cm", height_cm, here);
    t.set("count", count.to_string());
}

pub(super) fn read_shape(
    r: &mut FieldReader,
    here: &RequestKitchen,
) -> (String, PanShape, f64, u32) {
    let name = r.name("name", phrase("form-a-name"));
    let pan = if r.typed.text("shape") == "round" {
        PanShape::Round {
            diameter_cm: length(r, "diameter_cm", phrase("pantry-diameter"), here),
        }
    } else {
        PanShape::Rectangle {
            length_cm: length(r, "length_cm", phrase("pantry-length"), here),
            width_cm: length(r, "width_cm", phrase("pantry-width"), here),
        }
    };
    (
        name,
        pan,
        length(r, "height_cm", phrase("pantry-height"), here),
        r.count("count", phrase("pantry-how-many")),
    )
}

impl Shelf for DoughBox {
    const PATH: &'static str = "/pantry/boxes";
    const TITLE: &'static str = "pantry-box-or-tub";
    const WHY: &'static str = "pantry-how-many-balls-lie-in-2";

    fn entries(here: &RequestKitchen) -> Vec<Entry> {
        shape_entries(here)
    }
    fn fresh() -> DoughBox {
        DoughBox {
            name: String::new(),
            pan: rectangle(60.0, 40.0),
            height_cm: 7.0,
            count: 1,
        }
    }
    fn write(&self, t: &mut FormData, here: &RequestKitchen) {
        write_shape(t, &self.name, self.pan, self.height_cm, self.count, here);
    }
    fn read(r: &mut FieldReader, here: &RequestKitchen, _: Option<&DoughBox>) -> DoughBox {
        let (name, pan, height_cm, count) = read_shape(r, here);
        DoughBox {
            name,
            pan,
            height_cm,
            count,
        }
    }
    fn checked(&self) -> Result<(), ValidationError> {
        self.check()
    }
}

pub(super) const fn rectangle(length_cm: f64, width_cm: f64) -> PanShape {
    PanShape::Rectangle {
        length_cm,
        width_cm,
    }
}

impl Shelf for Good {
    const PATH: &'static str = "/pantry/goods";
    const TITLE: &'static str = "pantry-other-good";
    const WHY: &'static str = "pantry-salt-oil-toppings-found-by";

    fn entries(here: &RequestKitchen) -> Vec<Entry> {
        vec![
            text(
                "name",
                phrase("bench-name"),
                phrase("pantry-as-on-the-sheet-salt"),
            ),
            price(here),
            figure(
                "left_g",
                phrase("pantry-left-3"),
                "",
                here.measures.weight_unit(),
            ),
            text(
                "allergens",
                phrase("sheet-allergens"),
                phrase("pantry-as-on-the-packet"),
            ),
        ]
    }
    fn fresh() -> Good {
        Good {
            name: String::new(),
            price_per_kg: None,
            left_g: 0.0,
            allergens: String::new(),
        }
    }
    fn write(&self, t: &mut FormData, here: &RequestKitchen) {
        t.set("name", &self.name);
        put_may_scaled(t, "price_per_kg", self.price_per_kg, Quantity::PerKg, here);
        put_weight(t, "left_g", self.left_g, here);
        t.set("allergens", &self.allergens);
    }
    fn read(r: &mut FieldReader, here: &RequestKitchen, _: Option<&Good>) -> Good {
        Good {
            name: r.name("name", phrase("form-a-name")),
            price_per_kg: may_scaled(
                r,
                "price_per_kg",
                phrase("pantry-price"),
                Quantity::PerKg,
                here,
            ),
            left_g: weight(r, "left_g", phrase("pantry-left-3"), here),
            allergens: r.typed.text("allergens").into(),
        }
    }
    fn after_use(&self, taken_g: f64) -> Good {
        Good {
            left_g: (self.left_g - taken_g).max(0.0),
            ..self.clone()
        }
    }
    fn checked(&self) -> Result<(), ValidationError> {
        self.check()
    }
}

const AIRS: [(Air, &str, &str); 4] = [
    (Air::Room, "room", "pantry-room-or-outdoors"),
    (Air::Fridge, "fridge", "pantry-fridge-still-air"),
    (Air::Fan, "fan", "pantry-fridge-or-walk-in-with"),
    (Air::Freezer, "freezer", "pantry-freezer"),
];

impl Shelf for Place {
    const PATH: &'static str = "/pantry/places";
    const TITLE: &'static str = "rise-place";
    const WHY: &'static str = "pantry-where-a-dough-can-lie";

    fn entries(here: &RequestKitchen) -> Vec<Entry> {
        let degree = here.measures.degree_unit();
        vec![
            text("name", phrase("bench-name"), ""),
            choice(
                "air",
                phrase("pantry-air"),
                AIRS.map(|(_, k, n)| (k, phrase(n))),
            ),
            figure(
                "c",
                phrase("pantry-temperature"),
                phrase("pantry-on-average"),
                degree,
            ),
            lines(
                "day",
                phrase("pantry-its-day"),
                &say!(
                    "pantry-06-00-15-00-or",
                    degrees = here.measures.degrees(14.0, 0),
                    degrees2 = here.measures.degrees(23.0, 0)
                ),
            ),
            figure(
                "off_c",
                phrase("pantry-may-be-off-by"),
                phrase("pantry-degrees-either-way"),
                unit_of(Quantity::Kelvin, here),
            ),
            figure(
                "holds_h",
                phrase("pantry-without-power-it-holds"),
                phrase("pantry-until-its-difference-to-the"),
                "h",
            ),
        ]
    }
    fn fresh() -> Place {
        Place {
            name: String::new(),
            air: Air::Room,
            c: 18.0,
            profile_c: None,
            off_k: None,
            holds_h: None,
        }
    }
    fn write(&self, t: &mut FormData, here: &RequestKitchen) {
        t.set("name", &self.name);
        let key = AIRS
            .iter()
            .find(|a| a.0 == self.air)
            .map_or("room", |a| a.1);
        t.set("air", key);
        put_degrees(t, "c", self.c, here);
        let day = self.profile_c.as_ref().map_or(String::new(), |p| {
            path::day::words(p, |c| here.measures.degrees_field(c))
        });
        t.set("day", day);
        put_may_scaled(t, "off_c", self.off_k, Quantity::Kelvin, here);
        put_may(t, "holds_h", self.holds_h);
    }
    fn read(r: &mut FieldReader, here: &RequestKitchen, _: Option<&Place>) -> Place {
        let day = r.typed.text("day").to_string();
        let profile_c = if day.is_empty() {
            None
        } else {
            path::day::profile(&day)
                .map_err(|e| r.refuse_as("day", e))
                .ok()
                .map(|p| {
                    let unit = here.measures.temperature;
                    p.into_iter()
                        .map(|v| Celsius::from_reading(v, unit).0)
                        .collect()
                })
        };
        let air = AIRS
            .iter()
            .find(|a| a.1 == r.typed.text("air"))
            .map_or(Air::Room, |a| a.0);
        Place {
            name: r.name("name", phrase("form-a-name")),
            air,
            c: degrees(r, "c", phrase("pantry-temperature"), here),
            profile_c,
            off_k: may_scaled(
                r,
                "off_c",
                phrase("pantry-may-be-off-by"),
                Quantity::Kelvin,
                here,
            ),
            holds_h: may(r, "holds_h", phrase("pantry-without-power-it-holds")),
        }
    }
    fn checked(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        self.check_into(&mut c);
        c.done().map_err(|e| {
            // The day's field holds the hourly values.
            ValidationError(
                e.0.into_iter()
                    .map(|mut e| {
                        if e.field == "profile_c" {
                            e.field = "day".into();
                        }
                        e
                    })
                    .collect(),
            )
        })
    }
}

impl Shelf for Method {
    const PATH: &'static str = "/pantry/methods";
    const TITLE: &'static str = "rise-method-2";
    const WHY: &'static str = "pantry-what-it-is-called-and";

    fn entries(_: &RequestKitchen) -> Vec<Entry> {
        vec![
            text("name", phrase("bench-name"), ""),
            text(
                "line",
                phrase("pantry-in-short"),
                phrase("pantry-where-and-how-long"),
            ),
            text(
                "taste",
                phrase("pantry-taste"),
                phrase("pantry-and-how-it-handles"),
            ),
        ]
    }
    fn fresh() -> Method {
        Method {
            name: String::new(),
            key: format!("own-{}", uuid::Uuid::new_v4().simple()),
            ..methods::all()[0].clone()
        }
    }
    fn write(&self, t: &mut FormData, _: &RequestKitchen) {
        t.set("name", &self.name);
        t.set("line", word(&self.line));
        t.set("taste", &self.taste);
    }
    fn read(r: &mut FieldReader, _: &RequestKitchen, before: Option<&Method>) -> Method {
        Method {
            name: r.name("name", phrase("form-a-name")),
            line: Fact::as_written(r.typed.text("line")),
            taste: r.typed.text("taste").into(),
            ..before.cloned().unwrap_or_else(Method::fresh)
        }
    }
    fn checked(&self) -> Result<(), ValidationError> {
        self.check()
    }
}
