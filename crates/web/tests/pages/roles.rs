//! Every door of the program against the table of what each asks, walked as everybody who may come.

use crate::site::{Site, guarded, pairs};
use anyhow::{Context, Result};
use axum::Router;
use axum::body::Body;
use axum::http::{Method, Request, StatusCode};
use craft::people::{Right, Role};
use http_body_util::BodyExt;
use std::collections::BTreeSet;
use tower::ServiceExt;
use web::access::doors::Asks;

/// What is asked where: of nobody (`-`), of whoever is let in, of a person, or who may look, tap, plan, or own.
const TABLE: &str = "
GET  /                                              look
GET  /api/v1/schema/{kind}                          -
POST /api/v1/reckon/{kind}                          known
POST /api/v1/scale                                  report
GET  /api/v1/batches                                look
GET  /api/v1/batches/{code}                         look
GET  /api/v1/openapi.json                           -
POST /api/v1/batches/{code}/readings                report
POST /api/v1/batches/{code}/steps/{number}          tap
POST /api/v1/batches/{code}/taps                    tap
GET  /assets/{tag}/{*path}                          -
GET  /bake                                          look
GET  /batches/{code}                                look
GET  /batches/{code}/bake                           look
GET  /batches/{code}/bake/beside                    look
GET  /batches/{code}/bakes                          look
GET  /batches/{code}/batch.json                     look
GET  /batches/{code}/fire                           look
GET  /batches/{code}/labels                         look
GET  /batches/{code}/mix                            look
GET  /batches/{code}/mix/now                        look
GET  /batches/{code}/photos/{entry}                 look
GET  /batches/{code}/print                          look
GET  /batches/{code}/rise                           look
GET  /batches/{code}/run                            look
GET  /batches/{code}/schedule.ics                   look
GET  /batches/{code}/shape                          look
GET  /batches/{code}/shape/now                      look
POST /batches/{code}/cancel                         plan
POST /batches/{code}/crew                           plan
POST /batches/{code}/entries/{entry}/back           tap
POST /batches/{code}/finish                         tap
POST /batches/{code}/fire                           plan
POST /batches/{code}/fire/calibrate                 plan
POST /batches/{code}/fire/caution                   tap
POST /batches/{code}/fire/formula                   plan
POST /batches/{code}/fire/reading                   tap
POST /batches/{code}/mix                            tap
POST /batches/{code}/mix/taught                     plan
POST /batches/{code}/part                           plan
POST /batches/{code}/photos                         tap
POST /batches/{code}/pieces                         plan
POST /batches/{code}/plan                           plan
POST /batches/{code}/power                          tap
POST /batches/{code}/readings                       tap
POST /batches/{code}/remarks                        tap
POST /batches/{code}/stood                          tap
POST /batches/{code}/ready                          tap
POST /batches/{code}/noticed                        tap
POST /batches/{code}/lessons                        plan
GET  /ledger/bakes.csv                              look
GET  /ledger/side-by-side                           look
GET  /ledger/late                                   plan
POST /ledger/late                                   plan
GET  /practice                                      look
POST /practice                                      look
GET  /trials                                        look
GET  /trials/new                                    plan
POST /trials                                        plan
GET  /trials/{code}                                 look
GET  /trials/{code}/taste                           look
POST /trials/{code}/tasted                          tap
GET  /ledger/taught                                 look
POST /ledger/taught                                 plan
GET  /batches/{code}/why                            look
POST /batches/{code}/remedy                         plan
POST /batches/{code}/reopen                         plan
POST /batches/{code}/shape                          tap
POST /batches/{code}/shape/flour                    plan
POST /batches/{code}/shape/loss                     plan
POST /batches/{code}/steps/{position}               tap
POST /batches/{code}/taps                           tap
POST /batches/{code}/vigour                         plan
GET  /begin                                         -
POST /begin                                         -
POST /begin/keep                                    -
POST /begin/look                                    -
GET  /calendar                                      look
POST /calendar/renew                                own
GET  /crew/{secret}                                 -
POST /crew/{secret}                                 -
GET  /dough                                         look
POST /dough                                         plan
GET  /dough/look                                    look
POST /dough/look                                    look
GET  /dough/new                                     look
POST /dough/preview                                 look
POST /dough/print                                   look
GET  /feed/{file}                                   -
GET  /fire                                          look
POST /fire                                          look
POST /fire/preview                                  look
GET  /formulas                                      look
POST /formulas                                      plan
POST /formulas/import                               look
GET  /formulas/paste                                look
POST /formulas/paste                                look
GET  /formulas/{id}                                 look
POST /formulas/{id}/away                            plan
GET  /formulas/{id}/compare                         look
POST /formulas/{id}/copy                            plan
POST /formulas/{id}/into                            look
GET  /formulas/{id}/versions/{number}/formula.json  look
GET  /formulas/{id}/versions/{number}/recipe.jsonld look
GET  /formulas/{id}/versions/{number}/sheet.csv     look
POST /hands                                         tap
GET  /health                                        -
GET  /join/{secret}                                 -
POST /join/{secret}                                 -
GET  /kitchen                                       look
POST /kitchen                                       own
POST /kitchens/{id}                                 person
POST /lamp                                          -
GET  /ledger                                        look
POST /me/language                                   person
POST /me/password                                   person
POST /me/sessions/{number}/end                      person
GET  /mix                                           look
GET  /pantry                                        look
POST /pantry/ovens/copy                             plan
POST /pantry/programmes/copy                        plan
POST /pantry/styles/copy                            plan
POST /pantry/styles/from-dough                      plan
GET  /password/{secret}                             -
POST /password/{secret}                             -
GET  /people                                        look
POST /people/invite                                 own
POST /people/passes/{id}/end                        own
POST /people/tablet                                 own
POST /people/token                                  own
POST /people/{id}/password                          own
POST /people/{id}/role                              own
GET  /ready                                         -
GET  /rise                                          look
POST /rise                                          look
GET  /rise/compare                                  look
POST /rise/compare                                  look
POST /rise/methods                                  plan
GET  /rise/methods/{id}                             look
POST /rise/preview                                  look
GET  /scale                                         look
GET  /scale/stream                                  look
GET  /shape                                         look
GET  /sign-in                                       -
POST /sign-in                                       -
POST /sign-out                                      -
GET  /sw.js                                         -
GET  /tablet                                        -
POST /tablet                                        -
GET  /trust                                         -
GET  /trust/authority.crt                           -
GET  /words                                         -
";

