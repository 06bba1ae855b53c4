//! At the mixer: all that a maker is told before, during and after one run.
//!
//! Before: the water and what it is made of. During: where the dough is, where it will end, how warm the next water must be,
//! what a minute more adds. After: what it was. Every figure is of the course that `bowl` works out, from the last reading
//! where there is one. Source: mixing and shaping, sections 2 to 7.

use super::at_work::{DOUBTFUL_K, MixLook, MixQuestion, NextWater, RIGHT_K};
use super::bowl::{aim_parts, course};
use super::{
    BowlItem, BowlStep, BowlTrace, Development, GlutenWork, MixReading, Mixing, Speed,
    StandingDough, TracePoint, blend, development, sure_of_end, water_parts, water_worked,
};
use crate::refusal::ValidationError;

/// Everything about one run now.
///
/// Errors: [`ValidationError`] where the dough or its surroundings are outside their ranges.
pub fn look(q: &MixQuestion) -> Result<MixLook, ValidationError> {
    let water = water_worked(&q.water, &q.by)?;
    let planned = q.by.mixing(&q.water);
    let pours = q.by.recipe(&q.water).water_g > 0.0;
    let poured = q.by.laid_as_poured(&q.water, &water, q.water_measured_c);
    poured.check()?;
    let goes = q.run.as_it_goes(&poured, q.now);
    let (figures, capped) = q.by.machine.figures();
    let trace = course(&goes, Some(&figures), capped);
    let steps = planned.steps.len();
    let now_min = q
        .run
        .ended_at(steps)
        .or(q.run.began_at().map(|_| q.now))
        .and_then(|at| q.run.minute_of(at));
    let readings = q.run.readings_min();
    let last = now_min.and_then(|_| last_reading(&readings, &goes));
    let rest = last.map(|r| from_reading(&goes, &trace, r));
    let friction = q.by.machine.friction();
    let (from, at_min) = match &rest {
        Some((rest, at_min)) => (rest, *at_min),
        None => (&goes, 0.0),
    };
    let to_the_end = course(from, Some(&figures), capped);
    let mut ahead: Vec<TracePoint> = to_the_end.points.clone();
    ahead.iter_mut().for_each(|p| p.at_min += at_min);
    let end_c = to_the_end.end_c;
    let one_minute_more_k = match now_min.filter(|_| q.run.step_on(steps).is_some()) {
        // Of the step in hand, to the end of what follows.
        Some(now) => to_the_end.one_minute_more_k.map(|_| {
            let longer = lengthened(from, now - at_min);
            course(&longer, Some(&figures), capped).end_c - end_c
        }),
        None => to_the_end.one_minute_more_k,
    };
    let of_ahead = at_minute(&ahead, now_min);
    if rest.is_none() {
        ahead.retain(|p| now_min.is_none_or(|n| p.at_min >= n - 1e-9));
    }
    let mut look = MixLook {
        blended: pours.then(|| blend(q.by.recipe(&q.water).water_g, water.needed_c, &q.blend_from)),
        dough_now_c: of_ahead.filter(|_| now_min.is_some()),
        end_sd_k: sure_of_end(from, &friction),
        measured: rest.is_some(),
        passes_warm_min: passes(&ahead, q.water.target_dough_c + RIGHT_K, now_min),
        next: next_water(q, &poured, from),
        development: developed(q, &goes, &trace, now_min),
        doubtful: doubtful(&readings, &trace),
        left: from.clone(),
        laid: poured,
        goes,
        trace,
        now_min,
        ahead,
        end_c,
        one_minute_more_k,
        water,
        notes: vec![],
    };
    look.notes = super::judge::of_run(q, &look, &figures, capped);
    Ok(look)
}

/// The last reading of a dough in which what was poured is mixed in.
fn last_reading(readings: &[MixReading], goes: &Mixing) -> Option<MixReading> {
    let end = goes.minutes() + 1e-6;
    let fits = |r: &&MixReading| r.at_min <= end && super::friction::is_mixed_in(goes, r.at_min);
    readings.iter().rev().find(fits).copied()
}

/// The steps that are left from a reading on, with the dough that stands, and the minute of it.
fn from_reading(goes: &Mixing, trace: &BowlTrace, r: MixReading) -> (Mixing, f64) {
    let at_min = r.at_min.clamp(0.0, goes.minutes());
    let mut begin = 0.0;
    let mut contents: Vec<BowlItem> = vec![];
    let mut steps = vec![];
    for s in &goes.steps {
        let end = begin + s.minutes;
        if begin < at_min - 1e-9 || (begin <= at_min && s.minutes <= 1e-9) {
            contents.extend(s.add.iter().cloned().map(|mut i| {
                i.name = None;
                i
            }));
            if end > at_min {
                steps.push(BowlStep {
                    minutes: end - at_min,
                    add: vec![],
                    ..s.clone()
                });
            }
        } else {
            steps.push(s.clone());
        }
        begin = end;
    }
    if steps.is_empty() {
        steps.push(BowlStep::plain(Speed::Off, 0.0));
    }
    let modelled = trace.point(at_min).map_or(goes.room_c, |p| p.bowl_c);
    let rest = Mixing {
        steps,
        from: Some(StandingDough {
            dough_c: r.dough_c,
            // The bowl is nearer to what was measured than to what was worked out.
            bowl_c: 0.5 * (modelled + r.dough_c),
            contents,
        }),
        ..goes.clone()
    };
    (rest, at_min)
}

