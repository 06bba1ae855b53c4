//! The parts of the form as a page shows them.

/// A number field with what was typed.
pub struct Field {
    pub name: String,
    /// For ids and selectors: without brackets and dots.
    pub id: String,
    pub label: String,
    pub small: String,
    pub unit: &'static str,
    pub value: String,
    /// The value behind a text that cannot hold it.
    pub exact: Option<(String, String)>,
    pub step: f64,
    pub error: Option<String>,
}

/// One of a few.
pub struct Choice {
    pub key: String,
    pub name: String,
    pub chosen: bool,
}

pub struct FlourForm {
    pub i: usize,
    pub name: Field,
    pub share: Field,
    pub w: Field,
    pub more: Vec<Field>,
    pub kinds: Vec<Choice>,
    pub pantry: String,
    pub guess: Option<String>,
}

pub struct ExtraForm {
    pub i: usize,
    pub kind: String,
    pub name: String,
    pub amount: Field,
}

pub struct PrefermentForm {
    pub i: usize,
    pub kind: String,
    pub title: String,
    pub name: String,
    pub fields: Vec<Field>,
    pub dose: Option<DoseForm>,
    pub own_flours: bool,
    pub shares: Vec<Field>,
    pub shares_error: Option<String>,
}

/// How much yeast.
pub struct DoseForm {
    pub at: String,
    pub forms: Vec<Choice>,
    pub doses: Vec<Choice>,
    pub percent: Option<Field>,
    pub error: Option<String>,
}

pub struct PanForm {
    pub i: usize,
    pub round: bool,
    pub fields: Vec<Field>,
}

pub struct ToppingForm {
    pub i: usize,
    pub name: Field,
    pub grams: Field,
    pub wet: bool,
    pub after: bool,
    pub cooks: Vec<Choice>,
    pub allergens: String,
}

pub struct WayView {
    pub i: usize,
    pub what: String,
    pub figures: String,
    pub differs: Vec<String>,
}

pub struct Swap {
    pub says: String,
    pub ways: Vec<WayView>,
}
