//! One line: what is weighed in it, which part of the recipe it belongs to, or that it is something else.

use super::amount::{Amount, Unit, amounts};
use super::words::{PastedKind, ingredients, named};
use super::{Line, Makes, PastedItem, Section, Status};
use crate::leaven::YeastForm;
use crate::number::plain;

/// Reads lines one after the other; a heading holds until the next one or a gap.
#[derive(Default)]
pub struct RecipeReader {
    section: Section,
    /// Whether the section has had an item: then a blank line ends it.
    begun: bool,
    pub makes: Makes,
}

/// Words that open a part of the recipe.
const HEADINGS: [(&str, Section); 20] = [
    ("poolish", Section::Poolish),
    ("biga", Section::Biga),
    ("levain", Section::Levain),
    ("starter", Section::Levain),
    ("lievito madre", Section::Levain),
    ("rinfresco", Section::Levain),
    ("preferment", Section::Preferment),
    ("prefermento", Section::Preferment),
    ("sponge", Section::Preferment),
    ("lievitino", Section::Preferment),
    ("dough", Section::Dough),
    ("impasto", Section::Dough),
    ("final dough", Section::Dough),
    ("ingredients", Section::Dough),
    ("ingredienti", Section::Dough),
    ("topping", Section::Topping),
    ("toppings", Section::Topping),
    ("sauce", Section::Topping),
    ("condimento", Section::Topping),
    ("farcitura", Section::Topping),
];

const PIECES: [&str; 12] = [
    "balls", "ball", "panetti", "panetto", "pizzas", "pizza", "pizze", "pieces", "pezzi", "rounds",
    "palline", "trays",
];

/// What a line begins with that says how many it makes.
const MAKES: [&str; 4] = ["makes", "make", "yields", "yield"];

impl RecipeReader {
    pub fn line(&mut self, raw: &str) -> Line {
        let text: String = raw.chars().take(500).collect();
        let lower = tidy(&text);
        let cold_h = hours_in_the_fridge(&lower);
        let line = |status, items, unread| Line {
            text: text.trim().to_string(),
            status,
            items,
            unread,
            cold_h,
        };
        let done = |status, items| line(status, items, vec![]);
        if lower.trim().is_empty() {
            if self.begun && self.section != Section::Dough {
                self.section = Section::Dough;
                self.begun = false;
            }
            return done(Status::Blank, vec![]);
        }
        if let Some((section, rest)) = heading(&lower) {
            if rest.trim().is_empty() {
                self.section = section;
                self.begun = false;
                return done(Status::Heading, vec![]);
            }
            let (items, unread) = self.items(rest, section);
            // "Poolish: 200 g flour, ..." speaks of this line alone; "Dough:" goes on.
            if section == Section::Dough {
                self.section = section;
            }
            let status = status_of(&items, &unread, rest);
            return line(status, items, unread);
        }
        if self.pieces(&lower) {
            return done(Status::Heading, vec![]);
        }
        let (items, unread) = self.items(&lower, self.section);
        self.begun |= !items.is_empty();
        let status = status_of(&items, &unread, &lower);
        line(status, items, unread)
    }

    /// "6 balls of 250 g", "per 4 pizze", "makes 4".
    fn pieces(&mut self, text: &str) -> bool {
        let all = amounts(text);
        let word = |a: &Amount| {
            let after = text[a.to..].trim_start();
            PIECES.iter().any(|p| {
                after
                    .strip_prefix(p)
                    .is_some_and(|rest| !rest.starts_with(char::is_alphanumeric))
            })
        };
        // "Makes 2": a bare number that ends its line.
        let said = MAKES.iter().any(|m| text.starts_with(m));
        let ends = |a: &Amount| said && !text[a.to..].contains(char::is_alphanumeric);
        let counts = |a: &&Amount| a.unit == Unit::None && (word(a) || ends(a));
        let Some(count) = all.iter().find(counts) else {
            return false;
        };
        if !(1.0..=1000.0).contains(&count.value) || !ingredients(text).is_empty() {
            return false;
        }
        self.makes.count = Some(count.value.round() as u32);
        let weight = all.iter().find_map(|a| match a.unit {
            Unit::Mass(g) if a.from > count.from => Some(a.value * g),
            _ => None,
        });
        if let Some(g) = weight.filter(|g| (30.0..=2000.0).contains(g)) {
            self.makes.piece_g = Some(g);
        }
        true
    }

