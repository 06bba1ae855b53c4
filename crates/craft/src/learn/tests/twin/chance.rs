//! A generator of its own, seeded, so that the experiment is the same on every machine.

/// SplitMix64.
pub(super) struct Chance(u64);

impl Chance {
    pub fn seeded(seed: u64) -> Chance {
        // Seeds next to each other must not begin alike.
        let mut c = Chance(seed.wrapping_mul(0x9E37_79B9_7F4A_7C15) ^ 0xD1B5_4A32_D192_ED03);
        c.next();
        c
    }
    fn next(&mut self) -> u64 {
        self.0 = self.0.wrapping_add(0x9E37_79B9_7F4A_7C15);
        let mut z = self.0;
        z = (z ^ (z >> 30)).wrapping_mul(0xBF58_476D_1CE4_E5B9);
        z = (z ^ (z >> 27)).wrapping_mul(0x94D0_49BB_1331_11EB);
        z ^ (z >> 31)
    }
    /// 0 to 1.
    pub fn share(&mut self) -> f64 {
        (self.next() >> 11) as f64 / (1u64 << 53) as f64
    }
    pub fn between(&mut self, low: f64, high: f64) -> f64 {
        low + (high - low) * self.share()
    }
    pub fn below(&mut self, n: usize) -> usize {
        ((self.share() * n as f64) as usize).min(n - 1)
    }
    pub fn one_in(&mut self, chance: f64) -> bool {
        self.share() < chance
    }
    /// N(0, sd).
    pub fn normal(&mut self, sd: f64) -> f64 {
        let (u, v) = (self.share().max(1e-300), self.share());
        sd * (-2.0 * u.ln()).sqrt() * (2.0 * std::f64::consts::PI * v).cos()
    }
    /// Student's t with `k` degrees, scaled to this sd.
    pub fn tailed(&mut self, k: u32, sd: f64) -> f64 {
        let z = self.normal(1.0);
        let squares: f64 = (0..k).map(|_| self.normal(1.0).powi(2)).sum();
        let k = f64::from(k);
        sd * z / (squares / k).sqrt() / (k / (k - 2.0)).sqrt()
    }
}
