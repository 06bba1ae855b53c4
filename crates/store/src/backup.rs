//! Backup: the whole database as one file, consistent while others write, and back again.
//!
//! The file is gzip; inside, lines of JSON. The first says what it is, by which schema, and the columns of each table; then a
//! line for each row, `[table, [values]]`, values as text as MariaDB writes them, bytes in hex; the last counts the rows and
//! holds the hash of all lines before it. So it is written and read as a stream, and one that was cut off is known.

use crate::{Db, Result, StoreError, migration};
use flate2::Compression;
use flate2::read::GzDecoder;
use flate2::write::GzEncoder;
use futures_util::TryStreamExt;
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};
use sqlx::{AssertSqlSafe, Connection, Executor, MySqlConnection, Row};
use std::io::{BufRead, BufReader, Read, Write};

const FORMAT: &str = "slow-rise-backup";
const VERSION: u32 = 1;
/// Rows of one statement.
const AT_ONCE: usize = 100;
/// Bytes of one statement: a server takes 16 MB at most, and a photo comes in hex.
const BYTES_AT_ONCE: usize = 4_000_000;
/// Longest line that is read back, bytes: a batch's plan is some tens of kB.
const LONGEST: usize = 64 * 1024 * 1024;

/// The tables, those that others point to first.
const TABLES: [&str; 17] = [
    "site",
    "kitchen",
    "person",
    "member",
    "formula",
    "formula_version",
    "pantry_item",
    "batch",
    "batch_plan",
    "entry",
    "stock_use",
    "batch_word",
    "trial",
    "practised",
    "photo",
    "made",
    "pass",
];
/// What is of the server that runs: after a restore everybody signs in again.
const EMPTIED: [&str; 2] = ["session", "wrong_try"];

