//! The page of what was taught, formatted: sentences with the bakes that they come from, and the next dough beside the book.

use crate::batch::lessons::KitchenLessons;
use crate::shared::format::{count_word, day_named, hm, quarter, weekday_hm};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{date, decimal, phrase, say};
use craft::learn::taught::{chance, sentences};
use craft::learn::{
    Card, Channel, KitchenLog, LikelyWindow, NextBatch, Observed, TeachesMost, TookPart,
};
use craft::sheet::SheetRequest;
use jiff::{SignedDuration, Timestamp};
use std::fmt::Write;

/// So many bakes have a column.
const COLUMNS: usize = 9;
const COLUMN_PX: f64 = 32.0;

/// The dough that comes next.
pub struct TaughtAsked {
    pub code: String,
    pub is_planned: bool,
    pub flour_g: f64,
    pub request: SheetRequest,
    pub next: NextBatch,
    pub card: Card,
}

/// A sentence with its bakes.
pub struct SentenceRow {
    pub says: String,
    pub dots: String,
    /// The bakes that moved it, for whoever cannot see the dots.
    pub moved: String,
}

/// A row of the windows: a dose, and when it is ready.
pub struct WindowRow {
    pub name: String,
    pub ready: String,
    pub likely: String,
    pub svg: String,
}

/// The dough that comes next, beside the book.
pub struct NextView {
    pub head: String,
    pub rows: Vec<WindowRow>,
    pub hours: String,
    pub chance: String,
    pub path: Option<String>,
}

/// An observation that was hardly counted.
pub struct AsideRow {
    pub says: String,
    pub code: String,
}

pub struct KitchenTaught {
    pub head: String,
    pub core: String,
    pub lines: [String; 2],
    pub uses_book: bool,
    pub may_choose: bool,
    pub columns: String,
    pub rows: Vec<SentenceRow>,
    pub quiet: Option<String>,
    pub band: Option<(String, String)>,
    pub next: Option<NextView>,
    pub teach: Option<(String, String)>,
    pub aside: Vec<AsideRow>,
    pub is_empty: bool,
}

impl KitchenTaught {
    pub fn of(
        known: &KitchenLessons,
        asked: Option<TaughtAsked>,
        here: &RequestKitchen,
    ) -> KitchenTaught {
        let rises = known.log.rises();
        let says = asked.as_ref().map(|a| known.log.says(&a.next, &a.card));
        let dose = says.as_ref().and_then(|s| s.dose);
        let times = |v: f64| decimal(v, 1);
        let (head, core) = match (rises, dose) {
            (0, _) => (
                phrase("learn-nothing-was-said-yet").to_string(),
                phrase("learn-the-book-alone").to_string(),
            ),
            (n, Some(d)) => (
                say!("learn-bakes-say", n = n as i64, word = count_word(n as u32)),
                say!("learn-good-to", good = times(d.good_to)),
            ),
            (n, None) => (
                say!("learn-bakes-say", n = n as i64, word = count_word(n as u32)),
                phrase("learn-windows-only").to_string(),
            ),
        };
        let book = dose.map_or(String::new(), |d| {
            say!("learn-book-good-to", good = times(d.book_good_to))
        });
        let shown = known.lessons.len().saturating_sub(COLUMNS);
        let aside = known.log.set_aside();
        let rows = says.as_ref().zip(asked.as_ref()).map_or(vec![], |(s, a)| {
            sentences(&s.channels)
                .into_iter()
                .map(|(c, fact)| sentence_row(known, a, c, here.say(&fact), shown))
                .collect()
        });
        let quiet = (rises > 0 && rows.is_empty())
            .then(|| phrase("learn-nothing-can-be-told-apart").to_string());
        KitchenTaught {
            head,
            core,
            lines: [
                if book.is_empty() {
                    phrase("learn-one-tap-when-it-opens").to_string()
                } else {
                    book
                },
                phrase("learn-all-of-it-comes-from-the-log").to_string(),
            ],
            uses_book: here.kitchen.uses_book,
            may_choose: here.may(craft::people::Right::Plan),
            columns: columns(known, shown, here),
            band: asked
                .as_ref()
                .filter(|_| dose.is_some() && rises > 0)
                .map(|a| {
                    let good =
                        known
                            .log
                            .good_to_after(&known.batches(), &known.cards, &a.next, &a.card);
                    band(&good)
                }),
            teach: says
                .as_ref()
                .and_then(|s| s.teaches_most)
                .map(|t| teach(&t, asked.as_ref())),
            next: asked.as_ref().and_then(|a| next_view(known, a, here)),
            aside: aside
                .iter()
                .filter_map(|&(b, o)| aside_row(known, b, o, here))
                .collect(),
            rows,
            quiet,
            is_empty: rises == 0,
        }
    }
}

