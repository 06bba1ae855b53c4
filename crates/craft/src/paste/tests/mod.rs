use super::*;
use crate::formula::{Dose, FormulaRequest, FormulaResult, Ingredient, formulate};
use crate::leaven::YeastForm;
use crate::style;
use proptest::prelude::*;
use serde::Deserialize;

/// A recipe of our own invention with what must be read from it: grams in all, percentages of all flour.
#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Case {
    name: String,
    text: String,
    flour: Option<f64>,
    water: Option<f64>,
    salt: Option<f64>,
    oil: Option<f64>,
    sugar: Option<f64>,
    yeast: Option<f64>,
    form: Option<YeastForm>,
    hydration: f64,
    salt_percent: Option<f64>,
    oil_percent: Option<f64>,
    #[serde(default)]
    preferments: usize,
    flours: Option<usize>,
    w: Option<f64>,
    count: Option<u32>,
    #[serde(default)]
    unread: usize,
    #[serde(default)]
    rough: bool,
    #[serde(default)]
    percent: bool,
}

fn pasted(text: &str) -> Result<Pasted, ValidationError> {
    read(&PasteRequest {
        text: text.into(),
        style: style::first().clone(),
    })
}

fn weighed(p: &Pasted) -> FormulaResult {
    formulate(&FormulaRequest {
        formula: p.formula.clone(),
        scales: Default::default(),
        doses: None,
    })
    .unwrap()
}

fn near(case: &Case, what: &str, got: f64, want: f64) {
    assert!(
        (got - want).abs() <= 1e-4 * want.max(1.0),
        "{}: {what} {got} against {want}",
        case.name
    );
}

#[test]
fn every_golden_recipe_is_read_as_it_was_meant() {
    let cases: Vec<Case> =
        serde_json::from_str(include_str!("../../../tests/reference/pasted-recipes.json")).unwrap();
    assert!(cases.len() >= 30);
    for c in &cases {
        let p = pasted(&c.text).unwrap_or_else(|e| panic!("{}: {e}", c.name));
        let r = weighed(&p);
        near(c, "hydration", r.true_hydration_percent, c.hydration);
        let grams = [
            ("flour", c.flour, r.exact_g(Ingredient::Flour)),
            ("salt", c.salt, r.exact_g(Ingredient::Salt)),
            ("oil", c.oil, r.exact_g(Ingredient::Oil)),
            ("sugar", c.sugar, r.exact_g(Ingredient::Sugar)),
            (
                "water",
                c.water,
                r.true_hydration_percent / 100.0 * r.exact_g(Ingredient::Flour),
            ),
            ("salt %", c.salt_percent, p.formula.salt_percent),
            ("oil %", c.oil_percent, p.formula.oil_percent),
        ];
        for (what, want, got) in grams {
            if let Some(want) = want {
                near(c, what, got, want);
            }
        }
        if let Some(want) = c.yeast {
            near(c, "yeast", r.exact_in(Ingredient::Yeast, r.last()), want);
            assert_eq!(Some(p.formula.yeast.form), c.form, "{}", c.name);
        }
        assert_eq!(p.formula.preferments.len(), c.preferments, "{}", c.name);
        let unread = p
            .lines
            .iter()
            .filter(|l| l.status == Status::Unread)
            .count();
        assert_eq!(unread, c.unread, "{}: {:#?}", c.name, p.lines);
        assert_eq!(p.formula.from_volumes, c.rough, "{}", c.name);
        assert_eq!(
            p.lines.iter().flat_map(|l| &l.items).any(|i| i.is_percent),
            c.percent,
            "{}",
            c.name
        );
        if let Some(n) = c.flours {
            assert_eq!(p.formula.flours.len(), n, "{}", c.name);
        }
        if let Some(w) = c.w {
            assert_eq!(p.formula.flours[0].facts.w, Some(w), "{}", c.name);
        }
        if let Some(n) = c.count {
            assert_eq!(p.formula.pieces.count(), n, "{}", c.name);
        }
    }
}

