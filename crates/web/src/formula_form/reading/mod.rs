//! How a form of the Dough sheet becomes a request.

use super::fields::spec_of;
use super::writing::{FormWriter, amount_name, typed_of};
use crate::batch::entries::typed_moment;
use crate::shared::form::{FieldReader, FormData, one_line};
use crate::shared::format::named;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::KitchenTools;
use crate::shared::tongue::shipped;
use crate::shared::tongue::{date, phrase, say};
use craft::flour::{FlourFacts, FlourKind, FlourPart};
use craft::formula::{
    Dose, Extra, ExtraKind, Formula, HydrationCounts, LevainFeed, LooseBalls, Mode, PanGroup,
    PanShape, Pieces, Preferment, PrefermentKind, Yeast,
};
use craft::keyed::Keyed;
use craft::leaven::YeastForm;
use craft::mix::Mixer;
use craft::path::{self, Leg, Lies, Spot};
use craft::refusal::{FieldError, ValidationError};
use craft::rise::Event;
use craft::sheet::{Begun, SheetRequest};
use craft::style::topping::{Cook, ToppingPart};
use craft::style::{self, Style};
use jiff::civil::{Date, Time};
use jiff::{Timestamp, ToSpan};
use uuid::Uuid;

/// A form that was read.
pub struct SheetForm {
    pub name: String,
    pub form_key: Uuid,
    pub request: SheetRequest,
    /// What happened before it was entered, and how warm it left the mixer, °C.
    pub begun: Option<(Begun, Option<f64>)>,
}

/// What a form says of a dough that is in the bowl already.
fn begun(r: &mut FieldReader, here: &RequestKitchen) -> Option<(Begun, Option<f64>)> {
    let mut moment = |field: &str| match r.typed.text(field) {
        "" => None,
        text => match typed_moment(text, here) {
            Ok(at) => Some(at),
            Err(e) => {
                r.refuse(field, e);
                None
            }
        },
    };
    let (mixed_at, cold_from) = (moment("begun_at"), moment("begun_cold_at"));
    let dough_c = spec_of("begun_dough_c").read_if(r, "begun_dough_c", here);
    match mixed_at {
        Some(mixed_at) => Some((
            Begun {
                mixed_at,
                cold_from,
            },
            dough_c,
        )),
        None => {
            if cold_from.is_some() || dough_c.is_some() {
                r.refuse("begun_at", phrase("form-say-when-it-left-the"));
            }
            None
        }
    }
}

/// The style that a form is about; the first style when it names none.
pub fn style_of(typed: &FormData) -> Style {
    let own = typed.text("style_data");
    let own: Option<Style> = (!own.is_empty())
        .then(|| serde_json::from_str(own).ok())
        .flatten();
    own.or_else(|| style::by_key(typed.text("style")).cloned())
        .unwrap_or_else(|| style::first().clone())
}

/// A formula as a form for its next serving; a name is thought of.
pub fn sensible(formula: &Formula, here: &RequestKitchen) -> FormData {
    let serve = next_friday(formula, here);
    let request = SheetRequest::of(in_tongue(formula), &here.kitchen.usual, serve);
    let mut typed = typed_of(&request, here);
    let word = if formula.in_pans() {
        phrase("form-word-tray")
    } else {
        phrase("form-word-round")
    };
    typed.set("name", format!("{} {word}", date(&here.local(serve), "%A")));
    typed.set("form_key", Uuid::new_v4().to_string());
    typed
}

/// A formula with what ships of it called as its reader calls it.
pub fn in_tongue(formula: &Formula) -> Formula {
    let mut f = formula.clone();
    for flour in &mut f.flours {
        flour.name = shipped(&flour.name);
    }
    for t in &mut f.toppings {
        t.name = shipped(&t.name);
        t.allergens = shipped(&t.allergens);
    }
    f
}

