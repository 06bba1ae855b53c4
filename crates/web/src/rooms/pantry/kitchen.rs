//! The kitchen itself: its name, its units, its usual temperatures, its mixer.

use super::shelf::{Entry, choice, figure, text};
use super::{Clash, FieldView, ItemPage};
use crate::App;
use crate::access::doors::{Doors, LOOK, OWN};
use crate::shared::error::AppError;
use crate::shared::fields::{
    Quantity, degrees, may, may_scaled, must, put_degrees, put_may, put_scaled, put_weight, scaled,
    unit_of, weight,
};
use crate::shared::form::{FieldReader, FormData};
use crate::shared::format::named;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::{phrase, plain, say};
use axum::body::Bytes;
use axum::extract::{Query, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use craft::fire::work::Work;
use craft::formula::Scales;
use craft::refusal::FieldError;
use craft::sheet::KitchenUsual;
use craft::sheet::life::{Life, spans, words};
use craft::units::{LengthUnit, TemperatureUnit, WeightUnit};
use std::collections::HashMap;
use store::kitchen::{self, NewKitchen, Reads, Rhythm};

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/kitchen", form)
        .post(OWN, "/kitchen", change)
}

fn entries(here: &RequestKitchen) -> Vec<Entry> {
    let degree = here.measures.degree_unit();
    vec![
        text("name", phrase("bench-name"), ""),
        choice(
            "weight",
            phrase("pantry-weights-in"),
            [
                ("grams", phrase("pantry-grams")),
                ("kilograms", phrase("pantry-kilograms")),
                ("ounces", phrase("pantry-ounces")),
                ("pounds", phrase("pantry-pounds")),
            ],
        ),
        choice(
            "temperature",
            phrase("pantry-degrees-in"),
            [
                ("celsius", phrase("pantry-celsius")),
                ("fahrenheit", phrase("pantry-fahrenheit")),
            ],
        ),
        choice(
            "length",
            phrase("pantry-lengths-in"),
            [
                ("centimetres", phrase("pantry-centimetres")),
                ("inches", phrase("pantry-inches")),
            ],
        ),
        text(
            "currency",
            phrase("pantry-currency"),
            phrase("pantry-a-sign-or-three-letters"),
        ),
        text(
            "time_zone",
            phrase("pantry-time-zone"),
            phrase("pantry-such-as-europe-london"),
        ),
        figure(
            "altitude_m",
            phrase("pantry-altitude"),
            phrase("pantry-thinner-air-less-yeast"),
            unit_of(Quantity::Metres, here),
        ),
        figure(
            "room_c",
            phrase("form-room"),
            phrase("pantry-as-it-usually-is"),
            degree,
        ),
        figure(
            "fridge_c",
            phrase("form-fridge"),
            phrase("pantry-home-6-until-measured-walk"),
            degree,
        ),
        choice(
            "fridge_measured",
            phrase("pantry-that-fridge"),
            [
                ("no", phrase("pantry-was-never-measured")),
                ("yes", phrase("pantry-was-measured-with-a-thermometer")),
            ],
        ),
        figure(
            "fridge_off_c",
            phrase("pantry-it-may-be-off-by"),
            &usual_off(here, 1.0),
            unit_of(Quantity::Kelvin, here),
        ),
        figure(
            "room_off_c",
            phrase("pantry-the-room-by"),
            &usual_off(here, 2.0),
            unit_of(Quantity::Kelvin, here),
        ),
        text(
            "quiet",
            phrase("pantry-quiet-hours"),
            phrase("pantry-nobody-is-up-22-30"),
        ),
        text(
            "busy",
            phrase("pantry-busy-hours"),
            phrase("pantry-no-hand-free-mon-fri"),
        ),
        figure(
            "tap_water_c",
            phrase("form-tap"),
            phrase("form-cold-water"),
            degree,
        ),
        figure(
            "kitchen_scale_g",
            phrase("begin-kitchen-scale"),
            phrase("pantry-where-the-pantry-has-none"),
            "g",
        ),
        figure(
            "fine_scale_g",
            phrase("begin-fine-scale"),
            phrase("pantry-empty-there-is-none"),
            "g",
        ),
        figure(
            "mixer_holds_g",
            phrase("pantry-mixer-holds"),
            phrase("pantry-dough-empty-no-limit"),
            here.measures.weight_unit(),
        ),
    ]
    .into_iter()
    .chain(Work::parts().map(|(name, label, _, _)| {
        let small = match name {
            "open_s" => phrase("pantry-how-long-a-persons-hands"),
            "turn_s" => phrase("pantry-each-in-the-oven"),
            "load_s" => phrase("pantry-onto-the-peel-and-in"),
            "cut_s" => phrase("pantry-and-onto-a-plate"),
            _ => "",
        };
        figure(name, &named(&label), small, "s")
    }))
    .collect()
}

