//! What each suspect does to every figure, by the formulas the stages use, over the sizes practice knows.
//!
//! Not here: how often it is met, or what is seen of it (`tables`).

use derecho_core::bar::FrontView;
use derecho_core::measure::Length;
use derecho_core::measure::suspicion::{Effect, Size, even, normal};
use derecho_core::parts::{BracketEnd, Hole};

use super::figures::{FigureKind, droop};
use crate::document::diagnosis::Suspect;
use crate::document::sway::SwayKind;
use crate::document::{AxleLocation, Conditions, HoleChoice, Job, Method, length_of};
use crate::setups::moves::side_of;
use crate::setups::{Resolved, Setups};

/// Sizes of a fault: an odd number, so that none is among them.
const SIZES: usize = 61;
const FEW: usize = 41;

/// Standard deviations of practice, mm: what bushings hold an axle by, what a person pushes it by, another height, wheels
/// that are turned, unlike tires, a reference point out of its place, a bracket sideways and in height, a length that is
/// not what was written, a bend, arms, a frame, links, corners.
const HOLDS: f64 = 4.0;
const LEANS: f64 = 3.0;
const HEIGHT: f64 = 40.0;
const TURNED: f64 = 5.0;
const UNLIKE_TIRES: f64 = 12.0;
const CROOKED: f64 = 8.0;
const BRACKET: f64 = 14.0;
const BRACKET_HEIGHT: f64 = 20.0;
const LENGTH: f64 = 6.0;
const BEND: f64 = 6.0;
const SQUARE: f64 = 11.0;
const UNLIKE_LINKS: f64 = 14.0;
const CORNERS: f64 = 18.0;
/// Slope of a floor, degrees; and what a plumb line without a length hangs, mm.
const FLOOR: f64 = 0.6;
const PLUMB: f64 = 500.0;
/// How often what was ticked away is so all the same, against what nobody ticked.
const TICKED: f64 = 0.4;
/// How far unlike tires shift a reading of a sidewall, of what the corners stand unlike.
const SIDEWALL_OF_LEAN: f64 = 0.12;
/// How unlike the weights are, hundredths, of what the corners stand unlike, mm.
const WEIGHT_OF_LEAN: f64 = 0.5;

/// A job with what an effect is worked out from.
#[derive(Clone, Copy)]
pub(super) struct Vehicle<'a> {
    job: &'a Job,
    resolved: &'a Resolved,
}

/// A hole an eye may be in: its end and how far it is from the recorded one, outward and up, mm.
#[derive(Clone, Copy)]
struct OtherHole {
    end: BracketEnd,
    round: usize,
    outward: f64,
    up: f64,
}

impl<'a> Vehicle<'a> {
    pub(super) const fn new(job: &'a Job, resolved: &'a Resolved) -> Self {
        Self { job, resolved }
    }

