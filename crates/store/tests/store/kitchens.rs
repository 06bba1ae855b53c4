//! Kitchens, their migrations and feeds.

use super::*;

/// The only kitchen of a database.
async fn the_kitchen(c: &mut store::MySqlConnection) -> Result<Option<store::kitchen::Kitchen>> {
    match kitchen::all(c).await?.as_slice() {
        [(id, _)] => Ok(kitchen::by_id(c, *id).await?),
        _ => Ok(None),
    }
}

#[tokio::test]
async fn migrations_run_twice_and_by_two_at_once() -> Result<()> {
    let db = TestDb::new().await?;
    let (a, b) = (Db::at(&db.url)?, Db::at(&db.url)?);
    let (first, second) = tokio::join!(store::migrate(&a), store::migrate(&b));
    first?;
    second?;
    store::migrate(&a).await?;
    store::ping(&a).await?;
    a.close().await;
    b.close().await;
    db.close().await
}

#[tokio::test]
async fn a_kitchen_comes_back_as_it_was_made() -> Result<()> {
    let (db, pool, id) = open().await?;
    let k = the_kitchen(&mut *pool.acquire().await?).await?.unwrap();
    assert_eq!(
        (k.id, k.name.as_str(), &k.usual),
        (id, "Larchfold Halt", &usual())
    );
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn another_kitchen_sees_nothing_and_changes_nothing() -> Result<()> {
    let (db, pool, here) = open().await?;
    let there = add_kitchen(&pool, "Elsewhere").await?;
    // One program serves both: what it holds of one must not reach the other.
    let held = BatchCache::default();
    let mut c = pool.acquire().await?;
    let code = entered::keep(&mut c, here, &sheet("Halt round"), at(NOW)).await?;
    let b = batch::by_code(&mut c, here, &code, &held).await?.unwrap();
    assert!(batch::by_code(&mut c, there, &code, &held).await?.is_none());
    assert!(live(&mut c, there, &held).await?.is_empty());
    let done = Seen::StepDone { step_position: 0 };
    let kept = entered::see(&mut c, (there, b.id), at(NOW), done).await?;
    assert_eq!(kept, EntryOutcome::NoBatch, "no row is never kept");
    entered::tap(&mut c, (there, b.id), in_at(NOW)).await?;
    entered::close(&mut c, (there, b.id), at(NOW)).await?;
    assert!(entry::of_batch(&mut c, here, b.id).await?.seen.is_empty());
    assert!(entry::of_batch(&mut c, here, b.id).await?.taps.is_empty());
    assert!(
        batch::by_code(&mut c, here, &code, &held)
            .await?
            .unwrap()
            .finished_at
            .is_none()
    );
    // The same code may exist in both.
    assert_eq!(
        entered::keep(&mut c, there, &sheet("Halt round"), at(NOW)).await?,
        code
    );
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn the_demo_clears_only_what_no_maker_touched() -> Result<()> {
    let (db, pool, id) = open().await?;
    let mut c = pool.acquire().await?;
    let demo = |name| NewBatch {
        origin: Origin::Demo,
        ..sheet(name)
    };
    entered::keep(&mut c, id, &demo("Untouched one"), at(NOW)).await?;
    let touched = entered::keep(&mut c, id, &demo("Touched one"), at(NOW)).await?;
    entered::keep(&mut c, id, &sheet("Own one"), at(NOW)).await?;
    let b = batch::by_code(&mut c, id, &touched, &BatchCache::default())
        .await?
        .unwrap();
    entered::tap(&mut c, (id, b.id), in_at(NOW)).await?;
    assert_eq!(batch::demo_made_at(&mut c, id).await?, Some(at(NOW)));
    assert_eq!(batch::clear_demo(&mut c, id).await?, 1);
    let left: Vec<_> = live(&mut c, id, &BatchCache::default())
        .await?
        .into_iter()
        .map(|b| b.name)
        .collect();
    assert_eq!(left, ["Touched one", "Own one"]);
    assert!(batch::any(&mut c, id).await?);
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn a_database_that_is_away_is_told_from_one_that_refuses() -> Result<()> {
    let (db, pool, id) = open().await?;
    let away = Db::at("mysql://nobody:x@127.0.0.1:1/none")?;
    assert!(matches!(
        store::ping(&away).await,
        Err(store::StoreError::Away(_))
    ));
    let long = "x".repeat(81);
    let mut c = pool.acquire().await?;
    let refused = batch::keep(&mut c, id, &sheet(&long), at(NOW)).await;
    assert!(
        matches!(refused, Err(store::StoreError::Refused(_))),
        "{refused:?}"
    );
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn a_kitchen_is_changed_by_one_at_a_time() -> Result<()> {
    let (db, pool, here) = open().await?;
    let mut c = pool.acquire().await?;
    let mut new = NewKitchen {
        name: "Signal box".into(),
        usual: usual(),
        rhythm: Default::default(),
        work: Default::default(),
        reads: Reads::default(),
    };
    new.reads.weight = craft::units::WeightUnit::Pounds;
    new.reads.length = craft::units::LengthUnit::Inches;
    new.usual.scales = Scales {
        mixer_holds_g: Some(9000.0),
        ..Scales::default()
    };
    assert!(kitchen::change(&mut c, here, &new, 0).await?);
    assert!(
        !kitchen::change(&mut c, here, &new, 0).await?,
        "from an older one"
    );
    let k = the_kitchen(&mut c).await?.unwrap();
    assert_eq!(
        (k.name.as_str(), k.revision, k.reads),
        ("Signal box", 1, new.reads)
    );
    assert_eq!(k.usual, new.usual);
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn a_feed_has_an_address_from_when_it_is_asked_for_and_another_when_it_is_renewed()
-> Result<()> {
    let (db, pool, id) = open().await?;
    let mut c = pool.acquire().await?;
    let hash = async |c: &mut store::MySqlConnection| -> Result<Option<Vec<u8>>> {
        Ok(the_kitchen(c).await?.unwrap().feed_hash)
    };
    assert_eq!(hash(&mut c).await?, None);
    for k in ["first-key", "second-key"] {
        kitchen::renew_feed(&mut c, id, k).await?;
        assert_eq!(hash(&mut c).await?, Some(store::people::secret_hash(k)));
    }
    drop(c);
    pool.close().await;
    db.close().await
}
