//! A dough with preferments: doses, hours, water, and what is refused.

use super::*;

#[test]
fn a_poolish_is_mixed_before_and_a_second_dose_is_solved() {
    let r = friday(style("poolish_round"));
    let out = work_out(&r).unwrap();
    let p = &out.preferments[0];
    assert!(
        (p.ripe - 100.0).abs() < 1.0,
        "solved to be ripe: {}",
        p.ripe
    );
    assert_eq!(p.to_at, r.mix_at());
    assert_eq!(p.from_at, r.start_at());
    assert_eq!(out.steps[0].kind, StepKind::Preferment);
    assert_eq!(out.steps[0].at, p.from_at);
    assert_eq!(out.blocks[0].kind, BlockKind::Preferment);
    let yeast = out.formula.row(Ingredient::Yeast).unwrap();
    assert!(yeast.cells[0].is_some());
    // Its own dose on its own flour, weighed as a share of all flour.
    let own =
        out.formula.exact_in(Ingredient::Yeast, 0) / out.formula.exact_in(Ingredient::Flour, 0);
    assert!((100.0 * own - p.yeast_percent).abs() < 1e-9);
    assert!(out.fits(r.serve_at));
    // Without its poolish the dough wants more yeast.
    let plain = r.clone().with(|r| r.formula.preferments.clear());
    assert!(work_out(&plain).unwrap().yeast.percent > out.yeast.percent);
}

#[test]
fn a_levain_alone_raises_and_a_young_one_is_said_with_its_hours() {
    let r = friday(style("levain_round"));
    let out = work_out(&r).unwrap();
    assert_eq!(out.yeast.percent, 0.0);
    assert!(out.formula.row(Ingredient::Yeast).is_none());
    assert!(out.steps[0].title.brief() == "step-feed(name=levain)");
    let young = r.clone().with(|r| r.formula.preferments[0].warm_h = 1.5);
    let note = work_out(&young)
        .unwrap()
        .notes
        .into_iter()
        .find(|n| n.code == "preferment_ripeness")
        .expect("a young levain is said");
    let better = note.remedy.expect("with hours that do");
    let ripe = young.with(|r| r.formula.preferments[0].warm_h = better.value);
    assert!(
        work_out(&ripe)
            .unwrap()
            .notes
            .iter()
            .all(|n| n.code != "preferment_ripeness")
    );
}

#[test]
fn a_preferment_that_cannot_ripen_is_refused_at_its_hours() {
    let r = friday(style("poolish_round")).with(|r| {
        r.formula.preferments[0].warm_h = 0.5;
        r.formula.preferments[0].warm_c = Some(4.0);
    });
    let (field, message) = refusal(&r);
    assert_eq!(field, "formula.preferments[0].warm_h");
    assert!(
        message.starts_with("no-yeast-ripens(name=poolish"),
        "{message}"
    );
}

#[test]
fn a_biga_of_all_the_flour_leaves_its_water_to_pour_and_three_preferments_go_together() {
    let r = friday(style("big_rim")).with(|r| {
        r.formula.preferments = [
            (PrefermentKind::Biga, 40.0),
            (PrefermentKind::Poolish, 20.0),
            (PrefermentKind::Levain, 10.0),
        ]
        .map(|(k, share)| Preferment {
            flour_percent: share,
            ..Preferment::usual(k)
        })
        .to_vec();
    });
    let out = work_out(&r).unwrap();
    assert_eq!(out.formula.columns.len(), 4);
    assert_eq!(
        out.steps
            .iter()
            .filter(|s| s.kind == StepKind::Preferment)
            .count(),
        3
    );
    let whole = r.with(|r| {
        r.formula.preferments = vec![Preferment {
            flour_percent: 100.0,
            hydration_percent: 60.0,
            ..Preferment::usual(PrefermentKind::Biga)
        }];
    });
    let out = work_out(&whole).unwrap();
    assert_eq!(out.formula.exact_in(Ingredient::Flour, 1), 0.0);
    assert!(out.formula.exact_in(Ingredient::Water, 1) > 0.0);
}

#[test]
fn what_a_preferment_is_poured_is_its_water_in_the_table() {
    use crate::formula::Ingredient;
    for (style, count) in [("poolish_round", 40), ("big_rim", 6), ("poolish_round", 4)] {
        let mut r = friday(style::by_key(style).unwrap());
        r.formula = r.formula.scaled_to(count).unwrap();
        let s = work_out(&r).unwrap();
        for (i, p) in s.preferments.iter().enumerate() {
            let w = p.water.as_ref().unwrap();
            let aside = s.formula.columns[i]
                .dilution
                .map_or(0.0, |d| d.less_water_g);
            let of_table = s.formula.weigh_in(Ingredient::Water, i);
            let poured = w.pour_g + w.ice_g + aside;
            assert!(
                (poured - of_table).abs() <= 0.5,
                "{style} {count}: {poured} for {of_table}"
            );
        }
    }
}

#[test]
fn a_preferment_that_is_past_says_of_what() {
    let why = |c: f64| {
        let mut r = friday(style::by_key("poolish_round").unwrap());
        (r.room_c, r.flour_c) = (c, c);
        let s = work_out(&r).unwrap();
        let note = s
            .notes
            .iter()
            .find(|n| n.code == "preferment_ripeness")
            .cloned();
        note.map(|n| (n.what, n.why))
    };
    assert_eq!(why(20.0), None);
    let (what, why) = why(31.0).unwrap();
    assert_eq!(what.code, "preferment-past");
    // At 100 of 100 its clock is no reason.
    assert_eq!(why.brief(), "preferment-gluten-spent(time=43200s)");
}
