//! What the Fire page shows, already formatted.

use super::form::{Dough, Read, floor_key};
use crate::shared::chart::firing::{self, firing};
use crate::shared::chart::race::{self as chart, Lane, Row};
use crate::shared::form::Typed;
use crate::shared::format::{hm, min_s};
use crate::shared::kitchen::Here;
use crate::shared::larder::Larder;
use craft::fire::desk::{self, Looked, bake_time, launch_test};
use craft::fire::firing::FloorRead;
use craft::fire::oven::is_tray;
use craft::fire::programme::shapes;
use craft::fire::race::{Item, progress};
use craft::fire::{Fuel, Material, Moment, OvenKind, Shelf};
use craft::note::Note;
use craft::refusal::FieldError;
use jiff::Timestamp;
use serde_json::json;

/// A field of the form.
pub struct Field {
    pub name: String,
    pub label: &'static str,
    pub small: String,
    pub value: String,
    pub unit: &'static str,
    pub step: &'static str,
    pub exact: Option<(String, String)>,
    pub error: Option<String>,
}

pub struct Choice {
    pub key: String,
    pub name: String,
    pub chosen: bool,
}

pub struct Switch {
    pub name: &'static str,
    pub label: &'static str,
    pub on: bool,
}

pub struct RemedyView {
    pub key: String,
    pub words: String,
    pub effect: String,
    pub dough: bool,
}

pub struct CueView {
    pub i: usize,
    pub words: &'static str,
    pub say: &'static str,
    pub value: String,
    pub error: Option<String>,
}

pub struct CautionView {
    pub head: &'static str,
    pub say: &'static str,
    pub grave: bool,
}

/// The race and what follows; absent where the form cannot be worked out.
pub struct Picture {
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
    pub notes: Vec<Note>,
    pub more: Vec<Note>,
    pub remedies: Vec<RemedyView>,
    pub more_remedies: Vec<RemedyView>,
    pub options: bool,
    pub contact: String,
    pub cues: Vec<CueView>,
    pub out: String,
    pub run: Vec<(String, String)>,
}

pub struct View {
    pub picture: Option<Picture>,
    pub ovens: Vec<Choice>,
    pub floors: Vec<Choice>,
    pub shelves: Vec<Choice>,
    pub shapes: Vec<Choice>,
    pub switches: Vec<Switch>,
    pub settings: Vec<Field>,
    pub dough: Vec<Field>,
    pub own: bool,
    pub errors: Vec<FieldError>,
    pub cautions: Vec<CautionView>,
    pub manual: &'static str,
    pub home: bool,
    pub fired: bool,
    pub styles: Vec<Choice>,
}

/// What a page is made of.
pub struct Made<'a> {
    pub typed: &'a Typed,
    pub dough: &'a Dough,
    pub larder: &'a Larder,
    pub here: &'a Here,
    pub worked: Option<(&'a Read, &'a Looked)>,
    pub errors: Vec<FieldError>,
    pub readings: &'a [FloorRead],
    pub lit_at: Option<Timestamp>,
    pub free: bool,
}

const FLOORS: [(Material, f64); 6] = [
    (Material::CarbonSteel, 8.0),
    (Material::CarbonSteel, 12.0),
    (Material::Cordierite, 15.0),
    (Material::Cordierite, 20.0),
    (Material::Biscuit, 50.0),
    (Material::CarbonSteel, 1.0),
];