fn svg(width: f64, height: f64, inside: &str, class: &str) -> String {
    format!(
        r#"<svg class="{class}" viewBox="0 0 {width:.0} {height:.0}" width="{width:.0}" height="{height:.0}" aria-hidden="true">{inside}</svg>"#
    )
}

fn columns(known: &KitchenLessons, from: usize, here: &RequestKitchen) -> String {
    let some = &known.lessons[from..];
    let mut x = String::new();
    for (i, l) in some.iter().enumerate() {
        let at = COLUMN_PX * (i as f64 + 0.5);
        let (head, tail) = l.code.split_once('-').unwrap_or((l.code.as_str(), ""));
        let day = date(&here.local(l.serve_at), "%-d");
        let _ = write!(
            x,
            r#"<text x="{at}" y="12" text-anchor="middle">{head}</text><text x="{at}" y="26" text-anchor="middle">{tail}</text><title>{day}</title>"#
        );
    }
    svg(COLUMN_PX * some.len().max(1) as f64, 32.0, &x, "cols")
}

fn sentence_row(
    known: &KitchenLessons,
    a: &TaughtAsked,
    c: Channel,
    says: String,
    from: usize,
) -> SentenceRow {
    let parts = known.log.took_part(&a.next, c);
    let part = |b: usize| parts.iter().find(|(x, _)| *x == b).map(|(_, how)| *how);
    let (mut x, mut moved) = (String::new(), vec![]);
    let n = known.lessons.len() - from;
    let _ = write!(
        x,
        r#"<path d="M{} 20H{}" class="rail"/>"#,
        COLUMN_PX * 0.5,
        COLUMN_PX * (n as f64 - 0.5)
    );
    for i in 0..n {
        let at = COLUMN_PX * (i as f64 + 0.5);
        match part(from + i) {
            Some(TookPart::Moved) => {
                moved.push(known.lessons[from + i].code.clone());
                let _ = write!(x, r#"<circle cx="{at}" cy="20" r="8" class="moved"/>"#);
            }
            Some(TookPart::TookPart) => {
                let _ = write!(x, r#"<circle cx="{at}" cy="20" r="6" class="took"/>"#);
            }
            Some(TookPart::SetAside) => {
                let _ = write!(
                    x,
                    r#"<circle cx="{at}" cy="20" r="7" class="aside"/><path d="M{} 29L{} 11" class="struck"/>"#,
                    at - 8.0,
                    at + 8.0
                );
            }
            None => {}
        }
    }
    SentenceRow {
        says,
        dots: svg(COLUMN_PX * n.max(1) as f64, 40.0, &x, "dots"),
        moved: moved.join(", "),
    }
}

/// The band of doses through the bakes: picture, and its words.
fn band(good: &[f64]) -> (String, String) {
    let n = good.len();
    let (width, mid) = (288.0, 55.0);
    let step = width / (n.max(2) - 1) as f64;
    // ×/÷ 2 fills it.
    let half = |g: f64| (g.ln() / 2f64.ln()).min(1.0) * 50.0;
    let (mut up, mut down) = (String::new(), String::new());
    for (i, g) in good.iter().enumerate() {
        let x = step * i as f64;
        let _ = write!(
            up,
            "{}{x:.1} {:.1}",
            if i == 0 { "M" } else { "L" },
            mid - half(*g)
        );
        let _ = write!(down, "L{:.1} {:.1}", width - x, mid + half(good[n - 1 - i]));
    }
    let picture = svg(
        width,
        110.0,
        &format!(
            r#"<path d="{up}{down}Z" class="band"/><path d="M0 {mid}H{width}" class="rail"/>"#
        ),
        "doses",
    );
    let words = say!(
        "learn-doses-good-to",
        now = decimal(good[n - 1], 1),
        book = decimal(good[0], 1)
    );
    (picture, words)
}

/// An hour after mixing as a clock time to the quarter; another day than that of serving is named.
fn clock(mixed_at: Timestamp, h: f64, serve_h: f64, here: &RequestKitchen) -> String {
    let on = |h: f64| here.local(mixed_at + SignedDuration::from_secs_f64(h * 3600.0));
    let at = quarter(&on(h));
    if at.date() == on(serve_h).date() {
        hm(&at)
    } else {
        weekday_hm(&at)
    }
}

fn next_view(known: &KitchenLessons, a: &TaughtAsked, here: &RequestKitchen) -> Option<NextView> {
    let says = known.log.says(&a.next, &a.card);
    let dose = says.dose?;
    let book_alone = KitchenLog::of(&[], &[]).says(&a.next, &a.card);
    let mut with_own = a.next.clone();
    with_own.dough.yeast_percent = dose.percent;
    let own_card = Card::of(&with_own.dough, &[]);
    let own = known.log.says(&with_own, &own_card);
    let mixed_at = a.request.mixed_at();
    let serve_h = a.next.dough.total_hours();
    let grams = |percent: f64| {
        // No dose is known to more than two digits.
        let g = craft::fact::two_digits(a.flour_g * percent / 100.0);
        format!(
            "{} {}",
            here.measures.weight_said(g),
            here.measures.weight_unit()
        )
    };
    let all = [
        (
            say!("learn-the-book-dose", g = grams(dose.book_percent)),
            book_alone.window,
            false,
        ),
        (
            say!("learn-the-book-dose-here", g = grams(dose.book_percent)),
            says.window,
            true,
        ),
        (
            say!("learn-your-dose", g = grams(dose.percent)),
            own.window,
            true,
        ),
    ];
    let span = span_of(all.iter().filter_map(|(_, w, _)| w.as_ref()), serve_h);
    let rows = all
        .into_iter()
        .map(|(name, w, own)| window_row(name, w, own, span, serve_h, mixed_at, here))
        .collect();
    let [with_yours, with_book] = [(&with_own, &own_card), (&a.next, &a.card)]
        .map(|(n, c)| here.words(&chance(known.log.chance_met(n, c, serve_h))));
    let serve = here.local(a.request.serve_at);
    Some(NextView {
        head: if a.is_planned {
            say!("learn-next-is", code = a.code, day = day_named(&serve))
        } else {
            say!("learn-as-once-more", code = a.code)
        },
        rows,
        hours: hours_axis(span, mixed_at, here),
        chance: say!(
            "learn-serve-is-met",
            at = hm(&serve),
            yours = with_yours,
            book = with_book
        ),
        path: (!says.path_seen).then(|| phrase("learn-not-yet-seen-here").to_string()),
    })
}

const WINDOW_PX: f64 = 440.0;

fn span_of<'a>(all: impl Iterator<Item = &'a LikelyWindow>, serve_h: f64) -> (f64, f64) {
    let (mut low, mut high) = (serve_h - 1.0, serve_h + 1.0);
    for w in all {
        low = low.min(w.likely_h.0);
        high = high
            .max(w.likely_h.1.unwrap_or(w.from_h))
            .max(w.to_h.unwrap_or(w.from_h + 4.0));
    }
    // A window that never shuts would draw a week.
    ((low - 0.5).floor(), (high + 0.5).ceil().min(serve_h + 14.0))
}

fn x_of(h: f64, (low, high): (f64, f64)) -> f64 {
    WINDOW_PX * ((h - low) / (high - low)).clamp(0.0, 1.0)
}

fn window_row(
    name: String,
    w: Option<LikelyWindow>,
    own: bool,
    span: (f64, f64),
    serve_h: f64,
    mixed_at: Timestamp,
    here: &RequestKitchen,
) -> WindowRow {
    let Some(w) = w else {
        return WindowRow {
            name,
            ready: phrase("learn-never-ready").into(),
            likely: String::new(),
            svg: String::new(),
        };
    };
    let at = |h: f64| clock(mixed_at, h, serve_h, here);
    let to = w.to_h.unwrap_or(span.1);
    let (early, late) = (w.likely_h.0, w.likely_h.1.unwrap_or(span.1));
    let (a, b) = (x_of(w.from_h, span), x_of(to, span));
    let (c, d) = (x_of(early, span), x_of(late, span));
    let serve = x_of(serve_h, span);
    let kind = if own { "here" } else { "book" };
    let inside = format!(
        r#"<rect x="{a:.1}" y="6" width="{:.1}" height="22" class="w-{kind}"/><path d="M{a:.1} 30V4H{b:.1}V30" class="edge-{kind}"/><path d="M{c:.1} 34v10M{d:.1} 34v10M{c:.1} 39H{d:.1}" class="likely"/><circle cx="{a:.1}" cy="39" r="4.5" class="likely-{kind}"/><path d="M{serve:.1} 0V46" class="serve"/>"#,
        (b - a).max(0.0)
    );
    WindowRow {
        name,
        ready: match w.to_h {
            Some(to) => say!("learn-ready-from-to", from = at(w.from_h), to = at(to)),
            None => say!("learn-ready-from", from = at(w.from_h)),
        },
        likely: match w.likely_h.1 {
            Some(late) => say!("learn-likely", early = at(early), late = at(late)),
            None => say!("learn-likely-from", early = at(early)),
        },
        svg: svg(WINDOW_PX, 46.0, &inside, "win"),
    }
}

fn hours_axis(span: (f64, f64), mixed_at: Timestamp, here: &RequestKitchen) -> String {
    let every = ((span.1 - span.0) / 4.0).ceil().max(1.0);
    let mut x = String::new();
    let mut h = span.0 + every / 2.0;
    while h < span.1 {
        let at = x_of(h, span);
        // A tick stands on a whole hour of the clock.
        let t = here.local(mixed_at + SignedDuration::from_secs_f64(h * 3600.0));
        let off = f64::from(t.minute()) / 60.0;
        let at = at - WINDOW_PX * off / (span.1 - span.0);
        let hour = i32::from(t.hour());
        let _ = write!(
            x,
            r#"<text x="{at:.0}" y="13" text-anchor="middle">{hour:02}:00</text>"#
        );
        h += every;
    }
    svg(WINDOW_PX, 18.0, &x, "axis")
}

fn teach(t: &TeachesMost, a: Option<&TaughtAsked>) -> (String, String) {
    use craft::learn::Lesson as L;
    let code = a.map_or(String::new(), |a| a.code.clone());
    let what = match t.kind {
        L::Ready => say!("learn-note-ready", code = code),
        L::State => say!("learn-note-state", code = code),
        L::Fridge => phrase("learn-note-fridge").into(),
        L::Room => phrase("learn-note-room").into(),
        L::Dough => phrase("learn-note-dough").into(),
    };
    let by = say!(
        "learn-narrows-by",
        hours = decimal((t.narrows_h * 2.0).round() / 2.0, 1)
    );
    (what, by)
}

fn aside_row(
    known: &KitchenLessons,
    b: usize,
    o: usize,
    here: &RequestKitchen,
) -> Option<AsideRow> {
    let lesson = known.lessons.get(b)?;
    let what = match lesson.batch.observed.get(o)? {
        Observed::State { is, .. } => here.words(&is.name()),
        Observed::Ready { .. } => phrase("learn-ready").into(),
        Observed::Tub { .. } => phrase("batch-marked-tub").into(),
        _ => phrase("learn-a-reading").into(),
    };
    Some(AsideRow {
        says: say!(
            "learn-does-not-fit",
            code = lesson.code,
            what = what,
            day = date(&here.local(lesson.serve_at), "%a %-d %b")
        ),
        code: lesson.code.clone(),
    })
}
