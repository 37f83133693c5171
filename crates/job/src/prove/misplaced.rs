//! An eye that sits elsewhere than its bracket was planned, from how much further or less far the axle came than was
//! predicted. Sideways the axle follows its eye; up or down by the bar's slope. An angle finder on the bar tells the two
//! apart. Offered, never taken for granted: a person measures it and says so, then it is where the eye is.
//!
//! Not here: other reasons for such a movement (`cause`), what the place does to the bar's length (`setups`).

use derecho_core::bar::FrontView;
use derecho_core::measure::print::{self, Style};
use derecho_core::measure::{Angle, AngleEntry, Length, TapeEntry, Unit};
use derecho_core::parts::BracketEnd;
use serde::Serialize;
use utoipa::ToSchema;

use super::cause::Moved;
use super::message::ProveMessage;
use crate::document::{EyeOff, Job};
use crate::message::Message;
use crate::setups::Setups;
use crate::setups::moves::side_of;

/// A bracket further from its place than this is seen by eye, and is no explanation.
const FURTHEST: Length = Length::from_mm(60.0);
/// What an angle finder on the bar is good to, U.
const FINDER_GOOD_TO_DEGREES: f64 = 0.4;
/// A bar nearer to level than this moves the axle too little to tell how far up an eye is.
const LEAST_SLOPE: f64 = 0.05;

/// A place where an eye may really sit, which explains how the axle moved.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Misplaced {
    /// Which eye.
    pub end: BracketEnd,
    /// The round in which it was moved there.
    pub round: usize,
    /// Its place among the eyes moved in that round.
    pub moved: usize,
    /// How far from where it was to go, as it would be written.
    pub off: EyeOff,
    /// What that is good to, U.
    pub uncertainty_mm: Length,
    /// What an angle finder would read on the bar, without a sign, were the eye there.
    pub bar_angle_deg: Angle,
    /// Whether it was read on the bar: then nothing else fits as well.
    pub by_angle: bool,
    /// In words.
    pub says: Message,
}

/// An eye's place in mm, up and to the left of where it was to go, with what it is good to and whether an angle says so.
#[derive(Clone, Copy)]
struct Place {
    up: Length,
    left: Length,
    uncertainty: Length,
    by_angle: bool,
}

/// Where an eye may sit that was moved since the axle was read last; nothing where the axle moved as predicted.
#[must_use]
pub(super) fn misplaced(job: &Job, setups: &Setups, movement: &Moved, before_round: usize) -> Vec<Misplaced> {
    if movement.agrees {
        return Vec::new();
    }
    let rounds = job.setups.axle_rounds();
    let since = || rounds[before_round..].iter().rev();
    [BracketEnd::Frame, BracketEnd::Axle]
        .into_iter()
        .filter_map(|end| {
            let moved_in = since().find_map(|(round, made)| {
                Some((*round, made.moved.iter().rposition(|moved| moved.end == end)?))
            })?;
            Some((end, moved_in))
        })
        .flat_map(|(end, (round, moved))| {
            let places = places(job, setups, movement, end);
            places.into_iter().filter_map(move |place| candidate(job, setups, place, (end, round, moved)))
        })
        .collect()
}

fn places(job: &Job, setups: &Setups, movement: &Moved, end: BracketEnd) -> Vec<Place> {
    let view = &setups.fitted.view;
    let further = movement.measured - movement.predicted;
    // The axle goes with its frame eye, and away from where its axle eye sits on it.
    let sign = if end == BracketEnd::Frame { 1.0 } else { -1.0 };
    let good_to = movement.uncertainty;
    let read = job.proof.looked_at.bar_angle.as_ref().map(AngleEntry::angle);
    if let Some(place) =
        read.and_then(|read| by_angle(view, (read.abs(), job.rig.sheet_unit), (further, good_to), sign))
    {
        return vec![place];
    }
    let sideways = Place { up: Length::ZERO, left: further * sign, uncertainty: good_to, by_angle: false };
    [Some(sideways), by_height(view, (further, good_to), sign)].into_iter().flatten().collect()
}

/// The eye higher or lower alone: the rise v″ at which the bar reaches h″ = h − s·m, m further to the left,
/// v″² = h² + v² − h″², on the side of level where the bar is.
fn by_height(view: &FrontView, (further, good_to): (Length, Length), sign: f64) -> Option<Place> {
    let (h, v) = (view.reach().to_mm(), view.rise().to_mm());
    let reach = h - view.frame_eye_side().sign() * further.to_mm();
    let squared = h.mul_add(h, v * v) - reach * reach;
    let rise = (squared >= 0.0).then(|| squared.sqrt().copysign(v))?;
    let slope = (rise.abs().max(v.abs())) / h;
    if slope < LEAST_SLOPE {
        return None;
    }
    let up = Length::from_mm(rise - v) * sign;
    Some(Place { up, left: Length::ZERO, uncertainty: good_to / slope, by_angle: false })
}

