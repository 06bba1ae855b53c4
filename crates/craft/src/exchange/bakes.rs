//! Bakes that are written down afterwards: a line each, from a grid or as CSV, read into what was seen or refused cell by cell.
//!
//! A line says as little as its maker remembers. What is left out of formula, hour, pieces, yeast and hours in the cold is as in the
//! line above: twelve bakes of one dough are twelve dates.

use super::csv::harmless;
use crate::fact;
use crate::fact::{Fact, Percent, hours};
use crate::fire::Shade;
use crate::keyed::Keyed;
use crate::learn::StoodAs;
use crate::units::{Celsius, TemperatureUnit};
use jiff::civil::{Date, DateTime, Time};
use jiff::tz::TimeZone;
use jiff::{Timestamp, ToSpan};

/// The columns, in the order of the grid; a CSV names them in its first line, in any order.
pub const COLUMNS: [&str; 13] = [
    "date", "time", "formula", "pieces", "yeast", "cold", "dough", "fridge", "stood", "bake",
    "base", "top", "remark",
];
/// What a ledger that was taken out says besides; passed over when it is read.
pub const TAKEN_OUT: [&str; 14] = [
    "code", "name", "style", "flours", "water", "salt", "bulk", "temper", "rise", "reserve", "out",
    "judged", "right", "noticed",
];
/// So many lines at once.
pub const MOST_LINES: usize = 500;
/// Nobody remembers further back, years.
const FURTHEST_YEARS: i64 = 10;
/// The hour of a line that says none, and has none above.
const USUAL_HOUR: i8 = 19;
const LONGEST_REMARK: usize = 500;

/// A bake as it was written down.
#[derive(Debug, Clone, PartialEq)]
pub struct LateBake {
    /// The line that it came from, from 1.
    pub line: usize,
    /// When the first one was eaten.
    pub served_at: Timestamp,
    /// The name of its formula or style.
    pub formula: String,
    /// How many pieces.
    pub pieces: Option<u32>,
    /// Yeast of the dough, % of the flour, as the formula's yeast; the formula's own dose where nothing is said.
    pub yeast_percent: Option<f64>,
    /// Hours in the fridge; the formula's own where nothing is said.
    pub cold_h: Option<f64>,
    /// Off the mixer, °C.
    pub dough_c: Option<f64>,
    /// The fridge, °C.
    pub fridge_c: Option<f64>,
    /// How it stood when it was opened.
    pub stood: Option<StoodAs>,
    /// How long the typical one baked, s.
    pub bake_s: Option<u32>,
    /// Its base.
    pub base: Option<Shade>,
    /// Its top.
    pub top: Option<Shade>,
    /// What else was said.
    pub remark: String,
}

/// A cell that cannot be read.
#[derive(Debug, Clone, PartialEq)]
pub struct WrongCell {
    /// The line, from 1; 0 is the file as a whole.
    pub line: usize,
    /// The column, as of [`COLUMNS`]; empty for the whole line.
    pub column: &'static str,
    /// One sentence.
    pub message: Fact,
}

/// What reading hangs on.
#[derive(Debug, Clone)]
pub struct LateReading {
    /// The present.
    pub now: Timestamp,
    /// The kitchen's.
    pub zone: TimeZone,
    /// What its thermometers read in.
    pub unit: TemperatureUnit,
}