#[test]
fn every_line_is_there_with_what_became_of_it() {
    let p = pasted("Friday dough\n\n500 g flour\n1 1/2 cups water\nKnead well and rest\n20 g stardust\n12 g salt").unwrap();
    let of: Vec<Status> = p.lines.iter().map(|l| l.status).collect();
    use Status::*;
    assert_eq!(of, [Heading, Blank, Read, Rough, Method, Unread, Read]);
    assert_eq!(p.lines[3].items[0].how, "1.5 cups × 240 ml × 1 g/ml");
    assert!(p.doubts.iter().any(|d| d.code == "paste-not-understood"));
    assert!(p.doubts.iter().any(|d| d.code == "paste-no-yeast"));
    assert_eq!(p.formula.yeast.dose, Dose::Solve);
}

#[test]
fn what_has_no_weight_is_said_and_hours_in_the_fridge_are_taken() {
    let p = pasted(
        "Mix 500 g flour, 325 g water, 10 g salt, 1 egg, 1 g yeast and a drizzle of oil. Rest 2 hours, then 48 hours in the fridge. Makes 4 pizzas.",
    )
    .unwrap();
    let unread: Vec<&str> = p
        .lines
        .iter()
        .flat_map(|l| l.unread.iter().map(String::as_str))
        .collect();
    assert_eq!(unread, ["1 egg", "a drizzle of oil"]);
    assert_eq!(p.formula.cold_h, 48.0);
    assert!(
        p.doubts
            .iter()
            .any(|d| d.brief() == "paste-unweighed(things=1 egg; a drizzle of oil)")
            && p.doubts
                .iter()
                .any(|d| d.number("time") == Some(48.0 * 3600.0)),
        "{:?}",
        p.doubts
    );
    let lines = "500 g flour\n325 g water\n10 g salt\n2 g yeast\n";
    for (said, h) in [
        ("fridge 2 days", 48.0),
        ("Overnight in the fridge.", 12.0),
        ("Let rise 1 1/2 hours, then refrigerate 24 hours.", 24.0),
        ("2 ore a temperatura ambiente; in frigo per 24-48 ore", 36.0),
        (
            "Bulk 3 hours at room temperature",
            crate::style::first().cold_h,
        ),
    ] {
        let p = pasted(&format!("{lines}{said}")).unwrap();
        assert_eq!(p.formula.cold_h, h, "{said}");
    }
}

#[test]
fn the_name_of_a_recipe_is_no_heading_of_its_preferment() {
    for title in [
        "Starter pizza",
        "Levain pizza dough",
        "Ricetta pizza con poolish:",
    ] {
        let p = pasted(&format!(
            "{title}\n500 g flour\n330 g water\n200 g ripe starter\n12 g salt\nRise 4 hours."
        ))
        .unwrap();
        let l = &p.formula.preferments[..];
        assert_eq!(l.len(), 1, "{title}");
        assert!(
            (l[0].flour_percent - 100.0 / 6.0).abs() < 1e-9 && l[0].hydration_percent == 100.0,
            "{title}: {l:?}"
        );
        assert!(p.doubts.iter().any(|d| d.code == "paste-hours"));
    }
    let sauce =
        pasted("500 g flour\n325 g water\n10 g salt\n\nPizza sauce\n400 g tomatoes\n5 g salt")
            .unwrap();
    assert_eq!(
        sauce.formula.salt_percent, 2.0,
        "the sauce's salt is no salt of the dough"
    );
    let part = pasted("Poolish for 4 pizzas\n100 g flour\n100 g water\n1 g yeast\n\nDough\n400 g flour\n225 g water\n12 g salt").unwrap();
    assert_eq!(part.formula.preferments[0].flour_percent, 20.0);
}

