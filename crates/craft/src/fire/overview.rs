//! All that is asked of a fire at once: the race, the band of the floor, the firing, the run, what to change.

use super::firing::{Firing, FiringRequest, FloorRead, at, firing};
use super::oven::Fuel;
use super::plan::{FirePlan, PlannedBake};
use super::race::{Race, RaceItem};
use super::remedy::{Tried, remedies};
use super::service::{Service, ServiceRequest, service};
use super::setup::Aim;
use super::words::band;
use super::work::Work;
use crate::fact;
use crate::fact::{Fact, Kelvin, Minutes, Percent, Seconds, Value, whole};
use crate::note::{Note, by_urgency};
use crate::refusal::ValidationError;
use crate::units::Celsius;
use jiff::{SignedDuration, Timestamp};

/// A fire with its hour and its people.
#[derive(Debug, Clone)]
pub struct OverviewRequest<'a> {
    /// The fire that is planned.
    pub plan: &'a FirePlan,
    /// The room, °C.
    pub room_c: f64,
    /// When the first one is wanted.
    pub serve_at: Timestamp,
    /// When it was lit or switched on, where that was said.
    pub lit_at: Option<Timestamp>,
    /// What its floor read, in the order of the clock.
    pub readings: Vec<FloorRead>,
    /// When the first one went in, once it did: the firing is over, and readings after that are of a floor in use.
    pub baking_since: Option<Timestamp>,
    /// So many are baked.
    pub pieces: u32,
    /// People at bench and oven.
    pub hands: u32,
    /// What one pizza takes of a person.
    pub work: Work,
    /// Until when the dough is ready.
    pub closes_at: Option<Timestamp>,
    /// The present.
    pub now: Timestamp,
}

impl OverviewRequest<'_> {
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
pub struct FireOverview {
    /// One bake as planned.
    pub planned: PlannedBake,
    /// Floor temperatures to launch at, °C.
    pub band: Option<(f64, f64)>,
    /// When to light it, and what to burn.
    pub firing: Firing,
    /// The run, where it was asked for.
    pub service: Option<Service>,
    /// What would make the bake better, the best first.
    pub remedies: Vec<Tried>,
    /// Judgements, the gravest first.
    pub notes: Vec<Note>,
}

/// What a change moves at once: the race, the band of the floor, the firing. The run and what to change are left out.
///
/// Errors: the fields of the plan outside their ranges.
pub fn look_first(a: &OverviewRequest) -> Result<FireOverview, ValidationError> {
    let mut out = bare(a)?;
    out.notes = judged(a, &out);
    Ok(out)
}

fn bare(a: &OverviewRequest) -> Result<FireOverview, ValidationError> {
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
    Ok(FireOverview {
        planned,
        band,
        firing,
        service: None,
        remedies: vec![],
        notes: vec![],
    })
}

fn judged(a: &OverviewRequest, x: &FireOverview) -> Vec<Note> {
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
pub fn look(a: &OverviewRequest) -> Result<FireOverview, ValidationError> {
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
        let run = service(a.plan, planned, &run);
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
pub fn spread_words(race: &Race) -> Option<Fact> {
    let s = race.spread_s()?;
    Some(if s <= 4.0 {
        fact!("dead-heat", time = Seconds(s))
    } else if s <= 8.0 {
        fact!("near-level", time = Seconds(s))
    } else {
        fact!("spread-of", time = Seconds(s))
    })
}

fn of_race(x: &FireOverview) -> Vec<Note> {
    let r = &x.planned.race;
    let mut out = Vec::new();
    let burns = r.first_spoiled.and_then(|i| {
        let s = r.lane(i)?.spoils_s?;
        Some(fact!("too-much-from", item = i.name(), time = Seconds(s)))
    });
    match r.window {
        Some(w) => {
            let last = fact!("ready-last", item = r.last_ready.name());
            let why = match burns {
                Some(b) => fact!("ready-last-then", last = last, burns = b),
                None => fact!("ready-last-nothing", last = last),
            };
            let to: Value = if w.at_least {
                fact!("and-longer", time = Seconds(w.to_s)).into()
            } else {
                Seconds(w.to_s).into()
            };
            let what = fact!("bake-window", from = Seconds(w.from_s), to = to);
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
                    (RaceItem::Base | RaceItem::Rim, -1) => fact!("pale"),
                    (RaceItem::Base | RaceItem::Rim, _) => fact!("too-dark"),
                    (RaceItem::Crumb, _) => fact!("not-set"),
                    (RaceItem::Topping, -1) => fact!("wet"),
                    (RaceItem::Topping, _) => fact!("dry"),
                    (RaceItem::Cheese, -1) => fact!("not-melted"),
                    (RaceItem::Cheese, _) => fact!("too-dark"),
                };
                let why = match l.ready_s {
                    None => fact!(
                        "never-right",
                        time = Seconds(r.best_s),
                        item = l.item.name()
                    ),
                    Some(s) if l.verdict > 0 => fact!(
                        "right-too-early",
                        time = Seconds(s),
                        last = r.last_ready.name()
                    ),
                    Some(s) => fact!("right-too-late", time = Seconds(s)),
                };
                let mut note = Note::act(
                    "no_bake_window",
                    fact!("no-bake-window", item = l.item.name(), word = word),
                    why,
                );
                if let Some(best) = x.remedies.first().filter(|t| t.helps) {
                    note = note.todo(fact!("most-one-change", what = best.change.words()));
                }
                out.push(note);
            }
        }
    }
    for d in x.planned.request.doubts() {
        out.push(Note::watch(
            "outside_checked",
            d,
            fact!("outside-checked-why"),
        ));
    }
    if x.planned.turned_sooner
        && let Some(t) = x.planned.programme.turns.first()
    {
        out.push(Note::watch(
            "turn_sooner",
            fact!("turn-already", time = Seconds(f64::from(t.at_s))),
            fact!("turn-already-why"),
        ));
    }
    if x.planned.request.aim == Aim::Hot {
        let word = match r.spots {
            s if s >= 60.0 => fact!("spots-many"),
            s if s >= 25.0 => fact!("spots-some"),
            _ => fact!("spots-few"),
        };
        out.push(Note::holds("spots", word, fact!("spots-why")));
    }
    if r.at.rim > 0.0 && r.evenness < 70.0 {
        out.push(Note::watch(
            "uneven_rim",
            fact!("uneven-rim"),
            fact!("uneven-rim-why", evenness = whole(r.evenness)),
        ));
    }
    out
}

