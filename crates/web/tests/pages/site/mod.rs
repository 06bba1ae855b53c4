//! A router on a database of its own, asked without a socket.

mod guarded;

use anyhow::Result;
use axum::Router;
use axum::body::Body;
use axum::http::{HeaderMap, Request, StatusCode};
use craft::sheet::KitchenUsual;
use craft::units::{LengthUnit, TemperatureUnit, WeightUnit};
pub use guarded::{Guarded, PASSWORD, cookie, guarded, sign_in};
use http_body_util::BodyExt;
use jiff::{SignedDuration, Timestamp};
use store::Db;
use store::kitchen::{self, NewKitchen, Reads};
use store::people::person::give_owners;
use testbed::db::TestDb;
use tower::ServiceExt;

/// The only kitchen of a database.
async fn the_kitchen(c: &mut store::MySqlConnection) -> Result<Option<store::kitchen::Kitchen>> {
    match kitchen::all(c).await?.as_slice() {
        [(id, _)] => Ok(kitchen::by_id(c, *id).await?),
        _ => Ok(None),
    }
}

/// Where the tests ask.
const HOST: &str = "127.0.0.1:8080";
const ORIGIN: &str = "http://127.0.0.1:8080";

/// A biga of a part of the flour, overnight, as the form has it.
pub const BIGA: [(&str, &str); 9] = [
    ("preferments[0].kind", "biga"),
    ("preferments[0].flour_percent", "40"),
    ("preferments[0].hydration_percent", "48"),
    ("preferments[0].yeast.form", "instant"),
    ("preferments[0].yeast.dose", "solve"),
    ("preferments[0].warm_h", "16"),
    ("preferments[0].warm_c", "18"),
    ("preferments[0].cold_h", "0"),
    ("preferments[0].target_c", "21"),
];

pub struct Answer {
    pub status: StatusCode,
    pub headers: HeaderMap,
    pub body: String,
    /// As it came: a picture is no text.
    pub bytes: Vec<u8>,
}

impl Answer {
    pub fn header(&self, name: &str) -> &str {
        self.headers
            .get(name)
            .and_then(|v| v.to_str().ok())
            .unwrap_or("")
    }
    pub fn json(&self) -> serde_json::Value {
        serde_json::from_str(&self.body).unwrap_or_else(|e| panic!("{e}: {}", self.body))
    }
    /// The sentences beside the fields, for messages of failing tests.
    pub fn errors(&self) -> String {
        self.body
            .split("-error\">")
            .skip(1)
            .filter_map(|p| p.split("</p>").next())
            .filter(|s| !s.is_empty())
            .collect::<Vec<_>>()
            .join(" | ")
    }
}

pub async fn ask(
    router: &Router,
    method: &str,
    path: &str,
    body: &str,
    headers: &[(&str, &str)],
) -> Result<Answer> {
    let mut request = Request::builder().method(method).uri(path);
    // What a browser sends on a page of ours, unless a test says otherwise.
    let says = |name: &str| headers.iter().any(|(n, _)| *n == name);
    if !says("host") {
        request = request.header("host", HOST);
    }
    if method == "POST" && !says("origin") && !says("sec-fetch-site") {
        request = request.header("origin", ORIGIN);
    }
    if method == "POST" && !says("content-type") {
        let kind = if path.starts_with("/api/") {
            "application/json"
        } else {
            "application/x-www-form-urlencoded"
        };
        request = request.header("content-type", kind);
    }
    for (name, value) in headers {
        request = request.header(*name, *value);
    }
    let response = router
        .clone()
        .oneshot(request.body(Body::from(body.to_string()))?)
        .await?;
    answer(response).await
}

async fn answer(response: axum::response::Response) -> Result<Answer> {
    let (parts, body) = response.into_parts();
    let bytes = body.collect().await?.to_bytes();
    Ok(Answer {
        status: parts.status,
        headers: parts.headers,
        body: String::from_utf8_lossy(&bytes).into_owned(),
        bytes: bytes.to_vec(),
    })
}

/// A kitchen to be made, that reads °C and g.
pub fn new_kitchen(name: &str) -> NewKitchen {
    NewKitchen {
        name: name.into(),
        usual: KitchenUsual {
            time_zone: "Europe/London".into(),
            altitude_m: 310.0,
            room_c: 19.5,
            fridge_c: 4.5,
            tap_water_c: 9.5,
            scales: Default::default(),
        },
        rhythm: Default::default(),
        work: Default::default(),
        reads: Reads::default(),
    }
}

pub struct Site {
    pub router: Router,
    pub pool: Db,
    db: TestDb,
}

