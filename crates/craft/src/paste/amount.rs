//! Amounts: a number, a fraction or a range, with its unit.

/// What an amount is measured in.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Unit {
    /// Grams in one.
    Mass(f64),
    /// Millilitres in one.
    Volume(f64),
    /// Grams in one pinch.
    Pinch(f64),
    /// Sachets of dry yeast, cubes of fresh: grams in one.
    Sachet,
    Cube,
    Percent,
    /// Hours, degrees, centimetres: nothing to weigh.
    Other,
    /// No unit at all: a count, or a weight left unsaid.
    None,
}

/// An amount where it stands in a text.
#[derive(Debug, Clone, PartialEq)]
pub struct Amount {
    /// Byte positions in the text that was searched.
    pub from: usize,
    pub to: usize,
    pub value: f64,
    pub is_range: bool,
    pub unit: Unit,
    pub unit_word: String,
}

/// Units by their words, in English and Italian. A cup is 240 ml, a glass 200 ml, spoons 15 and 5 ml.
const UNITS: [(&[&str], Unit); 23] = [
    (
        &[
            "kg",
            "kgs",
            "kilo",
            "kilos",
            "kilogram",
            "kilograms",
            "chilo",
            "chili",
            "chilogrammo",
            "chilogrammi",
        ],
        Unit::Mass(1000.0),
    ),
    (
        &[
            "g", "gr", "gram", "grams", "gramme", "grammes", "grammo", "grammi",
        ],
        Unit::Mass(1.0),
    ),
    (&["hg", "etto", "etti"], Unit::Mass(100.0)),
    (&["mg", "milligrams"], Unit::Mass(0.001)),
    (
        &["oz", "ounce", "ounces", "oncia", "once"],
        Unit::Mass(28.349523125),
    ),
    (
        &["lb", "lbs", "pound", "pounds", "libbra", "libbre"],
        Unit::Mass(453.59237),
    ),
    (
        &[
            "ml",
            "millilitre",
            "millilitres",
            "milliliter",
            "milliliters",
            "millilitri",
            "cc",
        ],
        Unit::Volume(1.0),
    ),
    (&["cl", "centilitres", "centilitri"], Unit::Volume(10.0)),
    (
        &["dl", "decilitre", "decilitres", "decilitri"],
        Unit::Volume(100.0),
    ),
    (
        &[
            "l", "lt", "litre", "litres", "liter", "liters", "litro", "litri",
        ],
        Unit::Volume(1000.0),
    ),
    (&["cup", "cups", "tazza", "tazze"], Unit::Volume(240.0)),
    (
        &["glass", "glasses", "bicchiere", "bicchieri"],
        Unit::Volume(200.0),
    ),
    (
        &[
            "tbsp",
            "tbsps",
            "tbs",
            "tablespoon",
            "tablespoons",
            "cucchiaio",
            "cucchiai",
        ],
        Unit::Volume(15.0),
    ),
    (
        &[
            "tsp",
            "tsps",
            "teaspoon",
            "teaspoons",
            "cucchiaino",
            "cucchiaini",
        ],
        Unit::Volume(5.0),
    ),
    (&["pint", "pints"], Unit::Volume(568.0)),
    (
        &["pinch", "pinches", "pizzico", "pizzichi", "presa", "prese"],
        Unit::Pinch(0.4),
    ),
    (
        &[
            "packet",
            "packets",
            "sachet",
            "sachets",
            "bustina",
            "bustine",
            "envelope",
            "envelopes",
        ],
        Unit::Sachet,
    ),
    (
        &["cube", "cubes", "cubetto", "cubetti", "panetto di lievito"],
        Unit::Cube,
    ),
    (&["%", "percent", "per cent"], Unit::Percent),
    (
        &[
            "h", "hr", "hrs", "hour", "hours", "ora", "ore", "min", "mins", "minute", "minutes",
            "minuto", "minuti", "s", "sec", "seconds", "secondi", "day", "days", "giorno",
            "giorni",
        ],
        Unit::Other,
    ),
    (
        &[
            "°c",
            "°f",
            "° c",
            "° f",
            "°",
            "c",
            "f",
            "degrees",
            "gradi",
            "celsius",
            "fahrenheit",
        ],
        Unit::Other,
    ),
    (
        &["cm", "mm", "inch", "inches", "in", "pollici"],
        Unit::Other,
    ),
    (
        &["fl oz", "fluid ounce", "fluid ounces"],
        Unit::Volume(29.5735),
    ),
];

