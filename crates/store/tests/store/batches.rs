//! Batches and their entries: kept once, read back exactly, replanned.

use super::*;

#[tokio::test]
async fn a_batch_comes_back_exactly() -> Result<()> {
    let (db, pool, id) = open().await?;
    let mut c = pool.acquire().await?;
    let name = "Crème <b>brûlée</b> 🍕";
    let code = entered::keep(&mut c, id, &sheet(name), at(NOW)).await?;
    assert_eq!(code, "CB-01");
    let b = batch::by_code(&mut c, id, &code, &BatchCache::default())
        .await?
        .unwrap();
    assert_eq!(
        (b.name.as_str(), &*b.sheet.request, &*b.sheet.result),
        (name, &SHEET.0, &SHEET.1)
    );
    assert_eq!((b.created_at, b.finished_at), (at(NOW), None));
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn the_same_form_is_kept_once_and_codes_count_up() -> Result<()> {
    let (db, pool, id) = open().await?;
    let mut c = pool.acquire().await?;
    let new = sheet("Halt round");
    assert_eq!(entered::keep(&mut c, id, &new, at(NOW)).await?, "HR-01");
    assert_eq!(entered::keep(&mut c, id, &new, at(NOW)).await?, "HR-01");
    assert_eq!(
        entered::keep(&mut c, id, &sheet("Halt round"), at(NOW)).await?,
        "HR-02"
    );
    assert_eq!(
        entered::keep(&mut c, id, &sheet("Platform tray"), at(NOW)).await?,
        "PT-01"
    );
    assert_eq!(live(&mut c, id, &BatchCache::default()).await?.len(), 3);
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn many_at_once_get_codes_of_their_own_and_one_form_one_batch() -> Result<()> {
    let (db, pool, id) = open().await?;
    let twice = Uuid::new_v4();
    let mut running = tokio::task::JoinSet::new();
    for i in 0..8 {
        let pool = pool.clone();
        running.spawn(async move {
            let mut new = sheet("Halt round");
            if i < 2 {
                new.form_key = twice;
            }
            let mut c = pool.acquire().await.unwrap();
            entered::keep(&mut c, id, &new, at(NOW)).await.unwrap()
        });
    }
    let mut codes = running.join_all().await;
    codes.sort();
    codes.dedup();
    assert_eq!(codes.len(), 7, "{codes:?}");
    assert_eq!(
        live(&mut *pool.acquire().await?, id, &BatchCache::default())
            .await?
            .len(),
        7
    );
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn an_entry_is_written_once_however_often_it_is_sent() -> Result<()> {
    let (db, pool, id) = open().await?;
    let mut c = pool.acquire().await?;
    let code = entered::keep(&mut c, id, &sheet("Halt round"), at(NOW)).await?;
    let b = batch::by_code(&mut c, id, &code, &BatchCache::default())
        .await?
        .unwrap();
    let on = (id, b.id);
    let reading = Seen::Reading {
        subject: Subject::Dough,
        celsius: 23.4,
    };
    let remark = Seen::Remark {
        remark: "Klebrig, riecht süß 🙂".into(),
    };
    let (key, when) = (Uuid::new_v4(), at("2026-11-23T08:00:00.250Z"));
    for want in [
        EntryOutcome::New,
        EntryOutcome::Before,
        EntryOutcome::Before,
    ] {
        let kept = entered::enter(&mut c, on, key, when, reading.clone().into()).await?;
        assert_eq!(kept, want);
    }
    entered::see(&mut c, on, at(NOW), remark.clone()).await?;
    let all = entry::of_batch(&mut c, id, b.id).await?;
    let told: Vec<_> = all.seen.iter().map(|o| (o.at, o.seen.clone())).collect();
    assert_eq!(
        told,
        [(at(NOW), remark), (when, reading.clone())],
        "in the order of the clock"
    );
    // Another content under the same key is told, with what stands there, and not written.
    let other = Seen::Remark {
        remark: "something else".into(),
    };
    let kept = entered::enter(&mut c, on, key, at(NOW), other.into()).await?;
    let EntryOutcome::Other(stands) = kept else {
        panic!("{kept:?}")
    };
    assert_eq!((stands.said, stands.elsewhere), (reading.into(), false));
    // The same key on another batch, too, also for a tap.
    let second = entered::keep(&mut c, id, &sheet("Halt round"), at(NOW)).await?;
    let second = batch::by_code(&mut c, id, &second, &BatchCache::default())
        .await?
        .unwrap();
    let t = in_at(NOW);
    let kept = entered::enter(&mut c, (id, second.id), key, t.at, t.into()).await?;
    assert!(
        matches!(&kept, EntryOutcome::Other(o) if o.elsewhere),
        "{kept:?}"
    );
    let none = entry::of_batch(&mut c, id, second.id).await?;
    assert!(none.seen.is_empty() && none.taps.is_empty());

    let key = Uuid::new_v4();
    let verdict = Tap {
        pizza: 1,
        at: at(NOW),
        kind: TapKind::Verdict(Verdict::RIGHT),
    };
    for want in [EntryOutcome::New, EntryOutcome::Before] {
        let kept = entered::enter(&mut c, on, key, verdict.at, verdict.into()).await?;
        assert_eq!(kept, want);
    }
    assert_eq!(entry::of_batch(&mut c, id, b.id).await?.taps, [verdict]);
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn a_held_copy_is_believed_only_until_something_is_entered() -> Result<()> {
    let (db, pool, id) = open().await?;
    let mut c = pool.acquire().await?;
    let held = BatchCache::default();
    let code = entered::keep(&mut c, id, &sheet("Halt round"), at(NOW)).await?;
    let first = batch::by_code(&mut c, id, &code, &held).await?.unwrap();
    let again = batch::by_code(&mut c, id, &code, &held).await?.unwrap();
    assert!(
        std::sync::Arc::ptr_eq(&first.entries, &again.entries),
        "the copy serves"
    );
    entered::see(
        &mut c,
        (id, first.id),
        at(NOW),
        Seen::StepDone { step_position: 0 },
    )
    .await?;
    entered::tap(&mut c, (id, first.id), in_at(NOW)).await?;
    let after = batch::by_code(&mut c, id, &code, &held).await?.unwrap();
    assert_eq!((after.entries.seen.len(), after.entries.taps.len()), (1, 1));
    assert!(
        std::sync::Arc::ptr_eq(&first.sheet, &after.sheet),
        "the sheet never changes"
    );
    entered::close(&mut c, (id, first.id), at(NOW)).await?;
    assert!(
        batch::by_code(&mut c, id, &code, &held)
            .await?
            .unwrap()
            .finished_at
            .is_some()
    );
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn finished_batches_leave_the_bench_for_the_ledger() -> Result<()> {
    let (db, pool, id) = open().await?;
    let mut c = pool.acquire().await?;
    for hour in [10, 12, 14] {
        let code = entered::keep(&mut c, id, &sheet("Halt round"), at(NOW)).await?;
        let b = batch::by_code(&mut c, id, &code, &BatchCache::default())
            .await?
            .unwrap();
        let done = at(&format!("2026-11-23T{hour}:00:00Z"));
        entered::close(&mut c, (id, b.id), done).await?;
        entered::close(&mut c, (id, b.id), at("2027-01-01T00:00:00Z")).await?;
        entered::see(&mut c, (id, b.id), done, Seen::Remark { remark: code }).await?;
    }
    assert!(live(&mut c, id, &BatchCache::default()).await?.is_empty());
    let held = BatchCache::default();
    let entries = batch::finished(&mut c, id, 0, 2, &held).await?;
    assert_eq!(entries.in_all, 3);
    let entries = entries.read();
    let codes: Vec<_> = entries.iter().map(|e| e.code.as_str()).collect();
    assert_eq!(codes, ["HR-03", "HR-02"], "the latest first");
    let e = &entries[0];
    assert_eq!(
        e.finished_at,
        Some(at("2026-11-23T14:00:00Z")),
        "the first moment stays"
    );
    let remark = Seen::Remark {
        remark: "HR-03".into(),
    };
    assert!(e.entries.seen.iter().any(|o| o.seen == remark));
    assert_eq!(
        batch::finished(&mut c, id, 2, 2, &held).await?.listed.len(),
        1
    );
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn another_plan_takes_the_place_of_the_first_and_a_stale_one_is_refused() -> Result<()> {
    let (db, pool, id) = open().await?;
    let mut c = pool.acquire().await?;
    let held = BatchCache::default();
    let code = entered::keep(&mut c, id, &sheet("Halt round"), at(NOW)).await?;
    let b = batch::by_code(&mut c, id, &code, &held).await?.unwrap();
    assert_eq!((b.plan, b.planned_at), (0, at(NOW)));
    let mut request = SHEET.0.clone();
    request.serve_at += jiff::SignedDuration::from_hours(2);
    let later = at("2026-11-23T09:00:00Z");
    let fewer = fact!("plan-pieces", n = 15, was = 16);
    let new = |of| batch::NewPlan {
        of,
        request: &request,
        result: &SHEET.1,
        why: &fewer,
    };
    let ines = store::Whom {
        person: None,
        name: "Ines".into(),
    };
    let author = store::Author::of(id, &ines);
    let done = batch::replan(&mut c, author, b.id, &new(0), later).await?;
    assert_eq!(done, batch::Replanned::Done);
    // A copy that was held of the first plan is not believed.
    let now = batch::by_code(&mut c, id, &code, &held).await?.unwrap();
    assert_eq!((now.plan, now.planned_at), (1, later));
    assert_eq!(*now.sheet.request, request);
    assert_eq!(now.id, b.id);
    // The other tablet began from the first plan: nothing is written.
    let stale = batch::replan(&mut c, id, b.id, &new(0), later).await?;
    assert_eq!(stale, batch::Replanned::Stale(1));
    let left = batch::left_plans(&mut c, id, b.id).await?;
    let as_left = |why: Fact| batch::LeftPlan {
        at: later,
        why,
        by: "Ines".into(),
    };
    assert_eq!(left, [as_left(fewer.clone())]);
    // What was kept before there were facts stands as it was written.
    sqlx::query("UPDATE batch_plan SET why = 'guests are late'")
        .execute(&mut *c)
        .await?;
    let left = batch::left_plans(&mut c, id, b.id).await?;
    assert_eq!(left, [as_left(Fact::as_written("guests are late"))]);
    // Another kitchen has no such batch to plan.
    let there = add_kitchen(&pool, "Elsewhere").await?;
    assert!(
        batch::replan(&mut c, there, b.id, &new(1), later)
            .await
            .is_err()
    );
    assert!(batch::left_plans(&mut c, there, b.id).await?.is_empty());
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn steps_left_out_and_marked_tubs_come_back_as_they_were_seen() -> Result<()> {
    let (db, pool, id) = open().await?;
    let mut c = pool.acquire().await?;
    let code = entered::keep(&mut c, id, &sheet("Halt round"), at(NOW)).await?;
    let b = batch::by_code(&mut c, id, &code, &BatchCache::default())
        .await?
        .unwrap();
    for seen in [
        Seen::StepSkipped { step_position: 3 },
        Seen::Grown { times: 1.62 },
    ] {
        entered::see(&mut c, (id, b.id), at(NOW), seen.clone()).await?;
        let all = entry::of_batch(&mut c, id, b.id).await?.seen;
        assert_eq!(all.last().map(|o| &o.seen), Some(&seen));
    }
    drop(c);
    pool.close().await;
    db.close().await
}
