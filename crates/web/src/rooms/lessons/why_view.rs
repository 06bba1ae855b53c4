//! A diagnosis, formatted: shares as one bar, each cause with what would have been and how it fits what was seen.

use crate::batch::record::BatchRecord;
use crate::shared::format::{day_hm, hm};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{decimal, phrase, say};
use craft::learn::Observed;
use craft::learn::diagnose::{
    Cause, DiagnoseRequest, Diagnosed, Diagnosis, FitsSeen, MayBeSaid, Otherwise, PossibleCause,
    SHOWN,
};
use std::fmt::Write;

/// A diagnosis with its question.
pub struct WhyAsked<'a> {
    pub request: &'a DiagnoseRequest,
    pub said: Diagnosed,
}

/// How a cause fits one thing that was seen.
pub struct SeenFits {
    pub seen: String,
    pub says: String,
    pub class: &'static str,
}

pub struct CauseView {
    pub name: String,
    pub share: String,
    pub otherwise: String,
    pub fits: Vec<SeenFits>,
}

/// What can be said of dough or bake.
pub struct PartView {
    pub head: String,
    pub says: String,
    /// One bar of shares; none where it cannot be told.
    pub bar: Option<String>,
    pub bar_said: String,
    pub causes: Vec<CauseView>,
    pub cannot_tell: bool,
    pub look: Option<String>,
}

pub struct WhyView {
    pub head: String,
    pub core: String,
    pub tail: String,
    pub lines: [String; 2],
    pub parts: Vec<PartView>,
}

impl WhyView {
    pub fn of(asked: Option<WhyAsked>, told: &BatchRecord, here: &RequestKitchen) -> WhyView {
        let serve = day_hm(&here.local(told.batch.sheet.request.serve_at));
        let lines = [
            say!("learn-why-line", name = told.batch.name, serve = serve),
            told.stood()
                .map_or(phrase("learn-hour-not-noted").to_string(), |(at, _)| {
                    say!("learn-opened-at", at = hm(&here.local(at)))
                }),
        ];
        let parts: Vec<PartView> = asked.as_ref().map_or(vec![], |a| {
            let seen_of_dough = |n: usize| seen_of_dough(a.request, n, here);
            let dough = a
                .said
                .dough
                .as_ref()
                .map(|d| part(d, phrase("learn-the-dough"), &seen_of_dough, here));
            let seen_of_bake = |n: usize| seen_of_bake(a.request, n);
            let bake = a
                .said
                .bake
                .as_ref()
                .map(|d| part(d, phrase("learn-the-bake"), &seen_of_bake, here));
            dough.into_iter().chain(bake).collect()
        });
        let (core, tail) = match parts.iter().find(|p| !p.cannot_tell).or(parts.first()) {
            None => (phrase("learn-nothing-to-explain").to_string(), ""),
            Some(p) if p.cannot_tell => (phrase("learn-cannot-tell").to_string(), ""),
            Some(p) => (p.says.clone(), phrase("learn-not-proven")),
        };
        WhyView {
            head: phrase("learn-why").into(),
            core,
            tail: tail.into(),
            lines,
            parts,
        }
    }
}

fn seen_of_dough(r: &DiagnoseRequest, n: usize, here: &RequestKitchen) -> Option<String> {
    Some(match r.this.observed.get(n)? {
        Observed::State { is, .. } => here.words(&is.name()),
        Observed::Tight { said } => {
            said.then(|| here.words(&craft::learn::Notice::Tight.name()))?
        }
        Observed::Slack { said } => {
            said.then(|| here.words(&craft::learn::Notice::Slack.name()))?
        }
        Observed::Sour { said } => said.then(|| here.words(&craft::learn::Notice::Sour.name()))?,
        _ => return None,
    })
}

fn seen_of_bake(r: &DiagnoseRequest, n: usize) -> Option<String> {
    let side = |v: Option<i8>, pale: &'static str, right: &'static str, dark: &'static str| {
        v.map(|v| match v {
            -1 => phrase(pale).to_string(),
            1 => phrase(dark).to_string(),
            _ => phrase(right).to_string(),
        })
    };
    match n {
        0 => side(
            r.verdict.base,
            "learn-base-pale",
            "learn-base-right",
            "learn-base-dark",
        ),
        1 => side(
            r.verdict.top,
            "learn-top-pale",
            "learn-top-right",
            "learn-top-dark",
        ),
        _ => (r.verdict.wet == Some(1)).then(|| phrase("learn-centre-wet").to_string()),
    }
}

