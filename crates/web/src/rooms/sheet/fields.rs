//! The fields of the Dough sheet: what they are called, their units and ranges, and how a form becomes a
//! request. Values are typed in the kitchen's units and computed in grams and °C.

use crate::shared::form::{Reader, Typed};
use crate::shared::kitchen::Here;
use craft::formula::Pieces;
use craft::leaven::YeastForm;
use craft::mix::Mixer;
use craft::refusal::{FieldError, Refused, plain};
use craft::sheet::SheetRequest;
use craft::style::StyleKey;
use craft::units::{Celsius, Grams, TemperatureUnit};
use jiff::civil::{Date, Time};
use jiff::{Timestamp, ToSpan};
use uuid::Uuid;

/// What a field measures.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Measure {
    Count,
    Percent,
    Weight,
    Temperature,
    Hours,
    Cm,
    PerArea,
    Strength,
}

/// One number field.
pub struct Spec {
    pub name: &'static str,
    pub label: &'static str,
    pub small: &'static str,
    pub measure: Measure,
    pub step: f64,
    pub low: f64,
    pub high: f64,
    get: fn(&SheetRequest) -> f64,
}

const fn spec(
    name: &'static str,
    label: &'static str,
    small: &'static str,
    measure: Measure,
    step: f64,
    range: (f64, f64),
    get: fn(&SheetRequest) -> f64,
) -> Spec {
    Spec {
        name,
        label,
        small,
        measure,
        step,
        low: range.0,
        high: range.1,
        get,
    }
}

use Measure::*;

pub const BALLS: [Spec; 2] = [
    spec("count", "Balls", "", Count, 1.0, (1.0, 1000.0), |r| {
        f64::from(r.pieces.count())
    }),
    spec(
        "ball_g",
        "Each",
        "a ball",
        Weight,
        5.0,
        (30.0, 2000.0),
        |r| r.pieces.piece_g(),
    ),
];
pub const TRAYS: [Spec; 4] = [
    spec("count", "Trays", "", Count, 1.0, (1.0, 200.0), |r| {
        f64::from(r.pieces.count())
    }),
    spec("length_cm", "Long", "inside", Cm, 1.0, (8.0, 120.0), |r| {
        tray(r).0
    }),
    spec("width_cm", "Wide", "inside", Cm, 1.0, (8.0, 120.0), |r| {
        tray(r).1
    }),
    spec(
        "dough_g_per_cm2",
        "Thick",
        "dough on it",
        PerArea,
        0.05,
        (0.2, 2.0),
        |r| tray(r).2,
    ),
];
pub const HOURS: [Spec; 3] = [
    spec(
        "bulk_h",
        "Bulk",
        "in the room",
        Hours,
        0.5,
        (0.25, 48.0),
        |r| r.bulk_h,
    ),
    spec(
        "cold_h",
        "Cold",
        "in the fridge",
        Hours,
        1.0,
        (0.0, 168.0),
        |r| r.cold_h,
    ),
    spec(
        "temper_h",
        "Temper",
        "room, to bake",
        Hours,
        0.5,
        (0.5, 24.0),
        |r| r.temper_h,
    ),
];
pub const OF_FLOUR: [Spec; 5] = [
    spec(
        "hydration_percent",
        "Water",
        "",
        Percent,
        0.5,
        (40.0, 130.0),
        |r| r.hydration_percent,
    ),
    spec("salt_percent", "Salt", "", Percent, 0.1, (0.0, 5.0), |r| {
        r.salt_percent
    }),
    spec("oil_percent", "Oil", "", Percent, 0.5, (0.0, 20.0), |r| {
        r.oil_percent
    }),
    spec(
        "sugar_percent",
        "Sugar",
        "",
        Percent,
        0.5,
        (0.0, 20.0),
        |r| r.sugar_percent,
    ),
    spec(
        "flour_w",
        "Flour W",
        "strength",
        Strength,
        10.0,
        (80.0, 450.0),
        |r| r.flour_w,
    ),
];
pub const LOSS: Spec = spec(
    "loss_percent",
    "Loss",
    "bowl, hands",
    Percent,
    0.5,
    (0.0, 10.0),
    |r| r.loss_percent,
);
pub const PLACES: [Spec; 5] = [
    spec("room_c", "Room", "", Temperature, 0.5, (-2.0, 42.0), |r| {
        r.room_c
    }),
    spec(
        "fridge_c",
        "Fridge",
        "measured",
        Temperature,
        0.5,
        (-2.0, 20.0),
        |r| r.fridge_c,
    ),
    spec(
        "target_dough_c",
        "Dough",
        "off the mixer",
        Temperature,
        0.5,
        (5.0, 35.0),
        |r| r.target_dough_c,
    ),
    spec(
        "flour_c",
        "Flour",
        "temperature",
        Temperature,
        0.5,
        (-20.0, 45.0),
        |r| r.flour_c,
    ),
    spec(
        "tap_water_c",
        "Tap",
        "cold water",
        Temperature,
        0.5,
        (0.0, 35.0),
        |r| r.tap_water_c,
    ),
];

fn tray(r: &SheetRequest) -> (f64, f64, f64) {
    match r.pieces {
        Pieces::Trays {
            length_cm,
            width_cm,
            dough_g_per_cm2,
            ..
        } => (length_cm, width_cm, dough_g_per_cm2),
        Pieces::Balls { .. } => (0.0, 0.0, 0.0),
    }
}