    /// What is weighed, and the parts beside it that name something and no weight.
    fn items(&mut self, text: &str, section: Section) -> (Vec<PastedItem>, Vec<String>) {
        let (mut out, mut unread) = (Vec::new(), Vec::new());
        // "Flour 00, 500 g": a name that still waits for its amount.
        let mut waiting: Option<&str> = None;
        for c in chunks(text) {
            let found = item(c, section).or_else(|| {
                let name = waiting.filter(|_| named(c).is_none() && best(c).is_some())?;
                item(&format!("{name} {c}"), section)
            });
            let named_only = found.is_none() && best(c).is_none() && named(c).is_some();
            if found.is_some() && waiting.is_some() {
                unread.pop();
            }
            waiting = named_only.then_some(c);
            if found.is_none() && (named_only || counts_something(c)) {
                unread.push(c.trim().to_string());
            }
            out.extend(found);
        }
        // A sentence of the method names what was weighed before: only short parts beside weighed ones are missing.
        unread.retain(|c| c.split_whitespace().count() <= SHORT);
        if out.is_empty() {
            unread.clear();
        }
        (out, unread)
    }
}

/// A part of a line with more words than this is a sentence.
const SHORT: usize = 5;

/// "1 egg": a count of something, which is not weighed.
fn counts_something(chunk: &str) -> bool {
    let counted = amounts(chunk).into_iter().find(|a| a.unit == Unit::None);
    let follows = |a: Amount| {
        let after = chunk[a.to..].trim_start();
        after.starts_with(char::is_alphabetic) && !PIECES.iter().any(|p| has_word(after, p))
    };
    counted.is_some_and(follows)
}

const FRIDGE: [&str; 10] = [
    "fridge",
    "refrigerator",
    "refrigerate",
    "refrigerated",
    "chill",
    "chilled",
    "frigo",
    "frigorifero",
    "cold",
    "retard",
];
/// A night without a figure, h.
const NIGHT_H: f64 = 12.0;

/// An amount of hours or days, h.
fn hours(a: &Amount) -> Option<f64> {
    match a.unit_word.as_str() {
        "h" | "hr" | "hrs" | "hour" | "hours" | "ora" | "ore" => Some(a.value),
        "day" | "days" | "giorno" | "giorni" => Some(24.0 * a.value),
        _ => None,
    }
}

/// Whether a line speaks of hours at all.
pub fn speaks_of_hours(text: &str) -> bool {
    amounts(&tidy(text)).iter().any(|a| hours(a).is_some())
}

/// Hours in the fridge: the time nearest to that word within its sentence; a night where none is said.
fn hours_in_the_fridge(text: &str) -> Option<f64> {
    text.split(['.', ';'])
        .filter_map(|sentence| {
            let at = FRIDGE
                .iter()
                .filter(|w| has_word(sentence, w))
                .find_map(|w| sentence.find(w))?;
            let said = amounts(sentence)
                .iter()
                .filter_map(|a| hours(a).map(|h| (a.from.abs_diff(at), h)))
                .min_by_key(|x| x.0)
                .map(|x| x.1);
            let night = has_word(sentence, "overnight") || has_word(sentence, "notte");
            said.or(night.then_some(NIGHT_H))
        })
        .find(|h| (0.5..=168.0).contains(h))
}

/// Lower case, without bullets and with plain signs.
fn tidy(text: &str) -> String {
    let lower: String = text
        .to_lowercase()
        .chars()
        .map(|c| match c {
            '\u{a0}' | '\u{202f}' | '\t' => ' ',
            '’' | '`' => '\'',
            '×' => 'x',
            c => c,
        })
        .collect();
    lower
        .trim_start_matches(|c: char| {
            c.is_whitespace() || matches!(c, '-' | '*' | '•' | '·' | '–' | '>' | '#' | '✓' | '□')
        })
        .to_string()
}

