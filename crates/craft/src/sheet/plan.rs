//! The plan: stages for the model, and steps by the clock, backward from the serve time.

use super::{Block, BlockKind, PrefermentPlan, SheetRequest, hours};
use crate::fire::programme::Cue;
use crate::formula::{FormulaResult, Ingredient, spoken, two_digits};
use crate::mix::WaterResult;
use crate::path::{Leg, Lies, Spot};
use crate::refusal::{plain, spoken_h};
use crate::rise::{Air, Event, RiseResult, Shape, Stage};
use crate::units::DOUGH_G_PER_CM3;
use jiff::Timestamp;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// Rest after mixing, h; it is the first part of the bulk.
const REST_H: f64 = 1.0 / 3.0;
/// A freezer, °C.
const FREEZER_C: f64 = -18.0;
/// A tub carries so much dough that one person lifts it, g.
const TUB_G: f64 = 20_000.0;

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
    Reball,
    Degas,
    Cold,
    Freeze,
    Thaw,
    /// On to another place of the same warmth.
    Move,
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
            StepKind::Reball => "reball",
            StepKind::Degas => "degas",
            StepKind::Cold => "cold",
            StepKind::Freeze => "freeze",
            StepKind::Thaw => "thaw",
            StepKind::Move => "move",
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
            StepKind::Reball => format!("Ball {name} again"),
            StepKind::Degas => format!("Press {name} down"),
            StepKind::Cold => format!("Chill {name}"),
            StepKind::Freeze => format!("Freeze {name}"),
            StepKind::Thaw => format!("Thaw {name}"),
            StepKind::Move => format!("Move {name}"),
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
    /// What it is known by: it stays with the step when the plan changes.
    #[serde(default)]
    pub number: u16,
    pub kind: StepKind,
    pub at: Timestamp,
    /// What to do: "Divide and ball".
    pub title: String,
    /// How, with its figures.
    pub detail: String,
    /// Minutes of work at this moment.
    pub hands_on_min: f64,
}

/// Work at a moment that is longer than this begins and ends, min.
const LONG_WORK_MIN: f64 = 15.0;

impl PlannedStep {
    /// Whether it begins and ends: mixing, and balling of many pieces. Other work is of a moment.
    pub fn has_length(&self) -> bool {
        match self.kind {
            StepKind::Mix => true,
            StepKind::Ball | StepKind::Reball => self.hands_on_min > LONG_WORK_MIN,
            _ => false,
        }
    }
}

/// Tubs that the dough needs.
fn tubs(dough_g: f64) -> f64 {
    (dough_g / TUB_G).ceil().max(1.0)
}

/// The air of a spot, its temperature in this kitchen (°C), and its day where it swings.
fn air_of(r: &SheetRequest, spot: &Spot) -> (Air, f64, Option<Vec<f64>>) {
    match spot {
        Spot::Room => (Air::Room, r.room_c, None),
        Spot::Fridge => (Air::Fridge, r.fridge_c, None),
        Spot::Freezer => (Air::Freezer, FREEZER_C, None),
        Spot::Own(p) => (p.air, p.c, p.profile_c.clone()),
    }
}

/// "at 19.5 °C", with the name of a place of its own.
fn place_words(r: &SheetRequest, spot: &Spot) -> String {
    let (_, c, _) = air_of(r, spot);
    match spot {
        Spot::Own(p) => format!("at {} °C, {}", plain(c), p.name.to_lowercase()),
        _ => format!("at {} °C", plain(c)),
    }
}

