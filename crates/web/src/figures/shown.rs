//! What the Dough sheet and the batch page show of a sheet, already formatted.

use super::table::FormulaTable;
use crate::shared::chart::blend::bar;
use crate::shared::chart::strip::strip;
use crate::shared::format::{self, Measures, day_hm, hm};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::tongue::shipped;
use crate::shared::tongue::{decimal, phrase, plain, say, two_digits};
use craft::fact::{Value, tenth};
use craft::formula::{Ingredient, Portion};
use craft::learn::taught::chance;
use craft::note::Note;
use craft::pantry;
use craft::refusal::spoken_h;
use craft::sheet::{SheetRequest, SheetResult};
use craft::style::rule_sheet::points;
use craft::style::topping::{allergens, amounts};
use speech::Judgement;

/// A step by the clock.
pub struct StepLine {
    pub mark: &'static str,
    pub when: String,
    pub title: String,
}

/// Two cups and three numbers.
pub struct DilutionView {
    pub head: String,
    pub yeast: String,
    pub water: String,
    /// How warm the water of the mixture is.
    pub water_c: String,
    pub take: String,
    pub why: String,
}

/// A point of the traditional rule sheet.
pub struct PointView {
    pub what: String,
    pub rule: String,
    pub here: String,
    /// "met", "not met", "not known".
    pub word: &'static str,
}

pub struct ToppingView {
    pub name: String,
    pub each: String,
    pub all: String,
    pub remark: String,
}

/// One line of the shopping list.
pub struct BuyView {
    pub name: String,
    pub need: String,
    pub have: String,
    pub buy: String,
}

/// What it costs and what must be bought.
pub struct CostView {
    pub head: String,
    pub why: String,
    pub list: Vec<BuyView>,
}

/// A sheet as it is shown.
pub struct ShownSheet {
    pub degree: &'static str,
    pub table: FormulaTable,
    pub bar: String,
    /// Weights may be typed into the table.
    pub editable: bool,
    /// The doses in force, for weights that are typed: of the dough, then of the preferments.
    pub dose: String,
    pub yeast: String,
    pub yeast_unit: &'static str,
    pub yeast_name: String,
    pub yeast_why: String,
    pub water_c: String,
    pub water_why: String,
    pub ice: Option<String>,
    pub dilutions: Vec<DilutionView>,
    pub steps: Vec<StepLine>,
    pub notes: Vec<Judgement>,
    pub more_notes: Vec<Judgement>,
    pub strip: String,
    pub answer_head: String,
    pub answer_core: String,
    pub lines: [String; 2],
    pub points: Vec<PointView>,
    pub points_met: usize,
    pub toppings: Vec<ToppingView>,
    pub allergens: String,
    pub cost: Option<CostView>,
    /// What is wrong with a weight that was typed.
    pub grams_error: Option<String>,
}

/// How a sheet is shown.
#[derive(Clone, Copy, PartialEq, Eq)]
pub enum ShownAs {
    /// While it is asked for.
    Draft,
    /// A batch under way: the present stands on its clocks, and fewer judgements in view.
    Batch,
}