#[test]
fn a_bare_number_behind_makes_is_how_many_it_makes() {
    for (line, count) in [
        ("Makes 2", Some(2)),
        ("makes: 4", Some(4)),
        ("Yields 6.", Some(6)),
        ("Makes 3 pizzas", Some(3)),
        // How long or how much it makes is no number of pieces.
        ("Makes 2 cups", None),
        ("Makes 900 g", None),
    ] {
        let p = pasted(&format!("500 g flour\n325 g water\n10 g salt\n{line}")).unwrap();
        assert_eq!(p.makes.count, count, "{line}");
    }
}

#[test]
fn a_levain_keeps_its_feeding_and_a_biga_its_own_flour() {
    let p = pasted("Levain\n20 g starter\n40 g flour\n40 g water\n\nDough\n450 g flour\n290 g water\n11 g salt").unwrap();
    let l = &p.formula.preferments[0];
    assert!((l.flour_percent - 10.0).abs() < 1e-9 && (l.hydration_percent - 100.0).abs() < 1e-9);
    assert_eq!(l.feed.unwrap().flour_parts, 2.0);
    let p = pasted("Biga\n500 g farina W320\n225 g acqua\n5 g lievito fresco\n\nImpasto\n500 g farina W280\n475 g acqua\n25 g sale").unwrap();
    let b = &p.formula.preferments[0];
    assert_eq!((b.flour_percent, b.hydration_percent), (50.0, 45.0));
    assert_eq!(b.yeast.dose, Dose::Given { percent: 1.0 });
    let of = |w: f64| {
        p.formula
            .flours
            .iter()
            .position(|f| f.facts.w == Some(w))
            .unwrap()
    };
    assert_eq!(b.flours[of(320.0)], 100.0);
    assert_eq!(b.flours[of(280.0)], 0.0);
}

#[test]
fn what_is_no_recipe_is_refused_with_a_sentence() {
    for (text, part) in [
        ("", "paste-empty"),
        ("   \n\n", "paste-empty"),
        ("Dear friend, how are you?", "paste-no-flour"),
        ("500 g flour\n10 g salt", "paste-no-water"),
        ("500 g flour\n5000 g water", "makes-no-dough"),
    ] {
        let e = pasted(text).unwrap_err().0.remove(0);
        assert_eq!(e.field, "text");
        assert_eq!(e.message.code, part, "{text}");
    }
    assert!(
        pasted(&"flour ".repeat(4000))
            .unwrap_err()
            .to_string()
            .contains("most=20000")
    );
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(400))]
    #[test]
    fn arbitrary_text_never_panics(text in "\\PC{0,300}") {
        let _ = pasted(&text);
    }

    #[test]
    fn text_made_of_recipe_words_never_panics(
        words in prop::collection::vec(prop::sample::select(vec![
            "500", "1/2", "½", "g", "kg", "cups", "%", "flour", "water", "farina", "00", "sale", "W280", ":", ",", ".", "\n", "-", "(", ")",
            "poolish", "biga", "starter", "1.000", "0,5", "a pinch of", "°C", "🍕", "<script>", "e", "and", "99999999999999", "tsp", "q.b.", "dough",
        ]), 0..60),
    ) {
        for joint in ["", " "] {
            let text = words.join(joint);
            if let Ok(p) = pasted(&text) {
                prop_assert!(p.formula.check().is_ok());
                prop_assert_eq!(p.lines.len(), text.lines().count());
            }
        }
    }

    #[test]
    fn grams_that_are_written_are_grams_that_are_read(flour in 100u32..2000, water in 50u32..130, salt in 1u32..4, italian: bool) {
        let (w, s) = (flour * water / 100, flour * salt / 100);
        prop_assume!(s > 0 && w * 100 >= flour * 41);
        let (a, b, c) = if italian { ("farina", "acqua", "sale") } else { ("flour", "water", "salt") };
        let p = pasted(&format!("{flour} g {a}\n{w} g {b}\n{s} g {c}")).unwrap();
        let r = weighed(&p);
        prop_assert!((r.exact_g(Ingredient::Flour) - f64::from(flour)).abs() < 1e-6);
        prop_assert!((r.exact_g(Ingredient::Water) - f64::from(w)).abs() < 1e-6);
        prop_assert!((r.exact_g(Ingredient::Salt) - f64::from(s)).abs() < 1e-6);
    }
}

