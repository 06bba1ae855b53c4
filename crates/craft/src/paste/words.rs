//! Words: which ingredient a phrase names, in English and Italian, and what a millilitre of it weighs.

use crate::flour::FlourKind;
use crate::leaven::YeastForm;
use serde::{Deserialize, Serialize};

/// What an item of a recipe is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "is", rename_all = "snake_case")]
pub enum PastedKind {
    /// A flour.
    Flour {
        /// What it is milled from.
        kind: FlourKind,
    },
    /// Water.
    Water,
    /// Salt.
    Salt,
    /// Oil.
    Oil,
    /// Sugar.
    Sugar,
    /// Honey.
    Honey,
    /// A syrup.
    Syrup,
    /// Malt with its enzymes.
    ActiveMalt,
    /// Malt without them.
    PlainMalt,
    /// Milk.
    Milk,
    /// Milk powder.
    MilkPowder,
    /// Butter.
    Butter,
    /// Another fat.
    Fat,
    /// Seeds and grains.
    Seeds,
    /// Yeast.
    Yeast {
        /// In which form.
        form: YeastForm,
    },
    /// Ripe starter, with its water in % of its flour.
    Starter {
        /// Water of the starter, % of its flour.
        hydration_percent: u16,
    },
    /// A starter dried to a powder.
    DriedMother,
    /// A preferment named as one ingredient.
    Poolish,
    /// A ready biga.
    Biga,
    /// Goes on it, not in it.
    Topping,
}

use FlourKind::*;
use PastedKind::*;

const FRESH: PastedKind = Yeast {
    form: YeastForm::Fresh,
};
const DRY: PastedKind = Yeast {
    form: YeastForm::ActiveDry,
};
const INSTANT: PastedKind = Yeast {
    form: YeastForm::Instant,
};

const fn flour(kind: FlourKind) -> PastedKind {
    Flour { kind }
}
const fn starter(hydration_percent: u16) -> PastedKind {
    Starter { hydration_percent }
}

/// Phrases; in a text the longest that fits wins, so "olive oil" is not "olives" and "milk powder" not "milk".
const WORDS: [(&str, PastedKind); 139] = [
    ("flour", flour(SoftFine)),
    ("farina", flour(SoftFine)),
    ("farine", flour(SoftFine)),
    ("00", flour(SoftFine)),
    ("plain flour", flour(SoftFine)),
    ("all-purpose", flour(SoftFine)),
    ("pizza flour", flour(SoftFine)),
    ("farina 00", flour(SoftFine)),
    ("farina 0", flour(SoftFine)),
    ("bread flour", flour(HardBread)),
    ("strong flour", flour(HardBread)),
    ("strong white", flour(HardBread)),
    ("strong white flour", flour(HardBread)),
    ("strong bread flour", flour(HardBread)),
    ("manitoba", flour(HardBread)),
    ("farina manitoba", flour(HardBread)),
    ("farina di forza", flour(HardBread)),
    ("farina forte", flour(HardBread)),
    ("type 1", flour(HalfWhite)),
    ("type 2", flour(HalfWhite)),
    ("tipo 1", flour(HalfWhite)),
    ("tipo 2", flour(HalfWhite)),
    ("farina tipo 1", flour(HalfWhite)),
    ("farina tipo 2", flour(HalfWhite)),
    ("farina di tipo 1", flour(HalfWhite)),
    ("wholemeal", flour(Wholemeal)),
    ("wholemeal flour", flour(Wholemeal)),
    ("whole wheat", flour(Wholemeal)),
    ("whole wheat flour", flour(Wholemeal)),
    ("wholewheat", flour(Wholemeal)),
    ("wholegrain", flour(Wholemeal)),
    ("integrale", flour(Wholemeal)),
    ("farina integrale", flour(Wholemeal)),
    ("semolina", flour(Semolina)),
    ("semola", flour(Semolina)),
    ("semola rimacinata", flour(Semolina)),
    ("durum", flour(Semolina)),
    ("spelt", flour(Spelt)),
    ("spelt flour", flour(Spelt)),
    ("farro", flour(Spelt)),
    ("farina di farro", flour(Spelt)),
    ("rye", flour(Rye)),
    ("rye flour", flour(Rye)),
    ("segale", flour(Rye)),
    ("farina di segale", flour(Rye)),
    ("gluten", flour(Gluten)),
    ("vital wheat gluten", flour(Gluten)),
    ("glutine", flour(Gluten)),
    ("water", Water),
    ("acqua", Water),
    ("ice", Water),
    ("ghiaccio", Water),
    ("salt", Salt),
    ("sale", Salt),
    ("sea salt", Salt),
    ("oil", Oil),
    ("olio", Oil),
    ("olive oil", Oil),
    ("olio d'oliva", Oil),
    ("olio di oliva", Oil),
    ("olio evo", Oil),
    ("olio extravergine", Oil),
    ("sugar", Sugar),
    ("zucchero", Sugar),
    ("honey", Honey),
    ("miele", Honey),
    ("syrup", Syrup),
    ("sciroppo", Syrup),
    ("treacle", Syrup),
    ("malt", ActiveMalt),
    ("malto", ActiveMalt),
    ("diastatic malt", ActiveMalt),
    ("malt flour", ActiveMalt),
    ("malto diastasico", ActiveMalt),
    ("malt powder", ActiveMalt),
    ("malt extract", PlainMalt),
    ("non-diastatic malt", PlainMalt),
    ("estratto di malto", PlainMalt),
    ("milk", Milk),
    ("latte", Milk),
    ("milk powder", MilkPowder),
    ("powdered milk", MilkPowder),
    ("dry milk", MilkPowder),
    ("latte in polvere", MilkPowder),
    ("butter", Butter),
    ("burro", Butter),
    ("lard", Fat),
    ("strutto", Fat),
    ("shortening", Fat),
    ("seeds", Seeds),
    ("semi", Seeds),
    ("sesame", Seeds),
    ("sesamo", Seeds),
    ("yeast", INSTANT),
    ("instant yeast", INSTANT),
    ("instant dry yeast", INSTANT),
    ("lievito istantaneo", INSTANT),
    ("dry yeast", DRY),
    ("dried yeast", DRY),
    ("active dry", DRY),
    ("active dry yeast", DRY),
    ("lievito secco", DRY),
    ("lievito di birra secco", DRY),
    ("lievito disidratato", DRY),
    ("fresh yeast", FRESH),
    ("lievito", FRESH),
    ("lievito fresco", FRESH),
    ("lievito di birra", FRESH),
    ("lievito di birra fresco", FRESH),
    ("starter", starter(100)),
    ("sourdough", starter(100)),
    ("sourdough starter", starter(100)),
    ("ripe starter", starter(100)),
    ("liquid starter", starter(100)),
    ("levain", starter(100)),
    ("licoli", starter(100)),
    ("li.co.li", starter(100)),
    ("stiff starter", starter(50)),
    ("stiff levain", starter(50)),
    ("lievito madre", starter(50)),
    ("pasta madre", starter(50)),
    ("dried mother", DriedMother),
    ("lievito madre secco", DriedMother),
    ("lievito madre in polvere", DriedMother),
    ("poolish", Poolish),
    ("biga", Biga),
    ("tomato", Topping),
    ("tomatoes", Topping),
    ("pomodoro", Topping),
    ("passata", Topping),
    ("mozzarella", Topping),
    ("basil", Topping),
    ("basilico", Topping),
    ("cheese", Topping),
    ("formaggio", Topping),
    ("olives", Topping),
    ("oregano", Topping),
    ("origano", Topping),
    ("mushrooms", Topping),
];

