//! The same program with sign-in, and those who come to it.

use super::{Answer, Site, ask, form, new_kitchen, pairs};
use anyhow::{Context, Result};
use axum::Router;
use craft::people::Role;
use jiff::Timestamp;
use store::kitchen;
use store::people::person;
use web::access::secret::hashed;

/// A password that is long and not common.
pub const PASSWORD: &str = "seven slow loaves at dawn";

pub struct Guarded {
    pub router: Router,
    /// The cookie of the kitchen's owner.
    pub owner: String,
}

/// A program on the site's database that asks who comes; its owner is Ines Marlow.
pub async fn guarded(s: &Site) -> Result<Guarded> {
    let router = web::router_at(s.pool.clone(), web::Site::default(), web::SignIn::On);
    let mut db = s.pool.acquire().await?;
    let owner = person::at_home(&mut db).await?.context("an owner")?;
    person::rename(&mut db, owner.id, "Ines Marlow").await?;
    let hash = hashed(PASSWORD.into())
        .await
        .map_err(|e| anyhow::anyhow!("{e}"))?;
    person::set_password(&mut db, owner.id, &hash, Timestamp::now()).await?;
    drop(db);
    let owner = sign_in(&router, "ines  MARLOW", PASSWORD).await?;
    Ok(Guarded { router, owner })
}

/// The cookie that an answer sets.
pub fn cookie(a: &Answer) -> Option<String> {
    let set = a.headers.get("set-cookie")?.to_str().ok()?;
    set.split(';').next().map(Into::into)
}

/// Signs in; the cookie of the session.
pub async fn sign_in(router: &Router, name: &str, password: &str) -> Result<String> {
    let body = pairs(&[("name", name), ("password", password)]);
    let a = ask(router, "POST", "/sign-in", &body, &[]).await?;
    cookie(&a).with_context(|| format!("{} {}", a.status, a.body))
}

