//! What a dough is mixed in and by which programme, as its plan supposes it: for the water, and for the hours it takes.

use super::{SheetRequest, how, raise};
use crate::fact::Fact;
use crate::fire::boiling_c;
use crate::flour::blend;
use crate::formula::{FormulaResult, Ingredient};
use crate::leaven::YeastForm;
use crate::mix::run::{MixInput, MixRun};
use crate::mix::{
    BlendFrom, Development, DoughToMix, GlutenWork, LoggedMix, Machine, MixProgramme, MixQuestion,
    Mixer, ObservedSign, ReadySign, UsualMinutes, WaterRequest, WaterResult, WorkedIn, development,
    preferment_programmes, trace, usual_programme, water_worked,
};
use crate::refusal::ValidationError;
use jiff::Timestamp;

/// Weighing, and what is done between the steps, min.
const WEIGHING_MIN: f64 = 5.0;
/// A plan keeps time in steps of so much, min.
const KEPT_MIN: f64 = 5.0;

impl SheetRequest {
    /// The machine that the dough is mixed in: the kitchen's own, or one of its kind as the scales say what it holds.
    pub fn machine(&self) -> Machine {
        let kind = self.formula.mixer;
        match &self.machine {
            Some(m) if m.kind == kind => (**m).clone(),
            _ => {
                let mut usual = Machine::usual(kind);
                if let Some(g) = self.scales.mixer_holds_g.filter(|_| kind != Mixer::Hand) {
                    usual.capacity_kg = (g / 1000.0).clamp(0.3, 300.0);
                }
                usual
            }
        }
    }
    /// Dough in the bowl, by the formula alone, g.
    fn bowl_g(&self) -> f64 {
        let f = &self.formula;
        let sum = 100.0 + f.hydration_percent + f.salt_percent + f.oil_percent + f.sugar_percent;
        f.pieces.bowl_g(f.loss_percent, sum)
    }
    /// In how many runs it is mixed.
    pub fn mix_runs(&self) -> u32 {
        self.machine()
            .runs(self.bowl_g(), self.formula.hydration_percent)
    }
    /// The dough of one run, as programmes are judged for it.
    pub fn dough_to_mix(&self) -> DoughToMix {
        let machine = self.machine();
        let runs = f64::from(machine.runs(self.bowl_g(), self.formula.hydration_percent));
        let dough_kg = self.bowl_g() / 1000.0 / runs;
        DoughToMix {
            hydration_percent: self.formula.hydration_percent,
            w: blend(&self.formula.flours).w,
            dough_kg,
            fill: dough_kg / machine.capacity_kg,
        }
    }
    /// The programme that its plan supposes.
    pub fn mix_programme(&self) -> &'static MixProgramme {
        usual_programme(
            self.formula.mixer,
            Some(&self.formula.style.key),
            !self.formula.preferments.is_empty(),
            &self.dough_to_mix(),
        )
    }
    /// Minutes from the first weighing of the dough to its leaving the mixer: weighing, and every run of its programme.
    pub fn mixing_min(&self) -> f64 {
        let work = self.mix_programme().minutes() * f64::from(self.mix_runs());
        KEPT_MIN * ((work + WEIGHING_MIN) / KEPT_MIN).ceil()
    }

    /// A bowl that is mixed: 0 the dough, else the preferment of that number. `None` where there is no such bowl, or nothing is
    /// poured into it.
    pub fn to_mix(&self, f: &FormulaResult, bowl: u16) -> Option<BowlToMix> {
        match usize::from(bowl) {
            0 => Some(self.dough_bowl(f)),
            n => self.preferment_bowl(f, n - 1),
        }
    }

    fn dough_bowl(&self, f: &FormulaResult) -> BowlToMix {
        let last = f.last();
        let preferment = &f.columns[..last];
        let water = WaterRequest {
            target_dough_c: self.formula.target_dough_c,
            room_c: self.room_c,
            flour_c: self.flour_c,
            tap_water_c: self.tap_water_c,
            flour_g: f.exact_in(Ingredient::Flour, last),
            water_g: f.exact_in(Ingredient::Water, last),
            aside_g: f.columns[last].dilution.map_or(0.0, |d| d.less_water_g),
            aside_c: self.room_c,
            salt_g: f.exact_in(Ingredient::Salt, last),
            oil_g: f.exact_in(Ingredient::Oil, last),
            sugar_g: f.exact_in(Ingredient::Sugar, last) + f.exact_in(Ingredient::Extra, last),
            preferment_g: preferment.iter().map(|c| c.exact_g).sum(),
            preferment_c: raise::preferments_c(self, f),
            mixer: self.formula.mixer,
            mixing_min: self.formula.mixer.usual_min(),
        };
        BowlToMix {
            water,
            column: last,
            programme: self.mix_programme().clone(),
            machine: self.machine(),
            bowl_c: None,
            preferment_hydration_percent: preferments_hydration(f),
            runs: self.mix_runs(),
            hydration_percent: f.true_hydration_percent,
            w: blend(&self.formula.flours).w,
            yeast: self.formula.yeast.form,
            has_yeast: f.exact_in(Ingredient::Yeast, last) > 0.0,
            piece_g: f.portions.iter().map(|p| p.piece_g).reduce(f64::min),
            altitude_m: self.altitude_m,
            measured_water_c: None,
            kettle_c: None,
            chilled_c: None,
        }
    }

    /// A preferment is stirred by hand, with what the kitchen has.
    fn preferment_bowl(&self, f: &FormulaResult, i: usize) -> Option<BowlToMix> {
        let p = self.formula.preferments.get(i)?;
        let build = f.builds.iter().find(|b| b.of == i);
        let (flour_g, water_g, seed_g) = match build {
            Some(b) => (b.flour_g, b.water_g, b.seed_g),
            None => (
                f.exact_in(Ingredient::Flour, i),
                f.exact_in(Ingredient::Water, i),
                0.0,
            ),
        };
        if flour_g < 1.0 || water_g < 1.0 {
            return None;
        }
        let water = WaterRequest {
            target_dough_c: p.target(self.room_c),
            room_c: self.room_c,
            flour_c: self.flour_c,
            tap_water_c: self.tap_water_c,
            flour_g,
            water_g,
            aside_g: f.columns[i].dilution.map_or(0.0, |d| d.less_water_g),
            aside_c: self.room_c,
            salt_g: f.exact_in(Ingredient::Salt, i),
            oil_g: 0.0,
            sugar_g: 0.0,
            preferment_g: seed_g,
            preferment_c: self.room_c,
            mixer: Mixer::Hand,
            mixing_min: Mixer::Hand.usual_min(),
        };
        let hydration_percent = 100.0 * water_g / flour_g;
        Some(BowlToMix {
            water,
            column: i,
            programme: preferment_programmes(hydration_percent)[0].clone(),
            machine: self.stirred_in((flour_g + water_g) / 1000.0),
            bowl_c: None,
            preferment_hydration_percent: hydration_percent,
            runs: 1,
            hydration_percent,
            w: blend(&self.formula.flours).w,
            yeast: p.yeast.form,
            has_yeast: f.exact_in(Ingredient::Yeast, i) > 0.0,
            piece_g: None,
            altitude_m: self.altitude_m,
            measured_water_c: None,
            kettle_c: None,
            chilled_c: None,
        })
    }

    /// A bowl that is large enough for what is stirred in it.
    fn stirred_in(&self, dough_kg: f64) -> Machine {
        let mut bowl = Machine::usual(Mixer::Hand);
        bowl.capacity_kg = (1.5 * dough_kg).clamp(0.3, 300.0);
        bowl
    }

    /// The water of a bowl, in its machine and by its programme.
    pub(super) fn water(&self, f: &FormulaResult) -> Result<WaterResult, ValidationError> {
        self.dough_bowl(f).poured().map_err(raise::at_water)
    }
}

