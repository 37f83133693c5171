//! Starting the server so that a test can own it.

use std::future::Future;
use std::net::SocketAddr;
use std::path::PathBuf;
use std::sync::Arc;
use std::time::Duration;

use axum::Router;
use derecho_store::{Held, Store, StoreError};
use hyper::server::conn::http1;
use hyper_util::rt::{TokioIo, TokioTimer};
use hyper_util::server::graceful::GracefulShutdown;
use hyper_util::service::TowerToHyperService;
use jiff::Timestamp;
use thiserror::Error;
use tokio::net::TcpListener;
use tokio::sync::Semaphore;
use tokio::task::spawn_blocking;

use crate::api::AppState;
use crate::app::app;
use crate::limits::Addresses;
use crate::samples;

/// How to serve.
#[derive(Clone, Debug)]
pub struct Settings {
    /// Where the database is.
    pub data: PathBuf,
    /// Put the samples into an empty bay.
    pub demo: bool,
    /// A request's head comes in one piece, or in this time; a connection idle for longer is closed.
    pub head_within: Duration,
}

impl Settings {
    /// With a head within ten seconds.
    #[must_use]
    pub const fn new(data: PathBuf, demo: bool) -> Self {
        Self { data, demo, head_within: Duration::from_secs(10) }
    }
}

/// Why serving ended or never began.
#[derive(Debug, Error)]
pub enum ServeError {
    /// An address of the network.
    #[error("{0} can be reached from other machines, and Derecho has no password yet: use 127.0.0.1.")]
    NotLocal(SocketAddr),
    /// The address is taken.
    #[error(
        "can't listen on {address}: {source}. Is Derecho already running? Choose another port with --listen."
    )]
    Listen {
        /// The address.
        address: SocketAddr,
        /// Why.
        source: std::io::Error,
    },
    /// The store refused.
    #[error(transparent)]
    Store(#[from] StoreError),
    /// The connection broke.
    #[error("the server stopped: {0}")]
    Io(#[from] std::io::Error),
}

/// Listens on `address` and serves until `shutdown` is done. `started` is told the
/// address listened on.
///
/// # Errors
/// Where the address is not this machine's, is taken, or the data cannot be used.
pub async fn launch(
    settings: Settings,
    address: SocketAddr,
    started: impl FnOnce(SocketAddr),
    shutdown: impl Future<Output = ()> + Send + 'static,
) -> Result<(), ServeError> {
    if !address.ip().is_loopback() {
        return Err(ServeError::NotLocal(address));
    }
    let listener =
        TcpListener::bind(address).await.map_err(|source| ServeError::Listen { address, source })?;
    let (store, held) = open(&settings)?;
    let state = AppState::new(store);
    let router = app(state.clone());
    // Told when there is something to open: a page that is asked for now is answered at once.
    started(listener.local_addr()?);
    serve((state, router, held), settings.head_within, listener, shutdown).await;
    Ok(())
}

/// Serves on a listener that is there already.
///
/// # Errors
/// Where the data cannot be used or the listener breaks.
pub async fn launch_with_listener(
    settings: Settings,
    listener: TcpListener,
    shutdown: impl Future<Output = ()> + Send + 'static,
) -> Result<(), ServeError> {
    let (store, held) = open(&settings)?;
    let state = AppState::new(store);
    let router = app(state.clone());
    serve((state, router, held), settings.head_within, listener, shutdown).await;
    Ok(())
}

/// The store, and the hold on its directory that keeps other servers off it.
type Opened = (Store, Held);

fn open(settings: &Settings) -> Result<Opened, ServeError> {
    let held = derecho_store::hold(&settings.data)?;
    held.closed_before(&settings.data)?;
    let store = Store::open(&settings.data)?;
    held.runs()?;
    if settings.demo {
        samples::fill(&store, Timestamp::now())?;
    }
    Ok((store, held))
}

/// Connections at once: windows, phones and tools of one shop are a tenth of it. More wait to be let in.
const MOST_CONNECTIONS: usize = 512;
/// What is under way when the program is stopped has this long to come to its end.
const ENDS_WITHIN: Duration = Duration::from_secs(5);

async fn serve(
    (state, router, held): (AppState, Router, Held),
    head_within: Duration,
    listener: TcpListener,
    shutdown: impl Future<Output = ()>,
) {
    let copying = tokio::spawn(daily_copies(Arc::clone(&state.store)));
    let ending = state.ending.clone();
    drop(state);
    let addresses = Addresses::default();
    let mut shutdown = std::pin::pin!(shutdown);
    let places = Arc::new(Semaphore::new(MOST_CONNECTIONS));
    let graceful = GracefulShutdown::new();
    let mut http = http1::Builder::new();
    http.timer(TokioTimer::new()).header_read_timeout(head_within);
    loop {
        // Its place first, so that those who wait do so in the system's own queue.
        let place = Arc::clone(&places).acquire_owned();
        let accepted = tokio::select! {
            accepted = async { (place.await, listener.accept().await) } => accepted,
            () = &mut shutdown => break,
        };
        let (Ok(place), accepted) = accepted else { break };
        let (stream, counted) = match accepted {
            Ok((stream, from)) => match addresses.count(from.ip()) {
                Some(counted) => (stream, counted),
                // One that has as many as it may does not keep others out.
                None => continue,
            },
            Err(error) => {
                // Out of file handles, say: others are freed meanwhile.
                tracing::warn!(%error, "a connection was not accepted");
                tokio::time::sleep(Duration::from_millis(50)).await;
                continue;
            }
        };
        let service = TowerToHyperService::new(router.clone());
        let connection = graceful.watch(http.serve_connection(TokioIo::new(stream), service));
        tokio::spawn(async move {
            // A client that goes away in the middle is nobody's fault.
            if let Err(error) = connection.await {
                tracing::debug!(%error, "a connection ended");
            }
            drop((place, counted));
        });
    }
    drop(listener);
    ending.cancel();
    if tokio::time::timeout(ENDS_WITHIN, graceful.shutdown()).await.is_err() {
        tracing::warn!("some requests were not done when the program was stopped");
    }
    copying.abort();
    drop(held);
}

/// How often it is looked whether today has its copy.
const LOOK_EVERY: Duration = Duration::from_secs(3600);

async fn daily_copies(store: Arc<Store>) {
    loop {
        let store = Arc::clone(&store);
        let copied = spawn_blocking(move || store.daily_copy(jiff::Zoned::now().date())).await;
        match copied {
            Ok(Ok(_)) => {}
            Ok(Err(error)) => tracing::error!(%error, "today's backup was not made"),
            Err(error) => tracing::error!(%error, "today's backup was not made"),
        }
        tokio::time::sleep(LOOK_EVERY).await;
    }
}
