//! Mix: how warm must the water be so that the dough leaves the mixer at the wanted temperature?
//!
//! Input: amounts (g), temperatures (°C) of flour, tap and room, the way of mixing. Output: water
//! temperature by heat balance, the base rule beside it, ice where the water would be below 2 °C, and a way
//! out above 40 °C. Source: fermentation model, section 2.1; craft notes, section 3. Limits: the bowl's own
//! heat and losses to the room during mixing are inside the friction figure; show it as an estimate.

use crate::fact;
use crate::fact::{Fact, Percent, Value, minutes, tenth, whole};
use crate::kitchen;
use crate::note::{Note, by_urgency};
use crate::refusal::{Check, ValidationError};
use crate::units::{Celsius, Grams};
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// Specific heats, kJ/(kg·K): water, flour at 14 % moisture, salt, oil, sugar (mixture rule, textbook).
const C_WATER: f64 = 4.18;
const C_FLOUR: f64 = 1.95;
const C_SALT: f64 = 0.9;
const C_OIL: f64 = 2.0;
const C_SUGAR: f64 = 1.25;
const C_DOUGH: f64 = 3.1;
/// Heat that melting ice takes, kJ/kg.
const MELTING: f64 = 334.0;
/// Colder water than this is not to be had without ice, °C.
pub const COLDEST_WATER_C: f64 = 2.0;
/// Hotter water harms the yeast, °C.
pub const HOTTEST_WATER_C: f64 = 40.0;
/// Friction is capped here, K (assumed).
const MOST_FRICTION_K: f64 = 12.0;
/// Gluten suffers in dough warmer than this, °C.
const WARM_DOUGH_C: f64 = 28.0;

/// How the dough is worked.
#[derive(
    Debug,
    Clone,
    Copy,
    PartialEq,
    Eq,
    Serialize,
    Deserialize,
    EnumString,
    IntoStaticStr,
    VariantArray,
)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[strum(serialize_all = "snake_case")]
pub enum Mixer {
    /// By hand.
    Hand,
    /// A hook that goes round in a standing bowl.
    Planetary,
    /// A spiral in a turning bowl.
    Spiral,
    /// A fork in a turning bowl.
    Fork,
    /// A blade.
    FoodProcessor,
}

impl Mixer {
    /// Heating by friction, K per minute; by hand it is 1 K in all (assumed).
    fn kelvin_per_min(self) -> f64 {
        match self {
            Mixer::Hand => 0.0,
            Mixer::Planetary => 0.6,
            Mixer::Spiral => 0.7,
            Mixer::Fork => 0.4,
            Mixer::FoodProcessor => 5.0,
        }
    }
    /// Heating of the dough by so many minutes of work, K.
    pub fn friction_k(self, minutes: f64) -> f64 {
        match self {
            Mixer::Hand => 1.0,
            _ => (self.kelvin_per_min() * minutes).min(MOST_FRICTION_K),
        }
    }
    /// Usual minutes of work, and the minutes that the whole mixing takes with weighing and pauses.
    pub fn usual_min(self) -> (f64, f64) {
        match self {
            Mixer::Hand => (12.0, 25.0),
            Mixer::Planetary => (10.0, 20.0),
            Mixer::Spiral => (10.0, 20.0),
            Mixer::Fork => (14.0, 25.0),
            Mixer::FoodProcessor => (1.2, 10.0),
        }
    }
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            Mixer::Hand => fact!("mixer-hand"),
            Mixer::Planetary => fact!("mixer-stand"),
            Mixer::Spiral => fact!("mixer-spiral"),
            Mixer::Fork => fact!("mixer-fork"),
            Mixer::FoodProcessor => fact!("mixer-processor"),
        }
    }
}

