//! The pose solver against closed forms, numeric roots, symmetry and itself turned round.

use derecho_core::bar::FrontView;
use derecho_core::bar::rolled::EyesInSpace;
use derecho_core::measure::{Angle, Length, Side};
use derecho_core::pose::{
    AxlePoint, BodyPoint, Held, Link, Motion, Pose, PoseFault, Start, Suspension, WindUp,
};
use proptest::prelude::*;

const AXLE: f64 = 400.0;

fn mm(value: f64) -> Length {
    Length::from_mm(value)
}

fn degrees(value: f64) -> Angle {
    Angle::from_degrees(value)
}

/// A link as long as its ends are apart at ride height.
fn link(body: [f64; 3], axle: [f64; 3]) -> Link {
    let far: f64 = body.iter().zip(axle).map(|(b, a)| (b - a).powi(2)).sum();
    Link {
        body: BodyPoint::from_mm(body[0], body[1], body[2]),
        axle: AxlePoint::from_mm(axle[0], axle[1], axle[2]),
        made: mm(far.sqrt()),
        stiffness: None,
    }
}

fn bar() -> Link {
    link([30.0, 390.0, 620.0], [10.0, -410.0, 510.0])
}

fn three_arms() -> Vec<Link> {
    vec![
        link([-900.0, 380.0, 470.0], [0.0, 430.0, 340.0]),
        link([-900.0, -380.0, 470.0], [0.0, -430.0, 340.0]),
        link([-760.0, 300.0, 610.0], [0.0, 260.0, 580.0]),
    ]
}

fn held_by(links: Vec<Link>) -> Suspension {
    Suspension::new(mm(AXLE), links, None, Held::default())
}

fn leaf_springs(bar: Link) -> Suspension {
    let held = Held { x: true, y: false, pitch: true, yaw: true };
    Suspension::new(mm(AXLE), vec![bar], None, held)
}

fn radius_arms() -> Suspension {
    let links = vec![
        link([-950.0, 350.0, 520.0], [0.0, 420.0, 400.0]),
        link([-950.0, -350.0, 520.0], [0.0, -420.0, 400.0]),
        bar(),
    ];
    Suspension::new(mm(AXLE), links, Some(WindUp { left: 0, right: 1 }), Held::default())
}

fn y_link(spread: f64) -> Suspension {
    held_by(vec![
        link([900.0, 400.0, 460.0], [0.0, 420.0, 330.0]),
        link([900.0, -400.0, 460.0], [0.0, -420.0, 330.0]),
        link([650.0, spread, 640.0], [0.0, 0.0, 600.0]),
        link([650.0, -spread, 640.0], [0.0, 0.0, 600.0]),
    ])
}

/// How far every link is from its made length in a pose, worked out from the ends alone.
fn misfit(suspension: &Suspension, pose: &Pose) -> f64 {
    suspension
        .links()
        .iter()
        .map(|link| ((pose.place(mm(AXLE), link.axle) - link.body).length() - link.made.to_mm()).abs())
        .fold(0.0, f64::max)
}

#[test]
fn three_arms_and_a_bar_close_to_a_billionth_of_a_millimetre() {
    let mut links = three_arms();
    links.push(bar());
    let suspension = held_by(links);
    for (z, roll) in [(0.0, 0.0), (90.0, 0.0), (-110.0, 0.0), (10.0, 9.0), (-40.0, -11.0), (60.0, 5.0)] {
        let solved = suspension.solve(mm(z), degrees(roll), Start::default()).unwrap();
        assert!(misfit(&suspension, &solved.pose) < 1e-9, "{z} {roll}");
    }
}

#[test]
fn parallel_equal_arms_move_the_axle_on_a_circle_without_turning_it() {
    // Four arms of 800 mm, level, all parallel: x = √(800² − z²) − 800 and no pitch.
    let arm = |y: f64, z: f64| link([-800.0, y, z], [0.0, y, z]);
    let mut links = vec![arm(400.0, 330.0), arm(-400.0, 330.0), arm(300.0, 560.0)];
    links.push(link([0.0, 4000.0, 500.0], [0.0, -4000.0, 500.0]));
    let suspension = held_by(links);
    let solved = suspension.solve(mm(120.0), Angle::ZERO, Start::default()).unwrap();
    let along: f64 = (800.0_f64.powi(2) - 120.0_f64.powi(2)).sqrt() - 800.0;
    assert!((solved.pose.x.to_mm() - along).abs() < 0.05, "{:?}", solved.pose);
    assert!(solved.pose.pitch.to_degrees().abs() < 0.01);
    // The circle of the long bar is nearly a line: 120²/(2·8000) of sideways motion.
    assert!((solved.pose.y.to_mm() - 120.0_f64.powi(2) / 16_000.0).abs() < 0.01);
}

