//! How much of one kind is let in at once, so that what is slow or held keeps nobody else out. Not here: how many
//! connections there are (`serve`), how large a body may be (`app`).

use std::collections::HashMap;
use std::net::IpAddr;
use std::sync::{Arc, Mutex, PoisonError};

use axum::extract::{Request, State};
use axum::http::header;
use axum::middleware::Next;
use axum::response::Response;
use tokio::sync::Semaphore;

use crate::api::problem::too_many;

/// Bodies that come in at once: a shop sends a few.
const MOST_BODIES: usize = 128;
/// Connections from one address: half of what there is in all.
pub const MOST_FROM_ONE: usize = 256;

/// Turns for bodies.
#[derive(Clone, Debug)]
pub struct Bodies(Arc<Semaphore>);

impl Default for Bodies {
    fn default() -> Self {
        Self(Arc::new(Semaphore::new(MOST_BODIES)))
    }
}

/// A request with a body takes a turn, or is sent away at once and frees its connection for somebody else.
pub async fn one_of_many(State(bodies): State<Bodies>, request: Request, next: Next) -> Response {
    let has_body = request.headers().get(header::CONTENT_LENGTH).is_some_and(|length| length != "0")
        || request.headers().contains_key(header::TRANSFER_ENCODING);
    if !has_body {
        return next.run(request).await;
    }
    let Ok(turn) = bodies.0.try_acquire_owned() else { return too_many() };
    let response = next.run(request).await;
    drop(turn);
    response
}

/// How many connections each address has.
#[derive(Clone, Debug, Default)]
pub struct Addresses(Arc<Mutex<HashMap<IpAddr, usize>>>);

/// One connection of an address, counted until it is dropped.
#[derive(Debug)]
pub struct CountedBody {
    address: IpAddr,
    all: Addresses,
}

impl Addresses {
    /// Counts a connection in; None where its address has as many as it may.
    #[must_use]
    pub fn count(&self, address: IpAddr) -> Option<CountedBody> {
        let mut counts = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        let count = counts.entry(address).or_default();
        if *count >= MOST_FROM_ONE {
            return None;
        }
        *count += 1;
        Some(CountedBody { address, all: self.clone() })
    }
}

impl Drop for CountedBody {
    fn drop(&mut self) {
        let mut counts = self.all.0.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(count) = counts.get_mut(&self.address) {
            *count -= 1;
            if *count == 0 {
                counts.remove(&self.address);
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn one_address_does_not_take_the_place_of_another() {
        let all = Addresses::default();
        let [one, other] = ["127.0.0.1", "127.0.0.2"].map(|text| text.parse::<IpAddr>().unwrap());
        let held: Vec<CountedBody> = (0..MOST_FROM_ONE).map_while(|_| all.count(one)).collect();
        assert_eq!(held.len(), MOST_FROM_ONE);
        assert!(all.count(one).is_none());
        assert!(all.count(other).is_some());
        drop(held);
        assert!(all.count(one).is_some());
        assert!(all.0.lock().unwrap().len() <= 2);
    }
}
