//! What Mix shows of one run, already worded.

use super::asked::{self, AskedRun};
use super::picture::{self, LinePin, Stretch};
use crate::batch::record::BatchRecord;
use crate::shared::format::{self, min_s};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use craft::fact::{Fact, Value, tenth};
use craft::keyed::Keyed;
use craft::mix::run::{MixAct, MixInput, MixTrouble};
use craft::mix::{
    Friction, MixHazard, MixLook, Mixer, NextWater, ProgrammeFit, ReadySign, Speed, fitting, look,
    programmes, usually_seen,
};
use craft::refusal::ValidationError;
use craft::sheet::WeighLine;
use craft::units::TemperatureUnit;
use jiff::Timestamp;
use serde::Serialize;
use speech::Judgement;
use uuid::Uuid;

/// A choice of what is looked at: another bowl, another run.
pub struct MixTab {
    pub href: String,
    pub name: String,
    pub here: bool,
}

/// A temperature that is measured or wished.
pub struct MixField {
    pub key: &'static str,
    pub label: String,
    pub small: String,
    /// As typed.
    pub value: String,
    pub error: Option<String>,
}

/// A way to mix it here.
pub struct MixWay {
    pub value: String,
    pub says: String,
    pub here: bool,
}

/// A line of what is weighed.
pub struct WeighView {
    pub n: u16,
    pub name: String,
    pub grams: String,
    /// How a dose is weighed that the scale cannot read.
    pub how: String,
    pub done: bool,
}

/// A step of the run.
pub struct MixStepView {
    pub n: u16,
    pub say: String,
    pub cue: String,
    /// What goes in: "salt 107 g, water 100 g at 26.4°".
    pub adds: String,
    /// "done", "on", "next" or "".
    pub stands: &'static str,
    /// How long it took, goes on or is planned: "3:00".
    pub time: String,
}

/// What a maker sees in the dough, as a button.
pub struct SignView {
    pub key: &'static str,
    pub says: String,
    pub seen: bool,
}

/// A tap that can be taken back.
pub struct TapLine {
    pub key: String,
    pub at: String,
    pub says: String,
}

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

/// What the script of the page needs: how the steps went, in milliseconds.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct MixState {
    pub bowl: u16,
    pub run: u16,
    pub begun_ms: Vec<i64>,
    /// Minutes of each step, with what it was given more.
    pub minutes: Vec<f64>,
    pub revision: u64,
    pub now_ms: i64,
}

