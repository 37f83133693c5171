//! Arms, legs and springs as links.

use super::message::PointName;
use crate::assembly::message::AssemblyMessage;
use crate::assembly::named::likely_cause;
use crate::defaults;
use crate::document::bodies::spring_half;
use crate::document::check::asks;
use glam::DVec3;

use super::reader::{PointReader, PointWanted, Read};
use crate::document::hardpoints::{Arm, BoltAxis, JointForm};
use crate::document::{AxleLocation, length_of};
use derecho_core::measure::{Length, Side};
use derecho_core::pose::body::BodyName;
use derecho_core::pose::joint::JointKind;
use derecho_core::pose::mechanism::{Joint, Member};
use derecho_core::pose::template::{ArmLayout, ArmPlace};
use derecho_core::pose::{AxlePoint, BodyPoint, Link};

/// The links that locate the axle besides the bar.
#[derive(Clone, Debug, Default, PartialEq)]
pub(crate) struct Arms {
    pub(crate) links: Vec<Link>,
    pub(crate) names: Vec<String>,
    pub(crate) pointers: Vec<String>,
    /// Whether some of where its ends are nobody typed.
    pub(crate) assumed: Vec<bool>,
    pub(crate) members: Vec<Member>,
    pub(crate) bush_spacing: Length,
}

