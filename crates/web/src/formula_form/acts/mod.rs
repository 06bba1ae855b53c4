//! What a button of the Dough sheet does to the form: a way to say the size, a row more or less, a remedy, a fit.
//!
//! Where the form can be read, the core changes the formula and it is written back; where it cannot, only what was
//! asked is changed and everything typed stays.

use super::Bench;
use super::fields::{known, spec_of};
use super::reading;
use super::writing::FormWriter;
use crate::shared::form::{FormData, measured, number};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{phrase, say};
use craft::fact;
use craft::fact::{Fact, Value};
use craft::flour::substitute::{Target, substitutes};
use craft::flour::{FlourFacts, FlourPart, blend};
use craft::formula::grams::{Given, given};
use craft::formula::{
    Doses, Extra, ExtraKind, Formula, FormulaRequest, Mode, PanShape, Pieces, Preferment,
    PrefermentKind, formulate,
};
use craft::keyed::Keyed;
use craft::refusal::{FieldError, ValidationError};
use craft::style::Style;
use craft::style::oven_fit::{StatedOven, StatedOvenKind, fit};
use craft::style::topping::{Cook, ToppingPart};
use craft::units::Meant;

/// Does what was pressed; `true` when the form is another one now. Errors: sentences at their fields.
pub fn press(typed: &mut FormData, bench: &Bench) -> Result<bool, Vec<FieldError>> {
    let mut changed = false;
    let set = typed.text("set").to_string();
    typed.forget("set");
    for pair in set.split(';') {
        if let Some((field, value)) = pair.split_once('=') {
            remedy(typed, field, value, bench.here);
            changed = true;
        }
    }
    let act = typed.text("act").to_string();
    typed.forget("act");
    if act.is_empty() {
        let weighed = by_grams(typed, bench)?;
        return Ok(changed || weighed);
    }
    let mut words = act.split(':');
    let (verb, what, which) = (
        words.next().unwrap_or(""),
        words.next().unwrap_or(""),
        words.next().unwrap_or(""),
    );
    match verb {
        "mode" => mode(typed, what, bench.here),
        "style" => style(typed, what, bench),
        "add" => add(typed, what, bench),
        "drop" => {
            let row = which.parse().unwrap_or(usize::MAX);
            drop_row(typed, what, row, bench.here);
        }
        "even" => even(typed, bench.here),
        "fit" => fit_to(typed, bench)?,
        "swap" => swap(typed, what.parse().unwrap_or(0), bench)?,
        _ => return Ok(changed),
    }
    Ok(true)
}

/// A remedy's value is in g, cm and °C; the field shows the kitchen's unit.
fn remedy(typed: &mut FormData, field: &str, value: &str, here: &RequestKitchen) {
    match number(value) {
        Ok(v) if typed.has(field) && known(field).is_some() => spec_of_known(field, v, typed, here),
        _ => {}
    }
}

fn spec_of_known(field: &str, v: f64, typed: &mut FormData, here: &RequestKitchen) {
    FormWriter { typed, here }.number(field, v);
}

/// The doses that the form was shown with, solved ones too; those that the formula states where they do not fit.
fn doses(typed: &FormData, f: &Formula) -> Doses {
    let all: Vec<f64> = typed
        .text("dose")
        .split(' ')
        .filter_map(|d| d.parse().ok())
        .collect();
    match all.split_first() {
        Some((dough, rest))
            if rest.len() == f.preferments.len()
                && all
                    .iter()
                    .all(|d| (0.0..=craft::refusal::MOST_YEAST_PERCENT).contains(d)) =>
        {
            Doses {
                dough: *dough,
                preferments: rest.to_vec(),
            }
        }
        _ => Doses::stated(f),
    }
}

