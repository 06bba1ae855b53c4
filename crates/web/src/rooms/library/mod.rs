//! The library: formulas with all their versions; and the ways in and out: pasted recipes and files.

mod files;
mod incoming;
mod into;

use crate::App;
use crate::access::doors::{Doors, LOOK, PLAN};
use crate::shared::changes::{SaidChange, said_changes};
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::format::path_hours;
use crate::shared::format::{count_word, day};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::paging::{Paging, Which};
use crate::shared::theme::Theme;
use crate::shared::tongue::shipped;
use crate::shared::tongue::{phrase, plain, say};
use askama::Template;
use axum::body::Bytes;
use axum::extract::{Path, Query, State};
use axum::response::{IntoResponse, Redirect, Response};
use craft::formula::diff::{changes, pieces};
use craft::formula::{Dose, Formula};
use serde::Deserialize;
use store::batch::Origin;
use store::formula::{self, Find, FormulaId, KeptFormula, NewVersion, Version};

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/formulas", list)
        .get(LOOK, "/formulas/{id}", one)
        .get(LOOK, "/formulas/{id}/compare", compare)
        .post(PLAN, "/formulas/{id}/copy", copy)
        .post(PLAN, "/formulas/{id}/away", away)
        .merge(files::routes())
        .merge(incoming::routes())
        .merge(into::routes())
}

struct LibraryRow {
    id: u64,
    name: String,
    style: String,
    head: u32,
    changed: String,
    why: String,
}

struct StyleChoice {
    key: String,
    name: String,
    chosen: bool,
}

#[derive(Template)]
#[template(path = "rooms/library/list.html")]
struct ListPage {
    frame: Frame,
    how_many: String,
    in_all: u64,
    paging: Paging,
    rows: Vec<LibraryRow>,
    styles: Vec<StyleChoice>,
    q: String,
    archived: bool,
    searched: bool,
}

#[derive(Deserialize, Default)]
struct LibraryQuery {
    #[serde(default)]
    q: String,
    #[serde(default)]
    style: String,
    #[serde(default)]
    archived: String,
    #[serde(flatten)]
    which: Which,
}

/// Formulas on one page.
const PER_PAGE: u32 = 100;

async fn list(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Query(asked): Query<LibraryQuery>,
) -> Result<Response, AppError> {
    let find = Find {
        text: asked.q.chars().take(80).collect(),
        style_key: asked.style.clone(),
        archived: !asked.archived.is_empty(),
        skip: asked.which.skip(),
        most: PER_PAGE,
    };
    let mut db = app.db.acquire().await?;
    let found = formula::list(&mut db, here.id(), &find).await?;
    drop(db);
    let mut paging = Paging::of("/formulas", find.skip, PER_PAGE, found.in_all);
    paging.keep(&[
        ("q", &find.text),
        ("style", &find.style_key),
        ("archived", &asked.archived),
    ]);
    let larder = Larder::of(&app, &here).await?;
    let own = larder.0.styles.iter().map(|s| &s.facts);
    let html = page(&ListPage {
        frame: Frame::of(
            &here,
            theme,
            Stop::Sheet,
            phrase("library-formulas"),
            None,
            "/formulas",
        ),
        how_many: count_word(found.in_all.min(u64::from(u32::MAX)) as u32),
        in_all: found.in_all,
        paging,
        rows: found
            .listed
            .into_iter()
            .map(|l| LibraryRow {
                id: l.id.0,
                name: l.name,
                style: l.style_name,
                head: l.head,
                changed: day(&here.local(l.changed_at)),
                why: l.why,
            })
            .collect(),
        styles: craft::style::all()
            .iter()
            .chain(own)
            .map(|s| StyleChoice {
                key: s.key.clone(),
                name: shipped(&s.name),
                chosen: s.key == find.style_key,
            })
            .collect(),
        searched: !find.text.is_empty() || !find.style_key.is_empty(),
        q: find.text,
        archived: find.archived,
    })?;
    Ok(html.into_response())
}