/// The shelves of the pantry, which are all alike.
const SHELVES: [&str; 12] = [
    "flours",
    "leavens",
    "scales",
    "ovens",
    "mixers",
    "programmes",
    "goods",
    "places",
    "boxes",
    "pans",
    "styles",
    "methods",
];

fn word(asks: Asks) -> &'static str {
    match asks {
        Asks::Nothing => "-",
        Asks::Known => "known",
        Asks::Person => "person",
        Asks::Of(Right::Report) => "report",
        Asks::Of(Right::Look) => "look",
        Asks::Of(Right::Tap) => "tap",
        Asks::Of(Right::Plan) => "plan",
        Asks::Of(Right::Own) => "own",
    }
}

/// The table with the shelves: method, path and what is asked.
fn table() -> BTreeSet<(String, String, String)> {
    let row = |m: &str, p: &str, a: &str| (m.to_string(), p.to_string(), a.to_string());
    let lines = TABLE.lines().filter(|l| !l.is_empty());
    let mut all: BTreeSet<_> = lines
        .map(|l| {
            let mut w = l.split_whitespace();
            row(w.next().unwrap(), w.next().unwrap(), w.next().unwrap())
        })
        .collect();
    for shelf in SHELVES {
        let at = format!("/pantry/{shelf}");
        all.insert(row("GET", &at, "look"));
        all.insert(row("POST", &at, "plan"));
        all.insert(row("GET", &format!("{at}/new"), "look"));
        all.insert(row("GET", &format!("{at}/{{id}}"), "look"));
        all.insert(row("POST", &format!("{at}/{{id}}"), "plan"));
        all.insert(row("POST", &format!("{at}/{{id}}/away"), "plan"));
    }
    all
}

