//! Shared by all rooms: layout, forms, formatting, charts, errors, guards.

pub mod assets;
pub mod changes;
pub mod chart;
pub mod cut;
pub mod drawn;
pub mod error;
pub mod fields;
pub mod form;
pub mod format;
pub mod frame;
pub mod guard;
pub mod health;
pub mod kitchen;
pub mod larder;
pub mod layout;
pub mod long;
pub mod marks;
pub mod own;
pub mod paging;
pub mod qr;
pub mod reckoned;
pub mod runs;
pub mod site;
pub mod stop;
pub mod theme;
pub mod tongue;
