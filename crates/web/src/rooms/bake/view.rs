//! What the Bake page shows, already formatted.

use super::line::{bake_line, oven_plan};
use crate::batch::opened::OpenedView;
use crate::batch::record::BatchRecord;
use crate::shared::format::{count_word, hm, min_s};
use crate::shared::format::{named, word};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::marks;
use crate::shared::tongue::{decimal, phrase, say};
use craft::fire::caution::{self, Caution};
use craft::fire::programme::{Cue, Turn};
use craft::fire::race::spread_s;
use craft::fire::{Pizza, RaceItem, Shade};
use craft::keyed::Keyed;
use craft::note::Note;
use craft::rise::ripeness::PEAK;
use craft::sheet::SheetResult;
use craft::sheet::ahead::{NextBall, ShapeLook};
use jiff::{SignedDuration, Timestamp};
use serde::Serialize;
use speech::Judgement;
use std::sync::Arc;
use store::entry::Seen;
use uuid::Uuid;

/// The run as the page's script needs it.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct RunState {
    pub pieces: u32,
    pub spots: u32,
    pub inside: Vec<Inside>,
    pub next_number: u32,
    pub last: Option<LastOut>,
    pub out: u32,
    pub right: u32,
    pub judged: u32,
    pub pace: Option<String>,
    /// Closed: it takes verdicts and nothing else.
    pub closed: bool,
    /// Out and not judged yet, the latest first.
    pub unjudged: Vec<u32>,
    /// How often something was entered about the batch: another page of it looks again when this has moved.
    pub revision: u64,
    pub refused: Option<String>,
}

#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct Inside {
    pub number: u32,
    pub spot: u32,
    pub in_ms: i64,
    /// When it was last put in or turned.
    pub acted_ms: i64,
    pub turned: usize,
}

#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct LastOut {
    pub number: u32,
    pub baked_s: f64,
    pub out_ms: i64,
    pub verdict: Option<String>,
}

/// The run with the server's clock as it is sent.
#[derive(Serialize)]
pub struct Timed<'a> {
    now_ms: i64,
    #[serde(flatten)]
    run: &'a RunState,
}

