//! What the kitchen's pantry holds, as the sheet uses it.

use crate::App;
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::own::OwnLog;
use crate::shared::tongue::plain;
use craft::begin::BakesIn;
use craft::fire::{Oven, PanNow, oven};
use craft::flour::FlourPart;
use craft::formula::{Formula, PanShape, Scales};
use craft::keyed::Keyed;
use craft::learn::OwnKitchen;
use craft::mix::{Machine, MixProgramme, Mixer, programmes};
use craft::pantry::{Flour, InStock, Need, Price, scales_of};
use craft::path::{Method, Place, methods};
use craft::sheet::SheetRequest;
use craft::style::Style;
use std::collections::HashMap;
use store::pantry::{Everything, PantryItem, everything};
use store::stock;

/// The pantry of a request.
#[derive(Debug, Clone, Default)]
pub struct Larder(pub Everything, HashMap<u64, InStock>, Option<OwnLog>);

/// What a kitchen weighs on and mixes in.
#[derive(Debug, Clone, Default)]
pub struct KitchenTools {
    pub scales: Scales,
    pub machines: Vec<Machine>,
    /// The log that plans go by.
    pub log: Option<OwnLog>,
}

impl From<Everything> for Larder {
    fn from(all: Everything) -> Larder {
        Larder(all, HashMap::new(), None)
    }
}