impl Site {
    pub async fn open() -> Result<Site> {
        Site::reading_in(TemperatureUnit::Celsius, WeightUnit::Grams).await
    }
    /// A kitchen that reads in these units.
    pub async fn reading_in(
        temperature_unit: TemperatureUnit,
        weight_unit: WeightUnit,
    ) -> Result<Site> {
        let db = TestDb::new().await?;
        let pool = Db::at(&db.url)?;
        store::migrate(&pool).await?;
        let new = NewKitchen {
            reads: Reads {
                temperature: temperature_unit,
                weight: weight_unit,
                length: match weight_unit {
                    WeightUnit::Ounces | WeightUnit::Pounds => LengthUnit::Inches,
                    WeightUnit::Grams | WeightUnit::Kilograms => LengthUnit::Centimetres,
                },
                ..Reads::default()
            },
            ..new_kitchen("Larchfold Halt")
        };
        let mut c = pool.acquire().await?;
        kitchen::add(&mut c, &new, Timestamp::now()).await?;
        give_owners(&mut c, Timestamp::now()).await?;
        drop(c);
        Ok(Site {
            router: web::router(pool.clone()),
            pool,
            db,
        })
    }
    /// The same under a public name.
    pub fn called(self, public_url: &str) -> Site {
        let site = web::Site::new(Some(public_url), vec![]).unwrap();
        Site {
            router: web::router_at(self.pool.clone(), site, web::SignIn::Off),
            ..self
        }
    }
    pub async fn close(self) -> Result<()> {
        self.pool.close().await;
        self.db.close().await
    }
    pub async fn get(&self, path: &str) -> Result<Answer> {
        ask(&self.router, "GET", path, "", &[]).await
    }
    pub async fn get_with(&self, path: &str, headers: &[(&str, &str)]) -> Result<Answer> {
        ask(&self.router, "GET", path, "", headers).await
    }
    pub async fn post(&self, path: &str, body: &str) -> Result<Answer> {
        ask(&self.router, "POST", path, body, &[]).await
    }
    pub async fn post_with(
        &self,
        path: &str,
        body: &str,
        headers: &[(&str, &str)],
    ) -> Result<Answer> {
        ask(&self.router, "POST", path, body, headers).await
    }
    /// Sends a file as a browser's form does.
    pub async fn upload(&self, path: &str, file: &[u8]) -> Result<Answer> {
        self.upload_with(path, &[], file, &[]).await
    }
    /// The same with other fields before the file, and headers.
    pub async fn upload_with(
        &self,
        path: &str,
        fields: &[(&str, &str)],
        file: &[u8],
        headers: &[(&str, &str)],
    ) -> Result<Answer> {
        let mut body = Vec::new();
        for (name, value) in fields {
            let head = format!("--edge\r\nContent-Disposition: form-data; name=\"{name}\"\r\n\r\n");
            body.extend_from_slice(format!("{head}{value}\r\n").as_bytes());
        }
        body.extend_from_slice(b"--edge\r\nContent-Disposition: form-data; name=\"file\"; filename=\"x\"\r\nContent-Type: application/octet-stream\r\n\r\n");
        body.extend_from_slice(file);
        body.extend_from_slice(b"\r\n--edge--\r\n");
        let request = Request::builder()
            .method("POST")
            .uri(path)
            .header("host", HOST)
            .header("origin", ORIGIN)
            .header("content-type", "multipart/form-data; boundary=edge");
        let request = headers.iter().fold(request, |r, (n, v)| r.header(*n, *v));
        answer(
            self.router
                .clone()
                .oneshot(request.body(Body::from(body))?)
                .await?,
        )
        .await
    }
    /// How many batches the kitchen has.
    pub async fn batches(&self) -> Result<usize> {
        let mut db = self.pool.acquire().await?;
        let here = the_kitchen(&mut db).await?.unwrap();
        Ok(
            store::batch::live(&mut db, here.id, 0, 1, &store::BatchCache::default())
                .await?
                .in_all as usize,
        )
    }
    /// Keeps a batch from a good form and returns its code.
    pub async fn keep(&self, changes: &[(&str, &str)]) -> Result<String> {
        let page = self.post("/dough", &form(self, changes)).await?;
        assert_eq!(page.status, StatusCode::SEE_OTHER, "{}", page.errors());
        Ok(page
            .header("location")
            .trim_start_matches("/batches/")
            .to_string())
    }
    /// A batch that was mixed and balled as it was planned, though it is entered now.
    pub async fn begun(&self, changes: &[(&str, &str)]) -> Result<String> {
        // Planned a day and more before it is served, by a clock that is not judged: the hours are past.
        let other = changes.iter().filter(|c| !c.0.starts_with("serve_"));
        let other: Vec<_> = other.copied().collect();
        let code = self.keep(&other).await?;
        let mut db = self.pool.acquire().await?;
        let here = the_kitchen(&mut db).await?.unwrap();
        let held = store::BatchCache::default();
        let b = store::batch::by_code(&mut db, here.id, &code, &held)
            .await?
            .unwrap();
        let serve = |name: &str| changes.iter().find(|c| c.0 == name).map_or("", |c| c.1);
        let at: jiff::civil::DateTime =
            format!("{}T{}", serve("serve_date"), serve("serve_time")).parse()?;
        let mut request = craft::sheet::SheetRequest::clone(&b.sheet.request);
        request.serve_at = at
            .to_zoned(jiff::tz::TimeZone::get("Europe/London")?)?
            .timestamp();
        let result = craft::sheet::work_out(&request)?;
        let plan = store::batch::NewPlan {
            of: b.plan,
            request: &request,
            result: &result,
            why: &craft::fact!("plan-hours"),
        };
        store::batch::replan(&mut db, here.id, b.id, &plan, Timestamp::now()).await?;
        for step in result.steps.iter().filter(|s| s.at < Timestamp::now()) {
            let done = store::entry::Seen::StepDone {
                step_position: step.number,
            };
            let new = store::entry::NewEntry::own(step.at, done.into());
            let (by, any) = (store::entry::By::Maker, store::entry::ANY);
            store::entry::write(&mut db, here.id, b.id, &new, step.at, by, any).await?;
        }
        Ok(code)
    }
    /// A day and a time on the kitchen's clock, so many hours from now.
    pub fn local_in_hours(&self, h: i64) -> (String, String) {
        let zone = jiff::tz::TimeZone::get("Europe/London").unwrap();
        let at = (Timestamp::now() + SignedDuration::from_hours(h)).to_zoned(zone);
        (at.date().to_string(), at.strftime("%H:%M").to_string())
    }
}