impl<'a> Timed<'a> {
    pub fn of(run: &'a RunState, now: jiff::Timestamp) -> Timed<'a> {
        Timed {
            now_ms: now.as_millisecond(),
            run,
        }
    }
}

impl RunState {
    /// Whether the last piece has gone in.
    fn all_in(&self) -> bool {
        self.next_number > self.pieces
    }
    pub fn of(told: &BatchRecord, refused: Option<String>) -> RunState {
        let s = told.run.summary();
        RunState {
            pieces: told.pieces(),
            spots: told.spots(),
            inside: told
                .run
                .inside()
                .map(|p| Inside {
                    number: p.number,
                    spot: p.spot,
                    in_ms: p.in_at.as_millisecond(),
                    acted_ms: p.last_act().as_millisecond(),
                    turned: p.turned_at.len(),
                })
                .collect(),
            next_number: told.run.next_number(),
            last: told.run.last_out().map(last),
            out: s.out,
            right: s.right,
            judged: s.judged,
            pace: s.pace_s.map(min_s),
            closed: told.is_ended(),
            unjudged: told.run.unjudged(),
            revision: told.batch.revision,
            refused,
        }
    }
}

fn last(p: &Pizza) -> LastOut {
    LastOut {
        number: p.number,
        baked_s: p.baked_s().unwrap_or(0.0),
        out_ms: p.out_at.map_or(0, |t| t.as_millisecond()),
        verdict: p
            .verdict
            .map(|v| format!("{}/{}", v.base.key(), v.top.key())),
    }
}

/// A cell of the verdict square.
pub struct VerdictCell {
    pub value: String,
    pub words: String,
    pub svg: String,
    pub key: &'static str,
    pub middle: bool,
    pub chosen: bool,
}

/// A ball that goes in next, as it will be then.
pub struct Ball {
    pub rise: String,
    pub at: String,
    pub gauge_y: String,
    pub first: bool,
    /// "box 2"; nothing where the boxes are not told apart.
    pub lies_in: String,
}

/// A part of the race with its second, and how long its bar is, %.
pub struct Bar {
    pub name: &'static str,
    pub ready_s: u32,
    pub width: String,
    pub says: String,
}

/// A place in the oven.
pub struct OvenSpot {
    pub spot: u32,
    pub number: Option<u32>,
    pub turned_key: String,
    pub out_key: String,
}

/// A pizza that nobody took out.
pub struct Forgotten {
    pub number: u32,
    pub says: String,
    pub out_at: String,
    pub out_key: String,
    pub never_key: String,
}

/// What the plan alone says of a bake: drawn once.
pub struct BakePlan {
    /// The programme as the page's script needs it.
    pub json: String,
    /// The bake line, wide and narrow.
    pub line: (String, String),
    pub oven: String,
    pub why: String,
    pub bars: Vec<Bar>,
    pub spread: String,
    /// Whether it is grave, what it is of, and what to do.
    pub cautions: Vec<(bool, String, String)>,
    pub manual: String,
}

impl BakePlan {
    pub fn of(told: &BatchRecord, here: &RequestKitchen) -> BakePlan {
        let p = &told.batch.sheet.result.programme;
        BakePlan {
            json: programme_json(told),
            line: (bake_line(p, 796.0), bake_line(p, 342.0)),
            oven: oven_plan(p),
            why: here.say(&p.why),
            bars: bars(told),
            spread: spread(told),
            cautions: cautions(told)
                .into_iter()
                .map(|c| (c.grave, here.say(&c.head), here.say(&c.say)))
                .collect(),
            manual: here.say(&craft::fire::caution::manual()),
        }
    }
}

/// What can hurt somebody at this oven.
fn cautions(told: &BatchRecord) -> Vec<Caution> {
    let request = &told.batch.sheet.request;
    match request.fire.as_deref() {
        Some(f) => caution::cautions(&f.plan.oven, f.plan.pan.is_some(), f.plan.setting.grill),
        // Nobody said which oven: all that can be grave is said.
        None => caution::cautions(
            craft::fire::oven::for_style(&request.formula.style),
            request.formula.in_pans(),
            false,
        ),
    }
}

pub struct BakeView {
    pub code: String,
    /// The batch's own number.
    pub batch: u64,
    /// How it opened, one tap each.
    pub opened: Option<OpenedView>,
    pub closed: bool,
    pub finish_key: String,
    pub name: String,
    pub piece: &'static str,
    pub trays: bool,
    pub state_json: String,
    pub plan: Arc<BakePlan>,
    pub timer: String,
    pub place: String,
    pub cue: String,
    pub cells: Vec<VerdictCell>,
    pub last_head: String,
    pub last_small: String,
    pub left: u32,
    pub balls: Vec<Ball>,
    /// The balls come out of boxes that are told apart.
    pub by_box: bool,
    pub reserve: Option<String>,
    pub lanes: Vec<OvenSpot>,
    pub forgotten: Vec<Forgotten>,
    pub count: String,
    pub notes: Vec<Judgement>,
    pub in_key: String,
    pub turned_key: String,
    pub out_key: String,
    pub verdict_key: String,
    pub reading_key: String,
    pub caution_key: String,
    pub degree_unit: &'static str,
    pub floor: String,
    pub pizza_in: Option<u32>,
    pub last_number: Option<u32>,
    /// What is grave was not acknowledged yet.
    pub ask_caution: bool,
    pub offer_night: bool,
}

/// Notes that need no oven model: what a page shows at once.
pub fn quick_notes(told: &BatchRecord, goes: &SheetResult, here: &RequestKitchen) -> Vec<Note> {
    // A closed run has nothing to come.
    if told.is_ended() {
        return vec![];
    }
    let Some(w) = goes.window else {
        return vec![];
    };
    let ready = craft::fire::judge::Ready {
        from_at: w.from_at,
        to_at: w.to_at,
    };
    let pieces = told.pieces();
    craft::fire::judge::service(&told.run, pieces, ready, here.now)
}

/// All notes of the bake; runs the oven model.
pub fn notes(told: &BatchRecord, goes: &SheetResult, here: &RequestKitchen) -> Vec<Note> {
    let mut all = quick_notes(told, goes, here);
    if let Some(fire) = told.batch.sheet.request.fire.as_deref() {
        let floors = if told.is_ended() {
            vec![]
        } else {
            told.floor_reads()
        };
        let seen = craft::fire::judge::OvenSeen {
            floors: &floors,
            lit_at: told.lit_at(),
            room_c: told.batch.sheet.request.room_c,
        };
        all.extend(craft::fire::judge::at_oven(
            fire, &told.run, &seen, here.now,
        ));
    }
    craft::note::by_urgency(all)
}

impl BakeView {
    pub fn of(
        told: &BatchRecord,
        goes: &SheetResult,
        boxes: Option<&ShapeLook>,
        here: &RequestKitchen,
        plan: Arc<BakePlan>,
    ) -> BakeView {
        let sheet = &told.batch.sheet;
        let state = RunState::of(told, None);
        let elapsed = told
            .run
            .current()
            .map(|c| here.now.duration_since(c.in_at).as_secs_f64());
        let key = || Uuid::new_v4().to_string();
        let trays = sheet.request.formula.in_pans();
        let piece = if trays {
            phrase("bake-tray")
        } else {
            phrase("bake-pizza")
        };
        let cautioned = told.seen().any(|o| matches!(o.seen, Seen::Cautioned));
        let hour = here.local(here.now).hour();
        BakeView {
            code: told.batch.code.clone(),
            batch: told.batch.id.0,
            opened: OpenedView::of(told, here, format!("/batches/{}/bake", told.batch.code)),
            closed: state.closed,
            finish_key: key(),
            name: told.batch.name.clone(),
            piece,
            trays,
            state_json: serde_json::to_string(&Timed::of(&state, here.now)).unwrap_or_default(),
            timer: min_s(elapsed.unwrap_or(0.0)),
            place: match told.run.current() {
                Some(c) => say!(
                    "bake-of-in-at",
                    piece = piece,
                    number = c.number,
                    pieces = state.pieces,
                    when = here.local(c.in_at).strftime("%H:%M:%S")
                ),
                None if state.closed => say!("bake-of-out", out = state.out, pieces = state.pieces),
                None if state.all_in() => {
                    say!("bake-of-is-out", piece = piece, pieces = state.pieces)
                }
                None => say!(
                    "bake-of-is-next",
                    piece = piece,
                    next_number = state.next_number,
                    pieces = state.pieces
                ),
            },
            cue: if state.closed {
                phrase("bake-this-run-is-closed")
            } else if state.all_in() && told.run.current().is_none() {
                phrase("bake-all-are-baked-close-into")
            } else {
                phrase("bake-tap-in-when-it-goes")
            }
            .into(),
            cells: cells(told.run.last_out()),
            last_head: told
                .run
                .last_out()
                .map_or(phrase("bake-no-verdict-yet").into(), |l| {
                    format!("{piece} {}", l.number)
                }),
            last_small: told
                .run
                .last_out()
                .and_then(Pizza::baked_s)
                .map_or(phrase("bake-what-you-see-is-asked").into(), |s| {
                    say!("bake-out-at-what-do-you", s = min_s(s))
                }),
            left: told.pieces_left(),
            by_box: boxes.is_some_and(|l| l.boxed.is_some()),
            balls: balls(told, goes, boxes, here),
            reserve: goes
                .clocks_at(here.now)
                .map(|c| format!("{:.0}", c.reserve.max(0.0))),
            lanes: (0..told.spots())
                .map(|spot| OvenSpot {
                    spot,
                    number: told.run.inside().find(|p| p.spot == spot).map(|p| p.number),
                    turned_key: key(),
                    out_key: key(),
                })
                .collect(),
            forgotten: forgotten(told, here),
            count: count(&state),
            notes: here.judgements(&quick_notes(told, goes, here)),
            in_key: key(),
            turned_key: key(),
            out_key: key(),
            verdict_key: key(),
            reading_key: key(),
            caution_key: key(),
            degree_unit: here.measures.degree_unit(),
            floor: told.reading(craft::reading::Subject::Floor).map_or(
                phrase("bake-not-read-yet").into(),
                |(at, c)| {
                    say!(
                        "bake-at-2",
                        c = here.measures.degrees(c, 0),
                        degree_unit = here.measures.degree_unit(),
                        at = hm(&here.local(at))
                    )
                },
            ),
            pizza_in: told.run.current().map(|c| c.number),
            last_number: told.run.last_out().map(|l| l.number),
            ask_caution: plan.cautions.iter().any(|c| c.0) && !cautioned,
            plan,
            offer_night: !(6..20).contains(&hour),
        }
    }
}

/// So many balls are shown ahead.
const BALLS: u32 = 5;

/// The next balls with the rise clock each will have when its turn comes at this pace: from their boxes, the ripest first, where
/// they were divided box by box.
pub fn balls(
    told: &BatchRecord,
    goes: &SheetResult,
    boxes: Option<&ShapeLook>,
    here: &RequestKitchen,
) -> Vec<Ball> {
    if told.is_ended() {
        return vec![];
    }
    let pace = told.pace_s(here);
    let ball = |i: usize, at: Timestamp, rise: f64, lies_in: String| Ball {
        rise: format!("{rise:.0}"),
        at: hm(&here.local(at)),
        gauge_y: format!(
            "{:.1}",
            58.0 - 52.0 * rise.clamp(0.0, 100.0 * PEAK) / (100.0 * PEAK)
        ),
        first: i == 0,
        lies_in,
    };
    let most = told.pieces_left().min(BALLS);
    if let Some(look) = boxes.filter(|l| l.boxed.is_some()) {
        let next = look.next_balls(most as usize, pace).into_iter().enumerate();
        let of = |b: NextBall| say!("bake-box", number = b.number);
        return next
            .map(|(i, b)| ball(i, b.at, 100.0 * b.rise, of(b)))
            .collect();
    }
    (0..most)
        .filter_map(|i| {
            let at = here.now + SignedDuration::from_secs_f64(pace * f64::from(i));
            let rise = goes.clocks_at(at)?.rise;
            Some(ball(i as usize, at, rise, String::new()))
        })
        .collect()
}

fn bars(told: &BatchRecord) -> Vec<Bar> {
    let Some(fire) = told.batch.sheet.request.fire.as_deref() else {
        return vec![];
    };
    // A cheese that goes on late is what is waited for; one that was on from the start melts long before.
    let goes_on_late = |t: &Turn| t.say == Cue::CheeseOn;
    let cheese = fire.programme.turns.iter().any(goes_on_late);
    let cheese = cheese.then_some((RaceItem::Cheese, phrase("bake-cheese")));
    let named: Vec<(RaceItem, &str)> = cheese
        .into_iter()
        .chain([
            (RaceItem::Topping, phrase("form-topping")),
            (RaceItem::Rim, phrase("bake-rim")),
            (RaceItem::Crumb, phrase("bake-crumb")),
            (RaceItem::Base, phrase("bake-base")),
        ])
        .collect();
    let ready = |item| {
        fire.lanes
            .iter()
            .find(|l| l.item == item)
            .and_then(|l| l.ready_s)
    };
    let last = named.iter().filter_map(|n| ready(n.0)).fold(1.0, f64::max);
    named
        .into_iter()
        .filter_map(|(item, name)| {
            let s = ready(item)?;
            Some(Bar {
                name,
                ready_s: s.round() as u32,
                width: format!("{:.1}", 100.0 * s / last),
                says: if last >= 180.0 {
                    min_s(s)
                } else {
                    format!("{s:.0}")
                },
            })
        })
        .collect()
}

fn spread(told: &BatchRecord) -> String {
    let fire = told.batch.sheet.request.fire.as_deref();
    let Some(apart) = fire.and_then(|f| spread_s(&f.lanes)) else {
        return String::new();
    };
    match apart {
        s if s <= 4.0 => phrase("bake-dead-heat").into(),
        s if s <= 8.0 => say!("bake-spread-s-near-level", s = decimal(s, 0)),
        s if s < 180.0 => say!("bake-spread-s", s = decimal(s, 0)),
        s => say!("bake-spread", s = min_s(s)),
    }
}

fn forgotten(told: &BatchRecord, here: &RequestKitchen) -> Vec<Forgotten> {
    let p = &told.batch.sheet.result.programme;
    told.run
        .forgotten(p.chars_s, here.now)
        .into_iter()
        .map(|x| Forgotten {
            number: x.number,
            says: crate::shared::format::day_hm(&here.local(x.in_at)),
            out_at: (x.in_at + SignedDuration::from_secs(i64::from(p.out_s))).to_string(),
            out_key: Uuid::new_v4().to_string(),
            never_key: Uuid::new_v4().to_string(),
        })
        .collect()
}

fn programme_json(told: &BatchRecord) -> String {
    let p = &told.batch.sheet.result.programme;
    let turns: Vec<_> = p
        .turns
        .iter()
        .map(|t| {
            serde_json::json!({
                "at_s": t.at_s,
                "quarter": t.say == Cue::QuarterTurn,
                "turn": matches!(t.say, Cue::QuarterTurn | Cue::HalfTurn),
                "short": named(&t.say.short()),
                "words": word(&t.say.words()),
            })
        })
        .collect();
    serde_json::json!({"turns": turns, "out_s": p.out_s, "from_s": p.from_s, "to_s": p.to_s, "chars_s": p.chars_s}).to_string()
}

fn count(s: &RunState) -> String {
    let judged = if s.judged > 0 {
        say!("bake-of-right-2", right = s.right, judged = s.judged)
    } else {
        String::new()
    };
    let pace = s
        .pace
        .as_ref()
        .map_or(String::new(), |p| say!("bake-one-every-2", p = p));
    say!(
        "bake-out-2",
        out = count_word(s.out),
        judged = judged,
        pace = pace
    )
}

/// Rows from dark to pale tops, columns from pale to dark bases, with their keys.
fn cells(last: Option<&Pizza>) -> Vec<VerdictCell> {
    const KEYS: [[&str; 3]; 3] = [["q", "w", "e"], ["a", "s", "d"], ["z", "x", "c"]];
    let given = last.and_then(|p| p.verdict);
    let tops = [Shade::Dark, Shade::Right, Shade::Pale];
    let mut out = Vec::new();
    for (row, top) in tops.into_iter().enumerate() {
        for (column, base) in Shade::ALL.iter().copied().enumerate() {
            let v = craft::fire::Verdict { base, top };
            out.push(VerdictCell {
                value: format!("{}/{}", base.key(), top.key()),
                words: word(&v.fact()),
                svg: marks::section(base, top),
                key: KEYS[row][column],
                middle: v == craft::fire::Verdict::RIGHT,
                chosen: given == Some(v),
            });
        }
    }
    out
}