/// Numbers as words, where a unit follows.
const NUMBER_WORDS: [(&str, f64); 26] = [
    ("half a", 0.5),
    ("half", 0.5),
    ("a quarter of a", 0.25),
    ("quarter", 0.25),
    ("an", 1.0),
    ("a", 1.0),
    ("one", 1.0),
    ("two", 2.0),
    ("three", 3.0),
    ("four", 4.0),
    ("five", 5.0),
    ("six", 6.0),
    ("mezzo", 0.5),
    ("mezza", 0.5),
    ("un", 1.0),
    ("uno", 1.0),
    ("una", 1.0),
    ("due", 2.0),
    ("tre", 3.0),
    ("quattro", 4.0),
    ("cinque", 5.0),
    ("sei", 6.0),
    ("otto", 8.0),
    ("dieci", 10.0),
    ("eight", 8.0),
    ("ten", 10.0),
];

fn vulgar(c: char) -> Option<f64> {
    Some(match c {
        '½' => 0.5,
        '¼' => 0.25,
        '¾' => 0.75,
        '⅓' => 1.0 / 3.0,
        '⅔' => 2.0 / 3.0,
        '⅛' => 0.125,
        '⅜' => 0.375,
        '⅝' => 0.625,
        '⅞' => 0.875,
        '⅕' => 0.2,
        _ => return None,
    })
}

/// Walks over a lower-case text.
struct Walk<'a> {
    text: &'a str,
    at: usize,
}

impl<'a> Walk<'a> {
    fn rest(&self) -> &'a str {
        &self.text[self.at..]
    }
    fn peek(&self) -> Option<char> {
        self.rest().chars().next()
    }
    fn blanks(&mut self) {
        while self
            .peek()
            .is_some_and(|c| c == ' ' || c == '\u{a0}' || c == '\u{202f}' || c == '\t')
        {
            self.at += self.peek().map_or(0, char::len_utf8);
        }
    }
    fn digits(&mut self) -> Option<&'a str> {
        let start = self.at;
        while self.peek().is_some_and(|c| c.is_ascii_digit()) {
            self.at += 1;
        }
        (self.at > start).then(|| &self.text[start..self.at])
    }
    fn vulgar(&mut self) -> Option<f64> {
        let c = self.peek()?;
        let v = vulgar(c)?;
        self.at += c.len_utf8();
        Some(v)
    }

    /// "1 1/2", "1½", "¾", "1.000", "0,5", "3/4".
    fn number(&mut self) -> Option<f64> {
        if let Some(v) = self.vulgar() {
            return Some(v);
        }
        let start = self.at;
        let whole = self.digits()?;
        if whole.len() > 9 {
            return None;
        }
        let mut value: f64 = whole.parse().ok()?;
        match self.peek() {
            Some('/' | '⁄') => {
                let mark = self.at;
                self.at += self.peek().map_or(0, char::len_utf8);
                if let Some(below) = self
                    .digits()
                    .and_then(|d| d.parse::<f64>().ok())
                    .filter(|d| *d > 0.0)
                {
                    return Some(value / below);
                }
                self.at = mark;
            }
            Some('.' | ',') => {
                let mark = self.at;
                self.at += 1;
                match self.digits() {
                    // Three digits after a mark are thousands: "1.000 g", "1,250 g"; "0.125" is not.
                    Some(d) if d.len() == 3 && whole != "0" && whole.len() <= 3 => {
                        value = value * 1000.0 + d.parse::<f64>().ok()?;
                    }
                    Some(_) => {
                        value = self.text[start..self.at].replace(',', ".").parse().ok()?;
                    }
                    None => self.at = mark,
                }
                return Some(value);
            }
            _ => {}
        }
        // A fraction after the whole: "1½", "1 1/2".
        let mark = self.at;
        self.blanks();
        if let Some(v) = self.vulgar() {
            return Some(value + v);
        }
        if let Some(above) = self.digits().and_then(|d| d.parse::<f64>().ok())
            && self.peek().is_some_and(|c| c == '/' || c == '⁄')
        {
            self.at += self.peek().map_or(0, char::len_utf8);
            if let Some(below) = self
                .digits()
                .and_then(|d| d.parse::<f64>().ok())
                .filter(|d| *d > above)
            {
                return Some(value + above / below);
            }
        }
        self.at = mark;
        Some(value)
    }

    /// What follows a number as a unit; a unit of letters must end where its word ends.
    fn unit(&mut self) -> (Unit, String) {
        let mark = self.at;
        self.blanks();
        let rest = self.rest();
        let mut best: Option<(&str, Unit)> = None;
        for (words, unit) in UNITS {
            for w in words {
                let fits = rest.strip_prefix(w).is_some_and(|after| {
                    !w.ends_with(char::is_alphabetic)
                        || !after.starts_with(|c: char| c.is_alphanumeric())
                });
                if fits && best.is_none_or(|(b, _)| w.len() > b.len()) {
                    best = Some((w, unit));
                }
            }
        }
        match best {
            Some((w, unit)) => {
                self.at += w.len();
                if w.ends_with(char::is_alphabetic) && self.peek() == Some('.') {
                    self.at += 1;
                }
                (unit, w.to_string())
            }
            None => {
                self.at = mark;
                (Unit::None, String::new())
            }
        }
    }

    /// The upper end of a range: "-3", "– 3", "to 3", "a 3".
    fn upper(&mut self) -> Option<f64> {
        let mark = self.at;
        self.blanks();
        let rest = self.rest();
        let joint = ["-", "–", "—", "to ", "a ", "o ", "or "]
            .iter()
            .find(|j| rest.starts_with(**j));
        if let Some(j) = joint {
            self.at += j.len();
            self.blanks();
            if let Some(v) = self.number() {
                return Some(v);
            }
        }
        self.at = mark;
        None
    }
}

