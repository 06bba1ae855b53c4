//! The table: one taster after the other, plates under letters in an order of their own, one tap for each thing that is said.

use super::{TrialRecord, secret};
use crate::App;
use crate::batch::entries::{self, Sent};
use crate::shared::error::{AppError, wants_json};
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::{phrase, say};
use askama::Template;
use axum::body::Bytes;
use axum::extract::{Path, Query, State};
use axum::http::HeaderMap;
use axum::response::{Html, Response};
use craft::keyed::Keyed;
use craft::trial::tasted::MOST_SCORE;
use craft::trial::{Criterion, Tasted, blind};
use serde::Deserialize;
use store::entry::Seen;
use uuid::Uuid;

/// One step of a scale.
struct ScoreTap {
    score: u8,
    /// What is posted.
    say: String,
    on: bool,
    label: String,
}

struct ScaleView {
    name: String,
    least: String,
    most: String,
    taps: Vec<ScoreTap>,
}

struct PlateView {
    letter: char,
    /// What is seen and tasted.
    scales: Vec<ScaleView>,
    /// What the hands feel before.
    bench: Vec<ScaleView>,
}

struct PairView {
    ask: String,
    taps: Vec<(String, String, bool)>,
}

#[derive(Template)]
#[template(path = "rooms/trials/taste.html")]
struct TastePage {
    frame: Frame,
    code: String,
    taster: u8,
    tasters: u8,
    order: String,
    plates: Vec<PlateView>,
    pairs: Vec<PairView>,
    entry_key: Uuid,
    may_tap: bool,
}

#[derive(Deserialize)]
pub struct Seat {
    #[serde(default)]
    taster: String,
}

/// A seat at the table; one that is not there is the first.
fn seat(text: &str, t: &TrialRecord) -> u8 {
    let n = text.parse::<u8>().unwrap_or(1);
    if (1..=t.kept.trial.tasters).contains(&n) {
        n
    } else {
        1
    }
}

pub async fn show(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(code): Path<String>,
    Query(asked): Query<Seat>,
) -> Result<Html<String>, AppError> {
    let t = super::told(&app, &here, &code).await?;
    let taster = seat(&asked.taster, &t);
    let n = t.kept.trial.arms.len() as u8;
    let behind = blind::behind_letters(secret(&t.kept), n);
    let letter = |place: u8| char::from(b'A' + place);
    let order = blind::order(n, taster);
    let scale = |c: Criterion, place: u8| {
        let arm = behind[usize::from(place)];
        let now = t.said.scores.get(&(taster, arm, c)).copied();
        let [least, most] = c.ends();
        let name = here.words(&c.name());
        ScaleView {
            taps: (1..=MOST_SCORE)
                .map(|score| {
                    let on = now == Some(score);
                    ScoreTap {
                        score,
                        say: match on {
                            true => format!("score:{}:{}:", letter(place), c.key()),
                            false => format!("score:{}:{}:{score}", letter(place), c.key()),
                        },
                        on,
                        label: say!(
                            "trial-score-label",
                            plate = letter(place),
                            what = name,
                            score = score
                        ),
                    }
                })
                .collect(),
            least: here.words(&least),
            most: here.words(&most),
            name,
        }
    };
    let pairs = t
        .kept
        .trial
        .pairs()
        .into_iter()
        .map(|(a, b)| {
            let (p, q) = (letter(a), letter(b));
            let (x, y) = (behind[usize::from(a)], behind[usize::from(b)]);
            let liked = t.said.liked.get(&(taster, (x.min(y), x.max(y)))).copied();
            PairView {
                ask: say!("trial-which-better", a = p, b = q),
                taps: [(p, x), (q, y)]
                    .into_iter()
                    .map(|(l, arm)| {
                        let on = liked == Some(arm);
                        let chosen = if on { String::new() } else { l.to_string() };
                        (l.to_string(), format!("like:{p}:{q}:{chosen}"), on)
                    })
                    .collect(),
            }
        })
        .collect();
    let (of_the_bench, of_the_table): (Vec<Criterion>, Vec<Criterion>) = Criterion::ALL
        .iter()
        .copied()
        .partition(|c| c.is_of_the_bench());
    let path = format!("/trials/{}/taste?taster={taster}", t.kept.code);
    page(&TastePage {
        frame: Frame::of(
            &here,
            theme,
            Stop::Ledger,
            phrase("trial-table"),
            None,
            &path,
        ),
        code: t.kept.code.clone(),
        taster,
        tasters: t.kept.trial.tasters,
        order: order
            .iter()
            .map(|p| letter(*p).to_string())
            .collect::<Vec<_>>()
            .join(", "),
        plates: order
            .iter()
            .map(|place| PlateView {
                letter: letter(*place),
                scales: of_the_table.iter().map(|c| scale(*c, *place)).collect(),
                bench: of_the_bench.iter().map(|c| scale(*c, *place)).collect(),
            })
            .collect(),
        pairs,
        entry_key: Uuid::new_v4(),
        may_tap: here.may(craft::people::Right::Tap),
    })
}

