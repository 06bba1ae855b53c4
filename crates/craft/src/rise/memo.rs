//! Runs that were made before. While a maker changes the dough, its preferments stay as they are: running them again
//! would give the same bytes. What is remembered is bounded and never changes an answer.

use super::answer::{RiseResult, YeastAnswer};
use super::kinetics::HandOver;
use std::collections::HashMap;
use std::sync::{Mutex, MutexGuard};

/// So many runs of a kind are remembered; then all are forgotten.
const MOST: usize = 64;

/// What is remembered, handed in by whoever asks for many sheets of one dough: one for a single question, one for a whole
/// server. Answers are the same without it.
#[derive(Debug, Default)]
pub struct PrefermentRuns {
    /// Preferments run to their end, as the dough takes them over.
    pub(crate) ends: Memo<HandOver>,
    /// Preferments over their hours.
    pub(crate) ran: Memo<RiseResult>,
    /// Their doses.
    pub(crate) solved: Memo<YeastAnswer>,
}

/// Answers by their question.
#[derive(Debug)]
pub(crate) struct Memo<V>(Mutex<HashMap<String, V>>);

impl<V> Default for Memo<V> {
    fn default() -> Self {
        Memo(Mutex::new(HashMap::new()))
    }
}

impl<V: Clone> Memo<V> {
    fn all(&self) -> MutexGuard<'_, HashMap<String, V>> {
        self.0.lock().unwrap_or_else(|e| e.into_inner())
    }
    /// The answer to a question, worked out the first time.
    pub(crate) fn get<E>(
        &self,
        question: String,
        work: impl FnOnce() -> Result<V, E>,
    ) -> Result<V, E> {
        if let Some(known) = self.all().get(&question) {
            return Ok(known.clone());
        }
        // Two who ask at once both work it out: neither waits for the other.
        let answer = work()?;
        let mut all = self.all();
        if all.len() >= MOST {
            all.clear();
        }
        all.insert(question, answer.clone());
        Ok(answer)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_question_is_worked_out_once_and_a_refusal_is_not_remembered() {
        let memo: Memo<u32> = Memo::default();
        let mut worked = 0;
        for _ in 0..3 {
            let got: Result<u32, ()> = memo.get("a".into(), || {
                worked += 1;
                Ok(7)
            });
            assert_eq!(got, Ok(7));
        }
        assert_eq!(worked, 1);
        assert_eq!(memo.get("b".into(), || Err::<u32, _>("no")), Err("no"));
        assert_eq!(memo.get("b".into(), || Ok::<_, ()>(9)), Ok(9));
        for i in 0..MOST + 5 {
            let _ = memo.get(format!("q{i}"), || Ok::<_, ()>(0));
        }
        assert!(memo.all().len() <= MOST);
    }
}
