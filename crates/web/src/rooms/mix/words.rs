//! What Mix says of a run in sentences: where it ends, why the water is so warm, what comes next, what was taught.

use super::asked::AskedRun;
use crate::shared::kitchen::RequestKitchen;
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
        ". On the mark.".to_string()
    } else {
        let by = kelvin(here, tenth(off.abs()));
        let side = if off > 0.0 { "too warm" } else { "too cool" };
        format!(". {by} {side}.")
    };
    if a.ended() {
        let measured = a.told.readings.last().map(|r| degrees(here, r.dough_c));
        return match measured {
            Some(c) => [
                "Out of the bowl, ".into(),
                format!("last read {c}"),
                ".".into(),
            ],
            None => ["Out of the bowl, ".into(), format!("about {end}"), mark],
        };
    }
    if a.begun() {
        let now = look.dough_now_c.map_or(String::new(), |c| degrees(here, c));
        let is = if look.measured {
            "Dough is"
        } else {
            "Dough should be"
        };
        return [format!("{is} {now}, "), format!("off at {end}"), mark];
    }
    match look.blended {
        Some(_) => [
            format!("Pour at {}, ", degrees(here, look.water.pour_c)),
            format!("off at {end}"),
            mark,
        ],
        None => ["Nothing to pour, ".into(), format!("off at {end}"), mark],
    }
}

/// "± 0.5°, from your last reading".
pub fn end_small(look: &MixLook, here: &RequestKitchen) -> String {
    // To half a degree before anything was read, to a tenth after.
    let (sd, from) = if look.measured {
        (
            (look.end_sd_k * 10.0).round() / 10.0,
            "from the last reading",
        )
    } else {
        (
            ((look.end_sd_k * 2.0).round() / 2.0).max(0.5),
            "by what is known of this mixer",
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
        None if a.to_mix.machine.kind == Mixer::Hand => "hands warm it by about that".into(),
        None => "a guess by its kind".into(),
    };
    let preferment = if w.preferment_g > 0.0 {
        format!(", preferment {}", d(w.preferment_c))
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
        format!(
            " Your base here: {mean:.0}, ± {:.0}, {} mixes.",
            sd.max(1.0),
            b.mixes
        )
    });
    format!(
        "For {} off the mixer: flour {}, room {}{preferment}; work adds {friction} ({learned}); bowl and room take or give the rest.{base}",
        d(w.target_dough_c),
        d(w.flour_c),
        d(w.room_c),
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
        Mend::Right => format!("It measures {}: right.", degrees(here, measured)),
        Mend::FromKettle(x) => format!(
            "It measures {} instead of {}: take out {} and put it back from the kettle.",
            degrees(here, measured),
            degrees(here, wanted),
            g(x)
        ),
        Mend::FromCold(x, c) => format!(
            "It measures {} instead of {}: take out {} and put it back cold, at {}.",
            degrees(here, measured),
            degrees(here, wanted),
            g(x),
            degrees(here, c)
        ),
        Mend::WithIce(x) => format!(
            "It measures {} instead of {}: take out {} and stir in as much ice.",
            degrees(here, measured),
            degrees(here, wanted),
            g(x)
        ),
        Mend::FromWarmTap => format!(
            "It measures {} instead of {}: run the warm tap.",
            degrees(here, measured),
            degrees(here, wanted)
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
        format!(
            "{} parts to come: all at {} end at {}. A degree of them moves the dough by {}.",
            parts.len(),
            degrees(here, poured),
            end(all.end_c(poured)),
            kelvin(here, (all.per_degree_k * 100.0).round() / 100.0)
        )
    } else {
        let c = next_only.poured_c();
        format!(
            "The last part at {} ends at {}; with {} it would be {}.",
            degrees(here, c),
            end(next_only.end_c(c)),
            degrees(here, craft::mix::COLDEST_WATER_C),
            end(next_only.end_with_coldest_c)
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
        Some(format!("{name} after {from:.0} to {to:.0} min"))
    };
    let signs = [ReadySign::WallClean, ReadySign::Window];
    let all: Vec<String> = signs.into_iter().filter_map(when).collect();
    if all.is_empty() || a.ended() {
        return String::new();
    }
    let from = match a.usual.mixes {
        0 => "by the book".into(),
        1 => "from one sign here".into(),
        n => format!("from {n} signs here"),
    };
    format!("Usually {}, {from}.", all.join(", "))
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
