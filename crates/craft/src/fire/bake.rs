//! The bake: what every part of the piece does, second by second.
//!
//! Source: bake model, sections 6 and 7. The middle, the rim and, in an oven with its fire at one side, the far rim are
//! columns of their own. Colours: 0 pale, 1 golden, 2 well browned, 3 charred. Weight loss and millimetres of crust
//! come out of the model but are not trusted (section 14): they serve the reference cases and no page.

use super::heat::{
    Cells, Fineness, HeatColumn, Sky, Surround, browning_rate, charring_rate, cheese_rate,
    dryness_gate,
};
use super::setup::BakeRequest;
use crate::refusal::ValidationError;
use serde::{Deserialize, Serialize};

/// Saturation of browning (section 7).
const BROWNING_MOST: f64 = 2.3;
/// An oiled pan fries the base.
const FRIED: f64 = 1.4;
/// Contact, W/m²K, its lasting share, and how fast steam and blisters lift the crust, s (section 5.1).
const CONTACT: (f64, f64) = (900.0, 0.40);
/// A tight floor neither drinks the first water nor lets steam out downward: the skin rides on steam and dusting flour.
const CONTACT_METAL: (f64, f64) = (230.0, 1.0);
const CONTACT_OILED: (f64, f64) = (600.0, 0.55);
const CONTACT_DRY: (f64, f64) = (250.0, 0.55);
const CONTACT_RIM: f64 = 0.60;
const CONTACT_LIFTED: f64 = 360.0;
const FLOOR_PAN: f64 = 160.0;
const FLOOR_LIFTED: f64 = 1e4;
const LIFTING_S: f64 = 25.0;
/// Ticks of the step clock per second: every step is a whole number of them.
const TICKS: u32 = 80;

/// Browning and charring of one surface.
#[derive(Debug, Clone, Copy, Default)]
struct Colour {
    browned: f64,
    charred: f64,
}

impl Colour {
    fn index(self) -> f64 {
        self.browned + self.charred
    }
    fn step(&mut self, celsius: f64, moisture: f64, factor: f64, fried: f64, dt: f64) {
        let dry = dryness_gate(moisture);
        if dry < 1e-9 {
            return;
        }
        self.browned += dt
            * factor
            * fried
            * dry
            * browning_rate(celsius)
            * (1.0 - self.browned / BROWNING_MOST);
        self.charred += dt * dry * charring_rate(celsius);
    }
}

/// How the piece and the floor stand at one moment.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct BakeMoment {
    /// Seconds after In.
    pub t: f64,
    /// Skin of the base and its colour.
    pub base_c: f64,
    /// Colour of the base.
    pub base: f64,
    /// Top of the rim (the side that stood at the fire first) and its colour; the palest and the darkest side's.
    pub rim_c: f64,
    /// Colour of the rim, on the side that stood at the fire first.
    pub rim: f64,
    /// Colour of its palest side.
    pub rim_palest: f64,
    /// Colour of its darkest side.
    pub rim_darkest: f64,
    /// Coldest place within that side of the rim, within the middle, and just under the sauce.
    pub rim_core_c: f64,
    /// Coldest place within the middle, °C.
    pub middle_c: f64,
    /// Just under the sauce, °C.
    pub under_sauce_c: f64,
    /// On top of the topping; the cheese's mean and its colour.
    pub top_c: f64,
    /// The cheese's mean, °C.
    pub cheese_c: f64,
    /// Colour of the cheese.
    pub cheese: f64,
    /// Share of the topping's water that is gone.
    pub loss: f64,
    /// The floor under the piece, and its cells from the bottom up.
    pub floor_c: f64,
    /// Cells of the floor under the piece from the bottom up, °C.
    #[serde(skip)]
    #[cfg_attr(feature = "schema", schemars(skip))]
    pub floor: [f64; 14],
    /// Heat into the base, into the top of the middle and into the top of the rim, W/m².
    pub into_base: f64,
    /// Heat into the top of the middle, W/m².
    pub into_top: f64,
    /// Heat into the top of the rim, W/m².
    pub into_rim: f64,
    /// Index of crispness and water lost, g: see the module's head.
    #[serde(skip)]
    #[cfg_attr(feature = "schema", schemars(skip))]
    pub crisp: f64,
    /// Water lost so far, g.
    #[serde(skip)]
    #[cfg_attr(feature = "schema", schemars(skip))]
    pub water_g: f64,
}