impl View {
    pub fn of(m: &Made) -> View {
        let t = m.typed;
        let oven = m
            .larder
            .ovens()
            .into_iter()
            .find(|o| o.0 == t.text("oven"))
            .map(|o| o.2);
        let kind = oven.as_ref().map_or(OvenKind::Home, |o| o.kind);
        let home = kind == OvenKind::Home;
        let grill = !t.text("grill").is_empty();
        let error = |name: &str| {
            m.errors
                .iter()
                .find(|e| e.field == name)
                .map(|e| e.message.clone())
        };
        let field = |name: &str, label, small: &str, unit, step| {
            let exact = format!("exact:{name}");
            Field {
                exact: t
                    .has(&exact)
                    .then(|| (exact.clone(), t.raw(&exact).to_string())),
                name: name.into(),
                label,
                small: small.into(),
                value: t.raw(name).into(),
                unit,
                step,
                error: error(name),
            }
        };
        let degree = m.here.measures.degree_unit();
        let gram = m.here.measures.weight_unit();
        let mut settings = Vec::new();
        if kind.has_one_setting() {
            settings.push(field("dome_c", "Set to", "the floor follows", degree, "5"));
        } else if kind == OvenKind::ElectricDeck {
            settings.push(field("dome_c", "Top", "", degree, "5"));
            settings.push(field("floor_c", "Bottom", "", degree, "5"));
        } else {
            settings.push(field("dome_c", "Dome", "what shines down", degree, "5"));
            settings.push(field("floor_c", "Floor", "its face at launch", degree, "5"));
        }
        settings.push(field(
            "most_c",
            "Tops out at",
            "its maker's limit",
            degree,
            "5",
        ));
        settings.push(field(
            "preheat_min",
            "Preheated for",
            "empty: charged",
            "min",
            "5",
        ));
        let locked = if m.dough.mixed {
            "for the next dough"
        } else {
            ""
        };
        let mut dough = vec![
            field("ball_g", "Ball", locked, gram, "5"),
            field("sugar", "Sugar", "", "%", "0.5"),
            field("malt", "Active malt", "", "%", "0.1"),
            field("oil", "Oil", "", "%", "0.5"),
            field("sauce_g", "Sauce on one", "", gram, "5"),
            field("cheese_g", "Cheese on one", "", gram, "5"),
        ];
        dough.push(field("hands", "People", "at bench and oven", "", "1"));
        let mut floors: Vec<(String, String)> = Vec::new();
        let own = oven.as_ref().map(|o| (o.floor, o.floor_mm));
        let typed_floor = t.text("floor").to_string();
        for (mat, mm) in own.into_iter().chain(FLOORS) {
            let key = floor_key(mat, mm);
            if !floors.iter().any(|f| f.0 == key)
                && (home
                    || Some((mat, mm)) == own
                    || mat == Material::Biscuit
                    || key == typed_floor)
            {
                let tray = if mat.is_metal() && mm < 2.5 {
                    " tray, goes in cold"
                } else {
                    ""
                };
                floors.push((key, format!("{mm:.0} mm {}{tray}", mat.name())));
            }
        }
        let chosen = |list: Vec<(String, String)>, now: &str| -> Vec<Choice> {
            list.into_iter()
                .map(|(key, name)| Choice {
                    chosen: key == now,
                    key,
                    name,
                })
                .collect()
        };
        let ovens = m
            .larder
            .ovens()
            .into_iter()
            .map(|(key, id, o)| {
                (
                    key,
                    if id.is_some() {
                        o.name
                    } else {
                        format!("{} (shipped)", o.name)
                    },
                )
            })
            .collect();
        let mut switches = Vec::new();
        if oven.as_ref().is_some_and(|o| o.has_grill()) {
            switches.push(Switch {
                name: "grill",
                label: "Grill",
                on: grill,
            });
        }
        if oven.as_ref().is_some_and(|o| o.fan_w_m2k.is_some()) {
            switches.push(Switch {
                name: "fan",
                label: "Fan",
                on: !t.text("fan").is_empty(),
            });
        }
        if home {
            switches.push(Switch {
                name: "below",
                label: "Bottom element",
                on: !t.text("below").is_empty(),
            });
        }
        let in_pan = m.dough.portion.pan.is_some();
        let cautions = oven.as_ref().map_or(vec![], |o| {
            craft::fire::caution::cautions(o, in_pan, grill)
                .into_iter()
                .map(|c| CautionView {
                    head: c.head,
                    say: c.say,
                    grave: c.grave,
                })
                .collect()
        });
        View {
            picture: m.worked.map(|(read, looked)| Picture::of(m, read, looked)),
            ovens: chosen(ovens, t.text("oven")),
            floors: chosen(floors, &typed_floor),
            shelves: chosen(
                Shelf::ALL.map(|s| (s.key().into(), s.name().into())).into(),
                t.text("shelf"),
            ),
            shapes: chosen(
                shapes()
                    .iter()
                    .map(|s| (s.key.clone(), s.name.clone()))
                    .collect(),
                t.text("shape"),
            ),
            switches,
            settings,
            dough,
            own: !t.text("own").is_empty(),
            errors: m.errors.clone(),
            cautions,
            manual: craft::fire::caution::MANUAL,
            home,
            fired: kind.is_fired(),
            styles: if m.free {
                let all = craft::style::all()
                    .iter()
                    .map(|s| (s.key.clone(), format!("{}, {}", s.name, s.line)))
                    .collect();
                chosen(all, &m.dough.formula.style.key)
            } else {
                vec![]
            },
        }
    }
}

/// 0 pale, 1 golden, 2 well browned, 3 charred.
fn shade(v: f64) -> &'static str {
    match v {
        v if v < 0.5 => "pale",
        v if v < 1.5 => "golden",
        v if v < 2.5 => "well browned",
        _ => "charred",
    }
}

