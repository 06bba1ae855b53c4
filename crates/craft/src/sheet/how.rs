//! How a step is done: what it takes, with its figures.

use super::stages::{air_of, tubs};
use super::{PrefermentPlan, SheetRequest};
use crate::fact;
use crate::fact::{
    Fact, Litres, Seconds, Value, half, spoken_h, tenth, two_digits, weighed, whole,
};
use crate::fire::programme::Cue;
use crate::formula::{FormulaResult, Ingredient, LevainBuild, Preferment};
use crate::mix::WaterResult;
use crate::path::{Leg, Lies, Spot};
use crate::rise::RiseResult;
use crate::units::{Celsius, DOUGH_G_PER_CM3, Grams};

/// Where it lies: at how many degrees, and a place of its own by its name.
pub(super) fn place(r: &SheetRequest, spot: &Spot) -> Fact {
    let (_, c, _) = air_of(r, spot);
    match spot {
        Spot::Own(p) => fact!("at-place", c = Celsius(c), name = p.name.to_lowercase()),
        _ => fact!("at-degrees", c = Celsius(c)),
    }
}

/// "28 g salt", where there is some.
fn weighed_in(g: f64, what: Fact) -> Option<Fact> {
    (g > 0.0).then(|| {
        let g = if g < 1.0 { two_digits(g) } else { tenth(g) };
        fact!("so-much-of", weight = Grams(g), what = what)
    })
}

/// Water as it is poured, with its ice.
fn poured(pour_g: f64, w: Option<&WaterResult>) -> Fact {
    let weight = Grams(whole(pour_g));
    match w {
        None => fact!("so-much-of", weight = weight, what = fact!("water")),
        Some(w) if w.ice_g >= 1.0 => fact!(
            "water-and-ice",
            weight = weight,
            c = Celsius(whole(w.pour_c)),
            ice = Grams(whole(w.ice_g))
        ),
        Some(w) => fact!("water-at", weight = weight, c = Celsius(whole(w.pour_c))),
    }
}

/// The yeast of a column, or how much of its water it is in.
pub(super) fn yeast(
    f: &FormulaResult,
    column: usize,
    form: crate::leaven::YeastForm,
) -> Option<Fact> {
    match f.columns[column].dilution {
        Some(d) => Some(fact!("yeast-water", weight = Grams(d.take_g))),
        None => weighed_in(f.weigh_in(Ingredient::Yeast, column), form.name()),
    }
}

/// What goes into the bowl for the dough itself.
pub(super) fn mix(r: &SheetRequest, f: &FormulaResult, water: &WaterResult) -> Fact {
    let x = &r.formula;
    let last = f.last();
    let w = |i| f.weigh_in(i, last);
    let mut all: Vec<Fact> = x
        .preferments
        .iter()
        .map(|p| fact!("the", name = p.called()))
        .collect();
    let flour = Grams(w(Ingredient::Flour));
    all.push(fact!("so-much-of", weight = flour, what = fact!("flour")));
    all.push(poured(water.pour_g, Some(water)));
    all.extend(yeast(f, last, x.yeast.form));
    let others = [
        (Ingredient::Salt, fact!("salt")),
        (Ingredient::Oil, fact!("oil")),
        (Ingredient::Sugar, fact!("sugar")),
        (Ingredient::Extra, fact!("what-else")),
    ];
    all.extend(
        others
            .into_iter()
            .filter_map(|(i, what)| weighed_in(w(i), what)),
    );
    let aim = Celsius(x.target_dough_c);
    if w(Ingredient::Yeast) > 0.0 && f.columns[last].dilution.is_none() {
        fact!(
            "step-mix-how",
            all = all,
            handling = x.yeast.form.handling(),
            aim = aim
        )
    } else {
        fact!("step-mix-how-plain", all = all, aim = aim)
    }
}

/// What a preferment is mixed from, or how a levain is fed.
pub(super) fn preferment(
    r: &SheetRequest,
    f: &FormulaResult,
    i: usize,
    plan: Option<&PrefermentPlan>,
) -> Fact {
    let p = &r.formula.preferments[i];
    let water = plan.and_then(|x| x.water.as_ref());
    let aim = water.map(|w| fact!("aim-for", c = Celsius(half(w.dough_c))));
    let place = match (p.warm_h > 0.0, p.warm_c) {
        (false, _) => fact!("straight-into-fridge", c = Celsius(r.fridge_c)),
        (true, c) => fact!(
            "so-long-at",
            time = fact::hours(p.warm_h),
            c = Celsius(c.unwrap_or(r.room_c))
        ),
    };
    if let Some(b) = f.builds.iter().find(|b| b.of == i) {
        return fed(b, water, place, aim);
    }
    let flour = Grams(whole(f.weigh_in(Ingredient::Flour, i)));
    let mut all = vec![fact!("so-much-of", weight = flour, what = fact!("flour"))];
    let pour_g = water.map_or(f.weigh_in(Ingredient::Water, i), |w| w.pour_g);
    all.push(poured(pour_g, water));
    all.extend(yeast(f, i, p.yeast.form));
    fact!("step-preferment-how", all = all, place = place, aim = aim)
}

