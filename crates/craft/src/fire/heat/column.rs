//! One column through one step: conduct, boil, remember the hottest.

use super::cells::{CP_WATER, Cells};
use super::surround::{EPS_FOOD, Sky, Surround, radiative};
use super::table::{Tables, bound_boiling};
use crate::fire::boiling::LV;
use crate::fire::setup::PanNow;

/// Section 3: dough, W/mK.
const K_COLD: f64 = 0.40;
const K_HOT: f64 = 0.60;
const K_DRY: f64 = 0.075;
/// Moisture below which the conductivity falls to that of a crust, kg/kg.
const DRYING_X: f64 = 0.25;
/// Topping: cold, boiling, dry.
const TOPPING_COLD: f64 = 0.55;
const TOPPING_HOT: f64 = 1.6;
const TOPPING_DRY: f64 = 0.25;
/// Heat that drying takes at a surface below boiling, J/kg.
const LV_SURFACE: f64 = 2.35e6;
const WETNESS_DOUGH: f64 = 0.25;
const WETNESS_TOPPING: f64 = 0.22;
/// Share of its dry mass below which a cell counts as dry, kg/kg.
const BONE_DRY: f64 = 1e-5;

/// What a step left at the faces: °C and W/m².
#[derive(Debug, Clone, Copy, Default)]
pub(crate) struct Face {
    /// Under the dough, at its skin; and the floor's uppermost cell.
    pub base_c: f64,
    pub floor_c: f64,
    /// On top of whatever is on top.
    pub top_c: f64,
    pub into_base: f64,
    pub into_top: f64,
}

/// One column with at most `N` cells.
#[derive(Clone)]
pub(crate) struct HeatColumn<const N: usize> {
    pub cells: Cells,
    pub t: [f64; N],
    pub water: [f64; N],
    hottest: [f64; N],
    /// Half resistance of each cell, m²K/W, and its heat capacity, J/m²K, in this step.
    half: [f64; N],
    heat: [f64; N],
    link: [f64; N],
    forward: [f64; N],
    right: [f64; N],
    flow: [f64; N],
    dx: [f64; N],
    /// Conductivity and thickness of food cells in this step.
    k: [f64; N],
    thick: [f64; N],
    dry_j: [f64; N],
    inverse_dry: [f64; N],
    pub face: Face,
    /// Wall of the pan as a fin: 0.5 · 4 wall/disc.
    fin: f64,
    /// Heat that came in and heat that left with vapour so far, J/m².
    pub heat_in: f64,
    pub heat_vapour: f64,
    tables: Tables,
}

impl<const N: usize> HeatColumn<N> {
    /// A column with its floor charged from `floor_c` at the face to `core_c` at the bottom, all food at `dough_c`.
    pub(crate) fn new(
        cells: Cells,
        floor_c: f64,
        core_c: f64,
        pan: Option<&PanNow>,
        dough_c: f64,
        disc_mm: f64,
    ) -> Self {
        let n = cells.end;
        assert!(n <= N);
        let mut t = [dough_c; N];
        let depth: f64 = cells.dx[..cells.pan].iter().sum();
        let mut below = 0.0;
        for (t, dx) in t.iter_mut().zip(&cells.dx[..cells.pan]) {
            let share = (below + 0.5 * dx) / depth;
            *t = core_c + (floor_c - core_c) * share;
            below += dx;
        }
        let mut fin = 0.0;
        if let Some(p) = pan {
            t[cells.pan..cells.dough].fill(p.pan_c);
            fin = 0.5 * 4.0 * p.wall_mm / disc_mm;
        }
        let mut c = HeatColumn {
            t,
            water: [0.0; N],
            hottest: [dough_c; N],
            half: [0.0; N],
            heat: [0.0; N],
            link: [0.0; N],
            forward: [0.0; N],
            right: [0.0; N],
            flow: [0.0; N],
            dx: [0.0; N],
            k: [0.0; N],
            thick: [0.0; N],
            dry_j: [0.0; N],
            inverse_dry: [0.0; N],
            face: Face {
                base_c: dough_c,
                floor_c,
                top_c: dough_c,
                into_base: 0.0,
                into_top: 0.0,
            },
            fin,
            heat_in: 0.0,
            heat_vapour: 0.0,
            tables: Tables::get(),
            cells,
        };
        c.water[..n].copy_from_slice(&c.cells.water);
        c.dx[..n].copy_from_slice(&c.cells.dx);
        c.dry_j[..n].copy_from_slice(&c.cells.dry_j);
        for i in 0..n {
            if i < c.cells.dough {
                c.half[i] = c.cells.dx[i] / (2.0 * c.cells.k[i]);
                c.heat[i] = c.cells.dry_j[i];
            } else {
                c.inverse_dry[i] = 1.0 / c.cells.dry[i];
            }
        }
        for i in 0..c.cells.dough.saturating_sub(1) {
            c.link[i] = 1.0 / (c.half[i] + c.half[i + 1]);
        }
        c
    }

