//! Styles of one's own: copied from one that ships, or made from a dough, then altered.

use super::shelf::{Entry, Shelf, choice, figure, text};
use crate::App;
use crate::access::doors::{Doors, PLAN};
use crate::formula_form::reading;
use crate::shared::error::AppError;
use crate::shared::fields::{Quantity, degrees, must, put_degrees, put_scaled, scaled, unit_of};
use crate::shared::form::{FieldReader, FormData};
use crate::shared::format::by_name;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{phrase, plain, say};
use axum::body::Bytes;
use axum::extract::State;
use axum::response::Redirect;
use craft::fire::Aim;
use craft::fire::race::Targets;
use craft::formula::Formula;
use craft::keyed::Keyed;
use craft::refusal::{Check, ValidationError};
use craft::style::StyleBake;
use craft::style::{Style, Usual};
use store::pantry::{self, At, Put};
use uuid::Uuid;

pub fn routes() -> Doors {
    Doors::new().post(PLAN, "/pantry/styles/copy", copy).post(
        PLAN,
        "/pantry/styles/from-dough",
        from_dough,
    )
}

/// A style under a name of its own, so that the one it came from stays beside it.
fn own(style: &Style, name: &str, form_key: Uuid) -> Style {
    Style {
        // Of the form's key, so that what is sent twice is the same style.
        key: format!("own-{}", form_key.simple()),
        name: name.chars().take(80).collect(),
        ..style.clone()
    }
}

async fn kept(
    app: &App,
    here: &RequestKitchen,
    key: Uuid,
    style: &Style,
) -> Result<Redirect, AppError> {
    let mut db = app.db.acquire().await?;
    match pantry::put(&mut db, here.id(), At::New(key), style, here.now).await? {
        Put::Done(id) | Put::Other(id) => Ok(Redirect::to(&format!("/pantry/styles/{id}"))),
        Put::Stale(_) => Ok(Redirect::to("/pantry#style")),
    }
}

async fn copy(
    State(app): State<App>,
    here: RequestKitchen,
    body: Bytes,
) -> Result<Redirect, AppError> {
    let typed = FormData::parse(&body);
    let from = craft::style::by_key(typed.text("style")).unwrap_or(craft::style::first());
    let key = typed.key("form_key");
    let name = say!("pantry-my", to_lowercase = from.name.to_lowercase());
    kept(&app, &here, key, &own(from, &name, key)).await
}

/// What the dough on the sheet is becomes what the style starts from.
async fn from_dough(
    State(app): State<App>,
    here: RequestKitchen,
    body: Bytes,
) -> Result<Redirect, AppError> {
    let typed = FormData::parse(&body);
    let f: Formula =
        reading::formula(&typed, &here).map_err(|e| AppError::Asked(here.say_all(&e)))?;
    let name = match typed.text("name") {
        "" => say!("pantry-my", to_lowercase = f.style.name.to_lowercase()),
        n => crate::shared::form::one_line(n),
    };
    let w = craft::flour::blend(&f.flours).w;
    let widened = |u: Usual, v: f64| Usual {
        low: u.low.min(v),
        high: u.high.max(v),
    };
    let key = typed.key("form_key");
    let mut s = own(&f.style, &name, key);
    s.usual.hydration = widened(s.usual.hydration, f.hydration_percent);
    s.usual.salt = widened(s.usual.salt, f.salt_percent);
    s.usual.oil = widened(s.usual.oil, f.oil_percent);
    s.usual.sugar = widened(s.usual.sugar, f.sugar_percent);
    let s = Style {
        pieces: f.pieces,
        loss_percent: f.loss_percent,
        hydration_percent: f.hydration_percent,
        salt_percent: f.salt_percent,
        oil_percent: f.oil_percent,
        sugar_percent: f.sugar_percent,
        extras: f.extras,
        // Shares of flours by their place mean nothing to another blend.
        preferments: f
            .preferments
            .into_iter()
            .map(|mut p| {
                p.flours.clear();
                p
            })
            .collect(),
        yeast_form: f.yeast.form,
        dose: f.yeast.dose,
        flour_w: w.round(),
        target_dough_c: f.target_dough_c,
        bulk_h: f.bulk_h,
        cold_h: f.cold_h,
        temper_h: f.temper_h,
        toppings: f.toppings,
        ..s
    };
    kept(&app, &here, key, &s).await
}

