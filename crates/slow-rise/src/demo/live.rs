//! Four doughs under way, in four states.

use super::{DemoWriter, clock, minutes};
use anyhow::Result;
use craft::fire::{Shade, Verdict};
use craft::formula::Pieces;
use craft::reading::Subject;
use craft::shape::PressSign;
use craft::sheet::{SheetRequest, StepKind};
use jiff::Timestamp;

pub(super) async fn write(w: &mut DemoWriter<'_>) -> Result<()> {
    baking(w).await?;
    resting_cold(w).await?;
    tray_in_bulk(w).await?;
    planned_on_weak_flour(w).await
}

/// To the next five minutes: people serve at round times.
fn round(t: Timestamp) -> Timestamp {
    let s = t.as_second();
    Timestamp::from_second(s + (300 - s.rem_euclid(300)) % 300).unwrap_or(t)
}

fn sheet(w: &DemoWriter<'_>, style: &str, serve_in_min: f64) -> Result<SheetRequest> {
    w.request(style, round(w.now + minutes(serve_in_min)))
}

/// Service has begun: ten of eighteen are out.
async fn baking(w: &mut DemoWriter<'_>) -> Result<()> {
    let flours = w.flours_of(310.0).await?;
    let request = sheet(w, "hot_round", -35.0)?.with(|r| {
        r.formula.pieces = Pieces::Balls {
            count: 18,
            ball_g: 260.0,
        };
        r.formula.hydration_percent = 63.0;
        r.formula.flours = flours;
    });
    let request = w.in_spiral(request).await?;
    let request = w.fired("Lamp room oven", 2, request).await?;
    let now = w.now;
    let b = w
        .batch("Lamp room round", &request, now - minutes(60.0 * 48.0))
        .await?;
    w.mixed(&b, 1).await?;
    w.divided(&b, 2).await?;
    w.steps_until(&b, now).await?;
    w.cautioned(&b, now - minutes(200.0)).await?;
    for (ago, c) in [(135.0, 296.0), (105.0, 372.0), (75.0, 418.0), (40.0, 426.0)] {
        w.read(&b, now - minutes(ago), Subject::Floor, c).await?;
    }
    let right = Verdict::RIGHT;
    let pale = Verdict {
        base: Shade::Pale,
        top: Shade::Right,
    };
    let dark = Verdict {
        base: Shade::Right,
        top: Shade::Dark,
    };
    let seen = [
        dark, right, right, right, pale, right, right, pale, right, right,
    ];
    w.run(&b, now - minutes(31.0), 180, &seen, 2).await?;
    w.read(&b, now - minutes(6.0), Subject::Floor, 411.0)
        .await?;
    w.read(&b, now - minutes(4.0), Subject::Room, 21.5).await
}

/// Boxed yesterday; the balls come out of the fridge in some twenty minutes.
async fn resting_cold(w: &mut DemoWriter<'_>) -> Result<()> {
    let now = w.now;
    let lead = w.request("hot_round", now)?;
    let serve_at = round(now + minutes(17.0 + 60.0 * lead.formula.temper_h));
    let flours = w.flours_of(lead.formula.style.flour_w).await?;
    let request = lead.with(|r| {
        r.formula.flours = flours;
        r.formula.pieces = Pieces::Balls {
            count: 24,
            ball_g: 255.0,
        };
        r.serve_at = serve_at;
    });
    let request = w.in_spiral(request).await?;
    let request = w.by_the_log(request);
    let request = w.fired("Lamp room oven", 2, request).await?;
    let b = w
        .batch("Halt round", &request, now - minutes(60.0 * 30.0))
        .await?;
    w.mixed(&b, 4).await?;
    w.divided(&b, 5).await?;
    w.steps_until(&b, now).await?;
    w.read(&b, now - minutes(8.0), Subject::Fridge, 4.8).await?;
    w.read(&b, now - minutes(9.0), Subject::Dough, 5.4).await?;
    w.pressed(&b, now - minutes(7.0), 1, PressSign::Holds).await
}

/// A wet dough in its tub, folded twice and put into the fridge.
async fn tray_in_bulk(w: &mut DemoWriter<'_>) -> Result<()> {
    let now = w.now;
    let lead = w.request("wet_tray", now)?;
    let hours = lead.total_h();
    let usual = round(now + minutes(60.0 * hours - 155.0));
    // Mixed some two hours and a half ago, whatever the hour at which it is served.
    let serve_at = clock::served(usual, &w.here.usual.time_zone);
    let longer_h = serve_at.duration_since(usual).as_secs_f64() / 3600.0;
    let flours = w.flours_of(lead.formula.style.flour_w).await?;
    let request = lead.with(|r| {
        r.formula.flours = flours;
        r.formula.pieces = Pieces::trays(3, 40.0, 30.0, 0.65);
        r.formula.cold_h += longer_h;
        r.serve_at = serve_at;
    });
    let request = w.in_spiral(request).await?;
    let request = w.fired("Buffet deck", 1, request).await?;
    let b = w
        .batch("Platform tray", &request, now - minutes(60.0 * 5.0))
        .await?;
    w.mixed(&b, 7).await?;
    w.read(
        &b,
        b.sheet.result.mixed_at - minutes(14.0),
        Subject::Water,
        21.0,
    )
    .await?;
    w.steps_until(&b, now).await?;
    w.remark(
        &b,
        super::DemoWriter::at(&b, StepKind::Bulk) + minutes(1.0),
        "Slack at first, held its shape after the second fold.",
    )
    .await?;
    w.read(&b, now - minutes(3.0), Subject::Dough, 20.9).await
}

/// A trial on a soft flour: the sheet says that it will not last.
async fn planned_on_weak_flour(w: &mut DemoWriter<'_>) -> Result<()> {
    let now = w.now;
    let lead = w.request("home_round", now)?;
    let hours = lead.total_h();
    let zone = w.here.usual.time_zone.clone();
    let flours = w.flours_of(225.0).await?;
    let request = lead.with(|r| {
        r.formula.pieces = Pieces::Balls {
            count: 6,
            ball_g: 270.0,
        };
        r.formula.flours = flours;
        let usual = round(now + minutes(60.0 * (hours + 4.0)));
        r.serve_at = clock::served(usual, &zone);
    });
    let request = w.fired("Signal box oven", 1, request).await?;
    w.batch("Trial round", &request, now - minutes(20.0))
        .await?;
    Ok(())
}
