//! What pages and scripts say themselves: every code has its text, filled with what the page brings, in every language.

use crate::complete::{balanced, texts, top_level};
use crate::files::sources;
use speech::Language;
use std::collections::{BTreeMap, BTreeSet};
use std::fs;
use std::path::{Path, PathBuf};

/// Sources of `web`: Rust and templates, or scripts.
fn of_web(endings: &[&str]) -> Vec<(PathBuf, String)> {
    let web = Path::new(env!("CARGO_MANIFEST_DIR")).join("../web");
    let mut files = vec![];
    for ending in endings {
        sources(&web.join("src"), ending, &mut files);
        sources(&web.join("assets/js"), ending, &mut files);
    }
    let read = |f: PathBuf| {
        let text = fs::read_to_string(&f).unwrap();
        (f, text)
    };
    files.into_iter().map(read).collect()
}

fn quoted(text: &str) -> Option<&str> {
    text.trim().strip_prefix('"')?.split('"').next()
}

/// A code with the values that a page brings for it.
type Brought = (String, BTreeSet<String>, PathBuf);

/// Every `say!("code", name = …)`, `text("code").with("name", …)` and `phrase("code")`.
fn brought() -> Vec<Brought> {
    let mut out = vec![];
    for (file, text) in of_web(&["rs", "html"]) {
        for (at, _) in text.match_indices("say!(") {
            let parts = top_level(balanced(&text[at + 5..]));
            let Some(code) = quoted(parts[0]) else {
                continue;
            };
            let names = parts[1..]
                .iter()
                .filter_map(|p| p.split_once('='))
                .map(|(name, _)| name.trim().to_string());
            out.push((code.to_string(), names.collect(), file.clone()));
        }
        for (at, _) in text.match_indices("text(\"") {
            let inside = balanced(&text[at + 5..]);
            let Some(code) = quoted(inside) else { continue };
            let mut names = BTreeSet::new();
            let mut rest = text[at + 5 + inside.len() + 1..].trim_start();
            while let Some(with) = rest.strip_prefix(".with(") {
                let inside = balanced(with);
                names.extend(quoted(inside).map(String::from));
                rest = with[inside.len() + 1..].trim_start();
            }
            if !names.is_empty() {
                out.push((code.to_string(), names, file.clone()));
            }
        }
        for (at, _) in text.match_indices("phrase(") {
            if let Some(code) = quoted(&text[at + 7..]) {
                out.push((code.to_string(), BTreeSet::new(), file.clone()));
            }
        }
    }
    out
}

/// Codes that a table holds: a text of the page reads them there.
fn in_tables(codes: &BTreeSet<String>) -> BTreeSet<String> {
    let all = of_web(&["rs", "html", "js"]);
    let held = |code: &&String| all.iter().any(|(_, t)| t.contains(&format!("\"{code}\"")));
    codes.iter().filter(held).cloned().collect()
}

/// Texts that a script names by a part of their code.
const BY_PART: [&str; 5] = [
    "script-in-of",
    "script-turned-of",
    "script-out-of",
    "script-verdict-of",
    "script-undone-of",
];

fn of_pages(language: Language) -> BTreeMap<String, BTreeSet<String>> {
    let pages = language
        .files()
        .iter()
        .filter(|f| f.0.starts_with("pages/"));
    texts(pages.copied())
}

#[test]
fn every_text_of_a_page_is_there_and_filled_as_the_page_fills_it() {
    let brought = brought();
    assert!(brought.len() > 1000, "{}", brought.len());
    let english = texts(Language::English.files().iter().copied());
    let mut wrong = vec![];
    for (code, names, file) in &brought {
        match english.get(code) {
            None => wrong.push(format!("{code} ({}) has no text", file.display())),
            Some(wanted) if wanted != names => wrong.push(format!(
                "{code} ({}) brings {names:?}, its text names {wanted:?}",
                file.display()
            )),
            Some(_) => {}
        }
    }
    let pages = of_pages(Language::English);
    let said: BTreeSet<&String> = brought.iter().map(|(code, ..)| code).collect();
    let rest: BTreeSet<String> = pages
        .keys()
        .filter(|c| !said.contains(c) && !c.starts_with("shipped-"))
        .cloned()
        .collect();
    let held = in_tables(&rest);
    let left = rest.iter().filter(|c| !held.contains(*c));
    wrong.extend(
        left.filter(|c| !BY_PART.contains(&c.as_str()))
            .map(|c| format!("{c} is a text that no page says")),
    );
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}

#[test]
fn every_language_has_the_same_texts_filled_with_the_same_values() {
    let english = texts(Language::English.files().iter().copied());
    for language in Language::READ {
        let theirs = texts(language.files().iter().copied());
        let mut wrong = vec![];
        for (code, names) in &english {
            match theirs.get(code) {
                None => wrong.push(format!("{code} is missing")),
                Some(n) if n != names => wrong.push(format!("{code} names {n:?}, not {names:?}")),
                Some(_) => {}
            }
        }
        let more = theirs.keys().filter(|c| !english.contains_key(*c));
        wrong.extend(more.map(|c| format!("{c} is in this language alone")));
        assert!(wrong.is_empty(), "{language:?}:\n{}", wrong.join("\n"));
    }
}

