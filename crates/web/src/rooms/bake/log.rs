//! The bake log of a run: every pizza with its times, its turns, the floor before it and its verdict.

use super::photos_view::{PhotoTyped, PhotosView};
use crate::App;
use crate::batch::load;
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::format::min_s;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::marks;
use crate::shared::theme::Theme;
use crate::shared::tongue::shipped;
use crate::shared::tongue::{phrase, say};
use askama::Template;
use axum::extract::{Path, State};
use axum::response::Html;
use craft::fire::judge::floor_before;
use craft::reading::Subject;
use store::entry::Seen;

struct RunLogRow {
    number: u32,
    spot: u32,
    in_at: String,
    waited: String,
    turns: String,
    out: String,
    off: String,
    floor: String,
    verdict: String,
    mark: String,
    /// Who tapped, in their order.
    by: String,
}

#[derive(Template)]
#[template(path = "rooms/bake/log.html")]
struct RunLogPage {
    frame: Frame,
    code: String,
    head: String,
    core: String,
    lines: [String; 2],
    rows: Vec<RunLogRow>,
    readings: Vec<(String, String)>,
    several: bool,
    /// Others than whoever reads tapped here.
    by_several: bool,
    why: String,
    piece: &'static str,
    p: PhotosView,
}

pub async fn show(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(code): Path<String>,
) -> Result<Html<String>, AppError> {
    let told = load::told(&app, &here, &code).await?;
    page_of(&told, PhotoTyped::default(), &here, theme)
}

/// The page, with what was chosen in the form of its photos.
pub fn page_of(
    told: &BatchRecord,
    typed: PhotoTyped,
    here: &RequestKitchen,
    theme: Theme,
) -> Result<Html<String>, AppError> {
    let code = told.batch.code.clone();
    let path = format!("/batches/{code}/bakes");
    let frame = Frame::of(
        here,
        theme,
        Stop::Bake,
        &say!("bake-bake-log-2", code = code),
        Some((&code, told.progress.stand)),
        &path,
    );
    let s = told.run.summary();
    let p = &told.batch.sheet.result.programme;
    let m = here.measures;
    let pieces = told.batch.sheet.result.formula.pieces;
    let head = match s.mean_s {
        Some(mean) => say!(
            "bake-of-out-each",
            out = s.out,
            pieces = pieces,
            mean = min_s(mean)
        ),
        None => phrase("bake-nothing-is-out-yet").into(),
    };
    let core = if s.judged > 0 {
        say!("bake-of-right", right = s.right, judged = s.judged)
    } else {
        phrase("bake-not-judged-yet").into()
    };
    let readings = told
        .seen()
        .filter_map(|o| match o.seen {
            Seen::Reading {
                subject: subject @ (Subject::Floor | Subject::Dome),
                celsius,
            } => Some((
                here.local(o.at).strftime("%H:%M").to_string(),
                format!("{} {}°", here.say(&subject.name()), m.degrees(celsius, 0)),
            )),
            _ => None,
        })
        .collect();
    let fire = told.batch.sheet.request.fire.as_deref();
    let rows = rows(told, here);
    page(&RunLogPage {
        frame,
        head,
        core,
        lines: [
            say!(
                "bake-planned-in",
                out_s = min_s(f64::from(p.out_s)),
                name = fire.map_or(phrase("bake-the-styles-usual-oven").into(), |f| shipped(
                    &f.plan.oven.name
                ))
            ),
            s.pace_s
                .map_or(String::new(), |p| say!("bake-one-every", p = min_s(p))),
        ],
        by_several: rows.iter().any(|r| !r.by.is_empty()),
        rows,
        readings,
        several: told.spots() > 1,
        why: here.say(&p.why),
        piece: if told.batch.sheet.request.formula.in_pans() {
            phrase("bake-tray")
        } else {
            phrase("bake-pizza")
        },
        p: PhotosView::of(told, typed, here),
        code,
    })
}

/// Who tapped of a pizza, each once.
fn tapped_by(told: &BatchRecord, pizza: u32) -> String {
    let entries = &told.batch.entries;
    let taps = entries.taps.iter().zip(&entries.taps_by);
    let mut names: Vec<&str> = vec![];
    for (_, name) in taps.filter(|(t, _)| t.pizza == pizza) {
        if !name.is_empty() && !names.contains(&name.as_str()) {
            names.push(name);
        }
    }
    names.join(", ")
}

fn rows(told: &BatchRecord, here: &RequestKitchen) -> Vec<RunLogRow> {
    let planned = f64::from(told.batch.sheet.result.programme.out_s);
    let mut all: Vec<_> = told.run.pizzas.iter().collect();
    all.sort_by_key(|p| p.in_at);
    let reads = told.floor_reads();
    let mut last_out = None;
    all.into_iter()
        .map(|p| {
            let since_in = |t: jiff::Timestamp| min_s(t.duration_since(p.in_at).as_secs_f64());
            let waited = last_out.map_or("–".into(), |o: jiff::Timestamp| {
                let s = p.in_at.duration_since(o).as_secs_f64();
                if s >= 0.0 { min_s(s) } else { "–".into() }
            });
            last_out = p.out_at.or(last_out);
            let floor = floor_before(&reads, p.in_at);
            let baked = p.baked_s();
            RunLogRow {
                number: p.number,
                spot: p.spot + 1,
                in_at: here.local(p.in_at).strftime("%H:%M:%S").to_string(),
                waited,
                turns: if p.turned_at.is_empty() {
                    "–".into()
                } else {
                    p.turned_at
                        .iter()
                        .map(|t| since_in(*t))
                        .collect::<Vec<_>>()
                        .join(", ")
                },
                out: baked.map_or(phrase("bake-still-in").into(), min_s),
                off: baked.map_or(String::new(), |b| match (b - planned).round() {
                    d if d.abs() < 1.0 => phrase("batch-as-planned").into(),
                    d => format!("{d:+.0} s").replace('-', "−"),
                }),
                floor: floor.map_or("–".into(), |f| {
                    format!("{}°", here.measures.degrees(f, 0))
                }),
                verdict: p
                    .verdict
                    .map_or(phrase("bake-not-judged").into(), |v| here.words(&v.fact())),
                by: here.by(&tapped_by(told, p.number)),
                mark: p
                    .verdict
                    .map_or(String::new(), |v| marks::section(v.base, v.top)),
            }
        })
        .collect()
}
