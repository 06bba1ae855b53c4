//! Where the dough's temperature really is: conduction inside a piece, air and container around it.
//!
//! Input: recipe constants, stages, and the heat of fermentation per step (W per kg dough) from a former
//! kinetic pass. Output: a [`Series`]. Source: fermentation model, section 3 (24 shells of a sphere or half
//! slab, backward Euler, one tridiagonal solve a step). Limits: k and density constant while the dough
//! expands; no freezing; the shape of a risen bulk is ignored.

use super::recipe::{Recipe, henry};
use super::request::{Air, Container, DoughShape, RiseRequest, Stage};
use super::responses::{self, ResponseTable, Responses};
use super::series::{Grid, Series, schedule};
use crate::units::DOUGH_G_PER_CM3;

/// Shells of equal thickness, and fewer for small pieces: below 3 kg twelve do as well (section 9).
const SHELLS: usize = 24;
const SHELLS_SMALL: usize = 12;
const SMALL_G: f64 = 3000.0;
/// Conductivity of dough, W/(m·K) (textbook, ±10 %).
const CONDUCTIVITY: f64 = 0.42;
/// Density, kg/m³.
const DENSITY: f64 = 1000.0 * DOUGH_G_PER_CM3;
/// A piece out of the freezer starts at about this, °C; the heat that melting takes is left out (assumed).
const THAWING_C: f64 = 0.0;

impl Air {
    /// Surface coefficient of the air, W/(m²·K) (textbook order, calibrated).
    fn coefficient(self) -> f64 {
        match self {
            Air::Room | Air::Fridge => 8.0,
            Air::Fan | Air::Freezer => 14.0,
        }
    }
}

impl Container {
    /// Resistance, m²·K/W (assumed).
    fn resistance(self) -> f64 {
        match self {
            Container::Open => 0.0,
            Container::Bag => 0.01,
            Container::Tub => 0.02,
            Container::Box => 0.06,
            Container::Stack => 0.15,
        }
    }
}

impl DoughShape {
    /// Real area against that of the sphere or slab (assumed: balls flatten).
    fn area_factor(self) -> f64 {
        match self {
            DoughShape::Ball => 1.35,
            DoughShape::Bulk => 1.20,
            DoughShape::Slab => 1.0,
        }
    }
}

/// Shells, weights and conductances of one piece in one place.
struct HeatPiece<const N: usize> {
    /// Share of the volume per shell; sums to 1.
    weights: [f64; N],
    /// Unnormalised volumes and inner conductances, per unit of the geometry.
    volumes: [f64; N],
    /// Between a shell and the next; the last is not used.
    inner: [f64; N],
    to_air: f64,
    /// Surface interpolation: 2k/dr and h.
    k_surface: f64,
    h: f64,
}

impl<const N: usize> HeatPiece<N> {
    fn of(stage: &Stage) -> Self {
        let (power, radius) = match stage.shape {
            DoughShape::Slab => (0, stage.thickness_mm.unwrap_or(0.0) / 1000.0 / 2.0),
            _ => {
                let kg = stage.piece_g / 1000.0;
                (
                    2,
                    (3.0 * kg / (4.0 * std::f64::consts::PI * DENSITY)).cbrt(),
                )
            }
        };
        let h = stage.shape.area_factor()
            / (1.0 / stage.air.coefficient() + stage.container.resistance());
        let dr = radius / N as f64;
        let face = |j: usize| (j as f64 * dr).powi(power);
        let mut volumes = [0.0; N];
        for (i, v) in volumes.iter_mut().enumerate() {
            let (a, b) = (i as f64 * dr, (i + 1) as f64 * dr);
            *v = (b.powi(power + 1) - a.powi(power + 1)) / f64::from(power + 1);
        }
        let total: f64 = volumes.iter().sum();
        let mut inner = [0.0; N];
        for (i, g) in inner.iter_mut().enumerate().take(N - 1) {
            *g = CONDUCTIVITY * face(i + 1) / dr;
        }
        HeatPiece {
            weights: volumes.map(|v| v / total),
            volumes,
            inner,
            to_air: face(N) / (1.0 / h + dr / (2.0 * CONDUCTIVITY)),
            k_surface: 2.0 * CONDUCTIVITY / dr,
            h,
        }
    }

    fn mean(&self, t: &[f64; N]) -> f64 {
        self.weights.iter().zip(t).map(|(w, t)| w * t).sum()
    }

