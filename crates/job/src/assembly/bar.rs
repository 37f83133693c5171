//! The track bar's eyes in space, and the other setup: a length, or holes tried out.

use crate::assembly::message::AssemblyMessage;
use crate::defaults;
use glam::DVec3;

use super::arms::joint_of;
use super::frame::{Fitted, SetupBar, SharedSetup, held};
use super::reader::PointReader;
use crate::document::hardpoints::{BendTowards, BoltAxis, JointForm};
use crate::document::{BarId, Job, length_of};
use crate::setups::Setups;
use crate::setups::moves::EyeMoves;
use derecho_core::measure::{Length, Side};
use derecho_core::parts::BarPart;
use derecho_core::pose::body::BodyName;
use derecho_core::pose::mechanism::{Bend, Member};
use derecho_core::pose::{AxlePoint, BodyPoint, Link, PoseFault};

/// The bar as found, with its axle eye named for a centred axle at ride height.
pub(crate) struct BarEyes {
    pub(crate) found: SetupBar,
    /// Whether some of where they are nobody typed.
    pub(crate) assumed: bool,
}

impl PointReader<'_> {
    pub(crate) fn bar_eyes(&mut self, setups: &Setups) -> BarEyes {
        let (bar, body) = (&self.job.setups.found.bar, &self.job.hardpoints.bar);
        let found = &setups.base.view;
        let known = self.assumptions.len();
        let s = found.frame_eye_side().sign();
        let driven_offset = crate::document::heights::driven_offset(&self.job.rig);
        let axle_height = Length::from_mm(self.sizes.axle_height);
        let taped = bar.axle_eye_height.as_ref();
        let taped = taped.map(|height| crate::document::heights::of_axle(self.job, height));
        let axle_z = taped.unwrap_or_else(|| {
            let usual = axle_height + defaults::AXLE_EYE_ABOVE;
            self.assume("/setups/found/bar/axle_eye_height", AssemblyMessage::AxleEye { usual }.into());
            usual
        });
        let axle_x = length_of(&body.axle_eye_fore_aft).unwrap_or_else(|| {
            self.assume("/hardpoints/bar/axle_eye_fore_aft", AssemblyMessage::EyeAboveTheAxle.into());
            Length::ZERO
        });
        let (frame_y, assumed) = setups.frame_eye_y(bar);
        if assumed {
            let half = setups.found.view.reach() / 2.0;
            self.assume("/setups/found/bar/frame_eye_from_centre", AssemblyMessage::FrameEye { half }.into());
        }
        // Eyes moved since they were measured.
        let moved = setups.base.moves;
        let axle_z = axle_z + Length::from_mm(moved.axle.z);
        let axle_x = axle_x + Length::from_mm(moved.axle.x);
        let axle_y = frame_y - found.reach() * s - setups.base.offset;
        let rise = found.rise() - driven_offset;
        let frame_x = axle_x + found.fore_aft();
        let link = Link {
            body: BodyPoint::from_mm(frame_x.to_mm(), frame_y.to_mm(), (axle_z + rise).to_mm()),
            axle: AxlePoint::from_mm(axle_x.to_mm(), axle_y.to_mm(), axle_z.to_mm()),
            made: found.length(),
            stiffness: None,
        };
        BarEyes {
            found: SetupBar { link, offset: setups.base.offset },
            assumed: self.assumptions.len() > known,
        }
    }
}

/// A bar as a body, wherever its eyes are.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct SolvedBar {
    /// Frame joint and axle joint.
    joints: [JointForm; 2],
    radius: Length,
    pub(crate) bend: Option<Bend>,
}

impl SolvedBar {
    /// The bar of a setup: a part of the job, else the bar as found.
    pub(crate) fn of(job: &Job, bar: &BarId) -> Self {
        let found = Self::found(job);
        match job.bar_part(bar) {
            Some(part) => found.replaced_by(part),
            None => found,
        }
    }

