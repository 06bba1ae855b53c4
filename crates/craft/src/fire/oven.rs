//! Ovens as data: what an oven is, what it is set to, and how it then stands at launch.
//!
//! Source: bake model, section 5.4 (assumed presets); the table is `ovens.json`. Makers copy one and make it theirs. The
//! two factors are the oven's own correction, fitted from its logged bakes (`calibrate`), 1 by the book.

use super::material::Material;
use super::preheat::Warming;
use super::setup::{Back, OvenNow};
use crate::fact;
use crate::fact::{Fact, Value};
use crate::refusal::{Check, ValidationError};
use crate::style::oven_fit;
use serde::{Deserialize, Serialize};
use std::sync::LazyLock;
use strum::{EnumString, IntoStaticStr, VariantArray};

/// An oven's own factors: half to double of the book. Beyond that it is another oven, or the log is wrong.
pub const FACTORS: (f64, f64) = (0.5, 2.0);

/// The kinds.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum OvenKind {
    /// A masonry dome with a fire inside.
    WoodDome,
    /// A dome with a gas burner.
    GasDome,
    /// A small oven with a flame, to carry.
    PortableFlame,
    /// Elements above and below, set apart.
    ElectricDeck,
    /// A deck lined with stone, one setting.
    StoneDeck,
    /// A kitchen's oven, with whatever lies on its shelf.
    Home,
}

/// What heats an oven.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum Fuel {
    /// Dry wood.
    Wood,
    /// Gas.
    Gas,
    /// Current.
    Electric,
}

/// Where the floor lies in a home oven.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum OvenShelf {
    /// Near the grill.
    Top,
    /// Half way up.
    Middle,
    /// Near the floor.
    Low,
}

impl OvenKind {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            OvenKind::WoodDome => fact!("oven-wood-dome"),
            OvenKind::GasDome => fact!("oven-gas-dome"),
            OvenKind::PortableFlame => fact!("oven-portable"),
            OvenKind::ElectricDeck => fact!("oven-deck"),
            OvenKind::StoneDeck => fact!("oven-stone-deck"),
            OvenKind::Home => fact!("oven-home"),
        }
    }
    /// A fire is fed and read; a thermostat is set.
    pub fn is_fired(self) -> bool {
        matches!(
            self,
            OvenKind::WoodDome | OvenKind::GasDome | OvenKind::PortableFlame
        )
    }
    /// Floor and dome follow one knob.
    pub fn has_one_setting(self) -> bool {
        matches!(self, OvenKind::Home | OvenKind::StoneDeck)
    }
    /// How it warms up.
    pub fn warming(self) -> Warming {
        match self {
            OvenKind::WoodDome => Warming::Dome,
            OvenKind::GasDome | OvenKind::PortableFlame => Warming::Gas,
            OvenKind::ElectricDeck | OvenKind::StoneDeck => Warming::Element,
            OvenKind::Home => Warming::Home,
        }
    }
}

impl Fuel {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            Fuel::Wood => fact!("fuel-wood"),
            Fuel::Gas => fact!("fuel-gas"),
            Fuel::Electric => fact!("fuel-electric"),
        }
    }
}

impl OvenShelf {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            OvenShelf::Top => fact!("shelf-top"),
            OvenShelf::Middle => fact!("shelf-middle"),
            OvenShelf::Low => fact!("shelf-low"),
        }
    }
    /// From the food up to the grill element, cm.
    fn under_grill_cm(self) -> f64 {
        match self {
            OvenShelf::Top => 12.0,
            OvenShelf::Middle => 22.0,
            OvenShelf::Low => 34.0,
        }
    }
}

