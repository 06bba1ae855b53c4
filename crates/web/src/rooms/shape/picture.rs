//! What Shape draws: the tally over its box, the box from above, its hours, and a ball against its disc.

use crate::shared::chart::{Hold, HourLine, Svg};
use crate::shared::format::Measures;
use crate::shared::tongue::{phrase, say};
use craft::shape::BoxGrid;
use craft::shape::run::BoxKind;
use craft::units::WeightUnit;
use jiff::Timestamp;
use jiff::tz::TimeZone;

/// A piece in the tally and in its box.
pub struct PiecePin {
    /// Its number, from 1.
    pub number: u32,
    pub g: Option<f64>,
    pub wanted_g: f64,
    pub made: bool,
    pub marked: bool,
    /// It comes next.
    pub next: bool,
}

const WIDE: f64 = 284.0;
/// The middle of the tally, and a gram's length, px.
const MIDDLE_Y: f64 = 42.0;
const PX_PER_G: f64 = 5.2;
const MOST_PX: f64 = 32.0;

/// A piece as the scale shows it: whole grams, or the kitchen's own unit.
fn shown(g: f64, m: &Measures) -> String {
    match m.weight {
        WeightUnit::Grams => format!("{g:.0}"),
        _ => m.weight_field(g),
    }
}

fn signed(g: f64, m: &Measures) -> String {
    let sign = if g < 0.0 { "−" } else { "+" };
    format!("{sign}{}", shown(g.abs(), m))
}

