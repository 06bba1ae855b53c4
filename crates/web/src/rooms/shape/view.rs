//! What Shape shows of one dough, already worded.

use super::asked::warm;
use super::learned::{self, FlourTaught};
use super::lying::{BoxView, DrawnWith, one_box};
use super::opening::{PressView, length, press};
use super::options::{DivideOption, choices};
use super::picture::PiecePin;
use super::words::{self, ShapeDue, in_field, on_scale, piece_words, rounds_why, when};
use crate::batch::opened::OpenedView;
use crate::batch::record::BatchRecord;
use crate::shared::format::{hm, named};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::tongue::{decimal, phrase, say};
use craft::shape::{Loss, is_marked, mark_g};
use craft::sheet::ahead::{BoxLook, ShapeLook};
use craft::units::WeightUnit;
use serde::Serialize;
use speech::Judgement;
use uuid::Uuid;

/// So many boxes are drawn; those around the hands come first.
const MOST_DRAWN: usize = 24;
/// So many pieces ahead the script knows what they are to weigh.
const AHEAD: usize = 12;

/// What the script of the page needs.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct ShapeState {
    pub revision: u64,
    pub now_ms: i64,
    pub made: u32,
    pub count: u32,
    /// What the next pieces are to weigh, g, and where they go.
    pub wanted: Vec<f64>,
    pub into: Vec<String>,
    /// Keys of the last pieces, the latest last.
    pub keys: Vec<String>,
    pub piece: &'static str,
    pub mark_g: f64,
    pub number: u16,
    /// What the kitchen weighs in, how many grams that is, and the digits it is said with.
    pub unit: &'static str,
    pub unit_g: f64,
    pub digits: usize,
}

pub struct ShapeTapLine {
    pub key: String,
    pub at: String,
    pub says: String,
}

pub struct ShapeView {
    pub code: String,
    pub batch: u64,
    /// How it opened, one tap each.
    pub opened: Option<OpenedView>,
    pub head: [String; 3],
    pub sub: [String; 2],
    pub state: ShapeState,
    pub closed: bool,
    pub in_pans: bool,
    pub piece: &'static str,
    pub piece_lower: String,
    pub place: &'static str,
    pub many: &'static str,
    pub over: bool,
    pub wanted: String,
    pub unit: &'static str,
    pub within: String,
    pub into: String,
    pub last_key: Option<String>,
    pub whole: Option<String>,
    pub whole_expected: String,
    pub whole_typed: String,
    pub whole_error: Option<String>,
    pub piece_typed: String,
    pub piece_error: Option<String>,
    pub other_error: Option<String>,
    pub choices: Vec<DivideOption>,
    pub count: u32,
    pub count_typed: String,
    pub ball_g: String,
    pub tally_line: [String; 2],
    pub why: String,
    pub due: Option<ShapeDue>,
    pub boxes: Vec<BoxView>,
    pub more_boxes: Option<String>,
    pub press: PressView,
    pub kinds: Vec<(String, String, bool)>,
    pub places: Vec<(String, String)>,
    pub warm: String,
    pub notes: Vec<Judgement>,
    pub cautions: Vec<String>,
    pub log: Vec<ShapeTapLine>,
    pub loss: String,
    pub loss_for_formula: Option<(String, String)>,
    pub flour: Option<FlourTaught>,
    pub keys: Vec<String>,
    pub labels: usize,
}

