//! Taps at the oven on their way in: which pizza one is about, whether it makes sense, and what other screens hear of it.

use crate::App;
use crate::batch::entries::{self, Sent};
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::say;
use craft::fire::run::TapRefused;
use craft::fire::{Run, Tap, TapKind};
use jiff::{SignedDuration, Timestamp};
use store::entry::{EntryOutcome, SaidEntry, Standing};

/// No bake takes longer, ms.
const LONGEST_BAKE_MS: i64 = 86_400_000;

/// A tap as it arrived.
#[derive(Debug, Clone, Copy)]
pub struct Tapped {
    pub kind: TapKind,
    /// The pizza that it is about, from 1; without a number it is the one that is next, in the oven, or last out.
    pub pizza: Option<u32>,
    /// Of an In that comes late: so long after it the pizza was out, ms.
    pub baked_ms: Option<i64>,
}

impl Tapped {
    /// The pizza that is meant, in the run as it stands.
    fn number(&self, run: &Run) -> u32 {
        match (self.pizza, self.kind) {
            (Some(n), _) => n,
            (None, TapKind::In) => run.next_number(),
            (None, TapKind::Verdict(_)) => run.last_out().map_or(0, |p| p.number),
            (None, _) => run.current().map_or(0, |p| p.number),
        }
    }
}

/// Keeps a tap, and says which pizza it is about. The same key is kept once; one that makes no sense is refused.
pub async fn keep(
    app: &App,
    here: &RequestKitchen,
    told: &BatchRecord,
    sent: &Sent,
    tapped: &Tapped,
) -> Result<(u32, EntryOutcome), AppError> {
    let pizza = tapped.number(&told.run);
    let (at, kind) = (sent.at, tapped.kind);
    let tap = Tap { pizza, at, kind };
    let spots = told.spots();
    let own_out = tapped
        .baked_ms
        .filter(|ms| (0..LONGEST_BAKE_MS).contains(ms))
        .and_then(|ms| tap.at.checked_add(SignedDuration::from_millis(ms)).ok());
    let admits = |s: &Standing| {
        if s.cancelled {
            return entries::open(s);
        }
        // A bake that was over before another device put in its pizza of that number is a pizza of its own.
        let kept = Run::of(&s.taps);
        if let (TapKind::In, Some(out), Some(p)) = (tap.kind, own_out, kept.pizza(tap.pizza))
            && out <= p.in_at
        {
            return Err(TapRefused::WentIn(p.number).fact());
        }
        Run::admits(&s.taps, &tap, spots, s.finished).map_err(|e| e.fact())
    };
    let kept = match entries::keep(app, here, told, sent, tap, &admits).await? {
        // What says no number means, sent twice, the pizza that it meant the first time.
        EntryOutcome::Other(o) if tapped.pizza.is_none() && o.is_tap(tap.kind) => {
            let first = match o.said {
                SaidEntry::Tapped { pizza, .. } => pizza,
                SaidEntry::Seen(_) => pizza,
            };
            return Ok((first, EntryOutcome::Before));
        }
        kept => kept,
    };
    // Two devices put in one pizza: the earlier In stands, and every screen says so.
    let twice = tap.kind == TapKind::In && told.run.pizza(tap.pizza).is_some();
    if twice && matches!(kept, EntryOutcome::New | EntryOutcome::Refused(_)) {
        app.runs.say(told.batch.id, said_twice(told, &tap, here));
    }
    Ok((pizza, kept))
}

/// What every screen says when a second In came for a pizza.
fn said_twice(told: &BatchRecord, tap: &Tap, here: &RequestKitchen) -> Option<String> {
    let p = told.run.pizza(tap.pizza)?;
    let clock = |t: Timestamp| here.local(t).strftime("%H:%M:%S").to_string();
    Some(say!(
        "bake-two-devices-put-in-pizza",
        number = p.number,
        at = clock(p.in_at.min(tap.at)),
        at2 = clock(p.in_at.max(tap.at))
    ))
}
