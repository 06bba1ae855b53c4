//! Every case of `learn-cases.json`, within the tolerance that stands beside it.

use crate::learn::answer::{LearnRequest, card_of, learn};
use crate::learn::card::Card;
use crate::learn::channel::Channel;
use crate::learn::diagnose::{DiagnoseRequest, diagnose};
use crate::learn::fit::Posterior;
use crate::learn::likelihood;
use crate::learn::observed::{Answers, LoggedBatch, NextBatch, StoodAs};
use crate::learn::place::{lasting, own};
use crate::learn::predict::Prediction;
use crate::learn::teach::{Lesson, worth};
use serde_json::{Value, json};

pub(super) fn all() -> Value {
    serde_json::from_str(include_str!("../../../tests/reference/learn-cases.json")).unwrap()
}

pub(super) fn cases(task: &str) -> Vec<Value> {
    let of_task: Vec<Value> = all()["cases"]
        .as_array()
        .unwrap()
        .iter()
        .filter(|c| c["task"] == task)
        .cloned()
        .collect();
    assert!(!of_task.is_empty(), "no case of {task}");
    of_task
}

/// A batch of a case, which names its plan and may bring its own keys.
pub(super) fn batch(all: &Value, b: &Value) -> Value {
    let mut b = b.clone();
    let o = b.as_object_mut().unwrap();
    let plan = o.remove("plan").unwrap();
    o.insert("dough".into(), all["plans"][plan.as_str().unwrap()].clone());
    o.entry("keys").or_insert(all["keys"].clone());
    b
}

fn near(what: &str, got: f64, want: f64, tolerance: f64) {
    assert!(
        (got - want).abs() <= tolerance,
        "{what}: {got} against {want} ± {tolerance}"
    );
}

#[test]
fn every_posterior_of_the_reference_comes_out() {
    let all = all();
    for case in cases("learn") {
        let id = case["id"].as_str().unwrap();
        let tolerance = |k: &str| case["tolerance"][k].as_f64().unwrap();
        let batches: Vec<Value> = case["batches"]
            .as_array()
            .unwrap()
            .iter()
            .map(|b| batch(&all, b))
            .collect();
        for want in case["expect"].as_array().unwrap() {
            let mut next = json!({"plan": want["plan"], "week": want["week"]});
            if let Some(keys) = want.get("keys") {
                next["keys"] = keys.clone();
            }
            let request: LearnRequest =
                serde_json::from_value(json!({"batches": batches, "next": batch(&all, &next)}))
                    .unwrap();
            let got = learn(&request).unwrap();
            let what = |k: &str| format!("{id}, {} {k}", want["plan"]);
            near(
                &what("mean"),
                got.ln_ripeness.mean,
                want["ln_ripeness_mean"].as_f64().unwrap(),
                tolerance("mean"),
            );
            near(
                &what("sd"),
                got.ln_ripeness.sd,
                want["ln_ripeness_sd"].as_f64().unwrap(),
                tolerance("sd"),
            );
            let dose = got.dose.map(|d| d.factor);
            match want["dose_factor"].as_f64() {
                Some(factor) => near(
                    &what("dose"),
                    dose.unwrap(),
                    factor,
                    tolerance("dose_factor"),
                ),
                None => assert_eq!(dose, None, "{}", what("dose")),
            }
            if batches.is_empty() {
                assert_eq!(dose, Some(1.0), "an empty log leaves the book's dose");
            }
            for (name, known) in want["channels"].as_object().unwrap() {
                let channel: Channel = serde_json::from_value(json!(name)).unwrap();
                let of = &got.channels[&channel];
                let kelvin = matches!(name.as_str(), "F" | "H" | "T0" | "bF" | "bH" | "bT");
                let [mean, sd] = ["mean", "sd"].map(|k| {
                    if kelvin {
                        tolerance("kelvin")
                    } else {
                        tolerance(k)
                    }
                });
                near(&what(name), of.mean, known["mean"].as_f64().unwrap(), mean);
                near(&what(name), of.sd, known["sd"].as_f64().unwrap(), sd);
            }
        }
    }
}

#[test]
fn what_was_said_is_as_likely_as_printed() {
    for case in cases("site_values") {
        let tolerance = case["tolerance"].as_f64().unwrap();
        for v in case["values"].as_array().unwrap() {
            let f = v["f"].as_f64().unwrap();
            let got = match v["kind"].as_str().unwrap() {
                "state" => {
                    let is: StoodAs = serde_json::from_value(v["is"].clone()).unwrap();
                    likelihood::state(is, Answers::Five, f)
                }
                "ready" => likelihood::near(0.0, f, 0.13),
                other => panic!("no site {other}"),
            };
            for (k, got) in [
                ("ln_lik", got.ln),
                ("slope", got.slope),
                ("weight", got.weight),
            ] {
                near(&format!("{v} {k}"), got, v[k].as_f64().unwrap(), tolerance);
            }
        }
    }
}

