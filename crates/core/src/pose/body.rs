//! Everything that can touch something: what it is, what it goes with, and its shape.

use glam::DVec3;

use crate::measure::{Length, Side};

/// What a body is called.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum BodyName {
    /// A control arm, radius arm, leg of a Y-link or half of a leaf spring, as the program calls it.
    Arm(String),
    /// The track bar.
    TrackBar,
    /// The track bar's bracket on the frame, with the eye in it.
    FrameBracket,
    /// The track bar's bracket on the axle, with the eye in it.
    AxleBracket,
    /// The drag link.
    DragLink,
    /// The tie rod.
    TieRod,
    /// The steering arm of a knuckle.
    SteeringArm(Side),
    /// The axle's tube.
    AxleTube,
    /// A frame rail.
    Rail(Side),
    /// A tire.
    Tire(Side),
    /// A shock, by its own name.
    Shock(Side, String),
    /// The driveshaft.
    Driveshaft,
    /// The sway bar between its arms.
    SwayBar,
    /// The tube the sway bar runs in.
    SwayTube,
    /// A mount of the sway bar.
    SwayMount(Side),
    /// An arm of the sway bar.
    SwayArm(Side),
    /// A link of the sway bar.
    SwayLink(Side),
    /// A link of the sway bar stowed, or its arm then.
    StowedLink(Side),
    /// Something a person measured, by the name they gave it.
    Typed(String),
}

impl BodyName {
    /// Whether it belongs to the sway bar.
    ///
    /// ```
    /// use derecho_core::pose::body::BodyName;
    ///
    /// assert!(BodyName::SwayTube.is_of_the_sway_bar() && !BodyName::TieRod.is_of_the_sway_bar());
    /// ```
    #[must_use]
    pub const fn is_of_the_sway_bar(&self) -> bool {
        matches!(
            self,
            Self::SwayBar | Self::SwayTube | Self::SwayMount(_) | Self::SwayArm(_) | Self::SwayLink(_)
        )
    }
}

/// What a body goes with.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Carrier {
    /// The body of the vehicle.
    Body,
    /// The axle.
    Axle,
    /// Its first point with the body, its last with the axle.
    Between,
    /// A link of the suspension, by its index.
    Member(usize),
    /// The drag link.
    DragLink,
    /// Both knuckles: the tie rod, left end first.
    TieRod,
    /// A knuckle, which turns on the axle as the wheels are steered.
    Knuckle(Side),
    /// A rod of the sway bar, by its place in [`super::sway_linkage::SwayLinkage::rods`].
    Sway {
        /// Which.
        rod: usize,
        /// Whether the bar is fixed to the axle.
        on_axle: bool,
    },
}

impl Carrier {
    /// Whether it moves as the wheels are steered.
    ///
    /// ```
    /// use derecho_core::pose::body::Carrier;
    ///
    /// assert!(Carrier::TieRod.is_steered() && !Carrier::Axle.is_steered());
    /// ```
    #[must_use]
    pub const fn is_steered(self) -> bool {
        matches!(self, Self::DragLink | Self::TieRod | Self::Knuckle(_))
    }
}

/// A body: a chain of round pieces.
#[derive(Clone, Debug, PartialEq)]
pub struct Body {
    /// What it is.
    pub name: BodyName,
    /// What it goes with.
    pub carrier: Carrier,
    /// The frame rail its end on the frame hangs on.
    pub hangs_on: Option<Side>,
    /// Its middle line at ride height with the axle centred and the wheels straight, mm in vehicle axes; empty where
    /// its carrier says where it is.
    pub points: Vec<DVec3>,
    /// A ring so far out, mm, about the axis from its first point through its second: a tire. A chain of points where
    /// absent.
    pub ring: Option<f64>,
    /// Half of its thickness.
    pub radius: Length,
    /// Clearance wanted.
    pub wanted: Length,
    /// Whether some of where it is, or how thick, nobody measured.
    pub assumed: bool,
}

