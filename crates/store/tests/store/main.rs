//! The store on a real MariaDB, one database per test.

mod batches;
mod entered;
mod fire;
mod kitchens;
mod ledger;
mod library;
mod pantry_items;
mod trust;

use anyhow::Result;
use craft::fact;
use craft::fact::Fact;
use craft::fire::{Tap, TapKind, Verdict};
use craft::formula::{Formula, Scales};
use craft::pantry::{Flour, Scale};
use craft::reading::Subject;
use craft::sheet::{SheetRequest, SheetResult, work_out};
use entered::usual;
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
