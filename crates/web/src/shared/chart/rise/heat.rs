//! The foot of a Rise picture: how warm the dough is, and its place.

use super::super::{Hold, HourLine, Svg};
use super::{HEAT_FOOT, HEAT_HEAD, RiseDrawing, RiseLayout};
use crate::shared::tongue::say;
use craft::sheet::{BlockKind, ClockPoint, hours};

pub(super) fn draw(svg: &mut Svg, p: &RiseDrawing, axis: &HourLine, l: &RiseLayout) {
    let points: Vec<&ClockPoint> = p
        .sheet
        .clocks
        .iter()
        .filter(|c| axis.holds(p.sheet.mixed_at + hours(c.hours)))
        .collect();
    let highest = points
        .iter()
        .map(|c| c.dough_c.max(c.place_c))
        .fold(20.0f64, f64::max);
    let top_c = (highest / 5.0).ceil() * 5.0 + 2.0;
    let low_c = points
        .iter()
        .map(|c| c.place_c)
        .fold(0.0f64, f64::min)
        .min(0.0);
    let low_c = low_c.max(-20.0);
    let y = |c: f64| {
        HEAT_FOOT + (HEAT_HEAD - HEAT_FOOT) * (c.clamp(low_c, top_c) - low_c) / (top_c - low_c)
    };
    for tick in p.measures.degree_ticks(low_c, top_c, 10.0) {
        svg.path(
            &format!("M{} {:.1}H{}", axis.left, y(tick), axis.right),
            r#"class="l-rule""#,
        );
        svg.text(
            axis.left - 7.0,
            y(tick) + 4.0,
            "tk",
            Hold::End,
            &format!("{}°", p.measures.degrees(tick, 0)),
        );
    }
    let line = |value: &dyn Fn(&ClockPoint) -> f64| {
        let mut d = String::new();
        for c in &points {
            let x = axis.x(p.sheet.mixed_at + hours(c.hours));
            d += &format!(
                "{}{x:.1} {:.1}",
                if d.is_empty() { "M" } else { "L" },
                y(value(c))
            );
        }
        d
    };
    svg.path(&line(&|c| c.place_c), r#"class="l-place""#);
    svg.path(&line(&|c| c.dough_c), r#"class="l-dough""#);
    for (t, c, of_dough) in p.read.iter().filter(|r| axis.holds(r.0)) {
        let class = if *of_dough { "c-ember" } else { "c-tarn" };
        svg.raw(&format!(
            r#"<circle cx="{:.1}" cy="{:.1}" r="4.5" class="f {class}"/>"#,
            axis.x(*t),
            y(*c)
        ));
    }
    let first = points.first().map_or(0.0, |c| c.dough_c);
    let t = p.sheet.mixed_at + hours(0.03 * p.request.total_h() + 0.4);
    let text = say!("page-dough-from", first = p.measures.degrees(first, 1));
    svg.text(
        axis.x(t),
        HEAT_HEAD - 4.0,
        "tx b halo f c-ember",
        Hold::Start,
        &text,
    );
    if l.narrow {
        return;
    }
    // The coldest leg is named in its middle.
    let cold = p.sheet.blocks.iter().find(|b| b.kind == BlockKind::Cold);
    if let Some(b) = cold {
        let mid = b.from_at + (b.to_at.duration_since(b.from_at)) / 2;
        if let Some(c) = p.sheet.clocks_at(mid) {
            let text = say!("page-place", place_c = p.measures.degrees(c.place_c, 1));
            svg.text(
                axis.x(mid),
                y(c.place_c) - 8.0,
                "tx b halo f c-tarn",
                Hold::Middle,
                &text,
            );
        }
    }
}
