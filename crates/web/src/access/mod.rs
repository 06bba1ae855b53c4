//! Access: who comes in, by which door, and as whom.
//!
//! Every route of the program is a [`doors::Door`] that says what it asks of whoever comes; [`gate`] looks who it is
//! ([`asker`], by the [`visit`] that a session remembers), compares, and hands the kitchen on. A route without a door cannot be
//! written, and a door that is not in the table of `web/tests/pages/roles.rs` fails that test.

pub mod arrive;
pub mod asker;
pub mod doors;
pub mod gate;
pub mod secret;
pub mod sessions;
pub mod visit;