    fn found(job: &Job) -> Self {
        let body = &job.hardpoints.bar;
        let length = length_of(&job.setups.found.bar.length).unwrap_or(Length::from_mm(800.0));
        Self {
            joints: [body.frame_joint.clone(), body.axle_joint.clone()],
            radius: length_of(&body.diameter).unwrap_or(Length::from_mm(defaults::BAR_DIAMETER)) / 2.0,
            bend: body.bend.as_ref().map(|bend| Bend {
                along: (bend.from_frame_eye.length() / length).clamp(0.05, 0.95),
                offset: bend.offset.length(),
                direction: match bend.towards {
                    BendTowards::Up => DVec3::Z,
                    BendTowards::Down => DVec3::NEG_Z,
                    BendTowards::Forward => DVec3::X,
                    BendTowards::Back => DVec3::NEG_X,
                },
            }),
        }
    }

    /// A part in its place, between the same bolts. Its bend is taken to be in its middle and towards where
    /// this one bends, upward where this one is straight, since a part's sheet says no more.
    fn replaced_by(&self, part: &BarPart) -> Self {
        let joint = |kind, place: &JointForm| JointForm { kind: Some(kind), bolt: place.bolt, limit: None };
        let bent = length_of(&part.bend).filter(|offset| *offset > Length::ZERO);
        Self {
            joints: [joint(part.frame_joint, &self.joints[0]), joint(part.axle_joint, &self.joints[1])],
            radius: part.section().outside / 2.0,
            bend: bent.map(|offset| Bend {
                along: 0.5,
                offset,
                direction: self.bend.map_or(DVec3::Z, |bend| bend.direction),
            }),
        }
    }

    /// As a member that lies this way at ride height: bolts nobody described are square to it there.
    pub(crate) fn member(&self, along: DVec3, hangs_on: Side, assumed: bool) -> Member {
        Member {
            name: BodyName::TrackBar,
            hangs_on: Some(hangs_on),
            assumed,
            joints: self.joints.each_ref().map(|joint| joint_of(joint, BoltAxis::ForeAft, along)),
            radius: self.radius,
            bend: self.bend,
        }
    }
}

impl SharedSetup {
    /// The other setup: a plan tried out with the length that centres the axle there, or the old one's where
    /// it is `left`; else what was set or is planned. None where it is the bar as it stands.
    pub(crate) fn plan(
        &self,
        setups: &Setups,
        found: &Fitted,
        left: bool,
    ) -> Result<Option<(Fitted, Length, bool)>, PoseFault> {
        let Some(bar) = found.bar else { return Ok(None) };
        if let Some(trial) = &setups.trial {
            let moves = trial.moves.since(setups.base.moves);
            let (fitted, length) = self.moved(found, moves, left.then(|| trial.view.length()))?;
            return Ok(Some((fitted, length, true)));
        }
        let other = setups.other();
        let (length, moves) = (other.view.length(), other.moves.since(setups.base.moves));
        if moves.is_none() && length == setups.base.view.length() && other.bar.id == setups.base.bar.id {
            return Ok(None);
        }
        let link = Link {
            body: bar.body.moved(moves.frame),
            axle: bar.axle.moved(moves.axle),
            made: length,
            stiffness: None,
        };
        Ok(Some((self.fitted(link)?, length, false)))
    }

    /// Eyes moved, with a length, or with the one that centres the axle there at the driven height.
    pub(crate) fn moved(
        &self,
        found: &Fitted,
        moves: EyeMoves,
        length: Option<Length>,
    ) -> Result<(Fitted, Length), PoseFault> {
        let Some(bar) = found.bar else {
            return Err(PoseFault::OutOfReach { link: 0, missing_mm: 0.0 });
        };
        let (body, axle) = (bar.body.moved(moves.frame), bar.axle.moved(moves.axle));
        let length = match length {
            Some(length) => length,
            None => {
                let centred = held(found, Length::ZERO, self.driven)?;
                Length::from_mm((centred.place(self.axle_height, axle) - body).length())
            }
        };
        let fitted = self.fitted(Link { body, axle, made: length, stiffness: None })?;
        Ok((fitted, length))
    }
}
