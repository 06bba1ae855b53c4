//! The picture of a fire and what is said beside it: race, cut, firing, what to change, the run.

use super::form::Read;
use super::made::Made;
use crate::shared::chart::firing::{self, firing};
use crate::shared::chart::race::{self as chart, DrawnLane, RaceRow};
use crate::shared::format::{hm, min_s};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::shipped;
use crate::shared::tongue::{decimal, number, phrase, say};
use craft::fact;
use craft::fact::Kelvin;
use craft::fact::Value;
use craft::fire::oven::is_tray;
use craft::fire::overview::{FireOverview, launch_test, of_readings};
use craft::fire::race::{RaceItem, Targets, progress};
use craft::fire::words::rough_time;
use craft::fire::{BakeMoment, FirePlan, Fuel, OvenKind};
use craft::keyed::Keyed;
use craft::units::Celsius;
use jiff::Timestamp;
use serde_json::json;
use speech::Judgement;
use speech::value::span as bake_time;

pub struct RemedyView {
    pub key: String,
    pub words: String,
    pub effect: String,
    pub dough: bool,
}

pub struct CueView {
    pub i: usize,
    pub words: String,
    pub say: &'static str,
    pub value: String,
    pub error: Option<String>,
}

/// The race and what follows; absent where the form cannot be worked out.
pub struct FirePicture {
    pub head: String,
    pub core: String,
    pub lines: [String; 2],
    pub race: [String; 2],
    pub section: String,
    pub firing: [String; 2],
    pub course_json: String,
    pub scrub_max: String,
    pub scrub_at: String,
    pub scrub_says: String,
    pub test: Option<String>,
    pub fuel: String,
    pub fitted: Option<String>,
    pub notes: Vec<Judgement>,
    pub more: Vec<Judgement>,
    pub remedies: Vec<RemedyView>,
    pub more_remedies: Vec<RemedyView>,
    pub options: bool,
    pub contact: String,
    pub cues: Vec<CueView>,
    pub shape_line: String,
    pub out: String,
    pub run: Vec<(String, String)>,
}

/// 0 pale, 1 golden, 2 well browned, 3 charred.
fn shade(v: f64) -> &'static str {
    match v {
        v if v < 0.5 => phrase("fire-word-pale"),
        v if v < 1.5 => phrase("fire-word-golden"),
        v if v < 2.5 => phrase("fire-well-browned"),
        _ => phrase("fire-word-charred"),
    }
}

/// One place in the text for how a second looks; the script says the same.
fn at_words(m: &BakeMoment, here: &RequestKitchen) -> String {
    say!(
        "fire-at-base-rim-middle-inside",
        t = bake_time(m.t),
        base = shade(m.base),
        rim = shade(m.rim),
        middle_c = decimal(here_reads(here, m.middle_c), 0)
    )
}

impl FirePicture {
    pub fn of(m: &Made, read: &Read, x: &FireOverview) -> FirePicture {
        let (here, plan) = (m.here, &read.plan);
        let race = &x.planned.race;
        let targets = plan.targets();
        let times: Vec<f64> = x.planned.course.moments.iter().map(|m| m.t).collect();
        let end_s = axis_end(x);
        let drawn = chart::RaceDrawing {
            lanes: lanes(x, &targets),
            times: &times,
            race,
            end_s,
        };
        let f = &x.firing;
        let fire = firing::FiringDrawing {
            firing: f,
            band: x.band,
            readings: m.readings,
            now: here.now,
            serve_at: m.dough.serve_at,
            lit: m.lit_at.is_some(),
            zone: &here.zone,
            fired: plan.oven.kind.is_fired(),
            baking: m.dough.baking_since.is_some(),
        };
        let (head, core) = answer(m, plan, x);
        let mut notes = x.notes.clone();
        let more = notes.split_off(notes.len().min(3));
        let (remedies, more_remedies) = remedies(m, x);
        FirePicture {
            lines: lines(m, plan, x),
            race: [chart::race(&drawn, 810.0), chart::race(&drawn, 366.0)],
            section: chart::section(
                &rows(plan, x, &race.at, here),
                &here.measures,
                plan.pan.is_some(),
            ),
            firing: [
                firing(&fire, &here.measures, 770.0),
                firing(&fire, &here.measures, 366.0),
            ],
            course_json: seconds(here, plan, x, end_s),
            scrub_max: format!("{end_s:.0}"),
            scrub_at: format!("{:.0}", race.best_s),
            scrub_says: at_words(&race.at, here),
            test: x.band.map(|b| here.say(&launch_test(b))),
            fuel: fuel(plan, x, here),
            fitted: of_readings(f).map(|x| here.say(&x)),
            notes: here.judgements(&notes),
            more: here.judgements(&more),
            remedies,
            more_remedies,
            options: race.window.is_some(),
            contact: contact(plan, x, here),
            cues: cues(m, x),
            shape_line: shipped(&x.planned.shape.line),
            out: min_s(f64::from(x.planned.programme.out_s)),
            run: run(m, x),
            head,
            core,
        }
    }
}