impl ShapeView {
    pub fn of(
        told: &BatchRecord,
        look: &ShapeLook,
        larder: &Larder,
        here: &RequestKitchen,
        loss: Loss,
        number: Option<u16>,
    ) -> ShapeView {
        let in_pans = look.boxed.is_none();
        let w = piece_words(in_pans);
        let run = &told.shape;
        let made = run.pieces.len() as u32;
        let over = words::is_over(told, look) || made >= look.count;
        let scale_g = larder.scales(here).kitchen_scale_g;
        let order = look.in_order();
        // The one that is used first of those that hold something.
        let first = order.iter().find(|b| b.made > 0).or(order.first());
        let number = number
            .filter(|n| *n > 0 && usize::from(*n) <= look.boxes.len())
            .or(first.map(|b| b.number))
            .unwrap_or(1);
        let pins = pins(look, run, scale_g, over);
        let keys: Vec<String> = told
            .seen()
            .filter(|o| is_piece(o))
            .map(|o| o.key.to_string())
            .collect();
        let ahead = made as usize..(made as usize + AHEAD).min(look.wanted_g.len());
        let into = |i: usize| look.laid.box_of(i as u32).map_or(1, |b| b + 1);
        let mark = mark_g(scale_g);
        let grid = DrawnWith {
            made,
            over,
            number,
            mark_g: mark,
            here,
            told,
        };
        let shown = drawn(look, made, number);
        let closed = told.is_ended();
        let of_box = |b: &BoxLook| one_box(b, look, &pins, &grid);
        let wanted = look.wanted_g.get(made as usize).copied();
        ShapeView {
            code: told.batch.code.clone(),
            batch: told.batch.id.0,
            opened: OpenedView::of(told, here, format!("/batches/{}/shape", told.batch.code)),
            head: words::head(told, look, made, here),
            sub: sub(told, look, run, here),
            state: ShapeState {
                revision: told.batch.revision,
                now_ms: here.now.as_millisecond(),
                made,
                count: look.count,
                wanted: ahead.clone().map(|i| look.wanted_g[i]).collect(),
                into: ahead.map(|i| format!("{} {}", w.place, into(i))).collect(),
                keys: keys.iter().rev().take(AHEAD).rev().cloned().collect(),
                piece: w.one,
                mark_g: mark,
                number,
                unit: here.measures.weight_unit(),
                unit_g: here.measures.weight.grams(),
                digits: digits(here),
            },
            closed,
            in_pans,
            piece: w.one,
            piece_lower: w.one.to_lowercase(),
            place: w.place,
            many: w.many,
            over,
            wanted: wanted.map_or(String::new(), |g| in_field(g, here)),
            unit: here.measures.weight_unit(),
            within: in_field(mark, here),
            into: format!("{} {}", w.place, into(made as usize)),
            last_key: keys.last().cloned(),
            whole: run.whole_g.map(|g| on_scale(g, here)),
            whole_expected: on_scale(look.whole_g, here),
            whole_typed: String::new(),
            whole_error: None,
            piece_typed: String::new(),
            piece_error: None,
            other_error: None,
            choices: choices(look, run.divided.is_some(), made, here),
            count: look.count,
            count_typed: look.count.to_string(),
            ball_g: in_field(look.ball_g, here),
            tally_line: tally_line(look, made, here),
            why: rounds_why(look),
            due: words::due(told, look, here).filter(|_| over && !closed),
            boxes: shown.iter().map(|i| of_box(&look.boxes[*i])).collect(),
            more_boxes: (look.laid.balls.len() > shown.len()).then(|| {
                say!(
                    "shape-s-are-drawn-of-those",
                    shown = shown.len(),
                    place = w.place,
                    balls = look.laid.balls.len()
                )
            }),
            press: press(look, &look.boxes[usize::from(number) - 1], here, told),
            kinds: kinds(look, larder, here),
            places: places(larder),
            warm: named(&warm(told).name()),
            notes: here.judgements(&look.notes),
            cautions: look.hazards().iter().map(|h| here.say(h)).collect(),
            log: log(told, here),
            loss: loss_words(&loss, look.put_g),
            loss_for_formula: learned::loss(told, look, &loss),
            flour: learned::flour(told, look, larder),
            keys: (0..8).map(|_| Uuid::new_v4().to_string()).collect(),
            labels: look.laid.balls.len(),
        }
    }
    pub fn state_json(&self) -> String {
        serde_json::to_string(&self.state).unwrap_or_default()
    }
}

fn is_piece(o: &store::entry::Observation) -> bool {
    use craft::shape::run::ShapeAct;
    o.shape_tap()
        .is_some_and(|t| matches!(t.act, ShapeAct::Piece { .. }))
}

fn pins(
    look: &ShapeLook,
    run: &craft::shape::run::ShapeRun,
    scale_g: f64,
    over: bool,
) -> Vec<PiecePin> {
    let made = run.pieces.len();
    let each = look.wanted_g.iter().enumerate();
    each.map(|(i, wanted_g)| {
        let g = run.pieces.get(i).and_then(|p| p.g);
        PiecePin {
            number: i as u32 + 1,
            g,
            wanted_g: *wanted_g,
            made: i < made || (over && made == 0),
            marked: g.is_some_and(|g| is_marked(g, *wanted_g, scale_g)),
            next: !over && i == made,
        }
    })
    .collect()
}

/// The boxes that are drawn, in their order: all of a few, else those around the hands and the next to be used.
fn drawn(look: &ShapeLook, made: u32, number: u16) -> Vec<usize> {
    let n = look.boxes.len();
    if n <= MOST_DRAWN {
        return (0..n).collect();
    }
    let hands = look.laid.box_of(made).unwrap_or(0).min(n - 1);
    let mut all: Vec<usize> = vec![hands, usize::from(number) - 1];
    let mut by_use: Vec<usize> = (0..n).filter(|i| look.boxes[*i].order.is_some()).collect();
    by_use.sort_by_key(|i| look.boxes[*i].order);
    for i in by_use.into_iter().chain(0..n) {
        if all.len() >= MOST_DRAWN {
            break;
        }
        if !all.contains(&i) {
            all.push(i);
        }
    }
    all.sort_unstable();
    all.dedup();
    all
}