struct VersionRow {
    number: u32,
    made: String,
    /// Who made it; empty where nobody is known.
    by: String,
    why: String,
    /// What changed against the version before.
    changes: Vec<SaidChange>,
}

#[derive(Template)]
#[template(path = "rooms/library/one.html")]
struct FormulaPage {
    frame: Frame,
    id: u64,
    name: String,
    head: u32,
    facts: Vec<(String, String)>,
    versions: Vec<VersionRow>,
    archived: bool,
    /// Number and name of the kitchens that it can be copied into.
    others: Vec<(u64, String)>,
    /// The one that it was just copied into.
    went_into: Option<(u64, String)>,
}

/// What a formula is, in lines.
pub(super) fn facts(f: &Formula, here: &RequestKitchen) -> Vec<(String, String)> {
    let mut out = vec![
        (phrase("fire-style").to_string(), shipped(&f.style.name)),
        (phrase("library-size").into(), here.say(&pieces(&f.pieces))),
        (
            phrase("pantry-flour-2").into(),
            f.flours
                .iter()
                .map(|x| {
                    format!(
                        "{} {} %",
                        x.name,
                        plain((x.share_percent * 10.0).round() / 10.0)
                    )
                })
                .collect::<Vec<_>>()
                .join(", "),
        ),
    ];
    let mut of_flour = vec![
        say!(
            "library-water",
            hydration_percent = short(f.hydration_percent)
        ),
        say!("library-salt", salt_percent = short(f.salt_percent)),
    ];
    for (word, v) in [("oil", f.oil_percent), ("sugar", f.sugar_percent)] {
        if v > 0.0 {
            of_flour.push(format!("{word} {} %", short(v)));
        }
    }
    of_flour.extend(f.extras.iter().map(|e| {
        format!(
            "{} {} {}",
            here.words(&e.called()),
            short(e.amount),
            e.kind.unit()
        )
    }));
    out.push((phrase("library-of-the-flour").into(), of_flour.join(", ")));
    for p in &f.preferments {
        out.push((
            here.say(&p.called()),
            say!(
                "library-of-the-flour-at-water",
                flour_percent = short(p.flour_percent),
                hydration_percent = short(p.hydration_percent),
                hours = short(p.hours())
            ),
        ));
    }
    let yeast = match f.yeast.dose {
        Dose::Solve => phrase("library-solved-for-the-hours").to_string(),
        Dose::None => phrase("library-none-in-the-dough").into(),
        Dose::Given { percent } => format!("{} %", short(percent)),
    };
    out.push((here.say(&f.yeast.form.name()), yeast));
    out.push((phrase("form-hours").into(), path_hours(f, here)));
    out
}

fn short(v: f64) -> String {
    plain((v * 100.0).round() / 100.0)
}

async fn versions_of(app: &App, here: &RequestKitchen, id: u64) -> Result<Vec<Version>, AppError> {
    let mut db = app.db.acquire().await?;
    let all = formula::versions(&mut db, here.id(), FormulaId(id)).await?;
    if all.is_empty() {
        Err(AppError::NoFormula(id.to_string()))
    } else {
        Ok(all)
    }
}

#[derive(Deserialize)]
struct OneQuery {
    /// The kitchen that it was just copied into.
    into: Option<u64>,
}

