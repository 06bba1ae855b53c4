//! What the Dough sheet and the batch page show of a sheet, already formatted.

use super::fields::{self, Spec};
use super::reading;
use crate::shared::chart::strip::strip;
use crate::shared::form::Typed;
use crate::shared::format::{self, Measures, day_hm, hm};
use crate::shared::kitchen::Here;
use craft::formula::{Ingredient, Pieces, two_digits};
use craft::leaven::YeastForm;
use craft::note::Note;
use craft::refusal::{FieldError, plain};
use craft::sheet::{SheetRequest, SheetResult};
use craft::style::StyleKey;

/// A number field with what was typed.
pub struct Field {
    pub name: &'static str,
    pub label: &'static str,
    pub small: String,
    pub unit: &'static str,
    pub value: String,
    pub step: f64,
    pub error: Option<String>,
}

/// A style to choose.
pub struct StyleChoice {
    pub key: &'static str,
    pub name: &'static str,
    pub line: &'static str,
    pub chosen: bool,
}

/// One of a few.
pub struct Choice {
    pub key: &'static str,
    pub name: &'static str,
    pub chosen: bool,
}

/// The form.
pub struct Form {
    pub styles: Vec<StyleChoice>,
    pub style: &'static str,
    pub form_key: String,
    pub name: String,
    pub pieces: Vec<Field>,
    pub hours: Vec<Field>,
    pub of_flour: Vec<Field>,
    pub loss: Field,
    pub places: Vec<Field>,
    pub yeast_forms: Vec<Choice>,
    pub mixers: Vec<Choice>,
    pub serve_date: String,
    pub serve_time: String,
    errors: Vec<FieldError>,
}

impl Form {
    pub fn of(typed: &Typed, errors: &[FieldError], here: &Here) -> Form {
        let style = reading::style_of(typed);
        let field = |s: &Spec| Field {
            name: s.name,
            label: s.label,
            small: small(s, style),
            unit: s.unit(here),
            value: typed.raw(s.name).to_string(),
            step: s.shown_step(here),
            error: said(errors, s.name),
        };
        let list = |specs: &[Spec]| specs.iter().map(field).collect::<Vec<_>>();
        Form {
            styles: StyleKey::ALL
                .into_iter()
                .map(|k| {
                    let s = k.style();
                    StyleChoice {
                        key: k.key(),
                        name: s.name,
                        line: s.line,
                        chosen: k == style,
                    }
                })
                .collect(),
            style: style.key(),
            form_key: typed.text("form_key").to_string(),
            name: typed.raw("name").to_string(),
            pieces: match style.style().pieces {
                Pieces::Balls { .. } => list(&fields::BALLS),
                Pieces::Trays { .. } => list(&fields::TRAYS),
            },
            hours: list(&fields::HOURS),
            of_flour: list(&fields::OF_FLOUR),
            loss: field(&fields::LOSS),
            places: list(&fields::PLACES),
            yeast_forms: YeastForm::ALL
                .into_iter()
                .map(|f| Choice {
                    key: f.key(),
                    name: f.name(),
                    chosen: f.key() == typed.text("yeast_form"),
                })
                .collect(),
            mixers: craft::mix::Mixer::ALL
                .into_iter()
                .map(|m| Choice {
                    key: m.key(),
                    name: m.name(),
                    chosen: m.key() == typed.text("mixer"),
                })
                .collect(),
            serve_date: typed.raw("serve_date").to_string(),
            serve_time: typed.raw("serve_time").to_string(),
            errors: errors.to_vec(),
        }
    }
    /// What is wrong with a field.
    pub fn error(&self, field: &str) -> Option<String> {
        said(&self.errors, field)
    }
}

fn said(errors: &[FieldError], field: &str) -> Option<String> {
    errors
        .iter()
        .find(|e| e.field == field)
        .map(|e| e.message.clone())
}

