//! What to say of a run: too warm, too cold, too full, too long; and what to do about it, each with its own end.
//!
//! Source: mixing and shaping, section 7.

use super::at_work::{DOUBTFUL_K, MixLook, MixQuestion, RIGHT_K};
use super::bowl::course;
use super::gluten::NO_WINDOW_AFTER;
use super::run::MixTrouble;
use super::{
    BowlStep, COLDEST_WATER_C, FrictionFigures, HOTTEST_WATER_C, HowSure, Mixer, Mixing, OverMixed,
    ReadySign, Speed,
};
use crate::fact;
use crate::fact::{Fact, Kelvin, Minutes, Value, tenth, whole};
use crate::note::{Note, by_urgency};
use crate::units::Celsius;

/// The gluten suffers above, °C, where a cooler dough is wanted.
const TOO_WARM_C: f64 = 27.0;
const COOL_WISH_C: f64 = 26.0;
/// A dough that reads so much is hot whatever was wanted, °C.
const HOT_C: f64 = 28.0;
/// Fills below which a hook runs past the dough.
const SMALL: f64 = 0.25;
const MUCH_TOO_SMALL: f64 = 1.0 / 6.0;
/// A dry dough on a strong flour wants a rest.
const DRY_PERCENT: f64 = 58.0;
const STRONG_W: f64 = 320.0;
/// Something that was said is spoken of for so long, min.
const SPOKEN_OF_MIN: f64 = 15.0;
/// More parts than this are staged water.
const STAGED: usize = 4;

/// The judgements of a run, the gravest first.
pub(super) fn of_run(
    q: &MixQuestion,
    look: &MixLook,
    figures: &FrictionFigures,
    capped: bool,
) -> Vec<Note> {
    let mut out = vec![];
    let begun = !q.run.begun.is_empty();
    if !begun {
        out.extend(look.water.notes.iter().cloned());
    }
    let over = q.run.ended_at(q.by.programme.steps.len()).is_some();
    if !over {
        temperature(q, look, figures, capped, &mut out);
        size(q, look, &mut out);
    }
    work(q, look, over, &mut out);
    readings(look, &mut out);
    if !over {
        sureness(q, look, &mut out);
        if q.by.programme.rises_in_the_bowl() {
            out.push(Note::holds(
                "rises_in_the_bowl",
                fact!("mix-rises-in-the-bowl"),
                fact!("mix-rises-in-the-bowl-why"),
            ));
        }
    }
    by_urgency(out)
}

fn temperature(
    q: &MixQuestion,
    look: &MixLook,
    figures: &FrictionFigures,
    capped: bool,
    out: &mut Vec<Note>,
) {
    let wanted = q.water.target_dough_c;
    let end = look.end_c;
    let last = q.run.readings.last().map(|r| r.dough_c);
    if let Some(c) = last.filter(|c| *c >= HOT_C.max(wanted + 2.0)) {
        out.push(
            Note::act(
                "dough_hot",
                fact!("mix-dough-hot", c = Celsius(tenth(c))),
                fact!("mix-dough-hot-why", wanted = Celsius(wanted)),
            )
            .todo(fact!("mix-dough-hot-todo")),
        );
        return;
    }
    let too_warm = end > TOO_WARM_C && wanted <= COOL_WISH_C;
    if end > wanted + RIGHT_K {
        let todo = remedies(q, look, figures, capped);
        let what = fact!("mix-ends-warm", end = Celsius(tenth(end)));
        let why = fact!(
            "mix-ends-warm-why",
            wanted = Celsius(wanted),
            off = Kelvin(tenth(end - wanted))
        );
        let note = match too_warm || end > wanted + 2.0 {
            true => Note::act("ends_warm", what, why),
            false => Note::watch("ends_warm", what, why),
        };
        out.push(note.todo(todo));
    } else if end < wanted - 1.5 {
        let todo = match &look.next {
            Some(n) if n.all.at_c <= HOTTEST_WATER_C => fact!(
                "mix-last-water",
                c = Celsius(whole(n.all.at_c)),
                end = Celsius(wanted)
            ),
            _ if look.development.index < 0.9 && q.by.programme.kind != Mixer::Hand => {
                fact!("mix-a-minute-more")
            }
            _ => fact!("mix-warmer-place"),
        };
        let why = fact!(
            "mix-ends-cold-why",
            wanted = Celsius(wanted),
            off = Kelvin(tenth(wanted - end))
        );
        let what = fact!("mix-ends-cold", end = Celsius(tenth(end)));
        out.push(Note::watch("ends_cold", what, why).todo(todo));
    } else {
        minutes(q, look, out);
    }
    if let Some(n) = &look.next
        && q.run.began_at().is_some()
        && !(COLDEST_WATER_C..=HOTTEST_WATER_C).contains(&n.all.at_c)
    {
        let limit = n.all.poured_c();
        out.push(Note::watch(
            "last_water_cannot",
            fact!(
                "mix-last-water-cannot",
                c = Celsius(limit),
                end = Celsius(tenth(n.all.end_c(limit)))
            ),
            fact!(
                "mix-last-water-cannot-why",
                per = Kelvin(two(n.all.per_degree_k))
            ),
        ));
    }
}

