//! What the Bench shows, already formatted.

use crate::batch::record::BatchRecord;
use crate::shared::chart::heatline::{Pin, heatline};
use crate::shared::chart::ribbon::{self, ByLogWords, RibbonRow};
use crate::shared::chart::strip::{said, window_words};
use crate::shared::drawn::Drawn;
use crate::shared::format::{count_word, day_hm, hm, is_now, span, span_words};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::marks;
use crate::shared::tongue::{date, decimal, phrase, say};
use craft::learn::taught::chance;
use craft::reading::{FRESH_MIN, Subject};
use craft::sheet::ahead::ShapeLook;
use craft::sheet::progress::bowl_of_step;
use craft::sheet::{ByLog, PlannedStep, StepKind};
use jiff::Timestamp;
use std::sync::Arc;
use uuid::Uuid;

/// Rows of the list of next acts.
const ACTS: usize = 4;
/// So long a step that was marked done can be taken back from the Bench, s.
const UNDO_S: i64 = 120;
/// Readings older than a day say nothing about now.
const STALE_H: i64 = 24;

pub struct NextAct {
    pub span: Vec<(String, &'static str)>,
    pub late: bool,
    pub time: String,
    pub day: String,
    pub mark: &'static str,
    pub title: String,
    /// The same as a call across the kitchen.
    pub call: String,
    pub detail: String,
    pub batch: u64,
    pub code: String,
    pub position: usize,
    pub is_bake: bool,
    /// The bowl that it is mixed in, where it is a mixing.
    pub bowl: Option<u16>,
    /// Where it is divided: its stop.
    pub shapes: bool,
    /// Boxes that leave the cold together: "2,3".
    pub out: Option<String>,
    /// It begins and ends, and two buttons say which.
    pub has_length: bool,
    pub under_way: bool,
    pub key: String,
    pub at_ms: i64,
}

/// A step that was marked done a moment ago, so that a slip can be taken back.
pub struct JustDone {
    /// "Done", "Begun" or "Left out".
    pub word: &'static str,
    pub batch: u64,
    pub title: String,
    pub code: String,
    pub position: usize,
    pub key: String,
}

pub struct LiveRow {
    pub code: String,
    pub name: String,
    pub state: String,
    pub window: String,
    pub serve: String,
}

/// What of the Bench is drawn once a minute.
pub struct Board {
    /// Wide and narrow.
    pub ribbon: (String, String),
    pub heatline: Option<String>,
    pub read_at: String,
    pub table: Vec<LiveRow>,
}

pub struct BenchView {
    pub answer_head: String,
    pub answer_core: String,
    pub lines: [String; 2],
    pub board: Arc<Board>,
    pub acts: Vec<NextAct>,
    pub degree_unit: &'static str,
    /// How many steps follow those in view, and until when.
    pub more: Option<String>,
    pub just_done: Option<JustDone>,
    pub fix: Option<String>,
}

/// "12 more steps follow, the last Sun 14:55."
fn following(rest: &[OpenStep], here: &RequestKitchen) -> Option<String> {
    let last = here.local(rest.last()?.at);
    let steps = if rest.len() == 1 {
        phrase("bench-one-more-step-follows").to_string()
    } else {
        say!("bench-more-steps-follow-the-last", as = count_word(rest.len() as u32))
    };
    Some(say!(
        "bench-each-stands-on-its-batch",
        steps = steps,
        last = day_hm(&last)
    ))
}

impl Board {
    fn of(live: &[BatchRecord], boxes: &[Boxes], here: &RequestKitchen) -> Board {
        let each = live.iter().zip(boxes);
        let rows: Vec<RibbonRow> = each.map(|(t, b)| row(t, b.as_deref(), here)).collect();
        let (pins, newest) = pins(live, here);
        let line = |t: &BatchRecord| LiveRow {
            code: t.batch.code.clone(),
            name: t.batch.name.clone(),
            state: t.state(|c| here.measures.degrees(c, 1)),
            window: window_words(&t.batch.sheet.result, &here.zone),
            serve: [
                day_hm(&here.local(t.batch.sheet.request.serve_at)),
                met(t, here).unwrap_or_default(),
                by_the_book(t, here),
            ]
            .join(" ")
            .trim_end()
            .to_string(),
        };
        Board {
            ribbon: (
                ribbon::wide(&rows, here.now, &here.zone),
                ribbon::narrow(&rows, here.now, &here.zone),
            ),
            heatline: (!pins.is_empty()).then(|| heatline(&pins, &here.measures)),
            read_at: newest.map_or(String::new(), |t| hm(&here.local(t))),
            table: live.iter().map(line).collect(),
        }
    }
}

impl BenchView {
    pub fn of(
        live: &[BatchRecord],
        boxes: &[Boxes],
        here: &RequestKitchen,
        boards: &Drawn<Board>,
    ) -> BenchView {
        let stand = live
            .iter()
            .map(|t| t.stands(here, &t.batch.sheet.result))
            .collect();
        let board = boards.of(stand, here.minute(), || Board::of(live, boxes, here));
        let due = due(live, boxes, here);
        let just_done = just_done(live, here);
        let in_view = if just_done.is_some() { ACTS - 1 } else { ACTS };
        let more = following(due.get(in_view..).unwrap_or_default(), here);
        // The rest stands on its batches: nothing of it is worded here.
        let acts: Vec<NextAct> = due.iter().take(in_view).map(|d| act(d, here)).collect();
        let (answer_head, answer_core) = answer(&acts, live);
        BenchView {
            answer_head,
            answer_core,
            lines: lines(live, here),
            board,
            acts,
            degree_unit: here.measures.degree_unit(),
            more,
            just_done,
            fix: live
                .iter()
                .find(|t| !meets(t))
                .map(|t| t.batch.code.clone()),
        }
    }
}

fn meets(t: &BatchRecord) -> bool {
    t.batch.sheet.result.fits(t.batch.sheet.request.serve_at)
}

/// The boxes of a batch, where it was divided box by box.
pub type Boxes = Option<Arc<ShapeLook>>;

fn row<'a>(t: &'a BatchRecord, boxes: Option<&ShapeLook>, here: &RequestKitchen) -> RibbonRow<'a> {
    let size =
        crate::shared::format::portions(&t.batch.sheet.result.formula.portions, &here.measures);
    let lit = t
        .progress
        .any(&t.batch.sheet.result.steps, |k| k == StepKind::LightOven);
    RibbonRow {
        name: &t.batch.name,
        code: &t.batch.code,
        size,
        state: t.state(|c| here.measures.degrees(c, 1)),
        sheet: &t.batch.sheet.result,
        serve_at: t.batch.sheet.request.serve_at,
        by_log: met(t, here).map(|met| ByLogWords {
            met,
            book: by_the_book(t, here),
        }),
        oven_lit: lit,
        outs: boxes.map_or(vec![], |look| {
            let rounds = look.own_rounds().into_iter();
            rounds.map(|r| (r.at, numbers(&r.numbers, ", "))).collect()
        }),
    }
}