/// The small words under a label: the style's usual range where it has one.
fn small(s: &Spec, style: StyleKey) -> String {
    let st = style.style();
    let usual = match s.name {
        "hydration_percent" => st.usual_hydration,
        "oil_percent" => st.usual_oil,
        "sugar_percent" => st.usual_sugar,
        "salt_percent" => craft::style::Usual {
            low: 1.8,
            high: 3.2,
        },
        _ => return s.small.to_string(),
    };
    if usual.high == 0.0 {
        "usually none".into()
    } else {
        format!("{} to {}", plain(usual.low), plain(usual.high))
    }
}

/// A row of the formula.
pub struct Row {
    pub name: String,
    pub percent: String,
    pub weigh: String,
    pub solved: bool,
}

/// A step by the clock.
pub struct Step {
    pub mark: String,
    pub when: String,
    pub title: String,
    pub detail: String,
}

/// Two cups and three numbers.
pub struct Dilution {
    pub yeast: String,
    pub water: String,
    pub take: String,
    pub why: String,
}

/// A sheet as it is shown.
pub struct Shown {
    pub unit: &'static str,
    pub degree: &'static str,
    pub rows: Vec<Row>,
    pub sum_percent: String,
    pub weighs: String,
    pub weighs_why: String,
    pub yeast: String,
    pub yeast_name: String,
    pub yeast_why: String,
    pub water_c: String,
    pub water_why: String,
    pub ice: Option<String>,
    pub dilution: Option<Dilution>,
    pub steps: Vec<Step>,
    pub notes: Vec<Note>,
    pub more_notes: Vec<Note>,
    pub strip: String,
    pub answer_head: String,
    pub answer_core: String,
    pub lines: [String; 2],
}

impl Shown {
    /// `now` is drawn on the clocks of a batch that is under way; then two judgements are in view, else three.
    /// `with_now` is for a batch that is under way: the present stands on its clocks, and fewer judgements in view.
    pub fn of(request: &SheetRequest, sheet: &SheetResult, here: &Here, with_now: bool) -> Shown {
        let m = here.measures;
        // The dilution is drawn beside the grams; its note would say it twice.
        let drawn = sheet.formula.dilution.is_some();
        let mut notes: Vec<Note> = sheet
            .notes
            .iter()
            .filter(|n| !(drawn && n.code == "yeast_below_scale"))
            .cloned()
            .collect();
        let in_view = if with_now { 2 } else { 3 };
        let more_notes = notes.split_off(notes.len().min(in_view));
        let now = with_now.then_some(here.now);
        let (answer_head, answer_core) = answer(request, sheet, &m);
        Shown {
            unit: m.weight_unit(),
            degree: m.degree_unit(),
            rows: rows(request, sheet, &m),
            sum_percent: format!("{:.1}", sheet.formula.sum_percent),
            weighs: m.weight(sheet.formula.weighed_g),
            weighs_why: weighs_why(request, sheet, &m),
            yeast: yeast_amount(sheet, &m),
            yeast_name: request.yeast_form.name().to_string(),
            yeast_why: format!(
                "{} % for {} h; good to a factor of 1.6.",
                two_digits(sheet.yeast.percent),
                plain(request.total_h())
            ),
            water_c: m.degrees(sheet.water.pour_c, 0),
            water_why: format!(
                "for {}° dough; {} K friction",
                m.degrees(sheet.water.dough_c, 1),
                plain(sheet.water.friction_k)
            ),
            ice: (sheet.water.ice_g >= 1.0).then(|| m.weight(sheet.water.ice_g)),
            dilution: dilution(request, sheet, &m),
            steps: steps(sheet, here),
            notes,
            more_notes,
            strip: strip(sheet, request.serve_at, now, &here.zone),
            answer_head,
            answer_core,
            lines: lines(request, sheet, here),
        }
    }
}

fn yeast_amount(sheet: &SheetResult, m: &Measures) -> String {
    let Some(row) = sheet.formula.row(Ingredient::Yeast) else {
        return "0".into();
    };
    // Where the scale cannot read the dose, its exact amount to two digits is what the dilution holds.
    if sheet.formula.dilution.is_some() {
        two_digits(row.exact_g)
    } else {
        m.weight(row.weigh_g)
    }
}

