//! Takeout: one kitchen as an open file, and a kitchen from such a file.
//!
//! A zip with `kitchen.json` (what the file is, and the kitchen) and a file of JSON lines for each kind of row, in the order in
//! which they need each other. Values have their own types: numbers, texts, instants as RFC 3339, formulas and sheets as JSON.
//! `docs/formats.md` says what each holds.

use crate::backup::BackupError;
use crate::{Db, KitchenId, Result, StoreError};
use futures_util::TryStreamExt;
use serde_json::{Map, Value, json};
use sqlx::{AssertSqlSafe, Connection, Executor, MySqlConnection, Row};
use std::io::{BufRead, BufReader, Read, Seek, Write};
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

const FORMAT: &str = "slow-rise-kitchen";
const VERSION: u64 = 1;
/// The kinds of rows, those that others point to first.
const KINDS: [&str; 10] = [
    "pantry_item",
    "formula",
    "formula_version",
    "batch",
    "batch_plan",
    "entry",
    "stock_use",
    "trial",
    "practised",
    "photo",
];
/// What files of former programs do not have.
const CAME_LATER: [&str; 4] = ["stock_use", "trial", "practised", "photo"];
/// A batch's plan is some tens of kB.
const LONGEST_LINE: u64 = 16 * 1024 * 1024;
/// Secrets and what belongs to this database alone stay here.
const LEFT_OUT: [&str; 4] = ["feed_key", "feed_hash", "kitchen_id", "by_person"];

fn unfit(what: impl Into<String>) -> BackupError {
    BackupError::Unfit(what.into())
}

/// How a column is written.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Written {
    Number,
    Text,
    Instant,
    Json,
    /// In base64.
    Bytes,
}

struct TakeoutColumn {
    name: String,
    written: Written,
}

/// The columns of a table that go along; the names are this program's own schema.
async fn columns(db: &mut MySqlConnection, table: &str) -> Result<Vec<TakeoutColumn>> {
    let all = sqlx::query_as::<_, (String, String)>(
        "SELECT column_name, data_type FROM information_schema.columns
         WHERE table_schema = DATABASE() AND table_name = ? ORDER BY ordinal_position",
    )
    .bind(table)
    .fetch_all(db)
    .await?;
    Ok(all
        .into_iter()
        .filter(|(name, _)| !LEFT_OUT.contains(&name.as_str()))
        .map(|(name, kind)| TakeoutColumn {
            written: match kind.as_str() {
                "datetime" => Written::Instant,
                "longtext" => Written::Json,
                k if k.ends_with("blob") => Written::Bytes,
                k if k.ends_with("int") || k == "double" => Written::Number,
                _ => Written::Text,
            },
            name,
        })
        .collect())
}

fn to_json(column: &TakeoutColumn, text: Option<String>) -> Value {
    let Some(text) = text else { return Value::Null };
    match column.written {
        Written::Number => serde_json::from_str(&text).unwrap_or(Value::String(text)),
        // What cannot be read goes along as it is.
        Written::Json => serde_json::from_str(&text).unwrap_or(Value::String(text)),
        Written::Instant => Value::String(format!("{}Z", text.replace(' ', "T"))),
        Written::Text => Value::String(text),
        // MariaDB breaks it into lines.
        Written::Bytes => Value::String(text.replace('\n', "")),
    }
}

fn to_text(
    column: &TakeoutColumn,
    value: &Value,
) -> std::result::Result<Option<String>, BackupError> {
    let wrong = || unfit(format!("{} cannot be {value}", column.name));
    Ok(match (column.written, value) {
        (_, Value::Null) => None,
        (Written::Number, Value::Number(n)) => Some(n.to_string()),
        (Written::Instant, Value::String(s)) => {
            s.parse::<jiff::Timestamp>().map_err(|_| wrong())?;
            Some(s.trim_end_matches('Z').replace('T', " "))
        }
        (Written::Text | Written::Bytes, Value::String(s)) => Some(s.clone()),
        (Written::Json, v) => Some(v.to_string()),
        _ => return Err(wrong()),
    })
}

