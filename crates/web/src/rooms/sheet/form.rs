//! The form of the Dough sheet, as its template shows it.

use super::acts::{self, Bench};
use super::fields::{exact_name, spec_of};
use super::reading;
use super::writing::amount_name;
use crate::shared::form::{Typed, number};
use crate::shared::kitchen::Here;
use craft::flour::{FlourKind, blend};
use craft::formula::{ExtraKind, Formula, Mode, PrefermentKind, thickness_name};
use craft::leaven::YeastForm;
use craft::mix::Mixer;
use craft::path::{Leg, Spot};
use craft::refusal::{FieldError, plain};
use craft::style::oven_fit::OvenKind;
use craft::style::topping::Cook;
use craft::style::{self, Style, Usual};

/// Where a leg lies, in a word.
pub fn where_words(spot: &Spot) -> String {
    match spot {
        Spot::Room => "in the room".into(),
        Spot::Fridge => "in the fridge".into(),
        Spot::Freezer => "in the freezer".into(),
        Spot::Own(p) => p.name.to_lowercase(),
    }
}

/// A number field with what was typed.
pub struct Field {
    pub name: String,
    /// For ids and selectors: without brackets and dots.
    pub id: String,
    pub label: String,
    pub small: String,
    pub unit: &'static str,
    pub value: String,
    /// The value behind a text that cannot hold it.
    pub exact: Option<(String, String)>,
    pub step: f64,
    pub error: Option<String>,
}

/// One of a few.
pub struct Choice {
    pub key: String,
    pub name: String,
    pub chosen: bool,
}

pub struct FlourForm {
    pub i: usize,
    pub name: Field,
    pub share: Field,
    pub w: Field,
    pub more: Vec<Field>,
    pub kinds: Vec<Choice>,
    pub pantry: String,
    pub guess: Option<String>,
}

pub struct ExtraForm {
    pub i: usize,
    pub kind: String,
    pub name: String,
    pub amount: Field,
}

pub struct PrefermentForm {
    pub i: usize,
    pub kind: String,
    pub title: String,
    pub name: String,
    pub fields: Vec<Field>,
    pub dose: Option<DoseForm>,
    pub own_flours: bool,
    pub shares: Vec<Field>,
    pub shares_error: Option<String>,
}

/// How much yeast.
pub struct DoseForm {
    pub at: String,
    pub forms: Vec<Choice>,
    pub doses: Vec<Choice>,
    pub percent: Option<Field>,
    pub error: Option<String>,
}

pub struct PanForm {
    pub i: usize,
    pub round: bool,
    pub fields: Vec<Field>,
}

pub struct ToppingForm {
    pub i: usize,
    pub name: Field,
    pub grams: Field,
    pub wet: bool,
    pub after: bool,
    pub cooks: Vec<Choice>,
    pub allergens: String,
}

pub struct WayView {
    pub i: usize,
    pub what: String,
    pub figures: String,
    pub differs: Vec<String>,
}

pub struct Swap {
    pub says: String,
    pub ways: Vec<WayView>,
}

/// The form.
pub struct Form {
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
    errors: Vec<FieldError>,
}

struct Maker<'a> {
    typed: &'a Typed,
    errors: &'a [FieldError],
    here: &'a Here,
    style: Style,
}

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
    ("dough", "Dough"),
    ("flour", "Flour"),
    ("leaven", "Leaven"),
    ("hours", "Hours"),
    ("top", "Top"),
    ("keep", "Keep"),
];

