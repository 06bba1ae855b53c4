//! A kitchen's log as a plan asks it: which batch it is among the others, and this kitchen for its dough.

use crate::shared::kitchen::RequestKitchen;
use craft::keyed::Keyed;
use craft::learn::{Card, KitchenLog, MadeWith, NextBatch, OwnKitchen};
use craft::reading::Subject;
use craft::rise::RiseRequest;
use craft::sheet::SheetRequest;
use craft::sheet::ahead::to_be_made;
use jiff::Timestamp;
use std::sync::Arc;

const WEEK_S: f64 = 7.0 * 24.0 * 3600.0;

/// The log that plans go by: there only where it is proven and the kitchen does not plan by the book.
#[derive(Clone)]
pub struct OwnLog(pub Arc<KitchenLog>);

impl std::fmt::Debug for OwnLog {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        self.0.rises().fmt(f)
    }
}

/// What a dough is made with, as far as its request knows.
pub fn made_with(r: &SheetRequest) -> MadeWith {
    let f = &r.formula;
    let flours: Vec<String> = f
        .flours
        .iter()
        .map(|x| format!("{} {:.0}", x.name, x.share_percent))
        .collect();
    MadeWith {
        tin: Some(f.yeast.form.key().to_string()),
        leaven: None,
        fridge: Some(Subject::Fridge.key().to_string()),
        room: Some(Subject::Room.key().to_string()),
        mixer: Some(match &r.machine {
            Some(m) => m.name.clone(),
            None => f.mixer.key().to_string(),
        }),
        flour: Some(flours.join(", ")),
    }
}

/// Weeks since 1970 of the hour at which a batch is served.
pub fn week(serve_at: Timestamp) -> f64 {
    serve_at.as_second() as f64 / WEEK_S
}

/// A plan as the log is asked about it.
pub fn next(r: &SheetRequest, dough: RiseRequest) -> NextBatch {
    NextBatch {
        week: week(r.serve_at),
        made_with: made_with(r),
        dough,
    }
}

impl OwnLog {
    /// This kitchen for a plan: the book's dose is put in, and the log asked what it does here. `None` where the book, or this
    /// kitchen, has no answer.
    pub fn own(&self, r: &SheetRequest, here: &RequestKitchen) -> Option<OwnKitchen> {
        let by_the_book = SheetRequest {
            own: None,
            ..r.clone()
        };
        let book = here.worked_out(&by_the_book).ok()?;
        let dough = to_be_made(&by_the_book, book.yeast.percent).ok()?;
        let card = Card::of(&dough, &[]);
        let own = self.0.own(&next(r, dough), &card);
        // A log that leaves no dose where the book has one is no help: the book's plan stands, and can be changed.
        let here_too = SheetRequest {
            own: Some(Box::new(own)),
            ..by_the_book
        };
        here.worked_out(&here_too).ok().map(|_| own)
    }
}
