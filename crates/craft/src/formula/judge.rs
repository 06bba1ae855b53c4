//! What is unusual about a formula, each with its reason and, where one field is enough, its remedy.

use super::dilution::Spoon;
use super::extra::ExtraKind;
use super::flour_notes as flour;
use super::formula::Formula;
use super::preferment::PrefermentKind;
use super::scales::Scales;
use super::size::Pieces;
use super::weigh::{FormulaResult, Ingredient};
use crate::fact;
use crate::fact::{Fact, GramsPerCm2, Percent, Value, tenth, whole};
use crate::note::{Note, by_urgency};
use crate::style::Usual;
use crate::units::{Celsius, Cm, Grams};

/// Active malt beyond this makes the crumb gummy, % of the flour (craft notes, section 1).
const MOST_MALT: f64 = 1.0;

pub(super) fn notes(f: &Formula, scales: &Scales, r: &FormulaResult) -> Vec<Note> {
    let mut out = Vec::new();
    yeast_below_scale(f, r, &mut out);
    salt(f, &mut out);
    mixer(f, scales, r, &mut out);
    flour::notes(f, r, &mut out);
    usual(f, &mut out);
    malt(f, &mut out);
    size(f, r, &mut out);
    preferments(f, &mut out);
    if f.from_volumes {
        out.push(
            Note::watch(
                "from_volumes",
                fact!("from-volumes"),
                fact!("from-volumes-why", range = (Grams(110.0), Grams(150.0))),
            )
            .todo(fact!("from-volumes-todo")),
        );
    }
    by_urgency(out)
}

/// Doses that no scale at hand reads: the dilution, the smallest honest batch, a preferment.
fn yeast_below_scale(f: &Formula, r: &FormulaResult, out: &mut Vec<Note>) {
    let Some(row) = r.row(Ingredient::Yeast) else {
        return;
    };
    for (i, column) in r.columns.iter().enumerate() {
        let Some(cell) = row.cells.get(i).copied().flatten() else {
            continue;
        };
        let Some(pieces) = column.weighs_from_pieces else {
            continue;
        };
        // Half a division either way is the worst that rounding does.
        let off = (50.0 * cell.scale_g / cell.exact_g).min(100.0);
        let where_to = if r.columns.len() > 1 {
            Some(fact!("in-column", name = column.name.clone()))
        } else {
            None
        };
        let note = Note::watch(
            "yeast_below_scale",
            fact!("yeast-below-scale", dose = fact::weighed(cell.exact_g), where = where_to),
            fact!(
                "yeast-below-scale-why",
                step = Value::OnScale(cell.scale_g),
                off = Percent(whole(off))
            ),
        );
        let ways = if f.preferments.is_empty() {
            fact!("weighs-from-or-preferment", n = pieces)
        } else {
            fact!("weighs-from", n = pieces)
        };
        let form = match f.preferments.get(i) {
            Some(p) => p.yeast.form,
            None => f.yeast.form,
        };
        let spoon = spooned(cell.exact_g, form);
        out.push(note.todo(match column.dilution {
            Some(d) if d.pays(r.dough_g) => fact!(
                "dilute",
                yeast = Grams(d.yeast_g),
                water = Grams(d.water_g),
                take = Grams(d.take_g),
                less = Grams(d.less_water_g),
                ways = ways
            ),
            Some(d) => fact!(
                "pocket-scale-or-throw",
                spoon = spoon,
                thrown = fact::weighed(d.thrown_g),
                fine = Value::OnScale(0.01),
                ways = ways
            ),
            None => fact!(
                "pocket-scale",
                spoon = spoon,
                fine = Value::OnScale(0.01),
                ways = ways
            ),
        }));
    }
}

/// "Or a level half teaspoon: 1.2 to 1.9 g. ", where a spoon comes near.
pub fn spooned(dose_g: f64, form: crate::leaven::YeastForm) -> Option<Fact> {
    Spoon::of(dose_g, form).map(|s| {
        fact!(
            "by-the-spoon",
            spoon = s.words(),
            range = (
                Grams(fact::two_digits(s.low_g)),
                Grams(fact::two_digits(s.high_g))
            )
        )
    })
}

