//! How a check came out: the one form in which every stage tells what fits, what does not, and
//! what is not measured yet.

use derecho_core::measure::Phrase;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

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
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct FitCheck {
    /// What is checked.
    pub name: String,
    /// How it came out.
    pub verdict: FitVerdict,
    /// In words.
    pub says: Phrase,
}

/// A check, named.
#[must_use]
pub fn check(name: &str, verdict: FitVerdict, says: Phrase) -> FitCheck {
    FitCheck { name: name.to_owned(), verdict, says }
}