/// A ring that stands for a tire: its centre, a point one millimetre along its axis from there, how far out its middle
/// line goes, and the radius of its round, mm: half the width, so that it is as tall as the tread and as wide as the tire.
///
/// ```
/// use derecho_core::pose::body::tire_ring;
/// use glam::DVec3;
///
/// let (_, out, round) = tire_ring(DVec3::ZERO, DVec3::Y, 800.0, 250.0);
/// assert_eq!((out, round), (275.0, 125.0));
/// ```
#[must_use]
pub fn tire_ring(centre: DVec3, axis: DVec3, diameter: f64, width: f64) -> ([DVec3; 2], f64, f64) {
    ([centre, centre + axis.normalize_or(DVec3::Y)], (diameter - width) / 2.0, width / 2.0)
}

/// Pieces of the ring as it is drawn.
const PIECES: usize = 16;

/// Points along a ring about an axis, closed, for drawing.
///
/// ```
/// use derecho_core::pose::body::ring_points;
/// use glam::DVec3;
///
/// let points = ring_points([DVec3::ZERO, DVec3::Y], 275.0);
/// assert_eq!(points.len(), 17);
/// assert!(points[0].distance(DVec3::Z * 275.0) < 1e-9);
/// ```
#[must_use]
pub fn ring_points([centre, beside]: [DVec3; 2], out: f64) -> Vec<DVec3> {
    let axis = beside - centre;
    let up = (DVec3::Z - axis * axis.z).normalize_or(DVec3::X);
    let along = axis.cross(up);
    let at = |piece: usize| {
        let turn = std::f64::consts::TAU * piece as f64 / PIECES as f64;
        centre + (up * turn.cos() + along * turn.sin()) * out
    };
    (0..=PIECES).map(at).collect()
}

/// How a pair of bodies is watched.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Pairing {
    /// Over everything the axle does.
    Moving,
    /// Both sit on one and keep their distance.
    Standing,
}

/// How two bodies are watched; None where they are joined, or bolted beside each other. Which come first does not
/// matter. The matrix is in docs/geometry.md.
///
/// ```
/// use derecho_core::measure::{Length, Side};
/// use derecho_core::pose::body::{Body, BodyName, Carrier, Pairing, pairing};
///
/// let body = |name, carrier| Body {
///     name,
///     carrier,
///     hangs_on: None,
///     points: Vec::new(),
///     ring: None,
///     radius: Length::ZERO,
///     wanted: Length::ZERO,
///     assumed: false,
/// };
/// let upper = body(BodyName::Arm("left upper arm".to_owned()), Carrier::Member(3));
/// let tube = body(BodyName::SwayTube, Carrier::Body);
/// let bar = body(BodyName::SwayBar, Carrier::Body);
/// assert_eq!(pairing(&upper, &tube), Some(Pairing::Moving));
/// assert_eq!(pairing(&bar, &tube), None);
/// ```
#[must_use]
pub fn pairing(first: &Body, second: &Body) -> Option<Pairing> {
    if joined(first, second) || joined(second, first) {
        return None;
    }
    if first.carrier != second.carrier {
        return Some(Pairing::Moving);
    }
    match first.carrier {
        // Each with ends of its own.
        Carrier::Between => return (first.name != second.name).then_some(Pairing::Moving),
        Carrier::Body | Carrier::Axle => {}
        // The same knuckle, or the same rod.
        _ => return None,
    }
    (stands_beside(first, second) || stands_beside(second, first)).then_some(Pairing::Standing)
}

/// Whether what is known of two is enough to judge their gap: neither is assumed, or one of them was measured and the
/// other is a bar, an arm or a link of the steering, whose assumed end is told apart.
#[must_use]
pub const fn is_judged(first: &Body, second: &Body) -> bool {
    let held = !told_by_the_sway_bar(first, second) && !told_by_the_sway_bar(second, first);
    (held && !first.assumed && !second.assumed)
        || taken_as_measured(first, second)
        || taken_as_measured(second, first)
}

