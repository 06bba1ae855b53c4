//! How a formula becomes a form.

use super::fields::spec_of;
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use craft::flour::FlourPart;
use craft::formula::{
    Dose, Extra, ExtraKind, Formula, HydrationCounts, PanShape, Pieces, Preferment, Yeast,
};
use craft::keyed::Keyed;
use craft::sheet::SheetRequest;
use craft::style::topping::ToppingPart;

/// Writes values into a form.
pub struct FormWriter<'a> {
    pub typed: &'a mut FormData,
    pub here: &'a RequestKitchen,
}

impl FormWriter<'_> {
    pub fn number(&mut self, name: &str, value: f64) {
        spec_of(name).put(self.typed, name, value, self.here);
    }
    fn may(&mut self, name: &str, value: Option<f64>) {
        match value {
            Some(v) => self.number(name, v),
            None => self.typed.set(name, ""),
        }
    }
    fn text(&mut self, name: &str, value: &str) {
        self.typed.set(name, value);
    }

    pub fn pieces(&mut self, p: &Pieces) {
        self.typed.forget_all("pieces.");
        self.typed.forget_all("exact:pieces.");
        self.text("mode", p.mode().key());
        match p {
            Pieces::Balls { count, ball_g } => {
                self.number("pieces.count", f64::from(*count));
                self.number("pieces.ball_g", *ball_g);
            }
            Pieces::Discs {
                count,
                diameter_cm,
                dough_g_per_cm2,
            } => {
                self.number("pieces.count", f64::from(*count));
                self.number("pieces.diameter_cm", *diameter_cm);
                self.number("pieces.dough_g_per_cm2", *dough_g_per_cm2);
            }
            Pieces::Total { count, dough_g } => {
                self.number("pieces.count", f64::from(*count));
                self.number("pieces.dough_g", *dough_g);
            }
            Pieces::Flour { count, flour_g } => {
                self.number("pieces.count", f64::from(*count));
                self.number("pieces.flour_g", *flour_g);
            }
            Pieces::Pans { pans, balls } => {
                for (i, p) in pans.iter().enumerate() {
                    self.pan(i, p.count, p.pan, p.dough_g_per_cm2);
                }
                if let Some(b) = balls {
                    self.number("pieces.balls.count", f64::from(b.count));
                    self.number("pieces.balls.ball_g", b.ball_g);
                }
            }
        }
    }
    pub fn pan(&mut self, i: usize, count: u32, pan: PanShape, thick: f64) {
        let at = |field: &str| format!("pieces.pans[{i}].{field}");
        self.number(&at("count"), f64::from(count));
        match pan {
            PanShape::Rectangle {
                length_cm,
                width_cm,
            } => {
                self.text(&at("shape"), "rectangle");
                self.number(&at("length_cm"), length_cm);
                self.number(&at("width_cm"), width_cm);
            }
            PanShape::Round { diameter_cm } => {
                self.text(&at("shape"), "round");
                self.number(&at("diameter_cm"), diameter_cm);
            }
        }
        self.number(&at("dough_g_per_cm2"), thick);
    }
    pub fn flour(&mut self, i: usize, f: &FlourPart) {
        let at = |field: &str| format!("flours[{i}].{field}");
        self.text(&at("name"), &f.name);
        self.number(&at("share_percent"), f.share_percent);
        self.text(&at("facts.kind"), f.facts.kind.key());
        self.may(&at("facts.w"), f.facts.w);
        self.may(&at("facts.protein_percent"), f.facts.protein_percent);
        self.may(&at("facts.absorption_percent"), f.facts.absorption_percent);
        self.may(&at("facts.whole_percent"), f.facts.whole_percent);
        self.may(&at("facts.pl"), f.facts.pl);
        self.text(
            &at("pantry"),
            &f.pantry.map_or(String::new(), |id| id.to_string()),
        );
    }
    fn yeast(&mut self, at: &str, y: &Yeast) {
        self.text(&format!("{at}.form"), y.form.key());
        let dose = match y.dose {
            Dose::Solve => "solve",
            Dose::None => "none",
            Dose::Given { .. } => "given",
        };
        self.text(&format!("{at}.dose"), dose);
        if let Dose::Given { percent } = y.dose {
            self.number(&format!("{at}.percent"), percent);
        }
    }
    pub fn extra(&mut self, i: usize, e: &Extra) {
        self.text(&format!("extras[{i}].kind"), e.kind.key());
        self.text(&format!("extras[{i}].name"), &e.name);
        self.number(&amount_name(i, e.kind), e.amount);
    }
    pub fn preferment(&mut self, i: usize, p: &Preferment) {
        let at = |field: &str| format!("preferments[{i}].{field}");
        self.text(&at("kind"), p.kind.key());
        self.text(&at("name"), &p.name);
        self.number(&at("flour_percent"), p.flour_percent);
        self.number(&at("hydration_percent"), p.hydration_percent);
        self.number(&at("salt_percent"), p.salt_percent);
        self.yeast(&at("yeast"), &p.yeast);
        self.number(&at("warm_h"), p.warm_h);
        self.number(&at("cold_h"), p.cold_h);
        self.may(&at("warm_c"), p.warm_c);
        self.may(&at("target_c"), p.target_c);
        self.text(
            &at("own_flours"),
            if p.flours.is_empty() { "" } else { "1" },
        );
        for (j, share) in p.flours.iter().enumerate() {
            self.number(&at(&format!("flours[{j}]")), *share);
        }
        if let Some(feed) = p.feed {
            self.number(&at("feed.flour_parts"), feed.flour_parts);
            self.number(&at("feed.keep_back_g"), feed.keep_back_g);
            self.number(&at("feed.spare_g"), feed.spare_g);
        }
    }
    pub fn topping(&mut self, i: usize, t: &ToppingPart) {
        let at = |field: &str| format!("toppings[{i}].{field}");
        self.text(&at("name"), &t.name);
        self.number(&at("g_per_disc"), t.g_per_disc);
        self.text(&at("cook"), t.cook.key());
        self.text(&at("wet"), if t.wet { "1" } else { "" });
        self.text(&at("after"), if t.after_the_bake { "1" } else { "" });
        self.text(&at("allergens"), &t.allergens);
    }

    pub fn formula(&mut self, f: &Formula) {
        for list in ["flours[", "extras[", "preferments[", "toppings[", "legs["] {
            self.typed.forget_all(list);
            self.typed.forget_all(&format!("exact:{list}"));
        }
        self.text("style", &f.style.key);
        let shipped = craft::style::by_key(&f.style.key) == Some(&f.style);
        let data = if shipped {
            String::new()
        } else {
            serde_json::to_string(&f.style).unwrap_or_default()
        };
        self.text("style_data", &data);
        self.pieces(&f.pieces);
        for (name, v) in [
            ("loss_percent", f.loss_percent),
            ("hydration_percent", f.hydration_percent),
            ("salt_percent", f.salt_percent),
            ("oil_percent", f.oil_percent),
            ("sugar_percent", f.sugar_percent),
            ("target_dough_c", f.target_dough_c),
            ("bulk_h", f.bulk_h),
            ("cold_h", f.cold_h),
            ("temper_h", f.temper_h),
        ] {
            self.number(name, v);
        }
        let counts = match f.hydration_counts {
            HydrationCounts::True => "true",
            HydrationCounts::Nominal => "nominal",
        };
        self.text("hydration_counts", counts);
        self.yeast("yeast", &f.yeast);
        self.text("mixer", f.mixer.key());
        self.text("double_bake", if f.double_bake { "1" } else { "" });
        self.text("from_volumes", if f.from_volumes { "1" } else { "" });
        for (i, x) in f.flours.iter().enumerate() {
            self.flour(i, x);
        }
        for (i, x) in f.extras.iter().enumerate() {
            self.extra(i, x);
        }
        for (i, x) in f.preferments.iter().enumerate() {
            self.preferment(i, x);
        }
        for (i, x) in f.toppings.iter().enumerate() {
            self.topping(i, x);
        }
        for (i, leg) in f.legs.iter().enumerate() {
            let data = serde_json::to_string(leg).unwrap_or_default();
            self.text(&format!("legs[{i}].data"), &data);
            self.number(&format!("legs[{i}].hours"), leg.hours);
        }
        self.text("method", f.method.as_deref().unwrap_or(""));
    }
}

/// The field of an extra's amount: dried mother goes by the litre.
pub fn amount_name(i: usize, kind: ExtraKind) -> String {
    match kind {
        ExtraKind::DriedMother => format!("extras[{i}].per_litre"),
        _ => format!("extras[{i}].amount"),
    }
}

/// A whole request as its form.
pub fn typed_of(request: &SheetRequest, here: &RequestKitchen) -> FormData {
    let mut typed = FormData::default();
    let mut w = FormWriter {
        typed: &mut typed,
        here,
    };
    w.formula(&request.formula);
    for (name, v) in [
        ("room_c", request.room_c),
        ("fridge_c", request.fridge_c),
        ("flour_c", request.flour_c),
        ("tap_water_c", request.tap_water_c),
        ("yeast_vigour", request.yeast_vigour),
        ("leaven_vigour", request.leaven_vigour),
    ] {
        w.number(name, v);
    }
    let serve = here.local(request.serve_at);
    typed.set("serve_date", serve.date().to_string());
    typed.set("serve_time", serve.strftime("%H:%M").to_string());
    typed
}
