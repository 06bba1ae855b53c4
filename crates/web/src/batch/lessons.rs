//! What this kitchen's log says: batches turned into what learning reads, with the card of each kept as long as its plan and
//! entries stay the same, and the log fitted once for all pages. Nothing of it is stored: it follows from the entries.

use super::load;
use super::record::BatchRecord;
use crate::App;
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::own::{OwnLog, made_with, week};
use craft::learn::answer::PROVEN_BATCHES;
use craft::learn::observed::FAR_OFF_K;
use craft::learn::{
    Answers, Card, KitchenLog, LoggedBatch, Notice, Observed as Told, StoodAs, card_of, notice,
};
use craft::reading::Subject;
use craft::rise::Doubts;
use craft::sheet::ahead::{AheadRequest, as_run};
use jiff::Timestamp;
use moka::sync::Cache;
use std::sync::Arc;
use store::KitchenId;
use store::batch::BatchId;
use store::entry::Seen;
use uuid::Uuid;

/// So many finished batches are looked at for lessons; the core uses the latest forty that say something.
const LOOKED_AT: u32 = 80;
const MOST_CARDS: u64 = 2048;
const MOST_KITCHENS: u64 = 256;

impl BatchRecord {
    /// When something that was said of the dough was so: what is said after it was closed is said of when it was served.
    fn said_of(&self, at: Timestamp) -> Timestamp {
        match self.batch.finished_at {
            Some(closed) if at > closed => self.batch.sheet.request.serve_at.min(closed),
            _ => at,
        }
    }
    /// How it stood when it was opened, as it was said last.
    pub fn stood(&self) -> Option<(Timestamp, StoodAs)> {
        self.seen().rev().find_map(|o| match o.seen {
            Seen::Stood { is } => Some((self.said_of(o.at), is)),
            _ => None,
        })
    }
    /// When it was said to be ready.
    pub fn ready_said(&self) -> Option<Timestamp> {
        self.seen().rev().find_map(|o| match o.seen {
            Seen::Ready => Some(self.said_of(o.at)),
            _ => None,
        })
    }
    /// What was noticed, with the entry that says so.
    pub fn noticed(&self) -> impl Iterator<Item = (Notice, Uuid)> {
        self.seen().filter_map(|o| match o.seen {
            Seen::Noticed { what, .. } => Some((what, o.key)),
            _ => None,
        })
    }
    /// Whether it is learned from.
    pub fn teaches(&self) -> bool {
        self.batch.cancelled_at.is_none()
            && self
                .seen()
                .rev()
                .find_map(|o| match o.seen {
                    Seen::Lessons { learn } => Some(learn),
                    _ => None,
                })
                .unwrap_or(true)
    }
}

fn mean(of: impl Iterator<Item = f64>) -> Option<f64> {
    let (sum, n) = of.fold((0.0, 0u32), |(s, n), x| (s + x, n + 1));
    (n > 0).then(|| sum / f64::from(n))
}

/// A batch as learning reads it; `None` where it cannot be followed.
pub fn logged(told: &BatchRecord) -> Option<LoggedBatch> {
    let sheet = &told.batch.sheet;
    let r = &sheet.request;
    let asked = AheadRequest {
        request: r,
        planned: &sheet.result,
        happened: &told.happened(),
        now: told.batch.finished_at.unwrap_or(r.serve_at),
        places: &[],
        doubts: Doubts::default(),
    };
    let (dough, mixed_at) = as_run(&asked).ok()?;
    let since = |at: Timestamp| at.duration_since(mixed_at).as_secs_f64() / 3600.0;
    let mut observed = Vec::new();
    let opened = told.stood();
    if let Some((at, is)) = opened {
        observed.push(Told::State {
            at_h: Some(since(at).max(0.0)),
            is,
            answers: Answers::Five,
        });
    }
    if let Some(at) = told.ready_said() {
        observed.push(Told::Ready {
            at_h: since(at).max(0.0),
        });
    }
    let tub = told.seen().rev().find_map(|o| match o.seen {
        Seen::Grown { times } if since(o.at) >= 0.25 => Some((since(o.at), times)),
        _ => None,
    });
    observed.extend(tub.map(|(at_h, times)| Told::Tub { at_h, times }));
    let read = |of: Subject, planned: f64| {
        let all = told.seen().chain(told.places.as_slice());
        mean(all.filter_map(|o| match o.seen {
            Seen::Reading { subject, celsius } if subject == of => Some(celsius - planned),
            _ => None,
        }))
        .filter(|k| k.abs() <= FAR_OFF_K)
    };
    let over = |over_planned_k: f64| over_planned_k;
    observed.extend(read(Subject::Fridge, r.fridge_c).map(|k| Told::Fridge {
        over_planned_k: over(k),
    }));
    observed.extend(read(Subject::Room, r.room_c).map(|k| Told::Room {
        over_planned_k: over(k),
    }));
    let off_mixer = told
        .off_the_mixer(r.serve_at)
        .map(|c| c - sheet.result.water.dough_c)
        .filter(|k| k.abs() <= FAR_OFF_K);
    observed.extend(off_mixer.map(|k| Told::Dough {
        over_planned_k: over(k),
    }));
    let noticed: Vec<Notice> = told.noticed().map(|(n, _)| n).collect();
    if opened.is_some() || noticed.iter().any(|n| n.is_of_the_dough()) {
        observed.extend(notice::remarks(&noticed));
    }
    Some(LoggedBatch {
        week: week(r.serve_at),
        made_with: made_with(r),
        dough,
        observed,
        opened_at_h: opened.map(|(at, _)| since(at).max(0.0)),
    })
    .filter(|b| b.check().is_ok())
}