/// A bake as it was computed.
#[derive(Debug, Clone)]
pub struct BakeCourse {
    /// Every second, from In.
    pub moments: Vec<BakeMoment>,
    /// Largest share of the heat taken up that the books do not explain.
    pub imbalance: f64,
}

/// Which columns are computed: the set points ask for one alone.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum BakeParts {
    All,
    Centre,
    Rim,
}

/// Follows a bake from In to `until_s`.
///
/// Errors: every field outside the ranges of section 2.
pub fn bake(r: &BakeRequest) -> Result<BakeCourse, ValidationError> {
    bake_finely(r, Fineness::Usual)
}

/// The same at another fineness.
pub fn bake_finely(r: &BakeRequest, fineness: Fineness) -> Result<BakeCourse, ValidationError> {
    r.check()?;
    Ok(follow(r, fineness, BakeParts::All, None))
}

/// As [`bake`], of a request that was checked; `floor` are the cells of a floor that has a history.
pub(crate) fn follow(
    r: &BakeRequest,
    fineness: Fineness,
    parts: BakeParts,
    floor: Option<&[f64]>,
) -> BakeCourse {
    match fineness {
        Fineness::Dense => BakeColumns::<96>::of(r, fineness, parts, floor).run(r, fineness),
        _ => BakeColumns::<48>::of(r, fineness, parts, floor).run(r, fineness),
    }
}

/// The columns of a bake and what has coloured on them.
struct BakeColumns<const N: usize> {
    centre: Option<HeatColumn<N>>,
    rims: Vec<HeatColumn<N>>,
    base: Colour,
    tops: [Colour; 4],
    cheese: f64,
    crisp: f64,
    factor: f64,
    fried: f64,
    topping_water: f64,
}

impl<const N: usize> BakeColumns<N> {
    fn of(r: &BakeRequest, f: Fineness, parts: BakeParts, floor: Option<&[f64]>) -> BakeColumns<N> {
        let column = |cells: Cells| {
            let core = r.oven.core_c.unwrap_or(r.oven.floor_c);
            let mut c = HeatColumn::new(
                cells,
                r.oven.floor_c,
                core,
                r.pan.as_ref(),
                r.piece.dough_c,
                r.piece.disc_mm,
            );
            if let Some(t) = floor {
                c.set_floor(t);
            }
            c
        };
        let centre = (parts != BakeParts::Rim).then(|| column(Cells::centre(r, f)));
        let mut rims = Vec::new();
        if parts != BakeParts::Centre {
            rims.push(column(Cells::rim(r, f)));
            if r.oven.side > 0.0 {
                let others = if r.quarter_turns_s.is_empty() { 1 } else { 3 };
                for _ in 0..others {
                    rims.push(column(Cells::rim(r, f)));
                }
            }
        }
        let topping_water = centre.as_ref().map_or(0.0, |c| {
            c.cells.water[c.cells.sauce..c.cells.end].iter().sum()
        });
        BakeColumns {
            centre,
            rims,
            base: Colour::default(),
            tops: [Colour::default(); 4],
            cheese: 0.0,
            crisp: 0.0,
            factor: r.piece.browning(),
            fried: if r.pan.as_ref().is_some_and(|p| p.oiled) {
                FRIED
            } else {
                1.0
            },
            topping_water,
        }
    }

