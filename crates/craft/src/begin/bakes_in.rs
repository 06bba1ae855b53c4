//! What one bakes in: six kinds, each an oven of the book until somebody says more.

use crate::fire::oven::{self, Oven, OvenKind};
use crate::style::{self, Style};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// What one bakes in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum BakesIn {
    /// A home oven, on its thin tray.
    HomeTray,
    /// A home oven with a steel.
    HomeSteel,
    /// A home oven with a stone.
    HomeStone,
    /// A small oven with a flame, for the garden.
    Portable,
    /// A dome with a fire in it.
    Dome,
    /// A deck, or several.
    Deck,
}

impl BakesIn {
    /// The oven of the book that it is taken for.
    pub fn of_the_book(self) -> &'static Oven {
        let key = match self {
            BakesIn::HomeTray => "home_tray",
            BakesIn::HomeSteel => "home_steel",
            BakesIn::HomeStone => "home_stone",
            BakesIn::Portable => "portable_gas",
            BakesIn::Dome => "wood_dome",
            BakesIn::Deck => "electric_deck",
        };
        let all = oven::all();
        all.iter().find(|o| o.key == key).unwrap_or(&all[0])
    }
    /// What an oven of a kind is, as a newcomer would say it.
    pub fn of_kind(kind: OvenKind) -> BakesIn {
        match kind {
            OvenKind::WoodDome | OvenKind::GasDome => BakesIn::Dome,
            OvenKind::PortableFlame => BakesIn::Portable,
            OvenKind::ElectricDeck | OvenKind::StoneDeck => BakesIn::Deck,
            OvenKind::Home => BakesIn::HomeSteel,
        }
    }
    /// What is usually baked in it.
    pub fn usual_style(self) -> &'static Style {
        let key = match self {
            BakesIn::HomeTray | BakesIn::HomeSteel | BakesIn::HomeStone => "home_round",
            BakesIn::Portable => "garden_round",
            BakesIn::Dome => "hot_round",
            BakesIn::Deck => "folding_round",
        };
        style::by_key(key).unwrap_or(style::first())
    }
    /// Whether its floor can be thicker or thinner as one buys it.
    pub fn has_plate(self) -> bool {
        matches!(self, BakesIn::HomeSteel | BakesIn::HomeStone)
    }
    /// Whether a grill may glow above.
    pub fn may_grill(self) -> bool {
        self.has_plate() || self == BakesIn::HomeTray
    }
}
