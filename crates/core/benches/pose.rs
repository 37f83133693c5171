//! The accurate model: `cargo bench -p derecho-core --bench pose`. Figures are in
//! docs/performance.md. A general-purpose least-squares crate solves the same equations in
//! the same run.

use derecho_core::bar::rolled::EyesInSpace;
use derecho_core::measure::{Angle, Length, Side};
use derecho_core::pose::body::tire_ring;
use derecho_core::pose::body::{Body, BodyName, Carrier};
use derecho_core::pose::drag_link::DragLink;
use derecho_core::pose::joint::{JointKind, JointLimits};
use derecho_core::pose::mechanism::{Joint, Knuckles, Mechanism, Member, Parts, Stops};
use derecho_core::pose::sway_linkage::SwayLinkage;
use derecho_core::pose::{AxlePoint, BodyPoint, Held, Link, Pose, Start, Suspension, travel};
use derecho_core::sway::Arm;
use divan::{Bencher, black_box};
use glam::DVec3;
use levenberg_marquardt::{LeastSquaresProblem, LevenbergMarquardt};
use nalgebra::storage::Owned;
use nalgebra::{Matrix4, U4, Vector4};

fn main() {
    divan::main();
}

const AXLE: f64 = 400.0;

fn mm(value: f64) -> Length {
    Length::from_mm(value)
}

fn link(body: [f64; 3], axle: [f64; 3]) -> Link {
    let far: f64 = body.iter().zip(axle).map(|(b, a)| (b - a).powi(2)).sum();
    Link {
        body: BodyPoint::from_mm(body[0], body[1], body[2]),
        axle: AxlePoint::from_mm(axle[0], axle[1], axle[2]),
        made: mm(far.sqrt()),
        stiffness: None,
    }
}

fn suspension(four: bool) -> Suspension {
    let mut links = vec![
        link([30.0, 390.0, 620.0], [10.0, -410.0, 510.0]),
        link([-900.0, 380.0, 470.0], [0.0, 430.0, 340.0]),
        link([-900.0, -380.0, 470.0], [0.0, -430.0, 340.0]),
        link([-760.0, 300.0, 610.0], [0.0, 260.0, 580.0]),
    ];
    if four {
        links.push(link([-760.0, -300.0, 560.0], [0.0, -260.0, 580.0]));
    }
    Suspension::new(mm(AXLE), links, None, Held::default())
}

fn mechanism(four: bool, whole: bool) -> Mechanism {
    let suspension = suspension(four);
    let joint =
        |bolt| Joint { kind: JointKind::Rubber, bolt, limits: JointLimits { ..JointKind::Rubber.limits() } };
    let members = (0..suspension.links().len())
        .map(|index| {
            let bolt = if index == 0 { DVec3::X } else { DVec3::Y };
            let left = suspension.links()[index].body.vector().y > 0.0;
            let side = if left { Side::Left } else { Side::Right };
            Member {
                name: if index == 0 { BodyName::TrackBar } else { BodyName::Arm(format!("link {index}")) },
                hangs_on: Some(side),
                assumed: false,
                joints: [joint(bolt); 2],
                radius: mm(20.0),
                bend: None,
            }
        })
        .collect();
    let body = |name, carrier, points: &[[f64; 3]], radius: f64| Body {
        name,
        carrier,
        hangs_on: None,
        points: points.iter().map(|at| DVec3::from_array(*at)).collect(),
        ring: None,
        radius: mm(radius),
        wanted: mm(12.7),
        assumed: false,
    };
    let typed = |name: &str, carrier, [x, y, z]: [f64; 3]| {
        let name = BodyName::Typed(name.to_owned());
        body(name, carrier, &[[x, y, z], [x + 80.0, y, z + 20.0]], 25.0)
    };
    let mut bodies = vec![
        typed("old bracket", Carrier::Body, [20.0, -150.0, 700.0]),
        typed("sump", Carrier::Body, [60.0, 0.0, 760.0]),
        typed("differential", Carrier::Axle, [0.0, 200.0, 430.0]),
        typed("exhaust", Carrier::Body, [-300.0, -320.0, 640.0]),
    ];
    if whole {
        bodies.extend(whole_rig(&body));
    }
    let mut drag = DragLink {
        pitman: BodyPoint::from_mm(130.0, 330.0, 560.0),
        knuckle: AxlePoint::from_mm(150.0, -560.0, 460.0),
        kingpin: AxlePoint::from_mm(0.0, -650.0, 400.0),
        kingpin_axis: DVec3::Z,
        made: Length::ZERO,
    };
    drag.made = drag.straight_length(mm(AXLE), &Pose::RIDE);
    let pin = |side: f64| DVec3::new(0.0, side * 650.0, 400.0);
    let parts = Parts {
        suspension,
        members,
        bar: Some(0),
        radius_arms: None,
        bodies,
        steering: Some((drag, mm(15.0))),
        steering_assumed: false,
        knuckles: whole.then(|| Knuckles {
            kingpins: [pin(1.0), pin(-1.0)],
            axes: [DVec3::Z; 2],
            lock: Angle::from_degrees(35.0),
            tie_rod: Some([DVec3::new(-150.0, 610.0, 380.0), DVec3::new(-150.0, -610.0, 380.0)]),
        }),
        sway: whole.then(|| SwayLinkage {
            axis: (480.0, 720.0),
            eye_out: 480.0,
            far: DVec3::new(160.0, 500.0, 420.0),
            on_axle: false,
            arm: Arm { length: mm(320.0), link: mm(300.0), forward: false, link_up: false },
            left_longer: Length::ZERO,
        }),
        driven: Length::ZERO,
        stops: Stops {
            bump: mm(90.0),
            droop: mm(110.0),
            bump_half_spacing: mm(780.0),
            droop_half_spacing: mm(780.0),
            half_track: mm(780.0),
        },
    };
    Mechanism::new(parts, &Pose::RIDE)
}