impl Guarded {
    pub async fn get(&self, path: &str, cookie: &str) -> Result<Answer> {
        ask(&self.router, "GET", path, "", &[("cookie", cookie)]).await
    }
    pub async fn post(&self, path: &str, body: &str, cookie: &str) -> Result<Answer> {
        ask(&self.router, "POST", path, body, &[("cookie", cookie)]).await
    }
    /// The address that a page gives away, without its server.
    fn given(a: &Answer) -> Result<String> {
        let (_, after) = a
            .body
            .split_once("id=\"given\" href=\"")
            .context("an address")?;
        let address = after.split('"').next().context("its end")?;
        let path = address.splitn(4, '/').nth(3).context("a path")?;
        Ok(format!("/{path}"))
    }
    /// What a form of the owner's gives away.
    pub async fn link(&self, path: &str) -> Result<String> {
        Guarded::given(&self.post(path, "", &self.owner).await?)
    }
    /// As a script sends it, without a session.
    pub async fn post_as_script(&self, path: &str, body: &str) -> Result<Answer> {
        ask(
            &self.router,
            "POST",
            path,
            body,
            &[("accept", "application/json")],
        )
        .await
    }
    /// An invitation's path.
    pub async fn invitation(&self, role: &str) -> Result<String> {
        let a = self
            .post("/people/invite", &pairs(&[("role", role)]), &self.owner)
            .await?;
        Guarded::given(&a)
    }
    /// Somebody new joins the owner's kitchen; their cookie.
    pub async fn join(&self, name: &str, role: &str) -> Result<String> {
        let path = self.invitation(role).await?;
        let body = pairs(&[("name", name), ("password", PASSWORD)]);
        let a = ask(&self.router, "POST", &path, &body, &[]).await?;
        cookie(&a).with_context(|| format!("{} {}", a.status, a.body))
    }
    /// A tablet that an owner took in; its cookie.
    pub async fn tablet(&self, name: &str) -> Result<String> {
        let waits = ask(&self.router, "POST", "/tablet", "", &[]).await?;
        let waiting = cookie(&waits).context("a cookie that waits")?;
        let page = self.get("/tablet", &waiting).await?;
        let (_, after) = page
            .body
            .split_once("aria-label=\"Code\">")
            .context("a code")?;
        let code = after.split('<').next().context("its end")?;
        let a = self
            .post(
                "/people/tablet",
                &pairs(&[("code", code), ("name", name)]),
                &self.owner,
            )
            .await?;
        anyhow::ensure!(a.status.is_redirection(), "{}", a.body);
        let inside = self.get("/tablet", &waiting).await?;
        cookie(&inside).with_context(|| inside.body.clone())
    }
    /// A crew's link to one batch, followed; its cookie.
    pub async fn crew(&self, code: &str, role: &str) -> Result<String> {
        self.crew_of(code, &[("role", role)]).await
    }
    /// A crew's link as a form on a batch's page asks for it, followed; its cookie.
    pub async fn crew_of(&self, code: &str, asked: &[(&str, &str)]) -> Result<String> {
        let a = self
            .post(&format!("/batches/{code}/crew"), &pairs(asked), &self.owner)
            .await?;
        let path = Guarded::given(&a)?;
        let a = ask(&self.router, "POST", &path, &pairs(&[("name", "Kit")]), &[]).await?;
        cookie(&a).with_context(|| format!("{} {}", a.status, a.body))
    }
    /// A program's token that the owner made, as a request shows it.
    pub async fn token(&self, name: &str, role: &str) -> Result<String> {
        let body = pairs(&[("name", name), ("role", role), ("lasts", "token_month")]);
        let a = self.post("/people/token", &body, &self.owner).await?;
        let (_, after) = a
            .body
            .split_once("id=\"given-token\">")
            .with_context(|| format!("{} {}", a.status, a.errors()))?;
        let secret = after.split('<').next().context("its end")?;
        Ok(format!("Bearer {secret}"))
    }
    /// As a program asks that shows a token.
    pub async fn program(
        &self,
        method: &str,
        path: &str,
        body: &str,
        token: &str,
    ) -> Result<Answer> {
        ask(
            &self.router,
            method,
            path,
            body,
            &[("authorization", token)],
        )
        .await
    }
    /// Keeps a batch as the owner; its code.
    pub async fn batch(&self, s: &Site, name: &str) -> Result<String> {
        self.kept(&form(s, &[("name", name)])).await
    }
    /// The same, served on a day at a time.
    pub async fn batch_at(
        &self,
        s: &Site,
        name: &str,
        (day, time): (&str, &str),
    ) -> Result<String> {
        let asked = [("name", name), ("serve_date", day), ("serve_time", time)];
        self.kept(&form(s, &asked)).await
    }
    async fn kept(&self, form: &str) -> Result<String> {
        let a = self.post("/dough", form, &self.owner).await?;
        anyhow::ensure!(a.status.is_redirection(), "{} {}", a.status, a.errors());
        Ok(a.header("location")
            .trim_start_matches("/batches/")
            .to_string())
    }
    /// Keeps a formula as the owner; its number.
    pub async fn formula(&self, s: &Site, name: &str) -> Result<String> {
        let a = self
            .post("/formulas", &form(s, &[("name", name)]), &self.owner)
            .await?;
        let to = a.header("location").trim_start_matches("/formulas/");
        let number = to.split(['/', '?']).next().unwrap_or("");
        anyhow::ensure!(!number.is_empty(), "{} {}", a.status, a.errors());
        Ok(number.into())
    }
    /// Puts a flour into the owner's pantry; its number.
    pub async fn flour(&self, name: &str) -> Result<String> {
        let key = uuid::Uuid::new_v4().to_string();
        let body = pairs(&[
            ("form_key", &key),
            ("name", name),
            ("kind", "wheat"),
            ("w", "300"),
        ]);
        let a = self.post("/pantry/flours", &body, &self.owner).await?;
        anyhow::ensure!(a.status.is_redirection(), "{} {}", a.status, a.errors());
        let page = self.get("/pantry", &self.owner).await?;
        let (before, _) = page.body.split_once(name).context("the flour")?;
        let (_, number) = before
            .rsplit_once("/pantry/flours/")
            .context("its address")?;
        Ok(number.chars().take_while(char::is_ascii_digit).collect())
    }
    /// Somebody with a kitchen of their own beside this one; their cookie.
    pub async fn next_door(&self, s: &Site, name: &str, kitchen: &str) -> Result<String> {
        let now = Timestamp::now();
        let hash = hashed(PASSWORD.into())
            .await
            .map_err(|e| anyhow::anyhow!("{e}"))?;
        let mut db = s.pool.acquire().await?;
        let there = kitchen::add(&mut db, &new_kitchen(kitchen), now).await?;
        let who = person::add(&mut db, name, Some(&hash), "", now)
            .await?
            .context("a new name")?;
        person::join(&mut db, there, who, Role::Owner, now).await?;
        drop(db);
        sign_in(&self.router, name, PASSWORD).await
    }
}
