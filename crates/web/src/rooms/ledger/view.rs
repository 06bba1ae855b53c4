//! What the Ledger shows, already formatted.

use crate::batch::record::BatchRecord;
use crate::shared::chart::{Hold, Svg};
use crate::shared::drawn::Drawn;
use crate::shared::format::path_hours;
use crate::shared::format::word;
use crate::shared::format::{count_word, day, min_s, percent};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::shipped;
use crate::shared::tongue::{decimal, phrase, plain, say};
use craft::fire::RunSummary;
use craft::fire::Shade;
use craft::fire::judge::floor_while_baking;
use craft::fire::run::most_often_off;
use craft::rise::ripeness::{PEAK, READY};
use craft::shape::tally;
use craft::sheet::StepKind;
use craft::sheet::ahead::TOLERANCE_PERCENT;
use craft::units::WeightUnit;
use std::sync::Arc;

pub struct LedgerRow {
    pub code: String,
    pub name: String,
    pub day: String,
    pub size: String,
    pub hours: String,
    pub dough: String,
    /// Planned and measured dough temperature on one small scale.
    pub thermometer: String,
    /// How long mixing and balling took, what stayed in the bowl, how even the pieces are, what the finger said.
    pub bench: Vec<String>,
    pub clocks: String,
    pub bake: String,
    pub bake_planned: String,
    /// Which oven, how many at what pace, what its floor read.
    pub run: Vec<String>,
    pub baked: bool,
    pub verdicts: String,
    pub said: Vec<String>,
    /// Who worked on it; empty where nobody is known.
    pub by: String,
}

pub struct LedgerView {
    pub answer_head: String,
    pub answer_core: String,
    pub lines: [String; 2],
    pub rows: Vec<Arc<LedgerRow>>,
    pub degree_unit: &'static str,
}

impl LedgerView {
    pub fn of(
        told: &[BatchRecord],
        here: &RequestKitchen,
        (in_all, searched): (u64, bool),
        lines_drawn: &Drawn<LedgerRow>,
    ) -> LedgerView {
        let summaries: Vec<RunSummary> = told.iter().map(|t| t.run.summary()).collect();
        let judged: u32 = summaries.iter().map(|s| s.judged).sum();
        let right: u32 = summaries.iter().map(|s| s.right).sum();
        let n = told.len() as u32;
        let of_all = in_all > told.len() as u64;
        let bakes = [
            if of_all {
                phrase("ledger-of-these")
            } else {
                ""
            },
            if of_all { " " } else { "" },
            &count_word(n),
            " ",
            &say!("ledger-bakes", n = n),
            ",",
        ]
        .concat();
        let (answer_head, answer_core) = match (n, judged) {
            (0, _) if searched => (
                phrase("ledger-find-nothing").into(),
                phrase("ledger-find-as-asked").into(),
            ),
            (0, _) => (
                phrase("ledger-nothing-is").into(),
                phrase("ledger-written-here-yet").into(),
            ),
            (_, 0) => (bakes, phrase("ledger-none-judged").into()),
            _ => (
                bakes,
                say!(
                    "ledger-of-right-on-both-sides",
                    right = right,
                    judged = judged
                ),
            ),
        };
        LedgerView {
            answer_head,
            answer_core,
            lines: lines(told, &summaries, here),
            rows: told
                .iter()
                .zip(&summaries)
                .map(|(t, s)| {
                    let stands = t.stands(here, &t.batch.sheet.result);
                    lines_drawn.of(vec![stands], 0, || row(t, s, here))
                })
                .collect(),
            degree_unit: here.measures.degree_unit(),
        }
    }
}

fn row(t: &BatchRecord, s: &RunSummary, here: &RequestKitchen) -> LedgerRow {
    let (r, sheet) = (&t.batch.sheet.request, &t.batch.sheet.result);
    let m = here.measures;
    let size = crate::shared::format::portions(&sheet.formula.portions, &m);
    let f = &r.formula;
    let hours = path_hours(f, here);
    LedgerRow {
        code: t.batch.code.clone(),
        name: t.batch.name.clone(),
        day: t
            .batch
            .finished_at
            .map_or(String::new(), |at| day(&here.local(at))),
        size,
        hours,
        dough: say!(
            "ledger-water-yeast-w",
            hydration_percent = plain(f.hydration_percent),
            percent = percent(sheet.yeast.percent),
            round = plain(craft::flour::blend(&f.flours).w.round())
        ),
        thermometer: thermometer(f.target_dough_c, t.off_the_mixer(here.now), here),
        bench: at_the_bench(t, here),
        // As it went, where that was known when it was closed.
        clocks: t.went().map_or_else(
            || clocks(sheet.rise_at_serve, sheet.reserve_at_serve),
            |w| clocks(w.rise_at_serve, w.reserve_at_serve),
        ),
        bake: s.mean_s.map_or("–".into(), min_s),
        bake_planned: say!(
            "ledger-planned",
            out_s = min_s(f64::from(sheet.programme.out_s))
        ),
        run: run(t, s, here),
        baked: !t.run.pizzas.is_empty(),
        verdicts: verdict_square(s),
        said: t.remarks().map(|(_, remark)| remark.to_string()).collect(),
        by: here.by(&t.batch.entries.names().join(", ")),
    }
}

