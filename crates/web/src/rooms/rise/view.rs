//! What Rise shows, already formatted.

use super::acts::OfferedPlan;
use super::looked::{LookedAhead, Worked};
use crate::batch::record::BatchRecord;
use crate::formula_form::Bench;
use crate::formula_form::form::where_words;
use crate::shared::chart::rise::{self as drawn, RiseDrawing};
use crate::shared::format::leg_hours;
use crate::shared::format::{self, day_hm, hm, span_words};
use crate::shared::kitchen::RequestKitchen;
use craft::formula::{Dose, Ingredient};
use craft::note::by_urgency;
use craft::number::plain;
use craft::number::two_digits;
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
            head: "This plan".into(),
            core: "needs another look".into(),
            tail: ".".into(),
            lines: [
                "What is wrong is said below.".into(),
                "Nothing is kept yet.".into(),
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
                .map(|m| (m.key, m.name))
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
        self.serve_day = serve.strftime("%A").to_string();
        // How sure it is stands before what follows from it.
        let mut notes = w.sure.as_ref().map_or(vec![], |s| {
            s.notes(&w.request, here.kitchen.rhythm.fridge_measured)
        });
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
                self.replaced.push(format!(
                    "By the marked tub the yeast works {} times as fast as planned.",
                    two_digits(f)
                ));
            }
            self.remedies = a
                .remedies
                .iter()
                .map(|r| RemedyRow {
                    code: r.code.clone(),
                    say: here.say(&r.say),
                    why: here.say(&r.why),
                    window: r.window.map_or("never ready".into(), |w| {
                        format!(
                            "ready {}",
                            format::from_to(
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
        None => ("This dough is".into(), "never ready".into(), ".".into()),
        Some(x) => {
            let from = format::quarter(&here.local(x.from_at));
            let until = x.to_at.map(|t| format::quarter(&here.local(t)));
            let core = match until {
                Some(t) if t.date() == from.date() => format!("{} to {}", hm(&from), hm(&t)),
                Some(t) => format!("{} to {}", hm(&from), day_hm(&t)),
                None => format!("from {}", hm(&from)),
            };
            let fits = if w.sheet.fits(w.request.serve_at) {
                "fits"
            } else {
                "misses"
            };
            (
                format!("Ready {}", format::day_named(&from)),
                core,
                format!(". Serve {serve} {fits}."),
            )
        }
    }
}

fn lines(w: &Worked, here: &RequestKitchen) -> [String; 2] {
    let size = format::portions(&w.sheet.formula.portions, &here.measures);
    let first = size;
    let begins = day_hm(&here.local(w.sheet.start_at));
    let second = match &w.ahead {
        Some(a) if a.replaced.is_empty() => "As planned so far.".into(),
        Some(_) => "With what was measured and done.".into(),
        None => format!("Begin {begins}."),
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
        [(Some(x.from_at), "Ready"), (x.to_at, "Past its peak")]
            .into_iter()
            .filter_map(|(t, word)| Some((t?, craft::when::quarter(t?), word.to_string())))
    });
    let serve = w.request.serve_at;
    let mut all: Vec<(Timestamp, Timestamp, String)> = legs
        .chain(window)
        .chain([(serve, serve, "Serve".to_string())])
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
        .map_or("Hours".into(), |x| here.say(&x.word()));
    let why = if fixed {
        "It is in the bowl: from here on time and temperature decide.".to_string()
    } else if f.yeast.dose == Dose::None {
        "The preferment raises it alone.".to_string()
    } else {
        let scale = w.request.scales.finest_g();
        let error = if grams > 0.0 {
            50.0 * scale / grams
        } else {
            0.0
        };
        format!(
            "At {} the rise stands at {:.0}. A {} g scale errs by {:.0} % at most.",
            hm(&here.local(w.request.serve_at)),
            w.sheet.rise_at_serve,
            plain(scale),
            error.ceil()
        )
    };
    Solve {
        mode: mode.to_string(),
        modes: vec![
            ("yeast".into(), "Yeast".into()),
            (longest.to_string(), format!("{word} hours")),
            ("serve".into(), "Serve".into()),
        ],
        big: m.dose(grams),
        unit: m.weight_unit().into(),
        name: format!(
            "{}, {} % of the flour",
            here.words(&f.yeast.form.name()),
            two_digits(w.sheet.yeast.percent)
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
                    "Room".to_string(),
                    leg.spot == Spot::Room,
                ),
                (
                    "fridge".into(),
                    format!("Fridge {}°", m.degrees(w.request.fridge_c, 1)),
                    leg.spot == Spot::Fridge,
                ),
                (
                    "freezer".into(),
                    "Freezer".into(),
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
                    Spot::Own(x) => format!("{} {}°, as planned", x.name, m.degrees(x.c, 1)),
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
                    Some(BlockKind::Temper) if leg.lies == Lies::Balls => "Warm up".into(),
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
                head: format!("Begin {begins}: {}", hours.join(", ")),
                says: format!(
                    "{} % yeast. The serve time may move {} either way; strength left {:.0}.",
                    two_digits(p.fitted.yeast_percent),
                    speech::value::span((p.fitted.margin_h * 4.0).round().max(0.0) * 900.0),
                    p.fitted.reserve_at_serve.max(0.0)
                ),
            }
        })
        .collect()
}

fn replaced(what: &ReplacedFigure, planned: f64, measured: f64, here: &RequestKitchen) -> String {
    let d = |c: f64| here.measures.degrees(c, 1);
    match what {
        ReplacedFigure::DoughOffTheMixer => format!(
            "Dough off the mixer {}° instead of {}°.",
            d(measured),
            d(planned)
        ),
        ReplacedFigure::Preferment { name } => format!(
            "{} {}° where {}° was foreseen.",
            here.say(name),
            d(measured),
            d(planned)
        ),
        ReplacedFigure::Dough => {
            format!("Dough {}° where {}° was foreseen.", d(measured), d(planned))
        }
        ReplacedFigure::Room => format!("Room {}° instead of {}°.", d(measured), d(planned)),
        ReplacedFigure::Place { name } => {
            format!("{name} {}° instead of {}°.", d(measured), d(planned))
        }
        ReplacedFigure::Fridge => format!("Fridge {}° instead of {}°.", d(measured), d(planned)),
        ReplacedFigure::Tub => {
            format!("Tub at {measured:.2} times where {planned:.2} was foreseen.")
        }
        ReplacedFigure::Step { title } => {
            let by = span_words(jiff::SignedDuration::from_secs((measured * 60.0) as i64));
            let word = if measured > 0.0 { "later" } else { "earlier" };
            format!("{}: {by} {word} than planned.", here.say(title))
        }
    }
}
