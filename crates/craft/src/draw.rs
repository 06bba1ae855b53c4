//! Numbers that look like chance and come alike from the same seed: for blind orders and for cases to practise on.

/// Draws one number after the other (splitmix).
#[derive(Debug, Clone)]
pub(crate) struct Draw(u64);

impl Draw {
    /// From a seed.
    pub fn of(seed: u64) -> Draw {
        Draw(seed)
    }
    fn next(&mut self) -> u64 {
        self.0 = self.0.wrapping_add(0x9E37_79B9_7F4A_7C15);
        let mut z = self.0;
        z = (z ^ (z >> 30)).wrapping_mul(0xBF58_476D_1CE4_E5B9);
        z = (z ^ (z >> 27)).wrapping_mul(0x94D0_49BB_1331_11EB);
        z ^ (z >> 31)
    }
    /// Below `n`, which is not 0.
    pub fn below(&mut self, n: usize) -> usize {
        (self.next() % n as u64) as usize
    }
    /// From `low` to `high`.
    pub fn between(&mut self, low: f64, high: f64) -> f64 {
        low + (high - low) * (self.next() >> 11) as f64 / (1u64 << 53) as f64
    }
    /// The same in steps.
    pub fn step(&mut self, low: f64, high: f64, step: f64) -> f64 {
        (self.between(low, high) / step).round() * step
    }
    /// One of a list that is not empty.
    pub fn one<T: Copy>(&mut self, of: &[T]) -> T {
        of[self.below(of.len())]
    }
    /// Puts a list into another order.
    pub fn shuffle<T>(&mut self, all: &mut [T]) {
        for i in (1..all.len()).rev() {
            let j = self.below(i + 1);
            all.swap(i, j);
        }
    }
}
