//! Every fact that the core states has a text in every language, filled with what the fact brings; and no text is left over.

use craft::keyed::Keyed;

use crate::files::sources;
use fluent_syntax::ast::{
    CallArguments, Entry, Expression, InlineExpression, Pattern, PatternElement,
};
use fluent_syntax::parser::parse;
use speech::Language;
use std::collections::{BTreeMap, BTreeSet};
use std::fs;
use std::path::{Path, PathBuf};

/// Texts that no `fact!` names: words between values, and what pages say themselves.
const OF_SPEECH: [&str; 2] = ["and", "to"];

/// A code, the names of its values, and where it stands.
type Stated = (String, BTreeSet<String>, PathBuf);

/// Every `fact!(…)` of the program and every fact of its data.
fn stated() -> Vec<Stated> {
    let crates = Path::new(env!("CARGO_MANIFEST_DIR")).parent().unwrap();
    let mut files = vec![];
    for of in ["craft", "web", "store", "speech"] {
        sources(&crates.join(of).join("src"), "rs", &mut files);
    }
    let mut out = vec![];
    for file in files.iter().filter(|f| !f.ends_with("fact.rs")) {
        let text = fs::read_to_string(file).unwrap();
        for (at, _) in text.match_indices("fact!(") {
            let line = text[..at].rfind('\n').map_or(0, |i| i + 1);
            if text[line..at].contains("//") {
                continue;
            }
            let inside = balanced(&text[at + 6..]);
            let parts = top_level(inside);
            let code = parts[0].trim().trim_matches('"').to_string();
            let names = parts[1..]
                .iter()
                .filter_map(|p| p.split_once('='))
                .map(|(name, _)| name.trim().to_string())
                .collect();
            out.push((code, names, file.clone()));
        }
    }
    let mut data = vec![];
    sources(&crates.join("craft").join("src"), "json", &mut data);
    for file in data {
        let value = serde_json::from_str(&fs::read_to_string(&file).unwrap()).unwrap();
        in_data(&value, &file, &mut out);
    }
    out
}

/// The facts that stand in data: styles and methods.
fn in_data(value: &serde_json::Value, file: &Path, out: &mut Vec<Stated>) {
    match value {
        serde_json::Value::Array(list) => list.iter().for_each(|v| in_data(v, file, out)),
        serde_json::Value::Object(map) => match (map.get("code"), map.get("values")) {
            (Some(serde_json::Value::String(code)), Some(serde_json::Value::Object(values))) => {
                let names = values.keys().cloned().collect();
                out.push((code.clone(), names, file.to_path_buf()));
            }
            _ => map.values().for_each(|v| in_data(v, file, out)),
        },
        _ => {}
    }
}

/// Up to the bracket that closes.
pub fn balanced(text: &str) -> &str {
    let (mut depth, mut quoted, mut escaped) = (1, false, false);
    for (i, c) in text.char_indices() {
        match c {
            _ if escaped => escaped = false,
            '\\' if quoted => escaped = true,
            '"' => quoted = !quoted,
            '(' | '[' | '{' if !quoted => depth += 1,
            ')' | ']' | '}' if !quoted => {
                depth -= 1;
                if depth == 0 {
                    return &text[..i];
                }
            }
            _ => {}
        }
    }
    text
}

pub fn top_level(text: &str) -> Vec<&str> {
    let (mut out, mut from, mut depth, mut quoted) = (vec![], 0, 0, false);
    for (i, c) in text.char_indices() {
        match c {
            '"' => quoted = !quoted,
            '(' | '[' | '{' if !quoted => depth += 1,
            ')' | ']' | '}' if !quoted => depth -= 1,
            ',' if !quoted && depth == 0 => {
                out.push(&text[from..i]);
                from = i + 1;
            }
            _ => {}
        }
    }
    out.push(&text[from..]);
    out
}

fn named(pattern: &Pattern<&str>, out: &mut BTreeSet<String>) {
    for element in &pattern.elements {
        if let PatternElement::Placeable { expression } = element {
            of_expression(expression, out);
        }
    }
}

fn of_expression(e: &Expression<&str>, out: &mut BTreeSet<String>) {
    match e {
        Expression::Inline(i) => of_inline(i, out),
        Expression::Select { selector, variants } => {
            of_inline(selector, out);
            variants.iter().for_each(|v| named(&v.value, out));
        }
    }
}

