//! Each part of the form, made from what was typed and what the formula says of it.

use super::parts::*;
use super::{choice, choices, said, where_words};
use crate::formula_form::fields::{exact_name, spec_of};
use crate::formula_form::writing::amount_name;
use crate::shared::form::FormData;
use crate::shared::format::{named, word};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{decimal, phrase, plain, say};
use craft::flour::FlourKind;
use craft::formula::{ExtraKind, Formula, Mode, PrefermentKind, thickness_name};
use craft::keyed::Keyed;
use craft::leaven::YeastForm;
use craft::path::Leg;
use craft::refusal::FieldError;
use craft::style::topping::Cook;
use craft::style::{Style, Usual};
use speech::measures::Quantity;

pub(super) struct Maker<'a> {
    pub typed: &'a FormData,
    pub errors: &'a [FieldError],
    pub here: &'a RequestKitchen,
    pub style: Style,
}

impl Maker<'_> {
    pub fn field(&self, name: &str) -> Field {
        let s = spec_of(name);
        let label = match name {
            "pieces.count" => match self.typed.text("mode") {
                "balls" => phrase("bake-balls"),
                "discs" => phrase("form-discs"),
                _ => phrase(s.label),
            },
            _ => phrase(s.label),
        };
        self.labelled(name, label)
    }
    /// The hours of bulk, cold and temper, or those of the legs.
    pub fn hours(&self) -> Vec<Field> {
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
                let word = leg
                    .as_ref()
                    .map_or(phrase("form-stage").into(), |l| named(&l.word()));
                let mut field = self.labelled(&format!("legs[{i}].hours"), &word);
                field.small = leg.map_or(String::new(), |l| where_words(&l.spot));
                field
            })
            .collect()
    }
    /// How lively yeast and starter are, where the dough has them.
    pub fn vigour(&self) -> Vec<Field> {
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
    pub fn carried(&self) -> Vec<(String, String)> {
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
    pub fn labelled(&self, name: &str, label: &str) -> Field {
        let s = spec_of(name);
        let exact = exact_name(name);
        Field {
            id: name.replace(['[', ']', '.'], "_"),
            name: name.into(),
            label: label.into(),
            small: self.small(name, phrase(s.small)),
            unit: s.unit(self.here),
            value: self.typed.raw(name).to_string(),
            exact: self
                .typed
                .has(&exact)
                .then(|| (exact.clone(), self.typed.raw(&exact).to_string())),
            step: s.shown_step(self.here),
            error: said(self.errors, name, self.here),
        }
    }
    /// A field of letters.
    pub fn words(&self, name: &str, label: &str) -> Field {
        Field {
            id: name.replace(['[', ']', '.'], "_"),
            name: name.into(),
            label: label.into(),
            small: String::new(),
            unit: "",
            value: self.typed.raw(name).to_string(),
            exact: None,
            step: 0.0,
            error: said(self.errors, name, self.here),
        }
    }
    /// The small words under a label: the style's usual range where it has one.
    pub fn small(&self, name: &str, small: &'static str) -> String {
        let u = &self.style.usual;
        let usual = |r: Usual| {
            if r.high == 0.0 {
                phrase("form-usually-none").to_string()
            } else {
                say!("form-to", low = plain(r.low), high = plain(r.high))
            }
        };
        match name {
            "hydration_percent" => usual(u.hydration),
            "oil_percent" => usual(u.oil),
            "sugar_percent" => usual(u.sugar),
            // The kitchen's own figure is as good as the kitchen says it is; another one was chosen here.
            "fridge_c" if !self.here.kitchen.rhythm.fridge_measured => {
                phrase("form-never-measured").into()
            }
            n if n.ends_with("dough_g_per_cm2") => self
                .typed
                .text(n)
                .replace(',', ".")
                .parse()
                .map_or(String::new(), |v: f64| {
                    let (by, _) = self.here.measures.scale(Quantity::GramsPerCm2);
                    thickness_name(v / by).map_or(String::new(), |t| word(&t))
                }),
            _ => small.into(),
        }
    }
    pub fn size(&self, mode: Mode) -> Vec<Field> {
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
    pub fn pan(&self, i: usize) -> PanForm {
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
    pub fn flour(&self, i: usize, f: Option<&Formula>) -> FlourForm {
        let at = |f: &str| format!("flours[{i}].{f}");
        let kind = self.typed.text(&at("facts.kind"));
        FlourForm {
            i,
            name: self.words(&at("name"), phrase("pantry-flour-2")),
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
            kinds: choices(FlourKind::name, kind),
            pantry: self.typed.raw(&at("pantry")).into(),
            guess: f
                .and_then(|f| f.flours.get(i))
                .map(|x| x.facts.strength())
                .filter(|s| s.spread > 0.0)
                .map(|s| {
                    say!(
                        "form-w-is-a-guess",
                        w = decimal(s.w, 0),
                        spread = decimal(s.spread, 0)
                    )
                }),
        }
    }
    pub fn extra(&self, i: usize) -> ExtraForm {
        let kind = ExtraKind::from_key(self.typed.text(&format!("extras[{i}].kind")))
            .unwrap_or(ExtraKind::Other);
        let name = self.typed.raw(&format!("extras[{i}].name"));
        let label = if name.trim().is_empty() {
            named(&kind.name())
        } else {
            name.to_string()
        };
        let mut amount = self.labelled(&amount_name(i, kind), &label);
        if kind == ExtraKind::ActiveMalt {
            let m = self.style.usual.malt;
            amount.small = if m.high == 0.0 {
                phrase("form-usually-none").into()
            } else {
                say!("form-to", low = plain(m.low), high = plain(m.high))
            };
        }
        // The core names the amount the same for all kinds.
        amount.error =
            amount
                .error
                .or(said(self.errors, &format!("extras[{i}].amount"), self.here));
        ExtraForm {
            i,
            kind: kind.key().into(),
            name: name.into(),
            amount,
        }
    }
    pub fn dose(&self, at: &str) -> DoseForm {
        let t = |f: &str| self.typed.text(&format!("{at}.{f}"));
        let dose = match t("dose") {
            "" => "solve",
            d => d,
        };
        let mut percent = (dose == "given").then(|| self.field(&format!("{at}.percent")));
        // A given dose that was not typed yet starts empty and is asked for.
        if let Some(p) = &mut percent {
            p.label = phrase("form-dose").into();
        }
        DoseForm {
            at: at.into(),
            forms: choices(YeastForm::name, t("form")),
            doses: [
                ("solve", phrase("form-solved")),
                ("given", phrase("form-as-i-say")),
                ("none", phrase("form-none")),
            ]
            .map(|(k, n)| choice(k, n, k == dose))
            .into(),
            percent,
            error: said(self.errors, &format!("{at}.dose"), self.here),
        }
    }
    pub fn preferment(&self, i: usize) -> PrefermentForm {
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
                named(&kind.name())
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
            shares_error: said(self.errors, &at("flours"), self.here),
        }
    }
    pub fn topping(&self, i: usize) -> ToppingForm {
        let at = |f: &str| format!("toppings[{i}].{f}");
        let m = self.here.measures;
        let cook = self.typed.text(&at("cook"));
        ToppingForm {
            i,
            name: self.words(&at("name"), phrase("form-topping")),
            grams: self.labelled(
                &at("g_per_disc"),
                &say!(
                    "form-on",
                    length_field = m.length_field(30.0),
                    length_unit = m.length_unit()
                ),
            ),
            wet: !self.typed.text(&at("wet")).is_empty(),
            after: !self.typed.text(&at("after")).is_empty(),
            cooks: choices(Cook::name, cook),
            allergens: self.typed.raw(&at("allergens")).into(),
        }
    }
}
