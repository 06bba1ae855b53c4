//! Every fact that the core states has a text in every language, filled with what the fact brings; and no text is left over.

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

fn sources(dir: &Path, out: &mut Vec<PathBuf>) {
    for entry in fs::read_dir(dir).unwrap() {
        let path = entry.unwrap().path();
        if path.is_dir() {
            sources(&path, out);
        } else if path.extension().is_some_and(|e| e == "rs") {
            out.push(path);
        }
    }
}

/// Every `fact!(…)` of the program: its code, and the names of its values.
fn stated() -> Vec<(String, BTreeSet<String>, PathBuf)> {
    let crates = Path::new(env!("CARGO_MANIFEST_DIR")).parent().unwrap();
    let mut files = vec![];
    for of in ["craft", "web", "store"] {
        sources(&crates.join(of).join("src"), &mut files);
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
    out
}

/// Up to the bracket that closes.
fn balanced(text: &str) -> &str {
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

fn top_level(text: &str) -> Vec<&str> {
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

/// The texts of a language, with what each is filled with.
fn texts(language: Language) -> BTreeMap<String, BTreeSet<String>> {
    let mut out = BTreeMap::new();
    for (file, text) in language.files() {
        let read = parse(*text).unwrap_or_else(|(_, errors)| panic!("{file}: {errors:?}"));
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
        let texts = texts(language);
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
