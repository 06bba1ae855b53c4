//! The plan: stages for the model, and steps by the clock, backward from the serve time.

use super::{Block, BlockKind, SheetRequest, hours};
use crate::formula::{FormulaResult, Ingredient, Pieces};
use crate::mix::WaterResult;
use crate::refusal::plain;
use crate::rise::{Air, Container, Event, RiseResult, Shape, Stage};
use jiff::Timestamp;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// Rest after mixing, h; it is the first part of the bulk.
const REST_H: f64 = 1.0 / 3.0;
/// Folds are half an hour apart.
const FOLD_EVERY_H: f64 = 0.5;
/// A tub carries so much dough that one person lifts it, g.
const TUB_G: f64 = 20_000.0;
/// Density of dough, g/cm³: the thickness on a tray follows from g/cm².
const DENSITY: f64 = 1.1;

/// What a step is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum StepKind {
    Mix,
    Rest,
    Fold,
    Bulk,
    Ball,
    Cold,
    Pan,
    LightOven,
    Temper,
    Bake,
}

impl StepKind {
    pub fn key(self) -> &'static str {
        match self {
            StepKind::Mix => "mix",
            StepKind::Rest => "rest",
            StepKind::Fold => "fold",
            StepKind::Bulk => "bulk",
            StepKind::Ball => "ball",
            StepKind::Cold => "cold",
            StepKind::Pan => "pan",
            StepKind::LightOven => "light_oven",
            StepKind::Temper => "temper",
            StepKind::Bake => "bake",
        }
    }
    /// The step as a call across the kitchen: "Ball the Halt round".
    pub fn call(self, name: &str) -> String {
        match self {
            StepKind::Mix => format!("Mix {name}"),
            StepKind::Rest => format!("Rest {name}"),
            StepKind::Fold => format!("Fold {name}"),
            StepKind::Bulk => format!("Tub {name}"),
            StepKind::Ball => format!("Ball {name}"),
            StepKind::Cold => format!("Chill {name}"),
            StepKind::Pan => format!("Pan {name}"),
            StepKind::LightOven => format!("Light for {name}"),
            StepKind::Temper => format!("{name} out"),
            StepKind::Bake => format!("Bake {name}"),
        }
    }
}

/// One step of the plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct PlannedStep {
    pub kind: StepKind,
    pub at: Timestamp,
    /// What to do: "Divide and ball".
    pub title: String,
    /// How, with its figures.
    pub detail: String,
    /// Minutes of work at this moment.
    pub hands_on_min: f64,
}

/// Tubs that the dough needs.
fn tubs(dough_g: f64) -> f64 {
    (dough_g / TUB_G).ceil().max(1.0)
}

/// Folds that fit into this bulk.
fn folds(r: &SheetRequest) -> u32 {
    let fit = (r.bulk_h / FOLD_EVERY_H - 1.0 + 1e-9).floor().max(0.0) as u32;
    r.style.style().folds.min(fit)
}

