//! The register of the kinds of work that are folders of their own: what each changes on the vehicle, and its steps. Here
//! alone they are told apart; whoever needs their steps, parts or bolts asks here.

pub mod brace;
pub mod disconnect;
pub mod links;
pub mod one_piece;
pub mod second_shim;
pub mod splined;
pub mod two_rate;
pub mod y_link;

use self::brace::Brace;
use self::disconnect::Disconnect;
use self::links::Links;
use self::second_shim::SecondShim;
use self::y_link::YLink;
use super::step::KindTask;

/// Something that is changed on the vehicle.
#[derive(Clone, Debug, PartialEq)]
pub enum Change {
    /// A sway bar of one piece is installed.
    OnePiece,
    /// A splined sway bar is.
    Splined,
    /// A sway bar of two rates is, or one with a powered disconnect.
    TwoRate {
        /// Whether its lock is worked by power.
        powered: bool,
    },
    /// The sway links.
    Links(Links),
    /// A pin disconnect.
    Disconnect(Disconnect),
    /// A brace.
    Brace(Brace),
    /// A second shim.
    SecondShim(SecondShim),
    /// A Y-link.
    YLink(YLink),
}

/// A step of one of the kinds.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum KindStep {
    /// Of a sway bar of one piece.
    OnePiece(one_piece::Step),
    /// Of a splined one.
    Splined(splined::Step),
    /// Of one of two rates.
    TwoRate(two_rate::Step),
    /// Of the sway links.
    Links(links::Step),
    /// Of a pin disconnect.
    Disconnect(disconnect::Step),
    /// Of a brace.
    Brace(brace::Step),
    /// Of a second shim.
    SecondShim(second_shim::Step),
    /// Of a Y-link.
    YLink(y_link::Step),
}

impl KindStep {
    /// The key that ticks and orders go by.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::OnePiece(step) => step.key(),
            Self::Splined(step) => step.key(),
            Self::TwoRate(step) => step.key(),
            Self::Links(step) => step.key(),
            Self::Disconnect(step) => step.key(),
            Self::Brace(step) => step.key(),
            Self::SecondShim(step) => step.key(),
            Self::YLink(step) => step.key(),
        }
    }

    /// Whether there is more to say of how it is done.
    #[must_use]
    pub const fn has_how(self) -> bool {
        match self {
            Self::OnePiece(step) => step.has_how(),
            Self::Splined(step) => step.has_how(),
            Self::TwoRate(step) => step.has_how(),
            Self::Links(step) => step.has_how(),
            Self::Disconnect(step) => step.has_how(),
            Self::Brace(step) => step.has_how(),
            Self::SecondShim(step) => step.has_how(),
            Self::YLink(step) => step.has_how(),
        }
    }

    /// Whether it can hurt somebody.
    #[must_use]
    pub const fn has_caution(self) -> bool {
        match self {
            Self::OnePiece(step) => step.has_caution(),
            Self::Splined(step) => step.has_caution(),
            Self::TwoRate(step) => step.has_caution(),
            Self::Links(step) => step.has_caution(),
            Self::Disconnect(step) => step.has_caution(),
            Self::Brace(step) => step.has_caution(),
            Self::SecondShim(step) => step.has_caution(),
            Self::YLink(step) => step.has_caution(),
        }
    }
}

impl Change {
    /// Its steps, in their usual order.
    #[must_use]
    pub fn tasks(&self) -> Vec<KindTask<KindStep>> {
        fn among<S>(tasks: Vec<KindTask<S>>, all: fn(S) -> KindStep) -> Vec<KindTask<KindStep>> {
            tasks.into_iter().map(|task| task.among(all)).collect()
        }
        match self {
            Self::OnePiece => among(one_piece::tasks(), KindStep::OnePiece),
            Self::Splined => among(splined::tasks(), KindStep::Splined),
            Self::TwoRate { .. } => among(two_rate::tasks(), KindStep::TwoRate),
            Self::Links(links) => among(links::tasks(links), KindStep::Links),
            Self::Disconnect(disconnect) => among(disconnect::tasks(*disconnect), KindStep::Disconnect),
            Self::Brace(_) => among(brace::tasks(), KindStep::Brace),
            Self::SecondShim(shim) => among(second_shim::tasks(*shim), KindStep::SecondShim),
            Self::YLink(link) => among(y_link::tasks(*link), KindStep::YLink),
        }
    }
}
