//! What a diagnosis says, as facts: causes with how far off they fit, groups, what to look at next, shares in words.
//!
//! Never "because": what is named fits. No share is known to a per cent. Source: learning, section 9.3.

use super::cause::{Cause, CauseGroup, LookNext};
use super::{FitsSeen, PossibleCause};
use crate::fact;
use crate::fact::{Fact, Kelvin, Percent, tenth};

/// A factor's change in % to whole fives, from its logarithm.
fn by_ln(ln: f64) -> Percent {
    Percent((20.0 * (ln.abs().exp() - 1.0)).round().max(1.0) * 5.0)
}
/// The same, from the factor.
fn by_factor(factor: f64) -> Percent {
    Percent((20.0 * (factor - 1.0).abs()).round().max(1.0) * 5.0)
}

impl PossibleCause {
    /// What it is, with how far off it fits best.
    pub fn says(&self) -> Fact {
        let l = self.level;
        let k = Kelvin(tenth(l.abs()));
        let time = fact::hours((l.abs() * 4.0).round() / 4.0);
        match self.cause {
            Cause::FridgeWarm => fact!("cause-fridge-warm", k = k),
            Cause::FridgeCold => fact!("cause-fridge-cold", k = k),
            Cause::RoomWarm => fact!("cause-room-warm", k = k),
            Cause::RoomCold => fact!("cause-room-cold", k = k),
            Cause::YeastMuch => fact!("cause-yeast-much", by = by_ln(l)),
            Cause::YeastLittle => fact!("cause-yeast-little", by = by_ln(l)),
            Cause::LevStrong => fact!("cause-leaven-strong", by = by_ln(l)),
            Cause::LevWeak => fact!("cause-leaven-weak", by = by_ln(l)),
            Cause::DoughWarm => fact!("cause-dough-warm", k = k),
            Cause::DoughCold => fact!("cause-dough-cold", k = k),
            Cause::FlourWeak => fact!("cause-flour-weak"),
            Cause::FlourStrong => fact!("cause-flour-strong"),
            Cause::BalledLate => fact!("cause-balled-late"),
            Cause::Late => fact!("cause-late", time = time),
            Cause::Early => fact!("cause-early", time = time),
            Cause::Stages if l >= 0.0 => fact!("cause-stages-longer", time = time),
            Cause::Stages => fact!("cause-stages-shorter", time = time),
            Cause::Dose if l >= 0.0 => fact!("cause-dose-more", by = by_ln(l)),
            Cause::Dose => fact!("cause-dose-less", by = by_ln(l)),
            Cause::FloorCold => fact!("cause-floor-cold", k = k),
            Cause::FloorHot => fact!("cause-floor-hot", k = k),
            Cause::TopCold => fact!("cause-top-cold", k = k),
            Cause::TopHot => fact!("cause-top-hot", k = k),
            Cause::ThinTray => fact!("cause-thin-tray"),
            Cause::ToppingMuch => fact!("cause-topping-much", by = by_factor(l)),
            Cause::SugarLittle => fact!("cause-sugar-little"),
            Cause::SugarMuch => fact!("cause-sugar-much"),
            Cause::Short => fact!("cause-short", by = by_factor(l)),
            Cause::Long => fact!("cause-long", by = by_factor(l)),
            Cause::Thick => fact!("cause-thick"),
            Cause::Thin => fact!("cause-thin"),
            Cause::Spent => fact!("cause-spent"),
            Cause::Ordinary => fact!("cause-ordinary"),
        }
    }

    /// Its share in words.
    pub fn share_said(&self) -> Fact {
        match self.share {
            s if s >= 0.85 => fact!("share-nearly-all"),
            s if s >= 0.60 => fact!("share-most"),
            s if s >= 0.42 => fact!("share-half"),
            s if s >= 0.29 => fact!("share-third"),
            s if s >= 0.22 => fact!("share-fourth"),
            s if s >= 0.17 => fact!("share-fifth"),
            s if s >= 0.13 => fact!("share-seventh"),
            _ => fact!("share-tenth"),
        }
    }
}

impl CauseGroup {
    /// What causes of it have in common.
    pub fn says(self) -> Fact {
        match self {
            CauseGroup::Ahead => fact!("group-ahead"),
            CauseGroup::Behind => fact!("group-behind"),
            CauseGroup::Gluten => fact!("group-gluten"),
            CauseGroup::Strong => fact!("group-strong"),
            CauseGroup::BelowLess => fact!("group-below-less"),
            CauseGroup::BelowMore => fact!("group-below-more"),
            CauseGroup::AboveLess => fact!("group-above-less"),
            CauseGroup::AboveMore => fact!("group-above-more"),
            CauseGroup::Wet => fact!("group-wet"),
            CauseGroup::Pale => fact!("group-pale"),
            CauseGroup::Dark => fact!("group-dark"),
            CauseGroup::Thin => fact!("group-thin"),
            CauseGroup::Ordinary => fact!("cause-ordinary"),
        }
    }
}

impl LookNext {
    /// What to do next time.
    pub fn says(self) -> Fact {
        match self {
            LookNext::Fridge => fact!("look-fridge"),
            LookNext::Room => fact!("look-room"),
            LookNext::Yeast => fact!("look-yeast"),
            LookNext::Jar => fact!("look-jar"),
            LookNext::Dough => fact!("look-dough"),
            LookNext::Flour => fact!("look-flour"),
            LookNext::Hour => fact!("look-hour"),
            LookNext::Floor => fact!("look-floor"),
            LookNext::Top => fact!("look-top"),
            LookNext::Topping => fact!("look-topping"),
            LookNext::Seconds => fact!("look-seconds"),
            LookNext::Disc => fact!("look-disc"),
            LookNext::Sugar => fact!("look-sugar"),
        }
    }
}

impl FitsSeen {
    /// In a word.
    pub fn says(self) -> Fact {
        match self {
            FitsSeen::Fits => fact!("fits-yes"),
            FitsSeen::Partly => fact!("fits-partly"),
            FitsSeen::Not => fact!("fits-not"),
        }
    }
}
