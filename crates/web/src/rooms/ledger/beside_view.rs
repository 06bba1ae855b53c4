//! Bakes side by side, formatted: a column for each, a row for each thing that was seen, joined by a line where it has an order.

use super::beside_photos::{BesidePhotos, photos};
use super::view::verdict_square;
use crate::batch::record::BatchRecord;
use crate::shared::chart::Svg;
use crate::shared::format::{count_word, day, min_s};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{decimal, phrase, say, shipped};
use craft::fact::Fact;
use craft::people::Right;
use craft::rise::ripeness::{PEAK, READY};
use craft::sheet::ClockPoint;
use craft::sheet::apart::{Apart, DoughsBeside};
use jiff::Timestamp;
use std::fmt::Write;

/// The head of a column.
pub struct BesideHead {
    pub code: String,
    pub name: String,
    pub day: String,
    /// What differs, as it is of this one; empty where it is not one thing.
    pub value: String,
}

/// A value in its column, at a height of nine.
pub struct BesideCell {
    pub text: String,
    pub under: String,
    pub level: usize,
}

/// A row of numbers, joined by a line.
pub struct BesideRow {
    pub name: String,
    pub how: String,
    pub line: String,
    pub cells: Vec<BesideCell>,
}

/// A row of drawings or texts.
pub struct BesideDrawn {
    pub name: String,
    pub how: String,
    pub cells: Vec<String>,
}

/// A line of what is alike, follows or stood otherwise.
pub struct BesideLine {
    pub what: String,
    pub values: String,
}

/// What is judged of the comparison.
pub struct BesideNote {
    pub watch: bool,
    pub head: String,
    pub why: String,
}

pub struct BesideView {
    pub head: String,
    pub core: String,
    pub line: String,
    /// The one thing, or how many differ.
    pub what: String,
    pub heads: Vec<BesideHead>,
    /// What differs beyond the one thing, a row each.
    pub chosen: Vec<BesideDrawn>,
    pub rows: Vec<BesideRow>,
    pub drawn: Vec<BesideDrawn>,
    pub photos: Vec<BesidePhotos>,
    pub said: Vec<Vec<String>>,
    pub alike: Vec<BesideLine>,
    pub follows: Vec<BesideLine>,
    pub stood: Vec<BesideLine>,
    pub notes: Vec<BesideNote>,
    /// Where a trial is made of them; nothing for whoever may not.
    pub trial: Option<String>,
}

impl BesideView {
    pub fn of(all: &[BatchRecord], a: &Apart, here: &RequestKitchen) -> BesideView {
        let one = a.the_one();
        let n = all.len() as u32;
        let (core, line, what) = match (one, a.chosen.len()) {
            (Some(one), _) => {
                let what = here.words(&one.what);
                (
                    say!("ledger-beside-one-difference", what = what.to_lowercase()),
                    phrase("ledger-beside-one-line").to_string(),
                    what,
                )
            }
            (None, 0) => (
                phrase("ledger-beside-no-difference").to_string(),
                phrase("ledger-beside-none-line").to_string(),
                phrase("ledger-beside-planned-alike").to_string(),
            ),
            (None, d) => (
                say!("ledger-beside-differences", word = count_word(d as u32)),
                phrase("ledger-beside-many-line").to_string(),
                say!("ledger-beside-things-differ", n = d),
            ),
        };
        let heads = all
            .iter()
            .enumerate()
            .map(|(i, t)| BesideHead {
                code: t.batch.code.clone(),
                name: t.batch.name.clone(),
                day: day(&here.local(t.batch.sheet.request.serve_at)),
                value: one.map_or(String::new(), |o| here.words(&o.values[i])),
            })
            .collect();
        let words = |b: &DoughsBeside| b.values.iter().map(|v| said(v, here)).collect::<Vec<_>>();
        let chosen = match one {
            Some(_) => vec![],
            None => a
                .chosen
                .iter()
                .map(|b| BesideDrawn {
                    name: here.words(&b.what),
                    how: String::new(),
                    cells: words(b),
                })
                .collect(),
        };
        let lines = |list: &[DoughsBeside], all_values: bool| {
            list.iter()
                .map(|b| {
                    let values = words(b);
                    BesideLine {
                        what: here.words(&b.what),
                        values: match all_values {
                            true => values.join(", "),
                            false => values.into_iter().next().unwrap_or_default(),
                        },
                    }
                })
                .collect::<Vec<_>>()
        };
        let codes: Vec<String> = all.iter().map(|t| format!("b={}", t.batch.code)).collect();
        BesideView {
            head: say!("ledger-beside-bakes", word = count_word(n)),
            core,
            line,
            what,
            heads,
            chosen,
            rows: rows(all, here),
            drawn: drawn(all, here),
            photos: photos(all, here),
            said: all
                .iter()
                .map(|t| {
                    let noticed = t.noticed().map(|(n, _)| here.words(&n.name()));
                    let remarks = t.remarks().map(|(_, r)| r.to_string());
                    noticed.chain(remarks).collect()
                })
                .collect(),
            alike: lines(&a.alike, false),
            follows: lines(&a.follows, true),
            stood: lines(&a.stood, true),
            notes: notes(a),
            trial: here
                .may(Right::Plan)
                .then(|| format!("/trials/new?{}", codes.join("&"))),
        }
    }
}

