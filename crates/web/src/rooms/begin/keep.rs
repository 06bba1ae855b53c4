//! Keeping what was said: a person where there is none, a kitchen, a stocked pantry, and the first plan.

use super::Beginner;
use super::leaves::Leaf;
use super::said::{BeginSaid, wrong_on};
use super::wrong;
use crate::App;
use crate::access::arrive::{agent, welcome};
use crate::access::secret::hashed;
use crate::access::visit::{self, Visit};
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::tongue;
use crate::shared::tongue::shipped;
use crate::shared::tongue::{phrase, say};
use axum::http::HeaderMap;
use craft::begin::{first_plan, generic_flours, shelf_goods};
use craft::fire::{FireChoice, Oven};
use craft::formula::{Formula, PanShape};
use craft::keyed::Keyed;
use craft::mix::{Machine, Mixer};
use craft::pantry::{DoughBox, Good, Scale};
use craft::people::{Lasting, Role, check_name};
use craft::refusal::FieldError;
use craft::sheet::work_out;
use craft::units::{LengthUnit, TemperatureUnit, WeightUnit};
use jiff::Timestamp;
use jiff::tz::TimeZone;
use speech::Reader;
use store::batch::{self, KeptBatch, NewBatch, Origin};
use store::formula::{self, NewVersion};
use store::kitchen::{self, NewKitchen, Reads, Rhythm};
use store::pantry::{At, Facts, Put, put};
use store::people::PersonId;
use store::people::person;
use store::{Author, KitchenId, MySqlConnection, StoreError, Whom};
use tower_sessions::Session;
use uuid::Uuid;

/// The leaf on which something is wrong, and what.
pub type WrongLeaf = (Leaf, Vec<FieldError>);

/// What somebody is called who did not say.
const NAMELESS: &str = "Owner";

/// The kitchen as it will be kept.
pub fn new_kitchen(said: &BeginSaid) -> NewKitchen {
    let typed = said.typed.text("kitchen");
    let owner = said.typed.text("name");
    let name = match (typed, owner) {
        ("", "") => phrase("begin-my-kitchen").into(),
        ("", owner) => say!("begin-s-kitchen-2", owner = owner),
        (typed, _) => typed.chars().take(80).collect(),
    };
    NewKitchen {
        name,
        usual: said.beginning.usual(),
        reads: match said.us {
            true => Reads {
                temperature: TemperatureUnit::Fahrenheit,
                weight: WeightUnit::Ounces,
                length: LengthUnit::Inches,
                currency: "$".into(),
            },
            false => Reads::default(),
        },
        rhythm: Rhythm {
            life: said.beginning.life.clone().unwrap_or_default(),
            fridge_measured: matches!(
                said.beginning.fridge,
                Some(craft::begin::FridgeTold::Measured(_))
            ),
            ..Rhythm::default()
        },
        work: Default::default(),
    }
}

async fn shelf<F: Facts>(
    db: &mut MySqlConnection,
    k: KitchenId,
    facts: &F,
    now: Timestamp,
) -> store::Result<u64> {
    match put(db, k, At::New(Uuid::new_v4()), facts, now).await? {
        Put::Done(id) | Put::Other(id) => Ok(id),
        Put::Stale(_) => Err(StoreError::Unreadable(
            phrase("begin-a-new-item-was-there").into(),
        )),
    }
}

/// What a kitchen has on its shelves to begin with; the number of its oven.
async fn stock(
    db: &mut MySqlConnection,
    k: KitchenId,
    said: &BeginSaid,
    oven: &Oven,
    now: Timestamp,
) -> store::Result<u64> {
    let zone = TimeZone::UTC;
    let reader = Reader::plain(said.measures(), &zone);
    for f in generic_flours(|name| reader.say(name)) {
        shelf(db, k, &f, now).await?;
    }
    for g in shelf_goods() {
        let good = Good {
            name: reader.say(&g),
            price_per_kg: None,
            left_g: 0.0,
            allergens: String::new(),
        };
        shelf(db, k, &good, now).await?;
    }
    let b = &said.beginning;
    if b.mixer() != Mixer::Hand {
        shelf(db, k, &Machine::usual(b.mixer()), now).await?;
    }
    let scales = b.usual().scales;
    if b.scales != Some(craft::begin::ScalesTold::None) {
        let kitchen = Scale {
            name: phrase("begin-kitchen-scale").into(),
            reads_g: scales.kitchen_scale_g,
            carries_g: 5000.0,
        };
        shelf(db, k, &kitchen, now).await?;
    }
    if let Some(reads_g) = scales.fine_scale_g {
        let fine = Scale {
            name: phrase("begin-fine-scale").into(),
            reads_g,
            carries_g: 200.0,
        };
        shelf(db, k, &fine, now).await?;
    }
    if let Some(boxes) = b.boxes {
        let (name, length_cm, width_cm, count) = match boxes {
            true => (phrase("batch-dough-box"), 60.0, 40.0, 2),
            false => (phrase("begin-tub"), 20.0, 15.0, 4),
        };
        let holder = DoughBox {
            name: name.into(),
            pan: PanShape::Rectangle {
                length_cm,
                width_cm,
            },
            height_cm: 7.0,
            count,
        };
        shelf(db, k, &holder, now).await?;
    }
    shelf(db, k, oven, now).await
}