/// Whether it is switched on; else it is lit.
fn switched_on(plan: &FirePlan) -> bool {
    plan.oven.fuel == Fuel::Electric
}

/// When to begin, so that the floor is charged.
fn charged_from(plan: &FirePlan, at: Timestamp) -> Fact {
    if switched_on(plan) {
        fact!("switch-on-at", at = at)
    } else {
        fact!("light-at", at = at)
    }
}

/// What the readings said of the oven's pace.
pub fn of_readings(f: &Firing) -> Option<Fact> {
    let x = f.fitted?;
    Some(fact!(
        "of-readings",
        n = x.readings,
        pace = Percent(whole(100.0 * x.pace))
    ))
}

fn of_firing(a: &OverviewRequest, x: &FireOverview) -> Vec<Note> {
    let mut out = Vec::new();
    let f = &x.firing;
    if f.tray {
        return out;
    }
    let of_readings = of_readings(f).map(|x| fact!("also", what = x));
    match f.ready_at {
        _ if a.baking_since.is_some() => {}
        None => {
            let core_c = f.course.last().map_or(0.0, |c| c.core_c);
            let todo = if a.plan.oven.kind.is_fired() {
                fact!("never-charged-feed")
            } else {
                fact!("never-charged-hotter")
            };
            out.push(
                Note::act(
                    "never_charged",
                    fact!("never-charged"),
                    fact!(
                        "never-charged-why",
                        c = Celsius(core_c),
                        more = of_readings.clone()
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
                        fact!("charged-late", at = t, time = Minutes(late.round())),
                        fact!("charged-late-why", more = of_readings.clone()),
                    )
                    .todo(fact!("charged-late-todo")),
                );
            } else if a.lit_at.is_some() {
                out.push(Note::holds(
                    "charged_in_time",
                    fact!("charged-in-time", at = t),
                    fact!("charged-in-time-why", more = of_readings.clone()),
                ));
            } else if let Some(on_min) = a.plan.preheat_min.filter(|_| late > 1.0) {
                let (face_c, core_c) =
                    at(&f.course, 60.0 * on_min).map_or((0.0, 0.0), |c| (c.face_c, c.core_c));
                out.push(
                    Note::watch(
                        "short_preheat",
                        fact!(
                            "short-preheat",
                            time = Minutes(on_min.round()),
                            c = Celsius(core_c)
                        ),
                        fact!(
                            "short-preheat-why",
                            c = Celsius(face_c),
                            time = Minutes(late.round())
                        ),
                    )
                    .todo(charged_from(
                        a.plan,
                        f.light_at - SignedDuration::from_secs_f64(60.0 * late.ceil()),
                    )),
                );
            } else if a.now > f.light_at {
                let min = a.now.duration_since(f.light_at).as_secs_f64() / 60.0;
                out.push(Note::act(
                    "light_now",
                    if switched_on(a.plan) {
                        fact!("switch-on-now", at = f.light_at)
                    } else {
                        fact!("light-now", at = f.light_at)
                    },
                    fact!("light-now-why", time = Minutes(min.round())),
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
                fact!("face-ahead", band = band((low, high))),
                fact!(
                    "face-ahead-why",
                    c = Celsius(then.face_c),
                    by = Kelvin(then.face_c - high)
                ),
            )
            .todo(fact!("face-ahead-todo")),
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
                    fact!("floor-ahead", by = Kelvin(last.c - high)),
                    fact!(
                        "read-at-launch-at",
                        c = Celsius(last.c),
                        at = last.at,
                        band = band((low, high))
                    ),
                )
                .todo(fact!("floor-ahead-todo")),
            );
        } else if fresh && near && last.c < low {
            out.push(Note::watch(
                "floor_behind",
                fact!("floor-behind", by = Kelvin(low - last.c)),
                fact!(
                    "read-at-launch-at",
                    c = Celsius(last.c),
                    at = last.at,
                    band = band((low, high))
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
            fact!("core-behind", c = Celsius(c.core_c)),
            fact!("core-behind-why"),
        ));
    }
    out
}

/// How to know that it is ready, in words.
pub fn launch_test(band: (f64, f64)) -> Fact {
    let spread = ((band.1 - band.0) * 0.75).clamp(15.0, 40.0);
    fact!(
        "launch-test",
        band = super::words::band(band),
        by = Kelvin((spread / 5.0).round() * 5.0)
    )
}
