//! Lessons: what is said with one tap where the work is, and what this kitchen has taught.

mod taught;
mod taught_view;
mod why;
mod why_view;

use crate::access::doors::{Doors, LOOK, PLAN, TAP};
use crate::batch::arrived::Arrived;
use crate::batch::entries;
use crate::shared::error::AppError;
use crate::shared::tongue::phrase;
use axum::response::Response;
use craft::fact;
use craft::fact::Fact;
use craft::keyed::Keyed;
use craft::learn::{Notice, StoodAs};
use store::entry::{Seen, Standing};

pub fn routes() -> Doors {
    Doors::new()
        .post(TAP, "/batches/{code}/stood", stood)
        .post(TAP, "/batches/{code}/ready", ready)
        .post(TAP, "/batches/{code}/noticed", noticed)
        .post(PLAN, "/batches/{code}/lessons", lessons)
        .get(LOOK, "/batches/{code}/why", why::show)
        .get(LOOK, "/ledger/taught", taught::show)
        .post(PLAN, "/ledger/taught", taught::choose)
}

/// What cannot be read, in words.
fn refused(a: &Arrived, code: &'static str) -> Response {
    entries::refused(phrase(code).into(), a.by_script)
}

/// Keeps what was said of the dough; one that is not mixed says nothing.
async fn of_the_dough(a: &Arrived, seen: Seen) -> Result<Response, AppError> {
    let mixed = a.told.was_mixed();
    let admits = move |_: &Standing| {
        if mixed {
            Ok(())
        } else {
            Err(fact!("not-mixed-yet"))
        }
    };
    a.entered(seen, &entries::back(&a.typed, a.code()), &admits)
        .await
}

async fn stood(a: Arrived) -> Result<Response, AppError> {
    match StoodAs::from_key(a.typed.text("is")) {
        Some(is) => of_the_dough(&a, Seen::Stood { is }).await,
        None => Ok(refused(&a, "learn-say-how-it-stood")),
    }
}

async fn ready(a: Arrived) -> Result<Response, AppError> {
    of_the_dough(&a, Seen::Ready).await
}

async fn noticed(a: Arrived) -> Result<Response, AppError> {
    let Some(what) = Notice::from_key(a.typed.text("what")) else {
        return Ok(refused(&a, "learn-say-what-you-noticed"));
    };
    let pizza = match a.typed.text("pizza") {
        "" => None,
        n => match n.parse::<u32>() {
            Ok(n) if a.told.run.pizzas.iter().any(|p| p.number == n) => Some(n),
            _ => return Ok(refused(&a, "learn-no-such-pizza")),
        },
    };
    let admits = |_: &Standing| -> Result<(), Fact> {
        // Of the same pizza, or of the dough as a whole: another pizza may look otherwise.
        let on: Vec<Notice> = a
            .told
            .seen()
            .filter_map(|o| match o.seen {
                Seen::Noticed { what, pizza: of } if of == pizza => Some(what),
                _ => None,
            })
            .collect();
        if on.contains(&what) {
            return Err(fact!("noticed-already", what = what.name()));
        }
        match what.excludes().iter().find(|n| on.contains(n)) {
            Some(other) => Err(fact!(
                "notice-excluded",
                what = what.name(),
                other = other.name()
            )),
            None => Ok(()),
        }
    };
    let seen = Seen::Noticed { what, pizza };
    a.entered(seen, &entries::back(&a.typed, a.code()), &admits)
        .await
}

/// "Do not learn from it", and "learn from it after all".
async fn lessons(a: Arrived) -> Result<Response, AppError> {
    let learn = match a.typed.text("learn") {
        "yes" => true,
        "no" => false,
        _ => return Ok(refused(&a, "learn-say-whether-to-learn")),
    };
    let back = entries::back(&a.typed, a.code());
    a.entered(Seen::Lessons { learn }, &back, &entries::always)
        .await
}