/// The last step that was marked done, if that was a moment ago.
fn just_done(live: &[BatchRecord], here: &RequestKitchen) -> Option<JustDone> {
    let (told, position, at) = live
        .iter()
        .flat_map(|t| {
            let steps = t.progress.steps.iter().enumerate();
            steps.filter_map(move |(i, s)| s.done.or(s.begun).map(|at| (t, i, at)))
        })
        .max_by_key(|(_, _, at)| *at)?;
    let state = told.progress.steps[position];
    (here.now.duration_since(at).as_secs() < UNDO_S).then(|| JustDone {
        word: match (state.left_out, state.under_way()) {
            (true, _) => phrase("batch-left-out-3"),
            (_, Some(_)) => phrase("bench-begun"),
            _ => phrase("batch-done-2"),
        },
        title: format!(
            "{} · {}",
            here.say(&told.batch.sheet.result.steps[position].title),
            told.batch.name
        ),
        batch: told.batch.id.0,
        code: told.batch.code.clone(),
        position: usize::from(told.batch.sheet.result.steps[position].number),
        key: Uuid::new_v4().to_string(),
    })
}

fn numbers(all: &[u16], between: &str) -> String {
    let each: Vec<String> = all.iter().map(u16::to_string).collect();
    each.join(between)
}

/// A step that is still to be done.
struct OpenStep<'a> {
    told: &'a BatchRecord,
    step: &'a PlannedStep,
    /// Since when it is under way.
    since: Option<Timestamp>,
    at: Timestamp,
    /// Boxes that leave the cold together, when the first of them is used, and its rise then.
    out: Option<(Vec<u16>, Timestamp, f64)>,
}