/// Water of what the preferments bring, % of their flour.
fn preferments_hydration(f: &FormulaResult) -> f64 {
    let sum = |what| (0..f.last()).map(|i| f.exact_in(what, i)).sum::<f64>();
    let flour = sum(Ingredient::Flour);
    if flour > 0.0 {
        100.0 * sum(Ingredient::Water) / flour
    } else {
        100.0
    }
}

/// What goes into one bowl, and how it is mixed: as planned, or as it was said at the bowl.
#[derive(Debug, Clone, PartialEq)]
pub struct BowlToMix {
    /// All of it, with its temperatures.
    pub water: WaterRequest,
    /// Which column of the weighed sheet.
    pub column: usize,
    /// By which programme.
    pub programme: MixProgramme,
    /// In which machine.
    pub machine: Machine,
    /// The bowl, °C; as warm as the room where that is not said.
    pub bowl_c: Option<f64>,
    /// Water of what the preferments bring, % of their flour.
    pub preferment_hydration_percent: f64,
    /// In how many runs.
    pub runs: u32,
    /// Water of all of it, % of all flour.
    pub hydration_percent: f64,
    /// Strength of the flour, W.
    pub w: f64,
    /// What raises it.
    pub yeast: YeastForm,
    /// Whether there is any in this bowl.
    pub has_yeast: bool,
    /// The lightest piece that the dough is divided into, g; none of a preferment.
    pub piece_g: Option<f64>,
    /// Of the kitchen, m.
    pub altitude_m: f64,
    /// The water as it was measured, °C.
    pub measured_water_c: Option<f64>,
    /// The kettle as it was measured, °C.
    pub kettle_c: Option<f64>,
    /// Water from the fridge, °C.
    pub chilled_c: Option<f64>,
}

