//! Learn: how this kitchen differs from the book, told from what was logged, and how sure that is.
//!
//! | module | answers |
//! |---|---|
//! | [`channel`] | in which few ways a kitchen can differ, and how far that is expected |
//! | [`notice`] | what else is noticed, and what that says to a diagnosis |
//! | `place` | what two batches have in common |
//! | [`observed`] | what was seen of a batch, with one tap each |
//! | `under` | a request as it goes in a kitchen that differs |
//! | [`card`] | what each channel does to what was seen: made once per batch |
//! | `scalars` | what a maker judges, read off a card |
//! | `likelihood`, `site` | how likely what was said is |
//! | `fit` | the kitchen that fits the log best, and how surely |
//! | `personal` | a dough as it goes in this kitchen |
//! | `predict` | dose and window of the next batch, with their bands |
//! | `teach` | what one thing noted would teach most |
//! | `log`, `own` | a kitchen's log fitted once; this kitchen for one dough, as a sheet takes it |
//! | [`taught`] | what may be said of it in words |
//! | [`answer`] | all of it as one question |
//! | [`mod@diagnose`] | which single mishap explains what was seen of a batch |

pub mod answer;
pub mod card;
pub mod channel;
pub mod diagnose;
mod fit;
pub(crate) mod likelihood;
mod log;
pub mod notice;
pub mod observed;
mod own;
mod personal;
mod place;
mod predict;
mod scalars;
mod site;
pub mod taught;
mod teach;
mod under;

pub use answer::{LearnRequest, Learned, card_of, learn, learn_with};
pub use card::Card;
pub use channel::Channel;
pub use diagnose::{DiagnoseRequest, Diagnosed, Diagnosis, diagnose, diagnose_with};
pub use log::{KitchenLog, TookPart};
pub use notice::Notice;
pub use observed::{Answers, LoggedBatch, NextBatch, Observed, StoodAs};
pub use own::OwnKitchen;
pub use personal::{book_dose, chance_met};
pub use place::{DoughPath, MadeWith, PathBy};
pub(crate) use predict::FOUR_FIFTHS;
pub use predict::{ChannelKnown, LikelyWindow, OwnDose, Uncertain};
pub use teach::{Lesson, TeachesMost};

#[cfg(test)]
mod tests;
