//! The reference cases of mixing, mapped from their short names to the request's own; tolerances are the cases'.

use craft::keyed::Keyed;
use craft::mix::{
    BlendFrom, BowlItem, BowlPart, BowlStep, Development, DoughToMix, FrictionFigures, GlutenWork,
    LoggedMix, MixReading, Mixer, Mixing, ReadySign, Speed, StandingDough, aim, blend, development,
    fitting, learn_friction, programmes, trace, usual_minutes,
};
use serde_json::Value;

fn cases(task: &str) -> Vec<Value> {
    let all: Value =
        serde_json::from_str(include_str!("../reference/mix-shape-cases.json")).unwrap();
    let of_task = all["cases"].as_array().unwrap().iter();
    let found: Vec<Value> = of_task.filter(|c| c["task"] == task).cloned().collect();
    assert!(!found.is_empty(), "no case of {task}");
    found
}

fn number(v: &Value, key: &str) -> f64 {
    v[key].as_f64().unwrap_or_else(|| panic!("{key} of {v}"))
}

fn item(v: &Value) -> BowlItem {
    let mut i = BowlItem::of(
        BowlPart::from_key(v["what"].as_str().unwrap()).unwrap(),
        number(v, "g"),
        v["c"].as_f64().unwrap_or(0.0),
    );
    i.name = v["name"].as_str().map(str::to_owned);
    i.hydration_percent = v["hydration"].as_f64().unwrap_or(100.0);
    i
}

fn step(v: &Value) -> BowlStep {
    let mut s = BowlStep::plain(
        Speed::from_key(v["speed"].as_str().unwrap()).unwrap(),
        number(v, "minutes"),
    );
    s.add = v["add"]
        .as_array()
        .into_iter()
        .flatten()
        .map(item)
        .collect();
    s.ice_bath = v["ice_bath"] == true;
    s.stir = v["stir"] == true;
    s.slap = v["slap"] == true;
    s
}

fn mixing(v: &Value) -> Mixing {
    Mixing {
        kind: kind(v),
        capacity_kg: v["capacity_kg"].as_f64(),
        room_c: number(v, "room_c"),
        bowl_c: v["bowl_c"].as_f64(),
        plain: v["plain"] == true,
        steps: v["steps"].as_array().unwrap().iter().map(step).collect(),
        from: v["from"].as_object().map(|f| StandingDough {
            dough_c: f["c"].as_f64().unwrap(),
            bowl_c: f["bowl_c"].as_f64().unwrap(),
            contents: f["contents"].as_array().unwrap().iter().map(item).collect(),
        }),
    }
}

fn kind(v: &Value) -> Mixer {
    Mixer::from_key(v["kind"].as_str().unwrap()).unwrap()
}

fn figures(v: &Value) -> Option<FrictionFigures> {
    let t: Vec<f64> = serde_json::from_value(v["theta"].clone()).ok()?;
    Some(FrictionFigures {
        offset_k: t[0],
        slow: t[1],
        medium: t[2],
        fast: t[3],
        fill_effect: t[4],
    })
}

/// What the case says of a key, and how near it must be: a number, or a share of it.
fn near(case: &Value, key: &str, got: f64) {
    let wanted = &case["output"][key];
    let wanted = wanted.as_f64().unwrap_or_else(|| panic!("{key}"));
    let tolerance = &case["tolerance"][key];
    let within = match tolerance.as_str() {
        Some(share) => {
            let percent: f64 = share.trim_end_matches('%').trim().parse().unwrap();
            wanted.abs() * percent / 100.0
        }
        None => tolerance.as_f64().unwrap_or_else(|| panic!("{key}")),
    };
    assert!(
        (got - wanted).abs() <= within,
        "{}: {key} is {got}, not {wanted} ± {within}",
        case["id"]
    );
}