/// A body of a name, what it goes with, its points and its radius.
type MakesBodies<'a> = dyn Fn(BodyName, Carrier, &[[f64; 3]], f64) -> Body + 'a;

/// Everything else a vehicle has: twenty-five bodies with the links, the drag link and what was typed.
fn whole_rig(body: &MakesBodies<'_>) -> Vec<Body> {
    let mut bodies = vec![
        body(BodyName::AxleTube, Carrier::Axle, &[[0.0, 600.0, 400.0], [0.0, -600.0, 400.0]], 40.0),
        body(BodyName::FrameBracket, Carrier::Body, &[[0.0, 390.0, 620.0], [60.0, 390.0, 620.0]], 35.0),
        body(BodyName::AxleBracket, Carrier::Axle, &[[-20.0, -410.0, 510.0], [40.0, -410.0, 510.0]], 35.0),
        body(BodyName::TieRod, Carrier::TieRod, &[[-150.0, 610.0, 380.0], [-150.0, -610.0, 380.0]], 16.0),
        body(BodyName::SwayBar, Carrier::Body, &[[480.0, 480.0, 720.0], [480.0, -480.0, 720.0]], 13.0),
        body(BodyName::SwayTube, Carrier::Body, &[[480.0, 400.0, 720.0], [480.0, -400.0, 720.0]], 22.0),
        body(BodyName::Driveshaft, Carrier::Between, &[[-700.0, 60.0, 560.0], [-160.0, 120.0, 430.0]], 38.0),
    ];
    for (place, side, sign) in [(0, Side::Left, 1.0), (1, Side::Right, -1.0)] {
        let rail = [[-900.0, 570.0], [900.0, 570.0], [900.0, 640.0], [-900.0, 640.0]];
        let rail = rail.map(|[x, z]| [x, sign * 400.0, z]);
        bodies.push(body(BodyName::Rail(side), Carrier::Body, &rail, 30.0));
        let arm = [[0.0, sign * 650.0, 390.0], [-150.0, sign * 610.0, 380.0]];
        bodies.push(body(BodyName::SteeringArm(side), Carrier::Knuckle(side), &arm, 20.0));
        let shock = [[-60.0, sign * 450.0, 900.0], [-90.0, sign * 520.0, 380.0]];
        bodies.push(body(BodyName::Shock(side, "shock".to_owned()), Carrier::Between, &shock, 30.0));
        let (ring, out, radius) = tire_ring(DVec3::new(0.0, sign * 780.0, 400.0), DVec3::Y, 800.0, 260.0);
        let tire = body(BodyName::Tire(side), Carrier::Knuckle(side), &ring.map(|at| at.to_array()), radius);
        bodies.push(Body { ring: Some(out), ..tire });
        for (rod, name) in [(1, BodyName::SwayArm(side)), (3, BodyName::SwayLink(side))] {
            bodies.push(body(name, Carrier::Sway { rod: rod + place, on_axle: false }, &[], 13.0));
        }
    }
    bodies
}

#[divan::bench]
fn closed_form_pose_with_roll(bencher: Bencher<'_, '_>) {
    let eyes = EyesInSpace {
        frame: [30.0, 390.0, 620.0],
        axle: [10.0, -410.0, 510.0],
        length: mm(808.0),
        axle_height: mm(AXLE),
    };
    bencher.bench(|| black_box(&eyes).sideways(black_box(mm(40.0)), Angle::from_degrees(4.0)));
}

#[divan::bench(args = [false, true])]
fn warm_pose(bencher: Bencher<'_, '_>, four_arms: bool) {
    let suspension = suspension(four_arms);
    let near = suspension.solve(mm(40.0), Angle::from_degrees(4.0), Start::default()).expect("a pose");
    let (z, roll) = (mm(45.0), Angle::from_degrees(4.3));
    bencher.bench(|| black_box(&suspension).solve(black_box(z), black_box(roll), near.start()));
}

