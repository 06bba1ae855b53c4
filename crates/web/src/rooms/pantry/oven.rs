//! What stands at the fire: ovens, and the pans that go into them.

use super::shelf::{Entry, Shelf, choice, figure, text};
use super::shelves::{read_shape, rectangle, shape_entries, write_shape};
use crate::shared::fields::{
    Quantity, degrees, may, may_scaled, must, put_degrees, put_may, put_may_scaled, put_scaled,
    scaled, unit_of,
};
use crate::shared::form::{FieldReader, FormData};
use crate::shared::format::by_name;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{phrase, plain, say};
use craft::fire::{Fuel, Material, Oven, OvenKind, oven};
use craft::keyed::Keyed;
use craft::pantry::Pan;
use craft::refusal::ValidationError;

/// Usual thicknesses of floors, in the kitchen's unit.
fn usual_floors(here: &RequestKitchen) -> String {
    let t = |mm| here.measures.scaled_field(mm, Quantity::Mm);
    say!(
        "pantry-steel-stone-to-brick-to",
        t = t(8.0),
        t2 = t(15.0),
        t3 = t(20.0),
        t4 = t(50.0),
        t5 = t(60.0)
    )
}

/// Usual thicknesses of pans.
fn thin_and_thick(here: &RequestKitchen) -> String {
    let t = |mm| here.measures.scaled_field(mm, Quantity::Mm);
    say!(
        "pantry-sheet-cast-iron-to",
        t = t(1.0),
        t2 = t(4.0),
        t3 = t(5.0)
    )
}

fn materials() -> impl Iterator<Item = (&'static str, String)> {
    by_name(Material::name)
}

fn read_material(r: &mut FieldReader, name: &str) -> Material {
    Material::from_key(r.typed.text(name)).unwrap_or_else(|| {
        r.refuse(name, phrase("pantry-choose-what-it-is-made"));
        Material::Cordierite
    })
}

impl Shelf for Pan {
    const PATH: &'static str = "/pantry/pans";
    const TITLE: &'static str = "pantry-pan";
    const WHY: &'static str = "pantry-inside-measures-the-dough-for";

    fn entries(here: &RequestKitchen) -> Vec<Entry> {
        let mut all = shape_entries(here);
        all.push(choice("material", phrase("pantry-made-of"), materials()));
        all.push(figure(
            "thick_mm",
            phrase("pantry-thickness-of-the-metal"),
            &thin_and_thick(here),
            unit_of(Quantity::Mm, here),
        ));
        all.push(choice(
            "oiled",
            phrase("pantry-oiled"),
            [
                ("yes", phrase("pantry-oiled")),
                ("no", phrase("pantry-dry")),
            ],
        ));
        all
    }
    fn fresh() -> Pan {
        Pan {
            name: String::new(),
            pan: rectangle(40.0, 30.0),
            height_cm: 3.0,
            count: 1,
            material: Material::CarbonSteel,
            thick_mm: 1.0,
            oiled: true,
        }
    }
    fn write(&self, t: &mut FormData, here: &RequestKitchen) {
        write_shape(t, &self.name, self.pan, self.height_cm, self.count, here);
        t.set("material", self.material.key());
        put_scaled(t, "thick_mm", self.thick_mm, Quantity::Mm, here);
        t.set("oiled", if self.oiled { "yes" } else { "no" });
    }
    fn read(r: &mut FieldReader, here: &RequestKitchen, _: Option<&Pan>) -> Pan {
        let (name, pan, height_cm, count) = read_shape(r, here);
        Pan {
            name,
            pan,
            height_cm,
            count,
            material: read_material(r, "material"),
            thick_mm: scaled(
                r,
                "thick_mm",
                phrase("pantry-thickness"),
                Quantity::Mm,
                here,
            ),
            oiled: r.typed.text("oiled") != "no",
        }
    }
    fn checked(&self) -> Result<(), ValidationError> {
        self.check()
    }
}

impl Shelf for Oven {
    const PATH: &'static str = "/pantry/ovens";
    const TITLE: &'static str = "fire-oven";
    const WHY: &'static str = "pantry-what-the-fire-is-planned";

