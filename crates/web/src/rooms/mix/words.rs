//! What Mix says of a run in sentences: where it ends, why the water is so warm, what comes next, what was taught.

use super::asked::AskedRun;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{decimal, phrase, say};
use craft::fact::{Value, tenth};
use craft::mix::{Friction, MixLook, Mixer, NextWater, ReadySign, Speed, usually_seen};
use craft::units::TemperatureUnit;

/// What a mixer taught.
pub struct TaughtView {
    pub says: String,
    pub sure: String,
    /// The sentence that holds now.
    pub now: String,
    pub machine: Option<u64>,
    pub taken_over: bool,
    /// Whether there is anything of its own to go back from.
    pub own: bool,
}

pub fn kelvin(here: &RequestKitchen, k: f64) -> String {
    here.reader().said(&Value::Kelvin(k)).full
}

pub fn degrees(here: &RequestKitchen, c: f64) -> String {
    format!("{}°", here.measures.degrees(c, 1))
}

/// "Dough is 22.9°, " "off at 23.4°" ". On the mark."
pub fn head(a: &AskedRun, look: &MixLook, wanted: f64, here: &RequestKitchen) -> [String; 3] {
    let end = degrees(here, look.end_c);
    let off = look.end_c - wanted;
    let mark = if off.abs() <= craft::mix::RIGHT_K {
        [". ", phrase("mix-on-the-mark")].concat()
    } else {
        let by = kelvin(here, tenth(off.abs()));
        let side = if off > 0.0 {
            phrase("mix-too-warm")
        } else {
            phrase("mix-too-cool")
        };
        format!(". {by} {side}.")
    };
    if a.ended() {
        let measured = a.told.readings.last().map(|r| degrees(here, r.dough_c));
        return match measured {
            Some(c) => [
                [phrase("mix-out-of-the-bowl-head"), " "].concat(),
                say!("mix-last-read", c = c),
                ".".into(),
            ],
            None => [
                [phrase("mix-out-of-the-bowl-head"), " "].concat(),
                say!("mix-about", end = end),
                mark,
            ],
        };
    }
    if a.begun() {
        let now = look.dough_now_c.map_or(String::new(), |c| degrees(here, c));
        let is = if look.measured {
            phrase("mix-dough-is")
        } else {
            phrase("mix-dough-should-be")
        };
        return [format!("{is} {now}, "), say!("mix-off-at", end = end), mark];
    }
    match look.blended {
        Some(_) => [
            [
                "",
                &say!("mix-pour-at", pour_c = degrees(here, look.water.pour_c)),
                " ",
            ]
            .concat(),
            say!("mix-off-at", end = end),
            mark,
        ],
        None => [
            [phrase("mix-nothing-to-pour-head"), " "].concat(),
            say!("mix-off-at", end = end),
            mark,
        ],
    }
}

/// "± 0.5°, from your last reading".
pub fn end_small(look: &MixLook, here: &RequestKitchen) -> String {
    // To half a degree before anything was read, to a tenth after.
    let (sd, from) = if look.measured {
        (
            (look.end_sd_k * 10.0).round() / 10.0,
            phrase("mix-from-the-last-reading"),
        )
    } else {
        (
            ((look.end_sd_k * 2.0).round() / 2.0).max(0.5),
            phrase("mix-by-what-is-known-of"),
        )
    };
    let sd = kelvin(here, sd.max(0.1));
    format!("± {sd}, {from}")
}

pub fn water_why(a: &AskedRun, look: &MixLook, here: &RequestKitchen) -> String {
    let w = &a.to_mix.water;
    let m = here.measures;
    let d = |c: f64| m.degrees(c, 1);
    let friction = kelvin(here, tenth(look.water.friction_k));
    let learned = match &a.to_mix.machine.learned {
        Some(f) => here.words(&f.sureness(main_speed(a))),
        None if a.to_mix.machine.kind == Mixer::Hand => phrase("mix-hands-warm-it-by-about").into(),
        None => phrase("mix-a-guess-by-its-kind").into(),
    };
    let preferment = if w.preferment_g > 0.0 {
        say!("mix-preferment-2", preferment_c = d(w.preferment_c))
    } else {
        String::new()
    };
    let base = a.base.map_or(String::new(), |b| {
        // A sum of temperatures: each of them has its own nought in the other unit.
        let (mean, sd) = match m.temperature {
            TemperatureUnit::Celsius => (b.mean, b.sd_k),
            TemperatureUnit::Fahrenheit => {
                let nought = 32.0 * f64::from(a.to_mix.base_terms());
                (1.8 * b.mean + nought, 1.8 * b.sd_k)
            }
        };
        [
            " ",
            &say!(
                "mix-your-base-here-mixes",
                mean = decimal(mean, 0),
                sd = decimal(sd.max(1.0), 0),
                mixes = b.mixes
            ),
            "",
        ]
        .concat()
    });
    say!(
        "mix-for-off-the-mixer-flour",
        target_dough_c = d(w.target_dough_c),
        flour_c = d(w.flour_c),
        room_c = d(w.room_c),
        preferment = preferment,
        friction = friction,
        learned = learned,
        base = base
    )
}

