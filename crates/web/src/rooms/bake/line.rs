//! The bake line (In, turns, Out at their seconds) and the oven from above.

use crate::shared::chart::{Hold, Svg};
use crate::shared::format::{min_s as clock, named};
use crate::shared::tongue::{phrase, say};
use craft::fire::programme::{Cue, Programme};
use std::fmt::Write;

/// The route of one bake. The script moves `[data-needle]` and marks `[data-stop]` as passed.
pub fn bake_line(p: &Programme, width: f64) -> String {
    let narrow = width < 500.0;
    let (left, right) = (if narrow { 18.0 } else { 30.0 }, width - 10.0);
    let end = f64::from(p.chars_s) * 1.16;
    let x = |s: u32| left + (right - left) * f64::from(s) / end;
    let mut say = String::new();
    for t in &p.turns {
        let _ = write!(
            say,
            "{} ",
            say!(
                "bake-at",
                word = label(t.say, 0, p, false),
                at_s = min_s(t.at_s)
            )
        );
    }
    let mut svg = Svg::new(
        width,
        108.0,
        "bake-line",
        &say!(
            "bake-out-at-burns-from",
            value = say,
            out_s = min_s(p.out_s),
            chars_s = min_s(p.chars_s)
        ),
    );
    svg.rect(
        x(p.chars_s),
        29.0,
        right - x(p.chars_s),
        30.0,
        r##"fill="url(#h-char)" stroke="var(--char)""##,
    );
    svg.text(
        (x(p.chars_s) + right) / 2.0,
        22.0,
        "tx",
        Hold::Middle,
        phrase("bake-chars"),
    );
    svg.rect(
        x(p.from_s),
        29.0,
        x(p.to_s) - x(p.from_s),
        30.0,
        r#"class="f-larch" opacity=".45""#,
    );
    svg.path(
        &format!("M{left:.1} 44H{:.1}", x(p.chars_s)),
        r#"stroke="var(--rule-strong)" stroke-width="3" stroke-dasharray="7 6""#,
    );
    svg.raw(&format!(
        r#"<path data-track data-left="{left:.1}" data-scale="{:.4}" d="M{left:.1} 44H{left:.1}" stroke="var(--larch)" stroke-width="6"/>"#,
        (right - left) / end
    ));
    let first = phrase("bake-in");
    // A long word begins at the edge, or the picture would cut it.
    let hold = match span(left, Hold::Middle, first).0 < 0.0 {
        true => Hold::Start,
        false => Hold::Middle,
    };
    let mut shown_to = stop(&mut svg, left, "in", first, Some(0), hold);
    let mut stops: Vec<(u32, String, String)> = p
        .turns
        .iter()
        .enumerate()
        .map(|(i, t)| (t.at_s, format!("turn-{i}"), label(t.say, i, p, narrow)))
        .collect();
    stops.push((p.out_s, "out".into(), phrase("bake-out").into()));
    for (i, (s, key, words)) in stops.iter().enumerate() {
        // The label of a close stop leans to the right; where even that runs into the one before, or into Out, the word
        // alone stays.
        let is_out = i + 1 == stops.len();
        let free = |hold: &Hold| {
            let (from, to) = span(x(*s), *hold, &min_s(*s));
            from > shown_to + 3.0 && (is_out || to + 3.0 < x(p.out_s) - 9.0)
        };
        let hold = [Hold::Middle, Hold::Start].into_iter().find(free);
        let time = (hold.is_some() || is_out).then_some(*s);
        let ends = stop(
            &mut svg,
            x(*s),
            key,
            words,
            time,
            hold.unwrap_or(Hold::Start),
        );
        shown_to = ends.max(shown_to);
    }
    svg.raw(&format!(r#"<g data-needle transform="translate({left:.1} 0)"><path d="M0 18V62" stroke="var(--ink)" stroke-width="3.5"/><path d="M-9 8h18l-9 13z" fill="var(--ink)"/></g>"#));
    svg.end()
}

/// Whole seconds as "1:18".
fn min_s(s: u32) -> String {
    clock(f64::from(s))
}

/// The word under a stop; a narrow line says "Turn" once and then only counts.
fn label(cue: Cue, i: usize, p: &Programme, narrow: bool) -> String {
    match cue {
        Cue::QuarterTurn if narrow && i > 0 => format!("{}", i + 1),
        Cue::QuarterTurn => say!("bake-turn", i = i + 1),
        Cue::HalfTurn if p.turns.len() == 1 || i == 0 => phrase("bake-turn-2").into(),
        Cue::HalfTurn => say!("bake-turn", i = i + 1),
        other => named(&other.short()),
    }
}

/// Where a time under a stop begins and ends, px.
fn span(x: f64, hold: Hold, time: &str) -> (f64, f64) {
    let wide = 9.6 * time.len() as f64;
    match hold {
        Hold::End => (x + 9.0 - wide, x + 9.0),
        Hold::Start => (x - 9.0, x - 9.0 + wide),
        Hold::Middle => (x - wide / 2.0, x + wide / 2.0),
    }
}

/// Draws a stop with its word and its time, where that has room; returns where the time ends.
fn stop(svg: &mut Svg, x: f64, key: &str, words: &str, seconds: Option<u32>, hold: Hold) -> f64 {
    svg.raw(&format!(r#"<g data-stop="{key}" class="bake-stop">"#));
    svg.rect(
        x - 9.0,
        35.0,
        18.0,
        18.0,
        r#"class="box" stroke-width="2.6""#,
    );
    svg.path(
        &format!("M{:.1} 44l4 4 6 -8", x - 5.0),
        r#"class="tick" stroke="var(--on-larch)" stroke-width="2.5" fill="none""#,
    );
    let tx = match hold {
        Hold::End => x + 9.0,
        Hold::Start => x - 9.0,
        Hold::Middle => x,
    };
    svg.text(tx, 79.0, "stop-word", hold, words);
    let mut end = f64::NEG_INFINITY;
    if let Some(s) = seconds {
        svg.text(tx, 101.0, "b stop-time", hold, &min_s(s));
        end = span(x, hold, &min_s(s)).1;
    }
    svg.raw("</g>");
    end
}

/// The oven from above. Quarter turns: the fire at the left, four numbered sides. Else: the hot back.
pub fn oven_plan(p: &Programme) -> String {
    let quarters = p.turns.first().is_some_and(|t| t.say == Cue::QuarterTurn);
    if quarters { dome() } else { chamber() }
}

fn side(x: f64, y: f64, key: &str, number: u32) -> String {
    format!(
        r#"<text data-side="{key}" x="{x}" y="{y}" text-anchor="middle" class="side">{number}</text>"#
    )
}

fn dome() -> String {
    let arc = |d: &str, key: &str, class: &str| {
        format!(
            r#"<path data-arc="{key}" class="arc {class}" d="{d}" fill="none" stroke-width="15"/>"#
        )
    };
    let mut svg = Svg::new(
        300.0,
        300.0,
        "oven-plan",
        phrase("bake-the-pizza-from-above-side"),
    );
    svg.path(
        "M20 286V150A130 130 0 0 1 280 150V286",
        r#"fill="var(--inset)" stroke="var(--rule-strong)" stroke-width="3""#,
    );
    svg.path("M96 286H204", r#"stroke="var(--ground)" stroke-width="6""#);
    svg.text(
        150.0,
        296.0,
        "tx ink2",
        Hold::Middle,
        phrase("bake-word-mouth"),
    );
    svg.path(
        "M40 214C26 160 44 104 84 68C70 104 66 124 68 148C70 174 60 196 40 214z",
        r##"fill="url(#h-late)" stroke="var(--ember)" stroke-width="2""##,
    );
    svg.text(
        48.0,
        246.0,
        "tx b c-ember f",
        Hold::Middle,
        phrase("bake-word-fire"),
    );
    svg.raw(r#"<circle cx="172" cy="160" r="82" fill="var(--rise-wash)" stroke="var(--ink)" stroke-width="3"/><circle cx="172" cy="160" r="62" fill="none" stroke="var(--rise)" stroke-width="1.6" stroke-dasharray="3 4"/>"#);
    svg.raw(&arc("M121.3 107.5A73 73 0 0 1 222.7 107.5", "top", ""));
    svg.raw(&arc("M224.5 109.3A73 73 0 0 1 224.5 210.7", "right", ""));
    svg.raw(&arc("M222.7 212.5A73 73 0 0 1 121.3 212.5", "bottom", ""));
    svg.raw(&arc(
        "M119.5 210.7A73 73 0 0 1 119.5 109.3",
        "left",
        "at-fire",
    ));
    svg.raw(&side(130.0, 166.0, "left", 1));
    svg.raw(&side(172.0, 214.0, "bottom", 2));
    svg.raw(&side(214.0, 166.0, "right", 3));
    svg.raw(&side(172.0, 120.0, "top", 4));
    svg.path(
        "M128 250A102 102 0 0 1 82 208",
        r#"fill="none" stroke="var(--larch)" stroke-width="4.5""#,
    );
    svg.path("M76 222l4 -18 14 11z", r#"class="f-larch""#);
    svg.end()
}

fn chamber() -> String {
    let mut svg = Svg::new(
        300.0,
        300.0,
        "oven-plan",
        phrase("bake-the-oven-from-above-side"),
    );
    svg.path(
        "M24 20H276V280H24z",
        r#"fill="var(--inset)" stroke="var(--rule-strong)" stroke-width="3""#,
    );
    svg.path(
        "M44 44H256M44 58H256",
        r#"stroke="var(--ember)" stroke-width="5" stroke-dasharray="14 6""#,
    );
    svg.text(
        150.0,
        82.0,
        "tx b c-ember f",
        Hold::Middle,
        phrase("bake-hot-back"),
    );
    svg.path(
        "M70 98H230V258H70z",
        r#"fill="var(--rise-wash)" stroke="var(--ink)" stroke-width="3""#,
    );
    svg.raw(&side(150.0, 136.0, "left", 1));
    svg.raw(&side(150.0, 240.0, "right", 2));
    svg.path(
        "M252 230A90 90 0 0 0 252 130",
        r#"fill="none" stroke="var(--larch)" stroke-width="4.5""#,
    );
    svg.path("M244 138l8 -18 12 16z", r#"class="f-larch""#);
    svg.text(
        150.0,
        275.0,
        "tx ink2",
        Hold::Middle,
        phrase("bake-word-door"),
    );
    svg.end()
}

#[cfg(test)]
mod tests {
    use super::*;
    use craft::fire::Turn;

    /// Where the times under the stops begin and end.
    fn spans(svg: &str) -> Vec<(f64, f64)> {
        svg.split("<text ")
            .filter(|p| p.contains("stop-time"))
            .map(|p| {
                let x: f64 = p
                    .split("x=\"")
                    .nth(1)
                    .unwrap()
                    .split('"')
                    .next()
                    .unwrap()
                    .parse()
                    .unwrap();
                let text = p.split('>').nth(1).unwrap().split('<').next().unwrap();
                let wide = 9.6 * text.len() as f64;
                match p {
                    p if p.contains("\"start\"") => (x, x + wide),
                    p if p.contains("\"end\"") => (x - wide, x),
                    _ => (x - wide / 2.0, x + wide / 2.0),
                }
            })
            .collect()
    }

    #[test]
    fn no_time_on_the_line_runs_into_the_next() {
        for at in [
            [36, 50, 65],
            [28, 46, 62],
            [40, 50, 60],
            [10, 12, 14],
            [30, 55, 70],
        ] {
            let p = Programme {
                turns: at
                    .map(|at_s| Turn {
                        at_s,
                        say: Cue::QuarterTurn,
                    })
                    .into(),
                out_s: 76,
                from_s: 71,
                to_s: 87,
                chars_s: 88,
                why: craft::fact::Fact::nothing(),
            };
            for width in [796.0, 342.0] {
                let svg = bake_line(&p, width);
                let spans = spans(&svg);
                assert!(spans.len() >= 3, "in, a turn and out have theirs");
                assert!(
                    spans.windows(2).all(|w| w[0].1 < w[1].0),
                    "{at:?} at {width}: {spans:?}"
                );
                assert!(svg.contains(">1:16</text>"), "out is always said");
            }
        }
    }
}