/// The envelope with everything that is watched.
fn watched(mechanism: &Mechanism) -> (Mechanism, travel::Envelope) {
    let envelope = travel::envelope(mechanism, 41).expect("an envelope");
    travel::watched(mechanism, &envelope, 50.0)
}

#[divan::bench(args = [false, true])]
fn envelope_41_by_41_with_everything(bencher: Bencher<'_, '_>, four_arms: bool) {
    let mechanism = mechanism(four_arms, false);
    bencher.bench(|| watched(black_box(&mechanism)));
}

/// A full rig, wheels from lock to lock: beside the one above no more than twice its time.
#[divan::bench]
fn envelope_41_by_41_of_a_whole_rig(bencher: Bencher<'_, '_>) {
    let mechanism = mechanism(true, true);
    bencher.bench(|| watched(black_box(&mechanism)));
}

#[divan::bench]
fn worst_of_a_whole_rig(bencher: Bencher<'_, '_>) {
    let mechanism = mechanism(true, true);
    let (mechanism, envelope) = watched(&mechanism);
    bencher.bench(|| travel::worst(black_box(&mechanism), &envelope));
}

#[divan::bench]
fn worst_of_everything_refined(bencher: Bencher<'_, '_>) {
    let mechanism = mechanism(false, false);
    let (mechanism, envelope) = watched(&mechanism);
    bencher.bench(|| travel::worst(black_box(&mechanism), &envelope));
}

#[divan::bench]
fn four_ways_walked(bencher: Bencher<'_, '_>) {
    let mechanism = mechanism(false, false);
    bencher.bench(|| travel::Way::ALL.map(|way| travel::walk(black_box(&mechanism), way)));
}

/// The same four equations for a general-purpose least-squares crate: unknowns x, y,
/// pitch and yaw, the Jacobian by hand as well.
struct General<'a> {
    suspension: &'a Suspension,
    z: f64,
    roll: f64,
    at: Vector4<f64>,
}

impl General<'_> {
    fn pose(&self) -> Pose {
        Pose {
            x: mm(self.at[0]),
            y: mm(self.at[1]),
            z: mm(self.z),
            roll: Angle::from_radians(self.roll),
            pitch: Angle::from_radians(self.at[2] / 500.0),
            yaw: Angle::from_radians(self.at[3] / 500.0),
        }
    }
}

impl LeastSquaresProblem<f64, U4, U4> for General<'_> {
    type ResidualStorage = Owned<f64, U4>;
    type JacobianStorage = Owned<f64, U4, U4>;
    type ParameterStorage = Owned<f64, U4>;

    fn set_params(&mut self, x: &Vector4<f64>) {
        self.at = *x;
    }

    fn params(&self) -> Vector4<f64> {
        self.at
    }

    fn residuals(&self) -> Option<Vector4<f64>> {
        let pose = self.pose();
        let links = self.suspension.links();
        Some(Vector4::from_fn(|i, _| {
            (pose.place(mm(AXLE), links[i].axle) - links[i].body).length() - links[i].made.to_mm()
        }))
    }

    fn jacobian(&self) -> Option<Matrix4<f64>> {
        let pose = self.pose();
        let (sin_roll, cos_roll) = self.roll.sin_cos();
        let (sin_yaw, cos_yaw) = pose.yaw.to_radians().sin_cos();
        let pitch_axis = DVec3::new(-sin_yaw * cos_roll, cos_yaw * cos_roll, sin_roll);
        let centre = BodyPoint::from_mm(self.at[0], self.at[1], AXLE + self.z);
        let mut jacobian = Matrix4::zeros();
        for (i, link) in self.suspension.links().iter().enumerate() {
            let end = pose.place(mm(AXLE), link.axle);
            let (n, arm) = ((end - link.body).normalize(), end - centre);
            jacobian[(i, 0)] = n.x;
            jacobian[(i, 1)] = n.y;
            jacobian[(i, 2)] = n.dot(pitch_axis.cross(arm)) / 500.0;
            jacobian[(i, 3)] = n.dot(DVec3::Z.cross(arm)) / 500.0;
        }
        Some(jacobian)
    }
}

#[divan::bench]
fn warm_pose_by_a_general_crate(bencher: Bencher<'_, '_>) {
    let suspension = suspension(false);
    let near = suspension.solve(mm(40.0), Angle::from_degrees(4.0), Start::default()).expect("a pose").pose;
    let start = Vector4::new(
        near.x.to_mm(),
        near.y.to_mm(),
        near.pitch.to_radians() * 500.0,
        near.yaw.to_radians() * 500.0,
    );
    let roll = Angle::from_degrees(4.3).to_radians();
    bencher.bench(|| {
        let problem = General { suspension: black_box(&suspension), z: 45.0, roll, at: start };
        let (found, report) = LevenbergMarquardt::new().minimize(problem);
        assert!(report.termination.was_successful());
        found.at
    });
}