/// The lines of a CSV as cells in the order of [`COLUMNS`], with their numbers. Comma, semicolon or tab; the first line names the
/// columns.
///
/// Errors: no known column, a column that is none of ours, too many lines.
pub fn cells_of_csv(text: &str) -> Result<Vec<(usize, Vec<String>)>, Vec<WrongCell>> {
    let whole = |message: Fact| {
        Err(vec![WrongCell {
            line: 0,
            column: "",
            message,
        }])
    };
    let text = text.trim_start_matches('\u{feff}').trim();
    let first = text.lines().next().unwrap_or("");
    let by = [b'\t', b';', b',']
        .into_iter()
        .find(|c| first.as_bytes().contains(c))
        .unwrap_or(b',');
    let mut reader = csv::ReaderBuilder::new()
        .delimiter(by)
        .flexible(true)
        .has_headers(false)
        .from_reader(text.as_bytes());
    let mut order: Vec<Option<usize>> = vec![];
    let mut out = vec![];
    for record in reader.records() {
        let Ok(record) = record else {
            return whole(fact!("late-not-a-table"));
        };
        let line = record.position().map_or(0, |p| p.line() as usize);
        if order.is_empty() {
            for name in &record {
                let name = name.trim().to_lowercase();
                match COLUMNS.iter().position(|c| *c == name) {
                    Some(i) => order.push(Some(i)),
                    None if TAKEN_OUT.contains(&name.as_str()) => order.push(None),
                    None => {
                        let known = COLUMNS.join(", ");
                        return whole(fact!("late-no-such-column", name = name, known = known));
                    }
                }
            }
            continue;
        }
        let mut cells = vec![String::new(); COLUMNS.len()];
        for (i, cell) in record.iter().enumerate() {
            match order.get(i) {
                Some(Some(c)) => cells[*c] = unguarded(cell.trim()).to_string(),
                Some(None) => {}
                None if cell.trim().is_empty() => {}
                None => {
                    return Err(vec![WrongCell {
                        line,
                        column: "",
                        message: fact!("late-more-cells", n = record.len(), named = order.len()),
                    }]);
                }
            }
        }
        if cells.iter().any(|c| !c.is_empty()) {
            out.push((line, cells));
        }
        if out.len() > MOST_LINES {
            return whole(fact!("late-too-many", most = MOST_LINES));
        }
    }
    if out.is_empty() {
        return whole(fact!("late-nothing"));
    }
    Ok(out)
}

/// Reads lines of cells in the order of [`COLUMNS`], each with its number; lines without a word are passed over.
///
/// Errors: every cell that cannot be read; then nothing was.
pub fn read_bakes(
    lines: &[(usize, Vec<String>)],
    reading: &LateReading,
) -> Result<Vec<LateBake>, Vec<WrongCell>> {
    let mut wrong = vec![];
    let mut out: Vec<LateBake> = vec![];
    let mut above = Above::default();
    for (line, cells) in lines {
        let cell = |c: &str| {
            let at = COLUMNS.iter().position(|x| *x == c);
            at.and_then(|i| cells.get(i)).map_or("", |s| s.trim())
        };
        if COLUMNS.iter().all(|c| cell(c).is_empty()) {
            continue;
        }
        let before = wrong.len();
        let mut refuse = |column: &'static str, message: Fact| {
            wrong.push(WrongCell {
                line: *line,
                column,
                message,
            });
        };
        let day = match cell("date") {
            "" => {
                refuse("date", fact!("late-no-date"));
                None
            }
            text => {
                let day = text.parse::<Date>().ok();
                if day.is_none() {
                    refuse("date", fact!("late-no-such-date", text = text));
                }
                day
            }
        };
        match cell("time") {
            "" => {}
            text => match clock(text) {
                Some(t) => above.time = Some(t),
                None => refuse("time", fact!("late-no-such-time", text = text)),
            },
        }
        match cell("formula") {
            "" => {}
            name => above.formula = name.to_string(),
        }
        if above.formula.is_empty() {
            refuse("formula", fact!("late-no-formula"));
        }
        let mut number = |column: &'static str, least: f64, most: f64, said: fn(f64) -> Fact| {
            let text = cell(column);
            if text.is_empty() {
                return None;
            }
            match text.replace(',', ".").parse::<f64>() {
                Ok(v) if v.is_finite() && (least..=most).contains(&v) => Some(v),
                _ => {
                    refuse(
                        column,
                        fact!(
                            "late-no-such-number",
                            text = text,
                            least = said(least),
                            most = said(most)
                        ),
                    );
                    None
                }
            }
        };
        let bare = |v: f64| fact!("just", value = v);
        let pieces = number("pieces", 1.0, 2000.0, bare);
        if let Some(p) = number("yeast", 0.001, 7.5, |v| fact!("just", value = Percent(v))) {
            above.yeast_percent = Some(p);
        }
        if let Some(h) = number("cold", 0.0, 168.0, |v| fact!("just", value = hours(v))) {
            above.cold_h = Some(h);
        }
        let unit = reading.unit;
        let celsius = |v: f64| Celsius::from_reading(v, unit).0;
        let typed = |c: f64| match unit {
            TemperatureUnit::Celsius => c,
            TemperatureUnit::Fahrenheit => c * 1.8 + 32.0,
        };
        let degrees: fn(f64) -> Fact = match unit {
            TemperatureUnit::Celsius => |v| fact!("just", value = Celsius(v)),
            TemperatureUnit::Fahrenheit => |v| fact!("just", value = Celsius((v - 32.0) / 1.8)),
        };
        let dough_c = number("dough", typed(2.0), typed(40.0), degrees).map(celsius);
        let fridge_c = number("fridge", typed(-2.0), typed(16.0), degrees).map(celsius);
        let bake_s = number("bake", 20.0, 7200.0, |v| {
            fact!("just", value = crate::fact::Value::Seconds(v))
        });
        match pieces {
            Some(n) if n.fract() != 0.0 => refuse("pieces", fact!("late-whole-pieces")),
            Some(n) => above.pieces = Some(n as u32),
            None => {}
        }
        let key = |text: &str| {
            text.to_lowercase()
                .replace("a little ", "")
                .replace(' ', "_")
        };
        let mut one_of = |column: &'static str, known: String| {
            let text = cell(column);
            refuse(
                column,
                fact!("late-no-such-word", text = text, known = known),
            );
        };
        let stood = StoodAs::from_key(&key(cell("stood")));
        if stood.is_none() && !cell("stood").is_empty() {
            one_of("stood", keys::<StoodAs>());
        }
        let mut side = |column: &'static str| {
            let shade = Shade::from_key(&key(cell(column)));
            if shade.is_none() && !cell(column).is_empty() {
                one_of(column, keys::<Shade>());
            }
            shade
        };
        let (base, top) = (side("base"), side("top"));
        let time = above.time.unwrap_or(Time::constant(USUAL_HOUR, 0, 0, 0));
        let served = day.and_then(|d| {
            let at = DateTime::from_parts(d, time)
                .to_zoned(reading.zone.clone())
                .ok()?;
            Some(at.timestamp())
        });
        if let Some(at) = served {
            let furthest = reading
                .now
                .to_zoned(reading.zone.clone())
                .checked_sub(FURTHEST_YEARS.years());
            if at > reading.now {
                refuse("date", fact!("late-to-come", at = at));
            } else if furthest.is_ok_and(|f| at < f.timestamp()) {
                refuse("date", fact!("late-too-long-ago", years = FURTHEST_YEARS));
            }
        }
        if let Some(served_at) = served.filter(|_| wrong.len() == before) {
            out.push(LateBake {
                line: *line,
                served_at,
                formula: above.formula.clone(),
                pieces: above.pieces,
                yeast_percent: above.yeast_percent,
                cold_h: above.cold_h,
                dough_c,
                fridge_c,
                stood,
                bake_s: bake_s.map(|s| s.round() as u32),
                base,
                top,
                remark: cell("remark").chars().take(LONGEST_REMARK).collect(),
            });
        }
    }
    if out.len() > MOST_LINES {
        wrong.push(WrongCell {
            line: 0,
            column: "",
            message: fact!("late-too-many", most = MOST_LINES),
        });
    }
    if out.is_empty() && wrong.is_empty() {
        wrong.push(WrongCell {
            line: 0,
            column: "",
            message: fact!("late-nothing"),
        });
    }
    match wrong.is_empty() {
        true => Ok(out),
        false => Err(wrong),
    }
}

