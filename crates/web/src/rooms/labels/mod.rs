//! Labels for boxes and tubs: what it is, when it was made, from when to when it is used, what is in it, and a code that
//! a telephone opens at the batch's page on this server.

mod strip;

use crate::App;
use crate::access::doors::{Doors, LOOK};
use crate::batch::load;
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::format::word;
use crate::shared::format::{day_hm, from_to, quarter};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::layout::page;
use crate::shared::qr::code_of;
use crate::shared::tongue::shipped;
use crate::shared::tongue::{phrase, plain, say};
use askama::Template;
use axum::extract::{Path, Query, State};
use axum::response::{IntoResponse, Response};
use craft::sheet::ahead::{BoxLook, ShapeLook};
use craft::sheet::{BlockKind, hours};
use std::collections::HashMap;
use strip::LabelStrip;

/// So many labels at most on one print.
const MOST: u32 = 96;

pub fn routes() -> Doors {
    Doors::new().get(LOOK, "/batches/{code}/labels", labels)
}

#[derive(Template)]
#[template(path = "rooms/labels/page.html")]
struct LabelsPage {
    code: String,
    name: String,
    allergens: String,
    contents: String,
    address: String,
    /// Said where no telephone reaches the address.
    only_here: Option<String>,
    each: Vec<LabelView>,
    count: u32,
}

/// One label.
#[derive(Clone)]
struct LabelView {
    /// "1 of 4", with what comes before it: "box".
    of: String,
    /// "6 balls of 262 g", where it is a box.
    balls: String,
    /// "no. 1 to 6, use 1 of 4".
    which: String,
    /// When its balls were made.
    made: String,
    /// When it leaves the cold.
    out: String,
    usable: String,
    /// Both clocks; empty where nothing is foretold.
    strip: String,
    qr: String,
    address: String,
}

/// What is in the dough that somebody may not bear: the flours' own words, and those of milk and the like.
fn allergens(told: &BatchRecord, larder: &Larder) -> String {
    let f = &told.batch.sheet.request.formula;
    let of_flours = f.flours.iter().map(|x| {
        let own = larder
            .0
            .flours
            .iter()
            .find(|p| Some(p.id) == x.pantry)
            .map(|p| p.facts.allergens.clone());
        own.filter(|a| !a.is_empty())
            .unwrap_or_else(|| "gluten".into())
    });
    let of_extras = f
        .extras
        .iter()
        .filter_map(|e| e.kind.allergen().map(|a| word(&a)));
    let mut all: Vec<String> = of_flours
        .chain(of_extras)
        .flat_map(|a| {
            a.split(',')
                .map(|a| shipped(&a.trim().to_lowercase()))
                .collect::<Vec<_>>()
        })
        .filter(|a| !a.is_empty())
        .collect();
    all.sort();
    all.dedup();
    all.join(", ")
}