fn said(v: &Fact, here: &RequestKitchen) -> String {
    match v.is_nothing() {
        true => "–".into(),
        false => shipped(&here.words(v)),
    }
}

/// A row of numbers: each in its column, at its height between the least and the most.
/// What differs by less than `least` is drawn the flatter: a second more in the oven is no slope.
fn row(name: &str, how: String, least: f64, values: &[Option<(f64, String, String)>]) -> BesideRow {
    let all = values.iter().flatten().map(|(v, ..)| *v);
    let (low, high) = all.fold((f64::INFINITY, f64::NEG_INFINITY), |(l, h), v| {
        (l.min(v), h.max(v))
    });
    // Nine heights, the highest first; equal ones stand in the middle.
    let (middle, span) = (0.5 * (low + high), (high - low).max(least));
    let level = |v: f64| (4.0 + 8.0 * (middle - v) / span).round() as usize;
    let x = |i: usize| 100.0 * (i as f64 + 0.22) / values.len() as f64;
    let y = |l: usize| 22.0 + 56.0 * l as f64 / 8.0;
    let mut d = String::new();
    let mut dots = String::new();
    for (i, v) in values.iter().enumerate() {
        let Some((v, ..)) = v else { continue };
        let l = level(*v);
        let to = if d.is_empty() { 'M' } else { 'L' };
        let _ = write!(d, "{to}{:.2} {:.2}", x(i), y(l));
        let _ = write!(dots, "M{:.2} {:.2}h0", x(i), y(l));
    }
    let line = format!(
        r#"<svg class="join" viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden="true"><path class="j-line" d="{d}"/><path class="j-dot" d="{dots}"/><path class="j-in" d="{dots}"/></svg>"#
    );
    BesideRow {
        name: name.into(),
        how,
        line,
        cells: values
            .iter()
            .map(|v| match v {
                Some((v, text, under)) => BesideCell {
                    text: text.clone(),
                    under: under.clone(),
                    level: level(*v),
                },
                None => BesideCell {
                    text: "–".into(),
                    under: String::new(),
                    level: 4,
                },
            })
            .collect(),
    }
}

fn rows(all: &[BatchRecord], here: &RequestKitchen) -> Vec<BesideRow> {
    let m = here.measures;
    let plain = |v: f64| Some((v, decimal(v, 0), String::new()));
    let serve = |t: &BatchRecord| {
        let s = &t.batch.sheet.result;
        t.went().map_or((s.rise_at_serve, s.reserve_at_serve), |w| {
            (w.rise_at_serve, w.reserve_at_serve)
        })
    };
    let mut out = vec![
        row(
            phrase("ledger-beside-rise"),
            say!(
                "ledger-beside-ripe",
                low = decimal(100.0 * READY, 0),
                high = decimal(100.0 * PEAK, 0)
            ),
            20.0,
            &all.iter().map(|t| plain(serve(t).0)).collect::<Vec<_>>(),
        ),
        row(
            phrase("ledger-beside-strength"),
            phrase("ledger-beside-strength-how").into(),
            20.0,
            &all.iter().map(|t| plain(serve(t).1)).collect::<Vec<_>>(),
        ),
    ];
    let off: Vec<_> = all
        .iter()
        .map(|t| {
            let c = t.off_the_mixer(here.now)?;
            let planned = t.batch.sheet.request.formula.target_dough_c;
            let under = say!(
                "ledger-planned",
                out_s = format!("{}°", m.degrees(planned, 1))
            );
            Some((c, format!("{}°", m.degrees(c, 1)), under))
        })
        .collect();
    let baked: Vec<_> = all
        .iter()
        .map(|t| {
            let s = t.run.summary().mean_s?;
            let planned = f64::from(t.batch.sheet.result.programme.out_s);
            Some((s, min_s(s), say!("ledger-planned", out_s = min_s(planned))))
        })
        .collect();
    let longest = baked.iter().flatten().map(|(s, ..)| *s).fold(0.0, f64::max);
    for (name, how, least, values) in [
        (
            phrase("ledger-dough-off-the-mixer"),
            String::from(here.measures.degree_unit()),
            2.0,
            off,
        ),
        (
            phrase("ledger-in-the-oven"),
            phrase("ledger-beside-mean").to_string(),
            // A tenth of the time.
            0.1 * longest,
            baked,
        ),
    ] {
        if values.iter().any(Option::is_some) {
            out.push(row(name, how, least, &values));
        }
    }
    out
}

