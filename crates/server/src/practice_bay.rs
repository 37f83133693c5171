//! Where lessons and their jobs are kept: the jobs are ordinary ones, in a store of their own that lasts as long as the
//! program runs. Nothing of it mixes with real jobs.

use std::collections::HashMap;
use std::path::PathBuf;
use std::sync::{Arc, Mutex, MutexGuard, OnceLock, PoisonError};

use derecho_practice::session::Session;
use derecho_store::{Store, StoreError};
use jiff::Timestamp;

/// How the id of a practice job begins.
const PREFIX: &str = "practice-";
/// Most lessons under way at once; the oldest goes.
const MOST: usize = 50;

/// Whether a job is one of the practice bay.
#[must_use]
pub fn is_of_practice(id: &str) -> bool {
    id.starts_with(PREFIX)
}

/// The id of a practice job.
#[must_use]
pub fn practice_id(id: &str) -> String {
    format!("{PREFIX}{id}")
}

/// A lesson under way.
pub struct UnderWay {
    /// The vehicle and what was done to it.
    pub session: Session,
    /// When it began.
    pub began: Timestamp,
    /// How much was done to it.
    pub number: u64,
}

/// The bay's own store, and the lessons under way in it.
pub struct PracticeBay {
    directory: PathBuf,
    store: OnceLock<Arc<Store>>,
    opening: Mutex<()>,
    sessions: Mutex<HashMap<String, UnderWay>>,
}

impl PracticeBay {
    /// In a folder of its own beside a store. Made when the first lesson begins.
    #[must_use]
    pub fn beside(store: &Store) -> Self {
        Self {
            directory: store.directory().join("practice"),
            store: OnceLock::new(),
            opening: Mutex::default(),
            sessions: Mutex::default(),
        }
    }

    /// Its store.
    ///
    /// # Errors
    /// Where it cannot be made.
    pub fn store(&self) -> Result<Arc<Store>, StoreError> {
        let _opening = self.opening.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(store) = self.store.get() {
            return Ok(Arc::clone(store));
        }
        // Of a program that has ended nothing is gone on with: its vehicles ended with it.
        match std::fs::remove_dir_all(&self.directory) {
            Err(fault) if fault.kind() != std::io::ErrorKind::NotFound => return Err(fault.into()),
            _ => {}
        }
        let store = Arc::new(Store::open(&self.directory)?);
        Ok(Arc::clone(self.store.get_or_init(|| store)))
    }

    fn sessions(&self) -> MutexGuard<'_, HashMap<String, UnderWay>> {
        self.sessions.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Begins a lesson.
    pub fn begin(&self, id: String, session: Session) {
        let mut sessions = self.sessions();
        if sessions.len() >= MOST
            && let Some(oldest) = sessions.iter().min_by_key(|(_, one)| one.began).map(|(id, _)| id.clone())
        {
            sessions.remove(&oldest);
        }
        sessions.insert(id, UnderWay { session, began: Timestamp::now(), number: 0 });
    }

    /// Runs on a lesson under way; None where there is none of that job.
    pub fn with<T>(&self, id: &str, run: impl FnOnce(&mut UnderWay) -> T) -> Option<T> {
        self.sessions().get_mut(id).map(run)
    }
}
