//! Trials: one thing varied, all else held equal, tasted blind, and an answer that says what chance alone would do.
//!
//! `design` is what is compared and by how many, `blind` in which order a taster is served, `tasted` folds the taps of a table,
//! `answer` says what differs and how sure that is, `sisters` makes the doughs of a trial from one. Source: craft notes,
//! section 8; the exact sign test and the exact interval of a share (Clopper and Pearson) are textbook.

pub mod answer;
pub mod blind;
pub mod chance;
pub mod design;
pub mod sisters;
pub mod tasted;

pub use answer::{ComparedBy, NextTrial, PairFound, TrialAnswer, answer};
pub use design::{MOST_ARMS, MOST_TASTERS, TrialArm, TrialDesign};
pub use sisters::{Varied, sisters};
pub use tasted::{Criterion, Tasted, Tastings};
