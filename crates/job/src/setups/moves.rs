//! Where eyes are: moves from where they were found, and the holes they can sit in.

use glam::DVec3;

use crate::document::{BracketId, DragLinkId, FittedMove, HoleChoice, Job, PlanForm, length_of};
use derecho_core::measure::{Length, Side, TapeEntry};
use derecho_core::parts::{BracketEnd, BracketPart, Hole};

/// Moves of both eyes, in millimetres forward, left and up.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct EyeMoves {
    /// Of the frame eye.
    pub frame: DVec3,
    /// Of the axle eye.
    pub axle: DVec3,
}

/// Moves under this are none, in millimetres.
const NO_MOVE: f64 = 1e-6;

impl EyeMoves {
    /// One eye moved.
    #[must_use]
    pub fn of(end: BracketEnd, by: DVec3) -> Self {
        match end {
            BracketEnd::Frame => Self { frame: by, axle: DVec3::ZERO },
            BracketEnd::Axle => Self { frame: DVec3::ZERO, axle: by },
        }
    }

    /// The move of one end.
    #[must_use]
    pub const fn at(&self, end: BracketEnd) -> DVec3 {
        match end {
            BracketEnd::Frame => self.frame,
            BracketEnd::Axle => self.axle,
        }
    }

    /// Change of v, the frame eye's height over the axle eye.
    #[must_use]
    pub fn rise(&self) -> Length {
        Length::from_mm(self.frame.z - self.axle.z)
    }

    /// Change of d.
    #[must_use]
    pub fn fore_aft(&self) -> Length {
        Length::from_mm(self.frame.x - self.axle.x)
    }

    /// Frame eye's move to the left less the axle eye's: how far the same bar carries the axle.
    #[must_use]
    pub fn sideways(&self) -> Length {
        Length::from_mm(self.frame.y - self.axle.y)
    }

    /// Whether nothing is moved.
    #[must_use]
    pub fn is_none(&self) -> bool {
        self.frame.length() < NO_MOVE && self.axle.length() < NO_MOVE
    }

    /// These moves and then others.
    #[must_use]
    pub fn and(self, other: Self) -> Self {
        Self { frame: self.frame + other.frame, axle: self.axle + other.axle }
    }

    /// What is still to be moved from where `before` has taken the eyes.
    #[must_use]
    pub fn since(self, before: Self) -> Self {
        Self { frame: self.frame - before.frame, axle: self.axle - before.axle }
    }
}

/// Brackets that take an eye's place without moving it: their hole is where the eye was.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct InPlace {
    /// At the frame eye.
    pub frame: Option<BracketId>,
    /// At the axle eye.
    pub axle: Option<BracketId>,
}

impl InPlace {
    /// The bracket of one end.
    #[must_use]
    pub const fn at(&self, end: BracketEnd) -> Option<&BracketId> {
        match end {
            BracketEnd::Frame => self.frame.as_ref(),
            BracketEnd::Axle => self.axle.as_ref(),
        }
    }

    /// With a hole chosen or fitted at an end, which moves its eye by so much from where it was found, in mm.
    #[must_use]
    pub fn with(mut self, end: BracketEnd, to: &HoleChoice, from_found: DVec3) -> Self {
        let stays = from_found.length() < NO_MOVE && !to.bracket.is_empty();
        let bracket = stays.then(|| to.bracket.clone());
        match end {
            BracketEnd::Frame => self.frame = bracket,
            BracketEnd::Axle => self.axle = bracket,
        }
        self
    }
}

/// The brackets in place once a plan is fitted; an end it does not name stays as it is.
#[must_use]
pub fn planned_in_place(plan: &PlanForm, moves: EyeMoves, fitted: &InPlace) -> InPlace {
    [BracketEnd::Frame, BracketEnd::Axle].into_iter().fold(fitted.clone(), |place, end| {
        match choice(plan, end) {
            Some(to) => place.with(end, to, moves.at(end)),
            None => place,
        }
    })
}

impl From<&FittedMove> for EyeMoves {
    fn from(fitted: &FittedMove) -> Self {
        Self::of(fitted.end, DVec3::from_array(fitted.by_mm))
    }
}

/// How far an eye that was moved sits from where it was to go, mm forward, left and up.
#[must_use]
pub fn off(fitted: &FittedMove, frame_eye_side: Side) -> DVec3 {
    let [up, outward, forward] = fitted.off.lengths().map(Length::to_mm);
    DVec3::new(forward, outward * side_of(fitted.end, frame_eye_side).sign(), up)
}