/// What can be wrong with a backup.
#[derive(Debug, thiserror::Error)]
pub enum BackupError {
    #[error(transparent)]
    Store(#[from] StoreError),
    #[error("the file: {0}")]
    File(#[from] std::io::Error),
    #[error("{0}")]
    Unfit(String),
}

impl From<sqlx::Error> for BackupError {
    fn from(e: sqlx::Error) -> Self {
        BackupError::Store(e.into())
    }
}

fn unfit(what: impl Into<String>) -> BackupError {
    BackupError::Unfit(what.into())
}

#[derive(Debug, Serialize, Deserialize)]
struct BackupHead {
    format: String,
    version: u32,
    /// The number of the schema's last change.
    schema: i64,
    tables: Vec<BackupTable>,
}

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
struct BackupTable {
    name: String,
    columns: Vec<BackupColumn>,
}

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
struct BackupColumn {
    name: String,
    /// Kept in hex.
    bytes: bool,
}

#[derive(Debug, Serialize, Deserialize)]
struct End {
    rows: u64,
    sha256: String,
}

type RowLine = (usize, Vec<Option<String>>);

async fn tables(db: &mut MySqlConnection) -> Result<Vec<BackupTable>> {
    let mut out = Vec::new();
    for name in TABLES {
        let columns = sqlx::query_as::<_, (String, String)>(
            "SELECT column_name, data_type FROM information_schema.columns
             WHERE table_schema = DATABASE() AND table_name = ? ORDER BY ordinal_position",
        )
        .bind(name)
        .fetch_all(&mut *db)
        .await?;
        out.push(BackupTable {
            name: name.into(),
            columns: columns
                .into_iter()
                .map(|(name, kind)| BackupColumn {
                    bytes: kind.ends_with("binary") || kind.ends_with("blob"),
                    name,
                })
                .collect(),
        });
    }
    Ok(out)
}

/// Lines with their hash.
struct HashedLines<W: Write> {
    out: GzEncoder<W>,
    hash: Sha256,
}

impl<W: Write> HashedLines<W> {
    fn put<T: Serialize>(&mut self, value: &T) -> std::result::Result<(), BackupError> {
        let mut line = serde_json::to_vec(value).map_err(|e| unfit(e.to_string()))?;
        line.push(b'\n');
        self.hash.update(&line);
        Ok(self.out.write_all(&line)?)
    }
}

/// Writes the whole database as it is at one moment; how many rows it holds.
pub async fn backup(db: &Db, to: impl Write) -> std::result::Result<u64, BackupError> {
    let mut c = db.acquire().await?;
    if !migration::is_ready(db).await? {
        return Err(unfit(
            "the schema is not up to date: start the program once, then try again",
        ));
    }
    // One view of all tables, whatever is entered meanwhile.
    c.execute("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ")
        .await?;
    c.execute("START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY")
        .await?;
    let tables = tables(&mut c).await?;
    let mut lines = HashedLines {
        out: GzEncoder::new(to, Compression::default()),
        hash: Sha256::new(),
    };
    lines.put(&BackupHead {
        format: FORMAT.into(),
        version: VERSION,
        schema: migration::needed(),
        tables: tables.clone(),
    })?;
    let mut rows = 0;
    for (i, table) in tables.iter().enumerate() {
        let columns: Vec<String> = table
            .columns
            .iter()
            .map(|c| match c.bytes {
                true => format!("HEX(`{}`)", c.name),
                false => format!("CONVERT(`{}` USING utf8mb4)", c.name),
            })
            .collect();
        let sql = format!("SELECT {} FROM `{}`", columns.join(", "), table.name);
        let mut found = sqlx::query(AssertSqlSafe(sql)).fetch(&mut *c);
        while let Some(row) = found.try_next().await? {
            let values: std::result::Result<Vec<Option<String>>, sqlx::Error> =
                (0..table.columns.len()).map(|n| row.try_get(n)).collect();
            lines.put(&(i, values?))?;
            rows += 1;
        }
    }
    c.execute("ROLLBACK").await?;
    let end = End {
        rows,
        sha256: hex(&lines.hash.clone().finalize()),
    };
    lines.put(&end)?;
    lines.out.finish()?.flush()?;
    Ok(rows)
}

fn hex(bytes: &[u8]) -> String {
    bytes.iter().map(|b| format!("{b:02x}")).collect()
}

/// Reads lines one by one, each of a length that can be.
struct BackupReader<R: Read>(BufReader<GzDecoder<R>>);

impl<R: Read> BackupReader<R> {
    fn of(from: R) -> Self {
        BackupReader(BufReader::new(GzDecoder::new(from)))
    }
    fn next(&mut self) -> std::result::Result<Option<Vec<u8>>, BackupError> {
        let mut line = Vec::new();
        let n = (&mut self.0)
            .take(LONGEST as u64)
            .read_until(b'\n', &mut line)?;
        match (n, line.last()) {
            (0, _) => Ok(None),
            (_, Some(b'\n')) => Ok(Some(line)),
            _ => Err(unfit("the file is cut off, or no backup")),
        }
    }
}

/// Reads a file to its end without keeping anything of it, and says what it holds.
///
/// Errors: a file that is no backup, of another format or schema, cut off or changed.
pub fn check(from: impl Read) -> std::result::Result<u64, BackupError> {
    let mut lines = BackupReader::of(from);
    let mut hash = Sha256::new();
    let head = lines.next()?.ok_or_else(|| unfit("the file is empty"))?;
    read_head(&head)?;
    hash.update(&head);
    let mut rows = 0;
    while let Some(line) = lines.next()? {
        if let Ok(end) = serde_json::from_slice::<End>(&line) {
            if lines.next()?.is_some() {
                return Err(unfit("something stands after the end of the backup"));
            }
            let found = hex(&hash.finalize());
            return match end.rows == rows && end.sha256 == found {
                true => Ok(rows),
                false => Err(unfit(
                    "the backup was changed or damaged: its sum does not fit",
                )),
            };
        }
        serde_json::from_slice::<RowLine>(&line).map_err(|_| unfit("a line cannot be read"))?;
        hash.update(&line);
        rows += 1;
    }
    Err(unfit("the backup is cut off: its end is missing"))
}

fn read_head(line: &[u8]) -> std::result::Result<BackupHead, BackupError> {
    let head: BackupHead =
        serde_json::from_slice(line).map_err(|_| unfit("this is no backup of Slow Rise"))?;
    if head.format != FORMAT || head.version != VERSION {
        return Err(unfit(format!(
            "this is {} of version {}; this program reads {FORMAT} of version {VERSION}",
            head.format, head.version
        )));
    }
    let needed = migration::needed();
    if head.schema != needed {
        return Err(unfit(format!(
            "the backup is of schema {}, this program's is {needed}: restore it with the program that made it, and let the newer one bring it up to date",
            head.schema
        )));
    }
    Ok(head)
}

/// Puts a backup that was checked into a database; how many rows. All of it, or nothing.
///
/// Errors: as [`check`]; a database that holds a kitchen, unless `replace`.
pub async fn restore(
    db: &Db,
    from: impl Read,
    replace: bool,
) -> std::result::Result<u64, BackupError> {
    crate::migrate(db).await?;
    let mut c = db.acquire().await?;
    let here = tables(&mut c).await?;
    let mut tx = c.begin().await?;
    let kitchens: i64 = sqlx::query_scalar("SELECT COUNT(*) FROM kitchen")
        .fetch_one(&mut *tx)
        .await?;
    if kitchens > 0 && !replace {
        return Err(unfit(
            "the database holds a kitchen already: restore into an empty one, or say --replace to lose what it holds",
        ));
    }
    tx.execute("SET SESSION foreign_key_checks = 0").await?;
    for name in TABLES.iter().chain(&EMPTIED).rev() {
        tx.execute(AssertSqlSafe(format!("DELETE FROM `{name}`")))
            .await?;
    }
    let mut lines = BackupReader::of(from);
    let head = read_head(&lines.next()?.ok_or_else(|| unfit("the file is empty"))?)?;
    if head.tables != here {
        return Err(unfit("the backup's tables are not those of this schema"));
    }
    let mut rows = 0;
    let mut some: Vec<Vec<Option<String>>> = Vec::with_capacity(AT_ONCE);
    let (mut table, mut bytes) = (0, 0);
    while let Some(line) = lines.next()? {
        let Ok((of, values)) = serde_json::from_slice::<RowLine>(&line) else {
            break;
        };
        let width = here.get(of).map(|t| t.columns.len());
        if width != Some(values.len()) {
            return Err(unfit("a row does not fit its table"));
        }
        bytes += line.len();
        if of != table || some.len() == AT_ONCE || bytes > BYTES_AT_ONCE {
            insert(&mut tx, &here[table], &mut some).await?;
            (table, bytes) = (of, line.len());
        }
        some.push(values);
        rows += 1;
    }
    insert(&mut tx, &here[table], &mut some).await?;
    crate::people::person::give_owners(&mut tx, jiff::Timestamp::now()).await?;
    // Whoever holds copies of what was here before sees by this that they are of another epoch.
    crate::kitchen::begin_anew(&mut tx).await?;
    tx.execute("SET SESSION foreign_key_checks = 1").await?;
    tx.commit().await?;
    Ok(rows)
}

async fn insert(
    db: &mut MySqlConnection,
    table: &BackupTable,
    rows: &mut Vec<Vec<Option<String>>>,
) -> Result<()> {
    if rows.is_empty() {
        return Ok(());
    }
    let place: Vec<&str> = table
        .columns
        .iter()
        .map(|c| if c.bytes { "UNHEX(?)" } else { "?" })
        .collect();
    let one = format!("({})", place.join(", "));
    let names: Vec<String> = table
        .columns
        .iter()
        .map(|c| format!("`{}`", c.name))
        .collect();
    let sql = format!(
        "INSERT INTO `{}` ({}) VALUES {}",
        table.name,
        names.join(", "),
        vec![one; rows.len()].join(", ")
    );
    let mut query = sqlx::query(AssertSqlSafe(sql));
    for value in rows.drain(..).flatten() {
        query = query.bind(value);
    }
    query.execute(db).await?;
    Ok(())
}