/// A leg as the rise model takes it: one stage, or several with folds between.
pub(super) fn leg_stages(r: &SheetRequest, f: &FormulaResult, leg: &Leg) -> Vec<Stage> {
    let portion = f.main_portion().expect("a weighed formula has pieces");
    let (shape, piece_g, thickness_mm) = match leg.lies {
        Lies::Bulk => {
            let g = leg.tub_g.unwrap_or(f.dough_g);
            (Shape::Bulk, g / tubs(g), None)
        }
        Lies::Balls => (Shape::Ball, portion.piece_g, None),
        Lies::Pans => (
            Shape::Slab,
            portion.piece_g,
            Some(portion.thickness_mm().clamp(4.0, 150.0)),
        ),
    };
    let (air, c, place_profile_c) = air_of(r, &leg.spot);
    let stage = |hours: f64, event: Event| Stage {
        hours,
        piece_g: piece_g.clamp(20.0, 60_000.0),
        shape,
        thickness_mm,
        container: leg.container(),
        air,
        place_c: Some(c),
        place_profile_c: place_profile_c.clone(),
        place_off_c: match &leg.spot {
            Spot::Own(p) => p.off_c,
            _ => None,
        },
        starts_at_c: None,
        event,
    };
    let folds = leg.folds_that_fit();
    let every = leg.fold_every_h;
    let first = if folds > 0 { every } else { leg.hours };
    let mut out = vec![stage(first, leg.event)];
    for i in 1..=folds {
        let rest = leg.hours - f64::from(i) * every;
        out.push(stage(if i == folds { rest } else { every }, Event::Fold));
    }
    out
}

/// The stages of the sheet, as the rise model takes them.
pub(super) fn stages(r: &SheetRequest, f: &FormulaResult) -> Vec<Stage> {
    r.formula
        .path()
        .iter()
        .flat_map(|leg| leg_stages(r, f, leg))
        .collect()
}

/// How a leg is drawn. After the cold, the room brings it back to warmth.
fn block_kind(legs: &[Leg], i: usize) -> BlockKind {
    let leg = &legs[i];
    let after_cold = i > 0 && (legs[i - 1].spot.is_cold() || legs[i - 1].spot.is_frozen());
    match leg.lies {
        _ if leg.spot.is_frozen() => BlockKind::Frozen,
        _ if leg.spot.is_cold() => BlockKind::Cold,
        Lies::Pans => BlockKind::Temper,
        Lies::Bulk => BlockKind::Bulk,
        Lies::Balls if after_cold && leg.event != Event::Ball => BlockKind::Temper,
        Lies::Balls => BlockKind::Ball,
    }
}

/// The blocks of the picture.
pub(super) fn blocks(r: &SheetRequest) -> Vec<Block> {
    let mixed = r.mixed_at();
    let mut out = vec![];
    if r.start_at() < r.mix_at() {
        out.push(Block {
            kind: BlockKind::Preferment,
            from_at: r.start_at(),
            to_at: r.mix_at(),
            leg: None,
        });
    }
    out.push(Block {
        kind: BlockKind::Mix,
        from_at: r.mix_at(),
        to_at: mixed,
        leg: None,
    });
    let legs = r.formula.path();
    let mut h = 0.0;
    for (i, leg) in legs.iter().enumerate() {
        out.push(Block {
            kind: block_kind(&legs, i),
            from_at: mixed + hours(h),
            to_at: mixed + hours(h + leg.hours),
            leg: Some(i),
        });
        h += leg.hours;
    }
    out
}