/// The names and lines in the data that ships.
fn names_in(value: &serde_json::Value, out: &mut BTreeSet<String>) {
    const SAID: [&str; 5] = ["name", "line", "taste", "words", "allergens"];
    match value {
        serde_json::Value::Array(list) => list.iter().for_each(|v| names_in(v, out)),
        serde_json::Value::Object(map) if map.contains_key("code") => {}
        serde_json::Value::Object(map) => {
            for (key, v) in map {
                match v {
                    serde_json::Value::String(text) if SAID.contains(&key.as_str()) => {
                        out.insert(text.clone());
                    }
                    other => names_in(other, out),
                }
            }
        }
        _ => {}
    }
}

#[test]
fn what_ships_has_a_name_in_every_language() {
    let core = Path::new(env!("CARGO_MANIFEST_DIR")).join("../craft/src");
    let mut names = BTreeSet::new();
    for data in [
        "style/styles.json",
        "path/methods.json",
        "fire/ovens.json",
        "fire/programmes.json",
    ] {
        let text = fs::read_to_string(core.join(data)).unwrap();
        names_in(&serde_json::from_str(&text).unwrap(), &mut names);
    }
    // "poolish" and "biga" are the same in both.
    assert!(names.len() > 80, "{}", names.len());
    let shipped = |name: &String| speech::phrase::shipped(Language::Italian, name);
    let left: Vec<&String> = names
        .iter()
        .filter(|n| !n.is_empty() && shipped(n) == **n)
        .collect();
    assert!(left.is_empty(), "{left:?}");
}

/// Names that are the same in every language, and so stand as they are: of this program, of units, of formats.
const AS_THEY_ARE: [&str; 30] = [
    "Slow",
    "Rise",
    "JSON",
    "CSV",
    "NAME",
    "slow-rise",
    "people",
    "reset",
    "tablet",
    "kg",
    "oz",
    "lb",
    "cm",
    "mm",
    "min",
    "POST",
    "api",
    "scale",
    "QR",
    "nbsp",
    "minus",
    "times",
    "middot",
    "amp",
    "thinsp",
    "ldquo",
    "rdquo",
    "larr",
    "rarr",
    "deg",
];

/// What stands between the tags and in spoken attributes of a template, without what is filled in.
fn literal_words(template: &str) -> Vec<String> {
    let mut bare = String::new();
    let mut rest = template;
    while let Some(at) = rest.find('{') {
        let (before, from) = rest.split_at(at);
        bare.push_str(before);
        let end = match from.as_bytes().get(1) {
            Some(b'{') => from.find("}}").map(|e| e + 2),
            Some(b'%') => from.find("%}").map(|e| e + 2),
            Some(b'#') => from.find("#}").map(|e| e + 2),
            _ => None,
        };
        rest = &from[end.unwrap_or(1)..];
        bare.push(' ');
    }
    bare.push_str(rest);
    let mut out = vec![];
    for part in bare.split('<') {
        let (tag, text) = part.split_once('>').unwrap_or(("", part));
        out.push(text.to_string());
        for spoken in [
            "aria-label=\"",
            "title=\"",
            "placeholder=\"",
            "alt=\"",
            "data-what=\"",
        ] {
            if let Some((_, value)) = tag.split_once(&format!(" {spoken}")) {
                out.push(value.split('"').next().unwrap_or_default().into());
            }
        }
    }
    out
}

/// What an expression of a template says itself: its literals that are no code of a text.
fn said_in_expressions(template: &str) -> Vec<String> {
    let mut out = vec![];
    for part in template.split('{').filter(|p| p.starts_with(['{', '%'])) {
        for literal in quoted_in(&part[1..]) {
            let sentence = literal.contains(' ') || literal.starts_with(char::is_uppercase);
            let path = literal.contains(['/', '<', '.', '=']);
            if sentence && !path {
                out.push(literal.to_string());
            }
        }
    }
    out
}

fn quoted_in(text: &str) -> impl Iterator<Item = &str> {
    let within = text.split("}}").next().unwrap_or(text);
    let within = within.split("%}").next().unwrap_or(within);
    within.split('"').skip(1).step_by(2)
}

fn words_of(text: &str) -> impl Iterator<Item = &str> {
    text.split(|c: char| !(c.is_alphabetic() || c == '-'))
        .filter(|w| w.chars().filter(|c| c.is_alphabetic()).count() > 1)
        .filter(|w| !AS_THEY_ARE.contains(w))
}

#[test]
fn templates_hold_no_words() {
    let mut found = vec![];
    for (file, text) in of_web(&["html"]) {
        let said = said_in_expressions(&text);
        for words in literal_words(&text).into_iter().chain(said) {
            found.extend(words_of(&words).map(|w| format!("{}: {w} in {words:?}", file.display())));
        }
    }
    assert!(found.is_empty(), "{}", found.join("\n"));
}

