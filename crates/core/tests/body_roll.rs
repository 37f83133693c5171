//! The vehicle in roll against a simulation of it: moments balanced step by step as the ground twists.

use derecho_core::measure::{Angle, Force, Length, RollRate, SpringRate};
use derecho_core::sway::body_roll::{
    AxleRoll, TwistEnd, preload, roll_gradient, spring_roll_rate, trail_twist,
};
use derecho_core::sway::splined::{least_length, mass, next_made, rate_for_gradient, solid_for, stick_out};
use proptest::prelude::*;

const fn rate(newton_mm: f64) -> RollRate {
    RollRate::from_nmm_per_radian(newton_mm)
}

/// An axle's roll rate, N·mm/rad.
fn k(axle: &AxleRoll) -> f64 {
    axle.rate().to_nmm_per_radian()
}

fn axle() -> impl Strategy<Value = AxleRoll> {
    (8e6..60e6_f64, 0.0..40e6_f64, 4000.0..16_000.0_f64, 1300.0..1800.0_f64, 0.05..0.35_f64).prop_map(
        |(springs, bar, weight, track, most_roll)| AxleRoll {
            springs: rate(springs),
            bar: rate(bar),
            weight: Force::from_n(weight),
            track: Length::from_mm(track),
            most_roll: Angle::from_radians(most_roll),
            tyres: None,
        },
    )
}

/// Roll of the frame that balances the moments, by halving: both axles turn it back, gravity on.
fn frame_roll(front: &AxleRoll, rear: &AxleRoll, overturning: f64, ground: f64) -> f64 {
    // The front axle stands turned by the ground, the rear level.
    let moment = |frame: f64| k(front) * (ground - frame) - k(rear) * frame + overturning * frame;
    let (mut low, mut high) = (-20.0, 20.0);
    for _ in 0..200 {
        let middle = f64::midpoint(low, high);
        if moment(middle) > 0.0 {
            low = middle;
        } else {
            high = middle;
        }
    }
    f64::midpoint(low, high)
}

