//! Late entry: bakes that are written down afterwards, a dozen in a grid or hundreds as CSV. All of them are kept, or none.

use super::late_view::{LatePage, LateSent, MOST_LINES};
use crate::App;
use crate::batch::forecast::went;
use crate::batch::record::Folds;
use crate::formula_form::reading::in_tongue;
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::layout::page;
use crate::shared::theme::Theme;
use crate::shared::tongue::shipped;
use axum::body::Bytes;
use axum::extract::State;
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use craft::exchange::bakes::{COLUMNS, LateBake, LateReading, WrongCell, cells_of_csv, read_bakes};
use craft::exchange::late_seen::LateSeen;
use craft::fact;
use craft::fire::Tap;
use craft::formula::{Dose, Formula};
use craft::sheet::{SheetRequest, SheetResult, work_out};
use craft::trial::Varied;
use jiff::Timestamp;
use std::collections::HashMap;
use std::sync::Arc;
use store::batch::{self, Batch, BatchId, Entries, KeptBatch, KeptSheet, NewBatch, Origin};
use store::entry::{self, By, NewEntry, Observation, SaidEntry, Seen, Went};
use store::formula::{self, Find, VersionId};
use store::once::{self, Once};
use uuid::Uuid;

/// What a form made when it was kept.
const MADE: &str = "late";

pub async fn form(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
) -> Result<Response, AppError> {
    let names = names(&app, &here).await?;
    let sent = LateSent::empty();
    Ok(page(&LatePage::of(&here, theme, sent, vec![], names))?.into_response())
}

/// What a formula may be called: those of the library, then the styles that ship.
async fn names(app: &App, here: &RequestKitchen) -> Result<Vec<String>, AppError> {
    let mut db = app.db.acquire().await?;
    let find = Find {
        most: 100,
        ..Find::default()
    };
    let listed = formula::list(&mut db, here.id(), &find).await?.listed;
    let own = listed.into_iter().map(|l| l.name);
    let styles = craft::style::all().iter().map(|s| shipped(&s.name));
    Ok(own.chain(styles).collect())
}

/// A formula by the name that a line has for it in small letters: its own name, and its version where it is one of the library.
type Known = HashMap<String, (String, Formula, Option<VersionId>)>;

async fn known(
    app: &App,
    here: &RequestKitchen,
    larder: &Larder,
    lines: &[LateBake],
) -> Result<Known, AppError> {
    let mut out = Known::new();
    let mut db = app.db.acquire().await?;
    for line in lines {
        let key = line.formula.to_lowercase();
        if out.contains_key(&key) {
            continue;
        }
        let find = Find {
            text: line.formula.clone(),
            most: 100,
            ..Find::default()
        };
        let listed = formula::list(&mut db, here.id(), &find).await?.listed;
        if let Some(of) = listed.iter().find(|l| l.name.to_lowercase() == key)
            && let Some(v) = formula::version(&mut db, here.id(), of.id, None).await?
        {
            out.insert(key, (v.name, v.formula, Some(v.id)));
            continue;
        }
        let own = larder.0.styles.iter().map(|s| &s.facts);
        let mut styles = craft::style::all().iter().chain(own);
        let named = |s: &&craft::style::Style| {
            [
                s.name.to_lowercase(),
                shipped(&s.name).to_lowercase(),
                s.key.clone(),
            ]
            .contains(&key)
        };
        if let Some(style) = styles.find(named) {
            let formula = in_tongue(&Formula::of_style(style));
            out.insert(key, (shipped(&style.name), formula, None));
        }
    }
    Ok(out)
}

/// A line, worked out.
struct LateSheet {
    name: String,
    from: Option<VersionId>,
    request: SheetRequest,
    result: SheetResult,
    entries: Vec<(Timestamp, SaidEntry)>,
    closed_at: Timestamp,
}

