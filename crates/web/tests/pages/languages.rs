//! Two languages: no English word on an Italian page, the same figures in both, chosen by each person and guessed before.

use crate::site;
use crate::site::{Site, guarded, pairs};
use anyhow::Result;
use craft::exchange::bakes::COLUMNS;
use std::collections::BTreeSet;
use std::fs;
use std::path::Path;

const ITALIAN: (&str, &str) = ("accept-language", "it-IT,it;q=0.9,en;q=0.5");

/// The words of all texts of a language.
fn vocabulary(language: &str) -> BTreeSet<String> {
    fn below(folder: &Path, out: &mut BTreeSet<String>) {
        for entry in fs::read_dir(folder).unwrap() {
            let path = entry.unwrap().path();
            if path.is_dir() {
                below(&path, out);
                continue;
            }
            for line in fs::read_to_string(&path).unwrap().lines() {
                let text = line.split_once(" = ").map_or(line, |(_, t)| t);
                // What is filled in is no word of the text.
                let parts = text
                    .split('{')
                    .map(|p| p.split_once('}').map_or(p, |x| x.1));
                parts.for_each(|p| out.extend(words(p)));
            }
        }
    }
    let mut out = BTreeSet::new();
    let texts = Path::new(env!("CARGO_MANIFEST_DIR")).join("../speech/texts");
    below(&texts.join(language), &mut out);
    out
}

fn words(text: &str) -> impl Iterator<Item = String> {
    let lower = text.to_lowercase();
    let all: Vec<String> = lower
        .split(|c: char| !c.is_alphabetic())
        .filter(|w| w.chars().count() > 2)
        .map(String::from)
        .collect();
    all.into_iter()
}

/// What of a page is read: between its tags, and in what is spoken of it.
fn read_of(page: &str) -> Vec<String> {
    let mut out = vec![];
    let mut skipping = false;
    for part in page.split('<').skip(1) {
        let (tag, text) = part.split_once('>').unwrap_or((part, ""));
        let text = text.replace("&#39;", "'");
        skipping = match tag.split([' ', '/']).next() {
            Some("script" | "style") => true,
            _ if tag.starts_with("/script") || tag.starts_with("/style") => false,
            _ => skipping,
        };
        for spoken in [" aria-label=\"", " title=\"", " placeholder=\""] {
            if let Some((_, value)) = tag.split_once(spoken) {
                let value = value.split('"').next().unwrap_or_default();
                out.push(value.replace("&#39;", "'"));
            }
        }
        if !skipping {
            out.push(text);
        }
    }
    out
}

/// Pages of a kitchen with a dough under way, one that is planned, a formula and a stocked pantry.
async fn pages(s: &Site) -> Result<Vec<String>> {
    let (date, time) = s.local_in_hours(3);
    let begun = s
        .begun(&[
            ("name", "Uno"),
            ("serve_date", &date),
            ("serve_time", &time),
        ])
        .await?;
    let planned = s.keep(&[("name", "Due")]).await?;
    let mut all: Vec<String> = [
        "/",
        "/dough/new",
        "/ledger",
        "/formulas",
        "/formulas/paste",
        "/pantry",
        "/kitchen",
        "/people",
        "/calendar",
        "/words",
        "/fire",
        "/scale",
        "/begin",
        "/pantry/flours/new",
        "/pantry/ovens/new",
        "/pantry/styles/new",
        "/pantry/boxes/new",
        "/pantry/mixers/new",
        "/pantry/programmes/new",
        "/pantry/leavens/new",
        "/trials",
        "/trials/new",
        "/ledger/late",
        "/practice",
        "/practice?level=2",
        "/practice?level=3",
        "/nowhere",
    ]
    .map(String::from)
    .into();
    for code in [begun, planned] {
        let code = code.trim_start_matches("/batches/").to_string();
        for room in [
            "", "/mix", "/rise", "/shape", "/fire", "/bake", "/labels", "/print",
        ] {
            all.push(format!("/batches/{code}{room}"));
        }
    }
    Ok(all)
}

