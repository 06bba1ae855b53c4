//! What is entered is never lost and never doubled: many writers at once, keys that were used, a migration that was cut off,
//! rows that cannot be read.

use crate::entered;
use crate::entered::usual;
use anyhow::{Context, Result};
use craft::sheet::{SheetRequest, work_out};
use jiff::Timestamp;
use sqlx::{AssertSqlSafe, Connection, MySqlConnection};
use store::batch::{self, Batch, KeptBatch, ListedBatch, NewBatch, Origin};
use store::entry::{self, EntryOutcome, NewEntry, Seen};
use store::formula::{self, NewVersion};
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

fn now() -> Timestamp {
    NOW.parse().unwrap()
}

fn request() -> SheetRequest {
    SheetRequest::of_style(
        craft::style::first(),
        &usual(),
        "2026-11-27T19:00:00Z".parse().unwrap(),
    )
}

async fn kitchen_in(db: &Db) -> Result<KitchenId> {
    let new = NewKitchen {
        name: "Larchfold Halt".into(),
        usual: usual(),
        rhythm: Default::default(),
        work: Default::default(),
        reads: Reads::default(),
    };
    Ok(kitchen::add(&mut *db.acquire().await?, &new, now()).await?)
}

async fn open() -> Result<(TestDb, Db, KitchenId, Batch)> {
    let test = TestDb::new().await?;
    let db = Db::at(&test.url)?;
    store::migrate(&db).await?;
    let here = kitchen_in(&db).await?;
    let b = batch_in(&db, here, "Halt round").await?;
    Ok((test, db, here, b))
}

async fn batch_in(db: &Db, here: KitchenId, name: &str) -> Result<Batch> {
    let request = request();
    let result = work_out(&request)?;
    let new = NewBatch {
        form_key: Uuid::new_v4(),
        name,
        request: &request,
        result: &result,
        origin: Origin::Maker,
        from: None,
    };
    let mut c = db.acquire().await?;
    let code = entered::keep(&mut c, here, &new, now()).await?;
    batch::by_code(&mut c, here, &code, &BatchCache::default())
        .await?
        .context("the batch")
}

fn remark(text: String) -> NewEntry {
    NewEntry::own(now(), Seen::Remark { remark: text }.into())
}

