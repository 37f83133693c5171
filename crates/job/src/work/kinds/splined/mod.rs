//! A splined sway bar: both mounts on and loose, the bar through and even, the mounts tight, both arms on the same spline,
//! pinched, held.

use crate::work::rules::Rule;
use crate::work::step::{Condition, KindTask, Phase};

/// A step of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// The old bar comes off.
    OldOff,
    /// Both mounts on, their bolts loose.
    MountsOn,
    /// Their bores greased.
    Bushings,
    /// The bar through both.
    BarThrough,
    /// Equal stick-out.
    StickOut,
    /// Both mounts tight.
    MountsTight,
    /// Both arms on the same spline.
    ArmsOn,
    /// Both arms at the same angle.
    ArmsAlike,
    /// Pinch bolts.
    Pinch,
    /// What keeps the arms on the bar.
    Retaining,
}

impl Step {
    /// The key that ticks and orders go by.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::OldOff => "sway/old-off",
            Self::MountsOn => "sway/mounts-on",
            Self::Bushings => "sway/bushings",
            Self::BarThrough => "sway/bar-through",
            Self::StickOut => "sway/stick-out",
            Self::MountsTight => "sway/mounts",
            Self::ArmsOn => "sway/arms-on",
            Self::ArmsAlike => "sway/arms-alike",
            Self::Pinch => "sway/pinch",
            Self::Retaining => "sway/retaining",
        }
    }

    /// Whether there is more to say of how it is done.
    pub(super) const fn has_how(self) -> bool {
        !matches!(self, Self::Pinch)
    }

    /// Whether it can hurt somebody.
    pub(super) const fn has_caution(self) -> bool {
        matches!(self, Self::OldOff | Self::ArmsOn)
    }
}

/// Its steps.
pub(super) fn tasks() -> Vec<KindTask<Step>> {
    vec![
        KindTask::new(Step::OldOff, Phase::Undo)
            .undoes()
            .once(Condition::LinksOff, Rule::OutOfTheWay)
            .gives(Condition::SwayBarOff),
        KindTask::new(Step::MountsOn, Phase::Hang)
            .undoes()
            .once(Condition::SwayBarOff, Rule::OutOfTheWay)
            .starts(&["sway/first-mount", "sway/second-mount"]),
        KindTask::new(Step::Bushings, Phase::Hang).once(Condition::SwayBarOff, Rule::OutOfTheWay),
        KindTask::new(Step::BarThrough, Phase::Hang)
            .after(Step::MountsOn, Rule::HungFirst)
            .after(Step::Bushings, Rule::GreasedFirst),
        KindTask::new(Step::StickOut, Phase::Hang).after(Step::BarThrough, Rule::HungFirst),
        KindTask::new(Step::MountsTight, Phase::Hang)
            .after(Step::StickOut, Rule::StickOutFirst)
            .once(Condition::ShimIn, Rule::HungFirst)
            .gives(Condition::SwayBarTight)
            .tightens(&["sway/first-mount", "sway/second-mount"]),
        KindTask::new(Step::ArmsOn, Phase::Hang)
            .after(Step::MountsTight, Rule::TightFirst)
            .gives(Condition::SwayBarHung)
            .starts(&["sway/pinch"]),
        KindTask::new(Step::ArmsAlike, Phase::OnItsWeight)
            .after(Step::ArmsOn, Rule::HungFirst)
            .once(Condition::OnItsWeight, Rule::OnItsWeight)
            .once(Condition::LinksHung, Rule::HandFirst)
            .on_its_weight(),
        KindTask::new(Step::Pinch, Phase::OnItsWeight)
            .after(Step::ArmsAlike, Rule::AnglesFirst)
            .gives(Condition::ArmsSet)
            .tightens(&["sway/pinch"]),
        KindTask::new(Step::Retaining, Phase::OnItsWeight)
            .after(Step::Pinch, Rule::TightFirst)
            .tightens(&["sway/retaining"]),
    ]
}