pub struct MixView {
    pub code: String,
    pub batch: u64,
    pub sub: [String; 2],
    pub bowl: u16,
    pub run: u16,
    pub tabs: Vec<MixTab>,
    pub run_tabs: Vec<MixTab>,
    pub head: [String; 3],
    pub state: MixState,
    pub begun: bool,
    pub over: bool,
    pub closed: bool,
    /// "24.4°", the water of this run.
    pub water: Option<String>,
    pub water_g: String,
    pub water_word: &'static str,
    pub water_why: String,
    pub line: String,
    pub blend: String,
    pub mend: String,
    pub fields: Vec<MixField>,
    pub degree: &'static str,
    pub ways: Vec<MixWay>,
    pub weigh: Vec<WeighView>,
    pub steps: Vec<MixStepView>,
    pub next_n: u16,
    pub next_says: String,
    pub on_n: u16,
    pub pour: Option<(u16, String)>,
    pub trace: String,
    pub trace_small: String,
    pub end_small: String,
    pub gluten: String,
    /// When wall clean and window are usually seen.
    pub usually: String,
    pub signs: Vec<SignView>,
    pub troubles: Vec<SignView>,
    pub log: Vec<TapLine>,
    pub notes: Vec<Judgement>,
    pub cautions: Vec<String>,
    pub taught: Option<TaughtView>,
    pub on_to: (String, &'static str),
    pub keys: [Uuid; 8],
    pub now_words: String,
    /// A reading as it was typed, and what is wrong with it.
    pub reading: String,
    pub reading_error: Option<String>,
}

fn kelvin(here: &RequestKitchen, k: f64) -> String {
    here.reader().said(&Value::Kelvin(k)).full
}

/// Within so much it is right, K.
const RIGHT_K: f64 = 1.0;

fn degrees(here: &RequestKitchen, c: f64) -> String {
    format!("{}°", here.measures.degrees(c, 1))
}

impl MixView {
    /// The page of a run.
    ///
    /// Errors: [`ValidationError`] where the dough or its surroundings are outside what can be worked out.
    pub fn of(
        told: &BatchRecord,
        a: &AskedRun,
        larder: &Larder,
        here: &RequestKitchen,
        taught: Option<TaughtView>,
    ) -> Result<MixView, ValidationError> {
        let q = a.to_mix.asked(&a.told, a.usual, here.now);
        let look = look(&q)?;
        let m = here.measures;
        let sheet = &told.batch.sheet;
        let water = a.to_mix.water;
        let begun = a.begun();
        let over = a.ended();
        let laid_g = look.laid.contents();
        let runs = f64::from(a.to_mix.runs.max(1));
        let pours = look.blended;
        let unit = m.weight_unit();
        let poured_g = pours.map_or(0.0, |b| {
            b.tap_g + b.kettle_g + b.fridge_g + b.ice_g + b.ice_in_tap_g
        });
        let from = q.blend_from;
        let wanted = water.target_dough_c;
        let shown_water = a.to_mix.measured_water_c.unwrap_or(look.water.pour_c);
        let readings = a.told.readings_min();
        let steps = steps(a, &look, here);
        let next = a.told.begun.len() + 1;
        let next_says = match steps.get(next - 1) {
            _ if over => String::new(),
            Some(s) if !begun => format!("Begin: {}", s.say),
            Some(_) => "Done, next step".into(),
            None => "Done, it is out".into(),
        };
        let closed = told.is_ended();
        let b = MixView {
            code: told.batch.code.clone(),
            batch: told.batch.id.0,
            sub: [
                match a.bowl {
                    0 => format!(
                        "{}, {}",
                        told.batch.name,
                        format::portions(&sheet.result.formula.portions, &m)
                    ),
                    _ => told.batch.name.clone(),
                },
                format!(
                    "{} {unit} flour, {} {unit} water{}",
                    m.weight(laid_g.flour_g),
                    m.weight(laid_g.water_g),
                    if runs > 1.0 { ", in this run" } else { "" }
                ),
            ],
            bowl: a.bowl,
            run: a.run,
            tabs: tabs(told, a, here),
            run_tabs: run_tabs(told, a),
            head: head(a, &look, wanted, here),
            begun,
            over,
            closed,
            water: pours.map(|_| m.degrees(shown_water, 1)),
            water_g: m.weighed(poured_g),
            water_word: if look.water.ice_g > 0.0 {
                "water, with ice"
            } else {
                "water in"
            },
            water_why: water_why(a, &look, here),
            line: picture::line(&pins(a, &look, shown_water), wanted, &m),
            blend: pours.map_or(String::new(), |b| {
                picture::blend(
                    &b,
                    from.tap_c,
                    from.kettle_c.unwrap_or(100.0),
                    from.fridge_c.unwrap_or(4.0),
                    &m,
                )
            }),
            mend: mend_words(a, &look, poured_g, here),
            fields: fields(a, here),
            degree: m.degree_unit(),
            ways: if begun || a.bowl > 0 {
                vec![]
            } else {
                ways(told, a, larder, here)
            },
            weigh: weigh(told, a, here),
            next_n: next as u16,
            next_says,
            on_n: a.told.step_on(a.steps()).unwrap_or(0) as u16,
            pour: next_pour(&look, here),
            trace: picture::trace(&look, &readings, &stretches(&look, here), wanted, &m),
            trace_small: a.told.began_at().map_or("as planned".into(), |t| {
                format!("minutes from {}", format::hm(&here.local(t)))
            }),
            end_small: end_small(&look, here),
            gluten: if begun {
                here.words(&look.development.words())
            } else {
                String::new()
            },
            usually: usually(a, &look, here),
            signs: ReadySign::ALL
                .iter()
                .map(|s| SignView {
                    key: s.key(),
                    says: here.words(&s.name()),
                    seen: a.told.signs.iter().any(|(_, x)| x == s),
                })
                .collect(),
            troubles: MixTrouble::ALL
                .iter()
                .filter(|t| a.to_mix.machine.kind != Mixer::Hand || **t != MixTrouble::Climbs)
                .map(|t| SignView {
                    key: t.key(),
                    says: here.words(&t.name()),
                    seen: a.told.troubles.iter().any(|(_, x)| x == t),
                })
                .collect(),
            log: log(told, a, here),
            notes: here.judgements(&look.notes),
            cautions: cautions(a, &look)
                .into_iter()
                .map(|c| here.say(&c))
                .collect(),
            taught,
            on_to: match a.bowl {
                0 => (format!("/batches/{}/rise", told.batch.code), "On to Rise"),
                _ => (format!("/batches/{}", told.batch.code), "Back to the batch"),
            },
            keys: std::array::from_fn(|_| Uuid::new_v4()),
            now_words: look
                .dough_now_c
                .filter(|_| begun && !over)
                .map_or(String::new(), |c| degrees(here, c)),
            steps,
            reading: String::new(),
            reading_error: None,
            state: state(told, a, here.now),
        };
        Ok(b)
    }