/// A text that was guarded against being computed by a spreadsheet, without its guard.
fn unguarded(text: &str) -> &str {
    match text.strip_prefix('\'') {
        Some(rest) if rest.starts_with(['=', '+', '-', '@']) => rest,
        _ => text,
    }
}

/// Writes lines of cells under [`COLUMNS`] and [`TAKEN_OUT`] as CSV; the head only where it is asked for. What a spreadsheet would
/// compute is made a text.
pub fn bakes_as_csv(lines: &[Vec<String>], with_head: bool) -> String {
    let mut w = csv::Writer::from_writer(vec![]);
    let head: Vec<String> = COLUMNS
        .iter()
        .chain(&TAKEN_OUT)
        .map(|c| c.to_string())
        .collect();
    let head = with_head.then_some(&head);
    for line in head.into_iter().chain(lines) {
        // Into memory, every record of one length: it cannot fail.
        let _ = w.write_record(line.iter().map(|c| harmless(c)));
    }
    String::from_utf8(w.into_inner().unwrap_or_default()).unwrap_or_default()
}

/// What the line above said.
#[derive(Debug, Clone, Default)]
struct Above {
    time: Option<Time>,
    formula: String,
    pieces: Option<u32>,
    yeast_percent: Option<f64>,
    cold_h: Option<f64>,
}

fn keys<T: Keyed>() -> String {
    T::ALL
        .iter()
        .map(|k| k.key())
        .collect::<Vec<_>>()
        .join(", ")
}

