//! Obstacles and the drag link.

use super::message::PointName;
use crate::assembly::message::AssemblyMessage;
use crate::defaults;
use crate::document::bodies;
use crate::document::check::asks;
use crate::document::hardpoints::{DragLinkEnd, ObstacleOn, PointForm, Room, SteeringForm};
use glam::DVec3;

use super::reader::{PointReader, PointWanted};
use crate::document::length_of;
use derecho_core::measure::{Angle, AngleEntry, Length, Side};
use derecho_core::pose::body::{Body, BodyName, Carrier};
use derecho_core::pose::drag_link::DragLink;
use derecho_core::pose::mechanism::WANTED_CLEARANCE;
use derecho_core::pose::{AxlePoint, BodyPoint};

impl PointReader<'_> {
    pub(crate) fn obstacles(&mut self) -> Vec<Body> {
        let forms = &self.job.hardpoints.obstacles;
        forms.iter().enumerate().map(|(index, _)| self.obstacle(index)).collect()
    }

    fn obstacle(&mut self, index: usize) -> Body {
        let form = &self.job.hardpoints.obstacles[index];
        let body = form.on == ObstacleOn::Body;
        let usual = DVec3::new(0.0, self.sizes.rail - 60.0, self.sizes.axle_height + 150.0);
        let mut end = |field: &str, point: &PointForm| {
            self.point(&PointWanted {
                pointer: format!("/hardpoints/obstacles/{index}/{field}"),
                name: PointName::Named(form.name.clone()),
                form: point,
                like: None,
                side: form.side,
                body,
                usual,
            })
            .at
        };
        let from = end("from", &form.from);
        let to = form.to.as_ref().map_or(from, |to| end("to", to));
        Body {
            name: BodyName::Typed(form.name.clone()),
            carrier: if body { Carrier::Body } else { Carrier::Axle },
            hangs_on: None,
            points: vec![from, to],
            ring: None,
            // As it was typed it is judged: what is assumed of its place is told with it.
            assumed: false,
            radius: form.thickness.length().abs() / 2.0,
            wanted: match form.room {
                Room::Usual => WANTED_CLEARANCE,
                Room::OwnBracket => Length::from_mm(6.0),
                Room::Engine => Length::from_mm(20.0),
            },
        }
    }

    /// The tie rod as it was found, wheels straight; None where nobody measured how high and how far forward it lies: what
    /// is only assumed of it is held against nothing.
    pub(crate) fn tie_rod(&mut self, half_track: f64) -> Option<Body> {
        let form = self.job.hardpoints.tie_rod.as_ref().filter(|_| self.job.rig.is_steered())?;
        form.end.height.as_ref().and(form.end.fore_aft.as_ref())?;
        let out = half_track - defaults::KINGPIN_INSIDE - 40.0;
        let left = self.point(&PointWanted {
            pointer: "/hardpoints/tie_rod/end".to_owned(),
            name: PointName::Named(bodies::TIE_ROD.to_owned()),
            form: &form.end,
            like: None,
            side: Side::Left,
            body: false,
            usual: DVec3::new(-150.0, out, self.sizes.axle_height),
        });
        let right = DVec3::new(left.at.x, -left.at.y, left.at.z);
        let diameter = length_of(&form.diameter).unwrap_or(Length::from_mm(defaults::TIE_ROD_DIAMETER));
        let points = vec![left.at, right];
        Some(super::bodies::body(BodyName::TieRod, Carrier::TieRod, points, diameter.to_mm() / 2.0))
    }

    /// How far the kingpin is from the middle.
    fn kingpin_out(&mut self, form: &SteeringForm, half_track: f64) -> Length {
        length_of(&form.kingpin_from_centre).unwrap_or_else(|| {
            let usual = Length::from_mm(half_track - defaults::KINGPIN_INSIDE);
            let says = AssemblyMessage::Kingpin { usual }.into();
            self.assume("/hardpoints/steering/kingpin_from_centre", says);
            usual
        })
    }

    /// The drag link with its radius; its length is set later, from where it is straight.
    pub(crate) fn steering(&mut self, half_track: f64) -> Option<(DragLink, Length, bool)> {
        let form = self.job.hardpoints.steering.as_ref()?;
        if form.ends_on == DragLinkEnd::TieRod {
            self.fault(
                "/hardpoints/steering/ends_on",
                "drag_link_on_tie_rod",
                asks::DRAG_LINK_ON_TIE_ROD.to_owned(),
            );
            return None;
        }
        let z = self.sizes.axle_height;
        let pitman = self.point(&PointWanted {
            pointer: "/hardpoints/steering/pitman".to_owned(),
            name: PointName::PitmanEnd,
            form: &form.pitman,
            like: None,
            side: form.pitman_side,
            body: true,
            usual: DVec3::new(130.0, self.sizes.rail - 60.0, z + 130.0),
        });
        let knuckle = self.point(&PointWanted {
            pointer: "/hardpoints/steering/knuckle".to_owned(),
            name: PointName::AxleEnd,
            form: &form.knuckle,
            like: None,
            side: form.knuckle_side,
            body: false,
            usual: DVec3::new(150.0, half_track - defaults::KINGPIN_INSIDE - 70.0, z + 60.0),
        });
        let out = self.kingpin_out(form, half_track);
        if form.kingpin_inclination.is_none() || form.caster.is_none() {
            self.assume("/hardpoints/steering/kingpin_inclination", AssemblyMessage::UprightKingpin.into());
        }
        let slope = |entry: &Option<AngleEntry>| entry.as_ref().map_or(Angle::ZERO, AngleEntry::angle).tan();
        let side = form.knuckle_side.sign();
        let axis = DVec3::new(-slope(&form.caster), -side * slope(&form.kingpin_inclination), 1.0);
        if knuckle.at.distance(pitman.at) < defaults::COINCIDENT {
            self.fault(
                "/hardpoints/steering/pitman",
                "coincident_eyes",
                asks::DRAG_LINK_IN_ONE_PLACE.to_owned(),
            );
        }
        let kingpin = AxlePoint::from_mm(0.0, side * out.to_mm(), z);
        let radius = length_of(&form.diameter).unwrap_or(Length::from_mm(defaults::DRAG_LINK_DIAMETER)) / 2.0;
        let link = DragLink {
            pitman: BodyPoint::at(pitman.at),
            knuckle: AxlePoint::at(knuckle.at),
            kingpin,
            kingpin_axis: axis.normalize(),
            made: Length::from_mm(pitman.at.distance(knuckle.at)),
        };
        Some((link, radius, pitman.assumed || knuckle.assumed))
    }
}
