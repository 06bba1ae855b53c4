//! What the oven costs: a hot bake, a long one, set points, remedies, a preheat, a service.

use craft::fire::recover::{gap, recovery};
use craft::fire::remedy::remedies;
use craft::fire::set_points::{SetPointRequest, set_points};
use craft::fire::{Aim, Back, BakeRequest, FirePlan, Material, OvenNow, Piece, bake, oven};
use criterion::{Criterion, criterion_group, criterion_main};
use std::hint::black_box;

fn hot() -> BakeRequest {
    BakeRequest {
        aim: Aim::Hot,
        piece: Piece {
            ball_g: 250.0,
            disc_mm: 300.0,
            rim_mm: 20.0,
            rim_share: 0.3,
            hydration_percent: 65.0,
            salt_percent: 3.0,
            sugar_percent: 0.0,
            malt_percent: 0.0,
            oil_percent: 0.0,
            milk_percent: 0.0,
            maturity: 1.0,
            cold: true,
            dough_c: 22.0,
            sauce_g: 80.0,
            cheese_g: 80.0,
        },
        oven: OvenNow {
            floor: Material::Biscuit,
            floor_mm: 50.0,
            floor_c: 430.0,
            core_c: None,
            dome_c: 480.0,
            air_c: None,
            view: 0.85,
            air_w_m2k: 10.0,
            grill_w_m2: 0.0,
            back: Back::Mass,
            back_w_m2: 0.0,
            back_c: None,
            side: 0.0,
            door_drop_k: 0.0,
            door_s: 90.0,
            floor_factor: 1.0,
            top_factor: 1.0,
        },
        pan: None,
        turns_s: vec![],
        quarter_turns_s: vec![],
        lift_s: None,
        cheese_at_s: 0.0,
        altitude_m: 0.0,
        until_s: 90.0,
    }
}

fn home() -> BakeRequest {
    let mut r = hot();
    r.aim = Aim::Home;
    r.oven.floor = Material::CarbonSteel;
    r.oven.floor_mm = 8.0;
    r.oven.floor_c = 265.0;
    r.oven.dome_c = 270.0;
    r.oven.view = 1.0;
    r.oven.back = Back::Air;
    r.oven.door_drop_k = 40.0;
    r.until_s = 600.0;
    r
}

fn plan(r: &BakeRequest, key: &str) -> FirePlan {
    let oven = oven::all()
        .iter()
        .find(|o| o.key == key)
        .expect("an oven")
        .clone();
    FirePlan {
        aim: r.aim,
        piece: r.piece.clone(),
        setting: oven.usual(),
        oven,
        pan: None,
        shape: None,
        turns: None,
        targets: None,
        preheat_min: None,
        floor_read_c: None,
        altitude_m: 0.0,
    }
}

fn ovens(c: &mut Criterion) {
    let (hot, home) = (hot(), home());
    c.bench_function("a bake of 90 s", |b| b.iter(|| bake(black_box(&hot))));
    let mut sided = hot.clone();
    sided.oven.side = 0.25;
    sided.turns_s = vec![40.0, 57.0, 73.0];
    c.bench_function("a bake of 90 s, fire at one side", |b| {
        b.iter(|| bake(black_box(&sided)))
    });
    c.bench_function("a bake of 10 min", |b| b.iter(|| bake(black_box(&home))));
    for (name, key, r, floor, dome) in [
        ("fired", "wood_dome", &hot, (250.0, 480.0), (300.0, 500.0)),
        ("home", "home_steel", &home, (150.0, 290.0), (150.0, 290.0)),
    ] {
        let asked = SetPointRequest {
            bake: r.clone(),
            floor_c: floor,
            dome_c: dome,
            bake_s: None,
        };
        let targets = r.aim.targets();
        c.bench_function(&format!("set points, {name}"), |b| {
            b.iter(|| set_points(black_box(&asked), &targets))
        });
        let plan = plan(r, key);
        let planned = plan.planned().expect("a plan");
        let now = planned.race.clone();
        c.bench_function(&format!("plan of a fire, {name}"), |b| {
            b.iter(|| black_box(&plan).planned())
        });
        c.bench_function(&format!("all remedies, {name}"), |b| {
            b.iter(|| remedies(black_box(&plan), &now))
        });
        c.bench_function(&format!("recovery, {name}"), |b| {
            b.iter(|| recovery(black_box(r), now.best_s))
        });
        c.bench_function(&format!("pause of a row of 8, {name}"), |b| {
            b.iter(|| gap(black_box(r), &targets, now.best_s, 8))
        });
    }
}

criterion_group! {
    name = benches;
    config = Criterion::default().sample_size(20).measurement_time(std::time::Duration::from_secs(3));
    targets = ovens
}
criterion_main!(benches);