fn typed_of(here: &RequestKitchen) -> FormData {
    let k = &here.kitchen;
    let mut t = FormData::default();
    t.set("name", &k.name);
    t.set(
        "weight",
        match k.reads.weight {
            WeightUnit::Grams => "grams",
            WeightUnit::Kilograms => "kilograms",
            WeightUnit::Ounces => "ounces",
            WeightUnit::Pounds => "pounds",
        },
    );
    t.set(
        "temperature",
        match k.reads.temperature {
            TemperatureUnit::Celsius => "celsius",
            TemperatureUnit::Fahrenheit => "fahrenheit",
        },
    );
    t.set(
        "length",
        match k.reads.length {
            LengthUnit::Centimetres => "centimetres",
            LengthUnit::Inches => "inches",
        },
    );
    t.set("currency", &k.reads.currency);
    t.set("time_zone", &k.usual.time_zone);
    put_scaled(
        &mut t,
        "altitude_m",
        k.usual.altitude_m,
        Quantity::Metres,
        here,
    );
    for (name, v) in [
        ("room_c", k.usual.room_c),
        ("fridge_c", k.usual.fridge_c),
        ("tap_water_c", k.usual.tap_water_c),
    ] {
        put_degrees(&mut t, name, v, here);
    }
    let rhythm = &k.rhythm;
    t.set(
        "fridge_measured",
        if rhythm.fridge_measured { "yes" } else { "no" },
    );
    put_scaled(
        &mut t,
        "fridge_off_c",
        rhythm.fridge_off_k,
        Quantity::Kelvin,
        here,
    );
    put_scaled(
        &mut t,
        "room_off_c",
        rhythm.room_off_k,
        Quantity::Kelvin,
        here,
    );
    t.set("quiet", words(&rhythm.life.quiet));
    t.set("busy", words(&rhythm.life.busy));
    t.set("kitchen_scale_g", plain(k.usual.scales.kitchen_scale_g));
    put_may(&mut t, "fine_scale_g", k.usual.scales.fine_scale_g);
    for ((name, ..), s) in Work::parts().into_iter().zip(k.work.seconds()) {
        t.set(name, plain(s));
    }
    match k.usual.scales.mixer_holds_g {
        Some(g) => put_weight(&mut t, "mixer_holds_g", g, here),
        None => put_may(&mut t, "mixer_holds_g", None),
    }
    t
}

fn render(
    here: &RequestKitchen,
    theme: Theme,
    typed: &FormData,
    (revision, saved): (u64, bool),
    errors: &[FieldError],
    stale: Option<Vec<Clash>>,
) -> Result<Response, AppError> {
    let html = page(&ItemPage {
        frame: Frame::of(
            here,
            theme,
            Stop::Sheet,
            phrase("pantry-kitchen"),
            None,
            "/kitchen",
        ),
        title: phrase("pantry-this-kitchen").into(),
        why: phrase("pantry-units-are-how-figures-are"),
        action: "/kitchen".into(),
        revision: revision.to_string(),
        form_key: String::new(),
        fields: entries(here)
            .into_iter()
            .map(|entry| FieldView {
                value: typed.raw(&entry.name).to_string(),
                error: errors
                    .iter()
                    .find(|e| e.field == entry.name)
                    .map(|e| here.say(&e.message)),
                choices: entry
                    .choices
                    .iter()
                    .map(|(k, n)| (k.clone(), n.clone(), *k == typed.text(&entry.name)))
                    .collect(),
                input: entry.input,
                entry,
            })
            .collect(),
        rows: vec![],
        has_rows: false,
        rows_said: ["", "", ""],
        in_order: false,
        has_more: false,
        more_open: false,
        is_new: true,
        wrong: errors.len() as u32,
        stale,
        counted_at: String::new(),
        saved,
    })?;
    let status = if errors.is_empty() {
        StatusCode::OK
    } else {
        StatusCode::UNPROCESSABLE_ENTITY
    };
    Ok((status, html).into_response())
}

async fn form(
    State(app): State<App>,
    theme: Theme,
    here: RequestKitchen,
    Query(query): Query<HashMap<String, String>>,
) -> Result<Response, AppError> {
    // What another page changed a moment ago must be seen here.
    app.kitchens.forget(here.id());
    let here = RequestKitchen::for_asker(&app, here.id(), &here.asker, here.now).await?;
    let typed = typed_of(&here);
    let saved = query.contains_key("saved");
    let at = (here.kitchen.revision, saved);
    render(&here, theme, &typed, at, &[], None)
}

