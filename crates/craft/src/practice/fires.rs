//! Level two: one dough, several fires. Which of them brings what is asked for?

use super::{PracticeCase, PracticeChoice};
use crate::draw::Draw;
use crate::fact;
use crate::fact::{Fact, Kelvin, Percent, tenth, whole};
use crate::fire::{BakeRequest, Fineness, Targets, of_formula, oven};
use crate::formula::{Formula, Pieces};
use crate::learn::Notice;
use crate::learn::diagnose::{CameOut, came_out};
use crate::style;
use crate::units::{Celsius, Grams};

/// Rounds that lie on the floor itself.
const STYLES: [&str; 6] = [
    "hot_round",
    "home_round",
    "garden_round",
    "folding_round",
    "thin_crisp",
    "big_rim",
];
/// A colour is off beyond doubt by so much of its scale, and right where it is so far inside.
const OFF: f64 = 0.15;
/// The same of the wet centre, ln of the time.
const OFF_WET: f64 = 0.06;
/// Toppings, and the time in the oven, against the planned ones.
const MUCH_TOPPING: f64 = 1.8;

/// How a fire departs from the planned one.
#[derive(Debug, Clone, Copy, PartialEq)]
enum OneChange {
    Floor(f64),
    Dome(f64),
    Topping(f64),
    /// So much of the planned time.
    Time(f64),
}

impl OneChange {
    fn says(self, r: &BakeRequest, out_s: f64) -> Fact {
        match self {
            OneChange::Floor(k) => fact!(
                "practice-fire-floor",
                c = Celsius(whole(r.oven.floor_c + k)),
                k = Kelvin(whole(k.abs())),
                side = side(k)
            ),
            OneChange::Dome(k) => fact!(
                "practice-fire-dome",
                c = Celsius(whole(r.oven.dome_c + k)),
                k = Kelvin(whole(k.abs())),
                side = side(k)
            ),
            OneChange::Topping(times) => fact!(
                "practice-fire-topping",
                weight = Grams(whole((r.piece.sauce_g + r.piece.cheese_g) * times)),
                planned = Grams(whole(r.piece.sauce_g + r.piece.cheese_g))
            ),
            OneChange::Time(share) => fact!(
                "practice-fire-time",
                time = crate::fact::Seconds(whole(out_s * share)),
                planned = crate::fact::Seconds(whole(out_s))
            ),
        }
    }
    fn baked(self, r: &BakeRequest, targets: &Targets, out_s: f64) -> Option<CameOut> {
        let mut r = r.clone();
        let mut s = out_s;
        match self {
            OneChange::Floor(k) => {
                r.oven.floor_c += k;
                r.oven.core_c = None;
            }
            OneChange::Dome(k) => r.oven.dome_c += k,
            OneChange::Topping(times) => {
                r.piece.sauce_g *= times;
                r.piece.cheese_g *= times;
            }
            OneChange::Time(share) => s *= share,
        }
        came_out(&r, targets, s)
    }
}

fn side(k: f64) -> Fact {
    match k > 0.0 {
        true => fact!("practice-warmer"),
        false => fact!("practice-cooler"),
    }
}

/// By how much it is so, of the scale that it is told on; below 0 it is not.
fn how_much(n: Notice, out: &CameOut, t: &Targets) -> f64 {
    match n {
        Notice::PaleBelow => (t.base.0 - out.base) / OFF,
        Notice::DarkBelow => (out.base - t.base.1) / OFF,
        Notice::PaleAbove => (t.rim.0 - out.rim) / OFF,
        Notice::DarkAbove => (out.rim - t.rim.1) / OFF,
        _ => -out.wet / OFF_WET,
    }
}

pub(super) fn drawn(draw: &mut Draw) -> Option<PracticeCase> {
    let style = style::by_key(draw.one(&STYLES))?;
    let oven = oven::for_style(style);
    let mut formula = Formula::of_style(style);
    formula.hydration_percent += draw.step(-2.0, 2.0, 1.0);
    if let Pieces::Balls { ball_g, .. } = &mut formula.pieces {
        *ball_g += draw.step(-25.0, 25.0, 5.0);
    }
    let portion = formula
        .pieces
        .portions(0.0, style.opens_to())
        .into_iter()
        .next()?;
    let mut setting = oven.usual();
    setting.floor_c += draw.step(-15.0, 15.0, 5.0);
    setting.dome_c += draw.step(-15.0, 15.0, 5.0);
    let plan = of_formula::plan(&formula, &portion, oven, setting, None, (21.0, 0.0));
    let planned = plan.planned_at(Fineness::Draft).ok()?;
    let (r, targets) = (&planned.request, plan.targets());
    let out_s = planned.race.best_s.round();
    let k = draw.step(40.0, 80.0, 10.0);
    let mut changes = [
        OneChange::Floor(-k),
        OneChange::Floor(draw.step(30.0, 60.0, 10.0)),
        OneChange::Dome(-draw.step(40.0, 80.0, 10.0)),
        OneChange::Dome(draw.step(40.0, 80.0, 10.0)),
        OneChange::Topping(MUCH_TOPPING),
        OneChange::Time(draw.one(&[0.75, 1.3])),
    ];
    draw.shuffle(&mut changes);
    let tried: Vec<(OneChange, CameOut)> = changes[..4]
        .iter()
        .filter_map(|c| Some((*c, c.baked(r, &targets, out_s)?)))
        .collect();
    if tried.len() != 4 {
        return None;
    }
    let mut asked = [
        Notice::PaleBelow,
        Notice::DarkBelow,
        Notice::PaleAbove,
        Notice::DarkAbove,
        Notice::WetCentre,
    ];
    draw.shuffle(&mut asked);
    // One of them is so beyond doubt, and none of the others is.
    let (notice, right) = asked.iter().find_map(|n| {
        let of: Vec<f64> = tried
            .iter()
            .map(|(_, o)| how_much(*n, o, &targets))
            .collect();
        let right = of.iter().position(|v| *v >= 1.0)?;
        let others = of.iter().enumerate().filter(|(i, _)| *i != right);
        others
            .clone()
            .all(|(_, v)| *v <= -0.3)
            .then_some((*n, right))
    })?;
    let choices = tried
        .iter()
        .map(|(c, o)| PracticeChoice {
            says: c.says(r, out_s),
            outcome: fact!(
                "practice-came-out",
                base = tenth(o.base),
                base_from = tenth(targets.base.0),
                base_to = tenth(targets.base.1),
                rim = tenth(o.rim),
                rim_from = tenth(targets.rim.0),
                rim_to = tenth(targets.rim.1),
                set = if o.wet < 0.0 {
                    fact!("practice-wet")
                } else {
                    fact!("practice-set")
                }
            ),
        })
        .collect();
    Some(PracticeCase {
        story: vec![
            fact!(
                "practice-fire-planned",
                style = style.name.as_str(),
                weight = Grams(whole(portion.piece_g)),
                water = Percent(formula.hydration_percent),
                oven = oven.name.as_str(),
                floor = Celsius(whole(r.oven.floor_c)),
                dome = Celsius(whole(r.oven.dome_c)),
                time = crate::fact::Seconds(out_s)
            ),
            fact!("practice-fire-else-alike"),
        ],
        asks: fact!("practice-which-comes-out", notice = notice.name()),
        choices,
        right,
        why: match notice {
            Notice::PaleBelow | Notice::DarkBelow => fact!("practice-base-by-floor"),
            Notice::PaleAbove | Notice::DarkAbove => fact!("practice-top-by-dome"),
            _ => fact!("practice-wet-by-water"),
        },
    })
}
