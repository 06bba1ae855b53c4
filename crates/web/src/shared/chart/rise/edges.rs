//! The edges of a Rise picture that can be moved, by pointer and by keys.

use super::super::{HourLine, Svg};
use super::{HEAD, HEAT_FOOT, LANE, LANE_H, RiseDrawing, at};
use crate::shared::format::{named, word};
use crate::shared::tongue::{phrase, say};
use craft::formula::Formula;
use jiff::Timestamp;

/// The field of a form that holds a leg's hours.
pub fn leg_field(f: &Formula, i: usize) -> String {
    if !f.legs.is_empty() {
        return format!("legs[{i}].hours");
    }
    match (i, f.cold_h > 0.0) {
        (0, _) => "bulk_h",
        (1, true) => "cold_h",
        _ => "temper_h",
    }
    .into()
}

/// The edges that can be moved: between legs, and the serve flag. Each is a slider for the keyboard.
pub(super) fn draw(svg: &mut Svg, p: &RiseDrawing, axis: &HourLine) {
    let f = &p.request.formula;
    let path = f.path();
    let edges: Vec<(usize, Timestamp)> = p
        .sheet
        .blocks
        .iter()
        .filter_map(|b| Some((b.leg?, b.to_at)))
        .collect();
    for (i, t) in &edges {
        let last = i + 1 == path.len();
        let x = axis.clamped(*t);
        let (name, after) = if last {
            (phrase("bench-serve").to_string(), String::new())
        } else {
            (
                say!(
                    "page-ends-begins",
                    i = named(&path[*i].word()),
                    i2 = word(&path[i + 1].word())
                ),
                leg_field(f, i + 1),
            )
        };
        let (y, h) = if last {
            (HEAD - 8.0, 30.0)
        } else {
            (LANE + 10.0, LANE_H - 20.0)
        };
        let kind = if last { "serve" } else { "edge" };
        let said = at(*t, p.zone);
        svg.raw(&format!(
            r#"<g class="handle {kind}" tabindex="0" role="slider" data-edge="{i}" data-before="{}" data-after="{after}" aria-label="{name}" aria-valuetext="{said}, {} h before" aria-valuenow="{:.2}" aria-valuemin="0.25" aria-valuemax="240"><rect x="{:.1}" y="{:.1}" width="44" height="{:.1}" fill="transparent"/>"#,
            leg_field(f, *i),
            craft::number::plain(path[*i].hours),
            path[*i].hours,
            x - 22.0,
            y - 10.0,
            h + 20.0
        ));
        if !last {
            svg.raw(&format!(
                r#"<rect x="{:.1}" y="{y:.1}" width="15" height="{h:.1}" rx="2" class="grip"/><path d="M{:.1} {:.1}v14m5 -14v14" class="s-ink" stroke-width="1.8"/>"#,
                x - 7.5,
                x - 2.5,
                y + h / 2.0 - 7.0
            ));
        } else {
            svg.raw(&format!(
                r#"<circle cx="{x:.1}" cy="{:.1}" r="6" class="grip"/>"#,
                HEAT_FOOT - 4.0
            ));
        }
        svg.raw("</g>");
    }
}
