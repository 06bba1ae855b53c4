//! What is unusual about a formula, each with its reason and, where one field is enough, its remedy.

use super::dilution::Spoon;
use super::extra::ExtraKind;
use super::flour_notes as flour;
use super::formula::Formula;
use super::preferment::PrefermentKind;
use super::scales::Scales;
use super::size::Pieces;
use super::two_digits;
use super::weigh::{FormulaResult, Ingredient, grams};
use crate::note::{Note, by_urgency};
use crate::refusal::plain;
use crate::style::Usual;

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
                "Weights from cups and spoons are rough",
                "A cup of flour weighs 110 to 150 g, by how it is filled.",
            )
            .todo("Weigh it once while you measure, then correct the grams here."),
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
            format!(" in {}", column.name)
        } else {
            String::new()
        };
        let note = Note::watch(
            "yeast_below_scale",
            format!(
                "{} of yeast{where_to} is too little for this scale",
                grams(cell.exact_g)
            ),
            format!(
                "It reads in steps of {} g: the dose may be {off:.0} % off.",
                plain(cell.scale_g)
            ),
        );
        let ways = format!(
            "It weighs honestly from {} pieces on{}.",
            pieces,
            preferment_way(f)
        );
        let form = match f.preferments.get(i) {
            Some(p) => p.yeast.form,
            None => f.yeast.form,
        };
        let spoon = spooned(cell.exact_g, form);
        out.push(note.todo(match column.dilution {
            Some(d) if d.pays(r.dough_g) => format!(
                "Stir {} g yeast into {} g water, take {} g of it and pour {} g less water. {ways}",
                plain(d.yeast_g),
                plain(d.water_g),
                plain(d.take_g),
                plain(d.less_water_g)
            ),
            Some(d) => format!(
                "{spoon}A pocket scale that reads 0.01 g settles it; dissolving it throws {} away. {ways}",
                grams(d.thrown_g)
            ),
            None => format!("{spoon}A pocket scale that reads 0.01 g settles it. {ways}"),
        }));
    }
}

/// "Or a level half teaspoon: 1.2 to 1.9 g. ", where a spoon comes near.
pub fn spooned(dose_g: f64, form: crate::leaven::YeastForm) -> String {
    Spoon::of(dose_g, form).map_or(String::new(), |s| {
        format!(
            "By the spoon, {}: {} to {} g. ",
            s.words(),
            two_digits(s.low_g),
            two_digits(s.high_g)
        )
    })
}

fn preferment_way(f: &Formula) -> &'static str {
    if f.preferments.is_empty() {
        "; a poolish or a levain raises it without"
    } else {
        ""
    }
}

fn salt(f: &Formula, out: &mut Vec<Note>) {
    let (word, set) = match f.salt_percent {
        s if s < 1.8 => ("little", 1.8),
        s if s > 3.2 => ("much", 3.2),
        _ => return,
    };
    out.push(
        Note::watch(
            "salt_outside_usual",
            format!("{} % salt is {word}", plain(f.salt_percent)),
            "1.8 to 3.2 % carries flavour, tightens the gluten and steadies the yeast.",
        )
        .remedy(format!("Set {} %", plain(set)), "salt_percent", set),
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
        format!(
            "The mixer holds {:.1} kg, this is {:.1} kg",
            holds / 1000.0,
            r.dough_g / 1000.0
        ),
        "Overfilled it climbs the hook, warms the dough and strains the motor.",
    )
    .todo(format!(
        "Mix in {times:.0} batches of {}.",
        grams(r.dough_g / times)
    ));
    let fits = (f64::from(r.pieces) * holds / r.dough_g).floor();
    let counted = matches!(f.pieces, Pieces::Balls { .. } | Pieces::Discs { .. });
    out.push(if counted && fits >= 1.0 {
        note.remedy(format!("Make {fits:.0}"), "pieces.count", fits)
    } else {
        note
    });
}

/// What lies outside the style's usual ranges.
fn usual(f: &Formula, out: &mut Vec<Note>) {
    let u = &f.style.usual;
    let hot = f.style.scorching();
    let range = |r: Usual| format!("Usual is {} to {} %.", plain(r.low), plain(r.high));
    let mut see = |code: &str, field: &str, what: &str, v: f64, r: Usual, why: String| {
        if !r.holds(v) {
            let set = v.clamp(r.low, r.high);
            out.push(
                Note::watch(
                    code,
                    format!("{what} {} % is outside this style", plain(v)),
                    why,
                )
                .remedy(format!("Set {} %", plain(set)), field, set),
            );
        }
    };
    see(
        "water_unusual",
        "hydration_percent",
        "Water",
        f.hydration_percent,
        u.hydration,
        range(u.hydration),
    );
    let oil_why = if hot {
        "A lean dough puffs and spots in a very hot oven; oil makes it crisp and dark.".to_string()
    } else {
        range(u.oil)
    };
    see(
        "oil_unusual",
        "oil_percent",
        "Oil",
        f.oil_percent,
        u.oil,
        oil_why,
    );
    let sugar_why = if hot {
        "Under a hot dome sugar burns before the base is done.".to_string()
    } else {
        range(u.sugar)
    };
    see(
        "sugar_unusual",
        "sugar_percent",
        "Sugar",
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
                    format!(
                        "{} with a {:.0}° dome",
                        e.called(),
                        f.style.oven.dome_c.high
                    ),
                    format!(
                        "{} % colours the rim early; under 0.3 % is safer here.",
                        plain(e.amount)
                    ),
                )
                .remedy("Set 0.3 %", &field, 0.3),
            );
        } else if e.kind == ExtraKind::ActiveMalt && e.amount > MOST_MALT {
            out.push(
                Note::watch(
                    "malt_gummy",
                    format!("{} % active malt is much", plain(e.amount)),
                    "Too much makes a gummy crumb that browns too fast.",
                )
                .remedy("Set 1 %", &field, MOST_MALT),
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
            let word = if dough_g_per_cm2 > set {
                "thick"
            } else {
                "thin"
            };
            out.push(
                Note::watch(
                    "disc_thickness",
                    format!(
                        "{} g on {} cm is {word} for this style",
                        plain(r.piece_g.round()),
                        plain(diameter_cm)
                    ),
                    format!(
                        "Usual is {} to {} g/cm².",
                        plain(u.g_per_cm2.low),
                        plain(u.g_per_cm2.high)
                    ),
                )
                .remedy(
                    format!("Set {} g/cm²", plain(set)),
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
                    format!(
                        "A ball of {} opens to {:.0} cm",
                        grams(ball_g),
                        opens(ball_g)
                    ),
                    format!(
                        "At this style's thickness; {:.0} to {:.0} g are usual.",
                        u.ball_g.low, u.ball_g.high
                    ),
                )
                .remedy(format!("Set {}", grams(set)), "pieces.ball_g", set),
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
                    format!("{} at {} % water", p.called(), plain(p.hydration_percent)),
                    format!(
                        "Usual is {} to {} % of its own flour.",
                        plain(low),
                        plain(high)
                    ),
                )
                .remedy(
                    format!("Set {} %", plain(set)),
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
                    format!(
                        "{} with {} % of the flour",
                        p.called(),
                        plain(p.flour_percent)
                    ),
                    format!("Usual is {} to {} %.", plain(low), plain(high)),
                )
                .remedy(
                    format!("Set {} %", plain(set)),
                    &format!("preferments[{i}].flour_percent"),
                    set,
                ),
            );
        }
    }
}
