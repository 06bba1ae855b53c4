//! What Shape says: the answer line, the pieces, each box and how its balls open now.

use crate::batch::record::BatchRecord;
use crate::shared::format::{day_hm, hm, quarter};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{date, decimal, phrase, say};
use craft::shape::{DivideChoice, OutState, TrayStand};
use craft::sheet::ahead::{BoxLook, ShapeLook};
use craft::units::WeightUnit;
use jiff::Timestamp;

/// What a piece is called here.
#[derive(Clone, Copy)]
pub struct PieceWords {
    pub one: &'static str,
    pub many: &'static str,
    pub place: &'static str,
}

pub fn piece_words(in_pans: bool) -> PieceWords {
    match in_pans {
        true => PieceWords {
            one: phrase("bake-tray"),
            many: phrase("shape-word-trays"),
            place: phrase("shape-word-tray"),
        },
        false => PieceWords {
            one: phrase("fire-ball"),
            many: phrase("shape-word-balls"),
            place: phrase("shape-word-box"),
        },
    }
}

/// A weight as this kitchen's scale shows it.
pub fn on_scale(g: f64, here: &RequestKitchen) -> String {
    here.measures.weighed(g)
}

/// The same for a field: as plain as the scale resolves it.
pub fn in_field(g: f64, here: &RequestKitchen) -> String {
    let m = here.measures;
    match m.weight {
        WeightUnit::Grams => m.weight_field(g.round()),
        _ => m.weight_field(g),
    }
}

/// A moment: with its day where that is not today.
pub fn when(t: Timestamp, here: &RequestKitchen) -> String {
    let (at, now) = (here.local(t), here.local(here.now));
    match at.date() == now.date() {
        true => hm(&at),
        false => day_hm(&at),
    }
}

/// "Box 1", "Boxes 2, 3", "All boxes".
pub fn which(numbers: &[u16], all: usize) -> String {
    let each: Vec<String> = numbers.iter().map(u16::to_string).collect();
    match numbers.len() {
        1 => say!("shape-box", each = each[0]),
        n if n == all => phrase("shape-all-boxes").into(),
        _ => say!("shape-boxes-2", join = each.join(", ")),
    }
}

/// The answer line in three parts, the middle one is what is due.
pub fn head(told: &BatchRecord, look: &ShapeLook, made: u32, here: &RequestKitchen) -> [String; 3] {
    let w = piece_words(look.boxed.is_none());
    let said = |a: String, b: String, c: String| [a, b, c];
    if told.is_ended() {
        return said(
            ["", &say!("shape-divided-into", count = look.count), " "].concat(),
            w.many.into(),
            ".".into(),
        );
    }
    let ball = on_scale(look.ball_g, here);
    if made == 0 && look.divided.is_none() && here.now < look.pieces_from {
        let at = when(look.pieces_from, here);
        return said(
            [
                "",
                &say!("shape-of-3", count = look.count, many = w.many, ball = ball),
                " ",
            ]
            .concat(),
            say!("shape-at", at = at),
            ".".into(),
        );
    }
    if made < look.count && (made > 0 || here.now < look.boxes[0].use_at) && !is_over(told, look) {
        let wanted = look
            .wanted_g
            .get(made as usize)
            .copied()
            .unwrap_or(look.ball_g);
        let into = look.laid.box_of(made).map_or(1, |i| i + 1);
        return said(
            format!("{} {}: ", w.one, made + 1),
            on_scale(wanted, here),
            say!("shape-then-into", place = w.place, into = into),
        );
    }
    match look.rounds().first() {
        Some(r) => said(
            [
                "",
                &say!(
                    "shape-out-of-the-cold-2",
                    in_order = which(&r.numbers, look.in_order().len())
                ),
                " ",
            ]
            .concat(),
            match r.at <= here.now {
                true => phrase("shape-word-now").into(),
                false => say!("shape-at", at = when(r.at, here)),
            },
            ".".into(),
        ),
        _ => {
            let first = look.boxes.iter().find(|b| b.order == Some(1));
            let b = first.unwrap_or(&look.boxes[0]);
            said(
                [
                    "",
                    &say!("shape-open-first", place = w.place, number = b.number),
                    " ",
                ]
                .concat(),
                say!("shape-from", now = when(b.use_at.max(here.now), here)),
                ".".into(),
            )
        }
    }
}

/// Whether the pieces are made though nobody counted them.
pub fn is_over(told: &BatchRecord, look: &ShapeLook) -> bool {
    use craft::sheet::StepKind;
    let steps = &told.batch.sheet.result.steps;
    let done = steps
        .iter()
        .zip(&told.progress.steps)
        .any(|(s, t)| matches!(s.kind, StepKind::Ball | StepKind::Pan) && t.done.is_some());
    done || told.baked() >= look.count
}

