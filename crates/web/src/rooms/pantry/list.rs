//! All shelves on one page.

use crate::App;
use crate::shared::error::AppError;
use crate::shared::fields::Quantity;
use crate::shared::form::FormData;
use crate::shared::format::{Measures, count_word};
use crate::shared::format::{named, word};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::shipped;
use crate::shared::tongue::{day_of, decimal, phrase, plain, say};
use askama::Template;
use axum::body::Bytes;
use axum::extract::{Query, State};
use axum::response::{IntoResponse, Redirect, Response};
use craft::fire::Oven;
use craft::flour::FlourKind;
use craft::formula::PanShape;
use craft::mix::Speed;
use craft::pantry::{Flour, InStock};
use jiff::civil::Date;
use std::collections::HashMap;
use store::pantry::{At, Put};

struct FlourRow {
    id: u64,
    name: String,
    kind: String,
    w: String,
    /// W stands for a guess.
    guess: bool,
    /// It stands for one of its type until somebody enters their own.
    generic: bool,
    protein: String,
    absorption: String,
    price: String,
    left: String,
    /// "use by 3 Dec", "past its date", "low": what asks for something.
    remark: String,
    /// What plans keep of it.
    planned: String,
}

struct ItemRow {
    id: u64,
    name: String,
    says: String,
}

struct ListedShelf {
    kind: &'static str,
    path: &'static str,
    title: &'static str,
    add: &'static str,
    rows: Vec<ItemRow>,
    none: &'static str,
}

#[derive(Template)]
#[template(path = "rooms/pantry/list.html")]
struct PantryPage {
    frame: Frame,
    how_many: String,
    flours: Vec<FlourRow>,
    unit: &'static str,
    currency: String,
    per: &'static str,
    shelves: Vec<ListedShelf>,
    shipped: Vec<(String, String, String)>,
    ovens: Vec<(String, String, String)>,
    programmes: Vec<(String, String)>,
    head: String,
    /// Kind and name of rows that cannot be read.
    unreadable: Vec<(String, String)>,
    more: bool,
    /// The name of what was just kept.
    kept: Option<String>,
}

fn flour(id: u64, counted: &Flour, stock: InStock, m: &Measures, today: Date) -> FlourRow {
    let f = &counted.after(stock.taken_g);
    let s = f.facts.strength();
    let left = f.left_g();
    let short = stock.short_g(counted.left_g());
    let per = |v: Option<f64>| v.map_or("–".into(), |v| decimal(v, 1));
    let next = f.next_bag().and_then(|b| b.best_before);
    let remark = match next {
        Some(d) if d < today => say!("pantry-past-its-date-since", day = day_of(d)),
        Some(d) if (d - today).get_days() <= 30 => {
            say!("pantry-use-by", day = day_of(d))
        }
        _ if left > 0.0 && left < 1000.0 => phrase("pantry-little-left").into(),
        _ => String::new(),
    };
    // Who counts no bags is not told that they lack.
    let counts = !f.bags.is_empty();
    let lacks = (counts && short > 0.5)
        .then(|| say!("pantry-short-for-what-is-planned", short = m.weighed(short)));
    let planned = if stock.planned_g > 0.5 && lacks.is_none() {
        say!("pantry-planned", planned_g = m.weighed(stock.planned_g))
    } else {
        String::new()
    };
    let remark = [remark, lacks.unwrap_or_default()]
        .into_iter()
        .filter(|r| !r.is_empty())
        .collect::<Vec<_>>()
        .join("; ");
    FlourRow {
        id,
        name: f.name.clone(),
        kind: named(&f.facts.kind.name()),
        w: if f.facts.kind == FlourKind::Gluten {
            "–".into()
        } else if s.spread > 0.0 {
            format!("{:.0} ±{:.0}", s.w, s.spread)
        } else {
            format!("{:.0}", s.w)
        },
        guess: s.spread > 0.0,
        generic: f.generic,
        protein: per(f.facts.protein_percent),
        absorption: per(f.facts.absorption_percent),
        price: f
            .price_per_kg
            .map_or("–".into(), |p| decimal(p * m.scale(Quantity::PerKg).0, 2)),
        left: m.weight(left),
        remark,
        planned,
    }
}

