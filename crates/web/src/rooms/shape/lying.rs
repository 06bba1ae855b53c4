//! One box as Shape shows it: what lies in it, when it leaves the cold and is used, how it stands.

use super::asked::warm;
use super::picture::{self, BoxHours, PiecePin};
use super::words::{piece_words, rank_why, when};
use crate::batch::record::BatchRecord;
use crate::shared::format::hm;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{date, decimal, phrase, say};
use craft::fact::Value;
use craft::keyed::Keyed;
use craft::shape::{TrayStand, TrayWork};
use craft::sheet::ahead::{BoxLook, ShapeLook};
use jiff::{SignedDuration, Timestamp};

pub struct BoxView {
    pub number: u16,
    pub head: String,
    pub state: String,
    pub here: bool,
    pub chosen: bool,
    pub tally: String,
    pub picture: String,
    /// "back, middle": where the next one goes.
    pub spot: String,
    pub out_word: String,
    pub out_time: String,
    pub use_time: String,
    pub rise: String,
    pub rank: String,
    pub hours: String,
    pub is_cold: bool,
    /// It should go back into the cold, and come out again then.
    pub back: Option<String>,
    pub is_frozen: bool,
    pub stacked: bool,
    pub place: String,
    /// Something lies in it.
    pub holds: bool,
    /// The dough of a tray on its way to the corners.
    pub tray: Option<TrayView>,
}

/// How a dough goes on in its tray.
pub struct TrayView {
    pub says: String,
    /// What can be done next: the key, the word, and whether it is the one to do.
    pub acts: Vec<(&'static str, &'static str, bool)>,
}

fn tray(b: &BoxLook, look: &ShapeLook, with: &DrawnWith) -> Option<TrayView> {
    let here = with.here;
    let oil_g = look.oil_g.get(usize::from(b.number) - 1)?;
    let told = with.told.shape.boxes.get(&b.number);
    let stand = TrayStand::of(told.map_or(&[][..], |t| &t.tray));
    let oil = match stand.oiled {
        true => phrase("shape-oiled").to_string(),
        false => {
            let oil = here.reader().said(&Value::Grams(oil_g.round())).full;
            say!("shape-oil-about-floor-and-wall", oil = oil)
        }
    };
    let further = match (stand.corners_at, stand.rests, stand.stretched) {
        (Some(t), ..) => say!("shape-in-its-corners-since", t = when(t, here)),
        (_, Some((from, to)), _) if from > here.now => say!(
            "shape-rests-under-its-lid-go",
            from = when(from, here),
            to = when(to, here)
        ),
        (_, Some((from, _)), _) => {
            say!("shape-rested-since-its-stretch-go", from = when(from, here))
        }
        _ => String::new(),
    };
    let mut acts = vec![];
    if stand.corners_at.is_none() {
        if !stand.oiled {
            acts.push((TrayWork::Oiled.key(), phrase("pantry-oiled"), true));
        }
        acts.push((
            TrayWork::Stretched.key(),
            phrase("shape-as-far-as-it-goes"),
            stand.oiled && stand.stretched == 0,
        ));
        acts.push((
            TrayWork::Corners.key(),
            phrase("shape-in-its-corners"),
            stand.stretched > 0,
        ));
    }
    Some(TrayView {
        says: format!("{oil} {further}").trim().to_string(),
        acts,
    })
}

/// What the boxes are drawn with.
pub struct DrawnWith<'a> {
    pub made: u32,
    pub over: bool,
    /// The box that is pressed.
    pub number: u16,
    pub mark_g: f64,
    pub here: &'a RequestKitchen,
    pub told: &'a BatchRecord,
}

