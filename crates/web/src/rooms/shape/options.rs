//! How a dough on the scale can be divided, as buttons.

use super::words::{choice_words, on_scale};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::say;
use craft::shape::{DivideChoice, Divided};
use craft::sheet::ahead::ShapeLook;

pub struct DivideOption {
    pub says: String,
    pub count: u32,
    pub ball_g: String,
    pub proposed: bool,
}

/// What can be done with a dough that is not as heavy as planned, the proposed first.
pub fn choices(
    look: &ShapeLook,
    decided: bool,
    made: u32,
    here: &RequestKitchen,
) -> Vec<DivideOption> {
    let Some(d) = look.divided.filter(|_| !decided && made == 0) else {
        return vec![];
    };
    let proposed = d.choice;
    let of = |choice: DivideChoice, count: u32, ball_g: f64, rest: Option<f64>| DivideOption {
        says: match rest {
            Some(g) if g >= 1.0 => say!(
                "shape-left",
                count = count,
                ball_g = on_scale(ball_g, here),
                g = on_scale(g, here),
                choice = choice_words(choice)
            ),
            _ => format!(
                "{count} × {}: {}",
                on_scale(ball_g, here),
                choice_words(choice)
            ),
        },
        count,
        ball_g: format!("{ball_g} g"),
        proposed: choice == proposed,
    };
    let mut out = vec![of(
        DivideChoice::Spread,
        d.spread.count,
        d.spread.ball_g,
        None,
    )];
    out.extend(kept(&d, proposed, &of));
    if let Some(f) = d.fewer {
        out.push(of(DivideChoice::SpreadFewer, f.count, f.ball_g, None));
    }
    if d.most.count > d.keep.count {
        let rest = Some(d.most.remainder_g);
        out.push(of(DivideChoice::OneMore, d.most.count, d.most.ball_g, rest));
    }
    out.sort_by_key(|c| !c.proposed);
    // Where nothing is left over, to spread it and to keep the weight are one.
    let mut said: Vec<(u32, String)> = vec![];
    out.retain(|c| {
        let one = (c.count, c.ball_g.clone());
        let new = !said.contains(&one);
        said.push(one);
        new
    });
    out
}

/// The weight is kept: with a smaller last one, or the rest for bread.
fn kept(
    d: &Divided,
    proposed: DivideChoice,
    of: &impl Fn(DivideChoice, u32, f64, Option<f64>) -> DivideOption,
) -> Option<DivideOption> {
    let smaller = matches!(
        proposed,
        DivideChoice::OneSmaller | DivideChoice::OneSmallerMore
    );
    let (choice, count) = match smaller {
        true => (proposed, d.keep.count + 1),
        false => (DivideChoice::KeepAndBread, d.keep.count),
    };
    (count > 0).then(|| of(choice, count, d.keep.ball_g, Some(d.keep.remainder_g)))
}
