//! What chance alone would do: exact, because a table of six is no large number.

use statrs::distribution::{Beta, Binomial, ContinuousCDF, DiscreteCDF};

/// What is called shown: chance alone would do it in fewer than one table of twenty.
pub const SHOWN_BELOW: f64 = 0.05;
/// A next trial is made so large that it would show a difference like the one that was seen four times of five.
const POWER: f64 = 0.8;
/// More tasters than this are nowhere.
const MOST_LOOKED_AT: u32 = 60;

/// How often chance alone would bring so uneven a split, or a more uneven one, 0 to 1: the exact sign test, two-sided, of those
/// who did not say "the same".
pub fn sign_test(for_a: u32, for_b: u32) -> f64 {
    let n = u64::from(for_a) + u64::from(for_b);
    let Some(even) = Binomial::new(0.5, n).ok().filter(|_| n > 0) else {
        return 1.0;
    };
    (2.0 * even.cdf(u64::from(for_a.min(for_b)))).min(1.0)
}

/// The share of those for the first, with its exact interval: 19 of 20 such intervals hold the true share.
pub fn share(for_a: u32, for_b: u32) -> (f64, f64, f64) {
    let (k, n) = (f64::from(for_a), f64::from(for_a) + f64::from(for_b));
    if n == 0.0 {
        return (0.0, 0.5, 1.0);
    }
    let edge = |a: f64, b: f64, p: f64| Beta::new(a, b).map_or(0.5, |d| d.inverse_cdf(p));
    let low = if k == 0.0 {
        0.0
    } else {
        edge(k, n - k + 1.0, SHOWN_BELOW / 2.0)
    };
    let high = if k == n {
        1.0
    } else {
        edge(k + 1.0, n - k, 1.0 - SHOWN_BELOW / 2.0)
    };
    (low, k / n, high)
}

/// Chances of several tests at once, each as it stands among them (Holm): the smallest times their number, the next times one
/// fewer, never below one before it. Who asks seven questions finds something in one of three tables by chance alone; this holds
/// the whole answer to one of twenty.
pub fn held_together(chances: &[f64]) -> Vec<f64> {
    let mut order: Vec<usize> = (0..chances.len()).collect();
    order.sort_by(|&a, &b| chances[a].total_cmp(&chances[b]));
    let mut out = vec![1.0; chances.len()];
    let mut least: f64 = 0.0;
    for (rank, &i) in order.iter().enumerate() {
        let times = (chances.len() - rank) as f64;
        least = least.max((chances[i] * times).min(1.0));
        out[i] = least;
    }
    out
}

/// So many tasters who agree are the fewest that show anything among so many pairs.
pub fn fewest_that_prove(pairs: usize) -> u8 {
    let limit = SHOWN_BELOW / pairs.max(1) as f64;
    (1..=60u8)
        .find(|n| sign_test(u32::from(*n), 0) < limit)
        .unwrap_or(60)
}

/// How many tasters it takes to show a difference like the one that was seen, four times of five; `None` where no table is that
/// large. The share that was seen is drawn towards even: a few tasters overstate it.
pub fn tasters_wanted(for_a: u32, for_b: u32, pairs: usize) -> Option<u32> {
    let (most, all) = (for_a.max(for_b), for_a + for_b);
    let true_share = (f64::from(most) + 1.0) / (f64::from(all) + 2.0);
    let limit = SHOWN_BELOW / pairs.max(1) as f64;
    (1..=MOST_LOOKED_AT).find(|&n| {
        // The fewest for one side that would be shown.
        let Some(least) = (n.div_ceil(2)..=n).find(|k| sign_test(*k, n - k) < limit) else {
            return false;
        };
        let enough = Binomial::new(true_share, u64::from(n))
            .map(|d| d.sf(u64::from(least).saturating_sub(1)));
        enough.is_ok_and(|p| p >= POWER)
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_sign_test_is_the_binomial_tail() {
        // 6 of 6: 2/64; 7 of 8: 2·(1+8)/256; even: 1.
        assert!((sign_test(6, 0) - 0.03125).abs() < 1e-12);
        assert!((sign_test(1, 7) - 0.0703125).abs() < 1e-12);
        assert_eq!(sign_test(3, 3), 1.0);
        assert_eq!(sign_test(0, 0), 1.0);
    }

    #[test]
    fn an_interval_holds_its_share_and_has_the_books_edges() {
        // Ten of ten: the lower edge is (α/2)^(1/10).
        let (low, mid, high) = share(10, 0);
        assert!((low - 0.025f64.powf(0.1)).abs() < 1e-6, "{low}");
        assert_eq!((mid, high), (1.0, 1.0));
        let (low, mid, high) = share(7, 3);
        assert!(low < mid && mid < high);
        // The edge is where the tail holds α/2 (definition).
        let tail = Binomial::new(low, 10).unwrap().sf(6);
        assert!((tail - 0.025).abs() < 1e-6, "{tail}");
        assert_eq!(share(0, 0), (0.0, 0.5, 1.0));
    }

    #[test]
    fn many_questions_need_a_smaller_chance_each() {
        let held = held_together(&[0.01, 0.04, 0.03]);
        let want = [0.03, 0.06, 0.06];
        assert!(
            held.iter().zip(want).all(|(a, b)| (a - b).abs() < 1e-12),
            "{held:?}"
        );
        assert_eq!(held_together(&[]), Vec::<f64>::new());
    }

    #[test]
    fn pure_chance_is_called_shown_in_fewer_than_one_table_of_twenty() {
        // Every table of ten tasters that chance can bring, weighed: what is called shown has less than that share.
        for n in [6u32, 10, 17] {
            let even = Binomial::new(0.5, u64::from(n)).unwrap();
            let shown: f64 = (0..=n)
                .filter(|k| sign_test(*k, n - k) < SHOWN_BELOW)
                .map(|k| statrs::distribution::Discrete::pmf(&even, u64::from(k)))
                .sum();
            assert!(shown < SHOWN_BELOW, "{n}: {shown}");
        }
    }

    #[test]
    fn a_clear_lead_wants_few_more_and_an_even_one_no_table() {
        let clear = tasters_wanted(5, 0, 1).unwrap();
        let fair = tasters_wanted(8, 2, 1).unwrap();
        assert!(clear > 5 && clear < fair, "{clear} {fair}");
        assert_eq!(tasters_wanted(4, 4, 1), None);
    }
}
