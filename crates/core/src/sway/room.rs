//! The hole a moving rod wants in a panel.

use glam::DVec3;

/// A flat panel by the direction it faces and where it stands, mm.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Plane {
    /// Across the vehicle, so far forward.
    Across(f64),
    /// Along the vehicle, so far to the left.
    Along(f64),
    /// Level, so high.
    Level(f64),
}

impl Plane {
    /// Index of the axis it faces, and of the two that lie in it.
    #[must_use]
    pub const fn axes(self) -> (usize, usize, usize) {
        match self {
            Self::Across(_) => (0, 1, 2),
            Self::Along(_) => (1, 0, 2),
            Self::Level(_) => (2, 0, 1),
        }
    }

    const fn at(self) -> f64 {
        match self {
            Self::Across(at) | Self::Along(at) | Self::Level(at) => at,
        }
    }
}

/// Least and most along both axes of the panel.
pub type Outline = [(f64, f64); 2];

/// What a round rod from `a` to `b` covers of a panel, ends rounded; None where it does not reach
/// it. A rod through the panel at a slope leaves an ellipse: half as wide along an axis as
/// r·√(1 + (d_axis/d_normal)²), d the rod's direction.
#[must_use]
pub fn covers(a: DVec3, b: DVec3, radius: f64, plane: Plane) -> Option<Outline> {
    let (normal, first, second) = plane.axes();
    let (from, to) = (a[normal] - plane.at(), b[normal] - plane.at());
    let around = |at: DVec3, half: [f64; 2]| {
        [(at[first] - half[0], at[first] + half[0]), (at[second] - half[1], at[second] + half[1])]
    };
    if from * to > 0.0 {
        let (near, far, end, other) = if from.abs() < to.abs() { (from, to, a, b) } else { (to, from, b, a) };
        let (near, far) = (near.abs(), far.abs());
        if near >= radius {
            return None;
        }
        // As much of the rod as is nearer than its radius, and nowhere wider than at its near end.
        let reaches = if far > radius { (radius - near) / (far - near) } else { 1.0 };
        let cap = (radius * radius - near * near).sqrt();
        let along = end.lerp(other, reaches);
        return Some(self::around(around(end, [cap; 2]), around(along, [cap; 2])));
    }
    let along = b - a;
    let share = if from == to { 0.5 } else { from / (from - to) };
    let at = a + along * share;
    // Nearly along the panel the ellipse is longer than the rod: no further than its own round ends.
    Some([first, second].map(|axis| {
        let slope = if along[normal] == 0.0 { f64::INFINITY } else { along[axis] / along[normal] };
        let half = radius * slope.hypot(1.0);
        let (low, high) = (a[axis].min(b[axis]) - radius, a[axis].max(b[axis]) + radius);
        ((at[axis] - half).max(low), (at[axis] + half).min(high))
    }))
}

/// The smallest outline around both.
#[must_use]
pub fn around(a: Outline, b: Outline) -> Outline {
    [0, 1].map(|axis: usize| (a[axis].0.min(b[axis].0), a[axis].1.max(b[axis].1)))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::pose::clearance::gap;
    use proptest::prelude::*;

    fn v(x: f64, y: f64, z: f64) -> DVec3 {
        DVec3::new(x, y, z)
    }

    #[test]
    fn a_rod_square_through_a_panel_leaves_a_circle() {
        let hole = covers(v(-50.0, 300.0, 500.0), v(50.0, 300.0, 500.0), 12.0, Plane::Across(10.0)).unwrap();
        assert_eq!(hole, [(288.0, 312.0), (488.0, 512.0)]);
        assert_eq!(covers(v(-50.0, 0.0, 0.0), v(-20.0, 0.0, 0.0), 12.0, Plane::Across(10.0)), None);
    }

    #[test]
    fn at_a_slope_of_3_in_4_it_is_longer_by_5_in_4() {
        let hole = covers(v(-40.0, 0.0, -30.0), v(40.0, 0.0, 30.0), 8.0, Plane::Across(0.0)).unwrap();
        assert_eq!(hole, [(-8.0, 8.0), (-10.0, 10.0)]);
    }

    /// A rod 60 up and 2 through the panel, which it meets at its foot: the ellipse would be 30 times as long as
    /// wide, and the rod ends long before.
    #[test]
    fn nearly_along_the_panel_it_ends_where_the_rod_does() {
        let hole = covers(v(0.0, 5.0, 100.0), v(2.0, 5.0, 160.0), 8.0, Plane::Across(0.0)).unwrap();
        assert_eq!(hole, [(-3.0, 13.0), (92.0, 168.0)]);
    }

    #[test]
    fn a_round_end_touches_before_its_middle() {
        // 6 of 10 away: √(10² − 6²) = 8.
        let hole = covers(v(-90.0, 5.0, 7.0), v(-6.0, 5.0, 7.0), 10.0, Plane::Across(0.0)).unwrap();
        for ((least, most), at) in hole.into_iter().zip([5.0, 7.0]) {
            assert!((least - at + 8.0).abs() < 1e-9 && (most - at - 8.0).abs() < 1e-9, "{hole:?}");
        }
    }

    proptest! {
        /// A rod beside the panel, too: level with it or nearly.
        #[test]
        fn nor_of_one_that_only_grazes_it(
            ax in 1.0..14.0_f64, bx in 1.0..40.0_f64, ay in -50.0..50.0_f64, by in -50.0..50.0_f64,
            r in 4.0..15.0_f64, y in -80.0..80.0_f64, z in -80.0..80.0_f64,
        ) {
            let (a, b) = (v(ax, ay, 0.0), v(bx, by, 20.0));
            if gap(&[v(0.0, y, z)], 0.0, &[a, b], r).distance < -1e-9 {
                let hole = covers(a, b, r, Plane::Across(0.0)).unwrap();
                prop_assert!((hole[0].0..=hole[0].1).contains(&y) && (hole[1].0..=hole[1].1).contains(&z));
            }
        }

        /// Every point of the rod's skin that lies in the panel is inside of the outline.
        #[test]
        fn no_point_of_the_rod_is_outside(
            ax in -90.0..-5.0_f64, bx in 5.0..90.0_f64, ay in -50.0..50.0_f64, by in -50.0..50.0_f64,
            az in -50.0..50.0_f64, bz in -50.0..50.0_f64, r in 4.0..15.0_f64, y in -80.0..80.0_f64, z in -80.0..80.0_f64,
        ) {
            let (a, b) = (v(ax, ay, az), v(bx, by, bz));
            let here = v(0.0, y, z);
            let hole = covers(a, b, r, Plane::Across(0.0)).unwrap();
            for (axis, (least, most)) in [1, 2].into_iter().zip(hole) {
                prop_assert!(least >= a[axis].min(b[axis]) - r && most <= a[axis].max(b[axis]) + r, "{hole:?}");
            }
            if gap(&[here], 0.0, &[a, b], r).distance < -1e-9 {
                prop_assert!((hole[0].0 - 1e-6..=hole[0].1 + 1e-6).contains(&y), "{hole:?} {y}");
                prop_assert!((hole[1].0 - 1e-6..=hole[1].1 + 1e-6).contains(&z), "{hole:?} {z}");
            }
        }
    }
}
