//! The formula of what was read: everything in % of all flour, starter and preferments counted in.

use super::line::speaks_of_hours;
use super::words::PastedKind;
use super::{Line, Makes, PastedItem, Section, Status};
use crate::fact;
use crate::fact::{Fact, Percent};
use crate::flour::{FlourFacts, FlourKind, FlourPart};
use crate::formula::{
    Dose, Extra, ExtraKind, Formula, HydrationCounts, LevainFeed, Pieces, Preferment,
    PrefermentKind, Yeast,
};
use crate::leaven::YeastForm;
use crate::number::plain;
use crate::refusal::ValidationError;
use crate::style::Style;
use crate::units::Grams;

/// What one part of the recipe holds, g.
#[derive(Default)]
struct Bowl {
    flours: Vec<(FlourKind, Option<f64>, f64)>,
    water: f64,
    salt: f64,
    oil: f64,
    sugar: f64,
    extras: Vec<(ExtraKind, f64)>,
    yeast: Vec<(YeastForm, f64)>,
    /// Ripe starter: hydration and weight.
    starters: Vec<(f64, f64)>,
    poolish: f64,
    biga: f64,
}

impl Bowl {
    fn flour(&self) -> f64 {
        self.flours.iter().map(|f| f.2).sum()
    }
    fn add(&mut self, i: &PastedItem) {
        let g = i.grams;
        let mut extra = |kind| self.extras.push((kind, g));
        match i.what {
            PastedKind::Flour { kind } => {
                match self.flours.iter_mut().find(|f| f.0 == kind && f.1 == i.w) {
                    Some(f) => f.2 += g,
                    None => self.flours.push((kind, i.w, g)),
                }
            }
            PastedKind::Water => self.water += g,
            PastedKind::Salt => self.salt += g,
            PastedKind::Oil => self.oil += g,
            PastedKind::Sugar => self.sugar += g,
            PastedKind::Honey => extra(ExtraKind::Honey),
            PastedKind::Syrup => extra(ExtraKind::Syrup),
            PastedKind::ActiveMalt => extra(ExtraKind::ActiveMalt),
            PastedKind::PlainMalt => extra(ExtraKind::PlainMalt),
            PastedKind::Milk => extra(ExtraKind::Milk),
            PastedKind::MilkPowder => extra(ExtraKind::MilkPowder),
            PastedKind::Butter => extra(ExtraKind::Butter),
            PastedKind::Fat => extra(ExtraKind::Fat),
            PastedKind::Seeds => extra(ExtraKind::Seeds),
            PastedKind::DriedMother => extra(ExtraKind::DriedMother),
            PastedKind::Yeast { form } => self.yeast.push((form, g)),
            PastedKind::Starter { hydration_percent } => {
                self.starters.push((f64::from(hydration_percent), g))
            }
            PastedKind::Poolish => self.poolish += g,
            PastedKind::Biga => self.biga += g,
            PastedKind::Topping => {}
        }
    }
    /// Yeast in one form: all in the first that is named.
    fn one_yeast(&self) -> Option<(YeastForm, f64)> {
        let (form, _) = *self.yeast.first()?;
        let fresh: f64 = self
            .yeast
            .iter()
            .map(|(f, g)| g * f.fresh_equivalent())
            .sum();
        Some((form, fresh / form.fresh_equivalent()))
    }
}

/// Water of a biga that is named as one ingredient, % of its flour.
const BIGA_WATER: f64 = 48.0;