impl Form {
    pub fn of(typed: &Typed, errors: &[FieldError], bench: &Bench) -> Form {
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
        Form {
            hidden: CARRIED
                .iter()
                .map(|n| (n.to_string(), typed.raw(n).to_string()))
                .collect(),
            tabs: tabs(typed, errors),
            styles: style::all()
                .iter()
                .chain(own)
                .map(|s| choice(&s.key, &s.name, s.key == m.style.key))
                .collect(),
            style_line: m.style.line.clone(),
            modes: Mode::ALL
                .map(|x| choice(x.key(), x.name(), x == mode))
                .into(),
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
            extra_kinds: ExtraKind::ALL
                .map(|k| choice(k.key(), k.name(), false))
                .into(),
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
                ("w", "Strength W"),
                ("protein", "Protein %"),
                ("absorption", "Absorption %"),
            ]
            .map(|(k, n)| choice(k, n, k == typed.text("swap.of")))
            .into(),
            swap_to: typed.raw("swap.to").into(),
            swap: sought(typed, f.as_ref(), bench),
            dose: m.dose("yeast"),
            preferments: (0..typed.rows("preferments"))
                .map(|i| m.preferment(i))
                .collect(),
            preferment_kinds: PrefermentKind::ALL
                .map(|k| choice(k.key(), k.name(), false))
                .into(),
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
            mixers: Mixer::ALL
                .map(|x| choice(x.key(), x.name(), x.key() == typed.text("mixer")))
                .into(),
            toppings: (0..typed.rows("toppings")).map(|i| m.topping(i)).collect(),
            pantry_goods: larder
                .goods
                .iter()
                .map(|g| choice(&g.id.to_string(), &g.facts.name, false))
                .collect(),
            double_bake: !typed.text("double_bake").is_empty(),
            basil: match m.style.basil {
                style::Basil::BeforeTheBake => {
                    "In this style basil goes on before the bake; after it, it stays green."
                }
                style::Basil::AfterTheBake => {
                    "In this style basil goes on after the bake; before it, it would turn black."
                }
            },
            oven_kinds: OvenKind::ALL
                .map(|k| choice(k.key(), k.name(), k.key() == typed.text("oven_kind")))
                .into(),
            oven_top: m.field("oven_top_c"),
            fit_says: fitted.as_ref().map_or(String::new(), |x| x.says.clone()),
            fit_changes: fitted.map_or(vec![], |x| {
                x.changes.into_iter().map(|c| (c.what, c.why)).collect()
            }),
            name: typed.raw("name").to_string(),
            why: typed.raw("why").to_string(),
            from: from(typed),
            serve_date: typed.raw("serve_date").to_string(),
            serve_time: typed.raw("serve_time").to_string(),
            errors: errors.to_vec(),
        }
    }
    /// What is wrong with a field.
    pub fn error(&self, field: &str) -> Option<String> {
        said(&self.errors, field)
    }
    /// Which version the sheet came from, for the page's buttons.
    pub fn opened(&self) -> bool {
        self.from.is_some()
    }
}

/// "12@3" is version 3 of formula 12.
pub fn opened_from(typed: &Typed) -> Option<(u64, u32)> {
    let (id, number) = typed.text("from").split_once('@')?;
    Some((id.parse().ok()?, number.parse().ok()?))
}

fn from(typed: &Typed) -> Option<String> {
    opened_from(typed).map(|(_, number)| format!("Opened from version {number}"))
}

fn choice(key: &str, name: &str, chosen: bool) -> Choice {
    Choice {
        key: key.into(),
        name: name.into(),
        chosen,
    }
}

pub fn said(errors: &[FieldError], field: &str) -> Option<String> {
    errors
        .iter()
        .find(|e| e.field == field)
        .map(|e| e.message.clone())
}

/// The leaf that is open: the one that was, or the first with something wrong in it.
fn tabs(typed: &Typed, errors: &[FieldError]) -> Vec<Choice> {
    let wrong = errors.first().map(|e| leaf_of(&e.field));
    let asked = typed.text("tab");
    let open = wrong.unwrap_or(if TABS.iter().any(|t| t.0 == asked) {
        asked
    } else {
        "dough"
    });
    TABS.map(|(k, n)| choice(k, n, k == open)).into()
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
    let mut out = format!(
        "W {:.0}{spread}, carries about {:.0} % water",
        b.w, b.carries_percent
    );
    if let Some(p) = b.protein_percent {
        out += &format!("; protein {p:.1} %");
    }
    if let Some(a) = b.absorption_percent {
        out += &format!("; absorption {a:.1} %");
    }
    if b.whole_percent > 0.0 {
        out += &format!("; {:.0} % whole grain", b.whole_percent);
    }
    out + "."
}

