//! A machine of the kitchen's own, and a dough that is worked in it by a programme.

use super::balance::{DoughResponse, WaterRequest, WaterResult};
use super::bowl::{capacity_into, course, set_parts};
use super::programmes::{DoughToMix, MixRecipe, PrefermentIn};
use super::{
    BowlItem, BowlPart, Friction, FrictionFigures, MIXES_TO_BELIEVE, MixHazard, MixProgramme,
    MixShares, Mixer, Mixing, ProgrammeStep, Speed, programmes, water_part,
};
use crate::fact;
use crate::fact::Fact;
use crate::keyed::Keyed;
use crate::refusal::{Check, ValidationError};
use serde::{Deserialize, Serialize};
use std::sync::LazyLock;

/// A mixer that a kitchen has, or hands in a bowl.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Machine {
    /// As its owner calls it.
    pub name: String,
    /// What it is.
    pub kind: Mixer,
    /// What it holds, 0.3 to 300 kg of dough at 60 % water.
    pub capacity_kg: f64,
    /// Whether its bowl comes off, to stand on ice.
    #[serde(default)]
    pub bowl_comes_off: bool,
    /// What its own mixes taught about its friction, and was taken over; nothing: what its kind says.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub learned: Option<Box<Friction>>,
}

impl Machine {
    /// One of a kind that nobody described.
    pub fn usual(kind: Mixer) -> Machine {
        Machine {
            name: String::new(),
            kind,
            capacity_kg: kind.usual_capacity_kg(),
            bowl_comes_off: false,
            learned: None,
        }
    }
    /// Refuses what no machine is.
    ///
    /// Errors: [`ValidationError`] with the fields outside their ranges.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        self.check_into(&mut c);
        c.done()
    }
    pub(crate) fn check_into(&self, c: &mut Check) {
        capacity_into(c, self.capacity_kg);
        let figures = self.learned.iter().flat_map(|l| {
            let f = l.figures;
            [f.offset_k, f.slow, f.medium, f.fast, f.fill_effect]
        });
        if figures.into_iter().any(|v| !(-5.0..=20.0).contains(&v)) {
            c.refuse("learned", fact!("mixer-figures-odd"));
        }
    }
    /// The figures that count, and whether they are those of the kind, which are not believed beyond the cap.
    pub fn figures(&self) -> (FrictionFigures, bool) {
        match &self.learned {
            Some(f) => (f.figures, f.mixes < MIXES_TO_BELIEVE),
            None => (FrictionFigures::of(self.kind), true),
        }
    }
    /// What is known of its friction.
    pub fn friction(&self) -> Friction {
        match &self.learned {
            Some(f) => (**f).clone(),
            None => Friction::prior(self.kind),
        }
    }
    /// The most dough of so much water that it works at once, kg.
    pub fn bears_kg(&self, hydration_percent: f64) -> f64 {
        self.kind.bears_kg(self.capacity_kg, hydration_percent)
    }
    /// In how many runs so much dough is mixed, shared evenly; at least one.
    pub fn runs(&self, dough_g: f64, hydration_percent: f64) -> u32 {
        if self.kind == Mixer::Hand {
            return 1;
        }
        let most_g = 1000.0 * self.bears_kg(hydration_percent);
        (dough_g / most_g - 1e-9).ceil().clamp(1.0, 99.0) as u32
    }
}

/// A whole programme that is a part of the rising, such as a night without kneading, is chosen, not supposed, min.
const LONGEST_USUAL_MIN: f64 = 60.0;

/// The programme that a dough is supposed to be mixed by until somebody chooses another.
///
/// The best fit for the machine, the style's own first among equals; one that begins with a preferment only where there is one.
pub fn usual_programme(
    kind: Mixer,
    style: Option<&str>,
    has_preferment: bool,
    dough: &DoughToMix,
) -> &'static MixProgramme {
    let all = super::fitting(programmes(), &[kind], style, dough);
    let usual =
        |p: &MixProgramme| !p.rises_in_the_bowl() && (has_preferment || !p.wants_preferment());
    let short = all.iter().find(|(p, _)| usual(p)).or(all.first());
    short.map_or(&programmes()[0], |(p, _)| p)
}

