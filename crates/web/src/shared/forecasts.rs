//! Forecasts from now on that were made a moment ago: pages that show many batches ask for the same ones again and again.

use crate::App;
use crate::rooms::rise::forecast;
use crate::shared::kitchen::Here;
use crate::shared::larder::Larder;
use crate::shared::progress::Told;
use std::collections::HashMap;
use std::sync::{Arc, Mutex};
use store::batch::{BatchId, Sheet};

/// So long a forecast is believed while nothing is entered, s.
const FRESH_S: i64 = 120;
/// So many are held at most.
const MOST: usize = 256;

/// A batch, its plan, the revisions of batch and kitchen, what was said of places, and when it was asked, to the two minutes.
type Key = (BatchId, u32, u64, u64, (usize, u64), i64);

#[derive(Debug, Default)]
pub struct Forecasts(Mutex<HashMap<Key, Arc<Sheet>>>);

impl Forecasts {
    /// Throws all away.
    pub fn clear(&self) {
        self.0.lock().unwrap_or_else(|e| e.into_inner()).clear();
    }
}

impl Told {
    /// The batch with the forecast from now on in its sheet.
    pub fn as_it_goes(mut self, app: &App, here: &Here) -> Told {
        let b = &self.batch;
        let last = self.places.iter().map(|o| o.id).max().unwrap_or(0);
        let slot = here.now.as_second().div_euclid(FRESH_S);
        let key = (
            b.id,
            b.plan,
            b.revision,
            here.kitchen.revision,
            (self.places.len(), last),
            slot,
        );
        let held = |f: &Forecasts| {
            f.0.lock()
                .unwrap_or_else(|e| e.into_inner())
                .get(&key)
                .cloned()
        };
        let sheet = match held(&app.forecasts) {
            Some(sheet) => sheet,
            None => {
                let sheet = Arc::new(Sheet {
                    request: self.batch.sheet.request.clone(),
                    result: forecast(&self, here, &Larder::default()),
                });
                let mut all = app.forecasts.0.lock().unwrap_or_else(|e| e.into_inner());
                if all.len() >= MOST {
                    all.clear();
                }
                all.insert(key, sheet.clone());
                sheet
            }
        };
        self.batch.sheet = sheet;
        self
    }
}