/// How far a bracket that was fitted sits from its planned place: every hole of it is off by as much. Nothing for the
/// bracket that was there from the start, and for one that was not fitted.
#[must_use]
pub fn bracket_off(job: &Job, end: BracketEnd, bracket: &BracketId) -> DVec3 {
    let Some(side) = job.rig.frame_eye_side.filter(|_| !bracket.is_empty()) else { return DVec3::ZERO };
    let moved = job.setups.rounds.iter().rev().flat_map(|round| round.moved.iter().rev());
    moved
        .filter(|moved| moved.end == end)
        .skip_while(|moved| moved.to.bracket != *bracket)
        .take_while(|moved| moved.to.bracket == *bracket)
        .map(|moved| off(moved, side))
        .sum()
}

/// Where a hole of a bracket is, from where the eye of that end was found: as it was measured, or as its bracket sits now.
#[must_use]
pub fn hole_at(job: &Job, end: BracketEnd, bracket: &BracketId, hole: &Hole, frame_eye_side: Side) -> DVec3 {
    hole_move(hole, side_of(end, frame_eye_side)) + bracket_off(job, end, bracket)
}

/// A hole as a move, on the side the eye of that end is on.
#[must_use]
pub fn hole_move(hole: &Hole, side: Side) -> DVec3 {
    let mm = |entry: &Option<TapeEntry>| length_of(entry).unwrap_or(Length::ZERO).to_mm();
    DVec3::new(mm(&hole.forward), mm(&hole.outward) * side.sign(), hole.up.length().to_mm())
}

/// The side an end's eye is on.
#[must_use]
pub const fn side_of(end: BracketEnd, frame_eye_side: Side) -> Side {
    match end {
        BracketEnd::Frame => frame_eye_side,
        BracketEnd::Axle => frame_eye_side.other(),
    }
}

/// Every bracket there is to choose a hole of: those there now, without a name, then those tried.
#[must_use]
pub fn brackets(job: &Job) -> Vec<BracketPart> {
    let now = |end, holes: &[Hole]| {
        (!holes.is_empty()).then(|| BracketPart { end, holes: holes.to_vec(), ..BracketPart::default() })
    };
    now(BracketEnd::Axle, &job.setups.found.axle_holes)
        .into_iter()
        .chain(now(BracketEnd::Frame, &job.setups.found.frame_holes))
        .chain(job.bracket.brackets.iter().cloned())
        .collect()
}

/// The hole a plan puts an end's eye in.
#[must_use]
pub const fn choice(plan: &PlanForm, end: BracketEnd) -> Option<&HoleChoice> {
    match end {
        BracketEnd::Axle => plan.axle.as_ref(),
        BracketEnd::Frame => plan.frame.as_ref(),
    }
}

/// Where a chosen hole puts an eye, from where it was found. None where there is no such hole.
#[must_use]
pub fn chosen_move(job: &Job, end: BracketEnd, choice: &HoleChoice) -> Option<DVec3> {
    if choice.hole.is_empty() {
        return Some(bracket_off(job, end, &choice.bracket));
    }
    let side = job.rig.frame_eye_side?;
    Some(hole_at(job, end, &choice.bracket, job.hole(end, choice)?, side))
}

/// Where a plan puts both eyes, from where they were found: an end it does not name stays where
/// `fitted` has it. None where one of its holes is gone.
#[must_use]
pub fn planned(job: &Job, plan: &PlanForm, fitted: EyeMoves) -> Option<EyeMoves> {
    let at = |end| match choice(plan, end) {
        Some(choice) => chosen_move(job, end, choice),
        None => Some(fitted.at(end)),
    };
    Some(EyeMoves { frame: at(BracketEnd::Frame)?, axle: at(BracketEnd::Axle)? })
}

/// How far up a drag-link part takes both ends, pitman end first, mm; nothing for no part.
#[must_use]
pub fn drag_link_raise(job: &Job, part: &DragLinkId) -> [f64; 2] {
    let mm = |entry: &Option<TapeEntry>| length_of(entry).unwrap_or(Length::ZERO).to_mm();
    job.drag_link_part(part).map_or([0.0; 2], |part| [-mm(&part.drops_pitman_end), mm(&part.raises_axle_end)])
}
