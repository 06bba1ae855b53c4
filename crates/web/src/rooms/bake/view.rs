//! What the Bake page shows, already formatted.

use super::line::{bake_line, oven_plan};
use crate::shared::format::{count_word, hm, min_s};
use crate::shared::kitchen::Here;
use crate::shared::marks;
use crate::shared::progress::Told;
use craft::fire::programme::Cue;
use craft::fire::{Pizza, Shade};
use craft::note::Note;
use serde::Serialize;
use uuid::Uuid;

/// The run as the page's script needs it.
#[derive(Serialize)]
pub struct RunState {
    pub now_ms: i64,
    pub pieces: u32,
    pub current: Option<Current>,
    pub next_number: u32,
    pub last: Option<Last>,
    pub out: u32,
    pub right: u32,
    pub judged: u32,
    pub pace: Option<String>,
    pub refused: Option<String>,
}

#[derive(Serialize)]
pub struct Current {
    pub number: u32,
    pub in_ms: i64,
    pub turned: usize,
}

#[derive(Serialize)]
pub struct Last {
    pub number: u32,
    pub baked_s: f64,
    pub out_ms: i64,
    pub verdict: Option<String>,
}

impl RunState {
    pub fn of(told: &Told, here: &Here, refused: Option<String>) -> RunState {
        let s = told.run.summary();
        RunState {
            now_ms: here.now.as_millisecond(),
            pieces: told.batch.sheet.result.formula.pieces,
            current: told.run.current().map(|p| Current {
                number: p.number,
                in_ms: p.in_at.as_millisecond(),
                turned: p.turned_at.len(),
            }),
            next_number: told.run.next_number(),
            last: told.run.last_out().map(last),
            out: s.out,
            right: s.right,
            judged: s.judged,
            pace: s.pace_s.map(min_s),
            refused,
        }
    }
}

fn last(p: &Pizza) -> Last {
    Last {
        number: p.number,
        baked_s: p.baked_s().unwrap_or(0.0),
        out_ms: p.out_at.map_or(0, |t| t.as_millisecond()),
        verdict: p
            .verdict
            .map(|v| format!("{}/{}", v.base.key(), v.top.key())),
    }
}

/// A cell of the verdict square.
pub struct Cell {
    pub value: String,
    pub words: String,
    pub svg: String,
    pub key: &'static str,
    pub middle: bool,
    pub chosen: bool,
}

pub struct View {
    pub code: String,
    pub name: String,
    pub piece: &'static str,
    pub state_json: String,
    pub programme_json: String,
    pub timer: String,
    pub place: String,
    pub cue: String,
    pub line: String,
    pub line_narrow: String,
    pub plan: String,
    pub why: String,
    pub cells: Vec<Cell>,
    pub last_head: String,
    pub last_small: String,
    pub left: u32,
    pub rise: Option<String>,
    pub reserve: Option<String>,
    pub gauge_y: f64,
    pub count: String,
    pub notes: Vec<Note>,
    pub in_key: String,
    pub turned_key: String,
    pub out_key: String,
    pub verdict_key: String,
    pub reading_key: String,
    pub degree_unit: &'static str,
    pub floor: String,
    pub pizza_in: Option<u32>,
    pub last_number: Option<u32>,
}

