//! The demo kitchen: Larchfold Halt. Everything is dated relative to now and worked out by the core; only
//! what a person would measure or say is written here.

mod clock;
mod finished;
mod library;
mod live;
mod mixing;
mod pantry;
mod people;
mod shaping;
mod trial;

use anyhow::{Context, Result, bail};
use craft::fire::set_points::solve_plan;
use craft::fire::work::Work;
use craft::fire::{FireChoice, Oven, Tap, TapKind, Verdict, of_formula, oven};
use craft::flour::FlourPart;
use craft::formula::Scales;
use craft::pantry::Flour;
use craft::reading::Subject;
use craft::sheet::life::{Life, spans};
use craft::sheet::{KitchenUsual, SheetRequest, StepKind, work_out};
use jiff::{SignedDuration, Timestamp};
use store::batch::{self, Batch, KeptBatch, NewBatch, Origin};
use store::entry::{self, By, EntryOutcome, NewEntry, SaidEntry, Seen};
use store::kitchen::{self, Kitchen, NewKitchen, Reads, Rhythm};
use store::pantry::PantryItem;
use store::{BatchCache, Db, MySqlConnection};
use uuid::Uuid;
use web::batch::lessons::log_of;
use web::batch::record::{BatchRecord, Folds};
use web::shared::kitchen::RequestKitchen;

/// Demo batches older than this are made anew, so that the Bench looks alive.
const STALE_H: i64 = 8;

/// Loads the demo kitchen into an empty database; later, makes the batches anew that no maker touched.
pub async fn load(pool: &Db, now: Timestamp) -> Result<()> {
    let mut db = pool.begin().await?;
    let id = match kitchen::demo(&mut db).await? {
        Some(id) => id,
        None => {
            let id = kitchen::add(&mut db, &larchfold_halt(clock::zone(now)), now).await?;
            kitchen::be_demo(&mut db, id).await?;
            people::move_in(&mut db, id, now).await?;
            id
        }
    };
    let here = kitchen::by_id(&mut db, id).await?;
    let here = here.context("the kitchen was not kept")?;
    let made = batch::demo_made_at(&mut db, here.id).await?;
    let stale = made.is_some_and(|at| now.duration_since(at).as_hours() >= STALE_H);
    let mut here = here;
    if stale {
        batch::clear_demo(&mut db, here.id).await?;
        // A kitchen that nobody changed moves with its hours.
        if here.revision == 0 {
            here.usual.time_zone = clock::zone(now).into();
            kitchen::move_to(&mut db, here.id, &here.usual.time_zone).await?;
        }
    }
    if stale || !batch::any(&mut db, here.id).await? {
        let mut writer = DemoWriter {
            db: &mut db,
            here: &here,
            now,
            closed: vec![],
        };
        if !stale {
            // Once: a pantry and a library are the maker's own from then on.
            pantry::write(&mut writer).await?;
            library::write(&mut writer).await?;
        }
        finished::write(&mut writer).await?;
        if !stale {
            writer.mixer_learned().await?;
        }
        live::write(&mut writer).await?;
    }
    db.commit().await?;
    Ok(())
}

fn larchfold_halt(time_zone: &str) -> NewKitchen {
    NewKitchen {
        name: "Larchfold Halt".into(),
        usual: KitchenUsual {
            time_zone: time_zone.into(),
            altitude_m: 310.0,
            room_c: 19.5,
            fridge_c: 4.5,
            tap_water_c: 9.5,
            scales: Scales {
                mixer_holds_g: Some(9000.0),
                ..Scales::default()
            },
        },
        reads: Reads::default(),
        rhythm: Rhythm {
            life: Life {
                quiet: spans("22:30-06:30").unwrap_or_default(),
                busy: spans("Mon-Fri 09:00-12:00").unwrap_or_default(),
            },
            fridge_measured: true,
            ..Rhythm::default()
        },
        work: Work::default(),
    }
}

/// The ovens of the house: what they are copied from, their names, pizzas at once.
const OVENS: [(&str, &str, u32); 3] = [
    ("wood_dome", "Lamp room oven", 1),
    ("electric_deck", "Buffet deck", 3),
    ("home_steel", "Signal box oven", 1),
];

/// An oven of the house by its name.
fn house_oven(name: &str) -> Result<Oven> {
    let (key, name, spots) = OVENS
        .into_iter()
        .find(|o| o.1 == name)
        .with_context(|| format!("no oven {name}"))?;
    let shipped = oven::all()
        .iter()
        .find(|o| o.key == key)
        .with_context(|| format!("no oven {key}"))?;
    Ok(Oven {
        key: format!("halt-{key}"),
        name: name.into(),
        spots,
        ..shipped.clone()
    })
}