/// Says the same dough another way; a form that cannot be read takes the style's usual size.
fn mode(typed: &mut FormData, to: &str, here: &RequestKitchen) {
    let Some(to) = Mode::from_key(to) else { return };
    let read = reading::formula(typed, here).ok().and_then(|f| {
        let r = formulate(&FormulaRequest {
            doses: Some(doses(typed, &f)),
            formula: f.clone(),
            scales: Default::default(),
        })
        .ok()?;
        let flour = r.exact_g(craft::formula::Ingredient::Flour);
        Some(
            f.pieces
                .switched(to, r.dough_g, flour, f.loss_percent, f.style.opens_to()),
        )
    });
    let pieces = read.unwrap_or_else(|| {
        let style = reading::style_of(typed);
        let total = match style.pieces {
            Pieces::Balls { count, ball_g } => f64::from(count) * ball_g,
            _ => 1500.0,
        };
        style
            .pieces
            .switched(to, total, total / 1.65, 0.0, style.opens_to())
    });
    FormWriter { typed, here }.pieces(&pieces);
}

/// Starts over with a style; name, day and hour stay.
fn style(typed: &mut FormData, key: &str, bench: &Bench) {
    let chosen = if key.is_empty() {
        typed.text("new_style").to_string()
    } else {
        key.to_string()
    };
    if let Some(s) = bench.larder.style(&chosen) {
        reading::put(typed, &Formula::of_style(&s), bench.here);
        sensible_oven(typed, &s, bench);
    }
}

fn add(typed: &mut FormData, what: &str, bench: &Bench) {
    let n = typed.rows(match what {
        "pans" => "pieces.pans",
        w => w,
    });
    let picked = typed.text(&format!("new_{what}")).to_string();
    let mut w = FormWriter {
        typed,
        here: bench.here,
    };
    match what {
        "flours" => flour(&mut w, n, &picked, bench),
        "extras" => w.extra(
            n,
            &Extra {
                kind: ExtraKind::from_key(&picked).unwrap_or(ExtraKind::ActiveMalt),
                name: String::new(),
                amount: usual_amount(ExtraKind::from_key(&picked).unwrap_or(ExtraKind::ActiveMalt)),
            },
        ),
        "preferments" => w.preferment(
            n,
            &Preferment::usual(
                PrefermentKind::from_key(&picked).unwrap_or(PrefermentKind::Poolish),
            ),
        ),
        "pans" => {
            let from_pantry = picked
                .parse()
                .ok()
                .and_then(|id: u64| bench.larder.0.pans.iter().find(|p| p.id == id));
            let (count, pan) = from_pantry.map_or(
                (
                    1,
                    PanShape::Rectangle {
                        length_cm: 40.0,
                        width_cm: 30.0,
                    },
                ),
                |p| (p.facts.count, p.facts.pan),
            );
            w.pan(n, count, pan, 0.65);
        }
        "balls" => {
            w.number("pieces.balls.count", 2.0);
            w.number("pieces.balls.ball_g", 250.0);
        }
        "toppings" => {
            let good = picked
                .parse()
                .ok()
                .and_then(|id: u64| bench.larder.0.goods.iter().find(|g| g.id == id));
            w.topping(
                n,
                &ToppingPart {
                    name: good.map_or(phrase("form-another-topping").into(), |g| {
                        g.facts.name.clone()
                    }),
                    g_per_disc: 50.0,
                    wet: false,
                    cook: Cook::No,
                    allergens: good.map_or(String::new(), |g| g.facts.allergens.clone()),
                    after_the_bake: false,
                },
            );
        }
        _ => {}
    }
}

/// What one would start with, % of the flour.
fn usual_amount(kind: ExtraKind) -> f64 {
    match kind {
        ExtraKind::ActiveMalt | ExtraKind::PlainMalt => 0.3,
        ExtraKind::Honey | ExtraKind::Syrup => 1.0,
        ExtraKind::Milk => 10.0,
        ExtraKind::DriedMother => 40.0,
        _ => 2.0,
    }
}

fn share(t: &FormData, i: usize) -> f64 {
    number(t.text(&format!("flours[{i}].share_percent"))).unwrap_or(0.0)
}