pub fn one_box(b: &BoxLook, look: &ShapeLook, pins: &[PiecePin], with: &DrawnWith) -> BoxView {
    let (made, over, number) = (with.made, with.over, with.number);
    let (here, told) = (with.here, with.told);
    let from = (b.first - 1) as usize;
    let own = &pins[from..(from + b.balls as usize).min(pins.len())];
    let in_it = own.iter().filter(|p| p.made).count() as u32;
    let state = match (b.frozen_at, in_it) {
        (Some(t), _) => say!("shape-frozen", t = when(t, here)),
        (None, 0) => phrase("shape-word-empty").to_string(),
        (None, n) if n == b.balls => phrase("shape-word-full").to_string(),
        (None, n) => say!("shape-of-2", n = n, balls = b.balls),
    };
    let here_now = !over && own.iter().any(|p| p.next);
    let word = piece_words(look.boxed.is_none());
    let head = format!("{} {}", named_place(word.place), b.number);
    let picture = look.boxed.as_ref().map(|(kind, grid)| {
        let says = say!("shape-from-above", head = head, state = state);
        picture::box_from_above(kind, grid, own, &says)
    });
    let spot = match &look.boxed {
        Some((kind, grid)) if here_now => {
            let i = (made as usize).saturating_sub(from);
            spot_words(picture::place_of(i, grid, kind.round))
        }
        _ => String::new(),
    };
    let place = here.say(&b.place.name());
    let (out_word, out_time) = out_words(b, here);
    let (first, last) = span(look);
    let pace = SignedDuration::from_secs_f64(told.pace_s(here) * f64::from(b.left.max(1)));
    BoxView {
        number: b.number,
        head,
        state,
        here: here_now,
        chosen: b.number == number,
        tally: picture::tally(own, with.mark_g, &here.measures),
        picture: picture.unwrap_or_default(),
        spot,
        out_word,
        out_time,
        use_time: hm(&here.local(b.use_at)),
        rise: match b.order {
            Some(_) => say!(
                "shape-rise-now-at",
                rise = decimal(100.0 * b.now.rise, 0),
                rise2 = decimal(100.0 * b.at_use.rise, 0),
                use_at = hm(&here.local(b.use_at))
            ),
            None => String::new(),
        },
        rank: rank_why(b, here),
        hours: match b.order {
            Some(_) => picture::hours(
                &BoxHours {
                    from: first,
                    to: last,
                    // A box that is never cold itself comes from a dough that is, as far as it is made.
                    out_at: b
                        .out
                        .map(|o| o.at)
                        .or((b.is_cold && b.cold.is_none()).then_some(b.balled_at)),
                    is_cold: b.is_cold,
                    use_at: b.use_at,
                    used_up_at: b.use_at + pace,
                    now: here.now,
                    place: &here.words(&warm(told).name()),
                },
                &here.zone,
            ),
            None => String::new(),
        },
        is_cold: b.is_cold,
        back: b.back.map(|o| hm(&here.local(o.at))),
        is_frozen: b.frozen_at.is_some(),
        stacked: b.stacked,
        place,
        holds: in_it > 0,
        tray: tray(b, look, with),
    }
}

fn named_place(word: &str) -> String {
    let mut letters = word.chars();
    letters.next().map_or(String::new(), |c| {
        c.to_uppercase().collect::<String>() + letters.as_str()
    })
}

/// "back, middle".
fn spot_words((column, row, columns, rows): (usize, usize, usize, usize)) -> String {
    let deep = match (row, rows) {
        (_, 1) => String::new(),
        (0, _) => [phrase("shape-back"), ", "].concat(),
        (r, n) if r + 1 == n => [phrase("shape-front"), ", "].concat(),
        (r, _) => ["", &say!("shape-row", r = r + 1), " "].concat(),
    };
    let across = match (column, columns) {
        (_, 1) => phrase("shape-middle").to_string(),
        (0, _) => phrase("shape-at-left").to_string(),
        (c, n) if c + 1 == n => phrase("shape-at-right").to_string(),
        (1, 3) => phrase("shape-middle").to_string(),
        (c, _) => say!("shape-number-from-the-left", c = c + 1),
    };
    format!("{deep}{across}")
}

fn out_words(b: &BoxLook, here: &RequestKitchen) -> (String, String) {
    if b.order.is_none() {
        return (String::new(), String::new());
    }
    match b.out {
        Some(o) if o.at <= here.now => (
            phrase("shape-out-of-the-cold").into(),
            phrase("shape-word-now").into(),
        ),
        Some(o) => {
            let at = here.local(o.at);
            let today = at.date() == here.local(here.now).date();
            let word = match today {
                true => phrase("shape-out-at").to_string(),
                false => say!("shape-out-3", when = date(&at, "%a")),
            };
            (word, hm(&at))
        }
        None => (phrase("shape-lies-in").into(), here.words(&b.place.name())),
    }
}

/// The hours that all boxes are drawn over.
fn span(look: &ShapeLook) -> (Timestamp, Timestamp) {
    let used = || look.boxes.iter().filter(|b| b.order.is_some());
    let outs = used().filter_map(|b| b.out.map(|o| o.at));
    let first_use = used()
        .map(|b| b.use_at)
        .min()
        .unwrap_or(look.boxes[0].use_at);
    let last_use = used().map(|b| b.use_at).max().unwrap_or(first_use);
    let from = outs
        .min()
        .unwrap_or(first_use - SignedDuration::from_hours(3));
    (
        from.min(first_use) - SignedDuration::from_mins(45),
        last_use + SignedDuration::from_mins(60),
    )
}