/// Every step that is still to be done, the earliest first.
fn due<'a>(live: &'a [BatchRecord], boxes: &[Boxes], here: &RequestKitchen) -> Vec<OpenStep<'a>> {
    let mut out = vec![];
    for (told, boxes) in live.iter().zip(boxes) {
        let all = &told.batch.sheet.result.steps;
        let from = told.progress.next.unwrap_or(all.len());
        for (step, state) in all.iter().zip(&told.progress.steps).skip(from) {
            if state.done.is_some() {
                continue;
            }
            let since = state.under_way();
            let rounds = match step.kind {
                StepKind::Temper => boxes.as_ref().map_or(vec![], |b| b.own_rounds()),
                _ => vec![],
            };
            if let Some(look) = boxes.as_ref().filter(|_| !rounds.is_empty()) {
                // Boxes leave the cold one after the other: each round is an act of its own.
                for r in rounds {
                    let own = look.boxes.iter().filter(|b| r.numbers.contains(&b.number));
                    let used = own.map(|b| (b.use_at, 100.0 * b.at_use.rise));
                    let used = used.min_by_key(|(at, _)| *at).unwrap_or((r.at, 100.0));
                    out.push(OpenStep {
                        told,
                        step,
                        since: None,
                        at: r.at,
                        out: Some((r.numbers, used.0, used.1)),
                    });
                }
                continue;
            }
            // What is under way is not late: it ends when it usually does, or now.
            let at = match since {
                Some(_) => step.at.max(here.now),
                None => step.at,
            };
            out.push(OpenStep {
                told,
                step,
                since,
                at,
                out: None,
            });
        }
    }
    out.sort_by_key(|d| d.at.as_millisecond());
    out
}

fn act(d: &OpenStep, here: &RequestKitchen) -> NextAct {
    let (t, s, at) = (d.told, d.step, d.at);
    let local = here.local(at);
    let mut detail = here.say(&s.detail);
    let mut title = format!("{} · {}", here.say(&s.title), t.batch.name);
    let mut call = here.say(&s.kind.call(&t.batch.name));
    if let Some((boxes, used, rise)) = &d.out {
        let which = match boxes.len() {
            1 => say!("bench-box", boxes = boxes[0]),
            _ => say!("bench-boxes", boxes = numbers(boxes, ", ")),
        };
        title = say!("bench-take-out", which = which, name = t.batch.name);
        call = say!("bench-take-of-out", which = which, name = t.batch.name);
        detail = say!(
            "bench-used-from-at-rise",
            used = day_hm(&here.local(*used)),
            rise = decimal(*rise, 0)
        );
    }
    NextAct {
        span: span(at.duration_since(here.now)),
        late: at < here.now && !is_now(at.duration_since(here.now)),
        time: hm(&local),
        day: date(&local, "%a"),
        mark: marks::step(&s.kind),
        title,
        call,
        detail: match d.since {
            Some(b) => say!(
                "bench-under-way-since",
                b = hm(&here.local(b)),
                detail = detail
            ),
            None => detail,
        },
        batch: t.batch.id.0,
        code: t.batch.code.clone(),
        position: usize::from(s.number),
        is_bake: s.kind == StepKind::Bake,
        bowl: bowl_of_step(&t.batch.sheet.result, s),
        shapes: matches!(s.kind, StepKind::Ball | StepKind::Pan) || d.out.is_some(),
        out: d.out.as_ref().map(|(boxes, ..)| numbers(boxes, ",")),
        has_length: s.has_length(),
        under_way: d.since.is_some(),
        key: Uuid::new_v4().to_string(),
        at_ms: at.as_millisecond(),
    }
}

fn answer(acts: &[NextAct], live: &[BatchRecord]) -> (String, String) {
    let Some(first) = acts.first() else {
        return if live.is_empty() {
            (
                phrase("bench-the-bench-is-clear").into(),
                phrase("bench-when-do-you-serve").into(),
            )
        } else {
            (
                phrase("bench-all-steps-are-done").into(),
                phrase("bench-close-what-is-baked").into(),
            )
        };
    };
    let words: Vec<String> = first.span.iter().map(|(n, _)| n.clone()).collect();
    let minutes = match (first.span.first().map(|s| s.1), words.as_slice()) {
        (Some("h"), [h, m]) => h.parse::<i64>().unwrap_or(0) * 60 + m.parse::<i64>().unwrap_or(0),
        (_, [d, h]) => d.parse::<i64>().unwrap_or(0) * 1440 + h.parse::<i64>().unwrap_or(0) * 60,
        _ => 0,
    };
    let said = span_words(jiff::SignedDuration::from_mins(minutes));
    let core = match (first.late, minutes) {
        (_, 0) => phrase("bench-word-now").to_string(),
        (true, _) => say!("bench-late", value = said),
        (false, _) => say!("bench-in", value = said),
    };
    (first.call.clone(), core)
}