/// "19:00", "19.00", "19".
fn clock(text: &str) -> Option<Time> {
    let mut parts = text.split([':', '.', 'h']);
    let hour: i8 = parts.next()?.trim().parse().ok()?;
    let minute: i8 = match parts.next().map(str::trim) {
        None | Some("") => 0,
        Some(m) => m.parse().ok()?,
    };
    Time::new(hour, minute, 0, 0).ok()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn reading() -> LateReading {
        LateReading {
            now: "2026-11-27T12:00:00Z".parse().unwrap(),
            zone: TimeZone::UTC,
            unit: TemperatureUnit::Celsius,
        }
    }
    fn read(text: &str) -> Result<Vec<LateBake>, Vec<WrongCell>> {
        read_bakes(&cells_of_csv(text)?, &reading())
    }
    fn wrong(text: &str) -> Vec<(usize, &'static str)> {
        let all = read(text).err().unwrap_or_default();
        all.into_iter().map(|w| (w.line, w.column)).collect()
    }

    #[test]
    fn what_is_left_out_is_as_above() {
        let all = read("date;formula;pieces;stood;fridge\n2026-11-01;Halt round;6;over;6,5\n2026-11-08;;;right;\n").unwrap();
        assert_eq!(all.len(), 2);
        assert_eq!(
            (all[1].formula.as_str(), all[1].pieces),
            ("Halt round", Some(6))
        );
        assert_eq!((all[0].fridge_c, all[1].fridge_c), (Some(6.5), None));
        assert_eq!(all[1].stood, Some(StoodAs::Right));
        assert_eq!(all[1].served_at.to_string(), "2026-11-08T19:00:00Z");
    }

    #[test]
    fn every_wrong_cell_is_named_and_nothing_is_read() {
        let text = "date,time,formula,pieces,dough,stood,base\n\
                    2026-11-01,19:00,Halt round,6,23,right,right\n\
                    2026-12-24,19:00,Halt round,6,23,right,right\n\
                    yesterday,25:00,,0,99,ready,burnt\n";
        let w = wrong(text);
        assert_eq!(
            w,
            [
                (3, "date"),
                (4, "date"),
                (4, "time"),
                (4, "pieces"),
                (4, "dough"),
                (4, "stood"),
                (4, "base")
            ]
        );
    }

    #[test]
    fn a_table_that_is_none_says_so() {
        assert_eq!(wrong(""), [(0, "")]);
        assert_eq!(wrong("date,formula\n"), [(0, "")]);
        assert_eq!(wrong("day,formula\n2026-11-01,x"), [(0, "")]);
        assert_eq!(wrong("date,formula\n2026-11-01,x,y"), [(2, "")]);
        let many = format!("date,formula\n{}", "2026-11-01,x\n".repeat(501));
        assert_eq!(wrong(&many), [(0, "")]);
        let all = format!("date,formula\n{}", "2026-11-01,x\n".repeat(500));
        assert_eq!(read(&all).unwrap().len(), 500);
    }

    #[test]
    fn what_was_taken_out_can_be_read_again() {
        let mut line = vec![String::new(); COLUMNS.len() + TAKEN_OUT.len()];
        for (i, text) in [
            (0, "2026-11-01"),
            (2, "=Halt round"),
            (12, "-slack, \"wet\""),
        ] {
            line[i] = text.into();
        }
        let text = bakes_as_csv(&[line], true);
        assert!(text.contains("'=Halt round"), "{text}");
        let all = read(&text).unwrap();
        assert_eq!(
            (all[0].formula.as_str(), all[0].remark.as_str()),
            ("=Halt round", "-slack, \"wet\"")
        );
    }

    #[test]
    fn half_a_piece_is_none() {
        assert_eq!(
            wrong("date,formula,pieces\n2026-11-01,x,2.5\n"),
            [(2, "pieces")]
        );
        assert_eq!(
            wrong("date,formula,pieces\n2026-11-01,x,1e9\n"),
            [(2, "pieces")]
        );
        assert_eq!(
            wrong("date,formula,pieces\n2026-11-01,x,NaN\n"),
            [(2, "pieces")]
        );
    }

    #[test]
    fn fahrenheit_is_read_as_such() {
        let r = LateReading {
            unit: TemperatureUnit::Fahrenheit,
            ..reading()
        };
        let cells = cells_of_csv("date,formula,dough\n2026-11-01,x,73.4").unwrap();
        let all = read_bakes(&cells, &r).unwrap();
        assert!((all[0].dough_c.unwrap() - 23.0).abs() < 0.01);
    }
}
