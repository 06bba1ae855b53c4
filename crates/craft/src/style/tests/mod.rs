use super::oven_fit::{StatedOven, StatedOvenKind, fit};
use super::*;
use crate::formula::ExtraKind;
use crate::formula::{Formula, FormulaRequest, Scales, formulate};
use topping::{Cook, allergens, amounts, notes};

fn made(key: &str) -> (Formula, crate::formula::FormulaResult) {
    let formula = Formula::of_style(by_key(key).unwrap());
    let r = formulate(&FormulaRequest {
        formula: formula.clone(),
        scales: Scales::default(),
        doses: None,
    })
    .unwrap();
    (formula, r)
}

#[test]
fn there_are_a_dozen_styles_and_each_starts_inside_its_own_usual_ranges() {
    assert!(all().len() >= 12);
    for s in all() {
        let (f, r) = made(&s.key);
        let u = &s.usual;
        for (what, v, range) in [
            ("water", s.hydration_percent, u.hydration),
            ("salt", s.salt_percent, u.salt),
            ("oil", s.oil_percent, u.oil),
            ("sugar", s.sugar_percent, u.sugar),
            ("piece", r.piece_g, u.ball_g),
        ] {
            assert!(range.holds(v), "{} {what} {v}", s.key);
        }
        if !s.in_pans() {
            let disc = (4.0 * r.portions[0].area_cm2 / std::f64::consts::PI).sqrt();
            assert!(u.disc_cm.holds(disc), "{} opens to {disc}", s.key);
        }
        assert!(f.check().is_ok(), "{}", s.key);
        assert!(
            !s.toppings.is_empty() && s.bake.check().is_ok(),
            "{}",
            s.key
        );
        assert_eq!(by_key(&s.key).unwrap(), s);
    }
    assert!(by_key("nothing").is_none());
}

#[test]
fn a_style_is_read_by_its_key_or_in_full() {
    let json = serde_json::to_value(first()).unwrap();
    assert_eq!(&named_or_whole(json).unwrap(), first());
    assert_eq!(
        &named_or_whole(serde_json::json!("hot_round")).unwrap(),
        first()
    );
    let e = named_or_whole(serde_json::json!("nope"))
        .unwrap_err()
        .to_string();
    assert!(e.contains("hot_round"), "{e}");
    assert!(named_or_whole(serde_json::json!({"key": "x"})).is_err());
}

#[test]
fn a_cool_home_oven_gets_sugar_oil_malt_drier_cheese_and_a_double_bake() {
    let lean = Formula::of_style(first());
    let oven = StatedOven {
        kind: StatedOvenKind::HomeWithSteel,
        top_c: 260.0,
    };
    let out = fit(&lean, oven).unwrap();
    assert!(out.formula.sugar_percent >= 1.0 && out.formula.oil_percent >= 2.0);
    assert!(out.formula.double_bake);
    assert!(
        out.formula
            .extras
            .iter()
            .any(|e| e.kind == ExtraKind::ActiveMalt)
    );
    assert!(
        out.formula
            .toppings
            .iter()
            .any(|t| t.name == "Aged mozzarella")
    );
    assert!(out.changes.iter().all(|c| !c.why.is_nothing()));
    // A fitted formula fits: nothing more is proposed, and it is a valid one.
    assert!(fit(&out.formula, oven).unwrap().changes.is_empty());
    out.formula.check().unwrap();
    // Back under the dome all of it goes out again.
    let dome = StatedOven {
        kind: StatedOvenKind::WoodDome,
        top_c: 450.0,
    };
    let back = fit(&out.formula, dome).unwrap().formula;
    assert_eq!(
        (back.sugar_percent, back.oil_percent, back.double_bake),
        (0.0, 0.0, false)
    );
    assert!(fit(&lean, dome).unwrap().changes.is_empty());
    assert!(
        fit(
            &lean,
            StatedOven {
                top_c: 900.0,
                ..dome
            }
        )
        .is_err()
    );
}

#[test]
fn the_rule_sheet_says_what_is_met_and_what_is_not_known() {
    let (f, r) = made("hot_round");
    let points = rule_sheet::points(&f, &r, Some(18.0), 78);
    let of = |what: &str| points.iter().find(|p| p.what.code == what).unwrap().met;
    assert_eq!(of("rule-in-dough"), Some(true));
    assert_eq!(of("rule-ball"), Some(true));
    assert_eq!(of("rule-bake"), Some(true));
    assert_eq!(of("rule-protein"), None, "only W is known");
    let (f, r) = made("home_round");
    let points = rule_sheet::points(&f, &r, Some(30.0), 100);
    let of = |what: &str| points.iter().find(|p| p.what.code == what).unwrap();
    assert_eq!(of("rule-in-dough").met, Some(false));
    assert_eq!(
        of("rule-in-dough").here.brief(),
        "rule-also(others=oil; sugar)"
    );
    assert_eq!(of("rule-water").met, Some(false));
    assert_eq!(of("rule-oven").met, Some(false));
    assert_eq!(
        of("rule-bake").here.brief(),
        "just(value=100s)",
        "of the fire that is kept, not of the style"
    );
    // What lies on this piece, not on a disc of 30 cm: the figure of the toppings' table.
    let on = amounts(&f.toppings, &r.portions, 100);
    let sauce = on.iter().find(|t| t.name.contains("sauce")).unwrap().each_g[0];
    assert_eq!(
        of("rule-sauce").here.brief(),
        format!("just(value={sauce:.0}g)")
    );
    assert_ne!(sauce.round(), f.toppings[0].g_per_disc);
}

#[test]
fn toppings_go_by_area() {
    let (f, r) = made("hot_round");
    // 250 g at 0.34 g/cm² is 735 cm²; a 30 cm disc is 707 cm²: 75 g of sauce become 78.
    let a = amounts(&f.toppings, &r.portions, f.style.bake.out_s);
    let each = 75.0 * (250.0 / 0.34) / disc(30.0);
    assert_eq!(a[0].each_g[0], each.round(), "to the gram");
    // What all take is that many times what one takes: the table adds up.
    assert!(
        a.iter()
            .all(|t| t.total_g == t.each_g[0] * f64::from(r.portions[0].count))
    );
    assert_eq!(allergens(&f.toppings, &["gluten"]), ["gluten", "milk"]);
}

fn disc(cm: f64) -> f64 {
    crate::formula::disc_cm2(cm)
}

#[test]
fn raw_meat_is_cooked_first_in_a_short_bake_only() {
    let sausage = ToppingPart {
        name: "Sausage".into(),
        g_per_disc: 60.0,
        wet: false,
        cook: Cook::Meat,
        allergens: String::new(),
        after_the_bake: false,
    };
    assert_eq!(
        notes(std::slice::from_ref(&sausage), 80)[0].code,
        "cook_first"
    );
    assert!(notes(std::slice::from_ref(&sausage), 900).is_empty());
    let wet = ToppingPart {
        wet: true,
        cook: Cook::No,
        g_per_disc: 220.0,
        ..sausage
    };
    assert_eq!(notes(&[wet], 80)[0].code, "toppings_wet");
}
