//! `docs/words.md` lists the words of the pages as the pages explain them.

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