/// What goes into the bowl and how warm it is.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct WaterRequest {
    /// Wanted temperature off the mixer, 5 to 35 °C.
    pub target_dough_c: f64,
    /// The room, °C.
    pub room_c: f64,
    /// The flour, °C.
    pub flour_c: f64,
    /// The cold tap, 0 to 35 °C.
    pub tap_water_c: f64,
    /// The flour, g.
    pub flour_g: f64,
    /// All of it, with what goes in at a temperature of its own.
    pub water_g: f64,
    /// Part of the water that has its own temperature: what holds a dissolved dose of yeast.
    #[serde(default)]
    pub aside_g: f64,
    /// The temperature of that part, °C.
    #[serde(default)]
    pub aside_c: f64,
    /// Salt, g.
    #[serde(default)]
    pub salt_g: f64,
    /// Oil, g.
    #[serde(default)]
    pub oil_g: f64,
    /// Sugar, g.
    #[serde(default)]
    pub sugar_g: f64,
    /// Ripe preferments that go in, and how warm they are.
    #[serde(default)]
    pub preferment_g: f64,
    /// How warm they are, °C.
    #[serde(default)]
    pub preferment_c: f64,
    /// How it is mixed.
    pub mixer: Mixer,
    /// Minutes of work; 0 to 60.
    pub mixing_min: f64,
}

/// The water to pour.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct WaterResult {
    /// What the heat balance asks for, possible or not, °C.
    pub needed_c: f64,
    /// What the base rule asks for: 3 × (target − friction) − room − flour, °C; with a preferment 4 × that, and its
    /// temperature taken off besides.
    pub base_rule_c: f64,
    /// The base itself: 3 (or 4) × (target − friction).
    pub base: f64,
    /// What to pour: `water_g` minus the ice and what stands aside, at this temperature, °C.
    pub pour_c: f64,
    /// Water to pour, g.
    pub pour_g: f64,
    /// Ice to put in, g.
    pub ice_g: f64,
    /// What mixing adds, K.
    pub friction_k: f64,
    /// Dough temperature that this gives, °C (an estimate; a thermometer overrules it).
    pub dough_c: f64,
    /// Whether the wanted temperature is reached.
    pub reached: bool,
    /// Judgements, the gravest first.
    pub notes: Vec<Note>,
}

impl WaterRequest {
    fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        c.range(
            "target_dough_c",
            fact!("f-dough-off-the-mixer"),
            self.target_dough_c,
            5.0,
            35.0,
            Value::Celsius,
        );
        kitchen::room_into(&mut c, self.room_c);
        kitchen::flour_into(&mut c, self.flour_c);
        kitchen::tap_water_into(&mut c, self.tap_water_c);
        // With all the flour in a biga nothing but water is left to pour.
        let least = if self.preferment_g > 0.0 { 0.0 } else { 1.0 };
        c.range(
            "flour_g",
            fact!("f-flour"),
            self.flour_g,
            least,
            300_000.0,
            Value::Grams,
        );
        c.range(
            "water_g",
            fact!("f-water"),
            self.water_g,
            least,
            300_000.0,
            Value::Grams,
        );
        c.range(
            "preferment_c",
            fact!("f-preferment"),
            self.preferment_c,
            -2.0,
            42.0,
            Value::Celsius,
        );
        for (field, what, v) in [
            ("salt_g", fact!("f-salt"), self.salt_g),
            ("oil_g", fact!("f-oil"), self.oil_g),
            ("sugar_g", fact!("f-sugar"), self.sugar_g),
            ("preferment_g", fact!("f-preferment"), self.preferment_g),
            ("aside_g", fact!("f-water-aside"), self.aside_g),
        ] {
            c.range(field, what, v, 0.0, 300_000.0, Value::Grams);
        }
        c.range(
            "mixing_min",
            fact!("f-mixing"),
            self.mixing_min,
            0.0,
            60.0,
            minutes,
        );
        c.done()
    }

    /// Heat capacity of everything but the water, J/K; it is all as warm as the flour but the oil.
    fn dry_capacity(&self) -> f64 {
        self.flour_g * C_FLOUR + self.salt_g * C_SALT + self.sugar_g * C_SUGAR
    }
    fn capacity(&self) -> f64 {
        self.dry_capacity()
            + self.oil_g * C_OIL
            + self.water_g * C_WATER
            + self.preferment_g * C_DOUGH
    }
    /// Heat in flour, salt, sugar (as warm as the flour) and oil (as warm as the room), J above 0 °C.
    fn heat_without_water(&self) -> f64 {
        self.dry_capacity() * self.flour_c
            + self.oil_g * C_OIL * self.room_c
            + self.preferment_g * C_DOUGH * self.preferment_c
            + (self.water_g - self.poured_g()) * C_WATER * self.aside_c
    }
    /// The water that is poured at a temperature to be found.
    fn poured_g(&self) -> f64 {
        (self.water_g - self.aside_g).max(0.0)
    }
    fn friction_k(&self) -> f64 {
        self.mixer.friction_k(self.mixing_min)
    }
    /// Dough temperature with the water at `water_c`, `ice_g` of it as ice.
    fn dough_with(&self, water_c: f64, ice_g: f64) -> f64 {
        let water = (self.poured_g() - ice_g) * C_WATER * water_c - MELTING * ice_g;
        (self.heat_without_water() + water) / self.capacity() + self.friction_k()
    }
}

