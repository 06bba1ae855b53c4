//! One name, one thing: no two types of the program share a name, so that whoever searches for one finds one.

use std::collections::BTreeMap;
use std::fs;
use std::path::{Path, PathBuf};

/// The types of a file that stand outside of its tests.
fn types(items: &[syn::Item], out: &mut Vec<String>) {
    for item in items {
        match item {
            syn::Item::Struct(x) => out.push(x.ident.to_string()),
            syn::Item::Enum(x) => out.push(x.ident.to_string()),
            syn::Item::Trait(x) => out.push(x.ident.to_string()),
            syn::Item::Type(x) => out.push(x.ident.to_string()),
            syn::Item::Mod(m) if !is_test(&m.attrs) => {
                let inside = m.content.iter().flat_map(|(_, items)| items.clone());
                types(&inside.collect::<Vec<_>>(), out);
            }
            _ => {}
        }
    }
}

fn is_test(attrs: &[syn::Attribute]) -> bool {
    attrs.iter().any(|a| {
        a.path().is_ident("cfg") && a.parse_args::<syn::Ident>().is_ok_and(|i| i == "test")
    })
}

fn sources(dir: &Path, out: &mut Vec<PathBuf>) {
    for entry in fs::read_dir(dir).unwrap() {
        let path = entry.unwrap().path();
        let name = path.file_stem().unwrap_or_default().to_string_lossy();
        if name == "tests" || name.ends_with("_tests") {
            continue;
        }
        match path.is_dir() {
            true => sources(&path, out),
            false if path.extension().is_some_and(|e| e == "rs") => out.push(path),
            false => {}
        }
    }
}

/// Names that stand in more than one place.
fn twice(files: &[(String, String)]) -> Vec<(String, Vec<String>)> {
    let mut all: BTreeMap<String, Vec<String>> = BTreeMap::new();
    for (name, text) in files {
        let file = syn::parse_file(text).unwrap();
        let mut found = vec![];
        types(&file.items, &mut found);
        for t in found {
            all.entry(t).or_default().push(name.clone());
        }
    }
    all.into_iter().filter(|(_, at)| at.len() > 1).collect()
}

#[test]
fn no_two_types_have_one_name() {
    let crates = Path::new(env!("CARGO_MANIFEST_DIR")).parent().unwrap();
    let mut paths = vec![];
    for of in ["craft", "speech", "store", "web", "slow-rise", "testbed"] {
        sources(&crates.join(of).join("src"), &mut paths);
    }
    assert!(paths.len() > 200, "{} files", paths.len());
    let read = |p: &PathBuf| (p.display().to_string(), fs::read_to_string(p).unwrap());
    let files: Vec<_> = paths.iter().map(read).collect();
    assert_eq!(twice(&files), []);
}

#[test]
fn a_second_one_is_found() {
    let file = |name: &str, text: &str| (name.to_string(), text.to_string());
    let files = [
        file("a.rs", "pub struct Row; mod inner { enum Own {} }"),
        file(
            "b.rs",
            "type Row = u8; #[cfg(test)] mod tests { struct Own; }",
        ),
    ];
    let expected = (
        "Row".to_string(),
        vec!["a.rs".to_string(), "b.rs".to_string()],
    );
    assert_eq!(twice(&files), [expected]);
}
