//! What the batch page shows, already formatted.

use crate::shared::form::Typed;
use crate::shared::format::{self, day_hm, hm, span_words};
use crate::shared::kitchen::Here;
use crate::shared::marks;
use crate::shared::progress::Told;
use craft::reading::Subject;
use craft::refusal::FieldError;
use craft::sheet::SheetResult;
use store::entry::Seen;
use uuid::Uuid;

pub struct StepView {
    pub position: usize,
    pub mark: String,
    pub planned: String,
    pub title: String,
    pub detail: String,
    pub done: Option<String>,
    pub skipped: bool,
    /// "12 minutes late", where it was not done on time.
    pub off: Option<String>,
    pub next: bool,
    pub key: String,
}

pub struct LogLine {
    pub at: String,
    pub what: String,
    pub value: String,
    /// The planned figure beside a measured one.
    pub planned: String,
}

pub struct SubjectChoice {
    pub key: &'static str,
    pub name: &'static str,
    pub chosen: bool,
}

pub struct View {
    pub code: String,
    pub finished: Option<String>,
    pub steps: Vec<StepView>,
    pub log: Vec<LogLine>,
    pub subjects: Vec<SubjectChoice>,
    pub degrees: String,
    pub degree_unit: &'static str,
    pub remark: String,
    pub reading_key: String,
    pub remark_key: String,
    pub reading_error: Option<String>,
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
    pub left: Vec<(String, String)>,
}

impl View {
    /// `goes` is the sheet with the forecast from now on.
    pub fn of(
        told: &Told,
        goes: &SheetResult,
        here: &Here,
        typed: &Typed,
        errors: &[FieldError],
    ) -> View {
        let error = |fields: &[&str]| {
            errors
                .iter()
                .find(|e| fields.contains(&e.field.as_str()))
                .map(|e| e.message.clone())
        };
        let (answer_head, answer_core, answer_tail, lines) = answer(told, goes, here);
        let summary = told.run.summary();
        View {
            left: vec![],
            code: told.batch.code.clone(),
            finished: told.batch.finished_at.map(|t| day_hm(&here.local(t))),
            steps: steps(told, here),
            log: log(told, here),
            subjects: Subject::ALL
                .into_iter()
                .map(|s| (s.key(), s.name()))
                .chain([(super::TUB, "Tub, times its start")])
                .map(|(key, name)| SubjectChoice {
                    key,
                    name,
                    chosen: key == typed.text("subject"),
                })
                .collect(),
            step_error: error(&["step"]),
            degrees: typed.raw("degrees").to_string(),
            degree_unit: here.measures.degree_unit(),
            remark: typed.raw("remark").to_string(),
            reading_key: Uuid::new_v4().to_string(),
            remark_key: Uuid::new_v4().to_string(),
            reading_error: error(&["subject", "degrees", "when"]),
            remark_error: error(&["remark"]),
            answer_head,
            answer_core,
            answer_tail,
            lines,
            ready_to_bake: told.progress.stand >= craft::sheet::progress::Stand::Tempering,
            baked: summary.mean_s.map(|s| {
                format!(
                    "{} of {} out, {} on average, {} right",
                    summary.out,
                    told.batch.sheet.result.formula.pieces,
                    format::min_s(s),
                    summary.right
                )
            }),
        }
    }
}

/// "Ready Fri 17:45 to 20:45." with its decisive part apart.
fn answer(told: &Told, sheet: &SheetResult, here: &Here) -> (String, String, String, [String; 2]) {
    let serve_at = told.batch.sheet.request.serve_at;
    let serve = here.local(serve_at);
    let lines = [
        format!(
            "{}, {}",
            told.batch.name,
            told.state(|c| here.measures.degrees(c, 1))
        ),
        next_line(told, here),
    ];
    let Some(w) = sheet.window else {
        return (
            "This dough is".into(),
            "never ready".into(),
            ".".into(),
            lines,
        );
    };
    let span = format::from_to(
        &here.local(w.from_at),
        w.to_at.map(|t| here.local(t)).as_ref(),
    );
    let fits = if sheet.fits(serve_at) {
        "fits"
    } else {
        "misses"
    };
    (
        "Ready".into(),
        span,
        format!(". Serve {} {fits}.", hm(&serve)),
        lines,
    )
}

