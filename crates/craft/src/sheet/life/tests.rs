use super::*;
use crate::path::methods;
use crate::sheet::tests::friday;
use crate::style;
use jiff::tz::TimeZone;

fn life(quiet: &str, busy: &str) -> Life {
    Life {
        quiet: spans(quiet).unwrap(),
        busy: spans(busy).unwrap(),
    }
}

#[test]
fn hours_are_read_as_they_are_written_and_written_as_they_were_read() {
    for text in [
        "22:30-06:30",
        "Mon-Fri 08:00-16:30, Sat 10:00-12:00",
        "Tue Thu 18:00-20:00",
        "Fri-Sun 23:00-07:00",
    ] {
        assert_eq!(words(&spans(text).unwrap()), text);
    }
    assert_eq!(
        words(&spans("mon–wed 8-9.15").unwrap()),
        "Mon-Wed 08:00-09:15"
    );
    for other in [
        "lun-ven 8-16:30",
        "Montag-Freitag 8-16:30",
        "lunedì-venerdì 8-16.30",
        "lun.-vie. 8-16:30",
        "Mo-Fr 8-16:30",
    ] {
        assert_eq!(
            words(&spans(other).unwrap()),
            "Mon-Fri 08:00-16:30",
            "{other}"
        );
    }
    assert_eq!(words(&spans("mié sáb 8-9").unwrap()), "Wed Sat 08:00-09:00");
    assert_eq!(spans(" ").unwrap(), vec![]);
    for bad in [
        "at night",
        "25:00-26:00",
        "08:00",
        "Xyz 08:00-09:00",
        "08:00-08:00",
    ] {
        assert_eq!(spans(bad).unwrap_err().code, "span-not-understood", "{bad}");
    }
}

#[test]
fn quiet_hours_run_past_midnight_and_busy_ones_keep_to_their_days() {
    let zone = TimeZone::get("Europe/London").unwrap();
    let l = life("22:30-06:30", "Mon-Fri 08:00-16:30");
    let away = |t: &str| l.away(t.parse().unwrap(), &zone).map(|(w, _)| w);
    assert_eq!(away("2026-11-27T23:00:00Z"), Some(Why::Quiet));
    assert_eq!(away("2026-11-28T06:00:00Z"), Some(Why::Quiet));
    assert_eq!(away("2026-11-27T10:00:00Z"), Some(Why::Busy));
    assert_eq!(away("2026-11-28T10:00:00Z"), None);
    // In summer the clock is an hour ahead of UTC.
    assert_eq!(away("2026-07-03T21:45:00Z"), Some(Why::Quiet));
}

#[test]
fn a_two_day_plan_keeps_every_hand_out_of_the_hours_away() {
    let zone = TimeZone::get("Europe/London").unwrap();
    let l = life("22:30-06:30", "Mon-Fri 08:30-16:30");
    let mut request = friday(style::first());
    request.formula = methods::by_key("room_then_cold_balls")
        .unwrap()
        .applied(&request.formula);
    let found = fit(&LifeFitRequest {
        request: request.clone(),
        life: l.clone(),
    })
    .unwrap();
    assert_eq!(found.plans.len(), 3);
    for p in &found.plans {
        let mut r = request.clone();
        r.formula.legs = p.legs.clone();
        let out = crate::sheet::work_out(&r).unwrap();
        for s in &out.steps {
            use crate::sheet::StepKind::{Bake, Bulk, LightOven, Rest};
            if !matches!(s.kind, Bake | Bulk | LightOven | Rest) {
                assert_eq!(l.away(s.at, &zone), None, "{:?} at {}", s.title, s.at);
            }
        }
        assert!(p.margin_h > 0.0);
        for (leg, usual) in p.legs.iter().zip(request.formula.path()) {
            assert!(leg.hours >= usual.least_h - 1e-9 && leg.hours <= usual.most_h + 1e-9);
        }
    }
    // The first is the likeliest to be met, as far as chances can be told apart.
    for pair in found.plans.windows(2) {
        assert!(pair[0].chance > pair[1].chance - 0.03, "{pair:?}");
    }
    assert!(
        found
            .plans
            .iter()
            .all(|p| p.chance > 0.2 && p.chance < 0.95)
    );
}

#[test]
fn a_kitchen_that_is_known_well_meets_its_plans_more_surely_and_is_asked_for_each() {
    let request = friday(style::first());
    let q = LifeFitRequest {
        request,
        life: life("22:30-06:30", "Mon-Fri 08:00-16:30"),
    };
    let by_the_book = fit(&q).unwrap();
    let asked = std::cell::RefCell::new(vec![]);
    let known = |r: &crate::sheet::SheetRequest| {
        asked
            .borrow_mut()
            .push(r.formula.path().iter().map(|l| l.hours).sum::<f64>());
        Some(crate::learn::OwnKitchen {
            fridge_k: 0.0,
            room_k: 0.0,
            dough_k: 0.0,
            departs: crate::rise::Departure::BOOK,
            sd: 0.08,
            bakes: 20,
            good_to: None,
        })
    };
    let here = fit_by(&q, &known).unwrap();
    assert!(here.plans[0].chance > by_the_book.plans[0].chance + 0.1);
    let mut hours = asked.into_inner();
    hours.sort_by(f64::total_cmp);
    hours.dedup();
    assert!(hours.len() > 2, "other hours are another dough: {hours:?}");
}

#[test]
fn when_nothing_fits_the_hour_in_the_way_is_named() {
    let mut request = friday(style::first());
    request.formula = methods::by_key("same_day")
        .unwrap()
        .applied(&request.formula);
    let found = fit(&LifeFitRequest {
        request,
        life: life("", "Fri 06:00-18:00"),
    })
    .unwrap();
    assert!(found.plans.is_empty());
    let way = found.in_the_way.unwrap();
    assert_eq!((way.why, way.span.as_str()), (Why::Busy, "Fri 06:00-18:00"));
    assert!(!way.step.is_nothing());
}

/// Eight legs that may be anything, and no time for any of them: the search ends.
#[test]
fn a_wild_path_is_searched_no_longer_than_a_tame_one() {
    use crate::path::{Leg, Lies, Spot};
    use crate::rise::Event;
    let leg = Leg {
        least_h: 0.25,
        most_h: 240.0,
        ..Leg::of(Lies::Bulk, Spot::Room, 4.0, Event::None)
    };
    let mut request = friday(style::first());
    request.formula.legs = vec![leg; 8];
    request.now_at = Some(request.serve_at - crate::sheet::hours(2.0));
    let found = fit(&LifeFitRequest {
        request,
        life: life("22:30-06:30", ""),
    });
    assert!(found.is_ok_and(|f| f.plans.is_empty()));
}
