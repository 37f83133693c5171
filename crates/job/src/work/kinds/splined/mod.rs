//! A splined sway bar: both mounts on and loose, the bar through and even, the mounts tight, both arms on the same spline,
//! pinched, held. In place of mounts it may run in tubes that are welded through the frame rails.

use derecho_core::measure::Length;

use crate::work::rules::Rule;
use crate::work::step::{Condition, KindTask, Phase};

/// How it is installed.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Splined {
    /// The tubes it runs in; None with mounts that are bolted on.
    pub tubes: Option<Tubes>,
}

/// Tubes welded through both frame rails.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Tubes {
    /// Outside diameter of a tube.
    pub outside: Option<Length>,
    /// Centre of its hole below the rail's top edge.
    pub below_edge: Option<Length>,
    /// And from the cross-member.
    pub from_cross_member: Option<Length>,
    /// Whether plates go on the rails' inner sides.
    pub inner_plates: bool,
}

/// A step of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// The old bar comes off.
    OldOff,
    /// The tubes' holes marked on both rails.
    TubesMarked,
    /// And sawn.
    TubesSawn,
    /// Both tubes tacked, the bar through them.
    TubesTacked,
    /// Both welded out, the bar out of them.
    TubesWelded,
    /// Cold, coated, the bar tried in them.
    TubesCold,
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
            Self::TubesMarked => "sway/tubes-marked",
            Self::TubesSawn => "sway/tubes-sawn",
            Self::TubesTacked => "sway/tubes-tacked",
            Self::TubesWelded => "sway/tubes-welded",
            Self::TubesCold => "sway/tubes-cold",
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
        matches!(self, Self::OldOff | Self::ArmsOn | Self::TubesSawn | Self::TubesTacked | Self::TubesWelded)
    }
}

/// Its steps.
pub(super) fn tasks(splined: Splined) -> Vec<KindTask<Step>> {
    let old_off = KindTask::new(Step::OldOff, Phase::Undo)
        .undoes()
        .once(Condition::LinksOff, Rule::OutOfTheWay)
        .gives(Condition::SwayBarOff);
    let held = if splined.tubes.is_some() { in_tubes() } else { in_mounts() };
    std::iter::once(old_off).chain(held).chain(arms()).collect()
}

fn in_mounts() -> Vec<KindTask<Step>> {
    vec![
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
    ]
}

/// The bar lines the tubes up while they are tacked, and is out of the way while they are welded.
fn in_tubes() -> Vec<KindTask<Step>> {
    vec![
        KindTask::new(Step::TubesMarked, Phase::Make).undoes().once(Condition::SwayBarOff, Rule::OutOfTheWay),
        KindTask::new(Step::TubesSawn, Phase::Make).after(Step::TubesMarked, Rule::SetFirst),
        KindTask::new(Step::TubesTacked, Phase::Make)
            .after(Step::TubesSawn, Rule::DrilledFirst)
            .once(Condition::BatteryOff, Rule::BatteryOff)
            .gives(Condition::Welded),
        KindTask::new(Step::TubesWelded, Phase::Make)
            .after(Step::TubesTacked, Rule::TackFirst)
            .once(Condition::BatteryOff, Rule::BatteryOff)
            .gives(Condition::Welded),
        KindTask::new(Step::TubesCold, Phase::Make).after(Step::TubesWelded, Rule::ColdFirst),
        KindTask::new(Step::Bushings, Phase::Hang).after(Step::TubesCold, Rule::ColdFirst),
        KindTask::new(Step::BarThrough, Phase::Hang).after(Step::Bushings, Rule::GreasedFirst),
        KindTask::new(Step::StickOut, Phase::Hang).after(Step::BarThrough, Rule::HungFirst),
    ]
}

fn arms() -> Vec<KindTask<Step>> {
    vec![
        KindTask::new(Step::ArmsOn, Phase::Hang)
            .after(Step::StickOut, Rule::StickOutFirst)
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
