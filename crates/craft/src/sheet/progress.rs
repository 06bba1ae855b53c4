//! How far a batch has come, from the steps that were marked done.

use super::{Block, PlannedStep, SheetResult, StepKind};
use crate::mix::run::{MixAct, MixTap};
use jiff::{SignedDuration, Timestamp};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// What was said of a step.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum StepSaid {
    /// Work that takes its time began.
    Begun,
    /// Marked done; of work that takes its time nobody said whether it began or ended then.
    #[default]
    Done,
    /// Work that takes its time ended.
    Finished,
    /// It was left out.
    LeftOut,
    /// The last word about it was a slip.
    Undone,
}

/// A word about a step, by its number.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct StepPast {
    /// The step's own number.
    pub number: u16,
    /// When.
    pub at: Timestamp,
    /// What was said of it.
    #[serde(default)]
    pub said: StepSaid,
}

/// The steps of a plan as they were to be done, up to a moment: what is taken of a dough that was closed without a word about
/// any of its steps.
pub fn done_as_planned(steps: &[PlannedStep], until: Timestamp) -> Vec<StepPast> {
    let past = |number, at, said| StepPast { number, at, said };
    let of = |s: &PlannedStep| match s.has_length() {
        false => vec![past(s.number, s.at, StepSaid::Done)],
        true => {
            let took = SignedDuration::from_secs_f64((60.0 * s.hands_on_min).round());
            let end = s.at.checked_add(took).unwrap_or(s.at);
            vec![
                past(s.number, s.at, StepSaid::Begun),
                past(s.number, end, StepSaid::Finished),
            ]
        }
    };
    let mut all: Vec<StepPast> = steps.iter().flat_map(of).collect();
    all.retain(|s| s.at <= until);
    all
}

/// What a tap at the bowl says of the plan's steps: the first step of the first run begins the mixing, the end of the last run
/// ends it; a preferment is mixed when its bowl is done.
#[derive(Debug, Default)]
pub struct FromTheBowl {
    /// Steps of the programme and runs, by bowl.
    chosen: BTreeMap<u16, (usize, u16)>,
}

impl FromTheBowl {
    /// What the next tap says, in the order of entering.
    pub fn says(&mut self, planned: &SheetResult, tap: &MixTap) -> Option<StepPast> {
        let step = match &tap.act {
            MixAct::Chosen {
                programme, runs, ..
            } => {
                let steps = programme.steps_to_mixed();
                self.chosen.insert(tap.bowl, (steps, *runs));
                return None;
            }
            MixAct::Step { step } => usize::from(*step),
            _ => return None,
        };
        let (steps, runs) = self.chosen.get(&tap.bowl).copied()?;
        let said = match tap.bowl {
            0 if step == 1 && tap.run == 1 => StepSaid::Begun,
            0 if step == steps + 1 && tap.run >= runs => StepSaid::Finished,
            n if n > 0 && step > steps => StepSaid::Done,
            _ => return None,
        };
        let number = step_of_bowl(planned, tap.bowl)?.number;
        let at = tap.at;
        Some(StepPast { number, at, said })
    }
}

/// The step that mixes what is in a bowl: 0 the dough, else the preferment of that number.
pub fn step_of_bowl(planned: &SheetResult, bowl: u16) -> Option<&PlannedStep> {
    if bowl == 0 {
        return planned.steps.iter().find(|s| s.kind == StepKind::Mix);
    }
    let from_at = planned.preferments.get(usize::from(bowl) - 1)?.from_at;
    let before = &planned.preferments[..usize::from(bowl) - 1];
    // Several at one moment stand in the order of the formula.
    let earlier = before.iter().filter(|p| p.from_at == from_at).count();
    let at_once = planned
        .steps
        .iter()
        .filter(|s| s.kind == StepKind::Preferment && s.at == from_at);
    at_once.into_iter().nth(earlier)
}

/// The bowl that a step mixes, where it is a mixing.
pub fn bowl_of_step(planned: &SheetResult, step: &PlannedStep) -> Option<u16> {
    if !matches!(step.kind, StepKind::Mix | StepKind::Preferment) {
        return None;
    }
    let bowls = 0..=planned.preferments.len() as u16;
    let of = |bowl: &u16| step_of_bowl(planned, *bowl).is_some_and(|s| s.number == step.number);
    bowls.into_iter().find(of)
}