/// The stages of the sheet, as the rise model takes them.
pub(super) fn stages(r: &SheetRequest, dough_g: f64) -> Vec<Stage> {
    let bulk = |hours: f64, event: Event| Stage {
        hours,
        piece_g: (dough_g / tubs(dough_g)).max(20.0),
        shape: Shape::Bulk,
        thickness_mm: None,
        container: Container::Tub,
        air: Air::Room,
        place_c: Some(r.room_c),
        place_profile_c: None,
        event,
    };
    let folds = folds(r);
    let first = if folds > 0 { FOLD_EVERY_H } else { r.bulk_h };
    let mut out = vec![bulk(first, Event::None)];
    for i in 1..=folds {
        let rest = r.bulk_h - f64::from(i) * FOLD_EVERY_H;
        out.push(bulk(
            if i == folds { rest } else { FOLD_EVERY_H },
            Event::Fold,
        ));
    }
    let piece_g = r.pieces.piece_g();
    let cold = |s: Stage, event| Stage {
        hours: r.cold_h,
        air: Air::Fridge,
        place_c: Some(r.fridge_c),
        event,
        ..s
    };
    match r.pieces {
        Pieces::Balls { .. } => {
            let ball = Stage {
                piece_g,
                shape: Shape::Ball,
                container: Container::Box,
                ..bulk(r.temper_h, Event::None)
            };
            if r.cold_h > 0.0 {
                out.push(cold(ball.clone(), Event::Ball));
                out.push(ball);
            } else {
                out.push(Stage {
                    event: Event::Ball,
                    ..ball
                });
            }
        }
        Pieces::Trays {
            dough_g_per_cm2, ..
        } => {
            if r.cold_h > 0.0 {
                out.push(cold(bulk(r.cold_h, Event::None), Event::None));
            }
            out.push(Stage {
                piece_g,
                shape: Shape::Slab,
                thickness_mm: Some((dough_g_per_cm2 / DENSITY * 10.0).max(4.0)),
                container: Container::Open,
                ..bulk(r.temper_h, Event::Pan)
            });
        }
    }
    out
}

/// The blocks of the picture.
pub(super) fn blocks(r: &SheetRequest) -> Vec<Block> {
    let mixed = r.mixed_at();
    let at = |h: f64| mixed + hours(h);
    let block = |kind, from: f64, to: f64| Block {
        kind,
        from_at: at(from),
        to_at: at(to),
    };
    let mut out = vec![
        Block {
            kind: BlockKind::Mix,
            from_at: r.start_at(),
            to_at: mixed,
        },
        block(BlockKind::Bulk, 0.0, r.bulk_h),
    ];
    let total = r.total_h();
    let balls = matches!(r.pieces, Pieces::Balls { .. });
    if r.cold_h > 0.0 {
        out.push(block(BlockKind::Cold, r.bulk_h, r.bulk_h + r.cold_h));
        out.push(block(BlockKind::Temper, r.bulk_h + r.cold_h, total));
    } else {
        out.push(block(
            if balls {
                BlockKind::Ball
            } else {
                BlockKind::Temper
            },
            r.bulk_h,
            total,
        ));
    }
    out
}

/// The steps, in the order of the clock.
pub(super) fn steps(
    r: &SheetRequest,
    f: &FormulaResult,
    water: &WaterResult,
    rise: &RiseResult,
) -> Vec<PlannedStep> {
    let mixed = r.mixed_at();
    let mut out: Vec<PlannedStep> = Vec::new();
    let mut add = |kind, h: f64, title: &str, detail: String, hands_on_min: f64| {
        out.push(PlannedStep {
            kind,
            at: mixed + hours(h),
            title: title.into(),
            detail,
            hands_on_min,
        });
    };
    let w = |i| f.row(i).map_or(0.0, |row| row.weigh_g);
    let ice = if water.ice_g >= 1.0 {
        format!(" and {:.0} g of ice", water.ice_g)
    } else {
        String::new()
    };
    add(
        StepKind::Mix,
        -r.mixing_min() / 60.0,
        "Weigh and mix",
        format!(
            "{} g flour, {:.0} g water at {:.0} °C{ice}; {}. Aim for {} °C.",
            plain(w(Ingredient::Flour)),
            water.pour_g,
            water.pour_c,
            r.yeast_form.handling(),
            plain(r.target_dough_c)
        ),
        r.mixing_min(),
    );
    let rest = REST_H.min(r.bulk_h / 2.0);
    add(
        StepKind::Rest,
        0.0,
        "Rest",
        format!("{:.0} min covered; measure the dough now.", rest * 60.0),
        1.0,
    );
    let folds = folds(r);
    for i in 1..=folds {
        add(
            StepKind::Fold,
            f64::from(i) * FOLD_EVERY_H,
            &format!("Fold {i} of {folds}"),
            "Lift and turn once round, wet hands.".into(),
            3.0,
        );
    }
    let after = if folds > 0 {
        f64::from(folds) * FOLD_EVERY_H + 0.05
    } else {
        rest
    };
    add(StepKind::Bulk, after, "Into the tub", tub(r, f, rise), 3.0);
    pieces_steps(r, &mut add);
    let style = r.style.style();
    let total = r.total_h();
    add(
        StepKind::LightOven,
        total - style.preheat_min / 60.0,
        "Light the oven",
        format!(
            "{}; {:.0} min to charge the floor.",
            style.oven, style.preheat_min
        ),
        10.0,
    );
    add(StepKind::Bake, total, "Bake", bake(r), 0.0);
    out.sort_by_key(|s| s.at);
    out
}