/// The sheet of a line as the book and the line's own figures have it.
fn sheet_of(
    line: LateBake,
    known: &Known,
    larder: &Larder,
    here: &RequestKitchen,
) -> Result<LateSheet, Vec<WrongCell>> {
    let wrong = |column: &'static str, message: craft::fact::Fact| {
        vec![WrongCell {
            line: line.line,
            column,
            message,
        }]
    };
    let Some((name, formula, from)) = known.get(&line.formula.to_lowercase()) else {
        let asked = line.formula.as_str();
        return Err(wrong(
            "formula",
            fact!("late-no-such-formula", name = asked),
        ));
    };
    let mut f = formula.clone();
    if let Some(n) = line.pieces {
        f.pieces = f.pieces.so_many(n);
    }
    if let Some(percent) = line.yeast_percent {
        f.yeast.dose = Dose::Given { percent };
    }
    if let Some(h) = line.cold_h {
        Varied::ColdHours.put(&mut f, h);
    }
    let mut request = SheetRequest::of(f, &here.kitchen.usual, line.served_at);
    request.scales = larder.scales(here);
    let result = work_out(&request).map_err(|e| {
        // The field of the core that is wrong is beside the column that feeds it.
        let first = e.0.into_iter().next();
        let (field, message) = first.map_or((String::new(), fact!("late-not-worked")), |e| {
            (e.field, e.message)
        });
        let column = match field.as_str() {
            f if f.contains("pieces") || f.contains("count") => "pieces",
            f if f.contains("yeast") || f.contains("dose") => "yeast",
            f if f.contains("cold") || f.contains("legs") || f.contains("hours") => "cold",
            _ => "formula",
        };
        wrong(column, message)
    })?;
    let seen = line.seen(&result, here.now);
    Ok(LateSheet {
        name: name.clone(),
        from: *from,
        request,
        result,
        closed_at: line.closed_at(&seen, here.now),
        entries: seen
            .into_iter()
            .map(|(at, seen)| (at, entry_of(at, seen)))
            .collect(),
    })
}

/// What was seen of a line, as an entry says it.
fn entry_of(at: Timestamp, seen: LateSeen) -> SaidEntry {
    match seen {
        LateSeen::Read(subject, celsius) => Seen::Reading { subject, celsius }.into(),
        LateSeen::Stood(is) => Seen::Stood { is }.into(),
        LateSeen::Tapped(kind) => Tap { pizza: 1, at, kind }.into(),
        LateSeen::Noticed(what) => Seen::Noticed { what, pizza: None }.into(),
        LateSeen::Said(remark) => Seen::Remark { remark }.into(),
    }
}

impl LateSheet {
    /// How it went, as it would be kept of one that was followed as it lay there.
    fn went(&self, here: &RequestKitchen) -> Went {
        let seen = self.entries.iter().filter_map(|(at, said)| match said {
            SaidEntry::Seen(seen) => Some(Observation {
                id: 0,
                key: Uuid::new_v4(),
                at: *at,
                seen: seen.clone(),
                by: String::new(),
            }),
            SaidEntry::Tapped { .. } => None,
        });
        let batch = Batch {
            id: BatchId(0),
            code: String::new(),
            name: String::new(),
            created_at: self.result.start_at,
            by: String::new(),
            finished_at: Some(self.closed_at),
            cancelled_at: None,
            revision: 0,
            plan: 0,
            planned_at: self.result.start_at,
            sheet: Arc::new(KeptSheet {
                request: Arc::new(self.request.clone()),
                result: Arc::new(self.result.clone()),
            }),
            entries: Arc::new(Entries {
                seen: seen.collect(),
                ..Entries::default()
            }),
            places: 0,
        };
        went(&Folds::default().record(batch), here)
    }
}

/// The cells of the grid as they were typed, with their lines.
fn cells_of_grid(typed: &FormData) -> Vec<(usize, Vec<String>)> {
    (0..typed.rows("late").min(MOST_LINES))
        .map(|i| {
            let cell = |c: &&str| typed.text(&format!("late[{i}].{c}")).to_string();
            (i + 1, COLUMNS.iter().map(cell).collect())
        })
        .collect()
}