/// The speed at which it works longest.
pub fn main_speed(a: &AskedRun) -> Speed {
    let steps = a.to_mix.programme.steps.iter();
    let machine = steps.filter(|s| s.speed.is_machine());
    let longest = machine.max_by(|a, b| a.minutes.total_cmp(&b.minutes));
    longest.map_or(Speed::Hand, |s| s.speed)
}

pub fn mend_words(a: &AskedRun, look: &MixLook, water_g: f64, here: &RequestKitchen) -> String {
    let (Some(measured), false) = (a.to_mix.measured_water_c, a.begun()) else {
        return String::new();
    };
    let m = here.measures;
    let g = |g: f64| m.weighed(g);
    let wanted = look.water.needed_c;
    use craft::mix::Mend;
    match craft::mix::mend(water_g, wanted, measured, &a.to_mix.blend_from()) {
        Mend::Right => say!("mix-it-measures-right", measured = degrees(here, measured)),
        Mend::FromKettle(x) => say!(
            "mix-it-measures-instead-of-take",
            measured = degrees(here, measured),
            wanted = degrees(here, wanted),
            x = g(x)
        ),
        Mend::FromCold(x, c) => say!(
            "mix-it-measures-instead-of-take-2",
            measured = degrees(here, measured),
            wanted = degrees(here, wanted),
            x = g(x),
            c = degrees(here, c)
        ),
        Mend::WithIce(x) => say!(
            "mix-it-measures-instead-of-take-3",
            measured = degrees(here, measured),
            wanted = degrees(here, wanted),
            x = g(x)
        ),
        Mend::FromWarmTap => say!(
            "mix-it-measures-instead-of-run",
            measured = degrees(here, measured),
            wanted = degrees(here, wanted)
        ),
    }
}

/// What is poured next, and how warm: of a run under way.
pub fn next_pour(look: &MixLook, here: &RequestKitchen) -> Option<(u16, String)> {
    let NextWater {
        parts,
        all,
        next_only,
    } = look.next.as_ref().filter(|_| look.now_min.is_some())?;
    let first = *parts.first()?;
    let poured = all.poured_c();
    let end = |c: f64| degrees(here, c);
    let says = if parts.len() > 1 {
        say!(
            "mix-parts-to-come-all-at",
            parts = parts.len(),
            poured = degrees(here, poured),
            poured2 = end(all.end_c(poured)),
            round = kelvin(here, (all.per_degree_k * 100.0).round() / 100.0)
        )
    } else {
        let c = next_only.poured_c();
        say!(
            "mix-the-last-part-at-ends",
            c = degrees(here, c),
            c2 = end(next_only.end_c(c)),
            value = degrees(here, craft::mix::COLDEST_WATER_C),
            end_with_coldest_c = end(next_only.end_with_coldest_c)
        )
    };
    Some((first, says))
}

/// "Wall clean usually 12 to 15 min after the begin, window 20 to 24: from 4 signs."
pub fn usually(a: &AskedRun, look: &MixLook, here: &RequestKitchen) -> String {
    let work = a.to_mix.gluten(1.0);
    let dough = |min: f64| look.trace.at(min).unwrap_or(a.to_mix.water.room_c);
    let when = |sign: ReadySign| {
        let (from, to) = usually_seen(&work, &look.goes, sign, &a.usual, dough)?;
        let name = here.words(&sign.name());
        Some(say!(
            "mix-after-to-min",
            name = name,
            from = decimal(from, 0),
            to = decimal(to, 0)
        ))
    };
    let signs = [ReadySign::WallClean, ReadySign::Window];
    let all: Vec<String> = signs.into_iter().filter_map(when).collect();
    if all.is_empty() || a.ended() {
        return String::new();
    }
    let from = match a.usual.mixes {
        0 => phrase("mix-by-the-book").into(),
        1 => phrase("mix-from-one-sign-here").into(),
        n => say!("mix-from-signs-here", n = n),
    };
    say!("mix-usually", join = all.join(", "), from = from)
}

/// What the logged mixes of a machine teach, for a run that is over.
pub fn taught(
    learned: &Friction,
    speed: Speed,
    machine: Option<(u64, Option<&Friction>)>,
    here: &RequestKitchen,
) -> TaughtView {
    let own = machine.and_then(|m| m.1);
    let same = own.is_some_and(|o| {
        (o.figures.at(speed) - learned.figures.at(speed)).abs() < 0.005 && o.mixes == learned.mixes
    });
    TaughtView {
        says: here.say(&learned.adds(speed)),
        sure: here.words(&learned.sureness(speed)),
        now: own.map_or(String::new(), |o| here.say(&o.adds(speed))),
        machine: machine.map(|m| m.0),
        taken_over: same,
        own: own.is_some(),
    }
}
