//! What Rise shows, already formatted.

use super::acts::OfferedPlan;
use super::looked::{LookedAhead, Worked};
use crate::batch::record::BatchRecord;
use crate::formula_form::Bench;
use crate::formula_form::form::where_words;
use crate::shared::chart::rise::{self as drawn, RiseDrawing};
use crate::shared::format::leg_hours;
use crate::shared::format::{self, day_hm, hm, serve_fits, span_words};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::shipped;
use crate::shared::tongue::{date, decimal, phrase, plain, say, two_digits};
use craft::formula::{Dose, Ingredient};
use craft::learn::taught::chance;
use craft::note::by_urgency;
use craft::pantry::boxes_for;
use craft::path::{Lies, Spot};
use craft::reading::Subject;
use craft::sheet::BlockKind;
use craft::sheet::ahead::ReplacedFigure;
use jiff::Timestamp;
use speech::Judgement;
use store::entry::Seen;

pub struct LegRow {
    pub i: usize,
    pub word: String,
    /// "39:30".
    pub span: String,
    pub span_words: String,
    pub spots: Vec<(String, String, bool)>,
    pub shorter: String,
    pub longer: String,
}

pub struct PlanRow {
    pub i: usize,
    pub head: String,
    pub says: String,
}

pub struct Solve {
    pub mode: String,
    pub modes: Vec<(String, String)>,
    pub big: String,
    pub unit: String,
    pub name: String,
    pub why: String,
    /// In the bowl already: nothing is solved any more.
    pub fixed: bool,
}

pub struct RemedyRow {
    pub code: String,
    pub say: String,
    pub why: String,
    pub window: String,
}

pub struct RiseRow {
    pub when: String,
    pub what: String,
    pub rise: String,
    pub reserve: String,
    pub dough: String,
    pub place: String,
}

pub struct RiseView {
    pub head: String,
    pub core: String,
    pub tail: String,
    pub lines: [String; 2],
    pub wide: String,
    pub narrow: String,
    pub table: Vec<RiseRow>,
    pub solve: Option<Solve>,
    pub legs: Vec<LegRow>,
    pub serve: String,
    pub serve_day: String,
    pub notes: Vec<Judgement>,
    pub more: Vec<Judgement>,
    pub methods: Vec<(String, String)>,
    pub method: String,
    pub plans: Vec<PlanRow>,
    /// What took the place of the plan's values.
    pub replaced: Vec<String>,
    pub remedies: Vec<RemedyRow>,
    pub errors: Vec<String>,
    pub mixed: bool,
    pub method_error: Option<String>,
}

impl RiseView {
    pub fn of(l: &LookedAhead, bench: &Bench, plans: Vec<OfferedPlan>) -> RiseView {
        let here = bench.here;
        let mut v = RiseView {
            head: phrase("rise-this-plan").into(),
            core: phrase("rise-needs-another-look").into(),
            tail: ".".into(),
            lines: [
                phrase("rise-what-is-wrong-is-said").into(),
                phrase("rise-nothing-is-kept-yet").into(),
            ],
            wide: String::new(),
            narrow: String::new(),
            table: vec![],
            solve: None,
            legs: vec![],
            serve: String::new(),
            serve_day: String::new(),
            notes: vec![],
            more: vec![],
            methods: bench
                .larder
                .methods()
                .into_iter()
                .map(|m| (m.key, shipped(&m.name)))
                .collect(),
            method: l.typed.text("method").to_string(),
            plans: plan_rows(&plans, here),
            replaced: vec![],
            remedies: vec![],
            errors: l
                .errors
                .iter()
                .filter(|e| e.field != "method_name")
                .map(|e| here.say(&e.message))
                .collect(),
            mixed: l.told.is_some_and(BatchRecord::is_mixed),
            method_error: l
                .errors
                .iter()
                .find(|e| e.field == "method_name")
                .map(|e| here.say(&e.message)),
        };
        if let Some(w) = &l.worked {
            v.fill(w, l, bench);
        }
        v
    }

