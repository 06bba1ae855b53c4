//! The cells of a column: how thick, how heavy, from the bottom of the floor to the cheese.
//!
//! Source: bake model, sections 1, 3 and 4.

use crate::fire::setup::{Aim, BakeRequest};

pub(super) const CP_DRY: f64 = 1600.0;
pub(super) const CP_WATER: f64 = 4180.0;
const CP_TOPPING: f64 = 2000.0;
const SAUCE: Topping = Topping {
    rho: 1040.0,
    water: 0.90,
};
const CHEESE: Topping = Topping {
    rho: 1050.0,
    water: 0.52,
};

struct Topping {
    rho: f64,
    water: f64,
}

/// How finely a bake is computed. `Usual` is the model's own; `Draft` doubles the steps (colours within 0.08);
/// `Fine` halves them, `Dense` doubles the cells: both serve to show how far the answer depends on them.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Fineness {
    /// As plans are computed.
    Usual,
    /// Coarser, while something is dragged or solved.
    Draft,
    /// Finer, to prove the usual one.
    Fine,
    /// Finer still, for tests.
    Dense,
}

impl Fineness {
    /// Length of a step against the usual one, in halves.
    pub(crate) fn step_halves(self) -> u32 {
        match self {
            Fineness::Fine => 1,
            Fineness::Draft => 4,
            _ => 2,
        }
    }
    fn cells(self) -> usize {
        if self == Fineness::Dense { 2 } else { 1 }
    }
}

/// The cells of one column, from the bottom up.
#[derive(Debug, Clone, Default)]
pub(crate) struct Cells {
    /// Thickness at rest, m.
    pub dx: Vec<f64>,
    /// Conductivity of floor and pan cells, W/mK; food has its own rule.
    pub k: Vec<f64>,
    /// Heat capacity of floor and pan cells, and of the dry part of food cells, J/m²K.
    pub dry_j: Vec<f64>,
    /// Dry mass and water of food cells, kg/m².
    pub dry: Vec<f64>,
    pub water: Vec<f64>,
    /// First cell of each layer, and one past the last of all.
    pub pan: usize,
    pub dough: usize,
    pub sauce: usize,
    pub cheese: usize,
    pub end: usize,
    /// How much thicker the dough gets.
    pub spring: f64,
}

/// Sizes of `n` cells over `length`, growing by `ratio` away from the first.
fn graded(n: usize, ratio: f64, length: f64) -> Vec<f64> {
    let raw: Vec<f64> = (0..n).map(|i| ratio.powi(i as i32)).collect();
    let sum: f64 = raw.iter().sum();
    raw.into_iter().map(|x| x / sum * length).collect()
}

/// Sizes finest at both ends.
fn symmetric(n: usize, ratio: f64, length: f64) -> Vec<f64> {
    let raw: Vec<f64> = (0..n)
        .map(|i| ratio.powi(i.min(n - 1 - i) as i32))
        .collect();
    let sum: f64 = raw.iter().sum();
    raw.into_iter().map(|x| x / sum * length).collect()
}

impl Cells {
    /// The floor alone: 14 cells, finest at the top (uniform if 4 mm or thinner).
    pub(crate) fn floor(material: crate::fire::material::Material, mm: f64, f: Fineness) -> Cells {
        let n = 14 * f.cells();
        let length = mm / 1000.0;
        let mut dx = if mm <= 4.0 {
            vec![length / n as f64; n]
        } else {
            graded(n, 1.25f64.powf(1.0 / f.cells() as f64), length)
        };
        dx.reverse();
        let mut cells = Cells::default();
        cells.solid(&dx, material);
        cells.pan = n;
        cells.dough = n;
        cells.sauce = n;
        cells.cheese = n;
        cells.end = n;
        cells
    }

    /// The middle of a piece: floor, pan, dough, sauce, cheese.
    pub(crate) fn centre(r: &BakeRequest, f: Fineness) -> Cells {
        let a = r.piece.areal();
        let many = f.cells();
        let pan_style = r.aim == Aim::Pan;
        let (rho, spring) = if pan_style {
            (700.0, 1.45)
        } else {
            (900.0, 1.5)
        };
        let length = a.centre / rho;
        let sizes = if pan_style {
            symmetric(16 * many, 1.3f64.powf(1.0 / many as f64), length)
        } else {
            graded(16 * many, 1.16f64.powf(1.0 / many as f64), length)
        };
        let mut cells = Cells::under(r, f);
        cells.spring = spring;
        cells.dough_cells(&sizes, rho, r.piece.moisture());
        cells.topping(&SAUCE, a.sauce, 3 * many);
        cells.cheese = cells.dx.len();
        cells.topping(&CHEESE, a.cheese, 3 * many);
        cells.end = cells.dx.len();
        cells
    }

    /// The rim: floor, pan, dough.
    pub(crate) fn rim(r: &BakeRequest, f: Fineness) -> Cells {
        let many = f.cells();
        let (rho, spring) = if r.aim == Aim::Pan {
            (700.0, 1.45)
        } else {
            (520.0, 2.0)
        };
        let sizes = symmetric(
            20 * many,
            1.35f64.powf(1.0 / many as f64),
            r.piece.areal().rim / rho,
        );
        let mut cells = Cells::under(r, f);
        cells.spring = spring;
        cells.dough_cells(&sizes, rho, r.piece.moisture());
        cells.cheese = cells.dx.len();
        cells.end = cells.dx.len();
        cells
    }

    /// Floor and pan.
    fn under(r: &BakeRequest, f: Fineness) -> Cells {
        let mut cells = Cells::floor(r.oven.floor, r.oven.floor_mm, f);
        if let Some(p) = &r.pan {
            let n = 2 * f.cells();
            cells.solid(&vec![p.mm / 1000.0 / n as f64; n], p.material);
        }
        cells.dough = cells.dx.len();
        cells
    }

    fn solid(&mut self, sizes: &[f64], material: crate::fire::material::Material) {
        let b = material.body();
        for dx in sizes {
            self.dx.push(*dx);
            self.k.push(b.k);
            self.dry_j.push(dx * b.rho * b.cp);
            self.dry.push(0.0);
            self.water.push(0.0);
        }
    }

    fn dough_cells(&mut self, sizes: &[f64], rho: f64, moisture: f64) {
        for dx in sizes {
            let dry = rho * dx / (1.0 + moisture);
            self.food(*dx, dry, dry * CP_DRY, dry * moisture);
        }
        self.sauce = self.dx.len();
    }

    fn topping(&mut self, t: &Topping, mass: f64, n: usize) {
        if mass <= 0.0 {
            return;
        }
        for _ in 0..n {
            let m = mass / n as f64;
            let dry = m * (1.0 - t.water);
            self.food(m / t.rho, dry, dry * CP_TOPPING, m * t.water);
        }
    }

    fn food(&mut self, dx: f64, dry: f64, dry_j: f64, water: f64) {
        self.dx.push(dx);
        self.k.push(0.0);
        self.dry_j.push(dry_j);
        self.dry.push(dry);
        self.water.push(water);
    }
}
