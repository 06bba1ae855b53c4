//! What changed between two formulas, as facts that a maker reads at a glance.

use super::dose::{Dose, Yeast};
use super::extra::Extra;
use super::formula::{Formula, HydrationCounts};
use super::preferment::Preferment;
use super::size::Pieces;
use crate::fact;
use crate::fact::{Fact, GramsPerCm2, Percent, Value, tenth, whole};
use crate::path::Leg;
use crate::units::{Celsius, Cm, Grams};
use serde::{Deserialize, Serialize};

/// One difference. `before` or `after` is nothing where there was or is none of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Difference {
    /// What was changed.
    pub what: Fact,
    /// As it was.
    pub before: Fact,
    /// As it is.
    pub after: Fact,
}

/// The differences in the order of the sheet; empty when the formulas are equal.
pub fn changes(a: &Formula, b: &Formula) -> Vec<Difference> {
    let mut d = Diff(vec![]);
    let named = |n: &str| Fact::as_written(n);
    d.see(
        fact!("diff-style"),
        named(&a.style.name),
        named(&b.style.name),
    );
    if a.style.name == b.style.name && a.style != b.style {
        d.see(
            fact!("diff-style-data"),
            fact!("diff-as-it-was"),
            fact!("diff-changed"),
        );
    }
    d.see(fact!("diff-size"), pieces(&a.pieces), pieces(&b.pieces));
    d.percent(fact!("f-loss"), a.loss_percent, b.loss_percent);
    let flour = |f: &crate::flour::FlourPart| {
        let w = f.facts.strength();
        let (share, w, guess) = (Percent(short(f.share_percent)), whole(w.w), w.spread > 0.0);
        if guess {
            fact!("diff-flour-guessed", share = share, w = w)
        } else {
            fact!("diff-flour", share = share, w = w)
        }
    };
    d.list(&a.flours, &b.flours, |f| named(&f.name), flour);
    d.see(fact!("f-water"), water(a), water(b));
    d.percent(fact!("f-salt"), a.salt_percent, b.salt_percent);
    d.percent(fact!("f-oil"), a.oil_percent, b.oil_percent);
    d.percent(fact!("f-sugar"), a.sugar_percent, b.sugar_percent);
    d.list(&a.extras, &b.extras, Extra::called, |e| {
        fact!("just", value = e.kind.measure()(short(e.amount)))
    });
    d.see(fact!("f-yeast"), yeast(&a.yeast), yeast(&b.yeast));
    d.list(
        &a.preferments,
        &b.preferments,
        Preferment::called,
        preferment,
    );
    d.list(
        &a.toppings,
        &b.toppings,
        |t| named(&t.name),
        |t| {
            let weight = Grams(short(t.g_per_disc));
            if t.after_the_bake {
                fact!("diff-topping-after", weight = weight)
            } else {
                fact!("just", value = weight)
            }
        },
    );
    let twice = |f: &Formula| {
        if f.double_bake {
            fact!("diff-double")
        } else {
            fact!("diff-single")
        }
    };
    d.see(fact!("diff-bake"), twice(a), twice(b));
    d.see(fact!("diff-mixed"), a.mixer.name(), b.mixer.name());
    let c = |c: f64| fact!("just", value = Celsius(short(c)));
    d.see(
        fact!("f-dough-off-the-mixer"),
        c(a.target_dough_c),
        c(b.target_dough_c),
    );
    if !(a.legs.is_empty() && b.legs.is_empty()) {
        // A way of its own: leg by leg; the three hours say nothing of it.
        d.list(&a.path(), &b.path(), Leg::word, |l| {
            fact!(
                "diff-leg",
                time = fact::hours(l.hours),
                place = l.spot.name()
            )
        });
        return d.0;
    }
    let h = |h: f64| fact!("just", value = fact::hours(h));
    for (what, x, y) in [
        (fact!("f-bulk"), a.bulk_h, b.bulk_h),
        (fact!("f-cold"), a.cold_h, b.cold_h),
        (fact!("f-before-the-bake"), a.temper_h, b.temper_h),
    ] {
        d.see(what, h(x), h(y));
    }
    d.0
}

struct Diff(Vec<Difference>);

