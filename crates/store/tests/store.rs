//! The store on a real MariaDB, one database per test.

mod entered;

use anyhow::Result;
use craft::fact;
use craft::fact::Fact;
use craft::fire::{Tap, TapKind, Verdict};
use craft::formula::{Formula, Scales};
use craft::pantry::{Flour, Scale};
use craft::reading::Subject;
use craft::sheet::{KitchenUsual, SheetRequest, SheetResult, work_out};
use jiff::Timestamp;
use std::sync::LazyLock;
use store::batch::{self, Batch, NewBatch, Origin};
use store::entry::{self, EntryOutcome, Seen};
use store::formula::{self, Find, FormulaId, KeptFormula, NewVersion};
use store::kitchen::{self, NewKitchen, Reads};
use store::pantry::{self, At, Put};
use store::{BatchCache, Db, KitchenId};
use testbed::db::TestDb;
use uuid::Uuid;

fn at(text: &str) -> Timestamp {
    text.parse().unwrap()
}

fn usual() -> KitchenUsual {
    KitchenUsual {
        time_zone: "Europe/London".into(),
        altitude_m: 310.0,
        room_c: 19.5,
        fridge_c: 4.5,
        tap_water_c: 9.5,
        scales: Scales::default(),
    }
}

static SHEET: LazyLock<(SheetRequest, SheetResult)> = LazyLock::new(|| {
    let request =
        SheetRequest::of_style(craft::style::first(), &usual(), at("2026-11-27T19:00:00Z"));
    let result = work_out(&request).unwrap();
    (request, result)
});

fn sheet(name: &str) -> NewBatch<'_> {
    NewBatch {
        form_key: Uuid::new_v4(),
        name,
        request: &SHEET.0,
        result: &SHEET.1,
        origin: Origin::Maker,
        from: None,
    }
}

async fn open() -> Result<(TestDb, Db, KitchenId)> {
    let db = TestDb::new().await?;
    let pool = Db::at(&db.url)?;
    store::migrate(&pool).await?;
    let id = add_kitchen(&pool, "Larchfold Halt").await?;
    Ok((db, pool, id))
}

async fn add_kitchen(pool: &Db, name: &str) -> Result<KitchenId> {
    let new = NewKitchen {
        name: name.into(),
        usual: usual(),
        rhythm: Default::default(),
        work: Default::default(),
        reads: Reads::default(),
    };
    Ok(kitchen::add(
        &mut *pool.acquire().await?,
        &new,
        at("2026-11-23T07:00:00Z"),
    )
    .await?)
}

const NOW: &str = "2026-11-23T07:00:00Z";

/// The first pizza goes in.
fn in_at(text: &str) -> Tap {
    Tap {
        pizza: 1,
        at: at(text),
        kind: TapKind::In,
    }
}

async fn live(
    c: &mut store::MySqlConnection,
    id: KitchenId,
    held: &BatchCache,
) -> Result<Vec<Batch>> {
    Ok(batch::live(c, id, 0, 60, held).await?.read())
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
    let k = kitchen::first(&mut *pool.acquire().await?).await?.unwrap();
    assert_eq!(
        (k.id, k.name.as_str(), &k.usual),
        (id, "Larchfold Halt", &usual())
    );
    pool.close().await;
    db.close().await
}

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

fn version<'a>(name: &'a str, f: &'a Formula, of: Option<(FormulaId, u32)>) -> NewVersion<'a> {
    NewVersion {
        form_key: Uuid::new_v4(),
        name,
        why: "a point more water",
        formula: f,
        of,
        origin: Origin::Maker,
    }
}

fn done(kept: KeptFormula) -> (FormulaId, u32) {
    match kept {
        KeptFormula::Done { of, number } => (of, number),
        other => panic!("{other:?}"),
    }
}