/// English that an Italian page may hold: names of this kitchen, of formats, of the other language, and typed examples.
const NAMES: [&str; 17] = [
    "english",
    "larchfold",
    "halt",
    "slow",
    "rise",
    "json",
    "csv",
    "post",
    "api",
    "scale",
    "stone",
    "flour",
    "salt",
    "people",
    "reset",
    "name",
    "owner",
];

#[tokio::test]
async fn an_italian_page_holds_no_english_word() -> Result<()> {
    let s = Site::open().await?;
    let (english, italian) = (vocabulary("en"), vocabulary("it"));
    let mut found = vec![];
    for path in pages(&s).await? {
        let page = s.get_with(&path, &[ITALIAN]).await?;
        assert!(page.body.contains("lang=\"it\""), "{path}: {}", page.status);
        for part in read_of(&page.body) {
            let of_english = |w: &String| {
                // The columns of a file are called alike in every language.
                let column = path == "/ledger/late" && COLUMNS.contains(&w.as_str());
                english.contains(w)
                    && !italian.contains(w)
                    && !NAMES.contains(&w.as_str())
                    && !column
            };
            let wrong: Vec<String> = words(&part).filter(of_english).collect();
            if !wrong.is_empty() {
                found.push(format!("{path}: {wrong:?} in {:?}", part.trim()));
            }
        }
    }
    assert!(found.is_empty(), "{}", found.join("\n"));
    s.close().await
}

/// The figures of a page, in their order of size: digits as they are written, with a point.
fn figures(page: &str, italian: bool) -> Vec<String> {
    let main = page.split("<main").nth(1).unwrap_or_default();
    let mut out = vec![];
    for part in read_of(main) {
        let mut digits = String::new();
        for c in part.chars().chain([' ']) {
            match c {
                '0'..='9' => digits.push(c),
                '.' | ',' if !digits.is_empty() => digits.push(match (c, italian) {
                    ('.', false) | (',', true) => '.',
                    _ => ',',
                }),
                _ => {
                    let figure = digits.trim_end_matches(['.', ',']).replace(',', "");
                    if !figure.is_empty() {
                        out.push(figure);
                    }
                    digits.clear();
                }
            }
        }
    }
    out.sort();
    out
}

#[tokio::test]
async fn no_figure_hangs_on_the_language() -> Result<()> {
    let s = Site::open().await?;
    let mut compared = 0;
    let mut wrong = vec![];
    for path in pages(&s).await? {
        // A page without a figure of its own: words alone, or examples of how something is typed.
        let typed = [
            "/begin",
            "/pantry",
            "/kitchen",
            "/words",
            "/fire",
            "/formulas",
            "/scale",
            "/nowhere",
            "/calendar",
        ];
        if typed.iter().any(|t| path.starts_with(t)) {
            continue;
        }
        let mut pair = vec![];
        // The minute may turn between the two.
        for _ in 0..3 {
            let english = s.get(&path).await?.body;
            let italian = s.get_with(&path, &[ITALIAN]).await?.body;
            pair = vec![figures(&english, false), figures(&italian, true)];
            if pair[0] == pair[1] {
                break;
            }
        }
        compared += pair[0].len();
        let only = |a: &Vec<String>, b: &Vec<String>| -> Vec<String> {
            let mut b = b.clone();
            let fresh = |f: &&String| match b.iter().position(|x| x == *f) {
                Some(i) => {
                    b.remove(i);
                    false
                }
                None => true,
            };
            a.iter().filter(fresh).cloned().collect()
        };
        if pair[0] != pair[1] {
            wrong.push(format!(
                "{path}: English alone {:?}, Italian alone {:?}",
                only(&pair[0], &pair[1]),
                only(&pair[1], &pair[0])
            ));
        }
    }
    assert!(compared > 500, "{compared} figures");
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
    s.close().await
}

