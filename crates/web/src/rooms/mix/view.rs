//! What Mix shows of one run, already worded.

use super::asked::AskedRun;
use super::lists::{
    MixField, MixStepView, MixTab, MixWay, TapLine, WeighView, fields, href, log, run_tabs, steps,
    stretches, tabs, ways, weigh,
};
use super::picture::{self, LinePin};
use super::words::{
    TaughtView, degrees, end_small, head, mend_words, next_pour, usually, water_why,
};
use crate::batch::record::BatchRecord;
use crate::shared::format::{self};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::tongue::{phrase, say};
use craft::keyed::Keyed;
use craft::mix::run::MixTrouble;
use craft::mix::{MixLook, Mixer, ReadySign, look};
use craft::refusal::ValidationError;
use jiff::Timestamp;
use serde::Serialize;
use speech::Judgement;
use uuid::Uuid;

/// What a maker sees in the dough, as a button.
pub struct SignView {
    pub key: &'static str,
    pub says: String,
    pub seen: bool,
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
            Some(s) if !begun => say!("mix-begin", s = s.say),
            Some(_) => phrase("mix-done-next-step-2").into(),
            None => phrase("mix-done-it-is-out").into(),
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
                say!(
                    "mix-flour-water",
                    flour_g = m.weight(laid_g.flour_g),
                    unit = unit,
                    water_g = m.weight(laid_g.water_g),
                    rest = if runs > 1.0 {
                        phrase("mix-in-this-run")
                    } else {
                        ""
                    }
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
                phrase("mix-water-with-ice")
            } else {
                phrase("mix-water-in-2")
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
            ways: if begun {
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
            trace_small: a
                .told
                .began_at()
                .map_or(phrase("batch-as-planned").into(), |t| {
                    say!("mix-minutes-from", t = format::hm(&here.local(t)))
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
            cautions: look
                .hazards(&a.to_mix.programme)
                .into_iter()
                .map(|h| here.say(&h.caution()))
                .collect(),
            taught,
            on_to: match a.bowl {
                0 => (
                    format!("/batches/{}/rise", told.batch.code),
                    phrase("mix-on-to-rise"),
                ),
                _ => (
                    format!("/batches/{}", told.batch.code),
                    phrase("mix-back-to-the-batch"),
                ),
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

fn pins(a: &AskedRun, look: &MixLook, water_c: f64) -> Vec<LinePin> {
    let w = &a.to_mix.water;
    let pin = |name: &str, c: f64, water: bool| LinePin {
        name: name.into(),
        c,
        water,
    };
    let mut out = vec![
        pin(phrase("form-tap"), w.tap_water_c, true),
        pin(phrase("pantry-flour-2"), w.flour_c, false),
        pin(phrase("form-room"), w.room_c, false),
    ];
    if w.preferment_g > 0.0 {
        out.push(pin(phrase("mix-preferment"), w.preferment_c, false));
    }
    if let Some(c) = a.to_mix.bowl_c {
        out.push(pin(phrase("mix-bowl"), c, false));
    }
    if look.blended.is_some() {
        out.push(pin(phrase("mix-water-in"), water_c, true));
    }
    out
}
