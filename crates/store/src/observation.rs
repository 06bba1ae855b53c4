//! Observations: steps done and left out, temperatures read, tubs marked, remarks. They are only ever added.

use crate::batch::{BatchId, entered};
use crate::{KitchenId, Result, StoreError, instant, is_duplicate};
use craft::reading::Subject;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use sqlx::{Connection, MySqlConnection};
use uuid::Uuid;

/// What was seen.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Seen {
    StepDone {
        step_position: u16,
    },
    StepUndone {
        step_position: u16,
    },
    /// It was left out.
    StepSkipped {
        step_position: u16,
    },
    Reading {
        subject: Subject,
        celsius: f64,
    },
    /// The dough in a marked tub stands at so many times its first volume.
    Grown {
        times: f64,
    },
    Remark {
        remark: String,
    },
    /// The caution of the fire was read and acknowledged.
    Cautioned,
}

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Observation {
    #[serde(skip)]
    pub id: u64,
    pub at: Timestamp,
    #[serde(flatten)]
    pub seen: Seen,
}

struct Row {
    id: u64,
    kind: String,
    step_position: Option<u16>,
    subject: Option<String>,
    celsius: Option<f64>,
    times: Option<f64>,
    remark: Option<String>,
    at: chrono::NaiveDateTime,
}

impl Row {
    fn read(self) -> Result<Observation> {
        let id = self.id;
        let lacks = || StoreError::Unreadable(format!("observation {id}"));
        let seen = match self.kind.as_str() {
            "step_done" => Seen::StepDone {
                step_position: self.step_position.ok_or_else(lacks)?,
            },
            "step_undone" => Seen::StepUndone {
                step_position: self.step_position.ok_or_else(lacks)?,
            },
            "step_skipped" => Seen::StepSkipped {
                step_position: self.step_position.ok_or_else(lacks)?,
            },
            "grown" => Seen::Grown {
                times: self.times.ok_or_else(lacks)?,
            },
            "reading" => Seen::Reading {
                subject: self
                    .subject
                    .as_deref()
                    .and_then(Subject::from_key)
                    .ok_or_else(lacks)?,
                celsius: self.celsius.ok_or_else(lacks)?,
            },
            "remark" => Seen::Remark {
                remark: self.remark.ok_or_else(lacks)?,
            },
            "cautioned" => Seen::Cautioned,
            _ => return Err(lacks()),
        };
        Ok(Observation {
            id,
            at: instant::from_row(self.at),
            seen,
        })
    }
}

/// Adds what was seen; the same entry key is written once however often it is sent.
/// `by_demo` leaves the batch the demo's.
pub async fn add(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
    entry_key: Uuid,
    o: &Observation,
    now: Timestamp,
    by_demo: bool,
) -> Result<()> {
    let (mut position, mut subject, mut celsius, mut times, mut remark) =
        (None, None, None, None, None);
    let kind = match &o.seen {
        Seen::StepDone { step_position } => {
            position = Some(*step_position);
            "step_done"
        }
        Seen::StepUndone { step_position } => {
            position = Some(*step_position);
            "step_undone"
        }
        Seen::StepSkipped { step_position } => {
            position = Some(*step_position);
            "step_skipped"
        }
        Seen::Reading {
            subject: of,
            celsius: c,
        } => {
            (subject, celsius) = (Some(of.key()), Some(*c));
            "reading"
        }
        Seen::Grown { times: t } => {
            times = Some(*t);
            "grown"
        }
        Seen::Remark { remark: text } => {
            remark = Some(text.as_str());
            "remark"
        }
        Seen::Cautioned => "cautioned",
    };
    let mut tx = db.begin().await?;
    let done = sqlx::query!(
        "INSERT INTO observation (kitchen_id, batch_id, entry_key, kind, step_position, subject, celsius, times, remark, at,
                                  recorded_at)
         SELECT kitchen_id, id, ?, ?, ?, ?, ?, ?, ?, ?, ? FROM batch WHERE kitchen_id = ? AND id = ?",
        entry_key.to_string(),
        kind,
        position,
        subject,
        celsius,
        times,
        remark,
        instant::to_row(o.at),
        instant::to_row(now),
        kitchen.0,
        batch.0
    )
    .execute(&mut *tx)
    .await;
    match done {
        Ok(_) => {}
        Err(e) if is_duplicate(&e) => return Ok(()),
        Err(e) => return Err(e.into()),
    }
    entered(&mut tx, kitchen, batch, by_demo).await?;
    Ok(tx.commit().await?)
}

/// All that was seen of a batch, in the order of the clock.
pub async fn of_batch(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
) -> Result<Vec<Observation>> {
    let rows = sqlx::query_as!(
        Row,
        "SELECT id, kind, step_position, subject, celsius, times, remark, at
         FROM observation WHERE kitchen_id = ? AND batch_id = ? ORDER BY at, id",
        kitchen.0,
        batch.0
    )
    .fetch_all(db)
    .await?;
    rows.into_iter().map(Row::read).collect()
}
