//! What the models cost: a formula, a forecast, a yeast solution, a whole sheet.

use craft::formula::{FormulaRequest, Pieces, formulate};
use craft::leaven::YeastForm;
use craft::rise::{Temperatures, forecast, solve_yeast};
use craft::sheet::{KitchenUsual, SheetRequest, work_out};
use craft::style::StyleKey;
use criterion::{Criterion, criterion_group, criterion_main};
use std::hint::black_box;

fn formula() -> FormulaRequest {
    FormulaRequest {
        pieces: Pieces::Balls {
            count: 24,
            ball_g: 262.0,
        },
        loss_percent: 1.0,
        hydration_percent: 64.0,
        salt_percent: 2.8,
        oil_percent: 1.5,
        sugar_percent: 1.0,
        yeast_percent: 0.1,
        yeast_form: YeastForm::Instant,
        scales: Scales::default(),
    }
}

/// Two hours in bulk, two days cold, three and a half in the room.
fn cold_dough() -> craft::rise::RiseRequest {
    serde_json::from_str(
        r#"{"hydration_percent": 64, "salt_percent": 2.4, "flour_w": 330, "yeast_percent": 0.22, "dough_c": 24,
            "stages": [
              {"hours": 1.5, "piece_g": 1600, "shape": "bulk", "container": "tub", "air": "room", "place_c": 22},
              {"hours": 45, "piece_g": 250, "shape": "ball", "container": "box", "air": "fridge", "place_c": 4, "event": "ball"},
              {"hours": 3.5, "piece_g": 250, "shape": "ball", "container": "box", "air": "room", "place_c": 22}
            ]}"#,
    )
    .expect("a good request")
}

fn sheet(style: StyleKey) -> SheetRequest {
    let kitchen = KitchenUsual {
        time_zone: "Europe/London".into(),
        altitude_m: 310.0,
        room_c: 19.5,
        fridge_c: 4.5,
        tap_water_c: 9.5,
        scales: Scales::default(),
    };
    SheetRequest::of_style(
        style,
        &kitchen,
        "2026-11-27T19:00:00Z".parse().expect("an instant"),
    )
}

fn models(c: &mut Criterion) {
    let (f, d) = (formula(), cold_dough());
    c.bench_function("formula", |b| b.iter(|| formulate(black_box(&f))));
    c.bench_function("forecast of 50 h, heat inside the dough", |b| {
        b.iter(|| forecast(black_box(&d), Temperatures::InsideTheDough))
    });
    c.bench_function("yeast for 50 h, place temperatures", |b| {
        b.iter(|| solve_yeast(black_box(&d), Temperatures::OfThePlace))
    });
    c.bench_function("yeast for 50 h, heat inside the dough", |b| {
        b.iter(|| solve_yeast(black_box(&d), Temperatures::InsideTheDough))
    });
    for style in StyleKey::ALL {
        let s = sheet(style);
        c.bench_function(&format!("sheet of a {}", style.key()), |b| {
            b.iter(|| work_out(black_box(&s)))
        });
    }
}

criterion_group! {
    name = benches;
    config = Criterion::default().sample_size(30);
    targets = models
}
criterion_main!(benches);
