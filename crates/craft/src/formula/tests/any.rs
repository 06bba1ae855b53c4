//! Formulas of every kind, for the properties.

use super::*;
use crate::keyed::Keyed;

fn dose() -> impl Strategy<Value = Dose> {
    prop_oneof![
        Just(Dose::None),
        (0.001..1.0f64).prop_map(|percent| Dose::Given { percent })
    ]
}

fn preferment() -> impl Strategy<Value = Preferment> {
    (0usize..5, 1.0..45.0f64, 42.0..128.0f64, 0.0..2.0f64, dose()).prop_map(
        |(kind, share, water, salt, dose)| {
            let kind = PrefermentKind::ALL[kind];
            let usual = Preferment::usual(kind);
            Preferment {
                flour_percent: share,
                hydration_percent: water,
                salt_percent: salt,
                yeast: Yeast {
                    dose: if kind == PrefermentKind::Levain {
                        Dose::None
                    } else {
                        dose
                    },
                    ..usual.yeast
                },
                ..usual
            }
        },
    )
}

fn extras() -> impl Strategy<Value = Vec<Extra>> {
    prop::collection::vec(
        (0usize..11, 0.0..5.0f64).prop_map(|(k, amount)| Extra {
            kind: ExtraKind::ALL[k],
            name: String::new(),
            amount,
        }),
        0..4,
    )
}

fn flours() -> impl Strategy<Value = Vec<FlourPart>> {
    prop::collection::vec((0.1..10.0f64, 80.0..450.0f64), 1..6).prop_map(|list| {
        let whole: f64 = list.iter().map(|f| f.0).sum();
        list.iter()
            .enumerate()
            .map(|(i, (share, w))| part(&format!("flour {i}"), 100.0 * share / whole, *w))
            .collect()
    })
}

/// Balls of any formula; some are refused, because their preferments do not go in.
pub(crate) fn any_formula() -> impl Strategy<Value = FormulaRequest> {
    let numbers = (
        1u32..400,
        30.0..600.0f64,
        0.0..10.0f64,
        40.0..130.0f64,
        0.0..5.0f64,
        0.0..20.0f64,
        0.0..20.0f64,
    );
    (
        numbers,
        flours(),
        extras(),
        prop::collection::vec(preferment(), 0..4),
        dose(),
        any::<bool>(),
    )
        .prop_map(
            |(
                (count, ball_g, loss, water, salt, oil, sugar),
                flours,
                extras,
                preferments,
                dose,
                nominal,
            )| {
                with(|f| {
                    f.pieces = Pieces::Balls { count, ball_g };
                    f.loss_percent = loss;
                    f.hydration_percent = water;
                    f.hydration_counts = if nominal {
                        HydrationCounts::Nominal
                    } else {
                        HydrationCounts::True
                    };
                    f.salt_percent = salt;
                    f.oil_percent = oil;
                    f.sugar_percent = sugar;
                    f.flours = flours;
                    f.extras = extras;
                    f.preferments = preferments;
                    f.yeast.dose = dose;
                })
            },
        )
}
