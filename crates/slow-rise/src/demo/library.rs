//! The formulas of Larchfold Halt, some of them in several versions.

use super::{DemoWriter, minutes};
use anyhow::{Context, Result, bail};
use craft::flour::FlourPart;
use craft::formula::{
    Extra, ExtraKind, Formula, LooseBalls, PanGroup, PanShape, Pieces, Preferment, PrefermentKind,
};
use craft::pantry::Flour;
use store::batch::Origin;
use store::formula::{FormulaId, KeptFormula, NewVersion, keep};
use store::pantry::{PantryItem, everything};
use uuid::Uuid;

/// A version: days ago, why, and the formula.
type DemoVersion = (f64, &'static str, Formula);

pub(super) async fn write(w: &mut DemoWriter<'_>) -> Result<()> {
    let flours = everything(w.db, w.here.id).await?.flours;
    let part = |name: &str, share: f64| blend_part(&flours, name, share);
    let house = vec![
        part("Quernside No. 4", 70.0)?,
        part("Alder Ford strong", 25.0)?,
        part("Cold Ash spelt, whole", 5.0)?,
    ];
    one(w, "Halt round", halt(part("Quernside No. 4", 100.0)?)?).await?;
    one(
        w,
        "Platform tray",
        platform(vec![
            part("Alder Ford strong", 80.0)?,
            part("Quernside No. 4", 20.0)?,
        ])?,
    )
    .await?;
    one(w, "Signal box levain", levain(house.clone())?).await?;
    one(w, "Trial round", trial(house)?).await
}

fn blend_part(flours: &[PantryItem<Flour>], name: &str, share: f64) -> Result<FlourPart> {
    let found = flours
        .iter()
        .find(|f| f.facts.name == name)
        .with_context(|| name.to_string())?;
    Ok(found.facts.part(found.id, share))
}

fn style(key: &str) -> Result<Formula> {
    Ok(Formula::of_style(
        craft::style::by_key(key).with_context(|| key.to_string())?,
    ))
}

fn halt(flour: FlourPart) -> Result<Vec<DemoVersion>> {
    let first = Formula {
        flours: vec![flour],
        pieces: Pieces::Balls {
            count: 16,
            ball_g: 255.0,
        },
        ..style("hot_round")?
    };
    let second = Formula {
        hydration_percent: 63.0,
        ..first.clone()
    };
    let third = Formula {
        cold_h: 44.0,
        salt_percent: 2.7,
        ..second.clone()
    };
    Ok(vec![
        (40.0, "As it was baked all summer.", first),
        (19.0, "A point more water: the rim came out tight.", second),
        (
            9.0,
            "Two nights cold for more flavour, a little less salt.",
            third,
        ),
    ])
}

fn platform(flours: Vec<FlourPart>) -> Result<Vec<DemoVersion>> {
    let first = Formula {
        flours,
        ..style("wet_tray")?
    };
    let mixed = Formula {
        pieces: Pieces::Pans {
            pans: vec![PanGroup {
                count: 3,
                pan: PanShape::Rectangle {
                    length_cm: 40.0,
                    width_cm: 30.0,
                },
                dough_g_per_cm2: 0.62,
            }],
            balls: Some(LooseBalls {
                count: 4,
                ball_g: 250.0,
            }),
        },
        ..first.clone()
    };
    Ok(vec![
        (30.0, "", first),
        (
            6.0,
            "Thinner in the tray, and four loose balls for the children.",
            mixed,
        ),
    ])
}

fn levain(flours: Vec<FlourPart>) -> Result<Vec<DemoVersion>> {
    Ok(vec![(
        12.0,
        "Starter alone, no yeast.",
        Formula {
            flours,
            ..style("levain_round")?
        },
    )])
}

/// Three flours, a poolish on the strong one, a second dose in the dough.
fn trial(flours: Vec<FlourPart>) -> Result<Vec<DemoVersion>> {
    let malt = |amount| {
        vec![Extra {
            kind: ExtraKind::ActiveMalt,
            name: String::new(),
            amount,
        }]
    };
    let first = Formula {
        flours,
        pieces: Pieces::Balls {
            count: 6,
            ball_g: 262.0,
        },
        loss_percent: 1.0,
        hydration_percent: 64.0,
        salt_percent: 2.8,
        oil_percent: 1.5,
        extras: malt(0.6),
        preferments: vec![Preferment {
            flour_percent: 20.0,
            flours: vec![0.0, 100.0, 0.0],
            warm_h: 14.0,
            warm_c: Some(17.0),
            ..Preferment::usual(PrefermentKind::Poolish)
        }],
        bulk_h: 2.0,
        cold_h: 20.0,
        temper_h: 4.0,
        ..style("garden_round")?
    };
    let second = Formula {
        extras: malt(0.4),
        ..first.clone()
    };
    Ok(vec![
        (8.0, "Poolish on the strong flour, for its smell.", first),
        (
            2.0,
            "Less malt: the rim was dark before the base was done.",
            second,
        ),
    ])
}

async fn one(w: &mut DemoWriter<'_>, name: &str, versions: Vec<DemoVersion>) -> Result<()> {
    let mut of: Option<(FormulaId, u32)> = None;
    for (days, why, formula) in versions {
        formula.check()?;
        let new = NewVersion {
            form_key: Uuid::new_v4(),
            name,
            why,
            formula: &formula,
            of,
            origin: Origin::Demo,
        };
        let at = w.now - minutes(days * 24.0 * 60.0);
        of = match keep(w.db, w.here.id, &new, at).await? {
            KeptFormula::Done { of, number } => Some((of, number)),
            KeptFormula::Other { .. } | KeptFormula::Stale { .. } => bail!("{name} was not kept"),
        };
    }
    Ok(())
}
