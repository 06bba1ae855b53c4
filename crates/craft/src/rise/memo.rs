//! Runs that were made before. While a maker changes the dough, its preferments stay as they are: running them again
//! would give the same bytes. What is remembered is bounded and never changes an answer.

use std::cell::RefCell;
use std::collections::HashMap;

/// So many runs are remembered on each thread; then all are forgotten.
const MOST: usize = 48;

/// Answers by their question.
pub(crate) struct Memo<V>(RefCell<HashMap<String, V>>);

impl<V: Clone> Memo<V> {
    pub(crate) fn new() -> Self {
        Memo(RefCell::new(HashMap::new()))
    }
    /// The answer to a question, worked out the first time.
    pub(crate) fn get<E>(
        &self,
        question: String,
        work: impl FnOnce() -> Result<V, E>,
    ) -> Result<V, E> {
        if let Some(known) = self.0.borrow().get(&question) {
            return Ok(known.clone());
        }
        let answer = work()?;
        let mut all = self.0.borrow_mut();
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
        let memo: Memo<u32> = Memo::new();
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
        assert!(memo.0.borrow().len() <= MOST);
    }
}