impl PointReader<'_> {
    pub(crate) fn arms(&mut self, location: AxleLocation) -> Arms {
        let upper = self.job.hardpoints.upper_arm_side;
        let layout = match location {
            AxleLocation::LeafSprings => return self.springs(),
            AxleLocation::RadiusArms => ArmLayout::Radius,
            AxleLocation::ThreeArms => ArmLayout::Three(upper.unwrap_or(Side::Left)),
            AxleLocation::FourArms => ArmLayout::Four,
            AxleLocation::YLink => ArmLayout::Y,
        };
        if location == AxleLocation::ThreeArms && upper.is_none() {
            self.assume("/hardpoints/upper_arm_side", AssemblyMessage::UpperArmOnTheLeft.into());
        }
        let mut arms = Arms { bush_spacing: Length::from_mm(defaults::BUSH_SPACING), ..Arms::default() };
        for place in layout.places() {
            self.arm(layout, place, &mut arms);
        }
        if location == AxleLocation::RadiusArms {
            let typed = &self.job.hardpoints.arms.lower_left.bush_spacing;
            match length_of(typed) {
                Some(spacing) => arms.bush_spacing = spacing,
                None => self
                    .assume("/hardpoints/arms/lower_left/bush_spacing", AssemblyMessage::BushSpacing.into()),
            }
        }
        arms
    }

    fn arm(&mut self, layout: ArmLayout, place: ArmPlace, arms: &mut Arms) {
        let forms = &self.job.hardpoints.arms;
        let (field, form, like, side) = match place {
            ArmPlace::Lower(Side::Left) => ("lower_left", &forms.lower_left, None, Side::Left),
            ArmPlace::Lower(Side::Right) => {
                ("lower_right", &forms.lower_right, Some(&forms.lower_left), Side::Right)
            }
            ArmPlace::Upper(Side::Left) => ("upper_left", &forms.upper_left, None, Side::Left),
            ArmPlace::Upper(Side::Right) => {
                let like = (!matches!(layout, ArmLayout::Three(_))).then_some(&forms.upper_left);
                ("upper_right", &forms.upper_right, like, Side::Right)
            }
        };
        let pointer = format!("/hardpoints/arms/{field}");
        let name = layout.name(place);
        let (usual_body, usual_axle) = layout.usual(place, self.sizes);
        let shared = layout == ArmLayout::Y && place == ArmPlace::Upper(Side::Right);
        let axle = if shared {
            // Both legs end at one point, measured once.
            Read {
                at: arms.links.last().map_or(usual_axle, |leg| leg.axle.vector()),
                good_to: 0.0,
                read_above: 0.0,
                assumed: arms.assumed.last().copied().unwrap_or_default(),
                fore_aft_open: false,
            }
        } else {
            self.point(&PointWanted {
                pointer: format!("{pointer}/axle"),
                name: PointName::ArmAxleEnd(name.clone()),
                form: &form.axle,
                like: like.map(|arm| &arm.axle),
                side,
                body: false,
                usual: usual_axle,
            })
        };
        let typed = length_of(&form.length).or_else(|| like.and_then(|arm| length_of(&arm.length)));
        // A length that was typed places the body end fore and aft: nothing is assumed there.
        let usual = if typed.is_some() { DVec3 { x: 0.0, ..usual_body } } else { usual_body };
        let mut body = self.point(&PointWanted {
            pointer: format!("{pointer}/body"),
            name: PointName::ArmBodyEnd(name.clone()),
            form: &form.body,
            like: like.map(|arm| &arm.body),
            side,
            body: true,
            usual,
        });
        if let Some(length) = typed {
            self.fit_length(&pointer, &name, length.to_mm(), &mut body, &axle);
        }
        // A link is as long as its ends are apart where they were read: the axle stood off to one side then.
        let apart = body.as_read().distance(self.as_it_stood(axle.at));
        if apart < defaults::COINCIDENT {
            self.fault(pointer.clone(), "coincident_eyes", asks::arm_in_one_place(&name));
        }
        let joint = |end: fn(&Arm) -> &JointForm| {
            let of = |arm: &Arm| (*end(arm) != JointForm::default()).then(|| end(arm).clone());
            of(form).or_else(|| like.and_then(of)).unwrap_or_default()
        };
        let along = (axle.at - body.at).normalize_or(DVec3::X);
        let diameter = length_of(&form.diameter).or_else(|| like.and_then(|arm| length_of(&arm.diameter)));
        arms.links.push(Link {
            body: BodyPoint::at(body.at),
            axle: AxlePoint::at(axle.at),
            made: Length::from_mm(apart),
            stiffness: form.stiffness_n_per_mm.or_else(|| like.and_then(|arm| arm.stiffness_n_per_mm)),
        });
        arms.members.push(Member {
            name: BodyName::Arm(name.clone()),
            hangs_on: Some(side),
            assumed: axle.assumed || body.assumed,
            joints: [
                joint_of(&joint(|arm| &arm.body_joint), BoltAxis::Sideways, along),
                joint_of(&joint(|arm| &arm.axle_joint), BoltAxis::Sideways, along),
            ],
            radius: diameter.unwrap_or(Length::from_mm(defaults::ARM_DIAMETER)) / 2.0,
            bend: None,
        });
        arms.names.push(name);
        arms.pointers.push(pointer);
        arms.assumed.push(axle.assumed || body.assumed);
    }

    /// A point of the axle, measured from the axle's own middle, where it was when the lengths were read.
    fn as_it_stood(&self, axle: DVec3) -> DVec3 {
        axle + DVec3::new(0.0, self.stood, 0.0)
    }

    /// The length rules: it places the body end fore and aft. Where that was measured too and
    /// differs, the likely cause is told.
    fn fit_length(&mut self, pointer: &str, name: &str, length: f64, body: &mut Read, axle: &Read) {
        let across = body.as_read() - self.as_it_stood(axle.at);
        let along = length * length - across.y * across.y - across.z * across.z;
        if along <= 0.0 {
            self.fault(format!("{pointer}/length"), "impossible_length", asks::arm_too_short(name));
            return;
        }
        let leads = if body.fore_aft_open || across.x == 0.0 { self.sizes.leads } else { across.x.signum() };
        if !body.fore_aft_open {
            let apart = across.length();
            let good_to =
                (defaults::ARM_LENGTH_GOOD_TO.powi(2) + body.good_to.powi(2) + axle.good_to.powi(2)).sqrt();
            if (apart - length).abs() > 2.0 * good_to {
                let cause = likely_cause(length, across, axle.at, good_to, self.sizes.rail);
                self.warnings
                    .push(AssemblyMessage::Unlike { name: name.to_owned(), length, apart, cause }.into());
            }
        }
        body.at.x = axle.at.x + leads * along.sqrt();
    }

    fn springs(&mut self) -> Arms {
        let Some(front_half) = length_of(&self.job.hardpoints.spring_front_half) else {
            self.assume("/hardpoints/spring_front_half", AssemblyMessage::RigidSprings.into());
            return Arms::default();
        };
        let mut arms = Arms::default();
        for side in [Side::Left, Side::Right] {
            let pad = DVec3::new(0.0, side.sign() * (self.sizes.rail + 30.0), self.sizes.axle_height);
            // A spring lies about level as it stands.
            let stands = crate::document::heights::driven_offset(&self.job.rig).to_mm();
            let eye = pad + DVec3::new(front_half.to_mm() * defaults::SPRING_AS_LINK, 0.0, -stands);
            let name = spring_half(side);
            arms.links.push(Link {
                body: BodyPoint::at(eye),
                axle: AxlePoint::at(pad),
                made: front_half * defaults::SPRING_AS_LINK,
                stiffness: None,
            });
            // The spring is no rod with joints: it bends, and nothing of it is watched.
            let mut joint = joint_of(&JointForm::default(), BoltAxis::Sideways, DVec3::X);
            joint.limits.wind_up = None;
            joint.limits.tilt_warn = derecho_core::measure::Angle::from_degrees(89.0);
            joint.limits.tilt_fail = derecho_core::measure::Angle::from_degrees(90.0);
            arms.members.push(Member {
                name: BodyName::Arm(name.clone()),
                hangs_on: Some(side),
                // A spring is no straight rod: what is drawn of it is judged against nothing but what was measured.
                assumed: true,
                joints: [joint; 2],
                radius: Length::from_mm(30.0),
                bend: None,
            });
            arms.names.push(name);
            arms.pointers.push("/hardpoints/spring_front_half".to_owned());
            arms.assumed.push(false);
        }
        arms
    }
}

/// A joint from its form, with what is usual where it is empty: then its bracket is taken to
/// be made for the link, the bolt square to it as it lies at ride height.
pub(crate) fn joint_of(form: &JointForm, usual: BoltAxis, along: DVec3) -> Joint {
    let kind = form.kind.unwrap_or(JointKind::Rubber);
    let mut limits = kind.limits();
    if let Some(limit) = &form.limit {
        let share = limits.tilt_warn.to_radians() / limits.tilt_fail.to_radians();
        limits.tilt_fail = limit.angle().abs();
        limits.tilt_warn = derecho_core::measure::Angle::from_radians(limits.tilt_fail.to_radians() * share);
    }
    let axis = match form.bolt.unwrap_or(usual) {
        BoltAxis::Sideways => DVec3::Y,
        BoltAxis::ForeAft => DVec3::X,
        BoltAxis::Upright => DVec3::Z,
    };
    let square = (axis - along * along.dot(axis)).normalize_or(axis);
    Joint { kind, bolt: if form.bolt.is_some() { axis } else { square }, limits }
}