fn pieces_steps(r: &SheetRequest, add: &mut impl FnMut(StepKind, f64, &str, String, f64)) {
    let out_of_cold = r.bulk_h + r.cold_h;
    match r.pieces {
        Pieces::Balls { count, ball_g } => {
            let where_to = if r.cold_h > 0.0 {
                format!(
                    "boxed, lids on, into the fridge at {} °C",
                    plain(r.fridge_c)
                )
            } else {
                format!("boxed, lids on, {} h in the room", plain(r.temper_h))
            };
            let min = (f64::from(count) * 0.75).clamp(5.0, 120.0);
            add(
                StepKind::Ball,
                r.bulk_h,
                "Divide and ball",
                format!("{count} × {} g, {where_to}.", plain(ball_g)),
                min,
            );
            if r.cold_h > 0.0 {
                add(
                    StepKind::Temper,
                    out_of_cold,
                    "Out of the fridge",
                    format!(
                        "{} h at {} °C, lids on.",
                        plain(r.temper_h),
                        plain(r.room_c)
                    ),
                    3.0,
                );
            }
        }
        Pieces::Trays {
            count,
            length_cm,
            width_cm,
            ..
        } => {
            if r.cold_h > 0.0 {
                add(
                    StepKind::Cold,
                    r.bulk_h,
                    "Tub into the fridge",
                    format!("{} h at {} °C, lid on.", plain(r.cold_h), plain(r.fridge_c)),
                    2.0,
                );
            }
            add(
                StepKind::Pan,
                out_of_cold,
                "Into the trays",
                format!(
                    "Oil {count} trays {} × {} cm, {:.0} g each; press out, {} h at {} °C.",
                    plain(length_cm),
                    plain(width_cm),
                    r.pieces.piece_g(),
                    plain(r.temper_h),
                    plain(r.room_c)
                ),
                10.0,
            );
        }
    }
}

/// The tub must hold the dough at its largest in the tub, with a fifth to spare.
fn tub(r: &SheetRequest, f: &FormulaResult, rise: &RiseResult) -> String {
    let in_tub_h = match r.pieces {
        Pieces::Balls { .. } => r.bulk_h,
        Pieces::Trays { .. } => r.bulk_h + r.cold_h,
    };
    let largest = rise
        .points
        .iter()
        .filter(|p| p.hours <= in_tub_h + 1e-9)
        .map(|p| p.volume)
        .fold(1.0, f64::max);
    let n = tubs(f.dough_g);
    let litres = (f.weighed_g / n / 1000.0 / DENSITY * largest * 1.2).max(0.5);
    let each = if n > 1.0 {
        format!("{n:.0} tubs of at least")
    } else {
        "A tub of at least".into()
    };
    format!(
        "{each} {litres:.1} l, lid on, at {} °C; it grows to {largest:.1} times.",
        plain(r.room_c)
    )
}

fn bake(r: &SheetRequest) -> String {
    let what = match r.pieces {
        Pieces::Balls { count, .. } => format!("{count} rounds"),
        Pieces::Trays { count, .. } => format!("{count} trays"),
    };
    let p = crate::fire::programme::programme(r.style);
    format!("{what}, about {} each.", min_s(p.out_s))
}

/// Seconds as "1:18".
pub fn min_s(s: u32) -> String {
    format!("{}:{:02}", s / 60, s % 60)
}
