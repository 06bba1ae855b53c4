//! The form of the Dough sheet, as its template shows it.

mod maker;
mod parts;
mod swap;

use crate::shared::form::SaidError;
use crate::shared::format::by_name;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::shipped;
use crate::shared::tongue::{decimal, phrase, say};
use craft::fact::Fact;
use craft::keyed::Keyed;
pub use parts::{
    Choice, DoseForm, ExtraForm, Field, FlourForm, PanForm, PrefermentForm, Swap, ToppingForm,
    WayView,
};

use crate::formula_form::{Bench, acts, reading};
use crate::shared::form::FormData;
use craft::flour::blend;
use craft::formula::{ExtraKind, Formula, Mode, PrefermentKind};
use craft::mix::Mixer;
use craft::path::Spot;
use craft::refusal::FieldError;
use craft::style::oven_fit::StatedOvenKind;
use craft::style::{self};
use maker::Maker;
use swap::sought;

/// Fields of the form that are carried along unseen.
const CARRIED: [&str; 6] = [
    "form_key",
    "style",
    "style_data",
    "mode",
    "from_volumes",
    "from",
];

const TABS: [(&str, &str); 6] = [
    ("dough", "rise-dough"),
    ("flour", "pantry-flour-2"),
    ("leaven", "form-leaven"),
    ("hours", "form-hours"),
    ("top", "form-top"),
    ("keep", "library-keep"),
];

/// Where a leg lies, in a word.
pub fn where_words(spot: &Spot) -> String {
    match spot {
        Spot::Room => phrase("form-in-the-room").into(),
        Spot::Fridge => phrase("form-in-the-fridge").into(),
        Spot::Freezer => phrase("form-in-the-freezer").into(),
        Spot::Own(p) => p.name.to_lowercase(),
    }
}

/// The form.
pub struct FormulaForm {
    pub hidden: Vec<(String, String)>,
    pub tabs: Vec<Choice>,
    pub styles: Vec<Choice>,
    pub style_line: String,
    pub modes: Vec<Choice>,
    pub mode: String,
    pub size: Vec<Field>,
    pub pans: Vec<PanForm>,
    pub balls: Vec<Field>,
    pub pantry_pans: Vec<Choice>,
    pub loss: Field,
    pub of_flour: Vec<Field>,
    pub counts_nominal: bool,
    pub extras: Vec<ExtraForm>,
    pub extra_kinds: Vec<Choice>,
    pub flours: Vec<FlourForm>,
    pub pantry_flours: Vec<Choice>,
    pub blend_line: String,
    pub swap_of: Vec<Choice>,
    pub swap_to: String,
    pub swap: Option<Swap>,
    pub dose: DoseForm,
    pub preferments: Vec<PrefermentForm>,
    pub preferment_kinds: Vec<Choice>,
    pub hours: Vec<Field>,
    pub vigour: Vec<Field>,
    /// The way of the dough, carried along unseen.
    pub carried: Vec<(String, String)>,
    pub method: String,
    /// A dough that is in the bowl already: when it left the mixer, when it went into the cold, how warm it was.
    pub begun_at: String,
    pub begun_cold_at: String,
    pub begun_dough: Field,
    pub places: Vec<Field>,
    pub bowl: Vec<Field>,
    pub mixers: Vec<Choice>,
    pub toppings: Vec<ToppingForm>,
    pub pantry_goods: Vec<Choice>,
    pub double_bake: bool,
    pub basil: &'static str,
    pub oven_kinds: Vec<Choice>,
    pub oven_top: Field,
    pub fit_says: String,
    pub fit_changes: Vec<(String, String)>,
    pub name: String,
    pub why: String,
    /// "Version 3 of Trial round" where the sheet was opened from the library.
    pub from: Option<String>,
    pub serve_date: String,
    pub serve_time: String,
    errors: Vec<SaidError>,
}

