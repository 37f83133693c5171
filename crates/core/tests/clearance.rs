//! Gaps over everything the axle does: by hand on a rig that goes straight up, and against sampling four times as fine as
//! the grid. `cargo test --release -p derecho-core --test clearance -- --ignored` samples 200 rigs.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::measure::{Angle, Length, Side};
use derecho_core::pose::body::{Body, BodyName, Carrier, tire_ring};
use derecho_core::pose::clearance::{Ring, gap};
use derecho_core::pose::drag_link::DragLink;
use derecho_core::pose::joint::JointKind;
use derecho_core::pose::mechanism::{Joint, Knuckles, Mechanism, Member, Parts, Stops, Watched};
use derecho_core::pose::sway_linkage::SwayLinkage;
use derecho_core::pose::travel::{self, Worst};
use derecho_core::pose::{AxlePoint, BodyPoint, Held, Link, Pose, Suspension};
use derecho_core::sway::Arm;
use glam::DVec3;
use rand_chacha::ChaCha8Rng;
use rand_chacha::rand_core::{Rng, SeedableRng};

const AXLE: f64 = 400.0;

fn mm(value: f64) -> Length {
    Length::from_mm(value)
}

fn v(x: f64, y: f64, z: f64) -> DVec3 {
    DVec3::new(x, y, z)
}

fn body(name: BodyName, carrier: Carrier, points: &[DVec3], radius: f64) -> Body {
    let (radius, wanted) = (mm(radius), mm(12.7));
    Body {
        name,
        carrier,
        hangs_on: None,
        points: points.to_vec(),
        ring: None,
        radius,
        wanted,
        assumed: false,
    }
}

/// An axle that goes straight up and down on leaf springs, 100 mm each way.
fn upright(bodies: Vec<Body>, knuckles: Option<Knuckles>) -> Mechanism {
    let held = Held { x: true, y: true, pitch: true, yaw: true };
    let parts = Parts {
        suspension: Suspension::new(mm(AXLE), Vec::new(), None, held),
        members: Vec::new(),
        bar: None,
        radius_arms: None,
        bodies,
        steering: None,
        steering_assumed: false,
        knuckles,
        sway: None,
        stops: stops(100.0, 100.0),
        driven: Length::ZERO,
    };
    Mechanism::new(parts, &Pose::RIDE)
}

fn stops(bump: f64, droop: f64) -> Stops {
    let half = mm(760.0);
    Stops {
        bump: mm(bump),
        droop: mm(droop),
        bump_half_spacing: half,
        droop_half_spacing: half,
        half_track: half,
    }
}

fn worst_of(mechanism: &Mechanism) -> Vec<Worst> {
    let (mechanism, envelope) = travel::watched(mechanism, &travel::envelope(mechanism, 41).unwrap(), 50.0);
    travel::worst(&mechanism, &envelope)
}

/// A rod on the axle 150 mm below one on the frame, both 20 mm thick: 130 at ride height, 30 at the stop, and 17.3 half
/// an inch past it.
#[test]
fn straight_up_by_hand() {
    let rods = [("on the axle", Carrier::Axle, 500.0), ("on the frame", Carrier::Body, 650.0)];
    let bodies = rods.map(|(name, carrier, up)| {
        let name = BodyName::Typed(name.to_owned());
        body(name, carrier, &[v(0.0, -50.0, up), v(0.0, 50.0, up)], 10.0)
    });
    let mechanism = upright(bodies.to_vec(), None);
    let worst = worst_of(&mechanism);
    assert_eq!(worst.len(), 1);
    assert!((worst[0].value - 30.0).abs() < 1e-6, "{:?}", worst[0].value);
    let past = travel::worst_past_the_stops(&mechanism, &worst[0], mm(12.7));
    assert!((past.value - 17.3).abs() < 1e-3 && past.posed.left > 112.0, "{}", past.value);
}

/// Steering arms of 150 mm that point straight back: at 30 degrees the tie rod has come forward by 150 (1 - cos 30), which
/// is 20.1 mm, and is so much nearer to a rod of the axle ahead of it.
#[test]
fn a_tie_rod_comes_forward_at_lock_by_hand() {
    let ends = [v(-150.0, 700.0, 380.0), v(-150.0, -700.0, 380.0)];
    let knuckles = Knuckles {
        kingpins: [v(0.0, 700.0, AXLE), v(0.0, -700.0, AXLE)],
        axes: [DVec3::Z; 2],
        lock: Angle::from_degrees(30.0),
        tie_rod: Some(ends),
    };
    let cover =
        body(BodyName::Typed("differential cover".to_owned()), Carrier::Axle, &[v(-80.0, 0.0, 380.0)], 10.0);
    let rod = body(BodyName::TieRod, Carrier::TieRod, &ends, 15.0);
    let mechanism = upright(vec![rod, cover], Some(knuckles));
    let worst = worst_of(&mechanism);
    let by_hand = 70.0 - 25.0 - 150.0 * (1.0 - 30.0_f64.to_radians().cos());
    assert!((worst[0].value - by_hand).abs() < 1e-3, "{} for {by_hand}", worst[0].value);
}