    fn fill(&mut self, w: &Worked, l: &LookedAhead, bench: &Bench) {
        let here = bench.here;
        (self.head, self.core, self.tail) = answer(w, here);
        self.lines = lines(w, here);
        let read = l.told.map_or(vec![], readings);
        let picture = RiseDrawing {
            request: &w.request,
            sheet: &w.sheet,
            sure: w.sure.as_ref(),
            now: here.now,
            zone: &here.zone,
            measures: &here.measures,
            live: true,
            read: &read,
        };
        self.wide = drawn::wide(&picture);
        self.narrow = drawn::narrow(&picture);
        self.table = table(w, here);
        self.solve = Some(solve(w, l, here));
        self.legs = legs(w, bench);
        let serve = here.local(w.request.serve_at);
        self.serve = hm(&serve);
        self.serve_day = date(&serve, "%A");
        // How sure it is stands before what follows from it.
        let mut notes = w
            .sure
            .as_ref()
            .map_or(vec![], |s| s.notes(here.kitchen.rhythm.fridge_measured));
        notes.extend(w.sheet.notes.iter().cloned());
        notes.retain(|n| craft::sheet::is_of_hours(&n.code));
        let boxes: Vec<_> = bench
            .larder
            .0
            .boxes
            .iter()
            .map(|b| b.facts.clone())
            .collect();
        if !w.request.formula.in_pans() {
            notes.extend(boxes_for(
                w.request.formula.pieces.count(),
                w.sheet.boxed_ball(),
                &boxes,
            ));
        }
        let mut notes = by_urgency(notes);
        self.more = here.judgements(&notes.split_off(notes.len().min(3)));
        self.notes = here.judgements(&notes);
        if let Some(a) = &w.ahead {
            self.replaced = a
                .replaced
                .iter()
                .map(|r| replaced(&r.what, r.planned, r.measured, here))
                .collect();
            if let Some(f) = a.lively {
                self.replaced
                    .push(say!("rise-by-the-marked-tub-the", f = two_digits(f)));
            }
            self.remedies = a
                .remedies
                .iter()
                .map(|r| RemedyRow {
                    code: r.code.clone(),
                    say: here.say(&r.say),
                    why: here.say(&r.why),
                    window: r.window.map_or(phrase("batch-never-ready").into(), |w| {
                        say!(
                            "rise-ready-2",
                            as_ref = format::from_to(
                                &here.local(w.from_at),
                                w.to_at.map(|t| here.local(t)).as_ref()
                            )
                        )
                    }),
                })
                .collect();
        }
    }
}

fn answer(w: &Worked, here: &RequestKitchen) -> (String, String, String) {
    let serve = hm(&here.local(w.request.serve_at));
    match w.sheet.window {
        None => (
            phrase("rise-this-dough-is").into(),
            phrase("batch-never-ready").into(),
            ".".into(),
        ),
        Some(x) => {
            let from = format::quarter(&here.local(x.from_at));
            let until = x.to_at.map(|t| format::quarter(&here.local(t)));
            let core = match until {
                Some(t) if t.date() == from.date() => say!("rise-to", from = hm(&from), t = hm(&t)),
                Some(t) => say!("rise-to", from = hm(&from), t = day_hm(&t)),
                None => say!("rise-from", from = hm(&from)),
            };
            let fits = w.sheet.fits(w.request.serve_at);
            (
                say!("rise-ready-3", from = format::day_named(&from)),
                core,
                serve_fits(fits, &serve),
            )
        }
    }
}

fn lines(w: &Worked, here: &RequestKitchen) -> [String; 2] {
    let size = format::portions(&w.sheet.formula.portions, &here.measures);
    let first = size;
    let begins = day_hm(&here.local(w.sheet.start_at));
    let second = match &w.ahead {
        Some(a) if a.replaced.is_empty() => phrase("rise-as-planned-so-far").into(),
        Some(_) => phrase("rise-with-what-was-measured-and").into(),
        None => say!("rise-begin", begins = begins),
    };
    [first, second]
}

/// Measured temperatures: when, °C, whether of the dough.
fn readings(told: &BatchRecord) -> Vec<(Timestamp, f64, bool)> {
    told.seen()
        .filter_map(|o| match o.seen {
            Seen::Reading { subject, celsius } => match subject {
                Subject::Dough => Some((o.at, celsius, true)),
                Subject::Room | Subject::Fridge => Some((o.at, celsius, false)),
                _ => None,
            },
            _ => None,
        })
        .collect()
}