impl FormulaForm {
    pub fn of(typed: &FormData, errors: &[FieldError], bench: &Bench) -> FormulaForm {
        let here = bench.here;
        let m = Maker {
            typed,
            errors,
            here,
            style: reading::style_of(typed),
        };
        let f = reading::formula(typed, here).ok();
        let mode = Mode::from_key(typed.text("mode")).unwrap_or(Mode::Balls);
        let larder = &bench.larder.0;
        let fitted = f.as_ref().and_then(|f| acts::fitting(typed, f, here));
        let own = larder.styles.iter().map(|s| &s.facts);
        FormulaForm {
            hidden: CARRIED
                .iter()
                .map(|n| (n.to_string(), typed.raw(n).to_string()))
                .collect(),
            tabs: tabs(typed, errors),
            styles: style::all()
                .iter()
                .chain(own)
                .map(|s| choice(&s.key, &shipped(&s.name), s.key == m.style.key))
                .collect(),
            style_line: shipped(&m.style.line),
            modes: choices(Mode::name, mode.key()),
            mode: mode.key().into(),
            size: m.size(mode),
            pans: (0..typed.rows("pieces.pans"))
                .filter(|_| mode == Mode::Pans)
                .map(|i| m.pan(i))
                .collect(),
            balls: if mode == Mode::Pans && typed.has("pieces.balls.count") {
                vec![
                    m.field("pieces.balls.count"),
                    m.field("pieces.balls.ball_g"),
                ]
            } else {
                vec![]
            },
            pantry_pans: larder
                .pans
                .iter()
                .map(|p| choice(&p.id.to_string(), &p.facts.name, false))
                .collect(),
            loss: m.field("loss_percent"),
            of_flour: [
                "hydration_percent",
                "salt_percent",
                "oil_percent",
                "sugar_percent",
            ]
            .map(|n| m.field(n))
            .into(),
            counts_nominal: typed.text("hydration_counts") == "nominal",
            extras: (0..typed.rows("extras")).map(|i| m.extra(i)).collect(),
            extra_kinds: choices(ExtraKind::name, ""),
            flours: (0..typed.rows("flours"))
                .map(|i| m.flour(i, f.as_ref()))
                .collect(),
            pantry_flours: larder
                .flours
                .iter()
                .map(|x| choice(&x.id.to_string(), &x.facts.name, false))
                .collect(),
            blend_line: f.as_ref().map_or(String::new(), blend_line),
            swap_of: [
                ("w", phrase("form-strength-w")),
                ("protein", phrase("form-protein-percent")),
                ("absorption", phrase("form-absorption-percent")),
            ]
            .map(|(k, n)| choice(k, n, k == typed.text("swap.of")))
            .into(),
            swap_to: typed.raw("swap.to").into(),
            swap: sought(typed, f.as_ref(), bench),
            dose: m.dose("yeast"),
            preferments: (0..typed.rows("preferments"))
                .map(|i| m.preferment(i))
                .collect(),
            preferment_kinds: choices(PrefermentKind::name, ""),
            hours: m.hours(),
            vigour: m.vigour(),
            carried: m.carried(),
            method: typed.text("method").into(),
            begun_at: typed.text("begun_at").into(),
            begun_cold_at: typed.text("begun_cold_at").into(),
            begun_dough: m.field("begun_dough_c"),
            places: ["room_c", "fridge_c", "target_dough_c"]
                .map(|n| m.field(n))
                .into(),
            bowl: ["flour_c", "tap_water_c"].map(|n| m.field(n)).into(),
            mixers: choices(Mixer::name, typed.text("mixer")),
            toppings: (0..typed.rows("toppings")).map(|i| m.topping(i)).collect(),
            pantry_goods: larder
                .goods
                .iter()
                .map(|g| choice(&g.id.to_string(), &g.facts.name, false))
                .collect(),
            double_bake: !typed.text("double_bake").is_empty(),
            basil: match m.style.basil {
                style::Basil::BeforeTheBake => phrase("form-in-this-style-basil-goes"),
                style::Basil::AfterTheBake => phrase("form-in-this-style-basil-goes-2"),
            },
            oven_kinds: choices(StatedOvenKind::name, typed.text("oven_kind")),
            oven_top: m.field("oven_top_c"),
            fit_says: fitted
                .as_ref()
                .map_or(String::new(), |x| bench.here.say(&x.says)),
            fit_changes: fitted.map_or(vec![], |x| {
                x.changes
                    .into_iter()
                    .map(|c| (bench.here.say(&c.what), bench.here.say(&c.why)))
                    .collect()
            }),
            name: typed.raw("name").to_string(),
            why: typed.raw("why").to_string(),
            from: from(typed),
            serve_date: typed.raw("serve_date").to_string(),
            serve_time: typed.raw("serve_time").to_string(),
            errors: bench.here.said(errors),
        }
    }
    /// What is wrong with a field.
    pub fn error(&self, field: &str) -> Option<String> {
        let found = self.errors.iter().find(|e| e.field == field)?;
        Some(found.message.clone())
    }
    /// Which version the sheet came from, for the page's buttons.
    pub fn opened(&self) -> bool {
        self.from.is_some()
    }
}