/// The row with the largest share of `n`.
fn largest(t: &FormData, n: usize) -> Option<usize> {
    (0..n).max_by(|&a, &b| share(t, a).total_cmp(&share(t, b)))
}

/// A flour more: one of the pantry takes the place of what only stood in for it; else it takes what is missing to 100 %,
/// or 10 % from the largest.
fn flour(w: &mut FormWriter, n: usize, picked: &str, bench: &Bench) {
    let known = picked
        .parse()
        .ok()
        .and_then(|id: u64| bench.larder.0.flours.iter().find(|f| f.id == id));
    if let Some(own) = known {
        let stands_in = |i: &usize| {
            let text = |field: &str| w.typed.text(&format!("flours[{i}].{field}"));
            text("pantry").is_empty() && FlourPart::stands_in(text("name"))
        };
        if let Some(i) = (0..n).find(stands_in) {
            let part = own.facts.part(own.id, share(w.typed, i));
            return w.flour(i, &part);
        }
    }
    let sum: f64 = (0..n).map(|i| share(w.typed, i)).sum();
    let mine = if sum < 99.9 {
        100.0 - sum
    } else {
        if let Some(i) = largest(w.typed, n) {
            let left = (share(w.typed, i) - 10.0).max(0.0);
            w.number(&format!("flours[{i}].share_percent"), left);
        }
        10.0
    };
    let part = known.map_or(
        FlourPart {
            name: say!("form-flour", n = n + 1),
            share_percent: mine,
            facts: FlourFacts::of_w(280.0),
            pantry: None,
        },
        |f| f.facts.part(f.id, mine),
    );
    w.flour(n, &part);
}

fn drop_row(typed: &mut FormData, list: &str, row: usize, here: &RequestKitchen) {
    match list {
        "flours" => {
            let given_back = share(typed, row);
            typed.drop_row(list, row);
            // What it had goes to the largest of the others: they were a hundred together, and are again.
            if let Some(i) = largest(typed, typed.rows(list)) {
                let share = (share(typed, i) + given_back).min(100.0);
                FormWriter { typed, here }.number(&format!("flours[{i}].share_percent"), share);
            }
            for i in 0..typed.rows("preferments") {
                typed.drop_row(&format!("preferments[{i}].flours"), row);
                if typed.rows("flours") < 2 {
                    typed.set(&format!("preferments[{i}].own_flours"), "");
                }
            }
        }
        "extras" | "preferments" | "toppings" => typed.drop_row(list, row),
        "pans" => typed.drop_row("pieces.pans", row),
        "balls" => {
            typed.forget_all("pieces.balls.");
            typed.forget_all("exact:pieces.balls.");
        }
        _ => {}
    }
}

/// Brings the flours to 100 % in their proportions.
fn even(typed: &mut FormData, here: &RequestKitchen) {
    let n = typed.rows("flours");
    let shares: Vec<f64> = (0..n)
        .map(|i| {
            number(typed.text(&format!("flours[{i}].share_percent")))
                .unwrap_or(0.0)
                .max(0.0)
        })
        .collect();
    let sum: f64 = shares.iter().sum();
    for (i, s) in shares.iter().enumerate() {
        let even = if sum > 0.0 {
            s / sum * 100.0
        } else {
            100.0 / n as f64
        };
        FormWriter { typed, here }.number(&format!("flours[{i}].share_percent"), even);
    }
}

fn oven_of(typed: &FormData, here: &RequestKitchen) -> Result<StatedOven, Vec<FieldError>> {
    let kind =
        StatedOvenKind::from_key(typed.text("oven_kind")).unwrap_or(StatedOvenKind::HomeWithSteel);
    let mut r = crate::shared::form::FieldReader::new(typed);
    let top_c = spec_of("oven_top_c").read(&mut r, "oven_top_c", here);
    if r.errors.is_empty() {
        Ok(StatedOven { kind, top_c })
    } else {
        Err(r.errors)
    }
}

