//! Bump steer and roll steer against a numeric root, and the cases that are exactly nought.

use derecho_core::measure::{Angle, Length};
use derecho_core::pose::drag_link::DragLink;
use derecho_core::pose::{AxlePoint, BodyPoint, Pose};
use glam::DVec3;
use proptest::prelude::*;

const AXLE: Length = Length::from_mm(400.0);

fn drag_link(pitman: [f64; 3], knuckle: [f64; 3], axis: DVec3) -> DragLink {
    let mut link = DragLink {
        pitman: BodyPoint::from_mm(pitman[0], pitman[1], pitman[2]),
        knuckle: AxlePoint::from_mm(knuckle[0], knuckle[1], knuckle[2]),
        kingpin: AxlePoint::from_mm(0.0, -650.0, 400.0),
        kingpin_axis: axis,
        made: Length::ZERO,
    };
    link.made = link.straight_length(AXLE, &Pose::RIDE);
    link
}

fn heave(mm: f64, sideways: f64) -> Pose {
    Pose { z: Length::from_mm(mm), y: Length::from_mm(sideways), ..Pose::RIDE }
}

/// δ by halving, from the length of the link alone.
fn by_halving(link: &DragLink, pose: &Pose) -> f64 {
    let off = |delta: f64| {
        let end = link.knuckle_place(AXLE, pose, Angle::from_radians(delta));
        (end - link.pitman).length() - link.made.to_mm()
    };
    let (mut low, mut high) = (-0.4, 0.4);
    let rising = off(high) > off(low);
    for _ in 0..60 {
        let middle = (low + high) / 2.0;
        if (off(middle) > 0.0) == rising { high = middle } else { low = middle }
    }
    low
}

proptest! {
    #[test]
    fn the_closed_form_is_the_numeric_root(
        z in -70.0..70.0, y in -10.0..10.0, roll in -5.0..5.0,
        lean in -0.2..0.2, caster in -0.15..0.15, rise in -60.0..60.0,
    ) {
        let link = drag_link([130.0, 330.0, 520.0 + rise], [150.0, -560.0, 480.0], DVec3::new(caster, lean, 1.0));
        let pose = Pose { roll: Angle::from_degrees(roll), ..heave(z, y) };
        let steer = link.steer(AXLE, &pose, Angle::ZERO).unwrap().to_radians();
        prop_assert!((steer - by_halving(&link, &pose)).abs() < 1e-9);
    }
}

#[test]
fn straight_ahead_at_ride_height() {
    let link = drag_link([130.0, 330.0, 600.0], [150.0, -560.0, 480.0], DVec3::Z);
    assert!(link.steer(AXLE, &Pose::RIDE, Angle::ZERO).unwrap().to_radians().abs() < 1e-12);
}

#[test]
fn a_bar_equal_and_parallel_to_the_drag_link_steers_nothing_in_heave() {
    // Bar and link are both (20, 890, 120): the axle goes with the link on the same circle.
    let link = drag_link([130.0, 330.0, 600.0], [110.0, -560.0, 480.0], DVec3::Z);
    let length = link.made.to_mm();
    for z in [-110.0, -35.0, 60.0, 95.0] {
        let reach = |rise: f64| (length * length - 20.0 * 20.0 - rise * rise).sqrt();
        // Frame eye left: the axle goes left by h(0) − h(z), v = 120 − z.
        let shift = reach(120.0) - reach(120.0 - z);
        let steer = link.steer(AXLE, &heave(z, shift), Angle::ZERO).unwrap();
        assert!(steer.to_degrees().abs() < 1e-9, "{z}: {steer:?}");
    }
}

#[test]
fn an_axle_held_still_is_steered_by_the_arc_of_the_link() {
    // By hand: level link of reach 900, arm 150 forward of a kingpin 90 out of the knuckle
    // end's line. 60 mm up the link's end goes 60²/(2·900) = 2 mm towards the pitman; the
    // knuckle turns by about 2/150 rad, to the left as the left side is pulled.
    let link = drag_link([150.0, 250.0, 480.0], [150.0, -650.0, 480.0], DVec3::Z);
    let steer = link.steer(AXLE, &heave(60.0, 0.0), Angle::ZERO).unwrap().to_degrees();
    assert!((steer.abs() - (2.0_f64 / 150.0).to_degrees()).abs() < 0.02, "{steer}");
    // Pulled left ahead of the kingpin, the wheel points left.
    let ahead = link.steer(AXLE, &heave(0.0, -5.0), Angle::ZERO).unwrap().to_degrees();
    assert!(ahead > 0.0, "{ahead}");
}

#[test]
fn an_axle_moved_sideways_wants_a_link_longer_or_shorter_by_nearly_that() {
    let link = drag_link([150.0, 250.0, 480.0], [150.0, -650.0, 480.0], DVec3::Z);
    let there = link.straight_length(AXLE, &heave(0.0, -10.0));
    assert!(((there - link.made).to_mm() - 10.0).abs() < 1e-9);
    let set = DragLink { made: there, ..link };
    assert!(set.steer(AXLE, &heave(0.0, -10.0), Angle::ZERO).unwrap().to_degrees().abs() < 1e-9);
}

#[test]
fn a_link_too_short_for_the_travel_has_no_steer() {
    let link = drag_link([150.0, -450.0, 480.0], [150.0, -650.0, 480.0], DVec3::Z);
    assert_eq!(link.steer(AXLE, &heave(-400.0, 0.0), Angle::ZERO), None);
}

/// Where the drag link does not reach, its knuckle stays turned to where it comes nearest to reaching: whatever
/// turn it was looked for from, and running on from where it just reaches.
#[test]
fn out_of_reach_the_knuckle_is_turned_as_near_as_it_comes() {
    let link = drag_link([130.0, 330.0, 600.0], [150.0, -560.0, 480.0], DVec3::new(-0.06, 0.1, 1.0));
    let placed = |mm: f64| derecho_core::pose::point::Placing::of(&heave(mm, 0.0), AXLE);
    let short = |pose: &Pose, delta: f64| {
        let end = link.knuckle_place(AXLE, pose, Angle::from_radians(delta));
        ((end - link.pitman).length() - link.made.to_mm()).abs()
    };
    // Down until it no longer reaches.
    let edge =
        (0..600).map(|step| -f64::from(step)).find(|mm| !link.turn_at(&placed(*mm), 0.0).reaches).unwrap();
    let last = link.turn_at(&placed(edge + 1.0), 0.0).steer;
    for below in [edge, edge - 5.0, edge - 40.0] {
        let pose = heave(below, 0.0);
        let turn = link.turn_at(&placed(below), 0.0);
        assert!(!turn.reaches && link.steer(AXLE, &pose, Angle::ZERO).is_none());
        let least =
            (-3000..3000).map(|step| short(&pose, f64::from(step) / 1000.0)).fold(f64::INFINITY, f64::min);
        assert!(short(&pose, turn.steer) < least + 1e-3, "{below}: {} {least}", short(&pose, turn.steer));
        for near in [-0.4, 0.3, 1.2] {
            assert!(
                (link.turn_at(&placed(below), near).steer - turn.steer).abs() < 1e-9,
                "{below} from {near}"
            );
        }
    }
    assert!((link.turn_at(&placed(edge), last).steer - last).abs() < 0.15);
}
