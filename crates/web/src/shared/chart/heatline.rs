//! The heat line: what was read last, as pins on one temperature axis with a broken end for the oven.

use super::{Hold, Svg};
use crate::shared::format::Measures;
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
        &format!(
            "Temperatures last read in {}: {say}",
            measures.degree_unit()
        ),
    );
    svg.path(
        &format!("M{LEFT} {AXIS_Y}H{BREAK_X}l6 -9 8 18 6 -9H{END_X}"),
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
    for (pin, level) in sorted.iter().zip(levels(&sorted)) {
        draw(&mut svg, pin, level, measures);
    }
    svg.end()
}

fn x(c: f64) -> f64 {
    if c > TOP_C {
        // Beyond the break only the order is drawn, up to 500 °C.
        BREAK_X + 30.0 + (END_X - BREAK_X - 56.0) * ((c - TOP_C) / 470.0).clamp(0.0, 1.0)
    } else {
        LEFT + (BREAK_X - LEFT - 14.0) * c.max(0.0) / TOP_C
    }
}

/// A level for each pin so that no two labels touch: high, low, nearer high, nearer low.
fn levels(pins: &[&Pin]) -> Vec<usize> {
    const APART: f64 = 76.0;
    let mut last = [f64::NEG_INFINITY; 4];
    pins.iter()
        .map(|p| {
            let x = x(p.celsius);
            let level = (0..4).find(|l| x - last[*l] >= APART).unwrap_or(0);
            last[level] = x;
            level
        })
        .collect()
}

fn draw(svg: &mut Svg, pin: &Pin, level: usize, measures: &Measures) {
    let x = x(pin.celsius);
    let (value_y, name_y, stem) = match level {
        0 => (52.0, 34.0, 56.0),
        1 => (146.0, 163.0, 130.0),
        2 => (82.0, 12.0, 86.0),
        _ => (132.0, 181.0, 116.0),
    };
    let class = if pin.cold {
        "c-tarn"
    } else if pin.celsius > TOP_C {
        "c-ember"
    } else {
        "c-ink"
    };
    svg.raw(&format!(r#"<g class="{class}">"#));
    let start = if level % 2 == 0 {
        AXIS_Y - 5.0
    } else {
        AXIS_Y + 5.0
    };
    svg.path(
        &format!("M{x:.1} {start}V{stem}"),
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
    let lx = x.clamp(40.0, WIDTH - 36.0);
    svg.text(
        lx,
        value_y,
        "b halo d18",
        Hold::Middle,
        &format!("{}°", measures.degrees(pin.celsius, decimals)),
    );
    let name = match &pin.age {
        Some(age) => format!("{} · {age}", pin.name),
        None => pin.name.clone(),
    };
    svg.text(lx, name_y, "tk ink halo", Hold::Middle, &name);
}
