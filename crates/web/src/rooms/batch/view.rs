//! What the batch page shows, already formatted.

use crate::batch::opened::OpenedView;
use crate::batch::record::BatchRecord;
use crate::shared::form::FormData;
use crate::shared::format::{self, day_hm, hm, is_now, serve_fits, span_words, word};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::marks;
use crate::shared::tongue::{decimal, phrase, say};
use craft::fact;
use craft::formula::Pieces;
use craft::keyed::Keyed;
use craft::mix::run::MixAct;
use craft::path::{Place, Spot};
use craft::people::Right;
use craft::reading::Subject;
use craft::refusal::FieldError;
use craft::shape::run::ShapeAct;
use craft::sheet::ahead::ON_TIME_MIN;
use craft::sheet::progress::bowl_of_step;
use craft::sheet::{SheetResult, StepKind};
use jiff::ToSpan;
use std::sync::Arc;
use store::entry::Seen;
use uuid::Uuid;

pub struct StepView {
    pub position: usize,
    pub mark: &'static str,
    pub planned: String,
    pub title: String,
    pub detail: String,
    /// When it was planned, where it is due at another time now.
    pub was: Option<String>,
    pub done: Option<String>,
    pub skipped: bool,
    /// The bowl that it mixes.
    pub bowl: Option<u16>,
    /// It divides the dough, or takes it out of the cold: Shape shows it.
    pub shapes: bool,
    /// It begins and ends, and two buttons say which.
    pub has_length: bool,
    /// Since when it is under way.
    pub since: Option<String>,
    /// "12 minutes late", where it was not done on time.
    pub off: Option<String>,
    pub next: bool,
    /// Who said it last; empty where nobody is known.
    pub by: String,
}

pub struct LogLine {
    pub at: String,
    pub what: String,
    pub value: String,
    /// The planned figure beside a measured one.
    pub planned: String,
    /// The entry to take back; none for what is not taken back.
    pub back: Option<String>,
    /// It was taken back, and counts no longer.
    pub gone: bool,
    /// Who entered it; empty where nobody is known.
    pub by: String,
}

pub struct SubjectChoice {
    pub key: String,
    pub name: String,
    pub chosen: bool,
}

/// What was done and seen: drawn once a minute.
pub struct BatchLines {
    pub steps: Vec<StepView>,
    pub log: Vec<LogLine>,
}

impl BatchLines {
    /// `goes` is the sheet with the forecast from now on.
    pub fn of(told: &BatchRecord, goes: &SheetResult, here: &RequestKitchen) -> BatchLines {
        BatchLines {
            steps: steps(told, goes, here),
            log: log(told, here),
        }
    }
}

pub struct BatchView {
    pub code: String,
    /// The batch's own number.
    pub batch: u64,
    /// How it opened, one tap each.
    pub opened: Option<OpenedView>,
    pub finished: Option<String>,
    pub cancelled: Option<String>,
    /// Whether the dough was mixed or baked: then it is closed, not cancelled.
    pub begun: bool,
    /// The number of the plan, pieces as they are, and whether another number can still be.
    pub plan: u32,
    pub pieces: String,
    /// How heavy one ball is, and its unit, where that can be said anew.
    pub each: Option<(String, &'static str)>,
    pub may_recount: bool,
    pub mixed: bool,
    pub count_error: Option<String>,
    /// What is asked of pieces that go another way; none while none can.
    pub part: Option<PartForm>,
    /// What is said is said of the forecast.
    pub follows: bool,
    pub end_key: String,
    /// Entries of a newer program, which this one cannot show.
    pub unreadable: usize,
    pub told: Arc<BatchLines>,
    pub subjects: Vec<SubjectChoice>,
    pub degrees: String,
    pub degree_unit: &'static str,
    pub remark: String,
    pub reading_key: String,
    pub remark_key: String,
    pub reading_error: Option<String>,
    pub power_error: Option<String>,
    pub power_key: String,
    /// What is wrong with the time of a step.
    pub step_error: Option<String>,
    pub remark_error: Option<String>,
    pub answer_head: String,
    pub answer_core: String,
    pub answer_tail: String,
    pub lines: [String; 2],
    pub ready_to_bake: bool,
    pub baked: Option<String>,
    /// When the plan was changed, and to what.
    pub left: Vec<LeftPlanView>,
    /// Who planned it first; empty where nobody is known.
    pub by: String,
    /// Whether a link for its helpers may be given away here.
    pub may_give: bool,
}

/// A plan that was left.
pub struct LeftPlanView {
    pub at: String,
    pub why: String,
    pub by: String,
}

/// Pieces that go another way, as the form shows it.
pub struct PartForm {
    pub key: String,
    pub count: String,
    pub apart: bool,
    /// On the kitchen's clock, as a field for day and time holds it.
    pub serve: String,
    pub count_error: Option<String>,
    pub serve_error: Option<String>,
    /// Something was typed or is wrong: it stands open.
    pub open: bool,
}

fn part_form(
    told: &BatchRecord,
    here: &RequestKitchen,
    typed: &FormData,
    error: &dyn Fn(&[&str]) -> Option<String>,
) -> PartForm {
    let or = |field: &str, usual: String| match typed.text(field) {
        "" => usual,
        text => text.to_string(),
    };
    // The same hour a week later.
    let serve_at = told.batch.sheet.request.serve_at;
    let later = here
        .local(serve_at.max(here.now))
        .saturating_add(7_i32.days());
    PartForm {
        key: typed.key("form_key").to_string(),
        count: or("part_count", "2".into()),
        apart: typed.text("part_way") == "apart",
        serve: or("part_serve", later.strftime("%Y-%m-%dT%H:%M").to_string()),
        count_error: error(&["part_count"]),
        serve_error: error(&["part_serve"]),
        open: typed.has("part_count"),
    }
}

impl BatchView {
    /// A key of its own for each form that is drawn.
    pub fn key(&self) -> Uuid {
        Uuid::new_v4()
    }