/// What a tap says: `score:B:chew:4`, `like:A:C:A`; the last part empty takes it back.
fn read(said: &str, taster: u8, t: &TrialRecord) -> Option<Tasted> {
    let n = t.kept.trial.arms.len() as u8;
    let behind = blind::behind_letters(secret(&t.kept), n);
    let arm = |letter: &str| {
        let c = letter.bytes().next().filter(|_| letter.len() == 1)?;
        behind.get(usize::from(c.checked_sub(b'A')?)).copied()
    };
    let parts: Vec<&str> = said.split(':').collect();
    let tasted = match parts.as_slice() {
        ["score", letter, of, score] => Tasted::Scored {
            taster,
            arm: arm(letter)?,
            of: Criterion::from_key(of)?,
            score: match *score {
                "" => None,
                s => Some(s.parse().ok()?),
            },
        },
        ["like", a, b, chosen] => {
            let (x, y) = (arm(a)?, arm(b)?);
            Tasted::Preferred {
                taster,
                pair: (x.min(y), x.max(y)),
                arm: match *chosen {
                    "" => None,
                    l => Some(arm(l)?),
                },
            }
        }
        _ => return None,
    };
    tasted.fits(n, t.kept.trial.tasters).then_some(tasted)
}

pub async fn tasted(
    State(app): State<App>,
    here: RequestKitchen,
    headers: HeaderMap,
    Path(code): Path<String>,
    body: Bytes,
) -> Result<Response, AppError> {
    let t = super::told(&app, &here, &code).await?;
    let typed = FormData::parse(&body);
    let by_script = wants_json(&headers);
    let taster = typed.text("taster").parse::<u8>().unwrap_or(0);
    let Some(tasted) = read(typed.text("say"), taster, &t) else {
        return Ok(entries::refused(
            phrase("trial-nothing-of-this-table").into(),
            by_script,
        ));
    };
    let of = match tasted {
        Tasted::Scored { arm, .. } => arm,
        Tasted::Preferred { pair, .. } => pair.0,
    };
    let told = &t.arms[usize::from(of)];
    let sent = match Sent::of(&typed, by_script, &here).and_then(|s| s.admitted(told, &here)) {
        Ok(sent) => sent,
        Err(e) => return Ok(entries::refused(e, by_script)),
    };
    let seen = Seen::Tasted {
        trial: t.kept.key,
        tasted,
    };
    let kept = entries::keep(&app, &here, told, &sent, seen, &entries::always).await?;
    let back = format!("/trials/{}/taste?taster={taster}", t.kept.code);
    Ok(entries::answer(
        kept,
        &sent,
        &here,
        phrase("trial-a-tasting"),
        &back,
    ))
}
