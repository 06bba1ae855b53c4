//! The pantry: changed by one at a time, and never under a batch.

use super::*;

fn flour(name: &str, w: f64) -> Flour {
    Flour {
        name: name.into(),
        facts: craft::flour::FlourFacts::of_w(w),
        milling: String::new(),
        moisture_percent: None,
        allergens: "gluten".into(),
        price_per_kg: Some(1.2),
        bags: vec![],
        pressed: vec![],
        generic: false,
    }
}

async fn kept_flour(c: &mut store::MySqlConnection, here: KitchenId) -> Result<u64> {
    let new = At::New(Uuid::new_v4());
    match pantry::put(c, here, new, &flour("Quernside", 290.0), at(NOW)).await? {
        Put::Done(id) => Ok(id),
        other => anyhow::bail!("a new one is kept, not {other:?}"),
    }
}

#[tokio::test]
async fn a_stale_change_in_the_pantry_is_refused_and_shown() -> Result<()> {
    let (db, pool, here) = open().await?;
    let mut c = pool.acquire().await?;
    let id = kept_flour(&mut c, here).await?;
    let item = pantry::by_id::<Flour>(&mut c, here, id).await?.unwrap();
    assert_eq!(
        pantry::put(
            &mut c,
            here,
            At::Row {
                id,
                revision: item.revision
            },
            &flour("Quernside", 300.0),
            at(NOW)
        )
        .await?,
        Put::Done(id)
    );
    let Put::Stale(Some(now)) = pantry::put(
        &mut c,
        here,
        At::Row {
            id,
            revision: item.revision,
        },
        &flour("Quernside", 310.0),
        at(NOW),
    )
    .await?
    else {
        panic!("the second tablet is told")
    };
    assert_eq!(now.facts.facts.w, Some(300.0));
    // A flour's number is no scale's.
    assert!(pantry::by_id::<Scale>(&mut c, here, id).await?.is_none());
    pantry::put_away::<Flour>(&mut c, here, id, at(NOW)).await?;
    assert!(pantry::everything(&mut c, here).await?.flours.is_empty());
    let other = add_kitchen(&pool, "Next door").await?;
    assert!(pantry::by_id::<Flour>(&mut c, other, id).await?.is_none());
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn changing_a_flour_changes_no_formula_and_no_batch() -> Result<()> {
    let (db, pool, here) = open().await?;
    let mut c = pool.acquire().await?;
    let id = kept_flour(&mut c, here).await?;
    let request = SHEET
        .0
        .clone()
        .with(|r| r.formula.flours = vec![flour("Quernside", 290.0).part(id, 100.0)]);
    let result = work_out(&request)?;
    let new = NewBatch {
        request: &request,
        result: &result,
        ..sheet("Halt")
    };
    let code = entered::keep(&mut c, here, &new, at(NOW)).await?;
    let (fid, _) = done(
        formula::keep(
            &mut c,
            here,
            &version("Halt", &request.formula, None),
            at(NOW),
        )
        .await?,
    );
    pantry::put(
        &mut c,
        here,
        At::Row { id, revision: 1 },
        &flour("Renamed", 120.0),
        at(NOW),
    )
    .await?;
    let b = batch::by_code(&mut c, here, &code, &BatchCache::default())
        .await?
        .unwrap();
    assert_eq!((&*b.sheet.request, &*b.sheet.result), (&request, &result));
    assert_eq!(
        formula::version(&mut c, here, fid, None)
            .await?
            .unwrap()
            .formula,
        request.formula
    );
    drop(c);
    pool.close().await;
    db.close().await
}
