//! Lengths, preload and disconnects, checked; the old bar beside the new one.

use crate::message::{Label, Message};
use crate::sway::message::{SwayCheck, SwayMessage};
use serde::Serialize;
use utoipa::ToSchema;

use crate::defaults;
use crate::document::sway::{PinForm, SwayKind};
use crate::document::{Job, length_of};
use crate::sway::links::SwayLinks;
use crate::sway::places::Places;
use crate::sway::rates::bending_arm;
use crate::sway::road_and_trail::Base;
use crate::sway::stow::StowResult;
use crate::verdict::{self, FitCheck, FitVerdict};
use derecho_core::measure::{Angle, AngleEntry, Length, RollRate, SpringRate};
use derecho_core::sway::BarRate;
use derecho_core::sway::splined::{least_length, mass};

/// Splined bar, mass, arms against stroke, preload, in words.
pub(crate) fn fit_says(
    job: &Job,
    links: &SwayLinks,
    base: &Base,
    rate: &BarRate,
    bar: RollRate,
) -> Vec<Message> {
    let mut says = Vec::new();
    if job.sway.kind == Some(SwayKind::Splined)
        && let Some(frame) = length_of(&job.rig.frame_width)
    {
        says.push(SwayMessage::SplinedBar { least: least_length(frame), frame }.into());
    }
    if job.sway.diameter.is_some() && job.sway.active_length.is_some() {
        // The arms of a one-piece bar are of the same stock.
        let arms = rate.bending_arm.map_or(Length::ZERO, |arm| arm * 2.0);
        let kilograms = mass(rate.outside, rate.bore, rate.active + arms);
        says.push(SwayMessage::BarWeighs { mass: kilograms }.into());
    }
    if let Some(stroke) = length_of(&job.sway.shock_stroke) {
        let alike = (links.arm_mm - stroke).abs() <= stroke * defaults::LIKE_STROKE;
        says.push(SwayMessage::ArmAndStroke { arm: links.arm_mm, stroke, alike }.into());
    }
    preload(job, base, rate, bar, &mut says);
    says
}

fn preload(job: &Job, base: &Base, rate: &BarRate, bar: RollRate, says: &mut Vec<Message>) {
    let longer = length_of(&job.sway.left_longer).unwrap_or(Length::ZERO);
    let wanted = job.sway.preload_wanted;
    if longer != Length::ZERO {
        let change = base.preload(rate, longer, bar).abs();
        let form = &job.vehicle;
        let corners = form
            .left_corner
            .as_ref()
            .map(|corner| corner.mass().weight())
            .zip(form.right_corner.as_ref().map(|corner| corner.mass().weight()));
        says.push(SwayMessage::Preload { longer, change, corners, wanted }.into());
    } else if wanted {
        says.push(SwayMessage::PreloadOfLikeLinks.into());
    }
    let slope = job.rig.floor_slope.as_ref().map_or(0.0, |slope| slope.angle().to_degrees());
    if slope.abs() > defaults::LEVEL_DEGREES {
        says.push(SwayMessage::FloorLeans { degrees: slope.abs() }.into());
    }
}

fn check(name: SwayCheck, good: bool, says: Message) -> FitCheck {
    let verdict = if good { FitVerdict::Good } else { FitVerdict::Bad };
    verdict::check(SwayMessage::CheckName(name), verdict, says)
}

/// Pins, stowing, parking on a slope.
pub(crate) fn disconnects(
    job: &Job,
    places: &Places,
    (base, rate): (&Base, &BarRate),
    stowed: Option<&StowResult>,
) -> Vec<FitCheck> {
    let pins = &job.sway.pins;
    let mut checks = pin_parts(pins);
    if let Some(stowed) = stowed {
        checks.push(check(SwayCheck::StowedWorkedOut, stowed.clear, stowed.says.clone()));
    }
    let off = |difference: Length| {
        let pull = rate.effective() * Angle::from_radians(difference.abs() / rate.arm) / rate.arm;
        (pull, difference.abs() <= defaults::PIN_CHAMFER || pull <= defaults::HAND)
    };
    if let Some(difference) = length_of(&pins.parked_difference) {
        let (pull, goes_in) = off(difference);
        let says = SwayMessage::Parked { difference, pull, goes_in }.into();
        checks.push(check(SwayCheck::PinsParked, goes_in, says));
    }
    if let Some(slope) = pins.parked_slope.as_ref().map(AngleEntry::angle)
        && let Some(lean) = base.lean_on_slope(slope)
    {
        // Eye to eye across the vehicle the two sides differ by the lean over their spacing.
        let spacing = Length::from_mm(2.0 * places.far.y.abs());
        let difference = spacing * lean.abs().to_radians();
        let (pull, goes_in) = off(difference);
        let hand = rate.arm * ((defaults::HAND * rate.arm).to_nmm() / rate.effective().to_nmm_per_radian());
        let allowed = hand.max(defaults::PIN_CHAMFER).to_mm()
            / (difference.to_mm() / slope.abs().to_degrees()).max(1e-9);
        let up_to = (!goes_in).then_some(allowed);
        let says = SwayMessage::ParkedOnSlope { slope, lean, difference, pull, up_to }.into();
        checks.push(check(SwayCheck::PinsOnSlope, goes_in, says));
    }
    checks
}

