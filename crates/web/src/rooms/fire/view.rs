//! What the Fire page shows, already formatted.

use super::form::{Dough, Read, floor_key};
use super::made::Made;
use super::picture::FirePicture;
use crate::shared::form::SaidError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::shipped;
use crate::shared::tongue::{phrase, say};
use craft::fire::firing::FloorRead;
use craft::fire::overview::{self, FireOverview};
use craft::fire::programme::shapes;
use craft::fire::{Material, OvenKind, OvenShelf};
use craft::keyed::Keyed;
use craft::refusal::FieldError;
use jiff::Timestamp;

/// A field of the form.
pub struct FireField {
    pub name: String,
    pub label: &'static str,
    pub small: String,
    pub value: String,
    pub unit: &'static str,
    pub step: &'static str,
    pub exact: Option<(String, String)>,
    pub error: Option<String>,
}

pub struct FireOption {
    pub key: String,
    pub name: String,
    pub chosen: bool,
}

pub struct Switch {
    pub name: &'static str,
    pub label: &'static str,
    pub on: bool,
}

pub struct CautionView {
    pub head: String,
    pub say: String,
    pub grave: bool,
}

pub struct FireView {
    pub picture: Option<FirePicture>,
    pub ovens: Vec<FireOption>,
    pub floors: Vec<FireOption>,
    pub shelves: Vec<FireOption>,
    pub shapes: Vec<FireOption>,
    pub switches: Vec<Switch>,
    pub settings: Vec<FireField>,
    pub dough: Vec<FireField>,
    pub own: bool,
    pub errors: Vec<SaidError>,
    pub cautions: Vec<CautionView>,
    pub manual: String,
    pub home: bool,
    pub fired: bool,
    pub styles: Vec<FireOption>,
}

const FLOORS: [(Material, f64); 6] = [
    (Material::CarbonSteel, 8.0),
    (Material::CarbonSteel, 12.0),
    (Material::Cordierite, 15.0),
    (Material::Cordierite, 20.0),
    (Material::Biscuit, 50.0),
    (Material::CarbonSteel, 1.0),
];

