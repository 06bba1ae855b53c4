//! Doors: the routes of the program, each with what it asks of whoever comes.

use crate::App;
use axum::Router;
use axum::handler::Handler;
use axum::http::Method;
use axum::routing::{get, post};
use craft::people::Right;
use schemars::{JsonSchema, Schema, SchemaGenerator};
use std::collections::HashMap;

/// What a door asks.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Asks {
    /// Nothing: it holds nothing of a kitchen, or the secret in its address is what it asks.
    Nothing,
    /// Somebody who is let in: it works something out, and holds nothing of a kitchen.
    Known,
    /// Somebody with a name, in whatever kitchen or in none.
    Person,
    /// A right in the kitchen.
    Of(Right),
}

/// Says what it measures.
pub const REPORT: Asks = Asks::Of(Right::Report);
/// Looks at what a kitchen keeps.
pub const LOOK: Asks = Asks::Of(Right::Look);
/// Enters what happened.
pub const TAP: Asks = Asks::Of(Right::Tap);
/// Makes and changes.
pub const PLAN: Asks = Asks::Of(Right::Plan);
/// Decides about the kitchen.
pub const OWN: Asks = Asks::Of(Right::Own);

/// One way in.
#[derive(Debug, Clone)]
pub struct Door {
    pub method: Method,
    pub path: String,
    pub asks: Asks,
    /// What programs are told of it.
    pub told: Option<DoorTold>,
}

/// The schema of something that goes through a door, with what it needs put into the generator.
pub type SchemaOf = fn(&mut SchemaGenerator) -> Schema;

/// What is told of a door that programs use.
#[derive(Debug, Clone, Copy)]
pub struct DoorTold {
    /// What it is for, in the reader's words.
    pub text: fn() -> &'static str,
    /// What is sent, and what comes back.
    pub bodies: DoorBodies,
    /// What comes back instead where it is refused.
    pub refuses: Option<SchemaOf>,
    /// Whether words come along, in a language and units that are asked for.
    pub worded: bool,
}

/// What goes in and out at a door.
#[derive(Debug, Clone, Copy)]
pub enum DoorBodies {
    One {
        takes: Option<SchemaOf>,
        gives: Option<SchemaOf>,
    },
    /// Others for each kind that its path names.
    OfKinds(fn(&mut SchemaGenerator) -> Vec<KindBodies>),
}

/// A kind with what it takes and gives.
pub struct KindBodies {
    pub kind: &'static str,
    pub takes: Option<Schema>,
    pub gives: Schema,
}

impl DoorTold {
    /// A door that this text is about.
    pub fn by(text: fn() -> &'static str) -> DoorTold {
        DoorTold {
            text,
            bodies: DoorBodies::One {
                takes: None,
                gives: None,
            },
            refuses: None,
            worded: false,
        }
    }
    pub fn takes<T: JsonSchema>(mut self) -> DoorTold {
        if let DoorBodies::One { takes, .. } = &mut self.bodies {
            *takes = Some(SchemaGenerator::subschema_for::<T>);
        }
        self
    }
    pub fn gives<T: JsonSchema>(mut self) -> DoorTold {
        if let DoorBodies::One { gives, .. } = &mut self.bodies {
            *gives = Some(SchemaGenerator::subschema_for::<T>);
        }
        self
    }
    pub fn refuses<T: JsonSchema>(self) -> DoorTold {
        DoorTold {
            refuses: Some(SchemaGenerator::subschema_for::<T>),
            ..self
        }
    }
    pub fn worded(self) -> DoorTold {
        DoorTold {
            worded: true,
            ..self
        }
    }
    pub fn of_kinds(self, all: fn(&mut SchemaGenerator) -> Vec<KindBodies>) -> DoorTold {
        DoorTold {
            bodies: DoorBodies::OfKinds(all),
            ..self
        }
    }
}

/// The doors of a room with what is behind them.
#[derive(Default)]
pub struct Doors {
    router: Router<App>,
    list: Vec<Door>,
}

impl Doors {
    pub fn new() -> Doors {
        Doors::default()
    }
    pub fn get<H: Handler<T, App>, T: 'static>(mut self, asks: Asks, path: &str, to: H) -> Doors {
        self.router = self.router.route(path, get(to));
        self.with(Method::GET, asks, path)
    }
    pub fn post<H: Handler<T, App>, T: 'static>(mut self, asks: Asks, path: &str, to: H) -> Doors {
        self.router = self.router.route(path, post(to));
        self.with(Method::POST, asks, path)
    }
    fn with(mut self, method: Method, asks: Asks, path: &str) -> Doors {
        self.list.push(Door {
            method,
            path: path.into(),
            asks,
            told: None,
        });
        self
    }
    /// Tells programs of the last door.
    pub fn told(mut self, told: DoorTold) -> Doors {
        if let Some(door) = self.list.last_mut() {
            door.told = Some(told);
        }
        self
    }
    pub fn merge(mut self, other: Doors) -> Doors {
        self.router = self.router.merge(other.router);
        self.list.extend(other.list);
        self
    }
    /// What stands around the rooms behind these doors.
    pub fn around(mut self, layers: impl FnOnce(Router<App>) -> Router<App>) -> Doors {
        self.router = layers(self.router);
        self
    }
    /// The same doors below a path.
    pub fn below(self, prefix: &str) -> Doors {
        let moved = |d: Door| Door {
            path: format!("{prefix}{}", d.path),
            ..d
        };
        Doors {
            router: Router::new().nest(prefix, self.router),
            list: self.list.into_iter().map(moved).collect(),
        }
    }
    /// Every door, for whoever checks them.
    pub fn list(&self) -> &[Door] {
        &self.list
    }
    /// The router, and what its doors ask.
    pub fn apart(self) -> (Router<App>, DoorBook) {
        let mut book = DoorBook::default();
        for d in self.list {
            book.0.entry(d.path).or_default().push((d.method, d.asks));
        }
        (self.router, book)
    }
}

/// What is asked where, by path.
#[derive(Debug, Default)]
pub struct DoorBook(HashMap<String, Vec<(Method, Asks)>>);

impl DoorBook {
    /// What a request for this route is asked; `None` where there is no such door. Who may look may ask for the head alone.
    pub fn asks(&self, method: &Method, path: &str) -> Option<Asks> {
        let method = match *method {
            Method::HEAD => &Method::GET,
            _ => method,
        };
        let found = self.0.get(path)?.iter().find(|(m, _)| m == method);
        found.map(|(_, asks)| *asks)
    }
}
