//! Programs: what a token opens and what it does not, what they enter, and the document that says so.

use crate::site::{Guarded, Site, ask, guarded, pairs};
use anyhow::{Context, Result};
use axum::http::StatusCode;
use craft::keyed::Keyed;
use jiff::{SignedDuration, Timestamp};
use serde_json::{Value, json};
use std::collections::BTreeSet;
use store::people::pass;

const V1: &str = "/api/v1";

async fn sends(g: &Guarded, path: &str, body: Value, token: &str) -> Result<(StatusCode, Value)> {
    let path = format!("{V1}{path}");
    let a = g.program("POST", &path, &body.to_string(), token).await?;
    Ok((a.status, serde_json::from_str(&a.body).unwrap_or_default()))
}

async fn sees(g: &Guarded, path: &str, token: &str) -> Result<(StatusCode, Value)> {
    let a = g.program("GET", &format!("{V1}{path}"), "", token).await?;
    Ok((a.status, serde_json::from_str(&a.body).unwrap_or_default()))
}

#[tokio::test]
async fn a_program_sees_what_is_under_way_and_enters_what_happens() -> Result<()> {
    let s = Site::open().await?;
    let g = guarded(&s).await?;
    let code = g.batch(&s, "Programmed").await?;
    let token = g.token("Oven buttons", "program_taps").await?;
    let at = format!("/batches/{code}");
    let (status, now) = sees(&g, "/batches", &token).await?;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(now["batches"][0]["code"], code.as_str());
    let first = &now["batches"][0]["steps"][0];
    assert_eq!(first["done_at"], Value::Null);
    // A step, sent twice under its key: kept once.
    let key = uuid::Uuid::new_v4();
    let step = format!("{at}/steps/{}", first["number"]);
    let body = json!({"key": key, "said": "done"});
    let (status, kept) = sends(&g, &step, body.clone(), &token).await?;
    assert_eq!((status, &kept["kept"]), (StatusCode::OK, &json!("now")));
    let (_, again) = sends(&g, &step, body, &token).await?;
    assert_eq!(again["kept"], "before");
    // The bake: which pizza is meant goes without saying, and what cannot be is refused with its reason.
    let tap = |kind: &str| json!({"kind": kind});
    let taps = format!("{at}/taps");
    let (_, went_in) = sends(&g, &taps, tap("in"), &token).await?;
    assert_eq!(went_in["pizza"], 1, "{went_in}");
    let (_, now) = sees(&g, "/batches", &token).await?;
    assert_eq!(now["batches"][0]["in_oven"], json!([1]));
    assert_ne!(now["batches"][0]["steps"][0]["done_at"], Value::Null);
    let (status, twice) = sends(&g, &taps, json!({"kind": "in", "pizza": 1}), &token).await?;
    assert_eq!(status, StatusCode::CONFLICT);
    assert!(
        twice["refused"].as_str().is_some_and(|s| !s.is_empty()),
        "{twice}"
    );
    let (status, wrong) = sends(
        &g,
        &taps,
        json!({"kind": "verdict", "base": "right"}),
        &token,
    )
    .await?;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(wrong["errors"][0]["field"], "base");
    // Readings of all three kinds.
    for reading in [
        json!({"of": "fridge", "celsius": 6.5}),
        json!({"place": "Cellar", "celsius": 12}),
        json!({"grown": 1.8}),
    ] {
        let (status, kept) = sends(&g, &format!("{at}/readings"), reading, &token).await?;
        assert_eq!(
            (status, &kept["kept"]),
            (StatusCode::OK, &json!("now")),
            "{kept}"
        );
    }
    // The batch whole has them, and its page says whose they are.
    let (_, whole) = sees(&g, &at, &token).await?;
    let told = whole["observations"].to_string();
    assert!(told.contains("6.5") && told.contains("Cellar"), "{told}");
    let page = g.get(&at, &g.owner).await?;
    assert!(
        page.body.contains("Oven buttons"),
        "who entered it stands beside it"
    );
    s.close().await
}

