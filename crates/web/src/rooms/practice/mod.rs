//! Practice: cases drawn from the models, one after the other and none twice, at three levels.

use crate::App;
use crate::access::doors::{Doors, LOOK};
use crate::shared::chart::{Hold, Svg};
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::{decimal, phrase, say, shipped};
use askama::Template;
use axum::body::Bytes;
use axum::extract::{Query, State};
use axum::response::Html;
use craft::practice::{LEVELS, PracticeCase, case};
use serde::Deserialize;
use store::practised::{self, PractisedLevel};

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/practice", show)
        .post(LOOK, "/practice", answer)
}

struct LevelView {
    level: u8,
    name: &'static str,
    tally: String,
    here: bool,
}

struct ChoiceView {
    index: usize,
    letter: char,
    says: String,
    /// What the models say of it; only once it was answered.
    outcome: String,
    right: bool,
    chosen: bool,
}

#[derive(Template)]
#[template(path = "rooms/practice/page.html")]
struct PracticePage {
    frame: Frame,
    level: u8,
    number: u32,
    levels: Vec<LevelView>,
    story: Vec<String>,
    picture: String,
    asks: String,
    choices: Vec<ChoiceView>,
    /// Nothing before the answer; then whether it was the one.
    hit: Option<bool>,
    why: String,
}

#[derive(Deserialize)]
struct PracticeQuery {
    #[serde(default)]
    level: String,
}

fn level_of(text: &str) -> u8 {
    match text.parse::<u8>() {
        Ok(n) if (1..=LEVELS).contains(&n) => n,
        _ => 1,
    }
}

/// A number for each kitchen, hand, level and case: nobody gets the same cases, and nobody one of them twice.
fn seed(here: &RequestKitchen, level: u8, number: u32) -> u64 {
    let mut h: u64 = 0xcbf2_9ce4_8422_2325;
    let who = here.author().name().as_bytes().to_vec();
    let bytes = here.id().0.to_le_bytes();
    let more = [&[level][..], &number.to_le_bytes()[..]].concat();
    for b in bytes.iter().chain(&who).chain(&more) {
        h = (h ^ u64::from(*b)).wrapping_mul(0x100_0000_01b3);
    }
    h
}

async fn show(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Query(asked): Query<PracticeQuery>,
) -> Result<Html<String>, AppError> {
    let level = level_of(&asked.level);
    let mut db = app.db.acquire().await?;
    let gone = practised::of(&mut db, here.id(), here.author().name()).await?;
    drop(db);
    let number = gone[usize::from(level) - 1].next_case;
    let drawn = drawn(&app, &here, level, number).await?;
    page(&rendered(&here, theme, (level, number), gone, &drawn, None))
}

async fn answer(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    body: Bytes,
) -> Result<Html<String>, AppError> {
    let typed = FormData::parse(&body);
    let level = level_of(typed.text("level"));
    let who = here.author().name().to_string();
    let mut db = app.db.acquire().await?;
    let gone = practised::of(&mut db, here.id(), &who).await?;
    let next = gone[usize::from(level) - 1].next_case;
    // One that is not there yet is the next one.
    let number = typed.text("case").parse::<u32>().unwrap_or(next).min(next);
    let drawn = drawn(&app, &here, level, number).await?;
    let chosen = typed.text("choice").parse::<usize>().ok();
    let Some(chosen) = chosen.filter(|c| *c < drawn.choices.len()) else {
        return page(&rendered(&here, theme, (level, number), gone, &drawn, None));
    };
    let hit = chosen == drawn.right;
    practised::answered(&mut db, here.id(), &who, (level, number), hit).await?;
    let gone = practised::of(&mut db, here.id(), &who).await?;
    drop(db);
    page(&rendered(
        &here,
        theme,
        (level, number),
        gone,
        &drawn,
        Some(chosen),
    ))
}

/// The case of a number; one of which the models make nothing clear is passed over for one beside it.
async fn drawn(
    app: &App,
    here: &RequestKitchen,
    level: u8,
    number: u32,
) -> Result<PracticeCase, AppError> {
    let seed = seed(here, level, number);
    let found = app
        .models
        .at_length(|| (0..4u64).find_map(|n| case(level, seed ^ (n << 32))))
        .await?;
    found.ok_or_else(|| AppError::Asked(phrase("practice-no-clear-case").into()))
}

fn rendered(
    here: &RequestKitchen,
    theme: Theme,
    (level, number): (u8, u32),
    gone: [PractisedLevel; 3],
    c: &PracticeCase,
    chosen: Option<usize>,
) -> PracticePage {
    let names = [
        phrase("practice-level-tub"),
        phrase("practice-level-fires"),
        phrase("practice-level-mishap"),
    ];
    let path = format!("/practice?level={level}");
    PracticePage {
        frame: Frame::of(
            here,
            theme,
            Stop::Ledger,
            phrase("practice-practice"),
            None,
            &path,
        ),
        level,
        number,
        levels: names
            .into_iter()
            .zip(gone)
            .enumerate()
            .map(|(i, (name, g))| LevelView {
                level: i as u8 + 1,
                name,
                tally: match g.answered {
                    0 => phrase("practice-not-yet").to_string(),
                    n => say!("practice-tally", hit = g.hit, n = n),
                },
                here: usize::from(level) == i + 1,
            })
            .collect(),
        story: c.story.iter().map(|f| shipped(&here.say(f))).collect(),
        picture: tubs(c),
        asks: here.say(&c.asks),
        choices: c
            .choices
            .iter()
            .enumerate()
            .map(|(i, x)| ChoiceView {
                index: i,
                letter: char::from(b'a' + i as u8),
                says: here.say(&x.says),
                outcome: chosen.map_or(String::new(), |_| here.say(&x.outcome)),
                right: chosen.is_some() && i == c.right,
                chosen: chosen == Some(i),
            })
            .collect(),
        hit: chosen.map(|x| x == c.right),
        why: chosen.map_or(String::new(), |_| here.say(&c.why)),
    }
}

/// The tub as it was planned and as it stands, where the case is of one.
fn tubs(c: &PracticeCase) -> String {
    let told = c
        .story
        .iter()
        .find_map(|f| Some((f.number("wanted")?, f.number("stands")?)));
    let Some((wanted, stands)) = told else {
        return String::new();
    };
    let label = say!(
        "practice-tubs",
        wanted = decimal(wanted, 1),
        stands = decimal(stands, 1)
    );
    let mut svg = Svg::new(300.0, 150.0, "tubs", &label);
    let y = |times: f64| 128.0 - 36.0 * times.min(3.2);
    for (x, times, word, class) in [
        (24.0, wanted, phrase("practice-as-planned"), "dough-planned"),
        (170.0, stands, phrase("practice-as-it-stands"), "dough-real"),
    ] {
        svg.rect(
            x,
            y(times),
            100.0,
            128.0 - y(times),
            &format!(r#"class="{class}""#),
        );
        svg.path(
            &format!("M{x} 10V128H{:.0}V10", x + 100.0),
            r#"class="tub""#,
        );
        svg.path(
            &format!("M{:.0} {:.1}h116", x - 8.0, y(1.0)),
            r#"class="first-mark""#,
        );
        svg.text(
            x + 50.0,
            y(times) - 6.0,
            "b d16 halo",
            Hold::Middle,
            &format!("{} ×", decimal(times, 1)),
        );
        svg.text(x + 50.0, 146.0, "tk", Hold::Middle, word);
    }
    svg.end()
}