/// The next Friday 19:00 for which there is still time, by the kitchen's clock.
fn next_friday(formula: &Formula, here: &RequestKitchen) -> Timestamp {
    let lead = SheetRequest::of(formula.clone(), &here.kitchen.usual, here.now);
    let soonest = here.now + craft::sheet::hours(lead.total_h() + lead.lead_h() + 2.5);
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

struct FormulaReader<'a, 'b> {
    r: &'a mut FieldReader<'b>,
    here: &'a RequestKitchen,
}

impl FormulaReader<'_, '_> {
    fn number(&mut self, name: &str) -> f64 {
        spec_of(name).read(self.r, name, self.here)
    }
    fn number_as(&mut self, name: &str, label: &str) -> f64 {
        spec_of(name).read_as(self.r, name, label, self.here)
    }
    fn may(&mut self, name: &str) -> Option<f64> {
        spec_of(name).read_if(self.r, name, self.here)
    }
    fn whole(&mut self, name: &str, label: &str) -> u32 {
        let v = self.number_as(name, label);
        if v.fract() != 0.0 && !self.r.errors.iter().any(|e| e.field == name) {
            self.r
                .refuse(name, say!("form-must-be-a-whole-number", label = label));
        }
        if v.is_finite() && v >= 0.0 {
            v as u32
        } else {
            0
        }
    }
    fn text(&self, name: &str) -> String {
        one_line(self.r.typed.text(name))
    }
    fn is(&self, name: &str) -> bool {
        !self.r.typed.text(name).is_empty()
    }
    fn choice<T>(
        &mut self,
        name: &str,
        read: impl Fn(&str) -> Option<T>,
        sentence: &str,
        else_: T,
    ) -> T {
        let found = read(self.r.typed.text(name));
        found.unwrap_or_else(|| {
            self.r.refuse(name, sentence);
            else_
        })
    }

    fn pieces(&mut self, in_pans: bool) -> Pieces {
        let mode = self.choice(
            "mode",
            Mode::from_key,
            phrase("form-choose-how-the-size-is"),
            Mode::Balls,
        );
        let word = if in_pans {
            phrase("form-pans")
        } else {
            phrase("batch-pieces")
        };
        match mode {
            Mode::Balls => Pieces::Balls {
                count: self.whole("pieces.count", phrase("bake-balls")),
                ball_g: self.number("pieces.ball_g"),
            },
            Mode::Discs => Pieces::Discs {
                count: self.whole("pieces.count", phrase("form-discs")),
                diameter_cm: self.number("pieces.diameter_cm"),
                dough_g_per_cm2: self.number("pieces.dough_g_per_cm2"),
            },
            Mode::Total => Pieces::Total {
                count: self.whole("pieces.count", word),
                dough_g: self.number("pieces.dough_g"),
            },
            Mode::Flour => Pieces::Flour {
                count: self.whole("pieces.count", word),
                flour_g: self.number("pieces.flour_g"),
            },
            Mode::Pans => Pieces::Pans {
                pans: (0..self.r.typed.rows("pieces.pans"))
                    .map(|i| self.pan(i))
                    .collect(),
                balls: self.is("pieces.balls.count").then(|| LooseBalls {
                    count: self.whole("pieces.balls.count", phrase("bake-balls")),
                    ball_g: self.number("pieces.balls.ball_g"),
                }),
            },
        }
    }
    fn pan(&mut self, i: usize) -> PanGroup {
        let at = |field: &str| format!("pieces.pans[{i}].{field}");
        let count = self.whole(&at("count"), phrase("form-pans"));
        let pan = if self.text(&at("shape")) == "round" {
            PanShape::Round {
                diameter_cm: self.number(&at("diameter_cm")),
            }
        } else {
            PanShape::Rectangle {
                length_cm: self.number(&at("length_cm")),
                width_cm: self.number(&at("width_cm")),
            }
        };
        PanGroup {
            count,
            pan,
            dough_g_per_cm2: self.number(&at("dough_g_per_cm2")),
        }
    }
    fn flour(&mut self, i: usize) -> FlourPart {
        let at = |field: &str| format!("flours[{i}].{field}");
        FlourPart {
            name: self.r.name(&at("name"), phrase("form-the-flours-name")),
            share_percent: self.number(&at("share_percent")),
            facts: FlourFacts {
                kind: FlourKind::from_key(&self.text(&at("facts.kind"))).unwrap_or_default(),
                w: self.may(&at("facts.w")),
                protein_percent: self.may(&at("facts.protein_percent")),
                pl: self.may(&at("facts.pl")),
                absorption_percent: self.may(&at("facts.absorption_percent")),
                whole_percent: self.may(&at("facts.whole_percent")),
            },
            pantry: self.text(&at("pantry")).parse().ok(),
        }
    }
    fn yeast(&mut self, at: &str) -> Yeast {
        let form = self.choice(
            &format!("{at}.form"),
            YeastForm::from_key,
            phrase("form-choose-the-form-of-the"),
            YeastForm::Instant,
        );
        let dose = match self.text(&format!("{at}.dose")).as_str() {
            "none" => Dose::None,
            "given" => {
                let name = format!("{at}.percent");
                // Chosen a moment ago: the figure is still to be typed.
                let percent = if self.is(&name) {
                    self.number_as(&name, &named(&form.name()))
                } else {
                    self.r.number(&name, &named(&form.name()))
                };
                Dose::Given { percent }
            }
            _ => Dose::Solve,
        };
        Yeast { form, dose }
    }
    fn extra(&mut self, i: usize) -> Extra {
        let kind = self.choice(
            &format!("extras[{i}].kind"),
            ExtraKind::from_key,
            phrase("form-choose-what-it-is"),
            ExtraKind::Other,
        );
        let name = self.text(&format!("extras[{i}].name"));
        let label = if name.is_empty() {
            named(&kind.name())
        } else {
            name.clone()
        };
        Extra {
            kind,
            amount: self.number_as(&amount_name(i, kind), &label),
            name,
        }
    }
    fn preferment(&mut self, i: usize, flours: usize) -> Preferment {
        let at = |field: &str| format!("preferments[{i}].{field}");
        let kind = self.choice(
            &at("kind"),
            PrefermentKind::from_key,
            phrase("form-choose-the-kind-of-preferment"),
            PrefermentKind::Own,
        );
        let levain = kind == PrefermentKind::Levain;
        Preferment {
            kind,
            name: self.text(&at("name")),
            flour_percent: self.number(&at("flour_percent")),
            hydration_percent: self.number(&at("hydration_percent")),
            salt_percent: if self.is(&at("salt_percent")) {
                self.number(&at("salt_percent"))
            } else {
                0.0
            },
            yeast: if levain {
                Yeast {
                    form: YeastForm::Instant,
                    dose: Dose::None,
                }
            } else {
                self.yeast(&at("yeast"))
            },
            flours: if self.is(&at("own_flours")) && flours > 1 {
                (0..flours)
                    .map(|j| self.may(&at(&format!("flours[{j}]"))).unwrap_or(0.0))
                    .collect()
            } else {
                vec![]
            },
            warm_h: self.number(&at("warm_h")),
            cold_h: self.number(&at("cold_h")),
            warm_c: self.may(&at("warm_c")),
            target_c: self.may(&at("target_c")),
            feed: levain.then(|| LevainFeed {
                flour_parts: self.number(&at("feed.flour_parts")),
                keep_back_g: self.number(&at("feed.keep_back_g")),
                spare_g: self.number(&at("feed.spare_g")),
            }),
        }
    }
    fn topping(&mut self, i: usize) -> ToppingPart {
        let at = |field: &str| format!("toppings[{i}].{field}");
        ToppingPart {
            name: self.r.name(&at("name"), phrase("form-the-toppings-name")),
            g_per_disc: self.number(&at("g_per_disc")),
            wet: self.is(&at("wet")),
            cook: Cook::from_key(&self.text(&at("cook"))).unwrap_or_default(),
            allergens: self.text(&at("allergens")),
            after_the_bake: self.is(&at("after")),
        }
    }

    /// A leg: its shape travels as it is, its hours are a field.
    fn leg(&mut self, i: usize) -> Leg {
        let hours = self.number(&format!("legs[{i}].hours"));
        match serde_json::from_str::<Leg>(&self.text(&format!("legs[{i}].data"))) {
            Ok(leg) => Leg { hours, ..leg },
            Err(_) => {
                self.r.refuse(
                    &format!("legs[{i}].hours"),
                    phrase("form-this-leg-cannot-be-read"),
                );
                Leg::of(Lies::Bulk, Spot::Room, hours, Event::None)
            }
        }
    }

    fn formula(&mut self) -> Formula {
        let style = style_of(self.r.typed);
        if !self.is("style_data") && style::by_key(self.r.typed.text("style")).is_none() {
            self.r.refuse("style", phrase("form-choose-a-style"));
        }
        let rows = |list: &str| self.r.typed.rows(list);
        let rows_of_legs = rows("legs").min(path::MOST_LEGS + 1);
        let (flours, extras, preferments, toppings) = (
            rows("flours"),
            rows("extras"),
            rows("preferments"),
            rows("toppings"),
        );
        Formula {
            pieces: self.pieces(style.in_pans()),
            loss_percent: self.number("loss_percent"),
            flours: (0..flours).map(|i| self.flour(i)).collect(),
            hydration_percent: self.number("hydration_percent"),
            hydration_counts: match self.text("hydration_counts").as_str() {
                "nominal" => HydrationCounts::Nominal,
                _ => HydrationCounts::True,
            },
            salt_percent: self.number("salt_percent"),
            oil_percent: self.number("oil_percent"),
            sugar_percent: self.number("sugar_percent"),
            extras: (0..extras).map(|i| self.extra(i)).collect(),
            yeast: self.yeast("yeast"),
            preferments: (0..preferments)
                .map(|i| self.preferment(i, flours))
                .collect(),
            toppings: (0..toppings).map(|i| self.topping(i)).collect(),
            double_bake: self.is("double_bake"),
            from_volumes: self.is("from_volumes"),
            mixer: self.choice(
                "mixer",
                Mixer::from_key,
                phrase("form-choose-how-you-mix"),
                Mixer::Hand,
            ),
            target_dough_c: self.number("target_dough_c"),
            bulk_h: self.number("bulk_h"),
            cold_h: self.number("cold_h"),
            temper_h: self.number("temper_h"),
            legs: (0..rows_of_legs).map(|i| self.leg(i)).collect(),
            method: self.is("method").then(|| self.text("method")),
            style,
        }
    }
}

/// Reads the formula of a form, with everything that is wrong with it.
pub fn formula(typed: &FormData, here: &RequestKitchen) -> Result<Formula, Vec<FieldError>> {
    let mut r = FieldReader::new(typed);
    let f = FormulaReader { r: &mut r, here }.formula();
    if !r.errors.is_empty() {
        return Err(r.errors);
    }
    f.check().map_err(at_fields)?;
    Ok(f)
}

/// Reads a form into a request, with everything that is wrong.
pub fn read(
    typed: &FormData,
    here: &RequestKitchen,
    tools: KitchenTools,
) -> Result<SheetForm, Vec<FieldError>> {
    let mut r = FieldReader::new(typed);
    let name = r.name("name", phrase("form-a-name"));
    let serve_at = serve_at(&mut r, here);
    let mut form = FormulaReader { r: &mut r, here };
    let formula = form.formula();
    let [room_c, fridge_c, flour_c, tap_water_c] =
        ["room_c", "fridge_c", "flour_c", "tap_water_c"].map(|n| form.number(n));
    let [yeast_vigour, leaven_vigour] =
        ["yeast_vigour", "leaven_vigour"].map(|n| form.may(n).unwrap_or(1.0));
    let begun = begun(&mut r, here);
    if !r.errors.is_empty() {
        return Err(r.errors);
    }
    let usual = &here.kitchen.usual;
    let log = tools.log;
    let mut own = tools.machines.into_iter();
    let machine = own.find(|m| m.kind == formula.mixer).map(Box::new);
    let mut sheet = SheetForm {
        begun,
        name,
        form_key: Uuid::parse_str(typed.text("form_key")).unwrap_or_else(|_| Uuid::new_v4()),
        request: SheetRequest {
            formula,
            serve_at,
            now_at: Some(here.now_at()),
            time_zone: usual.time_zone.clone(),
            altitude_m: usual.altitude_m,
            room_c,
            fridge_c,
            flour_c,
            tap_water_c,
            scales: tools.scales,
            life: here.kitchen.rhythm.life.clone(),
            yeast_vigour,
            leaven_vigour,
            fire: None,
            own: None,
            machine,
        },
    };
    sheet.request.own = log
        .and_then(|log| log.own(&sheet.request, here))
        .map(Box::new);
    if let Some((begun, _)) = &sheet.begun {
        sheet.request = begun.plan(&sheet.request).map_err(at_fields)?;
    }
    Ok(sheet)
}

fn serve_at(r: &mut FieldReader, here: &RequestKitchen) -> Timestamp {
    let date: Option<Date> = r.typed.text("serve_date").parse().ok();
    let time: Option<Time> = r.typed.text("serve_time").replace('.', ":").parse().ok();
    let (Some(date), Some(time)) = (date, time) else {
        r.refuse("serve_at", phrase("form-say-when-you-serve-a"));
        return here.now;
    };
    match date.to_datetime(time).to_zoned(here.zone.clone()) {
        // A year that is far off is a slip of the finger, not a plan.
        Ok(z) if (z.timestamp().duration_since(here.now)).as_hours().abs() < 24 * 366 => {
            z.timestamp()
        }
        _ => {
            r.refuse("serve_at", phrase("form-serve-within-a-year-from"));
            here.now
        }
    }
}

/// The core's refusals, at the fields of this form.
pub fn at_fields(refused: ValidationError) -> Vec<FieldError> {
    refused
        .0
        .into_iter()
        .map(|e| {
            let field = e.field.trim_start_matches("formula.");
            FieldError {
                field: match field {
                    "yeast_percent" | "yeast" => "yeast.dose".into(),
                    f if f.ends_with("].yeast") => format!("{f}.dose"),
                    f => f.to_string(),
                },
                message: e.message,
            }
        })
        .collect()
}

/// Puts a formula into a form that is already there, and keeps the rest of it.
pub fn put(typed: &mut FormData, formula: &Formula, here: &RequestKitchen) {
    FormWriter { typed, here }.formula(formula);
}

#[cfg(test)]
mod tests;