/// Solves the water for a dough temperature.
///
/// Errors: [`ValidationError`] with the fields outside their ranges.
///
/// ```
/// use craft::mix::{WaterRequest, water};
///
/// let asked: WaterRequest = serde_json::from_str(
///     r#"{"target_dough_c": 24, "room_c": 20, "flour_c": 20, "tap_water_c": 12,
///         "flour_g": 1000, "water_g": 620, "salt_g": 28, "mixer": "spiral", "mixing_min": 15}"#,
/// )?;
/// let poured = water(&asked).unwrap();
/// assert!(poured.reached && poured.ice_g == 0.0);
/// // A spiral warms the dough, so the water goes in colder than the dough is wanted.
/// assert!(poured.friction_k > 3.0 && poured.pour_c < 24.0);
/// # Ok::<(), serde_json::Error>(())
/// ```
pub fn water(r: &WaterRequest) -> Result<WaterResult, ValidationError> {
    r.check()?;
    let friction_k = r.friction_k();
    let wanted = (r.target_dough_c - friction_k) * r.capacity() - r.heat_without_water();
    if r.poured_g() < 1.0 {
        return Ok(nothing_to_pour(r, friction_k));
    }
    let needed_c = wanted / (r.poured_g() * C_WATER);
    let (terms, preferment_c) = base_terms(r);
    let base = terms * (r.target_dough_c - friction_k);
    let mut out = WaterResult {
        needed_c,
        base_rule_c: base - r.room_c - r.flour_c - preferment_c,
        base,
        pour_c: needed_c,
        pour_g: r.poured_g(),
        ice_g: 0.0,
        friction_k,
        dough_c: r.target_dough_c,
        reached: true,
        notes: vec![],
    };
    if needed_c < COLDEST_WATER_C {
        with_ice(r, wanted, &mut out);
    } else if needed_c > HOTTEST_WATER_C {
        too_hot(r, &mut out);
    } else if needed_c < r.tap_water_c - 0.5 {
        // Reachable without ice only by cooling the water beforehand: say how much ice does it at once.
        let ice = ice_for(r, wanted, r.tap_water_c);
        out.notes.push(
            Note::holds(
                "colder_than_tap",
                fact!("colder-than-tap", c = Celsius(whole(needed_c))),
                fact!("colder-than-tap-why", c = Celsius(r.tap_water_c)),
            )
            .todo(fact!(
                "colder-than-tap-todo",
                ice = Grams(whole(ice)),
                water = Grams(whole(r.poured_g() - ice))
            )),
        );
    }
    if r.target_dough_c > WARM_DOUGH_C {
        out.notes.push(Note::watch(
            "dough_warm",
            fact!("dough-warm", c = Celsius(r.target_dough_c)),
            fact!("dough-warm-why", c = Celsius(WARM_DOUGH_C)),
        ));
    }
    out.notes = by_urgency(out.notes);
    Ok(out)
}

