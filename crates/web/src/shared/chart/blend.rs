//! The blend as one bar: each flour as long as its share, its name written on it.

use super::{Hold, Svg};
use crate::shared::tongue::{plain, say};
use craft::flour::FlourPart;

const WIDTH: f64 = 536.0;
const HEIGHT: f64 = 30.0;
/// Fills that a grey print still tells apart.
const FILLS: [&str; 8] = [
    "var(--inset)",
    "url(#h-pref)",
    "url(#h-ball)",
    "var(--rise-wash)",
    "url(#h-cold)",
    "var(--sheet)",
    "url(#h-bulk)",
    "url(#h-temper)",
];

/// The bar of a blend.
pub fn bar(flours: &[FlourPart]) -> String {
    let whole: f64 = flours
        .iter()
        .map(|f| f.share_percent)
        .sum::<f64>()
        .max(1e-9);
    let said: Vec<String> = flours
        .iter()
        .map(|f| {
            format!(
                "{} {} %",
                f.name,
                plain((f.share_percent * 10.0).round() / 10.0)
            )
        })
        .collect();
    let mut svg = Svg::new(
        WIDTH,
        HEIGHT,
        "blend",
        &say!("page-blend", join = said.join(", ")),
    );
    let mut x = 1.0;
    for (i, f) in flours.iter().enumerate() {
        let w = (WIDTH - 2.0) * f.share_percent / whole;
        let fill = FILLS[i % FILLS.len()];
        svg.rect(
            x,
            1.0,
            w,
            HEIGHT - 2.0,
            &format!(r#"fill="{fill}" stroke="var(--ink)" stroke-width="1.6""#),
        );
        let short = plain((f.share_percent * 10.0).round() / 10.0);
        let words = format!("{} {short}", f.name);
        // Seven and a half units a letter at this size.
        let fits = |t: &str| 7.6 * t.chars().count() as f64 + 14.0 < w;
        let text = if fits(&words) {
            Some(words)
        } else if fits(&short) {
            Some(short)
        } else {
            None
        };
        if let Some(t) = text {
            svg.text(x + 8.0, 20.0, "tx b halo on-inset", Hold::Start, &t);
        }
        x += w;
    }
    svg.end()
}