/// What is known of one step.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct StepState {
    /// When it began.
    pub begun: Option<Timestamp>,
    /// When it was done.
    pub done: Option<Timestamp>,
    /// `done` is when it ended, and nothing else.
    pub ended: bool,
    /// Whether it was left out.
    pub left_out: bool,
}

impl StepState {
    /// When it was done; what was left out did not happen.
    pub fn happened(&self) -> Option<Timestamp> {
        self.done.filter(|_| !self.left_out)
    }
    /// Begun and not done.
    pub fn under_way(&self) -> Option<Timestamp> {
        self.begun.filter(|_| self.done.is_none())
    }
    /// Whether anything was said of it.
    pub fn is_touched(&self) -> bool {
        self.begun.is_some() || self.done.is_some()
    }
    fn take(&mut self, said: StepSaid, at: Timestamp) {
        match said {
            StepSaid::Begun => self.begun = Some(at),
            StepSaid::Undone if self.done.is_some() => {
                *self = StepState {
                    begun: self.begun,
                    ..StepState::default()
                }
            }
            StepSaid::Undone => *self = StepState::default(),
            StepSaid::Done | StepSaid::Finished | StepSaid::LeftOut => {
                self.done = Some(at);
                self.ended = said == StepSaid::Finished;
                self.left_out = said == StepSaid::LeftOut;
            }
        }
    }
}

/// Folds what was said of steps, in the order of entering: the last word about a step holds. One state for each step.
pub fn states(steps: &[PlannedStep], said: &[StepPast]) -> Vec<StepState> {
    let mut out = vec![StepState::default(); steps.len()];
    for s in said {
        // A step is known by its number: its place may be another since the plan was changed.
        if let Some(i) = steps.iter().position(|p| p.number == s.number) {
            out[i].take(s.said, s.at);
        }
    }
    out
}

/// Where the dough is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Stand {
    /// Nothing of it is done.
    Planned,
    /// A preferment stands; the dough is not mixed yet.
    Begun,
    /// In the mixer.
    Mixing,
    /// It left the mixer.
    Mixed,
    /// It rises in one.
    Bulk,
    /// Balls resting in the room.
    Balled,
    /// It lies in the cold.
    Cold,
    /// In the room or on the trays, on the way to the oven.
    Tempering,
    /// The first one went in.
    Baking,
    /// It is closed.
    Finished,
}

/// A batch's progress.
#[derive(Debug, Clone, PartialEq)]
pub struct Progress {
    /// What is known of each step.
    pub steps: Vec<StepState>,
    /// The next step: the one under way, else the first after the last one done.
    pub next: Option<usize>,
    /// How far it has come.
    pub stand: Stand,
    /// The leg of the path that the dough lies in; `None` before it is mixed.
    pub leg: Option<usize>,
}

impl Progress {
    /// Folds what was done. `baking` is true once a pizza went in.
    pub fn of(
        sheet: &SheetResult,
        steps: Vec<StepState>,
        baking: bool,
        finished: bool,
    ) -> Progress {
        // Lighting the oven happens beside the dough: it says nothing about where the dough is, and jumps over no step.
        let of_dough = |i: &usize| sheet.steps[*i].kind != StepKind::LightOven;
        let last = (0..steps.len())
            .rev()
            .filter(of_dough)
            .find(|i| steps[*i].is_touched());
        let next = (last.unwrap_or(0)..sheet.steps.len())
            .find(|i| steps[*i].done.is_none())
            .filter(|_| !finished);
        let stand = match last {
            _ if finished => Stand::Finished,
            _ if baking => Stand::Baking,
            None => Stand::Planned,
            Some(i) if sheet.steps[i].kind == StepKind::Mix && steps[i].under_way().is_some() => {
                Stand::Mixing
            }
            Some(i) => stand(&sheet.steps[i], sheet),
        };
        let leg = last.and_then(|i| leg(&sheet.steps[i], sheet));
        Progress {
            steps,
            next,
            stand,
            leg,
        }
    }

