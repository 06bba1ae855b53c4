//! The pantry of Larchfold Halt: mills, marks and prices are invented.

use super::DemoWriter;
use anyhow::Result;
use craft::fire::Material;
use craft::flour::{FlourFacts, FlourKind};
use craft::formula::PanShape;
use craft::pantry::{Bag, DoughBox, Flour, Good, Leaven, LeavenForm, Pan, Scale};
use craft::path::Place;
use craft::rise::Air;
use jiff::ToSpan;
use store::pantry::{At, Facts, put};
use uuid::Uuid;

struct Bags {
    name: &'static str,
    kind: FlourKind,
    w: Option<f64>,
    protein: f64,
    absorption: f64,
    milling: &'static str,
    price: f64,
    /// Days until best before, and what is left, g.
    bags: &'static [(i64, f64)],
}

const FLOURS: [Bags; 6] = [
    Bags {
        name: "Quernside No. 4",
        kind: FlourKind::SoftFine,
        w: Some(290.0),
        protein: 12.4,
        absorption: 56.5,
        milling: "roller",
        price: 1.35,
        bags: &[(190, 25_000.0), (61, 7_400.0)],
    },
    Bags {
        name: "Alder Ford strong",
        kind: FlourKind::SoftFine,
        w: Some(370.0),
        protein: 14.2,
        absorption: 59.0,
        milling: "roller",
        price: 1.62,
        bags: &[(150, 11_200.0)],
    },
    Bags {
        name: "Quernside soft",
        kind: FlourKind::SoftFine,
        w: Some(200.0),
        protein: 10.6,
        absorption: 53.5,
        milling: "roller",
        price: 1.10,
        bags: &[(210, 4_800.0)],
    },
    Bags {
        name: "Cold Ash spelt, whole",
        kind: FlourKind::Spelt,
        w: Some(170.0),
        protein: 13.6,
        absorption: 64.0,
        milling: "stone",
        price: 2.90,
        bags: &[(18, 2_300.0)],
    },
    Bags {
        name: "Tarnbank bread flour",
        kind: FlourKind::HardBread,
        w: None,
        protein: 13.1,
        absorption: 62.0,
        milling: "roller",
        price: 1.20,
        bags: &[(120, 640.0)],
    },
    Bags {
        name: "Vital gluten",
        kind: FlourKind::Gluten,
        w: None,
        protein: 76.0,
        absorption: 150.0,
        milling: "",
        price: 6.40,
        bags: &[(400, 480.0)],
    },
];

/// Name, price per kg, left in g, allergens.
const GOODS: [(&str, f64, f64, &str); 10] = [
    ("Salt", 0.55, 3_100.0, ""),
    ("Olive oil", 9.80, 4_200.0, ""),
    ("Sugar", 1.10, 900.0, ""),
    ("Malt, active", 7.50, 260.0, "gluten"),
    ("Tomato sauce", 2.30, 6_000.0, ""),
    ("Fresh mozzarella, drained", 8.90, 2_500.0, "milk"),
    ("Aged mozzarella", 7.80, 1_900.0, "milk"),
    ("Hard cheese", 18.50, 700.0, "milk"),
    ("Basil", 24.00, 120.0, ""),
    ("Fennel sausage, raw", 11.20, 1_200.0, "mustard"),
];

/// Name, air, °C on average, its day, and how far off that may be.
const PLACES: [(&str, Air, f64, &str, f64); 4] = [
    ("Buffet shelf", Air::Room, 21.5, "05:00 20, 15:00 23", 1.0),
    ("Lamp room", Air::Room, 14.2, "06:00 12.5, 16:00 16", 1.5),
    ("Signal box", Air::Room, 26.0, "", 2.0),
    ("Milk cellar, fan", Air::Fan, 4.0, "", 0.5),
];