impl ShownSheet {
    pub fn of(
        request: &SheetRequest,
        sheet: &SheetResult,
        here: &RequestKitchen,
        shown_as: ShownAs,
    ) -> ShownSheet {
        let m = here.measures;
        // A dilution is drawn beside the grams; its note would say it twice.
        let drawn = sheet.formula.columns.iter().any(|c| c.dilution.is_some());
        let mut notes: Vec<&Note> = sheet
            .notes
            .iter()
            .filter(|n| !(drawn && n.code == "yeast_below_scale"))
            .collect();
        let in_view = if shown_as == ShownAs::Batch { 2 } else { 3 };
        let more_notes = notes.split_off(notes.len().min(in_view));
        let now = (shown_as == ShownAs::Batch).then_some(here.now);
        let (answer_head, answer_core) = answer(request, sheet, &m);
        let rules = if request.formula.style.rule_sheet {
            points(
                &request.formula,
                &sheet.formula,
                Some(sheet.water.pour_c),
                request.programme().out_s,
            )
        } else {
            vec![]
        };
        ShownSheet {
            degree: m.degree_unit(),
            table: FormulaTable::of(request, sheet, here),
            bar: if request.formula.flours.len() > 1 {
                bar(&request.formula.flours)
            } else {
                String::new()
            },
            editable: shown_as == ShownAs::Draft,
            dose: doses(sheet),
            yeast: yeast_amount(sheet, &m),
            yeast_unit: m.weight_unit(),
            yeast_name: here.say(&request.formula.yeast.form.name()),
            yeast_why: yeast_why(request, sheet, here),
            water_c: m.degrees(sheet.water.pour_c, 0),
            water_why: say!(
                "figures-for-dough-warmer-by-mixing",
                dough_c = m.degrees(sheet.water.dough_c, 1),
                full = here
                    .reader()
                    .said(&Value::Kelvin(tenth(sheet.water.friction_k)))
                    .full
            ),
            ice: (sheet.water.ice_g >= 1.0).then(|| m.weighed(sheet.water.ice_g)),
            dilutions: dilutions(request, sheet, here),
            steps: steps(sheet, here),
            notes: here.judgements(notes),
            more_notes: here.judgements(more_notes),
            strip: strip(sheet, request.serve_at, now, (&here.zone, &here.measures)),
            answer_head,
            answer_core,
            lines: lines(request, sheet, here),
            points_met: rules.iter().filter(|p| p.met == Some(true)).count(),
            points: rules
                .into_iter()
                .map(|p| PointView {
                    word: match p.met {
                        Some(true) => phrase("figures-word-met"),
                        Some(false) => phrase("figures-not-met"),
                        None => phrase("figures-not-known"),
                    },
                    what: here.say(&p.what),
                    rule: here.say(&p.rule),
                    here: here.say(&p.here),
                })
                .collect(),
            toppings: toppings(request, sheet, &m),
            allergens: allergens(&request.formula.toppings, &["gluten"])
                .iter()
                .map(|a| shipped(a))
                .collect::<Vec<_>>()
                .join(", "),
            cost: None,
            grams_error: None,
        }
    }
    /// With what the pantry says of prices and stock.
    pub fn priced(
        mut self,
        request: &SheetRequest,
        sheet: &SheetResult,
        here: &RequestKitchen,
        larder: &Larder,
    ) -> ShownSheet {
        self.cost = Some(cost_of(request, sheet, here, larder));
        self
    }
}

fn cost_of(
    request: &SheetRequest,
    sheet: &SheetResult,
    here: &RequestKitchen,
    larder: &Larder,
) -> CostView {
    let (f, r, m) = (&request.formula, &sheet.formula, here.measures);
    let on = amounts(&f.toppings, &r.portions, request.programme().out_s);
    let needs = pantry::needs(f, r, &on);
    let c = pantry::cost(&needs, &larder.prices(), r.pieces);
    let money = |v: f64| format!("{}{}", here.kitchen.reads.currency, decimal(v, 2));
    let missing = match c.without_price.len() {
        0 => String::new(),
        n if n <= 4 => {
            let names: Vec<String> = c.without_price.iter().map(|n| here.words(n)).collect();
            [
                " ",
                &say!("figures-without-a-price", join = names.join(", ")),
                "",
            ]
            .concat()
        }
        n => [" ", &say!("figures-things-have-no-price-yet", n = n), ""].concat(),
    };
    let piece = if f.in_pans() {
        phrase("figures-word-pan")
    } else {
        phrase("figures-word-ball")
    };
    // A sum without the flour is no cost of a dough.
    let flours: Vec<&str> = f.flours.iter().map(|x| x.name.as_str()).collect();
    let no_flour = c
        .without_price
        .iter()
        .any(|n| flours.contains(&n.brief().as_str()));
    let head = if no_flour {
        phrase("figures-cost-the-flour-has-no").to_string()
    } else {
        say!(
            "figures-cost-a-and-shopping",
            per_ball = money(c.per_ball),
            piece = piece
        )
    };
    CostView {
        head,
        why: say!(
            "figures-a-with-toppings-in-all",
            per_ball = money(c.per_ball),
            piece = piece,
            per_pizza = money(c.per_pizza),
            toppings = money(c.dough + c.toppings),
            missing = missing
        ),
        list: pantry::shopping(&needs, |n| larder.free(n))
            .into_iter()
            .map(|l| BuyView {
                name: here.say(&l.name),
                need: m.weight(l.need_g),
                have: if l.have_g > 0.0 {
                    m.weight(l.have_g)
                } else {
                    "–".into()
                },
                buy: if l.buy_g > 0.0 {
                    m.weight(l.buy_g)
                } else {
                    "–".into()
                },
            })
            .collect(),
    }
}

