//! Craft: the computation of Slow Rise. No I/O, no clock, no randomness: the same input gives the same bytes.
//!
//! | module | answers |
//! |---|---|
//! | [`begin`] | what a newcomer says, and the first plan that follows from it |
//! | [`units`] | conversion between g and oz, °C and °F |
//! | [`fact`] | what there is to say, as codes and values; the crate `speech` words it
//! | [`note`], [`refusal`] | judgements with their reasons; what is wrong with a request |
//! | [`flour`], [`leaven`], [`style`] | blends and stand-ins; forms of yeast and starter; what a style starts from |
//! | [`formula`] | percentages to grams, stage by stage, as the scales can weigh them |
//! | [`pantry`] | what a kitchen has, what a batch costs, what must be bought |
//! | [`paste`] | a recipe as text, read into a formula |
//! | [`exchange`] | formulas as files: own JSON, CSV, recipe JSON-LD |
//! | [`mix`] | how warm the water must be, and the dough while it is mixed |
//! | [`shape`] | dividing, boxes, when each leaves the cold, how a ball opens |
//! | [`path`] | which legs a dough lies through, and the methods that makers follow |
//! | [`people`] | what each may do in a kitchen, what names and passwords must be |
//! | [`rise`] | when a dough is ready, and how much yeast that takes |
//! | [`learn`] | how a kitchen differs from the book, told from its log; what went wrong with a batch |
//! | [`reading`] | what a thermometer may say |
//! | [`entry`] | when something may have happened, and how much may be entered |
//! | [`fire`] | how long it bakes, and what happened in the oven |
//! | [`sheet`] | all of it for one dough wanted at an hour |
//! | [`code`] | batch codes |
//! | [`keyed`] | enums with keys |
//! | [`when`] | whether a weekday is enough to say a day |

#![warn(missing_docs)]

pub mod begin;
pub mod code;
mod draw;
pub mod entry;
pub mod exchange;
pub mod fact;
pub mod fire;
pub mod flour;
pub mod formula;
pub mod keyed;
mod kitchen;
pub mod learn;
pub mod leaven;
pub mod mix;
pub mod names;
pub mod note;
pub mod number;
pub mod pantry;
pub mod paste;
pub mod path;
pub mod people;
pub mod photo;
pub mod practice;
pub mod reading;
pub mod refusal;
pub mod rise;
pub mod shape;
pub mod sheet;
pub mod style;
pub mod trial;
pub mod units;
pub mod when;
