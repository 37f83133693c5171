//! Starting the server so that a test can own it.

use std::future::Future;
use std::net::SocketAddr;
use std::path::PathBuf;

use derecho_store::{Store, StoreError};
use jiff::Timestamp;
use thiserror::Error;
use tokio::net::TcpListener;

use crate::api::AppState;
use crate::app::app;
use crate::samples;

/// How to serve.
#[derive(Clone, Debug)]
pub struct Settings {
    /// Where the database is.
    pub data: PathBuf,
    /// Put the samples into an empty bay.
    pub demo: bool,
}

/// Why serving ended or never began.
#[derive(Debug, Error)]
pub enum ServeError {
    /// An address of the network.
    #[error("{0} is not an address of this machine alone. Derecho has no passphrase yet: use 127.0.0.1.")]
    NotLocal(SocketAddr),
    /// The address is taken.
    #[error(
        "cannot listen on {address}: {source}. Is Derecho running already? Pick another port with --listen."
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
    #[error("serving ended: {0}")]
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
    started(listener.local_addr()?);
    launch_with_listener(settings, listener, shutdown).await
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
    let store = Store::open(&settings.data)?;
    if settings.demo {
        samples::fill(&store, Timestamp::now())?;
    }
    let state = AppState::new(store);
    axum::serve(listener, app(state)).with_graceful_shutdown(shutdown).await?;
    Ok(())
}
