//! The pantry: what the kitchen has. Flours, leavens, scales, pans, boxes, other goods, and styles of one's own; and the
//! kitchen itself with its units. A change here changes no formula and no batch that was made before.

mod kitchen;
mod list;
mod mixer;
mod oven;
mod programme;
pub mod shelf;
mod shelves;
mod style;

use crate::App;
use crate::access::doors::{Doors, LOOK, PLAN};
use crate::shared::error::AppError;
use crate::shared::form::{FieldReader, FormData};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::{phrase, say};
use askama::Template;
use axum::body::Bytes;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use craft::fact::Fact;
use craft::fire::Oven;
use craft::mix::{Machine, OwnProgramme};
use craft::pantry::{DoughBox, Flour, Good, Leaven, Pan, Scale};
use craft::path::{Method, Place};
use craft::refusal::{FieldError, ValidationError};
use craft::style::Style;
use jiff::{SignedDuration, Timestamp};
use shelf::{Entry, Input, Shelf};
use store::pantry::{self, At, PantryItem, Put};
use store::stock;

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/pantry", list::all)
        .merge(of::<Flour>("/pantry/flours"))
        .merge(of::<Leaven>("/pantry/leavens"))
        .merge(of::<Scale>("/pantry/scales"))
        .merge(of::<Pan>("/pantry/pans"))
        .merge(of::<DoughBox>("/pantry/boxes"))
        .post(PLAN, "/pantry/ovens/copy", list::copy_oven)
        .merge(of::<Oven>("/pantry/ovens"))
        .merge(of::<Machine>("/pantry/mixers"))
        .post(PLAN, "/pantry/programmes/copy", programme::copy)
        .merge(of::<OwnProgramme>("/pantry/programmes"))
        .merge(of::<Good>("/pantry/goods"))
        .merge(of::<Place>("/pantry/places"))
        .merge(of::<Method>("/pantry/methods"))
        .merge(of::<Style>("/pantry/styles"))
        .merge(style::routes())
        .merge(kitchen::routes())
}

fn of<S: Shelf + Send + Sync + 'static>(path: &'static str) -> Doors {
    Doors::new()
        .get(LOOK, &format!("{path}/new"), fresh::<S>)
        .get(LOOK, path, || async {
            Redirect::to(&format!("/pantry#{}", S::KIND))
        })
        .post(PLAN, path, add::<S>)
        .get(LOOK, &format!("{path}/{{id}}"), one::<S>)
        .post(PLAN, &format!("{path}/{{id}}"), change::<S>)
        .post(PLAN, &format!("{path}/{{id}}/away"), away::<S>)
}

struct FieldView {
    entry: Entry,
    value: String,
    error: Option<String>,
    input: Input,
    choices: Vec<(String, String, bool)>,
}

struct ListedRow {
    i: usize,
    fields: Vec<FieldView>,
}

/// Theirs and yours, where they differ.
struct Clash {
    what: String,
    theirs: String,
    yours: String,
}

#[derive(Template)]
#[template(path = "rooms/pantry/one.html")]
struct ItemPage {
    frame: Frame,
    title: String,
    why: &'static str,
    action: String,
    revision: String,
    fields: Vec<FieldView>,
    rows: Vec<ListedRow>,
    has_rows: bool,
    rows_said: [&'static str; 3],
    /// Its order counts.
    in_order: bool,
    has_more: bool,
    /// Something behind "more" needs another look.
    more_open: bool,
    is_new: bool,
    /// What is sent twice is written once.
    form_key: String,
    /// When the figures of what is left were shown as they stood.
    counted_at: String,
    wrong: u32,
    stale: Option<Vec<Clash>>,
    /// It was just saved.
    saved: bool,
}

struct PantryDesk<'a> {
    here: &'a RequestKitchen,
    theme: Theme,
}