/// Writes demo batches and what was seen of them.
struct DemoWriter<'a> {
    db: &'a mut MySqlConnection,
    here: &'a Kitchen,
    now: Timestamp,
    /// What was closed, the oldest first.
    closed: Vec<BatchRecord>,
}

fn minutes(m: f64) -> SignedDuration {
    SignedDuration::from_secs_f64((m * 60.0).round())
}

impl DemoWriter<'_> {
    /// A style's dough on the flours of the house, for an hour.
    fn request(&self, style: &str, serve_at: Timestamp) -> Result<SheetRequest> {
        let style = craft::style::by_key(style).with_context(|| style.to_string())?;
        Ok(SheetRequest::of_style(style, &self.here.usual, serve_at))
    }
    /// Two flours of the house that come to this strength together.
    async fn flours_of(&mut self, w: f64) -> Result<Vec<FlourPart>> {
        let all = store::pantry::everything(self.db, self.here.id).await?;
        let of = |name: &str| all.flours.iter().find(|f| f.facts.name == name);
        let names = match w > 290.0 {
            true => ("Quernside No. 4", "Alder Ford strong"),
            false => ("Quernside soft", "Quernside No. 4"),
        };
        // A demo pantry of before may have neither.
        let (Some(weak), Some(strong)) = (of(names.0), of(names.1)) else {
            return Ok(vec![FlourPart::only(w)]);
        };
        let (a, b) = (
            weak.facts.facts.strength().w,
            strong.facts.facts.strength().w,
        );
        let share = (1000.0 * (w - a) / (b - a)).round() / 10.0;
        let part = |item: &PantryItem<Flour>, share| item.facts.part(item.id, share);
        Ok(match share {
            s if s <= 0.0 => vec![part(weak, 100.0)],
            s if s >= 100.0 => vec![part(strong, 100.0)],
            s => vec![part(weak, 100.0 - s), part(strong, s)],
        })
    }
    /// The same dough with its fire planned in an oven of the house.
    async fn fired(
        &mut self,
        oven_name: &str,
        hands: u32,
        request: SheetRequest,
    ) -> Result<SheetRequest> {
        let all = store::pantry::everything(self.db, self.here.id).await?;
        // A demo pantry of before has no ovens: then it is the shipped one.
        let (oven_id, facts) = match all.ovens.into_iter().find(|o| o.facts.name == oven_name) {
            Some(item) => (Some(item.id), item.facts),
            None => (None, house_oven(oven_name)?),
        };
        let sheet = work_out(&request)?;
        let at = (request.room_c, request.altitude_m);
        let setting = facts.usual();
        let portion = sheet.formula.main_portion().context("a dough has pieces")?;
        let mut plan = of_formula::plan(&request.formula, portion, &facts, setting, None, at);
        // A tray wants the deck gentler than the rounds that it usually bakes.
        if plan.pan.is_some() {
            plan = solve_plan(&plan)?.plan;
        }
        let fire = FireChoice::of(plan, oven_id, hands, request.room_c)?;
        Ok(request.with(|r| r.fire = Some(Box::new(fire))))
    }

    async fn batch(
        &mut self,
        name: &str,
        request: &SheetRequest,
        created_at: Timestamp,
    ) -> Result<Batch> {
        let result = work_out(request)?;
        let new = NewBatch {
            form_key: Uuid::new_v4(),
            name,
            request,
            result: &result,
            origin: Origin::Demo,
            from: None,
        };
        let code = match batch::keep(self.db, self.here.id, &new, created_at).await? {
            KeptBatch::Done(code) => code,
            KeptBatch::Other(code) => bail!("{code} stands under a key of its own"),
        };
        match batch::by_code(self.db, self.here.id, &code, &BatchCache::default()).await? {
            Some(b) => Ok(b),
            None => bail!("batch {code} was not kept"),
        }
    }

    async fn see(&mut self, b: &Batch, at: Timestamp, seen: Seen) -> Result<()> {
        self.enter(b, at, seen.into()).await
    }

    async fn enter(&mut self, b: &Batch, at: Timestamp, said: SaidEntry) -> Result<()> {
        let new = NewEntry::own(at, said);
        let here = self.here.id;
        match entry::write(self.db, here, b.id, &new, at, By::Demo, entry::ANY).await? {
            EntryOutcome::New => Ok(()),
            other => bail!("an entry of {} was not kept: {other:?}", b.code),
        }
    }

    async fn read(
        &mut self,
        b: &Batch,
        at: Timestamp,
        subject: Subject,
        celsius: f64,
    ) -> Result<()> {
        self.see(b, at, Seen::Reading { subject, celsius }).await
    }

    /// The caution before the fire was read.
    async fn cautioned(&mut self, b: &Batch, at: Timestamp) -> Result<()> {
        self.see(b, at, Seen::Cautioned).await
    }

    async fn remark(&mut self, b: &Batch, at: Timestamp, remark: &str) -> Result<()> {
        self.see(
            b,
            at,
            Seen::Remark {
                remark: remark.into(),
            },
        )
        .await
    }

    /// Marks every step done that was due `until` then, each a few minutes off its plan.
    async fn steps_until(&mut self, b: &Batch, until: Timestamp) -> Result<()> {
        for (i, step) in b.sheet.result.steps.iter().enumerate() {
            let at = step.at + minutes(uneven(i as u32, 3) as f64);
            let step_position = step.number;
            let end = at + minutes(step.hands_on_min);
            let said = match step.has_length() {
                false => vec![(at, Seen::StepDone { step_position })],
                true => vec![
                    (at, Seen::StepBegun { step_position }),
                    (end, Seen::StepFinished { step_position }),
                ],
            };
            if mixing::by_taps(b, step.kind) || shaping::by_pieces(b, step.kind) {
                continue;
            }
            for (at, seen) in said.into_iter().filter(|(at, _)| *at <= until) {
                self.see(b, at, seen).await?;
            }
        }
        Ok(())
    }

    /// When a step of this kind is planned.
    fn at(b: &Batch, kind: StepKind) -> Timestamp {
        b.sheet
            .result
            .steps
            .iter()
            .find(|s| s.kind == kind)
            .map_or(b.sheet.result.mixed_at, |s| s.at)
    }

    /// A run of pizzas: the first goes in at `from`, then one every `pace_s`; each is out after its programme's
    /// time, a little more or less, and judged.
    async fn run(
        &mut self,
        b: &Batch,
        from: Timestamp,
        pace_s: i64,
        verdicts: &[Verdict],
        off_s: i64,
    ) -> Result<Timestamp> {
        let p = &b.sheet.result.programme;
        let mut last = from;
        for (i, verdict) in verdicts.iter().enumerate() {
            let pizza = i as u32 + 1;
            let wobble = i64::from(uneven(pizza, 5));
            let start = from + SignedDuration::from_secs(pace_s * i as i64 + 4 * wobble);
            let s = |s: i64| start + SignedDuration::from_secs(s);
            let out = i64::from(p.out_s) + off_s + wobble;
            let mut taps = vec![(start, TapKind::In)];
            for t in &p.turns {
                taps.push((
                    s((i64::from(t.at_s) + wobble / 2).min(out - 2)),
                    TapKind::Turned,
                ));
            }
            taps.push((s(out), TapKind::Out));
            taps.push((s(out + 9), TapKind::Verdict(*verdict)));
            for (at, kind) in taps {
                self.enter(b, at, Tap { pizza, at, kind }.into()).await?;
            }
            last = s(out + 9);
        }
        Ok(last)
    }

    /// A batch with what was entered about it up to now.
    async fn told(&mut self, code: &str) -> Result<BatchRecord> {
        let found = batch::by_code(self.db, self.here.id, code, &BatchCache::default()).await?;
        let found = found.with_context(|| format!("batch {code} is gone"))?;
        Ok(Folds::default().record(found))
    }

    /// Closes a batch with its forecast from what was measured.
    async fn close(&mut self, b: &Batch, at: Timestamp) -> Result<()> {
        let here = RequestKitchen::of(self.here.clone(), at);
        let went = web::batch::forecast::went(&self.told(&b.code).await?, &here);
        let went = Some(Box::new(went));
        self.see(b, at, Seen::Closed { went }).await?;
        let told = self.told(&b.code).await?;
        self.closed.push(told);
        Ok(())
    }

    /// The plan by what the bakes of before have taught.
    fn by_the_log(&self, request: SheetRequest) -> SheetRequest {
        let here = RequestKitchen::of(self.here.clone(), self.now);
        let own = log_of(&self.closed).and_then(|log| log.own(&request, &here));
        request.with(|r| r.own = own.map(Box::new))
    }
}

/// A small uneven whole number in −most..=most, the same for the same seed: people are not clocks.
fn uneven(seed: u32, most: i32) -> i32 {
    let mixed = seed.wrapping_mul(2_654_435_761).rotate_left(13) ^ 0x9e37;
    (mixed % (2 * most as u32 + 1)) as i32 - most
}