/// What leaving the cold one after the other gives.
pub fn rounds_why(look: &ShapeLook) -> String {
    let used: Vec<&BoxLook> = look.boxes.iter().filter(|b| b.order.is_some()).collect();
    if look.boxed.is_none() || used.len() < 2 {
        return String::new();
    }
    let out: Vec<&&BoxLook> = used.iter().filter(|b| b.out.is_some()).collect();
    if out.is_empty() {
        return phrase("shape-all-boxes-are-out-of").into();
    }
    if !look.worth_it {
        return phrase("shape-one-walk-is-enough-the").into();
    }
    let last = used.iter().max_by_key(|b| b.order).map_or(1, |b| b.number);
    let late = out
        .iter()
        .any(|b| b.out.is_some_and(|o| o.state != OutState::Ok));
    let meets = match late {
        true => phrase("shape-each-box-leaves-the-cold"),
        false => phrase("shape-each-box-meets-its-first"),
    };
    match look.rise_last_at_once {
        Some(r) => say!(
            "shape-all-out-at-once-as",
            meets = meets,
            last = last,
            r = decimal(100.0 * r, 0)
        ),
        None => format!("{meets}."),
    }
}

/// What is proposed on the scale, as a button.
pub fn choice_words(choice: DivideChoice) -> &'static str {
    match choice {
        DivideChoice::Spread => phrase("shape-spread-over-all"),
        DivideChoice::OneSmaller => phrase("shape-keep-the-weight-one-smaller"),
        DivideChoice::SpreadFewer => phrase("shape-fewer-with-all-of-it"),
        DivideChoice::KeepAndBread => phrase("shape-keep-the-weight-the-rest"),
        DivideChoice::OneMore => phrase("shape-one-more"),
        DivideChoice::OneSmallerMore => phrase("shape-one-more-a-smaller-one"),
    }
}

/// Why a box is used in its turn.
pub fn rank_why(b: &BoxLook, here: &RequestKitchen) -> String {
    let Some(n) = b.order else {
        return match b.frozen_at {
            Some(t) => say!("shape-frozen-since", t = when(t, here)),
            None => phrase("shape-used-up").into(),
        };
    };
    let nth = match n {
        1 => phrase("shape-used-first").to_string(),
        2 => phrase("shape-used-second").to_string(),
        3 => phrase("shape-used-third").to_string(),
        n => say!("shape-used-as-number", n = n),
    };
    match b.closes_at {
        // To the quarter, as windows are said everywhere.
        Some(t) => say!(
            "shape-closes",
            nth = nth,
            timestamp = when(quarter(&here.local(t)).timestamp(), here)
        ),
        None => nth,
    }
}

/// What is due when all pieces are made: the large figure, what it is of, and what to press.
pub struct ShapeDue {
    pub figure: String,
    pub of: String,
    pub word: String,
    pub value: String,
    pub unit: &'static str,
    /// Boxes that leave the cold together: "1,2".
    pub out: Option<String>,
    pub button: String,
}

/// The tray that is gone on with next: its rest ends first.
fn tray_due(told: &BatchRecord, here: &RequestKitchen) -> Option<ShapeDue> {
    let resting = told.shape.boxes.iter().filter_map(|(number, b)| {
        let (from, _) = TrayStand::of(&b.tray).rests?;
        Some((from, number))
    });
    let (from, number) = resting.min()?;
    let (late, value) = minutes_to(from, here.now);
    Some(ShapeDue {
        figure: hm(&here.local(from)),
        of: say!("shape-tray-has-rested-stretch-it", number = number),
        word: if late {
            phrase("shape-word-since")
        } else {
            phrase("shape-word-in")
        }
        .into(),
        value: value.to_string(),
        unit: "min",
        out: None,
        button: String::new(),
    })
}

/// Whether a moment is past, and the minutes to it or since.
fn minutes_to(t: Timestamp, now: Timestamp) -> (bool, i64) {
    let wait = t.duration_since(now);
    (wait.is_negative(), (wait.as_secs().abs() + 30) / 60)
}

/// The next boxes that leave the cold, or how the first box stands; of trays the one whose rest ends.
pub fn due(told: &BatchRecord, look: &ShapeLook, here: &RequestKitchen) -> Option<ShapeDue> {
    if look.boxed.is_none() {
        return tray_due(told, here);
    }
    let order = look.in_order();
    let first = order.first()?;
    if let Some(r) = look.rounds().first() {
        let which = which(&r.numbers, order.len());
        let at = here.local(r.at);
        let (late, minutes) = minutes_to(r.at, here.now);
        let (value, unit) = match minutes {
            m if m >= 600 => (((m + 30) / 60).to_string(), "h"),
            m => (m.to_string(), "min"),
        };
        let each: Vec<String> = r.numbers.iter().map(u16::to_string).collect();
        return Some(ShapeDue {
            figure: hm(&at),
            of: say!(
                "shape-out-of-the-cold-3",
                which = which,
                when = match at.date() == here.local(here.now).date() {
                    true => String::new(),
                    false => format!(", {}", date(&at, "%A")),
                }
            ),
            word: if late {
                phrase("shape-late-by")
            } else {
                phrase("shape-word-in")
            }
            .into(),
            value,
            unit,
            out: Some(each.join(",")),
            button: match r.numbers.len() {
                1 => say!("shape-is-out", which = which),
                _ => say!("shape-are-out", which = which),
            },
        });
    }
    Some(ShapeDue {
        figure: format!("{:.0}", 100.0 * first.now.rise),
        of: say!("shape-rise-of-box-now-100", number = first.number),
        word: say!("shape-at-2", use_at = when(first.use_at, here)),
        value: format!("{:.0}", 100.0 * first.at_use.rise),
        unit: "",
        out: None,
        button: String::new(),
    })
}
