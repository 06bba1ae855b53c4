//! The plan: stages for the model, and steps by the clock, backward from the serve time.

use super::{Block, BlockKind, SheetRequest, hours};
use crate::formula::{FormulaResult, Ingredient, Portion, two_digits};
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
    /// A preferment is mixed, or a levain fed.
    Preferment,
    PrefermentCold,
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
            StepKind::Preferment => "preferment",
            StepKind::PrefermentCold => "preferment_cold",
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
            StepKind::Preferment => format!("Start {name}"),
            StepKind::PrefermentCold => format!("Chill for {name}"),
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
    let fit = (r.formula.bulk_h / FOLD_EVERY_H - 1.0 + 1e-9)
        .floor()
        .max(0.0) as u32;
    r.formula.style.folds.min(fit)
}

/// The pieces of which there is most dough: the rise is run for them.
fn main_portion(f: &FormulaResult) -> &Portion {
    f.portions
        .iter()
        .max_by(|a, b| {
            let of = |p: &Portion| f64::from(p.count) * p.piece_g;
            of(a).total_cmp(&of(b))
        })
        .expect("a weighed formula has pieces")
}

/// The stages of the sheet, as the rise model takes them.
pub(super) fn stages(r: &SheetRequest, f: &FormulaResult) -> Vec<Stage> {
    let x = &r.formula;
    let bulk = |hours: f64, event: Event| Stage {
        hours,
        piece_g: (f.dough_g / tubs(f.dough_g)).max(20.0),
        shape: Shape::Bulk,
        thickness_mm: None,
        container: Container::Tub,
        air: Air::Room,
        place_c: Some(r.room_c),
        place_profile_c: None,
        event,
    };
    let folds = folds(r);
    let first = if folds > 0 { FOLD_EVERY_H } else { x.bulk_h };
    let mut out = vec![bulk(first, Event::None)];
    for i in 1..=folds {
        let rest = x.bulk_h - f64::from(i) * FOLD_EVERY_H;
        out.push(bulk(
            if i == folds { rest } else { FOLD_EVERY_H },
            Event::Fold,
        ));
    }
    let portion = main_portion(f);
    let piece_g = portion.piece_g.clamp(20.0, 60_000.0);
    let cold = |s: Stage, event| Stage {
        hours: x.cold_h,
        air: Air::Fridge,
        place_c: Some(r.fridge_c),
        event,
        ..s
    };
    if x.in_pans() {
        if x.cold_h > 0.0 {
            out.push(cold(bulk(x.cold_h, Event::None), Event::None));
        }
        out.push(Stage {
            piece_g,
            shape: Shape::Slab,
            thickness_mm: Some(
                (portion.piece_g / portion.area_cm2 / DENSITY * 10.0).clamp(4.0, 150.0),
            ),
            container: Container::Open,
            ..bulk(x.temper_h, Event::Pan)
        });
        return out;
    }
    let ball = Stage {
        piece_g,
        shape: Shape::Ball,
        container: Container::Box,
        ..bulk(x.temper_h, Event::None)
    };
    if x.cold_h > 0.0 {
        out.push(cold(ball.clone(), Event::Ball));
        out.push(ball);
    } else {
        out.push(Stage {
            event: Event::Ball,
            ..ball
        });
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
    let x = &r.formula;
    let mut out = vec![];
    if r.start_at() < r.mix_at() {
        out.push(Block {
            kind: BlockKind::Preferment,
            from_at: r.start_at(),
            to_at: r.mix_at(),
        });
    }
    out.push(Block {
        kind: BlockKind::Mix,
        from_at: r.mix_at(),
        to_at: mixed,
    });
    out.push(block(BlockKind::Bulk, 0.0, x.bulk_h));
    let total = r.total_h();
    if x.cold_h > 0.0 {
        out.push(block(BlockKind::Cold, x.bulk_h, x.bulk_h + x.cold_h));
        out.push(block(BlockKind::Temper, x.bulk_h + x.cold_h, total));
    } else {
        out.push(block(
            if x.in_pans() {
                BlockKind::Temper
            } else {
                BlockKind::Ball
            },
            x.bulk_h,
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
    let x = &r.formula;
    for (i, p) in x.preferments.iter().enumerate() {
        let start = -r.mixing_min() / 60.0 - p.hours();
        let title = match p.feed {
            Some(_) => format!("Feed the {}", p.called().to_lowercase()),
            None => format!("Mix the {}", p.called().to_lowercase()),
        };
        add(
            StepKind::Preferment,
            start,
            &title,
            preferment(r, f, i),
            10.0,
        );
        if p.cold_h > 0.0 && p.warm_h > 0.0 {
            let title = format!("{} into the fridge", p.called());
            let detail = format!("{} h at {} °C, lid on.", plain(p.cold_h), plain(r.fridge_c));
            add(
                StepKind::PrefermentCold,
                start + p.warm_h,
                &title,
                detail,
                2.0,
            );
        }
    }
    let last = f.last();
    let w = |i| f.weigh_in(i, last);
    let ice = if water.ice_g >= 1.0 {
        format!(" and {:.0} g of ice", water.ice_g)
    } else {
        String::new()
    };
    let with = if x.preferments.is_empty() {
        String::new()
    } else {
        let names: Vec<String> = x
            .preferments
            .iter()
            .map(|p| p.called().to_lowercase())
            .collect();
        format!("the {}, ", names.join(", the "))
    };
    let yeast = if w(Ingredient::Yeast) > 0.0 {
        format!("; {}", x.yeast.form.handling())
    } else {
        String::new()
    };
    add(
        StepKind::Mix,
        -r.mixing_min() / 60.0,
        "Weigh and mix",
        format!(
            "{with}{} g flour, {:.0} g water at {:.0} °C{ice}{yeast}. Aim for {} °C.",
            plain(w(Ingredient::Flour)),
            water.pour_g,
            water.pour_c,
            plain(x.target_dough_c)
        ),
        r.mixing_min(),
    );
    let rest = REST_H.min(x.bulk_h / 2.0);
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
    pieces_steps(r, f, &mut add);
    let oven = &x.style.oven;
    let total = r.total_h();
    add(
        StepKind::LightOven,
        total - oven.preheat_min / 60.0,
        "Light the oven",
        format!(
            "{}; {:.0} min to charge the floor.",
            oven.words, oven.preheat_min
        ),
        10.0,
    );
    add(StepKind::Bake, total, "Bake", bake(r, f), 0.0);
    out.sort_by_key(|s| s.at);
    out
}

/// What a preferment is mixed from, or how a levain is fed.
fn preferment(r: &SheetRequest, f: &FormulaResult, i: usize) -> String {
    let p = &r.formula.preferments[i];
    let place = match (p.warm_h > 0.0, p.warm_c) {
        (false, _) => format!("straight into the fridge at {} °C", plain(r.fridge_c)),
        (true, c) => format!(
            "{} h at {} °C",
            plain(p.warm_h),
            plain(c.unwrap_or(r.room_c))
        ),
    };
    if let Some(b) = f.builds.iter().find(|b| b.of == i) {
        let kept = b.kept_back_g + b.spare_g;
        let keep = if kept > 0.0 {
            format!("; keep {kept:.0} g back")
        } else {
            String::new()
        };
        return format!(
            "{:.0} g ripe seed, {:.0} g flour, {:.0} g water; {place}{keep}.",
            b.seed_g, b.flour_g, b.water_g
        );
    }
    let yeast = f.weigh_in(Ingredient::Yeast, i);
    let yeast = match f.columns[i].dilution {
        Some(d) => format!(", {} g of the yeast water", plain(d.take_g)),
        None if yeast > 0.0 => format!(
            ", {} g {}",
            if yeast < 1.0 {
                two_digits(yeast)
            } else {
                plain(yeast)
            },
            p.yeast.form.name().to_lowercase()
        ),
        None => String::new(),
    };
    format!(
        "{:.0} g flour, {:.0} g water{yeast}; {place}.",
        f.weigh_in(Ingredient::Flour, i),
        f.weigh_in(Ingredient::Water, i)
    )
}

/// "6 × 250 g", several kinds joined.
fn divided(f: &FormulaResult) -> String {
    f.portions
        .iter()
        .map(|p| match p.pan {
            Some(pan) => format!("{} × {} of {:.0} g", p.count, pan.words(), p.piece_g),
            None => format!(
                "{} × {} g",
                p.count,
                plain((p.piece_g * 10.0).round() / 10.0)
            ),
        })
        .collect::<Vec<_>>()
        .join(" and ")
}

fn pieces_steps(
    r: &SheetRequest,
    f: &FormulaResult,
    add: &mut impl FnMut(StepKind, f64, &str, String, f64),
) {
    let x = &r.formula;
    let out_of_cold = x.bulk_h + x.cold_h;
    if x.in_pans() {
        if x.cold_h > 0.0 {
            add(
                StepKind::Cold,
                x.bulk_h,
                "Tub into the fridge",
                format!("{} h at {} °C, lid on.", plain(x.cold_h), plain(r.fridge_c)),
                2.0,
            );
        }
        let trays = if f.pieces == 1 { "tray" } else { "trays" };
        add(
            StepKind::Pan,
            out_of_cold,
            "Into the trays",
            format!(
                "Oil the {trays}: {}; press out, {} h at {} °C.",
                divided(f),
                plain(x.temper_h),
                plain(r.room_c)
            ),
            10.0,
        );
        return;
    }
    let where_to = if x.cold_h > 0.0 {
        format!(
            "boxed, lids on, into the fridge at {} °C",
            plain(r.fridge_c)
        )
    } else {
        format!("boxed, lids on, {} h in the room", plain(x.temper_h))
    };
    let min = (f64::from(f.pieces) * 0.75).clamp(5.0, 120.0);
    add(
        StepKind::Ball,
        x.bulk_h,
        "Divide and ball",
        format!("{}, {where_to}.", divided(f)),
        min,
    );
    if x.cold_h > 0.0 {
        add(
            StepKind::Temper,
            out_of_cold,
            "Out of the fridge",
            format!(
                "{} h at {} °C, lids on.",
                plain(x.temper_h),
                plain(r.room_c)
            ),
            3.0,
        );
    }
}

/// The tub must hold the dough at its largest in the tub, with a fifth to spare.
fn tub(r: &SheetRequest, f: &FormulaResult, rise: &RiseResult) -> String {
    let in_tub_h = if r.formula.in_pans() {
        r.formula.bulk_h + r.formula.cold_h
    } else {
        r.formula.bulk_h
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

fn bake(r: &SheetRequest, f: &FormulaResult) -> String {
    let word = if r.formula.in_pans() { "tray" } else { "round" };
    let s = if f.pieces == 1 { "" } else { "s" };
    let twice = if r.formula.double_bake {
        " Sauce alone first; out when the rim takes colour, cheese on, back for about 1:30."
    } else {
        ""
    };
    format!(
        "{} {word}{s}, about {} each.{twice}",
        f.pieces,
        min_s(r.formula.style.bake.out_s)
    )
}

/// Seconds as "1:18".
pub fn min_s(s: u32) -> String {
    format!("{}:{:02}", s / 60, s % 60)
}
