//! What a log says of the kitchen: the most likely offset of every channel in every batch, and how sure that is.
//!
//! Everything is done in the space of what was seen, which is small: with G the slopes and W the weights, C = G·K·Gᵀ and one
//! Cholesky of I + W^½·C·W^½ per round. Source: learning, section 4.

use super::card::{Card, Graded};
use super::channel::{CHANNELS, Channel, Offsets};
use super::likelihood::Likelihood;
use super::observed::LoggedBatch;
use super::place::{Among, lasting, own};
use super::site::Sighting;
use nalgebra::{Cholesky, DMatrix, DVector, Dyn};

const ROUNDS: usize = 40;
pub(crate) const SETTLED: f64 = 1e-3;
/// A step is halved so often at most.
const HALVINGS: u32 = 7;
const MAY_FALL: f64 = 1e-9;
/// The latest so many batches are used, with so many things seen at most.
pub const MOST_BATCHES: usize = 40;
/// So many observations are used at most.
pub const MOST_SEEN: usize = 160;

pub(crate) const NOTHING: Offsets = [0.0; CHANNELS];

/// A log that was fitted.
pub(crate) struct Posterior {
    pub among: Vec<Among>,
    pub sites: Vec<Sighting>,
    /// How much of each site is believed, 0 to 1.
    pub believed: Vec<f64>,
    slopes: Vec<Offsets>,
    u: Vec<Offsets>,
    root_w: DVector<f64>,
    /// Of I + W^½·C·W^½; absent in an empty log.
    factor: Option<Cholesky<f64, Dyn>>,
}

/// The sites of a log, the readings of its oldest batches left out where there are too many.
fn sites_of(batches: &[LoggedBatch]) -> Vec<Sighting> {
    let mut sites: Vec<Sighting> = Vec::new();
    for (i, b) in batches.iter().enumerate() {
        for (n, seen) in b.observed.iter().enumerate() {
            if seen.teaches() {
                sites.push(Sighting::of(i, n, b));
            }
        }
    }
    let is_reading = |s: &Sighting| batches[s.batch].observed[s.observed].is_reading();
    while sites.len() > MOST_SEEN {
        let oldest = (0..sites.len())
            .filter(|&i| is_reading(&sites[i]))
            .chain(0..sites.len())
            .next();
        match oldest {
            Some(i) => drop(sites.remove(i)),
            None => break,
        }
    }
    sites
}

/// Which of a log's batches are used: the latest, in the order of their weeks, each with something seen.
pub(crate) fn used(batches: &[LoggedBatch]) -> Vec<usize> {
    let mut order: Vec<usize> = (0..batches.len())
        .filter(|&i| batches[i].observed.iter().any(|s| s.teaches()))
        .collect();
    order.sort_by(|&a, &b| batches[a].week.total_cmp(&batches[b].week));
    let drop = order.len().saturating_sub(MOST_BATCHES);
    order.split_off(drop)
}

fn dot(a: &Offsets, b: &Offsets) -> f64 {
    a.iter().zip(b).map(|(x, y)| x * y).sum()
}

/// Prior covariances of all pairs of batches, with each batch's own part on the diagonal.
struct Kernel {
    n: usize,
    pairs: Vec<Offsets>,
}

impl Kernel {
    fn of(among: &[Among]) -> Kernel {
        let n = among.len();
        let mut pairs = vec![NOTHING; n * n];
        for (i, a) in among.iter().enumerate() {
            for (j, b) in among.iter().enumerate() {
                for &c in Channel::ALL {
                    pairs[i * n + j][c.at()] = lasting(c, a, b) + if i == j { own(c) } else { 0.0 };
                }
            }
        }
        Kernel { n, pairs }
    }
    fn pair(&self, i: usize, j: usize) -> &Offsets {
        &self.pairs[i * self.n + j]
    }
    /// q̄ = K·ū.
    fn times(&self, u: &[Offsets]) -> Vec<Offsets> {
        (0..self.n)
            .map(|i| {
                let mut q = NOTHING;
                for (j, u) in u.iter().enumerate() {
                    for ((q, k), u) in q.iter_mut().zip(self.pair(i, j)).zip(u) {
                        *q += k * u;
                    }
                }
                q
            })
            .collect()
    }
    /// C = G·K·Gᵀ over the sites.
    fn between(&self, sites: &[Sighting], slopes: &[Offsets]) -> DMatrix<f64> {
        let n = sites.len();
        let mut c = DMatrix::zeros(n, n);
        for i in 0..n {
            for j in 0..=i {
                let k = self.pair(sites[i].batch, sites[j].batch);
                let mut sum = 0.0;
                for ((a, b), k) in slopes[i].iter().zip(&slopes[j]).zip(k) {
                    sum += a * b * k;
                }
                c[(i, j)] = sum;
                c[(j, i)] = sum;
            }
        }
        c
    }
}

