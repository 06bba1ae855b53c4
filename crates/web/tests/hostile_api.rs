//! Arbitrary valid JSON at every kind of the API: each is answered or refused with sentences, in little memory and time.
//!
//! The requests of `docs/api.md` are bent: values become extreme, lists long, parts are taken from other places. Memory is
//! counted by an allocator of this test's own, time as this thread's own work, which other tests do not lengthen.

use cpu_time::ThreadTime;
use craft::keyed::Keyed;
use proptest::prelude::*;
use serde_json::Value;
use std::alloc::{GlobalAlloc, Layout, System};
use std::cell::Cell;
use std::time::Duration;
use web::api::{ReckonKind, Worded, reckon};

/// The most that one request may hold at once.
const MOST_BYTES: i64 = 64 * 1024 * 1024;
/// And the most that it may work.
const LONGEST: Duration = Duration::from_secs(2);

struct Counting;

thread_local! {
    static NOW: Cell<i64> = const { Cell::new(0) };
    static MOST: Cell<i64> = const { Cell::new(0) };
}

fn count(bytes: i64) {
    let _ = NOW.try_with(|now| {
        now.set(now.get() + bytes);
        let _ = MOST.try_with(|most| most.set(most.get().max(now.get())));
    });
}

// SAFETY: every call goes to the system's allocator as it came; only numbers are kept beside it.
unsafe impl GlobalAlloc for Counting {
    unsafe fn alloc(&self, l: Layout) -> *mut u8 {
        count(l.size() as i64);
        unsafe { System.alloc(l) }
    }
    unsafe fn dealloc(&self, p: *mut u8, l: Layout) {
        count(-(l.size() as i64));
        unsafe { System.dealloc(p, l) }
    }
    unsafe fn realloc(&self, p: *mut u8, l: Layout, size: usize) -> *mut u8 {
        count(size as i64 - l.size() as i64);
        unsafe { System.realloc(p, l, size) }
    }
}

#[global_allocator]
static ALLOCATOR: Counting = Counting;

/// The example requests of the documentation, by kind.
fn examples() -> Vec<(ReckonKind, Value)> {
    let text = include_str!("../../../docs/api.md");
    let mut out = Vec::new();
    for &kind in ReckonKind::ALL {
        let head = format!("\n## `{}`", kind.key());
        let example = text.split(&head).skip(1).find_map(|rest| {
            let json = rest.split("```json").nth(1)?.split("```").next()?;
            serde_json::from_str(json).ok()
        });
        if let Some(v) = example {
            out.push((kind, v));
        }
    }
    out
}

/// How a value is bent.
#[derive(Debug, Clone)]
enum Bend {
    Number(f64),
    Text(String),
    Long(usize),
    Gone,
    Null,
    List,
    Swapped(usize),
}

fn bend() -> impl Strategy<Value = Bend> {
    let number = prop_oneof![
        Just(0.0),
        Just(-1.0),
        Just(1e308),
        Just(-1e308),
        Just(1e-308),
        Just(4294967295.0),
        Just(240.0),
        Just(336.0),
        (-1000.0..1000.0f64),
        (0.0..1.0f64),
    ];
    let text = prop_oneof![
        Just(String::new()),
        Just("0001-01-01T00:00:00Z".into()),
        Just("-009999-01-02T00:00:00Z".into()),
        Just("9999-12-30T21:00:00Z".into()),
        Just("2126-11-27T19:00:00Z".into()),
        Just("Pacific/Kiritimati".into()),
        Just("🍕\u{0}\u{202e}".into()),
        "[a-z_]{1,12}",
        (1000usize..20_000).prop_map(|n| "9 kg flour\n".repeat(n / 11)),
    ];
    prop_oneof![
        4 => number.prop_map(Bend::Number),
        3 => text.prop_map(Bend::Text),
        2 => (1usize..2000).prop_map(Bend::Long),
        1 => Just(Bend::Gone),
        1 => Just(Bend::Null),
        1 => Just(Bend::List),
        2 => (0usize..1000).prop_map(Bend::Swapped),
    ]
}

/// The addresses of all parts of a value.
fn parts(v: &Value, at: String, out: &mut Vec<String>) {
    out.push(at.clone());
    match v {
        Value::Object(m) => m
            .iter()
            .for_each(|(k, v)| parts(v, format!("{at}/{k}"), out)),
        Value::Array(a) => a
            .iter()
            .enumerate()
            .for_each(|(i, v)| parts(v, format!("{at}/{i}"), out)),
        _ => {}
    }
}

fn bent(mut v: Value, bends: &[(usize, Bend)]) -> Value {
    for (place, bend) in bends {
        let mut all = Vec::new();
        parts(&v, String::new(), &mut all);
        let at = all[place % all.len()].clone();
        let other = all[match bend {
            Bend::Swapped(n) => n % all.len(),
            _ => 0,
        }]
        .clone();
        let other = v.pointer(&other).cloned().unwrap_or(Value::Null);
        let Some(part) = v.pointer_mut(&at) else {
            continue;
        };
        match bend {
            Bend::Number(n) => *part = serde_json::json!(n),
            Bend::Text(t) => *part = Value::String(t.clone()),
            Bend::Null | Bend::Gone => *part = Value::Null,
            Bend::List => *part = Value::Array(vec![part.clone()]),
            Bend::Swapped(_) => *part = other,
            Bend::Long(n) => {
                if let Value::Array(a) = part
                    && let Some(one) = a.first().cloned()
                {
                    a.resize(*n, one);
                }
            }
        }
    }
    v
}

#[test]
fn every_kind_has_an_example_to_bend() {
    let kinds: Vec<_> = examples().into_iter().map(|(k, _)| k).collect();
    for &kind in ReckonKind::ALL {
        assert!(kinds.contains(&kind), "{kind:?}");
    }
}

/// Some hundreds in every run; `HOSTILE_CASES=100000` for a long one.
fn cases() -> u32 {
    let asked = std::env::var("HOSTILE_CASES").ok();
    asked.and_then(|n| n.parse().ok()).unwrap_or(400)
}

proptest! {
    #![proptest_config(ProptestConfig { cases: cases(), max_shrink_iters: 60, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn whatever_is_asked_is_answered_in_little_memory_and_time(
        which in 0usize..1000,
        bends in prop::collection::vec((0usize..5000, bend()), 1..5),
    ) {
        let all = examples();
        let (kind, example) = &all[which % all.len()];
        let asked = bent(example.clone(), &bends).to_string();
        // What is larger never reaches a model.
        prop_assume!(asked.len() <= 256 * 1024);
        NOW.set(0);
        MOST.set(0);
        let began = ThreadTime::now();
        let answer = reckon(*kind, asked.as_bytes(), Worded::default());
        let took = began.elapsed();
        let most = MOST.get();
        prop_assert!(took <= LONGEST, "{kind:?} worked {took:?} on {}", &asked[..asked.len().min(1500)]);
        prop_assert!(most <= MOST_BYTES, "{kind:?} held {most} bytes on {}", &asked[..asked.len().min(1500)]);
        if let Err(errors) = answer {
            let errors = errors["errors"].as_array().cloned().unwrap_or_default();
            prop_assert!(!errors.is_empty());
            prop_assert!(errors.iter().all(|e| e["message"]["text"].as_str().is_some_and(|t| !t.is_empty())));
        }
    }
}