#[tokio::test]
async fn a_browser_is_guessed_and_a_person_chooses() -> Result<()> {
    let s = Site::open().await?;
    let plain = s.get("/").await?;
    assert!(plain.body.contains("lang=\"en\"") && plain.body.contains("The bench is clear."));
    let guessed = s.get_with("/", &[ITALIAN]).await?;
    assert!(guessed.body.contains("Il banco è libero."), "guessed");
    assert!(guessed.body.contains("Banco"));
    // What is refused is said in it, beside the field, and what was typed stays.
    let typed = site::form(&s, &[("hydration_percent", "sessanta")]);
    let refused = s.post_with("/dough", &typed, &[ITALIAN]).await?;
    assert!(
        refused
            .body
            .contains("ci vuole un numero, per esempio 64,5"),
        "{}",
        refused.errors()
    );
    assert!(refused.body.contains("sessanta"));
    // A comma is read, and comes back as one.
    let typed = site::form(&s, &[("hydration_percent", "63,5")]);
    let comma = s.post_with("/dough", &typed, &[ITALIAN]).await?;
    let kept = s.get_with(comma.header("location"), &[ITALIAN]).await?;
    assert!(kept.body.contains("63,5"), "{}", comma.errors());
    // Whoever chooses is asked no more: their browser may say what it likes.
    let chosen = s
        .post(
            "/me/language",
            &pairs(&[("language", "it"), ("back", "/people")]),
        )
        .await?;
    assert_eq!(chosen.header("location"), "/people");
    let mine = s.get_with("/", &[("accept-language", "en-GB")]).await?;
    assert!(mine.body.contains("lang=\"it\""), "chosen");
    assert!(
        mine.header("x-whose").ends_with(".it"),
        "{}",
        mine.header("x-whose")
    );
    let lost = s
        .get_with("/batches/ZZ-99", &[("accept-language", "en-GB")])
        .await?;
    assert!(lost.body.contains("Nessun impasto con quella sigla"));
    // The words and another kitchen, whose addresses are open to all, too.
    assert!(mine.body.contains("href=\"/words?in=it\""));
    let words = s
        .get_with("/words?in=it", &[("accept-language", "en-GB")])
        .await?;
    assert!(words.body.contains("Forza residua"));
    let begin = s
        .get_with("/begin", &[("accept-language", "en-GB")])
        .await?;
    assert!(
        begin.body.contains("Un’altra cucina accanto"),
        "another kitchen"
    );
    // And back, by the link at the foot of every page.
    assert!(
        mine.body
            .contains("<button class=\"link\" name=\"language\" value=\"en\"")
    );
    s.post(
        "/me/language",
        &pairs(&[("language", "en"), ("back", "//elsewhere.example")]),
    )
    .await?;
    assert!(
        s.get_with("/", &[ITALIAN])
            .await?
            .body
            .contains("lang=\"en\"")
    );
    let none = s
        .post("/me/language", &pairs(&[("language", "xx")]))
        .await?;
    assert_eq!(none.status, 404);
    s.close().await
}

#[tokio::test]
async fn two_people_of_one_kitchen_read_each_their_own() -> Result<()> {
    let s = Site::open().await?;
    let g = guarded(&s).await?;
    let cook = g.join("Rafi Oduya", "cook").await?;
    let it = pairs(&[("language", "it"), ("back", "/")]);
    g.post("/me/language", &it, &cook).await?;
    let batch = g.batch(&s, "Uno").await?;
    // What was drawn for one is not shown to the other.
    for _ in 0..2 {
        let path = format!("/batches/{batch}");
        let theirs = g.get(&path, &cook).await?.body;
        let mine = g.get(&path, &g.owner).await?.body;
        assert!(theirs.contains("Pesa e impasta"), "Italian");
        assert!(mine.contains("Weigh and mix"), "English");
        assert!(!theirs.contains("Weigh and mix") && !mine.contains("Pesa e impasta"));
    }
    s.close().await
}