/// What was sought of another flour: the ways, or why there are none.
fn sought(typed: &Typed, f: Option<&Formula>, bench: &Bench) -> Option<Swap> {
    let says = |says: &str| {
        Some(Swap {
            says: says.into(),
            ways: vec![],
        })
    };
    match (typed.text("swap.to"), f) {
        ("", _) => None,
        (_, None) => says("Mend the fields that need another look first: then it is sought."),
        (text, Some(_)) if number(text).is_err() => {
            says("The figure to reach is a number, such as 310.")
        }
        (_, Some(f)) => swap(typed, f, bench),
    }
}

fn swap(typed: &Typed, f: &Formula, bench: &Bench) -> Option<Swap> {
    Some(match acts::swapping(typed, f, bench)? {
        Err(e) => Swap {
            says: e.0.first().map_or(String::new(), |e| e.message.clone()),
            ways: vec![],
        },
        Ok(s) => Swap {
            says: s.says,
            ways: s
                .ways
                .iter()
                .enumerate()
                .map(|(i, w)| WayView {
                    i,
                    what: w
                        .flours
                        .iter()
                        .map(|f| format!("{} {:.1} %", f.name, f.share_percent))
                        .collect::<Vec<_>>()
                        .join(", "),
                    figures: format!(
                        "W {:.0}{}{}",
                        w.blend.w,
                        w.blend
                            .protein_percent
                            .map_or(String::new(), |p| format!(", protein {p:.1} %")),
                        w.blend
                            .absorption_percent
                            .map_or(String::new(), |a| format!(", absorption {a:.1} %"))
                    ),
                    differs: w.differs.clone(),
                })
                .collect(),
        },
    })
}

