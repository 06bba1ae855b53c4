//! How a form of the Dough sheet becomes a request, and a style a form.

use super::fields::{BALLS, HOURS, LOSS, OF_FLOUR, PLACES, TRAYS, specs};
use crate::shared::form::{Reader, Typed};
use crate::shared::kitchen::Here;
use craft::formula::Pieces;
use craft::leaven::YeastForm;
use craft::mix::Mixer;
use craft::refusal::{FieldError, Refused};
use craft::sheet::SheetRequest;
use craft::style::StyleKey;
use jiff::civil::{Date, Time};
use jiff::{Timestamp, ToSpan};
use uuid::Uuid;

/// A form that was read.
pub struct Sheet {
    pub name: String,
    pub form_key: Uuid,
    pub request: SheetRequest,
}

/// The style that a form is about; the first style when it names none.
pub fn style_of(typed: &Typed) -> StyleKey {
    StyleKey::from_key(typed.text("style")).unwrap_or(StyleKey::HotRound)
}

/// Every field with the style's sensible value.
pub fn sensible(style: StyleKey, here: &Here) -> Typed {
    let serve = next_friday(style, here);
    let request = SheetRequest::of_style(style, &here.kitchen.usual, serve);
    let mut typed = typed_of(&request, here);
    let word = match request.pieces {
        Pieces::Balls { .. } => "round",
        Pieces::Trays { .. } => "tray",
    };
    typed.set(
        "name",
        format!("{} {word}", here.local(serve).strftime("%A")),
    );
    typed.set("form_key", Uuid::new_v4().to_string());
    typed
}

/// A request as its form shows it.
fn typed_of(request: &SheetRequest, here: &Here) -> Typed {
    let mut typed = Typed::default();
    for s in specs(request.style) {
        typed.set(s.name, s.shown((s.get)(request), here));
    }
    let serve = here.local(request.serve_at);
    typed.set("style", request.style.key());
    typed.set("serve_date", serve.date().to_string());
    typed.set("serve_time", serve.strftime("%H:%M").to_string());
    typed.set("yeast_form", request.yeast_form.key());
    typed.set("mixer", request.mixer.key());
    typed
}

/// The next Friday 19:00 for which there is still time, by the kitchen's clock.
fn next_friday(style: StyleKey, here: &Here) -> Timestamp {
    let lead = SheetRequest::of_style(style, &here.kitchen.usual, here.now);
    let soonest = here.now + craft::sheet::hours(lead.total_h() + 3.0);
    let mut day = here.local(here.now).date();
    for _ in 0..15 {
        let at = day
            .at(19, 0, 0, 0)
            .to_zoned(here.zone.clone())
            .map_or(soonest, |z| z.timestamp());
        if day.weekday() == jiff::civil::Weekday::Friday && at >= soonest {
            return at;
        }
        day = day.saturating_add(1.days());
    }
    soonest
}

/// Reads a form into a request, with everything that is wrong.
pub fn read(typed: &Typed, here: &Here) -> Result<Sheet, Vec<FieldError>> {
    let mut r = Reader::new(typed);
    let style = style_of(typed);
    if StyleKey::from_key(typed.text("style")).is_none() {
        r.refuse("style", "Choose a style.");
    }
    let name = r.name("name", "A name");
    let pieces = match style.style().pieces {
        Pieces::Balls { .. } => {
            let _ = BALLS[0].read(&mut r, here);
            Pieces::Balls {
                count: recount(&mut r, "count", "Balls"),
                ball_g: BALLS[1].read(&mut r, here),
            }
        }
        Pieces::Trays { .. } => {
            let _ = TRAYS[0].read(&mut r, here);
            Pieces::Trays {
                count: recount(&mut r, "count", "Trays"),
                length_cm: TRAYS[1].read(&mut r, here),
                width_cm: TRAYS[2].read(&mut r, here),
                dough_g_per_cm2: TRAYS[3].read(&mut r, here),
            }
        }
    };
    let serve_at = serve_at(&mut r, here);
    let [bulk_h, cold_h, temper_h] = HOURS.each_ref().map(|s| s.read(&mut r, here));
    let [
        hydration_percent,
        salt_percent,
        oil_percent,
        sugar_percent,
        flour_w,
    ] = OF_FLOUR.each_ref().map(|s| s.read(&mut r, here));
    let loss_percent = LOSS.read(&mut r, here);
    let [room_c, fridge_c, target_dough_c, flour_c, tap_water_c] =
        PLACES.each_ref().map(|s| s.read(&mut r, here));
    let yeast_form = YeastForm::from_key(typed.text("yeast_form")).unwrap_or_else(|| {
        r.refuse("yeast_form", "Choose the form of the yeast.");
        YeastForm::Instant
    });
    let mixer = Mixer::from_key(typed.text("mixer")).unwrap_or_else(|| {
        r.refuse("mixer", "Choose how you mix.");
        Mixer::Hand
    });
    let form_key = Uuid::parse_str(typed.text("form_key")).unwrap_or_else(|_| Uuid::new_v4());
    if !r.errors.is_empty() {
        return Err(r.errors);
    }
    let usual = &here.kitchen.usual;
    Ok(Sheet {
        name,
        form_key,
        request: SheetRequest {
            style,
            pieces,
            loss_percent,
            hydration_percent,
            salt_percent,
            oil_percent,
            sugar_percent,
            yeast_form,
            flour_w,
            serve_at,
            now_at: Some(here.now),
            time_zone: usual.time_zone.clone(),
            altitude_m: usual.altitude_m,
            room_c,
            fridge_c,
            flour_c,
            tap_water_c,
            target_dough_c,
            mixer,
            bulk_h,
            cold_h,
            temper_h,
            kitchen_scale_g: usual.kitchen_scale_g,
            fine_scale_g: usual.fine_scale_g,
        },
    })
}

/// The number of pieces; its range was checked with the other numbers.
fn recount(r: &mut Reader, field: &str, what: &str) -> u32 {
    if r.errors.iter().any(|e| e.field == field) {
        0
    } else {
        r.count(field, what)
    }
}

fn serve_at(r: &mut Reader, here: &Here) -> Timestamp {
    let date: Option<Date> = r.typed.text("serve_date").parse().ok();
    let time: Option<Time> = r.typed.text("serve_time").replace('.', ":").parse().ok();
    let (Some(date), Some(time)) = (date, time) else {
        r.refuse(
            "serve_at",
            "Say when you serve: a day, such as 2026-11-27, and a time, such as 19:00.",
        );
        return here.now;
    };
    match date.to_datetime(time).to_zoned(here.zone.clone()) {
        // A year that is far off is a slip of the finger, not a plan.
        Ok(z) if (z.timestamp().duration_since(here.now)).as_hours().abs() < 24 * 366 => {
            z.timestamp()
        }
        _ => {
            r.refuse("serve_at", "Serve within a year from now.");
            here.now
        }
    }
}

/// The core's refusals, at the fields of this form.
pub fn at_fields(refused: Refused) -> Vec<FieldError> {
    refused
        .0
        .into_iter()
        .map(|e| FieldError {
            field: e.field.trim_start_matches("pieces.").to_string(),
            message: e.message,
        })
        .collect()
}

#[cfg(test)]
mod tests;