    fn setups(&self) -> Option<&'a Setups> {
        self.resolved.setups()
    }

    fn rounds(&self) -> usize {
        self.job.setups.axle_rounds().len()
    }

    /// The last adjustment in which an eye was moved, from 1.
    fn moved(&self, end: BracketEnd) -> Option<usize> {
        let rounds = self.job.setups.axle_rounds();
        rounds.iter().rposition(|(_, made)| made.moved.iter().any(|moved| moved.end == end)).map(|at| at + 1)
    }

    /// The adjustments in which the bar's length was set, from 1.
    fn set(&self) -> Vec<usize> {
        let rounds = self.job.setups.axle_rounds();
        rounds
            .iter()
            .enumerate()
            .filter(|(_, (_, made))| made.length.is_some())
            .map(|(at, _)| at + 1)
            .collect()
    }

    /// Whether it can be what is wrong here at all.
    pub(super) fn can_be(&self, suspect: Suspect) -> bool {
        let has_bar = self.setups().is_some();
        let has_sway = self.job.sway.kind != Some(SwayKind::None);
        match suspect {
            Suspect::FullDifference | Suspect::SignTurned | Suspect::LengthOff => {
                has_bar && !self.set().is_empty()
            }
            Suspect::FrameBracketSideways | Suspect::FrameBracketHeight => {
                has_bar && self.moved(BracketEnd::Frame).is_some()
            }
            Suspect::AxleBracketSideways | Suspect::AxleBracketHeight => {
                has_bar && self.moved(BracketEnd::Axle).is_some()
            }
            Suspect::OtherHole => has_bar && !self.other_holes().is_empty(),
            Suspect::BarBent | Suspect::BoltLoose | Suspect::TrackBarHits => {
                self.job.rig.axle_location != Some(AxleLocation::YLink)
            }
            Suspect::WheelsTurned => self.job.rig.is_steered() && !self.job.sheets.is_empty(),
            Suspect::DragLinkNotParallel => {
                self.job.rig.is_steered() && self.job.rig.axle_location != Some(AxleLocation::YLink)
            }
            Suspect::SwayLinksUnlike | Suspect::ArmOnOtherSpline | Suspect::ArmOverCenter => has_sway,
            _ if suspect.is_of_measuring() => !self.job.sheets.is_empty(),
            _ => true,
        }
    }

    /// The other holes of the brackets whose eye was moved last, each from the recorded one.
    fn other_holes(&self) -> Vec<OtherHole> {
        let rounds = self.job.setups.axle_rounds();
        let mut others = Vec::new();
        for end in [BracketEnd::Frame, BracketEnd::Axle] {
            let Some(round) = self.moved(end) else { continue };
            let Some(recorded) = rounds[round - 1].1.moved.iter().rfind(|moved| moved.end == end) else {
                continue;
            };
            let holes = self.holes_of(end, &recorded.to);
            let of = |hole: &Hole| (length_of(&hole.outward).unwrap_or(Length::ZERO), hole.up.length());
            let Some((from_out, from_up)) = holes.iter().find(|hole| hole.id == recorded.to.hole).map(of)
            else {
                continue;
            };
            others.extend(holes.iter().filter(|hole| hole.id != recorded.to.hole).map(|hole| {
                let (out, up) = of(hole);
                OtherHole { end, round, outward: (out - from_out).to_mm(), up: (up - from_up).to_mm() }
            }));
        }
        others
    }

    /// The holes of the bracket an eye was moved to.
    fn holes_of(&self, end: BracketEnd, to: &HoleChoice) -> &'a [Hole] {
        if let Some(bracket) = self.job.bracket.brackets.iter().find(|bracket| bracket.id == to.bracket) {
            return &bracket.holes;
        }
        match end {
            BracketEnd::Frame => &self.job.setups.found.frame_holes,
            BracketEnd::Axle => &self.job.setups.found.axle_holes,
        }
    }

    /// What a fault does to each figure at every size it may have. `few` sizes for pairs, which are integrated over both.
    pub(super) fn effects(&self, suspect: Suspect, few: bool, kinds: &[FigureKind]) -> Vec<(Size, Effect)> {
        let sizes = self.sizes(suspect, few).into_iter();
        sizes.map(|size| (size, self.effect(suspect, size, kinds))).collect()
    }

    fn sizes(&self, suspect: Suspect, few: bool) -> Vec<Size> {
        let count = if few { FEW } else { SIZES };
        let one = |value| vec![Size { place: 0, value, weight: 1.0 }];
        match suspect {
            Suspect::FullDifference | Suspect::SignTurned => shared(
                self.set().into_iter().map(|round| vec![Size { place: round, value: 1.0, weight: 1.0 }]),
            ),
            Suspect::LengthOff => shared(self.set().into_iter().map(|round| normal(LENGTH, count, round))),
            Suspect::MeasuredHanging => {
                let hangs = droop(self.job).to_mm();
                let sizes = self.each_sheet(|sheet| even((0.7 * hangs, 1.1 * hangs), 9, sheet));
                self.ticked(sizes, |told| told.on_its_weight == Some(true))
            }
            Suspect::NotBounced => self.each_sheet(|sheet| normal(HOLDS, count, sheet)),
            Suspect::LeanedOn => {
                let sizes = self.each_sheet(|sheet| normal(LEANS, count, sheet));
                self.ticked(sizes, |told| told.leant_on == Some(false))
            }
            Suspect::AnotherHeight => self.each_sheet(|sheet| normal(HEIGHT, count, sheet)),
            Suspect::WheelsTurned => {
                let sizes = self.each_sheet(|sheet| normal(TURNED, count, sheet));
                self.ticked(sizes, |told| told.wheels_straight == Some(true))
            }
            Suspect::TiresUnlike => normal(UNLIKE_TIRES, count, 0),
            Suspect::SlopingFloor => normal(FLOOR, count, 0),
            Suspect::ReferenceCrooked => crooked(count),
            Suspect::FrameBracketSideways | Suspect::AxleBracketSideways => normal(BRACKET, count, 0),
            Suspect::FrameBracketHeight | Suspect::AxleBracketHeight => normal(BRACKET_HEIGHT, count, 0),
            Suspect::OtherHole => {
                let holes = self.other_holes().len();
                shared((0..holes).map(|place| vec![Size { place, value: 1.0, weight: 1.0 }]))
            }
            // It is shorter for a bend: only one way.
            Suspect::BarBent => {
                let rounds = (1..=self.rounds()).map(|round| even((-2.5 * BEND, -0.5), count, round));
                let bent = shared(rounds);
                if bent.is_empty() { one(0.0) } else { bent }
            }
            Suspect::BoltLoose => even((1.0, 5.0), 15, 0),
            Suspect::BushingTorn => even((1.5, 6.0), 15, 0),
            Suspect::BracketTearing => even((2.0, 9.0), 15, 0),
            Suspect::ArmsUnlike | Suspect::FrameOutOfSquare => normal(SQUARE, count, 0),
            Suspect::SwayLinksUnlike => normal(UNLIKE_LINKS, count, 0),
            Suspect::SpringsUnlike | Suspect::LoadToOneSide => normal(CORNERS, count, 0),
            Suspect::HousingBent
            | Suspect::ArmOnOtherSpline
            | Suspect::ArmOverCenter
            | Suspect::DragLinkNotParallel
            | Suspect::TrackBarHits
            | Suspect::ShocksTired => one(0.0),
        }
    }

    /// Where somebody ticked that it was not so, it is likelier that it was not; and some tick what they did not look at.
    fn ticked(&self, sizes: Vec<Size>, told: impl Fn(&Conditions) -> bool) -> Vec<Size> {
        let so = |size: &Size| self.job.sheets.get(size.place).is_some_and(|sheet| told(&sheet.conditions));
        sizes
            .into_iter()
            .map(|size| if so(&size) { Size { weight: size.weight * TICKED, ..size } } else { size })
            .collect()
    }

    fn each_sheet(&self, sizes: impl Fn(usize) -> Vec<Size>) -> Vec<Size> {
        shared((0..self.job.sheets.len()).map(sizes))
    }

    /// What a fault of a size does to each figure.
    fn effect(&self, suspect: Suspect, size: Size, kinds: &[FigureKind]) -> Effect {
        let shift = kinds.iter().map(|kind| self.shift(suspect, size, *kind).unwrap_or(0.0)).collect();
        // A looseness lies anywhere within its play; a torn bushing or bracket gives as it happens to be loaded.
        let variance = match suspect {
            Suspect::BoltLoose => size.value.powi(2) / 12.0,
            Suspect::BushingTorn | Suspect::BracketTearing => (size.value / 2.0).powi(2),
            _ => 0.0,
        };
        let scatters = |kind: &FigureKind| {
            if matches!(kind, FigureKind::Offset { .. }) { variance } else { 0.0 }
        };
        let scatter = if variance > 0.0 { kinds.iter().map(scatters).collect() } else { Vec::new() };
        Effect { shift, scatter }
    }

    fn shift(&self, suspect: Suspect, size: Size, kind: FigureKind) -> Option<f64> {
        let value = size.value;
        match kind {
            FigureKind::Offset { sheet, round, method } => {
                self.of_offset(suspect, size, (sheet, round, method))
            }
            FigureKind::Stance { sheet } => {
                let moves = matches!(suspect, Suspect::MeasuredHanging | Suspect::AnotherHeight);
                (moves && sheet == size.place).then_some(value)
            }
            FigureKind::Lean { .. } => {
                let leans =
                    matches!(suspect, Suspect::TiresUnlike | Suspect::SpringsUnlike | Suspect::LoadToOneSide);
                leans.then_some(value)
            }
            FigureKind::Square { .. } => {
                matches!(suspect, Suspect::ArmsUnlike | Suspect::FrameOutOfSquare).then_some(value)
            }
            FigureKind::Links => (suspect == Suspect::SwayLinksUnlike).then_some(value),
            // A heavier left side is a lower left corner.
            FigureKind::CornerWeights => {
                (suspect == Suspect::LoadToOneSide).then_some(value * WEIGHT_OF_LEAN)
            }
            FigureKind::BarAngle => self.of_angle(suspect, size),
        }
    }

    fn of_angle(&self, suspect: Suspect, size: Size) -> Option<f64> {
        let view = self.setups()?.fitted.view;
        let turned = |up: f64, end: BracketEnd| {
            let rise = Length::from_mm(up * sign_of(end));
            let there = view.moved(view.length(), rise, Length::ZERO).ok()?;
            Some((there.angle().abs() - view.angle().abs()).to_degrees())
        };
        match suspect {
            Suspect::FrameBracketHeight => turned(size.value, BracketEnd::Frame),
            Suspect::AxleBracketHeight => turned(size.value, BracketEnd::Axle),
            Suspect::SlopingFloor => Some(size.value),
            Suspect::OtherHole => {
                let hole = *self.other_holes().get(size.place)?;
                turned(hole.up, hole.end)
            }
            _ => None,
        }
    }

    fn of_offset(
        &self,
        suspect: Suspect,
        size: Size,
        (sheet, round, method): (usize, usize, Method),
    ) -> Option<f64> {
        let value = size.value;
        let view = || Some(self.setups()?.rounds.get(round)?.view);
        let here = sheet == size.place;
        let since = |done: usize| round >= done;
        match suspect {
            Suspect::NotBounced | Suspect::LeanedOn => here.then_some(value),
            Suspect::MeasuredHanging | Suspect::AnotherHeight => {
                here.then(|| Some(view()?.shift_of_lift(Length::from_mm(value)).ok()?.to_mm())).flatten()
            }
            Suspect::WheelsTurned => {
                here.then_some(if method == Method::FrameToHub { value * 0.2 } else { value })
            }
            Suspect::TiresUnlike => (method != Method::FrameToHub).then_some(value * SIDEWALL_OF_LEAN),
            Suspect::SlopingFloor => {
                let hangs = self
                    .job
                    .sheets
                    .get(sheet)?
                    .plumb_drop
                    .as_ref()
                    .map_or(PLUMB, |drop| drop.length().to_mm());
                (method == Method::BodyToSidewall).then(|| hangs * value.to_radians().tan())
            }
            Suspect::ReferenceCrooked => (method_place(method) == size.place).then_some(value),
            Suspect::FullDifference | Suspect::SignTurned => {
                let times = if suspect == Suspect::FullDifference { 1.0 } else { -2.0 };
                since(size.place).then(|| Some(self.step(size.place)? * times)).flatten()
            }
            Suspect::LengthOff | Suspect::BarBent => {
                let view = view()?;
                let length = view.length() + Length::from_mm(value);
                (size.place > 0 && since(size.place))
                    .then(|| Some(view.shift_of_length(length).ok()?.to_mm()))
                    .flatten()
            }
            Suspect::FrameBracketSideways => since(self.moved(BracketEnd::Frame)?).then_some(value),
            Suspect::AxleBracketSideways => since(self.moved(BracketEnd::Axle)?).then_some(-value),
            Suspect::FrameBracketHeight => {
                since(self.moved(BracketEnd::Frame)?).then(|| raised(view()?, value)).flatten()
            }
            Suspect::AxleBracketHeight => {
                since(self.moved(BracketEnd::Axle)?).then(|| raised(view()?, -value)).flatten()
            }
            Suspect::OtherHole => {
                let hole = *self.other_holes().get(size.place)?;
                let left = hole.outward * side_of(hole.end, self.setups()?.known.side).sign();
                let sign = sign_of(hole.end);
                since(hole.round).then(|| Some(left * sign + raised(view()?, hole.up * sign)?)).flatten()
            }
            _ => None,
        }
    }

    /// How far an adjustment was to move the axle, + left, mm.
    fn step(&self, round: usize) -> Option<f64> {
        let rounds = &self.setups()?.rounds;
        Some((rounds.get(round)?.offset - rounds.get(round.checked_sub(1)?)?.offset).to_mm())
    }
}