/// Two digits behind the point.
fn two(v: f64) -> f64 {
    (v * 100.0).round() / 100.0
}

/// What minutes more would do, where it ends as it should.
fn minutes(q: &MixQuestion, look: &MixLook, out: &mut Vec<Note>) {
    let wanted = q.water.target_dough_c;
    let left = look
        .passes_warm_min
        .zip(look.now_min)
        .map(|(at, now)| at - now)
        .filter(|m| (0.0..=5.0).contains(m));
    if let Some(m) = left {
        out.push(Note::watch(
            "minutes_left",
            fact!(
                "mix-minutes-left",
                left = Minutes(m.floor().max(1.0)),
                c = Celsius(wanted + RIGHT_K)
            ),
            fact!("mix-minutes-left-why"),
        ));
        return;
    }
    let Some(k) = look.one_minute_more_k.filter(|k| k.abs() >= 0.05) else {
        return;
    };
    let band = if k > 0.0 {
        wanted + RIGHT_K - look.end_c
    } else {
        look.end_c - (wanted - RIGHT_K)
    };
    let most = (band / k.abs()).floor().clamp(0.0, 60.0);
    out.push(Note::holds(
        "minute_more",
        match k > 0.0 {
            true => fact!("mix-minute-adds", k = Kelvin(tenth(k).max(0.1))),
            false => fact!("mix-minute-takes", k = Kelvin(tenth(-k).max(0.1))),
        },
        fact!("mix-minute-more-why", most = Minutes(most)),
    ));
}

/// What can be done about a dough that ends too warm, in the order in which it costs least; each with its own end.
fn remedies(q: &MixQuestion, look: &MixLook, figures: &FrictionFigures, capped: bool) -> Fact {
    let wanted = q.water.target_dough_c;
    let mut all: Vec<Fact> = vec![];
    if let Some(n) = &look.next {
        let c = n.all.poured_c().floor();
        let end = n.all.end_c(c);
        if end < look.end_c - 0.1 && q.run.began_at().is_some() {
            all.push(fact!(
                "mix-last-water",
                c = Celsius(c),
                end = Celsius(tenth(end))
            ));
        }
    }
    let ends = |m: &Mixing| course(m, Some(figures), capped).end_c;
    if let Some((minutes, end)) = less_work(&look.left, wanted, &ends) {
        all.push(fact!(
            "mix-less-work",
            less = Minutes(minutes),
            rest = Minutes(10.0),
            end = Celsius(tenth(end))
        ));
    }
    if q.by.machine.bowl_comes_off
        && let Some((minutes, end)) = on_ice(&look.left, wanted, &ends)
    {
        all.push(fact!(
            "mix-on-ice",
            on_ice = Minutes(minutes),
            end = Celsius(tenth(end))
        ));
    }
    all.push(fact!("mix-shorter-bulk"));
    fact!("mix-remedies", all = Value::Sentences(all))
}

