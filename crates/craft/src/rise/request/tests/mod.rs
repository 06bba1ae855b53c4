use super::*;

/// The dough of the printed unit-test values: 62 % water, 2 % salt, W 300, 24 °C, sea level.
pub(crate) fn plain_dough() -> RiseRequest {
    RiseRequest {
        kind: DoughKind::Dough,
        hydration_percent: 62.0,
        salt_percent: 2.0,
        sugar_percent: 0.0,
        oil_percent: 0.0,
        whole_grain_percent: 0.0,
        flour_w: 300.0,
        yeast_percent: 0.1,
        yeast_form: YeastForm::Instant,
        yeast_vigour: 1.0,
        leaven_fraction: 0.0,
        leaven_vigour: 1.0,
        preferments: vec![],
        dough_c: 24.0,
        altitude_m: 0.0,
        target_volume: None,
        start_clock_h: 8.0,
        stages: vec![bulk(2.0, 22.0), ball(8.0, 22.0)],
        departs: Default::default(),
    }
}
pub(crate) fn bulk(hours: f64, place_c: f64) -> Stage {
    Stage {
        hours,
        piece_g: 1600.0,
        shape: DoughShape::Bulk,
        thickness_mm: None,
        container: Container::Tub,
        air: Air::Room,
        place_c: Some(place_c),
        place_profile_c: None,
        place_off_k: None,
        starts_at_c: None,
        event: Event::None,
    }
}
pub(crate) fn ball(hours: f64, place_c: f64) -> Stage {
    Stage {
        piece_g: 250.0,
        shape: DoughShape::Ball,
        container: Container::Box,
        event: Event::Ball,
        ..bulk(hours, place_c)
    }
}

fn refused(r: &RiseRequest) -> Vec<String> {
    r.check(true)
        .unwrap_err()
        .0
        .into_iter()
        .map(|e| e.field)
        .collect()
}

#[test]
fn each_input_outside_its_range_is_named() {
    let d = plain_dough();
    assert!(d.check(true).is_ok());
    assert_eq!(
        refused(&RiseRequest {
            hydration_percent: 340.0,
            ..d.clone()
        }),
        ["hydration_percent"]
    );
    assert_eq!(
        refused(&RiseRequest {
            salt_percent: -1.0,
            flour_w: 10.0,
            ..d.clone()
        }),
        ["salt_percent", "flour_w"]
    );
    assert_eq!(
        refused(&RiseRequest {
            dough_c: f64::NAN,
            ..d.clone()
        }),
        ["dough_c"]
    );
    assert_eq!(
        refused(&RiseRequest {
            yeast_percent: 0.0,
            ..d.clone()
        }),
        ["yeast_percent"]
    );
    assert_eq!(
        refused(&RiseRequest {
            stages: vec![],
            ..d.clone()
        }),
        ["stages"]
    );
    let mut s = bulk(1.0, -9.0);
    s.shape = DoughShape::Slab;
    assert_eq!(
        refused(&RiseRequest {
            stages: vec![s],
            ..d.clone()
        }),
        ["stages[0].thickness_mm", "stages[0].place_c"]
    );
    let mut s = bulk(1.0, 20.0);
    s.place_profile_c = Some(vec![20.0; 23]);
    assert_eq!(
        refused(&RiseRequest {
            stages: vec![s],
            ..d.clone()
        }),
        ["stages[0].place_profile_c"]
    );
}

#[test]
fn preferments_are_checked_one_level_deep() {
    let d = plain_dough();
    let p = |f, recipe: RiseRequest| RisePreferment {
        flour_fraction: f,
        recipe,
    };
    let nested = RiseRequest {
        preferments: vec![p(0.3, d.clone())],
        ..d.clone()
    };
    assert!(nested.check(true).is_ok());
    assert_eq!(
        refused(&RiseRequest {
            preferments: vec![p(0.3, nested)],
            ..d.clone()
        }),
        ["preferments[0].recipe.preferments"]
    );
    assert_eq!(
        refused(&RiseRequest {
            preferments: vec![p(0.7, d.clone()), p(0.7, d.clone())],
            ..d
        }),
        ["preferments"]
    );
}

#[test]
fn a_zero_hour_stage_hands_its_event_on() {
    let mut d = plain_dough();
    d.stages = vec![bulk(1.0, 20.0), ball(0.0, 20.0), bulk(3.0, 4.0)];
    let lasting = d.lasting_stages();
    assert_eq!(lasting.len(), 2);
    assert_eq!(lasting[1].event, Event::Ball);
}

#[test]
fn an_hourly_profile_is_read_between_the_hours_and_over_midnight() {
    let mut s = bulk(1.0, 20.0);
    s.place_profile_c = Some((0..24).map(f64::from).collect());
    assert_eq!(s.place_at(7.25), 7.25);
    assert_eq!(s.place_at(47.5), 11.5);
}