    fn run(mut self, r: &BakeRequest, f: Fineness) -> BakeCourse {
        let sky = Sky::of(r);
        let stored = self.stored();
        let end = (r.until_s * f64::from(TICKS)) as u32;
        let mut moments = Vec::with_capacity(r.until_s as usize + 2);
        let mut tick = 0u32;
        let mut next_record = TICKS;
        while tick < end {
            let step = step_ticks(tick) * f.step_halves() / 2;
            tick += step;
            let t = f64::from(tick) / f64::from(TICKS);
            let dt = f64::from(step) / f64::from(TICKS);
            self.step(r, &sky, t, dt);
            if tick >= next_record {
                moments.push(self.moment(r, t));
                next_record = tick + if tick < 300 * TICKS { TICKS } else { 2 * TICKS };
            }
        }
        let taken = self.heat_in();
        let explained = self.stored() - stored + self.vapour();
        BakeCourse {
            moments,
            imbalance: (taken - explained).abs() / taken.abs().max(1.0),
        }
    }

    fn step(&mut self, r: &BakeRequest, sky: &Sky, t: f64, dt: f64) {
        let lifted = r.lift_s.is_some_and(|s| t >= s);
        let in_pan = r.pan.is_some() && !lifted;
        let (h0, lasting) = match &r.pan {
            None if r.oven.floor.is_metal() => CONTACT_METAL,
            None => CONTACT,
            Some(_) if lifted => (CONTACT_LIFTED, 1.0),
            Some(p) if p.oiled => CONTACT_OILED,
            Some(_) => CONTACT_DRY,
        };
        let contact =
            r.oven.floor_factor * h0 * (lasting + (1.0 - lasting) * (-t / LIFTING_S).exp());
        let mut s = Surround {
            dt,
            air_c: sky.air_at(t),
            contact,
            floor_pan: if lifted { FLOOR_LIFTED } else { FLOOR_PAN },
            gain: 1.0,
            cheese_on: t >= r.cheese_at_s,
            in_pan,
        };
        if let Some(c) = &mut self.centre {
            c.step(sky, &s);
            let dough = c.cells.dough;
            self.base.step(
                c.face.base_c,
                c.moisture(dough),
                self.factor,
                self.fried,
                dt,
            );
            if s.cheese_on && c.cells.cheese < c.cells.end {
                self.cheese += dt * cheese_rate(c.face.top_c);
            }
        }
        if r.pan.is_none() {
            s.contact = contact * CONTACT_RIM;
        }
        let by = |turns: &[f64]| turns.iter().filter(|x| **x <= t).count();
        let quarters = 2 * by(&r.turns_s) + by(&r.quarter_turns_s);
        // The sides that are followed: all four, or the one at the fire and the one opposite.
        let apart = if self.rims.len() == 4 { 1 } else { 2 };
        for (i, rim) in self.rims.iter_mut().enumerate() {
            s.gain = match (i * apart + 4 * quarters - quarters) % 4 {
                0 => 1.0 + r.oven.side,
                2 => 1.0 - r.oven.side,
                _ => 1.0,
            };
            s.cheese_on = false;
            rim.step(sky, &s);
            let top = rim.top(false);
            self.tops[i].step(rim.face.top_c, rim.moisture(top), self.factor, 1.0, dt);
        }
    }