/// The steps, in the order of the clock.
pub(super) fn steps(
    r: &SheetRequest,
    f: &FormulaResult,
    water: &WaterResult,
    rise: &RiseResult,
    preferments: &[PrefermentPlan],
) -> Vec<PlannedStep> {
    let mixed = r.mixed_at();
    let mut out: Vec<PlannedStep> = Vec::new();
    let mut add = |kind, h: f64, title: &str, detail: String, hands_on_min: f64| {
        out.push(PlannedStep {
            number: 0,
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
            preferment(r, f, i, preferments.get(i)),
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
    let ice = ice(water);
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
    let yeast = match f.columns[last].dilution {
        Some(d) => format!(", {} g of the yeast water", plain(d.take_g)),
        None => weighed_in(w(Ingredient::Yeast), &x.yeast.form.name().to_lowercase()),
    };
    let handling = if w(Ingredient::Yeast) > 0.0 && f.columns[last].dilution.is_none() {
        format!("; {}", x.yeast.form.handling())
    } else {
        String::new()
    };
    let rest: String = [
        (Ingredient::Salt, "salt"),
        (Ingredient::Oil, "oil"),
        (Ingredient::Sugar, "sugar"),
        (Ingredient::Extra, "of what else goes in"),
    ]
    .into_iter()
    .map(|(i, name)| weighed_in(w(i), name))
    .collect();
    add(
        StepKind::Mix,
        -r.mixing_min() / 60.0,
        "Weigh and mix",
        format!(
            "{with}{} g flour, {:.0} g water at {:.0} °C{ice}{yeast}{rest}{handling}. Aim for {} °C.",
            plain(w(Ingredient::Flour)),
            water.pour_g,
            water.pour_c,
            plain(x.target_dough_c)
        ),
        r.mixing_min(),
    );
    let legs = x.path();
    let first = &legs[0];
    let rest = REST_H.min(first.hours / 2.0);
    add(
        StepKind::Rest,
        0.0,
        "Rest",
        format!("{:.0} min covered; measure the dough now.", rest * 60.0),
        1.0,
    );
    let mut h = 0.0;
    for (i, leg) in legs.iter().enumerate() {
        begin_leg(r, f, &legs, i, h, &mut add);
        let folds = leg.folds_that_fit();
        for n in 1..=folds {
            let of = if folds == 1 {
                "Fold".to_string()
            } else {
                format!("Fold {n} of {folds}")
            };
            add(
                StepKind::Fold,
                h + f64::from(n) * leg.fold_every_h,
                &of,
                "Lift and turn once round, wet hands.".into(),
                3.0,
            );
        }
        if i == 0 && leg.lies == Lies::Bulk && !leg.spot.is_cold() {
            let after = if folds > 0 {
                f64::from(folds) * leg.fold_every_h + 0.05
            } else {
                rest
            };
            add(StepKind::Bulk, after, "Into the tub", tub(r, f, rise), 3.0);
        }
        h += leg.hours;
    }
    let (words, preheat_min) = match &r.fire {
        Some(f) => (f.plan.oven.name.as_str(), f.preheat_min),
        None => (x.style.oven.words.as_str(), x.style.oven.preheat_min),
    };
    let total = r.total_h();
    let name = match &r.fire {
        Some(f) if !f.plan.oven.kind.is_fired() => "Switch the oven on",
        _ => "Light the oven",
    };
    add(
        StepKind::LightOven,
        total - preheat_min / 60.0,
        name,
        format!("{words}; {preheat_min:.0} min to charge the floor."),
        10.0,
    );
    add(StepKind::Bake, total, "Bake", bake(r, f), 0.0);
    out.sort_by_key(|s| s.at);
    for (i, step) in out.iter_mut().enumerate() {
        step.number = i as u16;
    }
    out
}

/// ", 28 g salt", where there is some.
fn weighed_in(g: f64, name: &str) -> String {
    match g {
        g if g <= 0.0 => String::new(),
        g if g < 1.0 => format!(", {} g {name}", two_digits(g)),
        g => format!(", {} g {name}", plain((g * 10.0).round() / 10.0)),
    }
}

/// " and 40 g of ice", where it takes some.
fn ice(w: &WaterResult) -> String {
    if w.ice_g >= 1.0 {
        format!(" and {:.0} g of ice", w.ice_g)
    } else {
        String::new()
    }
}

/// What a preferment is mixed from, or how a levain is fed.
fn preferment(
    r: &SheetRequest,
    f: &FormulaResult,
    i: usize,
    plan: Option<&PrefermentPlan>,
) -> String {
    let p = &r.formula.preferments[i];
    let poured = plan.and_then(|x| x.water.as_ref());
    let (at, aim) = match poured {
        Some(w) => (
            format!(" at {:.0} °C{}", w.pour_c, ice(w)),
            format!(" Aim for {} °C.", plain((w.dough_c * 2.0).round() / 2.0)),
        ),
        None => (String::new(), String::new()),
    };
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
        let w = b.weighed();
        return format!(
            "{} ripe seed, {}, {} water{at}; {place}{keep}.{aim}",
            spoken(w.seed_g),
            w.flour_words(spoken),
            spoken(w.water_g)
        );
    }
    let yeast = match f.columns[i].dilution {
        Some(d) => format!(", {} g of the yeast water", plain(d.take_g)),
        None => weighed_in(
            f.weigh_in(Ingredient::Yeast, i),
            &p.yeast.form.name().to_lowercase(),
        ),
    };
    format!(
        "{:.0} g flour, {:.0} g water{at}{yeast}; {place}.{aim}",
        f.weigh_in(Ingredient::Flour, i),
        poured.map_or(f.weigh_in(Ingredient::Water, i), |w| w.pour_g)
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

/// What is done when a leg begins, so many hours after mixing.
fn begin_leg(
    r: &SheetRequest,
    f: &FormulaResult,
    legs: &[Leg],
    i: usize,
    h: f64,
    add: &mut impl FnMut(StepKind, f64, &str, String, f64),
) {
    let leg = &legs[i];
    let before = (i > 0).then(|| &legs[i - 1]);
    let (cold, frozen) = (leg.spot.is_cold(), leg.spot.is_frozen());
    let hours = spoken_h(leg.hours);
    let place = place_words(r, &leg.spot);
    let where_to = match (&leg.spot, cold, frozen) {
        (_, _, true) => "boxed, lids on, into the freezer".to_string(),
        (Spot::Fridge, ..) => format!("boxed, lids on, into the fridge {place}"),
        (_, true, _) => format!("boxed, lids on, into the cold {place}"),
        (Spot::Room, ..) => format!("boxed, lids on, {hours} h in the room"),
        _ => format!("boxed, lids on, {hours} h {place}"),
    };
    let min = (f64::from(f.pieces) * 0.75).clamp(5.0, 120.0);
    match leg.event {
        Event::Ball => add(
            StepKind::Ball,
            h,
            "Divide and ball",
            format!("{}, {where_to}.", divided(f)),
            min,
        ),
        Event::Reball => add(
            StepKind::Reball,
            h,
            "Ball again",
            format!("Gently, on a floured bench; {where_to}."),
            min,
        ),
        Event::Degas => add(
            StepKind::Degas,
            h,
            "Press down",
            format!("Press the gas out and round it up; {hours} h {place}."),
            4.0,
        ),
        Event::Pan => {
            let trays = if f.pieces == 1 { "tray" } else { "trays" };
            add(
                StepKind::Pan,
                h,
                "Into the trays",
                format!(
                    "Oil the {trays}: {}; press out, {hours} h {place}.",
                    divided(f)
                ),
                10.0,
            );
        }
        Event::Fold => add(
            StepKind::Fold,
            h,
            "Fold",
            "Lift and turn once round, wet hands.".into(),
            3.0,
        ),
        Event::None => {}
    }
    if leg.event.shapes() && leg.event != Event::Degas {
        return;
    }
    let thing = if leg.lies == Lies::Bulk {
        "Tub"
    } else {
        "Boxes"
    };
    let was_cold = before.is_some_and(|b| b.spot.is_cold());
    let was_frozen = before.is_some_and(|b| b.spot.is_frozen());
    let moved = before.is_none_or(|b| b.spot != leg.spot);
    if frozen && moved {
        add(
            StepKind::Freeze,
            h,
            &format!("{thing} into the freezer"),
            "Well closed: a dry skin tears when it is opened.".into(),
            3.0,
        );
    } else if was_frozen {
        let detail = format!("{hours} h {place}, lids on.");
        add(StepKind::Thaw, h, "Out of the freezer", detail, 3.0);
    } else if cold && !was_cold && (i > 0 || leg.lies == Lies::Bulk) {
        let title = match leg.spot {
            Spot::Fridge => format!("{thing} into the fridge"),
            _ => format!("{thing} into the cold"),
        };
        let lid = if leg.lies == Lies::Bulk {
            "lid"
        } else {
            "lids"
        };
        let detail = format!("{hours} h {place}, {lid} on.");
        // A dough that goes straight into the cold rests first, as the first part of its leg.
        let at = if i == 0 {
            REST_H.min(leg.hours / 2.0)
        } else {
            h
        };
        add(StepKind::Cold, at, &title, detail, 2.0);
    } else if !cold && was_cold {
        let detail = format!("{hours} h {place}, lids on.");
        add(StepKind::Temper, h, "Out of the fridge", detail, 3.0);
    } else if i > 0 && moved {
        let title = format!("{thing} to another place");
        let detail = format!("{hours} h {place}.");
        add(StepKind::Move, h, &title, detail, 2.0);
    }
}

/// The tub must hold the dough at its largest in the tub, with a fifth to spare.
fn tub(r: &SheetRequest, f: &FormulaResult, rise: &RiseResult) -> String {
    let in_tub_h: f64 = r
        .formula
        .path()
        .iter()
        .take_while(|l| l.lies == Lies::Bulk)
        .map(|l| l.hours)
        .sum();
    let largest = rise
        .points
        .iter()
        .filter(|p| p.hours <= in_tub_h + 1e-9)
        .map(|p| p.volume)
        .fold(1.0, f64::max);
    let n = tubs(f.dough_g);
    let litres = (f.weighed_g / n / 1000.0 / DOUGH_G_PER_CM3 * largest * 1.2).max(0.5);
    let each = if n > 1.0 {
        format!("{n:.0} tubs of at least")
    } else {
        "A tub of at least".into()
    };
    let grows = if largest < 1.05 {
        "it hardly grows".to_string()
    } else {
        format!("it grows to {largest:.1} times")
    };
    format!(
        "{each} {litres:.1} l, lid on, {}; {grows}.",
        place_words(r, &r.formula.path()[0].spot)
    )
}

fn bake(r: &SheetRequest, f: &FormulaResult) -> String {
    let word = if r.formula.in_pans() { "tray" } else { "round" };
    let s = if f.pieces == 1 { "" } else { "s" };
    let p = r.programme();
    let cheese = p.turns.iter().find(|t| t.say == Cue::CheeseOn);
    let twice = match (r.formula.double_bake, cheese) {
        (false, _) => String::new(),
        (true, Some(t)) => format!(
            " Sauce alone first; out at {}, cheese on, back for {}.",
            min_s(t.at_s),
            min_s(p.out_s.saturating_sub(t.at_s))
        ),
        (true, None) => {
            " Sauce alone first; out when the rim takes colour, cheese on, and back.".into()
        }
    };
    // A style without an oven knows a range, and no second.
    let each = match &r.fire {
        Some(_) => format!("about {} each", min_s(p.out_s)),
        None => format!(
            "{} to {} each by the style; plan the fire for your oven",
            min_s(p.from_s),
            min_s(p.to_s)
        ),
    };
    format!("{} {word}{s}, {each}.{twice}", f.pieces)
}

/// Seconds as "1:18".
pub fn min_s(s: u32) -> String {
    format!("{}:{:02}", s / 60, s % 60)
}

/// Steps of a changed plan keep the numbers that they had: what was marked done stays done. New ones get new numbers.
pub fn carry_numbers(before: &[PlannedStep], after: &mut [PlannedStep]) {
    let mut next = before.iter().map(|s| s.number + 1).max().unwrap_or(0);
    let mut taken: Vec<u16> = Vec::new();
    for step in after {
        let same = before
            .iter()
            .find(|b| b.kind == step.kind && !taken.contains(&b.number));
        step.number = match same {
            Some(b) => b.number,
            None => {
                next += 1;
                next - 1
            }
        };
        taken.push(step.number);
    }
}
