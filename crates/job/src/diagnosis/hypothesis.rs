//! What may be the matter, with its share.

use super::tables;
use crate::document::ComplaintAbout;
use crate::document::diagnosis::{QuickCheck, Suspect};

/// What may be the matter: nothing, one fault, or two.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Hypothesis {
    pub(super) faults: [Option<Suspect>; 2],
    pub(super) share: f64,
}

impl Hypothesis {
    pub(super) fn has(&self, suspect: Suspect) -> bool {
        self.faults.contains(&Some(suspect))
    }

    /// How likely a check shows what it looks for: either fault may show.
    pub(super) fn shows(&self, check: QuickCheck) -> f64 {
        either(self.faults, |fault| tables::shows(fault, check))
    }

    /// How likely its driver complains of that, where `known` is how likely he does by what is known anyway.
    pub(super) fn complains(&self, about: ComplaintAbout, known: f64) -> f64 {
        1.0 - (1.0 - known) * (1.0 - either(self.faults, |fault| tables::complains(fault, about)))
    }
}

fn either([one, other]: [Option<Suspect>; 2], chance: impl Fn(Option<Suspect>) -> f64) -> f64 {
    match (one, other) {
        (_, None) => chance(one),
        (Some(_), Some(_)) => 1.0 - (1.0 - chance(one)) * (1.0 - chance(other)),
        (None, Some(_)) => chance(other),
    }
}

/// How likely a suspect is, alone or with another.
pub(super) fn share_of(hypotheses: &[Hypothesis], suspect: Suspect) -> f64 {
    hypotheses.iter().filter(|one| one.has(suspect)).map(|one| one.share).sum()
}