#[tokio::test(flavor = "multi_thread")]
async fn six_writers_of_fifty_remarks_keep_three_hundred() -> Result<()> {
    let (test, db, here, b) = open().await?;
    let mut running = tokio::task::JoinSet::new();
    for writer in 0..6 {
        let db = db.clone();
        running.spawn(async move {
            let mut kept = 0;
            for i in 0..50 {
                let new = remark(format!("{writer}/{i}"));
                let done = entry::enter(&db, here, b.id, &new, now(), entry::ANY).await;
                kept += u32::from(matches!(done, Ok(EntryOutcome::New)));
            }
            kept
        });
    }
    let kept: u32 = running.join_all().await.into_iter().sum();
    let mut c = db.acquire().await?;
    let all = entry::of_batch(&mut c, here, b.id).await?;
    assert_eq!((kept, all.seen.len()), (300, 300));
    let (_, revision) = batch::revision(&mut c, here, b.id).await?.context("it")?;
    assert_eq!(revision, 300, "each raised it once");
    drop(c);
    db.close().await;
    test.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn forty_batches_at_once_are_all_kept_under_codes_of_their_own() -> Result<()> {
    let (test, db, here, _) = open().await?;
    let request = request();
    let result = work_out(&request)?;
    let mut running = tokio::task::JoinSet::new();
    for _ in 0..40 {
        let (db, request, result) = (db.clone(), request.clone(), result.clone());
        running.spawn(async move {
            let form_key = Uuid::new_v4();
            store::act!(db, c => {
                let new = NewBatch {
                    form_key,
                    name: "Halt round",
                    request: &request,
                    result: &result,
                    origin: Origin::Maker,
                    from: None,
                };
                batch::keep(c, here, &new, now()).await
            })
        });
    }
    let mut codes = Vec::new();
    for done in running.join_all().await {
        match done? {
            KeptBatch::Done(code) => codes.push(code),
            KeptBatch::Other(code) => panic!("{code}"),
        }
    }
    codes.sort();
    codes.dedup();
    assert_eq!(codes.len(), 40);
    db.close().await;
    test.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn of_eighteen_saves_of_one_formula_each_is_kept_or_told_of_the_newer_one() -> Result<()> {
    let (test, db, here, _) = open().await?;
    let f = request().formula;
    let save = |of| {
        let (db, f) = (db.clone(), f.clone());
        let form_key = Uuid::new_v4();
        async move {
            store::act!(db, c => {
                let new = NewVersion {
                    form_key,
                    name: "Halt round",
                    why: "",
                    formula: &f,
                    of,
                    origin: Origin::Maker,
                };
                formula::keep(c, here, &new, now()).await
            })
        }
    };
    let formula::KeptFormula::Done { of, .. } = save(None).await? else {
        panic!("the first is kept")
    };
    let mut running = tokio::task::JoinSet::new();
    for _ in 0..18 {
        running.spawn(save(Some((of, 1))));
    }
    let mut kept = 0;
    for done in running.join_all().await {
        match done? {
            formula::KeptFormula::Done { number, .. } => {
                kept += 1;
                assert_eq!(number, 2);
            }
            formula::KeptFormula::Stale { head } => assert_eq!(head, 2),
            other => panic!("{other:?}"),
        }
    }
    assert_eq!(kept, 1);
    db.close().await;
    test.close().await
}

#[tokio::test]
async fn a_form_sent_twice_makes_one_and_another_content_under_its_key_is_told() -> Result<()> {
    let (test, db, here, _) = open().await?;
    let mut c = db.acquire().await?;
    let (request, key) = (request(), Uuid::new_v4());
    let result = work_out(&request)?;
    let new = |name| NewBatch {
        form_key: key,
        name,
        request: &request,
        result: &result,
        origin: Origin::Maker,
        from: None,
    };
    let first = batch::keep(&mut c, here, &new("Tray"), now()).await?;
    assert_eq!(batch::keep(&mut c, here, &new("Tray"), now()).await?, first);
    let KeptBatch::Done(code) = first else {
        panic!("{first:?}")
    };
    assert_eq!(
        batch::keep(&mut c, here, &new("Another"), now()).await?,
        KeptBatch::Other(code.clone())
    );
    assert_eq!(batch::by_form(&mut c, here, key).await?, Some(code));

    let scale = |name: &str| craft::pantry::Scale {
        name: name.into(),
        reads_g: 1.0,
        carries_g: 5000.0,
    };
    let at = At::New(key);
    let Put::Done(id) = pantry::put(&mut c, here, at, &scale("Bench"), now()).await? else {
        panic!("kept")
    };
    assert_eq!(
        pantry::put(&mut c, here, at, &scale("Bench"), now()).await?,
        Put::Done(id)
    );
    assert_eq!(
        pantry::put(&mut c, here, at, &scale("Pocket"), now()).await?,
        Put::Other(id)
    );
    assert_eq!(pantry::everything(&mut c, here).await?.scales.len(), 1);
    drop(c);
    db.close().await;
    test.close().await
}

#[tokio::test]
async fn one_row_that_cannot_be_read_is_marked_and_the_others_are_shown() -> Result<()> {
    let (test, db, here, b) = open().await?;
    let other = batch_in(&db, here, "Platform tray").await?;
    let mut raw = MySqlConnection::connect(&test.url).await?;
    let run = |sql: String| AssertSqlSafe(sql);
    sqlx::raw_sql(run(format!(
        "UPDATE batch SET request = '{{\"formula\":{{}}}}' WHERE id = {}",
        b.id.0
    )))
    .execute(&mut raw)
    .await?;
    // What a newer program keeps: an entry and an item of kinds that this one does not know.
    sqlx::raw_sql(run(format!(
        "INSERT INTO entry (kitchen_id, batch_id, entry_key, kind, facts, at, recorded_at)
         VALUES ({}, {}, 'k1', 'mixed_at_speed', '{{\"speed\":2}}', NOW(3), NOW(3));
         INSERT INTO pantry_item (kitchen_id, kind, name, facts, created_at) VALUES ({0}, 'proofer', 'Spiral', '{{}}', NOW(3));
         INSERT INTO pantry_item (kitchen_id, kind, name, facts, created_at) VALUES ({0}, 'flour', 'Broken', '{{}}', NOW(3))",
        here.0, other.id.0
    )))
    .execute(&mut raw)
    .await?;
    let mut c = db.acquire().await?;
    let page = batch::live(&mut c, here, 0, 60, &BatchCache::default()).await?;
    assert_eq!(page.in_all, 2);
    let marked = page.listed.iter().filter(
        |l| matches!(l, ListedBatch::Unreadable { code, name, .. } if *code == b.code && name == "Halt round"),
    );
    assert_eq!(marked.count(), 1);
    let read = page.read();
    assert_eq!(read.len(), 1);
    assert_eq!(read[0].entries.unreadable, 1);
    let all = pantry::everything(&mut c, here).await?;
    assert_eq!((all.unreadable.len(), all.styles.len()), (1, 0));
    assert_eq!(all.unreadable[0].name, "Broken");
    drop(c);
    raw.close().await?;
    db.close().await;
    test.close().await
}

#[tokio::test]
async fn an_entry_that_was_taken_back_counts_no_longer_and_stays_known() -> Result<()> {
    let (test, db, here, b) = open().await?;
    let mut c = db.acquire().await?;
    let on = (here, b.id);
    let fridge = Seen::Reading {
        subject: craft::reading::Subject::Fridge,
        celsius: 9.0,
    };
    let key = Uuid::new_v4();
    entered::enter(&mut c, on, key, now(), fridge.into()).await?;
    let hour = jiff::SignedDuration::from_hours(1);
    let read = entry::of_places(&mut c, here, now() - hour).await?;
    assert_eq!(read.len(), 1, "it is said of a place");
    entered::see(&mut c, on, now(), Seen::TakenBack { entry: key }).await?;
    let all = entry::of_batch(&mut c, here, b.id).await?;
    assert_eq!(all.taken_back.len(), 1);
    assert!(all.seen.iter().all(|o| o.key != key));
    let read = entry::of_places(&mut c, here, now() - hour).await?;
    assert!(read.is_empty(), "nor for other batches");
    drop(c);
    db.close().await;
    test.close().await
}

#[tokio::test]
async fn closing_cancelling_and_reopening_move_a_batch() -> Result<()> {
    let (test, db, here, b) = open().await?;
    let mut c = db.acquire().await?;
    let on = (here, b.id);
    let held = BatchCache::default();
    entered::close(&mut c, on, now()).await?;
    assert_eq!(batch::finished(&mut c, here, 0, 9, &held).await?.in_all, 1);
    assert_eq!(batch::live(&mut c, here, 0, 9, &held).await?.in_all, 0);
    entered::see(&mut c, on, now(), Seen::Reopened).await?;
    assert_eq!(batch::finished(&mut c, here, 0, 9, &held).await?.in_all, 0);
    assert_eq!(batch::live(&mut c, here, 0, 9, &held).await?.in_all, 1);
    entered::see(&mut c, on, now(), Seen::Cancelled).await?;
    assert_eq!(batch::finished(&mut c, here, 0, 9, &held).await?.in_all, 0);
    assert_eq!(batch::live(&mut c, here, 0, 9, &held).await?.in_all, 0);
    let now_is = batch::by_code(&mut c, here, &b.code, &held)
        .await?
        .context("it")?;
    assert_eq!(
        (now_is.cancelled_at, now_is.finished_at),
        (Some(now()), None)
    );
    drop(c);
    db.close().await;
    test.close().await
}

/// The schema after its first four changes, as it was before entries had a table of their own, with one of each in it.
async fn before_entries(url: &str) -> Result<()> {
    let mut raw = MySqlConnection::connect(url).await?;
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/../../migrations");
    let shipped = sqlx::migrate::Migrator::new(std::path::Path::new(folder)).await?;
    let first: Vec<_> = shipped.iter().filter(|m| m.version <= 4).cloned().collect();
    let four = sqlx::migrate::Migrator {
        migrations: first.into(),
        locking: false,
        ..sqlx::migrate::Migrator::DEFAULT
    };
    four.run(&mut raw).await?;
    sqlx::raw_sql(
        "INSERT INTO kitchen (name, time_zone, altitude_m, room_c, fridge_c, tap_water_c, kitchen_scale_g, fine_scale_g, created_at, feed_key)
         VALUES ('Halt', 'UTC', 0, 20, 5, 10, 1, 0.1, NOW(3), 'secret');
         INSERT INTO batch (kitchen_id, code, form_key, name, style, serve_at, request, result, origin, created_at)
         VALUES (1, 'HR-01', 'f', 'Halt round', 'x', NOW(3), '{}', '{}', 'maker', NOW(3));
         INSERT INTO observation (kitchen_id, batch_id, entry_key, kind, subject, celsius, at, recorded_at)
         VALUES (1, 1, 'a', 'reading', 'fridge', 4.8, '2026-11-20 08:00:00', NOW(3));
         INSERT INTO observation (kitchen_id, batch_id, entry_key, kind, step_position, at, recorded_at)
         VALUES (1, 1, 'b', 'step_done', 3, '2026-11-20 09:00:00', NOW(3));
         INSERT INTO tap (kitchen_id, batch_id, entry_key, pizza, kind, base, top, at, recorded_at)
         VALUES (1, 1, 'a', 2, 'verdict', 'pale', 'right', '2026-11-20 10:00:00', NOW(3))",
    )
    .execute(&mut raw)
    .await?;
    raw.close().await?;
    Ok(())
}

async fn moved(db: &Db) -> Result<()> {
    let mut c = db.acquire().await?;
    let k = the_kitchen(&mut c).await?.context("the kitchen")?;
    assert_eq!(k.feed_hash, Some(store::people::secret_hash("secret")));
    let all = entry::of_batch(&mut c, k.id, batch::BatchId(1)).await?;
    assert_eq!((all.seen.len(), all.taps.len(), all.unreadable), (2, 1, 0));
    assert_eq!(
        all.seen[0].seen,
        Seen::Reading {
            subject: craft::reading::Subject::Fridge,
            celsius: 4.8
        }
    );
    assert_eq!(all.taps[0].pizza, 2);
    Ok(())
}

#[tokio::test]
async fn what_was_entered_before_entries_had_a_table_is_moved_whole() -> Result<()> {
    let test = TestDb::new().await?;
    before_entries(&test.url).await?;
    let db = Db::at(&test.url)?;
    assert!(!store::is_ready(&db).await?);
    store::migrate(&db).await?;
    assert!(store::is_ready(&db).await?);
    moved(&db).await?;
    db.close().await;
    test.close().await
}

#[tokio::test]
async fn a_migration_that_was_cut_off_after_any_statement_goes_on() -> Result<()> {
    let text = include_str!("../../../../migrations/0005_entries.sql");
    let bare: Vec<&str> = text
        .lines()
        .filter(|l| !l.trim_start().starts_with("--"))
        .collect();
    let bare = bare.join("\n");
    let all: Vec<&str> = bare
        .split(';')
        .map(str::trim)
        .filter(|s| !s.is_empty())
        .collect();
    for done in 0..=all.len() {
        let test = TestDb::new().await?;
        before_entries(&test.url).await?;
        let mut raw = MySqlConnection::connect(&test.url).await?;
        sqlx::raw_sql(
            "INSERT INTO _sqlx_migrations (version, description, success, checksum, execution_time) VALUES (5, 'entries', FALSE, '', -1)",
        )
        .execute(&mut raw)
        .await?;
        let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/../../migrations");
        let shipped = sqlx::migrate::Migrator::new(std::path::Path::new(folder)).await?;
        let fifth = shipped.iter().find(|m| m.version == 5).context("it")?;
        sqlx::query("UPDATE _sqlx_migrations SET checksum = ? WHERE version = 5")
            .bind(&*fifth.checksum)
            .execute(&mut raw)
            .await?;
        for s in &all[..done] {
            sqlx::raw_sql(AssertSqlSafe(s.to_string()))
                .execute(&mut raw)
                .await?;
        }
        raw.close().await?;
        let db = Db::at(&test.url)?;
        store::migrate(&db)
            .await
            .with_context(|| format!("after {done} statements"))?;
        moved(&db).await?;
        db.close().await;
        test.close().await?;
    }
    Ok(())
}

/// Bytes that stand for a picture of some kB: every value, odd ones next to each other.
fn jpeg(kb: usize) -> Vec<u8> {
    (0..kb * 1000).map(|i| (i * 7 + i / 256) as u8).collect()
}

/// A photo of pizza 2, and its key.
async fn photographed(db: &Db, here: KitchenId, batch: store::BatchId) -> Result<Uuid> {
    let seen = Seen::Photo {
        pizza: 2,
        of: craft::photo::PhotoOf::Crumb,
    };
    let new = NewEntry::own(now(), seen.into());
    let picture = store::photo::Picture {
        width: 1280,
        height: 960,
        picture: jpeg(200),
        small: jpeg(12),
    };
    // Enough of them that no statement of a backup may hold all.
    for n in 0..24 {
        let more = NewEntry {
            key: Uuid::from_u128(new.key.as_u128() ^ n),
            ..new.clone()
        };
        let kept =
            store::photo::enter(db, here, batch, (&more, &picture), now(), entry::ANY).await?;
        assert_eq!(kept, EntryOutcome::New);
    }
    let again = store::photo::enter(db, here, batch, (&new, &picture), now(), entry::ANY).await?;
    assert_eq!(again, EntryOutcome::Before);
    Ok(new.key)
}

async fn picture(c: &mut MySqlConnection, id: KitchenId, code: &str, key: Uuid) -> Result<Vec<u8>> {
    let found = store::photo::by_entry(c, id, code, key, false).await?;
    found.context("the picture")
}

#[tokio::test(flavor = "multi_thread")]
async fn a_backup_under_load_is_whole_and_comes_back_exactly() -> Result<()> {
    let (test, db, here, b) = open().await?;
    let mut c = db.acquire().await?;
    let odd = Seen::Remark {
        remark: "“öl” 🍕\n\\ ' \" \u{0}".into(),
    };
    let reading = Seen::Reading {
        subject: craft::reading::Subject::Dough,
        celsius: 23.123456789012345,
    };
    for seen in [odd.clone(), reading.clone()] {
        entered::see(&mut c, (here, b.id), now(), seen).await?;
    }
    let shot = photographed(&db, here, b.id).await?;
    kitchen::renew_feed(&mut c, here, "secret").await?;
    drop(c);
    // Others go on writing meanwhile.
    let writer = {
        let db = db.clone();
        tokio::spawn(async move {
            for i in 0..60 {
                let _ =
                    entry::enter(&db, here, b.id, &remark(format!("{i}")), now(), entry::ANY).await;
            }
        })
    };
    let mut file = Vec::new();
    let rows = store::backup::backup(&db, &mut file).await?;
    writer.await?;
    assert_eq!(store::backup::check(&file[..])?, rows);
    // Into the same database only when told; into an empty one at once.
    assert!(store::backup::restore(&db, &file[..], false).await.is_err());
    let empty = TestDb::new().await?;
    let other = Db::at(&empty.url)?;
    assert_eq!(
        store::backup::restore(&other, &file[..], false).await?,
        rows
    );
    let mut c = other.acquire().await?;
    let k = the_kitchen(&mut c).await?.context("the kitchen")?;
    assert_eq!(k.feed_hash, Some(store::people::secret_hash("secret")));
    let again = batch::by_code(&mut c, k.id, &b.code, &BatchCache::default())
        .await?
        .context("it")?;
    assert_eq!(again.sheet, b.sheet);
    let seen: Vec<_> = again.entries.seen.iter().map(|o| &o.seen).collect();
    assert!(seen.contains(&&odd) && seen.contains(&&reading));
    assert_eq!(picture(&mut c, k.id, &b.code, shot).await?, jpeg(200));
    // As many as the revision counts: one view of all tables.
    assert_eq!(again.entries.seen.len() as u64, again.revision);
    drop(c);
    // Another epoch: whoever holds copies sees it.
    let first = the_kitchen(&mut *db.acquire().await?)
        .await?
        .context("it")?;
    assert_ne!(first.epoch, k.epoch);
    store::backup::restore(&db, &file[..], true).await?;
    assert_ne!(
        the_kitchen(&mut *db.acquire().await?)
            .await?
            .context("it")?
            .epoch,
        first.epoch
    );
    // Cut off, changed, or something else: told, and nothing is lost.
    assert!(store::backup::check(&file[..file.len() / 2]).is_err());
    let mut changed = file.clone();
    let middle = changed.len() / 2;
    changed[middle] ^= 0x55;
    assert!(store::backup::check(&changed[..]).is_err());
    assert!(store::backup::check(&b"no backup"[..]).is_err());
    db.close().await;
    other.close().await;
    empty.close().await?;
    test.close().await
}

#[tokio::test]
async fn a_kitchen_goes_out_as_an_open_file_and_comes_back_exactly() -> Result<()> {
    let (test, db, here, b) = open().await?;
    let mut c = db.acquire().await?;
    let odd = Seen::Remark {
        remark: "“öl” 🍕\n\\ ' \" end".into(),
    };
    let read = Seen::Reading {
        subject: craft::reading::Subject::Dough,
        celsius: 23.123456789012345,
    };
    for seen in [odd.clone(), read.clone()] {
        entered::see(&mut c, (here, b.id), now(), seen).await?;
    }
    let shot = photographed(&db, here, b.id).await?;
    entered::close(&mut c, (here, b.id), now()).await?;
    kitchen::renew_feed(&mut c, here, "secret").await?;
    // Another kitchen on the same database stays at home.
    let other_kitchen = kitchen_in(&db).await?;
    batch_in(&db, other_kitchen, "Elsewhere").await?;
    let mut file = std::io::Cursor::new(Vec::new());
    let rows = store::takeout::export(&db, here, &mut file).await?;
    assert!(
        store::takeout::import(&db, &mut file).await.is_err(),
        "not beside another"
    );
    let empty = TestDb::new().await?;
    let other = Db::at(&empty.url)?;
    assert_eq!(store::takeout::import(&other, &mut file).await?, rows);
    let mut there = other.acquire().await?;
    let (was, is) = (
        kitchen::by_id(&mut c, here).await?.context("it")?,
        the_kitchen(&mut there).await?.context("it")?,
    );
    assert_eq!(
        (&is.usual, &is.reads, &is.rhythm),
        (&was.usual, &was.reads, &was.rhythm)
    );
    assert_eq!(is.feed_hash, None, "a secret does not go along");
    let held = BatchCache::default();
    let again = batch::by_code(&mut there, is.id, &b.code, &held)
        .await?
        .context("it")?;
    let first = batch::by_code(&mut c, here, &b.code, &held)
        .await?
        .context("it")?;
    assert_eq!(
        (again.sheet, again.finished_at),
        (first.sheet, first.finished_at)
    );
    let seen: Vec<_> = again.entries.seen.iter().map(|o| &o.seen).collect();
    assert!(seen.contains(&&odd) && seen.contains(&&read), "{seen:?}");
    assert_eq!(picture(&mut there, is.id, &b.code, shot).await?, jpeg(200));
    assert_eq!(
        batch::finished(&mut there, is.id, 0, 9, &held)
            .await?
            .in_all,
        1
    );
    // What is no kitchen is told, and makes none.
    let none = TestDb::new().await?;
    let nowhere = Db::at(&none.url)?;
    for bad in [&b"nonsense"[..], &file.get_ref()[..200], b""] {
        let mut bad = std::io::Cursor::new(bad.to_vec());
        assert!(store::takeout::import(&nowhere, &mut bad).await.is_err());
    }
    assert!(the_kitchen(&mut *nowhere.acquire().await?).await?.is_none());
    drop((c, there));
    for d in [db, other, nowhere] {
        d.close().await;
    }
    none.close().await?;
    empty.close().await?;
    test.close().await
}