impl PantryDesk<'_> {
    fn page<S: Shelf>(
        &self,
        typed: &FormData,
        at: Option<(u64, u64)>,
        errors: &[FieldError],
        stale: Option<Vec<Clash>>,
    ) -> Result<Response, AppError> {
        // Where it is sent, and where it can be looked at again.
        let (action, stands) = match at {
            Some((id, _)) => (format!("{}/{id}", S::PATH), format!("{}/{id}", S::PATH)),
            None => (S::PATH.to_string(), format!("{}/new", S::PATH)),
        };
        let view = |entry: Entry, name: String| FieldView {
            value: typed.raw(&name).to_string(),
            error: errors
                .iter()
                .find(|e| e.field == name)
                .map(|e| self.here.say(&e.message)),
            choices: entry
                .choices
                .iter()
                .map(|(k, n)| (k.clone(), n.clone(), *k == typed.text(&name)))
                .collect(),
            input: entry.input,
            entry: Entry { name, ..entry },
        };
        let rows = typed.rows(S::ROWS);
        let fields: Vec<FieldView> = S::entries(self.here)
            .into_iter()
            .map(|e| {
                let name = e.name.clone();
                view(e, name)
            })
            .collect();
        let more = || fields.iter().filter(|f| f.entry.expert);
        let html = page(&ItemPage {
            frame: Frame::of(
                self.here,
                self.theme,
                Stop::Sheet,
                phrase(S::TITLE),
                None,
                &stands,
            ),
            title: match at {
                Some(_) => typed.raw("name").to_string(),
                None => say!(
                    "pantry-a-new",
                    to_lowercase = phrase(S::TITLE).to_lowercase()
                ),
            },
            why: phrase(S::WHY),
            revision: at.map_or(String::new(), |(_, r)| r.to_string()),
            rows: (0..rows)
                .map(|i| ListedRow {
                    i,
                    fields: S::row_entries(self.here)
                        .into_iter()
                        .map(|e| {
                            let name = format!("{}[{i}].{}", S::ROWS, e.name);
                            view(e, name)
                        })
                        .collect(),
                })
                .collect(),
            has_rows: S::ROWS != "none",
            rows_said: S::ROWS_SAID.map(phrase),
            in_order: S::IN_ORDER,
            has_more: more().next().is_some(),
            more_open: more().any(|f| f.error.is_some()),
            fields,
            is_new: at.is_none(),
            form_key: typed.key("form_key").to_string(),
            counted_at: counted_at(typed, self.here).to_string(),
            wrong: errors.len() as u32,
            action,
            stale,
            saved: false,
        })?;
        let status = match (errors.is_empty(), html) {
            (true, html) => return Ok(html.into_response()),
            (false, html) => (StatusCode::UNPROCESSABLE_ENTITY, html),
        };
        Ok(status.into_response())
    }
}

async fn fresh<S: Shelf>(here: RequestKitchen, theme: Theme) -> Result<Response, AppError> {
    let mut typed = FormData::default();
    S::fresh().write(&mut typed, &here);
    typed.set("name", "");
    PantryDesk { here: &here, theme }.page::<S>(&typed, None, &[], None)
}

async fn one<S: Shelf>(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(id): Path<u64>,
) -> Result<Response, AppError> {
    let mut db = app.db.acquire().await?;
    let item: PantryItem<S> = pantry::by_id(&mut db, here.id(), id)
        .await?
        .ok_or_else(missing)?;
    let mut typed = FormData::default();
    now_left(&mut db, &here, &item)
        .await?
        .write(&mut typed, &here);
    PantryDesk { here: &here, theme }.page::<S>(&typed, Some((id, item.revision)), &[], None)
}

/// An item with what batches left of it.
async fn now_left<S: Shelf>(
    db: &mut store::Connection,
    here: &RequestKitchen,
    item: &PantryItem<S>,
) -> Result<S, AppError> {
    let all = stock::standing(db, here.id()).await?;
    let taken_g = all.get(&item.id).map_or(0.0, |s| s.taken_g);
    Ok(item.facts.after_use(taken_g))
}

/// When the figures of a form stood there: as it was shown, since batches may have taken of it while somebody typed.
fn counted_at(typed: &FormData, here: &RequestKitchen) -> Timestamp {
    let shown: Option<Timestamp> = typed.text("counted_at").parse().ok();
    let lately = |t: &Timestamp| *t <= here.now && *t > here.now - SignedDuration::from_hours(24);
    shown.filter(lately).unwrap_or(here.now)
}

fn missing() -> AppError {
    AppError::Asked(phrase("pantry-nothing-of-that-number-is").into())
}

/// Rows more or less, without a script: the form comes back with what was typed.
fn rows_pressed<S: Shelf>(typed: &mut FormData) -> bool {
    let act = typed.text("act").to_string();
    typed.forget("act");
    if act == "add" {
        let n = typed.rows(S::ROWS);
        for e in S::row_names() {
            typed.set(&format!("{}[{n}].{e}", S::ROWS), "");
        }
        return true;
    }
    let row = |act: &str, does: &str| act.strip_prefix(does).and_then(|i| i.parse().ok());
    if let Some(i) = row(&act, "drop:") {
        typed.drop_row(S::ROWS, i);
        return true;
    }
    if let Some(i) = row(&act, "up:") {
        typed.lift_row(S::ROWS, i);
        return true;
    }
    false
}