/// All sites read at q.
struct ReadAll {
    f: Vec<f64>,
    slopes: Vec<Offsets>,
    likely: Vec<Likelihood>,
}

impl ReadAll {
    fn at(sites: &[Sighting], cards: &[&Card], q: &[Offsets]) -> ReadAll {
        let read: Vec<(Graded, Likelihood)> = sites
            .iter()
            .map(|s| s.read(&cards[s.batch].moments[s.observed], &q[s.batch]))
            .collect();
        ReadAll {
            f: read.iter().map(|(g, _)| g.value).collect(),
            slopes: read.iter().map(|(g, _)| g.slope).collect(),
            likely: read.iter().map(|(_, l)| *l).collect(),
        }
    }
    fn ln(&self) -> f64 {
        self.likely.iter().map(|l| l.ln).sum()
    }
    fn root_w(&self) -> DVector<f64> {
        DVector::from_iterator(
            self.likely.len(),
            self.likely.iter().map(|l| l.weight.sqrt()),
        )
    }
}

fn factor(c: &DMatrix<f64>, root_w: &DVector<f64>) -> Option<Cholesky<f64, Dyn>> {
    let n = c.nrows();
    let b = DMatrix::from_fn(n, n, |i, j| {
        root_w[i] * c[(i, j)] * root_w[j] + if i == j { 1.0 } else { 0.0 }
    });
    b.cholesky()
}

impl Posterior {
    /// An empty log: the prior.
    pub fn empty() -> Posterior {
        Posterior {
            among: vec![],
            sites: vec![],
            believed: vec![],
            slopes: vec![],
            u: vec![],
            root_w: DVector::zeros(0),
            factor: None,
        }
    }

    /// Fits checked batches with their cards, whose moments are those of what was seen.
    pub fn of(batches: &[LoggedBatch], cards: &[&Card]) -> Posterior {
        let sites = sites_of(batches);
        if sites.is_empty() {
            return Posterior::empty();
        }
        let among: Vec<Among> = batches.iter().map(LoggedBatch::among).collect();
        let kernel = Kernel::of(&among);
        let mut q = vec![NOTHING; among.len()];
        let mut u = q.clone();
        let psi = |read: &ReadAll, q: &[Offsets], u: &[Offsets]| {
            read.ln() - 0.5 * q.iter().zip(u).map(|(q, u)| dot(q, u)).sum::<f64>()
        };
        let mut read = ReadAll::at(&sites, cards, &q);
        let mut best = psi(&read, &q, &u);
        for _ in 0..ROUNDS {
            let Some((q_to, u_to)) = aim(&read, &sites, &kernel, &q) else {
                break;
            };
            let mut step = 1.0;
            let moved = loop {
                let go = |a: &[Offsets], b: &[Offsets]| -> Vec<Offsets> {
                    a.iter()
                        .zip(b)
                        .map(|(a, b)| std::array::from_fn(|c| a[c] + step * (b[c] - a[c])))
                        .collect()
                };
                let (q_next, u_next) = (go(&q, &q_to), go(&u, &u_to));
                let next = ReadAll::at(&sites, cards, &q_next);
                let reached = psi(&next, &q_next, &u_next);
                if reached >= best - MAY_FALL || step <= 0.5f64.powi(HALVINGS as i32) {
                    let moved = largest(&q, &q_next);
                    (q, u, read, best) = (q_next, u_next, next, reached);
                    break moved;
                }
                step *= 0.5;
            };
            if moved < SETTLED {
                break;
            }
        }
        let root_w = read.root_w();
        let c = kernel.between(&sites, &read.slopes);
        Posterior {
            factor: factor(&c, &root_w),
            believed: read.likely.iter().map(|l| l.believed).collect(),
            slopes: read.slopes,
            among,
            sites,
            u,
            root_w,
        }
    }