fn read(typed: &FormData, here: &RequestKitchen) -> Result<NewKitchen, Vec<FieldError>> {
    let mut r = FieldReader::new(typed);
    let mixer = typed.text("mixer_holds_g").is_empty();
    let k = NewKitchen {
        name: r.name("name", phrase("form-a-name")),
        usual: KitchenUsual {
            time_zone: typed.text("time_zone").into(),
            altitude_m: scaled(
                &mut r,
                "altitude_m",
                phrase("pantry-altitude"),
                Quantity::Metres,
                here,
            ),
            room_c: degrees(&mut r, "room_c", phrase("form-room"), here),
            fridge_c: degrees(&mut r, "fridge_c", phrase("form-fridge"), here),
            tap_water_c: degrees(&mut r, "tap_water_c", phrase("pantry-tap-water"), here),
            scales: Scales {
                kitchen_scale_g: must(&mut r, "kitchen_scale_g", phrase("begin-kitchen-scale")),
                fine_scale_g: may(&mut r, "fine_scale_g", phrase("begin-fine-scale")),
                mixer_holds_g: if mixer {
                    may(&mut r, "mixer_holds_g", phrase("pantry-mixer"))
                } else {
                    Some(weight(
                        &mut r,
                        "mixer_holds_g",
                        phrase("pantry-the-mixer-holds"),
                        here,
                    ))
                },
            },
        },
        reads: Reads {
            temperature: if typed.text("temperature") == "fahrenheit" {
                TemperatureUnit::Fahrenheit
            } else {
                TemperatureUnit::Celsius
            },
            weight: match typed.text("weight") {
                "kilograms" => WeightUnit::Kilograms,
                "ounces" => WeightUnit::Ounces,
                "pounds" => WeightUnit::Pounds,
                _ => WeightUnit::Grams,
            },
            length: if typed.text("length") == "inches" {
                LengthUnit::Inches
            } else {
                LengthUnit::Centimetres
            },
            currency: typed.text("currency").into(),
        },
        rhythm: rhythm(&mut r, here),
        work: work(&mut r, here.kitchen.work),
    };
    let letters = k.reads.currency.chars().count();
    if letters == 0 || letters > 3 {
        r.refuse("currency", phrase("pantry-a-currency-is-a-sign"));
    }
    let mut errors = r.errors;
    if errors.is_empty() {
        errors = k.usual.check().err().map_or(vec![], |e| e.0);
        errors.extend(k.work.check().err().map_or(vec![], |e| e.0));
    }
    if errors.is_empty() {
        Ok(k)
    } else {
        Err(errors)
    }
}

/// How long hands take; what a page of before did not ask stays as it was.
fn work(r: &mut FieldReader, was: Work) -> Work {
    let mut s = was.seconds();
    for (s, (name, label, ..)) in s.iter_mut().zip(Work::parts()) {
        if r.typed.has(name) {
            *s = must(r, name, &named(&label));
        }
    }
    Work::of(s)
}

/// When nobody is at the bench, and how well the temperatures are known.
fn rhythm(r: &mut FieldReader, here: &RequestKitchen) -> Rhythm {
    let mut hours = |field: &str| {
        spans(r.typed.text(field)).unwrap_or_else(|e| {
            r.refuse_as(field, e);
            vec![]
        })
    };
    let life = Life {
        quiet: hours("quiet"),
        busy: hours("busy"),
    };
    let mut off = |field: &str, usual: f64| {
        let v = may_scaled(
            r,
            field,
            phrase("pantry-how-far-off"),
            Quantity::Kelvin,
            here,
        )
        .unwrap_or(usual);
        if v.is_finite() && !(0.0..=10.0).contains(&v) {
            let to = here.measures.scaled_field(10.0, Quantity::Kelvin);
            r.refuse(field, say!("pantry-0-to-degrees-either-way", to = to));
        }
        v
    };
    Rhythm {
        life,
        fridge_off_k: off("fridge_off_c", 1.0),
        room_off_k: off("room_off_c", 2.0),
        fridge_measured: r.typed.text("fridge_measured") == "yes",
    }
}

/// How far a thermometer is usually off, in the kitchen's degrees.
fn usual_off(here: &RequestKitchen, k: f64) -> String {
    say!(
        "pantry-usual",
        kelvin = here.measures.scaled_field(k, Quantity::Kelvin)
    )
}

async fn change(
    State(app): State<App>,
    theme: Theme,
    here: RequestKitchen,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let revision = typed.text("revision").parse().unwrap_or(0);
    let k = match read(&typed, &here) {
        Err(e) => return render(&here, theme, &typed, (revision, false), &e, None),
        Ok(k) => k,
    };
    let mut db = app.db.acquire().await?;
    if kitchen::change(&mut db, here.id(), &k, revision).await? {
        app.kitchens.forget(here.id());
        return Ok(Redirect::to("/kitchen?saved=1").into_response());
    }
    app.kitchens.forget(here.id());
    let now = kitchen::by_id(&mut db, here.id()).await?;
    let there = RequestKitchen::of(now.ok_or(AppError::NoKitchen)?, here.now);
    let theirs = typed_of(&there);
    let clashes = entries(&there)
        .into_iter()
        .filter(|e| theirs.text(&e.name) != typed.text(&e.name))
        .map(|e| Clash {
            what: e.label,
            theirs: theirs.text(&e.name).to_string(),
            yours: typed.text(&e.name).to_string(),
        })
        .collect();
    let mut answer = render(
        &there,
        theme,
        &typed,
        (there.kitchen.revision, false),
        &[],
        Some(clashes),
    )?;
    *answer.status_mut() = StatusCode::CONFLICT;
    Ok(answer)
}
