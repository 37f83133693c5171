//! What every job has on record: its log and how long its steps took, kept at hand by its revision, so that a letter
//! typed into the log does not read ten thousand jobs anew.

use std::collections::HashMap;
use std::sync::{Arc, Mutex, PoisonError};

use derecho_core::measure::Unit;
use derecho_job::bolt_up::time::took;
use derecho_results::{LogEntry, log};
use derecho_store::{Store, StoreError};
use rayon::prelude::*;

/// What a job has on record.
#[derive(Debug)]
pub struct JobRecord {
    /// The job's id.
    pub id: String,
    /// Its title.
    pub title: String,
    /// Its vehicle.
    pub vehicle: String,
    /// The unit of its sheets.
    pub unit: Unit,
    /// Its log.
    pub entries: Vec<LogEntry>,
    /// Steps and the minutes they took.
    pub took: Vec<(String, f64)>,
    revision: u64,
}

impl JobRecord {
    fn of(store: &Store, id: &str) -> Option<Self> {
        // One that was taken out since, or cannot be read, is told in the bay.
        let stored = store.get(id).ok()?;
        Some(Self {
            id: stored.id,
            title: stored.job.title.clone(),
            vehicle: stored.job.rig.vehicle.clone(),
            unit: stored.job.rig.sheet_unit,
            entries: log(&stored.job),
            took: took(&stored.job),
            revision: stored.revision,
        })
    }
}

/// The records of a shop, as they were read last.
#[derive(Debug, Default)]
pub struct Records(Mutex<HashMap<String, Arc<JobRecord>>>);

impl Records {
    /// Every job's record, last saved first; only what was saved since is read anew.
    ///
    /// # Errors
    /// Where the database refuses.
    pub fn all(&self, store: &Store) -> Result<Vec<Arc<JobRecord>>, StoreError> {
        let newest = store.newest()?;
        let mut known = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        let all: Vec<Arc<JobRecord>> = newest
            .par_iter()
            .filter_map(|(id, revision)| {
                let kept = known.get(id).filter(|record| record.revision == *revision).map(Arc::clone);
                kept.or_else(|| JobRecord::of(store, id).map(Arc::new))
            })
            .collect();
        *known = all.iter().map(|record| (record.id.clone(), Arc::clone(record))).collect();
        Ok(all)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use derecho_job::Job;
    use derecho_store::BasedOn;
    use jiff::Timestamp;

    #[test]
    fn what_was_saved_since_is_read_anew_and_nothing_else() {
        let folder = tempfile::tempdir().unwrap();
        let store = Store::open(folder.path()).unwrap();
        let job: Job =
            serde_json::from_str(include_str!("../../../demo/patrol-truck-14.derecho.json")).unwrap();
        let now = Timestamp::from_second(1_000_000).unwrap();
        let later = Timestamp::from_second(1_000_100).unwrap();
        store.create("a", &job, now).unwrap();
        store.create("b", &job, now).unwrap();
        let records = Records::default();
        let first = records.all(&store).unwrap();
        assert_eq!(first.len(), 2);
        assert_eq!(first[0].entries, log(&job));
        let mut changed = job.clone();
        changed.title = "Renamed".to_owned();
        store.save("a", BasedOn { revision: 1, edit: None }, &changed, later).unwrap();
        let second = records.all(&store).unwrap();
        // Last saved first: a is new, b is the very record of before.
        assert_eq!(second[0].title, "Renamed");
        assert!(first.iter().any(|record| Arc::ptr_eq(record, &second[1])));
        store.remove("b", 1).unwrap();
        assert_eq!(records.all(&store).unwrap().len(), 1);
    }
}
