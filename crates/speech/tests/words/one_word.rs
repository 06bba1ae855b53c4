//! `docs/words.md` lists the words of the pages as the pages explain them, and no page says a word that gave way.

use crate::files::sources;
use jiff::tz::TimeZone;
use speech::{Measures, Reader};
use std::fmt::Write;
use std::fs;
use std::path::Path;

#[test]
fn the_list_of_words_says_what_the_pages_say() {
    let mut list = String::from(
        "# Words\n\nOne word for one thing, on every page; each page leads to this list (key `w`). The texts stand in \
         `crates/speech/texts/en/glossary.ftl`.\n",
    );
    for shelf in Reader::plain(Measures::METRIC, &TimeZone::UTC).glossary() {
        write!(
            list,
            "\n## {}\n\n| word | what it means |\n|---|---|\n",
            shelf.title
        )
        .unwrap();
        for w in shelf.words {
            writeln!(list, "| {} | {} |", w.word, w.means).unwrap();
        }
    }
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("../..");
    let kept = fs::read_to_string(root.join("docs/words.md")).unwrap_or_default();
    if kept != list {
        let beside = Path::new(env!("CARGO_TARGET_TMPDIR")).join("words.md");
        fs::write(&beside, &list).unwrap();
        panic!(
            "docs/words.md is behind the texts; it should read as {}",
            beside.display()
        );
    }
}

/// Words that gave way to others on all pages.
const GIVEN_UP: [&str; 8] = [
    "reserve",
    "temper",
    "rise clock",
    "its clocks",
    "rise spent",
    "hot share",
    "keep this plan",
    "save formula",
];

/// What a template or a text shows of its own: no code first, then no tags, no names of classes or values.
fn shown(text: &str) -> String {
    let code_less = without(text, ('{', '}'));
    without(&code_less, ('<', '>')).to_lowercase()
}

fn without(text: &str, (opens, closes): (char, char)) -> String {
    let mut out = String::new();
    let mut inside = 0_usize;
    for c in text.chars() {
        if c == opens {
            inside += 1;
        } else if c == closes {
            inside = inside.saturating_sub(1);
            out.push(' ');
        } else if inside == 0 {
            out.push(c);
        }
    }
    out
}

fn found(text: &str) -> Vec<&'static str> {
    let words: Vec<&str> = text.split(|c: char| !c.is_alphanumeric()).collect();
    let text = format!(" {} ", words.join(" "));
    let stands = |w: &&str| text.contains(&format!(" {w} "));
    GIVEN_UP.into_iter().filter(stands).collect()
}

#[test]
fn no_template_and_no_text_says_a_word_that_gave_way() {
    let crates = Path::new(env!("CARGO_MANIFEST_DIR")).parent().unwrap();
    let mut files = vec![];
    sources(&crates.join("web/src"), "html", &mut files);
    sources(&crates.join("speech/texts"), "ftl", &mut files);
    assert!(files.len() > 40, "{} files", files.len());
    for file in files {
        let text = fs::read_to_string(&file).unwrap();
        // Of a text its name is for programs.
        let text: String = match file.extension().is_some_and(|e| e == "ftl") {
            true => text
                .lines()
                .map(|l| l.split_once(" = ").map_or(l, |(_, said)| said))
                .collect::<Vec<_>>()
                .join(" "),
            false => text,
        };
        assert_eq!(found(&shown(&text)), [""; 0], "{}", file.display());
    }
}

#[test]
fn a_word_that_gave_way_is_found() {
    let page =
        "<b class=\"reserve\">{{ b.reserve }}</b><p>Reserve 57, the Rise clock. Reserved.</p>";
    assert_eq!(found(&shown(page)), ["reserve", "rise clock"]);
}