#[tokio::test]
async fn a_token_opens_what_it_was_made_for_until_it_ends() -> Result<()> {
    let s = Site::open().await?;
    let g = guarded(&s).await?;
    let code = g.batch(&s, "Scoped").await?;
    let probe = g.token("Fridge probe", "program_reports").await?;
    let board = g.token("Board", "program_looks").await?;
    let readings = format!("/batches/{code}/readings");
    let reading = json!({"of": "fridge", "celsius": 5});
    assert_eq!(
        sends(&g, &readings, reading.clone(), &probe).await?.0,
        StatusCode::OK
    );
    assert_eq!(
        sends(&g, "/scale", json!({"g": 255}), &probe).await?.0,
        StatusCode::NO_CONTENT
    );
    assert_eq!(sees(&g, "/batches", &probe).await?.0, StatusCode::FORBIDDEN);
    assert_eq!(
        sends(&g, &readings, reading.clone(), &board).await?.0,
        StatusCode::FORBIDDEN
    );
    assert_eq!(sees(&g, "/batches", &board).await?.0, StatusCode::OK);
    // No page opens to it, and it counts before a session that came along.
    let page = g.program("GET", "/", "", &board).await?;
    assert_eq!(page.header("location"), "/sign-in?back=%2F");
    let both = [
        ("authorization", probe.as_str()),
        ("cookie", g.owner.as_str()),
    ];
    let a = ask(&g.router, "GET", "/api/v1/batches", "", &both).await?;
    assert_eq!(a.status, StatusCode::FORBIDDEN);
    // What is no token, or no longer one, opens nothing, and says how one is sent.
    for no in ["Bearer slowrise_nothing", "Bearer", "Basic aW5lczpx", ""] {
        let a = g.program("GET", "/api/v1/batches", "", no).await?;
        assert_eq!(a.status, StatusCode::UNAUTHORIZED, "{no}");
        assert_eq!(a.header("www-authenticate"), "Bearer", "{no}");
        // Nor does it where nobody signs in, and whoever comes is the owner.
        let open = ask(
            &s.router,
            "GET",
            "/api/v1/batches",
            "",
            &[("authorization", no)],
        )
        .await?;
        assert_eq!(open.status, StatusCode::UNAUTHORIZED, "{no}");
    }
    // The list says that it was used, and ends it.
    let people = g.get("/people", &g.owner).await?;
    assert!(people.body.contains("Fridge probe: thermometer or scale"));
    assert!(
        !people.body.contains(probe.trim_start_matches("Bearer ")),
        "it is shown once"
    );
    let mut db = s.pool.acquire().await?;
    let now = Timestamp::now();
    let kitchen = store::kitchen::all(&mut db).await?[0].0;
    let all = pass::of_kitchen(&mut db, kitchen, now).await?;
    let kept = all
        .iter()
        .find(|p| p.name == "Fridge probe")
        .context("it")?;
    assert!(kept.used_at.is_some());
    assert!(kept.ends_at <= now + SignedDuration::from_hours(30 * 24));
    drop(db);
    g.post(&format!("/people/passes/{}/end", kept.id.0), "", &g.owner)
        .await?;
    assert_eq!(
        sends(&g, &readings, reading, &probe).await?.0,
        StatusCode::UNAUTHORIZED
    );
    // Its time runs out by itself.
    let secret = board.trim_start_matches("Bearer ");
    let mut db = s.pool.acquire().await?;
    let later = now + SignedDuration::from_hours(31 * 24);
    let kind = pass::PassKind::Token;
    assert!(pass::by_secret(&mut db, kind, secret, now).await?.is_some());
    assert!(
        pass::by_secret(&mut db, kind, secret, later)
            .await?
            .is_none()
    );
    drop(db);
    s.close().await
}

