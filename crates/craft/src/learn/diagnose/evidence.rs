//! How well one batch's sites fit a prior of its offsets: the Laplace evidence.
//!
//! Source: learning, section 9.1: ln Z = Ψ̂ − ½·ln det B, by the steps of the fit with a full covariance.

use crate::learn::card::CardMoment;
use crate::learn::channel::{CHANNELS, Offsets};
use crate::learn::fit::{Covariance, SETTLED};
use crate::learn::site::Sighting;
use nalgebra::{DMatrix, DVector};

const ROUNDS: usize = 40;
const HALVINGS: i32 = 7;

struct Round {
    f: DVector<f64>,
    slopes: DMatrix<f64>,
    ln: f64,
    a: DVector<f64>,
    w: DVector<f64>,
}

fn read(sites: &[(Sighting, &CardMoment)], q: &Offsets) -> Round {
    let n = sites.len();
    let read: Vec<_> = sites.iter().map(|(s, m)| s.read(m, q)).collect();
    Round {
        f: DVector::from_fn(n, |j, _| read[j].0.value),
        slopes: DMatrix::from_fn(n, CHANNELS, |j, c| read[j].0.slope[c]),
        ln: read.iter().map(|(_, l)| l.ln).sum(),
        a: DVector::from_fn(n, |j, _| read[j].1.slope),
        w: DVector::from_fn(n, |j, _| read[j].1.weight),
    }
}

fn vector(q: &Offsets) -> DVector<f64> {
    DVector::from_column_slice(q)
}

/// ln of the evidence of what was seen, where offsets are expected at `p` with covariance `s`.
pub(super) fn ln_evidence(sites: &[(Sighting, &CardMoment)], p: &Offsets, s: &Covariance) -> f64 {
    let prior = vector(p);
    let mut q = prior.clone();
    let mut u = DVector::zeros(CHANNELS);
    let to_array = |q: &DVector<f64>| -> Offsets { std::array::from_fn(|c| q[c]) };
    let psi = |r: &Round, u: &DVector<f64>| r.ln - 0.5 * u.dot(&(&s.0 * u));
    let mut here = read(sites, p);
    let mut best = psi(&here, &u);
    for _ in 0..ROUNDS {
        let Some((q_to, u_to)) = aim(&here, &q, &prior, s) else {
            break;
        };
        let mut step = 1.0;
        let moved = loop {
            let (q_next, u_next) = (&q + (&q_to - &q) * step, &u + (&u_to - &u) * step);
            let next = read(sites, &to_array(&q_next));
            let reached = psi(&next, &u_next);
            if reached >= best - 1e-9 || step <= 0.5f64.powi(HALVINGS) {
                let moved = (&q_next - &q).amax();
                (q, u, here, best) = (q_next, u_next, next, reached);
                break moved;
            }
            step *= 0.5;
        };
        if moved < SETTLED {
            break;
        }
    }
    match b_of(&here, s).cholesky() {
        // Half of ln det B is the sum of the logarithms on the factor's diagonal.
        Some(l) => best - l.l_dirty().diagonal().iter().map(|d| d.ln()).sum::<f64>(),
        None => f64::NEG_INFINITY,
    }
}

fn b_of(r: &Round, s: &Covariance) -> DMatrix<f64> {
    let c = &r.slopes * &s.0 * r.slopes.transpose();
    let root = r.w.map(f64::sqrt);
    DMatrix::from_fn(c.nrows(), c.ncols(), |i, j| {
        root[i] * c[(i, j)] * root[j] + if i == j { 1.0 } else { 0.0 }
    })
}

fn aim(
    r: &Round,
    q: &DVector<f64>,
    prior: &DVector<f64>,
    s: &Covariance,
) -> Option<(DVector<f64>, DVector<f64>)> {
    let c = &r.slopes * &s.0 * r.slopes.transpose();
    let root = r.w.map(f64::sqrt);
    let m = &r.f - &r.slopes * (q - prior);
    let beta = r.w.component_mul(&(&r.f - m)) + &r.a;
    let b = b_of(r, s).cholesky()?;
    let alpha = &beta - root.component_mul(&b.solve(&root.component_mul(&(c * &beta))));
    let u = r.slopes.transpose() * alpha;
    Some((prior + &s.0 * &u, u))
}