impl Diff {
    fn see(&mut self, what: Fact, before: Fact, after: Fact) {
        if before != after {
            self.0.push(Difference {
                what,
                before,
                after,
            });
        }
    }
    fn percent(&mut self, what: Fact, a: f64, b: f64) {
        let percent = |v: f64| fact!("just", value = Percent(short(v)));
        self.see(what, percent(a), percent(b));
    }
    /// Two lists of named things: what came, what went, what is otherwise.
    fn list<T>(&mut self, a: &[T], b: &[T], name: impl Fn(&T) -> Fact, say: impl Fn(&T) -> Fact) {
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
            let after = find(b, x, nth(a, i)).map_or_else(Fact::nothing, |j| say(&b[j]));
            self.see(name(x), say(x), after);
        }
        for (j, y) in b.iter().enumerate() {
            if find(a, y, nth(b, j)).is_none() {
                self.see(name(y), Fact::nothing(), say(y));
            }
        }
    }
}

/// As precisely as anybody types it.
fn short(v: f64) -> f64 {
    (v * 1000.0).round() / 1000.0
}

fn water(f: &Formula) -> Fact {
    let share = Percent(short(f.hydration_percent));
    match f.hydration_counts {
        HydrationCounts::True => fact!("just", value = share),
        HydrationCounts::Nominal => fact!("diff-nominal", share = share),
    }
}

fn yeast(y: &Yeast) -> Fact {
    match y.dose {
        Dose::Solve => fact!("diff-yeast-solved", yeast = y.form.name()),
        Dose::None => fact!("diff-none-added"),
        Dose::Given { percent } => fact!(
            "diff-yeast-given",
            yeast = y.form.name(),
            share = Percent(fact::two_digits(percent))
        ),
    }
}

fn preferment(p: &Preferment) -> Fact {
    let mut parts: Vec<Fact> = vec![
        fact!("diff-of-flour", share = Percent(short(p.flour_percent))),
        fact!("diff-water", share = Percent(short(p.hydration_percent))),
    ];
    let time = fact::hours(p.warm_h);
    parts.push(match p.warm_c {
        Some(c) => fact!("so-long-at", time = time, c = Celsius(short(c))),
        None => fact!("just", value = time),
    });
    if p.cold_h > 0.0 {
        parts.push(fact!("diff-cold", time = fact::hours(p.cold_h)));
    }
    if let Some(c) = p.target_c {
        parts.push(fact!("diff-off-bowl", c = Celsius(short(c))));
    }
    if p.salt_percent > 0.0 {
        parts.push(fact!("diff-salt", share = Percent(short(p.salt_percent))));
    }
    if let Some(feed) = p.feed {
        let kept = Grams(short(feed.keep_back_g + feed.spare_g));
        parts.push(fact!("diff-fed", parts = short(feed.flour_parts)));
        parts.push(fact!("diff-kept-back", weight = kept));
    } else {
        parts.push(yeast(&p.yeast));
    }
    if !p.flours.is_empty() {
        let shares: Vec<Percent> = p.flours.iter().map(|v| Percent(short(*v))).collect();
        parts.push(fact!("diff-flours", shares = shares));
    }
    fact!("just", value = parts)
}

/// "6 balls of 250 g", "2 pans 40 × 30 cm and 3 balls of 250 g", "1,500 g in all".
pub fn pieces(p: &Pieces) -> Fact {
    let balls = |n: u32, g: f64| fact!("diff-balls", n = n, weight = Grams(tenth(g)));
    match p {
        Pieces::Balls { count, ball_g } => balls(*count, *ball_g),
        Pieces::Discs {
            count,
            diameter_cm,
            dough_g_per_cm2,
        } => fact!(
            "diff-discs",
            n = *count,
            width = Cm(tenth(*diameter_cm)),
            density = GramsPerCm2(short(*dough_g_per_cm2))
        ),
        Pieces::Total { count, dough_g } => {
            fact!("diff-total", n = *count, weight = Grams(whole(*dough_g)))
        }
        Pieces::Flour { count, flour_g } => fact!(
            "diff-flour-total",
            n = *count,
            weight = Grams(whole(*flour_g))
        ),
        Pieces::Pans { pans, balls: loose } => {
            let mut parts: Vec<Fact> = pans
                .iter()
                .map(|p| {
                    fact!(
                        "diff-pans",
                        n = p.count,
                        pan = p.pan.fact(),
                        density = GramsPerCm2(short(p.dough_g_per_cm2))
                    )
                })
                .collect();
            parts.extend(loose.map(|b| balls(b.count, b.ball_g)));
            fact!("just", value = Value::from(parts))
        }
    }
}