/// How many temperatures the base rule weighs, and the preferment's.
fn base_terms(r: &WaterRequest) -> (f64, f64) {
    if r.preferment_g > 0.0 {
        (4.0, r.preferment_c)
    } else {
        (3.0, 0.0)
    }
}

/// All the water is in the preferment: the dough comes as it comes.
fn nothing_to_pour(r: &WaterRequest, friction_k: f64) -> WaterResult {
    let (terms, preferment_c) = base_terms(r);
    let base = terms * (r.target_dough_c - friction_k);
    let dough_c = r.heat_without_water() / r.capacity() + friction_k;
    WaterResult {
        needed_c: r.tap_water_c,
        base_rule_c: base - r.room_c - r.flour_c - preferment_c,
        base,
        pour_c: r.tap_water_c,
        pour_g: r.poured_g(),
        ice_g: 0.0,
        friction_k,
        dough_c,
        reached: (dough_c - r.target_dough_c).abs() < 0.5,
        notes: vec![
            Note::watch(
                "no_water_to_pour",
                fact!("no-water-to-pour", c = Celsius(whole(dough_c))),
                fact!("no-water-to-pour-why"),
            )
            .todo(fact!("no-water-to-pour-todo")),
        ],
    }
}

/// Ice that replaces part of the water at `water_c` so that the heat balance closes, g.
fn ice_for(r: &WaterRequest, wanted: f64, water_c: f64) -> f64 {
    (r.poured_g() * C_WATER * water_c - wanted) / (C_WATER * water_c + MELTING)
}

fn with_ice(r: &WaterRequest, wanted: f64, out: &mut WaterResult) {
    let pour_c = r.tap_water_c.max(COLDEST_WATER_C);
    let ice = ice_for(r, wanted, pour_c);
    let most = 0.6 * r.poured_g();
    out.pour_c = pour_c;
    out.ice_g = ice.min(most);
    out.pour_g = r.poured_g() - out.ice_g;
    out.dough_c = r.dough_with(pour_c, out.ice_g);
    if ice <= most {
        out.notes.push(
            Note::watch(
                "ice",
                fact!("ice", ice = Grams(whole(out.ice_g))),
                fact!("ice-why", c = Celsius(whole(out.needed_c))),
            )
            .todo(fact!(
                "ice-todo",
                water = Grams(whole(out.pour_g)),
                c = Celsius(whole(pour_c))
            )),
        );
    } else {
        out.reached = false;
        let surplus = (out.dough_c - r.target_dough_c) * r.capacity();
        let flour_c = r.flour_c - surplus / r.dry_capacity();
        out.notes.push(
            Note::act(
                "too_warm_for_ice",
                fact!(
                    "ice-not-enough",
                    share = Percent(60.0),
                    c = Celsius(tenth(out.dough_c))
                ),
                fact!("ice-not-enough-why"),
            )
            .todo(if r.flour_g >= 1.0 && flour_c > -20.0 {
                fact!("chill-flour-to", c = Celsius(whole(flour_c)))
            } else {
                fact!("chill-flour")
            }),
        );
    }
}