/// Where the axis of the race ends, s: beyond the last part that is ready, and some of what spoils.
fn axis_end(x: &FireOverview) -> f64 {
    let race = &x.planned.race;
    let of = |pick: fn(&craft::fire::RaceLane) -> Option<f64>, from: f64| {
        race.lanes.iter().filter_map(pick).fold(from, f64::max)
    };
    let ready = of(|l| l.ready_s, race.best_s);
    let spoils = of(|l| l.spoils_s, 0.0);
    let last = x.planned.course.moments.last().map_or(60.0, |m| m.t);
    (1.25 * ready).max(spoils.min(1.5 * ready) * 1.08).min(last)
}

/// The lanes of the race, top to bottom as in the oven.
fn lanes(x: &FireOverview, targets: &Targets) -> Vec<DrawnLane> {
    let mut all: Vec<DrawnLane> = progress(&x.planned.request, &x.planned.course, targets)
        .into_iter()
        .map(|(item, progress)| {
            let lane = x.planned.race.lane(item);
            let (name, cue) = named(item, targets.set_c);
            DrawnLane {
                item,
                name,
                cue,
                progress,
                ready_s: lane.and_then(|l| l.ready_s),
                spoils_s: lane.and_then(|l| l.spoils_s),
            }
        })
        .collect();
    all.sort_by_key(|l| match l.item {
        RaceItem::Cheese => 0,
        RaceItem::Topping => 1,
        RaceItem::Rim => 2,
        RaceItem::Crumb => 3,
        RaceItem::Base => 4,
    });
    all
}

/// The cut through oven and piece at one moment.
fn rows(plan: &FirePlan, x: &FireOverview, at: &BakeMoment, here: &RequestKitchen) -> Vec<RaceRow> {
    let row = |key, y, name: &str, celsius| RaceRow {
        key,
        y,
        name: name.into(),
        celsius,
    };
    let above = match plan.oven.kind {
        OvenKind::Home | OvenKind::StoneDeck => phrase("fire-oven"),
        OvenKind::ElectricDeck => phrase("fire-top-heat"),
        _ => phrase("fire-dome"),
    };
    let topping = if plan.piece.sauce_g + plan.piece.cheese_g > 0.0 {
        phrase("form-topping")
    } else {
        phrase("form-top")
    };
    let mut all = vec![
        row("dome", 25.0, above, x.planned.request.oven.dome_c),
        row("topping", 80.0, topping, at.top_c),
        row("rim", 108.0, phrase("bake-rim"), at.rim_c),
        row("crumb", 136.0, phrase("bake-crumb"), at.middle_c),
        row("base", 164.0, phrase("bake-base"), at.base_c),
    ];
    let depths = chart::depths(plan.setting.floor_mm);
    let gap = (290.0 - 204.0) / (depths.len().max(2) - 1) as f64;
    let keys = ["floor0", "floor1", "floor2", "floor3"];
    for (i, (mm, key)) in depths.iter().zip(keys).enumerate() {
        let deep = || here.reader().said(&Value::Mm(*mm)).full;
        let name = match *mm {
            0.0 => phrase("fire-floor-face").to_string(),
            10.0 => say!("fire-down", deep = deep()),
            30.0 | 60.0 => deep(),
            _ => phrase("fire-its-bottom").into(),
        };
        let c = craft::fire::bake::floor_at(&x.planned.request, at, *mm);
        all.push(row(key, 204.0 + gap * i as f64, &name, c));
    }
    all
}

/// The cut second by second, for scrubbing.
fn seconds(here: &RequestKitchen, plan: &FirePlan, x: &FireOverview, end_s: f64) -> String {
    let shown: Vec<&BakeMoment> = x
        .planned
        .course
        .moments
        .iter()
        .filter(|m| m.t <= end_s)
        .collect();
    let cuts: Vec<Vec<RaceRow>> = shown.iter().map(|m| rows(plan, x, m, here)).collect();
    let mut columns = serde_json::Map::new();
    for (i, first) in cuts.first().into_iter().flatten().enumerate() {
        let values: Vec<f64> = cuts
            .iter()
            .map(|c| here_reads(here, c[i].celsius))
            .collect();
        columns.insert(first.key.into(), json!(values));
    }
    let tenth = |v: f64| (v * 10.0).round() / 10.0;
    json!({
        "t": shown.iter().map(|m| m.t).collect::<Vec<_>>(),
        "rows": columns,
        "base": shown.iter().map(|m| tenth(m.base)).collect::<Vec<_>>(),
        "rim": shown.iter().map(|m| tenth(m.rim)).collect::<Vec<_>>(),
        "fahrenheit": here.measures.degree_unit() == "°F",
    })
    .to_string()
}

