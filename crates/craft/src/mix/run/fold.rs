//! Taps folded into one run of a mixer, by the clock.

use super::tap::{MixAct, MixInput, MixRefused, MixTap, MixTrouble};
use crate::mix::{
    BowlStep, LoggedMix, Machine, MixProgramme, MixReading, Mixing, ObservedSign, ReadySign,
    water_part,
};
use jiff::Timestamp;
use std::collections::{BTreeMap, BTreeSet};

/// A step is not made longer than this by taps, min.
const LONGEST_MIN: f64 = 1440.0;

/// The dough as it was measured.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BowlReading {
    /// When.
    pub at: Timestamp,
    /// °C.
    pub dough_c: f64,
}

/// A part of the water that went in.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WaterIn {
    /// When.
    pub at: Timestamp,
    /// Its temperature, where it was measured, °C.
    pub temp_c: Option<f64>,
}

/// What a run is mixed in, and by which programme.
#[derive(Debug, Clone, PartialEq)]
pub struct MixChoice {
    /// The steps.
    pub programme: MixProgramme,
    /// The machine.
    pub machine: Machine,
    /// Its number in the pantry.
    pub machine_id: Option<u64>,
    /// In how many runs.
    pub runs: u16,
}

/// One run of a mixer, as the taps tell it.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct MixRun {
    /// What it is mixed in and by which programme, where that was said.
    pub chosen: Option<MixChoice>,
    /// Temperatures that were measured or wished, °C.
    pub measured: BTreeMap<MixInput, f64>,
    /// Lines of what is weighed that were weighed.
    pub weighed: BTreeSet<u16>,
    /// When each step began, from the first; the one after the last is the end.
    pub begun: Vec<Timestamp>,
    /// Minutes that steps were given more, by step from 1.
    pub more: BTreeMap<u16, f64>,
    /// Parts of the water that went in, from 1.
    pub poured: BTreeMap<u16, WaterIn>,
    /// The dough, in the order of the clock.
    pub readings: Vec<BowlReading>,
    /// Signs, in the order of the clock.
    pub signs: Vec<(Timestamp, ReadySign)>,
    /// What went wrong, in the order of the clock.
    pub troubles: Vec<(Timestamp, MixTrouble)>,
}