    fn entries(here: &RequestKitchen) -> Vec<Entry> {
        let degree = here.measures.degree_unit();
        vec![
            text("name", phrase("bench-name"), ""),
            choice("kind", phrase("pantry-kind"), by_name(OvenKind::name)),
            choice("fuel", phrase("pantry-fuel"), by_name(Fuel::name)),
            figure(
                "most_c",
                phrase("pantry-the-hottest-it-may-be"),
                phrase("pantry-by-its-maker-nothing-is"),
                degree,
            ),
            choice("floor", phrase("pantry-floor-of"), materials()),
            figure(
                "floor_mm",
                phrase("pantry-thickness-of-the-floor"),
                &usual_floors(here),
                unit_of(Quantity::Mm, here),
            ),
            figure(
                "floor_c",
                phrase("pantry-floor-usually"),
                phrase("pantry-follows-the-setting-in-a"),
                degree,
            ),
            figure(
                "dome_c",
                phrase("pantry-dome-top-or-setting-usually"),
                "",
                degree,
            ),
            figure("spots", phrase("pantry-pizzas-at-once"), "", ""),
            figure(
                "floor_m2",
                phrase("pantry-the-whole-floor"),
                phrase("pantry-width-times-depth-its-places"),
                unit_of(Quantity::SquareMetres, here),
            ),
            figure(
                "opening_cm",
                phrase("pantry-width-of-the-mouth"),
                "",
                unit_of(Quantity::Cm, here),
            ),
            figure(
                "side",
                phrase("pantry-more-heat-on-the-fires"),
                phrase("pantry-0-from-everywhere-0-25"),
                "",
            )
            .expert(),
            figure(
                "view",
                phrase("pantry-hot-roof-over-the-pizza"),
                phrase("pantry-share-1-closed-0-85"),
                "",
            )
            .expert(),
            figure(
                "air_w_m2k",
                phrase("pantry-heat-by-still-air"),
                phrase("pantry-8-to-12-a-flame"),
                "W/m²K",
            )
            .expert(),
            figure(
                "fan_w_m2k",
                phrase("pantry-heat-by-its-fan"),
                phrase("pantry-20-to-30-empty-without"),
                "W/m²K",
            )
            .expert(),
            figure(
                "grill_w",
                phrase("fire-grill"),
                phrase("pantry-rated-power-0-without-one"),
                "W",
            ),
            figure(
                "below_w_m2",
                phrase("pantry-power-under-the-floor"),
                phrase("pantry-deck-6-000-to-10"),
                "W/m²",
            )
            .expert(),
            figure(
                "door_drop_c",
                phrase("pantry-air-falls-at-the-door"),
                &say!(
                    "pantry-home-else-0",
                    kelvin = here.measures.scaled_field(40.0, Quantity::Kelvin)
                ),
                unit_of(Quantity::Kelvin, here),
            )
            .expert(),
            figure(
                "fuel_kg_h",
                phrase("pantry-fuel-at-full-fire"),
                phrase("pantry-dry-wood-or-gas-0"),
                unit_of(Quantity::KgPerHour, here),
            ),
            figure(
                "floor_factor",
                phrase("pantry-floor-against-the-book"),
                phrase("pantry-fitted-1-sets-it-back"),
                "×",
            ),
            figure(
                "top_factor",
                phrase("pantry-top-against-the-book"),
                phrase("pantry-fitted-1-sets-it-back"),
                "×",
            ),
            figure(
                "pace",
                phrase("pantry-warming-against-the-book"),
                phrase("pantry-fitted-1-sets-it-back"),
                "×",
            ),
        ]
    }
    fn fresh() -> Oven {
        Oven {
            key: String::new(),
            ..oven::all()[0].clone()
        }
    }
    fn write(&self, t: &mut FormData, here: &RequestKitchen) {
        t.set("name", &self.name);
        t.set("kind", self.kind.key());
        t.set("fuel", self.fuel.key());
        t.set("floor", self.floor.key());
        for (name, c) in [
            ("most_c", self.most_c),
            ("floor_c", self.floor_c),
            ("dome_c", self.dome_c),
        ] {
            put_degrees(t, name, c, here);
        }
        for (name, v) in [
            ("spots", f64::from(self.spots)),
            ("side", self.side),
            ("view", self.view),
            ("air_w_m2k", self.air_w_m2k),
            ("grill_w", self.grill_w),
            ("below_w_m2", self.below_w_m2),
            ("floor_factor", self.floor_factor),
            ("top_factor", self.top_factor),
            ("pace", self.pace),
        ] {
            t.set(name, plain(v));
        }
        for (name, v, q) in [
            ("floor_mm", self.floor_mm, Quantity::Mm),
            ("opening_cm", self.opening_cm, Quantity::Cm),
            ("door_drop_c", self.door_drop_k, Quantity::Kelvin),
            ("fuel_kg_h", self.fuel_kg_h, Quantity::KgPerHour),
        ] {
            put_scaled(t, name, v, q, here);
        }
        put_may(t, "fan_w_m2k", self.fan_w_m2k);
        put_may_scaled(t, "floor_m2", self.floor_m2, Quantity::SquareMetres, here);
    }
    fn read(r: &mut FieldReader, here: &RequestKitchen, before: Option<&Oven>) -> Oven {
        let kind = OvenKind::from_key(r.typed.text("kind")).unwrap_or_else(|| {
            r.refuse("kind", phrase("pantry-choose-a-kind-of-oven"));
            OvenKind::Home
        });
        let fuel = Fuel::from_key(r.typed.text("fuel")).unwrap_or_else(|| {
            r.refuse("fuel", phrase("pantry-choose-its-fuel"));
            Fuel::Electric
        });
        Oven {
            key: before.map_or(String::new(), |b| b.key.clone()),
            name: r.name("name", phrase("form-a-name")),
            kind,
            fuel,
            most_c: degrees(r, "most_c", phrase("pantry-the-hottest-it-may-be"), here),
            floor: read_material(r, "floor"),
            floor_mm: scaled(
                r,
                "floor_mm",
                phrase("pantry-thickness-of-the-floor"),
                Quantity::Mm,
                here,
            ),
            floor_c: degrees(r, "floor_c", phrase("pantry-the-usual-floor"), here),
            dome_c: degrees(r, "dome_c", phrase("pantry-the-usual-dome"), here),
            view: must(r, "view", phrase("pantry-hot-roof-over-the-pizza")),
            air_w_m2k: must(r, "air_w_m2k", phrase("pantry-heat-by-still-air")),
            fan_w_m2k: may(r, "fan_w_m2k", phrase("pantry-heat-by-its-fan")),
            grill_w: must(r, "grill_w", phrase("pantry-the-grill")),
            below_w_m2: must(r, "below_w_m2", phrase("pantry-power-under-the-floor")),
            side: must(r, "side", phrase("pantry-more-heat-on-the-fires")),
            door_drop_k: scaled(
                r,
                "door_drop_c",
                phrase("pantry-the-fall-at-the-door"),
                Quantity::Kelvin,
                here,
            ),
            floor_m2: may_scaled(
                r,
                "floor_m2",
                phrase("pantry-the-whole-floor"),
                Quantity::SquareMetres,
                here,
            ),
            opening_cm: scaled(
                r,
                "opening_cm",
                phrase("pantry-the-mouth"),
                Quantity::Cm,
                here,
            ),
            spots: r.count("spots", phrase("pantry-pizzas-at-once")),
            fuel_kg_h: scaled(
                r,
                "fuel_kg_h",
                phrase("pantry-fuel-at-full-fire"),
                Quantity::KgPerHour,
                here,
            ),
            floor_factor: must(r, "floor_factor", phrase("pantry-floor-against-the-book")),
            top_factor: must(r, "top_factor", phrase("pantry-top-against-the-book")),
            pace: must(r, "pace", phrase("pantry-warming-against-the-book")),
        }
    }
    fn checked(&self) -> Result<(), ValidationError> {
        self.check()
    }
}
