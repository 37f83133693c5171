//! The track bar's eyes in space, and the other setup: a length, or holes tried out.

use crate::usual;
use glam::DVec3;

use super::arms::joint_of;
use super::frame::{Fitted, SetupBar, SharedSetup, held};
use super::reader::Reader;
use super::words;
use crate::document::hardpoints::{BendTowards, BoltAxis};
use crate::document::length_of;
use crate::setups::Setups;
use crate::setups::moves::EyeMoves;
use derecho_core::measure::Length;
use derecho_core::pose::mechanism::{Bend, Member};
use derecho_core::pose::{AxlePoint, BodyPoint, Link, PoseFault};

/// The bar as found, with its axle eye named for a centred axle at ride height.
pub(crate) struct Eyes {
    pub(crate) found: SetupBar,
    /// Whether some of where they are nobody typed.
    pub(crate) assumed: bool,
}

impl Reader<'_> {
    pub(crate) fn bar_eyes(&mut self, setups: &Setups) -> Eyes {
        let (bar, body) = (&self.job.setups.found.bar, &self.job.hardpoints.bar);
        let found = &setups.base.view;
        let known = self.assumptions.len();
        let s = found.frame_eye_side().sign();
        let driven_offset = crate::document::heights::driven_offset(&self.job.rig);
        let axle_z = length_of(&bar.axle_eye_height).unwrap_or_else(|| {
            let usual = Length::from_mm(self.sizes.axle_height) + usual::AXLE_EYE_ABOVE;
            self.assume("/setups/found/bar/axle_eye_height", words::axle_eye(usual));
            usual
        });
        let axle_x = length_of(&body.axle_eye_fore_aft).unwrap_or_else(|| {
            self.assume("/hardpoints/bar/axle_eye_fore_aft", words::eye_above_the_axle());
            Length::ZERO
        });
        let (frame_y, assumed) = setups.frame_eye_y(bar);
        if assumed {
            let half = setups.found.view.reach() / 2.0;
            self.assume("/setups/found/bar/frame_eye_from_centre", words::frame_eye(half));
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
        Eyes { found: SetupBar { link, offset: setups.base.offset }, assumed: self.assumptions.len() > known }
    }

    pub(crate) fn bar_member(&self, link: &Link) -> Member {
        let along = (link.axle.vector() - link.body.vector()).normalize_or(DVec3::Y);
        let body = &self.job.hardpoints.bar;
        let length = length_of(&self.job.setups.found.bar.length).unwrap_or(Length::from_mm(800.0));
        let bend = body.bend.as_ref().map(|bend| Bend {
            along: (bend.from_frame_eye.length() / length).clamp(0.05, 0.95),
            offset: bend.offset.length(),
            direction: match bend.towards {
                BendTowards::Up => DVec3::Z,
                BendTowards::Down => DVec3::NEG_Z,
                BendTowards::Forward => DVec3::X,
                BendTowards::Back => DVec3::NEG_X,
            },
        });
        Member {
            name: "track bar".to_owned(),
            joints: [
                joint_of(&body.frame_joint, BoltAxis::ForeAft, along),
                joint_of(&body.axle_joint, BoltAxis::ForeAft, along),
            ],
            radius: length_of(&body.diameter).unwrap_or(Length::from_mm(usual::BAR_DIAMETER)) / 2.0,
            bend,
        }
    }
}

impl SharedSetup {
    /// The other setup: a plan tried out with the length that centres the axle there, else what
    /// was set or is planned. None where it is the bar as it stands.
    pub(crate) fn plan(
        &self,
        setups: &Setups,
        found: &Fitted,
    ) -> Result<Option<(Fitted, Length, bool)>, PoseFault> {
        let Some(bar) = found.bar else { return Ok(None) };
        if let Some(trial) = &setups.trial {
            let (fitted, length) = self.moved(found, trial.moves.since(setups.base.moves))?;
            return Ok(Some((fitted, length, true)));
        }
        let other = setups.other();
        let (length, moves) = (other.view.length(), other.moves.since(setups.base.moves));
        if moves.is_none() && length == setups.base.view.length() {
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

    /// Eyes moved, with the length that centres the axle there at the driven height.
    pub(crate) fn moved(&self, found: &Fitted, moves: EyeMoves) -> Result<(Fitted, Length), PoseFault> {
        let Some(bar) = found.bar else {
            return Err(PoseFault::OutOfReach { link: 0, missing_mm: 0.0 });
        };
        let (body, axle) = (bar.body.moved(moves.frame), bar.axle.moved(moves.axle));
        let centred = held(found, Length::ZERO, self.driven)?;
        let length = Length::from_mm((centred.place(self.axle_height, axle) - body).length());
        let fitted = self.fitted(Link { body, axle, made: length, stiffness: None })?;
        Ok((fitted, length))
    }
}