fn rows(request: &SheetRequest, sheet: &SheetResult, m: &Measures) -> Vec<Row> {
    sheet
        .formula
        .rows
        .iter()
        .map(|r| Row {
            name: match r.ingredient {
                Ingredient::Flour => format!("Flour W {}", plain(request.flour_w)),
                Ingredient::Water => "Water".into(),
                Ingredient::Salt => "Salt".into(),
                Ingredient::Oil => "Oil".into(),
                Ingredient::Sugar => "Sugar".into(),
                Ingredient::Yeast => request.yeast_form.name().into(),
            },
            percent: format::percent(r.percent),
            weigh: if r.ingredient == Ingredient::Yeast {
                yeast_amount(sheet, m)
            } else {
                m.weight(r.weigh_g)
            },
            solved: r.ingredient == Ingredient::Yeast,
        })
        .collect()
}

/// Where the weight comes from, in one line.
fn weighs_why(request: &SheetRequest, sheet: &SheetResult, m: &Measures) -> String {
    let unit = m.weight_unit();
    let one_percent = m.weight(sheet.formula.dough_g / sheet.formula.sum_percent);
    format!(
        "{} × {} {unit} and {} % for bowl and hands; one percent is {one_percent} {unit}.",
        request.pieces.count(),
        m.weight(request.pieces.piece_g()),
        plain(request.loss_percent)
    )
}

fn dilution(request: &SheetRequest, sheet: &SheetResult, m: &Measures) -> Option<Dilution> {
    let d = sheet.formula.dilution?;
    let water = sheet.formula.row(Ingredient::Water)?.weigh_g - d.less_water_g;
    Some(Dilution {
        yeast: plain(d.yeast_g),
        water: plain(d.water_g),
        take: plain(d.take_g),
        why: format!(
            "Scale reads {} g. It holds {} g of yeast; pour {} {} water besides.",
            plain(request.fine_scale_g),
            two_digits(d.holds_g),
            m.weight(water),
            m.weight_unit()
        ),
    })
}

fn steps(sheet: &SheetResult, here: &Here) -> Vec<Step> {
    sheet
        .steps
        .iter()
        .map(|s| Step {
            mark: crate::shared::marks::step(&s.kind),
            when: day_hm(&here.local(s.at)),
            title: s.title.clone(),
            detail: s.detail.clone(),
        })
        .collect()
}

/// "Six balls take" and "941 g flour, 602 g water".
fn answer(request: &SheetRequest, sheet: &SheetResult, m: &Measures) -> (String, String) {
    let n = request.pieces.count();
    let (one, many) = match request.pieces {
        Pieces::Balls { .. } => ("ball takes", "balls take"),
        Pieces::Trays { .. } => ("tray takes", "trays take"),
    };
    let g = |i| sheet.formula.row(i).map_or(0.0, |r| r.weigh_g);
    let unit = m.weight_unit();
    (
        format!(
            "{} {}",
            format::count_word(n),
            if n == 1 { one } else { many }
        ),
        format!(
            "{} {unit} flour, {} {unit} water",
            m.weight(g(Ingredient::Flour)),
            m.weight(g(Ingredient::Water))
        ),
    )
}

/// When to begin, and whether the serve time fits.
fn lines(request: &SheetRequest, sheet: &SheetResult, here: &Here) -> [String; 2] {
    let start = day_hm(&here.local(sheet.start_at));
    let serve = here.local(request.serve_at);
    let ready = match sheet.window {
        None => "Never ready: see the judgement.".to_string(),
        Some(w) => {
            let span = format::from_to(
                &here.local(w.from_at),
                w.to_at.map(|t| here.local(t)).as_ref(),
            );
            let fit = if sheet.fits(request.serve_at) {
                "fits"
            } else {
                "does not fit"
            };
            format!("Ready {span}. Serve {} {fit}.", hm(&serve))
        }
    };
    [format!("Begin mixing {start}."), ready]
}