#[test]
fn a_radius_arm_takes_the_axle_round_its_frame_eye_in_heave() {
    let suspension = radius_arms();
    let rise = 80.0;
    let solved = suspension.solve(mm(rise), Angle::ZERO, Start::default()).unwrap();
    // Both bushes are at rest, so axle and arm are one: the wrist goes from 120 below the
    // frame eye at a reach of √(70² + 950²) to 40 below it, the arm being as long as before.
    let arm = (950.0_f64.powi(2) + 70.0_f64.powi(2) + 120.0_f64.powi(2)).sqrt();
    let ahead = (arm.powi(2) - 70.0_f64.powi(2) - 40.0_f64.powi(2)).sqrt();
    let turned = (120.0_f64 / 950.0).atan() - (40.0_f64 / ahead).atan();
    assert!(solved.wind_up.iter().all(|e| e.to_degrees().abs() < 0.03), "{:?}", solved.wind_up);
    // Going up at its front end, an arm that points forward turns the axle's top backward.
    assert!((solved.pose.pitch.to_radians() + turned).abs() < 2e-3, "{:?}", solved.pose);
}

#[test]
fn in_roll_the_bushes_of_radius_arms_wind_up_alike_and_against_each_other() {
    let suspension = radius_arms();
    let solved = suspension.solve(Length::ZERO, degrees(8.0), Start::default()).unwrap();
    let [left, right] = solved.wind_up.map(Angle::to_degrees);
    assert!((left + right).abs() < 1e-9 && left.abs() > 2.0, "{left} {right}");
    assert!(misfit(&suspension, &solved.pose) < 1e-9);
}

#[test]
fn a_y_link_keeps_the_axle_centred_over_all_its_travel() {
    let suspension = y_link(330.0);
    for step in -12..=12 {
        let solved = suspension.solve(mm(f64::from(step) * 10.0), Angle::ZERO, Start::default()).unwrap();
        assert!(solved.pose.y.to_mm().abs() < 1e-9, "{step}");
        assert!(solved.pose.yaw.to_degrees().abs() < 1e-9, "{step}");
    }
    // In roll its point stays over the centreline, and the axle goes with its lean.
    let leant = suspension.solve(Length::ZERO, degrees(10.0), Start::default()).unwrap();
    let point = leant.pose.place(mm(AXLE), AxlePoint::from_mm(0.0, 0.0, 600.0));
    assert!(point.to_mm()[1].abs() < 8.0, "{point:?}");
}

#[test]
fn the_roll_centre_of_a_y_link_is_near_its_point() {
    let solved = y_link(330.0).solve(Length::ZERO, Angle::ZERO, Start::default()).unwrap();
    assert!((AXLE + solved.sideways_per_roll - 600.0).abs() < 15.0, "{}", solved.sideways_per_roll);
}

#[test]
fn what_nothing_holds_is_named() {
    let without_bar = held_by(three_arms());
    assert_eq!(without_bar.loose(Start::default(), Length::ZERO, Angle::ZERO), Some(Motion::Sideways));
    // Two level arms and a bar: the axle can turn about its tube.
    let rolling = held_by(vec![
        link([-900.0, 400.0, 400.0], [0.0, 400.0, 400.0]),
        link([-900.0, -400.0, 400.0], [0.0, -400.0, 400.0]),
        link([0.0, 400.0, 400.0], [0.0, -400.0, 400.0]),
        // A second bar beside the first is a fourth link and holds nothing new.
        link([0.0, 300.0, 400.0], [0.0, -500.0, 400.0]),
    ]);
    assert_eq!(rolling.loose(Start::default(), Length::ZERO, Angle::ZERO), Some(Motion::Pitch));
    let held = held_by(three_arms().into_iter().chain([bar()]).collect());
    assert_eq!(held.loose(Start::default(), Length::ZERO, Angle::ZERO), None);
}

#[test]
fn a_bar_that_cannot_reach_is_named_where_the_quick_model_says() {
    // Reach 300, rise 100: pulled tight in droop at √(300² + 100²) − 100 = 216.2 mm.
    let suspension = leaf_springs(link([0.0, 150.0, 600.0], [0.0, -150.0, 500.0]));
    let tight = (300.0_f64.powi(2) + 100.0_f64.powi(2)).sqrt() - 100.0;
    let mut trail = Start::default();
    for step in 0..=215 {
        trail = suspension.solve(mm(-f64::from(step)), Angle::ZERO, trail).unwrap().start();
    }
    let beyond = suspension.solve(mm(-tight - 1.0), Angle::ZERO, trail);
    assert!(matches!(beyond, Err(PoseFault::OutOfReach { link: 0, .. })), "{beyond:?}");
}