async fn one(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(id): Path<u64>,
    Query(asked): Query<OneQuery>,
) -> Result<Response, AppError> {
    let all = versions_of(&app, &here, id).await?;
    let others: Vec<(u64, String)> = into::kitchens(&app, &here)
        .await?
        .into_iter()
        .map(|b| (b.kitchen.0, b.name))
        .collect();
    let mut db = app.db.acquire().await?;
    let archived = formula::is_archived(&mut db, here.id(), FormulaId(id)).await?;
    let head = &all[0];
    let html = page(&FormulaPage {
        frame: Frame::of(
            &here,
            theme,
            Stop::Sheet,
            &head.name,
            None,
            &format!("/formulas/{id}"),
        ),
        id,
        name: head.name.clone(),
        head: head.number,
        facts: facts(&head.formula, &here),
        versions: all
            .iter()
            .enumerate()
            .map(|(i, v)| VersionRow {
                number: v.number,
                made: day(&here.local(v.made_at)),
                by: here.by(&v.by),
                why: v.why.clone(),
                changes: all.get(i + 1).map_or(vec![], |before| {
                    said_changes(changes(&before.formula, &v.formula), &here)
                }),
            })
            .collect(),
        archived,
        went_into: others.iter().find(|(k, _)| Some(*k) == asked.into).cloned(),
        others,
    })?;
    Ok(html.into_response())
}

#[derive(Deserialize)]
struct VersionPair {
    a: u32,
    b: u32,
}

#[derive(Template)]
#[template(path = "rooms/library/compare.html")]
struct VersionsPage {
    frame: Frame,
    id: u64,
    name: String,
    a: u32,
    b: u32,
    why: String,
    how_many: String,
    changes: Vec<SaidChange>,
}

async fn compare(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(id): Path<u64>,
    Query(pair): Query<VersionPair>,
) -> Result<Response, AppError> {
    let all = versions_of(&app, &here, id).await?;
    let find = |n: u32| {
        all.iter().find(|v| v.number == n).ok_or_else(|| {
            AppError::Asked(say!(
                "library-there-is-no-version-of",
                n = n,
                name = all[0].name
            ))
        })
    };
    let (a, b) = (find(pair.a.min(pair.b))?, find(pair.a.max(pair.b))?);
    let changes = changes(&a.formula, &b.formula);
    let html = page(&VersionsPage {
        how_many: count_word(changes.len() as u32),
        frame: Frame::of(
            &here,
            theme,
            Stop::Sheet,
            phrase("library-compare"),
            None,
            &format!("/formulas/{id}"),
        ),
        id,
        name: b.name.clone(),
        a: a.number,
        b: b.number,
        why: b.why.clone(),
        changes: said_changes(changes, &here),
    })?;
    Ok(html.into_response())
}

async fn copy(
    State(app): State<App>,
    here: RequestKitchen,
    Path(id): Path<u64>,
    body: Bytes,
) -> Result<Redirect, AppError> {
    let typed = FormData::parse(&body);
    let form_key = typed.key("form_key");
    let kept = store::act!(app.db, db => {
        let v = formula::version(db, here.id(), FormulaId(id), None).await?;
        match v {
            None => Ok(None),
            Some(v) => {
                let name: String = say!("library-copy-of", name = v.name).chars().take(80).collect();
                let new = NewVersion {
                    form_key,
                    name: &name,
                    why: &say!("library-copied-from-version", number = v.number),
                    formula: &v.formula,
                    of: None,
                    origin: Origin::Maker,
                };
                formula::keep(db, here.author(), &new, here.now).await.map(Some)
            }
        }
    })?;
    let kept = kept.ok_or_else(|| AppError::NoFormula(id.to_string()))?;
    Ok(Redirect::to(&match kept {
        KeptFormula::Done { of, .. } | KeptFormula::Other { of, .. } => {
            format!("/formulas/{}", of.0)
        }
        KeptFormula::Stale { .. } => format!("/formulas/{id}"),
    }))
}

#[derive(Deserialize)]
struct Away {
    #[serde(default)]
    back: String,
}

async fn away(
    State(app): State<App>,
    here: RequestKitchen,
    Path(id): Path<u64>,
    axum::Form(form): axum::Form<Away>,
) -> Result<Redirect, AppError> {
    let mut db = app.db.acquire().await?;
    let at = form.back.is_empty().then_some(here.now);
    if !formula::archive(&mut db, here.id(), FormulaId(id), at).await? {
        return Err(AppError::NoFormula(id.to_string()));
    }
    Ok(Redirect::to(if at.is_some() {
        "/formulas"
    } else {
        "/formulas?archived=1"
    }))
}
