//! Shared by all rooms: layout, forms, formatting, charts, errors, guards.

pub mod assets;
pub mod chart;
pub mod error;
pub mod forecasts;
pub mod form;
pub mod format;
pub mod guard;
pub mod kitchen;
pub mod larder;
pub mod layout;
pub mod long;
pub mod marks;
pub mod progress;
pub mod runs;
pub mod theme;