/// Minutes of work less in the last working step, and ten of rest, until it ends within half a degree.
fn less_work(m: &Mixing, wanted: f64, ends: &impl Fn(&Mixing) -> f64) -> Option<(f64, f64)> {
    let last = m
        .steps
        .iter()
        .rposition(|s| s.speed.is_machine() && s.minutes >= 2.0)?;
    let most = (m.steps[last].minutes - 1.0).floor();
    let mut best = None;
    for k in 1..=(most as u32).min(20) {
        let mut shorter = m.clone();
        shorter.steps[last].minutes -= f64::from(k);
        shorter
            .steps
            .insert(last + 1, BowlStep::plain(Speed::Off, 10.0));
        let end = ends(&shorter);
        best = Some((f64::from(k), end));
        if end <= wanted + 0.5 {
            break;
        }
    }
    best
}

/// Minutes on ice until it ends within half a degree, at most twenty.
fn on_ice(m: &Mixing, wanted: f64, ends: &impl Fn(&Mixing) -> f64) -> Option<(f64, f64)> {
    let mut best = None;
    for n in 1..=4 {
        let minutes = 5.0 * f64::from(n);
        let mut cooled = m.clone();
        let mut bath = BowlStep::plain(Speed::Off, minutes);
        bath.ice_bath = true;
        cooled.steps.push(bath);
        let end = ends(&cooled);
        best = Some((minutes, end));
        if end <= wanted + 0.5 {
            break;
        }
    }
    best
}

/// Too little or too much for the mixer.
fn size(q: &MixQuestion, look: &MixLook, out: &mut Vec<Note>) {
    let machine = q.by.machine;
    if machine.kind == Mixer::Hand {
        return;
    }
    let kg = look.laid.contents().weight_g / 1000.0;
    let fill = kg / machine.capacity_kg;
    let bears = machine.bears_kg(q.hydration_percent);
    if let Some(piece_g) = q.piece_g.filter(|g| *g > 1000.0 * bears) {
        // In whatever number of runs, no piece would come out of one.
        let what = fact!("mix-no-piece-fits", piece = Value::Grams(whole(piece_g)));
        let why = fact!("mix-over-capacity-why", bears = Value::Kilos(tenth(bears)));
        out.push(Note::act("over_capacity", what, why).todo(fact!("mix-no-piece-fits-todo")));
    } else if kg > bears + 1e-9 {
        out.push(
            Note::act(
                "over_capacity",
                fact!("mix-over-capacity", kg = Value::Kilos(tenth(kg))),
                fact!("mix-over-capacity-why", bears = Value::Kilos(tenth(bears))),
            )
            .todo(fact!(
                "mix-over-capacity-todo",
                runs = (kg / bears).ceil() as i64
            )),
        );
    } else if fill < SMALL {
        let what = fact!(
            "mix-small-batch",
            share = fact::Percent(whole(100.0 * fill))
        );
        let why = fact!("mix-small-batch-why");
        let note = match fill < MUCH_TOO_SMALL {
            true => Note::act("small_batch", what, why),
            false => Note::watch("small_batch", what, why),
        };
        out.push(note.todo(fact!("mix-small-batch-todo")));
    }
}