fn table(w: &Worked, here: &RequestKitchen) -> Vec<RiseRow> {
    let path = w.request.formula.path();
    let legs = w.sheet.blocks.iter().filter_map(|b| {
        let leg = path.get(b.leg?)?;
        let what = format!("{}, {}", here.say(&leg.word()), where_words(&leg.spot));
        Some((b.from_at, b.from_at, what))
    });
    // Said to the quarter hour, as the headline says it; its figures are of the moment itself.
    let window = w.sheet.window.into_iter().flat_map(|x| {
        [
            (Some(x.from_at), phrase("bench-ready")),
            (x.to_at, phrase("rise-past-its-peak")),
        ]
        .into_iter()
        .filter_map(|(t, word)| Some((t?, craft::when::quarter(t?), word.to_string())))
    });
    let serve = w.request.serve_at;
    let mut all: Vec<(Timestamp, Timestamp, String)> = legs
        .chain(window)
        .chain([(serve, serve, phrase("bench-serve").to_string())])
        .collect();
    all.sort_by_key(|r| r.0);
    all.into_iter()
        .map(|(t, said_at, what)| {
            let c = w.sheet.clocks_at(t);
            // Where it lies from then on.
            let soon = t + jiff::SignedDuration::from_mins(1);
            let place = w.sheet.clocks_at(soon).or(c);
            let m = here.measures;
            let show =
                |f: &dyn Fn(&craft::sheet::ClockPoint) -> String| c.as_ref().map_or("–".into(), f);
            RiseRow {
                when: day_hm(&here.local(said_at)),
                what,
                rise: show(&|c| format!("{:.0}", c.rise)),
                reserve: show(&|c| format!("{:.0}", c.reserve.max(0.0))),
                dough: show(&|c| format!("{}°", m.degrees(c.dough_c, 1))),
                place: place.map_or("–".into(), |c| format!("{}°", m.degrees(c.place_c, 1))),
            }
        })
        .collect()
}

fn solve(w: &Worked, l: &LookedAhead, here: &RequestKitchen) -> Solve {
    let f = &w.request.formula;
    let m = here.measures;
    let grams = w
        .sheet
        .formula
        .weigh_in(Ingredient::Yeast, w.sheet.formula.last());
    let fixed = l.told.is_some_and(BatchRecord::is_mixed);
    let solving = l.typed.text("solving");
    let mode = match f.yeast.dose {
        Dose::Solve => "yeast",
        _ if solving.is_empty() => "",
        _ => solving,
    };
    let path = f.path();
    // The longest leg is the one to stretch.
    let longest = path
        .iter()
        .enumerate()
        .filter(|(_, x)| !x.spot.is_frozen())
        .max_by(|a, b| a.1.hours.total_cmp(&b.1.hours))
        .map_or(0, |(i, _)| i);
    let word = path
        .get(longest)
        .map_or(phrase("form-hours").into(), |x| here.say(&x.word()));
    let why = if fixed {
        phrase("rise-it-is-in-the-bowl").to_string()
    } else if f.yeast.dose == Dose::None {
        phrase("rise-the-preferment-raises-it-alone").to_string()
    } else {
        let scale = w.request.scales.finest_g();
        let error = if grams > 0.0 {
            50.0 * scale / grams
        } else {
            0.0
        };
        say!(
            "rise-at-the-rise-stands-at",
            serve_at = hm(&here.local(w.request.serve_at)),
            rise_at_serve = decimal(w.sheet.rise_at_serve, 0),
            scale = plain(scale),
            ceil = decimal(error.ceil(), 0)
        )
    };
    Solve {
        mode: mode.to_string(),
        modes: vec![
            ("yeast".into(), phrase("rise-yeast").into()),
            (longest.to_string(), say!("rise-hours", value = word)),
            ("serve".into(), phrase("bench-serve").into()),
        ],
        big: m.dose(grams),
        unit: m.weight_unit().into(),
        name: say!(
            "rise-of-the-flour",
            name = here.words(&f.yeast.form.name()),
            percent = two_digits(w.sheet.yeast.percent)
        ),
        why,
        fixed,
    }
}

