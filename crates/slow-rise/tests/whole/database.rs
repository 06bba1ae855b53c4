//! A database server of a test's own, which may be killed.

use anyhow::{Context, Result, bail};
use std::io::{BufRead, BufReader};
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};

/// A MariaDB of this test's own, started by the same script lines as the demo's.
pub struct Database {
    shell: Child,
    folder: PathBuf,
    pub url: String,
    port: String,
}

fn project() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR"))
        .join("../..")
        .canonicalize()
        .expect("the project's folder")
}

impl Database {
    pub fn start(folder: &Path, exact_port: Option<&str>) -> Result<Database> {
        let script = r#". bin/lib.sh; db_start "$FOLDER"; echo "UP $DB_PORT $DB_URL"; wait "$DB_PID" || true"#;
        let mut command = Command::new("bash");
        command
            .args(["-c", script])
            .current_dir(project())
            .env("FOLDER", folder)
            .env("DB_PORT_FROM", "15306");
        if let Some(port) = exact_port {
            command.env("DB_PORT_EXACT", port);
        }
        let mut shell = command
            .stdin(Stdio::null())
            .stdout(Stdio::piped())
            .spawn()?;
        let mut line = String::new();
        BufReader::new(shell.stdout.take().context("stdout")?).read_line(&mut line)?;
        let mut words = line.split_whitespace();
        let (Some("UP"), Some(port), Some(url)) = (words.next(), words.next(), words.next()) else {
            bail!("the database did not start: {line}");
        };
        Ok(Database {
            shell,
            folder: folder.into(),
            url: format!("{url}/slow_rise"),
            port: port.into(),
        })
    }

    /// kill -9 of the server itself; its script then ends and frees the folder.
    pub fn kill(mut self) -> Result<(PathBuf, String)> {
        let pid = std::fs::read_to_string(self.folder.join("mariadbd.pid"))?;
        let killed = Command::new("kill").args(["-9", pid.trim()]).status()?;
        assert!(killed.success());
        self.shell.wait()?;
        Ok((self.folder.clone(), self.port.clone()))
    }
}

impl Drop for Database {
    fn drop(&mut self) {
        // Killing the script lets the server go down with it (pdeathsig).
        let _ = self.shell.kill();
        let _ = self.shell.wait();
    }
}
