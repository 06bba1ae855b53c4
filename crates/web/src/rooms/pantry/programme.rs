//! Programmes of mixing of the kitchen's own: their steps, what goes in at each, and what ends it.

use super::shelf::{Entry, Shelf, choice, figure, text};
use crate::App;
use crate::shared::error::AppError;
use crate::shared::fields::may;
use crate::shared::form::{FieldReader, FormData};
use crate::shared::format::by_name;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{phrase, plain};
use axum::body::Bytes;
use axum::extract::State;
use axum::response::Redirect;
use craft::keyed::Keyed;
use craft::mix::{MixShares, Mixer, OwnProgramme, OwnStep, StepWork, programmes};
use craft::refusal::ValidationError;
use store::pantry::{At, Put};

/// What goes in at a step: the field, and how it is called.
const SHARES: [(&str, &str); 5] = [
    ("flour", "pantry-flour-2"),
    ("water", "mix-water"),
    ("salt", "figures-salt"),
    ("yeast", "rise-yeast"),
    ("preferment", "mix-preferment"),
];

impl Shelf for OwnProgramme {
    const PATH: &'static str = "/pantry/programmes";
    const TITLE: &'static str = "pantry-way-of-mixing";
    const WHY: &'static str = "pantry-its-steps-in-their-order";
    const ROWS: &'static str = "steps";
    const ROWS_SAID: [&'static str; 3] = ["batch-steps", "pantry-step", "pantry-no-step-yet"];
    const IN_ORDER: bool = true;

    fn entries(_: &RequestKitchen) -> Vec<Entry> {
        vec![
            text("name", phrase("bench-name"), ""),
            choice("kind", phrase("pantry-mixed-in"), by_name(Mixer::name)),
        ]
    }
    fn row_entries(_: &RequestKitchen) -> Vec<Entry> {
        let mut all = vec![
            choice("work", phrase("pantry-work"), by_name(StepWork::name)),
            figure("minutes", phrase("pantry-time"), "", "min"),
        ];
        all.extend(SHARES.map(|(field, label)| figure(field, phrase(label), "", "%")));
        all.push(text("say", phrase("pantry-do"), ""));
        all.push(text("until", phrase("pantry-until"), ""));
        all
    }
    fn row_names() -> &'static [&'static str] {
        &[
            "work",
            "minutes",
            "flour",
            "water",
            "salt",
            "yeast",
            "preferment",
            "say",
            "until",
        ]
    }
    fn fresh() -> OwnProgramme {
        let key = format!("own-{}", uuid::Uuid::new_v4().simple());
        OwnProgramme {
            name: String::new(),
            ..OwnProgramme::copy_of(&programmes()[0], key, |_| String::new())
        }
    }
    fn write(&self, t: &mut FormData, _: &RequestKitchen) {
        t.set("name", &self.name);
        t.set("kind", self.kind.key());
        for (i, s) in self.steps.iter().enumerate() {
            let a = s.add;
            let mut put = |field: &str, value: &str| t.set(&format!("steps[{i}].{field}"), value);
            put("work", s.work.key());
            put("minutes", &plain(s.minutes));
            for ((field, _), share) in
                SHARES
                    .iter()
                    .zip([a.flour, a.water, a.salt, a.leaven, a.preferment])
            {
                // Hundredths of a percent: what a maker typed comes back as it was.
                let percent = (1e4 * share).round() / 100.0;
                put(
                    field,
                    &if share > 0.0 {
                        plain(percent)
                    } else {
                        String::new()
                    },
                );
            }
            put("say", &s.say);
            put("until", &s.until);
        }
    }
    fn read(
        r: &mut FieldReader,
        _: &RequestKitchen,
        before: Option<&OwnProgramme>,
    ) -> OwnProgramme {
        let rows = r.typed.rows(OwnProgramme::ROWS);
        let step = |r: &mut FieldReader, i: usize| {
            let at = |field: &str| format!("steps[{i}].{field}");
            let mut share = |n: usize| {
                let (field, label) = SHARES[n];
                may(r, &at(field), phrase(label)).unwrap_or(0.0) / 100.0
            };
            let add = MixShares {
                flour: share(0),
                water: share(1),
                salt: share(2),
                leaven: share(3),
                preferment: share(4),
            };
            OwnStep {
                work: StepWork::from_key(r.typed.text(&at("work"))).unwrap_or(StepWork::Rest),
                minutes: r.number(&at("minutes"), phrase("pantry-minutes")),
                add,
                say: r.typed.text(&at("say")).into(),
                until: r.typed.text(&at("until")).into(),
            }
        };
        OwnProgramme {
            name: r.name("name", phrase("form-a-name")),
            key: before.map_or_else(|| OwnProgramme::fresh().key, |b| b.key.clone()),
            kind: Mixer::from_key(r.typed.text("kind")).unwrap_or(Mixer::Hand),
            steps: (0..rows).map(|i| step(r, i)).collect(),
        }
    }
    fn checked(&self) -> Result<(), ValidationError> {
        self.check()
    }
}

/// One that is there as the kitchen's own, to be changed.
pub async fn copy(
    State(app): State<App>,
    here: RequestKitchen,
    body: Bytes,
) -> Result<Redirect, AppError> {
    let typed = FormData::parse(&body);
    let shipped = programmes()
        .iter()
        .find(|p| p.key == typed.text("programme"))
        .ok_or_else(|| AppError::Asked(phrase("pantry-there-is-no-such-programme").into()))?;
    let form = typed.key("form_key");
    // Of the form's key, so that what is sent twice is the same programme.
    let key = format!("own-{}", form.simple());
    let mut own = OwnProgramme::copy_of(shipped, key, |f| here.say(f));
    own.name += phrase("pantry-ours");
    let mut db = app.db.acquire().await?;
    match store::pantry::put(&mut db, here.id(), At::New(form), &own, here.now).await? {
        Put::Done(id) | Put::Other(id) => Ok(Redirect::to(&format!("/pantry/programmes/{id}"))),
        Put::Stale(_) => Ok(Redirect::to("/pantry#programme")),
    }
}
