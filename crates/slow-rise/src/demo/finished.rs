//! Seven finished bakes for the ledger, two of them the arms of a trial.

use super::{DemoWriter, minutes};
use anyhow::Result;
use craft::fire::{Shade, Verdict};
use craft::flour::FlourPart;
use craft::formula::Pieces;
use craft::learn::{Notice, StoodAs};
use craft::reading::Subject;
use craft::sheet::{SheetRequest, StepKind};
use jiff::{Timestamp, ToSpan};
use store::batch::Batch;
use store::entry::Seen;

/// What a bake was and what was seen of it.
struct Past {
    name: &'static str,
    style: &'static str,
    oven: &'static str,
    days_ago: i64,
    serve_hour: i8,
    change: fn(SheetRequest) -> SheetRequest,
    /// Dough off the mixer against its plan, K; of one that was mixed tap by tap its taps tell.
    dough_off: f64,
    fridge_c: f64,
    floor_c: f64,
    pace_s: i64,
    /// Seconds over the programme.
    off_s: i64,
    /// Counts of (base, top, how many).
    verdicts: &'static [(Shade, Shade, usize)],
    remarks: &'static [&'static str],
    /// How it stood when the first was opened, and by how many minutes before the serve time it was ready, where that was said.
    stood: StoodAs,
    ready_before: Option<f64>,
    noticed: &'static [Notice],
}

use Shade::{Dark, Pale, Right};

const PAST: [Past; 7] = [
    Past {
        name: "Halt round",
        style: "hot_round",
        oven: "Lamp room oven",
        days_ago: 23,
        serve_hour: 19,
        change: |r| {
            r.with(|r| {
                r.formula.pieces = Pieces::Balls {
                    count: 12,
                    ball_g: 250.0,
                };
                r.formula.cold_h = 0.0;
                r.formula.bulk_h = 6.0;
                r.formula.temper_h = 5.0;
            })
        },
        dough_off: 1.8,
        fridge_c: 6.3,
        floor_c: 372.0,
        pace_s: 170,
        off_s: 11,
        verdicts: &[(Pale, Right, 5), (Pale, Pale, 1), (Right, Right, 6)],
        remarks: &[
            "Floor never got over 375, bases pale after the fourth.",
            "Rim plain in taste.",
        ],
        stood: StoodAs::Over,
        ready_before: None,
        noticed: &[Notice::PaleBelow],
    },
    Past {
        name: "Buffet round",
        style: "home_round",
        oven: "Signal box oven",
        days_ago: 20,
        serve_hour: 18,
        change: |r| r,
        dough_off: 0.6,
        fridge_c: 6.4,
        floor_c: 268.0,
        pace_s: 600,
        off_s: 18,
        verdicts: &[(Right, Right, 3), (Right, Pale, 1)],
        remarks: &["Grill on for the last minute: top caught up."],
        stood: StoodAs::Over,
        ready_before: Some(80.0),
        noticed: &[],
    },
    Past {
        name: "Platform tray",
        style: "wet_tray",
        oven: "Buffet deck",
        days_ago: 16,
        serve_hour: 12,
        change: |r| r,
        dough_off: 1.2,
        fridge_c: 6.0,
        floor_c: 228.0,
        pace_s: 1260,
        off_s: -20,
        verdicts: &[(Right, Right, 2)],
        remarks: &["Open crumb to the edge.", "Stuck in one corner: more oil."],
        stood: StoodAs::Right,
        ready_before: None,
        noticed: &[],
    },
    Past {
        name: "Halt round",
        style: "hot_round",
        oven: "Lamp room oven",
        days_ago: 13,
        serve_hour: 19,
        change: |r| {
            r.with(|r| {
                r.formula.pieces = Pieces::Balls {
                    count: 16,
                    ball_g: 255.0,
                };
            })
        },
        dough_off: 0.4,
        fridge_c: 6.6,
        floor_c: 421.0,
        pace_s: 165,
        off_s: -2,
        verdicts: &[
            (Right, Right, 12),
            (Right, Dark, 2),
            (Dark, Right, 1),
            (Pale, Right, 1),
        ],
        remarks: &[
            "Light rim, opens by itself.",
            "Two tops dark: flame too high after feeding.",
        ],
        stood: StoodAs::Over,
        ready_before: Some(60.0),
        noticed: &[Notice::Slack],
    },
    Past {
        name: "Halt round",
        style: "hot_round",
        oven: "Lamp room oven",
        days_ago: 9,
        serve_hour: 19,
        change: |r| eight_for_the_trial(r, 24.0),
        dough_off: 0.2,
        fridge_c: 6.2,
        floor_c: 418.0,
        pace_s: 165,
        off_s: 1,
        verdicts: &[(Right, Right, 7), (Pale, Right, 1)],
        remarks: &["Springs back a little, plain crumb."],
        stood: StoodAs::Right,
        ready_before: None,
        noticed: &[],
    },
    Past {
        name: "Halt round",
        style: "hot_round",
        oven: "Lamp room oven",
        days_ago: 9,
        serve_hour: 19,
        change: |r| eight_for_the_trial(r, 44.0),
        dough_off: -0.7,
        fridge_c: 6.2,
        floor_c: 415.0,
        pace_s: 160,
        off_s: 0,
        verdicts: &[(Right, Right, 7), (Right, Dark, 1)],
        remarks: &["More flavour than the 24 h dough, same spring."],
        stood: StoodAs::Over,
        ready_before: Some(95.0),
        noticed: &[],
    },
    Past {
        name: "Buffet round",
        style: "home_round",
        oven: "Signal box oven",
        days_ago: 4,
        serve_hour: 18,
        change: |r| {
            r.with(|r| {
                r.formula.pieces = Pieces::Balls {
                    count: 6,
                    ball_g: 280.0,
                };
                r.formula.hydration_percent = 66.0;
            })
        },
        dough_off: 0.9,
        fridge_c: 6.5,
        floor_c: 274.0,
        pace_s: 560,
        off_s: 9,
        verdicts: &[(Right, Right, 5), (Dark, Right, 1)],
        remarks: &["First base dark: steel had stood an hour too long under the grill."],
        stood: StoodAs::Over,
        ready_before: None,
        noticed: &[Notice::Slack, Notice::Sticky],
    },
];

