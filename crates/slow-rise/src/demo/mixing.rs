//! Doughs that were mixed in the house's spiral, tap by tap: with what a thermometer in such a bowl reads.

use super::{DemoWriter, minutes, uneven};
use anyhow::{Context, Result};
use craft::mix::run::MixAct;
use craft::mix::{
    FrictionFigures, Machine, MixShares, Mixer, OwnProgramme, OwnStep, ReadySign, Speed, StepWork,
    learn_friction, trace,
};
use craft::sheet::{SheetRequest, StepKind};
use jiff::Timestamp;
use store::batch::{Batch, by_code};
use store::entry::Seen;
use store::pantry::{At, everything, put};
use store::{BatchCache, entry};

/// The mixer of the house.
pub(super) fn spiral() -> Machine {
    Machine {
        name: "Halt spiral".into(),
        capacity_kg: 9.0,
        ..Machine::usual(Mixer::Spiral)
    }
}

/// The house's own way: a long rest before the salt, for a dough that is mixed while the first trains come in.
pub(super) fn own_way() -> OwnProgramme {
    let step = |work, minutes, say: &str, until: &str| OwnStep {
        work,
        minutes,
        add: MixShares::default(),
        say: say.into(),
        until: until.into(),
    };
    let mut steps = vec![
        step(
            StepWork::Slow,
            4.0,
            "Flour and nine tenths of the water",
            "No dry flour left",
        ),
        step(StepWork::Rest, 25.0, "Rest, lid on", "Smooth to the touch"),
        step(
            StepWork::Slow,
            3.0,
            "Salt and the last water, at the wall",
            "Gathered again",
        ),
        step(StepWork::Medium, 4.0, "", "Bowl wall clean"),
    ];
    steps[0].add = MixShares {
        flour: 1.0,
        water: 0.9,
        leaven: 1.0,
        ..MixShares::default()
    };
    steps[2].add = MixShares {
        water: 0.1,
        salt: 1.0,
        ..MixShares::default()
    };
    OwnProgramme {
        name: "Halt way, long rest".into(),
        key: "own-halt-long-rest".into(),
        kind: Mixer::Spiral,
        steps,
    }
}

/// What its steel and its motor really do: nobody at the Halt knows it, the mixes teach it.
const REALLY: FrictionFigures = FrictionFigures {
    offset_k: 0.0,
    slow: 0.26,
    medium: 0.61,
    fast: 1.0,
    fill_effect: 0.34,
};

impl DemoWriter<'_> {
    /// The dough in the spiral, where the pantry has it.
    pub(super) async fn in_spiral(&mut self, request: SheetRequest) -> Result<SheetRequest> {
        let all = everything(self.db, self.here.id).await?;
        let own = all
            .machines
            .into_iter()
            .find(|m| m.facts.kind == Mixer::Spiral);
        Ok(request.with(|r| {
            r.formula.mixer = Mixer::Spiral;
            r.machine = own.map(|m| Box::new(m.facts));
        }))
    }

    /// Mixes the dough of a batch as it was planned, step by step; each mix begins a little warmer or cooler than its parts say.
    pub(super) async fn mixed(&mut self, b: &Batch, nth: u32) -> Result<()> {
        let to_mix = (b.sheet.request)
            .to_mix(&b.sheet.result.formula, 0)
            .context("a dough is mixed")?;
        let poured = to_mix.poured().map_err(anyhow::Error::new)?;
        let laid = to_mix.by().laid_as_poured(&to_mix.water, &poured, None);
        let really = FrictionFigures {
            offset_k: 0.1 * f64::from(uneven(nth, 5)),
            ..REALLY
        };
        let course = trace(&laid, Some(&really)).map_err(anyhow::Error::new)?;
        let all = everything(self.db, self.here.id).await?;
        let own = all
            .machines
            .iter()
            .find(|m| m.facts.name == to_mix.machine.name);
        // The bowl is done when the plan has the dough off the mixer.
        let begin = b.sheet.result.mixed_at - minutes(laid.minutes());
        let at = |min: f64| begin + minutes(min);
        self.tap(
            b,
            at(-4.0),
            MixAct::Chosen {
                programme: Box::new(to_mix.programme.clone()),
                machine: Box::new(to_mix.machine.clone()),
                machine_id: own.map(|m| m.id),
                runs: 1,
            },
        )
        .await?;
        let steps = laid.steps.len();
        let works = |i: usize| laid.steps[i].speed != Speed::Off;
        for (i, step) in laid.steps.iter().enumerate() {
            let n = (i + 1) as u16;
            self.tap(b, at(laid.begins_min(i)), MixAct::Step { step: n })
                .await?;
            let end = laid.begins_min(i + 1);
            // The thermometer goes in when the machine has stopped, and at the end of a longer rest.
            if (works(i) && step.minutes >= 2.0) || step.minutes >= 5.0 {
                let noise = 0.1 * f64::from(uneven(nth + u32::from(n), 3));
                let c = course.at(end).unwrap_or(23.0) + noise;
                let c = (10.0 * c).round() / 10.0;
                self.tap(b, at(end), MixAct::Read { c }).await?;
            }
            if step.speed == Speed::Medium {
                let sign = ReadySign::WallClean;
                self.tap(b, at(end - 1.0), MixAct::Sign { sign }).await?;
            }
        }
        let step = (steps + 1) as u16;
        let end = laid.minutes();
        self.tap(b, at(end), MixAct::Step { step }).await?;
        let sign = ReadySign::Window;
        self.tap(b, at(end + 0.5), MixAct::Sign { sign }).await
    }

    async fn tap(&mut self, b: &Batch, at: Timestamp, act: MixAct) -> Result<()> {
        let (bowl, run) = (0, 1);
        self.see(b, at, Seen::Mix { bowl, run, act }).await
    }

    /// What the mixes so far taught goes into the pantry, as a maker takes it over.
    pub(super) async fn mixer_learned(&mut self) -> Result<()> {
        let all = everything(self.db, self.here.id).await?;
        let Some(own) = all.machines.iter().find(|m| m.facts.kind == Mixer::Spiral) else {
            return Ok(());
        };
        let mut mixes = vec![];
        for code in entry::codes_at_the_bowl(self.db, self.here.id, 30).await? {
            let held = BatchCache::default();
            let Some(b) = by_code(self.db, self.here.id, &code, &held).await? else {
                continue;
            };
            let taps: Vec<_> = b.entries.seen.iter().filter_map(|o| o.mix_tap()).collect();
            let run = craft::mix::run::MixRun::of(&taps, 0, 1);
            let planned = b.sheet.request.to_mix(&b.sheet.result.formula, 0);
            mixes.extend(planned.and_then(|p| p.said(&run).logged(&run)));
        }
        let mut learned = learn_friction(Mixer::Spiral, &mixes);
        learned.doubtful.clear();
        let facts = Machine {
            learned: Some(Box::new(learned)),
            ..own.facts.clone()
        };
        let row = At::Row {
            id: own.id,
            revision: own.revision,
        };
        put(self.db, self.here.id, row, &facts, self.now).await?;
        Ok(())
    }
}

/// Whether a batch is mixed tap by tap: then its step is told by the taps.
pub(super) fn by_taps(b: &Batch, kind: StepKind) -> bool {
    kind == StepKind::Mix && b.sheet.request.formula.mixer == Mixer::Spiral
}