/// All amounts of a lower-case text, in their order.
pub fn amounts(text: &str) -> Vec<Amount> {
    let mut out = Vec::new();
    let mut w = Walk { text, at: 0 };
    let mut before = ' ';
    while let Some(c) = w.peek() {
        let from = w.at;
        let starts_word = !before.is_alphanumeric() && before != '.' && before != ',';
        let found = if starts_word && (c.is_ascii_digit() || vulgar(c).is_some()) {
            number_here(&mut w)
        } else if starts_word && c.is_alphabetic() {
            word_here(&mut w)
        } else {
            None
        };
        match found {
            Some(mut a) => {
                a.from = from;
                a.to = w.at;
                before = text[..w.at].chars().next_back().unwrap_or(' ');
                out.push(a);
            }
            None => {
                w.at = from + c.len_utf8();
                before = c;
            }
        }
    }
    out
}

fn number_here(w: &mut Walk) -> Option<Amount> {
    let low = w.number()?;
    let (mut unit, mut word) = w.unit();
    let mut value = low;
    let mut is_range = false;
    if let Some(high) = w.upper() {
        let mark = w.at;
        let (u, word_of) = w.unit();
        if u != Unit::None {
            (unit, word) = (u, word_of);
        } else {
            w.at = mark;
        }
        value = 0.5 * (low + high);
        is_range = true;
    }
    // A number that runs into letters is a name: "00flour" is not, but "3d" is.
    if unit == Unit::None && w.peek().is_some_and(char::is_alphabetic) {
        return None;
    }
    Some(Amount {
        from: 0,
        to: 0,
        value,
        is_range,
        unit,
        unit_word: word,
    })
}

/// "a pinch", "mezzo cucchiaino": only where a unit follows.
fn word_here(w: &mut Walk) -> Option<Amount> {
    let (word, value) = NUMBER_WORDS
        .iter()
        .filter(|(word, _)| {
            w.rest()
                .strip_prefix(word)
                .is_some_and(|after| after.starts_with([' ', '\u{a0}']))
        })
        .max_by_key(|(word, _)| word.len())?;
    let mark = w.at;
    w.at += word.len();
    let (unit, unit_word) = w.unit();
    if matches!(unit, Unit::None | Unit::Other | Unit::Percent) {
        w.at = mark;
        return None;
    }
    Some(Amount {
        from: 0,
        to: 0,
        value: *value,
        is_range: false,
        unit,
        unit_word,
    })
}