fn sub(
    told: &BatchRecord,
    look: &ShapeLook,
    run: &craft::shape::run::ShapeRun,
    here: &RequestKitchen,
) -> [String; 2] {
    let what = format!(
        "{}, {} × {}",
        told.batch.name,
        look.count,
        on_scale(look.ball_g, here)
    );
    match run.whole_g {
        Some(g) => {
            let stays = (look.put_g - g).max(0.0);
            let stays = say!(
                "shape-of-stay-on-bowl-and",
                stays = on_scale(stays, here),
                put_g = on_scale(look.put_g, here)
            );
            [
                say!("shape-weighed-3", what = what, g = on_scale(g, here)),
                stays,
            ]
        }
        None => [
            format!("{what}."),
            say!(
                "shape-first-used-one-each",
                use_at = when(look.boxes[0].use_at, here),
                pace_s = pace_words(told.pace_s(here))
            ),
        ],
    }
}

/// "90 s", "8 min".
fn pace_words(s: f64) -> String {
    match s {
        s if s < 120.0 => format!("{s:.0} s"),
        s => say!("shape-min", s = decimal(s / 60.0, 0)),
    }
}

fn tally_line(look: &ShapeLook, made: u32, here: &RequestKitchen) -> [String; 2] {
    let Some(t) = &look.tally else {
        return [
            say!("shape-made", made = made),
            say!("shape-to-come", made = look.count.saturating_sub(made)),
        ];
    };
    let off = match t.marked.len() {
        0 => phrase("shape-none-is-off").to_string(),
        1 => phrase("shape-one-is-off").to_string(),
        n => say!("shape-are-off", n = n),
    };
    let left = look.count.saturating_sub(made);
    let rest = match t.next_g.filter(|_| look.divided.is_some() && left > 0) {
        Some(g) if g < 1.0 => say!("shape-nothing-is-left-for-the", off = off, left = left),
        Some(g) => say!(
            "shape-the-left-come-to",
            off = off,
            left = left,
            g = on_scale(g, here)
        ),
        None => off,
    };
    let spread = decimal(t.sd_g / here.measures.weight.grams(), digits(here).max(1));
    let unit = here.measures.weight_unit();
    [
        say!(
            "shape-made-spread",
            made = made,
            spread = spread,
            unit = unit
        ),
        rest,
    ]
}

fn kinds(look: &ShapeLook, larder: &Larder, here: &RequestKitchen) -> Vec<(String, String, bool)> {
    let Some((chosen, _)) = &look.boxed else {
        return vec![];
    };
    let ball = look.ball;
    let own: Vec<(u64, craft::shape::run::BoxKind)> = match larder.0.boxes.is_empty() {
        true => vec![(0, larder.usual_box())],
        false => {
            let all = larder.0.boxes.iter();
            all.map(|b| (b.id, b.facts.kind(craft::shape::ROOMY_GAP_CM)))
                .collect()
        }
    };
    let mut out = vec![];
    for (id, kind) in own {
        for gap_cm in [7.0, 4.0, 2.0] {
            let kind = craft::shape::run::BoxKind {
                gap_cm,
                ..kind.clone()
            };
            let n = kind.space(ball).grid().grid;
            if n == 0 {
                continue;
            }
            let says = say!(
                "shape-each-apart",
                name = kind.name,
                n = n,
                gap_cm = length(gap_cm, here)
            );
            out.push((format!("{id}:{gap_cm}"), says, kind == *chosen));
        }
    }
    out
}

fn places(larder: &Larder) -> Vec<(String, String)> {
    let shipped = [
        ("room", phrase("form-room")),
        ("fridge", phrase("form-fridge")),
        ("freezer", phrase("pantry-freezer")),
    ];
    let own = larder.0.places.iter();
    shipped
        .into_iter()
        .map(|(k, n)| (k.to_string(), n.to_string()))
        .chain(own.map(|p| (format!("own:{}", p.id), p.facts.name.clone())))
        .collect()
}

fn log(told: &BatchRecord, here: &RequestKitchen) -> Vec<ShapeTapLine> {
    let own = told.seen().rev().filter_map(|o| {
        let tap = o.shape_tap()?;
        Some(ShapeTapLine {
            key: o.key.to_string(),
            at: hm(&here.local(o.at)),
            says: here.say(&tap.act.fact()),
        })
    });
    own.take(12).collect()
}

fn loss_words(loss: &Loss, put_g: f64) -> String {
    let of = loss.of_percent(put_g);
    match loss.doughs {
        0 => say!("shape-usually-of-such-a-dough", of = decimal(of, 1)),
        1 => say!("shape-of-such-a-dough-stays", of = decimal(of, 1)),
        n => say!("shape-of-such-a-dough-stays-2", of = decimal(of, 1), n = n),
    }
}

/// Digits after the point that a piece is said with.
fn digits(here: &RequestKitchen) -> usize {
    match here.measures.weight {
        WeightUnit::Grams => 0,
        WeightUnit::Ounces => 2,
        WeightUnit::Kilograms | WeightUnit::Pounds => 3,
    }
}