impl Larder {
    pub async fn of(app: &App, here: &RequestKitchen) -> Result<Larder, AppError> {
        let mut db = app.db.acquire().await?;
        let all = everything(&mut db, here.id()).await?;
        Ok(Larder(
            all,
            stock::standing(&mut db, here.id()).await?,
            None,
        ))
    }
    /// The same, where plans go by the kitchen's log.
    pub fn planning_by(self, log: OwnLog) -> Larder {
        Larder(self.0, self.1, Some(log))
    }
    /// What is known of this kitchen for a plan; `None` where it goes by the book.
    pub fn own_for(&self, r: &SheetRequest, here: &RequestKitchen) -> Option<OwnKitchen> {
        self.2.as_ref()?.own(r, here)
    }
    /// What was taken of an item since it was counted, and what plans keep of it.
    pub fn in_stock(&self, id: u64) -> InStock {
        self.1.get(&id).copied().unwrap_or_default()
    }
    /// The scales that weigh: those of the pantry, else the kitchen's usual ones.
    pub fn scales(&self, here: &RequestKitchen) -> Scales {
        let list: Vec<_> = self.0.scales.iter().map(|s| s.facts.clone()).collect();
        scales_of(&list, here.kitchen.usual.scales)
    }
    /// What is weighed on, and what is mixed in.
    pub fn tools(&self, here: &RequestKitchen) -> KitchenTools {
        KitchenTools {
            scales: self.scales(here),
            machines: self.0.machines.iter().map(|m| m.facts.clone()).collect(),
            log: self.2.clone(),
        }
    }
    /// The kitchen's own mixer of a kind, with its number.
    pub fn machine(&self, kind: Mixer) -> Option<(Machine, u64)> {
        let own = self.0.machines.iter().find(|m| m.facts.kind == kind)?;
        Some((own.facts.clone(), own.id))
    }
    /// The kitchen's own flour that makes most of a dough.
    pub fn main_flour(&self, formula: &Formula) -> Option<&PantryItem<Flour>> {
        let most = |a: &&FlourPart, b: &&FlourPart| a.share_percent.total_cmp(&b.share_percent);
        let id = formula.flours.iter().max_by(most)?.pantry?;
        self.0.flours.iter().find(|f| f.id == id)
    }
    /// The programmes of mixing: the kitchen's own, then those that ship.
    pub fn programmes(&self) -> Vec<MixProgramme> {
        let own = self.0.programmes.iter().map(|p| p.facts.programme());
        own.chain(programmes().iter().cloned()).collect()
    }
    /// The vigour of the kitchen's own yeast and starter, put into a form that begins.
    pub fn enliven(&self, typed: &mut FormData) {
        let of = |form: &str| {
            self.0
                .leavens
                .iter()
                .find(|l| l.facts.form.key() == form)
                .map(|l| l.facts.vigour)
        };
        if let Some(v) = of(typed.text("yeast.form")) {
            typed.set("yeast_vigour", plain(v));
        }
        if let Some(v) = of("starter") {
            typed.set("leaven_vigour", plain(v));
        }
    }
    /// The kitchen's places, besides its room and its fridge.
    pub fn places(&self) -> Vec<Place> {
        self.0.places.iter().map(|p| p.facts.clone()).collect()
    }
    /// The methods: those that ship, then the kitchen's own.
    pub fn methods(&self) -> Vec<Method> {
        let own = self.0.methods.iter().map(|m| m.facts.clone());
        methods::all().iter().cloned().chain(own).collect()
    }
    /// The ovens: the kitchen's own, then those that ship; each by the name that a form knows it by.
    pub fn ovens(&self) -> Vec<(String, Option<u64>, Oven)> {
        let own = self
            .0
            .ovens
            .iter()
            .map(|o| (format!("own:{}", o.id), Some(o.id), o.facts.clone()));
        let shipped = oven::all()
            .iter()
            .map(|o| (format!("shipped:{}", o.key), None, o.clone()));
        own.chain(shipped).collect()
    }
    /// The oven that a style is baked in here: an own one of the kind that it wants, else a shipped one.
    pub fn oven_for(&self, style: &Style) -> (String, Option<u64>, Oven) {
        let usual = oven::for_style(style);
        let all = self.ovens();
        all.iter()
            .find(|(_, id, o)| id.is_some() && o.kind == usual.kind)
            .or_else(|| all.iter().find(|(_, _, o)| o.key == usual.key))
            .cloned()
            .unwrap_or_else(|| (format!("shipped:{}", usual.key), None, usual.clone()))
    }
    /// How a pan of this shape goes into the oven, where the kitchen has one.
    pub fn pan(&self, shape: Option<PanShape>, room_c: f64) -> Option<PanNow> {
        let shape = shape?;
        let own = self.0.pans.iter().find(|p| p.facts.pan == shape)?;
        Some(own.facts.now(room_c))
    }
    pub fn prices(&self) -> Vec<Price> {
        let flours = self.0.flours.iter().filter_map(|f| {
            Some(Price {
                name: f.facts.name.clone(),
                pantry: Some(f.id),
                per_kg: f.facts.price_per_kg?,
            })
        });
        let leavens = self.0.leavens.iter().filter_map(|l| {
            Some((
                &l.facts.name,
                l.facts.form.shelf_name(),
                l.facts.price_per_kg?,
            ))
        });
        let by_name = |name: &str, per_kg: f64| Price {
            name: name.into(),
            pantry: None,
            per_kg,
        };
        let goods = self
            .0
            .goods
            .iter()
            .filter_map(|g| Some(by_name(&g.facts.name, g.facts.price_per_kg?)));
        // A sheet asks for "Instant yeast": a leaven answers to its form as well as to its name.
        let leavens: Vec<Price> = leavens
            .flat_map(|(name, form, p)| [by_name(name, p), by_name(form, p)])
            .collect();
        flours.chain(goods).chain(leavens).collect()
    }
    /// What is there that no plan has asked for, of what a batch needs.
    pub fn free(&self, need: &Need) -> f64 {
        self.0
            .kept()
            .iter()
            .filter(|k| k.answers(need))
            .map(|k| self.in_stock(k.id).free_g(k.counted_g))
            .sum()
    }
    /// What a dough that nobody says more of is taken for: what is usually baked in the kitchen's own ovens.
    pub fn usual_style(&self) -> &'static Style {
        let of = |kind| BakesIn::of_kind(kind).usual_style();
        let mut usual = self.0.ovens.iter().map(|o| of(o.facts.kind));
        let first = craft::style::first();
        match usual.clone().any(|s| s.key == first.key) {
            true => first,
            false => usual.next().unwrap_or(first),
        }
    }
    /// A style by its key: shipped, or the kitchen's own.
    pub fn style(&self, key: &str) -> Option<Style> {
        let own = self.0.styles.iter().find(|s| s.facts.key == key);
        own.map(|s| s.facts.clone())
            .or_else(|| craft::style::by_key(key).cloned())
    }
}