proptest! {
    /// At the twist told, the balance found by halving just meets the limit told, and a little before
    /// nothing is met.
    #[test]
    fn the_first_limit_is_met_where_a_simulation_meets_it(front in axle(), rear in axle(), share in 0.0..0.6_f64) {
        let overturning = share * (k(&front) + k(&rear));
        let (twist, end) = trail_twist(&front, &rear, rate(overturning)).expect("it stands");
        let twist = twist.to_radians();
        let used = |twist: f64| {
            let frame = frame_roll(&front, &rear, overturning, twist);
            let (at_front, at_rear) = ((twist - frame).abs(), frame.abs());
            [
                (TwistEnd::FrontLifts, k(&front) * at_front / (front.weight * front.track).to_nmm() * 2.0),
                (TwistEnd::RearLifts, k(&rear) * at_rear / (rear.weight * rear.track).to_nmm() * 2.0),
                (TwistEnd::FrontLimit, at_front / front.most_roll.to_radians()),
                (TwistEnd::RearLimit, at_rear / rear.most_roll.to_radians()),
            ]
        };
        for (which, used_up) in used(twist) {
            prop_assert!(used_up <= 1.0 + 1e-9, "{which:?} {used_up}");
            if which == end {
                prop_assert!((used_up - 1.0).abs() < 1e-9, "{which:?} {used_up}");
            }
        }
        for (_, used_up) in used(twist * 0.99) {
            prop_assert!(used_up < 1.0);
        }
    }

    /// On the road: the lean found by halving at one g.
    #[test]
    fn the_roll_gradient_is_the_balance_at_one_g(front in axle(), rear in axle(), share in 0.01..0.8_f64) {
        let overturning = share * (k(&front) + k(&rear));
        let (mut low, mut high) = (0.0, 400.0);
        for _ in 0..200 {
            let middle = f64::midpoint(low, high);
            // Sideways force times the lever, and the weight that leans with it, against the rates.
            if overturning + overturning * middle > (k(&front) + k(&rear)) * middle {
                low = middle;
            } else {
                high = middle;
            }
        }
        let reported = roll_gradient(&front, &rear, rate(overturning)).expect("it stands").to_radians();
        prop_assert!((reported / f64::midpoint(low, high) - 1.0).abs() < 1e-9);
    }

    /// Both ends changed over: the same twist, the other end's name.
    #[test]
    fn front_and_rear_are_alike(front in axle(), rear in axle()) {
        let (one, end) = trail_twist(&front, &rear, RollRate::ZERO).expect("it stands");
        let (other, turned) = trail_twist(&rear, &front, RollRate::ZERO).expect("it stands");
        prop_assert!((one.to_radians() / other.to_radians() - 1.0).abs() < 1e-9);
        let mirrored = match end {
            TwistEnd::FrontLifts => TwistEnd::RearLifts,
            TwistEnd::RearLifts => TwistEnd::FrontLifts,
            TwistEnd::FrontLimit => TwistEnd::RearLimit,
            TwistEnd::RearLimit => TwistEnd::FrontLimit,
        };
        prop_assert_eq!(turned, mirrored);
    }

    /// More of anything that holds it up never rolls it more; a soft tyre always does.
    #[test]
    fn stiffer_rolls_less_and_tyres_give(front in axle(), rear in axle(), more in 1e5..2e7_f64, tyre in 5e7..5e8_f64) {
        let overturning = 0.3 * (k(&front) + k(&rear));
        let roll = |front: &AxleRoll| roll_gradient(front, &rear, rate(overturning));
        let stiffer = front.with_bar(front.bar + rate(more));
        prop_assert!(roll(&stiffer) < roll(&front));
        let soft = AxleRoll { tyres: Some(rate(tyre)), ..front };
        // Springs in series: 1/K = 1/K_springs + 1/K_tyres.
        prop_assert!((1.0 / k(&soft) - 1.0 / k(&front) - 1.0 / tyre).abs() < 1e-15);
        if let Some(soft) = roll(&soft) {
            prop_assert!(Some(soft) > roll(&front));
        }
    }

    /// Preload by balance: a bar twisted by Δl/a at rest turns its own axle and the frame until the
    /// moments agree; what is left of its moment over the track is the change at each wheel.
    #[test]
    fn preload_is_what_balances(
        effective in 1e6..6e6_f64, longer in 1.0..30.0_f64, a in 180.0..350.0_f64, b in 350.0..600.0_f64,
        this in axle(), other in axle(),
    ) {
        // Level arm and upright link: the bar sees 2b/a of twist for each radian of roll.
        let per_roll = 2.0 * b / a;
        let bar = effective * per_roll * per_roll;
        let this = this.with_bar(rate(bar));
        // Frame rolled by φ against both axles, which stand level: −K_springs·φ − K_other·φ + the bar's.
        let moment = |roll: f64| {
            effective * (longer / a - per_roll * roll) * per_roll - (this.springs.to_nmm_per_radian() + k(&other)) * roll
        };
        let (mut low, mut high) = (-10.0, 10.0);
        for _ in 0..200 {
            let middle = f64::midpoint(low, high);
            if moment(middle) > 0.0 { low = middle } else { high = middle }
        }
        let roll = f64::midpoint(low, high);
        // The other axle alone turns the frame back against this one: a couple over this one's track.
        let expected = k(&other) * roll / this.track.to_mm();
        let mm = Length::from_mm;
        let reported = preload(rate(effective), (mm(longer), mm(a)), mm(b), &this, &other).to_n();
        prop_assert!((reported / expected - 1.0).abs() < 1e-6, "{reported} {expected}");
    }

    /// The next length made is never shorter than is needed, and none between is left out.
    #[test]
    fn the_next_made_is_the_least_that_is_enough(least in 700.0..1100.0_f64, made in prop::collection::vec(600.0..1300.0_f64, 0..8)) {
        let made: Vec<Length> = made.into_iter().map(Length::from_mm).collect();
        let least = Length::from_mm(least);
        match next_made(least, &made) {
            None => prop_assert!(made.iter().all(|length| *length < least)),
            Some(index) => {
                prop_assert!(made[index] >= least);
                prop_assert!(made.iter().all(|length| *length < least || *length >= made[index]));
            }
        }
    }
}

#[test]
fn sizes_of_a_splined_bar_by_hand() {
    // A frame 31 in wide: 34 in of bar at least, 1 1/2 in out on each side.
    let frame = Length::from_inches(31.0);
    let least = least_length(frame);
    assert!((least.to_inches() - 34.0).abs() < 1e-9);
    assert!((stick_out(least, frame).to_inches() - 1.5).abs() < 1e-9);
    // A solid bar of 25 mm over 900 mm has 3.379 015 kN·m/rad of torsion.
    let d = solid_for(rate(3_379_015.0), Length::from_mm(900.0)).to_mm();
    assert!((d - 25.0).abs() < 1e-4, "{d}");
    // 1 cm³ of it weighs 7.85 g: 10 × 10 × 4/π of bar.
    let cube = Length::from_mm(10.0);
    assert!((mass(cube, Length::ZERO, cube * 4.0 / std::f64::consts::PI).to_kg() - 0.007_85).abs() < 1e-12);
    // At a radian to the g both axles hold twice the overturning moment.
    let both = rate_for_gradient(rate(5e6), Angle::from_radians(1.0));
    assert!((both.to_nmm_per_radian() - 10e6).abs() < 1e-6);
}

#[test]
fn a_vehicle_that_falls_over_is_none() {
    let axle = |springs| AxleRoll {
        springs: rate(springs),
        bar: RollRate::ZERO,
        weight: Force::from_n(9000.0),
        track: Length::from_mm(1500.0),
        most_roll: Angle::from_radians(0.2),
        tyres: None,
    };
    assert_eq!(roll_gradient(&axle(1e6), &axle(1e6), rate(2e6)), None);
    assert_eq!(trail_twist(&axle(1e6), &axle(1e6), rate(2.5e6)), None);
    let springs = spring_roll_rate(SpringRate::from_n_per_mm(35.0), Length::from_mm(1000.0));
    assert_eq!(springs, rate(17.5e6));
}