#[test]
fn water_and_what_it_is_made_of() {
    for case in cases("water") {
        let input = &case["input"];
        let m = mixing(&input["programme"]);
        let aimed = aim(
            &m,
            &["water"],
            number(input, "target_c"),
            figures(input).as_ref(),
        )
        .unwrap();
        near(&case, "water_c", aimed.at_c);
        near(&case, "per_degree", aimed.per_degree_k);
        let from = BlendFrom {
            tap_c: number(input, "tap_c"),
            kettle_c: input["kettle_c"].as_f64(),
            fridge_c: None,
            ice_in_bowl: m.kind != Mixer::Hand,
        };
        let b = blend(aimed.weight_g, aimed.at_c, &from);
        for (key, got) in [
            ("kettle_g", b.kettle_g),
            ("tap_g", b.tap_g),
            ("ice_in_tap_g", b.ice_in_tap_g),
            ("ice_g", b.ice_g),
            ("pour_c", b.pour_c),
        ] {
            if case["output"].get(key).is_some() && case["tolerance"].get(key).is_some() {
                near(&case, key, got);
            }
        }
        if let Some(pour) = case["output"]["pour_c"].as_f64() {
            assert_eq!(b.pour_c, pour);
        }
        let parts = b.kettle_g + b.tap_g + b.fridge_g + b.ice_g + b.ice_in_tap_g;
        assert!((parts - aimed.weight_g).abs() < 1e-6);
    }
}

#[test]
fn dough_and_bowl_over_a_programme() {
    for case in cases("trace") {
        let input = &case["input"];
        let t = trace(&mixing(&input["programme"]), figures(input).as_ref()).unwrap();
        near(&case, "start_c", t.start_c);
        near(&case, "end_c", t.end_c);
        near(&case, "bowl_end_c", t.bowl_end_c);
        near(&case, "friction_k", t.friction_k);
        near(&case, "cap_scale", t.cap_scale);
        match t.one_minute_more_k {
            Some(k) => near(&case, "one_minute_more_k", k),
            None => assert!(case["output"]["one_minute_more_k"].is_null()),
        }
        let minutes = input["at_min"].as_array().unwrap();
        let wanted = case["output"]["at_c"].as_array().unwrap();
        for (at, wanted) in minutes.iter().zip(wanted) {
            let got = t.at(at.as_f64().unwrap()).unwrap();
            let off = (got - wanted.as_f64().unwrap()).abs();
            assert!(
                off <= number(&case["tolerance"], "at_c"),
                "{}: {got} at {at}",
                case["id"]
            );
        }
    }
}

#[test]
fn the_next_addition_from_a_reading() {
    for case in cases("next_addition") {
        let input = &case["input"];
        let names: Vec<&str> = input["which"]
            .as_array()
            .unwrap()
            .iter()
            .map(|n| n.as_str().unwrap())
            .collect();
        let m = mixing(&input["programme"]);
        let aimed = aim(
            &m,
            &names,
            number(input, "target_c"),
            figures(input).as_ref(),
        )
        .unwrap();
        near(&case, "water_c", aimed.at_c);
        near(&case, "per_degree", aimed.per_degree_k);
        near(&case, "end_with_2_c", aimed.end_with_coldest_c);
        near(&case, "end_with_40_c", aimed.end_with_hottest_c);
    }
}

#[test]
fn friction_from_logged_mixes() {
    for case in cases("learn_friction") {
        let input = &case["input"];
        let mixes: Vec<LoggedMix> = input["batches"]
            .as_array()
            .unwrap()
            .iter()
            .map(|b| LoggedMix {
                mixing: mixing(b),
                readings: b["readings"]
                    .as_array()
                    .unwrap()
                    .iter()
                    .map(|r| MixReading {
                        at_min: r[0].as_f64().unwrap(),
                        dough_c: r[1].as_f64().unwrap(),
                    })
                    .collect(),
            })
            .collect();
        let f = learn_friction(kind(input), &mixes);
        near(&case, "smallest_weight", f.smallest_weight);
        for (key, got) in [("theta", f.figures), ("sd", f.sd)] {
            let got = [
                got.offset_k,
                got.slow,
                got.medium,
                got.fast,
                got.fill_effect,
            ];
            let wanted = case["output"][key].as_array().unwrap();
            for (i, (got, wanted)) in got.iter().zip(wanted).enumerate() {
                let off = (got - wanted.as_f64().unwrap()).abs();
                assert!(
                    off <= number(&case["tolerance"], key),
                    "{}: {key}[{i}] is {got}, not {wanted}",
                    case["id"]
                );
            }
        }
    }
}

