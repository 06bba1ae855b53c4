//! From a dough to a fire: the piece that its formula makes, and the oven that its style wants.

use super::material::Material;
use super::oven::{Oven, Setting};
use super::plan::FirePlan;
use super::setup::{Aim, PanNow, Piece};
use crate::formula::{ExtraKind, Formula, PanShape, Portion};
use crate::names;
use crate::style::topping::{DISC_CM, ToppingPart};
use crate::style::{Style, StyleBake};

/// What a kitchen's pans are made of where nobody said: thin dark steel, oiled.
pub fn usual_pan(wall_mm: f64) -> PanNow {
    PanNow {
        material: Material::CarbonSteel,
        mm: 1.0,
        pan_c: 22.0,
        wall_mm: wall_mm.clamp(0.0, 80.0),
        oiled: true,
    }
}

/// Largest piece that the model takes; larger ones are computed as a part of the same thickness.
const MOST_G: f64 = 2000.0;
const MOST_MM: f64 = 600.0;

impl Style {
    /// Its bake; a style of a kitchen's own that says nothing is judged by its oven and its pieces.
    pub fn bakes(&self) -> StyleBake {
        if let Some(b) = self.bakes_as {
            return b;
        }
        let (aim, rim_mm, rim_share) = if self.pieces.in_pans(false) {
            (Aim::Pan, 12.0, 0.15)
        } else if self.oven.floor_c.middle() >= 370.0 {
            (Aim::Hot, 20.0, 0.30)
        } else if names::says_home(&self.oven.words) {
            (Aim::Home, 15.0, 0.20)
        } else {
            (Aim::Deck, 20.0, 0.22)
        };
        StyleBake {
            aim,
            rim_mm,
            rim_share,
            targets: None,
        }
    }
}

/// Sauce and cheese on one piece of this area, g: what goes on before the bake.
pub fn toppings(list: &[ToppingPart], area_cm2: f64) -> (f64, f64) {
    let scale = area_cm2 / crate::formula::disc_cm2(DISC_CM);
    let (mut sauce, mut cheese) = (0.0, 0.0);
    for t in list.iter().filter(|t| !t.after_the_bake) {
        if names::is_cheese(&t.name, &t.allergens) {
            cheese += t.g_per_disc * scale;
        } else if t.wet {
            sauce += t.g_per_disc * scale;
        }
    }
    (sauce.round().min(600.0), cheese.round().min(600.0))
}

/// The piece of a formula as it goes in; `portion` is the kind that most of them are.
pub fn piece(f: &Formula, portion: &Portion, room_c: f64) -> Piece {
    let bakes = f.style.bakes();
    let disc_mm = 10.0 * 2.0 * (portion.area_cm2 / std::f64::consts::PI).sqrt();
    let part = (MOST_G / portion.piece_g)
        .min((MOST_MM / disc_mm).powi(2))
        .min(1.0);
    let (sauce_g, cheese_g) = toppings(&f.toppings, part * portion.area_cm2);
    let extra = |kind: ExtraKind| -> f64 {
        f.extras
            .iter()
            .filter(|e| e.kind == kind)
            .map(|e| e.amount)
            .sum()
    };
    Piece {
        ball_g: part * portion.piece_g,
        disc_mm: disc_mm * part.sqrt(),
        rim_mm: bakes.rim_mm,
        rim_share: bakes.rim_share,
        hydration_percent: f.hydration_percent,
        salt_percent: f.salt_percent,
        sugar_percent: f.sugars_percent(),
        malt_percent: extra(ExtraKind::ActiveMalt),
        oil_percent: f.fats_percent(),
        // Milk is an eighth solids.
        milk_percent: extra(ExtraKind::MilkPowder) + 0.125 * extra(ExtraKind::Milk),
        maturity: 1.0,
        cold: f.path().iter().any(|l| l.spot.is_cold()),
        dough_c: room_c.clamp(0.0, 40.0),
        sauce_g,
        cheese_g,
    }
}

/// A fire for a formula in an oven at a setting; in a pan where the piece lies in one.
pub fn plan(
    f: &Formula,
    portion: &Portion,
    oven: &Oven,
    setting: Setting,
    pan: Option<PanNow>,
    (room_c, altitude_m): (f64, f64),
) -> FirePlan {
    let in_pan = portion.pan.is_some();
    let bakes = f.style.bakes();
    FirePlan {
        aim: if in_pan { Aim::Pan } else { bakes.aim },
        // What a style says of its rounds does not hold in a pan.
        targets: bakes.targets.filter(|_| !in_pan || bakes.aim == Aim::Pan),
        piece: piece(f, portion, room_c),
        oven: oven.clone(),
        setting,
        pan: in_pan.then(|| pan.unwrap_or(usual_pan(wall_of(portion.pan)))),
        shape: if f.double_bake {
            Some("double".into())
        } else {
            None
        },
        turns: None,
        preheat_min: None,
        floor_read_c: None,
        altitude_m,
    }
}