#[test]
fn batches_have_as_much_in_common_as_printed() {
    let all = all();
    for case in cases("prior_covariance") {
        let tolerance = case["tolerance"].as_f64().unwrap();
        let among: Vec<_> = case["batches"]
            .as_array()
            .unwrap()
            .iter()
            .map(|b| {
                let mut b = b.clone();
                b["plan"] = json!("cold");
                let b: LoggedBatch = serde_json::from_value(batch(&all, &b)).unwrap();
                b.among()
            })
            .collect();
        for (name, want) in case["covariance"].as_object().unwrap() {
            let c: Channel = serde_json::from_value(json!(name)).unwrap();
            for i in 0..2 {
                for j in 0..2 {
                    let got = lasting(c, &among[i], &among[j]) + if i == j { own(c) } else { 0.0 };
                    near(name, got, want[i][j].as_f64().unwrap(), tolerance);
                }
            }
        }
    }
}

#[test]
fn what_would_teach_most_is_worth_as_much_as_printed() {
    let all = all();
    let five: Vec<LoggedBatch> = cases("learn")
        .iter()
        .find(|c| c["id"] == "five_mixed")
        .unwrap()["batches"]
        .as_array()
        .unwrap()
        .iter()
        .map(|b| serde_json::from_value(batch(&all, b)).unwrap())
        .collect();
    for case in cases("information") {
        let tolerance = case["tolerance"].as_f64().unwrap();
        for (log, week, want) in [
            (&[][..], 0.0, &case["nothing_logged"]),
            (&five[..], 6.0, &case["after_five_mixed"]),
        ] {
            let cards: Vec<Card> = log.iter().map(card_of).collect();
            let posterior = Posterior::of(log, &cards.iter().collect::<Vec<_>>());
            let next: NextBatch =
                serde_json::from_value(batch(&all, &json!({"plan": "cold", "week": week})))
                    .unwrap();
            let card = Card::of(&next.dough, &[]);
            let (now, after) = worth(&Prediction::of(&next, &card, &posterior), &posterior);
            near("now", now, want["now"].as_f64().unwrap(), tolerance);
            for (lesson, sd) in after {
                let key: &str = match lesson {
                    Lesson::State => "state",
                    Lesson::Ready => "ready",
                    Lesson::Fridge => "fridge",
                    Lesson::Room => "room",
                    Lesson::Dough => "dough",
                };
                near(key, sd, want[key].as_f64().unwrap(), tolerance);
            }
        }
    }
}

#[test]
fn every_diagnosis_of_the_reference_comes_out() {
    let all = all();
    for case in cases("diagnose") {
        let id = case["id"].as_str().unwrap();
        let tolerance = case["tolerance"]["share"].as_f64().unwrap();
        let mut this = json!({"plan": case["plan"], "week": 0, "opened_at_h": case["opened_at_h"], "observed": case["observed"]});
        this = batch(&all, &this);
        let mut request = json!({"this": this});
        for key in ["bake", "out_s", "verdict"] {
            if let Some(v) = case.get(key) {
                request[key] = v.clone();
            }
        }
        let request: DiagnoseRequest = serde_json::from_value(request).unwrap();
        let got = diagnose(&request).unwrap();
        for (part, wanted) in case["ranking"].as_object().unwrap() {
            let got = match part.as_str() {
                "dough" => got.dough.as_ref(),
                _ => got.bake.as_ref(),
            }
            .unwrap();
            let share = |name: &Value| {
                got.ranking
                    .iter()
                    .find(|c| serde_json::to_value(c.cause).unwrap() == *name)
                    .unwrap_or_else(|| panic!("{id}: no {name}"))
            };
            let wanted = wanted.as_array().unwrap();
            for want in wanted {
                let cause = share(&want[0]);
                near(
                    &format!("{id} {}", want[0]),
                    cause.share,
                    want[2].as_f64().unwrap(),
                    tolerance,
                );
                assert_eq!(serde_json::to_value(cause.group).unwrap(), want[1], "{id}");
            }
            // The first two in this order, unless within .03.
            let (first, second) = (share(&wanted[0][0]), share(&wanted[1][0]));
            let close = (wanted[0][2].as_f64().unwrap() - wanted[1][2].as_f64().unwrap()) <= 0.03;
            assert!(close || first.share > second.share, "{id}");
            let whole: f64 = got.ranking.iter().map(|c| c.share).sum();
            near(&format!("{id} in all"), whole, 1.0, 1e-9);
        }
    }
}
