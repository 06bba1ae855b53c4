//! A trial, formatted: its arms, every comparison with its interval, and what is said of them together.

use super::{TrialRecord, secret};
use crate::shared::chart::Svg;
use crate::shared::format::{count_word, day};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{decimal, phrase, plain, say, shipped};
use craft::keyed::Keyed;
use craft::people::Right;
use craft::sheet::apart::apart;
use craft::trial::answer::next_values;
use craft::trial::design::evenings;
use craft::trial::sisters::varied_in;
use craft::trial::{
    ComparedBy, Criterion, NextTrial, PairFound, TrialAnswer, Varied, answer, blind,
};

pub struct ArmView {
    pub is: String,
    pub batch: String,
    pub day: String,
    pub best: bool,
    /// Its letter, once somebody tasted.
    pub letter: Option<char>,
    /// The middle of its scores, by criterion.
    pub scores: Vec<String>,
}

/// One comparison.
pub struct FoundView {
    pub by: String,
    pub pair: String,
    pub said: String,
    pub bar: String,
    pub chance: String,
    pub shown: bool,
}

pub struct TrialFact {
    pub what: String,
    pub values: String,
}

pub struct TrialView {
    pub code: String,
    pub head: String,
    pub core: String,
    pub lines: [String; 2],
    pub what: String,
    pub arms: Vec<ArmView>,
    /// What was scored, for the columns.
    pub criteria: Vec<String>,
    pub found: Vec<FoundView>,
    pub next: String,
    pub next_why: String,
    pub next_way: Option<String>,
    pub alike: Vec<TrialFact>,
    pub follows: Vec<TrialFact>,
    pub split: bool,
    /// Said where the arms were served on several evenings.
    pub evenings: Option<String>,
    pub tasters: Vec<u8>,
    pub may_tap: bool,
    pub beside: Option<String>,
}

/// "about one table in thirty"; "more often than not" where it is no rare thing.
fn chance_words(chance: f64) -> String {
    match chance {
        c if c >= 0.75 => phrase("trial-chance-nearly-always").into(),
        c if c >= 0.4 => phrase("trial-chance-every-other").into(),
        c => say!("trial-chance-one-in", n = two_figures(1.0 / c.max(1e-6))),
    }
}

/// A whole number as precise as it is known: two figures.
fn two_figures(v: f64) -> String {
    let step = 10f64.powf((v.max(1.0).log10().floor() - 1.0).max(0.0));
    decimal((v / step).round() * step, 0)
}