fn salt(f: &Formula, out: &mut Vec<Note>) {
    let share = Percent(f.salt_percent);
    let (what, set) = match f.salt_percent {
        s if s < 1.8 => (fact!("salt-little", share = share), 1.8),
        s if s > 3.2 => (fact!("salt-much", share = share), 3.2),
        _ => return,
    };
    out.push(
        Note::watch(
            "salt_outside_usual",
            what,
            fact!("salt-why", range = (Percent(1.8), Percent(3.2))),
        )
        .remedy(
            fact!("set-percent", share = Percent(set)),
            "salt_percent",
            set,
        ),
    );
}

fn mixer(f: &Formula, scales: &Scales, r: &FormulaResult, out: &mut Vec<Note>) {
    let Some(holds) = scales.mixer_holds_g else {
        return;
    };
    if f.mixer == crate::mix::Mixer::Hand || r.dough_g <= holds {
        return;
    }
    let times = (r.dough_g / holds).ceil();
    let note = Note::act(
        "mixer_too_small",
        fact!(
            "mixer-too-small",
            holds = Value::Kilos(tenth(holds / 1000.0)),
            weight = Value::Kilos(tenth(r.dough_g / 1000.0))
        ),
        fact!("mixer-too-small-why"),
    )
    .todo(fact!(
        "mix-in-batches",
        n = times as u32,
        weight = fact::weighed(r.dough_g / times)
    ));
    let fits = (f64::from(r.pieces) * holds / r.dough_g).floor();
    let counted = matches!(f.pieces, Pieces::Balls { .. } | Pieces::Discs { .. });
    out.push(if counted && fits >= 1.0 {
        note.remedy(fact!("make-so-many", n = fits as u32), "pieces.count", fits)
    } else {
        note
    });
}

/// What lies outside the style's usual ranges.
fn usual(f: &Formula, out: &mut Vec<Note>) {
    let u = &f.style.usual;
    let hot = f.style.scorching();
    let range = |r: Usual| fact!("usual-is", range = (Percent(r.low), Percent(r.high)));
    let mut see = |code: &str, field: &str, what: Fact, v: f64, r: Usual, why: Fact| {
        if !r.holds(v) {
            let set = v.clamp(r.low, r.high);
            out.push(
                Note::watch(
                    code,
                    fact!("outside-style", what = what, share = Percent(v)),
                    why,
                )
                .remedy(fact!("set-percent", share = Percent(set)), field, set),
            );
        }
    };
    see(
        "water_unusual",
        "hydration_percent",
        fact!("f-water"),
        f.hydration_percent,
        u.hydration,
        range(u.hydration),
    );
    let oil_why = if hot {
        fact!("lean-is-hot")
    } else {
        range(u.oil)
    };
    see(
        "oil_unusual",
        "oil_percent",
        fact!("f-oil"),
        f.oil_percent,
        u.oil,
        oil_why,
    );
    let sugar_why = if hot {
        fact!("sugar-burns")
    } else {
        range(u.sugar)
    };
    see(
        "sugar_unusual",
        "sugar_percent",
        fact!("f-sugar"),
        f.sugar_percent,
        u.sugar,
        sugar_why,
    );
}

fn malt(f: &Formula, out: &mut Vec<Note>) {
    for (i, e) in f.extras.iter().enumerate() {
        let field = format!("extras[{i}].amount");
        let sweet = matches!(
            e.kind,
            ExtraKind::ActiveMalt | ExtraKind::PlainMalt | ExtraKind::Honey | ExtraKind::Syrup
        );
        if f.style.scorching() && sweet && e.amount > 0.3 {
            out.push(
                Note::watch(
                    "sweet_under_dome",
                    fact!(
                        "sweet-under-dome",
                        name = e.called(),
                        c = Celsius(whole(f.style.oven.dome_c.high))
                    ),
                    fact!(
                        "sweet-under-dome-why",
                        share = Percent(e.amount),
                        most = Percent(0.3)
                    ),
                )
                .remedy(fact!("set-percent", share = Percent(0.3)), &field, 0.3),
            );
        } else if e.kind == ExtraKind::ActiveMalt && e.amount > MOST_MALT {
            out.push(
                Note::watch(
                    "malt_gummy",
                    fact!("malt-much", share = Percent(e.amount)),
                    fact!("malt-much-why"),
                )
                .remedy(
                    fact!("set-percent", share = Percent(1.0)),
                    &field,
                    MOST_MALT,
                ),
            );
        }
    }
}

