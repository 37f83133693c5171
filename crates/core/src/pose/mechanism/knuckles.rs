//! How the knuckles turn on the axle as the wheels are steered.

use glam::{DQuat, DVec3};

use crate::measure::{Angle, Side};

/// Both knuckles of a steered axle. Points are the axle's, mm, named at ride height with the wheels straight.
#[derive(Clone, Debug, PartialEq)]
pub struct Knuckles {
    /// A point of each kingpin, left first.
    pub kingpins: [DVec3; 2],
    /// The kingpins' directions, pointing up; need not be unit.
    pub axes: [DVec3; 2],
    /// How far the left wheel turns either way.
    pub lock: Angle,
    /// The tie rod's ends, left first; without it both wheels turn alike.
    pub tie_rod: Option<[DVec3; 2]>,
}

impl Knuckles {
    /// Where a point of a knuckle is on the axle once that knuckle has turned, radians, + left.
    ///
    /// ```
    /// use derecho_core::measure::{Angle, Side};
    /// use derecho_core::pose::mechanism::Knuckles;
    /// use glam::DVec3;
    ///
    /// let kingpins = [DVec3::new(0.0, 700.0, 400.0), DVec3::new(0.0, -700.0, 400.0)];
    /// let knuckles = Knuckles { kingpins, axes: [DVec3::Z; 2], lock: Angle::from_degrees(35.0), tie_rod: None };
    /// // A steering arm that points back goes to the right as the wheel turns left by a quarter.
    /// let end = knuckles.turned(Side::Left, DVec3::new(-150.0, 700.0, 400.0), std::f64::consts::FRAC_PI_2);
    /// assert!(end.distance(DVec3::new(0.0, 550.0, 400.0)) < 1e-9);
    /// assert_eq!(knuckles.right_turn(0.3), 0.3);
    /// ```
    #[must_use]
    pub fn turned(&self, side: Side, point: DVec3, turn: f64) -> DVec3 {
        let at = usize::from(side == Side::Right);
        let turning = DQuat::from_axis_angle(self.axes[at].normalize_or(DVec3::Z), turn);
        self.kingpins[at] + turning * (point - self.kingpins[at])
    }

    /// How far the right knuckle has turned where the left one has by `turn`, radians: the tie rod keeps its length.
    #[must_use]
    pub fn right_turn(&self, turn: f64) -> f64 {
        let Some([left, right]) = self.tie_rod else { return turn };
        let made = left.distance(right);
        let end = self.turned(Side::Left, left, turn);
        let too_long = |right_turn: f64| end.distance(self.turned(Side::Right, right, right_turn)) - made;
        // By secants: the two turns never differ by much.
        let (mut before, mut at) = (turn - 0.02, turn);
        let mut off_before = too_long(before);
        for _ in 0..12 {
            let off = too_long(at);
            if off.abs() < 1e-9 || (off - off_before).abs() < 1e-15 {
                break;
            }
            let step = (off * (at - before) / (off - off_before)).clamp(-0.2, 0.2);
            (before, off_before) = (at, off);
            at -= step;
        }
        // Past where it locks up nothing turns so far.
        if too_long(at).abs() < 0.5 { at } else { turn }
    }

    /// Where the tie rod's ends are on the axle where the left knuckle has turned by `turn`, radians.
    #[must_use]
    pub fn tie_rod_at(&self, turn: f64) -> Option<[DVec3; 2]> {
        let [left, right] = self.tie_rod?;
        Some([self.turned(Side::Left, left, turn), self.turned(Side::Right, right, self.right_turn(turn))])
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn knuckles(in_board: f64, behind: f64) -> Knuckles {
        let pin = |side: f64| DVec3::new(0.0, side * 700.0, 400.0);
        let end = |side: f64| DVec3::new(-behind, side * (700.0 - in_board), 380.0);
        Knuckles {
            kingpins: [pin(1.0), pin(-1.0)],
            axes: [DVec3::Z; 2],
            lock: Angle::from_degrees(35.0),
            tie_rod: Some([end(1.0), end(-1.0)]),
        }
    }

    /// Arms that point straight back make a parallelogram: both wheels turn alike, and the rod swings back by r(1 - cos).
    #[test]
    fn straight_arms_turn_alike() {
        let knuckles = knuckles(0.0, 150.0);
        let turn = 30.0_f64.to_radians();
        assert!((knuckles.right_turn(turn) - turn).abs() < 1e-9);
        let [left, right] = knuckles.tie_rod_at(turn).unwrap();
        // Turned to the left, an arm that points back goes to the right, by r sin.
        assert!(
            (left.y - (700.0 - 75.0)).abs() < 1e-9 && (left.x + 150.0 * turn.cos()).abs() < 1e-9,
            "{left}"
        );
        assert!((right.y - (-700.0 - 75.0)).abs() < 1e-9);
    }

    /// With the ends drawn in behind the axle the inner wheel turns further than the outer one.
    #[test]
    fn drawn_in_ends_turn_the_inner_wheel_further() {
        let knuckles = knuckles(30.0, 150.0);
        let turn = 30.0_f64.to_radians();
        // To the left the left wheel is the inner one.
        assert!(knuckles.right_turn(turn) < turn && knuckles.right_turn(-turn) < -turn);
        assert!((knuckles.right_turn(-turn) + turn).abs() > 0.02);
    }

    proptest! {
        #[test]
        fn the_tie_rod_keeps_its_length(
            in_board in -30.0..40.0_f64,
            behind in 130.0..200.0_f64,
            degrees in -38.0..38.0_f64,
        ) {
            let knuckles = knuckles(in_board, behind);
            let [left, right] = knuckles.tie_rod_at(degrees.to_radians()).unwrap();
            let [was_left, was_right] = knuckles.tie_rod.unwrap();
            prop_assert!((left.distance(right) - was_left.distance(was_right)).abs() < 1e-6);
            for (side, now, was) in [(Side::Left, left, was_left), (Side::Right, right, was_right)] {
                let pin = knuckles.kingpins[usize::from(side == Side::Right)];
                prop_assert!((now.distance(pin) - was.distance(pin)).abs() < 1e-9);
            }
        }
    }
}
