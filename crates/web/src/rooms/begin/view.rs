//! What a leaf of the first start shows, with the plan beside it.

use super::keep::new_kitchen;
use super::leaves::Leaf;
use super::picture;
use super::said::{BeginSaid, DIAL_STEP_C};
use crate::shared::format::{self, weekday_hm};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::marks;
use crate::shared::tongue::shipped;
use crate::shared::tongue::{date, decimal, language, phrase, say};
use craft::begin::{BakesIn, FirstPlan, oven_seen};
use craft::formula::Pieces;
use craft::keyed::Keyed;
use craft::refusal::{FieldError, ValidationError};
use craft::sheet::StepKind;
use jiff::Timestamp;
use speech::Language;
use store::KitchenId;
use store::kitchen::Kitchen;

/// One drawn choice.
pub struct OvenCard {
    pub key: &'static str,
    pub name: &'static str,
    pub svg: String,
    pub time: String,
    pub on: bool,
}

/// A choice in a row of two or three.
pub struct BeginChoice {
    pub key: &'static str,
    pub name: String,
    pub on: bool,
}

pub struct StyleCard {
    pub key: String,
    pub name: String,
    pub line: String,
    pub on: bool,
    /// Why this oven does not reach it; empty where it does.
    pub hotter: String,
}

pub struct BeginStep {
    pub at: String,
    pub day: String,
    pub mark: &'static str,
    pub title: String,
    pub detail: String,
    /// It hangs on something that nobody said yet.
    pub guess: bool,
}

/// The plan beside the leaves.
pub struct PlanView {
    pub evening: String,
    pub what: String,
    pub svg: String,
    pub ready: String,
    pub fits: String,
    pub steps: Vec<BeginStep>,
    /// Name, amount and unit.
    pub weighs: Vec<(String, String)>,
    pub unit: &'static str,
    pub keeps_hours: bool,
}

pub struct BeginView {
    pub leaf: Leaf,
    pub key: &'static str,
    /// Key, name, whether it is past and whether it is here.
    pub stops: Vec<(&'static str, &'static str, bool, bool)>,
    pub number: usize,
    pub head: (String, String, String),
    /// Everything that was typed, for the leaves that are not shown.
    pub held: Vec<(String, String)>,
    pub ovens: Vec<OvenCard>,
    pub dial: String,
    pub most: String,
    pub most_step: u32,
    pub plates: Vec<BeginChoice>,
    pub plate_word: &'static str,
    pub grills: Vec<BeginChoice>,
    pub scales: Vec<BeginChoice>,
    pub mixers: Vec<BeginChoice>,
    pub fridges: Vec<BeginChoice>,
    pub fridge_c: String,
    pub measured: bool,
    pub boxes: Vec<BeginChoice>,
    pub sleeps: (u8, u8),
    pub works: Vec<BeginChoice>,
    pub work: (u8, u8),
    pub styles: Vec<StyleCard>,
    pub languages: Vec<BeginChoice>,
    pub units: Vec<BeginChoice>,
    pub name: String,
    pub kitchen: String,
    pub zone: String,
    pub needs_password: bool,
    pub first: bool,
    pub plan: Result<PlanView, String>,
    errors: Vec<(String, String)>,
}

/// Fields that each leaf shows itself: the others go along unseen.
fn shown_on(leaf: Leaf, field: &str) -> bool {
    let shown: &[&str] = match leaf {
        Leaf::You => &[
            "name",
            "password",
            "language",
            "units",
            "time_zone",
            "kitchen",
        ],
        Leaf::BakesIn => &["bakes_in", "most", "floor_mm", "grill"],
        Leaf::Has => &["scales", "mixer", "fridge", "fridge_c", "boxes"],
        Leaf::Hours => &[
            "sleeps_from",
            "sleeps_to",
            "works",
            "works_from",
            "works_to",
            "told_hours",
        ],
        Leaf::Likes => &[],
        Leaf::Plan => &[],
    };
    shown.contains(&field)
        || (leaf == Leaf::Likes && field.starts_with("like."))
        || matches!(field, "go" | "leaf" | "start")
}

