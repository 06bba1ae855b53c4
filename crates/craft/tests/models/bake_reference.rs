//! The reference cases of the bake model, mapped from their short names to the request's own.
//!
//! Tolerances are the model's: colours 0.03, temperatures 2 °C, times 2 s (3 s where the record is every 2 s), other
//! quantities 2 %. The cases were made without tables.

use craft::fire::limits::{expected_s, longest_s};
use craft::fire::preheat::{PreheatRequest, Warming, preheat};
use craft::fire::recover::recovery;
use craft::fire::service::floor_pace;
use craft::fire::{
    Aim, Back, BakeCourse, BakeRequest, Fineness, Material, OvenNow, PanNow, Piece, RaceItem, bake,
    bake_finely, boiling_c, race,
};
use craft::keyed::Keyed;
use serde_json::Value;

fn all() -> Value {
    serde_json::from_str(include_str!("../reference/bake-cases.json")).unwrap()
}

fn material(word: &str) -> Material {
    match word {
        "biscuit" => Material::Biscuit,
        "cordierite" => Material::Cordierite,
        "firebrick" => Material::Firebrick,
        "steel" => Material::CarbonSteel,
        "stainless" => Material::Stainless,
        "castiron" => Material::CastIron,
        "aluminium" => Material::Aluminium,
        other => panic!("no such material: {other}"),
    }
}

fn request(all: &Value, given: &Value) -> BakeRequest {
    let get = |key: &str| -> Value {
        given
            .get(key)
            .unwrap_or_else(|| &all["defaults"][key])
            .clone()
    };
    let n = |key: &str| get(key).as_f64().unwrap_or(0.0);
    let maybe = |key: &str| get(key).as_f64();
    let word = |key: &str| get(key).as_str().unwrap_or("").to_owned();
    BakeRequest {
        aim: match word("style").as_str() {
            "naples" => Aim::Hot,
            other => Aim::from_key(other).unwrap(),
        },
        piece: Piece {
            ball_g: n("ball_g"),
            disc_mm: n("disc_mm"),
            rim_mm: n("rim_mm"),
            rim_share: n("rim_share"),
            hydration_percent: 100.0 * n("hydration"),
            salt_percent: 100.0 * n("salt"),
            sugar_percent: 100.0 * n("sugar"),
            malt_percent: 100.0 * n("malt"),
            oil_percent: 100.0 * n("oil"),
            milk_percent: 100.0 * n("milk"),
            maturity: n("maturity"),
            cold: get("cold_ferment").as_bool().unwrap(),
            dough_c: n("dough_T"),
            sauce_g: n("sauce_g"),
            cheese_g: n("cheese_g"),
        },
        oven: OvenNow {
            floor: material(&word("floor_mat")),
            floor_mm: n("floor_mm"),
            floor_c: n("floor_T"),
            core_c: maybe("core_T"),
            dome_c: n("dome_T"),
            air_c: maybe("air_T"),
            view: n("view"),
            air_w_m2k: n("h_conv"),
            grill_w_m2: n("grill"),
            back: match word("back").as_str() {
                "mass" => Back::Mass,
                "element" => Back::Element,
                _ => Back::Air,
            },
            back_w_m2: n("back_W"),
            back_c: maybe("back_T"),
            side: n("side"),
            door_drop_k: n("door_drop"),
            door_s: n("door_tau"),
            floor_factor: 1.0,
            top_factor: 1.0,
        },
        pan: get("pan").as_str().map(|m| PanNow {
            material: material(m),
            mm: n("pan_mm"),
            pan_c: n("pan_T"),
            wall_mm: n("wall_mm"),
            oiled: get("oiled").as_bool().unwrap(),
        }),
        turns_s: serde_json::from_value(get("turns")).unwrap(),
        quarter_turns_s: vec![],
        lift_s: maybe("lift_s"),
        cheese_at_s: n("cheese_at"),
        altitude_m: n("altitude"),
        until_s: maybe("t_max").unwrap_or(900.0),
    }
}

fn cases() -> Vec<(String, BakeRequest, Value)> {
    let all = all();
    all["cases"]
        .as_array()
        .unwrap()
        .iter()
        .map(|c| {
            let name = c["name"].as_str().unwrap().to_owned();
            (name, request(&all, &c["inputs"]), c.clone())
        })
        .collect()
}

