//! What a job has to say, as facts: which message, and the figures and names in it. It is said where somebody reads it, by
//! whoever has words for it. Not here: what is said, or a language; nor what the messages of a stage are (`message.rs` of
//! each), which this file knows by their topic alone.

use std::any::Any;
use std::borrow::Cow;
use std::fmt::Debug;
use std::sync::Arc;

use derecho_core::measure::said;
use serde::{Serialize, Serializer};
use utoipa::openapi::{RefOr, Schema};
use utoipa::{PartialSchema, ToSchema};

/// What a message is of; each is said in a file of its own, and a new one has to be.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Topic {
    /// A card in the bay.
    Card,
    /// Cautions.
    Caution,
    /// The log.
    Log,
    /// The record of a closed job.
    Record,
    /// The strip.
    Strip,
    /// Sizes that nobody typed.
    Assumed,
    /// What was read into a mechanism, and does not agree or had to be assumed.
    Assembly,
    /// The offset that is corrected.
    Setups,
    /// Stage Tape.
    Tape,
    /// Stage Bar.
    Bar,
    /// Stage Bracket.
    Bracket,
    /// Stage Cycle.
    Cycle,
    /// Stage Sway.
    Sway,
    /// Stage Bolt-up.
    BoltUp,
    /// Stage Prove.
    Prove,
    /// The search for a cause.
    Diagnosis,
    /// Where a job stands and what comes next.
    Status,
}

/// The messages of a topic: one type has it, and no other.
pub trait OfTopic: Any + Debug + PartialEq + Send + Sync {
    /// The topic.
    const TOPIC: Topic;
}

/// A message whose type is not named.
trait Held: Any + Debug + Send + Sync {
    fn topic(&self) -> Topic;
    fn is(&self, other: &dyn Any) -> bool;
}

impl<T: OfTopic> Held for T {
    fn topic(&self) -> Topic {
        T::TOPIC
    }

    fn is(&self, other: &dyn Any) -> bool {
        other.downcast_ref::<T>().is_some_and(|other| self == other)
    }
}

/// One thing to say, or nothing.
#[derive(Clone, Debug, Default)]
pub struct Message(Option<Arc<dyn Held>>);

impl Message {
    /// Nothing to say.
    pub const NOTHING: Self = Self(None);

    /// What it is of; None where there is nothing to say.
    #[must_use]
    pub fn topic(&self) -> Option<Topic> {
        self.0.as_ref().map(|held| held.topic())
    }

    /// The message itself, where it is of this topic.
    #[must_use]
    pub fn facts<T: OfTopic>(&self) -> Option<&T> {
        let held: &dyn Any = self.0.as_deref()?;
        held.downcast_ref()
    }
}

impl<T: OfTopic> From<T> for Message {
    fn from(message: T) -> Self {
        Self(Some(Arc::new(message)))
    }
}

impl PartialEq for Message {
    fn eq(&self, other: &Self) -> bool {
        match (&self.0, &other.0) {
            (Some(one), Some(other)) => Arc::ptr_eq(one, other) || one.is(&**other),
            (None, None) => true,
            (Some(_), None) | (None, Some(_)) => false,
        }
    }
}

impl Serialize for Message {
    /// As what is said of it.
    ///
    /// # Errors
    /// Where no language is given: see [`said::written_with`].
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        said::both(self, serializer)
    }
}

impl PartialSchema for Message {
    fn schema() -> RefOr<Schema> {
        said::schema()
    }
}

impl ToSchema for Message {
    fn name() -> Cow<'static, str> {
        said::name()
    }
}

/// A message without figures that stands in results as one text: a name, a clause.
#[derive(Clone, Debug, PartialEq)]
pub struct Label(pub Message);

impl<T: Into<Message>> From<T> for Label {
    fn from(message: T) -> Self {
        Self(message.into())
    }
}

impl Serialize for Label {
    /// As its text.
    ///
    /// # Errors
    /// Where no language is given: see [`said::written_with`].
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        said::text(&self.0, serializer)
    }
}
