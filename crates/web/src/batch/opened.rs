//! What a maker says with one tap where the work is: how the dough stood, that it is ready, what was noticed. Never a form,
//! never asked twice: what was said stands there pressed, and what was measured is not asked.

use crate::batch::record::BatchRecord;
use crate::shared::format::hm;
use crate::shared::kitchen::RequestKitchen;
use craft::keyed::Keyed;
use craft::learn::{Notice, StoodAs};
use uuid::Uuid;

/// One of the five answers.
pub struct StateTap {
    pub key: &'static str,
    pub name: String,
    pub on: bool,
}

/// Something that may be noticed.
pub struct NoticeTap {
    pub key: &'static str,
    pub name: String,
    /// The entry that says so; pressed again, it is taken back.
    pub entry: Option<Uuid>,
}

/// The strip of Shape, Bake and the batch.
pub struct OpenedView {
    pub code: String,
    pub batch: u64,
    /// The page that it stands on.
    pub back: String,
    pub states: Vec<StateTap>,
    /// When it was opened, where that was said.
    pub stood_at: Option<String>,
    /// When it was ready, where that was said.
    pub ready_at: Option<String>,
    /// Whether it is still worth asking: not once it was opened or baked.
    pub ask_ready: bool,
    pub chips: Vec<NoticeTap>,
    /// Something was seen that may be explained.
    pub may_ask_why: bool,
}

impl OpenedView {
    /// The strip of a batch that is mixed; nothing before. Where nothing is baked yet, only the dough is asked about.
    pub fn of(told: &BatchRecord, here: &RequestKitchen, back: String) -> Option<OpenedView> {
        if !told.was_mixed() {
            return None;
        }
        let stood = told.stood();
        let ready = told.ready_said();
        let noticed: Vec<(Notice, Uuid)> = told.noticed().collect();
        let baked = !told.run.pizzas.is_empty();
        let chips = Notice::ALL
            .iter()
            .map(|n| {
                let entry = noticed.iter().find(|(k, _)| k == n).map(|(_, e)| *e);
                (n, entry)
            })
            .filter(|(n, entry)| baked || n.is_of_the_dough() || entry.is_some())
            .map(|(n, entry)| NoticeTap {
                key: n.key(),
                name: here.words(&n.name()),
                entry,
            })
            .collect();
        Some(OpenedView {
            code: told.batch.code.clone(),
            batch: told.batch.id.0,
            may_ask_why: !back.ends_with("/why") && (stood.is_some() || !noticed.is_empty()),
            back,
            states: StoodAs::ALL
                .iter()
                .map(|s| StateTap {
                    key: s.key(),
                    name: here.words(&s.name()),
                    on: stood.is_some_and(|(_, is)| is == *s),
                })
                .collect(),
            stood_at: stood.map(|(at, _)| hm(&here.local(at))),
            ready_at: ready.map(|at| hm(&here.local(at))),
            ask_ready: ready.is_none() && stood.is_none() && told.run.pizzas.is_empty(),
            chips,
        })
    }
    /// A key for a form.
    pub fn entry_key(&self) -> Uuid {
        Uuid::new_v4()
    }
}