/// One place in the text for how a second looks; the script says the same.
fn at_words(m: &Moment) -> String {
    format!(
        "At {}: base {}, rim {}, middle {:.0}° inside.",
        bake_time(m.t),
        shade(m.base),
        shade(m.rim),
        m.middle_c
    )
}

impl Picture {
    fn of(m: &Made, read: &Read, x: &Looked) -> Picture {
        let (here, plan) = (m.here, &read.plan);
        let race = &x.planned.race;
        let targets = plan.targets();
        let times: Vec<f64> = x.planned.course.moments.iter().map(|m| m.t).collect();
        let spoils = race
            .lanes
            .iter()
            .filter_map(|l| l.spoils_s)
            .fold(0.0, f64::max);
        let ready = race
            .lanes
            .iter()
            .filter_map(|l| l.ready_s)
            .fold(race.best_s, f64::max);
        let last = times.last().copied().unwrap_or(60.0);
        let end_s = (1.25 * ready).max(spoils.min(1.5 * ready) * 1.08).min(last);
        let mut lanes: Vec<Lane> = progress(&x.planned.request, &x.planned.course, &targets)
            .into_iter()
            .map(|(item, progress)| {
                let lane = race.lane(item);
                let (name, cue) = named(item, targets.set_c);
                Lane {
                    item,
                    name,
                    cue,
                    progress,
                    ready_s: lane.and_then(|l| l.ready_s),
                    spoils_s: lane.and_then(|l| l.spoils_s),
                }
            })
            .collect();
        // Top to bottom as in the oven.
        lanes.reverse();
        lanes.sort_by_key(|l| match l.item {
            Item::Cheese => 0,
            Item::Topping => 1,
            Item::Rim => 2,
            Item::Crumb => 3,
            Item::Base => 4,
        });
        let drawn = chart::Drawn {
            lanes,
            times: &times,
            race,
            end_s,
        };
        let depths = chart::depths(plan.setting.floor_mm);
        let keys = ["floor0", "floor1", "floor2", "floor3"];
        let dome_c = x.planned.request.oven.dome_c;
        let rows = |at: &Moment| -> Vec<Row> {
            let row = |key, y, name, celsius| Row {
                key,
                y,
                name,
                celsius,
            };
            let above = match plan.oven.kind {
                OvenKind::Home | OvenKind::StoneDeck => "Oven",
                OvenKind::ElectricDeck => "Top heat",
                _ => "Dome",
            };
            let mut all = vec![
                row("dome", 25.0, above, dome_c),
                row(
                    "topping",
                    80.0,
                    if plan.piece.sauce_g + plan.piece.cheese_g > 0.0 {
                        "Topping"
                    } else {
                        "Top"
                    },
                    at.top_c,
                ),
                row("rim", 108.0, "Rim", at.rim_c),
                row("crumb", 136.0, "Crumb", at.middle_c),
                row("base", 164.0, "Base", at.base_c),
            ];
            let gap = (290.0 - 204.0) / (depths.len().max(2) - 1) as f64;
            for (i, mm) in depths.iter().enumerate() {
                let name: &'static str = match *mm {
                    0.0 => "Floor face",
                    10.0 => "10 mm down",
                    30.0 => "30 mm",
                    60.0 => "60 mm",
                    _ => "its bottom",
                };
                let c = craft::fire::bake::floor_at(&x.planned.request, at, *mm);
                all.push(row(keys[i], 204.0 + gap * i as f64, name, c));
            }
            all
        };
        let shown: Vec<&Moment> = x
            .planned
            .course
            .moments
            .iter()
            .filter(|m| m.t <= end_s)
            .collect();
        let mut columns = serde_json::Map::new();
        for (i, r) in rows(&race.at).iter().enumerate() {
            let values: Vec<f64> = shown
                .iter()
                .map(|m| here_reads(here, rows(m)[i].celsius))
                .collect();
            columns.insert(r.key.into(), json!(values));
        }
        let tenth = |v: f64| (v * 10.0).round() / 10.0;
        let course_json = json!({
            "t": shown.iter().map(|m| m.t).collect::<Vec<_>>(),
            "rows": columns,
            "base": shown.iter().map(|m| tenth(m.base)).collect::<Vec<_>>(),
            "rim": shown.iter().map(|m| tenth(m.rim)).collect::<Vec<_>>(),
            "fahrenheit": here.measures.degree_unit() == "°F",
        })
        .to_string();
        let f = &x.firing;
        let fire = firing::Drawn {
            firing: f,
            band: x.band,
            readings: m.readings,
            now: here.now,
            serve_at: m.dough.serve_at,
            lit: m.lit_at.is_some(),
            zone: &here.zone,
            fired: plan.oven.kind.is_fired(),
        };
        let (head, core) = answer(m, plan, x);
        let mut notes = x.notes.clone();
        let more = notes.split_off(notes.len().min(3));
        let (remedies, more_remedies) = remedies(m, x);
        let electric = plan.oven.fuel == Fuel::Electric;
        let cue_error = |i: usize| {
            m.errors
                .iter()
                .find(|e| e.field == format!("cue[{i}].s"))
                .map(|e| e.message.clone())
        };
        let cues = x
            .planned
            .programme
            .turns
            .iter()
            .enumerate()
            .map(|(i, t)| CueView {
                i,
                words: t.say.words(),
                say: t.say.key(),
                value: min_s(f64::from(t.at_s)),
                error: cue_error(i),
            })
            .collect();
        Picture {
            lines: lines(m, plan, x),
            race: [chart::race(&drawn, 810.0), chart::race(&drawn, 366.0)],
            section: chart::section(&rows(&race.at), &here.measures, plan.pan.is_some()),
            firing: [
                firing(&fire, &here.measures, 770.0),
                firing(&fire, &here.measures, 366.0),
            ],
            course_json,
            scrub_max: format!("{end_s:.0}"),
            scrub_at: format!("{:.0}", race.best_s),
            scrub_says: at_words(&race.at),
            test: x.band.map(launch_test),
            fuel: match (f.fuel_kg, plan.oven.fuel) {
                (Some(kg), Fuel::Wood) => {
                    format!("{kg:.1} kg of dry wood in all, as a guide; readings correct it.")
                }
                (Some(kg), _) => format!("{kg:.1} kg of gas in all, as a guide."),
                (None, _) if electric && !is_tray(&plan.setting) => format!(
                    "{:.0} % charged at the serve time.",
                    100.0 * f.charged.min(1.0)
                ),
                _ => "The tray goes in cold: only the oven's air is heated.".into(),
            },
            fitted: desk::of_readings(f),
            notes,
            more,
            remedies,
            more_remedies,
            options: race.window.is_some(),
            contact: contact(plan, x),
            cues,
            out: min_s(f64::from(x.planned.programme.out_s)),
            run: run(m, x),
            head,
            core,
        }
    }
}