/// Rust that speaks to logs, to programs and to whoever starts the server; and names that browsers give themselves.
const SPEAKS_ELSEWHERE: [&str; 11] = [
    "src/lib.rs",
    "src/serve.rs",
    "shared/health.rs",
    "shared/site.rs",
    "rooms/people/view.rs",
    "api/reckon.rs",
    "api/body.rs",
    "api/openapi.rs",
    "tls/",
    "takeaway/calendar.rs",
    "tests",
];

/// Single literals that are no words of a page: keys of formats, causes for the log, marks of markup.
const NO_WORDS: [&str; 17] = [
    "Bearer",
    "a batch cannot be read",
    "not now",
    "a session was out of reach",
    "a page failed",
    "no message",
    "a handler panicked",
    "too many wrong passwords",
    "Owner",
    "Recipe",
    "ball next",
    "ribbon narrow",
    "rise narrow",
    "floor face",
    "b onlarch tx",
    "Mon-Fri ",
    "ABCDEFGHJKLMNPRSTUVWXYZ23467",
];

/// Literals of a line of Rust, without those that are markup, paths, codes or forms of dates.
fn spoken_literals(text: &str) -> Vec<String> {
    let program = text.split("#[cfg(test)]\nmod ").next().unwrap_or(text);
    let mut out = vec![];
    let mut before = "";
    for line in program.lines() {
        let code = line.trim();
        let logged = [
            "tracing::",
            "expect(",
            "panic!",
            "unreachable!",
            "#[",
            "//",
            "fact!(",
            "%-d",
            "%H",
            "Z\"",
            "query",
        ];
        let skip = logged.iter().any(|w| code.contains(w)) || before.ends_with("expect(");
        before = code;
        if skip {
            continue;
        }
        for (i, literal) in code.split('"').enumerate() {
            let is_literal = i % 2 == 1;
            let markup = ['<', '>', '=', '/', '_', '\\', '#', '(', ';']
                .iter()
                .any(|c| literal.contains(*c));
            if is_literal && !markup {
                out.push(literal.to_string());
            }
        }
    }
    out
}

#[test]
fn rust_of_the_pages_holds_no_sentences() {
    let mut found = vec![];
    for (file, text) in of_web(&["rs"]) {
        let name = file.display().to_string();
        if SPEAKS_ELSEWHERE.iter().any(|f| name.contains(f)) {
            continue;
        }
        for literal in spoken_literals(&text) {
            let mut bare = String::new();
            let mut depth = 0;
            for c in literal.chars() {
                match c {
                    '{' => depth += 1,
                    '}' => depth -= 1,
                    c if depth == 0 => bare.push(c),
                    _ => {}
                }
            }
            // Two words, or one that begins with a capital: keys and classes of marks are neither.
            let words: Vec<&str> = words_of(&bare).collect();
            let classes = words.iter().all(|w| w.len() <= 4 || w.contains('-'));
            let capital = words
                .first()
                .is_some_and(|w| w.starts_with(char::is_uppercase));
            // A path of a picture, or the name of a field.
            let path = words
                .iter()
                .all(|w| w.chars().all(|c| "MHVLCAmhvlcaz-".contains(c)));
            let path = path || (!literal.contains(' ') && literal.contains(['.', '[', ':']));
            if (words.len() > 1 && !classes || capital && words.len() == 1 && bare.trim().len() > 3)
                && !path
                && !NO_WORDS.contains(&literal.as_str())
            {
                found.push(format!("{name}: {literal:?}"));
            }
        }
    }
    assert!(found.is_empty(), "{}", found.join("\n"));
}

/// Keys, elements and interfaces of browsers.
const OF_BROWSERS: [&str; 6] = [
    "SELECT",
    "Enter",
    "AudioContext",
    "GET",
    "ArrowUp",
    "ArrowDown",
];

#[test]
fn scripts_hold_no_sentences() {
    let mut found = vec![];
    for (file, text) in of_web(&["js"]) {
        for line in text.lines().map(str::trim) {
            let comment = ["//", "/*", "*", "import "]
                .iter()
                .any(|c| line.starts_with(c));
            if comment {
                continue;
            }
            for quote in ['"', '`'] {
                for literal in line.split(quote).skip(1).step_by(2) {
                    let mut bare = String::new();
                    let mut rest = literal;
                    while let Some((before, from)) = rest.split_once("${") {
                        bare.push_str(before);
                        rest = from.split_once('}').map_or("", |(_, r)| r);
                    }
                    bare.push_str(rest);
                    let code = ['[', '#', '/', '=', '(', '>', '_', ':', '.']
                        .iter()
                        .any(|c| bare.contains(*c));
                    let sentence = bare.trim().contains(' ')
                        && words_of(&bare).filter(|w| w.len() > 2).count() > 1;
                    let heading = !OF_BROWSERS.contains(&literal)
                        && bare.starts_with(char::is_uppercase)
                        && words_of(&bare).any(|w| w.len() > 2);
                    if (sentence || heading) && !code {
                        found.push(format!("{}: {literal:?}", file.display()));
                    }
                }
            }
        }
    }
    assert!(found.is_empty(), "{}", found.join("\n"));
}