    /// The responses averaged over the shells. The table is straight between two of its rows, so where all shells lie
    /// there, as a dough does that has come to rest, the average is the response of the mean.
    fn answers(&self, t: &[f64; N], mean_c: f64, table: &ResponseTable) -> Responses {
        let (coldest, hottest) = t
            .iter()
            .fold((t[0], t[0]), |(a, b), &t| (a.min(t), b.max(t)));
        if responses::between_the_same_rows(coldest, hottest) {
            return table.at(mean_c);
        }
        let mut answers = Responses::default();
        for (t, w) in t.iter().zip(&self.weights) {
            answers.add(table.at(*t), *w);
        }
        answers
    }
}

/// The tridiagonal system of one step length, factored once.
struct Factored<const N: usize> {
    dt_h: f64,
    capacity: [f64; N],
    /// Thomas: inverse pivots and reduced upper diagonal.
    inverse: [f64; N],
    upper: [f64; N],
}

impl<const N: usize> Factored<N> {
    fn of(piece: &HeatPiece<N>, specific_heat: f64, dt_h: f64) -> Self {
        let capacity = piece
            .volumes
            .map(|v| DENSITY * specific_heat * 1000.0 * v / (dt_h * 3600.0));
        let (mut inverse, mut upper) = ([0.0; N], [0.0; N]);
        for i in 0..N {
            let below = if i > 0 { piece.inner[i - 1] } else { 0.0 };
            let above = if i < N - 1 {
                piece.inner[i]
            } else {
                piece.to_air
            };
            let mut pivot = capacity[i] + below + above;
            if i > 0 {
                pivot += below * upper[i - 1];
            }
            inverse[i] = 1.0 / pivot;
            upper[i] = if i < N - 1 { -above * inverse[i] } else { 0.0 };
        }
        Factored {
            dt_h,
            capacity,
            inverse,
            upper,
        }
    }

    /// One step of backward Euler: temperatures after `dt_h` at `place_c`, `heat` W per m³.
    fn advance(&self, piece: &HeatPiece<N>, t: &mut [f64; N], place_c: f64, heat: f64) {
        let mut right = [0.0; N];
        for i in 0..N {
            let mut d = self.capacity[i] * t[i] + heat * piece.volumes[i];
            if i == N - 1 {
                d += piece.to_air * place_c;
            }
            if i > 0 {
                d += piece.inner[i - 1] * right[i - 1];
            }
            right[i] = d * self.inverse[i];
        }
        t[N - 1] = right[N - 1];
        for i in (0..N - 1).rev() {
            t[i] = right[i] - self.upper[i] * t[i + 1];
        }
    }
}

/// The temperature series inside the dough. `heat_w_per_kg` is aligned with the steps; empty means none.
pub fn inside(
    r: &RiseRequest,
    recipe: &Recipe,
    table: &ResponseTable,
    grid: Grid,
    extra_h: f64,
    heat_w_per_kg: &[f64],
) -> Series {
    let heaviest = r.stages.iter().map(|s| s.piece_g).fold(0.0, f64::max);
    if heaviest < SMALL_G {
        in_shells::<SHELLS_SMALL>(r, recipe, table, grid, extra_h, heat_w_per_kg)
    } else {
        in_shells::<SHELLS>(r, recipe, table, grid, extra_h, heat_w_per_kg)
    }
}