/// All amounts of a text as (value, unit word, range).
fn read_amounts(text: &str) -> Vec<(f64, String, bool)> {
    amount::amounts(text)
        .into_iter()
        .map(|a| (a.value, a.unit_word, a.is_range))
        .collect()
}

#[test]
fn amounts_as_people_write_them() {
    for (text, value, unit, range) in [
        ("500 g", 500.0, "g", false),
        ("500g", 500.0, "g", false),
        ("1 1/2 cups", 1.5, "cups", false),
        ("1½ cups", 1.5, "cups", false),
        ("¾ tsp", 0.75, "tsp", false),
        ("3/4 cup", 0.75, "cup", false),
        ("0,5 g", 0.5, "g", false),
        ("0.125 g", 0.125, "g", false),
        ("1.000 g", 1000.0, "g", false),
        ("1,250 g", 1250.0, "g", false),
        ("1,5 kg", 1.5, "kg", false),
        ("2-3 g", 2.5, "g", true),
        ("2 – 3 g", 2.5, "g", true),
        ("10 g to 12 g", 11.0, "g", true),
        ("2 a 4 cucchiai", 3.0, "cucchiai", true),
        ("a pinch", 1.0, "pinch", false),
        ("mezzo cucchiaino", 0.5, "cucchiaino", false),
        ("half a teaspoon", 0.5, "teaspoon", false),
        ("12 fl oz", 12.0, "fl oz", false),
        ("65%", 65.0, "%", false),
        ("65 %", 65.0, "%", false),
        ("280 °c", 280.0, "° c", false),
    ] {
        let found = read_amounts(text);
        assert_eq!(found.len(), 1, "{text}: {found:?}");
        assert!((found[0].0 - value).abs() < 1e-9, "{text}: {found:?}");
        assert_eq!(found[0].1.replace(' ', ""), unit.replace(' ', ""), "{text}");
        assert_eq!(found[0].2, range, "{text}");
    }
    for none in ["a flour", "flour", "w280", "tipo", "an oven", "x2y"] {
        assert!(
            read_amounts(none).is_empty(),
            "{none}: {:?}",
            read_amounts(none)
        );
    }
    assert_eq!(read_amounts("500 g and 2 tbsp").len(), 2);
}

#[test]
fn words_name_the_longest_thing_that_fits() {
    use crate::flour::FlourKind;
    for (text, what) in [
        ("olive oil", PastedKind::Oil),
        ("olives", PastedKind::Topping),
        ("milk powder", PastedKind::MilkPowder),
        ("milk", PastedKind::Milk),
        (
            "lievito madre",
            PastedKind::Starter {
                hydration_percent: 50,
            },
        ),
        ("lievito madre secco", PastedKind::DriedMother),
        (
            "lievito di birra secco",
            PastedKind::Yeast {
                form: YeastForm::ActiveDry,
            },
        ),
        (
            "lievito",
            PastedKind::Yeast {
                form: YeastForm::Fresh,
            },
        ),
        (
            "instant yeast",
            PastedKind::Yeast {
                form: YeastForm::Instant,
            },
        ),
        (
            "flour, wholemeal",
            PastedKind::Flour {
                kind: FlourKind::Wholemeal,
            },
        ),
        (
            "farina di grano tenero tipo 00",
            PastedKind::Flour {
                kind: FlourKind::SoftFine,
            },
        ),
        ("non-diastatic malt", PastedKind::PlainMalt),
        ("sale", PastedKind::Salt),
    ] {
        assert_eq!(words::named(text).map(|f| f.what), Some(what), "{text}");
    }
    // A word inside another names nothing.
    for none in ["salesman", "watering", "boiled", "seedsman"] {
        assert!(words::named(none).is_none(), "{none}");
    }
}
