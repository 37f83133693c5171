//! How a check came out: the one form in which every stage tells what fits, what does not, and
//! what is not measured yet.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::message::{Label, Message};

/// How a check came out.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FitVerdict {
    /// It fits.
    Good,
    /// It does not.
    Bad,
    /// Not measured yet.
    Open,
}

/// One check.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct FitCheck {
    /// What is checked.
    #[schema(value_type = String)]
    pub name: Label,
    /// How it came out.
    pub verdict: FitVerdict,
    /// What it says.
    pub says: Message,
}

/// A check, named.
#[must_use]
pub fn check(name: impl Into<Label>, verdict: FitVerdict, says: impl Into<Message>) -> FitCheck {
    FitCheck { name: name.into(), verdict, says: says.into() }
}