impl View {
    pub fn of(told: &Told, here: &Here) -> View {
        let p = &told.batch.sheet.result.programme;
        let state = RunState::of(told, here, None);
        let clocks = told.batch.sheet.result.clocks_at(here.now);
        let elapsed = told
            .run
            .current()
            .map(|c| here.now.duration_since(c.in_at).as_secs_f64());
        let key = || Uuid::new_v4().to_string();
        let trays = told.batch.sheet.request.formula.in_pans();
        let piece = if trays { "Tray" } else { "Pizza" };
        let rise = clocks.map(|c| c.rise);
        View {
            code: told.batch.code.clone(),
            name: told.batch.name.clone(),
            piece,
            state_json: serde_json::to_string(&state).unwrap_or_default(),
            programme_json: programme_json(told),
            timer: min_s(elapsed.unwrap_or(0.0)),
            place: match told.run.current() {
                Some(c) => format!(
                    "{piece} {} of {}, in at {}",
                    c.number,
                    state.pieces,
                    here.local(c.in_at).strftime("%H:%M:%S")
                ),
                None => format!("{piece} {} of {} is next", state.next_number, state.pieces),
            },
            cue: "Tap In when it goes in.".into(),
            line: bake_line(p, 796.0),
            line_narrow: bake_line(p, 342.0),
            plan: oven_plan(p),
            why: p.why.clone(),
            cells: cells(told.run.last_out()),
            last_head: told
                .run
                .last_out()
                .map_or("No verdict yet".into(), |l| format!("{piece} {}", l.number)),
            last_small: told
                .run
                .last_out()
                .and_then(Pizza::baked_s)
                .map_or("what you see is asked after Out".into(), |s| {
                    format!("out at {}. What do you see?", min_s(s))
                }),
            left: told.pieces_left(),
            rise: rise.map(|r| format!("{r:.0}")),
            reserve: clocks.map(|c| format!("{:.0}", c.reserve.max(0.0))),
            gauge_y: 58.0 - 52.0 * rise.unwrap_or(0.0).clamp(0.0, 115.0) / 115.0,
            count: count(&state),
            notes: craft::fire::judge::service(
                &told.run,
                &told.batch.sheet.result,
                here.now,
                &here.zone,
            ),
            in_key: key(),
            turned_key: key(),
            out_key: key(),
            verdict_key: key(),
            reading_key: key(),
            degree_unit: here.measures.degree_unit(),
            floor: told.reading(craft::reading::Subject::Floor).map_or(
                "not read yet".into(),
                |(at, c)| {
                    format!(
                        "{}{} at {}",
                        here.measures.degrees(c, 0),
                        here.measures.degree_unit(),
                        hm(&here.local(at))
                    )
                },
            ),
            pizza_in: told.run.current().map(|c| c.number),
            last_number: told.run.last_out().map(|l| l.number),
        }
    }
}

fn programme_json(told: &Told) -> String {
    let p = &told.batch.sheet.result.programme;
    let turns: Vec<_> = p
        .turns
        .iter()
        .map(|t| serde_json::json!({"at_s": t.at_s, "quarter": t.say == Cue::QuarterTurn, "words": t.say.words()}))
        .collect();
    serde_json::json!({"turns": turns, "out_s": p.out_s, "from_s": p.from_s, "to_s": p.to_s, "chars_s": p.chars_s}).to_string()
}

fn count(s: &RunState) -> String {
    let judged = if s.judged > 0 {
        format!(", {} of {} right", s.right, s.judged)
    } else {
        String::new()
    };
    let pace = s
        .pace
        .as_ref()
        .map_or(String::new(), |p| format!(", one every {p}"));
    format!("{} out{judged}{pace}", count_word(s.out))
}

/// Rows from dark to pale tops, columns from pale to dark bases, with their keys.
fn cells(last: Option<&Pizza>) -> Vec<Cell> {
    const KEYS: [[&str; 3]; 3] = [["q", "w", "e"], ["a", "s", "d"], ["z", "x", "c"]];
    let given = last.and_then(|p| p.verdict);
    let tops = [Shade::Dark, Shade::Right, Shade::Pale];
    let mut out = Vec::new();
    for (row, top) in tops.into_iter().enumerate() {
        for (column, base) in Shade::ALL.into_iter().enumerate() {
            let v = craft::fire::Verdict { base, top };
            out.push(Cell {
                value: format!("{}/{}", base.key(), top.key()),
                words: v.words(),
                svg: marks::section(base, top),
                key: KEYS[row][column],
                middle: v == craft::fire::Verdict::RIGHT,
                chosen: given == Some(v),
            });
        }
    }
    out
}
