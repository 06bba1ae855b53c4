//! Mishaps injected into hidden kitchens, and what the diagnosis makes of them (spec, section 12.4).
//!
//! The dough's part: kitchens of the broad variant with five logged bakes, a school that feels the mishap, a batch dosed as
//! learnt, opened within a quarter hour or so of its plan. What is noticed is said three times of four.

use super::chance::Chance;
use super::kitchen::{Hidden, Truth};
use super::lived::{Lived, bake, made_with, opening};
use super::outcome::{Outcome, Rates};
use super::school::{School, plan};
use crate::learn::answer::card_of;
use crate::learn::card::Card;
use crate::learn::channel::Channel;
use crate::learn::diagnose::{Cause, DiagnoseRequest, diagnose_with};
use crate::learn::fit::Posterior;
use crate::learn::observed::{Answers, LoggedBatch, NextBatch, Observed, StoodAs};
use crate::learn::predict::Prediction;

/// What was injected: the cause that is true, its channel and size, and a school that feels it.
const INJECTED: &[(Cause, Option<Channel>, f64, School)] = &[
    (
        Cause::FridgeWarm,
        Some(Channel::Fridge),
        3.0,
        School::ColdBalls,
    ),
    (
        Cause::FridgeCold,
        Some(Channel::Fridge),
        -2.5,
        School::Straight,
    ),
    (Cause::YeastMuch, Some(Channel::Yeast), 0.405, School::Day),
    (
        Cause::YeastLittle,
        Some(Channel::Yeast),
        -0.693,
        School::Short,
    ),
    (Cause::DoughWarm, Some(Channel::Dough), 4.0, School::Short),
    (Cause::RoomCold, Some(Channel::Room), -4.0, School::Day),
    (Cause::FlourWeak, Some(Channel::Gluten), -0.6, School::Day),
    // Three hours late, and noted so.
    (Cause::Late, None, 3.0, School::Short),
];

/// Everything of a mishap that a maker would write down.
fn seen(h: &Hidden, lived: &Lived, opened: f64, readings: bool, c: &mut Chance) -> Vec<Observed> {
    let m = lived.at(opened);
    let mut all = vec![Observed::State {
        at_h: Some(opened),
        is: opening(lived.state(m, h.ignores_gluten) + c.normal(0.12)),
        answers: Answers::Five,
    }];
    let mut said = |f: f64, noise: f64| {
        let feels = f + c.normal(noise) < 0.0;
        c.one_in(if feels { 0.75 } else { 0.03 })
    };
    let (tight, slack, sour) = lived.handling(m);
    all.push(Observed::Tight {
        said: said(tight, 0.2),
    });
    all.push(Observed::Slack {
        said: said(slack, 0.4),
    });
    all.push(Observed::Sour {
        said: said(sour, 0.3),
    });
    if readings {
        let q = &lived.truth.q;
        let mut read = |channel: Channel, bias: f64, noise: f64| {
            (q[channel.at()] + bias + c.normal(noise)).clamp(-15.0, 15.0)
        };
        all.push(Observed::Fridge {
            over_planned_k: read(Channel::Fridge, h.biases[0], 0.5),
        });
        all.push(Observed::Room {
            over_planned_k: read(Channel::Room, h.biases[1], 0.5),
        });
        all.push(Observed::Dough {
            over_planned_k: read(Channel::Dough, h.biases[2], 0.4),
        });
    }
    all
}