    /// Whether the dough is in the bowl: from then on its dose is no question.
    pub fn is_mixed(&self, steps: &[PlannedStep]) -> bool {
        self.any(steps, |k| matches!(k, StepKind::Mix | StepKind::Rest))
    }
    /// Whether a step of a kind was begun or done.
    pub fn any(&self, steps: &[PlannedStep], kind: impl Fn(StepKind) -> bool) -> bool {
        let all = steps.iter().zip(&self.steps);
        all.into_iter().any(|(s, t)| kind(s.kind) && t.is_touched())
    }
}

/// The leg that a step lies in, by the hours of the plan.
fn leg(step: &PlannedStep, sheet: &SheetResult) -> Option<usize> {
    if matches!(
        step.kind,
        StepKind::Preferment | StepKind::PrefermentCold | StepKind::Mix
    ) {
        return None;
    }
    let begun = |b: &&Block| b.from_at <= step.at + SignedDuration::from_secs(2);
    let mut legs = sheet.blocks.iter().filter(|b| b.leg.is_some());
    legs.rfind(begun).and_then(|b| b.leg)
}

fn stand(step: &PlannedStep, sheet: &SheetResult) -> Stand {
    let has_cold = sheet.steps.iter().any(|s| s.kind == StepKind::Temper);
    match step.kind {
        StepKind::Preferment | StepKind::PrefermentCold => Stand::Begun,
        StepKind::Mix => Stand::Mixed,
        StepKind::Rest | StepKind::Fold | StepKind::Bulk => Stand::Bulk,
        StepKind::Ball if has_cold => Stand::Cold,
        StepKind::Ball => Stand::Balled,
        StepKind::Cold | StepKind::Freeze | StepKind::Thaw => Stand::Cold,
        StepKind::Degas => Stand::Bulk,
        StepKind::Reball if has_cold => Stand::Cold,
        StepKind::Reball | StepKind::Move => Stand::Balled,
        StepKind::Temper | StepKind::Pan | StepKind::LightOven => Stand::Tempering,
        StepKind::Bake => Stand::Baking,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::formula::Scales;
    use crate::sheet::{KitchenUsual, SheetRequest, work_out};

    fn sheet() -> SheetResult {
        let kitchen = KitchenUsual {
            time_zone: "UTC".into(),
            altitude_m: 0.0,
            room_c: 20.0,
            fridge_c: 5.0,
            tap_water_c: 12.0,
            scales: Scales::default(),
        };
        work_out(&SheetRequest::of_style(
            crate::style::first(),
            &kitchen,
            "2026-11-27T19:00:00Z".parse().unwrap(),
        ))
        .unwrap()
    }

    fn after(kinds: &[StepKind], baking: bool) -> Progress {
        let s = sheet();
        let done = |p: &&PlannedStep| kinds.contains(&p.kind);
        let said: Vec<StepPast> = s
            .steps
            .iter()
            .filter(done)
            .map(|p| StepPast {
                number: p.number,
                at: p.at,
                said: StepSaid::Done,
            })
            .collect();
        Progress::of(&s, states(&s.steps, &said), baking, false)
    }

    #[test]
    fn the_last_step_done_says_where_the_dough_is() {
        use StepKind::*;
        assert_eq!(
            (after(&[], false).stand, after(&[], false).next),
            (Stand::Planned, Some(0))
        );
        assert_eq!(after(&[Mix], false).stand, Stand::Mixed);
        assert_eq!(after(&[Mix, Rest, Bulk, Ball], false).stand, Stand::Cold);
        assert_eq!(
            after(&[Mix, Rest, Bulk, Ball, Temper, LightOven], false).stand,
            Stand::Tempering
        );
        assert_eq!(
            after(&[Mix, Rest, Bulk, Ball, LightOven], false).stand,
            Stand::Cold,
            "an oven lit early"
        );
        assert_eq!(after(&[Mix, Ball], true).stand, Stand::Baking);
        let legs = |kinds: &[StepKind]| after(kinds, false).leg;
        assert_eq!(
            (legs(&[]), legs(&[Mix]), legs(&[Mix, Rest])),
            (None, None, Some(0))
        );
        assert_eq!(
            (legs(&[Mix, Ball]), legs(&[Mix, Ball, Temper])),
            (Some(1), Some(2))
        );
    }

    #[test]
    fn an_oven_lit_early_jumps_over_no_step() {
        use StepKind::*;
        let s = sheet();
        let next = |kinds: &[StepKind]| after(kinds, false).next.map(|i| s.steps[i].kind);
        assert_eq!(next(&[LightOven]), Some(s.steps[0].kind));
        assert_eq!(next(&[Mix, Rest, LightOven]), next(&[Mix, Rest]));
        // Once its turn comes, it is not asked for again.
        let to_bake = next(&[Mix, Rest, Bulk, Ball, Temper, LightOven]);
        assert_eq!(to_bake, Some(Bake));
    }

    #[test]
    fn a_step_that_was_jumped_over_is_not_asked_for_again() {
        use StepKind::*;
        let p = after(&[Mix, Ball], false);
        assert_eq!(sheet().steps[p.next.unwrap()].kind, Temper);
    }

    #[test]
    fn a_mix_under_way_is_the_next_thing_until_it_is_finished_and_a_slip_goes_back_one_word() {
        use StepSaid::*;
        let s = sheet();
        let mix = s.steps.iter().find(|p| p.kind == StepKind::Mix).unwrap();
        let after = |said: &[StepSaid]| {
            let past = |said: &StepSaid| StepPast {
                number: mix.number,
                at: mix.at,
                said: *said,
            };
            let said: Vec<StepPast> = said.iter().map(past).collect();
            let p = Progress::of(&s, states(&s.steps, &said), false, false);
            (p.stand, s.steps[p.next.unwrap()].kind)
        };
        assert_eq!(after(&[Begun]), (Stand::Mixing, StepKind::Mix));
        assert_eq!(after(&[Begun, Finished]), (Stand::Mixed, StepKind::Rest));
        let slipped = [Begun, Finished, Undone];
        assert_eq!(after(&slipped), (Stand::Mixing, StepKind::Mix));
        let both = [Begun, Finished, Undone, Undone];
        assert_eq!(after(&both), (Stand::Planned, StepKind::Mix));
        assert_eq!(after(&[LeftOut, Undone]).0, Stand::Planned);
    }

    #[test]
    fn the_first_and_the_last_step_at_the_bowl_tell_the_mixing() {
        use crate::mix::{Machine, Mixer, programmes};
        let s = sheet();
        let said = |key: &str, runs: u16, taps: &[(u16, u16)]| {
            let programme = programmes().iter().find(|p| p.key == key).unwrap();
            let tap = |run, act| MixTap {
                bowl: 0,
                run,
                at: s.mixed_at,
                act,
            };
            let chosen = MixAct::Chosen {
                programme: Box::new(programme.clone()),
                machine: Box::new(Machine::usual(Mixer::Spiral)),
                machine_id: None,
                runs,
            };
            let steps = taps
                .iter()
                .map(|(run, step)| tap(*run, MixAct::Step { step: *step }));
            let all: Vec<MixTap> = [tap(1, chosen)].into_iter().chain(steps).collect();
            let mut bowl = FromTheBowl::default();
            let each = all.iter().filter_map(|t| bowl.says(&s, t));
            each.map(|p| p.said).collect::<Vec<_>>()
        };
        use StepSaid::{Begun, Finished};
        assert_eq!(said("spiral_direct", 1, &[(1, 1), (1, 2), (1, 5)]), [Begun]);
        assert_eq!(
            said("spiral_direct", 1, &[(1, 1), (1, 6)]),
            [Begun, Finished]
        );
        // One run is out, the other is to come.
        assert_eq!(said("spiral_direct", 2, &[(1, 1), (1, 6), (2, 1)]), [Begun]);
        let both = [(1, 1), (1, 6), (2, 1), (2, 6)];
        assert_eq!(said("spiral_direct", 2, &both), [Begun, Finished]);
        // A night without kneading is a part of the rising: stirred is mixed, and its folds end nothing twice.
        let night = [(1, 1), (1, 2), (1, 3), (1, 4)];
        assert_eq!(said("no_knead", 1, &night), [Begun, Finished]);
    }
}
