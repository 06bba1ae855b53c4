//! What the store keeps of a fire: ovens, a plan with its fire, readings of the dome, cautions, taps taken back.

use crate::entered;
use crate::entered::usual;
use anyhow::{Context, Result};
use craft::fact;
use craft::fire::{FireChoice, Oven, Run, Tap, TapKind, of_formula, oven};
use craft::reading::Subject;
use craft::sheet::{SheetRequest, work_out};
use jiff::{SignedDuration, Timestamp};
use store::batch::{self, Batch, NewBatch, NewPlan, Origin, Replanned};
use store::entry::{self, Seen};
use store::kitchen::{self, NewKitchen, Reads};
use store::pantry::{self, At, Put};
use store::{BatchCache, Db, KitchenId};
use testbed::db::TestDb;
use uuid::Uuid;

/// The only kitchen of a database.
async fn the_kitchen(c: &mut store::MySqlConnection) -> Result<Option<store::kitchen::Kitchen>> {
    match kitchen::all(c).await?.as_slice() {
        [(id, _)] => Ok(kitchen::by_id(c, *id).await?),
        _ => Ok(None),
    }
}

const NOW: &str = "2026-11-25T08:00:00Z";

fn at(text: &str) -> Timestamp {
    text.parse().unwrap()
}

/// A kitchen, and a batch without a fire in it.
async fn open() -> Result<(TestDb, Db, KitchenId, Batch)> {
    let db = TestDb::new().await?;
    let pool = Db::at(&db.url)?;
    store::migrate(&pool).await?;
    let mut c = pool.acquire().await?;
    let new = NewKitchen {
        name: "Larchfold Halt".into(),
        usual: usual(),
        rhythm: Default::default(),
        work: Default::default(),
        reads: Reads::default(),
    };
    kitchen::add(&mut c, &new, at(NOW)).await?;
    let here = the_kitchen(&mut c).await?.context("a kitchen")?.id;
    let request =
        SheetRequest::of_style(craft::style::first(), &usual(), at("2026-11-27T19:00:00Z"));
    let result = work_out(&request)?;
    let new = NewBatch {
        form_key: Uuid::new_v4(),
        name: "Halt round",
        request: &request,
        result: &result,
        origin: Origin::Maker,
        from: None,
    };
    let code = entered::keep(&mut c, here, &new, at(NOW)).await?;
    let b = batch::by_code(&mut c, here, &code, &BatchCache::default())
        .await?
        .context("the batch")?;
    drop(c);
    Ok((db, pool, here, b))
}

#[tokio::test]
async fn an_oven_comes_back_to_the_last_digit_and_a_stale_change_is_refused() -> Result<()> {
    let (db, pool, here, _) = open().await?;
    let mut c = pool.acquire().await?;
    for shipped in oven::all() {
        let own = Oven {
            key: format!("own-{}", shipped.key),
            floor_factor: 0.8712345678901234,
            top_factor: 1.07,
            pace: 1.1,
            ..shipped.clone()
        };
        let Put::Done(id) =
            pantry::put(&mut c, here, At::New(Uuid::new_v4()), &own, at(NOW)).await?
        else {
            panic!("a new one is kept")
        };
        let back = pantry::by_id::<Oven>(&mut c, here, id)
            .await?
            .context("it")?;
        assert_eq!(back.facts, own);
        let first = At::Row {
            id,
            revision: back.revision,
        };
        let hotter = Oven {
            most_c: 480.0,
            ..own.clone()
        };
        assert_eq!(
            pantry::put(&mut c, here, first, &hotter, at(NOW)).await?,
            Put::Done(id)
        );
        assert!(matches!(
            pantry::put(&mut c, here, first, &own, at(NOW)).await?,
            Put::Stale(Some(_))
        ));
    }
    let all = pantry::everything(&mut c, here).await?;
    assert_eq!(all.ovens.len(), oven::all().len());
    pantry::put_away::<Oven>(&mut c, here, all.ovens[0].id, at(NOW)).await?;
    assert_eq!(
        pantry::everything(&mut c, here).await?.ovens.len(),
        oven::all().len() - 1
    );
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn a_fire_is_part_of_the_plan_and_the_former_plan_stays_kept() -> Result<()> {
    let (db, pool, here, b) = open().await?;
    let mut c = pool.acquire().await?;
    assert!(b.sheet.request.fire.is_none());
    let o = &oven::all()[0];
    let portion = &b.sheet.result.formula.portions[0];
    let plan = of_formula::plan(
        &b.sheet.request.formula,
        portion,
        o,
        o.usual(),
        None,
        (19.5, 310.0),
    );
    let fire = FireChoice::of(plan, None, 2, 19.5)?;
    let mut request = craft::sheet::SheetRequest::clone(&b.sheet.request);
    request.fire = Some(Box::new(fire.clone()));
    let result = work_out(&request)?;
    let new = NewPlan {
        of: b.plan,
        request: &request,
        result: &result,
        why: &fact!("plan-fire"),
    };
    assert!(matches!(
        batch::replan(&mut c, here, b.id, &new, at(NOW)).await?,
        Replanned::Done
    ));
    assert!(matches!(
        batch::replan(&mut c, here, b.id, &new, at(NOW)).await?,
        Replanned::Stale(_)
    ));
    let again = batch::by_code(&mut c, here, &b.code, &BatchCache::default())
        .await?
        .context("the batch")?;
    assert_eq!(again.sheet.request.fire.as_deref(), Some(&fire));
    assert_eq!(again.sheet.result.programme, fire.programme);
    assert_eq!(again.plan, b.plan + 1);
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn dome_readings_and_cautions_come_back_and_a_slip_is_taken_back() -> Result<()> {
    let (db, pool, here, b) = open().await?;
    let mut c = pool.acquire().await?;
    let dome = Seen::Reading {
        subject: Subject::Dome,
        celsius: 476.5,
    };
    for seen in [dome, Seen::Cautioned] {
        entered::see(&mut c, (here, b.id), at(NOW), seen.clone()).await?;
        let all = entry::of_batch(&mut c, here, b.id).await?.seen;
        assert_eq!(all.iter().filter(|o| o.seen == seen).count(), 1);
    }
    let began = at(NOW);
    for (s, kind) in [
        (0, TapKind::In),
        (30, TapKind::Turned),
        (76, TapKind::Out),
        (79, TapKind::Undone),
    ] {
        let t = Tap {
            pizza: 1,
            at: began + SignedDuration::from_secs(s),
            kind,
        };
        entered::tap(&mut c, (here, b.id), t).await?;
    }
    let taps = entry::of_batch(&mut c, here, b.id).await?.taps;
    assert_eq!(taps.len(), 4, "nothing is dropped");
    let run = Run::of(&taps);
    assert_eq!(run.pizzas[0].turned_at.len(), 1);
    assert!(run.pizzas[0].out_at.is_none(), "taken back");
    // Another kitchen sees none of it.
    let new = NewKitchen {
        name: "Next door".into(),
        usual: usual(),
        rhythm: Default::default(),
        work: Default::default(),
        reads: Reads::default(),
    };
    let door = kitchen::add(&mut c, &new, at(NOW)).await?;
    assert!(entry::of_batch(&mut c, door, b.id).await?.taps.is_empty());
    drop(c);
    pool.close().await;
    db.close().await
}