/// A topping to the gram: a spoon is no finer.
fn spooned(g: f64, m: &Measures) -> String {
    if m.weight_unit() == "g" {
        crate::shared::tongue::number(format::thousands(&format!("{g:.0}")))
    } else {
        m.weight(g)
    }
}

fn toppings(request: &SheetRequest, sheet: &SheetResult, m: &Measures) -> Vec<ToppingView> {
    let f = &request.formula;
    amounts(
        &f.toppings,
        &sheet.formula.portions,
        request.programme().out_s,
    )
    .into_iter()
    .map(|t| ToppingView {
        each: t
            .each_g
            .iter()
            .map(|g| spooned(*g, m))
            .collect::<Vec<_>>()
            .join(" / "),
        all: spooned(t.total_g, m),
        remark: [
            (t.cook_first, phrase("figures-cook-first")),
            (t.after_the_bake, phrase("figures-after-the-bake")),
        ]
        .iter()
        .filter(|(is, _)| *is)
        .map(|(_, w)| *w)
        .collect::<Vec<_>>()
        .join(", "),
        name: t.name,
    })
    .collect()
}

fn yeast_amount(sheet: &SheetResult, m: &Measures) -> String {
    let f = &sheet.formula;
    m.dose(f.weigh_in(Ingredient::Yeast, f.last()))
}

fn doses(sheet: &SheetResult) -> String {
    let mut all = vec![sheet.yeast.percent.to_string()];
    all.extend(
        sheet
            .preferments
            .iter()
            .map(|p| p.yeast_percent.to_string()),
    );
    all.join(" ")
}

fn yeast_why(request: &SheetRequest, sheet: &SheetResult, here: &RequestKitchen) -> String {
    let h = spoken_h(request.formula.total_h());
    match request.formula.yeast.dose {
        craft::formula::Dose::Given { .. } => say!(
            "figures-as-you-set-it-for",
            percent = two_digits(sheet.yeast.percent),
            h = h
        ),
        _ if sheet.yeast.percent == 0.0 => phrase("figures-none-in-the-dough-the").into(),
        _ if request.own.is_some() => own_why(request, sheet, here),
        _ => say!(
            "figures-for-h-good-to-a",
            percent = two_digits(sheet.yeast.percent),
            h = h
        ),
    }
}

/// A dose by this kitchen's log, beside the book's.
fn own_why(request: &SheetRequest, sheet: &SheetResult, here: &RequestKitchen) -> String {
    let h = spoken_h(request.formula.total_h());
    let by_the_book = SheetRequest {
        own: None,
        ..request.clone()
    };
    let book = here.worked_out(&by_the_book);
    let own = request.own.as_ref();
    let log = sheet.by_log.as_ref();
    say!(
        "figures-yours-from-bakes",
        percent = two_digits(sheet.yeast.percent),
        h = h,
        n = own.map_or(0, |o| o.bakes),
        good = own
            .and_then(|o| o.good_to)
            .map_or("–".into(), |g| decimal(g, 1)),
        met = log.map_or("–".into(), |l| here.words(&chance(l.chance))),
        book = book.map_or("–".into(), |b| two_digits(b.yeast.percent))
    )
}

/// The ways around a dilution.
fn other_ways(pieces: Option<u32>, columns: usize) -> String {
    let larger = pieces.map_or(String::new(), |n| {
        say!("figures-from-pieces-on-it-weighs", n = n)
    });
    if columns == 1 {
        say!("figures-a-poolish-or-a-levain", larger = larger)
    } else {
        larger
    }
}