/// Everything that differs by more than its tolerance, in words.
fn differences(name: &str, r: &BakeRequest, course: &BakeCourse, case: &Value) -> Vec<String> {
    let mut out = Vec::new();
    let mut held = |what: String, ours: f64, theirs: f64, within: f64| {
        if (ours - theirs).abs() > within {
            out.push(format!("{name} {what}: {ours:.4} for {theirs:.4}"));
        }
    };
    for at in case["at"].as_array().unwrap() {
        let t = at["t"].as_f64().unwrap();
        let m = course.near(t).unwrap();
        assert_eq!(m.t, t, "{name}");
        let v = |key: &str| at[key].as_f64().unwrap();
        for (key, ours) in [
            ("base_Ts", m.base_c),
            ("rim_Ts", m.rim_c),
            ("rim_core", m.rim_core_c),
            ("base_min", m.middle_c),
            ("under_sauce", m.under_sauce_c),
            ("top_Ts", m.top_c),
            ("floor_Ts", m.floor_c),
        ] {
            held(format!("{key} at {t}"), ours, v(key), 2.0);
        }
        for (key, ours) in [
            ("base_col", m.base),
            ("rim_col", m.rim),
            ("cheese_col", m.cheese),
        ] {
            held(format!("{key} at {t}"), ours, v(key), 0.03);
        }
        for (key, ours) in [
            ("loss", m.loss),
            ("q_bot", m.into_base),
            ("q_top", m.into_top),
            ("water_g", m.water_g),
            ("crisp", m.crisp),
        ] {
            let theirs = v(key);
            // A cell that dries between two steps moves the crispness by its own thickness.
            let least = match key {
                "crisp" => 0.05,
                "q_top" => 25.0,
                _ => 0.001,
            };
            held(
                format!("{key} at {t}"),
                ours,
                theirs,
                (0.02 * theirs.abs()).max(least),
            );
        }
    }
    let result = &case["result"];
    let race = race(r, course, &r.aim.targets()).unwrap();
    let seconds = if r.until_s > 300.0 { 4.0 } else { 2.0 };
    match (result["window"].as_array(), race.window) {
        (Some(w), Some(ours)) => {
            held(
                "window from".into(),
                ours.from_s,
                w[0].as_f64().unwrap(),
                seconds,
            );
            held(
                "window to".into(),
                ours.to_s,
                w[1].as_f64().unwrap(),
                seconds,
            );
        }
        (None, None) => {}
        (theirs, ours) => out.push(format!("{name} window: {ours:?} for {theirs:?}")),
    }
    let mut held = |what: String, ours: f64, theirs: f64, within: f64| {
        if (ours - theirs).abs() > within {
            out.push(format!("{name} {what}: {ours:.4} for {theirs:.4}"));
        }
    };
    held(
        "t_best".into(),
        race.best_s,
        result["t_best"].as_f64().unwrap(),
        seconds,
    );
    held("J".into(), race.amiss, result["J"].as_f64().unwrap(), 0.01);
    held(
        "leopard".into(),
        race.spots,
        result["leopard"].as_f64().unwrap(),
        2.0,
    );
    held(
        "evenness".into(),
        race.evenness,
        result["evenness"].as_f64().unwrap(),
        2.0,
    );
    for lane in &race.lanes {
        for (key, ours) in [("ready", lane.ready_s), ("spoil", lane.spoils_s)] {
            let theirs = result[key][lane.item.key()].as_f64();
            held(
                format!("{key} {:?}", lane.item),
                ours.unwrap_or(1e9),
                theirs.unwrap_or(1e9),
                seconds,
            );
        }
        let theirs = result["verdict"][lane.item.key()].as_i64().unwrap();
        held(
            format!("verdict {:?}", lane.item),
            f64::from(lane.verdict),
            theirs as f64,
            0.0,
        );
    }
    let named = |i: Option<RaceItem>| i.map(|i| i.key().to_owned());
    if named(Some(race.last_ready)) != result["last_ready"].as_str().map(str::to_owned) {
        out.push(format!("{name} last ready: {:?}", race.last_ready));
    }
    if named(race.first_spoiled) != result["first_spoiled"].as_str().map(str::to_owned) {
        out.push(format!("{name} first spoiled: {:?}", race.first_spoiled));
    }
    out
}

#[test]
fn every_bake_runs_as_in_the_reference() {
    let mut wrong = Vec::new();
    for (name, r, case) in cases() {
        let course = bake(&r).unwrap();
        wrong.extend(differences(&name, &r, &course, &case));
        assert!(
            course.imbalance < 0.005,
            "{name}: energy off by {}",
            course.imbalance
        );
    }
    assert!(wrong.is_empty(), "\n{}", wrong.join("\n"));
}

#[test]
fn water_boils_lower_up_high() {
    for (altitude, theirs) in all()["boiling_C"].as_object().unwrap() {
        let ours = boiling_c(altitude.parse().unwrap());
        assert!(
            (ours - theirs.as_f64().unwrap()).abs() < 0.02,
            "{altitude}: {ours}"
        );
    }
}

#[test]
fn the_skin_of_a_dough_on_each_floor() {
    for c in all()["ideal_contact_C"].as_array().unwrap() {
        let ours = material(c["mat"].as_str().unwrap()).contact_c(
            c["T_floor"].as_f64().unwrap(),
            c["T_dough"].as_f64().unwrap(),
        );
        assert!((ours - c["T"].as_f64().unwrap()).abs() < 0.1, "{c}: {ours}");
    }
}

