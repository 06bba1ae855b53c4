use super::*;
use crate::formula::{Dose, Formula, FormulaRequest, Ingredient, Scales, formulate};
use crate::style::{self, topping::amounts};

fn flour() -> Flour {
    Flour {
        name: "Quernside No. 4".into(),
        facts: FlourFacts::of_w(280.0),
        milling: "roller".into(),
        moisture_percent: Some(14.0),
        allergens: "gluten".into(),
        price_per_kg: Some(1.40),
        bags: vec![],
        pressed: vec![],
        generic: false,
    }
}

#[test]
fn what_is_needed_less_what_there_is() {
    let mut f = Formula::of_style(style::first());
    f.flours = vec![flour().part(7, 100.0)];
    let r = formulate(&FormulaRequest {
        formula: f.clone(),
        scales: Scales::default(),
        doses: None,
    })
    .unwrap();
    let on = amounts(&f.toppings, &r.portions, f.style.bake.out_s);
    let n = needs(&f, &r, &on);
    assert!(n.iter().all(|n| n.name != "Water"));
    let flour_g = n[0].grams;
    let price = |name: &str, pantry, per_kg| Price {
        name: name.into(),
        pantry,
        per_kg,
    };
    let c = cost(
        &n,
        &[
            price("renamed since", Some(7), 1.40),
            price("salt", None, 0.60),
        ],
        r.pieces,
    );
    // Found by its number although it was renamed; salt by its name.
    assert!((c.lines[0].cost - flour_g / 1000.0 * 1.40).abs() < 1e-9);
    assert_eq!(c.lines.len(), 2);
    assert!((c.per_ball * 6.0 - c.dough).abs() < 1e-9);
    assert!(c.without_price.iter().any(|n| n.brief() == "Tomato sauce"));
    let have = |n: &Need| match n.pantry {
        Some(7) => flour_g - 200.0,
        _ => 0.0,
    };
    let list = shopping(&n, have);
    assert!((list[0].buy_g - 200.0).abs() < 1e-9);
    assert!(list.iter().all(|l| l.buy_g >= 0.0 && l.buy_g <= l.need_g));
}

#[test]
fn a_levain_that_is_kept_back_needs_its_flour_too() {
    let f = Formula::of_style(style::by_key("levain_round").unwrap());
    let r = formulate(&FormulaRequest {
        formula: f.clone(),
        scales: Scales::default(),
        doses: None,
    })
    .unwrap();
    let n = needs(&f, &r, &[]);
    // 20 g are kept back at 100 % water: 10 g of flour.
    let total: f64 = r.rows[0].weigh_g;
    assert!(
        (n[0].grams - total - 10.0).abs() < 0.05,
        "{} {total}",
        n[0].grams
    );
}

#[test]
fn what_is_needed_is_what_the_scales_weigh_and_all_that_is_stirred_into_a_dilution() {
    let mut f = Formula::of_style(style::by_key("home_round").unwrap());
    f.yeast.dose = Dose::Given { percent: 0.3 };
    let r = formulate(&FormulaRequest {
        formula: f.clone(),
        scales: Scales {
            fine_scale_g: None,
            ..Scales::default()
        },
        doses: None,
    })
    .unwrap();
    let n = needs(&f, &r, &[]);
    let of = |name: &str| n.iter().find(|n| n.name.contains(name)).unwrap().grams;
    for (name, ingredient) in [("Flour", Ingredient::Flour), ("Salt", Ingredient::Salt)] {
        assert_eq!(of(name), r.weigh_g(ingredient), "{name}");
        assert_ne!(of(name), r.exact_g(ingredient), "{name}: a poor example");
    }
    let stirred = r.columns[0]
        .dilution
        .expect("too little for a scale of 1 g");
    assert_eq!(of("yeast"), stirred.yeast_g);
    assert!(stirred.yeast_g > r.exact_g(Ingredient::Yeast));
}

#[test]
fn pans_boxes_and_scales() {
    let pan = Pan {
        name: "Blue steel".into(),
        pan: PanShape::Rectangle {
            length_cm: 40.0,
            width_cm: 30.0,
        },
        height_cm: 3.0,
        count: 3,
        material: crate::fire::Material::CarbonSteel,
        thick_mm: 1.0,
        oiled: true,
    };
    assert!((pan.litres() - 3.6).abs() < 1e-9);
    let tray = DoughBox {
        name: "Box".into(),
        pan: PanShape::Rectangle {
            length_cm: 60.0,
            width_cm: 40.0,
        },
        height_cm: 7.0,
        count: 6,
    };
    assert_eq!(tray.balls(), 6);
    let scale = |name: &str, reads_g, carries_g| Scale {
        name: name.into(),
        reads_g,
        carries_g,
    };
    let s = scales_of(
        &[scale("Kitchen", 1.0, 5000.0), scale("Pocket", 0.01, 200.0)],
        Scales::default(),
    );
    assert_eq!((s.kitchen_scale_g, s.fine_scale_g), (1.0, Some(0.01)));
    assert_eq!(scales_of(&[], Scales::default()), Scales::default());
}

#[test]
fn the_bag_that_keeps_least_is_used_first() {
    let mut f = flour();
    let bag = |day: &str, left_g| Bag {
        bought_on: None,
        best_before: day.parse().ok(),
        left_g,
    };
    f.bags = vec![
        bag("2027-05-01", 5000.0),
        bag("2026-12-01", 900.0),
        bag("2026-11-01", 0.0),
    ];
    assert_eq!(f.left_g(), 5900.0);
    assert_eq!(f.next_bag().unwrap().left_g, 900.0);
    f.check().unwrap();
}

#[test]
fn nonsense_is_refused_by_field() {
    let fields = |r: Result<(), ValidationError>| -> Vec<String> {
        r.unwrap_err().0.into_iter().map(|e| e.field).collect()
    };
    let bad = Flour {
        name: " ".into(),
        price_per_kg: Some(-1.0),
        ..flour()
    };
    assert_eq!(fields(bad.check()), ["name", "price_per_kg"]);
    let pan = Pan {
        name: "Nothing".into(),
        pan: PanShape::Round { diameter_cm: 0.0 },
        height_cm: 3.0,
        count: 0,
        material: crate::fire::Material::CarbonSteel,
        thick_mm: 1.0,
        oiled: true,
    };
    assert_eq!(fields(pan.check()), ["diameter_cm", "count"]);
    let jar = Leaven {
        name: "Jar".into(),
        form: LeavenForm::Starter,
        hydration_percent: None,
        opened_on: None,
        vigour: 3.0,
        left_g: 0.0,
        price_per_kg: None,
    };
    assert_eq!(fields(jar.check()), ["vigour", "hydration_percent"]);
}

#[test]
fn balls_are_counted_into_the_largest_box() {
    let boxes = [DoughBox {
        name: "Grey box".into(),
        pan: crate::formula::PanShape::Rectangle {
            length_cm: 60.0,
            width_cm: 40.0,
        },
        height_cm: 7.0,
        count: 2,
    }];
    let each = boxes[0].balls();
    let fits = super::boxes_for(2 * each, super::USUAL_BALL, &boxes).unwrap();
    assert_eq!(fits.level, crate::note::Level::Holds);
    let too_many = super::boxes_for(2 * each + 1, super::USUAL_BALL, &boxes).unwrap();
    assert_eq!(too_many.level, crate::note::Level::Watch);
    assert!(
        too_many
            .what
            .brief()
            .contains("have=2, name=Grey box, need=3")
    );
    assert!(super::boxes_for(6, super::USUAL_BALL, &[]).is_none());
}
