//! The heat line: what was read last, as pins on one temperature axis with a broken end for the oven.

use super::{Hold, Svg};
use crate::shared::format::Measures;
use crate::shared::tongue::say;
use craft::units::{Celsius, TemperatureUnit};

pub struct Pin {
    pub name: String,
    pub celsius: f64,
    /// Older than a quarter of an hour: drawn hollow with its age.
    pub age: Option<String>,
    pub cold: bool,
}

const WIDTH: f64 = 452.0;
const HEIGHT: f64 = 186.0;
const AXIS_Y: f64 = 98.0;
const LEFT: f64 = 16.0;
/// The whole part of the axis ends here; what is hotter stands beyond the break.
const BREAK_X: f64 = 350.0;
const END_X: f64 = 436.0;
const TOP_C: f64 = 30.0;

pub fn heatline(pins: &[Pin], measures: &Measures) -> String {
    let say = pins
        .iter()
        .map(|p| format!("{} {}", p.name, measures.degrees(p.celsius, 1)))
        .collect::<Vec<_>>()
        .join(", ");
    let mut svg = Svg::new(
        WIDTH,
        HEIGHT,
        "heatline",
        &say!(
            "page-temperatures-last-read-in",
            degree_unit = measures.degree_unit(),
            value = say
        ),
    );
    svg.path(
        &format!(
            "M{value} {value2}H{value3}l6 -9 8 18 6 -9H{value4}",
            value = LEFT,
            value2 = AXIS_Y,
            value3 = BREAK_X,
            value4 = END_X
        ),
        r#"class="s-ink" stroke-width="2.4""#,
    );
    let ticks: &[f64] = match measures.temperature {
        TemperatureUnit::Celsius => &[0.0, 5.0, 10.0, 15.0, 20.0, 25.0, 30.0],
        TemperatureUnit::Fahrenheit => &[32.0, 40.0, 50.0, 60.0, 70.0, 80.0],
    };
    for tick in ticks {
        let x = x(Celsius::from_reading(*tick, measures.temperature).0);
        svg.path(
            &format!("M{x:.1} {}v10", AXIS_Y - 5.0),
            r#"class="s-ink" stroke-width="1.5""#,
        );
        svg.text(x, AXIS_Y + 20.0, "tk", Hold::Middle, &format!("{tick:.0}"));
    }
    let mut sorted: Vec<&Pin> = pins.iter().collect();
    sorted.sort_by(|a, b| a.celsius.total_cmp(&b.celsius));
    // Alternately above and below the axis; in each row the labels are moved apart.
    for above in [true, false] {
        let row: Vec<&&Pin> = sorted.iter().skip(usize::from(!above)).step_by(2).collect();
        let wanted: Vec<(f64, f64)> = row
            .iter()
            .map(|p| (x(p.celsius), half_of(&named(p))))
            .collect();
        let places = apart(&wanted);
        for (pin, place) in row.into_iter().zip(places) {
            draw(&mut svg, pin, place, above, measures);
        }
    }
    svg.end()
}

/// Places for labels as near to their pins as their widths allow: where each wants to be, and half of its width.
fn apart(wanted: &[(f64, f64)]) -> Vec<f64> {
    const LEAST: f64 = 78.0;
    let between = |i: usize| (wanted[i - 1].1 + wanted[i].1 + 8.0).max(LEAST);
    let inside = |&(x, _): &(f64, f64)| x.clamp(34.0, WIDTH - 36.0);
    let mut places: Vec<f64> = wanted.iter().map(inside).collect();
    for i in 1..places.len() {
        places[i] = places[i].max(places[i - 1] + between(i));
    }
    // What was pushed over the edge pushes back.
    let mut limit = WIDTH - 36.0;
    for i in (0..places.len()).rev() {
        places[i] = places[i].min(limit);
        if i > 0 {
            limit = places[i] - between(i);
        }
    }
    places
}

/// What a label says, with its age.
fn named(pin: &Pin) -> String {
    match &pin.age {
        Some(age) => format!("{} · {age}", pin.name),
        None => pin.name.clone(),
    }
}

/// Half of the width of a label.
fn half_of(name: &str) -> f64 {
    3.6 * name.chars().count() as f64
}

fn x(c: f64) -> f64 {
    if c > TOP_C {
        // Beyond the break only the order is drawn, up to 500 °C.
        BREAK_X + 30.0 + (END_X - BREAK_X - 56.0) * ((c - TOP_C) / 470.0).clamp(0.0, 1.0)
    } else {
        LEFT + (BREAK_X - LEFT - 14.0) * c.max(0.0) / TOP_C
    }
}

fn draw(svg: &mut Svg, pin: &Pin, place: f64, above: bool, measures: &Measures) {
    let x = x(pin.celsius);
    let (start, bend, end, value_y, name_y) = if above {
        (AXIS_Y - 5.0, AXIS_Y - 24.0, 52.0, 46.0, 26.0)
    } else {
        (AXIS_Y + 5.0, AXIS_Y + 36.0, 142.0, 160.0, 178.0)
    };
    let class = match (pin.cold, pin.celsius > TOP_C) {
        (true, _) => "c-tarn",
        (false, true) => "c-ember",
        (false, false) => "c-ink",
    };
    svg.raw(&format!(r#"<g class="{class}">"#));
    svg.path(
        &format!("M{x:.1} {start}V{bend}L{place:.1} {end}"),
        r#"class="s" stroke-width="2""#,
    );
    let dot = if pin.age.is_some() {
        r#"class="hollow""#
    } else {
        r#"class="f""#
    };
    svg.raw(&format!(
        r#"<circle cx="{x:.1}" cy="{AXIS_Y}" r="5.5" {dot}/></g>"#
    ));
    let decimals = if pin.celsius > TOP_C { 0 } else { 1 };
    svg.text(
        place,
        value_y,
        "b halo d18",
        Hold::Middle,
        &format!("{}°", measures.degrees(pin.celsius, decimals)),
    );
    let name = named(pin);
    // A long name near an edge moves in, so that it is not cut.
    let half = half_of(&name);
    let name_x = place.clamp(half, WIDTH - half);
    svg.text(name_x, name_y, "tk ink halo", Hold::Middle, &name);
}

#[cfg(test)]
mod tests {
    use super::apart;

    #[test]
    fn labels_stand_apart_and_inside() {
        let short = |x: f64| (x, 30.0);
        let places = apart(&[60.0, 66.0, 240.0, 244.0, 430.0].map(short));
        assert!(places.windows(2).all(|p| p[1] - p[0] >= 77.9), "{places:?}");
        assert!(
            places.iter().all(|p| (30.0..=420.0).contains(p)),
            "{places:?}"
        );
        let long = apart(&[(200.0, 50.0), (210.0, 60.0)]);
        assert!(long[1] - long[0] >= 118.0 - 1e-9, "{long:?}");
    }
}