/// How a preferment is mixed: barely, by hand first, or in a machine on slow. A stiff one stays ragged, a liquid one has no
/// lumps.
pub fn preferment_programmes(hydration_percent: f64) -> &'static [MixProgramme] {
    static BOTH: LazyLock<[Vec<MixProgramme>; 2]> = LazyLock::new(|| {
        [
            stirred("preferment_stiff", fact!("mixcue-ragged")),
            stirred("preferment_liquid", fact!("mixcue-no-lumps")),
        ]
    });
    &BOTH[usize::from(hydration_percent >= STIFF_BELOW_PERCENT)]
}

fn stirred(key: &str, cue: Fact) -> Vec<MixProgramme> {
    // A blade cuts a preferment warm; it is left out.
    let kinds = [
        (Mixer::Hand, Speed::Hand, MixHazard::RawFlour),
        (Mixer::Planetary, Speed::Slow, MixHazard::TurningBowl),
        (Mixer::Spiral, Speed::Slow, MixHazard::TurningBowl),
        (Mixer::Fork, Speed::Slow, MixHazard::TurningBowl),
    ];
    let of = |(kind, speed, hazard): (Mixer, Speed, MixHazard)| MixProgramme {
        key: match kind {
            Mixer::Hand => key.into(),
            _ => format!("{key}_{}", kind.key()),
        },
        name: match kind {
            Mixer::Hand => fact!("mixway-preferment"),
            _ => fact!("mixway-preferment-slow"),
        },
        kind,
        work_min: [2.0, 4.0],
        fits: Default::default(),
        styles: vec![],
        most_work_min: 6.0,
        dough_c: [14.0, 28.0],
        hazards: vec![hazard],
        steps: vec![ProgrammeStep {
            say: match kind {
                Mixer::Hand => fact!("mixstep-preferment"),
                _ => fact!("mixstep-preferment-slow"),
            },
            cue: cue.clone(),
            speed,
            minutes: 3.0,
            add: MixShares {
                flour: 1.0,
                water: 1.0,
                salt: 1.0,
                leaven: 1.0,
                preferment: 1.0,
            },
            stir: kind == Mixer::Hand,
            slap: false,
        }],
    };
    kinds.into_iter().map(of).collect()
}

/// A preferment of less water is stiff, %.
const STIFF_BELOW_PERCENT: f64 = 70.0;

impl MixProgramme {
    /// Whether it begins with a preferment.
    pub fn wants_preferment(&self) -> bool {
        self.steps.iter().any(|s| s.add.preferment > 0.0)
    }
    /// The step at which the yeast goes in: its own, or the first flour's where the programme speaks of none.
    pub fn yeast_step(&self) -> Option<usize> {
        let own = self.steps.iter().position(|s| s.add.leaven > 0.0);
        own.or_else(|| self.steps.iter().position(|s| s.add.flour > 0.0))
    }
    /// Whether its rests are a part of the rising, such as a night without kneading: then the dough counts as mixed when the
    /// first step is done, and the others go on in the bowl.
    pub fn rises_in_the_bowl(&self) -> bool {
        self.minutes() > LONGEST_USUAL_MIN
    }
    /// So many steps until the dough counts as mixed.
    pub fn steps_to_mixed(&self) -> usize {
        match self.rises_in_the_bowl() {
            true => 1,
            false => self.steps.len(),
        }
    }
    /// How long its steps take together, min.
    pub fn minutes(&self) -> f64 {
        self.steps.iter().map(|s| s.minutes).sum()
    }
}

/// A dough that is worked by a programme in a machine.
#[derive(Debug, Clone, PartialEq)]
pub struct WorkedIn<'a> {
    /// The steps.
    pub programme: &'a MixProgramme,
    /// The machine.
    pub machine: &'a Machine,
    /// The bowl, °C; as warm as the room where that is not said.
    pub bowl_c: Option<f64>,
    /// Water of the preferments, % of their flour.
    pub preferment_hydration_percent: f64,
    /// In so many runs.
    pub runs: u32,
}