/// Where a phrase stands and what it names.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FoundWord {
    pub from: usize,
    pub to: usize,
    pub what: PastedKind,
}

/// The ingredients named in a lower-case text, in order, none inside another.
pub fn ingredients(text: &str) -> Vec<FoundWord> {
    let mut all: Vec<FoundWord> = Vec::new();
    for (phrase, what) in WORDS {
        for (from, _) in text.match_indices(phrase) {
            let to = from + phrase.len();
            let before = text[..from].chars().next_back();
            let after = text[to..].chars().next();
            let inside = |c: Option<char>| c.is_some_and(|c| c.is_alphanumeric());
            if !inside(before) && !inside(after) {
                all.push(FoundWord { from, to, what });
            }
        }
    }
    // The longest first; what overlaps a longer one goes.
    all.sort_by_key(|f| (usize::MAX - (f.to - f.from), f.from));
    let mut out: Vec<FoundWord> = Vec::new();
    for f in all {
        if out.iter().all(|o| f.to <= o.from || f.from >= o.to) {
            out.push(f);
        }
    }
    out.sort_by_key(|f| f.from);
    out
}

/// The ingredient that a phrase is about: of a blend of words ("farina di grano tenero 00 W280", "olive oil for
/// the tin") the first that is named, but a flour said closer wins ("flour, wholemeal").
pub fn named(text: &str) -> Option<FoundWord> {
    let found = ingredients(text);
    let first = *found.first()?;
    let closer = found
        .iter()
        .find(|f| matches!(f.what, Flour { kind } if kind != SoftFine));
    match (first.what, closer) {
        (Flour { .. }, Some(better)) => Some(*better),
        _ => Some(first),
    }
}

impl PastedKind {
    /// Grams per millilitre, as taken when a recipe measures by volume. Flour as spooned, salt fine.
    pub fn density(self) -> f64 {
        match self {
            Flour {
                kind: Gluten | Semolina,
            } => 0.68,
            Flour { kind: Wholemeal } => 0.50,
            Flour { .. } => 0.53,
            Water | Starter { .. } | Poolish | Topping | Biga => 1.0,
            Salt => 1.2,
            Oil | Butter | Fat => 0.92,
            Sugar => 0.85,
            Honey | Syrup => 1.42,
            ActiveMalt | PlainMalt | DriedMother => 0.60,
            Milk => 1.03,
            MilkPowder => 0.50,
            Seeds => 0.60,
            Yeast {
                form: YeastForm::Fresh,
            } => 1.0,
            Yeast { .. } => 0.63,
        }
    }
}