/// What the hands did: minutes against the plan's, the loss, the pieces and their spread, press tests.
fn at_the_bench(t: &BatchRecord, here: &RequestKitchen) -> Vec<String> {
    let sheet = &t.batch.sheet.result;
    let mut out = vec![];
    for (step, state) in sheet.steps.iter().zip(&t.progress.steps) {
        let word = match step.kind {
            StepKind::Mix => phrase("ledger-word-mixed"),
            StepKind::Ball => phrase("ledger-word-balled"),
            StepKind::Pan => phrase("ledger-word-panned"),
            _ => continue,
        };
        if let (Some(from), Some(to)) = (state.begun, state.done.filter(|_| state.ended)) {
            let took = to.duration_since(from).as_secs_f64() / 60.0;
            let planned = step.hands_on_min;
            out.push(say!(
                "ledger-min-planned",
                value = word,
                took = decimal(took, 0),
                planned = decimal(planned, 0)
            ));
        }
    }
    let shape = &t.shape;
    if let Some(whole) = shape.whole_g {
        let put = sheet.formula.dough_g;
        out.push(say!(
            "ledger-stayed-in-the-bowl",
            put = decimal(100.0 * (1.0 - whole / put), 1)
        ));
    }
    let pieces = shape.weighed();
    if pieces.len() > 1 {
        let sum: f64 = pieces.iter().sum();
        let mean = sum / pieces.len() as f64;
        let spread = tally(
            sum,
            &pieces,
            mean,
            pieces.len() as u32,
            1.0,
            TOLERANCE_PERCENT,
        );
        let spread = spread.sd_g;
        let m = here.measures;
        let digits = if m.weight == WeightUnit::Grams { 1 } else { 2 };
        let spread = decimal(spread / m.weight.grams(), digits);
        out.push(format!(
            "{} × {}, ± {spread}",
            pieces.len(),
            m.weighed(mean)
        ));
    }
    for (number, told) in &shape.boxes {
        if let Some((_, sign)) = told.pressed.last() {
            out.push(say!(
                "ledger-box",
                number = number,
                name = here.words(&sign.name())
            ));
        }
    }
    out
}

/// The run in short: the oven, how many at what pace, what the floor read while they baked.
fn run(t: &BatchRecord, s: &RunSummary, here: &RequestKitchen) -> Vec<String> {
    let mut out = Vec::new();
    if s.out > 0 {
        let pace = s
            .pace_s
            .map_or(String::new(), |p| say!("ledger-one-every", p = min_s(p)));
        out.push(say!("ledger-out", out = s.out, pace = pace));
    }
    let m = here.measures;
    let read = floor_while_baking(&t.floor_reads(), &t.run).map(|(low, high)| {
        let (low, high) = (m.degrees(low, 0), m.degrees(high, 0));
        match low == high {
            true => format!("{low}°"),
            false => say!("ledger-to", low = low, high = high),
        }
    });
    let oven = t.batch.sheet.request.fire.as_deref();
    match (oven.map(|f| shipped(&f.plan.oven.name)), read) {
        (Some(name), Some(read)) => out.push(format!("{name}, {read}")),
        (Some(name), None) => out.push(name),
        (None, Some(read)) => out.push(say!("ledger-floor", read = read)),
        (None, None) => {}
    }
    out
}

