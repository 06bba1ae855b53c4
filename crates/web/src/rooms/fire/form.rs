//! The form of a fire: which oven, how it is set, how it is turned, what goes in. Read into a plan, and a plan written.

use crate::shared::fields::{degrees, may, put_degrees, put_may, put_weight, weight};
use crate::shared::form::{FieldReader, FormData, NotANumber, number};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::tongue::{phrase, plain};
use craft::fire::of_formula;
use craft::fire::programme::{Cue, Turn, shape};
use craft::fire::{FirePlan, Material, Oven, OvenShelf};
use craft::formula::{Formula, Portion};
use craft::keyed::Keyed;
use craft::refusal::FieldError;
use jiff::Timestamp;

/// The dough that a fire is planned for.
#[derive(Debug, Clone)]
pub struct Dough {
    pub formula: Formula,
    pub portion: Portion,
    pub pieces: u32,
    pub room_c: f64,
    pub altitude_m: f64,
    pub serve_at: Timestamp,
    pub closes_at: Option<Timestamp>,
    pub baking_since: Option<Timestamp>,
    /// Sugar and ball weight can no longer be changed.
    pub mixed: bool,
}

/// What a form came to.
#[derive(Debug, Clone)]
pub struct Read {
    pub plan: FirePlan,
    pub oven_ref: String,
    pub oven_id: Option<u64>,
    pub hands: u32,
}

/// Floors that can be laid into an oven: material and mm, as a form names them.
pub fn floor_key(material: Material, mm: f64) -> String {
    format!("{}:{}", material.key(), craft::number::plain(mm))
}
fn read_floor(text: &str) -> Option<(Material, f64)> {
    let (m, mm) = text.split_once(':')?;
    Some((Material::from_key(m)?, mm.parse().ok()?))
}

impl Dough {
    /// A fire for it in an oven as it usually is.
    pub fn plan(&self, oven: &Oven, larder: &Larder) -> FirePlan {
        let at = (self.room_c, self.altitude_m);
        let pan = larder.pan(self.portion.pan, self.room_c);
        of_formula::plan(&self.formula, &self.portion, oven, oven.usual(), pan, at)
    }
    pub fn piece(&self) -> craft::fire::Piece {
        of_formula::piece(&self.formula, &self.portion, self.room_c)
    }
}

/// A plan as the form shows it.
pub fn write(t: &mut FormData, plan: &FirePlan, oven_ref: &str, hands: u32, here: &RequestKitchen) {
    let s = &plan.setting;
    t.set("oven", oven_ref);
    t.set("floor", floor_key(s.floor, s.floor_mm));
    put_degrees(t, "floor_c", s.floor_c, here);
    put_degrees(t, "dome_c", s.dome_c, here);
    put_degrees(t, "most_c", plan.oven.most_c, here);
    put_may(t, "preheat_min", plan.preheat_min);
    t.set("shelf", s.shelf.key());
    for (name, on) in [("grill", s.grill), ("fan", s.fan), ("below", s.below)] {
        t.set(name, if on { "on" } else { "" });
    }
    t.set("shape", plan.shape().key.clone());
    t.set("hands", hands.to_string());
    let p = &plan.piece;
    put_weight(t, "ball_g", p.ball_g, here);
    put_weight(t, "sauce_g", p.sauce_g, here);
    put_weight(t, "cheese_g", p.cheese_g, here);
    for (name, v) in [
        ("sugar", p.sugar_percent),
        ("malt", p.malt_percent),
        ("oil", p.oil_percent),
    ] {
        t.set(name, plain(v));
        t.set(&format!("exact:{name}"), v.to_string());
    }
    t.forget_all("cue[");
    t.forget("own");
    if let Some(turns) = &plan.turns {
        t.set("own", "1");
        for (i, c) in turns.iter().enumerate() {
            t.set(&format!("cue[{i}].s"), c.at_s.to_string());
            t.set(&format!("cue[{i}].say"), c.say.key());
        }
    }
}

/// Settings above what the oven tops out at come down to that: they are about to be looked for anew.
pub fn hold_below_most(t: &mut FormData) {
    let Ok(most) = number(t.text("most_c")) else {
        return;
    };
    for name in ["floor_c", "dome_c"] {
        if number(t.text(name)).is_ok_and(|v| v > most) {
            t.set(name, plain(most));
            t.forget(&format!("exact:{name}"));
        }
    }
}

/// A percentage; the value behind a text that nobody changed.
fn percent(r: &mut FieldReader, name: &str, label: &str) -> f64 {
    let exact: Option<f64> = r.typed.text(&format!("exact:{name}")).parse().ok();
    match exact {
        Some(v) if plain(v) == r.typed.text(name) => v,
        _ => r.number(name, label),
    }
}

/// Seconds as "75" or "1:15".
fn clock_s(text: &str) -> Option<u32> {
    match text.split_once(':') {
        Some((m, s)) => Some(m.trim().parse::<u32>().ok()? * 60 + s.trim().parse::<u32>().ok()?),
        None => number(text)
            .ok()
            .filter(|v| (0.0..7200.0).contains(v))
            .map(|v| v.round() as u32),
    }
}