fn select(table: &str, columns: &[TakeoutColumn], of: &str) -> String {
    let all: Vec<String> = columns
        .iter()
        .map(|c| match c.written {
            Written::Bytes => format!("TO_BASE64(`{}`)", c.name),
            _ => format!("CONVERT(`{}` USING utf8mb4)", c.name),
        })
        .collect();
    format!(
        "SELECT {} FROM `{table}` WHERE {of} = ? ORDER BY id",
        all.join(", ")
    )
}

fn object(columns: &[TakeoutColumn], row: &sqlx::mysql::MySqlRow) -> Result<Map<String, Value>> {
    let mut out = Map::new();
    for (i, c) in columns.iter().enumerate() {
        out.insert(
            c.name.clone(),
            to_json(c, row.try_get(i).map_err(StoreError::from)?),
        );
    }
    Ok(out)
}

/// Writes a kitchen as it is at one moment; how many rows.
pub async fn export(
    db: &Db,
    kitchen: KitchenId,
    to: impl Write + Seek,
) -> std::result::Result<u64, BackupError> {
    let mut c = db.acquire().await?;
    c.execute("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ")
        .await?;
    c.execute("START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY")
        .await?;
    let mut zip = ZipWriter::new(to);
    let options = SimpleFileOptions::default().large_file(true);
    let broken = |e: zip::result::ZipError| unfit(e.to_string());
    let cols = columns(&mut c, "kitchen").await?;
    let row = sqlx::query(AssertSqlSafe(select("kitchen", &cols, "id")))
        .bind(kitchen.0)
        .fetch_one(&mut *c)
        .await?;
    let head = json!({"format": FORMAT, "version": VERSION, "kitchen": object(&cols, &row)?});
    zip.start_file("kitchen.json", options).map_err(broken)?;
    zip.write_all(head.to_string().as_bytes())?;
    let mut rows = 0;
    for table in KINDS {
        let cols = columns(&mut c, table).await?;
        zip.start_file(format!("{table}.jsonl"), options)
            .map_err(broken)?;
        let sql = AssertSqlSafe(select(table, &cols, "kitchen_id"));
        let mut found = sqlx::query(sql).bind(kitchen.0).fetch(&mut *c);
        while let Some(row) = found.try_next().await? {
            let line = Value::Object(object(&cols, &row)?).to_string();
            zip.write_all(line.as_bytes())?;
            zip.write_all(b"\n")?;
            rows += 1;
        }
    }
    c.execute("ROLLBACK").await?;
    zip.finish().map_err(broken)?.flush()?;
    Ok(rows)
}