pub(super) fn formula(
    lines: &[Line],
    makes: Makes,
    style: &Style,
) -> Result<(Formula, Vec<Fact>), ValidationError> {
    let all: Vec<&PastedItem> = lines.iter().flat_map(|l| &l.items).collect();
    let in_percent = all.iter().any(|i| i.is_percent)
        && !all
            .iter()
            .any(|i| !i.is_percent && matches!(i.what, PastedKind::Flour { .. }));
    let mut doubts = Vec::new();
    let usable: Vec<&PastedItem> = all
        .iter()
        .copied()
        .filter(|i| i.is_percent == in_percent && i.section != Section::Topping)
        .collect();
    let bowl = |section: Section| {
        let mut b = Bowl::default();
        for i in usable.iter().filter(|i| i.section == section) {
            b.add(i);
        }
        b
    };
    let mut dough = bowl(Section::Dough);
    if in_percent && dough.flour() <= 0.0 {
        // "Water 65 %, salt 2.8 %": the flour goes without saying.
        dough.flours.push((FlourKind::SoftFine, None, 100.0));
    }
    let sections = [
        Section::Poolish,
        Section::Biga,
        Section::Levain,
        Section::Preferment,
    ];
    let mut before: Vec<(Section, Bowl)> = sections
        .into_iter()
        .map(|s| (s, bowl(s)))
        .filter(|(_, b)| b.flour() > 0.0)
        .collect();
    let made = |s: Section, before: &[(Section, Bowl)]| before.iter().any(|(x, _)| *x == s);
    // A preferment that is made in its own part and then named in the dough is one and the same.
    if made(Section::Poolish, &before) {
        dough.poolish = 0.0;
    }
    if made(Section::Biga, &before) {
        dough.biga = 0.0;
    }
    if made(Section::Levain, &before) {
        dough.starters.clear();
    }
    whole(&mut before, Section::Poolish, dough.poolish, 100.0);
    whole(&mut before, Section::Biga, dough.biga, BIGA_WATER);
    let starter_flour: f64 = dough
        .starters
        .iter()
        .map(|(h, g)| g / (1.0 + h / 100.0))
        .sum();
    let flour = dough.flour()
        + starter_flour
        + before
            .iter()
            .map(|(_, b)| b.flour() + seed_flour(b))
            .sum::<f64>();
    if flour <= 0.0 {
        return Err(ValidationError::one("text", fact!("paste-no-flour")));
    }
    let percent = |g: f64| 100.0 * g / flour;
    let mut f = Formula {
        hydration_counts: HydrationCounts::True,
        preferments: vec![],
        toppings: style.toppings.clone(),
        ..Formula::of_style(style)
    };
    f.flours = blend(&dough, &before, style, flour, &mut doubts);
    let names: Vec<String> = f.flours.iter().map(|x| x.name.clone()).collect();
    for (section, b) in &before {
        f.preferments.push(preferment(*section, b, flour, &names));
    }
    for (h, g) in &dough.starters {
        f.preferments.push(Preferment {
            flour_percent: percent(g / (1.0 + h / 100.0)),
            hydration_percent: *h,
            feed: Some(LevainFeed::default()),
            ..Preferment::usual(PrefermentKind::Levain)
        });
        doubts.push(fact!(
            "paste-starter",
            weight = Grams(*g),
            share = Percent(*h)
        ));
    }
    if f.preferments.len() > 3 {
        return Err(ValidationError::one(
            "text",
            fact!("paste-three-preferments"),
        ));
    }
    let sum =
        |of: &dyn Fn(&Bowl) -> f64| of(&dough) + before.iter().map(|(_, b)| of(b)).sum::<f64>();
    let starter_water: f64 = dough
        .starters
        .iter()
        .map(|(h, g)| g * h / (100.0 + h))
        .sum::<f64>()
        + before.iter().map(|(_, b)| seed_water(b)).sum::<f64>();
    let poured = sum(&|b| b.water) + starter_water;
    f.extras = extras(&dough, poured, flour);
    let hidden: f64 = f
        .extras
        .iter()
        .map(|e| e.amount * e.kind.water_share())
        .sum();
    let dried: f64 = dough
        .extras
        .iter()
        .filter(|e| e.0 == ExtraKind::DriedMother)
        .map(|e| e.1)
        .sum();
    f.hydration_percent = (percent(poured) + hidden) / (1.0 + percent(dried) / 100.0);
    f.salt_percent = percent(sum(&|b| b.salt));
    f.oil_percent = percent(dough.oil);
    f.sugar_percent = percent(dough.sugar);
    f.yeast = match dough.one_yeast() {
        Some((form, g)) => Yeast {
            form,
            dose: Dose::Given {
                percent: percent(g),
            },
        },
        None if f.preferments.is_empty() => {
            doubts.push(fact!("paste-no-yeast"));
            Yeast::default()
        }
        None => Yeast {
            dose: Dose::None,
            ..Yeast::default()
        },
    };
    f.from_volumes = usable.iter().any(|i| i.rough);
    f.loss_percent = 0.0;
    if let Some(h) = lines.iter().rev().find_map(|l| l.cold_h) {
        f.cold_h = h;
        doubts.push(fact!("paste-fridge-hours", time = fact::hours(h)));
    } else if lines.iter().any(|l| speaks_of_hours(&l.text)) {
        doubts.push(fact!("paste-hours"));
    }
    let unread: Vec<&str> = lines
        .iter()
        .flat_map(|l| l.unread.iter().map(String::as_str))
        .collect();
    if !unread.is_empty() {
        doubts.push(fact!("paste-unweighed", things = unread));
    }
    f.pieces = pieces(&f, makes, flour, in_percent, style);
    if poured <= 0.0 && hidden <= 0.0 {
        return Err(ValidationError::one("text", fact!("paste-no-water")));
    }
    if f.salt_percent == 0.0 {
        doubts.push(fact!("paste-no-salt"));
    }
    if f.from_volumes {
        doubts.push(fact!("paste-rough"));
    }
    if lines.iter().any(|l| l.status == Status::Unread) {
        doubts.push(fact!("paste-not-understood"));
    }
    if in_percent {
        doubts.push(fact!("paste-percentages"));
    }
    Ok((f, doubts))
}