/// "12@3" is version 3 of formula 12.
pub fn opened_from(typed: &FormData) -> Option<(u64, u32)> {
    let (id, number) = typed.text("from").split_once('@')?;
    Some((id.parse().ok()?, number.parse().ok()?))
}

fn from(typed: &FormData) -> Option<String> {
    opened_from(typed).map(|(_, number)| say!("form-opened-from-version", number = number))
}

/// Everything of a kind to choose from.
fn choices<T: Keyed>(name: fn(T) -> Fact, chosen: &str) -> Vec<Choice> {
    by_name(name)
        .map(|(key, name)| choice(key, &name, key == chosen))
        .collect()
}

fn choice(key: &str, name: &str, chosen: bool) -> Choice {
    Choice {
        key: key.into(),
        name: name.into(),
        chosen,
    }
}

pub fn said(errors: &[FieldError], field: &str, here: &RequestKitchen) -> Option<String> {
    let found = errors.iter().find(|e| e.field == field)?;
    Some(here.say(&found.message))
}

/// The leaf that is open: the one that was, or the first with something wrong in it.
fn tabs(typed: &FormData, errors: &[FieldError]) -> Vec<Choice> {
    let wrong = errors.first().map(|e| leaf_of(&e.field));
    let asked = typed.text("tab");
    let open = wrong.unwrap_or(if TABS.iter().any(|t| t.0 == asked) {
        asked
    } else {
        "dough"
    });
    TABS.map(|(k, n)| choice(k, phrase(n), k == open)).into()
}

/// The leaf on which a field stands.
pub fn leaf_of(field: &str) -> &'static str {
    let begins = |list: &[&str]| list.iter().any(|p| field.starts_with(p));
    if begins(&["flours", "swap"]) {
        "flour"
    } else if begins(&["preferments", "yeast"]) {
        "leaven"
    } else if begins(&[
        "bulk", "cold", "temper", "room", "fridge", "target", "flour_c", "tap", "mixer", "serve",
        "begun",
    ]) {
        "hours"
    } else if begins(&["toppings", "oven"]) {
        "top"
    } else if begins(&["name", "why"]) {
        "keep"
    } else {
        "dough"
    }
}

fn blend_line(f: &Formula) -> String {
    let b = blend(&f.flours);
    let spread = if b.w_spread >= 1.0 {
        format!(" ±{:.0}", b.w_spread)
    } else {
        String::new()
    };
    let mut out = say!(
        "form-w-carries-about-water",
        w = decimal(b.w, 0),
        spread = spread,
        carries_percent = decimal(b.carries_percent, 0)
    );
    if let Some(p) = b.protein_percent {
        out += &say!("form-protein-2", p = decimal(p, 1));
    }
    if let Some(a) = b.absorption_percent {
        out += &say!("form-absorption-2", a = decimal(a, 1));
    }
    if b.whole_percent > 0.0 {
        out += &say!(
            "form-whole-grain-2",
            whole_percent = decimal(b.whole_percent, 0)
        );
    }
    out + "."
}