    /// Takes the floor's temperatures from another run.
    pub(crate) fn set_floor(&mut self, floor: &[f64]) {
        self.t[..self.cells.pan].copy_from_slice(floor);
    }

    /// Thickness of a dough cell as it stands, m: the rise of the hottest it has been.
    #[inline]
    pub(crate) fn thickness(&self, i: usize) -> f64 {
        let spring = self.cells.spring - 1.0;
        self.dx[i] * (1.0 + spring * ((self.hottest[i] - 35.0) * 0.02).clamp(0.0, 1.0))
    }

    /// Moisture of a food cell, kg/kg.
    #[inline]
    pub(crate) fn moisture(&self, i: usize) -> f64 {
        self.water[i] * self.inverse_dry[i]
    }

    /// The last cell that takes part: the cheese once it is on.
    #[inline]
    pub(crate) fn top(&self, cheese_on: bool) -> usize {
        if cheese_on {
            self.cells.end - 1
        } else {
            self.cells.cheese - 1
        }
    }

    /// One step.
    pub(crate) fn step(&mut self, sky: &Sky, s: &Surround) {
        let top = self.top(s.cheese_on);
        // Said once here, so that no cell's access is checked again below.
        assert!(top < N && self.cells.sauce <= N && self.cells.dough < N && self.cells.dough > 0);
        self.properties(top);
        self.links(s, top);
        let dry_before = self.face.top_c;
        let (drying, top_g, eq_c) = self.sky_above(sky, s, top, dry_before);
        self.solve(sky, s, top, top_g, eq_c);
        let dough = self.cells.dough;
        self.face.into_top = top_g * (eq_c - self.t[top]);
        self.face.top_c = self.t[top] + self.face.into_top * self.half[top];
        self.face.into_base = self.link[dough - 1] * (self.t[dough - 1] - self.t[dough]);
        self.face.base_c = self.t[dough] + self.face.into_base * self.half[dough];
        // The uppermost cell, a millimetre or two deep: what an infrared reading of the bare floor comes to at once.
        self.face.floor_c = self.t[self.cells.pan - 1];
        self.water[top] -= drying * s.dt;
        self.heat_in += s.dt * (self.face.into_top + drying * LV_SURFACE);
        self.heat_vapour += s.dt * drying * (LV_SURFACE + CP_WATER * self.t[top]);
        self.boil(sky, top);
    }

    /// Conductivity, thickness and heat capacity of the food as it stands.
    #[inline]
    fn properties(&mut self, top: usize) {
        for i in self.cells.dough..self.cells.sauce {
            let s = (self.moisture(i) * (1.0 / DRYING_X)).min(1.0);
            let hot = self.tables.hot(self.t[i]);
            let k = K_DRY + (K_COLD + (K_HOT - K_COLD) * hot - K_DRY) * s;
            self.k[i] = k;
            self.thick[i] = self.thickness(i);
            self.heat[i] = self.dry_j[i] + self.water[i] * CP_WATER;
        }
        for i in self.cells.sauce..=top {
            let s = (self.moisture(i) * (1.0 / DRYING_X)).min(1.0);
            let hot = self.tables.hot(self.t[i]);
            let k =
                TOPPING_DRY + (TOPPING_COLD + (TOPPING_HOT - TOPPING_COLD) * hot - TOPPING_DRY) * s;
            self.k[i] = k;
            self.thick[i] = self.dx[i];
            self.heat[i] = self.dry_j[i] + self.water[i] * CP_WATER;
        }
        // Only the faces are asked for their own resistance; between food cells the link says it in one division.
        for i in [self.cells.dough, top] {
            self.half[i] = self.thick[i] / (2.0 * self.k[i]);
        }
    }

    /// Conductances between neighbours; those within the floor and the pan never change.
    #[inline]
    fn links(&mut self, s: &Surround, top: usize) {
        let (pan, dough) = (self.cells.pan, self.cells.dough);
        if pan < dough {
            self.link[pan - 1] = 1.0 / (self.half[pan - 1] + 1.0 / s.floor_pan + self.half[pan]);
        }
        self.link[dough - 1] = 1.0 / (self.half[dough - 1] + 1.0 / s.contact + self.half[dough]);
        for i in dough..top {
            let (a, b) = (self.k[i], self.k[i + 1]);
            self.link[i] = 2.0 * a * b / (self.thick[i] * b + self.thick[i + 1] * a);
        }
        self.link[top] = 0.0;
    }

    /// Drying of the surface, kg/m²s; conductance to the sky, W/m²K; the temperature it pulls toward, °C.
    #[inline]
    fn sky_above(&self, sky: &Sky, s: &Surround, top: usize, surface_c: f64) -> (f64, f64, f64) {
        let wetness = if top < self.cells.sauce {
            WETNESS_DOUGH
        } else {
            WETNESS_TOPPING
        };
        let (e, _) = self.tables.water(self.moisture(top));
        let drying = sky
            .drying(wetness, 1.0 - e, surface_c)
            .min(0.2 * self.water[top] / s.dt);
        let hr = sky.shine * radiative(sky.dome_c, surface_c) * s.gain;
        let fixed = EPS_FOOD * sky.grill_w_m2 * s.gain - LV_SURFACE * drying;
        let h = (hr + sky.air_w_m2k).max(1e-6);
        let eq = (hr * sky.dome_c + sky.air_w_m2k * s.air_c + fixed) / h;
        (drying, 1.0 / (1.0 / h + self.half[top]), eq)
    }

