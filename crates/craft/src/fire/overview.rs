//! All that is asked of a fire at once: the race, the band of the floor, the firing, the run, what to change.

use super::firing::{Firing, FiringRequest, FloorRead, at, firing};
use super::oven::Fuel;
use super::plan::{FirePlan, Planned};
use super::race::{Item, Race};
use super::remedy::{Tried, remedies};
use super::says::Says;
use super::service::{Service, ServiceRequest, service};
use super::setup::Aim;
use super::words::{bake_time, capital};
use super::work::Work;
use crate::note::{Note, by_urgency};
use crate::refusal::ValidationError;
use jiff::{SignedDuration, Timestamp};

/// A fire with its hour and its people.
#[derive(Debug, Clone)]
pub struct Asked<'a> {
    pub plan: &'a FirePlan,
    pub room_c: f64,
    pub serve_at: Timestamp,
    pub lit_at: Option<Timestamp>,
    pub readings: Vec<FloorRead>,
    /// When the first one went in, once it did: the firing is over, and readings after that are of a floor in use.
    pub baking_since: Option<Timestamp>,
    pub pieces: u32,
    pub hands: u32,
    pub work: Work,
    pub closes_at: Option<Timestamp>,
    pub now: Timestamp,
    pub says: Says<'a>,
}

impl Asked<'_> {
    /// Readings of the firing: before the first pizza.
    fn firing_reads(&self) -> Vec<FloorRead> {
        let before = |r: &&FloorRead| self.baking_since.is_none_or(|t| r.at <= t);
        self.readings.iter().filter(before).copied().collect()
    }

    /// When the first one can go in: at the serve time, or when the oven is there; one that should be lit by now is so much later.
    fn first_at(&self, f: &Firing) -> Timestamp {
        let overdue = match (self.lit_at, self.baking_since) {
            (None, None) => self
                .now
                .duration_since(f.light_at)
                .max(SignedDuration::ZERO),
            _ => SignedDuration::ZERO,
        };
        (self.serve_at + overdue).max(f.ready_at.unwrap_or(self.serve_at))
    }
}

/// The answers.
#[derive(Debug, Clone)]
pub struct Looked {
    pub planned: Planned,
    /// Floor temperatures to launch at, °C.
    pub band: Option<(f64, f64)>,
    pub firing: Firing,
    /// The run, where it was asked for.
    pub service: Option<Service>,
    pub remedies: Vec<Tried>,
    pub notes: Vec<Note>,
}

/// What a change moves at once: the race, the band of the floor, the firing. The run and what to change are left out.
///
/// Errors: the fields of the plan outside their ranges.
pub fn look_first(a: &Asked) -> Result<Looked, ValidationError> {
    let mut out = bare(a)?;
    out.notes = judged(a, &out);
    Ok(out)
}

fn bare(a: &Asked) -> Result<Looked, ValidationError> {
    let planned = a.plan.planned()?;
    let band = a.plan.floor_band(&planned.race);
    let firing = firing(&FiringRequest {
        oven: a.plan.oven.clone(),
        setting: a.plan.setting,
        room_c: a.room_c,
        ready_by: a.serve_at,
        for_min: a.plan.preheat_min,
        lit_at: a.lit_at,
        readings: a.firing_reads(),
    });
    Ok(Looked {
        planned,
        band,
        firing,
        service: None,
        remedies: vec![],
        notes: vec![],
    })
}

fn judged(a: &Asked, x: &Looked) -> Vec<Note> {
    let mut notes = of_race(x);
    notes.extend(of_firing(a, x));
    // While nobody knows when the floor is there, nobody knows when the last one is out.
    let unknown = x.firing.ready_at.is_none() && a.baking_since.is_none() && !x.firing.tray;
    let of_run = x.service.iter().flat_map(|s| s.notes.iter().cloned());
    notes.extend(
        of_run.filter(|n| !unknown || !["run_fits", "run_too_long"].contains(&n.code.as_str())),
    );
    by_urgency(notes)
}

/// Works it all out.
///
/// Errors: the fields of the plan or of the run outside their ranges.
pub fn look(a: &Asked) -> Result<Looked, ValidationError> {
    let mut out = bare(a)?;
    let (planned, firing) = (&out.planned, &out.firing);
    let run = ServiceRequest {
        pieces: a.pieces.clamp(1, 1000),
        hands: a.hands,
        work: a.work,
        first_at: a.first_at(firing),
        closes_at: a.closes_at,
    };
    // The two that take long know nothing of each other: each has a core of its own where there are two.
    let (service, remedies) = std::thread::scope(|s| {
        let tried = s.spawn(|| remedies(a.plan, &planned.race));
        let run = service(a.plan, planned, &run, &a.says);
        match tried.join() {
            Ok(tried) => (run, tried),
            Err(panic) => std::panic::resume_unwind(panic),
        }
    });
    out.service = Some(service?);
    out.remedies = remedies;
    out.notes = judged(a, &out);
    Ok(out)
}

