//! A band of temperatures and a range of bake times, as precise as they are known.

use crate::fact::{Minutes, Seconds, Value};
use crate::units::Celsius;

/// From the lower to the upper, °C.
pub(super) fn band((low, high): (f64, f64)) -> Value {
    (Celsius(low), Celsius(high)).into()
}

/// To five seconds while it is short, to whole minutes around it else.
pub fn rough_time(a: f64, b: f64) -> Value {
    if b < 180.0 {
        let to5 = |s: f64| Seconds((s / 5.0).round() * 5.0);
        (to5(a), to5(b)).into()
    } else {
        let from = Minutes((a / 60.0).floor().max(1.0));
        (from, Minutes((b / 60.0).ceil())).into()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_rough_time_is_as_rough_as_it_is_known() {
        let seconds = |a, b| Value::from((Seconds(a), Seconds(b)));
        assert_eq!(rough_time(58.0, 97.0), seconds(60.0, 95.0));
        assert_eq!(rough_time(150.0, 250.0), seconds(120.0, 300.0));
    }
}