/// The maker's own cues, where they were set.
fn own_turns(r: &mut FieldReader) -> Option<Vec<Turn>> {
    if r.typed.text("own").is_empty() {
        return None;
    }
    let mut out = Vec::new();
    for i in 0..r.typed.rows("cue") {
        let (name, say) = (format!("cue[{i}].s"), format!("cue[{i}].say"));
        let text = r.typed.text(&name).to_string();
        // An emptied field takes the cue out.
        if text.is_empty() {
            continue;
        }
        match (clock_s(&text), Cue::from_key(r.typed.text(&say))) {
            (Some(at_s), Some(say)) => out.push(Turn { at_s, say }),
            _ => r.refuse(&name, phrase("fire-seconds-after-in-such-as")),
        }
    }
    out.sort_by_key(|t| t.at_s);
    Some(out)
}

/// Reads the form.
///
/// Errors: every field that cannot be read or is outside its range, by its name in the form.
pub fn read(
    t: &FormData,
    dough: &Dough,
    larder: &Larder,
    here: &RequestKitchen,
) -> Result<Read, Vec<FieldError>> {
    let all = larder.ovens();
    let mut r = FieldReader::new(t);
    let Some((oven_ref, oven_id, oven)) = all.into_iter().find(|o| o.0 == t.text("oven")) else {
        r.refuse("oven", phrase("fire-that-oven-is-no-longer"));
        return Err(r.errors);
    };
    let mut plan = dough.plan(&oven, larder);
    if t.has("most_c") && !t.text("most_c").is_empty() {
        let most = degrees(&mut r, "most_c", phrase("fire-it-tops-out-at"), here);
        // What it is usually baked at cannot be above what it reaches.
        plan.oven.most_c = most;
        plan.oven.floor_c = plan.oven.floor_c.min(most);
    }
    let s = &mut plan.setting;
    match read_floor(t.text("floor")) {
        Some((m, mm)) => (s.floor, s.floor_mm) = (m, mm),
        None => r.refuse("floor", phrase("fire-choose-what-the-pizza-lies")),
    }
    s.dome_c = degrees(&mut r, "dome_c", phrase("fire-the-dome-or-setting"), here);
    if !oven.kind.has_one_setting() {
        s.floor_c = degrees(&mut r, "floor_c", phrase("fire-the-floor"), here);
    }
    s.shelf = OvenShelf::from_key(t.text("shelf")).unwrap_or(OvenShelf::Top);
    s.grill = !t.text("grill").is_empty() && oven.has_grill();
    s.fan = !t.text("fan").is_empty() && oven.fan_w_m2k.is_some();
    s.below = !t.text("below").is_empty();
    plan.setting.floor_c = plan.oven.floor_at(&plan.setting);
    plan.preheat_min = may(&mut r, "preheat_min", phrase("fire-preheating"));
    plan.shape = match t.text("shape") {
        "" => None,
        key if shape(key).is_some() => Some(key.into()),
        _ => {
            r.refuse("shape", phrase("fire-choose-how-it-is-turned"));
            None
        }
    };
    plan.turns = own_turns(&mut r);
    plan.piece.ball_g = weight(&mut r, "ball_g", phrase("fire-the-ball"), here);
    plan.piece.sauce_g = weight(&mut r, "sauce_g", phrase("fire-sauce"), here);
    plan.piece.cheese_g = weight(&mut r, "cheese_g", phrase("bake-cheese"), here);
    plan.piece.sugar_percent = percent(&mut r, "sugar", phrase("figures-sugar"));
    plan.piece.malt_percent = percent(&mut r, "malt", phrase("fire-malt"));
    plan.piece.oil_percent = percent(&mut r, "oil", phrase("figures-oil"));
    let hands = match number(t.text("hands")) {
        Ok(v) if (1.0..=8.0).contains(&v) => v.round() as u32,
        Err(NotANumber::Empty) => 1,
        _ => {
            r.refuse("hands", phrase("fire-people-1-to-8"));
            1
        }
    };
    if !r.errors.is_empty() {
        return Err(r.errors);
    }
    plan.check().map_err(|e| at_fields(e.0))?;
    Ok(Read {
        plan,
        oven_ref,
        oven_id,
        hands,
    })
}

/// Refusals of a plan at the fields of the form.
pub fn at_fields(errors: Vec<FieldError>) -> Vec<FieldError> {
    errors
        .into_iter()
        .map(|e| {
            let last = e.field.rsplit('.').next().unwrap_or("").to_string();
            let field = match last.as_str() {
                "sugar_percent" => "sugar",
                "malt_percent" => "malt",
                "oil_percent" => "oil",
                "floor_mm" => "floor",
                "turns" | "turns_s" | "quarter_turns_s" => "cue[0].s",
                "ball_g" | "disc_mm" | "rim_mm" | "rim_share" => "ball_g",
                other => other,
            };
            FieldError {
                field: field.into(),
                message: e.message,
            }
        })
        .collect()
}