    /// Implicit step of the conduction.
    #[inline]
    fn solve(&mut self, sky: &Sky, s: &Surround, top: usize, top_g: f64, eq_c: f64) {
        let dt = s.dt;
        let (below_g, below_c, below_w) = sky.below(self.t[0], s.air_c);
        let fin_at = self.cells.dough - 1;
        let fin_g = if self.fin > 0.0 && s.in_pan {
            self.fin * (0.7 * radiative(sky.dome_c, self.t[fin_at]) + sky.air_w_m2k)
        } else {
            0.0
        };
        // Rows, then elimination from both ends at once: two chains of divisions that do not wait for each other.
        let mut before = 0.0;
        for i in 0..=top {
            let up = dt * self.link[i];
            self.flow[i] = up;
            self.forward[i] = self.heat[i] + before + up;
            self.right[i] = self.heat[i] * self.t[i];
            before = up;
        }
        self.forward[0] += dt * below_g;
        self.right[0] += dt * (below_g * below_c + below_w);
        self.forward[fin_at] += dt * fin_g;
        self.right[fin_at] += dt * fin_g * s.air_c;
        self.forward[top] += dt * top_g;
        self.right[top] += dt * top_g * eq_c;
        let middle = top / 2;
        // A chain hands on the flow to the next row, and flow times what that row gives back.
        let (mut low_g, mut low_f, mut low_r) = (0.0, 0.0, 0.0);
        let (mut high_f, mut high_r) = (0.0, 0.0);
        let mut high_g = 0.0;
        for i in 0..middle {
            let m = 1.0 / (self.forward[i] - low_g * low_f);
            low_r = (self.right[i] + low_g * low_r) * m;
            low_g = self.flow[i];
            low_f = low_g * m;
            self.forward[i] = low_f;
            self.right[i] = low_r;

            let j = top - i;
            let m = 1.0 / (self.forward[j] - high_g * high_f);
            high_r = (self.right[j] + high_g * high_r) * m;
            high_g = self.flow[j - 1];
            high_f = high_g * m;
            self.forward[j] = high_f;
            self.right[j] = high_r;
        }
        for j in (middle + 1..=top - middle).rev() {
            let m = 1.0 / (self.forward[j] - high_g * high_f);
            high_r = (self.right[j] + high_g * high_r) * m;
            high_g = self.flow[j - 1];
            high_f = high_g * m;
            self.forward[j] = high_f;
            self.right[j] = high_r;
        }
        let m = 1.0 / (self.forward[middle] - low_g * low_f - high_g * high_f);
        let meet = (self.right[middle] + low_g * low_r + high_g * high_r) * m;
        self.t[middle] = meet;
        let (mut down, mut up) = (meet, meet);
        for k in 1..=middle {
            let (i, j) = (middle - k, middle + k);
            down = self.right[i] + self.forward[i] * down;
            self.t[i] = down;
            up = self.right[j] + self.forward[j] * up;
            self.t[j] = up;
        }
        for j in 2 * middle + 1..=top {
            up = self.right[j] + self.forward[j] * up;
            self.t[j] = up;
        }
        self.heat_in += dt * (below_g * (below_c - self.t[0]) + below_w)
            + dt * fin_g * (s.air_c - self.t[fin_at]);
    }

    /// Water that is hotter than it can be boils away; energy is kept exactly.
    #[inline]
    fn boil(&mut self, sky: &Sky, top: usize) {
        for i in self.cells.dough..=top {
            let t = self.t[i];
            if t > sky.boiling_c {
                let floor = BONE_DRY / self.inverse_dry[i];
                let can = self.water[i] - floor;
                if can > 0.0 {
                    let x = self.moisture(i).max(BONE_DRY);
                    let (e, ln_activity) = self.tables.water(x);
                    let (boils, slope) = bound_boiling(sky.inverse_boiling_k, e, ln_activity);
                    let over = t - boils;
                    if over > 0.0 {
                        let c = self.heat[i];
                        let gone =
                            (c * over / (LV + c * slope * self.inverse_dry[i])).clamp(0.0, can);
                        self.t[i] = t - gone * LV / c;
                        self.water[i] -= gone;
                        self.heat_vapour += gone * (LV + CP_WATER * self.t[i]);
                    }
                }
            }
            self.hottest[i] = self.hottest[i].max(self.t[i]);
        }
    }

    /// Heat in the whole column against 0 °C, J/m².
    pub(crate) fn stored(&self) -> f64 {
        (0..self.cells.end)
            .map(|i| (self.cells.dry_j[i] + self.water[i] * CP_WATER) * self.t[i])
            .sum()
    }
}