/// The axle goes with its frame eye, and away from where its axle eye is on it.
const fn sign_of(end: BracketEnd) -> f64 {
    match end {
        BracketEnd::Frame => 1.0,
        BracketEnd::Axle => -1.0,
    }
}

/// How far the axle goes to the left where the bar rises by so much more, mm.
fn raised(view: FrontView, rise: f64) -> Option<f64> {
    Some(view.shift_of_lift(Length::from_mm(rise)).ok()?.to_mm())
}

/// Sizes at several places, each place as likely.
fn shared(places: impl Iterator<Item = Vec<Size>>) -> Vec<Size> {
    let places: Vec<Vec<Size>> = places.collect();
    let share = 1.0 / places.len().max(1) as f64;
    places.into_iter().flatten().map(|size| Size { weight: size.weight * share, ..size }).collect()
}

const fn method_place(method: Method) -> usize {
    match method {
        Method::FrameToHub => 0,
        Method::FrameToSidewall => 1,
        Method::BodyToSidewall => 2,
        Method::Own => 3,
    }
}

/// A reference point out of its place: a flare or a body on its mounts far oftener than a face of the frame.
fn crooked(count: usize) -> Vec<Size> {
    [(0, 0.15), (1, 0.25), (2, 0.45), (3, 0.15)]
        .into_iter()
        .flat_map(|(place, share)| {
            normal(CROOKED, count, place)
                .into_iter()
                .map(move |size| Size { weight: size.weight * share, ..size })
        })
        .collect()
}