impl TrialView {
    pub(super) fn of(t: &TrialRecord, here: &RequestKitchen) -> TrialView {
        let trial = &t.kept.trial;
        let formulas: Vec<_> = t
            .arms
            .iter()
            .map(|b| &b.batch.sheet.request.formula)
            .collect();
        let varied = (!trial.is_split()).then(|| varied_in(&formulas)).flatten();
        let order = varied.as_ref().map(|(_, all)| all.as_slice());
        let a = answer(trial, &t.said, order);
        let names: Vec<String> = trial
            .arms
            .iter()
            .map(|x| shipped(&here.words(&x.is)))
            .collect();
        let scored: Vec<Criterion> = Criterion::ALL
            .iter()
            .copied()
            .filter(|c| t.said.scores.keys().any(|(_, _, of)| of == c))
            .collect();
        let pairs: Vec<_> = t
            .arms
            .iter()
            .map(|b| (&*b.batch.sheet.request, &*b.batch.sheet.result))
            .collect();
        let beside = match trial.is_split() {
            true => apart(&pairs[..1]),
            false => apart(&pairs),
        };
        let facts = |list: &[craft::sheet::apart::DoughsBeside], all: bool| {
            list.iter()
                .map(|b| {
                    let values: Vec<String> =
                        b.values.iter().map(|v| shipped(&here.words(v))).collect();
                    TrialFact {
                        what: here.words(&b.what),
                        values: match all {
                            true => values.join(", "),
                            false => values.into_iter().next().unwrap_or_default(),
                        },
                    }
                })
                .collect::<Vec<_>>()
        };
        let (head, core, lines) = headline(t, &a, &names);
        let (next, next_why) = next_words(&a, &names);
        let n = trial.arms.len() as u8;
        let tasted = a.tasters > 0;
        TrialView {
            code: t.kept.code.clone(),
            head,
            core,
            lines,
            what: match (&varied, beside.the_one()) {
                _ if trial.is_split() => phrase("trial-parts-of-one").into(),
                (Some((v, _)), _) => here.words(&v.name()),
                (None, Some(one)) => here.words(&one.what),
                _ => phrase("trial-arms-head").into(),
            },
            arms: trial
                .arms
                .iter()
                .enumerate()
                .map(|(i, x)| ArmView {
                    is: shipped(&here.words(&x.is)),
                    batch: x.batch.clone(),
                    day: day(&here.local(t.arms[i].batch.sheet.request.serve_at)),
                    best: a.best == Some(i as u8),
                    letter: tasted.then(|| blind::letter(secret(&t.kept), n, i as u8)),
                    scores: scored
                        .iter()
                        .map(|c| t.said.middle_score(i as u8, *c).map_or("–".into(), plain))
                        .collect(),
                })
                .collect(),
            criteria: scored.iter().map(|c| here.words(&c.name())).collect(),
            found: a.found.iter().map(|f| found(f, &names, here)).collect(),
            next,
            next_why,
            next_way: varied.as_ref().and_then(|(v, order)| {
                let values = next_values(a.next, a.best, order)?;
                here.may(Right::Plan).then(|| way(t, *v, &values))
            }),
            alike: facts(&beside.alike, false),
            follows: facts(&beside.follows, true),
            split: trial.is_split(),
            evenings: {
                let served = t.arms.iter().map(|b| b.batch.sheet.request.serve_at);
                let n = evenings(served, &here.zone);
                (n > 1).then(|| say!("trial-evenings", n = n))
            },
            tasters: (1..=trial.tasters).collect(),
            may_tap: here.may(Right::Tap),
            beside: (!trial.is_split()).then(|| {
                let codes: Vec<String> = trial
                    .arms
                    .iter()
                    .map(|x| format!("b={}", x.batch))
                    .collect();
                format!("/ledger/side-by-side?{}", codes.join("&"))
            }),
        }
    }
}

/// Where the next trial is made, with its values.
fn way(t: &TrialRecord, varied: Varied, values: &[f64]) -> String {
    let values: Vec<String> = values.iter().map(|v| craft::number::plain(*v)).collect();
    let all = [
        ("of", t.kept.trial.arms[0].batch.clone()),
        ("varied", varied.key().to_string()),
        ("values", values.join("; ")),
        ("name", t.kept.name.clone()),
    ];
    let mut to = form_urlencoded::Serializer::new(String::from("/trials/new?"));
    for (name, value) in all {
        to.append_pair(name, &value);
    }
    to.finish()
}

fn headline(t: &TrialRecord, a: &TrialAnswer, names: &[String]) -> (String, String, [String; 2]) {
    let trial = &t.kept.trial;
    let fewest = trial.fewest_tasters();
    if a.tasters == 0 {
        return (
            say!("trial-arms-so-many", word = count_word(names.len() as u32)),
            phrase("trial-nobody-tasted").into(),
            [
                say!("trial-fewest", n = fewest),
                match trial.tasters < fewest {
                    true => say!("trial-too-few-planned", n = trial.tasters),
                    false => say!("trial-enough-planned", n = trial.tasters),
                },
            ],
        );
    }
    let liking = a.found.iter().filter(|f| f.by == ComparedBy::Liking);
    let differs = a
        .found
        .iter()
        .filter(|f| f.is_shown() && f.by != ComparedBy::Liking)
        .count();
    let second = match differs {
        0 => phrase("trial-no-score-differs").to_string(),
        n => say!("trial-scores-differ", n = n),
    };
    match a.best {
        Some(best) => {
            let worst = liking
                .filter(|f| f.ahead() == Some(best))
                .map(|f| f.chance)
                .fold(0.0, f64::max);
            (
                names[usize::from(best)].clone(),
                phrase("trial-liked-better").into(),
                [
                    say!("trial-by-chance", chance = chance_words(worst)),
                    second,
                ],
            )
        }
        None => {
            let lead = liking
                .filter(|f| f.ahead().is_some())
                .min_by(|x, y| x.chance.total_cmp(&y.chance));
            let first = match lead {
                Some(f) => say!(
                    "trial-lead-is-chance",
                    k = f.for_first.max(f.for_second),
                    n = f.for_first + f.for_second,
                    arm = names[usize::from(f.ahead().unwrap_or(f.pair.0))],
                    chance = chance_words(f.chance)
                ),
                None => phrase("trial-nobody-compared").to_string(),
            };
            (
                phrase("trial-no-winner").into(),
                phrase("trial-beyond-chance").into(),
                [first, second],
            )
        }
    }
}