/// A batch that says something, as pages name it.
#[derive(Debug, Clone)]
pub struct TaughtBatch {
    pub code: String,
    pub name: String,
    pub serve_at: Timestamp,
    pub batch: LoggedBatch,
}

/// The log of a kitchen, fitted.
pub struct KitchenLessons {
    pub log: Arc<KitchenLog>,
    /// In the order in which they were served.
    pub lessons: Vec<TaughtBatch>,
    /// The card of each.
    pub cards: Vec<Card>,
}

impl KitchenLessons {
    fn of(told: &[BatchRecord], with_card: impl Fn(&BatchRecord) -> WithCard) -> KitchenLessons {
        let (mut lessons, mut cards) = (vec![], vec![]);
        for t in told {
            let Some(with) = with_card(t) else {
                continue;
            };
            lessons.push(TaughtBatch {
                code: t.batch.code.clone(),
                name: t.batch.name.clone(),
                serve_at: t.batch.sheet.request.serve_at,
                batch: with.0.clone(),
            });
            cards.push(with.1.clone());
        }
        let batches: Vec<LoggedBatch> = lessons.iter().map(|l| l.batch.clone()).collect();
        KitchenLessons {
            log: Arc::new(KitchenLog::of(&batches, &cards)),
            lessons,
            cards,
        }
    }
    /// The log, once plans may go by it.
    fn proven(&self) -> Option<OwnLog> {
        (self.log.rises() >= PROVEN_BATCHES).then(|| OwnLog(self.log.clone()))
    }
    /// All batches as learning reads them.
    pub fn batches(&self) -> Vec<LoggedBatch> {
        self.lessons.iter().map(|l| l.batch.clone()).collect()
    }
}

/// A batch with its card; absent where it says nothing.
type WithCard = Option<Arc<(LoggedBatch, Card)>>;
/// What a card hangs on.
type CardKey = (BatchId, u32, u64, u64);

/// Cards and logs that still hold.
pub struct HeldLessons {
    cards: Cache<CardKey, WithCard>,
    logs: Cache<KitchenId, (Vec<CardKey>, Arc<KitchenLessons>)>,
}

impl Default for HeldLessons {
    fn default() -> Self {
        HeldLessons {
            cards: Cache::new(MOST_CARDS),
            logs: Cache::new(MOST_KITCHENS),
        }
    }
}

impl HeldLessons {
    /// Throws all away.
    pub fn clear(&self) {
        self.cards.invalidate_all();
        self.logs.invalidate_all();
    }
    fn with_card(&self, told: &BatchRecord) -> WithCard {
        let b = &told.batch;
        self.cards
            .get_with((b.id, b.plan, b.revision, b.places), || with_card(told))
    }
}

fn with_card(told: &BatchRecord) -> WithCard {
    let logged = logged(told)?;
    let card = card_of(&logged);
    Some(Arc::new((logged, card)))
}

/// The log of these batches, oldest first, once plans may go by it.
pub fn log_of(told: &[BatchRecord]) -> Option<OwnLog> {
    KitchenLessons::of(told, with_card).proven()
}

/// The log of this kitchen: its finished batches, and those under way of which something was seen.
pub async fn of_kitchen(app: &App, here: &RequestKitchen) -> Result<Arc<KitchenLessons>, AppError> {
    let mut told = load::finished(app, here, 0, LOOKED_AT).await?.told;
    told.extend(load::live(app, here).await?);
    told.retain(|t| {
        t.teaches()
            && (t.stood().is_some() || t.ready_said().is_some() || t.batch.finished_at.is_some())
    });
    told.sort_by_key(|t| t.batch.sheet.request.serve_at);
    let keys: Vec<CardKey> = told
        .iter()
        .map(|t| (t.batch.id, t.batch.plan, t.batch.revision, t.batch.places))
        .collect();
    if let Some((of, held)) = app.lessons.logs.get(&here.id())
        && of == keys
    {
        return Ok(held);
    }
    let fit = || KitchenLessons::of(&told, |t| app.lessons.with_card(t));
    let fitted = Arc::new(app.models.at_length(fit).await?);
    app.lessons.logs.insert(here.id(), (keys, fitted.clone()));
    Ok(fitted)
}

/// The pantry of a request with the log that plans go by: none while it is not proven, or where the kitchen goes by the book.
pub async fn larder(app: &App, here: &RequestKitchen) -> Result<Larder, AppError> {
    let larder = Larder::of(app, here).await?;
    if here.kitchen.uses_book {
        return Ok(larder);
    }
    Ok(match of_kitchen(app, here).await?.proven() {
        Some(log) => larder.planning_by(log),
        None => larder,
    })
}
