//! Numbers as a person writes them.

/// A number as a person writes it: at most three decimals, no trailing zeros.
pub fn plain(value: f64) -> String {
    let text = format!("{value:.3}");
    let text = text.trim_end_matches('0').trim_end_matches('.');
    if text == "-0" {
        "0".into()
    } else {
        text.into()
    }
}

/// A small amount to two significant digits: more would be false precision.
pub fn two_digits(value: f64) -> String {
    if value <= 0.0 {
        return "0".into();
    }
    let decimals = (1 - value.log10().floor() as i32).clamp(0, 6) as usize;
    format!("{value:.decimals$}")
}
