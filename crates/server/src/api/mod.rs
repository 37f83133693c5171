//! The handlers under /api/v1. Each does one thing; errors become problems in
//! `problem`, a job goes out as in `view`. Not here: reading a body against the schema
//! (`crate::parse`), and anything that computes.

pub mod compute;
pub mod figure;
pub mod instruments;
pub mod jobs;
pub mod papers;
pub mod parts;
pub mod practice;
pub mod problem;
pub mod samples;
pub mod shop;
pub mod taking_in;
pub mod tape;
pub mod templates;
pub mod view;
mod worked_out;
mod written;

use crate::english::chosen;
use derecho_words::in_english;
use std::sync::Arc;

use axum::body::Bytes;
use axum::extract::rejection::{PathRejection, QueryRejection};
use axum::extract::{Path, Query};
use axum::http::{HeaderMap, StatusCode, header};
use axum::response::Response;
use derecho_instruments::registry::Registry;

use derecho_store::{BasedOn, Store, StoreError, StoredJob};
use tokio::sync::{Semaphore, oneshot};
use tokio::task::spawn_blocking;
use tokio_util::sync::CancellationToken;

use crate::api::problem::Problem;
use crate::api::taking_in::TakingIn;
use crate::api::worked_out::{WorkedOut, answered};
use crate::parse::read_job;
use crate::practice_bay::{PracticeBay, is_of_practice};
use crate::records::Records;

/// Streams of events held at once: one for each browser of a shop.
const MOST_STREAMS: usize = 64;

/// What handlers share.
#[derive(Clone)]
pub struct AppState {
    /// The jobs.
    pub store: Arc<Store>,
    /// As many may compute at once as there are cores; the others wait in order.
    computing: Arc<Semaphore>,
    /// Instruments that are joined.
    pub registry: Registry,
    /// What every job has on record, as it was read last.
    pub records: Arc<Records>,
    /// The practice bay, apart from the real one.
    pub practice: Arc<PracticeBay>,
    /// Turns for streams of events.
    pub streams: Arc<Semaphore>,
    /// How far a shop that is taken in is.
    pub taking_in: Arc<TakingIn>,
    /// Done when the program is stopped: streams of events end with it.
    pub ending: CancellationToken,
}

impl AppState {
    /// Around a store.
    #[must_use]
    pub fn new(store: Store) -> Self {
        let cores = std::thread::available_parallelism().map_or(1, std::num::NonZero::get);
        Self {
            computing: Arc::new(Semaphore::new(cores)),
            registry: Registry::default(),
            records: Arc::default(),
            practice: Arc::new(PracticeBay::beside(&store)),
            streams: Arc::new(Semaphore::new(MOST_STREAMS)),
            taking_in: Arc::default(),
            ending: CancellationToken::new(),
            store: Arc::new(store),
        }
    }

    /// Reads, computes and writes on a thread that may take its time, when its turn has come.
    async fn computed<T: Send + 'static>(
        &self,
        call: impl FnOnce() -> Result<T, Problem> + Send + 'static,
    ) -> Result<T, Problem> {
        let turn = Arc::clone(&self.computing).acquire_owned().await.map_err(|e| Problem::internal(&e))?;
        let answer = move || {
            let answer = call();
            drop(turn);
            answer
        };
        aside(answer).await?
    }

    /// A stored job as it is answered, computed where computing is done.
    async fn reported(&self, stored: StoredJob, status: StatusCode) -> Result<Response, Problem> {
        Ok(self.computed(move || answered(stored, status)).await?.0)
    }

    /// The same of a job that a change was made to whose card nobody has drawn yet.
    async fn reported_anew(&self, stored: StoredJob) -> Result<Response, Problem> {
        let (answer, undrawn) = self.computed(move || answered(stored, StatusCode::OK)).await?;
        let id = undrawn.id.clone();
        // Where it cannot be kept it is drawn when the bay is looked at.
        drop(self.stored_of(&id, move |store| undrawn.draw(store)).await);
        Ok(answer)
    }

    /// Reads a document and works it out where computing is done: refusing one takes its time.
    async fn worked_out(&self, body: Bytes) -> Result<WorkedOut, Problem> {
        self.computed(move || WorkedOut::of(read_job(&body)?)).await
    }

    /// Runs a store call about one job: of the practice bay where the job is one of it.
    async fn stored_of<T: Send + 'static>(
        &self,
        id: &str,
        call: impl FnOnce(&Store) -> Result<T, StoreError> + Send + 'static,
    ) -> Result<T, Problem> {
        if !is_of_practice(id) {
            return self.stored(call).await;
        }
        let bay = Arc::clone(&self.practice);
        aside(move || bay.store().and_then(|store| call(&store))).await?.map_err(Problem::from)
    }

    /// Runs a store call on a thread that may wait for the disk.
    async fn stored<T: Send + 'static>(
        &self,
        call: impl FnOnce(&Store) -> Result<T, StoreError> + Send + 'static,
    ) -> Result<T, Problem> {
        let store = Arc::clone(&self.store);
        aside(move || call(&store)).await?.map_err(Problem::from)
    }
}

