//! Which bowl and which run a page is about, and what is asked of it.

use crate::batch::record::BatchRecord;
use crate::shared::larder::Larder;
use craft::mix::run::{MixRun, MixTap};
use craft::mix::{LoggedMix, MixProgramme, UsualMinutes, preferment_programmes, usual_minutes};
use craft::sheet::progress::{Stand, step_of_bowl};
use craft::sheet::{BowlToMix, OwnBase};
use store::entry::{Observation, Standing};

/// A bowl of a batch with one run of it, as it was said.
pub struct AskedRun {
    pub bowl: u16,
    pub run: u16,
    pub to_mix: BowlToMix,
    /// The machine's number in the pantry.
    pub machine_id: Option<u64>,
    pub told: MixRun,
    /// Of every run of this bowl, whether it is over.
    pub over: Vec<bool>,
    /// What this mixer and flour usually need.
    pub usual: UsualMinutes,
    /// The base of this mixer and programme.
    pub base: Option<OwnBase>,
}

pub fn taps(told: &BatchRecord) -> Vec<MixTap> {
    told.seen().filter_map(Observation::mix_tap).collect()
}

/// The bowls of a batch: their number and what is in them. The dough last, as it is mixed last.
pub fn bowls(told: &BatchRecord) -> Vec<(u16, craft::fact::Fact)> {
    let sheet = &told.batch.sheet;
    let columns = &sheet.result.formula.columns;
    let last = columns.len().saturating_sub(1);
    columns
        .iter()
        .enumerate()
        .map(|(i, c)| (if i == last { 0 } else { (i + 1) as u16 }, c.name.clone()))
        .filter(|(bowl, _)| sheet.request.to_mix(&sheet.result.formula, *bowl).is_some())
        .collect()
}

/// The bowl that is next: the first preferment that is not mixed yet, else the dough.
fn next_bowl(told: &BatchRecord) -> u16 {
    if told.progress.stand > Stand::Begun {
        return 0;
    }
    let result = &told.batch.sheet.result;
    let done = |bowl: u16| {
        let number = step_of_bowl(result, bowl).map(|s| s.number);
        let i = result.steps.iter().position(|s| Some(s.number) == number);
        i.is_none_or(|i| told.progress.steps[i].done.is_some())
    };
    let all = bowls(told);
    let open = all.iter().find(|(b, _)| *b > 0 && !done(*b));
    open.map_or(0, |(b, _)| *b)
}

impl AskedRun {
    /// The run of a bowl that was asked for, or the next one; `None` where there is no such bowl or run.
    pub fn of(
        told: &BatchRecord,
        larder: &Larder,
        bowl: Option<u16>,
        run: Option<u16>,
    ) -> Option<AskedRun> {
        let bowl = bowl.unwrap_or_else(|| next_bowl(told));
        let taps = taps(told);
        AskedRun::among(told, larder, &taps, bowl, run)
    }
    /// The same among the taps that are kept when another one comes.
    pub fn standing(
        told: &BatchRecord,
        larder: &Larder,
        kept: &Standing,
        bowl: u16,
        run: u16,
    ) -> Option<AskedRun> {
        AskedRun::among(told, larder, &kept.mix, bowl, Some(run))
    }

    fn among(
        told: &BatchRecord,
        larder: &Larder,
        taps: &[MixTap],
        bowl: u16,
        run: Option<u16>,
    ) -> Option<AskedRun> {
        let sheet = &told.batch.sheet;
        let mut planned = sheet.request.to_mix(&sheet.result.formula, bowl)?;
        let mut machine_id = None;
        if let Some((own, id)) = larder.machine(planned.machine.kind).filter(|_| bowl == 0) {
            let programme = planned.programme.clone();
            planned = planned.in_machine(own, programme);
            machine_id = Some(id);
        }
        // What the first run is mixed in holds for all of them until another is said.
        let first = MixRun::of(taps, bowl, 1);
        let as_first = planned.clone().said(&first);
        if let Some(c) = &first.chosen {
            machine_id = c.machine_id;
        }
        let of = |n: u16| {
            let told = MixRun::of(taps, bowl, n);
            let mut said = as_first.clone();
            if n > 1 {
                said = said.said(&told);
            }
            (said, told)
        };
        let runs = u16::try_from(as_first.runs.max(1)).ok()?;
        let over: Vec<bool> = (1..=runs)
            .map(|n| {
                let (said, told) = of(n);
                told.ended_at(said.programme.steps.len()).is_some()
            })
            .collect();
        let next = over.iter().position(|o| !o).unwrap_or(over.len() - 1) + 1;
        let run = run.unwrap_or(next as u16);
        if run == 0 || run > runs {
            return None;
        }
        let (to_mix, told) = of(run);
        if let Some(c) = &told.chosen {
            machine_id = c.machine_id;
        }
        Some(AskedRun {
            bowl,
            run,
            to_mix,
            machine_id,
            told,
            over,
            usual: usual_minutes(&[]),
            base: None,
        })
    }

    /// The programmes that it may be mixed by: the dough by all of them, a preferment by its few.
    pub fn ways(&self, larder: &Larder) -> Vec<MixProgramme> {
        match self.bowl {
            0 => larder.programmes(),
            _ => preferment_programmes(self.to_mix.hydration_percent).to_vec(),
        }
    }
    pub fn steps(&self) -> usize {
        self.to_mix.programme.steps.len()
    }
    pub fn parts(&self) -> usize {
        let laid = self.to_mix.by().mixing(&self.to_mix.water);
        craft::mix::water_parts(&laid).len()
    }
    /// Whether nobody said what it is mixed in.
    pub fn chosen_nothing(&self) -> bool {
        self.told.chosen.is_none()
    }
    /// A run before this one that is not out of the bowl yet.
    pub fn not_out_before(&self) -> Option<u16> {
        let before = self.over.iter().take(usize::from(self.run) - 1);
        before.clone().position(|o| !o).map(|i| (i + 1) as u16)
    }
    pub fn begun(&self) -> bool {
        !self.told.begun.is_empty()
    }
    pub fn ended(&self) -> bool {
        self.told.ended_at(self.steps()).is_some()
    }
    /// The run as friction is learned from it.
    pub fn logged(&self) -> Option<LoggedMix> {
        self.to_mix.logged(&self.told)
    }
}
