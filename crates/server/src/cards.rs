//! The cards the bay shows: drawn where a job is worked out, kept by the store, drawn anew where they were drawn by other
//! rules than today's. They are kept as the US says them with what a person typed marked, whoever saved the job, and said
//! in the English of whoever looks.

use derecho_job::{Job, Results};
use derecho_results::{Card, card, card_of};
use derecho_store::{KeptCard, ListedJob, Ready, Store, StoreError};

/// The rules cards are drawn by today: of the program's version, and of what a card holds.
pub const DRAWN_BY: &str = concat!(env!("CARGO_PKG_VERSION"), " card 7");

fn written(card: &Card) -> KeptCard {
    // A card is plain data with string keys: it always has a JSON form.
    KeptCard { card: serde_json::to_string(card).unwrap_or_default(), by: DRAWN_BY.to_owned() }
}

/// A document ready to be stored, with the card that its results give.
///
/// # Errors
/// Where it has no JSON form.
pub fn with_card(job: Job, results: Results) -> Result<Ready, StoreError> {
    let card = written(&card_of(&job, results));
    Ready::new(job, card)
}

/// A document ready to be stored, worked out for its card.
///
/// # Errors
/// Where it has no JSON form.
pub fn ready(job: Job) -> Result<Ready, StoreError> {
    let card = written(&card(&job));
    Ready::new(job, card)
}

/// The card of a job in the bay's list as it is kept; None where it was drawn by other rules than today's, or cannot be
/// read.
#[must_use]
pub fn of_today(listed: &ListedJob) -> Option<Card> {
    if listed.card.by != DRAWN_BY {
        return None;
    }
    serde_json::from_str(&listed.card.card).ok()
}

/// The card of a job in the bay's list. One that was drawn by other rules, or cannot be read, is drawn anew of its
/// document, and kept so; None where the job cannot be read.
///
/// # Errors
/// Where the database refuses.
pub fn shown(store: &Store, listed: &ListedJob) -> Result<Option<Card>, StoreError> {
    if let Some(card) = of_today(listed) {
        return Ok(Some(card));
    }
    match store.get(&listed.id) {
        Ok(stored) => {
            let card = card(&stored.job);
            // Where it cannot be written, a full disk say, it is drawn again at the next look.
            drop(store.put_card(&listed.id, stored.revision, &written(&card)));
            Ok(Some(card))
        }
        Err(StoreError::Unreadable { .. } | StoreError::Damaged(_) | StoreError::NoSuchJob) => Ok(None),
        Err(other) => Err(other),
    }
}
