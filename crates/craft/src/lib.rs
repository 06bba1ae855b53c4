//! Craft: the computation of Slow Rise. No I/O, no clock, no randomness: the same input gives the same bytes.
//!
//! | module | answers |
//! |---|---|
//! | [`units`] | conversion between g and oz, °C and °F |
//! | [`note`], [`refusal`] | judgements with their reasons; what is wrong with a request |
//! | [`leaven`], [`style`] | yeast forms; what a style starts from |
//! | [`formula`] | percentages to grams, as the scales can weigh them |
//! | [`mix`] | how warm the water must be |
//! | [`rise`] | when a dough is ready, and how much yeast that takes |
//! | [`reading`] | what a thermometer may say |
//! | [`fire`] | how long it bakes, and what happened in the oven |
//! | [`sheet`] | all of it for one dough wanted at an hour |
//! | [`code`] | batch codes |

pub mod code;
pub mod fire;
pub mod formula;
pub mod leaven;
pub mod mix;
pub mod note;
pub mod reading;
pub mod refusal;
pub mod rise;
pub mod sheet;
pub mod style;
pub mod units;