/// A heading and what follows it on the line. Before the colon, or the whole of a short line without amounts.
fn heading(text: &str) -> Option<(Section, &str)> {
    let (head, rest) = match text.split_once(':') {
        Some((h, r)) => (h, r),
        None => (text, ""),
    };
    let words = head.split_whitespace().count();
    if words > 6
        || amounts(head)
            .iter()
            .any(|a| !matches!(a.unit, Unit::None | Unit::Other))
    {
        return None;
    }
    // "Starter: 100 g" names an ingredient: a heading is followed by several, or by nothing.
    let known = HEADINGS
        .iter()
        .filter(|(w, _)| has_word(head, w))
        .max_by_key(|(w, _)| w.len())?;
    let named_otherwise = ingredients(head).iter().any(|f| {
        !matches!(
            f.what,
            PastedKind::Starter { .. } | PastedKind::Poolish | PastedKind::Biga
        )
    });
    if named_otherwise || (!rest.trim().is_empty() && ingredients(rest).is_empty()) {
        return None;
    }
    let colon = text.contains(':');
    let section = if known.1 != Section::Topping && is_title(head) {
        Section::Dough
    } else {
        known.1
    };
    (colon || words <= 4).then_some((section, rest))
}

/// "Poolish pizza", "Biga dough": the name of a whole recipe, which tells of its preferment and holds more than that.
fn is_title(head: &str) -> bool {
    [
        "pizza", "pizzas", "pizze", "focaccia", "dough", "impasto", "recipe", "ricetta",
    ]
    .iter()
    .any(|w| has_word(head, w))
        // "Poolish for four pizzas" is a part of one.
        && !["for", "per", "di"].iter().any(|w| has_word(head, w))
}

fn has_word(text: &str, word: &str) -> bool {
    text.match_indices(word).any(|(i, _)| {
        let before = text[..i].chars().next_back();
        let after = text[i + word.len()..].chars().next();
        let inside = |c: Option<char>| c.is_some_and(char::is_alphanumeric);
        !inside(before) && !inside(after)
    })
}

/// The parts of a line that can each hold one ingredient: between commas and joining words, and where a second
/// weight begins.
fn chunks(text: &str) -> Vec<&str> {
    let mut cuts: Vec<(usize, usize)> = Vec::new();
    let bytes = text.as_bytes();
    let digit = |i: Option<usize>| i.and_then(|i| bytes.get(i)).is_some_and(u8::is_ascii_digit);
    for (i, c) in text.char_indices() {
        let numeric = digit(i.checked_sub(1)) && digit(Some(i + 1));
        let ends_sentence = c == '.' && text[i + 1..].starts_with(' ') && !abbreviates(&text[..i]);
        if matches!(c, ';' | '+' | '|') || (c == ',' && !numeric) || ends_sentence {
            cuts.push((i, i + c.len_utf8()));
        }
    }
    for joint in [
        " and ", " e ", " ed ", " with ", " con ", " plus ", " then ",
    ] {
        for (i, _) in text.match_indices(joint) {
            cuts.push((i, i + joint.len()));
        }
    }
    cuts.sort_unstable();
    let mut out = Vec::new();
    let mut from = 0;
    for (a, b) in cuts {
        if a >= from {
            out.extend(by_weight(&text[from..a]));
            from = b;
        }
    }
    out.extend(by_weight(&text[from..]));
    out.retain(|c| !c.trim().is_empty());
    out
}

fn abbreviates(before: &str) -> bool {
    ["gr", "g", "tbsp", "tsp", "oz", "lb", "q.b", "q"]
        .iter()
        .any(|w| before.ends_with(w))
        && !before.ends_with(". ")
}

/// "500 g flour 300 g water" is two.
fn by_weight(chunk: &str) -> Vec<&str> {
    let weighed: Vec<Amount> = amounts(chunk)
        .into_iter()
        .filter(|a| is_weight(a.unit) && !in_brackets(chunk, a.from))
        .collect();
    let named_at: Vec<usize> = ingredients(chunk).iter().map(|f| f.from).collect();
    if weighed.len() < 2 || named_at.len() < 2 {
        return vec![chunk];
    }
    let leads = named_at[0] > weighed[0].from;
    let mut out = Vec::new();
    let mut from = 0;
    for w in weighed.iter().skip(usize::from(leads)) {
        let cut = if leads { w.from } else { w.to };
        if cut > from {
            out.push(&chunk[from..cut]);
            from = cut;
        }
    }
    if from < chunk.len() {
        out.push(&chunk[from..]);
    }
    out
}

fn is_weight(u: Unit) -> bool {
    matches!(
        u,
        Unit::Mass(_) | Unit::Volume(_) | Unit::Pinch(_) | Unit::Sachet | Unit::Cube
    )
}