#[test]
fn every_door_is_in_the_table_and_asks_what_it_says() {
    let doors: BTreeSet<_> = web::all_doors()
        .into_iter()
        .map(|d| (d.method.to_string(), d.path, word(d.asks).to_string()))
        .collect();
    let table = table();
    let only = |a: &BTreeSet<_>, b: &BTreeSet<_>| {
        a.difference(b)
            .cloned()
            .collect::<Vec<(String, String, String)>>()
    };
    assert_eq!(
        only(&doors, &table),
        vec![],
        "doors that the table does not know"
    );
    assert_eq!(
        only(&table, &doors),
        vec![],
        "lines of the table without a door"
    );
}

/// What became of a request.
#[derive(Debug, PartialEq, Eq)]
enum Came {
    In,
    /// Sent to sign in, or told to.
    SignIn,
    /// Told that it is not theirs.
    Refused,
    /// A crew that went astray is led back to its batch.
    LedBack,
}

struct Asked {
    came: Came,
    status: StatusCode,
    body: String,
}

/// Asks as a browser with this cookie; a stream's head is enough.
async fn asks(
    router: &Router,
    method: &str,
    path: &str,
    cookie: &str,
    batch: &str,
) -> Result<Asked> {
    let mut request = Request::builder()
        .method(method)
        .uri(path)
        .header("host", "127.0.0.1:8080");
    // What somebody comes by: a session, or a token.
    let by = match cookie.starts_with("Bearer ") {
        true => "authorization",
        false => "cookie",
    };
    if !cookie.is_empty() {
        request = request.header(by, cookie);
    }
    if method != "GET" {
        let kind = match path.starts_with("/api/") {
            true => "application/json",
            false => "application/x-www-form-urlencoded",
        };
        request = request
            .header("origin", "http://127.0.0.1:8080")
            .header("content-type", kind);
    }
    let response = router.clone().oneshot(request.body(Body::empty())?).await?;
    let (parts, body) = response.into_parts();
    let header = |name: &str| {
        parts
            .headers
            .get(name)
            .and_then(|v| v.to_str().ok())
            .unwrap_or("")
    };
    let body = match header("content-type").starts_with("text/event-stream") {
        true => String::new(),
        false => String::from_utf8_lossy(&body.collect().await?.to_bytes()).into_owned(),
    };
    let to = header("location");
    let came = match parts.status {
        StatusCode::UNAUTHORIZED => Came::SignIn,
        StatusCode::FORBIDDEN => Came::Refused,
        StatusCode::SEE_OTHER if to.starts_with("/sign-in") => Came::SignIn,
        StatusCode::SEE_OTHER if to == format!("/batches/{batch}") && !path.starts_with(to) => {
            Came::LedBack
        }
        _ => Came::In,
    };
    Ok(Asked {
        came,
        status: parts.status,
        body,
    })
}

/// Somebody who walks through the house.
struct Walker {
    name: &'static str,
    cookie: String,
    role: Option<Role>,
}

fn filled(path: &str, code: &str, ids: (&str, &str)) -> String {
    let id = match path.starts_with("/formulas") {
        true => ids.0,
        false if path.starts_with("/pantry/flours") => ids.1,
        false => "0",
    };
    path.replace("/me/sessions/{number}", "/me/sessions/0")
        .replace("{code}", code)
        .replace("{id}", id)
        .replace("{number}", "1")
        .replace("{position}", "1")
        .replace("{kind}", "sheet")
        .replace("{entry}", "00000000-0000-4000-8000-000000000000")
        .replace("{secret}", "nothing")
        .replace("{file}", "nothing.ics")
        .replace("{tag}", "x")
        .replace("{*path}", "logo.svg")
}