fn fuel(plan: &FirePlan, x: &FireOverview, here: &RequestKitchen) -> String {
    match (x.firing.fuel_kg, plan.oven.fuel) {
        (Some(kg), Fuel::Wood) => here.say(&fact!(
            "fuel-wood-in-all",
            weight = Value::Kilos(craft::fact::tenth(kg))
        )),
        (Some(kg), _) => here.say(&fact!(
            "fuel-gas-in-all",
            weight = Value::Kilos(craft::fact::tenth(kg))
        )),
        (None, _) if is_tray(&plan.setting) => phrase("fire-the-tray-goes-in-cold").into(),
        (None, _) => say!(
            "fire-charged-at-the-serve-time",
            charged = decimal(100.0 * x.firing.charged.min(1.0), 0)
        ),
    }
}

fn cues(m: &Made, x: &FireOverview) -> Vec<CueView> {
    let error = |i: usize| {
        m.errors
            .iter()
            .find(|e| e.field == format!("cue[{i}].s"))
            .map(|e| m.here.say(&e.message))
    };
    let turns = x.planned.programme.turns.iter().enumerate();
    turns
        .map(|(i, t)| CueView {
            i,
            words: m.here.words(&t.say.words()),
            say: t.say.key(),
            value: min_s(f64::from(t.at_s)),
            error: error(i),
        })
        .collect()
}

fn here_reads(here: &RequestKitchen, c: f64) -> f64 {
    craft::units::Celsius(c)
        .reads(here.measures.temperature)
        .round()
}

fn named(item: RaceItem, set_c: f64) -> (&'static str, &'static str) {
    match item {
        RaceItem::Base => (phrase("bake-base"), phrase("fire-colour-below")),
        RaceItem::Rim => (phrase("bake-rim"), phrase("fire-colour-above")),
        RaceItem::Crumb if set_c >= 85.0 => (phrase("bake-crumb"), phrase("fire-hot-all-through")),
        RaceItem::Crumb => (phrase("bake-crumb"), phrase("fire-set-all-through")),
        RaceItem::Topping => (phrase("form-topping"), phrase("fire-bubbles-settle")),
        RaceItem::Cheese => (phrase("bake-cheese"), phrase("fire-word-melted")),
    }
}

/// The sentence of the page.
fn answer(m: &Made, plan: &FirePlan, x: &FireOverview) -> (String, String) {
    let race = &x.planned.race;
    let pull = if race.best_s < 180.0 {
        say!("fire-pull-at", best_s = bake_time(race.best_s))
    } else {
        say!("fire-pull-after", best_s = bake_time(race.best_s))
    };
    let urgent = x
        .notes
        .iter()
        .find(|n| n.code == "floor_ahead" || n.code == "floor_behind" || n.code == "charged_late");
    let hm = |t: Timestamp| hm(&m.here.local(t));
    let head = match (urgent, race.window, m.lit_at) {
        (Some(n), ..) => format!("{}.", m.here.say(&n.what)),
        (None, Some(_), _) if m.dough.baking_since.is_some() => phrase("fire-baking").into(),
        (None, None, _) => x
            .notes
            .first()
            .map_or(phrase("fire-no-moment-at-which-all").into(), |n| {
                format!("{}.", m.here.say(&n.what))
            }),
        (None, Some(_), Some(_)) => x
            .firing
            .ready_at
            .map_or(phrase("fire-not-charged-within-4-h").into(), |t| {
                say!("fire-charged-at", t = hm(t))
            }),
        (None, Some(_), None) if plan.oven.kind.is_fired() => {
            say!("fire-light-it-at", light_at = hm(x.firing.light_at))
        }
        (None, Some(_), None) => say!("fire-switch-it-on-at", light_at = hm(x.firing.light_at)),
    };
    (head, pull)
}

