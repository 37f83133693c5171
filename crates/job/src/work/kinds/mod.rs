//! The register of the kinds of work: what each changes on the vehicle, and its steps. Here
//! alone they are told apart; whoever needs their steps, parts or bolts asks here.

pub mod bar_swap;
pub mod brace;
pub mod bracket;
pub mod built_bar;
pub mod disconnect;
pub mod drag_link;
pub mod eyes;
pub mod length;
pub mod links;
pub mod one_piece;
pub mod second_shim;
pub mod splined;
pub mod straps;
pub mod tie_rod;
pub mod two_rate;
pub mod y_link;

use self::brace::Brace;
use self::bracket::Bracket;
use self::built_bar::BuiltBar;
use self::disconnect::Disconnect;
use self::drag_link::DragLink;
use self::eyes::Eyes;
use self::length::Length;
use self::links::Links;
use self::second_shim::SecondShim;
use self::splined::Splined;
use self::straps::Straps;
use self::tie_rod::TieRod;
use self::y_link::YLink;
use super::step::KindTask;

/// Something that is changed on the vehicle.
#[derive(Clone, Debug, PartialEq)]
pub enum Change {
    /// The track bar's length.
    Length(Length),
    /// Its eyes, unbolted and bolted.
    Eyes(Eyes),
    /// A bracket.
    Bracket(Bracket),
    /// A bar built to its gap.
    BuiltBar(BuiltBar),
    /// A bar in place of the old one.
    BarSwap,
    /// The drag link.
    DragLink(DragLink),
    /// A sway bar of one piece is installed.
    OnePiece,
    /// A splined sway bar is.
    Splined(Splined),
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
    /// Limit straps.
    Straps(Straps),
    /// The tie rod.
    TieRod(TieRod),
    /// A Y-link.
    YLink(YLink),
}

/// A step of one of the kinds.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum KindStep {
    /// Of a bar in place of the old one.
    BarSwap(bar_swap::Step),
    /// Of a bracket.
    Bracket(bracket::Step),
    /// Of a bar built to its gap.
    BuiltBar(built_bar::Step),
    /// Of the drag link.
    DragLink(drag_link::Step),
    /// Of the track bar's eyes.
    Eyes(eyes::Step),
    /// Of its length.
    Length(length::Step),
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
    /// Of limit straps.
    Straps(straps::Step),
    /// Of the tie rod.
    TieRod(tie_rod::Step),
    /// Of a Y-link.
    YLink(y_link::Step),
}

impl KindStep {
    /// The key that ticks and orders go by.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::BarSwap(step) => step.key(),
            Self::Bracket(step) => step.key(),
            Self::BuiltBar(step) => step.key(),
            Self::DragLink(step) => step.key(),
            Self::Eyes(step) => step.key(),
            Self::Length(step) => step.key(),
            Self::OnePiece(step) => step.key(),
            Self::Splined(step) => step.key(),
            Self::TwoRate(step) => step.key(),
            Self::Links(step) => step.key(),
            Self::Disconnect(step) => step.key(),
            Self::Brace(step) => step.key(),
            Self::SecondShim(step) => step.key(),
            Self::Straps(step) => step.key(),
            Self::TieRod(step) => step.key(),
            Self::YLink(step) => step.key(),
        }
    }

    /// Whether there is more to say of how it is done.
    #[must_use]
    pub const fn has_how(self) -> bool {
        match self {
            Self::BarSwap(step) => step.has_how(),
            Self::Bracket(step) => step.has_how(),
            Self::BuiltBar(step) => step.has_how(),
            Self::DragLink(step) => step.has_how(),
            Self::Eyes(step) => step.has_how(),
            Self::Length(step) => step.has_how(),
            Self::OnePiece(step) => step.has_how(),
            Self::Splined(step) => step.has_how(),
            Self::TwoRate(step) => step.has_how(),
            Self::Links(step) => step.has_how(),
            Self::Disconnect(step) => step.has_how(),
            Self::Brace(step) => step.has_how(),
            Self::SecondShim(step) => step.has_how(),
            Self::Straps(step) => step.has_how(),
            Self::TieRod(step) => step.has_how(),
            Self::YLink(step) => step.has_how(),
        }
    }

    /// Whether it can hurt somebody.
    #[must_use]
    pub const fn has_caution(self) -> bool {
        match self {
            Self::BarSwap(step) => step.has_caution(),
            Self::Bracket(step) => step.has_caution(),
            Self::BuiltBar(step) => step.has_caution(),
            Self::DragLink(step) => step.has_caution(),
            Self::Eyes(step) => step.has_caution(),
            Self::Length(step) => step.has_caution(),
            Self::OnePiece(step) => step.has_caution(),
            Self::Splined(step) => step.has_caution(),
            Self::TwoRate(step) => step.has_caution(),
            Self::Links(step) => step.has_caution(),
            Self::Disconnect(step) => step.has_caution(),
            Self::Brace(step) => step.has_caution(),
            Self::SecondShim(step) => step.has_caution(),
            Self::Straps(step) => step.has_caution(),
            Self::TieRod(step) => step.has_caution(),
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
            Self::Length(length) => among(length::tasks(*length), KindStep::Length),
            Self::Eyes(eyes) => among(eyes::tasks(eyes), KindStep::Eyes),
            Self::Bracket(bracket) => among(bracket::tasks(*bracket), KindStep::Bracket),
            Self::BuiltBar(bar) => among(built_bar::tasks(*bar), KindStep::BuiltBar),
            Self::BarSwap => among(bar_swap::tasks(), KindStep::BarSwap),
            Self::DragLink(link) => among(drag_link::tasks(*link), KindStep::DragLink),
            Self::OnePiece => among(one_piece::tasks(), KindStep::OnePiece),
            Self::Splined(splined) => among(splined::tasks(*splined), KindStep::Splined),
            Self::TwoRate { .. } => among(two_rate::tasks(), KindStep::TwoRate),
            Self::Links(links) => among(links::tasks(links), KindStep::Links),
            Self::Disconnect(disconnect) => among(disconnect::tasks(*disconnect), KindStep::Disconnect),
            Self::Brace(_) => among(brace::tasks(), KindStep::Brace),
            Self::SecondShim(shim) => among(second_shim::tasks(*shim), KindStep::SecondShim),
            Self::Straps(_) => among(straps::tasks(), KindStep::Straps),
            Self::TieRod(tie_rod) => among(tie_rod::tasks(*tie_rod), KindStep::TieRod),
            Self::YLink(link) => among(y_link::tasks(*link), KindStep::YLink),
        }
    }
}
