//! Times and beginnings of sentences, as all rooms of the fire say them.

/// A time of the bake in words: "76 s", "7 min 34 s"; never a figure that could be a clock's.
pub fn bake_time(s: f64) -> String {
    let s = s.round().max(0.0) as u32;
    match (s / 60, s % 60) {
        _ if s < 180 => format!("{s} s"),
        (min, 0) => format!("{min} min"),
        (min, s) => format!("{min} min {s:02} s"),
    }
}

/// "60 to 100 s", "4 to 6 min".
pub fn spoken_range(a: f64, b: f64) -> String {
    if b < 180.0 {
        let to5 = |s: f64| (s / 5.0).round() * 5.0;
        format!("{:.0} to {:.0} s", to5(a), to5(b))
    } else {
        format!(
            "{:.0} to {:.0} min",
            (a / 60.0).floor().max(1.0),
            (b / 60.0).ceil()
        )
    }
}

pub(super) fn capital(s: &str) -> String {
    let mut c = s.chars();
    c.next().map_or(String::new(), |f| {
        f.to_uppercase().collect::<String>() + c.as_str()
    })
}

pub(super) fn lower(s: &str) -> String {
    let mut c = s.chars();
    c.next().map_or(String::new(), |f| {
        f.to_lowercase().collect::<String>() + c.as_str()
    })
}