fn choices(typed: &str, all: &[(&'static str, &str)]) -> Vec<BeginChoice> {
    all.iter()
        .map(|(key, name)| BeginChoice {
            key,
            name: (*name).into(),
            on: *key == typed,
        })
        .collect()
}

fn hour(typed: &str, usual: u8) -> u8 {
    typed.parse().ok().filter(|h| *h < 24).unwrap_or(usual)
}

const OVENS: [(BakesIn, &str); 6] = [
    (BakesIn::HomeTray, "begin-home-thin-tray"),
    (BakesIn::HomeSteel, "begin-home-on-steel"),
    (BakesIn::HomeStone, "begin-home-on-stone"),
    (BakesIn::Portable, "begin-portable"),
    (BakesIn::Dome, "begin-fired-dome"),
    (BakesIn::Deck, "begin-deck"),
];

/// A bake as roughly as one says it before the first one.
fn about(s: u32) -> String {
    match s {
        0..=179 => {
            let s = (s + 5) / 10 * 10;
            match s % 60 {
                0 => say!("begin-min", s = s / 60),
                rest => say!("begin-min-2", s = s / 60, rest = format!("{:02}", rest)),
            }
        }
        _ => say!("begin-min", s = (s + 30) / 60),
    }
}

fn cards(said: &BeginSaid, here: &RequestKitchen) -> Vec<OvenCard> {
    let told = said.beginning.bakes_in;
    OVENS
        .into_iter()
        .filter_map(|(kind, name)| {
            let seen = oven_seen(&said.beginning, kind).ok()?;
            let grill = said.beginning.grill != Some(false) || kind != said.beginning.bakes_in();
            Some(OvenCard {
                key: kind.key(),
                name: phrase(name),
                svg: picture::oven(kind, seen.floor_c, grill, &here.measures, phrase(name)),
                time: about(seen.bake_s),
                on: told == Some(kind),
            })
        })
        .collect()
}

/// A kitchen as it would be kept, to read in.
fn kitchen(said: &BeginSaid, now: Timestamp) -> RequestKitchen {
    let new = new_kitchen(said);
    RequestKitchen::of(
        Kitchen {
            id: KitchenId(0),
            name: new.name,
            usual: new.usual,
            reads: new.reads,
            rhythm: new.rhythm,
            work: new.work,
            feed_hash: None,
            uses_book: false,
            is_demo: false,
            revision: 0,
            epoch: String::new(),
        },
        now,
    )
}

fn plan(said: &BeginSaid, p: &FirstPlan, here: &RequestKitchen) -> PlanView {
    let serve = here.local(p.request.serve_at);
    let pieces = match &p.request.formula.pieces {
        Pieces::Balls { count, ball_g } => {
            let m = &here.measures;
            say!(
                "begin-pizzas-of",
                count = count,
                ball_g = m.weight_said(*ball_g),
                weight_unit = m.weight_unit()
            )
        }
        _ => {
            let n = p.result.formula.pieces;
            say!("begin-n-pans", n = n)
        }
    };
    let b = &said.beginning;
    let cold = |k: StepKind| matches!(k, StepKind::Ball | StepKind::Cold | StepKind::Temper);
    let steps = p
        .result
        .steps
        .iter()
        .filter(|s| s.hands_on_min > 0.0 || s.at >= p.request.serve_at);
    let steps = steps.map(|s| {
        let at = here.local(s.at);
        let untold = b.life.is_none() || (cold(s.kind) && b.fridge.is_none());
        BeginStep {
            at: format::hm(&at),
            day: date(&at, "%a"),
            mark: marks::step(&s.kind),
            title: here.say(&s.title),
            detail: here.words(&s.detail),
            guess: untold && s.at < p.request.serve_at,
        }
    });
    let rows = p.result.formula.rows.iter().filter(|r| r.weigh_g > 0.0);
    let weighs = rows.map(|r| {
        (
            here.words(&r.called()),
            here.measures.weight_said(r.weigh_g),
        )
    });
    let (ready, fits) = match p.result.window {
        None => (
            phrase("begin-it-is-never-ready-this").to_string(),
            String::new(),
        ),
        Some(w) => {
            let from = format::quarter(&here.local(w.from_at));
            let to = w.to_at.map(|t| format::quarter(&here.local(t)));
            let inside =
                w.from_at <= p.request.serve_at && w.to_at.is_none_or(|t| p.request.serve_at <= t);
            let ready = match to {
                Some(to) => say!(
                    "begin-ready-to",
                    from = weekday_hm(&from),
                    to = format::hm(&to)
                ),
                None => say!("begin-ready-from", from = weekday_hm(&from)),
            };
            let fits = match inside {
                true => say!("begin-serve-fits", serve = format::hm(&serve)),
                false => say!("begin-serve-lies-outside", serve = format::hm(&serve)),
            };
            (ready, fits)
        }
    };
    let label = format!("{ready} {fits}");
    PlanView {
        evening: date(&serve, "%A %H:%M"),
        what: format!("{pieces}, {}", shipped(&p.style.name).to_lowercase()),
        svg: picture::plan(&p.result, p.request.serve_at, &here.zone, &label),
        ready,
        fits,
        steps: steps.collect(),
        weighs: weighs.collect(),
        unit: here.measures.weight_unit(),
        keeps_hours: p.keeps_hours,
    }
}

impl BeginView {
    pub fn of(
        said: &BeginSaid,
        leaf: Leaf,
        found: Result<FirstPlan, ValidationError>,
        errors: &[FieldError],
        (needs_password, first): (bool, bool),
        now: Timestamp,
    ) -> BeginView {
        let here = kitchen(said, now);
        let (typed, b) = (&said.typed, &said.beginning);
        let text = |name: &str| typed.text(name).to_string();
        let m = &here.measures;
        let oven = b.oven_as(b.bakes_in(), said.oven_name());
        let most = match typed.text("most") {
            "" => m.degrees(oven.most_c, 0),
            typed => typed.into(),
        };
        let plate = format!("{:.0}", oven.floor_mm);
        let (plate_word, plates): (_, &[(&str, &str)]) = match b.bakes_in() {
            BakesIn::HomeSteel => (
                phrase("begin-steel-2"),
                &[("6", "6 mm"), ("8", "8 mm"), ("10", "10 mm")],
            ),
            BakesIn::HomeStone => (
                phrase("begin-stone-2"),
                &[("10", "10 mm"), ("15", "15 mm"), ("20", "20 mm")],
            ),
            _ => ("", &[]),
        };
        let plates = plates.iter().map(|(key, name)| BeginChoice {
            key,
            name: match said.us {
                true => say!(
                    "begin-in",
                    inches = decimal(key.parse::<f64>().unwrap_or(0.0) / 25.4, 2)
                ),
                false => (*name).into(),
            },
            on: *key == plate,
        });
        let grill = if b.grill == Some(false) { "no" } else { "yes" };
        let likes = |key: &str| b.likes.iter().any(|k| k == key);
        let styles = craft::style::all().iter().map(|s| StyleCard {
            key: s.key.clone(),
            name: shipped(&s.name),
            line: shipped(&s.line),
            on: likes(&s.key),
            hotter: match s.oven.floor_c.low > oven.most_c {
                true => say!(
                    "begin-wants-a-floor-from",
                    low = m.degrees(s.oven.floor_c.low, 0)
                ),
                false => String::new(),
            },
        });
        let mut styles: Vec<StyleCard> = styles.collect();
        // Those that the oven reaches come first, the oven's own before all.
        let own = b.bakes_in().usual_style().key.clone();
        styles.sort_by_key(|s| (s.key != own, !s.hotter.is_empty()));
        let seen = oven_seen(b, b.bakes_in()).ok();
        let number = leaf as usize + 1;
        let evening = found
            .as_ref()
            .ok()
            .map(|p| date(&here.local(p.request.serve_at), "%A %H:%M"));
        let of = |a: &str, b: String, c: &str| (a.to_string(), b, c.to_string());
        let head = match (leaf, &seen) {
            (Leaf::You, _) => of(
                &[phrase("begin-from-nothing"), " "].concat(),
                phrase("begin-three-minutes").into(),
                ".",
            ),
            (Leaf::BakesIn, Some(seen)) => of(
                &[
                    "",
                    &say!("begin-at", oven_name = said.oven_name(), most = most),
                    " ",
                ]
                .concat(),
                say!("begin-a-pizza", bake_s = about(seen.bake_s)),
                ".",
            ),
            (Leaf::BakesIn, None) => of(
                &[phrase("begin-what-do-you"), " "].concat(),
                phrase("begin-bake-in").into(),
                "?",
            ),
            (Leaf::Has, _) => of(
                &[phrase("begin-what-stands-in"), " "].concat(),
                phrase("entrance-your-kitchen").into(),
                "?",
            ),
            (Leaf::Hours, _) => of(
                &[phrase("begin-no-step-falls-into"), " "].concat(),
                phrase("begin-your-sleep-or-your-work").into(),
                ".",
            ),
            (Leaf::Likes, _) => of(
                &[phrase("begin-choose"), " "].concat(),
                phrase("begin-two-or-three").into(),
                phrase("begin-or-none"),
            ),
            (Leaf::Plan, _) => of(
                &[phrase("begin-your-first-plan-2"), " "].concat(),
                evening.unwrap_or_default(),
                ".",
            ),
        };
        let all = typed.clone().into_entries().into_iter();
        let fridge = match (typed.text("fridge"), b.fridge) {
            ("", None) => "",
            (typed, _) => typed,
        };
        BeginView {
            leaf,
            key: leaf.key(),
            stops: Leaf::ALL
                .iter()
                .map(|l| (l.key(), l.name(), *l < leaf, *l == leaf))
                .collect(),
            number,
            head,
            held: all.filter(|(k, _)| !shown_on(leaf, k)).collect(),
            ovens: if leaf == Leaf::BakesIn {
                cards(said, &here)
            } else {
                vec![]
            },
            dial: picture::dial(oven.most_c, m),
            most,
            most_step: if said.us { 10 } else { DIAL_STEP_C as u32 },
            plates: plates.collect(),
            plate_word,
            grills: match b.bakes_in().may_grill() {
                true => choices(
                    grill,
                    &[("yes", phrase("begin-yes")), ("no", phrase("begin-no"))],
                ),
                false => vec![],
            },
            scales: choices(
                typed.text("scales"),
                &[
                    ("kitchen", phrase("begin-reads-1-g")),
                    ("fine", phrase("begin-and-a-fine-one")),
                    ("none", phrase("begin-none-yet")),
                ],
            ),
            mixers: choices(
                typed.text("mixer"),
                &[
                    ("hand", phrase("begin-hands")),
                    ("planetary", phrase("begin-stand-mixer")),
                    ("spiral", phrase("begin-spiral")),
                ],
            ),
            fridges: choices(
                fridge,
                &[
                    ("guessed", phrase("begin-not-measured")),
                    ("measured", phrase("begin-measured")),
                ],
            ),
            fridge_c: match typed.text("fridge_c") {
                "" => m.degrees(b.usual().fridge_c, 0),
                typed => typed.into(),
            },
            measured: fridge == "measured",
            boxes: choices(
                typed.text("boxes"),
                &[
                    ("yes", phrase("shape-boxes")),
                    ("no", phrase("begin-tubs-with-lids")),
                ],
            ),
            sleeps: (
                hour(typed.text("sleeps_from"), 23),
                hour(typed.text("sleeps_to"), 7),
            ),
            works: choices(
                typed.text("works"),
                &[
                    ("yes", phrase("begin-at-work-on-weekdays")),
                    ("no", phrase("begin-at-home")),
                ],
            ),
            work: (
                hour(typed.text("works_from"), 9),
                hour(typed.text("works_to"), 17),
            ),
            styles,
            languages: choices(
                language().key(),
                &Language::READ.map(|l| (l.key(), l.own_name())),
            ),
            units: choices(
                typed.text("units"),
                &[
                    ("metric", phrase("begin-metric")),
                    ("us", phrase("begin-us")),
                ],
            ),
            name: text("name"),
            kitchen: text("kitchen"),
            zone: b.time_zone.clone(),
            needs_password,
            first,
            plan: match found {
                Ok(p) => Ok(plan(said, &p, &here)),
                Err(e) => Err(here.say_all(&e.0)),
            },
            errors: errors
                .iter()
                .map(|e| (e.field.clone(), here.say(&e.message)))
                .collect(),
        }
    }
    /// What is wrong with a field; empty where nothing is.
    pub fn wrong(&self, field: &str) -> String {
        let found = self.errors.iter().find(|(f, _)| f == field);
        found.map_or(String::new(), |(_, s)| s.clone())
    }
}
