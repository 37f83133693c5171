//! Names beside what the keys of gates hold of them.

use super::message::{BoltUpMessage, FastenerName};
use crate::message::Label;

/// Something with a name, and how the keys of gates have it.
#[derive(Clone, Debug, PartialEq)]
pub struct Named {
    /// As the keys of gates have it.
    pub in_gate_keys: String,
    /// As people read it.
    pub name: Label,
}

impl From<FastenerName> for Named {
    fn from(name: FastenerName) -> Self {
        Self { in_gate_keys: name.in_gate_keys(), name: BoltUpMessage::Fastener(name).into() }
    }
}