/// The ranges, with their place in the style and their unit.
type Range = (
    &'static str,
    &'static str,
    Option<Quantity>,
    fn(&mut Style) -> &mut Usual,
);
/// A range without a quantity is in % of the flour.
const RANGES: [Range; 8] = [
    ("hydration", "mix-water", None, |s| &mut s.usual.hydration),
    ("salt", "figures-salt", None, |s| &mut s.usual.salt),
    ("oil", "figures-oil", None, |s| &mut s.usual.oil),
    ("sugar", "figures-sugar", None, |s| &mut s.usual.sugar),
    ("malt", "fire-malt", None, |s| &mut s.usual.malt),
    ("ball_g", "pantry-piece", Some(Quantity::Grams), |s| {
        &mut s.usual.ball_g
    }),
    ("disc_cm", "pantry-disc", Some(Quantity::Cm), |s| {
        &mut s.usual.disc_cm
    }),
    (
        "g_per_cm2",
        "pantry-thickness",
        Some(Quantity::GramsPerCm2),
        |s| &mut s.usual.g_per_cm2,
    ),
];

type Number = (
    &'static str,
    &'static str,
    &'static str,
    fn(&mut Style) -> &mut f64,
);
const NUMBERS: [Number; 9] = [
    ("hydration_percent", "pantry-starts-with-water", "%", |s| {
        &mut s.hydration_percent
    }),
    ("salt_percent", "figures-salt", "%", |s| &mut s.salt_percent),
    ("oil_percent", "figures-oil", "%", |s| &mut s.oil_percent),
    ("sugar_percent", "figures-sugar", "%", |s| {
        &mut s.sugar_percent
    }),
    ("flour_w", "pantry-flour-w", "", |s| &mut s.flour_w),
    ("bulk_h", "form-bulk", "h", |s| &mut s.bulk_h),
    ("cold_h", "form-cold", "h", |s| &mut s.cold_h),
    ("temper_h", "form-warm-up", "h", |s| &mut s.temper_h),
    ("target_volume", "pantry-grows-to", "pantry-times", |s| {
        &mut s.target_volume
    }),
];

/// What counts as right at the oven.
type RightField = (
    &'static str,
    &'static str,
    &'static str,
    &'static str,
    for<'a> fn(&'a mut StyleBake, &'a mut Targets) -> &'a mut f64,
);
const COLOURS: &str = "pantry-0-pale-1-golden-2";
const RIGHT: [RightField; 7] = [
    (
        "base_from",
        "pantry-base-right-from",
        COLOURS,
        "",
        |_, t| &mut t.base.0,
    ),
    (
        "base_to",
        "pantry-base-right-to",
        "pantry-3-is-charred",
        "",
        |_, t| &mut t.base.1,
    ),
    ("rim_from", "pantry-rim-right-from", COLOURS, "", |_, t| {
        &mut t.rim.0
    }),
    (
        "rim_to",
        "pantry-rim-right-to",
        "pantry-3-is-charred",
        "",
        |_, t| &mut t.rim.1,
    ),
    (
        "set_c",
        "pantry-crumb-set-at",
        "pantry-at-its-coldest",
        "°",
        |_, t| &mut t.set_c,
    ),
    ("rim_mm", "pantry-width-of-the-rim", "", "thick", |b, _| {
        &mut b.rim_mm
    }),
    (
        "rim_share",
        "pantry-dough-in-the-rim",
        "pantry-share-of-rim",
        "",
        |b, _| &mut b.rim_share,
    ),
];

