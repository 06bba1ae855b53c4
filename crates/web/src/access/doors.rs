//! Doors: the routes of the program, each with what it asks of whoever comes.

use crate::App;
use axum::Router;
use axum::handler::Handler;
use axum::http::Method;
use axum::routing::{get, post};
use craft::people::Right;
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

/// Looks at what a kitchen keeps.
pub const LOOK: Asks = Asks::Of(Right::Look);
/// Enters what happened.
pub const TAP: Asks = Asks::Of(Right::Tap);
/// Makes and changes.
pub const PLAN: Asks = Asks::Of(Right::Plan);
/// Decides about the kitchen.
pub const OWN: Asks = Asks::Of(Right::Own);

/// One way in.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Door {
    pub method: Method,
    pub path: String,
    pub asks: Asks,
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
        });
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