fn part(
    d: &Diagnosis,
    head: &str,
    seen: &dyn Fn(usize) -> Option<String>,
    here: &RequestKitchen,
) -> PartView {
    let shown: Vec<&PossibleCause> = match d.say {
        MayBeSaid::CannotTell => d.of.iter().map(|&i| &d.ranking[i]).collect(),
        _ => d
            .ranking
            .iter()
            .filter(|c| c.cause != Cause::Ordinary && c.share >= SHOWN)
            .collect(),
    };
    let cannot_tell = d.say == MayBeSaid::CannotTell;
    let says = match d.say {
        MayBeSaid::Cause => {
            let c = &d.ranking[d.of[0]];
            let it = here.words(&c.says());
            if c.is_known {
                say!("learn-it-was", it = it)
            } else {
                say!("learn-it-fits", it = it)
            }
        }
        MayBeSaid::Group => here.words(&d.ranking[d.of[0]].group.says()),
        MayBeSaid::CannotTell => phrase("learn-cannot-tell").into(),
    };
    PartView {
        head: head.to_string(),
        says,
        bar: (!cannot_tell).then(|| bar(d)),
        bar_said: shares_said(d, here),
        causes: shown.iter().map(|c| cause(c, seen, here)).collect(),
        cannot_tell,
        look: d.ask.map(|l| here.say(&l.says())),
    }
}

/// The hatch of a cause on the bar, by its place.
const HATCHES: [&str; 4] = ["h-a", "h-b", "h-c", "h-d"];

fn bar(d: &Diagnosis) -> String {
    let mut x = String::new();
    let (mut at, mut n) = (0.0, 0);
    let mut piece = |share: f64, class: &str| {
        let width = 860.0 * share;
        let _ = write!(
            x,
            r#"<rect x="{at:.1}" y="1" width="{width:.1}" height="30" class="{class}"/>"#
        );
        at += width;
    };
    let mut others = 0.0;
    for c in &d.ranking {
        if c.cause == Cause::Ordinary {
            continue;
        }
        if c.share >= SHOWN {
            piece(c.share, HATCHES[n.min(3)]);
            n += 1;
        } else {
            others += c.share;
        }
    }
    piece(others, "h-others");
    let ordinary = d.ranking.iter().find(|c| c.cause == Cause::Ordinary);
    piece(ordinary.map_or(0.0, |c| c.share), "h-ordinary");
    format!(
        r#"<svg class="shares" viewBox="0 0 860 32" preserveAspectRatio="none" aria-hidden="true">{x}</svg>"#
    )
}

fn shares_said(d: &Diagnosis, here: &RequestKitchen) -> String {
    let ordinary = d.ranking.iter().find(|c| c.cause == Cause::Ordinary);
    ordinary.map_or(String::new(), |c| {
        say!("learn-scatter-has", share = here.words(&c.share_said()))
    })
}

fn cause(
    c: &PossibleCause,
    seen: &dyn Fn(usize) -> Option<String>,
    here: &RequestKitchen,
) -> CauseView {
    let fits = c
        .fits
        .iter()
        .filter_map(|(n, fit)| {
            Some(SeenFits {
                seen: seen(*n)?,
                says: here.words(&fit.says()),
                class: match fit {
                    FitsSeen::Fits => "fits",
                    FitsSeen::Partly => "partly",
                    FitsSeen::Not => "not",
                },
            })
        })
        .collect();
    // Rounded first, and −0 made 0: a strength of "-0" would be an odd one.
    let whole = |v: f64| decimal((100.0 * v).round() + 0.0, 0);
    CauseView {
        name: here.say(&c.says()),
        share: here.words(&c.share_said()),
        otherwise: match &c.counterfactual {
            Some(Otherwise::Dough { so, planned }) => say!(
                "learn-dough-otherwise",
                rise = whole(so.ripeness),
                left = whole(so.reserve),
                rise_planned = whole(planned.ripeness),
                left_planned = whole(planned.reserve)
            ),
            Some(Otherwise::Bake { so, planned }) => say!(
                "learn-bake-otherwise",
                base = decimal(so.base, 1),
                rim = decimal(so.rim, 1),
                base_planned = decimal(planned.base, 1),
                rim_planned = decimal(planned.rim, 1)
            ),
            None => String::new(),
        },
        fits,
    }
}
