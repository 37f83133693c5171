//! How the planned bar's length is set, and what was set held against what was wanted.

use crate::bar::turns::bench_says;
use crate::bar::turns::exactly;
use crate::bar::turns::turns_say;
use derecho_core::bar::adjuster::{Adjuster, AdjusterKind, Setting, Verdict, setting_within};
use derecho_core::measure::Length;
use serde::Serialize;
use utoipa::ToSchema;

use crate::bar::message::BarMessage;
use crate::defaults;
use crate::document::Round;
use crate::message::Message;
use crate::setups::{BarState, Setups, Wanted};

/// A bar set on the bench before it is hung.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct BenchSetting {
    /// Its length with both ends screwed right in.
    pub fully_in_mm: Length,
    /// Its length to set, eye to eye: what the nearest step makes.
    pub set_mm: Length,
    /// That, less the length of the bar that comes out.
    pub against_old_mm: Length,
    /// Least thread that stays in at any end, where it is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub thread_in_mm: Option<Length>,
    /// The order of work, a sentence each.
    pub says: Vec<Message>,
}

/// How to set the length, in facts and in words.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SettingResult {
    /// The facts.
    #[serde(flatten)]
    pub facts: Setting,
    /// What comes of it.
    pub says: Message,
    /// The turns in words, where turning alone reaches the length.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub turns_say: Option<Message>,
    /// The turns to hundredths of a flat.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub exactly: Option<Message>,
    /// On the bench, where a bar comes new out of its box.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bench: Option<BenchSetting>,
}

/// How the bar of the plan is brought to its length.
#[must_use]
pub fn setting_of(setups: &Setups, wanted: &Wanted, bar: &BarState, adjuster: &Adjuster) -> SettingResult {
    let slack = wanted.length_tolerance(setups.reach_tolerance());
    // A fixed bar stays as it is wherever its own length was found good enough.
    let facts = setting_within(adjuster, bar.length, wanted.length, slack);
    let old = setups.base.view.length();
    let bench = (bar.fully_in && facts.verdict.reaches() && facts.turns.is_some()).then(|| {
        let set = facts.achieved_length_mm.unwrap_or(wanted.length);
        let thread = facts.ends.iter().filter_map(|end| end.engagement_after_mm).reduce(Length::min);
        // One figure everywhere: the step and the answer name the length that is wanted.
        let named = if (set - wanted.length).abs() <= defaults::AS_WANTED { wanted.length } else { set };
        BenchSetting {
            fully_in_mm: bar.length,
            set_mm: set,
            against_old_mm: set - old,
            thread_in_mm: thread,
            says: bench_says(&facts, named, named - old, thread),
        }
    });
    let exact = wanted.recentring.length_mm;
    let ends =
        adjuster.kind != AdjusterKind::Fixed && facts.verdict.reaches() && wanted.offset != Length::ZERO;
    SettingResult {
        says: if ends && wanted.length != exact {
            BarMessage::ThreadEnds { set: wanted.length, exact, off: wanted.offset }.into()
        } else {
            BarMessage::SettingSays { setting: Box::new(facts.clone()) }.into()
        },
        turns_say: turns_say(&facts),
        exactly: exactly(&facts),
        bench,
        facts,
    }
}

/// A length that was set, against the one that was wanted.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SetCheck {
    /// The length set.
    pub length_mm: Length,
    /// Set less wanted.
    pub differs_mm: Length,
    /// Whether the wanted length has moved since it was set.
    pub wanted_moved: bool,
    /// Where the axle should be now, + left.
    pub predicted_offset_mm: Length,
    /// Whether the thread that is in breaks a rule: the bar must not stay so.
    pub thread_broken: bool,
    /// In words.
    pub says: Message,
}

/// What was set in the round that is shown, and not read again.
#[must_use]
pub(super) fn set_check(setups: &Setups, made: &Round) -> SetCheck {
    let fitted = &setups.fitted;
    let length = fitted.view.length();
    let wanted = setups.wanted.as_ref().map_or(setups.plan.view.length(), |wanted| wanted.length);
    let moved =
        made.wanted_mm.is_some_and(|then| (Length::from_mm(then) - wanted).abs() > defaults::AS_WANTED);
    let faults = fitted.bar.thread_faults();
    SetCheck {
        length_mm: length,
        differs_mm: length - wanted,
        wanted_moved: moved,
        predicted_offset_mm: fitted.offset,
        thread_broken: !faults.is_empty(),
        says: BarMessage::SetSays {
            length,
            wants_now: moved.then_some(wanted),
            offset: fitted.offset,
            fault: faults.first().copied(),
        }
        .into(),
    }
}

/// Whether a setting's verdict leaves the bar where a person can follow it.
#[must_use]
pub const fn can_be_followed(verdict: Verdict) -> bool {
    matches!(
        verdict,
        Verdict::Fits | Verdict::AsItIs | Verdict::EvenEnds | Verdict::ThreadMissing | Verdict::HandsMissing
    )
}