/// How it is worked: what was said of it, and how far the gluten is.
fn work(q: &MixQuestion, look: &MixLook, over: bool, out: &mut Vec<Note>) {
    let lately = |t: &MixTrouble| {
        q.run
            .troubles
            .iter()
            .any(|(at, x)| x == t && q.now.duration_since(*at).as_secs_f64() < 60.0 * SPOKEN_OF_MIN)
    };
    if !over {
        let rests = q.by.programme.steps.iter().any(|s| s.speed == Speed::Off);
        // A preferment without salt is meant to stay ragged.
        let dough = q.water.salt_g > 0.0;
        let stiff = dough && q.hydration_percent < DRY_PERCENT && q.w > STRONG_W && !rests;
        if lately(&MixTrouble::DryFlour) || stiff {
            out.push(
                Note::watch(
                    "not_hydrated",
                    fact!("mix-not-hydrated"),
                    fact!("mix-not-hydrated-why"),
                )
                .todo(fact!("mix-not-hydrated-todo")),
            );
        }
        if lately(&MixTrouble::Tears) || lately(&MixTrouble::Climbs) {
            out.push(
                Note::watch("forced", fact!("mix-forced"), fact!("mix-forced-why"))
                    .todo(fact!("mix-forced-todo")),
            );
        }
        if poured_early(q, look) {
            out.push(
                Note::watch(
                    "poured_early",
                    fact!("mix-poured-early"),
                    fact!("mix-poured-early-why"),
                )
                .todo(fact!("mix-poured-early-todo")),
            );
        }
    }
    if lately(&MixTrouble::WetAgain) {
        let why = fact!("mix-over-mixed-why");
        out.push(
            Note::act("over_mixed", fact!("mix-wet-again"), why).todo(fact!("mix-over-mixed-todo")),
        );
    } else if q.run.began_at().is_some() && !over {
        let programme = q.by.programme;
        let worked = look.goes.worked_min(look.now_min.unwrap_or(0.0));
        let most = programme.most_work_min;
        let what = fact!("mix-over-mixed");
        let why = match worked > most {
            true => fact!("mix-over-minutes-why", most = Minutes(most)),
            false => fact!("mix-over-mixed-why"),
        };
        match look.development.over_mixed(programme.kind, worked, most) {
            OverMixed::No => {}
            _ if programme.kind == Mixer::Hand => {
                let todo = fact!("mix-over-by-hand-todo");
                out.push(Note::watch("over_mixed", what, why).todo(todo));
            }
            OverMixed::Act => {
                let todo = fact!("mix-over-mixed-todo");
                out.push(Note::act("over_mixed", what, why).todo(todo));
            }
            OverMixed::Watch => {
                let todo = fact!("mix-over-mixed-todo");
                out.push(Note::watch("over_mixed", what, why).todo(todo));
            }
        }
    }
    let d = &look.development;
    if q.run.began_at().is_some() && !d.window && d.index > NO_WINDOW_AFTER && !over {
        out.push(
            Note::watch(
                "no_window",
                fact!("mix-no-window"),
                fact!("mix-no-window-why"),
            )
            .todo(fact!("mix-no-window-todo")),
        );
    }
}

/// Staged water that went in before the dough had gathered again.
fn poured_early(q: &MixQuestion, look: &MixLook) -> bool {
    let pours = |i: usize| {
        let step = look.laid.steps.get(i);
        step.is_some_and(|s| s.add.iter().any(|x| x.name.is_some()))
    };
    let parts = (0..look.laid.steps.len()).filter(|i| pours(*i)).count();
    if parts < STAGED {
        return false;
    }
    let began: Vec<_> = q
        .run
        .begun
        .iter()
        .enumerate()
        .filter(|(i, _)| pours(*i))
        .collect();
    let [.., (_, before), (_, last)] = began.as_slice() else {
        return false;
    };
    // Nobody who said no sign before it is told off for it.
    let any = q.run.signs.iter().any(|(at, _)| *at <= **last);
    let gathered = |(at, s): &(jiff::Timestamp, ReadySign)| {
        at > *before && at <= *last && *s >= ReadySign::WallClean
    };
    any && !q.run.signs.iter().any(gathered)
}

fn readings(look: &MixLook, out: &mut Vec<Note>) {
    if look.doubtful.is_empty() {
        return;
    }
    out.push(
        Note::watch(
            "reading_doubtful",
            fact!("mix-reading-doubtful"),
            fact!("mix-reading-doubtful-why", off = Kelvin(DOUBTFUL_K)),
        )
        .todo(fact!("mix-reading-doubtful-todo", deep = fact::Mm(40.0))),
    );
}

fn sureness(q: &MixQuestion, look: &MixLook, out: &mut Vec<Note>) {
    let main = look
        .laid
        .steps
        .iter()
        .filter(|s| s.speed.is_machine())
        .max_by(|a, b| a.minutes.total_cmp(&b.minutes));
    let Some(main) = main else { return };
    if q.by.machine.friction().how_sure(main.speed) == HowSure::Guess {
        out.push(Note::holds(
            "friction_guess",
            fact!("mix-friction-guess"),
            fact!("mix-friction-guess-why"),
        ));
    }
}