#[tokio::test]
async fn what_cannot_be_read_says_where_and_keeps_nothing() -> Result<()> {
    let s = Site::open().await?;
    let g = guarded(&s).await?;
    let code = g.batch(&s, "Mistaken").await?;
    let token = g.token("Clumsy", "program_taps").await?;
    let readings = format!("/batches/{code}/readings");
    let later = Timestamp::now() + SignedDuration::from_hours(5);
    for (body, field) in [
        (json!({}), "of"),
        (json!({"of": "fridge"}), "celsius"),
        (json!({"of": "fridge", "celsius": 90}), "celsius"),
        (
            json!({"of": "fridge", "place": "Cellar", "celsius": 5}),
            "of",
        ),
        (json!({"of": "moon", "celsius": 5}), "of"),
        (json!({"of": "fridge", "celsius": "5"}), "celsius"),
        (json!({"of": "fridge", "fahrenheit": 40}), "fahrenheit"),
        (json!({"place": "  ", "celsius": 5}), "place"),
        (json!({"grown": 9}), "grown"),
        (json!({"grown": 2, "celsius": 5}), "of"),
        (json!({"of": "room", "celsius": 20, "at": later}), "at"),
        (json!({"of": "room", "celsius": 20, "key": "7"}), "key"),
        (json!(7), ""),
    ] {
        let (status, wrong) = sends(&g, &readings, body.clone(), &token).await?;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{body}: {wrong}");
        assert_eq!(wrong["errors"][0]["field"], field, "{body}: {wrong}");
        let sentence = wrong["errors"][0]["message"].as_str().unwrap_or("");
        assert!(
            sentence.ends_with('.') && !sentence.contains("struct"),
            "{sentence}"
        );
    }
    let (status, _) = sends(&g, "/batches/ZZ-99/readings", json!({"grown": 2}), &token).await?;
    assert_eq!(status, StatusCode::NOT_FOUND);
    let nonsense = g
        .program("POST", &format!("{V1}{readings}"), "not json", &token)
        .await?;
    assert_eq!(nonsense.status, StatusCode::UNPROCESSABLE_ENTITY);
    let headers = [
        ("authorization", token.as_str()),
        ("content-type", "text/plain"),
    ];
    let a = ask(
        &g.router,
        "POST",
        &format!("{V1}{readings}"),
        "{}",
        &headers,
    )
    .await?;
    assert_eq!(a.status, StatusCode::UNSUPPORTED_MEDIA_TYPE);
    let (_, whole) = sees(&g, &format!("/batches/{code}"), &token).await?;
    assert_eq!(whole["observations"], json!([]), "nothing was kept");
    // Making one: without a name, beyond the bound, for a role that is no program's.
    let form =
        |name: &str, role: &str| pairs(&[("name", name), ("role", role), ("lasts", "token_year")]);
    let a = g
        .post("/people/token", &form("", "program_looks"), &g.owner)
        .await?;
    assert_eq!(a.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(
        a.body.contains("id=\"token-err\" role=\"alert\">A name"),
        "{}",
        a.errors()
    );
    let a = g
        .post("/people/token", &form("x", "owner"), &g.owner)
        .await?;
    assert_eq!(a.status, StatusCode::BAD_REQUEST);
    for n in 1..50 {
        let a = g
            .post(
                "/people/token",
                &form(&format!("n {n}"), "program_looks"),
                &g.owner,
            )
            .await?;
        assert_eq!(a.status, StatusCode::OK, "{n}");
    }
    let a = g
        .post(
            "/people/token",
            &form("one more", "program_looks"),
            &g.owner,
        )
        .await?;
    assert_eq!(a.status, StatusCode::UNPROCESSABLE_ENTITY);
    s.close().await
}

/// A schema of the document, that can be checked by itself.
fn checker(document: &Value, schema: &Value) -> Result<jsonschema::Validator> {
    let mut root = schema.clone();
    root["components"] = document["components"].clone();
    jsonschema::draft202012::new(&root).map_err(|e| anyhow::anyhow!("{e}"))
}

/// The schema of a body of an operation.
fn body_of<'a>(document: &'a Value, path: &str, pointer: &str) -> &'a Value {
    let at = format!("/paths/{}{pointer}", path.replace('/', "~1"));
    document.pointer(&at).unwrap_or_else(|| panic!("{at}"))
}

