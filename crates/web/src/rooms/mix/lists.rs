//! The lists of Mix: bowls and runs, temperatures, ways to mix, what is weighed, steps, what was tapped.

use super::asked::{self, AskedRun};
use super::picture::Stretch;
use super::words::degrees;
use crate::batch::record::BatchRecord;
use crate::shared::format::{self, min_s};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::tongue::{phrase, say};
use craft::keyed::Keyed;
use craft::mix::run::{MixAct, MixInput};
use craft::mix::{MixLook, Mixer, ProgrammeFit, fitting};
use craft::sheet::WeighLine;
use jiff::Timestamp;

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

/// A tap that can be taken back.
pub struct TapLine {
    pub key: String,
    pub at: String,
    pub says: String,
}

pub fn href(code: &str, bowl: u16, run: u16) -> String {
    format!("/batches/{code}/mix?bowl={bowl}&run={run}")
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
        (MixInput::Kettle, boil, phrase("mix-boils-so-here").into()),
        (MixInput::Bowl, t.bowl_c, phrase("mix-as-the-room").into()),
    ];
    if t.water.preferment_g > 0.0 {
        let one = (
            MixInput::Preferment,
            Some(t.water.preferment_c),
            String::new(),
        );
        all.insert(2, one);
    }
    all.push((
        MixInput::Chilled,
        t.chilled_c,
        phrase("mix-where-there-is-any").into(),
    ));
    all.push((
        MixInput::Water,
        t.measured_water_c,
        phrase("mix-once-it-is-mixed").into(),
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

pub fn ways(
    told: &BatchRecord,
    a: &AskedRun,
    larder: &Larder,
    here: &RequestKitchen,
) -> Vec<MixWay> {
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
    let all = a.ways(larder);
    for (p, _) in fitting(&all, &tools, Some(style), &dough) {
        if a.bowl == 0 && p.wants_preferment() && !has_preferment {
            continue;
        }
        let fit = match p.fit(&dough) {
            ProgrammeFit::Fits => "",
            ProgrammeFit::WithCare => phrase("mix-with-care"),
            ProgrammeFit::NotForThis => phrase("mix-not-for-this-dough"),
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

pub fn weigh(told: &BatchRecord, a: &AskedRun, here: &RequestKitchen) -> Vec<WeighView> {
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

pub fn steps(a: &AskedRun, look: &MixLook, here: &RequestKitchen) -> Vec<MixStepView> {
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
                    [" ", &say!("mix-at", temp_c = degrees(here, x.temp_c)), ""].concat()
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
        let yeast_here = s.add.leaven > 0.0 || a.to_mix.programme.yeast_step() == Some(i);
        let adds = match yeast_here && a.to_mix.has_yeast {
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
pub fn clocked(s: f64) -> String {
    /// From so many minutes on nobody counts seconds.
    const LONG_S: f64 = 100.0 * 60.0;
    if s < LONG_S {
        return min_s(s);
    }
    let min = (s / 60.0).round() as u64;
    format!("{} h {:02}", min / 60, min % 60)
}

pub fn stretches(look: &MixLook, here: &RequestKitchen) -> Vec<Stretch> {
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

pub fn log(told: &BatchRecord, a: &AskedRun, here: &RequestKitchen) -> Vec<TapLine> {
    let own = told.seen().rev().filter_map(|o| {
        let tap = o.mix_tap()?;
        let of_run = tap.bowl == a.bowl && tap.run == a.run;
        let shown = tap.act.is_of_the_dough();
        (of_run && shown).then(|| TapLine {
            key: o.key.to_string(),
            at: format::hm(&here.local(o.at)),
            says: match &tap.act {
                MixAct::Step { step } if usize::from(*step) > a.steps() => {
                    phrase("mix-out-of-the-bowl").into()
                }
                act => here.say(&act.fact()),
            },
        })
    });
    own.take(12).collect()
}

pub fn tabs(told: &BatchRecord, a: &AskedRun, here: &RequestKitchen) -> Vec<MixTab> {
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

pub fn run_tabs(told: &BatchRecord, a: &AskedRun) -> Vec<MixTab> {
    if a.over.len() < 2 {
        return vec![];
    }
    let all = a.over.iter().enumerate();
    all.map(|(i, over)| MixTab {
        href: href(&told.batch.code, a.bowl, (i + 1) as u16),
        name: say!(
            "mix-run-of",
            i = i + 1,
            over = a.over.len(),
            rest = if *over { phrase("mix-run-out") } else { "" }
        ),
        here: i + 1 == usize::from(a.run),
    })
    .collect()
}
