//! What a newcomer said; what nobody said yet is a guess, and says so.

use super::bakes_in::BakesIn;
use crate::formula::Scales;
use crate::mix::Mixer;
use crate::sheet::KitchenUsual;
use crate::sheet::life::Life;
use crate::style::{self, Style};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// What one weighs with.
#[derive(Debug, Clone, Copy, PartialEq, Eq, EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum ScalesTold {
    /// One that reads grams.
    Kitchen,
    /// A finer one for yeast and salt beside it.
    Fine,
    /// None: spoons and cups.
    None,
}

/// What is known of the fridge.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum FridgeTold {
    /// Somebody put a thermometer in, °C.
    Measured(f64),
    /// It is there.
    Guessed,
}

/// All that was said; `None` where nothing was.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Beginning {
    /// Of the browser.
    pub time_zone: String,
    /// What is baked in.
    pub bakes_in: Option<BakesIn>,
    /// The hottest that it reaches, °C.
    pub most_c: Option<f64>,
    /// How thick steel or stone is, mm.
    pub floor_mm: Option<f64>,
    /// Whether a grill glows above.
    pub grill: Option<bool>,
    /// What is weighed with.
    pub scales: Option<ScalesTold>,
    /// What mixes.
    pub mixer: Option<Mixer>,
    /// The fridge.
    pub fridge: Option<FridgeTold>,
    /// Whether balls lie in closed boxes; else in tubs.
    pub boxes: Option<bool>,
    /// When nobody is up, and when nobody has a hand free.
    pub life: Option<Life>,
    /// Keys of the styles that are liked, the first one first.
    pub likes: Vec<String>,
}

/// A kitchen without a thermometer, °C.
const ROOM_C: f64 = 20.0;
const FRIDGE_C: f64 = 5.0;
const TAP_C: f64 = 14.0;
/// What a stand mixer and a spiral of a small place carry, g of dough.
const STAND_HOLDS_G: f64 = 1800.0;
const SPIRAL_HOLDS_G: f64 = 8000.0;
/// A fine scale, g.
const FINE_G: f64 = 0.1;

impl Beginning {
    /// The kitchen as it is usual, with guesses where nothing was said.
    pub fn usual(&self) -> KitchenUsual {
        let fridge_c = match self.fridge {
            Some(FridgeTold::Measured(c)) => c,
            Some(FridgeTold::Guessed) | None => FRIDGE_C,
        };
        KitchenUsual {
            time_zone: self.time_zone.clone(),
            altitude_m: 0.0,
            room_c: ROOM_C,
            fridge_c,
            tap_water_c: TAP_C,
            scales: Scales {
                fine_scale_g: (self.scales == Some(ScalesTold::Fine)).then_some(FINE_G),
                mixer_holds_g: match self.mixer() {
                    Mixer::Hand => None,
                    Mixer::Spiral => Some(SPIRAL_HOLDS_G),
                    _ => Some(STAND_HOLDS_G),
                },
                ..Scales::default()
            },
        }
    }
    /// The oven that is meant.
    pub fn bakes_in(&self) -> BakesIn {
        self.bakes_in.unwrap_or(BakesIn::HomeSteel)
    }
    /// What mixes.
    pub fn mixer(&self) -> Mixer {
        self.mixer.unwrap_or(Mixer::Hand)
    }
    /// The style of the first dough: the first that is liked and ships, else what suits the oven.
    pub fn style(&self) -> &'static Style {
        let liked = self.likes.iter().find_map(|k| style::by_key(k));
        liked.unwrap_or_else(|| self.bakes_in().usual_style())
    }
}
