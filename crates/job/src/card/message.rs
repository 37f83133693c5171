//! What a card says by itself, as facts.

use crate::message::{OfTopic, Topic};

/// What a card says by itself.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum CardMessage {
    /// No stage has an answer.
    NothingMeasured,
}

impl OfTopic for CardMessage {
    const TOPIC: Topic = Topic::Card;
}