#[test]
fn floors_are_charged_as_in_the_reference() {
    for c in all()["preheat"].as_array().unwrap() {
        let n = |k: &str| c[k].as_f64().unwrap();
        let p = preheat(&PreheatRequest {
            warming: match c["kind"].as_str().unwrap() {
                "home" => Warming::Home,
                "dome" => Warming::Dome,
                _ => Warming::Gas,
            },
            floor: material(c["mat"].as_str().unwrap()),
            floor_mm: n("mm"),
            set_c: n("T_set"),
            from_c: 20.0,
            pace: 1.0,
            end_off_k: 0.0,
        })
        .unwrap();
        let near = |ours: f64, theirs: f64| (ours - theirs).abs() <= 0.02 * theirs;
        assert!(
            near(p.face_s.unwrap(), n("t_surface")),
            "{c}: {:?}",
            p.face_s
        );
        assert!(near(p.core_s.unwrap(), n("t_mid")), "{c}: {:?}", p.core_s);
        // The reference ran a fifth longer than the core took.
        let end = 1.2 * p.core_s.unwrap();
        let i = p.course.iter().position(|x| x.t >= end).unwrap();
        let (a, b) = (p.course[i - 1], p.course[i]);
        let charged = a.charged + (b.charged - a.charged) * (end - a.t) / (b.t - a.t);
        assert!((charged - n("charged_end")).abs() < 0.003, "{c}: {charged}");
    }
}

#[test]
fn a_floor_comes_back_as_in_the_reference() {
    let cases = cases();
    for c in all()["recovery"].as_array().unwrap() {
        let n = |k: &str| c[k].as_f64().unwrap();
        let (_, r, _) = cases
            .iter()
            .find(|(name, ..)| name == c["case"].as_str().unwrap())
            .unwrap();
        let ours = recovery(r, n("t_bake"));
        for (ours, theirs, within) in [
            (ours.exit_c, n("T_exit"), 2.0),
            (ours.drop_k, n("drop"), 2.0),
            (ours.tau_s.unwrap(), n("tau"), 0.02 * n("tau") + 1.0),
            (ours.wait_s.unwrap(), n("wait"), 0.02 * n("wait") + 1.0),
            (ours.half_s.unwrap(), n("half"), 0.02 * n("half") + 1.0),
        ] {
            assert!((ours - theirs).abs() <= within, "{c}: {ours} for {theirs}");
        }
    }
}

#[test]
fn a_bake_is_followed_as_long_as_oven_and_dough_ask() {
    let all = all();
    for c in all["limits"].as_array().unwrap() {
        let mut r = request(&all, c);
        r.oven.air_c = None;
        let n = |key: &str| c[key].as_f64().unwrap();
        let expected = expected_s(&r.piece, &r.oven, r.oven.dome_c);
        assert!((expected - n("t_expected")).abs() < 0.1, "{c}: {expected}");
        let limit = longest_s(r.aim, &r.piece, &r.oven);
        assert!((limit - n("t_limit")).abs() < 0.1, "{c}: {limit}");
    }
}

#[test]
fn places_of_a_floor_take_turns_as_in_the_reference() {
    let dome = craft::fire::oven::all()
        .iter()
        .find(|o| o.key == "wood_dome");
    for c in all()["pace"].as_array().unwrap() {
        let n = |key: &str| c[key].as_f64().unwrap();
        let oven = craft::fire::Oven {
            floor_m2: Some(n("floor_m2")),
            spots: 1,
            ..dome.unwrap().clone()
        };
        let areas = oven.areas(n("disc_mm"));
        assert_eq!(f64::from(areas), n("areas"), "{c}");
        let (usual, (low, high)) = floor_pace(n("t_bake"), n("gap"), 1, areas);
        for (ours, key) in [
            (usual, "s_per_pizza"),
            (low, "s_per_pizza_low"),
            (high, "s_per_pizza_high"),
        ] {
            assert!((ours - n(key)).abs() < 0.01, "{c} {key}: {ours}");
        }
    }
}

/// The model's own spread: colours by 0.05 (0.08 for doubled steps), or two seconds where a colour is steep.
#[test]
fn half_steps_and_double_cells_stay_inside_the_stated_spread() {
    for (name, r, case) in cases() {
        let usual = bake(&r).unwrap();
        for (fineness, within) in [
            (Fineness::Fine, 0.05),
            (Fineness::Dense, 0.05),
            (Fineness::Draft, 0.08),
        ] {
            let other = bake_finely(&r, fineness).unwrap();
            for at in case["at"].as_array().unwrap() {
                let t = at["t"].as_f64().unwrap();
                let o = other.near(t).unwrap();
                let (a, b) = (usual.near(t - 2.0).unwrap(), usual.near(t + 2.0).unwrap());
                for (what, ours, from, to) in [
                    ("base", o.base, a.base, b.base),
                    ("rim", o.rim, a.rim, b.rim),
                ] {
                    assert!(
                        ours > from - within && ours < to + within,
                        "{name} {fineness:?} {what} at {t}: {ours:.3} for {from:.3} to {to:.3}"
                    );
                }
            }
        }
    }
}
