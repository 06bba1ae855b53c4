use super::*;
use crate::shared::larder::Larder;
use craft::formula::Ingredient;
use craft::pantry::{Flour, Good, Pan};
use craft::sheet::KitchenUsual;
use store::KitchenId;
use store::kitchen::{Kitchen, Reads};
use store::pantry::{Everything, PantryItem};

fn here() -> RequestKitchen {
    let kitchen = Kitchen {
        rhythm: Default::default(),
        work: Default::default(),
        feed_hash: None,
        uses_book: false,
        is_demo: false,
        epoch: String::new(),
        id: KitchenId(1),
        name: "Here".into(),
        usual: KitchenUsual {
            time_zone: "Europe/London".into(),
            altitude_m: 0.0,
            room_c: 20.0,
            fridge_c: 5.0,
            tap_water_c: 11.0,
            scales: Default::default(),
        },
        reads: Reads::default(),
        revision: 0,
    };
    RequestKitchen::of(kitchen, "2026-11-23T09:00:00Z".parse().unwrap())
}

fn item<F>(id: u64, facts: F) -> PantryItem<F> {
    PantryItem {
        id,
        revision: 1,
        facts,
    }
}

fn flour(name: &str, w: f64, protein: f64) -> Flour {
    Flour {
        name: name.into(),
        facts: FlourFacts {
            w: Some(w),
            protein_percent: Some(protein),
            ..FlourFacts::default()
        },
        milling: String::new(),
        moisture_percent: None,
        allergens: "gluten".into(),
        price_per_kg: Some(1.2),
        bags: vec![],
        pressed: vec![],
        generic: false,
    }
}

fn larder() -> Larder {
    Larder::from(Everything {
        flours: vec![
            item(7, flour("Soft", 200.0, 10.5)),
            item(8, flour("Strong", 380.0, 14.5)),
        ],
        pans: vec![item(
            3,
            Pan {
                name: "Skillet".into(),
                pan: PanShape::Round { diameter_cm: 26.0 },
                height_cm: 5.0,
                count: 2,
                material: craft::fire::Material::CarbonSteel,
                thick_mm: 1.0,
                oiled: true,
            },
        )],
        goods: vec![item(
            4,
            Good {
                name: "Fennel sausage".into(),
                price_per_kg: Some(11.0),
                left_g: 500.0,
                allergens: "mustard".into(),
            },
        )],
        ..Everything::default()
    })
}

/// A form of the first style, after some presses.
fn pressed(presses: &[&[(&str, &str)]]) -> (FormData, Formula) {
    let (here, larder) = (here(), larder());
    let bench = Bench {
        here: &here,
        larder: &larder,
    };
    let mut typed = reading::sensible(&Formula::of_style(craft::style::first()), &here);
    for fields in presses {
        for (name, value) in *fields {
            typed.set(name, *value);
        }
        press(&mut typed, &bench).unwrap_or_else(|e| panic!("{fields:?}: {e:?}"));
    }
    let f = reading::formula(&typed, &here).unwrap_or_else(|e| panic!("{e:?}"));
    (typed, f)
}

fn weighs(f: &Formula) -> f64 {
    let r = formulate(&FormulaRequest {
        formula: f.clone(),
        scales: Default::default(),
        doses: None,
    });
    r.unwrap().dough_g
}

#[test]
fn a_flour_of_ones_own_takes_the_place_of_what_stood_in_for_it() {
    let (_, f) = pressed(&[&[("act", "add:flours"), ("new_flours", "8")]]);
    let of: Vec<(&str, f64, Option<u64>)> = f
        .flours
        .iter()
        .map(|x| (x.name.as_str(), x.share_percent, x.pantry))
        .collect();
    assert_eq!(of, [("Strong", 100.0, Some(8))]);
}

#[test]
fn a_flour_more_takes_its_share_from_the_largest_and_gives_it_back() {
    let two: [&[(&str, &str)]; 2] = [
        &[("act", "add:flours"), ("new_flours", "7")],
        &[("act", "add:flours"), ("new_flours", "8")],
    ];
    let (_, f) = pressed(&two);
    let of: Vec<(&str, f64, Option<u64>)> = f
        .flours
        .iter()
        .map(|x| (x.name.as_str(), x.share_percent, x.pantry))
        .collect();
    assert_eq!(of, [("Soft", 90.0, Some(7)), ("Strong", 10.0, Some(8))]);
    let (typed, f) = pressed(&[
        two[0],
        two[1],
        &[("act", "add:preferments"), ("new_preferments", "poolish")],
        &[
            ("preferments[0].own_flours", "1"),
            ("preferments[0].flours[0]", "100"),
            ("preferments[0].flours[1]", "0"),
            ("act", "look"),
        ],
        &[("act", "drop:flours:1")],
    ]);
    assert_eq!((f.flours.len(), f.flours[0].share_percent), (1, 100.0));
    assert!(
        f.preferments[0].flours.is_empty(),
        "one flour has no shares of its own"
    );
    assert_eq!(typed.rows("preferments[0].flours"), 1);
}

