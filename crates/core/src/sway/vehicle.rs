//! The whole vehicle in roll: how far it leans on the road, and how far it twists on the
//! trail before something ends it. Two axles, small angles, springs and bars as rates.

/// One axle's share of the roll. Rates in N·mm/rad, lengths in mm, weights in N.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct AxleRoll {
    /// Springs alone.
    pub springs: f64,
    /// The sway bar at ride height.
    pub bar: f64,
    /// Weight on the axle.
    pub weight: f64,
    /// Track.
    pub track: f64,
    /// Roll at which a stop, a link or a joint ends it, rad.
    pub most_roll: f64,
    /// Roll rate of both tyres, where it is known.
    pub tyres: Option<f64>,
}

impl AxleRoll {
    /// Springs and bar, tyres in series where known: K/(1 + K/K_tyre).
    #[must_use]
    pub fn rate(&self) -> f64 {
        let alone = self.springs + self.bar;
        self.tyres.map_or(alone, |tyres| alone / (1.0 + alone / tyres))
    }

    /// The same axle with another bar.
    #[must_use]
    pub const fn with_bar(self, bar: f64) -> Self {
        Self { bar, ..self }
    }
}

/// Roll rate of a pair of springs: ½·k·spacing², N·mm/rad, k in N/mm.
#[must_use]
pub fn spring_roll_rate(rate: f64, spacing: f64) -> f64 {
    0.5 * rate * spacing * spacing
}

/// Roll on the road, degrees per g: m·g·H/(K_front + K_rear − m·g·H), `overturning` being
/// m_s·g·H in N·mm. None where the vehicle would not stand.
#[must_use]
pub fn roll_gradient(front: &AxleRoll, rear: &AxleRoll, overturning: f64) -> Option<f64> {
    let left = front.rate() + rear.rate() - overturning;
    (left > 0.0).then(|| (overturning / left).to_degrees())
}

/// What ends the twist first.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum TwistEnd {
    /// A front wheel lifts.
    FrontLifts,
    /// A rear wheel lifts.
    RearLifts,
    /// Travel, links or joints at the front.
    FrontLimit,
    /// Travel, links or joints at the rear.
    RearLimit,
}

/// Twist of the ground between the axles, rad, at which something ends it, and what: the
/// frame rolls φ_b = K_f·θ/(K_f + K_r − m·g·H), the rear against it by φ_b, the front by θ − φ_b;
/// a wheel lifts at K·φ = W·track/2. None where the vehicle would not stand.
#[must_use]
pub fn trail_twist(front: &AxleRoll, rear: &AxleRoll, overturning: f64) -> Option<(f64, TwistEnd)> {
    let (k_f, k_r) = (front.rate(), rear.rate());
    let left = k_f + k_r - overturning;
    if left <= 0.0 {
        return None;
    }
    let share_rear = k_f / left;
    let share_front = 1.0 - share_rear;
    let lifts = |axle: &AxleRoll, share: f64| axle.weight * axle.track / 2.0 / (axle.rate() * share.abs());
    let limit = |axle: &AxleRoll, share: f64| axle.most_roll / share.abs();
    [
        (lifts(front, share_front), TwistEnd::FrontLifts),
        (lifts(rear, share_rear), TwistEnd::RearLifts),
        (limit(front, share_front), TwistEnd::FrontLimit),
        (limit(rear, share_rear), TwistEnd::RearLimit),
    ]
    .into_iter()
    .filter(|(twist, _)| twist.is_finite())
    .min_by(|a, b| a.0.total_cmp(&b.0))
}

/// Change of weight at each wheel, N, by unequal links: k_eff·Δl/a²·(2b/track)·K_other/(K_bar +
/// K_springs + K_other).
#[must_use]
pub fn preload(
    effective: f64,
    (difference, arm): (f64, f64),
    half_spacing: f64,
    this: &AxleRoll,
    other: &AxleRoll,
) -> f64 {
    let share = other.rate() / (this.bar + this.springs + other.rate());
    effective * difference / (arm * arm) * (2.0 * half_spacing / this.track) * share
}

#[cfg(test)]
mod tests {
    use super::*;

    fn axle(springs: f64, bar: f64) -> AxleRoll {
        AxleRoll { springs, bar, weight: 10_000.0, track: 1500.0, most_roll: 0.2, tyres: None }
    }

    #[test]
    fn rates_by_hand() {
        assert_eq!(spring_roll_rate(30.0, 1000.0), 15e6);
        let soft = AxleRoll { tyres: Some(30e6), ..axle(15e6, 15e6) };
        assert_eq!(soft.rate(), 15e6);
        // 4e6 over 40e6 − 4e6, in degrees.
        let gradient = roll_gradient(&axle(15e6, 10e6), &axle(15e6, 0.0), 4e6).unwrap();
        assert!((gradient - (1.0_f64 / 9.0).to_degrees()).abs() < 1e-9);
        assert_eq!(roll_gradient(&axle(1e6, 0.0), &axle(1e6, 0.0), 4e6), None);
    }

    #[test]
    fn the_stiffer_axle_lifts_its_wheel_first_and_balance_is_kept() {
        let (front, rear) = (axle(20e6, 30e6), axle(20e6, 0.0));
        let (twist, end) = trail_twist(&front, &rear, 0.0).unwrap();
        // Without overturning both axles carry the same moment: K_f·φ_f = K_r·φ_r.
        let moment = front.rate() * rear.rate() / (front.rate() + rear.rate()) * twist;
        match end {
            TwistEnd::FrontLifts | TwistEnd::RearLifts => assert!((moment - 7.5e6).abs() < 1e-3),
            TwistEnd::RearLimit => assert!((moment / rear.rate() - 0.2).abs() < 1e-12),
            TwistEnd::FrontLimit => panic!("the stiff end rolls least"),
        }
        // Disconnected it twists further.
        let (free, _) = trail_twist(&front.with_bar(0.0), &rear, 0.0).unwrap();
        assert!(free > twist);
    }

    #[test]
    fn preload_by_hand() {
        let (this, other) = (axle(15e6, 5e6), axle(20e6, 0.0));
        // 3e6·10/250²·(1000/1500)·20/40.
        let change = preload(3e6, (10.0, 250.0), 500.0, &this, &other);
        assert!((change - 3e6 * 10.0 / 62_500.0 * (2.0 / 3.0) * 0.5).abs() < 1e-9);
    }
}
