//! Signing in and out, links, a form whose sign-in ended, the first start, and what stands of who did what.

use crate::site::{Answer, PASSWORD, Site, ask, cookie, form, guarded, pairs, sign_in};
use anyhow::{Context, Result};
use axum::http::StatusCode;
use store::Db;
use testbed::db::TestDb;
use web::{SignIn, router_at};

/// The hidden fields of the only form of a page, as a browser sends them.
fn hidden(page: &str) -> Vec<(String, String)> {
    let text = |tag: &str, name: &str| {
        let (_, after) = tag.split_once(&format!("{name}=\""))?;
        Some(
            after
                .split('"')
                .next()?
                .replace("&#34;", "\"")
                .replace("&#38;", "&"),
        )
    };
    page.split("<input type=\"hidden\"")
        .skip(1)
        .filter_map(|tag| Some((text(tag, " name")?, text(tag, " value")?)))
        .collect()
}

#[tokio::test]
async fn a_wrong_password_says_nothing_of_names_and_waits_longer_each_time() -> Result<()> {
    let s = Site::open().await?;
    let g = guarded(&s).await?;
    let tried = async |router: &axum::Router, name: &str, password: &str| -> Result<Answer> {
        let body = pairs(&[("name", name), ("password", password), ("back", "/ledger")]);
        ask(router, "POST", "/sign-in", &body, &[]).await
    };
    let unknown = tried(&g.router, "Nobody Here", "a long guess at it").await?;
    let known = tried(&g.router, "Ines Marlow", "a long guess at it").await?;
    for a in [&unknown, &known] {
        assert_eq!(a.status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(a.body.contains("do not belong together"));
        assert!(cookie(a).is_none());
    }
    for _ in 0..4 {
        tried(&g.router, "Ines Marlow", "a long guess at it").await?;
    }
    // A right password waits, too; and a restart forgives nobody.
    let after = router_at(s.pool.clone(), web::Site::default(), SignIn::On);
    for router in [&g.router, &after] {
        let waits = tried(router, "ines marlow", PASSWORD).await?;
        assert!(waits.body.contains("Try again in"), "{}", waits.body);
    }
    // Somebody else is not in their way; a path of another server is not gone to.
    g.join("Rafi Oduya", "cook").await?;
    let body = pairs(&[
        ("name", "Rafi Oduya"),
        ("password", PASSWORD),
        ("back", "//elsewhere"),
    ]);
    let other = ask(&g.router, "POST", "/sign-in", &body, &[]).await?;
    assert_eq!(other.header("location"), "/");
    s.close().await
}

#[tokio::test]
async fn what_was_typed_when_the_sign_in_ended_goes_on_after_it() -> Result<()> {
    let s = Site::open().await?;
    let g = guarded(&s).await?;
    g.post("/sign-out", "", &g.owner).await?;
    assert_eq!(
        g.get("/", &g.owner).await?.status,
        StatusCode::SEE_OTHER,
        "signed out"
    );
    let typed = form(&s, &[("name", "Larch \"night\" & day")]);
    let ended = g.post("/dough", &typed, &g.owner).await?;
    assert_eq!(ended.status, StatusCode::UNAUTHORIZED);
    assert!(
        ended
            .body
            .contains("All that you entered is held on this page")
    );
    // A wrong password loses nothing of it.
    let mut fields = hidden(&ended.body);
    fields.extend([
        ("name".into(), "Ines Marlow".into()),
        ("password".into(), "not my password".into()),
    ]);
    let body = |f: &[(String, String)]| {
        pairs(
            &f.iter()
                .map(|(k, v)| (k.as_str(), v.as_str()))
                .collect::<Vec<_>>(),
        )
    };
    let wrong = ask(&g.router, "POST", "/sign-in", &body(&fields), &[]).await?;
    let mut fields = hidden(&wrong.body);
    fields.extend([
        ("name".into(), "Ines Marlow".into()),
        ("password".into(), PASSWORD.into()),
    ]);
    let back = ask(&g.router, "POST", "/sign-in", &body(&fields), &[]).await?;
    assert!(back.body.contains("action=\"/dough\""), "{}", back.body);
    let session = cookie(&back).context("a session")?;
    let kept = g
        .post("/dough", &body(&hidden(&back.body)), &session)
        .await?;
    let batch = g.get(kept.header("location"), &session).await?;
    assert!(
        batch.body.contains("Larch &#34;night&#34; &#38; day"),
        "{}",
        kept.errors()
    );
    // A script is told in its own way, and keeps what it has.
    let tap = g
        .post_as_script(&format!("{}/taps", kept.header("location")), "act=launch")
        .await?;
    assert_eq!(
        (tap.status, &tap.json()["signed_out"]),
        (StatusCode::UNAUTHORIZED, &true.into())
    );
    s.close().await
}

#[tokio::test]
async fn links_open_once_and_a_new_password_ends_every_other_sign_in() -> Result<()> {
    let s = Site::open().await?;
    let g = guarded(&s).await?;
    let path = g.invitation("planner").await?;
    let body = pairs(&[("name", "Tove Birk"), ("password", PASSWORD)]);
    for bad in [
        [("name", "Tove Birk"), ("password", "short")],
        [("name", ""), ("password", PASSWORD)],
    ] {
        let a = ask(&g.router, "POST", &path, &pairs(&bad), &[]).await?;
        assert_eq!(a.status, StatusCode::UNPROCESSABLE_ENTITY);
    }
    // Somebody else's name wants its own password.
    let taken = ask(
        &g.router,
        "POST",
        &path,
        &pairs(&[("name", "Ines Marlow"), ("password", "another long one")]),
        &[],
    )
    .await?;
    assert!(taken.body.contains("called so already"));
    let first = ask(&g.router, "POST", &path, &body, &[]).await?;
    let tove = cookie(&first).context("a session")?;
    assert_eq!(
        ask(&g.router, "GET", &path, "", &[]).await?.status,
        StatusCode::NOT_FOUND,
        "it opened once"
    );
    assert!(g.get("/", &tove).await?.body.contains("Larchfold Halt"));
    let other = sign_in(&g.router, "Tove Birk", PASSWORD).await?;
    let new = pairs(&[
        ("former", PASSWORD),
        ("password", "four hazels by the gate"),
    ]);
    let wrong = g
        .post(
            "/me/password",
            &pairs(&[("former", "x"), ("password", "four hazels by the gate")]),
            &tove,
        )
        .await?;
    assert!(wrong.body.contains("not your password up to now"));
    assert_eq!(
        g.post("/me/password", &new, &tove).await?.status,
        StatusCode::SEE_OTHER
    );
    assert_eq!(
        g.get("/", &tove).await?.status,
        StatusCode::OK,
        "this browser stays"
    );
    assert_eq!(
        g.get("/", &other).await?.status,
        StatusCode::SEE_OTHER,
        "the other one does not"
    );
    // An owner makes a link for who forgot it; the former password is worth nothing then.
    let people = g.get("/people", &g.owner).await?;
    let id = people
        .body
        .split("for=\"role-")
        .find(|p| p.contains("Role of Tove Birk"))
        .and_then(|p| p.split('"').next())
        .context("a number")?;
    let link = g.link(&format!("/people/{id}/password")).await?;
    let set = ask(
        &g.router,
        "POST",
        &link,
        &pairs(&[("password", "nine crumbs and a candle")]),
        &[],
    )
    .await?;
    assert_eq!(set.status, StatusCode::SEE_OTHER);
    assert_eq!(g.get("/", &tove).await?.status, StatusCode::SEE_OTHER);
    assert!(
        sign_in(&g.router, "Tove Birk", "nine crumbs and a candle")
            .await
            .is_ok()
    );
    assert!(
        sign_in(&g.router, "Tove Birk", "four hazels by the gate")
            .await
            .is_err()
    );
    s.close().await
}

#[tokio::test]
async fn sessions_are_of_the_database_and_their_cookies_are_shut() -> Result<()> {
    let s = Site::open().await?;
    let g = guarded(&s).await?;
    // A second program on the same database knows who it is, and ends it.
    let second = router_at(s.pool.clone(), web::Site::default(), SignIn::On);
    let here = ask(&second, "GET", "/", "", &[("cookie", &g.owner)]).await?;
    assert_eq!(here.status, StatusCode::OK);
    // The secret of the cookie is nowhere in the database.
    let secret = g.owner.split('=').nth(1).context("a value")?;
    let mut db = s.pool.acquire().await?;
    let owner = store::people::person::at_home(&mut db)
        .await?
        .context("an owner")?;
    let listed =
        store::people::session::of_person(&mut db, owner.id, Some(secret), jiff::Timestamp::now())
            .await?;
    assert_eq!(listed.iter().filter(|l| l.own).count(), 1);
    drop(db);
    let body = pairs(&[("name", "Ines Marlow"), ("password", PASSWORD)]);
    let plain = ask(&second, "POST", "/sign-in", &body, &[]).await?;
    let set = plain.header("set-cookie").to_string();
    assert!(
        set.contains("HttpOnly") && set.contains("SameSite=Lax") && set.contains("Path=/"),
        "{set}"
    );
    assert_ne!(
        cookie(&plain).as_deref(),
        Some(g.owner.as_str()),
        "a new secret at each sign-in"
    );
    let public =
        web::Site::new(Some("https://kitchen.example"), vec![]).map_err(anyhow::Error::msg)?;
    let safe = router_at(s.pool.clone(), public, SignIn::On);
    let own = [
        ("host", "kitchen.example"),
        ("origin", "https://kitchen.example"),
    ];
    let a = ask(&safe, "POST", "/sign-in", &body, &own).await?;
    let set = a.header("set-cookie");
    assert!(
        set.starts_with("__Host-slow-rise=") && set.contains("Secure"),
        "{set}"
    );
    s.close().await
}

#[tokio::test]
async fn who_did_what_stands_beside_it() -> Result<()> {
    let s = Site::open().await?;
    let g = guarded(&s).await?;
    let code = g.batch(&s, "Larch round").await?;
    let cook = g.join("Rafi Oduya", "cook").await?;
    let tablet = g.tablet("Oven wall").await?;
    let path = format!("/batches/{code}");
    g.post(
        &format!("{path}/remarks"),
        &pairs(&[("remark", "slack at first")]),
        &cook,
    )
    .await?;
    g.post(
        &format!("{path}/remarks"),
        &pairs(&[("remark", "by the wall")]),
        &tablet,
    )
    .await?;
    // The tablet asks whose hands it is in, and from then on it is theirs.
    let page = g.get(&path, &tablet).await?;
    assert!(page.body.contains("Whose hands?"));
    let id = page
        .body
        .split("name=\"person\" value=\"")
        .find(|p| p.contains("aria-label=\"Ines Marlow\""))
        .and_then(|p| p.split('"').next())
        .context("her initials")?;
    g.post(
        "/hands",
        &pairs(&[("person", id), ("back", &path)]),
        &tablet,
    )
    .await?;
    g.post(
        &format!("{path}/remarks"),
        &pairs(&[("remark", "with my own hands")]),
        &tablet,
    )
    .await?;
    let page = g.get(&path, &g.owner).await?.body;
    for (remark, by) in [
        ("slack at first", "Rafi Oduya"),
        ("by the wall", "Oven wall"),
        ("with my own hands", "Ines Marlow"),
    ] {
        let line = page
            .split("<li>")
            .find(|l| l.contains(remark))
            .context("its line")?;
        assert!(line.contains(by), "{by} said “{remark}”: {line}");
    }
    assert!(page.contains("<b>Planned</b> by Ines Marlow"));
    s.close().await
}

#[tokio::test]
async fn two_kitchens_of_one_person_do_not_mix() -> Result<()> {
    let s = Site::open().await?;
    let g = guarded(&s).await?;
    let here = g.batch(&s, "Of the first").await?;
    // Begins another one, and is in it then.
    let began = g
        .post(
            "/begin/keep",
            &pairs(&[
                ("kitchen", "Second house"),
                ("start", "no"),
                ("time_zone", "Europe/Rome"),
            ]),
            &g.owner,
        )
        .await?;
    assert_eq!(began.header("location"), "/", "{}", began.body);
    assert_eq!(
        g.get(&format!("/batches/{here}"), &g.owner).await?.status,
        StatusCode::NOT_FOUND
    );
    let bench = g.get("/", &g.owner).await?.body;
    assert!(bench.contains("Second house") && !bench.contains("Of the first"));
    // A page of the first one that is sent now belongs to the first one.
    let first = bench_number(&g.get("/people", &g.owner).await?.body)?;
    let sent = g
        .post(
            &format!("/batches/{here}/remarks?k={first}"),
            &pairs(&[("remark", "from an old page")]),
            &g.owner,
        )
        .await?;
    assert_eq!(sent.status, StatusCode::SEE_OTHER);
    g.post(&format!("/kitchens/{first}"), "", &g.owner).await?;
    let page = g.get(&format!("/batches/{here}"), &g.owner).await?.body;
    assert!(page.contains("from an old page"));
    assert!(
        page.contains(&format!("/remarks?k={first}\"")),
        "forms say whose they are"
    );
    s.close().await
}

/// The number of the kitchen that one can go into from here.
fn bench_number(people: &str) -> Result<String> {
    let (_, after) = people
        .split_once("action=\"/kitchens/")
        .context("another kitchen")?;
    Ok(after.chars().take_while(char::is_ascii_digit).collect())
}

#[tokio::test]
async fn from_an_empty_database_to_a_kitchen_of_ones_own() -> Result<()> {
    let db = TestDb::new().await?;
    let pool = Db::at(&db.url)?;
    store::migrate(&pool).await?;
    let router = router_at(pool.clone(), web::Site::default(), SignIn::On);
    let first = ask(&router, "GET", "/", "", &[]).await?;
    assert_eq!(first.header("location"), "/begin");
    let page = ask(&router, "GET", "/begin", "", &[]).await?;
    assert!(
        page.body.contains("Your first:") && page.body.contains("A password, 12 letters or more")
    );
    // What is wrong is said on its leaf, with what was typed.
    let weak = pairs(&[
        ("leaf", "you"),
        ("go", "next"),
        ("name", "Nora Vale"),
        ("password", "123456789012"),
    ]);
    let a = ask(&router, "POST", "/begin", &weak, &[]).await?;
    assert!(a.body.contains("tried first") && a.body.contains("value=\"Nora Vale\""));
    let odd = pairs(&[
        ("leaf", "bakes_in"),
        ("go", "next"),
        ("most", "9000"),
        ("bakes_in", "dome"),
    ]);
    assert!(
        ask(&router, "POST", "/begin", &odd, &[])
            .await?
            .body
            .contains("An oven reaches 150 to 550°.")
    );
    let all = [
        ("name", "Nora Vale"),
        ("password", PASSWORD),
        ("time_zone", "Europe/Rome"),
        ("bakes_in", "home_stone"),
        ("most", "260"),
        ("mixer", "planetary"),
        ("fridge", "measured"),
        ("fridge_c", "4"),
        ("told_hours", "1"),
        ("sleeps_from", "23"),
        ("sleeps_to", "7"),
        ("works", "yes"),
        ("works_from", "9"),
        ("works_to", "17"),
        ("like.same_day_round", "1"),
        ("like.home_round", "1"),
        ("start", "yes"),
    ];
    let kept = ask(&router, "POST", "/begin/keep", &pairs(&all), &[]).await?;
    let me = cookie(&kept).with_context(|| kept.body.clone())?;
    let batch = kept.header("location").to_string();
    let mine = async |path: &str| ask(&router, "GET", path, "", &[("cookie", &me)]).await;
    let page = mine(&batch).await?;
    assert_eq!(page.status, StatusCode::OK);
    assert!(page.body.contains("Home oven, stone") || page.body.contains("Enriched round"));
    let pantry = mine("/pantry").await?.body;
    assert!(
        pantry.contains("Pizza flour, W 270")
            && pantry.contains("Olive oil")
            && pantry.contains("Home oven, stone")
    );
    assert!(pantry.contains("generic"), "marked until replaced");
    let library = mine("/formulas").await?.body;
    assert!(library.contains("Same-day round") && library.contains("Enriched round"));
    // One's own flour takes the place of its stand-in.
    let own = pairs(&[
        ("form_key", &uuid::Uuid::new_v4().to_string()),
        ("name", "Mill of the hill"),
        ("kind", "soft_fine"),
        ("w", "280"),
    ]);
    ask(&router, "POST", "/pantry/flours", &own, &[("cookie", &me)]).await?;
    let pantry = mine("/pantry").await?.body;
    assert!(pantry.contains("Mill of the hill") && !pantry.contains("Pizza flour, W 270"));
    // Nobody else begins here.
    let stranger = ask(&router, "GET", "/begin", "", &[]).await?;
    assert!(stranger.header("location").starts_with("/sign-in"));
    let stranger = ask(&router, "POST", "/begin/keep", &pairs(&all), &[]).await?;
    assert!(stranger.header("location").starts_with("/sign-in"));
    pool.close().await;
    db.close().await
}