impl MixRun {
    /// One run out of all that was tapped about a batch.
    pub fn of<'a>(taps: impl IntoIterator<Item = &'a MixTap>, bowl: u16, run: u16) -> MixRun {
        let mut own: Vec<&MixTap> = taps
            .into_iter()
            .filter(|t| t.bowl == bowl && t.run == run)
            .collect();
        own.sort_by_key(|t| t.at);
        let mut out = MixRun::default();
        for t in own {
            out.fold(t);
        }
        out
    }

    fn fold(&mut self, tap: &MixTap) {
        let at = tap.at;
        match &tap.act {
            MixAct::Chosen {
                programme,
                machine,
                machine_id,
                runs,
            } => {
                self.chosen = Some(MixChoice {
                    programme: (**programme).clone(),
                    machine: (**machine).clone(),
                    machine_id: *machine_id,
                    runs: *runs,
                });
            }
            MixAct::Measured { what, c } => {
                self.measured.insert(*what, *c);
            }
            MixAct::Weighed { line, done: true } => {
                self.weighed.insert(*line);
            }
            MixAct::Weighed { line, .. } => {
                self.weighed.remove(line);
            }
            MixAct::Step { step } => {
                // A step that was jumped over took no time.
                while self.begun.len() < usize::from(*step) {
                    self.begun.push(at);
                }
            }
            MixAct::More { step, minutes } => {
                *self.more.entry(*step).or_default() += minutes;
            }
            MixAct::Poured { part, c } => {
                let temp_c = *c;
                self.poured.entry(*part).or_insert(WaterIn { at, temp_c });
            }
            MixAct::Read { c } => self.readings.push(BowlReading { at, dough_c: *c }),
            MixAct::Sign { sign } => self.signs.push((at, *sign)),
            MixAct::Trouble { trouble } => self.troubles.push((at, *trouble)),
        }
    }

    /// When the first step began.
    pub fn began_at(&self) -> Option<Timestamp> {
        self.begun.first().copied()
    }
    /// The step that is on, from 1; none before and after.
    pub fn step_on(&self, steps: usize) -> Option<usize> {
        let n = self.begun.len();
        (n > 0 && n <= steps).then_some(n)
    }
    /// When it ended.
    pub fn ended_at(&self, steps: usize) -> Option<Timestamp> {
        self.begun.get(steps).copied()
    }
    /// Minutes from its begin.
    pub fn minute_of(&self, at: Timestamp) -> Option<f64> {
        let begin = self.began_at()?;
        Some(at.duration_since(begin).as_secs_f64() / 60.0)
    }

    /// Whether a tap that arrives now makes sense in this run of so many steps and parts of water.
    ///
    /// Errors: the reason.
    pub fn admits(
        &self,
        tap: &MixTap,
        steps: usize,
        parts: usize,
        closed: bool,
    ) -> Result<(), MixRefused> {
        if closed {
            return Err(MixRefused::Closed);
        }
        let over = self.ended_at(steps).is_some();
        match &tap.act {
            MixAct::Chosen { .. } if !self.begun.is_empty() => Err(MixRefused::Begun),
            MixAct::Step { step } => self.admits_step(tap.at, *step, steps),
            // What was read a while ago and comes late is still of the dough in the bowl.
            MixAct::Read { .. } => match self.began_at() {
                Some(begin) if tap.at >= begin => Ok(()),
                _ => Err(MixRefused::NotBegun),
            },
            MixAct::More { step, .. } if self.begun.len() != usize::from(*step) => {
                Err(match self.begun.len() {
                    0 => MixRefused::NotBegun,
                    _ if over => MixRefused::Ended,
                    _ => MixRefused::OnAlready(*step),
                })
            }
            MixAct::More { step, minutes } => {
                let so_far = self.more.get(step).copied().unwrap_or(0.0);
                match (-LONGEST_MIN..=LONGEST_MIN).contains(&(so_far + minutes)) {
                    true => Ok(()),
                    false => Err(MixRefused::TooLong),
                }
            }
            MixAct::Poured { part, .. } if *part == 0 || usize::from(*part) > parts => {
                Err(MixRefused::NoSuchPart(*part))
            }
            MixAct::Poured { part, .. } if self.poured.contains_key(part) => {
                Err(MixRefused::InAlready(*part))
            }
            MixAct::Poured { .. } | MixAct::Sign { .. } | MixAct::Trouble { .. } => {
                match (self.begun.is_empty(), over) {
                    (true, _) => Err(MixRefused::NotBegun),
                    // The window is often pulled when the machine stands.
                    (_, true) if matches!(tap.act, MixAct::Poured { .. }) => Err(MixRefused::Ended),
                    _ => Ok(()),
                }
            }
            MixAct::Chosen { .. } | MixAct::Measured { .. } | MixAct::Weighed { .. } => Ok(()),
        }
    }

    fn admits_step(&self, at: Timestamp, step: u16, steps: usize) -> Result<(), MixRefused> {
        let next = self.begun.len() + 1;
        if next > steps + 1 {
            return Err(MixRefused::Ended);
        }
        if usize::from(step) < next {
            return Err(MixRefused::OnAlready(step));
        }
        if usize::from(step) > next {
            return Err(MixRefused::OutOfOrder((usize::from(step) - next) as u16));
        }
        match self.begun.last() {
            Some(last) if at < *last => Err(MixRefused::BeforeTheLast),
            _ => Ok(()),
        }
    }

    /// The steps as they went so far: real where they are over, at least as long as they are going on, planned where they are
    /// to come. What was poured is as warm as it was measured and in when it was said.
    pub fn as_it_goes(&self, laid: &Mixing, now: Timestamp) -> Mixing {
        let mut m = laid.clone();
        for (i, s) in m.steps.iter_mut().enumerate() {
            let more = self.more.get(&((i + 1) as u16)).copied().unwrap_or(0.0);
            let planned = (s.minutes + more).clamp(0.0, LONGEST_MIN);
            let span = |from: Timestamp, to: Timestamp| {
                (to.duration_since(from).as_secs_f64() / 60.0).clamp(0.0, LONGEST_MIN)
            };
            s.minutes = match (self.begun.get(i), self.begun.get(i + 1)) {
                (Some(from), Some(to)) => span(*from, *to),
                (Some(from), None) => planned.max(span(*from, now)),
                _ => planned,
            };
            for item in &mut s.add {
                let part = |n: &u16| item.name.as_deref() == Some(&water_part(usize::from(*n)));
                let poured = self.poured.iter().find(|(n, _)| part(n));
                if let Some(c) = poured.and_then(|(_, w)| w.temp_c) {
                    item.temp_c = c;
                }
            }
        }
        self.pour_when_it_was_said(&mut m);
        m
    }

    /// A part that went in later than its step began splits the step.
    fn pour_when_it_was_said(&self, m: &mut Mixing) {
        for (part, poured) in &self.poured {
            let name = water_part(usize::from(*part));
            let Some(at_min) = self.minute_of(poured.at) else {
                continue;
            };
            let holds = |s: &BowlStep| s.add.iter().any(|i| i.name.as_deref() == Some(&name));
            let Some(i) = m.steps.iter().position(holds) else {
                continue;
            };
            let after = at_min - m.begins_min(i);
            let step = &m.steps[i];
            // Within a few seconds of the step, it is the step.
            if after < 0.1 || after > step.minutes - 1e-6 || step.add.len() == 1 && i == 0 {
                continue;
            }
            let mut later = BowlStep {
                minutes: step.minutes - after,
                ..step.clone()
            };
            let item = |i: &crate::mix::BowlItem| i.name.as_deref() == Some(&name);
            later.add.retain(item);
            let step = &mut m.steps[i];
            step.minutes = after;
            step.add.retain(|i| !item(i));
            m.steps.insert(i + 1, later);
        }
    }

    /// What was read, in minutes from the begin.
    pub fn readings_min(&self) -> Vec<MixReading> {
        let each = self.readings.iter().filter_map(|r| {
            Some(MixReading {
                at_min: self.minute_of(r.at)?,
                dough_c: r.dough_c,
            })
        });
        each.collect()
    }
    /// Signs, in minutes from the begin.
    pub fn signs_min(&self) -> Vec<ObservedSign> {
        let each = self.signs.iter().filter_map(|(at, sign)| {
            Some(ObservedSign {
                at_min: self.minute_of(*at)?,
                sign: *sign,
            })
        });
        each.collect()
    }

    /// The run as friction is learned from it: whole, with at least one reading; none while it goes on.
    pub fn logged(&self, laid: &Mixing) -> Option<LoggedMix> {
        let end = self.ended_at(laid.steps.len())?;
        let readings = self.readings_min();
        // A reading of long after is not of the bowl.
        let last = self.minute_of(end)? + 3.0;
        let readings: Vec<MixReading> = readings.into_iter().filter(|r| r.at_min <= last).collect();
        (!readings.is_empty()).then(|| LoggedMix {
            mixing: self.as_it_goes(laid, end),
            readings,
        })
    }
}