/// What is looked at where a sway bar's arms and links are, and not over the axle's own travel.
const fn told_by_the_sway_bar(first: &Body, second: &Body) -> bool {
    use BodyName::{Arm, DragLink, Rail, Shock, SteeringArm, SwayArm, SwayLink, TieRod, Tire, TrackBar};
    matches!(first.name, Rail(_) | Shock(..) | SteeringArm(_) | SwayArm(_) | SwayLink(_) | Tire(_))
        && matches!(second.name, Arm(_) | DragLink | TieRod | TrackBar | Rail(_) | Shock(..) | Tire(_))
}

const fn taken_as_measured(first: &Body, second: &Body) -> bool {
    use BodyName::{Arm, DragLink, TieRod, TrackBar, Typed};
    match second.name {
        Typed(_) | TieRod => matches!(first.name, Arm(_) | TrackBar | DragLink | Typed(_)),
        DragLink => matches!(first.name, TrackBar),
        _ => false,
    }
}

/// Of two on one carrier, whether it is worth telling how far they sit apart: what a person measured beside what goes in.
const fn stands_beside(first: &Body, second: &Body) -> bool {
    use BodyName::{AxleBracket, FrameBracket, SwayBar, SwayMount, SwayTube, Typed};
    matches!(first.name, SwayBar | SwayTube | SwayMount(_) | FrameBracket | AxleBracket)
        && matches!(second.name, Typed(_))
        || matches!(first.name, SwayBar | SwayTube | SwayMount(_))
            && matches!(second.name, FrameBracket | AxleBracket)
}