/// Both ways, from the angle that was read: the angle says how far up or down, and what is left of the movement how far
/// sideways.
fn by_angle(
    view: &FrontView,
    (read, unit): (Angle, Unit),
    (further, good_to): (Length, Length),
    sign: f64,
) -> Option<Place> {
    let (h, v) = (view.reach().to_mm(), view.rise().to_mm());
    let flat = h.hypot(v);
    let rise = (flat * read.sin()).copysign(v);
    let angle_good_to = Length::from_mm(flat * read.cos() * FINDER_GOOD_TO_DEGREES.to_radians());
    let off = Length::from_mm(rise - v);
    let off = if off.abs() <= angle_good_to { Length::ZERO } else { rounded(off, unit) };
    let there = view.moved(view.length(), off, Length::ZERO).ok()?;
    let explained = (view.reach() - there.reach()) * view.frame_eye_side().sign();
    let left = (further - explained) * sign;
    // What is left within what the movement is good to is nothing to write down.
    let left = if left.abs() <= good_to { Length::ZERO } else { left };
    let uncertainty = if off == Length::ZERO { good_to } else { angle_good_to };
    Some(Place { up: off * sign, left, uncertainty, by_angle: true })
}

fn candidate(
    job: &Job,
    setups: &Setups,
    Place { up, left, uncertainty, by_angle }: Place,
    (end, round, moved): (BracketEnd, usize, usize),
) -> Option<Misplaced> {
    let far = up.abs().max(left.abs());
    if far <= uncertainty || far > FURTHEST {
        return None;
    }
    let view = &setups.fitted.view;
    let sign = if end == BracketEnd::Frame { 1.0 } else { -1.0 };
    let there = view.moved(view.length(), up * sign, Length::ZERO).ok()?;
    let outward = left * side_of(end, setups.known.side).sign();
    let written = |length: Length| typed(length, job.rig.sheet_unit);
    let off = EyeOff { up: written(up), outward: written(outward), forward: None };
    let bar_angle_deg = there.angle().abs();
    let says = ProveMessage::Misplaced { end, up, outward, uncertainty, angle: bar_angle_deg, by_angle };
    Some(Misplaced {
        end,
        round,
        moved,
        off,
        uncertainty_mm: uncertainty,
        bar_angle_deg,
        by_angle,
        says: says.into(),
    })
}

/// As a person would type it on a sheet in that unit; None for nothing.
fn typed(length: Length, unit: Unit) -> Option<TapeEntry> {
    let length = rounded(length, unit);
    let style = match unit {
        Unit::Inches => Style::Sixteenths,
        Unit::Millimetres => Style::HalfMillimetres,
    };
    let text = print::written(length, style);
    let number = text.trim_end_matches(['"', 'm', ' ']);
    (length != Length::ZERO).then(|| TapeEntry::parse(number, unit).ok()).flatten()
}

/// As a person would write it who measured it: to a sixteenth of an inch or a millimetre.
fn rounded(length: Length, unit: Unit) -> Length {
    let step = match unit {
        Unit::Inches => Length::from_mm(25.4 / 16.0),
        Unit::Millimetres => Length::from_mm(1.0),
    };
    step * (length / step).round()
}

#[cfg(test)]
mod tests {
    use super::*;
    use derecho_core::measure::Side;

    const fn mm(length: f64) -> Length {
        Length::from_mm(length)
    }

    /// 6, 8, 10: 600 up, 800 across, 1000 long, the frame eye on the left.
    fn bar() -> FrontView {
        FrontView::new(mm(1000.0), mm(600.0), mm(0.0), Side::Left).unwrap()
    }

    #[test]
    fn height_alone_from_the_movement() {
        // √(1000² − 580²) = 814.616…: with the frame eye 20 mm lower the bar reaches 14.616 mm further, and pushes the axle
        // to the right.
        let further = mm(-(1000.0_f64.powi(2) - 580.0_f64.powi(2)).sqrt() + 800.0);
        let place = by_height(&bar(), (further, mm(2.0)), 1.0).unwrap();
        assert!((place.up.to_mm() + 20.0).abs() < 1e-9 && place.left == Length::ZERO);
        // 2 mm of the axle are 2 / (600/800) of height.
        assert!((place.uncertainty.to_mm() - 2.0 / 0.75).abs() < 1e-9);
        // The axle eye 20 mm higher does the same.
        let place = by_height(&bar(), (further, mm(2.0)), -1.0).unwrap();
        assert!((place.up.to_mm() - 20.0).abs() < 1e-9);
    }

    #[test]
    fn an_angle_tells_height_from_sideways() {
        let moved = mm(-14.616_341);
        let read = Angle::from_radians((580.0_f64 / 1000.0).asin());
        let place = by_angle(&bar(), (read, Unit::Millimetres), (moved, mm(2.0)), 1.0).unwrap();
        assert!((place.up.to_mm() + 20.0).abs() < 1e-6, "{}", place.up.to_mm());
        assert_eq!(place.left, Length::ZERO);
        // At the planned angle it is all sideways: the axle follows the frame eye.
        let place = by_angle(&bar(), (bar().angle(), Unit::Millimetres), (moved, mm(2.0)), 1.0).unwrap();
        assert_eq!((place.up, place.left), (Length::ZERO, moved));
    }

    #[test]
    fn a_place_is_typed_as_a_person_would() {
        let text = |length, unit| typed(length, unit).map(|entry| entry.text().to_owned());
        assert_eq!(text(mm(-19.3), Unit::Inches).as_deref(), Some("-3/4"));
        assert_eq!(text(mm(26.1), Unit::Inches).as_deref(), Some("1"));
        assert_eq!(text(mm(-24.6), Unit::Millimetres).as_deref(), Some("-25"));
        assert_eq!(text(mm(0.4), Unit::Millimetres), None);
    }

    #[test]
    fn a_level_bar_tells_nothing_of_height() {
        let level = FrontView::new(mm(1000.0), mm(0.0), mm(0.0), Side::Left).unwrap();
        assert!(by_height(&level, (mm(-0.5), mm(2.0)), 1.0).is_none());
    }
}