/// Two on one carrier keep their distance, told once and not over the travel.
#[test]
fn what_sits_on_one_stands() {
    let tube =
        body(BodyName::SwayTube, Carrier::Body, &[v(400.0, -400.0, 700.0), v(400.0, 400.0, 700.0)], 22.0);
    let pump = body(BodyName::Typed("pump bracket".to_owned()), Carrier::Body, &[v(400.0, 0.0, 760.0)], 30.0);
    let mechanism = upright(vec![tube, pump], None);
    assert!(mechanism.watches().is_empty());
    let standing = mechanism.standing();
    assert_eq!(standing.len(), 1);
    assert!((standing[0].1.distance - 8.0).abs() < 1e-9);
}

struct Drawn(ChaCha8Rng);

impl Drawn {
    fn between(&mut self, low: f64, high: f64) -> f64 {
        low + (high - low) * f64::from(self.0.next_u32()) / f64::from(u32::MAX)
    }

    fn near(&mut self, at: DVec3, by: f64) -> DVec3 {
        at + v(self.between(-by, by), self.between(-by, by), self.between(-by, by))
    }
}

fn link(body: DVec3, axle: DVec3) -> Link {
    let made = mm(body.distance(axle));
    Link { body: BodyPoint::at(body), axle: AxlePoint::at(axle), made, stiffness: None }
}

/// A front axle on four arms and a bar, everything about where it usually is, steered, with a sway bar and some parts
/// that a person measured.
fn rig(seed: u64) -> Mechanism {
    let mut drawn = Drawn(ChaCha8Rng::seed_from_u64(seed));
    let d = &mut drawn;
    let mut links = vec![link(d.near(v(30.0, 390.0, 620.0), 40.0), d.near(v(10.0, -410.0, 510.0), 40.0))];
    for side in [1.0, -1.0] {
        links.push(link(
            d.near(v(-900.0, side * 380.0, 470.0), 30.0),
            d.near(v(0.0, side * 430.0, 340.0), 20.0),
        ));
    }
    links.push(link(d.near(v(-760.0, 300.0, 600.0), 40.0), d.near(v(0.0, 260.0, 580.0), 30.0)));
    let names = ["", "left lower arm", "right lower arm", "left upper arm"];
    let joint = Joint { kind: JointKind::Rubber, bolt: DVec3::X, limits: JointKind::Rubber.limits() };
    let member = |(index, link): (usize, &Link)| Member {
        name: if index == 0 { BodyName::TrackBar } else { BodyName::Arm(names[index].to_owned()) },
        hangs_on: Some(Side::of(link.body.vector().y)),
        assumed: false,
        joints: [joint; 2],
        radius: mm(20.0),
        bend: None,
    };
    let members = links.iter().enumerate().map(member).collect();
    let mut drag = DragLink {
        pitman: BodyPoint::at(d.near(v(130.0, 330.0, 560.0), 30.0)),
        knuckle: AxlePoint::at(d.near(v(150.0, -560.0, 460.0), 20.0)),
        kingpin: AxlePoint::from_mm(0.0, -650.0, AXLE),
        kingpin_axis: v(-0.08, 0.12, 1.0),
        made: Length::ZERO,
    };
    drag.made = drag.straight_length(mm(AXLE), &Pose::RIDE);
    let (back, up) = (d.between(-180.0, -120.0), d.between(360.0, 480.0));
    let ends = [v(back, 610.0, up), v(back, -610.0, up)];
    let sway = SwayLinkage {
        axis: (d.between(380.0, 520.0), d.between(640.0, 760.0)),
        eye_out: 480.0,
        far: d.near(v(150.0, 500.0, 430.0), 30.0),
        on_axle: false,
        arm: Arm { length: mm(320.0), link: mm(310.0), forward: false, link_up: false },
        left_longer: Length::ZERO,
    };
    let (x, z) = sway.axis;
    let mut bodies = vec![
        body(BodyName::AxleTube, Carrier::Axle, &[v(0.0, 600.0, AXLE), v(0.0, -600.0, AXLE)], 40.0),
        body(BodyName::TieRod, Carrier::TieRod, &ends, 16.0),
        body(BodyName::SwayTube, Carrier::Body, &[v(x, 400.0, z), v(x, -400.0, z)], 22.0),
        body(
            BodyName::Driveshaft,
            Carrier::Between,
            &[v(-700.0, 60.0, 560.0), v(-160.0, 120.0, 430.0)],
            38.0,
        ),
    ];
    for (place, side) in [Side::Left, Side::Right].into_iter().enumerate() {
        let sign = side.sign();
        let (ring, out, radius) = tire_ring(v(0.0, sign * 780.0, AXLE), DVec3::Y, 800.0, 260.0);
        let tire = body(BodyName::Tire(side), Carrier::Knuckle(side), &ring, radius);
        bodies.push(Body { ring: Some(out), ..tire });
        let arm = [v(0.0, sign * 650.0, 390.0), ends[place]];
        bodies.push(body(BodyName::SteeringArm(side), Carrier::Knuckle(side), &arm, 20.0));
        for (rod, name) in [(1, BodyName::SwayArm(side)), (3, BodyName::SwayLink(side))] {
            bodies.push(body(name, Carrier::Sway { rod: rod + place, on_axle: false }, &[], 13.0));
        }
    }
    for number in 0..3 {
        let at = v(d.between(-300.0, 300.0), d.between(-450.0, 450.0), d.between(520.0, 760.0));
        let name = BodyName::Typed(format!("part {number}"));
        bodies.push(body(name, Carrier::Body, &[at, d.near(at, 120.0)], d.between(10.0, 40.0)));
    }
    let parts = Parts {
        suspension: Suspension::new(mm(AXLE), links, None, Held::default()),
        members,
        bar: Some(0),
        radius_arms: None,
        bodies,
        steering: Some((drag, mm(15.0))),
        steering_assumed: false,
        knuckles: Some(Knuckles {
            kingpins: [v(0.0, 650.0, AXLE), v(0.0, -650.0, AXLE)],
            axes: [v(-0.08, -0.12, 1.0), v(-0.08, 0.12, 1.0)],
            lock: Angle::from_degrees(d.between(25.0, 38.0)),
            tie_rod: Some(ends),
        }),
        sway: Some(sway),
        stops: stops(d.between(60.0, 110.0), d.between(80.0, 130.0)),
        driven: Length::ZERO,
    };
    Mechanism::new(parts, &Pose::RIDE)
}