fn here_reads(here: &Here, c: f64) -> f64 {
    craft::units::Celsius(c)
        .reads(here.measures.temperature)
        .round()
}

fn named(item: Item, set_c: f64) -> (&'static str, &'static str) {
    match item {
        Item::Base => ("Base", "colour below"),
        Item::Rim => ("Rim", "colour above"),
        Item::Crumb if set_c >= 85.0 => ("Crumb", "hot all through"),
        Item::Crumb => ("Crumb", "set all through"),
        Item::Topping => ("Topping", "bubbles settle"),
        Item::Cheese => ("Cheese", "melted"),
    }
}

/// The sentence of the page.
fn answer(m: &Made, plan: &craft::fire::FirePlan, x: &Looked) -> (String, String) {
    let race = &x.planned.race;
    let pull = if race.best_s < 180.0 {
        format!("Pull at {}.", bake_time(race.best_s))
    } else {
        format!("Pull after {}.", bake_time(race.best_s))
    };
    let urgent = x
        .notes
        .iter()
        .find(|n| n.code == "floor_ahead" || n.code == "floor_behind" || n.code == "charged_late");
    let hm = |t: Timestamp| hm(&m.here.local(t));
    let head = match (urgent, race.window, m.lit_at) {
        (Some(n), ..) => format!("{}.", n.what),
        (None, None, _) => x
            .notes
            .first()
            .map_or("No moment at which all is right.".into(), |n| {
                format!("{}.", n.what)
            }),
        (None, Some(_), Some(_)) => x
            .firing
            .ready_at
            .map_or("Not charged within 4 h.".into(), |t| {
                format!("Charged at {}.", hm(t))
            }),
        (None, Some(_), None) if plan.oven.kind.is_fired() => {
            format!("Light it at {}.", hm(x.firing.light_at))
        }
        (None, Some(_), None) => format!("Switch it on at {}.", hm(x.firing.light_at)),
    };
    (head, pull)
}

fn lines(m: &Made, plan: &craft::fire::FirePlan, x: &Looked) -> [String; 2] {
    let me = &m.here.measures;
    let name = if plan.pan.is_some() { "tray" } else { "round" };
    let band = x.band.map_or(String::new(), |(a, b)| {
        format!("floor {} to {}°, ", me.degrees(a, 0), me.degrees(b, 0))
    });
    let people = if m.dough.pieces == 1 {
        "one".into()
    } else {
        format!("{} pieces", m.dough.pieces)
    };
    [
        format!(
            "{}, {name} of {}",
            plan.oven.name,
            me.weighed(plan.piece.ball_g)
        ),
        format!(
            "{band}{people}, serve {}",
            hm(&m.here.local(m.dough.serve_at))
        ),
    ]
}

