//! What is said of the offset that is corrected, as facts.

use crate::message::{OfTopic, Topic};
use derecho_core::measure::Length;

/// A message about the offset, + to the left.
#[expect(
    missing_docs,
    reason = "a message holds what its fields are named; lengths, angles and forces are of their types"
)]
#[derive(Clone, Debug, PartialEq)]
pub enum SetupsMessage {
    Read {
        offset: Length,
        uncertainty: Length,
        there: bool,
    },
    Reckoned {
        offset: Length,
    },
    Supposed,
    /// Another bar as long as the old one, or as the maker had it.
    Copied,
    Strapped,
}

impl OfTopic for SetupsMessage {
    const TOPIC: Topic = Topic::Setups;
}