fn found(f: &PairFound, names: &[String], here: &RequestKitchen) -> FoundView {
    let (a, b) = (&names[usize::from(f.pair.0)], &names[usize::from(f.pair.1)]);
    let n = f.for_first + f.for_second;
    let ahead = f.ahead().map(|x| &names[usize::from(x)]);
    let most = f.for_first.max(f.for_second);
    let same = match f.same {
        0 => String::new(),
        n => say!("trial-found-same", n = n),
    };
    let said = match (f.by, ahead) {
        (ComparedBy::Liking, Some(x)) => say!("trial-so-many-like", k = most, n = n, arm = x),
        (ComparedBy::Score(_), Some(x)) => say!("trial-so-many-more", k = most, n = n, arm = x),
        (_, None) => phrase("trial-even").to_string(),
    };
    let differs = f
        .differs_by
        .filter(|d| *d != 0.0)
        .map_or(String::new(), |d| {
            say!(
                "trial-middle-difference",
                by = decimal(d.abs(), usize::from(d.fract() != 0.0))
            )
        });
    FoundView {
        by: match f.by {
            ComparedBy::Liking => phrase("trial-liking").into(),
            ComparedBy::Score(c) => here.words(&c.name()),
        },
        pair: format!("{a} · {b}"),
        said: [said, differs, same]
            .into_iter()
            .filter(|s| !s.is_empty())
            .collect::<Vec<_>>()
            .join(", "),
        bar: bar(f, a, b),
        chance: match f.is_shown() {
            true => say!("trial-shown", chance = chance_words(f.chance)),
            false => say!("trial-not-shown", chance = chance_words(f.chance)),
        },
        shown: f.is_shown(),
    }
}

/// The share for the first from 0 to 100 %, with the interval that holds the true one nineteen times of twenty; the middle is even.
fn bar(f: &PairFound, a: &str, b: &str) -> String {
    let percent = |v: f64| decimal(100.0 * v, 0);
    let (low, mid, high) = f.share;
    let label = say!(
        "trial-bar-says",
        a = a,
        b = b,
        mid = percent(mid),
        low = percent(low),
        high = percent(high)
    );
    let mut svg = Svg::new(240.0, 34.0, "share", &label);
    // To the right the second one has more: as the names stand.
    let x = |v: f64| 10.0 + 220.0 * (1.0 - v);
    svg.path("M10 17H230", r#"class="l-axis""#);
    svg.path("M120 5V29", r#"class="even""#);
    svg.path(
        &format!("M{:.1} 17H{:.1}", x(high), x(low)),
        r#"class="holds""#,
    );
    svg.raw(&format!(
        r#"<circle cx="{:.1}" cy="17" r="7" class="{}"/>"#,
        x(mid),
        if f.is_shown() {
            "dot-shown"
        } else {
            "dot-open"
        }
    ));
    svg.end()
}

fn next_words(a: &TrialAnswer, names: &[String]) -> (String, String) {
    let name = |i: u8| names[usize::from(i)].as_str();
    match a.next {
        NextTrial::Taste { fewest } => (
            phrase("trial-next-taste").into(),
            say!("trial-next-taste-why", n = fewest),
        ),
        NextTrial::Again { pair, tasters } => (
            say!(
                "trial-next-again",
                a = name(pair.0),
                b = name(pair.1),
                n = tasters
            ),
            phrase("trial-next-again-why").into(),
        ),
        NextTrial::LargerStep => (
            phrase("trial-next-larger").into(),
            phrase("trial-next-larger-why").into(),
        ),
        NextTrial::Between { pair } => (
            say!("trial-next-between", a = name(pair.0), b = name(pair.1)),
            phrase("trial-next-between-why").into(),
        ),
        NextTrial::Beyond { arm } => (
            say!("trial-next-beyond", a = name(arm)),
            phrase("trial-next-beyond-why").into(),
        ),
        NextTrial::Another { arm } => (
            say!("trial-next-another", a = name(arm)),
            phrase("trial-next-another-why").into(),
        ),
    }
}
