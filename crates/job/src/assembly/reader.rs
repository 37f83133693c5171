//! What a person measured, read point by point, with faults, assumptions and warnings.

use super::message::{Coordinate, PointName};
use derecho_core::measure::{Length, Side, TapeEntry};
use derecho_core::pose::template::Sizes;
use glam::DVec3;

use crate::assembly::message::AssemblyMessage;
use crate::defaults::{self, Assumption};
use crate::document::check::{FieldError, asks};
use crate::document::hardpoints::{PointForm, SidewaysFrom};
use crate::document::{Job, heights, length_of};
use crate::message::Message;

/// Gathers faults, assumptions and warnings while points are read.
pub(super) struct PointReader<'a> {
    pub(super) job: &'a Job,
    /// Body above ride height when the points were read.
    pub(super) read_at: Length,
    pub(super) sizes: Sizes,
    /// How far to the left of the frame's middle the axle stood when its points were measured, mm.
    pub(super) stood: f64,
    pub(super) assumptions: Vec<Assumption>,
    pub(super) warnings: Vec<Message>,
    pub(super) faults: Vec<FieldError>,
}

/// A point with what it is good to.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Read {
    pub(super) at: DVec3,
    pub(super) good_to: f64,
    /// From where it is at ride height to where it was read, mm up; nought for a usual height, which is one
    /// at ride height.
    pub(super) read_above: f64,
    /// Some of where it is nobody typed.
    pub(super) assumed: bool,
    /// Nobody typed where it is fore and aft.
    pub(super) fore_aft_open: bool,
}

impl Read {
    /// Where it is in the stance it was read in, over the same ground.
    pub(super) fn as_read(&self) -> DVec3 {
        self.at + DVec3::Z * self.read_above
    }
}

/// How a point is asked for.
pub(super) struct PointWanted<'a> {
    pub(super) pointer: String,
    pub(super) name: PointName,
    pub(super) form: &'a PointForm,
    /// The same point on the other side, used where this one is empty.
    pub(super) like: Option<&'a PointForm>,
    pub(super) side: Side,
    pub(super) body: bool,
    /// Usual place at ride height, y out to its own side.
    pub(super) usual: DVec3,
}

impl PointReader<'_> {
    pub(super) fn assume(&mut self, pointer: &str, says: Message) {
        self.assumptions.push(Assumption { pointer: pointer.to_owned(), says, drawing_only: false });
    }

    pub(super) fn fault(&mut self, pointer: impl Into<String>, code: &str, message: String) {
        self.faults.push(FieldError::new(pointer, code, message));
    }

    /// Of a hub's face from the axle's middle, mm.
    fn hub_face(&mut self) -> f64 {
        let faces = length_of(&self.job.rig.hub_faces);
        // Asked once, however many points are measured from it.
        if faces.is_none() && !self.faults.iter().any(|fault| fault.pointer == "/rig/hub_faces") {
            self.fault("/rig/hub_faces", "missing", asks::HUB_FACES.to_owned());
        }
        faces.map_or(0.0, |faces| faces.to_mm() / 2.0)
    }

    /// A point at ride height, in vehicle axes.
    pub(super) fn point(&mut self, ask: &PointWanted<'_>) -> Read {
        let pick = |field: fn(&PointForm) -> &Option<TapeEntry>| {
            field(ask.form).as_ref().or_else(|| ask.like.and_then(|like| field(like).as_ref()))
        };
        let height = pick(|form| &form.height);
        let sideways = pick(|form| &form.sideways).map(TapeEntry::length);
        let fore_aft = pick(|form| &form.fore_aft).map(TapeEntry::length);
        let from = if ask.form.sideways.is_some() { ask.form } else { ask.like.unwrap_or(ask.form) };
        let out = sideways.map(|s| match from.sideways_from {
            SidewaysFrom::RailOuterFace if ask.body => s.to_mm() + self.sizes.rail,
            SidewaysFrom::HubFace if !ask.body => self.hub_face() - s.to_mm(),
            _ => s.to_mm(),
        });
        let up = height.and_then(|height| {
            let up = if ask.body {
                heights::of_body(self.job, height, self.read_at)?
            } else {
                heights::of_axle(self.job, height)
            };
            Some(up.to_mm())
        });
        let at = DVec3::new(
            fore_aft.map_or(ask.usual.x, Length::to_mm),
            out.unwrap_or(ask.usual.y) * ask.side.sign(),
            up.unwrap_or(ask.usual.z),
        );
        let assumed = [
            (height.is_none(), Coordinate::Height, ask.usual.z),
            (sideways.is_none(), Coordinate::Sideways, ask.usual.y),
            (fore_aft.is_none() && ask.usual.x != 0.0, Coordinate::ForeAft, ask.usual.x.abs()),
        ];
        let any = assumed.iter().any(|(open, ..)| *open);
        if any {
            self.assume(
                &ask.pointer,
                AssemblyMessage::Point { name: ask.name.clone(), assumed: assumed.to_vec() }.into(),
            );
        }
        let good_to = pick(|form| &form.good_to).map_or(defaults::PLUMBED, TapeEntry::length).to_mm();
        let read_above = if ask.body && height.is_some() { self.read_at.to_mm() } else { 0.0 };
        Read { at, good_to, read_above, assumed: any, fore_aft_open: fore_aft.is_none() }
    }
}
