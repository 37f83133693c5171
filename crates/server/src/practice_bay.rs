//! Where lessons and their jobs are kept: the jobs are ordinary ones, in a store of their own that lasts as long as the
//! program runs. Nothing of it mixes with real jobs.

use std::collections::HashMap;
use std::path::{Path, PathBuf};
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

/// What the folder of practice jobs is called; with a number behind it where somebody else's folder is called so.
const FOLDER: &str = "derecho.practice";
/// Lies in a folder that this program made for practice, and in no other.
const MARK: &str = "made-for-practice";
/// Everything that is ever in such a folder.
const OWN_FILES: [&str; 6] = [
    "derecho.sqlite3",
    "derecho.sqlite3-wal",
    "derecho.sqlite3-shm",
    "derecho.opening",
    "derecho.serving",
    MARK,
];

/// An empty folder for the practice jobs of this run. Of a program that has ended nothing is gone on with: its vehicles
/// ended with it, and its files go, one by one by their names. A folder that was not made here is left alone, whatever
/// it is called.
fn folder(beside: &Path) -> std::io::Result<PathBuf> {
    let names = std::iter::once(FOLDER.to_owned()).chain((2..).map(|number| format!("{FOLDER}-{number}")));
    for path in names.map(|name| beside.join(name)) {
        if path.join(MARK).is_file() {
            for file in OWN_FILES {
                match std::fs::remove_file(path.join(file)) {
                    Err(fault) if fault.kind() != std::io::ErrorKind::NotFound => return Err(fault),
                    _ => {}
                }
            }
        } else if path.exists() {
            continue;
        } else {
            std::fs::create_dir_all(&path)?;
        }
        std::fs::write(path.join(MARK), b"")?;
        return Ok(path);
    }
    unreachable!("there are always more numbers")
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
    beside: PathBuf,
    store: OnceLock<Arc<Store>>,
    opening: Mutex<()>,
    sessions: Mutex<HashMap<String, UnderWay>>,
}

impl PracticeBay {
    /// In a folder of its own beside a store. Made when the first lesson begins.
    #[must_use]
    pub fn beside(store: &Store) -> Self {
        Self {
            beside: store.directory().to_owned(),
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
        let store = Arc::new(Store::open(&folder(&self.beside)?)?);
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

#[cfg(test)]
mod tests {
    #![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]
    use super::*;

    #[test]
    fn nothing_of_anybodys_goes_when_a_lesson_begins() {
        let data = tempfile::tempdir().unwrap();
        let photographs = data.path().join("practice");
        let so_called = data.path().join(FOLDER);
        for folder in [&photographs, &so_called] {
            std::fs::create_dir_all(folder.join("2026")).unwrap();
            std::fs::write(folder.join("2026/axle.png"), b"a picture").unwrap();
            std::fs::write(folder.join("derecho.sqlite3"), b"somebody's").unwrap();
        }
        let store = Store::open(data.path()).unwrap();
        PracticeBay::beside(&store).store().unwrap();
        // And of a second run, which clears up after the first.
        let again = PracticeBay::beside(&store).store().unwrap();
        assert_eq!(again.list("", 10, 0).unwrap().1, 0);
        for folder in [photographs, so_called] {
            assert_eq!(std::fs::read(folder.join("2026/axle.png")).unwrap(), b"a picture");
            assert_eq!(std::fs::read(folder.join("derecho.sqlite3")).unwrap(), b"somebody's");
        }
        assert!(data.path().join(format!("{FOLDER}-2")).join(MARK).is_file());
    }
}
