//! Numbers as a person writes them.

/// A number as a person writes it: at most three decimals, no trailing zeros.
pub fn plain(value: f64) -> String {
    // Most are whole, and those are written at a fraction of the cost.
    if value.fract() == 0.0 && value.abs() < 1e15 {
        return itoa::Buffer::new().format(value as i64).into();
    }
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