/// Makes a kitchen of a file, in a database that holds none: its rows keep their numbers. All of it, or nothing.
///
/// Errors: a sentence for a file that is none of ours, damaged, or of another version; a database that holds a kitchen.
pub async fn import(db: &Db, from: impl Read + Seek) -> std::result::Result<u64, BackupError> {
    crate::migrate(db).await?;
    let broken = |e: zip::result::ZipError| unfit(format!("this is no kitchen of Slow Rise: {e}"));
    let mut zip = ZipArchive::new(from).map_err(broken)?;
    let mut head = String::new();
    zip.by_name("kitchen.json")
        .map_err(broken)?
        .take(LONGEST_LINE)
        .read_to_string(&mut head)?;
    let head: Value =
        serde_json::from_str(&head).map_err(|e| unfit(format!("kitchen.json: {e}")))?;
    if head["format"] != FORMAT || head["version"] != VERSION {
        return Err(unfit(format!(
            "kitchen.json is not {FORMAT} of version {VERSION}"
        )));
    }
    let mut c = db.acquire().await?;
    let mut tx = c.begin().await?;
    let there: i64 = sqlx::query_scalar("SELECT COUNT(*) FROM kitchen")
        .fetch_one(&mut *tx)
        .await?;
    if there > 0 {
        return Err(unfit(
            "the database holds a kitchen already: import into an empty one",
        ));
    }
    let cols = columns(&mut tx, "kitchen").await?;
    put(&mut tx, "kitchen", &cols, &head["kitchen"], None).await?;
    let id = head["kitchen"]["id"]
        .as_u64()
        .ok_or_else(|| unfit("kitchen.json: no id"))?;
    let mut rows = 0;
    for table in KINDS {
        let cols = columns(&mut tx, table).await?;
        let name = format!("{table}.jsonl");
        if CAME_LATER.contains(&table) && zip.index_for_name(&name).is_none() {
            continue;
        }
        // Nothing of the zip is held across a statement: lines are read first.
        let mut at = 0;
        loop {
            let lines = some_lines(&mut zip, &name, at)?;
            if lines.is_empty() {
                break;
            }
            at += lines.len();
            for line in &lines {
                let row: Value = serde_json::from_str(line)
                    .map_err(|e| unfit(format!("{name}, line {}: {e}", rows + 1)))?;
                put(&mut tx, table, &cols, &row, Some(id)).await?;
                rows += 1;
            }
        }
    }
    crate::stock::catch_up(&mut tx).await?;
    crate::words::catch_up(&mut tx).await?;
    crate::people::person::give_owners(&mut tx, jiff::Timestamp::now()).await?;
    crate::kitchen::begin_anew(&mut tx).await?;
    tx.commit().await?;
    Ok(rows)
}

/// Lines that are read at once, and bytes of them.
const SOME: usize = 20_000;
const SOME_BYTES: usize = 32 * 1024 * 1024;

fn some_lines(
    zip: &mut ZipArchive<impl Read + Seek>,
    name: &str,
    skip: usize,
) -> std::result::Result<Vec<String>, BackupError> {
    let file = zip
        .by_name(name)
        .map_err(|e| unfit(format!("{name}: {e}")))?;
    let mut lines = BufReader::new(file);
    let mut out = Vec::new();
    let (mut n, mut bytes) = (0, 0);
    while out.len() < SOME && bytes < SOME_BYTES {
        let mut line = String::new();
        let read = (&mut lines).take(LONGEST_LINE).read_line(&mut line)?;
        if read == 0 {
            break;
        }
        if !line.ends_with('\n') {
            return Err(unfit(format!("{name} is cut off")));
        }
        n += 1;
        if n > skip {
            bytes += line.len();
            out.push(line);
        }
    }
    Ok(out)
}

async fn put(
    db: &mut MySqlConnection,
    table: &str,
    columns: &[TakeoutColumn],
    row: &Value,
    kitchen: Option<u64>,
) -> std::result::Result<(), BackupError> {
    // Columns that the file does not know keep their usual value; fields that the table does not know are passed over.
    let known: Vec<&TakeoutColumn> = columns.iter().filter(|c| !row[&c.name].is_null()).collect();
    let mut names: Vec<String> = known.iter().map(|c| format!("`{}`", c.name)).collect();
    let mut marks: Vec<&str> = known
        .iter()
        .map(|c| match c.written {
            Written::Bytes => "FROM_BASE64(?)",
            _ => "?",
        })
        .collect();
    if kitchen.is_some() {
        names.push("kitchen_id".into());
        marks.push("?");
    }
    let sql = format!(
        "INSERT INTO `{table}` ({}) VALUES ({})",
        names.join(", "),
        marks.join(", ")
    );
    let mut query = sqlx::query(AssertSqlSafe(sql));
    for c in known {
        query = query.bind(to_text(c, &row[&c.name])?);
    }
    if let Some(id) = kitchen {
        query = query.bind(id);
    }
    query.execute(db).await?;
    Ok(())
}
