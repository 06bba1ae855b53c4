//! Styles as data: what a maker of this style starts from, and what is usual.
//!
//! Source: craft notes, sections 1, 2, 4 and 6. Three styles to start with. A style never forbids: outside
//! its usual range there is a note.

use crate::formula::Pieces;
use crate::leaven::YeastForm;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// The styles.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum StyleKey {
    HotRound,
    HomeRound,
    WetTray,
}

/// An inclusive range of what is usual.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Usual {
    pub low: f64,
    pub high: f64,
}

const fn usual(low: f64, high: f64) -> Usual {
    Usual { low, high }
}

/// What a style is.
#[derive(Debug, Clone, PartialEq)]
pub struct Style {
    pub key: StyleKey,
    pub name: &'static str,
    /// What it is, in one line.
    pub line: &'static str,
    pub pieces: Pieces,
    pub loss_percent: f64,
    pub hydration_percent: f64,
    pub salt_percent: f64,
    pub oil_percent: f64,
    pub sugar_percent: f64,
    pub yeast_form: YeastForm,
    pub flour_w: f64,
    /// Volume at the bake against just mixed (spec section 7).
    pub target_volume: f64,
    pub target_dough_c: f64,
    /// Hours: bulk in the room, then cold, then in the room until the bake.
    pub bulk_h: f64,
    pub cold_h: f64,
    pub temper_h: f64,
    /// Folds in the bulk, half an hour apart.
    pub folds: u32,
    /// The oven, and the minutes that it needs to be charged.
    pub oven: &'static str,
    pub preheat_min: f64,
    /// Whether it bakes under a dome or flame that burns sugar.
    pub scorching: bool,
    pub usual_hydration: Usual,
    pub usual_oil: Usual,
    pub usual_sugar: Usual,
}

impl StyleKey {
    pub const ALL: [StyleKey; 3] = [StyleKey::HotRound, StyleKey::HomeRound, StyleKey::WetTray];

    pub fn key(self) -> &'static str {
        match self {
            StyleKey::HotRound => "hot_round",
            StyleKey::HomeRound => "home_round",
            StyleKey::WetTray => "wet_tray",
        }
    }
    pub fn from_key(key: &str) -> Option<StyleKey> {
        StyleKey::ALL.into_iter().find(|s| s.key() == key)
    }
    /// The style's data.
    pub fn style(self) -> Style {
        match self {
            StyleKey::HotRound => hot_round(),
            StyleKey::HomeRound => home_round(),
            StyleKey::WetTray => wet_tray(),
        }
    }
}

fn hot_round() -> Style {
    Style {
        key: StyleKey::HotRound,
        name: "Lean round",
        line: "for a very hot oven",
        pieces: Pieces::Balls {
            count: 6,
            ball_g: 250.0,
        },
        loss_percent: 1.5,
        hydration_percent: 62.0,
        salt_percent: 2.8,
        oil_percent: 0.0,
        sugar_percent: 0.0,
        yeast_form: YeastForm::Instant,
        flour_w: 300.0,
        target_volume: 2.25,
        target_dough_c: 23.0,
        bulk_h: 2.0,
        cold_h: 24.0,
        temper_h: 4.0,
        folds: 0,
        oven: "Wood or gas dome, floor 380 to 430 °C",
        preheat_min: 90.0,
        scorching: true,
        usual_hydration: usual(58.0, 68.0),
        usual_oil: usual(0.0, 0.5),
        usual_sugar: usual(0.0, 0.0),
    }
}

fn home_round() -> Style {
    Style {
        key: StyleKey::HomeRound,
        name: "Enriched round",
        line: "for a home oven",
        pieces: Pieces::Balls {
            count: 4,
            ball_g: 270.0,
        },
        hydration_percent: 64.0,
        salt_percent: 2.4,
        oil_percent: 2.0,
        sugar_percent: 1.5,
        flour_w: 310.0,
        bulk_h: 1.5,
        cold_h: 40.0,
        temper_h: 3.0,
        oven: "Home oven with steel or stone, 250 to 290 °C",
        preheat_min: 60.0,
        scorching: false,
        usual_hydration: usual(60.0, 70.0),
        usual_oil: usual(1.0, 3.0),
        usual_sugar: usual(1.0, 3.0),
        ..hot_round()
    }
}

fn wet_tray() -> Style {
    Style {
        key: StyleKey::WetTray,
        name: "Wet tray",
        line: "oiled tray, long and cold",
        pieces: Pieces::Trays {
            count: 2,
            length_cm: 40.0,
            width_cm: 30.0,
            dough_g_per_cm2: 0.65,
        },
        loss_percent: 2.0,
        hydration_percent: 76.0,
        salt_percent: 2.4,
        oil_percent: 3.0,
        sugar_percent: 0.0,
        flour_w: 400.0,
        target_volume: 2.5,
        target_dough_c: 22.0,
        bulk_h: 2.0,
        cold_h: 24.0,
        temper_h: 3.0,
        folds: 2,
        oven: "Steel or deck, 280 to 300 °C",
        preheat_min: 60.0,
        scorching: false,
        usual_hydration: usual(75.0, 85.0),
        usual_oil: usual(2.0, 4.0),
        usual_sugar: usual(0.0, 1.0),
        ..hot_round()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_style_starts_inside_its_own_usual_ranges() {
        for key in StyleKey::ALL {
            let s = key.style();
            assert_eq!(StyleKey::from_key(key.key()), Some(key));
            assert_eq!(s.key, key);
            for (v, u) in [
                (s.hydration_percent, s.usual_hydration),
                (s.oil_percent, s.usual_oil),
                (s.sugar_percent, s.usual_sugar),
            ] {
                assert!((u.low..=u.high).contains(&v), "{key:?} {v}");
            }
        }
    }
}
