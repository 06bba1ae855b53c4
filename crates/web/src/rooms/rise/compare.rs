//! Two or three methods for the same dough, side by side.

use super::carried;
use crate::App;
use crate::access::doors::{Doors, LOOK};
use crate::batch::lessons;
use crate::formula_form::Bench;
use crate::formula_form::reading;
use crate::shared::chart::strip::{strip, window_words};
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::format::{count_word, day_hm};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::shipped;
use crate::shared::tongue::{decimal, phrase, say, two_digits};
use askama::Template;
use axum::body::Bytes;
use axum::extract::State;
use axum::response::{IntoResponse, Redirect, Response};
use craft::formula::{Formula, Ingredient};
use craft::sheet::choose::{ComparedMethod, compare};
use craft::sheet::{SheetRequest, StepKind};

/// So many stand side by side.
const MOST: usize = 3;
const FIRST: [&str; MOST] = ["same_day", "room_then_cold_balls", "biga_room"];

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/rise/compare", || async { Redirect::to("/rise") })
        .post(LOOK, "/rise/compare", side_by_side)
}

struct MethodColumn {
    key: String,
    name: String,
    line: String,
    taste: String,
    chosen: usize,
    /// What is wrong with it, or its figures.
    wrong: Option<String>,
    yeast: String,
    begins: String,
    window: String,
    fits: &'static str,
    reserve: String,
    hands: Vec<(String, String)>,
    minutes: String,
    life: &'static str,
    strip: String,
}

#[derive(Template)]
#[template(path = "rooms/rise/compare.html")]
struct MethodsPage {
    frame: Frame,
    fields: Vec<(String, String)>,
    columns: Vec<MethodColumn>,
    methods: Vec<(String, String)>,
    serve: String,
    how_many: String,
    error: Option<String>,
}

async fn side_by_side(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    body: Bytes,
) -> Result<Response, AppError> {
    let larder = lessons::larder(&app, &here).await?;
    let typed = FormData::parse(&body);
    let bench = Bench {
        here: &here,
        larder: &larder,
    };
    app.models
        .at_length(|| columns(&typed, &bench, theme))
        .await?
}

fn columns(typed: &FormData, bench: &Bench, theme: Theme) -> Result<Response, AppError> {
    let (here, larder) = (bench.here, bench.larder);
    let methods = larder.methods();
    let chosen: Vec<_> = (0..MOST)
        .filter_map(|i| {
            let key = typed.text(&format!("m{i}"));
            let key = if typed.has("m0") { key } else { FIRST[i] };
            methods.iter().find(|m| m.key == key).cloned()
        })
        .collect();
    let (columns, error, serve) = match reading::read(typed, here, larder.tools(here)) {
        Ok(sheet) => {
            let serve = day_hm(&here.local(sheet.request.serve_at));
            let all = compare(&sheet.request, &chosen, &here.kitchen.rhythm.life);
            let columns = all
                .iter()
                .enumerate()
                .map(|(i, c)| column(i, c, bench, &sheet.request))
                .collect();
            (columns, None, serve)
        }
        Err(e) => (vec![], Some(here.say_all(&e)), String::new()),
    };
    let fields = carried(typed)
        .into_iter()
        .filter(|(n, _)| !["m0", "m1", "m2"].contains(&n.as_str()))
        .collect();
    let html = page(&MethodsPage {
        frame: Frame::of(
            here,
            theme,
            Stop::Rise,
            phrase("rise-compare-methods"),
            None,
            "/rise",
        ),
        fields,
        how_many: count_word(columns.len() as u32).to_lowercase(),
        columns,
        methods: methods
            .into_iter()
            .map(|m| (m.key, shipped(&m.name)))
            .collect(),
        serve,
        error,
    })?;
    Ok(html.into_response())
}

fn column(i: usize, c: &ComparedMethod, bench: &Bench, asked: &SheetRequest) -> MethodColumn {
    let here = bench.here;
    let mut out = MethodColumn {
        key: c.method.key.clone(),
        name: shipped(&c.method.name),
        line: here.say(&c.method.line),
        taste: c.method.taste.clone(),
        chosen: i,
        wrong: None,
        yeast: String::new(),
        begins: String::new(),
        window: String::new(),
        fits: "",
        reserve: String::new(),
        hands: vec![],
        minutes: String::new(),
        life: match (c.fits_life, here.kitchen.rhythm.life.is_empty()) {
            (_, true) => phrase("rise-no-quiet-or-busy-hours"),
            (true, _) => phrase("rise-keeps-clear-of-quiet-and"),
            (false, _) => phrase("rise-does-not-keep-clear-of"),
        },
        strip: String::new(),
    };
    let r = match &c.outcome {
        Ok(r) => r,
        Err(e) => {
            out.wrong = Some(here.say_all(&e.0));
            return out;
        }
    };
    let f: &Formula = &c.request.formula;
    let all: f64 = (0..r.formula.columns.len())
        .map(|i| r.formula.weigh_in(Ingredient::Yeast, i))
        .sum();
    out.yeast = match all {
        g if g > 0.0 => say!(
            "rise-in-the-dough",
            g = here.measures.dosed(g),
            name = here.words(&f.yeast.form.name()),
            percent = two_digits(r.yeast.percent)
        ),
        _ => phrase("rise-none-the-starter-raises-it").into(),
    };
    out.begins = day_hm(&here.local(r.start_at));
    out.window = window_words(r, &here.zone);
    out.fits = if r.fits(asked.serve_at) {
        phrase("rise-compare-fits")
    } else {
        phrase("rise-compare-misses")
    };
    out.reserve = say!(
        "rise-of-100",
        reserve_at_serve = decimal(r.reserve_at_serve.max(0.0), 0)
    );
    let hands = r.steps.iter().filter(|s| {
        !matches!(
            s.kind,
            StepKind::Rest | StepKind::Bulk | StepKind::Bake | StepKind::LightOven
        )
    });
    out.hands = hands
        .clone()
        .map(|s| (day_hm(&here.local(s.at)), here.say(&s.title)))
        .collect();
    let minutes: f64 = hands.map(|s| s.hands_on_min).sum();
    out.minutes = say!(
        "rise-min-of-work-in-goes",
        minutes = decimal(minutes, 0),
        hands = out.hands.len()
    );
    out.strip = strip(r, asked.serve_at, None, (&here.zone, &here.measures));
    out
}