fn read<S: Shelf>(
    typed: &FormData,
    here: &RequestKitchen,
    before: Option<&S>,
) -> Result<S, Vec<FieldError>> {
    let mut r = FieldReader::new(typed);
    let facts = S::read(&mut r, here, before);
    if !r.errors.is_empty() {
        return Err(r.errors);
    }
    facts.checked().map_err(|ValidationError(e)| e)?;
    Ok(facts)
}

async fn add<S: Shelf>(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    body: Bytes,
) -> Result<Response, AppError> {
    let mut typed = FormData::parse(&body);
    let asked = PantryDesk { here: &here, theme };
    if rows_pressed::<S>(&mut typed) {
        return asked.page::<S>(&typed, None, &[], None);
    }
    match read::<S>(&typed, &here, None) {
        Err(e) => asked.page::<S>(&typed, None, &e, None),
        Ok(facts) => {
            let mut db = app.db.acquire().await?;
            let at = At::New(typed.key("form_key"));
            match pantry::put(&mut db, here.id(), at, &facts, here.now).await? {
                Put::Other(id) => {
                    drop(db);
                    let e = FieldError {
                        field: "name".into(),
                        message: Fact::as_written(say!(
                            "pantry-this-page-added-something-before",
                            id = id
                        )),
                    };
                    typed.forget("form_key");
                    asked.page::<S>(&typed, None, &[e], None)
                }
                Put::Done(id) => {
                    let all = pantry::everything(&mut db, here.id()).await?;
                    if let Some(old) = facts.replaces(&all) {
                        pantry::put_away::<S>(&mut db, here.id(), old, here.now).await?;
                    }
                    Ok(kept::<S>(id))
                }
                Put::Stale(_) => Err(missing()),
            }
        }
    }
}

/// Back to the pantry, which says what was kept.
fn kept<S: Shelf>(id: u64) -> Response {
    Redirect::to(&format!("/pantry?kept={id}#{}", S::KIND)).into_response()
}

async fn change<S: Shelf>(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(id): Path<u64>,
    body: Bytes,
) -> Result<Response, AppError> {
    let mut typed = FormData::parse(&body);
    let asked = PantryDesk { here: &here, theme };
    let revision = typed.text("revision").parse().unwrap_or(0);
    let at = Some((id, revision));
    let row = At::Row { id, revision };
    if rows_pressed::<S>(&mut typed) {
        return asked.page::<S>(&typed, at, &[], None);
    }
    let mut db = app.db.acquire().await?;
    let before: PantryItem<S> = pantry::by_id(&mut db, here.id(), id)
        .await?
        .ok_or_else(missing)?;
    let facts = match read::<S>(&typed, &here, Some(&before.facts)) {
        Err(e) => return asked.page::<S>(&typed, at, &e, None),
        Ok(f) => f,
    };
    let counted = counted_at(&typed, &here);
    match pantry::put(&mut db, here.id(), row, &facts, counted).await? {
        Put::Done(id) | Put::Other(id) => Ok(kept::<S>(id)),
        Put::Stale(Some(now)) => {
            let mut theirs = FormData::default();
            now_left(&mut db, &here, &now)
                .await?
                .write(&mut theirs, &here);
            let clashes = S::entries(&here)
                .into_iter()
                .filter(|e| theirs.text(&e.name) != typed.text(&e.name))
                .map(|e| Clash {
                    what: e.label,
                    theirs: theirs.text(&e.name).to_string(),
                    yours: typed.text(&e.name).to_string(),
                })
                .collect();
            // Saved again, yours goes over theirs: knowingly.
            let mut answer =
                asked.page::<S>(&typed, Some((id, now.revision)), &[], Some(clashes))?;
            *answer.status_mut() = StatusCode::CONFLICT;
            Ok(answer)
        }
        Put::Stale(None) => Err(missing()),
    }
}

async fn away<S: Shelf>(
    State(app): State<App>,
    here: RequestKitchen,
    Path(id): Path<u64>,
) -> Result<Response, AppError> {
    let mut db = app.db.acquire().await?;
    if !pantry::put_away::<S>(&mut db, here.id(), id, here.now).await? {
        return Ok(crate::shared::error::nothing_here().await);
    }
    Ok(Redirect::to(&format!("/pantry#{}", S::KIND)).into_response())
}