/// Pieces as sticks from the wanted weight: what is marked has a square and its number.
pub fn tally(pieces: &[PiecePin], mark_g: f64, m: &Measures) -> String {
    let slot = WIDE / pieces.len().max(1) as f64;
    let off = pieces.iter().filter(|p| p.marked).count();
    let made = pieces.iter().filter(|p| p.made).count();
    let label = say!(
        "shape-of-pieces-made-off-by",
        made = made,
        pieces = pieces.len(),
        off = off,
        mark_g = m.weighed(mark_g)
    );
    let mut svg = Svg::new(WIDE, 104.0, "tally", &label);
    let band = (mark_g * PX_PER_G).min(MOST_PX);
    svg.rect(
        0.0,
        MIDDLE_Y - band,
        WIDE,
        2.0 * band,
        r#"class="f-larch" opacity=".4""#,
    );
    svg.path(
        &format!("M0 {MIDDLE_Y}H{WIDE}"),
        r#"class="s-ink" stroke-width="1.4""#,
    );
    for (i, p) in pieces.iter().enumerate() {
        let x = slot * (i as f64 + 0.5);
        if p.next {
            svg.rect(x - slot / 2.0, 4.0, slot, 94.0, r#"class="f-larch""#);
            svg.path(
                &format!("M{:.1} {MIDDLE_Y}h{slot:.1}", x - slot / 2.0),
                r#"class="s-ink" stroke-width="1.4""#,
            );
        }
        stick(&mut svg, p, x, i + 1 == pieces.len(), m);
        if slot >= 30.0 || p.next {
            let words = match (p.made, p.g) {
                (true, Some(g)) => shown(g, m),
                _ => p.number.to_string(),
            };
            let class = match (p.marked, p.next, p.made) {
                (true, ..) => "tk b c-ember f",
                (_, true, _) => "b on-larch",
                (_, _, true) => "tk b",
                _ => "tk",
            };
            svg.text(x, 92.0, class, Hold::Middle, &words);
        }
    }
    svg.path(
        &format!("M1 99v4H{:.1}v-4", WIDE - 1.0),
        r#"class="s-ink" fill="none" stroke-width="1.4""#,
    );
    svg.end()
}

fn stick(svg: &mut Svg, p: &PiecePin, x: f64, last: bool, m: &Measures) {
    let Some(g) = p.g.filter(|_| p.made) else {
        if p.made && !p.next {
            svg.raw(&format!(
                r#"<circle cx="{x:.1}" cy="{MIDDLE_Y}" r="3" class="f-ink"/>"#
            ));
        }
        return;
    };
    let by = g - p.wanted_g;
    let y = MIDDLE_Y - (by * PX_PER_G).clamp(-MOST_PX, MOST_PX);
    if p.marked {
        svg.raw(&format!(
            r#"<path d="M{x:.1} {MIDDLE_Y}V{y:.1}" class="s-ember" stroke-width="4"/><rect x="{:.1}" y="{:.1}" width="13" height="13" class="f-ember"/>"#,
            x - 6.5,
            y - 6.5
        ));
        let (tx, hold) = match last {
            true => (x - 10.0, Hold::End),
            false => (x + 10.0, Hold::Start),
        };
        svg.text(tx, y + 4.0, "b halo c-ember f", hold, &signed(by, m));
        return;
    }
    svg.raw(&format!(
        r#"<path d="M{x:.1} {MIDDLE_Y}V{y:.1}" class="s-ink" stroke-width="2"/><circle cx="{x:.1}" cy="{y:.1}" r="5" class="dot"/>"#
    ));
}

/// Where a ball lies: its column and row from the back left, of so many.
pub fn place_of(i: usize, grid: &BoxGrid, round: bool) -> (usize, usize, usize, usize) {
    let (columns, rows) = match round {
        true => {
            let side = (f64::from(grid.grid.max(1))).sqrt().ceil() as usize;
            (side, (grid.grid.max(1) as usize).div_ceil(side))
        }
        false => (grid.rows.0.max(1) as usize, grid.rows.1.max(1) as usize),
    };
    (i % columns, i / columns, columns, rows)
}

/// A box from above, to scale: balls numbered as they are made, a dashed ring where each is when it is ripe.
pub fn box_from_above(kind: &BoxKind, grid: &BoxGrid, pieces: &[PiecePin], says: &str) -> String {
    let scale = (198.0 / kind.length_cm).min(132.0 / kind.width_cm);
    let (w, h) = (kind.length_cm * scale, kind.width_cm * scale);
    let mut svg = Svg::new(w + 4.0, h + 4.0, "dough-box", says);
    svg.raw(r#"<g transform="translate(2 2)">"#);
    if kind.round {
        svg.raw(&format!(
            r#"<circle cx="{0:.1}" cy="{0:.1}" r="{0:.1}" class="wall"/>"#,
            w / 2.0
        ));
    } else {
        svg.rect(0.0, 0.0, w, h, r#"class="wall""#);
        svg.rect(4.0, 4.0, w - 8.0, h - 8.0, r#"class="floor""#);
    }
    let ring = (grid.risen_cm / 2.0 * scale).min(w / 2.0);
    let ball = grid.fresh_cm / 2.0 * scale;
    for (i, p) in pieces.iter().enumerate() {
        let (column, row, columns, rows) = place_of(i, grid, kind.round);
        let x = w * (column as f64 + 0.5) / columns as f64;
        let y = h * (row as f64 + 0.5) / rows as f64;
        svg.raw(&format!(
            r#"<circle cx="{x:.1}" cy="{y:.1}" r="{ring:.1}" class="ripe"/>"#
        ));
        let class = match (p.next, p.made, p.marked) {
            (true, ..) => "ball next",
            (_, true, true) => "ball off",
            (_, true, _) => "ball",
            _ => "ball to-come",
        };
        let r = if p.next { ball.max(ring * 0.85) } else { ball };
        svg.raw(&format!(
            r#"<circle cx="{x:.1}" cy="{y:.1}" r="{r:.1}" class="{class}"/>"#
        ));
        if ball >= 8.0 {
            let words = p.number.to_string();
            let class = match (p.next, p.made) {
                (true, _) => "b on-larch",
                (_, true) => "tk b",
                _ => "tk",
            };
            svg.text(x, y + 5.0, class, Hold::Middle, &words);
        }
    }
    svg.raw("</g>");
    svg.end()
}

/// The hours of one box: cold, warm, and while it is used.
pub struct BoxHours<'a> {
    pub from: Timestamp,
    pub to: Timestamp,
    /// When it leaves the cold; none where it is out or never was in it.
    pub out_at: Option<Timestamp>,
    pub is_cold: bool,
    pub use_at: Timestamp,
    pub used_up_at: Timestamp,
    pub now: Timestamp,
    pub place: &'a str,
}

/// The bar of a box's hours, with its clock.
pub fn hours(b: &BoxHours, zone: &TimeZone) -> String {
    let line = HourLine {
        from: b.from,
        to: b.to,
        left: 0.0,
        right: WIDE,
    };
    let mut svg = Svg::new(
        WIDE,
        44.0,
        "box-hours",
        &say!("shape-its-hours", place = b.place),
    );
    let (use_x, end_x) = (line.clamped(b.use_at), line.clamped(b.used_up_at));
    let warm_x = match (b.out_at, b.is_cold) {
        (Some(t), _) => line.clamped(t),
        (None, true) => use_x,
        (None, false) => 0.0,
    };
    svg.rect(0.0, 3.0, warm_x, 20.0, r##"fill="url(#h-cold)""##);
    svg.rect(
        warm_x,
        3.0,
        (use_x - warm_x).max(0.0),
        20.0,
        r##"fill="url(#h-temper)""##,
    );
    svg.rect(
        use_x,
        3.0,
        (end_x - use_x).max(3.0),
        20.0,
        r#"class="f-larch""#,
    );
    svg.path(
        &format!("M0 3H{end_x:.1}V23H0z"),
        r#"class="s-ink" fill="none" stroke-width="1.4" stroke-dasharray="4 3""#,
    );
    for x in [warm_x, use_x] {
        svg.path(
            &format!("M{x:.1} 0v26"),
            r#"class="s-ink" stroke-width="2.4""#,
        );
    }
    if use_x - warm_x > 9.0 * b.place.chars().count() as f64 {
        let middle = (warm_x + use_x) / 2.0;
        svg.text(middle, 18.0, "tx b halo on-ember", Hold::Middle, b.place);
    }
    if line.holds(b.now) {
        let x = line.x(b.now);
        svg.path(&format!("M{:.1} 0h10l-5 7z", x - 5.0), r#"class="f-ink""#);
    }
    let hours = b.to.duration_since(b.from).as_hours();
    let every = [1, 2, 3, 4, 6, 12, 24]
        .into_iter()
        .find(|e| hours / i64::from(*e) <= 4)
        .unwrap_or(24);
    for (t, hour) in line.ticks(zone, every) {
        let x = line.x(t);
        let (at, hold) = match x {
            x if x < 20.0 => (0.0, Hold::Start),
            x if x > WIDE - 20.0 => (WIDE, Hold::End),
            x => (x, Hold::Middle),
        };
        svg.path(&format!("M{x:.1} 23v4"), r#"class="l-axis""#);
        svg.text(at, 40.0, "tk", hold, &format!("{hour:02}:00"));
    }
    svg.end()
}

/// The length by which a maker sees whether the screen is true, mm.
const RULER_MM: f64 = 50.0;

/// A quarter of the ball, of the ripe ball and of the disc in true size, as far as a screen keeps millimetres.
pub fn true_size(now_cm: f64, ripe_cm: f64, disc_cm: f64, ruler: &str) -> String {
    let side = 5.0 * disc_cm + 4.0;
    let high = side + 12.0;
    let says = phrase("shape-a-quarter-of-the-ball");
    let mut out = format!(
        r#"<svg viewBox="0 0 {side:.0} {high:.0}" width="{side:.0}mm" height="{high:.0}mm" class="true" role="img" aria-label="{says}">"#
    );
    for (cm, class, word) in [
        (disc_cm, "disc", phrase("shape-word-disc")),
        (ripe_cm, "ripe", phrase("shape-word-ripe")),
        (now_cm, "ball", phrase("shape-word-now")),
    ] {
        let r = 5.0 * cm;
        let on = 2.0 + r * std::f64::consts::FRAC_1_SQRT_2;
        out += &format!(
            r#"<path d="M2 2H{:.1}A{r:.1} {r:.1} 0 0 1 2 {:.1}z" class="{class}"/><text x="{:.1}" y="{:.1}" text-anchor="end" class="mm">{word}</text>"#,
            2.0 + r,
            2.0 + r,
            on - 3.0,
            on - 1.0
        );
    }
    let y = side + 3.0;
    out += &format!(
        r#"<path d="M2 {y:.0}v4h{RULER_MM}v-4" class="ruler"/><text x="{:.0}" y="{:.0}" class="mm">{ruler}</text></svg>"#,
        RULER_MM + 6.0,
        y + 5.0
    );
    out
}

/// A ball now, ripe, and the disc that it opens to: concentric and true.
pub fn ball_to_disc(now_cm: f64, ripe_cm: f64, disc_cm: f64, in_words: [&str; 3]) -> String {
    let scale = 56.0 / (disc_cm / 2.0);
    let says = say!(
        "shape-a-ball-across-when-ripe",
        in_words = in_words[0],
        in_words2 = in_words[1],
        in_words3 = in_words[2]
    );
    let mut svg = Svg::new(190.0, 122.0, "to-disc", &says);
    let r = |cm: f64| (cm / 2.0 * scale).min(56.0);
    svg.raw(&format!(
        r#"<circle cx="60" cy="61" r="56" class="disc"/><circle cx="60" cy="61" r="48.3" class="rim"/><circle cx="60" cy="61" r="{:.1}" class="ripe"/><circle cx="60" cy="61" r="{:.1}" class="ball"/>"#,
        r(ripe_cm),
        r(now_cm)
    ));
    let lines = [
        ("M100 22L122 18", 23.0, in_words[2], ""),
        ("M86 61H122", 66.0, in_words[1], phrase("shape-label-ripe")),
        (
            "M72 74L122 104",
            109.0,
            in_words[0],
            phrase("shape-label-now"),
        ),
    ];
    for (d, y, value, word) in lines {
        svg.path(d, r#"class="s-ink" stroke-width="1.2""#);
        svg.text(125.0, y, "b", Hold::Start, value);
        if !word.is_empty() {
            let x = 131.0 + 10.6 * value.chars().count() as f64;
            svg.text(x, y, "tx", Hold::Start, word);
        }
    }
    svg.end()
}