impl BowlToMix {
    /// How it is worked.
    pub fn by(&self) -> WorkedIn<'_> {
        WorkedIn {
            programme: &self.programme,
            machine: &self.machine,
            bowl_c: self.bowl_c,
            preferment_hydration_percent: self.preferment_hydration_percent,
            runs: self.runs,
        }
    }
    /// Its water.
    ///
    /// Errors: [`ValidationError`] with what is outside its range.
    pub fn poured(&self) -> Result<WaterResult, ValidationError> {
        water_worked(&self.water, &self.by())
    }
    /// The dough of one run, as programmes are judged for it.
    pub fn dough_to_mix(&self) -> DoughToMix {
        let dough_kg = self.by().recipe(&self.water).dough_g() / 1000.0;
        DoughToMix {
            hydration_percent: self.hydration_percent,
            w: self.w,
            dough_kg,
            fill: dough_kg / self.machine.capacity_kg,
        }
    }
    /// What its water is made of.
    pub fn blend_from(&self) -> BlendFrom {
        BlendFrom {
            tap_c: self.water.tap_water_c,
            kettle_c: Some(self.kettle_c.unwrap_or(boiling_c(self.altitude_m))),
            fridge_c: self.chilled_c,
            ice_in_bowl: self.machine.kind != Mixer::Hand,
        }
    }
    /// In another machine, or by another programme: then in as many runs as that takes.
    pub fn in_machine(mut self, machine: Machine, programme: MixProgramme) -> BowlToMix {
        let all_g = self.by().recipe(&self.water).dough_g() * f64::from(self.runs);
        self.runs = machine.runs(all_g, self.hydration_percent);
        (self.machine, self.programme) = (machine, programme);
        self
    }
    /// As it was said at the bowl: what it is mixed in, and what was measured.
    pub fn said(mut self, run: &MixRun) -> BowlToMix {
        if let Some(c) = &run.chosen {
            (self.machine, self.programme) = (c.machine.clone(), c.programme.clone());
            self.runs = u32::from(c.runs.max(1));
        }
        for (what, c) in &run.measured {
            let w = &mut self.water;
            match what {
                MixInput::Wanted => w.target_dough_c = *c,
                MixInput::Flour => w.flour_c = *c,
                MixInput::Room => w.room_c = *c,
                MixInput::Tap => w.tap_water_c = *c,
                MixInput::Preferment => w.preferment_c = *c,
                MixInput::Bowl => self.bowl_c = Some(*c),
                MixInput::Kettle => self.kettle_c = Some(*c),
                MixInput::Chilled => self.chilled_c = Some(*c),
                MixInput::Water => self.measured_water_c = Some(*c),
            }
        }
        self
    }
    /// What is asked of one run of it.
    pub fn asked<'a>(
        &'a self,
        run: &'a MixRun,
        usual: UsualMinutes,
        now: Timestamp,
    ) -> MixQuestion<'a> {
        MixQuestion {
            water: self.water,
            by: self.by(),
            blend_from: self.blend_from(),
            w: self.w,
            piece_g: self.piece_g,
            hydration_percent: self.hydration_percent,
            usual,
            water_measured_c: self.measured_water_c,
            run,
            now,
        }
    }
    /// The run as friction is learned from it; none while it goes on or without a reading.
    pub fn logged(&self, run: &MixRun) -> Option<LoggedMix> {
        let water = self.poured().ok()?;
        let laid = self
            .by()
            .laid_as_poured(&self.water, &water, self.measured_water_c);
        run.logged(&laid)
    }
    /// How far the gluten was by the book at each sign of a run: what minutes are learned from.
    pub fn seen(&self, run: &MixRun) -> Vec<(Development, ReadySign)> {
        let Some(logged) = self.logged(run) else {
            return vec![];
        };
        let (figures, _) = self.machine.figures();
        let Ok(course) = trace(&logged.mixing, Some(&figures)) else {
            return vec![];
        };
        let work = self.gluten(1.0);
        let dough = |min: f64| course.at(min).unwrap_or(self.water.room_c);
        let mut first: Vec<ObservedSign> = vec![];
        for s in run.signs_min() {
            // A sign that is seen again, or a lower one after it, tells nothing.
            if first.iter().all(|f| f.sign < s.sign) {
                first.push(s);
            }
        }
        let by_book = |s: &ObservedSign| development(&work, &logged.mixing, s.at_min, &[], dough);
        first.iter().map(|s| (by_book(s), s.sign)).collect()
    }
    /// The base that this run would have had to be poured by: the temperatures of room, flour, preferment and water, and what
    /// the water would have to be warmer for the dough that was wanted. None without a reading of its end, or with ice.
    pub fn base_of(&self, run: &MixRun) -> Option<f64> {
        let end = run.ended_at(self.programme.steps.len())?;
        let minute = run.minute_of(end)?;
        let last = run.readings_min().into_iter().rev().find(|r| {
            // Of the dough as it left the mixer.
            (r.at_min - minute).abs() < 5.0
        })?;
        let poured = self.poured().ok()?;
        if poured.ice_g > 0.0 || poured.pour_g < 1.0 {
            return None;
        }
        let w = &self.water;
        let preferment_c = if w.preferment_g > 0.0 {
            w.preferment_c
        } else {
            0.0
        };
        let water_c = self.measured_water_c.unwrap_or(poured.pour_c);
        let short_k = w.target_dough_c - last.dough_c;
        Some(w.room_c + w.flour_c + preferment_c + water_c + short_k / self.by().per_water_k(w))
    }
    /// How many temperatures its base sums.
    pub fn base_terms(&self) -> u32 {
        if self.water.preferment_g > 0.0 { 4 } else { 3 }
    }
    /// The dough as its gluten is judged.
    pub fn gluten(&self, usual: f64) -> GlutenWork {
        GlutenWork {
            kind: self.machine.kind,
            w: self.w,
            hydration_percent: self.hydration_percent,
            usual,
        }
    }
    /// Whether another bowl is of the same flour and in the same band of water: its minutes tell of this one.
    pub fn is_alike(&self, other: &BowlToMix) -> bool {
        /// Water in bands of so much, %.
        const BAND: f64 = 4.0;
        let band = |b: &BowlToMix| (b.hydration_percent / BAND).floor();
        self.programme.kind == other.programme.kind
            && (self.w - other.w).abs() < 25.0
            && band(self) == band(other)
    }
    /// What is weighed into the bowl of one run, in the order of the sheet; water apart.
    pub fn weighed(&self, f: &FormulaResult) -> Vec<WeighLine> {
        let n = f64::from(self.runs.max(1));
        let line = |what: Fact, g: f64, scale_g: f64| WeighLine {
            what,
            grams: (g / n / scale_g).round() * scale_g,
            scale_g,
            is_dose: false,
            how: Fact::nothing(),
        };
        let rows = f.rows.iter().filter(|r| r.ingredient != Ingredient::Water);
        let own = rows.filter_map(|r| {
            let cell = r.cells.get(self.column)?.as_ref()?;
            let mut line = line(r.called(), cell.exact_g, cell.scale_g);
            if r.ingredient == Ingredient::Yeast {
                (line.what, line.is_dose) = (self.yeast.name(), true);
            }
            if line.is_dose && f.columns[self.column].dilution.is_some() {
                line.how = how::yeast(f, self.column, self.yeast).unwrap_or_else(Fact::nothing);
            }
            (cell.exact_g > 0.0).then_some((order(r.ingredient), line))
        });
        let whole = f.columns[..self.column.min(f.last())]
            .iter()
            .filter(|_| self.column == f.last());
        let scale = f.rows.first().map_or(1.0, |r| r.scale_g);
        let whole = whole.map(|c| (1, line(c.name.clone(), c.weighed_g, scale)));
        let mut all: Vec<(u8, WeighLine)> = own.chain(whole).collect();
        all.sort_by_key(|(order, _)| *order);
        all.into_iter().map(|(_, line)| line).collect()
    }
}