/// Whoever begins: made where there was nobody; the name may be another's by now.
async fn owner(
    db: &mut MySqlConnection,
    who: &Beginner,
    (name, hash): (&str, Option<&str>),
    now: Timestamp,
) -> store::Result<Option<PersonId>> {
    if let Beginner::Known(a) = who {
        return Ok(a.person);
    }
    let Some(id) = person::add(db, name, hash, tongue::language().key(), now).await? else {
        return Ok(None);
    };
    person::be_at_home(db, id).await?;
    Ok(Some(id))
}

/// Keeps all of it, or nothing; where to go from there.
pub async fn kept(
    app: &App,
    who: &Beginner,
    typed: &FormData,
    (session, headers): (&Session, &HeaderMap),
) -> Result<Result<String, WrongLeaf>, AppError> {
    let now = Timestamp::now();
    let first = matches!(who, Beginner::First);
    let needs_password = app.signs_in && first;
    for leaf in [Leaf::You, Leaf::BakesIn, Leaf::Has] {
        let errors = wrong_on(typed, leaf, needs_password);
        if !errors.is_empty() {
            return Ok(Err((leaf, errors)));
        }
    }
    let said = BeginSaid::read(typed);
    let work = || first_plan(&said.beginning, said.oven_name(), now);
    let plan = match app.models.at_length(work).await? {
        Ok(plan) => plan,
        Err(e) => return Ok(Err((Leaf::BakesIn, e.0))),
    };
    let name = check_name(typed.text("name")).unwrap_or_else(|_| NAMELESS.into());
    let hash = match needs_password {
        true => Some(hashed(typed.raw("password").into()).await?),
        false => None,
    };
    let mut tx = app.db.begin().await?;
    let db: &mut MySqlConnection = &mut tx;
    let Some(person) = owner(db, who, (&name, hash.as_deref()), now).await? else {
        let taken = wrong("name", phrase("begin-somebody-is-called-so-already"));
        return Ok(Err((Leaf::You, vec![taken])));
    };
    let k = kitchen::add(db, &new_kitchen(&said), now).await?;
    person::join(db, k, person, Role::Owner, now).await?;
    person::go_into(db, person, k).await?;
    let whom = Whom {
        person: Some(person),
        name: match who {
            Beginner::First => name,
            Beginner::Known(a) => a.whom.name.clone(),
        },
    };
    let author = Author::of(k, &whom);
    let oven_id = stock(db, k, &said, &plan.oven, now).await?;
    // What is liked stands in the library, each as its style has it.
    for key in &said.beginning.likes {
        let Some(style) = craft::style::by_key(key) else {
            continue;
        };
        let formula = Formula::of_style(style);
        let new = NewVersion {
            form_key: Uuid::new_v4(),
            name: &shipped(&style.name),
            why: "",
            formula: &formula,
            of: None,
            origin: Origin::Maker,
        };
        formula::keep(db, author, &new, now).await?;
    }
    let mut to = "/".to_string();
    if typed.text("start") == "yes" {
        let mut request = plan.request.clone();
        if let Some(fire) = request.fire.as_deref_mut() {
            *fire = FireChoice {
                oven_id: Some(oven_id),
                ..fire.clone()
            };
        }
        let result = work_out(&request).map_err(|e| AppError::Asked(e.to_string()))?;
        let new = NewBatch {
            form_key: Uuid::new_v4(),
            name: &shipped(&plan.style.name),
            request: &request,
            result: &result,
            origin: Origin::Maker,
            from: None,
        };
        let (KeptBatch::Done(code) | KeptBatch::Other(code)) =
            batch::keep(db, author, &new, now).await?;
        to = format!("/batches/{code}");
    }
    tx.commit().await.map_err(StoreError::from)?;
    app.askers.forget();
    if needs_password {
        let visit = Visit::of_person(person, Some(k), agent(headers), now);
        welcome(app, session, visit, Lasting::IdleSession).await?;
    } else if app.signs_in {
        visit::go_into(session, k).await?;
    }
    Ok(Ok(to))
}