#[tokio::test]
async fn everybody_comes_as_far_as_the_table_says_and_no_further() -> Result<()> {
    let s = Site::open().await?;
    let g = guarded(&s).await?;
    // Something of each kind, made by the owner, with a mark that no stranger may read.
    let code = g.batch(&s, "Larch mark").await?;
    let formula = g.formula(&s, "Larch mark").await?;
    let flour = g.flour("Larch mark").await?;
    let walkers = [
        ("a stranger", String::new(), None),
        ("the owner", g.owner.clone(), Some(Role::Owner)),
        (
            "a planner",
            g.join("Tove Birk", "planner").await?,
            Some(Role::Planner),
        ),
        (
            "a cook",
            g.join("Rafi Oduya", "cook").await?,
            Some(Role::Cook),
        ),
        (
            "a looker",
            g.join("Ada Lind", "looker").await?,
            Some(Role::Looker),
        ),
        (
            "the tablet",
            g.tablet("Oven wall").await?,
            Some(Role::Device),
        ),
        (
            "a crew that taps",
            g.crew(&code, "crew_taps").await?,
            Some(Role::CrewTaps),
        ),
        (
            "a crew that looks",
            g.crew(&code, "crew_looks").await?,
            Some(Role::CrewLooks),
        ),
        (
            "a thermometer",
            g.token("Probe", "program_reports").await?,
            Some(Role::ProgramReports),
        ),
        (
            "a program that looks",
            g.token("Board", "program_looks").await?,
            Some(Role::ProgramLooks),
        ),
        (
            "a program that taps",
            g.token("Buttons", "program_taps").await?,
            Some(Role::ProgramTaps),
        ),
        (
            "an owner next door",
            g.next_door(&s, "Nils Varga", "Next Door").await?,
            Some(Role::Owner),
        ),
    ]
    .map(|(name, cookie, role)| Walker { name, cookie, role });
    let mut walked = 0;
    for door in web::all_doors() {
        // One ends the walker’s own session, the other makes them an owner elsewhere.
        if matches!(door.path.as_str(), "/sign-out" | "/begin/keep") {
            continue;
        }
        let method = door.method.as_str();
        let path = filled(&door.path, &code, (&formula, &flour));
        let own = door.path.starts_with("/batches/{code}");
        for w in &walkers {
            let next_door = w.name == "an owner next door";
            let got = asks(&g.router, method, &path, &w.cookie, &code).await?;
            let is_api = path.starts_with("/api/");
            // To a page a program is nobody.
            let role = w.role.filter(|r| is_api || !r.is_program());
            let expected = match (door.asks, role) {
                // The first start asks who it is once there is anybody.
                (Asks::Nothing, None) if door.path.starts_with("/begin") => Came::SignIn,
                (Asks::Nothing, _) => Came::In,
                (_, None) => Came::SignIn,
                (Asks::Known, Some(_)) => Came::In,
                (Asks::Person, Some(Role::Device | Role::CrewTaps | Role::CrewLooks)) => {
                    Came::Refused
                }
                (Asks::Person, Some(_)) => Came::In,
                (Asks::Of(_), Some(role)) if role.is_crew() && is_api => Came::Refused,
                (Asks::Of(_), Some(role)) if role.is_crew() && !own => Came::LedBack,
                (Asks::Of(right), Some(role)) if role.may(right) => Came::In,
                (Asks::Of(_), Some(_)) => Came::Refused,
            };
            let said = format!("{} at {method} {path}: {}", w.name, got.status);
            assert_eq!(got.came, expected, "{said}");
            assert!(!got.status.is_server_error(), "{said}");
            if next_door || role.is_none() {
                assert!(
                    !got.body.contains("Larch mark"),
                    "{said} shows what is another kitchen's"
                );
                assert!(
                    !got.body.contains("Larchfold"),
                    "{said} names another kitchen"
                );
            }
            let of_one = door.path.contains("{code}") || path != filled(&door.path, "", ("", ""));
            let holds = !matches!(door.asks, Asks::Nothing | Asks::Known);
            if next_door && of_one && holds {
                // A form without its fields is told so before anything is looked up.
                let bare = matches!(got.status.as_u16(), 400 | 415 | 422);
                assert!(got.status == StatusCode::NOT_FOUND || bare, "{said}");
            }
            walked += 1;
        }
    }
    assert!(walked > 1000, "{walked}");
    // Who may enter nothing is told so on every page, and nobody else is.
    for w in walkers
        .iter()
        .filter(|w| w.role.is_some_and(|r| !r.is_program()))
    {
        let page = asks(&g.router, "GET", &format!("/batches/{code}"), &w.cookie, "").await?;
        let looks = w.role.is_some_and(|r| !r.may(Right::Tap));
        assert_eq!(page.body.contains("You look on here"), looks, "{}", w.name);
    }
    // A method that no door has is no way round.
    for method in [Method::PUT, Method::DELETE, Method::PATCH] {
        let got = asks(&g.router, method.as_str(), "/kitchen", &g.owner, &code).await?;
        assert_eq!(got.status, StatusCode::METHOD_NOT_ALLOWED);
    }
    s.close().await
}