/// The same with a minute more of the step that is on at a minute.
fn lengthened(mixing: &Mixing, at_min: f64) -> Mixing {
    let mut m = mixing.clone();
    let mut end = 0.0;
    let last = m.steps.len().saturating_sub(1);
    for (i, s) in m.steps.iter_mut().enumerate() {
        end += s.minutes;
        if end >= at_min - 1e-9 || i == last {
            s.minutes += 1.0;
            break;
        }
    }
    m
}

/// The dough at a minute of a course, °C.
fn at_minute(points: &[TracePoint], min: Option<f64>) -> Option<f64> {
    let min = min?;
    let after = points.iter().position(|p| p.at_min >= min - 1e-9);
    match after {
        None => points.last().map(|p| p.dough_c),
        Some(0) => points.first().map(|p| p.dough_c),
        Some(i) => {
            let (a, b) = (points[i - 1], points[i]);
            let span = (b.at_min - a.at_min).max(1e-9);
            Some(a.dough_c + (b.dough_c - a.dough_c) * ((min - a.at_min) / span).clamp(0.0, 1.0))
        }
    }
}

/// The first minute from now on at which a course passes a temperature upward.
fn passes(points: &[TracePoint], dough_c: f64, now_min: Option<f64>) -> Option<f64> {
    let from = now_min.unwrap_or(0.0);
    points.windows(2).find_map(|w| {
        let (a, b) = (w[0], w[1]);
        let crosses = a.dough_c < dough_c && b.dough_c >= dough_c && b.at_min >= from;
        crosses.then(|| {
            let share = (dough_c - a.dough_c) / (b.dough_c - a.dough_c);
            (a.at_min + share * (b.at_min - a.at_min)).max(from)
        })
    })
}

/// Parts of the water whose step has not begun.
fn parts_to_come(q: &MixQuestion, laid: &Mixing) -> Vec<u16> {
    let begun = q.run.begun.len();
    let names = water_parts(laid);
    let to_come = |(i, name): (usize, &String)| {
        let step = laid
            .steps
            .iter()
            .position(|s| s.add.iter().any(|x| x.name.as_deref() == Some(name)))?;
        let part = (i + 1) as u16;
        (step >= begun && !q.run.poured.contains_key(&part)).then_some(part)
    };
    names.iter().enumerate().filter_map(to_come).collect()
}

fn next_water(q: &MixQuestion, laid: &Mixing, left: &Mixing) -> Option<NextWater> {
    let parts = parts_to_come(q, laid);
    let names: Vec<String> = parts
        .iter()
        .map(|p| super::water_part(usize::from(*p)))
        .collect();
    let names: Vec<&str> = names.iter().map(String::as_str).collect();
    let (figures, _) = q.by.machine.figures();
    let solve = |names: &[&str]| aim_parts(left, names, q.water.target_dough_c, Some(&figures));
    Some(NextWater {
        all: solve(&names)?,
        next_only: solve(&names[..1])?,
        parts,
    })
}

fn developed(
    q: &MixQuestion,
    goes: &Mixing,
    trace: &BowlTrace,
    now_min: Option<f64>,
) -> Development {
    let work = GlutenWork {
        kind: q.by.programme.kind,
        w: q.w,
        hydration_percent: q.hydration_percent,
        usual: q.usual.factor,
    };
    // The window is often pulled when the machine stands already.
    let signs = q.run.signs_min();
    let last = signs.iter().map(|s| s.at_min).fold(0.0, f64::max);
    let until = now_min.unwrap_or(goes.minutes()).max(last);
    let dough = |min: f64| trace.at(min).unwrap_or(q.water.room_c);
    development(&work, goes, until, &signs, dough)
}

/// Readings far off the course, by their place.
fn doubtful(readings: &[MixReading], trace: &BowlTrace) -> Vec<usize> {
    let off = |r: &MixReading| {
        let modelled = trace.at(r.at_min)?;
        Some((r.dough_c - modelled).abs() > DOUBTFUL_K)
    };
    let each = readings.iter().enumerate();
    each.filter(|(_, r)| off(r) == Some(true))
        .map(|(i, _)| i)
        .collect()
}
