//! In which settings a bar is driven, and how far it is twisted in each: a two-rate bar is firm in bends, and soft where the
//! axle twists as far as it will.

use derecho_core::measure::meaning::ShearIn;
use derecho_core::measure::{Angle, Stress};
use derecho_core::sway::BarRate;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::defaults;
use crate::document::sway::{Sway, SwayKind};

/// How a bar is driven.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Driven {
    /// As it is, wherever the axle goes.
    Everywhere,
    /// Locked, in a bend.
    LockedInABend,
    /// Unlocked, wherever the axle goes.
    Unlocked,
}

impl Driven {
    /// The same in a working.
    pub(crate) const fn meaning(self) -> ShearIn {
        match self {
            Self::Everywhere => ShearIn::Everywhere,
            Self::LockedInABend => ShearIn::Locked,
            Self::Unlocked => ShearIn::Unlocked,
        }
    }
}

/// A bar in one of its settings.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Setting {
    /// How it is driven in it.
    pub(crate) driven: Driven,
    /// Its share of the firm rate, and so of the firm torque.
    pub(crate) share: f64,
    /// The most it is twisted in it.
    pub(crate) twist: Angle,
}

impl Setting {
    /// Shear stress of the bar: the soft spring stands in line with it and carries the same torque.
    pub(crate) fn stress(&self, rate: &BarRate) -> Stress {
        Stress::from_mpa(rate.stress(self.twist).to_mpa() * self.share)
    }
}

/// The share of the firm rate that stays where the bar is driven over everything the axle does; nought for one that is
/// disconnected there.
#[must_use]
pub(crate) fn share_off_road(form: &Sway) -> f64 {
    match form.kind {
        Some(SwayKind::TwoRate) => soft_share(form),
        Some(SwayKind::Powered) => 0.0,
        _ => 1.0,
    }
}

/// A two-rate bar's soft rate over its firm one.
pub(crate) fn soft_share(form: &Sway) -> f64 {
    form.soft_percent.map_or(defaults::TWO_RATE_SHARE, |percent| percent / 100.0)
}

/// The settings a bar is driven in; `bend` is its twist in a hard bend, None where the body's roll is not known.
#[must_use]
pub(crate) fn settings(form: &Sway, worst: Angle, bend: Option<Angle>) -> Vec<Setting> {
    let share = share_off_road(form);
    let locks = matches!(form.kind, Some(SwayKind::TwoRate | SwayKind::Powered));
    let firm = bend.filter(|_| locks).map(|bend| bend.min(worst));
    let firm = firm.map(|twist| Setting { driven: Driven::LockedInABend, share: 1.0, twist });
    let driven = if locks { Driven::Unlocked } else { Driven::Everywhere };
    firm.into_iter().chain([Setting { driven, share, twist: worst }]).collect()
}

/// A bar's twist in a hard bend: the body's roll to the g, and the arms' to the roll.
#[must_use]
pub(crate) fn in_a_bend(road_degrees_per_g: Option<f64>, twist_per_roll: Option<f64>) -> Option<Angle> {
    let (road, per_roll) = road_degrees_per_g.zip(twist_per_roll)?;
    Some(Angle::from_degrees((road * defaults::HARD_BEND_G * per_roll).abs()))
}
