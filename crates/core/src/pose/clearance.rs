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

/// A ring, such as a tire: every point so far out from `centre`, square to `axis`.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Ring {
    /// Its centre, mm.
    pub centre: DVec3,
    /// Unit direction of its axis.
    pub axis: DVec3,
    /// How far out its middle line is, mm.
    pub out: f64,
    /// Radius of its round, mm.
    pub radius: f64,
}

impl Ring {
    /// Distance of a point from its middle line, mm.
    #[inline]
    fn distance_to(&self, at: DVec3) -> f64 {
        let from = at - self.centre;
        let along = from.dot(self.axis);
        let out = (from.length_squared() - along * along).max(0.0).sqrt();
        let off = out - self.out;
        // By its squares: nothing here is so long or short that they would not do.
        (off * off + along * along).sqrt()
    }

    /// The point of its middle line nearest to another.
    fn nearest_to(&self, at: DVec3) -> DVec3 {
        let from = at - self.centre;
        let out = from - self.axis * from.dot(self.axis);
        self.centre + out.normalize_or(self.axis.any_orthonormal_vector()) * self.out
    }

    /// The gap of a chain of round pieces to it: along each piece where it is least at twenty-five places, and between their
    /// neighbours by golden section.
    ///
    /// ```
    /// use derecho_core::pose::clearance::Ring;
    /// use glam::DVec3;
    ///
    /// let tire = Ring { centre: DVec3::ZERO, axis: DVec3::Y, out: 275.0, radius: 125.0 };
    /// // A rod 10 mm thick 500 mm above the hub, across the tread.
    /// let rod = [DVec3::new(0.0, -50.0, 500.0), DVec3::new(0.0, 50.0, 500.0)];
    /// assert!((tire.gap(&rod, 5.0).distance - 95.0).abs() < 1e-6);
    /// ```
    #[must_use]
    pub fn gap(&self, chain: &[DVec3], radius: f64) -> Gap {
        const PLACES: usize = 25;
        const GOLDEN: f64 = 0.618_033_988_749_894_8;
        let (mut least, mut nearest) = (f64::INFINITY, chain[0]);
        for index in 0..pieces(chain) {
            let (from, to) = piece(chain, index);
            let at = |share: f64| self.distance_to(from.lerp(to, share));
            let place = |step: usize| step as f64 / (PLACES - 1) as f64;
            let distances: [f64; PLACES] = std::array::from_fn(|step| at(place(step)));
            let best = (0..PLACES).min_by(|a, b| distances[*a].total_cmp(&distances[*b])).unwrap_or(0);
            // A piece that is no nearer than the least by more than half its spacing is passed over.
            let spacing = from.distance(to) / (PLACES - 1) as f64;
            if distances[best] - spacing > least {
                continue;
            }
            let (mut low, mut high) = (place(best.saturating_sub(1)), place((best + 1).min(PLACES - 1)));
            let (mut one, mut other) = (high - GOLDEN * (high - low), low + GOLDEN * (high - low));
            let (mut near, mut far) = (at(one), at(other));
            while (high - low) * spacing > 0.01 && high - low > 1e-6 {
                if near < far {
                    (high, other, far) = (other, one, near);
                    one = high - GOLDEN * (high - low);
                    near = at(one);
                } else {
                    (low, one, near) = (one, other, far);
                    other = low + GOLDEN * (high - low);
                    far = at(other);
                }
            }
            let found = [(distances[best], place(best)), (near, one), (far, other)];
            for (distance, share) in found {
                if distance < least {
                    (least, nearest) = (distance, from.lerp(to, share));
                }
            }
        }
        Gap { distance: least - radius - self.radius, on_first: nearest, on_second: self.nearest_to(nearest) }
    }

    /// About [`Self::gap`] of one straight piece: the least at five places, and by the parabola between them.
    #[must_use]
    pub fn distance_at_a_glance(&self, [from, to]: [DVec3; 2], radius: f64) -> f64 {
        const PLACES: usize = 5;
        let distances: [f64; PLACES] =
            std::array::from_fn(|step| self.distance_to(from.lerp(to, step as f64 / (PLACES - 1) as f64)));
        let best = (0..PLACES).min_by(|a, b| distances[*a].total_cmp(&distances[*b])).unwrap_or(0);
        let mut least = distances[best];
        if best > 0 && best < PLACES - 1 {
            let [before, after] = [distances[best - 1] - least, distances[best + 1] - least];
            if before + after > 0.0 {
                least -= (after - before).powi(2) / (8.0 * (after + before));
            }
        }
        least - radius - self.radius
    }

    /// No more than [`Self::gap`]: whatever lies on one side of the flat it stands in is no nearer than to that flat,
    /// whatever is outside of it no nearer than to a ball round it.
    #[must_use]
    #[inline]
    pub fn bound(&self, chain: &[DVec3], radius: f64) -> f64 {
        let (mut least, mut most) = (f64::INFINITY, f64::NEG_INFINITY);
        for at in chain {
            let along = (*at - self.centre).dot(self.axis);
            (least, most) = (least.min(along), most.max(along));
        }
        let beside = if least > 0.0 {
            least
        } else if most < 0.0 {
            -most
        } else {
            0.0
        };
        beside - radius - self.radius
    }
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

    /// A tire 800 tall and 250 wide: from above, from inside, and along its axis through the hub, where nothing stands.
    #[test]
    fn a_tire_is_as_tall_and_as_wide_as_it_is() {
        let tire = Ring { centre: v(0.0, 750.0, 400.0), axis: DVec3::Y, out: 275.0, radius: 125.0 };
        assert!((tire.gap(&[v(0.0, 750.0, 900.0)], 0.0).distance - 100.0).abs() < 1e-9);
        assert!((tire.gap(&[v(0.0, 600.0, 675.0)], 0.0).distance - 25.0).abs() < 1e-9);
        assert!((tire.gap(&[v(0.0, 750.0, 400.0)], 0.0).distance - 150.0).abs() < 1e-9);
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

        /// No place along a rod is nearer to any of 720 places of the ring, and one of them is about as near.
        #[test]
        fn a_rod_beside_a_ring(a in place(), b in place(), axis in place(), out in 20.0..120.0_f64) {
            let Some(axis) = axis.try_normalize() else { return Ok(()) };
            let ring = Ring { centre: v(10.0, -20.0, 5.0), axis, out, radius: 0.0 };
            let found = ring.gap(&[a, b], 0.0);
            prop_assert!(ring.bound(&[a, b], 0.0) <= found.distance + 1e-9);
            prop_assert!((found.on_first.distance(found.on_second) - found.distance).abs() < 1e-9);
            let (up, along) = axis.any_orthonormal_pair();
            let mut least = f64::INFINITY;
            for step in 0..720 {
                let (sin, cos) = (std::f64::consts::TAU * f64::from(step) / 720.0).sin_cos();
                let at = ring.centre + (up * cos + along * sin) * out;
                least = least.min(gap(&[a, b], 0.0, &[at], 0.0).distance);
            }
            prop_assert!(found.distance <= least + 0.05 && found.distance >= least - 0.3, "{} {}", found.distance, least);
        }

        #[test]
        fn it_does_not_matter_which_comes_first(a in place(), b in place(), c in place(), d in place()) {
            let there = gap(&[a, b], 3.0, &[c, d], 4.0).distance;
            let back = gap(&[c, d], 4.0, &[b, a], 3.0).distance;
            prop_assert!((there - back).abs() < 1e-9);
        }
    }
}
