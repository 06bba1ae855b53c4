//! A floor alone: while it is charged, and between two pizzas.
//!
//! The same 14 cells as under a dough, so that one run's floor is the next one's start.

use super::cells::{Cells, Fineness};
use crate::fire::material::Material;

/// A bare floor.
#[derive(Debug, Clone)]
pub(crate) struct Slab {
    dx: Vec<f64>,
    heat: Vec<f64>,
    link: Vec<f64>,
    pub t: Vec<f64>,
}

/// What a bare floor sees on one face: a conductance, W/m²K, the temperature behind it, °C, and a flux, W/m².
#[derive(Debug, Clone, Copy, Default)]
pub(crate) struct Side {
    pub g: f64,
    pub c: f64,
    pub w: f64,
}

impl Slab {
    pub(crate) fn new(material: Material, mm: f64, celsius: f64) -> Slab {
        let cells = Cells::floor(material, mm, Fineness::Usual);
        let half: Vec<f64> = cells
            .dx
            .iter()
            .zip(&cells.k)
            .map(|(dx, k)| dx / (2.0 * k))
            .collect();
        Slab {
            link: half.windows(2).map(|h| 1.0 / (h[0] + h[1])).collect(),
            heat: cells.dry_j,
            t: vec![celsius; cells.dx.len()],
            dx: cells.dx,
        }
    }

    pub(crate) fn top_c(&self) -> f64 {
        self.t[self.t.len() - 1]
    }
    pub(crate) fn bottom_c(&self) -> f64 {
        self.t[0]
    }

    /// The temperature at a depth below the face, m; read between the cells' centres.
    pub(crate) fn at_depth(&self, depth: f64) -> f64 {
        at_depth(&self.dx, &self.t, depth)
    }
    /// Half way down.
    pub(crate) fn middle_c(&self) -> f64 {
        self.at_depth(0.5 * self.dx.iter().sum::<f64>())
    }

    /// Heat against `from_c`, J/m².
    pub(crate) fn charge(&self, from_c: f64) -> f64 {
        self.heat
            .iter()
            .zip(&self.t)
            .map(|(c, t)| c * (t - from_c))
            .sum()
    }
    /// Heat it would hold at one temperature throughout, J/m².
    pub(crate) fn full(&self, from_c: f64, to_c: f64) -> f64 {
        self.heat.iter().sum::<f64>() * (to_c - from_c)
    }

    /// One implicit step.
    pub(crate) fn step(&mut self, dt: f64, top: Side, bottom: Side) {
        let n = self.t.len();
        let mut forward = [0.0; 48];
        let mut right = [0.0; 48];
        let (mut carry_g, mut carry_f, mut carry_t) = (0.0, 0.0, 0.0);
        for i in 0..n {
            let up = if i + 1 < n { dt * self.link[i] } else { 0.0 };
            let mut own = self.heat[i] + carry_g + up;
            let mut r = self.heat[i] * self.t[i];
            for (at, side) in [(0, bottom), (n - 1, top)] {
                if i == at {
                    own += dt * side.g;
                    r += dt * (side.g * side.c + side.w);
                }
            }
            let m = 1.0 / (own - carry_g * carry_f);
            right[i] = (r + carry_g * carry_t) * m;
            forward[i] = up * m;
            (carry_g, carry_f, carry_t) = (up, forward[i], right[i]);
        }
        let mut above = 0.0;
        for i in (0..n).rev() {
            above = right[i] + forward[i] * above;
            self.t[i] = above;
        }
    }
}

/// A temperature at a depth below the face of a floor with these cells (from the bottom up), m.
pub(crate) fn at_depth(dx: &[f64], t: &[f64], depth: f64) -> f64 {
    let n = t.len();
    let mut below_face = 0.0;
    let mut last: Option<(f64, f64)> = None;
    for i in (0..n).rev() {
        let centre = below_face + 0.5 * dx[i];
        if centre >= depth {
            return match last {
                None => t[i],
                Some((d, v)) => v + (t[i] - v) * (depth - d) / (centre - d),
            };
        }
        last = Some((centre, t[i]));
        below_face += dx[i];
    }
    t[0]
}