fn seed_flour(b: &Bowl) -> f64 {
    b.starters.iter().map(|(h, g)| g / (1.0 + h / 100.0)).sum()
}
fn seed_water(b: &Bowl) -> f64 {
    b.starters.iter().map(|(h, g)| g * h / (100.0 + h)).sum()
}

/// A preferment that is named in the dough without saying what is in it.
fn whole(before: &mut Vec<(Section, Bowl)>, section: Section, g: f64, hydration: f64) {
    if g > 0.0 {
        let flour = g / (1.0 + hydration / 100.0);
        let bowl = Bowl {
            flours: vec![(FlourKind::SoftFine, None, flour)],
            water: g - flour,
            ..Bowl::default()
        };
        before.push((section, bowl));
    }
}

fn flour_name(kind: FlourKind, w: Option<f64>) -> String {
    let word = match kind {
        FlourKind::SoftFine => "Fine flour",
        FlourKind::HardBread => "Bread flour",
        FlourKind::HalfWhite => "Type 1 or 2 flour",
        FlourKind::Wholemeal => "Wholemeal flour",
        FlourKind::Semolina => "Semolina",
        FlourKind::Spelt => "Spelt flour",
        FlourKind::Rye => "Rye flour",
        FlourKind::Gluten => "Vital gluten",
    };
    match w {
        Some(w) => format!("{word} W {}", plain(w)),
        None => word.into(),
    }
}

/// All flours of the recipe with their shares; a starter's flour is taken as the blend's first.
fn blend(
    dough: &Bowl,
    before: &[(Section, Bowl)],
    style: &Style,
    flour: f64,
    doubts: &mut Vec<Fact>,
) -> Vec<FlourPart> {
    let mut parts: Vec<(FlourKind, Option<f64>, f64)> = Vec::new();
    for b in std::iter::once(dough).chain(before.iter().map(|(_, b)| b)) {
        for &(kind, w, g) in &b.flours {
            match parts.iter_mut().find(|p| p.0 == kind && p.1 == w) {
                Some(p) => p.2 += g,
                None => parts.push((kind, w, g)),
            }
        }
    }
    if parts.is_empty() {
        parts.push((FlourKind::SoftFine, None, 0.0));
    }
    let named: f64 = parts.iter().map(|p| p.2).sum();
    parts[0].2 += flour - named;
    parts
        .into_iter()
        .map(|(kind, w, g)| {
            if w.is_none() && kind != FlourKind::Gluten {
                doubts.push(fact!(
                    "paste-strength",
                    name = flour_name(kind, w),
                    w = usual_w(kind, style)
                ));
            }
            FlourPart {
                name: flour_name(kind, w),
                share_percent: 100.0 * g / flour,
                facts: FlourFacts {
                    kind,
                    w: w.or((kind != FlourKind::Gluten).then(|| usual_w(kind, style))),
                    ..FlourFacts::default()
                },
                pantry: None,
            }
        })
        .collect()
}