fn fed(b: &LevainBuild, water: Option<&WaterResult>, place: Fact, aim: Option<Fact>) -> Fact {
    let w = b.weighed();
    let seed = fact!(
        "so-much-of",
        weight = weighed(w.seed_g),
        what = fact!("ripe-seed")
    );
    let mut all = vec![seed, w.flour_fact()];
    all.push(match water {
        Some(x) => fact!(
            "water-at",
            weight = weighed(w.water_g),
            c = Celsius(whole(x.pour_c))
        ),
        None => fact!(
            "so-much-of",
            weight = weighed(w.water_g),
            what = fact!("water")
        ),
    });
    let kept = b.kept_back_g + b.spare_g;
    let keep = (kept > 0.0).then(|| fact!("keep-back", weight = Grams(whole(kept))));
    fact!(
        "step-feed-how",
        all = all,
        place = place,
        keep = keep,
        aim = aim
    )
}

/// A preferment that goes on in the fridge.
pub(super) fn preferment_cold(r: &SheetRequest, p: &Preferment) -> Fact {
    fact!(
        "step-lid-on",
        time = fact::hours(p.cold_h),
        place = fact!("at-degrees", c = Celsius(r.fridge_c))
    )
}

/// "6 × 250 g", several kinds joined.
pub(super) fn divided(f: &FormulaResult) -> Value {
    f.portions
        .iter()
        .map(|p| match p.pan {
            Some(pan) => fact!(
                "pans-of",
                n = p.count,
                pan = pan.fact(),
                weight = Grams(whole(p.piece_g))
            ),
            None => fact!("pieces-of", n = p.count, weight = Grams(tenth(p.piece_g))),
        })
        .collect::<Vec<_>>()
        .into()
}

/// Where balls go in their boxes.
pub(super) fn boxed(r: &SheetRequest, leg: &Leg) -> Fact {
    let time = fact::hours(spoken_h(leg.hours));
    let place = place(r, &leg.spot);
    match (&leg.spot, leg.spot.is_cold(), leg.spot.is_frozen()) {
        (_, _, true) => fact!("boxed-into-freezer"),
        (Spot::Fridge, ..) => fact!("boxed-into-fridge", place = place),
        (_, true, _) => fact!("boxed-into-cold", place = place),
        (Spot::Room, ..) => fact!("boxed-in-room", time = time),
        _ => fact!("boxed-elsewhere", time = time, place = place),
    }
}

/// The tub must hold the dough at its largest in the tub, with a fifth to spare.
pub(super) fn tub(r: &SheetRequest, f: &FormulaResult, rise: &RiseResult) -> Fact {
    let path = r.formula.path();
    let in_tub_h: f64 = path
        .iter()
        .take_while(|l| l.lies == Lies::Bulk)
        .map(|l| l.hours)
        .sum();
    let largest = rise
        .points
        .iter()
        .filter(|p| p.hours <= in_tub_h + 1e-9)
        .map(|p| p.volume)
        .fold(1.0, f64::max);
    let n = tubs(f.dough_g);
    let litres = (f.weighed_g / n / 1000.0 / DOUGH_G_PER_CM3 * largest * 1.2).max(0.5);
    let grows = if largest < 1.05 {
        fact!("hardly-grows")
    } else {
        fact!("grows-to", times = tenth(largest))
    };
    fact!(
        "step-tub-how",
        n = n as u32,
        litres = Litres(tenth(litres)),
        place = place(r, &path[0].spot),
        grows = grows
    )
}

/// How many, how long each, and how it is baked twice.
pub(super) fn bake(r: &SheetRequest, f: &FormulaResult) -> Fact {
    let s = |s: u32| Seconds(f64::from(s));
    let p = r.programme();
    let cheese = p.turns.iter().find(|t| t.say == Cue::CheeseOn);
    let twice = match (r.formula.double_bake, cheese) {
        (false, _) => None,
        (true, Some(t)) => Some(fact!(
            "twice-by-the-clock",
            out = s(t.at_s),
            back = s(p.out_s.saturating_sub(t.at_s))
        )),
        (true, None) => Some(fact!("twice-by-the-eye")),
    };
    // A style without an oven knows a range, and no second.
    let each = match &r.fire {
        Some(_) => fact!("about-each", time = s(p.out_s)),
        None => fact!("by-the-style-each", time = (s(p.from_s), s(p.to_s))),
    };
    if r.formula.in_pans() {
        fact!("step-bake-trays", n = f.pieces, each = each, twice = twice)
    } else {
        fact!("step-bake-rounds", n = f.pieces, each = each, twice = twice)
    }
}