#[test]
fn bind_is_the_least_that_the_links_can_agree_on() {
    let mut links = three_arms();
    links.push(link([-760.0, -300.0, 560.0], [0.0, -260.0, 580.0]));
    links.push(bar());
    let suspension = held_by(links);
    assert!(suspension.solve(Length::ZERO, Angle::ZERO, Start::default()).unwrap().bind.to_mm() < 1e-9);
    let solved = suspension.solve(mm(20.0), degrees(8.0), Start::default()).unwrap();
    assert!(solved.bind.to_mm() > 0.05, "{:?}", solved.bind);
    let squares = |pose: &Pose| -> f64 {
        let off = |l: &Link| (pose.place(mm(AXLE), l.axle) - l.body).length() - l.made.to_mm();
        suspension.links().iter().map(|l| off(l).powi(2)).sum()
    };
    let least = squares(&solved.pose);
    for (dx, dy) in [(0.2, 0.0), (-0.2, 0.0), (0.0, 0.2), (0.0, -0.2)] {
        let mut near = solved.pose;
        near.x = near.x + mm(dx);
        near.y = near.y + mm(dy);
        assert!(squares(&near) > least);
    }
    for turn in [0.02, -0.02] {
        let pitched = Pose { pitch: solved.pose.pitch + degrees(turn), ..solved.pose };
        let yawed = Pose { yaw: solved.pose.yaw + degrees(turn), ..solved.pose };
        assert!(squares(&pitched) > least && squares(&yawed) > least);
    }
}

#[test]
fn stiff_links_keep_their_length_and_soft_ones_give() {
    let mut links = three_arms();
    links.push(link([-760.0, -300.0, 560.0], [0.0, -260.0, 580.0]));
    links.push(bar());
    for link in &mut links {
        link.stiffness = Some(2000.0);
    }
    links[3].stiffness = Some(1.0);
    let solved = held_by(links).solve(mm(20.0), degrees(8.0), Start::default()).unwrap();
    assert_eq!(solved.bind_link, 3);
}

#[test]
fn the_roll_centre_is_the_slope_of_sideways_motion() {
    let mut links = three_arms();
    links.push(bar());
    for suspension in [held_by(links), radius_arms(), y_link(300.0)] {
        let at = |roll: f64| suspension.solve(mm(15.0), degrees(roll), Start::default()).unwrap();
        let step = 0.01;
        let slope = (at(4.0 + step).pose.y - at(4.0 - step).pose.y).to_mm() / (2.0 * step.to_radians());
        assert!((at(4.0).sideways_per_roll - slope).abs() < 1e-3);
    }
}

/// The quick model with roll.
fn quick(bar: &Link, z: f64, roll: f64) -> f64 {
    let (frame, axle) = (bar.body.to_mm(), bar.axle.to_mm());
    let eyes = EyesInSpace { frame, axle, length: bar.made, axle_height: mm(AXLE) };
    eyes.sideways(mm(z), degrees(roll)).expect("the bar reaches").to_mm()
}

fn any_bar() -> impl Strategy<Value = Link> {
    let frame = (-60.0..60.0, 250.0..480.0, 480.0..760.0);
    let axle = (-60.0..60.0, -480.0..-250.0, 380.0..620.0);
    (frame, axle, any::<bool>()).prop_map(|(f, a, right)| {
        let turn = if right { -1.0 } else { 1.0 };
        link([f.0, turn * f.1, f.2], [a.0, turn * a.1, a.2])
    })
}

fn mirrored(link: &Link) -> Link {
    Link { body: link.body.mirrored(), axle: link.axle.mirrored(), ..*link }
}