fn legs(w: &Worked, bench: &Bench) -> Vec<LegRow> {
    let m = bench.here.measures;
    w.request
        .formula
        .path()
        .iter()
        .enumerate()
        .map(|(i, leg)| {
            let minutes = (leg.hours * 60.0).round() as i64;
            let mut spots = vec![
                (
                    "room".to_string(),
                    phrase("form-room").to_string(),
                    leg.spot == Spot::Room,
                ),
                (
                    "fridge".into(),
                    say!("rise-fridge", fridge_c = m.degrees(w.request.fridge_c, 1)),
                    leg.spot == Spot::Fridge,
                ),
                (
                    "freezer".into(),
                    phrase("pantry-freezer").into(),
                    leg.spot == Spot::Freezer,
                ),
            ];
            for p in &bench.larder.0.places {
                // A place that was changed since is another one: the plan goes on with its copy until the new one is chosen.
                let chosen = matches!(&leg.spot, Spot::Own(x) if *x == p.facts);
                let name = format!("{} {}°", p.facts.name, m.degrees(p.facts.c, 1));
                spots.push((p.id.to_string(), name, chosen));
            }
            if !spots.iter().any(|s| s.2) {
                let words = match &leg.spot {
                    Spot::Own(x) => say!("rise-as-planned", name = x.name, c = m.degrees(x.c, 1)),
                    spot => where_words(spot),
                };
                spots.push(("as_it_is".into(), words, true));
            }
            let step = if leg.hours >= 12.0 { "0.5" } else { "0.25" };
            LegRow {
                i,
                word: match w
                    .sheet
                    .blocks
                    .iter()
                    .find(|b| b.leg == Some(i))
                    .map(|b| b.kind)
                {
                    Some(BlockKind::Temper) if leg.lies == Lies::Balls => {
                        phrase("form-warm-up").into()
                    }
                    _ => bench.here.say(&leg.word()),
                },
                span: format!("{}:{:02}", minutes / 60, minutes % 60),
                span_words: span_words(jiff::SignedDuration::from_mins(minutes)),
                spots,
                shorter: format!("leg:{i}:-{step}"),
                longer: format!("leg:{i}:{step}"),
            }
        })
        .collect()
}

fn plan_rows(plans: &[OfferedPlan], here: &RequestKitchen) -> Vec<PlanRow> {
    plans
        .iter()
        .enumerate()
        .map(|(i, p)| {
            let hours: Vec<String> = p.fitted.legs.iter().map(|l| leg_hours(l, here)).collect();
            let begins = day_hm(&here.local(p.fitted.start_at));
            PlanRow {
                i,
                head: say!("rise-begin-2", begins = begins, join = hours.join(", ")),
                says: say!(
                    "rise-yeast-the-serve-time-may",
                    chance = here.words(&chance(p.fitted.chance)),
                    yeast_percent = two_digits(p.fitted.yeast_percent),
                    round = speech::value::span((p.fitted.margin_h * 4.0).round().max(0.0) * 900.0),
                    reserve_at_serve = decimal(p.fitted.reserve_at_serve.max(0.0), 0)
                ),
            }
        })
        .collect()
}

fn replaced(what: &ReplacedFigure, planned: f64, measured: f64, here: &RequestKitchen) -> String {
    let d = |c: f64| here.measures.degrees(c, 1);
    match what {
        ReplacedFigure::DoughOffTheMixer => say!(
            "rise-dough-off-the-mixer-instead",
            measured = d(measured),
            planned = d(planned)
        ),
        ReplacedFigure::Preferment { name } => say!(
            "rise-where-was-foreseen",
            name = here.say(name),
            measured = d(measured),
            planned = d(planned)
        ),
        ReplacedFigure::Dough => {
            say!(
                "rise-dough-where-was-foreseen",
                measured = d(measured),
                planned = d(planned)
            )
        }
        ReplacedFigure::Room => say!(
            "rise-room-instead-of",
            measured = d(measured),
            planned = d(planned)
        ),
        ReplacedFigure::Place { name } => {
            say!(
                "rise-instead-of",
                name = name,
                measured = d(measured),
                planned = d(planned)
            )
        }
        ReplacedFigure::Fridge => say!(
            "rise-fridge-instead-of",
            measured = d(measured),
            planned = d(planned)
        ),
        ReplacedFigure::Tub => {
            say!(
                "rise-tub-at-times-where-was",
                measured = decimal(measured, 2),
                planned = decimal(planned, 2)
            )
        }
        ReplacedFigure::Step { title } => {
            let by = span_words(jiff::SignedDuration::from_secs((measured * 60.0) as i64));
            let word = if measured > 0.0 {
                phrase("rise-word-later")
            } else {
                phrase("rise-word-earlier")
            };
            say!(
                "rise-than-planned",
                title = here.say(title),
                by = by,
                value = word
            )
        }
    }
}
