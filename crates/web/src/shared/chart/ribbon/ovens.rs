//! When each oven is lit, on the last row of the ribbon.

use super::{RibbonRow, at};
use crate::shared::chart::{Hold, HourLine, Svg};
use crate::shared::format::hm;
use crate::shared::tongue::{phrase, say};
use craft::sheet::StepKind;
use jiff::tz::TimeZone;

pub(super) fn ovens(svg: &mut Svg, axis: &HourLine, rows: &[RibbonRow], y: f64, zone: &TimeZone) {
    svg.text(14.0, y + 25.0, "tx b", Hold::Start, phrase("pantry-ovens"));
    let fires: Vec<(f64, f64, [String; 3])> = rows
        .iter()
        .filter_map(|row| {
            let step = row
                .sheet
                .steps
                .iter()
                .find(|s| s.kind == StepKind::LightOven)?;
            if row.serve_at < axis.from || step.at > axis.to {
                return None;
            }
            let word = if row.oven_lit {
                phrase("page-lit-for")
            } else {
                phrase("page-light-for")
            };
            let clock = hm(&step.at.to_zoned(zone.clone()));
            // The longest that finds room is said.
            let texts = [
                format!("{word} {} {}", row.code, at(step.at, zone)),
                format!("{} {clock}", row.code),
                row.code.to_string(),
            ];
            Some((axis.clamped(step.at), axis.clamped(row.serve_at), texts))
        })
        .collect();
    // What is taken: the fires themselves, then each label that found room.
    let mut taken: Vec<(f64, f64)> = fires.iter().map(|f| (f.0 - 4.0, f.1 + 4.0)).collect();
    let mut unnamed: Vec<&str> = Vec::new();
    for (x0, x1, texts) in &fires {
        svg.rect(
            *x0,
            y + 9.0,
            x1 - x0,
            22.0,
            r#"fill="url(#h-temper)" stroke="var(--ember)""#,
        );
        let free = |a: f64, b: f64| {
            a > axis.left && b < axis.right && taken.iter().all(|t| b < t.0 || a > t.1)
        };
        let place = texts.iter().find_map(|text| {
            let wide = 7.4 * text.len() as f64;
            let (after, before) = ((x1 + 8.0, x1 + 8.0 + wide), (x0 - 8.0 - wide, x0 - 8.0));
            if free(after.0, after.1) {
                return Some((after, after.0, Hold::Start, text));
            }
            free(before.0, before.1).then_some((before, before.1, Hold::End, text))
        });
        match place {
            Some((span, x, hold, text)) => {
                svg.text(x, y + 25.0, "tx halo", hold, text);
                taken.push(span);
            }
            None => unnamed.push(&texts[2]),
        }
    }
    // No fire goes unsaid: those without room stand beside the row's name.
    if let Some(first) = unnamed.first() {
        let others = match unnamed.len() {
            1 => String::new(),
            n => [" ", &say!("page-and-more", n = n - 1), ""].concat(),
        };
        let text = say!("page-also", first = first, others = others);
        svg.text(70.0, y + 25.0, "tk", Hold::Start, &text);
    }
}
