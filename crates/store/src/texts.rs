//! Texts of documents that were written or read last, so that a save need not unpack what it is packed against and held
//! against. A revision is never altered: its text, once known, stays what it is.

use std::collections::VecDeque;
use std::sync::{Arc, Mutex, PoisonError};

/// So many are kept: the last two of each job that somebody works on, and what they are packed against.
const KEPT: usize = 32;

/// A text is kept up to this size; longer ones are unpacked each time.
const LONGEST: usize = 512 * 1024;

struct Text {
    job: String,
    revision: u64,
    text: Arc<str>,
}

/// The texts, the last one first.
#[derive(Default)]
pub(crate) struct Texts(Mutex<VecDeque<Text>>);

impl std::fmt::Debug for Texts {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.write_str("Texts")
    }
}

impl Texts {
    /// The text of a revision, where it is kept.
    pub(crate) fn get(&self, job: &str, revision: u64) -> Option<Arc<str>> {
        let mut kept = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        let place = kept.iter().position(|text| text.revision == revision && text.job == job)?;
        let text = kept.remove(place)?;
        let found = Arc::clone(&text.text);
        kept.push_front(text);
        Some(found)
    }

    /// Keeps a text.
    pub(crate) fn put(&self, job: &str, revision: u64, text: &Arc<str>) {
        if text.len() > LONGEST || self.get(job, revision).is_some() {
            return;
        }
        let mut kept = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        kept.push_front(Text { job: job.to_owned(), revision, text: Arc::clone(text) });
        kept.truncate(KEPT);
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_last_are_kept_and_the_oldest_go() {
        let texts = Texts::default();
        for revision in 0..=KEPT as u64 {
            texts.put("a", revision, &Arc::from(revision.to_string()));
        }
        assert_eq!(texts.get("a", 0), None);
        assert_eq!(texts.get("a", 1).as_deref(), Some("1"));
        assert_eq!(texts.get("b", 1), None);
        // What is asked for stays when others come.
        texts.put("b", 1, &Arc::from("of b"));
        assert_eq!(texts.get("a", 1).as_deref(), Some("1"));
        texts.put("c", 1, &Arc::from("x".repeat(LONGEST + 1)));
        assert_eq!(texts.get("c", 1), None);
    }
}