fn in_brackets(text: &str, at: usize) -> bool {
    let before = &text[..at];
    before
        .rfind('(')
        .is_some_and(|open| before.rfind(')').is_none_or(|close| close < open))
}

/// The amount that counts: a weight before a volume before a percentage, outside brackets before inside.
fn best(chunk: &str) -> Option<Amount> {
    amounts(chunk)
        .into_iter()
        .filter(|a| is_weight(a.unit) || a.unit == Unit::Percent)
        .min_by_key(|a| {
            let by_unit = match a.unit {
                Unit::Mass(_) => 0,
                Unit::Volume(_) => 2,
                Unit::Sachet | Unit::Cube | Unit::Pinch(_) => 3,
                _ => 5,
            };
            by_unit + i32::from(in_brackets(chunk, a.from))
        })
}

fn item(chunk: &str, section: Section) -> Option<PastedItem> {
    let amount = best(chunk)?;
    let found = named(chunk)?;
    let what = found.what;
    let (value, word) = (plain(amount.value), amount.unit_word.as_str());
    let (grams, how, volume) = match amount.unit {
        Unit::Mass(1.0) => (amount.value, format!("{value} g"), false),
        Unit::Mass(g) => (
            amount.value * g,
            format!("{value} {word} × {} g", plain(g)),
            false,
        ),
        Unit::Volume(ml) => {
            let d = what.density();
            let is_water = what == PastedKind::Water && ml != 240.0 && ml != 200.0;
            let how = format!("{value} {word} × {} ml × {} g/ml", plain(ml), plain(d));
            // Water by the litre is as good as weighed.
            (amount.value * ml * d, how, !is_water)
        }
        Unit::Pinch(g) => (
            amount.value * g,
            format!("{value} {word} × {} g", plain(g)),
            true,
        ),
        Unit::Sachet => (amount.value * 7.0, format!("{value} {word} × 7 g"), true),
        Unit::Cube => (amount.value * 25.0, format!("{value} {word} × 25 g"), false),
        Unit::Percent => (amount.value, format!("{value} %"), false),
        Unit::Other | Unit::None => return None,
    };
    if !grams.is_finite() || grams > 300_000.0 {
        return None;
    }
    // A sachet holds dry yeast, a cube fresh, unless the words say otherwise.
    let plain_yeast = chunk.contains("yeast") || chunk.contains("lievito");
    let what = match (what, amount.unit) {
        (PastedKind::Yeast { .. }, Unit::Sachet) if plain_yeast && !chunk.contains("fres") => {
            PastedKind::Yeast {
                form: match what {
                    PastedKind::Yeast {
                        form: YeastForm::Instant,
                    } => YeastForm::Instant,
                    _ => YeastForm::ActiveDry,
                },
            }
        }
        (PastedKind::Yeast { .. }, Unit::Cube) => PastedKind::Yeast {
            form: YeastForm::Fresh,
        },
        _ => what,
    };
    let named = chunk[found.from..found.to].trim();
    Some(PastedItem {
        section: if what == PastedKind::Topping {
            Section::Topping
        } else {
            section
        },
        what,
        name: named.chars().take(60).collect(),
        grams,
        is_percent: amount.unit == Unit::Percent,
        rough: volume || amount.is_range,
        how,
        w: strength(chunk),
    })
}

/// "W280", "w 320".
fn strength(chunk: &str) -> Option<f64> {
    chunk.match_indices('w').find_map(|(i, _)| {
        let before = chunk[..i].chars().next_back();
        if before.is_some_and(char::is_alphanumeric) {
            return None;
        }
        let digits: String = chunk[i + 1..]
            .trim_start()
            .chars()
            .take_while(char::is_ascii_digit)
            .collect();
        digits
            .parse::<f64>()
            .ok()
            .filter(|w| (80.0..=450.0).contains(w))
    })
}

/// A line that names an ingredient or an amount to weigh, and from which nothing was read, is shown as unread.
fn status_of(items: &[PastedItem], unread: &[String], text: &str) -> Status {
    if !items.is_empty() {
        return if items.iter().any(|i| i.rough) || !unread.is_empty() {
            Status::Rough
        } else {
            Status::Read
        };
    }
    let weighed = amounts(text).iter().any(|a| is_weight(a.unit));
    let words = text.split_whitespace().count();
    if weighed || (!ingredients(text).is_empty() && words <= 5) {
        Status::Unread
    } else {
        Status::Method
    }
}