impl Maker<'_> {
    fn field(&self, name: &str) -> Field {
        let s = spec_of(name);
        let label = match name {
            "pieces.count" => match self.typed.text("mode") {
                "balls" => "Balls",
                "discs" => "Discs",
                _ => s.label,
            },
            _ => s.label,
        };
        self.labelled(name, label)
    }
    /// The hours of bulk, cold and temper, or those of the legs.
    fn hours(&self) -> Vec<Field> {
        let legs = self.typed.rows("legs");
        if legs == 0 {
            return ["bulk_h", "cold_h", "temper_h"]
                .map(|n| self.field(n))
                .into();
        }
        (0..legs)
            .map(|i| {
                let leg: Option<Leg> =
                    serde_json::from_str(self.typed.text(&format!("legs[{i}].data"))).ok();
                let word = leg.as_ref().map_or("Leg", Leg::word);
                let mut field = self.labelled(&format!("legs[{i}].hours"), word);
                field.small = leg.map_or(String::new(), |l| where_words(&l.spot));
                field
            })
            .collect()
    }
    /// How lively yeast and starter are, where the dough has them.
    fn vigour(&self) -> Vec<Field> {
        let starter = (0..self.typed.rows("preferments"))
            .any(|i| self.typed.text(&format!("preferments[{i}].kind")) == "levain");
        let mut out = vec![self.field("yeast_vigour")];
        if starter {
            out.push(self.field("leaven_vigour"));
        }
        for f in &mut out {
            if f.value.is_empty() {
                f.value = "1".into();
            }
        }
        out
    }
    fn carried(&self) -> Vec<(String, String)> {
        let legs = self.typed.rows("legs");
        let mut names: Vec<String> = (0..legs).map(|i| format!("legs[{i}].data")).collect();
        names.push("method".into());
        names.push("batch".into());
        names.push("plan".into());
        if legs > 0 {
            names.extend(["bulk_h", "cold_h", "temper_h"].map(String::from));
        }
        names
            .into_iter()
            .map(|n| (n.clone(), self.typed.raw(&n).to_string()))
            .filter(|(_, v)| !v.is_empty())
            .collect()
    }
    fn labelled(&self, name: &str, label: &str) -> Field {
        let s = spec_of(name);
        let exact = exact_name(name);
        Field {
            id: name.replace(['[', ']', '.'], "_"),
            name: name.into(),
            label: label.into(),
            small: self.small(name, s.small),
            unit: s.unit(self.here),
            value: self.typed.raw(name).to_string(),
            exact: self
                .typed
                .has(&exact)
                .then(|| (exact.clone(), self.typed.raw(&exact).to_string())),
            step: s.shown_step(self.here),
            error: said(self.errors, name),
        }
    }
    /// A field of letters.
    fn words(&self, name: &str, label: &str) -> Field {
        Field {
            id: name.replace(['[', ']', '.'], "_"),
            name: name.into(),
            label: label.into(),
            small: String::new(),
            unit: "",
            value: self.typed.raw(name).to_string(),
            exact: None,
            step: 0.0,
            error: said(self.errors, name),
        }
    }
    /// The small words under a label: the style's usual range where it has one.
    fn small(&self, name: &str, small: &'static str) -> String {
        let u = &self.style.usual;
        let usual = |r: Usual| {
            if r.high == 0.0 {
                "usually none".to_string()
            } else {
                format!("{} to {}", plain(r.low), plain(r.high))
            }
        };
        match name {
            "hydration_percent" => usual(u.hydration),
            "oil_percent" => usual(u.oil),
            "sugar_percent" => usual(u.sugar),
            n if n.ends_with("dough_g_per_cm2") => self
                .typed
                .text(n)
                .replace(',', ".")
                .parse()
                .map_or(String::new(), |v: f64| thickness_name(v).into()),
            _ => small.into(),
        }
    }
    fn size(&self, mode: Mode) -> Vec<Field> {
        let names: &[&str] = match mode {
            Mode::Balls => &["pieces.count", "pieces.ball_g"],
            Mode::Discs => &[
                "pieces.count",
                "pieces.diameter_cm",
                "pieces.dough_g_per_cm2",
            ],
            Mode::Total => &["pieces.count", "pieces.dough_g"],
            Mode::Flour => &["pieces.count", "pieces.flour_g"],
            Mode::Pans => &[],
        };
        names.iter().map(|n| self.field(n)).collect()
    }
    fn pan(&self, i: usize) -> PanForm {
        let at = |f: &str| format!("pieces.pans[{i}].{f}");
        let round = self.typed.text(&at("shape")) == "round";
        let sides: &[&str] = if round {
            &["diameter_cm"]
        } else {
            &["length_cm", "width_cm"]
        };
        let names = ["count"]
            .into_iter()
            .chain(sides.iter().copied())
            .chain(["dough_g_per_cm2"]);
        PanForm {
            i,
            round,
            fields: names.map(|n| self.field(&at(n))).collect(),
        }
    }
    fn flour(&self, i: usize, f: Option<&Formula>) -> FlourForm {
        let at = |f: &str| format!("flours[{i}].{f}");
        let kind = self.typed.text(&at("facts.kind"));
        FlourForm {
            i,
            name: self.words(&at("name"), "Flour"),
            share: self.field(&at("share_percent")),
            w: self.field(&at("facts.w")),
            more: [
                "facts.protein_percent",
                "facts.absorption_percent",
                "facts.whole_percent",
                "facts.pl",
            ]
            .map(|n| self.field(&at(n)))
            .into(),
            kinds: FlourKind::ALL
                .map(|k| choice(k.key(), k.name(), k.key() == kind))
                .into(),
            pantry: self.typed.raw(&at("pantry")).into(),
            guess: f
                .and_then(|f| f.flours.get(i))
                .map(|x| x.facts.strength())
                .filter(|s| s.spread > 0.0)
                .map(|s| format!("W {:.0} ±{:.0} is a guess.", s.w, s.spread)),
        }
    }
    fn extra(&self, i: usize) -> ExtraForm {
        let kind = ExtraKind::from_key(self.typed.text(&format!("extras[{i}].kind")))
            .unwrap_or(ExtraKind::Other);
        let name = self.typed.raw(&format!("extras[{i}].name"));
        let label = if name.trim().is_empty() {
            kind.name()
        } else {
            name
        };
        let mut amount = self.labelled(&amount_name(i, kind), label);
        if kind == ExtraKind::ActiveMalt {
            let m = self.style.usual.malt;
            amount.small = if m.high == 0.0 {
                "usually none".into()
            } else {
                format!("{} to {}", plain(m.low), plain(m.high))
            };
        }
        // The core names the amount the same for all kinds.
        amount.error = amount
            .error
            .or(said(self.errors, &format!("extras[{i}].amount")));
        ExtraForm {
            i,
            kind: kind.key().into(),
            name: name.into(),
            amount,
        }
    }
    fn dose(&self, at: &str) -> DoseForm {
        let t = |f: &str| self.typed.text(&format!("{at}.{f}"));
        let dose = match t("dose") {
            "" => "solve",
            d => d,
        };
        let mut percent = (dose == "given").then(|| self.field(&format!("{at}.percent")));
        // A given dose that was not typed yet starts empty and is asked for.
        if let Some(p) = &mut percent {
            p.label = "Dose".into();
        }
        DoseForm {
            at: at.into(),
            forms: YeastForm::ALL
                .map(|x| choice(x.key(), x.name(), x.key() == t("form")))
                .into(),
            doses: [("solve", "solved"), ("given", "as I say"), ("none", "none")]
                .map(|(k, n)| choice(k, n, k == dose))
                .into(),
            percent,
            error: said(self.errors, &format!("{at}.dose")),
        }
    }
    fn preferment(&self, i: usize) -> PrefermentForm {
        let at = |f: &str| format!("preferments[{i}].{f}");
        let kind =
            PrefermentKind::from_key(self.typed.text(&at("kind"))).unwrap_or(PrefermentKind::Own);
        let mut names = vec!["flour_percent", "hydration_percent"];
        if matches!(kind, PrefermentKind::OldDough | PrefermentKind::Own) {
            names.push("salt_percent");
        }
        names.extend(["warm_h", "warm_c", "cold_h", "target_c"]);
        if kind == PrefermentKind::Levain {
            names.extend(["feed.flour_parts", "feed.keep_back_g", "feed.spare_g"]);
        }
        let flours = self.typed.rows("flours");
        let own_flours = !self.typed.text(&at("own_flours")).is_empty() && flours > 1;
        PrefermentForm {
            i,
            kind: kind.key().into(),
            title: if self.typed.text(&at("name")).is_empty() {
                kind.name().into()
            } else {
                self.typed.text(&at("name")).into()
            },
            name: self.typed.raw(&at("name")).into(),
            fields: names.iter().map(|n| self.field(&at(n))).collect(),
            dose: (kind != PrefermentKind::Levain).then(|| self.dose(&at("yeast"))),
            own_flours,
            shares: if own_flours {
                (0..flours)
                    .map(|j| {
                        self.labelled(
                            &at(&format!("flours[{j}]")),
                            self.typed.raw(&format!("flours[{j}].name")),
                        )
                    })
                    .collect()
            } else {
                vec![]
            },
            shares_error: said(self.errors, &at("flours")),
        }
    }
    fn topping(&self, i: usize) -> ToppingForm {
        let at = |f: &str| format!("toppings[{i}].{f}");
        let cook = self.typed.text(&at("cook"));
        ToppingForm {
            i,
            name: self.words(&at("name"), "Topping"),
            grams: self.field(&at("g_per_disc")),
            wet: !self.typed.text(&at("wet")).is_empty(),
            after: !self.typed.text(&at("after")).is_empty(),
            cooks: Cook::ALL
                .map(|c| choice(c.key(), c.name(), c.key() == cook))
                .into(),
            allergens: self.typed.raw(&at("allergens")).into(),
        }
    }
}

/// The oven that "fit to my oven" begins with: the kitchen's own for this style, else the one that it is usually baked in.
pub fn sensible_oven(typed: &mut Typed, style: &Style, bench: &Bench) {
    let (_, _, oven) = bench.larder.oven_for(style);
    typed.set("oven_kind", oven.fit_kind().key());
    spec_of("oven_top_c").put(
        typed,
        "oven_top_c",
        oven.most_c.clamp(150.0, 550.0),
        bench.here,
    );
}
