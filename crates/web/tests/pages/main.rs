//! Every page and every answer over HTTP, on a router with a database of its own. One program, so that it is linked once.

mod api;
mod bake;
mod course;
mod entries;
mod excerpt;
mod fire;
mod formulas;
mod hostile_routes;
mod http;
mod languages;
mod ledger;
mod lessons;
mod mix;
mod one_truth;
mod photos;
mod practice;
mod programs;
mod rise;
mod roles;
mod shape;
mod sign_in;
mod site;
mod stock;
mod strangers;
mod us_kitchen;
mod worked_examples;
