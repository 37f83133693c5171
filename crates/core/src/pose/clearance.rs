//! Clearance: bars, links and obstacles as chains of capsules, and the least distance
//! between two of them.

use glam::DVec3;

/// A chain of straight pieces of one radius: a straight bar has two points, a bent one
/// more. An obstacle is a chain of two points, or one for a ball.
#[derive(Clone, Debug, PartialEq)]
pub struct Chain {
    /// Points along the middle, in order, in millimetres.
    pub points: Vec<DVec3>,
    /// Radius, in millimetres.
    pub radius: f64,
}

/// The least gap between two chains and where it is.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Gap {
    /// Between the surfaces, in millimetres; negative where they run into each other.
    pub distance: f64,
    /// The nearest point on the middle of the first.
    pub on_first: DVec3,
    /// The nearest point on the middle of the second.
    pub on_second: DVec3,
}

/// The least gap between two chains given by their points and radii.
#[must_use]
pub fn gap(first: &[DVec3], first_radius: f64, second: &[DVec3], second_radius: f64) -> Gap {
    let mut best = Gap { distance: f64::INFINITY, on_first: DVec3::ZERO, on_second: DVec3::ZERO };
    for a in pieces(first) {
        for b in pieces(second) {
            let (on_first, on_second) = nearest(a, b);
            let distance = on_first.distance(on_second);
            if distance < best.distance {
                best = Gap { distance, on_first, on_second };
            }
        }
    }
    best.distance -= first_radius + second_radius;
    best
}

/// The straight pieces of a chain; a single point is a piece without length.
fn pieces(points: &[DVec3]) -> impl Iterator<Item = (DVec3, DVec3)> + Clone + '_ {
    let alone = (points.len() == 1).then(|| (points[0], points[0]));
    points.windows(2).map(|pair| (pair[0], pair[1])).chain(alone)
}

/// The nearest points of two segments (the usual clamped solution of the two linear
/// equations; parallel ones take the first end).
fn nearest((p, p_end): (DVec3, DVec3), (q, q_end): (DVec3, DVec3)) -> (DVec3, DVec3) {
    let (u, v, w) = (p_end - p, q_end - q, p - q);
    let (a, b, c) = (u.length_squared(), u.dot(v), v.length_squared());
    let (d, e) = (u.dot(w), v.dot(w));
    // Square of the parallelogram the two span: nought where parallel or without length.
    let area = a * c - b * b;
    let mut s = if area > 1e-9 * a * c { ((b * e - c * d) / area).clamp(0.0, 1.0) } else { 0.0 };
    let mut t = if c > 0.0 { (b * s + e) / c } else { 0.0 };
    if !(0.0..=1.0).contains(&t) {
        t = t.clamp(0.0, 1.0);
    }
    if a > 0.0 {
        s = ((b * t - d) / a).clamp(0.0, 1.0);
    }
    (p + u * s, q + v * t)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn v(x: f64, y: f64, z: f64) -> DVec3 {
        DVec3::new(x, y, z)
    }

    #[test]
    fn crossing_bars_are_apart_by_their_levels() {
        let found =
            gap(&[v(-9.0, 0.0, 0.0), v(9.0, 0.0, 0.0)], 2.0, &[v(0.0, -5.0, 10.0), v(0.0, 7.0, 10.0)], 3.0);
        assert_eq!(found.distance, 5.0);
        assert_eq!((found.on_first, found.on_second), (v(0.0, 0.0, 0.0), v(0.0, 0.0, 10.0)));
    }

    #[test]
    fn parallel_end_to_end_and_ball() {
        let bar = [v(0.0, 0.0, 0.0), v(10.0, 0.0, 0.0)];
        assert_eq!(gap(&bar, 1.0, &[v(2.0, 4.0, 0.0), v(30.0, 4.0, 0.0)], 1.0).distance, 2.0);
        assert_eq!(gap(&bar, 0.0, &[v(13.0, 4.0, 0.0), v(30.0, 4.0, 0.0)], 0.0).distance, 5.0);
        assert_eq!(gap(&bar, 1.0, &[v(5.0, 0.0, 9.0)], 2.0).distance, 6.0);
        assert_eq!(gap(&bar, 1.0, &[v(5.0, 0.0, 1.0)], 2.0).distance, -2.0);
    }

    #[test]
    fn a_bend_comes_nearer_than_the_straight_line() {
        let bent = [v(0.0, 0.0, 0.0), v(50.0, 0.0, 20.0), v(100.0, 0.0, 0.0)];
        assert_eq!(gap(&bent, 5.0, &[v(50.0, 0.0, 60.0)], 10.0).distance, 25.0);
    }

    fn place() -> impl Strategy<Value = DVec3> {
        (-100.0..100.0, -100.0..100.0, -100.0..100.0).prop_map(|(x, y, z)| v(x, y, z))
    }

    proptest! {
        #[test]
        fn no_sampled_pair_of_points_is_nearer(a in place(), b in place(), c in place(), d in place()) {
            let found = gap(&[a, b], 0.0, &[c, d], 0.0).distance;
            for i in 0..=20 {
                for j in 0..=20 {
                    let (s, t) = (f64::from(i) / 20.0, f64::from(j) / 20.0);
                    prop_assert!(a.lerp(b, s).distance(c.lerp(d, t)) >= found - 1e-9);
                }
            }
        }

        #[test]
        fn it_does_not_matter_which_comes_first(a in place(), b in place(), c in place(), d in place()) {
            let there = gap(&[a, b], 3.0, &[c, d], 4.0).distance;
            let back = gap(&[c, d], 4.0, &[b, a], 3.0).distance;
            prop_assert!((there - back).abs() < 1e-9);
        }
    }
}