/// The doughs of the trial: alike but for their hours in the cold.
fn eight_for_the_trial(r: SheetRequest, cold_h: f64) -> SheetRequest {
    r.with(|r| {
        r.formula.pieces = Pieces::Balls {
            count: 8,
            ball_g: 255.0,
        };
        r.formula.cold_h = cold_h;
        r.formula.flours = vec![FlourPart::only(330.0)];
    })
}
/// Which of them are its arms.
const OF_THE_TRIAL: [usize; 2] = [4, 5];

pub(super) async fn write(w: &mut DemoWriter<'_>) -> Result<()> {
    let mut all = vec![];
    for past in &PAST {
        all.push(one(w, past).await?);
    }
    let arms = OF_THE_TRIAL.map(|i| all[i].clone());
    super::trial::write(w, &arms).await
}

async fn one(w: &mut DemoWriter<'_>, past: &Past) -> Result<Batch> {
    let zone = jiff::tz::TimeZone::get(&w.here.usual.time_zone)?;
    let day = w
        .now
        .to_zoned(zone.clone())
        .date()
        .checked_sub(past.days_ago.days())?;
    let serve_at: Timestamp = day.at(past.serve_hour, 0, 0, 0).to_zoned(zone)?.timestamp();
    let request = (past.change)(w.request(past.style, serve_at)?);
    let spiral = past.name == "Halt round";
    let request = match spiral {
        true => w.in_spiral(request).await?,
        false => request,
    };
    let request = w.fired(past.oven, 2, request).await?;
    let begun = request.start_at();
    let b = w.batch(past.name, &request, begun - minutes(90.0)).await?;
    let mixed = b.sheet.result.mixed_at;
    w.read(
        &b,
        mixed - minutes(11.0),
        Subject::Water,
        (b.sheet.result.water.pour_c * 2.0).round() / 2.0,
    )
    .await?;
    if spiral {
        w.mixed(&b, past.days_ago as u32).await?;
        w.divided(&b, past.days_ago as u32).await?;
    } else {
        let c = request.formula.target_dough_c + past.dough_off;
        w.read(&b, mixed + minutes(2.0), Subject::Dough, c).await?;
    }
    if request.formula.cold_h > 0.0 {
        w.read(
            &b,
            mixed + minutes(60.0 * (request.formula.bulk_h + 10.0)),
            Subject::Fridge,
            past.fridge_c,
        )
        .await?;
    }
    w.steps_until(&b, serve_at + minutes(10.0)).await?;
    w.read(
        &b,
        DemoWriter::at(&b, StepKind::Bake) - minutes(5.0),
        Subject::Floor,
        past.floor_c,
    )
    .await?;
    if let Some(before) = past.ready_before {
        w.see(&b, serve_at - minutes(before), Seen::Ready).await?;
    }
    let is = past.stood;
    w.see(&b, serve_at + minutes(1.0), Seen::Stood { is })
        .await?;
    let verdicts = spread(past.verdicts);
    let last = w
        .run(
            &b,
            serve_at + minutes(2.0),
            past.pace_s,
            &verdicts,
            past.off_s,
        )
        .await?;
    for (i, remark) in past.remarks.iter().enumerate() {
        w.remark(&b, last + minutes(10.0 + i as f64), remark)
            .await?;
    }
    for what in past.noticed {
        let seen = Seen::Noticed {
            what: *what,
            pizza: None,
        };
        w.see(&b, last + minutes(9.0), seen).await?;
    }
    w.close(&b, last + minutes(25.0)).await?;
    Ok(b)
}

/// The verdicts one after the other, the odd ones spread over the run.
fn spread(counts: &[(Shade, Shade, usize)]) -> Vec<Verdict> {
    let mut left: Vec<(Verdict, usize)> = counts
        .iter()
        .map(|&(base, top, n)| (Verdict { base, top }, n))
        .collect();
    let mut out = Vec::new();
    while left.iter().any(|(_, n)| *n > 0) {
        for (verdict, n) in &mut left {
            if *n > 0 {
                out.push(*verdict);
                *n -= 1;
            }
        }
    }
    out
}