/// The same in so many shells.
fn in_shells<const N: usize>(
    r: &RiseRequest,
    recipe: &Recipe,
    table: &ResponseTable,
    grid: Grid,
    extra_h: f64,
    heat_w_per_kg: &[f64],
) -> Series {
    let stages = r.lasting_stages();
    let (mut steps, planned) = schedule(&stages, grid, extra_h);
    let mut shells = [r.dough_c; N];
    let mut piece: Option<HeatPiece<N>> = None;
    let mut factored: Option<Factored<N>> = None;
    for (i, step) in steps.iter_mut().enumerate() {
        let stage = &stages[step.stage];
        if step.first {
            if let Some(former) = &piece
                && evens_out(stage, &stages[step.stage - 1])
            {
                shells = [former.mean(&shells); N];
            }
            if step.stage > 0 && stages[step.stage - 1].is_frozen() {
                shells = [THAWING_C; N];
            }
            if let Some(measured) = stage.starts_at_c {
                shells = [measured; N];
            }
            piece = Some(HeatPiece::of(stage));
            factored = None;
        }
        if stage.is_frozen() {
            // No ice in the model: nothing works, and the piece leaves at the melting point.
            let place_c = stage.place_at(0.0);
            (step.mean_c, step.core_c, step.surface_c, step.place_c) =
                (place_c, place_c, place_c, place_c);
            step.dissolves = henry(place_c);
            continue;
        }
        let Some(p) = &piece else {
            unreachable!("the first step of a stage makes its piece")
        };
        if factored.as_ref().is_none_or(|f| f.dt_h != step.hours) {
            factored = Some(Factored::of(p, recipe.specific_heat, step.hours));
        }
        let place_c = stage.place_at(r.start_clock_h + step.end_h);
        let heat = heat_w_per_kg.get(i).copied().unwrap_or(0.0) * DENSITY;
        if let Some(f) = &factored {
            f.advance(p, &mut shells, place_c, heat);
        }
        step.mean_c = p.mean(&shells);
        step.responses = p.answers(&shells, step.mean_c, table);
        step.dissolves = henry(step.mean_c);
        step.core_c = shells[0];
        step.surface_c = (p.k_surface * shells[N - 1] + p.h * place_c) / (p.k_surface + p.h);
        step.place_c = place_c;
        step.core_gas = table.at(shells[0]).gas;
    }
    Series {
        stages,
        steps,
        planned,
    }
}

