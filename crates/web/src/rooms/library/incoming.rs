//! Formulas that come in: pasted text and files. What was read is shown beside the text; nothing is kept before the
//! maker says so.

use crate::App;
use crate::access::doors::{Doors, LOOK};
use crate::formula_form::opened;
use crate::formula_form::reading::in_tongue;
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::shipped;
use crate::shared::tongue::{phrase, plain, say};
use askama::Template;
use axum::body::Bytes;
use axum::extract::{Multipart, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};
use craft::exchange::{from_recipe_ld, import};
use craft::formula::Formula;
use craft::paste::{PasteRequest, Pasted, Status, read};
use craft::refusal::ValidationError;
use craft::style::Style;

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/formulas/paste", paste_form)
        .post(LOOK, "/formulas/paste", paste)
        .post(LOOK, "/formulas/import", file)
}

struct LineView {
    text: String,
    /// "read", "rough", "unread", "heading", "method", "blank".
    class: &'static str,
    word: &'static str,
    reads: Vec<String>,
}

struct IncomingOption {
    key: String,
    name: String,
    chosen: bool,
}

/// What was read, to be checked.
struct FoundRecipe {
    lines: Vec<LineView>,
    facts: Vec<(String, String)>,
    doubts: Vec<String>,
    /// The formula as fields of the Dough sheet.
    fields: Vec<(String, String)>,
}

#[derive(Template)]
#[template(path = "rooms/library/paste.html")]
struct PastePage {
    frame: Frame,
    text: String,
    styles: Vec<IncomingOption>,
    error: Option<String>,
    file_error: Option<String>,
    found: Option<FoundRecipe>,
    /// A recipe in the kitchen's own units.
    example: String,
}

fn word(s: Status) -> (&'static str, &'static str) {
    match s {
        Status::Read => ("read", ""),
        Status::Rough => ("rough", "rough"),
        Status::Heading => ("heading", ""),
        Status::Method => ("method", phrase("library-not-weighed")),
        Status::Unread => ("unread", phrase("library-not-understood")),
        Status::Blank => ("blank", ""),
    }
}

fn lines(p: &Pasted, here: &RequestKitchen) -> Vec<LineView> {
    p.lines
        .iter()
        .map(|l| {
            let (class, word) = word(l.status);
            LineView {
                text: l.text.clone(),
                class,
                word,
                reads: l
                    .items
                    .iter()
                    .map(|i| {
                        let amount = if i.is_percent {
                            format!("{} %", plain(i.grams))
                        } else {
                            here.measures.weighed(i.grams)
                        };
                        if i.rough {
                            format!("{amount} {} ({})", i.name, i.how)
                        } else {
                            format!("{amount} {}", i.name)
                        }
                    })
                    .chain(
                        l.cold_h
                            .map(|h| say!("library-h-in-the-fridge", h = plain(h))),
                    )
                    .chain(l.unread.iter().map(|u| say!("library-no-weight", u = u)))
                    .collect(),
            }
        })
        .collect()
}

fn fields(f: &Formula, name: &str, why: &str, here: &RequestKitchen) -> Vec<(String, String)> {
    let mut typed: FormData = opened(f, Some(name), None, here);
    typed.set("why", why);
    typed.set("tab", "dough");
    typed.into_entries()
}

struct ShownRecipe<'a> {
    here: &'a RequestKitchen,
    theme: Theme,
    larder: Larder,
    style: Style,
}

