//! Files of the program, as its tests read them.

use std::fs;
use std::path::{Path, PathBuf};

/// The files of a kind below a folder.
pub fn sources(dir: &Path, kind: &str, out: &mut Vec<PathBuf>) {
    for entry in fs::read_dir(dir).unwrap() {
        let path = entry.unwrap().path();
        if path.is_dir() {
            sources(&path, kind, out);
        } else if path.extension().is_some_and(|e| e == kind) {
            out.push(path);
        }
    }
}