/// Cutting and handling mix the dough; a mere change of place keeps its warm core.
fn evens_out(stage: &Stage, former: &Stage) -> bool {
    stage.event.evens_out()
        || stage.shape != former.shape
        || stage.piece_g != former.piece_g
        || stage.thickness_mm != former.thickness_mm
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::rise::request::tests::{bulk, plain_dough};

    /// Hours until the mean has fallen by 63 % of the way from 24 to 4 °C.
    fn cooling_hours(stage: Stage) -> f64 {
        let r = RiseRequest {
            stages: vec![stage],
            ..plain_dough()
        };
        let series = inside(
            &r,
            &Recipe::of(&r),
            &ResponseTable::book(),
            Grid::STANDARD,
            0.0,
            &[],
        );
        series
            .steps
            .iter()
            .find(|s| s.mean_c <= 24.0 - 20.0 * (1.0 - (-1.0f64).exp()))
            .map_or(f64::INFINITY, |s| s.end_h)
    }

    #[test]
    fn the_printed_cooling_times_come_out() {
        let ball = |container, air| Stage {
            piece_g: 250.0,
            shape: DoughShape::Ball,
            container,
            air,
            ..bulk(24.0, 4.0)
        };
        let tub = |g| Stage {
            piece_g: g,
            air: Air::Fridge,
            ..bulk(24.0, 4.0)
        };
        for (stage, hours) in [
            (ball(Container::Open, Air::Fridge), 1.2),
            (ball(Container::Tub, Air::Fridge), 1.4),
            (ball(Container::Box, Air::Fridge), 1.7),
            (ball(Container::Stack, Air::Fridge), 2.4),
            (ball(Container::Box, Air::Fan), 1.25),
            (tub(1000.0), 2.6),
            (tub(2600.0), 3.8),
            (tub(20_000.0), 9.1),
        ] {
            let got = cooling_hours(stage.clone());
            assert!(
                (got - hours).abs() <= 0.06,
                "{stage:?}: {got} against {hours}"
            );
        }
    }

    #[test]
    fn the_core_of_a_large_bulk_stays_warm() {
        let r = RiseRequest {
            stages: vec![Stage {
                piece_g: 20_000.0,
                air: Air::Fridge,
                ..bulk(24.0, 4.0)
            }],
            ..plain_dough()
        };
        let s = inside(
            &r,
            &Recipe::of(&r),
            &ResponseTable::book(),
            Grid::STANDARD,
            0.0,
            &[],
        );
        let core_at = |h: f64| s.steps.iter().find(|s| s.end_h >= h - 1e-9).unwrap().core_c;
        assert!((core_at(10.0) - 16.0).abs() < 0.6, "{}", core_at(10.0));
        assert!((core_at(17.0) - 10.0).abs() < 0.6, "{}", core_at(17.0));
    }

    /// Mean and core of a sphere that is put from `t0` into air at `ta`, from the series solution: Bi = hR/k, Fo = at/R².
    fn analytic(bi: f64, fo: f64) -> (f64, f64) {
        let (mut mean, mut core) = (0.0, 0.0);
        for n in 0..60 {
            // The roots of 1 − ζ·cot ζ = Bi lie one in each (nπ, (n+1)π).
            let (mut low, mut high) = (
                n as f64 * std::f64::consts::PI + 1e-9,
                (n + 1) as f64 * std::f64::consts::PI - 1e-9,
            );
            for _ in 0..80 {
                let mid = 0.5 * (low + high);
                if 1.0 - mid / mid.tan() < bi {
                    low = mid;
                } else {
                    high = mid;
                }
            }
            let z = 0.5 * (low + high);
            let c = 4.0 * (z.sin() - z * z.cos()) / (2.0 * z - (2.0 * z).sin());
            let fades = (-z * z * fo).exp();
            core += c * fades;
            mean += c * fades * 3.0 * (z.sin() - z * z.cos()) / z.powi(3);
        }
        (mean, core)
    }

    #[test]
    fn a_kilo_cools_as_the_analytic_sphere_does() {
        let r = RiseRequest {
            stages: vec![Stage {
                piece_g: 1000.0,
                air: Air::Fridge,
                ..bulk(9.0, 4.0)
            }],
            ..plain_dough()
        };
        let recipe = Recipe::of(&r);
        let radius = (3.0 / (4.0 * std::f64::consts::PI * DENSITY)).cbrt();
        let h = 1.20 / (1.0 / 8.0 + 0.02);
        let bi = h * radius / CONDUCTIVITY;
        assert!((bi - 1.18).abs() < 0.01, "{bi}");
        let diffusivity = CONDUCTIVITY / (DENSITY * recipe.specific_heat * 1000.0);
        for (shells, series) in [
            (
                12,
                in_shells::<12>(
                    &r,
                    &recipe,
                    &ResponseTable::book(),
                    Grid::STANDARD,
                    0.0,
                    &[],
                ),
            ),
            (
                24,
                in_shells::<24>(
                    &r,
                    &recipe,
                    &ResponseTable::book(),
                    Grid::STANDARD,
                    0.0,
                    &[],
                ),
            ),
        ] {
            for s in series
                .steps
                .iter()
                .filter(|s| (0.5..=8.0).contains(&s.end_h))
            {
                let fo = diffusivity * s.end_h * 3600.0 / (radius * radius);
                let (mean, core) = analytic(bi, fo);
                let near = |got: f64, share: f64| (got - (4.0 + 20.0 * share)).abs();
                let most = if shells == 24 { 0.06 } else { 0.12 };
                assert!(
                    near(s.mean_c, mean) < most,
                    "{shells} mean at {} h",
                    s.end_h
                );
                // The innermost shell is not quite the centre.
                assert!(
                    near(s.core_c, core) < 2.0 * most,
                    "{shells} core at {} h",
                    s.end_h
                );
            }
        }
    }

    #[test]
    fn more_shells_change_nothing_that_is_shown() {
        use crate::rise::kinetics::Kinetics;
        let r = RiseRequest {
            yeast_percent: 0.2,
            stages: vec![
                bulk(2.0, 22.0),
                Stage {
                    air: Air::Fridge,
                    piece_g: 250.0,
                    shape: DoughShape::Ball,
                    container: Container::Box,
                    event: crate::rise::Event::Ball,
                    ..bulk(46.0, 4.0)
                },
                Stage {
                    piece_g: 250.0,
                    shape: DoughShape::Ball,
                    container: Container::Box,
                    ..bulk(5.0, 22.0)
                },
            ],
            ..plain_dough()
        };
        let k = Kinetics::new(&r, &[]);
        let ripe = |series: &Series| {
            let mut last = 0.0;
            k.run(series, series.planned, |_, _, m| last = m.ripeness.gas());
            last
        };
        let with = [
            ripe(&in_shells::<12>(
                &r,
                &k.recipe,
                &k.table,
                Grid::STANDARD,
                0.0,
                &[],
            )),
            ripe(&in_shells::<24>(
                &r,
                &k.recipe,
                &k.table,
                Grid::STANDARD,
                0.0,
                &[],
            )),
            ripe(&in_shells::<48>(
                &r,
                &k.recipe,
                &k.table,
                Grid::STANDARD,
                0.0,
                &[],
            )),
        ];
        assert!(
            (with[0] - with[1]).abs() < 4e-4 && (with[1] - with[2]).abs() < 2e-4,
            "{with:?}"
        );
    }
}