/// A round pan is taken for a deep one.
fn wall_of(pan: Option<PanShape>) -> f64 {
    match pan {
        Some(PanShape::Round { .. }) => 50.0,
        _ => 25.0,
    }
}

/// A dough changed so that it makes the second piece instead of the first: sugar, malt, oil, ball, toppings. What was
/// not changed stays to the last digit.
pub fn changed(f: &Formula, from: &Piece, to: &Piece) -> Formula {
    use crate::formula::{Extra, Pieces};
    let mut out = f.clone();
    let by = |a: f64, b: f64| (b - a).abs() > 1e-9;
    let tidy = |v: f64| (v * 1000.0).round() / 1000.0;
    if by(from.sugar_percent, to.sugar_percent) {
        out.sugar_percent =
            tidy((out.sugar_percent + to.sugar_percent - from.sugar_percent).max(0.0));
    }
    if by(from.oil_percent, to.oil_percent) {
        out.oil_percent = tidy((out.oil_percent + to.oil_percent - from.oil_percent).max(0.0));
    }
    if by(from.malt_percent, to.malt_percent) {
        out.extras.retain(|e| e.kind != ExtraKind::ActiveMalt);
        if to.malt_percent > 1e-9 {
            out.extras.push(Extra {
                kind: ExtraKind::ActiveMalt,
                name: String::new(),
                amount: tidy(to.malt_percent),
            });
        }
    }
    if by(from.ball_g, to.ball_g) && from.ball_g > 0.0 {
        let times = to.ball_g / from.ball_g;
        match &mut out.pieces {
            Pieces::Balls { ball_g, .. } => *ball_g = tidy(*ball_g * times),
            Pieces::Discs {
                dough_g_per_cm2, ..
            } => *dough_g_per_cm2 = tidy(*dough_g_per_cm2 * times),
            Pieces::Pans { pans, .. } => {
                for p in pans {
                    p.dough_g_per_cm2 = tidy(p.dough_g_per_cm2 * times);
                }
            }
            Pieces::Total { dough_g, .. } => *dough_g = tidy(*dough_g * times),
            Pieces::Flour { flour_g, .. } => *flour_g = tidy(*flour_g * times),
        }
    }
    let scale = |was: f64, now: f64| if was > 0.0 { now / was } else { 1.0 };
    let (sauce, cheese) = (
        scale(from.sauce_g, to.sauce_g),
        scale(from.cheese_g, to.cheese_g),
    );
    for t in out.toppings.iter_mut().filter(|t| !t.after_the_bake) {
        let (_, c) = toppings(std::slice::from_ref(t), 1e4);
        let times = if c > 0.0 {
            cheese
        } else if t.wet {
            sauce
        } else {
            1.0
        };
        if by(times, 1.0) {
            t.g_per_disc = (t.g_per_disc * times).round();
        }
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::formula::disc_cm2;

    #[test]
    fn a_remedy_of_the_dough_changes_only_what_it_names() {
        let f = Formula::of_style(crate::style::by_key("home_round").unwrap());
        let portion = Portion {
            count: 4,
            piece_g: 270.0,
            pan: None,
            area_cm2: disc_cm2(30.0),
        };
        let was = piece(&f, &portion, 20.0);
        assert_eq!(changed(&f, &was, &was), f);
        let mut now = was.clone();
        now.sugar_percent += 2.0;
        now.malt_percent += 0.5;
        let next = changed(&f, &was, &now);
        assert!((next.sugar_percent - f.sugar_percent - 2.0).abs() < 1e-9);
        assert!((piece(&next, &portion, 20.0).malt_percent - now.malt_percent).abs() < 1e-9);
        assert_eq!(next.pieces, f.pieces);
        let mut smaller = was.clone();
        smaller.ball_g *= 0.85;
        smaller.sauce_g *= 0.7;
        let next = changed(&f, &was, &smaller);
        assert!(next.total_flour_hint() < f.total_flour_hint());
        let back = piece(&next, &portion, 20.0);
        assert!((back.sauce_g - smaller.sauce_g).abs() < 2.0 && back.cheese_g == was.cheese_g);
    }

    impl Formula {
        /// Weight of a ball, for the test.
        fn total_flour_hint(&self) -> f64 {
            match self.pieces {
                crate::formula::Pieces::Balls { ball_g, .. } => ball_g,
                _ => 0.0,
            }
        }
    }
}
