//! What a kitchen may be like: ranges that a sheet, its water and the kitchen's own page ask for alike.

use crate::fact;
use crate::fact::Value;
use crate::refusal::Check;

/// Its height above the sea, m.
pub(crate) fn altitude_into(c: &mut Check, m: f64) {
    let name = fact!("f-altitude");
    c.range("altitude_m", name, m, -400.0, 4500.0, Value::Metres);
}
/// The room, °C.
pub(crate) fn room_into(c: &mut Check, v: f64) {
    c.range("room_c", fact!("f-room"), v, -2.0, 42.0, Value::Celsius);
}
/// The fridge as it is said, °C: one that runs warm is told so, not refused.
pub(crate) fn fridge_into(c: &mut Check, v: f64) {
    c.range("fridge_c", fact!("f-fridge"), v, -2.0, 20.0, Value::Celsius);
}
/// The flour, °C: also out of a freezer.
pub(crate) fn flour_into(c: &mut Check, v: f64) {
    c.range("flour_c", fact!("f-flour"), v, -20.0, 45.0, Value::Celsius);
}
/// How warm a dough may be wanted off the mixer, °C.
pub(crate) fn target_dough_into(c: &mut Check, v: f64) {
    let name = fact!("f-dough-off-the-mixer");
    c.range("target_dough_c", name, v, 5.0, 35.0, Value::Celsius);
}
/// Water from the tap, °C.
pub(crate) fn tap_water_into(c: &mut Check, v: f64) {
    let name = fact!("f-tap-water");
    c.range("tap_water_c", name, v, 0.0, 35.0, Value::Celsius);
}