/// An oven.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Oven {
    /// Its name for programs.
    #[serde(default)]
    pub key: String,
    /// As its owner calls it.
    pub name: String,
    /// Which kind it is.
    pub kind: OvenKind,
    /// What heats it.
    pub fuel: Fuel,
    /// The hottest it may be, by its maker, 150 to 550 °C.
    pub most_c: f64,
    /// What its floor is made of.
    pub floor: Material,
    /// 0.5 to 100 mm.
    pub floor_mm: f64,
    /// What it is usually baked at: floor and dome, °C.
    pub floor_c: f64,
    /// Its dome at the usual setting, °C.
    pub dome_c: f64,
    /// Share of the sky that is hot, 0.3 to 1: an open mouth is cold sky.
    pub view: f64,
    /// Still air, and with the fan where it has one, 3 to 40 W/m²K.
    pub air_w_m2k: f64,
    /// Heat that the air carries with the fan on, W/m²K; absent without a fan.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fan_w_m2k: Option<f64>,
    /// Rated power of the grill, 0 to 6000 W; 0 without one.
    #[serde(default)]
    pub grill_w: f64,
    /// Power under the floor, 0 to 15,000 W/m².
    #[serde(default)]
    pub below_w_m2: f64,
    /// How much more the side at the fire gets, 0 to 0.6; 0 where heat comes from everywhere.
    #[serde(default)]
    pub side: f64,
    /// How far the air falls when the door is opened, K.
    #[serde(default)]
    #[serde(rename = "door_drop_c")]
    pub door_drop_k: f64,
    /// Width of the mouth, 10 to 300 cm.
    pub opening_cm: f64,
    /// Pizzas at once, 1 to 12.
    pub spots: u32,
    /// The whole floor, 0.05 to 6 m²; absent where nobody measured it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub floor_m2: Option<f64>,
    /// At full fire, 0 to 60 kg/h; 0 for electric.
    #[serde(default)]
    pub fuel_kg_h: f64,
    /// Contact of floor and dough, and heat from above, against the book, 0.5 to 2.
    #[serde(default = "one")]
    pub floor_factor: f64,
    /// The top gives so many times what the book says, as bakes have shown.
    #[serde(default = "one")]
    pub top_factor: f64,
    /// Pace of warming against the book, 0.3 to 3.
    #[serde(default = "one")]
    pub pace: f64,
}

fn one() -> f64 {
    1.0
}

static ALL: LazyLock<Vec<Oven>> = LazyLock::new(|| {
    serde_json::from_str(include_str!("ovens.json")).expect("ovens.json holds ovens")
});

/// The ovens that ship with the product.
pub fn all() -> &'static [Oven] {
    &ALL
}

/// What an oven is set to for a bake.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Setting {
    /// What lies in it: another floor than its own may be laid in.
    pub floor: Material,
    /// How thick the floor is, mm.
    pub floor_mm: f64,
    /// Wanted at the floor; follows the dome where there is one knob.
    pub floor_c: f64,
    /// The dome, °C.
    pub dome_c: f64,
    /// Whether the grill glows.
    #[serde(default)]
    pub grill: bool,
    /// Whether the fan runs.
    #[serde(default)]
    pub fan: bool,
    /// The element below is on during the bake.
    #[serde(default)]
    pub below: bool,
    /// Where the piece stands.
    #[serde(default = "top_shelf")]
    pub shelf: OvenShelf,
}

fn top_shelf() -> OvenShelf {
    OvenShelf::Top
}

/// Grill at the food, about 12 cm below an element of 2,400 W, W/m².
const GRILL_W_M2: f64 = 5000.0;
const GRILL_RATED_W: f64 = 2400.0;
/// The element under a rack on the lowest shelf, W/m².
const BOTTOM_W_M2: f64 = 2500.0;
/// Top elements of a deck while they glow, W/m².
const DECK_GLOW_W_M2: f64 = 1000.0;
/// A metal floor thinner than this goes in cold with the pizza on it, mm.
const TRAY_MM: f64 = 2.5;
const COLD_TRAY_C: f64 = 20.0;

/// Of a dome's floor the fire takes its part; a deck is used nearly whole.
const DOME_SHARE: f64 = 0.55;
const DECK_SHARE: f64 = 0.8;
/// Room around a disc, m.
const AROUND_M: f64 = 0.05;
const MOST_AREAS: f64 = 6.0;
/// Places of a dome whose floor nobody measured.
const AREAS_UNKNOWN: u32 = 3;

impl Oven {
    /// What it is for the question which dough fits it.
    pub fn fit_kind(&self) -> oven_fit::StatedOvenKind {
        match self.kind {
            OvenKind::WoodDome => oven_fit::StatedOvenKind::WoodDome,
            OvenKind::GasDome => oven_fit::StatedOvenKind::GasDome,
            OvenKind::PortableFlame => oven_fit::StatedOvenKind::PortableFlame,
            OvenKind::ElectricDeck | OvenKind::StoneDeck => oven_fit::StatedOvenKind::ElectricDeck,
            OvenKind::Home if is_tray(&self.usual()) => oven_fit::StatedOvenKind::HomeWithTray,
            OvenKind::Home => oven_fit::StatedOvenKind::HomeWithSteel,
        }
    }
    /// The setting it is usually baked at.
    pub fn usual(&self) -> Setting {
        let mut s = Setting {
            floor: self.floor,
            floor_mm: self.floor_mm,
            floor_c: self.floor_c,
            dome_c: self.dome_c,
            grill: false,
            fan: false,
            below: false,
            shelf: OvenShelf::Top,
        };
        s.floor_c = self.floor_at(&s);
        s
    }