fn of_inline(i: &InlineExpression<&str>, out: &mut BTreeSet<String>) {
    match i {
        InlineExpression::VariableReference { id } => {
            out.insert(id.name.to_string());
        }
        InlineExpression::FunctionReference { id, arguments } => {
            assert!(["SHORT", "EXACT"].contains(&id.name));
            let CallArguments { positional, .. } = arguments;
            positional.iter().for_each(|p| of_inline(p, out));
        }
        InlineExpression::Placeable { expression } => of_expression(expression, out),
        _ => {}
    }
}

/// The texts of files, with what each is filled with.
pub fn texts(
    files: impl Iterator<Item = (&'static str, &'static str)>,
) -> BTreeMap<String, BTreeSet<String>> {
    let mut out = BTreeMap::new();
    for (file, text) in files {
        let read = parse(text).unwrap_or_else(|(_, errors)| panic!("{file}: {errors:?}"));
        for entry in &read.body {
            if let Entry::Message(m) = entry {
                let mut names = BTreeSet::new();
                named(m.value.as_ref().expect("a text has a value"), &mut names);
                let twice = out.insert(m.id.name.to_string(), names).is_some();
                assert!(!twice, "{file}: {} stands twice", m.id.name);
            }
        }
    }
    out
}

#[test]
fn every_fact_has_its_text_and_brings_what_the_text_names() {
    let stated = stated();
    assert!(stated.len() > 500, "{}", stated.len());
    for language in Language::ALL {
        let files = language.files().iter().copied();
        // What pages say themselves is held to its own test.
        let texts = texts(files.filter(|f| !f.0.starts_with("pages/") && f.0 != "names"));
        let mut wrong = vec![];
        for (code, names, file) in &stated {
            match texts.get(code) {
                None => wrong.push(format!("{code} ({}) has no text", file.display())),
                Some(wanted) if wanted != names => wrong.push(format!(
                    "{code} ({}) brings {names:?}, its text names {wanted:?}",
                    file.display()
                )),
                Some(_) => {}
            }
        }
        let known: BTreeSet<&String> = stated.iter().map(|(c, ..)| c).collect();
        wrong.extend(
            texts
                .keys()
                .filter(|c| !known.contains(c) && !OF_SPEECH.contains(&c.as_str()))
                .map(|c| format!("{c} is a text that nothing states")),
        );
        assert!(wrong.is_empty(), "{language:?}:\n{}", wrong.join("\n"));
    }
}

/// Words of a data format, of a lexicon, or names that a maker owns from then on: no sentences.
const NO_SENTENCES: [&str; 9] = [
    "names.rs: names as makers write them",
    "paste/",
    "exchange/recipe_ld.rs",
    "leaven.rs: yeast on the shelf",
    "pantry/shopping.rs: oil on the shelf",
    "flour/mod.rs: the name of a flour that is only a strength",
    "style/oven_fit.rs: the cheese that takes another's place",
    "style/mod.rs: what serde expected",
    "sheet/life/spans.rs: hours as they are typed",
];

/// Places that have no name yet get one.
const NAMES: [&str; 2] = ["a cooler place", "a warmer place"];

#[test]
fn the_core_holds_no_sentence() {
    let craft = Path::new(env!("CARGO_MANIFEST_DIR")).join("../craft/src");
    let mut files = vec![];
    sources(&craft, "rs", &mut files);
    let mut found = vec![];
    for file in files {
        let name = file.strip_prefix(&craft).unwrap().display().to_string();
        let of = |n: &&str| name.starts_with(n.split(": ").next().unwrap_or(n));
        if name.contains("tests") || NO_SENTENCES.iter().any(of) {
            continue;
        }
        let text = fs::read_to_string(&file).unwrap();
        let program = text.split("#[cfg(test)]\nmod ").next().unwrap();
        let mut before = "";
        for (i, line) in program.lines().enumerate() {
            let code = line.trim();
            let expected = std::mem::replace(&mut before, code).ends_with("expect(");
            let aside = ["//", "#[", "*", "assert", ".expect(", "unreachable!("];
            if aside.iter().any(|a| code.starts_with(a))
                || expected
                || code.contains("expect(\"")
                || code.contains("unreachable!(\"")
            {
                continue;
            }
            // Between quotes two words and a blank make something that is said.
            let words = code.split('"').skip(1).step_by(2).filter(|t| {
                let words = t.split(' ').filter(|w| w.chars().all(char::is_alphabetic));
                words.filter(|w| w.len() > 1).count() > 1
            });
            found.extend(
                words
                    .filter(|w| !NAMES.contains(w))
                    .map(|w| format!("{name}:{}: {w}", i + 1)),
            );
        }
    }
    assert!(found.is_empty(), "{}", found.join("\n"));
}