impl<'a> ShownRecipe<'a> {
    async fn of(
        app: &App,
        here: &'a RequestKitchen,
        theme: Theme,
        style: &str,
    ) -> Result<ShownRecipe<'a>, AppError> {
        let larder = Larder::of(app, here).await?;
        let style = larder
            .style(style)
            .unwrap_or_else(|| craft::style::first().clone());
        Ok(ShownRecipe {
            here,
            theme,
            larder,
            style,
        })
    }
    fn page(
        &self,
        text: &str,
        error: Option<String>,
        file_error: Option<String>,
        found: Option<FoundRecipe>,
    ) -> Result<Response, AppError> {
        let status = if error.is_some() || file_error.is_some() {
            StatusCode::UNPROCESSABLE_ENTITY
        } else {
            StatusCode::OK
        };
        let own = self.larder.0.styles.iter().map(|s| &s.facts);
        let html = page(&PastePage {
            frame: Frame::of(
                self.here,
                self.theme,
                Stop::Sheet,
                phrase("library-paste-a-recipe"),
                None,
                "/formulas/paste",
            ),
            text: text.into(),
            example: [
                (500.0, phrase("library-example-flour")),
                (325.0, phrase("library-example-water")),
                (14.0, phrase("library-example-salt")),
                (100.0, phrase("library-example-starter")),
            ]
            .map(|(g, what)| format!("{} {what}", self.here.measures.weighed(g)))
            .join("\n"),
            styles: craft::style::all()
                .iter()
                .chain(own)
                .map(|s| IncomingOption {
                    key: s.key.clone(),
                    name: shipped(&s.name),
                    chosen: s.key == self.style.key,
                })
                .collect(),
            error,
            file_error,
            found,
        })?;
        Ok((status, html).into_response())
    }
    fn found(&self, p: &Pasted, name: &str, why: &str) -> FoundRecipe {
        FoundRecipe {
            lines: lines(p, self.here),
            facts: super::facts(&p.formula, self.here),
            doubts: p.doubts.iter().map(|d| self.here.say(d)).collect(),
            fields: fields(&in_tongue(&p.formula), name, why, self.here),
        }
    }
}

async fn paste_form(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
) -> Result<Response, AppError> {
    ShownRecipe::of(&app, &here, theme, "")
        .await?
        .page("", None, None, None)
}

async fn paste(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let shown = ShownRecipe::of(&app, &here, theme, typed.text("style")).await?;
    let text = typed.raw("text").replace("\r\n", "\n");
    let asked = PasteRequest {
        text: text.clone(),
        style: shown.style.clone(),
    };
    match read(&asked) {
        Ok(p) => {
            let found = shown.found(
                &p,
                phrase("library-pasted-recipe"),
                phrase("library-read-from-a-pasted-recipe"),
            );
            shown.page(&text, None, None, Some(found))
        }
        Err(e) => shown.page(&text, Some(sentence(e, &here)), None, None),
    }
}

fn sentence(ValidationError(errors): ValidationError, here: &RequestKitchen) -> String {
    let said: Vec<String> = errors
        .into_iter()
        .map(|e| match e.field.as_str() {
            "file" | "text" => here.say(&e.message),
            field => format!("{field}: {}", here.say(&e.message)),
        })
        .collect();
    said.join(" ")
}

/// A file: our own, or a schema.org recipe.
async fn file(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    mut parts: Multipart,
) -> Result<Response, AppError> {
    let shown = ShownRecipe::of(&app, &here, theme, "").await?;
    let mut bytes: Option<Bytes> = None;
    while let Ok(Some(field)) = parts.next_field().await {
        if field.name() == Some("file") {
            bytes = field.bytes().await.ok();
        }
    }
    let Some(bytes) = bytes.filter(|b| !b.is_empty()) else {
        return shown.page(
            "",
            None,
            Some(phrase("library-choose-a-file-first-a").into()),
            None,
        );
    };
    let ours = bytes
        .windows(b"slow-rise-formula".len())
        .any(|w| w == b"slow-rise-formula");
    if ours || !bytes.windows(6).any(|w| w == b"Recipe") {
        return match import(&bytes) {
            Ok(kept) => {
                let found = FoundRecipe {
                    lines: vec![],
                    facts: super::facts(&kept.formula, &here),
                    doubts: vec![],
                    fields: fields(&kept.formula, &kept.name, &kept.why, &here),
                };
                shown.page("", None, None, Some(found))
            }
            Err(e) => shown.page("", None, Some(sentence(e, &here)), None),
        };
    }
    match from_recipe_ld(&bytes, &shown.style) {
        Ok((name, p)) => {
            let found = shown.found(&p, &name, phrase("library-read-from-a-recipe-file"));
            shown.page("", None, None, Some(found))
        }
        Err(e) => shown.page("", None, Some(sentence(e, &here)), None),
    }
}