    /// `goes` is the sheet with the forecast from now on, `drawn` what was done and seen.
    pub fn of(
        told: &BatchRecord,
        (goes, drawn): (&SheetResult, Arc<BatchLines>),
        here: &RequestKitchen,
        typed: &FormData,
        errors: &[FieldError],
    ) -> BatchView {
        let error = |fields: &[&str]| {
            errors
                .iter()
                .find(|e| fields.contains(&e.field.as_str()))
                .map(|e| here.say(&e.message))
        };
        let (answer_head, answer_core, answer_tail, lines) = answer(told, goes, here);
        let summary = told.run.summary();
        BatchView {
            left: vec![],
            may_give: here.may(Right::Plan) && told.batch.finished_at.is_none(),
            by: here.by(&told.batch.by),
            code: told.batch.code.clone(),
            opened: OpenedView::of(told, here, format!("/batches/{}", told.batch.code)),
            batch: told.batch.id.0,
            finished: told.batch.finished_at.map(|t| day_hm(&here.local(t))),
            cancelled: told.batch.cancelled_at.map(|t| day_hm(&here.local(t))),
            begun: super::ending::begun(told),
            plan: told.batch.plan,
            pieces: match typed.text("count") {
                "" => goes.formula.pieces.to_string(),
                text => text.to_string(),
            },
            each: match told.batch.sheet.request.formula.pieces {
                Pieces::Balls { ball_g, .. } if !told.is_mixed() => {
                    let each = match typed.text("each") {
                        "" => here.measures.weight_field(ball_g),
                        text => text.to_string(),
                    };
                    Some((each, here.measures.weight_unit()))
                }
                _ => None,
            },
            may_recount: !told.is_ended() && !super::pieces::is_balled(told),
            mixed: told.is_mixed(),
            count_error: error(&["count"]),
            part: super::part::may_be_parted(told).then(|| part_form(told, here, typed, &error)),
            follows: told.is_under_way(here.now),
            end_key: Uuid::new_v4().to_string(),
            unreadable: told.batch.entries.unreadable,
            told: drawn,
            subjects: Subject::ALL
                .iter()
                .copied()
                .map(|s| (s.key().to_string(), here.say(&s.name())))
                .chain(own_places(told).map(|p| (super::of_place(&p.name), p.name.clone())))
                .chain([(
                    super::TUB.to_string(),
                    phrase("batch-height-in-the-tub").to_string(),
                )])
                .map(|(key, name)| SubjectChoice {
                    chosen: key == typed.text("subject"),
                    key,
                    name,
                })
                .collect(),
            step_error: error(&["step"]),
            degrees: typed.raw("degrees").to_string(),
            degree_unit: here.measures.degree_unit(),
            remark: typed.raw("remark").to_string(),
            reading_key: Uuid::new_v4().to_string(),
            remark_key: Uuid::new_v4().to_string(),
            reading_error: error(&["subject", "degrees", "when"]),
            power_error: error(&["power"]),
            power_key: Uuid::new_v4().to_string(),
            remark_error: error(&["remark"]),
            answer_head,
            answer_core,
            answer_tail,
            lines,
            ready_to_bake: told.progress.stand >= craft::sheet::progress::Stand::Tempering,
            baked: summary.mean_s.map(|s| {
                say!(
                    "batch-of-out-on-average-right",
                    out = summary.out,
                    pieces = told.pieces(),
                    s = format::min_s(s),
                    right = summary.right
                )
            }),
        }
    }
}

/// The places of the kitchen's own that this dough lies in, each once.
fn own_places(told: &BatchRecord) -> impl Iterator<Item = Place> {
    let mut out: Vec<Place> = vec![];
    for leg in told.batch.sheet.request.formula.path() {
        if let Spot::Own(p) = leg.spot
            && !out.iter().any(|o| o.name == p.name)
        {
            out.push(p);
        }
    }
    out.into_iter()
}

/// "Ready Fri 17:45 to 20:45." with its decisive part apart.
fn answer(
    told: &BatchRecord,
    sheet: &SheetResult,
    here: &RequestKitchen,
) -> (String, String, String, [String; 2]) {
    let serve_at = told.batch.sheet.request.serve_at;
    let serve = here.local(serve_at);
    let lines = [
        format!(
            "{}, {}",
            told.batch.name,
            told.state(|c| here.measures.degrees(c, 1))
        ),
        next_line(told, sheet, here),
    ];
    let Some(w) = sheet.window else {
        return (
            phrase("batch-this-dough-is").into(),
            phrase("batch-never-ready").into(),
            ".".into(),
            lines,
        );
    };
    let span = format::from_to(
        &here.local(w.from_at),
        w.to_at.map(|t| here.local(t)).as_ref(),
    );
    let fits = sheet.fits(serve_at);
    (
        phrase("bench-ready").into(),
        span,
        serve_fits(fits, &hm(&serve)),
        lines,
    )
}

fn next_line(told: &BatchRecord, goes: &SheetResult, here: &RequestKitchen) -> String {
    if let Some(t) = told.batch.cancelled_at {
        return say!("batch-cancelled-never-mixed", t = day_hm(&here.local(t)));
    }
    if let Some(t) = told.batch.finished_at {
        return say!("batch-finished-3", t = day_hm(&here.local(t)));
    }
    let Some(i) = told.progress.next else {
        return phrase("batch-all-steps-are-done").into();
    };
    let s = &goes.steps[i];
    let title = here.words(&s.title);
    if s.kind == StepKind::Bake && !told.run.pizzas.is_empty() {
        return say!("batch-now-2", title = title, out_words = told.out_words());
    }
    match told.progress.steps[i].under_way() {
        Some(since) => say!(
            "batch-now-since",
            title = title,
            since = span_words(here.now.duration_since(since))
        ),
        None if is_now(s.at.duration_since(here.now)) => {
            say!("batch-next-due-now", title = title)
        }
        None if s.at >= here.now => say!(
            "batch-next-in",
            title = title,
            now = span_words(s.at.duration_since(here.now))
        ),
        None => say!(
            "batch-next-due-ago",
            title = title,
            at = span_words(here.now.duration_since(s.at))
        ),
    }
}

/// The steps as they were planned, with when they are due as it goes.
/// Who said last how a step goes; empty where nobody is known.
fn said_by(told: &BatchRecord, step: u16) -> String {
    let of_it = told.batch.entries.seen.iter().rev();
    let mut of_it = of_it.filter(|o| o.seen.of_step().is_some_and(|(n, _)| n == step));
    of_it.next().map_or(String::new(), |o| o.by.clone())
}

fn steps(told: &BatchRecord, goes: &SheetResult, here: &RequestKitchen) -> Vec<StepView> {
    let all = told.batch.sheet.result.steps.iter();
    all.zip(&goes.steps)
        .zip(&told.progress.steps)
        .enumerate()
        .map(|(i, ((s, due), state))| {
            let (begun, done) = (state.under_way(), state.done);
            // What began late is said of its begin.
            let real = state.begun.or(state.happened());
            let off = real
                .map(|d| d.duration_since(s.at))
                .filter(|d| d.abs().as_secs_f64() >= 60.0 * ON_TIME_MIN);
            let planned = day_hm(&here.local(s.at));
            let now = match begun {
                Some(_) => planned.clone(),
                None => day_hm(&here.local(due.at)),
            };
            StepView {
                by: here.by(&said_by(told, s.number)),
                position: usize::from(s.number),
                mark: marks::step(&s.kind),
                was: (now != planned).then_some(planned),
                planned: now,
                title: here.say(&s.title),
                detail: here.say(&s.detail),
                done: done.map(|d| hm(&here.local(d))),
                skipped: state.left_out,
                bowl: bowl_of_step(&told.batch.sheet.result, s),
                shapes: matches!(s.kind, StepKind::Ball | StepKind::Pan | StepKind::Temper),
                has_length: s.has_length(),
                since: begun.map(|b| hm(&here.local(b))),
                off: off.map(|d| {
                    format!(
                        "{} {}",
                        span_words(d),
                        if d.is_positive() {
                            phrase("batch-word-late")
                        } else {
                            phrase("batch-word-early")
                        }
                    )
                }),
                next: told.progress.next == Some(i),
            }
        })
        .collect()
}

fn log(told: &BatchRecord, here: &RequestKitchen) -> Vec<LogLine> {
    let open = told.batch.cancelled_at.is_none();
    let gone = told.batch.entries.taken_back.iter().map(|o| (o, true));
    let mut all: Vec<_> = told.seen().map(|o| (o, false)).chain(gone).collect();
    all.sort_by_key(|(o, _)| std::cmp::Reverse((o.at, o.id)));
    all.into_iter()
        .filter_map(|(o, gone)| {
            let (what, value, planned) = said(&o.seen, o.at, told, here)?;
            let back = open && !gone && o.seen.may_be_taken_back();
            Some(LogLine {
                at: day_hm(&here.local(o.at)),
                what,
                value,
                planned,
                back: back.then(|| o.key.to_string()),
                gone,
                by: here.by(&o.by),
            })
        })
        .collect()
}

/// What an entry says in the log: words, value, and the planned one; `None` for what stands elsewhere on the page.
fn said(
    seen: &Seen,
    at: jiff::Timestamp,
    told: &BatchRecord,
    here: &RequestKitchen,
) -> Option<(String, String, String)> {
    let sheet = &told.batch.sheet;
    let m = here.measures;
    let words = |what: String| Some((what, String::new(), String::new()));
    match seen {
        Seen::Reading { subject, celsius } => {
            let planned = match subject {
                Subject::Dough => told.planned_dough_c(at, here.now),
                Subject::Room => Some(sheet.request.room_c),
                Subject::Fridge => Some(sheet.request.fridge_c),
                Subject::Water => Some(sheet.result.water.pour_c),
                Subject::Floor | Subject::Dome => None,
            };
            let decimals = match subject {
                Subject::Floor | Subject::Dome => 0,
                _ => 1,
            };
            Some((
                here.say(&subject.name()),
                format!("{}°", m.degrees(*celsius, decimals)),
                planned.map_or(String::new(), |p| {
                    say!("batch-planned-3", p = m.degrees(p, 1))
                }),
            ))
        }
        Seen::PlaceRead { name, celsius } => {
            let planned = own_places(told).find(|p| p.name == *name).map(|p| p.c);
            Some((
                name.clone(),
                format!("{}°", m.degrees(*celsius, 1)),
                planned.map_or(String::new(), |p| {
                    say!("batch-planned-3", p = m.degrees(p, 1))
                }),
            ))
        }
        Seen::Grown { times } => Some((
            phrase("batch-marked-tub").into(),
            format!("{} ×", decimal(*times, 2)),
            String::new(),
        )),
        Seen::Remark { remark } => words(remark.clone()),
        Seen::Stood { is } => Some((
            phrase("learn-opened").into(),
            here.words(&is.name()),
            String::new(),
        )),
        Seen::Ready => words(phrase("learn-ready").into()),
        Seen::Noticed { what, pizza } => words(match pizza {
            Some(n) => say!("learn-noticed-of", what = here.words(&what.name()), n = n),
            None => here.words(&what.name()),
        }),
        Seen::Photo { pizza, of } => words(say!(
            "batch-a-photo-of",
            of = word(&of.name()),
            pizza = pizza
        )),
        Seen::Lessons { learn: true } => words(phrase("learn-learned-from").into()),
        Seen::Lessons { learn: false } => words(phrase("learn-not-learned-from").into()),
        Seen::Mix {
            act: MixAct::Read { c },
            ..
        } => Some((
            here.say(&fact!("mixlog-dough")),
            format!("{}°", m.degrees(*c, 1)),
            String::new(),
        )),
        Seen::Mix { act, .. } if act.is_of_the_dough() => words(here.say(&act.fact())),
        Seen::Mix { .. } => None,
        // Pieces one by one stand on Shape; their spread stands here.
        Seen::Shape {
            act: ShapeAct::Piece { .. } | ShapeAct::Boxed { .. },
        } => None,
        Seen::Shape { act } => words(here.say(&act.fact())),
        Seen::Cautioned => words(phrase("batch-read-the-caution-of-the").into()),
        Seen::PowerCut { until } => words(say!(
            "batch-fridge-without-power-until",
            until = day_hm(&here.local(*until))
        )),
        Seen::Cancelled => words(phrase("batch-cancelled-2").into()),
        Seen::Reopened => words(phrase("batch-taken-up-again").into()),
        Seen::Closed { .. } => words(phrase("batch-closed-2").into()),
        Seen::StepDone { .. }
        | Seen::StepBegun { .. }
        | Seen::StepFinished { .. }
        | Seen::StepUndone { .. }
        | Seen::StepSkipped { .. }
        // What was tasted stands with its trial.
        | Seen::Tasted { .. }
        | Seen::TakenBack { .. } => None,
    }
}
