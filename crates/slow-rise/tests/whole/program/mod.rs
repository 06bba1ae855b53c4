//! The real program as a process of its own.

mod command_line;
mod ending;
mod power_cuts;
mod restart;

use anyhow::{Context, Result, bail};
use std::io::{BufRead, BufReader};
use std::process::{Child, Command, Stdio};
use std::sync::mpsc;
use std::time::Duration;

/// A running `slow-rise serve`, killed when dropped.
pub struct Program {
    child: Child,
    pub address: String,
}

pub fn command(database_url: &str, arguments: &[&str]) -> Command {
    let mut c = Command::new(env!("CARGO_BIN_EXE_slow-rise"));
    c.args(arguments)
        .env("DATABASE_URL", database_url)
        .env("RUST_LOG", "error")
        .env_remove("PORT")
        .stdin(Stdio::null());
    c
}

/// Runs a command of the program to its end.
pub fn run(database_url: &str, arguments: &[&str]) -> Result<()> {
    let out = command(database_url, arguments).output()?;
    if !out.status.success() {
        bail!("{arguments:?}: {}", String::from_utf8_lossy(&out.stderr));
    }
    Ok(())
}

impl Program {
    /// Serves on a port of the system's choosing and waits for its address.
    pub fn serve(database_url: &str) -> Result<Program> {
        Program::serve_on(database_url, "0")
    }
    /// Serves on this port.
    pub fn serve_on(database_url: &str, port: &str) -> Result<Program> {
        Program::serve_as(database_url, &["serve", "--sign-in", "off", "--port", port])
    }
    /// Serves for whoever signs in.
    pub fn guarded(database_url: &str) -> Result<Program> {
        Program::serve_as(database_url, &["serve", "--port", "0"])
    }
    /// Serves as these arguments say.
    pub fn serve_as(database_url: &str, arguments: &[&str]) -> Result<Program> {
        let mut child = command(database_url, arguments)
            .stdout(Stdio::piped())
            .spawn()?;
        let out = child.stdout.take().context("stdout")?;
        let (tx, rx) = mpsc::channel();
        std::thread::spawn(move || {
            for line in BufReader::new(out).lines().map_while(|l| l.ok()) {
                if let Some(address) = line.strip_prefix("Open ") {
                    let _ = tx.send(address.to_string());
                }
            }
        });
        match rx.recv_timeout(Duration::from_secs(30)) {
            Ok(address) => Ok(Program { child, address }),
            Err(_) => {
                let _ = child.kill();
                bail!("the program did not say where it listens")
            }
        }
    }
    pub fn url(&self, path: &str) -> String {
        format!("{}{path}", self.address)
    }
    /// Its process.
    pub fn id(&self) -> u32 {
        self.child.id()
    }
    /// Waits for its end.
    pub fn wait(&mut self) -> Result<()> {
        self.child.wait()?;
        Ok(())
    }
    /// Ends it at once, as a power cut would.
    pub fn kill(mut self) -> Result<()> {
        self.child.kill()?;
        self.child.wait()?;
        Ok(())
    }
}

impl Drop for Program {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}