impl WorkedIn<'_> {
    /// What one run takes.
    pub fn recipe(&self, r: &WaterRequest) -> MixRecipe {
        let n = f64::from(self.runs.max(1));
        let preferment = PrefermentIn {
            weight_g: r.preferment_g / n,
            temp_c: r.preferment_c,
            hydration_percent: self.preferment_hydration_percent.clamp(40.0, 300.0),
        };
        MixRecipe {
            flour_g: r.flour_g / n,
            flour_c: r.flour_c,
            water_g: r.poured_g() / n,
            salt_g: r.salt_g / n,
            oil_g: r.oil_g / n,
            sugar_g: r.sugar_g / n,
            room_c: r.room_c,
            aside_g: (r.water_g - r.poured_g()) / n,
            aside_c: r.aside_c,
            preferments: (r.preferment_g > 0.0)
                .then_some(preferment)
                .into_iter()
                .collect(),
        }
    }
    /// The steps with one run's grams; the water that is to be found is named.
    pub fn mixing(&self, r: &WaterRequest) -> Mixing {
        let capacity = Some(self.machine.capacity_kg);
        self.recipe(r).laid(self.programme, capacity, self.bowl_c)
    }

    /// The same with the water as it is poured: as it was measured, or as it is planned, with ice where that is.
    pub fn laid_as_poured(
        &self,
        r: &WaterRequest,
        water: &WaterResult,
        measured_c: Option<f64>,
    ) -> Mixing {
        let laid = self.mixing(r);
        let names = water_parts(&laid);
        let names: Vec<&str> = names.iter().map(String::as_str).collect();
        if let Some(c) = measured_c {
            return set_parts(&laid, &names, c);
        }
        let mut m = set_parts(&laid, &names, water.pour_c);
        // Ice melts while the first part is worked; in a gathered dough it tears and does not melt. What the first part cannot
        // hold goes into the next. The result is of all runs together.
        let mut left_g = water.ice_g / f64::from(self.runs.max(1));
        for s in m.steps.iter_mut().filter(|_| water.ice_g > 0.0) {
            let mut ice = vec![];
            for i in s.add.iter_mut().filter(|i| i.name.is_some()) {
                let of_it = left_g.min(i.weight_g);
                left_g -= of_it;
                if of_it > 0.0 {
                    ice.push(BowlItem::of(BowlPart::Ice, of_it, 0.0));
                }
                i.weight_g -= of_it;
            }
            s.add.append(&mut ice);
        }
        m
    }

    /// What a degree of all the water that is poured does at the end, K.
    pub fn per_water_k(&self, r: &WaterRequest) -> f64 {
        self.response(r).per_water_k
    }
    /// How the end answers water and flour.
    pub(super) fn response(&self, r: &WaterRequest) -> DoughResponse {
        let laid = self.mixing(r);
        let (figures, capped) = self.machine.figures();
        let end = |water_c: f64, flour_c: f64| {
            let mut m = laid.clone();
            for i in m.steps.iter_mut().flat_map(|s| &mut s.add) {
                match i.what {
                    BowlPart::Water if i.name.is_some() => i.temp_c = water_c,
                    BowlPart::Flour | BowlPart::Salt | BowlPart::Sugar => i.temp_c = flour_c,
                    _ => {}
                }
            }
            course(&m, Some(&figures), capped)
        };
        let cold = end(0.0, r.flour_c);
        DoughResponse {
            poured_g: r.poured_g(),
            at_zero_c: cold.end_c,
            per_water_k: end(1.0, r.flour_c).end_c - cold.end_c,
            per_flour_k: end(0.0, r.flour_c + 1.0).end_c - cold.end_c,
            friction_k: cold.friction_k,
        }
    }
}

/// The names of all parts of the water.
pub fn water_parts(mixing: &Mixing) -> Vec<String> {
    let named = mixing.steps.iter().flat_map(|s| &s.add);
    let n = named.filter(|i| i.name.is_some()).count();
    (1..=n).map(water_part).collect()
}
