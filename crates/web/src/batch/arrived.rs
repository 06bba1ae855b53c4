//! An entry that arrived: who sent it, about which batch, what the form held and when it happened. Every handler that takes an
//! entry begins with this, and only says what was entered.

use super::load;
use crate::App;
use crate::batch::entries::{self, Sent};
use crate::batch::record::BatchRecord;
use crate::shared::error::{AppError, wants_json};
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::theme::Theme;
use axum::body::Bytes;
use axum::extract::{FromRequest, FromRequestParts, Multipart, RawPathParams, Request};
use axum::http::StatusCode;
use axum::http::request::Parts;
use axum::response::{IntoResponse, Response};
use craft::fact::Fact;
use store::entry::{EntryOutcome, SaidEntry, Standing};

/// The field of a form that holds its file.
const FILE: &str = "file";

/// What came with an entry.
pub struct Arrived {
    pub app: App,
    pub here: RequestKitchen,
    pub theme: Theme,
    pub told: BatchRecord,
    pub typed: FormData,
    /// Key and moment, or why the moment cannot be.
    pub sent: Result<Sent, String>,
    /// Whether a script asked, which wants JSON.
    pub by_script: bool,
}

impl FromRequest<App> for Arrived {
    type Rejection = Response;
    async fn from_request(request: Request, app: &App) -> Result<Self, Response> {
        let (parts, body) = request.into_parts();
        let whole = Request::from_parts(parts.clone(), body);
        let body = Bytes::from_request(whole, app)
            .await
            .map_err(|_| StatusCode::BAD_REQUEST.into_response())?;
        Arrived::with(parts, app, FormData::parse(&body)).await
    }
}

/// An entry that came with a file.
pub struct ArrivedFile {
    pub arrived: Arrived,
    /// The file; `None` where none was chosen.
    pub file: Option<Bytes>,
}

impl FromRequest<App> for ArrivedFile {
    type Rejection = Response;
    async fn from_request(request: Request, app: &App) -> Result<Self, Response> {
        let (parts, body) = request.into_parts();
        let whole = Request::from_parts(parts.clone(), body);
        let mut fields = Multipart::from_request(whole, app)
            .await
            .map_err(IntoResponse::into_response)?;
        let (mut typed, mut file) = (FormData::default(), None);
        while let Ok(Some(field)) = fields.next_field().await {
            match field.name().map(str::to_string) {
                Some(name) if name == FILE => file = field.bytes().await.ok(),
                Some(name) => {
                    if let Ok(text) = field.text().await {
                        typed.set(&name, text);
                    }
                }
                None => {}
            }
        }
        Ok(ArrivedFile {
            arrived: Arrived::with(parts, app, typed).await?,
            file: file.filter(|f| !f.is_empty()),
        })
    }
}

impl Arrived {
    /// With what its form held.
    async fn with(mut parts: Parts, app: &App, typed: FormData) -> Result<Self, Response> {
        let here = RequestKitchen::from_request_parts(&mut parts, app)
            .await
            .map_err(IntoResponse::into_response)?;
        let theme = Theme::of(&parts.headers);
        let by_script = wants_json(&parts.headers);
        let params = RawPathParams::from_request_parts(&mut parts, app)
            .await
            .map_err(IntoResponse::into_response)?;
        let code = params.iter().find(|(name, _)| *name == "code");
        let code = code.map_or(String::new(), |(_, code)| code.to_string());
        let told = load::told(app, &here, &code)
            .await
            .map_err(IntoResponse::into_response)?;
        let sent = Sent::of(&typed, by_script, &here).and_then(|s| s.admitted(&told, &here));
        Ok(Arrived {
            app: app.clone(),
            here,
            theme,
            told,
            typed,
            sent,
            by_script,
        })
    }

    pub fn code(&self) -> &str {
        &self.told.batch.code
    }

    /// Keeps what was entered, where it makes sense among what is kept.
    pub async fn keep(
        &self,
        sent: &Sent,
        said: impl Into<SaidEntry>,
        admits: &(dyn Fn(&Standing) -> Result<(), Fact> + Sync),
    ) -> Result<EntryOutcome, AppError> {
        entries::keep(&self.app, &self.here, &self.told, sent, said, admits).await
    }

    /// Keeps what was entered and answers: back to a page, or as JSON. A moment that cannot be is refused.
    pub async fn entered(
        &self,
        said: impl Into<SaidEntry>,
        back: &str,
        admits: &(dyn Fn(&Standing) -> Result<(), Fact> + Sync),
    ) -> Result<Response, AppError> {
        let sent = match &self.sent {
            Ok(sent) => sent,
            Err(e) => return Ok(entries::refused(e.clone(), self.by_script)),
        };
        let said = said.into();
        let words = entries::words(&said, &self.here);
        let kept = self.keep(sent, said, admits).await?;
        Ok(entries::answer(kept, sent, &self.here, &words, back))
    }
}