    pub fn state_json(&self) -> String {
        serde_json::to_string(&self.state).unwrap_or_default()
    }
    /// Where the page of this run stands.
    pub fn href(&self) -> String {
        href(&self.code, self.bowl, self.run)
    }
}

pub fn href(code: &str, bowl: u16, run: u16) -> String {
    format!("/batches/{code}/mix?bowl={bowl}&run={run}")
}

/// How the steps went, for the script.
pub fn state(told: &BatchRecord, a: &AskedRun, now: Timestamp) -> MixState {
    let planned = a.to_mix.programme.steps.iter().enumerate();
    MixState {
        bowl: a.bowl,
        run: a.run,
        begun_ms: a.told.begun.iter().map(|t| t.as_millisecond()).collect(),
        minutes: planned
            .map(|(i, s)| s.minutes + a.told.more.get(&((i + 1) as u16)).copied().unwrap_or(0.0))
            .collect(),
        revision: told.batch.revision,
        now_ms: now.as_millisecond(),
    }
}

/// "Dough is 22.9°, " "off at 23.4°" ". On the mark."
fn head(a: &AskedRun, look: &MixLook, wanted: f64, here: &RequestKitchen) -> [String; 3] {
    let end = degrees(here, look.end_c);
    let off = look.end_c - wanted;
    let mark = if off.abs() <= RIGHT_K {
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
fn end_small(look: &MixLook, here: &RequestKitchen) -> String {
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

fn water_why(a: &AskedRun, look: &MixLook, here: &RequestKitchen) -> String {
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

fn pins(a: &AskedRun, look: &MixLook, water_c: f64) -> Vec<LinePin> {
    let w = &a.to_mix.water;
    let pin = |name: &str, c: f64, water: bool| LinePin {
        name: name.into(),
        c,
        water,
    };
    let mut out = vec![
        pin("Tap", w.tap_water_c, true),
        pin("Flour", w.flour_c, false),
        pin("Room", w.room_c, false),
    ];
    if w.preferment_g > 0.0 {
        out.push(pin("Preferment", w.preferment_c, false));
    }
    if let Some(c) = a.to_mix.bowl_c {
        out.push(pin("Bowl", c, false));
    }
    if look.blended.is_some() {
        out.push(pin("Water in", water_c, true));
    }
    out
}

fn mend_words(a: &AskedRun, look: &MixLook, water_g: f64, here: &RequestKitchen) -> String {
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

pub fn fields(a: &AskedRun, here: &RequestKitchen) -> Vec<MixField> {
    let t = &a.to_mix;
    let boil = t.blend_from().kettle_c;
    let mut all: Vec<(MixInput, Option<f64>, String)> = vec![
        (
            MixInput::Wanted,
            Some(t.water.target_dough_c),
            String::new(),
        ),
        (MixInput::Flour, Some(t.water.flour_c), String::new()),
        (MixInput::Room, Some(t.water.room_c), String::new()),
        (MixInput::Tap, Some(t.water.tap_water_c), String::new()),
        (MixInput::Kettle, boil, "boils so here".into()),
        (MixInput::Bowl, t.bowl_c, "as the room".into()),
    ];
    if t.water.preferment_g > 0.0 {
        let one = (
            MixInput::Preferment,
            Some(t.water.preferment_c),
            String::new(),
        );
        all.insert(2, one);
    }
    all.push((MixInput::Chilled, t.chilled_c, "where there is any".into()));
    all.push((
        MixInput::Water,
        t.measured_water_c,
        "once it is mixed".into(),
    ));
    all.into_iter()
        .map(|(what, c, small)| {
            let said = a.told.measured.contains_key(&what);
            MixField {
                key: what.key(),
                label: here.say(&what.name()),
                small: if said { "measured".into() } else { small },
                value: c.map_or(String::new(), |c| here.measures.degrees_field(c)),
                error: None,
            }
        })
        .collect()
}

fn ways(told: &BatchRecord, a: &AskedRun, larder: &Larder, here: &RequestKitchen) -> Vec<MixWay> {
    let dough = a.to_mix.dough_to_mix();
    let style = &told.batch.sheet.request.formula.style.key;
    let has_preferment = a.to_mix.water.preferment_g > 0.0;
    let now = (&a.to_mix.programme.key, a.to_mix.machine.kind);
    let mut tools = vec![Mixer::Hand];
    tools.extend(larder.0.machines.iter().map(|m| m.facts.kind));
    if !tools.contains(&a.to_mix.machine.kind) {
        tools.push(a.to_mix.machine.kind);
    }
    let mut out = vec![];
    for (p, _) in fitting(programmes(), &tools, Some(style), &dough) {
        if p.wants_preferment() && !has_preferment {
            continue;
        }
        let fit = match p.fit(&dough) {
            ProgrammeFit::Fits => "",
            ProgrammeFit::WithCare => ", with care",
            ProgrammeFit::NotForThis => ", not for this dough",
        };
        let own: Vec<_> = larder
            .0
            .machines
            .iter()
            .filter(|m| m.facts.kind == p.kind)
            .collect();
        let name = here.say(&p.name);
        if own.is_empty() {
            out.push(MixWay {
                value: format!("{}:", p.key),
                says: format!("{name}{fit}"),
                here: (&p.key, p.kind) == now,
            });
        }
        for machine in own {
            out.push(MixWay {
                value: format!("{}:{}", p.key, machine.id),
                says: format!("{name}: {}{fit}", machine.facts.name),
                here: (&p.key, p.kind) == now && machine.facts.name == a.to_mix.machine.name,
            });
        }
    }
    out
}

fn weigh(told: &BatchRecord, a: &AskedRun, here: &RequestKitchen) -> Vec<WeighView> {
    let m = here.measures;
    let lines = a.to_mix.weighed(&told.batch.sheet.result.formula);
    lines
        .into_iter()
        .enumerate()
        .map(|(i, l): (usize, WeighLine)| {
            let n = (i + 1) as u16;
            WeighView {
                n,
                name: here.say(&l.what),
                grams: if l.is_dose {
                    m.dosed(l.grams)
                } else {
                    m.weighed(l.grams)
                },
                how: here.say(&l.how),
                done: a.told.weighed.contains(&n),
            }
        })
        .collect()
}

fn steps(a: &AskedRun, look: &MixLook, here: &RequestKitchen) -> Vec<MixStepView> {
    let m = here.measures;
    let all = a.to_mix.programme.steps.iter().enumerate();
    all.map(|(i, s)| {
        let n = i + 1;
        let (from, to) = (a.told.begun.get(i), a.told.begun.get(n));
        let stands = match (from, to) {
            (Some(_), Some(_)) => "done",
            (Some(_), None) => "on",
            _ if a.told.begun.len() == i => "next",
            _ => "",
        };
        let more = a.told.more.get(&(n as u16)).copied().unwrap_or(0.0);
        let planned_s = 60.0 * (s.minutes + more);
        let span = |a: &Timestamp, b: &Timestamp| b.duration_since(*a).as_secs_f64();
        let time = match (from, to) {
            (Some(a), Some(b)) => span(a, b),
            (Some(a), None) => (planned_s - span(a, &here.now)).max(0.0),
            _ => planned_s,
        };
        let items = look.laid.steps.get(i).map_or(&[][..], |s| &s.add);
        let adds: Vec<String> = items
            .iter()
            .filter(|x| x.weight_g >= 0.05)
            .map(|x| {
                let at = if x.name.is_some() {
                    format!(" at {}", degrees(here, x.temp_c))
                } else {
                    String::new()
                };
                format!(
                    "{} {}{at}",
                    here.words(&x.what.name()),
                    m.weighed(x.weight_g)
                )
            })
            .collect();
        let adds = match s.add.leaven > 0.0 && a.to_mix.has_yeast {
            true => [vec![here.words(&a.to_mix.yeast.name())], adds].concat(),
            false => adds,
        };
        MixStepView {
            n: n as u16,
            say: here.say(&s.say),
            cue: here.words(&s.cue),
            adds: adds.join(", "),
            stands,
            time: clocked(time),
        }
    })
    .collect()
}

/// Minutes and seconds, or hours where it is long: the script says the same.
fn clocked(s: f64) -> String {
    /// From so many minutes on nobody counts seconds.
    const LONG_S: f64 = 100.0 * 60.0;
    if s < LONG_S {
        return min_s(s);
    }
    let min = (s / 60.0).round() as u64;
    format!("{} h {:02}", min / 60, min % 60)
}

/// What is poured next, and how warm: of a run under way.
fn next_pour(look: &MixLook, here: &RequestKitchen) -> Option<(u16, String)> {
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
fn usually(a: &AskedRun, look: &MixLook, here: &RequestKitchen) -> String {
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

fn stretches(look: &MixLook, here: &RequestKitchen) -> Vec<Stretch> {
    let mut at = 0.0;
    look.goes
        .steps
        .iter()
        .map(|s| {
            let from_min = at;
            at += s.minutes;
            Stretch {
                from_min,
                to_min: at,
                name: here.words(&s.speed.name()),
            }
        })
        .collect()
}

fn log(told: &BatchRecord, a: &AskedRun, here: &RequestKitchen) -> Vec<TapLine> {
    let own = told.seen().rev().filter_map(|o| {
        let tap = o.mix_tap()?;
        let of_run = tap.bowl == a.bowl && tap.run == a.run;
        let shown = tap.act.is_of_the_dough();
        (of_run && shown).then(|| TapLine {
            key: o.key.to_string(),
            at: format::hm(&here.local(o.at)),
            says: match &tap.act {
                MixAct::Step { step } if usize::from(*step) > a.steps() => "Out of the bowl".into(),
                act => here.say(&act.fact()),
            },
        })
    });
    own.take(12).collect()
}

/// Cautions of the work as it is done here.
fn cautions(a: &AskedRun, look: &MixLook) -> Vec<Fact> {
    /// Who lifts more is told so, kg.
    const HEAVY_KG: f64 = 20.0;
    let mut all: Vec<MixHazard> = a.to_mix.programme.hazards.clone();
    let heavy = look.laid.contents().weight_g > 1000.0 * HEAVY_KG;
    if !heavy {
        all.retain(|h| *h != MixHazard::Lifting);
    } else if !all.contains(&MixHazard::Lifting) {
        all.push(MixHazard::Lifting);
    }
    if let Some(b) = look.blended {
        if b.kettle_g > 0.0 {
            all.push(MixHazard::Scald);
        }
        if b.ice_g > 0.0 {
            all.push(MixHazard::CrushedIce);
        }
    }
    if !all.contains(&MixHazard::RawFlour) {
        all.push(MixHazard::RawFlour);
    }
    all.into_iter().map(MixHazard::caution).collect()
}

fn tabs(told: &BatchRecord, a: &AskedRun, here: &RequestKitchen) -> Vec<MixTab> {
    let all = asked::bowls(told);
    if all.len() < 2 {
        return vec![];
    }
    all.into_iter()
        .map(|(bowl, name)| MixTab {
            href: format!("/batches/{}/mix?bowl={bowl}", told.batch.code),
            name: here.say(&name),
            here: bowl == a.bowl,
        })
        .collect()
}

fn run_tabs(told: &BatchRecord, a: &AskedRun) -> Vec<MixTab> {
    if a.over.len() < 2 {
        return vec![];
    }
    let all = a.over.iter().enumerate();
    all.map(|(i, over)| MixTab {
        href: href(&told.batch.code, a.bowl, (i + 1) as u16),
        name: format!(
            "Run {} of {}{}",
            i + 1,
            a.over.len(),
            if *over { ", out" } else { "" }
        ),
        here: i + 1 == usize::from(a.run),
    })
    .collect()
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