impl FireView {
    pub fn of(m: &Made) -> FireView {
        let t = m.typed;
        let oven = m
            .larder
            .ovens()
            .into_iter()
            .find(|o| o.0 == t.text("oven"))
            .map(|o| o.2);
        let kind = oven.as_ref().map_or(OvenKind::Home, |o| o.kind);
        let home = kind == OvenKind::Home;
        let grill = !t.text("grill").is_empty();
        let error = |name: &str| {
            m.errors
                .iter()
                .find(|e| e.field == name)
                .map(|e| m.here.say(&e.message))
        };
        let field = |name: &str, label, small: &str, unit, step| {
            let exact = format!("exact:{name}");
            FireField {
                exact: t
                    .has(&exact)
                    .then(|| (exact.clone(), t.raw(&exact).to_string())),
                name: name.into(),
                label,
                small: small.into(),
                value: t.raw(name).into(),
                unit,
                step,
                error: error(name),
            }
        };
        let degree = m.here.measures.degree_unit();
        let gram = m.here.measures.weight_unit();
        let mut settings = Vec::new();
        if kind.has_one_setting() {
            settings.push(field(
                "dome_c",
                phrase("fire-set-to"),
                phrase("fire-the-floor-follows"),
                degree,
                "5",
            ));
        } else if kind == OvenKind::ElectricDeck {
            settings.push(field("dome_c", phrase("form-top"), "", degree, "5"));
            settings.push(field("floor_c", phrase("fire-bottom"), "", degree, "5"));
        } else {
            settings.push(field(
                "dome_c",
                phrase("fire-dome"),
                phrase("fire-what-shines-down"),
                degree,
                "5",
            ));
            settings.push(field(
                "floor_c",
                phrase("bake-floor"),
                phrase("fire-its-face-at-launch"),
                degree,
                "5",
            ));
        }
        settings.push(field(
            "most_c",
            phrase("fire-tops-out-at"),
            phrase("fire-its-makers-limit"),
            degree,
            "5",
        ));
        settings.push(field(
            "preheat_min",
            phrase("fire-preheated-for"),
            phrase("fire-empty-charged"),
            "min",
            "5",
        ));
        let locked = if m.dough.mixed {
            phrase("fire-for-the-next-dough")
        } else {
            ""
        };
        let mut dough = vec![
            field("ball_g", phrase("fire-ball"), locked, gram, "5"),
            field("sugar", phrase("figures-sugar"), "", "%", "0.5"),
            field("malt", phrase("fire-active-malt"), "", "%", "0.1"),
            field("oil", phrase("figures-oil"), "", "%", "0.5"),
            field("sauce_g", phrase("fire-sauce-on-one"), "", gram, "5"),
            field("cheese_g", phrase("fire-cheese-on-one"), "", gram, "5"),
        ];
        dough.push(field(
            "hands",
            phrase("entrance-people"),
            phrase("fire-at-bench-and-oven"),
            "",
            "1",
        ));
        let mut floors: Vec<(String, String)> = Vec::new();
        let own = oven.as_ref().map(|o| (o.floor, o.floor_mm));
        let typed_floor = t.text("floor").to_string();
        for (mat, mm) in own.into_iter().chain(FLOORS) {
            let key = floor_key(mat, mm);
            if !floors.iter().any(|f| f.0 == key)
                && (home
                    || Some((mat, mm)) == own
                    || mat == Material::Biscuit
                    || key == typed_floor)
            {
                let tray = if mat.is_metal() && mm < 2.5 {
                    [" ", phrase("fire-tray-goes-in-cold")].concat()
                } else {
                    String::new()
                };
                floors.push((
                    key,
                    format!(
                        "{} {}{tray}",
                        m.here.reader().said(&craft::fact::Value::Mm(mm)).full,
                        m.here.words(&mat.name())
                    ),
                ));
            }
        }
        let chosen = |list: Vec<(String, String)>, now: &str| -> Vec<FireOption> {
            list.into_iter()
                .map(|(key, name)| FireOption {
                    chosen: key == now,
                    key,
                    name,
                })
                .collect()
        };
        let ovens = m
            .larder
            .ovens()
            .into_iter()
            .map(|(key, id, o)| {
                (
                    key,
                    if id.is_some() {
                        o.name
                    } else {
                        say!("fire-shipped", name = shipped(&o.name))
                    },
                )
            })
            .collect();
        let mut switches = Vec::new();
        if oven.as_ref().is_some_and(|o| o.has_grill()) {
            switches.push(Switch {
                name: "grill",
                label: phrase("fire-grill"),
                on: grill,
            });
        }
        if oven.as_ref().is_some_and(|o| o.fan_w_m2k.is_some()) {
            switches.push(Switch {
                name: "fan",
                label: phrase("fire-fan"),
                on: !t.text("fan").is_empty(),
            });
        }
        if home {
            switches.push(Switch {
                name: "below",
                label: phrase("fire-bottom-element"),
                on: !t.text("below").is_empty(),
            });
        }
        let in_pan = m.dough.portion.pan.is_some();
        let cautions = oven.as_ref().map_or(vec![], |o| {
            craft::fire::caution::cautions(o, in_pan, grill)
                .into_iter()
                .map(|c| CautionView {
                    head: m.here.say(&c.head),
                    say: m.here.say(&c.say),
                    grave: c.grave,
                })
                .collect()
        });
        FireView {
            picture: m
                .worked
                .map(|(read, looked)| FirePicture::of(m, read, looked)),
            ovens: chosen(ovens, t.text("oven")),
            floors: chosen(floors, &typed_floor),
            shelves: chosen(
                OvenShelf::ALL
                    .iter()
                    .map(|s| (s.key().into(), m.here.words(&s.name())))
                    .collect(),
                t.text("shelf"),
            ),
            shapes: chosen(
                shapes()
                    .iter()
                    .map(|s| (s.key.clone(), shipped(&s.name)))
                    .collect(),
                t.text("shape"),
            ),
            switches,
            settings,
            dough,
            own: !t.text("own").is_empty(),
            errors: m.here.said(&m.errors),
            cautions,
            manual: m.here.say(&craft::fire::caution::manual()),
            home,
            fired: kind.is_fired(),
            styles: if m.free {
                let all = craft::style::all()
                    .iter()
                    .map(|s| {
                        (
                            s.key.clone(),
                            format!("{}, {}", shipped(&s.name), shipped(&s.line)),
                        )
                    })
                    .collect();
                chosen(all, &m.dough.formula.style.key)
            } else {
                vec![]
            },
        }
    }
}
/// How much of an answer is wanted.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Wants {
    /// The race and the headline: what a change moves at once.
    First,
    All,
}

/// The answer of the core, for a form that could be read.
pub fn looked(
    read: &Read,
    dough: &Dough,
    here: &RequestKitchen,
    readings: &[FloorRead],
    lit_at: Option<Timestamp>,
    wants: Wants,
) -> Result<FireOverview, Vec<FieldError>> {
    let look = match wants {
        Wants::First => overview::look_first,
        Wants::All => overview::look,
    };
    look(&overview::OverviewRequest {
        plan: &read.plan,
        room_c: dough.room_c,
        serve_at: dough.serve_at,
        lit_at,
        readings: readings.to_vec(),
        baking_since: dough.baking_since,
        pieces: dough.pieces,
        hands: read.hands,
        work: here.kitchen.work,
        closes_at: dough.closes_at,
        now: here.now,
    })
    .map_err(|e| super::form::at_fields(e.0))
}
