//! The bowl and the boxes: a course of half an hour, its water, what forty runs teach, twelve boxes out of the cold.

use craft::mix::{
    LoggedMix, MixReading, MixRecipe, Mixer, Mixing, aim, learn_friction, programmes, trace,
};
use craft::shape::{BoxService, ColdBox, stagger};
use criterion::{Criterion, criterion_group, criterion_main};
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

criterion_group! {
    name = all;
    config = Criterion::default().sample_size(20);
    targets = bowl
}
criterion_main!(all);