/// The parts of a pin disconnect against each other: no place of the bar is asked for.
pub(crate) fn pin_parts(pins: &PinForm) -> Vec<FitCheck> {
    let mut checks = Vec::new();
    if let (Some(bore), Some(stud)) = (length_of(&pins.eye_bore), length_of(&pins.stud)) {
        let play = bore - stud;
        let good = play >= Length::ZERO && play <= Length::from_mm(0.8);
        let says = SwayMessage::Stud { play }.into();
        checks.push(check(SwayCheck::Stud, good, says));
    }
    if let (Some(stud), Some(nut)) = (&pins.stud_thread, &pins.nut_thread) {
        let same = (stud.diameter() - nut.diameter()).abs() < Length::from_mm(0.05)
            && (stud.pitch() - nut.pitch()).abs() < Length::from_mm(0.01);
        checks.push(check(
            SwayCheck::StudNut,
            same,
            SwayMessage::Nut { stud: stud.clone(), nut: nut.clone(), same }.into(),
        ));
    }
    if let Some(reaches) = pins.hand_reaches {
        checks.push(check(SwayCheck::PinSide, reaches, SwayMessage::PinSide { reaches }.into()));
    }
    if let Some(room) = length_of(&pins.stowed_room) {
        let says = SwayMessage::StowedRoom { room }.into();
        checks.push(check(SwayCheck::StowedTaped, room >= defaults::LEAST_LEFT, says));
    }
    checks
}

/// A shim or plate under one clamp alone: the bar's axis leans.
pub(crate) fn shim(job: &Job, rate: &BarRate) -> Option<FitCheck> {
    let form = &job.sway;
    let thick = length_of(&form.shim)?;
    let name = SwayMessage::CheckName(SwayCheck::Shim);
    let Some(between) = length_of(&form.bush_spacing).filter(|between| *between > Length::ZERO) else {
        return Some(verdict::check(name, FitVerdict::Open, SwayMessage::ShimUnmeasured));
    };
    let lean = Angle::from_radians((thick / between).atan());
    // The eyes stand further out than the clamps: what one gains in height grows with it.
    let apart = thick * (rate.half_spacing * 2.0 / between);
    Some(verdict::check(
        name,
        FitVerdict::Bad,
        SwayMessage::Shim { thick, lean, apart, side: form.shim_side },
    ))
}

/// A bar in the table of old and new.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct BarRow {
    /// Which.
    #[schema(value_type = String)]
    pub name: Label,
    /// Outside diameter.
    pub outside_mm: Length,
    /// Bore; nought is solid.
    pub bore_mm: Length,
    /// From the axis to the link's eye.
    pub arm_mm: Length,
    /// Force at one link for so much travel of both, opposite ways, N/mm.
    pub link_rate_n_per_mm: f64,
    /// The same in words.
    pub link_rate_says: Message,
    /// Mass without what hangs on it, kg.
    pub mass_kg: f64,
    /// Against the old bar: its rate at the links over the old one's.
    pub against_old: f64,
}

/// The old bar beside the new one; empty where nobody said how thick the old one was.
pub(crate) fn old_and_new(job: &Job, rate: &BarRate) -> Vec<BarRow> {
    let old = &job.sway.old_bar;
    let Some(outside) = length_of(&old.diameter) else { return Vec::new() };
    let arm = length_of(&old.arm).unwrap_or(rate.arm);
    let before = BarRate {
        outside,
        bore: length_of(&old.bore).unwrap_or(Length::ZERO),
        active: length_of(&old.active_length).unwrap_or(rate.active),
        arm,
        bending_arm: bending_arm(old.kind.or(Some(SwayKind::OnePiece)), arm),
        ..*rate
    };
    let at_link = |bar: &BarRate| {
        SpringRate::from_n_per_mm(2.0 * bar.effective().to_nmm_per_radian() / bar.arm.to_mm().powi(2))
    };
    let row = |old: bool, bar: &BarRate| {
        let arms = bar.bending_arm.map_or(Length::ZERO, |arm| arm * 2.0);
        BarRow {
            name: SwayMessage::BarRow { old }.into(),
            outside_mm: bar.outside,
            bore_mm: bar.bore,
            arm_mm: bar.arm,
            link_rate_n_per_mm: at_link(bar).to_n_per_mm(),
            link_rate_says: SwayMessage::LinkRate { rate: at_link(bar) }.into(),
            mass_kg: mass(bar.outside, bar.bore, bar.active + arms).to_kg(),
            against_old: at_link(bar) / at_link(&before),
        }
    };
    vec![row(true, &before), row(false, rate)]
}
