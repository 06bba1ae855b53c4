//! One room per screen.

pub mod bake;
pub mod batch;
pub mod begin;
pub mod bench;
pub mod entrance;
pub mod fire;
pub mod labels;
pub mod ledger;
pub mod lessons;
pub mod library;
pub mod mix;
pub mod pantry;
pub mod people;
pub mod practice;
pub mod rise;
pub mod scale;
pub mod shape;
pub mod sheet;
pub mod takeaway;
pub mod trials;
pub mod words;