/// Whether two are joined, bolted to one another, or stand for one part: what they touch there is no contact.
fn joined(first: &Body, second: &Body) -> bool {
    use BodyName::{
        Arm, AxleBracket, AxleTube, DragLink, Driveshaft, FrameBracket, Rail, Shock, SteeringArm, SwayArm,
        SwayBar, SwayLink, SwayMount, SwayTube, TieRod, Tire, TrackBar,
    };
    let on_axle = matches!(first.carrier, Carrier::Axle | Carrier::Sway { on_axle: true, .. });
    match (&first.name, &second.name) {
        // Whatever hangs on a rail, its own bracket in between.
        (_, Rail(side)) if first.hangs_on == Some(*side) => true,
        // Arms of both sides cross nowhere; legs of a Y-link share an end.
        (Arm(_), Arm(_)) => first.hangs_on != second.hangs_on,
        (SwayBar | SwayTube | SwayMount(_), Rail(_)) => !on_axle,
        // A link ends on what the bar is not fixed to.
        (SwayBar | SwayTube | SwayMount(_) | SwayArm(_), AxleTube) | (SwayLink(_), Rail(_)) => on_axle,
        (SwayArm(one), SwayLink(other)) => one == other,
        (FrameBracket | Shock(..) | Rail(_), Rail(_))
        | (
            Arm(_) | Shock(..) | AxleBracket | TrackBar | SteeringArm(_) | Driveshaft | SwayLink(_),
            AxleTube,
        )
        | (TrackBar, FrameBracket | AxleBracket)
        | (DragLink | TieRod | SteeringArm(_), SteeringArm(_))
        | (Tire(_), SteeringArm(_) | TieRod | DragLink | AxleTube | Tire(_))
        | (Shock(..), Shock(..))
        // The bar with all that turns in and on it.
        | (SwayBar | SwayTube | SwayMount(_), SwayBar | SwayTube | SwayMount(_) | SwayArm(_))
        | (SwayArm(_), SwayArm(_))
        | (SwayLink(_), SwayLink(_)) => true,
        _ => false,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn body(name: BodyName, carrier: Carrier, hangs_on: Option<Side>) -> Body {
        let (radius, wanted) = (Length::from_mm(10.0), Length::from_mm(12.7));
        Body { name, carrier, hangs_on, points: Vec::new(), ring: None, radius, wanted, assumed: false }
    }

    /// One of every kind, the bar and its sway bar on the frame.
    fn all() -> Vec<Body> {
        use BodyName::*;
        let (left, right) = (Side::Left, Side::Right);
        vec![
            body(Arm("left upper arm".to_owned()), Carrier::Member(3), Some(left)),
            body(Arm("left lower arm".to_owned()), Carrier::Member(1), Some(left)),
            body(Arm("right upper arm".to_owned()), Carrier::Member(4), Some(right)),
            body(TrackBar, Carrier::Member(0), Some(left)),
            body(FrameBracket, Carrier::Body, Some(left)),
            body(AxleBracket, Carrier::Axle, None),
            body(DragLink, Carrier::DragLink, Some(left)),
            body(TieRod, Carrier::TieRod, None),
            body(SteeringArm(right), Carrier::Knuckle(right), None),
            body(AxleTube, Carrier::Axle, None),
            body(Rail(left), Carrier::Body, None),
            body(Rail(right), Carrier::Body, None),
            body(Tire(right), Carrier::Knuckle(right), None),
            body(Shock(left, "shock".to_owned()), Carrier::Between, None),
            body(Driveshaft, Carrier::Between, None),
            body(SwayBar, Carrier::Body, None),
            body(SwayTube, Carrier::Body, None),
            body(SwayMount(left), Carrier::Body, None),
            body(SwayArm(left), Carrier::Sway { rod: 1, on_axle: false }, None),
            body(SwayLink(left), Carrier::Sway { rod: 3, on_axle: false }, None),
            body(Typed("crossmember".to_owned()), Carrier::Body, None),
            body(Typed("differential".to_owned()), Carrier::Axle, None),
        ]
    }

    /// The pair matrix of docs/geometry.md, row by row: m over the travel, s as they stand, . not at all.
    #[test]
    fn the_matrix_is_the_one_that_is_written_down() {
        let text = include_str!("../../../../docs/geometry.md");
        let rows: Vec<String> = all()
            .iter()
            .map(|first| {
                let mark = |second: &Body| match pairing(first, second) {
                    Some(Pairing::Moving) => 'm',
                    Some(Pairing::Standing) => 's',
                    None => '.',
                };
                all().iter().map(mark).collect()
            })
            .collect();
        for row in &rows {
            assert!(text.contains(row.as_str()), "not in docs/geometry.md:\n{}", rows.join("\n"));
        }
    }

    #[test]
    fn it_does_not_matter_which_comes_first_and_nothing_meets_itself() {
        let all = all();
        for first in &all {
            assert_eq!(pairing(first, first), None, "{:?}", first.name);
            for second in &all {
                assert_eq!(
                    pairing(first, second),
                    pairing(second, first),
                    "{:?} {:?}",
                    first.name,
                    second.name
                );
            }
        }
    }

    #[test]
    fn what_can_touch_is_watched_and_what_is_bolted_together_is_not() {
        let all = all();
        let of = |name: &BodyName| all.iter().find(|body| body.name == *name).unwrap();
        use BodyName::*;
        let arm = || Arm("left upper arm".to_owned());
        for (one, other, how) in [
            (arm(), SwayTube, Some(Pairing::Moving)),
            (arm(), SwayBar, Some(Pairing::Moving)),
            (arm(), TrackBar, Some(Pairing::Moving)),
            (arm(), Rail(Side::Left), None),
            (arm(), Rail(Side::Right), Some(Pairing::Moving)),
            (TrackBar, FrameBracket, None),
            (TrackBar, TieRod, Some(Pairing::Moving)),
            (TieRod, DragLink, Some(Pairing::Moving)),
            (SwayTube, Typed("crossmember".to_owned()), Some(Pairing::Standing)),
            (SwayLink(Side::Left), Tire(Side::Right), Some(Pairing::Moving)),
            (AxleBracket, Typed("differential".to_owned()), Some(Pairing::Standing)),
            (AxleTube, SwayTube, Some(Pairing::Moving)),
        ] {
            assert_eq!(pairing(of(&one), of(&other)), how, "{one:?} {other:?}");
        }
    }
}
