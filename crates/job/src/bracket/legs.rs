//! How far each leg of a Y-link is turned: sideways, and for the pinion, apart.

use crate::bar::turns::turns_of;
use serde::Serialize;
use utoipa::ToSchema;

use crate::assembly::assemble;
use crate::assembly::named::link_name;
use crate::bracket::message::BracketMessage;
use crate::defaults;
use crate::document::{AxleLocation, Job};
use crate::message::Message;
use crate::tape::SheetResult;
use derecho_core::bar::adjuster::{
    Adjuster, AdjusterKind, EndStyle, ThreadSeat, ThreadedEnd, setting, sleeve,
};
use derecho_core::measure::centring::Answer;
use derecho_core::measure::{Angle, Length};
use derecho_core::pose::legs::{Aim, lengths_for};

/// One leg's change.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LegChange {
    /// Which leg.
    pub name: String,
    /// Its length as measured.
    pub from_mm: Length,
    /// The length it should have.
    pub length_mm: Length,
    /// In words, with turns where its thread is known.
    pub says: Message,
}

/// What one aim asks of both legs.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LegSetting {
    /// What it does.
    pub says: Message,
    /// The left leg, the right leg.
    pub legs: Vec<LegChange>,
}

/// What both legs want: sideways where a sheet that stands says it is off, the pinion where it was read
/// before and after and has turned too far. `turned` is how far its nose went down at the driven height.
pub(super) fn legs(job: &Job, sheets: &[SheetResult], turned: Option<Angle>) -> Vec<LegSetting> {
    if job.rig.axle_location != Some(AxleLocation::YLink) {
        return Vec::new();
    }
    let off = super::fit::newest_centring(job, sheets)
        .filter(|centring| centring.answer == Answer::OffCentre)
        .map(|centring| centring.offset_mm);
    let sideways = off.and_then(|off| set(job, -off, Angle::ZERO)).map(|legs| LegSetting {
        says: BracketMessage::LegsSideways {
            off: off.unwrap_or(Length::ZERO),
            driver: job.rig.steering_side,
        }
        .into(),
        legs,
    });
    let turned = turned.filter(|turned| turned.abs().to_degrees() > defaults::PINION_DEGREES);
    let pinion =
        turned.and_then(|turned| set(job, Length::ZERO, super::fit::nose_down(job, -turned))).map(|legs| {
            LegSetting {
                says: BracketMessage::LegsPinion { turned: turned.unwrap_or(Angle::ZERO) }.into(),
                legs,
            }
        });
    sideways.into_iter().chain(pinion).collect()
}

/// Both legs for the axle moved to the left and pitched by so much from where it stands.
fn set(job: &Job, left: Length, pitch: Angle) -> Option<Vec<LegChange>> {
    let assembly = assemble(job, None).ok()?;
    let mechanism = assembly.mechanism();
    let suspension = mechanism.suspension();
    let first = suspension.links().len().checked_sub(2)?;
    let legs = [first, first + 1];
    let stands = mechanism.at_driven_height().ok()?.solved;
    let aim = Aim { y: stands.pose.y + left, pitch: stands.pose.pitch + pitch };
    let lengths = lengths_for(suspension, legs, Length::from_mm(mechanism.driven()), &stands, aim).ok()?;
    let adjuster = adjuster(job);
    let changes = legs.into_iter().zip(lengths).map(|(leg, length)| {
        let now = suspension.links()[leg].made;
        let turns = adjuster.as_ref().map(|adjuster| setting(adjuster, now, length));
        LegChange {
            name: link_name(&mechanism.members()[leg].name),
            from_mm: now,
            length_mm: length,
            says: BracketMessage::Leg {
                name: link_name(&mechanism.members()[leg].name),
                change: length - now,
                turns: turns.as_ref().and_then(turns_of),
            }
            .into(),
        }
    });
    Some(changes.collect())
}

/// How a leg's length is turned; None where nobody said.
fn adjuster(job: &Job) -> Option<Adjuster> {
    let form = &job.bracket.conversion;
    let thread = form.leg_thread.as_ref()?;
    match form.leg_kind? {
        AdjusterKind::Fixed => None,
        AdjusterKind::Turnbuckle => Some(sleeve(thread)),
        AdjusterKind::OneEnd => Some(Adjuster {
            kind: AdjusterKind::OneEnd,
            first: Some(ThreadedEnd {
                thread: thread.clone(),
                hand: thread.hand(),
                engagement: None,
                shank: None,
                tapped_depth: None,
                seat: ThreadSeat::default(),
                witness: None,
            }),
            second: None,
            end_style: EndStyle::ThroughBolt,
            made_min: None,
            made_max: None,
        }),
    }
}
