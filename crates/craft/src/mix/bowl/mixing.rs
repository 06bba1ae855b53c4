//! A mixing: its steps with what enters at each, where it stands, and which of that is refused.

use super::{BowlItem, Contents};
use crate::fact;
use crate::fact::{Fact, Value, minutes};
use crate::kitchen;
use crate::mix::Mixer;
use crate::refusal::{Check, ValidationError};
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// Steps of one mixing.
pub const MOST_STEPS: usize = 40;
/// Minutes of machine work in one mixing.
pub const MOST_MACHINE_MIN: f64 = 60.0;
/// One step is no longer than this, min.
pub const LONGEST_STEP_MIN: f64 = 1440.0;

/// How fast it works.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum Speed {
    /// It rests.
    Off,
    /// The slow speed of a machine.
    Slow,
    /// Its medium speed.
    Medium,
    /// Its fast speed.
    Fast,
    /// Hands.
    Hand,
    /// A round of folds.
    Fold,
}

impl Speed {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            Speed::Off => fact!("speed-off"),
            Speed::Slow => fact!("speed-slow"),
            Speed::Medium => fact!("speed-medium"),
            Speed::Fast => fact!("speed-fast"),
            Speed::Hand => fact!("speed-hand"),
            Speed::Fold => fact!("speed-fold"),
        }
    }
    /// Whether a machine runs.
    pub fn is_machine(self) -> bool {
        matches!(self, Speed::Slow | Speed::Medium | Speed::Fast)
    }
}

/// One step: what goes in at its start, and how long it goes on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct BowlStep {
    /// How fast.
    pub speed: Speed,
    /// How long, 0 to 1440 min.
    pub minutes: f64,
    /// What goes in at its start.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub add: Vec<BowlItem>,
    /// The bowl stands on ice.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub ice_bath: bool,
    /// Hands that only stir.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub stir: bool,
    /// Slap and fold.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub slap: bool,
}

impl BowlStep {
    /// So long at a speed, with nothing new in the bowl.
    pub fn plain(speed: Speed, minutes: f64) -> BowlStep {
        BowlStep {
            speed,
            minutes,
            add: vec![],
            ice_bath: false,
            stir: false,
            slap: false,
        }
    }
}

/// A dough that is in the bowl already, as a thermometer has it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct StandingDough {
    /// The dough, -5 to 50 °C.
    pub dough_c: f64,
    /// The bowl, -25 to 50 °C.
    pub bowl_c: f64,
    /// What it is made of; their own temperatures are not asked.
    pub contents: Vec<BowlItem>,
}

/// A mixing from its first step, or from a dough that stands.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Mixing {
    /// What works it.
    pub kind: Mixer,
    /// What the mixer holds, 0.3 to 300 kg of dough at 60 % water; its kind's usual one where that is not known.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub capacity_kg: Option<f64>,
    /// The room, °C.
    pub room_c: f64,
    /// The bowl before anything is in it, °C; as warm as the room where that is not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bowl_c: Option<f64>,
    /// Leaves bowl and room out: the balance of what goes in, and friction alone.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub plain: bool,
    /// In their order.
    pub steps: Vec<BowlStep>,
    /// A dough that is in the bowl before the first step.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub from: Option<StandingDough>,
}

impl Mixing {
    /// What the mixer holds, kg of dough at 60 % water.
    pub fn holds_kg(&self) -> f64 {
        self.capacity_kg.unwrap_or(self.kind.usual_capacity_kg())
    }
    /// Everything that goes in, what stood before too.
    pub fn items(&self) -> impl Iterator<Item = &BowlItem> {
        let stood = self.from.iter().flat_map(|f| &f.contents);
        stood.chain(self.steps.iter().flat_map(|s| &s.add))
    }
    /// All of it.
    pub fn contents(&self) -> Contents {
        self.items().collect()
    }
    /// How long it takes, min.
    pub fn minutes(&self) -> f64 {
        self.steps.iter().map(|s| s.minutes).sum()
    }
    /// Minutes of machine work.
    pub fn machine_min(&self) -> f64 {
        let machine = self.steps.iter().filter(|s| s.speed.is_machine());
        machine.map(|s| s.minutes).sum()
    }
    /// Minutes of work, by machine or hands, until so many minutes after its begin.
    pub fn worked_min(&self, until_min: f64) -> f64 {
        let (mut begin, mut worked) = (0.0, 0.0);
        for s in &self.steps {
            let within = (until_min - begin).clamp(0.0, s.minutes);
            if s.speed.is_machine() || s.speed == Speed::Hand {
                worked += within;
            }
            begin += s.minutes;
        }
        worked
    }
    /// Minutes of hands that knead.
    pub fn hand_min(&self) -> f64 {
        let hands = self.steps.iter().filter(|s| s.speed == Speed::Hand);
        hands.map(|s| s.minutes).sum()
    }
    /// When a step begins, min.
    pub fn begins_min(&self, step: usize) -> f64 {
        self.steps.iter().take(step).map(|s| s.minutes).sum()
    }
    /// When the first thing goes in, min; none where nothing does.
    pub fn first_addition_min(&self) -> Option<f64> {
        if self.from.is_some() {
            return Some(0.0);
        }
        let i = self.steps.iter().position(|s| !s.add.is_empty())?;
        Some(self.begins_min(i))
    }

