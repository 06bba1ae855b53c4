//! Marks: 24 px, drawn in the colour of their text.

use crate::shared::stop::Stop;
use crate::shared::tongue::phrase;
use craft::note::Level;
use craft::sheet::StepKind;

/// A drawing of a mark in its frame.
macro_rules! mark {
    ($drawn:literal) => {
        concat!(
            r#"<svg viewBox="0 0 24 24" width="24" height="24" aria-hidden="true">"#,
            $drawn,
            "</svg>"
        )
    };
}

const BENCH: &str = mark!(
    r#"<path d="M1.5 9.5h21" stroke="currentColor" stroke-width="3"/><path d="M5 10v10.5M19 10v10.5" stroke="currentColor" stroke-width="2.2"/><path d="M7 8.5a5 4.5 0 0 1 10 0z" fill="currentColor"/>"#
);
const SHEET: &str = mark!(
    r#"<path d="M4 8.5h16M12 5v14M8 19.5h8" stroke="currentColor" stroke-width="2" fill="none"/><path d="M1.5 14h7L5 8.5z M15.5 14h7L19 8.5z" fill="none" stroke="currentColor" stroke-width="1.6"/><path d="M1.5 14a3.5 3 0 0 0 7 0z" fill="currentColor"/>"#
);
const MIX: &str = mark!(
    r#"<path d="M12 2v4.5c0 2.2 6.5 2 6.5 6.7a6.6 6.3 0 0 1-13.2.3a4.7 4.4 0 0 1 9.2-.7a2.7 2.6 0 0 1-5 .8" stroke="currentColor" stroke-width="2.2" fill="none" stroke-linecap="round"/>"#
);
const RISE: &str = mark!(
    r#"<path d="M2 19.5h20" stroke="currentColor" stroke-width="2"/><path d="M4 19.5a8 12.5 0 0 1 16 0z" fill="currentColor" fill-opacity=".22"/><path d="M4 19.5a8 12.5 0 0 1 16 0" fill="none" stroke="currentColor" stroke-width="2.2"/><path d="M6.5 19.5a5.5 5 0 0 1 11 0" fill="none" stroke="currentColor" stroke-width="1.7" stroke-dasharray="2.2 1.8"/>"#
);
const SHAPE: &str = mark!(
    r#"<circle cx="12" cy="13" r="8" fill="none" stroke="currentColor" stroke-width="2.2"/><path d="M12 5c-.5 3.5-3.6 4.6-6 4.7M12 5c.5 3.5 3.6 4.6 6 4.7M12 5V2.5" fill="none" stroke="currentColor" stroke-width="1.7"/>"#
);
const FIRE: &str = mark!(
    r#"<path d="M2.5 21V12.5a9.5 9.5 0 0 1 19 0V21z" fill="none" stroke="currentColor" stroke-width="2.2"/><path d="M12 8.5c.6 3 4.3 4 4.3 7.7a4.3 4.3 0 0 1-8.6 0c0-2 1.3-2.7 2-3.7.5 1 1 1.3 1.3 1.3.6-1 .2-3.3 1-5.3z" fill="currentColor"/>"#
);
const BAKE: &str = mark!(
    r#"<circle cx="12" cy="9" r="7" fill="none" stroke="currentColor" stroke-width="2.2"/><path d="M12 16v7" stroke="currentColor" stroke-width="3"/><path d="M12 9V4.8A4.2 4.2 0 0 1 16.2 9z" fill="currentColor"/>"#
);
const LEDGER: &str = mark!(
    r#"<path d="M5 4v16M9.5 4v16M14 4v16M18.5 4v16" stroke="currentColor" stroke-width="2.2"/><path d="M2 17.5L22 7" stroke="currentColor" stroke-width="2.2"/>"#
);
const COLD: &str = mark!(
    r#"<path d="M4 3h16v18H4zM4 10h16M8 5.5v2M8 12.5v3" fill="none" stroke="currentColor" stroke-width="2.2"/>"#
);

/// A photo is taken.
pub const LENS: &str = mark!(
    r#"<path d="M2 7h5l2-3h6l2 3h5v13H2z" fill="none" stroke="currentColor" stroke-width="2"/><circle cx="12" cy="13" r="4" fill="none" stroke="currentColor" stroke-width="2"/>"#
);

/// The mark of a stop.
pub fn stop(stop: &Stop) -> &'static str {
    match stop {
        Stop::Bench => BENCH,
        Stop::Sheet => SHEET,
        Stop::Mix => MIX,
        Stop::Rise => RISE,
        Stop::Shape => SHAPE,
        Stop::Fire => FIRE,
        Stop::Bake => BAKE,
        Stop::Ledger => LEDGER,
    }
}

/// The mark of a step.
pub fn step(kind: &StepKind) -> &'static str {
    match kind {
        StepKind::Preferment | StepKind::Mix => MIX,
        StepKind::Rest | StepKind::Bulk | StepKind::Temper | StepKind::Thaw | StepKind::Move => {
            RISE
        }
        StepKind::Fold | StepKind::Ball | StepKind::Reball | StepKind::Degas | StepKind::Pan => {
            SHAPE
        }
        StepKind::PrefermentCold | StepKind::Cold | StepKind::Freeze => COLD,
        StepKind::LightOven => FIRE,
        StepKind::Bake => BAKE,
    }
}