#[tokio::test]
async fn the_document_says_what_the_routes_are_and_what_they_answer() -> Result<()> {
    let s = Site::open().await?;
    let g = guarded(&s).await?;
    let a = ask(&g.router, "GET", "/api/v1/openapi.json", "", &[]).await?;
    assert_eq!(a.status, StatusCode::OK);
    oas3::from_json(&a.body)?;
    let document = a.json();
    // Every route stands in it, and nothing else does.
    let kinds: Vec<String> = web::api::ReckonKind::ALL
        .iter()
        .map(|k| k.key().to_string())
        .collect();
    let routes: BTreeSet<String> = web::all_doors()
        .into_iter()
        .filter(|d| d.path.starts_with(V1))
        .flat_map(|d| {
            let method = d.method.to_string().to_lowercase();
            let each = d.path == format!("{V1}/reckon/{{kind}}");
            let paths = match each {
                true => kinds.iter().map(|k| d.path.replace("{kind}", k)).collect(),
                false => vec![d.path],
            };
            paths.into_iter().map(move |p| format!("{method} {p}"))
        })
        .collect();
    let written: BTreeSet<String> = document["paths"]
        .as_object()
        .context("paths")?
        .iter()
        .flat_map(|(path, all)| {
            let methods = all.as_object().into_iter().flatten();
            methods.map(move |(method, _)| format!("{method} {path}"))
        })
        .collect();
    assert_eq!(routes, written);
    assert!(routes.len() > 20, "{routes:?}");
    // Which tokens open a door is what the gate does.
    let taps = "/api/v1/batches/{code}/taps";
    assert_eq!(
        body_of(&document, taps, "/post/x-tokens"),
        &json!(["program_taps"])
    );
    let open = body_of(&document, "/api/v1/openapi.json", "/get/security");
    assert_eq!(open, &json!([]));
    // What is sent and answered is as the document has it.
    let code = g.batch(&s, "Described").await?;
    let token = g.token("Described", "program_taps").await?;
    let ok = "/responses/200/content/application~1json/schema";
    let (_, now) = sees(&g, "/batches", &token).await?;
    let batches = checker(
        &document,
        body_of(&document, "/api/v1/batches", &format!("/get{ok}")),
    )?;
    batches.validate(&now).map_err(|e| anyhow::anyhow!("{e}"))?;
    assert!(!batches.is_valid(&json!({"batches": 3})));
    let readings = "/api/v1/batches/{code}/readings";
    let takes = "/post/requestBody/content/application~1json/schema";
    let takes = checker(&document, body_of(&document, readings, takes))?;
    let reading = json!({"of": "fridge", "celsius": 5.5, "at": Timestamp::now()});
    assert!(takes.is_valid(&reading));
    assert!(!takes.is_valid(&json!({"of": "fridge", "kelvin": 5.5})));
    let (status, kept) = sends(&g, &format!("/batches/{code}/readings"), reading, &token).await?;
    assert_eq!(status, StatusCode::OK);
    let gives = checker(
        &document,
        body_of(&document, readings, &format!("/post{ok}")),
    )?;
    assert!(gives.is_valid(&kept), "{kept}");
    let (status, wrong) =
        sends(&g, &format!("/batches/{code}/readings"), json!({}), &token).await?;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let refused = "/post/responses/422/content/application~1json/schema";
    assert!(checker(&document, body_of(&document, readings, refused))?.is_valid(&wrong));
    let failed = g
        .program("GET", "/api/v1/batches", "", "Bearer none")
        .await?;
    let default = "/get/responses/default/content/application~1json/schema";
    let default = checker(&document, body_of(&document, "/api/v1/batches", default))?;
    assert!(default.is_valid(&failed.json()), "{}", failed.body);
    s.close().await
}

/// The examples of docs/api.md are taken and given as the document says.
#[tokio::test]
async fn the_documented_examples_are_as_the_document_says() -> Result<()> {
    let router = web::router(store::Db::at("mysql://nobody:x@127.0.0.1:1/none")?);
    let document = ask(&router, "GET", "/api/v1/openapi.json", "", &[])
        .await?
        .json();
    let text = include_str!("../../../../docs/api.md");
    let mut seen = 0;
    for section in text.split("\n## `").skip(1) {
        let kind = section.split('`').next().context("a kind")?;
        let path = format!("/api/v1/reckon/{kind}");
        if document["paths"].get(&path).is_none() {
            continue;
        }
        let request = section
            .split("```json\n")
            .nth(1)
            .and_then(|b| b.split("```").next());
        let request = request.context("a request")?;
        let takes = body_of(
            &document,
            &path,
            "/post/requestBody/content/application~1json/schema",
        );
        let sent: Value = serde_json::from_str(request)?;
        checker(&document, takes)?
            .validate(&sent)
            .map_err(|e| anyhow::anyhow!("{kind}: {e} at {}", e.instance_path()))?;
        let answer = ask(&router, "POST", &path, request, &[]).await?.json();
        let gives = "/post/responses/200/content/application~1json/schema";
        checker(&document, body_of(&document, &path, gives))?
            .validate(&answer)
            .map_err(|e| anyhow::anyhow!("{kind}: {e} at {}", e.instance_path()))?;
        seen += 1;
    }
    assert!(seen > 8, "{seen}");
    Ok(())
}