async fn labels(
    State(app): State<App>,
    here: RequestKitchen,
    Path(code): Path<String>,
    Query(query): Query<HashMap<String, String>>,
) -> Result<Response, AppError> {
    let told = load::told(&app, &here, &code).await?;
    let larder = Larder::of(&app, &here).await?;
    let sheet = app.goes(&told, &here).await?;
    let look = app.boxes_of(&told, &here).await?;
    let usual = look.as_ref().map_or(1, |l| l.laid.balls.len() as u32);
    let count = query
        .get("n")
        .and_then(|n| n.parse().ok())
        .unwrap_or(usual)
        .clamp(1, MOST);
    let path = format!("/batches/{}", told.batch.code);
    let address = app.site.address(&path);
    let to = |w: &craft::sheet::ReadyWindow| w.to_at.map(|t| here.local(t));
    let usable = sheet
        .window
        .map_or(phrase("batch-never-ready").into(), |w| {
            from_to(&here.local(w.from_at), to(&w).as_ref())
        });
    let strip = LabelStrip {
        clocks: sheet
            .clocks
            .iter()
            .map(|p| (sheet.mixed_at + hours(p.hours), p.rise, p.reserve))
            .collect(),
        cold: sheet
            .blocks
            .iter()
            .find(|b| b.kind == BlockKind::Cold)
            .map(|b| (b.from_at, b.to_at)),
        use_at: sheet
            .window
            .map_or(told.batch.sheet.request.serve_at, |w| w.from_at),
        until: sheet
            .window
            .and_then(|w| w.to_at)
            .unwrap_or(told.batch.sheet.request.serve_at),
    };
    let whole = LabelView {
        strip: strip.draw(&here.zone).unwrap_or_default(),
        of: String::new(),
        balls: String::new(),
        which: String::new(),
        made: day_hm(&here.local(sheet.mixed_at)),
        out: String::new(),
        usable,
        qr: code_of(&address)?,
        address: address.clone(),
    };
    let mut each = vec![];
    for i in 1..=count {
        let own = look.as_ref().filter(|l| l.boxed.is_some());
        let of_box = own.and_then(|l| l.boxes.get(i as usize - 1).map(|b| (l, b)));
        let of = say!("labels-of", i = i, count = count);
        each.push(match of_box {
            Some((l, b)) => LabelView {
                of: say!("labels-box", of = of),
                ..of_one(
                    l,
                    b,
                    &app.site.address(&format!("{path}/shape?box={i}")),
                    &here,
                )?
            },
            None => LabelView {
                of,
                ..whole.clone()
            },
        });
    }
    let m = here.measures;
    let f = &told.batch.sheet.request.formula;
    let html = page(&LabelsPage {
        name: told.batch.name.clone(),
        allergens: allergens(&told, &larder),
        contents: say!(
            "labels-water-salt",
            portions = crate::shared::format::portions(&sheet.formula.portions, &m),
            round = plain((10.0 * sheet.formula.true_hydration_percent).round() / 10.0),
            salt_percent = plain(f.salt_percent)
        ),
        address,
        only_here: app.site.only_here(),
        each,
        count,
        code: told.batch.code,
    })?;
    Ok(html.into_response())
}

/// The label of one box: its own balls, its own times.
fn of_one(
    look: &ShapeLook,
    b: &BoxLook,
    address: &str,
    here: &RequestKitchen,
) -> Result<LabelView, AppError> {
    let at = |t| day_hm(&here.local(t));
    let balls = match b.balls {
        1 => phrase("labels-1-ball").to_string(),
        n => say!("labels-balls", n = n),
    };
    let until = b.closes_at.unwrap_or(b.use_at);
    let strip = LabelStrip {
        clocks: b
            .course
            .iter()
            .map(|(t, rise, left)| (*t, 100.0 * rise, 100.0 * left))
            .collect(),
        cold: b.cold.map(|(from, to)| (from, to.unwrap_or(b.use_at))),
        use_at: b.use_at,
        until,
    };
    let strip = strip.draw(&here.zone).filter(|_| b.frozen_at.is_none());
    let closes = b.closes_at.map(|t| here.local(t));
    let used = look.boxes.iter().filter(|b| b.order.is_some()).count();
    let order = match (b.order, b.frozen_at) {
        (Some(n), _) => say!("labels-use-of", n = n, used = used),
        (None, None) => phrase("labels-used-up").into(),
        (None, Some(_)) => String::new(),
    };
    Ok(LabelView {
        of: String::new(),
        balls: say!(
            "labels-of-2",
            balls = balls,
            ball_g = here.measures.weighed(look.ball_g)
        ),
        which: say!(
            "labels-no-to",
            first = b.first,
            balls = b.first + b.balls - 1,
            order = order
        ),
        strip: strip.unwrap_or_default(),
        made: at(b.balled_at),
        out: match (b.frozen_at, b.out) {
            (Some(t), _) => say!("labels-frozen", t = at(t)),
            (_, Some(o)) => at(o.at),
            _ => String::new(),
        },
        usable: match (b.frozen_at, b.closes_at) {
            (Some(_), _) => phrase("labels-after-thawing-a-day-in").into(),
            // As it lies it is past before its turn.
            (None, Some(t)) if t < b.use_at => {
                say!("labels-before", t = day_hm(&quarter(&here.local(t))))
            }
            _ => from_to(&here.local(b.use_at), closes.as_ref()),
        },
        qr: code_of(address)?,
        address: address.into(),
    })
}