fn dilutions(
    request: &SheetRequest,
    sheet: &SheetResult,
    here: &RequestKitchen,
) -> Vec<DilutionView> {
    let m = &here.measures;
    let f = &sheet.formula;
    f.columns
        .iter()
        .enumerate()
        .filter_map(|(i, c)| {
            let d = c.dilution?;
            let dose = f.weigh_in(Ingredient::Yeast, i);
            // What the steps say, too.
            let poured = match sheet.preferments.get(i) {
                Some(p) => p.water.as_ref().map(|w| w.pour_g),
                None => Some(sheet.water.pour_g),
            };
            let water = poured.unwrap_or(f.weigh_in(Ingredient::Water, i) - d.less_water_g);
            let form = request
                .formula
                .preferments
                .get(i)
                .map_or(request.formula.yeast.form, |p| p.yeast.form);
            let of = if f.columns.len() > 1 {
                [
                    " ",
                    &say!("figures-for-the", name = format::word(&c.name)),
                    "",
                ]
                .concat()
            } else {
                String::new()
            };
            let pays = if d.pays(f.dough_g) {
                String::new()
            } else {
                [
                    " ",
                    &say!(
                        "figures-a-pocket-scale-that-reads",
                        s = craft::formula::spooned(dose, form)
                            .map_or(String::new(), |s| here.say(&s)),
                        thrown_g = m.weighed(d.thrown_g)
                    ),
                    "",
                ]
                .concat()
            };
            Some(DilutionView {
                head: say!(
                    "figures-is-too-small-to-weigh",
                    dose = m.dosed(dose),
                    of = of
                ),
                yeast: plain(d.yeast_g),
                water: plain(d.water_g),
                water_c: m.degrees(request.room_c, 0),
                take: plain(d.take_g),
                why: say!(
                    "figures-scale-reads-g-it-holds",
                    dose = plain(request.scales.for_g(dose)),
                    dose2 = m.dosed(dose),
                    water = m.weighed(water),
                    pays = pays,
                    columns = other_ways(c.weighs_from_pieces, f.columns.len())
                ),
            })
        })
        .collect()
}

fn steps(sheet: &SheetResult, here: &RequestKitchen) -> Vec<StepLine> {
    sheet
        .steps
        .iter()
        .map(|s| StepLine {
            mark: crate::shared::marks::step(&s.kind),
            when: day_hm(&here.local(s.at)),
            title: here.say(&s.title),
        })
        .collect()
}

/// "Six balls take" and "941 g flour, 602 g water".
fn answer(request: &SheetRequest, sheet: &SheetResult, m: &Measures) -> (String, String) {
    let in_pans = request.formula.in_pans();
    // A total or the flour at hand divides into what the style makes.
    let is_pan = |p: &Portion| p.pan.is_some() || (in_pans && sheet.formula.portions.len() == 1);
    let count = |pans: bool| {
        let of = sheet.formula.portions.iter().filter(|p| is_pan(p) == pans);
        of.map(|p| p.count).sum::<u32>()
    };
    let balls_said = |n: u32| say!("figures-n-balls", word = format::count_word(n), n = n);
    let pans_said = |n: u32| say!("figures-n-pans", word = format::count_word(n), n = n);
    let (pans, balls) = (count(true), count(false));
    let what = match (pans, balls) {
        (0, n) => balls_said(n),
        (n, 0) => pans_said(n),
        (p, b) => say!(
            "figures-and",
            p = pans_said(p),
            to_lowercase = balls_said(b).to_lowercase()
        ),
    };
    let g = |i| m.weighed(sheet.formula.weigh_g(i));
    (
        say!("figures-takes", what = what, n = pans + balls),
        say!(
            "figures-flour-water",
            flour = g(Ingredient::Flour),
            water = g(Ingredient::Water)
        ),
    )
}

/// When to begin, and whether the serve time fits.
fn lines(request: &SheetRequest, sheet: &SheetResult, here: &RequestKitchen) -> [String; 2] {
    let start = day_hm(&here.local(sheet.start_at));
    let serve = here.local(request.serve_at);
    let begin = match sheet.preferments.iter().min_by_key(|p| p.from_at) {
        Some(p) => say!(
            "figures-begin-the",
            name = here.words(&p.name),
            start = start
        ),
        None => say!("figures-begin-mixing", start = start),
    };
    let ready = match sheet.window {
        None => phrase("figures-never-ready-see-the-judgement").to_string(),
        Some(w) => {
            let span = format::from_to(
                &here.local(w.from_at),
                w.to_at.map(|t| here.local(t)).as_ref(),
            );
            let fit = if sheet.fits(request.serve_at) {
                phrase("figures-fits")
            } else {
                phrase("figures-does-not-fit")
            };
            say!(
                "figures-ready-serve",
                span = span,
                serve = hm(&serve),
                fit = fit
            )
        }
    };
    [begin, ready]
}
