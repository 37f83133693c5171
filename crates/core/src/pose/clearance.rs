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
    // Squares are compared: one root for all pieces.
    let (mut least, mut on_first, mut on_second) = (f64::INFINITY, DVec3::ZERO, DVec3::ZERO);
    for a in 0..pieces(first) {
        for b in 0..pieces(second) {
            let (here, there) = nearest(piece(first, a), piece(second, b));
            let square = here.distance_squared(there);
            if square < least {
                (least, on_first, on_second) = (square, here, there);
            }
        }
    }
    Gap { distance: least.sqrt() - (first_radius + second_radius), on_first, on_second }
}

/// The least gap between two straight pieces: [`gap`] of two chains of two points each.
#[must_use]
#[inline]
///
/// ```
/// use derecho_core::pose::clearance::straight_gap;
/// use glam::DVec3;
///
/// // Two rods crossing 100 mm apart, 20 and 30 mm thick.
/// let across = [DVec3::new(-500.0, 0.0, 0.0), DVec3::new(500.0, 0.0, 0.0)];
/// let along = [DVec3::new(0.0, -500.0, 100.0), DVec3::new(0.0, 500.0, 100.0)];
/// let gap = straight_gap(across, 10.0, along, 15.0);
/// assert!((gap.distance - 75.0).abs() < 1e-9);
/// ```
pub fn straight_gap(first: [DVec3; 2], first_radius: f64, second: [DVec3; 2], second_radius: f64) -> Gap {
    let (on_first, on_second) = nearest((first[0], first[1]), (second[0], second[1]));
    let distance = on_first.distance(on_second) - (first_radius + second_radius);
    Gap { distance, on_first, on_second }
}

/// The distance of [`straight_gap`] alone: from the ends' differences, without placing the nearest points.
#[must_use]
#[inline]
pub fn straight_distance(
    first: [DVec3; 2],
    first_radius: f64,
    second: [DVec3; 2],
    second_radius: f64,
) -> f64 {
    let (u, v, w) = (first[1] - first[0], second[1] - second[0], first[0] - second[0]);
    let (s, t) = shares(u, v, w);
    (w + u * s - v * t).length() - (first_radius + second_radius)
}

/// How many straight pieces a chain has; a single point is a piece without length.
const fn pieces(points: &[DVec3]) -> usize {
    if points.len() == 1 { 1 } else { points.len().saturating_sub(1) }
}

fn piece(points: &[DVec3], index: usize) -> (DVec3, DVec3) {
    (points[index], points[(index + 1).min(points.len() - 1)])
}

/// The nearest points of two segments (the usual clamped solution of the two linear
/// equations; parallel ones take the first end).
#[inline]
fn nearest((p, p_end): (DVec3, DVec3), (q, q_end): (DVec3, DVec3)) -> (DVec3, DVec3) {
    let (u, v) = (p_end - p, q_end - q);
    let (s, t) = shares(u, v, p - q);
    (p + u * s, q + v * t)
}

/// How far along both segments `u` and `v` their nearest points lie, 0 to 1; `w` is from the second's beginning to the
/// first's.
#[inline]
fn shares(u: DVec3, v: DVec3, w: DVec3) -> (f64, f64) {
    let (a, b, c) = (u.length_squared(), u.dot(v), v.length_squared());
    let (d, e) = (u.dot(w), v.dot(w));
    // Square of the parallelogram the two span: nought where parallel or without length.
    let area = a * c - b * b;
    // Divided before any of it is needed: three divisions beside one another, not one after the other.
    let (per_area, per_a, per_c) = (1.0 / area, 1.0 / a, 1.0 / c);
    let mut s = if area > 1e-9 * a * c { ((b * e - c * d) * per_area).clamp(0.0, 1.0) } else { 0.0 };
    let t = if c > 0.0 { ((b * s + e) * per_c).clamp(0.0, 1.0) } else { 0.0 };
    if a > 0.0 {
        s = ((b * t - d) * per_a).clamp(0.0, 1.0);
    }
    (s, t)
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
        fn straight_pieces_are_chains_of_two(a in place(), b in place(), c in place(), d in place()) {
            let found = gap(&[a, b], 3.0, &[c, d], 4.0);
            prop_assert_eq!(straight_gap([a, b], 3.0, [c, d], 4.0), found);
            prop_assert!((straight_distance([a, b], 3.0, [c, d], 4.0) - found.distance).abs() < 1e-9);
        }

        #[test]
        fn it_does_not_matter_which_comes_first(a in place(), b in place(), c in place(), d in place()) {
            let there = gap(&[a, b], 3.0, &[c, d], 4.0).distance;
            let back = gap(&[c, d], 4.0, &[b, a], 3.0).distance;
            prop_assert!((there - back).abs() < 1e-9);
        }
    }
}
