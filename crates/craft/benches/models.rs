//! What the models cost: a formula, a forecast, a yeast solution, a whole sheet.

use craft::flour::FlourPart;
use craft::formula::{
    Extra, ExtraKind, Formula, FormulaRequest, Pieces, Preferment, PrefermentKind, Scales,
    formulate,
};
use craft::paste::{self, PasteRequest};
use craft::path::methods;
use craft::rise::{Doubts, HoursRequest, Temperatures, forecast, solve_hours, solve_yeast, spread};
use craft::sheet::ahead::{AheadRequest, Happened, Measured, Reading, StepPast, from_now};
use craft::sheet::life::{Life, LifeFitRequest, fit, spans};
use craft::sheet::{KitchenUsual, SheetRequest, work_out};
use craft::style;
use criterion::{Criterion, criterion_group, criterion_main};
use std::hint::black_box;

/// Balls of a lean dough: one flour, no preferment.
fn formula() -> FormulaRequest {
    let formula = Formula {
        pieces: Pieces::Balls {
            count: 24,
            ball_g: 262.0,
        },
        ..Formula::of_style(style::first())
    };
    FormulaRequest {
        formula,
        scales: Scales::default(),
        doses: None,
    }
}

/// Three preferments and five flours, with honey, malt and a dried mother.
fn rich_formula() -> Formula {
    let extra = |kind, amount| Extra {
        kind,
        name: String::new(),
        amount,
    };
    Formula {
        flours: [50.0, 20.0, 15.0, 10.0, 5.0]
            .iter()
            .enumerate()
            .map(|(i, share)| FlourPart {
                name: format!("Flour {i}"),
                share_percent: *share,
                ..FlourPart::only(250.0 + 40.0 * i as f64)
            })
            .collect(),
        hydration_percent: 68.0,
        extras: vec![
            extra(ExtraKind::Honey, 1.0),
            extra(ExtraKind::ActiveMalt, 0.3),
            extra(ExtraKind::DriedMother, 30.0),
        ],
        preferments: [
            (PrefermentKind::Poolish, 15.0),
            (PrefermentKind::Biga, 20.0),
            (PrefermentKind::Levain, 8.0),
        ]
        .map(|(kind, flour_percent)| Preferment {
            flour_percent,
            ..Preferment::usual(kind)
        })
        .into(),
        ..Formula::of_style(style::first())
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

/// A week in four stages: bulk, cold bulk, cold balls, temper.
fn week() -> craft::rise::RiseRequest {
    serde_json::from_str(
        r#"{"hydration_percent": 66, "salt_percent": 2.6, "flour_w": 400, "yeast_percent": 0.05, "dough_c": 21,
            "stages": [
              {"hours": 1, "piece_g": 1600, "shape": "bulk", "container": "tub", "air": "room", "place_c": 20},
              {"hours": 71, "piece_g": 1600, "shape": "bulk", "container": "tub", "air": "fridge", "place_c": 3},
              {"hours": 92, "piece_g": 250, "shape": "ball", "container": "box", "air": "fridge", "place_c": 3, "event": "ball"},
              {"hours": 4, "piece_g": 250, "shape": "ball", "container": "box", "air": "room", "place_c": 20}
            ]}"#,
    )
    .expect("a good request")
}

/// The rise models: a week forward and its yeast, a length, a band, a life, the forecast from now on.
fn rises(c: &mut Criterion) {
    let w = week();
    let whole = w.total_hours();
    c.bench_function(
        &format!("forecast of {whole:.0} h in four stages, and beyond"),
        |b| b.iter(|| forecast(black_box(&w), Temperatures::InsideTheDough)),
    );
    c.bench_function(&format!("yeast for {whole:.0} h in four stages"), |b| {
        b.iter(|| solve_yeast(black_box(&w), Temperatures::InsideTheDough))
    });
    let d = cold_dough();
    let hours = HoursRequest {
        dough: d.clone(),
        stage: 1,
    };
    c.bench_function("length of the cold stage", |b| {
        b.iter(|| solve_hours(black_box(&hours), Temperatures::InsideTheDough))
    });
    c.bench_function("band of the window, 50 h", |b| {
        b.iter(|| {
            spread(
                black_box(&d),
                &Doubts::default(),
                Temperatures::InsideTheDough,
            )
        })
    });
    for key in ["room_then_cold_balls", "freeze_thaw", "biga_cold"] {
        let method = methods::by_key(key).expect("a method");
        let request = sheet(method.applied(&Formula::of_style(style::first())));
        let life = Life {
            quiet: spans("22:30-06:30").expect("hours"),
            busy: spans("Mon-Fri 08:30-16:30").expect("hours"),
        };
        let asked = LifeFitRequest { request, life };
        c.bench_function(&format!("a life around a {key}"), |b| {
            b.iter(|| fit(black_box(&asked)))
        });
    }
    let request = sheet(Formula::of_style(style::first()));
    let planned = work_out(&request).expect("a sheet");
    let happened = Happened {
        power_cuts: vec![],
        steps: vec![StepPast {
            said: Default::default(),
            number: 1,
            at: planned.mixed_at,
        }],
        readings: vec![Reading {
            at: planned.mixed_at,
            measured: Measured::Dough { c: 31.0 },
        }],
    };
    let now = planned.mixed_at + craft::sheet::hours(1.0);
    c.bench_function("from now on, with remedies", |b| {
        b.iter(|| {
            from_now(&AheadRequest {
                request: black_box(&request),
                planned: &planned,
                happened: &happened,
                now,
                places: &[],
                doubts: Doubts::default(),
            })
        })
    });
}

fn sheet(formula: Formula) -> SheetRequest {
    let kitchen = KitchenUsual {
        time_zone: "Europe/London".into(),
        altitude_m: 310.0,
        room_c: 19.5,
        fridge_c: 4.5,
        tap_water_c: 9.5,
        scales: Scales::default(),
    };
    SheetRequest::of(
        formula,
        &kitchen,
        "2026-11-27T19:00:00Z".parse().expect("an instant"),
    )
}

fn models(c: &mut Criterion) {
    let (f, d) = (formula(), cold_dough());
    c.bench_function("formula", |b| b.iter(|| formulate(black_box(&f))));
    let rich = FormulaRequest {
        formula: rich_formula(),
        ..formula()
    };
    c.bench_function("formula of 3 preferments and 5 flours", |b| {
        b.iter(|| formulate(black_box(&rich)))
    });
    let recipe = PasteRequest {
        text: "Poolish: 150 g flour, 150 g water, 0.3 g instant yeast\n350 g farina W280\n175 ml acqua\n13 g sale\n2 tbsp olive oil".into(),
        style: style::first().clone(),
    };
    c.bench_function("a pasted recipe of six ingredients", |b| {
        b.iter(|| paste::read(black_box(&recipe)))
    });
    c.bench_function("forecast of 50 h, heat inside the dough", |b| {
        b.iter(|| forecast(black_box(&d), Temperatures::InsideTheDough))
    });
    c.bench_function("yeast for 50 h, place temperatures", |b| {
        b.iter(|| solve_yeast(black_box(&d), Temperatures::OfThePlace))
    });
    c.bench_function("yeast for 50 h, heat inside the dough", |b| {
        b.iter(|| solve_yeast(black_box(&d), Temperatures::InsideTheDough))
    });
    for key in [
        "hot_round",
        "home_round",
        "wet_tray",
        "poolish_round",
        "levain_round",
    ] {
        let s = sheet(Formula::of_style(style::by_key(key).expect("a style")));
        c.bench_function(&format!("sheet of a {key}"), |b| {
            b.iter(|| work_out(black_box(&s)))
        });
    }
    let s = sheet(rich_formula());
    c.bench_function(
        "sheet of 3 preferments and 5 flours, all doses solved",
        |b| b.iter(|| work_out(black_box(&s))),
    );
}

criterion_group! {
    name = benches;
    config = Criterion::default().sample_size(30);
    targets = models, rises
}
criterion_main!(benches);