#[tokio::test]
async fn a_role_that_is_taken_away_ends_at_once() -> Result<()> {
    let s = Site::open().await?;
    let g = guarded(&s).await?;
    let cook = g.join("Rafi Oduya", "cook").await?;
    let bench = asks(&g.router, "GET", "/", &cook, "").await?;
    assert_eq!(bench.status, StatusCode::OK);
    let people = asks(&g.router, "GET", "/people", &g.owner, "").await?;
    let id = people
        .body
        .split("for=\"role-")
        .filter(|p| p.contains("Role of Rafi Oduya"))
        .filter_map(|p| p.split('"').next())
        .next()
        .context("the cook's number")?
        .to_string();
    let out = g
        .post(
            &format!("/people/{id}/role"),
            &pairs(&[("role", "out")]),
            &g.owner,
        )
        .await?;
    assert_eq!(out.status, StatusCode::SEE_OTHER);
    let bench = asks(&g.router, "GET", "/", &cook, "").await?;
    assert_eq!(
        bench.status,
        StatusCode::SEE_OTHER,
        "no kitchen is theirs any more"
    );
    // The last owner stays.
    let me = people
        .body
        .split("for=\"role-")
        .nth(1)
        .and_then(|p| p.split('"').next())
        .context("the owner's number")?;
    let stays = g
        .post(
            &format!("/people/{me}/role"),
            &pairs(&[("role", "cook")]),
            &g.owner,
        )
        .await?;
    assert_eq!(stays.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(stays.body.contains("keeps an owner"));
    s.close().await
}

#[tokio::test]
async fn a_crew_of_an_evening_sees_its_batches_and_no_other() -> Result<()> {
    let s = Site::open().await?;
    let g = guarded(&s).await?;
    let (day, _) = s.local_in_hours(96);
    let (before, _) = s.local_in_hours(72);
    let one = g
        .batch_at(&s, "First of the evening", (&day, "18:00"))
        .await?;
    let two = g
        .batch_at(&s, "Second of the evening", (&day, "23:30"))
        .await?;
    let crew = g
        .crew_of(&one, &[("role", "crew_taps"), ("whole", "1")])
        .await?;
    // What is planned for that evening after the link was made is of it, too; another day is not.
    let three = g
        .batch_at(&s, "Third of the evening", (&day, "19:00"))
        .await?;
    let later = g.batch_at(&s, "Another day", (&before, "19:00")).await?;
    for code in [&one, &two, &three] {
        let page = asks(&g.router, "GET", &format!("/batches/{code}"), &crew, "").await?;
        assert_eq!(
            (page.came, page.status),
            (Came::In, StatusCode::OK),
            "{code}"
        );
        assert!(
            page.body.contains(&format!("href=\"/batches/{two}\"")),
            "one leads to the other"
        );
        assert!(!page.body.contains(&format!("href=\"/batches/{later}\"")));
    }
    let other = asks(&g.router, "GET", &format!("/batches/{later}"), &crew, &one).await?;
    assert_eq!(other.came, Came::LedBack);
    let bench = asks(&g.router, "GET", "/", &crew, &one).await?;
    assert_eq!(bench.came, Came::LedBack);
    // A code that only begins like one of them is not of them.
    let longer = asks(&g.router, "GET", &format!("/batches/{one}0"), &crew, &one).await?;
    assert_eq!(longer.status, StatusCode::SEE_OTHER);
    s.close().await
}