pub(super) async fn write(w: &mut DemoWriter<'_>) -> Result<()> {
    let today = w
        .now
        .to_zoned(jiff::tz::TimeZone::get(&w.here.usual.time_zone)?)
        .date();
    for f in &FLOURS {
        let flour = Flour {
            name: f.name.into(),
            facts: FlourFacts {
                kind: f.kind,
                w: f.w,
                protein_percent: Some(f.protein),
                absorption_percent: Some(f.absorption),
                pl: f.w.map(|w| if w > 330.0 { 0.7 } else { 0.55 }),
                whole_percent: (f.kind == FlourKind::Spelt).then_some(100.0),
            },
            milling: f.milling.into(),
            moisture_percent: Some(14.2),
            allergens: "gluten".into(),
            price_per_kg: Some(f.price),
            pressed: vec![],
            generic: false,
            bags: f
                .bags
                .iter()
                .map(|&(days, left_g)| Bag {
                    bought_on: today.checked_sub(25.days()).ok(),
                    best_before: today.checked_add(days.days()).ok(),
                    left_g,
                })
                .collect(),
        };
        keep(w, &flour).await?;
    }
    for (name, price, left_g, allergens) in GOODS {
        let good = Good {
            name: name.into(),
            price_per_kg: Some(price),
            left_g,
            allergens: allergens.into(),
        };
        keep(w, &good).await?;
    }
    for (name, air, c, day, off_k) in PLACES {
        let place = Place {
            name: name.into(),
            air,
            c,
            profile_c: craft::path::day::profile(day).ok(),
            off_k: Some(off_k),
            holds_h: None,
        };
        keep(w, &place).await?;
    }
    let opened = |days: i64| today.checked_sub(days.days()).ok();
    keep(
        w,
        &Leaven {
            name: "Instant yeast, tin".into(),
            form: LeavenForm::Instant,
            hydration_percent: None,
            opened_on: opened(40),
            vigour: 1.0,
            left_g: 310.0,
            price_per_kg: Some(14.0),
        },
    )
    .await?;
    keep(
        w,
        &Leaven {
            name: "Signal box starter".into(),
            form: LeavenForm::Starter,
            hydration_percent: Some(100.0),
            opened_on: opened(410),
            vigour: 0.9,
            left_g: 180.0,
            price_per_kg: None,
        },
    )
    .await?;
    keep(
        w,
        &Scale {
            name: "Bench scale".into(),
            reads_g: 1.0,
            carries_g: 10_000.0,
        },
    )
    .await?;
    keep(
        w,
        &Scale {
            name: "Pocket scale".into(),
            reads_g: 0.1,
            carries_g: 500.0,
        },
    )
    .await?;
    keep(w, &super::mixing::spiral()).await?;
    keep(w, &super::mixing::own_way()).await?;
    for (_, name, _) in super::OVENS {
        keep(w, &super::house_oven(name)?).await?;
    }
    let tray = |length_cm, width_cm| PanShape::Rectangle {
        length_cm,
        width_cm,
    };
    keep(
        w,
        &Pan {
            name: "Blue steel tray".into(),
            pan: tray(40.0, 30.0),
            height_cm: 2.5,
            count: 4,
            material: Material::CarbonSteel,
            thick_mm: 1.0,
            oiled: true,
        },
    )
    .await?;
    keep(
        w,
        &Pan {
            name: "Iron skillet".into(),
            pan: PanShape::Round { diameter_cm: 26.0 },
            height_cm: 5.0,
            count: 2,
            material: Material::CastIron,
            thick_mm: 4.5,
            oiled: true,
        },
    )
    .await?;
    keep(
        w,
        &DoughBox {
            name: "Dough box".into(),
            pan: tray(60.0, 40.0),
            height_cm: 7.0,
            count: 6,
        },
    )
    .await?;
    keep(
        w,
        &DoughBox {
            name: "Bulk tub".into(),
            pan: PanShape::Round { diameter_cm: 36.0 },
            height_cm: 24.0,
            count: 2,
        },
    )
    .await
}

async fn keep<F: Facts>(w: &mut DemoWriter<'_>, facts: &F) -> Result<()> {
    put(w.db, w.here.id, At::New(Uuid::new_v4()), facts, w.now).await?;
    Ok(())
}