/// The mark of a judgement: ring, half diamond, square with a bar.
pub fn level(level: &Level) -> String {
    let (class, inner) = match level {
        Level::Holds => (
            "c-ink",
            r#"<circle cx="14" cy="14" r="10" fill="none" stroke="currentColor" stroke-width="2.4"/><circle cx="14" cy="14" r="3.2" fill="currentColor"/>"#,
        ),
        Level::Watch => (
            "c-rise",
            r#"<path d="M14 2.5L25.5 14 14 25.5 2.5 14z" fill="none" stroke="currentColor" stroke-width="2.4"/><path d="M14 2.5V25.5L2.5 14z" fill="currentColor"/>"#,
        ),
        Level::Act => (
            "c-ember",
            r#"<path d="M4 4h20v20H4z" fill="currentColor"/><path d="M14 8v8M14 18.5v2.5" stroke="var(--sheet)" stroke-width="3"/>"#,
        ),
    };
    format!(
        r#"<svg viewBox="0 0 28 28" width="28" height="28" class="{class}" aria-hidden="true">{inner}</svg>"#
    )
}

/// The mark of something to keep an eye on.
pub fn watch() -> String {
    level(&Level::Watch)
}

pub fn level_word(level: &Level) -> &'static str {
    match level {
        Level::Act => phrase("page-act"),
        Level::Watch => phrase("page-watch"),
        Level::Holds => phrase("page-holds"),
    }
}

pub const MINUS: &str = r#"<svg viewBox="0 0 24 24" width="20" height="20" aria-hidden="true"><path d="M4 12h16" stroke="currentColor" stroke-width="3"/></svg>"#;
pub const PLUS: &str = r#"<svg viewBox="0 0 24 24" width="20" height="20" aria-hidden="true"><path d="M4 12h16M12 4v16" stroke="currentColor" stroke-width="3"/></svg>"#;
pub const CROSS: &str = r#"<svg viewBox="0 0 24 24" width="18" height="18" aria-hidden="true"><path d="M5 5l14 14M19 5L5 19" stroke="currentColor" stroke-width="2.6"/></svg>"#;
pub const UNDO: &str = r#"<svg viewBox="0 0 24 24" width="22" height="22" aria-hidden="true"><path d="M4 9h10a6 6 0 0 1 0 12H9M8 4L3.5 9 8 14" fill="none" stroke="currentColor" stroke-width="2.4"/></svg>"#;
pub const REDO: &str = r#"<svg viewBox="0 0 24 24" width="22" height="22" aria-hidden="true"><path d="M20 9H10a6 6 0 0 0 0 12h5M16 4l4.500 5L16 14" fill="none" stroke="currentColor" stroke-width="2.4"/></svg>"#;
pub const TICK: &str = r#"<svg viewBox="0 0 24 24" width="20" height="20" aria-hidden="true"><path d="M5 12.5l5 5L20 6.5" fill="none" stroke="currentColor" stroke-width="3"/></svg>"#;
pub const LAMP: &str = r#"<svg viewBox="0 0 24 24" width="24" height="24" aria-hidden="true"><path d="M8 9.5h8l1.6 9.5H6.4z" fill="none" stroke="currentColor" stroke-width="2"/><path d="M5 21.5h14M9 9V6.5h6V9M9.5 6.5a2.5 3.5 0 0 1 5 0" stroke="currentColor" stroke-width="2" fill="none"/><path d="M12 12c1.5 1.6 1.7 4.4 0 4.4s-1.5-2.8 0-4.4z" fill="currentColor"/></svg>"#;
pub const HOUSE: &str = r#"<svg viewBox="0 0 24 24" width="24" height="24" aria-hidden="true"><path d="M4 21V10.5L12 4l8 6.5V21z" fill="none" stroke="currentColor" stroke-width="2"/><path d="M9 21v-6a3 3 0 0 1 6 0v6" fill="none" stroke="currentColor" stroke-width="2"/></svg>"#;
pub const LOGO: &str = r#"<svg viewBox="0 0 36 36" aria-hidden="true"><path d="M18.3 17C21 20 23 24 24 29H12.6C13.5 24 15.6 20 18.3 17z" fill="var(--larch)"/><path d="M3 29C15 28.5 22 19 26 5" fill="none" stroke="currentColor" stroke-width="3.6"/><path d="M8 6C16 12 24 20 31 29" fill="none" stroke="currentColor" stroke-width="3" stroke-dasharray="5.5 3"/><path d="M1.5 31.5h33" stroke="currentColor" stroke-width="2.6"/></svg>"#;

/// A cut through a pizza as it came out: top and base pale, right or dark.
pub fn section(base: craft::fire::Shade, top: craft::fire::Shade) -> String {
    use craft::fire::Shade;
    let stroke = |s: Shade| match s {
        Shade::Pale => r#"stroke="currentColor" stroke-width="2" stroke-dasharray="2 3.5""#,
        Shade::Right => r#"stroke="var(--right, var(--larch))" stroke-width="5""#,
        Shade::Dark => r#"stroke="currentColor" stroke-width="9" stroke-dasharray="3.5 2""#,
    };
    format!(
        r#"<svg viewBox="0 0 80 44" width="76" height="40" aria-hidden="true"><path d="M7 19C8 7 22 7 25 17H55C58 7 72 7 73 19" fill="none" {}/><path d="M7 25C8 34 12 35 18 35H62C68 35 72 34 73 25" fill="none" {}/></svg>"#,
        stroke(top),
        stroke(base)
    )
}
