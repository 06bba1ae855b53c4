//! What a thing is by the name that a maker gave it, in either language: no figure may hang on the language of a name.

/// Whether a name holds one of these words.
fn holds(name: &str, words: &[&str]) -> bool {
    let name = name.to_lowercase();
    words.iter().any(|w| name.contains(w))
}

/// Whether a topping is a cheese: by what it may contain, or by its name.
///
/// ```
/// use craft::names::is_cheese;
/// assert!(is_cheese("Bianca", "latte"));
/// assert!(is_cheese("Hard cheese", ""));
/// assert!(is_cheese("Formaggio stagionato", ""));
/// assert!(!is_cheese("Salsa di pomodoro", ""));
/// ```
pub fn is_cheese(name: &str, allergens: &str) -> bool {
    holds(allergens, &["milk", "latte"]) || holds(name, &["cheese", "mozzarella", "formaggio"])
}

/// Whether a topping is a sauce.
pub fn is_sauce(name: &str) -> bool {
    holds(name, &["sauce", "salsa", "sugo"])
}

/// Whether a topping is an oil.
pub fn is_oil(name: &str) -> bool {
    let name = name.to_lowercase();
    let is = |w: &str| w == "oil" || w == "olio" || w == "oils";
    name.split(|c: char| !c.is_alphabetic()).any(is)
}

/// Whether a topping is basil.
pub fn is_basil(name: &str) -> bool {
    holds(name, &["basil"])
}

/// What takes the place of a fresh mozzarella in a bake of minutes; nothing for any other topping.
pub fn aged(name: &str) -> Option<&'static str> {
    if holds(name, &["fresh mozzarella"]) {
        Some("Aged mozzarella")
    } else if holds(name, &["mozzarella fresca"]) {
        Some("Mozzarella asciutta")
    } else {
        None
    }
}

/// Whether what is said of an oven is of one at home.
pub fn says_home(words: &str) -> bool {
    holds(words, &["home", "casa"])
}

/// Whether what is said of an oven is of a portable one.
pub fn says_portable(words: &str) -> bool {
    holds(words, &["portable", "portatile"])
}

/// Whether what is said of an oven is of one that burns wood.
pub fn says_wood(words: &str) -> bool {
    holds(words, &["wood", "legna"])
}

/// Goods that a sheet asks the shelf for by a name, in both languages.
const GOODS: [[&str; 2]; 7] = [
    ["salt", "sale"],
    ["sugar", "zucchero"],
    ["olive oil", "olio d'oliva"],
    ["instant yeast", "lievito istantaneo"],
    ["active dry yeast", "lievito secco attivo"],
    ["fresh yeast", "lievito fresco"],
    ["basil", "basilico"],
];

/// Whether two names are of one thing on the shelf.
///
/// ```
/// use craft::names::is_same_good;
/// assert!(is_same_good(" Salt", "sale"));
/// assert!(is_same_good("Olio d’oliva", "Olive oil"));
/// assert!(!is_same_good("Salt", "Sugar"));
/// ```
pub fn is_same_good(a: &str, b: &str) -> bool {
    let plain = |name: &str| name.trim().to_lowercase().replace('’', "'");
    let (a, b) = (plain(a), plain(b));
    a == b
        || GOODS
            .iter()
            .any(|g| g.contains(&a.as_str()) && g.contains(&b.as_str()))
}
