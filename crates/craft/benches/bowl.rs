//! The bowl and the boxes: a course of half an hour, its water, what forty runs teach, twelve boxes out of the cold.

use craft::formula::{Formula, Pieces, Scales};
use craft::mix::{
    LoggedMix, MixReading, MixRecipe, Mixer, Mixing, aim, learn_friction, programmes, trace,
};
use craft::rise::Doubts;
use craft::shape::run::{BoxKind, ShapeRun};
use craft::shape::{BoxService, ColdBox, learn_loss, stagger};
use craft::sheet::ahead::{
    AheadRequest, Happened, ShapeQuestion, StepPast, StepSaid, look_at_boxes,
};
use craft::sheet::{KitchenUsual, SheetRequest, work_out};
use craft::style;
use criterion::{Criterion, criterion_group, criterion_main};
use jiff::SignedDuration;
use std::hint::black_box;

fn staged() -> Mixing {
    let programme = programmes().iter().find(|p| p.key == "spiral_staged");
    let recipe = MixRecipe {
        flour_g: 3800.0,
        flour_c: 18.0,
        water_g: 2850.0,
        salt_g: 100.0,
        room_c: 20.0,
        ..MixRecipe::default()
    };
    recipe.laid(programme.expect("it ships"), Some(12.0), None)
}

fn bowl(c: &mut Criterion) {
    let m = staged();
    c.bench_function("a course of 39 min", |b| {
        b.iter(|| trace(black_box(&m), None))
    });
    c.bench_function("its water, in six parts", |b| {
        let names: Vec<String> = (1..=6).map(craft::mix::water_part).collect();
        let names: Vec<&str> = names.iter().map(String::as_str).collect();
        b.iter(|| aim(black_box(&m), &names, 23.0, None))
    });
    let course = trace(&m, None).expect("a mixing");
    let reading = |at_min: f64| MixReading {
        at_min,
        dough_c: course.at(at_min).expect("in the bowl") + 0.2,
    };
    let logged = LoggedMix {
        mixing: m.clone(),
        readings: [8.0, 18.0, 29.0, 32.0, 38.0].map(reading).to_vec(),
    };
    let forty = vec![logged; 40];
    c.bench_function("friction from forty runs", |b| {
        b.iter(|| learn_friction(Mixer::Spiral, black_box(&forty)))
    });
    let boxes = [ColdBox {
        balls: 10,
        rise: 0.7,
        dough_c: 4.0,
        rate_per_h: 0.264,
        tau_h: 1.7,
        tau_cold_h: 1.7,
    }; 12];
    let service = BoxService {
        first_use_min: 270.0,
        pace_s: 120.0,
        cold_c: 4.0,
        room_c: 24.0,
        fade: 1.5,
        want: 1.0,
    };
    c.bench_function("twelve boxes out of the cold", |b| {
        b.iter(|| stagger(black_box(&boxes), &service))
    });
}

/// Sixty balls in ten boxes, each followed to its ball, with its rounds out of the cold.
fn boxes(c: &mut Criterion) {
    let mut formula = Formula::of_style(style::first());
    formula.pieces = Pieces::Balls {
        count: 60,
        ball_g: 260.0,
    };
    let kitchen = KitchenUsual {
        time_zone: "Europe/London".into(),
        altitude_m: 310.0,
        room_c: 22.0,
        fridge_c: 4.5,
        tap_water_c: 9.5,
        scales: Scales::default(),
    };
    let serve_at = "2026-11-27T19:00:00Z".parse().expect("an instant");
    let request = SheetRequest::of(formula, &kitchen, serve_at);
    let planned = work_out(&request).expect("a plan");
    let done = planned
        .steps
        .iter()
        .filter(|s| s.at <= serve_at - hours(12));
    let happened = Happened {
        steps: done
            .map(|s| StepPast {
                number: s.number,
                at: s.at,
                said: StepSaid::Done,
            })
            .collect(),
        ..Happened::default()
    };
    let run = ShapeRun::default();
    let asked = ShapeQuestion {
        ahead: AheadRequest {
            request: &request,
            planned: &planned,
            happened: &happened,
            now: serve_at - hours(12),
            places: &[],
            doubts: Doubts::default(),
        },
        run: &run,
        usual_box: BoxKind {
            name: "Grey box".into(),
            length_cm: 60.0,
            width_cm: 40.0,
            height_cm: 8.0,
            round: false,
            gap_cm: 7.0,
        },
        scale_g: 1.0,
        loss: learn_loss(&[]),
        pace_s: 150.0,
        used: 0,
        noted: &[],
        lively: None,
    };
    c.bench_function("ten boxes, each followed to its ball", |b| {
        b.iter(|| look_at_boxes(black_box(&asked)))
    });
}

fn hours(h: i64) -> SignedDuration {
    SignedDuration::from_hours(h)
}

criterion_group! {
    name = all;
    config = Criterion::default().sample_size(20);
    targets = bowl, boxes
}
criterion_main!(all);