/// Reads how a style is judged. Another way to bake brings its own targets, unless they were changed in the same breath.
fn judged(r: &mut FieldReader, before: StyleBake, here: &RequestKitchen) -> StyleBake {
    let mut b = before;
    if let Some(aim) = Aim::from_key(r.typed.text("aim")) {
        b.aim = aim;
    }
    let mut targets = before.targets();
    for (n, label, _, u, at) in RIGHT {
        if r.typed.has(n) {
            *at(&mut b, &mut targets) = match u {
                "°" => degrees(r, n, label, here),
                "thick" => scaled(r, n, label, Quantity::Mm, here),
                _ => must(r, n, label),
            };
        }
    }
    let untouched = targets == before.targets();
    b.targets = match before.targets {
        None if untouched => None,
        _ if untouched && b.aim != before.aim => None,
        _ => Some(targets),
    };
    b
}

impl Shelf for Style {
    const PATH: &'static str = "/pantry/styles";
    const TITLE: &'static str = "fire-style";
    const WHY: &'static str = "pantry-what-a-new-dough-of";

    fn entries(here: &RequestKitchen) -> Vec<Entry> {
        let degree = here.measures.degree_unit();
        let mut out = vec![
            text("name", phrase("bench-name"), ""),
            text("line", phrase("pantry-in-one-line"), ""),
        ];
        out.extend(
            NUMBERS
                .iter()
                .map(|(n, l, u, _)| figure(n, phrase(l), "", phrase(u))),
        );
        for (n, l, q, _) in RANGES {
            let u = q.map_or("%", |q| unit_of(q, here));
            let l = phrase(l);
            out.push(figure(
                &format!("{n}.low"),
                l,
                phrase("pantry-usual-from"),
                u,
            ));
            out.push(figure(&format!("{n}.high"), l, phrase("pantry-word-to"), u));
        }
        out.push(text("oven", phrase("fire-oven"), phrase("pantry-in-words")));
        out.push(figure(
            "floor.low",
            phrase("bake-floor"),
            phrase("pantry-word-from"),
            degree,
        ));
        out.push(figure(
            "floor.high",
            phrase("bake-floor"),
            phrase("pantry-word-to"),
            degree,
        ));
        out.push(figure(
            "dome.low",
            phrase("pantry-dome-or-top"),
            phrase("pantry-word-from"),
            degree,
        ));
        out.push(figure(
            "dome.high",
            phrase("pantry-dome-or-top"),
            phrase("pantry-word-to"),
            degree,
        ));
        out.push(figure("preheat_min", phrase("pantry-preheat"), "", "min"));
        out.push(figure(
            "out_s",
            phrase("pantry-bakes-in"),
            phrase("pantry-word-about"),
            "s",
        ));
        out.push(choice(
            "aim",
            phrase("pantry-judged-as"),
            by_name(Aim::name),
        ));
        for (n, l, small, u, _) in RIGHT {
            let u = match u {
                "°" => degree,
                "thick" => unit_of(Quantity::Mm, here),
                u => u,
            };
            out.push(figure(n, phrase(l), phrase(small), u));
        }
        out
    }
    fn fresh() -> Style {
        own(craft::style::first(), "", Uuid::new_v4())
    }
    fn write(&self, t: &mut FormData, here: &RequestKitchen) {
        let mut s = self.clone();
        t.set("name", &self.name);
        t.set("line", &self.line);
        for (n, _, _, at) in NUMBERS {
            t.set(n, plain(*at(&mut s)));
        }
        for (n, _, q, at) in RANGES {
            let u = *at(&mut s);
            for (end, v) in [("low", u.low), ("high", u.high)] {
                let name = format!("{n}.{end}");
                match q {
                    Some(q) => put_scaled(t, &name, v, q, here),
                    None => t.set(&name, plain(v)),
                }
            }
        }
        t.set("oven", &self.oven.words);
        for (n, u) in [("floor", self.oven.floor_c), ("dome", self.oven.dome_c)] {
            put_degrees(t, &format!("{n}.low"), u.low, here);
            put_degrees(t, &format!("{n}.high"), u.high, here);
        }
        t.set("preheat_min", plain(self.oven.preheat_min));
        t.set("out_s", self.bake.out_s.to_string());
        let mut b = self.bakes();
        let mut targets = b.targets();
        t.set("aim", b.aim.key());
        for (n, _, _, u, at) in RIGHT {
            let v = *at(&mut b, &mut targets);
            match u {
                "°" => put_degrees(t, n, v, here),
                "thick" => put_scaled(t, n, v, Quantity::Mm, here),
                _ => t.set(n, plain(v)),
            }
        }
    }
    fn read(r: &mut FieldReader, here: &RequestKitchen, before: Option<&Style>) -> Style {
        let mut s = before.cloned().unwrap_or_else(Style::fresh);
        s.name = r.name("name", phrase("form-a-name"));
        s.line = r.typed.text("line").into();
        for (n, label, _, at) in NUMBERS {
            *at(&mut s) = must(r, n, label);
        }
        for (n, label, q, at) in RANGES {
            let mut end = |end: &str| {
                let name = format!("{n}.{end}");
                match q {
                    Some(q) => scaled(r, &name, label, q, here),
                    None => must(r, &name, label),
                }
            };
            *at(&mut s) = Usual {
                low: end("low"),
                high: end("high"),
            };
        }
        s.oven.words = r.typed.text("oven").into();
        s.oven.floor_c = Usual {
            low: degrees(r, "floor.low", phrase("bake-floor"), here),
            high: degrees(r, "floor.high", phrase("bake-floor"), here),
        };
        s.oven.dome_c = Usual {
            low: degrees(r, "dome.low", phrase("fire-dome"), here),
            high: degrees(r, "dome.high", phrase("fire-dome"), here),
        };
        s.oven.preheat_min = must(r, "preheat_min", phrase("pantry-preheat"));
        s.bakes_as = Some(judged(r, s.bakes(), here));
        let out_s = must(r, "out_s", phrase("bake-bake"));
        if (20.0..=7000.0).contains(&out_s) {
            retime(&mut s, out_s.round() as u32);
        } else if out_s.is_finite() {
            r.refuse(
                "out_s",
                say!("pantry-a-bake-takes-20-to", out_s = plain(out_s)),
            );
        }
        s
    }
    fn checked(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        self.check_into(&mut c);
        let mut all = c.done().err().map_or(vec![], |ValidationError(e)| e);
        // The style's own values make a dough, too.
        if let Err(ValidationError(e)) = Formula::of_style(self).check() {
            all.extend(e);
        }
        for e in &mut all {
            let field = e
                .field
                .trim_start_matches("style.")
                .trim_start_matches("usual.")
                .trim_start_matches("oven.");
            e.field = match field {
                "floor_c" => "floor.low".into(),
                "dome_c" => "dome.low".into(),
                "bake" => "out_s".into(),
                "bakes.base" => "base_from".into(),
                "bakes.rim" => "rim_from".into(),
                f if f.starts_with("bakes.") => f.trim_start_matches("bakes.").into(),
                f if RANGES.iter().any(|r| r.0 == f) => format!("{f}.low"),
                f if f.starts_with("flours[") => "flour_w".into(),
                f => f.to_string(),
            };
        }
        all.dedup_by(|a, b| a.field == b.field);
        if all.is_empty() {
            Ok(())
        } else {
            Err(ValidationError(all))
        }
    }
}

/// Stretches the programme to another bake time; the turns keep their share of it.
fn retime(s: &mut Style, out_s: u32) {
    let old = s.bake.out_s.max(1);
    if old == out_s {
        return;
    }
    let stretch = |t: u32| (u64::from(t) * u64::from(out_s) / u64::from(old)).min(7199) as u32;
    for t in &mut s.bake.turns {
        t.at_s = stretch(t.at_s);
    }
    s.bake.from_s = stretch(s.bake.from_s);
    s.bake.to_s = stretch(s.bake.to_s).max(out_s);
    s.bake.chars_s = stretch(s.bake.chars_s).max(s.bake.to_s + 1);
    s.bake.out_s = out_s;
}
