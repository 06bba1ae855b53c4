//! What learning costs: the card of a batch, a log of forty fitted on cards, a prediction from it, a diagnosis.

use craft::learn::{
    Answers, Card, DiagnoseRequest, KitchenLog, LoggedBatch, NextBatch, Observed, StoodAs, card_of,
    diagnose_with,
};
use craft::rise::RiseRequest;
use criterion::{Criterion, criterion_group, criterion_main};
use std::hint::black_box;

/// A cold dough, as the API takes it.
fn dough(cold_h: f64) -> RiseRequest {
    serde_json::from_value(serde_json::json!({
        "hydration_percent": 62.0, "salt_percent": 2.8, "flour_w": 300.0,
        "yeast_percent": 0.26, "dough_c": 23.0,
        "stages": [
            {"hours": 2.0, "piece_g": 1500.0, "shape": "bulk", "container": "tub", "air": "room", "place_c": 21.0},
            {"hours": cold_h, "piece_g": 250.0, "shape": "ball", "container": "box", "air": "fridge", "place_c": 5.0, "event": "ball"},
            {"hours": 4.0, "piece_g": 250.0, "shape": "ball", "container": "box", "air": "room", "place_c": 21.0}
        ]
    }))
    .expect("a rise request")
}

/// Forty bakes, two in three opened a little over, each with its fridge read.
fn log() -> Vec<LoggedBatch> {
    (0..40)
        .map(|i| {
            let cold_h = 20.0 + 2.0 * f64::from(i % 12);
            let is = match i % 3 {
                0 => StoodAs::Right,
                _ => StoodAs::Over,
            };
            let at_h = Some(6.0 + cold_h);
            LoggedBatch {
                week: f64::from(i),
                made_with: Default::default(),
                dough: dough(cold_h),
                observed: vec![
                    Observed::State {
                        at_h,
                        is,
                        answers: Answers::Five,
                    },
                    Observed::Fridge {
                        over_planned_k: 1.0 + 0.1 * f64::from(i % 5),
                    },
                ],
                opened_at_h: at_h,
            }
        })
        .collect()
}

fn learning(c: &mut Criterion) {
    let batches = log();
    c.bench_function("the card of a batch", |b| {
        b.iter(|| black_box(card_of(&batches[0])))
    });
    let cards: Vec<Card> = batches.iter().map(card_of).collect();
    c.bench_function("forty bakes fitted on cards", |b| {
        b.iter(|| black_box(KitchenLog::of(&batches, &cards)))
    });
    let log = KitchenLog::of(&batches, &cards);
    let next = NextBatch {
        week: 41.0,
        made_with: Default::default(),
        dough: dough(24.0),
    };
    let card = Card::of(&next.dough, &[]);
    c.bench_function("a dose, a window and what would teach most", |b| {
        b.iter(|| black_box(log.says(&next, &card)))
    });
    let asked = DiagnoseRequest {
        batches: batches[1..].to_vec(),
        this: batches[0].clone(),
        planned: None,
        bake: None,
        targets: None,
        out_s: None,
        verdict: Default::default(),
    };
    c.bench_function("the diagnosis of a dough", |b| {
        b.iter(|| black_box(diagnose_with(&asked, &cards[1..])))
    });
}

criterion_group! {
    name = benches;
    config = Criterion::default().sample_size(10);
    targets = learning
}
criterion_main!(benches);