/// A ball against the disc that it opens to.
fn size(f: &Formula, r: &FormulaResult, out: &mut Vec<Note>) {
    let u = &f.style.usual;
    match f.pieces {
        Pieces::Discs {
            diameter_cm,
            dough_g_per_cm2,
            ..
        } if !f.style.in_pans() && !u.g_per_cm2.holds(dough_g_per_cm2) => {
            let set = dough_g_per_cm2.clamp(u.g_per_cm2.low, u.g_per_cm2.high);
            let (weight, width) = (Grams(whole(r.piece_g)), Cm(diameter_cm));
            let what = if dough_g_per_cm2 > set {
                fact!("disc-thick", weight = weight, width = width)
            } else {
                fact!("disc-thin", weight = weight, width = width)
            };
            out.push(
                Note::watch(
                    "disc_thickness",
                    what,
                    fact!(
                        "usual-density",
                        range = (GramsPerCm2(u.g_per_cm2.low), GramsPerCm2(u.g_per_cm2.high))
                    ),
                )
                .remedy(
                    fact!("set-density", density = GramsPerCm2(set)),
                    "pieces.dough_g_per_cm2",
                    set,
                ),
            );
        }
        Pieces::Balls { ball_g, .. } if !f.style.in_pans() && !u.ball_g.holds(ball_g) => {
            let set = ball_g.clamp(u.ball_g.low, u.ball_g.high);
            let opens = |g: f64| (4.0 * g / f.style.opens_to() / std::f64::consts::PI).sqrt();
            out.push(
                Note::watch(
                    "ball_weight",
                    fact!(
                        "ball-opens-to",
                        weight = fact::weighed(ball_g),
                        width = Cm(whole(opens(ball_g)))
                    ),
                    fact!(
                        "ball-opens-to-why",
                        range = (Grams(u.ball_g.low), Grams(u.ball_g.high))
                    ),
                )
                .remedy(
                    fact!("set-weight", weight = fact::weighed(set)),
                    "pieces.ball_g",
                    set,
                ),
            );
        }
        _ => {}
    }
}

fn preferments(f: &Formula, out: &mut Vec<Note>) {
    for (i, p) in f.preferments.iter().enumerate() {
        let (low, high) = p.kind.usual_hydration();
        if !(low..=high).contains(&p.hydration_percent) {
            let set = p.hydration_percent.clamp(low, high);
            out.push(
                Note::watch(
                    "preferment_water",
                    fact!(
                        "preferment-water",
                        name = p.called(),
                        share = Percent(p.hydration_percent)
                    ),
                    fact!(
                        "preferment-water-why",
                        range = (Percent(low), Percent(high))
                    ),
                )
                .remedy(
                    fact!("set-percent", share = Percent(set)),
                    &format!("preferments[{i}].hydration_percent"),
                    set,
                ),
            );
        }
        let (low, high) = p.kind.usual_flour();
        if !(low..=high).contains(&p.flour_percent) && p.kind != PrefermentKind::Own {
            let set = p.flour_percent.clamp(low, high);
            out.push(
                Note::watch(
                    "preferment_share",
                    fact!(
                        "preferment-share",
                        name = p.called(),
                        share = Percent(p.flour_percent)
                    ),
                    fact!("usual-is", range = (Percent(low), Percent(high))),
                )
                .remedy(
                    fact!("set-percent", share = Percent(set)),
                    &format!("preferments[{i}].flour_percent"),
                    set,
                ),
            );
        }
    }
}
