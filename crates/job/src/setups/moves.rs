//! Eyes that were moved, and the one a chosen plan moves.

use glam::DVec3;

use crate::document::bracketing::{FittedMove, PlanForm};
use crate::document::{Job, length_of};
use derecho_core::measure::{Length, Side, TapeEntry};
use derecho_core::parts::{BracketEnd, BracketPart, Hole};

/// The name of the axle bracket that is there now, whose other holes the job knows.
pub const AXLE_BRACKET_NOW: &str = "axle bracket as it is";
/// The same on the frame.
pub const FRAME_BRACKET_NOW: &str = "frame bracket as it is";

/// Whether a bracket is one that is there now.
#[must_use]
pub fn is_now(name: &str) -> bool {
    name == AXLE_BRACKET_NOW || name == FRAME_BRACKET_NOW
}

/// Moves of both eyes, in millimetres forward, left and up.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct EyeMoves {
    /// Of the frame eye.
    pub frame: DVec3,
    /// Of the axle eye.
    pub axle: DVec3,
}

impl EyeMoves {
    /// One eye moved.
    #[must_use]
    pub fn of(end: BracketEnd, by: DVec3) -> Self {
        match end {
            BracketEnd::Frame => Self { frame: by, axle: DVec3::ZERO },
            BracketEnd::Axle => Self { frame: DVec3::ZERO, axle: by },
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
        *self == Self::default()
    }

    fn and(self, other: Self) -> Self {
        Self { frame: self.frame + other.frame, axle: self.axle + other.axle }
    }
}

impl From<&FittedMove> for EyeMoves {
    fn from(fitted: &FittedMove) -> Self {
        Self::of(fitted.end, DVec3::from_array(fitted.by_mm))
    }
}

/// What was moved up to and including a setting.
#[must_use]
pub fn fitted(job: &Job, settings: usize) -> EyeMoves {
    job.setups
        .as_built
        .iter()
        .take(settings)
        .filter_map(|made| made.moved.as_ref())
        .fold(EyeMoves::default(), |sum, moved| sum.and(moved.into()))
}

/// A hole as a move, on the side the eye of that end is on.
#[must_use]
pub fn hole_move(hole: &Hole, side_sign: f64) -> DVec3 {
    let mm = |entry: &Option<TapeEntry>| length_of(entry).unwrap_or(Length::ZERO).to_mm();
    DVec3::new(mm(&hole.forward), mm(&hole.outward) * side_sign, hole.up.length().to_mm())
}

/// The sign of y of an end's eye.
#[must_use]
pub fn side_sign(end: BracketEnd, frame_eye_side: Side) -> f64 {
    match end {
        BracketEnd::Frame => frame_eye_side.sign(),
        BracketEnd::Axle => -frame_eye_side.sign(),
    }
}

/// Every bracket there is to choose a hole of: those there now, then those tried.
#[must_use]
pub fn brackets(job: &Job) -> Vec<BracketPart> {
    let now = |name: &str, end, holes: &[Hole]| {
        (!holes.is_empty()).then(|| BracketPart {
            name: name.to_owned(),
            end,
            holes: holes.to_vec(),
            ..BracketPart::default()
        })
    };
    now(AXLE_BRACKET_NOW, BracketEnd::Axle, &job.setups.axle_holes)
        .into_iter()
        .chain(now(FRAME_BRACKET_NOW, BracketEnd::Frame, &job.setups.frame_holes))
        .chain(job.bracket.brackets.iter().cloned())
        .collect()
}

/// The move of a plan; None where it moves nothing or its hole is gone.
#[must_use]
pub fn plan_move(job: &Job, plan: &PlanForm) -> Option<FittedMove> {
    let side = job.rig.frame_eye_side?;
    let bracket = brackets(job).into_iter().find(|bracket| bracket.name == plan.bracket)?;
    let hole = bracket.holes.iter().find(|hole| hole.name == plan.hole)?;
    let by = hole_move(hole, side_sign(bracket.end, side));
    Some(FittedMove { end: bracket.end, by_mm: by.to_array() })
}

/// Of a hole's move, what is still to be done from where the eye sits in a round.
#[must_use]
pub fn still(job: &Job, round: usize, end: BracketEnd, by: DVec3) -> DVec3 {
    let done = fitted(job, round);
    by - match end {
        BracketEnd::Frame => done.frame,
        BracketEnd::Axle => done.axle,
    }
}

/// Moves under this are none, in millimetres.
const NO_MOVE: f64 = 1e-6;

/// The move the chosen plan still has to make in a round: none once it was fitted.
#[must_use]
pub fn chosen(job: &Job, round: usize) -> Option<FittedMove> {
    if let Some(made) = job.setups.as_built.get(round) {
        return made.moved;
    }
    let planned = plan_move(job, job.bracket.chosen.as_ref()?)?;
    let left = still(job, round, planned.end, DVec3::from_array(planned.by_mm));
    (left.length() > NO_MOVE).then(|| FittedMove { end: planned.end, by_mm: left.to_array() })
}

/// How far up a drag-link part takes both ends, pitman end first, mm; nothing for no part.
#[must_use]
pub fn drag_link_raise(job: &Job, name: &str) -> [f64; 2] {
    let mm = |entry: &Option<TapeEntry>| length_of(entry).unwrap_or(Length::ZERO).to_mm();
    let part = job.bracket.drag_links.iter().find(|part| part.name == name);
    part.map_or([0.0; 2], |part| [-mm(&part.drops_pitman_end), mm(&part.raises_axle_end)])
}