fn shape(pan: PanShape, height_cm: f64, m: &Measures) -> String {
    let l = |cm| m.length_field(cm);
    let u = m.length_unit();
    match pan {
        PanShape::Rectangle {
            length_cm,
            width_cm,
        } => format!("{} × {} × {} {u}", l(length_cm), l(width_cm), l(height_cm)),
        PanShape::Round { diameter_cm } => {
            say!(
                "pantry-round-high",
                diameter_cm = l(diameter_cm),
                u = u,
                height_cm = l(height_cm)
            )
        }
    }
}

pub async fn all(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Query(query): Query<HashMap<String, String>>,
) -> Result<Response, AppError> {
    let larder = Larder::of(&app, &here).await?;
    let (l, m) = (&larder.0, here.measures);
    let today = here.local(here.now).date();
    let currency = here.kitchen.reads.currency.clone();
    let litres = |l: f64| {
        let l = craft::fact::tenth(l);
        here.reader().said(&craft::fact::Value::Litres(l)).full
    };
    let (per, unit) = m.scale(Quantity::PerKg);
    let money = |p: Option<f64>| {
        p.map_or(String::new(), |p| {
            format!(", {currency}{} {unit}", decimal(p * per, 2))
        })
    };
    let flours: Vec<FlourRow> = l
        .flours
        .iter()
        .map(|f| flour(f.id, &f.facts, larder.in_stock(f.id), &m, today))
        .collect();
    let stock: f64 = l
        .flours
        .iter()
        .map(|f| larder.in_stock(f.id).left_g(f.facts.left_g()))
        .sum();
    let row = |id, name: &str, says: String| ItemRow {
        id,
        name: name.into(),
        says,
    };
    let shelves = vec![
        ListedShelf {
            kind: "leaven",
            path: "/pantry/leavens",
            title: phrase("pantry-leavens"),
            add: phrase("pantry-add-leaven"),
            rows: l
                .leavens
                .iter()
                .map(|x| {
                    let f = &x.facts;
                    let water = f.hydration_percent.map_or(String::new(), |h| {
                        [" ", &say!("pantry-at-water", h = plain(h)), ""].concat()
                    });
                    let opened = f
                        .opened_on
                        .map_or(String::new(), |d| say!("pantry-opened", day = day_of(d)));
                    row(
                        x.id,
                        &f.name,
                        say!(
                            "pantry-vigour-left",
                            name = named(&f.form.name()),
                            water = water,
                            opened = opened,
                            vigour = plain(f.vigour),
                            left_g = m.weighed(larder.in_stock(x.id).left_g(f.left_g)),
                            price_per_kg = money(f.price_per_kg)
                        ),
                    )
                })
                .collect(),
            none: phrase("pantry-yeast-and-starters-with-their"),
        },
        ListedShelf {
            kind: "scale",
            path: "/pantry/scales",
            title: phrase("begin-scales"),
            add: phrase("pantry-add-scale"),
            rows: l
                .scales
                .iter()
                .map(|x| {
                    row(
                        x.id,
                        &x.facts.name,
                        say!(
                            "pantry-reads-g-carries",
                            reads_g = plain(x.facts.reads_g),
                            carries_g = m.weighed(x.facts.carries_g)
                        ),
                    )
                })
                .collect(),
            none: phrase("pantry-until-there-is-one-the"),
        },
        ListedShelf {
            kind: "pan",
            path: "/pantry/pans",
            title: phrase("form-pans"),
            add: phrase("pantry-add-pan"),
            rows: l
                .pans
                .iter()
                .map(|x| {
                    row(
                        x.id,
                        &x.facts.name,
                        say!(
                            "pantry-of",
                            count = x.facts.count,
                            height_cm = shape(x.facts.pan, x.facts.height_cm, &m),
                            litres = litres(x.facts.litres())
                        ),
                    )
                })
                .collect(),
            none: phrase("pantry-inside-measures-to-size-a"),
        },
        ListedShelf {
            kind: "box",
            path: "/pantry/boxes",
            title: phrase("pantry-boxes-and-tubs"),
            add: phrase("pantry-add-box"),
            rows: l
                .boxes
                .iter()
                .map(|x| {
                    let f = &x.facts;
                    row(
                        x.id,
                        &f.name,
                        say!(
                            "pantry-of-balls-each",
                            count = f.count,
                            height_cm = shape(f.pan, f.height_cm, &m),
                            litres = litres(f.litres()),
                            balls = f.balls()
                        ),
                    )
                })
                .collect(),
            none: phrase("pantry-how-many-balls-lie-in"),
        },
        ListedShelf {
            kind: "oven",
            path: "/pantry/ovens",
            title: phrase("pantry-ovens"),
            add: phrase("pantry-add-oven"),
            rows: l
                .ovens
                .iter()
                .map(|x| row(x.id, &x.facts.name, oven_line(&x.facts, &m)))
                .collect(),
            none: phrase("pantry-copy-one-below-and-make"),
        },
        ListedShelf {
            kind: "mixer",
            path: "/pantry/mixers",
            title: phrase("pantry-mixers"),
            add: phrase("pantry-add-mixer"),
            rows: l
                .machines
                .iter()
                .map(|x| {
                    let f = &x.facts;
                    let known = f.learned.as_ref().map_or(String::new(), |l| {
                        format!("; {}", here.words(&l.adds(Speed::Medium)))
                    });
                    let holds = m.weight(1000.0 * f.capacity_kg);
                    let unit = m.weight_unit();
                    let says = say!(
                        "pantry-holds",
                        name = named(&f.kind.name()),
                        holds = holds,
                        unit = unit,
                        known = known
                    );
                    row(x.id, &f.name, says)
                })
                .collect(),
            none: phrase("pantry-what-a-mixer-holds-and"),
        },
        ListedShelf {
            kind: "programme",
            path: "/pantry/programmes",
            title: phrase("pantry-ways-of-mixing"),
            add: phrase("pantry-add-way"),
            rows: l
                .programmes
                .iter()
                .map(|x| {
                    let p = x.facts.programme();
                    let says = say!(
                        "pantry-steps-min",
                        name = named(&p.kind.name()),
                        steps = p.steps.len(),
                        minutes = plain(p.minutes())
                    );
                    row(x.id, &x.facts.name, says)
                })
                .collect(),
            none: phrase("pantry-copy-one-of-those-that"),
        },
        ListedShelf {
            kind: "place",
            path: "/pantry/places",
            title: phrase("pantry-places"),
            add: phrase("pantry-add-place"),
            rows: l
                .places
                .iter()
                .map(|x| {
                    let f = &x.facts;
                    let day = f.profile_c.as_ref().map_or(String::new(), |p| {
                        let low = p.iter().copied().fold(f64::INFINITY, f64::min);
                        let high = p.iter().copied().fold(f64::NEG_INFINITY, f64::max);
                        say!(
                            "pantry-to-in-a-day",
                            low = m.degrees(low, 0),
                            high = m.degrees(high, 0)
                        )
                    });
                    let says = format!("{} {}{day}", m.degrees(f.c, 1), m.degree_unit());
                    row(x.id, &f.name, says)
                })
                .collect(),
            none: phrase("pantry-a-porch-a-cellar-the"),
        },
        ListedShelf {
            kind: "method",
            path: "/pantry/methods",
            title: phrase("pantry-my-methods"),
            add: "",
            rows: l
                .methods
                .iter()
                .map(|x| row(x.id, &x.facts.name, here.say(&x.facts.line)))
                .collect(),
            none: phrase("pantry-set-the-hours-on-rise"),
        },
        ListedShelf {
            kind: "good",
            path: "/pantry/goods",
            title: phrase("pantry-other-goods"),
            add: phrase("pantry-add-good"),
            rows: l
                .goods
                .iter()
                .map(|x| {
                    let f = &x.facts;
                    let all = if f.allergens.is_empty() {
                        String::new()
                    } else {
                        format!(", {}", f.allergens)
                    };
                    row(
                        x.id,
                        &f.name,
                        say!(
                            "pantry-left-2",
                            left_g = m.weighed(larder.in_stock(x.id).left_g(f.left_g)),
                            price_per_kg = money(f.price_per_kg),
                            all = all
                        ),
                    )
                })
                .collect(),
            none: phrase("pantry-salt-oil-toppings-price-stock"),
        },
        ListedShelf {
            kind: "style",
            path: "/pantry/styles",
            title: phrase("pantry-my-styles"),
            add: "",
            rows: l
                .styles
                .iter()
                .map(|x| row(x.id, &x.facts.name, x.facts.line.clone()))
                .collect(),
            none: phrase("pantry-copy-one-below-and-make-2"),
        },
    ];
    let kept: Option<u64> = query.get("kept").and_then(|id| id.parse().ok());
    let named = |id| {
        let flour = l.flours.iter().find(|f| f.id == id);
        let on_shelf = shelves.iter().flat_map(|s| &s.rows).find(|r| r.id == id);
        flour
            .map(|f| f.facts.name.clone())
            .or_else(|| on_shelf.map(|r| r.name.clone()))
    };
    let html = page(&PantryPage {
        kept: kept.and_then(named),
        unreadable: l
            .unreadable
            .iter()
            .map(|u| (u.kind.clone(), u.name.clone()))
            .collect(),
        more: l.more,
        frame: Frame::of(
            &here,
            theme,
            Stop::Sheet,
            phrase("library-pantry"),
            None,
            "/pantry",
        ),
        how_many: count_word(flours.len() as u32),
        head: m.weighed(stock),
        flours,
        unit: m.weight_unit(),
        per: here.measures.scale(Quantity::PerKg).1,
        currency,
        shelves,
        shipped: craft::style::all()
            .iter()
            .map(|s| (s.key.clone(), shipped(&s.name), shipped(&s.line)))
            .collect(),
        programmes: craft::mix::programmes()
            .iter()
            .map(|p| (p.key.clone(), here.say(&p.name)))
            .collect(),
        ovens: craft::fire::oven::all()
            .iter()
            .map(|o| (o.key.clone(), shipped(&o.name), oven_line(o, &m)))
            .collect(),
    })?;
    Ok(html.into_response())
}

