//! The command line: `reckon` prints the core's result, `serve` stays on this machine unless told otherwise.

use crate::program::command;
use anyhow::{Context, Result};
use std::io::Write;
use std::process::{Command, Stdio};

/// No database is needed for either.
const NONE: &str = "mysql://nobody:x@127.0.0.1:1/none";

fn reckon(kind: &str, request: &str) -> Result<(bool, serde_json::Value, String)> {
    let mut child = command(NONE, &["reckon", kind])
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()?;
    // A kind that is unknown is refused before anything is read: then nobody takes the request.
    let _ = child
        .stdin
        .take()
        .context("stdin")?
        .write_all(request.as_bytes());
    let out = child.wait_with_output()?;
    let told = String::from_utf8_lossy(&out.stderr).into_owned();
    Ok((
        out.status.success(),
        serde_json::from_slice(&out.stdout).unwrap_or_default(),
        told,
    ))
}

#[test]
fn reckon_prints_the_result_or_the_errors() -> Result<()> {
    let bowl = r#"{"target_dough_c": 23, "room_c": 21, "flour_c": 20, "tap_water_c": 14, "flour_g": 1000, "water_g": 620,
                   "salt_g": 20, "mixer": "hand", "mixing_min": 12}"#;
    let (ok, result, _) = reckon("water", bowl)?;
    assert!(ok);
    assert!((result["needed_c"].as_f64().context("needed_c")? - 23.5188).abs() < 1e-3);

    let (ok, result, _) = reckon("water", &bowl.replace("\"room_c\": 21", "\"room_c\": 99"))?;
    assert!(!ok);
    assert_eq!(
        result["errors"][0]["message"]["text"],
        "Room -2 to 42 °C; 99 °C is outside."
    );
    assert_eq!(result["errors"][0]["field"], "room_c");

    let (ok, _, told) = reckon("toast", "{}")?;
    assert!(
        !ok && told.contains("known are formula, water, rise, solve-yeast, sheet"),
        "{told}"
    );
    Ok(())
}

#[test]
fn only_a_folder_that_carries_our_mark_is_ever_cleared() -> Result<()> {
    let project = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../..");
    let folder = std::path::PathBuf::from(env!("CARGO_TARGET_TMPDIR"))
        .join(format!("mark-{}", std::process::id()));
    let ours = |dir: &std::path::Path| {
        Command::new("bash")
            .args(["-c", ". bin/lib.sh; ours \"$1\"", "bash"])
            .arg(dir)
            .current_dir(&project)
            .output()
    };
    // Somebody's pictures: refused, and not touched.
    let pictures = folder.join("pictures");
    std::fs::create_dir_all(&pictures)?;
    std::fs::write(pictures.join("holiday.png"), b"x")?;
    let refused = ours(&pictures)?;
    assert!(!refused.status.success());
    assert!(String::from_utf8_lossy(&refused.stderr).contains("nothing was touched"));
    assert!(pictures.join("holiday.png").exists() && !pictures.join(".slow-rise").exists());
    // An empty one becomes ours, and stays so.
    let new = folder.join("new");
    for _ in 0..2 {
        assert!(ours(&new)?.status.success());
        std::fs::write(new.join("password"), b"x")?;
    }
    assert!(new.join(".slow-rise").exists());
    std::fs::remove_dir_all(&folder)?;
    Ok(())
}

#[test]
fn it_says_what_it_needs_to_be_reached_under_a_name() -> Result<()> {
    for (more, says) in [
        (vec!["--listen", "0.0.0.0"], "--public-url"),
        // Whoever reaches it from a network signs in.
        (
            vec!["--sign-in", "off", "--listen", "0.0.0.0"],
            "leave out --sign-in off",
        ),
        (
            vec!["--sign-in", "off", "--public-url", "https://pizza.example"],
            "leave out --sign-in off",
        ),
        (vec!["--public-url", "pizza.example"], "is no address"),
    ] {
        let mut arguments = vec!["serve", "--port", "0"];
        arguments.extend(more);
        let out = Command::new(env!("CARGO_BIN_EXE_slow-rise"))
            .args(arguments)
            .env("DATABASE_URL", "mysql://nobody:x@127.0.0.1:1/none")
            .output()?;
        assert!(!out.status.success());
        let told = String::from_utf8_lossy(&out.stderr).into_owned();
        assert!(told.contains(says), "{told}");
    }
    Ok(())
}