/// Calls on a thread that may take its time. All calls are of one type there: of each its own a task would be made.
async fn aside<T: Send + 'static>(call: impl FnOnce() -> T + Send + 'static) -> Result<T, Problem> {
    let (tell, reported) = oneshot::channel();
    let english = chosen();
    let call: Box<dyn FnOnce() + Send> = Box::new(move || {
        // Nobody waits any more where the client is gone.
        let _ = tell.send(in_english(english, call));
    });
    spawn_blocking(call).await.map_err(|panic| Problem::internal(&panic))?;
    reported.await.map_err(|none| Problem::internal(&none))
}

/// Longest name of an edit.
const LONGEST_EDIT: usize = 64;

/// What a change is based on: the revision from `If-Match: "7"`, and the client's own name for the edit from
/// `Idempotency-Key`, so that an edit sent again after its answer was lost is made once.
fn basis(headers: &HeaderMap) -> Result<BasedOn, Problem> {
    let edit = headers.get("idempotency-key").map(|value| {
        value.to_str().ok().filter(|text| !text.is_empty() && text.len() <= LONGEST_EDIT).ok_or_else(|| {
            Problem::new(
                StatusCode::BAD_REQUEST,
                "bad_edit_key",
                "Idempotency-Key is a text of up to 64 plain characters.",
            )
        })
    });
    Ok(BasedOn { revision: based_on(headers)?, edit: edit.transpose()?.map(str::to_owned) })
}

/// The revision a change is based on, from `If-Match: "7"`.
fn based_on(headers: &HeaderMap) -> Result<u64, Problem> {
    let missing = || {
        Problem::new(
            StatusCode::PRECONDITION_REQUIRED,
            "revision_missing",
            "Say which revision this change is based on, with the header If-Match: \"7\".",
        )
    };
    let text = headers.get(header::IF_MATCH).ok_or_else(missing)?.to_str().map_err(|_| missing())?;
    text.trim().trim_start_matches("W/").trim_matches('"').parse().map_err(|_| missing())
}

/// The query, or what is wrong with it.
fn query<T>(query: Result<Query<T>, QueryRejection>) -> Result<T, Problem> {
    query
        .map(|Query(value)| value)
        .map_err(|rejection| Problem::new(StatusCode::BAD_REQUEST, "bad_query", rejection.to_string()))
}

/// The parts of the address, or what is wrong with them.
fn path<T>(path: Result<Path<T>, PathRejection>) -> Result<T, Problem> {
    path.map(|Path(value)| value)
        .map_err(|rejection| Problem::new(StatusCode::BAD_REQUEST, "bad_address", rejection.to_string()))
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::sync::atomic::{AtomicUsize, Ordering::SeqCst};
    use std::sync::mpsc;

    /// On a runtime of one thread: were anything computed on it, nobody could let the work go on.
    #[tokio::test]
    async fn computing_leaves_the_runtime_free_and_takes_turns() {
        let folder = tempfile::tempdir().unwrap();
        let state = AppState::new(Store::open(folder.path()).unwrap());
        let cores = state.computing.available_permits();
        let (running, most) = (Arc::new(AtomicUsize::new(0)), Arc::new(AtomicUsize::new(0)));
        let (started, mut starts) = mpsc::channel();
        let jobs: Vec<_> = (0..cores + 3)
            .map(|number| {
                let (state, started) = (state.clone(), started.clone());
                let (running, most) = (Arc::clone(&running), Arc::clone(&most));
                let (go, gone) = mpsc::channel::<()>();
                let task = tokio::spawn(async move {
                    let work = move || {
                        most.fetch_max(running.fetch_add(1, SeqCst) + 1, SeqCst);
                        started.send(number).unwrap();
                        gone.recv().unwrap();
                        running.fetch_sub(1, SeqCst);
                        Ok(std::thread::current().id())
                    };
                    state.computed(work).await
                });
                (go, task)
            })
            .collect();
        // Each is let go once it has begun.
        let mut begun = Vec::new();
        for _ in 0..jobs.len() {
            let next = tokio::task::spawn_blocking(move || (starts.recv().unwrap(), starts));
            let (number, rest) = next.await.unwrap();
            jobs[number].0.send(()).unwrap();
            begun.push(number);
            starts = rest;
        }
        for (_, task) in jobs {
            let thread = task.await.unwrap().unwrap_or_else(|problem| panic!("{problem:?}"));
            assert_ne!(thread, std::thread::current().id());
        }
        begun.sort_unstable();
        assert_eq!(begun, (0..cores + 3).collect::<Vec<_>>());
        assert!((1..=cores).contains(&most.load(SeqCst)), "{} of {cores}", most.load(SeqCst));
    }
}