impl Spec {
    /// The unit that the kitchen reads.
    pub fn unit(&self, here: &Here) -> &'static str {
        match self.measure {
            Count | Strength => "",
            Percent => "%",
            Weight => here.measures.weight_unit(),
            Temperature => here.measures.degree_unit(),
            Hours => "h",
            Cm => "cm",
            PerArea => "g/cm²",
        }
    }
    /// A value in the kitchen's unit, as the field shows it.
    pub fn shown(&self, value: f64, here: &Here) -> String {
        match self.measure {
            Weight => here.measures.weight_field(value),
            Temperature => here.measures.degrees_field(value),
            _ => plain(value),
        }
    }
    fn computed(&self, typed: f64, here: &Here) -> f64 {
        match self.measure {
            Weight => Grams::from_reading(typed, here.measures.weight).0,
            Temperature => Celsius::from_reading(typed, here.measures.temperature).0,
            _ => typed,
        }
    }
    /// The step of the plus and minus buttons in the kitchen's unit.
    pub fn shown_step(&self, here: &Here) -> f64 {
        match (self.measure, here.measures.temperature) {
            (Temperature, TemperatureUnit::Fahrenheit) => 1.0,
            (Weight, _) if here.measures.weight_unit() == "oz" => 0.25,
            _ => self.step,
        }
    }
    fn read(&self, r: &mut Reader, here: &Here) -> f64 {
        let typed = r.number(self.name, self.label);
        let value = self.computed(typed, here);
        // Ranges are said here in the unit that was typed; the core checks them again.
        if value < self.low - 1e-9 || value > self.high + 1e-9 {
            let (low, high) = (self.shown(self.low, here), self.shown(self.high, here));
            let unit = self.unit(here);
            let gap = if unit.is_empty() { "" } else { " " };
            r.refuse(
                self.name,
                format!(
                    "{} {low} to {high}{gap}{unit}; {} is outside.",
                    self.label,
                    plain(typed)
                ),
            );
        }
        value
    }
}

/// All number fields of a style.
pub fn specs(style: StyleKey) -> Vec<&'static Spec> {
    let pieces: &[Spec] = match style.style().pieces {
        Pieces::Balls { .. } => &BALLS,
        Pieces::Trays { .. } => &TRAYS,
    };
    pieces
        .iter()
        .chain(&HOURS)
        .chain(&OF_FLOUR)
        .chain(std::iter::once(&LOSS))
        .chain(&PLACES)
        .collect()
}

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
mod tests {
    use super::*;
    use craft::sheet::KitchenUsual;
    use craft::units::WeightUnit;
    use store::KitchenId;
    use store::kitchen::Kitchen;

    fn here(temperature_unit: TemperatureUnit, weight_unit: WeightUnit) -> Here {
        let usual = KitchenUsual {
            time_zone: "Europe/London".into(),
            altitude_m: 0.0,
            room_c: 20.0,
            fridge_c: 5.0,
            tap_water_c: 11.0,
            kitchen_scale_g: 1.0,
            fine_scale_g: 0.1,
        };
        let kitchen = Kitchen {
            id: KitchenId(1),
            name: "Here".into(),
            usual,
            temperature_unit,
            weight_unit,
        };
        Here::of(kitchen, "2026-11-23T09:00:00Z".parse().unwrap())
    }

    #[test]
    fn every_style_starts_with_a_form_that_reads_back() {
        let here = here(TemperatureUnit::Celsius, WeightUnit::Grams);
        for style in StyleKey::ALL {
            let sheet =
                read(&sensible(style, &here), &here).unwrap_or_else(|e| panic!("{style:?}: {e:?}"));
            assert_eq!(sheet.request.serve_at.to_string(), "2026-11-27T19:00:00Z");
            let usual = SheetRequest {
                now_at: Some(here.now),
                ..SheetRequest::of_style(style, &here.kitchen.usual, sheet.request.serve_at)
            };
            assert_eq!(sheet.request, usual);
        }
    }

    #[test]
    fn a_kitchen_of_ounces_and_fahrenheit_types_its_own_units() {
        let here = here(TemperatureUnit::Fahrenheit, WeightUnit::Ounces);
        let mut typed = sensible(StyleKey::HotRound, &here);
        assert_eq!(typed.text("room_c"), "68");
        assert_eq!(typed.text("ball_g"), "8.82");
        let sheet = read(&typed, &here).unwrap_or_else(|e| panic!("{e:?}"));
        assert!((sheet.request.room_c - 20.0).abs() < 1e-9);
        assert!((sheet.request.pieces.piece_g() - 250.0).abs() < 0.1);
        typed.set("room_c", "200");
        let errors = read(&typed, &here).err().unwrap();
        assert_eq!(errors[0].message, "Room 28.4 to 107.6 °F; 200 is outside.");
    }

    #[test]
    fn what_is_wrong_is_said_at_its_field() {
        let here = here(TemperatureUnit::Celsius, WeightUnit::Grams);
        let mut typed = sensible(StyleKey::HotRound, &here);
        for (field, value) in [
            ("hydration_percent", "340"),
            ("salt_percent", "-1"),
            ("count", "0"),
            ("oil_percent", "abc"),
            ("serve_time", "late"),
            ("name", ""),
        ] {
            typed.set(field, value);
        }
        let errors = read(&typed, &here).err().unwrap();
        let fields: Vec<_> = errors.iter().map(|e| e.field.as_str()).collect();
        assert_eq!(
            fields,
            [
                "name",
                "count",
                "serve_at",
                "hydration_percent",
                "salt_percent",
                "oil_percent"
            ]
        );
        typed = sensible(StyleKey::HotRound, &here);
        typed.set("hydration_percent", "64,5");
        assert_eq!(
            read(&typed, &here)
                .unwrap_or_else(|e| panic!("{e:?}"))
                .request
                .hydration_percent,
            64.5
        );
    }
}