proptest! {
    #[test]
    fn on_leaf_springs_the_solver_is_the_quick_model(bar in any_bar(), z in -120.0..120.0, roll in -10.0..10.0) {
        let solved = leaf_springs(bar).solve(mm(z), degrees(roll), Start::default()).unwrap();
        prop_assert!((solved.pose.y.to_mm() - quick(&bar, z, roll)).abs() < 1e-6);
        prop_assert_eq!(solved.pose.x, Length::ZERO);
    }

    #[test]
    fn in_heave_it_is_the_front_view(bar in any_bar(), z in -120.0..120.0) {
        let ([fx, fy, fz], [ax, ay, az]) = (bar.body.to_mm(), bar.axle.to_mm());
        let side = Side::of(fy - ay);
        let view = FrontView::new(bar.made, mm(fz - az), mm(fx - ax), side).unwrap();
        let solved = leaf_springs(bar).solve(mm(z), Angle::ZERO, Start::default()).unwrap();
        prop_assert!((solved.pose.y - view.shift_at(mm(z))).abs().to_mm() < 1e-6);
    }

    #[test]
    fn on_leaf_springs_the_roll_centre_lies_on_the_bar(bar in any_bar()) {
        let solved = leaf_springs(bar).solve(Length::ZERO, Angle::ZERO, Start::default()).unwrap();
        let ([_, fy, fz], [_, ay, az]) = (bar.body.to_mm(), bar.axle.to_mm());
        let on_bar = az + (fz - az) * -ay / (fy - ay);
        prop_assert!((AXLE + solved.sideways_per_roll - on_bar).abs() < 1e-6);
    }

    #[test]
    fn the_mirrored_axle_does_the_mirrored_thing(bar in any_bar(), z in -80.0..80.0, roll in -9.0..9.0) {
        let links: Vec<Link> = three_arms().into_iter().chain([bar]).collect();
        let here = held_by(links.clone()).solve(mm(z), degrees(roll), Start::default()).unwrap();
        let there = held_by(links.iter().map(mirrored).collect())
            .solve(mm(z), degrees(-roll), Start::default())
            .unwrap();
        prop_assert!((here.pose.y + there.pose.y).abs().to_mm() < 1e-9);
        prop_assert!((here.pose.x - there.pose.x).abs().to_mm() < 1e-9);
        prop_assert!((here.pose.yaw.to_radians() + there.pose.yaw.to_radians()).abs() < 1e-11);
        prop_assert!((here.pose.pitch.to_radians() - there.pose.pitch.to_radians()).abs() < 1e-11);
        prop_assert!((here.sideways_per_roll - there.sideways_per_roll).abs() < 1e-6);
    }

    #[test]
    fn it_comes_back_to_ride_height(z in -100.0..100.0, roll in -10.0..10.0) {
        let suspension = radius_arms();
        let mut trail = Start::default();
        for step in (0..=10).chain((0..10).rev()) {
            let share = f64::from(step) / 10.0;
            trail = suspension.solve(mm(z * share), degrees(roll * share), trail).unwrap().start();
        }
        let back = suspension.solve(Length::ZERO, Angle::ZERO, trail).unwrap().pose;
        let off = [back.x, back.y].map(|l| l.to_mm().abs()).into_iter().fold(0.0, f64::max);
        prop_assert!(off < 1e-9 && back.pitch.to_degrees().abs() < 1e-9 && back.yaw.to_degrees().abs() < 1e-9);
    }
}

#[test]
fn held_sideways_the_bar_is_as_long_as_its_eyes_are_apart() {
    let mut links = three_arms();
    links.push(bar());
    let suspension = held_by(links);
    let over = suspension.held_sideways(mm(9.0), mm(0.0), Some(3), Start::default()).unwrap();
    let apart = (over.pose.place(mm(AXLE), bar().axle) - bar().body).length();
    let longer = Link { made: mm(apart), ..bar() };
    let solved = suspension.with_link(3, longer).solve(Length::ZERO, Angle::ZERO, Start::default()).unwrap();
    assert!((solved.pose.y.to_mm() - 9.0).abs() < 1e-9, "{:?}", solved.pose);
}

/// Four splayed arms want the axle elsewhere than where it is held: it is held there to the last digit, and
/// no nearby x, pitch or yaw has the links stretched less in all.
#[test]
fn what_is_held_is_held_exactly_and_the_rest_gives_least() {
    let arms = vec![
        link([800.0, 420.0, 420.0], [0.0, 520.0, 330.0]),
        link([800.0, -400.0, 430.0], [0.0, -510.0, 335.0]),
        link([650.0, 330.0, 560.0], [-20.0, 180.0, 540.0]),
        link([640.0, -340.0, 555.0], [-20.0, -200.0, 545.0]),
    ];
    let axle = held_by(arms);
    for (y, z) in [(25.0, -60.0), (-30.0, 50.0), (12.0, 0.0)] {
        let held = axle.held_sideways(mm(y), mm(z), None, Start::default()).unwrap().pose;
        assert_eq!(held.y, mm(y));
        let stretched = |pose: &Pose| {
            let gaps = axle.links().iter().map(|link| {
                let end = pose.place(mm(AXLE), link.axle);
                (end - link.body).length() - link.made.to_mm()
            });
            gaps.map(|gap| gap * gap).sum::<f64>()
        };
        let least = stretched(&held);
        assert!(least > 1e-4, "nothing gives: {least}");
        let step = 1e-3;
        for pose in [
            Pose { x: held.x + mm(step), ..held },
            Pose { x: held.x - mm(step), ..held },
            Pose { pitch: held.pitch + degrees(step), ..held },
            Pose { pitch: held.pitch - degrees(step), ..held },
            Pose { yaw: held.yaw + degrees(step), ..held },
            Pose { yaw: held.yaw - degrees(step), ..held },
        ] {
            assert!(stretched(&pose) > least - 1e-12, "{} {least}", stretched(&pose));
        }
    }
}