/// The base of one mixer and programme, from runs of its own.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OwnBase {
    /// Their mean, °C summed.
    pub mean: f64,
    /// Their standard deviation, K.
    pub sd_k: f64,
    /// So many runs.
    pub mixes: usize,
}

impl OwnBase {
    /// From three runs on there is one.
    pub fn of(bases: &[f64]) -> Option<OwnBase> {
        let n = bases.len();
        if n < 3 {
            return None;
        }
        let mean = bases.iter().sum::<f64>() / n as f64;
        let squares: f64 = bases.iter().map(|b| (b - mean).powi(2)).sum();
        Some(OwnBase {
            mean,
            sd_k: (squares / (n - 1) as f64).sqrt(),
            mixes: n,
        })
    }
}

/// In which order things are weighed: as they go in.
fn order(what: Ingredient) -> u8 {
    match what {
        Ingredient::Flour => 0,
        Ingredient::Water => 1,
        Ingredient::Yeast => 2,
        Ingredient::Sugar | Ingredient::Extra => 3,
        Ingredient::Salt => 4,
        Ingredient::Oil => 5,
    }
}

/// A line of what is weighed.
#[derive(Debug, Clone, PartialEq)]
pub struct WeighLine {
    /// What.
    pub what: Fact,
    /// For one run, as the scale reads it, g.
    pub grams: f64,
    /// What the scale resolves, g.
    pub scale_g: f64,
    /// Whether it is a dose of yeast.
    pub is_dose: bool,
    /// How a dose is weighed that the scale cannot read; else nothing.
    pub how: Fact,
}