/// A kitchen with five bakes, then one that goes wrong, told with and without readings. `None`: nothing was noticed.
fn injected(seed: u64, mishap: Option<usize>) -> [Option<Outcome>; 2] {
    // Every fifth seed from 0 on is a broad kitchen.
    let (mut h, mut c) = Hidden::of(seed * 5);
    let (truth, channel, size, school) = match mishap {
        Some(i) => INJECTED[i],
        None => (Cause::Ordinary, None, 0.0, School::ALL[c.below(7)]),
    };
    let (mut log, mut week) = (Vec::<LoggedBatch>::new(), 0.0);
    for _ in 0..5 {
        let made = plan(school, 0.25, &mut c);
        log.push(bake(&h, school, made, week, &mut c));
        week += c.between(0.5, 2.5);
        h.go_to(week, &mut c);
    }
    let cards: Vec<Card> = log.iter().map(card_of).collect();
    let mut dough = plan(school, 0.0, &mut c);
    if dough.yeast_percent > 0.0 {
        let next = NextBatch {
            week,
            made_with: made_with(&dough),
            dough: dough.clone(),
        };
        let posterior = Posterior::of(&log, &cards.iter().collect::<Vec<_>>());
        let card = Card::of(&dough, &[]);
        if let Ok(d) = Prediction::of(&next, &card, &posterior).dose() {
            dough.yeast_percent = d.percent;
        }
    }
    let mut q: Truth = h.truth(school, Some(&mut c));
    if let Some(channel) = channel {
        q.q[channel.at()] += size;
    }
    let late = if truth == Cause::Late { size } else { 0.0 };
    let opened = dough.total_hours() + late + c.normal(0.2);
    let lived = Lived::of(&dough, q);
    [false, true].map(|readings| {
        let mut notes = Chance::seeded(seed.wrapping_mul(1009) + 7);
        let observed = seen(&h, &lived, opened, readings, &mut notes);
        let this = LoggedBatch {
            week,
            made_with: made_with(&dough),
            dough: dough.clone(),
            observed,
            opened_at_h: Some(opened),
        };
        let noticed = this.observed.iter().any(|s| match s {
            Observed::State { is, .. } => *is != StoodAs::Right,
            Observed::Tight { said } | Observed::Slack { said } | Observed::Sour { said } => *said,
            _ => false,
        });
        if !noticed {
            return None;
        }
        let request = DiagnoseRequest {
            batches: log.clone(),
            this,
            planned: None,
            bake: None,
            targets: None,
            out_s: None,
            verdict: Default::default(),
        };
        let told = diagnose_with(&request, &cards).unwrap().dough?;
        Some(Outcome::of(&told, truth))
    })
}

/// Outcomes with taps only, and with readings, of so many kitchens per mishap, a thread for each core.
fn all(
    seeds: std::ops::Range<u64>,
    mishaps: &[Option<usize>],
) -> [Vec<(Option<usize>, Outcome)>; 2] {
    let jobs: Vec<(u64, Option<usize>)> = mishaps
        .iter()
        .flat_map(|m| seeds.clone().map(move |s| (s, *m)))
        .collect();
    let cores = std::thread::available_parallelism().map_or(1, |n| n.get());
    let share = jobs.len().div_ceil(cores);
    let mut out = [vec![], vec![]];
    std::thread::scope(|s| {
        let threads: Vec<_> = jobs
            .chunks(share)
            .map(|some| {
                s.spawn(move || {
                    some.iter()
                        .map(|&(seed, m)| (m, injected(seed, m)))
                        .collect::<Vec<_>>()
                })
            })
            .collect();
        for (m, [taps, readings]) in threads.into_iter().flat_map(|t| t.join().unwrap()) {
            out[0].extend(taps.map(|o| (m, o)));
            out[1].extend(readings.map(|o| (m, o)));
        }
    });
    out
}

#[test]
fn mishaps_of_a_dough_are_found_and_chance_is_not_blamed() {
    let mishaps: Vec<Option<usize>> = (0..INJECTED.len()).map(Some).collect();
    let [taps, readings] = all(300..324, &mishaps);
    println!(
        "| diagnosis | noticed | truth first | among first three | named and right | right group | cannot tell | wrong |"
    );
    let rates =
        |of: &[(Option<usize>, Outcome)]| Rates::of(&of.iter().map(|(_, o)| o).collect::<Vec<_>>());
    let (taps, by) = (rates(&taps), readings);
    let readings = rates(&by);
    taps.print("taps only");
    readings.print("with readings");
    for (i, (cause, ..)) in INJECTED.iter().enumerate() {
        let some: Vec<&Outcome> = by
            .iter()
            .filter(|(m, _)| *m == Some(i))
            .map(|(_, o)| o)
            .collect();
        Rates::of(&some).print(&format!("{cause:?}"));
    }
    let [nothing_taps, nothing] = all(400..500, &[None]);
    let (nothing_taps, nothing) = (rates(&nothing_taps), rates(&nothing));
    nothing_taps.print("nothing wrong, taps");
    nothing.print("nothing wrong, readings");
    assert!(readings.first >= 0.55, "first {}", readings.first);
    assert!(readings.three >= 0.82, "three {}", readings.three);
    assert!(readings.wrong <= 0.12, "wrong {}", readings.wrong);
    assert!(taps.three >= 0.72, "taps, three {}", taps.three);
    assert!(taps.wrong <= 0.14, "taps, wrong {}", taps.wrong);
    assert!(
        1.0 - nothing.cannot <= 0.20,
        "blamed {}",
        1.0 - nothing.cannot
    );
}
