//! Backup and restore: the whole database as one file.

use anyhow::{Context, Result};
use std::fs::{self, File};
use std::io::BufWriter;
use std::path::Path;
use store::{Db, backup};

/// Writes a backup beside its name first and moves it there when it is whole: a file of that name is always a whole one.
pub async fn write(db: &Db, file: &Path) -> Result<()> {
    let mut part = file.as_os_str().to_owned();
    part.push(".part");
    let part = Path::new(&part);
    let out = File::create(part).with_context(|| part.display().to_string())?;
    let done = backup::backup(db, BufWriter::new(&out)).await;
    let rows = match done {
        Ok(rows) => rows,
        Err(e) => {
            let _ = fs::remove_file(part);
            return Err(e.into());
        }
    };
    out.sync_all()?;
    fs::rename(part, file).with_context(|| file.display().to_string())?;
    println!("{rows} rows in {}", file.display());
    Ok(())
}

/// Checks a backup to its end, then puts it into the database.
pub async fn read(db: &Db, file: &Path, replace: bool) -> Result<()> {
    let open = || File::open(file).with_context(|| file.display().to_string());
    let said = backup::check(open()?)?;
    let rows = backup::restore(db, open()?, replace).await?;
    anyhow::ensure!(
        rows == said,
        "the file changed while it was read: {rows} rows of {said}"
    );
    println!("{rows} rows restored from {}", file.display());
    Ok(())
}
