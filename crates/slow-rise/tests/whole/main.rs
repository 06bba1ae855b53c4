//! The program as it is started: by a maker in a browser, by whoever runs it, and without power.

mod database;
mod maker;
mod program;