    fn moment(&mut self, r: &BakeRequest, t: f64) -> BakeMoment {
        let mut m = BakeMoment {
            t,
            base_c: 0.0,
            base: self.base.index(),
            rim_c: 0.0,
            rim: self.tops[0].index(),
            rim_palest: self.sides().fold(f64::INFINITY, f64::min),
            rim_darkest: self.sides().fold(0.0, f64::max),
            rim_core_c: 0.0,
            middle_c: 0.0,
            under_sauce_c: 0.0,
            top_c: 0.0,
            cheese_c: r.piece.dough_c,
            cheese: self.cheese,
            loss: 0.0,
            floor_c: 0.0,
            floor: [0.0; 14],
            into_base: 0.0,
            into_top: 0.0,
            into_rim: 0.0,
            crisp: 0.0,
            water_g: 0.0,
        };
        let area = r.piece.areal();
        let coldest = |c: &HeatColumn<N>| {
            c.t[c.cells.dough..c.cells.sauce]
                .iter()
                .fold(f64::INFINITY, |a, b| a.min(*b))
        };
        let lost = |c: &HeatColumn<N>| {
            c.cells.water.iter().sum::<f64>() - c.water[..c.cells.end].iter().sum::<f64>()
        };
        if let Some(c) = &self.centre {
            let (sauce, cheese, end) = (c.cells.sauce, c.cells.cheese, c.cells.end);
            m.base_c = c.face.base_c;
            m.middle_c = coldest(c);
            m.under_sauce_c = c.t[sauce - 1];
            m.top_c = c.face.top_c;
            if cheese < end && t >= r.cheese_at_s {
                m.cheese_c = c.t[cheese..end].iter().sum::<f64>() / (end - cheese) as f64;
            }
            if self.topping_water > 0.0 {
                m.loss = 1.0 - c.water[sauce..end].iter().sum::<f64>() / self.topping_water;
            }
            m.floor_c = c.face.floor_c;
            let many = c.cells.pan / 14;
            for (i, f) in m.floor.iter_mut().enumerate() {
                *f = c.t[i * many..(i + 1) * many].iter().sum::<f64>() / many as f64;
            }
            m.into_base = c.face.into_base;
            m.into_top = c.face.into_top;
            m.water_g += 1000.0 * lost(c) * area.centre_m2;
            self.crisp = self.crisp.max(
                (c.cells.dough..sauce)
                    .map(|i| c.thickness(i) * ((0.15 - c.moisture(i)) / 0.12).clamp(0.0, 1.0))
                    .sum::<f64>()
                    * 1000.0,
            );
            m.crisp = self.crisp;
        }
        if let Some(rim) = self.rims.first() {
            m.rim_c = rim.face.top_c;
            m.rim_core_c = coldest(rim);
            m.into_rim = rim.face.into_top;
            m.water_g += 1000.0 * lost(rim) * area.rim_m2;
        }
        m
    }

    /// The colours of the rim's sides.
    fn sides(&self) -> impl Iterator<Item = f64> {
        self.tops[..self.rims.len().max(1)]
            .iter()
            .map(|c| c.index())
    }

    fn columns(&self) -> impl Iterator<Item = &HeatColumn<N>> {
        self.centre.iter().chain(&self.rims)
    }
    fn stored(&self) -> f64 {
        self.columns().map(HeatColumn::stored).sum()
    }
    fn heat_in(&self) -> f64 {
        self.columns().map(|c| c.heat_in).sum()
    }
    fn vapour(&self) -> f64 {
        self.columns().map(|c| c.heat_vapour).sum()
    }
}

/// Length of the usual step from a tick on: fine while the skin dries, coarse at the end (section 6).
fn step_ticks(tick: u32) -> u32 {
    match tick / TICKS {
        0..6 => 4,
        6..60 => 10,
        60..180 => 20,
        180..420 => 40,
        _ => 80,
    }
}

impl BakeCourse {
    /// The moment nearest to a second.
    pub fn near(&self, t: f64) -> Option<&BakeMoment> {
        self.moments
            .iter()
            .min_by(|a, b| (a.t - t).abs().total_cmp(&(b.t - t).abs()))
    }
}

/// The floor under the piece at a depth below its face, mm, at a moment of this bake, °C.
pub fn floor_at(r: &BakeRequest, m: &BakeMoment, depth_mm: f64) -> f64 {
    let cells = Cells::floor(r.oven.floor, r.oven.floor_mm, Fineness::Usual);
    super::heat::at_depth(&cells.dx, &m.floor, depth_mm / 1000.0)
}