    /// Refuses what no mixing is.
    ///
    /// Errors: [`ValidationError`] with every field outside its range.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        if let Some(kg) = self.capacity_kg {
            capacity_into(&mut c, kg);
        }
        kitchen::room_into(&mut c, self.room_c);
        if let Some(bowl) = self.bowl_c {
            let name = fact!("f-bowl");
            c.range("bowl_c", name, bowl, -25.0, 45.0, Value::Celsius);
        }
        if let Some(from) = &self.from {
            reading_into(&mut c, "from.dough_c", from.dough_c);
            let name = fact!("f-bowl");
            c.range(
                "from.bowl_c",
                name,
                from.bowl_c,
                -25.0,
                50.0,
                Value::Celsius,
            );
        }
        if self.steps.is_empty() || self.steps.len() > MOST_STEPS {
            c.refuse("steps", fact!("mix-steps-count", most = MOST_STEPS));
        }
        for (i, s) in self.steps.iter().enumerate() {
            c.within(&format!("steps[{i}]"));
            let name = fact!("f-mixing");
            c.range("minutes", name, s.minutes, 0.0, LONGEST_STEP_MIN, minutes);
            for item in &s.add {
                check_item(&mut c, item);
            }
        }
        c.within("");
        if self.machine_min() > MOST_MACHINE_MIN {
            let most = fact!("mix-most-machine", most = minutes(MOST_MACHINE_MIN));
            c.refuse("steps", most);
        }
        self.check_contents(&mut c);
        c.done()
    }

    fn check_contents(&self, c: &mut Check) {
        let all = self.contents();
        if !(50.0..=300_000.0).contains(&all.weight_g) {
            c.refuse("steps", fact!("mix-nothing-in-the-bowl"));
        }
        let mut names: Vec<&str> = self.items().filter_map(|i| i.name.as_deref()).collect();
        names.sort_unstable();
        // What is poured at one temperature shares a name; parts of another kind must not.
        let kinds_of = |name: &str| {
            let of_name = self.items().filter(|i| i.name.as_deref() == Some(name));
            let mut kinds: Vec<&'static str> = of_name.map(|i| i.what.into()).collect();
            kinds.dedup();
            kinds.len()
        };
        names.dedup();
        if let Some(name) = names.iter().find(|n| kinds_of(n) > 1) {
            c.refuse("steps", fact!("mix-two-of-one-name", name = *name));
        }
        let mut so_far = Contents::default();
        for i in self.from.iter().flat_map(|f| &f.contents) {
            so_far.put(i);
        }
        for s in &self.steps {
            s.add.iter().for_each(|i| so_far.put(i));
            if s.speed != Speed::Off && s.minutes > 0.0 && so_far.flour_g <= 0.0 {
                c.refuse("steps", fact!("mix-work-without-flour"));
                break;
            }
        }
    }
}

/// What a mixer may hold, kg.
pub(crate) fn capacity_into(c: &mut Check, kg: f64) {
    let name = fact!("f-mixer-capacity");
    c.range("capacity_kg", name, kg, 0.3, 300.0, Value::Kilos);
}

/// What a thermometer in a dough may say, °C.
pub(crate) fn reading_into(c: &mut Check, field: &str, v: f64) {
    c.range(field, fact!("f-dough"), v, -5.0, 50.0, Value::Celsius);
}

fn check_item(c: &mut Check, item: &BowlItem) {
    let name = fact!("mix-part-weight");
    c.range(
        "weight_g",
        name,
        item.weight_g,
        0.0,
        300_000.0,
        Value::Grams,
    );
    let (low, high) = item.range_c();
    let name = fact!("mix-part-temperature");
    c.range("temp_c", name, item.temp_c, low, high, Value::Celsius);
    let name = fact!("f-preferment");
    let h = item.hydration_percent;
    c.range("hydration_percent", name, h, 40.0, 300.0, Value::Percent);
}