fn remedies(m: &Made, x: &Looked) -> (Vec<RemedyView>, Vec<RemedyView>) {
    let now = &x.planned.race;
    let mut all: Vec<RemedyView> = x
        .remedies
        .iter()
        .filter(|t| t.helps)
        .map(|t| {
            let window = match t.window {
                Some(w) => format!(
                    "right from {} to {}",
                    bake_time(w.from_s),
                    bake_time(w.to_s)
                ),
                None => "still no moment at which all is right".into(),
            };
            RemedyView {
                key: t.change.key(),
                words: t.change.words(),
                effect: format!(
                    "Pull at {} instead of {}, {window}; base {:+.1}, rim {:+.1}.",
                    bake_time(t.best_s),
                    bake_time(now.best_s),
                    t.base_by,
                    t.rim_by
                ),
                dough: t.change.is_dough() && m.dough.mixed,
            }
        })
        .collect();
    let more = all.split_off(all.len().min(3));
    (all, more)
}

/// What the skin meets, in one line.
fn contact(plan: &craft::fire::FirePlan, x: &Looked) -> String {
    if plan.pan.is_some() {
        return "In a pan the metal stands between floor and dough: it slows the base at first."
            .into();
    }
    let o = &x.planned.request.oven;
    let c = o.floor.contact_c(o.floor_c, plan.piece.dough_c);
    format!(
        "Where {} of {:.0} °C and dough touch, both would take {:.0} °C at once; steam and poor contact keep the skin 20 to 30 below.",
        o.floor.name(),
        o.floor_c,
        c
    )
}

fn run(m: &Made, x: &Looked) -> Vec<(String, String)> {
    let s = &x.service;
    let mut out = vec![];
    if m.dough.pieces > 1 {
        out.push(("One out every".into(), bake_time(s.pace_s)));
        out.push(("Last one out".into(), hm(&m.here.local(s.last_out_at))));
    }
    if let Some(g) = s.gap_s {
        let range = desk::spoken_range(0.75 * g, 1.25 * g);
        out.push((
            "Pause of a spot".into(),
            if g < 20.0 { "none".into() } else { range },
        ));
    }
    out.push((
        "Its face after one".into(),
        format!("{}°", m.here.measures.degrees(s.recovery.exit_c, 0)),
    ));
    if let Some(w) = s.recovery.wait_s {
        out.push(("Back within 15° in".into(), bake_time(w)));
    }
    if s.spares > 0 {
        out.push(("Spare balls".into(), s.spares.to_string()));
    }
    let launches: Vec<f64> = s.launches.iter().map(|l| l.0).collect();
    if let (Some(first), Some(last)) = (launches.first(), launches.last())
        && launches.len() > 1
    {
        let me = &m.here.measures;
        let says = if (first - last).abs() < 3.0 {
            format!("{} at each", me.degrees(*first, 0))
        } else {
            let all = launches.iter().take(6).map(|c| me.degrees(*c, 0));
            all.collect::<Vec<_>>().join(" ")
        };
        out.push(("Launches of a spot, °".into(), says));
    }
    out
}

/// Floor readings of a batch, for the firing.
pub fn readings(told: &crate::shared::progress::Told) -> Vec<FloorRead> {
    use craft::reading::Subject;
    use store::observation::Seen;
    told.seen()
        .filter_map(|o| match o.seen {
            Seen::Reading {
                subject: Subject::Floor,
                celsius,
            } => Some(FloorRead {
                at: o.at,
                c: celsius,
            }),
            _ => None,
        })
        .collect()
}

/// The whole answer of the core, for a form that could be read.
pub fn looked(
    read: &Read,
    dough: &Dough,
    here: &Here,
    readings: &[FloorRead],
    lit_at: Option<Timestamp>,
) -> Result<Looked, Vec<FieldError>> {
    desk::look(&desk::Asked {
        plan: &read.plan,
        room_c: dough.room_c,
        serve_at: dough.serve_at,
        lit_at,
        readings: readings.to_vec(),
        pieces: dough.pieces,
        hands: read.hands,
        each_s: read.each_s,
        closes_at: dough.closes_at,
        now: here.now,
        zone: &here.zone,
    })
    .map_err(|e| super::form::at_fields(e.0))
}
