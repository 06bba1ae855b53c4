//! A place's day: two or three points, or a whole list of hours, as 24 hourly temperatures.

use crate::fact;
use crate::fact::Fact;
use crate::units::Celsius;

/// Temperatures that an example names.
const COOL: Celsius = Celsius(14.0);
const WARM: Celsius = Celsius(23.0);

/// Reads "06:00 14, 15:00 23" (straight between the points, round midnight too), a column of 24 values, or the rows of a
/// CSV with an hour and a temperature in each. Values are in the unit that they were typed in.
///
/// Errors: a sentence that says what is missing.
pub fn profile(text: &str) -> Result<Vec<f64>, Fact> {
    let mut points: Vec<(f64, f64)> = Vec::new();
    let mut bare: Vec<f64> = Vec::new();
    for row in rows(text) {
        let cells: Vec<&str> = row
            .split(|c: char| c.is_whitespace() || c == ';' || c == '\t')
            .flat_map(|c| c.split(','))
            .map(|c| c.trim_matches('"'))
            .filter(|c| !c.is_empty())
            .collect();
        let value = |c: &str| {
            let c = c
                .trim_end_matches(['°', 'C', 'F', 'c', 'f'])
                .replace('−', "-");
            c.parse::<f64>().ok().filter(|v| v.is_finite())
        };
        match cells.as_slice() {
            [h, t] => match (hour(h), value(t)) {
                (Some(h), Some(t)) => points.push((h, t)),
                // The heading of a CSV says nothing.
                _ if points.is_empty() && bare.is_empty() && value(t).is_none() => {}
                _ => return Err(unread(&row)),
            },
            [t] => match value(t) {
                Some(t) => bare.push(t),
                None if points.is_empty() && bare.is_empty() => {}
                None => return Err(unread(&row)),
            },
            _ => return Err(unread(&row)),
        }
    }
    if !bare.is_empty() {
        return match (bare.len(), points.is_empty()) {
            (24, true) => Ok(bare),
            (n, _) => Err(fact!("day-has-24", n = n, cool = COOL, warm = WARM)),
        };
    }
    points.sort_by(|a, b| a.0.total_cmp(&b.0));
    points.dedup_by(|a, b| a.0 == b.0);
    match points.len() {
        0 => Err(fact!("day-points", cool = COOL, warm = WARM)),
        1 => Err(fact!("day-one-point")),
        _ => Ok((0..24).map(|h| between(&points, f64::from(h))).collect()),
    }
}

/// Lines, or pairs set apart by commas.
fn rows(text: &str) -> Vec<String> {
    let lines: Vec<&str> = text
        .lines()
        .map(str::trim)
        .filter(|l| !l.is_empty())
        .collect();
    if lines.len() == 1 && lines[0].contains(':') {
        return lines[0]
            .split([',', ';'])
            .map(|p| p.trim().to_string())
            .filter(|p| !p.is_empty())
            .collect();
    }
    if lines.len() == 1 {
        return lines[0]
            .split(|c: char| c.is_whitespace() || c == ',' || c == ';')
            .filter(|p| !p.is_empty())
            .map(String::from)
            .collect();
    }
    lines.into_iter().map(String::from).collect()
}

fn unread(row: &str) -> Fact {
    fact!("day-row-not-understood", row = row, cool = COOL)
}

fn hour(text: &str) -> Option<f64> {
    let (h, m) = text.split_once(':').unwrap_or((text, "0"));
    let (h, m): (f64, f64) = (h.parse().ok()?, m.parse().ok()?);
    ((0.0..24.0).contains(&h) && (0.0..60.0).contains(&m)).then_some(h + m / 60.0)
}

/// The line between the points around an hour; the last point of the day goes on to the first of the next.
fn between(points: &[(f64, f64)], h: f64) -> f64 {
    let n = points.len();
    let next = points.iter().position(|p| p.0 > h).unwrap_or(n);
    let (a, b) = (points[(next + n - 1) % n], points[next % n]);
    let span = (b.0 - a.0).rem_euclid(24.0);
    let gone = (h - a.0).rem_euclid(24.0);
    if span <= 0.0 {
        return a.1;
    }
    a.1 + (b.1 - a.1) * gone / span
}

/// A day as it is typed: only the hours at which it turns.
pub fn words(profile: &[f64], shown: impl Fn(f64) -> String) -> String {
    let n = profile.len();
    let turns = |i: usize| {
        let (before, after) = (profile[(i + n - 1) % n], profile[(i + 1) % n]);
        (profile[i] - 0.5 * (before + after)).abs() > 1e-6
    };
    let knots: Vec<usize> = (0..n).filter(|i| turns(*i)).collect();
    let knots = if knots.len() < 2 {
        vec![0, n / 2]
    } else {
        knots
    };
    knots
        .iter()
        .map(|i| format!("{i:02}:00 {}", shown(profile[*i])))
        .collect::<Vec<_>>()
        .join(", ")
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::number::plain;

    #[test]
    fn two_points_make_a_day_that_goes_round_midnight() {
        let p = profile("06:00 14, 15:00 23").unwrap();
        assert_eq!((p.len(), p[6], p[15]), (24, 14.0, 23.0));
        assert!((p[9] - 17.0).abs() < 1e-9);
        // From 15:00 to 06:00 it falls 9 K in 15 h.
        assert!((p[0] - (23.0 - 9.0 * 9.0 / 15.0)).abs() < 1e-9);
        assert_eq!(words(&p, plain), "06:00 14, 15:00 23");
        assert_eq!(profile(&words(&p, plain)).unwrap(), p);
    }

    #[test]
    fn a_csv_with_a_heading_and_a_bare_column_are_read() {
        let csv: String = std::iter::once("hour,temp\n".to_string())
            .chain((0..24).map(|h| format!("{h},{}\n", 10 + h)))
            .collect();
        assert_eq!(profile(&csv).unwrap()[23], 33.0);
        let bare = vec!["18.5"; 24].join("\n");
        assert_eq!(profile(&bare).unwrap(), vec![18.5; 24]);
    }

    #[test]
    fn missing_hours_are_said() {
        assert!(profile("18 19 20").unwrap_err().brief().contains("n=3"));
        assert_eq!(profile("06:00 14").unwrap_err().code, "day-one-point");
        assert_eq!(profile("warm").unwrap_err().code, "day-points");
        assert!(
            profile("06:00 14, 25:00 3")
                .unwrap_err()
                .brief()
                .contains("row=25:00 3")
        );
        assert!(
            profile(&vec!["18"; 23].join("\n"))
                .unwrap_err()
                .brief()
                .contains("n=23")
        );
    }
}