/// What an oven is, in one line.
fn oven_line(o: &Oven, m: &Measures) -> String {
    let fitted = if o.floor_factor != 1.0 || o.top_factor != 1.0 || o.pace != 1.0 {
        say!(
            "pantry-fitted-floor-top-pace",
            floor_factor = plain(o.floor_factor),
            top_factor = plain(o.top_factor),
            pace = plain(o.pace)
        )
    } else {
        String::new()
    };
    let spots = if o.spots == 1 {
        phrase("pantry-one-at-a-time").into()
    } else {
        say!("pantry-at-once", spots = o.spots)
    };
    say!(
        "pantry-to",
        floor_mm = m.scaled_field(o.floor_mm, Quantity::Mm),
        unit = m.scale(Quantity::Mm).1,
        name = word(&o.floor.name()),
        most_c = m.degrees(o.most_c, 0),
        degree_unit = m.degree_unit(),
        spots = spots,
        fitted = fitted
    )
}

/// A shipped oven becomes one of the kitchen's own.
pub async fn copy_oven(
    State(app): State<App>,
    here: RequestKitchen,
    body: Bytes,
) -> Result<Redirect, AppError> {
    let typed = FormData::parse(&body);
    let shipped = craft::fire::oven::all()
        .iter()
        .find(|o| o.key == typed.text("oven"))
        .ok_or_else(|| AppError::Asked(phrase("pantry-there-is-no-such-oven").into()))?;
    let key = typed.key("form_key");
    let own = Oven {
        // Of the form's key, so that what is sent twice is the same oven.
        key: format!("own-{}", key.simple()),
        ..shipped.clone()
    };
    let mut db = app.db.acquire().await?;
    match store::pantry::put(&mut db, here.id(), At::New(key), &own, here.now).await? {
        Put::Done(id) | Put::Other(id) => Ok(Redirect::to(&format!("/pantry/ovens/{id}"))),
        Put::Stale(_) => Ok(Redirect::to("/pantry#oven")),
    }
}
