//! What changed between two formulas, in words a maker reads at a glance.

use super::dose::{Dose, Yeast};
use super::extra::Extra;
use super::formula::{Formula, HydrationCounts};
use super::preferment::Preferment;
use super::size::Pieces;
use super::two_digits;
use crate::refusal::plain;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// One difference. `before` or `after` is empty where there was or is none of it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
pub struct Change {
    pub what: String,
    pub before: String,
    pub after: String,
}

/// The differences in the order of the sheet; empty when the formulas are equal.
pub fn changes(a: &Formula, b: &Formula) -> Vec<Change> {
    let mut d = Diff(vec![]);
    d.see("Style", a.style.name.clone(), b.style.name.clone());
    if a.style.name == b.style.name && a.style != b.style {
        d.see("Style's own data", "as it was".into(), "changed".into());
    }
    d.see("Size", pieces(&a.pieces), pieces(&b.pieces));
    d.percent("Loss", a.loss_percent, b.loss_percent);
    d.list(
        &a.flours,
        &b.flours,
        |f| &f.name,
        |f| {
            let w = f.facts.strength();
            let guess = if w.spread > 0.0 { " (guessed)" } else { "" };
            format!("{} %, W {:.0}{guess}", short(f.share_percent), w.w)
        },
    );
    d.see("Water", water(a), water(b));
    d.percent("Salt", a.salt_percent, b.salt_percent);
    d.percent("Oil", a.oil_percent, b.oil_percent);
    d.percent("Sugar", a.sugar_percent, b.sugar_percent);
    d.list(&a.extras, &b.extras, Extra::called, |e| {
        format!("{} {}", short(e.amount), e.kind.unit())
    });
    d.see("Yeast", yeast(&a.yeast), yeast(&b.yeast));
    d.list(
        &a.preferments,
        &b.preferments,
        Preferment::called,
        preferment,
    );
    d.list(
        &a.toppings,
        &b.toppings,
        |t| &t.name,
        |t| {
            let after = if t.after_the_bake {
                ", after the bake"
            } else {
                ""
            };
            format!("{} g{after}", short(t.g_per_disc))
        },
    );
    let twice = |f: &Formula| if f.double_bake { "double" } else { "single" }.to_string();
    d.see("Bake", twice(a), twice(b));
    d.see("Mixed", a.mixer.name().into(), b.mixer.name().into());
    d.see(
        "Dough off the mixer",
        celsius(a.target_dough_c),
        celsius(b.target_dough_c),
    );
    for (what, x, y) in [
        ("Bulk", a.bulk_h, b.bulk_h),
        ("Cold", a.cold_h, b.cold_h),
        ("Temper", a.temper_h, b.temper_h),
    ] {
        d.see(what, format!("{} h", short(x)), format!("{} h", short(y)));
    }
    d.0
}

struct Diff(Vec<Change>);

impl Diff {
    fn see(&mut self, what: &str, before: String, after: String) {
        if before != after {
            self.0.push(Change {
                what: what.into(),
                before,
                after,
            });
        }
    }
    fn percent(&mut self, what: &str, a: f64, b: f64) {
        self.see(what, format!("{} %", short(a)), format!("{} %", short(b)));
    }
    /// Two lists of named things: what came, what went, what is otherwise.
    fn list<T>(&mut self, a: &[T], b: &[T], name: impl Fn(&T) -> &str, say: impl Fn(&T) -> String) {
        // Two of one name are told apart by their order.
        let nth = |list: &[T], i: usize| {
            list[..i]
                .iter()
                .filter(|x| name(x) == name(&list[i]))
                .count()
        };
        let find = |list: &[T], what: &T, n: usize| {
            (0..list.len()).find(|&j| name(&list[j]) == name(what) && nth(list, j) == n)
        };
        for (i, x) in a.iter().enumerate() {
            let after = find(b, x, nth(a, i)).map_or(String::new(), |j| say(&b[j]));
            self.see(name(x), say(x), after);
        }
        for (j, y) in b.iter().enumerate() {
            if find(a, y, nth(b, j)).is_none() {
                self.see(name(y), String::new(), say(y));
            }
        }
    }
}

fn short(v: f64) -> String {
    plain((v * 1000.0).round() / 1000.0)
}

fn celsius(c: f64) -> String {
    format!("{} °C", short(c))
}

fn water(f: &Formula) -> String {
    let nominal = match f.hydration_counts {
        HydrationCounts::True => "",
        HydrationCounts::Nominal => " nominal",
    };
    format!("{} %{nominal}", short(f.hydration_percent))
}

fn yeast(y: &Yeast) -> String {
    match y.dose {
        Dose::Solve => format!("{}, solved for the hours", y.form.name()),
        Dose::None => "none added".into(),
        Dose::Given { percent } => format!("{} {} %", y.form.name(), two_digits(percent)),
    }
}

fn preferment(p: &Preferment) -> String {
    let mut s = format!(
        "{} % of the flour, {} % water, {} h",
        short(p.flour_percent),
        short(p.hydration_percent),
        short(p.warm_h)
    );
    if let Some(c) = p.warm_c {
        s += &format!(" at {}", celsius(c));
    }
    if let Some(c) = p.target_c {
        s += &format!(", off the bowl at {}", celsius(c));
    }
    if p.cold_h > 0.0 {
        s += &format!(" + {} h cold", short(p.cold_h));
    }
    if p.salt_percent > 0.0 {
        s += &format!(", {} % salt", short(p.salt_percent));
    }
    if let Some(feed) = p.feed {
        s += &format!(", fed 1 : {}", short(feed.flour_parts));
        s += &format!(", {} g kept back", short(feed.keep_back_g + feed.spare_g));
    } else {
        s += &format!(", {}", yeast(&p.yeast));
    }
    if !p.flours.is_empty() {
        let shares: Vec<String> = p.flours.iter().map(|v| short(*v)).collect();
        s += &format!(", flours {}", shares.join("/"));
    }
    s
}

/// "6 balls of 250 g", "2 pans 40 × 30 cm and 3 balls of 250 g", "1,500 g in all".
pub fn pieces(p: &Pieces) -> String {
    let balls = |count: u32, g: f64| {
        let s = if count == 1 { "" } else { "s" };
        format!("{count} ball{s} of {} g", short((g * 10.0).round() / 10.0))
    };
    match p {
        Pieces::Balls { count, ball_g } => balls(*count, *ball_g),
        Pieces::Discs {
            count,
            diameter_cm,
            dough_g_per_cm2,
        } => format!(
            "{count} discs of {} cm at {} g/cm²",
            short((diameter_cm * 10.0).round() / 10.0),
            short(*dough_g_per_cm2)
        ),
        Pieces::Total { count, dough_g } => {
            format!("{} g in all, {count} pieces", short(dough_g.round()))
        }
        Pieces::Flour { count, flour_g } => {
            format!("{} g of flour, {count} pieces", short(flour_g.round()))
        }
        Pieces::Pans { pans, balls: loose } => {
            let mut parts: Vec<String> = pans
                .iter()
                .map(|p| {
                    let s = if p.count == 1 { "" } else { "s" };
                    format!(
                        "{} pan{s} {} at {} g/cm²",
                        p.count,
                        p.pan.words(),
                        short(p.dough_g_per_cm2)
                    )
                })
                .collect();
            parts.extend(loose.map(|b| balls(b.count, b.ball_g)));
            parts.join(" and ")
        }
    }
}