    /// Whether it has a grill.
    pub fn has_grill(&self) -> bool {
        self.grill_w > 0.0
    }

    /// The hottest that its dome or setting may be, °C. A dome is hotter than what it shines on; the maker's limit is said
    /// of the floor.
    pub fn dome_most_c(&self) -> f64 {
        if self.kind.is_fired() {
            (self.most_c + 100.0).min(600.0)
        } else {
            self.most_c
        }
    }

    /// Whether its floor is one place and no more: a rack's, or a portable oven's single tile.
    pub fn has_one_place(&self) -> bool {
        let single = match self.kind {
            OvenKind::Home => true,
            OvenKind::PortableFlame => self.floor_m2.is_none(),
            _ => false,
        };
        single && self.spots <= 1
    }

    /// Places of the floor that take turns, for a disc of so many mm: never fewer than bake at once.
    /// Source: revisions of the bake model, B4 (shares assumed).
    pub fn areas(&self, disc_mm: f64) -> u32 {
        let fit = |share: f64, m2: f64| {
            let side = disc_mm / 1000.0 + AROUND_M;
            // A whole number of places is not lost to the last bit of a division.
            ((share * m2 / (side * side) + 1e-9).floor()).clamp(1.0, MOST_AREAS) as u32
        };
        let areas = match (self.kind, self.floor_m2) {
            (OvenKind::Home, _) | (OvenKind::PortableFlame, None) => 1,
            (OvenKind::ElectricDeck | OvenKind::StoneDeck, Some(m2)) => fit(DECK_SHARE, m2),
            (OvenKind::ElectricDeck | OvenKind::StoneDeck, None) => 1,
            (_, Some(m2)) => fit(DOME_SHARE, m2),
            (_, None) => AREAS_UNKNOWN,
        };
        areas.max(self.spots.max(1))
    }

    /// What the floor comes to at a setting, °C: in a home oven it follows the knob; a tray goes in cold.
    pub fn floor_at(&self, s: &Setting) -> f64 {
        match self.kind {
            OvenKind::Home if is_tray(s) => COLD_TRAY_C,
            OvenKind::Home if s.floor.is_metal() => s.dome_c - 5.0,
            OvenKind::Home if s.floor_mm >= 20.0 => s.dome_c - 10.0,
            OvenKind::Home => s.dome_c - 8.0,
            OvenKind::StoneDeck => s.dome_c - 10.0,
            _ => s.floor_c,
        }
    }

    /// How it stands at launch, charged.
    pub fn now(&self, s: &Setting) -> OvenNow {
        let floor_c = self.floor_at(s);
        let home = self.kind == OvenKind::Home;
        let back = match self.kind {
            OvenKind::Home => Back::Air,
            OvenKind::ElectricDeck | OvenKind::StoneDeck => Back::Element,
            _ => Back::Mass,
        };
        let grill_w_m2 = match self.kind {
            OvenKind::Home if s.grill => {
                let at = |cm: f64| 1.0 + (cm / 18.0).powf(1.5);
                GRILL_W_M2 * at(12.0) / at(s.shelf.under_grill_cm()) * self.grill_w / GRILL_RATED_W
            }
            OvenKind::ElectricDeck => DECK_GLOW_W_M2,
            _ => 0.0,
        };
        OvenNow {
            floor: s.floor,
            floor_mm: s.floor_mm,
            floor_c,
            // A flame above a thin stone leaves its bottom cooler.
            core_c: (self.kind == OvenKind::PortableFlame).then_some(floor_c - 35.0),
            dome_c: s.dome_c,
            air_c: None,
            view: self.view,
            air_w_m2k: if s.fan {
                self.fan_w_m2k.unwrap_or(self.air_w_m2k)
            } else {
                self.air_w_m2k
            },
            grill_w_m2,
            back,
            back_w_m2: match back {
                Back::Element => self.below_w_m2,
                Back::Air if home && s.below && s.shelf == OvenShelf::Low => BOTTOM_W_M2,
                _ => 0.0,
            },
            back_c: (back == Back::Element).then_some(floor_c + 20.0),
            side: self.side,
            door_drop_k: self.door_drop_k,
            door_s: 90.0,
            floor_factor: self.floor_factor,
            top_factor: self.top_factor,
        }
    }