pub async fn keep(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let by_csv = typed.text("as") == "csv";
    let cells = match by_csv {
        true => cells_of_csv(typed.raw("csv")),
        false => Ok(cells_of_grid(&typed)),
    };
    let reading = LateReading {
        now: here.now,
        zone: here.zone.clone(),
        unit: here.measures.temperature,
    };
    let sheets = match cells.and_then(|c| read_bakes(&c, &reading)) {
        Err(wrong) => Err(wrong),
        Ok(lines) => {
            let larder = Larder::of(&app, &here).await?;
            let known = known(&app, &here, &larder, &lines).await?;
            let work = || {
                let mut wrong = vec![];
                let mut out = vec![];
                for line in lines {
                    match sheet_of(line, &known, &larder, &here) {
                        Ok(sheet) => {
                            let went = sheet.went(&here);
                            out.push((sheet, went));
                        }
                        Err(e) => wrong.extend(e),
                    }
                }
                if wrong.is_empty() {
                    Ok(out)
                } else {
                    Err(wrong)
                }
            };
            app.models.at_length(work).await?
        }
    };
    let sheets = match sheets {
        Ok(sheets) => sheets,
        Err(wrong) => {
            let names = names(&app, &here).await?;
            let sent = LateSent::of(&typed, by_csv);
            let html = page(&LatePage::of(&here, theme, sent, wrong, names))?;
            return Ok((StatusCode::UNPROCESSABLE_ENTITY, html).into_response());
        }
    };
    let form_key = typed.key("form_key");
    let sent = typed.content();
    let other = store::act!(app.db, db => {
        // The form as a whole: sent twice it is kept once, and another table under its key is told, not passed over.
        match once::take(db, here.id(), (MADE, form_key), &[&sent], here.now).await? {
            Once::First => {}
            Once::Before(_) => return Ok(false),
            Once::Other(_) => return Ok(true),
        }
        for (i, (sheet, went)) in sheets.iter().enumerate() {
            write(db, &here, (form_key, i), sheet, went).await?;
        }
        Ok(false)
    })?;
    if other {
        let mut typed = typed;
        typed.set("form_key", Uuid::new_v4().to_string());
        let wrong = vec![WrongCell {
            line: 0,
            column: "",
            message: fact!("late-kept-before"),
        }];
        let names = names(&app, &here).await?;
        let sent = LateSent::of(&typed, by_csv);
        let html = page(&LatePage::of(&here, theme, sent, wrong, names))?;
        return Ok((StatusCode::CONFLICT, html).into_response());
    }
    let kept = format!("/ledger?kept={}&form={form_key}", sheets.len());
    Ok(Redirect::to(&kept).into_response())
}

/// Keeps one of them, with all that was seen, closed.
async fn write(
    db: &mut store::MySqlConnection,
    here: &RequestKitchen,
    (form_key, i): (Uuid, usize),
    sheet: &LateSheet,
    went: &Went,
) -> store::Result<()> {
    let key = Uuid::from_u128(form_key.as_u128() ^ ((i as u128 + 1) << 64));
    let new = NewBatch {
        form_key: key,
        name: &sheet.name,
        request: &sheet.request,
        result: &sheet.result,
        origin: Origin::Maker,
        from: sheet.from,
    };
    let (KeptBatch::Done(code) | KeptBatch::Other(code)) =
        batch::keep(db, here.author(), &new, here.now).await?;
    let Some(id) = batch::id_of(db, here.id(), &code).await? else {
        return Ok(());
    };
    let went = Some(Box::new(went.clone()));
    let closed = (sheet.closed_at, SaidEntry::from(Seen::Closed { went }));
    for (n, (at, said)) in sheet.entries.iter().chain([&closed]).enumerate() {
        let new = NewEntry::of_form(key, n, *at, said.clone());
        entry::write(db, here.author(), id, &new, here.now, By::Maker, entry::ANY).await?;
    }
    Ok(())
}
