//! How far a shop that is taken in is. Not here: taking it in (`shop`).

use std::sync::atomic::{AtomicUsize, Ordering};

use serde::Serialize;
use utoipa::ToSchema;

/// How far a shop that is taken in is: files looked through and made ready, of how many.
#[derive(Debug, Default)]
pub struct TakingIn {
    done: AtomicUsize,
    of: AtomicUsize,
}

/// How far a shop that is taken in is.
#[derive(Clone, Copy, Debug, Serialize, ToSchema)]
pub struct ShopProgress {
    /// Jobs made ready.
    pub done: usize,
    /// Of how many files; nought where none is taken in.
    pub of: usize,
}

impl TakingIn {
    /// So many are made ready, of so many files; nought of nought once it is over.
    pub fn say(&self, done: usize, of: usize) {
        self.done.store(done, Ordering::Relaxed);
        self.of.store(of, Ordering::Relaxed);
    }

    /// How far it is.
    #[must_use]
    pub fn so_far(&self) -> ShopProgress {
        ShopProgress { done: self.done.load(Ordering::Relaxed), of: self.of.load(Ordering::Relaxed) }
    }
}