    /// Errors: what lies outside its range, at its field.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        let letters = self.name.chars().count();
        if self.name.trim().is_empty() || letters > 80 {
            c.refuse("name", fact!("oven-name"));
        }
        c.range(
            "most_c",
            fact!("f-the-hottest-it-may-be"),
            self.most_c,
            150.0,
            550.0,
            Value::Celsius,
        );
        c.range(
            "floor_mm",
            fact!("f-the-floors-thickness"),
            self.floor_mm,
            0.5,
            100.0,
            Value::Mm,
        );
        c.range(
            "floor_c",
            fact!("f-its-usual-floor"),
            self.floor_c,
            10.0,
            550.0,
            Value::Celsius,
        );
        c.range(
            "dome_c",
            fact!("f-its-usual-dome"),
            self.dome_c,
            100.0,
            600.0,
            Value::Celsius,
        );
        super::setup::around_into(
            &mut c,
            (self.view, self.air_w_m2k, self.side),
            self.door_drop_k,
        );
        if let Some(f) = self.fan_w_m2k {
            c.range(
                "fan_w_m2k",
                fact!("f-with-the-fan"),
                f,
                3.0,
                40.0,
                Value::WattsPerM2K,
            );
        }
        c.range(
            "grill_w",
            fact!("f-the-grill"),
            self.grill_w,
            0.0,
            6000.0,
            Value::Watts,
        );
        c.range(
            "below_w_m2",
            fact!("f-the-power-below"),
            self.below_w_m2,
            0.0,
            15_000.0,
            Value::WattsPerM2,
        );
        c.range(
            "opening_cm",
            fact!("f-the-mouth"),
            self.opening_cm,
            10.0,
            300.0,
            Value::Cm,
        );
        c.range(
            "spots",
            fact!("f-pizzas-at-once"),
            f64::from(self.spots),
            1.0,
            12.0,
            Value::Number,
        );
        if let Some(m2) = self.floor_m2 {
            c.range(
                "floor_m2",
                fact!("f-the-whole-floor"),
                m2,
                0.05,
                6.0,
                Value::SquareMetres,
            );
        }
        c.range(
            "fuel_kg_h",
            fact!("f-fuel-at-full-fire"),
            self.fuel_kg_h,
            0.0,
            60.0,
            Value::KgPerHour,
        );
        c.range(
            "floor_factor",
            fact!("f-the-floor-against-the-book"),
            self.floor_factor,
            FACTORS.0,
            FACTORS.1,
            Value::Number,
        );
        c.range(
            "top_factor",
            fact!("f-the-top-against-the-book"),
            self.top_factor,
            FACTORS.0,
            FACTORS.1,
            Value::Number,
        );
        c.range(
            "pace",
            fact!("f-its-pace-of-warming"),
            self.pace,
            0.3,
            3.0,
            Value::Number,
        );
        if self.floor_c > self.most_c && self.kind.has_one_setting() {
            c.refuse("floor_c", fact!("floor-above-most"));
        }
        c.done()
    }

    /// Refuses a setting that this oven cannot or must not take.
    pub fn check_setting(&self, s: &Setting, c: &mut Check) {
        c.range(
            "floor_mm",
            fact!("f-the-floors-thickness"),
            s.floor_mm,
            0.5,
            100.0,
            Value::Mm,
        );
        if self.kind.has_one_setting() {
            c.range(
                "dome_c",
                fact!("f-the-ovens-setting"),
                s.dome_c,
                100.0,
                self.most_c,
                Value::Celsius,
            );
        } else {
            c.range(
                "floor_c",
                fact!("f-the-floor"),
                s.floor_c,
                60.0,
                self.most_c,
                Value::Celsius,
            );
            c.range(
                "dome_c",
                fact!("f-the-dome"),
                s.dome_c,
                100.0,
                self.dome_most_c(),
                Value::Celsius,
            );
        }
        if s.grill && !self.has_grill() {
            c.refuse("grill", fact!("no-grill"));
        }
        if s.fan && self.fan_w_m2k.is_none() {
            c.refuse("fan", fact!("no-fan"));
        }
    }
}

/// Whether the floor is a thin tray that goes in with the pizza.
pub fn is_tray(s: &Setting) -> bool {
    s.floor.is_metal() && s.floor_mm < TRAY_MM
}

/// The shipped oven that a style is usually baked in: by how hot it wants its floor, and whether it comes in pans.
pub fn for_style(style: &crate::style::Style) -> &'static Oven {
    let by_key = |key: &str| ALL.iter().find(|o| o.key == key).unwrap_or(&ALL[0]);
    let words = &style.oven.words;
    by_key(match style.oven.floor_c.middle() {
        _ if crate::names::says_portable(words) => "portable_gas",
        t if t >= 370.0 => "wood_dome",
        _ if crate::names::says_home(words) => "home_steel",
        _ => "electric_deck",
    })
}