fn fit_to(typed: &mut FormData, bench: &Bench) -> Result<(), Vec<FieldError>> {
    let oven = oven_of(typed, bench.here)?;
    let f = reading::formula(typed, bench.here)?;
    let fitted = fit(&f, oven).map_err(|ValidationError(e)| e)?;
    reading::put(typed, &fitted.formula, bench.here);
    Ok(())
}

/// What an oven would change, for the page to show before it is pressed.
pub fn fitting(
    typed: &FormData,
    f: &Formula,
    here: &RequestKitchen,
) -> Option<craft::style::oven_fit::FittedFormula> {
    fit(f, oven_of(typed, here).ok()?).ok()
}

/// The substitution that a form asks for, among the flours of the pantry.
pub fn swapping(
    typed: &FormData,
    f: &Formula,
    bench: &Bench,
) -> Option<Result<craft::flour::substitute::Substitutes, ValidationError>> {
    let (of, wanted) = (typed.text("swap.of"), number(typed.text("swap.to")).ok()?);
    let target = match of {
        "protein" => Target::Protein { percent: wanted },
        "absorption" => Target::Absorption { percent: wanted },
        "w" => Target::Strength { w: wanted },
        _ => return None,
    };
    let at_hand: Vec<FlourPart> = bench
        .larder
        .0
        .flours
        .iter()
        .map(|x| x.facts.part(x.id, 100.0))
        .collect();
    Some(substitutes(target, &at_hand, Some(&blend(&f.flours))))
}

fn swap(typed: &mut FormData, way: usize, bench: &Bench) -> Result<(), Vec<FieldError>> {
    let f = reading::formula(typed, bench.here)?;
    if let Some(Ok(found)) = swapping(typed, &f, bench)
        && let Some(way) = found.ways.get(way)
    {
        let mut changed = f;
        changed.flours = way.flours.clone();
        for p in &mut changed.preferments {
            p.flours.clear();
        }
        reading::put(typed, &changed, bench.here);
    }
    Ok(())
}

/// Weights that were typed into the sheet: `g:KEY` differs from `g0:KEY`, which is what was shown.
fn by_grams(typed: &mut FormData, bench: &Bench) -> Result<bool, Vec<FieldError>> {
    let keys: Vec<String> = typed
        .fields_from("g:")
        .filter(|k| typed.text(k) != typed.text(&k.replacen("g:", "g0:", 1)))
        .collect();
    if keys.is_empty() {
        return Ok(false);
    }
    let mut f = reading::formula(typed, bench.here)?;
    let mut changed = false;
    for field in keys {
        let Some(what) = Given::from_key(field.trim_start_matches("g:")) else {
            continue;
        };
        let refuse = |message: Fact| {
            vec![FieldError {
                field: field.clone(),
                message,
            }]
        };
        let g = measured(
            typed.text(&field),
            Meant::Weight(bench.here.measures.weight),
        )
        .map_err(|_| refuse(fact!("must-be-a-number", what = fact!("a-weight"))))?;
        let doses = doses(typed, &f);
        f = given(&f, &doses, what, g).map_err(|ValidationError(e)| refuse(together(e)))?;
        f.check()
            .map_err(|ValidationError(e)| refuse(together(e)))?;
        changed = true;
    }
    typed.forget_all("g:");
    typed.forget_all("g0:");
    if changed {
        reading::put(typed, &f, bench.here);
    }
    Ok(changed)
}

/// The oven that "fit to my oven" begins with: the kitchen's own for this style, else the one that it is usually baked in.
pub fn sensible_oven(typed: &mut FormData, style: &Style, bench: &Bench) {
    let (_, _, oven) = bench.larder.oven_for(style);
    typed.set("oven_kind", oven.fit_kind().key());
    spec_of("oven_top_c").put(
        typed,
        "oven_top_c",
        oven.most_c.clamp(150.0, 550.0),
        bench.here,
    );
}

#[cfg(test)]
mod tests;

/// Several refusals as one.
fn together(errors: Vec<FieldError>) -> Fact {
    let all = errors.into_iter().map(|e| e.message).collect();
    fact!("just", value = Value::Sentences(all))
}