/// Planned (tick) against measured (dot) dough temperature, 4 K around the plan.
fn thermometer(planned: f64, measured: Option<f64>, here: &RequestKitchen) -> String {
    let m = here.measures;
    let label = match measured {
        Some(c) => say!(
            "ledger-dough-measured-planned",
            c = m.degrees(c, 1),
            planned = m.degrees(planned, 1)
        ),
        None => say!(
            "ledger-dough-planned-not-measured",
            planned = m.degrees(planned, 1)
        ),
    };
    let mut svg = Svg::new(150.0, 52.0, "thermo", &label);
    let x = |c: f64| 75.0 + 15.0 * (c - planned).clamp(-4.0, 4.0);
    svg.path("M12 34H138", r#"class="l-axis""#);
    svg.path("M75 27v14", r#"class="s-ink" stroke-width="2""#);
    match measured {
        Some(c) => {
            svg.raw(&format!(
                r#"<circle cx="{:.1}" cy="34" r="6" class="f c-ember"/>"#,
                x(c)
            ));
            let d = c - planned;
            let side = if d >= 0.0 { Hold::Start } else { Hold::End };
            let near = x(c) + if d >= 0.0 { -8.0 } else { 8.0 };
            svg.text(
                near,
                20.0,
                "b d16 halo",
                side,
                &format!("{}°", m.degrees(c, 1)),
            );
        }
        None => svg.text(
            75.0,
            20.0,
            "tk",
            Hold::Middle,
            phrase("ledger-not-measured"),
        ),
    }
    svg.text(75.0, 51.0, "tk", Hold::Middle, &m.degrees(planned, 1));
    svg.end()
}

/// Rise and strength left at the serve time on one scale.
fn clocks(rise: f64, reserve: f64) -> String {
    let mut svg = Svg::new(
        150.0,
        52.0,
        "thermo",
        &say!(
            "ledger-rise-strength-left-at-the",
            rise = decimal(rise, 0),
            reserve = decimal(reserve, 0)
        ),
    );
    // Up to 150, with room for the figure behind it.
    let x = |v: f64| 6.0 + 72.0 * v.clamp(0.0, 150.0) / 100.0;
    svg.rect(
        x(100.0 * READY),
        12.0,
        x(100.0 * PEAK) - x(100.0 * READY),
        12.0,
        r#"class="f-larch" opacity=".5""#,
    );
    svg.path("M6 18H114M6 38H114", r#"class="l-axis""#);
    svg.path(&format!("M6 18H{:.1}", x(rise)), r#"class="l-rise""#);
    svg.path(&format!("M6 38H{:.1}", x(reserve)), r#"class="l-res""#);
    svg.text(
        x(rise) + 4.0,
        23.0,
        "b tx halo",
        Hold::Start,
        &format!("{rise:.0}"),
    );
    svg.text(
        x(reserve) + 4.0,
        43.0,
        "b tx halo",
        Hold::Start,
        &format!("{reserve:.0}"),
    );
    svg.end()
}

/// Nine cells with their counts: up top darker, right base darker.
pub fn verdict_square(s: &RunSummary) -> String {
    let mut svg = Svg::new(72.0, 72.0, "square", &verdict_words(s));
    for (row, top) in [2usize, 1, 0].into_iter().enumerate() {
        for base in 0..3usize {
            let n = s.verdicts[top][base];
            let (x, y) = (2.0 + 23.0 * base as f64, 2.0 + 23.0 * row as f64);
            let fill = if n > 0 && top == 1 && base == 1 {
                "f-larch"
            } else {
                "f-inset"
            };
            svg.rect(
                x,
                y,
                22.0,
                22.0,
                &format!(r#"class="{fill}" stroke="var(--rule-strong)""#),
            );
            if n > 0 {
                svg.text(x + 11.0, y + 16.5, "b d16", Hold::Middle, &n.to_string());
            }
        }
    }
    svg.end()
}

fn verdict_words(s: &RunSummary) -> String {
    let shades = [Shade::Pale, Shade::Right, Shade::Dark].map(|s| word(&s.name()));
    let mut words = Vec::new();
    for (t, row) in s.verdicts.iter().enumerate() {
        for (b, n) in row.iter().enumerate() {
            if *n > 0 {
                words.push(say!(
                    "ledger-with-base-and-top",
                    n = n,
                    b = shades[b],
                    t = shades[t]
                ));
            }
        }
    }
    if words.is_empty() {
        phrase("ledger-no-verdicts").into()
    } else {
        words.join(", ")
    }
}

/// What these bakes have in common: where the doughs missed their temperature, and what was most often off.
fn lines(told: &[BatchRecord], summaries: &[RunSummary], here: &RequestKitchen) -> [String; 2] {
    let off: Vec<f64> = told
        .iter()
        .filter_map(|t| {
            t.off_the_mixer(here.now)
                .map(|c| c - t.batch.sheet.request.formula.target_dough_c)
        })
        .collect();
    let first = if off.is_empty() {
        phrase("ledger-finished-batches-come-here-with").to_string()
    } else {
        let mean = off.iter().sum::<f64>() / off.len() as f64;
        let per = match here.measures.temperature {
            craft::units::TemperatureUnit::Celsius => 1.0,
            craft::units::TemperatureUnit::Fahrenheit => 1.8,
        };
        let shown = decimal((mean * per).abs(), 1);
        let side = if mean >= 0.0 {
            phrase("ledger-word-warmer")
        } else {
            phrase("ledger-word-cooler")
        };
        match (mean * per).abs() < 0.05 {
            true => phrase("ledger-dough-came-as-planned").to_string(),
            false => say!("ledger-dough-came-off-the-mixer", per = shown, side = side),
        }
    };
    let second = most_often_off(summaries).map_or(String::new(), |(words, n)| {
        say!(
            "ledger-most-often-off-times",
            value = here.words(&words),
            n = n
        )
    });
    [first, second]
}