fn next_line(told: &Told, here: &Here) -> String {
    if let Some(t) = told.batch.finished_at {
        return format!("Finished {}.", day_hm(&here.local(t)));
    }
    match told
        .progress
        .next
        .map(|i| &told.batch.sheet.result.steps[i])
    {
        Some(s) if s.at >= here.now => format!(
            "Next: {} in {}.",
            s.title.to_lowercase(),
            span_words(s.at.duration_since(here.now))
        ),
        Some(s) => format!(
            "Next: {}, due {} ago.",
            s.title.to_lowercase(),
            span_words(here.now.duration_since(s.at))
        ),
        None => "All steps are done.".into(),
    }
}

fn steps(told: &Told, here: &Here) -> Vec<StepView> {
    told.batch
        .sheet
        .result
        .steps
        .iter()
        .enumerate()
        .map(|(i, s)| {
            let done = told.progress.done_at[i];
            let off = done
                .filter(|_| !told.skipped[i])
                .map(|d| d.duration_since(s.at))
                .filter(|d| d.as_mins().abs() >= 10);
            StepView {
                position: usize::from(s.number),
                mark: marks::step(&s.kind),
                planned: day_hm(&here.local(s.at)),
                title: s.title.clone(),
                detail: s.detail.clone(),
                done: done.map(|d| hm(&here.local(d))),
                skipped: told.skipped[i],
                off: off.map(|d| {
                    format!(
                        "{} {}",
                        span_words(d),
                        if d.is_positive() { "late" } else { "early" }
                    )
                }),
                next: told.progress.next == Some(i),
                key: Uuid::new_v4().to_string(),
            }
        })
        .collect()
}

fn log(told: &Told, here: &Here) -> Vec<LogLine> {
    let r = &told.batch.sheet.request;
    let m = here.measures;
    told.seen()
        .rev()
        .filter_map(|o| {
            let at = day_hm(&here.local(o.at));
            match &o.seen {
                Seen::Reading { subject, celsius } => {
                    let planned = match subject {
                        Subject::Dough => told
                            .batch
                            .sheet
                            .result
                            .clocks_at(o.at)
                            .map(|p| p.dough_c)
                            .or(Some(told.batch.sheet.result.water.dough_c)),
                        Subject::Room => Some(r.room_c),
                        Subject::Fridge => Some(r.fridge_c),
                        Subject::Water => Some(told.batch.sheet.result.water.pour_c),
                        Subject::Floor | Subject::Dome => None,
                    };
                    let decimals = match subject {
                        Subject::Floor | Subject::Dome => 0,
                        _ => 1,
                    };
                    Some(LogLine {
                        at,
                        what: subject.name().to_string(),
                        value: format!("{}°", m.degrees(*celsius, decimals)),
                        planned: planned
                            .map_or(String::new(), |p| format!("planned {}°", m.degrees(p, 1))),
                    })
                }
                Seen::Remark { remark } => Some(LogLine {
                    at,
                    what: remark.clone(),
                    value: String::new(),
                    planned: String::new(),
                }),
                Seen::Cautioned => Some(LogLine {
                    at,
                    what: "Read: the caution of the fire".into(),
                    value: String::new(),
                    planned: String::new(),
                }),
                Seen::Grown { times } => Some(LogLine {
                    at,
                    what: "Marked tub".into(),
                    value: format!("{times:.2} ×"),
                    planned: String::new(),
                }),
                Seen::PowerCut { until } => Some(LogLine {
                    at,
                    what: format!("No power until {}", day_hm(&here.local(*until))),
                    value: String::new(),
                    planned: String::new(),
                }),
                Seen::Cancelled | Seen::Closed { .. } | Seen::Reopened => Some(LogLine {
                    at,
                    what: match &o.seen {
                        Seen::Cancelled => "Cancelled",
                        Seen::Reopened => "Taken up again",
                        _ => "Closed",
                    }
                    .into(),
                    value: String::new(),
                    planned: String::new(),
                }),
                Seen::StepDone { .. }
                | Seen::StepUndone { .. }
                | Seen::StepSkipped { .. }
                | Seen::TakenBack { .. } => None,
            }
        })
        .collect()
}