    /// Covariance of every site with every channel of a batch: a row per site, W^½·k.
    fn with(&self, of: &Among, logged: Option<usize>) -> DMatrix<f64> {
        let n = self.sites.len();
        let mut k = DMatrix::zeros(n, CHANNELS);
        for (j, s) in self.sites.iter().enumerate() {
            for &c in Channel::ALL {
                let mut shared = lasting(c, of, &self.among[s.batch]);
                if logged == Some(s.batch) {
                    shared += own(c);
                }
                k[(j, c.at())] = self.root_w[j] * shared * self.slopes[j][c.at()];
            }
        }
        k
    }

    /// The expected offsets of a batch. `logged` is its place in the log, where it is in it.
    pub fn mean(&self, of: &Among, logged: Option<usize>) -> Offsets {
        let mut mean = NOTHING;
        for (b, u) in self.u.iter().enumerate() {
            for &c in Channel::ALL {
                let mut shared = lasting(c, of, &self.among[b]);
                if logged == Some(b) {
                    shared += own(c);
                }
                mean[c.at()] += shared * u[c.at()];
            }
        }
        mean
    }

    /// What each batch of the log adds to the expected offset of a channel.
    pub fn parts(&self, of: &Among, c: Channel) -> Vec<f64> {
        self.among
            .iter()
            .zip(&self.u)
            .map(|(b, u)| lasting(c, of, b) * u[c.at()])
            .collect()
    }

    /// Covariance of the offsets of two batches. What each has of its own is in it where they are one (`is_one`).
    pub fn covariance(&self, a: &Whose, b: &Whose, is_one: bool) -> Covariance {
        let mut s = DMatrix::zeros(CHANNELS, CHANNELS);
        for &c in Channel::ALL {
            s[(c.at(), c.at())] = lasting(c, a.among, b.among) + if is_one { own(c) } else { 0.0 };
        }
        if let Some(factor) = &self.factor {
            let (ka, kb) = (self.with(a.among, a.logged), self.with(b.among, b.logged));
            s -= ka.transpose() * factor.solve(&kb);
        }
        Covariance(s)
    }
}

/// A batch to predict, and its place in the log where it is in it.
#[derive(Clone, Copy)]
pub(crate) struct Whose<'a> {
    pub among: &'a Among,
    pub logged: Option<usize>,
}

/// How sure offsets are, and how they hang together.
#[derive(Debug, Clone)]
pub(crate) struct Covariance(pub DMatrix<f64>);

impl Covariance {
    /// aᵀ·S·b.
    pub fn between(&self, a: &Offsets, b: &Offsets) -> f64 {
        let mut sum = 0.0;
        for (i, a) in a.iter().enumerate() {
            for (j, b) in b.iter().enumerate() {
                sum += a * self.0[(i, j)] * b;
            }
        }
        sum
    }
    /// √(gᵀ·S·g).
    pub fn sd(&self, g: &Offsets) -> f64 {
        self.between(g, g).max(0.0).sqrt()
    }
    /// Standard deviation of a channel.
    pub fn sd_of(&self, c: Channel) -> f64 {
        self.0[(c.at(), c.at())].max(0.0).sqrt()
    }
}

fn largest(a: &[Offsets], b: &[Offsets]) -> f64 {
    a.iter()
        .flatten()
        .zip(b.iter().flatten())
        .map(|(x, y)| (x - y).abs())
        .fold(0.0, f64::max)
}

/// Where a round of the fit leads (steps 2 to 5).
fn aim(
    read: &ReadAll,
    sites: &[Sighting],
    kernel: &Kernel,
    q: &[Offsets],
) -> Option<(Vec<Offsets>, Vec<Offsets>)> {
    let n = sites.len();
    let root_w = read.root_w();
    let c = kernel.between(sites, &read.slopes);
    let b = factor(&c, &root_w)?;
    let beta = DVector::from_fn(n, |j, _| {
        let m = read.f[j] - dot(&read.slopes[j], &q[sites[j].batch]);
        read.likely[j].weight * (read.f[j] - m) + read.likely[j].slope
    });
    let alpha = &beta - root_w.component_mul(&b.solve(&root_w.component_mul(&(c * &beta))));
    let mut u = vec![NOTHING; q.len()];
    for (j, s) in sites.iter().enumerate() {
        for (u, g) in u[s.batch].iter_mut().zip(&read.slopes[j]) {
            *u += g * alpha[j];
        }
    }
    Some((kernel.times(&u), u))
}
