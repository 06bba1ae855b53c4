//! Backup and restore: the whole database as one file; export and import: one kitchen as an open file.

use anyhow::{Context, Result, bail};
use std::ffi::OsString;
use std::fs::{self, File};
use std::io::BufWriter;
use std::path::{Path, PathBuf};
use store::{Db, KitchenId, backup, kitchen, takeout};

/// A file that is written beside its name first and moved there when it is whole: one of that name is always a whole one.
struct Whole<'a> {
    part: PathBuf,
    file: &'a Path,
    out: File,
}

impl<'a> Whole<'a> {
    fn begin(file: &'a Path) -> Result<Whole<'a>> {
        let mut part: OsString = file.into();
        part.push(".part");
        let part = PathBuf::from(part);
        let out = File::create(&part).with_context(|| part.display().to_string())?;
        Ok(Whole { part, file, out })
    }
    /// Keeps it when it was written whole, and throws it away otherwise.
    fn end(self, rows: Result<u64>) -> Result<()> {
        let rows = match rows {
            Ok(rows) => rows,
            Err(e) => {
                let _ = fs::remove_file(&self.part);
                return Err(e);
            }
        };
        self.out.sync_all()?;
        fs::rename(&self.part, self.file).with_context(|| self.file.display().to_string())?;
        println!("{rows} rows in {}", self.file.display());
        Ok(())
    }
}

pub async fn write(db: &Db, file: &Path) -> Result<()> {
    let whole = Whole::begin(file)?;
    let rows = backup::backup(db, BufWriter::new(&whole.out)).await;
    whole.end(rows.map_err(Into::into))
}

fn open(file: &Path) -> Result<File> {
    File::open(file).with_context(|| file.display().to_string())
}

/// Checks a backup to its end, then puts it into the database.
pub async fn read(db: &Db, file: &Path, replace: bool) -> Result<()> {
    let said = backup::check(open(file)?)?;
    let rows = backup::restore(db, open(file)?, replace).await?;
    anyhow::ensure!(
        rows == said,
        "the file changed while it was read: {rows} rows of {said}"
    );
    println!("{rows} rows restored from {}", file.display());
    Ok(())
}

/// The kitchen that is meant: by its name, or the only one.
async fn meant(db: &Db, name: Option<&str>) -> Result<KitchenId> {
    let mut all = kitchen::all(&mut *db.acquire().await?).await?;
    if let Some(name) = name {
        all.retain(|(_, n)| n == name);
    }
    match all.as_slice() {
        [(id, _)] => Ok(*id),
        [] => bail!("there is no such kitchen in the database"),
        _ => bail!(
            "there are {} kitchens: say which with --kitchen NAME",
            all.len()
        ),
    }
}

pub async fn export(db: &Db, file: &Path, name: Option<&str>) -> Result<()> {
    let id = meant(db, name).await?;
    let whole = Whole::begin(file)?;
    let rows = takeout::export(db, id, BufWriter::new(&whole.out)).await;
    whole.end(rows.map_err(Into::into))
}

pub async fn import(db: &Db, file: &Path) -> Result<()> {
    let rows = takeout::import(db, open(file)?).await?;
    println!("{rows} rows imported from {}", file.display());
    Ok(())
}