fn lines(live: &[BatchRecord], here: &RequestKitchen) -> [String; 2] {
    if live.is_empty() {
        return [
            phrase("bench-no-dough-is-under-way").into(),
            say!("bench-kitchen", name = here.kitchen.name),
        ];
    }
    let n = live.len() as u32;
    let fit = live.iter().filter(|t| meets(t)).count() as u32;
    let doughs = |n: u32| say!("bench-doughs", n = n);
    let first = if fit == n && n == 1 {
        phrase("bench-the-dough-meets-its-time").to_string()
    } else if fit == n {
        say!(
            "bench-all-doughs-meet-their-serve",
            to_lowercase = count_word(n).to_lowercase()
        )
    } else {
        say!(
            "bench-of-meet-their-serve-time",
            fit = count_word(fit),
            to_lowercase = count_word(n).to_lowercase(),
            n = doughs(n)
        )
    };
    let second = match live.iter().find(|t| !meets(t)) {
        Some(t) => say!(
            "bench-misses",
            name = t.batch.name,
            serve_at = day_hm(&here.local(t.batch.sheet.request.serve_at))
        ),
        None => match least_sure(live) {
            Some((t, p)) => say!(
                "bench-least-sure",
                name = t.batch.name,
                met = here.words(&chance(p))
            ),
            None => format!(
                "{}, {}",
                here.kitchen.name,
                date(&here.local(here.now), "%A")
            ),
        },
    };
    [first, second]
}

/// How likely a dough is ready when it is served, where the log knows.
fn met(t: &BatchRecord, here: &RequestKitchen) -> Option<String> {
    let log = t.batch.sheet.result.by_log?;
    Some(say!("bench-met", met = here.words(&chance(log.chance))))
}

/// When the same dough would be ready by the book; empty where no log says otherwise.
fn by_the_book(t: &BatchRecord, here: &RequestKitchen) -> String {
    match t.batch.sheet.result.by_log {
        Some(ByLog { book, .. }) => say!("bench-book", window = said(book, &here.zone)),
        None => String::new(),
    }
}

/// The dough that is least likely to be ready when it is served, of those that the log knows.
fn least_sure(live: &[BatchRecord]) -> Option<(&BatchRecord, f64)> {
    live.iter()
        .filter_map(|t| Some((t, t.batch.sheet.result.by_log?.chance)))
        .min_by(|(_, a), (_, b)| a.total_cmp(b))
}

/// The latest reading of each place, and of each dough.
fn pins(live: &[BatchRecord], here: &RequestKitchen) -> (Vec<Pin>, Option<Timestamp>) {
    let mut found: Vec<(Timestamp, Pin)> = Vec::new();
    for subject in [
        Subject::Fridge,
        Subject::Room,
        Subject::Water,
        Subject::Floor,
    ] {
        let latest = live
            .iter()
            .filter_map(|t| t.reading(subject))
            .max_by_key(|(at, _)| *at);
        if let Some((at, celsius)) = latest {
            found.push((
                at,
                pin(
                    here.say(&subject.name()),
                    celsius,
                    at,
                    here,
                    matches!(subject, Subject::Fridge | Subject::Water),
                ),
            ));
        }
    }
    for t in live {
        if let Some((at, celsius)) = t.reading(Subject::Dough) {
            found.push((at, pin(t.batch.code.clone(), celsius, at, here, false)));
        }
    }
    found.retain(|(at, _)| here.now.duration_since(*at).as_hours() < STALE_H);
    let newest = found.iter().map(|(at, _)| *at).max();
    (found.into_iter().map(|(_, p)| p).collect(), newest)
}

fn pin(name: String, celsius: f64, at: Timestamp, here: &RequestKitchen, cold: bool) -> Pin {
    let age = here.now.duration_since(at);
    let old = age.as_secs_f64() >= 60.0 * FRESH_MIN;
    let words = if age.as_mins() >= 60 {
        format!("{} h", age.as_hours())
    } else {
        say!("bench-min", as_mins = age.as_mins())
    };
    Pin {
        name,
        celsius,
        age: old.then_some(words),
        cold,
    }
}