/// The least gap of a pair in a pose over so many turns of the wheels, from the bodies' own places.
fn sampled(mechanism: &Mechanism, posed: &travel::Worst, turns: usize) -> f64 {
    let Watched::Gap { first, second } = mechanism.watches()[posed.watch].what else { return f64::INFINITY };
    let lock = mechanism.lock();
    let radius = |index: usize| mechanism.bodies()[index].radius.to_mm();
    let at = |turn: f64| {
        let [a, b] = [first, second].map(|index| mechanism.placed(&posed.posed, index, Some(turn)));
        let (Some(a), Some(b)) = (a, b) else { return f64::INFINITY };
        let round = |index: usize, points: &[DVec3]| Ring {
            centre: points[0],
            axis: points[1] - points[0],
            out: mechanism.bodies()[index].ring.unwrap(),
            radius: radius(index),
        };
        match [first, second].map(|index| mechanism.bodies()[index].ring.is_some()) {
            [true, _] => round(first, &a).gap(&b, radius(second)).distance,
            [_, true] => round(second, &b).gap(&a, radius(first)).distance,
            _ => gap(&a, radius(first), &b, radius(second)).distance,
        }
    };
    let steered = [first, second].iter().any(|index| mechanism.bodies()[*index].carrier.is_steered());
    if !steered {
        return at(0.0);
    }
    (0..turns)
        .map(|step| at(lock * (2.0 * step as f64 / (turns - 1) as f64 - 1.0)))
        .fold(f64::INFINITY, f64::min)
}

/// Whether no pose of a grid four times as fine, no turn four times as fine, inside the stops or half an inch past them,
/// is nearer by more than half a millimetre than the worst that was found.
fn holds_on_a_fine_grid(seed: u64) {
    let whole = rig(seed);
    let (mechanism, grid) = travel::watched(&whole, &travel::envelope(&whole, 41).unwrap(), 50.0);
    let worst = travel::worst(&mechanism, &grid);
    let past: Vec<Worst> =
        worst.iter().map(|found| travel::worst_past_the_stops(&mechanism, found, mm(12.7))).collect();
    assert!(
        worst.iter().filter(|found| mechanism.watches()[found.watch].is_gap()).count() > 5,
        "rig {seed} has pairs that come near"
    );
    let further = mechanism.stops().further(mm(12.7));
    let fine = travel::envelope(&mechanism, 161).unwrap();
    let mut values = Vec::new();
    for (index, posed) in fine.poses.iter().enumerate() {
        let Some(posed) = posed else { continue };
        if !further.allow(posed.left, posed.right) {
            continue;
        }
        mechanism.values(posed, &mut values);
        for (found, past) in worst.iter().zip(&past) {
            let watch = mechanism.watches()[found.watch];
            let limit = if fine.allowed[index] { found } else { past };
            if !watch.is_gap() || values[found.watch] > limit.value + 5.0 {
                continue;
            }
            let here = sampled(&mechanism, &Worst { posed: *posed, ..*limit }, 33);
            assert!(
                here > limit.value - 0.5,
                "rig {seed}: {:?} is {here} at {}, {}, told {} at {}, {}",
                watch.what,
                posed.left,
                posed.right,
                limit.value,
                limit.posed.left,
                limit.posed.right
            );
        }
    }
}

#[test]
fn no_sampled_place_is_nearer() {
    holds_on_a_fine_grid(1);
}

#[test]
#[ignore = "minutes; run in release"]
fn no_sampled_place_is_nearer_in_two_hundred_rigs() {
    (1..=200).for_each(holds_on_a_fine_grid);
}
