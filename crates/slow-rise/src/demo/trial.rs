//! The trial of the house: 24 against 44 hours in the cold, by eight tasters.

use super::{DemoWriter, minutes};
use anyhow::{Context, Result};
use craft::trial::sisters::varied_in;
use craft::trial::{Criterion, Tasted, TrialArm, TrialDesign};
use store::batch::Batch;
use store::entry::Seen;

/// Of each taster: which arm is liked better, and the scores of taste and of chew for both arms.
const TABLE: [(u8, [u8; 2], [u8; 2]); 8] = [
    (1, [3, 4], [3, 2]),
    (1, [2, 4], [4, 3]),
    (1, [3, 3], [3, 3]),
    (1, [3, 5], [4, 2]),
    (0, [4, 4], [2, 3]),
    (1, [2, 3], [3, 2]),
    (1, [2, 4], [4, 3]),
    (1, [3, 4], [3, 3]),
];

pub(super) async fn write(w: &mut DemoWriter<'_>, arms: &[Batch; 2]) -> Result<()> {
    let formulas = arms.each_ref().map(|b| &b.sheet.request.formula);
    let (varied, values) = varied_in(&formulas).context("the arms differ in one thing")?;
    let trial = TrialDesign {
        arms: arms
            .iter()
            .zip(&values)
            .map(|(b, v)| TrialArm {
                batch: b.code.clone(),
                is: varied.said(*v),
            })
            .collect(),
        tasters: TABLE.len() as u8,
    };
    let at = arms[1].sheet.request.serve_at;
    let name = "Cold hours of the Halt round";
    let here = w.here.id;
    let code = store::trial::keep(w.db, here, name, &trial, at).await?;
    let kept = store::trial::by_code(w.db, here, &code).await?;
    let key = kept.context("the trial was kept")?.key;
    for (i, (liked, taste, chew)) in TABLE.iter().enumerate() {
        let taster = i as u8 + 1;
        let at = at + minutes(20.0 + 2.0 * i as f64);
        let pair = (0, 1);
        let arm = Some(*liked);
        let tasted = Tasted::Preferred { taster, pair, arm };
        w.see(&arms[0], at, Seen::Tasted { trial: key, tasted })
            .await?;
        for (of, scores) in [(Criterion::Taste, taste), (Criterion::Chew, chew)] {
            for (arm, score) in scores.iter().enumerate() {
                let tasted = Tasted::Scored {
                    taster,
                    arm: arm as u8,
                    of,
                    score: Some(*score),
                };
                w.see(&arms[arm], at, Seen::Tasted { trial: key, tasted })
                    .await?;
            }
        }
    }
    Ok(())
}