fn drawn(all: &[BatchRecord], here: &RequestKitchen) -> Vec<BesideDrawn> {
    let mut out = vec![BesideDrawn {
        name: phrase("ledger-beside-curves").into(),
        how: phrase("ledger-beside-curves-how").into(),
        cells: all.iter().map(|t| curves(t, here)).collect(),
    }];
    let stood: Vec<String> = all
        .iter()
        .map(|t| {
            t.stood()
                .map_or("–".into(), |(_, is)| here.words(&is.name()))
        })
        .collect();
    if stood.iter().any(|s| s != "–") {
        out.push(BesideDrawn {
            name: phrase("ledger-beside-opened").into(),
            how: String::new(),
            cells: stood,
        });
    }
    if all.iter().any(|t| t.run.summary().judged > 0) {
        out.push(BesideDrawn {
            name: phrase("ledger-verdicts").into(),
            how: phrase("ledger-up-top-darker-right-base").into(),
            cells: all
                .iter()
                .map(|t| verdict_square(&t.run.summary()))
                .collect(),
        });
    }
    out
}

const W: f64 = 220.0;
const H: f64 = 92.0;
/// The top of the picture, % of ripe.
const TOP: f64 = 160.0;

/// The rise as it was planned, dashed, and as it went, over the hours from the mixer to an hour past the serve time.
fn curves(t: &BatchRecord, here: &RequestKitchen) -> String {
    let sheet = &t.batch.sheet.result;
    let serve = t.batch.sheet.request.serve_at;
    let hours =
        |from: Timestamp| (serve.duration_since(from).as_secs_f64() / 3600.0 + 1.0).max(1.0);
    let went = t.went();
    let long = hours(sheet.mixed_at).max(went.map_or(0.0, |w| hours(w.mixed_at)));
    // Both end at the serve time: a dough that was mixed late begins later.
    let path = |clocks: &[ClockPoint], mixed: Timestamp| {
        let begin = long - hours(mixed);
        let mut d = String::new();
        for p in clocks {
            let x = W * (begin + p.hours) / long;
            if x > W {
                break;
            }
            let y = H - 14.0 - (H - 20.0) * p.rise.min(TOP) / TOP;
            let to = if d.is_empty() { 'M' } else { 'L' };
            let _ = write!(d, "{to}{x:.1} {y:.1}");
        }
        d
    };
    let at_serve = |rise: f64| decimal(rise, 0);
    let planned = at_serve(sheet.rise_at_serve);
    let real = went.map_or_else(|| planned.clone(), |w| at_serve(w.rise_at_serve));
    let label = say!(
        "ledger-beside-curve-says",
        planned = planned,
        went = real,
        at = crate::shared::format::day_hm(&here.local(serve))
    );
    let mut svg = Svg::new(W, H, "curve", &label);
    let y = |rise: f64| H - 14.0 - (H - 20.0) * rise / TOP;
    svg.rect(
        0.0,
        y(100.0 * PEAK),
        W,
        y(100.0 * READY) - y(100.0 * PEAK),
        r#"class="f-larch" opacity=".4""#,
    );
    svg.path(&format!("M0 {:.1}H{W}", H - 14.0), r#"class="l-axis""#);
    let x = W * (long - 1.0) / long;
    svg.path(
        &format!("M{x:.1} 4V{:.1}", H - 14.0),
        r#"class="s-ink" stroke-width="1.5""#,
    );
    svg.path(&path(&sheet.clocks, sheet.mixed_at), r#"class="c-planned""#);
    if let Some(w) = went {
        svg.path(&path(&w.clocks, w.mixed_at), r#"class="l-rise""#);
    }
    svg.end()
}

fn notes(a: &Apart) -> Vec<BesideNote> {
    let mut out = vec![];
    if a.chosen.len() > 1 {
        out.push(BesideNote {
            watch: true,
            head: phrase("ledger-beside-note-many").into(),
            why: phrase("ledger-beside-note-many-why").into(),
        });
    }
    if !a.stood.is_empty() {
        out.push(BesideNote {
            watch: true,
            head: phrase("ledger-beside-note-stood").into(),
            why: phrase("ledger-beside-note-stood-why").into(),
        });
    }
    if a.the_one().is_some() {
        out.push(BesideNote {
            watch: false,
            head: phrase("ledger-beside-note-trial").into(),
            why: phrase("ledger-beside-note-trial-why").into(),
        });
    }
    out
}