fn lines(m: &Made, plan: &FirePlan, x: &FireOverview) -> [String; 2] {
    let me = &m.here.measures;
    let name = if plan.pan.is_some() {
        phrase("fire-word-tray")
    } else {
        phrase("fire-word-round")
    };
    let band = x.band.map_or(String::new(), |(a, b)| {
        [
            "",
            &say!("fire-floor-to", a = me.degrees(a, 0), b = me.degrees(b, 0)),
            " ",
        ]
        .concat()
    });
    let people = if m.dough.pieces == 1 {
        "one".into()
    } else {
        say!("fire-pieces", pieces = m.dough.pieces)
    };
    [
        say!(
            "fire-of",
            name = shipped(&plan.oven.name),
            name2 = name,
            ball_g = me.weighed(plan.piece.ball_g)
        ),
        say!(
            "fire-serve",
            band = band,
            people = people,
            serve_at = hm(&m.here.local(m.dough.serve_at))
        ),
    ]
}

fn remedies(m: &Made, x: &FireOverview) -> (Vec<RemedyView>, Vec<RemedyView>) {
    let now = &x.planned.race;
    let mut all: Vec<RemedyView> = x
        .remedies
        .iter()
        .filter(|t| t.helps)
        .map(|t| {
            let window = match t.window {
                Some(w) => say!(
                    "fire-right-from-to",
                    from_s = bake_time(w.from_s),
                    to_s = bake_time(w.to_s)
                ),
                None => phrase("fire-still-no-moment-at-which").into(),
            };
            RemedyView {
                key: t.change.key(),
                words: m.here.say(&t.change.words()),
                effect: say!(
                    "fire-pull-at-instead-of-base",
                    best_s = bake_time(t.best_s),
                    best_s2 = bake_time(now.best_s),
                    window = window,
                    base_by = number(format!("{:+.1}", t.base_by)),
                    rim_by = number(format!("{:+.1}", t.rim_by))
                ),
                dough: t.change.is_dough() && m.dough.mixed,
            }
        })
        .collect();
    let more = all.split_off(all.len().min(3));
    (all, more)
}

/// What the skin meets, in one line.
fn contact(plan: &FirePlan, x: &FireOverview, here: &RequestKitchen) -> String {
    if plan.pan.is_some() {
        return phrase("fire-in-a-pan-the-metal").into();
    }
    if is_tray(&plan.setting) {
        return phrase("fire-the-tray-goes-in-as").into();
    }
    let o = &x.planned.request.oven;
    let c = o.floor.contact_c(o.floor_c, plan.piece.dough_c);
    // The same ideal interface is not the same base: a tight floor lets no steam out.
    let stays = match o.floor.is_metal() {
        true => fact!("skin-on-metal"),
        false => fact!("skin-on-stone", by = (Kelvin(20.0), Kelvin(30.0))),
    };
    here.say(&fact!(
        "skin-meets",
        floor = o.floor.name(),
        c = Celsius(o.floor_c.round()),
        skin = Celsius(c.round()),
        stays = stays
    ))
}

fn run(m: &Made, x: &FireOverview) -> Vec<(String, String)> {
    let mut out = vec![];
    let Some(s) = &x.service else {
        return out;
    };
    if m.dough.pieces > 1 {
        out.push((phrase("fire-one-out-every").into(), bake_time(s.pace_s)));
        out.push((
            phrase("fire-last-one-out").into(),
            hm(&m.here.local(s.last_out_at)),
        ));
    }
    if let Some(g) = s.gap_s {
        let range = m.here.reader().said(&rough_time(0.75 * g, 1.25 * g)).full;
        out.push((
            phrase("fire-pause-of-a-spot").into(),
            if g < 20.0 { "none".into() } else { range },
        ));
    }
    if !x.firing.tray {
        out.push((
            phrase("fire-its-face-after-one").into(),
            format!("{}°", m.here.measures.degrees(s.recovery.exit_c, 0)),
        ));
        if let Some(w) = s.recovery.wait_s {
            out.push((phrase("fire-back-within-15-in").into(), bake_time(w)));
        }
    }
    if s.spares > 0 {
        out.push((phrase("fire-spare-balls").into(), s.spares.to_string()));
    }
    let launches: Vec<f64> = s.launches.iter().map(|l| l.0).collect();
    if let (Some(first), Some(last)) = (launches.first(), launches.last())
        && launches.len() > 1
    {
        let me = &m.here.measures;
        let says = if (first - last).abs() < 3.0 {
            say!("fire-at-each", first = me.degrees(*first, 0))
        } else {
            let all = launches.iter().take(6).map(|c| me.degrees(*c, 0));
            all.collect::<Vec<_>>().join(" ")
        };
        out.push((phrase("fire-launches-of-a-spot").into(), says));
    }
    out
}