/// "dead heat", "near level", or who leads: how the race runs.
pub fn spread_words(race: &Race) -> Option<String> {
    let s = race.spread_s()?;
    Some(if s <= 4.0 {
        format!("dead heat, {s:.0} s")
    } else if s <= 8.0 {
        format!("near level, {s:.0} s")
    } else {
        format!("spread {}", bake_time(s))
    })
}

fn of_race(x: &Looked) -> Vec<Note> {
    let r = &x.planned.race;
    let mut out = Vec::new();
    let burns = r.first_spoiled.and_then(|i| {
        let s = r.lane(i)?.spoils_s?;
        Some(format!("{} is too much from {}", i.name(), bake_time(s)))
    });
    match r.window {
        Some(w) => {
            let last = format!("The {} is ready last", r.last_ready.name());
            let why = match &burns {
                Some(b) => format!("{last}; the {b}."),
                None => format!("{last}; nothing spoils while it was followed."),
            };
            let to = if w.at_least {
                format!("{} and longer", bake_time(w.to_s))
            } else {
                bake_time(w.to_s)
            };
            let what = format!("All of it right from {} to {to}", bake_time(w.from_s));
            out.push(if w.to_s - w.from_s < 6.0 {
                Note::watch("narrow_window", what, why)
            } else {
                Note::holds("bake_window", what, why)
            });
        }
        None => {
            let worst = r
                .lanes
                .iter()
                .filter(|l| l.verdict != 0)
                .max_by(|a, b| a.miss.abs().total_cmp(&b.miss.abs()));
            if let Some(l) = worst {
                let word = match (l.item, l.verdict) {
                    (Item::Base | Item::Rim, -1) => "pale",
                    (Item::Base | Item::Rim, _) => "too dark",
                    (Item::Crumb, _) => "not set",
                    (Item::Topping, -1) => "wet",
                    (Item::Topping, _) => "dry",
                    (Item::Cheese, -1) => "not melted",
                    (Item::Cheese, _) => "too dark",
                };
                let why = match l.ready_s {
                    None => format!(
                        "At {} it is the best this fire gives, and the {} never comes right.",
                        bake_time(r.best_s),
                        l.item.name()
                    ),
                    Some(s) if l.verdict > 0 => format!(
                        "It is right at {} and too much before the {} is done.",
                        bake_time(s),
                        r.last_ready.name()
                    ),
                    Some(s) => format!("It takes {}; the rest cannot wait so long.", bake_time(s)),
                };
                let mut note = Note::act(
                    "no_bake_window",
                    format!("{} {word} when the rest is right", capital(l.item.name())),
                    why,
                );
                if let Some(best) = x.remedies.first().filter(|t| t.helps) {
                    note = note.todo(format!(
                        "{}: the most that one change does.",
                        best.change.words()
                    ));
                }
                out.push(note);
            }
        }
    }
    for d in x.planned.request.doubts() {
        out.push(Note::watch(
            "outside_checked",
            d,
            "The model was checked below that; take its seconds as a rough guide.",
        ));
    }
    if x.planned.turned_sooner
        && let Some(t) = x.planned.programme.turns.first()
    {
        out.push(Note::watch(
            "turn_sooner",
            format!("Turn at {} already", bake_time(f64::from(t.at_s))),
            "By then the side at the fire is near its limit; evenness alone would wait longer.",
        ));
    }
    if x.planned.request.aim == Aim::Hot {
        let word = match r.spots {
            s if s >= 60.0 => "Many leopard spots",
            s if s >= 25.0 => "Some leopard spots",
            _ => "Hardly any leopard spots",
        };
        out.push(Note::holds(
            "spots",
            word,
            "Strong heat from above in the first minute, on a dough that fermented cold, chars thin blisters. A tendency, no count.",
        ));
    }
    if r.at.rim > 0.0 && r.evenness < 70.0 {
        out.push(Note::watch(
            "uneven_rim",
            "One side of the rim comes out darker",
            format!("Evenness {:.0} of 100 with these turns.", r.evenness),
        ));
    }
    out
}

/// What begins a firing.
fn on(plan: &FirePlan) -> &'static str {
    if plan.oven.fuel == Fuel::Electric {
        "Switch it on"
    } else {
        "Light it"
    }
}

/// What the readings said of the oven's pace.
pub fn of_readings(f: &Firing) -> Option<String> {
    let x = f.fitted?;
    Some(format!(
        "By {} {}, the oven warms at {:.0} % of the book's pace.",
        x.readings,
        if x.readings == 1 {
            "reading"
        } else {
            "readings"
        },
        100.0 * x.pace
    ))
}