pub fn pairs(p: &[(&str, &str)]) -> String {
    let mut s = form_urlencoded::Serializer::new(String::new());
    for (k, v) in p {
        s.append_pair(k, v);
    }
    s.finish()
}

/// A good form for a lean round in three days, with changes.
pub fn form(site: &Site, changes: &[(&str, &str)]) -> String {
    let serve = site.local_in_hours(72);
    let key = uuid::Uuid::new_v4().to_string();
    let mut fields: Vec<(&str, &str)> = vec![
        ("form_key", &key),
        ("style", "hot_round"),
        ("name", "Trial <b>"),
        ("serve_date", &serve.0),
        ("serve_time", &serve.1),
        ("mode", "balls"),
        ("pieces.count", "6"),
        ("pieces.ball_g", "250"),
        ("flours[0].name", "Flour W 300"),
        ("flours[0].share_percent", "100"),
        ("flours[0].facts.w", "300"),
        ("loss_percent", "1.5"),
        ("hydration_percent", "62"),
        ("salt_percent", "2.8"),
        ("oil_percent", "0"),
        ("sugar_percent", "0"),
        ("yeast.form", "instant"),
        ("yeast.dose", "solve"),
        ("mixer", "hand"),
        ("room_c", "19.5"),
        ("fridge_c", "4.5"),
        ("target_dough_c", "23"),
        ("flour_c", "19.5"),
        ("tap_water_c", "9.5"),
        ("bulk_h", "2"),
        ("cold_h", "24"),
        ("temper_h", "4"),
    ];
    for (field, value) in changes {
        fields.retain(|(f, _)| f != field);
        fields.push((field, value));
    }
    pairs(&fields)
}

/// What a reader of the page meets: its text, and what is read aloud.
pub fn said(page: &str) -> String {
    let mut out = String::new();
    let mut rest = page;
    while let Some(open) = rest.find('<') {
        out.push_str(&rest[..open]);
        out.push(' ');
        let tag_end = rest[open..].find('>').map_or(rest.len(), |i| open + i + 1);
        let tag = &rest[open..tag_end];
        for name in ["aria-label=\"", "title=\"", "placeholder=\"", "alt=\""] {
            if let Some(i) = tag.find(name) {
                let value = &tag[i + name.len()..];
                out.push_str(value.split('"').next().unwrap_or(""));
                out.push_str(" | ");
            }
        }
        rest = &rest[tag_end..];
        for aside in ["script", "style"] {
            if tag.starts_with(&format!("<{aside}")) {
                rest = rest.find(&format!("</{aside}>")).map_or("", |i| &rest[i..]);
            }
        }
    }
    out.push_str(rest);
    out.split_whitespace().collect::<Vec<_>>().join(" ")
}