fn developed(v: &Value) -> (Development, Mixing) {
    let m = Mixing {
        kind: kind(v),
        capacity_kg: None,
        room_c: 20.0,
        bowl_c: None,
        plain: false,
        steps: v["steps"].as_array().unwrap().iter().map(step).collect(),
        from: None,
    };
    let work = GlutenWork {
        kind: m.kind,
        w: number(v, "W"),
        hydration_percent: number(v, "water"),
        usual: v["kappa"].as_f64().unwrap_or(1.0),
    };
    let temp = number(v, "temp");
    (development(&work, &m, m.minutes(), &[], |_| temp), m)
}

#[test]
fn how_far_the_gluten_is() {
    for case in cases("development") {
        let within = number(&case["tolerance"], "all");
        let runs = case["input"]["runs"].as_array().unwrap();
        for (run, wanted) in runs.iter().zip(case["output"].as_array().unwrap()) {
            let (d, _) = developed(run);
            for (key, got) in [("work", d.work), ("rest", d.rest), ("D", d.index)] {
                assert!(
                    (got - number(wanted, key)).abs() <= within,
                    "{key} is {got}: {wanted}"
                );
            }
        }
    }
}

#[test]
fn minutes_that_one_mixer_and_flour_need() {
    for case in cases("learn_need") {
        let within = number(&case["tolerance"], "all");
        let seen: Vec<(Development, ReadySign)> = case["input"]["observations"]
            .as_array()
            .unwrap()
            .iter()
            .map(|o| {
                let sign = ReadySign::from_key(o["sign"].as_str().unwrap()).unwrap();
                (developed(o).0, sign)
            })
            .collect();
        let u = usual_minutes(&seen);
        assert!(
            (u.factor - number(&case["output"], "kappa")).abs() <= within,
            "{u:?}"
        );
        assert!(
            (u.sd_ln - number(&case["output"], "sd_ln")).abs() <= within,
            "{u:?}"
        );
    }
}

#[test]
fn which_programme_suits_a_dough_and_the_tools() {
    for case in cases("fit") {
        let rows = case["input"]["rows"].as_array().unwrap();
        for (row, wanted) in rows.iter().zip(case["output"].as_array().unwrap()) {
            let tools: Vec<Mixer> = row["kinds"]
                .as_array()
                .unwrap()
                .iter()
                .map(|k| Mixer::from_key(k.as_str().unwrap()).unwrap())
                .collect();
            let dough = DoughToMix {
                hydration_percent: number(row, "water"),
                w: number(row, "W"),
                dough_kg: number(row, "kg"),
                fill: number(row, "fill"),
            };
            let found = fitting(programmes(), &tools, None, &dough);
            let wanted = wanted.as_array().unwrap();
            assert_eq!(found.len(), wanted.len());
            for ((p, misfit), w) in found.iter().zip(wanted) {
                assert_eq!(p.key, w[0].as_str().unwrap());
                assert!(
                    (misfit - w[1].as_f64().unwrap()).abs() <= 0.01,
                    "{}: {misfit}",
                    p.key
                );
            }
        }
    }
}

/// The programmes of the reference are the ones that ship.
#[test]
fn the_programmes_are_the_tables() {
    let all: Value =
        serde_json::from_str(include_str!("../reference/mix-shape-cases.json")).unwrap();
    let table = all["programmes"].as_array().unwrap();
    assert_eq!(programmes().len(), table.len());
    for (ours, theirs) in programmes().iter().zip(table) {
        assert_eq!(ours.key, theirs["key"].as_str().unwrap());
        ours.check().unwrap();
        let steps = theirs["steps"].as_array().unwrap();
        assert_eq!(ours.steps.len(), steps.len(), "{}", ours.key);
        for (a, b) in ours.steps.iter().zip(steps) {
            assert_eq!(a.minutes, number(b, "minutes"), "{}", ours.key);
            assert_eq!(a.speed.key(), b["speed"].as_str().unwrap());
            let share = |key: &str| b["add"][key].as_f64().unwrap_or(0.0);
            assert_eq!(
                (a.add.flour, a.add.water, a.add.salt),
                (share("flour"), share("water"), share("salt"))
            );
        }
    }
}