fn of_firing(a: &Asked, x: &Looked) -> Vec<Note> {
    let mut out = Vec::new();
    let f = &x.firing;
    let says = a.says;
    let hm = |t: Timestamp| says.hm(t);
    if f.tray {
        return out;
    }
    let of_readings = of_readings(f).map_or(String::new(), |says| format!(" {says}"));
    match f.ready_at {
        _ if a.baking_since.is_some() => {}
        None => {
            let core_c = f.course.last().map_or(0.0, |c| c.core_c);
            let todo = if a.plan.oven.kind.is_fired() {
                "Feed more and read again, or launch on a cooler floor."
            } else {
                "Set it hotter, or launch on a cooler floor."
            };
            out.push(
                Note::act(
                    "never_charged",
                    "This floor does not get there within 4 h",
                    format!(
                        "So its core comes to {} by then.{of_readings}",
                        says.degrees(core_c)
                    ),
                )
                .todo(todo),
            )
        }
        Some(t) => {
            let late = t.duration_since(a.serve_at).as_secs_f64() / 60.0;
            if a.lit_at.is_some() && late > 5.0 {
                out.push(
                    Note::act(
                        "charged_late",
                        format!("Ready at {}, {late:.0} min after the serve time", hm(t)),
                        format!("Face and core must both be charged.{of_readings}"),
                    )
                    .todo("Feed more now, or serve later."),
                );
            } else if a.lit_at.is_some() {
                out.push(Note::holds(
                    "charged_in_time",
                    format!("Ready at {}", hm(t)),
                    format!("Face and core charged.{of_readings}"),
                ));
            } else if let Some(on_min) = a.plan.preheat_min.filter(|_| late > 1.0) {
                let (face_c, core_c) =
                    at(&f.course, 60.0 * on_min).map_or((0.0, 0.0), |c| (c.face_c, c.core_c));
                out.push(
                    Note::watch(
                        "short_preheat",
                        format!("{on_min:.0} min leave the core at {}", says.degrees(core_c)),
                        format!(
                            "Its face then is {}; charged is {late:.0} min later. The race is run on that floor.",
                            says.degrees(face_c)
                        ),
                    )
                    .todo(format!(
                        "{} at {} for a charged floor.",
                        on(a.plan),
                        hm(f.light_at - SignedDuration::from_secs_f64(60.0 * late.ceil()))
                    )),
                );
            } else if a.now > f.light_at {
                let min = a.now.duration_since(f.light_at).as_secs_f64() / 60.0;
                out.push(Note::act(
                    "light_now",
                    format!("{} now: it was due at {}", on(a.plan), hm(f.light_at)),
                    format!("Every minute from here moves the serve time: {min:.0} so far."),
                ));
            }
        }
    }
    // A fire climbs past what the floor is wanted at before the core is there.
    if let (None, Some((low, high)), true) = (a.lit_at, x.band, a.plan.oven.kind.is_fired())
        && let Some(then) = at(
            &f.course,
            a.serve_at.duration_since(f.light_at).as_secs_f64(),
        )
        && then.face_c > high + 5.0
    {
        out.push(
            Note::watch(
                "face_ahead",
                format!(
                    "Let the face even out before the first one: launch at {}",
                    says.band((low, high))
                ),
                format!(
                    "When the core is charged its face is at {}, {} over.",
                    says.degrees(then.face_c),
                    says.by(then.face_c - high)
                ),
            )
            .todo("Push the fire aside some ten minutes before, then read five points."),
        );
    }
    if let (Some(last), Some((low, high))) = (a.readings.iter().max_by_key(|r| r.at), x.band) {
        let fresh = a.now.duration_since(last.at).as_secs_f64() < 45.0 * 60.0;
        let near = a.baking_since.is_some()
            || a.serve_at.duration_since(a.now).as_secs_f64() < 40.0 * 60.0;
        if fresh && near && last.c > high {
            out.push(
                Note::act(
                    "floor_ahead",
                    format!("Floor is {} ahead", says.by(last.c - high)),
                    format!(
                        "Read {} at {}; launch at {}.",
                        says.degrees(last.c),
                        hm(last.at),
                        says.band((low, high))
                    ),
                )
                .todo("Rake back or turn down, and read again in five minutes."),
            );
        } else if fresh && near && last.c < low {
            out.push(Note::watch(
                "floor_behind",
                format!("Floor is {} short", says.by(low - last.c)),
                format!(
                    "Read {} at {}; launch at {}.",
                    says.degrees(last.c),
                    hm(last.at),
                    says.band((low, high))
                ),
            ));
        }
    }
    let by = a.serve_at.duration_since(f.light_at).as_secs_f64().max(0.0);
    if let Some(c) = at(&f.course, by)
        && a.lit_at.is_some()
        && a.baking_since.is_none()
        && c.core_c < 0.85 * a.plan.oven.floor_at(&a.plan.setting)
    {
        out.push(Note::watch(
            "core_behind",
            format!(
                "The core is only {} at the serve time",
                says.degrees(c.core_c)
            ),
            "The first pizzas take more than the floor can give back.",
        ));
    }
    out
}

/// How to know that it is ready, in words.
pub fn launch_test(band: (f64, f64), says: &Says) -> String {
    let spread = ((band.1 - band.0) * 0.75).clamp(15.0, 40.0);
    format!(
        "Read five points, the middle and four corners: all in {}, no more than {} apart.",
        says.band(band),
        says.by((spread / 5.0).round() * 5.0)
    )
}
