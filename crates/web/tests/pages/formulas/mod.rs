//! Formulas, pantry and files over HTTP: what goes without a script, and what is refused.

mod dough;
mod files;
mod pantry;

use crate::site::{Site, form, pairs};
use anyhow::Result;
use axum::http::StatusCode;

/// The form after a press: every field of the page, as a browser would send them.
fn fields_of(body: &str) -> Vec<(String, String)> {
    let mut out = Vec::new();
    let form = body.split("id=\"sheet\"").nth(1).unwrap_or(body);
    for tag in form.split("<input ").skip(1) {
        let tag = tag.split('>').next().unwrap_or("");
        let get = |name: &str| {
            tag.split(&format!("{name}=\""))
                .nth(1)
                .and_then(|r| r.split('"').next())
                .map(|v| {
                    v.replace("&#34;", "\"")
                        .replace("&#60;", "<")
                        .replace("&#62;", ">")
                        .replace("&#39;", "'")
                        .replace("&#38;", "&")
                })
        };
        let ticked = !tag.contains("type=\"checkbox\"") && !tag.contains("type=\"radio\"")
            || tag.contains(" checked");
        if let (Some(name), Some(value), true) = (get("name"), get("value"), ticked) {
            out.push((name, value));
        }
    }
    for select in form.split("<select ").skip(1) {
        let name = select
            .split("name=\"")
            .nth(1)
            .and_then(|r| r.split('"').next())
            .unwrap_or("");
        let list = select.split("</select>").next().unwrap_or("");
        let chosen = list
            .split("<option value=\"")
            .skip(1)
            .find(|o| o.split('>').next().is_some_and(|t| t.contains("selected")))
            .or(list.split("<option value=\"").nth(1));
        if let Some(v) = chosen.and_then(|o| o.split('"').next()) {
            out.push((name.into(), v.into()));
        }
    }
    out
}

/// The fields of a page, some of them changed, as a body.
fn changed(body: &str, with: &[(&str, &str)]) -> String {
    let mut fields = fields_of(body);
    for (name, value) in with {
        fields.retain(|(n, _)| n != name);
        fields.push((name.to_string(), value.to_string()));
    }
    let all: Vec<(&str, &str)> = fields
        .iter()
        .map(|(n, v)| (n.as_str(), v.as_str()))
        .collect();
    pairs(&all)
}

async fn press(s: &Site, body: &str, with: &[(&str, &str)]) -> Result<String> {
    Ok(s.post("/dough/look", &changed(body, with)).await?.body)
}