#[test]
fn even_brings_any_shares_to_a_hundred() {
    let (_, f) = pressed(&[
        &[("act", "add:flours"), ("new_flours", "7")],
        &[("act", "add:flours"), ("new_flours", "8")],
        &[
            ("flours[0].share_percent", "30"),
            ("flours[1].share_percent", "10"),
            ("act", "even:flours"),
        ],
    ]);
    assert_eq!(f.flours[0].share_percent, 75.0);
    assert_eq!(f.flours[1].share_percent, 25.0);
}

#[test]
fn every_mode_keeps_the_dough_also_with_solved_doses() {
    let before = weighs(&Formula::of_style(craft::style::first()));
    for mode in ["discs", "total", "flour", "balls", "pans"] {
        let act = format!("mode:{mode}");
        let (typed, f) = pressed(&[&[("dose", "0"), ("act", &act)]]);
        assert_eq!(typed.text("mode"), mode);
        assert!((weighs(&f) / before - 1.0).abs() < 1e-6, "{mode}");
    }
    // A form that cannot be read still changes its mode, and keeps the rest as typed.
    let here = here();
    let mut typed = reading::sensible(&Formula::of_style(craft::style::first()), &here);
    typed.set("salt_percent", "abc");
    typed.set("act", "mode:total");
    let larder = larder();
    press(
        &mut typed,
        &Bench {
            here: &here,
            larder: &larder,
        },
    )
    .unwrap();
    assert_eq!(
        (typed.text("mode"), typed.text("salt_percent")),
        ("total", "abc")
    );
    assert!(!typed.text("pieces.dough_g").is_empty());
}

#[test]
fn pans_goods_and_loose_balls_come_from_the_pantry() {
    let (_, f) = pressed(&[
        &[("act", "mode:pans")],
        &[("act", "add:pans"), ("new_pans", "3")],
        &[("act", "add:balls")],
        &[("act", "drop:pans:0")],
        &[("act", "add:toppings"), ("new_toppings", "4")],
    ]);
    let Pieces::Pans { pans, balls } = &f.pieces else {
        panic!("{:?}", f.pieces)
    };
    assert_eq!(
        (pans.len(), pans[0].count, pans[0].pan),
        (1, 2, PanShape::Round { diameter_cm: 26.0 })
    );
    assert!(balls.is_some());
    let last = f.toppings.last().unwrap();
    assert_eq!(
        (last.name.as_str(), last.allergens.as_str()),
        ("Fennel sausage", "mustard")
    );
}

#[test]
fn a_fit_and_a_swap_change_the_formula_and_a_remedy_one_field() {
    let (_, f) = pressed(&[&[
        ("oven_kind", "home_with_steel"),
        ("oven_top_c", "260"),
        ("act", "fit"),
    ]]);
    assert!(f.double_bake && f.sugar_percent > 0.0 && f.oil_percent > 0.0);
    let (_, f) = pressed(&[&[("swap.of", "w"), ("swap.to", "290"), ("act", "swap:0")]]);
    let w = blend(&f.flours).w;
    assert!((w - 290.0).abs() < 1e-9 && f.flours.len() == 2, "{w}");
    let (_, f) = pressed(&[&[("set", "salt_percent=3.2;oil_percent=0.5")]]);
    assert_eq!((f.salt_percent, f.oil_percent), (3.2, 0.5));
    // A remedy for a field that the form does not have changes nothing.
    let (_, f) = pressed(&[&[("set", "nothing=9;name=9;style=9")]]);
    assert_eq!(f, Formula::of_style(craft::style::first()));
}

#[test]
fn a_typed_weight_becomes_a_percentage_and_nonsense_a_sentence() {
    let (typed, f) = pressed(&[&[("dose", "0"), ("g:water", "600"), ("g0:water", "580")]]);
    let r = formulate(&FormulaRequest {
        formula: f,
        scales: Default::default(),
        doses: None,
    })
    .unwrap();
    assert!((r.exact_g(Ingredient::Water) - 600.0).abs() < 1e-6);
    assert!(!typed.has("g:water"), "the next figures say it anew");
    let (here, larder) = (here(), larder());
    for (value, part) in [
        ("heavy", "must be a number"),
        ("-5", "from 0 up"),
        ("99999", "The whole dough weighs"),
    ] {
        let mut typed = reading::sensible(&Formula::of_style(craft::style::first()), &here);
        typed.set("g:water", value);
        typed.set("g0:water", "580");
        let e = press(
            &mut typed,
            &Bench {
                here: &here,
                larder: &larder,
            },
        )
        .unwrap_err();
        assert_eq!(e[0].field, "g:water");
        let said = here.say(&e[0].message);
        assert!(said.contains(part), "{said}");
        assert_eq!(typed.text("g:water"), value, "what was typed stays");
    }
}