/// What a flour of a kind is taken for when nobody says: the style's for the fine ones.
fn usual_w(kind: FlourKind, style: &Style) -> f64 {
    match kind {
        FlourKind::SoftFine => style.flour_w,
        FlourKind::HardBread => 330.0,
        FlourKind::HalfWhite => 260.0,
        FlourKind::Wholemeal | FlourKind::Spelt => 200.0,
        FlourKind::Semolina => 220.0,
        FlourKind::Rye => 80.0,
        FlourKind::Gluten => 450.0,
    }
}

fn preferment(section: Section, b: &Bowl, all_flour: f64, names: &[String]) -> Preferment {
    let kind = match section {
        Section::Poolish => PrefermentKind::Poolish,
        Section::Biga => PrefermentKind::Biga,
        Section::Levain => PrefermentKind::Levain,
        _ if !b.starters.is_empty() => PrefermentKind::Levain,
        _ => PrefermentKind::Own,
    };
    let own = b.flour() + seed_flour(b);
    let usual = Preferment::usual(kind);
    let yeast = b.one_yeast();
    let mut flours = vec![0.0; names.len()];
    for &(kind, w, g) in &b.flours {
        if let Some(i) = names.iter().position(|n| *n == flour_name(kind, w)) {
            flours[i] += 100.0 * g / own;
        }
    }
    flours[0] += 100.0 - flours.iter().sum::<f64>();
    let seed = seed_flour(b);
    Preferment {
        flour_percent: 100.0 * own / all_flour,
        hydration_percent: 100.0 * (b.water + seed_water(b)) / own,
        salt_percent: 100.0 * b.salt / own,
        yeast: Yeast {
            form: yeast.map_or(YeastForm::Instant, |y| y.0),
            dose: match (kind, yeast) {
                (PrefermentKind::Levain, _) => Dose::None,
                (_, Some((_, g))) => Dose::Given {
                    percent: 100.0 * g / own,
                },
                (_, None) => Dose::Solve,
            },
        },
        flours: if names.len() > 1 { flours } else { vec![] },
        feed: (kind == PrefermentKind::Levain).then(|| LevainFeed {
            flour_parts: if seed > 0.0 {
                let seed_g: f64 = b.starters.iter().map(|s| s.1).sum();
                (b.flour() / seed_g).clamp(0.2, 10.0)
            } else {
                2.0
            },
            ..LevainFeed::default()
        }),
        ..usual
    }
}

fn extras(dough: &Bowl, water: f64, flour: f64) -> Vec<Extra> {
    dough
        .extras
        .iter()
        .map(|&(kind, g)| Extra {
            kind,
            name: String::new(),
            amount: match kind {
                ExtraKind::DriedMother if water > 0.0 => 1000.0 * g / water,
                _ => 100.0 * g / flour,
            },
        })
        .collect()
}

fn pieces(f: &Formula, makes: Makes, flour: f64, in_percent: bool, style: &Style) -> Pieces {
    if in_percent {
        return match (makes.count, makes.piece_g) {
            (Some(count), Some(ball_g)) => Pieces::Balls { count, ball_g },
            _ => style.pieces.clone(),
        };
    }
    let sum = 100.0 + f.hydration_percent + f.salt_percent + f.oil_percent + f.sugar_percent;
    let usual_g = style.usual.ball_g.middle();
    let count = match (makes.count, makes.piece_g) {
        (Some(n), _) => n,
        (None, Some(g)) => (flour * sum / 100.0 / g).round().max(1.0) as u32,
        (None, None) => (flour * sum / 100.0 / usual_g).round().clamp(1.0, 1000.0) as u32,
    };
    Pieces::Flour {
        count,
        flour_g: flour,
    }
}
