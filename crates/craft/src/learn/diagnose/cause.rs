//! What can go wrong with a dough or a bake, one thing at a time, and how often that is.
//!
//! Source: learning, sections 9.1 and 9.2 (priors set from practice).

use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// A single mishap that may explain what was seen.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum Cause {
    /// The fridge stood warmer than planned.
    FridgeWarm,
    /// The fridge stood colder.
    FridgeCold,
    /// The room was warmer.
    RoomWarm,
    /// The room was colder.
    RoomCold,
    /// More yeast went in.
    YeastMuch,
    /// Less yeast went in, or it was tired.
    YeastLittle,
    /// The leaven was livelier.
    LevStrong,
    /// The leaven was weaker.
    LevWeak,
    /// The dough left the mixer warmer.
    DoughWarm,
    /// The dough left the mixer colder.
    DoughCold,
    /// The flour is weaker than its bag says.
    FlourWeak,
    /// The flour is stronger.
    FlourStrong,
    /// It was balled late or tight.
    BalledLate,
    /// It was opened later than planned, or than noted.
    Late,
    /// It was opened earlier.
    Early,
    /// A stage took longer or shorter than planned.
    Stages,
    /// The dose that was weighed was not the planned one.
    Dose,
    /// The floor was colder than set.
    FloorCold,
    /// The floor was hotter.
    FloorHot,
    /// Less heat came from above.
    TopCold,
    /// More heat came from above.
    TopHot,
    /// A thin tray stood in place of the floor.
    ThinTray,
    /// More topping went on.
    ToppingMuch,
    /// Sugar was left out.
    SugarLittle,
    /// Too much sugar went in.
    SugarMuch,
    /// It came out sooner than noted.
    Short,
    /// It came out later.
    Long,
    /// The disc was smaller, and so thicker.
    Thick,
    /// The disc was larger, and so thinner.
    Thin,
    /// The sugars were spent in the dough.
    Spent,
    /// Nothing in particular.
    Ordinary,
}

/// Causes that lead the same way.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum CauseGroup {
    /// It ran ahead: warmer or livelier than planned.
    Ahead,
    /// It lagged behind: colder or weaker.
    Behind,
    /// Its gluten was spent early.
    Gluten,
    /// It was too strong, or had not relaxed.
    Strong,
    /// Too little heat from below.
    #[serde(rename = "below-")]
    #[strum(serialize = "below-")]
    BelowLess,
    /// Too much heat from below.
    #[serde(rename = "below+")]
    #[strum(serialize = "below+")]
    BelowMore,
    /// Too little heat from above.
    #[serde(rename = "above-")]
    #[strum(serialize = "above-")]
    AboveLess,
    /// Too much heat from above.
    #[serde(rename = "above+")]
    #[strum(serialize = "above+")]
    AboveMore,
    /// Too much water for the time.
    Wet,
    /// It browns too little.
    Pale,
    /// It browns too much.
    Dark,
    /// It lay too thin.
    Thin,
    /// Nothing in particular.
    Ordinary,
}

/// What to look at next time, so that the same can be told apart.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum LookNext {
    /// A thermometer in a glass of water in the fridge, two hours.
    Fridge,
    /// A thermometer beside the box.
    Room,
    /// The scale, and the date of the tin.
    Yeast,
    /// How long the jar takes to double.
    Jar,
    /// A probe in the dough off the mixer.
    Dough,
    /// The W on the bag.
    Flour,
    /// The hour at which it is opened.
    Hour,
    /// The floor, before the next launch.
    Floor,
    /// The air above, with the thermometer where the pizza stands.
    Top,
    /// The toppings, on a scale.
    Topping,
    /// The seconds, from In to Out.
    Seconds,
    /// The disc, across.
    Disc,
    /// The sugar in the formula.
    Sugar,
}

impl Cause {
    /// The group it belongs to. A known deviation's group is found from what it did ([`Cause::Stages`], [`Cause::Dose`]).
    pub fn group(self) -> CauseGroup {
        match self {
            Cause::FridgeWarm
            | Cause::RoomWarm
            | Cause::YeastMuch
            | Cause::LevStrong
            | Cause::DoughWarm
            | Cause::Late
            | Cause::Stages
            | Cause::Dose => CauseGroup::Ahead,
            Cause::FridgeCold
            | Cause::RoomCold
            | Cause::YeastLittle
            | Cause::LevWeak
            | Cause::DoughCold
            | Cause::Early => CauseGroup::Behind,
            Cause::FlourWeak => CauseGroup::Gluten,
            Cause::FlourStrong | Cause::BalledLate => CauseGroup::Strong,
            Cause::FloorCold | Cause::ThinTray => CauseGroup::BelowLess,
            Cause::FloorHot => CauseGroup::BelowMore,
            Cause::TopCold => CauseGroup::AboveLess,
            Cause::TopHot => CauseGroup::AboveMore,
            Cause::ToppingMuch | Cause::Thick => CauseGroup::Wet,
            Cause::SugarLittle | Cause::Short | Cause::Spent => CauseGroup::Pale,
            Cause::SugarMuch | Cause::Long => CauseGroup::Dark,
            Cause::Thin => CauseGroup::Thin,
            Cause::Ordinary => CauseGroup::Ordinary,
        }
    }

    /// What would tell it from the others.
    pub fn look_next(self) -> Option<LookNext> {
        Some(match self {
            Cause::FridgeWarm | Cause::FridgeCold => LookNext::Fridge,
            Cause::RoomWarm | Cause::RoomCold => LookNext::Room,
            Cause::YeastMuch | Cause::YeastLittle => LookNext::Yeast,
            Cause::LevStrong | Cause::LevWeak => LookNext::Jar,
            Cause::DoughWarm | Cause::DoughCold => LookNext::Dough,
            Cause::FlourWeak | Cause::FlourStrong => LookNext::Flour,
            Cause::Late | Cause::Early => LookNext::Hour,
            Cause::FloorCold | Cause::FloorHot | Cause::ThinTray => LookNext::Floor,
            Cause::TopCold | Cause::TopHot => LookNext::Top,
            Cause::ToppingMuch => LookNext::Topping,
            Cause::Short | Cause::Long => LookNext::Seconds,
            Cause::Thick | Cause::Thin => LookNext::Disc,
            Cause::SugarLittle | Cause::SugarMuch => LookNext::Sugar,
            Cause::BalledLate | Cause::Stages | Cause::Dose | Cause::Spent | Cause::Ordinary => {
                return None;
            }
        })
    }
}