fn too_hot(r: &WaterRequest, out: &mut WaterResult) {
    out.pour_c = HOTTEST_WATER_C;
    out.dough_c = r.dough_with(HOTTEST_WATER_C, 0.0);
    out.reached = false;
    let missing = (r.target_dough_c - out.dough_c) * r.capacity();
    let flour_c = r.flour_c + missing / r.dry_capacity();
    out.notes.push(
        Note::act(
            "water_too_hot",
            fact!("water-too-hot", c = Celsius(whole(out.needed_c))),
            fact!(
                "water-too-hot-why",
                most = Celsius(HOTTEST_WATER_C),
                c = Celsius(tenth(out.dough_c))
            ),
        )
        .todo(if r.flour_g >= 1.0 && flour_c < 45.0 {
            fact!("warm-flour-to", c = Celsius(whole(flour_c)))
        } else {
            fact!("warm-flour")
        }),
    );
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::keyed::Keyed;
    use proptest::prelude::*;

    fn summer() -> WaterRequest {
        WaterRequest {
            target_dough_c: 23.0,
            room_c: 21.0,
            flour_c: 20.0,
            tap_water_c: 14.0,
            flour_g: 1000.0,
            water_g: 620.0,
            aside_g: 0.0,
            aside_c: 0.0,
            salt_g: 20.0,
            oil_g: 0.0,
            sugar_g: 0.0,
            preferment_g: 0.0,
            preferment_c: 0.0,
            mixer: Mixer::Hand,
            mixing_min: 12.0,
        }
    }

    #[test]
    fn a_hand_mixed_dough_worked_by_hand() {
        // Capacity 1.95 × 1000 + 0.9 × 20 + 4.18 × 620 = 4559.6 J/K; dry part 1968 J/K at 20 °C.
        // (23 − 1) × 4559.6 − 1968 × 20 = 60951.2; / 2591.6 = 23.52 °C.
        let w = water(&summer()).unwrap();
        assert!((w.needed_c - 23.5188).abs() < 1e-3, "{}", w.needed_c);
        assert!((w.base - 66.0).abs() < 1e-12);
        assert!((w.base_rule_c - 25.0).abs() < 1e-12);
        assert_eq!((w.ice_g, w.reached), (0.0, true));
    }

    #[test]
    fn ice_closes_the_balance_in_a_hot_kitchen() {
        let r = WaterRequest {
            flour_c: 36.0,
            room_c: 36.0,
            tap_water_c: 22.0,
            mixer: Mixer::Spiral,
            mixing_min: 10.0,
            ..summer()
        };
        let w = water(&r).unwrap();
        assert!(w.needed_c < COLDEST_WATER_C && w.ice_g > 0.0);
        assert!((r.dough_with(w.pour_c, w.ice_g) - 23.0).abs() < 1e-9);
        assert!((w.pour_g + w.ice_g - 620.0).abs() < 1e-9);
        assert_eq!(w.notes[0].code, "ice");
    }

    #[test]
    fn more_ice_than_melts_is_refused_with_a_way_out() {
        let r = WaterRequest {
            target_dough_c: 8.0,
            flour_c: 42.0,
            room_c: 38.0,
            tap_water_c: 28.0,
            mixer: Mixer::FoodProcessor,
            mixing_min: 3.0,
            ..summer()
        };
        let w = water(&r).unwrap();
        assert!(!w.reached && w.dough_c > 8.0);
        assert_eq!(w.notes[0].code, "too_warm_for_ice");
        assert!(w.notes[0].todo.is_some());
    }

    #[test]
    fn hot_water_is_refused_and_the_named_flour_temperature_works() {
        let cold = WaterRequest {
            target_dough_c: 26.0,
            flour_c: 2.0,
            room_c: 8.0,
            ..summer()
        };
        let w = water(&cold).unwrap();
        assert_eq!((w.pour_c, w.reached), (HOTTEST_WATER_C, false));
        assert_eq!(w.notes[0].code, "water_too_hot");
        let missing = (26.0 - w.dough_c) * cold.capacity();
        let warmed = WaterRequest {
            flour_c: 2.0 + missing / cold.dry_capacity(),
            ..cold
        };
        assert!((water(&warmed).unwrap().needed_c - HOTTEST_WATER_C).abs() < 1e-9);
    }

    #[test]
    fn water_colder_than_the_tap_names_the_ice_that_makes_it() {
        let r = WaterRequest {
            tap_water_c: 28.0,
            flour_c: 26.0,
            room_c: 27.0,
            ..summer()
        };
        let w = water(&r).unwrap();
        assert!((COLDEST_WATER_C..28.0).contains(&w.needed_c) && w.ice_g == 0.0);
        assert_eq!(w.notes[0].code, "colder_than_tap");
        // The ice named in the note closes the same balance with tap water.
        let todo = w.notes[0].todo.as_ref().unwrap();
        let ice = todo.number("ice").unwrap();
        assert!((r.dough_with(28.0, ice) - 23.0).abs() < 0.1, "{ice}");
    }

    #[test]
    fn a_warm_dough_is_watched() {
        let w = water(&WaterRequest {
            target_dough_c: 29.0,
            flour_c: 24.0,
            ..summer()
        })
        .unwrap();
        assert!(w.notes.iter().any(|n| n.code == "dough_warm"));
    }

    #[test]
    fn every_way_of_mixing_has_a_key_that_leads_back() {
        for &m in Mixer::ALL {
            assert_eq!(Mixer::from_key(m.key()), Some(m));
            let (work, whole) = m.usual_min();
            assert!(work < whole && m.friction_k(work) <= MOST_FRICTION_K);
        }
        assert_eq!(Mixer::from_key("spoon"), None);
    }

    #[test]
    fn friction_is_capped() {
        assert_eq!(Mixer::FoodProcessor.friction_k(60.0), 12.0);
        assert_eq!(Mixer::Hand.friction_k(60.0), 1.0);
    }

    #[test]
    fn water_that_holds_the_yeast_counts_at_its_own_temperature() {
        let all = summer();
        let aside = WaterRequest {
            aside_g: 150.0,
            aside_c: 20.0,
            ..all
        };
        let (a, b) = (water(&all).unwrap(), water(&aside).unwrap());
        assert!((b.pour_g - 470.0).abs() < 1e-9);
        // 150 g at 20 °C and the rest a little warmer bring the same heat.
        let mixed = (150.0 * 20.0 + 470.0 * b.pour_c) / 620.0;
        assert!((mixed - a.pour_c).abs() < 1e-9 && b.pour_c > a.pour_c);
    }

    proptest! {
        #[test]
        fn what_is_poured_gives_the_dough_that_is_said(
            target in 5.0..35.0f64, room in -2.0..42.0f64, flour in -20.0..45.0f64, tap in 0.0..35.0f64,
            flour_g in 100.0..50_000.0f64, water_share in 0.4..1.3f64, min in 0.0..30.0f64, m in 0usize..5,
        ) {
            let r = WaterRequest { target_dough_c: target, room_c: room, flour_c: flour, tap_water_c: tap,
                flour_g, water_g: flour_g * water_share, mixer: Mixer::ALL[m], mixing_min: min, ..summer() };
            let w = water(&r).unwrap();
            prop_assert!((r.dough_with(w.pour_c, w.ice_g) - w.dough_c).abs() < 1e-6);
            prop_assert!(w.reached == ((w.dough_c - target).abs() < 1e-6));
            prop_assert!((COLDEST_WATER_C - 1e-9..=HOTTEST_WATER_C + 1e-9).contains(&w.pour_c));
            prop_assert!(w.ice_g >= 0.0 && w.ice_g <= 0.6 * r.water_g + 1e-9);
        }

        #[test]
        fn a_warmer_target_never_asks_for_colder_water(target in 5.0..34.0f64, flour in 0.0..40.0f64) {
            let r = WaterRequest { target_dough_c: target, flour_c: flour, ..summer() };
            let warmer = WaterRequest { target_dough_c: target + 1.0, ..r };
            prop_assert!(water(&warmer).unwrap().needed_c > water(&r).unwrap().needed_c);
        }
    }
}