#[tokio::test]
async fn versions_are_added_and_never_overwritten() -> Result<()> {
    let (db, pool, here) = open().await?;
    let mut c = pool.acquire().await?;
    let first = SHEET.0.formula.clone();
    let second = Formula {
        hydration_percent: 63.0,
        ..first.clone()
    };
    let new = version("Halt round", &first, None);
    let (id, n) = done(formula::keep(&mut c, here, &new, at(NOW)).await?);
    assert_eq!(n, 1);
    // The same form again is the same version.
    assert_eq!(
        done(formula::keep(&mut c, here, &new, at(NOW)).await?),
        (id, 1)
    );
    assert_eq!(
        done(
            formula::keep(
                &mut c,
                here,
                &version("Halt round", &second, Some((id, 1))),
                at(NOW)
            )
            .await?
        ),
        (id, 2)
    );
    // Somebody who still looks at version 1 is told, and nothing is written.
    let late = formula::keep(
        &mut c,
        here,
        &version("Other name", &first, Some((id, 1))),
        at(NOW),
    )
    .await?;
    assert_eq!(late, KeptFormula::Stale { head: 2 });
    let all = formula::versions(&mut c, here, id).await?;
    assert_eq!(all.iter().map(|v| v.number).collect::<Vec<_>>(), [2, 1]);
    assert_eq!((&all[0].formula, &all[1].formula), (&second, &first));
    let head = formula::version(&mut c, here, id, None).await?.unwrap();
    assert_eq!((head.number, head.name.as_str()), (2, "Halt round"));
    assert!(formula::version(&mut c, here, id, Some(9)).await?.is_none());
    // A batch points to the version that it was made from.
    let kept = entered::keep(
        &mut c,
        here,
        &NewBatch {
            from: Some(all[1].id),
            ..sheet("From one")
        },
        at(NOW),
    )
    .await?;
    let b = batch::by_code(&mut c, here, &kept, &BatchCache::default())
        .await?
        .unwrap();
    assert_eq!(
        batch::made_from(&mut c, here, b.id).await?,
        Some((id.0, 1, "Halt round".into()))
    );
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn the_library_is_searched_by_letters_and_shows_what_was_put_away_apart() -> Result<()> {
    let (db, pool, here) = open().await?;
    let mut c = pool.acquire().await?;
    let f = SHEET.0.formula.clone();
    let (id, _) =
        done(formula::keep(&mut c, here, &version("100% spelt", &f, None), at(NOW)).await?);
    formula::keep(&mut c, here, &version("Halt_round", &f, None), at(NOW)).await?;
    let names =
        async |c: &mut store::MySqlConnection, text: &str, archived: bool| -> Result<Vec<String>> {
            let find = Find {
                text: text.into(),
                archived,
                most: 50,
                ..Find::default()
            };
            Ok(formula::list(c, here, &find)
                .await?
                .listed
                .into_iter()
                .map(|l| l.name)
                .collect())
        };
    assert_eq!(names(&mut c, "", false).await?.len(), 2);
    // A per cent sign and an underscore are letters.
    assert_eq!(names(&mut c, "0%", false).await?, ["100% spelt"]);
    assert_eq!(names(&mut c, "t_r", false).await?, ["Halt_round"]);
    assert_eq!(names(&mut c, "POINT MORE", false).await?.len(), 2);
    assert!(names(&mut c, "' OR 1=1 --", false).await?.is_empty());
    formula::archive(&mut c, here, id, Some(at(NOW))).await?;
    assert_eq!(names(&mut c, "", false).await?, ["Halt_round"]);
    assert_eq!(names(&mut c, "", true).await?, ["100% spelt"]);
    assert!(formula::is_archived(&mut c, here, id).await?);
    formula::archive(&mut c, here, id, None).await?;
    assert_eq!(names(&mut c, "", false).await?.len(), 2);
    // Another kitchen sees nothing of it.
    let other = add_kitchen(&pool, "Next door").await?;
    assert!(formula::list(&mut c, other, &Find::default()).await?.in_all == 0);
    assert!(formula::version(&mut c, other, id, None).await?.is_none());
    drop(c);
    pool.close().await;
    db.close().await
}

fn flour(name: &str, w: f64) -> Flour {
    Flour {
        name: name.into(),
        facts: craft::flour::FlourFacts::of_w(w),
        milling: String::new(),
        moisture_percent: None,
        allergens: "gluten".into(),
        price_per_kg: Some(1.2),
        bags: vec![],
    }
}

#[tokio::test]
async fn a_stale_change_in_the_pantry_is_refused_and_shown() -> Result<()> {
    let (db, pool, here) = open().await?;
    let mut c = pool.acquire().await?;
    let Put::Done(id) = pantry::put(
        &mut c,
        here,
        At::New(Uuid::new_v4()),
        &flour("Quernside", 290.0),
        at(NOW),
    )
    .await?
    else {
        panic!("a new one is kept")
    };
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
    let Put::Done(id) = pantry::put(
        &mut c,
        here,
        At::New(Uuid::new_v4()),
        &flour("Quernside", 290.0),
        at(NOW),
    )
    .await?
    else {
        panic!("a new one is kept")
    };
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
    let k = kitchen::first(&mut c).await?.unwrap();
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
    let done = batch::replan(&mut c, id, b.id, &new(0), later).await?;
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
    assert_eq!(left, [(later, fewer.clone())]);
    // What was kept before there were facts stands as it was written.
    sqlx::query("UPDATE batch_plan SET why = 'guests are late'")
        .execute(&mut *c)
        .await?;
    let left = batch::left_plans(&mut c, id, b.id).await?;
    assert_eq!(left, [(later, Fact::as_written("guests are late"))]);
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

#[tokio::test]
async fn a_feed_has_an_address_from_when_it_is_asked_for_and_another_when_it_is_renewed()
-> Result<()> {
    let (db, pool, id) = open().await?;
    let mut c = pool.acquire().await?;
    let hash = async |c: &mut store::MySqlConnection| -> Result<Option<[u8; 32]>> {
        Ok(kitchen::first(c).await?.unwrap().feed_hash)
    };
    assert_eq!(hash(&mut c).await?, None);
    for k in ["first-key", "second-key"] {
        kitchen::renew_feed(&mut c, id, k).await?;
        assert_eq!(hash(&mut c).await?, Some(kitchen::feed_hash(k)));
    }
    drop(c);
    pool.close().await;
    db.close().await
}
